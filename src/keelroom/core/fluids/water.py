"""Saturation line of water. Source: IF97, region 4 (IAPWS-IF97, equations 30 and 31)."""

from __future__ import annotations

from keelroom.core.arrays import Floats
from keelroom.core.fluids import point
from keelroom.core.rows import over


def saturation_pressure(temperature: Floats | float) -> Floats:
    """Vapour pressure of water [Pa] at `temperature` (n,) [degC], 0..370; used from -40 by extrapolation.

    Source: IF97.
    """
    return over(point.saturation_pressure, temperature)
