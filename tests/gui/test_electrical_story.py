"""A two-fan build wired as somebody left it: entered, judged, mended step by step by clicks and keys; and what the
station refuses."""

import csv
import json
import math

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QCheckBox, QLabel, QLineEdit, QPushButton, QTableWidget, QWidget

from keelroom import cli
from keelroom.document.file import load
from keelroom.gui.widgets.scene_view import SceneView
from tests.gui.driver import Driver, opened
from tests.gui.test_story import describe
from tests.told import what_of

RUNS = ("feed", "to the motor", "return")


def station(driver: Driver, page: str = "Circuits") -> None:
    driver.click("Electrical station")
    driver.turn(page)
    driver.settle()


def on_page(driver: Driver, name: str, kind: type[QWidget] = QWidget) -> QWidget:
    """The control of that name on the shown page, scrolled into sight."""
    page = driver.window.stations["Electrical"].stack.currentWidget()
    if not any(w.accessibleName() == name and w.isVisibleTo(page) for w in page.findChildren(kind)):
        driver.unfold(name)
    found = next(w for w in page.findChildren(kind) if w.accessibleName() == name)
    page.ensureWidgetVisible(found)
    QApplication.processEvents()
    return found


def enter(driver: Driver, name: str, text: str) -> QLineEdit:
    field = on_page(driver, name, QLineEdit)
    QTest.mouseClick(field, Qt.MouseButton.LeftButton)
    QTest.keyClick(field, Qt.Key.Key_A, Qt.KeyboardModifier.ControlModifier)
    QTest.keyClicks(field, text)
    QTest.keyClick(field, Qt.Key.Key_Return)
    QApplication.processEvents()
    return field


def tick(driver: Driver, name: str) -> None:
    box = on_page(driver, name, QCheckBox)
    QTest.mouseClick(box, Qt.MouseButton.LeftButton, pos=QPoint(10, box.height() // 2))
    QApplication.processEvents()


def choose(driver: Driver, name: str, words: str) -> None:
    on_page(driver, name)
    driver.choose(name, words)


def finding(driver: Driver, start: str) -> bool:
    """Whether the findings panel shows one that begins so."""
    return any(what_of(f).startswith(start) for f in driver.window.session.assessment.findings) and any(
        start in label.text() for label in driver.window.drawers.panels["Findings"].findChildren(QLabel)
    )


def fix(driver: Driver, label: str) -> None:
    """Press a fix in the findings panel."""
    driver.mend(label)


def idle(driver: Driver) -> tuple[float, float, float]:
    """Idle temperature, volts at the battery, volts at the first fan's motor."""
    f = driver.window.session.assessment.cases[0].figures
    return f.temperature, f.system_voltage, f.fans[0].voltage


ENTERED: list[bytes] = []
"""the build the clicks below made, so that they are made once"""


@pytest.fixture
def wired(tmp_path, capsys):
    """A pickup with two 12s, both on one circuit of 14 AWG, a 40 A fuse and a 30 A relay, entered as found by clicks
    and keys."""
    path = tmp_path / "pickup.keelroom"
    if ENTERED:
        path.write_bytes(ENTERED[0])
    else:
        assert cli.main(["new", str(path)]) == 0
    driver = opened(path)
    if ENTERED:
        station(driver)
    else:
        enter_as_found(driver)
        driver.ctrl(Qt.Key.Key_S)
        ENTERED.append(path.read_bytes())
    yield driver, path
    driver.dispose()


def enter_as_found(driver: Driver) -> None:
    """The pickup by clicks and keys, from a new build."""
    describe(driver)
    driver.turn("Limits")
    driver.enter("Hottest day", "118")
    driver.click("Core station")
    driver.pick_row("Cores", "Crossflow 26 × 17, 1 row plastic-tank")
    driver.click("Air station")
    driver.pick_row("Fans", "Twin 12 in straight-blade")
    station(driver)
    assert driver.shows("No circuit yet")
    driver.click("Add a circuit")
    driver.settle()
    for fan in ("Fan 1", "Fan 2"):
        tick(driver, f"Circuit 1: {fan[0].lower()}{fan[1:]}")
    enter(driver, "Circuit 1: fuse", "40")
    enter(driver, "Circuit 1: relay or controller, each", "30 A")
    for run in RUNS:
        enter(driver, f"Circuit 1, {run}: size", "14")
    enter(driver, "Circuit 1, feed: length, one way", "6 ft")
    tick(driver, "Circuit 1: one ground wire for all its motors")
    driver.settle()


def test_found_judged_and_mended_step_by_step(wired, tmp_path, monkeypatch, capsys):
    driver, path = wired
    session = driver.window.session
    circuit = session.build.package.circuits[0]
    assert circuit.feeds == ("fan1", "fan2")
    assert circuit.feed.size.as_typed == "14 AWG"
    assert circuit.feed.length.si == pytest.approx(1.8288)

    # the A/C asks for the fans, so that they run all the time it stands
    driver.turn("Control")
    tick(driver, "A/C asks for the fans")
    driver.turn("Circuits")

    # judged: the reason and the fix beside each
    as_found = idle(driver)
    for what in (
        "Circuit 1: the fuse does not protect",
        "Circuit 1: a 40 A fuse ahead of a 30 A relay",
        "Circuit 1: the relay is too small",
        "Circuit 1: 1.",
    ):
        assert finding(driver, what), what
    assert driver.shows("V at the motor at idle")
    assert driver.window.tape.marks["Electrical"].state.word == "problems"
    assert "short" in driver.find("Idle:", QPushButton).text()
    assert f"{as_found[1]:.1f} V" in driver.find("Idle:", QPushButton).text()

    # one: a 30 A fuse protects the relay again, but not the wire
    enter(driver, "Circuit 1: fuse", "30")
    assert not finding(driver, "Circuit 1: a 40 A fuse")
    assert finding(driver, "Circuit 1: the fuse is too small to run on")

    # two: a relay for each motor
    choose(driver, "Circuit 1: switched by", "One relay per motor")
    assert not finding(driver, "Circuit 1: the relay is too small")

    # three: thicker wire; the idle temperature falls as it is entered
    temperatures = [idle(driver)[0]]
    for size in ("12", "10 AWG", "8"):
        for run in RUNS:
            enter(driver, f"Circuit 1, {run}: size", size)
        temperatures.append(idle(driver)[0])
    assert temperatures == sorted(temperatures, reverse=True)

    # four: the tool does the rest, each motor its own circuit
    enter(driver, "Circuit 1: fuse", "40")
    for run in RUNS:
        enter(driver, f"Circuit 1, {run}: size", "12")
    assert finding(driver, "Circuit 1: the fuse does not protect")
    fix(driver, "A circuit of its own for each motor")
    assert [one.feeds for one in session.build.package.circuits] == [("fan1",), ("fan2",)]
    assert not [
        what_of(f) for f in session.assessment.findings if f.where[2:3] == ("circuits",) and f.level == "problem"
    ]
    mended = idle(driver)
    assert mended[0] < as_found[0] - 0.4
    assert mended[2] > as_found[2] + 0.4

    # five: the alternator
    assert finding(driver, "The alternator cannot feed")
    fix(driver, next(f.fix[0].label for f in session.assessment.findings if f.code == "alternator_short"))
    assert not finding(driver, "The alternator cannot feed")
    charged = idle(driver)
    assert charged[1] > mended[1] + 0.3
    assert charged[0] < mended[0]

    # lists and drawing go out, and what was saved says the same on the command line
    driver.turn("Harness")
    driver.settle()
    table = driver.find("Wires", QTableWidget)
    assert table.rowCount() >= 8
    monkeypatch.setattr("keelroom.gui.saving.QFileDialog.getSaveFileName", lambda *_: (str(tmp_path / "h.csv"), ""))
    driver.click("All lists as CSV…")
    rows = list(csv.reader((tmp_path / "h.csv").open(encoding="utf-8-sig")))
    assert {"Wires", "Parts", "Joints", "Loom", "Jumper"} <= {row[0] for row in rows if len(row) == 1}
    monkeypatch.setattr("keelroom.gui.saving.QFileDialog.getSaveFileName", lambda *_: (str(tmp_path / "w.svg"), ""))
    driver.click("Drawing as SVG…")
    assert "wire.red" in (tmp_path / "w.svg").read_text()
    driver.ctrl(Qt.Key.Key_S)
    assert load(path).package.circuits == session.build.package.circuits
    capsys.readouterr()
    assert cli.main(["assess", "--json", str(path)]) in (0, 1)
    said = json.loads(capsys.readouterr().out)
    assert said["cases"][0]["temperature_degC"] == pytest.approx(charged[0], abs=1e-3)
    assert said["cases"][0]["system_voltage_V"] == pytest.approx(charged[1], abs=1e-6)
    assert said["electrics"]["circuits"][0]["motor_at_idle_V"] == pytest.approx(charged[2], abs=1e-6)

    # and all of it comes back, step by step, by name
    labels = []
    while session.store.undo_label:
        labels.append(session.store.undo_label)
        driver.ctrl(Qt.Key.Key_Z)
        assert len(labels) < 80
    assert not session.build.package.circuits
    assert {"Fuse 40", "A circuit of its own for each motor"} <= set(labels)


@pytest.mark.parametrize(
    ("name", "text", "said"),
    [
        ("Circuit 1, feed: size", "7.5 AWG", "8 AWG and 6 AWG"),
        ("Circuit 1, feed: size", "10", "write 10 AWG or 10 mm²"),
        ("Circuit 1, feed: size", "thick", "12 AWG or 2.5 mm²"),
        ("Circuit 1, feed: length, one way", "-3 ft", "must be at least"),
        ("Circuit 1, feed: length, one way", "3/0", "over zero"),
        ("Circuit 1: fuse", "0 A", "must be more than 0"),
        ("Circuit 1: measured drop, there and back", "-1 V", "must be at least"),
        ("Circuit 1, feed: loaded wires in its bundle", "2.5", "whole number"),
    ],
)
def test_a_wrong_entry_stays_says_what_was_expected_and_loses_nothing(wired, name, text, said):
    driver, _ = wired
    before = driver.window.session.build
    field = enter(driver, name, text)
    assert field.text() == text
    assert driver.shows(said)
    assert driver.window.session.build is before
    QTest.keyClick(field, Qt.Key.Key_Escape)
    assert field.text() != text


def test_undo_is_the_windows_once_a_value_is_entered_and_the_fields_while_it_is_typed(wired):
    driver, _ = wired
    session = driver.window.session
    before = session.build
    field = enter(driver, "Circuit 1: fuse", "25")
    assert session.build.package.circuits[0].fuse.si == 25
    field.setFocus()
    driver.ctrl(Qt.Key.Key_Z)
    assert session.build == before
    assert field.text() == "40"
    driver.ctrl(Qt.Key.Key_Z, shift=True)
    assert session.build.package.circuits[0].fuse.si == 25
    QTest.keyClick(field, Qt.Key.Key_A, Qt.KeyboardModifier.ControlModifier)
    QTest.keyClicks(field, "7")
    entered = session.build
    driver.ctrl(Qt.Key.Key_Z)
    assert field.text() == "25"
    assert session.build is entered


def test_an_odd_fuse_offers_its_neighbour_where_that_does(wired):
    """Neither 30 nor 35 A stands this start ahead of this wire: all of it as advised. Then one amp off, the size it
    was."""
    driver, _ = wired
    enter(driver, "Circuit 1: fuse", "32")
    assert driver.shows("Circuit 1: no 32 A fuse is made in this form")
    assert all(not act.label.startswith("A 3") for act in odd_fuse(driver).fix)
    fix(driver, "Wire, fuse and relay as advised")
    made = driver.window.session.build.package.circuits[0].fuse.si
    assert odd_fuse(driver) is None
    enter(driver, "Circuit 1: fuse", f"{made + 1:g}")
    fix(driver, f"A {made:g} A fuse")
    assert driver.window.session.build.package.circuits[0].fuse.si == made


def odd_fuse(driver):
    found = driver.window.session.assessment.findings
    return next((finding for finding in found if finding.code == "fuse_size"), None)


def test_unlike_sources_no_way_back_and_no_sensor_say_so_at_their_place(wired):
    driver, _ = wired
    session = driver.window.session
    driver.click("Add a source")
    driver.settle()
    page = driver.window.stations["Electrical"].stack.currentWidget()
    volts = page.field_at(("supply", "sources", session.build.supply.sources[-1].id, "voltage")).edit
    page.ensureWidgetVisible(volts)
    QTest.mouseClick(volts, Qt.MouseButton.LeftButton)
    for text, kept in (("0 V", 12.0), ("24 V", 24.0)):
        QTest.keyClick(volts, Qt.Key.Key_A, Qt.KeyboardModifier.ControlModifier)
        QTest.keyClicks(volts, text)
        QTest.keyClick(volts, Qt.Key.Key_Return)
        QApplication.processEvents()
        assert session.build.supply.sources[-1].voltage.si == kept
    tick(driver, "Circuit 1: another source, 24 V")
    assert driver.shows("Circuit 1: sources of different voltage are tied together")
    assert driver.shows("Nothing flows")
    tick(driver, "Circuit 1: another source, 24 V")
    tick(driver, "Circuit 1: alternator post, 12 V")
    assert not driver.shows("sources of different voltage")  # battery and alternator belong together
    choose(driver, "Circuit 1: ground", "None")
    assert driver.shows("Circuit 1: no way back")
    choose(driver, "Circuit 1: ground", "Chassis")
    assert not driver.shows("Circuit 1: no way back")
    driver.turn("Control")
    driver.choose("Sensor", "None")
    assert driver.shows("The controller has no sensor")
    assert session.assessment.cases[0].figures.fan_command == 0.0


def test_schools_are_compared_and_one_is_taken_over(demo_window):
    driver = demo_window
    session = driver.window.session
    station(driver, "Schools")
    driver.until(lambda: driver.find("Schools of control", QTableWidget).rowCount() == 9)
    driver.settle()
    assert driver.shows("Default here: two speeds, staged")
    board = driver.find("Schools of control, drawn", SceneView)
    assert board.scene is not None
    before = session.build
    driver.pick_row("Schools of control", "Adjustable, probe in the fins")
    driver.settle()
    assert session.build.package.control.sensor == "fins"
    assert session.build.package.control.strategy == "adjustable"
    driver.ctrl(Qt.Key.Key_Z)
    assert session.build == before


def test_control_shows_what_its_strategy_asks_for(demo_window):
    driver = demo_window
    station(driver, "Control")
    assert driver.shows("cut 1 in out of the hose")
    driver.choose("Who decides", "Variable, soft start")
    curve = driver.find("Speed over temperature", QLineEdit)
    QTest.mouseClick(curve, Qt.MouseButton.LeftButton)
    QTest.keyClicks(curve, "180 @ 30; 200")
    QTest.keyClick(curve, Qt.Key.Key_Return)
    assert driver.shows("is not a pair")
    QTest.keyClicks(curve, " @ 100")
    QTest.keyClick(curve, Qt.Key.Key_Return)
    assert [point.share.si for point in driver.window.session.build.package.control.curve] == [0.3, 1.0]
    assert "180 °F @ 30 %" in curve.text()
    driver.choose("Who decides", "Two speeds, staged")
    assert driver.find("Second speed on", QLineEdit).isVisible()
    driver.choose("Who decides", "Toggle in the cab")
    assert driver.find("Toggle is on", QCheckBox).isVisible()
    assert not any(w.accessibleName() == "Sensor" and w.isVisible() for w in driver.window.findChildren(QWidget))


def test_charging_takes_an_alternator_curve_and_shows_the_balance(demo_window):
    driver = demo_window
    station(driver, "Charging")
    session = driver.window.session
    before = idle(driver)[1]
    assert driver.shows("The pulley over-speeds the alternator")
    curve = on_page(driver, "Output cold", QLineEdit)
    QTest.mouseClick(curve, Qt.MouseButton.LeftButton)
    QTest.keyClicks(curve, "1500 @ 60; 2500 @ 110; 6000 @ 140")
    QTest.keyClick(curve, Qt.Key.Key_Return)
    QApplication.processEvents()
    assert [point.current.si for point in session.build.supply.curve] == [60, 110, 140]
    assert idle(driver)[1] > before
    board = driver.find("Charging balance", SceneView)
    assert any("at the worst motor" in getattr(shape, "text", "") for shape in board.scene.shapes)
    driver.click("Add a load")
    driver.settle()
    assert session.build.supply.loads[-1].name == "Another load"


def test_plan_what_is_missing_and_going_to_a_circuit_from_a_finding(demo_window):
    driver = demo_window
    session = driver.window.session
    session.set(("packages", "p1", "circuits"), (), "None")
    station(driver)
    assert driver.find("Wiring drawing", SceneView).scene is None
    driver.click("Plan what is missing")
    assert len(session.build.package.circuits) == 3
    assert driver.find("Wiring drawing", SceneView).scene is not None
    driver.click("Plan what is missing")
    assert len(session.build.package.circuits) == 3
    driver.click("Brief station")
    session.asked_for.emit(("packages", "p1", "circuits", "circuit2", "fuse"))
    driver.settle()
    assert driver.window.tape.marks["Electrical"].isChecked()
    assert driver.window.stations["Electrical"].current == "Circuits"
    session.asked_for.emit(("packages", "p1", "control", "spun"))
    assert driver.window.stations["Electrical"].current == "Test"
    tick(driver, "Fan 2 blows the right way")
    assert session.build.package.control.spun == ("fan1", "fan2")
    session.asked_for.emit(("supply", "pulley_ratio"))
    assert driver.window.stations["Electrical"].current == "Charging"


def test_the_drawing_scrolls_where_it_is_taller_than_its_room(demo_window):
    driver = demo_window
    station(driver)
    board = driver.find("Wiring drawing", SceneView)
    driver.window.resize(1280, 640)
    QApplication.processEvents()
    top = board.view().dy()
    board.setFocus()
    QTest.keyClick(board, Qt.Key.Key_PageDown)
    QApplication.processEvents()
    assert board.view().dy() < top
    for _ in range(20):
        QTest.keyClick(board, Qt.Key.Key_PageDown)
    bottom = board.view().map(0.0, board.scene.bounds[1])[1]
    assert bottom >= board.height() - 60
    assert math.isfinite(bottom)
