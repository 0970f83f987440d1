"""Shop hours and cost of a package: what was typed for it, and what moved parts, brackets, panels, frames and cuts
add."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.fit.moves import seconds
from keelroom.assess.fit.panels import HOURS, panel_name
from keelroom.assess.inputs.coolant.ports import part_name
from keelroom.assess.inputs.coolant.routes import hose_name
from keelroom.document.quantity import Quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package

HOUR = 3600.0
BRACKET, CUT, FRAME, JOIN = 0.75 * HOUR, 0.5 * HOUR, 2.0 * HOUR, 2.0 * HOUR
"""[s] to make and fit one bracket; to mark, cut, deburr and paint one edge of a panel; to make a frame of angle, the
thinking apart; to trim and join two shrouds (common practice)."""


class Effort(NamedTuple):
    """Seconds by what takes them: stated for the package, parts counted as moved, brackets, panels, frames and joined
    shrouds, cuts."""

    stated: float
    moved: float
    brackets: float
    panels: float
    frames: float
    cuts: float

    @property
    def total(self) -> float:
        return math.fsum(self)


def effort(build: Build, package: Package) -> Effort | None:
    """The package's hours; None where none were stated and nothing adds any."""
    obstacles = {item.id: item for item in build.survey.obstacles}
    moved = math.fsum(seconds(obstacles[move.id], move) for move in package.moves if move.id in obstacles)
    edges = len({cut.edge for cut in package.cuts})
    found = Effort(
        package.hours.si if package.hours else 0.0,
        moved,
        BRACKET * len(package.brackets),
        HOUR * math.fsum(HOURS[panel.kind] for panel in package.panels if panel.fitted),
        FRAME * sum(frame.fitted for frame in package.mounting.frames) + JOIN * package.shroud.joined,
        CUT * edges,
    )
    return found if package.hours or found.total else None


def effort_words(found: Effort) -> str:
    """What the hours are made of, where it is more than what was stated."""
    parts = [
        (found.moved, "parts moved"),
        (found.brackets, "brackets"),
        (found.panels, "panels"),
        (found.frames, "frames and joints"),
        (found.cuts, "cuts"),
    ]
    more = [f"{words} {seconds / HOUR:.1f} h" for seconds, words in parts if seconds]
    return f" ({', '.join((f'stated {found.stated / HOUR:.1f} h', *more))})" if more else ""


class Priced(NamedTuple):
    """One part of a quote. price : None where nobody has priced it"""

    name: str
    price: float | None


def priced(build: Build, package: Package) -> tuple[Priced, ...]:
    """Every part a package buys or has made, in the order of the work: core, fans, shroud, coolers, brackets, panels
    that are fitted, neighbours that are moved, hoses, parts of the circuit."""
    here = {item.id: item.name or item.id for item in build.survey.obstacles}
    shroud = () if package.shroud.kind == "none" else (("Shroud", package.shroud.cost),)
    found: list[tuple[str, Quantity | None]] = [
        (package.core.name or "Core", package.core.cost),
        *((fan.name or f"Fan {number}", fan.cost) for number, fan in enumerate(package.fans, 1)),
        *shroud,
        *((cooler.name or cooler.kind.replace("_", " ").capitalize(), cooler.cost) for cooler in package.coolers),
        *((f"Bracket: {bracket.name or bracket.id}", bracket.cost) for bracket in package.brackets),
        *((panel_name(panel), panel.cost) for panel in package.panels if panel.fitted),
        *((f"{here[move.id]}, moved", move.cost) for move in package.moves if move.id in here),
        *((hose_name(hose), hose.cost) for hose in package.loop.hoses),
        *((part_name(part), part.cost) for part in package.loop.parts),
    ]
    return tuple(Priced(name, value.si if value else None) for name, value in found)


def cost(build: Build, package: Package) -> float | None:
    """What the package's parts cost, moves and made parts included; None where nothing is priced."""
    known = [part.price for part in priced(build, package) if part.price is not None]
    return math.fsum(known) if known else None


def hours_by(found: Effort) -> tuple[tuple[str, float], ...]:
    """What takes the hours, and how many [h] each; only what takes some."""
    told = (
        ("Stated for the package", found.stated),
        ("Parts moved", found.moved),
        ("Brackets", found.brackets),
        ("Panels and strips", found.panels),
        ("Frames and joints", found.frames),
        ("Cuts", found.cuts),
    )
    return tuple((words, taken / HOUR) for words, taken in told if taken)
