"""The airflow map laid over the elevation: tiles of one hue with printed values, a legend, and where each fan's air
comes from."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QBrush, QColor, QPainter, QPen, QTransform

from keelroom.assess.drives.face import AirMap, Quantity
from keelroom.core.arrays import Floats
from keelroom.document.schema.package import Package
from keelroom.gui.theme.palette import Palette
from keelroom.units import KINDS

TITLES = {"speed": "Air speed into the face", "air": "Air behind the core", "heat": "Heat per area"}
FADED = 0.4
GAP = 1.0
SMALL = 12.0
"""[px] of a tile under which tiles lie without gaps and bear no figures"""


class Overlay(NamedTuple):
    """What is laid over the face: values in shown units (16, 24), nan hidden; their unit; what each fan's air is made
    of."""

    what: Quantity
    values: Floats
    unit: str
    difference: bool
    fans: tuple[tuple[str, ...], ...]
    caption: str


def overlay_of(shown: AirMap, what: Quantity, system: str, held: AirMap | None = None) -> Overlay:
    """The overlay of one map, or of what changed since the held one."""
    unit_kind = {"speed": "air speed", "air": "temperature difference" if held else "temperature"}.get(what)
    values = shown.of(what) - (held.of(what) if held is not None else 0.0)
    if unit_kind is None:
        values, symbol = values / 1e3, "kW/m²"
    else:
        unit = KINDS[unit_kind].shown_unit(system)
        values, symbol = (values - unit.offset) / unit.factor, unit.symbol
    fans = tuple(_origin_lines(origin.core, origin.edge, origin.hole) for origin in shown.origins)
    change = ", change from hold" if held is not None else ""
    return Overlay(what, values, symbol, held is not None, fans, f"{TITLES[what]}{change}, {symbol}")


def _origin_lines(core: float, edge: float, hole: float) -> tuple[str, ...]:
    lines = [f"{core:.0%} core"]
    if edge >= 0.005:
        lines.append(f"{edge:.0%} edge")
    if hole >= 0.005:
        lines.append(f"{hole:.0%} stopped fan")
    return tuple(lines)


def scale_of(overlay: Overlay) -> tuple[float, float]:
    """Ends of the colour scale."""
    known = overlay.values[np.isfinite(overlay.values)]
    if not len(known):
        return 0.0, 1.0
    low, high = float(known.min()), float(known.max())
    if overlay.what != "air" or overlay.difference:
        low = min(low, 0.0)
    # A face that is even must look even: noise is not stretched over the whole scale.
    least = 0.2 * max(abs(high), abs(low), 0.5)
    return (low, max(high, low + least))


def _spaced(count: int, every: int) -> range:
    """Tiles of a row of so many that are given a printed value: every so many, as far from both ends."""
    shown = max((count - every) // every + 1, 1)
    first = (count - 1 - (shown - 1) * every) // 2
    return range(first, first + shown * every, every)


class OverlayPainter:
    """Paints an overlay through the drawing's view; knows the value under a place."""

    def __init__(self, overlay: Overlay, package: Package, palette: Palette) -> None:
        self.overlay, self.package, self.palette = overlay, package, palette
        core = package.core
        self.width = core.face_width.si if core.face_width else 1.0
        self.height = core.face_height.si if core.face_height else 1.0
        self.low, self.high = scale_of(overlay)
        self.dark = palette.name == "dark"

    def colour(self, value: float) -> QColor:
        """From paper to the accent: more is deeper."""
        share = min(max((value - self.low) / (self.high - self.low), 0.0), 1.0)
        start, end = QColor(self.palette.panel), QColor(self.palette.accent)
        mixed = [
            a + (b - a) * (0.06 + 0.88 * share) for a, b in zip(start.getRgbF()[:3], end.getRgbF()[:3], strict=True)
        ]
        return QColor.fromRgbF(*mixed)

    def ink(self, value: float) -> QColor:
        """Letters that stand out from the tile."""
        tile = self.colour(value)
        bright = 0.299 * tile.redF() + 0.587 * tile.greenF() + 0.114 * tile.blueF()
        return QColor("#10181b" if bright > 0.45 else "#ffffff")

    def tile(self, row: int, column: int, view: QTransform) -> QRectF:
        rows, columns = self.overlay.values.shape
        left, right = column / columns * self.width, (column + 1) / columns * self.width
        top, bottom = (1 - row / rows) * self.height, (1 - (row + 1) / rows) * self.height
        return QRectF(view.map(QPointF(left, top)), view.map(QPointF(right, bottom)))

    def paint(self, painter: QPainter, view: QTransform, *, tells: bool = True) -> None:
        """The tiles; faded and without figures where it does not tell of the build as it stands."""
        rows, columns = self.overlay.values.shape
        painter.save()
        painter.setOpacity(1.0 if tells else FADED)
        painter.setPen(Qt.PenStyle.NoPen)
        hidden = QBrush(QColor(self.palette.steel), Qt.BrushStyle.BDiagPattern)
        backwards = QPen(QColor(self.palette.bad), 1.4)
        small = self.tile(0, 0, view).width() < SMALL
        gap = 0.0 if small else GAP / 2
        for row in range(rows):
            for column in range(columns):
                value = float(self.overlay.values[row, column])
                box = self.tile(row, column, view).adjusted(gap, gap, -gap, -gap)
                painter.setBrush(hidden if math.isnan(value) else self.colour(value))
                painter.drawRect(box)
                if (
                    not math.isnan(value)
                    and value < -1e-6
                    and self.overlay.what == "speed"
                    and not self.overlay.difference
                ):
                    painter.setPen(backwards)
                    painter.drawLine(box.topLeft(), box.bottomRight())
                    painter.setPen(Qt.PenStyle.NoPen)
        if tells and not small:
            self._values(painter, view)
        painter.restore()

    def _values(self, painter: QPainter, view: QTransform) -> None:
        """Printed values on every few tiles, as many as there is room for."""
        rows, columns = self.overlay.values.shape
        box = self.tile(0, 0, view)
        wide = painter.fontMetrics().horizontalAdvance("88.8") + 8
        named = [words for words, _ in self._fan_boxes(painter, view)]
        across, down = max(math.ceil(wide / max(box.width(), 1)), 1), max(math.ceil(26 / max(box.height(), 1)), 1)
        for row in _spaced(rows, down):
            for column in _spaced(columns, across):
                value = float(self.overlay.values[row, column])
                if math.isnan(value):
                    continue
                place = self.tile(row, column, view).center()
                box = QRectF(place.x() - 24, place.y() - 8, 48, 16)
                if any(box.adjusted(12, 0, -12, 0).intersects(words) for words in named):
                    continue
                painter.setPen(self.ink(value))
                painter.drawText(box, Qt.AlignmentFlag.AlignCenter, self.text(value))

    def text(self, value: float) -> str:
        big = abs(self.high) >= 100
        shown = f"{value:.0f}" if big else f"{value:.1f}"
        return shown.replace("-", "−")

    def under(self, place: QPointF) -> str:
        """The value at a place of the face [m], in words; '' off the face."""
        rows, columns = self.overlay.values.shape
        column, row = int(place.x() / self.width * columns // 1), int((1 - place.y() / self.height) * rows // 1)
        if not (0 <= row < rows and 0 <= column < columns):
            return ""
        value = float(self.overlay.values[row, column])
        if math.isnan(value):
            return "behind the panel: no air"
        backwards = (
            "; it runs backwards" if self.overlay.what == "speed" and value < 0 and not self.overlay.difference else ""
        )
        return f"{self.text(value)} {self.overlay.unit}{backwards}"

    def legend(self, painter: QPainter, area: QRectF) -> None:
        """Caption and scale along the foot of the drawing."""
        painter.save()
        painter.setPen(QColor(self.palette.ink))
        painter.drawText(
            area.adjusted(0, 0, -190, 0),
            Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter,
            self.overlay.caption,
        )
        steps = 6
        wide = 180 / steps
        for k in range(steps):
            value = self.low + (self.high - self.low) * k / (steps - 1)
            box = QRectF(area.right() - 180 + k * wide, area.top() + 1, wide - 1, area.height() - 2)
            painter.fillRect(box, self.colour(value))
            painter.setPen(self.ink(value))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, self.text(value))
        painter.restore()

    def fan_words(self, painter: QPainter, view: QTransform) -> None:
        """What each fan's air is made of, at its hub."""
        for box, lines in self._fan_boxes(painter, view):
            paper = QColor(self.palette.paper)
            paper.setAlpha(228)
            painter.fillRect(box, paper)
            painter.setPen(QColor(self.palette.ink))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, "\n".join(lines))

    def _fan_boxes(self, painter: QPainter, view: QTransform) -> list[tuple[QRectF, tuple[str, ...]]]:
        metrics, boxes = painter.fontMetrics(), []
        for fan, origin in zip(self.package.fans, self.overlay.fans, strict=False):
            lines = origin if fan.runs else ("stopped:", "a hole")
            at = view.map(QPointF(fan.x.si, fan.y.si))
            wide = max(metrics.horizontalAdvance(line) for line in lines) + 10
            high = metrics.height() * len(lines) + 4
            boxes.append((QRectF(at.x() - wide / 2, at.y() - high / 2, wide, high), lines))
        return boxes
