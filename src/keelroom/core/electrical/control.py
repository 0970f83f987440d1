"""Who decides when a fan runs: what a sensor sees from its place, and the share of full a controller commands."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Bools, Floats

FIN_SHARE = 0.30
"""Share of the way from coolant to the air at the face that a probe pushed between the fins reads (common practice)."""
LOW = {"one_fan": (0.5, 0.5), "series": (0.55, 0.40), "winding": (0.6, 0.35), "merged": (1.0, 1.0), "tied": (1.0, 1.0)}
"""Shares of full flow and power on low speed: one of two fans, a series resistor, a winding of its own, both stages
on all motors (common practice)."""
LEAST_SPAN = 0.5
"""Kelvin between on and off under which a contact would chatter."""


class Sensing(NamedTuple):
    """What a sensor reads, (n,): outlet temperature less after_core of the drop over the core less fins of the way to
    the air.

    after_core : 1 in the lower hose, else 0;  fins : FIN_SHARE for a probe in the fins, else 0;  air [degC] at the face
    """

    after_core: Floats
    fins: Floats
    air: Floats


KNOTS = 9
"""Points a controller's curve is kept in."""


STAGES = 2
"""Contacts a controller switches at most."""
ABSENT = 1e3
"""[degC] off and on of a stage that is not there."""


class SpeedStage(NamedTuple):
    """A contact with hysteresis: it closes at on and opens at off [degC read]; shares of flow and power under and
    over it.

    As one controller's: floats.  In a law: (n, STAGES), absent ones at ABSENT.  As the one that is cycling: (n,),
    absent where none is.
    """

    off: Floats
    on: Floats
    below: Floats
    below_power: Floats
    above: Floats
    above_power: Floats

    @property
    def present(self) -> Bools:
        """Whether there is one."""
        there: Bools = self.on < ABSENT
        return there


Steps = tuple[tuple[float, float, float, float, float, float], ...]
"""a controller's contacts, each as the fields of Stage"""


class Law(NamedTuple):
    """Share of full flow commanded over the temperature the sensor reads.

    temperatures, shares, powers : (n, KNOTS) [degC] rising, shares of flow and of electrical power 0..1; straight
    between, level past the ends
    least, least_power : (n,) shares commanded whatever the temperature (A/C request)
    stages : its contacts; none where speed varies
    """

    temperatures: Floats
    shares: Floats
    powers: Floats
    least: Floats
    least_power: Floats
    stages: SpeedStage


Points = tuple[tuple[float, float, float], ...]
"""(temperature [degC], share of flow, share of power)"""


def law(points: Points, least: tuple[float, float] = (0.0, 0.0), steps: Steps = ()) -> Law:
    """One controller's law, not stacked yet, from at most KNOTS points.

    least : share of flow and of power always commanded;  steps : its contacts, at most STAGES
    Temperatures [degC], shares 0..1. Source: definition.
    """
    found: list[tuple[float, float, float]] = []
    for temperature, share, power in sorted(points)[:KNOTS]:
        found.append((max(temperature, found[-1][0] + 1e-3) if found else temperature, share, power))
    while len(found) < KNOTS:
        found.append((found[-1][0] + 1.0, *found[-1][1:]))
    temperatures, shares, powers = (np.array(column) for column in zip(*found, strict=True))
    filled = [*steps, *[(ABSENT, ABSENT, 0.0, 0.0, 0.0, 0.0)] * (STAGES - len(steps))]
    stages = SpeedStage(*(np.array(column) for column in zip(*filled, strict=True)))
    return Law(temperatures, shares, powers, np.array(least[0]), np.array(least[1]), stages)


def risen_share(whole: Law, reading: Floats) -> tuple[Floats, Floats, Bools]:
    """Shares of flow and power (n,) with the contacts on that a rising reading (n,) has passed, and where there are
    contacts at all.

    reading [degC]. Source: definition.
    """
    stages = whole.stages
    passed = stages.on <= reading[:, None] + 1e-9
    share, power = (np.where(passed, above, 0.0).max(axis=1) for above in (stages.above, stages.above_power))
    return share, power, np.asarray(stages.present.any(axis=1))


def cycling(whole: Law, reading: Floats) -> SpeedStage:
    """The contact (n,) that opens and closes at a mean reading (n,): its off and on lie round it, and nothing else
    keeps it on.

    reading [degC]. Source: definition.
    """
    stages = whole.stages
    inside = (stages.off < reading[:, None]) & (reading[:, None] < stages.on) & (stages.above > whole.least[:, None])
    last = STAGES - 1 - np.argmax(inside[:, ::-1], axis=1)
    rows = np.arange(len(last))
    found = SpeedStage(*(value[rows, last] for value in stages))
    there = inside.any(axis=1)
    return found._replace(off=np.where(there, found.off, ABSENT), on=np.where(there, found.on, ABSENT))


def switched(on: float, off: float) -> Points:
    """A contact with hysteresis: the mean over its on and off times rises between off and on [degC].

    Source: the mean over a contact’s times, straight between its points.
    """
    return ((off, 0.0, 0.0), (max(on, off + LEAST_SPAN), 1.0, 1.0))


def switched_steps(on: float, off: float) -> Steps:
    """The same contact as what it switches.

    on, off [degC]. Source: definition.
    """
    return ((off, max(on, off + LEAST_SPAN), 0.0, 0.0, 1.0, 1.0),)


def staged_steps(first: tuple[float, float], second: tuple[float, float], low: tuple[float, float]) -> Steps:
    """Two contacts as what they switch, (on, off) [degC] each: none to low, low to all.

    Source: definition.
    """
    (on, off), (second_on, second_off) = first, second
    return (
        (off, max(on, off + LEAST_SPAN), 0.0, 0.0, *low),
        (second_off, max(second_on, second_off + LEAST_SPAN), *low, 1.0, 1.0),
    )


def staged(first: tuple[float, float], second: tuple[float, float], low: tuple[float, float]) -> Points:
    """Two contacts, (on, off) [degC] each: the first alone gives the shares `low` of flow and power, both give all.

    Source: definition; LOW common practice.
    """
    steps = [(off, max(on, off + LEAST_SPAN)) for on, off in (first, second)]

    def at(temperature: float) -> tuple[float, float, float]:
        one, two = (min(max((temperature - off) / (on - off), 0.0), 1.0) for off, on in steps)
        return (temperature, *(share * one + (1 - share) * two for share in low))  # type: ignore[return-value]

    return tuple(at(temperature) for temperature in sorted({end for step in steps for end in step}))


def ramped(curve: tuple[tuple[float, float], ...]) -> Points:
    """A controller that sets the speed by (temperature [degC], share) points: power goes with the cube of speed
    (FAN_LAWS).

    Nothing under its first point. Each stretch is halved, for power is no straight line over it.
    Shares 0..1. Source: FAN_LAWS for power.
    """
    points = sorted(curve)[: KNOTS // 2]
    found = [(points[0][0] - LEAST_SPAN, 0.0, 0.0)] if points[0][1] > 0 else []
    for k, (temperature, share) in enumerate(points):
        if k:
            before, was = points[k - 1]
            middle = (was + share) / 2
            found.append(((before + temperature) / 2, middle, middle**3))
        found.append((temperature, share, share**3))
    return tuple(found)


def outlet_for(reading: float, air: float, drop: float = 0.0, fins: float = 0.0) -> float:
    """Engine-outlet temperature [degC] at which a sensor reads `reading` [degC].

    air [degC] at the face;  drop [K] of the coolant over the core where it sits behind it;  fins : FIN_SHARE for a
    probe in the fins
    Source: FIN_SHARE common practice.
    """
    return (reading - fins * air) / (1 - fins) + drop


def reading_at(outlet: float, air: float, drop: float = 0.0, fins: float = 0.0) -> float:
    """What a sensor reads [degC] at an engine-outlet temperature: the inverse of `outlet_for`.

    Source: FIN_SHARE common practice.
    """
    at = outlet - drop
    return at - fins * (at - air)
