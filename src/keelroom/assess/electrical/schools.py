"""The schools of fan control side by side for this build: when each starts across the weather, how long it runs, what it holds."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.electrical.controller import LOWER, curve_of, place_of, set_for_lower_hose, setting_air
from keelroom.assess.electrical.loads import motors_of
from keelroom.assess.electrical.system import system_at
from keelroom.assess.electrical.ways import WAYS, way_of
from keelroom.assess.questions.batch import Asked, Held, held, outlets_at
from keelroom.core.electrical.control import LEAST_SPAN, reading_at
from keelroom.core.electrical.motor import SOFT_START, START
from keelroom.core.kept import in_one_go
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import from_si
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import SensorPlace, Strategy
from keelroom.units import both

SECOND = 5.0
"""Kelvin the second speed lies over the first: sold pairs such as 180 and 190 degF (common practice)."""
LOOKED_AT = (60.0, 150.0)
"""[degC] engine-outlet temperatures among which set points are looked for."""
USUAL_DAY = 32.2
"""[degC] the day mean amps are stated for."""
WEATHER = (40.0, 60.0, 75.0, 90.0, 105.0)
"""[degF] days the schools are compared on."""


class School(NamedTuple):
    """One way to decide, with the place it is felt at. lower: kelvin its set points lie under those of the upper hose."""

    key: str
    name: str
    strategy: Strategy
    sensor: SensorPlace | None
    why: str
    lower: float = 0.0

    @property
    def update(self) -> tuple[tuple[str, object], ...]:
        """What it changes of the control section."""
        placed = (("sensor", self.sensor),) if self.sensor else ()
        left_on = (("toggle_on", True),) if WAYS[self.strategy].by_hand else ()
        return (("strategy", self.strategy), *placed, *left_on)


SCHOOLS = (
    School("upper", "Thermoswitch, upper hose", "ground_switch", "upper_hose", "Sees what leaves the engine, whatever the weather."),
    School("housing", "Adjustable, probe in the housing", "adjustable", "housing", "Sees the engine; its knob can be set on the day of the test."),
    School("lower", "Thermoswitch, lower hose", "ground_switch", "lower_hose", "Lets the core work first; feels nothing until the thermostat opens, and the engine’s load moves it.", LOWER),
    School("fins", "Adjustable, probe in the fins", "adjustable", "fins", "Easy to fit, but reads the air too: late on a cool day, early on a hot one."),
    School("two_speed", "Two speeds, staged", "two_speed", "upper_hose", "One fan or low speed for most of the year: half the start, less noise, a fan in reserve."),
    School("both", "Both relays together", "both_relays", "upper_hose", "Two relays share the load; all the air and all the start at once."),
    School("variable", "Variable speed, soft start", "variable", "upper_hose", "Runs no faster than it must: least current, no start to speak of, dearest to buy."),
    School("computer", "Engine computer, low and high", "computer", None, "Knows load, speed and A/C too; set where the engine’s maker set it."),
    School("toggle", "Toggle, left on", "toggle", None, "Depends on somebody remembering; runs all day."),
)  # fmt: skip


class Day(NamedTuple):
    """One school on one day [degC]: engine outlet at which fans start and stop, where it settles, shares of time or speed and of power."""

    ambient: float
    on: float
    off: float
    held: float
    duty: float
    load: float


class Compared(NamedTuple):
    """One school with its days, mean and starting amps of the fans; default: what is recommended here."""

    school: School
    edit: Edit
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


def edit_of(build: Build, school: School) -> Edit:
    """The edit that goes over to a school: strategy, sensor and the set points its place wants."""
    control = build.package.control
    where = ("packages", build.active, "control")
    changes = [Change((*where, name), value) for name, value in school.update if getattr(control, name) != value]
    shift = _shift_of(build) - school.lower
    base = control.fan_on.si if control.fan_on else 90.0
    if abs(shift) > 1e-6:
        for name in ("fan_on", "fan_off"):
            now = getattr(control, name)
            if now is not None:
                changes.append(Change((*where, name), from_si(now.si + shift, "temperature", "us", "derived")))
    on = base + shift
    if WAYS[school.strategy].staged and control.second_on.si < on + 1:
        changes += [Change((*where, "second_on"), from_si(on + SECOND, "temperature", "us", "derived")),
                    Change((*where, "second_off"), from_si(on + SECOND - 5, "temperature", "us", "derived"))]  # fmt: skip
    return Edit(f"Control: {school.name.lower()}", tuple(changes))


def _shift_of(build: Build) -> float:
    """Kelvin the present set points lie under those of the upper hose: a lower-hose switch already is."""
    return LOWER if place_of(build.package.control) == "lower_hose" and set_for_lower_hose(build.package) else 0.0


def default_key(fans: int) -> str:
    """The school recommended where nothing speaks against it."""
    return "two_speed" if fans > 1 else "upper"


@in_one_go
def compare_schools(build: Build, case_id: str) -> Comparison:
    """Every school for one duty case on all days. Solved together in as few calls as their shapes allow."""
    case = build.duty_case(case_id)
    days = [(f - 32) / 1.8 for f in WEATHER]
    edits = [edit_of(build, school) for school in SCHOOLS]
    builds = [apply(build, edit) if edit.changes else build for edit in edits]
    asked = [Asked(_on_day(b, case_id, ambient), case_id) for b in builds for ambient in days]
    points = held(asked)
    marks = outlets_at(asked, [set_points(question.build) for question in asked], LOOKED_AT)
    amps = system_at(build, build.package, case).fan_amps
    starting = sum(START * m.motor.current for m in motors_of(build, build.package) if m.fan)
    rows = []
    for k, (school, edit) in enumerate(zip(SCHOOLS, edits, strict=True)):
        part = slice(k * len(days), (k + 1) * len(days))
        found = tuple(_day(*of) for of in zip(days, points[part], marks[part], strict=True))
        hot = min(found, key=lambda day: abs(day.ambient - USUAL_DAY))
        default = school.key == default_key(len(build.package.fans))
        rows.append(Compared(school, edit, found, amps * hot.load, _starting(school, starting), default, not edit.changes))
    thermostat, limit = build.package.loop.thermostat, build.brief.cooling.limit
    return Comparison(
        case.name,
        tuple(rows),
        _why(rows),
        thermostat.si if thermostat else None,
        limit.si if limit else None,
    )


def _on_day(build: Build, case_id: str, ambient: float) -> Build:
    return apply(build, Edit("", (Change(("duty_cases", case_id, "ambient"), from_si(ambient, "temperature", "si", "derived")),)))


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
    fins, day = place_of(control) == "fins", setting_air(control, build.brief.climate)
    return tuple(reading_at(v.si, "fins", day, 0.0) if fins else v.si for v in (control.fan_on, control.fan_off))


def _day(ambient: float, point: Held | None, marks: tuple[float, ...] | None) -> Day:
    on, off = marks or (math.nan, math.nan)
    if point is None:
        return Day(ambient, on, off, math.nan, math.nan, math.nan)
    return Day(ambient, on, off, point.temperature, point.command, point.load)


def _why(rows: list[Compared]) -> str:
    chosen = next(row for row in rows if row.default)
    fins = next(row for row in rows if row.school.key == "fins")
    cool = fins.days[1]
    hot = fins.days[-1]
    late = f"The probe in the fins starts at {both(cool.on, 'temperature')} on a {both(cool.ambient, 'temperature')} day and at {both(hot.on, 'temperature')} on a {both(hot.ambient, 'temperature')} one."
    return f"Default here: {chosen.school.name.lower()}. {chosen.school.why} Its sensor sees the engine on every day. {late}"
