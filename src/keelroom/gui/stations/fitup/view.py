"""The Fit-up station."""

from __future__ import annotations

from PyQt6.QtWidgets import QWidget

from keelroom.assess.fit.mounts import bracket_plans
from keelroom.assess.fit.panels import panel_plans
from keelroom.assess.fit.shroud_plan import join_patterns, pan_plan, ring_of, trim_pattern, trim_plan
from keelroom.drawing.pattern import gallery
from keelroom.drawing.scene import Scene
from keelroom.gui.session.session import Session
from keelroom.gui.stations.fitup.cut import cut_page
from keelroom.gui.stations.fitup.declared import FIT_UP
from keelroom.gui.stations.fitup.find import FindPage
from keelroom.gui.stations.fitup.gaps import GapsView
from keelroom.gui.stations.fitup.make import MakeView
from keelroom.gui.stations.fitup.model import page_of, pages
from keelroom.gui.theme.palette import palette_of
from keelroom.gui.widgets.fit_board import FitBoard
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.scene_view import Picture

FLAT = {"Brackets": "brackets", "Panels": "panels"}
"""parts of pages whose list members are drawn flat once one is chosen, and where they stand in a package"""


class FitUpStation(Form):
    """Places the package, judges its clearances, and plans what is cut, trimmed and bent for it."""

    def __init__(self, session: Session) -> None:
        self.board = FitBoard(session, palette_of(session.settings.theme))
        makers = {
            "Gaps": lambda: GapsView(session, self.board),
            "Find": lambda: FindPage(session),
            "Cut": lambda: cut_page(session),
            "Make": lambda: MakeView(session),
        }
        pictures: dict[str, Picture | QWidget] = {
            **dict.fromkeys(("Gaps", "Place", "Find", "Neighbours", "Cut", "Mounts"), self.board),
            "Shroud": Picture("Shroud, flat", self._shroud),
            "Brackets": Picture("Brackets, flat", self._brackets),
            "Panels": Picture("Panels, flat", self._panels),
        }
        super().__init__(
            session,
            FIT_UP,
            lambda: pages(session.build, session.system, session.assessment, self.current),
            {},
            makers,
            pictures,
            lambda title: page_of(title, session.build, session.system, session.assessment),
        )

    def drawing(self) -> QWidget | None:
        """Brackets and panels where they sit; the chosen one flat."""
        if self.current in FLAT and not self._chosen(FLAT[self.current]):
            return self.board
        return super().drawing()

    def _chosen(self, section: str) -> str:
        """The id of the list member that is chosen; '' where none is."""
        part = self.session.part
        return part[3] if part[2:3] == (section,) and len(part) > 3 else ""

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
                gallery(
                    (trim_pattern(package, plan), *join_patterns(package, plan), *((ring,) if ring else ())), system
                ),
                "Two shrouds, with their trim lines and the pan they make"
                if plan.joined
                else "Shroud as bought, with its trim lines",
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
        chosen = self._chosen("brackets")
        plans = [
            plan
            for plan in bracket_plans(self.session.build, self.session.build.package)
            if plan.bracket.id == chosen or not chosen
        ]
        made = tuple(pattern for plan in plans if plan.made for pattern in plan.made.patterns)
        scene = gallery(made, self.session.system)
        return (
            scene,
            "Brackets, unfolded" if scene else "No bracket to draw yet",
            "Solid: cut. Ring: drill. Dashed: bend." if scene else "",
        )

    def _panels(self) -> tuple[Scene | None, str, str]:
        chosen = self._chosen("panels")
        made = tuple(
            pattern
            for plan in panel_plans(self.session.build, self.session.build.package)
            if plan.panel.id == chosen or not chosen
            for pattern in plan.patterns
        )
        scene = gallery(made, self.session.system)
        if scene is None:
            return None, "No panel from sheet to draw yet", "Strips are foam alone."
        return scene, "Panels, unfolded", "Solid: cut. Ring: drill. Dashed: bend. Thin: bead."
