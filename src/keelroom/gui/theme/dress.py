"""Puts the theme on: the application's own palette for everything plain, and a style sheet a region at a time.

One sheet for the whole application is looked through anew for every widget there is, seen or not, whenever it
changes: seconds once all pages were opened. A region wears the sheet itself, changes at once while it is seen, and
otherwise when it is next shown.
"""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtGui import QColor, QPalette
from PyQt6.QtWidgets import QApplication, QWidget

from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import Palette, palette_of, style_sheet


def dress(region: QWidget, session: Session) -> None:
    """Have a region wear the theme from now on. Regions do not stand in one another."""
    _Region(region, session)


class _Region(QObject):
    def __init__(self, region: QWidget, session: Session) -> None:
        super().__init__(region)
        self.region, self.session, self.worn = region, session, ""
        region.installEventFilter(self)
        session.display_changed.connect(self._change)
        if region.isVisible():
            self._wear()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if event is not None and event.type() in (QEvent.Type.Polish, QEvent.Type.Show):
            self._wear()
        return False

    def _change(self) -> None:
        if self.region.isVisible():
            self._wear()

    def _wear(self) -> None:
        name = self.session.settings.theme
        if name != self.worn:
            self.worn = name
            self.region.setStyleSheet(style_sheet(palette_of(name)))


def dress_application(palette: Palette) -> None:
    """What wears no sheet, dialogs and menus among it, takes its colours from the application."""
    application = QApplication.instance()
    assert isinstance(application, QApplication)
    wanted = QPalette(QColor(palette.raised), QColor(palette.paper))
    role = QPalette.ColorRole
    inks = {
        role.Window: palette.paper,
        role.WindowText: palette.ink,
        role.Base: palette.raised,
        role.AlternateBase: palette.panel,
        role.Text: palette.ink,
        role.Button: palette.raised,
        role.ButtonText: palette.ink,
        role.PlaceholderText: palette.faint,
        role.ToolTipBase: palette.raised,
        role.ToolTipText: palette.ink,
        role.Highlight: palette.accent,
        role.HighlightedText: palette.on_accent,
        role.Link: palette.accent,
        role.Mid: palette.rule,
    }
    for name, ink in inks.items():
        wanted.setColor(name, QColor(ink))
    for name in (role.WindowText, role.Text, role.ButtonText):
        wanted.setColor(QPalette.ColorGroup.Disabled, name, QColor(palette.faint))
    if application.palette() != wanted:
        application.setPalette(wanted)
