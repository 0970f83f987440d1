"""Opening a file: read and worked out beside the window. What takes long says so and can be cancelled; what is open
stays till then."""

from __future__ import annotations

from pathlib import Path
from typing import NamedTuple

from PyQt6.QtCore import QEventLoop
from PyQt6.QtWidgets import QWidget

from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import Assessment
from keelroom.document.file import Stored, read
from keelroom.document.writing import clear_abandoned, named
from keelroom.errors import DocumentError
from keelroom.gui.dialogs import Dialog
from keelroom.gui.session.session import Session
from keelroom.gui.session.timing import one_shot
from keelroom.gui.session.worker import Worker
from keelroom.gui.widgets.text import label

PATIENCE = 400
"""[ms] before it is said that a file is being opened."""


class Opened(NamedTuple):
    """A file as it was read, with the judgement of its build as far as it follows the typing."""

    stored: Stored
    first: Assessment


def _work(path: Path) -> Opened:
    stored = read(path)
    clear_abandoned(path.parent, path)
    return Opened(stored, first_wave(stored.build))


class OpeningDialog(Dialog):
    """Stands over the window while a file takes long; its one button lets it be."""

    def __init__(self, window: QWidget, session: Session, path: Path) -> None:
        super().__init__(window, session, "Opening", (420, 110))
        self.column.addWidget(label(f"{named(path)} is being read and worked out …", wrap=True))
        self.column.addStretch(1)
        self.close_button("Cancel")


def read_beside(window: QWidget, session: Session, path: Path) -> Opened | None:
    """A file read and judged in a worker; None where somebody would not wait for it. Raises DocumentError with its
    sentence."""
    worker, found, failed = Worker(), list[Opened](), list[str]()
    waiting, over = QEventLoop(), OpeningDialog(window, session, path)
    worker.answered.connect(found.append)
    worker.failed.connect(failed.append)
    for come in (worker.answered, worker.failed):
        come.connect(waiting.quit)
        come.connect(over.accept)
    worker.ask(lambda: _work(path))
    patience = one_shot(worker, PATIENCE, waiting.quit)
    patience.start()
    # Nothing is typed or pressed in what may be another build in a moment.
    waiting.exec(QEventLoop.ProcessEventsFlag.ExcludeUserInputEvents)
    patience.stop()
    if not (found or failed):
        over.exec()
    worker.cancel()
    over.deleteLater()
    if failed:
        raise DocumentError("not_opened", failed[0], path=str(path))
    return found[0] if found else None
