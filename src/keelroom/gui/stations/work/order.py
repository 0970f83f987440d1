"""The Order page: every step in the order it is done, what is to be known of one, and the way to what it is about."""

from __future__ import annotations

from functools import partial
from pathlib import Path

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QMouseEvent
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from keelroom.assess.acts.registry import offer
from keelroom.assess.drives.words import clock
from keelroom.assess.outcome import Stopped
from keelroom.assess.safety import cautions, known
from keelroom.assess.work.plan import Plan
from keelroom.assess.work.steps import Step
from keelroom.catalogue.steps import STATES
from keelroom.drawing.work import Hung, work_scene
from keelroom.gui.saving import ask_and_write
from keelroom.gui.session.session import Session
from keelroom.gui.stations.work.plans import Plans, plan_words, step_said, when
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.flow import FlowLayout
from keelroom.gui.widgets.scene_view import Drawing, SceneView
from keelroom.gui.widgets.text import button, label, replace_body

READABLE = 1000.0
"""[px/m] under which the words of the steps would lie on each other"""
FOOT = "Filled: done. A diamond: it cannot be undone. Strong: the whole ends later where it does. A click goes there."


class WorkBoard(SceneView):
    """The work hung on its tape; a click on a step goes to what it is about."""

    def __init__(self, session: Session, plans: Plans) -> None:
        self.plans = plans
        self.hung: Hung | None = None
        super().__init__(session, "The work along its tape", self._drawn, READABLE)

    def _drawn(self) -> Drawing:
        plan = self.plans.plan
        self.hung = None
        if isinstance(plan, Stopped):
            return None, "", f"{plan.sentence}."
        if not plan.steps:
            return None, "", "Nothing is done to the car as it was found."
        self.hung = work_scene(self.session.build, plan)
        return self.hung.scene, self.session.build.package.name or self.session.build.active, FOOT

    def step_at(self, event: QMouseEvent) -> Step | None:
        """The step that hangs under the pointer."""
        plan = self.plans.plan
        if self.hung is None or isinstance(plan, Stopped):
            return None
        back, fine = self.view().inverted()
        y = back.map(event.position()).y() if fine else 0.0
        near = min(self.hung.rows, key=lambda row: abs(row[0] - y), default=None)
        if near is None or abs(near[0] - y) > 0.012:
            return None
        return next((step for step in plan.steps if step.key == near[1]), None)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        super().mouseReleaseEvent(event)
        assert event is not None
        step = self.step_at(event)
        if step is not None:
            self.plans.look_at(step.key)
            self.session.asked_for.emit(step.about)


class OrderView(QWidget):
    """What the plan says over its steps, and one of them whole under them."""

    come = pyqtSignal()

    def __init__(self, session: Session, plans: Plans) -> None:
        super().__init__()
        self.session, self.plans = session, plans
        self.setObjectName("panel")
        self.board = WorkBoard(session, plans)
        self.rows: tuple[Step, ...] = ()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 6)
        column.setSpacing(0)
        self.said = ScrolledColumn(session, "What the plan says")
        self.said.setMaximumHeight(230)
        column.addWidget(self.said, 2)
        self.table = ChooseTable(
            "Steps in their order",
            ("Step", "When", "Takes", "State"),
            self._choose,
            "A click shows a step whole.",
            "step, state …",
            words=True,
        )
        column.addWidget(self.table, 3)
        self.whole = ScrolledColumn(session, "The step")
        column.addWidget(self.whole, 2)
        plans.come.connect(self._come)
        plans.turned.connect(self._whole)

    @property
    def picture(self) -> QWidget:
        """The tape."""
        return self.board

    def _come(self) -> None:
        if self.isVisible():
            self._say()

    def refresh(self) -> None:
        """Write what stands."""
        self.plans.ask()
        self._say()
        plan = self.plans.plan
        if isinstance(plan, Stopped):
            self.rows = ()
            self.table.show_rows([], -1)
            return
        done = [step for step in plan.steps if step.key in plan.done]
        by_key = {step.key: step for step in plan.steps}
        self.rows = (*done, *(by_key[span.key] for span in plan.spans))
        at = next((n for n, step in enumerate(self.rows) if step.key == self.plans.step), -1)
        self.table.show_rows([_row(plan, step) for step in self.rows], at)
        self._whole()
        self.board.changed()
        self.come.emit()

    def _say(self) -> None:
        body, column = self.said.blank(4)
        plan = self.plans.plan
        if isinstance(plan, Stopped):
            column.addWidget(label(f"{plan.sentence}.", "problem", wrap=True))
        else:
            for role, words in plan_words(self.session, plan, self.plans.estimate):
                column.addWidget(label(words, role, wrap=True))
            line = FlowLayout()
            line.addWidget(button("Calendar…", self._calendar, "Save the work as appointments"))
            line.addWidget(button("Add a step of our own", self._own, "Add a step of our own"))
            column.addLayout(line)
        column.addStretch(1)
        replace_body(self.said, body)

    def _choose(self, row: int) -> None:
        if 0 <= row < len(self.rows):
            self.plans.look_at(self.rows[row].key)

    def _whole(self) -> None:
        plan = self.plans.plan
        body, column = self.whole.blank(4)
        step = None if isinstance(plan, Stopped) else next((s for s in plan.steps if s.key == self.plans.step), None)
        if step is not None and not isinstance(plan, Stopped):
            column.addWidget(label(step.words, "strong", wrap=True))
            for text in cautions(*known(step.cautions)):
                column.addWidget(label(text, "problem", wrap=True))
            for role, words in step_said(plan, step, self.session.system):
                column.addWidget(label(words, role, wrap=True))
            line = FlowLayout()
            line.addWidget(
                button("Go there", partial(self.session.asked_for.emit, step.about), "Go to what it is about")
            )
            column.addLayout(line)
        self.whole.setVisible(step is not None)
        column.addStretch(1)
        replace_body(self.whole, body)

    def _own(self) -> None:
        if self.session.do(offer("own_step")):
            self.session.asked_for.emit(("work", "own", self.session.build.work.own[-1].id, "name"))

    def _calendar(self) -> None:
        plan, title = self.plans.plan, self.session.build.brief.title or "Cooling"
        if isinstance(plan, Stopped):
            return
        if plan.first is None:
            self.session.told.emit("The calendar wants the day the work begins: it stands on the Hours page")
            self.session.asked_for.emit(("work", "start"))
            return

        def write(path: Path) -> None:
            from keelroom.export.calendar import write_calendar

            write_calendar(plan, title, path)

        ask_and_write(self, self.session, ("Save as appointments", "work.ics", "Calendar (*.ics)"), write)


def _row(plan: Plan, step: Step) -> tuple[str, ...]:
    tick, span = plan.ticks.get(step.key), plan.span(step.key)
    if span is None:
        return step.words, "done" if tick is None or not tick.day else tick.day, clock(step.billed), STATES[step.state]
    return step.words, when(plan, span.begins), clock(step.billed), STATES[step.state]
