"""The air over the face, cell by cell: speed, air temperature and heat per area of one duty case at any road speed."""

from __future__ import annotations

from typing import Literal, NamedTuple

import numpy as np

from keelroom.assess.drives.driven import Prepared
from keelroom.assess.figures.airfigures import Origins, zone_origins
from keelroom.assess.figures.batch import Asked, answers, row_for
from keelroom.assess.inputs.airside import AirSide, air_side
from keelroom.assess.inputs.cases import STANDS
from keelroom.assess.inputs.translate import stacked
from keelroom.core.air.face import GRID, lane_of_rows
from keelroom.core.air.fan import fan_pressure
from keelroom.core.answer import Answer, steady_answer
from keelroom.core.arrays import Floats
from keelroom.core.drive import places
from keelroom.core.drive.records import Run, Stands, told
from keelroom.core.electrical.motor import motor_speed
from keelroom.core.kept import in_one_go
from keelroom.core.operating_point import Held, face_heat, looked_at
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import from_si
from keelroom.document.schema.build import Build

Quantity = Literal["speed", "air", "heat"]


class AirMap(NamedTuple):
    """Figures over the face, arrays of GRID with row 0 at the top; nan where the panel hides the cell.

    speed [m/s] of the air into the face (below 0: it runs backwards);  air [degC] behind the core;  heat [W/m2]
    origins : per fan, where its air comes from;  temperature [degC] the engine settles at;  road_speed [m/s]
    """

    speed: Floats
    air: Floats
    heat: Floats
    origins: tuple[Origins, ...]
    temperature: float
    settles: bool
    road_speed: float

    def of(self, what: Quantity) -> Floats:
        values: Floats = {"speed": self.speed, "air": self.air, "heat": self.heat}[what]
        return values


def at_speed(build: Build, case_id: str, speed: float) -> Build:
    """The build with a duty case moved to another road speed [m/s]; an idling case becomes a road load once it
    moves."""
    place = ("duty_cases", case_id)
    case = build.duty_case(case_id)
    changes = [Change((*place, "speed"), from_si(speed, "speed", "si", "derived"))]
    if case.demand == "idle" and speed >= STANDS:
        changes.append(Change((*place, "demand"), "road_load"))
    elif case.demand == "road_load" and speed < STANDS:
        changes.append(Change((*place, "demand"), "idle"))
    return apply(build, Edit("", tuple(changes)))


@in_one_go
def air_map(build: Build, case_id: str, speed: float | None = None) -> AirMap | None:
    """The map of one duty case with the fans running, at its own road speed or another [m/s]; None where something is
    missing."""
    moved = build if speed is None else at_speed(build, case_id, speed)
    row = row_for(Asked(moved, case_id))
    if row is None:
        return None
    points, doubt = stacked([row])
    answer = steady_answer(points, doubt, row.layout)
    side = air_side(moved, moved.package)
    fixed, temperature = answer.solution.fixed, float(answer.solution.state.temperature[0])
    running = fixed.running
    laid = _laid(
        Stands(points, fixed, row.layout),
        side,
        (running.flows.core[0], float(running.breath.ahead[0])),
        (temperature, looked_at(np.arange(1))),
    )
    origins = zone_origins(side, answer, 0)
    return AirMap(
        *laid,
        origins=tuple(origins[node - 2] for node in side.fan_zone),
        temperature=float(answer.temperature[0]),
        settles=bool(answer.settled[0]),
        road_speed=float(points.situation.air_speed[0]),
    )


LAGS_BY = 15.0
"""[K] the coolant may be off what a thermostat that does not lag would make of it."""
HALVINGS = 16
"""steps to that coolant: to 0.5 mK"""


@in_one_go
def air_in_drive(made: Prepared, run: Run, at: float) -> AirMap:
    """The map `at` a moment [s] of a drive: the air the drive goes by, between that of fans stopped and running, and
    the coolant with which the face gives what the core gave then."""
    found = made.situations
    temperature, share = (float(np.interp(at, run.time, run.of(line))) for line in (places.HOT, places.FANS))
    gives = float(np.interp(at, run.time, told(run, "core_heat")))
    place = min(int(np.searchsorted(found.legs.until, at)), len(found.row) - 1)
    row, stands = int(found.row[place]), found.stands
    stopped, running = stands.fixed.stopped, stands.fixed.running
    share = min(max(share, 0.0), 1.0)
    flow = stopped.flows.core[row] + share * (running.flows.core[row] - stopped.flows.core[row])
    ahead = stopped.breath.ahead[row] + share * (running.breath.ahead[row] - stopped.breath.ahead[row])
    held = looked_at(np.array([row]), share, share)

    # The thermostat lags in a drive, at a steady point it does not: a coolant that opens it as far gives as much.
    low, high = temperature - LAGS_BY, temperature + LAGS_BY
    for _ in range(HALVINGS):
        as_warm = (low + high) / 2
        much = face_heat(stands.points, stands.fixed, stands.layout, as_warm, held).heat > gives
        low, high = (low, as_warm) if much else (as_warm, high)
    laid = _laid(stands, air_side(made.build, made.package), (flow, float(ahead)), (as_warm, held))
    return AirMap(*laid, (), temperature, True, float(stands.points.situation.air_speed[row]))


def _laid(
    stands: Stands, side: AirSide, air: tuple[Floats, float], held: tuple[float, Held]
) -> tuple[Floats, Floats, Floats]:
    """Speed [m/s], air behind [degC] and heat [W/m2] over the face.

    air : flow per class of the face [kg/s] and density ahead of it [kg/m3];  held : temperature [degC] out of the
    engine, and the one point that is looked at
    """
    points, fixed, layout = stands
    met = face_heat(points, fixed, layout, *held)
    row = int(held[1].rows[0])
    order = lane_of_rows(side.classes.mix, layout.crossflow, layout.passes)
    cell_area = float(fixed.surfaces.face_area[row]) / (GRID[0] * GRID[1])
    flux = air[0] / np.maximum(points.plant.network.area[row], 1e-9)
    speeds = side.classes.mix @ (flux[: side.classes.mix.shape[2]] / air[1])

    def on_face(lanes: Floats) -> Floats:
        laid: Floats = lanes[order]
        return laid if layout.crossflow else laid.T

    per_lane = met.capacity * (met.air_out - met.temperature)
    shares = points.plant.face.weight[row] * len(order)
    heat = on_face(per_lane / np.maximum(shares, 1e-9)[:, None]) / cell_area
    hidden = side.classes.mix.sum(axis=2) < 0.02
    speed, behind, given = (np.where(hidden, np.nan, one) for one in (speeds, on_face(met.air_out), heat))
    return speed, behind, given


class WorkingPoint(NamedTuple):
    """Where a fan works: flow [m3/s] at its own density and pressure rise [Pa]."""

    label: str
    flow: float
    pressure: float


class FanChart(NamedTuple):
    """Curves of the first running fan: at the system's voltage and at other voltages, what the rest asks of it,
    working points."""

    title: str
    curves: tuple[tuple[str, tuple[float, ...], tuple[float, ...]], ...]
    system: tuple[tuple[float, ...], tuple[float, ...]]
    points: tuple[WorkingPoint, ...]


VOLTAGES = (10.0, 12.0, 14.0)


@in_one_go
def fan_chart(build: Build, case_id: str) -> FanChart | None:
    """The fan curve with the system's curve and the working point per duty case and per voltage; None where there is
    no fan."""
    package = build.package
    running = [k for k, fan in enumerate(package.fans[:4]) if fan.runs]
    rows = [(case, row_for(Asked(build, case.id))) for case in build.duty_cases]
    ready = [(case, row) for case, row in rows if row is not None]
    if not running or not ready:
        return None
    k = running[0]
    points, doubt = stacked([row for _, row in ready])
    answer = steady_answer(points, doubt, ready[0][1].layout)
    chosen = next((i for i, (case, _) in enumerate(ready) if case.id == case_id), 0)
    density = answer.solution.fixed.running.breath.behind[chosen]
    fans = points.plant.fans
    top = float(fans.curve.flow[chosen, k]) * 1.15
    flows = np.linspace(0.0, top, 40)

    def curve(speed: float) -> tuple[float, ...]:
        many = type(fans.curve)(*(np.repeat(v[chosen : chosen + 1, k : k + 1], 40, axis=0) for v in fans.curve))
        rise, _ = fan_pressure(many, flows[:, None], np.full((40, 1), speed), np.full((40, 1), density))
        return tuple(float(v) for v in rise[:, 0])

    rated = float(fans.rated_voltage[chosen, k])
    brushless = bool(fans.brushless[chosen, k] > 0)
    curves = [
        (
            f"{v:.0f} V",
            tuple(flows),
            curve(float(motor_speed(np.array(v), np.array(rated), np.array(float(brushless))))),
        )
        for v in VOLTAGES
    ]
    place = k, air_side(build, package).fan_zone[k], package.fans[k].mount == "pusher"
    found = [_working(answer, i, place, case.name) for i, (case, _) in enumerate(ready)]
    at_volts = _at_volts(build, case_id, place)
    system = sorted((p.flow, p.pressure) for p in at_volts)
    return FanChart(
        title=f"{package.fans[k].name or 'Fan 1'}",
        curves=tuple(curves),
        system=(tuple(f for f, _ in system), tuple(p for _, p in system)),
        points=(*found, *at_volts),
    )


def _working(answer: Answer, i: int, place: tuple[int, int, bool], label: str) -> WorkingPoint:
    """Flow and rise of a fan at point i; place: its index, the node of its zone, whether it pushes."""
    k, node, pushes = place
    running = answer.solution.fixed.running
    pressures = running.flows.pressures[i]
    rise = float(pressures[node] - pressures[0]) if pushes else float(pressures[1] - pressures[node])
    density = float((running.breath.ahead if pushes else running.breath.behind)[i])
    return WorkingPoint(label, float(running.flows.fans[i, k]) / density, rise)


def _at_volts(build: Build, case_id: str, place: tuple[int, int, bool]) -> list[WorkingPoint]:
    """The same duty case with the whole system at each of VOLTAGES."""

    def moved(volts: float) -> Build:
        value = from_si(volts, "voltage", "si", "derived")
        return apply(
            build,
            Edit("", tuple(Change(("brief", "accessories", name), value) for name in ("idle_voltage", "road_voltage"))),
        )

    found = answers([row_for(Asked(moved(volts), case_id)) for volts in VOLTAGES])
    return [
        _working(*pair, place, f"{volts:.0f} V")
        for volts, pair in zip(VOLTAGES, found, strict=True)
        if pair is not None
    ]
