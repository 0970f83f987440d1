"""What may be changed to find a package a place: the fans' side, offset and kind, and what of the bay may go."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

from keelroom.assess.fit.moves import may_go
from keelroom.assess.placing import Stand, face_size
from keelroom.catalogue.load import fan_assemblies, placed
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import from_si
from keelroom.document.schema.build import Build
from keelroom.document.schema.moves import Move
from keelroom.document.schema.package import Fan, Package
from keelroom.document.schema.survey import Obstacle
from keelroom.errors import InputError
from keelroom.units import INCH, both

OFFSETS = (-1.5 * INCH, 1.5 * INCH)


class Option(NamedTuple):
    """One way to change the package before it is placed. parts: what is changed of it; loose: obstacles moved away
    for it."""

    parts: str
    fans: tuple[Fan, ...]
    shroud: object
    inlet_side: str
    kept: tuple[Move, ...]
    """obstacles the package counts on having moved already"""
    loose: tuple[Obstacle, ...] = ()

    @property
    def words(self) -> str:
        names = ", ".join(item.name or item.id for item in self.loose)
        if not names:
            return self.parts or "As it is"
        return f"{self.parts}, {names} moved away" if self.parts else f"{names} moved away"

    @property
    def moved(self) -> tuple[Move, ...]:
        return (*self.kept, *(Move(id=item.id) for item in self.loose))

    @property
    def work(self) -> float:
        """[s] on obstacles"""
        return math.fsum(item.work.si for item in self.loose)

    @property
    def removals(self) -> int:
        """What is taken away for good."""
        return sum(item.mobility == "removable" for item in self.loose)


def option_of(build: Build, package: Package, parts: str, loose: tuple[str, ...]) -> Option:
    """The option that changes these parts and moves these neighbours away. Raises InputError where it is no longer
    one."""
    found = next((option for option in options_for(build, package) if option.parts == parts), None)
    away = tuple(item for item in build.survey.obstacles if item.id in loose)
    if found is None or len(away) != len(loose):
        raise InputError("no_such_option", "What that place asks for can no longer be had: look for a place again")
    return found._replace(loose=away)


def options_for(build: Build, package: Package) -> Iterator[Option]:
    """Changes to try, the least work first."""
    base = Option("", package.fans, package.shroud, package.core.inlet_side, package.moves)
    fan_sets = [base, *_offset_fans(package, base), *_slimmer(package, base)]
    yield from fan_sets
    other = "right" if package.core.inlet_side == "left" else "left"
    if build.survey.hoses:
        yield base._replace(parts=f"Inlet on the {other}", inlet_side=other)
    loose = tuple(item for item in build.survey.obstacles if may_go(item) and item.id not in package.moved)
    yield from (base._replace(loose=(item,)) for item in loose)
    if len(loose) > 1:
        yield from (option._replace(loose=loose) for option in fan_sets)
    elif loose:
        yield from (option._replace(loose=loose) for option in fan_sets[1:])


def _offset_fans(package: Package, base: Option) -> Iterator[Option]:
    width, _ = face_size(package)
    if not package.fans:
        return
    for shift in OFFSETS:
        moved = [fan.x.si + shift for fan in package.fans]
        radii = [(fan.diameter.si if fan.diameter else 0.3) / 2 for fan in package.fans]
        if all(radius <= x <= width - radius for x, radius in zip(moved, radii, strict=True)):
            fans = tuple(
                fan.model_copy(update={"x": from_si(x, "length", "us", "derived")})
                for fan, x in zip(package.fans, moved, strict=True)
            )
            yield base._replace(
                parts=f"Fans {both(abs(shift), 'length')} to the {'right' if shift > 0 else 'left'}", fans=fans
            )


def _slimmer(package: Package, base: Option) -> Iterator[Option]:
    """The strongest catalogue fans that fit the face and are less deep, twins and singles."""
    width, height = face_size(package)
    depth = max((fan.depth.si for fan in package.fans if fan.depth), default=0.3)
    fitting = [
        a
        for a in fan_assemblies()
        if a.fan.diameter
        and a.fan.depth
        and a.fan.depth.si < depth - 1e-3
        and a.fan.diameter.si <= height
        and a.count * a.fan.diameter.si <= width
    ]
    fitting.sort(key=lambda a: -(a.count * (a.fan.free_air_flow.si if a.fan.free_air_flow else 0.0)))
    for count in (1, 2):
        for assembly in [a for a in fitting if a.count == count][:2]:
            fans, shroud = placed(assembly, package.core, "us")
            kept = (
                package.shroud.model_copy(update={"kind": "full"})
                if assembly.shrouded or package.shroud.kind != "none"
                else shroud
            )
            yield base._replace(parts=assembly.name, fans=fans, shroud=kept)


def changes_for(build: Build, package: Package, option: Option, at: Stand | None, system: str) -> tuple[Change, ...]:
    """What an option changes of a package, and where it then stands."""
    where = ("packages", package.id)
    changes = []
    for path, value, old in (
        (("fans",), option.fans, package.fans),
        (("shroud",), option.shroud, package.shroud),
        (("core", "inlet_side"), option.inlet_side, package.core.inlet_side),
        (("moves",), option.moved, package.moves),
    ):
        if value is not old and value != old:
            changes.append(Change((*where, *path), value))
    if at is not None:
        update = {
            name: from_si(value, "length", system, "derived") for name, value in (("x", at.x), ("y", at.y), ("z", at.z))
        }
        update["lean"] = from_si(at.lean, "angle", system, "derived")
        changes.append(Change((*where, "place"), package.place.model_copy(update=update)))
    return tuple(changes)


def with_option(build: Build, option: Option, at: Stand | None, system: str) -> Build:
    changes = changes_for(build, build.package, option, at, system)
    return apply(build, Edit("", changes)) if changes else build
