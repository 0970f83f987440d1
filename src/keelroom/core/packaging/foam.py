"""Foam strips: how far they are squeezed in their gap, and how hard they push back."""

from __future__ import annotations

from keelroom.units import INCH

AT_QUARTER = {"soft": 8e3, "medium": 24e3, "firm": 49e3}
"""[Pa] at a quarter squeezed, within the grades 2A0, 2A1, 2A2 of ASTM D1056 (under 2, 2–5, 5–9 psi), from memory."""
LEAST, MOST = 0.20, 0.50
"""Squeeze under which a strip leaks where sheet waves, and over which it takes a set and pushes panels out of shape
(common practice)."""
WANTED = 0.35
STRIP_WIDE = INCH / 2
"""[m] a strip is taken to be wide where it bears."""


def squeeze(free: float, gap: float) -> float:
    """Share by which foam of a free thickness is squeezed in a gap [m]; negative where it does not reach across.

    Source: definition.
    """
    return 1 - gap / free


def push(firmness: str, share: float) -> float:
    """Pressure [Pa] it pushes back with, squeezed by a share 0..0.9: the gas in closed cells, through the grade's
    quarter point.

    Source: Gibson & Ashby's gas term ε/(1 − ε), from memory; AT_QUARTER.
    """
    held = min(max(share, 0.0), 0.9)
    return AT_QUARTER[firmness] * 3 * held / (1 - held)


def free_for(gap: float) -> float:
    """Free thickness [m] that is squeezed by WANTED in a gap [m].

    Source: definition.
    """
    return gap / (1 - WANTED)


def left_open(free: float | None, gap: float) -> float:
    """What of a gap [m] stays open with foam of a free thickness in it; all of it without.

    Source: definition.
    """
    return gap if free is None else max(gap - free, 0.0)
