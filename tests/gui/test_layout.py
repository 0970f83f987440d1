"""Every page of every station, in both systems of units, on four screens and with two sizes of type: nothing cut,
nothing lying on another, nothing scrolled sideways, every control with a name; and every ink of every palette readable
on its ground."""

import itertools
import re
from pathlib import Path

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor, QFont
from PyQt6.QtWidgets import (
    QAbstractButton,
    QAbstractScrollArea,
    QApplication,
    QCheckBox,
    QComboBox,
    QLabel,
    QLineEdit,
    QPlainTextEdit,
    QPushButton,
    QScrollBar,
    QSizePolicy,
    QSlider,
    QToolButton,
    QWidget,
)

from keelroom.gui.registry import STATIONS
from keelroom.gui.theme.palette import CONTRAST, DARK, LIGHT, level_colour, style_sheet
from keelroom.gui.widgets.handle import Handle
from keelroom.gui.widgets.page_view import PageView
from keelroom.gui.widgets.text import Elided
from tests.conftest import DEMO
from tests.gui.driver import opened, shown
from tests.long import long

CONTROLS = QAbstractButton | QComboBox | QLineEdit | QPlainTextEdit | QSlider


def cut(window):
    """Texts that have not the room they need."""
    found = []
    for label in shown(window, QLabel):
        if isinstance(label, Elided) or not label.text():
            continue
        if label.wordWrap():
            if label.heightForWidth(label.width()) > label.height() + 2:
                found.append(("label", label.text()[:60], label.heightForWidth(label.width()), label.height()))
        elif label.fontMetrics().horizontalAdvance(label.text()) > label.width() + 2:
            found.append(
                ("label", label.text()[:60], label.fontMetrics().horizontalAdvance(label.text()), label.width())
            )
    for made in shown(window, QPushButton | QToolButton | QCheckBox):
        words = made.fontMetrics().horizontalAdvance(made.text().replace("&", ""))
        if made.text() and made.property("role") != "origin" and words > made.width() - 2:
            found.append(("button", made.text()[:60], words, made.width()))
        if (
            made.sizePolicy().horizontalPolicy() != QSizePolicy.Policy.Ignored
            and made.property("role") != "origin"
            and made.width() < made.minimumSizeHint().width() - 1
        ):
            found.append(("button", made.text()[:60], made.minimumSizeHint().width(), made.width()))
    return found


def sideways(window):
    """Areas that scroll, or are cut, sideways."""
    found = [
        (type(area).__name__, area.accessibleName())
        for area in shown(window, QAbstractScrollArea)
        if area.horizontalScrollBar().maximum() > 0
    ]
    for view in shown(window, PageView):
        body, port = view.widget(), view.viewport()
        if body.minimumSizeHint().width() > port.width():
            found.append(("page", body.minimumSizeHint().width(), port.width()))
    return found


def lying_on_another(window):
    """Brothers whose places overlap."""
    found = []
    for parent in shown(window):
        if parent.layout() is None:
            continue
        own = [
            made
            for made in parent.findChildren(QWidget, options=Qt.FindChildOption.FindDirectChildrenOnly)
            if isinstance(made, QWidget)
            and made.isVisible()
            and not isinstance(made, (Handle, QScrollBar))
            and not made.isWindow()
        ]
        for one, other in itertools.combinations(own, 2):
            both = one.geometry().intersected(other.geometry())
            if both.width() > 1 and both.height() > 1:
                found.append((type(one).__name__, one.accessibleName(), type(other).__name__, other.accessibleName()))
    return found


def nameless(window):
    return [
        (type(made).__name__, made.parent().accessibleName() if isinstance(made.parent(), QWidget) else "")
        for made in shown(window, CONTROLS)
        if not made.accessibleName()
        and not getattr(made, "text", lambda: "")()
        and not made.objectName().startswith("qt_")
        and not isinstance(made.parent(), QComboBox)
    ]


def looked_over(window):
    """All that is wrong with the page that is shown."""
    looks = (("cut", cut), ("sideways", sideways), ("overlaps", lying_on_another), ("nameless", nameless))
    return [(name, fault) for name, look in looks for fault in look(window)]


LOOKS = (("us", (1024, 600), 10), ("si", (1280, 690), 12), ("us", (1366, 740), 10), ("us", (1920, 1050), 10))
"""units, window on the screens there are, less their title bars [px], size of the type [pt]; the smallest daily, all
of them in `make soak`"""


@pytest.mark.parametrize(("system", "size", "points"), LOOKS[: long("looks", 1)])
def test_nothing_is_cut_and_nothing_lies_on_another_on_any_page(system, size, points):
    application = QApplication.instance()
    before = application.font() if application else None
    opened(DEMO).dispose()
    QApplication.instance().setFont(QFont("Open Sans", points))
    driver = opened(DEMO)
    try:
        window = driver.window
        window.resize(*size)
        window.session.settings.choose_unit("heat", "BTU/min")
        window.session.set_units(system)
        faults = []
        for station in STATIONS:
            for page in station.parts:
                window.show_station(station.name)
                window.stations[station.name].choose(page)
                for _ in range(3):
                    QApplication.processEvents()
                if not window.isActiveWindow():  # something was shown before it had its place, as a window of its own
                    faults.append((station.name, page, "took the window's place"))
                    window.activateWindow()
                if looked_over(window):
                    driver.settle()  # an answer of the worker may have come between two looks
                    faults += [(station.name, page, *fault) for fault in looked_over(window)]
        assert not faults, "\n".join(map(str, dict.fromkeys(faults)))
    finally:
        QApplication.instance().setFont(before or QFont("Open Sans", 10))
        driver.dispose()


def contrast(one, other):
    def light(colour):
        parts = [value / 255 for value in QColor(colour).getRgb()[:3]]
        r, g, b = (part / 12.92 if part <= 0.03928 else ((part + 0.055) / 1.055) ** 2.4 for part in parts)
        return 0.2126 * r + 0.7152 * g + 0.0722 * b

    a, b = sorted((light(one), light(other)))
    return (b + 0.05) / (a + 0.05)


@pytest.mark.parametrize("palette", [LIGHT, DARK, CONTRAST], ids=["light", "dark", "contrast"])
def test_every_ink_is_readable_on_its_ground(palette):
    """4.5 to 1 for text. Source: WCAG 2.1, success criterion 1.4.3."""
    p = palette
    grounds = (p.paper, p.panel, p.raised)
    for ink in (
        p.ink,
        p.faint,
        p.good,
        p.doubt,
        p.bad,
        p.accent,
        *(level_colour(p, level) for level in ("problem", "doubt", "note")),
    ):
        assert min(contrast(ink, ground) for ground in grounds) >= 4.5, ink
    assert contrast(p.on_accent, p.accent) >= 4.5
    assert contrast(p.tape_ink, p.tape) >= 4.5


def test_the_high_contrast_theme_is_seven_to_one():
    """Source: WCAG 2.1, success criterion 1.4.6."""
    p = CONTRAST
    for ink in (p.ink, p.faint, p.good, p.doubt, p.bad, p.accent):
        assert min(contrast(ink, ground) for ground in (p.paper, p.panel, p.raised)) >= 7.0, ink
    assert contrast(p.on_accent, p.accent) >= 7.0
    assert contrast(p.tape_ink, p.tape) >= 7.0


@pytest.mark.parametrize("palette", [LIGHT, DARK, CONTRAST], ids=["light", "dark", "contrast"])
def test_every_picture_a_style_sheet_names_is_there(palette):
    """A tick that cannot be loaded leaves a box that looks empty."""
    named = re.findall(r"url\(([^)]+)\)", style_sheet(palette))
    assert named
    assert all(Path(name).is_file() for name in named), named
