"""Wire: its copper by cable class, resistance with temperature, what it may carry and how warm it gets."""

from __future__ import annotations

import bisect
import math
from typing import NamedTuple

import numpy as np

from keelroom.core.kept import by_value
from keelroom.errors import InputError
from keelroom.gauges import awg_area, awg_number

COPPER_ALPHA = 0.00393
"""Rise of copper's resistance per kelvin at 20 degC (ASTM B258, IEC 60028)."""
ANNEALED = 0.017241e-6
"""Resistivity of annealed copper at 20 degC [ohm m], 100 % IACS (IEC 60028)."""
STRANDING = 1.02
"""Strands run a little longer than the wire (ASTM B174, from memory)."""
ALUMINIUM = 1.6
"""Copper-clad aluminium against copper of the same size (common practice)."""


class CableClass(NamedTuple):
    """A class of cable: its name, the hottest its insulation may run [degC], and how its copper is made."""

    name: str
    limit: float
    copper: str


CABLES: dict[str, CableClass] = {
    "j1128_thermoplastic": CableClass("SAE J1128 thermoplastic, 80 °C", 80.0, "j1128"),
    "j1128_crosslinked": CableClass("SAE J1128 cross-linked, 125 °C", 125.0, "j1128"),
    "iso_a": CableClass("ISO 6722 class A, 85 °C", 85.0, "iso"),
    "iso_b": CableClass("ISO 6722 class B, 100 °C", 100.0, "iso"),
    "iso_c": CableClass("ISO 6722 class C, 125 °C", 125.0, "iso"),
    "iso_d": CableClass("ISO 6722 class D, 150 °C", 150.0, "iso"),
    "bare_awg": CableClass("Class not known: bare AWG copper, 80 °C", 80.0, "bare"),
    "aluminium": CableClass("Copper-clad aluminium, 80 °C", 80.0, "aluminium"),
}
J1128_AREA = {
    22: 0.324,
    20: 0.508,
    18: 0.76,
    16: 1.12,
    14: 1.85,
    12: 2.91,
    10: 4.65,
    8: 7.23,
    6: 12.1,
    4: 18.3,
    2: 31.1,
    1: 38.5,
    0: 49.0,
    -1: 62.0,
    -2: 79.0,
    -3: 99.0,
}
"""Smallest copper section [mm2] by gauge number. Source: SAE J1128, from memory."""
ISO_RESISTANCE = {
    0.35: 54.4,
    0.5: 37.1,
    0.75: 24.7,
    1.0: 18.5,
    1.5: 12.7,
    2.5: 7.60,
    4.0: 4.71,
    6.0: 3.14,
    10.0: 1.82,
    16.0: 1.16,
    25.0: 0.743,
    35.0: 0.527,
    50.0: 0.368,
    70.0: 0.259,
}
"""Largest resistance [mohm/m] at 20 degC by nominal section [mm2]. Source: ISO 6722, from memory above 10 mm2 and
under 1."""
AMPACITY: dict[float, dict[int, float]] = {
    80.0: {
        18: 15,
        16: 20,
        14: 25,
        12: 35,
        10: 50,
        8: 70,
        6: 100,
        4: 130,
        2: 175,
        1: 210,
        0: 245,
        -1: 285,
        -2: 330,
        -3: 385,
    },
    90.0: {
        18: 20,
        16: 25,
        14: 30,
        12: 40,
        10: 55,
        8: 70,
        6: 100,
        4: 135,
        2: 180,
        1: 210,
        0: 245,
        -1: 285,
        -2: 330,
        -3: 385,
    },
    105.0: {
        18: 20,
        16: 25,
        14: 35,
        12: 45,
        10: 60,
        8: 80,
        6: 120,
        4: 160,
        2: 210,
        1: 245,
        0: 285,
        -1: 330,
        -2: 385,
        -3: 445,
    },
    125.0: {
        18: 25,
        16: 30,
        14: 40,
        12: 50,
        10: 70,
        8: 90,
        6: 125,
        4: 170,
        2: 225,
        1: 265,
        0: 305,
        -1: 355,
        -2: 410,
        -3: 475,
    },
    200.0: {
        18: 25,
        16: 35,
        14: 45,
        12: 55,
        10: 70,
        8: 100,
        6: 135,
        4: 180,
        2: 240,
        1: 280,
        0: 325,
        -1: 370,
        -2: 430,
        -3: 510,
    },
}
"""Amps of one conductor in 30 degC air, by its insulation's limit [degC] and gauge number. Source: 33 CFR 183.425
table 5, from memory."""
TABLE_AIR = 30.0

BUNDLE = ((2, 1.0), (3, 0.70), (6, 0.60), (24, 0.50), (math.inf, 0.40))
"""Share of its amps a conductor keeps among up to so many loaded ones. Source: 33 CFR 183.425 note to table 5, from
memory."""


class Conductor(NamedTuple):
    """One wire as copper: section [m2], resistance [ohm/m] at 20 degC, hottest its insulation may run [degC]."""

    area: float
    resistance: float
    limit: float


def conductor(size: float, metric: bool, cable: str) -> Conductor:
    """The copper in a wire of a nominal size.

    size   : nominal section [m2]: of the gauge number by ASTM B258, or as printed on metric cable;  metric : which of
             the two
    cable  : key of CABLES. The class comes first: J1128 cable holds less copper than its gauge number, ISO 6722
             states ohms.
    Raises : InputError for a class that does not exist
    Sources: ASTM_B258, SAE_J1128, ISO_6722.
    """
    if cable not in CABLES:
        raise InputError("cable_class", f"“{cable}” is no cable class; use one of {', '.join(CABLES)}")
    kind = CABLES[cable]
    area = size
    if kind.copper == "iso" and metric:
        resistance = 1e-3 * ISO_RESISTANCE.get(round(size * 1e6, 3), 1e3 * ANNEALED * STRANDING / size)
        return Conductor(ANNEALED * STRANDING / resistance, resistance, kind.limit)
    if kind.copper == "j1128" and not metric:
        area = J1128_AREA.get(round(awg_number(size)), size * 1e6 * 0.88) * 1e-6
    resistance = ANNEALED * STRANDING / area * (ALUMINIUM if kind.copper == "aluminium" else 1.0)
    return Conductor(area, resistance, kind.limit)


def resistance_at(wire: Conductor, temperature: float) -> float:
    """Ohms per metre at a conductor temperature [degC], -40..200. Source: linear coefficient of copper."""
    return wire.resistance * (1 + COPPER_ALPHA * (temperature - 20.0))


_NUMBERS = sorted(AMPACITY[105.0], reverse=True)
_AREAS = [math.log(awg_area(n)) for n in _NUMBERS]
_LIMITS = sorted(AMPACITY)
_AMPS = {limit: [math.log(table[n]) for n in _NUMBERS] for limit, table in AMPACITY.items()}


def _table_amps(area: float, limit: float) -> float:
    """Amps of the table at a section [m2] and an insulation's limit [degC]: straight between its sizes in logarithms
    and between its columns."""
    x = math.log(area)
    k = min(max(bisect.bisect(_AREAS, x), 1), len(_AREAS) - 1)
    share = (x - _AREAS[k - 1]) / (_AREAS[k] - _AREAS[k - 1])
    columns = [math.exp(_AMPS[at][k - 1] + share * (_AMPS[at][k] - _AMPS[at][k - 1])) for at in _LIMITS]
    return float(np.interp(limit, _LIMITS, columns))


def bundle_share(loaded: int) -> float:
    """Share of its amps a conductor keeps among `loaded` ones side by side, itself included.

    loaded >= 1; 0.4..1. Source: CFR183.
    """
    return next(share for most, share in BUNDLE if loaded <= most)


@by_value(1024)
def _shed(wire: Conductor, loaded: int) -> float:
    """Heat a metre of the wire gives up per kelvin [W/mK]: what the table's amps for its insulation in the table's
    air must have been."""
    amps = _table_amps(wire.area, wire.limit) * bundle_share(loaded)
    bare = ANNEALED * STRANDING / wire.area
    return amps**2 * bare * (1 + COPPER_ALPHA * (wire.limit - 20)) / (wire.limit - TABLE_AIR)


def ampacity(wire: Conductor, ambient: float, loaded: int = 1) -> float:
    """Amps at which the conductor just reaches its insulation's limit, 0 where the air is as hot as that.

    ambient [degC] of the air round it;  loaded : loaded conductors in the bundle, itself included
    Source  : 33 CFR 183.425 table 5, its column for the insulation, carried to other ambients by heat shed in
              proportion to the rise
    """
    rise = wire.limit - ambient
    return math.sqrt(_shed(wire, loaded) * rise / resistance_at(wire, wire.limit)) if rise > 0 else 0.0


HOTTEST = 400.0
"""[degC] said where the wire would go on heating until it melts its insulation."""


def conductor_temperature(wire: Conductor, current: float, ambient: float, loaded: int = 1) -> float:
    """Steady temperature [degC] of the copper at `current` [A]; HOTTEST where it runs away.

    Source: heat shed in proportion to the rise, CFR183 at its own point.
    """
    shed = _shed(wire, loaded)
    heat = current**2 * wire.resistance
    left = shed - heat * COPPER_ALPHA
    if left <= 0:
        return HOTTEST
    return min((ambient * shed + heat * (1 - 20 * COPPER_ALPHA)) / left, HOTTEST)


def wire_voltage_drop(current: float, length: float, wire: Conductor, temperature: float) -> float:
    """Volts lost in a supply and return conductor of equal length.

    current [A] >= 0;  length [m] one way, >= 0;  temperature [degC] of the conductor
    Raises : InputError for a negative length
    [V]. Source: Ohm’s law.
    """
    if length < 0:
        raise InputError("length", "A wire's length must be at least 0", value=length)
    return 2 * current * length * resistance_at(wire, temperature)
