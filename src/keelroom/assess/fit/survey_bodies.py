"""The bodies of the surveyed bay: what turns, what is in the way, hood, rails and the panel's edges."""

from __future__ import annotations

import math

import numpy as np

from keelroom.assess.fit.bodies import RADIUS, ROCK, WIDE, Body, Path, Terms, rocks_forward, term, vector_of
from keelroom.assess.fit.package_bodies import STAND_IN
from keelroom.assess.placing import cut_outline, measured
from keelroom.core.kept import by_identity
from keelroom.core.outline import edges
from keelroom.core.packaging.solids import Solid, Vector, cross, leaned
from keelroom.document.schema.package import Core, Cut
from keelroom.document.schema.survey import Obstacle, Opening, Survey, Turning
from keelroom.units import INCH

TURNING_THICK = 0.04


@by_identity(16)
def neighbours(survey: Survey) -> tuple[Body, ...]:
    """What stands round the package, the panel left out: it depends on the cuts."""
    found = [_turning(survey, item) for item in survey.engine.turning]
    found += [obstacle_body(survey, item) for item in survey.obstacles]
    return (*found, *_hood(survey), *_rails(survey))


def _middle(survey: Survey) -> tuple[float, float]:
    opening = survey.opening
    return (opening.width.si if opening.width else 0.6) / 2, (opening.height.si if opening.height else 0.4) / 2


def _turning(survey: Survey, item: Turning) -> Body:
    """A turning part where rocking brings it: forward, and wider by how far it sways."""
    where: Path = ("survey", "engine", "turning", item.id)
    engine, (x, y) = survey.engine, _middle(survey)
    rock = rocks_forward(survey)
    sway = engine.rock_sideways.si if engine.rock_sideways else ROCK / 2
    front = (item.depth.si if item.depth else 16 * INCH) - rock
    radius = (item.diameter.si if item.diameter else STAND_IN) / 2
    centre = (item.x.si if item.x else x, item.y.si if item.y else y, front + TURNING_THICK / 2)
    name = item.name or item.id
    sideways = term("Engine rock sideways", ("survey", "engine", "rock_sideways"), engine.rock_sideways)
    across, upward = (
        term(f"{name} {words}", (*where, axis), value)
        + term(f"{name} diameter", (*where, "diameter"), item.diameter, RADIUS)
        + sideways
        for words, axis, value in (("from left", "x", item.x), ("from bottom", "y", item.y))
    )
    deep = term(f"{name} depth", (*where, "depth"), item.depth) + term(
        "Engine rock forward", ("survey", "engine", "rock_forward"), engine.rock_forward
    )
    unknown = None in (item.x, item.y, item.diameter, item.depth)
    solid = Solid(centre, (radius + sway, radius + sway, TURNING_THICK / 2), round=True)
    return Body(
        f"turning:{item.id}",
        name,
        "turning",
        solid,
        (*where, "depth"),
        (across, upward, deep),
        (across, upward, deep),
        unknown,
    )


ALONG = {
    "cylinder_across": ((0.0, 1.0, 0.0), (0.0, 0.0, 1.0), (1.0, 0.0, 0.0)),
    "cylinder_upright": ((0.0, 0.0, 1.0), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)),
    "cylinder_along": ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0)),
}


def obstacle_body(survey: Survey, item: Obstacle) -> Body:
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
    """The hood's underside as two points (z, y), ahead of the plane and far behind it; None where nothing is
    measured."""
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
        Body(
            "hood",
            "Hood",
            "hood",
            solid,
            ("survey", "hood", "front"),
            ((), (), read),
            ((), (), read),
            None in (hood.front, hood.back),
        )
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
        side = np.array(cross(vector_of(normal), vector_of(way)))
        middle = (x0 + x1) / 2 * frame[0] + (y0 + y1) / 2 / math.cos(lean) * frame[1] - thick / 2 * normal
        axes: tuple[Vector, Vector, Vector] = (vector_of(way), vector_of(side), vector_of(normal))
        key = f"panel:{name}"
        solid = Solid(vector_of(middle), (length / 2, 5e-4, thick / 2), axes)
        read = _edge_terms(opening, number, (abs(x1 - x0) / length, abs(y1 - y0) / length))
        path = read[0].path if read else ("survey", "opening", "width")
        found.append(Body(key, f"Panel, {name} edge", "panel", solid, path, ((), read, ()), ((), read, ())))
    return tuple(found)


def _edge_terms(opening: Opening, number: int, along_edge: tuple[float, float]) -> Terms:
    """What an edge of the opening depends on, across itself. The left and the lower edge of a rectangle are the
    datums: nothing.

    along_edge : how much of the edge runs across and up; a corner's reading moves it only square to itself
    """
    where: Path = ("survey", "opening")
    if not opening.corners:
        side = ("bottom", "right", "top", "left")[number]
        sized = {
            "right": ("Opening width", "width", opening.width),
            "top": ("Opening height", "height", opening.height),
        }.get(side)
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
