"""Advice followed blindly: a lower-hose switch, brushless fans on a thin loom, a bay tight between its rails. What is
offered is pressed as it stands, and every press does what was said."""

import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QContextMenuEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLabel, QPushButton, QTableWidget

from keelroom.assess.acts.registry import offer
from keelroom.document.edits import set_value
from tests.changes import on

CONTROL = ("packages", "p1", "control")


@pytest.fixture
def driver(settled_demo):
    return settled_demo


def codes(driver, level="problem"):
    return {one.code for one in driver.window.session.assessment.findings if one.level == level}


def test_a_switch_moved_to_the_lower_hose_gets_its_set_points_in_one_act(driver):
    """195 °F on, 185 °F off are an upper hose's: behind the core they start the fans at an outlet over 200 °F. One act
    puts them where the lower hose reads at the start, 10 °F apart, and the engine starts its fans under 200 °F."""
    session = driver.window.session
    driver.click("Electrical station")
    session.apply(set_value((*CONTROL, "sensor"), "lower_hose", "Moved"))
    driver.settle()
    before = session.assessment.figures_of("idle")
    assert before.fan_on_at * 1.8 + 32 > 200
    driver.mend("Set points for this place")
    driver.settle()
    after, control = session.assessment.figures_of("idle"), session.build.package.control
    assert control.fan_on.si < before.fan_on_at - 5
    assert control.fan_on.si - control.fan_off.si == pytest.approx(5.5, abs=0.1)
    assert after.fan_on_at * 1.8 + 32 < 200
    assert after.fan_on_at < session.build.brief.cooling.limit.si - 5
    told = codes(driver) | codes(driver, "doubt")
    assert not told & {"sensor_lower", "fan_on_near_limit", "fan_never_stops", "fan_set_points"}
    driver.click("Undo it")
    assert session.build.package.control.fan_on.si == pytest.approx((195 - 32) / 1.8, abs=0.01)


def test_large_brushless_fans_on_a_thin_loom_are_mended_by_one_act_and_nothing_burns(driver):
    """2 × 450 W at 12 V: 75 A on a loom of 14 AWG with 40 A of fuse. After the act each fan has a circuit whose fuse is
    under what its wire carries, and over 1.25 times its 37.5 A (common practice, no source)."""
    session = driver.window.session
    name = "Twin 15 in brushless, shrouded, 2 × 450 W"
    assert session.do(offer("fit_fans", "p1", "Fans", name=name, count="2"))
    driver.settle()
    wiring = {"fuse_over_wire", "fuse_small", "relay_small", "wire_hot", "drop_over", "connector_small"}
    assert wiring <= codes(driver)
    driver.click("Electrical station")
    driver.mend("A circuit of its own for each motor")
    driver.settle()
    assert not codes(driver) & wiring
    fans = [one for one in session.assessment.electrics.circuits if one.cools]
    assert len(fans) == 2
    for one in fans:
        carries = min(run.ampacity for run in one.runs)
        assert one.circuit.fuse.si >= 1.25 * 37.5
        assert one.circuit.fuse.si <= carries + 1e-6, "the wire is thicker than its fuse"


def test_a_bay_tight_between_its_rails_is_not_made_wider_by_taking_them_away(driver):
    """A wider core between rails measured as they are: what Find offers clears everything with the rails where they
    are, or it says that there is no place."""
    session = driver.window.session
    rails = {"left": "-1 in", "right": "31 1/4 in", "top": "20 in"}
    session.start_from(on(session.build, *((("survey", "rails", name), at, "length") for name, at in rails.items())))
    session.do(offer("fit_core", "p1", "Core", name="Crossflow 31 × 19, 2 row, aluminium"))
    driver.settle()
    overlaps = [one for one in session.assessment.findings if one.code.startswith("fit_overlaps")]
    assert any("ail" in str(one.figures) for one in overlaps)
    labels = {act.label for one in overlaps for act in one.fix}
    assert not [label for label in labels if "ail" in label or "latch" in label.lower()]
    driver.window.show_station("Fit-up")
    driver.window.stations["Fit-up"].choose("Find")
    driver.click("Find a place", QPushButton)
    driver.settle()
    driver.until(lambda: driver.shows("places tried."))
    assert driver.shows("No place within the reach given") or driver.shows("Tightest:")
    assert session.build.survey.rails.left.as_typed == "-1 in"


def test_a_part_taken_off_a_list_says_at_once_what_it_brought_and_the_way_back(driver):
    session = driver.window.session
    assert session.do(offer("fit_core", "p1", "Core: a small one", name="Crossflow 14 × 12, 1 row, aluminium"))
    driver.settle()
    said = driver.window.header.words.text()
    assert said.startswith("Core: a small one: now “")
    assert said.endswith("Undo takes it back.")
    driver.ctrl(Qt.Key.Key_Z)
    assert session.build.package.core.name != "Crossflow 14 × 12, 1 row, aluminium"


def test_a_row_of_a_catalogue_and_a_button_tell_what_they_would_do_before_they_are_pressed(driver):
    """What is told under the list is what the judgement says once the row is clicked; nothing is done by looking."""
    session = driver.window.session
    build, before = session.build, session.assessment
    driver.click("Core station")
    driver.turn("Choose")
    table = driver.find("Cores", QTableWidget)
    name = "Crossflow 14 × 12, 1 row, aluminium"
    row = next(k for k in range(table.rowCount()) if table.item(k, 0).text() == name)
    QTest.mouseMove(table.viewport(), table.visualItemRect(table.item(row, 0)).center())
    told = driver.find("Cores: what it would do", QLabel)
    driver.until(lambda: "Tried on a copy" in told.text())
    assert session.build is build
    promised = told.text()
    assert promised.startswith(f"Core: {name}")
    driver.pick_row("Cores", name)
    driver.settle()
    turned = {
        f"{case.name} is held{'' if now.held else ' no more'}"
        for case in session.assessment.cases
        if (was := before.figures_of(case.case_id)) and (now := case.figures) and was.held != now.held
    }
    assert turned
    assert all(words in promised for words in turned)
    driver.ctrl(Qt.Key.Key_Z)
    assert session.build.package.core == build.package.core

    driver.click("Electrical station")
    driver.turn("Circuits")
    driver.find("Size alike circuits alike", QPushButton).setFocus()
    told = driver.find("Buttons of this page: what it would do", QLabel)
    driver.until(lambda: "Tried on a copy" in told.text())


def test_a_menu_of_acts_tells_what_the_one_under_the_pointer_would_do(driver):
    """Usual coolants and what a drawn fan offers: told at the foot of the menu, and nothing is done by looking."""
    session = driver.window.session
    build = session.build
    driver.click("Loop station")
    driver.turn("Circuit")
    driver.click("From a usual coolant…", QPushButton)
    menu = driver.window.stations["Loop"].coolants
    line = next(one for one in menu.actions() if one.text().startswith("Water"))
    QTest.mouseMove(menu, menu.actionGeometry(line).center())
    driver.until(lambda: "Tried on a copy" in menu.foretold.seen.text())
    assert session.build is build
    assert menu.foretold.seen.text().startswith(f"Coolant: {line.text()}")
    menu.close()

    bay, fan = driver.window.bay, build.package.fans[0]
    at = bay.view.map(QPointF(fan.x.si, fan.y.si)).toPoint()
    for words in ("Stop it", "Take it out"):
        QApplication.sendEvent(bay, QContextMenuEvent(QContextMenuEvent.Reason.Mouse, at, bay.mapToGlobal(at)))
        line = next(one for one in bay.menu.actions() if one.text() == words)
        QTest.mouseMove(bay.menu, bay.menu.actionGeometry(line).center())
        driver.until(lambda: "Tried on a copy" in bay.menu.foretold.seen.text())
        assert bay.menu.foretold.brings.text()
        bay.menu.close()
    assert session.build is build
