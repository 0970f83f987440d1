"""The page of panels, strips, covers, ducts and dams, said without a widget."""

from __future__ import annotations

from keelroom.assess.acts.panels import ADDS
from keelroom.assess.acts.registry import offer
from keelroom.assess.figures.templates import sheet_list
from keelroom.assess.fit.panels import KIND_WORDS, WORK_NOTES, PanelPlan, panel_name, panel_plans
from keelroom.assess.inputs.sealing import ways
from keelroom.assess.shelf import BOLT_CHOICES, METAL_CHOICES
from keelroom.assess.words import clause, clauses
from keelroom.document.schema.build import Build
from keelroom.document.schema.panels import EDGES, Panel
from keelroom.facts import lowered
from keelroom.gui.rows import Group, Page, Path, Row, Said, quantities
from keelroom.units import KINDS, format_si

KINDS_OF_PANEL = tuple(KIND_WORDS.items())
BEADS = (("across", "Front to back, a row"), ("along", "Along its middle, one"))
FIRMNESS = (("soft", "Soft"), ("medium", "Medium"), ("firm", "Firm"))
TOLD = 1e-4
"""A way left open [m2] worth a word: what a sealed one leaks is not."""


def page(build: Build, system: str, shown: bool) -> Page:
    """What leads the air. shown: whether it is in sight, so that its sheets are laid out"""
    package = build.package
    closes = (
        *((edge, f"The {edge} of the core") for edge in EDGES),
        *((hole.id, hole.name or hole.id) for hole in build.survey.air_holes),
    )
    groups = tuple(_group(panel, ("packages", package.id, "panels", panel.id), closes) for panel in package.panels)
    nothing = (
        Group(
            "Nothing leads the air yet",
            (),
            note="Gaps beside the core are measured in the tape walk: Survey, Air gaps. What closes them is "
            "planned here.",
        ),
    )
    close = offer("close_edges", package.id, edges=" ".join(EDGES))
    acts = (
        ("Close every edge", close),
        *(
            (words, offer("add_panel", package.id, f"Add: {words.lower()}", what=what))
            for what, (words, _, _) in ADDS.items()
        ),
    )
    return Page("Panels", (*(groups or nothing), *(_how(build, system) if groups and shown else ())), acts)


def _group(own: Panel, path: Path, closes: tuple[tuple[str, str], ...]) -> Group:
    rows = [
        Row("text", (*path, "name"), "Name"),
        Row("choice", (*path, "kind"), "It is a", KINDS_OF_PANEL),
        *([] if own.kind == "dam" else [Row("choice", (*path, "closes"), "Closes", closes)]),
        Row("flag", (*path, "fitted"), "Fitted: counted in the air"),
    ]
    sheet = own.kind in ("panel", "duct", "dam")
    if own.kind != "cover":
        rows += quantities(path, "length")
    if sheet:
        rows += quantities(
            path,
            "depth",
            *(("far_length",) if own.kind == "duct" else ()),
            "front_lip",
            "front_bend",
            "back_lip",
            "back_bend",
        )
    if own.kind != "strip":
        rows += [Row("choice", (*path, "metal"), "Metal", METAL_CHOICES), *quantities(path, "thickness")]
    if sheet:
        rows += quantities(path, "radius", "notch_width", "notch_depth", "notch_at", "bead")
        rows += (
            (Row("choice", (*path, "beads"), "Beads run", BEADS), *quantities(path, "bead_end"))
            if own.bead.si > 0
            else ()
        )
        rows += quantities(path, "pins", "pin_hole")
    if own.kind != "strip":
        rows += [
            *quantities(path, "bolts", "hole"),
            Row("choice", (*path, "bolt"), "Bolt", BOLT_CHOICES),
            Row("flag", (*path, "trim"), "Edge trim on its cut edges"),
        ]
    if own.kind != "dam":
        rows += [*quantities(path, "foam", "foam_gap"), Row("choice", (*path, "firmness"), "Foam", FIRMNESS)]
    return Group(panel_name(own), (*rows, *quantities(path, "cost")), remove=path)


def said(build: Build, system: str) -> Said:
    """What is open round the core, and where nobody has measured it."""
    area = KINDS["area"]
    found = ways(build.package, build.survey.air_holes)
    open_now, as_found = sum(way.left for way in found), sum(way.area for way in found)
    told = ", ".join(f"{lowered(way.name)} {format_si(way.left, area, system)}" for way in found if way.left > TOLD)
    lines = [
        (
            "strong",
            f"Open round the core: {format_si(open_now, area, system)} of "
            f"{format_si(as_found, area, system)} as found.",
        ),
        ("", f"Left open: {told}." if told else "Nothing is left open."),
    ]
    assumed = ", ".join(lowered(way.name) for way in found if way.assumed)
    if assumed:
        lines.append(("doubt", f"Assumed, not measured: {assumed}."))
    return tuple(lines)


def _how(build: Build, system: str) -> tuple[Group, ...]:
    """Which sheets are cut, and how panels are fitted, folded away under the panels."""
    sheets = [
        f"{stock}: {pieces} {'piece' if pieces == '1' else 'pieces'} on {sheets} "
        f"sheet{'' if sheets == '1' else 's'}, {used} used" + (f"; too large for it: {over}" if over != "none" else "")
        for stock, pieces, sheets, used, over in sheet_list(build, build.package, system)[1:]
    ]
    return (
        Group("Sheets to cut from", (), note=". ".join(sheets) + "." if sheets else "None.", rare=True),
        Group("How it is fitted", (), note=" ".join(WORK_NOTES), rare=True),
    )


def advice(build: Build, system: str, ident: str) -> Said:
    """One panel in figures, with what is wrong and what to mind."""
    plan = next((plan for plan in panel_plans(build, build.package) if plan.panel.id == ident), None)
    if plan is None:
        return ()
    lines: list[tuple[str, str]] = [("strong" if not plan.faults else "problem", _figures(plan, system))]
    lines += [("problem", clause(one.fact, system)) for one in plan.faults]
    return (*lines, *(("", note) for note in clauses(plan.notes, system)))


def _figures(plan: PanelPlan, system: str) -> str:
    length = KINDS["length"]
    words = [] if plan.panel.fitted else ["Not fitted: not counted"]
    if plan.made is not None:
        _, _, wide, high = plan.made.patterns[0].bounds
        words.append(
            f"blank {format_si(wide, length, system)} × {format_si(high, length, system)}, "
            f"{len(plan.made.patterns)} piece{'' if len(plan.made.patterns) == 1 else 's'}"
        )
        if plan.panel.trim:
            words.append(f"edge trim {format_si(plan.made.trim, length, system)}")
    if plan.frequency:
        words.append(f"swings at {plan.frequency:.0f} Hz")
    if plan.foam_length and plan.panel.foam:
        words.append(
            f"foam {format_si(plan.foam_length, length, system)}, "
            f"{format_si(plan.panel.foam.si, length, system)} thick squeezed {max(plan.share, 0.0):.0%}"
        )
    text = "; ".join(words)
    return text[:1].upper() + text[1:] + "."
