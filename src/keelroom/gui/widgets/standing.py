"""What stands still while something is dragged is painted once: a picture of each run of shapes that are the very ones
they were at the last move."""

from __future__ import annotations

from itertools import groupby

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPixmap, QTransform

from keelroom.drawing.scene import Scene, Shape
from keelroom.gui.widgets.inks import Ink
from keelroom.gui.widgets.scene_paint import ScenePainter

WORTH_A_PICTURE = 6
"""Shapes in a run from which on a picture of it is quicker than they are."""


class Standing:
    """The pictures of one view; it is thrown away when the hand rests, for then everything is painted anew and
    smooth."""

    def __init__(self) -> None:
        self.last: dict[int, Shape] = {}
        self.at: tuple[QTransform, QRectF] | None = None
        self.pictures: dict[tuple[int, ...], tuple[list[Shape], QPixmap]] = {}

    def paint(self, painter: QPainter, brush: ScenePainter, scene: Scene, table: dict[str, Ink], room: QRectF) -> None:
        """The scene, what stands still from its pictures. room: what of the widget the view takes, in pixels"""
        if self.at != (brush.view, room):
            self.at, self.pictures = (brush.view, QRectF(room)), {}
        last, kept = self.last, {}
        self.last = {id(shape): shape for shape in scene.shapes}
        for stands, group in groupby(scene.shapes, lambda shape: id(shape) in last):
            run = list(group)
            if not stands or len(run) < WORTH_A_PICTURE:
                brush.shapes(painter, run, table)
                continue
            key = tuple(map(id, run))
            # The shapes are held with their picture, so that no other can take their place.
            found = self.pictures.get(key) or (run, _picture(painter, brush, run, table, room))
            kept[key] = found
            painter.drawPixmap(QPointF(room.topLeft()), found[1])
        self.pictures = kept


def _picture(painter: QPainter, brush: ScenePainter, run: list[Shape], table: dict[str, Ink], room: QRectF) -> QPixmap:
    device = painter.device()
    ratio = device.devicePixelRatioF() if device is not None else 1.0
    made = QPixmap((room.size() * ratio).toSize())
    made.setDevicePixelRatio(ratio)
    made.fill(Qt.GlobalColor.transparent)
    own = QPainter(made)
    own.setRenderHints(painter.renderHints())
    own.setFont(painter.font())
    own.translate(-room.topLeft())
    brush.shapes(own, run, table)
    own.end()
    return made
