"""What the car was seen to do before the work, and whether the build as entered could do it."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from typing import NamedTuple

from keelroom.assess.figures.batch import Asked, HeldAt, held_at_heats
from keelroom.assess.mended import as_found
from keelroom.assess.reads import known_same, reads, while_same
from keelroom.core.odds import Saw
from keelroom.core.thermal.engine_laws import LAWS
from keelroom.document.schema.brief import Symptom
from keelroom.document.schema.build import Build, DutyCase, Seen

READS = 5.0
"""[K] of a dash gauge, of the weather typed and of what the model leaves out, together (common practice)."""
CLIMBING = 12.0
"""[K] a needle was still short of where it would have gone when one switched off (common practice)."""
TIMED = 8.0
"""[K] the same of a needle that is known to have climbed so many minutes, heat capacity in it (common practice)."""
RAN_HOT = 104.4
"""[degC], 220 °F: what is called hot where no figure was noted, or the build's limit where that is lower."""
UNDER_HOT = 6.0
"""[K] under that a needle stays that nobody remarks on."""
SECTIONS = reads(
    "brief.accessories brief.causes brief.climate brief.cooling brief.engine brief.symptoms brief.vehicle "
    "build.calibration build.duty_cases "
    "build.supply build.survey package.circuits package.control package.coolant package.coolers package.core "
    "package.cuts package.fans package.kind package.loop package.panels package.place package.remote package.sealing "
    "package.shroud"
)
"""What the car as found, and what was seen of it, stand in."""
SPREAD = (-math.sqrt(3.0), 0.0, math.sqrt(3.0))
WEIGHTS = (1 / 6, 2 / 3, 1 / 6)
"""Sizes of the heat's doubt, in standard doubts, and how much each counts: three points of Gauss and Hermite."""


class Unlike(NamedTuple):
    """A case the car was seen to do otherwise in than it could as entered.

    expected [degC]: as entered, inf where it boils;  reading [degC]: what was seen, or what it was over or under;
    seen: as the case says it;  told: that a figure was noted
    """

    case_id: str
    name: str
    expected: float
    reading: float
    seen: Seen
    told: bool


CLIMBS: dict[Symptom, Callable[[DutyCase], bool]] = {
    "climbs_at_idle": lambda case: case.demand == "idle",
    "climbs_with_ac": lambda case: case.demand == "idle" and case.ac_on,
    "climbs_at_speed": lambda case: case.speed.si > 20 and case.demand == "road_load" and case.grade.si <= 0,
    "climbs_on_grade": lambda case: case.grade.si > 0,
}
"""Duty cases a symptom in words is said of."""


def seen_cases(build: Build) -> tuple[DutyCase, ...]:
    """Duty cases something was seen in, by a reading or in words; none once a cause was found and mended: it has to be
    driven again."""
    if any(check.state == "mended" for check in build.brief.causes):
        return ()
    words = _in_words(build)
    told = (case.model_copy(update={"seen": "hot"}) if case.id in words else case for case in build.duty_cases)
    return tuple(case for case in told if case.seen)


def _in_words(build: Build) -> set[str]:
    """Cases that ran hot by a symptom alone: of those it is said of the first, the A/C off before on; none where
    something was seen in one of them, and none of a build that does not say which package the car was found with."""
    found: set[str] = set()
    if build.of_kind("as_found") is None:
        return found
    for symptom in build.brief.symptoms:
        alike = [case for case in build.duty_cases if symptom in CLIMBS and CLIMBS[symptom](case)]
        if alike and not any(case.seen for case in alike):
            found.add(min(alike, key=lambda case: case.ac_on).id)
    return found


def saw(build: Build, case: DutyCase) -> Saw:
    """What was seen in a case, as a reading."""
    limit = build.brief.cooling.limit
    mark = min(RAN_HOT, limit.si) if limit else RAN_HOT
    if case.seen == "hot":
        noted, timed = case.seen_at, case.seen_for is not None
        if noted:
            return Saw(noted.si, READS, TIMED if timed else CLIMBING)
        return Saw(mark, READS, math.inf)
    if case.seen_at is not None:
        return Saw(case.seen_at.si, READS, READS)
    return Saw(mark - UNDER_HOT, math.inf, READS)


def found_in_use(build: Build) -> Build | None:
    """The build with the car as found in use, on the days things were seen; None where nothing was."""
    package, seen = as_found(build), {case.id: case for case in seen_cases(build)}
    if package is None or not seen:
        return None
    cases = tuple(_on_its_day(seen.get(case.id, case)) for case in build.duty_cases)
    return build.model_copy(update={"active": package.id, "duty_cases": cases})


def _on_its_day(case: DutyCase) -> DutyCase:
    return case.model_copy(update={"ambient": case.seen_day}) if case.seen_day else case


def timed(cases: Iterable[DutyCase]) -> bool:
    """Whether anybody counted minutes."""
    return any(case.seen_for is not None for case in cases)


def shown_at(case: DutyCase, point: HeldAt) -> float:
    """Temperature [degC] of a case as far as it came in the minutes it lasted, warm before; where it ends where nobody
    counted them.

    Source: one lump of heat capacity, its heat less what goes growing short in a straight line.
    """
    if case.seen_for is None:
        return point.temperature
    return point.ends + (point.warm - point.ends) * math.exp(-case.seen_for.si / max(point.lag, 1.0))


def heats_of(build: Build) -> tuple[float, ...]:
    """Factors on the heat into the coolant at the sizes of its doubt."""
    doubt = float(LAWS[build.brief.engine.kind].doubt)
    return tuple(1 + size * doubt for size in SPREAD)


def unlike_seen(build: Build) -> tuple[Unlike, ...]:
    """Cases the car as found was seen to do otherwise in, past the doubt of heat and reading together.

    None where nothing was seen; a case that cannot be answered yet is left out.
    """
    package = as_found(build)
    if package is None or not seen_cases(build):
        return ()
    return while_same("unlike what was seen", SECTIONS, (build, package), lambda: _unlike(build))


def unlike_known(build: Build) -> tuple[Unlike, ...] | None:
    """The same, where it was worked out already; None where it has to be."""
    package = as_found(build)
    if package is None or not seen_cases(build):
        return ()
    found: tuple[Unlike, ...] | None = known_same("unlike what was seen", SECTIONS, (build, package))
    return found


def _unlike(build: Build) -> tuple[Unlike, ...]:
    found = found_in_use(build)
    assert found
    cases, unlike = seen_cases(found), []
    points = held_at_heats([Asked(found, case.id) for case in cases], heats_of(found), timed(cases))
    for case, own in zip(cases, points, strict=True):
        if own is None:
            continue
        told = saw(found, case)
        least, expected, most = (shown_at(case, point) for point in own)
        if _past(case, told, least, most):
            unlike.append(Unlike(case.id, case.name, expected, told.value, case.seen, case.seen_at is not None))
    return tuple(unlike)


def _past(case: DutyCase, told: Saw, least: float, most: float) -> bool:
    """Whether a reading is past what its case could come to, between two temperatures: what climbed was switched off,
    however far it would have gone."""
    return told.value - told.under > most or (case.seen != "hot" and told.value + told.over < least)
