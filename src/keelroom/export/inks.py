"""Ink of each role on paper: its style's tones as they print, and line weight in points."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.drawing.roles import PLAIN, ROLES, WIRES, Style


class PaperInk(NamedTuple):
    """Fill (None: none), stroke, weight [pt], broken or not."""

    fill: str | None
    stroke: str
    weight: float
    dashed: bool


TONES = {
    "ink": "#1d2429",
    "faint": "#5b666e",
    "rule": "#b9c0c4",
    "accent": "#0d6470",
    "good": "#1f6b3a",
    "doubt": "#8a5a00",
    "bad": "#a8201a",
    "face": "#eef2f3",
    "tube": "#c6d0d4",
    "steel": "#41525c",
    "steel_fill": "#d9dfe2",
    "fan": "#0d6470",
    "fan_fill": "#ffffff",
    "band": "#cfe1e3",
    "paper": "#ffffff",
    "panel": "#f6f7f8",
    "raised": "#ffffff",
    "tape": "#f4ead6",
    "bar_word": "#1d2429",
}
TONES |= {
    f"wire_{name}": colour
    for name, colour in zip(
        WIRES,
        (
            "#c62f22",
            "#c96a10",
            "#b39200",
            "#7a4a21",
            "#c2588f",
            "#1d2429",
            "#6a3d98",
            "#1f5fa8",
            "#6d767c",
            "#23743f",
            "#9aa3a8",
        ),
        strict=True,
    )
}
POINTS = 0.6
"""[pt] on paper for a pixel on screen."""
TEXT = TONES["ink"]
POINT_MM = 25.4 / 72
"""[mm] one point of line weight or type."""


def _printed(style: Style) -> PaperInk:
    return PaperInk(
        TONES[style.fill] if style.fill else None, TONES[style.stroke], round(POINTS * style.width, 2), style.dashed
    )


INKS = {role: _printed(style) for role, style in ROLES.items()}


def ink_of(role: str) -> PaperInk:
    """How a role prints; a plain line where it has no row."""
    return INKS.get(role) or _printed(PLAIN)
