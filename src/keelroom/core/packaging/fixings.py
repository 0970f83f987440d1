"""Bolts, holes, straps, pads: what a mount needs to hold and to let the core grow."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.core.packaging.sheet import INCH, Metal

GRAVITY = 9.80665
DRUMS_UNDER = 30.0
"""[Hz] a panel that swings slower follows the fan's own shake and drums (common practice)."""
FLOPPY, HAND = 3e-3, 2.0 * GRAVITY
"""[m] sag of an edge under a hand's weight [N] that feels flimsy (common practice)."""


class Bolt(NamedTuple):
    """A bolt and its clearance holes [m]: close, medium, coarse. torque: at most [N·m] into a mount of this kind,
    None where not known. key_size, nut_size: what turns its button head and its nut."""

    key: str
    name: str
    diameter: float
    holes: tuple[float, float, float]
    torque: float | None = None
    key_size: str = ""
    nut_size: str = ""


BOLTS: dict[str, Bolt] = {
    bolt.key: bolt
    for bolt in (
        Bolt("m5", "M5", 5e-3, (5.3e-3, 5.5e-3, 5.8e-3), None, "3 mm", "8 mm"),
        Bolt("m6", "M6", 6e-3, (6.4e-3, 6.6e-3, 7.0e-3), None, "4 mm", "10 mm"),
        Bolt("m8", "M8", 8e-3, (8.4e-3, 9.0e-3, 10.0e-3), 25.0, "5 mm", "13 mm"),
        Bolt("in14", "1/4 in", INCH / 4, (0.266 * INCH, 0.281 * INCH, 0.297 * INCH), None, "5/32 in", "7/16 in"),
        Bolt("in516", "5/16 in", 5 * INCH / 16, (0.328 * INCH, 0.344 * INCH, 0.359 * INCH), 25.0, "3/16 in", "1/2 in"),
    )
}
"""Metric holes after ISO 273, inch ones after ASME B18.2.8; keys of button heads after ISO 7380 and ASME B18.3, widths
across flats after ISO 4032 and ASME B18.2.2; all from memory."""


def play(bolt: Bolt, hole: float) -> float:
    """How far [m] the part can be shifted either way in its hole; negative where the bolt does not pass.

    Source: definition.
    """
    return (hole - bolt.diameter) / 2


def edge_wanted(hole: float) -> tuple[float, float]:
    """Least and good distance [m] from a hole's centre to an edge: 1.5 and 2 diameters (common practice)."""
    return 1.5 * hole, 2.0 * hole


SIDE = 1.2
"""Least distance from a hole's centre to a strip's side, in diameters: EN 1993-1-8 table 3.3, from memory; a strip is
loaded along itself."""


class Strap(NamedTuple):
    """What a strap does under a shock. stress, strength [Pa]; sag [m]; frequency [Hz] of the mass on it; safety:
    strength over stress."""

    stress: float
    sag: float
    frequency: float
    safety: float


class Section(NamedTuple):
    """A strap's section [m]: width, thickness, and the height of a rib along it, 0 none."""

    width: float
    thickness: float
    rib: float = 0.0

    def bending(self) -> tuple[float, float]:
        """Second moment of area [m4] across its flat side, and how far its outermost fibre lies out [m]."""
        flat = self.width * self.thickness
        inertia, outer = flat * self.thickness**2 / 12, self.thickness / 2
        if self.rib > 0:
            rib = self.thickness * self.rib
            middle = (flat * self.thickness / 2 + rib * (self.thickness + self.rib / 2)) / (flat + rib)
            inertia += flat * (middle - self.thickness / 2) ** 2 + rib * self.rib**2 / 12
            inertia += rib * (self.thickness + self.rib / 2 - middle) ** 2
            outer = max(middle, self.thickness + self.rib - middle)
        return inertia, outer


class Beam(NamedTuple):
    """A strap as a beam: its plain section, the one with its rib, and where the rib lies, as shares of the reach from
    the part's end."""

    plain: Section
    ribbed: Section | None = None
    span: tuple[float, float] = (0.0, 0.0)

    def pieces(self, reach: float) -> list[tuple[float, float, Section]]:
        """Stretches [m] of one section each."""
        a, b = self.span
        cuts = [(0.0, a, self.plain), (a, b, self.ribbed or self.plain), (b, 1.0, self.plain)]
        return [(start * reach, end * reach, section) for start, end, section in cuts if end > start]


def strap(metal: Metal, beam: Beam, reach: float, mass: float, shock: float, guided: bool = False) -> Strap:
    """A strap held at the chassis with a mass at its other end, shaken across its flat side.

    reach [m]; mass [kg] on this strap; shock [g]; guided: the mass cannot turn, other straps hold it level: both ends
    bend
    Source: Roark, from memory: the moment F·s over E·I summed twice (Castigliano), each stretch in closed form; one
            section gives
    F·l³/(3·E·I), with its end guided F·l³/(12·E·I)
    """
    pieces = beam.pieces(reach)
    force = mass * GRAVITY * shock
    compliances = [(a, b, 1 / (metal.young * section.bending()[0])) for a, b, section in pieces]
    held = (
        sum(c * (b**2 - a**2) / 2 for a, b, c in compliances) / sum(c * (b - a) for a, b, c in compliances)
        if guided
        else 0.0
    )
    # Per newton: M = s - held, and the load's own way is the sum of M·s over E·I.
    give = sum(c * ((b**3 - a**3) / 3 - held * (b**2 - a**2) / 2) for a, b, c in compliances)
    stress = max(
        force * max(abs(a - held), abs(b - held)) * section.bending()[1] / section.bending()[0]
        for a, b, section in pieces
    )
    return Strap(
        stress, force * give, math.sqrt(1 / (give * max(mass, 1e-9))) / (2 * math.pi), metal.strength / max(stress, 1.0)
    )


ROOT = 0.84
"""A coarse thread's core over its diameter (common practice)."""


class Round(NamedTuple):
    """A round section [m]: outside and inside diameter, 0 solid."""

    outside: float
    inside: float = 0.0

    def bending(self) -> tuple[float, float]:
        """Second moment of area [m4] and how far its outermost fibre lies out [m]."""
        return math.pi / 64 * (self.outside**4 - self.inside**4), self.outside / 2


def post(metal: Metal, section: Round, length: float, mass: float, shock: float) -> Strap:
    """A stud or stand-off as a cantilever with the mass at its end, shaken across it.

    length [m]; mass [kg]; shock [g]. Source: Roark, from memory: M = F·l, sag = F·l³/(3·E·I)
    """
    inertia, outer = section.bending()
    force, long = mass * GRAVITY * shock, max(length, 1e-4)
    stress = force * long * outer / inertia
    stiffness = 3 * metal.young * inertia / long**3
    return Strap(
        stress,
        force / stiffness,
        math.sqrt(stiffness / max(mass, 1e-9)) / (2 * math.pi),
        metal.strength / max(stress, 1.0),
    )


def pressed(metal: Metal, section: Section, lever: float, angle: float) -> tuple[float, float]:
    """Force [N] a strap bent past flat presses with once it is bolted up, and the stress [Pa] at its bend.

    lever [m] from the bend to the far hole; angle [rad] past flat. Source: Roark, from memory: F = 3·E·I·angle/l²
    """
    inertia, outer = section.bending()
    force = 3 * metal.young * inertia * angle / max(lever, 1e-4) ** 2
    return force, force * lever * outer / inertia


PAD_LEAST, PAD_MOST = 0.10, 0.30
"""Squeeze of a rubber pad or grommet that holds without going hard (common practice)."""


def growth(length: float, warming: float, coefficient: float) -> float:
    """How far [m] a part grows. length [m], warming [K], coefficient [1/K].

    Source: definition of the coefficient.
    """
    return length * warming * coefficient
