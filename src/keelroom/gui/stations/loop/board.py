"""The circuit in elevation, whose parts are moved up and down by hand."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QMouseEvent

from keelroom.assess.figures.read_off import air_in
from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.ports import part_name
from keelroom.drawing.loop import LEAST, CircuitSheet, dragged_height, loop_scene
from keelroom.drawing.scene import Circle, Polyline, Scene, Shape
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.handle import Handle
from keelroom.gui.widgets.moving import moves, moving, nudge_of
from keelroom.gui.widgets.scene_view import FOOT, HEAD, SceneView

REACH = 16.0
"""[px] round a part's middle it is picked up"""
CLICK = 4.0
PART = "part:"


class LoopBoard(SceneView):
    """Draws the circuit in the chosen case; a drag or the arrow keys change a part's height, a click goes to it or to
    a hose."""

    def __init__(self, session: Session, go: Callable[[tuple[str, ...]], object]) -> None:
        self.go = go
        self.drag: tuple[str, QPointF, float] | None = None
        self.pressed: QPointF | None = None
        self.grips: dict[str, Handle] = {}
        super().__init__(session, "The circuit in elevation", self._circuit)
        session.selected.connect(lambda _case: self.changed())

    def _circuit(self) -> tuple[Scene | None, str, str]:
        session, build = self.session, self.session.build
        if build.package.core.face_width is None:
            return None, "No core yet", "The circuit is drawn once a core is chosen at Core."
        figures = session.assessment.figures_of(session.case)
        found = air_in(build, build.package, session.assessment) if graph_of(build, build.package).whole else None
        settled = figures is not None and figures.verdict != "does_not_settle"
        scene = loop_scene(
            build,
            build.package,
            figures.loop if figures else None,
            found,
            session.system,
            warm=settled,
            room=self.room(),
        )
        name = next((case.name for case in build.duty_cases if case.id == session.case), "")
        title = f"The circuit, {name}" if figures and name else "The circuit"
        return (
            scene,
            title,
            "Heights are true; across it stands in the order coolant meets it. Wider: more flow. Triangles: "
            "high and low points. Drag a part to change its height.",
        )

    def room(self) -> CircuitSheet:
        """The sheet as large as the board lets it be, so that words and lines keep their sizes."""
        return CircuitSheet(max(self.width() - 28.0, LEAST.wide), max(self.height() - HEAD - FOOT, LEAST.tall))

    # parts and where they are

    def _tagged(self) -> dict[str, QPointF]:
        """Pixels of every part and hose that can be picked, by tag."""
        if self.scene is None:
            return {}
        view = self.view()
        return {
            shape.tag: view.map(_middle(shape))
            for shape in self.scene.shapes
            if isinstance(shape, Circle | Polyline) and shape.tag
        }

    def bring_up_to_date(self) -> None:
        super().bring_up_to_date()
        self._place_grips()

    def resizeEvent(self, event: object) -> None:
        self.changed()

    def _place_grips(self) -> None:
        places = {tag: at for tag, at in self._tagged().items() if tag.startswith(PART)}
        for tag in [tag for tag in self.grips if tag not in places]:
            self.grips.pop(tag).deleteLater()
        for tag, at in places.items():
            grip = self.grips.get(tag)
            if grip is None:
                grip = self.grips[tag] = Handle(self, self.session, partial(self._nudge, tag))
                grip.show()
            part = self._part(tag)
            grip.put(at.x(), at.y(), f"{part_name(part)} in the circuit" if part else tag)

    def _part(self, tag: str):  # type: ignore[no-untyped-def]
        return next((part for part in self.session.build.package.loop.parts if part.id == tag.removeprefix(PART)), None)

    def tag_at(self, at: QPointF) -> str:
        """What lies under a point: a part before a hose; '' for nothing."""
        near = [((place - at).manhattanLength(), tag) for tag, place in self._tagged().items()]
        parts = [one for one in near if one[1].startswith(PART) and one[0] < 2 * REACH]
        hoses = [one for one in near if not one[1].startswith(PART) and one[0] < 2 * REACH]
        return min(parts or hoses, default=(0.0, ""))[1]

    # moving

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        self.pressed = event.position()
        tag = self.tag_at(event.position()) if event.button() == Qt.MouseButton.LeftButton and not self.life else ""
        if tag.startswith(PART):
            self.drag = (tag, event.position(), self._height(tag))
            return
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if self.drag is None:
            super().mouseMoveEvent(event)
            return
        tag, start, was = self.drag
        if self._part(tag) is None:
            self._let_go()  # undone or removed under the hand
            return
        up = (start.y() - event.position().y()) / max(self.view().m11(), 1e-9)
        self._to(
            tag, was + dragged_height(self.session.build, self.session.build.package, up, self.room()), f"drag {tag}"
        )

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if (
            event is not None
            and self.pressed is not None
            and (event.position() - self.pressed).manhattanLength() < CLICK
        ):
            self._pick(self.tag_at(event.position()))
        if self.drag is not None:
            self._let_go()
        self.pressed = None
        super().mouseReleaseEvent(event)

    def _let_go(self) -> None:
        self.drag = None
        self.session.let_go()

    def _pick(self, tag: str) -> None:
        kind, _, ident = tag.partition(":")
        if ident:
            where = ("packages", self.session.build.active, "loop", "parts" if kind == "part" else "hoses", ident)
            self.go((*where, "y" if kind == "part" else "length"))

    def _height(self, tag: str) -> float:
        """[m] a part stands at, or is drawn at where that is not known."""
        part = self._part(tag)
        if part is not None and part.y is not None:
            return float(part.y.si)
        place = self._tagged()[tag]
        datum = next((other for other in self.session.build.package.loop.parts if other.y is not None), None)
        if datum is None or datum.y is None:
            return 0.0
        known = self._tagged()[f"{PART}{datum.id}"]
        up = (known.y() - place.y()) / max(self.view().m11(), 1e-9)
        return float(datum.y.si) + dragged_height(self.session.build, self.session.build.package, up, self.room())

    def _to(self, tag: str, height: float, key: str) -> None:
        part = self._part(tag)
        if part is None:
            return
        where = ("packages", self.session.build.active, "loop", "parts", part.id)
        now = part.y.si if part.y is not None else float("inf")
        changes = moves(where, {"y": (now, height)}, self.session.system, "measured")
        if changes:
            self.session.attempt(moving(f"Height of {part_name(part).lower()}", changes, key))

    def _nudge(self, tag: str, direction: tuple[int, int], steps: int) -> None:
        if direction[1]:
            self._to(tag, self._height(tag) + direction[1] * steps * nudge_of(self.session.system), f"nudge {tag}")


def _middle(shape: Shape) -> QPointF:
    if isinstance(shape, Circle):
        return QPointF(*shape.centre)
    assert isinstance(shape, Polyline)
    if shape.closed:
        xs, ys = zip(*shape.points, strict=True)
        return QPointF((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2)
    k = len(shape.points) // 2
    (x0, y0), (x1, y1) = shape.points[k - 1], shape.points[k]
    return QPointF((x0 + x1) / 2, (y0 + y1) / 2)
