"""The pages of brackets and of how the package is held, said without a widget."""

from __future__ import annotations

from keelroom.assess.acts.registry import offer
from keelroom.assess.fit.coolers import named
from keelroom.assess.fit.frames import frame_plans
from keelroom.assess.fit.mounts import FAN_MOUNTS, BracketPlan, anchors, bracket_plans, core_growth
from keelroom.assess.fit.points import NEW
from keelroom.assess.shelf import BOLT_CHOICES, METAL_CHOICES
from keelroom.assess.words import clause, clauses
from keelroom.document.schema.build import Build
from keelroom.document.schema.mounts import Bracket, Frame
from keelroom.facts import lowered, stress_text
from keelroom.gui.rows import Group, Page, Path, Row, Said, quantities
from keelroom.units import KINDS, fine, format_si

FORMS = (
    ("strap", "Strap or bracket"),
    ("arch", "Arch over a bump"),
    ("stud", "Stud"),
    ("standoff", "Stand-off"),
    ("plate", "Adapter plate"),
)
NUTS = (("lock_nut", "Nylon lock nut"), ("rivet_nut", "Rivet nut"), ("welded_stud", "Welded stud"))
PRESSES = (("front", "Toward the front"), ("rear", "Toward the rear"))
FACES = (("front", "Faces front or rear"), ("side", "Faces sideways"), ("up", "Faces up or down"))
FAN_TO = (
    ("core_flange", "To the core’s flange"),
    ("chassis", "To the chassis"),
    ("through_fins", "Ties through the fins"),
)
HANGS = (("core", "On the core’s own mounts"), ("brackets", "By brackets from its corners"))
KIND_WORDS = {"L": "L-bracket", "standoff": "stand-off", "plate": "adapter plate"}


def page(build: Build) -> Page:
    """Every bracket of the package."""
    package = build.package
    points = tuple((key, anchor.words) for key, anchor in anchors(build.survey, package).items())
    groups = tuple(
        _bracket(bracket, points, ("packages", package.id, "brackets", bracket.id)) for bracket in package.brackets
    )
    empty = (
        Group(
            "No bracket yet",
            (),
            note="A bracket goes from any point to any other: core, tanks, shroud, fan studs, coolers, frames, "
            "neighbours, holes of the survey, new holes.",
        ),
    )
    return Page(
        "Brackets",
        groups or empty,
        (
            ("One to each surveyed hole", offer("brackets_to_holes", build.active)),
            ("Add a bracket", offer("add_bracket", build.active)),
        ),
    )


def _bracket(bracket: Bracket, points: tuple[tuple[str, str], ...], path: Path) -> Group:
    known = {key for key, _ in points}
    gone = tuple(
        (key, f"{key} (not there)")
        for key in dict.fromkeys((bracket.start, bracket.end))
        if key and key not in known and key != NEW
    )
    every = (*points, (NEW, "A new hole"), *gone)
    rows = [
        Row("text", (*path, "name"), "Name"),
        Row("choice", (*path, "form"), "It is a", FORMS),
        Row("choice", (*path, "start"), "From", every),
        Row("choice", (*path, "end"), "To", (("", "Not chosen"), *every)),
    ]
    if NEW in (bracket.start, bracket.end):
        rows += [*quantities(path, "new_x", "new_y", "new_z"), Row("choice", (*path, "new_faces"), "Its metal", FACES)]
    if bracket.form == "plate":
        rows += [
            Row("set", (*path, "starts"), "More new holes", points),
            Row("set", (*path, "ends"), "More old holes", points),
        ]
    rows.append(Row("choice", (*path, "metal"), "Metal", METAL_CHOICES))
    bent = bracket.form in ("strap", "arch")
    if bent:
        rows += quantities(path, "width", "thickness", "radius", "press")
        rows += [Row("choice", (*path, "presses"), "It presses", PRESSES)] if bracket.press.si > 0 else []
    if bracket.form == "arch":
        rows += quantities(path, "arch_at", "arch_width", "arch_height")
    if bracket.form == "plate":
        rows += quantities(path, "thickness")
    rows += [Row("choice", (*path, "bolt"), "Bolt", BOLT_CHOICES), *quantities(path, "near_hole")]
    if bent:
        rows += quantities(path, "near_holes", *(("pitch",) if bracket.near_holes.si > 1 else ()))
    rows += quantities(path, "far_hole")
    if bent or bracket.form == "plate":
        rows += quantities(path, "edge", *(("slot", "stiffener") if bent else ()))
    rows += [*quantities(path, "spacer"), Row("flag", (*path, "isolated"), "On rubber or silicone")]
    rows += quantities(path, "pad", "squeezed") if bracket.isolated else ()
    rows += [
        Row("choice", (*path, "nut"), "At the start", NUTS),
        Row("choice", (*path, "far_nut"), "At the end", NUTS),
        *quantities(path, "cost"),
    ]
    return Group(bracket.name or bracket.id, tuple(rows), remove=path)


def said(build: Build, system: str) -> Said:
    """Every bracket in a line: what it is, how long, how safe, or that it cannot be made."""
    lines = []
    for plan in bracket_plans(build, build.package):
        name = plan.bracket.name or plan.bracket.id
        if plan.made is None:
            lines.append(("problem", f"{name}: {lowered(clause(plan.faults[0], system))}"))
            continue
        safe = f", {plan.strap.safety:.1f}× safe" if plan.strap else ""
        state = "; cannot be made or would not hold" if plan.faults else ""
        long = _length_words(plan, system)
        lines.append(
            (
                "problem" if plan.faults else "strong",
                f"{name}: {long if plan.made.kind == 'L' else lowered(long)}{safe}{state}",
            )
        )
    return tuple(lines)


def _length_words(plan: BracketPlan, system: str) -> str:
    """Its kind and its length."""
    made = plan.made
    assert made
    kind = KIND_WORDS.get(made.kind, made.kind)
    long = format_si(made.developed, KINDS["length"], system)
    return f"{kind[:1].upper()}{kind[1:]}, {long} {'long' if made.kind in ('stud', 'standoff') else 'developed'}"


def advice(build: Build, system: str, ident: str) -> Said:
    """One bracket in figures, with what is wrong, how its holes are carried over, and what to mind."""
    plan = next((plan for plan in bracket_plans(build, build.package) if plan.bracket.id == ident), None)
    if plan is None:
        return ()
    head = (("problem" if plan.faults else "strong", _figures(plan, system)),) if plan.made else ()
    bears = (
        (("", f"Bears {format_si(plan.load.mass, KINDS['mass'], system)} of the {plan.load.what}."),)
        if plan.load
        else ()
    )
    lines = [
        *head,
        *bears,
        *(("problem", fault) for fault in clauses(plan.faults, system)),
        *(("", note) for note in clauses(plan.transfer, system)),
    ]
    return (*lines, *(("faint", note) for note in clauses(plan.notes, system)))


def _figures(plan: BracketPlan, system: str) -> str:
    made = plan.made
    assert made
    words = [_length_words(plan, system)]
    if made.pattern.bends:
        words.append(f"{len(made.pattern.bends)} bend{'' if len(made.pattern.bends) == 1 else 's'}")
    if made.rib is not None:
        words.append(f"rib {format_si(made.rib.bounds[2], KINDS['length'], system)}")
    if plan.strap is not None:
        words.append(
            f"{stress_text(plan.strap.stress, system)} ({plan.strap.safety:.1f}× safe), sags "
            f"{fine(plan.strap.sag, system)}, {plan.strap.frequency:.0f} Hz"
        )
    if plan.presses:
        words.append(f"presses with {format_si(plan.presses, KINDS['force'], system)}")
    return ", ".join(words)


def mounts_page(build: Build) -> Page:
    """How the package is held, and frames of angle."""
    where = ("packages", build.active, "mounting")
    mount = build.package.mounting
    groups = [
        Group(
            "How it is held",
            (
                Row("choice", (*where, "fan_to"), "Fan mount", FAN_TO),
                *quantities(where, "shock", "mass", "pads", "float_gap"),
            ),
        )
    ]
    coolers = (("", "The condenser ahead"), *((cooler.id, named(cooler)) for cooler in build.package.coolers))
    groups += [_frame(frame, (*where, "frames", frame.id), coolers) for frame in mount.frames]
    return Page("Mounts", tuple(groups), (("Add a frame of angle", offer("add_frame", build.active)),))


def _frame(frame: Frame, path: Path, coolers: tuple[tuple[str, str], ...]) -> Group:
    of = "Frame"
    rows = (
        Row("choice", (*path, "cooler"), "Round", coolers, of),
        Row("flag", (*path, "fitted"), "Frame of angle fitted"),
        Row("choice", (*path, "hangs"), "It hangs", HANGS, of),
        Row("choice", (*path, "metal"), "Angle of", METAL_CHOICES, of),
        *quantities(path, "leg", "thickness", "lap", "header", "line"),
    )
    return Group(f"Frame, {dict(coolers).get(frame.cooler, frame.cooler).lower()}", rows, remove=path)


def mounts_said(build: Build, system: str) -> Said:
    """How the fans hang, whether the core can grow, and the pieces of each frame."""
    mount, said = build.package.mounting, []
    said.append(("doubt" if mount.fan_to == "through_fins" else "", FAN_MOUNTS[mount.fan_to]))
    grows = core_growth(build.package)
    enough = mount.float_gap.si >= grows
    said.append(
        (
            "" if enough else "problem",
            f"Hot, the core is {grows * 1e3:.1f} mm longer than cold; its mounts leave "
            f"{format_si(mount.float_gap.si, KINDS['length'], system)}: "
            f"{'one end slides freely' if enough else 'too little'}.",
        )
    )
    for plan in frame_plans(build.package):
        name = f"{plan.name.capitalize()} frame" if plan.name else "Frame of angle"
        said += [("problem", f"{name}: {lowered(clause(one.fact, system))}") for one in plan.faults]
        said += [("", f"{name}: {lowered(note)}") for note in clauses(plan.notes, system)]
        said += [
            ("", f"{count} × {piece.lower()}, {format_si(length, KINDS['length'], system)}")
            for piece, length, count in plan.pieces
        ]
    return tuple(said)
