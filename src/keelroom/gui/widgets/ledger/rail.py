"""The shared temperature scale, and the axis drawn of it."""

from __future__ import annotations

import math
from typing import Protocol

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QFont, QPainter, QPaintEvent
from PyQt6.QtWidgets import QWidget

from keelroom.assess.figures.assessment import Assessment, CaseResult
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import Palette
from keelroom.units import KINDS, Unit

RAIL_HEIGHT = 34
TEMPERATURE = KINDS["temperature"]
NAME_WIDTH, FIGURE_WIDTH, MARGIN_WIDTH = 166, 70, 226


class Rail:
    """The shared scale: temperature [degC] to a place across a width."""

    def __init__(self, assessment: Assessment) -> None:
        low = (assessment.thermostat if assessment.thermostat is not None else 80.0) - 12.0
        marks = [v for v in (assessment.limit, assessment.boiling) if v is not None]
        high = max(marks, default=110.0) + 8.0
        self.low, self.high = low, max(high, low + 30.0)

    def place(self, temperature: float, left: float, width: float) -> float:
        share = (temperature - self.low) / (self.high - self.low)
        return left + width * min(max(share, 0.0), 1.0)

    def beyond(self, temperature: float) -> bool:
        return temperature > self.high


class Railed(Protocol):
    """What rows and axis ask of the ledger they stand in."""

    session: Session
    palette_now: Palette
    rail: Rail
    row_height: int

    def rail_span(self) -> tuple[float, float]: ...
    def change_of(self, case: CaseResult) -> str: ...


class RailAxis(QWidget):
    """The rail itself: ticks, and thermostat, limit and boiling by name."""

    def __init__(self, ledger: Railed) -> None:
        super().__init__()
        self.ledger = ledger
        self.setFixedHeight(RAIL_HEIGHT)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        p, assessment = self.ledger.palette_now, self.ledger.session.assessment
        left, width = self.ledger.rail_span()
        unit: Unit = self.ledger.session.unit(TEMPERATURE)
        painter.setFont(QFont("Open Sans", 9))
        painter.fillRect(self.rect(), QColor(p.panel))
        painter.fillRect(QRectF(left, 0, width, 3), QColor(p.steel))
        self._ticks(painter, unit, left, width)
        taken: list[tuple[float, float]] = []
        painter.setFont(QFont("Open Sans", 9, QFont.Weight.DemiBold))
        for name, value, colour in (
            ("limit", assessment.limit, p.bad),
            ("thermostat", assessment.thermostat, p.good),
            ("boils", assessment.boiling, p.doubt),
        ):
            if value is None:
                continue
            x = self.ledger.rail.place(value, left, width)
            text = f"{name} {(value - unit.offset) / unit.factor:.0f}"
            wide = painter.fontMetrics().horizontalAdvance(text) + 6
            box = QRectF(min(max(x - wide / 2, left - 40), self.width() - wide), 16, wide, 17)
            if any(box.left() < end and box.right() > begin for begin, end in taken):
                box.moveLeft(max(end for _, end in taken) + 6)
            taken.append((box.left(), box.right()))
            painter.fillRect(QRectF(x - 1, 0, 2, 15), QColor(colour))
            painter.setPen(QColor(colour))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
        painter.setFont(QFont("Open Sans", 9))
        calibration = self.ledger.session.build.calibration
        words, ink = f"Outlet {unit.symbol}, bands 80 %", p.faint
        if calibration.on:
            words = f"{unit.symbol}, by {len(calibration.trials)} trial{'s' * (len(calibration.trials) != 1)}"
        moment = self.ledger.session.moment
        if moment is not None:
            words, ink = f"{moment[0]}: {(moment[1] - unit.offset) / unit.factor:.0f} {unit.symbol}", p.accent
            self._moment(painter, self.ledger.rail.place(moment[1], left, width))
        painter.setPen(QColor(ink))
        painter.drawText(QRectF(12, 4, NAME_WIDTH + 10, 20), Qt.AlignmentFlag.AlignVCenter, words)

    def _moment(self, painter: QPainter, x: float) -> None:
        """Where the coolant stands at a drive's cursor."""
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(self.ledger.palette_now.accent))
        painter.drawPolygon(QPointF(x, 1), QPointF(x - 5, 10), QPointF(x + 5, 10))

    def _ticks(self, painter: QPainter, unit: Unit, left: float, width: float) -> None:
        p, rail = self.ledger.palette_now, self.ledger.rail
        low, high = ((v - unit.offset) / unit.factor for v in (rail.low, rail.high))
        step = 10 if high - low < 90 else 20
        painter.setPen(QColor(p.faint))
        for value in range(int(math.ceil(low / step) * step), int(high) + 1, step):
            x = rail.place(value * unit.factor + unit.offset, left, width)
            painter.drawLine(QPointF(x, 0), QPointF(x, 6))
            if all(abs(x - named) > 16 for named in self._named(left, width)):
                painter.drawText(QRectF(x - 24, 4, 48, 15), Qt.AlignmentFlag.AlignCenter, str(value))

    def _named(self, left: float, width: float) -> list[float]:
        """Places of the named marks, whose own figures stand under them."""
        assessment = self.ledger.session.assessment
        return [
            self.ledger.rail.place(v, left, width)
            for v in (assessment.limit, assessment.thermostat, assessment.boiling)
            if v is not None
        ]
