"""The joint solve, where the disciplines meet on what `coupling` made ready: `joint` for whole batches.

Fans set the air, air and coolant set the rejection, fans load the alternator, the alternator loads the engine, the
engine heats the coolant and the bay, hot bay air comes back to the face, the coolant commands thermostat and fans.
One unknown is left per point, the engine-outlet temperature, and rejection less heat in rises with it.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats, Ints
from keelroom.core.coolers.exchange import Exchanged, car_coolers
from keelroom.core.coolers.point import CarCoolers
from keelroom.core.coupling import car_rows, prepare
from keelroom.core.electrical.point import ControlRows, SensingRows
from keelroom.core.fluids import air as moist_air
from keelroom.core.fluids.point import CoolantRows
from keelroom.core.joint.car import CarRows
from keelroom.core.joint.meeting import (
    AirRows,
    BreathRows,
    FlowRows,
    HeatRows,
    Meeting,
    PlantRows,
    PreparedRows,
    evaluate_points,
    face_at,
    settle_points,
)
from keelroom.core.kept import by_identity
from keelroom.core.loop.circuit import OPENINGS, STEEPNESS
from keelroom.core.loop.point import CircuitRows, TubeRows
from keelroom.core.plant import AS_COMMANDED, LOST, STEPS, STUCK, AirAt, Face, Fixed, Layout, Points, Solution, State
from keelroom.core.rows import bound
from keelroom.core.thermal.engine_heat import heat_capacity
from keelroom.core.thermal.louver import louver_reynolds
from keelroom.core.thermal.point import FaceMarch, FaceRows
from keelroom.errors import SolveError


class Held(NamedTuple):
    """How points are looked at beside as they are, (m,): of which points (rows) with which running air (blown), with
    fans held at shares of full flow and power, AS_COMMANDED where they are not, and factors on the core's
    conductance, on the coolant's flow and on the heat."""

    rows: Ints
    blown: Ints
    share: Floats
    power: Floats
    conductance: Floats
    pace: Floats
    heat: Floats

    def matrices(self) -> tuple[Ints, Floats]:
        """What typed modules read."""
        rows = np.array([self.rows, self.blown]).T
        held = np.array(self[2:]).T
        return np.ascontiguousarray(rows), held


def looked_at(rows: Ints, share: Floats | float = AS_COMMANDED, power: Floats | float = AS_COMMANDED) -> Held:
    """Points `rows` (m,) with their fans held at shares of flow and power, or as commanded.

    Source: definition.
    """
    held = [np.full(len(rows), value, float) for value in (share, power, 1.0, 1.0, 1.0)]
    return Held(rows, rows, *held)


class Met(NamedTuple):
    """What the air brings to each cell of one face: capacity [W/K], temperature [degC], conductance [W/K], and the air
    behind it [degC]; (lanes, cells). heat [W] of the whole face."""

    capacity: Floats
    temperature: Floats
    conductance: Floats
    air_out: Floats
    heat: float


class _Out:
    """Room for the states of m points."""

    def __init__(self, one: Meeting, count: int) -> None:
        self.states, self.flux = np.empty((count, len(OWN))), np.empty((count, one.classes))
        self.coolers, self.fluids = np.empty((count, 4, one.coolers.count)), np.empty((count, len(FLUIDS)))

    def parts(self) -> tuple[Floats, Floats, Floats, Floats]:
        """The arrays that are written."""
        return self.states, self.flux, self.coolers, self.fluids

    def state(self) -> State:
        """What was written, by name."""
        coolers, fluids = self.coolers, dict(zip(FLUIDS, self.fluids.T, strict=True))
        exchanged = Exchanged(coolers[:, 0], coolers[:, 1], coolers[:, 2], coolers[:, 3], **fluids)
        return State(exchanged=exchanged, flux=self.flux, **dict(zip(OWN, self.states.T, strict=True)))


FLUIDS = Exchanged._fields[4:]
OWN = tuple(name for name in State._fields if name not in ("exchanged", "flux"))


@by_identity(4)
def meeting_of(points: Points, fixed: Fixed, layout: Layout) -> Meeting:
    """The points as typed modules work on them, one at a time. It has scratch room: one thread at a time."""
    return Meeting(*joined_rows(points, fixed, layout))


def joined_rows(
    points: Points, fixed: Fixed, layout: Layout
) -> tuple[CarRows, PlantRows, PreparedRows, CarCoolers, FaceMarch]:
    """What the joint is made of, for points one at a time: car, plant, what was prepared, coolers and face."""
    plant, command = points.plant, points.situation.command
    car = car_rows(points, fixed.surfaces, fixed.surface, fixed.air, fixed.outdoor_density)
    rest = PlantRows()
    rest.coolant, rest.circuit = bound(CoolantRows, plant.coolant), bound(CircuitRows, plant.circuit)
    rest.sensing, rest.law = bound(SensingRows, command.sensing), ControlRows()
    for name in ("temperatures", "shares", "powers", "least", "least_power"):
        setattr(rest.law, name, getattr(command.law, name))
    prepared = PreparedRows()
    prepared.running, prepared.stopped = _air_rows(fixed.running), _air_rows(fixed.stopped)
    prepared.openings, prepared.engine, prepared.core = OPENINGS, fixed.loop.engine, fixed.loop.core
    prepared.steepness = STEEPNESS
    prepared.tubes = bound(TubeRows, fixed.loop_was.tubes)
    face = FaceMarch(_face_rows(plant.face), layout.passes, layout.rows)
    return car, rest, prepared, car_coolers(plant.coolers), face


def _face_rows(face: Face) -> FaceRows:
    made = FaceRows()
    # What all points share is turned into what C reads once, not once for each.
    made.alike = face.kinds.strides[0] == 0 or len(face.kinds) == 1
    which = face.which[:1].astype(np.intc) if made.alike else face.which.astype(np.intc)
    strides = (0 if made.alike else which.strides[0], *which.strides[1:])
    made.which = np.lib.stride_tricks.as_strided(which, face.which.shape, strides)
    made.kinds, made.weight = face.kinds, face.weight
    return made


def _air_rows(air: AirAt) -> AirRows:
    made, flows, heat = AirRows(), FlowRows(), HeatRows()
    flows.grille, flows.exit, flows.back, flows.core = air.flows.grille, air.flows.exit, air.flows.back, air.flows.core
    heat.gearbox, heat.oil, heat.coolant = air.heat.gearbox, air.heat.oil, air.heat.coolant
    heat.charge, heat.charge_flow = air.heat.charge, air.heat.charge_flow
    breath = BreathRows()
    breath.front_temperature, breath.bay_temperature = air.breath.front_temperature, air.breath.bay_temperature
    made.flows, made.breath, made.heat, made.into_coolant = flows, breath, heat, air.into_coolant
    return made


def evaluate(points: Points, fixed: Fixed, temperature: Floats, layout: Layout, held: Held | None = None) -> State:
    """Rejection and heat in at an engine-outlet temperature (m,) [degC].

    Between the fans' off and on temperatures the mean flow over their on and off times is used.
    layout : shared by all points;  held : which of the points are looked at and how, all as they are where None
    Source: KAYS_LONDON marching with the correlations of its parts.
    """
    held = held or looked_at(np.arange(len(points.plant.limit)))
    one = meeting_of(points, fixed, layout)
    out = _Out(one, len(held.rows))
    rows, how = held.matrices()
    evaluate_points(one, rows, temperature, how, *out.parts())
    return out.state()


def face_heat(points: Points, fixed: Fixed, layout: Layout, temperature: float, held: Held) -> Met:
    """What every cell of the one point of `held` meets and gives at an engine-outlet temperature [degC], for maps of
    its face.

    Temperatures [degC], heat [W].
    """
    one = meeting_of(points, fixed, layout)
    cells = one.face.lanes, one.face.cells
    meets, gives, leaves = np.empty((2, *cells)), np.empty(cells), np.empty(cells)
    face_at(one, int(held.rows[0]), temperature, held.matrices()[1][0], meets, gives, leaves)
    return Met(meets[0], meets[1], gives, leaves, one.face.heat)


def mean(share: Floats, off: Floats, on: Floats) -> Floats:
    """A mean over the fans' off and on times, like shapes. Source: mean over times."""
    return off + share * (on - off)


def solve(
    points: Points,
    layout: Layout,
    fixed: Fixed | None = None,
    start: tuple[Floats, Floats] | None = None,
    held: Held | None = None,
) -> Solution:
    """Engine-outlet temperature (m,) at which rejection equals heat in.

    Rejection less heat in rises with temperature, so a bracketed secant cannot miss it. Where even CEILING
    is not enough, `settles` is False and the state is the one at the ceiling.
    fixed, start : what `prepare` gave, and temperatures and slopes (m,) of like points to begin at, where at hand
    held : which of the points are looked at and how, all as they are where None
    Raises SolveError when a bracketed point does not converge.
    Source: bracketed secant on the heat balance.
    """
    fixed = fixed or prepare(points, layout)
    held = held or looked_at(np.arange(len(points.plant.limit)))
    one, count = meeting_of(points, fixed, layout), len(held.rows)
    out, ends = _Out(one, count), np.empty((count, 4))
    starts = np.full((count, 2), AS_COMMANDED) if start is None else np.stack(start, axis=1)
    rows, told = held.matrices()
    settle_points(one, rows, starts, told, *out.parts(), ends)
    how, slope, steps, left = ends.T
    if (how == LOST).any():
        raise SolveError(
            "heat_not_converged",
            f"No steady temperature found after {STEPS} steps",
            residual=float(left[how == LOST].max()),
        )
    return Solution(out.state(), fixed, how != STUCK, slope, int(steps.max()), float(left.max()))


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
