"""The program's own icons: line drawings shipped as SVG, inked in the theme's colour."""

from __future__ import annotations

from functools import cache

from PyQt6.QtCore import QByteArray, QPointF, QRect
from PyQt6.QtGui import QIcon, QPainter, QPixmap

from keelroom import ASSETS

FOLDER = ASSETS / "icons"
INKED = "#000000"
"""what the drawings are inked in as they are shipped"""
SIZE = 16
SIZES = (SIZE, 2 * SIZE, 3 * SIZE)


@cache
def icon(name: str, ink: str) -> QIcon:
    """An icon in an ink '#rrggbb', at the sizes screens ask for. name: of its file"""
    drawing = (FOLDER / f"{name}.svg").read_text(encoding="utf-8").replace(INKED, ink)
    made = QIcon()
    for size in SIZES:
        picture = QPixmap()
        picture.loadFromData(
            QByteArray(drawing.replace('width="16" height="16"', f'width="{size}" height="{size}"').encode()), "SVG"
        )
        made.addPixmap(picture)
    return made


def paint_icon(painter: QPainter, name: str, ink: str, at: QPointF) -> None:
    """An icon in an ink '#rrggbb' about a place of a painted widget."""
    icon(name, ink).paint(painter, QRect(round(at.x() - SIZE / 2), round(at.y() - SIZE / 2), SIZE, SIZE))
