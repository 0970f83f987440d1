"""A flat pattern: what is cut, drilled, bent and marked on one sheet, in metres."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.core.outline import Outline, Point
from keelroom.facts import Fact


class Hole(NamedTuple):
    """A round hole. mark: what it is for."""

    centre: Point
    diameter: float
    mark: str = ""


class Slot(NamedTuple):
    """A hole drawn out between two centres."""

    start: Point
    end: Point
    width: float


class Bend(NamedTuple):
    """A bend line; degrees turned, up positive; radius [m] inside."""

    start: Point
    end: Point
    degrees: float
    radius: float


class Mark(NamedTuple):
    """Words on the pattern, or a line to scribe where `to` is given."""

    at: Point
    text: str = ""
    to: Point | None = None


class Pattern(NamedTuple):
    """One piece to cut. outlines: the piece's own edge first, then openings in it; faults: why it cannot be made as
    drawn."""

    name: str
    material: str
    outlines: tuple[Outline, ...]
    holes: tuple[Hole, ...] = ()
    openings: tuple[Hole, ...] = ()
    slots: tuple[Slot, ...] = ()
    bends: tuple[Bend, ...] = ()
    marks: tuple[Mark, ...] = ()
    copies: int = 1
    faults: tuple[Fact, ...] = ()

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """Left, bottom, width, height [m] of the piece."""
        xs = [x for outline in self.outlines for x, _ in outline]
        ys = [y for outline in self.outlines for _, y in outline]
        return min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)
