"""All coolers of a car at once: what each takes from its fluid, what air it meets, where every fluid settles."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.core.coolers.circuits import NEVER, CoolerStage, FluidSettled, settled
from keelroom.core.coolers.condenser import Condensed, condensed, vent_air
from keelroom.core.coolers.exchanger import conductance_at, handed_over
from keelroom.core.kept import by_identity

SWEEPS = 4
"""Times the air is taken from cooler to cooler: heat in front reaches the one behind it."""
ENDLESS = 1e9
"""[W/K] capacity of a fluid that condenses."""
LINES = 10.0
"""[W/K] that lines and case of a power steering shed by themselves (common practice)."""
AIR_TO_WATER, WATER = 0.85, 900.0
"""Effectiveness of the exchanger between charge air and water, and capacity of the water's flow [W/K] (common
practice)."""


class Coolers(NamedTuple):
    """n cars' coolers, E of each, (n, E) unless said; one stand-in of no fluid where there is none.

    gearbox, oil, charge, refrigerant, steering : 1 where that is its fluid;  water : 1 where charge air reaches it by
    way of water conductance [W/K per m2] at exchanger.VELOCITY;  air_share of that resistance;  area [m2] of its face
    ahead : 1 where it stands ahead of the core and breathes the classes it covers;  covered (n, K, E)
    upstream (n, E, E) : share of a cooler's face (row) that lies behind another (column)
    after_tank : 1 where its fluid has been through the tank's cooler;  opens [degC] of its bypass thermostat
    into_bay : 1 where its air ends in the bay
    from_bay : 1 where it breathes the bay's air;  from_core : share of the air behind the core that goes through it,
               0 elsewhere
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


class FluidsAsked(NamedTuple):
    """What the fluids are given, (n,) [W] and [W/K] of their flows, and what a situation does to the air of coolers
    away from the core.

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
    """What is round the coolers, (n,) [degC]: outside, at the face, in the bay, behind the core; tank: the coolant a
    cooler in the tank lies in, had it no gearbox's heat to take, and tank_rise [K/W] how far it moves with that;
    block: the coolant round the oil; cp [J/kgK] of the air."""

    outside: Floats
    front: Floats
    bay: Floats
    behind: Floats
    tank: Floats
    tank_rise: Floats
    block: Floats
    cp: Floats


class Exchanged(NamedTuple):
    """heat (n, E) [W] to the air, negative where the air warms the fluid; air_in (n, E) [degC]; air (n, E) [kg/s]
    through each

    rise (n, E) [K] of that air;  tank (n,) [W] from the gearbox into the coolant;  from_block (n,) [W] that oil
    coolers keep from the coolant gearbox, gearbox_leaving, oil, charge, condensing, steering, vents (n,) [degC];
    shed (n,) [W] by the gearbox's case runs, cop (n,) : share of the time the compressor runs, cooling per shaft
    power;  steering_shed (n,) [W]
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
    """Air [kg/s] through each cooler (n, E): the classes it covers, or its own. core (n, K) [kg/s]. Source:
    definition."""
    ahead = (np.maximum(core, 0.0)[:, None, :] @ coolers.covered)[:, 0, :]
    behind = coolers.from_core * np.maximum(core, 0.0).sum(axis=1)[:, None]
    flow: Floats = np.where(coolers.ahead > 0, ahead, np.where(coolers.from_core > 0, behind, own_air))
    return flow


def exchanged(coolers: Coolers, asked: FluidsAsked, around: Around, core: Floats, sweeps: int = SWEEPS) -> Exchanged:
    """Every cooler's heat at an air flow `core` (n, K) [kg/s] through the core's classes.

    What a fluid is given it leaves in its coolers, in the tank, in the block, or from its case: nothing is lost.
    sweeps : how often the air's heating is taken on from cooler to cooler. Source: KAYS_LONDON and heat balances.
    """
    flow = air_through(coolers, core, asked.own_air)
    capacity = np.maximum(flow * around.cp[:, None], 1e-9)
    own = conductance_at(coolers.conductance, coolers.air_share, flow, coolers.area)
    fluid = (
        coolers.gearbox * asked.gearbox_flow[:, None]
        + coolers.oil * asked.oil_flow[:, None]
        + coolers.steering * asked.steering_flow[:, None]
        + coolers.charge * np.where(coolers.water > 0, WATER, asked.charge_flow[:, None])
        + coolers.refrigerant * ENDLESS
    )
    takes = handed_over(own, capacity, np.maximum(fluid, 1e-9)) * (fluid > 0)
    water = coolers.water * coolers.charge
    if water.any():
        first = AIR_TO_WATER * np.maximum(asked.charge_flow[:, None], 1e-9)
        both = 1 / (1 / first + 1 / np.maximum(takes, 1e-9) - 1 / WATER)
        takes = np.where(water > 0, np.minimum(both, first), takes)
    alone = np.where(
        coolers.from_core > 0,
        around.behind[:, None],
        np.where(coolers.from_bay > 0, around.bay[:, None], around.outside[:, None]),
    )
    meets = np.where(coolers.ahead > 0, around.front[:, None], alone)
    air_in, members = meets, _members(coolers)
    for _ in range(min(sweeps, members.deep)):
        found = _circuits(coolers, asked, around, (takes, air_in), members)
        rise = found.heat / capacity
        air_in = np.where(coolers.ahead > 0, meets + (coolers.upstream @ rise[:, :, None])[:, :, 0], meets)
    return found._replace(air=flow, rise=rise)


class _Members(NamedTuple):
    """Places of the array in which some car has a cooler of a fluid, and how often air must be taken on from one to
    the next."""

    gearbox: list[int]
    oil: list[int]
    charge: list[int]
    refrigerant: list[int]
    steering: list[int]
    deep: int


@by_identity(16)
def _members(coolers: Coolers) -> _Members:
    def places(which: Floats) -> list[int]:
        return [k for k in range(which.shape[1]) if which[:, k].any()]

    gearbox, oil, charge, refrigerant, steering = map(
        places, (coolers.gearbox, coolers.oil, coolers.charge, coolers.refrigerant, coolers.steering)
    )
    behind: Floats = (coolers.upstream > 0).astype(float)
    deep, chain = 1, behind
    while deep < SWEEPS and chain.any():
        deep, chain = deep + 1, chain @ behind
    # Where one fluid goes through two coolers, what the one does is felt in the other too.
    twice = max(len(gearbox), len(oil), len(charge), len(refrigerant), len(steering)) > 1
    return _Members(gearbox, oil, charge, refrigerant, steering, min(deep + 1, SWEEPS) if twice and deep > 1 else deep)


def _circuits(
    coolers: Coolers, asked: FluidsAsked, around: Around, air: tuple[Floats, Floats], members: _Members
) -> Exchanged:
    """All fluids at one state of the air. air: what each cooler takes per kelvin (n, E), and the air that enters it
    (n, E)."""
    takes, air_in = air
    heat = np.zeros_like(takes)

    def along(which: Floats, places: list[int]) -> tuple[CoolerStage, ...]:
        return tuple(CoolerStage(takes[:, k] * which[:, k], air_in[:, k], coolers.opens[:, k]) for k in places)

    gearbox, tank = _gearbox(coolers, asked, around, along, (members.gearbox, heat))
    oil = settled(asked.oil, along(coolers.oil, members.oil), asked.oil_flow, (coolers.oil_to_block, around.block))
    steering = settled(
        asked.steering,
        along(coolers.steering, members.steering),
        asked.steering_flow,
        (np.full_like(around.bay, LINES), around.bay),
    )
    for one, places in ((oil, members.oil), (steering, members.steering)):
        for stage, k in zip(one.stages, places, strict=True):
            heat[:, k] += stage
    charge = around.outside + asked.charge / np.maximum(asked.charge_flow, 1e-9)
    for k in members.charge:
        given = takes[:, k] * coolers.charge[:, k] * (charge - air_in[:, k])
        heat[:, k] += given
        charge = charge - given / np.maximum(asked.charge_flow, 1e-9)
    ac = _refrigerant(coolers, asked, (takes, air_in, around.front), (members.refrigerant, heat))
    return Exchanged(
        heat=heat,
        air_in=air_in,
        air=takes,
        rise=takes,
        tank=tank,
        from_block=asked.oil - oil.shed,
        gearbox=gearbox.fluid,
        gearbox_leaving=gearbox.leaving,
        oil=oil.fluid,
        charge=charge,
        condensing=ac.condensing,
        steering=steering.fluid,
        vents=vent_air(asked.compressor, ac.cop, ac.runs),
        shed=gearbox.shed,
        runs=ac.runs,
        cop=ac.cop,
        steering_shed=steering.shed,
    )


def _refrigerant(
    coolers: Coolers, asked: FluidsAsked, air: tuple[Floats, Floats, Floats], into: tuple[list[int], Floats]
) -> Condensed:
    """Where the refrigerant settles in all condensers together; what each gives is added to `into`."""
    takes, air_in, front = air
    places, heat = into
    whole, lead = np.zeros_like(front), np.zeros_like(front)
    for k in places:
        mine = takes[:, k] * coolers.refrigerant[:, k]
        whole, lead = whole + mine, lead + mine * air_in[:, k]
    there = whole > 0
    ac = condensed(
        np.where(there, asked.compressor, 0.0),
        asked.cop_share,
        whole,
        np.where(there, lead / np.maximum(whole, 1e-9), front),
    )
    parts = [takes[:, k] * coolers.refrigerant[:, k] * np.maximum(ac.condensing - air_in[:, k], 0.0) for k in places]
    share = ac.heat / np.maximum(sum(parts, np.zeros_like(front)), 1e-9)
    for k, part in zip(places, parts, strict=True):
        heat[:, k] += part * share
    return ac


def _gearbox(
    coolers: Coolers,
    asked: FluidsAsked,
    around: Around,
    along: Callable[[Floats, list[int]], tuple[CoolerStage, ...]],
    into: tuple[list[int], Floats],
) -> tuple[FluidSettled, Floats]:
    """The gearbox's circuit: coolers ahead of the tank, the tank, coolers after it; what each gives is added to
    `into`. And the tank's heat."""
    places, heat = into
    never = np.full_like(around.tank, NEVER)
    # The coolant the tank's cooler lies in moves with what it is given: per kelvin to the coolant as it would be
    # without.
    lies_in = CoolerStage(coolers.tank / (1 + coolers.tank * around.tank_rise), around.tank, never)
    first = [k for k in places if (coolers.after_tank[:, k] < 1).any()]
    last = [k for k in places if coolers.after_tank[:, k].any()]
    stages = (
        *along(coolers.gearbox * (1 - coolers.after_tank), first),
        lies_in,
        *along(coolers.gearbox * coolers.after_tank, last),
    )
    found = settled(asked.gearbox, stages, asked.gearbox_flow, (asked.case, around.outside))
    for k, stage in zip((*first, *last), (*found.stages[: len(first)], *found.stages[len(first) + 1 :]), strict=True):
        heat[:, k] += stage
    return found, found.stages[len(first)]
