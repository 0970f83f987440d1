"""A schedule's legs as moments: times, speeds and ways worked by hand."""

import math

import numpy as np
import pytest

from keelroom.assess.acts.registry import edit_for, offer
from keelroom.assess.assess import first_wave
from keelroom.assess.drives.driven import Driven, drive_of
from keelroom.assess.drives.moments import Moment, moments_of
from keelroom.assess.drives.situations import heater_on
from keelroom.assess.outcome import Stopped
from keelroom.assess.questions.what_if import what_if
from keelroom.document.edits import apply
from keelroom.document.quantity import quantity
from tests.changes import on
from tests.drives import driven, leg, schedule


def moments(build, *legs):
    return moments_of(build, schedule(*legs, begins="warm"))


def way(found):
    return sum(moment.speed * moment.lasts for moment in found)


def test_a_kept_speed_is_come_to_first(demo):
    """20 m/s from standing at 1.1 m/s2: 18.2 s and 182 m; then 20 m/s for what is left of a minute: 41.8 s, 836 m."""
    found = moments(demo, leg("hold", "1 min", speed="20 m/s"))
    assert sum(moment.lasts for moment in found) == pytest.approx(60.0)
    assert way(found) == pytest.approx(181.8 + 836.4, abs=0.5)
    assert found[-1].steady
    assert all(moment.gains == pytest.approx(1.1) for moment in found[:-1])


def test_a_car_that_has_settled_on_the_road_is_at_its_speed(demo):
    """It begins as that speed settles, not as it was driven off: no hotter at first than a minute later."""
    road = leg("hold", "10 min", speed="55 mph")
    found = driven(demo, road)
    assert all(moment.steady for moment in found.moments)
    first, later = (float(np.interp(at, found.run.time, found.run.outlet)) for at in (0.0, 120.0))
    assert first == pytest.approx(later, abs=3.0)
    town = driven(demo, leg("stops", "10 min", speed="25 mph"))
    assert town.run.outlet[0] < town.limit - 10


def test_from_light_to_light(demo):
    """Off to 10 m/s in 9.1 s, along, on the brakes in 6.7 s, 30 s of them in motion; standing 30 s: 221 m a light, ten
    of them in ten minutes."""
    found = moments(demo, leg("stops", "10 min", speed="10 m/s", goes="0.5 min", stands="0.5 min"))
    assert sum(moment.lasts for moment in found) == pytest.approx(600.0)
    assert way(found) == pytest.approx(10 * (0.5 * 10 * 9.09 + 10 * (30 - 9.09 - 6.67) + 0.5 * 10 * 6.67), rel=0.002)
    assert sum(moment.lasts for moment in found if moment.speed == 0) == pytest.approx(300.0)


def test_a_light_too_near_is_gone_to_slower(demo):
    """Five seconds to go, on and off the gas: no faster than 5 / (1/1.1 + 1/1.5) = 3.2 m/s."""
    found = moments(demo, leg("stops", "1 min", speed="20 m/s", goes="5 s", stands="25 s"))
    assert max(moment.speed + abs(moment.gains) * moment.lasts / 2 for moment in found) == pytest.approx(3.17, abs=0.02)


def test_a_cycle_goes_its_published_way(demo):
    """UDDS: 1 369 s, 7.45 mi (40 CFR 86)."""
    found = moments(demo, leg("cycle", "0 min", trace="udds"))
    assert sum(moment.lasts for moment in found) == pytest.approx(1369.0)
    assert way(found) / 1609.344 == pytest.approx(7.45, rel=2e-3)
    twice = moments(demo, leg("cycle", "45.6333 min", trace="udds"))
    assert way(twice) == pytest.approx(2 * way(found), rel=1e-3)


def test_what_speeds_a_car_up_is_a_grade_of_its_own():
    """At 1 m/s2 as at sin = 1.05 / 9.80665: 10.8 % up."""
    moment = Moment(1.0, 10.0, 1.0, 0.0, 0, None, True, False)
    assert moment.slope == pytest.approx(0.1077, abs=2e-4)
    assert moment._replace(gains=0.0, grade=0.06).slope == pytest.approx(0.06)
    assert moment._replace(gains=-1.0, grade=0.1077).slope == pytest.approx(0.0, abs=1e-3)


def test_a_day_that_warms_does_so_in_its_leg(demo):
    found = moments(demo, leg("idle", "10 min", ambient="20 °C"), leg("idle", "10 min", ambient="40 °C"))
    days = [moment.ambient for moment in found]
    assert days[0] == 20.0
    assert days[1:] == sorted(days[1:])
    assert days[-1] == pytest.approx(38.75)


def test_the_key_off_stops_engine_and_speed(demo):
    found = moments(demo, leg("hold", "1 min", speed="20 m/s"), leg("off", "2 min"))
    assert [moment.alive for moment in found][-1] is False
    assert found[-1].speed == 0.0


@pytest.mark.parametrize(
    ("legs", "words"),
    [
        ((), "no time at all"),
        ((leg("idle", "0 min"),), "no time at all"),
        ((leg("stops", "5 min", goes="0 s", stands="0 s"),), "takes no time"),
        ((leg("cycle", "0 min", trace="nowhere"),), "names no recorded cycle"),
    ],
    ids=["no leg", "no time", "no light", "no cycle"],
)
def test_what_cannot_be_driven_is_said_where_it_stands(demo, legs, words):
    found = drive_of(demo, demo.package, schedule(*legs), False)
    assert isinstance(found, Stopped)
    assert words in found.why
    assert found.where[:2] == ("driving", "schedules")


def test_gearing_that_no_engine_turns_is_said(demo):
    build = on(demo, (("brief", "vehicle", "tyre_diameter"), "2 in", "length"))
    found = drive_of(build, build.package, schedule(leg("hold", "5 min", speed="70 mph")), False)
    assert isinstance(found, Stopped)
    assert "rpm" in found.why
    assert found.where == ("brief", "vehicle", "tyre_diameter")


def test_an_entry_past_a_law_stops_a_drive_as_it_stops_a_duty_case(demo):
    """By the same sentence, at the entry that is far out; nothing of what went wrong inside."""
    for entry, text, kind in (
        (("packages", "p1", "core", "fin_density"), "0.2 fins/in", "fin density"),
        (("supply", "regulated"), "48 V", "voltage"),
    ):
        build = on(demo, (entry, text, kind))
        found = drive_of(build, build.package, schedule(leg("idle", "5 min")), False)
        case = next(one for one in first_wave(build).cases if one.case_id == "idle")
        assert isinstance(found, Stopped)
        assert not found.report
        assert found.why == case.stopped.why
        assert found.where == entry
    typed = drive_of(demo, demo.package, schedule(leg("idle", "5 min", rpm="100 rpm")), False)
    assert typed.where[:4] == ("driving", "schedules", "test", "legs")
    assert typed.where[-1] == "rpm"


def test_a_redline_passed_is_marked_at_its_moment(demo):
    build = on(demo, (("supply", "redline"), "2000 rpm", "turning speed"))
    found = driven(build, leg("idle", "2 min"), leg("hold", "5 min", speed="70 mph"))
    mark = next(one for one in found.says.marks if one.code == "redline")
    assert 120.0 <= mark.at < 300.0
    assert mark.value > 2000


def test_bands_lie_round_the_run(demo):
    found = driven(demo, leg("hold", "20 min", speed="45 mph", grade="5 %"), begins="warm", bands=True)
    assert isinstance(found, Driven)
    assert found.low.outlet.max() <= found.run.outlet.max() + 1e-6 <= found.high.outlet.max() + 2e-6


def test_more_stored_is_slower_and_ends_alike(demo):
    """Twice the metal: the limit is passed later by a third to twice; where it ends is the same."""
    hill = next(case for case in demo.duty_cases if case.name.startswith("Quarry"))
    fields = {name: getattr(hill, name) for name in ("speed", "grade", "gear_step", "rpm", "ac_on", "ambient")}
    legs = (leg("hold", "90 min").model_copy(update=fields | {"towed": hill.towed_mass}),)
    light = driven(demo, *legs, begins="warm")
    heavy = driven(on(demo, (("driving", "stores", "times"), "2", "number")), *legs, begins="warm")
    assert math.isfinite(light.says.limit_at)
    assert 1.2 < heavy.says.limit_at / light.says.limit_at < 2.2
    assert heavy.says.ends == pytest.approx(light.says.ends, abs=1.0)


def test_an_idle_held_up_moves_more_coolant_and_air_no_less(demo):
    slow, fast = (driven(demo, leg("idle", "15 min", rpm=rpm)) for rpm in ("700 rpm", "1500 rpm"))
    assert fast.says.fuel > slow.says.fuel


def test_grade_as_typed_is_kept(demo):
    steep = leg("hold", "1 min", speed="10 m/s").model_copy(update={"grade": quantity("12 %", "share")})
    assert {moment.grade for moment in moments(demo, steep)} == {0.12}


def test_what_is_set_by_a_click_does_what_its_row_says(demo):
    """Every act of the What if table, done to the build, drives as its row was told."""
    staged = on(demo, (("packages", "p1", "control", "strategy"), "two_speed"))
    one = schedule(leg("hold", "6 min", speed="55 mph", grade="4 %"), leg("off", "5 min"), begins="warm")
    tried = 0
    for build in (on(demo, (("packages", "p1", "control", "coil"), "key")), staged):
        found = what_if(build, one, "us")
        assert found[0].act is None
        for row in found:
            if row.act is None:
                continue
            done = apply(build, edit_for(build, row.act, "us"))
            again = drive_of(done, done.package, one, bands=False)
            assert again.says == row.found.says, row.name
            tried += 1
    assert tried >= 12


def test_fan_hours_per_hundred_miles(demo):
    """Fans held on by hand over a road of ten minutes at 60 mph, 10 miles: 1.67 h per hundred miles, by hand; and on
    the road a switch in the lower hose, set for it, runs them no more than one in the upper."""
    always = on(demo, (("packages", "p1", "control", "strategy"), "toggle"))
    road = schedule(leg("hold", "10 min", speed="60 mph"))
    found = what_if(always, road, "us")
    assert found[0].fan_hours == pytest.approx(1.667, abs=0.02)
    by_school = {row.name: row.fan_hours for row in found if row.sort == "school"}
    assert len(by_school) >= 4
    assert min(by_school.values()) < 1.0


def test_failures_are_told_from_their_beginning(demo):
    """No fan in the second leg: the time left is counted from there, and is finite."""
    found = what_if(demo, schedule(leg("idle", "5 min"), leg("idle", "25 min", ac_on=True)), "us")
    row = next(one for one in found if one.name.startswith("All fans fail"))
    assert row.since == pytest.approx(300.0)
    assert 30.0 < row.left < 25 * 60.0


def test_a_moment_as_a_duty_case_asks_what_the_moment_does(demo):
    """In a leg that names no day the day is the one the leg before came to."""
    two = schedule(leg("idle", "5 min", ambient="20 °C"), leg("hold", "10 min", speed="40 mph", grade="3 %"))
    build = demo.model_copy(update={"driving": demo.driving.model_copy(update={"schedules": (two,)})})
    done = apply(build, edit_for(build, offer("moment_case", schedule="test", at="600"), "us"))
    case = done.duty_cases[-1]
    assert case.ambient.si == pytest.approx(20.0)
    assert case.speed.si == pytest.approx(40 * 0.44704, rel=1e-3)
    assert case.grade.si == pytest.approx(0.03, abs=1e-4)
    assert case.demand == "road_load"
    assert not case.counted


@pytest.mark.parametrize(("share", "on", "off"), [(0.5, 20.0, 20.0), (0.25, 20.0, 60.0), (0.9, 45.0, 5.0)])
def test_a_clutch_is_on_for_its_share_and_twenty_seconds_at_a_time(demo, share, on, off):
    found = moments_of(demo, schedule(leg("idle", "30 min", ac_on=True, ac_share=f"{100 * share} %")))
    assert sum(moment.lasts for moment in found) == pytest.approx(1800)
    assert [moment.lasts for moment in found[:2]] == pytest.approx([on, off])
    assert [moment.ac for moment in found[:4]] == [True, False, True, False]
    closed = sum(moment.lasts for moment in found if moment.ac)
    assert closed / 1800 == pytest.approx(share, abs=0.03)


def test_a_heater_the_circuit_has_not_takes_nothing(demo):
    hot = leg("idle", heater_on=True)
    assert heater_on(demo.package, hot)
    bare = tuple(part for part in demo.package.loop.parts if part.kind != "heater")
    loop = demo.package.loop.model_copy(update={"parts": bare})
    assert bool(bare) != heater_on(demo.package.model_copy(update={"loop": loop}), hot)
