"""The menu bar, made from the window's acts."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path

from PyQt6.QtGui import QAction, QKeySequence
from PyQt6.QtWidgets import QMainWindow, QMenu, QMenuBar

from keelroom.gui.commands import MENUS, WindowCommand
from keelroom.gui.theme.icons import icon
from keelroom.gui.widgets.text import plain_tip


class Menus:
    """Menus by name, and the acts in them. `name_steps` and `list_recent` keep what changes up to date."""

    def __init__(self, window: QMainWindow, commands: Sequence[WindowCommand]) -> None:
        self.window = window
        # Bar and menus are made here and not by the window system: what it made itself it takes down without a word,
        # and whatever lies at that place next would be taken for a menu.
        bar = QMenuBar(window)
        window.setMenuBar(bar)
        bar.setNativeMenuBar(False)
        self.bar: QMenuBar = bar
        self.menus: dict[str, QMenu] = {}
        for name in MENUS:
            made = QMenu(f"&{name}", bar)
            bar.addMenu(made)
            made.aboutToShow.connect(self._draw_icons)
            self.menus[name] = made
        self.colour = self.inked = ""
        self.recent = QMenu("Open a recent build", window)
        self.acts: dict[str, QAction] = {}
        self.icons: dict[str, str] = {}
        for command in commands:
            self._add(command)

    def _add(self, command: WindowCommand) -> None:
        if not command.menu:
            return
        menu = self._menu(command.menu)
        if not command.name:
            menu.addSeparator()
            return
        action = QAction(command.name, self.window)
        if command.shortcut:
            action.setShortcut(QKeySequence(command.shortcut))
        action.triggered.connect(lambda _checked=False: command.act())
        menu.addAction(action)
        self.window.addAction(action)
        self.acts[command.name] = action
        if command.icon:
            self.icons[command.name] = command.icon
        if command.name.startswith("Open a build"):
            menu.addMenu(self.recent)

    def _menu(self, path: str) -> QMenu:
        """A menu, or one in it, by its path."""
        if path not in self.menus:
            place, _, name = path.rpartition("/")
            above = self._menu(place)
            made = QMenu(name, above)
            above.addMenu(made)
            self.menus[path] = made
        return self.menus[path]

    def ink(self, colour: str) -> None:
        """Icons in the theme's ink; drawn when a menu is first opened, so that the first picture need not wait for
        them."""
        self.colour = colour
        if self.inked:
            self._draw_icons()

    def _draw_icons(self) -> None:
        if self.inked != self.colour:
            self.inked = self.colour
            for name, drawing in self.icons.items():
                self.acts[name].setIcon(icon(drawing, self.colour))

    def name_steps(self, undo: str, redo: str) -> None:
        """Say what would be undone and redone."""
        for name, what in (("Undo", undo), ("Redo", redo)):
            self.acts[name].setText(f"{name}: {what}" if what else name)
            self.acts[name].setEnabled(bool(what))

    def list_recent(self, paths: Sequence[Path], open_one: Callable[[Path], object]) -> None:
        """The builds opened last, newest first."""
        self.recent.clear()
        self.recent.setEnabled(bool(paths))
        for path in paths:
            action = self.recent.addAction(path.name)
            assert action is not None
            action.setToolTip(plain_tip(str(path)))
            action.triggered.connect(lambda _checked=False, path=path: open_one(path))
