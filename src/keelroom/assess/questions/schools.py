"""The schools of fan control side by side for this build: when each starts across the weather, how long it runs, what
it holds."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.acts.control import SCHOOLS, School, school_edit
from keelroom.assess.acts.registry import offer
from keelroom.assess.figures.batch import Asked, HeldAt, held, outlets_at
from keelroom.assess.inputs.demand import demand_of
from keelroom.assess.inputs.electrical.controller import curve_of, seat_of, setting_air
from keelroom.assess.inputs.electrical.loads import motors_of
from keelroom.assess.inputs.electrical.system import system_at
from keelroom.assess.inputs.electrical.ways import WAYS, way_of
from keelroom.assess.mended import judged_on
from keelroom.core.electrical.control import LEAST_SPAN, reading_at
from keelroom.core.electrical.motor import SOFT_START, START
from keelroom.core.kept import in_one_go
from keelroom.document.act import Act
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import from_si
from keelroom.document.schema.build import Build
from keelroom.units import both

LOOKED_AT = (60.0, 150.0)
"""[degC] engine-outlet temperatures among which set points are looked for."""
USUAL_DAY = 32.2
"""[degC] the day mean amps are stated for."""
WEATHER = (40.0, 60.0, 75.0, 90.0, 105.0)
"""[degF] days the schools are compared on."""


class Day(NamedTuple):
    """One school on one day [degC]: engine outlet at which fans start and stop, where it settles, shares of time or
    speed and of power."""

    ambient: float
    on: float
    off: float
    held: float
    duty: float
    load: float


class Compared(NamedTuple):
    """One school with its days, mean and starting amps of the fans; default: what is recommended here."""

    school: School
    act: Act
    days: tuple[Day, ...]
    amps: float
    starting: float
    default: bool
    current: bool


class Comparison(NamedTuple):
    """All schools, for one duty case; why the default is the default."""

    case_name: str
    rows: tuple[Compared, ...]
    why: str
    thermostat: float | None
    limit: float | None


def default_key(fans: int) -> str:
    """The school recommended where nothing speaks against it."""
    return "two_speed" if fans > 1 else "upper"


@in_one_go
def compare_schools(build: Build, case_id: str) -> Comparison:
    """Every school for one duty case on all days. Solved together in as few calls as their shapes allow."""
    case = build.duty_case(case_id)
    days = [(f - 32) / 1.8 for f in WEATHER]
    edits = [school_edit(build.package, school) for school in SCHOOLS]
    builds = [apply(build, edit) if edit.changes else build for edit in edits]
    asked = [Asked(_on_day(b, case_id, ambient), case_id) for b in builds for ambient in days]
    points = held(asked)
    marks = outlets_at(asked, [set_points(question.build) for question in asked], LOOKED_AT)
    driven = judged_on(build, build.package)
    amps = system_at(driven, build.package, demand_of(driven.brief, case).at).fan_amps
    starting = sum(START * m.motor.current for m in motors_of(build, build.package) if m.fan)
    rows = []
    for k, (school, edit) in enumerate(zip(SCHOOLS, edits, strict=True)):
        part = slice(k * len(days), (k + 1) * len(days))
        found = tuple(_day(*of) for of in zip(days, points[part], marks[part], strict=True))
        hot = min(found, key=lambda day: abs(day.ambient - USUAL_DAY))
        default = school.key == default_key(len(build.package.fans))
        rows.append(
            Compared(
                school,
                offer("school", build.active, edit.label, school=school.key),
                found,
                amps * hot.load,
                _starting(school, starting),
                default,
                not edit.changes,
            )
        )
    thermostat, limit = build.package.loop.thermostat, build.brief.cooling.limit
    return Comparison(
        case.name,
        tuple(rows),
        _why(rows),
        thermostat.si if thermostat else None,
        limit.si if limit else None,
    )


def _on_day(build: Build, case_id: str, ambient: float) -> Build:
    return apply(
        build, Edit("", (Change(("duty_cases", case_id, "ambient"), from_si(ambient, "temperature", "si", "derived")),))
    )


def _starting(school: School, straight: float) -> float:
    way = WAYS[school.strategy]
    if way.varies:
        return straight / START * SOFT_START
    return straight / 2 if way.staged else straight


def set_points(build: Build) -> tuple[float, ...]:
    """What the package's sensor reads [degC] when the fans start and when they stop; () where nothing senses."""
    control = build.package.control
    if way_of(control).by_hand or control.fan_on is None or control.fan_off is None:
        return ()
    if way_of(control).varies:
        # A variable one starts at its own first point, and stops just under it.
        start = curve_of(control, control.fan_on.si, control.fan_off.si)[0][0]
        return start, start - LEAST_SPAN
    fins, day = seat_of(control).fins, setting_air(control, build.brief.climate)
    return tuple(reading_at(v.si, day, fins=fins) for v in (control.fan_on, control.fan_off))


def _day(ambient: float, point: HeldAt | None, marks: tuple[float, ...] | None) -> Day:
    on, off = marks or (math.nan, math.nan)
    if point is None:
        return Day(ambient, on, off, math.nan, math.nan, math.nan)
    return Day(ambient, on, off, point.temperature, point.command, point.load)


def _why(rows: list[Compared]) -> str:
    chosen = next(row for row in rows if row.default)
    fins = next(row for row in rows if row.school.key == "fins")
    cool = fins.days[1]
    hot = fins.days[-1]
    late = (
        f"The probe in the fins starts at {both(cool.on, 'temperature')} on a "
        f"{both(cool.ambient, 'temperature')} day and at {both(hot.on, 'temperature')} on a "
        f"{both(hot.ambient, 'temperature')} one."
    )
    return (
        f"Default here: {chosen.school.name.lower()}. {chosen.school.why} Its sensor sees the engine on every "
        f"day. {late}"
    )
