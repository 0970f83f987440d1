"""Cheap causes first: the check list the symptoms call for, each with what it looks like, how to test it and what
became of it."""

from __future__ import annotations

from functools import partial

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout

from keelroom.assess.acts.registry import offer
from keelroom.assess.causes import STATE_WORDS, Cause, causes_for, checked, state_of
from keelroom.assess.faults import size_words
from keelroom.document.act import Act
from keelroom.document.schema.brief import CauseState
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import palette_of
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.text import LevelMark, button, label, replace_body

MARKS = {"open": "doubt", "fine": "note", "found": "problem", "mended": "note"}

TARGETS: tuple[tuple[str, CauseState], ...] = (
    ("Looked at, fine", "fine"),
    ("Found and mended", "mended"),
    ("Open again", "open"),
)
"""What may be said of a cause, in words and as it is kept."""


def marking(cause: Cause, state: CauseState) -> Act:
    """The act that says what was found of a cause."""
    return offer("cause", "", f"{cause.name}: {STATE_WORDS[state]}", cause=cause.id, state=state)


class CausesView(ScrolledColumn):
    """The list; rebuilt when the brief changes."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Cheap causes")
        self.shown: object = None

    def refresh(self) -> None:
        brief, theme = self.session.build.brief, self.session.settings.theme
        if self.shown == (brief.symptoms, brief.causes, theme):
            return
        self.shown = (brief.symptoms, brief.causes, theme)
        body, column = self.blank()
        found = causes_for(brief)
        column.addWidget(label("Cheap causes first", "head"))
        column.addWidget(label(self._intro(found), "faint", wrap=True))
        column.addSpacing(6)
        for number, cause in enumerate(found, 1):
            self._one(column, number, cause)
        column.addStretch(1)
        replace_body(self, body)

    def _intro(self, found: tuple[Cause, ...]) -> str:
        if not found:
            return "No symptom is marked on the Before page, so there is nothing to rule out."
        return (
            "The likeliest for these symptoms first. What nobody has looked at stays a finding before any "
            "part is recommended. "
            "Hot coolant under pressure scalds: never open a cap on a hot system. Fans start without "
            "warning: disconnect before hands go in."
        )

    def _one(self, column: QVBoxLayout, number: int, cause: Cause) -> None:
        state = state_of(self.session.build.brief, cause.id)
        head = QHBoxLayout()
        colour = palette_of(self.session.settings.theme)
        head.addWidget(LevelMark(MARKS[state], {"open": colour.doubt, "found": colour.bad}.get(state, colour.good)))
        head.addWidget(label(f"{number}. {cause.name}", "strong", wrap=True), 1)
        check = checked(self.session.build.brief, cause.id)
        size = f": {size_words(check.size, self.session.system)}" if check and check.size else ""
        head.addWidget(label(f"{STATE_WORDS[state]}{size}", "faint"))
        column.addLayout(head)
        column.addWidget(label(f"Looks like: {cause.looks_like}", wrap=True))
        column.addWidget(label(f"Test: {cause.test}", wrap=True))
        line = QHBoxLayout()
        for words, target in TARGETS:
            if target != state:
                line.addWidget(button(words, partial(self._mark, cause, target), f"{cause.name}: {words.lower()}"))
        line.addStretch(1)
        column.addLayout(line)
        column.addSpacing(10)

    def _mark(self, cause: Cause, state: CauseState) -> None:
        self.session.do(marking(cause, state))
