"""The package's own bodies where they stand: core, tanks, shroud, fans, covers and the hoses to them."""

from __future__ import annotations

import math
from collections.abc import Mapping
from itertools import pairwise

import numpy as np

from keelroom.assess.fit.bodies import RADIUS, Body, Path, Term, Terms, term
from keelroom.assess.fit.coolers import bodies
from keelroom.assess.inputs.air_parts import held_off
from keelroom.assess.inputs.airside import duct_rectangle, in_shroud, placed_on_face, shroud_rectangle, stands_proud
from keelroom.assess.inputs.coolant.heights import cap_tank
from keelroom.assess.inputs.coolant.ports import CORE_IN, Port, ports_in
from keelroom.assess.inputs.coolant.routes import HoseRun, run_of
from keelroom.assess.inputs.fans import swept
from keelroom.assess.made import laid_core
from keelroom.assess.placing import Axes, core_depth, face_size, placed_frame, size_of, tank_size
from keelroom.assess.tape import TAPE
from keelroom.core.kept import by_identity, by_value
from keelroom.core.loop.hoses import WALL
from keelroom.core.loop.route import Route, traced
from keelroom.core.packaging.solids import Solid, along
from keelroom.document.schema.loop import Loop
from keelroom.document.schema.package import Core, Fan, Package
from keelroom.document.schema.survey import Survey
from keelroom.units import INCH

RIM = 0.5 * INCH
"""What a fan's ring stands out beyond its blades (common practice)."""
RING_SHARE = 0.55
"""Share of a fan's depth its ring takes; the motor takes all of it (common practice)."""
CHORDS = 2
"""Straight pieces a bend of a hose is taken as."""
LEAST_HOSE, LEAST_PIECE = 0.018, 2e-3
"""[m] bore of a hose that is a body in the bay, and length of a piece of it: heater hoses and vent lines give way."""
STAND_IN = 4 * INCH
"""Size drawn for what is not measured."""


@by_identity(64)
def parts_of_package(survey: Survey, package: Package) -> tuple[Body, ...]:
    """Every part of the package as a solid where it stands; core first."""
    core, width_height = package.core, face_size(package)
    width, height = width_height
    frame, where = placed_frame(survey, package), ("packages", package.id)
    depth, tank = core_depth(core), tank_size(core)
    at = _set_at(where)
    wide = term("Face width", (*where, "core", "face_width"), core.face_width)
    high = term("Face height", (*where, "core", "face_height"), core.face_height)
    deep = term("Core depth", (*where, "core", "depth"), core.depth)
    side = term("Tank size", (*where, "core", "tank_size"), core.tank_size)
    proud = term("Tanks behind the core", (*where, "core", "tank_proud"), core.tank_proud)
    across = core.flow == "crossflow"
    found = [
        Body(
            "core",
            "Core",
            "part",
            frame.box((0, width), (0, height), (0, depth)),
            (*where, "place", "z"),
            at,
            (at[0] + wide, at[1] + high, at[2] + deep),
        )
    ]
    if tank > 0:
        back = depth + core.tank_proud.si
        ends = (
            (("Left tank", (-tank, 0.0), (0.0, height)), ("Right tank", (width, width + tank), (0.0, height)))
            if across
            else (("Bottom tank", (0.0, width), (-tank, 0.0)), ("Top tank", (0.0, width), (height, height + tank)))
        )
        far = wide if across else high
        for k, (name, u, v) in enumerate(ends):
            # The first tank ends where the face begins, the second begins where it ends.
            reach = (side, ()) if k == 0 else (far, far + side)
            low, top = (
                (at[0] + reach[n], at[1] + (() if n == 0 else high), at[2] + back_read)
                if across
                else (at[0] + (() if n == 0 else wide), at[1] + reach[n], at[2] + back_read)
                for n, back_read in ((0, ()), (1, deep + proud))
            )
            found.append(
                Body(
                    name.lower().replace(" ", "_"),
                    name,
                    "part",
                    frame.box(u, v, (0.0, back)),
                    (*where, "core", "tank_size"),
                    low,
                    top,
                )
            )
    found += _neck_and_cap(package, frame, at, (wide, high, side, deep))
    found += _pads(package, frame, at, (wide, side, deep))
    found += _shroud(package, frame, where, (at, at[2] + deep, depth), (wide, high))
    for number, fan in enumerate(package.fans, 1):
        found += _fan(package, fan, number, frame, (at, at[2] + deep, depth))
    found += _covers(package, frame, where, at, (wide, high))
    found += bodies(package, frame, where)
    found += _hoses(ports_in(survey, package), package.loop, laid_core(core), package.id)
    return tuple(_as_before(body) for body in found)


CAP_RADIUS = 1.1 * INCH
"""of a filler neck with its cap on (common practice: caps are some 2 1/4 in across their ears)"""
PAD = 3 * INCH
"""[m] of a pad along its tank (common practice)."""


def neck_at(core: Core) -> tuple[float, float]:
    """Across and up the face [m] to where the filler neck leaves its tank: as its port says, else on top of the tank
    it is on; a downflow core's by the far end from its inlet."""
    (width, height), tank = size_of(core), tank_size(core)
    filler = next((port for port in core.ports if port.use == "filler"), None)
    if core.flow == "crossflow":
        inlet = cap_tank(core) == CORE_IN
        left = (core.inlet_side == "left") == inlet
        return (-tank / 2 if left else width + tank / 2), height
    if filler is not None:
        return filler.up.si, height + tank
    return (width - 2 * PAD if core.inlet_side == "left" else 2 * PAD), height + tank


def _neck_and_cap(
    package: Package, frame: Axes, at: tuple[Terms, Terms, Terms], reads: tuple[Terms, Terms, Terms, Terms]
) -> list[Body]:
    """The core's filler neck with its cap on; nothing where it has none, or how far it stands up is not entered."""
    core, up = package.core, package.core.neck_height
    if up is None or package.loop.core_neck == "none":
        return []
    wide, high, side, deep = reads
    u, v = neck_at(core)
    w = core_depth(core) / 2
    solid = frame.box((u - CAP_RADIUS, u + CAP_RADIUS), (v, v + up.si), (w - CAP_RADIUS, w + CAP_RADIUS))
    path = ("packages", package.id, "core", "neck_height")
    across = at[0] + (wide + side if u > 0 else side)
    base = at[1] + high + (() if core.flow == "crossflow" else side)
    top = base + term("Filler neck and cap", path, up)
    middle = at[2] + tuple(one._replace(share=one.share / 2) for one in deep)
    return [Body("neck", "Filler neck and cap", "part", solid, path, (across, base, middle), (across, top, middle))]


def _pads(
    package: Package, frame: Axes, at: tuple[Terms, Terms, Terms], reads: tuple[Terms, Terms, Terms]
) -> list[Body]:
    """The rubber pads a core stands on, one under each tank, or two under a bottom tank."""
    thick, core = package.mounting.pads, package.core
    if thick.si <= 0:
        return []
    (width, _), tank, depth = face_size(package), tank_size(core), core_depth(core)
    across = core.flow == "crossflow" and tank > 0
    spans = ((-tank, 0.0), (width, width + tank)) if across else ((0.0, PAD), (width - PAD, width))
    low = 0.0 if across else -tank
    path = ("packages", package.id, "mounting", "pads")
    wide, side, deep = reads
    own = term("Pads", path, thick)
    found = []
    for k, (name, u) in enumerate(zip(("left", "right"), spans, strict=True)):
        sideways = at[0] + ((wide if k else ()) + side)
        solid = frame.box(u, (low - thick.si, low), (0.0, depth))
        under, over = (sideways, at[1] + own, at[2]), (sideways, at[1], at[2] + deep)
        found.append(Body(f"pad:{name}", f"{name.capitalize()} pad", "part", solid, path, under, over))
    return found


def _set_at(where: Path) -> tuple[Terms, Terms, Terms]:
    """Where the core is set is planned, not read: it will be set with a tape."""
    return (
        (Term("Place sideways", (*where, "place", "x"), TAPE),),
        (Term("Place in height", (*where, "place", "y"), TAPE),),
        (Term("Core behind the plane", (*where, "place", "z"), TAPE),),
    )


def _neck(core: Core, where: Path) -> tuple[Terms, Terms, Terms]:
    """What the core's necks hang on."""
    at = _set_at(where)
    side = term("Tank size", (*where, "core", "tank_size"), core.tank_size)
    return (
        at[0] + term("Face width", (*where, "core", "face_width"), core.face_width) + side,
        at[1] + term("Face height", (*where, "core", "face_height"), core.face_height) + side,
        at[2]
        + term("Core depth", (*where, "core", "depth"), core.depth)
        + term("Tanks behind the core", (*where, "core", "tank_proud"), core.tank_proud),
    )


@by_value(4000)
def _as_before(body: Body) -> Body:
    """The one object of all equal bodies, so that what was worked out for it still holds."""
    return body


Chain = tuple[tuple[Terms, Terms, Terms], Terms, float]
"""What the core's front lower left corner hangs on, what its back does, and its depth [m]."""


def _shroud(package: Package, frame: Axes, where: Path, chain: Chain, face: tuple[Terms, Terms]) -> list[Body]:
    rectangle = shroud_rectangle(package)
    if rectangle is None or not package.fans:
        return []
    at, deep, depth = chain
    left, bottom, wide, high = rectangle
    over = 0.0
    if stands_proud(package) and package.shroud.blank_width:
        over = (package.shroud.blank_width.si - package.shroud.trim_left.si - package.shroud.trim_right.si - wide) / 2
    start = depth + seat_off(package)
    solid = frame.box(
        (left - over, left + wide + over), (bottom, bottom + high), (start, start + package.shroud.depth.si)
    )
    shroud, path = package.shroud, (*where, "shroud")
    own = term("Shroud depth", (*path, "depth"), shroud.depth)
    deep += gasketed(package)
    across, upward = at[0], at[1]
    sized = shroud.kind != "full"
    if sized:
        across += term("Shroud from left", (*path, "left"), shroud.left)
        upward += term("Shroud from bottom", (*path, "bottom"), shroud.bottom)
    # A full one, or one without a size of its own, reaches to the far edge of the face.
    right = across + term("Shroud width", (*path, "width"), shroud.width) if sized and shroud.width else at[0] + face[0]
    top = (
        upward + term("Shroud height", (*path, "height"), shroud.height) if sized and shroud.height else at[1] + face[1]
    )
    return [Body("shroud", "Shroud", "part", solid, (*path, "depth"), (across, upward, deep), (right, top, deep + own))]


def seat_off(package: Package) -> float:
    """From the fins to the shroud's front [m]: what it stands proud, and the foam or gasket under it."""
    return stands_proud(package) + package.shroud.gasket.si


def standoff(package: Package, fan: Fan) -> float:
    """From the fins to the fan's front [m]: where the engine holds it, the shroud's depth, and what that sits off
    them, or a bare fan's gap."""
    held = held_off(package, fan)
    if held is not None:
        return held
    if duct_rectangle(package, fan) is not None:
        return fan.duct_depth.si
    if in_shroud(package, fan):
        return package.shroud.depth.si + seat_off(package)
    return package.shroud.fan_gap.si


def gasketed(package: Package) -> Terms:
    """What the foam or gasket under a shroud adds to the stack; nothing where there is none."""
    under = package.shroud.gasket
    return term("Gasket", ("packages", package.id, "shroud", "gasket"), under) if under.si > 0 else ()


def _fan(package: Package, fan: Fan, number: int, frame: Axes, chain: Chain) -> list[Body]:
    at, deep, depth = chain
    where: Path = ("packages", package.id, "fans", fan.id)
    if fan.diameter is None or fan.depth is None:
        return []
    off, long = standoff(package, fan), fan.depth.si
    pusher = fan.mount == "pusher"
    shrouded = in_shroud(package, fan)
    ahead = ("shroud", "depth") if shrouded else ("shroud", "fan_gap")
    own = term(
        "Shroud depth" if shrouded else "Fan off the fins",
        ("packages", package.id, *ahead),
        package.shroud.depth if shrouded else package.shroud.fan_gap,
    )
    across = at[0] + term(f"Fan {number} from left", (*where, "x"), fan.x)
    upward = at[1] + term(f"Fan {number} from bottom", (*where, "y"), fan.y)
    size = term(f"Fan {number} diameter", (*where, "diameter"), fan.diameter, RADIUS)
    middle = term(f"Fan {number} motor, diameter", (*where, "hub_diameter"), fan.hub_diameter, RADIUS)
    duct = duct_rectangle(package, fan)
    if duct is not None:
        own = term(f"Fan {number}, its own shroud's depth", (*where, "duct_depth"), fan.duct_depth)
    if shrouded:
        own += gasketed(package)
    if held_off(package, fan) is not None:
        # The engine holds it: where the core stands is nothing to it.
        deep, own = term("Support plane to its blades", (*where, "nose"), fan.nose), ()
    start, far = (deep + own, deep + own + term(f"Fan {number} depth", (*where, "depth"), fan.depth))
    hub = (fan.hub_diameter.si if fan.hub_diameter else 0.3 * fan.diameter.si) / 2
    bodies = []
    if duct is not None:
        left, bottom, wide, high = duct
        solid = frame.box((left, left + wide), (bottom, bottom + high), (-off, 0.0))
        sides = (across, upward)
        path = (*where, "duct_depth")
        bodies.append(
            Body(f"duct:{fan.id}", f"Fan {number} shroud", "fan", solid, path, (*sides, far), (*sides, at[2]))
        )
    made = [("ring", "ring", swept(fan) / 2 + RIM, RING_SHARE * long), ("motor", "motor", hub, long)]
    # What holds the blades of an engine's fan is the pump's nose itself.
    for key, name, radius, length in made[: 1 if fan.motor == "engine" else 2]:
        span = (-off - length, -off) if pusher else (depth + off, depth + off + length)
        sides = (across + size, upward + size) if key == "ring" else (across + middle, upward + middle)
        solid = frame.disc((fan.x.si, fan.y.si), radius, span)
        faces = (far, at[2]) if pusher else (start, far)
        bodies.append(
            Body(
                f"{key}:{fan.id}",
                f"Fan {number} {name}",
                "fan",
                solid,
                (*where, "depth"),
                (*sides, faces[0]),
                (*sides, faces[1]),
            )
        )
    return bodies


def _covers(
    package: Package, frame: Axes, where: Path, at: tuple[Terms, Terms, Terms], face: tuple[Terms, Terms]
) -> list[Body]:
    found = []
    for cover in package.coolers:
        if cover.stands != "ahead":
            continue
        left, bottom, wide, high = placed_on_face(package, cover)
        front = -cover.stand_off.si
        path = (*where, "coolers", cover.id)
        name = cover.name or cover.kind.replace("_", " ")
        off = term(f"{name} stand-off", (*path, "stand_off"), cover.stand_off)
        thick = term(f"{name} thickness", (*path, "thickness"), cover.thickness)
        across = at[0] + term(f"{name} from left", (*path, "left"), cover.left)
        upward = at[1] + term(f"{name} from bottom", (*path, "bottom"), cover.bottom)
        # Without a size of its own it reaches to the far edge of the face.
        right = across + term(f"{name} width", (*path, "width"), cover.width) if cover.width else at[0] + face[0]
        top = upward + term(f"{name} height", (*path, "height"), cover.height) if cover.height else at[1] + face[1]
        solid = frame.box((left, left + wide), (bottom, bottom + high), (front - cover.thickness.si, front))
        low, far = (across, upward, at[2] + off + thick), (right, top, at[2] + off)
        found.append(Body(f"cover:{cover.id}", name, "part", solid, (*path, "stand_off"), low, far))
    return found


@by_identity(64)
def _hoses(ports: Mapping[str, Port], loop: Loop, core: Core, ident: str) -> tuple[Body, ...]:
    """Each radiator hose whose ends are known as straight pieces along its route."""
    found = []
    neck = _neck(core, ("packages", ident))
    for hose in loop.hoses:
        first, last = ports.get(hose.start), ports.get(hose.end)
        if first is None or last is None:
            continue
        run = run_of(hose, first, last)
        if run.route is None or run.bore < LEAST_HOSE:
            continue
        where: Path = ("packages", ident, "loop", "hoses", hose.id)
        for k, solid in enumerate(hose_solids(run.route, run.bore)):
            loose = _hose_terms(run, where, solid, neck, _moved_by(run.route, solid))
            found.append(Body(f"hose:{hose.id}:{k}", run.name, "hose", solid, (*where, "name"), loose, loose))
    return tuple(found)


def hose_solids(route: Route, bore: float) -> tuple[Solid, ...]:
    """A hose of a bore [m] as straight pieces along its middle line, its wall counted."""
    pairs = pairwise(traced(route, CHORDS))
    return tuple(along(a, b, bore / 2 + WALL) for a, b in pairs if math.dist(a, b) > LEAST_PIECE)


def _moved_by(route: Route, solid: Solid) -> tuple[float, float]:
    """How far a piece of hose moves at most with either end: what runs straight out of a neck goes with it, between
    them by its share."""
    first, last = (
        (np.array(route.corners[k]) for k in (1, -2))
        if len(route.corners) > 3
        else (np.array(route.corners[k]) for k in (0, -1))
    )
    span = last - first
    long = float(span @ span) or 1.0
    half = np.array(solid.axes[2]) * solid.half[2]
    ends = (np.array(solid.centre) - half, np.array(solid.centre) + half)
    near, far = (min(max(float((point - first) @ span) / long, 0.0), 1.0) for point in ends)
    return 1.0 - min(near, far), max(near, far)


def _hose_terms(
    run: HoseRun, where: Path, solid: Solid, neck: tuple[Terms, Terms, Terms], by: tuple[float, float]
) -> tuple[Terms, Terms, Terms]:
    """Along its own axes a piece of hose moves with whatever its ends are joined to. Its bore counts across it."""
    ways = (("from left", "x"), ("from bottom", "y"), ("depth", "z"))
    bore = term(f"{run.name} bore", (*where, "bore"), run.hose.bore, RADIUS)
    wide = next((port for port in (run.start, run.end) if port.bore == run.bore), None)
    if run.hose.bore is None and wide is not None:
        bore = (Term(f"{wide.name} bore", (*wide.path, "bore"), TAPE, 1.0),)

    def of_end(port: Port, j: int, share: float) -> Terms:
        if not share:
            return ()
        if port.key.startswith("core:"):
            return tuple(Term(t.label, t.path, t.tolerance, t.share * share) for t in neck[j])
        words, axis = ways[j]
        return (Term(f"{port.name}, {words}", (*port.path, axis), port.loose[j], share),)

    def along_axis(k: int) -> Terms:
        moved: Terms = bore if k < 2 else ()
        for j, share in enumerate(map(abs, solid.axes[k])):
            moved += of_end(run.start, j, share * by[0]) + of_end(run.end, j, share * by[1])
        return moved

    return along_axis(0), along_axis(1), along_axis(2)
