"""The ambient up to which a package holds its limit, and the one at which it boils: whole air paths at other
ambients."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.answer import Answer
from keelroom.core.arrays import Floats, take
from keelroom.core.coupling import prepare
from keelroom.core.cycling import risen
from keelroom.core.operating_point import evaluate
from keelroom.core.plant import Layout, Points

OTHERS = (-25.0, 12.0, 35.0)
"""Kelvin from the stated ambient of the others at which the air path is solved."""
STEPS = np.array([0.0, *OTHERS])
COLDEST = -60.0
"""[degC] under which no weather is: a package that holds on no such day holds on none, and no figure says by how
much; nor is any day told that is hotter than what is held on it."""
CUBIC = np.linalg.inv(np.vander(STEPS))
"""Takes values at STEPS to the coefficients of the cubic through them, the highest power first."""


class Ambients(NamedTuple):
    """Arrays (n,) [degC]. holds : the limit is just reached;  boils : the outlet boils, a degree for a degree."""

    holds: Floats
    boils: Floats


def holding_ambients(points: Points, answer: Answer, layout: Layout) -> Ambients:
    """Ambients at which the heat balance is even at the limit, and at boiling, of the n points `answer` belongs to.

    Source: a cubic through the heat margins of whole solves at STEPS, straight beyond them; raises SolveError as
            `prepare` does.
    """
    count = len(points.plant.limit)
    nominal = answer.prepared
    others = take(points, np.tile(np.arange(count), len(OTHERS)))
    ambient = others.situation.climate.ambient + np.repeat(OTHERS, count)
    others = others._replace(
        situation=others.situation._replace(climate=others.situation.climate._replace(ambient=ambient))
    )
    begun = prepare(others, layout, take(answer.solution.fixed, np.tile(np.arange(count), len(OTHERS))))
    found = []
    for target in (points.plant.limit, nominal.boiling):
        margins = []
        for stack, fixed in ((points, nominal), (others, begun)):
            asked = np.tile(target, len(stack.plant.limit) // count)
            held = risen(stack.situation.command.law, answer.solution.state, asked)
            state = evaluate(stack, fixed, asked, layout, held)
            margins.append((state.rejection - fixed.running.into_coolant[: len(asked)]).reshape(-1, count))
        even = points.situation.climate.ambient + _where_even(np.concatenate(margins))
        found.append(np.clip(even, COLDEST, target))
    return Ambients(*found)


def _where_even(margin: Floats) -> Floats:
    """Kelvin from the stated ambient (n,) at which the heat margin (STEPS, n) [W] is nothing: the curve through all,
    straight beyond its ends."""
    order = np.argsort(STEPS)
    at, values = STEPS[order], margin[order]
    cubed, squared, plain, constant = CUBIC @ margin
    low, high = np.full(values.shape[1], at[0]), np.full(values.shape[1], at[-1])
    for _ in range(40):
        middle = 0.5 * (low + high)
        falls = ((cubed * middle + squared) * middle + plain) * middle + constant > 0
        low, high = np.where(falls, middle, low), np.where(falls, high, middle)
    found: Floats = 0.5 * (low + high)
    for end, near in ((0, 1), (-1, -2)):
        slope = np.minimum((values[end] - values[near]) / (at[end] - at[near]), -1e-6)
        outside = values[0] <= 0 if end == 0 else values[-1] > 0
        found = np.where(outside, at[end] - values[end] / slope, found)
    return found
