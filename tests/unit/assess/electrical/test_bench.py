"""The bench tests say what fits the control at hand."""

import re

import pytest

from keelroom.assess.acts.circuits import split_circuit
from keelroom.assess.assess import assess
from keelroom.assess.electrical.bench import JUMPERS, bench_steps
from keelroom.assess.questions.schools import compare_schools
from keelroom.document.edits import apply
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.electrical import CommandPoint
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
CONTROL = ("packages", "p1", "control")
COOLING = ("brief", "cooling")


def steps(build):
    return {step.key: step for step in bench_steps(build, build.package, assess(build).electrics, "us")}


@pytest.mark.parametrize("strategy", ["toggle", "adjustable", "variable", "computer", "computer_pwm"])
def test_no_contact_closes_where_there_is_none(strategy):
    found = steps(on(BUILD, ((*CONTROL, "strategy"), strategy)))
    assert "Closes at" not in found["sensor"].expected


def test_a_switch_over_boiling_is_not_tested_in_boiling_water():
    hot = steps(on(BUILD, (("packages", "p1", "control", "fan_on"), "220 °F", "temperature")))["sensor"]
    assert "cooking oil" in hot.how
    assert "no coolant" in hot.mind.lower(), "glycol on a hot plate burns"
    assert "220 °F" in hot.expected
    assert "water on a stove" in steps(BUILD)["sensor"].how


def test_fans_on_one_switch_come_on_together_and_stages_apart():
    own = apply(BUILD, split_circuit(BUILD, BUILD.package, "circuit1"))
    assert "all at once" in steps(own)["relay"].expected
    staged = on(own, ((*CONTROL, "strategy"), "two_speed"))
    assert steps(staged)["relay"].expected.startswith("One relay on low")
    assert steps(BUILD)["relay"].expected == "One relay."


def test_volts_and_amps_are_of_the_same_state():
    """Idling with the fans on by hand: the volts of the circuit at idle, and the amps of its motors at those volts."""
    found, electrics = steps(BUILD), assess(BUILD).electrics
    (one,) = [c for c in electrics.circuits if c.cools]
    amps = sum(electrics.idle.amps[motored.id] for motored in one.motors)
    assert f"{one.at_idle:.1f} V at the motor" in found["voltage"].expected
    assert f"{amps:.0f} A at that voltage" in found["current"].expected


def test_the_short_check_comes_before_the_fuse_and_the_cold_readings_before_the_warm():
    order = list(steps(BUILD))
    assert order.index("short") < order.index("relay")
    assert order.index("override") < order.index("voltage") < order.index("current") < order.index("set_points")


def test_a_variable_one_starts_at_its_own_start_point():
    points = tuple(
        CommandPoint(temperature=quantity(f"{t} °F", "temperature"), share=quantity(f"{s} %", "share"))
        for t, s in ((182, 35), (200, 100))
    )
    build = on(BUILD, ((*CONTROL, "strategy"), "variable"), ((*CONTROL, "curve"), points))
    assert "182 °F" in steps(build)["set_points"].expected
    rows = {row.school.key: row for row in compare_schools(build, "idle").rows}
    assert rows["variable"].days[-1].on == pytest.approx((182 - 32) / 1.8, abs=0.05)


def test_every_jumper_wire_has_two_ends_and_every_coil_and_contact_its_own():
    for _, joints, _ in JUMPERS.values():
        assert all(start and end for start, end in joints)
    both = [end for _, end in JUMPERS["both"][1]]
    assert any("contact 30" in end for end in both), "the contacts are fed, from a fuse of their own"
    assert sum("coil 86" in end for end in both) == 2
    assert any("coil 85" in end for end in both)
    two = JUMPERS["two_fans"][1]
    (diode,) = [end for _, end in two if "diode" in end]
    assert diode.endswith("stripe at the coil"), "the diode's way is told"
    assert "fan" not in diode, "it carries a coil, never a fan"
    assert sum("own fuse" in start for start, _ in two) == 1


def test_a_plain_fan_is_spun_behind_a_fuse_and_one_with_electronics_on_its_own_plug():
    """180 W at 12 V: 15 A, 1.25 times that 18.75 A; the next blade that stands the start is 20 A or more (common
    practice, no source)."""
    plain = steps(BUILD)["spin"]
    found = [float(word) for word in re.findall(r"([\d.]+) A", plain.how)]
    assert found
    for fuse, fan in zip(found, BUILD.package.fans, strict=True):
        assert fuse >= 1.25 * fan.power.si / fan.rated_voltage.si
    assert "fuse of the fan" in plain.mind
    own = steps(on(BUILD, (("packages", "p1", "fans", BUILD.package.fans[0].id, "controller"), "inside")))["spin"]
    assert "own plug" in own.how
    assert "never on two bare leads" in own.how


def test_what_the_volts_are_read_with_is_what_they_were_worked_out_with():
    assert "Idle, A/C on" in steps(BUILD)["voltage"].how
    assert "everything else off" not in steps(BUILD)["voltage"].how


def test_every_test_of_the_bench_says_its_dangers_and_none_asks_a_hand_near_the_blades():
    for step in steps(BUILD).values():
        assert step.mind, step.key
        assert "feel which way" not in step.how
