"""The side panels: findings, the working of the chosen figure, the trail, and every act by name."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeySequence
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QLineEdit, QListWidget, QListWidgetItem, QPushButton, QSizePolicy, QVBoxLayout, QWidget

from keelroom.assess.assessment import CaseFigures, CaseResult
from keelroom.assess.fixes import applies, edit_for
from keelroom.assess.report import margin_text, settles_text
from keelroom.assess.why import HEADLINES, Mover, Working, ambient_inputs, headline_working, movers, temperature_working
from keelroom.core.findings import Finding, Fix
from keelroom.core.sources import SOURCES
from keelroom.errors import InputError
from keelroom.gui.session.session import Session
from keelroom.gui.session.timing import one_shot
from keelroom.gui.session.worker import Worker
from keelroom.gui.theme.palette import level_colour, palette_of
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.seen import WhenSeen
from keelroom.gui.widgets.text import LevelMark, button, label, replace_body, restyle
from keelroom.units import KINDS, format_si

LEVEL_WORDS = {"problem": "Problem", "doubt": "Open question", "note": "Note"}


class Panel(WhenSeen, ScrolledColumn):
    """A scrolled column that is emptied and filled again."""

    def fresh(self) -> QVBoxLayout:
        body, column = self.blank()
        replace_body(self, body)
        return column


def _pair(column: QVBoxLayout, what: str, value: str) -> QLabel:
    """A line of two: what, and its value at the right, which is returned."""
    line = QHBoxLayout()
    line.addWidget(label(what, wrap=True), 1)
    shown = label(value)
    shown.setAlignment(Qt.AlignmentFlag.AlignRight)
    line.addWidget(shown)
    column.addLayout(line)
    return shown


WHILE_DRAGGED = 120
"""[ms] between two fillings of the findings in a drag"""


FINDINGS_AT_ONCE = 40
"""Findings shown before one is asked for more: the worst stand first."""


class Card(QWidget):
    """One finding. It is filled anew rather than made anew: in a drag findings come and go with every move."""

    def __init__(self, panel: FindingsPanel) -> None:
        super().__init__()
        self.panel = panel
        self.finding: Finding | None = None
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 12)
        column.setSpacing(3)
        level = QHBoxLayout()
        self.mark, self.level = LevelMark("note", ""), label("")
        level.addWidget(self.mark)
        level.addWidget(self.level)
        level.addStretch(1)
        column.addLayout(level)
        self.what, self.why, self.source = label("", "head", wrap=True), label("", wrap=True), label("", "faint", wrap=True)
        for words in (self.what, self.why, self.source):
            column.addWidget(words)
        self.fixes: list[QPushButton] = []
        self.fix_column = QVBoxLayout()
        column.addLayout(self.fix_column)
        line = QHBoxLayout()
        self.go = button("Show me", self._go)
        line.addWidget(self.go)
        line.addStretch(1)
        column.addLayout(line)

    def show_finding(self, finding: Finding, colour: str) -> None:
        before, self.finding = self.finding, finding
        if before == finding and self.mark.colour == colour:
            return
        self.mark.show_level(finding.level, colour)
        self.level.setText(LEVEL_WORDS[finding.level])
        restyle(self.level, "role", finding.level)
        self.what.setText(finding.what)
        self.why.setText(finding.why)
        self.source.setText(f"From: {SOURCES[finding.source].citation}")
        self.go.setAccessibleName(f"Show me: {finding.what}")
        while len(self.fixes) < len(finding.fix):
            number = len(self.fixes)
            made = button("", lambda number=number: self._mend(number), role="main")
            # As wide as the panel is: a long act must not push the words of every finding out of sight.
            made.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
            self.fixes.append(made)
            self.fix_column.addWidget(made)
        for k, made in enumerate(self.fixes):
            offered = k < len(finding.fix) and applies(self.panel.session.build, finding.fix[k], self.panel.session.system)
            made.setVisible(offered)
            if offered:
                made.setText(finding.fix[k].label)
                made.setAccessibleName(f"Mend: {finding.fix[k].label}")

    def _go(self) -> None:
        assert self.finding is not None
        self.panel.session.asked_for.emit(self.finding.where)

    def _mend(self, number: int) -> None:
        assert self.finding is not None
        self.panel.mend(self.finding.fix[number])


class FindingsPanel(Panel):
    """What is wrong, doubtful or unmeasured, each with why, where it comes from, and what would mend it."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Findings")
        self.cards: list[Card] = []
        column = self.fresh()
        self.nothing = label("Nothing to say: no contradiction, nothing missing, nothing over its limit.", wrap=True)
        column.addWidget(self.nothing)
        self.column = QVBoxLayout()
        column.addLayout(self.column)
        self.most = FINDINGS_AT_ONCE
        self.more = button("", self._show_more, "Show more findings")
        column.addWidget(self.more)
        column.addStretch(1)
        self.later = one_shot(self, WHILE_DRAGGED, self.changed)
        session.changed.connect(self._after_edit)
        session.deepened.connect(self.changed)
        session.display_changed.connect(self.changed)

    def _after_edit(self) -> None:
        """At once, but while something is dragged only so often: the clearances and the ledger go first."""
        if not self.session.store.merging:
            self.changed()
        elif not self.later.isActive():
            self.later.start()

    def bring_up_to_date(self) -> None:
        findings, palette = self.session.assessment.findings, palette_of(self.session.settings.theme)
        shown = findings[: self.most]
        while len(self.cards) < len(shown):
            self.cards.append(Card(self))
            self.column.addWidget(self.cards[-1])
        for number, card in enumerate(self.cards):
            if number < len(shown):
                card.show_finding(shown[number], level_colour(palette, shown[number].level))
            card.setVisible(number < len(shown))
        self.nothing.setVisible(not findings)
        self.more.setVisible(len(findings) > self.most)
        self.more.setText(f"Show {min(FINDINGS_AT_ONCE, len(findings) - self.most)} more of {len(findings)}")

    def _show_more(self) -> None:
        self.most += FINDINGS_AT_ONCE
        self.changed()

    def mend(self, fix: Fix) -> None:
        """Apply a finding's fix to the build as it stands now."""
        try:
            edit = edit_for(self.session.build, fix, self.session.system)
        except InputError as error:
            self.session.told.emit(error.message)
            return
        self.session.attempt(edit)


class WhyPanel(Panel):
    """The working of the chosen duty case's temperature; what moves it most is worked out beside the window."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Why")
        self.worker = Worker(self)
        self.worker.answered.connect(self._show_movers)
        self.worker.failed.connect(lambda why: self.moves.setText(f"Could not be worked out: {why}"))
        self.moves = label("")
        self.values: dict[str, QLabel] = {}
        session.changed.connect(self.changed)
        session.deepened.connect(self._deepened)
        session.selected.connect(lambda _case: self.changed())
        session.explained.connect(lambda _headline: self.changed())
        session.display_changed.connect(self.changed)

    @property
    def _case(self) -> CaseResult | None:
        return next((case for case in self.session.assessment.cases if case.case_id == self.session.case), None)

    def _deepened(self) -> None:
        """What the second wave adds is filled in where it stands: the search for what moves it goes on."""
        case = self._case
        if case and case.figures:
            for what, value in ambient_inputs(case.figures, self.session.system):
                if what in self.values:
                    self.values[what].setText(value)

    def bring_up_to_date(self) -> None:
        case = self._case
        column = self.fresh()
        self.values = {}
        if case is None or case.figures is None:
            self.moves = label("")
            column.addWidget(label("Choose a duty case on the ledger once it has figures; its working stands here.", wrap=True))
            column.addStretch(1)
            return
        self.figures = case.figures
        if self.session.headline in HEADLINES:
            self._headline(column)
        else:
            self._temperature(column, case.name)
        column.addStretch(1)

    def _temperature(self, column: QVBoxLayout, name: str) -> None:
        f, system = self.figures, self.session.system
        settles = settles_text(f, system)
        told = f"{settles}, {margin_text(f, system)}."
        if f.verdict == "does_not_settle":
            told = f"{settles.capitalize()}; {margin_text(f, system)}."
        self._working(column, temperature_working(f, name, system), told, lambda: self._balance(column, f))
        build, chosen = self.session.build, self.session.case
        self.worker.ask(lambda: ("temperature difference", movers(build, chosen, system)))

    def _headline(self, column: QVBoxLayout) -> None:
        """A total of the ledger: read at the case that stands for idle, as the ledger does."""
        build, system, name = self.session.build, self.session.system, self.session.headline
        idle, case = self.session.assessment.idle, self.session.assessment.idle_id
        if idle is None:
            column.addWidget(label("This figure is read at the duty case that stands for idle; there is none with figures.", wrap=True))
            return
        self._working(column, headline_working(build, name, idle, system), f"Read at {build.duty_case(case).name}.", lambda: None)
        self.worker.ask(lambda: (HEADLINES[name].kind_name, movers(build, case, system, name)))

    def _working(self, column: QVBoxLayout, working: Working, told: str, more: Callable[[], object]) -> None:
        column.addWidget(label(working.title, "head", wrap=True))
        column.addWidget(label(told, wrap=True))
        column.addSpacing(6)
        column.addWidget(label("What moves it most", "head"))
        self.moves = label("working it out …", wrap=True)
        self.moves.setAccessibleName("What moves it most")
        column.addWidget(self.moves)
        more()
        column.addWidget(label("From", "head"))
        for what, value in working.inputs:
            self.values[what] = _pair(column, what, value)
        column.addSpacing(6)
        column.addWidget(label("In words", "head"))
        column.addWidget(label(working.formula, wrap=True))
        column.addSpacing(6)
        column.addWidget(label("Sources", "head"))
        for source in working.sources:
            column.addWidget(label(f"{source.citation} ({source.confirmed})", "faint", wrap=True))

    def _balance(self, column: QVBoxLayout, figures: CaseFigures) -> None:
        column.addSpacing(6)
        column.addWidget(label("Heat in, by cause", "head"))
        for cause, heat in sorted(figures.heat_by_cause, key=lambda part: -part[1]):
            if heat > 50:
                _pair(column, cause, format_si(heat, KINDS["heat"], self.session.system))
        column.addWidget(label("One standard doubt in heat margin", "head"))
        for cause, heat in figures.doubt_by_cause:
            _pair(column, cause, f"± {format_si(heat, KINDS['heat'], self.session.system)}")
        column.addWidget(
            label(
                "Taken as independent of each other. The band drawn holds 80 % of cases: 1.28 of all together either way.",
                "faint",
                wrap=True,
            )
        )
        column.addSpacing(6)

    def _show_movers(self, answer: tuple[str, tuple[Mover, ...]]) -> None:
        kind_name, found = answer
        unit = self.session.unit(KINDS[kind_name])
        places = 1 if kind_name == "temperature difference" else max(unit.decimals, 0)
        lines = [f"{mover.label} {mover.step}: {mover.change / unit.factor:+.{places}f} {unit.symbol}" for mover in found[:3]]
        self.moves.setText("\n".join(lines) or "Nothing moves it.")


class TrailPanel(Panel):
    """Each named step with the tightest temperature it left."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Trail")
        session.changed.connect(self.changed)
        session.display_changed.connect(self.changed)

    def bring_up_to_date(self) -> None:
        column = self.fresh()
        column.addWidget(label("Trail", "head"))
        column.addWidget(label("Each step with the tightest duty case's temperature and the tightest gap after it.", "faint", wrap=True))
        if not self.session.marks:
            column.addWidget(label("No step yet.", wrap=True))
        system = self.session.system
        for text, temperature, gap in reversed(self.session.marks):
            settles = temperature is not None and math.isfinite(temperature)
            shown = (
                format_si(temperature, KINDS["temperature"], system)
                if settles
                else "no figure yet"
                if temperature is None
                else "does not settle"
            )
            if gap is not None:
                shown += f", gap {format_si(gap, KINDS['length'], system)}".replace("-", "−")
            _pair(column, text, shown)
        column.addStretch(1)


class Command(NamedTuple):
    """An act by name, with its shortcut ('' none)."""

    name: str
    act: Callable[[], object]
    shortcut: str = ""


class CommandsPanel(QWidget):
    """Every act of the window in one list that narrows while typing."""

    def __init__(self, commands: tuple[Command, ...]) -> None:
        super().__init__()
        self.setObjectName("panel")
        self.commands = commands
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 8, 10, 10)
        self.filter = QLineEdit()
        self.filter.setPlaceholderText("What do you want to do?")
        self.filter.setAccessibleName("Find an act")
        self.filter.textChanged.connect(self._narrow)
        self.filter.returnPressed.connect(self._first)
        self.list = QListWidget()
        self.list.setAccessibleName("Acts")
        for command in commands:
            keys = QKeySequence(command.shortcut).toString(QKeySequence.SequenceFormat.NativeText) if command.shortcut else ""
            item = QListWidgetItem(f"{command.name}    {keys}".rstrip())
            item.setData(Qt.ItemDataRole.UserRole, command.name)
            self.list.addItem(item)
        self.list.itemActivated.connect(lambda item: self._do(item.data(Qt.ItemDataRole.UserRole)))
        self.list.itemClicked.connect(lambda item: self._do(item.data(Qt.ItemDataRole.UserRole)))
        column.addWidget(self.filter)
        column.addWidget(self.list, 1)

    def showEvent(self, event: object) -> None:
        self.filter.setFocus()
        self.filter.selectAll()

    def _narrow(self, text: str) -> None:
        words = text.lower().split()
        for i in range(self.list.count()):
            item = self.list.item(i)
            if item is not None:
                item.setHidden(not all(word in item.text().lower() for word in words))

    def _first(self) -> None:
        for i in range(self.list.count()):
            item = self.list.item(i)
            if item is not None and not item.isHidden():
                self._do(item.data(Qt.ItemDataRole.UserRole))
                return

    def _do(self, name: str) -> None:
        next(command for command in self.commands if command.name == name).act()
