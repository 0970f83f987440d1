"""The air path and the coolant loop made ready: everything that does not depend on the coolant's temperature."""

from __future__ import annotations

import numpy as np

from keelroom.core.air.driven_fan import blades, drag
from keelroom.core.air.network import AirFlows, Breath, Driven, beginning, solve_air
from keelroom.core.arrays import Floats, same, take
from keelroom.core.coolers.exchange import Around, Exchanged, FluidsAsked, exchanged
from keelroom.core.electrical.motor import motor_power, motor_speed
from keelroom.core.fluids import air as moist_air
from keelroom.core.fluids.coolant import boiling_point, coolant_state
from keelroom.core.loop.circuit import LoopLaw, Tubes, loop_flows
from keelroom.core.plant import AirAt, Fixed, Fluids, Half, Layout, Points
from keelroom.core.thermal.engine_heat import Drive, EngineHeat, engine_heat
from keelroom.core.thermal.gearbox import case_sheds, line_flow, oil_flow
from keelroom.core.thermal.geometry import CoreGeometry, CoreSurfaces, core_surfaces
from keelroom.core.thermal.louver import core_drop, louver_surface

STANDARD_DENSITY = 1.225
MOST_AIR_RISE = 400.0
"""Kelvin of air heating that the air tends to where hardly any moves."""
LOOP_TEMPERATURE = 95.0
"""[degC] the coolant loop is solved at: other temperatures move its flows by a few per cent through the viscosity
alone."""
LOOP_DROP = 8.0
"""Kelvin the coolant has lost by the core's outlet tank while the air path is solved (common practice)."""
ENGINE_OIL, GEARBOX_FLUID = 850.0 * 2130.0, 825.0 * 2100.0
"""[J/m3K] of hot oils: TABLE_OIL at 80 and 90 degC."""
STEERING_FLOW = 5.0 / 60e3
"""[m3/s] round a power steering (common practice)."""
LEAST_FLOW = 1e-3
"""Flow [kg/s] below which the air of a path counts as still."""


def prepare(points: Points, layout: Layout, start: Fixed | None = None, alike: int = 1) -> Fixed:
    """Everything that does not depend on the coolant temperature: the air with fans running and stopped included.

    layout : shared by all points
    start  : the same for like points, whose flows the search for this one's flows begins at
    alike  : the points are so many stacks of the same ones, varied a little; the air past stopped fans is taken from
             the first
    Temperatures [degC], flows [kg/s]. Raises SolveError where the air path does not balance.
    """
    plant, situation = points.plant, points.situation
    known = start is not None and same(plant.core, start.core_was)
    surfaces = start.surfaces if start and known else core_surfaces(plant.core)
    surface = start.surface if start and known else louver_surface(plant.core, surfaces)
    climate, fans = situation.climate, plant.fans
    air = moist_air.air_state(climate.altitude, climate.ambient, climate.humidity)
    outdoor = moist_air.density(air, climate.ambient + climate.grille_rise)
    parts = (plant.core, plant.engine, plant.vehicle, plant.network, fans, plant.coolers)
    command = situation.command
    asked = (climate, situation.drive, situation.air_speed, command.voltage, command.turned, situation.fluids)
    half = Half(*parts, *asked, points.doubts, surfaces, surface, air, outdoor)
    there = fans.curve.present * fans.runs
    full_speed = motor_speed(command.voltage, fans.rated_voltage, fans.brushless) * there * (1 - fans.driven)
    # A thermal clutch is what commands a fan of the engine that stands alone; beside electric ones it is taken as
    # engaged throughout.
    alone = ((1 - fans.driven) * there).sum(axis=1, keepdims=True) <= 0
    engaged, slipping = (blades(command.turned, fans.clutch, grips) * there * fans.driven for grips in (True, False))
    full_speed, stopped_speed = full_speed + engaged, np.where(alone, slipping, engaged)
    # Running and stopped fans are two rows of one call: small arrays cost by the call, not by the row.
    count = len(full_speed)
    still = count // alike
    begin = np.concatenate([start.running.branches, start.stopped.branches[:still]]) if start else None
    rows = np.concatenate([np.arange(count), np.arange(still)])
    both = _air(take(half, rows), np.concatenate([full_speed, stopped_speed[:still]]), begin)
    loop = _loop(points, surfaces, layout)
    unchanged = start is not None and same(loop, start.loop_was)
    return Fixed(
        surfaces=surfaces,
        surface=surface,
        air=air,
        outdoor_density=outdoor,
        boiling=boiling_point(plant.coolant, air.pressure + plant.cap_pressure, start.boiling if start else None),
        loop=start.loop if start and unchanged else loop_flows(loop, start.loop if start else None),
        core_was=plant.core,
        loop_was=loop,
        running=take(both, np.s_[:count]),
        stopped=take(both, np.s_[count:] if alike == 1 else count + np.tile(np.arange(still), alike)),
    )


def tube_layout(core: CoreGeometry, layout: Layout) -> tuple[Floats, Floats]:
    """Tubes in parallel in each pass, and their length [m]; (n,) each.

    Source: definition.
    """
    length, across = (core.face_width, core.face_height) if layout.crossflow else (core.face_height, core.face_width)
    return across / (core.fin_height + core.tube_height) * core.rows / layout.passes, length


def tube_aspect(core: CoreGeometry) -> Floats:
    """Inner height over width of a tube (n,).

    Source: definition.
    """
    return (core.tube_height - 2 * core.tube_wall) / (core.tube_width - 2 * core.tube_wall)


def _loop(points: Points, surfaces: CoreSurfaces, layout: Layout) -> LoopLaw:
    core = points.plant.core
    count, length = tube_layout(core, layout)
    coolant = coolant_state(points.plant.coolant, np.full(len(count), LOOP_TEMPERATURE))
    passes = np.full(len(count), float(layout.passes))
    tubes = Tubes(
        count, passes, length, surfaces.tube_section, surfaces.coolant_diameter, tube_aspect(core), core.turbulator
    )
    return LoopLaw(
        points.plant.circuit,
        tubes,
        points.situation.drive.rpm,
        points.situation.pump_voltage,
        coolant.density,
        coolant.viscosity,
    )


def softened(rise: Floats) -> Floats:
    """A rise of air temperature (n,) [K] that tends to MOST_AIR_RISE where hardly any air moves.

    Source: a form of our own: nothing changes near nought, and it never passes MOST_AIR_RISE.
    """
    return rise / (1 + rise / MOST_AIR_RISE)


def asked_of(fluids: Fluids, drive: Drive, heat: tuple[Floats, Floats, Floats, Floats], doubt: Floats) -> FluidsAsked:
    """What every fluid is given. heat: of the engine, into gearbox, oil and charge air [W], and that air's capacity
    [W/K]; doubt: factor on heat.

    All (n,). Source: flows of the fluids common practice, their heat capacities TABLE_OIL.
    """
    gearbox, oil, charge, charge_flow = heat
    return FluidsAsked(
        gearbox=gearbox * doubt,
        gearbox_flow=line_flow(drive.rpm) * GEARBOX_FLUID,
        oil=oil * doubt,
        oil_flow=oil_flow(drive.rpm) * ENGINE_OIL,
        charge=charge,
        charge_flow=charge_flow,
        steering=fluids.steering,
        steering_flow=np.full_like(oil, STEERING_FLOW * GEARBOX_FLUID),
        compressor=fluids.compressor,
        cop_share=fluids.cop_share,
        case=case_sheds(drive.speed),
        own_air=fluids.own_air,
    )


def fluid_heat(heat: EngineHeat) -> tuple[Floats, Floats, Floats, Floats]:
    """What of the engine's heat goes into fluids of coolers, as `asked_of` takes it. Source: definition."""
    return heat.gearbox, heat.oil, heat.charge, heat.charge_flow


def _air(half: Half, speed: Floats, begin: Floats | None) -> AirAt:
    """The air path with the fans at `speed`, its air heated by what enters coolant, covers and bay."""
    fans, climate, doubts = half.fans, half.climate, half.doubts
    ratio = half.voltage / fans.rated_voltage
    power = (motor_power(fans.power, speed, ratio, fans.brushless) * fans.curve.present).sum(axis=1)
    outdoors = (half.outdoor_density, half.outdoor_density / STANDARD_DENSITY, half.air.pressure, climate.ambient)
    dragged = (drag(fans.drag, half.turned, speed) * fans.driven * fans.curve.present).sum(axis=1)
    engine = engine_heat((half.engine, half.vehicle), half.drive._replace(driven_fan=dragged), power, outdoors)
    asked = asked_of(half.fluids, half.drive, fluid_heat(engine), doubts.heat)
    grille_air = climate.ambient + climate.grille_rise
    cp = moist_air.heat_capacity(half.air)
    coolant = engine.coolant * doubts.heat
    warm, still = np.full_like(cp, LOOP_TEMPERATURE), np.zeros_like(cp)
    around = Around(grille_air, grille_air, grille_air, grille_air, warm - LOOP_DROP, still, warm, cp)

    found: Exchanged

    def breathing(flows: AirFlows) -> Breath:
        # With the coolant as warm as the loop is solved at: how much a little more or less goes here or there hardly
        # moves the air.
        nonlocal found
        found = exchanged(half.coolers, asked, around, flows.core, 1)
        given = coolant + found.tank - found.from_block + (found.heat * half.coolers.ahead).sum(axis=1)
        forward = np.maximum(np.maximum(flows.core, 0.0).sum(axis=1), LEAST_FLOW)
        leaving = np.maximum(flows.exit, LEAST_FLOW)
        beside = (found.heat * half.coolers.into_bay).sum(axis=1)
        bay = grille_air + softened((given + engine.bay + power + beside) / (leaving * cp))
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
    flows, breath = solve_air(leaky, doubted, Driven(half.air_speed, speed), breathing, drop, begin)
    # As it was found last: at the flows that balance.
    into_coolant = coolant + found.tank - found.from_block
    return AirAt(flows, breath, engine, into_coolant, power, speed, beginning(network, flows))


def commanded(fixed: Fixed, command: Floats, which: str, part: str = "flows") -> Floats:
    """Two prepared air paths mixed: `which` of flows, breath or heat with the fans at `command` (n,), a share of
    their on time.

    Exact in the mean for fans that switch on and off. For fans that run slower instead it gives too much: through the
    core up to an eighth of the full flow at 30 % of speed, a twentieth at 70 %, measured against the path solved at
    that speed.
    Source: mean over times.
    """
    off, on = (getattr(getattr(air, part), which) for air in (fixed.stopped, fixed.running))
    share = command.reshape(-1, *[1] * (on.ndim - 1))
    mean: Floats = off + share * (on - off)
    return mean


def front_air(fixed: Fixed, command: Floats) -> Floats:
    """Mean temperature of the air at the face (n,), weighed by the air that is there in the fans' off and on times."""
    flows = [np.maximum(air.flows.grille, 0.0) + air.flows.back for air in (fixed.stopped, fixed.running)]
    return _weighed(
        command, (fixed.stopped.breath.front_temperature, fixed.running.breath.front_temperature), (flows[0], flows[1])
    )


def bay_air(fixed: Fixed, command: Floats) -> Floats:
    """Mean temperature of the air that leaves the bay (n,), weighed by what leaves in the fans' off and on times."""
    flows = [np.maximum(air.flows.exit, 0.0) for air in (fixed.stopped, fixed.running)]
    return _weighed(
        command, (fixed.stopped.breath.bay_temperature, fixed.running.breath.bay_temperature), (flows[0], flows[1])
    )


def _weighed(command: Floats, temperatures: tuple[Floats, Floats], flows: tuple[Floats, Floats]) -> Floats:
    off, on = (1 - command) * flows[0] + 1e-12, command * flows[1] + 1e-12
    mean: Floats = (off * temperatures[0] + on * temperatures[1]) / (off + on)
    return mean
