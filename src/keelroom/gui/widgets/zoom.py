"""Zoom and pan of a drawing: wheel and pinch about the pointer, drag with Space or the middle button, keys, and back
to fitted."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QEvent, QObject, QPointF, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QNativeGestureEvent, QTransform, QWheelEvent
from PyQt6.QtWidgets import QWidget

STEP, MOST = 1.25, 12.0
NOTCH = 120.0
"""Angle of one notch of a mouse wheel, in eighths of a degree."""


class Zoom(QObject):
    """How much larger than fitted a drawing stands, and how far it is pushed. It listens to the widget it belongs to.

    changed : called when either changes;  by_wheel : whether the plain wheel zooms, or only with Ctrl, where it scrolls
    """

    def __init__(self, widget: QWidget, changed: Callable[[], object], *, by_wheel: bool = True) -> None:
        super().__init__(widget)
        self.widget, self.changed, self.by_wheel = widget, changed, by_wheel
        self.factor, self.shift = 1.0, QPointF(0, 0)
        self.pushing = False
        """Space is held"""
        self.held: QPointF | None = None
        widget.installEventFilter(self)

    @property
    def fitted(self) -> bool:
        return self.factor == 1.0 and self.shift.isNull()

    def applied(self, view: QTransform) -> QTransform:
        """The fitted view as it is zoomed and pushed now."""
        return view * QTransform(self.factor, 0, 0, self.factor, self.shift.x(), self.shift.y())

    def reset(self) -> None:
        """Back to fitted."""
        self.factor, self.shift = 1.0, QPointF(0, 0)
        self.changed()

    def by(self, steps: float, at: QPointF | None = None) -> None:
        """Zoom in by steps (out where negative) about a place of the widget, its middle where none is given. 0 fits
        it."""
        if steps == 0:
            self.reset()
            return
        at = QPointF(self.widget.rect().center()) if at is None else at
        factor = min(max(self.factor * STEP**steps, 1.0), MOST)
        self.shift = at - (at - self.shift) * (factor / self.factor)
        self.factor = factor
        if factor == 1.0:
            self.shift = QPointF(0, 0)
        self.changed()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QWheelEvent):
            return self._wheel(event)
        if isinstance(event, QNativeGestureEvent) and event.gestureType() == Qt.NativeGestureType.ZoomNativeGesture:
            self.by(4 * event.value(), event.position())
            return True
        if isinstance(event, QKeyEvent) and event.key() == Qt.Key.Key_Space and not event.isAutoRepeat():
            self.pushing = event.type() == QEvent.Type.KeyPress
            return False
        if isinstance(event, QMouseEvent):
            return self._mouse(event)
        return False

    def _wheel(self, event: QWheelEvent) -> bool:
        if not self.by_wheel and not event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            return False
        turned = event.angleDelta().y() or event.angleDelta().x()
        if turned:
            self.by(turned / NOTCH, event.position())
        return True

    def _mouse(self, event: QMouseEvent) -> bool:
        """Push the drawing along while it is held by the middle button, or by the left one with Space."""
        kind = event.type()
        takes = event.button() == Qt.MouseButton.MiddleButton or (
            event.button() == Qt.MouseButton.LeftButton and self.pushing
        )
        if kind == QEvent.Type.MouseButtonPress and takes:
            self.held = event.position() - self.shift
            self.widget.setCursor(Qt.CursorShape.ClosedHandCursor)
            return True
        if self.held is None:
            return False
        if kind == QEvent.Type.MouseMove:
            self.shift = event.position() - self.held
            self.changed()
        elif kind == QEvent.Type.MouseButtonRelease:
            self.held = None
            self.widget.unsetCursor()
        return True
