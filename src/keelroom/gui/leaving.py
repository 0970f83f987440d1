"""Leaving in good order when something else than the window asks for it: Ctrl+C in the terminal, the end of the session."""

from __future__ import annotations

import signal
from typing import TYPE_CHECKING

from PyQt6 import sip
from PyQt6.QtCore import QThreadPool, QTimer
from PyQt6.QtGui import QSessionManager
from PyQt6.QtWidgets import QApplication, QDialog

if TYPE_CHECKING:
    from keelroom.gui.window import Window

MOST_OPEN = 20
"""Dialogs and menus over each other."""
LISTENS = 250
"""[ms] between two moments in which Python looks for signals: Qt's own loop never does."""


def leave_on_signals(app: QApplication, window: Window) -> None:
    """Keep a recovery copy of what is not saved, then quit, on SIGINT, SIGTERM and SIGHUP, which a terminal sends that is closed; nothing is
    asked, nobody may be there to answer."""

    def leave(_number: int, _frame: object) -> None:
        window.session.keep_recovery_copy()
        dismiss()
        app.exit(0)  # not quit, which would ask the window whether it may

    for number in (signal.SIGINT, signal.SIGTERM, signal.SIGHUP):
        signal.signal(number, leave)
    timer = QTimer(window)
    timer.timeout.connect(lambda: None)
    timer.start(LISTENS)


def dismiss() -> None:
    """Send away what stands over the window in a loop of its own: menus, and dialogs, the last opened first."""
    for _ in range(MOST_OPEN):
        over = QApplication.activePopupWidget() or QApplication.activeModalWidget()
        if over is None:
            return
        if isinstance(over, QDialog):
            over.reject()
        over.close()
        over.hide()


def take_down(window: Window) -> None:
    """Take the window apart while the application is still there: what is left to the end of the interpreter goes in no order."""
    pool = QThreadPool.globalInstance()
    if pool is not None:
        pool.clear()
        pool.waitForDone()
    dismiss()
    window.hide()
    sip.delete(window)


def leave_with_session(app: QApplication, window: Window) -> None:
    """Be asked at the end of the desktop's session."""
    app.commitDataRequest.connect(lambda manager: end_session(window, manager))


def end_session(window: Window, manager: QSessionManager) -> None:
    """Keep a recovery copy of what is not saved, ask to save it where one may ask, and hold the session back where one is told to stay."""
    if not window.session.store.dirty:
        return
    window.session.keep_recovery_copy()
    if manager.allowsInteraction():
        may = window.files.may_leave()
        manager.release()
        if not may:
            manager.cancel()
