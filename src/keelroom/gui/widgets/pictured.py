"""A part of a page that brings the picture that stands beside it."""

from __future__ import annotations

from typing import Protocol, runtime_checkable

from PyQt6.QtCore import pyqtBoundSignal
from PyQt6.QtWidgets import QWidget

from keelroom.gui.widgets.scene_view import Picture


@runtime_checkable
class Pictured(Protocol):
    """A widget beside a picture of what it tells."""

    come: pyqtBoundSignal
    """an answer has come: the picture is another"""

    @property
    def picture(self) -> Picture | QWidget | None:
        """What stands in the middle of the window while it is seen; None for the bay."""
        ...
