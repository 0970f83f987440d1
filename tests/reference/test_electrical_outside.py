"""The electrics against general-purpose solvers, published limits and facts of the trade."""

import itertools

import numpy as np
import pytest
from scipy.optimize import brentq, fsolve

from keelroom.core.arrays import stack
from keelroom.core.electrical import charging, control, protection
from keelroom.core.electrical.circuit import Path, WireRun, flow_through
from keelroom.core.electrical.motor import (
    Motor,
    current_at,
    motor_power,
    motor_speed,
    rating,
    speed_at,
    stall_current,
    start_current,
)
from keelroom.core.electrical.point import SensingRows, sensed
from keelroom.core.electrical.wire import (
    AMPACITY,
    HOTTEST,
    J1128_AREA,
    ampacity,
    conductor,
    conductor_temperature,
    resistance_at,
)
from keelroom.core.rows import bound
from keelroom.errors import InputError
from keelroom.gauges import METRIC_SIZES, awg_area
from tests.reference.outside_electrical import FAN, awg, starts
from tests.typed import shares

FT = 0.3048


@pytest.mark.parametrize("number", sorted(J1128_AREA, reverse=True)[2:9])
def test_class_cable_holds_less_copper_than_its_gauge_number(number):
    """SAE J1128, from memory: 7 to 14 % less; 2 gauges thicker it never overtakes."""
    assert 0.06 <= 1 - J1128_AREA[number] * 1e-6 / awg_area(number) <= 0.145


def test_wire_temperature_is_where_heat_made_is_heat_shed():
    """brentq on the balance itself; at its ampacity the copper reaches its insulation's limit, and no more."""
    wire = awg(12, "j1128_crosslinked")
    for ambient in (20.0, 50.0, 85.0):
        most = ampacity(wire, ambient)
        assert conductor_temperature(wire, most, ambient) == pytest.approx(125.0, abs=1e-6)
        shed = most**2 * resistance_at(wire, 125.0) / (125.0 - ambient)
        oracle = brentq(
            lambda t, a=ambient, s=shed: (0.7 * ampacity(wire, a)) ** 2 * resistance_at(wire, t) - s * (t - a),
            ambient,
            400.0,
        )
        assert conductor_temperature(wire, 0.7 * most, ambient) == pytest.approx(oracle, abs=1e-6)
    assert conductor_temperature(wire, 1000.0, 30.0) == HOTTEST
    assert ampacity(awg(12), 80.0) == 0.0


def test_ampacity_rises_with_copper_and_falls_with_heat_and_company():
    """33 CFR 183.425, from memory: the table itself where it was made, in order everywhere else."""
    for limit, table in AMPACITY.items():
        for number, amps in table.items():
            assert ampacity(awg(number, "bare_awg")._replace(limit=limit), 30.0) == pytest.approx(amps, rel=0.005), (
                limit,
                number,
            )
    metric = [ampacity(conductor(s * 1e-6, True, "iso_c"), 70.0, 3) for s in METRIC_SIZES]
    assert metric == sorted(metric)
    wire = awg(10)
    assert ampacity(wire, 60.0) < ampacity(wire, 30.0)
    assert ampacity(wire, 30.0, 4) == pytest.approx(0.6 * ampacity(wire, 30.0))


def oracle_circuit(path, motors, volts):
    """The same circuit by scipy: unknown speeds; wires as warm as their current makes them."""

    def off(speeds):
        amps = [m.current * x * x for m, x in zip(motors, speeds, strict=True)]
        total, most = sum(amps), max(amps)

        def ohms(run, current):
            return run.length * resistance_at(
                run.wire, conductor_temperature(run.wire, current, run.ambient, run.loaded)
            )

        back = total if path.back_shared else most
        feed, branch, ground = ohms(path.feed, total), ohms(path.branch, most), ohms(path.back, back)
        shared = (feed + path.contacts) * total + (ground * total if path.back_shared else 0.0)
        own = branch + (0.0 if path.back_shared else ground)
        return [
            volts - shared - own * a - m.voltage * (x * x / 5 + 0.8 * x)
            for m, x, a in zip(motors, speeds, amps, strict=True)
        ]

    speeds = fsolve(off, [1.0] * len(motors), xtol=1e-12)
    return [m.voltage * (x * x / 5 + 0.8 * x) for m, x in zip(motors, speeds, strict=True)]


@pytest.mark.parametrize(
    ("sizes", "motors", "shared"),
    [
        ((14, 14, 14), (FAN, FAN), True),
        ((10, 12, 12), (FAN,), False),
        ((12, 14, 10), (FAN, Motor(13.0, 90.0)), False),
        ((16, 16, 16), (FAN, FAN), True),
    ],
)
def test_a_circuit_is_what_a_general_solver_finds(sizes, motors, shared):
    runs = [
        WireRun(awg(n, "j1128_crosslinked"), length * FT, air, 2)
        for n, length, air in zip(sizes, (6, 1.5, 2), (65.0, 77.0, 65.0), strict=True)
    ]
    path = Path(*runs, shared, 8.5e-3)
    for volts in (11.0, 14.2):
        flow = flow_through(path, motors, volts)
        assert flow.voltages == pytest.approx(oracle_circuit(path, motors, volts), abs=2e-5)
        assert volts - flow.drop == pytest.approx(min(flow.voltages), abs=2e-5)


def test_a_brushless_motor_draws_more_as_volts_fall_and_a_brushed_one_less():
    """Common practice, no source; and a fan's power goes with the cube of its speed in between."""
    brushless = Motor(13.0, 300.0, brushless=True)
    assert current_at(brushless, 11.0) > current_at(brushless, 13.0) > current_at(brushless, 15.0)
    assert speed_at(brushless, 10.0) == 1.0
    assert speed_at(brushless, 7.0) < 0.8
    assert current_at(FAN, 11.0) < current_at(FAN, 12.0) < current_at(FAN, 14.0)
    assert stall_current(FAN, 12.0) == pytest.approx(75.0)
    assert start_current(FAN._replace(soft=True), 12.0) < 0.5 * start_current(FAN, 12.0)
    wire = awg(14)
    path = Path(WireRun(wire, 3.0, 60.0), WireRun(wire, 0.5, 60.0), WireRun(wire, 0.5, 60.0), False, 0.01)
    flow = flow_through(path, (brushless,), 12.5)
    assert flow.currents[0] * flow.voltages[0] == pytest.approx(300.0, rel=1e-4)


def test_one_motor_and_many_are_the_same_law():
    for volts, rated in ((9.0, 12.0), (14.0, 13.0)):
        for held in (False, True):
            motor = Motor(rated, 200.0, brushless=held)
            speed = motor_speed(np.array(volts), np.array(rated), np.array(float(held)))
            power = motor_power(np.array(200.0), speed, np.array(volts / rated), np.array(float(held)))
            assert float(speed) == pytest.approx(speed_at(motor, volts))
            assert float(power) / volts == pytest.approx(current_at(motor, volts))


def test_labels_resolve_in_any_combination():
    assert rating(12.0, None, 15.0)[:3] == (12.0, 180.0, 15.0)
    assert rating(None, 180.0, 15.0)[:3] == (12.0, 180.0, 15.0)
    assert rating(12.0, 180.0, 15.0).contradiction is None
    assert rating(12.0, 180.0, 22.0).contradiction == pytest.approx(15.0)
    for label in ((0.0, 180.0, None), (None, None, 15.0), (12.0, -1.0, None)):
        with pytest.raises(InputError, match=r"more than 0|Two of"):
            rating(*label)


@pytest.mark.parametrize(
    ("form", "overload", "least", "most"),
    [
        ("blade", 2.0, 0.15, 5.0),
        ("large_blade", 1.35, 60.0, 1800.0),
        ("large_blade", 2.0, 2.0, 60.0),
        ("cartridge", 2.0, 4.0, 60.0),
        ("bolt_down", 2.0, 1.0, 15.0),
        ("bolt_down", 3.5, 0.3, 5.0),
        ("breaker", 2.0, 5.0, 60.0),
    ],
)
def test_each_form_of_fuse_opens_in_its_own_time(form, overload, least, most):
    """ISO 8820-3 (blade, large blade), -4 (cartridge), -5 (bolt-down), SAE J553 (breakers), all from memory."""
    assert protection.blow_times(overload, form) == pytest.approx((least, most))
    times = [protection.blow_times(x, form) for x in np.linspace(1.11, 8.0, 80)]
    assert all(a[0] >= b[0] and a[1] >= b[1] and a[0] < a[1] for a, b in itertools.pairwise(times))


def test_a_slow_40_stands_the_start_that_opens_a_fast_one():
    """A 139 A start of 0.5 s on 40 A is 3.5 times: a blade opens within 0.04 to 0.5 s, a cartridge stands 0.3 s at
    least and 7 s at most."""
    start = protection.Starting(139.0, 0.5)
    assert protection.stands(40.0, start, "blade") == "no"
    assert protection.stands(40.0, start, "cartridge") != "no"
    assert protection.stands(40.0, start, "large_blade") != "no"


def test_a_fuse_is_large_enough_for_the_start_and_small_enough_for_its_limits():
    """ISO 8820-3 limits, from memory: least times fall as overload rises, and never cross the longest."""
    overloads = np.linspace(1.11, 6.0, 60)
    least, most = zip(*(protection.blow_times(x) for x in overloads), strict=True)
    assert all(a >= b for a, b in itertools.pairwise(least))
    assert all(a < b for a, b in zip(least, most, strict=True))
    start = starts(FAN, 14.0)
    sizes = protection.fuse_sizes("blade")
    chosen = protection.fuse_for(current_at(FAN, 14.0), start, "blade")
    assert chosen in (25, 30)
    assert chosen >= 1.25 * current_at(FAN, 14.0)
    assert protection.stands(15.0, start) == "no"
    assert protection.stands(60.0, start) == "yes"
    assert protection.fuse_for(500.0, start, "blade") is None
    assert protection.neighbours(12.0, sizes) == (10, 15)


def test_two_contacts_in_parallel_do_not_double_a_rating():
    """Common practice, no source."""
    assert 1.0 < protection.PARALLEL < 2.0
    assert protection.relay_share(23.0) == 1.0
    assert protection.connector_share(23.0) == pytest.approx(1.0)
    assert protection.connector_share(200.0) == 0.0


def test_an_alternator_hot_at_idle_gives_a_third_to_over_half_of_its_rating():
    """Published check value: 35 to 55 % hot at idle; more with a smaller pulley, nothing at a stand, falling with its
    air."""
    unit = charging.Alternator(105.0, 2.9, 85.0, 14.2)
    assert 0.35 <= charging.output(unit, 700) / 105 <= 0.55
    assert charging.output(unit, 0) == 0.0
    assert charging.output(unit._replace(ratio=3.4), 700) > charging.output(unit, 700)
    assert charging.output(unit._replace(air=110.0), 700) < charging.output(unit, 700)
    amps = [charging.output(unit, rpm) for rpm in range(0, 7000, 100)]
    assert amps == sorted(amps)
    known = unit._replace(idle_share=0.5, known_at=700.0 * 2.9)
    assert charging.output(known, 700) == pytest.approx(52.5)
    assert charging.output(known, 3000) == pytest.approx(charging.output(unit, 3000), rel=0.02)
    typed = unit._replace(curve=((1500.0, 30.0), (3000.0, 80.0), (6000.0, 105.0)), air=23.0)
    assert charging.output(typed, 3000 / 2.9) == pytest.approx(80.0)
    assert charging.output(typed, 1000 / 2.9) < 30.0
    assert charging.top_speed(unit, 5500) == pytest.approx(15950)


def test_a_healthy_battery_holds_12_volts_at_40_amps_and_a_flat_one_9_to_10():
    """Published check value, and common practice: dual fans with A/C on a small alternator show 9 to 10 V at idle."""
    healthy, flat = charging.Battery(60, 0.85, 1.2), charging.Battery(45, 0.03, 1.2)

    def loads(amps):
        return lambda volts: amps * volts / 13.0

    steady = charging.balance(0.0, 14.2, healthy, lambda _volts: 40.0)
    assert 12.0 <= steady.voltage <= 12.3
    sunk = charging.balance(30.0, 14.2, flat, loads(105.0))
    assert 9.0 <= sunk.voltage <= 10.4
    assert sunk.short > 0
    assert sunk.lasts < 600
    fine = charging.balance(90.0, 14.2, healthy, loads(60.0))
    assert (fine.voltage, fine.short) == (14.2, 0.0)
    assert fine.lasts == float("inf")


@pytest.mark.parametrize("available", [0.0, 20.0, 45.0, 60.0, 63.0, 65.0, 80.0])
def test_the_balance_is_what_a_general_solver_finds(available):
    battery = charging.Battery(60, 0.7, 1.2)

    def wanted(volts):
        return 58.0 * (volts / 13.5) ** 1.4

    found = charging.balance(available, 14.2, battery, wanted)
    if found.voltage < 14.2:
        oracle = brentq(lambda v: available - wanted(v) - charging.battery_current(battery, v), 6.0, 14.2)
        assert found.voltage == pytest.approx(oracle, abs=1e-5)
    else:
        assert available >= wanted(14.2) + charging.battery_current(battery, 14.2) - 1e-9


def test_what_cures_an_alternator_that_is_short():
    unit = charging.Alternator(105.0, 2.4, 85.0, 14.2)
    ratio = charging.ratio_for(unit, 55.0, 700)
    assert charging.output(unit._replace(ratio=ratio), 700) == pytest.approx(55.0, abs=0.01)
    rating_ = charging.rating_for(unit, 55.0, 700)
    assert charging.output(unit._replace(rating=rating_), 700) == pytest.approx(55.0)
    assert charging.ratio_for(unit, 300.0, 700) is None
    assert charging.rating_for(unit, 10.0, 0.0) is None


def test_peukert_and_reserve_capacity():
    """A heavier draw gets less out of a battery, a lighter one more; at 20 hours exactly what is printed on it."""
    battery = charging.Battery(60, 1.0, 1.25)
    assert charging.discharge_time(battery, 3.0) / 3600 == pytest.approx(20.0)
    hours = [charging.discharge_time(battery, amps) * amps / 3600 for amps in (1.0, 3.0, 10.0, 40.0)]
    assert hours == sorted(hours, reverse=True)
    assert charging.discharge_time(battery._replace(state=0.5), 3.0) / 3600 == pytest.approx(10.0)
    assert charging.discharge_time(battery, 0.0) == float("inf")


def test_two_readings_of_a_sensor_are_each_others_inverse():
    for fins, drop in itertools.product((0.0, control.FIN_SHARE), (0.0, 9.0)):
        outlet = control.outlet_for(85.0, 20.0, drop, fins)
        assert control.reading_at(outlet, 20.0, drop, fins) == pytest.approx(85.0)
    sensing = control.Sensing(np.array([0.0, 1.0, 0.0]), np.array([0.0, 0.0, control.FIN_SHARE]), np.array([30.0] * 3))
    rows = bound(SensingRows, sensing)
    seen = [sensed(rows, i, 95.0, 8.0) for i in range(3)]
    assert seen == pytest.approx(
        [95.0, control.reading_at(95.0, 30.0, 8.0), control.reading_at(95.0, 30.0, fins=control.FIN_SHARE)]
    )


def test_controllers_command_what_their_points_say():
    """numpy's own interpolation is the oracle; a ramp's power is the cube of its speed at its points."""
    one = control.law(control.switched(90.0, 85.0))
    two = control.law(control.staged((85.0, 80.0), (92.0, 88.0), (0.5, 0.4)))
    ramp = control.law(control.ramped(((82.0, 0.3), (92.0, 1.0))), (0.2, 0.01))
    laws = stack([one, two, ramp])
    for reading in (70.0, 82.0, 84.0, 87.0, 89.9, 91.0, 120.0):
        asked, power = shares(laws, [reading] * 3)
        for k, law in enumerate((one, two, ramp)):
            assert asked[k] == pytest.approx(max(np.interp(reading, law.temperatures, law.shares), law.least))
            assert power[k] == pytest.approx(max(np.interp(reading, law.temperatures, law.powers), law.least_power))
    assert shares(laws, [120.0] * 3)[0] == pytest.approx([1.0, 1.0, 1.0])
    assert shares(laws, [50.0] * 3)[0] == pytest.approx([0.0, 0.0, 0.2])
    half = shares(laws, [87.0] * 3)[1][2]
    assert half == pytest.approx(0.65**3, rel=1e-6)
