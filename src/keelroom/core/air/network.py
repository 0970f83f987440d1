"""The air path as one network of pressures, from the free stream through grille, face, fans and bay to under the car.

Nodes: front plenum, bay, and one zone per shroud plenum, bare fan or pusher. Branches: grille, exit, the gap round
the core, zone leaks and one-way flaps, one per class of the face, fans; where each stands in an array is said by
`Order`.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.air.face import BAY, FRONT
from keelroom.core.arrays import Floats
from keelroom.core.network import incidence_of

GRILLE_LOSS = 1.5
"""Dynamic heads lost in a grille opening with its mesh (common practice)."""
EXIT_LOSS = 1.8
"""Dynamic heads lost turning under the car and leaving (common practice)."""
RAM_RECOVERY = 0.9
"""Stagnation pressure recovered at a grille facing the stream."""
BASE_PRESSURE = -0.12
"""Pressure coefficient under the car where the bay air leaves."""
DISCHARGE = 0.6
"""Discharge coefficient of gaps and holes: a sharp-edged orifice (ORIFICE)."""
FLAP_LOSS = 1.5
"""Dynamic heads lost in an open flap."""
FLAP_CLOSED = 400.0
"""A closed flap resists as if a twentieth of it leaked."""


class Order(NamedTuple):
    """The order of an air path's branches: grille, exit, bypass, leaks, flaps, classes, fans. Z zones, K classes, F
    fans."""

    zones: int
    classes: int
    fans: int

    @property
    def leaks(self) -> slice:
        return slice(3, 3 + self.zones)

    @property
    def flaps(self) -> slice:
        return slice(3 + self.zones, 3 + 2 * self.zones)

    @property
    def square(self) -> slice:
        """What follows a square law: openings, gaps and flaps."""
        return slice(0, 3 + 2 * self.zones)

    @property
    def core(self) -> slice:
        return slice(3 + 2 * self.zones, 3 + 2 * self.zones + self.classes)

    @property
    def blown(self) -> slice:
        return slice(3 + 2 * self.zones + self.classes, 3 + 2 * self.zones + self.classes + self.fans)


class Network(NamedTuple):
    """n networks of one shape, arrays (n,) unless said. K classes, F fans, Z zones, B branches, N nodes.

    grille_area, exit_area, bypass_area [m2] (bypass: the gap round the core)
    area, loss : (n, K) [m2] and dynamic heads of the face speed beside the core's own drop (covers, corners)
    leak_area, flap_area : (n, Z) [m2];  flaps_open : (n, 2) 1 where flaps let air out of a zone, and back into it
    ram : share of the road's dynamic pressure that reaches the inlet
    base : pressure coefficient under the car where the bay air leaves;  pushes : (n, F) 1 where the fan stands ahead
           of the core
    incidence : (n, B, N) 1 at the node a branch leaves, -1 where it arrives; branches as `Order` says
    """

    grille_area: Floats
    exit_area: Floats
    bypass_area: Floats
    area: Floats
    loss: Floats
    leak_area: Floats
    flap_area: Floats
    flaps_open: Floats
    ram: Floats
    base: Floats
    pushes: Floats
    incidence: Floats


class AirFlows(NamedTuple):
    """The solved flows [kg/s], positive in the branch's own direction; pressures [Pa] above the free stream.

    grille, exit, bypass (n,); core (n, K); fans (n, F); leaks (n, Z) from the bay into a zone, from a pusher's zone
    back to the front; flaps (n, Z);  pressures (n, N): front, bay, zones
    steps : iterations used, largest over the points;  residual : largest imbalance, of pressure over what drives it
    """

    grille: Floats
    exit: Floats
    bypass: Floats
    core: Floats
    fans: Floats
    leaks: Floats
    flaps: Floats
    pressures: Floats
    steps: int
    residual: float

    @property
    def back(self) -> Floats:
        """Bay air that comes back to the front (n,): round the core and backwards through it."""
        flows: Floats = np.maximum(-self.bypass, 0.0) + np.maximum(-self.core, 0.0).sum(axis=1)
        return flows


class Breath(NamedTuple):
    """Densities [kg/m3] and temperatures [degC] of the air (n,): ahead of the core, behind it, in the bay."""

    ahead: Floats
    behind: Floats
    bay: Floats
    front_temperature: Floats
    behind_temperature: Floats
    bay_temperature: Floats


def incidence(front: Floats, rear: Floats, fan_zone: tuple[int, ...], pushers: tuple[bool, ...]) -> Floats:
    """Incidence (B, N) of one network. front, rear (K,): nodes of the classes; fan_zone: node of each fan; pushers:
    per zone.

    1 at the node a branch leaves, -1 where it arrives, 0 else. Source: definition.
    """
    ends: list[tuple[int | None, int | None]] = [(None, FRONT), (BAY, None), (FRONT, BAY)]
    zones = list(enumerate(pushers, 2))
    ends += [(node, FRONT) if pusher else (BAY, node) for node, pusher in zones]
    ends += [(node, BAY) for node, _ in zones]
    ends += [(int(a), int(b)) for a, b in zip(front, rear, strict=True)]
    ends += [(FRONT, node) if node >= 2 and pushers[node - 2] else (node, BAY) for node in fan_zone]
    return incidence_of(ends, 2 + len(pushers))
