"""Ways to cool the gearbox side by side: by the core's tank, by a cooler before or after it, by a cooler alone, with or without a bypass."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.assess import first_wave
from keelroom.assess.assessment import Assessment, CaseFigures
from keelroom.assess.inputs.cases import grade_case, idle_case, road_case
from keelroom.core.kept import in_one_go
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import quantity
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.coolers import Cooler

COLD = "14 °F"
"""the morning the ways are tried on"""
BYPASS = "160 °F"
STAND_IN = Cooler(
    id="gearbox", name="Gearbox cooler", kind="gearbox_cooler", make="stacked_plate", width=quantity("11 in", "length"),
    height=quantity("6 in", "length"), loss=quantity("12", "number"), conductance=quantity("1500 W/m²K", "face conductance"),
    stand_off=quantity("1 1/2 in", "length"),
)  # fmt: skip
"""the cooler that is tried where the build has none"""


class Way(NamedTuple):
    """One way. tank: the core's tank takes part;  cooler: a cooler does;  after: it comes after the tank;  bypass: it has a thermostat"""

    key: str
    name: str
    tank: bool
    cooler: bool
    after: bool = False
    bypass: bool = False
    why: str = ""


WAYS = (
    Way("tank", "In the tank alone", True, False, why="Nothing to hang; it warms the gearbox in winter, and the gearbox can be no cooler than the coolant."),
    Way("before", "A cooler before the tank", True, True, why="The tank has the last word: it warms what the cooler made too cold, and the coolant is given less."),
    Way("after", "A cooler after the tank", True, True, after=True, why="The coolest fluid goes back to the gearbox; in winter it stays cold."),
    Way("alone", "A cooler alone", False, True, why="The coolant is given nothing; all hangs on the cooler and its air, and nothing warms the fluid."),
    Way("bypass", "A cooler alone, with a bypass thermostat", False, True, bypass=True, why="As alone, but the fluid stays out of the cooler until it is warm."),
)  # fmt: skip


class Tried(NamedTuple):
    """One way tried, temperatures [degC]: the gearbox on the grade, at idle, on a cold morning's road; the engine on the grade; the coolant's
    heat from the gearbox there [W]. None where a case is missing."""

    way: Way
    edit: Edit
    grade: float | None
    idle: float | None
    cold: float | None
    engine: float | None
    tank: float | None
    current: bool


def edit_of(build: Build, way: Way) -> Edit:
    """What goes over to a way: the tank's part, and the coolers of the gearbox as the way has them."""
    package = build.package
    where = ("packages", package.id, "coolers")
    own = [cooler for cooler in package.coolers if cooler.kind == "gearbox_cooler"]
    others = tuple(cooler for cooler in package.coolers if cooler.kind != "gearbox_cooler")
    bypass = quantity(BYPASS, "temperature", "derived") if way.bypass else None
    kept = tuple(
        cooler.model_copy(update={"after_tank": way.after, "opens": bypass}) for cooler in (own or [STAND_IN])
    ) if way.cooler else ()  # fmt: skip
    return Edit(f"Gearbox cooling: {way.name.lower()}", (
        Change(("brief", "vehicle", "in_tank_cooler"), way.tank), Change(where, (*others, *kept)),
    ))  # fmt: skip


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
    morning = road.model_copy(update={"id": "cold morning", "ambient": quantity(COLD, "temperature"), "ac_on": False}) if road else None
    cases = tuple(case for case in (grade, idle, morning) if case is not None)
    now, found = current_way(build), []
    last: Assessment | None = None
    for way in WAYS:
        edit = edit_of(build, way)
        tried = apply(apply(build, edit), Edit("", (Change(("duty_cases",), cases),)))
        last = first_wave(tried, previous=last)
        told = {case.case_id: case.figures for case in last.cases}
        steep, still, frosty = (_figures(told, case) for case in (grade, idle, morning))
        found.append(Tried(
            way, edit, _gearbox(steep), _gearbox(still), _gearbox(frosty), steep.temperature if steep else None,
            _tank(steep) if steep else None, way.key == now,
        ))  # fmt: skip
    return tuple(found)


def _figures(told: dict[str, CaseFigures | None], case: DutyCase | None) -> CaseFigures | None:
    return told.get(case.id) if case is not None else None


def _gearbox(figures: CaseFigures | None) -> float | None:
    return figures.fluids.gearbox if figures else None


def _tank(figures: CaseFigures) -> float:
    return sum(part.heat for part in figures.fluids.left if part.fluid == "gearbox" and part.to == "coolant")
