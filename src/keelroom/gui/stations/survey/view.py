"""The Survey station: the tape walk, with a picture of each reading in the middle of the window."""

from __future__ import annotations

from PyQt6.QtWidgets import QApplication, QWidget

from keelroom.assess.wording import lowered
from keelroom.document.edits import Change, Edit, added, fresh_id
from keelroom.document.fields import get, owner_and_spec
from keelroom.document.quantity import described, from_si, quantity
from keelroom.document.schema.survey import AirHole, Corner, HoseEnd, MountHole, Obstacle, Turning
from keelroom.drawing.scene import Scene
from keelroom.drawing.survey import picture
from keelroom.errors import InputError
from keelroom.gui.session.session import Session
from keelroom.gui.stations.survey.model import label_of, pages
from keelroom.gui.widgets.fields import field_round
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.reading import ReadingField, way_of
from keelroom.gui.widgets.scene_view import SceneView


class SurveyStation(Form):
    """Asks for one reading after the other; Enter goes on."""

    def __init__(self, session: Session) -> None:
        self.shown: tuple[str, ...] = ("survey", "opening", "width")
        actions = {
            "add_corner": self._add_corner,
            "add_turning": self._add_turning,
            "add_obstacle": self._add_obstacle,
            "add_hole": self._add_hole,
            "add_air_hole": self._add_air_hole,
            "add_port": self._add_port,
        }
        super().__init__(session, lambda: pages(session.build), actions)
        self.board = SceneView(session, "Where the tape goes", self._picture)
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        application.focusChanged.connect(self._focused)
        self.turned.connect(self._page_turned)

    def drawing(self) -> QWidget:
        return self.board

    def _focused(self, _old: QWidget | None, now: QWidget | None) -> None:
        """The picture follows the cursor."""
        field = field_round(now)
        if isinstance(field, ReadingField) and self.isAncestorOf(field):
            self.shown = field.path
            self.board.changed()

    def _page_turned(self) -> None:
        """A page begins with its first reading's picture, where the shown one belongs to another page."""
        page = next(page for page in self.pages() if page.title == self.current)
        paths = [row.path for group in page.groups for row in group.rows if row.sort == "reading"]
        if paths and self.shown not in paths:
            self.shown = paths[0]
            self.board.changed()

    def _picture(self) -> tuple[Scene | None, str, str]:
        build = self.session.build
        try:
            value = get(build, self.shown)
        except InputError:
            self.shown = ("survey", "opening", "width")
            value = get(build, self.shown)
        text = "measure"
        if value is not None:
            _, spec = owner_and_spec(build, self.shown)
            assert spec is not None
            text = described(value, spec.kind, self.session.system)
        following = self.session.assessment.fit.next if self.session.assessment.fit else None
        foot = f"Most useful next: {lowered(following.what)} ({following.why})" if following else ""
        return picture(self.shown, text), f"{label_of(build, self.shown)}: {way_of(value)}", foot

    # adding

    def _append(self, path: tuple[str, ...], member: object, label: str) -> None:
        if self.session.attempt(added(self.session.build, path, member, label)):
            self.refresh()
            self.go_to((*path, member.id))  # type: ignore[attr-defined]

    def _add_corner(self) -> None:
        """The first time the rectangle's own corners, so that nothing is lost; later one more after the last."""
        opening, system = self.session.build.survey.opening, self.session.system
        where = ("survey", "opening", "corners")
        if opening.corners:
            last, first = opening.corners[-1], opening.corners[0]
            x, y = (from_si((a.si + b.si) / 2, "length", system, "measured") for a, b in ((last.x, first.x), (last.y, first.y)))
            self._append(where, Corner(id=fresh_id(opening.corners, "corner"), x=x, y=y), "Add a corner")
            return
        wide = opening.width.si if opening.width else 0.6
        high = opening.height.si if opening.height else 0.45
        made: list[Corner] = []
        for x_si, y_si in ((0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high)):
            x, y = (from_si(v, "length", system, "measured") for v in (x_si, y_si))
            made.append(Corner(id=fresh_id(tuple(made), "corner"), x=x, y=y))
        self.session.attempt(Edit("Opening by its corners", (Change(where, tuple(made)),)))

    def _add_turning(self) -> None:
        turning = self.session.build.survey.engine.turning
        self._append(
            ("survey", "engine", "turning"), Turning(id=fresh_id(turning, "turning"), name="Another pulley"), "Add a pulley or belt"
        )

    def _add_obstacle(self) -> None:
        obstacles = self.session.build.survey.obstacles
        ident = fresh_id(obstacles, "obstacle")
        self._append(("survey", "obstacles"), Obstacle(id=ident, name=f"Obstacle {ident.removeprefix('obstacle')}"), "Add an obstacle")

    def _add_hole(self) -> None:
        holes = self.session.build.survey.holes
        ident = fresh_id(holes, "hole")
        hole = MountHole(id=ident, name=f"Hole {ident.removeprefix('hole')}", diameter=quantity("1/4 in", "length"))
        self._append(("survey", "holes"), hole, "Add a mounting hole")

    def _add_port(self) -> None:
        ends = self.session.build.survey.hoses
        role = next((role for role in ("heater_out", "heater_in", "steam") if not any(end.role == role for end in ends)), "steam")
        end = HoseEnd.model_validate({"id": fresh_id(ends, "port"), "role": role, "bore": quantity("5/8 in", "length")})
        self._append(("survey", "hoses"), end, "Add a port of the engine")

    def _add_air_hole(self) -> None:
        holes = self.session.build.survey.air_holes
        ident = fresh_id(holes, "air")
        self._append(
            ("survey", "air_holes"), AirHole(id=ident, name=f"Air hole {ident.removeprefix('air')}"), "Add a hole that lets air past"
        )
