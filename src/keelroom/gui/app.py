"""Starts the application: fonts, session, window, recovery."""

from __future__ import annotations

import gc
import os
import sys
from pathlib import Path

from PyQt6.QtCore import QMessageLogContext, QtMsgType, qInstallMessageHandler
from PyQt6.QtGui import QFont, QFontDatabase, QIcon, QPixmap
from PyQt6.QtWidgets import QApplication

from keelroom import ASSETS
from keelroom.core.compiled import why_slow
from keelroom.document.autosave import Autosave
from keelroom.document.file import read
from keelroom.errors import UNREADABLE
from keelroom.gui.leaving import leave_on_signals, leave_with_session
from keelroom.gui.session.crash import install
from keelroom.gui.session.session import Session
from keelroom.gui.session.settings import Settings
from keelroom.gui.tidying import Tidying
from keelroom.gui.window import Window

NO_DISPLAY = (
    "keelroom: there is no display to open a window on, or it cannot be used; assess, sheet, new and schema need "
    "none, and xvfb-run gives a virtual one\n"
)


def application() -> QApplication:
    """The one QApplication, with our fonts and icon."""
    existing = QApplication.instance()
    if isinstance(existing, QApplication):
        return existing  # dressing it again would polish every widget there is
    before = qInstallMessageHandler(_at_start)
    app = QApplication(sys.argv[:1])
    qInstallMessageHandler(before)
    app.setApplicationName("Keel Room")
    app.setDesktopFileName("keelroom")
    app.setStyle("Fusion")
    for name in ("OpenSans-Regular.ttf", "OpenSans-Semibold.ttf"):
        QFontDatabase.addApplicationFontFromData((ASSETS / "fonts" / name).read_bytes())
    app.setFont(QFont("Open Sans", Settings().text_size))
    icon = QPixmap()
    icon.loadFromData((ASSETS / "keelroom.png").read_bytes())
    app.setWindowIcon(QIcon(icon))
    return app


def _at_start(sort: QtMsgType, _where: QMessageLogContext, text: str | None) -> None:
    """What Qt says while it starts. Without a display it would abort the process with a dump: one sentence instead,
    as for anything else that could not be done."""
    if sort == QtMsgType.QtFatalMsg:
        sys.stderr.write(NO_DISPLAY)
        sys.stderr.flush()
        os._exit(UNREADABLE)


def make_window(path: Path | None = None, as_copy: bool = False) -> Window:
    """A window on a file, on a copy of it that has no file yet, or on the start page with what was left behind.

    Raises DocumentError, before any window opens, for a file that cannot be read.
    """
    stored = read(path) if path else None
    session = Session(Settings(), Autosave(), stored.build if stored else None)
    if stored and path:
        if as_copy:
            session.begin_copy(stored)
        else:
            session.open_read(stored, path)
    install(session)
    window = Window(session)
    if path:
        window.enter()
    else:
        window.show_start(session.waiting())
    Tidying(window)
    return window


def run(path: Path | None, as_copy: bool = False) -> int:
    """Run until the window is closed. Raises DocumentError as `make_window` does."""
    app = application()
    window = make_window(path, as_copy)
    gc.freeze()
    leave_on_signals(window)
    leave_with_session(app, window)
    window.show()
    say_what_is_slow(window)
    return app.exec()


def say_what_is_slow(window: Window) -> None:
    """Once, that something runs interpreted which could run compiled, and what would make it fast."""
    slow, settings = why_slow(), window.session.settings
    if settings.said_slow == slow:
        return
    settings.said_slow = slow
    if slow:
        window.session.told.emit(slow)
