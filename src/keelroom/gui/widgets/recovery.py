"""The offer of a recovery copy: what it is, and the choice to go on with it or let it go."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from keelroom.document.autosave import Recovered
from keelroom.gui.widgets.text import button, label


class RecoveryOffer(QWidget):
    """One copy: file, date, what differs; taken over, let go, or left waiting for another day."""

    def __init__(
        self, left: Recovered, recover: Callable[[Recovered], object], forget: Callable[[Recovered], object]
    ) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.left, self.forget = left, forget
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 6, 12, 6)
        title = label(f"A window closed without saving: {left.title}", "doubt")
        story = label(left.story(), "faint")
        for words in (title, story):
            words.setAlignment(Qt.AlignmentFlag.AlignHCenter)
            words.setWordWrap(True)
            column.addWidget(words)
        acts = QHBoxLayout()
        acts.addStretch(1)
        acts.addWidget(button("Recover it", lambda: recover(left), f"Recover {left.title}", role="main"))
        acts.addWidget(button("Let it go", self._drop, f"Let {left.title} go"))
        acts.addWidget(button("Later", self.hide, f"Leave {left.title} waiting"))
        acts.addStretch(1)
        column.addLayout(acts)

    def _drop(self) -> None:
        self.forget(self.left)
        self.hide()
