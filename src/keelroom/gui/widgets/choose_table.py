"""A table of parts to choose from: a click or Enter puts the part into the package at once."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QAbstractItemView, QHeaderView, QLineEdit, QTableWidget, QTableWidgetItem, QVBoxLayout, QWidget

from keelroom.gui.widgets.text import label


class ChooseTable(QWidget):
    """Rows of cells; `choose` gets the row's index in the given order."""

    def __init__(
        self,
        name: str,
        columns: tuple[str, ...],
        choose: Callable[[int], object],
        note: str,
        hint: str = "copper, 24 ×, twin …",
        words: bool = False,
    ) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.choose = choose
        self.side = Qt.AlignmentFlag.AlignLeft if words else Qt.AlignmentFlag.AlignRight
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 8, 10, 10)
        column.addWidget(label(note, "faint", wrap=True))
        self.filter = QLineEdit()
        self.filter.setPlaceholderText(f"Narrow the list: {hint}")
        self.filter.setAccessibleName(f"Narrow the list of {name}")
        self.filter.textChanged.connect(self._narrow)
        column.addWidget(self.filter)
        self.table = QTableWidget(0, len(columns))
        self.table.setHorizontalHeaderLabels(list(columns))
        self.table.setAccessibleName(name)
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.table.setSelectionMode(QAbstractItemView.SelectionMode.SingleSelection)
        self.table.setTabKeyNavigation(False)
        self.table.setWordWrap(False)
        self.table.setShowGrid(False)
        vertical, horizontal = self.table.verticalHeader(), self.table.horizontalHeader()
        assert vertical is not None
        assert horizontal is not None
        vertical.hide()
        vertical.setDefaultSectionSize(24)
        horizontal.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
        horizontal.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        self.table.cellClicked.connect(lambda row, _column: self.choose(row))
        self.table.activated.connect(lambda index: self.choose(index.row()))
        column.addWidget(self.table, 1)

    def fit_to_cells(self, first: int = 196) -> None:
        """The first column takes what it needs instead of what is left; the table scrolls sideways."""
        horizontal = self.table.horizontalHeader()
        assert horizontal is not None
        horizontal.setSectionResizeMode(0, QHeaderView.ResizeMode.Interactive)
        self.table.setColumnWidth(0, first)

    def show_rows(self, rows: Sequence[tuple[str, ...]], current: int) -> None:
        self.table.setRowCount(len(rows))
        for i, cells in enumerate(rows):
            for k, text in enumerate(cells):
                item = self.table.item(i, k)
                if item is None:
                    item = QTableWidgetItem()
                    self.table.setItem(i, k, item)
                if item.text() != text:
                    item.setText(text)
                    item.setToolTip(text)
                    item.setTextAlignment(Qt.AlignmentFlag.AlignVCenter | (self.side if k else Qt.AlignmentFlag.AlignLeft))
        if current != self.table.currentRow():
            self.table.selectRow(current) if current >= 0 else self.table.clearSelection()

    def as_rows(self) -> list[list[str]]:
        """What the table shows, heading first, hidden rows left out."""
        columns = range(self.table.columnCount())
        rows = [[item.text() if (item := self.table.horizontalHeaderItem(k)) else "" for k in columns]]
        for row in range(self.table.rowCount()):
            if not self.table.isRowHidden(row):
                rows.append([item.text() if (item := self.table.item(row, k)) else "" for k in columns])
        return rows

    def _narrow(self, text: str) -> None:
        words = text.lower().split()
        for row in range(self.table.rowCount()):
            line = " ".join(item.text().lower() for k in range(self.table.columnCount()) if (item := self.table.item(row, k)))
            self.table.setRowHidden(row, not all(word in line for word in words))
