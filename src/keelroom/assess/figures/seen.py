"""What the car was seen to do before the work, and whether the build as entered could do it."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.figures.batch import Asked, held
from keelroom.assess.reads import reads, while_same
from keelroom.core.odds import Saw
from keelroom.core.thermal.engine_laws import LAWS
from keelroom.document.schema.build import Build, DutyCase, Seen
from keelroom.document.schema.package import Package

READS = 5.0
"""[K] of a dash gauge, of the weather typed and of what the model leaves out, together (common practice)."""
CLIMBING = 12.0
"""[K] a needle was still short of where it would have gone when one switched off (common practice)."""
RAN_HOT = 104.4
"""[degC], 220 °F: what is called hot where no figure was noted, or the build's limit where that is lower."""
UNDER_HOT = 6.0
"""[K] under that a needle stays that nobody remarks on."""
SECTIONS = reads(
    "brief.accessories brief.causes brief.climate brief.cooling brief.engine brief.vehicle build.duty_cases "
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


def as_found(build: Build) -> Package | None:
    """The package what was seen is said of: the car as found, else the one in use."""
    return build.of_kind("as_found") or (build.package if build.active else None)


def seen_cases(build: Build) -> tuple[DutyCase, ...]:
    """Duty cases something was seen in; none once a cause was found and mended: it has to be driven again."""
    if any(check.state == "mended" for check in build.brief.causes):
        return ()
    return tuple(case for case in build.duty_cases if case.seen)


def saw(build: Build, case: DutyCase) -> Saw:
    """What was seen in a case, as a reading."""
    limit = build.brief.cooling.limit
    mark = min(RAN_HOT, limit.si) if limit else RAN_HOT
    if case.seen == "hot":
        noted = case.seen_at
        return Saw(noted.si, READS, CLIMBING) if noted else Saw(mark, READS, math.inf)
    if case.seen_at is not None:
        return Saw(case.seen_at.si, READS, READS)
    return Saw(mark - UNDER_HOT, math.inf, READS)


def found_in_use(build: Build) -> Build | None:
    """The build with the car as found in use, on the days things were seen; None where nothing was."""
    package = as_found(build)
    if package is None or not seen_cases(build):
        return None
    cases = tuple(
        case.model_copy(update={"ambient": case.seen_day}) if case.seen_day else case for case in build.duty_cases
    )
    return build.model_copy(update={"active": package.id, "duty_cases": cases})


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


def _unlike(build: Build) -> tuple[Unlike, ...]:
    found = found_in_use(build)
    assert found
    cases, (low, middle, high) = seen_cases(found), heats_of(found)
    points = held([Asked(found, case.id, heat) for case in cases for heat in (low, middle, high)])
    unlike = []
    for k, case in enumerate(cases):
        least, expected, most = points[3 * k : 3 * k + 3]
        told = saw(found, case)
        if least and expected and most and _past(case, told, least.temperature, most.temperature):
            unlike.append(
                Unlike(case.id, case.name, expected.temperature, told.value, case.seen, case.seen_at is not None)
            )
    return tuple(unlike)


def _past(case: DutyCase, told: Saw, least: float, most: float) -> bool:
    """Whether a reading is past what its case could come to, between two temperatures: what climbed was switched off,
    however far it would have gone."""
    return told.value - told.under > most or (case.seen != "hot" and told.value + told.over < least)
