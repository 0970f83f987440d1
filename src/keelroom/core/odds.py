"""What was seen against what each explanation would show: odds by Bayes's rule over all of them, one by one."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats

LEAST = -9.0
"""Log of the least likelihood one observation is given: something nobody thought of may always have shown it."""


class Saw(NamedTuple):
    """What was read in one case [degC].

    under, over [K] : standard doubt of a prediction that lies under it, and over it; inf where that speaks against
                      nothing: what ran hot may have been hotter still, what stayed under a mark cooler
    """

    value: float
    under: float
    over: float


def log_likelihood(predicted: Floats, saw: Saw) -> Floats:
    """Log of the likelihood of one observation for predicted temperatures [degC], any shape; constants left out.

    Source: a normal reading, of unlike width to its sides.
    """
    off = predicted - saw.value
    off = off / np.where(off < 0, saw.under, saw.over)
    found: Floats = np.maximum(-0.5 * off * off, LEAST)
    return found


def posterior(prior: Floats, logs: Floats, weights: Floats) -> Floats:
    """Odds (H,) that sum to 1. prior (H,); logs (H, N) of all that was seen together, at N sizes of what is doubtful in
    all explanations alike; weights (N,) of those. Source: Bayes's rule."""
    log = np.log(prior)[:, None] + logs + np.log(weights)
    odds = np.exp(log - log.max()).sum(axis=1)
    found: Floats = odds / odds.sum()
    return found


def told_by_a_look(odds: Floats, present: Floats) -> Floats:
    """Bits (C,) a look that settles whether a cause is there would tell. odds (H,); present (C, H) 0 or 1.

    Source: the entropy of its yes or no.
    """
    share = np.clip(present @ odds, 1e-12, 1 - 1e-12)
    found: Floats = -(share * np.log2(share) + (1 - share) * np.log2(1 - share))
    return found
