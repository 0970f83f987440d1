"""A small picture for each measurement of the tape walk: where the tape goes, drawn on a plain bay."""

from __future__ import annotations

from typing import Literal, NamedTuple

from keelroom.drawing.scene import Circle, Dimension, Label, Point, Polyline, Rect, Scene, Shape

Base = Literal["front", "side", "above"]
Path = tuple[str, ...]


class Where(NamedTuple):
    """Which picture, and from where to where the tape runs on it."""

    base: Base
    start: Point
    end: Point
    words: str


# A plain bay in metres: opening 0.62 by 0.46 from the datum, engine 0.40 behind the plane.
WIDE, HIGH, ENGINE, HOOD = 0.62, 0.46, 0.42, 0.58
PULLEY = (0.31, 0.16)
BOX = (0.46, 0.24, 0.12, 0.10, 0.20, 0.12)
"""an obstacle: left, bottom, width, height, front, depth"""
WALK: dict[str, Where] = {
    "opening.width": Where("front", (0, 0.10), (WIDE, 0.10), "inside the opening, edge to edge"),
    "opening.height": Where("front", (0.12, 0), (0.12, HIGH), "inside the opening, lower to upper edge"),
    "opening.panel_thickness": Where("side", (-0.03, 0.05), (0.0, 0.05), "over the lip, as deep as the metal goes"),
    "opening.support_lean": Where("side", (0.0, 0.0), (0.05, HIGH), "how far the support's top stands back"),
    "corners.x": Where("front", (0, 0.34), (0.52, 0.34), "from the left edge to the corner"),
    "corners.y": Where("front", (0.52, 0), (0.52, 0.34), "from the lower edge up to the corner"),
    "turning.depth": Where(
        "side", (0.0, PULLEY[1]), (ENGINE - 0.08, PULLEY[1]), "from the support plane back to its front"
    ),
    "turning.x": Where("front", (0, PULLEY[1]), PULLEY, "from the left edge to its centre"),
    "turning.y": Where("front", (PULLEY[0], 0), PULLEY, "from the lower edge up to its centre"),
    "turning.diameter": Where(
        "front", (PULLEY[0] - 0.07, PULLEY[1]), (PULLEY[0] + 0.07, PULLEY[1]), "across it, belt included"
    ),
    "engine.block_depth": Where("side", (0.0, 0.30), (ENGINE, 0.30), "from the support plane to the block"),
    "engine.pulley_stack": Where("side", (ENGINE - 0.08, 0.22), (ENGINE, 0.22), "from the block to the pulley's front"),
    "engine.rock_forward": Where(
        "side", (ENGINE - 0.10, PULLEY[1]), (ENGINE - 0.08, PULLEY[1]), "pry the engine forward: how far it comes"
    ),
    "engine.rock_sideways": Where(
        "front", (PULLEY[0], PULLEY[1]), (PULLEY[0] + 0.03, PULLEY[1]), "push it sideways: how far it goes"
    ),
    "hood.front": Where("side", (0.0, 0.0), (0.0, HOOD), "from the datum up to the hood's underside, at the plane"),
    "hood.back": Where("side", (0.30, 0.0), (0.30, HOOD + 0.06), "the same further back, over the engine"),
    "hood.run": Where("side", (0.0, HOOD - 0.02), (0.30, HOOD - 0.02), "how far back the second one was taken"),
    "rails.left": Where("above", (0.0, -0.20), (-0.06, -0.20), "from the left edge to the rail's inner face"),
    "rails.right": Where(
        "above", (0.0, -0.26), (WIDE + 0.06, -0.26), "from the left edge to the right rail's inner face"
    ),
    "rails.top": Where("side", (0.20, 0.0), (0.20, -0.05), "from the datum to the top of the rails"),
    "rails.between": Where("above", (-0.06, -0.32), (WIDE + 0.06, -0.32), "rail to rail in one reading"),
    "obstacles.left": Where("front", (0, BOX[1]), (BOX[0], BOX[1]), "from the left edge to its left side"),
    "obstacles.bottom": Where("front", (BOX[0], 0), (BOX[0], BOX[1]), "from the lower edge to its underside"),
    "obstacles.front": Where("side", (0, BOX[1]), (BOX[4], BOX[1]), "from the support plane to its front"),
    "obstacles.width": Where("front", (BOX[0], BOX[1] + BOX[3]), (BOX[0] + BOX[2], BOX[1] + BOX[3]), "across it"),
    "obstacles.height": Where("front", (BOX[0] + BOX[2], BOX[1]), (BOX[0] + BOX[2], BOX[1] + BOX[3]), "up it"),
    "obstacles.depth": Where("side", (BOX[4], BOX[1] + BOX[3]), (BOX[4] + BOX[5], BOX[1] + BOX[3]), "front to back"),
    "hoses.x": Where("front", (0, 0.40), (0.44, 0.40), "from the left edge to the neck's centre"),
    "hoses.y": Where("front", (0.44, 0), (0.44, 0.40), "from the lower edge up to the neck's centre"),
    "hoses.z": Where("side", (0, 0.40), (0.36, 0.40), "from the support plane to the neck's end"),
    "hoses.bore": Where("front", (0.42, 0.40), (0.46, 0.40), "across the neck, outside"),
    "holes.x": Where("front", (0, 0.50), (0.10, 0.50), "from the left edge to the hole's centre, negative to its left"),
    "holes.y": Where("front", (0.10, 0), (0.10, 0.50), "from the lower edge up to the hole's centre"),
    "holes.z": Where("side", (0, 0.50), (0.04, 0.50), "from the support plane to the metal it is in"),
    "holes.diameter": Where("front", (0.09, 0.50), (0.11, 0.50), "the drill that just goes in"),
    "holes.behind": Where(
        "side", (0.04, 0.50), (0.14, 0.50), "from behind the metal to what stands there: room for a drill"
    ),
    "sealing.top.gap": Where(
        "front", (0.31, HIGH - 0.04), (0.31, HIGH), "from core and condenser up to the bay's metal, at its widest"
    ),
    "sealing.bottom.gap": Where(
        "front", (0.31, 0.0), (0.31, 0.04), "from the bay's metal up to the core, at its widest"
    ),
    "sealing.left.gap": Where("front", (0.0, 0.23), (0.04, 0.23), "from the bay's metal to the core, at its widest"),
    "sealing.right.gap": Where(
        "front", (WIDE - 0.04, 0.23), (WIDE, 0.23), "from the core to the bay's metal, at its widest"
    ),
    "sealing.top.length": Where(
        "front", (0.04, HIGH - 0.02), (WIDE - 0.04, HIGH - 0.02), "as far as the gap runs over the core"
    ),
    "sealing.bottom.length": Where("front", (0.04, 0.02), (WIDE - 0.04, 0.02), "as far as the gap runs under the core"),
    "sealing.left.length": Where("front", (0.02, 0.04), (0.02, HIGH - 0.04), "as far as the gap runs beside the core"),
    "sealing.right.length": Where(
        "front", (WIDE - 0.02, 0.04), (WIDE - 0.02, HIGH - 0.04), "as far as the gap runs beside the core"
    ),
    "air_holes.width": Where("front", (-0.085, 0.14), (-0.025, 0.14), "across the hole"),
    "air_holes.height": Where("front", (-0.055, 0.11), (-0.055, 0.17), "up the hole"),
    "air_holes.x": Where(
        "front", (-0.055, 0.14), (0.0, 0.14), "from the left edge to its middle, negative to its left"
    ),
    "air_holes.y": Where("front", (-0.055, 0.0), (-0.055, 0.14), "from the lower edge up to its middle"),
    "survey.ground": Where("side", (0.0, 0.0), (0.0, -0.16), "from the datum down to the ground, vehicle as it rides"),
}


def where_of(path: Path) -> Where | None:
    """Where the tape goes for the field at a survey path."""
    if path[2:3] == ("sealing",):
        return WALK.get(".".join(path[2:]))
    if path[:1] != ("survey",):
        return None
    section = (
        "survey"
        if len(path) == 2
        else next((s for s in ("corners", "turning", "obstacles", "hoses", "air_holes", "holes") if s in path), path[1])
    )
    return WALK.get(f"{section}.{path[-1]}")


def picture(path: Path, text: str = "", words: bool = True) -> Scene | None:
    """The picture of one measurement, with the reading on its dimension line. words: with names, for a picture of
    some size."""
    where = where_of(path)
    if where is None:
        return None
    shapes: list[Shape] = {"front": _front, "side": _side, "above": _above}[where.base]()
    if path[2:3] == ("sealing",):
        shapes = [shape for shape in shapes if shape.role.startswith(("fit.panel", "picture"))]
        shapes += [
            Rect("fit.core", 0.04, 0.04, WIDE - 0.08, HIGH - 0.08),
            Label("fit.name", (WIDE / 2, HIGH / 2), "core and condenser"),
        ]
    elif "air_holes" in path:
        shapes.append(Circle("pattern.drill", (-0.055, 0.14), 0.03))
    if words:
        shapes.append(Label("picture.words", _foot(where.base), where.words))
    else:
        shapes = [shape for shape in shapes if not isinstance(shape, Label)]
    shapes.append(Dimension("tape", where.start, where.end, 0.0, text or ("measure" if words else "")))
    bounds = {
        "front": (-0.14, -0.10, 0.90, 0.72),
        "side": (-0.14, -0.20, 0.80, 0.92),
        "above": (-0.16, -0.62, 0.94, 0.74),
    }[where.base]
    return Scene(tuple(shapes), bounds)


def _foot(base: Base) -> Point:
    return {"front": (0.31, -0.075), "side": (0.26, -0.175), "above": (0.31, -0.595)}[base]


def _front() -> list[Shape]:
    x, y, w, h = BOX[0], BOX[1], BOX[2], BOX[3]
    return [
        Rect("fit.panel", -0.10, -0.05, WIDE + 0.20, HIGH + 0.12),
        Rect("picture.hole", 0, 0, WIDE, HIGH),
        Circle("fit.turning", PULLEY, 0.07),
        Circle("fit.turning", (0.20, 0.28), 0.045),
        Rect("fit.static", x, y, w, h),
        Circle("fit.hose", (0.44, 0.40), 0.02),
        Circle("pattern.drill", (0.10, 0.50), 0.006),
        Label("fit.name", (x + w / 2, y - 0.018), "obstacle"),
        Label("fit.name", (0.20, 0.215), "pump"),
        Label("fit.name", (PULLEY[0], 0.245), "pulley"),
        *_datum((0.0, 0.0), "left edge, lower edge"),
    ]


def _side() -> list[Shape]:
    return [
        Rect("fit.panel", -0.03, HIGH, 0.03, 0.08),
        Rect("fit.panel", -0.03, -0.06, 0.03, 0.06),
        Polyline("picture.plane", ((0.0, -0.12), (0.0, HIGH + 0.14))),
        Polyline("fit.hood", ((-0.10, HOOD - 0.02), (0.64, HOOD + 0.12))),
        Rect("picture.block", ENGINE, -0.02, 0.20, 0.44),
        Rect("fit.turning", ENGINE - 0.08, PULLEY[1] - 0.07, 0.04, 0.14),
        Rect("fit.turning", ENGINE - 0.05, 0.24, 0.03, 0.09),
        Rect("fit.static", BOX[4], BOX[1] + 0.09, BOX[5], 0.06),
        Polyline("fit.hose", ((0.36, 0.38), (0.36, 0.42), (0.42, 0.42), (0.42, 0.38)), closed=True),
        Label("fit.name", (ENGINE + 0.10, 0.20), "engine"),
        Label("fit.name", (0.50, HOOD + 0.055), "hood"),
        *_datum((0.0, 0.0), "support plane"),
    ]


def _above() -> list[Shape]:
    return [
        Rect("fit.panel", -0.10, 0.0, 0.10, 0.03),
        Rect("fit.panel", WIDE, 0.0, 0.10, 0.03),
        Rect("fit.static", -0.14, -0.54, 0.08, 0.54),
        Rect("fit.static", WIDE + 0.06, -0.54, 0.08, 0.54),
        Rect("picture.block", 0.10, -0.56, 0.44, 0.14),
        Rect("fit.turning", PULLEY[0] - 0.07, -ENGINE + 0.04, 0.14, 0.04),
        Label("fit.name", (0.32, -0.49), "engine"),
        Label("fit.name", (-0.10, -0.45), "rail"),
        Label("fit.name", (WIDE + 0.10, -0.45), "rail"),
        *_datum((0.0, 0.0), "left edge"),
    ]


def _datum(at: Point, words: str) -> list[Shape]:
    x, y = at
    return [
        Circle("picture.datum", at, 0.012),
        Polyline("picture.datum", ((x - 0.02, y), (x + 0.02, y))),
        Polyline("picture.datum", ((x, y - 0.02), (x, y + 0.02))),
        Label("picture.words", (x + 0.10, y - 0.026), f"datum: {words}"),
    ]
