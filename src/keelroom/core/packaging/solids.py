"""Convex solids in the bay and the clearance between them: boxes and cylinders, leaned any way.

Frame: x to the right seen from the front, y up, z to the rear, in metres.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Bools, Floats, Ints

Vector = tuple[float, float, float]
SURELY = 3e-4
"""[m] nearest points this far apart are no overlap that has not settled yet"""
CLOSE = 1e-9
"""[m] solids nearer than this touch or overlap."""
STILL = 2e-6
"""[m] a nearest point that moves less than this has arrived; a gap is then good to far less, being flat there."""
MOST_STEPS = 400


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


def _local(solids: Solids, points: Floats) -> Floats:
    found: Floats = np.matmul(solids.axes, (points - solids.centre)[:, :, None])[:, :, 0]
    return found


def _nearest(solids: Solids, points: Floats) -> Floats:
    """The point of each solid nearest to each point (n, 3)."""
    local = _local(solids, points)
    held = np.minimum(np.maximum(local, -solids.half), solids.half)
    if solids.round.any():
        flat = local[:, :2]
        reach = np.sqrt((flat * flat).sum(axis=1))
        share = np.minimum(solids.half[:, 0] / np.maximum(reach, 1e-12), 1.0)
        held[:, :2] = np.where(solids.round[:, None], flat * share[:, None], held[:, :2])
    back: Floats = np.matmul(held[:, None, :], solids.axes)[:, 0, :] + solids.centre
    return back


def _support(solids: Solids, ways: Floats) -> Floats:
    """How far each solid reaches from its centre along unit directions: (n, d) for ways (n, d, 3)."""
    local = np.abs(np.matmul(ways, solids.axes.transpose(0, 2, 1)))
    boxed = (local * solids.half[:, None, :]).sum(axis=2)
    if not solids.round.any():
        flat: Floats = boxed
        return flat
    rounded = (
        np.sqrt(local[:, :, 0] ** 2 + local[:, :, 1] ** 2) * solids.half[:, None, 0]
        + local[:, :, 2] * solids.half[:, None, 2]
    )
    reach: Floats = np.where(solids.round[:, None], rounded, boxed)
    return reach


def _directions(a: Solids, b: Solids) -> Floats:
    """Directions (n, 9, 3) one of which parts most pairs: the axes of both, centre to centre, and out from each
    cylinder."""
    between = b.centre - a.centre
    ways = [a.axes, b.axes, between[:, None, :]]
    for solids in (a, b):
        axis = solids.axes[:, 2, :]
        ways.append((between - (between * axis).sum(axis=1)[:, None] * axis)[:, None, :])
    found = np.concatenate(ways, axis=1)
    length = np.sqrt((found * found).sum(axis=2))
    found = np.where(
        length[:, :, None] > 1e-9, found / np.maximum(length, 1e-12)[:, :, None], np.array([0.0, 0.0, 1.0])
    )
    facing = (found * between[:, None, :]).sum(axis=2)
    turned: Floats = np.where(facing[:, :, None] < 0, -found, found)
    return turned


def parted(a: Solids, b: Solids) -> tuple[Floats, Floats]:
    """A gap that is surely there (n,), or the overlap as a negative figure, and the direction it lies in (n, 3).

    The greatest separation over the directions that part boxes and cylinders: never more than the true gap.
    [m]. Source: separating axes.
    """
    ways = _directions(a, b)
    apart = np.matmul(ways, (b.centre - a.centre)[:, :, None])[:, :, 0] - _support(a, ways) - _support(b, ways)
    best = apart.argmax(axis=1)
    row = np.arange(len(best))
    return apart[row, best], ways[row, best]


def _met(a: Solids, b: Solids, bound: Floats) -> Floats:
    """The points of b nearest to a (n, 3). A pair that has arrived is left alone, so that none waits for or moves
    with another."""
    found = _nearest(b, a.centre)
    left, on_b, ahead, momentum = np.arange(len(found)), found, found, np.ones(len(found))
    for _ in range(MOST_STEPS):
        on_a = _nearest(a, ahead)
        new = _nearest(b, on_a)
        step = new - on_b
        # Momentum that points uphill is dropped: the next step starts afresh from where it stands.
        momentum = np.where(((ahead - new) * step).sum(axis=1) > 0, 1.0, momentum)
        grown = (1 + np.sqrt(1 + 4 * momentum * momentum)) / 2
        ahead = new + ((momentum - 1) / grown)[:, None] * step
        momentum, on_b = grown, new
        found[left] = new
        # Pairs with no parting direction whose points already meet do overlap: nothing waits for them.
        met = (bound < -1e-6) & (((on_b - on_a) ** 2).sum(axis=1) < SURELY**2)
        going = ~met & (np.abs(step).max(axis=1) >= STILL)
        if not going.all():
            if not going.any():
                break
            a, b, bound, left = chosen(a, going), chosen(b, going), bound[going], left[going]
            on_b, ahead, momentum = on_b[going], ahead[going], momentum[going]
    return found


def clearance(a: Solids, b: Solids) -> Clearance:
    """Clearance between the first of a and the first of b, and so on; of each pair the same whatever pairs stand
    beside it.

    Nearest points by projecting onto one solid after the other, with momentum; overlaps by the least separation.
    Source: projection onto convex sets; Nesterov's momentum with restart (O'Donoghue & Candès), from memory
    [m].
    """
    bound, way = parted(a, b)
    on_b = _met(a, b, bound)
    on_a = _nearest(a, on_b)
    between = on_b - on_a
    gap = np.sqrt((between * between).sum(axis=1))
    # Rims that pass each other have no parting direction among the few tried: there the nearest points decide.
    apart = (gap > CLOSE) & ((bound > -1e-6) | (gap > SURELY))
    into = np.flatnonzero(~apart & (bound < 0))
    if len(into):
        bound, way = bound.copy(), way.copy()
        bound[into], way[into] = _shallowest(chosen(a, into), chosen(b, into), way[into])
    normal = np.where(apart[:, None], between / np.maximum(gap, 1e-12)[:, None], way)
    return Clearance(np.where(apart, np.maximum(gap, bound), np.minimum(bound, 0.0)), normal, on_a, on_b)


CONE = np.array([(math.cos(math.tau * k / 12), math.sin(math.tau * k / 12)) for k in range(12)])
STARTS = 6
WIDEST_TURN, NARROWEST_TURN = 0.6, 1e-5
"""[rad] the search for the way out of an overlap begins and ends with turns of so much."""


GAINED = 1e-8
"""[m] a turn that frees less than this is none: thin discs would be crept round for thousands of steps"""


def _shallowest(a: Solids, b: Solids, way: Floats) -> tuple[Floats, Floats]:
    """The least overlap (n,) as a negative separation, and the way out (n, 3), of pairs that overlap, starting at a
    way.

    Out along the sum of both shapes one has to move by its support less the distance; ways round the best so far are
    tried, nearer and nearer.
    """
    crossed = np.cross(a.axes[:, :, None, :], b.axes[:, None, :, :]).reshape(len(way), 9, 3)
    length = np.sqrt((crossed**2).sum(axis=2, keepdims=True))
    crossed = np.where(length > 1e-6, crossed / np.maximum(length, 1e-12), way[:, None, :])
    tried = np.concatenate([way[:, None, :], _directions(a, b), crossed, -crossed], axis=1)
    apart = np.matmul(tried, (b.centre - a.centre)[:, :, None])[:, :, 0] - _support(a, tried) - _support(b, tried)
    # From the best few, for there are dips between ridges.
    first = np.argsort(-apart, axis=1)[:, :STARTS]
    begin = np.take_along_axis(tried, first[:, :, None], axis=1).reshape(-1, 3)
    rows = np.repeat(np.arange(len(way)), STARTS)
    best, found = _descended(chosen(a, rows), chosen(b, rows), begin)
    pick = np.arange(len(way)) * STARTS + best.reshape(-1, STARTS).argmax(axis=1)
    return best[pick], found[pick]


def _descended(a: Solids, b: Solids, way: Floats) -> tuple[Floats, Floats]:
    """The greatest separation (n,) reached from a way (n, 3) by turning it, and the way there."""
    between = (b.centre - a.centre)[:, :, None]
    tried, row = way[:, None, :], np.arange(len(way))
    turn = np.full(len(way), WIDEST_TURN)
    best = np.full(len(way), -np.inf)
    while True:
        apart = np.matmul(tried, between)[:, :, 0] - _support(a, tried) - _support(b, tried)
        first = apart.argmax(axis=1)
        found = apart[row, first]
        better = found > best + GAINED
        way, best = np.where(better[:, None], tried[row, first], way), np.maximum(found, best)
        turn = np.where(better, turn, turn / 2)
        if (turn < NARROWEST_TURN).all():
            return best, way
        # Twelve ways on a cone round the best one.
        aside = np.where(np.abs(way[:, :1]) < 0.9, np.array([1.0, 0.0, 0.0]), np.array([0.0, 1.0, 0.0]))
        u = np.cross(way, aside)
        u /= np.sqrt((u**2).sum(axis=1, keepdims=True))
        v = np.cross(way, u)
        ring = CONE[None, :, :1] * u[:, None, :] + CONE[None, :, 1:] * v[:, None, :]
        tried = np.cos(turn)[:, None, None] * way[:, None, :] + np.sin(turn)[:, None, None] * ring
