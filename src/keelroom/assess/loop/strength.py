"""What pressure each part of the circuit stands, what it meets, and the pressure it may be tested at."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.inputs.coolant.graph import Graph
from keelroom.assess.inputs.coolant.heights import rated_pressure
from keelroom.assess.inputs.coolant.ports import part_name
from keelroom.assess.loop.figures import LoopCase
from keelroom.document.fields import Path
from keelroom.document.schema.package import Package

PSI = 6894.757
CORE_STANDS = {"aluminium": 30 * PSI, "copper_brass": 20 * PSI}
"""[Pa] a sound core stands (common practice: an aluminium one with crimped plastic tanks some 30 psi, a soldered one
20)."""
PART_STANDS = {"heater": 25 * PSI, "surge_tank": 30 * PSI, "expansion_tank": 22 * PSI}
"""[Pa] (common practice)"""
HOSE_STANDS = {
    "moulded": 50 * PSI,
    "reinforced": 75 * PSI,
    "silicone": 75 * PSI,
    "convoluted": 35 * PSI,
    "hard": 200 * PSI,
}
"""[Pa] a good hose works at (common practice)."""
AGED = {"good": 1.0, "soft": 0.5, "swollen": 0.4, "cracked": 0.25}
"""Share of it an old one is trusted with (common practice)."""


class Stands(NamedTuple):
    """One part: pressure [Pa] over the outdoors it stands, standing still (the cap alone) and the most it meets in
    any case; assumed or entered."""

    name: str
    stands: float
    meets: float
    assumed: bool
    path: Path

    @property
    def short(self) -> float:
        """[Pa] by which it meets more than it stands; negative where it does not."""
        return self.meets - self.stands


def strengths(package: Package, graph: Graph, cases: tuple[LoopCase, ...]) -> tuple[Stands, ...]:
    """Every part with what it stands against the most it meets, the weakest for what it meets first."""
    loop, where = package.loop, ("packages", package.id, "loop")
    cap = rated_pressure(loop)

    def most(*nodes: str) -> float:
        found = [spot.pressure for case in cases for node in nodes if (spot := case.spot(node)) is not None]
        return max([cap, *found])

    own = loop.core_stands
    found = [
        Stands(
            "Core",
            own.si if own else CORE_STANDS[package.core.material],
            most("core:inlet", "core:outlet"),
            own is None,
            (*where, "core_stands"),
        )
    ]
    for part in loop.parts:
        usual = PART_STANDS.get(part.kind)
        if usual is not None:
            nodes = (part.id, f"{part.id}:in")
            found.append(
                Stands(
                    part_name(part),
                    part.stands.si if part.stands else usual,
                    most(*nodes),
                    part.stands is None,
                    (*where, "parts", part.id, "stands"),
                )
            )
    for run in graph.runs:
        stands = HOSE_STANDS[run.hose.kind] * AGED[run.hose.state]
        found.append(
            Stands(run.name, stands, most(run.start.node, run.end.node), True, (*where, "hoses", run.hose.id, "state"))
        )
    return tuple(sorted(found, key=lambda one: -one.meets / one.stands))


def weakest(found: tuple[Stands, ...]) -> Stands:
    """The part that stands least."""
    return min(found, key=lambda one: one.stands)


def proof_pressure(package: Package, found: tuple[Stands, ...]) -> float:
    """[Pa] to test a cold circuit at: never over its cap, never over its weakest part; 0 without a pressure cap is
    the least part's alone."""
    cap = rated_pressure(package.loop)
    least = weakest(found).stands
    return min(cap, least) if cap > 0 else least
