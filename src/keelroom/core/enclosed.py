"""One safeguarded search for the root of a rising function: secant inside a bracket, halving where that stalls.

Compiled where a C compiler was at hand (`enclosed.pxd` types it).
"""


class Enclosed:
    """A root between `low` and `high`; slope: the last one used, at the end the slope at the root."""

    def begin(self, low, high):
        """Start a new search."""
        self.low, self.high, self.top, self.width = low, high, high, 1e300
        self.low_known, self.high_known, self.steps, self.slope = False, False, 0, 1.0
        self.low_value, self.high_value, self.last_at, self.last_value = 0.0, 0.0, 0.0, 0.0

    def following(self, at, value, slope):
        """Where to look next, after `value` was found at `at`; slope > 0 is a first idea of it."""
        self.narrow(at, value)
        if self.steps > 1:
            slope = self.secant(at, value, slope)
        self.slope = slope
        guess = at - value / slope
        if self.steps % 3 == 0:
            # Three steps that did not halve the bracket: interpolate between its ends, or halve.
            if self.high - self.low > 0.5 * self.width and self.steps > 3:
                guess = 0.5 * (self.low + self.high)
            self.width = self.high - self.low
        self.last_at, self.last_value = at, value
        return self.inside(guess)

    def narrow(self, at, value):
        """Take a found value for an end of the bracket."""
        self.steps += 1
        if value > 0:
            self.high, self.high_value, self.high_known = at, value, True
        else:
            self.low, self.low_value, self.low_known = at, value, True

    def secant(self, at, value, slope):
        """The slope from the last two values, where they tell one."""
        step = at - self.last_at
        if step == 0:
            return self.slope
        found = (value - self.last_value) / step
        return found if found > 0 else slope

    def inside(self, guess):
        """The guess if the bracket allows it; else its own chord, or the unvisited top, or its middle."""
        if self.low < guess < self.high:
            return guess
        middle = 0.5 * (self.low + self.high)
        if self.low_known and self.high_known:
            chord = self.low - self.low_value * (self.high - self.low) / (self.high_value - self.low_value)
            return 0.5 * (chord + middle)
        if not self.high_known and guess >= self.high:
            return self.top
        return middle
