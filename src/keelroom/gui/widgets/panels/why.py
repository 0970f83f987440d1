"""The working of the chosen figure."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QLabel, QVBoxLayout

from keelroom.assess.figures.assessment import CaseFigures, CaseResult
from keelroom.assess.questions.why import (
    HEADLINES,
    Mover,
    Working,
    ambient_inputs,
    bias_words,
    headline_working,
    movers,
    temperature_working,
)
from keelroom.assess.report import margin_text, settles_text
from keelroom.assess.words.calibrated import calibrated_by
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.widgets.panels.panel import DrawerPanel, pair
from keelroom.gui.widgets.text import label
from keelroom.units import KINDS, format_si


class WhyPanel(DrawerPanel):
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
        # What was asked for the body that goes is not written into it any more.
        self.worker.cancel()
        self.values, self.moves = {}, label("")
        if case is None or case.figures is None:
            waiting = "Choose a duty case on the ledger once it has figures; its working stands here."
            column.addWidget(label(self.session.stopped or waiting, wrap=True))
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
            column.addWidget(
                label(
                    "This figure is read at the duty case that stands for idle; there is none with figures.", wrap=True
                )
            )
            return
        self._working(
            column, headline_working(build, name, idle, system), f"Read at {build.duty_case(case).name}.", lambda: None
        )
        self.worker.ask(lambda: (HEADLINES[name].kind_name, movers(build, case, system, name)))

    def _working(self, column: QVBoxLayout, working: Working, told: str, more: Callable[[], object]) -> None:
        column.addWidget(label(working.title, "head", wrap=True))
        column.addWidget(label(told, wrap=True))
        by = calibrated_by(self.session.build.calibration)
        if by:
            column.addWidget(label(f"{by[0].upper()}{by[1:]}.", "good", wrap=True))
        column.addSpacing(6)
        column.addWidget(label("What moves it most", "head"))
        self.moves = label("working it out …", wrap=True)
        self.moves.setAccessibleName("What moves it most")
        column.addWidget(self.moves)
        more()
        column.addWidget(label("From", "head"))
        for what, value in working.inputs:
            self.values[what] = pair(column, what, value)
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
                pair(column, cause, format_si(heat, KINDS["heat"], self.session.system))
        column.addWidget(label("One standard doubt in heat margin", "head"))
        for cause, heat in figures.doubt_by_cause:
            pair(column, cause, f"± {format_si(heat, KINDS['heat'], self.session.system)}")
        column.addWidget(
            label(
                "Taken as independent of each other. The band drawn holds 80 % of cases: 1.28 of all "
                "together either way.",
                "faint",
                wrap=True,
            )
        )
        column.addWidget(label(bias_words(self.session.build.brief.engine.kind), "faint", wrap=True))
        column.addSpacing(6)

    def _show_movers(self, answer: tuple[str, tuple[Mover, ...]]) -> None:
        kind_name, found = answer
        unit = self.session.unit(KINDS[kind_name])
        places = 1 if kind_name == "temperature difference" else max(unit.decimals, 0)
        lines = [
            f"{mover.label} {mover.step}: {mover.change / unit.factor:+.{places}f} {unit.symbol}" for mover in found[:3]
        ]
        self.moves.setText("\n".join(lines) or "Nothing moves it.")
