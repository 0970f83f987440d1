"""Convex solids in the bay and the clearance between them: boxes and cylinders, leaned any way.

Frame: x to the right seen from the front, y up, z to the rear, in metres.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Bools, Floats, Ints
from keelroom.core.compiled import compiled
from keelroom.core.packaging import nearest

Vector = tuple[float, float, float]


class Solid(NamedTuple):
    """One solid. axes: its own three unit axes; half: half its size along them.

    round : a cylinder about its third axis, of radius half[0]; otherwise a box
    """

    centre: Vector
    half: Vector
    axes: tuple[Vector, Vector, Vector] = ((1, 0, 0), (0, 1, 0), (0, 0, 1))
    round: bool = False

    def reach(self, axis: int) -> float:
        """How far it reaches from its centre along a datum [m]."""
        return sum(abs(own[axis]) * half for own, half in zip(self.axes, self.half, strict=True))


class Solids(NamedTuple):
    """Many solids as arrays. centre (n, 3), half (n, 3), axes (n, 3, 3) rows are the axes, round (n,)."""

    centre: Floats
    half: Floats
    axes: Floats
    round: Bools


class Clearance(NamedTuple):
    """Between pairs of solids. gap (n,) [m], negative by how far one has to move to be free; normal (n, 3) from the
    first to the second; a, b (n, 3) the nearest points."""

    gap: Floats
    normal: Floats
    a: Floats
    b: Floats


def stacked(solids: Sequence[Solid]) -> Solids:
    """The solids as arrays.

    n solids: (n, 3), (n, 3), (n, 3, 3), (n,) [m].
    """
    return Solids(
        np.array([s.centre for s in solids], float).reshape(-1, 3),
        np.array([s.half for s in solids], float).reshape(-1, 3),
        np.array([s.axes for s in solids], float).reshape(-1, 3, 3),
        np.array([s.round for s in solids], bool),
    )


def chosen(solids: Solids, index: Ints | Bools) -> Solids:
    """The solids at the given places, or where a mask is true.

    index: whole numbers or a mask (n,).
    """
    return Solids(solids.centre[index], solids.half[index], solids.axes[index], solids.round[index])


def leaned(angle: float) -> tuple[Vector, Vector, Vector]:
    """Axes of a part whose top leans to the rear by `angle` [rad]: across, up along the part, rearward out of it.

    Source: rotation about the first axis.
    """
    c, s = float(np.cos(angle)), float(np.sin(angle))
    return ((1.0, 0.0, 0.0), (0.0, c, s), (0.0, -s, c))


def along(start: Vector, end: Vector, radius: float) -> Solid:
    """A straight pipe from start to end.

    Ends and radius [m].
    """
    length = math.dist(start, end)
    way = unit((end[0] - start[0], end[1] - start[1], end[2] - start[2])) if length > 1e-6 else (0.0, 0.0, 1.0)
    first = unit(cross(way, (1.0, 0.0, 0.0) if abs(way[0]) < 0.9 else (0.0, 1.0, 0.0)))
    middle = ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2, (start[2] + end[2]) / 2)
    return Solid(middle, (radius, radius, length / 2), (first, cross(way, first), way), True)


def cross(a: Vector, b: Vector) -> Vector:
    """The vector product.

    Source: definition.
    """
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


def unit(a: Vector) -> Vector:
    """The vector at length one.

    ZeroDivisionError for a vector of no length.
    """
    length = math.hypot(*a)
    return (a[0] / length, a[1] / length, a[2] / length)


def _rows(solids: Solids) -> Floats:
    """The solids as rows of sixteen numbers, as `nearest` takes them."""
    count = len(solids.round)
    parts = (solids.centre, solids.half, solids.axes.reshape(count, 9), solids.round.reshape(count, 1))
    return np.ascontiguousarray(np.concatenate(parts, axis=1), dtype=float)


def _room() -> Floats:
    """Scratch room with what a pair is given in it: the cone and the turns."""
    cone, turn, end = nearest.LAYOUT
    widest, turns = nearest.FIRST_TURN
    room = np.zeros(end)
    room[cone:turn] = [f(math.tau * k / 12) for k in range(12) for f in (math.cos, math.sin)]
    room[turn:] = [f(widest / 2**k) for k in range(turns) for f in (math.cos, math.sin)]
    return room


ROOM = _room()


def _of_pairs(a: Solids, b: Solids, wide: int, work: Callable[..., None]) -> Floats:
    """Work on each pair, `wide` numbers a pair; compiled on arrays, interpreted on lists, which Python reads faster."""
    count = len(a.round)
    if compiled(nearest):
        out = np.empty((count, wide))
        work(_rows(a), _rows(b), out, ROOM.copy(), count)
        return out
    listed = [[0.0] * wide for _ in range(count)]
    work(_rows(a).tolist(), _rows(b).tolist(), listed, ROOM.tolist(), count)
    return np.array(listed).reshape(count, wide)


def parted(a: Solids, b: Solids) -> tuple[Floats, Floats]:
    """A gap that is surely there (n,), or the overlap as a negative figure, and the direction it lies in (n, 3).

    The greatest separation over the directions that part boxes and cylinders: never more than the true gap.
    [m]. Source: separating axes.
    """
    found = _of_pairs(a, b, 4, nearest.bounds)
    return found[:, 0], found[:, 1:]


def clearance(a: Solids, b: Solids) -> Clearance:
    """Clearance between the first of a and the first of b, and so on; of each pair the same whatever pairs stand
    beside it.

    Nearest points by projecting onto one solid after the other, with momentum; overlaps by the least separation.
    Source: projection onto convex sets; Nesterov's momentum with restart (O'Donoghue & Candès), from memory
    [m].
    """
    found = _of_pairs(a, b, 10, nearest.clearances)
    return Clearance(found[:, 0], found[:, 1:4], found[:, 4:7], found[:, 7:])
