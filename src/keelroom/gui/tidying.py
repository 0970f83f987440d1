"""Garbage is collected on the window's own thread.

A collection begins in whatever thread makes one object too many. Where that is a worker's, what closed dialogs and
pages left behind of the window system would be taken down there, beside a window that is at work.
"""

from __future__ import annotations

import gc

from PyQt6.QtCore import QObject, QTimer

EVERY = 500
"""[ms] between looks at whether enough has gathered."""


class Tidying(QObject):
    """Collects as often as Python itself would, when the window has a moment; lives as long as the window."""

    def __init__(self, window: QObject) -> None:
        super().__init__(window)
        timer = QTimer(self)
        timer.timeout.connect(tidy)
        timer.start(EVERY)


def tidy() -> None:
    """Collect the oldest generation that is due."""
    due = [
        generation
        for generation, (count, most) in enumerate(zip(gc.get_count(), gc.get_threshold(), strict=True))
        if count > most
    ]
    if due:
        gc.collect(due[-1])
