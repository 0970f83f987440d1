"""What trials make of the hot cases: every duty case as entered and as the trials have it."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from keelroom.assess.assess import first_wave
from keelroom.assess.trials.calibrate import Calibrated, calibrated
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


def learn(build: Build, tell: Callable[[float], bool] | None = None) -> Learnt:
    """What all trials that count tell, and what that makes of the hot day.

    Raises InputError where no trial can tell anything; SolveError where its readings lie past any likely car.
    """
    found = calibrated(build, tell)
    return Learnt(found, hot_days(build, found.calibration))


def hot_days(build: Build, calibration: Calibration) -> tuple[HotDay, ...]:
    """Every duty case as entered, and with a calibration."""
    ways = [first_wave(build.model_copy(update={"calibration": one})) for one in (Calibration(), calibration)]
    found = []
    for before, after in zip(*(way.cases for way in ways), strict=True):
        if before.figures and after.figures:
            reads = [(f.temperature, f.low, f.high, f.chance) for f in (before.figures, after.figures)]
            found.append(HotDay(before.case_id, before.name, reads[0], reads[1]))
    return tuple(found)
