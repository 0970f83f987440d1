"""The steady answer per duty case: temperature with its band, margins, and what happens where none exists."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Bools, Floats, Ints, joined, put, take
from keelroom.core.coupling import prepare, varied_air
from keelroom.core.cycling import Settled, outlet_where, risen, settle
from keelroom.core.electrical.control import ABSENT
from keelroom.core.loop.circuit import THERMOSTAT_SPAN
from keelroom.core.operating_point import evaluate, looked_at, thermal_mass
from keelroom.core.plant import CEILING, AirAt, Fixed, Layout, Points, Solution, State
from keelroom.core.thermal.tube_side import tube_nusselt
from keelroom.core.unsure import FAN_STEP, FLOW_STEP, VARIED, Looks, Unsure, Worth, worth_of

SEEN = 0.5
"""[K] the sensor sees less than the outlet from which on its own place counts."""
RISES = np.array([0.0, 1.5, 4.0, 9.0, 19.0, 40.0])
"""[K] over what the sensor reads at a fan's start, or the thermostat, at which the outlet is looked for; the drop over
the core with no fan on is some 5 to 20."""
SLOPE_STEP = 1.0
"""[K] under the solved temperature over which it is found how the heat margin rises: what is won cools."""
LEAST_HEAT = 0.05
"""Share of the heat the low end of a band is solved with at least."""
FANS_ON = 0.05
"""Share of full flow from which on doubts of the air are looked at with the fans running."""
INTERVAL, WITHIN = 0.80, 1.2816
"""Share of cases the band is meant to hold, and the standard doubts either way that do for a normal one."""


class Band(NamedTuple):
    """What the doubts are worth, and the temperatures the INTERVAL of all together maps to [degC].

    high is inf where the hot end does not settle; all (n,)
    """

    worth: Worth
    low: Floats
    high: Floats
    chance: Floats
    """that the limit is passed, 0..1"""


class Answer(NamedTuple):
    """Steady answers over n points, arrays (n,) unless said.

    settled_at : where each settles, swings of cycling fans told;  fan_on_at [degC] of engine outlet when the first
                 fan comes on
    margin [K] limit less temperature
    rejection_at_limit [W];  climb [K/s] at the limit where heat is left over, else 0
    time_to_limit [s] from thermostat full open, inf where the limit is never reached
    slope [W/K] of the heat margin at the solved temperature;  per_core [W] per share of the core's conductance there
    varied : the air with what is doubtful of it weakened, where the next like search begins
    """

    settled_at: Settled
    band: Band
    fan_on_at: Floats
    boiling: Floats
    margin: Floats
    rejection_at_limit: Floats
    climb: Floats
    time_to_limit: Floats
    slope: Floats
    per_core: Floats
    prepared: Fixed
    varied: AirAt

    @property
    def solution(self) -> Solution:
        """The steady points; where the fans cycle, the mean over their off and on times."""
        return self.settled_at.solution

    @property
    def temperature(self) -> Floats:
        """What the gauge reaches (n,) [degC]: the top of the swing where fans cycle."""
        return self.settled_at.top

    @property
    def settled(self) -> Bools:
        """A steady temperature, or a swing, below boiling exists."""
        below: Bools = self.temperature < self.boiling
        return self.solution.settles & below


def steady_answer(points: Points, unsure: Unsure, layout: Layout, start: Answer | None = None) -> Answer:
    """Temperatures, bands and margins of n points, from what is not known of them.

    Source: first-order propagation of independent doubts through the heat margin; raises SolveError as `solve` does.
    """
    prepared = prepare(points, layout, start.prepared if start else None)
    settled = settle(points, layout, prepared, start.settled_at if start else None)
    state = settled.mean.state
    curve = _curve(points, prepared, state, layout)
    (fans, leaks, road), varied = _air_looks(points, prepared, state, layout, start.varied if start else None)
    looks = Looks(curve.core, np.maximum(fans, 0.0), np.abs(leaks), np.abs(road), curve.flow)
    worth = worth_of(points, prepared, state, unsure, looks)
    doubt, full_heat = worth.together, prepared.running.into_coolant
    low, high = _ends(points, prepared, settled, doubt, layout)
    left_over = np.maximum(full_heat - curve.at_limit, 0.0)
    mass = thermal_mass(points)
    return Answer(
        settled_at=settled,
        band=Band(
            worth,
            low,
            high,
            _chance(settled, points.plant.limit, (curve.at_limit - full_heat) / doubt),
        ),
        fan_on_at=_fan_on(points, prepared, settled, layout),
        boiling=prepared.boiling,
        margin=points.plant.limit - settled.top,
        rejection_at_limit=curve.at_limit,
        climb=left_over / mass,
        time_to_limit=_time_to_limit(points, full_heat, (curve.nodes, curve.rejection), mass),
        slope=curve.slope,
        per_core=curve.core / FAN_STEP,
        prepared=prepared,
        varied=varied,
    )


def following(points: Points, layout: Layout, last: Answer) -> Answer:
    """Where points like those of `last` settle; what is doubtful about them as it was there, its band moved along.

    For what is looked at while something moves: a third of the work of `steady_answer`, whose band replaces this one
    at rest.
    Raises SolveError as `solve` does. Source: a band's width hardly changes with a small move.
    """
    nominal = prepare(points, layout, last.prepared)
    settled = settle(points, layout, nominal, last.settled_at)
    moved = settled.top - last.temperature
    band = last.band._replace(low=last.band.low + moved, high=last.band.high + moved)
    return last._replace(
        settled_at=settled,
        band=band,
        fan_on_at=_fan_on(points, nominal, settled, layout),
        boiling=nominal.boiling,
        margin=points.plant.limit - settled.top,
        prepared=nominal,
    )


def _ends(points: Points, prepared: Fixed, settled: Settled, doubt: Floats, layout: Layout) -> tuple[Floats, Floats]:
    """Low and high end (n,) as the gauge shows them: points like these solved with as much less and more heat as the
    doubt is worth either way, their fans switched as they are then."""
    n, off = len(doubt), WITHIN * doubt / np.maximum(settled.mean.state.given, 1.0)
    twice = np.tile(np.arange(n), 2)
    looked = looked_at(twice)._replace(heat=np.concatenate([np.maximum(1 - off, LEAST_HEAT), 1 + off]))
    found = settle(points, layout, prepared, settled.near(twice), looked)
    # A fan that never stops may hold the gauge under the top of one that swings: on the way from the one to the other
    # it goes down to where the fan would stop.
    passed = np.where(found.cycles[:n] & ~settled.cycles, found.bottom[:n], found.top[:n])
    high, settles = found.top[n:], found.solution.settles[n:]
    low = np.minimum(passed, np.minimum(settled.top, high))
    return low, np.where(~settles | (high > prepared.boiling), np.inf, np.maximum(high, settled.top))


def _fan_on(points: Points, fixed: Fixed, settled: Settled, layout: Layout) -> Floats:
    """Engine-outlet temperature (n,) [degC] at which the first fan comes on; inf where none is switched by
    temperature. Where the sensor sees less than the outlet it is with the drop over the core as it is before the
    start, with the fans standing."""
    law = points.situation.command.law
    first, state = law.stages.on[:, 0], settled.mean.state
    switched = first < ABSENT
    at = outlet_where(points.situation.command.sensing.fins, state, first)
    rows = np.flatnonzero(switched & (np.abs(state.temperature - state.reading) > SEEN))
    if len(rows):
        at[rows] = _risen_to(points, fixed, rows, first[rows], layout)
    return np.where(switched, at, np.inf)


def _risen_to(points: Points, fixed: Fixed, rows: Ints, wanted: Floats, layout: Layout) -> Floats:
    """Engine-outlet temperature (m,) [degC] at which the sensors of points `rows` (m,) read `wanted` (m,), the fans
    standing: straight between RISES, all looked at in one call."""
    count, steps = len(wanted), len(RISES)
    low = np.maximum(wanted, points.plant.circuit.thermostat[rows])
    outlets = np.minimum(low[:, None] + RISES, CEILING)
    standing = looked_at(np.repeat(rows, steps), 0.0, 0.0)
    seen = evaluate(points, fixed, outlets.ravel(), layout, standing).reading.reshape(count, steps)
    rising = np.maximum.accumulate(seen, axis=1)
    found = [np.interp(wanted[k], rising[k], outlets[k]) for k in range(count)]
    beyond = np.maximum(wanted - rising[:, -1], 0.0)
    return np.array(found) + beyond


class AtLimit(NamedTuple):
    """What n points do at their limit: heat [W] that comes in, and that is given off with the fans that are on by
    then (n,)."""

    into_coolant: Floats
    rejection: Floats


def at_limit(points: Points, layout: Layout) -> AtLimit:
    """As `steady_answer` has it, and nothing else of it: what thousands of packages are told apart by.

    Raises SolveError as `solve` does.
    """
    prepared = prepare(points, layout)
    state, limit = settle(points, layout, prepared).mean.state, points.plant.limit
    looked = risen(points.situation.command.law, state, limit)
    found = evaluate(points, prepared, limit, layout, looked)
    return AtLimit(prepared.running.into_coolant, found.rejection)


class _Curve(NamedTuple):
    """Rejection [W] of n points as they are: at rising temperatures (n, k) of both, at the limit (n,) with the fans
    that are on by then, and what it loses where it is solved with the core weakened and with the coolant slowed.
    slope (n,) [W/K] of the heat margin there."""

    nodes: Floats
    rejection: Floats
    at_limit: Floats
    core: Floats
    flow: Floats
    slope: Floats


def _curve(points: Points, prepared: Fixed, state: State, layout: Layout) -> _Curve:
    n, circuit, limit, solved = len(state.temperature), points.plant.circuit, points.plant.limit, state.temperature
    full_open = circuit.thermostat + THERMOSTAT_SPAN + np.where(circuit.at_inlet > 0, 8.0, 0.0)
    curve_at = [circuit.thermostat, full_open, limit, np.maximum(prepared.boiling, solved + 1)]
    asked = [*curve_at, limit, solved, solved, solved - SLOPE_STEP]
    looked = looked_at(np.tile(np.arange(n), len(asked)))
    at_limit = risen(points.situation.command.law, state, limit)
    looked.share[4 * n : 5 * n], looked.power[4 * n : 5 * n] = at_limit.share, at_limit.power
    looked.conductance[5 * n : 6 * n], looked.pace[6 * n : 7 * n] = 1 - FAN_STEP, 1 - FLOW_STEP
    found = evaluate(points, prepared, np.concatenate(asked), layout, looked)
    rejected = found.rejection.reshape(-1, n)
    nodes, curve = np.stack([*curve_at, solved], axis=1), np.stack([*rejected[:4], state.rejection], axis=1)
    order = np.argsort(nodes, axis=1)
    return _Curve(
        np.take_along_axis(nodes, order, 1),
        np.maximum.accumulate(np.take_along_axis(curve, order, 1), axis=1),
        rejected[4],
        np.maximum(state.rejection - rejected[5], 0.0),
        np.abs(state.rejection - rejected[6]),
        # Of the physics, not of how the search came there.
        (state.margin - found.margin[-n:]) / SLOPE_STEP,
    )


def _air_looks(
    points: Points, prepared: Fixed, state: State, layout: Layout, start: AirAt | None
) -> tuple[list[Floats], AirAt]:
    """What rejection loses at the solved temperatures with the air looked at as VARIED, fans held on where they do
    anything and off where they do not; and that air."""
    n, ways, on = len(state.temperature), len(VARIED), state.command > FANS_ON
    base, every = np.arange(n), np.arange((ways + 1) * n)
    how = np.tile(on, ways), np.repeat(VARIED, n, axis=0)
    varied = varied_air(points, prepared, np.tile(base, ways), how, start)
    # Standing fans are looked at like running ones: with their air in the place of running air.
    still = np.flatnonzero(~on)
    as_held = put(prepared.running, still, take(prepared.stopped, still)) if len(still) else prepared.running
    looked = looked_at(every % n, 1.0, np.tile(state.load, ways + 1))._replace(blown=every)
    fixed = prepared._replace(running=joined(as_held, varied))
    found = evaluate(points, fixed, np.tile(state.temperature, ways + 1), layout, looked)
    whole, *less = found.rejection.reshape(-1, n)
    return [whole - one for one in less], varied


def _chance(settled: Settled, limit: Floats, margin: Floats) -> Floats:
    """Chance (n,) that the limit is passed. margin: of heat at the limit in standard doubts"""
    passed = 0.5 * (1 - np.array([math.erf(value / math.sqrt(2)) for value in margin]))
    # What swings over the limit passes it every time, whatever is in doubt.
    chance: Floats = np.where(settled.cycles & (settled.top > limit), 1.0, passed)
    return chance


def worth_of_flow(points: Points, answer: Answer, factors: tuple[float, ...]) -> Floats:
    """Kelvin (n, factors) the engine would settle cooler with the coolant so many times as fast in the tubes, to
    first order.

    The film's share of the resistance shrinks as its Nusselt number rises, the rest stays.
    factors > 0, near 1 to 2; within 15 % of a whole solve. Source: resistances in series, first order in the
    logarithm of conductance.
    """
    state, fixed = answer.solution.state, answer.solution.fixed
    duct = fixed.loop_was.tubes
    ratio = fixed.surfaces.coolant_diameter / duct.length
    speeds = np.array([1.0, *factors])
    held = (value[:, None] for value in (state.tube_prandtl, duct.aspect, ratio))
    nusselt = tube_nusselt(state.tube_reynolds[:, None] * speeds, *held)
    gain = nusselt[:, 1:] / nusselt[:, :1]
    # More conductance wins less and less: what its loss cost is carried over by logarithms, not by a straight line.
    conductance = -np.log(1 - state.tube_share[:, None] * (1 - 1 / gain)) * FAN_STEP / -math.log(1 - FAN_STEP)
    # Where the slope is next to nothing no first order tells anything: in proportion to the air's lead it is at least
    # this.
    least = 0.2 * state.rejection / np.maximum(state.temperature - state.air_in, 1.0)
    cooler: Floats = answer.per_core[:, None] * conductance / np.maximum(answer.slope, np.maximum(least, 1.0))[:, None]
    return cooler


def _time_to_limit(points: Points, heat_in: Floats, curve: tuple[Floats, Floats], mass: Floats) -> Floats:
    """Seconds from a full-open thermostat to the limit: heat left over, taken as straight between the two."""
    begin = np.minimum(points.plant.circuit.thermostat + THERMOSTAT_SPAN, points.plant.limit)
    left = [
        heat - np.array([np.interp(at, t, r) for at, t, r in zip(where, *curve, strict=True)])
        for heat, where in ((heat_in, begin), (heat_in, points.plant.limit))
    ]
    first, last = (np.maximum(value, 1e-9) for value in left)
    even = np.abs(first - last) < 1e-6 * first
    mean = np.where(even, first, (first - last) / np.where(even, 1.0, np.log(first / last)))
    return np.where(left[1] > 0, mass * (points.plant.limit - begin) / np.maximum(mean, 1e-9), np.inf)
