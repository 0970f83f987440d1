"""Leaving in good order when something else than the window asks for it: Ctrl+C in the terminal, the end of the
session."""

from __future__ import annotations

import os
import signal
import sys
from contextlib import suppress
from typing import TYPE_CHECKING

from PyQt6.QtCore import QTimer
from PyQt6.QtGui import QSessionManager
from PyQt6.QtWidgets import QApplication

if TYPE_CHECKING:
    from keelroom.gui.window import Window

LISTENS = 250
"""[ms] between two moments in which Python looks for signals: Qt's own loop never does."""


def leave_on_signals(window: Window) -> None:
    """Keep a recovery copy of what is not saved, then end, on SIGINT, SIGTERM and SIGHUP, which a terminal sends that
    is closed; nothing is asked, nobody may be there to answer."""

    def leave(_number: int, _frame: object) -> None:
        window.session.keep_recovery_copy()
        for stream in (sys.stdout, sys.stderr):
            with suppress(OSError, ValueError, AttributeError):
                stream.flush()
        # At once: a window cannot be taken apart in the midst of a dialog's loop, and nothing is left to be done by it.
        os._exit(0)

    for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(number, leave)
    timer = QTimer(window)
    timer.timeout.connect(lambda: None)
    timer.start(LISTENS)


def leave_with_session(app: QApplication, window: Window) -> None:
    """Be asked at the end of the desktop's session."""
    app.commitDataRequest.connect(lambda manager: end_session(window, manager))


def end_session(window: Window, manager: QSessionManager) -> None:
    """Keep a recovery copy of what is not saved, ask to save it where one may ask, and hold the session back where
    one is told to stay."""
    if not window.session.store.dirty:
        return
    window.session.keep_recovery_copy()
    if manager.allowsInteraction():
        may = window.files.may_leave()
        manager.release()
        if not may:
            manager.cancel()
