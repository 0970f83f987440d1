"""The Ladder page: the cheapest next step from the car as it is, and the next, until its hardest case holds."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from keelroom.assess.questions.ladder import Rung, ladder, within_reach
from keelroom.assess.work.money import HOUR
from keelroom.document.act import Act
from keelroom.drawing.degrees import Lane, Post, Spot, degrees_scene
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.asked_table import AskedTable
from keelroom.gui.widgets.scene_view import Drawing
from keelroom.units import KINDS, Unit, money_text

COLUMNS = ("Step", "Gains", "Stands at", "Money", "Hours")
NOTE = "Each after the one over it; a click does the first of them, and the rest is worked out anew."


class Steps(NamedTuple):
    """The rungs, and names of the cases no ladder leads to."""

    rungs: tuple[Rung, ...]
    far: tuple[str, ...]


class LadderView(AskedTable[Steps]):
    """Worked out beside the window for the build as it stands."""

    tells = True

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Cheapest next steps", COLUMNS, NOTE, "step …", words=True)

    def question(self) -> Callable[..., Steps]:
        build = self.session.build

        def work(tell: Callable[..., bool]) -> Steps:
            _, far = within_reach(build)
            names = {case.id: case.name or case.id for case in build.duty_cases}
            return Steps(ladder(build, 0.0, tell), tuple(names[case] for case in far))

        return work

    def show_found(self, found: Steps) -> None:
        rows = [self._row(rung) for rung in found.rungs]
        said = [f"No ladder leads to {', '.join(found.far)}."] if found.far else []
        if not found.rungs and found.far:
            said.append("What is within reach holds already: for the rest see the Front page, and what Explain finds.")
        elif not found.rungs:
            said.append("Every case within reach holds already: leave it as it is.")
        elif found.rungs[-1].stands < 0:
            said.append("These gain, and are not enough: another core or other fans stand on the Front page.")
        else:
            said.append("With all of these every case within reach holds.")
        self.why.setText(" ".join(said))
        self.table.show_rows(rows, -1)

    def _row(self, rung: Rung) -> tuple[str, ...]:
        unit = KINDS["temperature difference"].shown_unit(self.session.system)
        gain, stands = (f"{v / unit.factor:+.1f} {unit.symbol}".replace("-", "−") for v in (rung.gain, rung.stands))
        cost = money_text(rung.money, self.session.settings.currency) if rung.money > 0 else "not priced"
        return rung.act.label or rung.act.code, gain, stands, cost, f"{rung.hours / HOUR:.1f} h"

    def act_at(self, row: int) -> Act | None:
        return self.found.rungs[0].act if self.found is not None and row == 0 and self.found.rungs else None

    def draw(self, found: Steps) -> Drawing:
        if not found.rungs:
            return None, "", "No step is needed."
        unit = KINDS["temperature difference"].shown_unit(self.session.system)
        before = found.rungs[0].stands - found.rungs[0].gain
        lanes = [Lane("As it is", (Spot(before, "was"),), "", chosen=True)]
        lanes += [Lane(rung.act.label or rung.act.code, (Spot(rung.stands),)) for rung in found.rungs]
        posts = (Post(0.0, "its own day", "rail.limit"),)
        key = (("now", "after the step"), ("was", "as it is"))
        scene = degrees_scene(tuple(lanes), posts, key, Unit(unit.symbol, unit.factor, decimals=0))
        return scene, "How much hotter a day is held, step by step", "Left of its own day the limit is passed."
