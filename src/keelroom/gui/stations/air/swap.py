"""The car as found against this package: what the change gives, an engine-driven fan taken off above all."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PyQt6.QtWidgets import QHBoxLayout, QWidget

from keelroom.assess.acts.registry import offer
from keelroom.assess.questions.swap import Swap, swap
from keelroom.assess.report import heat_words
from keelroom.drawing.degrees import Lane, Spot, degrees_scene, heat, posts_of
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.asked_table import AskedTable
from keelroom.gui.widgets.scene_view import Drawing
from keelroom.gui.widgets.text import button
from keelroom.units import KINDS, format_si

COLUMNS = ("Duty case", "Was", "Now", "Air was", "Air now", "It dragged")
NOTE = (
    "Each duty case with the car as found and with this package: engine outlet with the fans held on, air through the "
    "core, and the power an engine-driven fan took from the engine."
)
FAILS = (
    "If an electric fan fails at a light you stop; a clutch that fails open does the same, one that seizes only "
    "costs power."
)


NONE = (
    "The car as found is not among the packages yet. Keep this package as that, before anything on it is "
    "planned; or add it with a clutch fan in place of "
    "the electric ones, where the engine turned one: same core and shroud. Measure the real one and correct "
    "it: diameter, ratio, flow."
)
ACTIVE = "The car as found is what is active: choose a planned package to see what it gives."


class SwapView(AskedTable[Swap | None]):
    """Without a package that has such a fan it offers one."""

    does = False

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Before and after", COLUMNS, NOTE, "idle, hill …")
        self.add = QWidget()
        line = QHBoxLayout(self.add)
        line.setContentsMargins(12, 4, 10, 4)
        for words, code in (("Keep this as found", "as_found"), ("As found, engine-driven fan", "as_found_driven")):
            line.addWidget(button(words, partial(self._add, code)))
        line.addStretch(1)
        self.column.insertWidget(1, self.add)
        self.column.addStretch(0)

    def missing(self) -> str:
        found = self.session.build.of_kind("as_found")
        return super().missing() or (NONE if found is None else ACTIVE if found.id == self.session.build.active else "")

    def question(self) -> Callable[[], Swap | None]:
        build = self.session.build
        return lambda: swap(build)

    def refresh(self) -> None:
        self.add.setVisible(self.session.build.of_kind("as_found") is None)
        super().refresh()

    def show_found(self, found: Swap | None) -> None:
        if found is not None:
            self._show(found)

    def _show(self, found: Swap) -> None:
        system, air, power = self.session.system, KINDS["airflow"], KINDS["power"]
        self.table.show_rows(
            [
                (
                    row.case,
                    heat_words(row.before, system),
                    heat_words(row.after, system),
                    format_si(row.air_before, air, system),
                    format_si(row.air_after, air, system),
                    format_si(row.drag, power, system),
                )
                for row in found.rows
            ],
            -1,
        )
        most = max((row.drag for row in found.rows), default=0.0)
        idle = found.rows[0] if found.rows else None
        self.why.setText(
            f"Against “{found.before}”: up to {format_si(most, power, system)} back"
            + (
                f"; in “{idle.case}” air {format_si(idle.air_after - idle.air_before, air, system)} more".replace(
                    "-", "−"
                )
                if idle
                else ""
            )
            + "."
        )
        freed = format_si(abs(found.freed), KINDS["length"], system)
        room = (
            f"Its fans are {freed} less deep: room for hands, belt and pump."
            if found.freed > 1e-3
            else f"Its fans are {freed} deeper."
            if found.freed < -1e-3
            else "It is as deep."
        )
        self.said.setText(f"{room} {FAILS}")

    def draw(self, found: Swap | None) -> Drawing:
        if found is None:
            return None, "Before and after", "It is drawn once the car as found is among the packages."
        lanes = tuple(
            Lane(row.case, tuple(Spot(heat(value), sort) for value, sort in ((row.before, "was"), (row.after, "now"))))
            for row in found.rows
        )
        key = (("was", f"“{found.before}”"), ("now", "this package"))
        unit = KINDS["temperature"].shown_unit(self.session.system)
        scene = degrees_scene(lanes, posts_of(self.session.assessment), key, unit)
        return scene, "Before and after", "Engine outlet with the fans held on. No mark: it does not settle."

    def choose(self, row: int) -> None:
        if self.found is not None:
            name = self.found.rows[row].case
            case = next(one.id for one in self.session.build.duty_cases if one.name == name)
            self.session.select(case)

    def _add(self, code: str) -> None:
        self.session.do(offer(code, self.session.build.active))
