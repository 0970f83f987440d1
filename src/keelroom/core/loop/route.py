"""The middle line of a hose: straight pieces joined by bends, its developed length, and the rod that is bent to show
it."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats

Vector = tuple[float, float, float]
STRAIGHT = 1e-3
"""[rad] a turn under this is none"""
SAME = 1e-6
"""[m] points nearer than this are one"""


class RouteBend(NamedTuple):
    """One bend. at: the corner its tangents meet in; angle turned [rad]; radius of the middle line [m]; tangent [m]
    from corner to where it begins."""

    at: Vector
    angle: float
    radius: float
    tangent: float


class Route(NamedTuple):
    """A middle line. corners: its ends and the corners between them; straights [m] between the bends, one more than
    there are bends."""

    corners: tuple[Vector, ...]
    bends: tuple[RouteBend, ...]
    straights: tuple[float, ...]

    @property
    def length(self) -> float:
        """Developed [m]: straight pieces and arcs."""
        return sum(self.straights) + sum(bend.angle * bend.radius for bend in self.bends)

    @property
    def right_angles(self) -> float:
        """All it turns, in right angles."""
        return sum(bend.angle for bend in self.bends) / (math.pi / 2)

    @property
    def tightest(self) -> float:
        """Least radius [m] of the middle line; inf where it is straight."""
        return min((bend.radius for bend in self.bends), default=math.inf)

    @property
    def highest(self) -> float:
        """Height [m] of its highest point."""
        return max(point[1] for point in traced(self))

    @property
    def longest_straight(self) -> float:
        """[m] of its longest straight piece."""
        return max(self.straights)


def routed(corners: Sequence[Vector], radius: float) -> Route:
    """The line through corners with bends of a radius [m], or as wide as the pieces beside them let each be.

    A piece between two corners is shared out between their bends by what each wants. Ends and corners [m].
    Source: geometry of tangent arcs. Raises ValueError for fewer than two points.
    """
    points = [corners[0]] + [b for a, b in itertools.pairwise(corners) if math.dist(a, b) > SAME]
    if len(points) < 2:
        raise ValueError("a route needs two ends that lie apart")
    at = np.array(points)
    ways = np.diff(at, axis=0)
    lengths = np.sqrt((ways**2).sum(axis=1))
    ways = ways / lengths[:, None]
    turns = np.arccos(np.clip((ways[:-1] * ways[1:]).sum(axis=1), -1.0, 1.0))
    tangents = _tangents(turns, lengths, radius)
    bends, straights, run = [], [], float(lengths[0])
    for k, turn in enumerate(turns):
        if turn < STRAIGHT:
            run += float(lengths[k + 1])
            continue
        tangent = float(tangents[k])
        straights.append(run - tangent)
        bends.append(
            RouteBend(_vector(at[k + 1]), float(turn), tangent / math.tan(min(turn, math.pi - 1e-6) / 2), tangent)
        )
        run = float(lengths[k + 1]) - tangent
    return Route(tuple(points), tuple(bends), (*straights, run))


def _tangents(turns: Floats, lengths: Floats, radius: float) -> Floats:
    """From each corner to where its bend begins [m]: what it wants, or its share of the shorter piece beside it."""
    half = np.minimum(turns / 2, np.pi / 2 - 1e-3)
    wanted = np.where(turns < STRAIGHT, 0.0, radius * np.tan(half))
    ahead, behind = np.append(0.0, wanted), np.append(wanted, 0.0)
    share = np.minimum(1.0, lengths / np.maximum(ahead + behind, 1e-12))
    found: Floats = wanted * np.minimum(share[:-1], share[1:])
    return found


def _vector(values: Floats) -> Vector:
    return (float(values[0]), float(values[1]), float(values[2]))


def traced(route: Route, chords: int = 6) -> tuple[Vector, ...]:
    """Points along the middle line: ends, and each bend by so many chords.

    Source: geometry.
    """
    found: list[Vector] = [route.corners[0]]
    ends = {bend.at: bend for bend in route.bends}
    for before, corner, after in zip(route.corners, route.corners[1:], route.corners[2:], strict=False):
        bend = ends.get(corner)
        if bend is None:
            continue
        at = np.array(corner)
        a, b = _way(corner, before), _way(corner, after)
        middle = a + b
        middle /= np.sqrt((middle**2).sum()) or 1.0
        centre = at + middle * (bend.radius / math.cos(bend.angle / 2))
        first, last = at + a * bend.tangent - centre, at + b * bend.tangent - centre
        for share in np.linspace(0.0, 1.0, chords + 1):
            # Turned from the first radius to the last in their own plane.
            s = math.sin(bend.angle)
            mixed = (
                (math.sin((1 - share) * bend.angle) * first + math.sin(share * bend.angle) * last) / s
                if s > 1e-6
                else (1 - share) * first + share * last
            )
            found.append(_vector(centre + mixed))
    return (*found, route.corners[-1])


def _way(start: Vector, end: Vector) -> Floats:
    way = np.array(end) - np.array(start)
    found: Floats = way / (np.sqrt((way**2).sum()) or 1.0)
    return found


class RodStep(NamedTuple):
    """One step of bending a rod: so far straight [m] to the next bend, so much bent [rad] about a radius [m], after
    turning the rod by `twist` [rad] in the hand from the plane of the bend before."""

    straight: float
    angle: float
    radius: float
    twist: float


def rod_steps(route: Route) -> tuple[RodStep, ...]:
    """How a rod is bent along the middle line; the last step has no bend.

    Twists turn to the left seen from where the rod began. Source: geometry: the angle between the planes of two bends.
    """
    corners = [point for point in (route.corners[0], *(bend.at for bend in route.bends), route.corners[-1])]
    ways = [_way(a, b) for a, b in itertools.pairwise(corners)]
    normals = [np.cross(a, b) for a, b in itertools.pairwise(ways)]
    steps, last = [], None
    for k, bend in enumerate(route.bends):
        normal = normals[k] / (np.sqrt((normals[k] ** 2).sum()) or 1.0)
        twist = 0.0 if last is None else math.atan2(float(np.cross(last, normal) @ ways[k]), float(last @ normal))
        steps.append(RodStep(route.straights[k], bend.angle, bend.radius, twist))
        last = normal
    return (*steps, RodStep(route.straights[-1], 0.0, 0.0, 0.0))


def flattened(route: Route, chords: int = 12) -> tuple[tuple[tuple[float, float], ...], float]:
    """The middle line as seen square to the plane it lies in best, its first point at nought, and how far [m] it
    leaves that plane.

    Source: principal axes of its points.
    """
    points = np.array(traced(route, chords))
    middle = points.mean(axis=0)
    _, _, axes = np.linalg.svd(points - middle, full_matrices=False)
    seen = (points - points[0]) @ axes[:2].T
    off = (points - middle) @ axes[2] if len(axes) > 2 else np.zeros(len(points))
    return tuple((float(u), float(v)) for u, v in seen), float(np.abs(off).max())
