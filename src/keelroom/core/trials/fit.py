"""Bayesian least squares: what is doubtful, moved from what was likely before to what the readings say, with what is
left of its doubt."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Bools, Floats

STEP = 0.25
"""Share of a standard doubt a slope is found over."""
ENOUGH = 0.04
"""Standard doubts by which a fit may still move when it is done."""
ROUNDS, HALVINGS, LEAST_GAIN = 9, 3, 0.02
STARTS, SPREAD = 14, 0.8
"""Places a fit may begin at, and how far they are spread over the doubts before."""
JUMPS = 12.0
"""Standard doubts a quarter of a doubt moves a reading by at most where no switch is crossed."""
OUTLIER = 4.0
"""Standard doubts from which on a reading is left out of the fit, and told."""
AGAIN = 3
"""Times the readings are looked over for outliers."""
LIKE_PRIOR = 0.9
"""Share of its doubt before from which on the readings have told nothing of it."""
WITHIN = 1.2816
"""Standard doubts either way that hold 80 of 100."""
TRADES = 0.6
"""Correlation from which on two are said to trade off."""


class Seen(NamedTuple):
    """Readings (n,): values, and the standard doubt of each beside what is fitted, one independent of the other."""

    values: Floats
    doubt: Floats


class Fit(NamedTuple):
    """What comes of a fit of k doubtful numbers to n readings.

    at (k,) : the likeliest;  covariance (k, k) of what is left;  prior (k,) : standard doubts before
    slopes (n, k) : of the readings there;  predicted (n,);  off (n,) : read less predicted, in standard doubts
    kept (n,) : readings the fit goes by, outliers left out;  misfit : mean of off squared over those kept, 1 where the
    doubts of readings are what they are said to be;  runs : times the model was asked;  finished : it came to rest
    """

    at: Floats
    covariance: Floats
    prior: Floats
    slopes: Floats
    predicted: Floats
    off: Floats
    kept: Bools
    misfit: float
    runs: int
    finished: bool

    @property
    def doubts(self) -> Floats:
        """Standard doubts (k,) that are left."""
        found: Floats = np.sqrt(np.diag(self.covariance))
        return found

    @property
    def ties(self) -> Floats:
        """Correlations (k, k) of what is left."""
        found: Floats = self.covariance / np.outer(self.doubts, self.doubts)
        return found

    @property
    def expected_spread(self) -> float:
        """Standard spread of `misfit` where the doubts are right. Source: variance of a chi-squared mean."""
        return math.sqrt(2 / max(int(self.kept.sum()), 1))

    @property
    def covers(self) -> bool:
        """Whether the readings scatter about the fit as their doubts let them."""
        return self.misfit < 1 + 3 * self.expected_spread


Model = Callable[[Floats], Floats]
"""Of numbers (k,) the readings (n,) they would give."""


def fitted(model: Model, prior: Floats, seen: Seen, tell: Callable[[float], bool] | None = None) -> Fit:
    """The likeliest numbers and what is left of their doubt.

    prior (k,) : standard doubts of numbers that are likeliest nought;  tell : told how far it has come, answers whether
    to go on; where it does not, what was found so far is given back
    Source: Gauss and Newton's steps on the sum of squares of readings and priors together from the best of STARTS, the
    posterior taken as normal about its top (Laplace); Broyden's slopes between steps.
    """
    search = _Search(model, prior, seen, tell)
    search.begin()
    search.find_slopes()
    for look in range(AGAIN):
        search.walk()
        if not search.finished:
            search.find_slopes()
            search.walk()
        off = (seen.values - search.predicted) / seen.doubt
        fine = np.abs(off) < OUTLIER
        if look == AGAIN - 1 or np.array_equal(fine, search.kept) or fine.sum() < max(len(fine) / 2, 1):
            break
        search.kept = fine
    if not search.halted:
        search.find_slopes()
    return search.done()


class _Search:
    """Where a fit stands."""

    def __init__(self, model: Model, prior: Floats, seen: Seen, tell: Callable[[float], bool] | None) -> None:
        self.model, self.prior, self.seen, self.tell = model, prior, seen, tell
        self.at, self.predicted, self.slopes = np.zeros(len(prior)), np.zeros(0), np.zeros((0, 0))
        self.kept, self.runs, self.finished, self.halted = np.ones(len(seen.values), bool), 0, False, False

    def ask(self, at: Floats) -> Floats:
        """The readings at numbers (k,)."""
        self.runs += 1
        if self.tell is not None and not self.halted:
            self.halted = not self.tell(min(self.runs / (STARTS + 4 * len(self.prior)), 0.99))
        return self.model(at)

    def begin(self) -> None:
        """The best of so many places spread over what was likely before: near what is switched one place alone may
        lie on the wrong side of it."""
        spread = np.random.default_rng(len(self.prior)).standard_normal((STARTS, len(self.prior)))
        self.predicted = self.ask(self.at)
        best = self.cost(self.at, self.predicted)
        for place in SPREAD * spread * self.prior:
            if self.halted:
                return
            found = self.ask(place)
            # A line that is off evenly, as by its zero, is not held against a place.
            if (cost := self.cost(place, found)) < best:
                best, self.at, self.predicted = cost, place, found

    def find_slopes(self) -> None:
        """By a step up of each number; down too where up crosses a switch."""
        columns = []
        for k, doubt in enumerate(self.prior):
            h = STEP * doubt
            up = self._moved(k, h)
            if np.abs(up * h / self.seen.doubt).max(initial=0.0) > JUMPS:
                down = self._moved(k, -h)
                up = down if np.abs(down).sum() < np.abs(up).sum() else up
            columns.append(up)
        self.slopes = np.stack(columns, axis=1)

    def _moved(self, k: int, h: float) -> Floats:
        moved = self.at.copy()
        moved[k] += h
        return (self.ask(moved) - self.predicted) / h

    def walk(self) -> None:
        """Step by step until it rests, no step for the worse."""
        self.finished = False
        for _ in range(ROUNDS):
            if self.halted:
                return
            step = _step(self.at, self.prior, self.slopes, self.predicted, self.seen, self.kept)
            if np.all(np.abs(step) < ENOUGH * self.prior):
                self.finished = True
                return
            if not self._along(step):
                if self._fresh:
                    self.finished = True
                    return
                self.find_slopes()
                self._fresh = True
            else:
                self._fresh = False

    _fresh = False
    """whether the slopes belong to where it stands"""

    def _along(self, step: Floats) -> bool:
        was, share = self.cost(self.at, self.predicted), 1.0
        for _ in range(HALVINGS):
            there = self.at + share * step
            found = self.ask(there)
            if self.cost(there, found) < was - LEAST_GAIN:
                moved = share * step
                bent = found - self.predicted - self.slopes @ moved
                # Broyden (1965), over numbers as they are doubtful.
                scaled = moved / self.prior**2
                self.slopes = self.slopes + np.outer(bent, scaled) / float(moved @ scaled)
                self.at, self.predicted = there, found
                return True
            share /= 3
        return False

    def cost(self, at: Floats, predicted: Floats) -> float:
        """Sum of squares of readings that are kept and priors."""
        off = np.where(self.kept, (self.seen.values - predicted) / self.seen.doubt, 0.0)
        return float((off**2).sum() + ((at / self.prior) ** 2).sum())

    def done(self) -> Fit:
        """What came of it."""
        off = (self.seen.values - self.predicted) / self.seen.doubt
        weight = np.where(self.kept, self.seen.doubt**-2.0, 0.0)
        whole = self.slopes.T @ (weight[:, None] * self.slopes) + np.diag(self.prior**-2.0)
        covariance = np.asarray(np.linalg.inv(whole), np.float64)
        misfit = float((off[self.kept] ** 2).mean()) if self.kept.any() else 1.0
        return Fit(
            self.at,
            covariance,
            self.prior,
            self.slopes,
            self.predicted,
            off,
            self.kept,
            misfit,
            self.runs,
            self.finished,
        )


def _step(at: Floats, prior: Floats, slopes: Floats, predicted: Floats, seen: Seen, kept: Bools) -> Floats:
    weight = np.where(kept, seen.doubt**-2.0, 0.0)
    whole = slopes.T @ (weight[:, None] * slopes) + np.diag(prior**-2.0)
    pull = slopes.T @ (weight * (seen.values - predicted)) - at / prior**2
    return np.asarray(np.linalg.solve(whole, pull), np.float64)


def widened(fit: Fit) -> Floats:
    """Covariance (k, k) with what the readings scatter more than their doubts let them, no wider than it was before.

    Source: Birge's ratio.
    """
    ratio = max(fit.misfit, 1.0) if not fit.covers else 1.0
    wide = ratio * fit.covariance
    shrink = np.minimum(fit.prior / np.sqrt(np.diag(wide)), 1.0)
    found: Floats = wide * np.outer(shrink, shrink)
    return found


def left_after(covariance: Floats, slope: Floats, doubt: float) -> Floats:
    """What would be left of a doubt (k, k) after one reading more, of such slopes (k,) and standard doubt.

    Source: Sherman and Morrison's rule: it hangs on no value read.
    """
    seen = covariance @ slope
    found: Floats = covariance - np.outer(seen, seen) / (doubt**2 + float(slope @ seen))
    return found


def spread_of(covariance: Floats, slope: Floats) -> float:
    """Standard doubt of what goes by slopes (k,). Source: first-order propagation."""
    return math.sqrt(max(float(slope @ covariance @ slope), 0.0))
