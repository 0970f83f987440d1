"""A table of the drive that is looked at: asked again when another one is."""

from __future__ import annotations

from typing import TypeVar

from PyQt6.QtCore import Qt

from keelroom.gui.session.session import Session
from keelroom.gui.stations.drive.drives import Drives
from keelroom.gui.widgets.asked_table import AskedTable
from keelroom.gui.widgets.text import button

T = TypeVar("T")


class DrivenTable(AskedTable[T]):
    """Beside what stands for the build it follows the schedule."""

    columns_are = "named"
    tells = True

    def __init__(self, session: Session, drives: Drives, name: str, columns: tuple[str, ...], note: str) -> None:
        self.drives, self.of = drives, ""
        self.halted, self.stood = False, session.build
        """stopped by hand, for that build"""
        super().__init__(session, name, columns, note, "fans, stock …")
        drives.turned.connect(self._turned)
        self.halt = button("Stop", self._halt, f"Stop: {name.lower()}", "", "Stop working it out, or begin anew")
        self.column.insertWidget(1, self.halt, 0, Qt.AlignmentFlag.AlignLeft)
        self.halt.hide()
        self.come.connect(self.halt.hide)

    def _halt(self) -> None:
        if self.worker.busy:
            self.worker.cancel()
            self.asked, self.halted = None, True
            self.why.setText("Stopped.")
            self.halt.setText("Work it out")
        else:
            self.halted = False
            self.refresh()

    def _turned(self) -> None:
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        schedule = self.drives.schedule
        if schedule is not None and schedule.id != self.of:
            self.of, self.asked = schedule.id, None
        if self.halted and self.stood is self.session.build:
            return
        self.halted, self.stood = False, self.session.build
        super().refresh()
        self.halt.setText("Stop")
        self.halt.setVisible(self.worker.busy)

    def missing(self) -> str:
        return self.drives.missing

    @property
    def named(self) -> str:
        """The drive by its name."""
        schedule = self.drives.schedule
        return (schedule.name or schedule.id) if schedule else ""

    def show_lines(self, lines: list[tuple[str, ...]], current: int) -> None:
        """Write the rows, and which drive they are of."""
        self.why.setText(f"“{self.named}”, chosen on the Run page.")
        self.table.show_rows(lines, current)
        self.said.setText("")
