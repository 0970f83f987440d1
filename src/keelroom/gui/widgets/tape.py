"""The way between stations: a tape measure hung down the window's edge, the stations its marks, each with its state
by shape and word."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QFont, QKeyEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QAbstractButton, QSizePolicy, QVBoxLayout, QWidget

from keelroom.gui.station import Station, StationState
from keelroom.gui.theme.icons import paint_icon
from keelroom.gui.theme.palette import Palette

WIDTH, HEIGHT, LEAST_HEIGHT = 114, 50, 44
EIGHTHS = 8


def ruled(painter: QPainter, palette: Palette, width: int, height: int) -> None:
    """A stretch of tape of one mark's length: its ticks in eighths, the long one where the mark begins."""
    painter.fillRect(0, 0, width, height, QColor(palette.tape))
    painter.setPen(QPen(QColor(palette.tape_ink), 1))
    for eighth in range(EIGHTHS):
        y = height * eighth / EIGHTHS
        painter.drawLine(QPointF(0, y + 0.5), QPointF(12 if eighth == 0 else 7 if eighth == 4 else 4, y + 0.5))


class TapeMark(QAbstractButton):
    """One station on the tape."""

    def __init__(self, tape: Tape, station: Station, number: int) -> None:
        super().__init__(tape)
        self.tape, self.station, self.title, self.number = tape, station, station.name, number
        self.state = StationState("not started")
        self.setCheckable(True)
        self.setAutoExclusive(True)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setFixedWidth(WIDTH)
        self.setMinimumHeight(LEAST_HEIGHT)
        self.setMaximumHeight(HEIGHT)
        self.setSizePolicy(QSizePolicy.Policy.Fixed, QSizePolicy.Policy.Preferred)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.show_state(self.state)

    def show_state(self, state: StationState) -> None:
        if state == self.state and self.accessibleName():
            return
        self.state = state
        words = self._words()
        self.setAccessibleName(f"{self.title} station: {words}")
        self.setToolTip(f"{self.title} (Ctrl+{self.number}): {words}\n{self.station.purpose}")
        self.update()

    def _words(self) -> str:
        return f"{self.state.number} {self.state.word}" if self.state.number else self.state.word

    def sizeHint(self) -> QSize:
        return QSize(WIDTH, HEIGHT)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        """Up and down go along the tape."""
        assert event is not None
        step = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()))
        if step is None:
            super().keyPressEvent(event)
            return
        marks = list(self.tape.marks.values())
        marks[(marks.index(self) + step) % len(marks)].setFocus()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        p, high = self.tape.palette_now, self.height()
        ruled(painter, p, WIDTH, high)
        if self.isChecked():
            # The case the tape is pulled from: the station one is at lies on the ground of its own page.
            painter.fillRect(QRectF(13, 1, WIDTH - 13, high - 1), QColor(p.panel))
            painter.fillRect(QRectF(13, 1, 4, high - 1), QColor(p.accent))
        ink = QColor(p.ink if self.isChecked() else p.tape_ink)
        painter.setPen(ink)
        if self.hasFocus():
            painter.drawRect(self.rect().adjusted(14, 2, -3, -3))
        font = QFont("Open Sans", 10)
        font.setWeight(QFont.Weight.DemiBold if self.isChecked() else QFont.Weight.Normal)
        painter.setFont(font)
        painter.drawText(QRectF(36, high / 2 - 21, WIDTH - 36, 21), Qt.AlignmentFlag.AlignVCenter, self.title)
        paint_icon(painter, f"station-{self.station.folder}", ink.name(), QPointF(25, high / 2 - 10))
        paint_icon(
            painter, f"state-{self.state.word.rstrip('s').replace(' ', '-')}", ink.name(), QPointF(25, high / 2 + 10)
        )
        painter.setPen(ink)
        painter.setFont(QFont("Open Sans", 9))
        painter.drawText(QRectF(36, high / 2 + 1, WIDTH - 36, 18), Qt.AlignmentFlag.AlignVCenter, self._words())


class Tape(QWidget):
    """The marks under one another, and bare tape below the last."""

    def __init__(self, palette: Palette, stations: tuple[Station, ...], go: Callable[[str], None]) -> None:
        super().__init__()
        self.palette_now = palette
        self.setAccessibleName("Stations")
        self.setFixedWidth(WIDTH)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        self.marks: dict[str, TapeMark] = {}
        for number, station in enumerate(stations, 1):
            mark = TapeMark(self, station, number)
            mark.toggled.connect(lambda on, name=station.name: go(name) if on else None)
            self.marks[station.name] = mark
            column.addWidget(mark)
        column.addStretch(1)

    def set_palette(self, palette: Palette) -> None:
        self.palette_now = palette
        self.update()
        for mark in self.marks.values():
            mark.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(self.palette_now.tape))
        begun = max((mark.geometry().bottom() + 1 for mark in self.marks.values()), default=0)
        for top in range(begun, self.height(), HEIGHT):
            painter.save()
            painter.translate(0, top)
            ruled(painter, self.palette_now, WIDTH, HEIGHT)
            painter.restore()
