"""How the package is held: brackets to surveyed holes, the condenser's frame, a remote cooler, growth with heat."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.assess.fit.package_bodies import standoff
from keelroom.assess.inputs.airside import shroud_rectangle
from keelroom.assess.placing import core_depth, face_size, over_tanks, placed_frame, tank_size
from keelroom.assess.wording import raised
from keelroom.core.kept import by_identity
from keelroom.core.outline import rectangle
from keelroom.core.packaging.bracket import Ends, Made, Stock, angle_bracket, flat_or_joggle
from keelroom.core.packaging.fixings import BOLTS, PAD_LEAST, PAD_MOST, Section, Strap, edge_wanted, growth, play, strap
from keelroom.core.packaging.pattern import Hole, Mark, Pattern
from keelroom.core.packaging.sheet import METALS, cracks, smallest_radius
from keelroom.core.packaging.solids import Vector
from keelroom.document.schema.brief import Engine
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Bracket, Package
from keelroom.document.schema.survey import Survey
from keelroom.units import INCH, both, fine_both

CORE_DENSITY = {"aluminium": 750.0, "copper_brass": 1300.0}
"""[kg/m3] of a filled core over its whole block, tanks counted as core (common practice)."""
FAN_MASS_PER_WATT = 0.012
"""[kg/W] of a fan with its motor (common practice)."""
WARMING = 80.0
"""[K] from a cold morning to hot coolant."""
CORE_GROWTH = {"aluminium": 23.6e-6, "copper_brass": 18.0e-6}
STEADY = 3
"""Brackets from which the package cannot turn on them, so that each bends as a beam held at both ends."""
SAFE = 2.0
"""Strength over stress under which a strap is worth a word (common practice)."""
INSET = 0.03
"""[m] a core's mount holes lie in from its ends (common practice)."""


class BracketPlan(NamedTuple):
    """One bracket worked out. faults: what cannot be; notes: what to mind; made None where its hole is not known yet."""

    bracket: Bracket
    made: Made | None
    strap: Strap | None
    faults: tuple[str, ...]
    notes: tuple[str, ...]


def part_points(survey: Survey, package: Package) -> dict[str, Vector]:
    """The holes on the package's own parts, by the survey's datums [m]."""
    core, (width, height) = package.core, face_size(package)
    tank, depth = tank_size(core), core_depth(core)
    point = placed_frame(survey, package).point
    across = core.flow == "crossflow"
    u = {"left": -tank / 2 if across else INSET, "right": width + tank / 2 if across else width - INSET}
    v = {"lower": INSET if across else -tank / 2, "upper": height - INSET if across else height + tank / 2}
    found = {f"core_{row}_{side}": point(u[side], v[row], depth / 2) for row in v for side in u}
    left, bottom, wide, high = shroud_rectangle(package) or (0.0, 0.0, width, height)
    inset = package.shroud.hole_inset.si
    back = depth + (standoff(package, package.fans[0]) if package.fans else 0.0)
    su = {"left": left + inset, "right": left + wide - inset}
    sv = {"lower": bottom + inset, "upper": bottom + high - inset}
    found |= {f"shroud_{row}_{side}": point(su[side], sv[row], back) for row in sv for side in su}
    return found


def package_mass(package: Package) -> float:
    """Mass [kg], wet, as typed or estimated from its size."""
    if package.mounting.mass is not None:
        return package.mounting.mass.si
    core = package.core
    return CORE_DENSITY[core.material] * math.prod(over_tanks(core)) * core_depth(core) + sum(
        FAN_MASS_PER_WATT * fan.power.si for fan in package.fans if fan.power
    )


def bracket_plan(survey: Survey, engine: Engine, package: Package, bracket: Bracket) -> BracketPlan:
    """Kind, developed length, holes and strength of one bracket, by where its two holes lie."""
    hole = next((item for item in survey.holes if item.id == bracket.hole), None)
    if hole is None or not (hole.x and hole.y and hole.z):
        why = (
            "Choose a surveyed hole it goes to"
            if hole is None
            else f"{hole.name or hole.id} is not fully measured: place across, height and depth are needed"
        )
        return BracketPlan(bracket, None, None, (why,), ())
    start = np.array(part_points(survey, package)[bracket.part])
    frame = placed_frame(survey, package).matrix
    across, up, out = (float(v) for v in frame @ (np.array([hole.x.si, hole.y.si, hole.z.si]) - start))
    metal = METALS[bracket.metal]
    stock = Stock(metal, bracket.width.si, bracket.thickness.si, bracket.radius.si, bracket.stiffener.si)
    ends = Ends(bracket.near_hole.si, bracket.far_hole.si, bracket.edge.si, bracket.slot.si)
    name = bracket.name or bracket.id
    faults: list[str] = []
    if hole.faces == "front":
        made = flat_or_joggle(name, math.hypot(across, up), out, stock, ends)
    else:
        leg, aside = (abs(across), abs(up)) if hole.faces == "side" else (abs(up), abs(across))
        made = angle_bracket(name, (leg, abs(out)), stock, ends)
        room = stock.width / 2 - edge_wanted(bracket.far_hole.si)[0]
        if aside > max(room, 0.0) + 1e-9:
            wide = 2 * (aside + edge_wanted(bracket.far_hole.si)[0])
            faults.append(
                f"The holes lie {both(aside, 'length')} to one side of each other: a strip {both(stock.width, 'length')} wide does not reach, {both(wide, 'length')} would"
            )
    if made.fault:
        faults.append(raised(made.fault))
    holders = max(len(package.brackets), 1)
    straight = made.kind == "flat"
    section = Section(stock.width, stock.thickness, stock.rib if straight else 0.0)
    on_each = package_mass(package) / holders
    strength = strap(metal, section, max(made.reach, 1e-3), on_each, package.mounting.shock.si, guided=holders >= STEADY)
    more_faults, notes = _judged(engine, bracket, strength, straight)
    if stock.rib > 0 and not straight:
        notes = ("A rib cannot cross its bends: none is made, none is counted", *notes)
    return BracketPlan(bracket, made, strength, (*faults, *more_faults), notes)


def _judged(engine: Engine, bracket: Bracket, strength: Strap, straight: bool) -> tuple[tuple[str, ...], tuple[str, ...]]:
    faults, notes = [], []
    stronger, stiffer = (
        ("A rib or a shorter reach", "a rib") if straight else ("Thicker or wider metal, or a shorter reach,", "thicker metal")
    )
    bolt, metal = BOLTS[bracket.bolt], METALS[bracket.metal]
    for hole, where in ((bracket.near_hole.si, "part"), (bracket.far_hole.si, "chassis")):
        room = play(bolt, hole)
        if room < 0:
            faults.append(f"{bolt.name} does not pass the {both(hole, 'length')} hole at the {where}")
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
            f"Bends for good at the stated shock: stress {strength.stress / 6.895e6:.0f} ksi over its {metal.strength / 6.895e6:.0f} ksi ({strength.stress / 1e6:.0f} over {metal.strength / 1e6:.0f} MPa)"
        )
    elif strength.safety < SAFE:
        notes.append(f"Only {strength.safety:.1f} times as strong as the stated shock needs; {SAFE:.0f} is usual. {stronger} helps")
    firing = _firing(engine)
    if firing and abs(strength.frequency / firing - 1) < 0.3:
        notes.append(f"Hums near idle: its {strength.frequency:.0f} Hz lies close to the engine's {firing:.0f} Hz; {stiffer} moves it up")
    pad_faults, pad_notes = _pad(bracket)
    faults += pad_faults
    notes += pad_notes
    notes.append(
        "Rivet nut: set it in the strip before bending, check that it does not spin"
        if bracket.nut == "rivet_nut"
        else "Nylon lock nut with a wide washer on rubber or plastic"
    )
    if bolt.torque:
        notes.append(
            f"{bolt.name}: at most {bolt.torque / 1.3558:.0f} lb·ft ({bolt.torque:.0f} N·m), and a panel's bolts in steps so that nothing warps"
        )
    return tuple(faults), tuple(notes)


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


def core_growth(package: Package) -> float:
    """How much longer [m] the core is hot than cold, tank to tank."""
    core = package.core
    length = over_tanks(core)[0 if core.flow == "crossflow" else 1]
    return growth(length, WARMING, CORE_GROWTH[core.material])


FAN_MOUNTS = {
    "core_flange": "Fan to the core's flange: moves with the core, one gap less to mind; the flange carries it, never the fins.",
    "chassis": "Fan to the chassis: nothing hangs on the core; leave the moving gap between fan and core, which move apart.",
    "through_fins": "Ties through the fins: a stopgap that saws through tubes in time. Steady it so to get home, then mount it.",
}


class FramePlan(NamedTuple):
    """A condenser's frame of angle. pieces: name, length [m], count; faults, notes."""

    pieces: tuple[tuple[str, float, int], ...]
    patterns: tuple[Pattern, ...]
    faults: tuple[str, ...]
    notes: tuple[str, ...]


def condenser_frame(package: Package) -> FramePlan | None:
    """The frame round the condenser, hung on the core's own mounts; None where none is wanted."""
    frame = package.mounting.frame
    cover = next((cover for cover in package.coolers if cover.kind == "condenser" and cover.stands == "ahead"), None)
    if not frame.fitted:
        return None
    if cover is None:
        return FramePlan((), (), ("There is no condenser ahead of this core to hang",), ())
    width, height = (v.si if v else f for v, f in zip((cover.width, cover.height), face_size(package), strict=True))
    faults, notes = [], ["Hung on the core's own mount bolts: no new hole in the support"]
    covered = frame.lap.si - frame.header.si
    if covered > 1e-6:
        faults.append(
            f"The angle covers {both(covered, 'length')} of the rows at each edge: lap it no further than the {both(frame.header.si, 'length')} edge without rows"
        )
    else:
        notes.append("All rows are exposed")
    hole = frame.line.si + INCH / 8
    drilled = hole <= frame.leg.si - 2 * frame.thickness.si
    if not drilled:
        notes.append(
            f"Line holes of {both(hole, 'length')}, grommet included, do not go into the {both(frame.leg.si, 'length')} leg: pass the lines beside it"
        )
    outer_w, outer_h = width - 2 * frame.lap.si + 2 * frame.leg.si, height - 2 * frame.lap.si + 2 * frame.leg.si
    pieces = (
        ("Upright, condenser frame", outer_h, 1),
        ("Upright with line holes, condenser frame", outer_h, 1),
        ("Crosspiece, condenser frame", outer_w, 2),
    )
    stock = f"Aluminium angle {both(frame.leg.si, 'length')}, {fine_both(frame.thickness.si)} thick, one leg shown"
    patterns = tuple(
        _angle_piece((name, stock), length, frame.leg.si, count, hole if drilled and "line" in name else 0.0)
        for name, length, count in pieces
    )
    return FramePlan(pieces, patterns, tuple(faults), tuple(notes))


def _angle_piece(named: tuple[str, str], length: float, leg: float, count: int, line: float) -> Pattern:
    """named: name and stock; line: diameter [m] of two line holes, 0 none."""
    name, stock = named
    holes = [Hole((x, leg / 2), 7e-3, "mount") for x in (leg / 2, length - leg / 2)]
    if line:
        holes += [Hole((x, leg / 2), line, "line") for x in (length / 4, 3 * length / 4)]
    marks = (Mark((length / 2, leg / 2), name),)
    return Pattern(name, stock, (rectangle(0, 0, length, leg),), tuple(holes), marks=marks, copies=count)


def bracket_plans(build: Build, package: Package) -> tuple[BracketPlan, ...]:
    """All brackets of a package."""
    return _bracket_plans(build.survey, build.brief.engine, package)


@by_identity(16)
def _bracket_plans(survey: Survey, engine: Engine, package: Package) -> tuple[BracketPlan, ...]:
    return tuple(bracket_plan(survey, engine, package, bracket) for bracket in package.brackets)
