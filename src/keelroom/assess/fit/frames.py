"""Frames of angle round coolers: their pieces, line holes, and what hangs them."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.fit.coolers import named
from keelroom.assess.fit.points import framed
from keelroom.assess.inputs.coolers import size_of
from keelroom.assess.outcome import alone
from keelroom.assess.placing import face_size
from keelroom.core.outline import rectangle
from keelroom.core.packaging.pattern import Hole, Mark, Pattern
from keelroom.document.schema.mounts import Frame
from keelroom.document.schema.package import Package
from keelroom.facts import Fact, Fault, fact
from keelroom.units import INCH, both, fine_both

FRAME_HELD = 3
"""Brackets that hold a frame at the least (common practice)."""


class FramePlan(NamedTuple):
    """A cooler's frame of angle. name: what it goes round; pieces: name, length [m], count; faults, notes; hung:
    brackets from its corners."""

    frame: Frame
    name: str
    pieces: tuple[tuple[str, float, int], ...]
    patterns: tuple[Pattern, ...]
    faults: tuple[Fault, ...]
    notes: tuple[Fact, ...]


def frame_plans(package: Package) -> tuple[FramePlan, ...]:
    """The frames of angle that are fitted."""
    return tuple(_planned(package, frame) for frame in package.mounting.frames if frame.fitted)


def _planned(package: Package, frame: Frame) -> FramePlan:
    """One frame; where it cannot be worked out, that is what is wrong with it."""
    return alone(
        f"The frame “{frame.id}”",
        (),
        lambda: _frame_plan(package, frame),
        lambda stop: FramePlan(frame, "", (), (), (Fault("cooler", fact("stopped", sentence=stop.sentence)),), ()),
    )


def _frame_plan(package: Package, frame: Frame) -> FramePlan:
    cooler = framed(package, frame.cooler)
    if cooler is None:
        missing = fact("no_cooler_to_hang" if frame.cooler else "no_condenser_to_hang")
        return FramePlan(frame, "", (), (), (Fault("cooler", missing),), ())
    name = named(cooler).lower()
    width, height = size_of(cooler, face_size(package))
    faults: list[Fault] = []
    notes: list[Fact] = []
    hung = [
        bracket
        for bracket in package.brackets
        if bracket.start.startswith(f"frame:{frame.id}:") or bracket.end.startswith(f"frame:{frame.id}:")
    ]
    if frame.hangs == "core":
        if cooler.away:
            faults.append(Fault("hangs", fact("frame_not_at_core", name=name)))
        else:
            notes.append(fact("frame_on_core"))
    elif len(hung) < FRAME_HELD:
        faults.append(Fault("hangs", fact("frame_few", count=len(hung), least=FRAME_HELD)))
    else:
        notes.append(fact("frame_hung", count=len(hung)))
    covered = frame.lap.si - frame.header.si
    if covered > 1e-6:
        faults.append(
            Fault("lap", fact("frame_covers", covered=(covered, "length"), header=(frame.header.si, "length")))
        )
    else:
        notes.append(fact("rows_exposed"))
    hole = frame.line.si + INCH / 8
    drilled = hole <= frame.leg.si - 2 * frame.thickness.si
    if not drilled:
        notes.append(fact("line_holes", hole=(hole, "length"), leg=(frame.leg.si, "length")))
    outer_w, outer_h = width - 2 * frame.lap.si + 2 * frame.leg.si, height - 2 * frame.lap.si + 2 * frame.leg.si
    pieces = (
        (f"Upright, {name} frame", outer_h, 1),
        (f"Upright with line holes, {name} frame", outer_h, 1),
        (f"Crosspiece, {name} frame", outer_w, 2),
    )
    metal = "Steel" if frame.metal == "steel" else "Aluminium"
    stock = f"{metal} angle {both(frame.leg.si, 'length')}, {fine_both(frame.thickness.si)} thick, one leg shown"
    patterns = tuple(
        _angle_piece((name, stock), length, frame.leg.si, count, hole if drilled and "line" in name else 0.0)
        for name, length, count in pieces
    )
    return FramePlan(frame, name, pieces, patterns, tuple(faults), tuple(notes))


def _angle_piece(named: tuple[str, str], length: float, leg: float, count: int, line: float) -> Pattern:
    """named: name and stock; line: diameter [m] of two line holes, 0 none."""
    name, stock = named
    holes = [Hole((x, leg / 2), 7e-3, "mount") for x in (leg / 2, length - leg / 2)]
    if line:
        holes += [Hole((x, leg / 2), line, "line") for x in (length / 4, 3 * length / 4)]
    marks = (Mark((length / 2, leg / 2), name),)
    return Pattern(name, stock, (rectangle(0, 0, length, leg),), tuple(holes), marks=marks, copies=count)
