"""The air path and the coolant loop made ready: everything that does not depend on the coolant's temperature."""

from __future__ import annotations

import numpy as np

from keelroom.core.air.driven_fan import blades, drag
from keelroom.core.air.network import AirFlows, Breath, Order
from keelroom.core.air.point import CurveRows, NetworkRows
from keelroom.core.arrays import Bools, Floats, Ints, same, take
from keelroom.core.coolers.exchange import car_coolers
from keelroom.core.electrical.motor import motor_power, motor_speed
from keelroom.core.fluids import air as moist_air
from keelroom.core.fluids.coolant import boiling_point, coolant_state
from keelroom.core.joint.car import (
    CarAir,
    CarRows,
    DoubtRows,
    FluidRows,
    OutdoorRows,
    WeatherRows,
    solve_airs,
)
from keelroom.core.kept import by_identity
from keelroom.core.loop.circuit import LoopLaw, Tubes
from keelroom.core.loop.flows import loop_flows
from keelroom.core.network import unbalanced
from keelroom.core.plant import LOOP_TEMPERATURE, AirAt, Fixed, Layout, Points
from keelroom.core.rows import bound
from keelroom.core.thermal.engine_heat import EngineHeat
from keelroom.core.thermal.engine_point import DriveRows, EngineRows, LawRows, VehicleRows
from keelroom.core.thermal.geometry import CoreGeometry, CoreSurfaces, core_surfaces
from keelroom.core.thermal.louver import LouverSurface, louver_surface
from keelroom.core.thermal.point import CoreRows, LouverRows, SurfaceRows

NOWHERE: Floats = np.zeros((0, 0))
"""No flows to begin at."""


AS_ENTERED = (1.0, 1.0, 1.0)
"""Factors on the fans' pressure, on the area of leaks, and on the pressure of the road's air."""


def prepare(points: Points, layout: Layout, start: Fixed | None = None) -> Fixed:
    """Everything that does not depend on the coolant temperature: the air with fans running and stopped included.

    layout : shared by all points
    start  : the same for like points, whose flows the search for this one's flows begins at
    Temperatures [degC], flows [kg/s]. Raises SolveError where the air path does not balance.
    """
    plant, situation = points.plant, points.situation
    known = start is not None and same(plant.core, start.core_was)
    surfaces = start.surfaces if start and known else core_surfaces(plant.core)
    surface = start.surface if start and known else louver_surface(plant.core, surfaces)
    climate = situation.climate
    air = moist_air.air_state(climate.altitude, climate.ambient, climate.humidity)
    outdoor = moist_air.density(air, climate.ambient + climate.grille_rise)
    count = len(plant.limit)
    rows = np.tile(np.arange(count), 2)
    car = car_rows(points, surfaces, surface, air, outdoor)
    factors = np.repeat([AS_ENTERED], 2 * count, axis=0)
    begin = np.concatenate([start.running.branches, start.stopped.branches]) if start else NOWHERE
    both = _airs(points, car, rows, (np.concatenate(_fan_speeds(points)), factors), begin)
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
        stopped=take(both, np.s_[count:]),
    )


def varied_air(points: Points, fixed: Fixed, rows: Ints, how: tuple[Bools, Floats], start: AirAt | None) -> AirAt:
    """The air of points `rows` (m,) with their fans running or not (m,), at factors (m, 3) on what is doubtful of it.

    start : the same for like points, where at hand.  Raises SolveError where the air path does not balance.
    Source: definition.
    """
    running, factors = how
    full, stopped = _fan_speeds(points)
    car = car_rows(points, fixed.surfaces, fixed.surface, fixed.air, fixed.outdoor_density)
    nominal = np.where(running[:, None], fixed.running.branches[rows], fixed.stopped.branches[rows])
    begin = start.branches if start and len(start.branches) == len(rows) else nominal
    return _airs(points, car, rows, (np.where(running[:, None], full[rows], stopped[rows]), factors), begin)


@by_identity(4)
def _fan_speeds(points: Points) -> tuple[Floats, Floats]:
    """Shares of rated speed (n, fans) with the fans commanded on and off."""
    fans, command = points.plant.fans, points.situation.command
    there = fans.curve.present * fans.runs
    full = motor_speed(command.voltage, fans.rated_voltage, fans.brushless) * there * (1 - fans.driven)
    # A thermal clutch is what commands a fan of the engine that stands alone; beside electric ones it is taken as
    # engaged throughout.
    alone = ((1 - fans.driven) * there).sum(axis=1, keepdims=True) <= 0
    engaged, slipping = (blades(command.turned, fans.clutch, grips) * there * fans.driven for grips in (True, False))
    return full + engaged, np.where(alone, slipping, engaged)


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


@by_identity(4)
def car_rows(
    points: Points, surfaces: CoreSurfaces, surface: LouverSurface, air: moist_air.AirState, density: Floats
) -> CarRows:
    """The cars as typed modules read them. surfaces, surface: areas of the core and constants of its surface; air:
    outdoors, and its density [kg/m3] at the grille."""
    plant, situation = points.plant, points.situation
    car = CarRows()
    car.core, car.surfaces = bound(CoreRows, plant.core), bound(SurfaceRows, surfaces)
    car.louver = bound(LouverRows, surface)
    car.engine = bound(EngineRows, plant.engine, law=bound(LawRows, plant.engine.law))
    car.vehicle, car.drive = bound(VehicleRows, plant.vehicle), bound(DriveRows, situation.drive)
    car.network, car.curve = bound(NetworkRows, plant.network), bound(CurveRows, plant.fans.curve)
    car.climate, car.fluids = bound(WeatherRows, situation.climate), bound(FluidRows, situation.fluids)
    car.doubts = bound(DoubtRows, points.doubts)
    car.outdoors = bound(OutdoorRows, air, density=density, air_speed=situation.air_speed)
    return car


def _airs(points: Points, car: CarRows, rows: Ints, told: tuple[Floats, Floats], begin: Floats) -> AirAt:
    """The air paths of cars (m,), the air heated by what enters coolant, covers and bay. told: speeds of their fans (m,
    fans), and factors (m, 3) as AS_ENTERED."""
    speed, factors = told
    fans, command = take(points.plant.fans, rows), points.situation.command
    voltage, turned = command.voltage[rows], command.turned[rows]
    there = fans.curve.present
    power = (motor_power(fans.power, speed, voltage / fans.rated_voltage, fans.brushless) * there).sum(axis=1)
    dragged = (drag(fans.drag, turned, speed) * fans.driven * there).sum(axis=1)
    air = CarAir(car, car_coolers(points.plant.coolers))
    count, branches = len(rows), air.count
    flows, pressures = np.empty((count, 2 * branches)), np.empty((count, air.nodes))
    breath, heat = np.empty((count, len(Breath._fields))), np.empty((count, len(EngineHeat._fields) + 1))
    asked = np.column_stack([power, dragged, factors])
    steps, residual = solve_airs(air, rows, speed, asked, begin, flows, pressures, breath, heat)
    if not steps:
        raise unbalanced("air", residual)
    order = Order(air.zones, air.classes, air.fans)
    return AirAt(
        flows=AirFlows(
            grille=flows[:, 0],
            exit=flows[:, 1],
            bypass=flows[:, 2],
            core=flows[:, order.core],
            fans=flows[:, order.blown],
            leaks=flows[:, order.leaks],
            flaps=flows[:, order.flaps],
            pressures=pressures,
            steps=steps,
            residual=residual,
        ),
        breath=Breath(*breath.T),
        heat=EngineHeat(*heat.T[:-1]),
        into_coolant=heat[:, -1],
        power=power,
        speed=speed,
        branches=flows[:, branches:],
    )


def fluid_heat(heat: EngineHeat) -> tuple[Floats, Floats, Floats, Floats]:
    """What of the engine's heat goes into fluids of coolers: gearbox, oil and charge air [W], and that air's capacity
    [W/K]; (n,) each. Source: definition."""
    return heat.gearbox, heat.oil, heat.charge, heat.charge_flow


def commanded(fixed: Fixed, command: Floats, which: str) -> Floats:
    """Flows of two prepared air paths mixed by name, with the fans at `command` (n,), a share of their on time.

    Exact in the mean for fans that switch on and off. Source: mean over times.
    """
    off, on = (getattr(air.flows, which) for air in (fixed.stopped, fixed.running))
    share = command.reshape(-1, *[1] * (on.ndim - 1))
    mean: Floats = off + share * (on - off)
    return mean
