"""Acts that wait a little, so that many changes in a row lead to one."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QObject, QTimer


def one_shot(owner: QObject, pause: int, act: Callable[[], object]) -> QTimer:
    """A timer that does `act` once, `pause` [ms] after it was last started."""
    timer = QTimer(owner)
    timer.setSingleShot(True)
    timer.setInterval(pause)
    timer.timeout.connect(act)
    return timer
