"""What a trial should read, before it is made, with the band of that; and what another reading would mean."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.assess.drives.driven import Driven, Prepared, doubtful_runs, prepared, run_of
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.trials.calibrate import priors
from keelroom.assess.trials.tried import (
    TEMPERATURES,
    Point,
    as_tried,
    doubt_of,
    held_to_be_whole,
    line_of,
    read_by,
    schedule_of,
    shown,
)
from keelroom.catalogue.protocols import protocol_of
from keelroom.core.answer import WITHIN
from keelroom.core.arrays import Floats
from keelroom.core.drive.figures import RUNS
from keelroom.core.kept import in_one_go
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import ReadAt, Sensor, Trial

TAIL = 300.0
"""[s] before its end over which a reading is told in the mean."""
VOLTS = 0.25
"""[V] a voltage is foretold to, standard: batteries, earths and regulators differ (common practice)."""
AIR_BY_FANS = 0.5
"""Share of the doubt of the fans' pressure that is in doubt of their air (where the curve crosses the core's drop)."""
MEANS: dict[ReadAt, tuple[str, str]] = {
    "gauge": (
        "Hotter: less air than reckoned (a fan backwards, gaps, a blown fuse), a clogged core, more heat, or the gauge "
        "itself. A probe on the upper hose parts the last from the others.",
        "Colder: a thermostat that stays open, more air than reckoned, or a sender that reads low.",
    ),
    "outlet": (
        "Hotter: less air or a clogged core, or more heat; the lower hose tells which.",
        "Colder: a thermostat that stays open, or more air than reckoned.",
    ),
    "inlet": (
        "Lower hose hotter, upper as foretold: too much flow or too little air through the core. An infrared gun on a "
        "bright tank or a shiny hose reads low, not high.",
        "Lower hose colder: little flow (pump, collapsed hose, thermostat), or a gun on a bright tank: black tape "
        "there.",
    ),
    "oil": ("Hotter: its cooler has no air, or the load was higher.", "Colder: the load was lower, or a lag."),
    "gearbox": ("Hotter: converter slipping, or its cooler shut.", "Colder: the load was lower."),
    "volts": ("More: fewer loads were on.", "Less: a slack belt, thin earths, a tired battery, more on than listed."),
    "battery": ("More goes in: fewer loads were on.", "Less: more is on than listed, or the alternator gives less."),
    "air": (
        "More: the rating was modest, or hot swirl was read too: 10–20 % behind a fan.",
        "Less: 80–85 % of the rating is usual; less than that is volts at the motor, gaps, or a fan backwards.",
    ),
}


class Expect(NamedTuple):
    """What one sensor should show. at [s];  value, low, high : at that minute, 80 of 100 between the two
    read : what was read there, None where nothing was;  over : standard doubts the reading lies over what is expected
    """

    sensor: Sensor
    at: float
    value: float
    low: float
    high: float
    read: float | None
    over: float

    @property
    def meaning(self) -> str:
        """What a reading outside the band would mean, or means."""
        hotter, colder = MEANS[self.sensor.place]
        if self.read is None:
            return f"{hotter} {colder}"
        if abs(self.over) <= WITHIN:
            return "As foretold."
        return hotter if self.over > 0 else colder


class Fans(NamedTuple):
    """When the fans first start and stop after it [s], and what the gauge reads then [degC]; inf where never."""

    starts: float
    gauge_on: float
    stops: float
    gauge_off: float


class Foretold(NamedTuple):
    """A trial beforehand: what its sensors should show at its end, and the lines (m,) over time it should follow, by
    sensor id: seconds, value, low, high."""

    driven: Driven
    expects: tuple[Expect, ...]
    lines: dict[str, tuple[Floats, Floats, Floats, Floats]]
    fans: Fans


@in_one_go
def foretold(build: Build, trial: Trial) -> Foretold | Stopped:
    """What a trial should read with the package it was, or will be, made with; or why nothing can be told."""
    name = f"The trial “{trial.name or trial.id}”"
    return attempted(name, ("logbook", "trials", trial.id), lambda: _foretold(build, trial))


def _foretold(build: Build, trial: Trial) -> Foretold:
    held_to_be_whole(trial)
    own, package = as_tried(build, trial)
    made = prepared(own, package, schedule_of(trial))
    driven = run_of(made, bands=False)
    low, high = doubtful_runs(made)
    fans = priors(build, package)["fans"]
    used = {one.sensor for one in trial.readings} | {one.sensor for one in trial.logs}
    places = {sensor.place for sensor in build.logbook.sensors if sensor.id in used}
    sensors = [
        one for one in build.logbook.sensors if one.place in places or one.place in protocol_of(trial.protocol).reads
    ]
    expects, lines = [], {}
    for sensor in sensors:
        value = shown(made, driven.run, sensor)
        ends = [np.interp(driven.run.time, run.time, shown(made, run, sensor)) for run in (low, high)]
        known = _doubt(sensor, value, fans)
        apart = np.maximum(*(np.abs(end - value) for end in ends)) / WITHIN
        off = WITHIN * np.hypot(apart, known)
        lines[sensor.id] = (driven.run.time, value, value - off, value + off)
        expects.append(_expect(build, trial, (made, driven), sensor, lines[sensor.id]))
    return Foretold(driven, tuple(expects), lines, _fans(driven))


def _fans(driven: Driven) -> Fans:
    """The first start of the fans after the trial began, and the stop that follows it."""
    run = driven.run
    on = run.share > RUNS
    turns = np.flatnonzero(on[1:] != on[:-1]) + 1
    starts = [k for k in turns if on[k]]
    stops = [k for k in turns if not on[k] and starts and k > starts[0]]
    at = [float(run.time[one[0]]) if one else math.inf for one in (starts, stops)]
    gauge = [float(run.gauge[one[0]]) if one else math.inf for one in (starts, stops)]
    return Fans(at[0], gauge[0], at[1], gauge[1])


def _doubt(sensor: Sensor, value: Floats, fans: float) -> Floats | float:
    """Standard doubt of what a sensor shows beside that of the heat."""
    if sensor.place in TEMPERATURES:
        return float(np.hypot(sensor.zero.si, sensor.noise.si))
    if sensor.place == "air":
        found: Floats = value * np.hypot(sensor.share.si, AIR_BY_FANS * fans)
        return found
    return float(np.hypot(VOLTS if sensor.place == "volts" else 5.0, doubt_of(sensor, float(value[-1]))))


def _expect(
    build: Build,
    trial: Trial,
    told: tuple[Prepared, Driven],
    sensor: Sensor,
    line: tuple[Floats, Floats, Floats, Floats],
) -> Expect:
    """At the last reading with it, or at the trial's end; where it swings the middle of the swing is told."""
    time, _, low, high = line
    read = line_of(build, trial, sensor.place)
    own = read if read is not None and read[0].id == sensor.id and len(read[1]) else None
    at = max(min(float(own[1][-1]), float(time[-1])), 0.0) if own else float(time[-1])
    span = min(TAIL, at)
    made, driven = told
    middle = float(read_by(made, driven.run, [Point(sensor, at - span / 2, 0.0, 1.0, span)])[0])
    half = float(np.interp(at, time, high - low)) / 2
    if own is None:
        return Expect(sensor, at, middle, middle - half, middle + half, None, 0.0)
    # Readings from after the trial's end, by its legs, are held against its end.
    late = own[1] >= min(at, float(own[1][-1])) - span
    seen = float(own[2][late].mean())
    return Expect(sensor, at, middle, middle - half, middle + half, seen, WITHIN * (seen - middle) / max(half, 1e-9))
