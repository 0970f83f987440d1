"""Headings of the parts of a page: the open one stands over what it holds, the others are lines to click."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QAbstractButton, QSizePolicy, QVBoxLayout, QWidget

from keelroom.gui.station import Leaf, Station
from keelroom.gui.widgets.text import by_type

HEIGHT, LEFT, MARK = 26, 12, 18
"""[px] of the line; where its words begin; room its mark takes at the right"""


class PartHead(QAbstractButton):
    """One heading, as wide as the form."""

    def __init__(self, title: str, act: Callable[[], object]) -> None:
        super().__init__()
        self.setText(title)
        self.setAccessibleName(title)
        self.open = False
        self.setObjectName("mark")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.clicked.connect(lambda _checked=False: act())

    def show_open(self, is_open: bool) -> None:
        """Whether what it heads is open."""
        self.open = is_open
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
        font.setBold(self.open)
        painter.setFont(font)
        painter.setPen(QPen(ink, 1))
        room = QRectF(LEFT, 0, self.width() - LEFT - MARK - 8, self.height())
        painter.drawText(room, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, self.text())
        if self.hasFocus() or self.underMouse():
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(4, 2, -5, -2), 3, 3)
        painter.setPen(QPen(ink, 1.8))
        middle = QPointF(self.width() - MARK, self.height() / 2)
        chevron = [(-5, -3), (0, 3), (5, -3)] if self.open else [(-2, -5), (3, 0), (-2, 5)]
        painter.drawPolyline(QPolygonF([middle + QPointF(x, y) for x, y in chevron]))


class Headings:
    """Headings of the parts of a page: those down to the open one above it, the rest below."""

    def __init__(self, station: Station, choose: Callable[[str], object]) -> None:
        self.above, self.below = QWidget(), QWidget()
        self.lines: dict[str, PartHead] = {
            part: PartHead(part, partial(choose, part)) for leaf in station.pages for part in leaf.parts
        }
        for holder in (self.above, self.below):
            holder.setObjectName("panel")
            column = QVBoxLayout(holder)
            column.setContentsMargins(0, 0, 0, 0)
            column.setSpacing(0)

    def open(self, leaf: Leaf, part: str) -> None:
        """Show the headings of a page with one of its parts open, in their order above and below it."""
        for line in self.lines.values():
            line.hide()
        at = leaf.parts.index(part) + 1 if leaf.parts else 0
        for holder, parts in ((self.above, leaf.parts[:at]), (self.below, leaf.parts[at:])):
            column = holder.layout()
            assert isinstance(column, QVBoxLayout)
            for place, title in enumerate(parts):
                line = self.lines[title]
                column.insertWidget(place, line)
                line.show_open(title == part)
                line.show()
            holder.setVisible(bool(parts))
