"""A drawing in the middle of the window: fitted to its room, or as large as life on a calibrated screen."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QTransform, QWheelEvent
from PyQt6.QtWidgets import QWidget

from keelroom.assess.outcome import Stopped, attempted
from keelroom.drawing.scene import Label, Scene
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import Palette, palette_of
from keelroom.gui.widgets.inks import inks
from keelroom.gui.widgets.scene_paint import ScenePainter, body_font, fitted
from keelroom.gui.widgets.seen import WhenSeen
from keelroom.gui.widgets.zoom import Zoom

HEAD, FOOT = 50, 44
WORDED = 1000.0
"""[px/m] under which sheets of lanes and words would have their words on each other"""
Drawing = tuple[Scene | None, str, str]
"""a scene, its title and a line under it"""


class Picture(NamedTuple):
    """What stands in the middle of the window beside a part of a page. name : as a screen reader tells it

    draw : the drawing, asked again after every change;  readable : as `SceneView` takes it
    """

    name: str
    draw: Callable[[], Drawing]
    readable: float = 0.0


class SceneView(WhenSeen, QWidget):
    """Shows what `source` gives: a scene, its title and a line under it; asked again after every change."""

    def __init__(self, session: Session, name: str, source: Callable[[], Drawing], readable: float = 0.0) -> None:
        super().__init__()
        self.session, self.source = session, source
        self.palette_now = palette_of(session.settings.theme)
        self.scene: Scene | None = None
        self.title, self.foot = "", ""
        self.readable = readable
        """least pixels per metre; what does not fit then is scrolled down to, 0: always fitted"""
        self.down = self.right = 0.0
        """[px] it is scrolled down and to the right"""
        self.life = 0.0
        """pixels per metre where shown life-size, 0 where fitted"""
        self.shift = QPointF(0, 0)
        self.held: QPointF | None = None
        self.setAccessibleName(name)
        self.setMinimumSize(300, 200)
        if readable:
            self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.zoom = Zoom(self, self.update, by_wheel=not readable)
        session.changed.connect(self.changed)
        session.display_changed.connect(self.changed)
        session.selected.connect(lambda _case: self.changed())
        self.catch_up()

    def set_palette(self, palette: Palette) -> None:
        self.palette_now = palette
        self.update()

    def as_scene(self) -> Scene | None:
        """For an export."""
        self.catch_up()
        return self.scene

    def bring_up_to_date(self) -> None:
        drawn = attempted("The drawing", (), self.source)
        # What cannot be drawn says why where it would stand; nothing of an earlier build does.
        self.scene, self.title, self.foot = (None, "", drawn.sentence) if isinstance(drawn, Stopped) else drawn
        words = (
            [shape.text for shape in self.scene.shapes if isinstance(shape, Label)]
            if self.scene and self.readable
            else []
        )
        self.setAccessibleDescription(f"{self.title}. {self.foot} {'; '.join(words)}".strip())
        self.update()

    def show_life_size(self, pixels_per_metre: float) -> None:
        """Draw at this many pixels per metre; 0 to fit it again."""
        self.life, self.shift = pixels_per_metre, QPointF(0, 0)
        self.setCursor(Qt.CursorShape.OpenHandCursor if self.life else Qt.CursorShape.ArrowCursor)
        self.update()

    def view(self) -> QTransform:
        room = QRectF(self.rect()).adjusted(14, HEAD, -14, -FOOT)
        assert self.scene is not None
        if not self.life:
            return self.zoom.applied(self._scrolled(room) if self.readable else fitted(self.scene.bounds, room))
        left, bottom, _, high = self.scene.bounds
        # Life-size starts at the drawing's upper left corner: the rest is pulled into sight.
        x = room.left() - left * self.life + self.shift.x()
        y = room.top() + (bottom + high) * self.life + self.shift.y()
        return QTransform(self.life, 0, 0, -self.life, x, y)

    def _scrolled(self, room: QRectF) -> QTransform:
        """As wide as the room, from its top, at no less than the readable scale."""
        assert self.scene is not None
        left, bottom, wide, high = self.scene.bounds
        scale = min(max(min(room.width() / wide, room.height() / high), self.readable), 2.4 * self.readable)
        self.down = min(max(self.down, 0.0), max(high * scale - room.height(), 0.0))
        self.right = min(max(self.right, 0.0), max(wide * scale - room.width(), 0.0))
        x = room.left() + max(room.width() - wide * scale, 0.0) / 2 - left * scale - self.right
        return QTransform(scale, 0, 0, -scale, x, room.top() + (bottom + high) * scale - self.down)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        assert event is not None
        turned, sideways = -event.angleDelta().y() / 2, -event.angleDelta().x() / 2
        if event.modifiers() & Qt.KeyboardModifier.ShiftModifier and not sideways:
            turned, sideways = 0.0, turned
        self._scroll(turned, sideways)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        steps = {
            Qt.Key.Key_Down: (40.0, 0.0),
            Qt.Key.Key_Up: (-40.0, 0.0),
            Qt.Key.Key_PageDown: (300.0, 0.0),
            Qt.Key.Key_PageUp: (-300.0, 0.0),
            Qt.Key.Key_Right: (0.0, 40.0),
            Qt.Key.Key_Left: (0.0, -40.0),
        }
        step = next((step for key, step in steps.items() if key == event.key()), None)
        if self.readable and step is not None:
            self._scroll(*step)
        else:
            super().keyPressEvent(event)

    def _scroll(self, down: float, right: float) -> None:
        if self.readable:
            self.down += down
            self.right += right
            self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        palette = self.palette_now
        painter.fillRect(self.rect(), QColor(palette.paper))
        painter.setFont(body_font(9))
        if self.scene is not None:
            ScenePainter(palette, self.view()).scene(painter, self.scene, inks(palette), (0.0, float(self.height())))
        painter.setPen(QColor(palette.ink))
        painter.setFont(body_font(11))
        painter.fillRect(QRectF(0, 0, self.width(), 30), QColor(palette.paper))
        painter.drawText(QPointF(14, 22), self.title)
        if self.readable:
            painter.fillRect(QRectF(0, self.height() - FOOT, self.width(), FOOT), QColor(palette.paper))
        painter.setPen(QColor(palette.faint))
        painter.setFont(body_font(9))
        foot = QRectF(14, self.height() - 42, self.width() - 28, 38)
        painter.drawText(
            foot, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignBottom | Qt.TextFlag.TextWordWrap, self.foot
        )

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self.life:
            self.held = event.position() - self.shift

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self.held is not None:
            self.shift = event.position() - self.held
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self.held = None
