"""The front elevation: looking at the core from the front, true scale, origin at the face's lower left."""

from __future__ import annotations

import itertools
import math

from keelroom.assess.inputs.air_parts import held_off
from keelroom.assess.inputs.airside import cover_rectangle, duct_rectangle, in_shroud, shroud_rectangle
from keelroom.assess.inputs.fans import swept
from keelroom.assess.placing import face_size, opening_on_face, tank_size
from keelroom.core.air.face import Rectangle
from keelroom.document.schema.package import Fan, Package
from keelroom.document.schema.survey import Survey
from keelroom.drawing.scene import Circle, Dimension, Label, Polyline, Rect, Scene, Shape
from keelroom.units import KINDS, format_si

LENGTH = KINDS["length"]
BLADES = {"straight": 8, "curved": 7}
TUBE_LINES = 26
"""Lines that suggest the tubes; their true pitch would be a grey field."""


def elevation(package: Package, system: str, survey: Survey | None = None) -> Scene:
    """Core, tanks, panel opening, covers, shroud and fans of a package with dimensions; an empty scene with a note
    where no face is known."""
    core = package.core
    if core.face_width is None or core.face_height is None:
        return Scene((), (0.0, 0.0, 0.7, 0.45), "The drawing starts with the core's face width and height")
    width, height = core.face_width.si, core.face_height.si
    tank = tank_size(core)
    across = core.flow == "crossflow"
    shapes = [*_core(width, height, tank, across), *_ahead(package, survey), *_shroud(package)]
    for fan in package.fans:
        held, duct = held_off(package, fan), duct_rectangle(package, fan)
        gap = package.shroud.fan_gap.si if held is None else max(held, 0.0)
        shapes += _fan(fan, not in_shroud(package, fan) and duct is None, gap, duct)
    side, top = (tank, 0.0) if across else (0.0, tank)
    gap = 0.075 * max(width, height)
    shapes += [
        Dimension("dimension", (0, 0), (width, 0), -(gap + top), f"face {format_si(width, LENGTH, system)}"),
        Dimension("dimension", (0, 0), (0, height), gap + side, format_si(height, LENGTH, system)),
    ]
    for i, fan in enumerate(package.fans):
        shapes += _fan_dimensions(fan, i, (width, height), gap, top, system)
    shapes.sort(key=lambda shape: isinstance(shape, Label))  # words last, so that nothing is drawn over them
    left, bottom = side + 2.1 * gap, top + 2.0 * gap
    bounds = (
        -left,
        -bottom,
        width + left + side + 1.3 * gap,
        height + bottom + top + (1.9 + 0.9 * len(package.fans)) * gap,
    )
    return Scene(tuple(shapes), bounds)


def _core(width: float, height: float, tank: float, across: bool) -> list[Shape]:
    shapes: list[Shape] = []
    if tank > 0:
        places = (
            ((-tank, 0, tank, height), (width, 0, tank, height))
            if across
            else ((0, -tank, width, tank), (0, height, width, tank))
        )
        shapes += [Rect("core.tank", left, bottom, wide, high, 0.25 * tank) for left, bottom, wide, high in places]
    shapes.append(Rect("core.face", 0, 0, width, height))
    for i in range(1, TUBE_LINES):
        at = i / TUBE_LINES
        ends = ((0, at * height), (width, at * height)) if across else ((at * width, 0), (at * width, height))
        shapes.append(Polyline("core.tube", ends))
    return shapes


def _ahead(package: Package, survey: Survey | None) -> list[Shape]:
    """The panel's opening, and covers that do not span the whole face."""
    shapes: list[Shape] = []
    opening = opening_on_face(survey, package) if survey else None
    if opening is not None:
        shapes.append(Polyline("panel.opening", opening, closed=True))
        xs, top = [x for x, _ in opening], min(max(y for _, y in opening), face_size(package)[1])
        shapes.append(Label("panel.name", ((min(xs) + max(xs)) / 2, top - 0.012), "panel opening"))
    for cover in (cooler for cooler in package.coolers if cooler.stands == "ahead"):
        placed = cover_rectangle(package, cover)
        if placed is not None:
            shapes.append(Rect("cover", *placed))
            name = cover.name or cover.kind.replace("_", " ")
            shapes.append(Label("cover.name", (placed[0] + placed[2] / 2, placed[1] + 0.012), name))
    return shapes


def _shroud(package: Package) -> list[Shape]:
    rectangle = shroud_rectangle(package)
    if rectangle is None or not package.fans:
        return []
    shapes: list[Shape] = [Rect("shroud.edge", *rectangle, radius=0.012)]
    inside = sorted(fan.x.si for fan in package.fans if in_shroud(package, fan))
    if package.shroud.plenum == "divided":
        for a, b in itertools.pairwise(inside):
            middle = (a + b) / 2
            shapes.append(Polyline("shroud.edge", ((middle, rectangle[1]), (middle, rectangle[1] + rectangle[3]))))
    return shapes


def _fan(fan: Fan, bare: bool, gap: float, duct: Rectangle | None) -> list[Shape]:
    if fan.diameter is None:
        return []
    radius, hub = swept(fan) / 2, (fan.hub_diameter.si if fan.hub_diameter else 0.3 * fan.diameter.si) / 2
    centre = (fan.x.si, fan.y.si)
    shapes: list[Shape] = [Circle("fan.spill", centre, radius + gap)] if bare else []
    if duct is not None:
        shapes.append(Rect("cover", *duct))
    shapes.append(Circle("fan.ring" if fan.runs else "fan.stopped", centre, radius, tag=fan.id))
    count = BLADES[fan.blade]
    for k in range(count):
        shapes.append(
            Polyline(
                "fan.blade",
                _blade(centre, hub, 0.95 * radius, 2 * math.pi * k / count, 0.55 if fan.blade == "curved" else 0.0),
            )
        )
    shapes.append(Circle("fan.hub", centre, hub))
    return shapes


def _blade(
    centre: tuple[float, float], hub: float, tip: float, angle: float, sweep: float
) -> tuple[tuple[float, float], ...]:
    steps = 6 if sweep else 1
    points = []
    for i in range(steps + 1):
        share = i / steps
        r, a = hub + share * (tip - hub), angle + sweep * share**1.5
        points.append((centre[0] + r * math.cos(a), centre[1] + r * math.sin(a)))
    return tuple(points)


def _fan_dimensions(
    fan: Fan, index: int, face: tuple[float, float], gap: float, top: float, system: str
) -> list[Shape]:
    if fan.diameter is None:
        return []
    _, height = face
    x, y = fan.x.si, fan.y.si
    offset = height - y + top + (0.9 + 0.9 * index) * gap
    return [
        Dimension("dimension.fan", (0, y), (x, y), offset, format_si(x, LENGTH, system)),
        Label(
            "fan.size",
            (x, y),
            format_si(fan.diameter.si, LENGTH, system)
            + ("" if fan.runs else ", stopped")
            + (", pusher" if fan.mount == "pusher" else ""),
        ),
    ]
