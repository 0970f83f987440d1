"""The Fit-up station."""

from __future__ import annotations

from PyQt6.QtWidgets import QWidget

from keelroom.assess.fit.mounts import bracket_plans
from keelroom.assess.fit.shroud_plan import fans_edit, pan_plan, seat_edit, trim_pattern, trim_plan
from keelroom.document.edits import Change, Edit, added, fresh_id
from keelroom.document.quantity import quantity
from keelroom.document.schema.package import Bracket, Place
from keelroom.drawing.pattern import gallery
from keelroom.drawing.scene import Scene
from keelroom.gui.session.session import Session
from keelroom.gui.stations.fitup.cut import cut_page
from keelroom.gui.stations.fitup.find import FindPage
from keelroom.gui.stations.fitup.gaps import GapsView
from keelroom.gui.stations.fitup.make import MakeView
from keelroom.gui.stations.fitup.model import bracket_to, pages
from keelroom.gui.theme.palette import palette_of
from keelroom.gui.widgets.fit_board import FitBoard
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.scene_view import SceneView


class FitUpStation(Form):
    """Places the package, judges its clearances, and plans what is cut, trimmed and bent for it."""

    def __init__(self, session: Session) -> None:
        self.board = FitBoard(session, palette_of(session.settings.theme))
        self.shroud_view: SceneView | None = None
        self.bracket_view: SceneView | None = None
        actions = {
            "centre": self._centre,
            "to_plane": self._to_plane,
            "put_back": self._put_back,
            "seat": self._seat,
            "rings": self._rings,
            "bracket_all": self._bracket_all,
            "add_bracket": self._add_bracket,
        }
        makers = {
            "Gaps": lambda: GapsView(session, self.board),
            "Find": lambda: FindPage(session),
            "Cut": lambda: cut_page(session),
            "Make": lambda: MakeView(session),
        }
        super().__init__(session, lambda: pages(session.build, session.system, session.assessment, self.current), actions, makers)

    def drawing(self) -> QWidget:
        if self.current == "Shroud":
            if self.shroud_view is None:
                self.shroud_view = SceneView(self.session, "Shroud, flat", self._shroud)
            return self.shroud_view
        if self.current == "Brackets":
            if self.bracket_view is None:
                self.bracket_view = SceneView(self.session, "Brackets, flat", self._brackets)
            return self.bracket_view
        page = self.views["Make"] if self.current == "Make" else None
        return page.drawing() if isinstance(page, MakeView) else self.board

    def go_to(self, path: tuple[str, ...]) -> bool:
        """Cuts and places have pages that are no forms."""
        if path[2:3] == ("cuts",):
            self.choose("Cut")
            return True
        if path[2:3] == ("moved",):
            self.choose("Place")
            return True
        return super().go_to(path)

    def _shroud(self) -> tuple[Scene | None, str, str]:
        package, system = self.session.build.package, self.session.system
        plan = trim_plan(package)
        if plan is not None:
            state = "seats" if plan.now.seats else "does not seat yet"
            return (
                gallery((trim_pattern(package, plan),), system),
                "Shroud as bought, with its trim lines",
                f"Solid: what is left. It {state}.",
            )
        made = pan_plan(package)
        if made is None:
            return None, "No shroud to draw", "The Air station fits one."
        return (
            gallery(made.made.patterns, system),
            "Shroud from sheet, unfolded",
            "Solid: cut. Dashed: bend. Corners stay open: rivet or weld them.",
        )

    def _brackets(self) -> tuple[Scene | None, str, str]:
        made = tuple(plan.made.pattern for plan in bracket_plans(self.session.build, self.session.build.package) if plan.made)
        scene = gallery(made, self.session.system)
        return scene, "Brackets, unfolded" if scene else "No bracket to draw yet", "Solid: cut. Ring: drill. Dashed: bend." if scene else ""

    # acts

    def _place(self, label: str, **update: object) -> None:
        place: Place = self.session.build.package.place
        self.session.set(("packages", self.session.build.active, "place"), place.model_copy(update=update), label)

    def _centre(self) -> None:
        self._place("Middle of the opening", x=None, y=None)

    def _to_plane(self) -> None:
        self._place("Against the support plane", z=quantity("0 in", "length"), lean=None)

    def _put_back(self) -> None:
        self.session.set(("packages", self.session.build.active, "moved"), (), "Put moved parts back")

    def _seat(self) -> None:
        self.session.attempt(seat_edit(self.session.build.package, self.session.system))

    def _rings(self) -> None:
        self.session.attempt(fans_edit(self.session.build.package, self.session.system))

    def _bracket_all(self) -> None:
        """A bracket to every surveyed hole that has none."""
        build = self.session.build
        present = build.package.brackets
        taken = {bracket.hole for bracket in present}
        made: list[Bracket] = []
        for hole in build.survey.holes:
            if hole.id not in taken and hole.x and hole.y and hole.z:
                made.append(bracket_to(build, hole.id, (*present, *made)))
        if not made:
            whole = [hole for hole in build.survey.holes if hole.x and hole.y and hole.z]
            self.session.told.emit(
                "Every fully measured hole has a bracket; measure more holes at Survey"
                if whole
                else "No hole is fully measured yet: measure where it lies across, its height and its depth at Survey first"
            )
            return
        where = ("packages", build.active, "brackets")
        self.session.attempt(Edit("One bracket to each surveyed hole", (Change(where, (*present, *made)),)))

    def _add_bracket(self) -> None:
        build = self.session.build
        ident = fresh_id(build.package.brackets, "bracket")
        bracket = Bracket(id=ident, name=f"Bracket {ident.removeprefix('bracket')}")
        self.session.attempt(added(build, ("packages", build.active, "brackets"), bracket, "Add a bracket"))
