"""A new build surveyed, fitted, cut, trimmed, bracketed and printed by clicks and keys; and what the two stations
refuse."""

import json

import ezdxf
import pytest
from pypdf import PdfReader
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import (
    QApplication,
    QCheckBox,
    QLabel,
    QLineEdit,
    QPushButton,
    QTableWidget,
)

from keelroom import cli
from keelroom.assess.placing import stand
from keelroom.document.file import load
from keelroom.drawing.fitup import flat
from keelroom.gui.widgets.reading import way_of
from tests.gui.driver import Driver
from tests.gui.test_story import describe, fresh  # noqa: F401

INCH = 0.0254


def type_on(driver: Driver, *texts: str) -> None:
    """Type readings one after another, Enter after each, wherever the walk has put the cursor."""
    for text in texts:
        field = QApplication.focusWidget()
        assert isinstance(field, QLineEdit), f"no field has the cursor for “{text}”"
        QTest.keyClicks(field, text)
        QTest.keyClick(field, Qt.Key.Key_Return)
        QApplication.processEvents()


def obstacle(driver: Driver, name: str, sides: tuple[str, ...], mobility: str) -> None:
    driver.click("Add an obstacle")
    driver.settle()
    number = len(driver.window.session.build.survey.obstacles)
    old = f"Obstacle {number}"
    driver.find(f"{old}: its left side from left").setFocus()
    type_on(driver, *sides)
    ident = driver.window.session.build.survey.obstacles[-1].id
    view = driver.window.stations["Survey"].views["In the way"]
    box = view.field_at(("survey", "obstacles", ident, "mobility")).box
    view.ensureWidgetVisible(box)
    box.setFocus()
    while box.currentText() != mobility:
        QTest.keyClick(box, Qt.Key.Key_Down)
    text = view.field_at(("survey", "obstacles", ident, "name")).edit
    view.ensureWidgetVisible(text)
    QTest.mouseClick(text, Qt.MouseButton.LeftButton)
    QTest.keyClick(text, Qt.Key.Key_A, Qt.KeyboardModifier.ControlModifier)
    QTest.keyClicks(text, name)
    QTest.keyClick(text, Qt.Key.Key_Return)
    QApplication.processEvents()


def hole(driver: Driver, *readings: str) -> None:
    driver.click("Add a mounting hole")
    driver.settle()
    number = len(driver.window.session.build.survey.holes)
    driver.find(f"Hole {number}: hole from left").setFocus()
    type_on(driver, *readings)


def survey(driver: Driver) -> None:
    """A narrow opening, an engine close behind it, a movable horn and a fixed brake unit."""
    driver.click("Survey station")
    field = driver.find("Panel opening, width")
    QTest.mouseClick(field, Qt.MouseButton.LeftButton)
    type_on(driver, "22", "19 1/2", "5/8", "0")
    # The walk goes on at the engine: depth, across, height, diameter of pulley, belt and pump, then block and mounts.
    type_on(
        driver, "10 5/8", "11", "2 1/2", "6 1/4", "10 1/8", "15 1/4", "8 1/2", "3 1/2", "8 1/2", "11", "9 3/4", "5 1/4"
    )
    type_on(driver, "14 1/8", "3 1/2", "~1/2", "~3/8")
    type_on(driver, "22 1/4", "24 1/2", "12", "-5", "27", "-3", "32", "17")
    driver.turn("In the way")
    obstacle(driver, "Horn", ("18 1/2", "2 3/4", "4 1/8", "4", "4", "3"), "Can be moved")
    obstacle(driver, "Brake unit", ("-6 1/2", "11", "4 3/4", "3 1/4", "6 1/2", "6"), "Fixed")
    driver.turn("Hoses")
    driver.find("Upper hose: hose end from left").setFocus()
    type_on(driver, "3", "18 1/2", "11", "1 1/2", "21", "1 1/2", "11 1/2", "1 3/4")


@pytest.mark.usefixtures("fresh")
def test_story_of_a_fit(fresh, capsys, tmp_path, monkeypatch):  # noqa: F811
    driver, path = fresh
    session = driver.window.session
    describe(driver)
    driver.click("Core station")
    driver.pick_row("Cores", "Crossflow 24 × 19, 2 row")
    driver.click("Aux coolers station")
    driver.turn("Each")
    for name, text in (("from left", "2"), ("from bottom", "2 1/2"), ("cooler width", "20"), ("cooler height", "14")):
        driver.enter(f"Condenser: {name}", text)
    driver.click("Air station")
    driver.pick_row("Fans", "17 in stock-type deep")
    assert "Clearance: not surveyed" in driver.find("Clearance:").accessibleName()
    survey(driver)
    engine = session.build.survey.engine
    assert engine.rock_forward.doubt == pytest.approx(INCH / 4)
    assert way_of(engine.rock_forward) == "by eye"
    assert engine.turning[2].depth.as_typed == "8 1/2"
    assert [item.mobility for item in session.build.survey.obstacles] == ["movable", "fixed"]

    # the deep single does not fit
    driver.click("Fit-up station")
    assert driver.shows("Does not fit")
    table = driver.find("Clearances", QTableWidget)
    assert table.item(0, 1).text() == "overlaps"
    assert "Gap: overlaps" in driver.find("Gap:").accessibleName()

    # a place for twins
    driver.turn("Find")
    driver.click("Find a place", QPushButton)
    driver.settle()
    driver.until(lambda: driver.shows("places tried"))
    heads = [w.text() for w in driver.window.findChildren(QLabel) if w.isVisible() and w.text()[:2].strip().isdigit()]
    twin = next(text for text in heads if "Twin" in text)
    driver.click(f"Use place {twin.split()[0]}")
    assert len(session.build.package.fans) == 2
    assert session.assessment.fit.verdict in ("tight", "clears", "not measured")
    assert session.assessment.fit.tightest.margin > -1e-4

    # the cut is staged, and the cheap checks come first
    driver.turn("Cut")
    driver.settle()
    driver.until(lambda: driver.shows("Cut A:"))
    assert not driver.find("Plan the cuts up to A").isEnabled()
    for check in ("Hood", "Belt", "Latch", "Structure"):
        driver.click(check, QCheckBox)
        driver.settle()
        driver.until(lambda: driver.shows("Cut A:"))
    driver.until(lambda: driver.find("Plan the cuts up to A").isEnabled())
    driver.click("Plan the cuts up to A")
    driver.settle()
    assert len(session.build.package.cuts) == 1
    assert session.build.package.cuts[0].amount.si <= INCH + 1e-6

    # the shroud is bought too wide and trimmed
    driver.turn("Shroud")
    driver.enter("As bought: width over its flange", "24 3/4")
    assert driver.shows("proud on the tanks")
    driver.click("Trim until it seats")
    assert driver.shows("Seats between the tanks")
    assert session.build.package.shroud.trim_left.si == pytest.approx(3 / 8 * INCH)

    # four brackets to four holes
    driver.click("Survey station")
    driver.turn("Holes")
    at = stand(session.build.survey, session.build.package)
    left, right = (round(value / INCH * 16) / 16 for value in (at.x - 0.028, at.x + 24 * INCH + 0.028))
    for x in (left, right):
        for y, z in (("20 1/2", "-1/2"), ("-1 1/4", "-1/2")):
            hole(driver, f"{x:g}", y, z, "5/16")
    driver.click("Fit-up station")
    driver.turn("Brackets")
    driver.click("One to each surveyed hole")
    assert len(session.build.package.brackets) == 4
    assert (
        sum(
            w.text().startswith("Bracket, Hole") and "developed" in w.text()
            for w in driver.window.findChildren(QLabel)
            if w.isVisible()
        )
        == 4
    )

    # templates
    driver.turn("Make")
    assert driver.find("Templates", QTableWidget).rowCount() > 10
    driver.enter("At most sheets", "²")
    driver.click("Print templates as PDF")
    assert driver.shows("“²” is no number of sheets")
    driver.enter("At most sheets", "3")
    driver.click("Print templates as PDF")
    assert driver.shows("3 are allowed")
    driver.enter("At most sheets", "120")
    monkeypatch.setattr("keelroom.gui.saving.QFileDialog.getSaveFileName", lambda *_: (str(tmp_path / "t.pdf"), ""))
    driver.click("Print templates as PDF")
    assert not driver.shows("3 are allowed")
    assert "100 mm" in PdfReader(tmp_path / "t.pdf").pages[0].extract_text()
    monkeypatch.setattr("keelroom.gui.saving.QFileDialog.getSaveFileName", lambda *_: (str(tmp_path / "t.dxf"), ""))
    driver.click("Write templates as DXF")
    assert not ezdxf.readfile(tmp_path / "t.dxf").audit().errors

    # what was saved says the same on the command line
    driver.ctrl(Qt.Key.Key_S)
    assert load(path).package.brackets == session.build.package.brackets
    capsys.readouterr()
    assert cli.main(["assess", "--json", str(path)]) in (0, 1), "1: some duty case is over its limit"
    said = json.loads(capsys.readouterr().out)["fit"]
    assert said["verdict"] == session.assessment.fit.verdict
    assert len(said["brackets"]) == 4
    assert said["shroud"]["seats"]
    gaps = {(gap["part"], gap["other"]): gap["gap_m"] for gap in said["clearances"]}
    for gap in session.assessment.fit.gaps:
        assert gaps[(gap.part.name, gap.other.name)] == pytest.approx(gap.gap, abs=1e-4)


# the stations by themselves


def fit_up(driver: Driver, page: str) -> None:
    driver.click("Fit-up station")
    driver.turn(page)
    driver.settle()


def test_a_wrong_reading_stays_where_it_was_typed(demo_window):
    driver = demo_window
    driver.click("Survey station")
    before = driver.window.session.build
    field = driver.enter("Panel opening, width", "24 3/0")
    assert field.text() == "24 3/0"
    assert "fraction over zero" in field.accessibleDescription()
    assert QApplication.focusWidget() is field, "Enter goes on only from a reading that was taken"
    assert driver.window.session.build is before
    driver.enter("Panel opening, width", "-3")
    assert "more than" in field.accessibleDescription()


def test_the_picture_is_of_the_page_that_is_shown(demo_window):
    driver = demo_window
    driver.click("Survey station")
    board = driver.window.stations["Survey"].board
    assert board.title.startswith("Panel opening, width")
    driver.turn("Hoses")
    assert board.title.startswith("Hose end from left")
    driver.find("Lower hose: hose end bore").setFocus()
    assert board.title.startswith("Hose end bore")


def test_an_undo_in_bench_mode_leaves_a_reading_that_is_there(demo_window):
    driver = demo_window
    driver.click("Survey station")
    driver.turn("Holes")
    driver.click("Add a mounting hole")
    QTest.keyClick(driver.window, Qt.Key.Key_F8)
    bench = driver.find("Bench mode")
    while bench.at < len(bench.readings) - 1:
        driver.click("Skip this reading")
    driver.ctrl(Qt.Key.Key_Z)
    assert len(driver.window.session.build.survey.holes) == 4
    assert bench.path[:2] == ("survey", "holes")
    bench.picture.repaint()
    QTest.keyClick(driver.window, Qt.Key.Key_F8)


def test_a_nudge_across_leaves_the_height_alone(demo_window):
    driver = demo_window
    fit_up(driver, "Place")
    before = stand(driver.window.session.build.survey, driver.window.session.build.package)
    grip = driver.find("Package, from the front")
    grip.setFocus()
    QTest.keyClick(grip, Qt.Key.Key_Right)
    after = stand(driver.window.session.build.survey, driver.window.session.build.package)
    assert after.x - before.x == pytest.approx(INCH / 16)
    assert after.y == before.y


def test_a_second_reading_is_held_against_the_first(demo_window):
    driver = demo_window
    driver.click("Survey station")
    driver.click("Panel opening, width: read it again")
    driver.enter("Panel opening, width, second reading", "24")
    assert driver.shows("1/2 in off, take it a third time")
    assert any(f.code == "readings_differ" for f in driver.window.session.assessment.findings)
    driver.enter("Panel opening, width, second reading", "24 7/16")
    assert driver.shows("agrees")


def test_corners_that_cross_are_said_and_nothing_is_lost(demo_window):
    driver = demo_window
    driver.click("Survey station")
    driver.click("Give its corners instead")
    assert len(driver.window.session.build.survey.opening.corners) == 4
    driver.enter("Corner 2: corner from bottom", "19 1/2")
    driver.enter("Corner 3: corner from bottom", "0")
    assert driver.window.session.build.survey.opening.corners[1].y.as_typed == "19 1/2"
    assert driver.shows("The opening's outline crosses itself")


def test_a_gap_of_nothing_is_refused_in_place(demo_window):
    driver = demo_window
    fit_up(driver, "Place")
    view = driver.window.stations["Fit-up"].views["Place"]
    edit = view.field_at(("gaps", "static", "gap")).edit
    view.ensureWidgetVisible(edit)
    for text in ("0", "-1/4"):
        QTest.mouseClick(edit, Qt.MouseButton.LeftButton)
        QTest.keyClick(edit, Qt.Key.Key_A, Qt.KeyboardModifier.ControlModifier)
        QTest.keyClicks(edit, text)
        QTest.keyClick(edit, Qt.Key.Key_Return)
        assert "more than" in edit.accessibleDescription()
        assert edit.text() == text


def test_parts_drag_nudge_lean_and_snap_in_every_view(demo_window):
    driver = demo_window
    fit_up(driver, "Gaps")
    session, board = driver.window.session, driver.window.stations["Fit-up"].board

    def now():
        return stand(session.build.survey, session.build.package)

    def middle(view, key):
        body = next(body for body in board.fit.parts if body.key == key)
        at = board.views[view].map(QPointF(*flat(view, body.solid.centre)))
        return QPoint(int(at.x()), int(at.y()))

    before, gap = now(), session.assessment.fit.tightest.gap
    start = middle("side", "core")
    driver.drag(board, start, start + QPoint(round(1.0 * INCH * board.views["side"].m11()), 0))
    moved = now()
    assert moved.z - before.z == pytest.approx(1.0 * INCH, abs=0.1 * INCH)
    assert moved.x == pytest.approx(before.x)
    assert session.assessment.fit.tightest.gap != gap
    assert session.store.trail[-1] == "Move the package"
    steps = len(session.store.trail)
    start = middle("above", "core")
    driver.drag(board, start, start + QPoint(0, -round(1.1 * INCH * board.views["above"].m11())))
    assert now().z == pytest.approx(0.0, abs=1e-3), "it catches at the support plane"
    assert len(session.store.trail) == steps + 1, "one drag is one step"
    start = middle("front", "ring:fan1")
    across = session.build.package.fans[0].x.si
    driver.drag(board, start, start + QPoint(round(0.6 * INCH * board.views["front"].m11()), 0))
    assert session.build.package.fans[0].x.si > across + 0.3 * INCH
    grip = driver.find("Package, from the left side")
    grip.setFocus()
    z, lean = now().z, now().lean
    QTest.keyClick(grip, Qt.Key.Key_Right)
    assert now().z - z == pytest.approx(INCH / 16)
    QTest.keyClick(grip, Qt.Key.Key_PageDown)
    assert now().lean - lean == pytest.approx(0.0087, abs=2e-4)
    assert "Does not fit" in board.accessibleDescription()


def test_a_clearance_is_pointed_out_with_what_dominates_it(demo_window):
    driver = demo_window
    fit_up(driver, "Gaps")
    driver.pick_row("Clearances", "Left tank – Brake unit")
    assert driver.shows("dominates its doubt")
    assert driver.window.stations["Fit-up"].board.marked == ("left_tank", "obstacle:brake")
    driver.click("Measure next: Core support brace: left")
    assert driver.window.tape.marks["Survey"].isChecked()
    assert QApplication.focusWidget().accessibleName() == "Core support brace: its left side from left"


def test_a_search_shows_its_progress_and_stops(demo_window):
    driver = demo_window
    fit_up(driver, "Find")
    driver.click("Find a place", QPushButton)
    driver.find("How far the search has come")
    driver.click("Stop the search")
    driver.settle()
    assert driver.shows("Stopped.")
    assert not driver.shows("places tried")


def test_bench_mode_takes_a_reading_by_its_pads(demo_window):
    driver = demo_window
    QTest.keyClick(driver.window, Qt.Key.Key_F8)
    bench = driver.find("Bench mode")
    driver.until(bench.isVisible)
    while bench.path != ("survey", "opening", "width"):
        driver.click("Reading before")
    for key in ("2", "5", "3/8"):
        driver.click(key, QPushButton)
    assert driver.shows("25 3/8 in")
    driver.click("By eye")
    driver.click("Enter and go on")
    value = driver.window.session.build.survey.opening.width
    assert value.si == pytest.approx(25.375 * INCH)
    assert value.doubt == pytest.approx(INCH / 4)
    assert bench.path == ("survey", "opening", "height")
    QTest.keyClicks(bench, "0")
    QTest.keyClick(bench, Qt.Key.Key_Return)
    assert driver.shows("must be more than")
    assert bench.path == ("survey", "opening", "height"), "a wrong entry stays"
    driver.click("Leave bench mode")
    assert driver.window.tape.marks["Survey"].isChecked()


def test_life_size_follows_the_ruler(demo_window):
    driver = demo_window
    fit_up(driver, "Make")
    page = driver.window.stations["Fit-up"].views["Make"]
    driver.enter("The bar measures, by a ruler held to the screen", "zero")
    assert driver.shows("cannot be read")
    driver.enter("The bar measures, by a ruler held to the screen", "75 mm")
    driver.click("Life-size on this screen", QCheckBox)
    assert page.view.life == pytest.approx(300 / 0.075)
    assert page.view.view().m11() == pytest.approx(4000.0)
    driver.click("Life-size on this screen", QCheckBox)
    assert page.view.life == 0


def test_the_blank_sheet_and_the_plain_verdict_leave_the_window(demo_window, tmp_path, monkeypatch):
    driver = demo_window
    monkeypatch.setattr("keelroom.gui.saving.QFileDialog.getSaveFileName", lambda *_: (str(tmp_path / "s.pdf"), ""))
    driver.ctrl(Qt.Key.Key_E)
    QTest.keyClicks(driver.find("Ask"), "survey sheet")
    QTest.keyClick(driver.find("Ask"), Qt.Key.Key_Return)
    assert "Crank pulley" in "".join(page.extract_text() for page in PdfReader(tmp_path / "s.pdf").pages)
    for _ in range(len("survey sheet")):
        QTest.keyClick(driver.find("Ask"), Qt.Key.Key_Backspace)
    QTest.keyClicks(driver.find("Ask"), "plain paragraph")
    QTest.keyClick(driver.find("Ask"), Qt.Key.Key_Return)
    text = QApplication.clipboard().text()
    assert "Fit: does not fit" in text
    assert "\n" not in text


def test_the_pan_and_the_mounts_say_their_figures(demo_window):
    driver = demo_window
    fit_up(driver, "Shroud")
    assert driver.shows("Pan from sheet: one folded piece, flat blank 29 13/16 in × 22 1/8 in")
    driver.enter("Sheet at hand, width", "24")
    driver.enter("Sheet at hand, height", "20")
    assert driver.shows("pieces joined")
    fit_up(driver, "Mounts")
    assert driver.shows("one end slides freely")
    driver.choose("Fan mount", "Ties through the fins")
    assert driver.shows("stopgap")
    fit_up(driver, "Brackets")
    driver.enter(f"{driver.window.session.build.package.brackets[0].name}: strip thickness", "1/32")
    assert driver.shows("Bends for good")
