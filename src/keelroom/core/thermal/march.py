"""Heat over the face: each lane of tube marches through its cells, layer behind layer through the depth.

Within a cell a layer's coolant is mixed across the layer's depth and the air is unmixed, which is exact for a
uniform cell; the air leaving a layer enters the next. One layer over a uniform face is the closed form "coolant
mixed, air unmixed"; many layers tend to "both unmixed" (Kays & London).
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.core.thermal.point import FaceMarch, FaceRows, marched


class FaceHeat(NamedTuple):
    """What the march returns. heat (n,) [W]; coolant_out (n,) [degC]; air_out (n, lanes, cells) [degC]."""

    heat: Floats
    coolant_out: Floats
    air_out: Floats


def march(
    air: tuple[Floats, Floats],
    conductance: Floats,
    coolant: tuple[Floats, Floats],
    weight: Floats,
    layout: tuple[int, int],
) -> FaceHeat:
    """March the coolant over the face; cells lie along axis 2 in the direction of the first pass.

    air         : capacity [W/K], > 0, and temperature [degC] of the air of each cell, (n, lanes, cells)
    conductance : coolant to air [W/K], (n, lanes, cells)
    coolant     : capacity of the whole flow [W/K], > 0, and its inlet temperature [degC], (n,)
    weight      : (n, lanes) share of the tubes each lane stands for, summing to 1; alike lanes are marched once
    layout      : (passes, layers); with several passes the lanes are split evenly among them, top to bottom
    Source: KAYS_LONDON ε-NTU per cell and layer.
    """
    # Every cell for itself: no two are of one kind. Per area of a face as large as it has cells.
    count, lanes, cells = conductance.shape
    face = FaceRows()
    face.kinds, face.weight, face.alike = np.zeros((count, lanes * cells, 1)), weight, True
    face.which = np.tile(np.arange(lanes * cells, dtype=np.intc).reshape(lanes, cells), (count, 1, 1))
    per_area = np.where(weight > 0, weight, 1.0)[:, :, None]
    carried, gives = ((value / per_area).reshape(count, -1) for value in (air[0], conductance))
    left, made = np.array(air[1]).reshape(count, -1), np.empty((count, 2))
    marched(FaceMarch(face, *layout), float(cells), carried, left, gives, np.stack(coolant, axis=1), made)
    return FaceHeat(made[:, 0], made[:, 1], left.reshape(conductance.shape))
