"""Small makers of labels and buttons, so that roles and accessible names are set the same way everywhere."""

from __future__ import annotations

import re
from collections.abc import Callable
from html import escape

from PyQt6.QtCore import QEvent, QPointF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QKeySequence, QMouseEvent, QPainter, QPen, QPolygonF, QResizeEvent
from PyQt6.QtWidgets import (
    QAbstractButton,
    QApplication,
    QComboBox,
    QLabel,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QToolButton,
    QWidget,
)

from keelroom.gui.theme.icons import paint_icon

USUAL_TYPE = 10.0
"""[pt]"""
_MEASURE = re.compile(r"(?<=\d) (?=\d+/\d|[°A-Za-zµΩ²%]{1,6}[²³]?(?:/|\b))")
"""the gap inside a measure: between whole inches and their fraction, between a number and its unit"""


def plain_tip(text: str) -> str:
    """A tool tip that shows the text for what it is: names and file contents may look like marks of layout, and must
    not become one."""
    return f"<span>{escape(text)}</span>".replace("\n", "<br>") if "<" in text else text


def unbroken(text: str) -> str:
    """The text with its measures held together: no line ends inside one."""
    return _MEASURE.sub("\u00a0", text)


class Words(QLabel):
    """A label over several lines that never breaks a measure; what it says is read back as it was given."""

    def __init__(self, text: str, role: str = "") -> None:
        super().__init__()
        self.given = ""
        self.setProperty("role", role)
        self.setWordWrap(True)
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setText(text)

    def setText(self, text: str | None) -> None:
        self.given = text or ""
        super().setText(unbroken(self.given))

    def text(self) -> str:
        return self.given


class Whole(Words):
    """Words over several lines that keep the height they need at their width, whatever else would like it."""

    def minimumSizeHint(self) -> QSize:
        high = self.heightForWidth(self.width()) if self.width() > 0 and self.given else 0
        return QSize(super().minimumSizeHint().width(), max(high, 0))

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self.updateGeometry()


class Pressed(Words):
    """Words that can be pressed."""

    pressed = pyqtSignal()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.pressed.emit()


class Elided(QLabel):
    """A label of one line that says as much as there is room for, and all of it in its tool tip."""

    def __init__(self, text: str = "", role: str = "") -> None:
        super().__init__()
        self.given = ""
        self.setProperty("role", role)
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self.setText(text)

    def setText(self, text: str | None) -> None:
        self.given = text or ""
        self._fit()

    def text(self) -> str:
        return self.given

    def resizeEvent(self, event: object) -> None:
        self._fit()

    def _fit(self) -> None:
        shown = self.fontMetrics().elidedText(self.given, Qt.TextElideMode.ElideRight, self.width())
        super().setText(shown)
        self.setToolTip(plain_tip(self.given) if shown != self.given else "")


def label(text: str, role: str = "", wrap: bool = False) -> QLabel:
    made = Words(text) if wrap else QLabel(text)
    made.setProperty("role", role)
    made.setWordWrap(wrap)
    made.setTextInteractionFlags(Qt.TextInteractionFlag.NoTextInteraction)
    made.setTextFormat(Qt.TextFormat.PlainText)
    return made


def button(text: str, act: Callable[[], object], name: str = "", role: str = "", tip: str = "") -> QPushButton:
    made = QPushButton(text)
    made.setProperty("role", role)
    made.setAccessibleName(name or text)
    made.setToolTip(tip)
    made.setAutoDefault(False)
    made.clicked.connect(lambda _checked=False: act())
    return made


def chip(text: str, act: Callable[[], object], tip: str = "") -> QToolButton:
    made = QToolButton()
    made.setText(text)
    made.setCheckable(True)
    made.setAutoExclusive(True)
    made.setProperty("role", "chip")
    made.setAccessibleName(text)
    made.setToolTip(tip)
    made.setFocusPolicy(Qt.FocusPolicy.TabFocus)
    made.toggled.connect(lambda on: act() if on or not made.autoExclusive() else None)
    return made


def set_quietly(made: QAbstractButton, on: bool) -> None:
    """Check a button, or not, without its act. A checkable button acts when it is toggled: a screen reader toggles it,
    and that is no click."""
    before = made.blockSignals(True)
    made.setChecked(on)
    made.blockSignals(before)


def replace_body(area: QScrollArea, body: QWidget) -> None:
    """Put `body` into a scroll area; the old one goes later, because a control in it may be the one that asked.

    What is half typed in the old one goes with it: a field that is taken away loses the cursor and would enter it, in
    the midst of an undo.
    """
    there = area.widget()
    for line in there.findChildren(QLineEdit) if there is not None else ():
        line.blockSignals(True)
    old = area.takeWidget()
    if old is not None:
        old.hide()
        old.deleteLater()
    area.setWidget(body)


class Line(QLineEdit):
    """A line of text that keeps undo to itself only while something is being typed; after that it is the window's."""

    def event(self, event: QEvent | None) -> bool:
        if (
            isinstance(event, QKeyEvent)
            and event.type() == QEvent.Type.ShortcutOverride
            and not self.isModified()
            and any(event.matches(key) for key in (QKeySequence.StandardKey.Undo, QKeySequence.StandardKey.Redo))
        ):
            event.ignore()
            return False
        return super().event(event)


class ChoiceBox(QComboBox):
    """A combo box that draws its own arrow: styled ones lose the platform's."""

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.setMinimumContentsLength(8)

    def showPopup(self) -> None:
        """The list is as wide as its longest choice, whatever room the box has."""
        view = self.view()
        if view is not None:
            view.setMinimumWidth(view.sizeHintForColumn(0) + 24)
        super().showPopup()

    def wheelEvent(self, event: object) -> None:
        """Scrolling the page must not change a value under the pointer."""
        event.ignore()  # type: ignore[attr-defined]

    def paintEvent(self, event: object) -> None:
        super().paintEvent(event)  # type: ignore[arg-type]
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(self.palette().text().color(), 1.6))
        x, y = self.width() - 13, self.height() / 2
        painter.drawPolyline(QPolygonF([QPointF(x - 4, y - 2), QPointF(x, y + 2.5), QPointF(x + 4, y - 2)]))


def by_type(pixels: float) -> int:
    """Pixels at the usual size of type, for the size that is set."""
    return round(pixels * QApplication.font().pointSizeF() / USUAL_TYPE)


class LevelMark(QWidget):
    """A finding's level as its shape."""

    def __init__(self, level: str, colour: str) -> None:
        super().__init__()
        self.level, self.colour = level, colour
        self.setFixedSize(14, 14)

    def show_level(self, level: str, colour: str) -> None:
        self.level, self.colour = level, colour
        self.update()

    def paintEvent(self, event: object) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        paint_icon(painter, f"level-{self.level}", self.colour, QPointF(7, 7))


def restyle(widget: QWidget, name: str, value: object) -> None:
    """Set a dynamic property the style sheet looks at, and have it looked at."""
    if widget.property(name) != value:
        widget.setProperty(name, value)
        style = widget.style()
        if style is not None:
            style.unpolish(widget)
            style.polish(widget)
