"""One definition of standing, and of which case stands for idle, the road and the grade."""

import re

import pytest

from keelroom.assess.assess import assess, first_wave
from keelroom.assess.inputs.cases import grade_case, idle_case, road_case, stands
from keelroom.assess.questions.proof import Moved, Proof
from keelroom.assess.report import ledger_rows, verdict_line
from keelroom.document.edits import apply, set_value
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.build import DutyCase
from tests.changes import on
from tests.conftest import DEMO
from tests.told import why_of

BUILD = load(DEMO)


def case(ident, demand="road_load", mph=0.0, **more):
    return DutyCase(id=ident, name=ident, demand=demand, speed=quantity(f"{mph} mph", "speed"), **more)


@pytest.mark.parametrize(
    ("one", "standing"),
    [
        (case("a", "idle"), True),
        (case("a", "idle", 40), True),
        (case("a", mph=0), True),
        (case("a", mph=2), True),
        (case("a", mph=3), False),
        (case("a", "full_power", 50), False),
    ],
)
def test_standing_is_idling_or_hardly_rolling(one, standing):
    """1 m/s is 2.24 mph."""
    assert stands(one) is standing


def test_which_case_stands_for_what():
    slow, fast = case("slow", mph=20), case("fast", mph=60)
    plain, cooled = case("plain", "idle"), case("cooled", "idle", ac_on=True)
    steep = case("steep", mph=30, grade=quantity("8 %", "share"))
    heavy = case("heavy", mph=30, grade=quantity("8 %", "share"), towed_mass=quantity("2000 lb", "mass"))
    everything = (slow, plain, steep, cooled, fast, heavy)
    assert (idle_case(everything), road_case(everything), grade_case(everything)) == (cooled, steep, heavy)
    assert road_case((slow, fast)) is fast, "20 mph is traffic"
    assert idle_case((slow, plain)) is plain
    assert (idle_case((slow,)), road_case(()), grade_case((plain,))) == (None, None, None)


def test_every_idle_figure_is_of_the_same_case():
    """Two idling cases, the one without A/C first: ledger, finding, volts and the airflow rule all speak of the
    other."""
    build = load(DEMO)
    with_ac = build.duty_cases[0]
    assert with_ac.ac_on
    without = with_ac.model_copy(update={"id": "cool", "name": "Idle, A/C off", "ac_on": False})
    both = apply(build, set_value(("duty_cases",), (without, *build.duty_cases), ""))
    found, alone = assess(both), assess(build)
    figures = {c.case_id: c.figures for c in found.cases}
    assert found.idle_id == with_ac.id
    assert found.idle is figures[with_ac.id]
    assert found.totals == alone.totals
    assert found.totals.amps_at_idle == pytest.approx(figures[with_ac.id].electrical_current)
    assert figures["cool"].electrical_current < figures[with_ac.id].electrical_current - 1
    assert found.rules == alone.rules
    (short,) = (f for f in found.findings if f.code == "alternator_short")
    said = float(re.search(r"([\d.]+) V at the battery", why_of(short))[1])
    assert said == pytest.approx(figures[with_ac.id].system_voltage, abs=0.05)
    assert said == pytest.approx(found.electrics.idle.balance.voltage, abs=0.05)
    assert short.value == pytest.approx(figures[with_ac.id].electrical_current)


def test_a_case_for_information_is_shown_and_judges_nothing():
    """The demo's full power does not settle and its hill is over: taken out of what counts they are notes, the headline
    is of the others, and an act that costs them nothing counted may be offered."""
    informing = on(BUILD, (("duty_cases", "full", "counted"), False), (("duty_cases", "grade", "counted"), False))
    judged = first_wave(informing)
    assert verdict_line(judged, "us").startswith("All hold")
    assert judged.tightest.case_id not in ("full", "grade")
    told = {one.where[1]: one.level for one in judged.findings if one.code in ("does_not_settle", "over_limit")}
    assert told == {"full": "note", "grade": "note"}
    names = [row[0] for row in ledger_rows(judged, "us")]
    assert sum(name.endswith("(for information)") for name in names) == 2
    lost = Moved("Full", -5.0, held=True, then_held=False, counted=False)
    assert Proof(goes=True, moved=(lost,)).offered
    assert not Proof(goes=True, moved=(lost._replace(counted=True),)).offered
    none = on(BUILD, *((("duty_cases", case.id, "counted"), False) for case in BUILD.duty_cases))
    assert "of 6 hold" in verdict_line(first_wave(none), "us"), "where none counts all are told"
