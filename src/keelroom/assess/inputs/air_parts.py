"""What of a package its air and heat hang on, apart from where it stands and how it is held."""

from __future__ import annotations

from typing import Any, NamedTuple

from keelroom.assess.inputs.fans import blade_depth
from keelroom.assess.made import made_core, made_fans
from keelroom.assess.placing import core_depth
from keelroom.core.kept import by_identity
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.package import Core, Fan, Package, Place, Remote, Shroud
from keelroom.document.schema.panels import Panel, Sealing


class AirParts(NamedTuple):
    """The parts, as the package has them."""

    core: Core
    fans: tuple[Fan, ...]
    shroud: Shroud
    sealing: Sealing
    panels: tuple[Panel, ...]
    coolers: tuple[Cooler, ...]
    remote: Remote
    place: Place | None
    """where a fan of the engine is measured, which stays where it is; else None"""


Parts = Package | AirParts
"""A package, or as much of one as the air knows."""


def air_parts(package: Package) -> AirParts:
    """One object however often the package is moved, cut for or bracketed, so that stages made of it are found
    again."""
    return _parts(
        made_core(package.core),
        made_fans(package.fans),
        package.shroud,
        package.sealing,
        package.panels,
        package.coolers,
        package.remote,
        package.place if any(fan.nose is not None for fan in package.fans) else None,
    )


def back_of(package: Parts) -> float:
    """From the support plane to the fins' back [m]; a lean is left out."""
    return (package.place.z.si if package.place else 0.0) + core_depth(package.core)


def held_off(package: Parts, fan: Fan) -> float | None:
    """From the fins to the blades of a fan the engine holds [m], negative where they are in the core; None of one that
    goes where the core goes."""
    if fan.motor != "engine" or fan.nose is None:
        return None
    return fan.nose.si - fan.spacer.si - back_of(package)


def immersion_of(package: Parts, fan: Fan) -> float:
    """Share of its blades' depth in the shroud: as the engine holds it, else as it is typed."""
    off = held_off(package, fan)
    if off is None:
        return fan.immersion.si
    return min(max((package.shroud.depth.si - off) / blade_depth(fan), 0.0), 1.0)


@by_identity(64)
def _parts(*parts: Any) -> AirParts:
    return AirParts(*parts)
