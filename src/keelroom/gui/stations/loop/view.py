"""The Loop station."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtWidgets import QWidget

from keelroom.assess.fit.hose_ways import wider_way
from keelroom.assess.loop.edits import ordinary_edit
from keelroom.assess.loop.graph import graph_of
from keelroom.assess.loop.hose_plans import hose_plans, rod_pattern
from keelroom.assess.loop.ports import ROLE_WORDS
from keelroom.document.edits import Change, Edit, added, fresh_id, fresh_name
from keelroom.document.quantity import quantity
from keelroom.document.schema.loop import Hose, Part, PartKind
from keelroom.document.schema.package import CorePort
from keelroom.document.schema.survey import HoseEnd
from keelroom.drawing.pattern import gallery
from keelroom.drawing.scene import Scene
from keelroom.errors import InputError
from keelroom.gui.session.session import Session
from keelroom.gui.stations.loop.board import LoopBoard
from keelroom.gui.stations.loop.model import KINDS_OF_PART, pages
from keelroom.gui.stations.loop.tables import CoolantsView, FlowsView
from keelroom.gui.widgets.edit_menu import offer_edits
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.scene_view import SceneView

USUAL = {
    "pump": {"bore": ("1 1/2 in", "length")},
    "heater": {"bore": ("5/8 in", "length")},
    "surge_tank": {"holds": ("2 L", "volume")},
    "expansion_tank": {"holds": ("2 L", "volume")},
    "overflow": {"holds": ("1.5 L", "volume")},
}
"""what a part of a kind is added with"""


class LoopStation(Form):
    """Circuit, parts, hoses, flows, air, ports, what it holds, filling and coolants; the drawing is the circuit, or the rods of the hoses."""

    def __init__(self, session: Session) -> None:
        self.board = LoopBoard(session, session.asked_for.emit)
        self.rods: SceneView | None = None
        actions: dict[str, Callable[[], object]] = {
            "ordinary": self._ordinary, "coolant_kind": self._coolant_kind, "add_hose": self._add_hose, "add_port": self._add_port, "add_engine_port": self._add_engine_port,
            "wider": self._wider,
            **{f"part:{kind}": partial(self._add_part, kind, words) for kind, words in KINDS_OF_PART},
        }  # fmt: skip
        makers = {
            "Flows": lambda: FlowsView(session, session.asked_for.emit),
            "Coolants": lambda: CoolantsView(session),
        }
        super().__init__(
            session, lambda: pages(session.build, session.system, session.assessment, self.current, session.case), actions, makers
        )
        session.selected.connect(lambda _case: self.refresh())

    def drawing(self) -> QWidget:
        if self.current != "Hoses":
            return self.board
        if self.rods is None:
            self.rods = SceneView(self.session, "Rods of the hoses", self._rods)
        return self.rods

    def _rods(self) -> tuple[Scene | None, str, str]:
        build = self.session.build
        found = tuple(pattern for plan in hose_plans(build, build.package) if (pattern := rod_pattern(plan)) is not None)
        scene = gallery(found, self.session.system)
        if scene is None:
            return (
                None,
                "No hose has a route yet",
                "Measure the engine’s ports at Survey, or make an ordinary circuit: the lines are then drawn to bend a rod by.",
            )
        return (
            scene,
            "Hoses along their middle line, each in the plane it lies in best",
            "Bend a 1/8 in rod by the list, hold it against stock hoses. Print at 1:1 from Make at Fit-up.",
        )

    # acts

    def _ordinary(self) -> None:
        build = self.session.build
        try:
            self.session.attempt(ordinary_edit(build, build.package))
        except InputError as error:
            self.session.told.emit(error.message)

    def _coolant_kind(self) -> None:
        from keelroom.catalogue.load import coolants

        place = ("packages", self.session.build.active, "coolant")
        offer_edits(self, self.session, {
            one.name: Edit(f"Coolant: {one.name}", (Change((*place, "glycol"), one.glycol), Change((*place, "glycol_share"), one.glycol_share)))
            for one in coolants()
        })  # fmt: skip

    def _add_part(self, kind: PartKind, words: str) -> None:
        parts = self.session.build.package.loop.parts
        usual = {name: quantity(text, of) for name, (text, of) in USUAL.get(kind, {}).items()}
        taken = [part.name for part in parts]
        name = (
            fresh_name(taken, words.split(",", maxsplit=1)[0])
            if words.split(",", maxsplit=1)[0] in taken
            else words.split(",", maxsplit=1)[0]
        )
        part = Part.model_validate({"id": fresh_id(parts, kind.split("_")[0]), "kind": kind, "name": name} | usual)
        where = ("packages", self.session.build.active, "loop", "parts")
        if self.session.attempt(added(self.session.build, where, part, f"Add {name.lower()}")):
            self.session.asked_for.emit((*where, part.id, "y"))

    def _add_hose(self) -> None:
        hoses = self.session.build.package.loop.hoses
        ident = fresh_id(hoses, "hose")
        hose = Hose(id=ident, kind="reinforced")
        where = ("packages", self.session.build.active, "loop", "hoses")
        if self.session.attempt(added(self.session.build, where, hose, "Add a hose")):
            self.session.asked_for.emit((*where, ident, "length"))

    def _wider(self) -> None:
        """A way that clears what is near, for every hose that kinks or passes too near to something."""
        build = self.session.build
        fit = self.session.assessment.fit
        near = {gap.part.key.split(":")[1] for gap in fit.gaps if gap.part.sort == "hose" and gap.gap < gap.wanted} if fit else set()
        wanting = [
            run
            for run in graph_of(build, build.package).runs
            if run.hose.id in near or (run.radius is not None and run.radius < run.wanted - 5e-4)
        ]
        if not wanting:
            self.session.told.emit("No hose kinks or passes too near to anything")
        for run in wanting:
            try:
                self.session.attempt(wider_way(self.session.build, self.session.build.package, run.hose.id))
            except InputError as error:
                self.session.told.emit(f"{run.name}: {error.message[:1].lower()}{error.message[1:]}")

    def _add_port(self) -> None:
        ports = self.session.build.package.core.ports
        port = CorePort(id=fresh_id(ports, "port"), name=f"Core port {len(ports) + 1}")
        where = ("packages", self.session.build.active, "core", "ports")
        if self.session.attempt(added(self.session.build, where, port, "Add a port of the core")):
            self.session.asked_for.emit((*where, port.id, "up"))

    def _add_engine_port(self) -> None:
        ends = self.session.build.survey.hoses
        role = next((role for role in ("heater_out", "heater_in", "steam") if not any(end.role == role for end in ends)), "steam")
        end = HoseEnd.model_validate(
            {"id": fresh_id(ends, "port"), "role": role, "name": f"Engine {ROLE_WORDS[role]}", "bore": quantity("5/8 in", "length")}
        )
        if self.session.attempt(added(self.session.build, ("survey", "hoses"), end, "Add a port of the engine")):
            self.session.asked_for.emit(("survey", "hoses", end.id, "y"))
