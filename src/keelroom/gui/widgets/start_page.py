"""What a start offers: a guided first build, an empty one, the demo, a file; builds used last; work a killed window
left behind."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from functools import partial
from pathlib import Path
from typing import NamedTuple

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from keelroom.document.autosave import LeftBehind, Recovered
from keelroom.gui.widgets.recovery import RecoveryOffer
from keelroom.gui.widgets.text import Elided, button, label

LEFT_WIDTH, RIGHT_WIDTH = 320, 460


class Last(NamedTuple):
    """A build used before: its file, its title, how it stood."""

    path: Path
    title: str
    verdict: str


class Offers(NamedTuple):
    """What can be begun from here. acts: ways in by name, the first the usual one"""

    acts: Mapping[str, Callable[[], object]]
    recovered: LeftBehind
    recover: Callable[[Recovered], object]
    forget: Callable[[Recovered], object]
    last: Sequence[Last]
    open_last: Callable[[Path], object]


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
        outer.addSpacing(18)
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
        grid.addWidget(label("Used last", "head"), 0, 0)
        for number, last in enumerate(offers.last):
            row = 1 + 3 * number
            opened = button("Open", partial(offers.open_last, last.path), f"Open {last.title or last.path.name}")
            name, verdict = Elided(f"{last.title or 'Untitled build'}: {last.path.name}"), Elided(last.verdict, "faint")
            name.setFixedWidth(RIGHT_WIDTH)
            verdict.setFixedWidth(RIGHT_WIDTH)
            grid.addWidget(name, row, 0)
            grid.addWidget(verdict, row + 1, 0)
            grid.addWidget(opened, row, 1, 2, 1)
            grid.setRowMinimumHeight(row + 2, 8)
        grid.setRowStretch(1 + 3 * len(offers.last), 1)
        return grid
