"""Where an anemometer is held over a face, and what its readings come to."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.core.arrays import Floats

LINES = {
    5: (0.074, 0.288, 0.500, 0.712, 0.926),
    6: (0.061, 0.235, 0.437, 0.563, 0.765, 0.939),
    7: (0.053, 0.203, 0.366, 0.500, 0.634, 0.797, 0.947),
}
"""Shares of a side at which readings stand. Source: log-Tchebycheff rule for rectangular ducts, ISO 3966."""
NARROW, WIDE = 0.75, 0.90
"""[m] of a side up to which five lines do, and six."""
VANE = 0.03
"""Standard doubt of a vane anemometer by itself, as a share (common practice)."""
SWIRL = 0.10
"""Standard doubt of a reading in a fan's wake: what swirls past a vane is read too (common practice, no source)."""


class Flow(NamedTuple):
    """Air [m3/s], its standard doubt, the mean [m/s] and how evenly it comes: spread over mean."""

    flow: float
    doubt: float
    mean: float
    uneven: float


def places(width: float, height: float) -> tuple[tuple[float, float], ...]:
    """Where readings are taken over a face [m], from its lower left, line by line.

    Source: ISO 3966, log-Tchebycheff.
    """
    across, up = (LINES[5 if side <= NARROW else 6 if side <= WIDE else 7] for side in (width, height))
    return tuple((x * width, y * height) for y in up for x in across)


def flow_through(speeds: Floats, area: float, behind_fan: bool, warmer: float = 1.0) -> Flow:
    """What readings (n,) [m/s] over an area [m2] come to.

    warmer : absolute temperature of the air at the vane over that the flow is told at
    Source: mean over places of equal weight; doubts independent of each other.
    """
    mean = float(speeds.mean())
    uneven = float(speeds.std(ddof=1)) / mean if len(speeds) > 1 and mean > 0 else 0.0
    share = math.hypot(VANE, uneven / math.sqrt(len(speeds)), SWIRL if behind_fan else 0.0)
    flow = mean * area / warmer
    return Flow(flow, share * flow, mean, uneven)
