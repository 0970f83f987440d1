"""Find a place: the search with its progress, what it found, and what would have to give where there is none."""

from __future__ import annotations

from PyQt6.QtWidgets import QHBoxLayout, QProgressBar, QVBoxLayout

from keelroom.assess.questions.places import Found, Search, find_places
from keelroom.assess.report import heat_words
from keelroom.document.schema.build import Build
from keelroom.gui.session.proofs import Proofs
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.offered import Way
from keelroom.gui.widgets.text import button, label, replace_body
from keelroom.units import KINDS, format_si

INTRO = (
    "Slides, lifts, leans and offsets the package within its reach, tries the other inlet side, slimmer fans "
    "and what can be moved. "
    "Best first: least that cannot be undone, then least work and other parts, then room, then heat."
)


class FindPage(ScrolledColumn):
    """Asks for a place when told to; an answer for another build looks stale."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Find a place")
        self.answer: Search | None = None
        self.asked: object = None
        self.failed = ""
        self.progress: QProgressBar | None = None
        self.worker = Worker(self)
        self.worker.answered.connect(self._answered)
        self.worker.failed.connect(self._failed)
        self.worker.come.connect(self._come)
        self.proofs = Proofs(session, self)
        self.shown: tuple[Build, str, Search | None] | None = None
        self._write()

    def refresh(self) -> None:
        build, system, answer = self.session.build, self.session.system, self.answer
        if self.shown is None or self.shown[0] is not build or self.shown[1] != system or self.shown[2] is not answer:
            self._write()

    def start(self) -> None:
        """Begin the search for the build as it stands."""
        build, system = self.session.build, self.session.system
        self.asked, self.answer, self.failed = build, None, ""
        self.worker.ask(lambda tell: find_places(build, tell, system), telling=True)
        self._write()

    def _stop(self) -> None:
        self.worker.cancel()
        self.failed = "Stopped."
        self._write()

    def _come(self, share: float) -> None:
        if self.progress is not None:
            self.progress.setValue(round(100 * share))

    def _answered(self, answer: Search) -> None:
        self.answer = answer
        self._write()

    def _failed(self, why: str) -> None:
        self.failed = f"Could not be worked out: {why}"
        self._write()

    def _write(self) -> None:
        self.shown = (self.session.build, self.session.system, self.answer)
        body, column = self.blank()
        column.addWidget(label(INTRO, "faint", wrap=True))
        line = QHBoxLayout()
        self.progress = None
        if self.worker.busy:
            self.progress = QProgressBar()
            self.progress.setRange(0, 100)
            self.progress.setAccessibleName("How far the search has come")
            line.addWidget(self.progress, 1)
            line.addWidget(button("Stop", self._stop, "Stop the search"))
        else:
            line.addWidget(button("Find a place", self.start, role="main"))
            line.addStretch(1)
        column.addLayout(line)
        if self.failed:
            column.addWidget(label(self.failed, "doubt", wrap=True))
        if self.answer is not None:
            if self.asked is not self.session.build:
                column.addWidget(label("The build has changed since: search again.", "doubt", wrap=True))
            self._fill(column, self.answer)
            if self.asked is self.session.build:
                self.proofs.look([(None, found.act) for found in self.answer.found])
        column.addStretch(1)
        replace_body(self, body)

    def _fill(self, column: QVBoxLayout, answer: Search) -> None:
        if answer.none is not None:
            column.addSpacing(6)
            column.addWidget(label("No place within the reach given", "problem", wrap=True))
            column.addWidget(label(f"Nearest miss: {answer.none.binding}.", wrap=True))
            for way in answer.none.relax:
                column.addWidget(label(f"Or: {way}.", wrap=True))
        for number, found in enumerate(answer.found, 1):
            self._one(column, number, found)
        column.addWidget(label(f"{answer.tried} places tried.", "faint"))

    def _one(self, column: QVBoxLayout, number: int, found: Found) -> None:
        system = self.session.system
        column.addSpacing(6)
        head = QHBoxLayout()
        head.addWidget(label(f"{number}  {found.words}", "strong", wrap=True), 1)
        column.addLayout(head)
        heats = "; ".join(f"{name} {heat_words(value, system)}" for name, value in found.temperatures)
        heats += ", fans held on" if heats else ""
        work = [format_si(found.work, KINDS["time"], system) + " to move parts"] if found.work else []
        work += [f"{found.removals} taken away for good"] if found.removals else []
        work += [f"mounts slotted {format_si(found.slots, KINDS['length'], system)}"] if found.slots > 1e-4 else []
        for text in (heats, f"Tightest: {found.tightest}", "; ".join(work) or "nothing to move or slot"):
            column.addWidget(label(text, "faint", wrap=True))
        if self.asked is self.session.build:
            column.addWidget(Way(self.session, self.proofs, found.act, f"Use place {number}"))
