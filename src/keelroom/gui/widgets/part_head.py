"""The heading of a part of a page: open it stands over what it holds, else it is a line to click."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QAbstractButton, QSizePolicy

from keelroom.gui.widgets.text import by_type

HEIGHT, LEFT, MARK = 26, 12, 18
"""[px] of the line; where its words begin; room its mark takes at the right"""


class PartHead(QAbstractButton):
    """One heading, as wide as the form."""

    def __init__(self, title: str, act: Callable[[], object]) -> None:
        super().__init__()
        self.setText(title)
        self.setAccessibleName(title)
        self.setCheckable(True)
        self.setObjectName("mark")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.clicked.connect(lambda _checked=False: act())

    def show_open(self, is_open: bool) -> None:
        """Whether what it heads is open."""
        self.setChecked(is_open)
        self.setAccessibleDescription("open" if is_open else "folded")
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(by_type(120), by_type(HEIGHT))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        ink = self.palette().color(self.foregroundRole())
        faint = QColor(ink)
        faint.setAlpha(60)
        painter.setPen(QPen(faint, 1))
        painter.drawLine(LEFT, 0, self.width() - 10, 0)
        font = self.font()
        font.setBold(self.isChecked())
        painter.setFont(font)
        painter.setPen(QPen(ink, 1))
        room = QRectF(LEFT, 0, self.width() - LEFT - MARK - 8, self.height())
        painter.drawText(room, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, self.text())
        if self.hasFocus() or self.underMouse():
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(4, 2, -5, -2), 3, 3)
        painter.setPen(QPen(ink, 1.8))
        middle = QPointF(self.width() - MARK, self.height() / 2)
        chevron = [(-5, -3), (0, 3), (5, -3)] if self.isChecked() else [(-2, -5), (3, 0), (-2, 5)]
        painter.drawPolyline(QPolygonF([middle + QPointF(x, y) for x, y in chevron]))
