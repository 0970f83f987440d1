"""What comes out is declared once, and everything that tells it reads the declaration."""

import math

import pytest

from keelroom.assess.assess import assess
from keelroom.assess.figures.assessment import CaseFigures
from keelroom.assess.figures.batch import Asked, in_hand
from keelroom.assess.figures.outputs import CASE, OF_CASE, PACKAGE, beside, day_text, lines, machine, value_text
from keelroom.assess.machine_form import as_json
from keelroom.assess.questions.why import temperature_working
from keelroom.assess.report import LEDGER, as_table, ledger_rows
from keelroom.document.file import load
from keelroom.units import KINDS
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
FOUND = assess(BUILD)
IDLE = FOUND.figures_of("idle")
APART = {"fans", "coolers", "fluids", "heat_by_cause", "doubt_by_cause", "pressures", "loop", "faster_coolant"}
"""Figures of parts, told with their part."""
SUFFIXES = {
    "temperature": "degC",
    "temperature difference": ("K", "K_s"),
    "heat": "W",
    "power": "W",
    "airflow": "m3_s",
    "coolant flow": "m3_s",
    "air speed": "m_s",
    "speed": "m_s",
    "share": "",
    "current": "A",
    "voltage": "V",
    "time": "s",
    "area": "m2",
    "money": "",
}
"""SI of a kind as a key ends in it, by hand."""


def test_every_figure_of_a_case_is_declared_once():
    read = [
        output.read.__reduce__()[1][0].partition(".")[0]
        for output in CASE
        if hasattr(output.read, "__reduce__") and "attrgetter" in repr(output.read)
    ]
    assert sorted(read) == sorted(set(CaseFigures._fields) - APART - {"ambients"})
    assert len(OF_CASE) == len(CASE)


def test_keys_say_their_unit_and_labels_begin_a_line():
    for output in (*CASE, *PACKAGE):
        assert output.label[0].isupper(), output.key
        if output.kind:
            assert output.kind in KINDS
            assert output.key.endswith(SUFFIXES[output.kind]), output.key
        assert output.better or not output.compares, f"{output.key} compares, so one way is better"
    assert not OF_CASE["margin_K"].compares, "fans cycle: a swing's top against a settled temperature compares nothing"


def test_words_of_a_figure_by_hand():
    """37.8 °C is 100.0 °F; a third is 33 %; no end and no figure say so."""
    assert value_text(37.7778, "temperature", "us") == "100 °F"
    assert value_text(1 / 3, "share", "us") == "33%"
    assert value_text(math.inf, "temperature", "us") == "no limit"
    assert value_text(None, "current", "us") == "not known yet"
    assert value_text("holds", "", "us") == "holds"


def test_how_much_hotter_a_day_is_told_up_to_where_no_weather_is():
    """60 K are 108 °F: no day is that much hotter or colder than another that is lived with."""
    assert [day_text(kelvin, "us") for kelvin in (-1.6, 0.0, 20.0)] == ["−3 °F", "0 °F", "36 °F"]
    assert [day_text(kelvin, "us") for kelvin in (-7320.0, -math.inf, 61.0)] == [
        "under −108 °F",
        "under −108 °F",
        "over 108 °F",
    ]
    assert day_text(-61.0, "si").startswith("under −60")
    wrong = assess(on(BUILD, (("brief", "vehicle", "tyre_diameter"), "3.4 in", "length")))
    told = [OF_CASE["hotter_day_K"].read(case.figures) for case in wrong.cases if case.figures]
    assert min(case.figures.in_hand.weather for case in wrong.cases if case.figures) < -60
    assert min(told) == -60.0


def test_all_that_tell_a_figure_tell_the_same():
    """Machine form, ledger, working and terminal read one declaration; a band with no end is null."""
    told = as_json(FOUND)["cases"][0]
    assert {key: told[key] for key in OF_CASE} == machine(CASE, IDLE)
    assert told["airflow_m3_s"] == IDLE.airflow
    rows = ledger_rows(FOUND, "us")
    assert len(rows[0]) == 1 + len(LEDGER)
    at = rows[0].index("Heat in")
    assert rows[1][at] == OF_CASE["heat_in_W"].text(IDLE, "us")
    assert rows[1][at] in as_table(FOUND, "us")
    assert lines(IDLE, "us", "heat_in_W")[0] in temperature_working(IDLE, "Idle", "us").inputs
    unsettled = next(case for case in as_json(FOUND)["cases"] if case["verdict"] == "does_not_settle")
    assert unsettled["band_high_degC"] is None


def test_two_builds_beside_each_other_show_what_differs_and_what_compares():
    other = assess(BUILD, "p4").figures_of("idle")
    rows = {label: pair for label, *pair in beside(IDLE, other, "us")}
    assert "Air through the core, fans running" in rows
    assert "Engine outlet, at the most" not in rows
    assert all(one != two for one, two in rows.values())
    assert beside(IDLE, IDLE, "us") == ()
    full = FOUND.figures_of("full")
    assert full.verdict == "does_not_settle"
    assert beside(full, assess(BUILD, "p4").figures_of("full"), "us") == (), (
        "no temperature stands for one that never settles"
    )


def test_a_cases_hotter_day_is_what_acts_are_told_apart_by_and_near_the_highest_ambient():
    """The same as the batch of questions finds; and where it is small, the ambient the whole air path holds at the
    most, found by other solves, lies as much over the case's own."""
    judged = assess(BUILD)
    hands = in_hand([Asked(BUILD, case.id) for case in BUILD.duty_cases])
    near = 0
    for case, hand in zip(judged.cases, hands, strict=True):
        f = case.figures
        assert f.in_hand.weather == pytest.approx(hand.weather, rel=1e-6, abs=1e-6)
        beyond = f.ambients.holds - f.ambient
        if abs(beyond) < 15:
            near += 1
            assert f.in_hand.weather == pytest.approx(beyond, abs=1.0 + 0.25 * abs(beyond))
    assert near
