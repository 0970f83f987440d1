"""The window as a desktop program: menus, drawers, folding, zoom, files dropped and used last, packages, first build,
print, guide."""

import ast
import os
import re
import signal
import subprocess
import sys
import time

import pytest
from PyQt6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QContextMenuEvent, QDropEvent, QWheelEvent
from PyQt6.QtPdf import QPdfDocument
from PyQt6.QtPrintSupport import QPrinter
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from keelroom import ASSETS
from keelroom.assess.assess import assess
from keelroom.assess.report import folded_line
from keelroom.document.edits import set_value
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.gui.files import dropped
from keelroom.gui.first_build import THERE, FirstBuild
from keelroom.gui.guide import FOLDER, matching, topics
from keelroom.gui.leaving import end_session
from keelroom.gui.packages import Packages
from keelroom.gui.printing import draw, loaded, printer_for
from keelroom.gui.registry import STATIONS
from keelroom.gui.widgets.reading import ReadingField
from tests.conftest import DEMO
from tests.gui.driver import opened


@pytest.fixture
def driver():
    made = opened(DEMO)
    made.settle()
    yield made
    made.dispose()


def wheel(widget, at, notches, ctrl=False):
    held = Qt.KeyboardModifier.ControlModifier if ctrl else Qt.KeyboardModifier.NoModifier
    place = QPointF(*at)
    event = QWheelEvent(
        place,
        widget.mapToGlobal(place),
        QPoint(0, 0),
        QPoint(0, 120 * notches),
        Qt.MouseButton.NoButton,
        held,
        Qt.ScrollPhase.NoScrollPhase,
        False,
    )
    QApplication.sendEvent(widget, event)
    QApplication.processEvents()


def test_every_menu_act_has_its_place_and_undo_says_what(driver):
    menus = driver.window.menus
    assert {action.text().replace("&", "") for action in menus.bar.actions()} == {
        "File",
        "Edit",
        "View",
        "Package",
        "Help",
    }
    assert not menus.acts["Undo"].isEnabled()
    driver.enter("Vehicle mass", "5000")
    assert menus.acts["Undo"].text() == "Undo: Vehicle mass 5000"
    menus.acts["Undo"].trigger()
    assert driver.window.session.build.brief.vehicle.mass.as_typed == "4350 lb"
    keys = [action.shortcut().toString() for action in menus.acts.values() if not action.shortcut().isEmpty()]
    assert len(keys) == len(set(keys)), "no two acts share their keys"


def test_the_picture_has_half_the_window_when_it_is_what_one_works_on(driver):
    window = driver.window
    driver.key(Qt.Key.Key_F2)
    QApplication.processEvents()
    whole = 1280 * 800

    def share():
        QApplication.processEvents()
        return window.middle_stack.width() * window.middle_stack.height() / whole

    assert share() > 0.42
    driver.ctrl(Qt.Key.Key_L)
    assert share() > 0.5, "the ledger folded to its line"
    driver.ctrl(Qt.Key.Key_L)
    driver.key(Qt.Key.Key_F5)
    assert share() > 0.58, "the form away"
    driver.key(Qt.Key.Key_F5)
    assert window.station_stack.isVisible()


def test_the_ledger_folds_to_a_line_that_says_the_worst(driver):
    window = driver.window
    driver.ctrl(Qt.Key.Key_L)
    line = window.ledger.line
    assert line.isVisible()
    assert not window.ledger.rows[0].isVisible()
    told = line.words.text()
    assert told == folded_line(window.session.assessment, "us")
    assert "4 of 6 hold; Hill-climb, full power does not settle" in told
    assert "idle 69 A of 48" in told
    assert "overlaps 2 5/16 in" in told
    QTest.mouseClick(line, Qt.MouseButton.LeftButton)
    QApplication.processEvents()
    assert window.ledger.rows[0].isVisible()


def test_the_limit_stands_at_one_place_in_rows_and_axis_from_the_first_build_on():
    """The line in the rows, read off the pixels, against the mark of the axis under it; a place kept from the start
    page had them 200 px apart."""
    driver = opened()
    window = driver.window
    driver.settle()
    window.grab()

    def red(widget, y):
        image = widget.grab().toImage()
        return [x for x in range(image.width()) if image.pixelColor(x, y).red() - image.pixelColor(x, y).green() > 60]

    window.files.open_demo()
    for wide in (1280, 1024, 1600):
        driver.settle()
        line, mark = red(window.ledger.rows[1], 1), red(window.ledger.axis, 8)
        assert line
        assert abs(sum(line) / len(line) - sum(mark) / len(mark)) < 1.5, wide
        window.resize({1280: 1024, 1024: 1600}.get(wide, 1280), 800)
    driver.dispose()


def test_a_drawer_goes_out_and_back_and_counts_stand_on_its_handle(driver):
    drawers = driver.window.drawers
    driver.key(Qt.Key.Key_F2)
    assert not drawers.isVisible()
    assert dict(drawers.tabs["Findings"].counts) == {"problem": 13, "doubt": 12, "note": 9}
    driver.click("Why drawer")
    assert drawers.out == "Why"
    assert drawers.isVisible()
    driver.click("Why drawer")
    assert not drawers.isVisible()


def test_findings_of_the_shown_station_stand_first_and_can_stand_alone(driver):
    panel = driver.window.drawers.panels["Findings"]

    def places():
        QApplication.processEvents()
        return [card.head.accessibleName().split(" at ")[1].split(":")[0] for card in panel.cards if card.isVisible()]

    driver.click("Electrical station")
    assert places()[:8] == ["Electrical"] * 8
    driver.click("Only this station")
    assert set(places()) == {"Electrical"}
    driver.click("Only problems")
    levels = {card.finding.level for card in panel.cards if card.isVisible()}
    assert levels == {"problem"}
    card = next(card for card in panel.cards if card.isVisible())
    assert card.body.isHidden(), "rows are short until they are opened"
    card.head.setFocus()
    QTest.keyClick(card.head, Qt.Key.Key_Return)
    assert not card.body.isHidden()
    assert "From:" in card.source.text()


def test_an_act_says_what_it_will_change_and_stays_greyed_when_done(driver):
    panel = driver.window.drawers.panels["Findings"]
    driver.click("Electrical station")
    driver.open_finding(lambda finding: bool(finding.fix) and finding.code == "relay_small")
    card = next(card for card in panel.cards if card.isVisible() and not card.body.isHidden())
    offered = card.fixes[0]
    assert "was" in offered.told.text()
    driver.until(lambda: "Tried on a copy" in offered.tried.text())
    assert offered.tried.text().startswith("Tried on a copy: this goes.")
    assert offered.brings.isHidden()
    label = offered.made.text()
    driver.mend(label)
    assert panel.done.isVisible()
    assert panel.done_words.text().startswith(f"Done: {label}. Then: the motor’s volts with a meter")
    assert "Disconnect the battery" in card.mind.text(), "what to mind stands by the buttons"
    driver.click("Undo it")
    assert not panel.done.isVisible()


def test_what_an_act_brings_stands_with_it_before_it_is_pressed(driver):
    """A full shroud lets the fans rest, and the condenser with them: the button is no longer the main one, and pressed
    it brings what was said and nothing else."""
    driver.window.session.apply(set_value(("packages", "p1", "shroud", "kind"), "none", "No shroud"))
    hot = quantity("108 °F", "temperature")
    driver.window.session.apply(set_value(("brief", "climate", "ambient"), hot, "A hotter day"))
    driver.open_finding(lambda finding: finding.code == "no_shroud")
    panel, session = driver.window.drawers.panels["Findings"], driver.window.session
    card = next(card for card in panel.cards if card.isVisible() and card.finding.code == "no_shroud")
    offered = card.fixes[0]
    driver.until(lambda: "Tried on a copy" in offered.tried.text())
    assert "Held on hotter days, by: Idle, A/C on " in offered.tried.text()
    assert offered.brings.text() == "It brings: “Idle, A/C on: the A/C cuts out on head pressure”."
    assert offered.made.property("role") != "main"
    before = {finding.code for finding in session.assessment.findings if finding.level == "problem"}
    driver.mend(offered.made.text())
    after = {finding.code for finding in session.assessment.findings if finding.level == "problem"}
    assert after - before == {"ac_cuts_out"}


def test_a_second_press_of_space_does_no_other_act(driver):
    """Rows move up when a finding goes: what then stands under the hand must not be done as well."""
    panel, store = driver.window.drawers.panels["Findings"], driver.window.session.store
    driver.click("Electrical station")
    opened = []
    for card in [card for card in panel.cards if card.isVisible() and card.finding.fix][:3]:
        opened.append(card.finding.code)
        driver.open_finding(lambda finding, code=opened[-1]: finding.code == code)
    card = next(card for card in panel.cards if card.isVisible() and card.finding.code == opened[0])
    driver.until(card.fixes[0].made.isEnabled)
    card.fixes[0].made.setFocus()
    label = card.fixes[0].made.text()
    for _ in range(3):
        QTest.keyClick(QApplication.focusWidget(), Qt.Key.Key_Space)
        QApplication.processEvents()
    assert store.undo_label == label
    assert panel.done.isVisible()
    # What was done comes into sight with its way back, once the rows stand anew.
    driver.until(lambda: not panel.done.visibleRegion().isEmpty())
    driver.click("Undo it")
    assert not store.undo_label


def test_wheel_keys_and_space_zoom_and_push_the_picture(driver):
    driver.click("Core station")
    driver.turn("Size")
    bay = driver.window.bay
    fan = driver.window.session.build.package.fans[0]
    before = bay.view.map(fan.x.si, fan.y.si)
    wheel(bay, before, 3)
    after = bay.view.map(fan.x.si, fan.y.si)
    assert bay.zoom.factor == pytest.approx(1.25**3)
    assert after == pytest.approx(before, abs=0.5), "what is under the pointer stays under it"
    bay.setFocus()
    QTest.keyPress(bay, Qt.Key.Key_Space)
    driver.drag(bay, QPoint(200, 200), QPoint(230, 180))
    QTest.keyRelease(bay, Qt.Key.Key_Space)
    assert bay.view.map(fan.x.si, fan.y.si) == pytest.approx((before[0] + 30, before[1] - 20), abs=0.5)
    assert driver.window.session.store.undo_label == "", "the fan was not moved"
    driver.ctrl(Qt.Key.Key_0)
    assert bay.zoom.fitted
    assert bay.view.map(fan.x.si, fan.y.si) == pytest.approx(before, abs=0.5)
    wheel(bay, before, -5)
    assert bay.zoom.fitted, "never smaller than fitted"


def test_a_small_view_of_the_board_is_swapped_in_with_its_words(driver):
    driver.click("Fit-up station")
    board = driver.window.stations["Fit-up"].board
    assert board.large == "front"
    room = board.rooms["side"]
    assert room.width() * room.height() < board.rooms["front"].width() * board.rooms["front"].height()
    assert not any(shape.role.startswith("fit.name") for shape in board.scenes["side"].shapes), (
        "small ones carry no words"
    )
    QTest.mouseClick(board, Qt.MouseButton.LeftButton, pos=QPoint(int(room.right()) - 3, int(room.top()) + 3))
    assert board.large == "side"
    words = [shape for shape in board.scenes["side"].shapes if shape.role == "fit.name"]
    assert words
    driver.turn("Gaps")


def test_a_build_dropped_on_the_window_is_opened_and_kept_among_the_last(driver, tmp_path):
    window = driver.window
    path = tmp_path / "dropped.keelroom"
    path.write_bytes(DEMO.read_bytes())
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(tmp_path / "notes.txt")), QUrl.fromLocalFile(str(path))])
    assert dropped(data) == path
    event = QDropEvent(
        QPointF(10, 10), Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
    )
    window.dropEvent(event)
    assert window.session.path == path
    assert window.files.recent()[0] == path
    assert window.menus.recent.actions()[0].text() == "dropped.keelroom"
    last = window.files.last()[0]
    assert (last.title, last.verdict) == (
        window.session.build.brief.title,
        "4 of 6 hold; Hill-climb, full power does not settle",
    )
    path.unlink()
    assert path not in window.files.recent(), "what is gone is not offered"


def test_a_copy_is_written_and_the_work_goes_on_with_the_first_file(driver, tmp_path, monkeypatch):
    session = driver.window.session
    driver.enter("Vehicle mass", "5000")
    monkeypatch.setattr(
        "keelroom.gui.saving.QFileDialog.getSaveFileName", lambda *_: (str(tmp_path / "copy.keelroom"), "")
    )
    driver.window.menus.acts["Save a copy…"].trigger()
    assert load(tmp_path / "copy.keelroom").brief.vehicle.mass.as_typed == "5000"
    assert session.path == DEMO
    assert session.store.dirty


def test_packages_are_copied_renamed_compared_taken_out_and_all_of_it_undone(driver):
    window, session = driver.window, driver.window.session
    driver.ctrl(Qt.Key.Key_K)
    dialog = window.findChild(Packages)
    assert dialog.table.table.item(0, 0).text() == "Twin 12s on the 26 × 17 (active)"
    driver.click("Duplicate")
    assert len(session.build.packages) == 5
    assert session.build.package.name.endswith("(copy)")
    dialog._choose(4)
    driver.enter("Name of the chosen package", "The cheap one")
    assert session.build.packages[4].name == "The cheap one"
    driver.until(lambda: len(dialog.rows.given) > 1)  # the other one's verdict comes from beside the window
    rows = {row[0]: row[1:] for row in dialog.rows.given}
    assert rows["Quarry hill with trailer"] == ("241 °F", "221 °F")
    assert next(pair for what, pair in rows.items() if what.endswith("/ Fan diameter")) == (
        "12 in (catalogue)",
        "15.3 in (assumed)",
    )
    driver.click("Delete")
    assert len(session.build.packages) == 4
    for _ in range(3):
        driver.click("Undo the last step")
    assert not dialog.undo.isEnabled()
    assert [package.id for package in session.build.packages] == ["p1", "p2", "p3", "p4"]
    assert session.build.active == "p1"
    dialog.reject()


def test_the_first_build_comes_to_a_proposal_by_keys_and_refuses_in_place(driver):
    """Engine by keys, a wrong temperature, a core of one's own with a wrong width, a room too small; the next larger
    is picked by a click and taken."""
    window, session = driver.window, driver.window.session
    dialog = FirstBuild(window, session)
    dialog.show()
    assert not dialog.take.isEnabled(), "nothing to start with while it is being looked for"
    for _ in range(2):
        QTest.keyClick(dialog.engine, Qt.Key.Key_Down)
    driver.settle()
    assert dialog.build.brief.engine.name == dialog.engine.currentText()
    assert {case.figures.verdict for case in dialog.proposal.picked.cases} == {"holds"}
    hottest = dialog.hottest.edit

    def retype(field, text):
        field.setFocus()
        field.selectAll()
        QTest.keyClicks(field, text)
        QTest.keyClick(field, Qt.Key.Key_Return)

    retype(hottest, "warm")
    assert "expected a temperature" in dialog.hottest.wrong.text()
    assert not dialog.take.isEnabled()
    retype(hottest, "95")
    driver.settle()
    assert dialog.take.isEnabled()
    retype(dialog.room[0].edit, "9 in")
    driver.settle()
    assert "No core of the catalogue" in dialog.proposal.head.text()
    assert not dialog.take.isEnabled()
    retype(dialog.room[0].edit, "40 in")
    dialog.core.setFocus()
    dialog.core.setCurrentIndex(dialog.core.findText(THERE))
    dialog.answer()
    width = dialog.sizes[0].edit
    assert width.isVisible()
    retype(width, "banana")
    assert "banana" in dialog.size_wrong.text()
    assert width.text() == "banana", "what was typed stays"
    retype(width, "24 3/8")
    driver.settle()
    assert re.search(r"hold", dialog.proposal.stand.text())
    core = dialog.build.package.core
    assert (core.face_width.as_typed, core.fin_density.origin) == ("24 3/8", "assumed")
    proposed = dialog.build.package.fans[0].name
    QTest.mouseClick(dialog.proposal.chips["larger"], Qt.MouseButton.LeftButton)
    assert dialog.build.package.fans[0].name != proposed
    dialog.accept()
    session.start_from(dialog.build)
    assert session.store.dirty, "it is saved nowhere yet"
    assert session.path is None


def test_what_is_printed_is_as_large_as_the_pdf_says(driver, tmp_path):
    """A page of the templates through a printer that writes PDF: the same size to a point, and the same picture."""
    from keelroom.assess.figures.templates import patterns
    from keelroom.export.tiles import write_tiles

    build = driver.window.session.build
    source = tmp_path / "templates.pdf"
    write_tiles(patterns(build, build.package)[:1], source, "A4", 60, "us")
    document = loaded(source)
    printer = printer_for(document, "Templates")
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "printed.pdf"))
    draw(document, printer)
    printed = QPdfDocument(None)
    printed.load(str(tmp_path / "printed.pdf"))
    assert printed.pageCount() == document.pageCount()
    for number in range(document.pageCount()):
        was, now = document.pagePointSize(number), printed.pagePointSize(number)
        assert (now.width(), now.height()) == pytest.approx((was.width(), was.height()), abs=1.0)
    size = document.pagePointSize(0).toSize()
    one, other = (doc.render(0, size) for doc in (document, printed))
    dark = [
        sum(
            image.pixelColor(x, y).lightness() < 128
            for x in range(0, size.width(), 5)
            for y in range(0, size.height(), 5)
        )
        for image in (one, other)
    ]
    assert dark[0] > 20
    assert dark[1] == pytest.approx(dark[0], rel=0.4)


def test_print_opens_a_preview_and_writes_nothing_by_itself(driver):
    seen = []
    driver.answering(lambda dialog: (seen.append(dialog.windowTitle()), dialog.reject()))
    driver.window.menus.acts["Print the survey sheet…"].trigger()
    assert seen == ["Print: Survey sheet"]


def test_the_guide_opens_at_what_one_is_at_and_is_searched(driver):
    driver.click("Electrical station")
    driver.key(Qt.Key.Key_F1)
    guide = driver.window.guide_window
    assert guide.list.currentItem().text() == "Which wire, which fuse?"
    QTest.keyClicks(guide.sought, "climbs light")
    assert guide.list.item(0).text() == "It climbs at lights"
    guide.sought.clear()
    QTest.keyClicks(guide.sought, "zebra")
    assert guide.none.isVisible()
    guide.reject()


def test_the_guide_names_only_what_there_is():
    """Every place it speaks of in bold is a station, a page of one, a menu or one of its acts; every station has its
    topic."""
    named = {station.topic(part) for station in STATIONS for part in station.parts}
    assert named | {station.guide for station in STATIONS} <= {topic.name for topic in topics()}
    pages = {s.name: {*s.parts, *(leaf.title for leaf in s.pages)} for s in STATIONS}
    every_page = set().union(*pages.values())
    source = "".join(path.read_text() for path in (FOLDER.parent / "gui").rglob("*.py"))
    for topic in topics():
        for bold in re.findall(r"\*\*(.+?)\*\*", topic.text):
            first, _, rest = bold.partition(", ")
            if first in pages and rest:
                for name in re.split(r", | and ", rest):
                    assert name in pages[first], (topic.name, bold)
            elif bold in every_page or bold in pages or topic.name in ("words", "how-sure"):
                continue
            else:
                words = rest or first
                assert words in source or words.lower() in source.lower(), (topic.name, bold)
    assert matching("zebra") == ()


def test_preferences_hold_at_once(driver):
    driver.window.menus.acts["Preferences…"].trigger()
    QApplication.processEvents()
    driver.choose("Units", "Millimetres, Celsius")
    assert "°C" in driver.ledger()["Idle, A/C on"]
    driver.choose("Theme", "Dark")
    assert driver.window.palette_now.name == "dark"
    driver.choose("Paper", "Letter")
    assert driver.window.session.settings.paper == "Letter"
    driver.enter("Currency", "$")
    assert driver.window.ledger.totals.money.text() == "Parts $155 · 11 h"
    assert "parts $155" in driver.window.ledger.line.words.text()
    driver.choose("Heat", "BTU/min")
    driver.choose("Volume", "gal")
    assert driver.window.session.system == "si;heat=BTU/min;volume=gal"
    driver.choose("Units", "Inches, Fahrenheit")
    assert "°F" in driver.ledger()["Idle, A/C on"]
    driver.choose("Heat", "As the units have it")
    assert driver.window.session.system == "us;volume=gal"
    driver.click("Close")


def test_a_table_sorts_by_its_figures_shows_what_fits_and_tells_the_rest(driver):
    driver.click("Fit-up station")
    table = driver.window.stations["Fit-up"].views["Gaps"].table
    cells = table.table
    assert cells.isColumnHidden(5)
    assert not cells.isColumnHidden(1)
    assert "±" in table.rest.text()
    scroll = cells.horizontalScrollBar()
    assert scroll.maximum() == 0, "never sideways"
    before = [cells.item(row, 2).text() for row in range(cells.rowCount())]
    table._sort(2)
    rising = [cells.item(row, 2).text() for row in range(cells.rowCount())]
    assert sorted(before) == sorted(rising)
    assert rising[0] == "−2 5/16"
    table._sort(2)
    assert [cells.item(row, 2).text() for row in range(cells.rowCount())][-1] == "−2 5/16"
    last = cells.rowCount() - 1
    driver.pick_row("Clearances", cells.item(last, 0).text())
    assert table.rest.text().startswith(cells.item(last, 0).text())
    assert len(table.as_rows()[0]) == 6, "all columns go out"


@pytest.mark.parametrize(
    ("number", "dialog"),
    [(signal.SIGINT, False), (signal.SIGTERM, True), (signal.SIGHUP, False), (signal.SIGINT, True)],
)
def test_a_signal_leaves_a_copy_of_what_was_not_saved(tmp_path, number, dialog):
    """Ctrl+C, a terminal that is closed, with a file dialog in a loop of its own or without: a copy, and an end in
    good order."""
    script = (
        "import sys, os, signal\n"
        "from PyQt6.QtCore import QTimer\n"
        "from keelroom.gui.app import application, make_window\n"
        "from keelroom.gui.leaving import leave_on_signals\n"
        "from keelroom.document.edits import set_value\n"
        "from pathlib import Path\n"
        "app = application(); window = make_window(Path(sys.argv[1])); leave_on_signals(window); window.show()\n"
        "window.session.set(('brief', 'notes'), 'not saved', 'Notes')\n"
        "from PyQt6.QtWidgets import QApplication, QFileDialog\n"
        "def say():\n"
        "    over = QApplication.activeModalWidget() is not None\n"
        "    (print('up', flush=True) if over == (sys.argv[2] == 'True') else QTimer.singleShot(20, say))\n"
        "plain = QFileDialog.Option.DontUseNativeDialog\n"
        "real = QFileDialog.getSaveFileName\n"
        "QFileDialog.getSaveFileName = lambda *given: real(*given[:5], options=plain)\n"
        "QTimer.singleShot(0, say)\n"
        "if sys.argv[2] == 'True': QTimer.singleShot(50, window.files.save_as)\n"
        "sys.exit(app.exec())\n"
    )
    copy = tmp_path / "van.keelroom"
    copy.write_bytes(DEMO.read_bytes())
    env = os.environ | {"XDG_STATE_HOME": str(tmp_path / "state"), "QT_QPA_PLATFORM": "offscreen"}
    process = subprocess.Popen(
        [sys.executable, "-c", script, str(copy), str(dialog)], env=env, stdout=subprocess.PIPE, text=True
    )
    try:
        assert process.stdout.readline().strip() == "up"
        process.send_signal(number)
        assert process.wait(20) == 0
    finally:
        process.kill()
    kept = list((tmp_path / "state").rglob("*.keelroom"))
    assert any("not saved" in path.read_text() for path in kept)


class Ending:
    """Stands in for the desktop's session manager: says whether one may ask, and keeps what it is told."""

    def __init__(self, may_ask):
        self.may_ask, self.told = may_ask, []

    def allowsInteraction(self):
        return self.may_ask

    def release(self):
        self.told.append("go on")

    def cancel(self):
        self.told.append("stay")


@pytest.mark.parametrize(
    ("may_ask", "answer", "told"), [(True, "Discard", ["go on"]), (True, "Cancel", ["go on", "stay"]), (False, "", [])]
)
def test_the_end_of_the_session_asks_where_it_may_and_keeps_a_copy_either_way(driver, may_ask, answer, told):
    session, manager = driver.window.session, Ending(may_ask)
    end_session(driver.window, manager)
    assert manager.told == [], "nothing is unsaved, nothing is asked"
    driver.enter("Vehicle mass", "5000")
    said = driver.answering(answer) if answer else []
    end_session(driver.window, manager)
    assert manager.told == told
    assert bool(said) is bool(answer)
    if answer != "Discard":
        assert load(session.autosave.path).brief.vehicle.mass.as_typed == "5000"


def test_a_part_is_chosen_in_drawing_list_and_form_at_once(driver):
    """Whichever of them is clicked, the others follow; nothing is edited."""
    window, session = driver.window, driver.window.session
    second = session.build.package.fans[1]
    driver.click("Air station")
    driver.turn("Fans")
    view = window.stations["Air"].views["Fans"]

    def underlined():
        return [section.group.title for section in view.sections if section.head.property("role") == "picked"]

    at = window.bay.view.map(QPointF(second.x.si, second.y.si)).toPoint()
    QTest.mouseClick(window.bay, Qt.MouseButton.LeftButton, pos=at)
    QApplication.processEvents()
    assert underlined() == ["Fan 2"]
    assert view.sections[1].visibleRegion().boundingRect().height() > 100, "scrolled to"
    driver.window.go_to(("packages", session.build.active, "fans", session.build.package.fans[0].id, "diameter"))
    QApplication.processEvents()
    assert underlined() == ["Fan 1"]
    assert session.part[-1] == session.build.package.fans[0].id
    QTest.mouseClick(window.bay, Qt.MouseButton.LeftButton, pos=window.bay.view.map(QPointF(0.3, 0.01)).toPoint())
    assert session.part == ("packages", session.build.active, "core")
    driver.click("Fit-up station")
    driver.pick_row("Clearances", "Fan 2 ring – Horn")
    assert session.part == ("packages", session.build.active, "fans", second.id)
    assert session.store.undo_label == "", "choosing changes nothing"


def test_a_wide_form_has_its_fields_in_two_columns(driver):
    driver.click("Air station")
    driver.turn("Fans")
    first, second = driver.window.stations["Air"].views["Fans"].sections[:2]
    assert first.x() == second.x()
    assert driver.window.drawers.out == "Findings", "which makes room"
    driver.key(Qt.Key.Key_F5, Qt.KeyboardModifier.ShiftModifier)
    assert second.y() == first.y()
    assert second.x() >= first.x() + first.width()
    driver.enter("Fan 2: rated free-air flow", "1700")
    assert driver.window.session.build.package.fans[1].free_air_flow.as_typed == "1700"
    driver.key(Qt.Key.Key_F5, Qt.KeyboardModifier.ShiftModifier)
    assert (second.x(), second.y() > first.y()) == (first.x(), True)


def test_a_part_tells_its_measure_and_offers_its_acts_where_it_is_drawn(driver):
    bay, session = driver.window.bay, driver.window.session
    fan = session.build.package.fans[0]
    at = bay.view.map(QPointF(fan.x.si, fan.y.si))
    assert bay.part_under(at).words == "Fan 1: 12 in, 6 1/2 in from left, 8 1/2 in from bottom"
    core = bay.part_under(bay.view.map(QPointF(0.008, 0.3)))
    assert core.words == "Core: 26 in × 17 in × 2 1/4 in"
    event = QContextMenuEvent(QContextMenuEvent.Reason.Mouse, at.toPoint(), bay.mapToGlobal(at.toPoint()))
    QApplication.sendEvent(bay, event)
    words = {action.text(): action for action in bay.menu.actions()}
    words["Stop it"].trigger()
    assert not session.build.package.fans[0].runs
    assert session.store.undo_label == "Fan 1: stop it"
    session.store.undo()
    words["Take it out"].trigger()
    assert len(session.build.package.fans) == 1
    session.store.undo()
    bay.menu.close()
    QTest.mouseDClick(bay, Qt.MouseButton.LeftButton, pos=at.toPoint())
    QApplication.processEvents()
    assert driver.window.shown_station == "Air"
    focused = driver.window.focusWidget()
    assert focused.accessibleName().endswith("an diameter")


def test_a_neighbour_on_the_board_tells_its_least_gap(driver):
    driver.click("Fit-up station")
    board = driver.window.stations["Fit-up"].board
    horn = next(body for body in board.fit.others if body.name == "Horn")
    at = board.views["front"].map(QPointF(*horn.solid.centre[:2]))
    part = board.part_under(at)
    assert part.name == "Horn"
    assert "2 5/16 in" in part.measure
    event = QContextMenuEvent(QContextMenuEvent.Reason.Mouse, at.toPoint(), board.mapToGlobal(at.toPoint()))
    QApplication.sendEvent(board, event)
    next(action for action in board.menu.actions() if action.text() == "Go to its figures").trigger()
    assert driver.window.shown_station == "Survey"


def test_a_chart_tells_its_values_under_the_pointer(driver):
    """A straight line from (0, 10) to (10, 30): half-way 20."""
    from keelroom.gui.widgets.chart import Chart, ChartPicture, Series

    chart = Chart(driver.window.session, "A line")
    chart.show_picture(ChartPicture(series=(Series("one", (0.0, 10.0), (10.0, 30.0)),), across="flow, CFM"))
    assert chart.told_at(5.0) == ["5 CFM", "one: 20"]
    assert chart.told_at(12.0) == ["12 CFM"], "past its end it says nothing"


def test_enter_goes_on_from_names_and_choices_too(driver):
    driver.click("Survey station")
    driver.window.stations["Survey"].choose("In the way")
    QApplication.processEvents()
    name = driver.enter("Brake unit: name", "Brake servo")
    focused = driver.window.focusWidget()
    assert focused is not name
    assert focused.accessibleName() == "Brake servo: its left side from left"
    box = driver.find("Brake servo: shape")
    box.setFocus()
    QTest.keyClick(box, Qt.Key.Key_Return)
    assert driver.window.focusWidget().accessibleName() == "Brake servo: its left side from left"


def test_what_is_seldom_touched_is_folded_until_it_is_asked_for(driver):
    driver.turn("Engine")
    section = next(
        s for s in driver.window.stations["Brief"].views["Engine"].sections if s.group.title == "Accessories"
    )
    assert section.folded
    assert not any(field.isVisible() for field in section.fields)
    driver.click("Accessories: show or fold away")
    assert section.fields[0].isVisible()
    driver.click("Accessories: show or fold away")
    driver.window.go_to(("brief", "accessories", "ac_idle_power"))
    QApplication.processEvents()
    assert driver.find("A/C compressor at idle").isVisible(), "what is gone to opens"


def test_a_click_on_a_part_points_out_its_least_gap_on_the_board_and_in_the_list(driver):
    driver.click("Fit-up station")
    station = driver.window.stations["Fit-up"]
    board, table = station.board, station.views["Gaps"].table
    brake = next(body for body in board.fit.others if body.name == "Brake unit")
    at = board.views["front"].map(QPointF(*brake.solid.centre[:2])).toPoint()
    QTest.mouseClick(board, Qt.MouseButton.LeftButton, pos=at)
    QApplication.processEvents()
    assert board.marked is not None
    assert table.table.item(table.table.currentRow(), 0).text() == "Left tank – Brake unit"
    assert driver.window.session.store.undo_label == "", "a click moves nothing"


def test_a_field_says_its_range_in_the_units_shown(driver):
    field = driver.find("Vehicle mass")
    assert "more than 0 lb" in field.toolTip()
    assert "66139 lb at most" in field.toolTip()
    driver.ctrl(Qt.Key.Key_U)
    assert "30000 kg at most" in driver.find("Vehicle mass").toolTip()


def test_one_spelling_is_kept():
    """British throughout: words of the other spelling stand in no sentence the program shows."""
    other = re.compile(
        r"\b(colors?|gray|aluminum|centers?|tires?|liters?|fiber|mold(ed|ing)?|odor|neighbors?)\b", re.IGNORECASE
    )
    found = []
    for path in (FOLDER.parent).rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if (
                isinstance(node, ast.Constant)
                and isinstance(node.value, str)
                and " " in node.value
                and other.search(node.value)
                and "{" not in node.value
                and "<font" not in node.value
                and ":" not in node.value
            ):
                found.append((path.name, node.value[:60]))
    found += [(path.name, hit.group()) for path in FOLDER.glob("*.md") if (hit := other.search(path.read_text()))]
    assert not found


def test_from_an_empty_window_to_a_saved_verdict_by_keys_alone(tmp_path, monkeypatch):
    """Ctrl+Shift+N, arrows and Tab through the questions, Enter, Ctrl+S: no mouse."""
    path = tmp_path / "mine.keelroom"
    monkeypatch.setattr("keelroom.gui.files.QFileDialog.getSaveFileName", lambda *_: (str(path), ""))
    driver = opened(DEMO)
    window = driver.window
    begun = time.monotonic()

    def by_keys(dialog):
        for box, steps in ((dialog.vehicle, 3), (dialog.engine, 2)):
            box.setFocus()
            for _ in range(steps):
                QTest.keyClick(box, Qt.Key.Key_Down)
        QTest.keyClick(dialog.engine, Qt.Key.Key_Tab)
        assert dialog.focusWidget() is dialog.gearbox
        driver.until(dialog.take.isEnabled)
        dialog.take.setFocus()
        QTest.keyClick(dialog.take, Qt.Key.Key_Space)

    driver.answering(by_keys)
    driver.ctrl(Qt.Key.Key_N, shift=True)
    assert window.session.path is None
    assert all(case.figures for case in window.session.assessment.cases)
    driver.ctrl(Qt.Key.Key_S)
    assert load(path).brief.title == window.session.build.brief.title
    assert window.files.recent()[0] == path
    assert time.monotonic() - begun < 120
    driver.dispose()


def test_icons_wear_the_themes_ink_and_stand_on_the_acts_one_looks_for(driver):
    menus = driver.window.menus
    assert {
        "New build",
        "Open a build…",
        "Save",
        "Print the build sheet…",
        "Undo",
        "Redo",
        "Preferences…",
        "Guide to this page",
    } <= set(menus.icons)

    def darkest():
        image = menus.acts["Save"].icon().pixmap(16, 16).toImage()
        return [
            image.pixelColor(x, y).lightness()
            for x in range(16)
            for y in range(16)
            if image.pixelColor(x, y).alpha() > 200
        ]

    menus.menus["File"].popup(QPoint(0, 0))
    menus.menus["File"].close()
    light = darkest()
    assert light
    assert max(light) < 90
    driver.key(Qt.Key.Key_F9)
    assert min(darkest()) > 150


def test_no_way_to_another_build_leaves_what_was_not_saved_unasked(driver, monkeypatch):
    """New, demo, recent, close, first build, a file dropped: each asks first, and Cancel keeps what is there."""
    session, window = driver.window.session, driver.window
    driver.enter("Vehicle mass", "5000")
    build = session.build
    window.session.settings.add_recent(str(DEMO))
    ways = [
        window.menus.acts[name].trigger
        for name in ("New build", "Open the demo", "Open a build…", "Close this build", "First build, step by step…")
    ]
    ways += [lambda: window.files.open_recent(DEMO), window.close]
    for way in ways:
        said = driver.answering("Cancel")
        way()
        assert "not saved" in said[0]
        assert session.build is build
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(DEMO))])
    said = driver.answering("Cancel")
    window.dropEvent(
        QDropEvent(
            QPointF(10, 10), Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
        )
    )
    assert said
    assert session.build is build


def test_a_station_is_gone_to_from_the_start_page():
    driver = opened()
    window = driver.window
    assert window.pages.currentWidget() is window.start
    driver.ctrl(Qt.Key.Key_3)
    assert window.pages.currentWidget() is window.work
    driver.until(lambda: window.furnished)
    assert window.shown_station == "Core"
    driver.dispose()


def test_only_a_length_is_read_twice(driver):
    """The lean of the support has no second reading: entering one broke on its unit."""
    driver.click("Survey station")
    driver.window.stations["Survey"].choose("Opening")
    QApplication.processEvents()
    readings = {
        field.spec.kind_name: field
        for field in driver.window.stations["Survey"].views["Opening"].fields()
        if isinstance(field, ReadingField)
    }
    assert {"length", "angle"} <= set(readings)
    assert not readings["length"].again.isHidden()
    assert readings["angle"].again.isHidden()


def test_that_something_runs_interpreted_is_said_once(driver, monkeypatch):
    """With no compiler at set-up: one line in the head, and not again the next day; nothing where all is compiled."""
    from keelroom.gui import app

    heard = []
    driver.window.session.told.connect(heard.append)
    for slow, lines in (("", 0), ("Interpreted, and slower: nearest", 1), ("Interpreted, and slower: nearest", 1)):
        monkeypatch.setattr(app, "why_slow", lambda slow=slow: slow)
        app.say_what_is_slow(driver.window)
        assert len(heard) == lines
    driver.window.session.settings.said_slow = ""


def test_the_first_screen_is_explained_once_and_again_when_asked(driver):
    """Four marks that a press or a key takes away."""
    from keelroom.gui.widgets.first_marks import FirstMarks

    window, settings = driver.window, driver.window.session.settings

    def marks():
        return [one for one in window.findChildren(FirstMarks) if one.isVisible()]

    assert marks() == [], "explained before"
    settings.shown_round = False
    window.enter()
    (shown,) = marks()
    assert "every duty case on one rail" in shown.accessibleDescription()
    assert shown.grab().toImage().pixelColor(shown.width() // 2, 5).isValid()
    QTest.mouseClick(shown, Qt.MouseButton.LeftButton)
    QApplication.processEvents()
    assert marks() == []
    assert settings.shown_round
    window.enter()
    assert marks() == []
    window.menus.acts["Explain the screen"].trigger()
    (again,) = marks()
    QTest.keyClick(again, Qt.Key.Key_Space)
    assert marks() == []


def test_the_ledger_folds_by_itself_where_it_would_leave_no_room(driver):
    window = driver.window
    assert not window.ledger.folded
    window.resize(1024, 600)
    driver.settle()
    assert window.ledger.folded
    window.resize(1280, 800)
    driver.settle()
    assert not window.ledger.folded, "and opens again"
    window.resize(1024, 600)
    driver.settle()
    driver.ctrl(Qt.Key.Key_L)
    assert not window.ledger.folded, "by hand it stays as it was set"


def test_a_shop_begins_from_its_own_template(driver, tmp_path):
    from keelroom.document.file import save

    window = driver.window
    heard = []
    window.session.told.connect(heard.append)
    window.files.start_from_template()
    assert "No template is kept yet" in heard[-1]
    path = tmp_path / "shop.keelroom"
    save(window.session.build, path)
    assert window.files.open(path)
    window.files.keep_template()
    assert window.files.template() == path
    window.files.open_sample("coupe")
    assert window.session.build.brief.title == "Hollow Road coupé: 6.2 swap"
    assert window.session.path is None, "a sample has no file yet"
    window.files.start_from_template()
    assert window.session.path is None, "nor has what begins from the template"
    assert "Larch Lane" in window.session.build.brief.title
    path.unlink()
    assert window.files.template() is None


@pytest.mark.parametrize("name", ["coupe", "rear"])
def test_samples_hold_and_have_no_problem(name):
    found = assess(load(ASSETS / "samples" / f"{name}.keelroom"))
    assert all(case.figures and case.figures.held for case in found.cases)
    assert not [finding.code for finding in found.findings if finding.level == "problem"]


def test_columns_are_resized_put_away_and_remembered(driver):
    from keelroom.gui.widgets.choose_table import ChooseTable

    driver.click("Air station")
    driver.turn("Choose")
    table = driver.window.stations["Air"].views["Choose"]
    cells = table.table
    assert not cells.isColumnHidden(1)
    menu = table.set_by_hand.menu()
    next(action for action in menu.actions() if action.text() == "Rated").trigger()
    assert cells.isColumnHidden(1)
    head = cells.horizontalHeader()
    table.set_by_hand.put("Rated", away=False)
    before = cells.columnWidth(1)
    edge = head.sectionViewportPosition(1) + before - 1
    driver.drag(head.viewport(), QPoint(edge, 8), QPoint(edge + 30, 8))
    assert cells.columnWidth(1) > before + 15
    wide = cells.columnWidth(1)
    again = ChooseTable("Fans", table.columns, lambda row: None, "")
    assert again.set_by_hand.width(1) == wide, "the next window has it so"
    table.set_by_hand.put("Depth", away=True)
    assert ChooseTable("Fans", table.columns, lambda row: None, "").set_by_hand.is_away(2)
    table.set_by_hand.restore()
    assert cells.columnWidth(1) == before
    again.deleteLater()


def test_a_station_s_key_puts_the_cursor_into_its_first_field(driver):
    driver.ctrl(Qt.Key.Key_2)
    assert driver.window.focusWidget().accessibleName() == "Panel opening, width"
    driver.ctrl(Qt.Key.Key_1)
    assert driver.window.focusWidget().accessibleName() == "Title"
