"""Where a value comes from, as a small mark beside it: a click says otherwise."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QFont, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QToolButton

SIZE = QSize(24, 22)
MEANS = {
    "measured": "Measured",
    "tape": "Measured with a tape",
    "by eye": "By eye: to be measured",
    "catalogue": "From the catalogue",
    "assumed": "Assumed: nobody has measured it",
    "derived": "Worked out from other figures",
    "optional": "May stay empty",
    "not known": "Not known yet",
}


class OriginMark(QToolButton):
    """A mark by shape: a bit of tape for measured, an eye, a page of the catalogue, a question mark, an equals sign."""

    def __init__(self) -> None:
        super().__init__()
        self.setProperty("role", "origin")
        self.setFixedSize(SIZE)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def show_origin(self, word: str) -> None:
        """Show where the value comes from, by the word for it."""
        self.setText(word)
        self.setToolTip(f"{MEANS.get(word, word)}. Click to say where it comes from.")
        self.setAccessibleDescription(word)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        ink = QColor(self.palette().color(self.foregroundRole()))
        if self.underMouse() or self.hasFocus():
            painter.setPen(QPen(self.palette().color(self.palette().ColorRole.Highlight), 1.4))
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 3, 3)
        painter.setPen(QPen(ink, 1.3))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        draw = {
            "measured": self._tape,
            "tape": self._tape,
            "by eye": self._eye,
            "catalogue": self._page,
            "derived": self._equals,
            "assumed": self._question,
            "optional": self._dot,
        }.get(self.text(), self._ring)
        draw(painter, QPointF(self.width() / 2, self.height() / 2), ink)

    def _tape(self, painter: QPainter, at: QPointF, ink: QColor) -> None:
        painter.drawRect(QRectF(at.x() - 7, at.y() - 3, 14, 7))
        for k in (-4.5, -1.5, 1.5, 4.5):
            painter.drawLine(at + QPointF(k, -3), at + QPointF(k, 0 if k in (-4.5, 1.5) else 1.5))

    def _eye(self, painter: QPainter, at: QPointF, ink: QColor) -> None:
        painter.drawChord(QRectF(at.x() - 7.5, at.y() - 4, 15, 13), 30 * 16, 120 * 16)
        painter.drawChord(QRectF(at.x() - 7.5, at.y() - 9, 15, 13), 210 * 16, 120 * 16)
        painter.setBrush(ink)
        painter.drawEllipse(at, 1.8, 1.8)

    def _page(self, painter: QPainter, at: QPointF, ink: QColor) -> None:
        painter.drawRect(QRectF(at.x() - 5, at.y() - 6, 10, 12))
        for k in (-3, 0, 3):
            painter.drawLine(at + QPointF(-2.5, k), at + QPointF(2.5, k))

    def _equals(self, painter: QPainter, at: QPointF, ink: QColor) -> None:
        for k in (-2.2, 2.2):
            painter.drawLine(at + QPointF(-5, k), at + QPointF(5, k))

    def _question(self, painter: QPainter, at: QPointF, ink: QColor) -> None:
        font = QFont("Open Sans", 11)
        font.setWeight(QFont.Weight.DemiBold)
        painter.setFont(font)
        painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, "?")

    def _dot(self, painter: QPainter, at: QPointF, ink: QColor) -> None:
        painter.setBrush(ink)
        painter.drawEllipse(at, 1.5, 1.5)

    def _ring(self, painter: QPainter, at: QPointF, ink: QColor) -> None:
        painter.setPen(QPen(ink, 1.3, Qt.PenStyle.DashLine))
        painter.drawEllipse(at, 5.5, 5.5)
