"""What stores heat in a car and how fast it follows: proposed from its size where nobody measured it.

A lump's capacity moves no steady temperature, only the time it takes: ±30 % of all of them is some ±30 % of every
time from one temperature to the next.
"""

from __future__ import annotations

from typing import NamedTuple

LITRE = 1e-3
WETTED = {"iron": 7.0e3, "mixed": 6.5e3, "aluminium": 6.0e3}
"""[J/K per litre of displacement] of head deck, bores and ports, which coolant touches (common practice, no source: a
third of the engine's mass)."""
REST = {"iron": 13.0e3, "mixed": 9.5e3, "aluminium": 7.0e3}
"""[J/K per litre] of the rest of block, crank and heads (common practice, no source: some 45 kg of iron, 30 kg with
aluminium heads, 22 kg all aluminium per litre, half of it slowly warmed)."""
FILM = 1200.0
"""[W/K per litre] from that metal to coolant at its rated flow (common practice, no source: a head runs some 4 K over
the coolant at idle, 25 K at full power)."""
SOAKS_IN = 600.0
"""[s] in which the rest of the engine comes 63 % of the way to the wetted metal (common practice, no source)."""
STANDS = 12.0
"""[W/K] an engine that is shut off sheds to the bay, and per litre as much again over 4 (common practice)."""
OIL_PER_LITRE, OIL_HEAT = 1.0e-3, 850.0 * 2130.0
"""[m3] of oil in the sump per litre of displacement (common practice), and what a cubic metre of it stores [J/K]."""
GEARBOX = {"automatic": 30e3, "manual": 12e3}
"""[J/K] of a gearbox's fluid with the part of its case that follows (common practice: 8–10 L and 25 kg; 2–3 L)."""
BAY = 9e3
"""[J/K] of the bay's air and the sheet metal that follows it within a minute (common practice)."""
CORE_METAL = {"aluminium": 330e3, "copper": 420e3}
"""[J/K per m3 of core] of tubes and fins (common practice: 0.37 kg of aluminium, 1.1 kg of copper per litre)."""
COOLANT_HEAT = 3.65e6
"""[J/K per m3] of a half mix of ethylene glycol at 90 degC (COOLPROP)."""
HEATER, HEATER_FLOW = 110.0, 25 / 60e3
"""[W/K] a cabin heater's air side takes up with its blower on full, and [m3/s] of coolant through it at the engine's
rated flow (common practice, no source: 5–7 kW in a heater core of 5/8 in pipe, air from outdoors)."""
UPPER_SIDE = 0.55
"""Share of the engine's coolant that is as warm as its outlet: head and neck (common practice)."""


class Lumps(NamedTuple):
    """Capacities [J/K], conductances [W/K], hoses [m3] and lags [s] of one car.

    metal, rest : metal coolant touches, rest of the engine;  hot, cold : coolant at the outlet and at the inlet
    film : metal to coolant at rated flow;  inside : metal to the rest;  outside : the rest to the bay, shut off
    heater, heater_flow : of the cabin's heater on full, [W/K] and [m3/s] at the engine's rated flow
    element_lag, sensor_lag, sender_lag, needle_lag : of thermostat, fan sensor, gauge's sender and its needle
    hysteresis [K] of the thermostat
    spin_up : of the fans;  least_on : a contact that closed stays so at least so long
    """

    metal: float
    rest: float
    hot: float
    cold: float
    core: float
    oil: float
    gearbox: float
    bay: float
    film: float
    inside: float
    outside: float
    upper_hose: float
    lower_hose: float
    heater: float = HEATER
    heater_flow: float = HEATER_FLOW
    element_lag: float = 15.0
    hysteresis: float = 1.0
    sensor_lag: float = 6.0
    sender_lag: float = 5.0
    needle_lag: float = 10.0
    spin_up: float = 1.5
    least_on: float = 0.0

    def at_once(self) -> Lumps:
        """The same with nothing that lags behind the coolant: what is left is what heat is stored.

        Source: definition.
        """
        soon = 0.05
        return self._replace(
            element_lag=soon,
            hysteresis=0.0,
            sensor_lag=soon,
            sender_lag=soon,
            needle_lag=soon,
            spin_up=soon,
            upper_hose=0.0,
            lower_hose=0.0,
        )


class Sizes(NamedTuple):
    """What lumps are proposed from: displacement [m3]; make of the engine, "iron", "mixed" or "aluminium"; gearbox;
    engine and core coolant, hoses [m3]; volume of the core's block [m3] and what it is made of; litres of oil [m3]."""

    displacement: float
    make: str
    gearbox: str
    jacket: float
    in_core: float
    upper: float
    lower: float
    core: float
    core_make: str
    oil: float | None = None


def proposed(sizes: Sizes) -> Lumps:
    """Lumps of a car of such sizes, ±30 %.

    Source: common practice as said at each constant.
    """
    litres = sizes.displacement / LITRE
    rest = REST[sizes.make] * litres
    oil = OIL_PER_LITRE * litres if sizes.oil is None else sizes.oil
    return Lumps(
        metal=WETTED[sizes.make] * litres,
        rest=rest,
        hot=UPPER_SIDE * sizes.jacket * COOLANT_HEAT,
        cold=(1 - UPPER_SIDE) * sizes.jacket * COOLANT_HEAT,
        core=sizes.in_core * COOLANT_HEAT + CORE_METAL[sizes.core_make] * sizes.core,
        oil=oil * OIL_HEAT,
        gearbox=GEARBOX[sizes.gearbox],
        bay=BAY,
        film=FILM * litres,
        inside=rest / SOAKS_IN,
        outside=STANDS * (1 + litres / 4),
        upper_hose=sizes.upper,
        lower_hose=sizes.lower,
    )
