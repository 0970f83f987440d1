"""A table of the drive that is looked at: asked again when another one is."""

from __future__ import annotations

from typing import TypeVar

from keelroom.gui.session.session import Session
from keelroom.gui.stations.drive.drives import Drives
from keelroom.gui.widgets.asked_table import AskedTable

T = TypeVar("T")


class DrivenTable(AskedTable[T]):
    """Beside what stands for the build it follows the schedule."""

    columns_are = "named"

    def __init__(self, session: Session, drives: Drives, name: str, columns: tuple[str, ...], note: str) -> None:
        self.drives, self.of = drives, ""
        super().__init__(session, name, columns, note, "fans, stock …")
        drives.turned.connect(self._turned)

    def _turned(self) -> None:
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        schedule = self.drives.schedule
        if schedule is not None and schedule.id != self.of:
            self.of, self.asked = schedule.id, None
        super().refresh()

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
