"""From the control a package has to what its sensor sees and the share of full it commands."""

from __future__ import annotations

import numpy as np

from keelroom.assess.inputs.electrical.seats import SEATS, SensorSeat
from keelroom.assess.inputs.electrical.ways import way_of
from keelroom.core.air.driven_fan import SPAN
from keelroom.core.electrical.control import (
    LOW,
    Law,
    Points,
    Sensing,
    Steps,
    law,
    ramped,
    reading_at,
    staged,
    staged_steps,
    switched,
    switched_steps,
)
from keelroom.core.kept import by_identity
from keelroom.document.schema.brief import Climate
from keelroom.document.schema.electrical import Control
from keelroom.document.schema.package import Fan, Package

SLOWEST = 0.3
"""Share of full speed a variable controller starts the fan at (common practice)."""
REQUEST = 0.6
"""Share of full speed an A/C request asks of a variable controller (common practice)."""
NEVER: Points = ((400.0, 0.0, 0.0), (401.0, 0.0, 0.0))
ALWAYS: Points = ((-80.0, 1.0, 1.0), (-79.0, 1.0, 1.0))


def seat_of(control: Control) -> SensorSeat:
    """Where the temperature is felt: computers have their own sensor in the engine."""
    return SEATS["engine" if way_of(control).by_computer else control.sensor]


LOWER = 10.0
"""Kelvin a switch for the lower hose is chosen below the one for the upper hose (common practice)."""
LOWER_OVER = 3.0
"""Kelvin over the thermostat up to which a set point is one for the lower hose (common practice)."""


NEAR_LIMIT = 5.0
"""Kelvin that belong between a fan's start and the limit (common practice)."""
ABOVE_THERMOSTAT, BETWEEN = 4.0, 5.5
"""Kelvin the fans stop over the thermostat, and start over that (common practice)."""


def set_for_lower_hose(package: Package) -> bool:
    """Whether the set points are those of a switch that sits behind the core."""
    on, thermostat = package.control.fan_on, package.loop.thermostat
    return bool(on and thermostat and on.si < thermostat.si + LOWER_OVER)


def low_of(control: Control, fans: int) -> tuple[float, float]:
    """Shares of full flow and power on low speed; one fan of one is none of two, so it takes a resistor."""
    return LOW["series" if control.low_speed == "one_fan" and fans < 2 else control.low_speed]


def points_of(control: Control, on: float, off: float, fans: int, day: float) -> Points:
    """The controller's points over what its sensor reads [degC].

    on, off : first set points;  fans : how many there are;  day : air at the face when a knob in the fins was set
    """
    if way_of(control).by_hand:
        return ALWAYS if control.toggle_on else NEVER
    if not seat_of(control).feels:
        return NEVER
    if control.sensor_state != "works":
        return ALWAYS if control.sensor_state == "lost_runs" else NEVER
    if way_of(control).staged:
        points = staged((on, off), (control.second_on.si, control.second_off.si), low_of(control, fans))
    elif way_of(control).varies:
        points = ramped(curve_of(control, on, off))
    else:
        points = switched(on, off)
    return tuple((knob_read(control, at, day), share, power) for at, share, power in points)


def steps_of(control: Control, on: float, off: float, fans: int, day: float) -> Steps:
    """The contacts it switches, over what its sensor reads; () where nothing switches by temperature."""
    lost = not seat_of(control).feels or control.sensor_state != "works"
    if way_of(control).by_hand or way_of(control).varies or lost:
        return ()
    if way_of(control).staged:
        steps = staged_steps((on, off), (control.second_on.si, control.second_off.si), low_of(control, fans))
    else:
        steps = switched_steps(on, off)
    return tuple((knob_read(control, step[0], day), knob_read(control, step[1], day), *step[2:]) for step in steps)


def knob_read(control: Control, outlet: float, day: float) -> float:
    """What the sensor reads [degC] where its knob was set for an outlet temperature: a probe in the fins reads the
    air too.

    The knob was turned until it came on right on that day: what the probe read then is what it switches at.
    """
    return reading_at(outlet, day, fins=seat_of(control).fins)


def curve_of(control: Control, on: float, off: float) -> tuple[tuple[float, float], ...]:
    """A variable controller's (temperature, speed share) points: as typed, or straight from slow to full."""
    typed = tuple((point.temperature.si, point.share.si) for point in control.curve)
    return typed if len(typed) >= 2 else ((off, SLOWEST), (max(on, off + 0.5), 1.0))


def request_of(control: Control, fans: int) -> tuple[float, float]:
    """Shares of flow and power the A/C asks for while it is on."""
    if not control.ac_request or way_of(control).by_hand:
        return (0.0, 0.0)
    asked = len(control.ac_fans) / fans if fans and 0 < len(control.ac_fans) < fans else 1.0
    if way_of(control).varies:
        # One controller for all fans cannot run one of them alone; a module in each can.
        share = asked if way_of(control).alone else 1.0
        return (REQUEST * share, REQUEST**3 * share)
    if way_of(control).staged:
        return low_of(control, fans)
    return (asked, asked)


def setting_air(control: Control, climate: Climate) -> float:
    """Air at the face [degC] on the day the knob was set: standing, over warm ground."""
    return control.set_on_day.si + (climate.asphalt_rise.si if climate.asphalt_rise else 0.0)


@by_identity(64)
def control_law(control: Control, climate: Climate, fans: int, ac: bool) -> Law:
    """The share of full commanded over what the sensor reads, not stacked yet; several duty cases share one."""
    on = control.fan_on.si if control.fan_on else 400.0
    off = control.fan_off.si if control.fan_off else on - 5.0
    day, request = setting_air(control, climate), request_of(control, fans) if ac else (0.0, 0.0)
    return law(points_of(control, on, off, fans, day), request, steps_of(control, on, off, fans, day))


def sensing_of(control: Control, air: float) -> Sensing:
    """What the sensor sees from its place. air [degC] at the face"""
    seat = seat_of(control)
    return Sensing(np.array(float(seat.after_core)), np.array(seat.fins), np.array(air))


CLUTCH_SHARE = 0.35
"""Share of the way from coolant to the air at the face that the air behind a working core still is from the coolant
(common practice)."""


def clutch_senses(air: float) -> Sensing:
    """What a thermal clutch feels: the air behind the core. air [degC] at the face"""
    return Sensing(np.array(0.0), np.array(CLUTCH_SHARE), np.array(air))


@by_identity(16)
def clutch_law(fan: Fan | None) -> Law:
    """How far a fan's thermal clutch is engaged over the air it feels; always where it has none."""
    if fan is None:
        return law(ALWAYS, (0.0, 0.0), ())
    at = fan.engages.si if fan.engages else 75.0
    return law(ramped(((at - SPAN / 2, 0.0), (at + SPAN / 2, 1.0))), (0.0, 0.0), ())
