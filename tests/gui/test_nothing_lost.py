"""Nothing is lost in ordinary use: the demo, other windows, full disks, killed windows, drags. Dialogs run their own
event loop."""

import os
from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QFileDialog, QLineEdit, QPushButton

from keelroom import ASSETS
from keelroom.assess.defaults import new_build
from keelroom.document import writing
from keelroom.document.autosave import Autosave, Origin
from keelroom.document.edits import apply, set_value
from keelroom.document.file import digest, load, save
from keelroom.document.quantity import quantity
from tests.conftest import DEMO
from tests.gui.driver import opened

MASS = ("brief", "vehicle", "mass")


def heavier(build, pounds):
    return apply(build, set_value(MASS, quantity(f"{pounds} lb", "mass", "measured"), ""))


def mass(path):
    return load(path).brief.vehicle.mass.as_typed


def to_file(path):
    """Types a name into the file dialog and accepts it."""

    def act(dialog):
        assert isinstance(dialog, QFileDialog)
        box = dialog.findChild(QLineEdit)
        box.selectAll()
        QTest.keyClicks(box, str(path))
        accept = next(b for b in dialog.findChildren(QPushButton) if b.text() in ("&Save", "&Open"))
        QTest.mouseClick(accept, Qt.MouseButton.LeftButton)

    return act


@pytest.fixture
def state(tmp_path, monkeypatch):
    """A state folder of this test's own."""
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "state"))
    return tmp_path / "state/keelroom"


@pytest.fixture(autouse=True)
def own_dialogs(monkeypatch):
    """The system's file dialogs cannot be driven: Qt's own stands in for them, in its own event loop all the same."""
    plain = QFileDialog.Option.DontUseNativeDialog
    asked_by_us = QFileDialog.Option.DontConfirmOverwrite
    for name in ("getSaveFileName", "getOpenFileName"):
        real = getattr(QFileDialog, name)
        monkeypatch.setattr(QFileDialog, name, lambda *given, real=real: real(*given[:5], options=plain | asked_by_us))


def test_the_demo_is_an_unsaved_copy(tmp_path, state):
    before = (ASSETS / "demo.keelroom").read_bytes()
    driver = opened(ASSETS / "demo.keelroom", as_copy=True)
    assert driver.window.session.path is None
    assert "not saved yet" in driver.window.windowTitle()
    driver.enter("Vehicle mass", "5001")
    target = tmp_path / "mine.keelroom"
    driver.answering(to_file(target))
    driver.ctrl(Qt.Key.Key_S)
    assert mass(target) == "5001"
    assert (ASSETS / "demo.keelroom").read_bytes() == before

    # what the window holds by now is a build like any other: closing it asks
    driver.enter("Vehicle mass", "5002")
    said = driver.answering("Cancel")
    driver.window.close()
    assert driver.window.isVisible()
    assert "not saved" in said[0]
    driver.answering("Save")
    driver.window.close()
    assert not driver.window.isVisible()
    assert mass(target) == "5002"
    assert not list(state.glob("recovery-*"))


def test_edit_and_undo_asks_nothing(demo_window):
    driver = demo_window
    driver.enter("Vehicle mass", "5001")
    assert "(changed)" in driver.window.windowTitle()
    driver.ctrl(Qt.Key.Key_Z)
    assert "(changed)" not in driver.window.windowTitle()
    driver.window.close()
    assert not driver.window.isVisible()


def test_a_drag_over_both_axes_and_a_nudge_come_back_whole(demo_window):
    driver = demo_window
    bay, session = driver.window.bay, driver.window.session
    before = session.build
    fan = before.package.fans[0]
    start = bay.view.map(float(fan.x.si), float(fan.y.si))
    at = QPoint(round(start[0]), round(start[1]))
    QTest.mousePress(bay, Qt.MouseButton.LeftButton, pos=at)
    for step in (QPoint(14, 0), QPoint(26, 0), QPoint(26, -9), QPoint(26, -17)):  # right, then up
        QTest.mouseMove(bay, at + step)
    QTest.mouseRelease(bay, Qt.MouseButton.LeftButton, pos=at + QPoint(26, -17))
    moved = session.build.package.fans[0]
    assert moved.x.si != fan.x.si
    assert moved.y.si != fan.y.si
    assert len(session.store.trail) == 1
    QTest.keyClick(bay.handles[fan.id], Qt.Key.Key_Right)
    QTest.keyClick(bay.handles[fan.id], Qt.Key.Key_Up)
    assert len(session.store.trail) == 2
    driver.ctrl(Qt.Key.Key_Z)
    assert session.build.package.fans[0] == moved
    driver.ctrl(Qt.Key.Key_Z)
    assert session.build == before


def test_what_is_dragged_may_vanish_under_the_hand(demo_window):
    """Undone, emptied or removed in mid-drag: the drag ends, and nothing fails."""
    driver = demo_window
    bay, session = driver.window.bay, driver.window.session
    failures = []
    session.told.connect(failures.append)
    for path, value in (((*("packages", "p1"), "core", "face_width"), None), (("packages", "p1", "fans"), ())):
        fan = session.build.package.fans[0]
        start = bay.view.map(float(fan.x.si), float(fan.y.si))
        at = QPoint(round(start[0]), round(start[1]))
        QTest.mousePress(bay, Qt.MouseButton.LeftButton, pos=at)
        QTest.mouseMove(bay, at + QPoint(9, 5))
        session.set(path, value, "Meanwhile")
        QTest.mouseMove(bay, at + QPoint(19, 9))
        QTest.mouseRelease(bay, Qt.MouseButton.LeftButton, pos=at + QPoint(19, 9))
        assert bay.drag is None
        session.store.undo()
    assert not [text for text in failures if "went wrong" in text]


def test_a_file_changed_by_another_window_is_not_replaced_unasked(tmp_path, state):
    van = tmp_path / "van.keelroom"
    van.write_bytes(DEMO.read_bytes())
    one, two = opened(van), opened(van)
    two.enter("Vehicle mass", "5002")
    two.ctrl(Qt.Key.Key_S)
    one.enter("Vehicle mass", "5001")

    said = one.answering("Cancel")
    one.ctrl(Qt.Key.Key_S)
    assert "changed by another program" in said[0]
    assert "Vehicle mass: 5001 lb, was 5002 lb" in said[0], "the difference is told"
    assert mass(van) == "5002"
    assert one.window.session.store.dirty

    beside = tmp_path / "beside.keelroom"
    one.answering("Save beside it…", to_file(beside))
    one.ctrl(Qt.Key.Key_S)
    assert (mass(van), mass(beside)) == ("5002", "5001")
    assert one.window.session.path == beside

    two.window.session.open(beside)
    two.enter("Vehicle mass", "5003")
    one.enter("Vehicle mass", "5004")
    one.ctrl(Qt.Key.Key_S)
    two.answering("Replace it")
    two.ctrl(Qt.Key.Key_S)
    assert mass(beside) == "5003"
    two.enter("Vehicle mass", "5005")
    two.ctrl(Qt.Key.Key_S)  # its own writing is no surprise to it
    assert mass(beside) == "5005"
    for driver in (one, two):
        driver.dispose()


def left_by_a_dead_window(build, origin):
    dead = Autosave()
    dead.keep(build, Origin(origin, digest(Path(origin)) if origin else ""))
    os.close(dead._held)
    return dead.path


def test_a_copy_that_waits_is_offered_when_its_file_is_opened_by_name(tmp_path, state, demo):
    van = tmp_path / "van.keelroom"
    save(demo, van)
    copy = left_by_a_dead_window(heavier(demo, 5123), str(van))
    driver = opened(van)
    assert driver.shows("A window closed without saving: Larch Lane van")
    assert driver.shows("van.keelroom")
    assert driver.shows("Vehicle mass: 5123 lb, was 4350 lb")
    driver.click("Leave Larch Lane van")
    assert not driver.shows("A window closed without saving")
    driver.close_unsaved()
    assert copy.exists()

    driver = opened(van)
    driver.enter("Vehicle mass", "5001")
    driver.answering("Discard")
    driver.click("Recover Larch Lane van")
    assert driver.window.session.build.brief.vehicle.mass.as_typed == "5123 lb"
    assert driver.window.session.path == van
    assert driver.window.session.store.dirty
    driver.ctrl(Qt.Key.Key_S)
    assert mass(van) == "5123 lb"
    assert not list(state.glob("recovery-*"))
    driver.close_unsaved()


def test_recovering_on_a_full_disk_keeps_the_copy(tmp_path, state, demo, monkeypatch):
    copy = left_by_a_dead_window(heavier(demo, 5123), "")
    before = copy.read_bytes()
    driver = opened()

    def full(*_args):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(writing.os, "fsync", full)
    driver.click("Recover Larch Lane van")
    driver.until(lambda: driver.window.furnished)
    driver.enter("Vehicle mass", "5200")
    driver.until(lambda: "No space left" in driver.window.header.words.text())
    assert copy.read_bytes() == before
    monkeypatch.undo()
    driver.close_unsaved()


def test_start_survives_whatever_lies_in_the_state_folder(state):
    state.mkdir(parents=True)
    (state / "recovery-dangling.keelroom").symlink_to(state / "nowhere")
    (state / f"recovery-{'9' * 30}.keelroom").write_text("{")
    (state / ".keelroom-0123456789ab-deadbeef.part").write_bytes(b"half")
    driver = opened()
    assert driver.shows("passed over and left where it is")
    assert not (state / ".keelroom-0123456789ab-deadbeef.part").exists()
    driver.close_unsaved()


def test_a_state_folder_that_cannot_be_made_is_said_and_the_program_goes_on(tmp_path, monkeypatch):
    (tmp_path / "file").write_text("")
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "file"))
    van = tmp_path / "van.keelroom"
    van.write_bytes(DEMO.read_bytes())
    driver = opened(van)
    driver.enter("Vehicle mass", "5001")
    driver.until(lambda: "No recovery copies can be kept" in driver.window.header.words.text())
    driver.ctrl(Qt.Key.Key_S)
    assert mass(van) == "5001"
    driver.close_unsaved()


def test_work_is_kept_while_somebody_works_without_a_pause(demo_window):
    """An edit at every turn of the event loop, never a rest: the copy comes within its time all the same."""
    driver = demo_window
    keeper = driver.window.session.keeper
    keeper.within = 0.05
    n = 0

    def copied():
        nonlocal n
        n += 1
        driver.window.session.set(MASS, quantity(f"{4000 + n} lb", "mass", "measured"), "Mass")
        return driver.window.session.autosave.path.exists()

    driver.until(copied)
    assert n > 1
    assert new_build() != driver.window.session.build


def test_a_line_with_a_wrong_entry_does_not_fold_over_it(demo_window):
    """What was typed and not taken stays in sight with what was expected; mended, the line folds."""
    driver = demo_window
    driver.click("Air station")
    driver.turn("Fans")
    section = driver.window.stations["Air"].views["Fans"].sections[0]
    field = driver.enter("Fan 1: fan diameter", "about a foot")
    assert field.text() == "about a foot"
    driver.click("Fan 1: show or fold away")
    assert not section.folded
    assert field.isVisible()
    assert field.text() == "about a foot"
    driver.enter("Fan 1: fan diameter", "12 in")
    driver.click("Fan 1: show or fold away")
    assert section.folded
    assert not field.isVisible()
    assert driver.shows("Twin 12 in straight-blade"), "folded it says what it is"
    driver.window.go_to(("packages", "p1", "fans", "fan1", "diameter"))
    assert not section.folded
