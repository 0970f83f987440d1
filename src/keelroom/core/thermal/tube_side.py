"""Coolant side of a flat tube: developing laminar, transition, turbulent."""

from __future__ import annotations

import numpy as np

from keelroom.core.arrays import Floats, unit_share

LAMINAR_END, TURBULENT_START = 2300.0, 4000.0


def laminar_nusselt(aspect: Floats, graetz: Floats) -> Floats:
    """Mean Nusselt number of a developing laminar flow in a flat duct at constant wall temperature.

    aspect : (n,) inner height over width, 0..1;  graetz : (n,) Re Pr Dh / L, > 0
    Source : SHAH_LONDON; fully developed polynomial in aspect, with their entry limit 1.849 Gz^(1/3)
    """
    a = aspect
    developed = 7.541 * (1 - 2.610 * a + 4.970 * a**2 - 5.119 * a**3 + 2.702 * a**4 - 0.548 * a**5)
    return (developed**3 + 1.849**3 * graetz) ** (1 / 3)


def gnielinski_nusselt(Re: Floats, Pr: Floats) -> Floats:
    """Turbulent Nusselt number in a smooth duct, Re 3000..5e6, Pr 0.5..2000. Source: GNIELINSKI, ±10 %."""
    f = (0.79 * np.log(Re) - 1.64) ** -2
    return f / 8 * (Re - 1000) * Pr / (1 + 12.7 * np.sqrt(f / 8) * (Pr ** (2 / 3) - 1))


def tube_nusselt(Re: Floats, Pr: Floats, aspect: Floats, diameter_over_length: Floats) -> Floats:
    """Nusselt number over all regimes (n,); between Re 2300 and 4000 a straight line in Re (GNIELINSKI, 2013)."""
    laminar = laminar_nusselt(aspect, np.minimum(Re, LAMINAR_END) * Pr * diameter_over_length)
    turbulent = gnielinski_nusselt(np.maximum(Re, TURBULENT_START), Pr)
    weight = unit_share((Re - LAMINAR_END) / (TURBULENT_START - LAMINAR_END))
    return (1 - weight) * laminar + weight * turbulent
