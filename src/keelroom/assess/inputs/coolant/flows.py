"""The package's coolant circuit in core terms: branches of its graph as arrays."""

from __future__ import annotations

import numpy as np

from keelroom.assess.inputs.coolant.graph import Branch, Graph, graph_of, live
from keelroom.assess.inputs.coolant.ports import COLD, INLET
from keelroom.assess.inputs.coolant.routes import heads_of
from keelroom.assess.inputs.gearing import belt_turns, rpm_of
from keelroom.core.arrays import Floats
from keelroom.core.kept import by_identity
from keelroom.core.loop.circuit import RATED_HEAD, SHUT, THERMOSTAT, CoolantCircuit
from keelroom.core.loop.pump import PumpCurve, rated_curve, typed_curve
from keelroom.core.network import incidence_of
from keelroom.document.quantity import Quantity
from keelroom.document.schema.brief import Engine as EngineSection
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import Supply
from keelroom.document.schema.loop import Loop
from keelroom.document.schema.package import Package
from keelroom.errors import InputError

WORN_IMPELLER = 0.6
"""Share of its head a worn or corroded impeller still makes (common practice)."""
PUMP_PER_POWER = 1.4e-3 / 60 / 1e3
"""[m3/s per W] coolant flow where none is given: 1.4 L/min per kW, so that the engine warms its coolant by 6-10 K at
rated power (common practice): a coolant share of 0.7 of the power over 3.7 MJ/m3K and 8 K."""
USUAL_HEADS = {
    "heater": 30.0,
    "surge_tank": 1.5,
    "filler": 0.2,
    "bleed": 0.1,
    "tee": 0.6,
    "crossover": 1.0,
    "expansion_tank": 1.5,
    "overflow": 0.0,
}
"""Dynamic heads a part loses at its ports' bore (common practice): a heater core some 10 kPa at 10 L/min through 5/8
in."""
PART_BORE = {"heater": 0.0159}
"""[m] of ports where nothing says it"""
STANDING_PUMP = 4.0
"""Dynamic heads of an electric pump's body at its ports' bore, which its curve has already: lost only while it stands
(common practice)."""
AIR_LEFT = {"bled": 1.0, "some": 0.75, "locked": 0.04}
"""Share of its head a pump still makes with air in what it moves: a few hundredths of its volume take a quarter of a
centrifugal pump's head, a pocket at its eye nearly all (common practice, no source)."""
THROUGH_HOLE = 0.02
"""Share of the rated head lost at the rated flow where there is no thermostat (common practice)."""


COLLAPSED = 0.6
"""Share of its bore a soft hose keeps where a pump draws at it: pressed together to a third of its area (common
practice, no source)."""
REVERSED_LATE = 25.0
"""[K] later a thermostat opens that is in the wrong way round: its wax stands in what has been through the core, and
feels the engine by what creeps past it alone (common practice, no source)."""


def pump_flow_rated(engine: EngineSection) -> float:
    """Coolant flow [m3/s] at the speed of greatest power: as typed, or by power."""
    if engine.pump_flow is not None:
        return engine.pump_flow.si
    return PUMP_PER_POWER * (engine.power.si if engine.power else 1.0)


def circuit_of(build: Build, package: Package) -> CoolantCircuit:
    """The circuit; what is missing stands in and is caught by `needs_of`."""
    return _circuit(build.brief.engine, build.supply, package.loop, graph_of(build, package))


def pump_curve(loop: Loop) -> tuple[PumpCurve, str]:
    """The electric pump's curve at its rated voltage, and what is wrong with the typed points, whose rating is then
    used."""
    rated = rated_curve(_si(loop.electric_pressure), _si(loop.electric_flow))
    if not loop.pump_curve:
        return rated, ""
    try:
        return typed_curve([(point.flow.si, point.pressure.si) for point in loop.pump_curve]), ""
    except InputError as error:
        return rated, error.message


@by_identity(64)
def _circuit(engine: EngineSection, supply: Supply, loop: Loop, graph: Graph) -> CoolantCircuit:
    branches, rated = graph.branches, pump_flow_rated(engine)
    shape = len(branches)
    columns = {
        name: np.zeros(shape) for name in ("gate", "bore", "length", "heads", "square", "head", "linear", "fall")
    }
    curve, _ = pump_curve(loop)
    going = live(branches)
    in_line = any(branch.part and branch.part.kind == "pump" for branch in branches)
    for k, branch in enumerate(branches):
        said = _of_branch(branch, graph, loop)
        turns = loop.pump != "mechanical" and (
            branch.part.kind == "pump" and branch.key in going
            if branch.part
            else branch.sort == "engine" and not in_line and loop.pump == "electric"
        )
        if turns:
            said |= {"head": curve.head, "linear": curve.linear, "fall": curve.square}
        for name, value in said.items():
            columns[name][k] = value
    if loop.thermostat_state == "none":
        columns["square"][THERMOSTAT] = THROUGH_HOLE * RATED_HEAD / rated**2
    places = {node: k for k, node in enumerate(graph.nodes)}
    ends = [(places.get(branch.start), places.get(branch.end)) for branch in branches]
    return CoolantCircuit(
        flow_rated=_one(rated),
        rpm_rated=_one(rpm_of(engine.power_rpm)),
        pulley=_one(_si(loop.pulley_ratio) * belt_turns(supply)),
        impeller=_one((WORN_IMPELLER if loop.impeller == "worn" else 1.0) * AIR_LEFT[loop.air_left]),
        mechanical=_one(float(loop.pump != "electric")),
        electric=_one(float(loop.pump != "mechanical")),
        electric_voltage=_one(_si(loop.electric_voltage)),
        thermostat=_one(_opens(loop)),
        at_inlet=_one(float(loop.thermostat_place == "inlet" and loop.thermostat_state != "none")),
        bypassed=_one(float(loop.bypass == "inside")),
        covers=_one(float(loop.thermostat_state == "fitted")),
        incidence=incidence_of(ends, len(places)),
        **columns,
    )


def _of_branch(branch: Branch, graph: Graph, loop: Loop) -> dict[str, float]:
    """What a branch adds to the columns it is not nought in."""
    if branch.sort == "thermostat":
        return {"gate": float(loop.thermostat_state != "none")}
    if branch.run is not None:
        run = branch.run
        ends = sum(_node_heads(graph, node, run.bore) / 2 for node in (branch.start, branch.end))
        sucked = run.hose.state == "soft" and any(_pulls(graph, node) for node in (branch.start, branch.end))
        bore = run.bore * COLLAPSED if sucked else run.bore
        return {"bore": bore, "length": run.length or 0.0, "heads": heads_of(run) + ends}
    part = branch.part
    if part is None:
        return {}
    if part.kind == "thermostat":
        return {"gate": 1.0}
    bore = part_bore(graph, part.id) or PART_BORE.get(part.kind, 0.0381)
    usual = USUAL_HEADS.get(part.kind, STANDING_PUMP if loop.pump == "mechanical" else 0.05)
    heads = part.loss.si if part.loss is not None else usual
    return {"bore": bore, "heads": heads} if part.valve == "open" or part.kind != "heater" else {"square": SHUT}


def _pulls(graph: Graph, node: str) -> bool:
    """Whether a pump draws at a place: the engine's inlet, or an electric pump's."""
    part = graph.part(node.split(":", maxsplit=1)[0])
    return node in (INLET, COLD) or (part is not None and part.kind == "pump" and node.endswith(":in"))


def _node_heads(graph: Graph, node: str, bore: float) -> float:
    """Dynamic heads, at a hose's bore, of a part that is one place: half of them at each hose."""
    part = graph.part(node)
    if part is None:
        return 0.0
    own = part.bore.si if part.bore else bore
    heads = part.loss.si if part.loss is not None else USUAL_HEADS.get(part.kind, 0.0)
    return heads * (bore / own) ** 4


def part_bore(graph: Graph, ident: str) -> float | None:
    """Bore [m] of a part's ports: its own, else of the hoses that come to it."""
    own = [port.bore for key, port in graph.ports.items() if key.split(":")[0] == ident and port.bore is not None]
    return (
        own[0]
        if own
        else max(
            (run.bore for run in graph.runs if ident in (run.start.key.split(":")[0], run.end.key.split(":")[0])),
            default=None,
        )
    )


def _opens(loop: Loop) -> float:
    """[degC] the thermostat that is there starts to open at: a housing in line may have its own."""
    housed = next((part for part in loop.parts if part.kind == "thermostat" and part.opens is not None), None)
    if loop.thermostat_state == "none" and housed is not None and housed.opens is not None:
        return housed.opens.si
    return _si(loop.thermostat) + (REVERSED_LATE if loop.thermostat_state == "reversed" else 0.0)


def _one(value: float) -> Floats:
    return np.array(value, float)


def _si(value: Quantity | None) -> float:
    return value.si if value is not None else 1.0
