"""Worth table, response and backwards question, cores compared, sweeps, cheap causes, air map and fan chart."""

import math

import numpy as np
import pytest

from keelroom.assess.acts.core import fit_core
from keelroom.assess.assess import assess, first_wave
from keelroom.assess.causes import causes_for, marked, open_causes
from keelroom.assess.figures.batch import Asked, temperatures
from keelroom.assess.inputs.electrical.system import planned_circuits
from keelroom.assess.questions.airmap import air_map, fan_chart
from keelroom.assess.questions.compare import candidates, sweep, with_core
from keelroom.assess.questions.response import response, stretches, value_for
from keelroom.assess.questions.worth import worth_table
from keelroom.catalogue.load import cores
from keelroom.core.electrical.circuit import flow_through
from keelroom.core.electrical.motor import motor_speed
from keelroom.document.edits import Change, Edit, apply, set_value
from keelroom.document.file import load
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.brief import CauseCheck
from keelroom.errors import InputError
from tests.acts import doing, key
from tests.changes import on as with_
from tests.conftest import DEMO

BUILD = load(DEMO)
DEPTH = ("packages", "p1", "core", "depth")


def on(build, *changes):
    return apply(build, Edit("", tuple(Change(path, value) for path, value in changes)))


def settled(build, case):
    return next(c.figures.temperature for c in assess(build).cases if c.case_id == case)


HOTTER = (("brief", "engine", "heat_multiplier"), quantity("1.6", "number"))
"""an engine that is hard to cool at idle, so that air tells there: the demo's A/C cuts out where there is little of
it"""


def in_hand(build, case):
    """Watts the limit leaves in hand in the case's own weather, and what a kelvin takes of them, by the assessment."""
    figures = next(c.figures for c in assess(build).cases if c.case_id == case)
    over = build.brief.cooling.limit.si - figures.ambient
    return figures.rejection_at_limit - figures.heat_in, figures.rejection_at_limit / over


def worths(build):
    return {key(worth.act): worth for worth in worth_table(build)}


def test_the_worth_of_an_act_is_what_doing_it_changes():
    for worth in worth_table(BUILD)[:4]:
        done = doing(BUILD, worth.act)
        (after, _), (before, per_kelvin) = in_hand(done, "idle"), in_hand(BUILD, "idle")
        assert worth.idle[0] == pytest.approx((after - before) / per_kelvin, rel=0.04)
        assert worth.idle[1] <= worth.idle[0] <= worth.idle[2]


def test_what_is_worth_nothing_says_so_and_comes_last():
    """A cooler thermostat on a hot day balanced above both full-open points; facts of the trade."""
    found = worths(BUILD)
    assert found["cooler_thermostat"].nothing
    assert abs(found["cooler_thermostat"].grade[0]) < 0.01
    order = [worth.nothing for worth in worth_table(BUILD)]
    assert order == sorted(order)


def test_a_shroud_without_flaps_can_hurt_at_speed_and_help_at_idle():
    bare = on(BUILD, (("active",), "p2"), (("survey", "opening", "width"), None), HOTTER)
    shroud = worths(bare)["full_shroud"]
    assert shroud.idle[0] > 2
    assert shroud.grade[0] < 0


def test_acts_that_are_done_are_not_offered():
    sealed = on(
        BUILD,
        (("packages", "p1", "shroud", "edge_gap"), quantity("0 in", "length")),
        (("survey", "opening", "width"), None),
    )
    assert not {"seat", "edge_seal", "cut_clear", "full_shroud"} & set(worths(sealed))
    assert {"cut_clear", "edge_seal"} <= set(worths(BUILD))


def test_a_stopped_fan_is_a_finding_and_dividing_it_off_is_weighed():
    """Dividing the shroud brings air through the core, but through half the face: the table weighs it instead of
    praising it."""
    hotter = on(BUILD, HOTTER)
    stopped = on(hotter, (("packages", "p1", "fans", "fan2", "runs"), False))
    assert math.isfinite(worths(stopped)["divide"].idle[0])
    divided = on(stopped, (("packages", "p1", "shroud", "plenum"), "divided"))
    through = [assess(b).cases[0].figures.airflow_fans_on for b in (stopped, divided, hotter)]
    assert through[0] < through[1] < through[2]
    finding = next(f for f in assess(stopped).findings if f.code == "stopped_fan")
    assert finding.value > 0.3
    assert settled(stopped, "idle") > settled(hotter, "idle") + 3


def test_response_passes_through_here_and_agrees_with_the_assessment():
    answer = response(BUILD, DEPTH, "grade")
    here = dict(zip(answer.values, answer.temperatures, strict=True))[answer.now]
    assert here == pytest.approx(settled(BUILD, "grade"), abs=1e-3)
    assert answer.moves
    assert answer.values == tuple(sorted(answer.values))


def test_a_plateau_is_pointed_out():
    """The thermostat does not move a hot-day balance until it throttles: flat, then steep."""
    answer = response(BUILD, ("packages", "p1", "loop", "thermostat"), "grade")
    assert not answer.moves or "plateau" in {stretch.sort for stretch in stretches(answer)}
    stray = response(BUILD, ("packages", "p1", "loop", "cap_pressure"), "grade")
    assert not stray.moves


def test_backwards_gives_a_value_that_really_does_it():
    clear = on(BUILD, (("survey", "opening", "width"), None))
    wanted = settled(clear, "grade") - 4.0
    found = value_for(clear, ("packages", "p1", "core", "face_width"), "grade", wanted)
    assert found.value is not None
    moved = on(clear, (("packages", "p1", "core", "face_width"), from_si(found.value, "length", "si", "derived")))
    assert settled(moved, "grade") == pytest.approx(wanted, abs=0.05)
    none = value_for(BUILD, DEPTH, "grade", 60.0)
    assert none.value is None
    assert "nearest" in none.why
    with pytest.raises(InputError):
        response(BUILD, ("brief", "title"), "grade")


def test_candidates_are_the_cores_solved_in_this_build():
    few, near = (*cores()[2:4], *cores()[7:9]), 0
    car = BUILD.model_copy(update={"duty_cases": tuple(c for c in BUILD.duty_cases if c.id in ("idle", "grade"))})
    for candidate in candidates(car, few):
        assert candidate.drop > 10
        build = with_core(car, candidate.core)
        figures = [c.figures for c in assess(build).cases]
        assert candidate.holding == sum(f.held for f in figures)
        # On a day hotter by what it has in hand, the tightest case sits at its limit with the fans held on.
        case = next(one for one in car.duty_cases if one.name == candidate.tightest)
        now = next(f.ambient for c, f in zip(car.duty_cases, figures, strict=True) if c is case)
        day = quantity(f"{now + candidate.margin:.3f} °C", "temperature")
        if abs(candidate.margin) > 25:
            continue  # no such weather
        near += 1
        (there,) = temperatures([Asked(on(build, (("duty_cases", case.id, "ambient"), day)), case.id)])
        limit = BUILD.brief.cooling.limit.si
        assert there == pytest.approx(limit, abs=1.0 + 0.15 * abs(candidate.margin))
    assert near >= 2
    edit = fit_core(BUILD.package, cores()[0])
    fans = on(BUILD, *[(c.path, c.value) for c in edit.changes]).package.fans
    assert fans[0].x.si / cores()[0].face_width.si == pytest.approx(
        BUILD.package.fans[0].x.si / BUILD.package.core.face_width.si, rel=1e-3
    )


def test_sweeps_have_a_best_inside_for_these_fans():
    """Fact of the trade, no source: on a fixed fan extra fin density saturates, then hurts."""
    swept = sweep(BUILD, "fin_density", "grade")
    assert swept.answer.values[0] < swept.best < swept.answer.values[-1]
    assert swept.gain >= 0


def test_causes_follow_symptoms_and_wait_until_looked_at():
    brief = BUILD.brief
    listed = causes_for(brief)
    assert {"air_lock", "sealing", "pump", "fan_direction"} <= {cause.id for cause in listed}
    assert all(cause.test and cause.looks_like for cause in listed)
    waiting = open_causes(brief)
    assert "pump" not in {cause.id for cause in waiting}, "the demo's pump was looked at"
    build = BUILD
    for cause in waiting:
        build = on(build, (("brief", "causes"), marked(build.brief, CauseCheck(id=cause.id, state="fine"))))
    assert "cheap_cause" not in {f.code for f in assess(build).findings}
    assert causes_for(on(BUILD, (("brief", "symptoms"), ())).brief) == ()
    again = marked(build.brief, CauseCheck(id="pump"))
    assert "pump" not in {check.id for check in again}


def test_the_map_adds_up_to_the_assessment():
    found = air_map(BUILD, "idle")
    figures = assess(BUILD).cases[0].figures
    face = BUILD.package.core.face_width.si * BUILD.package.core.face_height.si
    cell = face / found.speed.size
    assert found.temperature == pytest.approx(figures.temperature, abs=1e-3)
    assert np.nansum(found.speed) * cell == pytest.approx(figures.airflow_fans_on, rel=0.05)
    assert np.nansum(found.heat) * cell == pytest.approx(figures.heat_in, rel=1e-3)
    narrow = air_map(on(BUILD, (("survey", "opening", "width"), quantity("20 in", "length"))), "idle")
    assert np.isnan(narrow.speed[:, 0]).all(), "behind the panel there is no air"
    faster = air_map(BUILD, "idle", 25.0)
    assert np.nanmean(faster.speed) > 1.5 * np.nanmean(found.speed)
    assert air_map(on(BUILD, (("packages", "p1", "core", "depth"), None)), "idle") is None


def test_hot_coolant_side_shows_on_the_map():
    """Crossflow, first pass left to right: the air behind the core is hotter at the inlet tank."""
    found = air_map(BUILD, "grade")
    assert np.nanmean(found.air[:, 2:5]) > np.nanmean(found.air[:, -5:-2])


def test_working_points_lie_on_the_fans_own_curve():
    chart = fan_chart(BUILD, "idle")
    curves = {name: (np.array(x), np.array(y)) for name, x, y in chart.curves}
    for point in chart.points:
        if point.label in curves:
            xs, ys = curves[point.label]
            volts = float(point.label.split()[0])
            planned, _ = planned_circuits(BUILD, BUILD.package)
            at_motor = flow_through(planned[0].path, tuple(m.motor for m in planned[0].motors), volts).voltages[0]
            speeds = [float(motor_speed(np.array(v), np.array(13.0), np.array(0.0))) for v in (at_motor, volts)]
            wire = speeds[0] / speeds[1]
            # The chart's curve is at the system's volts, the point at the motor's: fan laws carry one to the other.
            assert point.pressure == pytest.approx(float(np.interp(point.flow / wire, xs, ys)) * wire**2, rel=0.06)
    flows = [p.flow for p in chart.points if p.label in curves]
    assert flows == sorted(flows)
    assert fan_chart(on(BUILD, (("packages", "p1", "fans"), ())), "idle") is None


def test_a_batch_is_the_same_as_one_by_one():
    asked = [Asked(BUILD, case.id, heat) for case in BUILD.duty_cases for heat in (0.8, 1.0)]
    together = temperatures(asked)
    alone = [temperatures([question])[0] for question in asked]
    assert together == pytest.approx(alone, rel=1e-6)
    missing = apply(BUILD, set_value(DEPTH, None, ""))
    assert temperatures([Asked(missing, "idle")]) == [None]


def test_a_better_act_never_reads_as_worse_whether_fans_cycle_or_not():
    """Sealing, more of the face, more volts, more coolant, on builds whose fans swing, rest and run all the time: the
    weather in hand grows, though the gauge stands where the switch holds it (facts of the trade)."""
    for degrees in ("60 °F", "85 °F", "104 °F"):
        build = on(BUILD, (("brief", "climate", "ambient"), quantity(degrees, "temperature")))
        found = worths(build)
        for code in ("edge_seal", "seat", "wire", "cut_clear", "pulley", "water"):
            if code in found:
                assert found[code].idle[0] > -0.05, (degrees, code)
                assert found[code].grade[0] > -0.05, (degrees, code)


def test_where_nothing_settles_the_weather_in_hand_is_swept_instead():
    """The demo's full power never settles: fins and depth still tell how much colder a day it would take, and the
    best is the one that lacks least."""
    answer = response(BUILD, DEPTH, "full")
    assert not any(map(math.isfinite, answer.temperatures))
    assert len(answer.weather) == len(answer.values)
    assert max(answer.weather) < 0, "held on no day as hot as its own"
    assert answer.moves
    swept = sweep(BUILD, "depth", "full")
    lacks = dict(zip(answer.values, answer.weather, strict=True))
    assert swept.best == max(lacks, key=lambda value: lacks[value])
    assert swept.gain == pytest.approx(max(lacks.values()) - lacks[answer.now], abs=1e-9)
    assert not response(BUILD, DEPTH, "idle").weather


def test_the_case_shown_on_opening_settles():
    judged = assess(BUILD)
    assert judged.tightest.figures.verdict == "does_not_settle"
    assert judged.telling.case_id == "grade"


def test_what_goes_back_through_an_unswept_face_is_told_with_the_fans_running():
    """At whatever share of the time they run: the same fans bare on a car whose engine makes less heat rest longer,
    and while they run as much of the air goes back."""
    bare = with_(BUILD, (("packages", "p1", "shroud", "kind"), "none"))
    cool = with_(bare, (("brief", "engine", "heat_multiplier"), "0.6", "number"))
    often, seldom = (first_wave(build).idle for build in (bare, cool))
    assert seldom.fan_command < 0.8 * often.fan_command
    assert often.back_through > 0.05
    assert seldom.back_through == pytest.approx(often.back_through, rel=0.1)
