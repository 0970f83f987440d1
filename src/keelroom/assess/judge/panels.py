"""Findings of what leads the air: gaps nobody measured, panels that close nothing or cannot be made, flaps the wrong way round."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding
from keelroom.assess.fit.panels import PanelPlan, foam_for, panel_plans
from keelroom.assess.inputs.sealing import ways
from keelroom.assess.wording import Found, choose_act, lowered, set_act
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.document.schema.panels import EDGES
from keelroom.units import both


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
        most = both(max(getattr(package.sealing, edge).gap.si for edge in guessed), "length")
        yield Finding("gap_assumed", "doubt", ("packages", package.id, "sealing", guessed[-1], "gap"), f"The gap {', '.join(guessed)} of the core is assumed, not measured",
                      f"{most} is taken. A gap over the core of 2 in instead of 3/8 in brings an idle up by some 10 °F: the tape walk asks for each, Survey, Air gaps.", value=float(len(guessed)))  # fmt: skip
    for way in found:
        if way.key not in EDGES and way.assumed:
            yield Finding("air_hole_unmeasured", "doubt", ("survey", "air_holes", way.key, "width"), f"{way.name}: its size is not measured",
                          "Air goes through it past the core; it counts as shut until it is measured.")  # fmt: skip


def _flaps(package: Package) -> Found:
    shroud, where = package.shroud, ("packages", package.id, "shroud")
    if shroud.kind == "none" or shroud.flap_area.si <= 0:
        return
    if shroud.flap_hinge == "bottom":
        yield Finding("flaps_upside_down", "problem", (*where, "flap_hinge"), "The flaps hang upside down",
                      f"Hinged at the bottom they fall open: standing, {both(shroud.flap_area.si, 'area')} of bay air goes to the fans past the core. They hang from their upper edge, and open away from the core at speed.",
                      (choose_act("Hinged at the top", (*where, "flap_hinge"), "top"),), value=shroud.flap_area.si)  # fmt: skip
    if shroud.flap_way == "toward":
        yield Finding("flaps_reversed", "problem", (*where, "flap_way"), "The flaps open toward the core",
                      "The fans' own suction pulls them open at a light, and road speed shuts them: just the wrong way round. They open away from the core.",
                      (choose_act("They open away from the core", (*where, "flap_way"), "away"),), value=shroud.flap_area.si)  # fmt: skip


def _panel(package: Package, plan: PanelPlan) -> Found:
    where = ("packages", package.id, "panels", plan.panel.id)
    for field, text in plan.faults:
        code, fixes = _code_and_fixes(package, plan, field, where)
        level = "doubt" if code == "panel_short" else "problem"
        yield Finding(code, level, (*where, field), f"{plan.name}: {lowered(text)}", _why(code), fixes)  # type: ignore[arg-type]


def _why(code: str) -> str:
    return {
        "panel_nothing": "What closes nothing is work for nothing.",
        "panel_short": "Air takes what is left open.",
        "foam_thin": "The air goes through under it as if it were not there.",
    }.get(code, "As drawn it cannot be made; templates and cut list say so.")


def _code_and_fixes(package: Package, plan: PanelPlan, field: str, where: tuple[str, ...]) -> tuple[str, tuple[Act, ...]]:
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
