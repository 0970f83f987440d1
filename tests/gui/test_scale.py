"""Large builds stay usable: fields are made when they are seen, hidden pages change their theme when they are shown,
failures say so."""

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QScrollArea, QWidget

from keelroom.document.file import save
from keelroom.gui.stations.air import worth as worth_page
from keelroom.gui.stations.core import compare as compare_page
from keelroom.gui.theme.palette import DARK, LIGHT
from keelroom.gui.widgets.page_view import AT_ONCE, PageView
from keelroom.gui.widgets.panels.findings import FINDINGS_AT_ONCE, Card
from tests.conftest import DEMO
from tests.gui.driver import opened
from tests.soak.scale import with_circuits


@pytest.fixture
def crowded(tmp_path):
    path = tmp_path / "crowded.keelroom"
    save(with_circuits(200), path)
    driver = opened(path)
    yield driver
    driver.dispose()


def test_two_hundred_circuits_make_only_what_is_seen(crowded):
    window = crowded.window
    window.show_station("Electrical")
    crowded.settle()
    view = window.stations["Electrical"].views["Circuits"]
    assert isinstance(view, PageView)
    rows = sum(len(section.group.rows) for section in view.sections)
    assert rows > 5000
    assert len(view.fields()) < 2 * AT_ONCE
    assert len([card for card in window.findChildren(Card)]) == FINDINGS_AT_ONCE

    # what is asked for is made, however far down, and can be typed into
    last = window.session.build.package.circuits[-1]
    path = ("packages", "p1", "circuits", last.id, "feed", "length")
    window.go_to(path)
    crowded.settle()
    field = view.field_at(path)
    assert field.isVisible()
    assert field.isAncestorOf(window.focusWidget())
    crowded.enter(field.edit.accessibleName(), "77 in")
    assert window.session.build.package.circuits[-1].feed.length.as_typed == "77 in"

    # what is scrolled to is made
    bar = view.verticalScrollBar()
    bar.setValue(bar.maximum() // 2)
    crowded.settle()
    seen = [s for s in view.sections if not s.visibleRegion().isEmpty()]
    assert seen
    assert all(section.made for section in seen)


def test_sections_that_stay_keep_their_fields(crowded):
    window = crowded.window
    window.show_station("Electrical")
    view = window.stations["Electrical"].views["Circuits"]
    before = {section.group: section for section in view.sections if section.made}
    crowded.click("Add a circuit")
    kept = [section for section in view.sections if section.made and before.get(section.group) is section]
    assert len(kept) > 4, "a new circuit remakes its own section, not the others"


def test_more_findings_are_shown_when_asked_for(crowded):
    crowded.click("Show more findings")
    assert len([card for card in crowded.window.findChildren(Card)]) == 2 * FINDINGS_AT_ONCE


def ground(widget: QWidget) -> str:
    return widget.grab().toImage().pixelColor(3, 3).name()


def test_hidden_pages_change_their_theme_when_they_are_shown(demo_window):
    driver, window = demo_window, demo_window.window
    brief = window.stations["Brief"]
    for title in ("Engine", "Vehicle"):
        brief.choose(title)
    driver.settle()
    hidden, shown = brief.views["Engine"], brief.views["Vehicle"]
    driver.key(Qt.Key.Key_F9)
    assert ground(shown) == DARK.panel
    assert LIGHT.ink in hidden.styleSheet(), "nothing is spent on what nobody sees"
    brief.choose("Engine")
    driver.settle()
    assert DARK.ink in hidden.styleSheet()
    assert ground(hidden) == DARK.panel
    driver.key(Qt.Key.Key_F9)
    assert ground(hidden) == LIGHT.panel
    assert not window.styleSheet(), "no sheet spans more than its region"


@pytest.mark.parametrize(
    ("station", "page", "module", "name"),
    [("Air", "Worth", worth_page, "worth_table"), ("Core", "Choose", compare_page, "candidates")],
)
def test_a_workers_failure_is_said_on_the_page_that_asked(demo_window, monkeypatch, capfd, station, page, module, name):
    def fails(*_args):
        raise ZeroDivisionError("oh")

    monkeypatch.setattr(module, name, fails)
    demo_window.window.show_station(station)
    demo_window.window.stations[station].choose(page)
    demo_window.settle()
    assert demo_window.shows("Could not be worked out: something went wrong inside (ZeroDivisionError")
    assert "ZeroDivisionError" in capfd.readouterr().err, "and the whole of it where a developer looks"
    assert isinstance(demo_window.window.stations[station].views[page], (QScrollArea, QWidget))
    assert DEMO.exists()
