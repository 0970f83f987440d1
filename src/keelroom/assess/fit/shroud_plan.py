"""The shroud planner: trim lines on a bought one, or a pan from sheet, for the package as it stands."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.fit.package_bodies import RIM
from keelroom.assess.inputs.air_parts import Parts, air_parts
from keelroom.assess.inputs.airside import halves_of, in_shroud, shroud_rectangle, stands_proud
from keelroom.assess.inputs.fans import disc_of
from keelroom.assess.placing import face_size
from keelroom.core.air.face import Disc
from keelroom.core.kept import by_identity
from keelroom.core.outline import Point, rectangle
from keelroom.core.packaging.fixings import DRUMS_UNDER, FLOPPY, HAND
from keelroom.core.packaging.joined import RING_LAP, Halves, Ring, half_patterns, join_faults, ring_pattern
from keelroom.core.packaging.pattern import Hole, Mark, Pattern
from keelroom.core.packaging.sheet import METALS, Beads, edge_sag, plate_frequency
from keelroom.core.packaging.shroud import (
    EDGE_TRIM,
    SIDES,
    WEB,
    Blank,
    Pan,
    PanMade,
    Trim,
    leak,
    pan,
    trim,
    trims_to_seat,
)
from keelroom.document.edits import Change
from keelroom.document.quantity import from_si
from keelroom.document.schema.package import Fan, Package
from keelroom.facts import Fact, Fault, fact
from keelroom.units import INCH, both, fine_both

BOLT_HOLE = 7e-3
RING_SLACK = 6e-3
"""[m] a sheet shroud's opening is larger than the blades' circle (common practice: about 1/8 in all round)."""
AIR_DENSITY = 1.15
IDLE_PRESSURE = 120.0
"""[Pa] at which a leak is stated where the fans' own is not known yet."""
FLAP_RATIO = 2.0


class TrimPlan(NamedTuple):
    """A bought shroud against this core. blank, seat [m]; ready: the cut to seat it; lines: what is cut now per side;
    shift: how far [m] the trimmed shroud puts the fans right of and over the middle of the core; off: how far the
           fans of the document
    stand right of and over where it puts them; wrong: what cannot be, and the field it is at."""

    blank: Blank
    seat: tuple[float, float]
    ready: dict[str, float]
    now: Trim
    proud: float
    leak: float
    shift: tuple[float, float]
    off: tuple[float, float]
    wrong: tuple[Fault, ...]
    notes: tuple[Fact, ...]
    joined: Halves | None = None
    """two bought ones made one"""

    @property
    def faults(self) -> tuple[Fact, ...]:
        """What cannot be."""
        return tuple(one.fact for one in self.wrong)


class PanPlan(NamedTuple):
    """A shroud from sheet. frequency [Hz] of its largest flat field, sag [m] of its long edge under a hand's weight."""

    pan: Pan
    made: PanMade
    frequency: float
    sag: float
    faults: tuple[Fact, ...]
    notes: tuple[Fact, ...]


def seat_of(package: Parts) -> tuple[float, float]:
    """Room for the shroud on the core [m]: between the tanks, and the height of the face."""
    return face_size(package)


def trim_plan(package: Package, pressure: float = IDLE_PRESSURE) -> TrimPlan | None:
    """The trim of a bought shroud; None where the shroud is not one. pressure [Pa]: over the fans, for the leak."""
    shroud, seat = package.shroud, seat_of(package)
    if shroud.kind != "full" or shroud.blank_width is None or not package.fans:
        return None
    size = (shroud.blank_width.si, shroud.blank_height.si if shroud.blank_height else seat[1])
    cut = {side: getattr(shroud, f"trim_{side}").si for side in SIDES}
    fans = _shrouded(package)
    discs = [disc_of(fan) for fan in fans]
    halves = halves_of(package)
    if halves is not None:
        size = (halves.width, halves.height)
    places = _ring_places(package, size, halves)
    rings = tuple((x, y, disc.radius + RIM) for (x, y), disc in zip(places, discs, strict=True))
    blank = Blank(*size, rings, _bolt_holes(size, shroud.hole_inset.si), _struts(size, rings), shroud.ears.si)
    now = trim(blank, seat, cut, package.core.tank_proud.si, shroud.edge_gap.si)
    ready = trims_to_seat(size, seat, (0.0, 0.0))
    put = laid(seat, cut)
    shift = (put[0] - seat[0] / 2, put[1] - seat[1] / 2)
    wanted = [(put[0] + x - size[0] / 2, put[1] + y - size[1] / 2) for x, y in places]
    off = max(
        ((disc.x - x, disc.y - y) for disc, (x, y) in zip(discs, wanted, strict=True)),
        key=lambda step: math.hypot(*step),
        default=(0.0, 0.0),
    )
    wrong, notes = [Fault("trim_left", one) for one in now.faults], list(now.notes)
    if halves is not None:
        wrong += join_faults(halves, rings)
        notes += _join_notes(package, halves)
        now = now._replace(gap=now.gap + (halves.height * OPEN_SEAM if shroud.join_seal == "none" else 0.0))
    if any(cut.values()):
        notes.append(fact("edge_trim_adds", adds=(EDGE_TRIM, "length")))
    depth = shroud.depth.si
    if depth + 1e-6 < INCH and discs:
        notes.append(fact("shroud_shallow", depth=(depth, "length")))
    proud = stands_proud(package)
    return TrimPlan(
        blank,
        seat,
        ready,
        now,
        proud,
        leak(now.gap, pressure, AIR_DENSITY),
        shift,
        off,
        tuple(wrong),
        tuple(notes),
        halves,
    )


def _shrouded(package: Parts) -> list[Fan]:
    """The fans in the shroud, from the left where two shrouds are joined."""
    fans = [fan for fan in package.fans if in_shroud(package, fan)]
    return sorted(fans, key=lambda fan: fan.x.si) if package.shroud.joined else fans


def _ring_places(package: Package, size: tuple[float, float], halves: Halves | None) -> list[Point]:
    """Where the rings lie on the blank: one in the middle of each of two joined, else as the fans stand to each other
    about its ring's own middle, where it was bought with one, or its own."""
    discs = [disc_of(fan) for fan in _shrouded(package)]
    if halves is not None and len(discs) == 2:
        return [(x, size[1] / 2) for x in halves.middles]
    middle, shroud = _mean(discs), package.shroud
    at = (
        shroud.ring_x.si if shroud.ring_x else size[0] / 2,
        shroud.ring_y.si if shroud.ring_y else size[1] / 2,
    )
    return [(at[0] + disc.x - middle[0], at[1] + disc.y - middle[1]) for disc in discs]


OPEN_SEAM = 1e-3
"""[m] a joint without a seal stands open (common practice)."""


def _join_notes(package: Package, halves: Halves) -> list[Fact]:
    notes = [
        fact("two_made_one", width=(halves.width, "length"), trim=(halves.trim, "length")),
        fact(f"seam.{package.shroud.join_seal}"),
    ]
    notes.append(fact("they_lap", lap=(halves.lap, "length")) if halves.lap > 0 else fact("edge_to_edge"))
    notes.append(fact("trial_fit"))
    return notes


def join_patterns(package: Package, plan: TrimPlan) -> tuple[Pattern, ...]:
    """Both shrouds with the line each is trimmed to; () where there is one."""
    return half_patterns(f"Joined shroud, {package.name}", plan.joined, plan.blank.rings) if plan.joined else ()


def ring_of(package: Package) -> tuple[Pattern | None, tuple[Fact, ...], tuple[Fact, ...]]:
    """The adapter ring of a bought shroud made for another fan, what is wrong with it, and what to mind."""
    shroud, fans = package.shroud, _shrouded(package)
    if shroud.ring_opening is None or not fans or shroud.kind == "none":
        return None, (), ()
    largest = max(disc_of(fan).radius for fan in fans)
    ring = Ring(shroud.ring_opening.si, 2 * largest + 2 * RING_SLACK)
    sheet = METALS[shroud.metal]
    pattern = ring_pattern(
        f"Adapter ring, {package.name}", ring, f"{sheet.name}, {fine_both(shroud.thickness.si)}", len(fans)
    )
    if pattern is not None:
        return (
            pattern,
            (),
            (
                fact(
                    "ring_laps",
                    opening=(ring.opening, "length"),
                    wanted=(ring.wanted, "length"),
                    lap=(RING_LAP, "length"),
                ),
            ),
        )
    high = shroud.blank_height.si if shroud.blank_height else seat_of(package)[1]
    web = high / 2 - ring.wanted / 2
    if web < WEB:
        return (
            None,
            (
                fact(
                    "ring_no_web",
                    opening=(ring.opening, "length"),
                    wanted=(ring.wanted, "length"),
                    web=(max(web, 0.0), "length"),
                    least=(WEB, "length"),
                ),
            ),
            (),
        )
    return (
        None,
        (),
        (fact("opening_cut", opening=(ring.opening, "length"), wanted=(ring.wanted, "length"), web=(web, "length")),),
    )


def _bolt_holes(size: tuple[float, float], inset: float) -> tuple[tuple[float, float, float], ...]:
    """One near each corner, as bought shrouds have them."""
    return tuple((x, y, BOLT_HOLE) for y in (inset, size[1] - inset) for x in (inset, size[0] - inset))


def _struts(
    size: tuple[float, float], rings: tuple[tuple[float, float, float], ...]
) -> tuple[tuple[Point, Point], ...]:
    """Motor struts run from each ring up and down to the flange."""
    return tuple(
        ((x, y + sign * radius), (x, size[1] - 1e-3 if sign > 0 else 1e-3))
        for x, y, radius in rings
        for sign in (1, -1)
    )


def laid(seat: tuple[float, float], cut: dict[str, float]) -> tuple[float, float]:
    """Where the middle of the blank comes to lie on the face: what is left of it stands in the middle of the seat."""
    return seat[0] / 2 + (cut["right"] - cut["left"]) / 2, seat[1] / 2 + (cut["top"] - cut["bottom"]) / 2


def _mean(discs: list[Disc]) -> tuple[float, float]:
    count = max(len(discs), 1)
    return sum(disc.x for disc in discs) / count, sum(disc.y for disc in discs) / count


def onto_rings(package: Package, plan: TrimPlan, put: tuple[float, float], system: str) -> tuple[Change, ...]:
    """The shrouded fans each to its ring, the middle of the blank lying at `put`."""
    changes = []
    size = (plan.blank.width, plan.blank.height)
    for fan, place in zip(_shrouded(package), _ring_places(package, size, plan.joined), strict=True):
        for axis, at, now, whole, middle in (
            ("x", place[0], fan.x.si, size[0], put[0]),
            ("y", place[1], fan.y.si, size[1], put[1]),
        ):
            to = middle + at - whole / 2
            if abs(to - now) > 1e-6:
                changes.append(
                    Change(("packages", package.id, "fans", fan.id, axis), from_si(to, "length", system, "derived"))
                )
    return tuple(changes)


def pan_of(package: Parts) -> Pan | None:
    """The pan that would serve this package's fans; None without a shroud or fans."""
    shroud, place = package.shroud, shroud_rectangle(package)
    fans = [fan for fan in package.fans if in_shroud(package, fan)]
    if place is None or not fans or shroud.supplied:
        return None
    left, bottom, wide, high = place
    rings = tuple((disc.x - left, disc.y - bottom, 2 * disc.radius + 2 * RING_SLACK) for disc in map(disc_of, fans))
    return Pan(
        wide,
        high,
        shroud.depth.si,
        shroud.flange.si,
        shroud.thickness.si,
        shroud.bend_radius.si,
        rings,
        _flaps((wide, high), rings, shroud.flap_area.si),
        _plain(package),
    )


def _plain(package: Parts) -> tuple[bool, bool]:
    """Walls that end without a flange: beside a tank one would stand on it."""
    if package.shroud.flange.si == 0:
        return True, True
    clear = package.shroud.flanges == "clear_of_tanks" and package.shroud.kind == "full"
    across = package.core.flow == "crossflow"
    return clear and across, clear and not across


def _on_tanks(package: Parts, body: Pan) -> list[Fact]:
    """Why a pan whose flanges are wider than the room between the tanks does not seat."""
    k = 0 if package.core.flow == "crossflow" else 1
    over, room, proud = body.over_flanges[k], seat_of(package)[k], package.core.tank_proud.si
    if over <= room + 1e-4 or proud <= 0:
        return []
    return [fact("pan_on_tanks", over=(over, "length"), room=(room, "length"), proud=(proud, "length"))]


def _flaps(
    size: tuple[float, float], rings: tuple[tuple[float, float, float], ...], area: float
) -> tuple[tuple[float, float, float, float], ...]:
    """Openings for the flaps where no fan is: up to four alike, in the corners, twice as high as wide where there is
    room."""
    if area <= 0:
        return ()
    each = area / 4
    edge = INCH
    # The corner's free square lies between the side and the nearest ring's circle.
    for ratio in (FLAP_RATIO, 1.0, 1 / FLAP_RATIO, 4.0, 0.25):
        wide, high = math.sqrt(each / ratio), math.sqrt(each * ratio)
        corners = [(x, y, wide, high) for y in (edge, size[1] - edge - high) for x in (edge, size[0] - edge - wide)]
        if all(_free(corner, rings) for corner in corners):
            return tuple(corners)
    return ()


def _free(box: tuple[float, float, float, float], rings: tuple[tuple[float, float, float], ...]) -> bool:
    left, bottom, wide, high = box
    for x, y, diameter in rings:
        dx = max(left - x, 0.0, x - left - wide)
        dy = max(bottom - y, 0.0, y - bottom - high)
        if math.hypot(dx, dy) < diameter / 2 + INCH / 4:
            return False
    return True


def pan_plan(package: Package) -> PanPlan | None:
    """The pan with its flat pattern, whether it cracks, drums or sags; None without a shroud."""
    return _pan_plan(air_parts(package), package.name)


@by_identity(16)
def _pan_plan(package: Parts, name: str) -> PanPlan | None:
    body = pan_of(package)
    if body is None:
        return None
    shroud, metal = package.shroud, METALS[package.shroud.metal]
    made = pan(f"Shroud, {name}", body, metal, (shroud.sheet_width.si, shroud.sheet_height.si))
    field = _largest_field(body)
    frequency = plate_frequency(metal, body.thickness, min(field), max(field), Beads(shroud.bead.si))
    long, plain = (body.width, body.plain[1]) if body.width >= body.height else (body.height, body.plain[0])
    sag = edge_sag(metal, body.thickness, long, 0.0 if plain else body.flange, HAND)
    notes = list(made.warnings)
    if frequency < DRUMS_UNDER:
        code = "drums_pan.beaded" if shroud.bead.si else "drums_pan"
        notes.append(
            fact(code, frequency=(frequency, "number"), under=(DRUMS_UNDER, "number"), bead=(INCH / 4, "length"))
        )
    if sag > FLOPPY:
        notes.append(fact("floppy_pan", sag=(sag, "length")))
    if shroud.flap_area.si > 0 and not body.flaps:
        notes.append(fact("no_flap_corner"))
    if any(body.plain) and body.flange:
        notes.append(fact("no_flange"))
    return PanPlan(body, made, frequency, sag, (*made.faults, *_on_tanks(package, body)), tuple(notes))


def _largest_field(body: Pan) -> tuple[float, float]:
    """The flat field that drums first: what a fan's opening leaves of the face's width, over its height."""
    taken = min(sum(diameter for _, _, diameter in body.rings), 0.7 * body.width)
    return max(body.width - taken, 0.3 * body.width), body.height


def trim_pattern(package: Package, plan: TrimPlan) -> Pattern:
    """The bought shroud face on with its trim lines, or with the ones that would seat it: to lay on and scribe."""
    blank, planned = plan.blank, any(plan.now.cut.values())
    cut = plan.now.cut if planned else plan.ready
    left, bottom = plan.now.cut["left"], plan.now.cut["bottom"]
    right, top = blank.width - plan.now.cut["right"], blank.height - plan.now.cut["top"]
    marks = []
    for side, start, end in (
        ("left", (cut["left"], 0.0), (cut["left"], blank.height)),
        ("right", (blank.width - cut["right"], 0.0), (blank.width - cut["right"], blank.height)),
        ("bottom", (0.0, cut["bottom"]), (blank.width, cut["bottom"])),
        ("top", (0.0, blank.height - cut["top"]), (blank.width, blank.height - cut["top"])),
    ):
        if cut[side] > 1e-5:
            inward = 0.085 if side in ("left", "bottom") else -0.05
            middle = (
                (start[0] + end[0]) / 2 + (inward if side in ("left", "right") else 0.0),
                (start[1] + end[1]) / 2 + (inward / 2 if side in ("bottom", "top") else 0.0),
            )
            marks += [Mark(start, "", end), Mark(middle, f"{side} {both(cut[side], 'length')}")]
    marks += [Mark((x, y), f"fan {number}: ring, do not cut") for number, (x, y, _) in enumerate(blank.rings, 1)]
    return Pattern(
        f"Shroud trim, {package.name}",
        "as bought",
        (rectangle(left, bottom, max(right - left, 1e-3), max(top - bottom, 1e-3)),),
        tuple(Hole((x, y), d, "bolt") for k, (x, y, d) in enumerate(blank.holes, 1) if k not in plan.now.lost),
        tuple(Hole((x, y), 2 * r, "ring") for x, y, r in blank.rings),
        marks=tuple(marks),
    )
