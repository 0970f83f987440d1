"""The air conditioner at the condenser: where its cooling is stated, and what bounds it. Where the refrigerant
settles is found in `point`."""

from __future__ import annotations

EVAPORATES = 5.0
"""[degC] in the evaporator (common practice)."""
RATED_AT = 55.0
"""[degC] of condensing at which the cooling per shaft power is stated (common practice)."""
CUT_OUT = 85.0
"""[degC] of condensing at which the pressure switch stops the compressor: some 29 bar of R-134a (common practice: 26
to 31 bar)."""
KELVIN = 273.15


def cop_share(stated: float) -> float:
    """Share of Carnot's cooling per power that is reached, from what is stated at RATED_AT.

    0..1. Source: Carnot between EVAPORATES and RATED_AT.
    """
    return stated * (RATED_AT - EVAPORATES) / (EVAPORATES + KELVIN)
