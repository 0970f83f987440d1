"""The guided first build: twelve questions in the trade's words, and the proposal that comes of them."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QCheckBox, QGridLayout, QHBoxLayout, QLabel, QLineEdit, QVBoxLayout, QWidget

from keelroom.assess.first_build import Answers
from keelroom.assess.questions.proposal import Proposal, proposal
from keelroom.catalogue.load import cores, engines, fan_assemblies, vehicles
from keelroom.document.quantity import Quantity, Spec, quantity, typed
from keelroom.document.schema.build import Build
from keelroom.errors import InputError
from keelroom.gui.dialogs import Dialog
from keelroom.gui.proposal import ProposalView
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.stations.brief.model import SYMPTOMS
from keelroom.gui.widgets.text import ChoiceBox, Line, button, label, restyle
from keelroom.units import KINDS

PROPOSE_CORE, PROPOSE_FANS = "Propose the smallest that holds", "Propose the weakest that hold"
NO_FANS = "No electric fan yet"
AS_BUILT = "As such a vehicle is built"
THERE = "The one that is there: measure it"


@dataclass
class Question:
    """A typed answer: its field, what it means, and where it is said that it means nothing."""

    edit: QLineEdit
    spec: Spec
    wrong: QLabel


class FirstBuild(Dialog):
    """Every answer changes the proposal beside it; nothing of the open build is touched before one is taken."""

    def __init__(self, window: QWidget, session: Session) -> None:
        super().__init__(window, session, "First build", (1180, 700))
        self.build: Build | None = None
        self.asked: Answers | None = None
        """what the proposal that stands, or is being looked for, was asked with"""
        self.worker = Worker(self)
        self.worker.answered.connect(self._found)
        self.worker.failed.connect(self._failed)
        self.column.addWidget(
            label(
                "Twelve questions to a first proposal. What is not asked is taken from the usual kind and marked as"
                " that; every answer can be changed afterwards.",
                wrap=True,
            )
        )
        sides = QHBoxLayout()
        sides.setSpacing(26)
        self.column.addLayout(sides, 1)
        left = QVBoxLayout()
        sides.addLayout(left, 5)
        self.grid = QGridLayout()
        self.grid.setHorizontalSpacing(12)
        self.grid.setVerticalSpacing(7)
        self.grid.setColumnStretch(1, 1)
        left.addLayout(self.grid)
        left.addStretch(1)
        self.rows = 0
        self._ask_all()
        self.proposal = ProposalView(session)
        self.proposal.chosen.connect(self._picked)
        sides.addWidget(self.proposal, 6)
        self.foot.addWidget(button("Cancel", self.reject))
        self.take = button("Start with this", self.accept, role="main")
        self.foot.addWidget(self.take)
        self.answer()
        self.vehicle.setFocus()

    def _ask_all(self) -> None:
        self.units = self._choice("Which units?", ["Inches, Fahrenheit", "Millimetres, Celsius"], self._units_picked)
        self.units.setCurrentIndex(("us", "si").index(self.session.system))
        self.vehicle = self._choice("What is it?", [kind.name for kind in vehicles()])
        self.engine = self._choice("Which engine drives it?", [kind.name for kind in engines()])
        self.gearbox = self._choice("Which gearbox?", [AS_BUILT, "Automatic", "Manual"])
        self.core = self._choice("Which radiator core?", [PROPOSE_CORE, THERE, *(core.name for core in cores())])
        self.sizes = self._sizes()
        self.room = self._room()
        self.fans = self._choice("Which fans?", [PROPOSE_FANS, NO_FANS, *(one.name for one in fan_assemblies())])
        self.hottest = self._typed(
            "How hot does it get?",
            Spec("temperature", "Hottest day", ge=-50, le=60),
            "100 °F",
            "The hottest day it must live with",
        )
        self.ac = self._tick("Is there an A/C?", "A/C is fitted")
        self.ac.setChecked(True)
        self.tows = self._typed(
            "What does it pull uphill?",
            Spec("mass", "Towed on the grade", ge=0, le=60000),
            "",
            "Empty: nothing",
        )
        self.flat_out = self._tick("Is it driven flat out?", "Held flat out for minutes: track, desert, hill-climb")
        self.wrong = self._marks("What went wrong before?")

    def _tick(self, question: str, words: str) -> QCheckBox:
        box = QCheckBox(words)
        box.clicked.connect(lambda _checked: self.answer())
        self._row(question, box)
        return box

    def _row(self, question: str, answer: QWidget) -> None:
        self.rows += 1
        asked = label(f"{self.rows}  {question}", "strong")
        self.grid.addWidget(asked, self.grid.rowCount(), 0, Qt.AlignmentFlag.AlignTop)
        self.grid.addWidget(answer, self.grid.rowCount() - 1, 1)

    def _choice(self, question: str, names: list[str], act: Callable[[], object] | None = None) -> ChoiceBox:
        box = ChoiceBox()
        box.setAccessibleName(question)
        box.addItems(names)
        if act is not None:
            box.activated.connect(lambda _index: act())
        box.activated.connect(lambda _index: self.answer())
        self._row(question, box)
        return box

    def _typed(self, question: str, spec: Spec, text: str, tip: str) -> Question:
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(0, 0, 0, 0)
        asked = self._edit(question, spec, text)
        asked.edit.setToolTip(tip)
        asked.edit.setPlaceholderText(tip)
        row.addWidget(asked.edit, 1)
        row.addWidget(asked.wrong, 1)
        self._row(question, holder)
        return asked

    def _edit(self, name: str, spec: Spec, text: str) -> Question:
        edit, wrong = Line(), label("", "error", wrap=True)
        edit.setAccessibleName(name)
        edit.setText(text)
        edit.editingFinished.connect(self.answer)
        return Question(edit, spec, wrong)

    def _lengths(self, named: tuple[tuple[str, str], ...]) -> tuple[QWidget, tuple[Question, ...], QLabel]:
        """Lengths side by side, told apart by the last word of their names, with one place for what is wrong."""
        holder = QWidget()
        row = QHBoxLayout(holder)
        row.setContentsMargins(0, 0, 0, 0)
        found = []
        for name, text in named:
            asked = self._edit(name, Spec("length", name, gt=0, le=3), text)
            asked.edit.setFixedWidth(82)
            row.addWidget(label(name.split()[-1]))
            row.addWidget(asked.edit)
            found.append(asked)
        wrong = label("", "error", wrap=True)
        row.addWidget(wrong, 1)
        return holder, tuple(found), wrong

    def _sizes(self) -> tuple[Question, ...]:
        """Width, height and depth of the core that is there, on a line of their own under the choice."""
        named = (("Face width", "26 in"), ("Face height", "17 in"), ("Core depth", "2 1/4 in"))
        self.size_row, found, self.size_wrong = self._lengths(named)
        self.grid.addWidget(self.size_row, self.grid.rowCount(), 1)
        return found

    def _room(self) -> tuple[Question, ...]:
        """The space a core with its tanks may take; empty bounds nothing."""
        holder, found, self.room_wrong = self._lengths((("Room width", ""), ("Room height", "")))
        for asked in found:
            asked.edit.setToolTip("With its tanks. Empty: no bound; the tape walk asks for it exactly")
        self._row("How much room is there?", holder)
        return found

    def _marks(self, question: str) -> dict[str, QCheckBox]:
        holder = QWidget()
        column = QVBoxLayout(holder)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(2)
        made = {}
        for value, words in SYMPTOMS:
            made[value] = QCheckBox(words)
            made[value].setAccessibleName(words)
            made[value].clicked.connect(lambda _checked: self.answer())
            column.addWidget(made[value])
        self._row(question, holder)
        return made

    # answers

    def _units_picked(self) -> None:
        self.session.set_units(("us", "si")[self.units.currentIndex()])
        self.asked = None

    def _read(self, asked: Question) -> Quantity | None:
        """What was typed; None where it is empty. Raises InputError, said beside the field."""
        text = asked.edit.text().strip()
        restyle(asked.edit, "wrong", False)
        asked.wrong.setText("")
        if not text:
            return None
        try:
            return typed(text, asked.spec, KINDS[asked.spec.kind_name].shown_unit(self.session.system).symbol)
        except InputError as error:
            restyle(asked.edit, "wrong", True)
            asked.wrong.setText(error.message)
            raise

    def _own_core(self) -> tuple[Quantity, Quantity, Quantity] | None:
        if self.core.currentText() != THERE:
            return None
        read = [self._read(asked) for asked in self.sizes]
        missing = next((asked for asked, size in zip(self.sizes, read, strict=True) if size is None), None)
        if missing is not None:
            missing.wrong.setText(f"{missing.spec.label} is needed, such as {missing.spec.kind.example}")
            raise InputError("core_size", missing.wrong.text())
        wide, high, deep = (size for size in read if size is not None)
        return wide, high, deep

    def _answers(self) -> Answers:
        core, fans = self.core.currentIndex(), self.fans.currentIndex()
        wide, high = (self._read(asked) for asked in self.room)
        hottest = self._read(self.hottest)
        if hottest is None:
            self.hottest.wrong.setText("The hottest day is needed, such as 100 °F")
            raise InputError("hottest_day", self.hottest.wrong.text())
        boundless = quantity("3 m", "length")
        return Answers(
            vehicle=self.vehicle.currentText(),
            engine=self.engine.currentText(),
            gearbox=("", "automatic", "manual")[self.gearbox.currentIndex()],
            core=None if core < 2 else self.core.currentText(),
            room=(wide or boundless, high or boundless) if wide or high else None,
            own_core=self._own_core(),
            fans=(None, "")[fans] if fans < 2 else self.fans.currentText(),
            hottest=hottest,
            ac=self.ac.isChecked(),
            tows=self._read(self.tows),
            flat_out=self.flat_out.isChecked(),
            wrong=tuple(value for value, _ in SYMPTOMS if self.wrong[value].isChecked()),  # type: ignore[misc]
        )

    def answer(self) -> None:
        """Read the answers and have their proposal looked for."""
        self.size_row.setVisible(self.core.currentText() == THERE)
        try:
            given = self._answers()
        except InputError as error:
            self._nothing_yet()
            self.asked = None
            self.proposal.say(error.message, "problem")
            return
        finally:
            for told, asked in ((self.size_wrong, self.sizes), (self.room_wrong, self.room)):
                told.setText(next((one.wrong.text() for one in asked if one.wrong.text()), ""))
        if given == self.asked:
            return
        self._nothing_yet()
        self.asked, system = given, self.session.system
        self.proposal.wait()
        self.worker.ask(lambda: proposal(given, system))

    def _nothing_yet(self) -> None:
        self.worker.cancel()
        self.build = None
        self.take.setEnabled(False)

    def _found(self, found: Proposal | None) -> None:
        self.proposal.show_found(found)

    def _failed(self, why: str) -> None:
        self.proposal.say(why, "problem")

    def _picked(self) -> None:
        picked = self.proposal.picked
        self.build = picked.build if picked else None
        self.take.setEnabled(self.build is not None)
