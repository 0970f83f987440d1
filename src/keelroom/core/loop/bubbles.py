"""Air in a coolant line: how fast a large bubble drifts, and what flow clears a line of it."""

from __future__ import annotations

import math

from keelroom.core.network import GRAVITY

RISE, ALONG = 0.35, 0.54
"""Drift of a large bubble in a pipe over the root of g times its bore: up a vertical one and along a level one."""

KENT, WISNER = 1.23, (0.25, 0.825)
"""Over the root of g times the bore, the speed down a pipe that clears it of air: by the root of the slope's sine."""


def drift(bore: float, slope: float) -> float:
    """Speed [m/s] at which a large bubble climbs a pipe in still coolant.

    bore [m]; slope [rad] of the pipe over the level, 0..pi/2.
    Source: DAVIES_TAYLOR upright, BENJAMIN level, between them as BENDIKSEN. Surface tension is left out: bubbles of
            bores under 20 mm are slower.
    """
    return math.sqrt(GRAVITY * bore) * (ALONG * math.cos(slope) + RISE * math.sin(slope))


def clearing(bore: float, slope: float) -> float:
    """Speed [m/s] of coolant down a pipe from which on no air stays in it; between `drift` and it, it may.

    bore [m]; slope [rad] of the pipe under the level, 0..pi/2.  Source: the higher of KENT_AIR and WISNER, the one
    from steep pipes, the other from larger ones.
    """
    root = math.sqrt(max(math.sin(slope), 0.0))
    return math.sqrt(GRAVITY * bore) * max(KENT * root, WISNER[0] * root + WISNER[1])
