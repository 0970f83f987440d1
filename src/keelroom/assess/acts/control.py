"""Acts on how the fans are switched: one school or another, and set points between thermostat and limit."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.acts.circuits import LIVE
from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.figures.batch import Asked, readings_at, temperatures
from keelroom.assess.inputs.electrical.controller import (
    ABOVE_THERMOSTAT,
    BETWEEN,
    LOWER,
    NEAR_LIMIT,
    seat_of,
    set_for_lower_hose,
)
from keelroom.assess.inputs.electrical.ways import WAYS
from keelroom.document.edits import Change, Edit
from keelroom.document.quantity import as_read
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import SensorPlace, Strategy
from keelroom.document.schema.package import Package
from keelroom.errors import InputError

SECOND = 5.0
"""Kelvin the second speed lies over the first: sold pairs such as 180 and 190 degF (common practice)."""


class School(NamedTuple):
    """One way to decide, with the place it is felt at. lower: kelvin its set points lie under those of the upper
    hose."""

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
    School(
        "upper",
        "Thermoswitch, upper hose",
        "ground_switch",
        "upper_hose",
        "Sees what leaves the engine, whatever the weather.",
    ),
    School(
        "housing",
        "Adjustable, probe in the housing",
        "adjustable",
        "housing",
        "Sees the engine; its knob can be set on the day of the test.",
    ),
    School(
        "lower",
        "Thermoswitch, lower hose",
        "ground_switch",
        "lower_hose",
        "Lets the core work first; feels nothing until the thermostat opens, and the engine’s load moves it.",
        LOWER,
    ),
    School(
        "fins",
        "Adjustable, probe in the fins",
        "adjustable",
        "fins",
        "Easy to fit, but reads the air too: late on a cool day, early on a hot one.",
    ),
    School(
        "two_speed",
        "Two speeds, staged",
        "two_speed",
        "upper_hose",
        "One fan or low speed for most of the year: half the start, less noise, a fan in reserve.",
    ),
    School(
        "both",
        "Both relays together",
        "both_relays",
        "upper_hose",
        "Two relays share the load; all the air and all the start at once.",
    ),
    School(
        "variable",
        "Variable speed, soft start",
        "variable",
        "upper_hose",
        "Runs no faster than it must: least current, no start to speak of, dearest to buy.",
    ),
    School(
        "computer",
        "Engine computer, low and high",
        "computer",
        None,
        "Knows load, speed and A/C too; set where the engine’s maker set it.",
    ),
    School("toggle", "Toggle, left on", "toggle", None, "Depends on somebody remembering; runs all day."),
)


def usual_points(build: Build, package: Package, system: str = "us") -> Edit:
    """The edit that puts both set points between thermostat and limit, as the sensor reads there. Raises InputError
    where there is no room for them."""
    limit = build.brief.cooling.limit
    thermostat = package.loop.thermostat
    if thermostat is None or limit is None:
        raise InputError("no_set_points", "Thermostat and limit must be known")
    on = min(thermostat.si + ABOVE_THERMOSTAT + BETWEEN, limit.si - NEAR_LIMIT - 0.5)
    off = min(thermostat.si + ABOVE_THERMOSTAT, on - BETWEEN)
    if off < thermostat.si:
        raise InputError("no_set_points", "There is no room for fan set points between this thermostat and this limit")
    lower = on - _read_at(build, package, on)
    where = ("packages", package.id, "control")
    points = (("fan_on", on - lower), ("fan_off", off - lower))
    return Edit(
        "Set points between thermostat and limit",
        tuple(Change((*where, name), as_read(at, "temperature", system, "derived")) for name, at in points),
    )


def _read_at(build: Build, package: Package, outlet: float) -> float:
    """What the sensor reads [degC] where the engine's outlet is at `outlet` and no fan has started yet: the least of
    the cases that pass the limit without a fan, so that none is late. Source: solved, cases as `Asked`."""
    if not seat_of(package.control).cooled:
        return outlet
    here = build.model_copy(update={"active": package.id})
    asked = [Asked(here, case.id) for case in here.duty_cases]
    limit = build.brief.cooling.limit
    without = temperatures(asked, 0.0)
    needed = [one for one, heat in zip(asked, without, strict=True) if heat is not None and limit and heat > limit.si]
    read = [value for value in readings_at(needed, outlet, 0.0) if value is not None]
    return min(read, default=outlet - LOWER)


def school_edit(package: Package, school: School, system: str = "us") -> Edit:
    """The edit that goes over to a school: strategy, sensor and the set points its place wants."""
    control = package.control
    where = ("packages", package.id, "control")
    changes = [Change((*where, name), value) for name, value in school.update if getattr(control, name) != value]
    shift = _shift_of(package) - school.lower
    base = control.fan_on.si if control.fan_on else 90.0
    if abs(shift) > 1e-6:
        for name in ("fan_on", "fan_off"):
            now = getattr(control, name)
            if now is not None:
                changes.append(Change((*where, name), as_read(now.si + shift, "temperature", system, "derived")))
    on = base + shift
    if WAYS[school.strategy].staged and control.second_on.si < on + 1:
        changes += [
            Change((*where, "second_on"), as_read(on + SECOND, "temperature", system, "derived")),
            Change((*where, "second_off"), as_read(on + SECOND - 5, "temperature", system, "derived")),
        ]
    return Edit(f"Control: {school.name.lower()}", tuple(changes))


def _shift_of(package: Package) -> float:
    """Kelvin the present set points lie under those of the upper hose: a lower-hose switch already is."""
    return LOWER if seat_of(package.control).after_core and set_for_lower_hose(package) else 0.0


def _go_over(do: Doing) -> Edit:
    school = next((one for one in SCHOOLS if one.key == do.given("school")), None)
    if school is None:
        raise InputError("act_incomplete", f"No school of control is called “{do.given('school')}”")
    return school_edit(do.package, school, do.system)


POINTS = (("packages", "*", "loop", "thermostat"), ("brief", "cooling", "limit"))
KINDS = (
    ActKind(
        "set_points",
        "Fan set points between thermostat and limit",
        lambda do: usual_points(do.build, do.package, do.system),
        "Set points in between",
        after=("At what the gauge reads when they start and stop",),
        rests_on=POINTS,
    ),
    ActKind(
        "school",
        "Another way to decide when the fans run",
        _go_over,
        cautions=LIVE,
        after=("At what the gauge reads when they start and stop",),
        rests_on=POINTS,
    ),
)
