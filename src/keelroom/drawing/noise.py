"""How loud fan sets are with distance: a car's front from above, and rings at which each is so loud."""

from __future__ import annotations

import math
from collections.abc import Callable

from keelroom.assess.figures.coolernoise import Loud
from keelroom.drawing.scene import Circle, Label, Polyline, Rect, Scene, Shape, on_sheet
from keelroom.units import inches

MM, FOOT = 1e-3, 0.3048
WIDTH, HEIGHT, FRONT = 440.0, 420.0, 84.0
"""room of the sheet; where the grille is"""
REACH = 330.0
"""from the grille to the farthest ring"""
DISTANCES = (1.0, 3.0, 10.0)
"""[m] of the rings"""
LOW, TALL = 0.3, 30.0
SPREAD = math.radians(32.0)


def noise_scene(told: Callable[[float], tuple[Loud, ...]], listening: float, system: str) -> Scene | None:
    """Rings at 1, 3 and 10 m ahead of the grille with the loudness of every fan set there, and where one listens.

    told : how loud every set is at a distance [m]
    """
    sets = [one for one in told(listening) if one.ahead > 0]
    if not sets:
        return None
    shapes: list[Shape] = [
        Rect("picture.block", 6 * MM, -46 * MM, (FRONT - 6) * MM, 92 * MM, 10 * MM),
        Polyline("bar.fan", (on_sheet(FRONT, -30), on_sheet(FRONT, 30))),
        Label("rail.name", on_sheet(12, 0), "grille", "start"),
    ]
    for distance in DISTANCES:
        shapes += _ring(distance, told(distance), system, "rail")
    shapes += _ring(listening, told(listening), system, "rail.limit", "you listen here: ")
    return Scene(tuple(shapes), (0.0, -HEIGHT / 2 * MM, WIDTH * MM, HEIGHT * MM))


def _far(distance: float) -> float:
    """A distance on the sheet: each tenfold as far as the last."""
    part = math.log(distance / LOW) / math.log(TALL / LOW)
    return 30.0 + (REACH - 30.0) * min(max(part, 0.0), 1.0)


def _ring(distance: float, told: tuple[Loud, ...], system: str, role: str, words: str = "") -> list[Shape]:
    """A part of a ring ahead of the grille, with its distance and its levels; of where one listens under the rest."""
    far, own = _far(distance), bool(words)
    turn = -1 if own else 1
    arc = tuple(
        on_sheet(FRONT + far * math.cos(SPREAD * k / 12), far * math.sin(SPREAD * k / 12)) for k in range(-12, 13)
    )
    shapes: list[Shape] = [Polyline(role, arc)]
    levels = [one for one in told if one.ahead > 0]
    x = FRONT + far * math.cos(SPREAD)
    y = turn * (far * math.sin(SPREAD) + 14)
    away = f"{distance / FOOT:.0f} ft" if inches(system) else f"{distance:.1f} m"
    lines = [f"{words}{away}"]
    lines += [f"{one.name}: {one.ahead:.0f} dB(A)" if own else f"{one.ahead:.0f} dB(A)" for one in levels]
    lines = lines if own else lines[::-1]
    how, align = ("el.value", "end") if own else ("el.words", "middle")
    shapes += [Label(how, on_sheet(x, y + turn * 17 * k), line, align) for k, line in enumerate(lines)]
    if own:
        shapes.append(Circle("span.held", on_sheet(FRONT + far, 0), 5 * MM))
    return shapes
