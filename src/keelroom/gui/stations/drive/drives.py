"""Which drive is looked at, and what came of it: shared by the station's pages."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QObject, pyqtSignal

from keelroom.assess.drives.driven import Driven, drive_of, lacks
from keelroom.assess.outcome import Stopped
from keelroom.document.schema.build import Build
from keelroom.document.schema.drive import Schedule
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker

Found = Driven | Stopped


class Drives(QObject):
    """`come` when a drive has been worked out, `moved` when the cursor stands elsewhere, `turned` when another schedule
    is looked at."""

    come = pyqtSignal()
    moved = pyqtSignal()
    turned = pyqtSignal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.chosen = ""
        self.found: Found | None = None
        self.asked: tuple[object, ...] = ()
        self.held: Driven | None = None
        """another run of the same schedule, to be laid under"""
        self.at = 0.0
        """[s] where the cursor stands"""
        self.worker = Worker(self)
        self.worker.answered.connect(self._answered)
        self.worker.failed.connect(self._failed)

    @property
    def schedule(self) -> Schedule | None:
        """The one that is looked at; the first where that is gone."""
        there = self.session.build.driving.schedules
        return next((one for one in there if one.id == self.chosen), there[0] if there else None)

    def choose(self, ident: str) -> None:
        """Look at another schedule."""
        if ident != self.chosen:
            self.chosen, self.held = ident, None
            self.turned.emit()
            self.ask()

    @property
    def missing(self) -> str:
        """Why nothing can be driven; '' where something can."""
        build = self.session.build
        if self.schedule is None:
            return "There is no drive yet: add one on the Schedule page."
        if self.session.needed:
            return f"First needed: {self.session.needed}."
        return "" if not lacks(build, build.package) else "Something of the car is still missing."

    def ask(self) -> None:
        """Work it out where the build or the schedule is another; a first curve without its band comes first."""
        build, schedule = self.session.build, self.schedule
        if self.missing or schedule is None:
            self.found, self.asked = None, ()
            self.worker.cancel()
            self.come.emit()
            return
        # What is driven hangs on all of the build but on nothing of its trail.
        state = (*(getattr(build, name) for name in READ), schedule, build.active)
        if self.asked and all(a is b or a == b for a, b in zip(state, self.asked, strict=True)):
            return
        self.asked = state
        self.worker.ask(_drive(build, schedule, bands=False))

    def _answered(self, answer: tuple[Found]) -> None:
        (found,) = answer
        self.found = found
        if isinstance(found, Driven):
            self.at = min(self.at, found.lasts) if self.at else found.says.peak.at
        self.come.emit()
        schedule = self.schedule
        if isinstance(found, Driven) and found.low is None and schedule is not None:
            self.worker.ask(_drive(self.session.build, schedule, bands=True))

    def _failed(self, why: str) -> None:
        self.found = Stopped("The drive", (), why)
        self.come.emit()

    def hold(self) -> None:
        """Keep this run to be laid under the next; let it go where one is kept."""
        self.held = None if self.held else self.found if isinstance(self.found, Driven) else None
        self.come.emit()

    def move(self, at: float) -> None:
        """Put the cursor at a moment [s]."""
        if isinstance(self.found, Driven):
            held = min(max(at, 0.0), self.found.lasts)
            if held != self.at:
                self.at = held
                self.moved.emit()


READ = ("brief", "survey", "supply", "packages", "driving")


def _drive(build: Build, schedule: Schedule, *, bands: bool) -> Callable[[], tuple[Found]]:
    """In a tuple: a worker tells of a stop by itself no more than why, not where it is mended."""
    return lambda: (drive_of(build, build.package, schedule, bands),)
