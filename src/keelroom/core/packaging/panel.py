"""Sheet panels that lead air: flat pattern with lips, rail notches, holes and a bead; covers, duct pieces and dams."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.core.outline import Outline, Point, circle, edges, rectangle
from keelroom.core.packaging.fixings import edge_wanted
from keelroom.core.packaging.pattern import Bend, Hole, Mark, Pattern
from keelroom.core.packaging.sheet import (
    BEAD_SHARE,
    BEAD_WIDE,
    Beads,
    Metal,
    bend_deduction,
    cracks,
    plate_frequency,
    smallest_radius,
)
from keelroom.facts import Fact, Fault, fact
from keelroom.units import fine_both

BEAD_LEAST = 1e-3
"""[m] a bead lower than this is none (common practice)."""
INSET = 0.012
"""[m] holes lie in from an edge that has no lip."""


class Lip(NamedTuple):
    """An edge bent over. size [m] outside; degrees, up positive; 0 size: none."""

    size: float
    degrees: float


class Notch(NamedTuple):
    """Cut in from each end. width, depth [m]; at: from the front bend's outside corner [m]."""

    width: float
    depth: float
    at: float


class Drilled(NamedTuple):
    """A row of holes. many: how many; diameter [m]; mark: what for."""

    many: int
    diameter: float
    mark: str


class Beading(NamedTuple):
    """Beads. height; short: how far they end before what is bent or cut [m]; across: a row of them front to back,
    else one along its middle."""

    height: float
    short: float
    across: bool = False


class Shape(NamedTuple):
    """A panel as wanted, outside sizes [m]. length at the back, far at the front; depth between its bends' outside
    corners."""

    length: float
    far: float
    depth: float
    front: Lip
    back: Lip
    thickness: float
    radius: float
    notch: Notch = Notch(0.0, 0.0, 0.0)
    bead: Beading = Beading(0.0, 0.0)
    pins: Drilled = Drilled(0, 8e-3, "pin")
    bolts: Drilled = Drilled(0, 7e-3, "bolt")


class PanelMade(NamedTuple):
    """Its pieces; trim: length [m] of cut edge; flat: height [m] of the blank; wrong: what cannot be made; notes:
    what to mind."""

    patterns: tuple[Pattern, ...]
    trim: float
    flat: float
    wrong: tuple[Fault, ...]
    notes: tuple[Fact, ...]

    @property
    def faults(self) -> tuple[Fact, ...]:
        """Why it cannot be made, in sentences."""
        return tuple(one.fact for one in self.wrong)


def panel(name: str, shape: Shape, metal: Metal) -> PanelMade:
    """The flat pattern, in one piece, or as a face and welded lips where the metal would crack.

    Source: bend deductions as `bend_deduction`; holes to edge common practice.
    """
    wrong = tuple(_wrong(shape))
    notes: list[Fact] = []
    bent = [lip for lip in (shape.front, shape.back) if lip.size > 0]
    why = cracks(metal, shape.thickness, shape.radius) if bent else ""
    if why == "radius":
        least = smallest_radius(metal, shape.thickness)
        notes.append(
            fact("lips_crack", name=metal.name, thickness=(shape.thickness, "length"), least=(least, "length"))
        )
    elif why:
        notes.append(fact("lips_thick", name=metal.name))
    if why:
        return _in_pieces(name, shape, metal, wrong, tuple(notes))
    one, flat = _one_piece(name, shape, metal)
    return PanelMade(
        (one._replace(faults=tuple(one.fact for one in wrong)),), perimeter(one.outlines[0]), flat, wrong, tuple(notes)
    )


def perimeter(outline: Outline) -> float:
    """Length [m] round an outline.

    Source: definition.
    """
    return math.fsum(math.dist(a, b) for a, b in edges(outline))


def _taken(lip: Lip, shape: Shape, metal: Metal) -> float:
    """What a lip's bend takes off the sum of its outside legs [m]."""
    return bend_deduction(metal, shape.thickness, shape.radius, math.radians(abs(lip.degrees))) if lip.size > 0 else 0.0


def _one_piece(name: str, shape: Shape, metal: Metal) -> tuple[Pattern, float]:
    front, back = (_taken(lip, shape, metal) for lip in (shape.front, shape.back))
    y_front = shape.front.size - front / 2
    y_back = y_front + shape.depth - (front + back) / 2
    top = y_back + shape.back.size - back / 2
    outline = _outline(shape, (y_front, y_back, top))
    bends = [
        Bend(
            (_end(shape, y, (y_front, y_back))[0], y),
            (_end(shape, y, (y_front, y_back))[1], y),
            lip.degrees,
            shape.radius,
        )
        for lip, y in ((shape.front, y_front), (shape.back, y_back))
        if lip.size > 0
    ]
    holes = (
        *_row(shape, shape.pins, _lip_middle(shape.front, 0.0, 1), shape.far),
        *_row(shape, shape.bolts, _lip_middle(shape.back, top, -1), shape.length),
    )
    middle = (y_front + y_back) / 2
    lines = bead_lines(shape, (y_front, y_back))
    marks = [Mark((shape.length / 2, middle + (0.25 * shape.depth if lines else 0.0)), name)]
    if shape.front.size > 0:
        marks.append(Mark((shape.length / 8, y_front + 0.12 * shape.depth), "front"))
    marks += [Mark(start, "bead", end) for start, end in lines]
    return Pattern(
        name, f"{metal.name}, {fine_both(shape.thickness)}", (outline,), holes, bends=tuple(bends), marks=tuple(marks)
    ), top


def bead_lines(shape: Shape, bends: tuple[float, float]) -> tuple[tuple[Point, Point], ...]:
    """The middle line of each bead. bends: height [m] of its front and back bend"""
    height, short, across = shape.bead
    front, back = bends
    if height < BEAD_LEAST:
        return ()
    if not across:
        return (((short, (front + back) / 2), (shape.length - short, (front + back) / 2)),)
    wide = min(shape.length, shape.far)
    many = max(round(BEAD_SHARE * wide / (BEAD_WIDE * height)), 1)
    begins, apart = (shape.length - wide) / 2, wide / many
    return tuple(
        ((begins + (k + 0.5) * apart, front + short), (begins + (k + 0.5) * apart, back - short)) for k in range(many)
    )


def swings(shape: Shape, metal: Metal) -> float:
    """Lowest frequency [Hz] of its field.

    Source: as of `plate_frequency`.
    """
    height, short, across = shape.bead if shape.bead.height >= BEAD_LEAST else Beading(0.0, 0.0)
    if across:
        return plate_frequency(metal, shape.thickness, shape.depth, shape.length, Beads(height, BEAD_SHARE, short))
    return plate_frequency(
        metal,
        shape.thickness,
        shape.length,
        shape.depth,
        Beads(height, min(BEAD_WIDE * height / shape.depth, 1.0), short),
    )


def _end(shape: Shape, y: float, at: tuple[float, float]) -> tuple[float, float]:
    """Left and right end [m] of the blank at a height: straight in its lips, slanting between them in a duct piece."""
    share = min(max((y - at[0]) / max(at[1] - at[0], 1e-9), 0.0), 1.0)
    wide = shape.far + (shape.length - shape.far) * share
    left = (shape.length - wide) / 2
    return left, left + wide


def _outline(shape: Shape, at: tuple[float, float, float]) -> Outline:
    """Up the right side, down the left, notches cut in between the bends."""
    y_front, y_back, top = at
    f1, b1 = (_end(shape, y, (y_front, y_back))[1] for y in (0.0, top))
    right = [(f1, 0.0)] + ([(f1, y_front), (b1, y_back)] if abs(shape.far - shape.length) > 1e-9 else [])
    notch = shape.notch
    if notch.width > 0 and notch.depth > 0:
        low, high = y_front + notch.at, y_front + notch.at + notch.width
        right += [(b1, low), (b1 - notch.depth, low), (b1 - notch.depth, high), (b1, high)]
    right.append((b1, top))
    left = [(shape.length - x, y) for x, y in reversed(right)]
    return tuple(dict.fromkeys((*right, *left)))


def _lip_middle(lip: Lip, edge: float, way: int) -> float:
    return edge + way * (lip.size / 2 if lip.size > 0 else INSET)


def _row(shape: Shape, row: Drilled, y: float, wide: float) -> tuple[Hole, ...]:
    left = (shape.length - wide) / 2
    return tuple(Hole((left + (k + 0.5) * wide / row.many, y), row.diameter, row.mark) for k in range(row.many))


def _wrong(shape: Shape) -> list[Fault]:
    wrong: list[Fault] = []
    setback = shape.radius + shape.thickness
    for lip, row, words in ((shape.front, shape.pins, "front"), (shape.back, shape.bolts, "back")):
        if lip.size <= 0:
            continue
        least = setback * math.tan(math.radians(abs(lip.degrees)) / 2) + 2 * shape.thickness
        if lip.size < least:
            wrong.append(
                Fault(f"{words}_lip", fact("lip_short", lip=words, size=(lip.size, "length"), least=(least, "length")))
            )
        room, wanted = lip.size / 2, edge_wanted(row.diameter)[0]
        if row.many and room < row.diameter / 2 + shape.thickness:
            wrong.append(
                Fault(
                    f"{words}_lip",
                    fact(
                        "holes_off_lip",
                        mark=row.mark,
                        lip=words,
                        diameter=(row.diameter, "length"),
                        size=(lip.size, "length"),
                    ),
                )
            )
        elif row.many and room < wanted:
            wrong.append(
                Fault(
                    f"{words}_lip",
                    fact("holes_near_lip", mark=row.mark, room=(room, "length"), lip=words, wanted=(wanted, "length")),
                )
            )
    for row, wide in ((shape.pins, shape.far), (shape.bolts, shape.length)):
        if row.many and wide / row.many < 3 * row.diameter:
            wrong.append(
                Fault(f"{row.mark}s", fact("too_many_holes", many=row.many, mark=row.mark, wide=(wide, "length")))
            )
    wrong += _notched(shape, setback)
    if 0 < shape.bead.height < BEAD_LEAST:
        wrong.append(
            Fault("bead", fact("bead_low", height=(shape.bead.height, "length"), wanted=(BEAD_LEAST, "length")))
        )
    elif shape.bead.height > 0 and 2 * shape.bead.short >= (shape.depth if shape.bead.across else shape.length):
        wrong.append(Fault("bead_end", fact("bead_no_length")))
    return wrong


def _notched(shape: Shape, setback: float) -> list[Fault]:
    """What is wrong with its rail notches."""
    notch, at = shape.notch, "notch_depth"
    wrong: list[Fault] = []
    if notch.width <= 0 or notch.depth <= 0:
        return []
    if abs(shape.far - shape.length) > 1e-9:
        wrong.append(Fault(at, fact("notch_narrows")))
    if 2 * notch.depth >= shape.length - 1e-6 or notch.at + notch.width > shape.depth - 1e-6:
        wrong.append(Fault(at, fact("notch_through", depth=(notch.depth, "length"), width=(notch.width, "length"))))
    elif notch.at < setback:
        wrong.append(Fault(at, fact("notch_in_bend", setback=(setback, "length"))))
    half = BEAD_WIDE * shape.bead.height / 2
    for (x0, y0), (x1, y1) in bead_lines(shape, (0.0, shape.depth)):
        nearest = min(x0, shape.length - x1) - half
        if nearest < notch.depth and min(y0, y1) - half < notch.at + notch.width and max(y0, y1) + half > notch.at:
            wrong.append(
                Fault(
                    "bead_end",
                    fact("notch_in_bead", nearest=(max(nearest, 0.0), "length"), depth=(notch.depth, "length")),
                )
            )
            break
    return wrong


def _in_pieces(name: str, shape: Shape, metal: Metal, wrong: tuple[Fault, ...], notes: tuple[Fact, ...]) -> PanelMade:
    """A face without a bend and its lips as strips."""
    stock, faults = f"{metal.name}, {fine_both(shape.thickness)}", tuple(one.fact for one in wrong)
    face = shape._replace(
        front=Lip(0.0, 0.0), back=Lip(0.0, 0.0), pins=shape.pins._replace(many=0), bolts=shape.bolts._replace(many=0)
    )
    one, flat = _one_piece(f"{name}, face", face, metal)
    pieces = [one._replace(faults=faults)]
    for lip, row, words, wide in (
        (shape.front, shape.pins, "front", shape.far),
        (shape.back, shape.bolts, "back", shape.length),
    ):
        if lip.size <= 0:
            continue
        high = max(lip.size - shape.thickness, 1e-3)
        strip = Pattern(
            f"{name}, {words} lip (weld to the face at {abs(lip.degrees):.0f}°)",
            stock,
            (rectangle(0, 0, wide, high),),
            tuple(Hole(((k + 0.5) * wide / row.many, high / 2), row.diameter, row.mark) for k in range(row.many)),
            marks=(Mark((wide / 2, high / 2), f"{words} lip"),),
            faults=faults,
        )
        pieces.append(strip)
    return PanelMade(tuple(pieces), math.fsum(perimeter(piece.outlines[0]) for piece in pieces), flat, wrong, notes)


def cover(
    name: str, size: tuple[float, float], round_hole: bool, lap: float, stock: tuple[Metal, float, Drilled]
) -> PanelMade:
    """A plate over a hole, larger by a lap [m] all round, held by a row of bolts in it. size [m] of the hole.

    Source: definition; holes to edge common practice.
    """
    metal, thickness, row = stock
    wide, high = size[0] + 2 * lap, size[1] + 2 * lap
    wrong: list[Fault] = []
    if row.many and lap / 2 < edge_wanted(row.diameter)[0] - 1e-9:
        least = 2 * edge_wanted(row.diameter)[0]
        wrong.append(Fault("bolts", fact("holes_off_lap", mark=row.mark, lap=(lap, "length"), least=(least, "length"))))
    if round_hole:
        outline: Outline = circle((wide / 2, wide / 2), wide / 2, 72)
        ring = (wide - lap) / 2
        places = [
            (
                wide / 2 + ring * math.cos(math.tau * (k + 0.5) / row.many),
                wide / 2 + ring * math.sin(math.tau * (k + 0.5) / row.many),
            )
            for k in range(row.many)
        ]
    else:
        outline = rectangle(0.0, 0.0, wide, high)
        corners = [
            (lap / 2, lap / 2),
            (wide - lap / 2, high - lap / 2),
            (wide - lap / 2, lap / 2),
            (lap / 2, high - lap / 2),
        ]
        rest = [
            ((k + 1) * wide / (row.many - 3), (lap / 2, high - lap / 2)[k % 2]) for k in range(max(row.many - 4, 0))
        ]
        places = (corners + rest)[: row.many]
    made = Pattern(
        name,
        f"{metal.name}, {fine_both(thickness)}",
        (outline,),
        tuple(Hole(at, row.diameter, row.mark) for at in places),
        marks=(Mark((wide / 2, 0.6 * (wide if round_hole else high)), name),),
        faults=tuple(one.fact for one in wrong),
    )
    return PanelMade((made,), perimeter(outline), high, tuple(wrong), ())
