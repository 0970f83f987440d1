"""Whether two loggers' clocks go alike: how late one's is by what both saw of the same place."""

from __future__ import annotations

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import Log, Trial

FARTHEST, STEP = 600.0, 1.0
"""[s] clocks are looked at up to so far apart, so finely"""
OVERLAP = 180.0
"""[s] both must have written"""
BETTER = 0.6
"""Share of what they differ by at nought that is left where another offset is believed."""
WORTH_TELLING = 5.0
"""[s]"""
SWINGS = 0.8
"""[K, V, A] a line must vary by, standard: of one that stands still no clock can be told"""


def clock_late(build: Build, trial: Trial, log: Log) -> tuple[float, Log] | None:
    """How many seconds late a log's clock is against one of the trial that reads the same place, and that one; None
    where none tells, or it tells of none.

    Source: least mean square of the difference over offsets; levels may differ, sensors do.
    """
    places = {sensor.id: sensor.place for sensor in build.logbook.sensors}
    for other in trial.logs:
        if places.get(other.sensor) != places.get(log.sensor) or places.get(log.sensor) is None:
            continue
        late = offset_between(other, log)
        if late is not None and abs(late) >= WORTH_TELLING:
            return late, other
    return None


def offset_between(first: Log, second: Log) -> float | None:
    """Seconds by which the second's clock is late against the first's; None where nothing tells."""
    if len(first.seconds) < 3 or len(second.seconds) < 3:
        return None
    begins, ends = max(first.seconds[0], second.seconds[0]), min(first.seconds[-1], second.seconds[-1])
    if ends - begins < OVERLAP:
        return None
    far = min(FARTHEST, (ends - begins) / 2)
    offsets = np.arange(-far, far + STEP, STEP)
    left = np.array([_apart(first, second, float(offset)) for offset in offsets])
    at_nought = _apart(first, second, 0.0)
    best = int(np.nanargmin(left))
    varies = min(_varies(first, begins, ends), _varies(second, begins, ends))
    if varies < SWINGS or not left[best] < BETTER * at_nought or best in (0, len(offsets) - 1):
        return None
    return float(offsets[best])


def _apart(first: Log, second: Log, offset: float) -> float:
    """How far they differ, standard, with the second's clock put forward by an offset [s]: where both wrote."""
    moved = np.array(second.seconds) + offset
    begins, ends = max(first.seconds[0], float(moved[0])), min(first.seconds[-1], float(moved[-1]))
    at: Floats = np.arange(begins, ends, STEP)
    if len(at) < OVERLAP / 2:
        return float("nan")
    return float((np.interp(at, first.seconds, first.values) - np.interp(at, moved, second.values)).std())


def _varies(log: Log, begins: float, ends: float) -> float:
    seconds, values = np.array(log.seconds), np.array(log.values)
    inside = (seconds >= begins) & (seconds <= ends)
    return float(values[inside].std()) if inside.any() else 0.0
