"""A car that ran hot: told in its own words, explained, looked at, entered, mended."""

import pytest
from PyQt6.QtWidgets import QLabel

from keelroom.assess.causes import CAUSES
from keelroom.assess.faults import size_words
from keelroom.gui.widgets.sought import SoughtPage


@pytest.fixture
def driver(settled_demo):
    return settled_demo


def page_of(driver):
    driver.click("Brief station")
    driver.turn("Explain")
    page = driver.window.stations["Brief"].views["Explain"]
    assert isinstance(page, SoughtPage)
    driver.until(lambda: page.answers is driver.window.session.build and not page.worker.busy, 60)
    return page


def name_of(ident):
    return next(cause.name for cause in CAUSES if cause.id == ident)


def words(page):
    return [one.text() for one in page.findChildren(QLabel)]


def test_230_at_a_light_is_explained_looked_at_entered_and_mended(driver):
    """Nothing said, nothing explained; a wrong reading is refused where it was typed; 240 °F at a light and fine on the
    road bring the first finding of all and explanations with odds; what a look cleared goes; what was found is an entry
    of the car as found; mended, the page asks for another drive."""
    session = driver.window.session
    session.set(("brief", "symptoms"), (), "No symptoms")
    session.set(("logbook", "trials"), (), "No trials")
    assert any("Nothing is said yet" in text for text in words(page_of(driver)))
    driver.turn("Before")
    driver.choose("Idle, A/C on", "Climbed, ran hot")
    field = driver.enter("Idle, A/C on: gauge read", "very hot")
    assert field.text() == "very hot", "what was typed stays"
    assert session.build.duty_case("idle").seen_at is None
    driver.enter("Idle, A/C on: gauge read", "900")
    assert session.build.duty_case("idle").seen_at is None
    driver.enter("Idle, A/C on: gauge read", "240")
    driver.choose("Steady cruise", "Stayed, or never ran hot")
    driver.settle()
    assert session.assessment.findings[0].code == "unlike_seen"
    page = page_of(driver)
    shown = words(page)
    assert any("your car does what this build says it cannot" in text for text in shown)
    assert "Look here first" in shown
    first = page.answer.look.cause
    driver.click(f"{name_of(first)}: looked at, fine")
    page = page_of(driver)
    assert first not in {one.cause for one in page.answer.suspects}
    best = page.answer.explanations[0]
    assert best.faults
    before = session.build
    fault = best.faults[0]
    driver.click(f"{name_of(fault.cause)}: {size_words(fault.size, session.system)}: found, enter it")
    assert session.build.of_kind("as_found") != before.of_kind("as_found")
    driver.settle()
    page = page_of(driver)
    assert page.answer is not None
    session.store.undo()
    assert session.build == before
    assert page.viewport().width() >= page.widget().width(), "no line is cut"
    page_of(driver)
    driver.click(f"{name_of(fault.cause)}: {size_words(fault.size, session.system)}: found, enter it")
    driver.settle()
    assert any("Found, and entered in the car as found" in text for text in words(page_of(driver)))
    driver.click(f"{name_of(fault.cause)}: mended")
    driver.settle()
    assert session.build.packages == before.packages, "what stood before stands again"
    assert "unlike_seen" not in {finding.code for finding in session.assessment.findings}
    assert any("drive it again first" in text for text in words(page_of(driver)))


def test_a_car_that_cannot_be_worked_out_is_not_said_to_have_been_fine(driver):
    session = driver.window.session
    found = session.build.of_kind("as_found").id
    session.set(("duty_cases", "idle", "seen"), "hot", "What it did")
    session.set(("packages", found, "core", "face_width"), None, "Not measured")
    assert any("cannot be worked out in those cases yet" in text for text in words(page_of(driver)))
    assert session.assessment.unlike == ()
