"""How far the fluids of coolers may run from where they are told to: what they are given, what takes it and what stands
round that, each in doubt."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.core.answer import WITHIN, Answer
from keelroom.core.plant import Points
from keelroom.document.schema.coolers import Cooler

GIVEN = {"gearbox": 0.25, "oil": 0.25, "charge": 0.08, "steering": 0.40, "refrigerant": 0.12}
"""Standard doubt of what a fluid is given, as a share (common practice; charge air by its compressor's efficiency)."""
EXCHANGE, CASE = 0.15, 0.30
"""Of what a cooler takes per kelvin, and of what sheds by itself (common practice)."""
OWN_AIR, BY_AIR = {True: 0.12, False: 0.35}, 0.5
"""Of the air through a cooler ahead of the core and elsewhere, and how what it takes goes with that (common
practice)."""
ROUND = {True: 1.5, False: 5.0}
"""[K] of the air a cooler meets ahead of the core and elsewhere (common practice)."""
OPEN_ENDED = 8.0
"""[K] of a coolant whose band has no upper end."""


class Sink(NamedTuple):
    """Something that takes heat from a fluid: per kelvin [W/K] with its doubt as a share, and from what [degC] on, with
    its doubt [K]."""

    takes: float
    unsure: float
    at: float
    round: float


def half_band(fluid: str, given: float, runs_at: float, sinks: list[Sink]) -> float:
    """Half of the band [K] a fluid's temperature stands in, 80 %.

    given [W]; runs_at [degC]. Source: first-order propagation through what it is given equals what is taken.
    """
    whole = sum(sink.takes for sink in sinks)
    if whole <= 0:
        return 0.0
    parts = [GIVEN[fluid] * given]
    for sink in sinks:
        parts += [(runs_at - sink.at) * sink.takes * sink.unsure, sink.takes * sink.round]
    return WITHIN * math.hypot(*parts) / whole


def coolers_sinks(coolers: list[tuple[Cooler, float, float]], runs_at: float, passes: float) -> list[Sink]:
    """Coolers of a fluid. coolers: each with its heat [W] and the air it meets [degC]; passes [W/K] of a fluid told as
    it leaves, 0 of one told as it enters: the nearer it comes to the air the more what takes it counts."""
    found = []
    for cooler, heat, air in coolers:
        if abs(runs_at - air) < 1e-6:
            continue
        ahead, sharper = cooler.stands == "ahead", 1.0
        if passes > 0:
            came = runs_at + heat / passes
            sharper = max(-math.log(max(1 - heat / (passes * max(came - air, 1e-6)), 1e-3)), 0.2)
        unsure = math.hypot(EXCHANGE, BY_AIR * OWN_AIR[ahead]) * sharper
        found.append(Sink(heat / (runs_at - air), unsure, air, ROUND[ahead]))
    return found


def coolant_doubt(answer: Answer, i: int) -> float:
    """Standard doubt [K] of the coolant of a point, by its band."""
    half = float(answer.band.high[i] - answer.band.low[i]) / 2 / WITHIN
    return half if math.isfinite(half) else OPEN_ENDED


def outside(points: Points, i: int) -> float:
    """[degC] of the air at the grille of a point."""
    climate = points.situation.climate
    return float(climate.ambient[i] + climate.grille_rise[i])


def others(fluid: str, points: Points, answer: Answer, i: int) -> list[Sink]:
    """What takes heat from a fluid beside its coolers: the core's tank, the block, its case and lines."""
    state, warm = answer.solution.state, coolant_doubt(answer, i)
    found = state.exchanged
    if fluid == "oil":
        return [Sink(float(points.plant.coolers.oil_to_block[i]), CASE, float(state.temperature[i]), warm)]
    if fluid == "steering":
        return _own(float(found.steering_shed[i]), float(found.steering[i]), float(state.bay_air[i]))
    if fluid != "gearbox":
        return []
    runs_at, cold = float(found.gearbox[i]), float(state.coolant_out[i])
    tank = float(found.tank[i]) / (runs_at - cold) if abs(runs_at - cold) > 1e-6 else 0.0
    return [Sink(max(tank, 0.0), EXCHANGE, cold, warm), *_own(float(found.shed[i]), runs_at, outside(points, i))]


def _own(shed: float, runs_at: float, air: float) -> list[Sink]:
    return [Sink(shed / (runs_at - air), CASE, air, ROUND[False])] if abs(runs_at - air) > 1e-6 and shed > 0 else []
