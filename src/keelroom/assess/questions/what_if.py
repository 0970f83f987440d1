"""The same drive with one thing other: set points, run-on, a failure, a hotter day. What a builder would try on the
road one after another."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from typing import NamedTuple

from keelroom.assess.acts.control import SCHOOLS, school_edit
from keelroom.assess.acts.registry import edit_for, offer
from keelroom.assess.drives.driven import Driven, drive_of
from keelroom.assess.drives.situations import heater_on
from keelroom.assess.inputs.electrical.ways import way_of
from keelroom.assess.outcome import Stopped
from keelroom.document.act import Act
from keelroom.document.edits import apply
from keelroom.document.quantity import Quantity, from_si
from keelroom.document.schema.build import Build
from keelroom.document.schema.drive import Fails, Leg, Schedule
from keelroom.document.schema.package import Package
from keelroom.errors import KeelRoomError
from keelroom.units import KINDS, format_si

CHATTERS = 60.0
"""Starts an hour past which relays and brushes wear out early (common practice, no source)."""
MILE = 1609.344
SPANS = (5 / 1.8, 10 / 1.8, 15 / 1.8, 25 / 1.8)
"""[K] between on and off that are tried: 5, 10, 15 and 25 °F."""
RUN_ONS = (0.0, 180.0, 600.0)
"""[s]"""
DAYS = (10 / 1.8, -20 / 1.8, -40 / 1.8)
"""[K] other days are hotter by: 10 °F, and 20 and 40 °F colder."""
SOONER = 5 / 1.8
"""[K] the second speed is tried sooner and later by: 5 °F."""
SOON = 2.0
"""[K] of set point, or [s] of run-on, within which it is so already."""


class WhatIf(NamedTuple):
    """One thing other. act: what makes it so, None where it is no choice or is so already

    since [s] : when it begins, where that is in the midst of the drive;  was [degC] : hottest as it is
    """

    name: str
    sort: str
    found: Driven | Stopped
    act: Act | None
    since: float
    was: float

    @property
    def left(self) -> float:
        """How long from there until the limit is passed [s]; inf where it never is."""
        if not isinstance(self.found, Driven):
            return math.inf
        return self.found.says.limit_at - self.since

    @property
    def fan_hours(self) -> float:
        """Hours the fans run for every hundred miles driven; none where it stands throughout."""
        if not isinstance(self.found, Driven) or self.found.says.metres < MILE:
            return math.nan
        says, hours = self.found.says, float(self.found.run.time[-1]) / 3600
        return says.fans.share * hours / (says.metres / (100 * MILE))

    @property
    def chatters(self) -> bool:
        """Whether the fans start too often."""
        return isinstance(self.found, Driven) and self.found.says.fans.per_hour > CHATTERS


class _Try(NamedTuple):
    name: str
    sort: str
    build: Build
    schedule: Schedule
    act: Act | None = None
    since: float = 0.0


def what_if(
    build: Build, schedule: Schedule, system: str, tell: Callable[[float], bool] | None = None
) -> tuple[WhatIf, ...]:
    """The package in use through the drive as it is, and with one thing other at a time; tell: told how far it has
    come, answers whether to go on. Call only where nothing is lacking."""
    package = build.package
    plain = drive_of(build, package, schedule, bands=False)
    was = plain.says.peak.value if isinstance(plain, Driven) else math.nan
    found = [WhatIf("As it is", "now", plain, None, 0.0, was)]
    if not isinstance(plain, Driven):
        return tuple(found)
    tries = (
        *_spans(build, schedule, system),
        *_stages(build, schedule, system),
        *_schools(build, schedule),
        *_run_ons(build, schedule),
        *_asked_less(build, schedule),
        *_failures(build, schedule, plain),
        *_days(build, schedule, system),
    )
    for k, one in enumerate(tries):
        if tell is not None and not tell(k / len(tries)):
            break
        driven = drive_of(one.build, one.build.with_id(package.id), one.schedule, bands=False)
        found.append(WhatIf(one.name, one.sort, driven, one.act, one.since, was))
    return tuple(found)


def _done(build: Build, act: Act, system: str) -> Build | None:
    """The build with an act done; None where it cannot be."""
    try:
        return apply(build, edit_for(build, act, system))
    except KeelRoomError:
        return None


def _set(package: Package, field: str, si: float, kind: str, label: str, system: str) -> Act:
    value = from_si(si, kind, system, "measured")
    path = ("packages", package.id, "control", field)
    return Act("set", label, package.id, (("text", f"{value.as_typed} {value.unit}"),), path)


def _spans(build: Build, schedule: Schedule, system: str) -> Iterator[_Try]:
    """Other distances between on and off, where a contact switches the fans."""
    package, control = build.package, build.package.control
    way = way_of(control)
    if way.by_hand or way.varies or control.fan_on is None or control.fan_off is None or not package.fans:
        return
    now = control.fan_on.si - control.fan_off.si
    kind = KINDS["temperature difference"]
    for span in SPANS:
        words = format_si(span, kind, system)
        name = f"Fans off {words} under on"
        if abs(span - now) < SOON / 4:
            continue
        label = f"Fans off at {format_si(control.fan_on.si - span, KINDS['temperature'], system)}"
        act = _set(package, "fan_off", control.fan_on.si - span, "temperature", label, system)
        other = _done(build, act, system)
        if other is not None:
            yield _Try(name, "set", other, schedule, act)


def _schools(build: Build, schedule: Schedule) -> Iterator[_Try]:
    """Every other school of fan control, over the whole drive and not at a light alone."""
    if not build.package.fans or all(fan.motor == "engine" for fan in build.package.fans):
        return
    for school in SCHOOLS:
        edit = school_edit(build.package, school)
        if edit.changes:
            act = offer("school", build.active, edit.label, school=school.key)
            yield _Try(f"School: {school.name}", "school", apply(build, edit), schedule, act)


def _stages(build: Build, schedule: Schedule, system: str) -> Iterator[_Try]:
    """The second speed sooner and later, where there is one."""
    control = build.package.control
    if not way_of(control).staged:
        return
    for by in (-SOONER, SOONER):
        at = control.second_on.si + by
        shown = format_si(at, KINDS["temperature"], system)
        label = f"Second speed on at {shown}"
        act = _set(build.package, "second_on", at, "temperature", label, system)
        other = _done(build, act, system)
        if other is not None:
            yield _Try(label, "set", other, schedule, act)


def _run_ons(build: Build, schedule: Schedule) -> Iterator[_Try]:
    """Other times the fans run on, where the key is turned off in the drive."""
    control = build.package.control
    if not any(leg.kind == "off" for leg in schedule.legs) or control.coil == "always" or way_of(control).by_hand:
        return
    for seconds in RUN_ONS:
        if abs(seconds - control.run_on.si) < SOON:
            continue
        name = f"Fans run on {seconds / 60:g} min" if seconds else "Fans stop with the key"
        act = _set(build.package, "run_on", seconds, "minutes", name, "us")
        other = _done(build, act, "us")
        if other is not None:
            yield _Try(name, "set", other, schedule, act)


def _asked_less(build: Build, schedule: Schedule) -> Iterator[_Try]:
    """The driver's own means: the A/C off, the heater on, an idle held up."""
    if any(leg.ac_on for leg in schedule.legs) and build.brief.accessories.ac_fitted:
        yield _Try("A/C switched off", "driver", build, _all_through(schedule, ac_on=False))
    hotter = _all_through(schedule, heater_on=True)
    if not all(leg.heater_on for leg in schedule.legs) and any(heater_on(build.package, leg) for leg in hotter.legs):
        yield _Try("Heater on full", "driver", build, hotter)
    idles = [leg for leg in schedule.legs if leg.kind == "idle"]
    if idles and build.brief.engine.idle_rpm:
        fast = from_si(1.7 * build.brief.engine.idle_rpm.si, "turning speed", "us", "derived")
        legs = tuple(
            leg.model_copy(update={"rpm": fast, "in_gear": False}) if leg.kind == "idle" else leg
            for leg in schedule.legs
        )
        name = f"Idle held at {60 * fast.si:.0f} rpm in neutral"
        yield _Try(name, "driver", build, schedule.model_copy(update={"legs": legs}))


def _all_through(schedule: Schedule, **asked: bool) -> Schedule:
    """The schedule with the same asked in all its legs."""
    return schedule.model_copy(update={"legs": tuple(leg.model_copy(update=asked) for leg in schedule.legs)})


FAILURES: tuple[tuple[Fails, str], ...] = (
    ("fan", "One fan fails"),
    ("fans", "All fans fail"),
    ("pump", "The pump fails"),
)


def _failures(build: Build, schedule: Schedule, plain: Driven) -> Iterator[_Try]:
    """Each failure from the middle of the leg that is hottest on."""
    hottest = next(
        (m.leg for m, until in zip(plain.moments, plain.until, strict=True) if plain.says.peak.at <= until + 1e-6),
        plain.moments[-1].leg,
    )
    place = next((k for k in range(hottest, -1, -1) if schedule.legs[k].kind != "off"), hottest)
    since = next(
        (float(until) - m.lasts for m, until in zip(plain.moments, plain.until, strict=True) if m.leg == place),
        0.0,
    )
    for fails, name in FAILURES:
        if fails == "fan" and len(build.package.fans) < 2:
            continue
        if fails != "pump" and not build.package.fans:
            continue
        yield _Try(
            f"{name} in “{_named(schedule.legs[place])}”",
            "failure",
            build,
            _failing(schedule, place, fails),
            None,
            since,
        )


def _named(leg: Leg) -> str:
    return leg.name or leg.id


def _failing(schedule: Schedule, place: int, fails: Fails) -> Schedule:
    legs = tuple(leg.model_copy(update={"fails": fails}) if k == place else leg for k, leg in enumerate(schedule.legs))
    return schedule.model_copy(update={"legs": legs})


def _days(build: Build, schedule: Schedule, system: str) -> Iterator[_Try]:
    """Other days, all the drive through: the brief's and the legs' own that much warmer or colder."""
    ambient = build.brief.climate.ambient
    if ambient is None:
        return
    for by in DAYS:
        words = format_si(abs(by), KINDS["temperature difference"], system)
        climate = build.brief.climate.model_copy(update={"ambient": _warmer(ambient, by)})
        legs = tuple(
            leg.model_copy(update={"ambient": _warmer(leg.ambient, by)}) if leg.ambient else leg
            for leg in schedule.legs
        )
        other = build.model_copy(update={"brief": build.brief.model_copy(update={"climate": climate})})
        name = f"A day {words} {'hotter' if by > 0 else 'colder'}"
        yield _Try(name, "day", other, schedule.model_copy(update={"legs": legs}))


def _warmer(day: Quantity, by: float) -> Quantity:
    return from_si(day.si + by, "temperature", "si", "derived")
