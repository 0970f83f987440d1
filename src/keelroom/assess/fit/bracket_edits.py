"""Brackets the tool plans: from the core to a surveyed hole, and for a neighbour that has a new place."""

from __future__ import annotations

import math

from keelroom.assess.fit.mounts import anchors, bracket_plans
from keelroom.document.edits import fresh_id
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.mounts import Bracket
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


def bracket_to(build: Build, hole_id: str, present: tuple[Bracket, ...]) -> Bracket:
    """A bracket from the nearest hole of the core to a surveyed hole, in the usual strip."""
    points = anchors(build.survey, build.package)
    hole = points[f"hole:{hole_id}"]
    nearest = min((key for key in points if key.startswith("core:")), key=lambda key: math.dist(points[key].at, hole.at))
    return Bracket(id=fresh_id(present, "bracket"), name=f"Bracket, {hole.words}", start=nearest, end=hole.key)


def bracket_for_move(build: Build, package: Package, ident: str, system: str) -> Bracket:
    """A bracket from a moved neighbour to the nearest surveyed hole that none goes to, or to a new hole under where it stood.

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
    place = {axis: from_si(value, "length", system, "derived") for axis, value in zip(("new_x", "new_y", "new_z"), foot.at, strict=True)}
    below = from_si(foot.at[1] - 0.05, "length", system, "derived")
    made = Bracket(id=ident_of, name=name, start=f"neighbour:{ident}:left", end="new", new_faces="side", **(place | {"new_y": below}))  # type: ignore[arg-type]
    return _in_strip(build, package, made)


def _in_strip(build: Build, package: Package, bracket: Bracket) -> Bracket:
    """The bracket in the first strip that nothing is wrong with; the usual one where something is with all."""
    tried = (
        bracket.model_copy(update={"width": quantity(wide, "length"), "thickness": quantity(thick, "length")}) for wide, thick in STRIPS
    )
    return next((one for one in tried if not _wrong(build, package, one)), bracket)


def _wrong(build: Build, package: Package, bracket: Bracket) -> bool:
    plans = bracket_plans(build, package.model_copy(update={"brackets": (*package.brackets, bracket)}))
    return bool(plans[-1].wrong)
