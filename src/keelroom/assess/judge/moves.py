"""Findings of neighbours that are moved: what cannot be, what it takes, and what has to be minded."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding
from keelroom.assess.fit.moves import HOW_WORDS, Moved, moves_of
from keelroom.assess.inputs.coolant.volumes import bottle_wanted
from keelroom.assess.wording import Found, choose_act, set_act
from keelroom.document.act import Act
from keelroom.document.quantity import from_si
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package

DOUBTS = ("bottle_unknown", "move_nowhere")
WHY = {
    "move_needed": "Count on it moved, not gone; the clearance of its new place is then judged like everything else.",
    "slot_long": "A long slot leaves too little metal beside the bolt, and the part can slide back.",
    "move_nowhere": "Until it goes somewhere it stands in the way as before.",
    "cap_reach": "A bottle that cannot be opened is not topped up, and not looked at.",
    "bottle_small": "A replacement that is too small runs over hot and draws air when it cools: a common regret.",
    "bottle_unknown": "Read it off its side, or fill it from a measure.",
    "not_worked_out": "Everything else stands without it.",
}


def moves(build: Build, package: Package, assessment: Assessment) -> Found:
    """Every move of the package."""
    known = {item.id for item in build.survey.obstacles}
    for move in package.moves:
        if move.id not in known:
            where = ("packages", package.id, "moves", move.id)
            yield Finding("move_lost", "note", (*where, "how"), "Something is counted as moved that the survey does not have",
                          "It was taken out of the survey: nothing is left to move.", (Act("remove", "Forget it", path=where),))  # fmt: skip
    for moved in moves_of(build, package):
        yield from _moved(build, package, moved)


def _moved(build: Build, package: Package, moved: Moved) -> Found:
    move, name = moved.move, moved.obstacle.name or moved.obstacle.id
    where = ("packages", package.id, "moves", move.id)
    for field, code, text in moved.faults:
        yield Finding(code, "doubt" if code in DOUBTS else "problem", (*where, field), text, WHY[code], _fixes(build, package, code, where))
    ends = [end for bracket in package.brackets for end in (bracket.start, bracket.end, *bracket.starts, *bracket.ends)]
    if move.how in ("bracket", "new_place") and not any(end.startswith(f"neighbour:{move.id}:") for end in ends):
        yield Finding("move_unheld", "doubt", (*where, "how"), f"{name}: no bracket holds it where it goes",
                      "Plan one from it to a hole of the chassis; its strength and its holes are then worked out.",
                      (Act("bracket_for", "Plan a bracket for it", package.id, (("move", move.id),)),))  # fmt: skip
    if moved.cautions:
        yield Finding(
            "move_caution", "note", (*where, "how"), f"{name} is {HOW_WORDS[move.how]}: mind what it does", " ".join(moved.cautions)
        )


def _fixes(build: Build, package: Package, code: str, where: tuple[str, ...]) -> tuple[Act, ...]:
    if code == "move_needed":
        return (choose_act("Give it a new place", (*where, "how"), "new_place"),)
    if code == "slot_long":
        return (choose_act("On a made bracket", (*where, "how"), "bracket"),)
    wanted = bottle_wanted(build, package)
    if code == "bottle_small" and wanted:
        size = from_si(wanted[2] * 1.02, "volume", "si", "assumed")
        return (set_act(f"A bottle that holds {size.as_typed} {size.unit}", (*where, "holds"), f"{size.as_typed} {size.unit}"),)
    return ()
