"""The own air of a cooler that hangs away from the core: opening, face, fans, way out, and the pressure of the road
at its place."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.air.fan import FanCurve
from keelroom.core.air.point import CurveRows, OwnAir, OwnPathRows, own_flows
from keelroom.core.arrays import Floats
from keelroom.core.network import incidence_of, unbalanced
from keelroom.core.rows import bound

LEAST_LOSS = 0.05
"""Dynamic heads a face loses at least: without any the air's flow has no slope, and a mere opening has more."""


class OwnPath(NamedTuple):
    """n paths, (n,) unless said. opening, face, out [m2]: what feeds the face, the face, the way out behind it

    loss : dynamic heads of the face's own speed lost in it (guards too);  curve (n, 1): one fan;  fans : how many
           alike, side by side
    pressed, drawn : pressure coefficients of the road's air at the opening and where it leaves
    """

    opening: Floats
    face: Floats
    out: Floats
    loss: Floats
    curve: FanCurve
    fans: Floats
    pressed: Floats
    drawn: Floats


ENDS: tuple[tuple[int | None, int | None], ...] = ((None, 0), (0, 1), (1, 2), (2, None))
"""opening, face, fans, way out"""


def own_flow(path: OwnPath, road: Floats, speed: Floats, density: Floats) -> Floats:
    """Air [kg/s] through the face of n remote coolers, positive from the opening on.

    road (n,) [m/s] of the air met; speed (n,) share of full of its fans; density (n,) [kg/m3].
    Raises SolveError where it does not balance. Source: nodal Newton with FAN_LAWS and square losses.
    """
    incidence = incidence_of(ENDS, 3)[None]
    own = OwnAir(bound(OwnPathRows, path), bound(CurveRows, path.curve), incidence)
    given = (np.ascontiguousarray(value, float) for value in (road, speed, density))
    out = np.empty(len(road))
    if own_flows(own, *given, out) >= 0:
        raise unbalanced("own air", own.worst)
    return out
