"""Which part of the face the fans draw from: shroud rectangles and bare fan discs, as shares of each cell."""

from __future__ import annotations

import numpy as np

from keelroom.core.arrays import Floats

Lanes = tuple[Floats, Floats]
"""Coverage (lanes, cells) along the tubes, and each lane's share of the tubes (lanes,)."""
GRID = (16, 24)
"""Cells of the face: rows from the top, columns from the left."""
SUBDIVIDE = 6
"""Points per cell side used to measure how much of a cell a disc covers."""
SPILL_PER_GAP = 1.0
"""A bare fan's disc draws from a radius that grows with its distance off the fins by this factor (common practice)."""

Rectangle = tuple[float, float, float, float]
"""left, bottom, width, height [m] in face coordinates, origin at the face's lower left."""
Disc = tuple[float, float, float]
"""centre x, centre y, radius [m]."""


def face_points(width: float, height: float) -> tuple[Floats, Floats]:
    """Sample points (ny*s, nx*s) x and y [m] over the face; row 0 is at the top."""
    ny, nx = (side * SUBDIVIDE for side in GRID)
    x = (np.arange(nx) + 0.5) / nx * width
    y = (1 - (np.arange(ny) + 0.5) / ny) * height
    return np.broadcast_to(x, (ny, nx)), np.broadcast_to(y[:, None], (ny, nx))


def covered_share(width: float, height: float, rectangles: tuple[Rectangle, ...], discs: tuple[Disc, ...]) -> Floats:
    """Share (ny, nx), 0..1, of each cell inside any rectangle or disc."""
    x, y = face_points(width, height)
    inside = np.zeros(x.shape, bool)
    for left, bottom, wide, high in rectangles:
        inside |= (x >= left) & (x <= left + wide) & (y >= bottom) & (y <= bottom + high)
    for cx, cy, radius in discs:
        inside |= (x - cx) ** 2 + (y - cy) ** 2 <= radius**2
    ny, nx = GRID
    share: Floats = inside.reshape(ny, SUBDIVIDE, nx, SUBDIVIDE).mean(axis=(1, 3))
    return share


def as_lanes(coverage: Floats, crossflow: bool, passes: int) -> Lanes:
    """The face as lanes of tube: rows in a crossflow core, columns from the top in a downflow one.

    Lanes with the same coverage carry the same air and are merged into one that stands for them all; not
    where there are several passes, because lanes of different passes carry different coolant.
    """
    lanes = coverage if crossflow else coverage.T
    if passes > 1:
        return lanes, np.full(len(lanes), 1 / len(lanes))
    if lanes.min() == lanes.max():
        return lanes[:1], np.ones(1)
    alike, counts = np.unique(lanes, axis=0, return_counts=True)
    return alike, counts / len(lanes)


def padded(lanes: Lanes, count: int) -> Lanes:
    """The lanes with copies of the last one that stand for nothing, so that packages with fewer can be stacked."""
    coverage, weight = lanes
    extra = count - len(weight)
    return np.concatenate([coverage, np.repeat(coverage[-1:], extra, axis=0)]), np.concatenate([weight, np.zeros(extra)])
