"""What the coolant circuit holds, and how much more room it wants hot."""

from __future__ import annotations

import math

import numpy as np

from keelroom.core.arrays import stack
from keelroom.core.fluids.coolant import CoolantCurves, coolant_state

JACKET = 1.3
"""Coolant in block, head and heater over the engine's displacement (common practice: a five-litre engine holds six to seven)."""
TUBES, TANKS = 0.20, 0.75
"""Share of a core's block that is coolant, and of its tanks."""
COLD, HOT = 10.0, 105.0
"""[degC] between which a bottle has to take what the coolant grows."""


def circuit_volume(displacement: float, core: tuple[float, float, float], tanks: float, hose: tuple[float, float]) -> float:
    """Coolant in the circuit [m3]. displacement, tanks [m3]; core: width, height, depth [m]; hose: bore and length [m].

    Source: JACKET, TUBES, TANKS common practice.
    """
    bore, length = hose
    return JACKET * displacement + TUBES * math.prod(core) + TANKS * tanks + math.pi / 4 * bore**2 * length


def expansion(curves: CoolantCurves, cold: float = COLD, hot: float = HOT) -> float:
    """Share by which a mix grows from cold to hot [degC].

    Source: densities of the mix.
    """
    density = coolant_state(stack([curves, curves]), np.array([cold, hot])).density
    return float(density[0] / density[1]) - 1
