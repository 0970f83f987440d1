"""What a torque converter turns into heat at one moment, from stall to lock."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.inputs.demand import Demand
from keelroom.assess.inputs.gearing import into_driveline, open_share, rpm_of, stands_for
from keelroom.core.thermal.engine_point import capacity, stall_heat, torque_ratio
from keelroom.document.schema.brief import Brief

CREEPS = 1e-6
"""Share over its idle under which an engine counts as idling."""


class Converter(NamedTuple):
    """slips : how far it is open while it pulls;  heat [W] of it while the car is held or creeps;  braked [W]: what
    comes out of it then and the brakes take."""

    slips: float
    heat: float
    braked: float


NONE = Converter(0.0, 0.0, 0.0)


def converter_at(brief: Brief, demand: Demand) -> Converter:
    """The converter in a state: held by the brake, creeping, pulling open, or locked.

    Source: CONVERTER; the engine's speed of the demand is what it comes to before it.
    """
    vehicle = brief.vehicle
    if vehicle.gearbox != "automatic" or vehicle.converter_factor is None:
        return NONE
    if not demand.moves and not demand.in_gear:
        return NONE
    if not demand.moves and demand.turbine is None:
        return Converter(0.0, _held(brief, demand.rpm), 0.0)
    stands, idle = stands_for(demand.speed, demand.stops_per_metre), rpm_of(brief.engine.idle_rpm)
    held = stands * _held(brief, idle) if stands else 0.0
    turbine = demand.rpm if demand.turbine is None else demand.turbine
    if turbine < idle and demand.rpm <= idle * (1 + CREEPS):
        heat, braked = _creeping(brief, demand, turbine / idle, idle)
        return Converter(0.0, held + (1 - stands) * heat, (1 - stands) * braked)
    return Converter(open_share(vehicle, turbine), held, 0.0)


def _held(brief: Brief, rpm: float) -> float:
    """Heat [W] in gear with the brake on: as measured, else all that goes in."""
    measured, factor = brief.accessories.converter_power, brief.vehicle.converter_factor
    assert factor
    return measured.si if measured else float(stall_heat(rpm, factor.si))


def _creeping(brief: Brief, demand: Demand, ratio: float, idle: float) -> tuple[float, float]:
    """Heat, and what the brakes take [W], of all an idling engine pushes through its converter: at least what the road
    asks."""
    asked = into_driveline(brief, demand.speed, demand.grade, demand.towed, demand.stops_per_metre)
    factor = brief.vehicle.converter_factor
    assert factor
    into, out = stall_heat(idle, factor.si) * capacity(ratio), ratio * torque_ratio(ratio)
    return into * (1 - out), max(into * out - asked, 0.0)
