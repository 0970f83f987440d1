"""What the coolant circuit holds, how much more room it wants hot, and what is bought to fill it."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import stack
from keelroom.core.fluids.coolant import CoolantCurves, coolant_state

JACKET = 1.3
"""Coolant in block, head and heater over the engine's displacement (common practice: a five-litre engine holds six to
seven)."""
TUBES, TANKS = 0.20, 0.75
"""Share of a core's block that is coolant, and of its tanks."""
COLD, HOT = 10.0, 105.0
"""[degC] between which a bottle has to take what the coolant grows."""


def core_volume(core: tuple[float, float, float], tanks: float) -> float:
    """Coolant in a core [m3]. core: width, height, depth [m]; tanks [m3]. Source: TUBES, TANKS common practice."""
    return TUBES * math.prod(core) + TANKS * tanks


def line_volume(bore: float, length: float) -> float:
    """Coolant in a hose [m3]. bore and length [m]. Source: geometry."""
    return math.pi / 4 * bore**2 * length


def expansion(curves: CoolantCurves, cold: float = COLD, hot: float = HOT) -> float:
    """Share by which a mix grows from cold to hot [degC].

    Source: densities of the mix.
    """
    density = coolant_state(stack([curves, curves]), np.array([cold, hot])).density
    return float(density[0] / density[1]) - 1


FILLED = 20.0
"""[degC] a circuit is closed at."""


def built(air: float, growth: float, outdoors: float, temperature: float) -> float:
    """Pressure [Pa] over the outdoors [Pa] of a closed circuit whose coolant has grown into the air over it; without
    end where there is no such air left. air, growth [m3], temperature [degC] of both.

    The vapour's own is left out: it is on the safe side. Source: ideal gas.
    """
    left = air - growth
    if left <= 0:
        return math.inf
    return max(outdoors * (air / left * (temperature + 273.15) / (FILLED + 273.15) - 1), 0.0)


class Purchase(NamedTuple):
    """What goes in [m3]: glycol and water, and the share of glycol the circuit then has; reached: whether that is the
    one wanted."""

    glycol: float
    water: float
    share: float
    reached: bool


def bought(volume: float, wanted: float, stays: float, stays_share: float) -> Purchase:
    """Glycol and water for a circuit of `volume` [m3] at a wanted share, where a part `stays` in it with a share of
    glycol of its own.

    All shares 0..1 by volume. Source: balance of the glycol.
    """
    room = volume * (1 - stays)
    glycol = volume * (wanted - stays * stays_share)
    held = min(max(glycol, 0.0), room)
    share = (held + volume * stays * stays_share) / volume if volume > 0 else wanted
    return Purchase(held, room - held, share, abs(share - wanted) < 1e-9)


class TankRoom(NamedTuple):
    """What a tank has to hold [m3]: what must stay in it cold, the growth, and air over it; and where its cold mark
    stands, 0..1 of its height."""

    cold: float
    growth: float
    air: float

    @property
    def wanted(self) -> float:
        return self.cold + self.growth + self.air

    def mark(self, holds: float) -> float:
        """Share of a tank that holds so much [m3] to fill cold: growth and the air over it stay free. 0..1"""
        return min(max(1 - (self.growth + self.air) / holds, 0.0), 1.0)


COLD_SHARE, AIR_SHARE = 0.5, 0.5
"""Of the growth: what stays in a tank cold, so that its outlet never draws air, and the air that is pressed together
over it hot."""


def room_wanted(volume: float, growth: float) -> TankRoom:
    """Room a tank must have for a circuit of `volume` [m3] that grows by a share. Source: COLD_SHARE, AIR_SHARE,
    common practice."""
    grown = volume * growth
    return TankRoom(COLD_SHARE * grown, grown, AIR_SHARE * grown)
