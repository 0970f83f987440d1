"""Small parts of the window on their own: chart ticks and words, overlay colours, the worker's newest-wins, kept
stages."""

import math

import numpy as np
import pytest
from PyQt6.QtCore import QPointF, QThreadPool
from PyQt6.QtWidgets import QApplication

from keelroom.assess.questions.airmap import air_map
from keelroom.document.file import load
from keelroom.gui.session.worker import Worker
from keelroom.gui.theme.palette import DARK, LIGHT
from keelroom.gui.widgets.air_overlay import OverlayPainter, overlay_of, scale_of
from keelroom.gui.widgets.chart import Chart, ChartMark, ChartPicture, Series, ticks
from tests.conftest import DEMO
from tests.gui.driver import opened


@pytest.mark.parametrize(("low", "high"), [(0, 1), (180, 260), (-0.5, 1.0), (0.001, 0.0023), (5, 5)])
def test_ticks_are_round_and_inside(low, high):
    found = ticks(low, high, 6)
    assert found
    assert all(low - 1e-9 <= value <= high + 1e-9 for value in found)
    assert len(found) <= 8


@pytest.fixture
def session():
    driver = opened(DEMO)
    yield driver.window.session
    driver.dispose()


def test_a_chart_says_in_words_what_it_draws(session):
    chart = Chart(session, "Anything")
    chart.show_picture(
        ChartPicture(
            (Series("a", (1.0, 2.0), (3.0, math.inf)),), (ChartMark(1.0, 3.0, "here", "now"),), across="in", up="°F"
        )
    )
    assert chart.as_rows()[0] == ["in", "a"]
    assert ["here", "1", "3"] in chart.as_rows()
    chart.resize(300, 160)
    assert not chart.grab().isNull(), "a value without end is drawn off the top, not tripped over"
    chart.show_picture(ChartPicture(note="Nothing yet"))
    assert chart.as_text() == "Nothing yet"


@pytest.mark.parametrize("palette", [LIGHT, DARK], ids=lambda p: p.name)
def test_tiles_deepen_with_the_value_and_their_letters_stand_out(palette):
    build = load(DEMO)
    overlay = overlay_of(air_map(build, "idle"), "speed", "us")
    painter = OverlayPainter(overlay, build.package, palette)
    low, high = scale_of(overlay)
    assert low == 0.0

    def luminance(colour):
        channels = [c / 12.92 if c <= 0.03928 else ((c + 0.055) / 1.055) ** 2.4 for c in colour.getRgbF()[:3]]
        return 0.2126 * channels[0] + 0.7152 * channels[1] + 0.0722 * channels[2]

    shades = [luminance(painter.colour(v)) for v in np.linspace(low, high, 7)]
    assert shades == sorted(shades, reverse=palette is LIGHT)
    for value in np.linspace(low, high, 15):
        a, b = sorted((luminance(painter.colour(value)), luminance(painter.ink(value))))
        assert (b + 0.05) / (a + 0.05) >= 3.4, "printed values stay legible on every tile"
    assert painter.under(QPointF(-1.0, 0.1)) == ""
    assert painter.under(QPointF(0.33, 0.2)).endswith("ft/min")


def test_an_even_face_looks_even():
    build = load(DEMO)
    found = air_map(build, "idle")
    flat = found._replace(speed=np.full_like(found.speed, 2.0) + 1e-4 * np.arange(24))
    painter = OverlayPainter(overlay_of(flat, "speed", "si"), build.package, LIGHT)
    a, b = painter.colour(2.0), painter.colour(2.0023)
    assert max(abs(x - y) for x, y in zip(a.getRgb(), b.getRgb(), strict=True)) <= 1


def test_only_the_newest_answer_counts(session):
    worker, heard = Worker(session), []
    worker.answered.connect(heard.append)
    for number in range(5):
        worker.ask(lambda number=number: number)
    QThreadPool.globalInstance().waitForDone()
    QApplication.processEvents()
    assert heard == [4]
    worker.ask(lambda: 1 / 0)
    said = []
    worker.failed.connect(said.append)
    QThreadPool.globalInstance().waitForDone()
    QApplication.processEvents()
    assert "ZeroDivisionError" in said[0]
    worker.ask(lambda: 7)
    worker.cancel()
    QThreadPool.globalInstance().waitForDone()
    QApplication.processEvents()
    assert heard == [4]


def test_stations_show_the_pages_they_declare(demo_window):
    from keelroom.gui.registry import STATIONS

    for declared in STATIONS:
        demo_window.window.show_station(declared.name)
        view = demo_window.window.stations[declared.name]
        assert {page.title for page in view.pages()} == set(declared.parts), declared.name
        assert len(declared.pages) <= 5, declared.name
        assert len(set(declared.parts)) == len(declared.parts), declared.name
