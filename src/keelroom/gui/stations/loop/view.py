"""The Loop station."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property

from PyQt6.QtWidgets import QWidget

from keelroom.assess.acts.registry import offer
from keelroom.assess.loop.hose_plans import hose_plans, rod_pattern
from keelroom.drawing.pattern import gallery
from keelroom.drawing.scene import Scene
from keelroom.gui.session.session import Session
from keelroom.gui.stations.loop.board import LoopBoard
from keelroom.gui.stations.loop.declared import LOOP
from keelroom.gui.stations.loop.model import pages
from keelroom.gui.stations.loop.tables import CoolantsView, FlowsView
from keelroom.gui.widgets.act_menu import ActMenu, entry_of
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.scene_view import Picture


class LoopStation(Form):
    """Circuit, parts, hoses, flows, air, ports, what it holds, filling and coolants; the drawing is the circuit, or
    the rods of the hoses."""

    def __init__(self, session: Session) -> None:
        self.board = LoopBoard(session, session.asked_for.emit)
        actions: dict[str, Callable[[], object]] = {"coolant_kind": self._coolant_kind}
        makers = {
            "Flows": lambda: FlowsView(session, session.asked_for.emit),
            "Coolants": lambda: CoolantsView(session),
        }
        pictures: dict[str, Picture | QWidget] = {
            **dict.fromkeys(("Circuit", "Parts", "Flows", "Air", "Ports", "Holds", "Fill"), self.board),
            "Hoses": Picture("Rods of the hoses", self._rods),
        }
        super().__init__(
            session,
            LOOP,
            lambda: pages(session.build, session.system, session.assessment, self.current, session.case),
            actions,
            makers,
            pictures,
        )
        session.selected.connect(lambda _case: self.refresh())

    def drawing(self) -> QWidget | None:
        """Hoses where they run; the chosen one flat, to bend a rod by."""
        return self.board if self.current == "Hoses" and not self._hose() else super().drawing()

    def _hose(self) -> str:
        """The id of the chosen hose; '' where none is."""
        part = self.session.part
        return part[4] if part[2:4] == ("loop", "hoses") and len(part) > 4 else ""

    def _rods(self) -> tuple[Scene | None, str, str]:
        build = self.session.build
        found = tuple(
            pattern
            for plan in hose_plans(build, build.package)
            if plan.run.hose.id == self._hose() and (pattern := rod_pattern(plan)) is not None
        )
        scene = gallery(found, self.session.system)
        if scene is None:
            return (
                None,
                "No hose has a route yet",
                "Measure the engine’s ports at Survey, or make an ordinary circuit: the lines are then drawn "
                "to bend a rod by.",
            )
        return (
            scene,
            "Hoses along their middle line, each in the plane it lies in best",
            "Bend a 1/8 in rod by the list, hold it against stock hoses. Print at 1:1 from Make at Fit-up.",
        )

    # acts

    @cached_property
    def coolants(self) -> ActMenu:
        return ActMenu(self, self.session, "Usual coolants")

    def _coolant_kind(self) -> None:
        from keelroom.catalogue.load import coolants

        active = self.session.build.active
        acts = {
            one.name: offer(
                "coolant",
                active,
                f"Coolant: {one.name}",
                glycol=one.glycol,
                share_percent=f"{one.glycol_share.si * 100:g}",
            )
            for one in coolants()
        }
        self.coolants.put_up([entry_of(self.session, name, act) for name, act in acts.items()])
