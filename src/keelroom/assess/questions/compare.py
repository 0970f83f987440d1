"""Cores side by side for this build, and sweeps of fin density and depth with the best for these fans."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.assess.acts.core import fit_core
from keelroom.assess.figures.assessment import HOLDING
from keelroom.assess.figures.batch import Asked, answers, row_for
from keelroom.assess.figures.casefigures import verdict_of
from keelroom.assess.figures.in_hand import hand_of
from keelroom.assess.inputs.airside import air_side
from keelroom.assess.questions.response import Response, response
from keelroom.core.answer import Answer
from keelroom.core.kept import in_one_go
from keelroom.document.edits import apply
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Core


class Candidate(NamedTuple):
    """One core in this build with its fans. drop [Pa] over the core while standing; rejection [W] at the limit there;
    tightest: the duty case with the least in hand, margin [K]: how much hotter a day than its own it is held on, under
    0 what is missing, nan where nothing is worked out;
    holding, cases: how many duty cases count as held of how many;  days [K]: what margin says, of every duty case in
    order, nan where it is not worked out."""

    core: Core
    drop: float
    rejection: float
    tightest: str
    margin: float
    holding: int
    cases: int
    days: tuple[float, ...]


def with_core(build: Build, core: Core) -> Build:
    """The build with another core, its fans spread over the new face as they were over the old."""
    return apply(build, fit_core(build.package, core))


@in_one_go
def candidates(build: Build, cores: tuple[Core, ...]) -> tuple[Candidate, ...]:
    """Every core in this build with the active package's fans, in the order given."""
    builds = [with_core(build, core) for core in cores]
    rows = [row_for(Asked(b, case.id)) for b in builds for case in b.duty_cases]
    found = answers(rows)
    count = len(build.duty_cases)
    made = []
    for i, core in enumerate(cores):
        known = [
            (case, row, *pair)
            for k, case in enumerate(build.duty_cases)
            if (row := rows[i * count + k]) is not None and (pair := found[i * count + k]) is not None
        ]
        if not known:
            made.append(Candidate(core, math.nan, math.nan, "needs more", math.nan, 0, count, (math.nan,) * count))
            continue
        hands = {case.id: hand_of(row.points, answer, at).weather for case, row, answer, at in known}
        told = [one for one in known if one[0].counted] or known
        holding = sum(verdict_of(row, answer, at) in HOLDING for _, row, answer, at in told)
        margin, name = min((hands[case.id], case.name) for case, *_ in told)
        days = tuple(hands.get(case.id, math.nan) for case in build.duty_cases)
        _, _, first, place = known[0]
        drop, rejects = _drop(builds[i], first, place), float(first.rejection_at_limit[place])
        made.append(Candidate(core, drop, rejects, name, margin, holding, len(told), days))
    return tuple(made)


def _drop(build: Build, answer: Answer, at: int) -> float:
    """Pressure lost from ahead of the core to behind it, flow-weighted over the classes, fans running [Pa]."""
    flows = answer.solution.fixed.running.flows
    side = air_side(build, build.package)
    pressures, core = flows.pressures[at], np.maximum(flows.core[at], 0.0)
    known = len(side.classes.front)
    lost = np.array(
        [pressures[int(a)] - pressures[int(b)] for a, b in zip(side.classes.front, side.classes.rear, strict=True)]
    )
    total = float(core[:known].sum())
    return float((lost * core[:known]).sum() / total) if total > 1e-6 else 0.0


class Sweep(NamedTuple):
    """A response and its best value [SI], where the temperature is least, or most weather in hand where nothing
    settles."""

    answer: Response
    best: float
    gain: float
    """kelvin the best would win"""


def sweep(build: Build, field: str, case_id: str) -> Sweep:
    """The core's fin density or depth swept over its range for these fans."""
    found = response(build, ("packages", build.active, "core", field), case_id)
    if found.weather:
        most, best = max(zip(found.weather, found.values, strict=True))
        now = next((w for v, w in zip(found.values, found.weather, strict=True) if v == found.now), most)
        return Sweep(found, best, most - now)
    pairs = [(t, v) for v, t in zip(found.values, found.temperatures, strict=True) if math.isfinite(t)]
    if not pairs:
        return Sweep(found, math.nan, math.nan)
    least, best = min(pairs)
    now = next((t for v, t in zip(found.values, found.temperatures, strict=True) if v == found.now), math.inf)
    return Sweep(found, best, now - least)
