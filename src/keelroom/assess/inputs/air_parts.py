"""What of a package its air and heat hang on, apart from where it stands and how it is held."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.made import made_core, made_fans
from keelroom.core.kept import by_identity
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.package import Core, Fan, Package, Remote, Shroud
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
    )


@by_identity(64)
def _parts(
    core: Core,
    fans: tuple[Fan, ...],
    shroud: Shroud,
    sealing: Sealing,
    panels: tuple[Panel, ...],
    coolers: tuple[Cooler, ...],
    remote: Remote,
) -> AirParts:
    return AirParts(core, fans, shroud, sealing, panels, coolers, remote)
