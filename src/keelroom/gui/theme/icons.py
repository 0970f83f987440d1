"""The program's own icons: line drawings shipped as SVG, inked in the theme's colour."""

from __future__ import annotations

from functools import cache

from PyQt6.QtCore import QByteArray
from PyQt6.QtGui import QIcon, QPixmap

from keelroom import ASSETS

FOLDER = ASSETS / "icons"
INKED = "#000000"
"""what the drawings are inked in as they are shipped"""
SIZES = (16, 32)


@cache
def icon(name: str, ink: str) -> QIcon:
    """An icon in an ink '#rrggbb', at the sizes screens ask for. name: of its file"""
    drawing = (FOLDER / f"{name}.svg").read_text(encoding="utf-8").replace(INKED, ink)
    made = QIcon()
    for size in SIZES:
        picture = QPixmap()
        picture.loadFromData(QByteArray(drawing.replace('width="16" height="16"', f'width="{size}" height="{size}"').encode()), "SVG")
        made.addPixmap(picture)
    return made
