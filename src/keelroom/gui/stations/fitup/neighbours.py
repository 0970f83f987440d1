"""The page of neighbours that are moved, said without a widget."""

from __future__ import annotations

from keelroom.assess.acts.registry import offer
from keelroom.assess.fit.moves import BOTTLES, CAPPED, HOW_WORDS, moves_of
from keelroom.assess.inputs.coolant.volumes import bottle_wanted
from keelroom.assess.words import clause, clauses
from keelroom.document.schema.build import Build
from keelroom.document.schema.moves import Move
from keelroom.document.schema.survey import Obstacle
from keelroom.gui.rows import Group, Page, Path, Row, Said, quantities
from keelroom.units import KINDS, format_si

HOWS = (
    ("removed", "Taken out"),
    ("slotted", "Slid on its slots"),
    ("bracket", "Moved on a made bracket"),
    ("notched", "Notched where it stands"),
    ("new_place", "To a new place"),
)
NOTCHES = (
    ("left", "Left"),
    ("right", "Right"),
    ("bottom", "Bottom"),
    ("top", "Top"),
    ("front", "Front"),
    ("rear", "Rear"),
)
NOTE = (
    "What stands in the way is the survey’s. Here it is slid, notched, bracketed or given a new place, which is "
    "judged like everything else."
)


def page(build: Build) -> Page:
    """Every neighbour that is moved, and those that could be."""
    package = build.package
    obstacles = {item.id: item for item in build.survey.obstacles}
    groups = tuple(
        _group(move, obstacles.get(move.id), ("packages", package.id, "moves", move.id)) for move in package.moves
    )
    rest = [item for item in build.survey.obstacles if item.id not in package.moved]
    acts = tuple(
        (words := f"Move {item.name or item.id}", offer("move_away", build.active, words, obstacle=item.id))
        for item in rest
    )
    return Page(
        "Neighbours",
        groups or (Group("Nothing is moved", (), note=NOTE),),
        (*acts, *((("Put them back", offer("put_back", build.active)),) if groups else ())),
    )


def _group(move: Move, obstacle: Obstacle | None, path: Path) -> Group:
    name = obstacle.name or obstacle.id if obstacle else move.id
    rows = [Row("choice", (*path, "how"), "What becomes of it", HOWS)]
    if move.how in ("slotted", "bracket"):
        rows += quantities(path, "by_x", "by_y", "by_z")
    if move.how == "new_place":
        rows += quantities(path, "left", "bottom", "front", "width", "height", "depth")
    if move.how == "notched":
        rows += [Row("choice", (*path, "notch_side"), "Notched at", NOTCHES), *quantities(path, "notch")]
    if obstacle is not None and obstacle.kind in CAPPED and move.how != "removed":
        rows += quantities(path, "holds", "cap_room")
    return Group(name, (*rows, *quantities(path, "hours", "cost")), remove=path)


def said(build: Build, system: str) -> Said:
    """What all moves take together, and what a bottle has to hold."""
    found = moves_of(build, build.package)
    if not found:
        return ()
    hours = format_si(sum(moved.seconds for moved in found), KINDS["time"], system)
    cost = sum(moved.move.cost.si for moved in found if moved.move.cost)
    lines = [
        (
            "strong",
            f"{len(found)} moved: {hours}" + (f", {cost:.0f} for parts" if cost else "") + ", counted in the totals.",
        )
    ]
    wanted = bottle_wanted(build, build.package)
    if wanted and any(moved.obstacle.kind in BOTTLES for moved in found):
        volume, grown, bottle = (format_si(value, KINDS["volume"], system) for value in wanted)
        lines.append(
            (
                "",
                f"About {volume} of coolant grows by {grown} from cold to hot; a bottle holds {bottle}, a "
                "third of it stays in cold.",
            )
        )
    return tuple(lines)


def advice(build: Build, system: str, ident: str) -> Said:
    """One move in figures, with what is wrong and what to mind."""
    moved = next((one for one in moves_of(build, build.package) if one.move.id == ident), None)
    if moved is None:
        return (("faint", "The survey no longer has it."),)
    went = f", {format_si(moved.travel, KINDS['length'], system)} away" if moved.travel > 1e-4 else ""
    lines: list[tuple[str, str]] = [
        (
            "problem" if moved.faults else "strong",
            f"{HOW_WORDS[moved.move.how].capitalize()}{went}: {format_si(moved.seconds, KINDS['time'], system)}.",
        )
    ]
    lines += [("problem", clause(one.fact, system)) for one in moved.faults]
    lines += [("", note) for note in clauses(moved.notes, system)]
    return (*lines, *(("doubt", caution) for caution in clauses(moved.cautions, system)))
