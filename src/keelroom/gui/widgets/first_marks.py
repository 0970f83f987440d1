"""Four short marks over the first screen, once: what the tape, the form, the picture and the ledger are. A press or a
key takes them away."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import palette_of

WIDE, EDGE, ROUND = 250.0, 10.0, 8.0
"""[px] of a mark, round its words, and of its corners"""
MARKS = (
    ("tape", "1  The work, station by station, in the order it is done."),
    ("form", "2  What you know goes here. What you do not know is assumed, and marked."),
    ("picture", "3  The picture answers the page’s question. What can be moved is dragged."),
    ("ledger", "4  The answer, always in sight: every duty case on one rail. Click one for why."),
)
"""what each points at, and what it says"""


class FirstMarks(QWidget):
    """Lies over the window until it is pressed. over : what is pointed at, by name"""

    def __init__(self, window: QWidget, session: Session, over: dict[str, QWidget], gone: Callable[[], object]) -> None:
        super().__init__(window)
        self.session, self.over, self.gone = session, over, gone
        self.setAccessibleName("The first screen")
        self.setAccessibleDescription(" ".join(words for _, words in MARKS))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setGeometry(window.rect())
        self.raise_()
        self.show()
        self.setFocus()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self._end()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        self._end()

    def _end(self) -> None:
        self.hide()
        self.gone()
        self.deleteLater()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        palette = palette_of(self.session.settings.theme)
        for name, words in MARKS:
            widget = self.over[name]
            if not widget.isVisible():
                continue
            corner = widget.mapTo(self.parentWidget(), widget.rect().topLeft())
            there = QRectF(QPointF(corner), QRectF(widget.rect()).size())
            self._mark(painter, there, words, (QColor(palette.accent), QColor(palette.on_accent)))

    def _mark(self, painter: QPainter, there: QRectF, words: str, inks: tuple[QColor, QColor]) -> None:
        """The outline of a part of the window, and its words inside it or beside it."""
        ground, ink = inks
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(ground, 2))
        painter.drawRoundedRect(there.adjusted(3, 3, -3, -3), ROUND, ROUND)
        flags = Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignLeft
        asked = painter.fontMetrics().boundingRect(QRectF(0, 0, WIDE, 200).toRect(), int(flags), words)
        wide, high = asked.width() + 2 * EDGE, asked.height() + 2 * EDGE
        left = min(max(there.center().x() - wide / 2, there.left() + 12), self.width() - wide - 8)
        top = min(max(there.center().y() - high / 2, 8.0), self.height() - high - 8)
        box = QRectF(left, top, wide, high)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(ground)
        painter.drawRoundedRect(box, ROUND, ROUND)
        painter.setPen(ink)
        painter.drawText(box.adjusted(EDGE, EDGE, -EDGE, -EDGE), int(flags), words)
