"""How each role of a scene is drawn: tones by name, line width, whether broken. The one table all back ends resolve
from."""

from __future__ import annotations

from typing import NamedTuple


class Style(NamedTuple):
    """Stroke and fill as names of tones ('' no fill), line width [px on screen], dashed: drawn broken, so that colour
    is not the only cue."""

    stroke: str
    width: float = 1.0
    fill: str = ""
    dashed: bool = False


ROLES: dict[str, Style] = {
    "core.face": Style("steel", 1.4, "face"),
    "core.tube": Style("tube", 1.0),
    "core.tank": Style("steel", 1.4, "steel_fill"),
    "shroud.edge": Style("ink", 2.4),
    "fan.spill": Style("doubt", 1.4, "", True),
    "fan.ring": Style("fan", 2.4, "fan_fill"),
    "fan.stopped": Style("bad", 2.0, "fan_fill", True),
    "panel.opening": Style("bad", 1.8, "", True),
    "panel.name": Style("bad", 1.0),
    "cover": Style("doubt", 1.6),
    "cover.name": Style("doubt", 1.0),
    "fan.blade": Style("fan", 1.3),
    "fan.hub": Style("fan", 1.6, "band"),
    "dimension": Style("faint", 1.0),
    "dimension.fan": Style("fan", 1.0),
    "fan.size": Style("ink", 1.0),
    "fit.core": Style("steel", 1.6, "face"),
    "fit.tank": Style("steel", 1.4, "steel_fill"),
    "fit.shroud": Style("ink", 1.6, "panel"),
    "fit.cover": Style("doubt", 1.2, "raised"),
    "fit.ring": Style("fan", 1.8, "fan_fill"),
    "fit.motor": Style("fan", 1.4, "band"),
    "fit.hose": Style("steel", 1.2),
    "fit.static": Style("faint", 1.3, "rule"),
    "fit.moved": Style("accent", 1.5, "rule"),
    "fit.was": Style("faint", 1.2, "", True),
    "fit.seal": Style("good", 2.2),
    "fit.seal.off": Style("faint", 1.4, "", True),
    "fit.bracket": Style("accent", 2.4),
    "fit.bolt": Style("accent", 1.4, "paper"),
    "fit.turning": Style("doubt", 1.5, "paper"),
    "fit.hood": Style("ink", 3.0),
    "fit.panel": Style("steel", 1.2, "steel_fill"),
    "fit.unknown": Style("doubt", 1.5, "", True),
    "fit.name": Style("faint", 1.0),
    "leader": Style("faint", 0.8),
    "view.title": Style("ink", 1.0),
    "gap.overlaps": Style("bad", 3.0),
    "gap.under": Style("bad", 2.2),
    "gap.tight": Style("doubt", 2.0),
    "gap.clear": Style("good", 1.6),
    "pattern.cut": Style("ink", 1.8),
    "pattern.drill": Style("accent", 1.6),
    "pattern.bend": Style("doubt", 1.4, "", True),
    "pattern.mark": Style("faint", 1.0),
    "pattern.words": Style("ink", 1.0),
    "tape": Style("bad", 2.4),
    "picture.words": Style("faint", 1.0),
    "picture.hole": Style("steel", 1.2, "paper"),
    "picture.block": Style("steel", 1.2, "steel_fill"),
    "picture.plane": Style("accent", 1.2, "", True),
    "picture.datum": Style("accent", 2.0),
    "el.part": Style("steel", 1.6, "raised"),
    "el.bad": Style("bad", 2.4, "raised"),
    "el.mark": Style("steel", 1.4),
    "el.sleeve": Style("faint", 1.0, "raised"),
    "el.coil": Style("steel", 1.2, "steel_fill"),
    "el.node": Style("ink", 1.0, "ink"),
    "el.fan": Style("fan", 2.2, "fan_fill"),
    "el.blade": Style("fan", 1.0, "band"),
    "el.rule": Style("rule", 1.0),
    "el.words": Style("faint", 1.0),
    "el.flag": Style("ink", 1.0),
    "el.value": Style("ink", 1.0),
    "el.head": Style("accent", 1.0),
    "el.alarm": Style("bad", 1.0),
    "bar.load": Style("doubt", 1.0, "tape"),
    "bar.fan": Style("fan", 1.0, "band"),
    "bar.rest": Style("steel", 1.0, "steel_fill"),
    "bar.word": Style("bar_word", 1.0),
    "bar.label": Style("ink", 1.0),
    "bar.given": Style("good", 3.0),
    "bar.short": Style("bad", 2.2),
    "rail": Style("rule", 1.2),
    "rail.limit": Style("bad", 1.6),
    "rail.name": Style("ink", 1.0),
    "rail.thermostat": Style("accent", 1.6, "", True),
    "span.cool": Style("steel", 1.2, "steel_fill"),
    "span.mild": Style("fan", 1.2, "band"),
    "span.hot": Style("doubt", 1.2, "tape"),
    "span.held": Style("ink", 1.6, "ink"),
    "loop.engine": Style("steel", 1.6, "steel_fill"),
    "loop.part": Style("steel", 1.5, "raised"),
    "loop.pump": Style("fan", 2.0, "fan_fill"),
    "loop.unknown": Style("doubt", 1.5, "paper", True),
    "loop.gate": Style("ink", 1.6, "ink"),
    "loop.cap": Style("ink", 1.2, "ink"),
    "loop.plain": Style("ink", 1.2, "paper"),
    "loop.rule": Style("rule", 0.8),
    "loop.words": Style("faint", 1.0),
    "loop.name": Style("ink", 1.0),
    "loop.good": Style("good", 1.4, "paper"),
    "loop.doubt": Style("doubt", 1.6, "tape"),
    "loop.alarm": Style("bad", 1.6, "bad"),
    "loop.still": Style("faint", 1.4, "", True),
    "strip.field": Style("rule", 0.8),
    "strip.rule": Style("rule", 0.7),
    "strip.off": Style("rule", 0.4, "steel_fill"),
    "strip.band": Style("rule", 0.4, "band"),
    "strip.main": Style("ink", 1.8),
    "strip.cool": Style("fan", 1.5),
    "strip.gauge": Style("accent", 1.4, "", True),
    "strip.oil": Style("doubt", 1.6),
    "strip.fan": Style("fan", 1.2),
    "strip.cursor": Style("accent", 1.4),
    "ghost": Style("faint", 1.2, "", True),
    "pattern.alarm": Style("bad", 1.0),
}
WIRES = ("red", "orange", "yellow", "brown", "pink", "black", "violet", "blue", "grey", "green", "white")
"""colours wire is bought in: tones of their own, each named beside its wire too"""
ROLES |= {f"wire.{name}": Style(f"wire_{name}", 3.0) for name in WIRES}
FLOW_TONES = {"hot": "bad", "warm": "doubt", "cool": "fan", "plain": "steel"}
"""of coolant, between the hottest and the coldest of its circuit; its degrees stand beside it"""
ROLES |= {
    f"loop.{name}.{step}": Style(tone, 1.6 + 1.5 * step) for name, tone in FLOW_TONES.items() for step in range(5)
}
ROLES |= {f"{role}.open": style._replace(fill="") for role, style in ROLES.items() if role.startswith("fit.")}
PLAIN = Style("steel", 0.8)
"""of a role that has no row"""
BARE = ("bar.word", "bar.label", "el.words", "el.value", "el.flag")
"""words that stand on something drawn, with no paper behind them"""
CENTRED = ("el.", "bar.", "loop.")
"""roles whose words stand with their middle, not their foot, at their place"""
