"""Trials drawn: what should be read with its band, and what was; what readings made of what was doubtful."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.assess.inputs.learnt import FACTORS
from keelroom.assess.trials.calibrate import Calibrated
from keelroom.assess.trials.expected import Foretold
from keelroom.assess.trials.tried import TEMPERATURES, sensor_of, value_of
from keelroom.assess.trials.words import NAMES
from keelroom.core.arrays import Floats
from keelroom.core.trials.fit import WITHIN
from keelroom.core.trials.traverse import places
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import Log, Sensor, Trial
from keelroom.drawing.degrees import Lane, Post, Spot, degrees_scene
from keelroom.drawing.scene import MM, Circle, Label, Polyline, Rect, Scene, on_sheet
from keelroom.drawing.strips import TALL, Line, Strip, foretold_scene, swept
from keelroom.units import KINDS, Unit

SHOWN = 4
"""Strips drawn of a trial: what was read first."""
PERCENT = Unit("%", 0.01, decimals=0)


class Kind(NamedTuple):
    """How a place is shown: the kind of its figures, and how tall its strip is [mm]."""

    kind: str
    tall: float


HALF = 80.0
"""[mm] of a strip that is not the first"""
KINDS_OF = {"air": Kind("airflow", HALF), "volts": Kind("voltage", HALF), "battery": Kind("current", HALF)}


def trial_scene(build: Build, trial: Trial, found: Foretold, system: str) -> Scene:
    """One strip for each sensor, those with readings first; single readings as dots."""
    time = found.driven.run.time
    read = {one.sensor for one in trial.readings} | {one.sensor for one in trial.logs}
    sensors = [one.sensor for one in found.expects]
    order = [*(one for one in sensors if one.id in read), *(one for one in sensors if one.id not in read)]
    thermostat, limit = found.driven.thermostat, found.driven.limit
    strips: list[Strip] = []
    for sensor in order[:SHOWN]:
        _, value, low, high = found.lines[sensor.id]
        warm = sensor.place in TEMPERATURES
        kind = KINDS_OF.get(sensor.place, Kind("temperature", TALL if not strips else HALF))
        strips.append(
            Strip(
                sensor.name or sensor.id,
                (Line("foretold", value, "strip.cool"), *_logs(build, trial, sensor, time)),
                KINDS[kind.kind].shown_unit(system),
                kind.tall,
                swept(time, (low, high), found.driven.says.fans.per_hour),
                ((thermostat, "thermostat", "rail.thermostat"), (limit, "limit", "rail.limit"))
                if warm and not strips
                else (),
                15.0 if warm else 0.02 if sensor.place == "air" else 1.0,
                dots=_dots(build, trial, sensor),
            )
        )
    return foretold_scene(tuple(strips), time, float(time[-1]))


def _logs(build: Build, trial: Trial, sensor: Sensor, time: Floats) -> tuple[Line, ...]:
    """Logs with a sensor, at the run's own moments."""
    lines = []
    for log in trial.logs:
        if log.sensor != sensor.id or len(log.seconds) < 2:
            continue
        seconds, values = np.array(log.seconds), np.array(log.values)
        inside = (time >= seconds[0]) & (time <= seconds[-1])
        seen = np.where(inside, np.interp(time, seconds, values), np.nan)
        if np.isfinite(seen).any():
            lines.append(Line("read", seen, "strip.main"))
    return tuple(lines)


def _dots(build: Build, trial: Trial, sensor: Sensor) -> tuple[tuple[float, float, str], ...]:
    found = []
    for reading in trial.readings:
        value = value_of(reading)
        if reading.sensor == sensor.id and value is not None:
            found.append((reading.at.si, value, "el.mark"))
    return tuple(found)


def learnt_scene(found: Calibrated) -> Scene:
    """Every factor before and after: how many per cent of what is entered, 80 of 100 between the ends of its bar."""
    fit = found.fit
    lanes = []
    for name in FACTORS:
        k = found.place(name)
        if k is None:
            continue
        at, left, was = (float(part[k]) for part in (fit.at, fit.doubts, fit.prior))
        now = _spot(at, left, "now")
        before = f"before 100 ± {100 * WITHIN * was:.0f} %"
        lanes.append(Lane(NAMES[name], (Spot(1.0, "was"), now), f"± {100 * WITHIN * left:.0f} %, {before}"))
    return degrees_scene(
        tuple(lanes), (Post(1.0, "as entered", "rail.thermostat"),), (("now", "fitted"), ("was", "as entered")), PERCENT
    )


def _spot(at: float, doubt: float, sort: str) -> Spot:
    return Spot(math.exp(at), sort, math.exp(at - WITHIN * doubt), math.exp(at + WITHIN * doubt))


def traverse_scene(width: float, height: float) -> Scene:
    """Where a vane is held over a face [m], in the order it is walked."""
    scale = min(380.0 / width, 300.0 / height)
    wide, high = width * scale, height * scale
    shapes = [Rect("strip.field", 0.0, -high * MM, wide * MM, high * MM)]
    points = places(width, height)
    for n, (x, y) in enumerate(points, 1):
        at = on_sheet(x * scale, -high + y * scale)
        shapes.append(Circle("loop.plain", at, 9 * MM))  # type: ignore[arg-type]
        shapes.append(Label("el.words", at, str(n)))  # type: ignore[arg-type]
    shapes.append(Polyline("el.mark", tuple(on_sheet(x * scale, -high + y * scale) for x, y in points)))  # type: ignore[arg-type]
    return Scene(tuple(shapes), (-14 * MM, (-high - 14) * MM, (wide + 28) * MM, (high + 28) * MM))


def logs_scene(build: Build, logs: tuple[Log, ...], system: str) -> Scene:
    """Lines of readings under one another on one axis of time."""
    ends = max(float(log.seconds[-1]) for log in logs)
    time = np.linspace(0.0, max(ends, 1.0), 600)
    strips = []
    for log in logs[:SHOWN]:
        sensor = sensor_of(build, log.sensor)
        kind = KINDS_OF.get(sensor.place, Kind("temperature", TALL)) if sensor else Kind("temperature", TALL)
        seconds, values = np.array(log.seconds), np.array(log.values)
        seen = np.where((time >= seconds[0]) & (time <= seconds[-1]), np.interp(time, seconds, values), np.nan)
        if not np.isfinite(seen).any():
            seen[0] = values[0]
        name = (sensor.name or sensor.id) if sensor else log.source
        unit = KINDS[kind.kind].shown_unit(system)
        strips.append(Strip(name, (Line("", seen, "strip.main"),), unit, kind.tall, least=1.0))
    return foretold_scene(tuple(strips), time, float(time[-1]))
