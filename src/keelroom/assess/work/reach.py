"""How each bolt of a bracket is reached: from which side, with what, and what stands before it there."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.assess.fit.bodies import Body
from keelroom.assess.fit.mounts import anchors
from keelroom.assess.fit.moves import moved_bodies, unmoved
from keelroom.assess.fit.package_bodies import parts_of_package
from keelroom.assess.fit.points import SIDES as FACES
from keelroom.assess.fit.points import Anchor
from keelroom.core.arrays import Floats
from keelroom.core.kept import by_identity
from keelroom.core.packaging.fixings import BOLTS
from keelroom.core.packaging.solids import Solids, Vector, along, chosen, parted, stacked
from keelroom.document.schema.mounts import Bracket
from keelroom.document.schema.package import Package
from keelroom.document.schema.survey import Survey
from keelroom.units import both

DRIVER, SHAFT, OFF = 0.15, 0.012, 0.004
"""[m] a driver with its bit and a hand wants in line with a bolt; its radius; how far off the metal it begins (common
practice)."""
STUBBY = 0.05
"""[m] a short key or a ratchet with its bit gets by with (common practice)."""
STRIDE, ON = 0.005, 0.001
"""[m] a driver's room is found to; a point this near a body lies on it."""
AXIS = {"side": 0, "up": 1, "front": 2}
SIDES = {
    (0, -1): "the left",
    (0, 1): "the right",
    (1, -1): "below",
    (1, 1): "above",
    (2, -1): "ahead",
    (2, 1): "behind",
}
Words = tuple[tuple[str, str], ...]


class Way(NamedTuple):
    """Along a bolt from one side. room [m] until a body stands in the way, DRIVER at most;  before : that body"""

    side: str
    room: float
    before: str


class Around(NamedTuple):
    """What stands around: names, and solids (n,) in their order."""

    names: tuple[str, ...]
    solids: Solids


def reached(survey: Survey, package: Package, bracket: Bracket) -> Words:
    """What the step of bolting a bracket up says: which way its bolts are reached, the tools, the torque."""
    bolt, there, around = BOLTS[bracket.bolt], anchors(survey, package), _around(survey, package)
    ends = [there[key] for key in (bracket.start, bracket.end, *bracket.starts, *bracket.ends) if key in there]
    told = "; ".join(dict.fromkeys(_told(one, ways(one, around)) for one in ends))
    return (
        ("bolts", bolt.name),
        ("reach", told or "its points are not placed yet"),
        ("tight", f"{bolt.torque:g} N·m at most" if bolt.torque else "snug by hand, short key"),
        ("tools", f"{bolt.key_size} hex key, {bolt.nut_size} spanner"),
        ("wrench", "torque wrench" if bolt.torque else ""),
    )


def _told(anchor: Anchor, found: tuple[Way, ...]) -> str:
    """One bolt in words: the side it is turned from and, where that is short of room, what takes it."""
    best, words = found[0], anchor.words[:1].lower() + anchor.words[1:]
    if not best.before:
        return f"{words} from {best.side}"
    room = both(best.room, "length")
    if best.room >= STUBBY:
        return f"{words} from {best.side}, {room} before {best.before}: a short key"
    return f"{words} is blocked, {room} before {best.before}: bolt it up before that is in, or leave it loose till then"


@by_identity(16)
def _around(survey: Survey, package: Package) -> Around:
    """What a driver can run into: the package's own parts and the neighbours where they stand now."""
    others = (*unmoved(survey, package), *moved_bodies(survey, package.moves, package.id))
    # The hood is open while a bolt is turned.
    return around_of((*parts_of_package(survey, package), *(body for body in others if body.sort != "hood")))


def around_of(bodies: tuple[Body, ...]) -> Around:
    """Bodies as what a driver can run into."""
    return Around(tuple(body.name for body in bodies), stacked([body.solid for body in bodies]))


def ways(anchor: Anchor, around: Around) -> tuple[Way, ...]:
    """Along the bolt at a point from the sides it can be turned from, the one with more room first."""
    axis = AXIS[anchor.faces]
    sort, _, place = anchor.key.partition(":")
    signs = (FACES[place.rpartition(":")[2]][1],) if sort == "neighbour" else (-1, 1)
    # A driver goes to the part it holds, not into it.
    free = np.flatnonzero(_gaps(around.solids, anchor.at, _off(anchor.at, 2, 1e-4), ON) > 0)
    ahead = Around(tuple(around.names[k] for k in free), chosen(around.solids, free))
    return tuple(sorted((_way(anchor, axis, sign, ahead) for sign in signs), key=lambda way: -way.room))


def _way(anchor: Anchor, axis: int, sign: int, around: Around) -> Way:
    side, most, before = SIDES[axis, sign], DRIVER, ""
    if anchor.faces == "front" and sign > 0 and anchor.behind is not None and anchor.behind < most:
        most, before = anchor.behind, "what was measured behind it"
    start = _off(anchor.at, axis, sign * OFF)
    lengths = [*np.arange(2 * STRIDE, most, STRIDE).tolist(), most]
    if not around.names or _gaps(around.solids, start, _off(anchor.at, axis, sign * most), SHAFT).min() >= 0:
        return Way(side, most, before)
    for length in lengths:
        gaps = _gaps(around.solids, start, _off(anchor.at, axis, sign * length), SHAFT)
        if gaps.min() < 0:
            return Way(side, length - STRIDE, around.names[int(gaps.argmin())])
    return Way(side, most, before)


def _gaps(solids: Solids, start: Vector, end: Vector, radius: float) -> Floats:
    """Gap [m] of a straight shaft to each of the solids (n,)."""
    return parted(chosen(stacked([along(start, end, radius)]), np.zeros(len(solids.round), int)), solids)[0]


def _off(at: Vector, axis: int, far: float) -> Vector:
    moved = list(at)
    moved[axis] += far
    return moved[0], moved[1], moved[2]
