"""The Fit-up station's pages, said without a widget."""

from __future__ import annotations

import math
from typing import cast

from keelroom.assess.assessment import Assessment
from keelroom.assess.fit.clearances import RULE_WORDS, Gap
from keelroom.assess.fit.mounts import FAN_MOUNTS, bracket_plans, condenser_frame, core_growth, part_points
from keelroom.assess.fit.shroud_plan import pan_plan, suction, trim_plan
from keelroom.assess.wording import lowered, raised
from keelroom.core.packaging.fixings import BOLTS
from keelroom.core.packaging.sheet import METALS
from keelroom.document.edits import fresh_id
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Bracket, PartPoint
from keelroom.drawing.fitup import STATE_WORDS
from keelroom.gui.rows import Group, Page, Path, Row, quantities
from keelroom.units import KINDS, fine, format_si

Said = tuple[tuple[str, str], ...]
PARTS = (
    ("core_upper_left", "Core, upper left"), ("core_upper_right", "Core, upper right"), ("core_lower_left", "Core, lower left"), ("core_lower_right", "Core, lower right"),
    ("shroud_upper_left", "Shroud, upper left"), ("shroud_upper_right", "Shroud, upper right"), ("shroud_lower_left", "Shroud, lower left"), ("shroud_lower_right", "Shroud, lower right"),
)  # fmt: skip
METAL_CHOICES = tuple((key, metal.name) for key, metal in METALS.items())
BOLT_CHOICES = tuple((key, bolt.name) for key, bolt in BOLTS.items())
NUTS = (("lock_nut", "Nylon lock nut"), ("rivet_nut", "Rivet nut"))
FAN_TO = (("core_flange", "To the core’s flange"), ("chassis", "To the chassis"), ("through_fins", "Ties through the fins"))
FITTINGS = (("straight", "Straight"), ("elbow_45", "45° elbow"), ("elbow_90", "90° elbow"))
GAP_COLUMNS = ("Between", "State", "Gap", "Wanted", "± worst", "± RSS")


def pages(build: Build, system: str, assessment: Assessment, shown: str = "") -> tuple[Page, ...]:
    """What it clears, where it stands, and what is made for it. shown: the page whose sentences are worked out."""
    said = {
        "Shroud": lambda: _shroud_said(build, system, suction(assessment)),
        "Brackets": lambda: bracket_said(build, system),
        "Mounts": lambda: _mounts_said(build, system),
    }
    made = (
        Page("Gaps", ()),
        _place(build),
        Page("Find", ()),
        Page("Cut", ()),
        _shroud(build),
        _brackets(build),
        _mounts(build),
        Page("Make", ()),
    )
    return tuple(page._replace(said=said[page.title]()) if page.title == shown and page.title in said else page for page in made)


def _length(si: float, system: str) -> str:
    return format_si(si, KINDS["length"], system)


def _place(build: Build) -> Page:
    where = ("packages", build.active, "place")
    rules = tuple(
        Group(raised(RULE_WORDS[rule.id]), (*quantities(("gaps", rule.id), "gap"), Row("text", ("gaps", rule.id, "reason"), "Because")), rare=True)
        for rule in build.gaps
    )  # fmt: skip
    return Page(
        "Place",
        (
            Group("Where the core stands", quantities(where, "x", "y", "z", "lean")),
            Group(
                "How far it may go",
                quantities(where, "reach_x", "reach_y", "reach_z", "reach_lean"),
                note="What Find a place may use.",
                rare=True,
            ),
            *rules,
        ),
        (("Middle of the opening", "centre"), ("To the plane", "to_plane"), ("Put parts back", "put_back")),
    )


FLANGES = (("clear_of_tanks", "Clear of the tanks only"), ("all_round", "All round"))


def _shroud(build: Build) -> Page:
    where = ("packages", build.active, "shroud")
    package = build.package
    bought = quantities(where, "blank_width", "blank_height", "trim_left", "trim_right", "trim_bottom", "trim_top", "ears", "hole_inset")
    sheet = (
        Row("choice", (*where, "metal"), "Metal", METAL_CHOICES),
        *quantities(where, "thickness", "bend_radius", "flange", "bead", "sheet_width", "sheet_height"),
        Row("choice", (*where, "flanges"), "Flanges", FLANGES),
    )
    if package.shroud.kind == "none":
        return Page("Shroud", (Group("No shroud", (), note="This package has none; the Air station fits one."),))
    supplied = Row("flag", (*where, "supplied"), "It came with its fans")
    told = (
        "Measure its width over the flange to plan the trim."
        if package.shroud.supplied
        else "Width over its flange empty: it is made from sheet, below."
    )
    groups = [
        Group("As bought", (supplied, *bought), note=told),
        Group("Both", quantities(where, "depth", "edge_gap", "flap_area")),
    ]
    if package.shroud.blank_width is None and not package.shroud.supplied:
        groups.append(Group("From sheet", sheet))
    actions = (("Trim until it seats", "seat"), ("Fans to their rings", "rings")) if package.shroud.blank_width is not None else ()
    return Page("Shroud", tuple(groups), actions)  # fmt: skip


def _shroud_said(build: Build, system: str, pressure: float) -> Said:
    package = build.package
    plan = trim_plan(package, pressure)
    if plan is not None:
        width, height = (_length(size, system) for size in plan.seat)
        cut = ", ".join(f"{side} {_length(value, system)}" for side, value in plan.now.cut.items() if value) or "nothing"
        ready = ", ".join(f"{side} {_length(value, system)}" for side, value in plan.ready.items() if value > 1e-5) or "nothing"
        state = (
            ("strong", "Seats between the tanks")
            if plan.now.seats
            else ("problem", f"Stands {_length(plan.proud, system)} proud on the tanks")
        )
        lines = [
            state,
            ("", f"Seat {width} × {height}. Trimmed now: {cut}. To seat it in the middle: {ready}."),
            ("", f"Gap left {format_si(plan.now.gap, KINDS['area'], system)}, leaks {format_si(plan.leak, KINDS['airflow'], system)} at the {format_si(pressure, KINDS['fan pressure'], system)} the fans draw standing. Seal to buy: {_length(plan.now.seal, system)}."),
            ("", f"Trimmed like this it puts the fans {_off(plan.shift, system)}."),
        ]  # fmt: skip
        lines += [("problem", fault) for fault in plan.faults] + [("doubt", note) for note in plan.notes]
        return tuple(lines)
    made = pan_plan(package)
    if made is None:
        return (
            (
                "",
                "It came with its fans: nothing to make. Its trim is planned once its width over the flange is measured."
                if package.shroud.supplied
                else "No fan breathes from this shroud yet.",
            ),
        )
    wide, high = (_length(size, system) for size in made.made.sheet)
    pieces = f"{len(made.made.patterns)} pieces joined" if len(made.made.patterns) > 1 else "one folded piece"
    lines = [
        ("strong", f"Pan from sheet: {pieces}, flat blank {wide} × {high}"),
        (
            "",
            f"Largest flat field swings at {made.frequency:.0f} Hz; the long edge gives {fine(made.sag, system)} under a hand’s weight.",
        ),
    ]
    lines += [("problem", fault) for fault in made.faults] + [("doubt", note) for note in made.notes]
    return tuple(lines)


def _off(shift: tuple[float, float], system: str) -> str:
    ways = ((shift[0], "left of", "right of"), (shift[1], "under", "over"))
    words = [f"{_length(abs(value), system)} {high if value > 0 else low} the middle" for value, low, high in ways if abs(value) > 5e-4]
    return " and ".join(words) or "in the middle of the core"


def _brackets(build: Build) -> Page:
    package = build.package
    holes = (("", "Not chosen"), *((hole.id, hole.name or hole.id) for hole in build.survey.holes))
    groups = tuple(_bracket(bracket, holes, ("packages", package.id, "brackets", bracket.id)) for bracket in package.brackets)
    empty = (Group("No bracket yet", (), note="Brackets run from a hole on the core or shroud to a hole of the survey." if build.survey.holes else "The survey has no mounting hole yet: Survey, Holes."),)  # fmt: skip
    actions = (("One to each surveyed hole", "bracket_all"), ("Add a bracket", "add_bracket"))
    return Page("Brackets", groups or empty, actions)


def bracket_said(build: Build, system: str) -> Said:
    """Each bracket in a sentence, with what is wrong and what to mind."""
    said: list[tuple[str, str]] = []
    for plan in bracket_plans(build, build.package):
        name = plan.bracket.name or plan.bracket.id
        if plan.made is None:
            said.append(("problem", f"{name}: {plan.faults[0]}"))
            continue
        assert plan.strap
        words = f"{name}: {plan.made.kind}, {_length(plan.made.developed, system)} developed, {len(plan.made.pattern.bends)} bends, {_stress(plan.strap.stress, system)} ({plan.strap.safety:.1f} × safe), sags {fine(plan.strap.sag, system)}, {plan.strap.frequency:.0f} Hz"
        said.append(("problem" if plan.faults else "strong", words))
        said += [("problem", fault) for fault in plan.faults]
    notes = dict.fromkeys(note for plan in bracket_plans(build, build.package) for note in plan.notes)
    return (*said, *(("faint", note) for note in notes))


def _stress(pascals: float, system: str) -> str:
    return f"{pascals / 6.895e6:.1f} ksi" if system == "us" else f"{pascals / 1e6:.0f} MPa"


def _bracket(bracket: Bracket, holes: tuple[tuple[str, str], ...], path: Path) -> Group:
    rows = (
        Row("text", (*path, "name"), "Name"),
        Row("choice", (*path, "part"), "From", PARTS),
        Row("choice", (*path, "hole"), "To hole", holes),
        Row("choice", (*path, "metal"), "Metal", METAL_CHOICES),
        *quantities(path, "width", "thickness", "radius"),
        Row("choice", (*path, "bolt"), "Bolt", BOLT_CHOICES),
        *quantities(path, "near_hole", "far_hole", "edge", "slot", "stiffener"),
        Row("flag", (*path, "isolated"), "On rubber or silicone"),
        *(quantities(path, "pad", "squeezed") if bracket.isolated else ()),
        Row("choice", (*path, "nut"), "Nut", NUTS),
    )
    return Group(bracket.name or bracket.id, rows, remove=path)


def _mounts(build: Build) -> Page:
    where = ("packages", build.active, "mounting")
    mount = build.package.mounting
    frame = (*where, "frame")
    groups = [
        Group("How it is held", (Row("choice", (*where, "fan_to"), "Fan mount", FAN_TO), *quantities(where, "shock", "mass", "float_gap"))),
        Group("Condenser frame", (Row("flag", (*frame, "fitted"), "Frame of angle on the core’s own mounts"), *(quantities(frame, "leg", "thickness", "lap", "header", "line") if mount.frame.fitted else ()))),
    ]  # fmt: skip
    return Page("Mounts", tuple(groups))


def _mounts_said(build: Build, system: str) -> Said:
    mount, said = build.package.mounting, []
    said.append(("doubt" if mount.fan_to == "through_fins" else "", FAN_MOUNTS[mount.fan_to]))
    grows = core_growth(build.package)
    enough = mount.float_gap.si >= grows
    said.append(("" if enough else "problem", f"Hot, the core is {grows * 1e3:.1f} mm longer than cold; its mounts leave {_length(mount.float_gap.si, system)}: {'one end slides freely' if enough else 'too little'}."))  # fmt: skip
    frame = condenser_frame(build.package)
    if frame is not None:
        said += [("problem", fault) for fault in frame.faults]
        said += [("", f"Condenser frame: {lowered(note)}") for note in frame.notes]
        said += [("", f"{count} × {name.lower()}, {_length(length, system)}") for name, length, count in frame.pieces]
    return tuple(said)


def gap_cells(gap: Gap, system: str) -> tuple[str, ...]:
    """One line of the table of clearances."""
    unit = KINDS["length"].shown_unit(system).symbol
    gap_text, wanted, worst, likely = (
        _length(value, system).removesuffix(unit).strip().replace("-", "−") for value in (gap.gap, gap.wanted, gap.worst, gap.likely)
    )
    state = "not measured" if gap.other.unknown else STATE_WORDS[gap.state]
    return (f"{gap.part.name} – {gap.other.name}", state, gap_text, wanted, worst, likely)


def gap_said(gap: Gap, system: str) -> str:
    """What lies behind one clearance: its rule and the reading that dominates."""
    words = f"{gap.part.name} to {gap.other.name}: rule {RULE_WORDS[gap.rule]}, {_length(gap.wanted, system)}."
    if gap.weakest:
        words += f" {gap.weakest.label} dominates its doubt (± {_length(gap.weakest.effect, system)})."
    return words


def bracket_to(build: Build, hole_id: str, present: tuple[Bracket, ...]) -> Bracket:
    """A bracket from the nearest hole of the core to a surveyed hole, in the usual strip."""
    hole = next(item for item in build.survey.holes if item.id == hole_id)
    points = {key: at for key, at in part_points(build.survey, build.package).items() if key.startswith("core")}
    to = [value.si if value else 0.0 for value in (hole.x, hole.y, hole.z)]
    nearest = cast(PartPoint, min(points, key=lambda key: sum((a - b) ** 2 for a, b in zip(points[key], to, strict=True))))
    ident = fresh_id(present, "bracket")
    return Bracket(id=ident, name=f"Bracket, {hole.name or hole.id}", part=nearest, hole=hole_id)


def heat_words(value: float | None, system: str) -> str:
    """A settled temperature [degC]; inf where none settles, None where something is missing."""
    if value is None:
        return "needs more"
    return format_si(value, KINDS["temperature"], system) if math.isfinite(value) else "does not settle"
