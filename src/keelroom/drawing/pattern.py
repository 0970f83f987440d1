"""A flat pattern as a scene: what is cut, drilled, bent and marked, each with its own role."""

from __future__ import annotations

import math

from keelroom.assess.words import not_to_cut
from keelroom.core.packaging.pattern import Bend, Hole, Pattern, Slot
from keelroom.drawing.scene import Circle, Dimension, Label, Point, Polyline, Scene, Shape, moved
from keelroom.units import KINDS, fine, format_si

Patterns = tuple[Pattern, ...]
"""What is laid out together."""
SLOT_STEPS = 16
MARGIN = 0.012
NARROW = 0.08
"""[m] a strip this narrow has its words outside"""
LINE = 0.022
BOARD = 1.4
"""Width over height of the board patterns are laid on."""


def pattern_scene(pattern: Pattern, system: str, dimensions: bool = True) -> Scene:
    """The pattern at 1:1. dimensions: with its overall size and notes; without them only what a machine follows."""
    left, bottom, wide, high = pattern.bounds
    shapes: list[Shape] = [Polyline("pattern.cut", outline, closed=True) for outline in pattern.outlines]
    shapes += [Circle("pattern.cut", hole.centre, hole.diameter / 2) for hole in pattern.openings]
    shapes += [Circle("pattern.drill", hole.centre, hole.diameter / 2) for hole in pattern.holes]
    shapes += [Polyline("pattern.cut", slot_outline(slot), closed=True) for slot in pattern.slots]
    shapes += [Polyline("pattern.bend", (bend.start, bend.end)) for bend in pattern.bends]
    for mark in pattern.marks:
        if mark.to is not None:
            shapes.append(Polyline("pattern.mark", (mark.at, mark.to)))
        elif mark.text and dimensions and (high > NARROW or mark.text != pattern.name):
            shapes.append(Label("pattern.words", mark.at, mark.text))
    warning = not_to_cut(pattern, system)
    if warning:
        # Across the piece itself, so that a machine's operator sees it too.
        shapes.append(Label("pattern.alarm", (left + wide / 2, bottom + high / 2), warning))
    pad = MARGIN
    if dimensions:
        pad = 0.06 if high < NARROW else max(0.03, 0.09 * max(wide, high))
        shapes += _sizes(pattern, system, pad)
    return Scene(tuple(shapes), (left - pad, bottom - pad, wide + 2 * pad, high + 2 * pad))


def _sizes(pattern: Pattern, system: str, pad: float) -> list[Shape]:
    left, bottom, wide, high = pattern.bounds
    length = KINDS["length"]
    shapes: list[Shape] = [
        Dimension(
            "dimension",
            (left, bottom + high),
            (left + wide, bottom + high),
            pad * 0.55,
            format_si(wide, length, system),
        ),
        Dimension("dimension", (left, bottom), (left, bottom + high), pad * 0.55, format_si(high, length, system)),
    ]
    narrow = high < NARROW
    words: dict[str, Point] = {}
    for bend in pattern.bends:
        turn = "up" if bend.degrees > 0 else "down"
        text = f"{abs(bend.degrees):.0f}° {turn}" + (
            f", R {format_si(bend.radius, length, system)}" if bend.radius else ""
        )
        middle = _free_place(pattern, bend)
        # On a strip the words stand under it, one line each; on a sheet once for bends alike, on the line.
        at = (middle[0], bottom - LINE * (1 + sum(p[1] < bottom for p in words.values()))) if narrow else middle
        words.setdefault(text, at)
    # The far hole is named: beside the near one stands the strip's width.
    for hole in reversed(pattern.holes):
        above = bottom + high + 0.6 * LINE if narrow else hole.centre[1] + hole.diameter / 2 + 0.8 * LINE
        words.setdefault(f"{fine(hole.diameter, system)} hole", (hole.centre[0], above))
    if narrow:
        words.setdefault(pattern.name, (left + wide / 2, bottom + high + pad * 0.88))
    return shapes + [Label("pattern.words", at, text) for text, at in words.items()]


def _free_place(pattern: Pattern, bend: Bend) -> Point:
    """Where along a bend its words hide no hole: its middle, or beside it."""
    (x0, y0), (x1, y1) = bend.start, bend.end
    wide, near = 0.09 * math.hypot(x1 - x0, y1 - y0), LINE

    def at(share: float) -> Point:
        return (x0 + share * (x1 - x0), y0 + share * (y1 - y0))

    free = [
        at(share)
        for share in (0.5, 0.33, 0.67, 0.25)
        if not any(
            abs(h.centre[0] - at(share)[0]) < wide and abs(h.centre[1] - at(share)[1]) < near for h in pattern.holes
        )
    ]
    return free[0] if free else at(0.5)


def slot_outline(slot: Slot) -> tuple[Point, ...]:
    """A slot's edge: two half circles joined."""
    (x0, y0), (x1, y1), radius = slot.start, slot.end, slot.width / 2
    way = math.atan2(y1 - y0, x1 - x0)
    first = [way + math.pi / 2 + math.pi * k / SLOT_STEPS for k in range(SLOT_STEPS + 1)]
    second = [way - math.pi / 2 + math.pi * k / SLOT_STEPS for k in range(SLOT_STEPS + 1)]
    return tuple(
        [(x0 + radius * math.cos(a), y0 + radius * math.sin(a)) for a in first]
        + [(x1 + radius * math.cos(a), y1 + radius * math.sin(a)) for a in second]
    )


def holes_of(pattern: Pattern) -> tuple[Hole, ...]:
    """Every round hole, drilled or cut out."""
    return (*pattern.holes, *pattern.openings)


def gallery(patterns: tuple[Pattern, ...], system: str, dimensions: bool = True) -> Scene | None:
    """Several patterns on one sheet, in as many columns as show them largest; None where there is none. dimensions:
    as of `pattern_scene`."""
    scenes = tuple(pattern_scene(pattern, system, dimensions) for pattern in patterns)
    if not scenes:
        return None
    columns = min(
        (_columns(scenes, count) for count in range(1, len(scenes) + 1)),
        key=lambda one: max(_width(one) / BOARD, _height(one)),
    )
    shapes: list[Shape] = []
    x = 0.0
    for column in columns:
        top = 0.0
        for scene in column:
            left, low, _, high = scene.bounds
            shapes += [moved(shape, x - left, top - high - low) for shape in scene.shapes]
            top -= high
        x += _width((column,))
    return Scene(tuple(shapes), (0.0, -_height(columns), _width(columns), _height(columns)))


def _columns(scenes: tuple[Scene, ...], count: int) -> tuple[tuple[Scene, ...], ...]:
    """Scenes dealt to so many columns at most, each read downwards."""
    each = -(-len(scenes) // count)
    return tuple(scenes[first : first + each] for first in range(0, len(scenes), each))


def _width(columns: tuple[tuple[Scene, ...], ...]) -> float:
    return sum(max(scene.bounds[2] for scene in column) for column in columns)


def _height(columns: tuple[tuple[Scene, ...], ...]) -> float:
    return max(sum(scene.bounds[3] for scene in column) for column in columns)
