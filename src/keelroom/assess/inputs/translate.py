"""From the document to core inputs: one row of `Points` per package and duty case, or what is still needed."""

from __future__ import annotations

from typing import NamedTuple, TypeVar

import numpy as np

from keelroom.assess.electrical.controller import control_law, sensing_of
from keelroom.assess.electrical.loads import PUMP
from keelroom.assess.electrical.system import System, system_at
from keelroom.assess.inputs.airside import AirSide, air_package, air_side
from keelroom.assess.inputs.cases import stands
from keelroom.assess.inputs.gearing import engine_rpm, rpm_of
from keelroom.assess.inputs.needs import Reader, read_core
from keelroom.catalogue.fluids import glycol_table
from keelroom.core.air.face import Lanes, padded
from keelroom.core.arrays import Floats, stack
from keelroom.core.electrical.control import Law, Sensing
from keelroom.core.fluids.coolant import CoolantCurves, curves
from keelroom.core.kept import by_identity, by_value
from keelroom.core.loop.circuit import Circuit
from keelroom.core.plant import Climate, Doubts, Face, Fans, Points
from keelroom.core.thermal.engine_heat import Drive, Engine
from keelroom.core.thermal.engine_laws import LAWS, EngineLaw
from keelroom.core.thermal.geometry import CoreGeometry
from keelroom.document.schema.brief import Brief
from keelroom.document.schema.brief import Engine as EngineSection
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.electrical import Control
from keelroom.document.schema.loop import Coolant as CoolantSection
from keelroom.document.schema.loop import Loop as LoopSection
from keelroom.document.schema.package import Core, Package

T = TypeVar("T")
FIN_CONDUCTIVITY = {"aluminium": 200.0, "copper_brass": 370.0}
BOND_RESISTANCE = {"aluminium": 0.0, "copper_brass": 3e-5}
"""[m2K/W] brazed joint none, solder joint from memory."""
FOULING = {"clean": 0.0, "some_scale": 1.0e-4, "bad": 4.0e-4}
"""[m2K/W] inside the tubes (common practice)."""
LOUVER_SHARE = 0.85
"""Louver length over fin height (common practice)."""
ROW_GAP = 2e-3
OIL_SHARE = 0.03
"""Share of fuel power a separate oil cooler takes (common practice)."""
WORN_IMPELLER = 0.6
"""Share of its head a worn or corroded impeller still makes (common practice)."""
GEARBOX_SHARE, WITH_EXTERNAL = 0.6, 0.3
"""Share of an automatic's loss that an in-tank cooler hands to the coolant, alone and with a cooler ahead (common practice)."""
PUMP_PER_POWER = 1.4e-3 / 60 / 1e3
"""[m3/s per W] coolant flow where none is given: 1.4 L/min per kW, so that the engine warms its coolant by 6-10 K at rated power
(common practice): a coolant share of 0.7 of the power over 3.7 MJ/m3K and 8 K."""
STILL_SPEED = 12.0
"""[m/s] road speed above which hot air off the road no longer reaches the grille."""
CRAWL = 8.0
"""[m/s] below it the converter slips and the engine turns near idle."""


class Row(NamedTuple):
    """One operating point's inputs, with its array layout and the doubt of its fans."""

    points: Points
    layout: tuple[bool, int, int]
    fan_doubt: float
    amps: float = 0.0
    """of everything on, the cooling fans running"""

    @property
    def batch(self) -> tuple[object, ...]:
        """Rows with the same value can be stacked and solved together."""
        points = self.points
        return (*self.layout, len(points.fans.power), len(points.network.leak_area), len(points.covers.heat))


class Parts(NamedTuple):
    """A package in this vehicle in core terms, worked out once for all its duty cases."""

    package: Package
    geometry: CoreGeometry
    air: AirSide
    loop: LoopSection
    coolant: CoolantSection


def parts_of(build: Build, package: Package) -> Parts:
    """The package in core terms; what is missing stands as 1 and is caught by `needs_of`."""
    return _parts(air_package(package), air_side(build, package), package.loop, package.coolant)


@by_identity(64)
def _parts(package: Package, air: AirSide, loop: LoopSection, coolant: CoolantSection) -> Parts:
    return Parts(package, _core_geometry(package.core), air, loop, coolant)


def row_of(build: Build, package: Package, parts: Parts, case: DutyCase) -> Row:
    """One operating point of a package whose parts are given. Call only when `needs_of` is empty."""
    return _row(build.brief, parts, case, system_at(build, package, case), package.control)


@by_identity(64)
def _row(brief: Brief, parts: Parts, case: DutyCase, system: System, control: Control) -> Row:
    reader = Reader()
    air, core = parts.air, parts.package.core
    speed, rpm = case.speed.si, engine_rpm(brief, case)
    ac = case.ac_on and brief.accessories.ac_fitted
    slow = stands(case) or speed < CRAWL
    climate, coolant = brief.climate, parts.coolant
    ambient = case.ambient.si if case.ambient else reader.take(climate, (), "ambient")
    grille_rise = reader.take(climate, (), "asphalt_rise") * max(0.0, 1 - speed / STILL_SPEED)
    shaft = _ac_shaft(brief, slow) if ac else 0.0
    points = Points(
        core=parts.geometry,
        engine=_engine(brief.engine, any(cover.kind == "oil_cooler" for cover in parts.package.covers)),
        drive=_drive(brief, case, (speed, rpm, slow), (shaft, system.watts, any(cover.kind == "gearbox_cooler" for cover in parts.package.covers))),
        climate=_floats(
            Climate,
            ambient=ambient,
            altitude=reader.take(climate, (), "altitude"),
            humidity=reader.take(climate, (), "humidity"),
            grille_rise=grille_rise,
        ),
        network=air.network._replace(speed=np.array(speed)),
        fans=_fans(parts, system, (sensing_of(control, ambient + grille_rise), control_law(control, brief.climate, len(parts.package.fans), ac))),
        covers=air.covers._replace(heat=air.covers.cuts_out / max(air.covers.cuts_out.sum(), 1.0) * shaft * (1 + reader.take(brief.accessories, (), "ac_cop"))),
        face=Face(*air.lanes),
        coolant=_coolant(coolant.glycol, reader.take(coolant, (), "glycol_share")),
        circuit=_circuit(brief.engine, parts.loop),
        pump_voltage=np.array(system.volts.get(PUMP, system.balance.voltage)),
        cap_pressure=np.array(reader.take(parts.loop, (), "cap_pressure")),
        limit=np.array(reader.take(brief.cooling, (), "limit")),
        doubts=_floats(Doubts, heat=1.0, conductance=1.0, fan_pressure=1.0, leaks=1.0),
    )  # fmt: skip
    return Row(
        points,
        (core.flow == "crossflow", int(core.passes.si), int(core.rows.si) if core.rows else 1),
        air.fans.doubt,
        system.balance.wanted,
    )


def _fans(parts: Parts, system: System, control: tuple[Sensing, Law]) -> Fans:
    fans = parts.air.fans
    volts = [system.volts.get(fan.id, 0.0) for fan in parts.package.fans[: len(fans.power)]] or [0.0]
    sensing, law = control
    return Fans(
        curve=fans.curve, power=fans.power, rated_voltage=fans.rated_voltage, brushless=fans.brushless,
        voltage=np.array(volts), runs=fans.runs, sensing=sensing, law=law,
    )  # fmt: skip


@by_identity(16)
def _circuit(engine: EngineSection, loop: LoopSection) -> Circuit:
    reader = Reader()
    return _floats(
        Circuit,
        flow_rated=pump_flow_rated(engine),
        rpm_rated=rpm_of(engine.power_rpm),
        pulley=reader.take(loop, (), "pulley_ratio"),
        impeller=WORN_IMPELLER if loop.impeller == "worn" else 1.0,
        electric=float(loop.pump == "electric"),
        electric_flow=reader.take(loop, (), "electric_flow"),
        electric_head=reader.take(loop, (), "electric_pressure"),
        electric_voltage=reader.take(loop, (), "electric_voltage"),
        thermostat=reader.take(loop, (), "thermostat"),
        at_inlet=float(loop.thermostat_place == "inlet"),
        hose_bore=reader.take(loop, (), "hose_bore"),
        hose_length=reader.take(loop, (), "hose_length"),
        hose_bends=reader.take(loop, (), "hose_bends"),
    )


def stacked(rows: list[Row]) -> tuple[Points, Floats]:
    """Rows of one batch as arrays, with their fan doubts; faces with fewer lanes or classes are padded."""
    lanes = max(len(row.points.face.weight) for row in rows)
    classes = max(len(row.points.network.area) for row in rows)
    return stack([_padded(row.points, lanes, classes) for row in rows]), np.array([row.fan_doubt for row in rows])


def _padded(points: Points, lanes: int, classes: int) -> Points:
    network, present = points.network, len(points.network.area)
    extra = classes - present
    if extra == 0 and len(points.face.weight) == lanes:
        return points
    incidence = np.insert(network.incidence, [3 + 2 * len(network.leak_area) + present] * extra, 0.0, axis=0)
    wider = network._replace(area=np.pad(network.area, (0, extra)), loss=np.pad(network.loss, (0, extra)), incidence=incidence)
    covered = np.pad(points.covers.covered, ((0, extra), (0, 0)))
    face = Face(*padded(Lanes(*points.face), lanes, classes))
    return points._replace(network=wider, covers=points.covers._replace(covered=covered), face=face)


def _floats(kind: type[T], **values: float) -> T:
    return kind(**{name: np.array(value, float) for name, value in values.items()})


def pump_flow_rated(engine: EngineSection) -> float:
    """Coolant flow [m3/s] at the speed of greatest power: as typed, or by power."""
    if engine.pump_flow is not None:
        return engine.pump_flow.si
    return PUMP_PER_POWER * (engine.power.si if engine.power else 1.0)


def _ac_shaft(brief: Brief, slow: bool) -> float:
    power = brief.accessories.ac_idle_power if slow else brief.accessories.ac_road_power
    return power.si if power else 0.0


@by_identity(16)
def _engine(engine: EngineSection, oil_cooler: bool) -> Engine:
    reader = Reader()
    numbers = _floats(
        Engine,
        displacement=reader.take(engine, (), "displacement"),
        power=reader.take(engine, (), "power"),
        power_rpm=rpm_of(engine.power_rpm),
        law=0.0,
        boost=reader.take(engine, (), "boost"),
        heat_multiplier=reader.take(engine, (), "heat_multiplier"),
        oil_share=OIL_SHARE if oil_cooler else 0.0,
        bay_share=reader.take(engine, (), "bay_heat"),
    )
    return numbers._replace(law=EngineLaw(*(np.array(value) for value in LAWS[engine.kind])))


def _drive(brief: Brief, case: DutyCase, motion: tuple[float, float, bool], fitted: tuple[float, float, bool]) -> Drive:
    (speed, rpm, slow), (ac_shaft, watts, external) = motion, fitted
    accessories, vehicle, reader = brief.accessories, brief.vehicle, Reader()
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
        electrical=watts,
        alternator_efficiency=reader.take(accessories, (), "alternator_efficiency"),
        gearbox_to_coolant=(WITH_EXTERNAL if external else GEARBOX_SHARE) if automatic and vehicle.in_tank_cooler else 0.0,
        converter_heat=reader.take(accessories, (), "converter_power") if slipping else 0.0,
    )


@by_value(64)
def _coolant(glycol: str, share: float) -> CoolantCurves:
    return curves(glycol_table(glycol), share)


def _core_geometry(core: Core) -> CoreGeometry:
    v = read_core(core, (), Reader())
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
