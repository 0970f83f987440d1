"""Where the fluid of each circuit settles: what one cooler does not take, the next one must.

Every cooler takes per kelvin between the fluid and the air that enter it, so a circuit is linear in the temperature
of its fluid and is solved in closed form; only a bypass thermostat bends it, along a straight ramp.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats, unit_share

OPENING_SPAN = 10.0
"""Kelvin over which a bypass thermostat sends the fluid through its coolers (common practice)."""
NEVER = -273.0
"""[degC] from which on a cooler without a bypass thermostat has its fluid."""
STEPS = 14


class CoolerStage(NamedTuple):
    """A cooler in the fluid's way, (n,). takes [W/K] per kelvin between fluid in and `against` [degC]; opens [degC]
    in the sump, NEVER without a bypass."""

    takes: Floats
    against: Floats
    opens: Floats


class FluidSettled(NamedTuple):
    """A circuit at rest, (n,). fluid [degC] in its sump or pan; leaving [degC] for the coolers; shed [W] from its
    case; stages: heat of each [W]."""

    fluid: Floats
    leaving: Floats
    shed: Floats
    stages: tuple[Floats, ...]


def _along(
    stages: tuple[CoolerStage, ...], open_: Floats | None, capacity: Floats
) -> tuple[list[Floats], list[Floats], list[Floats]]:
    """Fluid into each stage as `a * leaving + b`, with what each takes per kelvin then."""
    a, b = np.ones_like(capacity), np.zeros_like(capacity)
    lead, add, takes = [], [], []
    for stage in stages:
        taken = stage.takes if open_ is None else np.where(stage.opens > NEVER + 1, open_, 1.0) * stage.takes
        lead.append(a)
        add.append(b)
        takes.append(taken)
        share = taken / capacity
        a, b = a * (1 - share), b * (1 - share) + share * stage.against
    return lead, add, takes


def _settled(
    heat: Floats, stages: tuple[CoolerStage, ...], capacity: Floats, case: tuple[Floats, Floats], open_: Floats | None
) -> FluidSettled:
    lead, add, takes = _along(stages, open_, capacity)
    shedding, around = case
    rise = heat / capacity
    slope, given = shedding + 0.0, heat + shedding * around
    for a, b, taken, stage in zip(lead, add, takes, stages, strict=True):
        slope = slope + taken * a
        given = given - taken * (a * rise + b - stage.against)
    fluid = given / np.maximum(slope, 1e-9)
    leaving = fluid + rise
    each = tuple(
        taken * (a * leaving + b - stage.against) for a, b, taken, stage in zip(lead, add, takes, stages, strict=True)
    )
    return FluidSettled(fluid, leaving, shedding * (fluid - around), each)


def settled(
    heat: Floats, stages: tuple[CoolerStage, ...], capacity: Floats, case: tuple[Floats, Floats]
) -> FluidSettled:
    """A circuit whose fluid is given `heat` (n,) [W], goes through `stages` in order and comes back.

    capacity (n,) [W/K] of the fluid's flow;  case: [W/K] its sump sheds by itself, and [degC] what is around it.
    The heat of all stages and of the case is the heat given. Source: heat balance of every stage; OPENING_SPAN common
    practice.
    """
    whole = np.ones_like(heat)
    bypassed = [stage.opens for stage in stages if stage.opens.max() > NEVER + 1]
    if not bypassed:
        return _settled(heat, stages, capacity, case, None)
    opens = np.max(bypassed, axis=0)
    # The hotter the sump the wider it opens, the wider the colder: one crossing, found by halving.
    low, high = np.zeros_like(heat), whole
    for _ in range(STEPS):
        middle = 0.5 * (low + high)
        more = (_settled(heat, stages, capacity, case, middle).fluid - opens) / OPENING_SPAN > middle
        low, high = np.where(more, middle, low), np.where(more, high, middle)
    at = [_settled(heat, stages, capacity, case, end) for end in (low, high)]
    gaps = [unit_share((one.fluid - opens) / OPENING_SPAN) - end for one, end in zip(at, (low, high), strict=True)]
    share = unit_share(gaps[0] / np.where(np.abs(gaps[0] - gaps[1]) < 1e-12, 1.0, gaps[0] - gaps[1]))
    return _settled(heat, stages, capacity, case, low + share * (high - low))
