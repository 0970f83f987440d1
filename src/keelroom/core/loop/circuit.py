"""The coolant circuit: pump, engine, thermostat with its bypass, the core's tubes, hoses and what else stands in it,
solved for flow.

Built on the one network search of `core.network`; every loss rises with its flow, so the search cannot miss. Heights
do not move a
closed circuit of one density: they set its pressures, in `core.loop.pressures`.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Bools, Floats, Ints, unit_share
from keelroom.core.network import solve_network

THERMOSTAT_SPAN = 10.0
"""Kelvin from the rating, where a thermostat starts to open, to full open (common practice)."""
LEAK_BORE, LEAK_DISCHARGE = 4e-3, 0.7
"""Bore [m] a closed thermostat leaves by its jiggle valve and seat, and its discharge coefficient (common practice)."""
RATED_HEAD = 80e3
"""Pressure [Pa] a mechanical pump makes at its rated flow (common practice: 0.6 to 1 bar)."""
OVER_RATED = 1.6
"""Flow of that pump against nothing, over its rated flow."""
ENGINE_SHARE, THERMOSTAT_SHARE = 0.5, 0.2
"""Shares of the rated head lost in the engine and in the open thermostat at the rated flow; hoses and core take the
rest."""
BYPASS_FLOW = 0.3
"""Share of the rated flow that goes round by the bypass at half the rated head with the thermostat shut."""
BYPASS_LEFT = 0.05
"""Share of the bypass an open thermostat leaves uncovered."""
TANK_LOSS = 1.5
"""Dynamic heads lost entering and leaving the tubes (common practice)."""
OPENINGS = np.array([0.0, 0.12, 0.3, 0.6, 1.0])
"""Thermostat openings at which the flows are solved; between them they are taken as straight."""
ENGINE, CORE, THERMOSTAT, BYPASS = range(4)
"""Places of the branches every circuit has; what else is there follows."""
LEAST = 1e-5
"""Share of the rated flow below which a square loss is taken as linear: what stands still has no slope otherwise."""
PUMP_SPEEDS = (0.01, 3.0)
"""Speeds of a mechanical pump over that of its rated flow its law is asked at: past them it would long have cavitated
(common practice)."""
LEAST_REYNOLDS = 1e-2
BLASIUS = 0.3164
CREEP = 1e3
"""[Pa/(m3/s)] every branch loses: a pascal at a litre a second, so that what nothing drives has a slope and comes to
rest"""
SHUT = 1e17
"""[Pa/(m3/s)^2] of what is closed: a bar drives a millilitre a second through it."""


class CoolantCircuit(NamedTuple):
    """n circuits of one shape, arrays (n,), or (n, B) by branch.

    flow_rated [m3/s] through the engine at rpm_rated; pulley: pump speed over its stock speed; impeller: share of the
    head a worn one still makes;  mechanical 1 where the engine turns a pump, electric 1 where one runs by volts
    thermostat [degC]; at_inlet 0 or 1;  bypassed 1 where the bypass is open
    incidence (n, B, N) over the nodes but the engine's inlet, which is the reference
    gate : 1 where the thermostat's opening acts;  bore, length [m] of pipes, 0 for what is none;  heads : dynamic
           heads lost at that bore
    square [Pa/(m3/s)^2] of what has a loss of its own
    head [Pa], linear, fall of an electric pump at electric_voltage (n,) [V], (n, B)
    """

    flow_rated: Floats
    rpm_rated: Floats
    pulley: Floats
    impeller: Floats
    mechanical: Floats
    electric: Floats
    electric_voltage: Floats
    thermostat: Floats
    at_inlet: Floats
    bypassed: Floats
    incidence: Floats
    gate: Floats
    bore: Floats
    length: Floats
    heads: Floats
    square: Floats
    head: Floats
    linear: Floats
    fall: Floats


class Tubes(NamedTuple):
    """The core as the coolant sees it, arrays (n,): tubes in parallel per pass, passes, length [m], section [m2] of
    one, hydraulic diameter [m], inner height over width, and the factor dimples put on friction."""

    number: Floats
    passes: Floats
    length: Floats
    section: Floats
    diameter: Floats
    aspect: Floats
    roughness: Floats


class LoopFlows(NamedTuple):
    """Flows [m3/s] (n, 5) through the engine and through the core at OPENINGS, (n, 5, B) through every branch, and the
    pressures [Pa] (n, 5, N) of the nodes over the engine's inlet that the flows make."""

    engine: Floats
    core: Floats
    branches: Floats
    pressures: Floats

    def at(self, opening: Floats) -> tuple[Floats, Floats]:
        """Flow through engine and core (n,) at a thermostat opening (n,)."""
        rows, i, share = self._between(opening)
        engine, core = (
            flow[rows, i] + share * (flow[rows, i + 1] - flow[rows, i]) for flow in (self.engine, self.core)
        )
        return engine, core

    def whole_at(self, opening: Floats) -> tuple[Floats, Floats]:
        """Flows (n, B) and pressures (n, N) at a thermostat opening (n,)."""
        rows, i, share = self._between(opening)
        s = share[:, None]
        flows, pressures = (
            value[rows, i] + s * (value[rows, i + 1] - value[rows, i]) for value in (self.branches, self.pressures)
        )
        return flows, pressures

    @staticmethod
    def _between(opening: Floats) -> tuple[Ints, Ints, Floats]:
        i = np.minimum(np.searchsorted(OPENINGS, opening, side="right") - 1, len(OPENINGS) - 2)
        i = np.maximum(i, 0)
        return np.arange(len(i)), i, (opening - OPENINGS[i]) / (OPENINGS[i + 1] - OPENINGS[i])


def laminar_friction(aspect: Floats) -> Floats:
    """Darcy friction factor times Re of a fully developed laminar flow in a flat duct. Source: SHAH_LONDON.

    aspect (n,) 0..1.
    """
    a = aspect
    return 96 * (1 - 1.3553 * a + 1.9467 * a**2 - 1.7012 * a**3 + 0.9564 * a**4 - 0.2537 * a**5)


ROUND = 64.0
"""Darcy friction factor times Re of a laminar flow in a round pipe. Source: Hagen and Poiseuille."""


def friction(Re: Floats, laminar: Floats | float = ROUND) -> Floats:
    """Darcy friction factor of a smooth pipe: laminar and Blasius joined by fourth powers, so that its loss rises
    steadily.

    Re > 0; laminar: f times Re of its section. Source: SHAH_LONDON and Blasius; within 4 % of published smooth pipes
    up to Re 200 000, up to 10 % over them about Re 1 000 where both meet.
    """
    factor: Floats = ((laminar / Re) ** 4 + (BLASIUS / Re**0.25) ** 4) ** 0.25
    return factor


def thermostat_opening(circuit: CoolantCircuit, sensed: Floats) -> Floats:
    """Share of its full opening (n,), 0..1, at the temperature the element feels [degC]; always open where there is
    none.

    Source: common practice, THERMOSTAT_SPAN.
    """
    none = circuit.gate.max(axis=1) <= 0
    return np.where(none, 1.0, unit_share((sensed - circuit.thermostat) / THERMOSTAT_SPAN))


class LoopLaw(NamedTuple):
    """All that sets the coolant's flow, arrays (n,). rpm of the engine; voltage [V]; density [kg/m3]; viscosity [Pa
    s]."""

    circuit: CoolantCircuit
    tubes: Tubes
    rpm: Floats
    voltage: Floats
    density: Floats
    viscosity: Floats


def loop_flows(loop: LoopLaw, start: LoopFlows | None = None) -> LoopFlows:
    """Flow through engine, core and every other branch over the thermostat's openings.

    start : of a like loop, to begin at
    Source  : centrifugal pump by the affinity laws (FAN_LAWS), square-law losses (common practice), tubes SHAH_LONDON
              and Blasius. Raises SolveError where no flow balances the pump.
    """
    losses = _losses(loop)
    count = len(OPENINGS)
    incidence = np.repeat(loop.circuit.incidence, count, axis=0)
    begin = None
    if start is not None and start.branches.shape == (len(loop.rpm), count, incidence.shape[1]):
        begin = start.branches.reshape(-1, incidence.shape[1]) * losses.density
    found = solve_network(incidence, losses, begin, "loop")
    branches = (found.flow / losses.density).reshape(len(loop.rpm), count, -1)
    return LoopFlows(
        branches[:, :, ENGINE], branches[:, :, CORE], branches, found.pressure.reshape(len(loop.rpm), count, -1)
    )


class Losses:
    """What the branches lose, for n loops at each opening (n * 5, B): the solver's `Branches`. Flows [kg/s].

    source [Pa]; square [Pa/(m3/s)^2], linear [Pa/(m3/s)]; of pipes: pipe [Pa/(m3/s)^2] at a friction factor of one,
    reynolds per flow, laminar
    """

    def __init__(
        self,
        source: Floats,
        square: Floats,
        linear: Floats,
        pipe: tuple[Floats, Floats, Floats],
        sizes: tuple[Floats, Floats],
    ):
        self.source, self.square, self.linear = source, square, linear
        self.pipe, self.reynolds, self.laminar = pipe
        self.density, self.rated = sizes
        self.present: Bools = np.ones(source.shape, bool)
        self.scale: Floats = np.maximum(np.abs(source).max(axis=1), 10.0)
        self.reach: Floats = (4 * self.rated * self.density)[:, 0]

    def first_guess(self) -> Floats:
        """A third of the rated flow, less where less drives it."""
        share = np.sqrt(np.minimum(self.scale / RATED_HEAD, 1.0))[:, None]
        return 0.3 * share * self.rated * self.density * np.ones_like(self.source)

    def state(self, flow: Floats, pressure: Floats) -> None:
        """One density throughout: the flows carry nothing that moves them."""

    def at(self, flow: Floats, state: None) -> tuple[Floats, Floats, Floats]:
        """Pump heads, what each branch loses, and its slope."""
        q = flow / self.density
        size = np.abs(q)
        least = LEAST * self.rated
        rounded = np.sqrt(q**2 + least**2)
        Re = np.maximum(self.reynolds * size, LEAST_REYNOLDS)
        laminar, rough = (self.laminar / Re) ** 4, (BLASIUS / Re**0.25) ** 4
        factor = (laminar + rough) ** 0.25
        power = (laminar + 1.75 * rough) / (laminar + rough)
        # Under the least Reynolds number the friction is linear.
        tube = (
            self.pipe
            * factor
            * np.where(self.reynolds * size < LEAST_REYNOLDS, LEAST_REYNOLDS / np.maximum(self.reynolds, 1e-9), size)
        )
        loss = self.square * q * rounded + self.linear * q + tube * q
        slope = self.square * (q**2 + rounded**2) / rounded + self.linear + power * tube
        return self.source, loss, slope / self.density

    def foreseen(self, step: tuple[Floats, Floats], lost: tuple[Floats, Floats], state: None) -> Floats:
        """Nothing but the flow moves a loss."""
        return np.zeros_like(step[0])

    def moved(self, step: tuple[Floats, Floats], head: Floats, loss: Floats) -> Floats:
        """No further than a pump could carry."""
        flow, move = step
        most = self.reach[:, None]
        return np.clip(flow + move, -most, most)


def _by(pressure: Floats | float, flow: Floats) -> Floats:
    """Coefficient of the square law that loses `pressure` at `flow`."""
    return pressure / flow**2


def _losses(loop: LoopLaw) -> Losses:
    circuit, count = loop.circuit, len(OPENINGS)
    shape = circuit.bore.shape
    density, viscosity, rated = (value[:, None] for value in (loop.density, loop.viscosity, circuit.flow_rated))
    area = np.pi / 4 * np.where(circuit.bore > 0, circuit.bore, 1.0) ** 2
    dynamic = np.where(circuit.bore > 0, density / 2 / area**2, 0.0)
    square = circuit.square + dynamic * circuit.heads
    pipe = dynamic * circuit.length / np.where(circuit.bore > 0, circuit.bore, 1.0)
    reynolds = np.where(pipe > 0, density / viscosity * circuit.bore / area, 1.0)
    laminar: Floats = np.full(shape, ROUND)
    # The core's tubes.
    tubes = loop.tubes
    section = tubes.number * tubes.section
    head = loop.density / 2 / section**2 * tubes.passes
    square[:, CORE] += TANK_LOSS * head
    pipe[:, CORE] += head * tubes.length / tubes.diameter * tubes.roughness
    reynolds[:, CORE] = loop.density * tubes.diameter / loop.viscosity / section
    laminar[:, CORE] = laminar_friction(tubes.aspect)
    # The engine with its own pump, and electric ones.
    speed = loop.rpm / circuit.rpm_rated * circuit.pulley
    top = RATED_HEAD / (1 - 1 / OVER_RATED**2) * circuit.impeller * circuit.mechanical
    source: Floats = circuit.head * circuit.impeller[:, None] * (_run(loop) ** 2)[:, None]
    source[:, ENGINE] += top * speed**2
    square[:, ENGINE] += (
        _by(ENGINE_SHARE * RATED_HEAD, circuit.flow_rated) + top / (OVER_RATED * circuit.flow_rated) ** 2
    )
    square = square + circuit.fall * circuit.impeller[:, None]
    linear = CREEP + circuit.linear * circuit.impeller[:, None] * _run(loop)[:, None]
    # Over the openings. What a valve lets through by the square root of its loss adds up: the open part of its full
    # bore, and a small one always there.
    leak = LEAK_DISCHARGE * np.pi / 4 * LEAK_BORE**2 * np.sqrt(2 / density)
    passes = OPENINGS * rated / np.sqrt(THERMOSTAT_SHARE * RATED_HEAD) + leak
    gated = square[:, None, :] + circuit.gate[:, None, :] / passes[:, :, None] ** 2
    around = _by(0.5 * RATED_HEAD, BYPASS_FLOW * rated) / (1 - (1 - BYPASS_LEFT) * OPENINGS) ** 2
    gated[:, :, BYPASS] += np.where(circuit.bypassed[:, None] > 0, around, SHUT)

    def spread(value: Floats) -> Floats:
        return np.repeat(value, count, axis=0)

    pipes = (spread(pipe), spread(reynolds), spread(laminar))
    return Losses(spread(source), gated.reshape(-1, shape[1]), spread(linear), pipes, (spread(density), spread(rated)))


def _run(loop: LoopLaw) -> Floats:
    """Share of its rated speed an electric pump turns at (n,)."""
    circuit = loop.circuit
    run: Floats = np.where(circuit.electric > 0, loop.voltage / circuit.electric_voltage, 0.0)
    return run
