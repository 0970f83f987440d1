"""The cabin an air conditioner cools: what its wet evaporator leaves of the air it is blown, and how warm the cabin
then stays."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.core.fluids.point import vapour_share

BLOWN, FRESH = 0.11, 0.03
"""[kg/s] the blower turns round on its highest step, recirculated, and what comes in by gaps and doors (common
practice: some 200 cfm, a quarter of it in older cars)."""
SHELL, SUN = 90.0, 1000.0
"""[W/K] through skin, glass and bulkhead, and [W] of sun through the glass (common practice)."""
PERSON, BREATH = 80.0, 2.2e-5
"""[W] and vapour [kg/s] of one person at the wheel (common practice)."""
PAST = 0.15
"""Share of the air that passes the evaporator's fins untouched (common practice)."""
COIL_COLDEST = 1.0
"""[degC] its thermostat lets the fins become: under it they would ice over."""
CP_DRY, CP_VAPOUR, BOILING_OFF = 1006.0, 1860.0, 2.501e6
"""[J/kgK], [J/kg] of moist air (ASHRAE)."""
HALVINGS = 24


class Cabin(NamedTuple):
    """vents, air [degC] at the vents and in the cabin; fins [degC] of the evaporator; latent : share of the cooling
    that goes into water;  used [W] of the cooling there is, less where the thermostat stops it."""

    vents: float
    air: float
    fins: float
    latent: float
    used: float


def enthalpy(temperature: float, vapour: float) -> float:
    """[J/kg dry air] of moist air. Source: ASHRAE."""
    return CP_DRY * temperature + vapour * (BOILING_OFF + CP_VAPOUR * temperature)


def per_dry(vapour: float) -> float:
    """Vapour [kg/kg dry air] of a share of moist air. Source: definition."""
    return vapour / (1 - vapour)


def with_fins_at(fins: float, outdoors: tuple[float, float], pressure: float) -> Cabin:
    """The cabin at rest with the evaporator's fins at a temperature [degC]. outdoors: temperature [degC], vapour
    [kg/kg dry]; pressure [Pa].

    Most of the air meets the fins and leaves at their temperature, saturated where it brought more than that; the rest
    passes by. Source: by-pass factor of cooling coils (ASHRAE); balances of heat and water, loads common practice.
    """
    outside, wet = outdoors
    met, lost = BLOWN * (1 - PAST), SHELL + FRESH * CP_DRY
    air = (lost * outside + SUN + PERSON + met * CP_DRY * fins) / (lost + met * CP_DRY)
    brings, most = wet + BREATH / FRESH, per_dry(vapour_share(pressure, fins, 1.0))
    vapour = brings if most >= brings else (met * most + FRESH * brings) / (met + FRESH)
    leaves = min(most, vapour)
    used = met * (enthalpy(air, vapour) - enthalpy(fins, leaves))
    dry = met * (CP_DRY + leaves * CP_VAPOUR) * (air - fins)
    return Cabin(PAST * air + (1 - PAST) * fins, air, fins, 1 - dry / used if used > 1.0 else 0.0, used)


def cabin(cooling: float, outdoors: tuple[float, float], pressure: float) -> Cabin:
    """The cabin at rest under so much cooling [W], its fins never colder than COIL_COLDEST: there the thermostat stops
    the compressor now and then. Source: as `with_fins_at`; the colder the fins, the more they take."""
    coldest = with_fins_at(COIL_COLDEST, outdoors, pressure)
    if coldest.used <= cooling:
        return coldest
    low, high = COIL_COLDEST, outdoors[0] + (SUN + PERSON) / SHELL
    for _ in range(HALVINGS):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if with_fins_at(middle, outdoors, pressure).used > cooling else (low, middle)
    return with_fins_at(0.5 * (low + high), outdoors, pressure)
