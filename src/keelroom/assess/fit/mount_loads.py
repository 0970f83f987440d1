"""What hangs on each mount: the package, its fans, a cooler or a neighbour, shared by the mounts that hold the same."""

from __future__ import annotations

import math
from collections import Counter
from typing import NamedTuple

from keelroom.assess.fit.coolers import named
from keelroom.assess.fit.moves import placed
from keelroom.assess.fit.points import framed
from keelroom.assess.inputs.coolers import size_of
from keelroom.assess.placing import core_depth, face_size, over_tanks
from keelroom.core.packaging.sheet import METALS
from keelroom.document.schema.mounts import Bracket
from keelroom.document.schema.package import Package
from keelroom.document.schema.survey import Survey

CORE_DENSITY = {"aluminium": 750.0, "copper_brass": 1300.0}
"""[kg/m3] of a filled core over its whole block, tanks counted as core (common practice)."""
COOLER_DENSITY, NEIGHBOUR_DENSITY = 1000.0, 1000.0
"""[kg/m3] of a filled cooler, and of a horn, a bottle or a brake unit over the box it fills (common practice)."""
FAN_MASS_PER_WATT = 0.012
"""[kg/W] of a fan with its motor (common practice)."""
STEADY = 3
"""Mounts from which what they hold cannot turn on them, so that each bends as a beam held at both ends."""


class HungLoad(NamedTuple):
    """What one mount bears. what: in words; mass [kg] on it; steady: what it holds cannot turn, others hold it too."""

    what: str
    mass: float
    steady: bool


def package_mass(package: Package) -> float:
    """Mass [kg], wet, as typed or estimated from its size."""
    if package.mounting.mass is not None:
        return package.mounting.mass.si
    core = package.core
    return CORE_DENSITY[core.material] * math.prod(over_tanks(core)) * core_depth(core) + fans_mass(package)


def fans_mass(package: Package) -> float:
    """Mass [kg] of the fans with their motors."""
    return sum(FAN_MASS_PER_WATT * fan.power.si for fan in package.fans if fan.power)


def loads_of(survey: Survey, package: Package) -> dict[str, HungLoad]:
    """What each bracket of the package bears, by its id."""
    held = {bracket.id: _held(bracket) for bracket in package.brackets}
    many = Counter(held.values())
    masses = {key: _mass(survey, package, key) for key in many}
    return {
        ident: HungLoad(masses[key][0], masses[key][1] / many[key], many[key] >= STEADY) for ident, key in held.items()
    }


def _held(bracket: Bracket) -> tuple[str, str]:
    """What a bracket holds: a neighbour or a cooler it goes to, the fans between parts of the package, else the
    package."""
    ends = [tuple(end.split(":")) for end in (bracket.start, bracket.end)]
    for sort in ("neighbour", "frame", "cooler"):
        for end in ends:
            if end[0] == sort and len(end) > 1:
                return sort, end[1]
    own = all(end[0] in ("core", "shroud", "ring", "bung") for end in ends)
    return ("fans" if own else "package"), ""


def _mass(survey: Survey, package: Package, key: tuple[str, str]) -> tuple[str, float]:
    """What it is, and its mass [kg]."""
    sort, ident = key
    if sort == "neighbour":
        return _neighbour(survey, package, ident)
    if sort in ("frame", "cooler"):
        frame = next((frame for frame in package.mounting.frames if frame.id == ident), None)
        wanted = (frame.cooler if frame else "") if sort == "frame" else ident
        cooler = framed(package, wanted)
        if cooler is not None:
            wide, high = size_of(cooler, face_size(package))
            return named(cooler).lower(), COOLER_DENSITY * wide * high * cooler.thickness.si
    if sort == "fans":
        sheet = METALS[package.shroud.metal].density * math.prod(face_size(package)) * package.shroud.thickness.si
        return "fans and shroud", fans_mass(package) + sheet
    # Fans that stand on the chassis hang on none of the package's own mounts.
    borne = fans_mass(package) if package.mounting.fan_to == "chassis" else 0.0
    return "package", max(package_mass(package) - borne, 0.0)


def _neighbour(survey: Survey, package: Package, ident: str) -> tuple[str, float]:
    """A neighbour as it stands now; one that is not measured weighs as a litre."""
    obstacle = next((item for item in survey.obstacles if item.id == ident), None)
    if obstacle is None:
        return "neighbour", 1.0
    move = next((one for one in package.moves if one.id == ident), None)
    there = placed(obstacle, move) if move else obstacle
    sides = (there.width, there.height, there.depth)
    litres = math.prod(side.si for side in sides if side) if all(sides) else 1e-3
    return (obstacle.name or ident).lower(), NEIGHBOUR_DENSITY * litres
