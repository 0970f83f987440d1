"""The coolant circuit: pump, engine, thermostat with its bypass, hoses and the core's tubes, solved for flow."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats, unit_share
from keelroom.errors import SolveError

THERMOSTAT_SPAN = 10.0
"""Kelvin from the rating, where a thermostat starts to open, to full open (common practice)."""
LEAK_BORE, LEAK_DISCHARGE = 4e-3, 0.7
"""Bore [m] a closed thermostat leaves by its jiggle valve and seat, and its discharge coefficient (common practice)."""
RATED_HEAD = 80e3
"""Pressure [Pa] a mechanical pump makes at its rated flow (common practice: 0.6 to 1 bar)."""
OVER_RATED = 1.6
"""Flow of that pump against nothing, over its rated flow."""
ENGINE_SHARE, THERMOSTAT_SHARE = 0.5, 0.2
"""Shares of the rated head lost in the engine and in the open thermostat at the rated flow; hoses and core take the rest."""
BYPASS_FLOW = 0.3
"""Share of the rated flow that goes round by the bypass at half the rated head with the thermostat shut."""
BYPASS_LEFT = 0.05
"""Share of the bypass an open thermostat leaves uncovered."""
HOSE_ENDS, BEND_LOSS, TANK_LOSS = 1.5, 0.3, 1.5
"""Dynamic heads lost at hose necks, per bend, and entering and leaving the tubes (common practice)."""
OPENINGS = np.array([0.0, 0.12, 0.3, 0.6, 1.0])
"""Thermostat openings at which the flows are solved; between them they are taken as straight."""
STEPS = 40
TOLERANCE = 1e-10


class Circuit(NamedTuple):
    """n circuits, arrays (n,).

    flow_rated [m3/s] through the engine at rpm_rated; pulley: pump speed over its stock speed; impeller: share of the
    head a worn one still makes;  electric 0 or 1 with electric_flow [m3/s] against nothing, electric_head [Pa] shut off,
    both at electric_voltage [V]
    thermostat [degC]; at_inlet 0 or 1;  hose_bore, hose_length [m] there and back; hose_bends: how many right angles
    """

    flow_rated: Floats
    rpm_rated: Floats
    pulley: Floats
    impeller: Floats
    electric: Floats
    electric_flow: Floats
    electric_head: Floats
    electric_voltage: Floats
    thermostat: Floats
    at_inlet: Floats
    hose_bore: Floats
    hose_length: Floats
    hose_bends: Floats


class Tubes(NamedTuple):
    """The core as the coolant sees it, arrays (n,): tubes in parallel per pass, passes, length [m], section [m2] of one,
    hydraulic diameter [m], inner height over width, and the factor dimples put on friction."""

    number: Floats
    passes: Floats
    length: Floats
    section: Floats
    diameter: Floats
    aspect: Floats
    roughness: Floats


class LoopFlows(NamedTuple):
    """Flows [m3/s] (n, 5) through the engine and through the core at OPENINGS."""

    engine: Floats
    core: Floats

    def at(self, opening: Floats) -> tuple[Floats, Floats]:
        """Flow through engine and core (n,) at a thermostat opening (n,)."""
        i = np.minimum(np.searchsorted(OPENINGS, opening, side="right") - 1, len(OPENINGS) - 2)
        i = np.maximum(i, 0)
        share = (opening - OPENINGS[i]) / (OPENINGS[i + 1] - OPENINGS[i])
        rows = np.arange(len(i))
        engine, core = (flow[rows, i] + share * (flow[rows, i + 1] - flow[rows, i]) for flow in self)
        return engine, core


def laminar_friction(aspect: Floats) -> Floats:
    """Darcy friction factor times Re of a fully developed laminar flow in a flat duct. Source: SHAH_LONDON.

    aspect (n,) 0..1.
    """
    a = aspect
    return 96 * (1 - 1.3553 * a + 1.9467 * a**2 - 1.7012 * a**3 + 0.9564 * a**4 - 0.2537 * a**5)


def thermostat_opening(circuit: Circuit, sensed: Floats) -> Floats:
    """Share of its full opening (n,), 0..1, at the temperature the element feels [degC].

    Source: common practice, THERMOSTAT_SPAN.
    """
    return unit_share((sensed - circuit.thermostat) / THERMOSTAT_SPAN)


class Loop(NamedTuple):
    """All that sets the coolant's flow, arrays (n,). rpm of the engine; voltage [V]; density [kg/m3]; viscosity [Pa s]."""

    circuit: Circuit
    tubes: Tubes
    rpm: Floats
    voltage: Floats
    density: Floats
    viscosity: Floats


def loop_flows(loop: Loop) -> LoopFlows:
    """Flow through engine and core over the thermostat's openings.

    Source  : centrifugal pump by the affinity laws (FAN_LAWS), square-law losses (common practice), tubes SHAH_LONDON
              and Blasius. Raises SolveError where no flow balances the pump.
    (n, 5) [m3/s].
    """
    head, fall, rated = (value[:, None] for value in _pump(loop))
    core = _CoreBranch(loop, rated)
    bypass = _by(0.5 * RATED_HEAD, BYPASS_FLOW * rated) / (1 - (1 - BYPASS_LEFT) * OPENINGS) ** 2
    fall = fall + _by(ENGINE_SHARE * RATED_HEAD, rated)
    flow = 0.5 * np.sqrt(head / (fall + core.square))
    for _ in range(STEPS):
        loss, slope = core.loss(flow)
        around = np.sqrt(loss / bypass)
        total = flow + around
        gap = head - fall * total**2 - loss
        if np.abs(gap).max() <= TOLERANCE * head.max():
            return LoopFlows(total, flow)
        steepness = 2 * fall * total * (1 + 0.5 * around / loss * slope) + slope
        flow = np.maximum(flow + gap / steepness, 0.1 * flow)
    raise SolveError("loop_not_converged", "The coolant circuit did not balance", residual=float(np.abs(gap).max()))


def _by(pressure: Floats | float, flow: Floats) -> Floats:
    """Coefficient of the square law that loses `pressure` at `flow`."""
    return pressure / flow**2


def _pump(loop: Loop) -> tuple[Floats, Floats, Floats]:
    """Head shut off [Pa], its fall with flow squared, and the flow the circuit was made for [m3/s]; (n,) each."""
    circuit = loop.circuit
    speed = loop.rpm / circuit.rpm_rated * circuit.pulley
    shut_off = RATED_HEAD / (1 - 1 / OVER_RATED**2)
    electric = circuit.electric > 0
    run = np.where(electric, loop.voltage / circuit.electric_voltage, speed)
    top = np.where(electric, circuit.electric_head, shut_off) * circuit.impeller
    free = np.where(electric, circuit.electric_flow, OVER_RATED * circuit.flow_rated)
    return top * run**2, top / free**2, circuit.flow_rated


class _CoreBranch:
    """Thermostat, hoses and tubes in a row; (n, 5) over the openings."""

    def __init__(self, loop: Loop, rated: Floats) -> None:
        circuit, tubes = loop.circuit, loop.tubes
        density, viscosity = loop.density[:, None], loop.viscosity[:, None]
        bore, length, bends = (v[:, None] for v in (circuit.hose_bore, circuit.hose_length, circuit.hose_bends))
        area = np.pi / 4 * bore**2
        speed = rated / area
        friction = 0.3164 / np.maximum(density * speed * bore / viscosity, 100.0) ** 0.25
        hoses = density / 2 * (friction * length / bore + HOSE_ENDS + BEND_LOSS * bends) / area**2
        self.section = (tubes.number * tubes.section)[:, None]
        self.head = density / 2 / self.section**2 * tubes.passes[:, None]
        # What a valve lets through by the square root of its loss adds up: the open part of its full bore, and a small one always there.
        leak = LEAK_DISCHARGE * np.pi / 4 * LEAK_BORE**2 * np.sqrt(2 / density)
        passes = OPENINGS * rated / np.sqrt(THERMOSTAT_SHARE * RATED_HEAD) + leak
        self.square = 1 / passes**2 + hoses + TANK_LOSS * self.head
        self.slender = (tubes.length / tubes.diameter * tubes.roughness)[:, None]
        self.reynolds = density * tubes.diameter[:, None] / viscosity / self.section
        self.laminar = laminar_friction(tubes.aspect)[:, None]

    def loss(self, flow: Floats) -> tuple[Floats, Floats]:
        """Pressure lost [Pa] and its slope at flows (n, 5), > 0. Laminar and Blasius friction joined by fourth powers."""
        Re = self.reynolds * flow
        laminar, rough = (self.laminar / Re) ** 4, (0.3164 / Re**0.25) ** 4
        tube = self.head * self.slender * (laminar + rough) ** 0.25 * flow**2
        power = (laminar + 1.75 * rough) / (laminar + rough)
        return self.square * flow**2 + tube, (2 * self.square * flow**2 + power * tube) / flow
