"""Air in a coolant line: how fast a large bubble drifts, and what flow takes it along."""

from __future__ import annotations

import math

from keelroom.core.network import GRAVITY

RISE, ALONG = 0.35, 0.54
"""Drift of a large bubble in a pipe over the root of g times its bore: up a vertical one and along a level one."""


def drift(bore: float, slope: float) -> float:
    """Speed [m/s] at which a large bubble climbs a pipe in still coolant.

    bore [m]; slope [rad] of the pipe over the level, 0..pi/2.
    Source: DAVIES_TAYLOR upright, BENJAMIN level, between them as BENDIKSEN. Surface tension is left out: bubbles of
            bores under 20 mm are slower.
    """
    return math.sqrt(GRAVITY * bore) * (ALONG * math.cos(slope) + RISE * math.sin(slope))


def carries(speed: float, bore: float, slope: float) -> bool:
    """Whether coolant that runs down a pipe at a speed [m/s] takes a large bubble along. Source: as `drift`."""
    return speed > drift(bore, slope)
