"""The Aux coolers station."""

from __future__ import annotations

from functools import partial

from PyQt6.QtWidgets import QWidget

from keelroom.assess.fit.coolers import named
from keelroom.document.edits import added, fresh_id, fresh_name
from keelroom.document.quantity import quantity
from keelroom.document.schema.coolers import Cooler, CoolerKind
from keelroom.drawing.coolers import fluids_scene
from keelroom.drawing.scene import Scene
from keelroom.drawing.spots import spots_scene
from keelroom.gui.session.session import Session
from keelroom.gui.stations.coolers.model import KINDS_OF_COOLER, pages
from keelroom.gui.stations.coolers.tables import BooksView, ListView, PlacesView, WaysView
from keelroom.gui.stations.coolers.told import LinesPage, NoisePage
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.scene_view import SceneView

SIZES = {
    "gearbox_cooler": {"width": "11 in", "height": "6 in"},
    "oil_cooler": {"width": "11 in", "height": "6 in"},
    "steering_cooler": {"width": "10 in", "height": "3 in"},
    "charge_cooler": {"width": "24 in", "height": "6 in"},
    "water_charge_cooler": {"width": "24 in", "height": "8 in"},
}
"""what a cooler of a kind is added with: plate coolers, a charge cooler as long as the grille"""


class AuxCoolersStation(Form):
    """Coolers, their fluids, ways, places, lines and noise; the drawing shows the fluids of the chosen case, or the bay."""

    def __init__(self, session: Session) -> None:
        self.boards: dict[str, SceneView] = {}
        add = {
            f"Add {words[0].lower() if words[1].islower() else words[0]}{words[1:]}": partial(self._add, kind, words)
            for kind, words in KINDS_OF_COOLER
        }
        makers = {
            "List": lambda: ListView(session, dict(add)), "Books": lambda: BooksView(session), "Gearbox": lambda: WaysView(session),
            "Find": lambda: PlacesView(session), "Lines": lambda: LinesPage(session, "Lines of the coolers"), "Noise": lambda: NoisePage(session),
        }  # fmt: skip
        super().__init__(session, lambda: pages(session.build, session.system, session.assessment, self.current, session.case), {}, makers)
        session.selected.connect(lambda _case: self.refresh())

    def drawing(self) -> QWidget | None:
        if self.current == "Each":
            return None  # the bay, where what stands ahead is placed on the face
        name = "Where the coolers stand" if self.current == "Find" else "Fluids of the chosen case"
        if name not in self.boards:
            board = self.boards[name] = SceneView(self.session, name, self._spots if self.current == "Find" else self._fluids)
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
            return None, "Nothing to cool but the coolant", "Gearbox, oil, intake air and A/C are given nothing in this case."
        return (
            scene,
            f"Where the heat goes, {name}",
            "Each row: what the fluid is given, then what takes it. Shaded: coolers, with the air they meet.",
        )

    def _add(self, kind: CoolerKind, words: str) -> None:
        build = self.session.build
        ident = fresh_id(build.package.coolers, "cooler")
        ahead = [c.stand_off.si + c.thickness.si for c in build.package.coolers if c.stands == "ahead"]
        off = quantity(f"{max(ahead, default=0.0) * 1e3 + 6:.0f} mm", "length") if ahead else quantity("1/2 in", "length")
        usual = {name: quantity(text, "length") for name, text in SIZES.get(kind, {}).items()}
        plate = (
            {}
            if kind in ("condenser", "screen")
            else {"make": "stacked_plate", "loss": quantity("12", "number"), "conductance": quantity("1500 W/m²K", "face conductance")}
        )
        if kind == "screen":
            plate = {"loss": quantity("1.5", "number")}
        name = fresh_name(map(named, build.package.coolers), words)
        member = Cooler.model_validate({"id": ident, "name": name, "kind": kind, "stand_off": off} | usual | plate)
        if self.session.attempt(added(build, ("packages", build.active, "coolers"), member, f"Add {words.lower()}")):
            self.session.asked_for.emit(("packages", build.active, "coolers", ident, "width"))
