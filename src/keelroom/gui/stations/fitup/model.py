"""The Fit-up station's pages, said without a widget."""

from __future__ import annotations

from collections.abc import Callable

from keelroom.assess.acts.registry import offer
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.figures.read_off import suction
from keelroom.assess.fit.clearances import RULE_WORDS, Gap
from keelroom.assess.fit.panels import panel_name
from keelroom.assess.fit.shroud_plan import pan_plan, trim_plan
from keelroom.assess.shelf import METAL_CHOICES
from keelroom.assess.words import clauses
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Cut
from keelroom.drawing.fitup import STATE_WORDS
from keelroom.facts import raised
from keelroom.gui.marks import marks_of
from keelroom.gui.rows import Group, Page, Path, Row, quantities
from keelroom.gui.stations.fitup import brackets, neighbours, panels
from keelroom.units import KINDS, fine, format_si

Said = tuple[tuple[str, str], ...]
GAP_COLUMNS = ("Between", "State", "Gap", "Wanted", "± worst", "± RSS")


def pages(build: Build, system: str, assessment: Assessment, shown: str = "") -> tuple[Page, ...]:
    """What it clears, where it stands, and what is made for it. shown: the page whose sentences are worked out."""
    made = _makers(build, system)
    return tuple(page_of(title, build, system, assessment) if title == shown else made[title](False) for title in made)


def page_of(title: str, build: Build, system: str, assessment: Assessment) -> Page:
    """One of them by itself, with what is worked out for it: sentences, marks at its fields, words on each member."""
    page = _makers(build, system)[title](True)
    said = {
        "Panels": lambda: panels.said(build, system),
        "Neighbours": lambda: neighbours.said(build, system),
        "Shroud": lambda: _shroud_said(build, system, suction(assessment)),
        "Brackets": lambda: brackets.said(build, system),
        "Mounts": lambda: brackets.mounts_said(build, system),
    }
    page = page._replace(
        marks=marks_of(assessment, page, _owners(build), system),
        said=said[title]() if title in said else (),
    )
    given = {"Panels": panels.advice, "Neighbours": neighbours.advice, "Brackets": brackets.advice}.get(title)
    return page._replace(advice=lambda path: given(build, system, path[-1])) if given else page


def _makers(build: Build, system: str) -> dict[str, Callable[[bool], Page]]:
    """The station's pages in their order, each made when it is asked for, whether it is the one that is shown."""
    return {
        "Gaps": lambda _: Page("Gaps", ()),
        "Place": lambda _: _place(build),
        "Find": lambda _: Page("Find", ()),
        "Cut": lambda _: Page("Cut", ()),
        "Neighbours": lambda _: neighbours.page(build),
        "Panels": lambda shown: panels.page(build, system, shown),
        "Shroud": lambda _: _shroud(build),
        "Brackets": lambda _: brackets.page(build),
        "Mounts": lambda _: brackets.mounts_page(build),
        "Make": lambda _: Page("Make", ()),
    }


def _owners(build: Build) -> dict[str, str]:
    """Names of the list members whose findings begin with them."""
    package = build.package
    return {
        **{panel.id: panel_name(panel) for panel in package.panels},
        **{bracket.id: bracket.name or bracket.id for bracket in package.brackets},
        **{item.id: item.name or item.id for item in build.survey.obstacles},
    }


def _length(si: float, system: str) -> str:
    return format_si(si, KINDS["length"], system)


def _place(build: Build) -> Page:
    where, remote = ("packages", build.active, "place"), ("packages", build.active, "remote")
    rules = tuple(
        Group(
            raised(RULE_WORDS[rule.id]),
            (*quantities(("gaps", rule.id), "gap"), Row("text", ("gaps", rule.id, "reason"), "Because")),
            rare=True,
        )
        for rule in build.gaps
    )
    return Page(
        "Place",
        (
            Group(
                "Where the core stands",
                (
                    *quantities(where, "x", "y", "z", "lean"),
                    Row("flag", (*remote, "away"), "Away from the grille, with air of its own"),
                ),
            ),
            *(
                (
                    Group(
                        "Its own air",
                        quantities(remote, "inlet_area", "exit_area", "ram", "behind", "duct_loss", "warmed"),
                    ),
                )
                if build.package.remote.away
                else ()
            ),
            Group(
                "How far it may go",
                quantities(where, "reach_x", "reach_y", "reach_z", "reach_lean"),
                note="What Find a place may use.",
                rare=True,
            ),
            *(_cut(cut, ("packages", build.active, "cuts", cut.id)) for cut in build.package.cuts),
            *rules,
        ),
        (("Middle of the opening", offer("centre", build.active)), ("To the plane", offer("to_plane", build.active))),
    )


def _cut(cut: Cut, path: Path) -> Group:
    name = f"Cut, {cut.edge} edge"
    return Group(name, quantities(path, "amount", "trim", of=name), remove=path)


FLANGES = (("clear_of_tanks", "Clear of the tanks only"), ("all_round", "All round"))


def _shroud(build: Build) -> Page:
    where = ("packages", build.active, "shroud")
    package = build.package
    joined = package.shroud.joined
    bought = (
        *quantities(where, "blank_width", "blank_height"),
        Row("flag", (*where, "joined"), "Two joined side by side"),
        *(quantities(where, "second_width", "join_trim", "lap") if joined else ()),
        *((Row("choice", (*where, "join_seal"), "Joint", JOINTS),) if joined else ()),
        *quantities(where, "trim_left", "trim_right", "trim_bottom", "trim_top", "ears", "hole_inset", "ring_opening"),
        *quantities(where, "ring_x", "ring_y", "gasket"),
    )
    sheet = (
        Row("choice", (*where, "metal"), "Metal", METAL_CHOICES),
        *quantities(where, "thickness", "bend_radius", "flange", "bead", "sheet_width", "sheet_height"),
        Row("choice", (*where, "flanges"), "Flanges", FLANGES),
    )
    if package.shroud.kind == "none":
        none = Group("No shroud", (), note="This package has none; the Air station fits one.")
        return Page("Shroud", (none,), leading=(("To the shroud", (*where, "kind")),))
    supplied = Row("flag", (*where, "supplied"), "It came with its fans")
    told = (
        "Measure its width over the flange to plan the trim."
        if package.shroud.supplied
        else "Width over its flange empty: it is made from sheet, below."
    )
    groups = [
        Group("As bought", (supplied, *bought), note=told),
        Group("Both", (*quantities(where, "depth", "edge_gap", "flap_area"), *_flap_rows(build, where))),
    ]
    if package.shroud.blank_width is None and not package.shroud.supplied:
        groups.append(Group("From sheet", sheet))
    actions = (
        (
            ("Trim until it seats", offer("seat_shroud", package.id)),
            ("Fans to their rings", offer("fans_to_rings", package.id)),
        )
        if package.shroud.blank_width is not None
        else ()
    )
    return Page("Shroud", tuple(groups), actions)


JOINTS = (
    ("sealant", "Lapped in sealant"),
    ("foam", "Lapped on foam tape"),
    ("welded", "Plastic welded"),
    ("none", "Left open"),
)
FLAP_WAYS = (("away", "Open away from the core"), ("toward", "Open toward the core"))
FLAP_HINGES = (("top", "Hinged at the top"), ("side", "Hinged at a side"), ("bottom", "Hinged at the bottom"))


def _flap_rows(build: Build, where: Path) -> tuple[Row, ...]:
    if build.package.shroud.flap_area.si <= 0:
        return ()
    return Row("choice", (*where, "flap_way"), "Flaps", FLAP_WAYS), Row(
        "choice", (*where, "flap_hinge"), "Flaps are", FLAP_HINGES
    )


def _shroud_said(build: Build, system: str, pressure: float) -> Said:
    package = build.package
    plan = trim_plan(package, pressure)
    if plan is not None:
        width, height = (_length(size, system) for size in plan.seat)
        cut = (
            ", ".join(f"{side} {_length(value, system)}" for side, value in plan.now.cut.items() if value) or "nothing"
        )
        ready = (
            ", ".join(f"{side} {_length(value, system)}" for side, value in plan.ready.items() if value > 1e-5)
            or "nothing"
        )
        state = (
            ("strong", "Seats between the tanks")
            if plan.now.seats
            else ("problem", f"Stands {_length(plan.proud, system)} proud on the tanks")
        )
        lines = [
            state,
            ("", f"Seat {width} × {height}. Trimmed now: {cut}. To seat it in the middle: {ready}."),
            (
                "",
                f"Gap left {format_si(plan.now.gap, KINDS['area'], system)}, leaks "
                f"{format_si(plan.leak, KINDS['airflow'], system)} at the "
                f"{format_si(pressure, KINDS['fan pressure'], system)} the fans draw standing. Seal to buy: "
                f"{_length(plan.now.seal, system)}.",
            ),
            ("", f"Trimmed like this it puts the fans {_off(plan.shift, system)}."),
        ]
        lines += [("problem", fault) for fault in clauses(plan.faults, system)]
        lines += [("doubt", note) for note in clauses(plan.notes, system)]
        return tuple(lines)
    made = pan_plan(package)
    if made is None:
        return (
            (
                "",
                "It came with its fans: nothing to make. Its trim is planned once its width over the flange "
                "is measured."
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
            f"Largest flat field swings at {made.frequency:.0f} Hz; the long edge gives "
            f"{fine(made.sag, system)} under a hand’s weight.",
        ),
    ]
    lines += [("problem", fault) for fault in clauses(made.faults, system)]
    lines += [("doubt", note) for note in clauses(made.notes, system)]
    return tuple(lines)


def _off(shift: tuple[float, float], system: str) -> str:
    ways = ((shift[0], "left of", "right of"), (shift[1], "under", "over"))
    words = [
        f"{_length(abs(value), system)} {high if value > 0 else low} the middle"
        for value, low, high in ways
        if abs(value) > 5e-4
    ]
    return " and ".join(words) or "in the middle of the core"


def gap_cells(gap: Gap, system: str) -> tuple[str, ...]:
    """One line of the table of clearances."""
    unit = KINDS["length"].shown_unit(system).symbol
    gap_text, wanted, worst, likely = (
        _length(value, system).removesuffix(unit).strip().replace("-", "−")
        for value in (gap.gap, gap.wanted, gap.worst, gap.likely)
    )
    state = "not measured" if gap.other.unknown else STATE_WORDS[gap.state]
    return (f"{gap.part.name} – {gap.other.name}", state, gap_text, wanted, worst, likely)


def gap_said(gap: Gap, system: str) -> str:
    """What lies behind one clearance: its rule and the reading that dominates."""
    words = f"{gap.part.name} to {gap.other.name}: rule {RULE_WORDS[gap.rule]}, {_length(gap.wanted, system)}."
    if gap.weakest:
        words += f" {gap.weakest.label} dominates its doubt (± {_length(gap.weakest.effect, system)})."
    return words
