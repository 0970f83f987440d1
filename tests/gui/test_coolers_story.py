"""Three stories of the Aux coolers station by clicks and keys, and entries that cannot be."""

import json

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QComboBox, QLabel, QLineEdit, QPushButton, QTableWidget

from keelroom import cli
from keelroom.assess.acts.registry import offer
from keelroom.document.file import load
from keelroom.units import KINDS, format_si
from tests.told import what_of


@pytest.fixture
def driver(settled_demo):
    return settled_demo


def automatic(driver):
    """The van with an automatic gearbox, chosen at the Brief."""
    driver.choose("Gearbox", "Automatic")
    assert driver.window.session.build.brief.vehicle.gearbox == "automatic"


def hottest(driver):
    """Gearbox fluid in the case it runs hottest."""
    return max(c.figures.fluids.gearbox for c in driver.window.session.assessment.cases if c.figures)


def finding(driver, words):
    return next((f for f in driver.window.session.assessment.findings if words in what_of(f)), None)


def test_a_gearbox_cooler_is_put_where_it_works_best(driver, capsys):
    session = driver.window.session
    automatic(driver)
    driver.click("Aux coolers station")
    driver.pick_row("Coolers", "Gearbox cooler")
    assert driver.find("Gearbox cooler: name", QLineEdit).isVisible(), "a click on the line goes to its fields"

    # ways to cool it, side by side
    driver.turn("Gearbox")
    ways = driver.find("Ways to cool the gearbox", QTableWidget)
    driver.until(lambda: ways.rowCount() == 5)
    driver.pick_row("Ways to cool the gearbox", "A cooler alone, with a bypass")
    assert session.build.package.coolers[-1].opens.as_typed == "160 °F"
    driver.settle()
    driver.pick_row("Ways to cool the gearbox", "A cooler before the tank")
    assert session.build.brief.vehicle.in_tank_cooler
    assert session.build.package.coolers[-1].opens is None
    before = hottest(driver)

    # a place for it
    driver.turn("Find")
    driver.click("Find a place: Gearbox cooler")
    places = driver.find("Places for the cooler", QTableWidget)
    driver.until(lambda: places.rowCount() >= 8)
    driver.pick_row("Places for the cooler", "bumper slot, ram air only")
    cooler = session.build.package.coolers[-1]
    assert (cooler.stands, cooler.fans.si) == ("bumper", 0)
    assert hottest(driver) < before + 0.5, "at full speed the road does what its fans did"
    assert session.store.undo_label.startswith("Gearbox cooler: bumper slot")

    # lines and fluid
    driver.turn("Lines")
    assert driver.shows("of fluid")
    assert driver.shows("Size 6 fittings, 9/16-18")
    assert driver.shows("topped up warm and running")

    # what the window tells is what the file gives
    path = session.path
    driver.ctrl(Qt.Key.Key_S)
    cli.main(["assess", str(path), "--json"])
    told = json.loads(capsys.readouterr().out)["cases"]
    driver.turn("Fluids")
    for case in told:
        if case.get("fluids"):
            assert driver.shows(f"gearbox {format_si(case['fluids']['gearbox_degC'], KINDS['temperature'], 'us')}"), (
                case["name"]
            )


def test_a_condenser_is_hung_and_its_head_pressure_read(driver):
    session = driver.window.session
    driver.click("Aux coolers station")
    driver.turn("Each")
    driver.click("Remove Condenser")
    assert "condenser" not in [cooler.kind for cooler in session.build.package.coolers]
    driver.turn("List")
    driver.click("Add A/C condenser")
    for name, text in (("cooler width", "20"), ("cooler height", "13"), ("from left", "2"), ("from bottom", "2 1/2")):
        driver.enter(f"A/C condenser: {name}", text)
    condenser = session.build.package.coolers[-1]
    assert (condenser.width.as_typed, condenser.bottom.as_typed) == ("20", "2 1/2")
    assert finding(driver, "stand in one place") is None, "it is added ahead of what is there"
    driver.click("Fit-up station")
    driver.turn("Mounts")
    assert driver.shows("all rows are exposed")
    driver.click("Aux coolers station")
    driver.turn("Fluids")
    assert driver.shows("psi at the gauge")
    cruise = next(c.figures for c in session.assessment.cases if c.case_id == "cruise")
    assert 150 < cruise.fluids.head_pressure / 6894.76 < 300, "common practice: some 200 to 300 psi on a hot day's road"
    driver.choose("Refrigerant", "R-1234yf")
    assert session.build.brief.accessories.refrigerant == "r1234yf"


def test_an_engine_driven_fan_is_exchanged_for_two_electric_ones(driver):
    session = driver.window.session
    driver.click("Air station")
    driver.turn("Swap")
    table = driver.find("Before and after", QTableWidget)
    driver.until(lambda: table.rowCount() == 6)
    rows = {table.item(k, 0).text(): [table.item(k, n).text() for n in range(1, 6)] for k in range(6)}
    now = next(c.figures for c in session.assessment.cases if c.case_id == "grade")
    assert rows["Quarry hill with trailer"][1] == format_si(now.temperature, KINDS["temperature"], "us")
    assert float(rows["Quarry hill with trailer"][4].split()[0]) > 1, "horsepower it dragged on the hill"
    assert float(rows["Idle, A/C on"][4].split()[0]) < 0.3, "at lights it hardly turns"
    assert driver.shows("less deep")
    assert driver.shows("one that seizes only costs power")
    # without such a package one is offered
    build = session.build
    session.do(offer("remove_package", build.packages[-1].id))
    driver.settle()
    assert driver.shows("The car as found is not among the packages yet")
    driver.click("As found, engine-driven fan", QPushButton)
    assert session.build.packages[-1].fans[0].motor == "engine"
    assert session.build.active == build.active


def test_wrong_entries_are_told_where_they_are_typed(driver):
    session = driver.window.session
    driver.click("Aux coolers station")
    driver.turn("Each")
    before = session.build
    for name, wrong in (
        ("Gearbox cooler: cooler width", "wide"),
        ("Gearbox cooler: openings that feed it", "0"),
        ("Gearbox cooler: its own fans", "7"),
    ):
        assert driver.enter(name, wrong).text() == wrong, "what was typed stays"
        assert session.build is before
    driver.enter("Gearbox cooler: openings that feed it", "900")
    assert finding(driver, "the opening is larger than the face").where[-1] == "opening"
    driver.enter("Gearbox cooler: spacers behind it", "0")
    assert finding(driver, "its fan has no way out").where[-1] == "spacer"
    driver.window.go_to(("packages", "p1", "coolers", "cooler", "line_length"))
    driver.enter("Gearbox cooler: lines, there and back", "60 ft")
    assert finding(driver, "longer than the car").where[-1] == "line_length"
    driver.choose("Gearbox cooler: stands", "Ahead of the core")
    assert driver.find("Gearbox cooler: stands", QComboBox).currentText() == "Ahead of the core"
    driver.enter("Gearbox cooler: from bottom", "4")
    assert finding(driver, "Gearbox cooler and condenser stand in one place") is not None
    while session.store.undo_label:
        session.store.undo()
    assert load(session.path).packages == session.build.packages


def test_half_a_name_is_not_entered_by_undoing(driver):
    """The name is its section's title, so undoing makes the section anew: what was half typed in the old one must not
    become a step."""
    store = driver.window.session.store
    driver.click("Aux coolers station")
    driver.turn("Each")
    driver.enter("Gearbox cooler: name", "Oil box")
    driver.enter("Oil box: cooler width", "10")
    field = driver.find("Oil box: name", QLineEdit)
    field.setFocus()
    QTest.keyClicks(field, " half")
    store.undo()
    store.undo()
    QApplication.processEvents()
    assert store.trail == ()
    assert store.redo_label == "Name: Oil box"
    store.redo()
    store.redo()
    assert driver.window.session.build.package.coolers[-1].name == "Oil box"


def test_fans_are_listened_to_from_where_one_chooses(driver):
    driver.click("Aux coolers station")
    driver.turn("Noise")
    near = driver.window.stations["Aux coolers"].views["Noise"]
    before = [w.text() for w in near.findChildren(QLabel) if "ahead of the grille," in w.text()]
    driver.enter("Listen at", "84")
    after = [w.text() for w in near.findChildren(QLabel) if w.isVisible() and "ahead of the grille," in w.text()]
    less = [int(a.split()[0]) - int(b.split()[0]) for a, b in zip(before, after, strict=True)]
    assert less
    assert all(by in (6, 7) for by in less), "6.02 dB for twice as far, each end rounded by itself"
    assert driver.enter("Listen at", "far") is not None
    assert driver.find("Listen at", QLineEdit).text() == "far", "what was typed stays"
    assert driver.shows("expected") or driver.shows("such as")
