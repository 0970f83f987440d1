"""Panes side by side or over one another, with a line between them that is seen and can be taken hold of."""

from __future__ import annotations

from PyQt6.QtGui import QPainter, QPaintEvent
from PyQt6.QtWidgets import QSplitter, QSplitterHandle


class Splitter(QSplitter):
    """A splitter whose handles wear the application's own rule, as no sheet reaches them."""

    def createHandle(self) -> QSplitterHandle:
        return _Line(self.orientation(), self)


class _Line(QSplitterHandle):
    def paintEvent(self, event: QPaintEvent | None) -> None:
        QPainter(self).fillRect(self.rect(), self.palette().mid())
