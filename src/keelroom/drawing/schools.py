"""The schools of control drawn: for each the coolant temperatures its fans start and stop at, across the weather, on
one rail."""

from __future__ import annotations

import math
from collections.abc import Callable

from keelroom.assess.questions.schools import Compared, Comparison
from keelroom.drawing.scene import Label, Polyline, Rect, Scene, Shape
from keelroom.units import KINDS, number_text

MM = 1e-3
WIDTH, LEFT, RIGHT, ROW, TOP = 600.0, 24.0, 580.0, 60.0, 66.0
SHOWN_DAYS = ((1, "span.cool"), (3, "span.mild"), (4, "span.hot"))
"""which of the days are drawn, and how"""
BAR = 9.0


def schools_scene(found: Comparison, system: str) -> Scene:
    """A row per school: a bar per day from off to on, and a mark where the engine settles on that day."""
    unit = KINDS["temperature"].shown_unit(system)
    shown = [day for row in found.rows for day in row.days]
    ends = [v for day in shown for v in (day.on, day.off, day.held) if math.isfinite(v)] + [
        v for v in (found.thermostat, found.limit) if v is not None
    ]
    low, high = min(ends) - 3, min(max(ends) + 3, max((v for v in (found.limit,) if v), default=130) + 6)
    shapes: list[Shape] = []

    def x(celsius: float) -> float:
        return LEFT + (RIGHT - LEFT) * (min(max(celsius, low), high) - low) / (high - low)

    bottom = -TOP - ROW * len(found.rows)
    step = 10 if unit.symbol == "°F" else 5
    first = math.ceil((low - unit.offset) / unit.factor / step) * step
    while first * unit.factor + unit.offset < high:
        at = x(first * unit.factor + unit.offset)
        shapes.append(Polyline("rail", ((at * MM, (-TOP + 18) * MM), (at * MM, bottom * MM))))
        shapes.append(Label("el.words", (at * MM, (-TOP + 27) * MM), f"{first}"))
        first += step
    for value, role, name in (
        (found.thermostat, "rail.thermostat", "thermostat"),
        (found.limit, "rail.limit", "limit"),
    ):
        if value is not None:
            shapes.append(Polyline(role, ((x(value) * MM, (-TOP + 18) * MM), (x(value) * MM, bottom * MM))))
            shapes.append(
                Label(
                    "el.words",
                    (x(value) * MM, (-TOP + 50) * MM),
                    f"{name} {number_text(value, unit)} {unit.symbol}",
                    "end" if value > (low + high) / 2 else "middle",
                )
            )
    for k, row in enumerate(found.rows):
        _row(shapes, row, -TOP - ROW * k, (x, high))
    return Scene(tuple(shapes), (0.0, (bottom - 6) * MM, WIDTH * MM, (-bottom + 6) * MM))


def _row(shapes: list[Shape], row: Compared, top: float, rail: tuple[Callable[[float], float], float]) -> None:
    x, high = rail
    name = row.school.name + (" (default)" if row.default else "") + (" (now)" if row.current else "")
    shapes.append(Label("rail.name", (LEFT * MM, (top + 4) * MM), name, "start"))
    for k, (index, role) in enumerate(SHOWN_DAYS):
        day = row.days[index]
        y = top - 16 - (BAR + 3) * k
        if math.isfinite(day.on):
            left, right = x(day.off), x(day.on)
            shapes.append(Rect(role, left * MM, (y - BAR / 2) * MM, max(right - left, 1.5) * MM, BAR * MM, 2 * MM))
        if day.held < high:
            at = x(day.held)
            shapes.append(
                Polyline(
                    "span.held",
                    tuple((px * MM, py * MM) for px, py in ((at, y - 5), (at + 4, y), (at, y + 5), (at - 4, y))),
                    closed=True,
                )
            )
