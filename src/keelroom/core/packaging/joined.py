"""Two bought shrouds made one pan, and a bought shroud given another fan's ring."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.core.outline import circle, rectangle
from keelroom.core.packaging.pattern import Hole, Mark, Pattern
from keelroom.core.packaging.shroud import FASTENER_PITCH, FLANGE_HOLE, WEB
from keelroom.facts import Fault, fact
from keelroom.units import both

RING_LAP = 0.02
"""[m] an adapter ring laps the shroud round its opening (common practice: 3/4 in)."""
STRIP = 0.04
"""[m] a strip behind a joint made edge to edge is wide (common practice: 1 1/2 in)."""
LAP_LEAST = 0.012
"""[m] under which a lap takes no row of rivets (common practice: 1/2 in)."""


class Halves(NamedTuple):
    """Two shrouds side by side. widths [m] over their flanges as bought, left and right; height; trim: off each where
    they meet; lap [m]."""

    widths: tuple[float, float]
    height: float
    trim: float
    lap: float

    @property
    def width(self) -> float:
        """Over the flanges of the two together [m]."""
        return sum(self.widths) - 2 * self.trim - self.lap

    @property
    def middles(self) -> tuple[float, float]:
        """Where the middle of each comes to lie from the left edge of the pan [m]."""
        left, right = self.widths
        return left / 2, self.width - right / 2

    @property
    def join(self) -> tuple[float, float]:
        """Where the lap begins and ends from the left edge [m]; the same place edge to edge."""
        edge = self.widths[0] - self.trim
        return edge - self.lap, edge


def join_faults(halves: Halves, rings: tuple[tuple[float, float, float], ...]) -> tuple[Fault, ...]:
    """Why they cannot be joined so: the measure each fault is at, the trim or the lap of the joint. rings: x from the
    pan's left edge, y, radius [m], of the left and the right one.

    Source: WEB and LAP_LEAST common practice.
    """
    faults = []
    begin, end = halves.join
    for number, (x, _, radius) in enumerate(rings, 1):
        own = end if x <= (begin + end) / 2 else begin
        room = abs(own - x) - radius
        if room < WEB - 1e-9:
            faults.append(
                Fault(
                    "join_trim",
                    fact(
                        "join_cuts_ring" if room < 0 else "join_near_ring",
                        left=(room, "length"),
                        number=number,
                        web=(WEB, "length"),
                    ),
                )
            )
    if len(rings) == 2 and math.dist(rings[0][:2], rings[1][:2]) < rings[0][2] + rings[1][2]:
        faults.append(Fault("join_trim", fact("rings_meet")))
    if 0 < halves.lap < LAP_LEAST:
        faults.append(Fault("lap", fact("lap_short", lap=(halves.lap, "length"), wanted=(LAP_LEAST, "length"))))
    if halves.trim >= min(halves.widths) / 2:
        faults.append(Fault("join_trim", fact("nothing_left_of_one")))
    return tuple(faults)


def half_patterns(name: str, halves: Halves, rings: tuple[tuple[float, float, float], ...]) -> tuple[Pattern, ...]:
    """Each shroud face on with the line it is trimmed to, the lap marked and drilled, and the strip of a joint
    without one.

    [m]. Source: FASTENER_PITCH common practice.
    """
    found = []
    count = max(round(halves.height / FASTENER_PITCH), 2)
    rows = [(k + 0.5) * halves.height / count for k in range(count)]
    starts = (0.0, halves.width - halves.widths[1])
    for k, (side, wide) in enumerate(zip(("left", "right"), halves.widths, strict=True)):
        left = 0.0 if k == 0 else halves.trim
        kept = wide - halves.trim
        seam = kept - halves.lap / 2 if k == 0 else left + halves.lap / 2
        edge = kept if k == 0 else left
        own = [(x - starts[k], y, r) for x, y, r in rings if 0 <= x - starts[k] <= wide]
        marks = [
            Mark((edge, 0.0), "", (edge, halves.height)),
            Mark((left + kept / 2, 0.03), f"{side} shroud: trim {both(halves.trim, 'length')} off, seal channel too"),
        ]
        if halves.lap > 0:
            inner = kept - halves.lap if k == 0 else left + halves.lap
            marks.append(Mark((inner, 0.0), "lap", (inner, halves.height)))
        found.append(
            Pattern(
                f"{name}, {side} half",
                "as bought",
                (rectangle(left, 0.0, kept, halves.height),),
                tuple(Hole((seam, y), FLANGE_HOLE, "joint") for y in rows) if halves.lap > 0 else (),
                tuple(Hole((x, y), 2 * r, "ring") for x, y, r in own),
                marks=tuple(marks),
            )
        )
    if halves.lap <= 0:
        holes = tuple(Hole((x, y), FLANGE_HOLE, "joint") for y in rows for x in (STRIP / 4, 3 * STRIP / 4))
        found.append(
            Pattern(
                f"{name}, strip behind the joint",
                "sheet or plastic",
                (rectangle(0.0, 0.0, STRIP, halves.height),),
                holes,
                marks=(Mark((STRIP / 2, halves.height / 2), "strip"),),
            )
        )
    return tuple(found)


class Ring(NamedTuple):
    """An adapter ring. opening: of the shroud as bought; wanted: of the fan it is to take [m]."""

    opening: float
    wanted: float


def ring_pattern(name: str, ring: Ring, material: str, copies: int = 1) -> Pattern | None:
    """The ring that makes an opening smaller, lapping it all round; None where the opening is cut larger instead.

    [m]. Source: RING_LAP common practice.
    """
    if ring.wanted >= ring.opening - 1e-9:
        return None
    outer = ring.opening / 2 + RING_LAP
    bolts = 8
    holes = tuple(Hole(at, FLANGE_HOLE, "ring") for at in circle((outer, outer), outer - RING_LAP / 2, bolts))
    wide = ring.opening / 2 - ring.wanted / 2 + RING_LAP
    return Pattern(
        name,
        material,
        (circle((outer, outer), outer, 120),),
        holes,
        (Hole((outer, outer), ring.wanted, "fan"),),
        marks=(Mark((outer, 2 * outer - wide / 2), name),),
        copies=copies,
    )
