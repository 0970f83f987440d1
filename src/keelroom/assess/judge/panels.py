"""Findings of what leads the air: gaps nobody measured, panels that close nothing or cannot be made, flaps the wrong
way round."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding, Found, Level
from keelroom.assess.fit.panels import PanelPlan, foam_for, panel_plans
from keelroom.assess.fixes import choose_act, set_act
from keelroom.assess.inputs.sealing import ways
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.document.schema.panels import EDGES
from keelroom.facts import given


def panels(build: Build, package: Package, assessment: Assessment) -> Found:
    """Panels, seals, openings and flaps."""
    yield from _gaps(build, package)
    yield from _flaps(package)
    for plan in panel_plans(build, package):
        yield from _panel(package, plan)


def _gaps(build: Build, package: Package) -> Found:
    """The gaps round the core decide how much air goes round it; until they are measured they are a guess."""
    if package.core.face_width is None:
        return
    found = ways(package, build.survey.air_holes)
    guessed = [edge for edge in EDGES if getattr(package.sealing, edge).gap.origin == "assumed"]
    if guessed:
        most = max(getattr(package.sealing, edge).gap.si for edge in guessed)
        yield Finding(
            "gap_assumed",
            "doubt",
            ("packages", package.id, "sealing", guessed[-1], "gap"),
            given(edges=tuple(guessed), most=(most, "length")),
            value=float(len(guessed)),
        )
    for way in found:
        if way.key not in EDGES and way.assumed:
            yield Finding(
                "air_hole_unmeasured", "doubt", ("survey", "air_holes", way.key, "width"), given(name=way.name)
            )


def _flaps(package: Package) -> Found:
    shroud, where = package.shroud, ("packages", package.id, "shroud")
    if shroud.kind == "none" or shroud.flap_area.si <= 0:
        return
    if shroud.flap_hinge == "bottom":
        yield Finding(
            "flaps_upside_down",
            "problem",
            (*where, "flap_hinge"),
            given(flap_area=(shroud.flap_area.si, "area")),
            fix=(choose_act("Hinged at the top", (*where, "flap_hinge"), "top"),),
            value=shroud.flap_area.si,
        )
    if shroud.flap_way == "toward":
        yield Finding(
            "flaps_reversed",
            "problem",
            (*where, "flap_way"),
            fix=(choose_act("They open away from the core", (*where, "flap_way"), "away"),),
            value=shroud.flap_area.si,
        )


def _panel(package: Package, plan: PanelPlan) -> Found:
    where = ("packages", package.id, "panels", plan.panel.id)
    for field, fault in plan.faults:
        code, fixes = _code_and_fixes(package, plan, field, where)
        level: Level = "doubt" if code == "panel_short" else "problem"
        yield Finding(code, level, (*where, field), given(name=plan.name, fault=fault), fix=fixes)


def _code_and_fixes(
    package: Package, plan: PanelPlan, field: str, where: tuple[str, ...]
) -> tuple[str, tuple[Act, ...]]:
    own = plan.panel
    if field == "closes":
        return "panel_nothing", (Act("remove", "Take it out", path=where),)
    if field == "foam":
        free = foam_for(plan.gap)
        fixes = (set_act(f"Foam {free.as_typed} thick", (*where, "foam"), free.as_typed),) if free.si > plan.gap else ()
        return "foam_thin", fixes
    if field == "length" and plan.way is not None and own.length is not None and plan.length < plan.way.length - 1e-6:
        return "panel_short", (Act("clear", "As long as its gap", path=(*where, "length")),)
    if field in ("bead", "bead_end"):
        return "panel_fault", (set_act("No bead", (*where, "bead"), "0 in"),)
    return "panel_fault", ()
