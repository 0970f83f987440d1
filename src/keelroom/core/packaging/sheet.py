"""Sheet metal: bend allowance, smallest bend radius, plates that drum.

Sources: straight lengths for 90° bends and smallest radii as in Machinery's Handbook and aluminium fabrication tables,
from memory; plate frequency and stiffness as in Roark and Blevins, from memory.
"""

from __future__ import annotations

import math
from typing import NamedTuple

INCH = 0.0254
RIGHT = math.pi / 2


class Metal(NamedTuple):
    """A sheet metal. bend: metal's share of the 90° straight length, L = bend·t + 1.57·r; radii: smallest inside
    radius over thickness for a 90° bend at 1/32, 1/16 and 1/8 in; young, strength [Pa]; density [kg/m3]; growth
    [1/K]; hard: cracks readily."""

    key: str
    name: str
    bend: float
    radii: tuple[float, float, float]
    young: float
    strength: float
    density: float
    growth: float


METALS: dict[str, Metal] = {
    metal.key: metal
    for metal in (
        Metal("al_3003", "Aluminium 3003-H14 (soft)", 0.64, (0.0, 0.0, 1.0), 69e9, 145e6, 2730, 23.2e-6),
        Metal("al_5052", "Aluminium 5052-H32", 0.64, (0.5, 1.0, 1.5), 70e9, 193e6, 2680, 23.8e-6),
        Metal("al_6061", "Aluminium 6061-T6 (hard)", 0.64, (1.0, 1.5, 3.0), 69e9, 276e6, 2700, 23.6e-6),
        Metal("steel", "Mild steel", 0.64, (1.0, 1.0, 1.0), 205e9, 250e6, 7850, 11.7e-6),
    )
}
THICKNESSES = (INCH / 32, INCH / 16, INCH / 8)


def neutral_share(metal: Metal) -> float:
    """The K-factor: where through the thickness the neutral line runs, from the inside.

    0..0.5. Source: from the straight length.
    """
    return metal.bend / RIGHT


def bend_allowance(metal: Metal, thickness: float, radius: float, angle: float = RIGHT) -> float:
    """Length [m] of flat metal a bend takes up. thickness, radius (inside) [m]; angle [rad] turned, 0..π.

    Source: Machinery’s Handbook, from memory.
    """
    return angle * (radius + neutral_share(metal) * thickness)


def bend_deduction(metal: Metal, thickness: float, radius: float, angle: float = RIGHT) -> float:
    """What to take off the sum of two outside leg lengths [m] for the flat length.

    Source: geometry of the outside setback.
    """
    return 2 * (radius + thickness) * math.tan(angle / 2) - bend_allowance(metal, thickness, radius, angle)


def smallest_radius(metal: Metal, thickness: float) -> float:
    """Smallest inside radius [m] for a 90° bend, between the tabled thicknesses by straight line, beyond them by the
    last share.

    Source: aluminium tables, from memory.
    """
    share = metal.radii[0]
    for (t0, r0), (t1, r1) in zip(
        zip(THICKNESSES, metal.radii, strict=True), list(zip(THICKNESSES, metal.radii, strict=True))[1:], strict=False
    ):
        if thickness >= t0:
            share = r0 + (r1 - r0) * min((thickness - t0) / (t1 - t0), 1.0)
    return share * thickness


CRACK_PRONE = 0.9 * INCH / 8
"""[m] aluminium from about 1/8 in on cracked when bent to 90° in one piece (common practice)."""


def cracks(metal: Metal, thickness: float, radius: float) -> str:
    """Why this bend may crack; '' where it should not.

    thickness, radius [m]; 'radius', 'thick' or ''. Source: tables, and common practice for thick metal.
    """
    least = smallest_radius(metal, thickness)
    if radius < least - 1e-6:
        return "radius"
    if metal.key.startswith("al") and metal.key != "al_3003" and thickness >= CRACK_PRONE and radius < 1.5 * least:
        return "thick"
    return ""


BEAD_WIDE = 4.0
"""A bead is so many times as wide as it is high (common practice)."""
BEAD_SHARE = 0.25
"""Share of a panel that a row of beads takes up (common practice)."""


class Beads(NamedTuple):
    """Beads pressed into a field. height [m]; share of the field's width that lies in them; short [m] they end before
    each edge."""

    height: float
    share: float = BEAD_SHARE
    short: float = 0.0


def plate_frequency(metal: Metal, thickness: float, along: float, over: float, beads: Beads | None = None) -> float:
    """Lowest frequency [Hz] of a panel held at its folded edges (simply supported), stiffer the way its beads run.

    along, over : sides [m], the one beads run along first
    Source: an orthotropic plate, Leissa, from memory; where beads end short the way is as soft as its parts one after
            the other,
    each weighed by the square of the bending there.
    """
    stiff = metal.young * thickness**3 / (12 * (1 - 0.3**2))
    way = stiff
    if beads is not None and beads.height > 0:
        beaded = stiff + metal.young * beads.share * thickness * (beads.height / 2) ** 2
        end = min(beads.short / along, 0.5)
        inside = 1 - 2 * end + math.sin(math.tau * end) / math.pi
        way = 1 / (inside / beaded + (1 - inside) / stiff)
    modes = way / along**4 + 2 * stiff / (along * over) ** 2 + stiff / over**4
    return math.pi / 2 * math.sqrt(modes / (metal.density * thickness))


def edge_sag(metal: Metal, thickness: float, length: float, fold: float, load: float) -> float:
    """Sag [m] at the middle of an edge strip as long as `length` that carries `load` [N] spread along it, simply
    supported.

    fold : height [m] of the folded edge, 0 for a bare one; the strip counts as 30 thicknesses wide
    Source: Roark, 5/384 of a beam, from memory.
    """
    strip = 30 * thickness
    inertia = strip * thickness**3 / 12
    if fold > thickness:
        flat, web = strip * thickness, fold * thickness
        middle = (flat * thickness / 2 + web * (thickness + fold / 2)) / (flat + web)
        inertia = strip * thickness**3 / 12 + flat * (middle - thickness / 2) ** 2
        inertia += thickness * fold**3 / 12 + web * (thickness + fold / 2 - middle) ** 2
    return 5 * load * length**3 / (384 * metal.young * inertia)
