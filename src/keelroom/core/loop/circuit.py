"""The coolant circuit: pump, engine, thermostat with its bypass, the core's tubes, hoses and what else stands in it, as
records. What its branches lose is said in `point`, its flows are found in `flows`.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats

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
"""Thermostat openings at which the flows are solved."""
STEEPNESS: Floats = np.asarray(np.gradient(np.eye(len(OPENINGS)), OPENINGS, axis=0, edge_order=2))
"""What the slopes at the openings are of the values there (k, k): of the parabola through each and its neighbours."""
ENGINE, CORE, THERMOSTAT, BYPASS = range(4)
"""Places of the branches every circuit has; what else is there follows."""
LEAST = 1e-5
"""Share of the rated flow below which a square loss is taken as linear: what stands still has no slope otherwise."""
PUMP_SPEEDS = (0.01, 3.0)
"""Speeds of a mechanical pump over that of its rated flow its law is asked at: past them it would long have cavitated
(common practice)."""
ROUND = 64.0
"""Darcy friction factor times Re of a laminar flow in a round pipe. Source: Hagen and Poiseuille."""
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
    thermostat [degC]; at_inlet 0 or 1;  bypassed 1 where the bypass is open, covers 1 where a
    thermostat that opens closes it: one that is missing or the wrong way round does not
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
    covers: Floats
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


class LoopLaw(NamedTuple):
    """All that sets the coolant's flow, arrays (n,). rpm of the engine; voltage [V]; density [kg/m3]; viscosity [Pa
    s]."""

    circuit: CoolantCircuit
    tubes: Tubes
    rpm: Floats
    voltage: Floats
    density: Floats
    viscosity: Floats
