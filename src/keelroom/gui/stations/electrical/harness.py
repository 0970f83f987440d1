"""The harness lists: what is cut, bought, joined and covered, the jumper; as CSV, and the drawing as SVG."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial

from PyQt6.QtWidgets import QButtonGroup, QHBoxLayout, QVBoxLayout, QWidget

from keelroom.assess.electrical.bench import jumper_list
from keelroom.assess.electrical.harness import Rows, loom_list, parts_list, splice_list, wire_list
from keelroom.assess.handed_out import minds_of_wired
from keelroom.drawing.wiring import wiring
from keelroom.errors import ExportError
from keelroom.gui.saving import ask_and_write
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.flow import FlowLayout
from keelroom.gui.widgets.text import button, chip, label, set_quietly

NOTE = (
    "Slide shrink on first; crimp conductor and insulation; tug each crimp; extend a pigtail one gauge heavier. "
    "Lengths are as planned: hold the wire in place before cutting."
)
LISTS = ("Wires", "Parts", "Joints", "Loom", "Jumper")
JUMPER_NOTE = "From a vehicle’s three-wire plug (ground, low, high) to two-wire fans."


class HarnessView(QWidget):
    """One list at a time, each a table with its own columns."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("panel")
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 4, 0, 6)
        self.column.setSpacing(2)
        line = QHBoxLayout()
        line.setContentsMargins(8, 0, 8, 0)
        line.setSpacing(0)
        self.chips = {name: chip(name, partial(self.choose, name)) for name in LISTS}
        # A group of their own: chips within chips would switch each other off.
        group = QButtonGroup(self)
        for made in self.chips.values():
            group.addButton(made)
            line.addWidget(made)
        line.addStretch(1)
        self.column.addLayout(line)
        self.tables: dict[str, ChooseTable] = {}
        self.empty = label("No circuit yet: the Circuits page plans one.", "faint", wrap=True)
        self.empty.setContentsMargins(12, 6, 10, 0)
        self.column.addWidget(self.empty)
        holder = QWidget()
        acts = FlowLayout(holder, 4)
        acts.setContentsMargins(12, 0, 10, 0)
        for name, act in (
            ("This list as CSV…", self._csv),
            ("All lists as CSV…", self._all),
            ("Drawing as SVG…", self._svg),
        ):
            acts.addWidget(button(name, act))
        self.column.addWidget(holder)
        self.current = LISTS[0]
        self.choose(LISTS[0])

    def rows(self, name: str) -> Rows:
        """One list, heading first."""
        build, found, system = self.session.build, self.session.assessment.electrics, self.session.system
        assert found is not None
        makers: dict[str, Callable[[], Rows]] = {
            "Wires": lambda: wire_list(build, build.package, found, system),
            "Parts": lambda: parts_list(build, build.package, found),
            "Joints": lambda: splice_list(build, build.package, found),
            "Loom": lambda: loom_list(build, build.package, found, system),
            "Jumper": lambda: jumper_list(found),
        }
        return makers[name]()

    def choose(self, name: str) -> None:
        self.current = name
        set_quietly(self.chips[name], True)
        self.refresh()

    def refresh(self) -> None:
        ready = bool(self.session.build.package.circuits) and self.session.assessment.electrics is not None
        self.empty.setVisible(not ready)
        for name, table in self.tables.items():
            table.setVisible(ready and name == self.current)
        if not ready:
            return
        rows = self.rows(self.current)
        if self.current not in self.tables:
            table = ChooseTable(
                self.current,
                rows[0],
                lambda _row: None,
                JUMPER_NOTE if self.current == "Jumper" else NOTE,
                "red, 101, relay …",
                words=True,
            )
            self.tables[self.current] = table
            self.column.insertWidget(1, table, 1)
        self.tables[self.current].show_rows(rows[1:], -1)
        self.tables[self.current].setVisible(True)

    def _csv(self) -> None:
        self._write(f"harness {self.current.lower()}.csv", lambda: self.rows(self.current))

    def _all(self) -> None:
        def every() -> Rows:
            gathered: Rows = []
            for name in LISTS:
                gathered += [(name,), *self.rows(name), ()]
            return gathered

        self._write("harness.csv", every)

    def _write(self, suggested: str, rows: Callable[[], Rows]) -> None:
        from keelroom.export.tables import on_its_face, write_csv

        def listed() -> Sequence[Sequence[str]]:
            return on_its_face(rows(), minds_of_wired(self.session.assessment, self.session.system))

        if self.session.build.package.circuits:
            ask_and_write(
                self, self.session, ("Save as CSV", suggested, "CSV (*.csv)"), lambda path: write_csv(listed(), path)
            )
        else:
            self.session.told.emit("No circuit yet: nothing to list")

    def _svg(self) -> None:
        from keelroom.export.svg import write_svg

        scene = wiring(self.session.build, self.session.build.package, self.session.assessment, self.session.system)

        def write(path: object) -> None:
            if scene is None:
                raise ExportError("nothing_drawn", "There is no circuit to draw yet")
            write_svg(scene, path)  # type: ignore[arg-type]

        ask_and_write(self, self.session, ("Wiring drawing as SVG", "wiring.svg", "SVG (*.svg)"), write)
