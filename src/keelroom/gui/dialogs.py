"""Dialogs of the program's own, dressed alike: a title in the window's bar, a column, and buttons at the foot."""

from __future__ import annotations

from PyQt6.QtWidgets import QDialog, QHBoxLayout, QVBoxLayout, QWidget

from keelroom.gui.session.session import Session
from keelroom.gui.theme.dress import dress
from keelroom.gui.widgets.column import packed
from keelroom.gui.widgets.text import button


class Dialog(QDialog):
    """One dialog: `column` takes what it shows, `foot` its buttons."""

    def __init__(self, window: QWidget, session: Session, title: str, size: tuple[int, int]) -> None:
        super().__init__(window)
        self.session = session
        self.setWindowTitle(title)
        self.setAccessibleName(title)
        self.resize(*size)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        body, outer = packed("panel")
        whole.addWidget(body)
        self.column = QVBoxLayout()
        self.column.setContentsMargins(18, 14, 18, 8)
        self.column.setSpacing(6)
        outer.addLayout(self.column, 1)
        self.foot = QHBoxLayout()
        self.foot.setContentsMargins(18, 4, 18, 14)
        self.foot.addStretch(1)
        outer.addLayout(self.foot)
        dress(body, session)

    def close_button(self, text: str = "Close") -> None:
        """A button that closes it, last in the foot."""
        self.foot.addWidget(button(text, self.reject))
