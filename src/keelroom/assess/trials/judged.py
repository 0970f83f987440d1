"""A trial by itself, and two against each other: at rest or creeping, passed or not, what weather, revs and minutes
make of the difference, and what is left for the change."""

from __future__ import annotations

import math
from typing import Literal, NamedTuple

import numpy as np

from keelroom.assess.drives.driven import Prepared, doubtful_runs, prepared, run_of
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.trials.spots import FALLS
from keelroom.assess.trials.tried import (
    Point,
    as_tried,
    held_to_be_whole,
    line_of,
    read_by,
    schedule_of,
    sensor_of,
)
from keelroom.catalogue.protocols import protocol_of
from keelroom.core.answer import WITHIN
from keelroom.core.drive.figures import FLAT
from keelroom.core.drive.records import Run
from keelroom.core.kept import in_one_go
from keelroom.core.trials.steady import Rest, rest_of
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import Sensor, Trial
from keelroom.errors import InputError

TAIL = 600.0
"""[s] at its end a trial is judged by."""
OVER_SET, FAILS, OVERHEATS = 5 / 1.8, 15 / 1.8, 25 / 1.8
"""[K] over thermostat or fan start up to which a soak passes at rest, past which it fails while it creeps, and past
which it fails whatever else: 185, 195 and 205 to 220 °F with thermostats of 180 to 195 (common practice, no source)."""
HELD = 13.0
"""[V] at idle with all on under which the battery makes up what lacks (common practice)."""
REVS = 0.06
"""Share engine speeds differ by that are not the same."""
Passes = Literal["passes", "fails", "open"]


class Judged(NamedTuple):
    """sensor, rest, top [degC] and its moment [s], lasted [s] of the line it is judged by
    over_day [K] : its end less the day;  boils_at [degC] : day at which that would boil"""

    passes: Passes
    sensor: Sensor | None
    rest: Rest | None
    top: tuple[float, float] | None
    ends: float
    lasted: float
    long_enough: bool
    over_day: float
    boils_at: float
    set_at: float


def judged(build: Build, trial: Trial, boiling: float = math.nan) -> Judged:
    """What its readings say by themselves. boiling [degC] : of its coolant, where known."""
    line, protocol = line_of(build, trial), protocol_of(trial.protocol)
    own, package = as_tried(build, trial)
    thermostat = package.loop.thermostat.si if package.loop.thermostat else 82.0
    control, by_clutch = package.control, all(fan.motor == "engine" for fan in package.fans)
    switched = control.fan_on is not None and control.coil != "always" and not by_clutch
    set_at = max(thermostat, control.fan_on.si) if switched and control.fan_on else thermostat
    if line is None:
        volts = line_of(build, trial, "volts")
        passes: Passes = "open"
        if volts is not None and protocol.passes == "volts":
            passes = "passes" if float(volts[2][-1]) >= HELD else "fails"
        if protocol.passes == "holds":
            passes = _holds(build, trial)
        lasted = float(volts[1][-1]) if volts is not None else 0.0
        return Judged(passes, None, None, None, math.nan, lasted, lasted > 0, math.nan, math.nan, set_at)
    sensor, seconds, values = line
    lasted = float(seconds[-1]) if len(seconds) > 1 else float(seconds[0])
    rest = rest_of(seconds, values, TAIL) if len(seconds) > 2 else None
    k = int(np.argmax(values))
    late = seconds >= lasted - TAIL / 2
    ends = float(values[late].mean())
    limit = own.brief.cooling.limit.si if own.brief.cooling.limit else math.inf
    long_enough = lasted >= 0.9 * protocol.needs
    day = trial.ambient.si if trial.ambient else math.nan
    found = Judged(
        "open",
        sensor,
        rest,
        (float(values[k]), float(seconds[k])),
        ends,
        lasted,
        long_enough,
        ends - day,
        boiling - (ends - day),
        set_at,
    )
    return found._replace(passes=_passes(protocol.passes, found, limit))


def _holds(build: Build, trial: Trial) -> Passes:
    """Whether the pressure of a test stays from its first reading to its last, long enough after."""
    read = []
    for one in trial.readings:
        sensor = sensor_of(build, one.sensor)
        if sensor is not None and sensor.place == "held" and one.pressure is not None:
            read.append((one.at.si, one.pressure.si))
    read.sort()
    if len(read) < 2 or read[-1][0] - read[0][0] < 0.9 * protocol_of(trial.protocol).needs:
        return "open"
    return "passes" if read[0][1] - read[-1][1] <= FALLS else "fails"


def _passes(rule: str, found: Judged, limit: float) -> Passes:
    top = found.top[0] if found.top else -math.inf
    if top > limit:
        return "fails"
    creeps = found.rest is not None and found.rest.slope - found.rest.margin > 0 and found.rest.slope > FLAT
    if rule == "steady":
        if found.ends > found.set_at + (FAILS if creeps else OVERHEATS):
            return "fails"
        if not found.long_enough or found.rest is None:
            return "open"
        return "passes" if not creeps and found.ends <= found.set_at + OVER_SET else "open"
    if rule in ("under_limit", "back"):
        return "passes" if found.long_enough else "open"
    return "open"


class Compared(NamedTuple):
    """Two trials. first, second : where each ended [degC];  unlike : what else differs, in words
    conditions [K] : what that makes of the difference by the model;  doubt [K] of it, standard
    earned [K] : what is left for the change of the car, under nought where it is cooler;  earned_doubt, standard
    """

    first: float
    second: float
    unlike: tuple[str, ...]
    conditions: float
    doubt: float
    earned: float
    earned_doubt: float

    @property
    def measured(self) -> float:
        """Second less first [K]."""
        return self.second - self.first


@in_one_go
def compared(build: Build, first: Trial, second: Trial) -> Compared | Stopped:
    """The second trial against the first, or why they cannot be held against each other."""
    name = f"“{second.name}” against “{first.name}”"
    return attempted(name, ("logbook", "trials", second.id), lambda: _compared(build, first, second))


def _compared(build: Build, first: Trial, second: Trial) -> Compared:
    lines = line_of(build, first), line_of(build, second)
    for trial, line in zip((first, second), lines, strict=True):
        held_to_be_whole(trial)
        if line is None:
            why = f"“{trial.name}” has no temperature yet"
            raise InputError("trial_without_reading", why, path=("logbook", "trials", trial.id))
    assert lines[0] is not None
    assert lines[1] is not None
    ends, spans = [], []
    for _, seconds, values in lines:  # type: ignore[misc]
        late = seconds >= seconds[-1] - TAIL / 2
        ends.append(float(values[late].mean()))
        spans.append((float(seconds[-1]), float(seconds[-1] - seconds[late][0])))
    # The car as it was in the first, driven as it was in the first and as in the second.
    sensor = lines[0][0]
    like = second.model_copy(update={"package": first.package})
    runs = [_runs(build, trial) for trial in (first, like)]
    read = [[_end(made, run, sensor, span) for run in each] for (made, each), span in zip(runs, spans, strict=True)]
    parts = [after - before for before, after in zip(*read, strict=True)]
    conditions = parts[0]
    doubt = max(abs(part - conditions) for part in parts) / WITHIN
    off = [max(line[0].noise.si, 0.3) for line in lines]  # type: ignore[index]
    zero = 0.0 if lines[0][0].id == lines[1][0].id else math.hypot(lines[0][0].zero.si, lines[1][0].zero.si)
    earned_doubt = math.hypot(doubt, *off, zero)
    measured = ends[1] - ends[0]
    return Compared(
        ends[0], ends[1], unlike(build, first, second), conditions, doubt, measured - conditions, earned_doubt
    )


def _runs(build: Build, trial: Trial) -> tuple[Prepared, tuple[Run, Run, Run]]:
    own, package = as_tried(build, trial)
    made = prepared(own, package, schedule_of(trial))
    return made, (run_of(made, bands=False).run, *doubtful_runs(made))


def _end(made: Prepared, run: Run, sensor: Sensor, span: tuple[float, float]) -> float:
    ends, wide = span
    return float(read_by(made, run, [Point(sensor, ends - wide / 2, 0.0, 1.0, wide)])[0])


def unlike(build: Build, first: Trial, second: Trial) -> tuple[str, ...]:
    """What is not the same in two trials beside the car, as codes."""
    found = []
    if first.protocol != second.protocol:
        found.append("protocol")
    if first.ambient and second.ambient and abs(first.ambient.si - second.ambient.si) > 1.0:
        found.append("day")
    legs = [trial.legs[-1] if trial.legs else None for trial in (first, second)]
    if legs[0] is not None and legs[1] is not None:
        revs = [leg.rpm.si if leg.rpm else None for leg in legs if leg is not None]
        if (revs[0] is None) != (revs[1] is None) or (
            revs[0] is not None and revs[1] is not None and abs(revs[0] / revs[1] - 1) > REVS
        ):
            found.append("revs")
        if legs[0].ac_on != legs[1].ac_on:
            found.append("ac")
        if abs(legs[0].speed.si - legs[1].speed.si) > 1:
            found.append("speed")
    lines = [line_of(build, trial) for trial in (first, second)]
    if all(line is not None for line in lines):
        lasted = [float(line[1][-1]) for line in lines if line is not None]
        if abs(lasted[0] - lasted[1]) > 180:
            found.append("minutes")
        if lines[0][0].id != lines[1][0].id:  # type: ignore[index]
            found.append("sensor")
    if first.hood_open != second.hood_open:
        found.append("hood")
    return tuple(found)
