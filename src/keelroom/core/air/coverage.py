"""Which part of the face the fans draw from: shroud rectangles and bare fan discs, as shares of each cell."""

from __future__ import annotations

import numpy as np

from keelroom.core.arrays import Floats

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
    return inside.reshape(ny, SUBDIVIDE, nx, SUBDIVIDE).mean(axis=(1, 3))
