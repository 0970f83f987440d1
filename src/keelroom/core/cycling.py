"""Fans that switch: what the gauge swings between, and when they do not switch at all though their mean lies between.

A contact with hysteresis has no steady state of its own between its off and on points. With its stage held off the engine may
settle under the on point: the fan never starts. Held on it may settle over the off point: once started it never stops. Else it
cycles, and the gauge goes from the one point to the other every time, whatever the mean is. The sensor's lag is not in it.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Bools, Floats, put, take
from keelroom.core.electrical.control import Stage, cycling, held_law
from keelroom.core.operating_point import Fixed, Points, Solution, State, evaluate, prepare, solve


class Settled(NamedTuple):
    """How points settle, (n,) [degC] at the engine's outlet.

    solution : as the gauge shows it: fans held off or on where they do not cycle, the mean over off and on times where they do
    mean : the mean everywhere, where like searches begin
    bottom, top : what the gauge swings between, both the steady temperature where nothing cycles
    cycles : whether it swings;  rests : whether a stage is held off or on inside its hysteresis
    """

    solution: Solution
    mean: Solution
    bottom: Floats
    top: Floats
    cycles: Bools
    rests: Bools


def settle(
    points: Points, layout: tuple[bool, int, int], fixed: Fixed | None = None, start: tuple[Floats, Floats] | None = None
) -> Settled:
    """Where n points settle, switching fans followed to their on and off points.

    fixed, start : as `solve` takes them.  Raises SolveError as `solve` does.
    All (n,), temperatures [degC]. Source: a contact with hysteresis has no steady state of its own; checked by an event simulation.
    """
    fixed = fixed or prepare(points, layout)
    mean = solve(points, layout, fixed, start)
    temperature = mean.state.temperature
    stage = cycling(points.fans.law, mean.state.reading)
    none = np.zeros(len(temperature), bool)
    rows = np.flatnonzero(stage.present & mean.settles)
    if not len(rows):
        return Settled(mean, mean, temperature, temperature, none, none)
    stopping, starting = (outlet_where(points, mean.state, reading) for reading in (stage.off, stage.on))
    off, on = _held_margins((take(points, rows), take(fixed, rows), take(stage, rows)), (starting[rows], stopping[rows]), layout)
    stays_off, stays_on = none.copy(), none.copy()
    stays_off[rows] = off >= 0
    stays_on[rows] = (off < 0) & (on <= 0)
    rests = stays_off | stays_on
    cycles = none.copy()
    cycles[rows] = ~rests[rows]
    solution = _resting(points, layout, (fixed, mean), stage, (stays_off, stays_on)) if rests.any() else mean
    steady = solution.state.temperature
    return Settled(solution, mean, np.where(cycles, stopping, steady), np.where(cycles, starting, steady), cycles, rests)


def outlet_where(points: Points, state: State, reading: Floats) -> Floats:
    """Engine-outlet temperature (n,) at which the sensor gives `reading` (n,), from what it gives at `state`; the drop over the core as there.

    Source: linear in the probe’s share of the air.
    """
    outlet: Floats = state.temperature + (reading - state.reading) / (1 - points.fans.sensing.fins)
    return outlet


def topped(points: Points, state: State, temperature: Floats) -> Floats:
    """The top of the swing (n,) where the mean over off and on times were `temperature` (n,).

    Source: as `settle`.
    """
    reading = state.reading + (temperature - state.temperature) * (1 - points.fans.sensing.fins)
    stage = cycling(points.fans.law, reading)
    top: Floats = np.where(stage.present, outlet_where(points, state, stage.on), temperature)
    return top


def _held_margins(inside: tuple[Points, Fixed, Stage], at: tuple[Floats, Floats], layout: tuple[bool, int, int]) -> tuple[Floats, Floats]:
    """Rejection less heat in [W] with the stage held off where it would start, and held on where it would stop."""
    points, fixed, stage = inside
    count = len(at[0])
    twice = np.tile(np.arange(count), 2)
    laws = held_law(
        take(points.fans.law, twice), np.concatenate([stage.below, stage.above]), np.concatenate([stage.below_power, stage.above_power])
    )
    both = take(points, twice)
    margin = evaluate(both._replace(fans=both.fans._replace(law=laws)), take(fixed, twice), np.concatenate(at), layout).margin
    return margin[:count], margin[count:]


def _resting(
    points: Points, layout: tuple[bool, int, int], solved: tuple[Fixed, Solution], stage: Stage, stays: tuple[Bools, Bools]
) -> Solution:
    """The mean solution with the points whose stage rests solved with it held."""
    fixed, mean = solved
    off, on = stays
    rows = np.flatnonzero(off | on)
    part = take(points, rows)
    share, power = (
        np.where(on, above, below)[rows] for above, below in ((stage.above, stage.below), (stage.above_power, stage.below_power))
    )
    part = part._replace(fans=part.fans._replace(law=held_law(part.fans.law, share, power)))
    found = solve(part, layout, take(fixed, rows), (mean.state.temperature[rows], mean.slope[rows]))
    return mean._replace(state=put(mean.state, rows, found.state), residual=max(mean.residual, found.residual))
