"""Adapter plates: from old mount holes to new ones."""

from __future__ import annotations

import math
from collections.abc import Sequence

from keelroom.core.outline import Point, circle, hull
from keelroom.core.packaging.fixings import edge_wanted
from keelroom.core.packaging.pattern import Hole, Mark, Pattern
from keelroom.core.packaging.sheet import Metal
from keelroom.facts import fact
from keelroom.units import fine_both

ROUND = 24


def adapter_plate(
    name: str,
    holes: tuple[Sequence[Point], Sequence[Point]],
    sizes: tuple[float, float],
    stock: tuple[Metal, float, float],
) -> Pattern:
    """A plate drilled to new holes and old ones, rounded about each. holes: new, old (x, y) [m]; sizes: their
    diameters [m];
    stock: metal, thickness and metal left round each hole's centre [m].

    Source: convex outline round the holes; 1.5 diameters of metal common practice.
    """
    metal, thickness, margin = stock
    drilled = [
        (point, size, mark) for points, size, mark in zip(holes, sizes, ("new", "old"), strict=True) for point in points
    ]
    faults = []
    least = edge_wanted(max(sizes))[0]
    if margin < least - 1e-9:
        faults.append(fact("plate_edge", margin=(margin, "length"), least=(least, "length")))
    for k, (a, da, first) in enumerate(drilled):
        for b, db, second in drilled[k + 1 :]:
            apart = math.dist(a, b)
            if apart < 1e-6 and first != second:
                continue  # one hole that serves both
            if apart < (da + db) / 2 + thickness:
                faults.append(fact("holes_meet", first=first, second=second, apart=(apart, "length")))
    outline = hull([at for centre, _, _ in drilled for at in circle(centre, margin, ROUND)])
    left, bottom = min(x for x, _ in outline), min(y for _, y in outline)

    def at(point: Point) -> Point:
        return (point[0] - left, point[1] - bottom)

    middle = at((sum(x for x, _ in outline) / len(outline), sum(y for _, y in outline) / len(outline)))
    once: dict[tuple[float, float], tuple[Point, float, str]] = {}
    for point, size, mark in drilled:
        once.setdefault((round(point[0], 6), round(point[1], 6)), (point, size, mark))
    return Pattern(
        name,
        f"{metal.name}, {fine_both(thickness)}",
        (tuple(at(point) for point in outline),),
        tuple(Hole(at(point), size, mark) for point, size, mark in once.values()),
        marks=(Mark(middle, name),),
        faults=tuple(dict.fromkeys(faults)),
    )
