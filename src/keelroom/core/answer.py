"""The steady answer per duty case: temperature with its band, margins, and what happens where none exists."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Bools, Floats, Ints
from keelroom.core.coupling import prepare
from keelroom.core.cycling import Settled, outlet_where, risen, settle, topped
from keelroom.core.electrical.control import ABSENT
from keelroom.core.loop.circuit import THERMOSTAT_SPAN
from keelroom.core.operating_point import evaluate, looked_at, thermal_mass
from keelroom.core.plant import CEILING, Fixed, Layout, Points, Solution
from keelroom.core.thermal.tube_side import nusselt_doubt, tube_nusselt

CONDUCTANCE_DOUBT = 0.12
"""Standard doubt of the core's conductance: ±15 % on j, fouling and maker's tolerances (from memory)."""
SEEN = 0.5
"""[K] the sensor sees less than the outlet from which on its own place counts."""
RISES = np.array([0.0, 1.5, 4.0, 9.0, 19.0, 40.0])
"""[K] over what the sensor reads at a fan's start, or the thermostat, at which the outlet is looked for; the drop over
the core with no fan on is some 5 to 20."""
FAN_STEP = 0.25
"""Share by which the fans are weakened to find what their doubt is worth."""
LEAK_STEP = 0.5
"""Share by which leak areas are widened to find what their doubt is worth."""
LEAK_DOUBT = 0.5
"""Standard doubt of gaps nobody has measured, as a share of their area (common practice)."""
SLOPE_STEP = 0.25
"""[K] over which it is found how the heat margin rises with the temperature."""
VARIED = ((1 - FAN_STEP, 1.0), (1.0, 1 + LEAK_STEP))
"""What the air is looked at with beside as it is entered: factors on the fans' pressure and on leaks."""
INTERVAL, WITHIN = 0.80, 1.2816
"""Share of cases the band is meant to hold, and the standard doubts either way that do for a normal one."""


class Band(NamedTuple):
    """Doubts in heat margin [W], one standard each, and the temperatures the INTERVAL of all together maps to [degC].

    Taken as independent of each other; within one cause everything errs together (all fans of a package, all its gaps).

    high is inf where the hot end does not settle; all (n,)
    """

    from_heat: Floats
    from_core: Floats
    from_fans: Floats
    from_leaks: Floats
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
    slope [W/K] of the heat margin at the solved temperature
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
    prepared: Fixed
    """of the points, with the air of weakened fans and of wider leaks too: a start for the next like answer"""

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


def steady_answer(points: Points, fan_doubt: Floats, layout: Layout, start: Answer | None = None) -> Answer:
    """Temperatures, bands and margins of n points. fan_doubt (n,): standard doubt of the fans' shut-off pressure.

    Source: first-order propagation of independent doubts through the heat margin; raises SolveError as `solve` does.
    """
    n = len(points.plant.limit)
    prepared = prepare(points, layout, start.prepared if start else None, VARIED)
    settled = settle(points, layout, prepared, start.settled_at if start else None).of_first(n)
    solution = settled.mean
    nodes, rejection, study = _margin_curve(points, prepared, solution, layout)
    state = solution.state
    of_core = np.sqrt(CONDUCTANCE_DOUBT**2 + (state.tube_share * nusselt_doubt(state.tube_reynolds)) ** 2)
    parts = (
        points.plant.engine.law.doubt * state.heat_in,
        study["core"] * (of_core / FAN_STEP),
        study["fans"] * (fan_doubt / FAN_STEP),
        study["leaks"] * (LEAK_DOUBT / LEAK_STEP),
    )
    doubt = np.sqrt(sum(part**2 for part in parts))
    full_heat = prepared.running.into_coolant[:n]
    low = _where_rejection_is(state.heat_in - WITHIN * doubt, nodes, rejection, state.air_in)
    high = _where_rejection_is(state.heat_in + WITHIN * doubt, nodes, rejection, state.air_in)
    at_limit = study["at_limit"]
    ends = _band_ends(points, settled, (low, high), prepared.boiling)
    left_over = np.maximum(full_heat - at_limit, 0.0)
    mass = thermal_mass(points)
    return Answer(
        settled_at=settled,
        band=Band(*parts, *ends, _chance(settled, points.plant.limit, (at_limit - full_heat) / doubt)),
        fan_on_at=_fan_on(points, prepared, settled, layout),
        boiling=prepared.boiling,
        margin=points.plant.limit - settled.top,
        rejection_at_limit=at_limit,
        climb=left_over / mass,
        time_to_limit=_time_to_limit(points, full_heat, nodes, rejection, mass),
        slope=study["slope"],
        prepared=prepared,
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


def _band_ends(points: Points, settled: Settled, ends: tuple[Floats, Floats], boiling: Floats) -> tuple[Floats, Floats]:
    """Low and high end (n,) as the gauge shows them: at the top of the swing where the fans cycle there."""
    state = settled.mean.state
    low = np.where(settled.rests, ends[0], topped(points, state, ends[0]))
    high = np.maximum(topped(points, state, ends[1]), settled.top)
    return np.minimum(low, settled.top), np.where(high > boiling, np.inf, high)


def _fan_on(points: Points, fixed: Fixed, settled: Settled, layout: Layout) -> Floats:
    """Engine-outlet temperature (n,) [degC] at which the first fan comes on; inf where none is switched by
    temperature. Where the sensor sees less than the outlet it is with the drop over the core as it is before the
    start, with the fans standing."""
    law = points.situation.command.law
    first, state = law.stages.on[:, 0], settled.mean.state
    switched = first < ABSENT
    at = outlet_where(points, state, first)
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


def _margin_curve(
    points: Points, prepared: Fixed, solution: Solution, layout: Layout
) -> tuple[Floats, Floats, dict[str, Floats]]:
    """Rejection at rising temperatures (n, k), and at the solved point with core and fans weakened: one call.

    at_limit : (n,) there, with the fans that are on by then
    """
    solved = solution.state.temperature
    n = len(solved)
    base = np.arange(n)
    circuit, limit = points.plant.circuit, points.plant.limit
    full_open = circuit.thermostat + THERMOSTAT_SPAN + np.where(circuit.at_inlet > 0, 8.0, 0.0)
    curve_at = [circuit.thermostat, full_open, limit, np.maximum(prepared.boiling, solved + 1)]
    asked = [*curve_at, solved, solved, solved, solved + SLOPE_STEP, limit]
    looked = looked_at(np.tile(base, len(asked)))
    looked = looked._replace(blown=np.concatenate([*[base] * 5, base + n, base + 2 * n, base, base]))
    looked.conductance[4 * n : 5 * n] = 1 - FAN_STEP
    at_limit = risen(points.situation.command.law, solution.state, limit)
    looked.share[8 * n :], looked.power[8 * n :] = at_limit.share, at_limit.power
    state = evaluate(points, prepared, np.concatenate(asked), layout, looked)
    rejected = state.rejection.reshape(-1, n)
    temperatures = np.stack([*asked[:4], solved], axis=1)
    values = np.concatenate([rejected[:4], solution.state.rejection[None]]).T
    order = np.argsort(temperatures, axis=1)
    nodes, curve = temperatures[base[:, None], order], values[base[:, None], order]
    study = {
        "core": np.maximum(solution.state.rejection - rejected[4], 0.0),
        "fans": np.maximum(solution.state.rejection - rejected[5], 0.0),
        "leaks": np.abs(solution.state.rejection - rejected[6]),
        "at_limit": rejected[8],
        # Of the physics, not of how the search came there.
        "slope": (state.margin[7 * n : 8 * n] - solution.state.margin) / SLOPE_STEP,
    }
    return nodes, np.maximum.accumulate(curve, axis=1), study


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
    per_share = answer.band.from_core / np.sqrt(
        CONDUCTANCE_DOUBT**2 + (state.tube_share * nusselt_doubt(state.tube_reynolds)) ** 2
    )
    # Where the slope is next to nothing no first order tells anything: in proportion to the air's lead it is at least
    # this.
    least = 0.2 * state.rejection / np.maximum(state.temperature - state.air_in, 1.0)
    cooler: Floats = per_share[:, None] * conductance / np.maximum(answer.slope, np.maximum(least, 1.0))[:, None]
    return cooler


def _where_rejection_is(wanted: Floats, nodes: Floats, rejection: Floats, air_in: Floats) -> Floats:
    """Temperature (n,) at which the rejection curve reaches `wanted`; past its end in proportion to the air's lead."""
    found = np.array([np.interp(w, r, t) for w, r, t in zip(wanted, rejection, nodes, strict=True)])
    beyond = air_in + (nodes[:, -1] - air_in) * wanted / np.maximum(rejection[:, -1], 1.0)
    return np.where(wanted > rejection[:, -1], beyond, found)


def _time_to_limit(points: Points, heat_in: Floats, nodes: Floats, rejection: Floats, mass: Floats) -> Floats:
    """Seconds from a full-open thermostat to the limit: heat left over, taken as straight between the two."""
    begin = np.minimum(points.plant.circuit.thermostat + THERMOSTAT_SPAN, points.plant.limit)
    left = [
        heat - np.array([np.interp(at, t, r) for at, t, r in zip(where, nodes, rejection, strict=True)])
        for heat, where in ((heat_in, begin), (heat_in, points.plant.limit))
    ]
    first, last = (np.maximum(value, 1e-9) for value in left)
    even = np.abs(first - last) < 1e-6 * first
    mean = np.where(even, first, (first - last) / np.where(even, 1.0, np.log(first / last)))
    return np.where(left[1] > 0, mass * (points.plant.limit - begin) / np.maximum(mean, 1e-9), np.inf)
