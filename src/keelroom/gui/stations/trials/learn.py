"""The Learn page: what all trials together tell of the model, what that makes of the hot day, taken in by a press."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QProgressBar, QVBoxLayout

from keelroom.assess.acts.registry import offer
from keelroom.assess.questions.hot_day import HotDay, Learnt, learn, reads_words
from keelroom.assess.trials.words import learnt_words
from keelroom.assess.words.calibrated import calibrated_by
from keelroom.document.edits import set_value
from keelroom.drawing.trials import learnt_scene
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.stations.trials.tries import CAR, same_in
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.scene_view import WORDED, Drawing, Picture
from keelroom.gui.widgets.text import button, label, replace_body

NOTE = (
    "All trials that count are replayed together, and heat, core, fans, gaps and the coolant’s flow moved from what "
    "was likely before to what the readings say. Nothing is changed before you take it in; undo comes back."
)


WORTH_TELLING = 0.01
"""Chance from which on it is told."""


class LearnView(ScrolledColumn):
    """Asked for by a press: a fit is worth waiting for, and nothing that follows every edit."""

    come = pyqtSignal()

    def __init__(self, session: Session) -> None:
        super().__init__(session, "What the readings tell")
        self.found: Learnt | None = None
        self.of = session.build
        """the build it was worked out for"""
        self.said = ""
        self.bar: QProgressBar | None = None
        self.worker = Worker(self)
        self.worker.answered.connect(self._answered)
        self.worker.failed.connect(self._failed)
        self.worker.come.connect(self._told)

    @property
    def picture(self) -> Picture:
        """What was doubtful, before and after."""
        return Picture("What was doubtful, before and after", self._drawn, WORDED)

    def _drawn(self) -> Drawing:
        if self.found is None:
            return None, "", "It is drawn once it is worked out."
        title = "What was doubtful, before and after"
        return learnt_scene(self.found.fitted), title, "80 of 100 lie between the ends of a bar."

    def refresh(self) -> None:
        """Write what stands."""
        build = self.session.build
        body, column = self.blank(6)
        column.addWidget(label(NOTE, "faint", wrap=True))
        now = calibrated_by(build.calibration)
        if now:
            column.addWidget(label(f"Every figure is {now}.", "good", wrap=True))
            column.addWidget(button("Go by the entries alone", self._off, "Go by the entries alone"))
        elif build.calibration.factors:
            column.addWidget(button("Go by the trials again", self._on, "Go by the trials again"))
        self.bar = None
        if self.worker.busy:
            self.bar = QProgressBar()
            self.bar.setAccessibleName("How far the fit has come")
            self.bar.setRange(0, 100)
            column.addWidget(self.bar)
            column.addWidget(button("Stop", self._stop, "Stop the fit"))
        else:
            column.addWidget(button("Work it out", self.work, "Work out what the trials tell"))
        if self.said:
            column.addWidget(label(self.said, "problem", wrap=True))
        if self.found is not None:
            if not same_in(CAR, self.of, build):
                column.addWidget(label("Something has changed since: work it out again.", "doubt", wrap=True))
            self._write(column, self.found)
        column.addStretch(1)
        replace_body(self, body)
        self.come.emit()

    def _write(self, column: QVBoxLayout, found: Learnt) -> None:
        if found.quick:
            column.addWidget(label("A first answer; the search goes on.", "doubt", wrap=True))
        for role, words in learnt_words(found.fitted, self.session.system):
            column.addWidget(label(words, role, wrap=True))
        column.addWidget(label("The hot cases, predicted again", "head"))
        self._days(column, found.days)
        take = button("Take it in", self._take, "Take in what the trials tell", "", "Every figure goes by it; undoable")
        take.setEnabled(same_in(CAR, self.of, self.session.build) and not self.worker.busy)
        column.addWidget(take)

    def _days(self, column: QVBoxLayout, days: tuple[HotDay, ...]) -> None:
        system = self.session.system
        for day in days:
            column.addWidget(label(day.name, "strong", wrap=True))
            before, after = reads_words(day.before, system), reads_words(day.after, system)
            column.addWidget(label(f"{before} as entered, {after} by the trials", wrap=True))
            was, now = day.before[3], day.after[3]
            if max(was, now) >= WORTH_TELLING:
                role = "problem" if now > was else "good"
                column.addWidget(label(f"Chance to pass the limit: {was:.0%}, now {now:.0%}", role, wrap=True))

    # work

    def work(self) -> None:
        """Fit all trials, beside the window."""
        build = self.session.build
        self.said, self.found, self.of = "", None, build
        self.worker.ask(lambda tell: learn(build, tell, quick=True), telling=True)
        self.refresh()

    def _stop(self) -> None:
        self.worker.cancel()
        self.said = "Stopped; nothing was taken in."
        self.refresh()

    def _told(self, share: float) -> None:
        if self.bar is not None:
            self.bar.setValue(round(100 * share))

    def _answered(self, found: Learnt) -> None:
        self.found = found
        if found.quick:
            build = self.of
            self.worker.ask(lambda tell: learn(build, tell), telling=True)
        self.refresh()

    def _failed(self, why: str) -> None:
        self.said, self.found = why, None
        self.refresh()

    def _take(self) -> None:
        if self.found is None:
            return
        value = self.found.fitted.calibration
        if self.session.attempt(set_value(("calibration",), value, "Take in what the trials tell")):
            self.session.told.emit(f"Every figure is {calibrated_by(value)} now; undo comes back")
        self.refresh()

    def _on(self) -> None:
        self.session.do(offer("calibration_on"))
        self.refresh()

    def _off(self) -> None:
        self.session.do(offer("calibration_off"))
        self.refresh()
