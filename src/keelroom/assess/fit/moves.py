"""Neighbours with a new place: where each stands then, what it takes, and what has to be minded."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.fit.bodies import Body, Path, Terms, term
from keelroom.assess.fit.package_bodies import parts_of_package
from keelroom.assess.fit.survey_bodies import neighbours, obstacle_body
from keelroom.assess.inputs.coolant.volumes import Volumes, volumes_of
from keelroom.assess.outcome import alone
from keelroom.assess.safety import Step
from keelroom.core.kept import by_identity
from keelroom.document.quantity import Quantity, from_si
from keelroom.document.schema.build import Build
from keelroom.document.schema.moves import Move
from keelroom.document.schema.package import Package
from keelroom.document.schema.survey import Obstacle, Survey
from keelroom.facts import Fact, Fault, fact
from keelroom.units import INCH

SLOT_MOST = INCH
"""[m] a mount hole is drawn out by at most (common practice: 1/2 to 1 in)."""
CAP_ROOM, CAP_WIDE = 3 * INCH, 0.75 * INCH
"""[m] a hand and a cap need over a bottle, and how wide a cap reaches from its middle (common practice)."""
BOTTLES = ("overflow_bottle", "expansion_bottle")
CAPPED = (*BOTTLES, "washer_bottle")
NEEDED = ("latch_support", "brake_unit")
"""what cannot simply be taken away"""
STAYS = (*NEEDED, "exhaust")
"""Kinds no place is made by moving, whatever was entered of them: the hood's latch, the brakes, what burns."""
CAUTIONED: dict[str, Step] = {
    "brake_unit": "brakes",
    "latch_support": "latch",
    "battery_tray": "battery",
    "regulator": "wire",
    "exhaust": "hot_lines",
}
"""Neighbours with a danger of their own once they are touched."""
RETRIED = ("horn", "regulator")
"""Neighbours that are tried out once they are moved."""
EXTRA = {"removed": 0.0, "slotted": 1800.0, "bracket": 2700.0, "notched": 3600.0, "new_place": 2700.0}
"""[s] beyond taking it off, by how it is moved (common practice): slots filed, a bracket made, a notch cut and
closed."""
HOW_WORDS = {
    "removed": "taken out",
    "slotted": "slid on slots",
    "bracket": "moved on a bracket",
    "notched": "notched",
    "new_place": "at a new place",
}


def may_go(obstacle: Obstacle) -> bool:
    """Whether moving a neighbour away may be proposed: its owner can still move by hand what this never offers."""
    return obstacle.mobility != "fixed" and obstacle.kind not in STAYS and not obstacle.structural


class Moved(NamedTuple):
    """One neighbour as it is moved. body: where it stands then, None where it is gone; travel [m]; seconds; cautions;
    notes;
    faults: what cannot be, by codes of findings."""

    move: Move
    obstacle: Obstacle
    body: Body | None
    travel: float
    seconds: float
    cautions: tuple[Fact, ...]
    notes: tuple[Fact, ...]
    faults: tuple[Fault, ...]


def unmoved(survey: Survey, package: Package) -> tuple[Body, ...]:
    """The neighbours that still stand where they were found."""
    gone = {f"obstacle:{ident}" for ident in package.moved}
    return tuple(body for body in neighbours(survey) if body.key not in gone)


@by_identity(16)
def moved_bodies(survey: Survey, moves: tuple[Move, ...], package_id: str) -> tuple[Body, ...]:
    """The moved neighbours where they stand now."""
    found = []
    for move in moves:
        obstacle = next((item for item in survey.obstacles if item.id == move.id), None)
        if obstacle is not None and move.how != "removed":
            found.append(_body(survey, obstacle, move, package_id))
    return tuple(found)


@by_identity(128)
def _body(survey: Survey, obstacle: Obstacle, move: Move, package_id: str) -> Body:
    made = obstacle_body(survey, placed(obstacle, move))
    where = ("packages", package_id, "moves", move.id)
    sides = [_side_terms(obstacle, move, where, k) for k in range(3)]
    # A cylinder's own axes are in another order than the datums.
    a, b, c = (sides[max(range(3), key=lambda k: abs(axis[k]))] for axis in made.solid.axes)
    low, high = (a[0], b[0], c[0]), (a[1], b[1], c[1])
    return made._replace(key=f"moved:{move.id}", sort="moved", path=(*where, _field(move)), low=low, high=high)


SIDES = (("left", "width", "by_x"), ("bottom", "height", "by_y"), ("front", "depth", "by_z"))
"""of each datum: where a box begins, its size, and what a move adds"""
NOTCHED = {"left": (0, 0), "right": (0, 1), "bottom": (1, 0), "top": (1, 1), "front": (2, 0), "rear": (2, 1)}
"""the datum a notch is cut along, and whether it is cut off the near or the far face"""


def _side_terms(obstacle: Obstacle, move: Move, where: Path, axis: int) -> tuple[Terms, Terms]:
    """The readings the near and the far face depend on along a datum: the survey's, and what the move says."""
    start, size, by = SIDES[axis]
    name, found = obstacle.name or obstacle.id, ("survey", "obstacles", obstacle.id)

    def read(field: str) -> Terms:
        own = getattr(move, field) if move.how == "new_place" else None
        path = (*where, field) if own is not None else (*found, field)
        return term(f"{name}: {field}", path, own if own is not None else getattr(obstacle, field))

    near = read(start)
    if move.how in ("slotted", "bracket"):
        near += term(f"{name}: moved by", (*where, by), getattr(move, by))
    far = near + read(size)
    if move.how == "notched" and NOTCHED[move.notch_side][0] == axis:
        cut = term(f"{name}: cut away", (*where, "notch"), move.notch)
        return (near, far + cut) if NOTCHED[move.notch_side][1] else (near + cut, far)
    return near, far


def _field(move: Move) -> str:
    return {"new_place": "left", "notched": "notch"}.get(move.how, "by_z")


def placed(obstacle: Obstacle, move: Move) -> Obstacle:
    """The obstacle as it stands once moved."""
    update: dict[str, Quantity] = {}

    def put(field: str, value: float) -> None:
        update[field] = from_si(value, "length", "us", "derived")

    if move.how in ("slotted", "bracket"):
        for start, _, by in SIDES:
            there, step = getattr(obstacle, start), getattr(move, by)
            if there is not None and step.si:
                put(start, there.si + step.si)
    if move.how == "new_place":
        update = {
            field: value
            for start, size, _ in SIDES
            for field in (start, size)
            if (value := getattr(move, field)) is not None
        }
    if move.how == "notched":
        axis, far = NOTCHED[move.notch_side]
        begins, whole = (getattr(obstacle, field) for field in SIDES[axis][:2])
        if whole is not None:
            put(SIDES[axis][1], max(whole.si - move.notch.si, 1e-3))
        if begins is not None and not far:
            put(SIDES[axis][0], begins.si + move.notch.si)
    return obstacle.model_copy(update=update)


def travel(obstacle: Obstacle, move: Move) -> float:
    """How far it goes [m]."""
    there = placed(obstacle, move)
    steps = [(getattr(there, start), getattr(obstacle, start)) for start, _, _ in SIDES]
    return math.sqrt(sum((new.si - old.si) ** 2 for new, old in steps if new and old))


def seconds(obstacle: Obstacle, move: Move) -> float:
    """Shop time of a move [s]: as entered, or as surveyed and by how it is done."""
    return move.hours.si if move.hours is not None else obstacle.work.si + EXTRA[move.how]


def moves_of(build: Build, package: Package) -> tuple[Moved, ...]:
    """Every move of the package, judged."""
    return _moves(build.survey, package, volumes_of(build, package))


def _planned(
    survey: Survey, package: Package, volumes: Volumes | None, given: tuple[Move, Obstacle, Body | None]
) -> Moved:
    """One move; where it cannot be worked out, that is what is wrong with it."""
    move, obstacle, body = given
    return alone(
        f"The move of “{obstacle.name or obstacle.id}”",
        (),
        lambda: _moved(survey, package, volumes, given),
        lambda stop: Moved(
            move, obstacle, body, 0.0, 0.0, (), (), (Fault("how", fact("stopped", sentence=stop.sentence)),)
        ),
    )


@by_identity(16)
def _moves(survey: Survey, package: Package, volumes: Volumes | None) -> tuple[Moved, ...]:
    bodies = {body.key: body for body in moved_bodies(survey, package.moves, package.id)}
    found = []
    for move in package.moves:
        obstacle = next((item for item in survey.obstacles if item.id == move.id), None)
        if obstacle is not None:
            found.append(_planned(survey, package, volumes, (move, obstacle, bodies.get(f"moved:{move.id}"))))
    return tuple(found)


def _moved(
    survey: Survey, package: Package, volumes: Volumes | None, what: tuple[Move, Obstacle, Body | None]
) -> Moved:
    move, obstacle, body = what
    name = obstacle.name or obstacle.id
    faults: list[Fault] = []
    notes: list[Fact] = []
    far = travel(obstacle, move)
    if move.how == "removed" and obstacle.kind in NEEDED:
        faults.append(Fault("how", fact(f"move_needed.{obstacle.kind}", name=name)))
    if move.how == "removed" and obstacle.kind in BOTTLES:
        faults.append(Fault("how", fact("move_needed.bottle", name=name)))
    if move.how == "slotted" and far > SLOT_MOST + 1e-6:
        faults.append(Fault("by_x", fact("slot_long", name=name, far=(far, "length"), most=(SLOT_MOST, "length"))))
    if move.how in ("slotted", "bracket", "new_place") and far < 1e-4 and not (move.width or move.height or move.depth):
        faults.append(Fault("how", fact("move_nowhere", name=name)))
    if move.how == "notched" and obstacle.structural:
        notes.append(fact("notch_welded"))
    if move.how == "slotted":
        notes.append(fact("slot_filed", far=(far, "length")))
    if obstacle.mobility == "fixed":
        notes.append(fact("was_fixed"))
    if obstacle.kind in CAPPED and body is not None:
        faults += _cap(survey, package, move, (name, body))
    if obstacle.kind in BOTTLES and move.how != "removed":
        faults += _room(volumes, move, obstacle)
    cautions = [fact(f"safety.{CAUTIONED[obstacle.kind]}")] if obstacle.kind in CAUTIONED else []
    if obstacle.structural and obstacle.kind != "latch_support":
        cautions.append(fact("safety.structure"))
    if obstacle.kind in RETRIED:
        notes.append(fact(f"retried.{obstacle.kind}"))
    return Moved(move, obstacle, body, far, seconds(obstacle, move), tuple(cautions), tuple(notes), tuple(faults))


def cap_room(survey: Survey, package: Package, move: Move, body: Body) -> float | None:
    """Free height over a bottle's cap, hood open [m]: as entered, or up to what lies over its middle; None where
    nothing does."""
    if move.cap_room is not None:
        return move.cap_room.si
    x, y, z = body.solid.centre
    top = y + body.solid.reach(1)
    around = (*unmoved(survey, package), *parts_of_package(survey, package))
    over = [
        other.solid.centre[1] - other.solid.reach(1) - top
        for other in around
        if other.sort != "hood"
        and abs(other.solid.centre[0] - x) < other.solid.reach(0) + CAP_WIDE
        and abs(other.solid.centre[2] - z) < other.solid.reach(2) + CAP_WIDE
        and other.solid.centre[1] > y
    ]
    return min(over, default=None)


def _cap(survey: Survey, package: Package, move: Move, told: tuple[str, Body]) -> list[Fault]:
    name, body = told
    room = cap_room(survey, package, move, body)
    if room is None or room >= CAP_ROOM - 1e-6:
        return []
    return [
        Fault("cap_room", fact("cap_reach", name=name, room=(max(room, 0.0), "length"), wanted=(CAP_ROOM, "length")))
    ]


def _room(volumes: Volumes | None, move: Move, obstacle: Obstacle) -> list[Fault]:
    holds = move.holds or obstacle.holds
    name = obstacle.name or obstacle.id
    if volumes is None:
        return []
    room = volumes.room
    if holds is None:
        return [Fault("holds", fact("bottle_unknown", name=name, wanted=(room.wanted, "volume")))]
    if holds.si < room.wanted - 1e-7:
        return [
            Fault(
                "holds",
                fact(
                    "bottle_small",
                    name=name,
                    holds=(holds.si, "volume"),
                    growth=(room.growth, "volume"),
                    wanted=(room.wanted, "volume"),
                ),
            )
        ]
    return []
