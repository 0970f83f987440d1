"""Alternator and battery: what is given at a speed, what the system's voltage becomes, how long a deficit lasts."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

from keelroom.core.arrays import between
from keelroom.core.kept import by_value

CUT_IN = 1000.0
"""Alternator rpm under which nothing is given (common practice)."""
BEND = 1700.0
"""rpm over which output rises by 63 % of what is left (common practice: half the rating near 2 200 rpm, all at 6
000)."""
DYNAMO_IN, DYNAMO_FULL = 1100.0, 1900.0
"""rpm of a direct-current generator's own at which its cut-out closes, and from which its regulator holds it at its
rating (common practice: such cars discharge at idle)."""
RATED_RPM, RATED_AIR = 6000.0, 23.0
"""Where an alternator's rating is stated. Source: ISO 8854, as in the published check values."""
HOT_LOSS = 0.0028
"""Share of output lost per kelvin of its air over RATED_AIR (common practice: about 20 % at 95 degC)."""
REST = ((0.0, 0.25, 0.5, 0.75, 1.0), (11.6, 12.0, 12.25, 12.5, 12.72))
"""Volts at rest over state of charge of a 12 V lead-acid battery (common practice)."""
INNER = 0.55
"""Ohms times amp-hours of a healthy starter battery's inner resistance: 60 Ah have 9 mohm (common practice)."""
TAKES = 10.0
"""Times its inner resistance a battery shows to a charging current once its surface is full (common practice)."""
RESERVE_AMPS = 25.0
"""Draw [A] of the reserve-capacity test. Source: SAE J537."""
HOUR_RATE = 20.0
"""Hours in which a battery's stated amp-hours are drawn. Source: EN 50342."""


class Alternator(NamedTuple):
    """rating [A]; ratio: alternator turns per crank turn; air [degC] it breathes; curve: (rpm, A) as typed, () for
    the generic one;
    idle_share: of the rating hot at known_at of its own rpm, where that is known, None else; regulated [V] it holds
                while it can."""

    rating: float
    ratio: float
    air: float
    regulated: float
    curve: tuple[tuple[float, float], ...] = ()
    idle_share: float | None = None
    known_at: float = 1900.0
    dynamo: bool = False
    """a direct-current generator, whose rating is what its regulator holds it at, hot"""
    slip: float = 1.0
    """share of its belt's speed it turns at"""

    def speed(self, engine_rpm: float) -> float:
        """Its own rpm at an engine speed [rpm]."""
        return engine_rpm * self.ratio * self.slip


def hot_share(air: float) -> float:
    """Share of an alternator's output that is left in air of so many degC.

    air [degC] -40..150; 0.3..1.05. Source: common practice, about 20 % at 95 degC.
    """
    return min(max(1 - HOT_LOSS * (air - RATED_AIR), 0.3), 1.05)


def generic_share(rpm: float) -> float:
    """Share of its rating an alternator gives cold at its own speed [rpm]; 1 at RATED_RPM. (common practice)"""
    if rpm <= CUT_IN:
        return 0.0
    return (1 - math.exp(-(rpm - CUT_IN) / BEND)) / (1 - math.exp(-(RATED_RPM - CUT_IN) / BEND))


def dynamo_share(rpm: float) -> float:
    """Share of its rating a direct-current generator gives at its own speed [rpm]. (common practice)"""
    return min(max((rpm - DYNAMO_IN) / (DYNAMO_FULL - DYNAMO_IN), 0.0), 1.0)


def _cold(alternator: Alternator, rpm: float) -> float:
    """Amps cold at the alternator's own speed."""
    if len(alternator.curve) < 2:
        return alternator.rating * (dynamo_share(rpm) if alternator.dynamo else generic_share(rpm))
    points = sorted(alternator.curve)
    if rpm <= points[0][0]:
        # Below the first point it falls to nothing as the generic one does.
        base = generic_share(points[0][0])
        return points[0][1] * generic_share(rpm) / base if base > 0 else 0.0
    return between(rpm, [speed for speed, _ in points], [amps for _, amps in points])


def output(alternator: Alternator, engine_rpm: float) -> float:
    """Amps it can give hot at an engine speed [rpm].

    engine_rpm >= 0. Source: its generic curve common practice, ISO 8854 for what its rating means.
    """
    turned, hot = alternator.speed(engine_rpm), 1.0 if alternator.dynamo else hot_share(alternator.air)
    found = _cold(alternator, turned) * hot
    if alternator.idle_share is None:
        return found
    at_idle = _cold(alternator, alternator.known_at) * hot
    known = alternator.idle_share * alternator.rating
    if at_idle <= 0:
        # The curve gives nothing there, the meter says otherwise: what is known holds from that speed on.
        return max(found, known) if turned >= alternator.known_at else found
    # A known figure bends the curve at its speed and fades out towards the rated speed: a faster pulley still gives
    # more.
    fade = min(max((RATED_RPM - turned) / max(RATED_RPM - alternator.known_at, 1.0), 0.0), 1.0)
    return found * (1 + (known / at_idle - 1) * fade)


CREDIBLE_VOLTS = (6.0, 16.5)
"""Volts per 12 V battery between which a battery's line tells anything (common practice)."""


class Battery(NamedTuple):
    """capacity [Ah] over HOUR_RATE hours; state: share charged; peukert: exponent 1..1.4; reserve [s] at
    RESERVE_AMPS, None where not typed;
    cells: 1 for 12 V, 2 for 24 V, 0.5 for 6 V."""

    capacity: float
    state: float
    peukert: float
    reserve: float | None = None
    cells: float = 1.0


def rest_voltage(battery: Battery) -> float:
    """Volts with nothing drawn, by its state of charge.

    [V]; state 0..1. Source: common practice, lead-acid at rest.
    """
    return battery.cells * between(battery.state, *REST)


def inner_resistance(battery: Battery) -> float:
    """Ohms while it gives: higher the emptier it is.

    [ohm]. Source: common practice, 9 mohm for 60 Ah.
    """
    return battery.cells * INNER / battery.capacity * (1 + 1.5 * (1 - battery.state) ** 2)


def battery_current(battery: Battery, voltage: float) -> float:
    """Amps into the battery at `voltage` [V] of the system; negative where it gives.

    Source: open voltage behind a resistance (textbook).
    """
    return _taken(voltage - rest_voltage(battery), inner_resistance(battery))


def _taken(over: float, ohms: float) -> float:
    """Amps into a battery `over` its rest voltage [V]."""
    return over / (TAKES * ohms) if over > 0 else over / ohms


def discharge_time(battery: Battery, current: float) -> float:
    """Seconds until a battery is down at a steady `current` [A]; inf where none is drawn.

    Peukert: t = H (C / (I H))**k over its stated hours, or from reserve capacity t = RC (25 / I)**k where that was
             typed;
    either times its state of charge.  Source: Peukert (1897), SAE J537
    """
    if current <= 0:
        return math.inf
    if battery.reserve is not None:
        return battery.state * battery.reserve * math.pow(RESERVE_AMPS / current, battery.peukert)
    return battery.state * HOUR_RATE * 3600 * math.pow(battery.capacity / (current * HOUR_RATE), battery.peukert)


class Balance(NamedTuple):
    """The system with everything on. voltage [V] at the battery; available: what the alternator could give, wanted,
    battery [A] (battery negative where it gives); lasts [s] until it is down, inf where it is not going down."""

    voltage: float
    available: float
    wanted: float
    battery: float
    lasts: float

    @property
    def short(self) -> float:
        """Amps the alternator lacks."""
        return max(-self.battery, 0.0)


LOWEST = 6.0
ROUNDS = 60


def balance(available: float, regulated: float, battery: Battery, wanted: Callable[[float], float]) -> Balance:
    """Where what the alternator can give meets what is wanted.

    available [A]; regulated [V];  wanted: amps of all loads at a voltage [V]
    It holds its voltage while it can; then the voltage sinks until the battery takes less, and at last gives.
    Source: current balance at the battery’s posts; false position held in by halving.
    """

    rest, ohms = rest_voltage(battery), inner_resistance(battery)

    def left(voltage: float) -> float:
        return available - wanted(voltage) - _taken(voltage - rest, ohms)

    if left(regulated) >= 0:
        amps = battery_current(battery, regulated)
        need = wanted(regulated)
        return Balance(regulated, available, need, amps, math.inf)
    low, high = LOWEST * battery.cells, regulated
    ends = (left(low), left(high))
    voltage = low
    for _ in range(ROUNDS):
        # False position, held in by halving: a battery's line is steep on one side and flat on the other.
        share = ends[0] / (ends[0] - ends[1]) if ends[0] > 0 else 0.0
        voltage = low + (high - low) * min(max(share, 0.02), 0.98)
        value = left(voltage)
        if abs(value) < 1e-7 or high - low < 1e-10:
            break
        low, high, ends = (voltage, high, (value, ends[1])) if value > 0 else (low, voltage, (ends[0], value))
        middle = (low + high) / 2
        at = left(middle)
        low, high, ends = (middle, high, (at, ends[1])) if at > 0 else (low, middle, (ends[0], at))
    amps = battery_current(battery, voltage)
    return Balance(voltage, available, wanted(voltage), amps, discharge_time(battery, -amps))


def alone(available: float, volts: tuple[float, float], wanted: Callable[[float], float]) -> float:
    """Volts at which what is wanted is what an alternator gives with a flat battery beside it: between the lowest that
    anything runs at and what it holds while it can. available [A];  wanted: amps at a voltage [V], rising.

    Source: current balance, by halving.
    """
    low, high = volts
    if wanted(high) <= available:
        return high
    for _ in range(ROUNDS):
        middle = (low + high) / 2
        low, high = (middle, high) if wanted(middle) < available else (low, middle)
    return low


def top_speed(alternator: Alternator, redline: float) -> float:
    """Alternator rpm at the engine's redline [rpm].

    Source: definition.
    """
    return alternator.ratio * redline


@by_value(64)
def ratio_for(alternator: Alternator, wanted: float, idle_rpm: float, most: float = 6.0) -> float | None:
    """The pulley ratio at which it gives `wanted` [A] hot at idle; None where no ratio up to `most` does.

    Source: bisection on `output`, to 1e-8.
    """

    def enough(ratio: float) -> bool:
        return output(alternator._replace(ratio=ratio), idle_rpm) >= wanted

    return _least(enough, (alternator.ratio, most), 1e-8)


@by_value(64)
def idle_for(alternator: Alternator, wanted: float, idle_rpm: float, most: float) -> float | None:
    """The idle speed [rpm] over `idle_rpm` at which it gives `wanted` [A] hot; None where none up to `most` does.

    most [rpm]. Source: bisection on `output`, to 1e-4 rpm.
    """
    return _least(lambda rpm: output(alternator, rpm) >= wanted, (idle_rpm, most), 1e-4)


def _least(enough: Callable[[float], bool], between: tuple[float, float], near: float) -> float | None:
    """The least value between two that is enough, at most `near` over it; None where the largest is not."""
    low, high = between
    if not enough(high):
        return None
    while high - low > near:
        middle = (low + high) / 2
        low, high = (low, middle) if enough(middle) else (middle, high)
    return high


def rating_for(alternator: Alternator, wanted: float, idle_rpm: float) -> float | None:
    """The rating [A] at which one of its kind gives `wanted` [A] hot at idle; None where it gives nothing at that
    speed.

    Source: output goes with the rating of its kind.
    """
    now = output(alternator, idle_rpm)
    return alternator.rating * wanted / now if now > 0 else None
