"""What a person made of a table's columns: which are put away, how wide others are; kept by the table's name."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QEvent, QObject, QPoint, Qt
from PyQt6.QtWidgets import QMenu, QTableWidget

from keelroom.gui.session.settings import Settings

NARROWEST, WIDEST = 24, 1200
"""[px] a column may be made."""


class Columns(QObject):
    """Of one table. Its first column is never put away: it says what a row is. fit : lays the columns out anew"""

    def __init__(self, table: QTableWidget, titles: tuple[str, ...], fit: Callable[[], object]) -> None:
        super().__init__(table)
        self.table, self.titles, self.fit = table, titles, fit
        self.name = table.accessibleName()
        self.by_hand = False
        """whether a hand holds the edge of a column"""
        away, wide = Settings().columns(self.name)
        self.away = {title for title in away if title in titles[1:]}
        self.wide = {title: width for title, width in wide.items() if title in titles and NARROWEST <= width <= WIDEST}
        head = table.horizontalHeader()
        assert head is not None
        head.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        head.customContextMenuRequested.connect(self._offer)
        head.sectionResized.connect(self._resized)
        port = head.viewport()
        assert port is not None
        port.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """What is resized while the heading is pressed is resized by hand."""
        if event is not None and event.type() in (QEvent.Type.MouseButtonPress, QEvent.Type.MouseButtonRelease):
            self.by_hand = event.type() == QEvent.Type.MouseButtonPress
        return False

    def is_away(self, column: int) -> bool:
        """Whether it was put away."""
        return self.titles[column] in self.away

    def width(self, column: int) -> int:
        """How wide it was made; 0 where nobody has."""
        return self.wide.get(self.titles[column], 0)

    def _resized(self, column: int, _before: int, now: int) -> None:
        if self.by_hand and column and NARROWEST <= now <= WIDEST:
            self.wide[self.titles[column]] = now
            self._keep()

    def _offer(self, at: QPoint) -> None:
        """The columns with what is shown ticked, and the way back."""
        head = self.table.horizontalHeader()
        assert head is not None
        self.menu().popup(head.mapToGlobal(at))

    def menu(self) -> QMenu:
        """What may be done to the columns."""
        menu = QMenu(self.table)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        for title in self.titles[1:]:
            action = menu.addAction(title)
            assert action is not None
            action.setCheckable(True)
            action.setChecked(title not in self.away)
            action.triggered.connect(lambda shown, title=title: self.put(title, away=not shown))
        menu.addSeparator()
        back = menu.addAction("All columns, as wide as they were")
        assert back is not None
        back.triggered.connect(lambda _checked=False: self.restore())
        return menu

    def put(self, title: str, *, away: bool) -> None:
        """A column away, or back."""
        (self.away.add if away else self.away.discard)(title)
        self._keep()
        self.fit()

    def restore(self) -> None:
        """All of them, as the program lays them out."""
        self.away.clear()
        self.wide.clear()
        self._keep()
        self.fit()

    def _keep(self) -> None:
        Settings().keep_columns(self.name, sorted(self.away), self.wide)
