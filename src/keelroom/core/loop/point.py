"""The coolant circuit of one car at one opening of its thermostat, as branches of a network: what `circuit` says of
it, written once. Compiled where a C compiler was at hand (`point.pxd` types it).
"""

import math

import numpy as np

from keelroom.core.balance import Branches
from keelroom.core.loop.circuit import (
    BLASIUS,
    BYPASS,
    BYPASS_FLOW,
    BYPASS_LEFT,
    CORE,
    CREEP,
    ENGINE,
    ENGINE_SHARE,
    LEAK_BORE,
    LEAK_DISCHARGE,
    LEAST,
    LEAST_REYNOLDS,
    OVER_RATED,
    RATED_HEAD,
    ROUND,
    SHUT,
    TANK_LOSS,
    THERMOSTAT_SHARE,
    THERMOSTAT_SPAN,
)

QUARTER_TURN = math.pi / 4


class CircuitRows:
    """n circuits as memory to read by rows: `circuit.CoolantCircuit`, field by field."""


class TubeRows:
    """n cores as the coolant sees them: `circuit.Tubes`, field by field."""


class LoopRows:
    """What else sets the coolant's flow in n loops: rpm, voltage, density, viscosity of `circuit.LoopLaw`."""


def laminar_friction(aspect):
    """Darcy friction factor times Re of a developed laminar flow in a flat duct, aspect 0..1. Source: SHAH_LONDON."""
    a = aspect
    return 96 * (1 + a * (-1.3553 + a * (1.9467 + a * (-1.7012 + a * (0.9564 - a * 0.2537)))))


def friction(Re, laminar):
    """Darcy friction factor of a smooth pipe: laminar and Blasius joined by fourth powers, so that its loss rises
    steadily. laminar: f times Re of its section.

    Source: SHAH_LONDON and Blasius; within 4 % of published smooth pipes up to Re 200 000, up to 10 % over them about
    Re 1 000 where both meet.
    """
    return ((laminar / Re) ** 4 + BLASIUS**4 / Re) ** 0.25


def opening_at(circuit, i, felt):
    """Share of its full opening, 0..1, of a thermostat at the temperature its element feels [degC]; always open where
    there is none. Its wax melts slowly at both ends. Source: common practice, THERMOSTAT_SPAN."""
    for b in range(circuit.gate.shape[1]):
        if circuit.gate[i, b] > 0:
            share = min(max((felt - circuit.thermostat[i]) / THERMOSTAT_SPAN, 0.0), 1.0)
            return share * share * (3 - 2 * share)
    return 1.0


def weigh(openings, steepness, opening, weights):
    """Write into weights (k) what a value at an opening of the thermostat is of those at `openings` (k): a cubic with
    their slopes, the same for every branch, so that what balances there balances between.

    steepness (k, k) : what the slopes are of the values. Source: Hermite's cubic.
    """
    k, last = 1, openings.shape[0] - 1
    while k < last and opening >= openings[k]:
        k += 1
    step = openings[k] - openings[k - 1]
    t = (opening - openings[k - 1]) / step
    rise = t * t * (3 - 2 * t)
    leaving, coming = t * (1 - t) * (1 - t) * step, t * t * (t - 1) * step
    for j in range(last + 1):
        weights[j] = leaving * steepness[k - 1, j] + coming * steepness[k, j]
    weights[k - 1] += 1 - rise
    weights[k] += rise


class Loop(Branches):
    """One loop at a time; flows [kg/s]. square [Pa/(m3/s)^2], linear [Pa/(m3/s)] of each branch; of pipes: pipe
    [Pa/(m3/s)^2] at a friction factor of one, reynolds per flow, laminar."""

    def __init__(self, circuit, tubes, loop):
        branches = circuit.bore.shape[1]
        Branches.__init__(self, branches, circuit.incidence.shape[2])
        self.circuit, self.tubes, self.loop = circuit, tubes, loop
        self.square, self.linear, self.pipe, self.reynolds, self.laminar = (np.zeros(branches) for _ in range(5))
        self.density, self.rated, self.row = 1000.0, 1e-3, 0

    def load(self, i, opening):
        """Make ready loop i with its thermostat open by a share.

        Source: centrifugal pump by the affinity laws (FAN_LAWS), square-law losses (common practice), tubes SHAH_LONDON
        and Blasius.
        """
        self.row, self.density, self.rated = i, self.loop.density[i], self.circuit.flow_rated[i]
        self.join(self.circuit.incidence, i)
        run, impeller = 0.0, self.circuit.impeller[i]
        if self.circuit.electric[i] > 0:
            run = self.loop.voltage[i] / self.circuit.electric_voltage[i]
        for b in range(self.count):
            self.present[b] = 1.0
            self.branch(b)
            self.source[b] = self.circuit.head[i, b] * impeller * run * run
            self.square[b] += self.circuit.fall[i, b] * impeller
            self.linear[b] = CREEP + self.circuit.linear[i, b] * impeller * run
        self.core_tubes()
        self.engine()
        self.valves(opening)
        self.scale = 10.0
        for b in range(self.count):
            self.scale = max(self.scale, abs(self.source[b]))
        self.reach = 4 * self.rated * self.density
        # A third of the rated flow, less where less drives it.
        share = math.sqrt(min(self.scale / RATED_HEAD, 1.0))
        for b in range(self.count):
            self.flow[b] = 0.3 * share * self.rated * self.density

    def branch(self, b):
        """What a hose or part loses."""
        i, bore = self.row, self.circuit.bore[self.row, b]
        self.square[b], self.pipe[b] = self.circuit.square[i, b], 0.0
        self.reynolds[b], self.laminar[b] = 1.0, ROUND
        if bore > 0:
            area = QUARTER_TURN * bore * bore
            dynamic = self.density / 2 / (area * area)
            self.square[b] += dynamic * self.circuit.heads[i, b]
            self.pipe[b] = dynamic * self.circuit.length[i, b] / bore
            if self.pipe[b] > 0:
                self.reynolds[b] = self.density / self.loop.viscosity[i] * bore / area

    def core_tubes(self):
        """What the core's tubes lose."""
        i = self.row
        section = self.tubes.number[i] * self.tubes.section[i]
        head = self.density / 2 / (section * section) * self.tubes.passes[i]
        self.square[CORE] += TANK_LOSS * head
        self.pipe[CORE] += head * self.tubes.length[i] / self.tubes.diameter[i] * self.tubes.roughness[i]
        self.reynolds[CORE] = self.density * self.tubes.diameter[i] / self.loop.viscosity[i] / section
        self.laminar[CORE] = laminar_friction(self.tubes.aspect[i])

    def engine(self):
        """The engine with its own pump."""
        i, full = self.row, OVER_RATED * self.rated
        speed = self.loop.rpm[i] / self.circuit.rpm_rated[i] * self.circuit.pulley[i]
        top = RATED_HEAD / (1 - 1 / OVER_RATED**2) * self.circuit.impeller[i] * self.circuit.mechanical[i]
        self.source[ENGINE] += top * speed * speed
        self.square[ENGINE] += ENGINE_SHARE * RATED_HEAD / (self.rated * self.rated) + top / (full * full)

    def valves(self, opening):
        """Thermostat and bypass. What a valve lets through by the square root of its loss adds up: the open part of its
        full bore, and a small one always there."""
        i = self.row
        leak = LEAK_DISCHARGE * QUARTER_TURN * LEAK_BORE * LEAK_BORE * math.sqrt(2 / self.density)
        passes = opening * self.rated / math.sqrt(THERMOSTAT_SHARE * RATED_HEAD) + leak
        for b in range(self.count):
            self.square[b] += self.circuit.gate[i, b] / (passes * passes)
        if self.circuit.bypassed[i] > 0:
            around = BYPASS_FLOW * self.rated
            left = 1 - (1 - BYPASS_LEFT) * opening * self.circuit.covers[i]
            self.square[BYPASS] += 0.5 * RATED_HEAD / (around * around) / (left * left)
        else:
            self.square[BYPASS] += SHUT

    def losses(self):
        """What each branch loses at its flow, and its slope."""
        least = LEAST * self.rated
        for b in range(self.count):
            q = self.flow[b] / self.density
            size, rounded = abs(q), math.sqrt(q * q + least * least)
            tube, power = 0.0, 1.0
            if self.pipe[b] > 0:
                Re = max(self.reynolds[b] * size, LEAST_REYNOLDS)
                laminar, rough = (self.laminar[b] / Re) ** 4, BLASIUS**4 / Re
                tube = self.pipe[b] * math.sqrt(math.sqrt(laminar + rough))
                # Under the least Reynolds number the friction is linear.
                tube *= size if Re > LEAST_REYNOLDS else LEAST_REYNOLDS / max(self.reynolds[b], 1e-9)
                power = (laminar + 1.75 * rough) / (laminar + rough)
            self.loss[b] = self.square[b] * q * rounded + self.linear[b] * q + tube * q
            slope = self.square[b] * (q * q + rounded * rounded) / rounded + self.linear[b] + power * tube
            self.slope[b] = slope / self.density

    def take_step(self, share):
        """No further than a pump could carry."""
        for b in range(self.count):
            self.flow[b] = min(max(self.flow[b] + share * self.move[b], -self.reach), self.reach)


def solve_loops(one, openings, start, flows, pressures):
    """Flows [m3/s] (n, openings, B) and pressures [Pa] (n, openings, N) of n loops.

    start : flows of like loops, none where its first side is empty.  The first loop that does not balance, -1 where
    all do.
    """
    for i in range(flows.shape[0]):
        for k in range(flows.shape[1]):
            one.load(i, openings[k])
            if start.shape[0] > 0:
                for b in range(one.count):
                    flows[i, k, b] = start[i, k, b] * one.density
                one.begin_at(flows[i, k])
            if one.solve() == 0:
                return i
            for b in range(one.count):
                flows[i, k, b] = one.flow[b] / one.density
            for node in range(one.nodes):
                pressures[i, k, node] = one.pressure[node]
    return -1
