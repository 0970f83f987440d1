"""The circuit in one plain record, for the machine form; and its plan of filling, for the window and the sheet."""

from __future__ import annotations

import math
from typing import Any

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.figures.read_off import air_in
from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.volumes import purchase_of, share_of, volumes_of
from keelroom.assess.loop.air import bleed_list
from keelroom.assess.loop.figures import LoopCase
from keelroom.assess.loop.fill_plan import FillStep, fill_plan
from keelroom.assess.loop.hose_plans import HosePlan, hose_plans
from keelroom.assess.loop.order import circuit_order
from keelroom.assess.loop.strength import Stands, proof_pressure, strengths, weakest
from keelroom.assess.words import clause, clauses
from keelroom.catalogue.fluids import glycol_table
from keelroom.core.fluids.coolant import freezing_point
from keelroom.core.loop.hoses import LIFE
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package


def settled_cases(assessment: Assessment) -> tuple[LoopCase, ...]:
    """The circuit in every case that settles: only there its pressures mean something."""
    return tuple(
        case.figures.loop for case in assessment.cases if case.figures and case.figures.verdict != "does_not_settle"
    )


def stands_of(build: Build, package: Package, assessment: Assessment) -> tuple[Stands, ...]:
    """What each part stands against what it meets."""
    return strengths(package, graph_of(build, package), settled_cases(assessment))


def fill_steps(build: Build, assessment: Assessment) -> tuple[FillStep, ...]:
    """The fill plan of the assessed package."""
    package = assessment.package
    return fill_plan(
        build,
        package,
        air_in(build, package, assessment),
        proof_pressure(package, stands_of(build, package, assessment)),
    )


def loop_told(build: Build, assessment: Assessment, system: str) -> dict[str, Any]:
    """Everything the Loop station shows, SI."""
    package = assessment.package
    graph, found = graph_of(build, package), stands_of(build, package, assessment)
    air, volumes = air_in(build, package, assessment) if graph.whole else None, volumes_of(build, package)
    bought = purchase_of(package, volumes.total) if volumes else None
    return {
        "whole": graph.whole,
        "faults": [{"code": fault.code, "says": clause(fault.fact, system)} for fault in graph.faults],
        "order": list(circuit_order(graph)) if graph.whole else [],
        "cases": {case.case_id: _case(case.figures.loop) for case in assessment.cases if case.figures},
        "high_points": [
            {
                "name": high.name,
                "height_m": high.at,
                "air": high.outcome,
                "coolant_m_s": high.speed,
                "bubble_m_s": high.drift,
                "clears_m_s": high.clears,
            }
            for high in air.highs
        ]
        if air
        else [],
        "does_not_drain": [low.name for low in air.lows] if air else [],
        "bleed": [f"{step.name}: {clause(step.how, system)}" for step in bleed_list(air)] if air else [],
        "volume_m3": volumes.total if volumes else None,
        "growth_m3": volumes.room.growth if volumes else None,
        "tank_wanted_m3": volumes.room.wanted if volumes else None,
        "to_buy_m3": {"glycol": bought.glycol, "water": bought.water, "share": bought.share} if bought else None,
        "weakest": {"name": weakest(found).name, "stands_Pa": weakest(found).stands},
        "test_Pa": proof_pressure(package, found),
        "hoses": [_hose(plan, system) for plan in hose_plans(build, package)],
        "electric_pump_starts_degC": package.loop.pump_on.si
        if package.loop.pump_on and package.loop.pump != "mechanical"
        else None,
        "frost_margin_K": package.coolant.coldest.si
        - freezing_point(glycol_table(package.coolant.glycol), share_of(package)),
        "fill": [f"{step.stage}: {clause(step.fact, system)}" for step in fill_steps(build, assessment)],
    }


def _case(case: LoopCase) -> dict[str, Any]:
    return {
        "ways": [
            {"key": one.key, "flow_m3_s": one.flow, "speed_m_s": one.speed, "enters_degC": one.temperature}
            for one in case.through
        ],
        "places": [
            {"key": spot.node, "degC": spot.temperature, "gauge_Pa": spot.pressure, "under_boiling_K": spot.margin}
            for spot in case.spots
        ],
        "rise_over_engine_K": case.rise,
        "made_Pa": case.made,
        "suction_under_boiling_K": case.suction.margin,
    }


def _hose(plan: HosePlan, system: str) -> dict[str, Any]:
    run = plan.run
    return {
        "id": run.hose.id,
        "name": run.name,
        "bore_m": run.bore,
        "narrowest_m": run.narrow,
        "length_m": run.length,
        "right_angles": run.right_angles,
        "radius_m": None if run.radius is None or math.isinf(run.radius) else run.radius,
        "least_radius_m": run.wanted,
        "cut_m": plan.cut,
        "cut_off_m": plan.off,
        "clamps": [clamp.name for clamp in plan.clamps],
        "clips": plan.clips,
        "years_left": LIFE[run.hose.kind] - run.hose.years.si if run.hose.years else None,
        "notes": clauses(plan.notes, system),
    }
