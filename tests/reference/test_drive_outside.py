"""Drives against closed forms, independent solvers, the steady answers and what the trade has seen."""

import math
import random

import numpy as np
import pytest
from scipy.integrate import solve_ivp
from scipy.linalg import expm

from keelroom.assess.assess import first_wave
from keelroom.assess.drives.driven import drive_of, lacks
from keelroom.assess.drives.face import air_in_drive
from keelroom.assess.drives.situations import _drained
from keelroom.assess.figures.batch import Asked, row_for
from keelroom.assess.inputs.translate import stacked
from keelroom.assess.questions.airmap import air_map
from keelroom.core.air.face import GRID
from keelroom.core.coupling import prepare
from keelroom.core.cycling import fans_held, settle
from keelroom.core.drive import places
from keelroom.core.drive.records import told
from keelroom.core.drive.run import level
from keelroom.core.electrical.charging import Battery
from keelroom.core.operating_point import evaluate, solve
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.drive import usual_schedules
from tests.changes import on
from tests.conftest import DEMO
from tests.drives import driven, leg, ready, rerun, schedule
from tests.long import long
from tests.reference.test_draws import any_car

BUILD = load(DEMO)
COUPE = load(DEMO.parent / "samples" / "coupe.keelroom")
CONTROL = ("packages", "p1", "control")
HEAT = ("metal", "rest", "hot", "core", "cold", "oil", "gearbox")
PLACES = (places.METAL, places.REST, places.HOT, places.CORE, places.COLD, places.OIL, places.GEARBOX)


def case_leg(case, lasts="480 min"):
    """A duty case as one leg that lasts."""
    kind = {"idle": "idle", "full_power": "pull"}.get(case.demand, "hold")
    fields = ("towed_mass", "gear_step", "rpm", "ac_on", "in_gear", "ambient", "speed", "grade")
    given = {name: getattr(case, name) for name in fields}
    given["towed"] = given.pop("towed_mass")
    return leg(kind, lasts).model_copy(update=given)


def stands_still(case):
    """Whether a case is asked in the mean of stops, which a leg of one speed is not."""
    return case.stops_per_km.si > 0


def test_three_lumps_shut_off_go_by_the_closed_form():
    """Metal, rest and coolant of an engine that stands: three linear lumps, whose closed form is a matrix exponential
    (scipy.linalg.expm)."""
    made = ready(BUILD, leg("off", "40 min"))
    lumps = made.lumps._replace(outside=0.0)
    start = level(90.0, 30.0)
    state = start.state.copy()
    state[places.METAL], state[places.REST] = 120.0, 80.0
    state[places.OIL] = state[places.HOT]
    # No oil heat, no coolant through the core: what is left are three lumps in a row.
    run = rerun(made, start._replace(state=state), lumps, 20.0, pace=1e-7)
    film = lumps.film * 0.12
    rates = np.array(
        [
            [-(film + lumps.inside) / lumps.metal, lumps.inside / lumps.metal, film / lumps.metal],
            [lumps.inside / lumps.rest, -lumps.inside / lumps.rest, 0.0],
            [film / lumps.hot, 0.0, -film / lumps.hot],
        ]
    )
    oil = run.of(places.OIL)
    for at in (10.0, 60.0, 300.0, 1800.0):
        wanted = expm(rates * at) @ np.array([120.0, 80.0, state[places.HOT]])
        found = [float(np.interp(at, run.time, run.of(place))) for place in (places.METAL, places.REST, places.HOT)]
        # The block gives the oil some of its heat: that is let through as its share of what is stored.
        let = lumps.oil * abs(float(np.interp(at, run.time, oil)) - state[places.OIL]) / lumps.metal
        assert found == pytest.approx(wanted, abs=0.1 + let)


def test_a_hose_holds_back_by_its_volume():
    """A step at one end comes out at the other when its volume has gone through (plug flow, analytic)."""
    made = ready(BUILD, leg("idle", "3 min"))
    lumps = made.lumps._replace(upper_hose=2.0e-3, lower_hose=3.0e-3)
    state = level(95.0, 38.0).state.copy()
    state[places.HOT] = 110.0
    run = rerun(made, level(95.0, 38.0)._replace(state=state, seat=110.0), lumps, 50.0)
    passed, enters, leaves = run.of(places.PASSED), run.outlet, told(run, "core_in")
    later = passed > 4.0e-3
    wanted = np.interp(passed[later] - 2.0e-3, passed, enters)
    assert later.sum() > 20
    assert leaves[later] == pytest.approx(wanted, abs=0.02)
    assert leaves[passed < 1.9e-3] == pytest.approx(110.0, abs=1e-6)


def test_sender_and_needle_lag_one_behind_the_other():
    """The gauge after a jump, against scipy.integrate.solve_ivp on two lags in a row fed the run's own coolant."""
    made = ready(BUILD, leg("idle", "6 min"))
    lumps = made.lumps._replace(sender_lag=8.0, needle_lag=25.0)
    state = level(95.0, 38.0).state.copy()
    state[places.SENDER], state[places.NEEDLE] = 60.0, 40.0
    run = rerun(made, level(95.0, 38.0)._replace(state=state), lumps, 20.0)

    def rates(at, y):
        return [(np.interp(at, run.time, run.outlet) - y[0]) / 8.0, (y[0] - y[1]) / 25.0]

    wanted = solve_ivp(rates, (0, 360), [60.0, 40.0], max_step=1.0, rtol=1e-8, t_eval=[5, 20, 60, 300]).y[1]
    assert wanted[0] < 50
    assert wanted[1] < 75
    assert np.interp([5, 20, 60, 300], run.time, run.gauge) == pytest.approx(wanted, abs=0.05)


@pytest.mark.parametrize("build", [BUILD, COUPE], ids=["van", "coupe"])
def test_the_map_at_the_cursor_gives_what_the_core_gives(build):
    """Heat over the face, cell by cell, adds up to what the drive's own balance took at that moment (energy balance);
    with the fans at full flow its air is that of the steady map."""
    made = ready(build, leg("hold", "10 min", speed="50 mph"), leg("idle", "10 min", id="idle"))
    run = drive_of(build, build.package, made.schedule, False).run
    core = build.package.core
    cell = core.face_width.si * core.face_height.si / (GRID[0] * GRID[1])
    for at in (300.0, 700.0, 1100.0):
        gives = float(np.interp(at, run.time, told(run, "core_heat")))
        assert np.nansum(air_in_drive(made, run, at).heat) * cell == pytest.approx(gives, rel=0.01), at
    idling = next(case for case in build.duty_cases if case.demand == "idle")
    alone = ready(build, case_leg(idling, "5 min"))
    blown = run._replace(states=np.full_like(run.states, 95.0))
    blown.states[:, places.FANS] = 1.0
    full, steady = air_in_drive(alone, blown, 100.0), air_map(build, idling.id)
    assert np.nanmax(steady.speed) > 0.5
    assert full.speed == pytest.approx(steady.speed, rel=2e-3, nan_ok=True)


@pytest.mark.parametrize("build", [BUILD, COUPE], ids=["van", "coupe"])
def test_no_heat_is_lost_on_the_way(build):
    """What is given is what is taken and what is stored, to a millionth of what went through."""
    for one in usual_schedules():
        made = ready(build, *one.legs, begins=one.begins)
        run = drive_of(build, build.package, one, False).run
        moved = run.states[-1] - run.states[0]
        stored = sum(getattr(made.lumps, name) * moved[place] for name, place in zip(HEAT, PLACES, strict=True))
        stored += moved[places.UPPER] + moved[places.LOWER]
        assert abs(moved[places.GIVEN] - moved[places.TAKEN] - stored) < 1e-6 * moved[places.GIVEN]


def ends_as_it_settles(build):
    """A build's duty cases, each run long with nothing lagging, against their steady answers; how many were held."""
    held = 0
    for case in build.duty_cases:
        row = row_for(Asked(build, case.id))
        if row is None or stands_still(case):
            continue
        points, _ = stacked([row])
        steady = settle(points, row.layout, prepare(points, row.layout))
        if not steady.solution.settles[0]:
            continue
        made = ready(build, case_leg(case), begins="warm")
        ambient = float(points.situation.climate.ambient[0])
        first = float(points.plant.circuit.thermostat[0]) + 2.0
        run = rerun(made, level(first, ambient, build.supply.state.si), made.lumps.at_once(), 4.0, drains=0.0)
        tail = run.outlet[run.time > 25_000.0]
        bottom, top = float(steady.bottom[0]), float(steady.top[0])
        if steady.cycles[0]:
            # The switch sits where it does: past its points the coolant goes on for what is between it and the core.
            assert tail.max() == pytest.approx(top, abs=0.5)
            assert tail.min() == pytest.approx(bottom, abs=0.8)
        else:
            wanted = bottom
            if steady.rests[0] and abs(run.share[-1] - steady.solution.state.command[0]) > 0.01:
                # Held on or held off, both come to rest: a drive that began colder may have started its fans.
                now = fans_held(1, float(run.share[-1]))
                wanted = float(solve(points, row.layout, None, None, now).state.temperature[0])
            assert tail[-1] == pytest.approx(wanted, abs=0.2), case.name
        held += 1
    return held


def test_a_long_constant_run_ends_at_the_steady_answer():
    """Every duty case of the demo and of drawn builds: 25 of them daily, 200 in the long form."""
    assert ends_as_it_settles(BUILD) >= 4
    dice, held = random.Random(31), 0
    for _ in range(long("draws", 12)):
        build = any_car(dice)
        held += 0 if lacks(build, build.package) else ends_as_it_settles(build)
    assert held >= 2 * long("draws", 12)


def test_a_finer_step_moves_no_figure():
    """A step that may err an eighth: no figure by more than 0.1 K or a second."""
    for build in (BUILD, COUPE):
        for one in usual_schedules():
            made = ready(build, *one.legs, begins=one.begins)
            start = drive_of(build, build.package, one, False).run.states[0]
            first = level(90.0, 40.0, build.supply.state.si)._replace(state=start)
            plain, fine = (rerun(made, first, finer=finer) for finer in (1.0, 8.0))
            assert plain.outlet.max() == pytest.approx(fine.outlet.max(), abs=0.1)
            assert plain.of(places.OIL).max() == pytest.approx(fine.of(places.OIL).max(), abs=0.1)
            starts = [run.time[1:][np.diff(told(run, "first")) > 0] for run in (plain, fine)]
            if len(starts[0]) and len(starts[1]):
                assert starts[0][0] == pytest.approx(starts[1][0], abs=1.0)


def test_contacts_close_and_open_where_they_are_set():
    """At the very reading, found within a step: the sensor's line at each change."""
    made = ready(BUILD, leg("idle", "25 min", ac_on=True), begins="warm")
    run = rerun(made, level(84.0, 43.0, 0.8))
    on_at, off_at = (BUILD.package.control.fan_on.si, BUILD.package.control.fan_off.si)
    contact = told(run, "first")
    closes, opens = (np.flatnonzero(np.diff(contact) == way) + 1 for way in (1, -1))
    assert len(closes) > 5
    assert run.of(places.READ)[closes] == pytest.approx(on_at, abs=0.02)
    assert run.of(places.READ)[opens] == pytest.approx(off_at, abs=0.02)


def test_one_lump_cycles_as_an_event_solver_has_it():
    """All heat stored in one lump, nothing lagging: times on and off against scipy's solve_ivp with events on the
    steady model's rejection and heat, which knows no step of ours. On the road, where no air comes back."""
    case = next(one for one in COUPE.duty_cases if one.name == "Grade")
    row = row_for(Asked(COUPE, case.id))
    points, _ = stacked([row])
    fixed = prepare(points, row.layout)
    made = ready(COUPE, case_leg(case, "60 min"), begins="warm")
    small = 60.0
    lumps = made.lumps.at_once()._replace(
        metal=small, rest=small, hot=150e3, cold=small, core=small, oil=small, inside=1e-3, spin_up=0.02, bay=50.0
    )
    run = rerun(made, level(86.0, float(points.situation.climate.ambient[0]), 0.8), lumps, 2.0, drains=0.0)
    mass = 150e3 + 4 * small
    grid = np.linspace(75.0, 100.0, 101)

    def rate(share):
        many = [float(evaluate(points, fixed, np.array([t]), row.layout, fans_held(1, share)).margin[0]) for t in grid]
        return lambda _, y: [-np.interp(y[0], grid, many) / mass]

    stages = points.situation.command.law.stages
    on_at, off_at = float(stages.on[0, 0]), float(stages.off[0, 0])

    def until(share, start, target):
        def there(_, y):
            return y[0] - target

        there.terminal = True
        return float(solve_ivp(rate(share), (0, 4000), [start], events=there, max_step=2.0).t[-1])

    wanted = until(0.0, off_at, on_at), until(1.0, on_at, off_at)
    contact = told(run, "first")
    changes = run.time[1:][np.diff(contact) != 0]
    spans = np.diff(changes)[2:]
    found = float(np.mean(spans[1::2])), float(np.mean(spans[0::2]))
    rests, runs = (max(found), min(found)) if wanted[0] > wanted[1] else (min(found), max(found))
    assert rests == pytest.approx(wanted[0], rel=0.05)
    assert runs == pytest.approx(wanted[1], rel=0.05)


def test_a_battery_goes_down_by_peukert():
    """60 A h over 20 h, exponent 1.2, 25 A: 20 (60 / 500)^1.2 = 1.571 h by hand, so 38.2 A h an hour are lost."""
    assert _drained(Battery(60.0, 0.8, 1.2), -25.0) == pytest.approx(60.0 / 1.571, rel=1e-3)


# What the trade has seen (common practice, no source)


def idle_soak(build, rpm, lasts="25 min"):
    return driven(build, leg("idle", lasts, rpm=rpm), begins="warm")


def small_core(build):
    """A face of a third, a bare fan far off it."""
    core = ("packages", "p1", "core")
    return on(build, ((*core, "face_width"), "13 in", "length"), ((*core, "face_height"), "12 in", "length"))


def test_an_undersized_core_still_creeps_and_a_right_one_is_flat():
    """After twenty minutes at 1 000 rpm the one is past 195 °F (90.6 °C) and rising; the right one flat by then at or
    under 185 °F with a thermostat of 180 °F: here under where its fans come on. Common practice, no source."""
    right = idle_soak(BUILD, "1000 rpm")
    poor = next(p for p in BUILD.packages if "bare" in p.name)
    wrong = drive_of(BUILD, poor, schedule(leg("idle", "25 min", rpm="1000 rpm", ac_on=True), begins="warm"), False)
    assert wrong.says.peak.value > 90.6
    assert wrong.says.peak.at > 20 * 60
    assert not right.says.creep.creeps
    assert right.says.peak.value < wrong.says.peak.value


def test_the_gauge_climbs_after_key_off_and_falls_within_a_minute_of_restart():
    """Common practice, no source."""
    found = driven(BUILD, leg("hold", "15 min", speed="55 mph", grade="4 %"), leg("off", "6 min"), leg("idle", "4 min"))
    off = found.says.key_off
    assert 3.0 < off.peak - off.was < 20.0
    assert 0 < off.after < 5 * 60
    run = found.run
    again = 21 * 60.0
    at_restart, later = (float(np.interp(at, run.time, run.outlet)) for at in (again, again + 60))
    assert later < at_restart - 2.0


def test_an_electric_pump_off_at_idle_climbs_at_once():
    """Degrees a minute, and back at once when it runs. Common practice, no source."""
    found = driven(BUILD, leg("idle", "10 min"), leg("idle", "3 min", fails="pump"))
    run = found.run
    before, minute = (float(np.interp(at, run.time, run.outlet)) for at in (599.0, 660.0))
    assert minute - before > 5.0


def test_fans_that_run_on_cost_amp_hours_and_save_degrees():
    """Three minutes after key-off: no hotter for it, one to three ampere-hours (ten minutes take 3 to 7: common
    practice, no source)."""
    legs = leg("hold", "15 min", speed="55 mph", grade="5 %"), leg("off", "12 min")
    without = on(BUILD, ((*CONTROL, "coil"), "key"), ((*CONTROL, "fan_off"), "150 °F", "temperature"))
    ran = on(without, ((*CONTROL, "run_on"), "3 min", "minutes"))
    through = on(without, ((*CONTROL, "coil"), "always"))
    plain, some, long_on = (driven(build, *legs).says for build in (without, ran, through))
    assert plain.off_charge == pytest.approx(0.0, abs=0.02 * 3600)
    assert 1.0 < some.off_charge / 3600 < 3.0
    assert long_on.off_charge > some.off_charge
    assert some.key_off.peak <= plain.key_off.peak + 0.01


def test_fans_too_much_for_the_alternator_flatten_the_battery():
    """At idle the volts sag, the fans slow, the coolant follows, until the battery is flat. Common practice, no
    source: 9 to 10 V by then."""
    poor = on(BUILD, (("brief", "accessories", "alternator_rating"), "45 A", "current"))
    found = driven(poor, leg("idle", "180 min", ac_on=True))
    good = driven(BUILD, leg("idle", "20 min", ac_on=True))
    assert found.says.volts.value < good.says.volts.value - 0.3
    assert any(mark.code == "battery_flat" for mark in found.says.marks)
    flat = next(mark for mark in found.says.marks if mark.code == "battery_flat")
    assert 20 * 60 < flat.at < 180 * 60
    assert found.says.volts.value < 11.6


@pytest.mark.parametrize(("state", "share"), [("lost_runs", 1.0), ("lost_stands", 0.0)])
def test_an_unplugged_sensor_runs_the_fans_or_leaves_them(state, share):
    build = on(BUILD, ((*CONTROL, "sensor_state"), state))
    found = driven(build, leg("idle", "10 min"))
    assert found.says.fans.share == pytest.approx(share, abs=0.01)


def test_a_reversed_thermostat_opens_late():
    """Common practice, no source: it reads far over its rating before it opens."""
    right = driven(BUILD, leg("hold", "15 min", speed="45 mph"), begins="cold")
    wrong = driven(
        on(BUILD, (("packages", "p1", "loop", "thermostat_state"), "reversed")),
        leg("hold", "15 min", speed="45 mph"),
        begins="cold",
    )
    assert wrong.says.peak.value > right.says.peak.value + 10.0


def test_the_hill_ends_over_the_limit_when_its_steady_answer_does():
    """The demo's quarry hill rests over its limit: the drive passes it, in finite time; on a cold day far less."""
    case = next(one for one in BUILD.duty_cases if one.name.startswith("Quarry"))
    steady = next(c for c in first_wave(BUILD).cases if c.case_id == case.id).figures
    assert not steady.held
    hot = driven(BUILD, case_leg(case, "40 min"), begins="warm")
    assert math.isfinite(hot.says.limit_at)
    cold = driven(
        BUILD, case_leg(case, "40 min").model_copy(update={"ambient": quantity("10 °C", "temperature")}), begins="warm"
    )
    assert cold.says.peak.value < hot.says.peak.value - 15.0


def test_a_failed_fan_is_hotter_than_none_failed():
    """In traffic: one dead-stop with one of two fans, all of them, none."""
    legs = [leg("idle", "5 min", ac_on=True), leg("idle", "15 min", ac_on=True)]
    found = [
        driven(BUILD, legs[0], legs[1].model_copy(update={"fails": fails})).says.peak.value
        for fails in ("", "fan", "fans")
    ]
    assert found[0] < found[1] < found[2]


def test_an_electric_pump_that_runs_on_does_what_fans_alone_cannot():
    """With the pump running on, the climb after key-off is a small part of what it is without. Common practice, no
    source."""
    pumped = on(BUILD, (("packages", "p1", "loop", "pump"), "electric"), ((*CONTROL, "coil"), "key"))
    ran = on(pumped, ((*CONTROL, "run_on"), "5 min", "minutes"))
    legs = leg("hold", "15 min", speed="55 mph", grade="4 %"), leg("off", "5 min")
    plain, helped = (driven(build, *legs).says.key_off for build in (pumped, ran))
    assert plain.peak - plain.was > 5.0
    assert helped.peak - helped.was < 0.5 * (plain.peak - plain.was)


def test_a_heater_takes_what_a_heater_core_takes():
    """25 L/min at rated flow past an air side of 110 W/K: effectiveness of an exchanger whose air is the weaker stream
    by hand (Kays and London). Common practice, no source: 4-7 kW with the coolant 50-70 K over the day."""
    run = driven(BUILD, leg("idle", "120 min", heater_on=True), begins="warm").run
    flow, hot = float(told(run, "flow")[-1]), float(run.outlet[-1])
    day = BUILD.brief.climate.ambient.si
    rated = ready(BUILD, leg("idle", "1 min")).situations.stands.points.plant.circuit.flow_rated[0]
    carries = 25 / 60e3 * flow / rated * 3.58e6
    by_hand = carries * (1 - math.exp(-110 / carries)) * (hot - day)
    assert 3000 < by_hand < 7000
    span = run.time > run.time[-1] - 1800
    taken = run.of(places.TAKEN)[span]
    core = np.trapezoid(told(run, "core_heat")[span], run.time[span])
    mean = (taken[-1] - taken[0] - core) / (run.time[-1] - run.time[span][0])
    # Oil and gearbox shed to the case meanwhile: some hundred watts.
    assert mean == pytest.approx(by_hand, abs=900)


def test_a_heater_on_full_buys_degrees_where_the_core_is_too_small():
    """Common practice, no source: the driver's own radiator."""
    hill = (leg("hold", "30 min", speed="45 mph", grade="7 %", towed="5000 lb", gear_step="1.4", ac_on=True),)
    hot = driven(BUILD, *hill).says
    cured = driven(BUILD, *(one.model_copy(update={"heater_on": True}) for one in hill)).says
    assert 1.0 < hot.peak.value - cured.peak.value < 15.0


def test_an_ac_that_cycles_heats_by_its_share():
    """Half the time on lies half way between on and off, within the swing its clutch makes."""
    idle = [
        driven(COUPE, leg("idle", "60 min", ac_on=on, ac_share=share, rpm="1000 rpm")).run
        for on, share in ((False, "100 %"), (True, "50 %"), (True, "100 %"))
    ]
    off, half, full = (float(np.trapezoid(told(run, "own"), run.time) / run.time[-1]) for run in idle)
    assert half == pytest.approx(0.5 * (off + full), rel=0.02)
