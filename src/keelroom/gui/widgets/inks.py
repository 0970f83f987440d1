"""How each role of a scene is inked on screen, from the palette."""

from __future__ import annotations

from typing import NamedTuple

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor, QPen

from keelroom.gui.theme.palette import Palette


class Ink(NamedTuple):
    """Stroke colour, width in pixels, fill ('' none), dashed or not."""

    stroke: str
    width: float = 1.0
    fill: str = ""
    dashed: bool = False

    def pen(self) -> QPen:
        pen = QPen(QColor(self.stroke), self.width)
        pen.setCosmetic(True)
        if self.dashed:
            pen.setStyle(Qt.PenStyle.DashLine)
        return pen


def wire_colours(p: Palette) -> dict[str, str]:
    """Wires by the colour they are bought in, as the theme shows it; each is named beside the wire too."""
    light = p.name == "light"
    return {
        "red": "#c62f22" if light else "#ff7a6b", "orange": "#c96a10" if light else "#ffa552", "yellow": "#b39200" if light else "#ffe066",
        "brown": "#7a4a21" if light else "#c98f5e", "pink": "#c2588f" if light else "#ff9fcc", "black": "#1d2429" if light else "#e9ecee",
        "violet": "#6a3d98" if light else "#c9a2f2", "blue": "#1f5fa8" if light else "#7db8ff", "grey": "#6d767c" if light else "#a6b1b8",
        "green": "#23743f" if light else "#7fd29a", "white": "#9aa3a8" if light else "#ffffff",
    }  # fmt: skip


def inks(p: Palette) -> dict[str, Ink]:
    """Ink by role."""
    found = _table(p)
    return found | {f"{role}.open": ink._replace(fill="") for role, ink in found.items() if role.startswith("fit.")}


def _table(p: Palette) -> dict[str, Ink]:
    return {
        "core.face": Ink(p.steel, 1.4, p.face),
        "core.tube": Ink(p.tube, 1.0),
        "core.tank": Ink(p.steel, 1.4, p.steel_fill),
        "shroud.edge": Ink(p.ink, 2.4),
        "fan.spill": Ink(p.doubt, 1.4, "", dashed=True),
        "fan.ring": Ink(p.fan, 2.4, p.fan_fill),
        "fan.stopped": Ink(p.bad, 2.0, p.fan_fill, dashed=True),
        "panel.opening": Ink(p.bad, 1.8, "", dashed=True),
        "panel.name": Ink(p.bad, 1.0),
        "cover": Ink(p.doubt, 1.6, ""),
        "cover.name": Ink(p.doubt, 1.0),
        "fan.blade": Ink(p.fan, 1.3),
        "fan.hub": Ink(p.fan, 1.6, p.band),
        "dimension": Ink(p.faint, 1.0),
        "dimension.fan": Ink(p.fan, 1.0),
        "fan.size": Ink(p.ink, 1.0),
        "fit.core": Ink(p.steel, 1.6, p.face),
        "fit.tank": Ink(p.steel, 1.4, p.steel_fill),
        "fit.shroud": Ink(p.ink, 1.6, p.panel),
        "fit.cover": Ink(p.doubt, 1.2, p.raised),
        "fit.ring": Ink(p.fan, 1.8, p.fan_fill),
        "fit.motor": Ink(p.fan, 1.4, p.band),
        "fit.hose": Ink(p.steel, 1.2, ""),
        "fit.static": Ink(p.faint, 1.3, p.rule),
        "fit.turning": Ink(p.doubt, 1.5, p.paper),
        "fit.hood": Ink(p.ink, 3.0),
        "fit.panel": Ink(p.steel, 1.2, p.steel_fill),
        "fit.unknown": Ink(p.doubt, 1.5, "", dashed=True),
        "fit.name": Ink(p.faint, 1.0),
        "view.title": Ink(p.ink, 1.0),
        "gap.overlaps": Ink(p.bad, 3.0),
        "gap.under": Ink(p.bad, 2.2),
        "gap.tight": Ink(p.doubt, 2.0),
        "gap.clear": Ink(p.good, 1.6),
        "pattern.cut": Ink(p.ink, 1.8),
        "pattern.drill": Ink(p.accent, 1.6),
        "pattern.bend": Ink(p.doubt, 1.4, "", dashed=True),
        "pattern.mark": Ink(p.faint, 1.0),
        "pattern.words": Ink(p.ink, 1.0),
        "tape": Ink(p.bad, 2.4),
        "picture.words": Ink(p.faint, 1.0),
        "picture.hole": Ink(p.steel, 1.2, p.paper),
        "picture.block": Ink(p.steel, 1.2, p.steel_fill),
        "picture.plane": Ink(p.accent, 1.2, "", dashed=True),
        "picture.datum": Ink(p.accent, 2.0),
        "el.part": Ink(p.steel, 1.6, p.raised),
        "el.bad": Ink(p.bad, 2.4, p.raised),
        "el.mark": Ink(p.steel, 1.4),
        "el.sleeve": Ink(p.faint, 1.0, p.raised),
        "el.coil": Ink(p.steel, 1.2, p.steel_fill),
        "el.node": Ink(p.ink, 1.0, p.ink),
        "el.fan": Ink(p.fan, 2.2, p.fan_fill),
        "el.blade": Ink(p.fan, 1.0, p.band),
        "el.rule": Ink(p.rule, 1.0),
        "el.words": Ink(p.faint, 1.0),
        "el.flag": Ink(p.ink, 1.0),
        "el.value": Ink(p.ink, 1.0),
        "el.head": Ink(p.accent, 1.0),
        "el.alarm": Ink(p.bad, 1.0),
        "bar.load": Ink(p.doubt, 1.0, p.tape),
        "bar.fan": Ink(p.fan, 1.0, p.band),
        "bar.rest": Ink(p.steel, 1.0, p.steel_fill),
        "bar.word": Ink(p.ink if p.name == "light" else p.tape_ink, 1.0),
        "bar.label": Ink(p.ink, 1.0),
        "bar.given": Ink(p.good, 3.0),
        "bar.short": Ink(p.bad, 2.2),
        "rail": Ink(p.rule, 1.2),
        "rail.limit": Ink(p.bad, 1.6),
        "rail.thermostat": Ink(p.accent, 1.6, "", dashed=True),
        "span.cool": Ink(p.steel, 1.2, p.steel_fill),
        "span.mild": Ink(p.fan, 1.2, p.band),
        "span.hot": Ink(p.doubt, 1.2, p.tape),
        "span.held": Ink(p.ink, 1.6, p.ink),
        **{f"wire.{name}": Ink(colour, 3.0) for name, colour in wire_colours(p).items()},
        "ghost": Ink(p.faint, 1.2, "", dashed=True),
    }
