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
STARTS, SPREAD = 16, 0.8
"""Places a fit may begin at, and how far they are spread over the doubts before."""
SPREADS, HOLD = 2, 0.85
"""Times a posterior is spread out, and how far of the way its middle goes each time."""
JUMPS = 12.0
"""Standard doubts a quarter of a doubt moves a reading by at most where no switch is crossed."""
OUTLIER = 4.0
"""Standard doubts from which on a reading is left out of the fit, and told."""
AGAIN = 3
"""Times the readings are looked over for outliers."""
LIKE_PRIOR = 0.9
"""Share of its doubt before from which on the readings have told nothing of it."""
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


class Pains(NamedTuple):
    """How much is asked of a search: places it may begin at, steps at most, whether its slopes are found anew at its
    end."""

    starts: int = STARTS
    rounds: int = ROUNDS
    ends: bool = True
    again: int = 3
    """places it begins at in turn where it comes to no fit"""


WHOLE, QUICK = Pains(), Pains(5, 2, False, 1)


def fitted(
    model: Model,
    prior: Floats,
    seen: Seen,
    tell: Callable[[float], bool] | None = None,
    pains: Pains = WHOLE,
    even: Bools | None = None,
) -> Fit:
    """The likeliest numbers and what is left of their doubt.

    prior (k,) : standard doubts of numbers that are likeliest nought;  tell : told how far it has come, answers whether
    to go on; where it does not, what was found so far is given back;  even (k,) : numbers the readings go straight with
    Source: Gauss and Newton's steps on the sum of squares of readings and priors together from the best of so many
    starts, from the next best ones where the first comes to no fit, Broyden's slopes between steps; then the posterior
    as a normal one, the model straight over all of it and not at its top alone (statistical linear regression on sigma
    points, Julier and Uhlmann), what is bent there taken as a doubt of the reading.
    """
    search = _Search(model, prior, seen, (tell, pains, np.zeros(len(prior), bool) if even is None else even))
    search.begin()
    best = search.one()
    for place in search.starts[1 : pains.again]:
        if best.covers or search.halted:
            break
        search.stand(place)
        found = search.one()
        best = found if _worth(found) < _worth(best) else best
    if pains.ends and not search.halted:
        best = search.spread_out(best)
    return best._replace(runs=search.runs)


def _worth(fit: Fit) -> float:
    """What a fit is judged by: the sum of squares, an outlier for as much as it takes to be one."""
    off = np.where(fit.kept, fit.off, OUTLIER)
    return float((off**2).sum() + ((fit.at / fit.prior) ** 2).sum())


class _Search:
    """Where a fit stands."""

    def __init__(
        self,
        model: Model,
        prior: Floats,
        seen: Seen,
        how: tuple[Callable[[float], bool] | None, Pains, Bools],
    ) -> None:
        self.model, self.prior, self.seen = model, prior, seen
        self.tell, self.pains, self.even = how
        self.at, self.predicted, self.slopes = np.zeros(len(prior)), np.zeros(0), np.zeros((0, 0))
        self.kept, self.runs, self.finished, self.halted = np.ones(len(seen.values), bool), 0, False, False
        self.starts: list[tuple[Floats, Floats]] = []
        """places it may begin at, and the readings there, the best first"""

    def one(self) -> Fit:
        """From where it stands to where it rests, outliers left out."""
        self.kept = np.ones(len(self.seen.values), bool)
        self.find_slopes()
        for look in range(AGAIN):
            self.walk()
            if not self.finished and self.pains.ends:
                self.find_slopes()
                self.walk()
            off = (self.seen.values - self.predicted) / self.seen.doubt
            fine = np.abs(off) < OUTLIER
            if look == AGAIN - 1 or np.array_equal(fine, self.kept) or fine.sum() < max(len(fine) / 2, 1):
                break
            self.kept = fine
        if self.pains.ends and not self.halted:
            self.find_slopes()
        return self.done()

    def stand(self, place: tuple[Floats, Floats]) -> None:
        """Begin at another place."""
        self.at, self.predicted = place

    def ask(self, at: Floats) -> Floats:
        """The readings at numbers (k,)."""
        self.runs += 1
        if self.tell is not None and not self.halted:
            self.halted = not self.tell(min(self.runs / (self.pains.starts + 4 * len(self.prior)), 0.99))
        return self.model(at)

    def begin(self) -> None:
        """The best of so many places spread over what was likely before: near what is switched one place alone may
        lie on the wrong side of it. What readings go straight with is taken at its best at each."""
        nought = self.ask(self.at)
        even = [k for k in range(len(self.prior)) if self.even[k]]
        columns = np.stack([self._moved(k, STEP * self.prior[k], nought) for k in even] or [nought * 0], 1)
        spread = np.random.default_rng(len(self.prior)).standard_normal((self.pains.starts, len(self.prior)))
        found = [self._evened(self.at, nought, columns)]
        for place in np.where(self.even, 0.0, SPREAD * spread * self.prior):
            if self.halted:
                break
            found.append(self._evened(place, self.ask(place), columns))
        costs = [self.cost(*one) for one in found]
        self.starts = [found[k] for k in np.argsort(costs)]
        self.stand(self.starts[0])

    def _evened(self, place: Floats, read: Floats, columns: Floats) -> tuple[Floats, Floats]:
        """A place with what readings go straight with at its best."""
        if not self.even.any():
            return place, read
        prior = self.prior[self.even]
        weighed = columns / self.seen.doubt[:, None]
        whole = weighed.T @ weighed + np.diag(prior**-2.0)
        pull = weighed.T @ ((self.seen.values - read) / self.seen.doubt)
        best = np.asarray(np.linalg.solve(whole, pull), np.float64)
        there = place.copy()
        there[self.even] = best
        return there, read + columns @ best

    def find_slopes(self) -> None:
        """By a step up of each number; down too where up crosses a switch."""
        columns = []
        for k, doubt in enumerate(self.prior):
            h = STEP * doubt
            up = self._moved(k, h, self.predicted)
            if np.abs(up * h / self.seen.doubt).max(initial=0.0) > JUMPS:
                down = self._moved(k, -h, self.predicted)
                up = down if np.abs(down).sum() < np.abs(up).sum() else up
            columns.append(up)
        self.slopes = np.stack(columns, axis=1)

    def _moved(self, k: int, h: float, was: Floats) -> Floats:
        """How the readings, which are `was` where it stands, go with number k."""
        moved = self.at.copy()
        moved[k] += h
        found: Floats = (self.ask(moved) - was) / h
        return found

    def walk(self) -> None:
        """Step by step until it rests, no step for the worse."""
        self.finished = False
        for _ in range(self.pains.rounds):
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

    def spread_out(self, fit: Fit) -> Fit:
        """A fit whose doubts hold over all of what is likely: a thermostat that shuts or a fan that stops bends the
        model within it."""
        bent = ~self.even
        at, covariance, count = fit.at, fit.covariance, int(bent.sum())
        for _ in range(SPREADS):
            root = math.sqrt(count) * np.linalg.cholesky(covariance[np.ix_(bent, bent)])
            points = np.repeat(at[None, :], 2 * count, axis=0)
            points[:, bent] += np.concatenate([root.T, -root.T])
            read = np.array([self.ask(point) for point in points])
            if self.halted:
                return fit
            off, moved = read - read.mean(axis=0), points[:, bent] - at[bent]
            inner = np.linalg.solve(moved.T @ moved, moved.T @ off).T
            slopes = fit.slopes.copy()
            slopes[:, bent] = inner
            left = ((off - moved @ inner.T) ** 2).mean(axis=0)
            doubt = np.sqrt(self.seen.doubt**2 + left)
            weight, whole = _normal(slopes, doubt, fit.kept, self.prior)
            pull = slopes.T @ (weight * (self.seen.values - read.mean(axis=0) + slopes @ at))
            there = np.asarray(np.linalg.solve(whole, pull), np.float64)
            at = at + HOLD * (there - at)
            covariance = np.asarray(np.linalg.inv(whole), np.float64)
        predicted = self.ask(at)
        off = (self.seen.values - predicted) / doubt
        misfit = _misfit(off, fit.kept)
        return fit._replace(
            at=at, covariance=covariance, slopes=slopes, predicted=predicted, off=off, misfit=min(misfit, fit.misfit)
        )

    def cost(self, at: Floats, predicted: Floats) -> float:
        """Sum of squares of readings that are kept and priors."""
        off = np.where(self.kept, (self.seen.values - predicted) / self.seen.doubt, 0.0)
        return float((off**2).sum() + ((at / self.prior) ** 2).sum())

    def done(self) -> Fit:
        """What came of it."""
        off = (self.seen.values - self.predicted) / self.seen.doubt
        _, whole = _normal(self.slopes, self.seen.doubt, self.kept, self.prior)
        covariance = np.asarray(np.linalg.inv(whole), np.float64)
        misfit = _misfit(off, self.kept)
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


def _misfit(off: Floats, kept: Bools) -> float:
    return float((off[kept] ** 2).mean()) if kept.any() else 1.0


def _normal(slopes: Floats, doubt: Floats, kept: Bools, prior: Floats) -> tuple[Floats, Floats]:
    """Weights of readings (n,), none for those left out, and the normal equations' matrix (k, k), priors in it."""
    weight: Floats = np.where(kept, doubt**-2.0, 0.0)
    whole: Floats = slopes.T @ (weight[:, None] * slopes) + np.diag(prior**-2.0)
    return weight, whole


def _step(at: Floats, prior: Floats, slopes: Floats, predicted: Floats, seen: Seen, kept: Bools) -> Floats:
    weight, whole = _normal(slopes, seen.doubt, kept, prior)
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
