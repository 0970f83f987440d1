"""Shrouds: trimming a bought one until it seats between the tanks, and a pan made from sheet."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.core.outline import Outline, Point, rectangle
from keelroom.core.packaging.pattern import Bend, Hole, Mark, Pattern
from keelroom.core.packaging.sheet import INCH, Metal, bend_deduction, cracks, smallest_radius
from keelroom.facts import Fact, fact
from keelroom.units import fine_both

SIDES = ("left", "right", "bottom", "top")
WEB = 6e-3
"""[m] metal or plastic left between a trim line and a fan's ring (common practice)."""
DISCHARGE = 0.6


class Blank(NamedTuple):
    """A shroud as bought. width, height [m] over its flanges; rings: centre x, y from its lower left corner and
    radius [m];
    holes: bolt holes as (x, y, diameter); struts: lines between ring and edge as ((x, y), (x, y)); ears: how far tabs
           stand out beyond it [m]."""

    width: float
    height: float
    rings: tuple[tuple[float, float, float], ...]
    holes: tuple[tuple[float, float, float], ...] = ()
    struts: tuple[tuple[Point, Point], ...] = ()
    ears: float = 0.0


class Trim(NamedTuple):
    """What a trim does. cut: per side [m]; faults, notes: what cannot be, and what to mind; lost: bolt holes cut away
    or left too near an edge;
    seats: width and height both go between the tanks; gap: open strip [m2] left round it; seal: length [m] to buy."""

    cut: dict[str, float]
    faults: tuple[Fact, ...]
    notes: tuple[Fact, ...]
    lost: tuple[int, ...]
    seats: bool
    gap: float
    seal: float


def trims_to_seat(
    blank: tuple[float, float], seat: tuple[float, float], offset: tuple[float, float]
) -> dict[str, float]:
    """What to take off each side [m] so that a blank goes into the seat; offset: how much further to the right and up
    the [m]. Source: definition. fans then stand than in the middle. Never less than nothing: a blank smaller than its
    seat is not cut."""
    cut = {}
    for (low, high), size, room, shift in zip((("left", "right"), ("bottom", "top")), blank, seat, offset, strict=True):
        over = max(size - room, 0.0)
        # Taking more off the left lets the rest slide left: the fans move left against the seat.
        low_cut = min(max(over / 2 - shift, 0.0), over)
        cut[low], cut[high] = low_cut, over - low_cut
    return cut


def trim(blank: Blank, seat: tuple[float, float], cut: dict[str, float], proud: float, edge_gap: float) -> Trim:
    """Judge trim lines. seat [m]: width and height between the tanks; proud [m]: how far tanks stand out behind the
    core.

    Raises nothing: a line that cannot be cut is a fault that says why.
    Source: WEB common practice.
    """
    left, bottom = cut["left"], cut["bottom"]
    right, top = blank.width - cut["right"], blank.height - cut["top"]
    faults: list[Fact] = []
    for number, (x, y, radius) in enumerate(blank.rings, 1):
        for side, room in zip(
            SIDES, (x - radius - left, right - x - radius, y - radius - bottom, top - y - radius), strict=True
        ):
            if room < WEB - 1e-9:
                faults.append(
                    fact(
                        "trim_cuts_ring" if room < 0 else "trim_near_ring",
                        side=side,
                        left=(room, "length"),
                        number=number,
                        web=(WEB, "length"),
                    )
                )
    if right - left <= 0 or top - bottom <= 0:
        faults.append(fact("nothing_left"))
    lost, notes = _holes(blank, (left, bottom, right, top))
    notes += _struts(blank, (left, bottom, right, top))
    size = (right - left, top - bottom)
    seats = all(have <= room + 1e-4 for have, room in zip(size, seat, strict=True))
    open_strip = max(seat[0] - size[0], 0.0) * min(size[1], seat[1]) + max(seat[1] - size[1], 0.0) * seat[0]
    edge = 2 * (min(size[0], seat[0]) + min(size[1], seat[1]))
    gap = open_strip + edge * edge_gap
    if not seats:
        gap += edge * proud
        notes.append(fact("proud_of_fins", proud=(proud, "length")))
    if blank.ears > 0:
        notes.append(fact("ears", ears=(blank.ears, "length")))
    return Trim(cut, tuple(faults), tuple(notes), lost, seats, gap, 2 * (size[0] + size[1]))


def _holes(blank: Blank, line: tuple[float, float, float, float]) -> tuple[tuple[int, ...], list[Fact]]:
    """Numbers of the bolt holes that are lost, and what to do about them: those cut away, and those left too near an
    edge."""
    left, bottom, right, top = line
    gone: list[int] = []
    near: list[tuple[int, float]] = []
    for number, (x, y, diameter) in enumerate(blank.holes, 1):
        room = min(x - left, right - x, y - bottom, top - y)
        if room < diameter / 2:
            gone.append(number)
        elif room < 1.5 * diameter - 1e-9:
            near.append((number, room))
    notes: list[Fact] = []
    if gone:
        diameter = blank.holes[gone[0] - 1][2]
        notes.append(fact("bolts_gone", numbers=tuple(gone), diameter=(2 * diameter, "length")))
    if near:
        least = min(room for _, room in near)
        notes.append(fact("bolts_near", numbers=tuple(n for n, _ in near), least=(least, "length")))
    return (*gone, *(number for number, _ in near)), notes


def _struts(blank: Blank, line: tuple[float, float, float, float]) -> list[Fact]:
    left, bottom, right, top = line
    notes: list[Fact] = []
    for number, ends in enumerate(blank.struts, 1):
        if any(not (left <= x <= right and bottom <= y <= top) for x, y in ends):
            notes.append(fact("strut_loose", number=number))
    return notes


def leak(gap: float, pressure: float, density: float) -> float:
    """Air [m3/s] through an open gap [m2] at a pressure difference [Pa]: the orifice equation.

    Source: orifice equation, DISCHARGE common practice.
    """
    return DISCHARGE * gap * math.sqrt(2 * max(pressure, 0.0) / density)


class Pan(NamedTuple):
    """A shroud to be made. width, height, depth, flange [m], outside; rings as (x, y, diameter) from its lower left
    corner; flaps as (x, y, width, height) openings; plain: whether the left and right walls, the bottom and top ones
    end without a flange."""

    width: float
    height: float
    depth: float
    flange: float
    thickness: float
    radius: float
    rings: tuple[tuple[float, float, float], ...]
    flaps: tuple[tuple[float, float, float, float], ...] = ()
    plain: tuple[bool, bool] = (False, False)

    @property
    def over_flanges(self) -> tuple[float, float]:
        """Width and height [m] over what stands out all round."""
        wide, high = (
            size + (0.0 if plain else 2 * self.flange)
            for size, plain in zip((self.width, self.height), self.plain, strict=True)
        )
        return wide, high


class PanMade(NamedTuple):
    """A pan's pieces: one folded blank, or a base and a rim joined where the metal would crack or the sheet is too
    small."""

    patterns: tuple[Pattern, ...]
    sheet: tuple[float, float]
    """width and height [m] of the flat blank in one piece"""
    warnings: tuple[Fact, ...]
    faults: tuple[Fact, ...]


FASTENER_PITCH = 0.1
FLANGE_HOLE = 5e-3
"""[m] for a rivet or a screw."""


def fasteners(length: float) -> int:
    """Rivets or screws along one side of a flange [m].

    Source: common practice, FASTENER_PITCH.
    """
    return max(round(length / FASTENER_PITCH), 2)


def pan(name: str, made: Pan, metal: Metal, sheet: tuple[float, float]) -> PanMade:
    """The flat pattern of a pan: base, four walls bent up, flanges bent out; corners open, to be riveted or welded.

    sheet : width and height [m] of the sheet at hand
    Source: bend deduction as `bend_deduction`.
    """
    deduction = bend_deduction(metal, made.thickness, made.radius)
    faults = _pan_faults(made)
    wings = _wings(made, deduction)
    flat = (made.width + 2 * wings[0], made.height + 2 * wings[1])
    warnings: list[Fact] = []
    why = cracks(metal, made.thickness, made.radius)
    if why == "radius":
        least = smallest_radius(metal, made.thickness)
        warnings.append(
            fact(
                "pan_cracks",
                name=metal.name,
                thickness=(made.thickness, "length"),
                least=(least, "length"),
                radius=(made.radius, "length"),
            )
        )
    elif why == "thick":
        warnings.append(fact("pan_thick", name=metal.name))
    fits = any(
        a <= s + 1e-9 and b <= t + 1e-9 for a, b in ((flat[0], flat[1]), (flat[1], flat[0])) for s, t in (sheet,)
    )
    if not fits:
        warnings.append(
            fact(
                "blank_large",
                flat=(flat[0], "length"),
                flat_high=(flat[1], "length"),
                sheet=(sheet[0], "length"),
                sheet_high=(sheet[1], "length"),
            )
        )
    if why or not fits:
        warnings.append(fact("made_in_two"))
        return PanMade(_two_pieces(name, made, metal), flat, tuple(warnings), tuple(faults))
    return PanMade((_one_piece(name, made, metal, deduction),), flat, tuple(warnings), tuple(faults))


def _wings(made: Pan, deduction: float) -> tuple[float, float]:
    """Flat length [m] beyond the base of the left and right walls, and of the bottom and top ones."""
    plain, flanged = made.depth - deduction, made.depth + made.flange - 2 * deduction
    return plain if made.plain[0] else flanged, plain if made.plain[1] else flanged


def _pan_faults(made: Pan) -> list[Fact]:
    faults: list[Fact] = []
    least = made.radius + made.thickness
    if made.depth < 2 * least:
        faults.append(fact("pan_shallow", depth=(made.depth, "length"), least=(2 * least, "length")))
    if not all(made.plain) and made.flange < least + 2 * made.thickness:
        faults.append(
            fact("flange_narrow", flange=(made.flange, "length"), least=(least + 2 * made.thickness, "length"))
        )
    for number, (x, y, diameter) in enumerate(made.rings, 1):
        room = min(x, made.width - x, y, made.height - y) - diameter / 2
        if room < least:
            faults.append(fact("opening_in_fold", number=number, room=(room, "length"), least=(least, "length")))
    for i, (x0, y0, d0) in enumerate(made.rings):
        for x1, y1, d1 in made.rings[i + 1 :]:
            if math.hypot(x1 - x0, y1 - y0) < (d0 + d1) / 2 + WEB:
                faults.append(fact("openings_near", web=(WEB, "length")))
    return faults


def _one_piece(name: str, made: Pan, metal: Metal, deduction: float) -> Pattern:
    wx, wy = _wings(made, deduction)
    w, h = made.width, made.height
    # Where flat metal of the base ends: half the deduction inside the outside corner is the bend's centre line.
    fold, lip = deduction / 2, made.depth - 1.5 * deduction
    cross: Outline = (
        (0, -wy),
        (w, -wy),
        (w, 0),
        (w + wx, 0),
        (w + wx, h),
        (w, h),
        (w, h + wy),
        (0, h + wy),
        (0, h),
        (-wx, h),
        (-wx, 0),
        (0, 0),
    )
    bends: list[Bend] = []
    holes: list[Hole] = []
    for at, sign, plain in ((fold, 90.0, (False, False)), (-lip, -90.0, made.plain)):
        if not plain[1]:
            bends += [Bend((0, at), (w, at), sign, made.radius), Bend((0, h - at), (w, h - at), sign, made.radius)]
        if not plain[0]:
            bends += [Bend((at, 0), (at, h), sign, made.radius), Bend((w - at, 0), (w - at, h), sign, made.radius)]
    half = made.flange / 2
    if not made.plain[1]:
        holes += [Hole((s, y), FLANGE_HOLE, "flange") for s in _along(w) for y in (half - wy, h + wy - half)]
    if not made.plain[0]:
        holes += [Hole((x, s), FLANGE_HOLE, "flange") for s in _along(h) for x in (half - wx, w + wx - half)]
    return Pattern(
        name,
        f"{metal.name}, {fine_both(made.thickness)}",
        (cross, *_flap_openings(made)),
        tuple(holes),
        _ring_openings(made),
        bends=tuple(bends),
        marks=(Mark((w / 2, h / 2), name),),
    )


def _along(length: float) -> list[float]:
    """Places of the fasteners along one side [m]."""
    count = fasteners(length)
    return [(k + 0.5) * length / count for k in range(count)]


def _two_pieces(name: str, made: Pan, metal: Metal) -> tuple[Pattern, ...]:
    """A face without a bend, and the four sides as strips with one bend for the flange."""
    stock = f"{metal.name}, {fine_both(made.thickness)}"
    face = Pattern(
        f"{name}, face",
        stock,
        (rectangle(0, 0, made.width, made.height), *_flap_openings(made)),
        (),
        _ring_openings(made),
        marks=(Mark((made.width / 2, made.height / 2), f"{name}, face"),),
    )
    strips = tuple(
        Pattern(
            f"{name}, {which} (weld or rivet to the face)",
            stock,
            (rectangle(0, 0, length, made.depth),),
            marks=(Mark((length / 2, made.depth / 2), which),),
            copies=2,
        )
        for which, length in (("side strip", made.height), ("top and bottom strip", made.width))
    )
    flanged = 2 * sum(length for length, plain in zip((made.height, made.width), made.plain, strict=True) if not plain)
    if not flanged:
        return (face, *strips)
    flange = Pattern(
        f"{name}, flange strip",
        stock,
        (rectangle(0, 0, flanged, made.flange),),
        marks=(Mark((0.05, made.flange / 2), "flange"),),
    )
    return (face, *strips, flange)


def _ring_openings(made: Pan) -> tuple[Hole, ...]:
    return tuple(Hole((x, y), diameter, "fan") for x, y, diameter in made.rings)


def _flap_openings(made: Pan) -> tuple[Outline, ...]:
    return tuple(rectangle(*flap) for flap in made.flaps)


EDGE_TRIM = INCH / 8
"""[m] what rubber edge trim adds to a cut edge (common practice)."""
