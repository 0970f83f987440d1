"""From a package to its air side in core terms: zones, classes of the face, covers, network and fans."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.assess.inputs.air_parts import Parts, air_parts, held_off, immersion_of
from keelroom.assess.inputs.coolers import ahead_of_core
from keelroom.assess.inputs.electrical.loads import fan_rating
from keelroom.assess.inputs.fans import blade_depth, credible_curve, disc_of, power_of, shaft_of, si_or_one, swept
from keelroom.assess.inputs.sealing import base_pressure, open_area
from keelroom.assess.placing import face_size, opening_on_face
from keelroom.core.air.face import Disc, FaceClasses, Lanes, Rectangle, Zone, as_lanes, face_classes, widened
from keelroom.core.air.fan import (
    PUSHED,
    FanCurve,
    no_fan,
)
from keelroom.core.air.network import GRILLE_LOSS, RAM_RECOVERY, Network, incidence
from keelroom.core.arrays import Floats, stack
from keelroom.core.kept import by_identity, by_value
from keelroom.core.outline import Outline
from keelroom.core.packaging.joined import Halves
from keelroom.document.schema.brief import Vehicle
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.package import Fan, Package, Shroud
from keelroom.document.schema.survey import AirHole

MOST_FANS = 4
SEATED = 1e-4
"""[m] a shroud this much too wide still goes between the tanks."""
CLASS_STEP = 4
DUCT_EDGE = 1.6e-3
"""[m] a pusher's own shroud stands off the fins, a sixteenth (common practice)."""
SPILL_LEAK = 0.5
"""Share of the slot round a bare fan that leaks: the blade tips still draw through the disc (common practice)."""
LEAST_IN = 0.4
"""Share of an engine's fan's blades in its shroud under which air goes round their tips (common practice: half to two
thirds stand in it)."""
OVER_TANK = 0.5
"""Share of a shrouded fan's disc over a tank that is lost to it; a bare one loses all of it (common practice)."""


FLAPS_OPEN = {
    (False, "away"): (1.0, 0.0),
    (False, "toward"): (0.0, 1.0),
    (True, "away"): (1.0, 1.0),
    (True, "toward"): (1.0, 1.0),
}
"""Whether flaps let air out of the shroud, and back into it, by whether they hang upside down and which way they
open."""


class FanSet(NamedTuple):
    """Fans as core arrays (fans,)."""

    curve: FanCurve
    power: Floats
    rated_voltage: Floats
    brushless: Floats
    runs: Floats
    pushes: Floats
    driven: Floats
    drag: Floats
    clutch: Floats
    doubt: float


class AirSide(NamedTuple):
    """A package's air side: the face's lanes, the network with the vehicle's openings, what is ahead, and fans."""

    classes: FaceClasses
    lanes: Lanes
    network: Network
    fans: FanSet
    zones: tuple[Zone, ...]
    fan_zone: tuple[int, ...]


def shroud_rectangle(package: Parts) -> Rectangle | None:
    """Where the shroud sits on the face; None without one."""
    shroud, (width, height) = package.shroud, face_size(package)
    if shroud.kind == "none":
        return None
    if shroud.kind == "full":
        return (0.0, 0.0, width, height)
    return placed_on_face(package, shroud)


def placed_on_face(package: Parts, item: Shroud | Cooler) -> Rectangle:
    """Its place on the face; without a size of its own it reaches to the far edge."""
    (width, height), left, bottom = face_size(package), item.left.si, item.bottom.si
    wide = item.width.si if item.width else max(width - left, 0.0)
    high = item.height.si if item.height else max(height - bottom, 0.0)
    return (left, bottom, wide, high)


def in_shroud(package: Parts, fan: Fan) -> bool:
    """Whether the shroud serves this fan: a puller whose centre lies in it."""
    rectangle = shroud_rectangle(package)
    if rectangle is None or fan.mount == "pusher":
        return False
    left, bottom, wide, high = rectangle
    return left <= fan.x.si <= left + wide and bottom <= fan.y.si <= bottom + high


@by_identity(64)
def zones_of(package: Parts) -> tuple[tuple[Zone, ...], tuple[int, ...]]:
    """The zones of a package and the node each fan breathes from: shrouded fans share one, or have one each where
    divided."""
    shroud, rectangle = package.shroud, shroud_rectangle(package)
    fans = package.fans[:MOST_FANS]
    shrouded = [fan for fan in fans if in_shroud(package, fan)]
    groups = [[fan] for fan in shrouded] if shroud.plenum == "divided" else [shrouded] if shrouded else []
    zones = [Zone(rectangle, tuple(disc_of(fan) for fan in group), shroud.depth.si, 0.0, False) for group in groups]
    node = {fan.id: 2 + number for number, group in enumerate(groups) for fan in group}
    for fan in fans:
        if fan.id not in node:
            node[fan.id] = 2 + len(zones)
            zones.append(_own_zone(package, fan))
    return tuple(zones), tuple(node[fan.id] for fan in fans)


def _own_zone(package: Parts, fan: Fan) -> Zone:
    """The zone of a fan that no shroud of the core serves: its own shroud's ahead of the core, else its disc."""
    ahead, duct = fan.mount == "pusher", duct_rectangle(package, fan)
    if duct is not None:
        return Zone(duct, (disc_of(fan),), fan.duct_depth.si, 0.0, True)
    off = held_off(package, fan)
    return Zone(None, (disc_of(fan),), 0.0, package.shroud.fan_gap.si if off is None else max(off, 0.0), ahead)


def duct_rectangle(package: Parts, fan: Fan) -> Rectangle | None:
    """What of the face a pusher's own shroud covers; None without one."""
    if fan.mount != "pusher" or fan.duct_width is None:
        return None
    (width, height), wide = face_size(package), fan.duct_width.si
    high = fan.duct_height.si if fan.duct_height else wide
    left, right = max(fan.x.si - wide / 2, 0.0), min(fan.x.si + wide / 2, width)
    bottom, top = max(fan.y.si - high / 2, 0.0), min(fan.y.si + high / 2, height)
    return (left, bottom, max(right - left, 0.0), max(top - bottom, 0.0))


def cover_rectangle(package: Parts, cover: Cooler) -> Rectangle | None:
    """A cover's place on the face; None where it covers all of it."""
    if cover.width is None and cover.height is None and cover.left.si <= 0 and cover.bottom.si <= 0:
        return None
    return placed_on_face(package, cover)


def air_side(build: Build, package: Package) -> AirSide:
    """The air side of a package in this vehicle; what is missing stands in and is caught by `needs_of`."""
    opening = opening_on_face(build.survey, package)
    seen = opening, build.survey.air_holes
    return _air_side(build.brief.vehicle, build.brief.accessories.ac_fitted, *seen, air_parts(package))


@by_identity(64)
def _air_side(
    vehicle: Vehicle, ac_fitted: bool, opening: Outline | None, holes: tuple[AirHole, ...], package: Parts
) -> AirSide:
    zones, fan_zone = zones_of(package)
    covers = ahead_of_core(package, ac_fitted)
    rectangles = tuple(cover_rectangle(package, cover) for cover in covers)
    core = package.core
    laid = core.flow == "crossflow", int(core.passes.si)
    classes, lanes = _face((face_size(package), opening, rectangles, zones), *laid)
    fans = _fan_set(package)
    return AirSide(
        classes=classes,
        lanes=lanes,
        network=_network((vehicle, holes), package, classes, (zones, fan_zone, covers), fans),
        fans=fans,
        zones=zones,
        fan_zone=fan_zone,
    )


Looked = tuple[tuple[float, float], Outline | None, tuple[Rectangle | None, ...], tuple[Zone, ...]]
"""What a face is parted by, as `face_classes` takes it."""


@by_value(1024)
def _face(parted: Looked, crossflow: bool, passes: int) -> tuple[FaceClasses, Lanes]:
    """The classes of a face and its lanes: of two cores of one size behind the same fans the same ones."""
    classes = widened(face_classes(*parted), CLASS_STEP)
    return classes, as_lanes(classes.mix, crossflow, passes)


def _network(
    car: tuple[Vehicle, tuple[AirHole, ...]],
    package: Parts,
    classes: FaceClasses,
    parts: tuple[tuple[Zone, ...], tuple[int, ...], tuple[Cooler, ...]],
    fans: FanSet,
) -> Network:
    zones, fan_zone, covers = parts
    vehicle, holes = car
    loss = (
        classes.corner + classes.covered @ np.array([cover.loss.si for cover in covers]) if covers else classes.corner
    )
    shares = _shroud_shares(zones)
    leak, flaps = _shroud_areas(package)
    round_fan = [
        _round_disc(zone)
        + sum(_round_tips(package, fan) for fan, own in zip(package.fans, fan_zone, strict=False) if own == node)
        for node, zone in enumerate(zones, 2)
    ]
    # Where there is no fan at all a stand-in zone keeps the arrays' shape; nothing flows in it.
    empty = not zones
    inlet, outlet, ram, behind = _openings(vehicle, package)
    return Network(
        grille_area=np.array(inlet),
        exit_area=np.array(outlet),
        bypass_area=np.array(open_area(package, holes)),
        area=classes.area,
        loss=np.asarray(loss, float),
        leak_area=np.array(
            [share * leak + spill for share, spill in zip(shares, round_fan, strict=True)] + [0.0] * empty
        ),
        flap_area=np.array([share * flaps for share in shares] + [0.0] * empty),
        flaps_open=np.array(FLAPS_OPEN[package.shroud.flap_hinge == "bottom", package.shroud.flap_way]),
        ram=np.array(ram),
        base=np.array(behind),
        pushes=fans.pushes,
        incidence=incidence(
            classes.front, classes.rear, fan_zone or (2,), tuple(zone.pusher for zone in zones) or (False,)
        ),
    )


def _round_disc(zone: Zone) -> float:
    """Leak area [m2] of what a zone of one fan has of its own: the slot round a bare one's disc, the edge of a pusher's
    shroud."""
    if zone.rectangle is None:
        return 2 * np.pi * (zone.discs[0].radius + zone.gap) * zone.gap * SPILL_LEAK
    return 2 * (zone.rectangle[2] + zone.rectangle[3]) * DUCT_EDGE if zone.pusher else 0.0


def _round_tips(package: Parts, fan: Fan) -> float:
    """Leak area [m2] round the tips of an engine's fan in a shroud: blades that stand too little in it, or were
    trimmed."""
    if fan.motor != "engine" or not in_shroud(package, fan):
        return 0.0
    off = held_off(package, fan)
    out = max(LEAST_IN - immersion_of(package, fan), 0.0) * blade_depth(fan)
    past = max(off - package.shroud.depth.si, 0.0) if off is not None else 0.0
    return float(np.pi * swept(fan) * (out + past + fan.tip_trim.si) * SPILL_LEAK)


def _openings(vehicle: Vehicle, package: Parts) -> tuple[float, float, float, float]:
    """Areas [m2] the air comes in and leaves by, and the road's pressure at both; ducts count as less of an inlet."""
    remote = package.remote
    if not remote.away:
        return si_or_one(vehicle.grille_area), si_or_one(vehicle.exit_area), RAM_RECOVERY, base_pressure(package)
    narrowed = math.sqrt(GRILLE_LOSS / (GRILLE_LOSS + remote.duct_loss.si))
    return remote.inlet_area.si * narrowed, remote.exit_area.si, remote.ram.si, remote.behind.si


def _shroud_areas(package: Parts) -> tuple[float, float]:
    """Leak and flap area [m2] of the whole shroud."""
    rectangle, shroud = shroud_rectangle(package), package.shroud
    if rectangle is None:
        return 0.0, 0.0
    return 2 * (rectangle[2] + rectangle[3]) * (
        shroud.edge_gap.si + stands_proud(package)
    ) + shroud.hole_area.si, shroud.flap_area.si


def halves_of(package: Parts) -> Halves | None:
    """The two shrouds that are made one; None where there is one."""
    shroud = package.shroud
    if not shroud.joined or shroud.blank_width is None:
        return None
    first = shroud.blank_width.si
    second = shroud.second_width.si if shroud.second_width else first
    high = shroud.blank_height.si if shroud.blank_height else face_size(package)[1]
    return Halves((first, second), high, shroud.join_trim.si, shroud.lap.si)


def stands_proud(package: Parts) -> float:
    """How far [m] a bought shroud that is too wide to seat between the tanks stands off the fins; 0 where it seats."""
    shroud, seat = package.shroud, face_size(package)
    if shroud.kind != "full":
        return 0.0
    across = package.core.flow == "crossflow"
    halves = halves_of(package)
    wide = halves.width if halves else shroud.blank_width.si if shroud.blank_width else None
    high = shroud.blank_height.si if shroud.blank_height else None
    size, room = (wide, seat[0]) if across else (high, seat[1])
    cut = shroud.trim_left.si + shroud.trim_right.si if across else shroud.trim_bottom.si + shroud.trim_top.si
    return package.core.tank_proud.si if size is not None and size - cut > room + SEATED else 0.0


def _shroud_shares(zones: tuple[Zone, ...]) -> list[float]:
    own = [zone.rectangle is not None and not zone.pusher for zone in zones]
    return [1 / sum(own) if shrouded else 0.0 for shrouded in own]


def _fan_set(package: Parts) -> FanSet:
    fans = package.fans[:MOST_FANS]
    found = [credible_curve(fan) for fan in fans]
    empty = [] if fans else [1.0]
    curves = [_placed_curve(package, fan, curve) for fan, (curve, _) in zip(fans, found, strict=True)]
    return FanSet(
        curve=stack(curves or [no_fan()]),
        power=np.array([0.0 if fan.motor == "engine" else power_of(fan) for fan in fans] + empty),
        rated_voltage=np.array(
            [label.voltage if (label := fan_rating(fan)) else si_or_one(fan.rated_voltage) for fan in fans] + empty
        ),
        brushless=np.array([float(fan.motor == "brushless") for fan in fans] + [0.0 for _ in empty]),
        runs=np.array([float(fan.runs) for fan in fans] + [0.0 for _ in empty]),
        pushes=np.array([float(fan.mount == "pusher") for fan in fans] + [0.0 for _ in empty]),
        driven=np.array([float(fan.motor == "engine") for fan in fans] + [0.0 for _ in empty]),
        drag=np.array([shaft_of(fan) if fan.motor == "engine" else 0.0 for fan in fans] + [0.0 for _ in empty]),
        clutch=np.array([float(fan.clutch) for fan in fans] + [0.0 for _ in empty]),
        doubt=float(np.mean([doubt for _, doubt in found])) if found else 0.0,
    )


def _placed_curve(package: Parts, fan: Fan, curve: FanCurve) -> FanCurve:
    """The curve as fitted: less for a blade run backwards, and for the part of the disc that lies over a tank or past
    the face."""
    flow = pressure = 1.0
    if fan.reversed_blade:
        flow, pressure = fan.reversed_share.si, fan.reversed_share.si**2
    if fan.mount == "pusher":
        flow *= PUSHED
    lost = 1 - disc_on_face(face_size(package), disc_of(fan))
    shrouded = in_shroud(package, fan) or duct_rectangle(package, fan) is not None
    flow *= max(1 - lost * (OVER_TANK if shrouded else 1.0), 0.05)
    # The hole is as large as the part of the disc that still faces the core.
    return curve._replace(flow=curve.flow * flow, pressure=curve.pressure * pressure, hole=curve.hole / pressure)


@by_value(256)
def disc_on_face(size: tuple[float, float], disc: Disc) -> float:
    """Share of a fan's disc that lies on the face, by strips."""
    strips = disc.radius * np.linspace(-1, 1, 201)
    half = np.sqrt(np.maximum(disc.radius**2 - strips**2, 0.0))
    inside = np.minimum(disc.y + half, size[1]) - np.maximum(disc.y - half, 0.0)
    on_face = np.where((disc.x + strips >= 0) & (disc.x + strips <= size[0]), np.maximum(inside, 0.0), 0.0)
    return float(on_face.sum() / max((2 * half).sum(), 1e-12))
