"""Air side of a louvered fin: heat transfer, friction and the pressure drop of the core.

Correlation data end near 57 mm flow depth, Re_Lp 100..3000, louver angle 8..35 degrees, louver pitch
0.5..3 mm, fin pitch 0.5..3.3 mm. State ±15 % on j (±5 % on rejection) and ±20 % on f.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats, unit_share
from keelroom.core.thermal.geometry import CoreGeometry, CoreSurfaces

LOW_RE = 100.0
"""Below it the friction correlation's logarithm runs away; its slope at this point is carried on."""
BLEND = (100.0, 225.0)
"""The two friction branches, which meet with a step at Re_Lp 150, are blended over this range of Re_Lp."""
ENTRANCE, EXIT = 0.4, 0.2
"""Kays & London loss coefficients for laminar flow at sigma near 0.8, read from their chart (from memory)."""
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


def friction_factor(surface: LouverSurface, Re: Floats) -> Floats:
    """Fanning friction factor against louver-pitch Reynolds number, smooth over the correlation's break.

    surface fields broadcast against Re (any shape), Re > 0. Below LOW_RE its slope is carried on.
    Re 100..3000, flat beyond. Source: CHANG_HSU, blended over its break at 150.
    """
    held = np.maximum(Re, LOW_RE)
    low = surface.low0 * held**-surface.low_slope * np.log(0.5 * held) ** -3.01
    steepness = surface.low_slope + 3.01 / np.log(0.5 * LOW_RE)
    low = low * (np.minimum(Re, LOW_RE) / LOW_RE) ** -steepness
    high = surface.high0 * held**surface.high_slope * np.log(0.3 * held) ** -2.966
    x = unit_share(np.log(held / BLEND[0]) / np.log(BLEND[1] / BLEND[0]))
    weight = x * x * (3 - 2 * x)
    blended: Floats = low + weight * (high - low)
    return blended


def core_drop(
    core: CoreGeometry, surfaces: CoreSurfaces, surface: LouverSurface, flux: Floats, air: tuple[Floats, Floats, Floats]
) -> Floats:
    """Pressure lost by the air through the core, in the form of Kays & London.

    flux : (n,) or (n, k) [kg/s per m2 of face], >= 0
    air  : density ahead [kg/m3], viscosity [Pa s], expansion (density ahead over density behind); as flux
    Returns [Pa], as flux.  Source: KAYS_LONDON with entrance, core friction, acceleration and exit.
    """
    density, viscosity, expansion = air
    fields = [surfaces.free_ratio, core.louver_pitch, surfaces.air_area / surfaces.free_ratio]
    sigma, pitch, area_ratio = (f[:, None] for f in fields) if flux.ndim == 2 else fields
    shaped = surface if flux.ndim == 1 else LouverSurface(*(getattr(surface, k)[:, None] for k in surface._fields))
    G = flux / sigma
    f = friction_factor(shaped, np.maximum(G * pitch / viscosity, 1e-3))
    mean = 0.5 * (1 + expansion)
    loss = ENTRANCE + 1 - sigma**2 + 2 * (expansion - 1) + f * area_ratio * mean - (1 - sigma**2 - EXIT) * expansion
    return G**2 / (2 * density) * loss


def air_conductance(
    core: CoreGeometry, surfaces: CoreSurfaces, surface: LouverSurface, flux: Floats, air: tuple[Floats, Floats, Floats]
) -> Floats:
    """Air-side conductance eta_o h A per square metre of face.

    flux : (n, k) [kg/s per m2 of face], > 0;  air : viscosity, conductivity, heat capacity at film, (n,)
    Returns (n, k) [W/K per m2 of face].  Fin efficiency tanh(mL)/(mL) with half the fin height.
    Source: CHANG_WANG with fin efficiency tanh(mL)/mL.
    """
    viscosity, conductivity, cp = air
    prandtl = viscosity * cp / conductivity
    scale = (
        surface.j0 * (core.louver_pitch / viscosity) ** -0.49 * surfaces.free_ratio**-0.51 * cp * prandtl ** (-2 / 3)
    )
    h = scale[:, None] * flux**0.51
    stiffness = 0.5 * core.fin_height * np.sqrt(2 / (core.fin_conductivity * core.fin_thickness))
    mL = stiffness[:, None] * np.sqrt(h)
    eta = np.tanh(mL) / mL
    overall = 1 - surfaces.fin_share[:, None] * (1 - eta)
    return overall * h * surfaces.air_area[:, None]


def louver_reynolds(core: CoreGeometry, surfaces: CoreSurfaces, flux: Floats, viscosity: Floats) -> Floats:
    """Re on louver pitch at face mass flux (n,) [kg/s per m2]: the correlations' validity is stated in it.

    Source: definition.
    """
    return flux / surfaces.free_ratio * core.louver_pitch / viscosity
