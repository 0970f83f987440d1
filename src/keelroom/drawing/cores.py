"""Cores side by side at one scale, each over a scale of how much hotter a day it is held on."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.document.schema.package import Core
from keelroom.drawing.degrees import LETTER, LINE, Scale
from keelroom.drawing.scene import Circle, Label, Point, Polyline, Rect, Scene, Shape, on_sheet
from keelroom.units import KINDS, format_si

MM = 1e-3
ACROSS, WIDE, HIGH = 3, 146.0, 210.0
"""how many in a row; the room of each on the sheet"""
FACE_WIDE, FACE_HIGH, GAP = 116.0, 84.0, 8.0
"""room for the largest with its tanks, and between a face and the side beside it"""
TUBES = 7
REACH = 60.0
"""[K] of a scale to each side of its own day: what lies beyond is marked at its end"""
USUAL_TANK = 0.05
"""[m] a tank drawn where its size is not known"""


class Card(NamedTuple):
    """A core to be compared. days : how much hotter a day [K] it is held on in every duty case, under 0 what it lacks,
    nan unknown;  at : of them the chosen case;  said : how many it holds;  chosen : it is the package's"""

    core: Core
    days: tuple[float, ...]
    at: int
    said: str
    chosen: bool = False


def drawable(core: Core) -> bool:
    """Whether its face is known."""
    return core.face_width is not None and core.face_height is not None


def cores_scene(cards: tuple[Card, ...], system: str) -> Scene:
    """Cards in rows of three; every core and every scale is as large as the others'."""
    unit = KINDS["temperature difference"].shown_unit(system)
    wide, high = (max(sizes, default=1.0) for sizes in zip(*(_outside(card.core) for card in cards), strict=True))
    size = min(FACE_WIDE / wide, FACE_HIGH / high)
    days = [min(max(day, -REACH), REACH) for card in cards for day in card.days]
    scale = Scale([0.0, *days], unit, 0.0, WIDE - 14)
    shapes: list[Shape] = []
    for k, card in enumerate(cards):
        at = (6 + WIDE * (k % ACROSS), -HIGH * (k // ACROSS))
        shapes += _card(card, at, size, scale, system)
    rows = math.ceil(len(cards) / ACROSS)
    return Scene(tuple(shapes), (0.0, -HIGH * rows * MM, (WIDE * ACROSS + 8) * MM, HIGH * rows * MM))


def _outside(core: Core) -> tuple[float, float]:
    """Its width and height over the tanks, with its depth beside it [m]."""
    assert core.face_width is not None
    assert core.face_height is not None
    tank = core.tank_size.si if core.tank_size else USUAL_TANK
    across = core.flow == "crossflow"
    depth = core.depth.si if core.depth else 0.0
    return core.face_width.si + (2 * tank if across else 0.0) + depth, core.face_height.si + (
        0.0 if across else 2 * tank
    )


def _card(card: Card, at: Point, size: float, scale: Scale, system: str) -> list[Shape]:
    """One card with its upper left corner at a place."""
    left, top = at
    shapes = _elevation(card.core, (left, top - 14 - FACE_HIGH), size)
    core, length = card.core, KINDS["length"]
    assert core.face_width is not None
    assert core.face_height is not None
    unit = length.shown_unit(system).symbol
    sizes = [format_si(v.si, length, system) if v else "?" for v in (core.face_width, core.face_height, core.depth)]
    told = " × ".join([text.removesuffix(unit).strip() for text in sizes[:2]] + [sizes[2]])
    y = top - FACE_HIGH - 28
    words = (("rail.name", _lines(core.name or "Unnamed core", card.chosen)), ("el.words", [told, card.said]))
    for role, lines in words:
        for line in lines:
            shapes.append(Label(role, on_sheet(left, y), line, "start"))
            y -= LINE
    return shapes + _rail(card, (left, y - 2), scale)


def _lines(name: str, chosen: bool) -> list[str]:
    """A name in two lines at most, told where it is the package's."""
    words, lines = (name + (" (now)" if chosen else "")).split(" "), [""]
    for word in words:
        if lines[-1] and LETTER * (len(lines[-1]) + len(word) + 1) > WIDE - 8 and len(lines) < 2:
            lines.append("")
        lines[-1] = f"{lines[-1]} {word}".strip()
    return [line if LETTER * len(line) < WIDE else line[: int(WIDE / LETTER) - 1] + "…" for line in (*lines, "")[:2]]


def _elevation(core: Core, at: Point, size: float) -> list[Shape]:
    """From the front with its tanks, and from the side beside it; its lower left corner at a place."""
    assert core.face_width is not None
    assert core.face_height is not None
    left, bottom = at
    tank = (core.tank_size.si if core.tank_size else USUAL_TANK) * size
    wide, high = core.face_width.si * size, core.face_height.si * size
    across = core.flow == "crossflow"
    x, y = (left + tank, bottom) if across else (left, bottom + tank)
    tanks = (
        ((left, y, tank, high), (x + wide, y, tank, high))
        if across
        else ((x, bottom, wide, tank), (x, y + high, wide, tank))
    )
    shapes: list[Shape] = [_box("core.face", (x, y, wide, high)), *(_box("core.tank", box) for box in tanks)]
    for k in range(1, TUBES):
        part = k / TUBES
        ends = (
            (on_sheet(x, y + high * part), on_sheet(x + wide, y + high * part))
            if across
            else (on_sheet(x + wide * part, y), on_sheet(x + wide * part, y + high))
        )
        shapes.append(Polyline("core.tube", ends))
    if core.depth:
        end = left + wide + (2 * tank if across else 0.0) + GAP
        shapes.append(_box("core.tank", (end, bottom, core.depth.si * size, high + (0.0 if across else 2 * tank))))
    return shapes


def _rail(card: Card, at: Point, scale: Scale) -> list[Shape]:
    """The scale under a core: its own day, and the day it is held on in every case, the chosen one large."""
    left, y = at
    own = left + scale.x(0.0)
    shapes: list[Shape] = [
        Polyline("rail", (on_sheet(left, y), on_sheet(left + scale.right, y))),
        Polyline("rail.limit", (on_sheet(own, y - 8), on_sheet(own, y + 8))),
    ]
    for k, day in enumerate(card.days):
        if math.isnan(day) or k == card.at:
            continue
        shapes.append(Circle("loop.plain", on_sheet(left + scale.x(day), y), 3.5 * MM))
    day = card.days[card.at]
    if not math.isnan(day):
        x = left + scale.x(day)
        shapes.append(Polyline("bar.given" if day >= 0 else "bar.short", (on_sheet(own, y), on_sheet(x, y))))
        ends = ((x, y - 6), (x + 5, y), (x, y + 6), (x - 5, y))
        shapes.append(Polyline("span.held", tuple(on_sheet(*end) for end in ends), closed=True))
    return shapes


def _box(role: str, box: tuple[float, float, float, float]) -> Rect:
    left, bottom, wide, high = box
    return Rect(role, left * MM, bottom * MM, wide * MM, high * MM)
