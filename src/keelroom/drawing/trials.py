"""Trials drawn: what should be read with its band, and what was; what readings made of what was doubtful."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import NamedTuple

import numpy as np

from keelroom.assess.inputs.learnt import FACTORS
from keelroom.assess.trials.calibrate import Calibrated
from keelroom.assess.trials.expected import Foretold
from keelroom.assess.trials.tried import TEMPERATURES, sensor_of, value_of
from keelroom.assess.trials.words import NAMES
from keelroom.core.answer import WITHIN
from keelroom.core.arrays import Floats
from keelroom.core.trials.traverse import places
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import Log, Sensor, Trial
from keelroom.drawing.degrees import Lane, Post, Spot, degrees_scene
from keelroom.drawing.scene import MM, Circle, Label, Polyline, Rect, Scene, Shape, on_sheet
from keelroom.drawing.strips import TALL, Line, Strip, foretold_scene, swept
from keelroom.units import KINDS, Unit

RING = 9.0
"""[mm] of a mark on the drawing"""
TENTHS = 0.5
"""[m/s] of a unit from which a speed is told to a tenth"""
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


def trial_scene(trial: Trial, found: Foretold, system: str, before: Trial | None = None) -> Scene:
    """One strip for each sensor, those with readings first; single readings as dots; the trial before it, where one is
    given, as it was read."""
    time = found.driven.run.time
    read = {one.sensor for one in trial.readings} | {one.sensor for one in trial.logs}
    sensors = [one.sensor for one in found.expects]
    order = [*(one for one in sensors if one.id in read), *(one for one in sensors if one.id not in read)]
    thermostat, limit = found.driven.thermostat, found.driven.limit
    strips: list[Strip] = []
    for sensor in [one for one in order if one.id in found.lines][:SHOWN]:
        _, value, low, high = found.lines[sensor.id]
        warm = sensor.place in TEMPERATURES
        kind = KINDS_OF.get(sensor.place, Kind("temperature", TALL if not strips else HALF))
        strips.append(
            Strip(
                sensor.name or sensor.id,
                (
                    *(_logs(before, sensor, time, ("before", "ghost")) if before else ()),
                    Line("foretold", value, "strip.cool"),
                    *_logs(trial, sensor, time, ("read", "strip.main")),
                ),
                KINDS[kind.kind].shown_unit(system),
                kind.tall,
                swept(time, (low, high), found.driven.says.fans.per_hour),
                ((thermostat, "thermostat", "rail.thermostat"), (limit, "limit", "rail.limit"))
                if warm and not strips
                else (),
                15.0 if warm else 0.02 if sensor.place == "air" else 1.0,
                dots=_dots(trial, sensor),
            )
        )
    return foretold_scene(tuple(strips), time, float(time[-1]))


def _logs(trial: Trial, sensor: Sensor, time: Floats, how: tuple[str, str]) -> tuple[Line, ...]:
    """Logs with a sensor, at the run's own moments; how: their name and role."""
    lines = []
    for log in trial.logs:
        if log.sensor != sensor.id or len(log.seconds) < 2:
            continue
        seen = _seen(log, time)
        if np.isfinite(seen).any():
            lines.append(Line(how[0], seen, how[1]))
    return tuple(lines)


def _seen(log: Log, time: Floats) -> Floats:
    """A log at other moments (m,) [s]; none where it was not written."""
    inside = (time >= log.seconds[0]) & (time <= log.seconds[-1])
    found: Floats = np.where(inside, np.interp(time, log.seconds, log.values), np.nan)
    return found


def _dots(trial: Trial, sensor: Sensor) -> tuple[tuple[float, float, str], ...]:
    found = []
    for reading in trial.readings:
        value = value_of(reading)
        if reading.sensor == sensor.id and value is not None:
            found.append((reading.at.si, value, "el.mark"))
    return tuple(found)


def learnt_scene(found: Calibrated) -> Scene:
    """Every factor before and after: how many per cent of what is entered, 80 of 100 between the ends of its bar; under
    them how far each reading lies off what was fitted, those left out hollow."""
    fit = found.fit
    lanes = []
    for name in FACTORS:
        k = found.place(name)
        if k is None:
            continue
        at, left, was = (float(part[k]) for part in (fit.at, fit.doubts, fit.prior))
        now = _spot(at, left, "now")
        before = f"before ± {100 * WITHIN * was:.0f} %"
        lanes.append(Lane(NAMES[name], (Spot(1.0, "was"), now), f"± {100 * WITHIN * left:.0f} %, {before}"))
    upper = degrees_scene(
        tuple(lanes), (Post(1.0, "as entered", "rail.thermostat"),), (("now", "fitted"), ("was", "as entered")), PERCENT
    )
    left, bottom, wide, high = upper.bounds
    shapes, deep = _residuals(found, bottom / MM - 18)
    return Scene((*upper.shapes, *shapes), (left, bottom - deep * MM, wide, high + deep * MM))


FARTHEST, ROW, MIDDLE = 5.0, 32.0, 220.0
"""Standard doubts drawn either way, [mm] a trial takes, and where nought stands"""


def _residuals(found: Calibrated, top: float) -> tuple[list[Shape], float]:
    """Readings less what was fitted, in standard doubts, a line a trial, each reading by its minute from top to foot;
    and how deep they go [mm]."""
    fit, shapes = found.fit, list[Shape]()
    shapes.append(Label("rail.name", on_sheet(14, top + 14), "Readings off the fit, in their doubts", "start"))
    foot = top - 16 - ROW * len(found.replayed)
    for value in range(-4, 5, 2):
        x = MIDDLE + 42 * value
        shapes.append(Polyline("rail", (on_sheet(x, top - 6), on_sheet(x, foot))))
        shapes.append(Label("el.words", on_sheet(x, top), f"{value:+d}".replace("-", "−") if value else "0"))
    for n, one in enumerate(found.replayed):
        y = top - 24 - ROW * n
        shapes.append(Label("el.words", on_sheet(14, y), one.trial.name[:34] or one.trial.id, "start"))
        ends = max([point.at for point in one.points] or [1.0])
        for k, point in enumerate(one.points):
            off = max(min(float(fit.off[one.first + k]), FARTHEST), -FARTHEST)
            role = "span.held" if fit.kept[one.first + k] else "loop.plain"
            shapes.append(Circle(role, on_sheet(MIDDLE + 42 * off, y - 9 - 15 * point.at / max(ends, 1.0)), 3 * MM))
    return shapes, top - foot + 32


def _spot(at: float, doubt: float, sort: str) -> Spot:
    return Spot(math.exp(at), sort, math.exp(at - WITHIN * doubt), math.exp(at + WITHIN * doubt))


def traverse_scene(
    width: float, height: float, speeds: tuple[float, ...] = (), system: str = "us", now: int = 0
) -> Scene:
    """Where a vane is held over a face [m], in the order it is walked, with what it should read there [m/s] and the
    mark it is held at now."""
    scale = min(380.0 / width, 300.0 / height)
    wide, high = width * scale, height * scale
    shapes: list[Shape] = [Rect("strip.field", 0.0, -high * MM, wide * MM, high * MM)]
    points = places(width, height)
    walked = [on_sheet(x * scale, -high + y * scale) for x, y in points]
    unit = KINDS["air speed"].shown_unit(system)
    for n, at in enumerate(walked, 1):
        shapes += [Circle("loop.plain", at, RING * MM), Label("el.words", at, str(n))]
        if n == now:
            shapes.append(Circle("el.mark", at, 1.5 * RING * MM))
        if n <= len(speeds):
            words = f"{speeds[n - 1] / unit.factor:.{0 if unit.factor < TENTHS else 1}f}"
            off = 2 * RING if points[n - 1][1] < height / 2 else -2 * RING  # towards the middle, off the frame
            shapes.append(Label("el.words", (at[0], at[1] + off * MM), words))
    for (x, y), (to, beside) in pairwise(walked):
        if y == beside:  # along a line; to the next one the hand finds by itself
            shapes.append(Polyline("el.mark", ((x + 1.7 * RING * MM, y), (to - 1.7 * RING * MM, y))))
    return Scene(tuple(shapes), (-14 * MM, (-high - 14) * MM, (wide + 28) * MM, (high + 28) * MM))


def logs_scene(build: Build, logs: tuple[Log, ...], system: str) -> Scene:
    """Lines of readings under one another on one axis of time."""
    ends = max(float(log.seconds[-1]) for log in logs)
    time = np.linspace(0.0, max(ends, 1.0), 600)
    strips = []
    for log in logs[:SHOWN]:
        sensor = sensor_of(build, log.sensor)
        kind = KINDS_OF.get(sensor.place, Kind("temperature", TALL)) if sensor else Kind("temperature", TALL)
        seen = _seen(log, time)
        if not np.isfinite(seen).any():
            seen[0] = log.values[0]
        name = (sensor.name or sensor.id) if sensor else log.source
        unit = KINDS[kind.kind].shown_unit(system)
        strips.append(Strip(name, (Line("", seen, "strip.main"),), unit, kind.tall, least=1.0))
    return foretold_scene(tuple(strips), time, float(time[-1]))
