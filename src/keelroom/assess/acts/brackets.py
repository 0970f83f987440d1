"""Acts that add brackets and frames: from the core to a surveyed hole, for a neighbour that has a new place, one to
describe."""

from __future__ import annotations

import math

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.fit.mounts import anchors, bracket_plans
from keelroom.assess.safety import cautions
from keelroom.document.edits import Edit, added, fresh_id, set_value
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.mounts import Bracket, Frame
from keelroom.document.schema.package import Package
from keelroom.errors import InputError

STRIPS = (
    ("1 1/8 in", "1/8 in"),
    ("1 1/8 in", "3/16 in"),
    ("1 1/2 in", "3/16 in"),
    ("1 1/2 in", "1/4 in"),
    ("2 in", "1/4 in"),
    ("2 in", "3/8 in"),
)
"""width and thickness of strip on sale, the usual first (common practice)."""


def bracket_to(build: Build, package: Package, hole_id: str, present: tuple[Bracket, ...]) -> Bracket:
    """A bracket from the nearest hole of the core to a surveyed hole, in the usual strip."""
    points = anchors(build.survey, package)
    hole = points[f"hole:{hole_id}"]
    nearest = min(
        (key for key in points if key.startswith("core:")), key=lambda key: math.dist(points[key].at, hole.at)
    )
    return Bracket(id=fresh_id(present, "bracket"), name=f"Bracket, {hole.words}", start=nearest, end=hole.key)


def bracket_for_move(build: Build, package: Package, ident: str, system: str) -> Bracket:
    """A bracket from a moved neighbour to the nearest surveyed hole that none goes to, or to a new hole under where
    it stood.

    Raises InputError where it has no place to be held at.
    """
    points = anchors(build.survey, package)
    own = {key: anchor for key, anchor in points.items() if key.startswith(f"neighbour:{ident}:")}
    obstacle = next((item for item in build.survey.obstacles if item.id == ident), None)
    if not own or obstacle is None:
        raise InputError("move_nowhere", "Enter where it goes first: a bracket needs both its ends")
    name = f"Bracket, {obstacle.name or obstacle.id}"
    taken = {end for bracket in package.brackets for end in (bracket.start, bracket.end)}
    free = [anchor for key, anchor in points.items() if key.startswith("hole:") and key not in taken]
    pairs = [(math.dist(a.at, b.at), a.key, b.key) for a in own.values() for b in free]
    ident_of = fresh_id(package.brackets, "bracket")
    if pairs:
        _, start, end = min(pairs)
        return _in_strip(build, package, Bracket(id=ident_of, name=name, start=start, end=end))
    foot = own[f"neighbour:{ident}:bottom"]
    place = {
        axis: from_si(value, "length", system, "derived")
        for axis, value in zip(("new_x", "new_y", "new_z"), foot.at, strict=True)
    }
    below = from_si(foot.at[1] - 0.05, "length", system, "derived")
    made = Bracket(
        id=ident_of,
        name=name,
        start=f"neighbour:{ident}:left",
        end="new",
        new_faces="side",
        **(place | {"new_y": below}),  # type: ignore[arg-type]
    )
    return _in_strip(build, package, made)


def _in_strip(build: Build, package: Package, bracket: Bracket) -> Bracket:
    """The bracket in the first strip that nothing is wrong with; the usual one where something is with all."""
    tried = (
        bracket.model_copy(update={"width": quantity(wide, "length"), "thickness": quantity(thick, "length")})
        for wide, thick in STRIPS
    )
    return next((one for one in tried if not _wrong(build, package, one)), bracket)


def _wrong(build: Build, package: Package, bracket: Bracket) -> bool:
    plans = bracket_plans(build, package.model_copy(update={"brackets": (*package.brackets, bracket)}))
    return bool(plans[-1].wrong)


def _for_move(do: Doing) -> Edit:
    bracket = bracket_for_move(do.build, do.package, do.given("move"), do.system)
    return added(do.build, (*do.where, "brackets"), bracket, do.act.label)


def _to_holes(do: Doing) -> Edit:
    """A bracket to every surveyed hole that has none."""
    present, holes = do.package.brackets, do.build.survey.holes
    taken = {end for bracket in present for end in (bracket.start, bracket.end)}
    whole = [hole for hole in holes if hole.x and hole.y and hole.z]
    made: list[Bracket] = []
    for hole in whole:
        if f"hole:{hole.id}" not in taken:
            made.append(bracket_to(do.build, do.package, hole.id, (*present, *made)))
    if made:
        return set_value((*do.where, "brackets"), (*present, *made), do.act.label)
    if whole:
        raise InputError("holes_taken", "Every fully measured hole has a bracket; measure more holes at Survey")
    first = "measure where it lies across, its height and its depth at Survey first"
    raise InputError("no_holes", f"No hole is fully measured yet: {first}")


def _add(do: Doing) -> Edit:
    ident = fresh_id(do.package.brackets, "bracket")
    bracket = Bracket(id=ident, name=f"Bracket {ident.removeprefix('bracket')}")
    return added(do.build, (*do.where, "brackets"), bracket, "Add a bracket")


def _frame(do: Doing) -> Edit:
    frame = Frame(id=fresh_id(do.package.mounting.frames, "frame"))
    return added(do.build, (*do.where, "mounting", "frames"), frame, "Add a frame of angle")


SHEET = cautions("drill", "bend")
KINDS = (
    ActKind(
        "bracket_for",
        "Plan a bracket that holds a moved neighbour",
        _for_move,
        "Plan a bracket for it",
        cautions=SHEET,
        after=("It holds when pushed by hand, and nothing touches",),
        rests_on=(("survey", "holes"), ("survey", "obstacles")),
    ),
    ActKind(
        "brackets_to_holes",
        "One bracket from the core to each surveyed hole that has none",
        _to_holes,
        "One bracket to each surveyed hole",
        cautions=SHEET,
        rests_on=(("survey", "holes"),),
    ),
    ActKind("add_bracket", "Add a bracket to describe", _add, "Add a bracket", cautions=SHEET),
    ActKind("add_frame", "Add a frame of angle to describe", _frame, "Add a frame of angle", cautions=SHEET),
)
