"""The joint solve: the one module that knows every discipline.

Fans set the air, air and coolant set the rejection, fans load the alternator, the alternator loads the engine, the
engine heats the coolant and the bay, hot bay air comes back to the face, the coolant commands thermostat and fans.
One unknown is left per point, the engine-outlet temperature, and rejection less heat in rises with it.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.air.fan import FanCurve
from keelroom.core.air.network import AirFlows, Breath, Network, solve_air
from keelroom.core.arrays import Bools, Floats, put, same, take
from keelroom.core.bracket import Bracket
from keelroom.core.electrical.control import Law, Sensing, commanded_share, power_share, sensed
from keelroom.core.electrical.motor import motor_power, motor_speed
from keelroom.core.fluids import air as moist_air
from keelroom.core.fluids.coolant import CoolantCurves, boiling_point, coolant_state
from keelroom.core.loop.circuit import Circuit, Loop, LoopFlows, Tubes, loop_flows, thermostat_opening
from keelroom.core.thermal.engine_heat import Drive, Engine, EngineHeat, engine_heat, heat_capacity
from keelroom.core.thermal.geometry import CoreGeometry, CoreSurfaces, core_surfaces
from keelroom.core.thermal.louver import LouverSurface, air_conductance, core_drop, louver_reynolds, louver_surface
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
STANDARD_DENSITY = 1.225
MOST_AIR_RISE = 400.0
"""Kelvin of air heating that the air tends to where hardly any moves."""
CONDENSER_RISE = 40.0
"""Kelvin the condenser can heat its air: beyond it the A/C cuts out on head pressure (common practice)."""
LOOP_TEMPERATURE = 95.0
"""[degC] the coolant loop is solved at: other temperatures move its flows by a few per cent through the viscosity alone."""
LEAST_FLOW = 1e-3
"""Flow [kg/s] below which the air of a path counts as still."""
LEAST_FLUX = 2e-3
"""Flux [kg/s per m2] at which the conductance of slower air is taken: the correlations say nothing of still air."""
NO_FLUX = 1e-9


class Climate(NamedTuple):
    """Outdoors, arrays (n,). ambient [degC]; altitude [m]; humidity 0..1; grille_rise [K] of air at the grille."""

    ambient: Floats
    altitude: Floats
    humidity: Floats
    grille_rise: Floats


class Fans(NamedTuple):
    """Fans and their command, (n, fans) or (n,). power [W] at rated_voltage; voltage (n, fans) at each motor.

    runs : (n, fans) 0 where the fan stands still whatever is commanded: a stopped fan is a hole
    sensing, law : what the sensor sees of the coolant, and the share of full it makes the fans run at
    """

    curve: FanCurve
    power: Floats
    rated_voltage: Floats
    brushless: Floats
    voltage: Floats
    runs: Floats
    sensing: Sensing
    law: Law


class Covers(NamedTuple):
    """What stands ahead of the core, C of them, (n, C) unless said.

    heat [W] given whatever the engine does;  gearbox, oil, charge: shares of the engine's losses each takes
    cuts_out : 1 where the heat stops at CONDENSER_RISE;  conductance [W/K per m2 of its face], fluid to air
    covered : (n, K, C) 1 where a class of the face lies behind it
    """

    heat: Floats
    gearbox: Floats
    oil: Floats
    charge: Floats
    cuts_out: Floats
    conductance: Floats
    covered: Floats


class Face(NamedTuple):
    """The face as lanes of tube. mix (n, lanes, cells, K) share of each cell; weight (n, lanes) share of the tubes."""

    mix: Floats
    weight: Floats


class Doubts(NamedTuple):
    """Factors on what is doubtful, (n,), 1 as entered: heat to coolant, core conductance, fan pressure, leak areas."""

    heat: Floats
    conductance: Floats
    fan_pressure: Floats
    leaks: Floats


class Points(NamedTuple):
    """n operating points of one layout, stacked."""

    core: CoreGeometry
    engine: Engine
    drive: Drive
    climate: Climate
    network: Network
    fans: Fans
    covers: Covers
    face: Face
    coolant: CoolantCurves
    circuit: Circuit
    pump_voltage: Floats
    cap_pressure: Floats
    limit: Floats
    doubts: Doubts


class Air(NamedTuple):
    """The air path at one state of the fans. heat: what the engine gives then; power (n,) [W] of the fans."""

    flows: AirFlows
    breath: Breath
    heat: EngineHeat
    cover_heat: Floats
    """(n, C) [W] each cover would give to its air"""
    power: Floats
    speed: Floats
    """(n, fans) share of rated speed"""
    branches: Floats
    """(n, B) all flows in branch order, those of the core per area, where a like point's search begins: its areas may differ"""


class Fixed(NamedTuple):
    """What does not change with the coolant's temperature, worked out once per batch."""

    surfaces: CoreSurfaces
    surface: LouverSurface
    air: moist_air.AirState
    outdoor_density: Floats
    boiling: Floats
    loop: LoopFlows
    core_was: CoreGeometry
    loop_was: Loop
    """what surfaces and loop were worked out from, so that the next like batch need not"""
    running: Air
    stopped: Air


class State(NamedTuple):
    """One evaluation at given engine-outlet temperatures, all (n,) unless said."""

    temperature: Floats
    rejection: Floats
    heat_in: Floats
    coolant_flow: Floats
    core_flow: Floats
    opening: Floats
    coolant_out: Floats
    """leaving the core"""
    engine_inlet: Floats
    reading: Floats
    """[degC] of the fans' sensor"""
    command: Floats
    """mean share of their full flow the fans are run at"""
    load: Floats
    """mean share of their full electrical power"""
    front_air: Floats
    """[degC] ahead of all covers, recirculated air mixed in"""
    air_in: Floats
    """mean ahead of the core"""
    air_out: Floats
    """mean behind the core"""
    bay_air: Floats
    flux: Floats
    """(n, K) [kg/s per m2], 0 where the air runs backwards: it has been through and takes no more heat"""
    conductance: Floats
    """whole core, coolant to air [W/K]"""
    tube_reynolds: Floats
    """of the coolant in the tubes"""
    tube_share: Floats
    """of the way from coolant to air lies in the coolant's film"""

    @property
    def margin(self) -> Floats:
        """Rejection less heat in [W]."""
        return self.rejection - self.heat_in


class Solution(NamedTuple):
    """Steady points. settles (n,) bool: a steady temperature exists under CEILING; state holds it, or the ceiling."""

    state: State
    fixed: Fixed
    settles: Bools
    slope: Floats
    """(n,) [W/K] how the margin rises with temperature there"""
    steps: int
    residual: float


class Half(NamedTuple):
    """What the air path is solved from."""

    core: CoreGeometry
    engine: Engine
    drive: Drive
    climate: Climate
    network: Network
    fans: Fans
    covers: Covers
    doubts: Doubts
    surfaces: CoreSurfaces
    surface: LouverSurface
    air: moist_air.AirState
    outdoor_density: Floats


def prepare(points: Points, layout: tuple[bool, int, int], start: Fixed | None = None, alike: int = 1) -> Fixed:
    """Everything that does not depend on the coolant temperature: the air with fans running and stopped included.

    layout : (crossflow, passes, layers) shared by all points
    start  : the same for like points, whose flows the search for this one's flows begins at
    alike  : the points are so many stacks of the same ones, varied a little; the air past stopped fans is taken from the first
    Temperatures [degC], flows [kg/s]. Raises SolveError where the air path does not balance.
    """
    known = start is not None and same(points.core, start.core_was)
    surfaces = start.surfaces if start and known else core_surfaces(points.core)
    surface = start.surface if start and known else louver_surface(points.core, surfaces)
    climate = points.climate
    air = moist_air.air_state(climate.altitude, climate.ambient, climate.humidity)
    outdoor = moist_air.density(air, climate.ambient + climate.grille_rise)
    parts = (points.core, points.engine, points.drive, climate, points.network, points.fans, points.covers, points.doubts)
    half = Half(*parts, surfaces, surface, air, outdoor)
    fans = points.fans
    full_speed = motor_speed(fans.voltage, fans.rated_voltage, fans.brushless) * fans.curve.present * fans.runs
    # Running and stopped fans are two rows of one call: small arrays cost by the call, not by the row.
    count = len(full_speed)
    still = count // alike
    begin = np.concatenate([start.running.branches, start.stopped.branches[:still]]) if start else None
    rows = np.concatenate([np.arange(count), np.arange(still)])
    both = _air(take(half, rows), np.concatenate([full_speed, 0 * full_speed[:still]]), begin)
    loop = _loop(points, surfaces, layout)
    unchanged = start is not None and same(loop, start.loop_was)
    return Fixed(
        surfaces=surfaces,
        surface=surface,
        air=air,
        outdoor_density=outdoor,
        boiling=boiling_point(points.coolant, air.pressure + points.cap_pressure, start.boiling if start else None),
        loop=start.loop if start and unchanged else loop_flows(loop),
        core_was=points.core,
        loop_was=loop,
        running=take(both, np.s_[:count]),
        stopped=take(both, np.s_[count:] if alike == 1 else count + np.tile(np.arange(still), alike)),
    )


def tube_layout(core: CoreGeometry, layout: tuple[bool, int, int]) -> tuple[Floats, Floats]:
    """Tubes in parallel in each pass, and their length [m]; (n,) each.

    Source: definition.
    """
    crossflow, passes, _ = layout
    length, across = (core.face_width, core.face_height) if crossflow else (core.face_height, core.face_width)
    return across / (core.fin_height + core.tube_height) * core.rows / passes, length


def tube_aspect(core: CoreGeometry) -> Floats:
    """Inner height over width of a tube (n,).

    Source: definition.
    """
    return (core.tube_height - 2 * core.tube_wall) / (core.tube_width - 2 * core.tube_wall)


def _loop(points: Points, surfaces: CoreSurfaces, layout: tuple[bool, int, int]) -> Loop:
    core = points.core
    count, length = tube_layout(core, layout)
    coolant = coolant_state(points.coolant, np.full(len(count), LOOP_TEMPERATURE))
    passes = np.full(len(count), float(layout[1]))
    tubes = Tubes(count, passes, length, surfaces.tube_section, surfaces.coolant_diameter, tube_aspect(core), core.turbulator)
    return Loop(points.circuit, tubes, points.drive.rpm, points.pump_voltage, coolant.density, coolant.viscosity)


def softened(rise: Floats) -> Floats:
    """A rise of air temperature (n,) [K] that tends to MOST_AIR_RISE where hardly any air moves.

    Source: a form of our own: nothing changes near nought, and it never passes MOST_AIR_RISE.
    """
    return rise / (1 + rise / MOST_AIR_RISE)


def cover_heat(covers: Covers, heat: EngineHeat) -> Floats:
    """Heat (n, C) [W] each cover would give to its air.

    Source: shares of the engine’s losses, common practice.
    """
    return covers.heat + covers.gearbox * heat.gearbox_loss[:, None] + covers.oil * heat.oil[:, None] + covers.charge * heat.charge[:, None]


def cover_rise(covers: Covers, heat: Floats, core: Floats, cp: Floats) -> tuple[Floats, Floats]:
    """Kelvin each cover heats its air, and the air through it [kg/s]; (n, C). core: (n, K) flow of each class.

    Source: heat balance of the air.
    """
    flow = (np.maximum(core, 0.0)[:, None, :] @ covers.covered)[:, 0, :]
    rise = heat / (np.maximum(flow, LEAST_FLOW) * cp[:, None])
    return np.where(covers.cuts_out > 0, np.minimum(rise, CONDENSER_RISE), softened(rise)), flow


def _air(half: Half, speed: Floats, begin: Floats | None) -> Air:
    """The air path with the fans at `speed`, its air heated by what enters coolant, covers and bay."""
    fans, doubts = half.fans, half.doubts
    ratio = fans.voltage / fans.rated_voltage
    power = (motor_power(fans.power, speed, ratio, fans.brushless) * fans.curve.present).sum(axis=1)
    outdoors = (half.outdoor_density, half.outdoor_density / STANDARD_DENSITY, half.air.pressure, half.climate.ambient)
    engine = engine_heat(half.engine, half.drive, power, outdoors)
    ahead = cover_heat(half.covers, engine)
    grille_air = half.climate.ambient + half.climate.grille_rise
    cp = moist_air.heat_capacity(half.air)
    coolant = engine.coolant * doubts.heat

    def breathing(flows: AirFlows) -> Breath:
        rise, through = cover_rise(half.covers, ahead, flows.core, cp)
        given = coolant + (rise * through).sum(axis=1) * cp
        forward = np.maximum(np.maximum(flows.core, 0.0).sum(axis=1), LEAST_FLOW)
        leaving = np.maximum(flows.exit, LEAST_FLOW)
        bay = grille_air + softened((given + engine.bay + power) / (leaving * cp))
        back = flows.back
        front = grille_air + (bay - grille_air) * back / np.maximum(np.maximum(flows.grille, 0.0) + back, 1e-9)
        behind = front + softened(given / (forward * cp))
        ahead_density, behind_density, bay_density = (moist_air.density(half.air, t) for t in (front, behind, bay))
        return Breath(ahead_density, behind_density, bay_density, front, behind, bay)

    def drop(flux: Floats, breath: Breath) -> Floats:
        expansion = (breath.ahead / breath.behind)[:, None]
        viscosity = moist_air.viscosity(0.5 * (breath.front_temperature + breath.behind_temperature))[:, None]
        return core_drop(half.core, half.surfaces, half.surface, flux, (breath.ahead[:, None], viscosity, expansion))

    curve, factor = fans.curve, doubts.fan_pressure[:, None]
    doubted = curve._replace(pressure=curve.pressure * factor, hole=curve.hole / factor)
    network, leaks = half.network, doubts.leaks
    leaky = network._replace(bypass_area=network.bypass_area * leaks, leak_area=network.leak_area * leaks[:, None])
    if begin is not None:
        core = np.s_[:, 3 + 2 * network.leak_area.shape[1] : -curve.flow.shape[1]]
        begin = begin.copy()
        begin[core] *= network.area
    flows, breath = solve_air(leaky, doubted, speed, breathing, drop, begin)
    sides = np.stack([flows.grille, flows.exit, flows.bypass], axis=1)
    per_area = flows.core / np.maximum(network.area, 1e-9)
    branches = np.concatenate([sides, flows.leaks, flows.flaps, per_area, flows.fans], axis=1)
    return Air(flows, breath, engine, ahead, power, speed, branches)


def commanded(fixed: Fixed, command: Floats, which: str, part: str = "flows") -> Floats:
    """A mean over the fans' off and on times: `which` of flows, breath or heat with the fans at `command` (n,).

    Source: mean over times.
    """
    off, on = (getattr(getattr(air, part), which) for air in (fixed.stopped, fixed.running))
    share = command.reshape(-1, *[1] * (on.ndim - 1))
    mean: Floats = off + share * (on - off)
    return mean


def _front_air(fixed: Fixed, command: Floats) -> Floats:
    """Mean temperature of the air at the face (n,), weighed by the air that is there in the fans' off and on times."""
    flows = [np.maximum(air.flows.grille, 0.0) + air.flows.back for air in (fixed.stopped, fixed.running)]
    return _weighed(command, (fixed.stopped.breath.front_temperature, fixed.running.breath.front_temperature), (flows[0], flows[1]))


def _bay_air(fixed: Fixed, command: Floats) -> Floats:
    """Mean temperature of the air that leaves the bay (n,), weighed by what leaves in the fans' off and on times."""
    flows = [np.maximum(air.flows.exit, 0.0) for air in (fixed.stopped, fixed.running)]
    return _weighed(command, (fixed.stopped.breath.bay_temperature, fixed.running.breath.bay_temperature), (flows[0], flows[1]))


def _weighed(command: Floats, temperatures: tuple[Floats, Floats], flows: tuple[Floats, Floats]) -> Floats:
    off, on = (1 - command) * flows[0] + 1e-12, command * flows[1] + 1e-12
    mean: Floats = (off * temperatures[0] + on * temperatures[1]) / (off + on)
    return mean


class Meeting(NamedTuple):
    """What the air brings to each cell at one evaluation: capacity [W/K], temperature [degC], conductance [W/K]; (n, lanes, cells)."""

    capacity: Floats
    temperature: Floats
    conductance: Floats


def evaluate(points: Points, fixed: Fixed, temperature: Floats, layout: tuple[bool, int, int]) -> State:
    """Rejection and heat in at an engine-outlet temperature (n,) [degC].

    Between the fans' off and on temperatures the mean flow over their on and off times is used.
    layout : (crossflow, passes, layers) shared by all points
    Source: KAYS_LONDON marching with the correlations of its parts.
    """
    return _evaluated(points, fixed, temperature, layout)[0]


def face_heat(points: Points, fixed: Fixed, temperature: Floats, layout: tuple[bool, int, int]) -> tuple[State, Meeting, FaceHeat]:
    """The same with what every cell meets and gives, for maps of the face.

    Temperatures [degC], heat [W].
    """
    return _evaluated(points, fixed, temperature, layout)


def _evaluated(points: Points, fixed: Fixed, temperature: Floats, layout: tuple[bool, int, int]) -> tuple[State, Meeting, FaceHeat]:
    coolant = coolant_state(points.coolant, temperature)
    per_flow = coolant.density * coolant.heat_capacity
    reading = sensed(points.fans.sensing, temperature, _drop_ahead(points, fixed, temperature, per_flow))
    command, load = commanded_share(points.fans.law, reading), power_share(points.fans.law, reading)
    heat_in = commanded(fixed, load, "coolant", "heat") * points.doubts.heat
    cp = moist_air.heat_capacity(fixed.air)
    core = commanded(fixed, command, "core")
    front = _front_air(fixed, command)
    ahead = fixed.stopped.cover_heat + command[:, None] * (fixed.running.cover_heat - fixed.stopped.cover_heat)
    rise, _ = cover_rise(points.covers, ahead, core, cp)
    class_air = front[:, None] + (points.covers.covered @ rise[:, :, None])[:, :, 0]

    # An element at the inlet feels what full flow would bring there: its own throttling is not followed round the circle.
    felt = np.where(points.circuit.at_inlet > 0, temperature - heat_in / (fixed.loop.engine[:, -1] * per_flow), temperature)
    opening = thermostat_opening(points.circuit, felt)
    pumped, core_flow = fixed.loop.at(opening)

    forward = np.maximum(core, 0.0)
    mean_in = (forward * class_air).sum(axis=1) / np.maximum(forward.sum(axis=1), 1e-9)
    air_in = np.where(forward.sum(axis=1) > 1e-9, mean_in, front)
    flux = forward / np.maximum(points.network.area, 1e-9)
    tubes = tube_side(points, fixed, (temperature, air_in), core_flow)
    conductance = _conductance(points, fixed, np.maximum(flux, LEAST_FLUX), 0.5 * (temperature + air_in), tubes.resistance)
    meeting = _meeting(points, fixed, (flux, class_air, conductance), cp)
    cooled = (core_flow * per_flow, temperature)
    face = march((meeting.capacity, meeting.temperature), meeting.conductance, cooled, points.face.weight, layout[1:])
    state = State(
        temperature=temperature, rejection=face.heat, heat_in=heat_in, coolant_flow=pumped,
        core_flow=core_flow, opening=opening, coolant_out=face.coolant_out, engine_inlet=temperature - heat_in / (pumped * per_flow),
        reading=reading, command=command, load=load, front_air=front, air_in=air_in, air_out=air_in + face.heat / meeting.capacity.sum(axis=(1, 2)),
        bay_air=_bay_air(fixed, command), flux=flux, conductance=meeting.conductance.sum(axis=(1, 2)), tube_reynolds=tubes.reynolds,
        tube_share=_film_share(points, fixed, tubes, (forward, conductance)),
    )  # fmt: skip
    return state, meeting, face


def _drop_ahead(points: Points, fixed: Fixed, temperature: Floats, per_flow: Floats) -> Floats:
    """Kelvin (n,) between engine outlet and lower hose at the flow the thermostat lets through; all heat is taken to leave in the core."""
    if not points.fans.sensing.after_core.any():
        return np.zeros_like(temperature)
    heat = fixed.stopped.heat.coolant * points.doubts.heat
    felt = temperature - np.where(points.circuit.at_inlet > 0, heat / (fixed.loop.engine[:, -1] * per_flow), 0.0)
    _, flow = fixed.loop.at(thermostat_opening(points.circuit, felt))
    drop: Floats = heat / (flow * per_flow)
    return drop


def _meeting(points: Points, fixed: Fixed, classes: tuple[Floats, Floats, Floats], cp: Floats) -> Meeting:
    """From classes to cells by each cell's mix: what is blocked brings nothing."""
    flux, air, conductance = classes
    mix = points.face.mix
    columns = np.stack([flux, flux * air, conductance], axis=2)
    n, lanes, cells, kinds = mix.shape
    summed = (mix.reshape(n, lanes * cells, kinds) @ columns).reshape(n, lanes, cells, 3)
    cell_area = (fixed.surfaces.face_area[:, None] * np.maximum(points.face.weight, 1e-9))[:, :, None] / cells
    carried = np.maximum(summed[..., 0], NO_FLUX)
    temperature = np.where(summed[..., 0] > NO_FLUX, summed[..., 1] / carried, air[:, :1, None])
    return Meeting(carried * cell_area * cp[:, None, None], temperature, summed[..., 2] * cell_area)


class TubeSide(NamedTuple):
    """The coolant's side of the core, (n,). film, resistance [m2K/W per m2 of face]: of its own film, and with fouling and bond."""

    reynolds: Floats
    prandtl: Floats
    film: Floats
    resistance: Floats


def tube_side(points: Points, fixed: Fixed, temperatures: tuple[Floats, Floats], core_flow: Floats) -> TubeSide:
    """Film, fouling and bond in series. temperatures: coolant in, air in [degC]; core_flow (n,) [m3/s]

    Source: TALER, SHAH_LONDON.
    """
    core, surfaces = points.core, fixed.surfaces
    hot, cold = temperatures
    coolant = coolant_state(points.coolant, 0.7 * hot + 0.3 * 0.5 * (hot + cold))
    tubes = fixed.loop_was.tubes
    Re = coolant.density * core_flow / (tubes.number * surfaces.tube_section) * surfaces.coolant_diameter / coolant.viscosity
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
    """Coolant-to-air conductance of each class per square metre of face (n, K) [W/m2K]: resistances in series. film (n,) [degC]"""
    air = (moist_air.viscosity(film), moist_air.conductivity(film), moist_air.heat_capacity(fixed.air))
    outer = air_conductance(points.core, fixed.surfaces, fixed.surface, flux, air)
    return points.doubts.conductance[:, None] / (1 / outer + resistance[:, None])


def solve(
    points: Points, layout: tuple[bool, int, int], fixed: Fixed | None = None, start: tuple[Floats, Floats] | None = None
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
    low = points.climate.ambient + points.climate.grille_rise
    temperature = np.clip(points.circuit.thermostat + 12.0 if start is None else start[0], low + 0.5, CEILING)
    state = evaluate(points, fixed, temperature, layout)
    search = Bracket(low, np.full_like(low, CEILING))
    for step in range(1, STEPS + 1):
        off = np.abs(state.margin) / state.heat_in
        stuck = (temperature >= CEILING) & (state.margin < 0)
        done = (off < TOLERANCE) | stuck
        if done.all():
            return Solution(state, fixed, ~stuck, search.slope, step, float(np.where(stuck, 0.0, off).max()))
        # A face wholly behind metal rejects nothing: its slope is taken as next to nothing, not as none.
        slope = np.maximum(state.rejection, 1.0) / np.maximum(temperature - points.climate.ambient, 1.0) if start is None else start[1]
        temperature = np.where(done, temperature, search.following(temperature, state.margin, slope))
        if len(done) >= WORTH_SPLITTING and done.mean() > 0.3:
            return _split(points, layout, fixed, temperature, done, state)
        state = evaluate(points, fixed, temperature, layout)
    raise SolveError("heat_not_converged", f"No steady temperature found after {STEPS} steps", residual=float(off.max()))


def _split(points: Points, layout: tuple[bool, int, int], fixed: Fixed, temperature: Floats, done: Bools, state: State) -> Solution:
    """Large batches go on with the unsettled points alone; the settled ones keep their state."""
    rest = np.flatnonzero(~done)
    proportional = state.rejection / np.maximum(state.temperature - points.climate.ambient, 1.0)
    further = solve(take(points, rest), layout, take(fixed, rest), (temperature[rest], proportional[rest]))
    settles = np.ones(len(done), bool)
    settles[rest] = further.settles
    stuck = done & (temperature >= CEILING) & (state.margin < 0)
    proportional[rest] = further.slope
    return Solution(put(state, rest, further.state), fixed, settles & ~stuck, proportional, further.steps, further.residual)


def thermal_mass(points: Points) -> Floats:
    """Heat capacity of engine and coolant (n,) [J/K].

    Source: common practice, ±30 %.
    """
    return heat_capacity(points.engine)


def face_reynolds(points: Points, solution: Solution) -> Floats:
    """Louver Reynolds number at the mean face flux (n,), while the fans run where they run at all: the correlations are stated for 100..3000.

    Source: CHANG_WANG.
    """
    state, surfaces = solution.state, solution.fixed.surfaces
    running = np.maximum(solution.fixed.running.flows.core, 0.0).sum(axis=1)
    flow = np.where(state.command > 0, running, (state.flux * points.network.area).sum(axis=1))
    return louver_reynolds(points.core, surfaces, flow / surfaces.face_area, moist_air.viscosity(state.air_in))
