"""A menu of edits, put up where the cursor is."""

from __future__ import annotations

from PyQt6.QtGui import QCursor
from PyQt6.QtWidgets import QMenu, QWidget

from keelroom.document.edits import Edit
from keelroom.gui.session.session import Session


def offer_edits(parent: QWidget, session: Session, entries: dict[str, Edit]) -> None:
    """Put up the names; the chosen one's edit is made."""
    menu = QMenu(parent)
    for name, edit in entries.items():
        action = menu.addAction(name)
        assert action is not None
        action.triggered.connect(lambda _checked=False, edit=edit: session.attempt(edit))
    menu.popup(QCursor.pos())
