"""Which duty case stands for what: the one place that says what standing is, and which case is the idle, the road and
the grade."""

from __future__ import annotations

from collections.abc import Sequence

from keelroom.document.schema.build import DutyCase

STANDS = 1.0
"""[m/s] under which a vehicle stands, as far as air, loads and advice are concerned."""
ON_THE_ROAD = 12.0
"""[m/s] above which a road load tells of the road rather than of traffic."""


def stands(case: DutyCase) -> bool:
    """Whether the vehicle stands in this case: it idles, or hardly rolls."""
    return case.demand == "idle" or case.speed.si < STANDS


def idle_case(cases: Sequence[DutyCase]) -> DutyCase | None:
    """The case that stands for idle: the first standing one with the A/C on, else the first standing one."""
    standing = [case for case in cases if stands(case)]
    return next((case for case in standing if case.ac_on), standing[0] if standing else None)


def road_case(cases: Sequence[DutyCase]) -> DutyCase | None:
    """The case that stands for the road: the first road load past traffic speed."""
    return next((case for case in cases if case.demand == "road_load" and case.speed.si > ON_THE_ROAD), None)


def grade_case(cases: Sequence[DutyCase]) -> DutyCase | None:
    """The case that stands for the grade: the steepest moving road load, of equally steep ones the heaviest."""
    moving = [case for case in cases if case.demand == "road_load" and not stands(case)]
    return max(moving, key=lambda case: (case.grade.si, case.towed_mass.si), default=None)
