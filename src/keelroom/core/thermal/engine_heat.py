"""Heat into the coolant: road load and accessories give brake power, a Willans line gives fuel, a share gives heat.

The doubt of the result goes with the kind of engine until a trial narrows it: it is the largest in the whole answer.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.core.rows import bound
from keelroom.core.thermal.engine_laws import EngineLaw
from keelroom.core.thermal.engine_point import DriveRows, EngineRows, LawRows, VehicleRows, burnt_by

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


def engine_heat(
    car: tuple[Engines, Vehicles], drive: Drive, fan_power: Floats, air: tuple[Floats, Floats, Floats]
) -> EngineHeat:
    """Heat into the coolant and what it comes from, all (n,) [W].

    fan_power : (n,) [W] electrical, an alternator load like the rest
    air       : outdoors: density [kg/m3], pressure [Pa], temperature [degC]
    Source    : ROAD_LOAD, HEYWOOD friction and heat balance; part-load shape from common practice
    """
    engine, vehicle = car
    out = np.empty((len(fan_power), len(EngineHeat._fields)))
    burnt_by(
        bound(EngineRows, engine, law=bound(LawRows, engine.law)),
        bound(VehicleRows, vehicle),
        bound(DriveRows, drive),
        fan_power,
        np.stack(air, axis=1),
        out,
    )
    return EngineHeat(*out.T)


def heat_capacity(engine: Engines) -> Floats:
    """Heat capacity of engine and coolant (n,) [J/K] by displacement (common practice, ±30 %)."""
    return HEAT_PER_LITRE * engine.displacement * 1e3
