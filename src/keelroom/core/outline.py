"""Closed outlines in a plane: area, crossing edges, what lies inside, distances."""

from __future__ import annotations

import math

import numpy as np

from keelroom.core.arrays import Bools, Floats

Point = tuple[float, float]
Outline = tuple[Point, ...]
"""Corners [m] in order, the last joined to the first."""


def area(outline: Outline) -> float:
    """Area [m2], positive where the corners run anticlockwise.

    Source: the shoelace formula.
    """
    return sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in edges(outline)) / 2


def edges(outline: Outline) -> list[tuple[Point, Point]]:
    """The edges, each from its corner to the next.

    Corners (x, y) [m].
    """
    return [(point, outline[(i + 1) % len(outline)]) for i, point in enumerate(outline)]


def crossing(outline: Outline) -> tuple[int, int] | None:
    """Numbers (from 0) of two edges that cross or touch where they should not; None where the outline is simple.

    Corners [m]; none of the first n edges is left out.
    """
    sides = edges(outline)
    count = len(sides)
    for i in range(count):
        for j in range(i + 1, count):
            neighbours = j == i + 1 or (i == 0 and j == count - 1)
            if _cross(*sides[i], *sides[j], neighbours):
                return i, j
    return None


def _turn(a: Point, b: Point, c: Point) -> float:
    return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])


def _between(a: Point, b: Point, p: Point) -> bool:
    return min(a[0], b[0]) <= p[0] <= max(a[0], b[0]) and min(a[1], b[1]) <= p[1] <= max(a[1], b[1])


def _cross(a: Point, b: Point, c: Point, d: Point, neighbours: bool) -> bool:
    if neighbours:
        # Neighbours share a corner; they only fault where one runs back along the other.
        shared, far_one, far_two = (b, a, d) if b == c else (a, b, c)
        back = (far_one[0] - shared[0]) * (far_two[0] - shared[0]) + (far_one[1] - shared[1]) * (far_two[1] - shared[1])
        return abs(_turn(shared, far_one, far_two)) < 1e-12 and back > 0
    one, two, three, four = _turn(a, b, c), _turn(a, b, d), _turn(c, d, a), _turn(c, d, b)
    if one * two < 0 and three * four < 0:
        return True
    return any(
        abs(turn) < 1e-12 and _between(*side, p)
        for turn, side, p in ((one, (a, b), c), (two, (a, b), d), (three, (c, d), a), (four, (c, d), b))
    )


def within(points: tuple[Floats, Floats], outline: Outline) -> Bools:
    """Which points (x and y of any like shape) lie inside, by counting the edges a ray to the right crosses.

    Coordinates [m]. Source: even-odd rule.
    """
    x, y = points
    inside = np.zeros(np.shape(x), bool)
    for (x0, y0), (x1, y1) in edges(outline):
        if y0 == y1:
            continue
        rises = (y0 > y) != (y1 > y)
        inside ^= rises & (x < x0 + (y - y0) / (y1 - y0) * (x1 - x0))
    return inside


def to_edge(point: Point, start: Point, end: Point) -> float:
    """Distance [m] from a point to an edge.

    Source: projection.
    """
    length = math.hypot(end[0] - start[0], end[1] - start[1])
    if length == 0:
        return math.hypot(point[0] - start[0], point[1] - start[1])
    share = ((point[0] - start[0]) * (end[0] - start[0]) + (point[1] - start[1]) * (end[1] - start[1])) / length**2
    share = min(max(share, 0.0), 1.0)
    return math.hypot(
        point[0] - start[0] - share * (end[0] - start[0]), point[1] - start[1] - share * (end[1] - start[1])
    )


def to_outline(point: Point, outline: Outline) -> float:
    """Distance [m] from a point to the nearest edge.

    Source: projection.
    """
    return min(to_edge(point, *side) for side in edges(outline))


def rectangle(left: float, bottom: float, wide: float, high: float) -> Outline:
    """The outline of a rectangle, anticlockwise from its lower left corner.

    left, bottom, width, height [m].
    """
    return ((left, bottom), (left + wide, bottom), (left + wide, bottom + high), (left, bottom + high))


def circle(centre: Point, radius: float, steps: int) -> Outline:
    """A circle as a polygon, anticlockwise.

    radius [m], centre [m].
    """
    turns = [2 * math.pi * k / steps for k in range(steps)]
    return tuple((centre[0] + radius * math.cos(a), centre[1] + radius * math.sin(a)) for a in turns)


Box = tuple[float, float, float, float]
"""Left, bottom, width, height [m]."""


def clipped(outline: Outline, box: Box) -> Outline:
    """The part of a convex outline inside a box; empty where none is. Source: Sutherland and Hodgman, from memory.

    Corners and box [m].
    """
    left, bottom, wide, high = box
    if not outline:
        return ()
    xs, ys = [point[0] for point in outline], [point[1] for point in outline]
    if left <= min(xs) and max(xs) <= left + wide and bottom <= min(ys) and max(ys) <= bottom + high:
        return outline
    if max(xs) < left or min(xs) > left + wide or max(ys) < bottom or min(ys) > bottom + high:
        return ()
    for axis, limit, sign in ((0, left, 1.0), (0, left + wide, -1.0), (1, bottom, 1.0), (1, bottom + high, -1.0)):
        kept: list[Point] = []
        for start, end in edges(outline) if outline else ():
            inside = [sign * (point[axis] - limit) >= 0 for point in (start, end)]
            if inside[0] != inside[1]:
                share = (limit - start[axis]) / (end[axis] - start[axis])
                kept.append((start[0] + share * (end[0] - start[0]), start[1] + share * (end[1] - start[1])))
            if inside[1]:
                kept.append(end)
        outline = tuple(kept)
    return outline


def clipped_line(start: Point, end: Point, box: Box) -> tuple[Point, Point] | None:
    """The part of a straight line inside a box; None where none is. Source: Liang and Barsky, from memory.

    Ends and box [m].
    """
    left, bottom, wide, high = box
    near, far = 0.0, 1.0
    for axis, low, room in ((0, left, wide), (1, bottom, high)):
        run = end[axis] - start[axis]
        if abs(run) < 1e-12:
            if not low <= start[axis] <= low + room:
                return None
            continue
        entered, left_at = sorted(((low - start[axis]) / run, (low + room - start[axis]) / run))
        near, far = max(near, entered), min(far, left_at)
    if near > far:
        return None
    first, last = ((start[0] + t * (end[0] - start[0]), start[1] + t * (end[1] - start[1])) for t in (near, far))
    return first, last


def hull(points: list[Point]) -> Outline:
    """The convex outline of points, anticlockwise.

    Points [m]. Source: monotone chain, Andrew, from memory.
    """
    ordered = sorted(set(points))
    if len(ordered) < 3:
        return tuple(ordered)

    def half(run: list[Point]) -> list[Point]:
        chain: list[Point] = []
        for p in run:
            while len(chain) > 1 and (chain[-1][0] - chain[-2][0]) * (p[1] - chain[-2][1]) <= (
                chain[-1][1] - chain[-2][1]
            ) * (p[0] - chain[-2][0]):
                chain.pop()
            chain.append(p)
        return chain[:-1]

    return tuple(half(ordered) + half(ordered[::-1]))
