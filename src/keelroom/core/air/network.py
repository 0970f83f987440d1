"""The air path as one network of pressures, from the free stream through grille, face, fans and bay to under the car.

Nodes: front plenum, bay, and one zone per shroud plenum, bare fan or pusher. Branches: grille, exit, the gap round
the core, a branch per class of the face, fans, zone leaks and one-way flaps. Every branch's loss rises with its flow,
so the flows are the minimum of a convex function; the nodal Newton below (the gradient method of Todini and Pilati
for pipe networks) finds it, one small linear system per step for all points at once.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from keelroom.core.air.face import BAY, FRONT
from keelroom.core.air.fan import FanCurve, fan_pressure
from keelroom.core.arrays import Bools, Floats
from keelroom.errors import SolveError

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
TOLERANCE, CLOSURE = 1e-7, 1e-9
"""Largest gap of pressure, over what drives the air, and of flow at a node, over what the fans could move."""
STEPS = 120
PATIENCE, LEAST_SHARE = 8, 0.1


class Network(NamedTuple):
    """n networks of one shape, arrays (n,) unless said. K classes, F fans, Z zones, B branches, N nodes.

    speed [m/s]; grille_area, exit_area, bypass_area [m2] (bypass: the gap round the core)
    area, loss : (n, K) [m2] and dynamic heads of the face speed beside the core's own drop (covers, corners)
    leak_area, flap_area : (n, Z) [m2];  pushes : (n, F) 1 where the fan stands ahead of the core
    incidence : (n, B, N) 1 at the node a branch leaves, -1 where it arrives; branches in the order
                grille, exit, bypass, leaks, flaps, classes, fans
    """

    speed: Floats
    grille_area: Floats
    exit_area: Floats
    bypass_area: Floats
    area: Floats
    loss: Floats
    leak_area: Floats
    flap_area: Floats
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


Breathing = Callable[[AirFlows], Breath]
"""The state of the air at given flows: the less air, the hotter and thinner it leaves the core."""
Drop = Callable[[Floats, Breath], Floats]
"""Pressure lost in the core [Pa] at a face mass flux (n, k) [kg/s per m2], >= 0."""


def incidence(front: Floats, rear: Floats, fan_zone: tuple[int, ...], pushers: tuple[bool, ...]) -> Floats:
    """Incidence (B, N) of one network. front, rear (K,): nodes of the classes; fan_zone: node of each fan; pushers: per zone.

    -1 where a branch leaves a node, +1 where it enters, 0 else. Source: definition.
    """
    ends: list[tuple[int | None, int | None]] = [(None, FRONT), (BAY, None), (FRONT, BAY)]
    zones = list(enumerate(pushers, 2))
    ends += [(node, FRONT) if pusher else (BAY, node) for node, pusher in zones]
    ends += [(node, BAY) for node, _ in zones]
    ends += [(int(a), int(b)) for a, b in zip(front, rear, strict=True)]
    ends += [(FRONT, node) if node >= 2 and pushers[node - 2] else (node, BAY) for node in fan_zone]
    found = np.zeros((len(ends), 2 + len(pushers)))
    for branch, (leaves, arrives) in enumerate(ends):
        if leaves is not None:
            found[branch, leaves] += 1.0
        if arrives is not None:
            found[branch, arrives] -= 1.0
    return found


def solve_air(
    network: Network, curve: FanCurve, speed: Floats, breathing: Breathing, drop: Drop, start: Floats | None = None
) -> tuple[AirFlows, Breath]:
    """Flows that balance every node and branch, and the air's state at them.

    speed : (n, F) share of full speed;  start : branch flows (n, B) of like points, to begin from
    Raises SolveError when the imbalance does not fall under TOLERANCE and CLOSURE.
    Source: nodal Newton with the branch laws of FAN_LAWS, orifices and square losses.
    """
    laws = _Laws(network, curve, speed, drop)
    flow: Floats = laws.first_guess()
    if start is not None:
        # A like point's flows are a good beginning only where they are of a credible size.
        credible = np.abs(start).max(axis=1, keepdims=True) <= 3 * laws.reach[:, None]
        flow = np.where(credible & laws.present, start, flow)
    nodes = _Nodes(network.incidence, laws.present)
    pressure: Floats = np.zeros((len(flow), network.incidence.shape[2]))
    worst, share, last = np.full(len(flow), np.inf), np.ones(len(flow)), np.zeros_like(flow)
    for step in range(1, STEPS + 1):
        breath = breathing(laws.named(flow, pressure, 0, 0.0))
        source, loss, slope = laws.at(flow, breath)
        if step > 1:
            gap = np.where(laws.present, nodes.across(pressure) + source - loss, 0.0)
            open_ends = np.abs(nodes.balance(flow)).max(axis=1) / laws.reach
            worst = np.abs(gap).max(axis=1) / laws.scale
            if worst.max() < TOLERANCE and open_ends.max() < CLOSURE:
                return laws.named(flow, pressure, step, float(worst.max())), breath
        nodes.linearise(slope)
        head = nodes.across(nodes.pressures(flow, source - loss)) + source
        # Less air is hotter and thinner: what that does to the losses is foreseen from a first step and put into a second.
        loss = loss + laws.thinned(flow, nodes.conductance * (head - loss), loss, slope, breath)
        pressure = nodes.pressures(flow, source - loss)
        head = nodes.across(pressure) + source
        move = nodes.conductance * (head - loss)
        # Newton cannot cycle on a convex function for long; where densities follow the flow it may, and a
        # shorter step breaks the cycle.
        turned = (step > PATIENCE) & ((move * last).sum(axis=1) < 0)
        share = np.where(turned, np.maximum(0.6 * share, LEAST_SHARE), np.minimum(1.5 * share, 1.0))
        flow, last = laws.moved(flow, move * share[:, None], head, loss), move
    raise SolveError("air_not_converged", f"The air path did not balance after {STEPS} steps", residual=float(worst.max()))


class _Nodes:
    """The nodes' side of the search: what flows in must flow out."""

    def __init__(self, incidence: Floats, present: Bools) -> None:
        self.incidence, self.present = incidence, present
        self.transposed = incidence.transpose(0, 2, 1)
        self.conductance: Floats = np.zeros(present.shape)
        self.matrix: Floats = np.zeros((len(present), incidence.shape[2], incidence.shape[2]))
        self.inverse: Floats = self.matrix

    def linearise(self, slope: Floats) -> None:
        """Flow per pressure of every branch, and the nodes' matrix with it; a node nothing reaches keeps its pressure."""
        self.conductance = np.divide(1.0, slope, out=np.zeros_like(slope), where=self.present)
        self.matrix = np.matmul(self.transposed, self.conductance[:, :, None] * self.incidence, dtype=np.float64)
        nodes = np.arange(self.matrix.shape[1])
        self.matrix[:, nodes, nodes] += self.matrix[:, nodes, nodes] == 0
        self.inverse = np.asarray(np.linalg.inv(self.matrix), dtype=np.float64)

    def pressures(self, flow: Floats, drive: Floats) -> Floats:
        """Pressures (n, N) at which flows moved along their tangents balance; drive: what is left to move them (n, B)."""
        known = self.balance(np.where(self.present, flow + self.conductance * drive, 0.0))
        solved: Floats = -(self.inverse @ known[:, :, None])[:, :, 0]
        return solved

    def across(self, pressure: Floats) -> Floats:
        """Pressure difference over every branch (n, B)."""
        over: Floats = (self.incidence @ pressure[:, :, None])[:, :, 0]
        return over

    def balance(self, flow: Floats) -> Floats:
        """What leaves every node less what arrives (n, N)."""
        left: Floats = (self.transposed @ flow[:, :, None])[:, :, 0]
        return left


class _Laws:
    """Loss and slope of every branch, in branch order, over n networks."""

    def __init__(self, network: Network, curve: FanCurve, speed: Floats, drop: Drop) -> None:
        self.network, self.curve, self.speed, self.drop = network, curve, speed, drop
        zones, classes = network.leak_area.shape[1], network.area.shape[1]
        self.square, self.core = np.s_[:, : 3 + 2 * zones], np.s_[:, 3 + 2 * zones : 3 + 2 * zones + classes]
        self.fans = np.s_[:, 3 + 2 * zones + classes :]
        self.stream = 0.5 * 1.2 * network.speed**2
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
        self.shut = np.array([1.0] * (3 + zones) + [FLAP_CLOSED] * zones)
        self.area = np.maximum(network.area, 1e-9)
        self.covers = np.tile(network.loss, 2)

    def named(self, flow: Floats, pressure: Floats, steps: int, residual: float) -> AirFlows:
        """The branches by name."""
        zones = self.network.leak_area.shape[1]
        return AirFlows(
            grille=flow[:, 0], exit=flow[:, 1], bypass=flow[:, 2], leaks=flow[:, 3 : 3 + zones], flaps=flow[:, 3 + zones : 3 + 2 * zones],
            core=flow[self.core], fans=flow[self.fans], pressures=pressure, steps=steps, residual=residual,
        )  # fmt: skip

    def first_guess(self) -> Floats:
        """Flows in step with what drives them; where nothing does they are nothing, which is then the answer too."""
        network, curve = self.network, self.curve
        driven = 0.55 * 1.2 * curve.flow * self.speed * curve.present
        pushed = 0.15 * np.sqrt(self.stream)[:, None] * network.area
        share = network.area / np.maximum(network.area.sum(axis=1, keepdims=True), 1e-9)
        core = pushed + share * (driven * (1 - 0.5 * network.pushes)).sum(axis=1, keepdims=True)
        total = core.sum(axis=1, keepdims=True)
        sides = np.concatenate([total, total, 0.1 * (network.bypass_area * np.sqrt(2.4 * self.stream))[:, None]], axis=1)
        sucked = (curve.pressure * curve.present * self.speed**2).max(axis=1, initial=0.0)
        leaks = network.leak_area * np.sqrt(2.4 * 0.2 * (sucked + self.stream))[:, None]
        flaps = network.flap_area * np.sqrt(2.4 * 0.2 * self.stream)[:, None]
        guess = np.concatenate([sides, leaks, flaps, core, driven + 0.2 * pushed.sum(axis=1, keepdims=True) * curve.present], axis=1)
        return np.where(self.present, guess, 0.0)

    def at(self, flow: Floats, breath: Breath) -> tuple[Floats, Floats, Floats]:
        """What drives each branch from outside, what it loses, and how the loss rises with its flow, (n, B) each."""
        stagnation = 0.5 * breath.ahead * self.network.speed**2
        source, loss, slope = np.zeros_like(flow), np.empty_like(flow), np.empty_like(flow)
        source[:, 0], source[:, 1] = RAM_RECOVERY * stagnation, -BASE_PRESSURE * stagnation
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
        factor = self.factor * np.where(forward, 1.0, self.shut) / passed
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

    def thinned(self, flow: Floats, move: Floats, loss: Floats, slope: Floats, breath: Breath) -> Floats:
        """How the losses change (n, B) with the density behind the core when the flows move; only the search depends on it."""
        total = np.maximum(np.abs(flow[self.core].sum(axis=1)), 1e-3)
        share = np.minimum(np.maximum(move[self.core].sum(axis=1) / total, -0.5), 0.5)
        rise = breath.behind_temperature - breath.front_temperature
        thinning = (rise / (breath.behind_temperature + 273.15) * share)[:, None]
        change = np.zeros_like(loss)
        change[:, 1:2] = -loss[:, 1:2] * thinning
        change[self.core] = THIN_CORE * loss[self.core] * thinning
        change[self.fans] = (loss[self.fans] - slope[self.fans] * flow[self.fans]) * thinning
        return change

    def moved(self, flow: Floats, move: Floats, head: Floats, loss: Floats) -> Floats:
        """The flows after a step, which is kept within what any air path could carry.

        Where a square law's tangent would turn its flow round or more than double it, the flow that the new pressure
        gives is taken instead: near zero the tangent points far too far.
        """
        most = self.reach[:, None]
        after: Floats = flow + np.minimum(np.maximum(move, -most), most)
        was, head, loss = flow[self.square], head[self.square], loss[self.square]
        size = np.abs(was)
        square = np.sign(head) * np.minimum(size * np.sqrt(np.abs(head) / np.maximum(np.abs(loss), 1e-12)), most)
        wild = (np.abs(move[self.square]) > size) & (size > STILL)
        after[self.square] = np.where(wild, square, after[self.square])
        return after
