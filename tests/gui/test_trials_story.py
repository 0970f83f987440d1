"""The Trials station by mouse and keys: before and after told apart, a broken log mended in its preview, a car pulled
out midway, what trials tell taken in and taken back."""

import numpy as np
import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QFileDialog, QLabel, QPushButton, QTableWidget

from keelroom.assess.trials.judged import Compared
from keelroom.assess.trials.words import compared_words
from keelroom.devices.standin import CarStandIn, Faults, Lines
from keelroom.document.photos import folder_of
from keelroom.document.quantity import quantity
from keelroom.gui.stations.trials.live import RUNNING, end_all
from tests.answering import answering_car
from tests.gui.driver import Driver, opened, shown
from tests.unit.document.test_photos import png

BROKEN = "Zeit;Temp A;Volts\n0;180,5;13,9\n10;abc;13,8\n5;182;13,8\n20;183,1;\n900;184;13,9\n910;184,2;13,9\n"


@pytest.fixture
def driver(demo_window):
    return demo_window


def station(driver: Driver):
    return driver.window.stations["Trials"]


def trials(driver: Driver, part: str = "Logbook") -> Driver:
    driver.click("Trials station")
    driver.turn(part)
    driver.calm()
    QApplication.processEvents()
    return driver


def said(driver: Driver) -> str:
    return " ".join(w.text() for w in shown(driver.window, QLabel))


def logbook(driver: Driver):
    return driver.window.session.build.logbook


def test_before_and_after_are_told_apart(driver):
    trials(driver)
    tries = station(driver).tries
    tries.choose("soak2")
    driver.until(lambda: isinstance(tries.against, Compared))
    before = tries.before(tries.trial)
    words = [text for _, text in compared_words(before, tries.trial, tries.against, "us")]
    driver.until(lambda: all(text in said(driver) for text in words))
    assert any("other revs" in text and "another day" in text for text in words)
    assert tries.against.unlike == ("day", "revs")


def test_a_trial_is_made_typed_and_judged(driver):
    trials(driver, "Protocol")
    driver.choose("Protocol", "Idle soak")
    driver.click("Make a trial: Idle soak")
    assert len(logbook(driver).trials) == 4
    made = logbook(driver).trials[-1]
    driver.turn("Logbook")
    assert "How warm was the day?" in said(driver)
    driver.enter("Trial: day", "warm")
    assert "How warm was the day?" in said(driver)  # nothing was lost, what was expected stands at the field
    driver.enter("Trial: day", "80")
    assert logbook(driver).trials[-1].ambient.si == pytest.approx(26.67, abs=0.01)
    for at, figure in (("5", "185"), ("24", "186")):
        driver.click("Add a reading")
        place = len(logbook(driver).trials[-1].readings)
        driver.enter(f"Reading {place}: reads", figure)
        driver.enter(f"Reading {place}: read after", at)
    driver.enter("Reading 2: reads", "900")
    assert logbook(driver).trials[-1].readings[1].temperature.si == pytest.approx(85.56, abs=0.01)
    driver.until(lambda: "Highest 186 °F" in said(driver))
    assert made.package == logbook(driver).trials[-1].package
    for _ in range(8):
        driver.click("Undo")
    assert len(logbook(driver).trials) == 3


def test_a_broken_log_is_mended_in_the_preview(driver, tmp_path):
    trials(driver, "Log")
    view = station(driver).findChild(_log_view())
    path = tmp_path / "yard.csv"
    path.write_text(BROKEN)
    view.look_at(path)
    driver.until(lambda: view.brought is not None)
    driver.until(lambda: "Line 4: time runs back from 10 s to 5 s" in said(driver) or "is no number" in said(driver))
    was = logbook(driver)
    driver.choose("Temp A: read with", "Upper hose, probe")
    driver.until(lambda: not view.worker.busy)
    driver.choose("Temp A: unit", "°F")
    driver.until(lambda: not view.worker.busy)
    assert "“abc” is no number for Temp A" in said(driver)
    assert "nothing for Volts: it dropped out" in said(driver)
    assert logbook(driver) is was  # nothing in before it was seen
    driver.enter("Seconds its clock is late", "soon")
    assert "is no number of seconds" in said(driver)
    driver.click("Bring the readings in")
    trial = station(driver).tries.trial
    new = [log for log in trial.logs if log.source.startswith("yard")]
    assert {log.sensor for log in new} == {"upper", "volts"}
    assert new[0].values[0] == pytest.approx((180.5 - 32) / 1.8, abs=0.01)


def _log_view():
    from keelroom.gui.stations.trials.log import LogView

    return LogView


def test_a_car_pulled_out_midway_loses_nothing(driver):
    trials(driver, "Log")
    view = station(driver).findChild(_log_view())
    line = np.array([80.0, 95.0])
    car = CarStandIn(
        Lines(np.array([0.0, 60.0]), {"coolant": line, "volts": np.array([14.0, 13.8])}), Faults(noise=0.2)
    )
    driver.click("Start reading live")
    assert "Which port?" in said(driver)
    _port(driver, car.port)
    driver.click("Start reading live")
    driver.until(lambda: view.live.count >= 2, 30)
    car.stop()
    driver.until(lambda: not view.live.running, 30)
    assert "is still here" in said(driver)
    kept = view.live.count
    was = len(station(driver).tries.trial.logs)
    driver.click("Keep what was read live in this trial")
    logs = station(driver).tries.trial.logs
    assert len(logs) > was
    assert max(len(log.seconds) for log in logs if log.source.startswith("live")) <= kept


def test_a_window_closed_while_a_car_is_read_lets_go_of_it(driver):
    trials(driver, "Log")
    view = station(driver).findChild(_log_view())
    car = CarStandIn(Lines(np.array([0.0, 60.0]), {"coolant": np.array([80.0, 95.0])}))
    _port(driver, car.port)
    driver.click("Start reading live")
    driver.until(lambda: view.live.count >= 1, 30)
    assert len(RUNNING) == 1
    end_all()
    driver.until(lambda: not RUNNING and not view.live.running)
    assert view.live.count >= 1
    car.stop()


def _port(driver: Driver, port: str) -> None:
    from PyQt6.QtTest import QTest
    from PyQt6.QtWidgets import QLineEdit

    field = driver.find("Port of the device", QLineEdit)
    QTest.keyClicks(field, port)


def test_what_trials_tell_is_taken_in_and_taken_back(driver):
    trials(driver, "Learn")
    session = driver.window.session
    was = {case.case_id: case.figures for case in session.assessment.cases}
    driver.click("Work out what the trials tell")
    driver.until(
        lambda: "predicted again" in said(driver) and not station(driver).findChild(_learn_view()).worker.busy, 90
    )
    session.set(("brief", "vehicle", "mass"), quantity("5100 lb", "mass"), "Mass")
    driver.until(lambda: "Something has changed since" in said(driver))
    assert not driver.find("Take in what the trials tell").isEnabled(), "it was learnt of another car"
    driver.ctrl(Qt.Key.Key_Z)
    driver.until(lambda: driver.find("Take in what the trials tell").isEnabled())
    driver.click("Take in what the trials tell")
    assert session.build.calibration.on
    assert "calibrated by 3 trials" in said(driver)
    now = {case.case_id: case.figures for case in session.assessment.cases}
    assert now["cruise"].high - now["cruise"].low < was["cruise"].high - was["cruise"].low
    driver.click("Go by the entries alone")
    assert session.assessment.cases[2].figures == was["cruise"] or (
        session.assessment.cases[2].figures.temperature == pytest.approx(was["cruise"].temperature)
    )
    driver.ctrl(Qt.Key.Key_Z)
    driver.ctrl(Qt.Key.Key_Z)
    assert not session.build.calibration.factors


def _learn_view():
    from keelroom.gui.stations.trials.learn import LearnView

    return LearnView


def test_a_next_reading_becomes_a_trial(driver):
    trials(driver, "Next")
    table = driver.find("What should be read next", QTableWidget)
    driver.until(lambda: table.rowCount() > 5, 60)
    driver.pick_row("What should be read next", "± ")
    driver.until(lambda: len(logbook(driver).trials) == 4)


def test_the_clock_of_a_test_runs(driver):
    trials(driver, "Protocol")
    driver.click("Clock of the test", QPushButton)
    driver.until(lambda: "0:01" in said(driver))
    driver.click("Clock of the test", QPushButton)
    assert "0:00" in said(driver)


def test_readings_are_taken_at_the_bench(driver):
    """A test made, laid out and read one figure at a time; what is typed wrong stays and says what was expected."""
    trials(driver, "Protocol")
    driver.choose("Protocol", "Volts and amps under load")
    driver.click("Read it at the bench")
    bench = driver.find("Bench mode")
    driver.until(bench.isVisible)
    made = logbook(driver).trials[-1]
    assert made.protocol == "volts"
    assert len(made.readings) == len(bench.readings) == 8
    assert bench.section.text().startswith("Volts and amps under load, at 0 min")
    assert "Voltmeter" in bench.prompt.text()
    QTest.keyClicks(bench, "900")
    QTest.keyClick(bench, Qt.Key.Key_Return)
    assert bench.at == 0, "a wrong entry stays"
    for _ in range(3):
        QTest.keyClick(bench, Qt.Key.Key_Backspace)
    QTest.keyClicks(bench, "13.2")
    QTest.keyClick(bench, Qt.Key.Key_Return)
    assert bench.at == 1
    assert logbook(driver).trials[-1].readings[0].voltage.si == pytest.approx(13.2)
    driver.click("Leave bench mode")
    assert driver.window.shown_station == "Trials"
    driver.turn("Protocol")
    driver.click("Read it at the bench")
    assert bench.at == 1, "it goes on where it was left"
    driver.click("Leave bench mode")


def test_the_marks_of_a_face_come_to_a_flow(driver):
    trials(driver, "Protocol")
    driver.choose("Protocol", "Fan airflow by hand anemometer")
    driver.click("Make a trial: Fan airflow by hand anemometer")
    driver.turn("Logbook")
    driver.enter("Trial: day", "84")
    driver.click("Lay out the marks")
    count = len(logbook(driver).trials[-1].readings)
    assert count == 25
    driver.key(Qt.Key.Key_F8)
    bench = driver.find("Bench mode")
    driver.until(bench.isVisible)
    for _ in range(count):
        QTest.keyClicks(bench, "480")
        QTest.keyClick(bench, Qt.Key.Key_Return)
    assert bench.walked.drawn(bench.path, "") is not None
    driver.click("Leave bench mode")
    driver.click("Take the flow of the marks")
    flow = logbook(driver).trials[-1].readings[-1]
    # 480 ft/min over 442 in2 are 1 473 CFM before the core, more behind it, where it is warmer and thinner.
    before = 480 * 442.0 / 144 * 4.719474e-4
    assert 1.05 * before < flow.airflow.si < 1.2 * before
    driver.until(lambda: "read" in said(driver))


def test_a_photo_is_kept_beside_the_build_and_missed(driver, tmp_path, monkeypatch):
    trials(driver)
    source = png(tmp_path / "yard.png")
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(source), ""))
    driver.click("Add a photo…")
    tries = station(driver).tries
    assert [one.file for one in tries.trial.photos] == ["yard.png"]
    kept = folder_of(driver.window.session.path) / "yard.png"
    assert kept.read_bytes() == source.read_bytes()
    kept.unlink()
    driver.window.session.changed.emit()
    driver.until(lambda: "It is not where it was" in said(driver))
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(tmp_path / "nothing.png"), ""))
    driver.click("Add a photo…")
    assert "cannot be read" in driver.window.header.words.text()
    assert len(tries.trial.photos) == 1


def test_a_car_is_read_over_its_bus(driver):
    trials(driver, "Log")
    view = station(driver).findChild(_log_view())
    driver.choose("What is read live", "Car, over its CAN bus directly")
    _port(driver, "nonsense")
    driver.click("Start reading live")
    driver.until(lambda: "an interface and a channel were expected" in said(driver))
    with answering_car("yard"):
        driver.find("Port of the device").clear()
        _port(driver, "virtual yard")
        driver.click("Start reading live")
        driver.until(lambda: view.live.count >= 2, 30)
        driver.click("Stop reading live")
        driver.until(lambda: not view.live.running, 30)
    assert view.live.values["coolant"][0] == 83.0
    driver.click("Keep what was read live in this trial")
    assert any(log.source == "live, coolant" for log in station(driver).tries.trial.logs)


def test_columns_are_remembered_for_another_day(driver, tmp_path):
    path = tmp_path / "odd.csv"
    path.write_text("clock,A1,A2\n0,180,13.9\n10,181,13.8\n20,182,13.8\n")
    trials(driver, "Log")
    view = station(driver).findChild(_log_view())
    view.look_at(path)
    driver.until(lambda: view.brought is not None)
    driver.choose("A1: read with", "Upper hose, probe")
    driver.until(lambda: not view.worker.busy)
    driver.choose("A1: unit", "°F")
    driver.until(lambda: not view.worker.busy)
    lines = view.brought.how.lines
    driver.click("Bring the readings in")
    other = opened(tmp_path / "demo.keelroom")
    try:
        trials(other, "Log")
        fresh = station(other).findChild(_log_view())
        fresh.look_at(path)
        other.until(lambda: fresh.brought is not None)
        assert fresh.brought.how.lines == lines
    finally:
        other.dispose()


def test_a_late_clock_is_told_and_set_by_a_press(driver, tmp_path):
    trials(driver, "Log")
    station(driver).tries.choose("soak1")
    log = station(driver).tries.trial.logs[0]
    rows = [f"{at - 60:.1f},{value:.2f}" for at, value in zip(log.seconds, log.values, strict=True) if at >= 60]
    path = tmp_path / "late.csv"
    path.write_text("\n".join(["time (s),coolant °C", *rows]))
    view = station(driver).findChild(_log_view())
    view.look_at(path)
    driver.until(lambda: view.brought is not None)
    assert "Its clock seems 60 s late" in said(driver)
    driver.click("Set its clock")
    driver.until(lambda: not view.worker.busy)
    assert view.brought.how.offset == 60.0
    assert "Its clock seems" not in said(driver)
