"""What each offered act was seen to do: tried on a copy beside the window, one after the other, for as long as the
build stands as it was."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import QObject, pyqtSignal

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding
from keelroom.assess.questions.proof import Proof, Trial, try_out
from keelroom.document.act import Act
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker

Offer = tuple[Finding | None, Act]
"""what is offered, and the finding it is offered for where there is one"""


class Proofs(QObject):
    """`of` gives what is known of an act; `come` says that another is. An edit forgets them all."""

    come = pyqtSignal()

    def __init__(self, session: Session, parent: QObject) -> None:
        super().__init__(parent)
        self.session = session
        self.judged: Assessment | None = None
        self.known: list[tuple[Act, Trial]] = []
        """each act is tried once, whatever it is offered for"""
        self.wanted: list[Act] = []
        self.asked: list[Offer] = []
        """what was last asked for, known by now or not"""
        self.worker = Worker(self)
        self.worker.answered.connect(self._answered)
        self.worker.failed.connect(lambda why: self._answered(Trial(None, Proof(None, stopped=why))))
        session.deepened.connect(self._deepened)

    def of(self, finding: Finding | None, act: Act) -> Proof | None:
        """What an act does to the build as it stands; None while it is being tried."""
        if self.judged is not self.session.assessment:
            return None
        trial = self._trial(act)
        return trial.proof(finding) if trial else None

    def _trial(self, act: Act) -> Trial | None:
        return next((trial for tried, trial in self.known if tried == act), None)

    def look(self, wanted: Sequence[Offer]) -> None:
        """Try these, the first one first, unless they are known or one of them is being tried already; not while the
        typing goes on."""
        judged, self.asked = self.session.assessment, list(wanted)
        if self.judged is not judged:
            self.worker.cancel()
            self.judged, self.known, self.wanted = judged, [], []
        if not judged.complete:
            return
        tried = self.wanted[:1] if self.worker.busy else []
        open_ = [act for _, act in wanted if self._trial(act) is None]
        self.wanted = tried + [act for k, act in enumerate(open_) if act not in tried and act not in open_[:k]]
        if not tried:
            self._next()

    def _deepened(self) -> None:
        """The judgement is whole: what was asked of the same build is tried against it."""
        if self.judged is not None and self.judged.build is self.session.build:
            self.look(self.asked)

    def _next(self) -> None:
        if self.wanted and self.judged is not None:
            act, judged, system = self.wanted[0], self.judged, self.session.system
            self.worker.ask(lambda: try_out(judged, act, system))

    def _answered(self, trial: Trial) -> None:
        self.known.append((self.wanted.pop(0), trial))
        self._next()
        self.come.emit()
