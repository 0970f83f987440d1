"""Ways to cool the gearbox side by side: by the core's tank, by a cooler before or after it, by a cooler alone, with
or without a bypass."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.acts.coolers import GEARBOX_WAYS, GearboxWay
from keelroom.assess.acts.registry import edit_for, offer
from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import Assessment, CaseFigures
from keelroom.assess.inputs.cases import grade_case, idle_case, road_case
from keelroom.core.kept import in_one_go
from keelroom.document.act import Act
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import quantity
from keelroom.document.schema.build import Build, DutyCase

COLD = "14 °F"
"""the morning the ways are tried on"""


class Tried(NamedTuple):
    """One way tried, temperatures [degC]: the gearbox on the grade, at idle, on a cold morning's road; the engine on
    the grade; the coolant's heat from the gearbox there [W]. None where a case is missing."""

    way: GearboxWay
    act: Act
    grade: float | None
    idle: float | None
    cold: float | None
    engine: float | None
    tank: float | None
    current: bool


def current_way(build: Build) -> str:
    """The key of the way the build has; '' where it has none of them."""
    own = [cooler for cooler in build.package.coolers if cooler.kind == "gearbox_cooler"]
    tank = build.brief.vehicle.in_tank_cooler and build.brief.vehicle.gearbox == "automatic"
    if not own:
        return "tank" if tank else ""
    if tank:
        return "after" if own[0].after_tank else "before"
    return "bypass" if own[0].opens else "alone"


@in_one_go
def gearbox_ways(build: Build) -> tuple[Tried, ...]:
    """Every way solved in the cases that tell: the steepest, the idle, and the road on a cold morning."""
    grade, idle, road = grade_case(build.duty_cases), idle_case(build.duty_cases), road_case(build.duty_cases)
    morning = (
        road.model_copy(update={"id": "cold morning", "ambient": quantity(COLD, "temperature"), "ac_on": False})
        if road
        else None
    )
    cases = tuple(case for case in (grade, idle, morning) if case is not None)
    now, found = current_way(build), []
    last: Assessment | None = None
    for way in GEARBOX_WAYS:
        act = offer("gearbox_way", build.active, f"Gearbox cooling: {way.name.lower()}", way=way.key)
        tried = apply(apply(build, edit_for(build, act)), Edit("", (Change(("duty_cases",), cases),)))
        last = first_wave(tried, previous=last)
        told = {case.case_id: case.figures for case in last.cases}
        steep, still, frosty = (_figures(told, case) for case in (grade, idle, morning))
        found.append(
            Tried(
                way,
                act,
                _gearbox(steep),
                _gearbox(still),
                _gearbox(frosty),
                steep.temperature if steep else None,
                _tank(steep) if steep else None,
                way.key == now,
            )
        )
    return tuple(found)


def _figures(told: dict[str, CaseFigures | None], case: DutyCase | None) -> CaseFigures | None:
    return told.get(case.id) if case is not None else None


def _gearbox(figures: CaseFigures | None) -> float | None:
    return figures.fluids.gearbox if figures else None


def _tank(figures: CaseFigures) -> float:
    return sum(part.heat for part in figures.fluids.left if part.fluid == "gearbox" and part.to == "coolant")
