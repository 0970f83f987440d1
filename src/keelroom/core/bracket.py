"""One safeguarded search for many roots at once: secant inside a bracket, halving where that stalls."""

from __future__ import annotations

import numpy as np

from keelroom.core.arrays import Floats


class Enclosed:
    """Roots of rising functions, one per element, between `low` and `high` (n,)."""

    def __init__(self, low: Floats, high: Floats) -> None:
        self.low, self.high, self.top = low, high, high
        self.low_value = np.full_like(low, np.nan)
        self.high_value = np.full_like(low, np.nan)
        self.last: tuple[Floats, Floats] | None = None
        self.width = np.full_like(low, np.inf)
        self.steps = 0
        self.slope = np.ones_like(low)
        """the last slope used: at the end, the slope at the root"""

    def following(self, at: Floats, value: Floats, slope: Floats) -> Floats:
        """Where to look next, after `value` (n,) was found at `at` (n,); `slope` (n,) > 0 is a first idea of it."""
        self._narrow(at, value)
        guess = self._secant(at, value, slope)
        if self.steps % 3 == 0:
            # Three steps that did not halve the bracket: interpolate between its ends, or halve.
            stalled = (self.high - self.low) > 0.5 * self.width
            guess = np.where(stalled & (self.steps > 3), 0.5 * (self.low + self.high), guess)
            self.width = self.high - self.low
        self.last = (at, value)
        return self._inside(guess)

    def _narrow(self, at: Floats, value: Floats) -> None:
        self.steps += 1
        above = value > 0
        self.high, self.low = np.where(above, at, self.high), np.where(above, self.low, at)
        self.high_value = np.where(above, value, self.high_value)
        self.low_value = np.where(above, self.low_value, value)

    def _secant(self, at: Floats, value: Floats, slope: Floats) -> Floats:
        if self.last is not None:
            step = at - self.last[0]
            moved = np.abs(step) > 0
            # An element that has settled no longer moves: its slope stays the last one found.
            secant = np.where(moved, (value - self.last[1]) / np.where(moved, step, 1.0), self.slope)
            slope = np.where(secant > 0, secant, slope)
        self.slope = slope
        return at - value / slope

    def _inside(self, guess: Floats) -> Floats:
        """The guess if the bracket allows it; else its own chord, or the unvisited top, or its middle."""
        spread = self.high_value - self.low_value
        chord = np.where(np.isfinite(spread), self.low - self.low_value * (self.high - self.low) / spread, np.nan)
        middle = 0.5 * (self.low + self.high)
        unvisited_top = np.isnan(self.high_value) & (guess >= self.high)
        instead = np.where(np.isfinite(chord), 0.5 * (chord + middle), np.where(unvisited_top, self.top, middle))
        return np.where((guess > self.low) & (guess < self.high), guess, instead)
