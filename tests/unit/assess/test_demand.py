"""Points from plain numbers: what a drive's step, a search's pair or a line of a log will ask."""

import numpy as np
import pytest

from keelroom.assess.assess import first_wave
from keelroom.assess.inputs.demand import Demand, demand_of
from keelroom.assess.inputs.electrical.system import At, battery_of, system_at
from keelroom.assess.inputs.translate import car_of, row_at, row_of, stacked
from keelroom.core.answer import steady_answer
from keelroom.core.coupling import commanded, prepare
from keelroom.core.electrical.charging import battery_current
from keelroom.core.electrical.motor import motor_speed
from keelroom.document.file import load
from tests.conftest import DEMO

BUILD = load(DEMO)
CAR = car_of(BUILD, BUILD.package)


def settled(*demands):
    rows = [row_at(BUILD, BUILD.package, CAR, demand) for demand in demands]
    points, doubt = stacked(rows)
    return steady_answer(points, doubt, rows[0].layout).temperature


def test_a_step_in_numbers_is_the_duty_case_it_says():
    """The demo's cruise by hand: 65 mph, level, A/C on, at the engine speed its gearing gives; 38 °C as the brief's
    hottest day."""
    cruise = BUILD.duty_case("cruise")
    asked = demand_of(BUILD.brief, cruise)
    by_hand = Demand(
        speed=cruise.speed.si, grade=0.0, towed=0.0, rpm=asked.rpm, ambient=BUILD.brief.climate.ambient.si, ac=True
    )
    assert by_hand == asked._replace(turbine=None)
    figures = first_wave(BUILD).figures_of("cruise")
    (found,) = settled(by_hand)
    assert found == pytest.approx(figures.mean, abs=0.02)


def test_steps_no_duty_case_has_are_solved_together():
    """A hill taken by degrees: each steeper step is hotter, and a tail wind takes air away."""
    start = demand_of(BUILD.brief, BUILD.duty_case("grade"))
    steeper = [start._replace(grade=grade) for grade in (0.01, 0.02, 0.03, 0.04)]
    hill = settled(*steeper)
    assert (np.diff(hill) > 0.5).all()
    still, wind = settled(steeper[0], steeper[0]._replace(air_speed=start.speed / 2))
    assert wind > still


def test_a_car_that_stands_meets_no_air_of_the_road_and_wind_is_air():
    idle = demand_of(BUILD.brief, BUILD.duty_case("idle"))
    assert not idle.moves
    assert (idle.speed, idle.met) == (0.0, 0.0)
    assert idle._replace(air_speed=3.0).met == 3.0
    assert Demand(0.9, 0, 0, 800, 30).moves is False, "it hardly rolls"
    assert Demand(1.0, 0, 0, 800, 30).moves


def test_the_electrical_system_at_any_state():
    """What the alternator gives less what is wanted goes into the battery; faster it gives more; without the A/C less
    is wanted."""
    slow, fast, bare = (
        system_at(BUILD, BUILD.package, at)
        for at in (At(800, True, False), At(2500, True, False), At(800, False, False))
    )
    filling = battery_current(battery_of(BUILD.supply), BUILD.supply.regulated.si)
    for found in (slow, fast, bare):
        balance = found.balance
        if not found.measured:
            assert balance.battery == pytest.approx(min(balance.available - balance.wanted, filling), abs=0.6)
    assert fast.balance.voltage > slow.balance.voltage
    assert fast.balance.battery > slow.balance.battery
    assert bare.balance.wanted < slow.balance.wanted
    assert slow.short > 0, "the demo's alternator is short at idle"


@pytest.mark.parametrize("case", ["idle", "traffic", "cruise", "grade"])
def test_mixed_air_paths_err_by_no_more_than_they_say(case):
    """Fans slowed to a share of their speed, the air path solved anew, against the mix of stopped and full: never
    less, at 30 % an eighth of the full flow at most, at 70 % a sixteenth."""
    row = row_of(BUILD, BUILD.package, CAR, BUILD.duty_case(case))
    points, _ = stacked([row])
    full, command = prepare(points, row.layout), points.situation.command
    most = float(full.running.flows.core.sum())
    for share, bound in ((0.3, 0.125), (0.7, 0.0625)):
        slowed = command._replace(voltage=volts_for(points.plant.fans, command.voltage, share))
        path = prepare(points._replace(situation=points.situation._replace(command=slowed)), row.layout)
        mixed = float(commanded(full, np.array([share]), "core").sum())
        assert 0 <= mixed - float(path.running.flows.core.sum()) <= bound * most, share


def volts_for(fans, full, share):
    """Volts at which fans turn at a share of the speed they have at `full`, by halving."""
    low, high = np.zeros_like(full), full.copy()
    wanted = share * motor_speed(full, fans.rated_voltage, fans.brushless)
    for _ in range(50):
        middle = (low + high) / 2
        slow = motor_speed(middle, fans.rated_voltage, fans.brushless) < wanted
        low, high = np.where(slow, middle, low), np.where(slow, high, middle)
    return high


def test_the_same_demand_is_the_same_row():
    case = BUILD.duty_case("idle")
    one, other = (
        row_of(BUILD, BUILD.package, CAR, case),
        row_at(BUILD, BUILD.package, CAR, demand_of(BUILD.brief, case)),
    )
    assert one.layout == other.layout
    assert one.amps == other.amps
