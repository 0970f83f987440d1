"""Every point a mount can go from or to: on the core and its tanks, shroud, fans, coolers, frames, neighbours and the
chassis."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal, NamedTuple

from keelroom.assess.fit.bodies import Body
from keelroom.assess.fit.coolers import FAR, named
from keelroom.assess.fit.package_bodies import RIM, seat_off, standoff
from keelroom.assess.inputs.airside import placed_on_face, shroud_rectangle
from keelroom.assess.inputs.coolant.ports import necks
from keelroom.assess.placing import Axes, core_depth, face_size, placed_frame, tank_size
from keelroom.core.kept import by_identity
from keelroom.core.packaging.solids import Vector
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.mounts import Bracket
from keelroom.document.schema.package import Package
from keelroom.document.schema.survey import Faces, MountHole, Survey

INSET = 0.03
"""[m] a core's mount holes lie in from its ends (common practice)."""
STUDS = {
    "1": (0.7071, 0.7071, "upper right"),
    "2": (-0.7071, 0.7071, "upper left"),
    "3": (-0.7071, -0.7071, "lower left"),
    "4": (0.7071, -0.7071, "lower right"),
}
"""studs of a fan's ring: across, up, words"""
CORNERS = ("upper_left", "upper_right", "lower_left", "lower_right")
SIDES: dict[str, tuple[int, int, Faces]] = {
    "left": (0, -1, "side"),
    "right": (0, 1, "side"),
    "bottom": (1, -1, "up"),
    "top": (1, 1, "up"),
    "front": (2, -1, "front"),
    "rear": (2, 1, "front"),
}
"""faces of a neighbour's box: axis, which way, how it looks"""
NEW = "new"
Sort = Literal["part", "hole", "stud", "new"]


class Anchor(NamedTuple):
    """A point of a mount. at [m] by the survey's datums; faces: which way its metal looks; sort: a hole of a part, a
    surveyed hole or stud, a new hole; diameter [m] of what is there, 0 where it is made; behind [m] free behind it,
    None not measured;
    own: of the package."""

    key: str
    words: str
    at: Vector
    faces: Faces
    sort: Sort
    diameter: float = 0.0
    behind: float | None = None
    own: bool = True


def part_points(survey: Survey, package: Package) -> Mapping[str, Anchor]:
    """The points on the package's own parts."""
    frame = placed_frame(survey, package)
    found = [*_core(package, frame), *_shroud(package, frame), *_rings(package, frame), *_bungs(package, frame)]
    for cooler in package.coolers:
        if cooler.stands not in FAR:
            found += _cooler(package, frame, cooler)
    for hung in package.mounting.frames:
        held = framed(package, hung.cooler)
        if hung.fitted and held is not None:
            out = hung.leg.si / 2 - hung.lap.si
            found += _corners((f"frame:{hung.id}", f"Frame of {named(held).lower()}"), package, frame, (held, out))
    return {anchor.key: anchor for anchor in found}


def framed(package: Package, ident: str) -> Cooler | None:
    """The cooler a frame goes round; the condenser ahead of the core where none is named."""
    if ident:
        return next((cooler for cooler in package.coolers if cooler.id == ident), None)
    return next((cooler for cooler in package.coolers if cooler.kind == "condenser" and cooler.stands == "ahead"), None)


def _words(corner: str) -> str:
    return corner.replace("_", " ")


def _core(package: Package, frame: Axes) -> list[Anchor]:
    core, (width, height) = package.core, face_size(package)
    tank, depth, across = tank_size(core), core_depth(core), core.flow == "crossflow"
    u = {"left": -tank / 2 if across else INSET, "right": width + tank / 2 if across else width - INSET}
    v = {"lower": INSET if across else -tank / 2, "upper": height - INSET if across else height + tank / 2}
    return _at_corners(("core:", "Core"), frame, u, v, depth / 2)


def _at_corners(
    named: tuple[str, str], frame: Axes, u: dict[str, float], v: dict[str, float], w: float
) -> list[Anchor]:
    """A point at each of a part's corners; named: what its key and its words begin with."""
    key, name = named
    return [
        Anchor(f"{key}{corner}", f"{name}, {_words(corner)}", frame.point(u[side], v[row], w), "front", "part")
        for corner in CORNERS
        for row, side in (corner.split("_"),)
    ]


def _shroud(package: Package, frame: Axes) -> list[Anchor]:
    place, inset = shroud_rectangle(package), package.shroud.hole_inset.si
    if place is None:
        return []
    left, bottom, wide, high = place
    back = core_depth(package.core) + (standoff(package, package.fans[0]) if package.fans else 0.0)
    u = {"left": left + inset, "right": left + wide - inset}
    v = {"lower": bottom + inset, "upper": bottom + high - inset}
    found = _at_corners(("shroud:", "Shroud"), frame, u, v, back)
    return [*found, *_walls(package, frame, place), *_tabs(package, frame, place)]


def _walls(package: Package, frame: Axes, place: tuple[float, float, float, float]) -> list[Anchor]:
    """The middles of the pan's side walls, half way up them: a strip or angle from the core is screwed to one."""
    left, bottom, wide, high = place
    half = core_depth(package.core) + seat_off(package) + package.shroud.depth.si / 2
    places: dict[str, tuple[float, float, Faces]] = {
        "left": (left, bottom + high / 2, "side"),
        "right": (left + wide, bottom + high / 2, "side"),
        "bottom": (left + wide / 2, bottom, "up"),
        "top": (left + wide / 2, bottom + high, "up"),
    }
    return [
        Anchor(f"shroud:wall_{name}", f"Shroud, {name} wall", frame.point(u, v, half), faces, "part")
        for name, (u, v, faces) in places.items()
    ]


def _tabs(package: Package, frame: Axes, place: tuple[float, float, float, float]) -> list[Anchor]:
    """The ears of a bought pan, out from its corners; none where it has none."""
    ears = package.shroud.ears.si
    if ears <= 0:
        return []
    left, bottom, wide, high = place
    u, v = {"left": left - ears / 2, "right": left + wide + ears / 2}, {"lower": bottom, "upper": bottom + high}
    front = core_depth(package.core) + seat_off(package)
    return _at_corners(("shroud:tab_", "Shroud’s tab"), frame, u, v, front)


def _rings(package: Package, frame: Axes) -> list[Anchor]:
    found = []
    for number, fan in enumerate(package.fans, 1):
        if fan.diameter is None:
            continue
        radius, off = fan.diameter.si / 2 + RIM / 2, standoff(package, fan)
        w = -off if fan.mount == "pusher" else core_depth(package.core) + off
        for key, (across, up, words) in STUDS.items():
            at = frame.point(fan.x.si + radius * across, fan.y.si + radius * up, w)
            found.append(Anchor(f"ring:{fan.id}:{key}", f"Fan {number} stud, {words}", at, "front", "stud", 6e-3))
    return found


def _bungs(package: Package, frame: Axes) -> list[Anchor]:
    """Bungs in the tanks, beside their necks."""
    found = []
    for hose, (u, v, w) in necks(package.core).items():
        at = frame.point(u, v + (-0.06 if hose == "upper" else 0.06), w)
        found.append(Anchor(f"bung:{hose}", f"Tank bung, {hose}", at, "front", "part"))
    return found


def _cooler(package: Package, frame: Axes, cooler: Cooler) -> list[Anchor]:
    return _corners((f"cooler:{cooler.id}", named(cooler)), package, frame, (cooler, 0.0))


def _corners(told: tuple[str, str], package: Package, frame: Axes, what: tuple[Cooler, float]) -> list[Anchor]:
    """The corners of a cooler, or so far out from them, on its back."""
    (key, words), (cooler, out) = told, what
    left, bottom, wide, high = placed_on_face(package, cooler)
    u, v = {"left": left - out, "right": left + wide + out}, {"lower": bottom - out, "upper": bottom + high + out}
    ahead = cooler.stands == "ahead"
    deep = -cooler.stand_off.si if ahead else core_depth(package.core) + cooler.stand_off.si
    found = []
    for corner in CORNERS:
        row, side = corner.split("_")
        if not cooler.away:
            at = frame.point(u[side], v[row], deep)
        else:
            at = (u[side], v[row], (cooler.front.si if cooler.front else 0.0) + cooler.thickness.si)
        found.append(Anchor(f"{key}:{corner}", f"{words}, {_words(corner)}", at, "front", "part"))
    return found


def chassis_points(survey: Survey, around: tuple[Body, ...]) -> Mapping[str, Anchor]:
    """The surveyed holes and studs, and the faces of the neighbours where they stand now."""
    return _chassis_points(survey, *around)


@by_identity(4)
def _chassis_points(survey: Survey, *around: Body) -> Mapping[str, Anchor]:
    found = [anchor for hole in survey.holes if (anchor := _hole(hole)) is not None]
    for body in around:
        sort, _, ident = body.key.partition(":")
        if sort not in ("obstacle", "moved") or body.unknown:
            continue
        for side, (axis, way, faces) in SIDES.items():
            at = list(body.solid.centre)
            at[axis] += way * body.solid.reach(axis)
            found.append(
                Anchor(
                    f"neighbour:{ident}:{side}", f"{body.name}, {side}", (at[0], at[1], at[2]), faces, "part", own=False
                )
            )
    return {anchor.key: anchor for anchor in found}


def _hole(hole: MountHole) -> Anchor | None:
    if not (hole.x and hole.y and hole.z):
        return None
    at = (hole.x.si, hole.y.si, hole.z.si)
    behind = hole.behind.si if hole.behind else None
    return Anchor(
        f"hole:{hole.id}",
        hole.name or hole.id,
        at,
        hole.faces,
        "stud" if hole.stud else "hole",
        hole.diameter.si,
        behind,
        own=False,
    )


def point_of(points: Mapping[str, Anchor], bracket: Bracket, key: str) -> Anchor | None:
    """A point a bracket names: one of those at hand, or its own new hole; None where it is not there or not placed."""
    return _new_point(bracket) if key == NEW else points.get(key)


def _new_point(bracket: Bracket) -> Anchor | None:
    """The new hole a bracket goes to; None where its place is not entered."""
    if not (bracket.new_x and bracket.new_y and bracket.new_z):
        return None
    at = (bracket.new_x.si, bracket.new_y.si, bracket.new_z.si)
    return Anchor(NEW, "New hole", at, bracket.new_faces, "new", own=False)
