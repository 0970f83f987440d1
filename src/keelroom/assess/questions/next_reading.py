"""Which reading would narrow the answer that matters most, before it is taken."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import NamedTuple

import numpy as np

from keelroom.assess.assess import first_wave
from keelroom.assess.drives.driven import prepared, run_with
from keelroom.assess.figures.assessment import Assessment, CaseFigures, CaseResult
from keelroom.assess.inputs.learnt import AS_ENTERED, FACTORS, PLACES, learnt_of
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.trials.calibrate import priors
from keelroom.assess.trials.tried import TEMPERATURES, Point, as_tried, doubt_of, read_by, schedule_of
from keelroom.catalogue.protocols import PROTOCOLS, Protocol
from keelroom.core.answer import WITHIN
from keelroom.core.arrays import Floats
from keelroom.core.kept import in_one_go
from keelroom.core.trials.fit import left_after, spread_of
from keelroom.document.quantity import Quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import Calibration, Factor, Sensor, Trial
from keelroom.document.snapshot import kept

STEP, COARSE, TAIL = 0.25, 0.25, 300.0
"""Share of a doubt a slope is found over; how finely a drive is run; [s] at its end that are read."""
TRIED = ("idle", "ac", "air", "speeds", "hill", "volts")
RISKS = {
    "air": "fans running",
    "idle": "hot, standing",
    "ac": "hot, standing",
    "speeds": "on the road",
    "hill": "on the road, hot",
    "volts": "fans running",
}


class NextReading(NamedTuple):
    """One reading: the protocol it is of, its sensor, its minutes;  now, then [K] : 80 % of the answer's doubt either
    way, before it and after, beside what no reading of these narrows"""

    protocol: str
    name: str
    sensor: Sensor
    minutes: float
    risk: str
    now: float
    then: float

    @property
    def narrows(self) -> float:
        """[K]"""
        return self.now - self.then


class Ranked(NamedTuple):
    """The answer that matters: a duty case; readings, that narrow it most first; stopped: protocols nothing can be
    told of"""

    case_id: str
    case: str
    now: float
    readings: tuple[NextReading, ...]
    stopped: tuple[Stopped, ...]


@in_one_go
def next_readings(build: Build, asked: str = "", tell: Callable[[float], bool] | None = None) -> Ranked | None:
    """What each reading would narrow of a duty case, the one asked after or the hottest; None where none has an answer.

    Source: first-order propagation; Sherman and Morrison's rule for one reading more.
    """
    covariance, at = _known(build)
    package = kept(build.package)
    plain = first_wave(_moved(build, package, at))
    case = _matters(plain, asked)
    if case is None:
        return None
    target = _gradient(build, package, (at, covariance), case)
    now = WITHIN * spread_of(covariance, target)
    found: list[NextReading] = []
    stopped: list[Stopped] = []
    trials = [protocol for protocol in PROTOCOLS if protocol.key in TRIED]
    for k, protocol in enumerate(trials):
        if tell is not None and not tell(k / len(trials)):
            break
        made = attempted(f"“{protocol.name}”", (), partial(_slopes, build, protocol, at, covariance))
        if isinstance(made, Stopped):
            stopped.append(made)
            continue
        for sensor, value, slope in made:
            zero = sensor.zero.si if sensor.place in TEMPERATURES else 0.0
            doubt = float(np.hypot(doubt_of(sensor, value), zero))
            then = WITHIN * spread_of(left_after(covariance, slope, doubt), target)
            minutes = max(protocol.needs / 60, 5.0)
            risk = RISKS[protocol.key]
            found.append(NextReading(protocol.key, protocol.name, sensor, minutes, risk, now, then))
    found.sort(key=lambda one: one.then)
    return Ranked(case.case_id, case.name, now, tuple(found), tuple(stopped))


def _known(build: Build) -> tuple[Floats, Floats]:
    """Covariance (k, k) of the factors' logarithms and where they stand, as they are known now."""
    learnt, before = learnt_of(build, build.package), priors(build, build.package)
    doubts = np.array([before[name] if left is None else left for name, left in zip(FACTORS, learnt.left, strict=True)])
    ties = np.array(learnt.ties).reshape(len(FACTORS), len(FACTORS))
    return ties * np.outer(doubts, doubts), np.log(np.array(learnt.values))


def _moved(build: Build, package: str, at: Floats) -> Build:
    """The build with factors at logarithms (k,) in the package in use, as it is kept."""
    factors = tuple(Factor(id=name, value=float(np.exp(value))) for name, value in zip(FACTORS, at, strict=True))
    calibration = Calibration(on=True, factors=factors, package=package)
    return build.model_copy(update={"calibration": calibration})


def _matters(assessment: Assessment, asked: str) -> CaseResult | None:
    """The case that is asked after, else the hottest of those that come to rest; of all where none does."""
    there = [(case, case.figures) for case in assessment.cases if case.figures]
    chosen = next((case for case, _ in there if case.case_id == asked), None)
    rest = [pair for pair in there if pair[1].verdict != "does_not_settle"] or there
    return chosen or (max(rest, key=lambda pair: _settles(pair[1]))[0] if rest else None)


def _settles(figures: CaseFigures) -> float:
    """[degC] a case would come to with the fans as they are at the limit: it moves with what is doubtful where fans
    that cycle hold the needle still. Source: in proportion between the air's temperature and the limit."""
    limit = figures.temperature + figures.margin
    return figures.front_air + (limit - figures.front_air) * figures.heat_in / max(figures.rejection_at_limit, 1.0)


def _gradient(build: Build, package: str, known: tuple[Floats, Floats], case: CaseResult) -> Floats:
    """Kelvin (k,) the case's end moves per unit of each factor's logarithm."""
    (at, covariance), found = known, []
    for k in range(len(FACTORS)):
        h = STEP * float(np.sqrt(covariance[k, k]))
        ends = []
        for sign in (-1, 1):
            moved = at.copy()
            moved[k] += sign * h
            there = first_wave(_moved(build, package, moved))
            figures = next((one.figures for one in there.cases if one.case_id == case.case_id), None)
            ends.append(_settles(figures) if figures else float("nan"))
        slope = (ends[1] - ends[0]) / (2 * h)
        found.append(slope if np.isfinite(slope) else 0.0)
    return np.array(found)


def _slopes(build: Build, protocol: Protocol, at: Floats, covariance: Floats) -> list[tuple[Sensor, float, Floats]]:
    """For each sensor a protocol reads: what it would read at the end, and how that moves with each factor (k,)."""
    day: Quantity | None = build.brief.climate.ambient
    trial = Trial(id=protocol.key, name=protocol.name, protocol=protocol.key, legs=protocol.legs, ambient=day)
    own, package = as_tried(build.model_copy(update={"calibration": Calibration()}), trial)
    made = prepared(own, package, schedule_of(trial))
    sensors = [one for one in build.logbook.sensors if one.place in protocol.reads and one.place != "battery"]

    def read(factors: Floats) -> Floats:
        doubts = AS_ENTERED._replace(
            **{PLACES[name]: np.array(float(np.exp(value))) for name, value in zip(FACTORS, factors, strict=True)}
        )
        there, run = run_with(made, doubts, COARSE)
        ends = float(run.time[-1])
        span = min(TAIL, ends)
        return np.array(
            [read_by(there, run, [Point(sensor, ends - span / 2, 0.0, 1.0, span)])[0] for sensor in sensors]
        )

    middle = read(at)
    columns = []
    for k in range(len(FACTORS)):
        h = 2 * STEP * float(np.sqrt(covariance[k, k]))
        moved = at.copy()
        moved[k] += h
        columns.append((read(moved) - middle) / h)
    slopes = np.stack(columns, axis=1)
    return [(sensor, float(middle[n]), slopes[n]) for n, sensor in enumerate(sensors)]
