"""Wave two: long work off the interface thread, newest wins, answers for an older build are dropped."""

from __future__ import annotations

import sys
from collections import deque
from collections.abc import Callable
from contextlib import suppress
from typing import Any

from PyQt6.QtCore import QObject, QRunnable, QThreadPool, pyqtSignal

from keelroom.assess.outcome import Stopped, attempted
from keelroom.core.kept import Kept

HELD = 8
"""Jobs that are over and still held."""


class _Signals(QObject):
    come = pyqtSignal(int, float, object)
    finished = pyqtSignal(int, object)
    failed = pyqtSignal(int, str)


class _Job(QRunnable):
    def __init__(self, ticket: int, work: Callable[..., Any], worker: Worker, telling: bool) -> None:
        super().__init__()
        self.ticket, self.work, self.worker, self.telling, self.signals = ticket, work, worker, telling, _Signals()
        self.passed = False
        """the pool came to it and nobody wanted it any more"""

    def _tell(self, share: float, so_far: object = None) -> bool:
        """How far the work has come, and what it has found by then; whether anybody still wants it."""
        self.signals.come.emit(self.ticket, share, so_far)
        return self.ticket == self.worker.ticket and self.ticket != self.worker.enough

    def run(self) -> None:
        if self.ticket != self.worker.ticket:
            self.passed = True
            return
        with suppress(RuntimeError):  # Qt says so where the window has gone meanwhile: nobody listens any more
            self._answer()

    def _answer(self) -> None:
        with Kept().at_work():  # a worker's stages are its own
            result = attempted("What was asked", (), (lambda: self.work(self._tell)) if self.telling else self.work)
        if not isinstance(result, Stopped):
            self.signals.finished.emit(self.ticket, result)
            return
        if result.report:
            print(result.report, file=sys.stderr)
        self.signals.failed.emit(self.ticket, result.why)


class Worker(QObject):
    """Runs one kind of work. `answered` and `failed` speak only of the newest request."""

    answered = pyqtSignal(object)
    come = pyqtSignal(float, object)
    """how far work that tells has come, 0 to 1, and what it has found by then, None where it has nothing new"""
    failed = pyqtSignal(str)

    def __init__(self, parent: QObject | None = None) -> None:
        super().__init__(parent)
        self.ticket = 0
        self.busy = False
        self.enough = 0
        """the job whose answer is wanted as far as it has come"""
        self._jobs: dict[int, _Job] = {}
        # An answer comes before the thread has left the job: the last ones are held here, so that none is taken down
        # by a thread that is not the window's.
        self._left: deque[_Job] = deque(maxlen=HELD)

    def ask(self, work: Callable[..., Any], telling: bool = False) -> None:
        """Begin a piece of work; with `telling` it is given a function to tell how far it has come, which answers
        whether to go on."""
        self.ticket += 1
        self.busy = True
        job = _Job(self.ticket, work, self, telling)
        job.setAutoDelete(False)
        job.signals.come.connect(self._come)
        job.signals.finished.connect(self._finished)
        job.signals.failed.connect(self._failed)
        for ticket in [one for one, earlier in self._jobs.items() if earlier.passed]:
            self._over(ticket)  # cancelled before it began: it never answers
        self._jobs[self.ticket] = job
        pool = QThreadPool.globalInstance()
        assert pool is not None
        pool.start(job)

    def halt(self) -> None:
        """Enough: work that tells how far it has come answers with what it has found so far."""
        self.enough = self.ticket

    def cancel(self) -> None:
        self.ticket += 1
        self.busy = False

    def _come(self, ticket: int, share: float, so_far: object) -> None:
        if ticket == self.ticket:
            self.come.emit(share, so_far)

    def _over(self, ticket: int) -> None:
        job = self._jobs.pop(ticket, None)
        if job is not None:
            self._left.append(job)

    def _finished(self, ticket: int, result: object) -> None:
        self._over(ticket)
        if ticket == self.ticket:
            self.busy = False
            self.answered.emit(result)

    def _failed(self, ticket: int, why: str) -> None:
        self._over(ticket)
        if ticket == self.ticket:
            self.busy = False
            self.failed.emit(why)
