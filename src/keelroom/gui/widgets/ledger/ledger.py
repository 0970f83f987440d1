"""The heat ledger: every duty case on one temperature rail, on every station, with running totals beside it."""

from __future__ import annotations

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from keelroom.assess.figures.assessment import CaseResult
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import Palette
from keelroom.gui.widgets.ledger.line import FoldedLine, FoldMark
from keelroom.gui.widgets.ledger.rail import FIGURE_WIDTH, MARGIN_WIDTH, NAME_WIDTH, TEMPERATURE, Rail, RailAxis
from keelroom.gui.widgets.ledger.row import CaseRow
from keelroom.gui.widgets.ledger.totals import TotalsLines
from keelroom.gui.widgets.text import label
from keelroom.units import KINDS, format_si

ROW_HEIGHT, COMPACT_HEIGHT, COMPACT_FROM = 20, 17, 9
MOST_ROWS = 12
"""Duty cases seen without scrolling."""


class Ledger(QWidget):
    """Rows over the rail on the left, totals on the right; a sentence instead where there is nothing to stand on it."""

    chosen = pyqtSignal(str)
    folding = pyqtSignal(bool)
    """it was folded to one line, or opened"""

    def __init__(self, session: Session, palette: Palette) -> None:
        super().__init__()
        self.session, self.palette_now = session, palette
        self.setObjectName("panel")
        self.setAccessibleName("Heat ledger")
        self.rail = Rail(session.assessment)
        self.row_height = ROW_HEIGHT
        self.rows: list[CaseRow] = []
        self.folded = False
        self._build()
        session.changed.connect(self.refresh)
        session.selected.connect(lambda _case: self.refresh())
        session.display_changed.connect(self.refresh)
        session.glanced.connect(self.axis.update)
        self.refresh()

    def _build(self) -> None:
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        self.line = FoldedLine(self.session)
        self.line.wanted.connect(lambda: self.fold(False))
        whole.addWidget(self.line)
        self.opened = QWidget()
        self.opened.setObjectName("panel")
        whole.addWidget(self.opened)
        outer = QHBoxLayout(self.opened)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.setSpacing(0)
        main = QVBoxLayout()
        main.setContentsMargins(0, 3, 0, 0)
        main.setSpacing(0)
        self.empty = label("", wrap=True)
        self.empty.setContentsMargins(14, 8, 14, 8)
        self.holder = QWidget()
        self.holder.setObjectName("panel")
        self.column = QVBoxLayout(self.holder)
        self.column.setContentsMargins(0, 0, 0, 0)
        self.column.setSpacing(0)
        self.column.addStretch(1)
        self.rows_area = QScrollArea()
        self.rows_area.setWidgetResizable(True)
        self.rows_area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.rows_area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.rows_area.setWidget(self.holder)
        self.axis = RailAxis(self)
        main.addWidget(self.empty)
        main.addWidget(self.rows_area)
        main.addWidget(self.axis)
        main.addStretch(1)
        outer.addLayout(main, 1)
        self.totals = TotalsLines(self.session)
        outer.addWidget(self.totals)
        side = QVBoxLayout()
        side.setContentsMargins(0, 2, 4, 2)
        side.addWidget(FoldMark(lambda: self.fold(True), "Fold the ledger to one line (Ctrl+L)", down=True))
        side.addStretch(1)
        outer.addLayout(side)
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        self.fold(False)

    def fold(self, folded: bool) -> None:
        """To one line, or open."""
        self.folded = folded
        self.line.setVisible(folded)
        self.opened.setVisible(not folded)
        self.folding.emit(folded)

    def height_open(self) -> int:
        """What it takes with its rows, whether it is open or not."""
        return self.opened.sizeHint().height()

    def set_palette(self, palette: Palette) -> None:
        self.palette_now = palette
        self.refresh()

    def change_of(self, case: CaseResult) -> str:
        """How far a duty case has moved from what is held; '' where nothing is held, or the case was not there."""
        held = self.session.held.figures(case.case_id) if self.session.held else None
        if held is None or case.figures is None:
            return ""
        settles = [f.verdict != "does_not_settle" for f in (held, case.figures)]
        if settles == [False, True]:
            return "now settles"
        if not settles[1]:
            return "" if settles[0] is False else f"was {format_si(held.temperature, TEMPERATURE, self.session.system)}"
        unit = self.session.unit(KINDS["temperature difference"])
        change = (case.figures.temperature - held.temperature) / unit.factor
        return f"{change:+.1f} {unit.symbol}".replace("-", "−") if abs(change) >= 0.05 else "no change"

    def rail_span(self) -> tuple[float, float]:
        """Left end and width of the rail in this widget's pixels."""
        right = FIGURE_WIDTH + MARGIN_WIDTH + 20
        return float(NAME_WIDTH + 20), max(float(self.rows_area.width() - NAME_WIDTH - 20 - right), 60.0)

    def refresh(self) -> None:
        assessment = self.session.assessment
        cases = assessment.cases
        # What stopped a case stands in its row, as its figures would.
        solved = [case for case in cases if case.figures or case.stopped]
        self.empty.setVisible(not solved)
        self.axis.setVisible(any(case.figures for case in cases))
        if not solved:
            missing = list(dict.fromkeys(need.label.lower() for case in cases for need in case.needs))
            what = (
                f"It still needs: {', '.join(missing[:8])}"
                + (f" and {len(missing) - 8} more." if len(missing) > 8 else ".")
                if missing
                else "Add a duty case at the Brief."
            )
            self.empty.setText(
                "No figures yet. The ledger shows the temperature every duty case settles at once the brief "
                f"and a package are known. {what}"
            )
        self.rail = Rail(assessment)
        self.row_height = COMPACT_HEIGHT if len(cases) >= COMPACT_FROM else ROW_HEIGHT
        self.rows_area.setVisible(bool(solved))
        self.rows_area.setFixedHeight(self.row_height * min(max(len(cases), 1), MOST_ROWS) + 2)
        self._show_rows(cases if solved else ())
        self.totals.show_totals(assessment)
        self.line.show_line(assessment)
        self.axis.update()

    def _show_rows(self, cases: tuple[CaseResult, ...]) -> None:
        while len(self.rows) < len(cases):
            row = CaseRow(self)
            row.toggled.connect(lambda _on, row=row: self._choose(row))
            self.column.insertWidget(len(self.rows), row)
            self.rows.append(row)
        while len(self.rows) > len(cases):
            self.rows.pop().deleteLater()
        for row, case in zip(self.rows, cases, strict=True):
            row.setFixedHeight(self.row_height)
            row.show_case(case, case.case_id == self.session.case)

    def _choose(self, row: CaseRow) -> None:
        if row.case is not None:
            self.session.select(row.case.case_id)
            self.chosen.emit(row.case.case_id)
