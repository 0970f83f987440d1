"""What stands where a page would, when it cannot be worked out: the reason, and a report to copy where something went
wrong inside."""

from __future__ import annotations

from PyQt6.QtWidgets import QApplication

from keelroom.assess.outcome import Stopped
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.text import button, label, replace_body

COPIED = "The report is on the clipboard"


def copy_report(session: Session, report: str) -> None:
    """Put a report where it can be pasted from."""
    clipboard = QApplication.clipboard()
    if clipboard is not None:
        clipboard.setText(report)
        session.told.emit(COPIED)


class StopNote(ScrolledColumn):
    """Filled anew for each stop."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Not worked out")

    def show_stop(self, stop: Stopped) -> None:
        """Say what stopped and why."""
        body, column = self.blank()
        column.addWidget(label(f"{stop.sentence}.", "problem", wrap=True))
        if stop.report:
            column.addWidget(button("Copy the report", lambda: copy_report(self.session, stop.report)))
        column.addStretch(1)
        replace_body(self, body)
