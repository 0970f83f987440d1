"""The bay drawing: the true-scale elevation, with fans and coolers that drag, snap and nudge."""

from __future__ import annotations

from functools import cached_property, partial

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QContextMenuEvent, QMouseEvent, QPainter, QPaintEvent, QPixmap, QResizeEvent, QTransform
from PyQt6.QtWidgets import QToolTip, QWidget

from keelroom.assess.outcome import Stopped, attempted
from keelroom.document.schema.build import Build
from keelroom.drawing.elevation import elevation
from keelroom.drawing.scene import Rect, Scene
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import Palette
from keelroom.gui.widgets.act_menu import ActMenu
from keelroom.gui.widgets.air_overlay import Overlay, OverlayPainter
from keelroom.gui.widgets.handle import Handle
from keelroom.gui.widgets.inks import Ink, inks
from keelroom.gui.widgets.movable import Movable, movables
from keelroom.gui.widgets.moving import SNAP_PIXELS, let_go, moves, moving, nudge_of, snapped
from keelroom.gui.widgets.part_acts import DrawnPart, acts_of, core_part, fan_part
from keelroom.gui.widgets.scene_paint import ScenePainter, body_font, drawn, fitted
from keelroom.gui.widgets.text import plain_tip
from keelroom.gui.widgets.zoom import Zoom

HOLD = 6.0
"""[px] from an edge at which a part is taken hold of"""
HIDDEN_BY_MAP = ("core.tube", "fan.blade", "fan.hub", "fan.size", "cover", "cover.name", "panel.name")
"""what would hide the map, or be hidden by it"""


class BayDrawing(QWidget):
    """Paints the scene of the active package; a drag is one step of the trail."""

    painted = pyqtSignal()
    """the drawing is on the screen for the first time"""

    def __init__(self, session: Session, palette: Palette) -> None:
        super().__init__()
        self.session, self.palette_now = session, palette
        self.scene: Scene = self._drawn()
        self.view = QTransform()
        self.cache: QPixmap | None = None
        self.drag: tuple[str, float, float] | None = None
        self.guides: list[tuple[str, float]] = []
        self.handles: dict[str, Handle] = {}
        self.parts: dict[str, Movable] = {}
        """what can be moved, by id"""
        self.seen = self.stale = False
        self.overlay: OverlayPainter | None = None
        self.overlay_of: Build | None = None
        self.pointed = ""
        self.setAccessibleName("Elevation of core and fans")
        self.setMinimumSize(300, 200)
        self.setMouseTracking(True)
        self.zoom = Zoom(self, self._zoomed)
        session.changed.connect(self.rebuild)
        session.picked.connect(self.update)
        session.display_changed.connect(self.rebuild)
        self.rebuild()

    def show_overlay(self, overlay: Overlay | None, of: Build | None = None) -> None:
        """Lay a map over the face, or take it off. of: the build it was worked out for; over another one it fades and
        tells no figures"""
        self.overlay_of = of
        self.overlay = OverlayPainter(overlay, self.session.build.package, self.palette_now) if overlay else None
        self.cache = None
        self.update()

    @property
    def _map_holds(self) -> bool:
        """Whether the map that is laid over belongs to the build as it stands."""
        return self.overlay_of is self.session.build

    def set_palette(self, palette: Palette) -> None:
        self.palette_now = palette
        self.rebuild()

    def as_scene(self) -> Scene:
        """For an export."""
        return self.scene

    def rebuild(self) -> None:
        if self.seen and not self.isVisible():
            self.stale = True  # another drawing is in front: this one is made when it is wanted
            return
        self.stale = False
        if self.drag is None or not self.scene.shapes:
            self.scene = self._drawn()
            self._fit()
        else:
            # While a fan is held the picture keeps its scale under the hand.
            self.scene = Scene(self._drawn().shapes, self.scene.bounds)
        if self.overlay is not None:
            self.overlay = OverlayPainter(self.overlay.overlay, self.session.build.package, self.palette_now)
        self.cache = None
        self._place_handles()
        self.update()

    def _drawn(self) -> Scene:
        """The elevation of the build as it stands, or why there is none."""
        build = self.session.build
        drawn = attempted("The elevation", (), lambda: elevation(build.package, self.session.system, build.survey))
        return Scene((), (0.0, 0.0, 1.0, 1.0), drawn.sentence) if isinstance(drawn, Stopped) else drawn

    def showEvent(self, event: object) -> None:
        if self.stale:
            self.rebuild()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self._fit()
        self.cache = None
        self._place_handles()

    def _fit(self) -> None:
        margin = 14.0
        self.view = self.zoom.applied(
            fitted(self.scene.bounds, QRectF(self.rect()).adjusted(margin, margin, -margin, -margin))
        )

    def _zoomed(self) -> None:
        self._fit()
        self.cache = None
        self._place_handles()
        self.update()

    def _place_handles(self) -> None:
        self.parts = movables(self.session.build, self.session.system) if self.scene.shapes else {}
        for ident in [ident for ident in self.handles if ident not in self.parts]:
            self.handles.pop(ident).deleteLater()
        for ident, part in self.parts.items():
            handle = self.handles.get(ident)
            if handle is None:
                handle = self.handles[ident] = Handle(self, self.session, partial(self.nudge, ident))
                handle.show()
            at = self.view.map(QPointF(*part.grip))
            handle.put(at.x(), at.y(), part.words)

    # painting

    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self.cache is None or self.cache.size() != self.size() * self.devicePixelRatioF():
            self.cache = drawn(self, self.palette_now, self.render_scene)
        painter = QPainter(self)
        painter.drawPixmap(0, 0, self.cache)
        self._ring_focused(painter)
        if self.guides:
            painter.setPen(Ink(self.palette_now.accent, 1.0, dashed=True).pen())
            for axis, value in self.guides:
                at = self.view.map(QPointF(value, value))
                if axis == "x":
                    painter.drawLine(QPointF(at.x(), 0), QPointF(at.x(), self.height()))
                else:
                    painter.drawLine(QPointF(0, at.y()), QPointF(self.width(), at.y()))
        if not self.seen:
            self.seen = True
            self.painted.emit()

    def _ring_focused(self, painter: QPainter) -> None:
        """Round the part that has the cursor, or is chosen in the form."""
        held = next((ident for ident, handle in self.handles.items() if handle.hasFocus()), None)
        held = held or next((ident for ident in self.handles if ident in self.session.part), None)
        part = self.parts.get(held) if held else None
        if part is not None:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(Ink(self.palette_now.accent, 1.6, dashed=True).pen())
            painter.setBrush(Qt.BrushStyle.NoBrush)
            left, bottom, wide, high = part.box
            outline = self.view.mapRect(QRectF(left, bottom, wide, high)).adjusted(-5, -5, 5, 5)
            (painter.drawEllipse if part.round else painter.drawRect)(outline)

    def render_scene(self, painter: QPainter) -> None:
        """Paint the scene and its captions; also used for exporting the picture."""
        table = inks(self.palette_now)
        painter.setFont(body_font(9))
        if not self.scene.shapes:
            painter.setPen(QColor(self.palette_now.faint))
            painter.setFont(body_font(11))
            painter.drawText(QRectF(self.rect()), Qt.AlignmentFlag.AlignCenter, self.scene.note)
            return
        brush = ScenePainter(self.palette_now, self.view)
        for shape in self.scene.shapes:
            ink = table.get(shape.role, Ink(self.palette_now.faint))
            if self.overlay is not None:
                if shape.role in HIDDEN_BY_MAP:
                    continue
                ink = (
                    ink._replace(fill="", stroke=self.palette_now.ink, width=1.6)
                    if shape.role.startswith("fan")
                    else ink
                )
            brush.paint(painter, shape, ink)
            if self.overlay is not None and shape.role == "core.face":
                self.overlay.paint(painter, self.view, tells=self._map_holds)
        if self.overlay is not None and self._map_holds:
            self.overlay.fan_words(painter, self.view)
        self._ghost(painter, table["ghost"])
        self._caption(painter)

    def _ghost(self, painter: QPainter, ink: Ink) -> None:
        """The outline of what is held."""
        held = self.session.held
        if held is None or held.build.package == self.session.build.package:
            return
        for shape in elevation(held.build.package, self.session.system, held.build.survey).shapes:
            if shape.role in ("core.face", "fan.ring", "shroud.edge", "cover"):
                ScenePainter(self.palette_now, self.view).paint(painter, shape, ink)

    def _caption(self, painter: QPainter) -> None:
        package = self.session.build.package
        painter.setPen(QColor(self.palette_now.ink))
        painter.setFont(body_font(11))
        painter.drawText(QPointF(14, 22), f"Front elevation: {package.name or 'package'}")
        painter.setPen(QColor(self.palette_now.faint))
        painter.setFont(body_font(9))
        painter.drawText(QPointF(14, 40), package.core.name or "Core as entered")
        shroud = {
            "full": "Full shroud",
            "partial": "Shroud over part of the face",
            "none": "No shroud: only the discs behind the fans are swept",
        }
        foot = QRectF(14, self.height() - 26, self.width() - 28, 18)
        if self.overlay is not None:
            if self._map_holds:
                self.overlay.legend(painter, foot)
            else:
                painter.drawText(
                    foot,
                    Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter,
                    "The map is being worked out anew …",
                )
            return
        words = shroud[package.shroud.kind] if package.fans else "No fan yet: choose one at the Air station"
        painter.drawText(foot, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, words)

    # moving parts

    def _held_under(self, at: QPointF) -> str:
        """The id of the topmost part that is taken hold of at a place of the widget; '' where none is."""
        inverse, _ = self.view.inverted()
        place, reach = inverse.map(at), HOLD / self.view.m11()
        held = [
            ident
            for ident, part in self.parts.items()
            if part.held_at(place.x(), place.y(), reach) and (part.round or self.overlay is None)  # a map hides coolers
        ]
        return held[-1] if held else ""

    def part_under(self, at: QPointF) -> DrawnPart | None:
        """The part drawn at a place of the widget; None where there is none."""
        build, system = self.session.build, self.session.system
        held = self._held_under(at)
        fan = next((fan for fan in build.package.fans if fan.id == held), None)
        if fan is not None:
            return fan_part(build, fan, system)
        if held:
            part = self.parts[held]
            return DrawnPart(part.name, part.place, (*part.where, part.axes[0]))
        inverse, _ = self.view.inverted()
        x, y = inverse.map(at).x(), inverse.map(at).y()
        for shape in reversed(self.scene.shapes):
            if (
                isinstance(shape, Rect)
                and shape.left <= x <= shape.left + shape.width
                and shape.bottom <= y <= shape.bottom + shape.height
            ):
                if shape.role == "core.face":
                    return core_part(build, system)
                if shape.role == "core.tank":
                    return core_part(build, system)._replace(
                        name="Tank", path=("packages", build.active, "core", "tank_size")
                    )
        return None

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """To the figures of what is clicked twice."""
        assert event is not None
        part = self.part_under(event.position())
        if part is not None:
            self.session.asked_for.emit(part.path)

    @cached_property
    def menu(self) -> ActMenu:
        return ActMenu(self, self.session, "What can be done with the part")

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        assert event is not None
        part = self.part_under(QPointF(event.pos()))
        if part is not None:
            self.menu.put_up(acts_of(self.session, part), event.globalPos(), part.words)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        ident, part = self._held_under(event.position()), self.part_under(event.position())
        if event.button() != Qt.MouseButton.LeftButton:
            return
        if part is not None:
            self.session.pick(part.path)
        if not ident:
            return
        inverse, _ = self.view.inverted()
        at, (x, y) = inverse.map(event.position()), self.parts[ident].at
        self.drag = (ident, x - at.x(), y - at.y())
        self.handles[ident].setFocus()
        self.setCursor(Qt.CursorShape.ClosedHandCursor)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self.drag is None:
            self._point_out(event)
            self.setCursor(
                Qt.CursorShape.OpenHandCursor if self._held_under(event.position()) else Qt.CursorShape.ArrowCursor
            )
            return
        ident, dx, dy = self.drag
        if ident not in self.parts:
            let_go(self)  # undone, removed or emptied under the hand
            return
        inverse, _ = self.view.inverted()
        at = inverse.map(event.position())
        x, y = self._snapped(ident, at.x() + dx, at.y() + dy)
        self._move(ident, x, y, f"drag {ident}")

    def _point_out(self, event: QMouseEvent) -> None:
        """The map's value under the pointer, or the part and its measure, as a tool tip and for readers."""
        inverse, _ = self.view.inverted()
        part = self.part_under(event.position())
        told = self.overlay.under(inverse.map(event.position())) if self.overlay and self._map_holds else ""
        self.pointed = told or (part.words if part else "")
        self.setAccessibleDescription(self.pointed)
        if self.pointed:
            QToolTip.showText(event.globalPosition().toPoint(), plain_tip(self.pointed), self)
        else:
            QToolTip.hideText()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self.drag is not None:
            let_go(self)

    def nudge(self, ident: str, direction: tuple[int, int], steps: int) -> None:
        """Move a part by sixteenths of an inch or by millimetres."""
        if ident not in self.parts:
            return
        (x, y), step = self.parts[ident].at, nudge_of(self.session.system) * steps
        self._move(ident, x + direction[0] * step, y + direction[1] * step, f"nudge {ident}")

    def _move(self, ident: str, x: float, y: float, merge: str) -> None:
        part = self.parts[ident]
        axes = {name: (now, to) for name, now, to in zip(part.axes, part.at, (x, y), strict=True)}
        changes = moves(part.where, axes, self.session.system, "measured")
        if changes:
            self.session.attempt(moving(part.label, changes, merge))

    def _snapped(self, ident: str, x: float, y: float) -> tuple[float, float]:
        """Pull towards what the part catches on; guides show what it caught."""
        part = self.parts[ident]
        drawn_off = [edge - at for edge, at in zip(part.box[:2], part.at, strict=True)]
        ways = [
            [(line, line + (0.0 if part.round else off)) for line in lines]
            for lines, off in zip(part.ways, drawn_off, strict=True)
        ]
        found, caught = snapped((x, y), (ways[0], ways[1]), SNAP_PIXELS / self.view.m11())
        self.guides = [("xy"[way], line) for way, line in caught]
        return found
