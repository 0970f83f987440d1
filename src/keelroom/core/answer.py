"""The steady answer per duty case: temperature with its band, margins, and what happens where none exists."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Bools, Floats, take
from keelroom.core.cycling import Settled, outlet_where, settle, topped
from keelroom.core.electrical.control import ABSENT
from keelroom.core.loop.circuit import THERMOSTAT_SPAN
from keelroom.core.operating_point import Fixed, Points, Solution, evaluate, prepare, thermal_mass
from keelroom.core.thermal.engine_heat import HEAT_DOUBT

CONDUCTANCE_DOUBT = 0.12
"""Standard doubt of the core's conductance: ±15 % on j, fouling and maker's tolerances (from memory)."""
FAN_STEP = 0.25
"""Share by which the fans are weakened to find what their doubt is worth."""
LEAK_STEP = 0.5
"""Share by which leak areas are widened to find what their doubt is worth."""
LEAK_DOUBT = 0.5
"""Standard doubt of gaps nobody has measured, as a share of their area (common practice)."""
AMBIENT_STEP = 8.0
"""Kelvin of extra ambient used to find the highest ambient that holds the limit."""


class Band(NamedTuple):
    """Doubts in heat margin [W], one standard each, and the temperatures they map to [degC].

    Taken as independent of each other; within one cause everything errs together (all fans of a package, all its gaps).

    high is inf where the hot end does not settle; all (n,)
    """

    from_heat: Floats
    from_core: Floats
    from_fans: Floats
    from_leaks: Floats
    low: Floats
    high: Floats


class Answer(NamedTuple):
    """Steady answers over n points, arrays (n,) unless said.

    settled_at : where each settles, swings of cycling fans told;  fan_on_at [degC] of engine outlet when the first fan comes on
    margin [K] limit less temperature;  air_to_boil [degC] of ambient at which the outlet boils, a degree for a degree
    highest_ambient [degC] that still holds the limit
    rejection_at_limit [W];  climb [K/s] at the limit where heat is left over, else 0
    time_to_limit [s] from thermostat full open, inf where the limit is never reached
    """

    settled_at: Settled
    band: Band
    fan_on_at: Floats
    boiling: Floats
    margin: Floats
    air_to_boil: Floats
    highest_ambient: Floats
    rejection_at_limit: Floats
    climb: Floats
    time_to_limit: Floats
    prepared: Fixed
    """of points, weakened and hot variants: a start for the next like answer"""

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


def steady_answer(points: Points, fan_doubt: Floats, layout: tuple[bool, int, int], start: Answer | None = None) -> Answer:
    """Temperatures, bands and margins of n points. fan_doubt (n,): standard doubt of the fans' shut-off pressure."""
    n = len(points.limit)
    variants = _variants(points)
    prepared = prepare(variants, layout, start.prepared if start else None, alike=4)
    nominal = take(prepared, np.s_[:n])
    began = start.settled_at.mean if start else None
    settled = settle(points, layout, nominal, (began.state.temperature, began.slope) if began else None)
    solution = settled.mean
    nodes, rejection, study = _margin_curve(variants, prepared, solution, layout)
    state = solution.state
    parts = (
        HEAT_DOUBT * state.heat_in,
        study["core"] * (CONDUCTANCE_DOUBT / FAN_STEP),
        study["fans"] * (fan_doubt / FAN_STEP),
        study["leaks"] * (LEAK_DOUBT / LEAK_STEP),
    )
    doubt = np.sqrt(sum(part**2 for part in parts))
    full_heat = nominal.running.heat.coolant * points.doubts.heat
    low = _where_rejection_is(state.heat_in - doubt, nodes, rejection, state.air_in)
    high = _where_rejection_is(state.heat_in + doubt, nodes, rejection, state.air_in)
    at_limit = study["at_limit"]
    left_over = np.maximum(full_heat - at_limit, 0.0)
    mass = thermal_mass(points)
    return Answer(
        settled_at=settled,
        band=Band(*parts, *_band_ends(points, settled, (low, high), nominal.boiling)),
        fan_on_at=_fan_on(points, settled),
        boiling=nominal.boiling,
        margin=points.limit - settled.top,
        air_to_boil=points.climate.ambient + nominal.boiling - settled.top,
        highest_ambient=_highest_ambient(points, full_heat, study),
        rejection_at_limit=at_limit,
        climb=left_over / mass,
        time_to_limit=_time_to_limit(points, full_heat, nodes, rejection, mass),
        prepared=prepared,
    )


def _band_ends(points: Points, settled: Settled, ends: tuple[Floats, Floats], boiling: Floats) -> tuple[Floats, Floats]:
    """Low and high end (n,) as the gauge shows them: at the top of the swing where the fans cycle there."""
    state = settled.mean.state
    low = np.where(settled.rests, ends[0], topped(points, state, ends[0]))
    high = np.maximum(topped(points, state, ends[1]), settled.top)
    return np.minimum(low, settled.top), np.where(high > boiling, np.inf, high)


def _fan_on(points: Points, settled: Settled) -> Floats:
    """Engine-outlet temperature (n,) [degC] at which the first fan comes on; inf where none is switched by temperature."""
    first = points.fans.law.stages.on[:, 0]
    return np.where(first < ABSENT, outlet_where(points, settled.mean.state, first), np.inf)


def _variants(points: Points) -> Points:
    """The points, the same with weakened fans, on a hotter day, and with wider gaps, stacked in that order."""
    n = len(points.limit)
    stack = take(points, np.tile(np.arange(n), 4))
    weaker, hotter, leakier = (v.copy() for v in (stack.doubts.fan_pressure, stack.climate.ambient, stack.doubts.leaks))
    weaker[n : 2 * n] *= 1 - FAN_STEP
    hotter[2 * n : 3 * n] += AMBIENT_STEP
    leakier[3 * n :] *= 1 + LEAK_STEP
    return stack._replace(doubts=stack.doubts._replace(fan_pressure=weaker, leaks=leakier), climate=stack.climate._replace(ambient=hotter))


def _margin_curve(
    variants: Points, prepared: Fixed, solution: Solution, layout: tuple[bool, int, int]
) -> tuple[Floats, Floats, dict[str, Floats]]:
    """Rejection at rising temperatures (n, k), and at the solved point with core and fans weakened: one call."""
    solved = solution.state.temperature
    n = len(solved)
    base = np.arange(n)
    circuit, limit = take(variants.circuit, np.s_[:n]), variants.limit[:n]
    full_open = circuit.thermostat + THERMOSTAT_SPAN + np.where(circuit.at_inlet > 0, 8.0, 0.0)
    boiling = take(prepared, np.s_[:n]).boiling
    asked = [circuit.thermostat, full_open, limit, np.maximum(boiling, solved + 1), solved, solved, limit, solved]
    rows = np.concatenate([base, base, base, base, base, base + n, base + 2 * n, base + 3 * n])
    batch = take(variants, rows)
    conductance = batch.doubts.conductance.copy()
    conductance[4 * n : 5 * n] *= 1 - FAN_STEP
    batch = batch._replace(doubts=batch.doubts._replace(conductance=conductance))
    state = evaluate(batch, take(prepared, rows), np.concatenate(asked), layout)
    rejected = state.rejection.reshape(8, n)
    temperatures = np.stack([*asked[:4], solved], axis=1)
    values = np.concatenate([rejected[:4], solution.state.rejection[None]]).T
    order = np.argsort(temperatures, axis=1)
    nodes, curve = np.take_along_axis(temperatures, order, 1), np.take_along_axis(values, order, 1)
    study = {
        "core": np.maximum(solution.state.rejection - rejected[4], 0.0),
        "fans": np.maximum(solution.state.rejection - rejected[5], 0.0),
        "leaks": np.abs(solution.state.rejection - rejected[7]),
        "at_limit": rejected[2],
        "at_limit_hotter": rejected[6],
    }
    return nodes, np.maximum.accumulate(curve, axis=1), study


def _where_rejection_is(wanted: Floats, nodes: Floats, rejection: Floats, air_in: Floats) -> Floats:
    """Temperature (n,) at which the rejection curve reaches `wanted`; past its end in proportion to the air's lead."""
    found = np.array([np.interp(w, r, t) for w, r, t in zip(wanted, rejection, nodes, strict=True)])
    beyond = air_in + (nodes[:, -1] - air_in) * wanted / np.maximum(rejection[:, -1], 1.0)
    return np.where(wanted > rejection[:, -1], beyond, found)


def _highest_ambient(points: Points, heat_in: Floats, study: dict[str, Floats]) -> Floats:
    """Ambient (n,) at which rejection at the limit equals the heat in: a straight line through two ambients."""
    slope = (study["at_limit"] - study["at_limit_hotter"]) / AMBIENT_STEP
    return points.climate.ambient + (study["at_limit"] - heat_in) / np.maximum(slope, 1e-6)


def _time_to_limit(points: Points, heat_in: Floats, nodes: Floats, rejection: Floats, mass: Floats) -> Floats:
    """Seconds from a full-open thermostat to the limit: heat left over, taken as straight between the two."""
    begin = np.minimum(points.circuit.thermostat + THERMOSTAT_SPAN, points.limit)
    left = [
        heat - np.array([np.interp(at, t, r) for at, t, r in zip(where, nodes, rejection, strict=True)])
        for heat, where in ((heat_in, begin), (heat_in, points.limit))
    ]
    first, last = (np.maximum(value, 1e-9) for value in left)
    even = np.abs(first - last) < 1e-6 * first
    mean = np.where(even, first, (first - last) / np.where(even, 1.0, np.log(first / last)))
    return np.where(left[1] > 0, mass * (points.limit - begin) / np.maximum(mean, 1e-9), np.inf)
