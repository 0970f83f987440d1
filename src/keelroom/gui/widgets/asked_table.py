"""A table worked out beside the window for the build as it stands: what is missing for it, the table, and a word on
the row that is current."""

from __future__ import annotations

from collections.abc import Callable
from typing import Generic, Literal, TypeVar

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from keelroom.document.act import Act
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.scene_view import WORDED, Drawing, Picture
from keelroom.gui.widgets.text import Whole, button

T = TypeVar("T")


class AskedTable(QWidget, Generic[T]):
    """Asks again when the build is another; a refusal of the question stands where the answer would."""

    columns_are: Literal["fitted", "named"] = "fitted"
    """as `ChooseTable` takes it"""
    does = True
    """whether choosing a row does something to the build, and is told beforehand"""

    tells = False
    """whether the question is given a function to tell how far it has come"""

    come = pyqtSignal()
    """an answer has come"""

    def __init__(
        self, session: Session, name: str, columns: tuple[str, ...], note: str, hint: str, words: bool = False
    ) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("panel")
        self.found: T | None = None
        self.asked: object = None
        """the build the last question was asked of"""
        self.answers: object = None
        """the build what stands in the table was worked out for"""
        self.worker = Worker(self)
        self.worker.answered.connect(self._answered)
        self.worker.failed.connect(self._failed)
        self.worker.come.connect(self._come)
        session.changed.connect(self.mark)
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 6)
        self.column.setSpacing(0)
        self.why = Whole("", "")
        self.why.setContentsMargins(12, 8, 10, 0)
        self.column.addWidget(self.why)
        self.go = button("Go there", lambda: session.asked_for.emit(session.needed_first), "Go to what is needed first")
        self.go.hide()
        self.column.addWidget(self.go, 0, Qt.AlignmentFlag.AlignLeft)
        self.halt = button("Stop", self._halt, f"Stop: {name.lower()}", "", "Stop: what was found so far stays")
        self.halt.hide()
        self.column.addWidget(self.halt, 0, Qt.AlignmentFlag.AlignLeft)
        self.table = ChooseTable(name, columns, self.choose, note, hint, words, self.columns_are)
        if self.does:
            self.table.foretell(session, self.act_at)
        self.column.addWidget(self.table, 1)
        self.said = Whole("", "faint")
        self.said.setContentsMargins(12, 0, 10, 0)
        self.column.addWidget(self.said)

    @property
    def picture(self) -> Picture:
        """What is compared, drawn."""
        return Picture(f"{self.table.table.accessibleName()}, drawn", self._drawn, WORDED)

    def _drawn(self) -> Drawing:
        if self.found is None:
            return None, "", self.missing() or "It is drawn once it is worked out."
        return self.draw(self.found)

    def draw(self, found: T) -> Drawing:
        """The answer as a picture."""
        raise NotImplementedError

    def missing(self) -> str:
        """Why nothing can be asked yet; '' where it can."""
        if self.session.needed:
            return f"First needed: {self.session.needed}."
        solved = any(case.figures for case in self.session.assessment.cases)
        return "" if solved else self.session.stopped

    def question(self) -> Callable[..., T]:
        """The work, for the build as it stands."""
        raise NotImplementedError

    def show_found(self, found: T) -> None:
        """Write an answer."""
        raise NotImplementedError

    def act_at(self, row: int) -> Act | None:
        """What choosing a row does; None where it is so already."""
        raise NotImplementedError

    def choose(self, row: int) -> None:
        """A row was clicked."""
        self.table.do(row)

    def refresh(self) -> None:
        build, missing = self.session.build, self.missing()
        self.table.setVisible(not missing)
        self.go.setVisible(bool(missing and self.session.needed))
        self._show_halt()
        if missing:
            self.found, self.asked = None, None
            self.why.setText(missing)
            self.said.setText("")
        elif self.asked is not build:
            self.asked = build
            self.why.setText("working it out …")
            self.worker.ask(self.question(), self.tells)
            self._show_halt()
        elif self.found is not None:
            self.show_found(self.found)
        self.mark()

    def _halt(self) -> None:
        """Stop what is being worked out, or work it out anew where it was stopped."""
        if self.worker.busy:
            self.worker.halt()
            return
        self.asked = None
        self.refresh()

    def stopped(self, found: T) -> bool:
        """Whether an answer is only what was found before it was stopped."""
        return False

    def _show_halt(self) -> None:
        half = not self.worker.busy and self.found is not None and self.stopped(self.found)
        self.halt.setText("Work out the rest" if half else "Stop")
        self.halt.setVisible(self.tells and (self.worker.busy or half))

    def mark(self) -> None:
        """Figures of another build than the one that stands look it, cannot be chosen from, and leave in no table."""
        self.table.setEnabled(self.found is None or self.answers is self.session.build)

    def _come(self, share: float, so_far: T | None) -> None:
        """What was found so far is shown at once; the rest is under way."""
        if so_far is not None:
            self.found, self.answers = so_far, self.asked
            self.show_found(so_far)
            self.mark()
            self.come.emit()
        self.why.setText(f"working it out … {share:.0%}")

    def _answered(self, found: T) -> None:
        self.found, self.answers = found, self.asked
        self.show_found(found)
        self.mark()
        self._show_halt()
        self.come.emit()

    def _failed(self, why: str) -> None:
        """The reason stands where the figures would: none of an earlier build stay."""
        self.found, self.answers = None, None
        self.table.show_rows((), -1)
        self.said.setText("")
        self.why.setText(f"Could not be worked out: {why}")
        self.mark()
        self._show_halt()
        self.come.emit()
