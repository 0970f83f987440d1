"""Engine speed of a duty case: as typed, idling, by gearing or past a converter that slips; and what its belt makes of
it."""

from __future__ import annotations

import math

from keelroom.core.fluids.point import density, standard_pressure
from keelroom.core.kept import by_identity
from keelroom.core.thermal.engine_point import converter_speed, wheel_power
from keelroom.document.quantity import Quantity
from keelroom.document.schema.brief import Brief, Vehicle
from keelroom.document.schema.build import DutyCase
from keelroom.document.schema.electrical import Supply

SLIPS = 0.85
"""Share of its speed a slack or glazed belt still turns what hangs on it, under load (common practice, no source)."""
CLUTCHED = 1.15
"""Least speed a car with a clutch is driven at, over its idle (common practice)."""
LOCKS = (1000.0, 1400.0)
"""[rpm] of the turbine from which a converter begins to lock and is locked (common practice, no source)."""
STANDS_PER_STOP = 13.0
"""[s] a car stands at each stop, of published town cycles: 35 % of 598 s over 18 stops (New York City cycle, from
memory), 19 % of 1 369 s over 17 (UDDS, 40 CFR 86)."""
WEATHER = 30.0
"""[degC] the air's drag is taken at where an engine's speed is sought: it moves that by a few turns."""
MOST_STANDING = 0.6
"""Share of the time the slowest traffic stands (common practice, no source)."""


def belt_turns(supply: Supply) -> float:
    """Share of its speed the belt turns alternator, pump and fan."""
    return SLIPS if supply.belt == "slips" else 1.0


def rpm_of(value: Quantity | None) -> float:
    """A turning speed in rpm; 1 where it is not known, which `needs_of` catches."""
    return 60.0 * value.si if value else 1.0


def stands_for(speed: float, stops_per_metre: float) -> float:
    """Share of the time a car stands that goes at a mean speed [m/s] from stop to stop."""
    return min(stops_per_metre * speed * STANDS_PER_STOP, MOST_STANDING)


def _stands(case: DutyCase) -> float:
    return stands_for(case.speed.si, case.stops_per_km.si / 1000.0)


def open_share(vehicle: Vehicle, turbine: float) -> float:
    """How far the converter is open while the car moves: 0 with a clutch and locked. turbine [rpm]: of its turbine"""
    if vehicle.gearbox != "automatic":
        return 0.0
    if not vehicle.lockup:
        return 1.0
    begins, locked = LOCKS
    return min(max((locked - turbine) / (locked - begins), 0.0), 1.0)


def geared(brief: Brief, case: DutyCase) -> float | None:
    """What goes into the gearbox turns so fast [rpm] while the car moves, by its gearing; None where that is not known
    or the engine's speed is given."""
    vehicle = brief.vehicle
    known = vehicle.tyre_diameter and vehicle.top_ratio and vehicle.final_drive
    if case.demand != "road_load" or case.rpm is not None or not known:
        return None
    assert vehicle.tyre_diameter
    assert vehicle.top_ratio
    assert vehicle.final_drive
    ratio = vehicle.top_ratio.si * vehicle.final_drive.si * case.gear_step.si
    return case.speed.si / (1 - _stands(case)) / (math.pi * vehicle.tyre_diameter.si) * ratio * 60


@by_identity(256)
def engine_rpm(brief: Brief, case: DutyCase) -> float:
    """Engine speed [rpm] of a duty case: as typed, or from demand and gearing, never under idle; the mean of standing
    and moving where it stops."""
    idle = rpm_of(brief.engine.idle_rpm)
    if case.rpm is not None:
        return 60.0 * case.rpm.si
    if case.demand == "full_power":
        return rpm_of(brief.engine.power_rpm)
    turbine = geared(brief, case)
    if turbine is None:
        return idle
    automatic = brief.vehicle.gearbox == "automatic"
    turns = max(_pulled(brief, case, turbine), idle) if automatic else max(turbine, CLUTCHED * idle)
    stands = _stands(case)
    return stands * idle + (1 - stands) * turns


def _pulled(brief: Brief, case: DutyCase, turbine: float) -> float:
    """Engine speed [rpm] before a converter, as far as it is open, that moves the car."""
    vehicle, speed = brief.vehicle, case.speed.si
    opened = open_share(vehicle, turbine)
    if opened == 0 or speed == 0 or vehicle.converter_factor is None:
        return turbine
    turns = (speed, case.grade.si, case.towed_mass.si, case.stops_per_km.si / 1000.0)
    free = float(converter_speed(turbine, into_driveline(brief, *turns), vehicle.converter_factor.si))
    return turbine + opened * (free - turbine)


def into_driveline(brief: Brief, speed: float, grade: float, towed: float, stops_per_metre: float) -> float:
    """Power [W] the road asks of what comes out of the converter. Source: ROAD_LOAD at the brief's altitude."""
    vehicle, height = brief.vehicle, brief.climate.altitude
    outdoors = density(standard_pressure(height.si if height else 0.0), 0.0, WEATHER)
    ahead = outdoors * (vehicle.drag_area.si if vehicle.drag_area else 0.0)
    mass = (vehicle.mass.si if vehicle.mass else 0.0) + towed
    rolling = vehicle.rolling.si if vehicle.rolling else 0.0
    efficiency = vehicle.driveline_efficiency.si if vehicle.driveline_efficiency else 1.0
    return float(wheel_power(mass, rolling, ahead, grade, speed, stops_per_metre)) / efficiency
