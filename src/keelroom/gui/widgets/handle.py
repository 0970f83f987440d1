"""Stands over a painted part so that the keyboard and a screen reader find it."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QEvent, Qt
from PyQt6.QtGui import QKeyEvent, QPaintEvent
from PyQt6.QtWidgets import QWidget

from keelroom.gui.session.session import Session

SIZE = 26
COARSE = 16
"""Steps of one arrow press with Shift: an inch, or 16 mm."""
Nudge = Callable[[tuple[int, int], int], object]


def arrow_of(key: int) -> tuple[int, int] | None:
    """Direction of an arrow key, None for any other. (Naming Qt's keys at import would slow the start.)"""
    arrows = {Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, 1), Qt.Key.Key_Down: (0, -1)}
    return arrows.get(Qt.Key(key))


class Handle(QWidget):
    """Invisible; the drawing outlines the part whose handle has the focus. `nudge` gets arrow keys, `lean` page keys,
    +1 down."""

    def __init__(
        self, drawing: QWidget, session: Session, nudge: Nudge, lean: Callable[[int], object] | None = None
    ) -> None:
        super().__init__(drawing)
        self.drawing, self.session, self.nudge, self.lean = drawing, session, nudge, lean
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.resize(SIZE, SIZE)

    def put(self, x: float, y: float, name: str) -> None:
        """Centre it on a pixel of the drawing under a new name."""
        self.move(int(x - SIZE / 2), int(y - SIZE / 2))
        self.setAccessibleName(name)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        turn = {Qt.Key.Key_PageUp: -1, Qt.Key.Key_PageDown: 1}.get(Qt.Key(event.key()))
        direction = arrow_of(event.key())
        if direction is not None:
            self.nudge(direction, COARSE if event.modifiers() & Qt.KeyboardModifier.ShiftModifier else 1)
        elif turn is not None and self.lean is not None:
            self.lean(turn)
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """Nothing of its own."""

    def focusInEvent(self, event: QEvent | None) -> None:
        self.drawing.update()

    def focusOutEvent(self, event: QEvent | None) -> None:
        self.session.let_go()
        self.drawing.update()
