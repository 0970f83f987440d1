"""How the package is held: mounts between any two points, and growth with heat."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import NamedTuple

import numpy as np

from keelroom.assess.fit.mount_loads import HungLoad, loads_of
from keelroom.assess.fit.mount_rules import SAFE, judged, nut_notes, stud_notes, transfers
from keelroom.assess.fit.moves import moved_bodies, unmoved
from keelroom.assess.fit.points import NEW, Anchor, chassis_points, part_points, point_of
from keelroom.assess.outcome import alone
from keelroom.assess.placing import Axes, over_tanks, placed_frame, stand
from keelroom.core.arrays import Floats
from keelroom.core.kept import by_identity, shelf
from keelroom.core.outline import area, rectangle
from keelroom.core.packaging.bracket import ALIKE, Bump, Ends, Made, Stock, angle_bracket, arch, flat_or_joggle
from keelroom.core.packaging.fixings import (
    BOLTS,
    ROOT,
    Beam,
    Round,
    Section,
    Strap,
    edge_wanted,
    growth,
    play,
    post,
    pressed,
    strap,
)
from keelroom.core.packaging.pattern import Mark, Pattern
from keelroom.core.packaging.plate import adapter_plate
from keelroom.core.packaging.sheet import METALS
from keelroom.document.schema.brief import Engine
from keelroom.document.schema.build import Build
from keelroom.document.schema.mounts import Bracket
from keelroom.document.schema.package import Package
from keelroom.document.schema.survey import Survey
from keelroom.facts import Fact, Fault, fact
from keelroom.units import both

WARMING = 80.0
"""[K] from a cold morning to hot coolant."""
CORE_GROWTH = {"aluminium": 23.6e-6, "copper_brass": 18.0e-6}
PACKED = 1.5e-3
"""[m] an offset under this is taken up by washers or by hand, not by bends (common practice)."""
LEANS = math.radians(2)
NUT_GRIP = 2.5
"""A stud reaches so many of its diameters beyond each part: nut, lock nut and washer (common practice)."""
MOST_KNOWN = 1000
"""plans of brackets by where their points lie and what hangs on them: most edits move neither"""


class BracketPlan(NamedTuple):
    """One mount worked out. wrong: what cannot be, and the field it is at; notes: what to mind; made None where a
    point is not known yet; transfer: how the holes of either end are carried over; presses [N] where it is bent past
    flat; load: what hangs on it."""

    bracket: Bracket
    made: Made | None
    strap: Strap | None
    wrong: tuple[Fault, ...]
    notes: tuple[Fact, ...]
    transfer: tuple[Fact, ...] = ()
    presses: float = 0.0
    load: HungLoad | None = None

    @property
    def faults(self) -> tuple[Fact, ...]:
        """What cannot be."""
        return tuple(one.fact for one in self.wrong)

    @property
    def at(self) -> tuple[str, ...]:
        """The fields they are at."""
        return tuple(one.field for one in self.wrong)


def _planned(
    given: tuple[Survey, Engine, Package], points: Mapping[str, Anchor], bracket: Bracket, load: HungLoad
) -> BracketPlan:
    """Kind, developed length, holes and strength of one mount, by where its points lie."""
    survey, engine, package = given
    start, end = (point_of(points, bracket, key) for key in (bracket.start, bracket.end))
    for anchor, key, field in ((start, bracket.start, "start"), (end, bracket.end, "end")):
        if anchor is None:
            return BracketPlan(bracket, None, None, (Fault(field, _no_point(survey, key)),), ())
    assert start
    assert end
    way = _way(placed_frame(survey, package), start, end)
    if bracket.form == "plate":
        return _plate(given, points, bracket, (start, end))
    shock = package.mounting.shock.si
    if bracket.form in ("stud", "standoff"):
        return _across(bracket, way, (start, end), (load, shock))
    made, faults = _bent(bracket, way)
    straight, stock = not made.pattern.bends, _stock(bracket)
    plain = Section(stock.width, stock.thickness)
    beam = Beam(plain, plain._replace(rib=stock.rib if made.rib else 0.0), made.ribbed)
    strength = strap(stock.metal, beam, max(made.reach, 1e-3), load.mass, shock, guided=load.steady)
    wrong, notes = judged(engine, bracket, strength, straight)
    force, more, noted = _presses(bracket, made, plain)
    said = [*faults, *(Fault("edge", one) for one in made.faults), *wrong, *more]
    if abs(way.lean) > LEANS and start.own != end.own:
        noted = (
            *noted,
            fact("core_leans", lean=(abs(way.lean), "angle")),
        )
    return BracketPlan(bracket, made, strength, tuple(said), (*notes, *noted), transfers((start, end)), force, load)


def _no_point(survey: Survey, key: str) -> Fact:
    """Why a point cannot be worked with yet."""
    if not key:
        return fact("choose_point")
    if key == NEW:
        return fact("hole_unplaced")
    hole = next((hole for hole in survey.holes if key == f"hole:{hole.id}"), None)
    if hole is not None:
        return fact("hole_unmeasured", name=hole.name or hole.id)
    return fact("point_gone")


class Offset(NamedTuple):
    """How one point lies from another [m]: along the first one's face, out of it, and how their faces stand. aside:
    to one side of an L; lean [rad] of the core, by which faces of the chassis are off."""

    run: float
    out: float
    square: bool
    leg: float
    aside: float
    lean: float


NORMAL = {"side": 0, "up": 1, "front": 2}


def _turned(frame: Axes, start: Anchor, end: Anchor) -> Floats:
    """The frame a mount is laid out in: the core's, or between two points of the chassis the datums' own."""
    return frame.matrix if start.own or end.own else np.eye(3)


def _way(frame: Axes, start: Anchor, end: Anchor) -> Offset:
    matrix = _turned(frame, start, end)
    step = matrix @ (np.array(end.at) - np.array(start.at))
    n, m = NORMAL[start.faces], NORMAL[end.faces]
    lean = float(np.arctan2(matrix[1][2], matrix[1][1]))
    flat = [float(step[k]) for k in range(3) if k != n]
    if n == m:
        return Offset(math.hypot(*flat), float(step[n]), False, 0.0, 0.0, lean)
    third = 3 - n - m
    return Offset(math.hypot(*flat), float(step[n]), True, abs(float(step[m])), abs(float(step[third])), lean)


def _stock(bracket: Bracket) -> Stock:
    return Stock(METALS[bracket.metal], bracket.width.si, bracket.thickness.si, bracket.radius.si, bracket.stiffener.si)


def stands_off(bracket: Bracket) -> float:
    """How far the strap stands off its part [m]: spacers, and the pad as it is bolted up."""
    return bracket.spacer.si + (bracket.squeezed.si if bracket.isolated else 0.0)


def _bent(bracket: Bracket, way: Offset) -> tuple[Made, list[Fault]]:
    """The strip, and what keeps it from reaching."""
    stock = _stock(bracket)
    ends = Ends(
        bracket.near_hole.si,
        bracket.far_hole.si,
        bracket.edge.si,
        bracket.slot.si,
        int(bracket.near_holes.si),
        bracket.pitch.si,
    )
    name = bracket.name or bracket.id
    faults: list[Fault] = []
    sign = 1.0 if way.out >= 0 else -1.0
    out = way.out - sign * stands_off(bracket)
    press = bracket.press.si * (1.0 if bracket.presses == "rear" else -1.0)
    if way.square:
        made = angle_bracket(name, (way.leg, abs(out)), stock, ends, press, up=out > 0)
        room = stock.width / 2 - edge_wanted(bracket.far_hole.si)[0]
        if way.aside > max(room, 0.0) + 1e-9:
            wide = 2 * (way.aside + edge_wanted(bracket.far_hole.si)[0])
            faults.append(
                Fault(
                    "width",
                    fact("aside", aside=(way.aside, "length"), width=(stock.width, "length"), wide=(wide, "length")),
                )
            )
        if bracket.form == "arch":
            faults.append(Fault("form", fact("arch_square")))
        return made, faults
    if way.run < ALIKE and abs(way.out) < ALIKE:
        return flat_or_joggle(name, 0.0, 0.0, stock, ends), [Fault("end", fact("same_point"))]
    if abs(out) <= PACKED:
        out = 0.0
    if bracket.form == "arch":
        bump = Bump(bracket.arch_at.si, bracket.arch_width.si, max(bracket.arch_height.si - stands_off(bracket), 0.0))
        return arch(name, way.run, out, bump, stock, ends, press), faults
    if way.run < ends.edge and abs(out) > PACKED:
        return flat_or_joggle(name, way.run, out, stock, ends, press), [
            Fault("form", fact("straight_across", out=(abs(way.out), "length")))
        ]
    return flat_or_joggle(name, way.run, out, stock, ends, press), faults


def _presses(bracket: Bracket, made: Made, plain: Section) -> tuple[float, list[Fault], tuple[Fact, ...]]:
    """What a strap bent past flat presses with, where it would only bend straight, and the note for the bench."""
    if bracket.press.si <= 0:
        return 0.0, [], ()
    metal = METALS[bracket.metal]
    force, stress = pressed(metal, plain, made.lever, bracket.press.si)
    if stress > metal.strength:
        most = bracket.press.si * metal.strength / stress
        return (
            force,
            [Fault("press", fact("press_too_far", past=(bracket.press.si, "angle"), most=(most, "angle")))],
            (),
        )
    return (
        force,
        [],
        (fact("press_so", past=(bracket.press.si, "angle"), toward=bracket.presses, force=(force, "force")),),
    )


def _across(bracket: Bracket, way: Offset, points: tuple[Anchor, Anchor], load: tuple[HungLoad, float]) -> BracketPlan:
    """A stud or stand-off straight from one point to the other."""
    bolt, metal = BOLTS[bracket.bolt], METALS[bracket.metal]
    name = bracket.name or bracket.id
    faults: list[Fault] = []
    notes: list[Fact] = []
    free = play(bolt, bracket.near_hole.si) + play(bolt, bracket.far_hole.si)
    long = abs(way.out) - stands_off(bracket)
    if way.square:
        faults.append(Fault("form", fact("across_square")))
    elif way.run < ALIKE and abs(way.out) < ALIKE:
        faults.append(Fault("end", fact("same_point")))
    elif way.run > max(free, 0.0) + 1e-9:
        faults.append(Fault("end", fact("ends_beside", run=(way.run, "length"), free=(max(free, 0.0), "length"))))
    for hole, where, field in ((bracket.near_hole.si, "start", "near_hole"), (bracket.far_hole.si, "end", "far_hole")):
        if play(bolt, hole) < 0:
            faults.append(Fault(field, fact("bolt_through", name=bolt.name, hole=(hole, "length"), where=where)))
    if long <= 0 and not faults:
        faults.append(
            Fault(
                "spacer", fact("no_room_between", takes=(stands_off(bracket), "length"), apart=(abs(way.out), "length"))
            )
        )
    stud = bracket.form == "stud"
    section = Round(ROOT * bolt.diameter) if stud else Round(2 * bolt.diameter, bolt.diameter)
    strength = post(metal, section, max(long, 1e-3), load[0].mass, load[1])
    if strength.safety < 1:
        faults.append(Fault("bolt", fact("bolt_bends", safety=(strength.safety, "number"))))
    elif strength.safety < SAFE:
        notes.append(fact("barely_strong_bolt", safety=(strength.safety, "number"), safe=(SAFE, "number")))
    grip = NUT_GRIP * bolt.diameter
    cut = max(long, 0.0) + (2 * grip if stud else 0.0)
    what = (
        f"Threaded rod {bolt.name}"
        if stud
        else f"{metal.name} tube, {both(2 * bolt.diameter, 'length')} outside, {bolt.name} through it"
    )
    wide = bolt.diameter if stud else 2 * bolt.diameter
    pattern = Pattern(
        name, what, (rectangle(0.0, 0.0, max(cut, 1e-3), wide),), marks=(Mark((max(cut, 1e-3) / 2, wide / 2), name),)
    )
    mass = math.pi / 4 * (section.outside**2 - section.inside**2) * max(cut, 0.0) * metal.density
    made = Made(bracket.form, pattern, max(cut, 0.0), (), max(long, 1e-3), mass)
    notes += stud_notes(bracket)
    return BracketPlan(bracket, made, strength, tuple(faults), tuple(notes), transfers(points), load=load[0])


def _plate(
    given: tuple[Survey, Engine, Package], points: Mapping[str, Anchor], bracket: Bracket, ends: tuple[Anchor, Anchor]
) -> BracketPlan:
    """A plate from old holes to new ones, all in one plane."""
    survey, _, package = given
    fields = (("starts", (bracket.start, *bracket.starts)), ("ends", (bracket.end, *bracket.ends)))
    faults: list[Fault] = []
    matrix = _turned(placed_frame(survey, package), *ends)
    n = NORMAL[ends[0].faces]
    rest = [k for k in range(3) if k != n]
    sets: list[list[tuple[float, float]]] = []
    for field, keys in fields:
        flat = []
        for key in dict.fromkeys(keys):
            anchor = point_of(points, bracket, key)
            if anchor is None:
                faults.append(Fault(field, _no_point(survey, key)))
                continue
            step = matrix @ (np.array(anchor.at) - np.array(ends[0].at))
            if anchor.faces != ends[0].faces:
                faults.append(Fault(field, fact("plate_faces", point=anchor.words, first=ends[0].words)))
            elif abs(float(step[n])) > stands_off(bracket) + PACKED:
                faults.append(
                    Fault(field, fact("plate_out_of_plane", point=anchor.words, off=(abs(float(step[n])), "length")))
                )
            flat.append((float(step[rest[0]]), float(step[rest[1]])))
        sets.append(flat)
    name, metal = bracket.name or bracket.id, METALS[bracket.metal]
    pattern = adapter_plate(
        name,
        (sets[0], sets[1]),
        (bracket.near_hole.si, bracket.far_hole.si),
        (metal, bracket.thickness.si, bracket.edge.si),
    )
    faults += [Fault("edge", one) for one in pattern.faults]
    _, _, wide, high = pattern.bounds
    made = Made(
        "plate",
        pattern._replace(faults=()),
        max(wide, high),
        (),
        max(wide, high),
        area(pattern.outlines[0]) * bracket.thickness.si * metal.density,
    )
    return BracketPlan(bracket, made, None, tuple(faults), tuple(nut_notes(bracket)), transfers(ends))


def core_growth(package: Package) -> float:
    """How much longer [m] the core is hot than cold, tank to tank."""
    core = package.core
    length = over_tanks(core)[0 if core.flow == "crossflow" else 1]
    return growth(length, WARMING, CORE_GROWTH[core.material])


FAN_MOUNTS = {
    "core_flange": "Fan to the core's flange: moves with the core, one gap less to mind; the flange carries it, "
    "never the "
    "fins.",
    "chassis": "Fan to the chassis: nothing hangs on the core; leave the moving gap between fan and core, which move "
    "apart.",
    "through_fins": "Ties through the fins: a stopgap that saws through tubes in time. Steady it so to get home, "
    "then mount "
    "it.",
}


@by_identity(4)
def anchors(survey: Survey, package: Package) -> Mapping[str, Anchor]:
    """Every point a mount of this package can go from or to, by its key."""
    around = (*unmoved(survey, package), *moved_bodies(survey, package.moves, package.id))
    return {**part_points(survey, package), **chassis_points(survey, around)}


def bracket_plans(build: Build, package: Package) -> tuple[BracketPlan, ...]:
    """All brackets of a package."""
    return _bracket_plans(build.survey, build.brief.engine, package)


@by_identity(16)
def _bracket_plans(survey: Survey, engine: Engine, package: Package) -> tuple[BracketPlan, ...]:
    points = anchors(survey, package) if package.brackets else {}
    loads = loads_of(survey, package)
    lean = stand(survey, package).lean if points else 0.0
    return tuple(
        _plan_again((survey, engine, package), points, bracket, (loads[bracket.id], lean))
        for bracket in package.brackets
    )


def _plan_again(
    given: tuple[Survey, Engine, Package], points: Mapping[str, Anchor], bracket: Bracket, on_it: tuple[HungLoad, float]
) -> BracketPlan:
    own = tuple(points.get(key) for key in (bracket.start, bracket.end, *bracket.starts, *bracket.ends))
    known, of, at = shelf("brackets", MOST_KNOWN), (bracket, given[1]), (own, on_it, given[2].mounting.shock.si)
    found: BracketPlan | None = known.get(of, at)
    if found is None or any(anchor is None for anchor in own):
        found = alone(
            f"The bracket “{bracket.name or bracket.id}”",
            (),
            lambda: _planned(given, points, bracket, on_it[0]),
            lambda stop: BracketPlan(
                bracket, None, None, (Fault("start", fact("stopped", sentence=stop.sentence)),), (), load=on_it[0]
            ),
        )
        known.put(of, at, found)
    return found
