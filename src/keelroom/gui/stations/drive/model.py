"""The Drive station's form: a schedule with its legs, and what stores heat."""

from __future__ import annotations

from keelroom.assess.acts.registry import offer
from keelroom.assess.drives.words import clock
from keelroom.catalogue.cycles import SHIPPED
from keelroom.document.schema.build import Build
from keelroom.document.schema.drive import Leg, Schedule
from keelroom.drawing.schedule import FAILING, WORDS
from keelroom.gui.rows import Group, Page, Press, Row, quantities
from keelroom.units import KINDS, format_si

KINDS_OF_LEG = tuple((kind, words.capitalize()) for kind, words in WORDS.items())
BEGINS = (
    ("settled", "As its first leg settles"),
    ("warm", "Warm, the thermostat just open"),
    ("cold", "Cold, as warm as the day"),
)
FAILS = (("", "Nothing"), ("fan", "The fan that leads"), ("fans", "All fans"), ("pump", "The coolant pump"))
MAKES = (("iron", "Iron block and heads"), ("mixed", "Iron block, aluminium heads"), ("aluminium", "All aluminium"))
FIELDS = {
    "idle": ("lasts", "rpm"),
    "off": ("lasts",),
    "hold": ("lasts", "speed", "grade", "towed", "gear_step", "rpm"),
    "change": ("lasts", "speed", "grade", "towed", "gear_step"),
    "pull": ("lasts", "speed", "grade", "towed", "rpm"),
    "stops": ("lasts", "speed", "goes", "stands", "grade", "towed", "gear_step"),
    "cycle": ("lasts", "grade", "towed", "gear_step"),
}
"""measures of a leg by its kind"""


def pages(build: Build, schedule: Schedule | None, system: str) -> tuple[Page, ...]:
    """The station's pages."""
    return (
        Page("Run", ()),
        schedule_page(build, schedule, system),
        Page("What if", ()),
        Page("Packages", ()),
        Page("Cycles", ()),
    )


def schedule_page(build: Build, schedule: Schedule | None, system: str) -> Page:
    """One schedule with its legs."""
    stores = ("driving", "stores")
    heat = Group(
        "What stores heat",
        (
            Row("choice", (*stores, "make"), "Engine", MAKES),
            *quantities(stores, "times", "oil", "sensor_lag", "sender_lag", "needle_lag", "least_on"),
        ),
        note="Moves no steady temperature, only how long it takes: ±30 % of what is proposed is ±30 % of the time.",
        rare=True,
    )
    usual: Press = ("Add the usual drives", offer("usual_schedules"))
    if schedule is None:
        return Page("Schedule", (heat,), (("Add a drive", offer("add_schedule")), usual))
    path = ("driving", "schedules", schedule.id)
    first = Group(
        "Drive",
        (Row("text", (*path, "name"), "Name"), Row("choice", (*path, "begins"), "Begins", BEGINS)),
        remove=path if len(build.driving.schedules) > 1 else (),
    )
    legs = tuple(_leg(build, path, leg, place) for place, leg in enumerate(schedule.legs))
    actions: tuple[Press, ...] = (
        ("Add a leg", offer("add_leg", schedule=schedule.id)),
        ("Copy this drive", offer("copy_schedule", schedule=schedule.id)),
        ("Add a drive", offer("add_schedule")),
        ("Drive a duty case…", "case"),
    )
    return Page(
        "Schedule",
        (first, *legs, heat),
        actions,
        leading=(("Another drive…", "which"),) if len(build.driving.schedules) > 1 else (),
        brief=lambda at: leg_words(next((leg for leg in schedule.legs if leg.id == at[-1]), None), system),
    )


def _leg(build: Build, path: tuple[str, ...], leg: Leg, place: int) -> Group:
    at = (*path, "legs", leg.id)
    of = leg.name or f"Leg {place + 1}"
    rows = [Row("text", (*at, "name"), "Leg", said=of), Row("choice", (*at, "kind"), "What", KINDS_OF_LEG, of)]
    if leg.kind == "cycle":
        rows.append(Row("choice", (*at, "trace"), "Cycle", traces(build), of))
    rows += quantities(at, *FIELDS[leg.kind], of=of)
    if leg.kind != "off":
        rows.append(Row("flag", (*at, "ac_on"), "A/C on", said=of))
        if leg.ac_on:
            rows += quantities(at, "ac_share", of=of)
        rows.append(Row("flag", (*at, "heater_on"), "Heater on full", said=of))
    rows += quantities(at, "ambient", of=of)
    rows.append(Row("choice", (*at, "fails"), "Fails from here on", FAILS, of))
    return Group(of, tuple(rows), remove=at)


def traces(build: Build) -> tuple[tuple[str, str], ...]:
    """Cycles to choose from."""
    own = tuple((trace.id, trace.name or trace.id) for trace in build.driving.traces)
    return (("", "None yet"), *own, *((key, name) for key, (name, _) in SHIPPED.items()))


def leg_words(leg: Leg | None, system: str) -> str:
    """A leg in a few words."""
    if leg is None:
        return ""
    moving = leg.kind not in ("idle", "off", "cycle") and leg.speed.si > 0
    words = (
        WORDS[leg.kind],
        clock(leg.lasts.si) if leg.lasts.si > 0 else "once",
        format_si(leg.speed.si, KINDS["speed"], system) if moving else "",
        f"{leg.grade.si:.0%} up" if leg.grade.si > 0 else "",
        "towing" if leg.towed.si > 0 else "",
        "A/C on" if leg.ac_on else "",
        "heater on" if leg.heater_on else "",
        FAILING[leg.fails],
    )
    return ", ".join(word for word in words if word)
