"""Tolerance stacks: how far a gap can be from what the readings say."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple


class Link(NamedTuple):
    """One reading in the chain of a gap. tolerance: ± [m] it may be off; share: how far the gap moves per metre of
    it, 0 to 1."""

    label: str
    path: tuple[str, ...]
    tolerance: float
    share: float = 1.0

    @property
    def effect(self) -> float:
        """± [m] on the gap."""
        return abs(self.tolerance * self.share)


def worst_case(links: Sequence[Link]) -> float:
    """± [m] with every reading off the wrong way at once.

    Source: sum of effects.
    """
    return math.fsum(link.effect for link in links)


def root_sum_square(links: Sequence[Link]) -> float:
    """± [m] with readings off independently of each other: the root of the sum of squares.

    Source: independent doubts.
    """
    return math.sqrt(math.fsum(link.effect**2 for link in links))


def dominant(links: Sequence[Link]) -> Link | None:
    """The reading that weighs most; None in an empty chain.

    Effects [m].
    """
    return max(links, key=lambda link: link.effect, default=None)


def chance_under(gap: float, wanted: float, spread: float) -> float:
    """Chance that the true gap is under what is wanted, where the root-sum-square ± covers two standard deviations.

    0..1. Source: the normal distribution.
    """
    if spread <= 0:
        return float(gap < wanted)
    return 0.5 * math.erfc((gap - wanted) / (spread / 2) / math.sqrt(2))
