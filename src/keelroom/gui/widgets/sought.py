"""A scrolled page whose contents are worked out beside the window: newest question wins, a stale page looks stale."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout

from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.text import button, label, replace_body


class SoughtPage(ScrolledColumn):
    """`question` gives the work for the build as it stands, `fill` writes its answer into a column."""

    def __init__(
        self, session: Session, name: str, intro: str, question: Callable[[], Callable[[], Any]], fill: Callable[[QVBoxLayout, Any], object]
    ) -> None:
        super().__init__(session, name)
        self.intro, self.question, self.fill = intro, question, fill
        self.asked: object = None
        self.answer: Any = None
        self.worker = Worker(self)
        self.worker.answered.connect(self._answered)
        self.worker.failed.connect(lambda why: self._write(f"Could not be worked out: {why}"))
        self._write("working it out …")

    def refresh(self) -> None:
        """Ask again where the build, the chosen case or the units are others than when it was last asked."""
        state = (self.session.build, self.session.case, self.session.system)
        if self.asked is not None and all(a is b or a == b for a, b in zip(state, self.asked, strict=True)):  # type: ignore[call-overload]
            return
        self.asked = state
        if self.answer is None:
            self._write("working it out …")
        self.worker.ask(self.question())

    def _answered(self, answer: Any) -> None:
        self.answer = answer
        self._write("")

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
