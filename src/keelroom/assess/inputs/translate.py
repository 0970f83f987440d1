"""From the document to core inputs: one row of `Points` per package and duty case, or what is still needed."""

from __future__ import annotations

from typing import Any, NamedTuple, TypeVar

import numpy as np

from keelroom.assess.inputs.air_parts import AirParts, air_parts
from keelroom.assess.inputs.airside import AirSide, air_side
from keelroom.assess.inputs.converter import converter_at
from keelroom.assess.inputs.coolant.flows import circuit_of
from keelroom.assess.inputs.coolant.heights import held_pressure
from keelroom.assess.inputs.coolers import coolers_of, fitted, own_air
from keelroom.assess.inputs.demand import Demand, demand_of
from keelroom.assess.inputs.electrical.controller import clutch_law, clutch_senses, control_law, sensing_of
from keelroom.assess.inputs.electrical.loads import PUMP
from keelroom.assess.inputs.electrical.system import System, system_at
from keelroom.assess.inputs.gearing import rpm_of
from keelroom.assess.inputs.learnt import Learnt, learnt_of
from keelroom.assess.inputs.needs import Reader, read_core
from keelroom.assess.inputs.unsure import at_grille, unsure_of
from keelroom.assess.made import made_brief
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.placing import face_size
from keelroom.catalogue.fluids import glycol_table
from keelroom.core.air.face import Lanes, padded
from keelroom.core.arrays import Floats, repeated, scalars, stack, take
from keelroom.core.coolers.condenser import cop_share
from keelroom.core.fluids.coolant import CoolantCurves, curves
from keelroom.core.fluids.point import density, standard_pressure, vapour_share
from keelroom.core.kept import by_identity, by_identity_at, by_value
from keelroom.core.loop.circuit import CoolantCircuit
from keelroom.core.plant import Command, Doubts, Face, Fans, Fluids, Layout, Plant, Points, Situation, Weather
from keelroom.core.thermal.engine_heat import Drive, Engines, Vehicles
from keelroom.core.thermal.engine_laws import LAWS, EngineLaw
from keelroom.core.thermal.geometry import CoreGeometry
from keelroom.core.unsure import Unsure
from keelroom.document.schema.brief import Accessories, Brief, Cooling
from keelroom.document.schema.brief import Climate as ClimateSection
from keelroom.document.schema.brief import Engine as EngineSection
from keelroom.document.schema.brief import Vehicle as VehicleSection
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.electrical import Control
from keelroom.document.schema.loop import Coolant as CoolantSection
from keelroom.document.schema.loop import Loop as LoopSection
from keelroom.document.schema.package import Core, Fan, Package, Remote

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
"""Share of fuel power that goes into the oil: some 10 % of the brake power at load (common practice)."""
GEARBOX_PART = {"automatic": 0.5, "manual": 0.25}
"""Share of the driveline's loss that the gearbox's fluid is given, the axle has the rest (common practice: gears 2–4
% of the power and an automatic's pump 1–3 kW, of some 12 % lost)."""
STRAIGHT = 0.4
"""Share of the pump's power its fluid is given while nobody turns the wheel: standing and on the road the valve is
open (common practice: some 100 W against 300 W in town)."""
STILL_SPEED = 12.0
"""[m/s] road speed above which hot air off the road no longer reaches the grille."""
COMPRESSOR_ROAD = 8.0
"""[m/s] from which on the A/C takes what it takes on the road; standing what it takes at idle, between them in
proportion (common practice, no source)."""


class PointRow(NamedTuple):
    """One operating point's inputs, with its array layout and what is not known of it."""

    points: Points
    layout: Layout
    unsure: Unsure
    amps: float = 0.0
    """of everything on, the cooling fans running"""
    stopped: tuple[Stopped, ...] = ()
    """coolers whose own air could not be worked out: they stand in it without any"""

    @property
    def batch(self) -> tuple[object, ...]:
        """Rows with the same value can be stacked and solved together."""
        points = self.points
        return (
            *self.layout,
            points.plant.circuit.incidence.shape,
            len(points.plant.fans.power),
            len(points.plant.network.leak_area),
            len(points.plant.coolers.area),
        )


class Car(NamedTuple):
    """A package in this vehicle in core terms, worked out once for all its duty cases: its parts, the plant, not
    stacked, its layout, and what is not known of it whatever it is asked."""

    parts: AirParts
    plant: Plant
    layout: Layout
    unsure: Unsure
    doubts: Doubts


def car_of(build: Build, package: Package) -> Car:
    """The package in this vehicle; what is missing stands as 1 and is caught by `needs_of`."""
    brief = build.brief
    rest = _rest(brief.engine, brief.vehicle, brief.accessories, brief.cooling)
    return _car(
        rest,
        learnt_of(build, package),
        air_parts(package),
        air_side(build, package),
        circuit_of(build, package),
        package.loop,
        package.coolant,
    )


Rest = tuple[EngineSection, VehicleSection, Accessories, Cooling]
"""What of the brief the car is made of."""


@by_identity(16)
def _rest(*sections: Any) -> Rest:
    """One object as long as the sections are the same ones, for what is kept by it."""
    return sections


@by_identity(64)
def _car(
    rest: Rest,
    learnt: Learnt,
    package: AirParts,
    air: AirSide,
    circuit: CoolantCircuit,
    loop: LoopSection,
    coolant: CoolantSection,
) -> Car:
    engine, vehicle, accessories, cooling = rest
    reader, core, fans = Reader(), package.core, air.fans
    plant = Plant(
        core=_core_geometry(core),
        engine=_engine(engine)._replace(bay_share=np.array(0.0)) if package.remote.away else _engine(engine),
        vehicle=_vehicle(vehicle, accessories),
        network=air.network,
        fans=Fans(
            fans.curve, fans.power, fans.rated_voltage, fans.brushless, fans.runs, fans.driven, fans.drag, fans.clutch
        ),
        coolers=coolers_of(
            rest, fitted(package, accessories.ac_fitted), face_size(package), (air.classes.area, air.classes.covered)
        ),
        face=Face(*air.lanes),
        coolant=_coolant(coolant.glycol, reader.take(coolant, (), "glycol_share")),
        circuit=circuit,
        cap_pressure=np.array(held_pressure(loop)),
        limit=np.array(reader.take(cooling, (), "limit")),
    )
    layout = Layout(core.flow == "crossflow", int(core.passes.si), int(core.rows.si) if core.rows else 1)
    plant, unsure = learnt.taken_in(plant, unsure_of((engine, vehicle), package, fans.doubt))
    return Car(package, plant, layout, unsure, learnt.doubts)


def row_of(build: Build, package: Package, car: Car, case: DutyCase) -> PointRow:
    """One operating point of a package in this vehicle. Call only when `needs_of` is empty."""
    return row_at(build, package, car, demand_of(build.brief, case))


def row_at(build: Build, package: Package, car: Car, demand: Demand) -> PointRow:
    """The operating point of a package asked for so much, in plain numbers: a duty case's, a drive's step, a line of
    a log.

    Call only when `needs_of` is empty. Raises SolveError where a circuit cannot be worked out.
    """
    return _row(made_brief(build.brief), car, demand, system_at(build, package, demand.at), package.control)


@by_identity(64)
def _row(brief: Brief, car: Car, demand: Demand, system: System, control: Control) -> PointRow:
    own = _own_air(car.parts, brief.accessories.ac_fitted, _shared(brief, demand), system)
    air, stopped = (
        np.array([0.0 if isinstance(flow, Stopped) else flow for flow in own]),
        tuple(one for one in own if isinstance(one, Stopped)),
    )
    situation = _situation(brief, car, demand, (system, air), control)
    unsure = car.unsure._replace(grille=np.array(at_grille(brief.climate, off_road(demand))))
    return PointRow(Points(car.plant, situation, car.doubts), car.layout, unsure, system.balance.wanted, stopped)


def _situation(brief: Brief, car: Car, demand: Demand, given: tuple[System, Floats], control: Control) -> Situation:
    """What is asked of the car, and what its electrical system gives the fans and the pump then."""
    (system, own_air), shared = given, _shared(brief, demand)
    package, fans = car.parts, car.parts.fans
    volts = [system.volts.get(fan.id, 0.0) for fan in fans[: len(car.plant.fans.power)]] or [0.0]
    return Situation(
        climate=_warmed(shared.climate, package.remote),
        drive=shared.drive._replace(electrical=np.array(system.watts)),
        air_speed=shared.air_speed,
        command=_command(package, (np.array(volts), system.belt), brief.climate, control, shared),
        pump_voltage=np.array(system.volts.get(PUMP, system.balance.voltage)),
        fluids=Fluids(
            compressor=np.array(shared.shaft),
            cop_share=np.array(shared.cop_share),
            steering=np.array(shared.steering),
            own_air=own_air,
        ),
    )


def _warmed(climate: Weather, remote: Remote) -> Weather:
    """Away from the grille the air is as much over ambient as was said there, whatever the road does."""
    return climate._replace(grille_rise=np.array(remote.warmed.si)) if remote.away else climate


def _command(
    package: AirParts, given: tuple[Floats, float], climate: ClimateSection, control: Control, shared: Shared
) -> Command:
    """What the fans are told: electric ones by their control, one of the engine that stands alone by its clutch.

    given : volts of each fan [V], and the share of its speed the belt turns one of the engine
    """
    volts, belt = given
    fans = package.fans[: len(volts)]
    rpm = float(shared.drive.rpm) * belt
    turned = np.array([_turned(fan, rpm) if fan.motor == "engine" else 0.0 for fan in fans] or [0.0])
    if fans and all(fan.motor == "engine" for fan in fans):
        return Command(
            volts, turned, clutch_senses(shared.at_grille), clutch_law(next((fan for fan in fans if fan.clutch), None))
        )
    electric = sum(fan.motor != "engine" for fan in fans)
    return Command(
        volts, turned, sensing_of(control, shared.at_grille), control_law(control, climate, electric, shared.ac)
    )


def _turned(fan: Fan, rpm: float) -> float:
    """Speed of an engine-driven fan's shaft over its rated one."""
    return fan.ratio.si * rpm / rpm_of(fan.rated_rpm)


def _own_air(package: AirParts, ac_fitted: bool, shared: Shared, system: System) -> list[float | Stopped]:
    """Air [kg/s] through each cooler that stands away from the core, with what its circuit gives its fans, or why
    there is none to tell; 0 for the others."""
    face, road = face_size(package), (float(shared.air_speed), shared.density)
    return [
        _air_of(cooler, (face, road, system.volts.get(cooler.id, 0.0))) if cooler.away else 0.0
        for cooler in fitted(package, ac_fitted)
    ] or [0.0]


@by_identity_at(512)
def _air_of(cooler: Cooler, given: tuple[tuple[float, float], tuple[float, float], float]) -> float | Stopped:
    """Of one cooler, with what it is given: the core's face, the road's speed and density, its fans' volts."""
    name, where = f"The air of “{cooler.name or cooler.id}”", ("coolers", cooler.id)
    return attempted(name, where, lambda: own_air(cooler, *given))


class Shared(NamedTuple):
    """What is asked whatever the package. at_grille [degC] of the air; density [kg/m3] of it; shaft [W] of the A/C
    while it is on, and its share of Carnot; steering [W]; drive: without its electrical load."""

    climate: Weather
    drive: Drive
    air_speed: Floats
    at_grille: float
    ac: bool
    shaft: float
    cop_share: float
    steering: float
    density: float


def off_road(demand: Demand) -> float:
    """Share of the asphalt's warmth that reaches the grille: all of it standing, none from STILL_SPEED on."""
    return max(0.0, 1 - demand.met / STILL_SPEED)


@by_identity(64)
def _shared(brief: Brief, demand: Demand) -> Shared:
    reader, climate, accessories = Reader(), brief.climate, brief.accessories
    ambient = demand.ambient
    grille_rise = reader.take(climate, (), "asphalt_rise") * off_road(demand)
    shaft = _ac_shaft(brief, demand) if demand.ac else 0.0
    stood_in = scalars(
        Weather,
        ambient=ambient,
        altitude=reader.take(climate, (), "altitude"),
        humidity=reader.take(climate, (), "humidity"),
        grille_rise=grille_rise,
    )
    pressure = standard_pressure(float(stood_in.altitude))
    vapour = vapour_share(pressure, ambient, float(stood_in.humidity))
    return Shared(
        stood_in,
        _drive(brief, demand, shaft),
        np.array(demand.met),
        ambient + grille_rise,
        demand.ac,
        shaft,
        cop_share(reader.take(accessories, (), "ac_cop")),
        reader.take(accessories, (), "steering_power") * (1.0 if demand.stops_per_metre > 0 else STRAIGHT),
        density(pressure, vapour, ambient + grille_rise),
    )


def stacked(rows: list[PointRow]) -> tuple[Points, Unsure]:
    """Rows of one batch as arrays, with what is not known of them; faces with fewer lanes or classes are padded."""
    plants = list({id(row.points.plant): row.points.plant for row in rows}.values())
    if len(plants) == 1:
        return _points(repeated(plants[0], len(rows)), rows)
    place = {id(plant): i for i, plant in enumerate(plants)}
    lanes = max(len(plant.face.weight) for plant in plants)
    kinds = max(len(plant.face.kinds) for plant in plants)
    classes = max(len(plant.network.area) for plant in plants)
    # Each plant is stacked once, however many situations it stands in.
    cars = take(
        stack([_padded(plant, lanes, kinds, classes) for plant in plants]),
        np.array([place[id(row.points.plant)] for row in rows]),
    )
    return _points(cars, rows)


def _points(cars: Plant, rows: list[PointRow]) -> tuple[Points, Unsure]:
    points = Points(cars, stack([row.points.situation for row in rows]), stack([row.points.doubts for row in rows]))
    return points, stack([row.unsure for row in rows])


def _padded(plant: Plant, lanes: int, kinds: int, classes: int) -> Plant:
    network, present = plant.network, len(plant.network.area)
    extra = classes - present
    if extra == 0 and len(plant.face.weight) == lanes and len(plant.face.kinds) == kinds:
        return plant
    face = Face(*padded(Lanes(*plant.face), lanes, kinds, classes))
    if extra == 0:
        return plant._replace(face=face)
    fans, none = 3 + 2 * len(network.leak_area) + present, np.zeros((extra, network.incidence.shape[1]))
    wider = network._replace(
        area=np.concatenate([network.area, none[:, 0]]),
        loss=np.concatenate([network.loss, none[:, 0]]),
        incidence=np.concatenate([network.incidence[:fans], none, network.incidence[fans:]]),
    )
    covered = np.concatenate([plant.coolers.covered, np.zeros((extra, plant.coolers.covered.shape[1]))])
    return plant._replace(network=wider, coolers=plant.coolers._replace(covered=covered), face=face)


def _ac_shaft(brief: Brief, demand: Demand) -> float:
    """[W] of its compressor."""
    idle, road = (
        power.si if power else 0.0 for power in (brief.accessories.ac_idle_power, brief.accessories.ac_road_power)
    )
    return idle + (road - idle) * min(demand.speed / COMPRESSOR_ROAD, 1.0)


@by_identity(16)
def _engine(engine: EngineSection) -> Engines:
    reader = Reader()
    numbers = scalars(
        Engines,
        displacement=reader.take(engine, (), "displacement"),
        power=reader.take(engine, (), "power"),
        power_rpm=rpm_of(engine.power_rpm),
        law=0.0,
        boost=reader.take(engine, (), "boost"),
        heat_multiplier=reader.take(engine, (), "heat_multiplier"),
        oil_share=OIL_SHARE,
        bay_share=reader.take(engine, (), "bay_heat"),
    )
    return numbers._replace(law=EngineLaw(*(np.array(value) for value in LAWS[engine.kind])))


def _vehicle(vehicle: VehicleSection, accessories: Accessories) -> Vehicles:
    reader = Reader()
    return scalars(
        Vehicles,
        mass=vehicle.mass.si if vehicle.mass else 1.0,
        drag_area=reader.take(vehicle, (), "drag_area"),
        rolling=reader.take(vehicle, (), "rolling"),
        driveline_efficiency=reader.take(vehicle, (), "driveline_efficiency"),
        alternator_efficiency=reader.take(accessories, (), "alternator_efficiency"),
        gearbox_part=GEARBOX_PART[vehicle.gearbox],
        converter_factor=reader.take(vehicle, (), "converter_factor"),
    )


def _drive(brief: Brief, demand: Demand, ac_shaft: float) -> Drive:
    accessories, reader, converter = brief.accessories, Reader(), converter_at(brief, demand)
    return scalars(
        Drive,
        speed=demand.speed,
        grade=demand.grade,
        towed=demand.towed,
        full_power=float(demand.full_power),
        rpm=demand.rpm,
        stops_per_metre=demand.stops_per_metre,
        accessories=ac_shaft + reader.take(accessories, (), "steering_power") + converter.braked,
        electrical=0.0,
        converter_heat=converter.heat,
        slips=converter.slips,
        driven_fan=0.0,
    )


@by_value(64)
def _coolant(glycol: str, share: float) -> CoolantCurves:
    return curves(glycol_table(glycol), share)


def _core_geometry(core: Core) -> CoreGeometry:
    v = read_core(core, (), Reader())
    per_row = v["depth"] / v["rows"]
    tube_width = max(per_row - (ROW_GAP if v["rows"] > 1 else 0.5 * ROW_GAP), 0.6 * per_row, 1.2 * v["tube_height"])
    pitch = 1.0 / v["fin_density"]
    return scalars(
        CoreGeometry,
        face_width=v["face_width"],
        face_height=v["face_height"],
        depth=v["depth"],
        rows=v["rows"],
        tube_width=tube_width,
        tube_height=v["tube_height"],
        tube_wall=min(v["tube_wall"], 0.4 * v["tube_height"]),
        fin_height=v["fin_height"],
        fin_pitch=pitch,
        fin_thickness=min(v["fin_thickness"], 0.5 * pitch),
        louver_pitch=v["louver_pitch"],
        louver_length=LOUVER_SHARE * v["fin_height"],
        louver_angle=float(np.degrees(v["louver_angle"])),
        fin_conductivity=FIN_CONDUCTIVITY[core.material],
        bond_resistance=BOND_RESISTANCE[core.material],
        fouling=FOULING[core.condition],
        turbulator=v["turbulator"],
    )
