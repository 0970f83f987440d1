"""A scrolled page whose contents are worked out beside the window: newest question wins, a stale page looks stale."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.scene_view import WORDED, Drawing, Picture
from keelroom.gui.widgets.text import button, label, replace_body


class SoughtPage(ScrolledColumn):
    """`question` gives the work for the build as it stands, `fill` writes its answer into a column."""

    come = pyqtSignal()
    """an answer has come"""

    def __init__(
        self,
        session: Session,
        name: str,
        intro: str,
        question: Callable[[], Callable[[], Any]],
        fill: Callable[[QVBoxLayout, Any], object],
        picture: Callable[[Any], Drawing] | QWidget | None = None,
    ) -> None:
        """picture : how an answer is drawn, or the board that `fill` writes on; the bay where there is none"""
        super().__init__(session, name)
        self.drawn = picture
        self.intro, self.question, self.fill = intro, question, fill
        self.asked: tuple[object, ...] | None = None
        self.answer: Any = None
        self.answers: object = None
        """the build the answer was worked out for"""
        self.worker = Worker(self)
        self.worker.answered.connect(self._answered)
        self.worker.failed.connect(self._failed)
        session.changed.connect(self.mark)
        self._write("working it out …")

    @property
    def picture(self) -> Picture | QWidget | None:
        """What stands beside it."""
        drawn = self.drawn
        if drawn is None or isinstance(drawn, QWidget):
            return drawn
        return Picture(f"{self.accessibleName()}, drawn", lambda: self._drawing(drawn), WORDED)

    def _drawing(self, draw: Callable[[Any], Drawing]) -> Drawing:
        return draw(self.answer) if self.answer is not None else (None, "", "It is drawn once it is worked out.")

    def refresh(self) -> None:
        """Ask again where the build, the chosen case or the units are others than when it was last asked."""
        state = (self.session.build, self.session.case, self.session.system)
        if self.asked is not None and all(a is b or a == b for a, b in zip(state, self.asked, strict=True)):
            return
        self.asked = state
        self.worker.ask(self.question())
        if self.answer is None:
            self._write("working it out …")
        self.mark()

    def mark(self) -> None:
        """Figures of another build than the one that stands look it, and leave in no table."""
        body = self.widget()
        if body is not None:
            body.setEnabled(self.answer is None or self.answers is self.session.build)

    def _answered(self, answer: Any) -> None:
        self.answer, self.answers = answer, self.asked[0] if self.asked else None
        self._write("")
        self.mark()
        self.come.emit()

    def _failed(self, why: str) -> None:
        """The reason stands where the figures would: none of an earlier build stay."""
        self.answer = None
        self.come.emit()
        self._write(f"Could not be worked out: {why}")

    def _write(self, told: str) -> None:
        body, column = self.blank()
        column.addWidget(label(self.intro, "faint", wrap=True))
        if told:
            column.addWidget(label(told, wrap=True))
            if self.worker.busy:
                line = QHBoxLayout()
                line.addWidget(button("Stop", self._stop, "Stop working it out"))
                line.addStretch(1)
                column.addLayout(line)
        else:
            self.fill(column, self.answer)
        column.addStretch(1)
        bar = self.verticalScrollBar()
        at = bar.value() if bar is not None else 0
        replace_body(self, body)
        if bar is not None:
            bar.setValue(at)

    def _stop(self) -> None:
        self.worker.cancel()
        self._write("Stopped. It is worked out anew after the next change.")
