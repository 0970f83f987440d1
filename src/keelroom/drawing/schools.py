"""The schools of control drawn: for each the coolant temperatures its fans start and stop at, across the weather, on
one rail."""

from __future__ import annotations

import math
from collections.abc import Callable

from keelroom.assess.questions.schools import Compared, Comparison
from keelroom.drawing.degrees import HEAD, LEFT, WIDTH, Post, Scale, rail_lines, rail_posts
from keelroom.drawing.scene import Label, Polyline, Rect, Scene, Shape
from keelroom.units import KINDS

MM = 1e-3
ROW = 62.0
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
    low, high = min(ends), min(max(ends), max((v for v in (found.limit,) if v), default=130) + 6)
    scale = Scale((low, high), unit)
    bottom = -HEAD - ROW * len(found.rows)
    told = ((found.thermostat, "thermostat", "rail.thermostat"), (found.limit, "limit", "rail.limit"))
    posts = tuple(Post(value, name, role) for value, name, role in told if value is not None)
    shapes: list[Shape] = [*rail_lines(scale, bottom), *rail_posts(scale, posts, bottom)]
    for k, row in enumerate(found.rows):
        _row(shapes, row, -HEAD - ROW * k, (scale.x, high))
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
