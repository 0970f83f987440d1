"""Heat over the face: each lane of tube marches through its cells, layer behind layer through the depth.

Within a cell a layer's coolant is mixed across the layer's depth and the air is unmixed, which is exact for a
uniform cell; the air leaving a layer enters the next. One layer over a uniform face is the closed form "coolant
mixed, air unmixed"; many layers tend to "both unmixed" (Kays & London).
"""

from __future__ import annotations

from itertools import pairwise
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats

MOST_PER_CELL = 25.0
"""Exponent at which a cell has given up all it can; it also keeps the products below within range."""


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
    passes, layers = layout
    capacity, temperature = air[0], np.array(air[1])
    flow, inlet = coolant
    transfer = -np.expm1(-conductance / layers / capacity)
    heat = np.zeros_like(flow)
    bounds = np.linspace(0, weight.shape[1], passes + 1).round().astype(int)
    for number, (start, stop) in enumerate(pairwise(bounds)):
        way = slice(None) if number % 2 == 0 else slice(None, None, -1)
        part = np.s_[:, start:stop, way]
        split = weight[:, start:stop] / weight[:, start:stop].sum(axis=1, keepdims=True)
        # A lane that stands for nothing (padding) still needs some flow to be marched.
        share = np.maximum(split, 1e-9) * flow[:, None] / layers
        lanes = _Lanes(capacity[part], transfer[part], share)
        mixed = np.zeros_like(flow)
        for _ in range(layers):
            rise, outlet = lanes.layer(temperature[part], inlet)
            temperature[part] += rise
            mixed += (split * outlet).sum(axis=1) / layers
        heat += flow * (inlet - mixed)
        inlet = mixed
    return FaceHeat(heat, inlet, temperature)


class _Lanes:
    """The lanes of one pass. The recurrence T[k+1] = a T[k] + (1 - a) A[k] in closed form: products and sums along
    the lane."""

    def __init__(self, capacity: Floats, transfer: Floats, share: Floats) -> None:
        self.spread = share[:, :, None] / capacity
        kept = np.exp(-np.minimum(transfer / self.spread, MOST_PER_CELL))
        self.product = np.cumprod(kept, axis=2)
        self.entering = (1 - kept) / self.product

    def layer(self, air: Floats, inlet: Floats) -> tuple[Floats, Floats]:
        """One layer of every lane: the rise of the air in each cell, and each lane's coolant outlet."""
        after = self.product * (inlet[:, None, None] + np.cumsum(self.entering * air, axis=2))
        rise = np.empty_like(after)
        rise[:, :, 0] = inlet[:, None] - after[:, :, 0]
        rise[:, :, 1:] = after[:, :, :-1] - after[:, :, 1:]
        rise *= self.spread
        return rise, after[:, :, -1]
