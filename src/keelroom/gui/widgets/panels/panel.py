"""A scrolled column that is emptied and filled again, and a line of two for it."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout

from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.seen import WhenSeen
from keelroom.gui.widgets.text import label, replace_body


class DrawerPanel(WhenSeen, ScrolledColumn):
    """A scrolled column that is emptied and filled again."""

    def fresh(self) -> QVBoxLayout:
        body, column = self.blank()
        replace_body(self, body)
        return column


def pair(column: QVBoxLayout, what: str, value: str) -> QLabel:
    """A line of two: what, and its value at the right, which is returned."""
    line = QHBoxLayout()
    line.addWidget(label(what, wrap=True), 1)
    shown = label(value)
    shown.setAlignment(Qt.AlignmentFlag.AlignRight)
    line.addWidget(shown)
    column.addLayout(line)
    return shown
