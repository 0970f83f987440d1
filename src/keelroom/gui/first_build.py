"""The guided first build: nine questions in the trade's words, and the verdict as it comes of them."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QCheckBox, QGridLayout, QHBoxLayout, QLabel, QLineEdit, QVBoxLayout, QWidget

from keelroom.assess.assess import first_wave
from keelroom.assess.first_build import Answers, first_build, proposed_core, proposed_fans
from keelroom.assess.report import VERDICT_ROLES, verdict_line
from keelroom.catalogue.load import cores, engines, fan_assemblies, vehicles
from keelroom.core.kept import Kept
from keelroom.document.quantity import Quantity, Spec, typed
from keelroom.document.schema.build import Build
from keelroom.errors import InputError, KeelRoomError
from keelroom.gui.dialogs import Dialog
from keelroom.gui.session.session import Session
from keelroom.gui.stations.brief.model import SYMPTOMS
from keelroom.gui.widgets.text import ChoiceBox, Line, button, label, restyle
from keelroom.units import KINDS

NO_FANS = "No electric fan yet"
THERE = "The one that is there: measure it"


@dataclass
class Question:
    """A typed answer: its field, what it means, and where it is said that it means nothing."""

    edit: QLineEdit
    spec: Spec
    wrong: QLabel


class FirstBuild(Dialog):
    """Every answer changes the verdict at the foot at once; nothing of the open build is touched before it is taken."""

    def __init__(self, window: QWidget, session: Session) -> None:
        super().__init__(window, session, "First build", (760, 640))
        self.build: Build | None = None
        self.kept = Kept()
        self.core_chosen = self.fans_chosen = False
        self.column.addWidget(
            label(
                "Nine questions to a first verdict. What is not asked is taken from the usual kind and marked as that.",
                wrap=True,
            )
        )
        self.grid = QGridLayout()
        self.grid.setHorizontalSpacing(12)
        self.grid.setVerticalSpacing(8)
        self.grid.setColumnStretch(1, 1)
        self.column.addLayout(self.grid)
        self.rows = 0
        self._ask_all()
        self.column.addStretch(1)
        self.verdict = label("", "head", wrap=True)
        self.verdict.setAccessibleName("First verdict")
        self.column.addWidget(self.verdict)
        self.foot.addWidget(button("Cancel", self.reject))
        self.take = button("Start with this", self.accept, role="main")
        self.foot.addWidget(self.take)
        self._propose()
        self.answer()
        self.vehicle.setFocus()

    def _ask_all(self) -> None:
        self.vehicle = self._choice("What is it?", [kind.name for kind in vehicles()])
        self.engine = self._choice("Which engine drives it?", [kind.name for kind in engines()], self._propose)
        self.core = self._choice("Which radiator core?", [THERE, *(core.name for core in cores())], self._core_picked)
        self.sizes = self._sizes()
        self.fans = self._choice("Which fans?", [NO_FANS, *(one.name for one in fan_assemblies())], self._fans_picked)
        self.hottest = self._typed(
            "How hot does it get?",
            Spec("temperature", "Hottest day", ge=-50, le=60),
            "100 °F",
            "The hottest day it must live with",
        )
        self.ac = QCheckBox("A/C is fitted")
        self.ac.setChecked(True)
        self.ac.clicked.connect(lambda _checked: self.answer())
        self._row("Is there an A/C?", self.ac)
        self.tows = self._typed(
            "What does it pull uphill?",
            Spec("mass", "Towed on the grade", ge=0, le=60000),
            "",
            "Leave empty where nothing is towed",
        )
        self.flat_out = QCheckBox("Held flat out for minutes: track, desert, hill-climb")
        self.flat_out.clicked.connect(lambda _checked: self.answer())
        self._row("Is it driven flat out?", self.flat_out)
        self.wrong = self._marks("What went wrong before?")

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

    def _sizes(self) -> tuple[Question, ...]:
        """Width, height and depth of the core that is there, on a line of their own under the choice."""
        self.size_row = QWidget()
        row = QHBoxLayout(self.size_row)
        row.setContentsMargins(0, 0, 0, 0)
        found = []
        for name, text in (("Face width", "26 in"), ("Face height", "17 in"), ("Core depth", "2 1/4 in")):
            asked = self._edit(name, Spec("length", name, gt=0, le=3), text)
            asked.edit.setFixedWidth(92)
            row.addWidget(label(name.split()[-1]))
            row.addWidget(asked.edit)
            found.append(asked)
        self.size_wrong = label("", "error", wrap=True)
        row.addWidget(self.size_wrong, 1)
        self.grid.addWidget(self.size_row, self.grid.rowCount(), 1)
        return tuple(found)

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

    def _core_picked(self) -> None:
        self.core_chosen = True
        self._propose()

    def _fans_picked(self) -> None:
        self.fans_chosen = True

    def _propose(self) -> None:
        """The smallest core and fans that meet the rules of thumb for this engine, until somebody chooses others."""
        engine = engines()[max(self.engine.currentIndex(), 0)]
        core, fans = self.core.currentText(), ""
        if not self.core_chosen:
            core = proposed_core(engine)
        if not self.fans_chosen:
            fans = proposed_fans(engine, next((one for one in cores() if one.name == core), None))
        for box, name in ((self.core, core), (self.fans, fans)):
            if name:
                box.setCurrentIndex(box.findText(name))

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

    def _answers(self) -> Answers:
        there = self.core.currentText() == THERE
        sizes = None
        if there:
            read = [self._read(asked) for asked in self.sizes]
            missing = next((asked for asked, size in zip(self.sizes, read, strict=True) if size is None), None)
            if missing is not None:
                raise InputError("core_size", f"{missing.spec.label} is needed, such as {missing.spec.kind.example}")
            sizes = tuple(size for size in read if size is not None)
        hottest = self._read(self.hottest)
        if hottest is None:
            raise InputError("hottest_day", "The hottest day is needed, such as 100 °F")
        return Answers(
            vehicle=self.vehicle.currentText(),
            engine=self.engine.currentText(),
            core="" if there else self.core.currentText(),
            own_core=(sizes[0], sizes[1], sizes[2]) if sizes else None,
            fans="" if self.fans.currentIndex() == 0 else self.fans.currentText(),
            hottest=hottest,
            ac=self.ac.isChecked(),
            tows=self._read(self.tows),
            flat_out=self.flat_out.isChecked(),
            wrong=tuple(value for value, _ in SYMPTOMS if self.wrong[value].isChecked()),  # type: ignore[misc]
        )

    def answer(self) -> None:
        """Make the build that is meant and say how it stands."""
        self.size_row.setVisible(self.core.currentText() == THERE)
        self.size_wrong.setText("")
        try:
            self.build = first_build(self._answers(), self.session.system)
            with self.kept.at_work():
                found = first_wave(self.build)
        except KeelRoomError as error:
            self.build = None
            self.take.setEnabled(False)
            self._say(error.message, "problem")
            self.size_wrong.setText(next((asked.wrong.text() for asked in self.sizes if asked.wrong.text()), ""))
            return
        self.take.setEnabled(True)
        worst = found.tightest
        verdict = worst.figures.verdict if worst and worst.figures else ""
        self._say(
            verdict_line(found, self.session.system),
            VERDICT_ROLES.get(verdict, "problem"),
        )

    def _say(self, text: str, role: str) -> None:
        self.verdict.setText(text)
        restyle(self.verdict, "role", role)
