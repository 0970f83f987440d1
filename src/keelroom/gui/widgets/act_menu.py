"""A menu of acts, put up where it is asked for: at its foot is told what the one under the pointer would do."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import NamedTuple

from PyQt6.QtCore import QPoint
from PyQt6.QtGui import QAction, QCursor
from PyQt6.QtWidgets import QMenu, QWidget, QWidgetAction

from keelroom.document.act import Act
from keelroom.gui.session.session import Session
from keelroom.gui.theme.dress import dress
from keelroom.gui.widgets.foretold import Foretold

FOOT = (500, 6)
"""[px, lines] kept for what is told: a menu does not grow while it is up"""


class Entry(NamedTuple):
    """One line of the menu: its words, what is done when it is chosen, and the act told beforehand where it is one."""

    words: str
    do: Callable[[], object]
    act: Act | None = None


def entry_of(session: Session, words: str, act: Act) -> Entry:
    """An act that is done as it stands."""
    return Entry(words, lambda: session.do(act), act)


class ActMenu(QMenu):
    """Kept by what puts it up and filled anew each time: a trial still under way never loses whom it answers."""

    def __init__(self, parent: QWidget, session: Session, name: str) -> None:
        super().__init__(parent.window())
        self.setAccessibleName(name)
        self.foretold = Foretold(session, name)
        dress(self.foretold, session)
        wide, lines = FOOT
        self.foretold.setFixedSize(wide, lines * self.foretold.fontMetrics().lineSpacing() + 8)
        self.foretold.setContentsMargins(10, 0, 10, 0)
        self.foot = QWidgetAction(self)
        self.foot.setDefaultWidget(self.foretold)
        self.aboutToHide.connect(lambda: self.foretold.tell(None))

    def put_up(self, entries: Sequence[Entry], at: QPoint | None = None, head: str = "") -> None:
        """Show these lines at a place of the screen, or where the pointer is, under a heading that is no line."""
        for action in self.actions():
            self.removeAction(action)
            if action is not self.foot:
                action.deleteLater()
        if head:
            self._line(head).setEnabled(False)
        for entry in entries:
            line = self._line(entry.words)
            line.triggered.connect(lambda _checked=False, do=entry.do: do())
            line.hovered.connect(lambda act=entry.act: self.foretold.tell(act))
        if any(entry.act is not None for entry in entries):
            self.addSeparator()
            self.addAction(self.foot)
        self.popup(at or QCursor.pos())

    def _line(self, words: str) -> QAction:
        line = QAction(words.replace("&", "&&"), self)
        self.addAction(line)
        return line
