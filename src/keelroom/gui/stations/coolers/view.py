"""The Aux coolers station."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtWidgets import QWidget

from keelroom.assess.acts.coolers import KINDS_OF_COOLER
from keelroom.assess.acts.registry import offer
from keelroom.document.act import Act
from keelroom.document.schema.coolers import CoolerKind
from keelroom.drawing.coolers import fluids_scene
from keelroom.drawing.scene import Scene
from keelroom.drawing.spots import spots_scene
from keelroom.gui.session.session import Session
from keelroom.gui.stations.coolers.model import pages
from keelroom.gui.stations.coolers.tables import BooksView, ListView, PlacesView, WaysView
from keelroom.gui.stations.coolers.told import LinesPage, NoisePage
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.scene_view import SceneView


class AuxCoolersStation(Form):
    """Coolers, their fluids, ways, places, lines and noise; the drawing shows the fluids of the chosen case, or the
    bay."""

    def __init__(self, session: Session) -> None:
        self.boards: dict[str, SceneView] = {}
        makers = {
            "List": lambda: ListView(session, self._added()),
            "Books": lambda: BooksView(session),
            "Gearbox": lambda: WaysView(session),
            "Find": lambda: PlacesView(session),
            "Lines": lambda: LinesPage(session, "Lines of the coolers"),
            "Noise": lambda: NoisePage(session),
        }
        super().__init__(
            session,
            lambda: pages(session.build, session.system, session.assessment, self.current, session.case),
            {},
            makers,
        )
        session.selected.connect(lambda _case: self.refresh())

    def drawing(self) -> QWidget | None:
        if self.current == "Each":
            return None  # the bay, where what stands ahead is placed on the face
        name = "Where the coolers stand" if self.current == "Find" else "Fluids of the chosen case"
        if name not in self.boards:
            board = self.boards[name] = SceneView(
                self.session, name, self._spots if self.current == "Find" else self._fluids
            )
            self.session.selected.connect(lambda _case: board.changed())
        return self.boards[name]

    def _spots(self) -> tuple[Scene | None, str, str]:
        build = self.session.build
        if not build.package.coolers:
            return None, "No cooler yet", "Add one from the list."
        scene = spots_scene(build, self.session.assessment.figures_of(self.session.case), self.session.system)
        return (
            scene,
            "Where the coolers stand",
            "From the left side: places, not sizes. A disc: a fan of its own. The bay to scale is at Fit-up.",
        )

    def _fluids(self) -> tuple[Scene | None, str, str]:
        figures = self.session.assessment.figures_of(self.session.case)
        if figures is None:
            return None, "Fluids", "They are drawn once a duty case is worked out."
        name = next((case.name for case in self.session.build.duty_cases if case.id == self.session.case), "")
        scene = fluids_scene(figures, self.session.system)
        if scene is None:
            return (
                None,
                "Nothing to cool but the coolant",
                "Gearbox, oil, intake air and A/C are given nothing in this case.",
            )
        return (
            scene,
            f"Where the heat goes, {name}",
            "Each row: what the fluid is given, then what takes it. Shaded: coolers, with the air they meet.",
        )

    def _added(self) -> dict[str, Callable[[], Act]]:
        """The coolers that can be added, by what their buttons are called."""
        return {
            f"Add {words[0].lower() if words[1].islower() else words[0]}{words[1:]}": partial(self._adds, kind)
            for kind, words in KINDS_OF_COOLER
        }

    def _adds(self, kind: CoolerKind) -> Act:
        return offer("add_cooler", self.session.build.active, kind=kind)
