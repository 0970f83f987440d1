"""The joint solve: the one module that knows every discipline.

Fans set the air, air and coolant set the rejection, fans load the alternator, the alternator loads the engine,
the engine heats the coolant, the coolant commands thermostat and fans. One unknown is left per point, the
engine-outlet temperature, and rejection less heat in rises with it.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.air.fan import FanCurve, motor_power, motor_speed
from keelroom.core.air.network import AirFlows, AirPath, Densities, solve_air
from keelroom.core.arrays import Bools, Floats, put, take, unit_share
from keelroom.core.bracket import Bracket
from keelroom.core.fluids import air as moist_air
from keelroom.core.fluids.coolant import CoolantCurves, boiling_point, coolant_state
from keelroom.core.loop.circuit import Circuit, pump_flow, thermostat_opening
from keelroom.core.thermal.engine_heat import Drive, Engine, EngineHeat, engine_heat, heat_capacity
from keelroom.core.thermal.geometry import CoreGeometry, CoreSurfaces, core_surfaces
from keelroom.core.thermal.louver import LouverSurface, air_conductance, core_drop, louver_reynolds, louver_surface
from keelroom.core.thermal.march import march
from keelroom.core.thermal.tube_side import tube_nusselt
from keelroom.errors import SolveError

TOLERANCE = 1e-7
"""Largest imbalance of heat, as a share of the heat in."""
STEPS = 60
WORTH_SPLITTING = 64
"""Points from which on it pays to go on with the unsettled ones alone."""
CEILING = 190.0
"""No engine-outlet temperature above it is sought [degC]: far past boiling of any mix under any cap."""
STANDARD_DENSITY = 1.225
MOST_AIR_RISE = 400.0
"""Kelvin of air heating that the density behind the core tends to where hardly any air moves."""
CONDENSER_RISE = 40.0
"""Kelvin the condenser can heat its air: beyond it the A/C cuts out on head pressure (common practice)."""
LEAST_FLOW = 1e-3
"""Flow [kg/s] below which the air of a path counts as still."""
LEAST_FLUX = 2e-3
"""Flux [kg/s per m2] below which a cell counts as still air."""


class Climate(NamedTuple):
    """Outdoors, arrays (n,). ambient [degC]; altitude [m]; humidity 0..1; grille_rise [K] of air at the grille."""

    ambient: Floats
    altitude: Floats
    humidity: Floats
    grille_rise: Floats


class Fans(NamedTuple):
    """Fans and their command, (n, fans) or (n,). power [W] at rated_voltage; voltage (n,) at the motors.

    on, off : (n,) [degC] engine-outlet temperatures between which the mean command rises from none to full
    """

    curve: FanCurve
    power: Floats
    rated_voltage: Floats
    brushless: Floats
    voltage: Floats
    on: Floats
    off: Floats


class Ahead(NamedTuple):
    """What stands ahead of the core, (n,). heat [W] into the air; loss in dynamic heads of the face speed."""

    heat: Floats
    loss: Floats


class Doubts(NamedTuple):
    """Factors on what is doubtful, (n,), 1 as entered: heat to coolant, core conductance, fan pressure."""

    heat: Floats
    conductance: Floats
    fan_pressure: Floats


class Points(NamedTuple):
    """n operating points of one core layout, stacked.

    coverage (n, lanes, cells): share of each cell under the fans;  weight (n, lanes): share of the tubes a lane stands for
    """

    core: CoreGeometry
    engine: Engine
    drive: Drive
    climate: Climate
    path: AirPath
    fans: Fans
    ahead: Ahead
    coolant: CoolantCurves
    circuit: Circuit
    cap_pressure: Floats
    limit: Floats
    coverage: Floats
    weight: Floats
    doubts: Doubts


class Air(NamedTuple):
    """The air path at one state of the fans. heat: what the engine gives then; power (n,) [W] of the fans."""

    flows: AirFlows
    heat: EngineHeat
    power: Floats
    speed: Floats
    """(n, fans) share of rated speed"""


class Fixed(NamedTuple):
    """What does not change with temperature, worked out once per batch."""

    surfaces: CoreSurfaces
    surface: LouverSurface
    air: moist_air.AirState
    density_ahead: Floats
    boiling: Floats
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
    command: Floats
    """share of the time the fans run"""
    fan_flow: Floats
    """(n, fans) mean [kg/s]"""
    open_flow: Floats
    """past the fans [kg/s]"""
    air_in: Floats
    """ahead of the core, condenser heat included"""
    air_out: Floats
    """mean behind the core"""
    flux: Floats
    """(n, lanes, cells) [kg/s per m2]"""
    conductance: Floats
    """whole core, coolant to air [W/K]"""

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


def prepare(points: Points, start: Fixed | None = None) -> Fixed:
    """Everything that does not depend on the coolant temperature: the air with fans running and stopped included.

    start : the same for like points, whose flows the search for this one's flows begins at
    """
    surfaces = core_surfaces(points.core)
    climate = points.climate
    air = moist_air.air_state(climate.altitude, climate.ambient, climate.humidity)
    half = Half(points, surfaces, louver_surface(points.core, surfaces), air, moist_air.density(air, climate.ambient + climate.grille_rise))
    full_speed = motor_speed(points.fans.voltage[:, None], points.fans.rated_voltage, points.fans.brushless)
    full_speed = full_speed * points.fans.curve.present
    # Running and stopped fans are two rows of one call: small arrays cost by the call, not by the row.
    count = len(full_speed)
    both = _air(take(half, np.tile(np.arange(count), 2)), np.concatenate([full_speed, 0 * full_speed]), start)
    return Fixed(
        surfaces=surfaces,
        surface=half.surface,
        air=air,
        density_ahead=half.density_ahead,
        boiling=boiling_point(points.coolant, air.pressure + points.cap_pressure, start.boiling if start else None),
        running=take(both, np.s_[:count]),
        stopped=take(both, np.s_[count:]),
    )


class Half(NamedTuple):
    """What the air path is solved from."""

    points: Points
    surfaces: CoreSurfaces
    surface: LouverSurface
    air: moist_air.AirState
    density_ahead: Floats


def evaluate(points: Points, fixed: Fixed, temperature: Floats, layout: tuple[bool, int, int]) -> State:
    """Rejection and heat in at an engine-outlet temperature (n,) [degC].

    Between the fans' off and on temperatures the mean flow over their on and off times is used.
    layout : (crossflow, passes, layers) shared by all points
    """
    command = unit_share((temperature - points.fans.off) / (points.fans.on - points.fans.off))
    running, stopped = fixed.running, fixed.stopped
    heat_in = (stopped.heat.coolant + command * (running.heat.coolant - stopped.heat.coolant)) * points.doubts.heat
    fans = stopped.flows.fans + command[:, None] * (running.flows.fans - stopped.flows.fans)
    free = stopped.flows.open + command * (running.flows.open - stopped.flows.open)
    cp = moist_air.heat_capacity(fixed.air)
    air_in = points.climate.ambient + points.climate.grille_rise
    air_in = air_in + np.minimum(points.ahead.heat / (np.maximum(fans.sum(axis=1) + free, LEAST_FLOW) * cp), CONDENSER_RISE)

    coolant = coolant_state(points.coolant, temperature)
    pumped = pump_flow(points.circuit, points.drive.rpm)
    capacity = pumped * coolant.density * coolant.heat_capacity
    engine_inlet = temperature - heat_in / capacity
    sensed = np.where(points.circuit.at_inlet > 0, engine_inlet, temperature)
    opening = thermostat_opening(points.circuit, sensed)

    flux = _face_flux(points, fans, free)
    conductance = _conductance(points, fixed, flux, (temperature, air_in), opening * pumped, layout)
    _, passes, layers = layout
    cell_area = fixed.surfaces.face_area[:, None, None] * np.maximum(points.weight, 1e-9)[:, :, None] / flux.shape[2]
    air = flux * cell_area * cp[:, None, None], np.broadcast_to(air_in[:, None, None], flux.shape)
    face = march(air, conductance * cell_area, (opening * capacity, temperature), points.weight, (passes, layers))
    return State(
        temperature=temperature, rejection=face.heat, heat_in=heat_in, coolant_flow=pumped,
        core_flow=opening * pumped, opening=opening, coolant_out=face.coolant_out, engine_inlet=engine_inlet,
        command=command, fan_flow=fans, open_flow=free, air_in=air_in,
        air_out=air_in + face.heat / air[0].sum(axis=(1, 2)), flux=flux, conductance=(conductance * cell_area).sum(axis=(1, 2)),
    )  # fmt: skip


def _air(half: Half, speed: Floats, start: Fixed | None) -> Air:
    """The air path with the fans at `speed`, its air heated by what enters coolant and condenser."""
    points = half.points
    power = (motor_power(points.fans.power, speed) * points.fans.curve.present).sum(axis=1)
    engine = engine_heat(points.engine, points.drive, power, (half.density_ahead, half.density_ahead / STANDARD_DENSITY))
    heat = engine.coolant * points.doubts.heat + points.ahead.heat
    grille_air = points.climate.ambient + points.climate.grille_rise
    cp = moist_air.heat_capacity(half.air)
    ahead_loss = points.ahead.loss[:, None] / (2 * half.density_ahead[:, None])

    def heating(total: Floats) -> Densities:
        # A smooth ceiling keeps the air credible where hardly any moves.
        free_rise = heat / (np.maximum(total, LEAST_FLOW) * cp)
        rise = free_rise / (1 + free_rise / MOST_AIR_RISE)
        kelvin = grille_air + rise + 273.15
        behind = moist_air.density(half.air, grille_air + rise)
        thinning = behind * rise / (1 + free_rise / MOST_AIR_RISE) / (kelvin * np.maximum(total, LEAST_FLOW))
        return Densities(half.density_ahead, behind, thinning)

    def drop(flux: Floats, density: Densities) -> Floats:
        expansion = (density.ahead / density.behind)[:, None]
        viscosity = moist_air.viscosity(grille_air + 0.5 * (grille_air + 273.15) * (density.ahead / density.behind - 1))[:, None]
        through = core_drop(points.core, half.surfaces, half.surface, flux, (half.density_ahead[:, None], viscosity, expansion))
        return through + ahead_loss * flux**2

    curve, factor = points.fans.curve, points.doubts.fan_pressure[:, None]
    doubted = curve._replace(pressure=curve.pressure * factor, hole=curve.hole / factor)
    begin = None
    if start is not None:
        ran, stood = start.running.flows, start.stopped.flows
        begin = np.concatenate([ran.fans, stood.fans]), np.concatenate([ran.open, stood.open])
    return Air(solve_air(points.path, doubted, speed, heating, drop, begin), engine, power, speed)


def _face_flux(points: Points, fans: Floats, free: Floats) -> Floats:
    """Mass flux through each cell; air that runs back through the open region carries no heat away."""
    drawn = fans.sum(axis=1) / np.maximum(points.path.drawn_area, 1e-9)
    free = free / np.maximum(points.path.open_area, 1e-9)
    drawn, free = (np.maximum(v, LEAST_FLUX)[:, None, None] for v in (drawn, free))
    flux: Floats = points.coverage * drawn + (1 - points.coverage) * free
    return flux


def _conductance(
    points: Points, fixed: Fixed, flux: Floats, temperatures: tuple[Floats, Floats], core_flow: Floats, layout: tuple[bool, int, int]
) -> Floats:
    """Coolant-to-air conductance of each cell per square metre of face [W/m2K]: resistances in series."""
    crossflow, passes, _ = layout
    core, surfaces = points.core, fixed.surfaces
    hot, cold = temperatures
    film = 0.5 * (hot + cold)
    coolant = coolant_state(points.coolant, 0.7 * hot + 0.3 * film)
    length, across = (core.face_width, core.face_height) if crossflow else (core.face_height, core.face_width)
    tubes = across / (core.fin_height + core.tube_height) * core.rows / passes
    Re = coolant.density * core_flow / (tubes * surfaces.tube_section) * surfaces.coolant_diameter / coolant.viscosity
    Pr = coolant.viscosity * coolant.heat_capacity / coolant.conductivity
    aspect = (core.tube_height - 2 * core.tube_wall) / (core.tube_width - 2 * core.tube_wall)
    nusselt = tube_nusselt(Re, Pr, aspect, surfaces.coolant_diameter / length)
    inner = core.turbulator * nusselt * coolant.conductivity / surfaces.coolant_diameter
    resistance = (1 / inner + core.fouling) / surfaces.inner_area + core.bond_resistance / surfaces.tube_area
    air = (moist_air.viscosity(film), moist_air.conductivity(film), moist_air.heat_capacity(fixed.air))
    outer = air_conductance(core, surfaces, fixed.surface, flux, air)
    return points.doubts.conductance[:, None, None] / (1 / outer + resistance[:, None, None])


def solve(
    points: Points, layout: tuple[bool, int, int], fixed: Fixed | None = None, start: tuple[Floats, Floats] | None = None
) -> Solution:
    """Engine-outlet temperature (n,) at which rejection equals heat in.

    Rejection less heat in rises with temperature, so a bracketed secant cannot miss it. Where even CEILING
    is not enough, `settles` is False and the state is the one at the ceiling.
    fixed, start : what `prepare` gave, and temperatures and slopes (n,) of like points to begin at, where at hand
    Raises SolveError when a bracketed point does not converge.
    """
    fixed = fixed or prepare(points)
    low = points.climate.ambient + points.climate.grille_rise + 1.0
    temperature = np.clip(points.circuit.thermostat + 12.0 if start is None else start[0], low, CEILING)
    state = evaluate(points, fixed, temperature, layout)
    search = Bracket(low, np.full_like(low, CEILING))
    for step in range(1, STEPS + 1):
        off = np.abs(state.margin) / state.heat_in
        stuck = (temperature >= CEILING) & (state.margin < 0)
        done = (off < TOLERANCE) | stuck
        if done.all():
            return Solution(state, fixed, ~stuck, search.slope, step, float(np.where(stuck, 0.0, off).max()))
        slope = state.rejection / np.maximum(temperature - points.climate.ambient, 1.0) if start is None else start[1]
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
    """Heat capacity of engine and coolant (n,) [J/K]."""
    return heat_capacity(points.engine)


def face_reynolds(points: Points, solution: Solution) -> Floats:
    """Louver Reynolds number at the mean face flux (n,): the correlations are stated for 100..3000."""
    state = solution.state
    viscosity = moist_air.viscosity(state.air_in)
    return louver_reynolds(
        points.core, solution.fixed.surfaces, (state.fan_flow.sum(axis=1) + state.open_flow) / solution.fixed.surfaces.face_area, viscosity
    )
