"""All coolers of a car at once: what each takes from its fluid, what air it meets, where every fluid settles."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.core.coolers.circuits import Settled, Stage, settled
from keelroom.core.coolers.condenser import condensed, vent_air
from keelroom.core.coolers.exchanger import conductance_at, handed_over

SWEEPS = 4
"""Times the air is taken from cooler to cooler: heat in front reaches the one behind it."""
ENDLESS = 1e9
"""[W/K] capacity of a fluid that condenses."""
LINES = 10.0
"""[W/K] that lines and case of a power steering shed by themselves (common practice)."""
AIR_TO_WATER, WATER = 0.85, 900.0
"""Effectiveness of the exchanger between charge air and water, and capacity of the water's flow [W/K] (common practice)."""


class Coolers(NamedTuple):
    """n cars' coolers, E of each, (n, E) unless said; one stand-in of no fluid where there is none.

    gearbox, oil, charge, refrigerant, steering : 1 where that is its fluid;  water : 1 where charge air reaches it by way of water
    conductance [W/K per m2] at exchanger.VELOCITY;  air_share of that resistance;  area [m2] of its face
    ahead : 1 where it stands ahead of the core and breathes the classes it covers;  covered (n, K, E)
    upstream (n, E, E) : share of a cooler's face (row) that lies behind another (column)
    after_tank : 1 where its fluid has been through the tank's cooler;  opens [degC] of its bypass thermostat
    into_bay : 1 where its air ends in the bay
    from_bay : 1 where it breathes the bay's air;  from_core : share of the air behind the core that goes through it, 0 elsewhere
    tank (n,) [W/K] : handed over by a gearbox cooler in the core's tank, 0 without
    oil_to_block (n,) [W/K] : between the engine's oil and its coolant
    """

    gearbox: Floats
    oil: Floats
    charge: Floats
    refrigerant: Floats
    steering: Floats
    water: Floats
    conductance: Floats
    air_share: Floats
    area: Floats
    ahead: Floats
    covered: Floats
    upstream: Floats
    after_tank: Floats
    opens: Floats
    into_bay: Floats
    from_bay: Floats
    from_core: Floats
    tank: Floats
    oil_to_block: Floats


class Asked(NamedTuple):
    """What the fluids are given, (n,) [W] and [W/K] of their flows, and what a situation does to the air of coolers away from the core.

    compressor [W] shaft of the A/C, cop_share of Carnot;  case [W/K] the gearbox sheds;  own_air (n, E) [kg/s]
    """

    gearbox: Floats
    gearbox_flow: Floats
    oil: Floats
    oil_flow: Floats
    charge: Floats
    charge_flow: Floats
    steering: Floats
    steering_flow: Floats
    compressor: Floats
    cop_share: Floats
    case: Floats
    own_air: Floats


class Around(NamedTuple):
    """What is round the coolers, (n,) [degC]: outside, at the face, in the bay, behind the core; tank: the coolant a cooler in the tank lies in,
    had it no gearbox's heat to take, and tank_rise [K/W] how far it moves with that; block: the coolant round the oil; cp [J/kgK] of the air."""

    outside: Floats
    front: Floats
    bay: Floats
    behind: Floats
    tank: Floats
    tank_rise: Floats
    block: Floats
    cp: Floats


class Exchanged(NamedTuple):
    """heat (n, E) [W] to the air, negative where the air warms the fluid; air_in (n, E) [degC]; air (n, E) [kg/s] through each

    rise (n, E) [K] of that air;  tank (n,) [W] from the gearbox into the coolant;  from_block (n,) [W] that oil coolers keep from the coolant
    gearbox, gearbox_leaving, oil, charge, condensing, steering, vents (n,) [degC];  shed (n,) [W] by the gearbox's case
    runs, cop (n,) : share of the time the compressor runs, cooling per shaft power;  steering_shed (n,) [W]
    """

    heat: Floats
    air_in: Floats
    air: Floats
    rise: Floats
    tank: Floats
    from_block: Floats
    gearbox: Floats
    gearbox_leaving: Floats
    oil: Floats
    charge: Floats
    condensing: Floats
    steering: Floats
    vents: Floats
    shed: Floats
    runs: Floats
    cop: Floats
    steering_shed: Floats


def air_through(coolers: Coolers, core: Floats, own_air: Floats) -> Floats:
    """Air [kg/s] through each cooler (n, E): the classes it covers, or its own. core (n, K) [kg/s]. Source: definition."""
    ahead = (np.maximum(core, 0.0)[:, None, :] @ coolers.covered)[:, 0, :]
    behind = coolers.from_core * np.maximum(core, 0.0).sum(axis=1)[:, None]
    flow: Floats = np.where(coolers.ahead > 0, ahead, np.where(coolers.from_core > 0, behind, own_air))
    return flow


def exchanged(coolers: Coolers, asked: Asked, around: Around, core: Floats, sweeps: int = SWEEPS) -> Exchanged:
    """Every cooler's heat at an air flow `core` (n, K) [kg/s] through the core's classes.

    What a fluid is given it leaves in its coolers, in the tank, in the block, or from its case: nothing is lost.
    sweeps : how often the air's heating is taken on from cooler to cooler. Source: KAYS_LONDON and heat balances.
    """
    flow = air_through(coolers, core, asked.own_air)
    capacity = np.maximum(flow * around.cp[:, None], 1e-9)
    own = conductance_at(coolers.conductance, coolers.air_share, flow, coolers.area)
    fluid = (
        coolers.gearbox * asked.gearbox_flow[:, None] + coolers.oil * asked.oil_flow[:, None] + coolers.steering * asked.steering_flow[:, None]
        + coolers.charge * np.where(coolers.water > 0, WATER, asked.charge_flow[:, None]) + coolers.refrigerant * ENDLESS
    )  # fmt: skip
    takes = handed_over(own, capacity, np.maximum(fluid, 1e-9)) * (fluid > 0)
    water = coolers.water * coolers.charge
    if water.any():
        first = AIR_TO_WATER * np.maximum(asked.charge_flow[:, None], 1e-9)
        both = 1 / (1 / first + 1 / np.maximum(takes, 1e-9) - 1 / WATER)
        takes = np.where(water > 0, np.minimum(both, first), takes)
    alone = np.where(
        coolers.from_core > 0, around.behind[:, None], np.where(coolers.from_bay > 0, around.bay[:, None], around.outside[:, None])
    )
    meets = np.where(coolers.ahead > 0, around.front[:, None], alone)
    air_in = meets
    for _ in range(max(min(sweeps, coolers.ahead.shape[1]), 1)):
        found = _circuits(coolers, asked, around, (takes, air_in))
        rise = found.heat / capacity
        air_in = np.where(coolers.ahead > 0, meets + (coolers.upstream @ rise[:, :, None])[:, :, 0], meets)
    return found._replace(air=flow, rise=rise)


def _circuits(coolers: Coolers, asked: Asked, around: Around, air: tuple[Floats, Floats]) -> Exchanged:
    """All fluids at one state of the air. air: what each cooler takes per kelvin (n, E), and the air that enters it (n, E)."""
    takes, air_in = air
    count = takes.shape[1]
    none = np.zeros_like(around.front)

    def stages(which: Floats) -> tuple[Stage, ...]:
        return tuple(Stage(takes[:, k] * which[:, k], air_in[:, k], coolers.opens[:, k]) for k in range(count))

    def placed(one: Settled, which: Floats, first: int = 0) -> Floats:
        """Heat of a circuit's coolers, in their places of the array."""
        laid: Floats = np.stack(one.stages[first : first + count], axis=1) * which
        return laid

    heat = np.zeros_like(takes)
    gearbox = _gearbox(coolers, asked, around, (takes, air_in))
    tank = gearbox.stages[count]
    for k, before in enumerate(gearbox.stages[:count]):
        heat[:, k] += before + gearbox.stages[count + 1 + k]
    oil = settled(asked.oil, stages(coolers.oil), asked.oil_flow, (coolers.oil_to_block, around.block))
    heat += placed(oil, coolers.oil)
    steering = settled(asked.steering, stages(coolers.steering), asked.steering_flow, (LINES + none, around.bay))
    heat += placed(steering, coolers.steering)
    charge = around.outside + asked.charge / np.maximum(asked.charge_flow, 1e-9)
    for k in range(count):
        given = takes[:, k] * coolers.charge[:, k] * (charge - air_in[:, k])
        heat[:, k] += given
        charge = charge - given / np.maximum(asked.charge_flow, 1e-9)
    whole, lead = np.zeros_like(none), np.zeros_like(none)
    for k in range(count):
        mine = takes[:, k] * coolers.refrigerant[:, k]
        whole, lead = whole + mine, lead + mine * air_in[:, k]
    mean_air = np.where(whole > 0, lead / np.maximum(whole, 1e-9), around.front)
    ac = condensed(np.where(coolers.refrigerant.sum(axis=1) > 0, asked.compressor, 0.0), asked.cop_share, whole, mean_air)
    part = takes * coolers.refrigerant * np.maximum(ac.condensing[:, None] - air_in, 0.0)
    share = ac.heat / np.maximum(part.sum(axis=1), 1e-9)
    heat += part * share[:, None]
    return Exchanged(
        heat=heat, air_in=air_in, air=takes, rise=takes, tank=tank, from_block=asked.oil - oil.shed, gearbox=gearbox.fluid,
        gearbox_leaving=gearbox.leaving, oil=oil.fluid, charge=charge, condensing=ac.condensing, steering=steering.fluid,
        vents=vent_air(asked.compressor, ac.cop, ac.runs), shed=gearbox.shed, runs=ac.runs, cop=ac.cop, steering_shed=steering.shed,
    )  # fmt: skip


def _gearbox(coolers: Coolers, asked: Asked, around: Around, air: tuple[Floats, Floats]) -> Settled:
    """The gearbox's circuit: coolers ahead of the tank, the tank, coolers after it; each place of the array stands in both, once with nothing."""
    takes, air_in = air
    count = takes.shape[1]

    def part(which: Floats) -> list[Stage]:
        return [Stage(takes[:, k] * coolers.gearbox[:, k] * which[:, k], air_in[:, k], coolers.opens[:, k]) for k in range(count)]

    never = np.full_like(around.tank, -273.0)
    # The coolant the tank's cooler lies in is warmed by it: per kelvin between the fluid and what the coolant would have without, a little less.
    lies_in = Stage(coolers.tank / (1 + coolers.tank * around.tank_rise), around.tank, never)
    stages = (*part(1 - coolers.after_tank), lies_in, *part(coolers.after_tank))
    return settled(asked.gearbox, stages, asked.gearbox_flow, (asked.case, around.outside))
