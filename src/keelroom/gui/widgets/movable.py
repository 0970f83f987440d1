"""What of the bay drawing can be moved by hand: fans over the face, coolers ahead of it. Where each stands, by what it
is taken hold of, and the lines it catches on."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.inputs.airside import cover_rectangle
from keelroom.assess.inputs.fans import disc_of
from keelroom.assess.placing import face_size
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.package import Fan
from keelroom.units import KINDS, format_si

NAME_UP = 0.012
"""[m] of a cooler's name over its lower edge, where it is taken hold of"""


class Movable(NamedTuple):
    """One part. where : of its measures;  axes : their names, across and up;  at : where they stand [m]

    grip : where it is taken hold of [m];  box : left, bottom, width, height of its outline;  round : whether it is a
    disc in that box, held anywhere; else it is held by its edge or its name
    label : of a move;  name, place : as a reader is told them;  ways : what its measures catch on, across and up
    """

    where: tuple[str, ...]
    axes: tuple[str, str]
    at: tuple[float, float]
    grip: tuple[float, float]
    box: tuple[float, float, float, float]
    round: bool
    label: str
    name: str
    place: str
    ways: tuple[tuple[float, ...], tuple[float, ...]]

    @property
    def words(self) -> str:
        """Its name with its place."""
        return f"{self.name}: {self.place}"

    def held_at(self, x: float, y: float, reach: float) -> bool:
        """Whether a place is on it, or within a reach [m] of what it is held by."""
        left, bottom, wide, high = self.box
        if self.round:
            return (x - left - wide / 2) ** 2 + (y - bottom - high / 2) ** 2 <= (wide / 2) ** 2
        if not (left - reach <= x <= left + wide + reach and bottom - reach <= y <= bottom + high + reach):
            return False
        edge = min(abs(x - left), abs(x - left - wide), abs(y - bottom), abs(y - bottom - high))
        return edge <= reach or (abs(y - self.grip[1]) <= 2 * reach and abs(x - self.grip[0]) <= 6 * reach)


def movables(build: Build, system: str) -> dict[str, Movable]:
    """By id, the topmost last. None where there is no face to move them over."""
    package = build.package
    if not (package.core.face_width and package.core.face_height):
        return {}
    found = {}
    for cooler in package.coolers:
        if cooler.stands == "ahead" and (box := cover_rectangle(package, cooler)) is not None:
            found[cooler.id] = _cooler(build, cooler, box, system)
    for number, fan in enumerate(package.fans, 1):
        if fan.diameter:
            found[fan.id] = _fan(build, fan, number, system)
    return found


def _place(system: str, across: float, up: float) -> str:
    x, y = (format_si(value, KINDS["length"], system) for value in (across, up))
    return f"{x} from left, {y} from bottom"


def _fan(build: Build, fan: Fan, number: int, system: str) -> Movable:
    """It catches on the face's middle and edges and the other fans' lines."""
    package, (width, height), radius = build.package, face_size(build.package), disc_of(fan).radius
    others = [other for other in package.fans if other.id != fan.id]
    across = (width / 2, radius, width - radius, *(width - one.x.si for one in others), *(one.x.si for one in others))
    up = (height / 2, radius, height - radius, *(one.y.si for one in others))
    x, y = fan.x.si, fan.y.si
    assert fan.diameter is not None
    drawn = fan.diameter.si / 2
    return Movable(
        ("packages", build.active, "fans", fan.id),
        ("x", "y"),
        (x, y),
        (x, y),
        (x - drawn, y - drawn, 2 * drawn, 2 * drawn),
        True,
        f"Move fan {number}",
        f"Fan {number}",
        _place(system, x, y),
        (across, up),
    )


def _cooler(build: Build, cooler: Cooler, box: tuple[float, float, float, float], system: str) -> Movable:
    """It catches where its edges meet the face's, or its middle the face's middle."""
    (width, height), name = face_size(build.package), cooler.name or cooler.kind.replace("_", " ").capitalize()
    left, bottom, wide, high = box
    x, y = cooler.left.si, cooler.bottom.si
    return Movable(
        ("packages", build.active, "coolers", cooler.id),
        ("left", "bottom"),
        (x, y),
        (left + wide / 2, bottom + NAME_UP),
        box,
        False,
        f"Move {name.lower()}",
        name,
        _place(system, x, y),
        ((0.0, width - wide, (width - wide) / 2), (0.0, height - high, (height - high) / 2)),
    )
