"""From the document to solids: the package's parts where they stand, and what the survey found round them."""

from __future__ import annotations

import math
from typing import Literal, NamedTuple

import numpy as np

from keelroom.assess.airside import in_shroud, placed_on_face, shroud_rectangle, stands_proud
from keelroom.assess.placing import Frame, core_depth, cut_outline, face_size, measured, placed_frame, tank_size
from keelroom.core.kept import by_identity, by_value
from keelroom.core.outline import edges
from keelroom.core.packaging.solids import Solid, Vector, along, cross, leaned
from keelroom.document.quantity import Quantity
from keelroom.document.schema.package import Core, Cut, Fan, Package
from keelroom.document.schema.survey import HoseEnd, Obstacle, Opening, Survey, Turning
from keelroom.units import INCH

Sort = Literal["part", "fan", "hose", "static", "turning", "hood", "panel"]
Path = tuple[str, ...]

TAPE, EYE = INCH / 16, INCH / 4
"""± [m] of a reading with a tape, and by eye (common practice)."""
TOLERANCE = {"measured": TAPE, "catalogue": 2e-3, "derived": 0.0, "assumed": EYE}
RIM = 0.5 * INCH
"""What a fan's ring stands out beyond its blades (common practice)."""
RING_SHARE = 0.55
"""Share of a fan's depth its ring takes; the motor takes all of it (common practice)."""
HOSE_WALL = 5e-3
TURNING_THICK = 0.04
STAND_IN = 4 * INCH
"""Size drawn for what is not measured."""
WIDE = 1.2
ROCK = INCH / 2
"""[m] how far an engine is taken to rock where nobody tried (common practice)."""


class Term(NamedTuple):
    """One reading a face of a solid depends on, how far it may be off [m], and how far the face moves per metre of it."""

    label: str
    path: Path
    tolerance: float
    share: float = 1.0


Terms = tuple[Term, ...]
NONE: tuple[Terms, Terms, Terms] = ((), (), ())


class Body(NamedTuple):
    """A named solid. low, high: the readings its faces depend on, along its own three axes; unknown: not all of it is measured;
    assumed: some of it is only a guess."""

    key: str
    name: str
    sort: Sort
    solid: Solid
    path: Path
    low: tuple[Terms, Terms, Terms] = NONE
    high: tuple[Terms, Terms, Terms] = NONE
    unknown: bool = False
    assumed: bool = False


def tolerance(value: Quantity) -> float:
    """How far [m] a measure may be off: as stated, otherwise by where it came from."""
    return value.doubt if value.doubt is not None else TOLERANCE[value.origin]


AGREES = 2.0
"""Two readings of one length may differ by this many times their tolerance."""


def may_differ(first: Quantity) -> float:
    """How far [m] a second reading may lie from the first before one of them was misread."""
    return max(AGREES * tolerance(first), TAPE) + 1e-9


RADIUS = 0.5
"""A face moves by half of what its diameter is off."""


def term(label: str, path: Path, value: Quantity | None, share: float = 1.0) -> Terms:
    """The term of a reading; none where there is no reading."""
    return () if value is None else (Term(label, path, tolerance(value), share),)


@by_identity(64)
def parts_of_package(survey: Survey, package: Package) -> tuple[Body, ...]:
    """Every part of the package as a solid where it stands; core first."""
    core, width_height = package.core, face_size(package)
    width, height = width_height
    frame, where = placed_frame(survey, package), ("packages", package.id)
    depth, tank = core_depth(core), tank_size(core)
    # Where the core is set is planned, not read: it will be set with a tape.
    at = (
        (Term("Place sideways", (*where, "place", "x"), TAPE),),
        (Term("Place in height", (*where, "place", "y"), TAPE),),
        (Term("Core behind the plane", (*where, "place", "z"), TAPE),),
    )
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
        ends = (("Left tank", (-tank, 0.0), (0.0, height)), ("Right tank", (width, width + tank), (0.0, height))) if across else (
            ("Bottom tank", (0.0, width), (-tank, 0.0)), ("Top tank", (0.0, width), (height, height + tank)))  # fmt: skip
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
                Body(name.lower().replace(" ", "_"), name, "part", frame.box(u, v, (0.0, back)), (*where, "core", "tank_size"), low, top)
            )
    found += _shroud(package, frame, where, (at, at[2] + deep, depth), (wide, high))
    for number, fan in enumerate(package.fans, 1):
        found += _fan(package, fan, number, frame, (at, at[2] + deep, depth))
    found += _covers(package, frame, where, at, (wide, high))
    neck = (
        at[0] + wide + side,
        at[1] + high + side,
        at[2] + deep + proud,
    )
    found += _hoses(survey, package, frame, neck)
    return tuple(_as_before(body) for body in found)


@by_value(4000)
def _as_before(body: Body) -> Body:
    """The one object of all equal bodies, so that what was worked out for it still holds."""
    return body


Chain = tuple[tuple[Terms, Terms, Terms], Terms, float]
"""What the core's front lower left corner hangs on, what its back does, and its depth [m]."""


def _shroud(package: Package, frame: Frame, where: Path, chain: Chain, face: tuple[Terms, Terms]) -> list[Body]:
    rectangle = shroud_rectangle(package)
    if rectangle is None or not package.fans:
        return []
    at, deep, depth = chain
    left, bottom, wide, high = rectangle
    over = 0.0
    if stands_proud(package) and package.shroud.blank_width:
        over = (package.shroud.blank_width.si - package.shroud.trim_left.si - package.shroud.trim_right.si - wide) / 2
    start = depth + stands_proud(package)
    solid = frame.box((left - over, left + wide + over), (bottom, bottom + high), (start, start + package.shroud.depth.si))
    shroud, path = package.shroud, (*where, "shroud")
    own = term("Shroud depth", (*path, "depth"), shroud.depth)
    across, upward = at[0], at[1]
    sized = shroud.kind != "full"
    if sized:
        across += term("Shroud from left", (*path, "left"), shroud.left)
        upward += term("Shroud from bottom", (*path, "bottom"), shroud.bottom)
    # A full one, or one without a size of its own, reaches to the far edge of the face.
    right = across + term("Shroud width", (*path, "width"), shroud.width) if sized and shroud.width else at[0] + face[0]
    top = upward + term("Shroud height", (*path, "height"), shroud.height) if sized and shroud.height else at[1] + face[1]
    return [Body("shroud", "Shroud", "part", solid, (*path, "depth"), (across, upward, deep), (right, top, deep + own))]


def standoff(package: Package, fan: Fan) -> float:
    """From the fins to the fan's front [m]: the shroud's depth, and what it stands proud, or a bare fan's gap."""
    if in_shroud(package, fan):
        return package.shroud.depth.si + stands_proud(package)
    return package.shroud.fan_gap.si


def _fan(package: Package, fan: Fan, number: int, frame: Frame, chain: Chain) -> list[Body]:
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
    start, far = (deep + own, deep + own + term(f"Fan {number} depth", (*where, "depth"), fan.depth))
    hub = (fan.hub_diameter.si if fan.hub_diameter else 0.3 * fan.diameter.si) / 2
    bodies = []
    for key, name, radius, length in (("ring", "ring", fan.diameter.si / 2 + RIM, RING_SHARE * long), ("motor", "motor", hub, long)):
        span = (-off - length, -off) if pusher else (depth + off, depth + off + length)
        sides = (across + size, upward + size) if key == "ring" else (across + middle, upward + middle)
        solid = frame.disc((fan.x.si, fan.y.si), radius, span)
        faces = (far, at[2]) if pusher else (start, far)
        bodies.append(
            Body(f"{key}:{fan.id}", f"Fan {number} {name}", "fan", solid, (*where, "depth"), (*sides, faces[0]), (*sides, faces[1]))
        )
    return bodies


def _covers(package: Package, frame: Frame, where: Path, at: tuple[Terms, Terms, Terms], face: tuple[Terms, Terms]) -> list[Body]:
    found = []
    for cover in package.covers:
        left, bottom, wide, high = placed_on_face(package, cover)
        front = -cover.stand_off.si
        path = (*where, "covers", cover.id)
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


def necks(package: Package) -> dict[str, tuple[float, float, float]]:
    """Where the hoses leave the core, in its own frame: inlet (upper hose) and outlet (lower hose)."""
    core, (width, height) = package.core, face_size(package)
    tank, depth = tank_size(core), core_depth(core) / 2
    inlet_right = core.inlet_side == "right"
    one_way = int(core.passes.si) % 2 == 1
    if core.flow == "crossflow":
        u = {"upper": width + tank / 2 if inlet_right else -tank / 2}
        u["lower"] = (-tank / 2 if inlet_right else width + tank / 2) if one_way else u["upper"]
        return {"upper": (u["upper"], height - 0.05, depth), "lower": (u["lower"], 0.05, depth)}
    sides = {"upper": width - 0.08 if inlet_right else 0.08, "lower": 0.08 if inlet_right else width - 0.08}
    return {"upper": (sides["upper"], height + tank / 2, depth), "lower": (sides["lower"], -tank / 2, depth)}


def _hoses(survey: Survey, package: Package, frame: Frame, neck: tuple[Terms, Terms, Terms]) -> list[Body]:
    """Each hose as a stub straight out of the tank, then straight to its end at the engine."""
    found = []
    places = necks(package)
    for hose in survey.hoses:
        end = _known(hose)
        if end is None:
            continue
        u, v, w = places[hose.id]
        out = w + package.core.tank_proud.si + 1.5 * hose.bore.si
        start, turn = frame.point(u, v, w), frame.point(u, v, out)
        radius = hose.bore.si / 2 + HOSE_WALL
        where: Path = ("survey", "hoses", hose.id)
        for key, a, b in (("stub", start, turn), ("run", turn, end)):
            solid = along(a, b, radius)
            loose = _hose_terms(hose, where, solid, neck, key == "run")
            found.append(Body(f"{key}:{hose.id}", f"{hose.id.capitalize()} hose", "hose", solid, (*where, "x"), loose, loose))
    return found


def _hose_terms(hose: HoseEnd, where: Path, solid: Solid, neck: tuple[Terms, Terms, Terms], run: bool) -> tuple[Terms, Terms, Terms]:
    """Along its own axes a hose moves with the core's neck, and the run with its end at the engine. Its bore counts across it."""
    name = f"{hose.id.capitalize()} hose"
    ways = (("from left", "x"), ("from bottom", "y"), ("depth", "z"))
    bore = term(f"{name} bore", (*where, "bore"), hose.bore, RADIUS)

    def along_axis(k: int) -> Terms:
        moved: Terms = bore if k < 2 else ()
        for j, (words, axis) in enumerate(ways):
            share = abs(solid.axes[k][j])
            moved += tuple(t._replace(share=t.share * share) for t in neck[j])
            moved += term(f"{name} end, {words}", (*where, axis), getattr(hose, axis), share) if run else ()
        return moved

    return along_axis(0), along_axis(1), along_axis(2)


def _known(hose: HoseEnd) -> Vector | None:
    return (hose.x.si, hose.y.si, hose.z.si) if hose.x and hose.y and hose.z else None


@by_identity(16)
def neighbours(survey: Survey) -> tuple[Body, ...]:
    """What stands round the package, the panel left out: it depends on the cuts."""
    found = [_turning(survey, item) for item in survey.engine.turning]
    found += [_obstacle(survey, item) for item in survey.obstacles]
    return (*found, *_hood(survey), *_rails(survey))


def _middle(survey: Survey) -> tuple[float, float]:
    opening = survey.opening
    return (opening.width.si if opening.width else 0.6) / 2, (opening.height.si if opening.height else 0.4) / 2


def _turning(survey: Survey, item: Turning) -> Body:
    """A turning part where rocking brings it: forward, and wider by how far it sways."""
    where: Path = ("survey", "engine", "turning", item.id)
    engine, (x, y) = survey.engine, _middle(survey)
    rock = engine.rock_forward.si if engine.rock_forward else ROCK
    sway = engine.rock_sideways.si if engine.rock_sideways else ROCK / 2
    front = (item.depth.si if item.depth else 16 * INCH) - rock
    radius = (item.diameter.si if item.diameter else STAND_IN) / 2
    centre = (item.x.si if item.x else x, item.y.si if item.y else y, front + TURNING_THICK / 2)
    name = item.name or item.id
    sideways = term("Engine rock sideways", ("survey", "engine", "rock_sideways"), engine.rock_sideways)
    across, upward = (
        term(f"{name} {words}", (*where, axis), value) + term(f"{name} diameter", (*where, "diameter"), item.diameter, RADIUS) + sideways
        for words, axis, value in (("from left", "x", item.x), ("from bottom", "y", item.y))
    )
    deep = term(f"{name} depth", (*where, "depth"), item.depth) + term(
        "Engine rock forward", ("survey", "engine", "rock_forward"), engine.rock_forward
    )
    unknown = None in (item.x, item.y, item.diameter, item.depth)
    solid = Solid(centre, (radius + sway, radius + sway, TURNING_THICK / 2), round=True)
    return Body(f"turning:{item.id}", name, "turning", solid, (*where, "depth"), (across, upward, deep), (across, upward, deep), unknown)


ALONG = {
    "cylinder_across": ((0.0, 1.0, 0.0), (0.0, 0.0, 1.0), (1.0, 0.0, 0.0)),
    "cylinder_upright": ((0.0, 0.0, 1.0), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)),
    "cylinder_along": ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)),
}


def _obstacle(survey: Survey, item: Obstacle) -> Body:
    where: Path = ("survey", "obstacles", item.id)
    x, y = _middle(survey)
    start = [q.si if q else s for q, s in zip((item.left, item.bottom, item.front), (x, y, 10 * INCH), strict=True)]
    size = [q.si if q else STAND_IN for q in (item.width, item.height, item.depth)]
    centre: Vector = (start[0] + size[0] / 2, start[1] + size[1] / 2, start[2] + size[2] / 2)
    name = item.name or item.id
    low, high = [], []
    for first, second in (("left", "width"), ("bottom", "height"), ("front", "depth")):
        near = term(f"{name}: {first}", (*where, first), getattr(item, first))
        low.append(near)
        high.append(near + term(f"{name}: {second}", (*where, second), getattr(item, second)))
    sides = (item.left, item.bottom, item.front, item.width, item.height, item.depth)
    unknown, assumed = None in sides, any(side.origin == "assumed" for side in sides if side)
    key, path = f"obstacle:{item.id}", (*where, "left")
    if item.shape == "box":
        return Body(
            key,
            name,
            "static",
            Solid(centre, (size[0] / 2, size[1] / 2, size[2] / 2)),
            path,
            (low[0], low[1], low[2]),
            (high[0], high[1], high[2]),
            unknown,
            assumed,
        )
    axes = ALONG[item.shape]
    order = [int(np.argmax(np.abs(axis))) for axis in axes]
    radius = min(size[order[0]], size[order[1]]) / 2
    solid = Solid(centre, (radius, radius, size[order[2]] / 2), axes, True)
    return Body(
        key,
        name,
        "static",
        solid,
        path,
        (low[order[0]], low[order[1]], low[order[2]]),
        (high[order[0]], high[order[1]], high[order[2]]),
        unknown,
        assumed,
    )


HOOD_THICK = 0.02


def hood_line(survey: Survey) -> tuple[tuple[float, float], tuple[float, float]] | None:
    """The hood's underside as two points (z, y), ahead of the plane and far behind it; None where nothing is measured."""
    hood = survey.hood
    if hood.front is None and hood.back is None:
        return None
    front = hood.front or hood.back
    back = hood.back or hood.front
    assert front
    assert back
    slope = (back.si - front.si) / hood.run.si
    return (-0.3, front.si - 0.3 * slope), (0.9, front.si + 0.9 * slope)


def _hood(survey: Survey) -> list[Body]:
    line = hood_line(survey)
    if line is None:
        return []
    (z0, y0), (z1, y1) = line
    length = math.hypot(z1 - z0, y1 - y0)
    way = ((y1 - y0) / length, (z1 - z0) / length)
    normal = (way[1], -way[0])
    middle = ((y0 + y1) / 2 + normal[0] * HOOD_THICK / 2, (z0 + z1) / 2 + normal[1] * HOOD_THICK / 2)
    x, _ = _middle(survey)
    axes: tuple[Vector, Vector, Vector] = ((1, 0, 0), (0, way[0], way[1]), (0, normal[0], normal[1]))
    solid = Solid((x, middle[0], middle[1]), (WIDE, length / 2, HOOD_THICK / 2), axes)
    hood = survey.hood
    read = term("Hood at support plane", ("survey", "hood", "front"), hood.front) + term(
        "Hood further back", ("survey", "hood", "back"), hood.back
    )
    # Between two readings the line is off by no more than the worse of them.
    read = tuple(sorted(read, key=lambda item: -item.tolerance)[:1])
    return [
        Body("hood", "Hood", "hood", solid, ("survey", "hood", "front"), ((), (), read), ((), (), read), None in (hood.front, hood.back))
    ]


def _rails(survey: Survey) -> list[Body]:
    rails, found = survey.rails, []
    for side, value, sign in (("left", rails.left, -1.0), ("right", rails.right, 1.0)):
        if value is None:
            continue
        top = rails.top.si if rails.top else 0.0
        solid = Solid((value.si + sign * 0.04, top - 0.06, 0.3), (0.04, 0.06, 0.6))
        read = term(f"{side.capitalize()} rail", ("survey", "rails", side), value)
        up = term("Top of the rails", ("survey", "rails", "top"), rails.top)
        found.append(
            Body(
                f"rail:{side}",
                f"{side.capitalize()} frame rail",
                "static",
                solid,
                ("survey", "rails", side),
                (read, up, ()),
                (read, up, ()),
                rails.top is None,
            )
        )
    return found


@by_identity(64)
def panel_edges(opening: Opening, cuts: tuple[Cut, ...], core: Core) -> tuple[Body, ...]:
    """The metal at each edge of the opening, cuts made, as a thin strip as deep as the panel."""
    if not measured(opening):
        return ()
    outline = cut_outline(opening, cuts, core)
    lean, thick = opening.support_lean.si, opening.panel_thickness.si
    upright = leaned(lean)
    found = []
    names = ("lower", "right", "upper", "left") if len(outline) == 4 else tuple(str(i + 1) for i in range(len(outline)))
    frame = np.array(upright)
    for number, (name, ((x0, y0), (x1, y1))) in enumerate(zip(names, edges(outline), strict=True)):
        length = math.hypot(x1 - x0, y1 - y0)
        if length < 1e-6:
            continue
        # The outline is drawn upright; on a leaning support it runs up the panel.
        way = (x1 - x0) / length * frame[0] + (y1 - y0) / length * frame[1]
        normal = frame[2]
        side = np.array(cross(_tuple(normal), _tuple(way)))
        middle = (x0 + x1) / 2 * frame[0] + (y0 + y1) / 2 / math.cos(lean) * frame[1] - thick / 2 * normal
        axes: tuple[Vector, Vector, Vector] = (_tuple(way), _tuple(side), _tuple(normal))
        key = f"panel:{name}"
        solid = Solid(_tuple(middle), (length / 2, 5e-4, thick / 2), axes)
        read = _edge_terms(opening, number, (abs(x1 - x0) / length, abs(y1 - y0) / length))
        path = read[0].path if read else ("survey", "opening", "width")
        found.append(Body(key, f"Panel, {name} edge", "panel", solid, path, ((), read, ()), ((), read, ())))
    return tuple(found)


def _edge_terms(opening: Opening, number: int, along_edge: tuple[float, float]) -> Terms:
    """What an edge of the opening depends on, across itself. The left and the lower edge of a rectangle are the datums: nothing.

    along_edge : how much of the edge runs across and up; a corner's reading moves it only square to itself
    """
    where: Path = ("survey", "opening")
    if not opening.corners:
        side = ("bottom", "right", "top", "left")[number]
        sized = {"right": ("Opening width", "width", opening.width), "top": ("Opening height", "height", opening.height)}.get(side)
        return term(sized[0], (*where, sized[1]), sized[2]) if sized else ()
    ends = (opening.corners[number], opening.corners[(number + 1) % len(opening.corners)])
    return tuple(
        t
        for corner in ends
        for axis, share in (("x", along_edge[1]), ("y", along_edge[0]))
        for t in term(
            f"Corner {corner.id}, {'across' if axis == 'x' else 'height'}",
            (*where, "corners", corner.id, axis),
            getattr(corner, axis),
            share,
        )
        if share > 0.1
    )


def _tuple(values: object) -> Vector:
    x, y, z = (float(v) for v in values)  # type: ignore[attr-defined]
    return (x, y, z)
