"""The joint solve, where the disciplines meet on what `coupling` made ready.

Fans set the air, air and coolant set the rejection, fans load the alternator, the alternator loads the engine, the
engine heats the coolant and the bay, hot bay air comes back to the face, the coolant commands thermostat and fans.
One unknown is left per point, the engine-outlet temperature, and rejection less heat in rises with it.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Bools, Floats, put, take
from keelroom.core.bracket import Enclosed
from keelroom.core.coolers.exchange import Around, Exchanged, exchanged
from keelroom.core.coupling import LEAST_FLOW, asked_of, bay_air, commanded, fluid_heat, front_air, prepare, softened
from keelroom.core.electrical.control import commanded_share, power_share, sensed
from keelroom.core.fluids import air as moist_air
from keelroom.core.fluids.coolant import coolant_state
from keelroom.core.loop.circuit import thermostat_opening
from keelroom.core.plant import Fixed, Layout, Points, Solution, State
from keelroom.core.thermal.engine_heat import heat_capacity
from keelroom.core.thermal.louver import air_conductance, louver_reynolds
from keelroom.core.thermal.march import FaceHeat, march
from keelroom.core.thermal.tube_side import tube_nusselt
from keelroom.errors import SolveError

TOLERANCE = 3e-7
"""Largest imbalance of heat, as a share of the heat in."""
STEPS = 60
WORTH_SPLITTING = 64
"""Points from which on it pays to go on with the unsettled ones alone."""
CEILING = 190.0
"""No engine-outlet temperature above it is sought [degC]: far past boiling of any mix under any cap."""
TANK_FLOOR = 4.0
"""Times what a cooler in the tank hands over per kelvin that the coolant through the core carries at least: slower
flow is taken as that."""
LEAST_FLUX = 2e-3
"""Flux [kg/s per m2] at which the conductance of slower air is taken: the correlations say nothing of still air."""
NO_FLUX = 1e-9


class Meeting(NamedTuple):
    """What the air brings to each cell at one evaluation: capacity [W/K], temperature [degC], conductance [W/K]; (n,
    lanes, cells)."""

    capacity: Floats
    temperature: Floats
    conductance: Floats


def evaluate(points: Points, fixed: Fixed, temperature: Floats, layout: Layout) -> State:
    """Rejection and heat in at an engine-outlet temperature (n,) [degC].

    Between the fans' off and on temperatures the mean flow over their on and off times is used.
    layout : shared by all points
    Source: KAYS_LONDON marching with the correlations of its parts.
    """
    return _evaluated(points, fixed, temperature, layout)[0]


def face_heat(points: Points, fixed: Fixed, temperature: Floats, layout: Layout) -> tuple[State, Meeting, FaceHeat]:
    """The same with what every cell meets and gives, for maps of the face.

    Temperatures [degC], heat [W].
    """
    return _evaluated(points, fixed, temperature, layout)


def _evaluated(points: Points, fixed: Fixed, temperature: Floats, layout: Layout) -> tuple[State, Meeting, FaceHeat]:
    coolant = coolant_state(points.plant.coolant, temperature)
    per_flow = coolant.density * coolant.heat_capacity
    reading = sensed(points.situation.command.sensing, temperature, _drop_ahead(points, fixed, temperature, per_flow))
    law = points.situation.command.law
    command, load = commanded_share(law, reading), power_share(law, reading)
    heat_in = mean(load, fixed.stopped.into_coolant, fixed.running.into_coolant)
    cp = moist_air.heat_capacity(fixed.air)
    core = commanded(fixed, command, "core")
    front = front_air(fixed, command)
    # An element at the inlet feels what full flow would bring there: its own throttling is not followed round the
    # circle.
    felt = np.where(
        points.plant.circuit.at_inlet > 0, temperature - heat_in / (fixed.loop.engine[:, -1] * per_flow), temperature
    )
    opening = thermostat_opening(points.plant.circuit, felt)
    pumped, core_flow = fixed.loop.at(opening)
    own = commanded(fixed, load, "coolant", "heat") * points.doubts.heat
    found = _coolers(
        points, fixed, (core, front, bay_air(fixed, command)), (temperature, core_flow * per_flow), (own, load)
    )
    ahead = points.plant.coolers.ahead
    class_air = front[:, None] + (points.plant.coolers.covered @ (found.rise * ahead)[:, :, None])[:, :, 0]
    given = own + found.tank - found.from_block

    forward = np.maximum(core, 0.0)
    mean_in = (forward * class_air).sum(axis=1) / np.maximum(forward.sum(axis=1), 1e-9)
    air_in = np.where(forward.sum(axis=1) > 1e-9, mean_in, front)
    flux = forward / np.maximum(points.plant.network.area, 1e-9)
    tubes = tube_side(points, fixed, (temperature, air_in), core_flow)
    conductance = _conductance(
        points, fixed, np.maximum(flux, LEAST_FLUX), 0.5 * (temperature + air_in), tubes.resistance
    )
    meeting = _meeting(points, fixed, (flux, class_air, conductance), cp)
    cooled = (core_flow * per_flow, temperature)
    face = march(
        (meeting.capacity, meeting.temperature),
        meeting.conductance,
        cooled,
        points.plant.face.weight,
        (layout.passes, layout.rows),
    )
    state = State(
        temperature=temperature,
        rejection=face.heat + heat_in - given,
        heat_in=heat_in,
        given=given,
        exchanged=found,
        coolant_flow=pumped,
        core_flow=core_flow,
        opening=opening,
        coolant_out=face.coolant_out,
        engine_inlet=temperature - given / (pumped * per_flow),
        reading=reading,
        command=command,
        load=load,
        front_air=front,
        air_in=air_in,
        air_out=air_in + face.heat / meeting.capacity.sum(axis=(1, 2)),
        bay_air=bay_air(fixed, command),
        flux=flux,
        conductance=meeting.conductance.sum(axis=(1, 2)),
        tube_reynolds=tubes.reynolds,
        tube_share=_film_share(points, fixed, tubes, (forward, conductance)),
    )
    return state, meeting, face


def mean(share: Floats, off: Floats, on: Floats) -> Floats:
    """A mean over the fans' off and on times, like shapes. Source: mean over times."""
    return off + share * (on - off)


def _coolers(
    points: Points,
    fixed: Fixed,
    air: tuple[Floats, Floats, Floats],
    coolant: tuple[Floats, Floats],
    engine: tuple[Floats, Floats],
) -> Exchanged:
    """What the coolers do at an engine outlet. air: through the classes [kg/s], at the face and in the bay [degC];
    coolant: temperature and
    capacity of the flow through the core;  engine: its own heat into the coolant [W] and the fans' share of their
    power."""
    core, front, bay = air
    temperature, capacity = coolant
    own, load = engine
    gearbox, oil, charge, flow = (
        mean(load, off, on)
        for off, on in zip(fluid_heat(fixed.stopped.heat), fluid_heat(fixed.running.heat), strict=True)
    )
    asked = asked_of(points.situation.fluids, points.situation.drive, (gearbox, oil, charge, flow), points.doubts.heat)
    climate = points.situation.climate
    cp = moist_air.heat_capacity(fixed.air)
    behind = front + softened(own / (np.maximum(np.maximum(core, 0.0).sum(axis=1), LEAST_FLOW) * cp))
    # A cooler in the outlet tank lies in what the core has cooled; a core that hardly flows cools down to its air.
    carries = np.maximum(capacity, TANK_FLOOR * points.plant.coolers.tank + 1.0)
    tank = np.maximum(temperature - own / carries, front)
    around = Around(climate.ambient + climate.grille_rise, front, bay, behind, tank, -1 / carries, temperature, cp)
    return exchanged(points.plant.coolers, asked, around, core)


def _drop_ahead(points: Points, fixed: Fixed, temperature: Floats, per_flow: Floats) -> Floats:
    """Kelvin (n,) between engine outlet and lower hose at the flow the thermostat lets through; all heat is taken to
    leave in the core."""
    if not points.situation.command.sensing.after_core.any():
        return np.zeros_like(temperature)
    heat = fixed.stopped.into_coolant
    felt = temperature - np.where(points.plant.circuit.at_inlet > 0, heat / (fixed.loop.engine[:, -1] * per_flow), 0.0)
    _, flow = fixed.loop.at(thermostat_opening(points.plant.circuit, felt))
    drop: Floats = heat / (flow * per_flow)
    return drop


def _meeting(points: Points, fixed: Fixed, classes: tuple[Floats, Floats, Floats], cp: Floats) -> Meeting:
    """From classes to cells by each cell's mix: what is blocked brings nothing."""
    flux, air, conductance = classes
    mix = points.plant.face.mix
    columns = np.stack([flux, flux * air, conductance], axis=2)
    n, lanes, cells, kinds = mix.shape
    summed = (mix.reshape(n, lanes * cells, kinds) @ columns).reshape(n, lanes, cells, 3)
    cell_area = (fixed.surfaces.face_area[:, None] * np.maximum(points.plant.face.weight, 1e-9))[:, :, None] / cells
    carried = np.maximum(summed[..., 0], NO_FLUX)
    temperature = np.where(summed[..., 0] > NO_FLUX, summed[..., 1] / carried, air[:, :1, None])
    return Meeting(carried * cell_area * cp[:, None, None], temperature, summed[..., 2] * cell_area)


class TubeSide(NamedTuple):
    """The coolant's side of the core, (n,). film, resistance [m2K/W per m2 of face]: of its own film, and with
    fouling and bond."""

    reynolds: Floats
    prandtl: Floats
    film: Floats
    resistance: Floats


def tube_side(points: Points, fixed: Fixed, temperatures: tuple[Floats, Floats], core_flow: Floats) -> TubeSide:
    """Film, fouling and bond in series. temperatures: coolant in, air in [degC]; core_flow (n,) [m3/s]

    Source: TALER, SHAH_LONDON.
    """
    core, surfaces = points.plant.core, fixed.surfaces
    hot, cold = temperatures
    coolant = coolant_state(points.plant.coolant, 0.7 * hot + 0.3 * 0.5 * (hot + cold))
    tubes = fixed.loop_was.tubes
    Re = (
        coolant.density
        * core_flow
        / (tubes.number * surfaces.tube_section)
        * surfaces.coolant_diameter
        / coolant.viscosity
    )
    Pr = coolant.viscosity * coolant.heat_capacity / coolant.conductivity
    nusselt = tube_nusselt(Re, Pr, tubes.aspect, surfaces.coolant_diameter / tubes.length)
    film = surfaces.coolant_diameter / (core.turbulator * nusselt * coolant.conductivity) / surfaces.inner_area
    return TubeSide(Re, Pr, film, film + core.fouling / surfaces.inner_area + core.bond_resistance / surfaces.tube_area)


def _film_share(points: Points, fixed: Fixed, tubes: TubeSide, classes: tuple[Floats, Floats]) -> Floats:
    """Share (n,) the coolant's film has of the whole resistance, over the classes that air goes through."""
    forward, conductance = classes
    mean = (forward * conductance).sum(axis=1) / np.maximum(forward.sum(axis=1), 1e-9) / points.doubts.conductance
    share: Floats = tubes.film * mean
    return share


def _conductance(points: Points, fixed: Fixed, flux: Floats, film: Floats, resistance: Floats) -> Floats:
    """Coolant-to-air conductance of each class per square metre of face (n, K) [W/m2K]: resistances in series. film
    (n,) [degC]"""
    air = (moist_air.viscosity(film), moist_air.conductivity(film), moist_air.heat_capacity(fixed.air))
    outer = air_conductance(points.plant.core, fixed.surfaces, fixed.surface, flux, air)
    return points.doubts.conductance[:, None] / (1 / outer + resistance[:, None])


def solve(
    points: Points, layout: Layout, fixed: Fixed | None = None, start: tuple[Floats, Floats] | None = None
) -> Solution:
    """Engine-outlet temperature (n,) at which rejection equals heat in.

    Rejection less heat in rises with temperature, so a bracketed secant cannot miss it. Where even CEILING
    is not enough, `settles` is False and the state is the one at the ceiling.
    fixed, start : what `prepare` gave, and temperatures and slopes (n,) of like points to begin at, where at hand
    Raises SolveError when a bracketed point does not converge.
    Source: bracketed secant on the heat balance.
    """
    fixed = fixed or prepare(points, layout)
    # No colder than the air at the grille: there is heat in, and nothing to take it.
    low = points.situation.climate.ambient + points.situation.climate.grille_rise
    temperature = np.clip(points.plant.circuit.thermostat + 12.0 if start is None else start[0], low + 0.5, CEILING)
    state = evaluate(points, fixed, temperature, layout)
    search = Enclosed(low, np.full_like(low, CEILING))
    for step in range(1, STEPS + 1):
        off = np.abs(state.margin) / state.heat_in
        stuck = (temperature >= CEILING) & (state.margin < 0)
        done = (off < TOLERANCE) | stuck
        if done.all():
            return Solution(state, fixed, ~stuck, search.slope, step, float(np.where(stuck, 0.0, off).max()))
        # A face wholly behind metal rejects nothing: its slope is taken as next to nothing, not as none.
        slope = (
            np.maximum(state.rejection, 1.0) / np.maximum(temperature - points.situation.climate.ambient, 1.0)
            if start is None
            else start[1]
        )
        temperature = np.where(done, temperature, search.following(temperature, state.margin, slope))
        if len(done) >= WORTH_SPLITTING and done.mean() > 0.3:
            return _split(points, layout, fixed, temperature, done, state)
        state = evaluate(points, fixed, temperature, layout)
    raise SolveError(
        "heat_not_converged", f"No steady temperature found after {STEPS} steps", residual=float(off.max())
    )


def _split(points: Points, layout: Layout, fixed: Fixed, temperature: Floats, done: Bools, state: State) -> Solution:
    """Large batches go on with the unsettled points alone; the settled ones keep their state."""
    rest = np.flatnonzero(~done)
    proportional = state.rejection / np.maximum(state.temperature - points.situation.climate.ambient, 1.0)
    further = solve(take(points, rest), layout, take(fixed, rest), (temperature[rest], proportional[rest]))
    settles = np.ones(len(done), bool)
    settles[rest] = further.settles
    stuck = done & (temperature >= CEILING) & (state.margin < 0)
    proportional[rest] = further.slope
    return Solution(
        put(state, rest, further.state), fixed, settles & ~stuck, proportional, further.steps, further.residual
    )


def thermal_mass(points: Points) -> Floats:
    """Heat capacity of engine and coolant (n,) [J/K].

    Source: common practice, ±30 %.
    """
    return heat_capacity(points.plant.engine)


def face_reynolds(points: Points, solution: Solution) -> Floats:
    """Louver Reynolds number at the mean face flux (n,), while the fans run where they run at all: the correlations
    are stated for 100..3000.

    Source: CHANG_WANG.
    """
    state, surfaces = solution.state, solution.fixed.surfaces
    running = np.maximum(solution.fixed.running.flows.core, 0.0).sum(axis=1)
    flow = np.where(state.command > 0, running, (state.flux * points.plant.network.area).sum(axis=1))
    return louver_reynolds(points.plant.core, surfaces, flow / surfaces.face_area, moist_air.viscosity(state.air_in))
