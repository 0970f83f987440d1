"""A line of readings by itself: whether it has come to rest, where it tends to, and how long it takes still."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.core.drive.figures import straight

LEAST = 8
"""Readings a tail is told of."""
NEAR = 1.0
"""[K] of its end at which a line counts as there."""


class Rest(NamedTuple):
    """slope [1/s] over the tail, its standard doubt, and that of 95 of 100;  tends : where it goes, nan where nothing
    is told of it;  needed [s] : until it is NEAR that, nan with it"""

    slope: float
    doubt: float
    margin: float
    tends: float
    needed: float


def rest_of(time: Floats, values: Floats, span: float) -> Rest | None:
    """The last `span` [s] of a line (m,); None where too few readings are in it.

    Source: least squares; the doubt of its slope for as many readings as are independent by their own
    autocorrelation (AR 1), Student's t; the end of an exponential from three means of thirds (Aitken).
    """
    late = time >= time[-1] - span
    at, seen = time[late], values[late]
    if len(at) < LEAST:
        return None
    slope, left, spread = straight(at, seen)
    follows = float((left[1:] * left[:-1]).sum() / max(float((left**2).sum()), 1e-12))
    follows = min(max(follows, 0.0), 0.98)
    count = max(len(at) * (1 - follows) / (1 + follows), 3.0)
    doubt = math.sqrt(float((left**2).sum()) / (len(at) - 2) / spread * len(at) / count)
    tends, lag = _tends(at, seen)
    needed = math.nan
    if math.isfinite(tends):
        gap = abs(float(seen[-len(seen) // 3 :].mean()) - tends)
        needed = max(lag * math.log(max(gap, NEAR) / NEAR), 0.0)
    return Rest(slope, doubt, _student(count - 2) * doubt, tends, needed)


def _tends(at: Floats, seen: Floats) -> tuple[float, float]:
    """Where an exponential goes, and its time [s], from the means of three thirds; nan where they tell none."""
    thirds = [part.mean() for part in np.array_split(seen, 3)]
    first, second = thirds[1] - thirds[0], thirds[2] - thirds[1]
    if abs(first) < 1e-9 or not 0.02 < second / first < 0.95:
        return math.nan, math.nan
    ratio = second / first
    lag = -(float(at[-1] - at[0]) / 3) / math.log(ratio)
    return float(thirds[2] + second * ratio / (1 - ratio)), lag


def _student(freedom: float) -> float:
    """Student's t for 95 of 100 both sides. Source: Hill (1970), CACM algorithm 396, first terms; within 2 % from three
    degrees on."""
    n, z = max(freedom, 1.0), 1.959964
    g1, g2, g3 = (z**3 + z) / 4, (5 * z**5 + 16 * z**3 + 3 * z) / 96, (3 * z**7 + 19 * z**5 + 17 * z**3 - 15 * z) / 384
    return z + g1 / n + g2 / n**2 + g3 / n**3


def lagged(time: Floats, values: Floats, lag: float) -> Floats:
    """A line (m,) as what follows it by a lag [s] shows it, as warm as it at the start.

    Source: first order, straight between moments, exact.
    """
    if lag <= 0:
        return values
    found = np.empty_like(values)
    found[0] = shown = values[0]
    for k in range(1, len(values)):
        h = float(time[k] - time[k - 1])
        if h > 0:
            slope = (values[k] - values[k - 1]) / h
            end = values[k] - slope * lag
            shown = end + (shown - values[k - 1] + slope * lag) * math.exp(-h / lag)
        found[k] = shown
    return found
