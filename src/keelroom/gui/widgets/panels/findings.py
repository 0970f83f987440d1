"""All findings as short rows: those of the station one is at first, each opening to why, what would mend it, and its
source."""

from __future__ import annotations

from functools import partial

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QApplication, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from keelroom.assess.acts.words import after_words
from keelroom.assess.findings import LEVELS, Finding
from keelroom.document.act import Act
from keelroom.gui.registry import station_at
from keelroom.gui.session.proofs import Proofs
from keelroom.gui.session.session import Session
from keelroom.gui.session.timing import one_shot
from keelroom.gui.theme.palette import level_colour, palette_of
from keelroom.gui.widgets.flow import FlowLayout
from keelroom.gui.widgets.panels.card import Card
from keelroom.gui.widgets.panels.panel import DrawerPanel
from keelroom.gui.widgets.text import button, chip, label, set_quietly

FINDINGS_AT_ONCE = 40
"""Findings shown before one is asked for more: the worst stand first."""
COUNTED = {"problem": ("problem", "problems"), "doubt": ("open question", "open questions"), "note": ("note", "notes")}


def counts(findings: tuple[Finding, ...]) -> str:
    """How many of each level, in words."""
    told = [(sum(f.level == level for f in findings), COUNTED[level]) for level in LEVELS]
    return ", ".join(f"{number} {words[number != 1]}" for number, words in told if number) or "Nothing found"


class FindingsPanel(DrawerPanel):
    """What is wrong, doubtful or unmeasured."""

    def __init__(self, session: Session, station: str = "") -> None:
        super().__init__(session, "Findings")
        self.cards: list[Card] = []
        self.opened: set[tuple[str, tuple[str, ...]]] = set()
        self.station = station
        self.proofs = Proofs(session, self)
        self.proofs.come.connect(self._show_proofs)
        column = self.fresh()
        self.counted = label("", "head", wrap=True)
        column.addWidget(self.counted)
        column.addWidget(self._filters())
        self.done, self.done_words = self._done_row()
        self.done_at = 0
        """place among the rows of the one that was mended last"""
        self.in_sight = one_shot(self, 0, partial(self.ensureWidgetVisible, self.done))
        self.nothing = label("Nothing to say: no contradiction, nothing missing, nothing over its limit.", wrap=True)
        column.addWidget(self.nothing)
        self.column = QVBoxLayout()
        self.column.setSpacing(0)
        column.addLayout(self.column)
        self.heads: dict[str, QLabel] = {}
        self.most = FINDINGS_AT_ONCE
        self.more = button("", self._show_more, "Show more findings")
        column.addWidget(self.more)
        column.addStretch(1)
        session.changed.connect(self._after_edit)
        session.deepened.connect(self.changed)
        session.display_changed.connect(self.changed)

    def _filters(self) -> QWidget:
        holder = QWidget()
        row = FlowLayout(holder, 2)
        row.setContentsMargins(0, 0, 0, 0)
        self.only_here, self.only_problems = (
            chip("Only this station", self.changed),
            chip("Only problems", self.changed),
        )
        for made in (self.only_here, self.only_problems):
            made.setAutoExclusive(False)
            row.addWidget(made)
        return holder

    def _done_row(self) -> tuple[QWidget, QLabel]:
        """What was mended last, greyed, with its way back."""
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(0, 2, 0, 2)
        words = label("", "faint", wrap=True)
        row.addWidget(words, 1)
        row.addWidget(button("Undo it", self.session.store.undo))
        holder.hide()
        return holder, words

    def show_station(self, name: str) -> None:
        """Another station is shown: its findings come first."""
        if name != self.station:
            self.station = name
            self.changed()

    def _after_edit(self) -> None:
        """At once; while something is dragged they stay those it was picked up with."""
        self.done.setVisible(self.session.store.undo_label == self.done.property("step"))
        if self.session.assessment.judged:
            self.changed()

    def _wanted(self) -> list[tuple[str, Finding]]:
        """Findings with their stations: those of the shown station first, then the others, gravest first in each."""
        found = [(station_at(finding.where).name, finding) for finding in self.session.assessment.findings]
        if self.only_here.isChecked():
            found = [(place, finding) for place, finding in found if place == self.station]
        if self.only_problems.isChecked():
            found = [(place, finding) for place, finding in found if finding.level == "problem"]
        return sorted(found, key=lambda one: one[0] != self.station)

    def bring_up_to_date(self) -> None:
        found, palette = self._wanted(), palette_of(self.session.settings.theme)
        self.counted.setText(counts(self.session.assessment.findings))
        shown = found[: self.most]
        here = sum(place == self.station for place, _ in shown)
        while len(self.cards) < len(shown):
            self.cards.append(Card(self))
            self.column.addWidget(self.cards[-1])
        self.column.removeWidget(self.done)
        self._heads(here, len(shown) - here)
        for number, card in enumerate(self.cards):
            card.setVisible(number < len(shown))
            if number < len(shown):
                place, finding = shown[number]
                card.show_finding(finding, level_colour(palette, finding.level), place)
        last = self.cards[min(self.done_at, len(self.cards) - 1)] if self.cards else None
        self.column.insertWidget(self.column.indexOf(last) if last else 0, self.done)
        self.look()
        self.nothing.setVisible(not found)
        self.more.setVisible(len(found) > self.most)
        self.more.setText(f"Show {min(FINDINGS_AT_ONCE, len(found) - self.most)} more of {len(found)}")

    def open(self, finding: Finding) -> None:
        """Unfold a finding's card and bring it into sight; all findings are listed then."""
        set_quietly(self.only_here, False)
        set_quietly(self.only_problems, False)
        self.most = max(self.most, len(self.session.assessment.findings))
        self.bring_up_to_date()
        card = next((card for card in self.cards if card.isVisible() and card.finding is finding), None)
        if card is not None:
            if not card.head.open:
                card.turn()
            QTimer.singleShot(0, partial(self.ensureWidgetVisible, card))  # once it is laid out

    def look(self) -> None:
        """Try what the open cards offer, the uppermost first."""
        self.proofs.look([offer for card in self.cards for offer in card.offers()])

    def _show_proofs(self) -> None:
        for card in self.cards:
            card.show_proofs()

    def _heads(self, here: int, elsewhere: int) -> None:
        """A heading over the station's own and one over the rest, each where there are some."""
        for name, words, at, there in (
            ("here", f"At {self.station}", 0, here),
            ("rest", "At other stations" if self.station else "", here + 1, elsewhere),
        ):
            if name not in self.heads:
                self.heads[name] = label("", "faint")
            head = self.heads[name]
            head.setText(words)
            self.column.removeWidget(head)
            self.column.insertWidget(at, head)
            head.setVisible(bool(there and words))

    def _show_more(self) -> None:
        self.most += FINDINGS_AT_ONCE
        self.changed()

    def mend(self, finding: Finding, fix: Act) -> None:
        """Apply a finding's fix to the build as it stands now; what was done stays to be read, greyed, until the next
        step."""
        self.done_at = next((k for k, card in enumerate(self.cards) if card.finding is finding), 0)
        held = QApplication.focusWidget()
        if held is not None and self.isAncestorOf(held):
            # Another act may stand under the hand then, and must not take the next press.
            self.cards[self.done_at].head.setFocus()
        if self.session.do(fix):
            after = after_words(fix)
            self.done.setProperty("step", self.session.store.undo_label)
            self.done_words.setText(f"Done: {fix.label}. {after}" if after else f"Done: {fix.label}")
            self.done.show()
            self.in_sight.start()
