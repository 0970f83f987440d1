"""Every act by name, with its keys."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeySequence
from PyQt6.QtWidgets import QLineEdit, QListWidget, QListWidgetItem, QVBoxLayout, QWidget


class WindowCommand(NamedTuple):
    """An act by name, with its shortcut ('' none), the menu it stands in ("File/Export" for one in another) and its
    icon ('' none)."""

    name: str
    act: Callable[[], object]
    shortcut: str = ""
    menu: str = ""
    icon: str = ""


class CommandsPanel(QWidget):
    """Every act of the window in one list that narrows while typing."""

    def __init__(self, commands: tuple[WindowCommand, ...]) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.commands = commands
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 8, 10, 10)
        self.filter = QLineEdit()
        self.filter.setPlaceholderText("What do you want to do?")
        self.filter.setAccessibleName("Find an act")
        self.filter.textChanged.connect(self._narrow)
        self.filter.returnPressed.connect(self._first)
        self.list = QListWidget()
        self.list.setAccessibleName("Acts")
        for command in (one for one in commands if one.name):
            keys = (
                QKeySequence(command.shortcut).toString(QKeySequence.SequenceFormat.NativeText)
                if command.shortcut
                else ""
            )
            item = QListWidgetItem(f"{command.name}    {keys}".rstrip())
            item.setData(Qt.ItemDataRole.UserRole, command.name)
            self.list.addItem(item)
        self.list.itemActivated.connect(lambda item: self._do(item.data(Qt.ItemDataRole.UserRole)))
        self.list.itemClicked.connect(lambda item: self._do(item.data(Qt.ItemDataRole.UserRole)))
        column.addWidget(self.filter)
        column.addWidget(self.list, 1)

    def showEvent(self, event: object) -> None:
        self.filter.setFocus()
        self.filter.selectAll()

    def _narrow(self, text: str) -> None:
        words = text.lower().split()
        for i in range(self.list.count()):
            item = self.list.item(i)
            if item is not None:
                item.setHidden(not all(word in item.text().lower() for word in words))

    def _first(self) -> None:
        for i in range(self.list.count()):
            item = self.list.item(i)
            if item is not None and not item.isHidden():
                self._do(item.data(Qt.ItemDataRole.UserRole))
                return

    def _do(self, name: str) -> None:
        next(command for command in self.commands if command.name == name).act()
