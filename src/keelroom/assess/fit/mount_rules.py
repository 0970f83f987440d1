"""What makes a mount good or bad once it is drawn: its strength, its holes, its pad, its nuts, and how its holes are
carried over."""

from __future__ import annotations

from keelroom.assess.fit.points import Anchor
from keelroom.core.packaging.fixings import BOLTS, PAD_LEAST, PAD_MOST, Strap, edge_wanted, play
from keelroom.core.packaging.sheet import METALS, cracks, smallest_radius
from keelroom.document.schema.brief import Engine
from keelroom.document.schema.mounts import Bracket
from keelroom.facts import Fact, Fault, fact
from keelroom.units import INCH

SAFE = 2.0
"""Strength over stress under which a strap is worth a word (common practice)."""
DRILL = 3 * INCH
"""[m] a right-angle drill with its bit needs behind a hole (common practice)."""


def transfers(points: tuple[Anchor, Anchor]) -> tuple[Fact, ...]:
    """How the holes of both ends are carried over onto the bracket."""
    return tuple(fact("carried", point=anchor.words, how=_transfer(anchor)) for anchor in points)


def _transfer(anchor: Anchor) -> Fact:
    if anchor.sort == "stud":
        return fact("carry_stud")
    if anchor.sort == "new":
        return fact("carry_clamped")
    if anchor.behind is None:
        if not anchor.own:
            return fact("carry_unknown")
        return fact("carry_own_hole")
    if anchor.behind >= DRILL:
        return fact("carry_behind", behind=(anchor.behind, "length"))
    return fact("carry_template", behind=(anchor.behind, "length"))


def judged(engine: Engine, bracket: Bracket, strength: Strap, straight: bool) -> tuple[list[Fault], tuple[Fact, ...]]:
    """Faults, each with its field, and notes."""
    faults: list[Fault] = []
    notes: list[Fact] = []
    form = ".straight" if straight else ""
    bolt, metal = BOLTS[bracket.bolt], METALS[bracket.metal]
    for hole, where, field in (
        (bracket.near_hole.si, "part", "near_hole"),
        (bracket.far_hole.si, "chassis", "far_hole"),
    ):
        room = play(bolt, hole)
        if room < 0:
            faults.append(Fault(field, fact("bolt_through", name=bolt.name, hole=(hole, "length"), where=where)))
        elif hole < bolt.holes[1] - 1e-5:
            notes.append(
                fact("bolt_tight", name=bolt.name, hole=(hole, "length"), where=where, usual=(bolt.holes[2], "length"))
            )
        if bracket.edge.si < edge_wanted(hole)[1] and bracket.edge.si >= edge_wanted(hole)[0]:
            notes.append(fact("hole_to_end", where=where, diameters=(bracket.edge.si / hole, "number")))
    if cracks(metal, bracket.thickness.si, bracket.radius.si) == "radius":
        notes.append(
            fact("metal_cracks", name=metal.name, least=(smallest_radius(metal, bracket.thickness.si), "length"))
        )
    if strength.safety < 1:
        faults.append(
            Fault(
                "thickness",
                fact("bends_for_good", stress=(strength.stress, "pressure"), strength=(metal.strength, "pressure")),
            )
        )
    elif strength.safety < SAFE:
        notes.append(fact(f"barely_strong{form}", safety=(strength.safety, "number"), safe=(SAFE, "number")))
    firing = _firing(engine)
    if firing and abs(strength.frequency / firing - 1) < 0.3:
        notes.append(fact(f"hums{form}", frequency=(strength.frequency, "number"), firing=(firing, "number")))
    pad_faults, pad_notes = _pad(bracket)
    faults += [Fault("squeezed", fault) for fault in pad_faults]
    notes += pad_notes
    notes += nut_notes(bracket)
    if bolt.torque:
        notes.append(fact("torque", name=bolt.name, torque=(bolt.torque, "number")))
    if bracket.stiffener.si > 0:
        notes.append(fact("rib_welded"))
    return faults, tuple(notes)


def nut_notes(bracket: Bracket) -> list[Fact]:
    """What to mind with its nuts."""
    return [fact(f"nut.{nut}") for nut in dict.fromkeys((bracket.nut, bracket.far_nut))]


def stud_notes(bracket: Bracket) -> list[Fact]:
    if bracket.form == "standoff":
        return [fact("tube_square"), *nut_notes(bracket)]
    return [fact("two_nuts"), *nut_notes(bracket)]


def _pad(bracket: Bracket) -> tuple[list[Fact], list[Fact]]:
    """What the grommet or its absence means."""
    if not bracket.isolated:
        return [], [fact("rigid")]
    squeeze = 1 - bracket.squeezed.si / bracket.pad.si
    if squeeze <= 0:
        return [fact("pad_loose")], []
    if not PAD_LEAST <= squeeze <= PAD_MOST:
        return [], [
            fact("pad_squeezed", squeeze=(squeeze, "share"), least=(PAD_LEAST, "share"), most=(PAD_MOST, "share"))
        ]
    return [], []


def _firing(engine: Engine) -> float | None:
    """Firing frequency [Hz] at idle of a four-stroke."""
    return engine.idle_rpm.si * engine.cylinders.si / 2 if engine.idle_rpm and engine.cylinders else None
