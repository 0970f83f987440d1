"""The package in its bay on one board: one view large with its clearances, the two others small beside it, to swap
with a click.

Parts are dragged, nudged and leaned in any of the three; the others and every clearance follow.
"""

from __future__ import annotations

import math
from functools import cached_property, partial

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import (
    QColor,
    QContextMenuEvent,
    QFontMetrics,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPixmap,
    QPolygonF,
    QResizeEvent,
    QTransform,
)
from PyQt6.QtWidgets import QWidget

from keelroom.assess.fit.clearances import Fit, Gap
from keelroom.assess.placing import face_size, opening_outline, stand
from keelroom.assess.report import gap_words, verdict_sentence
from keelroom.core.outline import Box, circle
from keelroom.document.edits import Change
from keelroom.document.fields import part_of
from keelroom.document.quantity import Origin, from_si
from keelroom.document.schema.package import Fan
from keelroom.drawing.fitup import (
    AXES,
    TITLES,
    VIEWS,
    Limits,
    View,
    flat,
    outline_of,
    region,
    section_sheet,
    view_box,
    view_scene,
)
from keelroom.drawing.scene import Circle, Polyline, Scene
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import Palette
from keelroom.gui.widgets.act_menu import ActMenu
from keelroom.gui.widgets.handle import Handle
from keelroom.gui.widgets.inks import Ink, inks
from keelroom.gui.widgets.moving import SNAP_PIXELS, Line, let_go, moves, moving, nudge_of, snapped
from keelroom.gui.widgets.part_acts import DrawnPart, acts_of, fan_part
from keelroom.gui.widgets.scene_paint import ScenePainter, body_font, drawn
from keelroom.gui.widgets.standing import Standing
from keelroom.gui.widgets.text import plain_tip
from keelroom.gui.widgets.zoom import Zoom
from keelroom.units import KINDS, format_si

CLICK = 4.0
"""[px] under which a press and a release are a click."""
LEAN_STEP = math.radians(0.5)
MARGIN, TITLE, FOOT, HEAD = 12.0, 20.0, 46.0, 48.0
SMALL = 0.24
"""Share of the board's width the small views stand in."""
HANDS = (
    "Drag or arrow keys move, Shift moves 16 steps, Page Up and Page Down lean; wheel zooms, Space and drag pushes. "
    "Dashed: not measured."
)
"""What the hand can do, told at the foot."""
NAMES = ("x", "y", "z")

FAN_ORIGIN: Origin = "measured"
PLACE_ORIGIN: Origin = "derived"
"""Where a figure comes from that was dragged: a fan is put where it stands, the package's place is sought."""


class FitBoard(QWidget):
    """Paints the three views; a drag is one step of the trail."""

    def __init__(self, session: Session, palette: Palette) -> None:
        super().__init__()
        self.session, self.palette_now = session, palette
        self.scenes: dict[View, Scene] = {}
        self.views: dict[View, QTransform] = {}
        self.rooms: dict[View, QRectF] = {}
        self.limits: Limits | None = None
        self.large: View = "front"
        self.cache: QPixmap | None = None
        self.standing: dict[View, Standing] = {}
        self.drag: tuple[View, str, QPointF, tuple[float, float]] | None = None
        self.guides: list[tuple[View, str, float]] = []
        self.grips: dict[tuple[View, str], Handle] = {}
        self.marked: tuple[str, str] | None = None
        """a clearance that is pointed out, by the keys of its two parts"""
        self.pressed: QPointF | None = None
        self.setAccessibleName("Package in the bay: front, left side and from above")
        self.setMinimumSize(300, 200)
        self.setMouseTracking(True)
        self.zoom = Zoom(self, self.rebuild)
        session.changed.connect(self.rebuild)
        session.picked.connect(self._show_picked)
        session.display_changed.connect(self.rebuild)
        self.rebuild()

    @property
    def fit(self) -> Fit | None:
        return self.session.assessment.fit

    def set_palette(self, palette: Palette) -> None:
        self.palette_now = palette
        self.rebuild()

    def as_scene(self) -> Scene | None:
        """For an export: all three views on one sheet."""
        build = self.session.build
        return section_sheet(build, build.package, self.fit, self.session.system) if self.fit is not None else None

    def mark(self, gap: Gap | None) -> None:
        """Point out one clearance."""
        self.marked = (gap.part.key, gap.other.key) if gap else None
        self.cache = None
        self.update()

    def rebuild(self) -> None:
        if not self.isVisible():
            self.cache = None
            return
        fit, build = self.fit, self.session.build
        if fit is None:
            return
        if self.drag is None or self.limits is None:
            self.limits = region(fit)
        # While a part is held the picture keeps its scale under the hand.
        rooms = self._rooms()
        scales = {view: _scale(view_box(view, self.limits), rooms[view]) for view in VIEWS}
        self.scenes = {
            view: view_scene(
                view,
                build,
                build.package,
                fit,
                self.session.system,
                self.limits,
                scales[view] * self.zoom.factor if view == self.large else None,
            )
            for view in VIEWS
        }
        self._lay_out()
        self.cache = None
        self.setAccessibleDescription(self._verdict())
        self.update()

    def showEvent(self, event: object) -> None:
        self.rebuild()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self.rebuild()

    def swap(self, view: View) -> None:
        """Make another view the large one."""
        self.large = view
        self.zoom.reset()

    def _rooms(self) -> dict[View, QRectF]:
        """The large view at the left, the small ones under one another at the right."""
        small = self._small()
        high = self.height() - HEAD - self._foot()
        rooms: dict[View, QRectF] = {self.large: QRectF(MARGIN, HEAD, self.width() - small - 3 * MARGIN, high - TITLE)}
        each = (high - TITLE * 2 - 90) / 2
        for k, view in enumerate(view for view in VIEWS if view != self.large):
            rooms[view] = QRectF(self.width() - small - MARGIN, HEAD + k * (each + TITLE), small, each)
        return rooms

    def _small(self) -> float:
        """Width [px] of the small views."""
        return max(SMALL * self.width(), 130.0)

    def _foot(self) -> float:
        """Room [px] the words at the foot take: the narrower the board, the more lines."""
        width = int(self.width() - self._small() - MARGIN - 22)
        wrapped = QFontMetrics(body_font(9)).boundingRect(0, 0, width, 1000, int(Qt.TextFlag.TextWordWrap), HANDS)
        return max(FOOT, wrapped.height() + 8.0)

    def _lay_out(self) -> None:
        """Each view in the middle of its room, the large one as it is zoomed."""
        if not self.scenes or self.limits is None:
            return
        for view, room in self._rooms().items():
            left, bottom, wide, high = self.scenes[view].bounds
            scale = _scale((left, bottom, wide, high), room)
            size = QRectF(0, 0, scale * wide, scale * high)
            size.moveCenter(room.center())
            if view != self.large:
                size.moveTop(room.top())
            view_at = QTransform(scale, 0, 0, -scale, size.left() - scale * left, size.top() + scale * (bottom + high))
            self.rooms[view] = size if view != self.large or self.zoom.fitted else room
            self.views[view] = self.zoom.applied(view_at) if view == self.large else view_at
        self._place_grips()

    def _place_grips(self) -> None:
        fit = self.fit
        if fit is None:
            return
        wanted: dict[tuple[View, str], tuple[str, QPointF]] = {}
        core = next((body for body in fit.parts if body.key == "core"), None)
        for view in VIEWS if core else ():
            assert core
            at = self.views[view].map(QPointF(*flat(view, core.solid.centre)))
            wanted[(view, "package")] = (f"Package, {TITLES[view].lower()}", at)
        for number, fan in enumerate(self.session.build.package.fans, 1):
            ring = next((body for body in fit.parts if body.key == f"ring:{fan.id}"), None)
            if ring is not None:
                wanted[("front", fan.id)] = (
                    f"Fan {number}, from the front",
                    self.views["front"].map(QPointF(*flat("front", ring.solid.centre))),
                )
        for key in [key for key in self.grips if key not in wanted]:
            self.grips.pop(key).deleteLater()
        for key, (name, at) in wanted.items():
            grip = self.grips.get(key)
            if grip is None:
                grip = self.grips[key] = Handle(
                    self, self.session, partial(self.nudge, *key), lambda turn: self.lean(turn * LEAN_STEP)
                )
                grip.show()
            grip.put(at.x(), at.y(), name)

    # painting

    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self.cache is None or self.cache.size() != self.size() * self.devicePixelRatioF():
            # Under the hand speed counts; at rest the edges are smooth.
            self.cache = drawn(self, self.palette_now, self.render_board, smooth=self.drag is None)
        painter = QPainter(self)
        painter.drawPixmap(0, 0, self.cache)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(Ink(self.palette_now.accent, 1.2, dashed=True).pen())
        for view, axis, value in self.guides:
            at, room = self.views[view].map(QPointF(value, value)), self.rooms[view]
            if axis == "across":
                painter.drawLine(QPointF(at.x(), room.top()), QPointF(at.x(), room.bottom()))
            else:
                painter.drawLine(QPointF(room.left(), at.y()), QPointF(room.right(), at.y()))
        for (view, tag), grip in self.grips.items():
            if grip.hasFocus():
                painter.setPen(Ink(self.palette_now.accent, 2.0, dashed=True).pen())
                painter.drawRoundedRect(self._box(view, tag).adjusted(-4, -4, 4, 4), 4, 4)

    def _box(self, view: View, tag: str) -> QRectF:
        box = QRectF()
        for shape in self.scenes[view].shapes:
            if isinstance(shape, (Polyline, Circle)) and shape.tag == tag:
                box = box.united(self._outline(view, shape).boundingRect())
        return box

    def _outline(self, view: View, shape: Polyline | Circle) -> QPolygonF:
        if isinstance(shape, Polyline):
            return QPolygonF([self.views[view].map(QPointF(*point)) for point in shape.points])
        return QPolygonF([self.views[view].map(QPointF(*point)) for point in circle(shape.centre, shape.radius, 36)])

    def render_board(self, painter: QPainter) -> None:
        """Paint views, verdict and captions; also used for exporting the picture."""
        if not self.scenes:
            return
        table = inks(self.palette_now)
        for view in VIEWS:
            room = self.rooms[view]
            painter.setFont(body_font(9))
            painter.save()
            painter.setClipRect(room)
            brush, scene = ScenePainter(self.palette_now, self.views[view]), self.scenes[view]
            if self.drag is None:
                self.standing.clear()
                brush.scene(painter, scene, table)
            else:
                self.standing.setdefault(view, Standing()).paint(painter, brush, scene, table, room)
            self._ghost(painter, view)
            self._mark(painter, view)
            painter.restore()
            painter.setPen(Ink(self.palette_now.rule, 1.0, dashed=True).pen())
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(room)
            painter.setPen(QColor(self.palette_now.faint))
            title = TITLES[view] if view == self.large else f"{TITLES[view]}: click to swap"
            if painter.fontMetrics().horizontalAdvance(title) > room.width():
                title = TITLES[view]
            painter.drawText(QPointF(room.left() + 2, room.bottom() + 14), title)
        self._captions(painter)

    def _ghost(self, painter: QPainter, view: View) -> None:
        """The outline of what is held."""
        held = self.session.held.assessment.fit if self.session.held else None
        if held is None or held is self.fit:
            return
        brush, ink = ScenePainter(self.palette_now, self.views[view]), inks(self.palette_now)["ghost"]
        for body in held.parts:
            if body.key in ("core", "shroud") or body.sort == "fan":
                for shape in outline_of(view, body):
                    brush.paint(painter, shape, ink)

    def _mark(self, painter: QPainter, view: View) -> None:
        """The clearance that is pointed out, in every view."""
        fit = self.fit
        gap = (
            next((g for g in fit.gaps if (g.part.key, g.other.key) == self.marked), None)
            if fit and self.marked
            else None
        )
        if gap is None:
            return
        a, b = (self.views[view].map(QPointF(*flat(view, point))) for point in (gap.a, gap.b))
        painter.setPen(Ink(self.palette_now.accent, 2.4).pen())
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawLine(a, b)
        for end in (a, b):
            painter.drawEllipse(end, 6, 6)

    def _verdict(self) -> str:
        fit = self.fit
        if fit is None or (fit.chosen and not fit.surveyed):
            return "Not surveyed: nothing round the package is measured yet"
        return verdict_sentence(fit)

    def _captions(self, painter: QPainter) -> None:
        fit, palette = self.fit, self.palette_now
        verdict = fit.verdict if fit else "not surveyed"
        colour = {"does not fit": palette.bad, "clears": palette.good}.get(verdict, palette.doubt)
        painter.setPen(QColor(colour))
        painter.setFont(body_font(12))
        painter.drawText(QPointF(14, 22), self._verdict())
        painter.setPen(QColor(palette.faint))
        painter.setFont(body_font(9))
        if fit is not None and fit.tightest is not None:
            painter.drawText(QPointF(14, 39), "Tightest: " + gap_words(fit.tightest, self.session.system))
        small = [self.rooms[view] for view in VIEWS if view != self.large]
        left, top = min(room.left() for room in small), max(room.bottom() for room in small) + TITLE + 4
        notes = QRectF(left, top, self.width() - left - 8, self.height() - top)
        painter.drawText(notes, Qt.AlignmentFlag.AlignTop | Qt.TextFlag.TextWordWrap, self._legend())
        foot = self._foot()
        painter.drawText(
            QRectF(14, self.height() - foot, left - 22, foot - 4),
            Qt.AlignmentFlag.AlignBottom | Qt.TextFlag.TextWordWrap,
            HANDS,
        )

    def _legend(self) -> str:
        at = stand(self.session.build.survey, self.session.build.package)
        length, system = KINDS["length"], self.session.system
        lines = [
            f"{format_si(at.x, length, system)} from left",
            f"{format_si(at.y, length, system)} from bottom",
            f"{format_si(at.z, length, system)} behind the plane",
            f"leans {math.degrees(at.lean):.1f}°",
        ]
        return "Core stands\n" + "\n".join(lines).replace("-", "−")

    # moving

    def _under(self, at: QPointF) -> tuple[View, str] | None:
        for view in VIEWS:
            if not self.rooms.get(view, QRectF()).contains(at):
                continue
            for shape in reversed(self.scenes[view].shapes):
                if (
                    isinstance(shape, (Polyline, Circle))
                    and shape.tag
                    and self._outline(view, shape).containsPoint(at, Qt.FillRule.WindingFill)
                ):
                    # A fan moves over the face; from the side and from above it takes the package with it.
                    return view, shape.tag if view == "front" else "package"
        return None

    def part_under(self, at: QPointF) -> DrawnPart | None:
        """The body drawn at a place, with the least gap round it; of the package its fan or its core."""
        fit, build, system = self.fit, self.session.build, self.session.system
        view = next((view for view in VIEWS if self.rooms.get(view, QRectF()).contains(at)), None)
        if fit is None or view is None:
            return None
        nearest: dict[str, Gap] = {}
        for gap in fit.gaps:
            nearest.setdefault(gap.part.key, gap)
            nearest.setdefault(gap.other.key, gap)
        for body in sorted((*fit.parts, *fit.others), key=lambda body: body.solid.half[0] * body.solid.half[1]):
            if body.sort in ("hood", "panel") or not any(
                self._outline(view, shape).containsPoint(at, Qt.FillRule.WindingFill)
                for shape in outline_of(view, body)
                if isinstance(shape, (Polyline, Circle))
            ):
                continue
            fan = next(
                (fan for fan in build.package.fans if body.sort == "fan" and body.key.endswith(f":{fan.id}")), None
            )
            measure = gap_words(nearest[body.key], system) if body.key in nearest else ""
            if fan is not None:
                return fan_part(build, fan, system)._replace(measure=measure)
            return DrawnPart(body.name, measure, body.path)
        return None

    @cached_property
    def menu(self) -> ActMenu:
        return ActMenu(self, self.session, "What can be done with the part")

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        assert event is not None
        part = self.part_under(QPointF(event.pos()))
        if part is not None and part.path:
            self.menu.put_up(acts_of(self.session, part), event.globalPos(), part.words)

    def _fan(self, ident: str) -> Fan:
        return next(fan for fan in self.session.build.package.fans if fan.id == ident)

    def _now(self, view: View, tag: str) -> tuple[float, float]:
        """Where the part stands along the view's two ways [m]."""
        if tag != "package":
            fan = self._fan(tag)
            return fan.x.si, fan.y.si
        at = stand(self.session.build.survey, self.session.build.package)
        return flat(view, (at.x, at.y, at.z))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        found = self._under(event.position())
        if event.button() != Qt.MouseButton.LeftButton:
            return
        self.pressed = event.position()
        if found is None:
            small = next(
                (view for view in VIEWS if view != self.large and self.rooms[view].contains(event.position())), None
            )
            if small is not None:
                self.swap(small)
            return
        view, tag = found
        inverse, _ = self.views[view].inverted()
        self.drag = (view, tag, inverse.map(event.position()), self._now(view, tag))
        self.grips[(view, tag)].setFocus()
        self.setCursor(Qt.CursorShape.ClosedHandCursor)

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        """A small view is made the large one wherever it is clicked twice, on a part too."""
        assert event is not None
        small = next(
            (view for view in VIEWS if view != self.large and self.rooms[view].contains(event.position())), None
        )
        if small is not None:
            self.swap(small)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self.drag is None:
            found = self._under(event.position())
            self.setCursor(Qt.CursorShape.OpenHandCursor if found else Qt.CursorShape.ArrowCursor)
            part = self.part_under(event.position())
            self.setToolTip(plain_tip(part.words if part else ""))
            return
        view, tag, start, was = self.drag
        if not self._can_move(tag):
            let_go(self)  # undone or removed under the hand
            return
        inverse, _ = self.views[view].inverted()
        at = inverse.map(event.position())
        self._move(
            view, tag, self._snapped(view, tag, (was[0] + at.x() - start.x(), was[1] + at.y() - start.y())), "drag"
        )

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self.drag is not None:
            let_go(self)
        if (
            event is not None
            and self.pressed is not None
            and (event.position() - self.pressed).manhattanLength() < CLICK
        ):
            self._pick(event.position())
        self.pressed = None

    def _pick(self, at: QPointF) -> None:
        """A part that was clicked, not moved."""
        part = self.part_under(at)
        if part is not None and part.path:
            self.session.pick(part.path)

    def _show_picked(self) -> None:
        """The least gap of the part that was chosen is pointed out, unless one of its gaps is already."""
        gaps, part = self.fit.gaps if self.fit else (), self.session.part
        own = [gap for gap in gaps if part in (part_of(gap.part.path), part_of(gap.other.path))]
        if own and self.marked not in [(gap.part.key, gap.other.key) for gap in own]:
            self.mark(own[0])

    def _can_move(self, tag: str) -> bool:
        """Whether the build still has what is moved."""
        return tag == "package" or tag in {fan.id for fan in self.session.build.package.fans}

    def nudge(self, view: View, tag: str, direction: tuple[int, int], steps: int) -> None:
        """Move a part by sixteenths of an inch or by millimetres along a view's ways."""
        if not self._can_move(tag):
            return
        step, now = nudge_of(self.session.system) * steps, self._now(view, tag)
        self._move(view, tag, (now[0] + direction[0] * step, now[1] + direction[1] * step), "nudge")

    def lean(self, turn: float) -> None:
        """Lean the core further back by `turn` [rad]."""
        at = stand(self.session.build.survey, self.session.build.package)
        new = round((at.lean + turn) / LEAN_STEP) * LEAN_STEP
        where = ("packages", self.session.build.active, "place", "lean")
        self.session.attempt(
            moving("Lean the core", (Change(where, from_si(new, "angle", self.session.system, "derived")),), "lean")
        )

    def _move(self, view: View, tag: str, to: tuple[float, float], how: str) -> None:
        now = self._now(view, tag)
        if tag != "package":
            where: tuple[str, ...] = ("packages", self.session.build.active, "fans", tag)
            axes = {"x": (now[0], to[0]), "y": (now[1], to[1])}
            number = [fan.id for fan in self.session.build.package.fans].index(tag) + 1
            name, origin = f"Move fan {number}", FAN_ORIGIN
        else:
            where = ("packages", self.session.build.active, "place")
            axes = {
                NAMES[axis]: (sign * was, sign * value)
                for (axis, sign), was, value in zip(AXES[view], now, to, strict=True)
            }
            name, origin = "Move the package", PLACE_ORIGIN
        changes = moves(where, axes, self.session.system, origin)
        if changes:
            self.session.attempt(moving(name, changes, f"{how} {view} {tag}"))

    def _snapped(self, view: View, tag: str, to: tuple[float, float]) -> tuple[float, float]:
        """Pull towards the opening's middle and edges, the support plane, and a fan's middle of the face."""
        found, caught = snapped(to, self._lines(view, tag), SNAP_PIXELS / self.views[view].m11())
        self.guides = [(view, ("across", "up")[way], guide) for way, guide in caught]
        return found

    def _lines(self, view: View, tag: str) -> tuple[list[Line], list[Line]]:
        """Per way of a view: where the part may catch, and where the guide is then drawn."""
        build = self.session.build
        width, height = face_size(build.package)
        if tag != "package":
            at = stand(build.survey, build.package)
            fan = self._fan(tag)
            radius = fan.diameter.si / 2 if fan.diameter else 0.15
            return (
                [(x, at.x + x) for x in (width / 2, radius, width - radius)],
                [(y, at.y + y) for y in (height / 2, radius, height - radius)],
            )
        outline = opening_outline(build.survey, build.package)
        ways: dict[int, list[Line]] = {2: [(0.0, 0.0)]}
        if outline is not None:
            xs, ys = [x for x, _ in outline], [y for _, y in outline]
            ways[0] = _catches(min(xs), max(xs), width)
            ways[1] = _catches(min(ys), max(ys), height)
        both = [[(sign * value, sign * guide) for value, guide in ways.get(axis, [])] for axis, sign in AXES[view]]
        return both[0], both[1]


def _scale(box: Box, room: QRectF) -> float:
    """Pixels per metre at which a view fits its room."""
    return max(min(room.width() / max(box[2], 1e-6), room.height() / max(box[3], 1e-6)), 1.0)


def _catches(low: float, high: float, size: float) -> list[Line]:
    """Flush with either edge of the opening, or in its middle."""
    return [((low + high - size) / 2, (low + high) / 2), (low, low), (high - size, high)]
