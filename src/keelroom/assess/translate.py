"""From the document to core inputs: one row of `Points` per package and duty case, or what is still needed."""

from __future__ import annotations

from functools import lru_cache
from typing import NamedTuple, TypeVar

import numpy as np
from pydantic import BaseModel

from keelroom.assess.caching import by_identity
from keelroom.build.fields import Path, spec_of
from keelroom.build.quantity import Quantity
from keelroom.build.schema.brief import Brief
from keelroom.build.schema.brief import Engine as EngineSection
from keelroom.build.schema.build import Build, DutyCase
from keelroom.build.schema.package import Core, Fan, Package
from keelroom.catalogue.fluids import glycol_table
from keelroom.core.air.coverage import GRID, Lanes, as_lanes, covered_share, padded
from keelroom.core.air.coverage import SPILL_PER_GAP as SPILL
from keelroom.core.air.fan import SHUTOFF_DOUBT, TYPED_DOUBT, FanCurve, generic_curve, no_fan, typed_curve
from keelroom.core.air.network import AirPath
from keelroom.core.arrays import Floats, stack
from keelroom.core.fluids.coolant import CoolantCurves, curves
from keelroom.core.loop.circuit import Circuit
from keelroom.core.operating_point import Ahead, Climate, Doubts, Fans, Points
from keelroom.core.thermal.engine_heat import Drive, Engine
from keelroom.core.thermal.geometry import CoreGeometry
from keelroom.errors import InputError

T = TypeVar("T")

MOST_FANS = 4
FIN_CONDUCTIVITY = {"aluminium": 200.0, "copper_brass": 370.0}
BOND_RESISTANCE = {"aluminium": 0.0, "copper_brass": 3e-5}
"""[m2K/W] brazed joint none, solder joint from memory."""
FOULING = {"clean": 0.0, "some_scale": 1.0e-4, "bad": 4.0e-4}
"""[m2K/W] inside the tubes (common practice)."""
LOUVER_SHARE = 0.85
"""Louver length over fin height (common practice)."""
ROW_GAP = 2e-3
CONDENSER_LOSS = 7.0
"""Dynamic heads of the face speed lost in a condenser ahead of the core (common practice)."""
GEARBOX_SHARE = 0.6
"""Share of an automatic's loss that an in-tank cooler hands to the coolant (common practice)."""
PUMP_PER_POWER = 0.8e-3 / 60 / 1e3
"""[m3/s per W] coolant flow where none is given: 0.8 L/min per kW (common practice)."""
STILL_SPEED = 12.0
"""[m/s] road speed above which hot air off the road no longer reaches the grille."""
CRAWL = 8.0
"""[m/s] below it the converter slips and the engine turns near idle."""


class Need(NamedTuple):
    """A value the assessment cannot do without."""

    path: Path
    label: str


class Row(NamedTuple):
    """One operating point's inputs, with its array layout and the doubt of its fans."""

    points: Points
    layout: tuple[bool, int, int]
    fan_doubt: float

    @property
    def batch(self) -> tuple[object, ...]:
        """Rows with the same value can be stacked and solved together."""
        return (*self.layout, self.points.fans.power.shape)


class _Reader:
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
    return tuple(dict.fromkeys((*_needs_of_brief(build.brief), *_needs_of_case(build.brief, case), *_needs_of_package(package))))


@by_identity(16)
def _needs_of_brief(brief: Brief) -> tuple[Need, ...]:
    reader = _Reader()
    for section, fields in (
        (brief.engine, ("displacement", "power", "power_rpm", "cylinders", "boost", "idle_rpm", "heat_multiplier")),
        (brief.accessories, ("ac_idle_power", "ac_road_power", "ac_cop", "steering_power", "converter_power", "electrical_load",
                             "alternator_efficiency", "alternator_rating", "alternator_idle_share", "idle_voltage", "road_voltage")),
        (brief.vehicle, ("drag_area", "rolling", "driveline_efficiency", "grille_area", "exit_area")),
        (brief.climate, ("altitude", "humidity", "asphalt_rise")),
        (brief.cooling, ("limit", "thermostat", "fan_on", "fan_off", "cap_pressure", "glycol_share")),
    ):  # fmt: skip
        name = type(section).__name__.lower()
        for field in fields:
            reader.take(section, ("brief", name), field)
    return tuple(reader.needs)


@by_identity(64)
def _needs_of_case(brief: Brief, case: DutyCase) -> tuple[Need, ...]:
    reader = _Reader()
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
    reader = _Reader()
    _read_core(package.core, ("packages", package.id, "core"), reader)
    for fan in package.fans:
        for field in ("diameter", "hub_diameter", "rated_voltage", "power", *(() if fan.curve else ("free_air_flow", "derate"))):
            reader.take(fan, ("packages", package.id, "fans", fan.id), field)
    return tuple(reader.needs)


class Parts(NamedTuple):
    """A package in core terms, worked out once for all its duty cases."""

    package: Package
    geometry: CoreGeometry
    lanes: Lanes
    fans: tuple[FanCurve, Floats, Floats, Floats]
    fan_doubt: float


@by_identity(64)
def parts_of(package: Package) -> Parts:
    """The package in core terms; what is missing stands as 1 and is caught by `needs_of`."""
    coverage, fans, doubt = _air_side(package)
    lanes = as_lanes(coverage, package.core.flow == "crossflow", int(package.core.passes.si))
    return Parts(package, _core_geometry(package.core), lanes, fans, doubt)


def row_of(build: Build, parts: Parts, case: DutyCase) -> Row:
    """One operating point. Call only when `needs_of` is empty."""
    return _row(build.brief, parts, case)


@by_identity(64)
def _row(brief: Brief, parts: Parts, case: DutyCase) -> Row:
    reader = _Reader()
    package, geometry, (coverage, weight), fans = parts.package, parts.geometry, parts.lanes, parts.fans
    area = float(geometry.face_width * geometry.face_height)
    share = float(weight @ coverage.mean(axis=1))
    speed, rpm = case.speed.si, engine_rpm(brief, case)
    ac = case.ac_on and brief.accessories.ac_fitted
    slow = case.demand == "idle" or speed < CRAWL
    voltage = reader.take(brief.accessories, (), "idle_voltage" if rpm < 1500 else "road_voltage")
    cooling, climate = brief.cooling, brief.climate
    on, off = reader.take(cooling, (), "fan_on"), reader.take(cooling, (), "fan_off")
    shaft = _ac_shaft(brief, slow) if ac else 0.0
    points = Points(
        core=geometry,
        engine=_engine(brief.engine),
        drive=_drive(brief, case, (speed, rpm, slow), shaft),
        climate=_floats(
            Climate,
            ambient=case.ambient.si if case.ambient else reader.take(climate, (), "ambient"),
            altitude=reader.take(climate, (), "altitude"),
            humidity=reader.take(climate, (), "humidity"),
            grille_rise=reader.take(climate, (), "asphalt_rise") * max(0.0, 1 - speed / STILL_SPEED),
        ),
        path=_floats(
            AirPath, speed=speed, grille_area=reader.take(brief.vehicle, (), "grille_area"),
            exit_area=reader.take(brief.vehicle, (), "exit_area"), drawn_area=share * area, open_area=(1 - share) * area,
        ),
        fans=Fans(*fans, voltage=np.array(voltage), on=np.array(max(on, off + 0.5)), off=np.array(off)),
        ahead=_floats(
            Ahead,
            heat=shaft * (1 + reader.take(brief.accessories, (), "ac_cop")) if package.condenser else 0.0,
            loss=CONDENSER_LOSS if package.condenser and brief.accessories.ac_fitted else 0.0,
        ),
        coolant=_coolant(cooling.glycol, reader.take(cooling, (), "glycol_share")),
        circuit=_floats(
            Circuit, flow_rated=pump_flow_rated(brief), rpm_rated=_rpm(brief.engine.power_rpm),
            thermostat=reader.take(cooling, (), "thermostat"), at_inlet=float(cooling.thermostat_place == "inlet"),
        ),
        cap_pressure=np.array(reader.take(cooling, (), "cap_pressure")),
        limit=np.array(reader.take(cooling, (), "limit")),
        coverage=coverage,
        weight=weight,
        doubts=_floats(Doubts, heat=1.0, conductance=1.0, fan_pressure=1.0),
    )  # fmt: skip
    core = package.core
    return Row(points, (core.flow == "crossflow", int(core.passes.si), int(core.rows.si) if core.rows else 1), parts.fan_doubt)


def stacked(rows: list[Row]) -> tuple[Points, Floats]:
    """Rows of one layout as arrays, with their fan doubts."""
    most = max(len(row.points.weight) for row in rows)
    return stack([_with_lanes(row.points, most) for row in rows]), np.array([row.fan_doubt for row in rows])


def _with_lanes(points: Points, count: int) -> Points:
    if len(points.weight) == count:
        return points
    coverage, weight = padded((points.coverage, points.weight), count)
    return points._replace(coverage=coverage, weight=weight)


def _floats(kind: type[T], **values: float) -> T:
    return kind(**{name: np.array(value, float) for name, value in values.items()})


def _rpm(value: Quantity | None) -> float:
    return 60.0 * value.si if value else 1.0


def engine_rpm(brief: Brief, case: DutyCase) -> float:
    """Engine speed [rpm] of a duty case: as typed, or from demand and gearing, never under idle."""
    idle = _rpm(brief.engine.idle_rpm)
    if case.rpm is not None:
        return 60.0 * case.rpm.si
    if case.demand == "idle":
        return idle
    if case.demand == "full_power":
        return _rpm(brief.engine.power_rpm)
    vehicle = brief.vehicle
    if not (vehicle.tyre_diameter and vehicle.top_ratio and vehicle.final_drive):
        return idle
    geared = case.speed.si / (np.pi * vehicle.tyre_diameter.si) * vehicle.top_ratio.si * vehicle.final_drive.si * 60
    return float(max(geared * case.gear_step.si, 1.15 * idle))


def pump_flow_rated(brief: Brief) -> float:
    """Coolant flow [m3/s] at the speed of greatest power: as typed, or by power."""
    if brief.engine.pump_flow is not None:
        return brief.engine.pump_flow.si
    return PUMP_PER_POWER * (brief.engine.power.si if brief.engine.power else 1.0)


def _ac_shaft(brief: Brief, slow: bool) -> float:
    power = brief.accessories.ac_idle_power if slow else brief.accessories.ac_road_power
    return power.si if power else 0.0


@by_identity(16)
def _engine(engine: EngineSection) -> Engine:
    reader = _Reader()
    return _floats(
        Engine,
        displacement=reader.take(engine, (), "displacement"),
        power=reader.take(engine, (), "power"),
        power_rpm=_rpm(engine.power_rpm),
        diesel=float(engine.fuel == "diesel"),
        boosted=float(engine.boost is not None and engine.boost.si > 0),
        heat_multiplier=reader.take(engine, (), "heat_multiplier"),
    )


def _drive(brief: Brief, case: DutyCase, motion: tuple[float, float, bool], ac_shaft: float) -> Drive:
    speed, rpm, slow = motion
    accessories, vehicle, reader = brief.accessories, brief.vehicle, _Reader()
    automatic = vehicle.gearbox == "automatic"
    slipping = automatic and case.in_gear and slow
    mass = vehicle.mass.si if vehicle.mass else 1.0
    return _floats(
        Drive,
        speed=0.0 if case.demand == "idle" else speed,
        grade=case.grade.si,
        mass=mass + case.towed_mass.si,
        drag_area=reader.take(vehicle, (), "drag_area"),
        rolling=reader.take(vehicle, (), "rolling"),
        driveline_efficiency=reader.take(vehicle, (), "driveline_efficiency"),
        full_power=float(case.demand == "full_power"),
        rpm=rpm,
        stops_per_metre=case.stops_per_km.si / 1000.0,
        accessories=ac_shaft + reader.take(accessories, (), "steering_power"),
        electrical=reader.take(accessories, (), "electrical_load"),
        alternator_efficiency=reader.take(accessories, (), "alternator_efficiency"),
        gearbox_to_coolant=GEARBOX_SHARE if automatic and vehicle.in_tank_cooler else 0.0,
        converter_heat=reader.take(accessories, (), "converter_power") if slipping else 0.0,
    )


@lru_cache(maxsize=64)
def _coolant(glycol: str, share: float) -> CoolantCurves:
    return curves(glycol_table(glycol), share)


CORE_FIELDS = ("face_width", "face_height", "depth", "rows", "fin_density", "fin_height", "fin_thickness",
               "tube_height", "tube_wall", "louver_pitch", "louver_angle", "turbulator")  # fmt: skip


def _read_core(core: Core, path: Path, reader: _Reader) -> dict[str, float]:
    return {field: reader.take(core, path, field) for field in CORE_FIELDS}


def _core_geometry(core: Core) -> CoreGeometry:
    v = _read_core(core, (), _Reader())
    per_row = v["depth"] / v["rows"]
    tube_width = max(per_row - (ROW_GAP if v["rows"] > 1 else 0.5 * ROW_GAP), 0.6 * per_row, 1.2 * v["tube_height"])
    pitch = 1.0 / v["fin_density"]
    return _floats(
        CoreGeometry,
        face_width=v["face_width"], face_height=v["face_height"], depth=v["depth"], rows=v["rows"],
        tube_width=tube_width, tube_height=v["tube_height"],
        tube_wall=min(v["tube_wall"], 0.4 * v["tube_height"]),
        fin_height=v["fin_height"], fin_pitch=pitch, fin_thickness=min(v["fin_thickness"], 0.5 * pitch),
        louver_pitch=v["louver_pitch"], louver_length=LOUVER_SHARE * v["fin_height"],
        louver_angle=float(np.degrees(v["louver_angle"])),
        fin_conductivity=FIN_CONDUCTIVITY[core.material], bond_resistance=BOND_RESISTANCE[core.material],
        fouling=FOULING[core.condition], turbulator=v["turbulator"],
    )  # fmt: skip


def fan_curve(fan: Fan) -> FanCurve:
    """The fan's pressure-flow curve at its rated voltage: typed points, or generic from its rating.

    Raises InputError where typed points do not fall.
    """
    diameter, hub = (v.si if v else 0.3 for v in (fan.diameter, fan.hub_diameter))
    annulus = max(np.pi / 4 * (diameter**2 - min(hub, 0.8 * diameter) ** 2), 1e-4)
    if fan.curve:
        return typed_curve(tuple((point.flow.si, point.pressure.si) for point in fan.curve), annulus)
    flow, power, derate = (v.si if v else 1.0 for v in (fan.free_air_flow, fan.power, fan.derate))
    return generic_curve(flow, power, fan.blade, derate, annulus)


def credible_curve(fan: Fan) -> tuple[FanCurve, float]:
    """The fan's curve and the doubt of its shut-off pressure; points that make no curve fall back on the rating."""
    try:
        return fan_curve(fan), TYPED_DOUBT if fan.curve else SHUTOFF_DOUBT
    except InputError:
        return fan_curve(fan.model_copy(update={"curve": ()})), SHUTOFF_DOUBT


def face_coverage(package: Package) -> Floats:
    """Share of each face cell that the fans draw from, (16, 24): the shroud's, or the bare fans' discs."""
    core, shroud = package.core, package.shroud
    width, height = (v.si if v else 0.5 for v in (core.face_width, core.face_height))
    if not package.fans:
        return np.zeros(GRID)
    if shroud.kind == "full":
        return np.ones(GRID)
    if shroud.kind == "partial":
        left, bottom = shroud.left.si, shroud.bottom.si
        wide = shroud.width.si if shroud.width else width - left
        high = shroud.height.si if shroud.height else height - bottom
        return _covered(width, height, ((left, bottom, wide, high),), ())
    discs = tuple((fan.x.si, fan.y.si, (fan.diameter.si if fan.diameter else 0.3) / 2 + SPILL * shroud.fan_gap.si) for fan in package.fans)
    return _covered(width, height, (), discs)


_covered = lru_cache(maxsize=256)(covered_share)


def _air_side(package: Package) -> tuple[Floats, tuple[FanCurve, Floats, Floats, Floats], float]:
    """Coverage of the face, the fans as arrays (a stand-in where there is none), and their common doubt."""
    coverage = face_coverage(package)
    fans = package.fans[:MOST_FANS] if coverage.any() else ()
    found = [credible_curve(fan) for fan in fans]
    empty = 0 if fans else 1
    curve = stack([curve for curve, _ in found] + [no_fan()] * empty)
    power, volts = (
        [v.si if v else 1.0 for v in (getattr(fan, name) for fan in fans)] + [1.0] * empty for name in ("power", "rated_voltage")
    )
    brushless = [float(fan.motor == "brushless") for fan in fans] + [0.0] * empty
    doubt = float(np.mean([doubt for _, doubt in found])) if found else 0.0
    return coverage, (curve, np.array(power), np.array(volts), np.array(brushless)), doubt
