"""Engine speed of a duty case: as typed, idling, or by gearing; and what its belt makes of it."""

from __future__ import annotations

import math

from keelroom.document.quantity import Quantity
from keelroom.document.schema.brief import Brief
from keelroom.document.schema.build import DutyCase
from keelroom.document.schema.electrical import Supply

SLIPS = 0.85
"""Share of its speed a slack or glazed belt still turns what hangs on it, under load (common practice, no source)."""


def belt_turns(supply: Supply) -> float:
    """Share of its speed the belt turns alternator, pump and fan."""
    return SLIPS if supply.belt == "slips" else 1.0


def rpm_of(value: Quantity | None) -> float:
    """A turning speed in rpm; 1 where it is not known, which `needs_of` catches."""
    return 60.0 * value.si if value else 1.0


def engine_rpm(brief: Brief, case: DutyCase) -> float:
    """Engine speed [rpm] of a duty case: as typed, or from demand and gearing, never under idle."""
    idle = rpm_of(brief.engine.idle_rpm)
    if case.rpm is not None:
        return 60.0 * case.rpm.si
    if case.demand == "idle":
        return idle
    if case.demand == "full_power":
        return rpm_of(brief.engine.power_rpm)
    vehicle = brief.vehicle
    if not (vehicle.tyre_diameter and vehicle.top_ratio and vehicle.final_drive):
        return idle
    geared = case.speed.si / (math.pi * vehicle.tyre_diameter.si) * vehicle.top_ratio.si * vehicle.final_drive.si * 60
    return float(max(geared * case.gear_step.si, 1.15 * idle))
