"""Bolts, holes, straps, pads: what a mount needs to hold and to let the core grow."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.core.packaging.sheet import INCH, Metal

GRAVITY = 9.80665


class Bolt(NamedTuple):
    """A bolt and its clearance holes [m]: close, medium, coarse. torque: at most [N·m] into a mount of this kind, None where not known."""

    key: str
    name: str
    diameter: float
    holes: tuple[float, float, float]
    torque: float | None = None


BOLTS: dict[str, Bolt] = {
    bolt.key: bolt
    for bolt in (
        Bolt("m5", "M5", 5e-3, (5.3e-3, 5.5e-3, 5.8e-3)),
        Bolt("m6", "M6", 6e-3, (6.4e-3, 6.6e-3, 7.0e-3)),
        Bolt("m8", "M8", 8e-3, (8.4e-3, 9.0e-3, 10.0e-3), 25.0),
        Bolt("in14", "1/4 in", INCH / 4, (0.266 * INCH, 0.281 * INCH, 0.297 * INCH)),
        Bolt("in516", "5/16 in", 5 * INCH / 16, (0.328 * INCH, 0.344 * INCH, 0.359 * INCH), 25.0),
    )
}
"""Metric holes after ISO 273, inch ones after ASME B18.2.8, from memory."""


def play(bolt: Bolt, hole: float) -> float:
    """How far [m] the part can be shifted either way in its hole; negative where the bolt does not pass."""
    return (hole - bolt.diameter) / 2


def edge_wanted(hole: float) -> tuple[float, float]:
    """Least and good distance [m] from a hole's centre to an edge: 1.5 and 2 diameters (common practice)."""
    return 1.5 * hole, 2.0 * hole


class Strap(NamedTuple):
    """What a strap does under a shock. stress, strength [Pa]; sag [m]; frequency [Hz] of the mass on it; safety: strength over stress."""

    stress: float
    sag: float
    frequency: float
    safety: float


def strap(metal: Metal, width: float, thickness: float, reach: float, mass: float, shock: float, stiffener: float = 0.0) -> Strap:
    """A strap held at one end with a mass at the other, shaken across its flat side.

    width, thickness, reach [m]; mass [kg] on this strap; shock [g]; stiffener: height [m] of a rib along it, 0 none
    Source: end-loaded cantilever, Roark: M = F·l, sag = F·l³/(3·E·I), from memory
    """
    inertia, outer = width * thickness**3 / 12, thickness / 2
    if stiffener > 0:
        flat, rib = width * thickness, thickness * stiffener
        middle = (flat * thickness / 2 + rib * (thickness + stiffener / 2)) / (flat + rib)
        inertia += flat * (middle - thickness / 2) ** 2 + thickness * stiffener**3 / 12 + rib * (thickness + stiffener / 2 - middle) ** 2
        outer = thickness + stiffener - middle
    force = mass * GRAVITY * shock
    stress = force * reach * outer / inertia
    stiffness = 3 * metal.young * inertia / reach**3
    return Strap(stress, force / stiffness, math.sqrt(stiffness / max(mass, 1e-9)) / (2 * math.pi), metal.strength / max(stress, 1.0))


PAD_LEAST, PAD_MOST = 0.10, 0.30
"""Squeeze of a rubber pad or grommet that holds without going hard (common practice)."""


def growth(length: float, warming: float, coefficient: float) -> float:
    """How far [m] a part grows. length [m], warming [K], coefficient [1/K]."""
    return length * warming * coefficient
