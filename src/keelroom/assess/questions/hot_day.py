"""What trials make of the hot cases: every duty case as entered and as the trials have it."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from keelroom.assess.assess import first_wave
from keelroom.assess.drives.words import degrees
from keelroom.assess.inputs.learnt import FACTORS
from keelroom.assess.trials.calibrate import Calibrated, calibrated
from keelroom.core.trials.fit import QUICK, WHOLE
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import Calibration

Reads = tuple[float, float, float, float]
"""Where it settles, the band's ends [degC], and the chance that the limit is passed."""


class HotDay(NamedTuple):
    """One duty case before and after."""

    case_id: str
    name: str
    before: Reads
    after: Reads


class Learnt(NamedTuple):
    """A fit, and what it makes of every duty case that has an answer."""

    fitted: Calibrated
    days: tuple[HotDay, ...]
    quick: bool = False
    """a first answer: the search goes on"""


def learn(build: Build, tell: Callable[[float], bool] | None = None, *, quick: bool = False) -> Learnt:
    """What all trials that count tell, and what that makes of the hot day. quick: a first answer, within some seconds.

    Raises InputError where no trial can tell anything; SolveError where its readings lie past any likely car.
    """
    found = calibrated(build, tell, QUICK if quick else WHOLE)
    return Learnt(found, hot_days(build, found.calibration), quick)


def hot_days(build: Build, calibration: Calibration) -> tuple[HotDay, ...]:
    """Every duty case as entered, and with a calibration."""
    ways = [first_wave(build.model_copy(update={"calibration": one})) for one in (Calibration(), calibration)]
    found = []
    for before, after in zip(*(way.cases for way in ways), strict=True):
        if before.figures and after.figures:
            reads = [(f.temperature, f.low, f.high, f.chance) for f in (before.figures, after.figures)]
            found.append(HotDay(before.case_id, before.name, reads[0], reads[1]))
    return tuple(found)


def as_data(days: Learnt) -> dict[str, object]:
    """What trials tell, in SI, for machines."""
    found, fit = days.fitted, days.fitted.fit
    factors = {}
    for name in FACTORS:
        k = found.place(name)
        if k is not None:
            factors[name] = {
                "times": float(np.exp(fit.at[k])),
                "doubt": float(fit.doubts[k]),
                "before": float(fit.prior[k]),
            }
    return {
        "readings": int(fit.kept.sum()),
        "left_out": int((~fit.kept).sum()),
        "misfit": fit.misfit,
        "factors": factors,
        "zeros": {one.sensor.id: float(fit.at[k]) for k, one in enumerate(found.numbers) if one.sensor is not None},
        "cases": {day.case_id: {"entered": _finite(day.before), "by_trials": _finite(day.after)} for day in days.days},
    }


def _finite(reads: tuple[float, float, float, float]) -> dict[str, float | None]:
    names = ("temperature", "low", "high", "chance")
    return {name: value if math.isfinite(value) else None for name, value in zip(names, reads, strict=True)}


def day_words(days: tuple[HotDay, ...], system: str) -> tuple[str, ...]:
    """Each case before and after, in a sentence."""
    found = []
    for day in days:
        before, after = (reads_words(one, system) for one in (day.before, day.after))
        found.append(f"{day.name}: {before} as entered, {after} by the trials; passes the limit {day.after[3]:.0%}.")
    return tuple(found)


def reads_words(one: Reads, system: str) -> str:
    """Where a case settles, with its band."""
    at, low, high, _ = one
    top = degrees(high, system) if math.isfinite(high) else "boiling"
    return f"{degrees(at, system)} ({degrees(low, system)} to {top})"
