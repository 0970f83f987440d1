"""A table brought in from a file: looked at beside the window, seen before it is kept, left or stopped at any time."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Generic, TypeVar

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QFileDialog, QHBoxLayout, QVBoxLayout

from keelroom.errors import DocumentError
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.text import button, label

LARGEST = 1_000_000_000
"""bytes of a file that is read"""

B = TypeVar("B")


def text_of(path: Path) -> str:
    """The text of a table. Raises DocumentError where the file is too large or cannot be read."""
    try:
        if path.stat().st_size > LARGEST:
            raise DocumentError("csv_too_large", f"{path.name} is larger than a gigabyte: cut it first")
        return path.read_bytes().decode("utf-8-sig", errors="replace")
    except OSError as error:
        raise DocumentError("csv_unreadable", f"{path.name} cannot be read: {error.strerror}") from None


class BringsIn(ScrolledColumn, Generic[B]):
    """A page a file is brought in on; `brought` is what was looked at and not kept yet."""

    come = pyqtSignal()
    title, sorts, reading = "", "", "reading the file …"
    """of the dialog that asks for a file, its sorts of files, and what is said while it is read"""

    def __init__(self, session: Session, name: str) -> None:
        super().__init__(session, name)
        self.brought: B | None = None
        self.said = ""
        self.worker = Worker(self)
        self.worker.answered.connect(self._looked_at)
        self.worker.failed.connect(self._not_read)

    def refresh(self) -> None:
        """Write the page."""
        raise NotImplementedError

    def from_file(self, path: Path) -> Callable[[], B]:
        """The work of looking at a file."""
        raise NotImplementedError

    def bring(self) -> None:
        """Ask for a file and look at it; nothing is brought in before it was seen."""
        name, _ = QFileDialog.getOpenFileName(self, self.title, str(self.session.folder), self.sorts)
        if name:
            self.look_at(Path(name))

    def look_at(self, path: Path) -> None:
        """Read a file beside the window."""
        self.look(self.from_file(path))

    def look(self, work: Callable[[], B]) -> None:
        """Look at something anew."""
        self.said, self.brought = "", None
        self.again(work)

    def again(self, work: Callable[[], B]) -> None:
        """Look at what stands here in another way."""
        self.worker.ask(work)
        self.refresh()

    def write_standing(self, column: QVBoxLayout) -> None:
        """What was refused, and that something is being read."""
        if self.said:
            column.addWidget(label(self.said, "problem", wrap=True))
        if self.worker.busy:
            line = QHBoxLayout()
            line.addWidget(label(self.reading))
            line.addWidget(button("Stop", self._stop, "Stop reading"))
            line.addStretch(1)
            column.addLayout(line)

    def _stop(self) -> None:
        self.worker.cancel()
        self.said = "Stopped; nothing was brought in."
        self.refresh()

    def _not_read(self, why: str) -> None:
        self.said = why
        self.refresh()

    def _looked_at(self, found: B) -> None:
        self.brought = found
        self.refresh()

    def leave(self) -> None:
        """Let what was looked at go."""
        self.brought = None
        self.refresh()
