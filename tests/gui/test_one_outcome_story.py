"""An entry no law bears is seen at once wherever figures stand, and mended where it was made; files keep their
identity."""

import json
import subprocess
import sys
from pathlib import Path

from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtWidgets import QApplication, QLabel, QMessageBox, QTableWidget

from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.gui.packages import AWAITED, Packages
from keelroom.gui.widgets.asked_table import AskedTable
from tests.conftest import DEMO
from tests.gui.driver import opened, shown
from tests.gui.test_nothing_lost import heavier, left_by_a_dead_window, mass, own_dialogs, state, to_file  # noqa: F401
from tests.soak.reader import misread


def told(path: Path) -> dict:
    """`assess --json` of a file, as another process says it."""
    ran = subprocess.run(
        [sys.executable, "-m", "keelroom", "assess", "--json", str(path)], capture_output=True, text=True
    )
    assert ran.returncode in (0, 1), ran.stderr
    return json.loads(ran.stdout)


def clipboard() -> str:
    return QApplication.clipboard().text()


def test_one_and_a_half_fins_for_fifteen_is_seen_saved_opened_and_mended(demo_window, tmp_path):
    driver = demo_window
    session = driver.window.session
    before = driver.ledger()
    driver.click("Core station")
    driver.turn("Size")
    driver.enter("Fins", "1.5")
    assert all(
        "not worked out: Fins 1.5 fins/in, usual 15 fins/in: fin thickness over fin pitch is then 0.00591" in row
        for row in driver.ledger().values()
    )
    assert "Not worked out" in driver.window.header.words.text()
    assert driver.shows("could not be worked out"), "among the findings"
    assert driver.shows("Too far out for what is worked out from it: Fins 1.5 fins/in"), "and where it was typed"

    # Why and the response strip say it too, and no page of the build before stays.
    driver.key(Qt.Key.Key_F3)
    assert driver.shows("This duty case could not be worked out: Fins 1.5 fins/in")
    driver.key(Qt.Key.Key_F2)

    # Nothing that leaves the window tells of the build before.
    driver.ctrl(Qt.Key.Key_E)
    for act, words in (
        ("Copy the ledger", "not worked out: Fins 1.5"),
        ("Copy the verdict", "not worked out: Fins 1.5"),
    ):
        driver.enter("Ask", act)
        assert words in clipboard(), act
        assert "in hand" not in clipboard()
    assert not misread(driver.window)

    # It is saved, and opens as it is, in a window and for a machine.
    driver.ctrl(Qt.Key.Key_S)
    again = opened(session.path)
    assert all("not worked out" in row for row in again.ledger().values())
    assert {case["stopped"]["where"][-1] for case in told(session.path)["cases"]} == {"fin_density"}

    # The finding leads to the entry, where it is mended.
    again.open_finding(lambda finding: finding.code == "not_worked_out")
    again.click("Show me: ")
    assert again.window.focusWidget().accessibleName() == "Fins"
    again.enter("Fins", "15")
    assert not any("not worked out" in row for row in again.ledger().values())
    assert list(again.ledger()) == list(before)
    assert not misread(again.window)
    again.close_unsaved()


def test_a_build_that_cannot_be_solved_shows_nothing_of_the_one_before(demo_window, tmp_path):
    driver = demo_window
    stuck = tmp_path / "stuck.keelroom"
    text = load(DEMO).model_dump_json()
    raw = json.loads(text)
    for package in raw["packages"]:
        package["core"]["fin_density"] = {
            "si": 1.5 / 0.0254,
            "as_typed": "1.5",
            "unit": "fins/in",
            "origin": "measured",
            "doubt": None,
        }
    stuck.write_text(json.dumps(raw))
    assert driver.window.files.open(stuck)
    assert all("not worked out" in row for row in driver.ledger().values())
    assert not [label.text() for label in shown(driver.window.ledger, QLabel) if "of the alternator" in label.text()]
    assert not misread(driver.window)


def test_a_cooler_with_no_resistance_costs_itself_alone(demo_window):
    driver = demo_window
    before = driver.ledger()
    driver.click("Aux coolers station")
    driver.pick_row("Coolers", "Gearbox cooler")
    driver.enter("Gearbox cooler: air resistance", "0")
    assert driver.ledger() == before, "the duty cases stand"
    assert driver.shows("The air of “Gearbox cooler” could not be worked out")
    driver.enter("Gearbox cooler: air resistance", "nothing")
    assert driver.shows("cannot be read"), "a wrong entry is said where it was typed"
    driver.enter("Gearbox cooler: air resistance", "12")
    assert not driver.shows("could not be worked out")


def test_28_volts_measured_at_idle_stop_the_idle_and_leave_the_road(demo_window):
    driver = demo_window
    driver.click("Electrical station")
    driver.turn("Charging")
    driver.enter("Measured at the battery, idle", "28.4")
    rows = driver.ledger()
    assert "volts per 12 V battery is then 28.4 V" in rows["Idle, A/C on"]
    assert "settles at" in rows["Steady cruise"]
    assert not misread(driver.window)
    driver.enter("Measured at the battery, idle", "13.4")
    assert not any("not worked out" in row for row in driver.ledger().values())


def test_the_ending_comes_before_the_question(tmp_path, state):  # noqa: F811
    """A name typed without its ending is the file with it: what is there is asked about, and kept where one says so."""
    van = tmp_path / "van.keelroom"
    van.write_bytes(DEMO.read_bytes())
    driver = opened(DEMO, as_copy=True)
    driver.enter("Vehicle mass", "5001")
    said = driver.answering(to_file(tmp_path / "van"), "Cancel")
    driver.ctrl(Qt.Key.Key_S)
    assert said[-1].startswith("van.keelroom is there already.")
    assert van.read_bytes() == DEMO.read_bytes()
    assert driver.window.session.store.dirty
    driver.answering(to_file(tmp_path / "van"), "Replace it")
    driver.ctrl(Qt.Key.Key_S)
    assert mass(van) == "5001"
    assert not (tmp_path / "van").exists()

    # No output goes onto a build, whatever it is called there.
    (tmp_path / "plain.csv").write_bytes(DEMO.read_bytes())
    for name in ("van.keelroom.csv", "plain.csv"):
        (tmp_path / "van.keelroom.csv").unlink(missing_ok=True)
        (tmp_path / "van.keelroom.csv").symlink_to(van)
        said = driver.answering(to_file(tmp_path / name), "Replace it", "OK")
        driver.window.out.save_ledger()
        assert "nothing made of a build goes onto one" in said[-1]
    assert mass(van) == "5001"
    driver.close_unsaved()


def test_a_recovered_copy_older_than_its_file_asks_before_it_replaces_it(tmp_path, state, demo):  # noqa: F811
    van = tmp_path / "van.keelroom"
    van.write_bytes(DEMO.read_bytes())
    left_by_a_dead_window(heavier(demo, 5123), str(van))  # it grew from the file as it is now
    one = opened(van)
    one.click("Leave Larch Lane van")
    one.enter("Vehicle mass", "5999")
    one.ctrl(Qt.Key.Key_S)
    one.close_unsaved()

    two = opened(van)
    two.click("Recover Larch Lane van")
    said = two.answering("Cancel")
    two.ctrl(Qt.Key.Key_S)
    assert "was changed by another program since" in said[0]
    assert "Vehicle mass: 5123 lb, was 5999 lb" in said[0]
    assert mass(van) == "5999", "the newer file stands"
    two.answering("Replace it")
    two.ctrl(Qt.Key.Key_S)
    assert mass(van) == "5123 lb"
    two.close_unsaved()


def test_nothing_of_a_name_is_a_mark_or_a_link(demo_window):
    driver = demo_window
    name = "<b>big</b> <a href='file:///x'>here</a>"
    driver.window.session.set(("brief", "title"), name, "Title")
    driver.window.session.set(("duty_cases", "idle", "name"), name, "Name")
    row = next(text for text in driver.ledger().values() if text.startswith("<b>big"))
    assert row
    tips = [widget.toolTip() for widget in shown(driver.window.ledger) if "big" in widget.toolTip()]
    assert tips
    assert all("&lt;b&gt;" in tip and "<a " not in tip for tip in tips)
    seen = []

    def look(box):
        assert isinstance(box, QMessageBox)
        seen.extend(
            (words.textFormat(), words.openExternalLinks()) for words in box.findChildren(QLabel) if words.text()
        )
        box.reject()

    driver.enter("Vehicle mass", "5001")
    driver.answering(look)
    assert not driver.window.close()
    assert seen
    assert all(form == Qt.TextFormat.PlainText and not opens for form, opens in seen)


def test_packages_come_one_after_the_other_and_are_kept(demo_window):
    """The dialog stands at once; verdicts come from beside the window, and an edit of one package leaves the others'
    as they are."""
    driver = demo_window
    driver.ctrl(Qt.Key.Key_K)
    dialog = next(w for w in driver.window.findChildren(Packages))
    table = dialog.table.table
    verdicts = lambda: [table.item(row, 2).text() for row in range(table.rowCount())]  # noqa: E731
    assert verdicts()[0] != AWAITED, "the active one is known"
    driver.until(lambda: AWAITED not in verdicts())
    known = dict(dialog.verdicts.known)
    assert len(known) == len(driver.window.session.build.packages) - 1
    driver.window.session.set(("packages", "p2", "name"), "Renamed", "Name")
    assert AWAITED in verdicts()[1], "what changed is worked out anew, and says so meanwhile"
    assert all(dialog.verdicts.known[ident] is known[ident] for ident in known if ident != "p2")
    driver.until(lambda: AWAITED not in verdicts())
    dialog.close()


def test_figures_of_the_build_before_fade_until_they_are_worked_out_anew(settled_demo, monkeypatch):
    driver = settled_demo
    driver.click("Loop station")
    driver.turn("Coolants")
    view = next(view for view in driver.window.findChildren(AskedTable) if view.isVisible())
    driver.until(lambda: view.found is not None)
    assert view.table.isEnabled()
    rows = len(driver.window.out.page_rows())
    assert rows > 4
    driver.window.session.set(("brief", "vehicle", "mass"), quantity("5001 lb", "mass"), "Mass")
    assert not view.table.isEnabled(), "the figures are of the build before"
    assert driver.window.out.page_rows() == [], "and leave in no table"
    driver.until(lambda: view.table.isEnabled() and view.answers is driver.window.session.build)
    assert len(driver.window.out.page_rows()) == rows
    monkeypatch.setattr("keelroom.gui.stations.loop.tables.coolant_ways", lambda *_: 1 / 0)
    driver.window.session.set(("brief", "notes"), "another build", "Notes")
    driver.until(lambda: "Could not be worked out" in view.why.text())
    assert view.table.table.rowCount() == 0, "none of an earlier build stay"


def test_a_core_can_be_chosen_while_it_is_not_known_how_each_does(settled_demo):
    """The list is there at once, with what each core is; how each does follows."""
    driver = settled_demo
    driver.click("Core station")
    table = driver.find("Cores", QTableWidget)
    driver.until(lambda: "of 6" in table.item(0, 1).text())
    driver.window.session.set(("brief", "vehicle", "mass"), quantity("5001 lb", "mass"), "Mass")
    assert table.item(0, 1).text() == "…"
    assert table.item(0, 3).text().endswith(" in")
    driver.pick_row("Cores", "Crossflow 31 × 19, 4 row, aluminium")
    assert driver.window.session.build.package.core.name.startswith("Crossflow 31 × 19, 4 row, aluminium")
    driver.until(lambda: "of 6" in table.item(0, 1).text())


def test_opening_can_be_cancelled(demo_window, tmp_path, monkeypatch):
    """A file that takes long says so over the window; Cancel leaves what is open."""
    import threading

    from keelroom.gui import opening

    driver = demo_window
    go, title = threading.Event(), driver.window.session.build.brief.title
    real = opening.read

    def slow(path):
        go.wait(30)
        return real(path)

    monkeypatch.setattr(opening, "read", slow)
    monkeypatch.setattr(opening, "PATIENCE", 10)
    other = tmp_path / "other.keelroom"
    other.write_bytes(DEMO.read_bytes())
    driver.answering("Cancel")
    assert not driver.window.files.open(other)
    go.set()
    driver.settle()
    assert driver.window.session.path.name == "demo.keelroom"
    assert driver.window.session.build.brief.title == title
    assert "was not opened" in driver.window.header.words.text()
    assert driver.window.files.open(other)
    assert driver.window.session.path == other


def test_a_page_that_cannot_be_shown_says_why_and_its_fields_go_on(demo_window, monkeypatch):
    driver = demo_window
    driver.click("Aux coolers station")
    driver.turn("Fluids")
    monkeypatch.setattr("keelroom.gui.stations.coolers.model._fluids_said", lambda *_: 1 / 0)
    driver.window.session.set(("brief", "vehicle", "mass"), None, "Nothing")
    assert driver.shows("The page “Fluids” could not be worked out: something went wrong inside (ZeroDivisionError")
    monkeypatch.undo()
    driver.window.session.store.undo()
    assert not driver.shows("could not be worked out")


def test_an_answer_for_a_working_that_is_gone_is_written_nowhere(demo_window):
    """The figure asked about is read at the case that stands for idle; that case is taken out while its movers are
    still sought."""
    driver, told = demo_window, []
    session = driver.window.session
    session.told.connect(told.append)
    session.explain("amps")
    driver.until(lambda: driver.shows("What moves it most"))
    session.set(
        ("duty_cases",),
        tuple(case for case in session.build.duty_cases if case.demand != "idle" and case.speed.si > 5),
        "No idle",
    )
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)  # as the application's own loop does
    driver.settle()
    assert driver.shows("there is none with figures")
    assert not [text for text in told if "went wrong" in text]
