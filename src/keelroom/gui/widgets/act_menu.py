"""A menu of acts, put up where the cursor is."""

from __future__ import annotations

from PyQt6.QtGui import QCursor
from PyQt6.QtWidgets import QMenu, QWidget

from keelroom.document.act import Act
from keelroom.gui.session.session import Session


def offer_acts(parent: QWidget, session: Session, entries: dict[str, Act]) -> None:
    """Put up the names; the chosen one's act is done."""
    menu = QMenu(parent)
    for name, act in entries.items():
        action = menu.addAction(name)
        assert action is not None
        action.triggered.connect(lambda _checked=False, act=act: session.do(act))
    menu.popup(QCursor.pos())
