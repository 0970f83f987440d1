"""The face as classes of cells: everything that stands in the same way, ahead and behind, carries the same air.

Every point of the face lies behind the panel's metal or in its opening, under none or some of the covers ahead,
and ahead of the bay or of one zone (a shroud's plenum, a bare fan's disc); a zone ahead of the core belongs to a
pusher. Points that share all of that form one class. A cell knows its share of each class, so the network has a
branch per class while the heat is still marched cell by cell.
"""

from __future__ import annotations

import math
from functools import lru_cache
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from keelroom.core.air.parting import FaceRows, part_all
from keelroom.core.arrays import Floats
from keelroom.core.outline import Outline

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Ints = NDArray[np.intp]

GRID = (16, 24)
"""Cells of the face: rows from the top, columns from the left."""
SUBDIVIDE = 6
"""Points per cell side used to measure how much of a cell lies in each class."""
SPILL_PER_GAP = 1.0
"""A bare fan draws from a radius that grows with its distance off the fins by this factor (common practice)."""
CORNER_LOSS = 0.5
"""Dynamic heads of the face speed lost by air that turns along a shroud for its own depth; grows with the square
(common practice)."""
CORNER_STEPS = (0.5, 1.5, 3.0)
"""Turns along the shroud, in depths, at which corner points are parted into classes."""
FRONT, BAY = 0, 1
"""Nodes every network has; zones follow from 2."""

Rectangle = tuple[float, float, float, float]
"""left, bottom, width, height [m] in face coordinates, origin at the face's lower left."""


class Disc(NamedTuple):
    """A fan's place: centre, radius and hub radius [m] in face coordinates."""

    x: float
    y: float
    radius: float
    hub: float = 0.0


class Zone(NamedTuple):
    """A plenum on one side of the core.

    rectangle : the shroud's; None for a bare fan, which draws from its disc widened by `gap`
    discs     : the fans in it;  depth [m]: of the shroud, from the fins to the fans
    pusher    : stands ahead of the core
    """

    rectangle: Rectangle | None
    discs: tuple[Disc, ...]
    depth: float
    gap: float
    pusher: bool


class FaceClasses(NamedTuple):
    """The classes of a face. K classes, C covers.

    mix : (ny, nx, K) share of each cell, the rest of a cell is blocked;  area : (K,) [m2]
    front, rear : (K,) node of the network ahead and behind;  corner : (K,) dynamic heads of the face speed
    covered : (K, C) 0 or 1
    """

    mix: Floats
    area: Floats
    front: Floats
    rear: Floats
    corner: Floats
    covered: Floats


def face_points(width: float, height: float) -> tuple[Floats, Floats]:
    """Sample points (ny*s, nx*s) x and y [m] over the face; row 0 is at the top.

    Source: midpoint rule, s points a side.
    """
    ny, nx = (side * SUBDIVIDE for side in GRID)
    x = (np.arange(nx) + 0.5) / nx * width
    y = (1 - (np.arange(ny) + 0.5) / ny) * height
    return np.broadcast_to(x, (ny, nx)), np.broadcast_to(y[:, None], (ny, nx))


def face_classes(
    size: tuple[float, float], opening: Outline | None, covers: tuple[Rectangle | None, ...], zones: tuple[Zone, ...]
) -> FaceClasses:
    """The classes of a face. size: width, height [m]; opening: corners of the panel's opening in face coordinates,
    None: no panel in the way; a cover None: over the whole face.

    Source: definition; shares by sampled points, good to a few per mille of the face.
    """
    codes, turned, sizes = _parted(size, opening, covers, zones)
    free = codes >= 0
    found, of_point = _present(codes[free], math.prod(sizes))
    kinds = np.column_stack(np.unravel_index(found, sizes, order="F"))
    if not len(kinds):
        kinds = np.array([[FRONT, BAY, *[0] * (1 + len(covers))]])
    counts = np.bincount(of_point, minlength=len(kinds))
    shape = (*GRID, len(kinds))
    mix: Floats = (
        np.bincount(_cell_of_points(GRID)[free] * len(kinds) + of_point, minlength=int(np.prod(shape))).reshape(shape)
        / SUBDIVIDE**2
    )
    turns = np.bincount(of_point, weights=turned[free], minlength=len(kinds))
    return FaceClasses(
        mix=mix,
        area=mix.sum(axis=(0, 1)) * size[0] * size[1] / (GRID[0] * GRID[1]),
        front=kinds[:, 0].astype(float),
        rear=kinds[:, 1].astype(float),
        corner=CORNER_LOSS * turns / np.maximum(counts, 1),
        covered=kinds[:, 3:].astype(float),
    )


FEW = 65536
"""Codes there may be up to which counting each costs less than sorting those that occur."""


def _present(codes: Ints, most: int) -> tuple[Ints, Ints]:
    """The codes that occur, rising, and which of them each one is (n,). most: how many there may be"""
    if most > FEW:
        return np.unique(codes, return_inverse=True)
    found = np.flatnonzero(np.bincount(codes, minlength=most))
    place = np.empty(most, int)
    place[found] = np.arange(len(found))
    return found, place[codes]


EVERYWHERE = (-1e9, -1e9, 2e9, 2e9)
"""[m] a cover that reaches past any face"""


def _parted(
    size: tuple[float, float], opening: Outline | None, covers: tuple[Rectangle | None, ...], zones: tuple[Zone, ...]
) -> tuple[Ints, Floats, tuple[int, ...]]:
    """The code of every sample point (ny*s, nx*s) and its turn along the shroud in depths, squared; and how many values
    each of what a code is made of may have: node ahead, node behind, step along the shroud, each cover."""
    ends = np.cumsum([0, *(len(zone.discs) for zone in zones)])
    told = [
        (*ends[k : k + 2], zone.pusher, zone.rectangle is not None, *(zone.rectangle or (0.0,) * 4), _reach(zone))
        for k, zone in enumerate(zones)
    ]
    face = FaceRows()
    face.corners = np.array(opening or (), float).reshape(-1, 2)
    face.covers = np.array([cover or EVERYWHERE for cover in covers], float).reshape(-1, 4)
    face.zones = np.array(told, float).reshape(-1, 9)
    face.discs = np.array([disc for zone in zones for disc in zone.discs], float).reshape(-1, 4)
    face.steps = np.array(CORNER_STEPS)
    x, y = face_points(*size)
    codes, turned = np.empty(x.shape, int), np.empty(x.shape)
    part_all(face, np.ascontiguousarray(x[0]), np.ascontiguousarray(y[:, 0]), codes, turned)
    nodes = len(zones) + 2
    return codes, turned, (nodes, nodes, len(CORNER_STEPS) + 1, *[2] * len(covers))


def _reach(zone: Zone) -> float:
    """A shroud's depth, or how far past its disc a bare fan draws [m]."""
    return zone.depth if zone.rectangle is not None else SPILL_PER_GAP * zone.gap


@lru_cache(maxsize=4)
def _cell_of_points(grid: tuple[int, int]) -> NDArray[np.intp]:
    """Index of the cell each sample point lies in (ny*s, nx*s), row by row from the top."""
    ny, nx = grid
    cells = np.arange(ny * nx).reshape(ny, nx)
    return np.repeat(np.repeat(cells, SUBDIVIDE, axis=0), SUBDIVIDE, axis=1)


class Lanes(NamedTuple):
    """The face as lanes of tube. kinds (M, K) of cells by their shares of the classes; which (lanes, cells) of them
    each cell along the tubes is; weight (lanes,) share of the tubes each stands for."""

    kinds: Floats
    which: Floats
    weight: Floats


def widened(classes: FaceClasses, step: int) -> FaceClasses:
    """The classes with empty ones added up to a multiple of `step`, so that a nudge which makes or unmakes a class
    keeps Shapes (cells, K) become (cells, K + more); raises nothing. every array's shape (and the search may begin at
    the last answer)."""
    present = len(classes.area)
    total = -(-present // step) * step
    if total == present:
        return classes

    def grown(values: Floats, fill: float) -> Floats:
        more = np.full((total, *values.shape[1:]), fill)
        more[:present] = values
        return more

    mix = np.zeros((*classes.mix.shape[:2], total))
    mix[:, :, :present] = classes.mix
    return FaceClasses(
        mix=mix,
        area=grown(classes.area, 0.0),
        front=grown(classes.front, float(FRONT)),
        rear=grown(classes.rear, float(BAY)),
        corner=grown(classes.corner, 0.0),
        covered=grown(classes.covered, 0.0),
    )


def as_lanes(mix: Floats, crossflow: bool, passes: int) -> Lanes:
    """Rows in a crossflow core, columns from the top in a downflow one.

    Lanes with the same mix carry the same air and are merged into one that stands for them all; not where
    there are several passes, because lanes of different passes carry different coolant.
    mix (ny, nx, K) shares; lanes (L, cells) of like ones merged, weight (L,) sums to 1.
    """
    lanes = mix if crossflow else mix.transpose(1, 0, 2)
    merged = lane_of_rows(mix, crossflow, passes)
    first = np.array([merged.index(kind) for kind in range(max(merged) + 1)])
    cells = np.ascontiguousarray(lanes[first]).reshape(-1, mix.shape[2])
    kinds: dict[bytes, int] = {}
    which = [kinds.setdefault(cell.tobytes(), len(kinds)) for cell in cells]
    alike = np.frombuffer(b"".join(kinds)).reshape(len(kinds), -1)
    return Lanes(alike, np.array(which, float).reshape(len(first), -1), np.bincount(merged) / len(lanes))


def lane_of_rows(mix: Floats, crossflow: bool, passes: int) -> list[int]:
    """Which merged lane each row (or column) of the face belongs to, to lay a lane's figures back on the face.

    (ny,) or (nx,) whole numbers 0..L-1.
    """
    lanes = mix if crossflow else mix.transpose(1, 0, 2)
    if passes > 1:
        return list(range(len(lanes)))
    known: dict[bytes, int] = {}
    return [known.setdefault(np.ascontiguousarray(lane).tobytes(), len(known)) for lane in lanes]


def padded(lanes: Lanes, count: int, kinds: int, classes: int) -> Lanes:
    """The lanes with copies of the last one that stand for nothing, kinds no cell is of, and classes with no share, so
    that faces can be stacked.

    count, kinds, classes: at least as many as there are.
    """
    extra = count - len(lanes.weight)
    wider = np.zeros((kinds, classes))
    wider[: lanes.kinds.shape[0], : lanes.kinds.shape[1]] = lanes.kinds
    which = np.concatenate([lanes.which, np.repeat(lanes.which[-1:], extra, axis=0)])
    return Lanes(wider, which, np.concatenate([lanes.weight, np.zeros(extra)]))
