"""Brackets and straps from one hole to another: a strip bent along a line of corners, its flat length, bends, holes
and rib.

A strip is told by its middle line: corners from the first hole to the last, in the plane it is bent in. Flat,
joggled, arched straps and Ls are all such lines.
"""

from __future__ import annotations

import itertools
import math
from typing import NamedTuple

from keelroom.core.outline import Point, rectangle
from keelroom.core.packaging.fixings import SIDE, edge_wanted
from keelroom.core.packaging.pattern import Bend, Hole, Mark, Pattern, Slot
from keelroom.core.packaging.sheet import Metal, bend_allowance
from keelroom.facts import Fact, fact
from keelroom.units import fine_both

STEEPEST = math.radians(60)
"""[rad] a joggle is not bent further than this: beyond it two right angles are easier made."""
GENTLEST = math.radians(20)
RIB_CLEAR = 2.0
"""A rib ends so many thicknesses short of a bend (common practice: it must not run through it)."""
RIB_LEAST = 3.0
"""Under so many times its height a rib is too short to stiffen anything (common practice)."""
WASHER = 1.5
"""A wide washer reaches so many hole diameters from the hole's middle; a rib ends at it, and what lies under it is
clamped (common practice)."""
BUMP_CLEAR = 3e-3
"""[m] an arch clears its bump by (common practice: about 1/8 in)."""
ROUNDED = 5e-5
"""[m] a hole may be nearer an edge than wanted: a twentieth of a millimetre is nobody's measure."""
ALIKE = 1e-6
"""[m] two holes nearer than this are one."""


class Stock(NamedTuple):
    """What a bracket is made from. width, thickness, radius (inside, of its bends) [m]; rib: height [m] of a strip
    welded on edge along its longest flat; 0 none."""

    metal: Metal
    width: float
    thickness: float
    radius: float
    rib: float = 0.0

    @property
    def middle(self) -> float:
        """Radius [m] of a bend at the middle of the metal."""
        return self.radius + self.thickness / 2


class Ends(NamedTuple):
    """Its holes. near, far: hole diameter [m]; edge: from each hole's centre to the strip's end [m]; slot: travel [m]
    at the far hole;
    many: holes at the near end, pitch [m] apart, away from the far one."""

    near: float
    far: float
    edge: float
    slot: float = 0.0
    many: int = 1
    pitch: float = 0.0


class Made(NamedTuple):
    """A bracket as it is made. kind: flat, joggle, arch or L; developed [m]; faults: why it cannot be made, none
    where it can; reach [m]: from hole to hole along the flat side, what a shock bends; mass [kg] of the bracket
    itself; rib: its own piece;
    ribbed: share of the reach, from the near hole, that the rib lies on; lever [m]: from the first bend to the far
            hole."""

    kind: str
    pattern: Pattern
    developed: float
    faults: tuple[Fact, ...]
    reach: float
    mass: float
    rib: Pattern | None = None
    ribbed: tuple[float, float] = (0.0, 0.0)
    lever: float = 0.0

    @property
    def patterns(self) -> tuple[Pattern, ...]:
        """Every piece of it."""
        return (self.pattern,) if self.rib is None else (self.pattern, self.rib)


def flat_or_joggle(name: str, run: float, offset: float, stock: Stock, ends: Ends, press: float = 0.0) -> Made:
    """A strap between two holes whose faces are parallel. run, offset [m]: along and out of the first face; press
    [rad]: past flat.

    Source: Machinery’s Handbook straight lengths, from memory; STEEPEST common practice.
    """
    if math.hypot(run, offset) < ALIKE:
        return _strip("flat", name, ((0.0, 0.0), (2 * ends.edge, 0.0)), (stock, ends), press, fact("same_point"))
    if abs(offset) < ALIKE:
        return _strip("flat", name, ((0.0, 0.0), (run, 0.0)), (stock, ends), press, None)
    clear, middle = clear_of_bend(stock, ends), stock.middle
    # The gentlest bends leave the strap straightest; steeper ones are taken only where the run is too short for them.
    angle, slope, room = 0.0, 0.0, 0.0
    for angle in _angles():
        slope = (abs(offset) - 2 * middle * (1 - math.cos(angle))) / math.sin(angle)
        room = (run - 2 * middle * math.sin(angle) - slope * math.cos(angle)) / 2
        if slope >= 0 and room >= clear:
            break
    fault = None
    if slope < 0:
        fault = fact("no_room_offset", offset=(offset, "length"), radius=(stock.radius, "length"))
    elif room < clear:
        need = run + 2 * (clear - room)
        fault = fact("no_room_run", run=(run, "length"), need=(need, "length"))
    across = abs(offset) / math.tan(angle)
    first = (run - across) / 2
    return _strip(
        "joggle", name, ((0.0, 0.0), (first, 0.0), (first + across, offset), (run, offset)), (stock, ends), press, fault
    )


class Bump(NamedTuple):
    """What a strap has to clear. at: its middle from the first hole; width; height over the face the first hole lies
    in [m]."""

    at: float
    width: float
    height: float


def arch(name: str, run: float, offset: float, bump: Bump, stock: Stock, ends: Ends, press: float = 0.0) -> Made:
    """A strap bent up over a bump and down again, clear of it by BUMP_CLEAR. run, offset [m] as of a joggle.

    Source: as `flat_or_joggle`.
    """
    rise, clear, middle = bump.height + BUMP_CLEAR, clear_of_bend(stock, ends), stock.middle
    room, corners = (-math.inf, -math.inf), ((0.0, 0.0), (run, offset))
    for angle in _angles():
        back = middle * math.tan(angle / 2)
        up, down = rise / math.tan(angle), (rise - offset) / math.tan(angle)
        b, c = bump.at - bump.width / 2 - back, bump.at + bump.width / 2 + back
        a, d = b - up, c + down
        corners = ((0.0, 0.0), (a, 0.0), (b, rise), (c, rise), (d, offset), (run, offset))  # type: ignore[assignment]
        room = (a - back, run - d - back)
        if min(room) >= clear and min(rise, rise - offset) / math.sin(angle) >= 2 * back:
            return _strip("arch", name, corners, (stock, ends), press, None)
    words, short = ("first", clear - room[0]) if room[0] <= room[1] else ("last", clear - room[1])
    fault = fact("no_room_arch", short=(max(short, 0.0), "length"), hole=words)
    if min(rise, rise - offset) < 2 * middle * (1 - math.cos(STEEPEST)):
        fault = fact("bump_low")
    return _strip("arch", name, corners, (stock, ends), press, fault)


def angle_bracket(
    name: str, legs: tuple[float, float], stock: Stock, ends: Ends, press: float = 0.0, up: bool = True
) -> Made:
    """An L between two holes whose faces stand square to each other. legs [m]: from each hole to the outside corner.

    up : whether its second leg stands up from the first one's face. Source: Machinery’s Handbook straight lengths,
         from memory.
    """
    half, setback = stock.thickness / 2, stock.radius + stock.thickness
    fault = None
    for leg, which in zip(legs, ("first", "second"), strict=True):
        need = setback + clear_of_bend(stock, ends)
        if leg < need - 1e-9:
            fault = fact("no_room_leg", which=which, leg=(leg, "length"), need=(need, "length"))
    first, second = (leg - half for leg in legs)
    sign = 1.0 if up else -1.0
    return _strip("L", name, ((0.0, 0.0), (first, 0.0), (first, sign * second)), (stock, ends), press, fault, max(legs))


def _angles() -> list[float]:
    return [
        math.radians(degrees) for degrees in range(round(math.degrees(GENTLEST)), round(math.degrees(STEEPEST)) + 1, 5)
    ]


def clear_of_bend(stock: Stock, ends: Ends) -> float:
    """From where a bend ends to a hole's centre, so that the hole stays round [m]: its radius and twice the thickness.

    Source: common practice.
    """
    return max(ends.near, ends.far) / 2 + 2 * stock.thickness


def _turns(corners: tuple[Point, ...]) -> list[float]:
    """Angle turned at each corner between the ends [rad], up positive."""
    ways = [math.atan2(b[1] - a[1], b[0] - a[0]) for a, b in itertools.pairwise(corners)]
    return [(b - a + math.pi) % (2 * math.pi) - math.pi for a, b in itertools.pairwise(ways)]


def _strip(
    kind: str,
    name: str,
    corners: tuple[Point, ...],
    of: tuple[Stock, Ends],
    press: float,
    fault: Fact | None,
    reach: float | None = None,
) -> Made:
    """The strip along a middle line: straights between the bends' ends, the metal each bend takes, holes where the
    line begins and ends."""
    stock, ends = of
    turns = _turns(corners)
    backs = [0.0, *(stock.middle * math.tan(abs(turn) / 2) for turn in turns), 0.0]
    straights = [math.dist(a, b) - backs[k] - backs[k + 1] for k, (a, b) in enumerate(itertools.pairwise(corners))]
    near = ends.edge + (ends.many - 1) * ends.pitch
    at, flats, bends = near, [], []
    for k, straight in enumerate(straights):
        flats.append((at, at + max(straight, 0.0)))
        at += max(straight, 0.0)
        if k < len(turns):
            arc = bend_allowance(stock.metal, stock.thickness, stock.radius, abs(turns[k]))
            bends.append((at + arc / 2, math.degrees(turns[k])))
            at += arc
    far = at
    lever = far - (bends[0][0] if bends else near + clear_of_bend(stock, ends))
    if press:
        # Bolted up flat again, it is as long as if it had not been bent past.
        extra = math.degrees(press)
        bends = (
            [(bends[0][0], bends[0][1] + extra), *bends[1:]] if bends else [(near + clear_of_bend(stock, ends), extra)]
        )
        if len(flats) == 1:
            flats = [(near, bends[0][0]), (bends[0][0], far)]
    return _drawn(
        kind,
        name,
        (near, far),
        tuple(bends),
        flats,
        of,
        (reach if reach is not None else math.dist(corners[0], corners[-1]), lever, fault),
    )


def _drawn(
    kind: str,
    name: str,
    holes: tuple[float, float],
    bends: tuple[tuple[float, float], ...],
    flats: list[tuple[float, float]],
    of: tuple[Stock, Ends],
    told: tuple[float, float, Fact | None],
) -> Made:
    """holes: near and far place along the strip; bends: place along it and degrees; flats: the straights; told:
    reach, lever, fault."""
    (stock, ends), (reach, lever, fault) = of, told
    middle, (near, far) = stock.width / 2, holes
    length = far + ends.edge + ends.slot
    far_end = (far + ends.slot, middle)
    drilled = tuple(Hole((near - k * ends.pitch, middle), ends.near, "part") for k in range(ends.many))
    rib, span = None, (0.0, 0.0)
    marks: tuple[Mark, ...] = (Mark((length / 2, middle), name),)
    if stock.rib > 0:
        rib, span, ribless = _rib(name, flats, stock, ends)
        fault = fault or ribless
        if rib is not None:
            marks = (*marks, Mark((span[0], middle), "rib", (span[1], middle)))
    pattern = Pattern(
        name,
        f"{stock.metal.name}, {fine_both(stock.thickness)}",
        (rectangle(0.0, 0.0, max(length, 1e-3), stock.width),),
        holes=drilled + (() if ends.slot else (Hole((far, middle), ends.far, "chassis"),)),
        slots=(Slot((far, middle), far_end, ends.far),) if ends.slot else (),
        bends=tuple(Bend((at, 0.0), (at, stock.width), degrees, stock.radius) for at, degrees in bends),
        marks=marks,
    )
    ribbed = _stiffened((near, far), span, WASHER * max(ends.near, ends.far)) if rib is not None else (0.0, 0.0)
    mass = (length * stock.width + (rib.bounds[2] * stock.rib if rib else 0.0)) * stock.thickness * stock.metal.density
    return Made(
        kind,
        pattern,
        length,
        tuple(one for one in (fault, _off_the_metal(stock, ends)) if one),
        reach,
        mass,
        rib,
        ribbed,
        lever,
    )


def _stiffened(holes: tuple[float, float], span: tuple[float, float], washer: float) -> tuple[float, float]:
    """The share from hole to hole that a rib stiffens: what lies under a washer at its end is clamped and does not
    bend either."""
    near, far = holes
    between = max(far - near, 1e-9)
    start, end = (span[0] - near) / between, (span[1] - near) / between
    clamped = washer / between + 1e-9
    return (0.0 if start <= clamped else start), (1.0 if end >= 1 - clamped else end)


def _off_the_metal(stock: Stock, ends: Ends) -> Fact | None:
    """Why its holes have too little metal; None where they have enough."""
    biggest, middle = max(ends.near, ends.far), stock.width / 2
    for what, have, least in (("end", ends.edge, edge_wanted(biggest)[0]), ("side", middle, SIDE * biggest)):
        if have < least - ROUNDED:
            return fact(
                "hole_off_metal" if have < biggest / 2 else "hole_near_edge",
                have=(have, "length"),
                of=what,
                biggest=(biggest, "length"),
                least=(least, "length"),
            )
    if ends.many > 1 and ends.pitch < 2 * ends.near - 1e-9:
        return fact(
            "pitch_short", pitch=(ends.pitch, "length"), near=(ends.near, "length"), wanted=(2 * ends.near, "length")
        )
    return None


def _rib(
    name: str, flats: list[tuple[float, float]], stock: Stock, ends: Ends
) -> tuple[Pattern | None, tuple[float, float], Fact | None]:
    """The rib as a piece of its own, where along the strip it is welded, and why there is none."""
    clear, washer = RIB_CLEAR * stock.thickness, WASHER * max(ends.near, ends.far)
    last = len(flats) - 1
    spans = [
        (start + (washer if k == 0 else clear), end - (washer if k == last else clear))
        for k, (start, end) in enumerate(flats)
    ]
    best = max(spans, key=lambda span: span[1] - span[0])
    long = best[1] - best[0]
    if long < RIB_LEAST * stock.rib:
        return (
            None,
            (0.0, 0.0),
            fact("rib_short", long=(max(long, 0.0), "length"), wanted=(RIB_LEAST * stock.rib, "length")),
        )
    piece = Pattern(
        f"{name}, rib (weld on edge)",
        f"{stock.metal.name}, {fine_both(stock.thickness)}",
        (rectangle(0.0, 0.0, long, stock.rib),),
        marks=(Mark((long / 2, stock.rib / 2), "rib"),),
    )
    return piece, best, None
