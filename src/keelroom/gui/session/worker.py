"""Wave two: long work off the interface thread, newest wins, answers for an older build are dropped."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QObject, QRunnable, QThreadPool, pyqtSignal


class _Signals(QObject):
    finished = pyqtSignal(int, object)
    failed = pyqtSignal(int, str)


class _Job(QRunnable):
    def __init__(self, ticket: int, work: Callable[[], Any], worker: Worker) -> None:
        super().__init__()
        self.ticket, self.work, self.worker, self.signals = ticket, work, worker, _Signals()

    def run(self) -> None:
        if self.ticket != self.worker.ticket:
            return
        try:
            result = self.work()
        except Exception as error:
            self.signals.failed.emit(self.ticket, str(error))
        else:
            self.signals.finished.emit(self.ticket, result)


class Worker(QObject):
    """Runs one kind of work. `answered` and `failed` speak only of the newest request."""

    answered = pyqtSignal(object)
    failed = pyqtSignal(str)

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.ticket = 0
        self.busy = False
        self._jobs: dict[int, _Job] = {}

    def ask(self, work: Callable[[], Any]) -> None:
        self.ticket += 1
        self.busy = True
        job = _Job(self.ticket, work, self)
        job.setAutoDelete(False)
        job.signals.finished.connect(self._finished)
        job.signals.failed.connect(self._failed)
        self._jobs[self.ticket] = job
        pool = QThreadPool.globalInstance()
        assert pool is not None
        pool.start(job)

    def cancel(self) -> None:
        self.ticket += 1
        self.busy = False

    def _finished(self, ticket: int, result: object) -> None:
        self._jobs.pop(ticket, None)
        if ticket == self.ticket:
            self.busy = False
            self.answered.emit(result)

    def _failed(self, ticket: int, why: str) -> None:
        self._jobs.pop(ticket, None)
        if ticket == self.ticket:
            self.busy = False
            self.failed.emit(why)
