"""Heat into the coolant: road load and accessories give brake power, a Willans line gives fuel, a share gives heat.

The doubt of the result goes with the kind of engine until a trial narrows it: it is the largest in the whole answer.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats, unit_share
from keelroom.core.thermal.engine_laws import EngineLaw
from keelroom.core.thermal.gearbox import slip_loss

GRAVITY = 9.80665
LIGHT, PART = 0.15, 0.35
"""Shares of full load over which efficiency rises from idle, and the coolant's share falls (common practice)."""
COMPRESSOR_EFFICIENCY = 0.70
SLIP_STEPS, MOST_SLIP = 6, 0.5
"""Times a converter's slip is worked out from the power it takes, and the most it is let lose: past it one would
change down."""
AIR_CP, AIR_EXPONENT = 1006.0, 0.2857
ENGINE_SPEEDS = (2.5, 250.0)
"""Turns per second the friction law is asked at: 150 to 15 000 rpm (HEYWOOD; its ends common practice)."""
DISPLACEMENTS = (5e-5, 0.03)
"""[m3] engines it speaks of: 0.05 to 30 L (common practice)."""
HEAT_PER_LITRE = 23e3
"""Heat capacity of engine metal and coolant [J/K] per litre of displacement (common practice)."""


class Engines(NamedTuple):
    """n engines as arrays (n,). displacement [m3]; power [W] at power_rpm; boost [Pa] at full load; law of its kind.

    heat_multiplier : stated factor on heat to coolant (iron or aluminium head, retarded ignition, ...)
    oil_share       : share of fuel power that enters the oil; through the block it is the coolant's, unless an oil
                      cooler takes it
    bay_share       : share of fuel power block and exhaust give to the air of the bay (common practice: 3 to 10 %)
    """

    displacement: Floats
    power: Floats
    power_rpm: Floats
    boost: Floats
    law: EngineLaw
    heat_multiplier: Floats
    oil_share: Floats
    bay_share: Floats


class Vehicles(NamedTuple):
    """What the engine drives, n of them, arrays (n,). mass [kg] as it stands; drag_area [m2]; rolling coefficient

    driveline_efficiency, alternator_efficiency 0..1;  gearbox_part: share of the driveline's loss that enters the
    gearbox's fluid
    converter_factor : its K [rpm/sqrt(lbf ft)]
    """

    mass: Floats
    drag_area: Floats
    rolling: Floats
    driveline_efficiency: Floats
    alternator_efficiency: Floats
    gearbox_part: Floats
    converter_factor: Floats


class Drive(NamedTuple):
    """What is asked of the engine in n duty cases, arrays (n,).

    speed [m/s]; grade (rise over run); towed [kg]; full_power 0 or 1: the engine gives all it has; rpm
    stops_per_metre: each stop throws away the motion of twice the mean speed
    accessories [W] shaft: A/C, steering;  electrical [W] without the cooling fans
    converter_heat [W]: converter drag in gear, that ends in the gearbox fluid
    slips : 1 where the converter is not locked on the road
    driven_fan [W] shaft: what a fan on the engine takes
    """

    speed: Floats
    grade: Floats
    towed: Floats
    full_power: Floats
    rpm: Floats
    stops_per_metre: Floats
    accessories: Floats
    electrical: Floats
    converter_heat: Floats
    slips: Floats
    driven_fan: Floats


class EngineHeat(NamedTuple):
    """Power by cause, all (n,) [W]: wheels, accessories and alternator at the shaft, brake, fuel, and the heat of the
    engine itself.

    gearbox : into the gearbox's fluid, of `driveline` that gears, axle and converter lose together
    oil : into the oil, of what the coolant is given;  charge : into the intake air by the compressor, bay : into the
          air of the bay
    charge_flow [W/K] capacity of the intake air
    coolant : from block and head, the oil's heat among it, before any cooler takes or gives
    short : brake power asked for beyond what the engine has, 0 where it can do it
    """

    wheels: Floats
    accessories: Floats
    alternator: Floats
    brake: Floats
    fuel: Floats
    gearbox: Floats
    driveline: Floats
    oil: Floats
    charge: Floats
    charge_flow: Floats
    bay: Floats
    coolant: Floats
    short: Floats


def road_power(vehicle: Vehicles, drive: Drive, air_density: Floats) -> Floats:
    """Power at the wheels (n,) [W], never negative. Source: ROAD_LOAD; stops as kinetic energy lost."""
    slope = np.arctan(drive.grade)
    mass = vehicle.mass + drive.towed
    force = (
        mass * GRAVITY * (vehicle.rolling * np.cos(slope) + np.sin(slope))
        + 0.5 * air_density * vehicle.drag_area * drive.speed**2
    )
    stops = drive.stops_per_metre * drive.speed * 0.5 * mass * (2 * drive.speed) ** 2
    return np.maximum(force * drive.speed + stops, 0.0)


def full_power(engine: Engines, rpm: Floats, density_ratio: Floats) -> Floats:
    """Brake power at full throttle (n,) [W] at `rpm`; falls with air density, far less where boosted.

    Source: the shape common practice.
    """
    x = np.clip(rpm / engine.power_rpm, 0.0, 1.15)
    return engine.power * x * (1 + x - x * x) * density_ratio ** np.where(engine.boost > 0, 0.25, 1.0)


def friction_pressure(rpm: Floats) -> Floats:
    """Motored friction mean effective pressure [Pa] at wide-open throttle. Source: HEYWOOD, ±0.2 bar."""
    thousands = rpm / 1000.0
    return 1e5 * (0.97 + 0.15 * thousands + 0.05 * thousands**2)


def charge_heat(engine: Engines, fuel: Floats, load: Floats, outdoors: tuple[Floats, Floats]) -> tuple[Floats, Floats]:
    """What the compressor adds to the intake air above the outdoor temperature (n,) [W], and that air's capacity [W/K].

    load (n,) 0..1: boost rises from a third of full load on;  outdoors: pressure [Pa], temperature [degC]
    Source : isentropic compression of air with COMPRESSOR_EFFICIENCY (textbook identity)
    """
    pressure, ambient = outdoors
    ratio = 1 + engine.boost / pressure * unit_share((load - 0.3) / 0.6)
    rise = (ambient + 273.15) * (ratio**AIR_EXPONENT - 1) / COMPRESSOR_EFFICIENCY
    capacity = fuel * engine.law.air_per_fuel / engine.law.heating * AIR_CP
    return capacity * rise, capacity


def engine_heat(
    car: tuple[Engines, Vehicles], drive: Drive, fan_power: Floats, air: tuple[Floats, Floats, Floats, Floats]
) -> EngineHeat:
    """Heat into the coolant and what it comes from, all (n,) [W].

    fan_power : (n,) [W] electrical, an alternator load like the rest
    air       : outdoors: density, its ratio to the standard sea-level density, pressure [Pa], temperature [degC]
    Source    : ROAD_LOAD, HEYWOOD friction and heat balance; part-load shape from common practice
    """
    density, density_ratio, *outdoors = air
    engine, vehicle = car
    wheels = road_power(vehicle, drive, density) / vehicle.driveline_efficiency
    alternator = (drive.electrical + fan_power) / vehicle.alternator_efficiency
    auxiliary = drive.accessories + drive.driven_fan + drive.converter_heat + alternator
    available = full_power(engine, drive.rpm, density_ratio)
    slip = _slip(car, drive, wheels, available - auxiliary)
    wheels = wheels / (1 - slip)
    asked = np.where(drive.full_power > 0, available, wheels + auxiliary)
    brake = np.minimum(asked, available)
    wheels = np.where(drive.full_power > 0, np.maximum(available - auxiliary, 0.0), wheels)
    load = brake / available
    law = engine.law
    friction = (
        (law.friction * friction_pressure(drive.rpm) + law.pumping * (1 - load))
        * engine.displacement
        * drive.rpm
        / 120.0
    )
    # Close to full load a petrol engine is run rich; the extra fuel leaves unburnt and does little work.
    rich = 1 - law.rich * unit_share((load - 0.75) / 0.25)
    fuel = (brake + friction) / ((law.efficient - (law.efficient - law.idling) * np.exp(-load / LIGHT)) * rich)
    share = law.to_coolant + (law.idle_to_coolant - law.to_coolant) * np.exp(-load / PART)
    slipping = wheels * slip + drive.converter_heat
    rubbing = wheels * (1 - slip) * (1 - vehicle.driveline_efficiency)
    charge, charge_flow = charge_heat(engine, fuel, load, (outdoors[0], outdoors[1]))
    return EngineHeat(
        wheels=wheels,
        accessories=drive.accessories + drive.driven_fan + drive.converter_heat,
        alternator=alternator,
        brake=brake,
        fuel=fuel,
        gearbox=vehicle.gearbox_part * rubbing + slipping,
        driveline=rubbing + slipping,
        oil=fuel * engine.oil_share * engine.heat_multiplier,
        charge=charge,
        charge_flow=charge_flow,
        bay=fuel * engine.bay_share,
        coolant=fuel * share * engine.heat_multiplier,
        short=asked - brake,
    )


def _slip(car: tuple[Engines, Vehicles], drive: Drive, out: Floats, most: Floats) -> Floats:
    """Share of the power (n,) an unlocked converter loses. out [W]: what has to come out of it; most [W]: what the
    engine can put in."""
    none = np.zeros_like(out)
    if not drive.slips.any():
        return none
    _, vehicle = car
    into = np.where(drive.full_power > 0, most, out)
    for _ in range(SLIP_STEPS):
        slip = drive.slips * np.minimum(
            slip_loss(np.maximum(into, 0.0), drive.rpm, vehicle.converter_factor), MOST_SLIP
        )
        into = np.where(drive.full_power > 0, most, np.minimum(out / (1 - slip), np.maximum(most, out)))
    return slip


def heat_capacity(engine: Engines) -> Floats:
    """Heat capacity of engine and coolant (n,) [J/K] by displacement (common practice, ±30 %)."""
    return HEAT_PER_LITRE * engine.displacement * 1e3
