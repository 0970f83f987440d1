"""The Drive station by mouse and keys: a drive read and scrubbed, a schedule changed by hand and typed, packages on one
drive, a recording brought in with faults in it."""

import csv
import json

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QFileDialog, QLabel, QTableWidget

from keelroom import cli
from keelroom.assess.drives.driven import Driven, drive_of
from keelroom.assess.drives.words import at_moment, clock, headline, verdict
from keelroom.assess.outcome import Stopped
from keelroom.core.drive.records import told
from keelroom.document.edits import set_value
from keelroom.document.quantity import quantity
from keelroom.gui.stations.drive.face import FaceAtCursor
from tests.gui.driver import Driver, shown

WRONG = "time,speed\n0,0\n10,20\n20,abc\n30,25\n40,-3\n50,10\n60,0\n"


@pytest.fixture
def driver(demo_window):
    return demo_window


def drives(driver: Driver):
    return driver.window.stations["Drive"].drives


def driving(driver: Driver, part: str = "Run") -> Driver:
    driver.click("Drive station")
    driver.turn(part)
    driver.until(lambda: isinstance(drives(driver).found, Driven) and drives(driver).found.high is not None)
    driver.calm()
    return driver


def said(driver: Driver) -> str:
    return " ".join(w.text() for w in shown(driver.window, QLabel))


def test_what_is_said_is_what_is_worked_out(driver, tmp_path, capsys):
    driving(driver)
    build = driver.window.session.build
    first = build.driving.schedules[0]
    own = drive_of(build, build.package, first)
    for _, words in headline(own, "us"):
        assert driver.shows(words)
    path = tmp_path / "saved.keelroom"
    driver.window.session.save(path)
    assert cli.main(["drive", str(path), "--schedule", first.id, "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["peak_degC"] == pytest.approx(own.says.peak.value, abs=0.01)
    assert told["verdict"] == verdict(own, "us")[1]


def test_the_cursor_goes_by_keys_and_by_hand(driver):
    driving(driver)
    board = driver.window.stations["Drive"].drawing()
    board.setFocus()
    QTest.keyClick(board, Qt.Key.Key_Home)
    assert drives(driver).at == 0.0
    for _ in range(3):
        QTest.keyClick(board, Qt.Key.Key_Right)
    QTest.keyClick(board, Qt.Key.Key_Right, Qt.KeyboardModifier.ControlModifier)
    assert drives(driver).at == 90.0
    QApplication.processEvents()
    for name, words in at_moment(drives(driver).found, 90.0, "us"):
        assert driver.shows(words), name
    laid = board.laid
    middle = board.view().map(QPointF(laid.x(750.0), (laid.foot + laid.top) / 2)).toPoint()
    QTest.mouseClick(board, Qt.MouseButton.LeftButton, pos=middle)
    assert drives(driver).at == pytest.approx(750.0, abs=3.0)
    QTest.keyClick(board, Qt.Key.Key_End)
    assert drives(driver).at == drives(driver).found.lasts
    driver.click("Play the drive")
    driver.until(lambda: 0.0 < drives(driver).at < drives(driver).found.lasts)
    driver.click("Play the drive")


def test_the_ledger_follows_the_cursor(driver):
    driving(driver)
    board = driver.window.stations["Drive"].drawing()
    board.setFocus()
    session, found = driver.window.session, drives(driver).found
    for key, at in ((Qt.Key.Key_Home, 0), (Qt.Key.Key_End, -1)):
        QTest.keyClick(board, key)
        words, outlet = session.moment
        assert outlet == pytest.approx(float(found.run.outlet[at]))
        assert words.startswith("Drive, ")
    driver.click("Air station")
    assert session.moment is None


def test_the_air_over_the_face_follows_the_cursor(driver):
    driving(driver)
    board, face = driver.window.stations["Drive"].drawing(), driver.window.findChild(FaceAtCursor)
    board.setFocus()
    seen = []
    for key in (Qt.Key.Key_Home, Qt.Key.Key_End):
        QTest.keyClick(board, key)
        driver.until(lambda: face.found is not None and not face.worker.busy)
        assert face.words().endswith(f"at {clock(drives(driver).at)}")
        assert driver.shows(face.words())
        seen.append(face.found[0])
    first, last = (float(np.nanmean(shown.speed)) for shown in seen)
    run = drives(driver).found.run
    # More air through the core of the run is more air over its face.
    air = told(run, "air")
    assert (last > first) == (air[-1] > air[0])
    assert abs(last - first) > 0.01 * first
    choice = driver.find("Map at the cursor")
    choice.setFocus()
    QTest.keyClick(choice, Qt.Key.Key_Down)
    assert face.words().split(" at ")[0].endswith("°F")


def test_a_leg_is_dragged_typed_and_undone(driver):
    driving(driver, "Schedule")
    session = driver.window.session
    board = driver.window.stations["Drive"].drawing()
    edge = board.plan.edges[0]
    was = session.build.driving.schedules[0].legs[0].lasts.si
    at = board.view().map(QPointF(edge.x, -0.03)).toPoint()
    left = at - QPoint(120, 0)
    driver.drag(board, at, left)
    now = session.build.driving.schedules[0].legs[0].lasts.si
    assert now < was - 60
    assert now % 30 == 0
    driver.ctrl(Qt.Key.Key_Z)
    assert session.build.driving.schedules[0].legs[0].lasts.si == was
    board.setFocus()
    QTest.keyClick(board, Qt.Key.Key_Right)
    assert session.build.driving.schedules[0].legs[0].lasts.si == was + 30
    driver.enter("At a light: lasts", "40")
    assert session.build.driving.schedules[0].legs[0].lasts.si == 2400.0
    driver.enter("At a light: lasts", "soon")
    assert driver.shows("45 s")  # what was expected stands at the field
    assert session.build.driving.schedules[0].legs[0].lasts.si == 2400.0
    driver.turn("Run")
    driver.until(lambda: isinstance(drives(driver).found, Driven) and drives(driver).found.lasts == 2400.0)


def test_legs_change_places_by_hand_and_by_keys(driver):
    driving(driver, "Schedule")
    session, view = driver.window.session, drives(driver)
    view.choose(next(one.id for one in session.build.driving.schedules if len(one.legs) > 2))
    board = driver.window.stations["Drive"].drawing()

    def order():
        return [leg.id for leg in view.schedule.legs]

    was, edges = order(), board.plan.edges
    inside = [board.view().map(QPointF(edge.x, -0.03)).toPoint() - QPoint(9, 0) for edge in edges]
    driver.drag(board, inside[0], inside[1])
    assert order()[:2] == [was[1], was[0]]
    board.setFocus()
    QTest.keyClick(board, Qt.Key.Key_Left, Qt.KeyboardModifier.ControlModifier)
    assert order() == was
    QTest.keyClick(board, Qt.Key.Key_Left, Qt.KeyboardModifier.ControlModifier)
    assert order() == was  # it is the first already
    driver.ctrl(Qt.Key.Key_Z)
    driver.ctrl(Qt.Key.Key_Z)
    assert order() == was


def test_what_if_can_be_stopped_and_begun_again(driver):
    driving(driver, "What if")
    table = driver.find("One thing other", QTableWidget)
    driver.until(lambda: table.rowCount() > 5)
    driver.window.session.apply(set_value(("brief", "climate", "ambient"), quantity("31 °C", "temperature"), "Day"))
    driver.until(lambda: driver.shows("working it out"))
    driver.click("Stop: one thing other")
    assert driver.shows("Stopped.")
    driver.click("Stop: one thing other")
    driver.until(lambda: driver.shows("chosen on the Run page"))
    assert table.isEnabled()


def test_a_drive_without_time_says_so_where_its_strip_would_be(driver):
    driving(driver, "Schedule")
    driver.enter("At a light: lasts", "0")
    driver.turn("Run")
    driver.until(lambda: isinstance(drives(driver).found, Stopped))
    assert driver.shows("lasts no time at all")
    driver.ctrl(Qt.Key.Key_Z)
    driver.until(lambda: isinstance(drives(driver).found, Driven))


def test_a_failure_is_tried_and_told(driver):
    driving(driver, "Schedule")
    held = drives(driver).found
    driver.choose("At a light: fails from here on", "All fans")
    driver.turn("Run")
    driver.until(lambda: drives(driver).found is not held and isinstance(drives(driver).found, Driven))
    driver.until(lambda: driver.shows("The fans never run."))
    assert drives(driver).found.says.peak.value > held.says.peak.value + 5


def test_packages_drive_alike_and_one_is_taken(driver):
    driving(driver, "Packages")
    table = driver.find("Packages on the same drive", QTableWidget)
    driver.until(lambda: table.rowCount() == len(driver.window.session.build.packages))
    other = next(p for p in driver.window.session.build.packages if p.id != driver.window.session.build.active)
    driver.pick_row("Packages on the same drive", other.name)
    driver.until(lambda: driver.window.session.build.active == other.id)
    driver.ctrl(Qt.Key.Key_Z)
    assert driver.window.session.build.active != other.id


def test_a_recording_with_faults_is_seen_before_it_is_brought_in(driver, tmp_path, monkeypatch):
    driving(driver, "Cycles")
    log = tmp_path / "log.csv"
    log.write_text(WRONG)
    monkeypatch.setattr(QFileDialog, "getOpenFileName", staticmethod(lambda *_: (str(log), "")))
    driver.click("Bring in a recorded drive from a CSV file")
    driver.until(lambda: driver.shows("how it is read"))
    assert driver.shows("Line 4: “abc” is no number for the speed")
    assert driver.shows("Line 6")
    assert driver.window.session.build.driving.traces == ()
    driver.choose("Unit of the speed", "km/h")
    driver.until(lambda: driver.shows("25 km/h"))
    driver.click("Bring the recording in")
    trace = driver.window.session.build.driving.traces[0]
    assert trace.speeds[1] == pytest.approx(20 / 3.6, abs=1e-3)
    driver.click("Drive log")
    driver.turn("Run")
    driver.until(lambda: isinstance(drives(driver).found, Driven) and drives(driver).found.lasts == 60.0)
    wrong = tmp_path / "back.csv"
    wrong.write_text("time,speed\n0,0\n5,1\n4,2\n")
    monkeypatch.setattr(QFileDialog, "getOpenFileName", staticmethod(lambda *_: (str(wrong), "")))
    driver.turn("Cycles")
    driver.click("Bring in a recorded drive from a CSV file")
    driver.until(lambda: driver.shows("Line 4: time runs backwards"))
    driver.click("Leave the file")
    assert len(driver.window.session.build.driving.traces) == 1


def test_a_run_is_kept_and_saved(driver, tmp_path, monkeypatch):
    driving(driver)
    driver.click("Hold this run, to compare")
    assert drives(driver).held is drives(driver).found
    out = tmp_path / "drive.csv"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", staticmethod(lambda *_: (str(out), "CSV (*.csv)")))
    driver.click("Save the drive as CSV")
    rows = list(csv.reader(out.open(encoding="utf-8-sig")))
    assert rows[0][0].startswith("time")
    assert float(rows[-1][0]) == pytest.approx(drives(driver).found.lasts)


def test_a_moment_is_looked_at_as_a_duty_case(driver):
    driving(driver)
    drives(driver).move(300.0)
    driver.click("Look at this moment as a duty case")
    driver.settle()
    case = driver.window.session.build.duty_cases[-1]
    assert case.name == "Idle soak, A/C on, 5 min"
    assert not case.counted
    assert any(name.startswith(case.name) for name in driver.ledger())
    assert driver.window.session.case == case.id


def test_what_stops_a_drive_is_gone_to(driver):
    driving(driver)
    path = ("packages", driver.window.session.build.active, "core", "fin_density")
    driver.window.session.set(path, quantity("0.2 fins/in", "fin density", "measured"), "Fins")
    driver.until(lambda: isinstance(drives(driver).found, Stopped))
    assert driver.shows("louvered fins")
    driver.click("Go to what stops it")
    assert driver.window.shown_station == "Core"
    assert driver.window.stations["Core"].current == "Size"
