"""An assessment for machines (stable JSON, SI-suffixed keys) and as a table for a terminal."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

from keelroom.assess.acts.registry import applies
from keelroom.assess.figures.assessment import Assessment, CaseFigures, CaseResult
from keelroom.assess.figures.effort import effort_words
from keelroom.assess.figures.outputs import CASE, OF_CASE, RULES, TOTALS, machine
from keelroom.assess.figures.read_off import suction
from keelroom.assess.fit.clearances import Fit, Gap
from keelroom.assess.fit.coolers import LINED, WARM, line_plan, mount_notes
from keelroom.assess.fit.frames import frame_plans
from keelroom.assess.fit.mounts import bracket_plans, core_growth
from keelroom.assess.fit.moves import moves_of
from keelroom.assess.fit.panels import panel_plans
from keelroom.assess.fit.shroud_plan import pan_plan, trim_plan
from keelroom.assess.inputs.sealing import ways
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.wording import chance_words, raised
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.package import Package
from keelroom.units import KINDS, format_si

VERDICT_WORDS = {"holds": "holds", "tight": "likely holds", "over": "over limit", "does_not_settle": "does not settle"}


def _number(value: Any) -> Any:
    return None if isinstance(value, float) and not math.isfinite(value) else value


def as_json(assessment: Assessment) -> dict[str, Any]:
    """The stable machine form of the build it was made of. Figures without a finite value (a band that does not settle) are null; a part
    that could not be worked out says so under `stopped` in its place, and `stopped` lists all of them."""
    build = assessment.build
    return {
        "format": "keelroom-assessment",
        "version": 1,
        "title": build.brief.title,
        "document_revision": build.revision,
        "package": {"id": assessment.package_id, "name": assessment.package.name},
        "limit_degC": assessment.limit,
        "thermostat_degC": assessment.thermostat,
        "cases": [_case(case) for case in assessment.cases],
        "rules_of_thumb": machine(RULES, assessment),
        "totals": machine(TOTALS, assessment),
        "stopped": [_stopped(stop) for stop in assessment.all_stopped],
        "fit": _part("How it fits", assessment, _fit),
        "loop": _part("The coolant circuit", assessment, _loop),
        "electrics": _part("The circuits", assessment, _electrics),
        "findings": [
            {"code": f.code, "level": f.level, "where": list(f.where), "what": f.what, "why": f.why, "source": f.source,
             "value_si": _number(f.value), "limit_si": _number(f.limit), "fixes": [fix.label for fix in f.fix if applies(build, fix)]}
            for f in assessment.findings
        ],
    }  # fmt: skip


def _stopped(stop: Stopped) -> dict[str, Any]:
    return {"part": stop.part, "where": list(stop.where), "why": stop.why, "report": stop.report}


def _part(name: str, assessment: Assessment, told: Callable[[Build, Assessment], dict[str, Any]]) -> dict[str, Any]:
    """A part of the machine form, or what stopped it."""
    found = attempted(name, ("packages", assessment.package_id), lambda: told(assessment.build, assessment))
    return {"stopped": _stopped(found)} if isinstance(found, Stopped) else found


def _loop(build: Build, assessment: Assessment) -> dict[str, Any]:
    """The coolant circuit: what it holds, flows and pressures by case, hoses, air and filling, SI."""
    from keelroom.assess.figures.loop_told import loop_told  # only for the machine form and the sheet

    return loop_told(build, assessment)


def _fit(build: Build, assessment: Assessment) -> dict[str, Any]:
    """Verdict, clearances [m] and made parts of the package."""
    from keelroom.assess.figures.templates import cut_list, hardware_list, sheet_list  # only for the machine form: they slow the start

    fit, package = assessment.fit, next(p for p in build.packages if p.id == assessment.package_id)
    if fit is None:
        return {}
    trimmed, panned = trim_plan(package, suction(assessment)), pan_plan(package)
    return {
        "verdict": fit.verdict,
        "clearances": [
            {"part": gap.part.name, "other": gap.other.name, "rule": gap.rule, "gap_m": gap.gap, "wanted_m": gap.wanted, "state": gap.state,
             "worst_case_m": gap.worst, "root_sum_square_m": gap.likely, "dominant": gap.weakest.label if gap.weakest else None}
            for gap in fit.gaps
        ],
        "unmeasured": ["/".join(item.path) for item in fit.unmeasured],
        "measure_next": "/".join(fit.next.path) if fit.next else None,
        "shroud": {
            "seats": trimmed.now.seats, "gap_m2": trimmed.now.gap, "seal_m": trimmed.now.seal, "leak_m3_s": trimmed.leak,
            "faults": list(trimmed.faults), "notes": list(trimmed.notes),
        } if trimmed else None,
        "pan": {
            "sheet_m": list(panned.made.sheet), "frequency_Hz": panned.frequency, "edge_sag_m": panned.sag, "faults": list(panned.faults),
            "pieces": len(panned.made.patterns),
        } if panned else None,
        "brackets": [
            {"id": plan.bracket.id, "kind": plan.made.kind if plan.made else None, "developed_m": plan.made.developed if plan.made else None,
             "stress_Pa": plan.strap.stress if plan.strap else None, "sag_m": plan.strap.sag if plan.strap else None,
             "frequency_Hz": plan.strap.frequency if plan.strap else None, "presses_N": plan.presses, "bears_kg": plan.load.mass if plan.load else None, "transfer": list(plan.transfer),
             "faults": list(plan.faults), "notes": list(plan.notes)}
            for plan in bracket_plans(build, package)
        ],
        "core_growth_m": core_growth(package),
        "frames": [
            {"id": plan.frame.id, "pieces_m": [piece[1] for piece in plan.pieces], "faults": [text for _, text in plan.faults], "notes": list(plan.notes)}
            for plan in frame_plans(package)
        ],
        "ways_round_the_core": [
            {"key": way.key, "found_m2": way.area, "left_m2": way.left, "assumed": way.assumed} for way in ways(package, build.survey.air_holes)
        ],
        "panels": [
            {"id": plan.panel.id, "fitted": plan.panel.fitted, "length_m": plan.length, "foam_squeezed": plan.share, "foam_gap_m": plan.gap, "foam_m": plan.foam_length, "frequency_Hz": plan.frequency,
             "trim_m": plan.made.trim if plan.made else 0.0, "faults": [text for _, text in plan.faults], "notes": list(plan.notes)}
            for plan in panel_plans(build, package)
        ],
        "moves": [
            {"id": moved.move.id, "how": moved.move.how, "travel_m": moved.travel, "seconds": moved.seconds, "faults": [text for _, _, text in moved.faults],
             "notes": list(moved.notes), "cautions": list(moved.cautions)}
            for moved in moves_of(build, package)
        ],
        "coolers": {
            cooler.id: {"faults": [fault for _, fault in faults], "notes": list(notes)}
            for cooler in package.coolers if cooler.stands != "ahead" for faults, notes in (mount_notes(build, package, cooler),)
        },
        "lines": {cooler.id: _lines(package, cooler) for cooler in package.coolers if cooler.kind in LINED},
        "cut_list": [list(row) for row in cut_list(build, package, "si")[1:]],
        "sheets": [list(row) for row in sheet_list(build, package, "si")[1:]],
        "hardware": [list(row) for row in hardware_list(build, package, "si")[1:]],
    }  # fmt: skip


def _lines(package: Package, cooler: Cooler) -> dict[str, float | None]:
    """Lines of a cooler with warm oil at 8 L/min: what they lose, how tight they may be bent, what is in hand, what they hold; SI."""
    plan = line_plan(package, cooler, *WARM)
    return {
        "lost_Pa": plan.lost.pressure, "least_bend_m": plan.bend, "bend_in_hand_m": cooler.tightest.si - plan.bend if cooler.tightest else None,
        "fluid_m3": plan.fluid,
    }  # fmt: skip


def _electrics(build: Build, assessment: Assessment) -> dict[str, Any]:
    """Circuits and harness of the package, SI."""
    from keelroom.assess.electrical.charge import charge_cable
    from keelroom.assess.electrical.harness import harness, loom_list, parts_list, splices  # only for the machine form
    from keelroom.assess.inputs.coolant.sensor import adapter_of

    found, package = assessment.electrics, next(p for p in build.packages if p.id == assessment.package_id)
    if found is None:
        return {}
    adapter = adapter_of(build, package)
    cable = charge_cable(build.supply, found.alternator.rating) if found.alternator else None
    return {
        "circuits": [
            {"id": one.circuit.id, "feeds": [motored.id for motored in one.motors], "fault": one.fault, "continuous_A": one.continuous, "starting_A": one.starting.current,
             "starting_s": one.starting.seconds, "stalled_A": one.stalled, "motor_at_idle_V": one.at_idle, "motor_at_cruise_V": one.at_cruise, "battery_at_idle_V": one.source_idle,
             "battery_at_cruise_V": one.source_cruise, "drop_V": one.drop, "lost_V": dict(one.lost), "fuse_stands_start": one.stands, "relay_holds_A": one.relay_holds, "connector_holds_A": one.connector_holds,
             "runs": [{"run": run.key, "current_A": run.current, "ampacity_A": run.ampacity, "conductor_degC": run.warm, "limit_degC": run.limit} for run in one.runs],
             "advice": {"sizes": list(one.advice.sizes), "fuse_A": one.advice.fuse, "fuse_form": one.advice.form, "relay_A": one.advice.relay, "switch": one.advice.switch}}
            for one in found.circuits
        ],
        "without_circuit": [motored.id for motored in found.loose],
        "wires": [list(wire) for wire in harness(build, package, found)],
        "parts": [list(row) for row in parts_list(build, package, found)[1:]],
        "splices": [list(splice) for splice in splices(build, package, found)],
        "loom": [list(row) for row in loom_list(build, package, found, "si")[1:]],
        "adapter_cut_m": adapter.cut if adapter else None,
        "charge_cable": {"drop_V": cable.drop, "ampacity_A": cable.ampacity, "conductor_degC": cable.warm, "limit_degC": cable.limit, "fuse_A": cable.fuse} if cable else None,
        "adapter": list(adapter) if adapter else None,
    }  # fmt: skip


def _case(case: CaseResult) -> dict[str, Any]:
    common: dict[str, Any] = {"id": case.case_id, "name": case.name}
    if case.stopped is not None:
        return {**common, "stopped": _stopped(case.stopped)}
    if case.figures is None:
        return {**common, "needs": [{"where": list(need.path), "label": need.label} for need in case.needs]}
    figures = case.figures
    return {
        **common,
        **machine(CASE, figures),
        "heat_by_cause_W": dict(figures.heat_by_cause),
        "doubt_by_cause_W": dict(figures.doubt_by_cause),
        "pressures_Pa": dict(figures.pressures),
        "fans": [
            {"id": fan.fan_id, "flow_at_fan_m3_s": fan.flow_at_fan, "flow_into_core_m3_s": fan.flow_into_core, "share": fan.share,
             "from_core_share": fan.from_core, "from_edge_share": fan.from_edge, "from_stopped_fan_share": fan.from_hole,
             "pressure_Pa": fan.pressure, "voltage_V": fan.voltage, "current_A": fan.current, "power_W": fan.power}
            for fan in figures.fans
        ],
        "coolers": [
            {"id": cover.cooler_id, "kind": cover.kind, "heat_W": cover.heat, "air_kg_s": cover.flow, "air_in_degC": cover.air_in,
             "air_out_degC": cover.air_out, "fluid_degC": cover.fluid}
            for cover in figures.coolers
        ],
        "fluids": {
            "gearbox_degC": figures.fluids.gearbox, "gearbox_leaving_degC": figures.fluids.gearbox_leaving, "oil_degC": figures.fluids.oil,
            "charge_air_degC": figures.fluids.charge, "condensing_degC": figures.fluids.condensing, "head_pressure_Pa": figures.fluids.head_pressure,
            "vents_degC": figures.fluids.vents, "steering_degC": figures.fluids.steering, "compressor_share": figures.fluids.runs,
            "given_W": dict(figures.fluids.given), "left_W": [[part.fluid, part.where, part.heat] for part in figures.fluids.left],
        },
    }  # fmt: skip


def settles_text(figures: CaseFigures, system: str) -> str:
    """The temperature, or that there is none."""
    if figures.verdict == "does_not_settle":
        return "does not settle"
    top = format_si(figures.temperature, KINDS["temperature"], system)
    return f"swings {format_si(figures.swings_from, KINDS['temperature'], system).split()[0]}–{top}" if figures.cycles else top


def fans_run(figures: CaseFigures, system: str) -> str:
    """How much the fans run, and the mean temperature where they cycle."""
    mean = f", {format_si(figures.mean, KINDS['temperature'], system)} in the mean" if figures.cycles else ""
    return f"{figures.fan_command:.0%} of the time{mean}"


def band_text(figures: CaseFigures, system: str) -> str:
    """The band round the temperature, 'low–high', or where its hot end has none."""
    low = format_si(figures.low, KINDS["temperature"], system)
    if figures.low > figures.boiling:
        return "none under boiling"
    if math.isinf(figures.high):
        return f"{low} to no limit"
    return f"{low.split()[0]}–{format_si(figures.high, KINDS['temperature'], system)}"


def margin_text(figures: CaseFigures, system: str) -> str:
    """Degrees in hand or over, or how fast it climbs at the limit where it never settles."""
    difference = KINDS["temperature difference"]
    if figures.verdict == "does_not_settle":
        return f"climbs {format_si(figures.climb * 60, difference, system)}/min at the limit" if figures.climb else "boils under the limit"
    word = "in hand" if figures.margin >= 0 else "over"
    return f"{format_si(abs(figures.margin), difference, system)} {word}"


def as_table(assessment: Assessment, system: str) -> str:
    """The ledger for a terminal: one line per duty case, then totals and findings."""
    rows = ledger_rows(assessment, system)
    full = [row for row in rows if row[2]]
    widths = [max(len(row[k]) for row in full) for k in range(7)]
    lines = [f"{assessment.build.brief.title or 'Untitled build'} — {assessment.package.name}", ""]
    lines += ["  ".join(cell.ljust(width) for cell, width in zip(row, widths, strict=True)).rstrip() for row in rows]
    lines += ["", *totals_lines(assessment, system), ""]
    lines += [f"{finding.level.upper():8} {finding.what}\n         {finding.why}" for finding in assessment.findings]
    return "\n".join(lines)


def missing_words(case: CaseResult) -> str:
    """Why a duty case has no figures: what it needs, or what stopped it."""
    if case.stopped is not None:
        return f"not worked out: {case.stopped.why}"
    named = [need.label.lower() for need in case.needs]
    return f"needs {', '.join(named[:3])}" + (f" and {len(named) - 3} more" if len(named) > 3 else "")


def _words(key: str) -> Callable[[CaseFigures, str], str]:
    return OF_CASE[key].text


LEDGER: tuple[tuple[str, Callable[[CaseFigures, str], str]], ...] = (
    ("Settles at", settles_text),
    ("Band (80 %)", band_text),
    ("Margin to limit", margin_text),
    ("Heat in", _words("heat_in_W")),
    ("Air", _words("airflow_m3_s")),
    ("Verdict", lambda figures, _system: VERDICT_WORDS[figures.verdict]),
)
"""Columns of the ledger wherever it is a table, after the duty case's name."""


def ledger_rows(assessment: Assessment, system: str) -> list[tuple[str, ...]]:
    """The ledger as a table, heading first; a duty case that needs more says so."""
    rows: list[tuple[str, ...]] = [("Duty case", *(heading for heading, _ in LEDGER))]
    for case in assessment.cases:
        figures = case.figures
        told = [missing_words(case)] + [""] * (len(LEDGER) - 1) if figures is None else [cell(figures, system) for _, cell in LEDGER]
        rows.append((case.name, *told))
    return rows


FIT_WORDS = {
    "no core": "no core is chosen yet: its face comes first",
    "not surveyed": "the bay is not surveyed",
    "not measured": "not everything near it is measured",
    "does not fit": "does not fit",
    "tight": "clears, but not by more than the tape’s doubt",
    "clears": "clears",
}


def verdict_sentence(fit: Fit) -> str:
    """The verdict by itself."""
    return raised(FIT_WORDS[fit.verdict])


def gap_size(gap: Gap, system: str) -> str:
    """How wide a clearance is, or how far the parts overlap."""
    size = format_si(abs(gap.gap), KINDS["length"], system)
    return f"overlaps {size}" if gap.gap < 0 else size


def gap_words(gap: Gap, system: str) -> str:
    """A clearance in one line: between what, how much, of what is wanted."""
    length = KINDS["length"]
    size = format_si(abs(gap.gap), length, system)
    have = f"overlap by {size}" if gap.gap < 0 else size
    return f"{gap.part.name} to {gap.other.name.lower()}: {have} ± {format_si(gap.worst, length, system)}, {format_si(gap.wanted, length, system)} wanted"


def fit_line(assessment: Assessment, system: str) -> str:
    """Whether it fits, with the tightest clearance."""
    fit = assessment.fit
    if fit is None:
        return "Fit: could not be worked out"
    if not fit.surveyed:
        return "Fit: the bay is not surveyed"
    tightest = fit.tightest
    return f"Fit: {FIT_WORDS[fit.verdict]}" + (f". Tightest: {gap_words(tightest, system)}" if tightest else "")


def volts_line(assessment: Assessment) -> str:
    """Volts at the battery and at the worst motor at idle, as a sentence with its space; '' where not known."""
    idle = assessment.electrics.idle if assessment.electrics else None
    if idle is None or not idle.volts:
        return ""
    return f"At idle {idle.balance.voltage:.1f} V at the battery, {min(idle.volts.values()):.1f} V at the worst motor. "


def plain_verdict(assessment: Assessment, system: str) -> str:
    """One paragraph for a message: heat, fit and volts, and what could not be worked out."""
    build, rows = assessment.build, ledger_rows(assessment, system)[1:]
    told = [f"{row[0]} {row[1]} ({row[6]})" if row[2] else f"{row[0]} {row[1]}" for row in rows]
    heat = "; ".join(told) if any(case.figures or case.stopped for case in assessment.cases) else "no duty case is worked out yet"
    return f"{assessment.package.name or 'Package'} in {build.brief.title or 'this build'}: {heat}. {fit_line(assessment, system)}. {volts_line(assessment)}Planning estimates; local codes and licensed practice come first."


def verdict_line(assessment: Assessment, system: str) -> str:
    """How a package stands, in a few words: how many duty cases hold, and the worst of them."""
    solved = [case for case in assessment.cases if case.figures]
    stuck = [case for case in assessment.cases if case.stopped]
    worst = assessment.tightest
    if worst is None or worst.figures is None:
        return f"Not worked out: {stuck[0].stopped.why}" if stuck and stuck[0].stopped else "No figures yet"
    holding = sum(case.figures.verdict in ("holds", "tight") for case in solved if case.figures)
    stand = "All hold" if holding == len(solved) + len(stuck) else f"{holding} of {len(solved) + len(stuck)} hold"
    if stuck:
        stand += f", {len(stuck)} not worked out"
    if worst.figures.verdict == "does_not_settle":
        return f"{stand}; {worst.name} does not settle"
    return (
        f"{stand}; {worst.name} {format_si(worst.figures.temperature, KINDS['temperature'], system)}, {margin_text(worst.figures, system)}"
    )


def folded_line(assessment: Assessment, system: str, sign: str = "") -> str:
    """The ledger in one line: verdict, chance over the limit, amps at idle, tightest gap, cost and hours, as far as they are known.

    sign : put before costs
    """
    worst, totals, fit = assessment.tightest, assessment.totals, assessment.fit
    parts = [verdict_line(assessment, system)]
    if worst is not None and worst.figures is not None and worst.figures.verdict != "does_not_settle":
        parts.append(f"{chance_words(worst.figures.chance)} over the limit")
    if totals.amps_at_idle is not None and totals.alternator_at_idle is not None:
        parts.append(f"idle {totals.amps_at_idle:.0f} A of {totals.alternator_at_idle:.0f}")
    if fit is not None and fit.tightest is not None:
        parts.append(f"gap {gap_size(fit.tightest, system)}")
    if totals.cost is not None:
        parts.append(f"parts {sign}{totals.cost:.0f}")
    if totals.hours is not None:
        parts.append(f"{totals.hours / 3600:.0f} h")
    return " · ".join(parts)


def totals_lines(assessment: Assessment, system: str, sign: str = "") -> list[str]:
    """Totals and rules of thumb, a line each. sign: put before costs"""
    totals, rules, lines = assessment.totals, assessment.rules, [fit_line(assessment, system)]
    if totals.amps_at_idle is not None and totals.alternator_at_idle is not None:
        lines.append(
            f"Idle, everything on and the fans running: {totals.amps_at_idle:.0f} A of {totals.alternator_at_idle:.0f} A the alternator gives hot, {totals.volts_at_idle or 0:.1f} V at the battery"
        )
    if totals.cost is not None:
        lines.append(f"Parts: {sign}{totals.cost:.0f}")
    if totals.hours is not None:
        words = effort_words(totals.effort) if totals.effort else ""
        lines.append(f"Shop hours: {format_si(totals.hours, KINDS['time'], system)}{words}")
    for name, have, want, kind in (
        ("Frontal-area rule", rules.face_area, rules.face_area_wanted, "area"),
        ("CFM rule", rules.airflow, rules.airflow_wanted, "airflow"),
    ):
        if have is not None and want is not None:
            lines.append(f"{name}: {format_si(have, KINDS[kind], system)} against {format_si(want, KINDS[kind], system)} wanted")
    return lines


CAUTIONS = (
    "Planning estimates: they defer to local codes and licensed practice.",
    "Hot coolant under pressure scalds: never open a cap on a hot system; no cold water into a hot block.",
    "Electric fans start without warning: disconnect before hands go in; keep out of the fan and belt plane, no loose clothing.",
    "Disconnect the battery before wiring; fuse at the source, sized for the wire. Batteries give off gas.",
    "Refrigerant is recovered by licensed people; the system is never vented.",
    "Coolant is poisonous to people and animals: catch it, keep it covered, dispose of it by local rules. Glycol, oil and gearbox fluid burn: keep lines off the exhaust.",
    "Cutting or moving a structural panel, bumper beam, latch or airbag sensor can make a vehicle unsafe or illegal: get qualified advice.",
    "Running an engine indoors needs exhaust extraction; support the vehicle on stands; set a stop temperature for every soak test.",
    "Never a higher cap than the weakest part allows.",
    "Eye, hand and ear protection when cutting, grinding, welding; no flame or weld near fuel or on a core with coolant in it; sheet edges cut.",
    "A hood that may touch the package can come open or damage the latch. Zip ties are not a structural mount.",
)
