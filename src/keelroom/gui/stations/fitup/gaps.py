"""Every clearance of the package, and the measurement that would settle the verdict."""

from __future__ import annotations

from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from keelroom.assess.fit.clearances import Gap
from keelroom.assess.report import verdict_sentence
from keelroom.gui.session.session import Session
from keelroom.gui.stations.fitup.model import GAP_COLUMNS, gap_cells, gap_said
from keelroom.gui.widgets.choose_table import ChooseTable
from keelroom.gui.widgets.fit_board import FitBoard
from keelroom.gui.widgets.text import button, label, plain_tip, restyle

NOTE = "The least in hand first. A click shows the pair on the board and the reading that dominates it."


class GapsView(QWidget):
    """Verdict, table, and what to measure next."""

    def __init__(self, session: Session, board: FitBoard) -> None:
        super().__init__()
        self.session, self.board = session, board
        self.setObjectName("panel")
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 8, 0, 6)
        column.setSpacing(2)
        self.verdict = label("", "head", wrap=True)
        self.missing = label("", "doubt", wrap=True)
        self.said = label("", "faint", wrap=True)
        for widget in (self.verdict, self.missing):
            widget.setContentsMargins(12, 0, 10, 0)
            column.addWidget(widget)
        self.table = ChooseTable("Clearances", GAP_COLUMNS, self._choose, NOTE, "horn, ring, too close …")
        column.addWidget(self.table, 1)
        self.said.setContentsMargins(12, 0, 10, 0)
        column.addWidget(self.said)
        line = QHBoxLayout()
        line.setContentsMargins(12, 0, 10, 0)
        self.next = button("", self._measure)
        line.addWidget(self.next)
        line.addStretch(1)
        column.addLayout(line)
        self.gaps: tuple[Gap, ...] = ()
        session.picked.connect(self.refresh)

    def refresh(self) -> None:
        fit = self.session.assessment.fit
        if fit is None:
            return
        self.gaps = fit.gaps
        self.verdict.setText(verdict_sentence(fit))
        restyle(self.verdict, "role", {"does not fit": "problem", "clears": "head"}.get(fit.verdict, "doubt"))
        self.missing.setVisible(bool(fit.unmeasured) and fit.surveyed)
        one = len(fit.unmeasured) == 1
        self.missing.setText(
            f"{len(fit.unmeasured)} measurement{'' if one else 's'} missing or only assumed: no clean "
            f"verdict before {'it is' if one else 'they are'} taken"
        )
        current = next((k for k, gap in enumerate(self.gaps) if (gap.part.key, gap.other.key) == self.board.marked), -1)
        self.table.show_rows([gap_cells(gap, self.session.system) for gap in self.gaps], current)
        self.next.setVisible(fit.next is not None)
        if fit.next is not None:
            self.next.setText(f"Measure next: {fit.next.what}")
            self.next.setAccessibleName(f"Measure next: {fit.next.what}")
            self.next.setToolTip(plain_tip(fit.next.why))
        self.said.setText(gap_said(self.gaps[current], self.session.system) if current >= 0 else "")

    def _choose(self, row: int) -> None:
        gap = self.gaps[row]
        self.board.mark(gap)
        self.session.pick(gap.part.path)
        self.refresh()

    def _measure(self) -> None:
        fit = self.session.assessment.fit
        if fit is not None and fit.next is not None:
            self.session.asked_for.emit(fit.next.path)
