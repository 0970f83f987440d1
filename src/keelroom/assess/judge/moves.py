"""Findings of neighbours that are moved: what cannot be, what it takes, and what has to be minded."""

from __future__ import annotations

import math

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding, Found
from keelroom.assess.fit.moves import HOW_WORDS, Moved, moves_of
from keelroom.assess.fixes import choose_act, set_act
from keelroom.assess.inputs.coolant.volumes import bottle_wanted
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.facts import given

DOUBTS = ("bottle_unknown", "move_nowhere")


def moves(build: Build, package: Package, assessment: Assessment) -> Found:
    """Every move of the package."""
    known = {item.id for item in build.survey.obstacles}
    for move in package.moves:
        if move.id not in known:
            where = ("packages", package.id, "moves", move.id)
            yield Finding("move_lost", "note", (*where, "how"), fix=(Act("remove", "Forget it", path=where),))
    for moved in moves_of(build, package):
        yield from _moved(build, package, moved)


def _moved(build: Build, package: Package, moved: Moved) -> Found:
    move, name = moved.move, moved.obstacle.name or moved.obstacle.id
    where = ("packages", package.id, "moves", move.id)
    for field, fault in moved.faults:
        code, _, form = fault.code.partition(".")
        if code == "stopped":
            yield Finding("not_worked_out", "problem", (*where, field), given(reason=fault), form="move")
            continue
        fixes = _fixes(build, package, code, where)
        yield Finding(
            code, "doubt" if code in DOUBTS else "problem", (*where, field), fault.figures, form=form, fix=fixes
        )
    ends = [end for bracket in package.brackets for end in (bracket.start, bracket.end, *bracket.starts, *bracket.ends)]
    if move.how in ("bracket", "new_place") and not any(end.startswith(f"neighbour:{move.id}:") for end in ends):
        yield Finding(
            "move_unheld",
            "doubt",
            (*where, "how"),
            given(name=name),
            fix=(Act("bracket_for", "Plan a bracket for it", package.id, (("move", move.id),)),),
        )
    if moved.cautions:
        yield Finding(
            "move_caution", "note", (*where, "how"), given(name=name, how=HOW_WORDS[move.how], cautions=moved.cautions)
        )


def _fixes(build: Build, package: Package, code: str, where: tuple[str, ...]) -> tuple[Act, ...]:
    if code == "move_needed":
        return (choose_act("Give it a new place", (*where, "how"), "new_place"),)
    if code == "slot_long":
        return (choose_act("On a made bracket", (*where, "how"), "bracket"),)
    wanted = bottle_wanted(build, package)
    if code == "bottle_small" and wanted:
        holds = f"{math.ceil(wanted[2] * 1.02e4) / 10:g} L"
        return (set_act(f"A bottle that holds {holds}", (*where, "holds"), holds),)
    return ()
