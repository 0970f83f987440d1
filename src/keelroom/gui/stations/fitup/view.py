"""The Fit-up station."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtWidgets import QWidget

from keelroom.assess.fit.bracket_edits import bracket_to
from keelroom.assess.fit.mounts import bracket_plans
from keelroom.assess.fit.panel_edits import closing
from keelroom.assess.fit.panels import panel_plans
from keelroom.assess.fit.shroud_plan import fans_edit, join_patterns, pan_plan, ring_of, seat_edit, trim_pattern, trim_plan
from keelroom.document.edits import Change, Edit, added, fresh_id
from keelroom.document.quantity import quantity
from keelroom.document.schema.mounts import Bracket, Frame
from keelroom.document.schema.moves import Move
from keelroom.document.schema.package import Place
from keelroom.document.schema.panels import EDGES
from keelroom.drawing.pattern import gallery
from keelroom.drawing.scene import Scene
from keelroom.gui.session.session import Session
from keelroom.gui.stations.fitup.cut import cut_page
from keelroom.gui.stations.fitup.find import FindPage
from keelroom.gui.stations.fitup.gaps import GapsView
from keelroom.gui.stations.fitup.make import MakeView
from keelroom.gui.stations.fitup.model import pages
from keelroom.gui.stations.fitup.panels import ADDS, new_panel
from keelroom.gui.stations.fitup.worth import WorthView
from keelroom.gui.theme.palette import palette_of
from keelroom.gui.widgets.fit_board import FitBoard
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.scene_view import SceneView


class Acts(dict[str, Callable[[], object]]):
    """Acts by code; one with a colon is done to what stands behind it."""

    def __init__(self, plain: dict[str, Callable[[], object]], of: dict[str, Callable[[str], object]]) -> None:
        super().__init__(plain)
        self.of = of

    def __missing__(self, code: str) -> Callable[[], object]:
        verb, _, ident = code.partition(":")
        return partial(self.of[verb], ident)


class FitUpStation(Form):
    """Places the package, judges its clearances, and plans what is cut, trimmed and bent for it."""

    def __init__(self, session: Session) -> None:
        self.board = FitBoard(session, palette_of(session.settings.theme))
        self.boards: dict[str, SceneView] = {}
        acts: dict[str, Callable[[], object]] = {
            "centre": self._centre,
            "to_plane": self._to_plane,
            "put_back": self._put_back,
            "seat": self._seat,
            "rings": self._rings,
            "bracket_all": self._bracket_all,
            "add_bracket": self._add_bracket,
            "add_frame": self._add_frame,
            "close_all": self._close_all,
            **{code: partial(self._add_panel, code) for code in ADDS},
        }
        actions = Acts(acts, {"move": self._move})
        makers = {
            "Gaps": lambda: GapsView(session, self.board),
            "Find": lambda: FindPage(session),
            "Cut": lambda: cut_page(session),
            "Worth": lambda: WorthView(session),
            "Make": lambda: MakeView(session),
        }
        super().__init__(session, lambda: pages(session.build, session.system, session.assessment, self.current), actions, makers)

    def drawing(self) -> QWidget:
        flat = {
            "Shroud": ("Shroud, flat", self._shroud),
            "Brackets": ("Brackets, flat", self._brackets),
            "Panels": ("Panels, flat", self._panels),
        }
        if self.current in flat:
            if self.current not in self.boards:
                self.boards[self.current] = SceneView(self.session, *flat[self.current])
            return self.boards[self.current]
        page = self.views["Make"] if self.current == "Make" else None
        return page.drawing() if isinstance(page, MakeView) else self.board

    def go_to(self, path: tuple[str, ...]) -> bool:
        """Cuts and places have pages that are no forms."""
        if path[2:3] == ("cuts",):
            self.choose("Cut")
            return True
        if super().go_to(path):
            return True
        pages = {"moves": "Neighbours", "panels": "Panels", "brackets": "Brackets"}
        if path[2:3] and path[2] in pages:
            self.choose(pages[path[2]])
            return True
        return False

    def _shroud(self) -> tuple[Scene | None, str, str]:
        package, system = self.session.build.package, self.session.system
        plan = trim_plan(package)
        if plan is not None:
            state = "seats" if plan.now.seats else "does not seat yet"
            ring = ring_of(package)[0]
            return (
                gallery((trim_pattern(package, plan), *join_patterns(package, plan), *((ring,) if ring else ())), system),
                "Two shrouds, with their trim lines and the pan they make" if plan.joined else "Shroud as bought, with its trim lines",
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
        plans = bracket_plans(self.session.build, self.session.build.package)
        made = tuple(pattern for plan in plans if plan.made for pattern in plan.made.patterns)
        scene = gallery(made, self.session.system)
        return scene, "Brackets, unfolded" if scene else "No bracket to draw yet", "Solid: cut. Ring: drill. Dashed: bend." if scene else ""

    def _panels(self) -> tuple[Scene | None, str, str]:
        made = tuple(pattern for plan in panel_plans(self.session.build, self.session.build.package) for pattern in plan.patterns)
        scene = gallery(made, self.session.system)
        if scene is None:
            return None, "No panel from sheet to draw yet", "Strips are foam alone."
        return scene, "Panels, unfolded", "Solid: cut. Ring: drill. Dashed: bend. Thin: bead."

    # acts

    def _place(self, label: str, **update: object) -> None:
        place: Place = self.session.build.package.place
        self.session.set(("packages", self.session.build.active, "place"), place.model_copy(update=update), label)

    def _centre(self) -> None:
        self._place("Middle of the opening", x=None, y=None)

    def _to_plane(self) -> None:
        self._place("Against the support plane", z=quantity("0 in", "length"), lean=None)

    def _put_back(self) -> None:
        self.session.set(("packages", self.session.build.active, "moves"), (), "Put moved parts back")

    def _move(self, ident: str) -> None:
        """A neighbour is to be moved: first it is simply gone, then the page asks how."""
        build = self.session.build
        item = next((one for one in build.survey.obstacles if one.id == ident), None)
        if item is not None:
            where = ("packages", build.active, "moves")
            if self.session.attempt(added(build, where, Move(id=ident), f"Move {item.name or ident}")):
                self.go_to((*where, ident, "how"))

    def _add_panel(self, code: str) -> None:
        build, where = self.session.build, ("packages", self.session.build.active, "panels")
        panel = new_panel(build, code)
        if self.session.attempt(added(build, where, panel, f"Add {panel.name.lower()}")):
            self.go_to((*where, panel.id, "name"))

    def _close_all(self) -> None:
        changes = closing(self.session.build.package, self.session.build.survey.air_holes, EDGES)
        if changes:
            self.session.attempt(Edit("Close every edge of the core", changes))
        else:
            self.session.told.emit("Every edge that is open has a panel or a strip already")

    def _add_frame(self) -> None:
        build = self.session.build
        frames = build.package.mounting.frames
        frame = Frame(id=fresh_id(frames, "frame"))
        self.session.attempt(added(build, ("packages", build.active, "mounting", "frames"), frame, "Add a frame of angle"))

    def _seat(self) -> None:
        self.session.attempt(seat_edit(self.session.build.package, self.session.system))

    def _rings(self) -> None:
        self.session.attempt(fans_edit(self.session.build.package, self.session.system))

    def _bracket_all(self) -> None:
        """A bracket to every surveyed hole that has none."""
        build = self.session.build
        present = build.package.brackets
        taken = {end for bracket in present for end in (bracket.start, bracket.end)}
        made: list[Bracket] = []
        for hole in build.survey.holes:
            if f"hole:{hole.id}" not in taken and hole.x and hole.y and hole.z:
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
