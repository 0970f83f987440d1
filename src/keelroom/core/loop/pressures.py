"""Pressures round the circuit from flows, heights and the cap, and how far each place is from boiling."""

from __future__ import annotations

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.core.fluids.coolant import CoolantCurves, boiling_point
from keelroom.core.network import GRAVITY

LEAST_PRESSURE = 3e3
"""[Pa] absolute under which there is nothing but vapour"""


def absolute(made: Floats, heights: Floats, density: float, reference: tuple[int, float]) -> Floats:
    """Absolute pressures [Pa] of the nodes (N,).

    made (N,) [Pa]: what the flows make, over any one node;  heights (N,) [m]
    reference : the node the cap stands at, and the absolute pressure [Pa] there
    Source: hydrostatics.
    """
    at, held = reference
    found: Floats = held + (made - made[at]) - density * GRAVITY * (heights - heights[at])
    return found


def boiling_margins(curve: CoolantCurves, pressure: Floats, temperature: Floats) -> Floats:
    """Kelvin (n, N) each place of n circuits is under boiling at its own absolute pressure [Pa] and temperature
    [degC]; negative where it boils.

    curve: stacked (n,). Source: RAOULT with IF97 water.
    """
    n, count = pressure.shape
    many = CoolantCurves(*(np.repeat(value, count, axis=0) for value in curve))
    margins: Floats = (
        boiling_point(many, np.maximum(pressure, LEAST_PRESSURE).reshape(-1)).reshape(n, count) - temperature
    )
    return margins
