"""Moist air at altitude: standard-atmosphere pressure with the actual temperature and humidity."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.core.arrays import Floats
from keelroom.core.fluids import point
from keelroom.core.rows import over

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
    return over(point.standard_pressure, altitude)


def air_state(altitude: Floats, ambient: Floats, humidity: Floats) -> AirState:
    """Outdoor air. altitude (n,) [m]; ambient (n,) [degC], -40..60; humidity (n,) [0..1] relative.

    Source: ISA for pressure, IF97 for the vapour.
    """
    pressure = standard_pressure(altitude)
    return AirState(pressure, over(point.vapour_share, pressure, ambient, humidity))


def density(air: AirState, temperature: Floats) -> Floats:
    """Density [kg/m3] of moist air as an ideal gas at `temperature` (n,) [degC].

    Source: ideal gas of dry air and vapour.
    """
    return over(point.density, air.pressure, air.vapour, temperature)


def viscosity(temperature: Floats) -> Floats:
    """Dynamic viscosity [Pa s] at (n,) [degC]. Source: SUTHERLAND (air, 110.4 K)."""
    return over(point.viscosity, temperature)


def conductivity(temperature: Floats) -> Floats:
    """Thermal conductivity [W/mK] at (n,) [degC]. Source: SUTHERLAND form (US standard atmosphere 1976)."""
    return over(point.conductivity, temperature)
