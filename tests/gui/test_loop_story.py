"""Stories of the Loop station by clicks and keys: a core at the rear put together wrongly and mended, a core of
another car, an ordinary circuit."""

import json

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QComboBox, QLineEdit, QTableWidget

from keelroom import cli
from keelroom.assess.figures.read_off import air_in
from keelroom.assess.loop.air import bleed_list
from keelroom.document.file import load
from keelroom.units import KINDS, format_si
from tests.told import why_of


@pytest.fixture
def driver(settled_demo):
    return settled_demo


def loop_of(driver):
    return driver.window.session.build.package.loop


def codes(driver):
    return {finding.code for finding in driver.window.session.assessment.findings}


def bleeding(driver):
    session = driver.window.session
    return [step.name for step in bleed_list(air_in(session.build, session.build.package, session.assessment))]


def to_page(driver, page):
    driver.turn(page)


def add_line(driver, name, start, end, length):
    """A hose by the page's act: its ends chosen, its length typed."""
    to_page(driver, "Hoses")
    driver.click("Add a hose")
    ident = loop_of(driver).hoses[-1].id
    own = f"Hose {ident.removeprefix('hose')}"
    driver.choose(f"{own}: from", start)
    driver.choose(f"{own}: to", end)
    driver.enter(f"{own}: hose length", length)
    driver.enter(f"{own}: name", name)
    driver.enter(f"{name}: hose bore", "1 in")
    driver.choose(f"{name}: meets its necks with", "A reducer")


def test_a_core_at_the_rear_is_mended_finding_by_finding(driver, capsys):
    session = driver.window.session
    before = session.assessment.figures_of("cruise").temperature
    driver.click("Fit-up station")
    to_page(driver, "Place")
    driver.enter("Core's front behind the plane", "160 in")
    driver.click("Away from the grille, with air of its own")
    assert session.build.package.remote.away
    away = session.assessment.figures_of("cruise").temperature
    assert away > before + 1, "less air reaches a core behind the axle"

    # pump high, two pressure caps, no tank: as it was first put together
    driver.click("Loop station")
    to_page(driver, "Parts")
    driver.click("Add electric pump")
    driver.enter("Electric pump: its height from datum", "26 in")
    driver.enter("Electric pump: it stands from left", "12 in")
    driver.enter("Electric pump: it stands behind the plane", "150 in")
    to_page(driver, "Hoses")
    driver.enter("Upper hose: hose length", "13 ft")
    driver.choose("Lower hose: to", "Electric pump, suction")
    add_line(driver, "Line to the front", "Electric pump, outlet", "Engine inlet", "13 ft")
    to_page(driver, "Circuit")
    driver.choose("Pump", "Both, one in line")
    driver.enter("Electric pump starts at", "140 °F")
    to_page(driver, "Parts")
    driver.click("Add filler neck")
    driver.choose("Filler neck: its neck", "Pressure cap")
    wrong = {"pump_high", "second_cap", "no_surge_tank", "bypass_backwards"}
    assert wrong <= codes(driver)
    first = bleeding(driver)
    assert first[-1] == "Line to the front", "the line that rises out of a pump that stands high is the highest place"
    wrong_flow = session.assessment.figures_of("idle").core_coolant_flow

    # and mended, one after the other
    driver.mend("Lower it to")
    assert "pump_high" not in codes(driver)
    driver.mend("A plain cap there")
    driver.mend("Put a surge tank after the engine")
    driver.mend("Block the bypass")
    assert not wrong & codes(driver)
    tank = next(part for part in loop_of(driver).parts if part.kind == "surge_tank")
    assert [end for hose in loop_of(driver).hoses for end in (hose.start, hose.end) if end.startswith(tank.id)] == [
        f"{tank.id}:in",
        f"{tank.id}:out",
    ]
    assert bleeding(driver)[-1] == tank.name or bleeding(driver)[-1] == "Surge tank", "air goes up to the tank"
    to_page(driver, "Circuit")
    assert driver.shows("Engine → thermostat → surge tank → core → electric pump → engine.")
    idle = session.assessment.figures_of("idle")
    assert idle.core_coolant_flow == pytest.approx(idle.coolant_flow, rel=0.05), (
        "nothing goes round the engine any more"
    )
    assert idle.core_coolant_flow != pytest.approx(wrong_flow, rel=0.01)
    to_page(driver, "Fill")
    assert driver.shows("run the electric pump ten seconds")

    # what the window tells is what the file gives
    driver.ctrl(Qt.Key.Key_S)
    cli.main(["assess", str(session.path), "--json"])
    told = json.loads(capsys.readouterr().out)["loop"]
    assert told["order"] == [
        "engine",
        "thermostat",
        tank.id,
        "core",
        "pump1" if "pump1" in told["order"] else told["order"][4],
    ]
    to_page(driver, "Flows")
    session.select("cruise")
    ways = driver.find("Ways of the circuit", QTableWidget)
    shown = {ways.item(row, 0).text(): ways.item(row, 1).text() for row in range(ways.rowCount())}
    by_key = {way["key"]: way["flow_m3_s"] for way in told["cases"]["cruise"]["ways"]}
    assert shown["Core"] == format_si(by_key["core"], KINDS["coolant flow"], "us")

    # all of it undone gives the file back that was opened
    steps = 0
    while session.store.undo_label and steps < 80:
        driver.ctrl(Qt.Key.Key_Z)
        steps += 1
    assert session.assessment.figures_of("cruise").temperature == pytest.approx(before, abs=1e-9)


def test_a_core_of_another_car_has_ports_to_close_and_ends_that_do_not_meet(driver):
    session = driver.window.session
    driver.click("Loop station")
    to_page(driver, "Ports")
    driver.click("Add a port of the core")
    driver.enter("Core port 1: port bore", "3/0")
    assert driver.shows("3/0"), "a bore of 3/0 is told where it was typed"
    driver.enter("Core port 1: port bore", "3/4 in")
    driver.enter("Core port 1: thread", "1/2-14 NPT")
    driver.click("Add a port of the core")
    assert len(session.build.package.core.ports) == 2
    assert "core_port_open" in codes(driver)
    driver.mend("A plug in it")
    driver.mend("To be closed for good")
    assert {port.state for port in session.build.package.core.ports} == {"plugged", "to_close"}
    assert "core_port_open" not in codes(driver)
    closing = next(f for f in session.assessment.findings if f.code == "core_port_closing")
    assert "welded by somebody" in why_of(closing)

    # its outlet is a smaller one than the engine's
    to_page(driver, "Hoses")
    driver.enter("Lower hose: hose bore", "1 1/4 in")
    driver.choose("Lower hose: meets its necks with", "Nothing")
    wrong = next(f for f in session.assessment.findings if f.code == "bores_differ")
    assert "1 3/4 in" in why_of(wrong)
    driver.mend("With a reducer")
    assert "bores_differ" not in codes(driver)

    # entries that cannot be stay in their fields
    field = driver.enter("Lower hose: hose length", "0")
    assert driver.shows("Hose length must be more than 0")
    assert field.text() == "0"
    field = driver.enter("Lower hose: hose length", "24 in")
    to_page(driver, "Circuit")
    driver.enter("Cap", "-3 psi")
    assert driver.shows("Cap must be at least 0")
    driver.enter("Cap", "15 psi")
    to_page(driver, "Parts")
    driver.enter("Overflow bottle: its height from datum", "40 in")
    assert "part_over_hood" in codes(driver)
    driver.mend("Lower it to")
    assert "part_over_hood" not in codes(driver)


def test_an_ordinary_circuit_is_made_in_one_act(driver):
    """From nothing: the demo's circuit taken away, then made by one press, and half-entered ones said and saved on
    the way."""
    session = driver.window.session
    driver.click("Loop station")
    to_page(driver, "Hoses")
    for name in ("Upper hose", "Lower hose", "Heater feed", "Heater return"):
        card = next(hose for hose in loop_of(driver).hoses if hose.name == name)
        driver.find(f"{name}: name", QLineEdit)
        driver.click(f"Remove {name}")
        assert card not in loop_of(driver).hoses
    assert session.assessment.figures_of("idle") is None, "no coolant gets round"
    to_page(driver, "Circuit")
    assert driver.shows("Nothing leads from the engine’s outlet to the core’s inlet")
    driver.ctrl(Qt.Key.Key_S)
    assert load(session.path).package.loop.hoses == ()
    driver.mend("Put the usual hoses in")
    assert session.assessment.figures_of("idle") is not None
    driver.click("Make an ordinary circuit")
    assert {hose.id for hose in loop_of(driver).hoses} >= {"upper", "lower"}
    assert session.assessment.figures_of("idle").coolant_flow > 0
    undone = len(loop_of(driver).hoses)
    driver.ctrl(Qt.Key.Key_Z)
    driver.ctrl(Qt.Key.Key_Z)
    assert len(loop_of(driver).hoses) < undone


def test_a_part_is_dragged_and_nudged_in_height_and_the_layout_stays(driver):
    session = driver.window.session
    driver.click("Loop station")
    board = driver.find("The circuit in elevation")
    bottle = next(part for part in loop_of(driver).parts if part.id == "bottle")
    spot = board._tagged()["part:bottle"].toPoint()
    others = {tag: at.x() for tag, at in board._tagged().items() if tag.startswith("part:")}
    driver.drag(board, spot, spot + QPoint(0, -30))
    moved = next(part for part in loop_of(driver).parts if part.id == "bottle")
    assert moved.y.si > bottle.y.si + 0.02
    assert {tag: at.x() for tag, at in board._tagged().items() if tag.startswith("part:")} == pytest.approx(others)
    assert session.store.undo_label == "Height of overflow bottle"
    grip = driver.find("Overflow bottle in the circuit")
    grip.setFocus()
    QTest.keyClick(grip, Qt.Key.Key_Down)
    QApplication.processEvents()
    after = next(part for part in loop_of(driver).parts if part.id == "bottle")
    assert after.y.si == pytest.approx(moved.y.si - 0.0254 / 16, abs=1e-4)
    driver.ctrl(Qt.Key.Key_Z)
    driver.ctrl(Qt.Key.Key_Z)
    assert next(part for part in loop_of(driver).parts if part.id == "bottle").y.as_typed == bottle.y.as_typed
    assert driver.find("Pump", QComboBox).isVisible()
