"""All findings, gravest first, with their acts."""

from __future__ import annotations

from functools import partial

from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from keelroom.assess.fixes import applies, edit_for
from keelroom.core.findings import Finding, Fix
from keelroom.core.sources import SOURCES
from keelroom.errors import InputError
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import level_colour, palette_of
from keelroom.gui.widgets.panels.panel import Panel
from keelroom.gui.widgets.text import LevelMark, button, label, restyle

LEVEL_WORDS = {"problem": "Problem", "doubt": "Open question", "note": "Note"}
FINDINGS_AT_ONCE = 40
"""Findings shown before one is asked for more: the worst stand first."""


class Card(QWidget):
    """One finding. It is filled anew rather than made anew: in a drag findings come and go with every move."""

    def __init__(self, panel: FindingsPanel) -> None:
        super().__init__()
        self.panel = panel
        self.finding: Finding | None = None
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 12)
        column.setSpacing(3)
        level = QHBoxLayout()
        self.mark, self.level = LevelMark("note", ""), label("")
        level.addWidget(self.mark)
        level.addWidget(self.level)
        level.addStretch(1)
        column.addLayout(level)
        self.what, self.why, self.source = label("", "head", wrap=True), label("", wrap=True), label("", "faint", wrap=True)
        for words in (self.what, self.why, self.source):
            column.addWidget(words)
        self.fixes: list[QPushButton] = []
        self.fix_column = QVBoxLayout()
        column.addLayout(self.fix_column)
        line = QHBoxLayout()
        self.go = button("Show me", self._go)
        line.addWidget(self.go)
        line.addStretch(1)
        column.addLayout(line)

    def show_finding(self, finding: Finding, colour: str) -> None:
        before, self.finding = self.finding, finding
        if before == finding and self.mark.colour == colour:
            return
        self.mark.show_level(finding.level, colour)
        self.level.setText(LEVEL_WORDS[finding.level])
        restyle(self.level, "role", finding.level)
        self.what.setText(finding.what)
        self.why.setText(finding.why)
        self.source.setText(f"From: {SOURCES[finding.source].citation}")
        self.go.setAccessibleName(f"Show me: {finding.what}")
        while len(self.fixes) < len(finding.fix):
            number = len(self.fixes)
            made = button("", partial(self._mend, number), role="main")
            # As wide as the panel is: a long act must not push the words of every finding out of sight.
            made.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
            self.fixes.append(made)
            self.fix_column.addWidget(made)
        for k, made in enumerate(self.fixes):
            offered = k < len(finding.fix) and applies(self.panel.session.build, finding.fix[k], self.panel.session.system)
            made.setVisible(offered)
            if offered:
                made.setText(finding.fix[k].label)
                made.setAccessibleName(f"Mend: {finding.fix[k].label}")

    def _go(self) -> None:
        assert self.finding is not None
        self.panel.session.asked_for.emit(self.finding.where)

    def _mend(self, number: int) -> None:
        assert self.finding is not None
        self.panel.mend(self.finding.fix[number])


class FindingsPanel(Panel):
    """What is wrong, doubtful or unmeasured, each with why, where it comes from, and what would mend it."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Findings")
        self.cards: list[Card] = []
        column = self.fresh()
        self.nothing = label("Nothing to say: no contradiction, nothing missing, nothing over its limit.", wrap=True)
        column.addWidget(self.nothing)
        self.column = QVBoxLayout()
        column.addLayout(self.column)
        self.most = FINDINGS_AT_ONCE
        self.more = button("", self._show_more, "Show more findings")
        column.addWidget(self.more)
        column.addStretch(1)
        session.changed.connect(self._after_edit)
        session.deepened.connect(self.changed)
        session.display_changed.connect(self.changed)

    def _after_edit(self) -> None:
        """At once; while something is dragged they stay those it was picked up with."""
        if self.session.assessment.judged:
            self.changed()

    def bring_up_to_date(self) -> None:
        findings, palette = self.session.assessment.findings, palette_of(self.session.settings.theme)
        shown = findings[: self.most]
        while len(self.cards) < len(shown):
            self.cards.append(Card(self))
            self.column.addWidget(self.cards[-1])
        for number, card in enumerate(self.cards):
            if number < len(shown):
                card.show_finding(shown[number], level_colour(palette, shown[number].level))
            card.setVisible(number < len(shown))
        self.nothing.setVisible(not findings)
        self.more.setVisible(len(findings) > self.most)
        self.more.setText(f"Show {min(FINDINGS_AT_ONCE, len(findings) - self.most)} more of {len(findings)}")

    def _show_more(self) -> None:
        self.most += FINDINGS_AT_ONCE
        self.changed()

    def mend(self, fix: Fix) -> None:
        """Apply a finding's fix to the build as it stands now."""
        try:
            edit = edit_for(self.session.build, fix, self.session.system)
        except InputError as error:
            self.session.told.emit(error.message)
            return
        self.session.attempt(edit)
