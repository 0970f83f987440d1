"""The way between stations: a tape measure with the stations as its marks, each with its state by shape and word."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QFont, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QAbstractButton, QHBoxLayout, QWidget

from keelroom.gui.station import State, Station
from keelroom.gui.theme.palette import Palette

MARK_WIDTH, HEIGHT = 98, 50


class Mark(QAbstractButton):
    """One station on the tape."""

    def __init__(self, tape: Tape, station: Station, number: int) -> None:
        super().__init__(tape)
        self.tape, self.station, self.title, self.number = tape, station, station.name, number
        self.state = State("not started")
        self.setCheckable(True)
        self.setAutoExclusive(True)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setFixedSize(MARK_WIDTH, HEIGHT)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.show_state(self.state)

    def show_state(self, state: State) -> None:
        if state == self.state and self.accessibleName():
            return
        self.state = state
        words = f"{state.number} {state.word}" if state.number else state.word
        self.setAccessibleName(f"{self.title} station: {words}")
        self.setToolTip(f"{self.title} (Ctrl+{self.number}): {words}\n{self.station.purpose}")
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(MARK_WIDTH, HEIGHT)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        p = self.tape.palette_now
        painter.fillRect(self.rect(), QColor(p.tape))
        painter.setPen(QPen(QColor(p.tape_ink), 1))
        for i in range(16):
            x = MARK_WIDTH * i / 16
            long = 14 if i == 0 else 9 if i % 8 == 0 else 6 if i % 4 == 0 else 4
            painter.drawLine(QPointF(x + 0.5, 0), QPointF(x + 0.5, long))
        if self.isChecked():
            painter.fillRect(QRectF(0, HEIGHT - 4, MARK_WIDTH, 4), QColor(p.tape_ink))
        if self.hasFocus():
            painter.drawRect(self.rect().adjusted(2, 2, -3, -3))
        font = QFont("Open Sans", 11)
        font.setWeight(QFont.Weight.DemiBold if self.isChecked() else QFont.Weight.Normal)
        painter.setFont(font)
        painter.drawText(QRectF(9, 10, MARK_WIDTH - 12, 20), Qt.AlignmentFlag.AlignVCenter, self.title)
        self._shape(painter, QPointF(15, 37))
        painter.setFont(QFont("Open Sans", 9))
        words = f"{self.state.number} {self.state.word}" if self.state.number else self.state.word
        painter.drawText(QRectF(25, 28, MARK_WIDTH - 27, 18), Qt.AlignmentFlag.AlignVCenter, words)

    def _shape(self, painter: QPainter, at: QPointF) -> None:
        """Ring not started, half disc open questions, disc settled, triangle problem."""
        ink = QColor(self.tape.palette_now.tape_ink)
        painter.setPen(QPen(ink, 1.6))
        painter.setBrush(ink if self.state.word == "settled" else Qt.BrushStyle.NoBrush)
        if self.state.word.startswith("problem"):
            painter.setBrush(ink)
            painter.drawPolygon(QPolygonF([at + QPointF(0, -6), at + QPointF(6, 5), at + QPointF(-6, 5)]))
        else:
            painter.drawEllipse(at, 5, 5)
            if self.state.word.startswith("open"):
                painter.setBrush(ink)
                painter.drawPie(QRectF(at.x() - 5, at.y() - 5, 10, 10), 90 * 16, 180 * 16)


class Tape(QWidget):
    """The marks in a row."""

    def __init__(self, palette: Palette, stations: tuple[Station, ...], go: Callable[[str], None]) -> None:
        super().__init__()
        self.palette_now = palette
        self.setAccessibleName("Stations")
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        self.marks: dict[str, Mark] = {}
        for number, station in enumerate(stations, 1):
            mark = Mark(self, station, number)
            mark.clicked.connect(lambda _checked, name=station.name: go(name))
            self.marks[station.name] = mark
            row.addWidget(mark)
        self.setFixedHeight(HEIGHT)

    def set_palette(self, palette: Palette) -> None:
        self.palette_now = palette
        for mark in self.marks.values():
            mark.update()
