"""The Bench page: the next step in type that is read from the car, ticked off as it went, with the time it took."""

from __future__ import annotations

import time
from datetime import date
from functools import partial

from PyQt6.QtCore import QTimer, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QVBoxLayout

from keelroom.assess.acts.registry import offer
from keelroom.assess.outcome import Stopped
from keelroom.assess.safety import cautions, known
from keelroom.assess.work.plan import Plan
from keelroom.assess.work.steps import Step
from keelroom.catalogue.steps import STATES
from keelroom.gui.photos import ask_for_photo
from keelroom.gui.session.session import Session
from keelroom.gui.stations.work.order import WorkBoard
from keelroom.gui.stations.work.plans import NO_WORK, Plans, shortened, step_said
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.flow import FlowLayout
from keelroom.gui.widgets.text import button, label, replace_body

TICK = 500
"""[ms] of the clock"""
AHEAD = 4
"""Steps shown that could be begun as well"""
WAYS = (("done", "Done"), ("twice", "Made twice"), ("other", "Another part"), ("stopped", "Stopped"))


class BenchView(ScrolledColumn):
    """One step at a time; what is typed here stays until it is ticked off."""

    come = pyqtSignal()

    def __init__(self, session: Session, plans: Plans, board: WorkBoard) -> None:
        super().__init__(session, "At the bench")
        self.plans, self.board = plans, board
        self.began: float | None = None
        self.typed = {"took": "", "who": "", "note": ""}
        self.said = ""
        self.watch = label("", "bench-figure")
        self.timer = QTimer(self)
        self.timer.setInterval(TICK)
        self.timer.timeout.connect(self._tick)
        plans.turned.connect(self._turned)

    @property
    def picture(self) -> WorkBoard:
        """The tape."""
        return self.board

    def _turned(self) -> None:
        self.said = ""
        if self.isVisible():
            self.refresh()

    def step_of(self, plan: Plan) -> Step | None:
        """The one that is at hand: the one looked at where it is still to do, else what can be begun first."""
        left = {step.key: step for step in plan.left}
        return left.get(self.plans.step) or next(iter(plan.next_steps(1)), None)

    def refresh(self) -> None:
        """Write it."""
        body, column = self.blank(6)
        plan = self.plans.plan
        if isinstance(plan, Stopped):
            column.addWidget(label(f"{plan.sentence}.", "problem", wrap=True))
        elif not plan.steps:
            column.addWidget(label(NO_WORK, wrap=True))
        else:
            self._step(column, plan)
            self._done(column, plan)
        column.addStretch(1)
        replace_body(self, body)
        self.board.changed()
        self.come.emit()

    def _step(self, column: QVBoxLayout, plan: Plan) -> None:
        step = self.step_of(plan)
        column.addWidget(
            label(f"The car is {STATES[plan.stands]}: {len(plan.done)} of {len(plan.steps)} done.", "faint")
        )
        if step is None:
            column.addWidget(label("All of it is done.", "good", wrap=True))
            return
        column.addWidget(label(step.words, "bench-step", wrap=True))
        for text in cautions(*known(step.cautions)):
            column.addWidget(label(text, "problem", wrap=True))
        self._clock(column)
        for name, words in (("took", "Minutes it took"), ("who", "Who"), ("note", "Note")):
            field = QLineEdit(self.typed[name])
            field.setAccessibleName(words)
            field.setPlaceholderText(words)
            field.textChanged.connect(partial(self.typed.__setitem__, name))
            column.addWidget(field)
        if self.said:
            column.addWidget(label(self.said, "problem", wrap=True))
        line = FlowLayout()
        for went, words in WAYS:
            role = "main" if went == "done" else ""
            line.addWidget(button(words, partial(self._ticked, step, went), f"{words}: {step.words[:40]}", role))
        line.addWidget(button("Go there", partial(self.session.asked_for.emit, step.about), "Go to what it is about"))
        if step.reads:
            line.addWidget(button("Read it…", partial(self._read, step), "Where its reading goes"))
        column.addLayout(line)
        for said_role, words in step_said(plan, step, self.session.system):
            column.addWidget(label(words, said_role, wrap=True))
        others = [one for one in plan.next_steps(AHEAD + 1) if one.key != step.key][:AHEAD]
        if others:
            column.addWidget(label("Could be begun as well", "head"))
            for one in others:
                turn = partial(self.plans.look_at, one.key)
                column.addWidget(button(shortened(one.words, 40), turn, f"Take up: {one.words[:40]}", "link"))

    def _clock(self, column: QVBoxLayout) -> None:
        line = QHBoxLayout()
        self.watch = label("0:00", "bench-figure")
        line.addWidget(self.watch)
        running = self.began is not None
        line.addWidget(button("Stop the clock" if running else "Start the clock", self._run, "Clock of the step"))
        line.addStretch(1)
        column.addLayout(line)
        self._tick()

    def _run(self) -> None:
        if self.began is None:
            self.began = time.monotonic()
            self.timer.start()
        else:
            self.typed["took"] = f"{max(round((time.monotonic() - self.began) / 60), 1)}"
            self.began = None
            self.timer.stop()
        self.refresh()

    def _tick(self) -> None:
        seconds = 0 if self.began is None else int(time.monotonic() - self.began)
        self.watch.setText(f"{seconds // 60}:{seconds % 60:02d}")

    def _ticked(self, step: Step, went: str) -> None:
        """Tick it off as it went; minutes that are none stay and say what was expected."""
        took = self.typed["took"].strip()
        if self.began is not None and not took:
            took = f"{max(round((time.monotonic() - self.began) / 60), 1)}"
        try:
            number = float(took.replace(",", ".")) if took else 0.0
        except ValueError:
            number = -1.0
        if took and not 0 < number <= 6000:
            self.said = f"“{took}” is no number of minutes: 1 to 6000 were expected."
            self.refresh()
            return
        given = {"step": step.key, "went": went, "day": date.today().isoformat(), "who": self.typed["who"].strip()}
        given |= {"note": self.typed["note"].strip(), "took": f"{number:g} min" if took else ""}
        self.said = ""
        if self.session.do(offer("tick", self.session.build.active, **given)):
            self.began = None
            self.timer.stop()
            self.typed |= {"took": "", "note": ""}
            self.plans.look_at("")
            self.refresh()

    def _read(self, step: Step) -> None:
        """A reading goes where it belongs: the survey's walk, or a trial."""
        where: tuple[str, ...] = ("survey",) if step.reads == "survey" else ("logbook", "trials")
        if step.reads.startswith("trial:"):
            key = step.reads.partition(":")[2]
            if self.session.do(offer("add_trial", protocol=key, day=date.today().isoformat())):
                where = ("logbook", "trials", self.session.build.logbook.trials[-1].id, "ambient")
        self.session.asked_for.emit(where)

    def _done(self, column: QVBoxLayout, plan: Plan) -> None:
        """What was ticked last, to be taken back or given a photo."""
        ticks = [tick for tick in self.session.build.work.ticks if tick.package == self.session.build.active][-3:]
        if not ticks:
            return
        column.addWidget(label("Ticked off last", "head"))
        for tick in reversed(ticks):
            gone = "" if tick.step in plan.ticks else ", no longer in the plan"
            column.addWidget(label(f"{tick.words} ({tick.went}{gone})", "faint", wrap=True))
            line = FlowLayout()
            back = offer("untick", self.session.build.active, step=tick.step)
            line.addWidget(button("Take it back", partial(self.session.do, back), f"Take back: {tick.words[:40]}"))
            where = ("work", "ticks", tick.id, "photos")
            photo = partial(ask_for_photo, self, self.session, where)
            line.addWidget(button("Photo…", photo, f"Photo of: {tick.words[:40]}"))
            column.addLayout(line)
