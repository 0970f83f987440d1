"""Motors of fans and pumps: what a label means, and speed, current and start at the voltage that reaches them."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.errors import InputError

STALL = 5.0
"""Stalled over running current of a brushed permanent-magnet fan motor at its rated voltage (common practice, 4 to
6)."""
START = 3.0
"""Starting over running current of a brushed motor switched straight on, the wires in the way (common practice)."""
SOFT_START = 1.2
"""The same with a soft start or a controller that ramps (common practice)."""
HOLDS_FROM = 0.72
"""Share of its rated voltage from which on a brushless controller holds its speed (common practice: 9 of 12.5 V)."""
CONTRADICTS = 0.08
"""Share by which a label's amps may miss its watts over its volts and still be rounding."""


class Rating(NamedTuple):
    """A motor's label made whole: volts, watts, amps. told: what was worked out; contradiction: amps its watts would
    give, None where they agree."""

    voltage: float
    power: float
    current: float
    told: str
    contradiction: float | None = None


def rating(voltage: float | None, power: float | None, current: float | None) -> Rating:
    """Any two of rated volts, watts and amps give the third; all three are compared.

    Raises : InputError where fewer than two are known or one is not more than 0
    [V], [W], [A], each > 0 or None. Source: watts are volts times amps.
    """
    for name, value, unit in (("voltage", voltage, "V"), ("power", power, "W"), ("current", current, "A")):
        if value is not None and value <= 0:
            raise InputError(
                "motor_label",
                f"A motor's rated {name} must be more than 0 {unit}; 0 V is no supply",
                field=name,
                value=value,
            )
    if voltage and power:
        found = power / voltage
        if current is None:
            return Rating(voltage, power, found, "current")
        off = abs(current - found) / found > CONTRADICTS
        return Rating(voltage, power, current, "", found if off else None)
    if voltage and current:
        return Rating(voltage, voltage * current, current, "power")
    if power and current:
        return Rating(power / current, power, current, "voltage")
    raise InputError("motor_label", "Two of rated volts, watts and amps are needed, such as 180 W at 12 V")


def motor_speed(voltage: Floats, rated_voltage: Floats, brushless: Floats) -> Floats:
    """Share of rated speed at `voltage` [V] at the motor, any shape.

    Brushed: back-voltage in proportion to speed, drop over its own resistance in proportion to the load's torque, which
    goes with speed squared. Brushless: its controller holds speed while it has voltage in hand, then follows it.
    Source : permanent-magnet motor equation (textbook), FAN_LAWS, STALL
    """
    ratio = np.maximum(voltage / rated_voltage, 0.0)
    back = 1 - 1 / STALL
    brushed = STALL / 2 * (np.sqrt(back**2 + 4 / STALL * ratio) - back)
    return np.where(brushless > 0, np.minimum(ratio / HOLDS_FROM, 1.0), brushed)


def motor_power(power: Floats, speed: Floats, ratio: Floats, brushless: Floats) -> Floats:
    """Electrical power [W] at a speed share and a share `ratio` of the rated voltage.

    Brushed: current goes with torque, so with speed squared (FAN_LAWS). Brushless: what the shaft takes, speed cubed.
    Source: FAN_LAWS; a brushed motor’s current goes with its torque.
    """
    return power * np.where(brushless > 0, speed**3, speed**2 * ratio)


class Motor(NamedTuple):
    """One motor: rated volts [V], watts [W]; brushless, soft: whether it starts softly."""

    voltage: float
    power: float
    brushless: bool = False
    soft: bool = False

    @property
    def current(self) -> float:
        """Running current [A] at its rated voltage."""
        return self.power / self.voltage


def speed_at(motor: Motor, voltage: float) -> float:
    """Share of rated speed at `voltage` [V] at the motor.

    voltage >= 0. Source: back-voltage and the drop over the motor’s own resistance make up the volts.
    """
    ratio = max(voltage / motor.voltage, 0.0)
    if motor.brushless:
        return min(ratio / HOLDS_FROM, 1.0)
    back = 1 - 1 / STALL
    return STALL / 2 * (math.sqrt(back * back + 4 / STALL * ratio) - back)


def current_at(motor: Motor, voltage: float) -> float:
    """Running current [A] at `voltage` [V] at the motor: a brushed one takes less as it sinks, a brushless one more.

    Source: FAN_LAWS with `speed_at`.
    """
    speed = speed_at(motor, voltage)
    if motor.brushless:
        return motor.power * speed**3 / voltage if voltage > 0 else 0.0
    return motor.current * speed * speed


def start_current(motor: Motor, voltage: float) -> float:
    """Current [A] while it starts at `voltage` [V].

    Source: common practice, START times the running current.
    """
    return current_at(motor, voltage) * (SOFT_START if motor.soft or motor.brushless else START)


def stall_current(motor: Motor, voltage: float) -> float:
    """Current [A] with the blade held; a brushless controller limits it to what it starts with.

    Source: volts over the motor’s own resistance.
    """
    return start_current(motor, voltage) if motor.brushless else STALL * motor.current * voltage / motor.voltage


def start_time(motor: Motor) -> float:
    """Seconds its start lasts: a small blade is up to speed sooner (common practice)."""
    return 0.15 + 0.35 * min(motor.power / 200.0, 1.0)
