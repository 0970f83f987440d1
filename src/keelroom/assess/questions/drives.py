"""All packages of a build through the same drive."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from keelroom.assess.acts.registry import offer
from keelroom.assess.drives.driven import Driven, drive_of, lacks
from keelroom.assess.outcome import Stopped
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.drive import Schedule


class Raced(NamedTuple):
    """A package through the drive, or why not; act: what makes it the one in use, None where it is."""

    package_id: str
    name: str
    found: Driven | Stopped
    act: Act | None


def raced(build: Build, schedule: Schedule, tell: Callable[[float], bool] | None = None) -> tuple[Raced, ...]:
    """Every package of the build through the schedule. tell: told how far it has come, answers whether to go on."""
    found: list[Raced] = []
    for k, package in enumerate(build.packages):
        if tell is not None and not tell(k / len(build.packages)):
            break
        name = package.name or package.id
        if lacks(build, package):
            driven: Driven | Stopped = Stopped(
                f"“{name}”", ("packages", package.id), "something of it is still missing"
            )
        else:
            driven = drive_of(build, package, schedule, bands=False)
        act = None if package.id == build.active else offer("activate", package.id, f"Use “{name}”")
        found.append(Raced(package.id, name, driven, act))
    return tuple(found)
