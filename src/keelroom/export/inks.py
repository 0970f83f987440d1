"""Ink of each role on paper: fill (None: none), stroke, and line weight in points."""

from __future__ import annotations

INKS: dict[str, tuple[str | None, str, float]] = {
    "core.face": ("#eef2f3", "#41525c", 0.8), "core.tube": (None, "#c6d0d4", 0.3), "core.tank": ("#d9dfe2", "#41525c", 0.8),
    "panel.opening": (None, "#a8201a", 0.8), "cover": (None, "#8a5a00", 0.7),
    "shroud.edge": (None, "#1d2429", 1.4), "fan.spill": (None, "#a3672b", 0.5), "fan.ring": ("#ffffff", "#0d6470", 1.2),
    "fan.stopped": ("#ffffff", "#a8201a", 1.2), "fan.blade": (None, "#0d6470", 0.7), "fan.hub": ("#cfe1e3", "#0d6470", 0.8),
    "fit.core": ("#eef2f3", "#41525c", 0.9), "fit.tank": ("#d9dfe2", "#41525c", 0.8), "fit.shroud": ("#f6f7f8", "#1d2429", 1.0),
    "fit.cover": ("#f4ead6", "#8a5a00", 0.7), "fit.ring": ("#e3eff0", "#0d6470", 1.0), "fit.motor": ("#cfe1e3", "#0d6470", 0.9),
    "fit.hose": (None, "#41525c", 0.7), "fit.static": ("#e8e4df", "#5d544a", 0.8), "fit.turning": ("#efe6f2", "#6a3d78", 0.9),
    "fit.hood": (None, "#1d2429", 1.6), "fit.panel": ("#dfe3e5", "#41525c", 0.8), "fit.unknown": (None, "#8a5a00", 0.8),
    "gap.overlaps": (None, "#a8201a", 1.6), "gap.under": (None, "#a8201a", 1.3), "gap.tight": (None, "#8a5a00", 1.1), "gap.clear": (None, "#0d6470", 0.9),
    "pattern.cut": (None, "#1d2429", 0.9), "pattern.drill": (None, "#0d6470", 0.9), "pattern.bend": (None, "#8a5a00", 0.9),
    "pattern.mark": (None, "#5b666e", 0.5), "tape": (None, "#a8201a", 1.2), "picture.hole": ("#ffffff", "#41525c", 0.8),
    "picture.block": ("#d9dfe2", "#41525c", 0.8), "picture.plane": (None, "#0d6470", 0.8), "picture.datum": (None, "#0d6470", 0.9),
    "el.part": ("#ffffff", "#41525c", 0.9), "el.bad": ("#ffffff", "#a8201a", 1.5), "el.mark": (None, "#41525c", 0.8), "el.sleeve": ("#ffffff", "#5b666e", 0.5), "el.coil": ("#d9dfe2", "#41525c", 0.7),
    "el.node": ("#1d2429", "#1d2429", 0.6), "el.fan": ("#ffffff", "#0d6470", 1.2), "el.blade": ("#cfe1e3", "#0d6470", 0.6), "el.rule": (None, "#b9c0c4", 0.5),
    "bar.load": ("#f4ead6", "#8a5a00", 0.7), "bar.fan": ("#cfe1e3", "#0d6470", 0.7), "bar.rest": ("#d9dfe2", "#41525c", 0.7), "bar.given": (None, "#1f6b3a", 1.8),
    "bar.short": (None, "#a8201a", 1.4), "rail": (None, "#b9c0c4", 0.7), "rail.limit": (None, "#a8201a", 0.9), "rail.thermostat": (None, "#0d6470", 0.9),
    "span.cool": ("#d9dfe2", "#41525c", 0.7), "span.mild": ("#cfe1e3", "#0d6470", 0.7), "span.hot": ("#f4ead6", "#8a5a00", 0.7), "span.held": ("#1d2429", "#1d2429", 0.8),
}  # fmt: skip
INKS |= {f"wire.{name}": (None, colour, 1.8) for name, colour in {
    "red": "#c62f22", "orange": "#c96a10", "yellow": "#b39200", "brown": "#7a4a21", "pink": "#c2588f", "black": "#1d2429", "violet": "#6a3d98",
    "blue": "#1f5fa8", "grey": "#6d767c", "green": "#23743f", "white": "#9aa3a8"}.items()}  # fmt: skip
INKS |= {f"{role}.open": (None, stroke, weight) for role, (_, stroke, weight) in INKS.items() if role.startswith("fit.")}
DASHED = ("pattern.bend", "fit.unknown", "picture.plane", "rail.thermostat")
"""drawn broken, so that colour is not the only cue"""
CENTRED = ("el.", "bar.")
"""roles whose words stand with their middle, not their foot, at their place"""
PLAIN: tuple[str | None, str, float] = (None, "#41525c", 0.5)
TEXT = "#1d2429"
POINT_MM = 25.4 / 72
"""[mm] one point of line weight or type."""
