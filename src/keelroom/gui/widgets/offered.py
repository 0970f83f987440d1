"""An act that is offered, wherever it is: its button, what it changes, and what it was seen to do on a copy."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QSizePolicy, QVBoxLayout, QWidget

from keelroom.assess.questions.proof import Proof, brought_words, proof_told
from keelroom.assess.words import clauses
from keelroom.document.act import Act
from keelroom.gui.session.proofs import Proofs
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.text import button, label, restyle


class Offered(QWidget):
    """An act that is offered: its button, what it changes, and what it was seen to do when it was tried."""

    def __init__(self, act: Callable[[], object], called: str = "Mend: ") -> None:
        super().__init__()
        self.called = called
        self.label = self.changes = ""
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 4)
        column.setSpacing(2)
        self.made = button("", act, role="main")
        # As wide as the list is: a long act must not push the words of every finding out of sight.
        self.made.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.told, self.tried, self.brings = (label("", role, wrap=True) for role in ("faint", "faint", "error"))
        for widget in (self.made, self.told, self.tried, self.brings):
            column.addWidget(widget)

    def show_act(self, act: Act, changes: str) -> None:
        self.label, self.changes = act.label, changes
        self.made.setText(act.label)
        self.made.setAccessibleName(f"{self.called}{act.label}")

    def show_proof(self, proof: Proof | None, system: str) -> None:
        """What it was seen to do; that it is being tried where that is not known yet. What does not help, or costs a
        duty case, is not offered, and why."""
        held_back = proof is not None and not proof.offered
        self.made.setVisible(not held_back)
        self.made.setEnabled(proof is not None)
        self.told.setText(f"Not offered: {self.label}." if held_back else self.changes)
        self.tried.setText(" ".join(clauses(proof_told(proof), system)) if proof else "Being tried on a copy …")
        brought = brought_words(proof, system) if proof and not held_back else ""
        self.brings.setText(brought)
        self.brings.setVisible(bool(brought))
        restyle(self.made, "role", "main" if proof is None or proof.sound else "")


class Way(Offered):
    """An act that is one way among others, offered for no finding: it follows what is known of it by itself."""

    def __init__(self, session: Session, proofs: Proofs, act: Act, name: str, spoken: str = "") -> None:
        super().__init__(self._do, "")
        self.session, self.proofs, self.act = session, proofs, act
        self.show_act(act, "")
        self.made.setText(name)
        self.made.setAccessibleName(spoken or f"{name}: {act.label}")
        self.told.hide()
        proofs.come.connect(self.follow)
        self.follow()

    def follow(self) -> None:
        proof = self.proofs.of(None, self.act)
        self.show_proof(proof, self.session.system)
        self.told.setVisible(proof is not None and not proof.offered)
        why_not = self.session.why_not(self.act)
        if why_not:
            self.made.setEnabled(False)
            self.made.setToolTip(why_not)

    def _do(self) -> None:
        self.session.do(self.act)
