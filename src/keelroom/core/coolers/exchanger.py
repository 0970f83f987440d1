"""What an exchanger hands over per kelvin between the fluid and the air that enter it."""

from __future__ import annotations

import numpy as np

from keelroom.core.arrays import Floats

VELOCITY = 3.0
"""[m/s] of the air at the face at which a cooler's conductance is stated."""
AIR_EXPONENT = 0.6
"""How the air side's conductance rises with the air's speed (common practice: 0.5 to 0.7 for louvered and offset
fins)."""
AIR_DENSITY = 1.15
"""[kg/m3] of the air the stated speed is of."""
SLOWEST = 0.02
"""Share of VELOCITY below which the air side's conductance falls no further: natural convection."""


def effectiveness(ntu: Floats, ratio: Floats) -> Floats:
    """Share of what could be handed over in cross-flow, both sides unmixed; same shapes, ntu >= 0, ratio 0..1 of the
    capacities.

    Source: KAYS_LONDON, the usual closed form (within 4 % of the series); at ratio 0 it is 1 - exp(-ntu).
    """
    least = np.maximum(ratio, 1e-6)
    units = np.maximum(ntu, 1e-12)
    share: Floats = -np.expm1(units**0.22 / least * np.expm1(-least * units**0.78))
    return share


def conductance_at(stated: Floats, air_share: Floats, flow: Floats, area: Floats) -> Floats:
    """Fluid to air [W/K] of a whole face at an air flow [kg/s]: the fluid's side stays, the air's goes with the speed.

    stated [W/K per m2] at VELOCITY;  air_share of the resistance there that is the air's;  area [m2]. Like shapes,
    all >= 0.
    Source: resistances in series; AIR_EXPONENT common practice.
    """
    speed = np.maximum(flow / (AIR_DENSITY * np.maximum(area, 1e-9)) / VELOCITY, SLOWEST)
    per_area: Floats = stated / (air_share * speed**-AIR_EXPONENT + 1 - air_share)
    return per_area * area


def handed_over(conductance: Floats, air: Floats, fluid: Floats) -> Floats:
    """Heat per kelvin between the entering fluid and the entering air [W/K].

    conductance, air, fluid [W/K]: of the exchanger, capacity of the air, and of the fluid (very large where it
    condenses). Like shapes, >= 0. Source: KAYS_LONDON, effectiveness and units of transfer.
    """
    least, most = np.minimum(air, fluid), np.maximum(air, fluid)
    share = effectiveness(conductance / np.maximum(least, 1e-9), least / np.maximum(most, 1e-9))
    per_kelvin: Floats = share * least
    return per_kelvin
