"""The coolant's flows over the openings of the thermostat.

Built on the one network search of `core.balance`; every loss rises with its flow, so the search cannot miss. Heights
do not move a closed circuit of one density: they set its pressures, in `core.loop.pressures`.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats, one_of_each, take
from keelroom.core.loop.circuit import CORE, ENGINE, OPENINGS, STEEPNESS, LoopLaw
from keelroom.core.loop.point import CircuitRows, Loop, LoopRows, TubeRows, solve_loops, weigh
from keelroom.core.network import unbalanced
from keelroom.core.rows import bound

NOWHERE: Floats = np.zeros((0, 0, 0))
"""No flows to begin at."""


class LoopFlows(NamedTuple):
    """Flows [m3/s] (n, 5) through the engine and through the core at OPENINGS, (n, 5, B) through every branch, and the
    pressures [Pa] (n, 5, N) of the nodes over the engine's inlet that the flows make."""

    engine: Floats
    core: Floats
    branches: Floats
    pressures: Floats

    def whole_at(self, opening: Floats) -> tuple[Floats, Floats]:
        """Flows (n, B) and pressures (n, N) at a thermostat opening (n,)."""
        weights = np.empty((len(opening), len(OPENINGS), 1))
        for i, at in enumerate(opening):
            weigh(OPENINGS, STEEPNESS, at, weights[i, :, 0])
        return (weights * self.branches).sum(axis=1), (weights * self.pressures).sum(axis=1)


MANY = 24
"""Points from which on it pays to look for those whose loops are the same ones."""


def loop_flows(law: LoopLaw, start: LoopFlows | None = None) -> LoopFlows:
    """Flow through engine, core and every other branch over the thermostat's openings.

    start : of a like loop, to begin at
    Source  : centrifugal pump by the affinity laws (FAN_LAWS), square-law losses (common practice), tubes SHAH_LONDON
              and Blasius. Raises SolveError where no flow balances the pump.
    """
    if start is None and len(law.rpm) >= MANY:
        # Of thousands of packages many differ in their fans alone.
        first, kind = one_of_each(law)
        if len(first) < len(kind):
            return take(_solved(take(law, first), None), kind)
    return _solved(law, start)


def _solved(law: LoopLaw, start: LoopFlows | None) -> LoopFlows:
    rest = LoopRows()
    rest.rpm, rest.voltage, rest.density, rest.viscosity = law.rpm, law.voltage, law.density, law.viscosity
    loop = Loop(bound(CircuitRows, law.circuit), bound(TubeRows, law.tubes), rest)
    flows = np.empty((len(law.rpm), len(OPENINGS), law.circuit.bore.shape[1]))
    pressures = np.empty((*flows.shape[:2], law.circuit.incidence.shape[2]))
    alike = start is not None and start.branches.shape == flows.shape
    begin = start.branches if start and alike else NOWHERE
    if solve_loops(loop, OPENINGS, begin, flows, pressures) >= 0:
        raise unbalanced("loop", loop.worst)
    return LoopFlows(flows[:, :, ENGINE], flows[:, :, CORE], flows, pressures)
