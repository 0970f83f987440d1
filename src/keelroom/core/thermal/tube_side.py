"""Coolant side of a flat tube: developing laminar, transition, turbulent."""

from __future__ import annotations

import math

import numpy as np

from keelroom.core.arrays import Floats, unit_share

LAMINAR_END = 2300.0
DOUBT_LAMINAR, DOUBT_TURBULENT, DOUBT_TRANSITION = 0.10, 0.10, 0.30
"""Standard doubt of the Nusselt number: in laminar and turbulent flow, and at its most between them (smooth and rough
tubes differ by more than that)."""
BLEND_FROM, BLEND_TO = 1000.0, 6000.0
WIDEST, SPREAD = 2300.0, 0.65
"""Re where that doubt is greatest, and how far from there it fades, in ln Re."""


def laminar_nusselt(aspect: Floats, graetz: Floats) -> Floats:
    """Mean Nusselt number of a developing laminar flow in a flat duct at constant wall temperature.

    aspect : (n,) inner height over width, 0..1;  graetz : (n,) Re Pr Dh / L, > 0
    Source : SHAH_LONDON; fully developed polynomial in aspect, with their entry limit 1.849 Gz^(1/3)
    """
    return _entering(_developed(aspect), graetz)


def _developed(a: Floats) -> Floats:
    return 7.541 * (1 - a * (2.610 - a * (4.970 - a * (5.119 - a * (2.702 - 0.548 * a)))))


def _entering(developed: Floats, graetz: Floats) -> Floats:
    mean: Floats = (developed**3 + 1.849**3 * graetz) ** (1 / 3)
    return mean


def taler_rise(Re: Floats, Pr: Floats, diameter_over_length: Floats) -> Floats:
    """What turbulence adds to the laminar Nusselt number at Re 2300: nothing there, Re 2300..1e6, Pr 0.1..1000.
    Source: TALER, ±10 %.

    (n,).
    """
    over = np.maximum(Re, LAMINAR_END)
    friction = (1.2776 * np.log10(over) - 0.406) ** -2.246 / 8
    rise = friction * (over - LAMINAR_END) * Pr**1.008 / (1.08 + 12.39 * np.sqrt(friction) * (Pr ** (2 / 3) - 1))
    return rise * (1 + diameter_over_length ** (2 / 3))


def tube_nusselt(Re: Floats, Pr: Floats, aspect: Floats, diameter_over_length: Floats) -> Floats:
    """Nusselt number over all regimes (n,): developing laminar up to Re 1000, Taler's from Re 6000, a power of Re
    between.

    In a smooth pipe with a calm entry turbulence begins at Re 2300. A radiator's flat tubes have sharp, re-entrant
    ends, seams and dimples, and leave the laminar line from about Re 1000 on; a power through both ends keeps a
    deeper core from losing more by slower coolant than it gains by its area.  Sources: SHAH_LONDON, TALER; where the
    blend begins: common practice
    """

    developed, per_reynolds = _developed(aspect), Pr * diameter_over_length
    low = _entering(developed, np.minimum(Re, BLEND_FROM) * per_reynolds)
    high = _entering(developed, LAMINAR_END * per_reynolds) + taler_rise(
        np.maximum(Re, BLEND_TO), Pr, diameter_over_length
    )
    share = unit_share(np.log(np.maximum(Re, 1.0) / BLEND_FROM) / math.log(BLEND_TO / BLEND_FROM))
    blended: Floats = low ** (1 - share) * high**share
    return blended


def nusselt_doubt(Re: Floats) -> Floats:
    """Standard doubt (n,) of `tube_nusselt`, as a share of it.

    Source: scatter of TALER and GNIELINSKI, and of rough flat tubes (common practice).
    """
    turbulent = unit_share((Re - LAMINAR_END) / (1e4 - LAMINAR_END))
    plain = DOUBT_LAMINAR + (DOUBT_TURBULENT - DOUBT_LAMINAR) * turbulent
    between = np.exp(-((np.log(np.maximum(Re, 1.0) / WIDEST) / SPREAD) ** 2))
    return plain + (DOUBT_TRANSITION - plain) * between
