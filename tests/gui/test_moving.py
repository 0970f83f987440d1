"""While something is dragged its figures follow; findings and bands are worked out when the hand rests."""

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from keelroom.assess.assess import assess, first_wave
from tests.conftest import DEMO
from tests.gui.driver import opened


@pytest.fixture
def driver():
    driver = opened(DEMO)
    yield driver
    driver.dispose()


def picked_up(driver):
    """The first fan under the pressed mouse, and where that is."""
    bay, fan = driver.window.bay, driver.window.session.build.package.fans[0]
    at = bay.view.map(fan.x.si, fan.y.si)
    place = QPoint(int(at[0]), int(at[1]))
    QTest.mousePress(bay, Qt.MouseButton.LeftButton, pos=place)
    return bay, place


def agrees(shown, fresh):
    pairs = [(a.figures, b.figures) for a, b in zip(shown.cases, fresh.cases, strict=True)]
    return all(
        a.temperature == pytest.approx(b.temperature, rel=1e-6)
        and a.fan_current == pytest.approx(b.fan_current, rel=1e-6)
        for a, b in pairs
    )


def test_temperatures_follow_the_hand_and_the_judgement_waits_for_it(driver):
    session = driver.window.session
    session.settings.choose_unit("heat", "hp")  # whatever units are chosen apart, a hand moves by sixteenths
    before = session.assessment
    bay, place = picked_up(driver)
    for step in range(1, 6):
        QTest.mouseMove(bay, place + QPoint(-9 * step, 5 * step))
    moving = session.assessment
    assert not moving.judged
    assert moving.findings == before.findings
    assert agrees(moving, assess(session.build)), "no figure of a moving part may be an old one"
    QTest.mouseRelease(bay, Qt.MouseButton.LeftButton, pos=place)
    rested, fresh = session.assessment, assess(session.build)
    assert rested.judged
    assert {finding.code for finding in rested.findings} == {
        finding.code for finding in first_wave(session.build).findings
    }
    for a, b in zip(rested.cases, fresh.cases, strict=True):
        assert (a.figures.low, a.figures.chance) == (
            pytest.approx(b.figures.low, rel=1e-5),
            pytest.approx(b.figures.chance, abs=1e-4),
        )


def test_a_hand_that_stops_is_judged_before_it_lets_go(driver):
    session = driver.window.session
    bay, place = picked_up(driver)
    QTest.mouseMove(bay, place + QPoint(-40, 20))
    assert not session.assessment.judged
    driver.until(lambda: session.assessment.judged)
    QTest.mouseMove(bay, place + QPoint(-44, 20))
    assert not session.assessment.judged
    assert session.whole().complete, "what leaves the window is judged"
    QTest.mouseRelease(bay, Qt.MouseButton.LeftButton, pos=place)


def test_undo_in_mid_drag_is_judged_at_once(driver):
    session = driver.window.session
    findings = session.assessment.findings
    bay, place = picked_up(driver)
    QTest.mouseMove(bay, place + QPoint(-60, 30))
    session.store.undo()
    assert session.assessment.judged
    assert [finding.code for finding in session.assessment.findings] == [finding.code for finding in findings]
    QTest.mouseRelease(bay, Qt.MouseButton.LeftButton, pos=place)
    assert session.store.undo_label == ""
