"""Heat over the face: each lane of tube marches through its cells, layer behind layer through the depth.

Within a cell a layer's coolant is mixed across the layer's depth and the air is unmixed, which is exact for a
uniform cell; the air leaving a layer enters the next. One layer over a uniform face is the closed form "coolant
mixed, air unmixed"; many layers tend to "both unmixed" (Kays & London).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from keelroom.core.arrays import Floats

MOST_PER_CELL = 25.0
"""Exponent at which a cell has given up all it can; it also keeps the products below within range."""


@dataclass(frozen=True)
class FaceHeat:
    """What the march returns. heat (n,) [W]; coolant_out (n,) [degC]; air_out (n, ny, nx) [degC]."""

    heat: Floats
    coolant_out: Floats
    air_out: Floats


def march(
    air_capacity: Floats, air_in: Floats, conductance: Floats, coolant_capacity: Floats, coolant_in: Floats, layout: tuple[bool, int, int]
) -> FaceHeat:
    """March the coolant over the face.

    air_capacity, air_in, conductance : (n, ny, nx) [W/K], [degC], [W/K], of each cell, > 0
    coolant_capacity, coolant_in : (n,) whole core [W/K] > 0, [degC]
    layout : (crossflow, passes, layers); lanes run along x in a crossflow core, along y (from the top) in a downflow one
    """
    crossflow, passes, layers = layout
    if not crossflow:
        air_capacity, air_in, conductance = (np.swapaxes(a, 1, 2) for a in (air_capacity, air_in, conductance))
    lanes = air_capacity.shape[1]
    transfer = -np.expm1(-conductance / layers / air_capacity)
    air = np.array(air_in)
    inlet = coolant_in
    bounds = np.linspace(0, lanes, passes + 1).round().astype(int)
    for number, (start, stop) in enumerate(zip(bounds[:-1], bounds[1:], strict=True)):
        way = slice(None) if number % 2 == 0 else slice(None, None, -1)
        part = np.s_[:, start:stop, way]
        share = coolant_capacity / ((stop - start) * layers)
        outlets = []
        for _ in range(layers):
            shift, outlet = _lane(air_capacity[part], air[part], transfer[part], share, inlet)
            air[part] += shift
            outlets.append(outlet)
        inlet = np.mean(outlets, axis=(0, 2))
    heat = coolant_capacity * (coolant_in - inlet)
    return FaceHeat(heat, inlet, air if crossflow else np.swapaxes(air, 1, 2))


def _lane(air_capacity: Floats, air: Floats, transfer: Floats, share: Floats, inlet: Floats) -> tuple[Floats, Floats]:
    """One layer of every lane: the rise of the air in each cell, and each lane's coolant outlet.

    The recurrence T[k+1] = a T[k] + (1 - a) A[k] in closed form: products and sums along the lane.
    """
    exponent = np.minimum(air_capacity * transfer / share[:, None, None], MOST_PER_CELL)
    kept = np.exp(-exponent)
    product = np.cumprod(kept, axis=2)
    reference = air.min(axis=(1, 2))[:, None, None]
    gained = np.cumsum((1 - kept) * (air - reference) / product, axis=2)
    start = (inlet[:, None] - reference[:, 0])[:, :, None]
    after = product * (start + gained)
    before = np.concatenate([np.broadcast_to(start, after[:, :, :1].shape), after[:, :, :-1]], axis=2)
    rise = share[:, None, None] * (before - after) / air_capacity
    return rise, after[:, :, -1] + reference[:, 0]
