"""A trial as a drive of the package it was made with, and what its readings are in plain numbers."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

import numpy as np

from keelroom.assess.drives.driven import Prepared, prepared
from keelroom.assess.inputs.learnt import package_kept
from keelroom.core.arrays import Floats
from keelroom.core.drive import places
from keelroom.core.drive.records import Run, told
from keelroom.core.trials.steady import lagged
from keelroom.document.schema.build import Build
from keelroom.document.schema.drive import Schedule
from keelroom.document.schema.package import Package
from keelroom.document.schema.trials import Calibration, Log, ReadAt, Reading, Sensor, Trial
from keelroom.errors import InputError

TEMPERATURES: tuple[ReadAt, ...] = ("gauge", "outlet", "inlet", "oil", "gearbox")
FOLLOWED: tuple[ReadAt, ...] = (*TEMPERATURES, "volts", "battery", "air")
"""Places a drive has a line over time for: what readings there tell is learnt from."""
FIGURES: dict[ReadAt, str] = {
    "air": "airflow",
    "volts": "voltage",
    "battery": "current",
    "motor": "voltage",
    "running": "current",
    "start": "current",
    "held": "pressure",
    "sound": "level",
    "mark": "wind",
}
"""The field of a reading a place's figure stands in; temperatures elsewhere."""
SPAN, SWINGS = 150.0, 500.0
"""[s] a log is taken in means over, and one that swings with its fans: no model knows the moment of a swing, and over
three of them it matters little."""
MOST = 40
"""Means taken of one log."""
PHASE = 0.2
"""Share of how far a line swings that is in doubt of its mean over a span, for want of its moment."""
AROUND = 240.0
"""[s] round a single reading over which it is looked whether the line swings."""
INSIDE = 25
SWINGING = 1.4
"""Times its scatter from which a line is said to swing."""
"""Places a mean over a span is taken from."""
LEAST_AIR, LEAST_VOLTS, LEAST_AMPS = 0.01, 0.02, 0.5
"""Standard doubts an air, volt and amp reading has at least [m3/s, V, A]."""


class Point(NamedTuple):
    """One reading. at [s], in the mean over `span` [s] round it, 0 at that moment;  value, doubt : [degC], [V], [A] or
    [m3/s], standard, beside what its sensor's zero is off;  standing: with the fans standing"""

    sensor: Sensor
    at: float
    value: float
    doubt: float
    span: float = 0.0
    standing: bool = False


def package_of(build: Build, trial: Trial) -> Package:
    """The package a trial was made with: as it was that day where that was kept, else the one in use."""
    return package_kept(trial.package) or build.package


def trial_before(build: Build, trial: Trial) -> Trial | None:
    """The trial before this one by the same protocol, to hold it against; None where there is none."""
    there = build.logbook.trials
    place = there.index(trial) if trial in there else 0
    alike = [one for one in there[:place] if one.protocol == trial.protocol]
    return alike[-1] if alike else None


def sensor_of(build: Build, ident: str) -> Sensor | None:
    """A sensor by its id."""
    return next((one for one in build.logbook.sensors if one.id == ident), None)


def as_tried(build: Build, trial: Trial) -> tuple[Build, Package]:
    """The build with the package as it was that day in use, and that package."""
    package = package_of(build, trial)
    others = tuple(one for one in build.packages if one.id != package.id)
    return build.model_copy(update={"packages": (package, *others), "active": package.id}), package


def schedule_of(trial: Trial) -> Schedule:
    """What was driven, on the trial's own day."""
    legs = tuple(leg if leg.ambient else leg.model_copy(update={"ambient": trial.ambient}) for leg in trial.legs)
    return Schedule(id=trial.id, name=trial.name, begins=trial.begins, legs=legs)


def held_to_be_whole(trial: Trial) -> None:
    """Raises InputError where its day is not known, or what was driven."""
    where = ("logbook", "trials", trial.id)
    if trial.ambient is None and not all(leg.ambient for leg in trial.legs):
        why = f"“{trial.name}” names no day: how warm it was, in the shade. Nothing can be held against it without"
        raise InputError("trial_without_day", why, path=(*where, "ambient"))
    if not trial.legs:
        raise InputError("trial_without_legs", f"“{trial.name}” says nothing of what was driven", path=where)


def made_of(build: Build, trial: Trial) -> Prepared:
    """A trial ready to be driven, with nothing learnt from any.

    Raises InputError where something of it is missing; KeelRoomError where it cannot be driven.
    """
    held_to_be_whole(trial)
    plain, package = as_tried(build.model_copy(update={"calibration": Calibration()}), trial)
    return prepared(plain, package, schedule_of(trial))


def line_of(build: Build, trial: Trial, place: ReadAt | None = None) -> tuple[Sensor, Floats, Floats] | None:
    """The line of readings that says most of where its coolant stood, or of one place: its longest log there, else
    single readings in the order of their minutes; None where there is none. Seconds and figures (m,)."""
    wanted = (place,) if place else ("outlet", "gauge", "inlet")
    ends = trial.stopped.si if trial.stopped else math.inf
    for where in wanted:
        logs = [(log, sensor_of(build, log.sensor)) for log in trial.logs]
        there = [(log, sensor) for log, sensor in logs if sensor and sensor.place == where and len(log.seconds) > 1]
        if there:
            log, sensor = max(there, key=lambda one: one[0].seconds[-1] - one[0].seconds[0])
            assert sensor is not None
            seconds, values = np.array(log.seconds), np.array(log.values)
            early = seconds <= ends
            if early.any():
                return sensor, seconds[early], values[early]
        single = [point for point in points_of(build, trial) if point.sensor.place == where and point.span == 0]
        if single:
            single.sort(key=lambda point: point.at)
            first = single[0].sensor
            own = [point for point in single if point.sensor.id == first.id]
            return first, np.array([point.at for point in own]), np.array([point.value for point in own])
    return None


def points_of(build: Build, trial: Trial) -> Iterator[Point]:
    """Its readings where a drive has a line; those without a sensor or a figure are left out, and those from after it
    was stopped."""
    ends = trial.stopped.si if trial.stopped else float("inf")
    for reading in trial.readings:
        sensor, value = sensor_of(build, reading.sensor), value_of(reading)
        followed = sensor is not None and sensor.place in FOLLOWED
        if sensor is not None and followed and value is not None and reading.at.si <= ends:
            yield Point(sensor, reading.at.si, value, doubt_of(sensor, value), 0.0, reading.standing)
    for log in trial.logs:
        sensor = sensor_of(build, log.sensor)
        if sensor is not None and sensor.place in FOLLOWED and len(log.seconds) > 1:
            yield from _of_log(log, sensor, ends)


def figure_at(place: ReadAt) -> str:
    """The field of a reading a place's figure stands in."""
    return FIGURES.get(place, "temperature")


def value_of(reading: Reading) -> float | None:
    """Its figure, whichever kind it has."""
    there = (reading.temperature, *(getattr(reading, name) for name in sorted(set(FIGURES.values()))))
    return next((one.si for one in there if one is not None), None)


def doubt_of(sensor: Sensor, value: float) -> float:
    """Standard doubt of one reading beside what its zero is off."""
    if sensor.place in TEMPERATURES:
        return sensor.noise.si
    least = {"air": LEAST_AIR, "volts": LEAST_VOLTS}.get(sensor.place, LEAST_AMPS)
    return max(sensor.share.si * abs(value), least)


def _of_log(log: Log, sensor: Sensor, ends: float) -> Iterator[Point]:
    """Means over spans, where there is anything in them; what it scatters goes down with how many there are, what it
    swings does not."""
    seconds, values = np.array(log.seconds), np.array(log.values)
    begins, last = max(float(seconds[0]), 0.0), min(float(seconds[-1]), ends)
    step = max(SWINGS if _swings(seconds, values, sensor) else SPAN, (last - begins) / MOST)
    for k in range(max(int((last - begins) / step), 1)):
        inside = (seconds >= begins + k * step) & (seconds <= begins + (k + 1) * step)
        if not inside.any():
            continue
        there, own = seconds[inside], values[inside]
        value, each = float(own.mean()), doubt_of(sensor, float(own.mean()))
        swings = math.sqrt(max(float(own.var()) - each**2, 0.0)) if len(own) > 2 else 0.0
        doubt = math.hypot(each / math.sqrt(len(own)), PHASE * swings)
        yield Point(sensor, float(there.mean()), value, doubt, float(there[-1] - there[0]))


def _swings(seconds: Floats, values: Floats, sensor: Sensor) -> bool:
    """Whether a log of temperatures goes up and down by more than it scatters."""
    if sensor.place not in TEMPERATURES or len(seconds) < INSIDE:
        return False
    late = seconds >= seconds[0] + 0.3 * (seconds[-1] - seconds[0])
    trend = np.polyval(np.polyfit(seconds[late], values[late], 2), seconds[late])
    return float((values[late] - trend).std()) > SWINGING * sensor.noise.si


def shown(made: Prepared, run: Run, sensor: Sensor) -> Floats:
    """What a sensor shows over a run (m,): temperatures [degC], volts, amps.

    The gauge has the needle's lag already.
    """
    lines = {
        "gauge": run.gauge,
        "outlet": run.outlet,
        "inlet": told(run, "core_out"),
        "oil": run.of(places.OIL),
        "gearbox": run.of(places.GEARBOX),
        "volts": told(run, "volts"),
        "battery": told(run, "amps"),
    }
    if sensor.place == "air":
        return drawn_at(made, run.time, False)
    return lagged(run.time, lines[sensor.place], sensor.lag.si)


def drawn_at(made: Prepared, at: Floats, standing: bool) -> Floats:
    """[m3/s] of air (m,) at moments [s] as a vane behind the core reads it, warm and thin as it is there, the fans
    running or standing."""
    legs, fixed = made.situations.legs, made.situations.stands.fixed
    row = legs.row[np.minimum(np.searchsorted(legs.until, at), len(legs.until) - 1)]
    air = fixed.stopped if standing else fixed.running
    found: Floats = np.maximum(air.flows.core[row], 0.0).sum(axis=1) / air.breath.behind[row]
    return found


def read_by(made: Prepared, run: Run, points: list[Point]) -> Floats:
    """What a run would have the points (n,) read."""
    lines: dict[str, Floats] = {}
    found = []
    for point in points:
        if point.sensor.place == "air":
            found.append(float(drawn_at(made, np.array([point.at]), point.standing)[0]))
            continue
        if point.sensor.id not in lines:
            lines[point.sensor.id] = shown(made, run, point.sensor)
        line = lines[point.sensor.id]
        if point.span > 0:
            at = point.at + point.span * (np.arange(INSIDE) / (INSIDE - 1) - 0.5)
            found.append(float(np.interp(at, run.time, line).mean()))
        else:
            found.append(float(np.interp(point.at, run.time, line)))
    return np.array(found)


def with_swings(made: Prepared, run: Run, points: list[Point]) -> list[Point]:
    """Single readings with the doubt of where in a swing they were read, as the run swings."""
    found = []
    for point in points:
        if point.span == 0 and point.sensor.place in TEMPERATURES:
            line = shown(made, run, point.sensor)
            at = point.at + AROUND * (np.arange(INSIDE) / (INSIDE - 1) - 0.5)
            near = np.interp(at, run.time, line)
            trend = np.polyval(np.polyfit(at, near, 1), at)
            point = point._replace(doubt=math.hypot(point.doubt, float((near - trend).std())))  # noqa: PLW2901
        found.append(point)
    return found
