"""The strip at the window's right edge: findings by level, working, trail and acts, each a drawer beside the
picture."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QFont, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QAbstractButton, QStackedWidget, QVBoxLayout, QWidget

from keelroom.assess.findings import LEVELS, Finding
from keelroom.gui.session.session import Session
from keelroom.gui.theme.dress import dress
from keelroom.gui.theme.icons import paint_icon
from keelroom.gui.theme.palette import Palette, level_colour
from keelroom.gui.widgets.column import packed
from keelroom.gui.widgets.text import set_quietly

STRIP_WIDTH, DRAWER_WIDTH = 30, 316


class Tab(QAbstractButton):
    """A drawer's handle: its name along the edge, and for the findings how many of each level there are."""

    def __init__(self, strip: Strip, name: str, keys: str, purpose: str) -> None:
        super().__init__(strip)
        self.strip, self.title = strip, name
        self.counts: tuple[tuple[str, int], ...] = ()
        self.setCheckable(True)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAccessibleName(f"{name} drawer")
        self.setToolTip(f"{purpose} ({keys})")
        self.setFixedWidth(STRIP_WIDTH)

    def show_counts(self, counts: tuple[tuple[str, int], ...]) -> None:
        if counts != self.counts:
            self.counts = counts
            self.setAccessibleDescription(", ".join(f"{number} {level}" for level, number in counts))
            self.updateGeometry()
            self.update()

    def sizeHint(self) -> QSize:
        return QSize(STRIP_WIDTH, 92 + 34 * len(self.counts))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        p = self.strip.palette_now
        if self.isChecked() or self.underMouse():
            painter.fillRect(self.rect(), QColor(p.raised))
        if self.isChecked():
            painter.fillRect(QRectF(0, 0, 3, self.height()), QColor(p.accent))
        painter.setPen(QPen(QColor(p.rule), 1))
        painter.drawLine(6, self.height() - 1, STRIP_WIDTH - 6, self.height() - 1)
        if self.hasFocus():
            painter.setPen(QPen(QColor(p.accent), 1.6))
            painter.drawRect(self.rect().adjusted(2, 2, -3, -3))
        y = 8.0
        for level, number in self.counts:
            self._count(painter, level, number, y)
            y += 34
        painter.save()
        font = QFont("Open Sans", 10)
        font.setWeight(QFont.Weight.DemiBold if self.isChecked() else QFont.Weight.Normal)
        painter.setFont(font)
        painter.setPen(QColor(p.ink))
        painter.translate(STRIP_WIDTH / 2, y)
        painter.rotate(90)
        painter.drawText(QRectF(2, -10, self.height() - y - 6, 20), Qt.AlignmentFlag.AlignVCenter, self.title)
        painter.restore()

    def _count(self, painter: QPainter, level: str, number: int, y: float) -> None:
        colour = level_colour(self.strip.palette_now, level)
        paint_icon(painter, f"level-{level}", colour, QPointF(STRIP_WIDTH / 2 + 1, y + 6))
        painter.setPen(QColor(colour))
        font = QFont("Open Sans", 9)
        font.setWeight(QFont.Weight.DemiBold)
        painter.setFont(font)
        painter.drawText(QRectF(0, y + 12, STRIP_WIDTH, 18), Qt.AlignmentFlag.AlignCenter, str(number))


class Strip(QWidget):
    """The handles under one another."""

    def __init__(self, palette: Palette) -> None:
        super().__init__()
        self.palette_now = palette
        self.setObjectName("panel")
        self.setFixedWidth(STRIP_WIDTH)
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(0)


class Drawers(QWidget):
    """What is pulled out: one drawer at a time, made when first wanted. names: of the drawers with their keys and
    purposes"""

    pulled = pyqtSignal(str)
    """a drawer is out, or '' where none is"""

    def __init__(
        self,
        session: Session,
        palette: Palette,
        names: dict[str, tuple[str, str]],
        make: dict[str, Callable[[], QWidget]],
    ) -> None:
        super().__init__()
        self.session, self.makers = session, make
        self.strip = Strip(palette)
        self.tabs: dict[str, Tab] = {}
        for name, (keys, purpose) in names.items():
            self.tabs[name] = Tab(self.strip, name, keys, purpose)
            self.tabs[name].toggled.connect(lambda _on, name=name: self.toggle(name))
            self.strip.column.addWidget(self.tabs[name])
        self.strip.column.addStretch(1)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        body, column = packed("panel")
        whole.addWidget(body)
        self.stack = QStackedWidget()
        column.addWidget(self.stack)
        self.panels: dict[str, QWidget] = {}
        self.out = ""
        self.setMinimumWidth(260)
        self.hide()

    def pull(self, name: str) -> None:
        """Pull a drawer out; '' pushes the one that is out back."""
        self.out = name
        if name and name not in self.panels:
            self.panels[name] = self.makers[name]()
            dress(self.panels[name], self.session)
            self.stack.addWidget(self.panels[name])
        for title, tab in self.tabs.items():
            set_quietly(tab, title == name)
        if name:
            self.stack.setCurrentWidget(self.panels[name])
        self.setVisible(bool(name))
        self.pulled.emit(name)

    def toggle(self, name: str) -> None:
        """Out where it is not, back where it is."""
        self.pull("" if self.out == name else name)

    def show_findings(self, findings: tuple[Finding, ...]) -> None:
        """How many of each level there are, on the findings' handle."""
        counts = tuple((level, sum(f.level == level for f in findings)) for level in LEVELS)
        self.tabs["Findings"].show_counts(tuple((level, number) for level, number in counts if number))

    def set_palette(self, palette: Palette) -> None:
        self.strip.palette_now = palette
        self.strip.update()
