"""The air path as one network of pressures, from the free stream through grille, face, fans and bay to under the car.

Nodes: front plenum, bay, and one zone per shroud plenum, bare fan or pusher. Branches: grille, exit, the gap round
the core, zone leaks and one-way flaps, one per class of the face, fans; where each stands in an array is said by
`Order`.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from keelroom.core.air.face import BAY, FRONT
from keelroom.core.air.fan import FanCurve, fan_pressure
from keelroom.core.arrays import Bools, Floats
from keelroom.core.network import incidence_of, solve_network

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
STILL = 1e-4
"""Flow [kg/s] under which a square law is carried to zero along a straight line."""
STILL_FLUX = 1e-4
"""The same for a class of the face [kg/s per m2]."""
THIN_CORE = -0.45
"""How the core's drop follows the density behind it, as a power: only the search depends on it."""


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


class Driven(NamedTuple):
    """What drives the air of n networks: road speed (n,) [m/s] of the air met; share of full speed (n, F) of the
    fans."""

    road: Floats
    fans: Floats


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


Breathing = Callable[[AirFlows], Breath]
"""The state of the air at given flows: the less air, the hotter and thinner it leaves the core."""
Drop = Callable[[Floats, Breath], Floats]
"""Pressure lost in the core [Pa] at a face mass flux (n, k) [kg/s per m2], >= 0."""


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


def solve_air(
    network: Network, curve: FanCurve, driven: Driven, breathing: Breathing, drop: Drop, start: Floats | None = None
) -> tuple[AirFlows, Breath]:
    """Flows that balance every node and branch, and the air's state at them.

    start : branch flows (n, B) of like points, to begin from
    Raises SolveError when the imbalance does not fall under TOLERANCE and CLOSURE.
    Source: nodal Newton with the branch laws of FAN_LAWS, orifices and square losses.
    """
    laws = _Laws(network, curve, driven, (breathing, drop))
    if start is not None:
        start = start.copy()
        start[laws.core] *= network.area
    found = solve_network(network.incidence, laws, start, "air")
    return _named(laws.order, (found.flow, found.pressure), found.steps, found.residual), found.state


def beginning(network: Network, flows: AirFlows) -> Floats:
    """Solved flows as `solve_air` takes them for a start (n, B) [kg/s]; those of the classes per square metre, so
    that faces of other sizes may begin there.

    Source: definition.
    """
    sides = np.stack([flows.grille, flows.exit, flows.bypass], axis=1)
    per_area = flows.core / np.maximum(network.area, 1e-9)
    return np.concatenate([sides, flows.leaks, flows.flaps, per_area, flows.fans], axis=1)


def _named(order: Order, solved: tuple[Floats, Floats], steps: int = 0, residual: float = 0.0) -> AirFlows:
    """Flows and node pressures by name."""
    flow, pressure = solved
    return AirFlows(
        grille=flow[:, 0],
        exit=flow[:, 1],
        bypass=flow[:, 2],
        leaks=flow[:, order.leaks],
        flaps=flow[:, order.flaps],
        core=flow[:, order.core],
        fans=flow[:, order.blown],
        pressures=pressure,
        steps=steps,
        residual=residual,
    )


class _Laws:
    """Loss and slope of every branch, in branch order, over n networks."""

    def __init__(self, network: Network, curve: FanCurve, driven: Driven, air: tuple[Breathing, Drop]) -> None:
        self.network, self.curve, self.speed, self.road = network, curve, driven.fans, driven.road
        self.breathing, self.drop = air
        self.order = Order(network.leak_area.shape[1], network.area.shape[1], curve.flow.shape[1])
        zones = self.order.zones
        self.square, self.core, self.fans = (
            np.s_[:, part] for part in (self.order.square, self.order.core, self.order.blown)
        )
        self.stream = 0.5 * 1.2 * driven.road**2
        self.scale = self.stream + (curve.pressure * curve.present).max(axis=1, initial=0.0) + 1.0
        # A wide gap round the core can carry more than the core and the fans together: the bound must let it.
        passing = np.sqrt(self.stream) * (network.area.sum(axis=1) + 2 * network.bypass_area)
        self.reach = 1.2 * (curve.flow * curve.present).sum(axis=1) + passing + 0.05
        sides = np.stack([network.grille_area, network.exit_area, network.bypass_area], axis=1)
        openings = np.concatenate([sides, network.leak_area, network.flap_area], axis=1)
        self.present: Bools = np.concatenate([openings > 0, network.area > 0, curve.present > 0], axis=1)
        gap = 1.0 / DISCHARGE**2
        heads = np.array([GRILLE_LOSS, EXIT_LOSS, gap, *[gap] * zones, *[FLAP_LOSS] * zones])
        self.factor = np.where(openings > 0, heads / (2 * np.maximum(openings, 1e-9) ** 2), 0.0)
        # Which air an opening passes, as a column of (ahead, behind, bay): forwards and backwards.
        self.upstream = np.array([0, 2, 0, *[2] * zones, *[1] * zones]), np.array([0, 2, 2, *[1] * zones, *[2] * zones])
        closed = np.where(network.flaps_open > 0, 1.0, FLAP_CLOSED)
        still = np.ones((len(closed), 3 + zones))
        self.shut = [np.concatenate([still, np.repeat(closed[:, k : k + 1], zones, axis=1)], axis=1) for k in (0, 1)]
        self.area = np.maximum(network.area, 1e-9)
        self.covers = np.tile(network.loss, 2)

    def state(self, flow: Floats, pressure: Floats) -> Breath:
        """The air at given flows: the less, the hotter and thinner it leaves the core."""
        return self.breathing(_named(self.order, (flow, pressure)))

    def first_guess(self) -> Floats:
        """Flows in step with what drives them; where nothing does they are nothing, which is then the answer too."""
        network, curve = self.network, self.curve
        driven = 0.55 * 1.2 * curve.flow * self.speed * curve.present
        pushed = 0.15 * np.sqrt(self.stream)[:, None] * network.area
        share = network.area / np.maximum(network.area.sum(axis=1, keepdims=True), 1e-9)
        core = pushed + share * (driven * (1 - 0.5 * network.pushes)).sum(axis=1, keepdims=True)
        total = core.sum(axis=1, keepdims=True)
        sides = np.concatenate(
            [total, total, 0.1 * (network.bypass_area * np.sqrt(2.4 * self.stream))[:, None]], axis=1
        )
        sucked = (curve.pressure * curve.present * self.speed**2).max(axis=1, initial=0.0)
        leaks = network.leak_area * np.sqrt(2.4 * 0.2 * (sucked + self.stream))[:, None]
        flaps = network.flap_area * np.sqrt(2.4 * 0.2 * self.stream)[:, None]
        guess = np.concatenate(
            [sides, leaks, flaps, core, driven + 0.2 * pushed.sum(axis=1, keepdims=True) * curve.present], axis=1
        )
        return np.where(self.present, guess, 0.0)

    def at(self, flow: Floats, breath: Breath) -> tuple[Floats, Floats, Floats]:
        """What drives each branch from outside, what it loses, and how the loss rises with its flow, (n, B) each."""
        stagnation = 0.5 * breath.ahead * self.road**2
        source, loss, slope = np.zeros_like(flow), np.empty_like(flow), np.empty_like(flow)
        source[:, 0], source[:, 1] = self.network.ram * stagnation, -self.network.base * stagnation
        loss[self.square], slope[self.square] = self._openings(flow[self.square], breath)
        loss[self.core], slope[self.core] = self._core(flow[self.core], breath)
        density = np.where(self.network.pushes > 0, breath.ahead[:, None], breath.behind[:, None])
        rise, steepness = fan_pressure(self.curve, flow[self.fans] / density, self.speed, density)
        loss[self.fans], slope[self.fans] = -rise, -steepness / density
        return source, np.where(self.present, loss, 0.0), np.where(self.present, slope, 1.0)

    def _openings(self, flow: Floats, breath: Breath) -> tuple[Floats, Floats]:
        """Square laws of grille, exit, bypass, leaks and flaps, carried to zero along a straight line."""
        density = np.stack([breath.ahead, breath.behind, breath.bay], axis=1)
        forward = flow >= 0
        passed = np.where(forward, density[:, self.upstream[0]], density[:, self.upstream[1]])
        factor = self.factor * np.where(forward, self.shut[0], self.shut[1]) / passed
        size = np.sqrt(flow**2 + STILL**2)
        return factor * flow * size, factor * (size + flow**2 / size)

    def _core(self, flow: Floats, breath: Breath) -> tuple[Floats, Floats]:
        """Drop and its slope in every class, odd in the flow; the slope by a small step."""
        flux = flow / self.area
        size = np.maximum(np.abs(flux), STILL_FLUX)
        wide = np.concatenate([size, size * 1.0001], axis=1)
        both = self.drop(wide, breath) + self.covers * wide**2 / (2 * breath.ahead[:, None])
        k = flux.shape[1]
        slope = (both[:, k:] - both[:, :k]) / (size * 1e-4)
        # Under the smallest flux the drop is carried to zero along a straight line.
        return both[:, :k] * flux / size, np.where(np.abs(flux) < STILL_FLUX, both[:, :k] / size, slope) / self.area

    def foreseen(self, step: tuple[Floats, Floats], lost: tuple[Floats, Floats], breath: Breath) -> Floats:
        """How the losses change (n, B) with the density behind the core: less air is hotter and thinner."""
        (flow, move), (loss, slope) = step, lost
        total = np.maximum(np.abs(flow[self.core].sum(axis=1)), 1e-3)
        share = np.minimum(np.maximum(move[self.core].sum(axis=1) / total, -0.5), 0.5)
        rise = breath.behind_temperature - breath.front_temperature
        thinning = (rise / (breath.behind_temperature + 273.15) * share)[:, None]
        change = np.zeros_like(loss)
        change[:, 1:2] = -loss[:, 1:2] * thinning
        change[self.core] = THIN_CORE * loss[self.core] * thinning
        change[self.fans] = (loss[self.fans] - slope[self.fans] * flow[self.fans]) * thinning
        return change

    def moved(self, step: tuple[Floats, Floats], head: Floats, loss: Floats) -> Floats:
        """The flows after a step, which is kept within what any air path could carry.

        Where a square law's tangent would turn its flow round or more than double it, the flow that the new pressure
        gives is taken instead: near zero the tangent points far too far.
        """
        flow, move = step
        most = self.reach[:, None]
        after: Floats = flow + np.minimum(np.maximum(move, -most), most)
        was, head, loss = flow[self.square], head[self.square], loss[self.square]
        size = np.abs(was)
        square = np.sign(head) * np.minimum(size * np.sqrt(np.abs(head) / np.maximum(np.abs(loss), 1e-12)), most)
        wild = (np.abs(move[self.square]) > size) & (size > STILL)
        after[self.square] = np.where(wild, square, after[self.square])
        return after
