"""Hours in doubt: a step's three figures, its share made twice, and what all of them come to together."""

from __future__ import annotations

from typing import NamedTuple, TypeVar

import numpy as np

from keelroom.core.arrays import Floats

F = TypeVar("F", float, Floats)
DRAWS, SEED = 10_000, 1959
PACE = 0.15
"""Standard doubt of a shop's pace, alike for all steps of a build, as a share (common practice, no source): steps by
themselves would even out, a tired crew does not."""
LOW, HIGH = 0.10, 0.90
"""Ends of a band of 80 of 100."""


class Doubtful(NamedTuple):
    """Steps (n,): low, likely, high [s], and the share of cases each is made twice."""

    low: Floats
    likely: Floats
    high: Floats
    again: Floats


class Total(NamedTuple):
    """All steps together [s]: mean, 80 of 100 between low and high, half under middle;  moves (n,): share of what is in
    doubt each step answers for, what the pace answers for left out;  draws (m,)"""

    mean: float
    low: float
    middle: float
    high: float
    moves: Floats
    draws: Floats


def pert_mean(low: F, likely: F, high: F) -> F:
    """Mean of a three-figure estimate. Source: PERT, Operations Research 7 (1959): (a + 4 m + b) / 6."""
    return (low + 4 * likely + high) / 6


def pert_spread(low: Floats, high: Floats) -> Floats:
    """Its standard deviation as that paper has it: a sixth of the span."""
    found: Floats = (high - low) / 6
    return found


def shapes(doubt: Doubtful) -> tuple[Floats, Floats]:
    """Of the beta distribution over each span whose mean is PERT's: alpha and beta (n,); the span's mean goes with
    alpha over both. Source: beta-PERT, alpha + beta = 6."""
    span = np.maximum(doubt.high - doubt.low, 1e-9)
    alpha = 1 + 4 * (doubt.likely - doubt.low) / span
    return alpha, 6 - alpha


def expected(doubt: Doubtful) -> Floats:
    """Mean hours of each step, made twice as often as it is (n,) [s]. Source: mean of independent parts."""
    found: Floats = pert_mean(doubt.low, doubt.likely, doubt.high) * (1 + doubt.again)
    return found


def simulated(doubt: Doubtful, pace: float = PACE, draws: int = DRAWS, seed: int = SEED) -> Total:
    """All steps together, `draws` times over; the same seed gives the same figures.

    Source: Monte Carlo on beta-PERT; a step made twice is done twice over; pace lognormal about one in the mean.
    """
    count = len(doubt.low)
    if count == 0:
        return Total(0.0, 0.0, 0.0, 0.0, np.zeros(0), np.zeros(draws))
    dice = np.random.default_rng(seed)
    alpha, beta = shapes(doubt)
    taken = doubt.low + (doubt.high - doubt.low) * dice.beta(alpha, beta, (draws, count))
    taken *= 1 + (dice.random((draws, count)) < doubt.again)
    steps = taken.sum(axis=1)
    totals = steps * np.exp(pace * dice.standard_normal(draws) - pace**2 / 2)
    spread = taken.var(axis=0)
    moves = spread / max(float(spread.sum()), 1e-12)
    low, middle, high = (float(value) for value in np.quantile(totals, (LOW, 0.5, HIGH)))
    return Total(float(totals.mean()), low, middle, high, moves, totals)
