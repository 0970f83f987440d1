"""What a start offers: a guided first build, an empty one, the demo, a file; builds used last; work a killed window
left behind."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from functools import partial
from pathlib import Path
from typing import NamedTuple

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPixmap
from PyQt6.QtWidgets import QAbstractButton, QGridLayout, QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from keelroom.document.autosave import LeftBehind, Recovered
from keelroom.gui.widgets.recovery import RecoveryOffer
from keelroom.gui.widgets.text import Elided, button, by_type, label

LEFT_WIDTH, RIGHT_WIDTH = 320, 460
CARD, CARD_EDGE = (252, 130), 6
"""[px] room of a sample's picture, and round it"""


class Last(NamedTuple):
    """A build used before: its file, its title, how it stood, the day it was written."""

    path: Path
    title: str
    verdict: str
    day: str = ""


class Sample(NamedTuple):
    """A shipped build to look round in. picture : of its core and fans"""

    title: str
    told: str
    picture: Path
    open: Callable[[], object]


class Offers(NamedTuple):
    """What can be begun from here. acts: ways in by name, the first the usual one"""

    acts: Mapping[str, Callable[[], object]]
    recovered: LeftBehind
    recover: Callable[[Recovered], object]
    forget: Callable[[Recovered], object]
    last: Sequence[Last]
    open_last: Callable[[Path], object]
    samples: Sequence[Sample] = ()


class StartPage(QScrollArea):
    """Ways in at the left, builds used last at the right, recoveries above both."""

    def __init__(self, offers: Offers) -> None:
        super().__init__()
        self.setWidgetResizable(True)
        body = QWidget()
        body.setObjectName("paper")
        self.setWidget(body)
        outer = QVBoxLayout(body)
        outer.addStretch(2)
        title = label("Keel Room")
        title.setStyleSheet("font-size: 26pt; font-weight: 600;")
        outer.addWidget(title, 0, Qt.AlignmentFlag.AlignHCenter)
        told = label(
            "Size the core and the fans against the engine's heat before anything is bought or cut.", wrap=True
        )
        told.setAlignment(Qt.AlignmentFlag.AlignHCenter)
        outer.addWidget(told)
        outer.addSpacing(18)
        for left in offers.recovered:
            outer.addWidget(RecoveryOffer(left, offers.recover, offers.forget))
        for word in offers.recovered.passed_over:
            passed = label(word, "faint", wrap=True)
            passed.setAlignment(Qt.AlignmentFlag.AlignHCenter)
            outer.addWidget(passed)
        across = QHBoxLayout()
        across.setSpacing(36)
        across.addStretch(1)
        across.addLayout(self._ways(offers))
        if offers.last:
            across.addLayout(self._last(offers))
        across.addStretch(1)
        outer.addLayout(across)
        if offers.samples:
            outer.addSpacing(14)
            outer.addWidget(label("Look round in a build that is there", "head"), 0, Qt.AlignmentFlag.AlignHCenter)
            outer.addLayout(self._samples(offers))
        outer.addSpacing(12)
        outer.addWidget(
            label("Planning estimates: they defer to local codes and licensed practice.", "faint"),
            0,
            Qt.AlignmentFlag.AlignHCenter,
        )
        outer.addStretch(3)

    def _ways(self, offers: Offers) -> QVBoxLayout:
        column = QVBoxLayout()
        column.setSpacing(8)
        for number, (name, act) in enumerate(offers.acts.items()):
            made = button(name, act, role="main" if number == 0 and not offers.recovered else "")
            made.setFixedWidth(LEFT_WIDTH)
            made.setMinimumHeight(38)
            column.addWidget(made)
        column.addStretch(1)
        return column

    def _last(self, offers: Offers) -> QGridLayout:
        """Each with its title, its file and its verdict, under a button that opens it."""
        grid = QGridLayout()
        grid.setVerticalSpacing(1)
        grid.setHorizontalSpacing(10)
        grid.setColumnMinimumWidth(0, RIGHT_WIDTH)  # words that are elided ask for no room of their own
        grid.addWidget(label("Used last", "head"), 0, 0)
        for number, last in enumerate(offers.last):
            row = 1 + 3 * number
            opened = button("Open", partial(offers.open_last, last.path), f"Open {last.title or last.path.name}")
            name = Elided(f"{last.title or 'Untitled build'}: {last.path.name}")
            verdict = Elided(" · ".join(filter(None, (last.day, last.verdict))), "faint")
            name.setFixedWidth(RIGHT_WIDTH)
            verdict.setFixedWidth(RIGHT_WIDTH)
            grid.addWidget(name, row, 0)
            grid.addWidget(verdict, row + 1, 0)
            grid.addWidget(opened, row, 1, 2, 1)
            grid.setRowMinimumHeight(row + 2, 8)
        grid.setRowStretch(1 + 3 * len(offers.last), 1)
        return grid

    def _samples(self, offers: Offers) -> QHBoxLayout:
        """Pictures side by side; a click opens a copy."""
        line = QHBoxLayout()
        line.setSpacing(16)
        line.addStretch(1)
        for sample in offers.samples:
            line.addWidget(SampleCard(sample))
        line.addStretch(1)
        return line


class SampleCard(QAbstractButton):
    """A sample's picture over its title and what it is."""

    def __init__(self, sample: Sample) -> None:
        super().__init__()
        self.sample, self.shown = sample, QPixmap(str(sample.picture))
        self.setAccessibleName(f"Open the sample {sample.title}")
        self.setAccessibleDescription(sample.told)
        self.setToolTip(sample.told)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.clicked.connect(lambda _checked=False: sample.open())

    def sizeHint(self) -> QSize:
        return QSize(by_type(CARD[0]), CARD[1] + 2 * self.fontMetrics().height() + 3 * CARD_EDGE)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        ink = self.palette().color(self.foregroundRole())
        if self.hasFocus() or self.underMouse():
            painter.setPen(QPen(ink, 1.6))
            painter.drawRoundedRect(QRectF(self.rect()).adjusted(1, 1, -1, -1), 6, 6)
        room = QRectF(CARD_EDGE, CARD_EDGE, self.width() - 2 * CARD_EDGE, CARD[1])
        if not self.shown.isNull():
            scale = min(room.width() / self.shown.width(), room.height() / self.shown.height())
            wide, high = self.shown.width() * scale, self.shown.height() * scale
            at = QRectF(room.center().x() - wide / 2, room.y(), wide, high)
            painter.drawPixmap(at, self.shown, QRectF(self.shown.rect()))
        painter.setPen(ink)
        metrics, y = self.fontMetrics(), room.bottom() + CARD_EDGE
        for text in (self.sample.title, self.sample.told):
            told = metrics.elidedText(text, Qt.TextElideMode.ElideRight, int(room.width()))
            painter.drawText(QRectF(room.x(), y, room.width(), metrics.height()), Qt.AlignmentFlag.AlignHCenter, told)
            y += metrics.height()
