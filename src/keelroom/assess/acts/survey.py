"""Acts on the survey: what was found on the vehicle added to its lists, a measure read a second time."""

from __future__ import annotations

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.inputs.coolant.ports import ROLE_WORDS
from keelroom.document.edits import Edit, added, fresh_id, set_value
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.survey import AirHole, Corner, HoseEnd, MountHole, Obstacle, Turning


def _corner(do: Doing) -> Edit:
    """The first time the rectangle's own corners, so that nothing is lost; later one more after the last."""
    opening, where = do.build.survey.opening, ("survey", "opening", "corners")
    if opening.corners:
        last, first = opening.corners[-1], opening.corners[0]
        x, y = (
            from_si((a.si + b.si) / 2, "length", do.system, "measured")
            for a, b in ((last.x, first.x), (last.y, first.y))
        )
        return added(do.build, where, Corner(id=fresh_id(opening.corners, "corner"), x=x, y=y), "Add a corner")
    wide = opening.width.si if opening.width else 0.6
    high = opening.height.si if opening.height else 0.45
    made: list[Corner] = []
    for at in ((0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high)):
        x, y = (from_si(value, "length", do.system, "measured") for value in at)
        made.append(Corner(id=fresh_id(tuple(made), "corner"), x=x, y=y))
    return set_value(where, tuple(made), "Opening by its corners")


def _turning(do: Doing) -> Edit:
    ident = fresh_id(do.build.survey.engine.turning, "turning")
    return added(
        do.build, ("survey", "engine", "turning"), Turning(id=ident, name="Another pulley"), "Add a pulley or belt"
    )


def _obstacle(do: Doing) -> Edit:
    ident = fresh_id(do.build.survey.obstacles, "obstacle")
    return added(
        do.build,
        ("survey", "obstacles"),
        Obstacle(id=ident, name=f"Obstacle {ident.removeprefix('obstacle')}"),
        "Add an obstacle",
    )


def _hole(do: Doing) -> Edit:
    ident = fresh_id(do.build.survey.holes, "hole")
    hole = MountHole(id=ident, name=f"Hole {ident.removeprefix('hole')}", diameter=quantity("1/4 in", "length"))
    return added(do.build, ("survey", "holes"), hole, "Add a mounting hole")


def _air_hole(do: Doing) -> Edit:
    ident = fresh_id(do.build.survey.air_holes, "air")
    hole = AirHole(id=ident, name=f"Air hole {ident.removeprefix('air')}")
    return added(do.build, ("survey", "air_holes"), hole, "Add a hole that lets air past")


def _port(do: Doing) -> Edit:
    """The next port an engine usually has."""
    ends = do.build.survey.hoses
    role = next(
        (role for role in ("heater_out", "heater_in", "steam") if not any(end.role == role for end in ends)), "steam"
    )
    fields = {
        "id": fresh_id(ends, "port"),
        "role": role,
        "name": f"Engine {ROLE_WORDS[role]}",
        "bore": quantity("5/8 in", "length"),
    }
    return added(do.build, ("survey", "hoses"), HoseEnd.model_validate(fields), "Add a port of the engine")


KINDS = (
    ActKind("add_corner", "The opening by its corners, or one corner more", _corner, "Add a corner", first=""),
    ActKind(
        "add_turning", "Something that turns or sweeps ahead of the engine", _turning, "Add a pulley or belt", first=""
    ),
    ActKind("add_obstacle", "A neighbour of the package", _obstacle, "Add an obstacle", first=""),
    ActKind("add_hole", "A hole a mount can go to", _hole, "Add a mounting hole", first=""),
    ActKind("add_air_hole", "A hole that lets air past the core", _air_hole, "Add a hole that lets air past", first=""),
    ActKind("add_engine_port", "A coolant port of the engine", _port, "Add a port of the engine", first="y"),
)
