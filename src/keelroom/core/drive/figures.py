"""What a drive says in figures: peaks, creep, time over a limit, how the fans cycle, charge."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Bools, Floats, Ints

LAST = 300.0
"""[s] at the end over which it is told whether a temperature creeps."""
FLAT = 0.15 / 60
"""[K/s] of slope a needle is called flat under: under 3 K in twenty minutes (common practice, no source)."""
SWING = 0.5
"""[K] a line comes down by after a top that counts as one."""
LEAST_TOPS, PARTS = 3, 24
"""Tops a slope is told of, and stretches it is told of where there are none."""
RUNS = 0.05
"""Share of full flow from which a fan counts as running."""


class Peak(NamedTuple):
    """The highest of a line over time, and when [s]."""

    value: float
    at: float


class Creep(NamedTuple):
    """Slope of a line over its last minutes: per second, its standard doubt, and whether it is told from flat."""

    slope: float
    doubt: float
    span: float

    @property
    def creeps(self) -> bool:
        """Whether it still rises, beyond doubt and worth a word."""
        return self.slope - self.doubt > FLAT


class Cycling(NamedTuple):
    """How fans run: starts per hour, share of the time, longest time on [s], first start [s] or inf."""

    per_hour: float
    share: float
    longest: float
    first: float


def peak(time: Floats, values: Floats) -> Peak:
    """The highest value (m,) and its time [s].

    Source: definition.
    """
    k = int(np.argmax(values))
    return Peak(float(values[k]), float(time[k]))


def integral(time: Floats, values: Floats) -> float:
    """A line (m,) over time [s], straight between moments.

    Source: trapezoidal rule.
    """
    return float(((values[1:] + values[:-1]) * np.diff(time)).sum() / 2)


def creep(time: Floats, values: Floats, since: float = 0.0, span: float = LAST) -> Creep:
    """Slope over the last `span` [s], of what came after `since` [s]; of the tops of its swings where it swings, over
    as many as it takes.

    time, values (m,). Source: least squares with the doubt of its slope.
    """
    late = time >= since
    time, values = time[late], values[late]
    begins = max(float(time[-1]) - span, float(time[0]))
    tops = _tops(time, values, begins)
    if len(tops) >= LEAST_TOPS:
        at, high = time[tops], values[tops]
    else:
        at = np.linspace(begins, float(time[-1]), PARTS + 1)
        high = np.interp(at, time, values)
    if at[-1] <= at[0]:
        return Creep(0.0, 0.0, 0.0)
    slope, left, spread = straight(at, high)
    doubt = math.sqrt(float((left**2).sum()) / max(len(at) - 2, 1) / spread)
    return Creep(slope, doubt, float(time[-1] - at[0]))


def straight(at: Floats, values: Floats) -> tuple[float, Floats, float]:
    """Slope of a line (m,) through values, what is left over it (m,), and the spread of its places.

    Source: least squares.
    """
    middle = at - at.mean()
    spread = float((middle**2).sum())
    slope = float((middle * values).sum()) / spread
    return slope, values - values.mean() - slope * middle, spread


def _tops(time: Floats, values: Floats, begins: float) -> Ints:
    """Places of the tops of its swings since `begins`, or of the last ones where there are too few."""
    inside = values[1:-1]
    tops = np.flatnonzero((inside > values[:-2]) & (inside >= values[2:])) + 1
    kept: list[int] = []
    for k in tops:
        # A top counts once the line has come down from the last one by a swing.
        if kept and values[kept[-1] : k + 1].min() > min(values[kept[-1]], values[k]) - SWING:
            if values[k] > values[kept[-1]]:
                kept[-1] = int(k)
            continue
        kept.append(int(k))
    late = [k for k in kept if time[k] >= begins]
    return np.array(late if len(late) >= LEAST_TOPS else kept[-LEAST_TOPS:] if late else [], int)


def crossing(time: Floats, values: Floats, level: float) -> float:
    """When a line (m,) first passes a level upward [s]; its begin where it stands over it there, inf where it never
    does.

    Source: straight between moments.
    """
    over = values > level
    if not over.any():
        return math.inf
    k = int(np.argmax(over))
    if k == 0:
        return float(time[0])
    share = (level - values[k - 1]) / (values[k] - values[k - 1])
    return float(time[k - 1] + share * (time[k] - time[k - 1]))


def time_over(time: Floats, values: Floats, level: float) -> float:
    """How long a line (m,) stands over a level [s].

    Source: straight between moments.
    """
    low, high = values[:-1] - level, values[1:] - level
    rises = np.where(high != low, np.clip(high / np.where(high != low, high - low, 1.0), 0.0, 1.0), 0.0)
    falls = np.where(high != low, np.clip(low / np.where(high != low, low - high, 1.0), 0.0, 1.0), 0.0)
    share = np.where((low > 0) & (high > 0), 1.0, np.where(high > 0, rises, np.where(low > 0, falls, 0.0)))
    return float((share * np.diff(time)).sum())


def fan_cycles(time: Floats, share: Floats) -> Cycling:
    """How often fans of a share of full flow (m,) start, and how long they run.

    Source: counted.
    """
    on: Bools = share > RUNS
    whole = float(time[-1] - time[0])
    starts = np.flatnonzero(on[1:] & ~on[:-1]) + 1
    stops = np.flatnonzero(~on[1:] & on[:-1]) + 1
    begins = [float(time[0])] * bool(on[0]) + [float(time[k]) for k in starts]
    ends = [float(time[k]) for k in stops] + [float(time[-1])] * bool(on[-1])
    spans = [end - begin for begin, end in zip(begins, ends, strict=True)]
    return Cycling(
        per_hour=3600.0 * len(starts) / whole if whole > 0 else 0.0,
        share=sum(spans) / whole if whole > 0 else 0.0,
        longest=max(spans, default=0.0),
        first=begins[0] if begins else math.inf,
    )


def back_under(time: Floats, values: Floats, level: float, after: float) -> float:
    """When a line (m,) is back under a level after a moment [s]; inf where it does not come back.

    Source: straight between moments.
    """
    later = time >= after
    t, v = time[later], values[later]
    if not len(t) or (v <= level).all():
        return after
    highest = int(np.argmax(v))
    under = np.flatnonzero(v[highest:] <= level)
    return float(t[highest + under[0]]) if len(under) else math.inf
