"""The ledger folded to one line, and the mark that folds and opens things."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, Qt, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QAbstractButton, QHBoxLayout, QWidget

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.report import folded_line
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.text import Elided

LINE_HEIGHT = 26


class FoldMark(QAbstractButton):
    """A small chevron: it points where what it belongs to will go."""

    def __init__(self, act: Callable[[], object], name: str, *, down: bool) -> None:
        super().__init__()
        self.down = down
        self.setObjectName("mark")
        self.setFixedSize(22, 20)
        self.setAccessibleName(name)
        self.setToolTip(name)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.clicked.connect(lambda _checked=False: act())

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        ink = self.palette().color(self.foregroundRole())
        painter.setPen(QPen(ink, 1.8))
        if self.hasFocus() or self.underMouse():
            painter.drawRoundedRect(self.rect().adjusted(1, 1, -2, -2), 3, 3)
        tip = 3.0 if self.down else -3.0
        middle = QPointF(self.width() / 2, self.height() / 2)
        painter.drawPolyline(
            QPolygonF([middle + QPointF(-5, -tip), middle + QPointF(0, tip), middle + QPointF(5, -tip)])
        )


class FoldedLine(QWidget):
    """Worst case, chance, amps, gap, cost and hours in one line; a click opens the ledger again."""

    wanted = pyqtSignal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("panel")
        self.setFixedHeight(LINE_HEIGHT)
        row = QHBoxLayout(self)
        row.setContentsMargins(12, 0, 4, 0)
        self.words = Elided()
        row.addWidget(self.words, 1)
        row.addWidget(FoldMark(self.wanted.emit, "Open the ledger (Ctrl+L)", down=False))

    def show_line(self, assessment: Assessment) -> None:
        """Say it in one line; what does not fit is in the tool tip."""
        text = folded_line(assessment, self.session.system, self.session.settings.currency)
        self.words.setText(text)
        self.setAccessibleName(f"Ledger: {text}")

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.wanted.emit()
