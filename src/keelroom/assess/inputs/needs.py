"""What must be known before a duty case of a package can be worked out."""

from __future__ import annotations

from typing import NamedTuple

from pydantic import BaseModel

from keelroom.assess.inputs.coolant.graph import Graph, graph_of
from keelroom.assess.inputs.electrical.loads import fan_rating
from keelroom.assess.words import clause
from keelroom.core.kept import by_identity
from keelroom.document.fields import Path, spec_of
from keelroom.document.quantity import Quantity
from keelroom.document.schema.brief import Brief
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.package import FINS, Core, Package
from keelroom.facts import lowered


class Need(NamedTuple):
    """A value the assessment cannot do without."""

    path: Path
    label: str


class Reader:
    """Takes SI values out of sections and notes what is missing."""

    def __init__(self) -> None:
        self.needs: list[Need] = []

    def take(self, section: BaseModel, path: Path, field: str) -> float:
        value: Quantity | None = getattr(section, field)
        if value is None:
            spec = spec_of(type(section), field)
            self.needs.append(Need((*path, field), spec.label if spec else field))
            return 1.0
        return value.si


def needs_of(build: Build, package: Package, case: DutyCase) -> tuple[Need, ...]:
    """What must be known before this package and duty case can be assessed; empty when all is there."""
    brief, *car = needs_of_car(build, package)
    parts = (brief, _needs_of_case(build.brief, case), *car)
    return tuple(dict.fromkeys(need for part in parts for need in part))


def needs_of_car(build: Build, package: Package) -> tuple[tuple[Need, ...], ...]:
    """What must be known of the brief, of the package and of its circuit, whatever the duty case."""
    return _needs_of_brief(build.brief), _needs_of_package(package), _needs_of_circuit(graph_of(build, package))


def case_lacks(build: Build, case: DutyCase) -> bool:
    """Whether a duty case lacks something of its own."""
    return bool(_needs_of_case(build.brief, case))


@by_identity(64)
def _needs_of_circuit(graph: Graph) -> tuple[Need, ...]:
    """Coolant has to get round, through hoses whose lengths are known."""
    if not graph.whole:
        return tuple(Need(fault.path, clause(fault.fact, "us")) for fault in graph.faults[-1:])  # a name, no measure
    short = [branch.run for branch in graph.branches if branch.run and branch.run.length is None]
    return tuple(
        Need(
            ("packages", graph.ident, "loop", "hoses", run.hose.id, "length"), f"The length of the {lowered(run.name)}"
        )
        for run in short
    )


@by_identity(16)
def _needs_of_brief(brief: Brief) -> tuple[Need, ...]:
    reader = Reader()
    for section, fields in (
        (
            brief.engine,
            ("displacement", "power", "power_rpm", "cylinders", "boost", "idle_rpm", "heat_multiplier", "bay_heat"),
        ),
        (
            brief.accessories,
            (
                "ac_idle_power",
                "ac_road_power",
                "ac_cop",
                "steering_power",
                "alternator_efficiency",
                "alternator_rating",
            ),
        ),
        (
            brief.vehicle,
            ("drag_area", "rolling", "driveline_efficiency", "converter_factor", "grille_area", "exit_area"),
        ),
        (brief.climate, ("altitude", "humidity", "asphalt_rise")),
        (brief.cooling, ("limit",)),
    ):
        name = type(section).__name__.lower()
        for field in fields:
            reader.take(section, ("brief", name), field)
    return tuple(reader.needs)


@by_identity(64)
def _needs_of_case(brief: Brief, case: DutyCase) -> tuple[Need, ...]:
    reader = Reader()
    if case.ambient is None:
        reader.take(brief.climate, ("brief", "climate"), "ambient")
    if case.demand == "road_load":
        reader.take(brief.vehicle, ("brief", "vehicle"), "mass")
        if case.rpm is None:
            for field in ("tyre_diameter", "top_ratio", "final_drive"):
                reader.take(brief.vehicle, ("brief", "vehicle"), field)
    return tuple(reader.needs)


@by_identity(64)
def _needs_of_package(package: Package) -> tuple[Need, ...]:
    reader = Reader()
    where = ("packages", package.id)
    for section, name, fields in (
        (
            package.loop,
            "loop",
            ("pulley_ratio", "electric_flow", "electric_pressure", "electric_voltage", "thermostat", "cap_pressure"),
        ),
        (package.control, "control", ("fan_on", "fan_off")),
        (package.coolant, "coolant", ("glycol_share",)),
    ):
        for field in fields:
            reader.take(section, (*where, name), field)
    read_core(package.core, (*where, "core"), reader)
    for fan in package.fans:
        if fan.motor == "engine":
            for field in ("drag", "ratio", "rated_rpm"):
                reader.take(fan, ("packages", package.id, "fans", fan.id), field)
        label = (
            ()
            if fan_rating(fan) or fan.motor == "engine"
            else tuple(name for name in ("rated_voltage", "power") if getattr(fan, name) is None)
        )
        for field in ("diameter", "hub_diameter", *label, *(() if fan.curve else ("free_air_flow", "derate"))):
            reader.take(fan, ("packages", package.id, "fans", fan.id), field)
    return tuple(reader.needs)


CORE_FIELDS = (
    "face_width",
    "face_height",
    "depth",
    "rows",
    *FINS,
)


def read_core(core: Core, path: Path, reader: Reader) -> dict[str, float]:
    return {field: reader.take(core, path, field) for field in CORE_FIELDS}
