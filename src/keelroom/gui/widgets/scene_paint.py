"""Paints the shapes of a scene; every view of a drawing goes through it."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QFont, QPainter, QPixmap, QPolygonF, QTransform
from PyQt6.QtWidgets import QWidget

from keelroom.drawing.placing import Size, apart
from keelroom.drawing.roles import BARE
from keelroom.drawing.scene import Circle, Dimension, Label, Polyline, Rect, Scene, Shape, reach_up
from keelroom.gui.theme.palette import Palette
from keelroom.gui.widgets.inks import Ink


def body_font(points: int) -> QFont:
    return QFont("Open Sans", points)


def fitted(bounds: tuple[float, float, float, float], room: QRectF) -> QTransform:
    """The view that fits a scene's bounds into a rectangle of the widget, y up."""
    left, bottom, wide, high = bounds
    scale = max(min(room.width() / max(wide, 1e-6), room.height() / max(high, 1e-6)), 1.0)
    x = room.center().x() - scale * (left + wide / 2)
    y = room.center().y() + scale * (bottom + high / 2)
    return QTransform(scale, 0, 0, -scale, x, y)


def drawn(widget: QWidget, palette: Palette, render: Callable[[QPainter], object], smooth: bool = True) -> QPixmap:
    """What `render` paints, as a picture as large and as fine as the widget: repainted only when something changed."""
    ratio = widget.devicePixelRatioF()
    pixmap = QPixmap(widget.size() * ratio)
    pixmap.setDevicePixelRatio(ratio)
    pixmap.fill(QColor(palette.paper))
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing, smooth)
    render(painter)
    painter.end()
    return pixmap


def _meets(shape: Shape, low: float, high: float) -> bool:
    """Whether something of it lies between two heights."""
    if low == -math.inf:
        return True
    bottom, top = reach_up(shape)
    return top >= low and bottom <= high


LINE_TAKEN = 0.8
"""Share of a line that its letters take: lines may stand as close."""
MOST_PLACED = 250
"""Labels of a scene that are set apart at every painting."""
WORDS = 40.0
"""[px] that words may stand over or under their place"""


class ScenePainter:
    """One view of one scene in one palette."""

    def __init__(self, palette: Palette, view: QTransform) -> None:
        self.palette_now, self.view = palette, view

    def scene(
        self, painter: QPainter, scene: Scene, table: dict[str, Ink], pixels: tuple[float, float] | None = None
    ) -> None:
        """Every shape; of a long sheet only what lies between two heights [pixels] and a line of words beyond."""
        scene = self.set_apart(painter, scene)
        low, high = -math.inf, math.inf
        if pixels is not None:
            scale, shift = self.view.m22(), self.view.dy()
            ends = [(y - shift) / scale for y in (pixels[0] - WORDS, pixels[1] + WORDS)]
            low, high = min(ends), max(ends)
        self.shapes(painter, (shape for shape in scene.shapes if _meets(shape, low, high)), table)

    def set_apart(self, painter: QPainter, scene: Scene) -> Scene:
        """The scene with no words on each other at this size; one with more of them than can be looked at as it is."""
        metrics, scale = painter.fontMetrics(), self.view.m11()
        if scale <= 0 or sum(isinstance(shape, Label) for shape in scene.shapes) > MOST_PLACED:
            return scene

        def wide(text: str) -> float:
            return (metrics.horizontalAdvance(text) + 8) / scale

        return apart(scene, Size(wide, LINE_TAKEN * metrics.height() / scale))

    def shapes(self, painter: QPainter, shapes: Iterable[Shape], table: dict[str, Ink]) -> None:
        """Some of its shapes, one over another."""
        plain = Ink(self.palette_now.faint)
        for shape in shapes:
            self.paint(painter, shape, table.get(shape.role, plain))

    def paint(self, painter: QPainter, shape: Shape, ink: Ink) -> None:
        painter.setPen(ink.pen())
        painter.setBrush(ink.brush())
        if isinstance(shape, Rect):
            corner = self.view.map(QPointF(shape.left, shape.bottom + shape.height))
            scale = self.view.m11()
            radius = shape.radius * scale
            painter.drawRoundedRect(
                QRectF(corner.x(), corner.y(), shape.width * scale, shape.height * scale), radius, radius
            )
        elif isinstance(shape, Circle):
            radius = shape.radius * self.view.m11()
            painter.drawEllipse(self.view.map(QPointF(*shape.centre)), radius, radius)
        elif isinstance(shape, Polyline):
            points = self.view.map(QPolygonF([QPointF(x, y) for x, y in shape.points]))
            (painter.drawPolygon if shape.closed else painter.drawPolyline)(points)
        elif isinstance(shape, Label):
            self.text(
                painter, self.view.map(QPointF(*shape.at)), shape.text, ink, 0.0, shape.align, shape.role not in BARE
            )
        elif isinstance(shape, Dimension):
            self.dimension(painter, shape, ink)

    def text(
        self,
        painter: QPainter,
        at: QPointF,
        text: str,
        ink: Ink,
        angle: float,
        align: str = "middle",
        background: bool = True,
    ) -> None:
        painter.save()
        painter.translate(at)
        painter.rotate(angle)
        metrics = painter.fontMetrics()
        width, height = metrics.horizontalAdvance(text) + 8, metrics.height()
        box = QRectF({"middle": -width / 2, "start": -4, "end": 4 - width}[align], -height / 2, width, height)
        paper = QColor(self.palette_now.paper)
        paper.setAlpha(225)
        if background:
            painter.fillRect(box, paper)
        painter.setPen(QColor(ink.stroke))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, text)
        painter.restore()

    def dimension(self, painter: QPainter, shape: Dimension, ink: Ink) -> None:
        a, b = (self.view.map(QPointF(*point)) for point in shape.line)
        painter.drawLine(self.view.map(QPointF(*shape.start)), a)
        painter.drawLine(self.view.map(QPointF(*shape.end)), b)
        painter.drawLine(a, b)
        way = math.atan2(b.y() - a.y(), b.x() - a.x())
        for end, sign in ((a, 1), (b, -1)):
            for turn in (0.35, -0.35):
                painter.drawLine(end, end + QPointF(8 * sign * math.cos(way + turn), 8 * sign * math.sin(way + turn)))
        upright = math.degrees(way)
        upright = upright - 180 if upright > 90 else upright + 180 if upright < -90 else upright
        self.text(painter, (a + b) / 2, shape.text, ink, upright)
