"""An assessment for machines: stable JSON, SI-suffixed keys, every fact as its code and figures with the sentence
they make."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from typing import Any

from keelroom.assess.acts.registry import applies
from keelroom.assess.figures.assessment import Assessment, CaseResult
from keelroom.assess.figures.outputs import CASE, RULES, TOTALS, machine
from keelroom.assess.figures.read_off import suction
from keelroom.assess.fit.coolers import LINED, WARM, line_plan, mount_notes
from keelroom.assess.fit.frames import frame_plans
from keelroom.assess.fit.mounts import bracket_plans, core_growth
from keelroom.assess.fit.moves import moves_of
from keelroom.assess.fit.panels import panel_plans
from keelroom.assess.fit.shroud_plan import pan_plan, trim_plan
from keelroom.assess.inputs.sealing import ways
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.words import clause, worded
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.package import Package
from keelroom.facts import FACT, Fact, Figure, Figures


def _number(value: Any) -> Any:
    return None if isinstance(value, float) and not math.isfinite(value) else value


def as_json(assessment: Assessment, system: str = "us") -> dict[str, Any]:
    """The stable machine form of the build it was made of. Figures without a finite value (a band that does not
    settle) are null; a part that could not be worked out says so under `stopped` in its place, and `stopped` lists
    all of them.

    system : "us" or "si", of the sentences; every figure is SI
    """
    build = assessment.build
    return {
        "format": "keelroom-assessment",
        "version": 2,
        "title": build.brief.title,
        "document_revision": build.revision,
        "package": {"id": assessment.package_id, "name": assessment.package.name},
        "limit_degC": assessment.limit,
        "thermostat_degC": assessment.thermostat,
        "cases": [_case(case) for case in assessment.cases],
        "rules_of_thumb": machine(RULES, assessment),
        "totals": machine(TOTALS, assessment),
        "stopped": [_stopped(stop) for stop in assessment.all_stopped],
        "fit": _part("How it fits", assessment, lambda build, found: _fit(build, found, system)),
        "loop": _part("The coolant circuit", assessment, lambda build, found: _loop(build, found, system)),
        "electrics": _part("The circuits", assessment, _electrics),
        "findings": [
            {
                "code": f.code,
                "level": f.level,
                "where": list(f.where),
                "form": f.form,
                **worded(f, system)._asdict(),
                "figures": _figures(f.figures, system),
                "rests_on": [list(path) for path in f.rests_on],
                "assumed": list(f.assumed),
                "source": f.source,
                "value_si": _number(f.value),
                "limit_si": _number(f.limit),
                "fixes": [fix.label for fix in f.fix if applies(build, fix)],
            }
            for f in assessment.findings
        ],
    }


def _figures(figures: Figures, system: str) -> dict[str, Any]:
    """Figures by name, each with its value, kind and SI unit; facts among them as facts."""
    return {one.key: _facts(one.facts, system) if one.kind == FACT else _measure(one) for one in figures}


def _measure(figure: Figure) -> dict[str, Any]:
    return {"value": _number(figure.value), "kind": figure.kind, "unit": figure.unit}


def _facts(facts: Iterable[Fact], system: str) -> list[dict[str, Any]]:
    """Facts as code and figures, each with its clause."""
    return [
        {"code": fact.code, "figures": _figures(fact.figures, system), "says": clause(fact, system)} for fact in facts
    ]


def _stopped(stop: Stopped) -> dict[str, Any]:
    return {"part": stop.part, "where": list(stop.where), "why": stop.why, "report": stop.report}


def _part(name: str, assessment: Assessment, told: Callable[[Build, Assessment], dict[str, Any]]) -> dict[str, Any]:
    """A part of the machine form, or what stopped it."""
    found = attempted(name, ("packages", assessment.package_id), lambda: told(assessment.build, assessment))
    return {"stopped": _stopped(found)} if isinstance(found, Stopped) else found


def _loop(build: Build, assessment: Assessment, system: str) -> dict[str, Any]:
    """The coolant circuit: what it holds, flows and pressures by case, hoses, air and filling, SI."""
    from keelroom.assess.figures.loop_told import loop_told  # only for the machine form and the sheet

    return loop_told(build, assessment, system)


def _fit(build: Build, assessment: Assessment, system: str) -> dict[str, Any]:
    """Verdict, clearances [m] and made parts of the package."""
    from keelroom.assess.figures.templates import (
        cut_list,
        sheet_list,
    )  # only for the machine form: they slow the start
    from keelroom.assess.work.hardware import hardware_list

    fit, package = assessment.fit, assessment.package
    if fit is None:
        return {}
    trimmed, panned = trim_plan(package, suction(assessment)), pan_plan(package)
    return {
        "verdict": fit.verdict,
        "clearances": [
            {
                "part": gap.part.name,
                "other": gap.other.name,
                "rule": gap.rule,
                "gap_m": gap.gap,
                "wanted_m": gap.wanted,
                "state": gap.state,
                "worst_case_m": gap.worst,
                "root_sum_square_m": gap.likely,
                "dominant": gap.weakest.label if gap.weakest else None,
            }
            for gap in fit.gaps
        ],
        "unmeasured": ["/".join(item.path) for item in fit.unmeasured],
        "measure_next": "/".join(fit.next.path) if fit.next else None,
        "shroud": {
            "seats": trimmed.now.seats,
            "gap_m2": trimmed.now.gap,
            "seal_m": trimmed.now.seal,
            "leak_m3_s": trimmed.leak,
            "faults": _facts(trimmed.faults, system),
            "notes": _facts(trimmed.notes, system),
        }
        if trimmed
        else None,
        "pan": {
            "sheet_m": list(panned.made.sheet),
            "frequency_Hz": panned.frequency,
            "edge_sag_m": panned.sag,
            "faults": _facts(panned.faults, system),
            "pieces": len(panned.made.patterns),
        }
        if panned
        else None,
        "brackets": [
            {
                "id": plan.bracket.id,
                "kind": plan.made.kind if plan.made else None,
                "developed_m": plan.made.developed if plan.made else None,
                "stress_Pa": plan.strap.stress if plan.strap else None,
                "sag_m": plan.strap.sag if plan.strap else None,
                "frequency_Hz": plan.strap.frequency if plan.strap else None,
                "presses_N": plan.presses,
                "bears_kg": plan.load.mass if plan.load else None,
                "transfer": _facts(plan.transfer, system),
                "faults": _facts(plan.faults, system),
                "notes": _facts(plan.notes, system),
            }
            for plan in bracket_plans(build, package)
        ],
        "core_growth_m": core_growth(package),
        "frames": [
            {
                "id": plan.frame.id,
                "pieces_m": [piece[1] for piece in plan.pieces],
                "faults": _facts((one.fact for one in plan.faults), system),
                "notes": _facts(plan.notes, system),
            }
            for plan in frame_plans(package)
        ],
        "ways_round_the_core": [
            {"key": way.key, "found_m2": way.area, "left_m2": way.left, "assumed": way.assumed}
            for way in ways(package, build.survey.air_holes)
        ],
        "panels": [
            {
                "id": plan.panel.id,
                "fitted": plan.panel.fitted,
                "length_m": plan.length,
                "foam_squeezed": plan.share,
                "foam_gap_m": plan.gap,
                "foam_m": plan.foam_length,
                "frequency_Hz": plan.frequency,
                "trim_m": plan.made.trim if plan.made else 0.0,
                "faults": _facts((one.fact for one in plan.faults), system),
                "notes": _facts(plan.notes, system),
            }
            for plan in panel_plans(build, package)
        ],
        "moves": [
            {
                "id": moved.move.id,
                "how": moved.move.how,
                "travel_m": moved.travel,
                "seconds": moved.seconds,
                "faults": _facts((one.fact for one in moved.faults), system),
                "notes": _facts(moved.notes, system),
                "cautions": _facts(moved.cautions, system),
            }
            for moved in moves_of(build, package)
        ],
        "coolers": {
            cooler.id: {"faults": _facts((one.fact for one in faults), system), "notes": _facts(notes, system)}
            for cooler in package.coolers
            if cooler.stands != "ahead"
            for faults, notes in (mount_notes(build, package, cooler),)
        },
        "lines": {cooler.id: _lines(package, cooler) for cooler in package.coolers if cooler.kind in LINED},
        "cut_list": [list(row) for row in cut_list(build, package, "si")[1:]],
        "sheets": [list(row) for row in sheet_list(build, package, "si")[1:]],
        "hardware": [list(row) for row in hardware_list(build, package, "si")[1:]],
    }


def _lines(package: Package, cooler: Cooler) -> dict[str, float | None]:
    """Lines of a cooler with warm oil at 8 L/min: what they lose, how tight they may be bent, what is in hand, what
    they hold; SI."""
    plan = line_plan(package, cooler, *WARM)
    return {
        "lost_Pa": plan.lost.pressure,
        "least_bend_m": plan.bend,
        "bend_in_hand_m": cooler.tightest.si - plan.bend if cooler.tightest else None,
        "fluid_m3": plan.fluid,
    }


def _electrics(build: Build, assessment: Assessment) -> dict[str, Any]:
    """Circuits and harness of the package, SI."""
    from keelroom.assess.electrical.charge import charge_cable
    from keelroom.assess.electrical.harness import harness, loom_list, parts_list, splices  # only for the machine form
    from keelroom.assess.inputs.coolant.sensor import adapter_of

    found, package = assessment.electrics, assessment.package
    if found is None:
        return {}
    adapter = adapter_of(build, package)
    cable = charge_cable(build.supply, found.alternator.rating) if found.alternator else None
    return {
        "circuits": [
            {
                "id": one.circuit.id,
                "feeds": [motored.id for motored in one.motors],
                "fault": one.fault,
                "continuous_A": one.continuous,
                "starting_A": one.starting.current,
                "starting_s": one.starting.seconds,
                "stalled_A": one.stalled,
                "motor_at_idle_V": one.at_idle,
                "motor_at_cruise_V": one.at_cruise,
                "battery_at_idle_V": one.source_idle,
                "battery_at_cruise_V": one.source_cruise,
                "drop_V": one.drop,
                "lost_V": dict(one.lost),
                "fuse_stands_start": one.stands,
                "relay_holds_A": one.relay_holds,
                "connector_holds_A": one.connector_holds,
                "runs": [
                    {
                        "run": run.key,
                        "current_A": run.current,
                        "ampacity_A": run.ampacity,
                        "conductor_degC": run.warm,
                        "limit_degC": run.limit,
                    }
                    for run in one.runs
                ],
                "advice": {
                    "sizes": list(one.advice.sizes),
                    "fuse_A": one.advice.fuse,
                    "fuse_form": one.advice.form,
                    "relay_A": one.advice.relay,
                    "switch": one.advice.switch,
                },
            }
            for one in found.circuits
        ],
        "without_circuit": [motored.id for motored in found.loose],
        "wires": [list(wire) for wire in harness(build, package, found)],
        "parts": [list(row) for row in parts_list(build, package, found)[1:]],
        "splices": [list(splice) for splice in splices(build, package, found)],
        "loom": [list(row) for row in loom_list(build, package, found, "si")[1:]],
        "adapter_cut_m": adapter.cut if adapter else None,
        "charge_cable": {
            "drop_V": cable.drop,
            "ampacity_A": cable.ampacity,
            "conductor_degC": cable.warm,
            "limit_degC": cable.limit,
            "fuse_A": cable.fuse,
        }
        if cable
        else None,
        "adapter": [*adapter[:-1], adapter.fault.code if adapter.fault else ""] if adapter else None,
    }


def _case(case: CaseResult) -> dict[str, Any]:
    common: dict[str, Any] = {"id": case.case_id, "name": case.name, "counted": case.counted}
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
            {
                "id": fan.fan_id,
                "flow_at_fan_m3_s": fan.flow_at_fan,
                "read_by_hand_m3_s": fan.read_by_hand,
                "flow_into_core_m3_s": fan.flow_into_core,
                "share": fan.share,
                "from_core_share": fan.from_core,
                "from_edge_share": fan.from_edge,
                "from_stopped_fan_share": fan.from_hole,
                "pressure_Pa": fan.pressure,
                "voltage_V": fan.voltage,
                "current_A": fan.current,
                "power_W": fan.power,
            }
            for fan in figures.fans
        ],
        "coolers": [
            {
                "id": cover.cooler_id,
                "kind": cover.kind,
                "heat_W": cover.heat,
                "air_kg_s": cover.flow,
                "air_in_degC": cover.air_in,
                "air_out_degC": cover.air_out,
                "fluid_degC": cover.fluid,
                "fluid_within_K": cover.within,
            }
            for cover in figures.coolers
        ],
        "fluids": {
            "gearbox_degC": figures.fluids.gearbox,
            "gearbox_leaving_degC": figures.fluids.gearbox_leaving,
            "oil_degC": figures.fluids.oil,
            "charge_air_degC": figures.fluids.charge,
            "condensing_degC": figures.fluids.condensing,
            "head_pressure_Pa": figures.fluids.head_pressure,
            "vents_degC": figures.fluids.vents,
            "cabin_degC": figures.fluids.cabin,
            "steering_degC": figures.fluids.steering,
            "compressor_share": figures.fluids.runs,
            "given_W": dict(figures.fluids.given),
            "left_W": [[part.fluid, part.where, part.heat] for part in figures.fluids.left],
        },
    }
