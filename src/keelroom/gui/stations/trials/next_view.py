"""The Next page: which reading would narrow the answer that matters, most first."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date

from keelroom.assess.acts.registry import offer
from keelroom.assess.drives.words import kelvin
from keelroom.assess.questions.next_reading import Ranked, next_readings
from keelroom.document.act import Act
from keelroom.drawing.degrees import Lane, Spot, degrees_scene
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.asked_table import AskedTable
from keelroom.gui.widgets.scene_view import Drawing
from keelroom.units import KINDS

COLUMNS = ("To", "Reading", "Test", "Min", "Risk")
NOTE = (
    "How much each reading would narrow the duty case chosen in the ledger, before it is taken. A click makes a trial "
    "of it."
)
DRAWN = 8


class NextView(AskedTable[Ranked | None]):
    """Asks for the build as it stands and the duty case that is chosen."""

    tells = True

    def __init__(self, session: Session) -> None:
        super().__init__(session, "What should be read next", COLUMNS, NOTE, "hose, anemometer …")
        session.selected.connect(lambda _case: self._again())

    def _again(self) -> None:
        self.asked = None
        if self.isVisible():
            self.refresh()

    def question(self) -> Callable[..., Ranked | None]:
        build, case = self.session.build, self.session.case
        return lambda tell: next_readings(build, case, tell)

    def show_found(self, found: Ranked | None) -> None:
        if found is None:
            self.why.setText("No duty case has an answer yet.")
            self.table.show_rows((), -1)
            return
        system = self.session.system
        told = kelvin(found.now, system)
        self.why.setText(f"“{found.case}”: ± {told} that readings can narrow.")
        self.table.show_rows(
            [
                (
                    f"± {kelvin(one.then, system)}",
                    one.sensor.name or one.sensor.id,
                    one.name,
                    f"{one.minutes:.0f}",
                    one.risk,
                )
                for one in found.readings
            ],
            -1,
        )
        self.said.setText(" ".join(f"{stop.sentence}." for stop in found.stopped))

    def act_at(self, row: int) -> Act | None:
        if self.found is None or row >= len(self.found.readings):
            return None
        one = self.found.readings[row]
        return offer("add_trial", label=f"Add a trial: {one.name}", protocol=one.protocol, day=date.today().isoformat())

    def draw(self, found: Ranked | None) -> Drawing:
        if found is None or not found.readings:
            return None, "", "No reading can be told of."
        unit = KINDS["temperature difference"].shown_unit(self.session.system)
        lanes = tuple(
            Lane(
                f"{one.sensor.name}, {one.name.lower()}",
                (Spot(found.now, "was"), Spot(one.then)),
                f"{one.minutes:.0f} min",
            )
            for one in found.readings[:DRAWN]
        )
        scene = degrees_scene(lanes, (), (("now", "after it"), ("was", "now")), unit)
        return scene, f"± of “{found.case}”", "80 of 100 lie within; less is narrower."
