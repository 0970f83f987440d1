"""The order coolant goes round in, and what both schools say of where a tank belongs."""

from __future__ import annotations

from keelroom.assess.inputs.coolant.graph import Graph
from keelroom.assess.inputs.coolant.ports import part_name

LONG = 3.5
"""[m] of lines there and back from which on a circuit counts as one with a remote core (common practice)."""


def circuit_order(graph: Graph) -> tuple[str, ...]:
    """Keys of engine, core and what coolant meets on its way round, hoses left out, beginning with the engine."""
    found = ["engine"]
    for branch in graph.order:
        if branch.sort in ("core", "thermostat"):
            found.append(branch.key)
        elif branch.part is not None:
            found.append(branch.part.id)
        elif branch.run is not None:
            for node in (branch.start, branch.end):
                part = graph.part(node)
                if part is not None and part.id not in found:
                    found.append(part.id)
    return tuple(found)


def order_words(graph: Graph, gated: bool) -> str:
    """The order as one says it. gated: the engine has a thermostat of its own"""
    names = {"engine": "engine", "core": "core", "thermostat": "thermostat"}
    keys = [key for key in circuit_order(graph) if key != "thermostat" or gated]
    words = [names.get(key) or _named(graph, key) for key in keys]
    return " → ".join([*words, "engine"])


def _named(graph: Graph, key: str) -> str:
    part = graph.part(key)
    name = part_name(part) if part else key
    return name[:1].lower() + name[1:]


def line_length(graph: Graph) -> float:
    """[m] of hoses and lines on the way from engine to core and back."""
    return sum(branch.run.length or 0.0 for branch in graph.order if branch.run)


def is_long(graph: Graph) -> bool:
    """Whether the core is so far off that air needs a tank to part from the coolant."""
    return line_length(graph) > LONG


TANK_SCHOOLS = (
    (
        "In line, at the top of the hot side",
        "All coolant goes through it: air parts at once, a long system settles after a few minutes. It is "
        "one more thing full of hot coolant, and it costs a few kPa.",
    ),
    (
        "Beside the flow, feeding the suction side",
        "A small vent line rises to it from every high point, a wide feed goes to the pump’s inlet: the "
        "cap’s pressure acts where the pump sucks. It clears air slowly, as the vents bring it.",
    ),
)
