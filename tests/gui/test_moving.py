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


def test_a_cooler_is_dragged_by_its_edge_catches_on_the_face_and_is_nudged(driver):
    """By hand: the demo's condenser is 20 by 13 in on a face of 26 by 17. Its right edge meets the face's at 6 in from
    the left, its top the face's at 4 in from the bottom."""
    driver.click("Core station")
    driver.turn("Size")
    window, inch = driver.window, 0.0254
    bay, session = window.bay, window.session

    def condenser():
        return next(one for one in session.build.package.coolers if one.id == "condenser")

    def on(x, y):
        at = bay.view.map(x * inch, y * inch)
        return QPoint(round(at[0]), round(at[1]))

    assert (condenser().left.si / inch, condenser().bottom.si / inch) == pytest.approx((2.0, 2.5))
    start = on(2.0, 15.0)  # on its left edge, off the fans
    driver.drag(bay, start, start + (on(6.05, 16.55) - on(2.0, 15.0)))
    assert (condenser().left.si / inch, condenser().bottom.si / inch) == pytest.approx((6.0, 4.0))
    assert session.store.undo_label == "Move condenser"
    assert condenser().left.origin == "measured"
    session.store.undo()
    assert condenser().left.si / inch == pytest.approx(2.0), "one drag is one step"
    handle = next(made for name, made in bay.handles.items() if name == "condenser")
    assert handle.accessibleName().startswith("Condenser: 2 in from left, 2 1/2 in from bottom")
    handle.setFocus()
    QTest.keyClick(handle, Qt.Key.Key_Right)
    assert condenser().left.si / inch == pytest.approx(2.0625)
    fans = [fan.x.si for fan in session.build.package.fans]
    driver.drag(bay, on(13.0, 8.0), on(14.0, 9.0))
    assert condenser().left.si / inch == pytest.approx(2.0625), "inside it nothing is taken hold of"
    assert [fan.x.si for fan in session.build.package.fans] == fans
