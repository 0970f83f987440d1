"""The condenser: where the refrigerant settles between the compressor's work and the air it gets."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats

EVAPORATES = 5.0
"""[degC] in the evaporator (common practice)."""
RATED_AT = 55.0
"""[degC] of condensing at which the cooling per shaft power is stated (common practice)."""
CUT_OUT = 85.0
"""[degC] of condensing at which the pressure switch stops the compressor: some 29 bar of R-134a (common practice: 26
to 31 bar)."""
CABIN, BLOWN, COLDEST = 35.0, 0.11, 3.0
"""Air taken from the cabin [degC] and its flow [kg/s], and the coldest the vents are let become (common practice)."""
AIR_CP = 1006.0


class Condensed(NamedTuple):
    """Where refrigerant settles, (n,). condensing [degC]; heat [W] given up; cop: cooling per shaft power; cut: share
    of the time it runs, under 1 where the switch cuts in."""

    condensing: Floats
    heat: Floats
    cop: Floats
    runs: Floats


def cop_share(stated: Floats) -> Floats:
    """Share of Carnot's cooling per power that is reached, from what is stated at RATED_AT. Source: Carnot between
    EVAPORATES and RATED_AT."""
    share: Floats = stated * (RATED_AT - EVAPORATES) / (EVAPORATES + 273.15)
    return share


def condensed(shaft: Floats, share: Floats, per_kelvin: Floats, air: Floats) -> Condensed:
    """Condensing temperature at which what is given up goes into the air; like shapes.

    shaft [W] of the compressor; share of Carnot; per_kelvin [W/K] from the refrigerant to the air that enters at
    `air` [degC]. shaft (1 + share T/(condensing - EVAPORATES)) = per_kelvin (condensing - air), solved in closed
    form; never over CUT_OUT, where it runs only part of the time. Source: heat balance with a share of Carnot.
    """
    runs_at_all = shaft > 0
    k = np.maximum(per_kelvin, 1e-9)
    b = k * (EVAPORATES - air) - shaft
    lift = (-b + np.sqrt(b * b + 4 * k * shaft * share * (EVAPORATES + 273.15))) / (2 * k)
    wanted = EVAPORATES + lift
    condensing = np.where(runs_at_all, np.clip(wanted, EVAPORATES + 1.0, CUT_OUT), air)
    cop = share * (EVAPORATES + 273.15) / np.maximum(condensing - EVAPORATES, 1.0)
    full = shaft * (1 + cop)
    taken = np.maximum(k * (condensing - air), 0.0)
    heat = np.where(runs_at_all, np.where(wanted > CUT_OUT, np.minimum(taken, full), full), 0.0)
    runs = np.where(runs_at_all & (wanted > CUT_OUT), heat / np.maximum(full, 1e-9), 1.0)
    return Condensed(condensing, heat, cop, runs)


def vent_air(shaft: Floats, cop: Floats, runs: Floats) -> Floats:
    """Air at the vents [degC] from cabin air, recirculated. Source: heat balance over the evaporator; flow and cabin
    common practice."""
    cooled: Floats = np.maximum(CABIN - shaft * cop * runs / (BLOWN * AIR_CP), COLDEST)
    return cooled
