"""What doing something would do, told while the pointer or the keyboard is at it and before it is done."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from keelroom.assess.acts.registry import brings
from keelroom.assess.acts.words import takes_words
from keelroom.assess.questions.proof import brought_words, proof_told
from keelroom.assess.words import clauses
from keelroom.document.act import Act
from keelroom.gui.session.proofs import Proofs
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.text import label

HINT = "What it would do is told here while you are at it."
LINES = 2
"""lines kept for it, so that nothing under the pointer moves when it speaks"""


class Foretold(QWidget):
    """A line under a table or a row of buttons: the act one is at, tried on a copy beside the window."""

    def __init__(self, session: Session, name: str) -> None:
        super().__init__()
        self.session, self.proofs = session, Proofs(session, self)
        self.act: Act | None = None
        self.presses: dict[QObject, Callable[[], Act]] = {}
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 2, 0, 4)
        column.setSpacing(0)
        self.seen, self.brings = label("", "faint", wrap=True), label("", "error", wrap=True)
        self.seen.setAccessibleName(f"{name}: what it would do")
        for words in (self.seen, self.brings):
            column.addWidget(words)
        column.addStretch(1)
        self.setMinimumHeight(LINES * self.fontMetrics().lineSpacing() + 6)
        self.proofs.come.connect(self._show)
        session.changed.connect(lambda: self.tell(None))
        self._show()

    def tell(self, act: Act | None) -> None:
        """The act one is at; None at none."""
        if act != self.act:
            self.act = act
            if act is not None:
                self.proofs.look([(None, act)])
            self._show()

    def watch(self, press: QWidget, act: Callable[[], Act]) -> None:
        """Speak of what a button does while the pointer or the keyboard is at it."""
        self.presses[press] = act
        press.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if event is not None and event.type() in (QEvent.Type.Enter, QEvent.Type.FocusIn) and watched in self.presses:
            self.tell(self.presses[watched]())
        return super().eventFilter(watched, event)

    def _takes(self, act: Act) -> str:
        """Hours, parts and money."""
        session = self.session
        return takes_words(brings(session.build, act, session.system), session.settings.currency)

    def _show(self) -> None:
        act, system = self.act, self.session.system
        proof = self.proofs.of(None, act) if act else None
        if act is None:
            told = HINT
        elif proof is None:
            told = f"{act.label}: being tried on a copy …"
        else:
            seen = " ".join(clauses(proof_told(proof), system))
            told = f"{act.label}: {seen} {'' if proof.stopped else self._takes(act)}".rstrip()
        self.seen.setText(told)
        brought = brought_words(proof, system) if proof else ""
        self.brings.setText(brought)
        self.brings.setVisible(bool(brought))
