"""The air over the face, cell by cell: speed, air temperature and heat per area of one duty case at any road speed."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.assess.drives.face import AirMap, laid_out
from keelroom.assess.figures.airfigures import zone_origins
from keelroom.assess.figures.batch import Asked, answers, row_for
from keelroom.assess.inputs.airside import air_side
from keelroom.assess.inputs.cases import STANDS
from keelroom.assess.inputs.translate import stacked
from keelroom.core.air.fan import fan_pressure
from keelroom.core.answer import Answer, steady_answer
from keelroom.core.drive.records import Stands
from keelroom.core.electrical.motor import motor_speed
from keelroom.core.kept import in_one_go
from keelroom.core.operating_point import looked_at
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import from_si
from keelroom.document.schema.build import Build


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
    laid = laid_out(
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
