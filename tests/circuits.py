"""Coolant circuits in core terms, for tests: an ordinary one, and ones with more branches."""

import numpy as np

from keelroom.core.loop.circuit import CoolantCircuit
from keelroom.core.network import incidence_of

ORDINARY = (("engine", 3, 0), ("core", 1, 2), ("thermostat", 0, 4), ("bypass", 0, 3), ("upper", 4, 1), ("lower", 2, 3))
"""branches by the numbers of their places; 3 is the engine's inlet, the reference"""
REFERENCE = 3


def circuit(branches=ORDINARY, columns=None, **one):
    """One circuit; columns: by name, what stands in a branch, by its name."""
    used = sorted({node for _, a, b in branches for node in (a, b)} - {REFERENCE})
    place = {node: k for k, node in enumerate(used)}
    ends = [(place.get(a), place.get(b)) for _, a, b in branches]
    names = [name for name, _, _ in branches]
    arrays = {
        name: np.zeros((1, len(names)))
        for name in ("gate", "bore", "length", "heads", "square", "head", "linear", "fall")
    }
    arrays["gate"][0, 2] = 1.0
    for column, values in (columns or {}).items():
        for name, value in values.items():
            arrays[column][0, names.index(name)] = value
    plain = {
        "flow_rated": 0.002,
        "rpm_rated": 5000.0,
        "pulley": 1.0,
        "impeller": 1.0,
        "mechanical": 1.0,
        "electric": 0.0,
        "electric_voltage": 13.5,
        "thermostat": 82.0,
        "at_inlet": 0.0,
        "bypassed": 1.0,
        "covers": 1.0,
        **one,
    }
    return CoolantCircuit(
        **{k: np.array([float(v)]) for k, v in plain.items()}, incidence=incidence_of(ends, len(used))[None], **arrays
    )


def hoses(bore=0.038, length=1.2, bends=4):
    """Columns of an upper and a lower hose that are half each."""
    both = ("upper", "lower")
    return {
        "bore": dict.fromkeys(both, bore),
        "length": dict.fromkeys(both, length / 2),
        "heads": dict.fromkeys(both, 0.75 + 0.3 * bends / 2),
    }


def merged(*columns):
    """Columns put together."""
    found = {}
    for each in columns:
        for name, values in each.items():
            found[name] = {**found.get(name, {}), **values}
    return found
