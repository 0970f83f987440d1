"""Acts on the bay: neighbours moved away, the package put in the middle, against the supports, elsewhere, and the
panel cut for it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.acts.places import changes_for, option_of
from keelroom.assess.placing import Stand, cuts_for, hidden_strips, stand
from keelroom.assess.safety import cautions
from keelroom.document.edits import Change, Edit, added, apply, set_value
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.moves import Move
from keelroom.document.schema.package import Package, PanelEdge
from keelroom.errors import InputError
from keelroom.units import INCH

STAGE = INCH
"""[m] at most this much is cut in one stage: the smallest cut first, then look again."""


def _move_away(do: Doing) -> Edit:
    ident, package = do.given("obstacle"), do.package
    item = next((one for one in do.build.survey.obstacles if one.id == ident), None)
    if item is None:
        raise InputError("no_such_obstacle", "The survey no longer has that neighbour")
    if ident in package.moved:
        raise InputError("moved_already", "It is counted as moved already")
    return added(do.build, (*do.where, "moves"), Move(id=ident), do.act.label or f"Move {item.name or ident}")


class CutStep(NamedTuple):
    """One cut further: its edge, its amount [m], the build with it and all before it, and the changes that make
    them."""

    edge: PanelEdge
    amount: float
    build: Build
    changes: tuple[Change, ...]


def cut_steps(build: Build, package: Package, system: str) -> Iterator[CutStep]:
    """Cuts that clear the face, the narrowest strip first, each no more than a stage; the core stays where it is as
    the opening grows."""
    where, present = ("packages", package.id, "cuts"), package.cuts
    kept = _kept_place(build, package, system)
    for edge, strip in hidden_strips(build.survey, package):
        left = strip
        while left > 1e-5:
            amount = min(left, STAGE)
            left -= amount
            present = (*present, *cuts_for(present, ((edge, amount),), system))
            changes = (Change(where, present), *kept)
            yield CutStep(edge, amount, apply(build, Edit("", changes)), changes)


def _kept_place(build: Build, package: Package, system: str) -> tuple[Change, ...]:
    at, where = stand(build.survey, package), ("packages", package.id, "place")
    wanted = (("x", at.x, package.place.x), ("y", at.y, package.place.y))
    return tuple(
        Change((*where, axis), from_si(value, "length", system, "derived"))
        for axis, value, have in wanted
        if have is None
    )


def letter(number: int) -> str:
    """What the n-th cut is called."""
    return chr(ord("A") + number - 1) if number <= 26 else str(number)


def _cut_to(do: Doing) -> Edit:
    steps = cut_steps(do.build, do.package, do.system)
    found = next((step for number, step in enumerate(steps, 1) if letter(number) == do.given("stage")), None)
    if found is None:
        raise InputError("no_such_cut", "That cut is no longer wanted: look at the stages again")
    return Edit(do.act.label, found.changes)


def _cut_clear(do: Doing) -> Edit:
    strips = hidden_strips(do.build.survey, do.package)
    if not strips:
        raise InputError("clear_already", "The panel hides nothing of the face")
    cuts = (*do.package.cuts, *cuts_for(do.package.cuts, strips, "us"))
    return set_value((*do.where, "cuts"), cuts, do.act.label)


def _take_place(do: Doing) -> Edit:
    option = option_of(do.build, do.package, do.given("parts"), tuple(do.given("away").split()))
    at = Stand(*(do.number(name) for name in ("x", "y", "z", "lean")))
    changes = changes_for(do.build, do.package, option, at, do.system)
    return Edit(do.act.label, changes)


def _place(do: Doing, **update: object) -> Edit:
    return set_value((*do.where, "place"), do.package.place.model_copy(update=update), do.act.label)


MOVED = cautions("move")
KINDS = (
    ActKind(
        "move_away",
        "Count on a neighbour being moved; where it goes is asked next",
        _move_away,
        cautions=MOVED,
        before=("What it is, what hangs on it, and whether it may be moved at all",),
        first="how",
        rests_on=(("survey", "obstacles"),),
    ),
    ActKind(
        "put_back",
        "Every neighbour where it was found",
        lambda do: set_value((*do.where, "moves"), (), do.act.label),
        "Put moved parts back",
        rests_on=(("survey", "obstacles"),),
    ),
    ActKind(
        "centre",
        "The package in the middle of the opening",
        lambda do: _place(do, x=None, y=None),
        "Middle of the opening",
        rests_on=(("survey", "opening"),),
    ),
    ActKind(
        "to_plane",
        "The package upright against the supports",
        lambda do: _place(do, z=quantity("0 in", "length"), lean=None),
        "Against the support plane",
        rests_on=(("survey", "opening", "support_lean"),),
    ),
    ActKind(
        "take_place",
        "Put the package at a place that was found, with what has to change for it",
        _take_place,
        cautions=MOVED,
        before=("A mock-up of cardboard at that place, hood closed",),
        rests_on=(("survey", "opening"), ("survey", "obstacles"), ("survey", "hood")),
    ),
    ActKind(
        "cut_to",
        "Plan the cuts of the panel up to a stage",
        _cut_to,
        cautions=cautions("structure", "cut"),
        rests_on=(("survey", "opening"), ("survey", "rails")),
    ),
    ActKind(
        "cut_clear",
        "Plan the cuts that clear the face of the panel",
        _cut_clear,
        "Cut the panel clear of the face",
        cautions=cautions("structure", "cut"),
        rests_on=(("survey", "opening"), ("survey", "rails")),
    ),
)
