"""What would explain a car that ran hot: every cheap cause alone and in pairs, held against what was seen and what was
not."""

from __future__ import annotations

import math
from collections import Counter
from itertools import combinations, product
from typing import NamedTuple

import numpy as np

from keelroom.assess.causes import CAUSES, RISKS, state_of
from keelroom.assess.faults import Fault, faults_of
from keelroom.assess.figures.batch import Asked, held, held_at_heats
from keelroom.assess.figures.seen import CLIMBS, WEIGHTS, found_in_use, heats_of, saw, seen_cases, shown_at, timed
from keelroom.assess.trials.seen_in import with_trials
from keelroom.core.kept import in_one_go
from keelroom.core.odds import log_likelihood, posterior, told_by_a_look
from keelroom.document.edits import Change, Edit, apply, grafted
from keelroom.document.fields import Path
from keelroom.document.schema.build import Build, DutyCase
from keelroom.errors import InputError

BOILS = 130.0
"""[degC] stands for a case that does not settle."""
FITS = 0.03
"""Under which even the likeliest does not read what was seen: some two and a half doubts off in one case."""
LEVEL = 0.5
"""Share of the likeliest's odds from which on another cause is as good as it."""
SAID, SAID_ANYWAY = 0.4, 0.08
"""Share of cars a symptom is remarked on of, with a cause that shows it and without (common practice, no source)."""
SHOWN, ALIKE, NEAR = 8, 3.0, 0.25
"""Explanations shown; [K] under which two read alike; share of the first's odds from which one is told with it."""


class Explanation(NamedTuple):
    """One way it could have been. readings [degC] by duty case as it is typed there, inf where it boils; weather: its
    own."""

    faults: tuple[Fault, ...]
    odds: float
    readings: dict[str, float]


class Suspect(NamedTuple):
    """A cause over all explanations.

    odds : that it is there;  bits : what a look at it tells;  rate : bits a minute, of one that can hurt fewer
    """

    cause: str
    odds: float
    bits: float
    rate: float


class Explained(NamedTuple):
    """expected [degC] by case that was seen, as entered;  met : odds of what was seen, were it so, over the likeliest
    fits : how far the likeliest reads what was seen, 1 all of it

    explanations, suspects : the likeliest first;  alike : of the explanations, those no case here tells from the first
    tried : explanations held against it
    """

    expected: dict[str, float]
    met: float
    fits: float
    explanations: tuple[Explanation, ...]
    suspects: tuple[Suspect, ...]
    alike: tuple[Explanation, ...]
    tried: int

    @property
    def level(self) -> tuple[Suspect, ...]:
        """Suspects these readings hardly part from the likeliest; none where it stands out."""
        if not self.suspects:
            return ()
        near = tuple(one for one in self.suspects if one.odds >= LEVEL * self.suspects[0].odds)
        return near if len(near) > 1 else ()

    @property
    def look(self) -> Suspect | None:
        """Where a look tells most for its minutes."""
        return max(self.suspects, key=lambda one: one.rate, default=None)


@in_one_go
def explained(build: Build) -> Explained | None:
    """What would explain it; None where nothing was seen, or a case seen cannot be answered yet.

    Source: Bayes's rule by enumeration; how often each cause is met and its sizes common practice.
    """
    found = found_in_use(with_trials(build))
    if found is None:
        return None
    ways = _ways(found)
    builds = _with_each(found, ways)
    ways = [way for way, one in zip(ways, builds, strict=True) if one is not None]
    there = [one for one in builds if one is not None]
    cases = seen_cases(found)
    read = _readings(there, cases, heats_of(found))
    if read is None:
        return None
    logs = _logs(found, ways, read)
    odds = posterior(_priors(ways), logs, np.array(WEIGHTS))
    best = [int(k) for k in np.argsort(-odds, kind="stable")[:SHOWN]]
    shown = _shown(there, ways, odds, best, found.duty_cases)
    first = shown[0]
    alike = tuple(one for one in shown[1:] if one.odds > NEAR * first.odds and _reads_alike(first, one))
    likely = np.exp(logs) @ np.array(WEIGHTS)
    return Explained(
        {case.id: float(read[0, k, 1]) for k, case in enumerate(cases)},
        float(likely[0] / likely.max()),
        float(likely[best[0]]),
        tuple(shown),
        _suspects(ways, odds),
        alike,
        len(ways),
    )


def _ways(build: Build) -> list[tuple[Fault, ...]]:
    """As entered, each fault alone, each two of unlike causes; none of a cause that was looked at."""
    faults = [f for f in faults_of(build, build.package) if state_of(build.brief, f.cause) == "open"]
    pairs = [(a, b) for a, b in combinations(faults, 2) if a.cause != b.cause and not _clash(a, b)]
    return [(), *((fault,) for fault in faults), *pairs]


def _clash(one: Fault, other: Fault) -> bool:
    """Two that would write one entry."""
    return bool({change.path for change in one.changes} & {change.path for change in other.changes})


def _with_each(build: Build, ways: list[tuple[Fault, ...]]) -> list[Build | None]:
    """The build with the faults of each way in it; None where its entries do not take them.

    Of two the sections are those that have one of them: what was made of these is found again.
    """
    alone = {way[0]: _with(build, way[0].changes) for way in ways if len(way) == 1}
    found: list[Build | None] = []
    for way in ways:
        if len(way) < 2:
            found.append(alone[way[0]] if way else build)
            continue
        one, other = (alone[fault] for fault in way)
        found.append(_both(way, one, other) if one and other else None)
    return found


def _both(way: tuple[Fault, ...], one: Build, other: Build) -> Build | None:
    """The build with two faults from those with each: whole sections as they are with the second alone, but where both
    are in the same."""
    mine = {_section(change.path) for change in way[0].changes}
    whole = {_section(change.path) for change in way[1].changes} - mine
    within = tuple(change for change in way[1].changes if _section(change.path) in mine)
    return _with(grafted(one, other, whole), within)


def _section(path: Path) -> Path:
    """The section of a package, of the brief or of the build that an entry stands in."""
    return path[: {"packages": 3, "brief": 2}.get(path[0], 1)]


def _with(build: Build, changes: tuple[Change, ...]) -> Build | None:
    try:
        return apply(build, Edit("", changes)) if changes else build
    except InputError:
        return None


def _readings(builds: list[Build], cases: tuple[DutyCase, ...], heats: tuple[float, ...]) -> np.ndarray | None:
    """Temperatures (H, S, N) [degC] of builds in the cases seen, at each size of the heat's doubt, after the minutes
    they lasted.

    inf where one boils or finds no answer; None where the first, as entered, has none."""
    points = held_at_heats([Asked(build, case.id) for build in builds for case in cases], heats, timed(cases))
    if None in points[: len(cases)]:
        return None
    boils = (math.inf,) * len(heats)
    each = [
        [shown_at(case, point) for point in own] if own else boils
        for (_, case), own in zip(product(builds, cases), points, strict=True)
    ]
    return np.array(each).reshape(len(builds), len(cases), len(heats))


def _logs(build: Build, ways: list[tuple[Fault, ...]], read: np.ndarray) -> np.ndarray:
    """Log of the likelihood (H, N) of all that was seen, what a gauge shows over the coolant among it."""
    high = np.array([sum(fault.reads_high for fault in way) for way in ways])[:, None]
    shown = np.minimum(read, BOILS) + high[:, None]
    each = [log_likelihood(shown[:, k], saw(build, case)) for k, case in enumerate(seen_cases(build))]
    found: np.ndarray = np.sum(each, axis=0) + _words(build, ways)[:, None]
    return found


def _words(build: Build, ways: list[tuple[Fault, ...]]) -> np.ndarray:
    """Log of the likelihood (H,) of the symptoms that are no temperature."""
    causes = {cause.id: cause.explains for cause in CAUSES}
    said = [symptom for symptom in build.brief.symptoms if symptom not in CLIMBS]
    shares = [
        [SAID if any(symptom in causes[fault.cause] for fault in way) else SAID_ANYWAY for symptom in said]
        for way in ways
    ]
    return np.array([sum(map(math.log, own)) for own in shares])


def _priors(ways: list[tuple[Fault, ...]]) -> np.ndarray:
    """Odds before anything was seen: each cause there or not, its sizes alike."""
    often = {cause.id: cause.often / (1 - cause.often) for cause in CAUSES}
    sizes = Counter(way[0].cause for way in ways if len(way) == 1)
    return np.array([math.prod(often[fault.cause] / sizes[fault.cause] for fault in way) for way in ways])


def _shown(
    builds: list[Build], ways: list[tuple[Fault, ...]], odds: np.ndarray, best: list[int], cases: tuple[DutyCase, ...]
) -> list[Explanation]:
    """The likeliest, with what each would read in every case."""
    points = held([Asked(builds[k], case.id) for k in best for case in cases])
    found = []
    for place, k in enumerate(best):
        own = points[place * len(cases) : (place + 1) * len(cases)]
        high = sum(fault.reads_high for fault in ways[k])
        read = {case.id: point.temperature + high for case, point in zip(cases, own, strict=True) if point}
        found.append(Explanation(ways[k], float(odds[k]), read))
    return found


def _reads_alike(one: Explanation, other: Explanation) -> bool:
    """Whether no case here tells them apart."""
    shared = one.readings.keys() & other.readings.keys()
    return all(abs(min(one.readings[case], BOILS) - min(other.readings[case], BOILS)) < ALIKE for case in shared)


def _suspects(ways: list[tuple[Fault, ...]], odds: np.ndarray) -> tuple[Suspect, ...]:
    """Causes over all explanations, the likeliest first."""
    there = [cause for cause in CAUSES if any(fault.cause == cause.id for way in ways for fault in way)]
    present = np.array([[float(any(f.cause == cause.id for f in way)) for way in ways] for cause in there])
    bits = told_by_a_look(odds, present)
    shares = present @ odds
    found = [
        Suspect(cause.id, float(share), float(told), float(told) / (cause.minutes * RISKS[cause.risk][1]))
        for cause, share, told in zip(there, shares, bits, strict=True)
    ]
    return tuple(sorted(found, key=lambda one: -one.odds))
