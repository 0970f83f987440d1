"""One duty case of the ledger."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QFont, QPainter, QPaintEvent, QPolygonF
from PyQt6.QtWidgets import QAbstractButton

from keelroom.assess.figures.assessment import CaseFigures, CaseResult
from keelroom.assess.report import (
    VERDICT_ROLES,
    VERDICT_WORDS,
    band_text,
    case_name,
    margin_text,
    missing_words,
    settles_text,
)
from keelroom.facts import chance_words
from keelroom.gui.widgets.ledger.rail import FIGURE_WIDTH, MARGIN_WIDTH, NAME_WIDTH, TEMPERATURE, Railed
from keelroom.gui.widgets.text import plain_tip, set_quietly
from keelroom.units import KINDS, format_si

CHANGE_WIDTH, CHANGE_LEAD = 66, 8


class CaseRow(QAbstractButton):
    """One duty case: its name, its place on the rail with its band, its margin. A button, so keys and readers find
    it."""

    def __init__(self, ledger: Railed) -> None:
        super().__init__()
        self.ledger = ledger
        self.case: CaseResult | None = None
        self.setCheckable(True)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def show_case(self, case: CaseResult, chosen: bool) -> None:
        self.case = case
        set_quietly(self, chosen)
        self.setAccessibleName(self.sentence())
        self.setToolTip(plain_tip(self.sentence()))
        self.update()

    def sentence(self) -> str:
        """What the row shows, in words."""
        case, system = self.case, self.ledger.session.system
        if case is None:
            return ""
        if case.figures is None:
            return f"{case_name(case)}: {missing_words(case)}"
        f = case.figures
        change = self.ledger.change_of(case)
        held = f", {change} from what is held" if change else ""
        if f.verdict == "does_not_settle":
            return f"{case_name(case)}: does not settle; {margin_text(f, system)}{held}"
        settles = settles_text(f, system) if f.cycles else f"settles at {settles_text(f, system)}"
        return (
            f"{case_name(case)}: {settles}, band {band_text(f, system)}, {margin_text(f, system)}, "
            f"{VERDICT_WORDS[f.verdict]}{held}"
        )

    def sizeHint(self) -> QSize:
        return QSize(600, self.ledger.row_height)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        p, height = self.ledger.palette_now, self.height()
        if self.isChecked() or self.underMouse():
            painter.fillRect(self.rect(), QColor(p.raised))
        if self.isChecked():
            painter.fillRect(0, 0, 4, height, QColor(p.accent))
        if self.hasFocus():
            painter.setPen(QColor(p.accent))
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))
        if self.case is None:
            return
        painter.setPen(QColor(p.ink))
        self._cell(painter, 12, NAME_WIDTH - 14, self.case.name, bold=self.isChecked())
        if self.case.figures is None:
            painter.setPen(QColor(p.bad if self.case.stopped else p.doubt))
            self._cell(painter, NAME_WIDTH, self.width() - NAME_WIDTH, missing_words(self.case))
            return
        left, width = self.ledger.rail_span()
        self._figures(painter, self.case.figures, left, width)

    def _cell(
        self, painter: QPainter, x: float, width: float, text: str, bold: bool = False, right: bool = False
    ) -> None:
        font = QFont("Open Sans", 10)
        font.setWeight(QFont.Weight.DemiBold if bold else QFont.Weight.Normal)
        painter.setFont(font)
        text = painter.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, int(width))
        side = Qt.AlignmentFlag.AlignRight if right else Qt.AlignmentFlag.AlignLeft
        painter.drawText(QRectF(x, 0, width, self.height()), side | Qt.AlignmentFlag.AlignVCenter, text)

    def _figures(self, painter: QPainter, f: CaseFigures, left: float, width: float) -> None:
        p, system, rail = self.ledger.palette_now, self.ledger.session.system, self.ledger.rail
        colour = QColor({"good": p.good, "doubt": p.doubt, "problem": p.bad}[VERDICT_ROLES[f.verdict]])
        if self.case and not self.case.counted:
            colour = QColor(p.faint)
        middle = self.height() / 2
        start, end = rail.place(f.low, left, width), rail.place(f.high, left, width)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(p.band))
        if not rail.beyond(f.low):
            painter.drawRect(QRectF(start, middle - 4, max(end - start, 2), 8))
        limit = self.ledger.session.assessment.limit
        if limit is not None:
            painter.fillRect(QRectF(rail.place(limit, left, width) - 0.75, 0, 1.5, self.height()), QColor(p.bad))
        if f.cycles:
            self._swing(
                painter, colour, (rail.place(f.swings_from, left, width), rail.place(f.temperature, left, width))
            )
        painter.setBrush(colour)
        self._mark(
            painter, f, rail.place(f.temperature if f.verdict != "does_not_settle" else math.inf, left, width), middle
        )
        painter.setPen(QColor(p.ink))
        x = left + width + 14
        settles = "—" if f.verdict == "does_not_settle" else format_si(f.temperature, TEMPERATURE, system)
        self._cell(painter, x, FIGURE_WIDTH - 20, settles, bold=True, right=True)
        painter.setPen(colour)
        change = self.ledger.change_of(self.case) if self.case else ""
        if change:
            painter.setPen(QColor(p.accent))
            self._cell(painter, x + FIGURE_WIDTH - CHANGE_LEAD, CHANGE_WIDTH, change, bold=True)
            painter.setPen(colour)
        lead = CHANGE_WIDTH if self.ledger.session.held and (change or f.verdict != "does_not_settle") else 0
        self._cell(painter, x + FIGURE_WIDTH + lead, MARGIN_WIDTH - lead, self._verdict(f))

    def _verdict(self, f: CaseFigures) -> str:
        told = self._stands(f)
        return told if self.case is None or self.case.counted else f"{told} · for information"

    def _stands(self, f: CaseFigures) -> str:
        if f.verdict in ("tight", "even"):
            return f"{margin_text(f, self.ledger.session.system)} · {chance_words(f.chance)} passes"
        if f.verdict != "does_not_settle":
            return f"{margin_text(f, self.ledger.session.system)} · {VERDICT_WORDS[f.verdict]}"
        climb = format_si(f.climb * 60, KINDS["temperature difference"], self.ledger.session.system)
        return f"does not settle: +{climb}/min" if f.climb else "does not settle: boils first"

    def _swing(self, painter: QPainter, colour: QColor, ends: tuple[float, float]) -> None:
        """What the gauge goes through every time the fans stop and start: a stem up to the mark, a bar across its
        foot."""
        middle = self.height() / 2
        painter.fillRect(QRectF(ends[0], middle - 1, ends[1] - ends[0], 2), colour)
        painter.fillRect(QRectF(ends[0] - 1, middle - 5, 2, 10), colour)
        painter.setPen(Qt.PenStyle.NoPen)

    def _mark(self, painter: QPainter, f: CaseFigures, x: float, y: float) -> None:
        """Shape says the verdict: round holds, diamond likely, triangle over, arrow off the rail does not settle."""
        if f.verdict == "holds":
            painter.drawEllipse(QPointF(x, y), 5.5, 5.5)
        elif f.verdict in ("tight", "even"):
            painter.drawPolygon(QPolygonF([QPointF(x, y - 7), QPointF(x + 7, y), QPointF(x, y + 7), QPointF(x - 7, y)]))
        elif f.verdict == "over":
            painter.drawPolygon(QPolygonF([QPointF(x, y - 7), QPointF(x + 7, y + 6), QPointF(x - 7, y + 6)]))
        else:
            painter.drawPolygon(
                QPolygonF([QPointF(x + 8, y), QPointF(x - 5, y - 7), QPointF(x - 1, y), QPointF(x - 5, y + 7)])
            )
