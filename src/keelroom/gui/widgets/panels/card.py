"""One finding: a short row that opens to its reason, its source and what would mend it."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Protocol

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from keelroom.assess.acts.registry import Brings, brings
from keelroom.assess.acts.words import brings_words, mind_words
from keelroom.assess.findings import Finding
from keelroom.assess.words import worded
from keelroom.core.sources import SOURCES
from keelroom.document.act import Act
from keelroom.errors import KeelRoomError
from keelroom.gui.session.proofs import Proofs
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.offered import Offered
from keelroom.gui.widgets.stop_note import copy_report
from keelroom.gui.widgets.text import LevelMark, button, label

LEVEL_WORDS = {"problem": "Problem", "doubt": "Open question", "note": "Note"}
TOLD = 2
"""Changes of a fix that are told before it is pressed."""


class Holder(Protocol):
    """The list a card stands in."""

    session: Session
    proofs: Proofs
    opened: set[tuple[str, tuple[str, ...]]]

    def mend(self, finding: Finding, fix: Act) -> None: ...

    def look(self) -> None: ...


class _Head(QWidget):
    """The row itself: level, what, and a chevron; a click, Enter or Space opens and folds it."""

    def __init__(self, act: Callable[[], object]) -> None:
        super().__init__()
        self.act, self.open = act, False
        self.setObjectName("mark")
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        row = QHBoxLayout(self)
        row.setContentsMargins(2, 3, 18, 3)
        row.setSpacing(7)
        self.mark = LevelMark("note", "")
        self.what = label("", wrap=True)
        row.addWidget(self.mark, 0, Qt.AlignmentFlag.AlignTop)
        row.addWidget(self.what, 1)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.act()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.act()
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(self.palette().color(self.foregroundRole()), 1.6))
        at, tip = QPointF(self.width() - 9, 14.0), 2.5 if self.open else -2.5
        side = QPolygonF([at + QPointF(-4, -tip), at + QPointF(0, tip), at + QPointF(4, -tip)])
        if not self.open:
            side = QPolygonF([at + QPointF(-2.5, -4), at + QPointF(2.5, 0), at + QPointF(-2.5, 4)])
        painter.drawPolyline(side)
        if self.hasFocus():
            painter.setPen(QPen(self.palette().highlight().color(), 1.6))
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))


class Card(QWidget):
    """Filled anew rather than made anew: findings come and go with every edit."""

    def __init__(self, holder: Holder) -> None:
        super().__init__()
        self.holder = holder
        self.finding: Finding | None = None
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 2)
        column.setSpacing(2)
        self.head = _Head(self.turn)
        column.addWidget(self.head)
        self.body = QWidget()
        inside = QVBoxLayout(self.body)
        inside.setContentsMargins(23, 0, 4, 8)
        inside.setSpacing(4)
        self.why, self.source = label("", wrap=True), label("", "faint", wrap=True)
        inside.addWidget(self.why)
        self.fix_column = QVBoxLayout()
        self.fix_column.setSpacing(2)
        inside.addLayout(self.fix_column)
        self.mind = label("", wrap=True)
        inside.addWidget(self.mind)
        line = QHBoxLayout()
        self.go = button("Show me", self._go)
        line.addWidget(self.go)
        self.report = button("Copy the report", self._copy_report)
        line.addWidget(self.report)
        line.addStretch(1)
        inside.addLayout(line)
        inside.addWidget(self.source)
        column.addWidget(self.body)
        self.fixes: list[Offered] = []

    def show_finding(self, finding: Finding, colour: str, place: str) -> None:
        """Show it, folded or open as it was left; what is folded away is not worked out."""
        self.finding = finding
        self.head.mark.show_level(finding.level, colour)
        what = worded(finding, self.holder.session.system).what
        self.head.what.setText(what)
        self.head.setAccessibleName(f"{LEVEL_WORDS[finding.level]} at {place}: {what}")
        is_open = finding.key in self.holder.opened
        self.head.open = is_open
        self.head.update()
        self.body.setVisible(is_open)
        if is_open:
            self._fill(finding)

    def turn(self) -> None:
        """Open it, or fold it."""
        assert self.finding is not None
        key = self.finding.key
        self.holder.opened.symmetric_difference_update({key})
        self.head.open = key in self.holder.opened
        self.head.update()
        if self.head.open:
            self._fill(self.finding)
            self.holder.look()
        self.body.setVisible(self.head.open)

    def _fill(self, finding: Finding) -> None:
        session = self.holder.session
        words = worded(finding, session.system)
        self.why.setText(words.why)
        self.source.setText(f"From: {SOURCES[finding.source].citation}")
        self.go.setAccessibleName(f"Show me: {words.what}")
        self.report.setVisible(bool(finding.report))
        while len(self.fixes) < len(finding.fix):
            self._add_fix(len(self.fixes))
        minded: list[str] = []
        for k, offered in enumerate(self.fixes):
            act = finding.fix[k] if k < len(finding.fix) else None
            found = self._brought(act) if act is not None else None
            offered.setVisible(found is not None)
            if act is not None and found is not None:
                offered.show_act(act, brings_words(act, found, session.settings.currency, TOLD))
                minded.append(mind_words(found))
        self.show_proofs()
        self.mind.setText(" ".join(dict.fromkeys(filter(None, minded))))
        self.mind.setVisible(bool(self.mind.text()))

    def offers(self) -> list[tuple[Finding, Act]]:
        """What it offers while it is open."""
        if self.finding is None or not self.head.open or not self.isVisibleTo(self.parentWidget()):
            return []
        shown = zip(self.finding.fix, self.fixes, strict=False)
        return [(self.finding, act) for act, offered in shown if not offered.isHidden()]

    def show_proofs(self) -> None:
        """What is known of its acts by now; a folded card shows none."""
        offers, shown = self.offers(), (one for one in self.fixes if not one.isHidden())
        for (finding, act), offered in zip(offers, shown, strict=False):
            offered.show_proof(self.holder.proofs.of(finding, act), self.holder.session.system)

    def _add_fix(self, number: int) -> None:
        self.fixes.append(Offered(partial(self._mend, number)))
        self.fix_column.addWidget(self.fixes[-1])

    def _brought(self, act: Act) -> Brings | None:
        """What an act brings, before it is pressed; None where it does not apply, or changes nothing."""
        session = self.holder.session
        try:
            found = brings(session.build, act, session.system)
        except KeelRoomError:
            return None
        return found if found.changes else None

    def _go(self) -> None:
        assert self.finding is not None
        self.holder.session.asked_for.emit(self.finding.where)

    def _copy_report(self) -> None:
        assert self.finding is not None
        copy_report(self.holder.session, self.finding.report)

    def _mend(self, number: int) -> None:
        assert self.finding is not None
        self.holder.mend(self.finding, self.finding.fix[number])
