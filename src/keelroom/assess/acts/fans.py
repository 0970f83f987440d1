"""Acts on the fans of a package: others chosen, added, spread, slid onto the face, stopped, taken out."""

from __future__ import annotations

import math
from contextlib import suppress
from typing import TYPE_CHECKING

from keelroom.assess.acts.circuits import still_carried
from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.placing import face_size
from keelroom.assess.safety import cautions
from keelroom.document.edits import Change, Edit, added, fresh_id, removed, set_value
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Fan, Package
from keelroom.errors import InputError, KeelRoomError
from keelroom.units import INCH

if TYPE_CHECKING:
    from keelroom.catalogue.load import FanAssembly


def _at(package: Package, fan: Fan, x: float, y: float, system: str) -> tuple[Change, ...]:
    where = ("packages", package.id, "fans", fan.id)
    return tuple(
        Change((*where, axis), from_si(value, "length", system, "derived")) for axis, value in (("x", x), ("y", y))
    )


def spread_changes(package: Package, system: str) -> tuple[Change, ...]:
    """Fans side by side, evenly over the face, at half height."""
    width, height = face_size(package)
    count = len(package.fans)
    return tuple(
        change
        for i, fan in enumerate(package.fans)
        for change in _at(package, fan, width * (2 * i + 1) / (2 * count), height / 2, system)
    )


def _onto_face(do: Doing) -> Edit:
    package, fan = do.package, do.fan
    width, height = face_size(package)
    radius = fan.diameter.si / 2 if fan.diameter else 0.0
    x = min(max(fan.x.si, radius), max(width - radius, radius))
    y = min(max(fan.y.si, radius), max(height - radius, radius))
    return Edit(do.act.label, _at(package, fan, x, y, do.system))


def _fitting_fan(do: Doing) -> Edit:
    """The strongest single catalogue fan that fits the face beside the other fans, as near as it goes to where the old
    one was; its circuit carries it."""
    package, fan = do.package, do.fan
    width, height = face_size(package)

    from keelroom.catalogue.load import fan_assemblies  # only when a fan is to be changed: the parts slow the start

    def flow(assembly: FanAssembly) -> float:
        return assembly.fan.free_air_flow.si if assembly.fan.free_air_flow else 0.0

    found = (
        (assembly, place)
        for assembly in sorted(fan_assemblies(), key=flow, reverse=True)
        if assembly.count == 1 and assembly.fan.diameter
        for place in [_room_for(package, fan, assembly.fan.diameter.si / 2, (width, height))]
        if place is not None
    )
    best, at = next(found, (None, None))
    if best is None or at is None:
        raise InputError("no_fan_fits", "No catalogue fan goes onto this face beside what is there")
    x, y = (from_si(value, "length", do.system, "derived") for value in at)
    update = {"id": fan.id, "x": x, "y": y, "cost": from_si(best.cost, "money", do.system, "catalogue")}
    fans = tuple(best.fan.model_copy(update=update) if one.id == fan.id else one for one in package.fans)
    edit = Edit(do.act.label, (Change((*do.where, "fans"), fans),))
    return still_carried(do.build, package.id, edit)


def _room_for(package: Package, fan: Fan, radius: float, face: tuple[float, float]) -> tuple[float, float] | None:
    """Where a fan of that radius [m] goes on the face with no other fan under it: where the old one is, else at the
    end or the corner nearest to it; None where nowhere."""
    if 2 * radius > min(face):
        return None
    others = [(one.x.si, one.y.si, one.diameter.si / 2) for one in package.fans if one.id != fan.id and one.diameter]
    own = (fan.x.si, fan.y.si)
    kept = tuple(min(max(at, radius), size - radius) for at, size in zip(own, face, strict=True))
    ends = [(x, y) for x in (kept[0], radius, face[0] - radius) for y in (kept[1], radius, face[1] - radius)]
    free = [at for at in ends if all(math.dist(at, other[:2]) >= radius + other[2] for other in others)]
    return min(free, key=lambda at: math.dist(at, own), default=None)


def offered_fans(build: Build) -> tuple[FanAssembly, ...]:
    """Fans and assemblies to choose from: one's own first, then the catalogue's."""
    from keelroom.catalogue.load import by_itself, fan_assemblies, own_parts

    mine = {fan.name: fan for fan in build.own_fans}
    with suppress(
        KeelRoomError
    ):  # the build's own are still there; who shows the list says what is wrong with the file
        mine = {fan.name: fan for fan in own_parts().fans} | mine
    return (*map(by_itself, mine.values()), *fan_assemblies())


def fit_fans(package: Package, assembly: FanAssembly, system: str) -> Edit:
    """Fit an assembly: fans spread over the face, with its own shroud or the present one."""
    from keelroom.catalogue.load import placed

    fans, shroud = placed(assembly, package.core, system)
    kept = shroud if assembly.shrouded else package.shroud
    where = ("packages", package.id)
    return Edit(f"Fans: {assembly.name}", (Change((*where, "fans"), fans), Change((*where, "shroud"), kept)))


def _fit_fans(do: Doing) -> Edit:
    assembly = next(
        (one for one in offered_fans(do.build) if one.name == do.given("name") and one.count == do.number("count")),
        None,
    )
    if assembly is None:
        raise InputError("no_such_fan", f"No fan called “{do.given('name')}” is among your parts or in the catalogue")
    return fit_fans(do.package, assembly, do.system)


def _add(do: Doing) -> Edit:
    package = do.package
    x, y = (from_si(size / 2, "length", do.system, "derived") for size in face_size(package))
    fan = Fan(
        id=fresh_id(package.fans, "fan"),
        x=x,
        y=y,
        diameter=quantity("12 in", "length"),
        free_air_flow=quantity("1300 CFM", "airflow"),
        power=quantity("120 W", "electrical power"),
    )
    return added(do.build, (*do.where, "fans"), fan, "Add a fan")


def _spread(do: Doing) -> Edit:
    if not do.package.fans:
        raise InputError("no_fans", "There is no fan to spread: choose one first")
    return Edit(do.act.label, spread_changes(do.package, do.system))


def _second(do: Doing) -> Edit:
    """Another fan like the first, both spread over the face, where they fit side by side."""
    package = do.package
    width = package.core.face_width
    if not package.fans or width is None or package.fans[0].diameter is None:
        raise InputError("no_fans", "There is no fan to have another of")
    count = len(package.fans) + 1
    if count * package.fans[0].diameter.si > width.si + 0.5 * INCH or count > 4:
        raise InputError("no_room", "The face has no room for one more of the same")
    another = package.fans[0].model_copy(update={"id": fresh_id(package.fans, "fan")})
    spread = tuple(
        fan.model_copy(update={"x": from_si(width.si * (2 * i + 1) / (2 * count), "length", "us", "derived")})
        for i, fan in enumerate((*package.fans, another))
    )
    return Edit(do.act.label, (Change((*do.where, "fans"), spread),))


def _keep(do: Doing) -> Edit:
    """The first fan among the build's own parts, under its name."""
    fans = do.package.fans
    if not fans or not fans[0].name:
        raise InputError("no_name", "Give the fan a name first; it is kept under it")
    others = tuple(fan for fan in do.build.own_fans if fan.name != fans[0].name)
    return set_value(("own_fans",), (*others, fans[0]), f"Keep “{fans[0].name}” in my parts")


FANS_TURN = cautions("fan")
KINDS = (
    ActKind(
        "spread",
        "Fans side by side, evenly over the face",
        _spread,
        "Spread the fans over the face",
        rests_on=(("packages", "*", "core", "face_width"), ("packages", "*", "core", "face_height")),
    ),
    ActKind(
        "onto_face",
        "Slide a fan until all of it is over the face",
        _onto_face,
        "Slide it onto the face",
        rests_on=(("packages", "*", "core", "face_width"), ("packages", "*", "core", "face_height")),
    ),
    ActKind(
        "fit_fan",
        "Replace a fan by the strongest of the catalogue that fits the face",
        _fitting_fan,
        "The strongest catalogue fan that fits",
        cautions=FANS_TURN,
        rests_on=(("packages", "*", "core", "face_width"), ("packages", "*", "core", "face_height")),
    ),
    ActKind(
        "fit_fans",
        "Fit a fan or an assembly of the parts list, spread over the face",
        _fit_fans,
        cautions=FANS_TURN,
        rests_on=(("packages", "*", "core", "face_width"), ("packages", "*", "core", "face_height")),
    ),
    ActKind("add_fan", "One more fan in the middle of the face, to be described", _add, "Add a fan"),
    ActKind(
        "second_fan",
        "One more fan like the first, all spread over the face",
        _second,
        "One more fan of the same kind",
        cautions=FANS_TURN,
        after=("Each turns the way that draws air through the core",),
        rests_on=(("packages", "*", "core", "face_width"),),
    ),
    ActKind(
        "take_out_fan",
        "Take a fan out",
        lambda do: removed(do.build, (*do.where, "fans"), do.fan.id, do.act.label),
        "Take it out",
    ),
    ActKind("keep_fan", "Keep the first fan among one’s own parts", _keep, "Keep in my parts"),
)
