"""Tables of the Loop station: every way of the circuit in the chosen case, and coolants side by side."""

from __future__ import annotations

from collections.abc import Callable

from keelroom.assess.questions.coolant_ways import TriedMix, answer_to, coolant_ways
from keelroom.document.act import Act
from keelroom.drawing.degrees import Lane, Spot, degrees_scene, heat, posts_of
from keelroom.gui.session.session import Session
from keelroom.gui.stations.loop.model import FLOW_COLUMNS, flow_cells
from keelroom.gui.widgets.asked_table import AskedTable
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.scene_view import Drawing
from keelroom.units import KINDS, format_si, money_text

MIX_COLUMNS = ("Coolant", "Grade", "Idle", "Freezes", "To boiling", "Flow, idle", "Glycol costs")
FLOW_NOTE = (
    "Of the chosen duty case; pressures over the outdoors where each way begins. A click goes to the hose or the part."
)


class FlowsView(ChooseTable):
    """Flow, temperature, speed and pressure of every way."""

    def __init__(self, session: Session, go: Callable[[tuple[str, ...]], object]) -> None:
        self.session, self.go = session, go
        super().__init__("Ways of the circuit", FLOW_COLUMNS, self._choose, FLOW_NOTE, "upper hose, heater, core …")
        session.selected.connect(lambda _case: self.refresh())

    def refresh(self) -> None:
        session = self.session
        self.show_rows(flow_cells(session.build, session.assessment, session.case, session.system), -1)

    def _choose(self, row: int) -> None:
        figures = self.session.assessment.figures_of(self.session.case)
        if figures is None:
            return
        key = figures.loop.through[row].key
        where = ("packages", self.session.build.active, "loop")
        if key.startswith("hose:"):
            self.go((*where, "hoses", key.removeprefix("hose:"), "length"))
        elif any(part.id == key for part in self.session.build.package.loop.parts):
            self.go((*where, "parts", key, "y"))


class CoolantsView(AskedTable[tuple[TriedMix, ...]]):
    """Coolants tried on this build; a click puts one in."""

    def __init__(self, session: Session) -> None:
        super().__init__(
            session,
            "Coolants",
            MIX_COLUMNS,
            "Each solved anew on this build. A click puts it in.",
            "water, half, waterless …",
            words=True,
        )
        self.table.table.currentCellChanged.connect(lambda *_: self._answer())

    def _answer(self) -> None:
        """What is believed of the coolant one is at, and what it does here; of water where one is at none of those."""
        told = {one.mix.key: one for one in self.found or () if one.mix.belief}
        row = self.table.at()
        at = self.found[row].mix.key if self.found and 0 <= row < len(self.found) else ""
        belief = told.get(at) or told.get("water")
        self.said.setText(answer_to(belief, self.found) if belief and self.found else "")

    def question(self) -> Callable[[], tuple[TriedMix, ...]]:
        build = self.session.build
        return lambda: coolant_ways(build)

    def show_found(self, found: tuple[TriedMix, ...]) -> None:
        system = self.session.system
        temperature, kelvin = KINDS["temperature"], KINDS["temperature difference"]

        def shown(value: float | None, kind: str) -> str:
            return "does not settle" if value is None else format_si(value, KINDS[kind], system).replace("-", "−")

        rows = [
            (
                one.mix.name,
                shown(one.grade, temperature.name),
                shown(one.idle, temperature.name),
                shown(one.freezes, temperature.name),
                shown(one.grade_margin, kelvin.name),
                shown(one.flow, "coolant flow"),
                "" if one.cost is None else money_text(one.cost, self.session.settings.currency),
            )
            for one in found
        ]
        self.table.show_rows(rows, next((k for k, one in enumerate(found) if one.current), -1))
        self.why.setText("Half and half is the usual; what another does here:")
        self._answer()

    def draw(self, found: tuple[TriedMix, ...]) -> Drawing:
        lanes = tuple(
            Lane(
                one.mix.name,
                (Spot(heat(one.freezes), "cold"), Spot(heat(one.idle), "other"), Spot(heat(one.grade), "now")),
                chosen=one.current,
            )
            for one in found
        )
        unit = KINDS["temperature"].shown_unit(self.session.system)
        key = (("cold", "freezes"), ("other", "idle"), ("now", "steepest case"))
        limit = tuple(post for post in posts_of(self.session.assessment) if post.name == "limit")
        return degrees_scene(lanes, limit, key, unit), "What each coolant does here", "No mark: it does not settle."

    def act_at(self, row: int) -> Act | None:
        return self.found[row].act if self.found and not self.found[row].current else None
