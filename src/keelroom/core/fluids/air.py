"""Moist air at altitude: standard-atmosphere pressure with the actual temperature and humidity."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.core.fluids.water import saturation_pressure

R_DRY = 287.05287
R_VAPOUR = 461.52
STANDARD_DENSITY = 1.2
"""Density fan ratings are stated at [kg/m3]."""


class AirState(NamedTuple):
    """Air at one pressure, vectorised. pressure (n,) [Pa]; vapour (n,) [kg vapour / kg moist air]."""

    pressure: Floats
    vapour: Floats


def standard_pressure(altitude: Floats | float) -> Floats:
    """Static pressure of the standard atmosphere.

    altitude : (n,) [m], -500..11000.  Returns (n,) [Pa].  Source: ISA, troposphere.
    """
    return 101325.0 * (1.0 - 2.25577e-5 * np.asarray(altitude, float)) ** 5.25588


def air_state(altitude: Floats, ambient: Floats, humidity: Floats) -> AirState:
    """Outdoor air. altitude (n,) [m]; ambient (n,) [degC], -40..60; humidity (n,) [0..1] relative.

    Source: ISA for pressure, IF97 for the vapour.
    """
    pressure = standard_pressure(altitude)
    vapour_pressure = np.asarray(humidity) * saturation_pressure(ambient)
    ratio = 0.62198 * vapour_pressure / (pressure - vapour_pressure)
    return AirState(pressure, ratio / (1.0 + ratio))


def density(air: AirState, temperature: Floats) -> Floats:
    """Density [kg/m3] of moist air as an ideal gas at `temperature` (n,) [degC].

    Source: ideal gas of dry air and vapour.
    """
    gas = R_DRY + air.vapour * (R_VAPOUR - R_DRY)
    return air.pressure / (gas * (temperature + 273.15))


def heat_capacity(air: AirState) -> Floats:
    """Specific heat cp [J/kgK], taken constant over -40..120 degC (within 0.5 %).

    Source: COOLPROP within 0.5 %.
    """
    return 1006.5 + air.vapour * 860.0


def viscosity(temperature: Floats) -> Floats:
    """Dynamic viscosity [Pa s] at (n,) [degC]. Source: SUTHERLAND (air, 110.4 K)."""
    kelvin = temperature + 273.15
    return 1.458e-6 * kelvin**1.5 / (kelvin + 110.4)


def conductivity(temperature: Floats) -> Floats:
    """Thermal conductivity [W/mK] at (n,) [degC]. Source: SUTHERLAND form (US standard atmosphere 1976)."""
    kelvin = temperature + 273.15
    return 2.64638e-3 * kelvin**1.5 / (kelvin + 245.4 * 10.0 ** (-12.0 / kelvin))
