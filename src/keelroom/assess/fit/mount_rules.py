"""What makes a mount good or bad once it is drawn: its strength, its holes, its pad, its nuts, and how its holes are carried over."""

from __future__ import annotations

from keelroom.assess.fit.points import Anchor
from keelroom.core.packaging.fixings import BOLTS, PAD_LEAST, PAD_MOST, Strap, edge_wanted, play
from keelroom.core.packaging.sheet import METALS, cracks, smallest_radius
from keelroom.document.schema.brief import Engine
from keelroom.document.schema.mounts import Bracket
from keelroom.units import INCH, both, fine_both

SAFE = 2.0
"""Strength over stress under which a strap is worth a word (common practice)."""
DRILL = 3 * INCH
"""[m] a right-angle drill with its bit needs behind a hole (common practice)."""


def transfers(points: tuple[Anchor, Anchor]) -> tuple[str, ...]:
    """How the holes of both ends are carried over onto the bracket."""
    return tuple(f"{anchor.words}: {_transfer(anchor)}" for anchor in points)


def _transfer(anchor: Anchor) -> str:
    if anchor.sort == "stud":
        return "press a paper template over the stud from the far face, mark its middle, drill the bracket to the template"
    if anchor.sort == "new":
        return "clamp the bracket in place and drill both at once, once everything it must clear is in"
    if anchor.behind is None:
        if not anchor.own:
            return "measure how much is free behind it, a drill needs 3 in; until then a marked template from the far face"  # fmt: skip
        return "mark the bracket through the part’s own hole, drill it away from the core"
    if anchor.behind >= DRILL:
        return f"drill through it from behind with the bracket held there: {both(anchor.behind, 'length')} are free"
    return f"only {both(anchor.behind, 'length')} free behind it: a marked template from the far face"


def judged(engine: Engine, bracket: Bracket, strength: Strap, straight: bool) -> tuple[list[tuple[str, str]], tuple[str, ...]]:
    """Faults, each with its field, and notes."""
    faults: list[tuple[str, str]] = []
    notes: list[str] = []
    stronger, stiffer = (
        ("A welded rib or a shorter reach", "a rib")
        if straight
        else ("Thicker or wider metal, a welded rib or a shorter reach", "thicker metal or a rib")
    )
    bolt, metal = BOLTS[bracket.bolt], METALS[bracket.metal]
    for hole, where, field in ((bracket.near_hole.si, "part", "near_hole"), (bracket.far_hole.si, "chassis", "far_hole")):
        room = play(bolt, hole)
        if room < 0:
            faults.append((field, f"{bolt.name} does not pass the {both(hole, 'length')} hole at the {where}"))
        elif hole < bolt.holes[1] - 1e-5:
            notes.append(
                f"{bolt.name} passes the {both(hole, 'length')} hole at the {where} with hardly any room to adjust; {fine_both(bolt.holes[2])} gives it"
            )
        if bracket.edge.si < edge_wanted(hole)[1] and bracket.edge.si >= edge_wanted(hole)[0]:
            notes.append(f"The {where} hole is {bracket.edge.si / hole:.1f} diameters from the end; 2 is better")
    if cracks(metal, bracket.thickness.si, bracket.radius.si) == "radius":
        notes.append(
            f"{metal.name} this thick cracks under an inside radius of {both(smallest_radius(metal, bracket.thickness.si), 'length')}"
        )
    if strength.safety < 1:
        faults.append(
            ("thickness", f"Bends for good at the stated shock: stress {strength.stress / 6.895e6:.0f} ksi over its {metal.strength / 6.895e6:.0f} ksi ({strength.stress / 1e6:.0f} over {metal.strength / 1e6:.0f} MPa)")
        )  # fmt: skip
    elif strength.safety < SAFE:
        notes.append(f"Only {strength.safety:.1f} times as strong as the stated shock needs; {SAFE:.0f} is usual. {stronger} helps")
    firing = _firing(engine)
    if firing and abs(strength.frequency / firing - 1) < 0.3:
        notes.append(f"Hums near idle: its {strength.frequency:.0f} Hz lies close to the engine's {firing:.0f} Hz; {stiffer} moves it up")
    pad_faults, pad_notes = _pad(bracket)
    faults += [("squeezed", fault) for fault in pad_faults]
    notes += pad_notes
    notes += nut_notes(bracket)
    if bolt.torque:
        notes.append(
            f"{bolt.name}: at most {bolt.torque / 1.3558:.0f} lb·ft ({bolt.torque:.0f} N·m), and a panel's bolts in steps so that nothing warps"
        )
    if bracket.stiffener.si > 0:
        notes.append(
            "Rib: weld it on edge, short runs from side to side so that the strap stays straight; it ends clear of bends and holes"
        )
    return faults, tuple(notes)


NUT_NOTES = {
    "rivet_nut": "Rivet nut: set it in the strip before bending, check that it does not spin",
    "lock_nut": "Nylon lock nut with a wide washer on rubber or plastic",
    "welded_stud": "Welded stud: through its hole and welded from the back, a root pass first, square to the strap; away from core and battery",
}


def nut_notes(bracket: Bracket) -> list[str]:
    return list(dict.fromkeys(NUT_NOTES[nut] for nut in (bracket.nut, bracket.far_nut)))


def stud_notes(bracket: Bracket) -> list[str]:
    if bracket.form == "standoff":
        return ["Cut the tube square, ends deburred: it stands on its ends", *nut_notes(bracket)]
    return ["Two nuts at each part, one from either side, so that it is clamped and not pulled", *nut_notes(bracket)]


def _pad(bracket: Bracket) -> tuple[list[str], list[str]]:
    """What the grommet or its absence means."""
    if not bracket.isolated:
        return [], [
            "Rigid: quiet bolts, but every shake and twist of the chassis goes into the tank; rubber or silicone grommets spare the core"
        ]
    squeeze = 1 - bracket.squeezed.si / bracket.pad.si
    if squeeze <= 0:
        return ["The pad is not squeezed at all: it would rattle"], []
    if not PAD_LEAST <= squeeze <= PAD_MOST:
        return [], [f"The pad is squeezed {squeeze:.0%}; {PAD_LEAST:.0%} to {PAD_MOST:.0%} holds without going hard"]
    return [], []


def _firing(engine: Engine) -> float | None:
    """Firing frequency [Hz] at idle of a four-stroke."""
    return engine.idle_rpm.si * engine.cylinders.si / 2 if engine.idle_rpm and engine.cylinders else None
