"""A table to choose from: a click or Enter puts the part into the package at once. It never scrolls sideways.

Columns stand in the order of their importance: those there is no room for are told under the table for the row one is
at, and all of them are in what is copied and saved.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from typing import Literal

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QKeySequence, QResizeEvent
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QApplication,
    QHeaderView,
    QLineEdit,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from keelroom.document.act import Act
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.columns import NARROWEST, Columns
from keelroom.gui.widgets.foretold import Foretold
from keelroom.gui.widgets.text import Whole, plain_tip

LEAST_FIRST, MOST_FIRST = 128, 0.72
"""[px] the first column keeps before another is shown, and the share of the width it keeps at most for its words."""
_FRACTION = re.compile(r"([−-]?)(?:(\d+) )?(\d+)/(\d+)")
_NUMBER = re.compile(r"([−-]?)(\d+(?:\.\d+)?)")


def sort_key(text: str) -> tuple[int, float, str]:
    """By the number a cell begins with, whole inches and their fraction as one; what begins with none comes after, by
    its letters."""
    inches, number = _FRACTION.match(text), _NUMBER.match(text)
    if inches and inches[4] != "0":
        size = int(inches[2] or 0) + int(inches[3]) / int(inches[4])
        return (0, -size if inches[1] else size, "")
    if number:
        return (0, -float(number[2]) if number[1] else float(number[2]), "")
    return (1, 0.0, text.lower())


class _Cells(QTableWidget):
    """The cells; Ctrl+C copies the row one is at."""

    laid = pyqtSignal()
    """they have another room"""

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self.laid.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        clipboard = QApplication.clipboard()
        if (
            event is not None
            and event.matches(QKeySequence.StandardKey.Copy)
            and clipboard is not None
            and self.currentRow() >= 0
        ):
            cells = [
                item.text() if (item := self.item(self.currentRow(), k)) else "" for k in range(self.columnCount())
            ]
            clipboard.setText("\t".join(cells))
            return
        super().keyPressEvent(event)


LEAST = 190
"""[px] of a table besides its note: the search field, its headings, four rows whole, and what is told under them."""
SORT_TIP = "Click a heading to sort by it, drag its edge, right-click to put columns away"
HEADINGS = {
    "Holds": "How many duty cases hold their limit, of those that count",
    "Hotter day": "How much hotter a day than its own the tightest duty case is held on; under 0: what it lacks",
    "Rejects": "Heat the core sheds at the limit, in the first duty case",
    "Air drop": "Pressure the air loses through the core, standing",
    "Area rule": "The rule of thumb for the face against the engine’s size",
    "Tightest": "The duty case with the least in hand",
    "Rated": "Free air: with nothing in the way. Behind a core a third to two thirds of it moves",
    "Cold road": "On the road on a morning of 14 °F (−10 °C)",
    "Into coolant": "Heat that goes from the gearbox into the coolant, or back where it is negative",
    "± worst": "What the tape may be wrong at worst: all readings off the same way",
    "± RSS": "What the tape is usually wrong: readings off this way and that (root of the sum of squares)",
    "Comes back": "Share of the air at the face that is hot bay air come back",
    "Goes round": "Share of the air that goes round the core instead of through it",
}
"""words of ours over columns, explained where they stand"""


class ChooseTable(QWidget):
    """Rows of cells; `choose` gets the row's index in the given order.

    words : cells are words, not figures
    columns_are : fitted to what they say;  even: as wide as each other and none left out;  named: the first shown
                  whole where it can be, before any other
    """

    def __init__(
        self,
        name: str,
        columns: tuple[str, ...],
        choose: Callable[[int], object],
        note: str,
        hint: str = "copper, 24 ×, twin …",
        words: bool = False,
        columns_are: Literal["fitted", "even", "named"] = "fitted",
    ) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.choose, self.even = choose, columns_are == "even"
        self.most_first = MOST_FIRST if columns_are == "named" else 0.0
        self.side = Qt.AlignmentFlag.AlignLeft if words else Qt.AlignmentFlag.AlignRight
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 8, 10, 10)
        self.note = Whole(note, "faint")
        column.addWidget(self.note)
        self.note.setVisible(bool(note))
        self.filter = QLineEdit()
        self.filter.setPlaceholderText(f"Narrow the list: {hint}")
        self.filter.setAccessibleName(f"Narrow the list of {name}")
        self.filter.textChanged.connect(self._narrow)
        column.addWidget(self.filter)
        self.columns = columns
        self.order: list[int] = []
        """the given index of each row as it stands"""
        self.given: Sequence[tuple[str, ...]] = ()
        self.by_name = False
        """whether the list is narrowed by its first column alone"""
        self.current = -1
        self.sorted_by: tuple[int, bool] | None = None
        """a column, and whether it falls"""
        self.table = self._cells(name, words)
        for k, title in enumerate(columns):
            head = self.table.horizontalHeaderItem(k)
            if head is not None:
                head.setToolTip(HEADINGS.get(title, SORT_TIP))
        self.set_by_hand = Columns(self.table, columns, self._fit)
        self.table.laid.connect(self._fit)
        column.addWidget(self.table, 1)
        self.rest = Whole("", "faint")
        self.rest.setAccessibleName(f"{name}: the rest of the row")
        self.rest.hide()
        column.addWidget(self.rest)
        self.foretold: Foretold | None = None
        self.act_of: Callable[[int], Act | None] = lambda _row: None

    def do(self, row: int) -> None:
        """The act of a row, where there is one; for `choose`."""
        act = self.act_of(row)
        if act is not None and self.foretold is not None:
            self.foretold.session.do(act)

    def at(self) -> int:
        """The row one is at, by its given index; −1 where one is at none."""
        row = self.table.currentRow()
        return self.order[row] if 0 <= row < len(self.order) else -1

    def foretell(self, session: Session, act_of: Callable[[int], Act | None]) -> None:
        """Tell under the table what choosing the row one is at would do; `act_of` a row's index in the given order."""
        self.act_of, self.foretold = act_of, Foretold(session, self.table.accessibleName())
        self.table.setMouseTracking(True)
        self.table.cellEntered.connect(lambda row, _column: self._foretell(row))
        self.table.currentCellChanged.connect(lambda row, *_: self._foretell(row) if self.table.hasFocus() else None)
        layout = self.layout()
        assert layout is not None
        layout.addWidget(self.foretold)

    def _foretell(self, row: int) -> None:
        if self.foretold is not None and 0 <= row < len(self.order):
            self.foretold.tell(self.act_of(self.order[row]))

    def _cells(self, name: str, words: bool) -> _Cells:
        table = _Cells(0, len(self.columns))
        table.setHorizontalHeaderLabels(list(self.columns))
        table.setAccessibleName(name)
        table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        table.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        table.setTabKeyNavigation(False)
        table.setWordWrap(False)
        table.setShowGrid(False)
        vertical, horizontal = table.verticalHeader(), table.horizontalHeader()
        assert vertical is not None
        assert horizontal is not None
        vertical.hide()
        vertical.setDefaultSectionSize(24)
        horizontal.setSectionResizeMode(QHeaderView.ResizeMode.Interactive)
        horizontal.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        if self.even:
            horizontal.setSectionResizeMode(QHeaderView.ResizeMode.Stretch)
        horizontal.setMinimumSectionSize(NARROWEST)
        if words:
            horizontal.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        horizontal.setSectionsClickable(True)
        horizontal.sectionClicked.connect(self._sort)
        table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        table.cellClicked.connect(lambda row, _column: self.choose(self.order[row]))
        table.activated.connect(lambda index: self.choose(self.order[index.row()]))
        table.currentCellChanged.connect(lambda *_: self._tell_rest())
        return table

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        # Rows before what is said of them: on a low window the note is told by the search field.
        self.note.setVisible(bool(self.note.text()) and self.height() >= self.note.minimumSizeHint().height() + LEAST)
        self.filter.setToolTip("" if self.note.isVisibleTo(self) else plain_tip(self.note.text()))
        self._fit()

    def showEvent(self, event: object) -> None:
        self._fit()

    def _fit(self) -> None:
        """Show as many columns as there is room for, the important ones first."""
        head, port = self.table.horizontalHeader(), self.table.viewport()
        if head is None or port is None:
            return
        if self.even:
            for k in range(1, len(self.columns)):
                self.table.setColumnHidden(k, self.set_by_hand.is_away(k))
            self._tell_rest()
            return
        bar = self.table.verticalScrollBar()
        # Rows that came just now may yet call the scroll bar up.
        kept = 2 * self.table.frameWidth() + (bar.sizeHint().width() if bar is not None else 0)
        wide = min(port.width(), self.table.width() - kept)
        room = wide - max(LEAST_FIRST, min(self.table.sizeHintForColumn(0), int(self.most_first * wide)))
        for k in range(1, len(self.columns)):
            asked = self.set_by_hand.width(k) or max(self.table.sizeHintForColumn(k), head.sectionSizeHint(k))
            away = self.set_by_hand.is_away(k)
            room -= 0 if away else asked
            self.table.setColumnHidden(k, away or room < 0)
            if not self.table.isColumnHidden(k):
                self.table.setColumnWidth(k, asked)
        self._tell_rest()

    def _tell_rest(self) -> None:
        """Of the row one is at the hidden columns; of even ones all of them, each shows only as much as it has room
        for."""
        cut = [k for k in range(1, len(self.columns)) if self.even or self.table.isColumnHidden(k)]
        row = self.table.currentRow()
        name = self.table.item(row, 0) if row >= 0 else None
        cells = [
            f"{self.columns[k]} {item.text()}"
            for k in cut
            if name and (item := self.table.item(row, k)) and item.text()
        ]
        if cells and name:
            self.rest.setText(f"{name.text()}: " + " · ".join(cells))
        else:
            self.rest.setText("Choose a row to read " + ", ".join(self.columns[k] for k in cut) + ".")
        self.rest.setVisible(bool(cut) and self.table.rowCount() > 0 and (bool(cells) or not self.even))

    def _sort(self, column: int) -> None:
        """By a column, then the other way round, then as given."""
        before = self.sorted_by
        self.sorted_by = (
            (column, False) if before is None or before[0] != column else (column, True) if not before[1] else None
        )
        self.show_rows(self.given, self.current)

    def _ordered(self, rows: Sequence[tuple[str, ...]]) -> list[int]:
        if self.sorted_by is None:
            return list(range(len(rows)))
        column, falls = self.sorted_by
        return sorted(range(len(rows)), key=lambda k: sort_key(rows[k][column]), reverse=falls)

    def show_rows(self, rows: Sequence[tuple[str, ...]], current: int) -> None:
        """Rows as given, `current` the chosen one of them; they stand in the order they are sorted by."""
        self.given, self.current = rows, current
        self.order = self._ordered(rows)
        self._mark_sorted()
        self.table.setRowCount(len(rows))
        for i, cells in enumerate(rows[k] for k in self.order):
            for k, text in enumerate(cells):
                item = self.table.item(i, k)
                if item is None:
                    item = QTableWidgetItem()
                    self.table.setItem(i, k, item)
                if item.text() != text:
                    item.setText(text)
                    item.setToolTip(plain_tip(text))
                    item.setTextAlignment(
                        Qt.AlignmentFlag.AlignVCenter | (self.side if k else Qt.AlignmentFlag.AlignLeft)
                    )
        at = self.order.index(current) if current in self.order else -1
        if at != self.table.currentRow():
            self.table.selectRow(at) if at >= 0 else self.table.clearSelection()
        self._narrow(self.filter.text())
        self._fit()

    def _mark_sorted(self) -> None:
        head = self.table.horizontalHeader()
        assert head is not None
        head.setSortIndicatorShown(self.sorted_by is not None)
        if self.sorted_by is not None:
            column, falls = self.sorted_by
            head.setSortIndicator(column, Qt.SortOrder.DescendingOrder if falls else Qt.SortOrder.AscendingOrder)

    def as_rows(self) -> list[list[str]]:
        """What the table shows, heading first, hidden rows left out."""
        columns = range(self.table.columnCount())
        rows = [list(self.columns)]
        for row in range(self.table.rowCount()):
            if not self.table.isRowHidden(row):
                rows.append([item.text() if (item := self.table.item(row, k)) else "" for k in columns])
        return rows

    def _narrow(self, text: str) -> None:
        words = text.lower().split()
        columns = range(1 if self.by_name else self.table.columnCount())
        for row in range(self.table.rowCount()):
            line = " ".join(item.text().lower() for k in columns if (item := self.table.item(row, k)))
            self.table.setRowHidden(row, not all(word in line for word in words))
