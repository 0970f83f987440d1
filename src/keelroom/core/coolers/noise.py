"""Noise of small axial fans in octaves, for comparing them with each other and with an engine that idles."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.core.rules import CFM

Octaves = tuple[float, ...]
"""[dB] in the octaves BANDS."""
BANDS = (63, 125, 250, 500, 1000, 2000, 4000, 8000)
"""[Hz]"""
SPECIFIC = (48.0, 51.0, 58.0, 56.0, 55.0, 52.0, 46.0, 42.0)
"""[dB] specific sound power of a propeller fan by octave, at 1 cfm and 1 in of water (FAN_SOUND, from memory, ±4)."""
INCH_OF_WATER = 249.089
"""[Pa]"""
TONE = 5.0
"""[dB] the blades' tone adds in its octave (FAN_SOUND, from memory)."""
STRAIGHT = 4.0
"""[dB] a straight blade is louder than a curved one of the same duty (common practice: 3 to 5)."""
A_WEIGHT = (-26.2, -16.1, -8.6, -3.2, 0.0, 1.2, 1.0, -1.1)
"""[dB] IEC 61672-1, A, at the octaves."""
BLADES = 7
HUSHED, EQUAL = 10.0, 3.0
"""[dB] under another sound in every octave at which one is drowned by it, and about it at which it is noticeable."""
INTO_CAB = (12.0, 16.0, 23.0, 30.0, 34.0, 38.0, 42.0, 46.0)
"""[dB] less of a fan that is heard in the cab than at LISTENED_AT ahead of the grille: bulkhead and glass (common
practice, ±5)."""
LISTENED_AT = 1.067
"""[m] ahead of the grille, 3 1/2 ft (common practice)."""
IDLE_IN_CAB = (72.0, 63.0, 53.0, 47.0, 41.0, 36.0, 30.0, 24.0)
"""[dB] in the cab from an engine that idles: its firing through the mounts, most of it low; some 52 dB(A) (common
practice: 45 in a quiet saloon to 58 in a tuned car)."""


class Heard(NamedTuple):
    """[dB(A)] at a distance ahead and in the cab; over an idling engine in the cab [dB] in the octave it stands out
    most; the tone its blades make [Hz]."""

    ahead: float
    cab: float
    over_idle: float
    tone: float


def sound_power(flow: float, pressure: float, straight: bool, tone: float) -> Octaves:
    """[dB] of one fan by octave; none where it hardly moves air. flow [m3/s], pressure [Pa] at its duty; tone [Hz] of
    its blades. Source: FAN_SOUND."""
    if flow < 1e-4 or pressure < 0.1:
        return ()
    duty = 10 * math.log10(flow / CFM) + 20 * math.log10(pressure / INCH_OF_WATER) + (STRAIGHT if straight else 0.0)
    sings = min(range(len(BANDS)), key=lambda band: abs(math.log(max(tone, 1.0) / BANDS[band])))
    return tuple(level + duty + (TONE if band == sings else 0.0) for band, level in enumerate(SPECIFIC))


def weighted(levels: Octaves) -> float:
    """[dB(A)] of a spectrum. Source: A_WEIGHT, energies added."""
    return _sum([level + weight for level, weight in zip(levels, A_WEIGHT, strict=True)])


def blade_tone(rpm: float) -> float:
    """[Hz] the blades of a fan sing at. Source: definition."""
    return BLADES * rpm / 60


def heard(fans: list[Octaves], distance: float, tone: float) -> Heard:
    """Several fans by their sound power, at a distance [m] over a reflecting ground. tone [Hz] of their blades.

    Source: hemispherical spreading; what reaches the cab common practice.
    """
    there = [fan for fan in fans if fan]
    if not there:
        return Heard(0.0, 0.0, -math.inf, 0.0)
    whole = [_sum(levels) for levels in zip(*there, strict=True)]
    cab = [level - _spread(LISTENED_AT) - less for level, less in zip(whole, INTO_CAB, strict=True)]
    over = max(level - engine for level, engine in zip(cab, IDLE_IN_CAB, strict=True))
    ahead = weighted(tuple(level - _spread(distance) for level in whole))
    return Heard(ahead, max(weighted(tuple(cab)), 0.0), over, tone)


def beside(over: float) -> str:
    """How a sound is heard that lies so far [dB] over another in the octave it stands out most. Source: masking,
    common practice."""
    return (
        "drowned"
        if over < -HUSHED
        else "hardly noticeable"
        if over < -EQUAL
        else "noticeable"
        if over < EQUAL
        else "loud"
    )


def _sum(levels: list[float] | Octaves) -> float:
    return 10 * math.log10(sum(10 ** (level / 10) for level in levels))


def _spread(distance: float) -> float:
    return 10 * math.log10(2 * math.pi * distance**2)
