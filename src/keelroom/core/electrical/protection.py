"""Fuses, relays and connectors: standard sizes, how long a fuse stands a start, what heat under the hood leaves of a
rating."""

from __future__ import annotations

import itertools
import math
from typing import NamedTuple

from keelroom.core.electrical.motor import Motor, start_time

Curve = tuple[tuple[float, float, float], ...]
"""Overload, least and longest seconds until it opens, with rising overload."""


class FuseForm(NamedTuple):
    """One form of fuse: as it is chosen and as it is called in a sentence; standard ratings [A]; how long it holds."""

    title: str
    words: str
    sizes: tuple[float, ...]
    opens: Curve


FUSES: dict[str, FuseForm] = {
    "blade": FuseForm(
        "Blade",
        "blade",
        (1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30, 35, 40),
        ((1.10, 360e3, math.inf), (1.35, 0.75, 600.0), (2.00, 0.15, 5.0), (3.50, 0.04, 0.5)),
    ),
    "large_blade": FuseForm(
        "Large blade",
        "large blade",
        (20, 30, 40, 50, 60, 70, 80),
        ((1.10, 360e3, math.inf), (1.35, 60.0, 1800.0), (2.00, 2.0, 60.0), (3.50, 0.2, 7.0), (6.00, 0.04, 1.0)),
    ),
    "cartridge": FuseForm(
        "Cartridge",
        "cartridge",
        (20, 25, 30, 40, 50, 60),
        ((1.10, 360e3, math.inf), (1.35, 60.0, 1800.0), (2.00, 4.0, 60.0), (3.50, 0.3, 7.0), (6.00, 0.04, 1.0)),
    ),
    "bolt_down": FuseForm(
        "Bolt-down",
        "bolt-down",
        (30, 40, 50, 60, 70, 80, 100, 125, 150, 175, 200, 225, 250, 300, 350, 400, 450, 500),
        ((1.10, 14.4e3, math.inf), (1.35, 120.0, 1800.0), (2.00, 1.0, 15.0), (3.50, 0.3, 5.0), (6.00, 0.1, 1.0)),
    ),
    "breaker": FuseForm(
        "Circuit breaker, resets itself",
        "breaker that resets itself",
        (10, 15, 20, 25, 30, 35, 40, 50),
        ((1.10, 360e3, math.inf), (1.35, 30.0, 3600.0), (2.00, 5.0, 60.0), (3.50, 1.0, 12.0), (6.00, 0.3, 4.0)),
    ),
}
"""Ratings: ISO 8820-3, -4 and -5; bolt-down over 150 A (type SF51) from memory. Times: ISO 8820-3 (blade, large
blade), -4 (cartridge),
-5 (bolt-down), SAE J553 (breakers), all from memory."""
FORMS = tuple(name for name in FUSES if name != "breaker")
"""What melts, the quickest first: a breaker that resets itself is never advised."""
CONTINUOUS = 1.25
"""A fuse is to be at least so many times the current that runs on."""
START_HELD = 1.5
"""Times its start's length a fuse of middling speed must stand the starting current."""
FUSE_LOSS = 0.075
"""Volts lost in a fuse at its rated current (from memory, 60 to 90 mV)."""
CONTACT, TERMINAL = 3e-3, 1.5e-3
"""Ohms of a relay's contact and of one crimped, plugged terminal (common practice)."""
RELAY_AIR, RELAY_HOT, HOT_SHARE = 23.0, 85.0, 2 / 3
"""A relay's rating holds at RELAY_AIR degC; at RELAY_HOT this share is left (30 A is about 20 A, from memory)."""
RELAY_MAKES = 2.5
"""Times its rating a contact may close on for the length of a start (common practice)."""
PARALLEL = 1.5
"""Two contacts in parallel against one: they never close together nor share evenly (common practice)."""
TERMINAL_LIMIT = 120.0
"""[degC] a crimped terminal's spring keeps its grip up to (common practice)."""
RELAY_MARGIN = 1.15
"""Times what runs on that a relay chosen anew is to carry where it sits: 30 A relays for 15 A fans (common
practice)."""
RELAYS = (20.0, 30.0, 40.0, 50.0, 70.0)
"""Relay ratings [A] on sale."""
UNFUSED = 0.18
"""[m] of wire between source and fuse that is accepted without one: 7 in (common practice, after 33 CFR 183.455)."""


def fuse_sizes(form: str) -> tuple[float, ...]:
    """Standard ratings [A] of one form of fuse.

    form: key of FUSES; KeyError else. Source: ISO8820.
    """
    return FUSES[form].sizes


def neighbours(value: float, sizes: tuple[float, ...]) -> tuple[float, ...]:
    """The standard sizes next to a value: the one under it and the one over it.

    Sizes rising, [A].
    """
    under = [size for size in sizes if size < value - 1e-9]
    over = [size for size in sizes if size > value + 1e-9]
    return tuple(under[-1:] + over[:1])


def blow_times(overload: float, form: str = "blade") -> tuple[float, float]:
    """Least and longest seconds until a fuse of a form opens at so many times its rating; straight between points in
    logarithms.

    [s]; overload > 0. Source: ISO8820, from memory.
    """
    curve = FUSES[form].opens
    if overload <= curve[0][0]:
        return (curve[0][1], math.inf)
    for (low, *first), (high, *last) in itertools.pairwise(curve):
        if overload <= high:
            share = math.log(overload / low) / math.log(high / low)
            ends = ((a if math.isfinite(a) else 3.6e6, b) for a, b in zip(first, last, strict=True))
            least, longest = (math.exp(math.log(a) + share * (math.log(b) - math.log(a))) for a, b in ends)
            return (least, longest)
    # Past the last point the let-through energy is what counts.
    scale = (curve[-1][0] / overload) ** 2
    return (curve[-1][1] * scale, curve[-1][2] * scale)


class Starting(NamedTuple):
    """A start as a fuse sees it: current [A] and seconds."""

    current: float
    seconds: float


def starting(motors: tuple[Motor, ...], running: float, starts: tuple[float, ...]) -> Starting:
    """The worst start of a circuit: all together.  running [A] of what is no motor;  starts [A] of each motor

    Source: definition, all together being the worst.
    """
    return Starting(running + sum(starts), max((start_time(motor) for motor in motors), default=0.0))


def stands(fuse: float, start: Starting, form: str = "blade") -> str:
    """'yes', 'barely' (a fast one of its kind opens) or 'no': whether a fuse [A] of a form stands a start.

    Source: ISO8820 by `blow_times`; START_HELD common practice.
    """
    least, longest = blow_times(start.current / fuse, form)
    if least >= start.seconds:
        return "yes"
    return "barely" if math.sqrt(least * min(longest, 3.6e6)) >= START_HELD * start.seconds else "no"


def fuse_for(continuous: float, start: Starting, form: str) -> float | None:
    """The smallest standard fuse [A] of a form that runs on and stands the start; None where none is large enough.

    Source: ISO8820; CONTINUOUS common practice.
    """
    return next(
        (size for size in fuse_sizes(form) if size >= CONTINUOUS * continuous and stands(size, start, form) != "no"),
        None,
    )


def relay_share(ambient: float) -> float:
    """Share of its rating a relay keeps at `ambient` [degC]; straight through its two known points, 0.2 at least.

    Source: common practice, 30 A at 23 degC is about 20 A at 85.
    """
    return min(max(1 - (1 - HOT_SHARE) * (ambient - RELAY_AIR) / (RELAY_HOT - RELAY_AIR), 0.2), 1.0)


def connector_share(ambient: float) -> float:
    """Share of its rating a connector keeps at `ambient` [degC]: its heat goes with current squared.

    Source: heat goes with current squared; TERMINAL_LIMIT common practice.
    """
    return math.sqrt(min(max((TERMINAL_LIMIT - ambient) / (TERMINAL_LIMIT - RELAY_AIR), 0.0), 1.0))


def relay_for(continuous: float, start: float, ambient: float) -> float | None:
    """The smallest relay on sale [A] that carries `continuous` and closes on `start` at `ambient`; None where none
    does.

    Source: common practice, RELAY_MARGIN and RELAY_MAKES.
    """
    return next(
        (
            size
            for size in RELAYS
            if size * relay_share(ambient) >= RELAY_MARGIN * continuous and size * RELAY_MAKES >= start
        ),
        None,
    )
