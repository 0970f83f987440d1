"""Coolant side of a flat tube: developing laminar, transition, turbulent."""

from __future__ import annotations

from keelroom.core.arrays import Floats
from keelroom.core.rows import over
from keelroom.core.thermal import point


def tube_nusselt(Re: Floats, Pr: Floats, aspect: Floats, diameter_over_length: Floats) -> Floats:
    """Nusselt number over all regimes, any shapes that go together: developing laminar up to Re 1000, Taler's from Re
    6000, a power of Re between.

    Sources: SHAH_LONDON, TALER; where the blend begins: common practice
    """
    return over(point.tube_nusselt, Re, Pr, aspect, diameter_over_length)


def nusselt_doubt(Re: Floats) -> Floats:
    """Standard doubt (n,) of `tube_nusselt`, as a share of it.

    Source: scatter of TALER and GNIELINSKI, and of rough flat tubes (common practice).
    """
    return over(point.nusselt_doubt, Re)
