"""Fans that switch: what the gauge swings between, and when they do not switch at all though their mean lies between.

A contact with hysteresis has no steady state of its own between its off and on points. With its stage held off the
engine may
settle under the on point: the fan never starts. Held on it may settle over the off point: once started it never
stops. Else it cycles, and the gauge goes from the one point to the other every time, whatever the mean is. The
sensor's lag is not in it.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Bools, Floats, Ints, joined, put, take
from keelroom.core.coupling import prepare
from keelroom.core.electrical.control import Law, SpeedStage, cycling, risen_share
from keelroom.core.operating_point import Held, evaluate, looked_at, solve
from keelroom.core.plant import AS_COMMANDED, Fixed, Layout, Points, Solution, State


class Settled(NamedTuple):
    """How points settle, (n,) [degC] at the engine's outlet.

    solution : as the gauge shows it: fans held off or on where they do not cycle, the mean over off and on times
               where they do
    mean : the mean everywhere, where like searches begin
    bottom, top : what the gauge swings between, both the steady temperature where nothing cycles
    cycles : whether it swings;  rests : whether a stage is held off or on inside its hysteresis
    held : shares of flow and power it is held at where it rests, (2, n)
    """

    solution: Solution
    mean: Solution
    bottom: Floats
    top: Floats
    cycles: Bools
    rests: Bools
    held: Floats

    def near(self, rows: Ints) -> Settled:
        """Where searches for points not far from these begin, for points `rows` (m,) of them."""
        mean = self.mean._replace(state=take(self.mean.state, rows), slope=self.mean.slope[rows])
        return self._replace(mean=mean, solution=mean, rests=np.zeros(len(rows), bool))


def settle(
    points: Points,
    layout: Layout,
    fixed: Fixed | None = None,
    start: Settled | None = None,
    looked: Held | None = None,
) -> Settled:
    """Where n points settle, switching fans followed to their on and off points.

    fixed : as `solve` takes it;  start : of like points, where the searches begin.  Raises SolveError as `solve` does.
    looked : which of the points are looked at and how, as commanded; all as they are where None
    All (n,), temperatures [degC]. Source: a contact with hysteresis has no steady state of its own; checked by an
    event simulation.
    """
    fixed = fixed or prepare(points, layout)
    law, fins = points.situation.command.law, points.situation.command.sensing.fins
    if looked is None:
        looked = looked_at(np.arange(len(fins)))
    else:
        law, fins = take(law, looked.rows), fins[looked.rows]
    mean, expected = _solved(points, layout, fixed, start, looked)
    temperature = mean.state.temperature
    stage = cycling(law, mean.state.reading)
    none = np.zeros(len(temperature), bool)
    rows = np.flatnonzero(stage.present & mean.settles)
    if not len(rows):
        return Settled(mean, mean, temperature, temperature, none, none, np.zeros((2, len(none))))
    stopping, starting = (outlet_where(fins, mean.state, reading) for reading in (stage.off, stage.on))
    off, on = _held_margins(
        points, fixed, (take(looked, rows), take(stage, rows)), [starting[rows], stopping[rows]], layout
    )
    stays_off, stays_on = none.copy(), none.copy()
    stays_off[rows] = off >= 0
    stays_on[rows] = (off < 0) & (on <= 0)
    rests = stays_off | stays_on
    cycles = none.copy()
    cycles[rows] = ~rests[rows]
    shares = ((stage.above, stage.below), (stage.above_power, stage.below_power))
    held = np.stack([np.where(rests, np.where(stays_on, above, below), 0.0) for above, below in shares])
    solution = mean
    if rests.any():
        as_expected = (
            expected is not None
            and start is not None
            and np.array_equal(rests, start.rests)
            and np.array_equal(held, start.held)
        )
        solution = _put(
            mean, rests, expected if expected and as_expected else _resting(points, layout, mean, (rests, held), looked)
        )
    steady = solution.state.temperature
    return Settled(
        solution, mean, np.where(cycles, stopping, steady), np.where(cycles, starting, steady), cycles, rests, held
    )


def _solved(
    points: Points, layout: Layout, fixed: Fixed, start: Settled | None, looked: Held
) -> tuple[Solution, Solution | None]:
    """The mean solution, and beside it, in the same search, the points that rested at `start` with their stage held
    as it was."""
    if start is None:
        return solve(points, layout, fixed, held=looked), None
    rows, count = np.flatnonzero(start.rests), len(looked.rows)
    begun = [
        np.concatenate([mean, held[rows]])
        for mean, held in (
            (start.mean.state.temperature, start.solution.state.temperature),
            (start.mean.slope, start.solution.slope),
        )
    ]
    share, power = start.held[:, rows]
    both = joined(looked, take(looked, rows)._replace(share=share, power=power))
    found = solve(points, layout, fixed, (begun[0], begun[1]), both)
    mean, expected = (
        found._replace(state=take(found.state, part), settles=found.settles[part], slope=found.slope[part])
        for part in (np.s_[:count], np.s_[count:])
    )
    return mean, expected if len(rows) else None


def outlet_where(fins: Floats, state: State, reading: Floats) -> Floats:
    """Engine-outlet temperature (n,) at which the sensor gives `reading` (n,), from what it gives at `state`; the
    drop over the core as there. fins (n,): share of the air in what it sees.

    Source: linear in the probe’s share of the air.
    """
    outlet: Floats = state.temperature + (reading - state.reading) / (1 - fins)
    return outlet


def fans_held(count: int, share: float) -> Held:
    """So many points with every fan held at a share of full flow and power, whatever the sensor reads.

    Source: definition.
    """
    return looked_at(np.arange(count), share, share)


def risen(law: Law, state: State, temperature: Floats) -> Held:
    """Points under their laws (n,) with only those contacts on that an engine outlet rising from `state` has passed by
    `temperature`: a switch over the limit is no help at it.

    law, temperature [degC] : (n,) or whole stacks of n. Source: a contact with hysteresis; the sensor's lead as at
    `state`.
    """
    stacks = len(temperature) // len(state.temperature)
    share, power, known = risen_share(law, temperature - np.tile(state.temperature - state.reading, stacks))
    held, powered = (np.where(known, value, AS_COMMANDED) for value in (share, power))
    return looked_at(np.arange(len(temperature)), held, powered)


def _held_margins(
    points: Points, fixed: Fixed, switched: tuple[Held, SpeedStage], at: list[Floats], layout: Layout
) -> tuple[Floats, Floats]:
    """Rejection less heat in [W] of those that switch, with the stage held off where it would start, and held on where
    it would stop."""
    looked, stage = switched
    below, above = (
        looked._replace(share=share, power=power)
        for share, power in ((stage.below, stage.below_power), (stage.above, stage.above_power))
    )
    margin = evaluate(points, fixed, np.concatenate(at), layout, joined(below, above)).margin
    return margin[: len(looked.rows)], margin[len(looked.rows) :]


def _resting(points: Points, layout: Layout, mean: Solution, held: tuple[Bools, Floats], looked: Held) -> Solution:
    """The points whose stage rests, solved with it held."""
    rests, shares = held
    rows = np.flatnonzero(rests)
    begun, (share, power) = (mean.state.temperature[rows], mean.slope[rows]), shares[:, rows]
    return solve(points, layout, mean.fixed, begun, take(looked, rows)._replace(share=share, power=power))


def _put(mean: Solution, rests: Bools, held: Solution) -> Solution:
    """The mean solution with that of the points whose stage rests in their places."""
    rows = np.flatnonzero(rests)
    slope = mean.slope.copy()
    slope[rows] = held.slope
    return mean._replace(
        state=put(mean.state, rows, held.state), slope=slope, residual=max(mean.residual, held.residual)
    )
