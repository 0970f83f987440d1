"""Ink of each role on paper: fill (None: none), stroke, and line weight in points."""

from __future__ import annotations

INKS: dict[str, tuple[str | None, str, float]] = {
    "core.face": ("#eef2f3", "#41525c", 0.8), "core.tube": (None, "#c6d0d4", 0.3), "core.tank": ("#d9dfe2", "#41525c", 0.8),
    "panel.opening": (None, "#a8201a", 0.8), "cover": (None, "#8a5a00", 0.7),
    "shroud.edge": (None, "#1d2429", 1.4), "fan.spill": (None, "#a3672b", 0.5), "fan.ring": ("#ffffff", "#0d6470", 1.2),
    "fan.stopped": ("#ffffff", "#a8201a", 1.2), "fan.blade": (None, "#0d6470", 0.7), "fan.hub": ("#cfe1e3", "#0d6470", 0.8),
}  # fmt: skip
PLAIN: tuple[str | None, str, float] = (None, "#41525c", 0.5)
TEXT = "#1d2429"
POINT_MM = 25.4 / 72
"""[mm] one point of line weight or type."""
