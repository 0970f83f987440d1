"""How each role of a scene is inked on screen: its style's tones out of the palette."""

from __future__ import annotations

from functools import lru_cache
from typing import NamedTuple

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QBrush, QColor, QPen

from keelroom.drawing.roles import ROLES, Style
from keelroom.gui.theme.palette import Palette


class Ink(NamedTuple):
    """Stroke colour, width in pixels, fill ('' none), dashed or not."""

    stroke: str
    width: float = 1.0
    fill: str = ""
    dashed: bool = False

    def pen(self) -> QPen:
        return _pen(self)

    def brush(self) -> QBrush:
        return _brush(self.fill)


@lru_cache(512)
def _pen(ink: Ink) -> QPen:
    pen = QPen(QColor(ink.stroke), ink.width)
    pen.setCosmetic(True)
    if ink.dashed:
        pen.setStyle(Qt.PenStyle.DashLine)
    return pen


@lru_cache(128)
def _brush(fill: str) -> QBrush:
    return QBrush(QColor(fill)) if fill else QBrush(Qt.BrushStyle.NoBrush)


def wire_colours(p: Palette) -> dict[str, str]:
    """Wires by the colour they are bought in, as the theme shows it; each is named beside the wire too."""
    light = p.name == "light"
    return {
        "red": "#c62f22" if light else "#ff7a6b",
        "orange": "#c96a10" if light else "#ffa552",
        "yellow": "#b39200" if light else "#ffe066",
        "brown": "#7a4a21" if light else "#c98f5e",
        "pink": "#c2588f" if light else "#ff9fcc",
        "black": "#1d2429" if light else "#e9ecee",
        "violet": "#6a3d98" if light else "#c9a2f2",
        "blue": "#1f5fa8" if light else "#7db8ff",
        "grey": "#6d767c" if light else "#a6b1b8",
        "green": "#23743f" if light else "#7fd29a",
        "white": "#9aa3a8" if light else "#ffffff",
    }


def inks(p: Palette) -> dict[str, Ink]:
    """Ink by role."""
    tones = p._asdict() | {f"wire_{name}": colour for name, colour in wire_colours(p).items()}
    tones["bar_word"] = p.ink if p.name == "light" else p.tape_ink

    def inked(style: Style) -> Ink:
        return Ink(tones[style.stroke], style.width, tones[style.fill] if style.fill else "", style.dashed)

    return {role: inked(style) for role, style in ROLES.items()}
