"""Four stories of made and moved parts by clicks and keys: a top panel and strips; two shrouds joined with brackets
and a latch support of a new shape; a brake unit and a bottle moved; a brushless twin with its own controllers wired
pin to pin. Wrong entries on the way."""

import json

import ezdxf
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QCheckBox, QLineEdit, QPushButton, QTableWidget, QToolButton

from keelroom import cli
from keelroom.assess.figures.templates import patterns
from keelroom.document.file import load
from tests.conftest import DEMO
from tests.told import what_of, why_of

INCH = 0.0254


@pytest.fixture
def driver(settled_demo):
    return settled_demo


def codes(driver):
    return {finding.code for finding in driver.window.session.assessment.findings}


def idle(driver):
    return driver.window.session.assessment.figures_of("idle")


def page(driver, station, title):
    driver.click(f"{station} station")
    driver.turn(title)
    driver.settle()


def act(driver, words):
    """Press a button of the page, scrolled into sight first."""
    button = driver.find(words, QPushButton)
    view = driver.window.stations[driver.window.shown_station].views[
        driver.window.stations[driver.window.shown_station].current
    ]
    view.ensureWidgetVisible(button)
    QTest.mouseClick(button, Qt.MouseButton.LeftButton)
    driver.settle()


def enter(driver, name, text):
    """Type into a field of the page, scrolled into sight first."""
    field = driver.find(name, QLineEdit)
    station = driver.window.stations[driver.window.shown_station]
    station.views[station.current].ensureWidgetVisible(field)
    driver.enter(name, text)
    driver.settle()
    return field


def said_by_the_file(driver, capsys):
    """What the command line says of the file just saved."""
    driver.ctrl(Qt.Key.Key_S)
    session = driver.window.session
    assert load(session.path).packages == session.build.packages
    capsys.readouterr()
    assert cli.main(["assess", "--json", str(session.path)]) in (0, 1)
    return json.loads(capsys.readouterr().out)


def test_a_top_panel_and_side_strips_are_measured_made_and_worth_something(driver, capsys, tmp_path, monkeypatch):
    session = driver.window.session
    page(driver, "Fit-up", "Panels")
    for _ in range(3):
        panel = session.build.package.panels[0]
        act(driver, f"Remove {panel.name}")
    assert [panel.kind for panel in session.build.package.panels] == ["cover"]

    # measured in the tape walk: 2 in over the core where 3/8 was taken, and a wrong entry first
    page(driver, "Survey", "Air gaps")
    before = idle(driver)
    field = enter(driver, "Over the core: gap", "two")
    assert field.text() == "two"
    assert driver.shows("24 3/8")
    enter(driver, "Over the core: gap", "2")
    enter(driver, "Under the core: gap", "1 1/2")
    assert session.build.package.sealing.top.gap.origin == "measured"
    assert idle(driver).front_air > before.front_air + 1, "nobody had measured it"

    # made
    page(driver, "Fit-up", "Panels")
    act(driver, "Panel over the core")
    enter(driver, "Top panel: front to back", "7")
    enter(driver, "Top panel: foam, free thickness", "1/8")
    assert "foam_thin" in codes(driver)
    assert driver.shows("thinner than the")
    enter(driver, "Top panel: foam, free thickness", "1/2")
    enter(driver, "Top panel: bead height", "1/4")
    enter(driver, "Top panel: rail notch, front to back", "3")
    enter(driver, "Top panel: rail notch, in from each end", "3")
    assert driver.shows("cuts through the bead")
    driver.mend("No bead")
    assert "panel_fault" not in codes(driver)
    act(driver, "Strip at the left")
    act(driver, "Strip at the right")
    act(driver, "Panel under the core")
    assert [one.closes for one in session.build.package.panels] == ["horn_hole", "top", "left", "right", "bottom"]
    assert driver.shows("Open round the core: 0 in²")
    assert idle(driver).recirculated < 0.05

    # its worth, read at idle and at the vents
    page(driver, "Air", "Panels")
    table = driver.find("What panels are worth", QTableWidget)
    driver.until(lambda: table.rowCount() == 6)
    assert table.item(5, 0).text() == "All of them together"
    assert table.item(5, 2).text().startswith("−"), "the face breathes cooler air"
    assert table.item(5, 3).text().startswith("−"), "and the A/C blows colder"
    assert driver.shows("the A/C blows")

    # templates, opened and measured
    page(driver, "Fit-up", "Make")
    monkeypatch.setattr("keelroom.gui.saving.QFileDialog.getSaveFileName", lambda *_: (str(tmp_path / "t.dxf"), ""))
    driver.click("Write templates as DXF")
    drawing = ezdxf.readfile(tmp_path / "t.dxf")
    assert not drawing.audit().errors
    blank = next(pattern for pattern in patterns(session.build, session.build.package) if pattern.name == "Top panel")
    assert blank.bounds[2] / INCH == pytest.approx(26)
    widths = [
        max(p[0] for p in points) - min(p[0] for p in points)
        for entity in drawing.modelspace().query("LWPOLYLINE")
        if (points := list(entity.get_points()))
    ]
    assert any(abs(width - 26 * 25.4) < 0.01 for width in widths), "in millimetres at 1:1"

    said = said_by_the_file(driver, capsys)["fit"]
    assert sum(
        way["left_m2"] for way in said["ways_round_the_core"] if way["key"] in ("top", "left", "right", "bottom")
    ) == pytest.approx(0, abs=1e-9)
    assert [panel["faults"] for panel in said["panels"]] == [[]] * 5


def test_a_panel_with_no_gap_to_close_is_told_where_it_is_chosen(driver):
    page(driver, "Survey", "Air gaps")
    enter(driver, "Left of the core: gap", "0")
    page(driver, "Fit-up", "Panels")
    assert "panel_nothing" in codes(driver)
    assert any("there is no gap to close" in what_of(f) for f in driver.window.session.assessment.findings)
    driver.ctrl(Qt.Key.Key_Z)
    assert "panel_nothing" not in codes(driver)


def test_two_shrouds_are_joined_and_the_latch_support_gets_a_new_shape(driver, capsys):
    session = driver.window.session
    page(driver, "Fit-up", "Shroud")
    enter(driver, "As bought: width over its flange", "14")
    enter(driver, "As bought: height over its flange", "17")
    box = driver.find("Two joined side by side", QCheckBox)
    QTest.mouseClick(box, Qt.MouseButton.LeftButton, pos=box.rect().center().__class__(10, box.height() // 2))
    driver.settle()
    assert session.build.package.shroud.joined
    enter(driver, "Trim off each where they meet", "2")
    assert driver.shows("where they meet runs through the ring") or driver.shows("where they meet leaves")
    enter(driver, "Trim off each where they meet", "1")
    assert driver.shows("Seats between the tanks")
    act(driver, "Fans to their rings")
    assert [fan.x.si / INCH for fan in session.build.package.fans] == pytest.approx([7.375, 18.625], abs=1e-3)
    names = [pattern.name for pattern in patterns(session.build, session.build.package)]
    assert sum(" half" in name for name in names) == 2

    # a bracket from the shroud to the core, wrong ends first
    page(driver, "Fit-up", "Brackets")
    act(driver, "Add a bracket")
    driver.choose("Bracket 5: from", "Shroud, upper left")
    driver.choose("Bracket 5: to", "Shroud, upper left")
    assert driver.shows("its two ends are the same point")
    driver.choose("Bracket 5: to", "Core, upper left")
    driver.settle()
    made = session.build.package.brackets[-1]
    assert (made.start, made.end) == ("shroud:upper_left", "core:upper_left")
    enter(driver, "Bracket 5: strip width", "1/4")
    assert driver.shows("runs off the metal")
    enter(driver, "Bracket 5: strip width", "1 1/4")
    assert not any(
        f.code == "bracket_fault" and "Bracket 5" in what_of(f) and "strip's side" in what_of(f)
        for f in session.assessment.findings
    )

    # the latch support: notched, with its caution
    page(driver, "Fit-up", "Neighbours")
    act(driver, "Move Latch support")
    assert "move_needed" in codes(driver), "taken out, nothing holds the hood"
    driver.choose("Latch support: what becomes of it", "Notched where it stands")
    driver.choose("Latch support: notched at", "Bottom")
    enter(driver, "Latch support: cut away", "1/2")
    driver.settle()
    assert "move_needed" not in codes(driver)
    assert driver.shows("hood must stay shut")
    body = next(body for body in session.assessment.fit.moved if body.key == "moved:latch")
    assert body.solid.half[1] * 2 / INCH == pytest.approx(1.375 - 0.5)

    said = said_by_the_file(driver, capsys)["fit"]
    assert said["shroud"]["seats"]
    assert any("hood must stay shut" in caution["says"] for move in said["moves"] for caution in move["cautions"])
    for _ in range(40):
        if not session.store.undo_label:
            break
        driver.ctrl(Qt.Key.Key_Z)
    assert session.build.packages == load(DEMO).packages, "every step comes back"


def test_a_brake_unit_and_a_bottle_get_new_places_with_their_brackets(driver, capsys):
    session = driver.window.session
    hours = session.assessment.totals.hours
    page(driver, "Fit-up", "Neighbours")
    act(driver, "Move Brake unit")
    driver.choose("Brake unit: what becomes of it", "To a new place")
    # into the washer bottle first
    enter(driver, "Brake unit: new place, from left", "-7")
    enter(driver, "Brake unit: new place, from bottom", "5")
    assert any(
        f.code == "fit_overlaps" and "Brake unit" in what_of(f) and "Washer bottle" in what_of(f)
        for f in session.assessment.findings
    )
    enter(driver, "Brake unit: new place, from bottom", "eleven")
    assert session.build.package.moves[-1].bottom.as_typed.startswith("5"), "refused: what stood there stays"
    enter(driver, "Brake unit: new place, from left", "-9")
    enter(driver, "Brake unit: new place, from bottom", "11 1/2")
    assert not any(f.code == "fit_overlaps" and "Brake unit" in what_of(f) for f in session.assessment.findings)
    assert "bled and tested" in " ".join(why_of(f) for f in session.assessment.findings if f.code == "move_caution")
    driver.mend("Plan a bracket for it")
    assert session.build.package.brackets[-1].start.startswith("neighbour:brake:")
    assert "move_unheld" not in codes(driver)

    # the bottle: an overflow bottle now, too small, then large enough
    page(driver, "Survey", "In the way")
    driver.choose("Washer bottle: it is a", "Overflow bottle")
    driver.settle()
    page(driver, "Fit-up", "Neighbours")
    driver.choose("Washer bottle: what becomes of it", "To a new place")
    enter(driver, "Washer bottle: new place, from left", "-9")
    enter(driver, "Washer bottle: new bottle holds", "300 ml")
    assert "bottle_small" in codes(driver)
    driver.mend("A bottle that holds")
    assert "bottle_small" not in codes(driver)
    enter(driver, "Washer bottle: free over its cap", "1")
    assert "cap_reach" in codes(driver)
    enter(driver, "Washer bottle: free over its cap", "4")
    assert "cap_reach" not in codes(driver)
    enter(driver, "Washer bottle: cost of it", "35")
    assert session.assessment.totals.hours > hours + 3600
    said = said_by_the_file(driver, capsys)
    assert said["totals"]["hours_s"] == pytest.approx(session.assessment.totals.hours)
    assert {move["id"]: move["how"] for move in said["fit"]["moves"]} == {
        "reservoir": "new_place",
        "brake": "new_place",
    }


def test_a_brushless_twin_with_its_own_controllers_is_wired_pin_to_pin(driver, capsys):
    session = driver.window.session
    page(driver, "Air", "Fans")
    for k in (1, 2):
        driver.choose(f"Fan {k}: turned by", "Brushless motor")
        driver.choose(f"Fan {k}: its own electronics", "Inside the motor")
        driver.settle()
    assert "relay_before_electronics" in codes(driver), "the relay it was found with belongs to no such motor"
    page(driver, "Electrical", "Circuits")
    act(driver, "Remove Both fans, as found")
    act(driver, "Plan what is missing")
    fans = [circuit for circuit in session.build.package.circuits if set(circuit.feeds) <= {"fan1", "fan2"}]
    assert [circuit.switch for circuit in fans] == ["own", "own"]
    assert not codes(driver) & {"relay_before_electronics", "own_of_none", "ramp_through_relay"}
    assert "signal_unlike" in codes(driver), "the thermoswitch gives a ground, they listen to pulses"
    driver.mend("Variable, soft start commands it")
    assert "signal_unlike" not in codes(driver)

    # the A/C on one fan: one controller cannot, a module in each can
    page(driver, "Electrical", "Control")
    asks = driver.find("A/C asks for the fans", QCheckBox)
    QTest.mouseClick(asks, Qt.MouseButton.LeftButton, pos=asks.rect().center().__class__(10, asks.height() // 2))
    driver.settle()
    one = driver.find("Fan 2", QCheckBox)
    QTest.mouseClick(one, Qt.MouseButton.LeftButton, pos=one.rect().center().__class__(10, one.height() // 2))
    driver.settle()
    assert session.build.package.control.ac_fans == ("fan2",)
    driver.mend("A module in each fan")
    driver.settle()
    page(driver, "Electrical", "Harness")
    driver.click("Wires", QToolButton)
    wires = driver.find("Wires", QTableWidget)
    ends = {(wires.item(r, 4).text(), wires.item(r, 5).text()) for r in range(wires.rowCount())}
    assert any(end == "Fan 2, A/C input" for _, end in ends)
    assert not any(end == "Fan 1, A/C input" for _, end in ends)
    for fan in ("Fan 1", "Fan 2"):
        assert any(end == f"{fan}, key" for _, end in ends)
        assert any(end == f"{fan}, probe +" for _, end in ends)
        assert any(end == f"{fan} +" for _, end in ends)
    assert not any(": relay" in point and point.startswith("Fan") for pair in ends for point in pair)

    # a circuit told to switch by electronics that are not there
    page(driver, "Air", "Fans")
    driver.choose("Fan 1: its own electronics", "None: two leads")
    driver.settle()
    assert "own_of_none" in codes(driver), "a signal wired to a motor that takes none"
    driver.ctrl(Qt.Key.Key_Z)
    assert "own_of_none" not in codes(driver)
    assert said_by_the_file(driver, capsys)["electrics"]["circuits"]
