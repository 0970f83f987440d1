"""The circuit in figures, case by case: flows, speeds, temperatures and pressures of every branch and place."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.assess.inputs.coolant.graph import Graph, graph_of
from keelroom.assess.inputs.coolant.heights import Heights, caps_of, heights_of, holding_cap
from keelroom.assess.inputs.coolant.ports import COLD, CORE_OUT, HOT
from keelroom.assess.inputs.coolant.volumes import air_over, volumes_of
from keelroom.core.answer import Answer
from keelroom.core.arrays import Floats
from keelroom.core.fluids.coolant import coolant_state
from keelroom.core.loop.pressures import absolute, boiling_margins
from keelroom.core.loop.volume import FILLED, built
from keelroom.core.network import GRAVITY
from keelroom.core.plant import Points
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package

SHARE = 1e-12
"""[m3/s] every place is taken to have of the engine's own, so that none is without a temperature"""
STILL = 2e-6
"""[m3/s] a flow under this stands"""


class Through(NamedTuple):
    """One branch in one case: flow [m3/s] from its start to its end, speed [m/s] in its bore where it has one, [degC]
    of what goes in."""

    key: str
    name: str
    flow: float
    speed: float | None
    temperature: float


class LoopSpot(NamedTuple):
    """One place in one case: [degC], pressure [Pa] over the outdoors, kelvin under boiling there."""

    node: str
    temperature: float
    pressure: float
    margin: float


class LoopCase(NamedTuple):
    """The circuit in one duty case. made: pressure [Pa] the pump makes over engine and circuit; rise [K] over the
    engine;
    suction: at the pump's inlet; heights: whether the heights of all places are known."""

    through: tuple[Through, ...]
    spots: tuple[LoopSpot, ...]
    made: float
    rise: float
    suction: LoopSpot
    heights: bool

    def of(self, key: str) -> Through | None:
        """A branch by its key."""
        return next((one for one in self.through if one.key == key), None)

    def spot(self, node: str) -> LoopSpot | None:
        """A place by its key."""
        return next((one for one in self.spots if one.node == node), None)


def loop_cases(build: Build, package: Package, points: Points, answer: Answer) -> tuple[LoopCase, ...]:
    """The circuit in every solved case."""
    graph, heights = graph_of(build, package), heights_of(build, package)
    state, fixed = answer.solution.state, answer.solution.fixed
    flows, made = fixed.loop.whole_at(state.opening)
    made = np.concatenate([made, np.zeros((len(made), 1))], axis=1)
    nodes = (*graph.nodes, COLD)
    temperatures = _temperatures(graph, flows, (state.temperature, state.coolant_out, state.engine_inlet))
    high, known = _filled(nodes, heights)
    coolant = coolant_state(points.plant.coolant, state.temperature)
    cap = holding_cap(build, package) or next(iter(caps_of(build, package)), None)
    at = nodes.index(cap.node) if cap and cap.node in nodes else nodes.index(CORE_OUT) if CORE_OUT in nodes else 0
    # The cap's pressure stands where the cap is, which may be higher than the neck of its tank.
    over = cap.at - high[at] if cap is not None and cap.at is not None else 0.0
    outdoors = fixed.air.pressure
    cap_holds = np.minimum(points.plant.cap_pressure, _grown(build, package, points, answer))
    held = outdoors + cap_holds + coolant.density * GRAVITY * over
    pressures = np.stack(
        [absolute(made[i], high, float(coolant.density[i]), (at, float(held[i]))) for i in range(len(made))]
    )
    margins = boiling_margins(points.plant.coolant, pressures, temperatures)
    pumps = [nodes.index(f"{b.part.id}:in") for b in graph.branches if b.part and b.part.kind == "pump"]
    sucks = pumps[0] if pumps and package.loop.pump == "electric" else nodes.index(COLD)
    cases = []
    for i in range(len(made)):
        spots = tuple(
            LoopSpot(node, float(temperatures[i, k]), float(pressures[i, k] - outdoors[i]), float(margins[i, k]))
            for k, node in enumerate(nodes)
        )
        cases.append(
            LoopCase(
                _through(graph, flows[i], nodes, temperatures[i]),
                spots,
                _made(graph, flows[i], made[i], nodes),
                float(state.temperature[i] - state.engine_inlet[i]),
                spots[sucks],
                known,
            )
        )
    return tuple(cases)


def _grown(build: Build, package: Package, points: Points, answer: Answer) -> Floats:
    """Pressure (n,) [Pa] over the outdoors the coolant has made by growing, whatever the cap lets stand; without end
    where it fills the circuit."""
    outdoors, hot = answer.solution.fixed.air.pressure, answer.solution.state.temperature
    air, volumes = air_over(package.loop), volumes_of(build, package)
    if volumes is None or air <= 0:
        return np.full(len(hot), np.inf)
    cold, warm = (coolant_state(points.plant.coolant, at).density for at in (np.full(len(hot), FILLED), hot))
    growth = volumes.total * np.maximum(cold / warm - 1, 0.0)
    return np.array([built(air, *each) for each in zip(growth.tolist(), outdoors.tolist(), hot.tolist(), strict=True)])


def _filled(nodes: tuple[str, ...], heights: Heights) -> tuple[Floats, bool]:
    """Heights as an array; a place that was not measured is taken as high as those that were, on the mean."""
    known = [heights[node] for node in nodes]
    there = [value for value in known if value is not None]
    mean = sum(there) / len(there) if there else 0.0
    return np.array([mean if value is None else value for value in known]), len(there) == len(known)


def _temperatures(graph: Graph, flows: Floats, ends: tuple[Floats, Floats, Floats]) -> Floats:
    """Temperatures (n, N + 1) [degC] of the places, the reference last: what comes together mixes; hoses lose nothing
    on the way.

    ends: leaving the engine, leaving the core, entering the engine
    """
    hot, cooled, inlet = ends
    nodes = (*graph.nodes, COLD)
    places = {node: k for k, node in enumerate(nodes)}
    n, count = len(flows), len(nodes)
    matrix, known = np.zeros((n, count, count)), np.zeros((n, count))
    rows = np.arange(n)
    for b, branch in enumerate(graph.branches):
        if branch.sort == "engine":
            continue
        forward = flows[:, b] > 0
        size = np.abs(flows[:, b])
        start, end = places[branch.start], places[branch.end]
        comes, goes = np.where(forward, start, end), np.where(forward, end, start)
        matrix[rows, goes, goes] += size
        if branch.sort == "core":
            known[rows, goes] += size * cooled
        else:
            matrix[rows, goes, comes] -= size
    # What goes round by itself without coming anywhere is as warm as the engine's outlet.
    matrix[:, range(count), range(count)] += SHARE
    known += SHARE * hot[:, None]
    for node, value in ((HOT, hot), (COLD, inlet)):
        k = places[node]
        matrix[:, k, :], known[:, k] = 0.0, value
        matrix[:, k, k] = 1.0
    # What stands still is as warm as the engine's outlet.
    still = matrix[:, range(count), range(count)] < STILL
    which, where = np.nonzero(still)
    matrix[which, where, :], known[which, where] = 0.0, hot[which]
    matrix[which, where, where] = 1.0
    return np.asarray(np.linalg.solve(matrix, known[:, :, None])[:, :, 0], dtype=np.float64)


def _through(graph: Graph, flows: Floats, nodes: tuple[str, ...], temperatures: Floats) -> tuple[Through, ...]:
    found = []
    for b, branch in enumerate(graph.branches):
        flow = float(flows[b])
        bore = branch.run.bore if branch.run else None
        speed = abs(flow) / (np.pi / 4 * bore**2) if bore else None
        comes = nodes.index(branch.start if flow >= 0 else branch.end)
        found.append(
            Through(branch.key, branch.name, flow if abs(flow) > STILL else 0.0, speed, float(temperatures[comes]))
        )
    return tuple(found)


def _made(graph: Graph, flows: Floats, made: Floats, nodes: tuple[str, ...]) -> float:
    """Pressure [Pa] from the pump's inlet to the engine's outlet, or over an electric pump in line."""
    pump = next((branch for branch in graph.branches if branch.part and branch.part.kind == "pump"), None)
    start, end = (pump.start, pump.end) if pump else (COLD, HOT)
    return float(made[nodes.index(end)] - made[nodes.index(start)])
