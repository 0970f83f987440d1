"""Every field of a drive moves what the drive says: none is asked for nothing."""

import typing

import pytest

from keelroom.assess.drives.driven import Driven, drive_of
from keelroom.document.fields import spec_of
from keelroom.document.file import load
from keelroom.document.quantity import Quantity, quantity
from keelroom.document.schema.drive import Driving, Leg, Schedule, Stores
from tests.changes import on
from tests.conftest import DEMO
from tests.drives import leg, schedule

BUILD = load(DEMO)
AUTOMATIC = (("brief", "vehicle", "gearbox"), "automatic")
NAMES = {"id", "name", "trace", "source"}
"""what a thing is called, and the cycle it names: tried by name in the tests of moments"""
HELD = {
    "lasts": leg("idle", "10 min"),
    "speed": leg("hold", "10 min", speed="40 mph"),
    "grade": leg("hold", "10 min", speed="40 mph", grade="3 %"),
    "towed": leg("hold", "10 min", speed="40 mph", grade="3 %", towed="500 lb"),
    "gear_step": leg("hold", "10 min", speed="40 mph"),
    "rpm": leg("idle", "10 min", rpm="1000 rpm"),
    "ambient": leg("idle", "10 min", ambient="90 °F"),
    "stands": leg("stops", "10 min", speed="30 mph", stands="1 min"),
    "goes": leg("stops", "10 min", speed="30 mph", goes="1 min"),
    "ac_on": leg("idle", "10 min"),
    "ac_share": leg("idle", "10 min", ac_on=True),
    "heater_on": leg("idle", "10 min"),
    "in_gear": leg("idle", "10 min"),
    "kind": leg("idle", "10 min", speed="40 mph"),
    "fails": leg("idle", "10 min"),
}
"""by field a leg in which it matters"""
CONTEXT = {"in_gear": [AUTOMATIC], "least_on": [(("packages", "p1", "control", "fan_off"), "193 °F", "temperature")]}


def says(build, one):
    found = drive_of(build, build.package, one, bands=False)
    assert isinstance(found, Driven), found
    return found.says


def other(model, name, now):
    """Another value a field may hold."""
    if name == "ac_share":
        return quantity("50 %", "share")
    if isinstance(now, Quantity):
        spec = spec_of(model, name)
        return quantity(f"{now.si * 1.3 if now.si else 20.0:.6g} {spec.kind.units[0].symbol}", spec.kind_name)
    if isinstance(now, bool):
        return not now
    choices = typing.get_args(model.model_fields[name].annotation)
    return next(one for one in reversed(choices) if one != now)


@pytest.mark.parametrize("name", [n for n in Leg.model_fields if n not in NAMES])
def test_every_field_of_a_leg_moves_its_drive(name):
    build = on(BUILD, *CONTEXT.get(name, []))
    one = HELD[name]
    changed = one.model_copy(update={name: "hold" if name == "kind" else other(Leg, name, getattr(one, name))})
    assert says(build, schedule(one, begins="warm")) != says(build, schedule(changed, begins="warm"))


@pytest.mark.parametrize("name", list(Stores.model_fields))
def test_what_stores_heat_moves_a_drive(name):
    build = on(BUILD, *CONTEXT.get(name, []))
    one = schedule(
        leg("idle", "12 min", ac_on=True), leg("off", "4 min"), begins="cold" if name != "least_on" else "warm"
    )
    now = getattr(build.driving.stores, name)
    value = quantity("5 L", "volume") if name == "oil" else other(Stores, name, now)
    value = quantity("90 s", "seconds") if name == "least_on" else value
    changed = on(build, (("driving", "stores", name), value))
    was, is_now = (drive_of(each, each.package, one, bands=False) for each in (build, changed))
    # A needle moves nothing but what it shows.
    assert was.run.gauge.max() != is_now.run.gauge.max() or was.says != is_now.says


def test_where_a_drive_begins_matters():
    found = [says(BUILD, schedule(leg("idle", "8 min"), begins=begins)) for begins in ("settled", "warm", "cold")]
    assert len({one.fuel for one in found} | {one.ends for one in found}) >= 3


def test_the_lists_of_a_drive_are_those_above():
    assert set(HELD) == set(Leg.model_fields) - NAMES
    assert set(Schedule.model_fields) == {"id", "name", "begins", "legs"}
    assert set(Driving.model_fields) == {"schedules", "traces", "stores"}
