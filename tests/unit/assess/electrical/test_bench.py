"""The bench tests say what fits the control at hand."""

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
    assert "oil" in hot.how
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
    two = dict(JUMPERS["two_fans"][1])
    assert two["high"].endswith("stripe at low"), "the diode's way is told"
