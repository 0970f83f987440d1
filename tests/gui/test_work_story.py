"""The Work station by mouse and keys: planned, bought for, ticked off with a harness made twice, changed halfway,
handed over; a rear core by two people; a price list with faults."""

import csv

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QFileDialog, QLabel

from keelroom.assess.work.plan import planned
from keelroom.assess.work.shopping import shopping
from keelroom.catalogue.steps import shipped_text
from keelroom.document.photos import folder_of
from tests.conftest import DEMO
from tests.gui.driver import Driver, opened, shown
from tests.unit.document.test_photos import png


@pytest.fixture
def driver(demo_window):
    return demo_window


def working(driver: Driver, part: str = "Order") -> Driver:
    driver.click("Work station")
    driver.turn(part)
    driver.calm()
    QApplication.processEvents()
    return driver


def said(driver: Driver) -> str:
    return " ".join(w.text() for w in shown(driver.window, QLabel))


def build_of(driver: Driver):
    return driver.window.session.build


def plan_of(driver: Driver):
    build = build_of(driver)
    return planned(build, build.package)


def test_a_package_is_planned_and_a_step_goes_where_it_belongs(driver):
    working(driver)
    plan = plan_of(driver)
    driver.until(lambda: "in 80 of 100" in said(driver))
    assert f"{len(plan.done)} of {len(plan.steps)} steps are done." in said(driver)
    first = next(step for step in plan.steps if step.key == plan.spans[0].key)
    driver.pick_row("Steps in their order", first.words[:20])
    assert first.check in said(driver)
    board = driver.window.stations["Work"].drawing()
    y, _ = next(row for row in board.hung.rows if row[1] == first.key)
    from PyQt6.QtCore import QPointF

    spot = board.view().map(QPointF(0.3, y)).toPoint()
    QTest.mouseClick(board, Qt.MouseButton.LeftButton, pos=spot)
    assert driver.window.shown_station != "Work", "a click goes to what the step is about"


def test_ticked_off_as_it_went_and_taken_back(driver, tmp_path, monkeypatch):
    working(driver, "Bench")
    plan = plan_of(driver)
    (step,) = plan.next_steps(1)
    assert step.words in said(driver)
    driver.enter("Minutes it took", "a while", Qt.Key.Key_Tab)
    driver.click("Made twice")
    assert "is no number of minutes" in said(driver)
    assert plan_of(driver).done == plan.done, "nothing was ticked"
    driver.enter("Minutes it took", "95", Qt.Key.Key_Tab)
    driver.enter("Who", "Bo", Qt.Key.Key_Tab)
    driver.enter("Note", "first one cracked", Qt.Key.Key_Tab)
    driver.click("Made twice")
    tick = plan_of(driver).ticks[step.key]
    assert (tick.went, tick.who, tick.note, tick.took.si) == ("twice", "Bo", "first one cracked", 95 * 60)
    source = png(tmp_path / "loom.png")
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(source), ""))
    driver.click(f"Photo of: {step.words[:40]}")
    assert (folder_of(driver.window.session.path) / "loom.png").exists()
    driver.click(f"Take back: {step.words[:40]}")
    assert step.key not in plan_of(driver).done
    driver.click("Undo")
    assert step.key in plan_of(driver).done
    # The build is another halfway: what was done stays, and is said.
    session = driver.window.session
    session.set(("packages", "p1", "circuits"), (), "Another harness")
    driver.turn("Order")
    driver.calm()
    driver.until(lambda: "no longer in the plan" in said(driver))
    assert len(build_of(driver).work.ticks) == 10


def test_a_price_list_with_faults_fills_the_list(driver, tmp_path, monkeypatch):
    working(driver, "List")
    path = tmp_path / "yard.csv"
    path.write_text("part,price,lead time\nLoom,9,3\nHeat shrink,free,\nMoon dust,4,1\n")
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(path), ""))
    driver.click("Bring in a price list")
    assert "“free” is no price" in said(driver)
    assert "1 of its lines are of nothing on the list" in said(driver)
    build = build_of(driver)
    loom = next(one for one in shopping(build, build.package) if one.name == "Loom")
    assert (loom.price, loom.lead) == (9.0, 3.0)
    driver.click("Undo")
    assert all(item.name != "Loom" for item in build_of(driver).work.items)
    path.write_text("colour,weight\nred,2\n")
    driver.click("Bring in a price list")
    assert "part, price and lead time were expected" in driver.window.header.words.text()
    driver.pick_row("Shopping list", "Loom")
    driver.click("The chosen row is in hand")
    assert next(one for one in shopping(build_of(driver), build_of(driver).package) if one.name == "Loom").in_hand
    target = tmp_path / "list.csv"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, **__: (str(target), "CSV (*.csv)"))
    driver.click("Save the list as a table")
    rows = list(csv.reader(target.read_text(encoding="utf-8-sig").splitlines()))
    assert any(row[0] == "Loom" and "yes" in row for row in rows)
    driver.click("Copy the list")
    assert "Loom" in QApplication.clipboard().text()


def test_a_shops_own_table_with_a_ring_is_refused_and_a_slower_one_counts(driver, tmp_path, monkeypatch):
    working(driver, "Hours")
    path = tmp_path / "ours.csv"
    lines = shipped_text()
    path.write_text(lines.replace("battery.off front.off,,yes,,sockets", "fan.mount,,yes,,sockets", 1))
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_: (str(path), ""))
    station = driver.window.stations["Work"]
    for text, expected in ((lines.replace("begin,marks,drivable", "begun,marks,drivable"), "is no act known here"),):
        path.write_text(text)
        station._bring_table()
        assert expected in driver.window.header.words.text()
        assert build_of(driver).work.table == ""
    driver.until(lambda: "in 80 of 100" in said(driver))
    before = station.plans.estimate.hours.middle
    path.write_text(lines.replace(",7,12,25,", ",70,120,250,"))
    station._bring_table()
    driver.until(lambda: station.plans.estimate.hours.middle > before + 3600)
    driver.click("Undo")
    driver.until(lambda: station.plans.estimate.hours.middle == before)


def test_wrong_entries_stay_where_they_were_typed(driver):
    working(driver, "Hours")
    driver.enter("An hour costs", "a lot")
    assert build_of(driver).work.rate.si == 85
    driver.enter("An hour costs", "90")
    assert build_of(driver).work.rate.si == 90
    driver.enter("Begins on", "soon")
    assert build_of(driver).work.start == "2026-11-28"
    driver.enter("People", "0")
    assert build_of(driver).work.people.si == 2


def test_it_is_handed_over(driver, tmp_path, monkeypatch):
    from pypdf import PdfReader

    working(driver, "Record")
    target = tmp_path / "record.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, **__: (str(target), "PDF (*.pdf)"))
    driver.click("Record…")
    text = " ".join(" ".join(page.extract_text() for page in PdfReader(target).pages).split())
    for expected in ("For the next shop", "For the owner", "made twice", "After a week", "never open a cap", "Tested:"):
        assert expected in text, expected
    assert build_of(driver).work.recorded
    driver.click("Why so long?")
    assert "hours are likely" in QApplication.clipboard().text()
    target = tmp_path / "work.ics"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, **__: (str(target), "Calendar (*.ics)"))
    driver.turn("Order")
    driver.click("Save the work as appointments")
    assert target.read_bytes().startswith(b"BEGIN:VCALENDAR")


def test_a_rear_core_is_planned_by_two(tmp_path):
    path = tmp_path / "rear.keelroom"
    path.write_bytes((DEMO.parent / "samples" / "rear.keelroom").read_bytes())
    driver = opened(path)
    try:
        working(driver, "Hours")
        driver.enter("Begins on", "2026-11-30")
        one = plan_of(driver).ends
        driver.enter("People", "2")
        assert plan_of(driver).ends < one
        driver.turn("Order")
        driver.calm()
        driver.until(lambda: "By 2 people, from Mon 30 Nov, 9:00 to Tue 1 Dec" in said(driver))
    finally:
        driver.dispose()
