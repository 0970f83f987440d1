"""How loud the fans of a build are, at a distance ahead of the grille and in the cab, beside an engine that idles."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.assess.figures.assessment import CaseFigures
from keelroom.assess.fit.coolers import named
from keelroom.assess.inputs.coolers import own_curve
from keelroom.core.air.fan import fan_pressure
from keelroom.core.arrays import stack
from keelroom.core.coolers.noise import (
    IDLE_IN_CAB,
    LISTENED_AT,
    STRAIGHT,
    Octaves,
    beside,
    blade_tone,
    heard,
    sound_power,
    weighted,
)
from keelroom.document.schema.build import Build

DISTANCE = LISTENED_AT
"""[m] ahead of the grille at which fans are listened to: 3 1/2 ft (common practice)."""
RPM, RPM_SIZE, RPM_FALLS = 2700.0, 0.3048, 0.8
"""Speed of a 12 in fan, and how it falls with the diameter (common practice: tips near 40 m/s)."""

COMPARED = (
    f"Fans as they run standing, by the handbook's octaves; an engine idling is some {weighted(IDLE_IN_CAB):.0f} dB(A) "
    "in the cab. Good to ±5 dB, and fans measured on cars lie rather under it: for comparing, not for a certificate."
)


class Loud(NamedTuple):
    """One fan set. ahead, cab [dB(A)]; tone [Hz] of its blades;  straight [dB] what curved blades would give less, 0
    where they are;

    idling : how it is heard in the cab beside the engine
    """

    name: str
    ahead: float
    cab: float
    tone: float
    straight: float
    idling: str


def loudness(build: Build, figures: CaseFigures, distance: float = DISTANCE) -> tuple[Loud, ...]:
    """Every fan set of the build as it runs in a duty case, at a distance [m]."""
    found = []
    fans = {fan.id: fan for fan in build.package.fans}
    levels, sizes, straight = [], [], False
    for fan in figures.fans:
        part = fans.get(fan.fan_id)
        if part is None:
            continue
        size = part.diameter.si if part.diameter else 0.3
        levels.append(sound_power(fan.flow_at_fan, fan.pressure, part.blade == "straight", _tone(size)))
        sizes.append(size)
        straight = straight or part.blade == "straight"
    if levels:
        found.append(
            _loud(
                "Cooling fans" if len(levels) > 1 else "Cooling fan",
                levels,
                max(sizes),
                distance,
                STRAIGHT if straight else 0.0,
            )
        )
    told = {cooler.cooler_id: cooler for cooler in figures.coolers}
    for cooler in build.package.coolers:
        curve, flow = own_curve(cooler), told.get(cooler.id)
        if curve is None or flow is None or cooler.stands == "ahead" or cooler.fan_diameter is None:
            continue
        each = flow.flow / 1.15 / cooler.fans.si
        one = np.array([[1.0]])
        rise, _ = fan_pressure(stack([stack([curve])]), np.array([[each]]), one, 1.15 * one)
        size = cooler.fan_diameter.si
        level = sound_power(each, max(float(rise[0, 0]), 0.0), cooler.blade == "straight", _tone(size))
        found.append(
            _loud(
                f"{named(cooler)} fan",
                [level] * int(cooler.fans.si),
                size,
                distance,
                STRAIGHT if cooler.blade == "straight" else 0.0,
            )
        )
    return tuple(found)


def _tone(size: float) -> float:
    """[Hz] of the blades of a fan of a diameter [m]."""
    return blade_tone(RPM * (RPM_SIZE / max(size, 0.05)) ** RPM_FALLS)


def _loud(name: str, levels: list[Octaves], size: float, distance: float, straight: float) -> Loud:
    at = heard(levels, distance, _tone(size))
    return Loud(name, at.ahead, at.cab, at.tone, straight, beside(at.over_idle))
