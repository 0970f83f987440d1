"""Air side of a louvered fin: heat transfer, friction and the pressure drop of the core.

Correlation data end near 57 mm flow depth, Re_Lp 100..3000, louver angle 8..35 degrees, louver pitch
0.5..3 mm, fin pitch 0.5..3.3 mm. State ±15 % on j (±5 % on rejection) and ±20 % on f.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.core.rows import bound, over
from keelroom.core.thermal import point
from keelroom.core.thermal.geometry import CoreGeometry, CoreSurfaces

FIN_SHARE = (0.015, 0.5)
"""Fin thickness over fin pitch the friction law is asked at: its logarithm is nothing at 0.0083 and its factor runs
away above that."""
RANGES = {
    "depth": (0.0, 0.0572),
    "louver_pitch": (0.5e-3, 3.0e-3),
    "fin_pitch": (0.5e-3, 3.3e-3),
    "louver_angle": (8.0, 35.0),
}


class LouverSurface(NamedTuple):
    """Constants of one surface so that speed is all that is left to vary; arrays (n,).

    j = j0 Re^-0.49;  low branch f = low0 Re^-low_slope ln(0.5 Re)^-3.01;
    high branch f = high0 Re^high_slope ln(0.3 Re)^-2.966;  Re on louver pitch.
    """

    j0: Floats
    low0: Floats
    low_slope: Floats
    high0: Floats
    high_slope: Floats


def louver_surface(core: CoreGeometry, surfaces: CoreSurfaces) -> LouverSurface:
    """Constants of the generalized correlations. Sources: CHANG_WANG for j, CHANG_HSU for f.

    Lengths [m], angle [rad].
    """
    Fp, Lp, Fl, Ll = core.fin_pitch, core.louver_pitch, core.fin_height, core.louver_length
    Td, Ft, theta = core.depth, core.fin_thickness, core.louver_angle
    Dm, Dh = core.tube_height, surfaces.air_diameter
    Tp = Fl + Dm
    j0 = (
        (theta / 90) ** 0.27
        * (Fp / Lp) ** -0.14
        * (Fl / Lp) ** -0.29
        * (Td / Lp) ** -0.23
        * (Ll / Lp) ** 0.68
        * (Tp / Lp) ** -0.28
        * (Ft / Lp) ** -0.05
    )
    low0 = (
        14.39
        * np.log(1 + Fp / Lp) ** 3.04
        * np.log((Ft / Fp) ** 0.48 + 0.9) ** -1.435
        * (Dh / Lp) ** -3.01
        * (Fp / Ll) ** -0.308
        * (Td / Ll) ** -0.308
        * np.exp(-0.1167 * Tp / Dm)
        * theta**0.35
    )
    high0 = (
        4.97
        * np.log((Ft / Fp) ** 0.5 + 0.9) ** -0.527
        * (Dh / Lp) ** -2.966
        * (Fp / Ll) ** (-0.7931 * Tp / Fl)
        * (Tp / Dm) ** -0.0446
        * np.log(1.2 + (Lp / Fp) ** 1.4) ** -3.553
        * theta**-0.477
    )
    return LouverSurface(j0, low0, 0.805 * Fp / Fl, high0, 0.6049 - 1.064 / theta**0.2)


def core_drop(
    core: CoreGeometry, surfaces: CoreSurfaces, surface: LouverSurface, flux: Floats, air: tuple[Floats, Floats, Floats]
) -> Floats:
    """Pressure lost by the air through the core, in the form of Kays & London.

    flux : (n, k) [kg/s per m2 of face], >= 0
    air  : density ahead [kg/m3], viscosity [Pa s], expansion (density ahead over density behind); as flux
    Returns [Pa], as flux.  Source: KAYS_LONDON with entrance, core friction, acceleration and exit.
    """
    rows = bound(point.CoreRows, core), bound(point.SurfaceRows, surfaces), bound(point.LouverRows, surface)
    every = np.broadcast_to(np.arange(len(flux))[:, None], flux.shape)
    return over(lambda i, *at: point.core_drop(*rows, i, *at), every, flux, *air)


def louver_reynolds(core: CoreGeometry, surfaces: CoreSurfaces, flux: Floats, viscosity: Floats) -> Floats:
    """Re on louver pitch at face mass flux (n,) [kg/s per m2]: the correlations' validity is stated in it.

    Source: definition.
    """
    return flux / surfaces.free_ratio * core.louver_pitch / viscosity
