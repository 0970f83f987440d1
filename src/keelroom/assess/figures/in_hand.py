"""What a solved point has in hand at its limit: the one measure acts, cores and packages are told apart by."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.core.answer import Answer, AtLimit
from keelroom.core.plant import Points

OVER_LEAST = 1.0
"""[K] of limit over weather, the least heat is shared out over."""
FAR = 60.0
"""Kelvin of weather over which how much hotter it is says nothing more: from one pole to the desert."""


def within_far(kelvin: float) -> float:
    """Kelvin of weather, FAR at the most either way."""
    return min(max(kelvin, -FAR), FAR)


class InHand(NamedTuple):
    """What a question has in hand at its limit, in its own weather: heat [W] that could be taken off beside what comes
    in, and what a kelvin of hotter weather takes of it [W/K].

    A fan's rest or swing is not in it: at the limit every stage that a rising sensor has passed runs, so that more air,
    a larger core or a cooler day never tell worse.
    """

    heat: float
    per_kelvin: float

    @property
    def weather(self) -> float:
        """How much hotter a day [K] than its own is held; under 0 what is missing."""
        return self.heat / self.per_kelvin if self.per_kelvin > 0 else float("-inf")

    @property
    def day(self) -> float:
        """The weather in hand [K], no farther than there is weather."""
        return within_far(self.weather)

    def hotter(self, before: InHand) -> float | None:
        """How much hotter a day [K] is held than with what was in hand before; None where no weather takes of that."""
        return (self.heat - before.heat) / before.per_kelvin if before.per_kelvin > 0 else None


def hand_of(points: Points, answer: Answer, at: int) -> InHand:
    """What a point has in hand by the answer it has a place in.

    points : those the answer is of, or the one at that place.
    """
    return in_hand_at(points, AtLimit(answer.prepared.running.into_coolant, answer.rejection_at_limit), at)


def in_hand_at(points: Points, told: AtLimit, at: int) -> InHand:
    """What a point has in hand by what it does at its limit.

    points : as `hand_of` takes them. Source: rejection goes with the outlet less the weather, near enough for what is
             told apart by it.
    """
    over = points.plant.limit - points.situation.climate.ambient
    rejects = float(told.rejection[at])
    left = rejects - float(told.into_coolant[at])
    return InHand(left, rejects / max(float(over[at] if over.ndim else over), OVER_LEAST))
