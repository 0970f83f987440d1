"""Noise of small axial fans, for comparing them with each other and with an engine that idles."""

from __future__ import annotations

import math
from typing import NamedTuple

SPECIFIC = 48.0
"""[dB] specific sound power of a propeller fan, all octaves together, for 1 L/s at 1 kPa (FAN_SOUND, from memory,
±4)."""
TONE = 5.0
"""[dB] the blades' tone adds in its octave (FAN_SOUND, from memory)."""
STRAIGHT = 4.0
"""[dB] a straight blade is louder than a curved one of the same duty (common practice: 3 to 5)."""
BLADES = 7
HUSHED, EQUAL = 10.0, 3.0
"""[dB] under another sound at which one is drowned by it, and about it at which it is noticeable."""
ENGINE_IDLE, CAB_LESS = 68.0, 22.0
"""[dB] of an engine idling a yard off, hood shut, and how much less of what is ahead reaches the cab (common
practice, ±5)."""


class Heard(NamedTuple):
    """[dB] at a distance ahead and in the cab; the tone its blades make [Hz]."""

    ahead: float
    cab: float
    tone: float


def sound_power(flow: float, pressure: float, straight: bool) -> float:
    """[dB] of one fan. flow [m3/s], pressure [Pa] at its duty; 0 where it hardly moves air. Source: FAN_SOUND."""
    if flow < 1e-4 or pressure < 0.1:
        return 0.0
    return (
        SPECIFIC
        + 10 * math.log10(flow * 1e3)
        + 20 * math.log10(pressure / 1e3)
        + TONE
        + (STRAIGHT if straight else 0.0)
    )


def heard(levels: tuple[float, ...], distance: float, rpm: float) -> Heard:
    """Several fans at a distance [m] over a reflecting ground. levels [dB] of sound power; rpm of the fans.

    Source: hemispherical spreading; CAB_LESS common practice.
    """
    total = sum(10 ** (level / 10) for level in levels if level > 0)
    if total <= 0:
        return Heard(0.0, 0.0, 0.0)
    ahead = 10 * math.log10(total) - 10 * math.log10(2 * math.pi * distance**2)
    return Heard(ahead, max(ahead - CAB_LESS, 0.0), BLADES * rpm / 60)


def beside(level: float, other: float) -> str:
    """How a sound is heard beside another. Source: masking, common practice."""
    return (
        "drowned"
        if level < other - HUSHED
        else "hardly noticeable"
        if level < other - EQUAL
        else "noticeable"
        if level < other + EQUAL
        else "loud"
    )
