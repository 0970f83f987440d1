"""The air screens by mouse and keys: map and slider, worth applied and undone, hold, response and backwards, causes,
covers, compare."""

import json

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLabel, QTableWidget, QToolButton, QWidget

from keelroom import cli
from keelroom.assess.questions.airmap import air_map
from keelroom.assess.questions.worth import worth_table
from keelroom.gui.widgets.chart import Chart
from tests.gui.driver import Driver


@pytest.fixture
def driver(demo_window):
    return demo_window


def air(driver: Driver) -> Driver:
    driver.click("Air station")
    driver.settle()
    driver.until(lambda: driver.window.bay.overlay is not None)
    return driver


def test_the_map_follows_case_pointer_and_speed(driver):
    air(driver)
    bay = driver.window.bay
    driver.click("Idle, A/C on")
    driver.settle()
    shown = air_map(driver.window.session.build, "idle")
    assert bay.overlay.overlay.values[8, 12] == pytest.approx(shown.speed[8, 12] / 0.3048 * 60, rel=1e-3)
    middle = bay.overlay.tile(8, 12, bay.view).center().toPoint()
    QTest.mouseMove(bay, middle)
    QApplication.processEvents()
    assert bay.pointed.endswith("ft/min")
    slider = driver.find("Road speed of the map")
    slider.setFocus()
    for _ in range(30):
        QTest.keyClick(slider, Qt.Key.Key_Right)
    driver.settle()
    driver.until(lambda: not driver.window.map_bar.worker.busy)
    assert bay.overlay.overlay.values[8, 12] > 1.3 * shown.speed[8, 12] / 0.3048 * 60
    driver.click("Show air temperature on the face")
    driver.settle()
    assert bay.overlay.overlay.unit == "°F"
    driver.click("Show parts on the face")
    driver.settle()
    assert bay.overlay is None
    driver.click("Core station")
    assert not driver.window.map_bar.isVisible()


def test_worth_is_done_by_one_click_and_undone(driver):
    air(driver)
    before = driver.ledger()["Quarry hill with trailer"]
    driver.turn("Worth")
    driver.settle()
    driver.until(lambda: driver.shows("worth nothing here"))
    driver.click("Do it: More water in the coolant (30 % glycol)")
    assert driver.window.session.build.package.coolant.glycol_share.as_typed == "30 %"
    assert driver.ledger()["Quarry hill with trailer"] != before
    driver.settle()
    driver.ctrl(Qt.Key.Key_Z)
    assert driver.ledger()["Quarry hill with trailer"] == before


def test_hold_shows_every_change_and_the_map_against_it(driver):
    air(driver)
    driver.click("Hold this state as reference")
    assert "no change from what is held" in driver.ledger()["Steady cruise"]
    driver.turn("Shroud")
    driver.enter("Gap at the shroud's edge", "1/4")
    said = driver.ledger()["Quarry hill with trailer"]
    assert "from what is held" in said
    assert "no change" not in said
    driver.click("Against hold", QToolButton)
    driver.settle()
    driver.until(lambda: driver.window.bay.overlay is not None and driver.window.bay.overlay.overlay.difference)
    driver.click("Hold this state as reference")
    assert "held" not in driver.ledger()["Steady cruise"]


def test_the_response_strip_follows_the_focused_number_and_answers_backwards(driver):
    driver.click("Quarry hill with trailer")
    driver.click("Core station")
    driver.turn("Size")
    QTest.mouseClick(driver.find("Core depth"), Qt.MouseButton.LeftButton)
    driver.settle()
    strip = driver.window.strip
    assert not strip.isVisible(), "it comes when it is asked for"
    before = driver.find("Core depth").mapToGlobal(QPoint(0, 0))
    driver.key(Qt.Key.Key_F7)
    assert driver.find("Core depth").mapToGlobal(QPoint(0, 0)) == before, "the field typed in stays where it is"
    driver.until(lambda: strip.isVisible() and strip.chart.picture.series)
    assert driver.shows("Core depth against Quarry hill with trailer")
    wanted = driver.find("Wanted temperature")
    QTest.mouseClick(wanted, Qt.MouseButton.LeftButton)
    QTest.keyClicks(wanted, "warm")
    QTest.keyClick(wanted, Qt.Key.Key_Return)
    assert any(w.property("role") == "error" for w in strip.findChildren(QLabel)), "letters are refused in place"
    assert wanted.text() == "warm"
    driver.enter("Wanted temperature", "248 °F")
    driver.settle()
    driver.until(strip.use.isVisible)
    driver.click("Use the value found")
    assert "settles at 248 °F" in driver.ledger()["Quarry hill with trailer"]
    driver.ctrl(Qt.Key.Key_Z)
    assert "settles at 248 °F" not in driver.ledger()["Quarry hill with trailer"]
    driver.key(Qt.Key.Key_F7)
    assert not strip.isVisible()


def test_cheap_causes_are_looked_at_one_by_one(driver):
    driver.turn("Causes")
    driver.click("Air goes round the core: looked at, fine")
    assert ("sealing", "fine") in {(c.id, c.state) for c in driver.window.session.build.brief.causes}
    driver.click("Air trapped in the system: found and mended")
    assert driver.shows("found and mended")
    driver.click("Air trapped in the system: open again")
    assert driver.window.session.store.undo_label.startswith("Air trapped")


def test_what_stands_ahead_is_added_placed_and_removed(driver):
    driver.click("Aux coolers station")
    before = driver.ledger()["Steady cruise"]
    driver.click("Add engine oil cooler")
    assert [cooler.kind for cooler in driver.window.session.build.package.coolers][-1] == "oil_cooler"
    assert driver.ledger()["Steady cruise"] != before
    driver.click("Remove Engine oil cooler")
    assert driver.ledger()["Steady cruise"] == before


def test_cores_are_compared_and_fitted(driver):
    driver.click("Core station")
    driver.turn("Choose")
    driver.settle()
    table = driver.find("Cores", QTableWidget)
    driver.until(lambda: table.rowCount() > 20)
    assert table.item(0, 1).text().endswith("of 6")
    driver.pick_row("Cores", "Crossflow 31 × 19, 4 row, aluminium")
    assert driver.window.session.build.package.core.name.startswith("Crossflow 31 × 19, 4 row, aluminium")
    driver.turn("Sweeps")
    driver.settle()
    driver.until(lambda: driver.shows("best for these fans"))


def test_fan_curve_and_ladder_are_there_for_eyes_and_readers(driver):
    air(driver)
    driver.turn("Curve")
    driver.settle()
    driver.until(lambda: any(isinstance(w, Chart) and w.isVisible() for w in driver.window.findChildren(Chart)))
    chart = driver.find("Fan curve with the system's curve")
    assert "14 V" in chart.as_text()
    assert "in the bay" in driver.find("Pressure ladder", QWidget).accessibleName()
    driver.turn("Figures")
    for words in (
        "rated, free air",
        "expected into this core",
        "hot air at its blades",
        "a hand anemometer reads",
        "reading over rating",
    ):
        assert driver.shows(words)


def test_window_and_command_line_agree_on_the_air(driver, tmp_path, capsys):
    air(driver)
    driver.turn("Fans")
    driver.click("Fan 1: runs")
    path = driver.window.session.path
    driver.ctrl(Qt.Key.Key_S)
    cli.main(["assess", str(path), "--json"])
    told = json.loads(capsys.readouterr().out)["cases"][0]
    figures = driver.window.session.assessment.cases[0].figures
    assert told["fans"][1]["from_stopped_fan_share"] == pytest.approx(figures.fans[1].from_hole)
    assert told["coolers"][0]["fluid_degC"] == pytest.approx(figures.coolers[0].fluid)
    assert figures.fans[1].from_hole > 0.2


def test_a_fan_is_dragged_with_the_map_on(driver):
    air(driver)
    bay = driver.window.bay
    fan = driver.window.session.build.package.fans[0]
    at = bay.view.map(fan.x.si, fan.y.si)
    start = QPoint(int(at[0]), int(at[1]))
    driver.drag(bay, start, start + QPoint(-22, 31))
    driver.settle()
    moved = driver.window.session.build.package.fans[0]
    assert (moved.x.si, moved.y.si) != (fan.x.si, fan.y.si)
    assert driver.window.session.store.undo_label == "Move fan 1"
    assert bay.overlay is not None


def test_a_page_is_copied_as_text(driver):
    driver.click("Core station")
    driver.key(Qt.Key.Key_T, Qt.KeyboardModifier.ControlModifier | Qt.KeyboardModifier.ShiftModifier)
    text = QApplication.clipboard().text()
    assert text.startswith("Core\tHolds")
    assert "Crossflow 26 × 17, 2 row, aluminium" in text


def test_the_drawing_goes_out_as_svg(driver, tmp_path, monkeypatch):
    monkeypatch.setattr("keelroom.gui.saving.QFileDialog.getSaveFileName", lambda *_: (str(tmp_path / "e.svg"), ""))
    driver.ctrl(Qt.Key.Key_E)
    QTest.keyClicks(driver.find("Ask"), "export drawing")
    QTest.keyClick(driver.find("Ask"), Qt.Key.Key_Return)
    assert "<svg" in (tmp_path / "e.svg").read_text()


def test_a_total_opens_its_working_and_goes_to_what_limits_it(driver):
    for total, title in (
        ("CFM:", "Air through the core, standing"),
        ("Idle:", "Amps standing, everything on"),
        ("Face:", "frontal-area rule"),
    ):
        driver.click(total)
        driver.settle()
        assert driver.shows(title)
        driver.until(lambda: len(driver.find("What moves it most").text().splitlines()) == 3)
    assert driver.window.tape.marks["Core"].isChecked(), "the face is decided at the Core station"
    driver.click("Steady cruise")
    assert driver.shows("Steady cruise: engine-outlet temperature")


def test_worths_cut_waits_for_its_checks(demo_window):
    """The cut is worth something, and not to be planned before anybody has looked: not by its button, nor past it."""
    driver, session = demo_window, demo_window.window.session
    driver.window.show_station("Air")
    driver.window.stations["Air"].choose("Worth")
    driver.settle()
    offer = driver.find("Do it: Cut the panel clear of the face")
    assert not offer.isEnabled()
    assert driver.shows("before a cut, at Fit-up, Cut: hood, latch, structure")
    cut = next(worth.act for worth in worth_table(session.build) if worth.act.code == "cut_clear")
    assert not session.do(cut)
    assert "cheap checks" in driver.window.header.words.text()
    assert session.build.package.cuts == ()
    session.set(("survey", "checks"), ("hood", "belt", "latch", "structure"), "All looked at")
    driver.settle()
    driver.click("Do it: Cut the panel clear of the face")
    assert session.build.package.cuts
