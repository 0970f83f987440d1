"""Odds by hand: two explanations, two readings."""

import math

import numpy as np
import pytest

from keelroom.core.odds import LEAST, Saw, log_likelihood, posterior, told_by_a_look


def test_two_explanations_of_two_readings_by_hand():
    """A fault of 10 % that would read 110 and 92 °C, none that would read 100 and 90. Seen: ran hot, 110 at least,
    and 92 on the road, each good to 5 K. Hot: 1 against exp(-2) = 0.13534; on the road 1 against exp(-0.08) =
    0.92312. So 0.1 against 0.9 x 0.13534 x 0.92312 = 0.11244: 47.07 %, and a look tells 0.9975 bits."""
    logs = log_likelihood(np.array([110.0, 100.0]), Saw(110.0, 5.0, math.inf)) + log_likelihood(
        np.array([92.0, 90.0]), Saw(92.0, 5.0, 5.0)
    )
    odds = posterior(np.array([0.1, 0.9]), logs[:, None], np.array([1.0]))
    assert odds == pytest.approx([0.4707, 0.5293], abs=2e-4)
    assert told_by_a_look(odds, np.array([[1.0, 0.0]])) == pytest.approx(0.9975, abs=2e-4)


def test_sides_count_as_they_are_wide_and_nothing_is_impossible():
    """Under 98: nothing against 93, exp(-0.5) = 0.60653 of 103; a hundred over is as unlikely as anything is. A needle
    switched off at 110: 122, one of 12 K over, as likely as 105, one of 5 under."""
    logs = log_likelihood(np.array([93.0, 103.0, 203.0]), Saw(98.0, math.inf, 5.0))
    assert np.exp(logs[:2]) == pytest.approx([1.0, 0.60653], abs=1e-5)
    assert logs[2] == pytest.approx(LEAST)
    over, under = log_likelihood(np.array([122.0, 105.0]), Saw(110.0, 5.0, 12.0))
    assert over == pytest.approx(under)


def test_what_all_share_is_weighed_before_it_is_compared():
    """Each of two explanations fits at one of two sizes of what both share, one of them at the size that counts thrice:
    3/4 and 1/4."""
    sure, never = 0.0, -60.0
    logs = np.array([[sure, never], [never, sure]])
    assert posterior(np.array([0.5, 0.5]), logs, np.array([0.75, 0.25])) == pytest.approx([0.75, 0.25])
