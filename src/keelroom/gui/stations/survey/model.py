"""The tape walk: what to measure, in which order, page by page."""

from __future__ import annotations

from keelroom.assess.acts.registry import offer
from keelroom.assess.fit.cut_rules import CHECKS
from keelroom.assess.fit.moves import CAPPED
from keelroom.assess.inputs.coolant.ports import end_name
from keelroom.document.fields import owner_and_spec
from keelroom.document.schema.build import Build
from keelroom.document.schema.survey import HoseEnd, Obstacle, ObstacleKind
from keelroom.facts import lowered
from keelroom.gui.rows import Group, Page, Path, Row, quantities, readings

EDGES = (("plain", "Plain sheet"), ("stamped", "Stamped: stiffens"), ("no_go", "No-go: not to be cut"))
SHAPES = (
    ("box", "Box"),
    ("cylinder_across", "Cylinder, lying across"),
    ("cylinder_upright", "Cylinder, upright"),
    ("cylinder_along", "Cylinder, front to back"),
)
MOBILITY = (("fixed", "Fixed"), ("movable", "Can be moved"), ("removable", "Can be taken away"))
FACES = (("front", "Faces front or rear"), ("side", "Faces sideways"), ("up", "Faces up or down"))
KINDS_OF_OBSTACLE = (
    ("other", "Something else"),
    ("horn", "Horn"),
    ("regulator", "Voltage regulator"),
    ("washer_bottle", "Washer bottle"),
    ("overflow_bottle", "Overflow bottle"),
    ("expansion_bottle", "Expansion bottle"),
    ("brake_unit", "Brake unit"),
    ("battery_tray", "Battery tray"),
    ("latch_support", "Latch support"),
    ("exhaust", "Exhaust, manifold or turbine"),
)
HOSE_NAMES = {"upper": "Upper hose", "lower": "Lower hose"}
WALK_NOTE = (
    "Enter goes on. A tape reading counts ±1/16 in; write ~ before one taken by eye (±1/4 in). Empty is not measured."
)


def pages(build: Build) -> tuple[Page, ...]:
    """The walk, in the order of the tape: opening, engine, hood and rails, what is in the way, hoses, holes and
    checks."""
    survey = build.survey
    way = ("survey",)
    opening = (*way, "opening")
    engine = (*way, "engine")
    return (
        Page(
            "Opening",
            (
                Group(
                    "Panel opening",
                    (*readings(opening, "width", "height", "panel_thickness", "support_lean"),),
                    note=WALK_NOTE,
                ),
                Group("Room for the core", quantities(way, "room_width", "room_height")),
                *_edges(build),
            ),
            (("Give its corners instead", offer("add_corner")),),
        ),
        Page(
            "Engine",
            (
                Group("The engine", (Row("flag", (*engine, "out"), "It is out of the car"),)),
                *(_turning(item.name or item.id, (*engine, "turning", item.id)) for item in survey.engine.turning),
                Group(
                    "Block and mounts", readings(engine, "block_depth", "pulley_stack", "rock_forward", "rock_sideways")
                ),
            ),
            (("Add a pulley or belt", offer("add_turning")),),
        ),
        Page(
            "Hood, rails",
            (
                Group(
                    "Hood’s underside",
                    readings((*way, "hood"), "front", "back", "run"),
                    note="Braces included, hood down on putty.",
                ),
                Group("Frame rails", readings((*way, "rails"), "left", "right", "top", "between")),
                Group("Ground", readings(way, "ground")),
            ),
        ),
        Page(
            "In the way",
            tuple(_obstacle(item.name or item.id, (*way, "obstacles", item.id), item.kind) for item in survey.obstacles)
            or (
                Group(
                    "Nothing in the way yet",
                    (),
                    note="Crossover pipe, brake unit, horn, regulator, reservoir, battery, steering box, latch, "
                    "bumper beam.",
                ),
            ),
            (("Add an obstacle", offer("add_obstacle")),),
            stay=True,
            brief=lambda path: obstacle_words(next(item for item in survey.obstacles if item.id == path[-1])),
        ),
        _air_gaps(build),
        Page(
            "Hoses",
            tuple(_hose_end(hose, (*way, "hoses", hose.id)) for hose in survey.hoses),
            (("Add a port of the engine", offer("add_engine_port")),),
            stay=True,
        ),
        Page(
            "Holes",
            (
                *(_hole(item.name or item.id, (*way, "holes", item.id)) for item in survey.holes),
                Group(
                    "Looked at before any cut",
                    (
                        Row(
                            "set",
                            (*way, "checks"),
                            "Checked on the vehicle",
                            tuple((key, name) for key, (name, _) in CHECKS.items()),
                        ),
                    ),
                ),
            ),
            (("Add a mounting hole", offer("add_hole")),),
            stay=True,
        ),
    )


ROLES = (
    ("outlet", "Coolant out"),
    ("inlet", "Coolant in"),
    ("heater_out", "To the heater"),
    ("heater_in", "From the heater"),
    ("steam", "Steam or vent port"),
)
PORT_FACES = (
    ("front", "Forward"),
    ("rear", "Rearward"),
    ("left", "To the left"),
    ("right", "To the right"),
    ("up", "Up"),
    ("down", "Down"),
)


def _hose_end(end: HoseEnd, path: Path) -> Group:
    """A coolant port of the engine; the two every engine has stay."""
    name = HOSE_NAMES.get(end.id) or end_name(end)
    usual = end.id in HOSE_NAMES
    return Group(
        name,
        (
            *(() if usual else (Row("text", (*path, "name"), "Name", said=name),)),
            Row("choice", (*path, "role"), "What it is for", ROLES, name),
            *readings(path, "x", "y", "z", "bore", of=name),
            Row("choice", (*path, "faces"), "It points", PORT_FACES, name),
            Row("flag", (*path, "plugged"), "It is closed for good", said=name),
        ),
        remove=() if usual else path,
    )


EDGE_WORDS = {
    "top": "Over the core",
    "left": "Left of the core",
    "right": "Right of the core",
    "bottom": "Under the core",
}
GAP_NOTE = (
    "From core and condenser to the bay’s metal, at its widest, before any panel or seal. Until it is measured "
    "3/8 in is assumed."
)


def _air_gaps(build: Build) -> Page:
    """What lets air past the core of the package in hand, and holes beside it."""
    sealing = ("packages", build.active, "sealing")
    edges = [
        Group(words, readings((*sealing, edge), "gap", "length", of=words), note=GAP_NOTE if edge == "top" else "")
        for edge, words in EDGE_WORDS.items()
    ]
    holes = [
        Group(
            item.name or item.id,
            (
                Row("text", ("survey", "air_holes", item.id, "name"), "Name"),
                *readings(
                    ("survey", "air_holes", item.id),
                    *(("width",) if item.round else ("width", "height")),
                    "x",
                    "y",
                    of=item.name or item.id,
                ),
                Row("flag", ("survey", "air_holes", item.id, "round"), "Round"),
            ),
            remove=("survey", "air_holes", item.id),
        )
        for item in build.survey.air_holes
    ]
    return Page("Air gaps", (*edges, *holes), (("Add a hole that lets air past", offer("add_air_hole")),), stay=True)


def _edges(build: Build) -> tuple[Group, ...]:
    opening = ("survey", "opening")
    corners = build.survey.opening.corners
    if corners:
        return tuple(
            Group(
                f"Corner {number}",
                (
                    *readings((*opening, "corners", corner.id), "x", "y", of=f"Corner {number}"),
                    Row("choice", (*opening, "corners", corner.id, "edge"), "Edge from it", EDGES),
                ),
                remove=(*opening, "corners", corner.id),
            )
            for number, corner in enumerate(corners, 1)
        )
    names = (
        ("left_edge", "Left edge"),
        ("right_edge", "Right edge"),
        ("bottom_edge", "Lower edge"),
        ("top_edge", "Upper edge"),
    )
    return (Group("Its edges", tuple(Row("choice", (*opening, field), words, EDGES) for field, words in names)),)


def obstacle_words(item: Obstacle) -> str:
    """What is in the way in a few words."""
    kind = dict(KINDS_OF_OBSTACLE)[item.kind].lower() if item.kind != "other" else ""
    return ", ".join(word for word in (kind, dict(MOBILITY)[item.mobility].lower()) if word)


def _turning(name: str, path: Path) -> Group:
    return Group(
        name,
        (Row("text", (*path, "name"), "Name"), *readings(path, "depth", "x", "y", "diameter", of=name)),
        remove=path,
    )


def _obstacle(name: str, path: Path, kind: ObstacleKind) -> Group:
    return Group(
        name,
        (
            Row("text", (*path, "name"), "Name"),
            Row("choice", (*path, "kind"), "It is a", KINDS_OF_OBSTACLE),
            Row("choice", (*path, "shape"), "Shape", SHAPES),
            *readings(path, "left", "bottom", "front", "width", "height", "depth", of=name),
            Row("choice", (*path, "mobility"), "Mobility", MOBILITY),
            Row("quantity", (*path, "work")),
            Row("flag", (*path, "structural"), "Structural: panel, beam, latch, sensor"),
            *((Row("flag", (*path, "shielded"), "A heat shield on it"),) if kind == "exhaust" else ()),
            *(quantities(path, "holds") if kind in CAPPED else ()),
        ),
        remove=path,
    )


def _hole(name: str, path: Path) -> Group:
    return Group(
        name,
        (
            Row("text", (*path, "name"), "Name"),
            *readings(path, "x", "y", "z", "diameter", of=name),
            *readings(path, "behind", of=name),
            Row("choice", (*path, "faces"), "Its metal", FACES),
            Row("flag", (*path, "stud"), "A stud stands there"),
        ),
        remove=path,
    )


def walk(build: Build) -> tuple[tuple[str, tuple[tuple[str, Path], ...]], ...]:
    """The whole walk as (title, readings with their words), for bench mode and the blank sheet."""
    found = []
    for page in pages(build):
        for group in page.groups:
            rows = tuple((label_of(build, row.path), row.path) for row in group.rows if row.sort == "reading")
            if rows:
                found.append((group.title, rows))
    return tuple(found)


def label_of(build: Build, path: Path) -> str:
    """The words of a measure."""
    _, spec = owner_and_spec(build, path)
    assert spec is not None
    if path[2:3] == ("sealing",):
        return f"{EDGE_WORDS[path[3]]}: {lowered(spec.label)}"
    return spec.label
