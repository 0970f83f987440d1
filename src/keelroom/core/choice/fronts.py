"""What nothing else beats in everything: the front of many choices over several aims, in whole arrays."""

from __future__ import annotations

from typing import Any

import numpy as np

from keelroom.core.arrays import Floats

Kept = np.ndarray[Any, np.dtype[np.bool_]]
BLOCK = 512
"""Choices held against each other at a time"""


def front(aims: Floats) -> Kept:
    """Which of n choices nothing beats: (n,) whether it stays.

    aims (n, k) : less is better; of choices alike in all aims the first stays

    Source: definition of Pareto (1906); those with the least sum first, so that each is held against the front alone.
    """
    count = len(aims)
    order = np.lexsort((np.arange(count), aims.sum(axis=1)))
    stays = np.zeros(count, dtype=bool)
    best = np.empty((0, aims.shape[1]))
    for begins in range(0, count, BLOCK):
        places = order[begins : begins + BLOCK]
        alive = ~_beaten(aims[places], best)
        for place in places[alive]:
            one = aims[place]
            if len(best) and bool((best <= one).all(axis=1).any()):
                continue  # beaten by one of its own block, or the very same is there
            stays[place] = True
            best = np.vstack([best, one[None]])
    return stays


def _beaten(aims: Floats, best: Floats) -> Kept:
    """Whether any of the front is as good in all and better in one (m,)."""
    if not len(best):
        return np.zeros(len(aims), dtype=bool)
    return np.asarray(beats(best, aims).any(axis=1))


def beats(best: Floats, aims: Floats) -> Kept:
    """Which of m choices each of n is beaten by (n, m): as good in all, and better in one.

    best (m, k), aims (n, k) : less is better. Source: definition of Pareto (1906).
    """
    no_worse = np.asarray((best[None] <= aims[:, None]).all(axis=2))
    better = np.asarray((best[None] < aims[:, None]).any(axis=2))
    return np.asarray(no_worse & better)


def knee(aims: Floats) -> int:
    """Place of the front's knee: the choice nearest to the best of each aim, each aim over its span. Raises ValueError
    where there is none.

    Source: distance to the ideal point.
    """
    if not len(aims):
        raise ValueError("no choice")
    low, high = aims.min(axis=0), aims.max(axis=0)
    span = np.where(high > low, high - low, 1.0)
    return int(np.argmin((((aims - low) / span) ** 2).sum(axis=1)))
