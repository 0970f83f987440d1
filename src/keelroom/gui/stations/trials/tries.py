"""Which trial is looked at, and what it should read: shared by the station's pages."""

from __future__ import annotations

import time
from collections.abc import Callable

from PyQt6.QtCore import QObject, pyqtSignal

from keelroom.assess.drives.driven import lacks
from keelroom.assess.outcome import Stopped
from keelroom.assess.trials.expected import Foretold, foretold
from keelroom.assess.trials.judged import Compared, compared
from keelroom.assess.trials.tried import package_of, trial_before
from keelroom.catalogue.protocols import protocol_of
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import Trial
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker

CAR = ("brief", "survey", "supply", "packages", "driving", "logbook", "active")
"""What trials are replayed by; what they have told already is left out of a replay."""


def same_in(names: tuple[str, ...], one: Build, other: Build) -> bool:
    """Whether two builds are the same in such sections."""
    return all(a is b or a == b for a, b in ((getattr(one, name), getattr(other, name)) for name in names))


class Tries(QObject):
    """`come` when it is known what a trial should read, `turned` when another one is looked at."""

    come = pyqtSignal()
    turned = pyqtSignal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.chosen = ""
        self.began: float | None = None
        """when the clock of the test was started"""
        self.found: Foretold | Stopped | None = None
        self.against: Compared | Stopped | None = None
        """the trial against the one before it by the same protocol"""
        self.asked: tuple[object, ...] = ()
        self.worker = Worker(self)
        self.worker.answered.connect(self._answered)
        self.worker.failed.connect(lambda why: self._answered((Stopped("The trial", (), why), None)))

    @property
    def trial(self) -> Trial | None:
        """The one that is looked at; the last where that is gone."""
        there = self.session.build.logbook.trials
        return next((one for one in there if one.id == self.chosen), there[-1] if there else None)

    def before(self, trial: Trial) -> Trial | None:
        """The trial before this one by the same protocol, to hold it against."""
        return trial_before(self.session.build, trial)

    def run_clock(self) -> None:
        """Start the clock of the test, or stop it."""
        self.began = None if self.began is not None else time.monotonic()

    @property
    def clock(self) -> str:
        """What it shows."""
        seconds = 0 if self.began is None else int(time.monotonic() - self.began)
        return f"{seconds // 60}:{seconds % 60:02d}"

    def choose(self, ident: str) -> None:
        """Look at another trial."""
        if ident != self.chosen:
            self.chosen = ident
            self.turned.emit()
            self.ask()

    @property
    def missing(self) -> str:
        """Why nothing can be foretold; '' where something can."""
        build, trial = self.session.build, self.trial
        if trial is None:
            return "There is no trial yet: choose a protocol and make one."
        if not trial.legs:
            return f"{protocol_of(trial.protocol).name}: nothing is driven, nothing to foretell."
        if self.session.needed:
            return f"First needed: {self.session.needed}."
        return "" if not lacks(build, package_of(build, trial)) else "Something of the car is still missing."

    def ask(self) -> None:
        """Work it out where the build or the trial is another."""
        build, trial = self.session.build, self.trial
        if self.missing or trial is None:
            stood, self.found, self.against, self.asked = self.found, None, None, ()
            self.worker.cancel()
            if stood is not None:
                self.come.emit()
            return
        state = (*(getattr(build, name) for name in CAR), build.calibration, trial.id)
        if self.asked and all(a is b or a == b for a, b in zip(state, self.asked, strict=True)):
            return
        self.asked = state
        self.against = None
        self.worker.ask(_foretold(build, trial, self.before(trial)))

    def _answered(self, answer: Answer) -> None:
        self.found, self.against = answer
        self.come.emit()


Answer = tuple[Foretold | Stopped, Compared | Stopped | None]


def _foretold(build: Build, trial: Trial, before: Trial | None) -> Callable[[], Answer]:
    """In a tuple: a worker tells of a stop by itself no more than why, not where it is mended."""
    return lambda: (foretold(build, trial), compared(build, before, trial) if before else None)
