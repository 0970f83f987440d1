"""What a trial should read, before it is made, with the band of that; and what another reading would mean."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.assess.drives.driven import Driven, Prepared, doubtful_runs, prepared, run_of
from keelroom.assess.drives.face import air_in_drive
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.placing import size_of
from keelroom.assess.trials.calibrate import priors
from keelroom.assess.trials.spots import Spot, seen_at_end, speeds_at_marks, spot_of
from keelroom.assess.trials.tried import (
    FOLLOWED,
    TEMPERATURES,
    Point,
    as_tried,
    doubt_of,
    figure_at,
    held_to_be_whole,
    line_of,
    read_by,
    schedule_of,
    shown,
    value_of,
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
    "motor": ("More: the plug is loose or its fan stands.", "Less: a thin wire, a poor earth, a burnt relay contact."),
    "running": (
        "More: a fan works against more than reckoned, or its bearings are tired.",
        "Less: a fan stands, turns the wrong way, or gets fewer volts than reckoned.",
    ),
    "start": (
        "More: both start together, or one is stuck: fuses go at starts.",
        "Less: a soft start, or a slow meter.",
    ),
    "vent": (
        "Warmer: too little air through the condenser, gaps round it, a low charge: charging is for licensed people.",
        "Colder: the cabin was cooler than reckoned, or the blower slower.",
    ),
    "fin": ("Warmer: the probe touches a tube near the inlet.", "Colder: it stands in the air, or near the outlet."),
    "held": (
        "More than the cap's rating: a cap that does not open. Stop, and let it cool.",
        "Less: a leak, a weak cap, or air that is still in it.",
    ),
    "sound": ("Louder: a blade close to the core or a strut, swirl, a bent blade.", "Quieter: a fan does not run."),
    "mark": (
        "More at a mark: a gap feeds it, or the vane sees a fan's own stream.",
        "Less at a mark: hidden by a bar or the condenser's edge, or outside the shroud's reach.",
    ),
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
    marks: tuple[float, ...] = ()
    """[m/s] a vane should read at the marks of the face, in order, the fans running; () where none is held there"""


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
    if not any(one.place in FOLLOWED for one in sensors):
        # Something moves while a thing is read by the way: the gauge.
        sensors += [one for one in build.logbook.sensors if one.place in ("gauge", "outlet")][:1]
    expects, lines = [], {}
    seen = seen_at_end(made, trial) if any(one.place not in FOLLOWED for one in sensors) else None
    for sensor in sensors:
        if sensor.place not in FOLLOWED:
            spot = spot_of(sensor.place, seen) if seen else None
            if spot is not None:
                expects.append(_once(trial, sensor, spot, driven.lasts))
            continue
        value = shown(made, driven.run, sensor)
        ends = [np.interp(driven.run.time, run.time, shown(made, run, sensor)) for run in (low, high)]
        known = _doubt(sensor, value, fans)
        apart = np.maximum(*(np.abs(end - value) for end in ends)) / WITHIN
        off = WITHIN * np.hypot(apart, known)
        lines[sensor.id] = (driven.run.time, value, value - off, value + off)
        expects.append(_expect(build, trial, (made, driven), sensor, lines[sensor.id]))
    marks = _marks(made, driven) if any(one.place == "mark" for one in sensors) else ()
    return Foretold(driven, tuple(expects), lines, _fans(driven), marks)


def _marks(made: Prepared, driven: Driven) -> tuple[float, ...]:
    """Speeds before the face as the trial ends."""
    wide, high = size_of(made.package.core)
    if wide <= 0 or high <= 0:
        return ()
    return speeds_at_marks(air_in_drive(made, driven.run, float(driven.run.time[-1]), 1.0).speed, wide, high)


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


def _once(trial: Trial, sensor: Sensor, spot: Spot, lasts: float) -> Expect:
    """A place that is read by the way, against the mean of what was read there."""
    own = [
        (one.at.si, value) for one in trial.readings if one.sensor == sensor.id and (value := value_of(one)) is not None
    ]
    off = float(np.hypot(sensor.zero.si, sensor.noise.si) if figure_at(sensor.place) == "temperature" else 0.0)
    half = WITHIN * math.hypot(spot.doubt, off or sensor.share.si * spot.value)
    low, high = spot.value - half, spot.value + half
    if not own:
        return Expect(sensor, lasts, spot.value, low, high, None, 0.0)
    read = sum(value for _, value in own) / len(own)
    return Expect(sensor, own[-1][0], spot.value, low, high, read, WITHIN * (read - spot.value) / max(half, 1e-9))


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
