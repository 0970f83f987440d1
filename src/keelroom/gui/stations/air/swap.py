"""The engine-driven fan that was there against this package: what taking it off gives."""

from __future__ import annotations

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from keelroom.assess.questions.swap import Swap, as_found, driven_package, swap
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.text import button, label
from keelroom.units import KINDS, format_si

COLUMNS = ("Duty case", "Was", "Now", "Air was", "Air now", "It dragged")
NOTE = "Each duty case with the engine-driven fan and with this package: engine outlet, air through the core, and the power the fan took from the engine."
FAILS = "If an electric fan fails at a light you stop; a clutch that fails open does the same, one that seizes only costs power."


class SwapView(QWidget):
    """Worked out beside the window; without a package that has such a fan it offers one."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("panel")
        self.found: Swap | None = None
        self.asked: object = None
        self.worker = Worker(self)
        self.worker.answered.connect(self._answered)
        self.worker.failed.connect(lambda why: self.why.setText(f"Could not be worked out: {why}"))
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 8, 0, 6)
        self.why = label("", wrap=True)
        self.why.setContentsMargins(12, 0, 10, 0)
        column.addWidget(self.why)
        self.add = button("Add the package as found", self._add)
        column.addWidget(self.add)
        column.setAlignment(self.add, column.alignment())
        self.table = ChooseTable("Before and after", COLUMNS, self._choose, NOTE, "idle, hill …")
        column.addWidget(self.table, 1)
        self.said = label("", "faint", wrap=True)
        self.said.setContentsMargins(12, 0, 10, 0)
        column.addWidget(self.said)

    def refresh(self) -> None:
        build = self.session.build
        there = driven_package(build)
        self.add.setVisible(there is None)
        self.table.setVisible(there is not None)
        if self.session.needed:
            self.why.setText(f"First needed: {self.session.needed}.")
        elif there is None:
            self.found = None
            self.said.setText("")
            self.why.setText(
                "No other package has a fan the engine turns. The act below adds this one as it was found: same core and shroud, a clutch fan in place of the electric ones. "
                "Measure the real one and correct it: diameter, ratio, flow."
            )
        elif self.asked is not build:
            self.asked = build
            self.why.setText("working it out …")
            self.worker.ask(lambda: swap(build))
        elif self.found is not None:
            self._show(self.found)

    def _answered(self, found: Swap | None) -> None:
        self.found = found
        if found is not None:
            self._show(found)

    def _show(self, found: Swap) -> None:
        system, kind, air, power = self.session.system, KINDS["temperature"], KINDS["airflow"], KINDS["power"]

        def held(value: float | None) -> str:
            return "does not settle" if value is None else format_si(value, kind, system)

        self.table.show_rows([
            (row.case, held(row.before), held(row.after), format_si(row.air_before, air, system), format_si(row.air_after, air, system), format_si(row.drag, power, system))
            for row in found.rows
        ], -1)  # fmt: skip
        most = max((row.drag for row in found.rows), default=0.0)
        idle = found.rows[0] if found.rows else None
        self.why.setText(
            f"Against “{found.before}”: up to {format_si(most, power, system)} back"
            + (f"; in “{idle.case}” air {format_si(idle.air_after - idle.air_before, air, system)} more".replace("-", "−") if idle else "")
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

    def _choose(self, row: int) -> None:
        if self.found is not None:
            name = self.found.rows[row].case
            case = next(one.id for one in self.session.build.duty_cases if one.name == name)
            self.session.select(case)

    def _add(self) -> None:
        self.session.attempt(as_found(self.session.build))
