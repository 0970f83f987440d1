"""What would be regretted of a choice, over a doubt that is shared by all: the same car, whichever package is in it."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats

DRAWS, SEED = 4000, 1951
"""of the shared doubt; the year regret was named"""


class Regret(NamedTuple):
    """Of n choices: too_small (n,) share of cars it holds not in;  spare (n,) [K] it holds more than was needed in the
    mean, where it holds;  expected, most (n,) in money
    """

    too_small: Floats
    spare: Floats
    expected: Floats
    most: Floats


def margins(hand: Floats, shared: Floats, own: Floats, draws: int = DRAWS, seed: int = SEED) -> Floats:
    """Weather in hand (draws, n) [K] over one doubt all share and one of each.

    hand (n,) [K] likely;  shared, own (n,) [K] standard doubts: of the car, alike for all, and of each choice
    Source: normal doubts.
    """
    dice = np.random.default_rng(seed)
    common = dice.standard_normal((draws, 1)) * shared
    found: Floats = hand + common + dice.standard_normal((draws, len(hand))) * own
    return found


def cooler_chance(drawn: Floats, one: int, other: int) -> float:
    """The chance that one choice has more in hand than another, in the same car."""
    return float((drawn[:, one] > drawn[:, other]).mean())


def regrets(drawn: Floats, cost: Floats, failing: float) -> Regret:
    """What each choice costs over the best one could have chosen, had one known the car.

    drawn (draws, n) [K] in hand;  cost (n,) of each;  failing : what a car that does not hold costs beside
    Source: Savage (1951): regret is what a choice costs over the least any would have, car by car.
    """
    if drawn.shape[1] == 0:
        return Regret(*(np.zeros(0) for _ in range(4)))
    holds = drawn >= 0
    spent = np.where(holds, cost, cost + failing)
    least = spent.min(axis=1, keepdims=True)
    over = spent - least
    with np.errstate(invalid="ignore"):
        spare = np.where(holds, drawn, 0.0).sum(axis=0) / np.maximum(holds.sum(axis=0), 1)
    return Regret(1 - holds.mean(axis=0), spare, over.mean(axis=0), over.max(axis=0))
