"""The Options station by mouse and keys: an owner with little to spend, bounds that leave nothing, a ladder's first
step."""

import pytest
from PyQt6.QtWidgets import QApplication, QLabel, QTableWidget

from keelroom.gui.stations.options.ladder import Steps
from tests.gui.driver import Driver, shown


@pytest.fixture
def driver(demo_window):
    session = demo_window.window.session
    session.set(("choosing", "budget"), _money("220"), "Little to spend")
    session.set(("choosing", "width"), _length("20 in"), "Small")
    session.set(("choosing", "no_cut"), True, "No cutting")
    return demo_window


def _money(text):
    from keelroom.document.quantity import quantity

    return quantity(text, "money")


def _length(text):
    from keelroom.document.quantity import quantity

    return quantity(text, "length")


def said(driver: Driver) -> str:
    return " ".join(w.text() for w in shown(driver.window, QLabel))


def choosing(driver: Driver, part: str) -> Driver:
    driver.click("Options station")
    driver.turn(part)
    QApplication.processEvents()
    return driver


def whole(driver: Driver):
    """The front of all options, once it has come."""
    view = driver.window.stations["Options"].views["Front"]
    driver.until(lambda: not view.worker.busy and view.answers is driver.window.session.build, 90)
    return view.found


def test_an_owner_with_little_to_spend_and_no_cutting(driver):
    choosing(driver, "Front")
    table = driver.find("What nothing beats", QTableWidget)
    driver.until(lambda: table.rowCount() > 0, 60)
    whole(driver)
    assert "want the panel cut" in said(driver)
    assert "cost more" in said(driver)
    first = table.item(0, 0).text()
    count = len(driver.window.session.build.packages)
    row = next(r for r in range(table.rowCount()) if "as planned now" not in table.item(r, 0).text())
    driver.pick_row("What nothing beats", table.item(row, 0).text()[:20])
    build = driver.window.session.build
    assert len(build.packages) >= count
    assert build.active != "p1"
    driver.click("Undo")
    assert driver.window.session.build.active == "p1"
    assert first


def test_why_is_my_favourite_out(driver):
    """Found by its name among all there are, with what it breaks in figures; loosened, it is judged."""
    for case in ("traffic", "cruise", "full", "night"):
        driver.window.session.set(("duty_cases", case, "counted"), False, "For information")
    choosing(driver, "Every one")
    answer = whole(driver)
    table = driver.find("Every option", QTableWidget)
    assert table.rowCount() == answer.found.space.whole
    driver.enter("Narrow the list of Every option", "31 × 19, 4 row, aluminium; Twin 15")

    def favourite():
        named = [r for r in range(table.rowCount()) if "4 row, aluminium; Twin 15" in table.item(r, 0).text()]
        assert len(named) == 1
        assert sum(not table.isRowHidden(r) for r in range(table.rowCount())) <= 3
        assert not table.isRowHidden(named[0])
        return named[0]

    assert "31 in wide, 20 in kept to; costs 1190, 220 kept to" in table.item(favourite(), 5).text()
    for bound in ("budget", "width", "no_cut"):
        driver.window.session.set(("choosing", bound), False if bound == "no_cut" else None, "Loosened")
    whole(driver)
    row = favourite()
    assert table.item(row, 5).text() == "no other beats it"
    assert "°F" in table.item(row, 1).text()
    # A click looks closer and changes nothing; the button makes it a package, undone like any other step.
    before = driver.window.session.build
    driver.pick_row("Every option", table.item(row, 0).text())
    driver.until(lambda: "With one of its fans dead" in said(driver))
    assert "now 241 °F" in said(driver)
    assert "Fit: does not fit" in said(driver)
    assert driver.window.session.build is before
    driver.click("Make the option a package")
    assert len(driver.window.session.build.packages) == len(before.packages) + 1
    driver.click("Undo")
    assert driver.window.session.build == before


def test_stopped_it_keeps_what_was_found_and_goes_on(driver):
    driver.window.session.set(("choosing", "budget"), None, "Any money")
    driver.window.session.set(("choosing", "width"), None, "Any face")
    choosing(driver, "Front")
    table = driver.find("What nothing beats", QTableWidget)
    driver.until(lambda: "working it out" in said(driver), 60)
    driver.click("Stop: what nothing beats")
    driver.until(lambda: "Stopped: what was found so far" in said(driver), 90)
    kept = table.rowCount()
    driver.window.session.set(("choosing", "budget"), _money("220"), "Little to spend")
    driver.window.session.set(("choosing", "width"), _length("20 in"), "Small")
    whole(driver)
    assert "Stopped" not in said(driver)
    assert kept >= 0
    assert table.rowCount() > 0


def test_a_search_ends_with_its_window(driver):
    driver.window.session.set(("choosing", "budget"), None, "Any money")
    driver.window.session.set(("choosing", "width"), None, "Any face")
    choosing(driver, "Front")
    view = driver.window.stations["Options"].views["Front"]
    driver.until(lambda: view.worker.busy and view.found is not None)
    driver.close_unsaved()
    assert not view.worker.busy
    driver.calm()
    assert not view.found.found.whole, "the rest was worked out for nobody"


def test_bounds_that_leave_nothing_say_which_to_loosen(driver):
    choosing(driver, "Bounds")
    driver.enter("Parts cost at most", "a little")
    assert driver.window.session.build.choosing.budget.si == 220
    driver.enter("Face no wider than", "3")
    assert driver.window.session.build.choosing.width.si == pytest.approx(3 * 0.0254)
    driver.turn("Front")
    driver.until(lambda: "Nothing new is left" in said(driver), 60)
    assert "wider than its face may be" in said(driver)
    told = said(driver).split("“Face no wider than” to ")[1].split(" in")[0]
    driver.turn("Bounds")
    driver.enter("Face no wider than", told)
    driver.turn("Front")
    assert whole(driver).found.space.left > 0


def test_the_ladder_is_climbed_a_step(driver):
    choosing(driver, "Ladder")
    table = driver.find("Cheapest next steps", QTableWidget)
    driver.until(lambda: table.rowCount() > 1, 60)
    assert "No ladder leads to Hill-climb, full power" in said(driver)
    step, stands = table.item(0, 0).text(), table.item(0, 2).text()
    before = driver.window.session.build
    driver.pick_row("Cheapest next steps", step)
    driver.until(lambda: driver.window.session.build is not before)
    ladder = driver.window.stations["Options"].views["Ladder"]
    driver.until(lambda: ladder.found is not None and ladder.answers is driver.window.session.build, 60)
    rungs = ladder.found.rungs
    unit = 1.8
    assert (rungs[0].stands - rungs[0].gain) * unit == pytest.approx(
        float(stands.split()[0].replace("−", "-")), abs=0.1
    )
    assert all(rung.act.label != step for rung in rungs)
    # Where a case is out of reach nothing says to leave the car as it is.
    ladder.show_found(Steps((), ("Idle",)))
    assert "leave it as it is" not in ladder.why.text()
    ladder.show_found(Steps((), ()))
    assert "leave it as it is" in ladder.why.text()
