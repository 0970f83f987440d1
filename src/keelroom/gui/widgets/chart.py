"""A small chart in the shop's own style: lines with their names where they begin, marks, bands, and the same as
text."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QFont, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget

from keelroom.core.arrays import between
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import Palette, palette_of

LEFT, RIGHT, TOP, BOTTOM = 46.0, 12.0, 10.0, 34.0
MARK_WEIGHT = 8
"""Points of a curve that a mark counts as where a word looks for room."""


class Series(NamedTuple):
    """A line: its name (written where it begins), places, and its ink by role ('main', 'other', 'faint')."""

    name: str
    xs: tuple[float, ...]
    ys: tuple[float, ...]
    role: str = "main"


class ChartMark(NamedTuple):
    """A spot with words beside it; role 'now', 'best', 'point' or 'volts'."""

    x: float
    y: float
    text: str
    role: str = "point"


class Stripe(NamedTuple):
    """Part of the x axis worth pointing at, with its word."""

    start: float
    end: float
    text: str


class ChartPicture(NamedTuple):
    """All a chart shows, in shown units."""

    series: tuple[Series, ...] = ()
    marks: tuple[ChartMark, ...] = ()
    stripes: tuple[Stripe, ...] = ()
    level: tuple[float, str] | None = None
    """a horizontal line with its word, such as the limit"""
    across: str = ""
    up: str = ""
    note: str = ""
    """said instead where there is nothing to draw"""


FADED = 0.4
"""Opacity of what another build than the one that stands was worked out for."""


def ticks(low: float, high: float, most: int) -> list[float]:
    """Round numbers between two ends, at most `most` of them."""
    if not high > low:
        return [low]
    raw = (high - low) / max(most, 1)
    size = 10.0 ** math.floor(math.log10(raw))
    step = next(m * size for m in (1, 2, 2.5, 5, 10) if m * size >= raw)
    first = math.ceil(low / step - 1e-9)
    return [round(step * k, 10) for k in range(first, math.floor(high / step + 1e-9) + 1)]


class Chart(QWidget):
    """Paints a Picture."""

    def __init__(self, session: Session, name: str, words: Callable[[float], str] = lambda v: f"{v:g}") -> None:
        super().__init__()
        self.session, self.words = session, words
        self.picture = ChartPicture()
        self.name = name
        self.setMinimumHeight(120)
        self.setMouseTracking(True)
        self.pointer: float | None = None
        """[px] where the pointer is, None off the curves"""
        self.setAccessibleName(name)
        session.display_changed.connect(self.update)

    def show_picture(self, picture: ChartPicture, words: Callable[[float], str] | None = None) -> None:
        self.picture = picture
        self.words = words or self.words
        self.setAccessibleDescription(self.as_text())
        self.update()

    def as_rows(self) -> list[list[str]]:
        """The chart's figures as a table, heading first."""
        p = self.picture
        if p.note:
            return [[p.note]]
        xs = sorted({x for s in p.series for x in s.xs})
        table = [dict(zip(s.xs, s.ys, strict=True)) for s in p.series]
        rows = [[p.across, *(s.name or p.up for s in p.series)]]
        rows += [[f"{x:.6g}", *("" if x not in t else f"{t[x]:.6g}" for t in table)] for x in xs]
        return [*rows, *([m.text, f"{m.x:.6g}", f"{m.y:.6g}"] for m in p.marks)]

    def as_text(self) -> str:
        """The same as tab-separated text."""
        return "\n".join("\t".join(row) for row in self.as_rows())

    # painting

    def _bounds(self) -> tuple[float, float, float, float]:
        p = self.picture
        xs = [x for s in p.series for x in s.xs] + [m.x for m in p.marks]
        ys = [y for s in p.series for y in s.ys if math.isfinite(y)] + [m.y for m in p.marks if math.isfinite(m.y)]
        if p.level is not None and ys and min(ys) - 20 < p.level[0] < max(ys) + 20:
            ys.append(p.level[0])
        if not xs or not ys:
            return 0.0, 1.0, 0.0, 1.0
        pad = 0.08 * (max(ys) - min(ys)) or max(abs(ys[0]) * 0.02, 0.5)
        return min(xs), max(*xs, min(xs) + 1e-9), min(ys) - pad, max(ys) + pad

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        palette = palette_of(self.session.settings.theme)
        painter.setFont(QFont("Open Sans", 9))
        painter.setPen(QColor(palette.faint))
        painter.setOpacity(1.0 if self.isEnabled() else FADED)
        if self.picture.note:
            painter.drawText(
                QRectF(self.rect()).adjusted(8, 4, -8, -4),
                Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap,
                self.picture.note,
            )
            return
        self.low_x, self.high_x, self.low_y, self.high_y = self._bounds()
        self._stripes(painter, palette)
        self._axes(painter, palette)
        for series in self.picture.series:
            self._line(painter, palette, series)
        self._names(painter, palette)
        self._marks(painter, palette)
        self._cursor(painter, palette)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        """The curves' values at the pointer are told beside it."""
        assert event is not None
        self.pointer = event.position().x() if LEFT <= event.position().x() <= self.width() - RIGHT else None
        self.update()

    def leaveEvent(self, event: object) -> None:
        self.pointer = None
        self.update()

    def told_at(self, x: float) -> list[str]:
        """What the chart says at a place along its foot: the place, and every curve there that has a value."""
        lines = [f"{self.words(x)} {self.picture.across.rpartition(', ')[2]}".strip()]
        for series in self.picture.series:
            known = [(a, b) for a, b in zip(series.xs, series.ys, strict=True) if math.isfinite(b)]
            if len(known) > 1 and known[0][0] <= x <= known[-1][0]:
                value = between(x, [a for a, _ in known], [b for _, b in known])
                lines.append(f"{series.name + ': ' if series.name else ''}{value:.3g}")
        return lines

    def _cursor(self, painter: QPainter, palette: Palette) -> None:
        if self.pointer is None or not self.picture.series:
            return
        share = (self.pointer - LEFT) / max(self.width() - LEFT - RIGHT, 1)
        lines = self.told_at(self.low_x + share * (self.high_x - self.low_x))
        painter.setPen(QPen(QColor(palette.faint), 1, Qt.PenStyle.DotLine))
        painter.drawLine(QPointF(self.pointer, TOP), QPointF(self.pointer, self.height() - BOTTOM))
        metrics = painter.fontMetrics()
        wide = max(metrics.horizontalAdvance(line) for line in lines) + 10
        left = self.pointer + 6 if self.pointer + 6 + wide < self.width() else self.pointer - 6 - wide
        box = QRectF(left, TOP + 2, wide, 15 * len(lines) + 4)
        painter.fillRect(box, QColor(palette.raised))
        painter.setPen(QColor(palette.ink))
        painter.drawText(box.adjusted(5, 2, -5, -2), Qt.AlignmentFlag.AlignLeft, "\n".join(lines))

    def _at(self, x: float, y: float) -> QPointF:
        wide, high = self.width() - LEFT - RIGHT, self.height() - TOP - BOTTOM
        across = (x - self.low_x) / (self.high_x - self.low_x)
        up = (y - self.low_y) / (self.high_y - self.low_y)
        return QPointF(LEFT + wide * across, TOP + high * (1 - min(max(up, 0.0), 1.0)))

    def _stripes(self, painter: QPainter, palette: Palette) -> None:
        for stripe in self.picture.stripes:
            left, right = self._at(stripe.start, 0).x(), self._at(stripe.end, 0).x()
            box = QRectF(left, TOP, max(right - left, 2), self.height() - TOP - BOTTOM)
            colour = QColor(palette.band)
            colour.setAlpha(70)
            painter.fillRect(box, colour)
            if box.width() > painter.fontMetrics().horizontalAdvance(stripe.text) + 2:
                box.setBottom(self._floor())
                painter.drawText(box, Qt.AlignmentFlag.AlignHCenter | Qt.AlignmentFlag.AlignBottom, stripe.text)

    def _floor(self) -> float:
        """Where a stripe's word may stand: on the axis, or on the level line where that runs through the word."""
        bottom = float(self.height() - BOTTOM)
        if self.picture.level is None or not self.low_y <= self.picture.level[0] <= self.high_y:
            return bottom
        level = self._at(self.low_x, self.picture.level[0]).y()
        return level - 2 if bottom - level < 18 else bottom

    def _axes(self, painter: QPainter, palette: Palette) -> None:
        bottom = self.height() - BOTTOM
        painter.setPen(QPen(QColor(palette.rule), 1))
        painter.drawLine(QPointF(LEFT, bottom), QPointF(self.width() - RIGHT, bottom))
        for value in ticks(self.low_y, self.high_y, max(int((bottom - TOP) // 26), 2)):
            at = self._at(self.low_x, value)
            painter.setPen(QPen(QColor(palette.rule), 1))
            painter.drawLine(at, QPointF(self.width() - RIGHT, at.y()))
            painter.setPen(QColor(palette.faint))
            painter.drawText(
                QRectF(0, at.y() - 9, LEFT - 6, 18),
                Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                f"{value:g}",
            )
        for value in ticks(self.low_x, self.high_x, max(int((self.width() - LEFT) // 62), 2)):
            at = self._at(value, self.low_y)
            painter.drawLine(QPointF(at.x(), bottom), QPointF(at.x(), bottom + 4))
            painter.drawText(QRectF(at.x() - 34, bottom + 4, 68, 15), Qt.AlignmentFlag.AlignCenter, self.words(value))
        painter.drawText(
            QRectF(LEFT, bottom + 18, self.width() - LEFT - RIGHT, 16), Qt.AlignmentFlag.AlignRight, self.picture.across
        )
        painter.drawText(
            QRectF(LEFT + 4, TOP - 10, self.width() - LEFT, 16), Qt.AlignmentFlag.AlignLeft, self.picture.up
        )
        if self.picture.level is not None:
            value, word = self.picture.level
            if self.low_y <= value <= self.high_y:
                at = self._at(self.low_x, value)
                painter.setPen(QPen(QColor(palette.bad), 1.4))
                painter.drawLine(at, QPointF(self.width() - RIGHT, at.y()))
                # At the right end: stripes with words of their own lie at the left, where curves are steep.
                painter.drawText(
                    QRectF(LEFT, at.y() - 16, self.width() - LEFT - RIGHT - 2, 14), Qt.AlignmentFlag.AlignRight, word
                )

    def _ink(self, palette: Palette, role: str) -> QColor:
        return QColor(
            {"main": palette.accent, "other": palette.doubt, "faint": palette.faint}.get(role, palette.accent)
        )

    def _line(self, painter: QPainter, palette: Palette, series: Series) -> None:
        pen = QPen(self._ink(palette, series.role), 1.4 if series.role == "faint" else 2.2)
        if series.role == "other":
            pen.setStyle(Qt.PenStyle.DashLine)
        painter.setPen(pen)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        run: list[QPointF] = []
        for x, y in zip(series.xs, series.ys, strict=True):
            if math.isfinite(y):
                run.append(self._at(x, y))
                continue
            painter.drawPolyline(QPolygonF(run))
            run = []
            top = self._at(x, self.high_y)
            painter.drawLine(top, QPointF(top.x(), top.y() + 5))
        painter.drawPolyline(QPolygonF(run))

    def _names(self, painter: QPainter, palette: Palette) -> None:
        """Each along its own curve where least else is drawn."""
        drawn = [
            self._at(x, y) for s in self.picture.series for x, y in zip(s.xs, s.ys, strict=True) if math.isfinite(y)
        ]
        drawn += [self._at(mark.x, mark.y) for mark in self.picture.marks if math.isfinite(mark.y)] * MARK_WEIGHT
        taken: list[QRectF] = []
        for series in self.picture.series:
            known = [self._at(x, y) for x, y in zip(series.xs, series.ys, strict=True) if math.isfinite(y)]
            if not series.name or not known or len(self.picture.series) < 2:
                continue
            wide = painter.fontMetrics().horizontalAdvance(series.name) + 4
            boxes = [
                self._word_box(known[k * (len(known) - 1) // 6], wide, side) for k in range(7) for side in (2.0, -16.0)
            ]

            def crowd(box: QRectF, taken: list[QRectF] = taken) -> int:
                return sum(box.contains(point) for point in drawn) + 50 * sum(box.intersects(other) for other in taken)

            box = min(boxes, key=crowd)
            taken.append(box)
            painter.setPen(self._ink(palette, series.role))
            painter.drawText(box, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, series.name)

    def _word_box(self, at: QPointF, wide: float, side: float) -> QRectF:
        """Room for a word beside a place of a curve, within the chart."""
        left = min(max(at.x() + 3, LEFT + 2.0), self.width() - wide - 2.0)
        top = min(max(at.y() + side, float(TOP)), self.height() - BOTTOM - 15.0)
        return QRectF(left, top, wide, 14)

    def _marks(self, painter: QPainter, palette: Palette) -> None:
        used: list[QRectF] = []
        for mark in self.picture.marks:
            at = self._at(mark.x, mark.y if math.isfinite(mark.y) else self.high_y)
            colour = QColor(
                {"now": palette.ink, "best": palette.good, "volts": palette.doubt}.get(mark.role, palette.accent)
            )
            painter.setPen(QPen(colour, 1.4))
            painter.setBrush(colour if mark.role != "volts" else Qt.BrushStyle.NoBrush)
            painter.drawEllipse(at, 4, 4)
            metrics = painter.fontMetrics()
            wide = metrics.horizontalAdvance(mark.text) + 4
            box = QRectF(at.x() + 7, at.y() - 17, wide, 15)
            if box.right() > self.width() - 2:
                box.moveRight(at.x() - 6)
            while any(box.intersects(other) for other in used):
                box.translate(0, 14)
            used.append(box)
            painter.drawText(box, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, mark.text)
