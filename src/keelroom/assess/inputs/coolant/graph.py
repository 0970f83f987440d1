"""The circuit as one graph: places, and what runs between them. Flows, drawing, lists and the bleed plan all read
it."""

from __future__ import annotations

from collections.abc import Mapping
from functools import partial
from typing import Literal, NamedTuple

from keelroom.assess.inputs.coolant.ports import (
    COLD,
    CORE_IN,
    CORE_OUT,
    HOT,
    INLET,
    OUTLET,
    THROUGH,
    Port,
    joins_alike,
    part_name,
    ports_of,
)
from keelroom.assess.inputs.coolant.routes import HoseRun, hose_name, run_of
from keelroom.assess.outcome import Stopped, attempted
from keelroom.core.kept import by_identity
from keelroom.document.fields import Path
from keelroom.document.schema.build import Build
from keelroom.document.schema.loop import Loop, Part
from keelroom.document.schema.package import Package
from keelroom.facts import Fact, Figures, given

CIRCUIT = "build.survey laid.core package.loop package.place package.remote"
"""The sections a circuit is made of."""
BranchSort = Literal["engine", "core", "thermostat", "bypass", "hose", "part"]


class Branch(NamedTuple):
    """Something coolant goes through, from a place to another. run: of a hose; part: of what stands in the circuit."""

    key: str
    name: str
    sort: BranchSort
    start: str
    end: str
    run: HoseRun | None = None
    part: Part | None = None


class CircuitFault(NamedTuple):
    """What keeps the circuit from being one: the finding it makes and its form, the field it is at, and its figures."""

    code: str
    path: Path
    figures: Figures = ()
    form: str = ""

    @property
    def fact(self) -> Fact:
        """What is wrong there."""
        return Fact(f"{self.code}.{self.form}" if self.form else self.code, self.figures)


class Graph(NamedTuple):
    """ident: the package's;  nodes: keys of the places that are joined to the engine, its pump's inlet left out, for
    it is the reference;
    branches: those that lie between them, the four every circuit has first; runs: every hose whose ends are known,
              joined or not;
    parts: what stands in it;  faults: empty where coolant gets round; order: branches by which it goes from the
           engine's outlet to its inlet through the core."""

    ident: str
    ports: Mapping[str, Port]
    nodes: tuple[str, ...]
    branches: tuple[Branch, ...]
    runs: tuple[HoseRun, ...]
    parts: tuple[Part, ...]
    faults: tuple[CircuitFault, ...]
    order: tuple[Branch, ...]

    @property
    def whole(self) -> bool:
        """Coolant gets from the engine through the core and back."""
        return bool(self.order)

    def part(self, ident: str) -> Part | None:
        """What stands in the circuit by its id."""
        return next((part for part in self.parts if part.id == ident), None)


def graph_of(build: Build, package: Package) -> Graph:
    """The package's circuit in this vehicle."""
    return _graph(ports_of(build, package), package.loop, package.id)


@by_identity(64)
def _graph(ports: Mapping[str, Port], loop: Loop, ident: str) -> Graph:
    where: Path = ("packages", ident, "loop")
    runs, faults = _runs(ports, loop, where)
    candidates = [
        *_usual(loop),
        *(_through(part) for part in loop.parts if part.kind in THROUGH),
        *(_hose(run) for run in runs),
    ]
    bottles = {part.id for part in loop.parts if part.kind == "overflow"}
    joined = _joined([branch for branch in candidates if not bottles & {branch.start, branch.end}])
    order, gap = _order(joined)
    if not order:
        faults.append(gap_fault(gap, ports, where))
    pumps = [part for part in loop.parts if part.kind == "pump"]
    if order and loop.pump == "electric" and pumps and not any(branch.part in pumps for branch in order if branch.part):
        faults.append(
            CircuitFault("pump_aside", (*where, "parts", pumps[0].id, "kind"), given(name=part_name(pumps[0])))
        )
        order = []
    nodes = tuple(dict.fromkeys(node for branch in joined for node in (branch.start, branch.end) if node != COLD))
    return Graph(ident, ports, nodes, tuple(joined), tuple(runs), loop.parts, tuple(faults), tuple(order))


def _usual(loop: Loop) -> tuple[Branch, ...]:
    """The four branches of every circuit: a thermostat at the outlet, at the inlet, or none, which is a way through."""
    at_inlet = loop.thermostat_place == "inlet" and loop.thermostat_state != "none"
    gate = (INLET, COLD) if at_inlet else (HOT, OUTLET)
    return (
        Branch("engine", "Engine", "engine", COLD, HOT),
        Branch("core", "Core", "core", CORE_IN, CORE_OUT),
        Branch("thermostat", "Thermostat", "thermostat", *gate),
        Branch("bypass", "Bypass", "bypass", HOT, COLD),
    )


def _through(part: Part) -> Branch:
    return Branch(part.id, part_name(part), "part", f"{part.id}:in", f"{part.id}:out", part=part)


def _hose(run: HoseRun) -> Branch:
    return Branch(f"hose:{run.hose.id}", run.name, "hose", run.start.node, run.end.node, run)


def _runs(ports: Mapping[str, Port], loop: Loop, where: Path) -> tuple[list[HoseRun], list[CircuitFault]]:
    """Hoses with both ends known, the way coolant goes through them; and what is wrong with the others."""
    runs: list[HoseRun] = []
    faults: list[CircuitFault] = []
    taken: dict[str, str] = {}
    for hose in loop.hoses:
        path = (*where, "hoses", hose.id)
        ends = [ports.get(hose.start), ports.get(hose.end)]
        name = hose_name(hose)
        for field, key, port in (("start", hose.start, ends[0]), ("end", hose.end, ends[1])):
            if port is None:
                faults.append(CircuitFault("loop_end", (*path, field), given(name=name), "gone" if key else ""))
            elif key in taken and hose.start != hose.end:
                faults.append(
                    CircuitFault(
                        "loop_taken", (*path, field), given(name=name, other=taken[key], port=port.name.lower())
                    )
                )
            taken.setdefault(key, name)
        first, last = ends
        if first is None or last is None:
            continue
        if first.key == last.key:
            faults.append(CircuitFault("loop_same", (*path, "end"), given(name=name)))
            continue
        if joins_alike(first, last):
            word = "outlets" if first.sense > 0 else "inlets"
            faults.append(
                CircuitFault(
                    "loop_joined",
                    (*path, "end"),
                    given(name=name, first=first.name.lower(), last=last.name.lower()),
                    word,
                )
            )
            continue
        backwards = first.sense < 0 or last.sense > 0
        run = attempted(name, path, partial(run_of, hose, *((last, first) if backwards else (first, last))))
        if isinstance(run, Stopped):
            faults.append(CircuitFault("not_worked_out", path, given(reason=run.sentence), "hose"))
        else:
            runs.append(run)
    return runs, faults


def _joined(candidates: list[Branch]) -> list[Branch]:
    """Branches that hang together with the engine; the four of every circuit always."""
    reached = {COLD, HOT}
    left, found = list(candidates), set()
    while True:
        more = [branch for branch in left if branch.start in reached or branch.end in reached]
        if not more:
            break
        for branch in more:
            reached |= {branch.start, branch.end}
            found.add(branch.key)
        left = [branch for branch in left if branch.key not in found]
    return [
        branch
        for branch in candidates
        if branch.key in found or branch.key in ("engine", "core", "thermostat", "bypass")
    ]


def _order(branches: list[Branch]) -> tuple[list[Branch], str]:
    """Branches from the engine's outlet through the core to its inlet, or none and the place the way ends at."""
    ways = [
        branch
        for branch in branches
        if branch.sort in ("hose", "part", "thermostat") and not (branch.part and branch.part.kind == "heater")
    ]
    core = next(branch for branch in branches if branch.sort == "core")
    there = _way(ways, HOT, CORE_IN)
    if there is None:
        return [], "there"
    # Back by other places: what came past them once does not come to the core again.
    passed = {HOT, CORE_IN} | {node for branch in there for node in (branch.start, branch.end)}
    back = _way([branch for branch in ways if not passed & {branch.start, branch.end}], CORE_OUT, COLD)
    if back is None:
        return [], "back"
    return [*there, core, *back], ""


def _way(branches: list[Branch], start: str, end: str) -> list[Branch] | None:
    """The way of the widest lines from a place to another; None where there is none. A bottleneck's bore decides,
    then the count."""
    best: dict[str, tuple[tuple[float, int], list[Branch]]] = {start: ((-1e9, 0), [])}
    waiting = [start]
    while waiting:
        node = waiting.pop(0)
        (narrowest, steps), way = best[node]
        for branch in branches:
            if node not in (branch.start, branch.end):
                continue
            further = branch.end if node == branch.start else branch.start
            bore = -branch.run.narrow if branch.run else -1e9
            cost = (max(narrowest, bore), steps + 1)
            if further not in best or cost < best[further][0]:
                best[further] = (cost, [*way, branch])
                waiting.append(further)
    return best[end][1] if end in best else None


def live(branches: tuple[Branch, ...]) -> frozenset[str]:
    """Keys of branches coolant can go round by; in what ends blind it stands, whatever would drive it."""
    left = list(branches)
    while True:
        ends = [node for branch in left for node in (branch.start, branch.end)]
        blind = [branch for branch in left if min(ends.count(branch.start), ends.count(branch.end)) < 2]
        if not blind:
            return frozenset(branch.key for branch in left)
        left = [branch for branch in left if branch not in blind]


def gap_fault(gap: str, ports: Mapping[str, Port], where: Path) -> CircuitFault:
    """What is missing where coolant does not get round."""
    return CircuitFault("loop_open", (*where, "hoses"), form="there" if gap == "there" else "back")


def gates(graph: Graph) -> list[Branch]:
    """Thermostats coolant meets one after the other on its way through the core."""
    return [
        branch
        for branch in graph.order
        if branch.sort == "thermostat" or (branch.part is not None and branch.part.kind == "thermostat")
    ]
