"""Where air stays in the circuit, what takes it out, what does not drain, and in which order it is bled."""

from __future__ import annotations

import itertools
import math
from typing import Literal, NamedTuple

from keelroom.assess.inputs.coolant.graph import CIRCUIT, Branch, Graph, graph_of
from keelroom.assess.inputs.coolant.heights import Heights, caps_of, core_bottom, core_top, heights_of
from keelroom.assess.inputs.coolant.ports import COLD, CORE_IN, CORE_OUT, HOT, INLET, OUTLET, end_name, part_name
from keelroom.assess.inputs.coolant.routes import HoseRun
from keelroom.assess.loop.figures import LoopCase
from keelroom.assess.reads import reads, while_same
from keelroom.core.kept import by_identity
from keelroom.core.loop.bubbles import clearing, drift
from keelroom.core.loop.route import traced
from keelroom.document.fields import Path
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.facts import Fact, fact

Outcome = Literal["itself", "vented", "screw", "carried", "revs", "may", "stays"]
"""how air leaves a high point: by a neck that is opened or a tank with room, up a vent line, by a bleed screw, cleared
by the flow at idle, by that of more revs, perhaps (it runs faster than a bubble climbs and slower than what surely
clears the line), or not by itself"""
HIGHER = 0.01
"""[m] a point must stand over another to hold air (common practice)."""
VENT_BORE = 0.0105
"""[m] a line of less bore is a vent line: it lets air pass and hardly any coolant (common practice: 1/4 to 3/8 in)."""
READS = reads(CIRCUIT)
AIR_KEEPERS = ("surge_tank", "expansion_tank", "filler")
OUTCOME_WORDS = {
    "itself": "leaves by itself",
    "vented": "rises by its vent line",
    "screw": "leaves by the bleed screw",
    "carried": "is carried out at idle",
    "revs": "is carried out with more revs only",
    "may": "may stay",
    "stays": "stays",
}
KEPT: tuple[Outcome, ...] = ("revs", "may", "stays")
"""by which air does not leave while it idles, or not surely"""


class High(NamedTuple):
    """A high point. key: place or hose; name; at [m] its height; outcome; path of what it belongs to

    speed [m/s] of the coolant that leaves it at idle;  drift [m/s] of a bubble against it;  clears [m/s]: from which
    on none stays
    """

    key: str
    name: str
    at: float
    outcome: Outcome
    speed: float
    drift: float
    clears: float
    path: Path


class Low(NamedTuple):
    """A low point that does not drain. key as of a high one; at [m] its height; name; path"""

    key: str
    name: str
    at: float
    path: Path


class TrappedAir(NamedTuple):
    """highs: from the lowest up; lows: below the drain; unknown: names of places whose heights are not known."""

    highs: tuple[High, ...]
    lows: tuple[Low, ...]
    unknown: tuple[str, ...]

    @property
    def traps(self) -> tuple[High, ...]:
        """High points that do not surely bleed themselves at idle."""
        return tuple(high for high in self.highs if high.outcome in KEPT)


Links = dict[str, list[tuple[str, Branch | None]]]


class _Crest(NamedTuple):
    """A high point as the circuit lies: the points that stand level there, at [m], what opens it whatever flows."""

    group: tuple[str, ...]
    key: str
    name: str
    at: float
    opened: Outcome | None
    path: Path


class _Lie(NamedTuple):
    """How a circuit lies, whatever flows in it: high points, low points, what is not known, and what lies next to
    what."""

    crests: tuple[_Crest, ...]
    lows: tuple[Low, ...]
    unknown: tuple[str, ...]
    links: Links


def air_of(build: Build, package: Package, idle: LoopCase | None, road: LoopCase | None) -> TrappedAir:
    """High and low points of the package's circuit. idle, road: the circuit while the car stands, and at its fastest
    turning case."""
    lie = while_same("lie of the circuit", READS, (build, package), lambda: _lie(build, package))
    highs = [_high(crest, lie.links, (idle, road)) for crest in lie.crests]
    merged = {high.name: high for high in sorted(highs, key=lambda high: high.at)}
    return TrappedAir(tuple(sorted(merged.values(), key=lambda high: high.at)), lie.lows, lie.unknown)


def _lie(build: Build, package: Package) -> _Lie:
    graph, heights = graph_of(build, package), heights_of(build, package)
    names = node_names(build, package, graph)
    unknown = tuple(
        dict.fromkeys(names[node] for node, at in heights.items() if at is None and node not in (HOT, INLET))
    )
    vertices, links, hoses = _vertices(graph, _heights(build, package, heights))
    told = (graph, links, hoses)
    crests = []
    for group in _crests(vertices, links, 1.0):
        key, at = _spokesman(group), max(vertices[each] for each in group)
        opened = next((way for way in (_opened(build, package, each, told) for each in group) if way), None)
        crests.append(_Crest(group, key, _vertex_name(key, names), at, opened, _path(package, key, graph)))
    bottom = core_bottom(build.survey, package)
    feet = [(group, min(vertices[key] for key in group)) for group in _crests(vertices, links, -1.0)]
    lows = [
        Low(_spokesman(group), _vertex_name(_spokesman(group), names), low, _path(package, _spokesman(group), graph))
        for group, low in feet
        if low < bottom - HIGHER and not {CORE_IN, CORE_OUT} & set(group)
    ]
    return _Lie(tuple(crests), tuple(lows), unknown, links)


def _heights(build: Build, package: Package, heights: Heights) -> dict[str, float]:
    """Known heights of places; the core stands for both its tanks, which its upper tubes join."""
    found = {node: at for node, at in heights.items() if at is not None}
    if CORE_IN in found or CORE_OUT in found:
        found["core"] = core_top(build.survey, package)
    return found


def _vertices(graph: Graph, at: dict[str, float]) -> tuple[dict[str, float], Links, dict[str, Branch]]:
    """Points with their heights, which lie next to each other, and the hoses points lie on."""
    vertices = dict(at)
    links: Links = {key: [] for key in vertices}
    hoses: dict[str, Branch] = {}

    def join(a: str, b: str, branch: Branch | None) -> None:
        if a in links and b in links and a != b:
            links[a].append((b, branch))
            links[b].append((a, branch))

    for tank in (CORE_IN, CORE_OUT):
        join("core", tank, None)
    for branch in graph.branches:
        if branch.sort in ("core", "bypass"):
            continue
        if branch.run is None:
            join(branch.start, branch.end, branch)
            continue
        if branch.start not in vertices or branch.end not in vertices:
            continue
        chain = [branch.start]
        for k, high in enumerate(_turning_heights(branch)):
            key = f"{branch.key}#{k}"
            vertices[key], links[key], hoses[key] = high, [], branch
            chain.append(key)
        chain.append(branch.end)
        for a, b in itertools.pairwise(chain):
            join(a, b, branch)
    return vertices, links, hoses


def _turning_heights(branch: Branch) -> list[float]:
    """Heights at which a hose turns from rising to falling or back, between its ends."""
    return _turns(branch.run) if branch.run else []


@by_identity(128)
def _turns(run: HoseRun) -> list[float]:
    if run.route is None:
        return [via.y.si for via in run.hose.via if via.y is not None]
    ys = [point[1] for point in traced(run.route)]
    turns = []
    for before, here, after in zip(ys, ys[1:], ys[2:], strict=False):
        if (here - before) * (after - here) < 0:
            turns.append(here)
    return turns


def _crests(vertices: dict[str, float], links: Links, way: float) -> list[tuple[str, ...]]:
    """Points from which no way leads further up (way 1) or down (way -1), those that lie level together as one."""
    found: list[tuple[str, ...]] = []
    told: set[str] = set()
    for key in vertices:
        if key in told or not links[key]:
            continue
        group, crest = _level(key, vertices, links, way)
        if crest:
            told |= set(group)
            found.append(group)
    return found


def _level(key: str, vertices: dict[str, float], links: Links, way: float) -> tuple[tuple[str, ...], bool]:
    """What lies level with a point within HIGHER, and whether nothing leads on from there."""
    seen, waiting, here = [key], [key], vertices[key]
    while waiting:
        for further, _ in links[waiting.pop()]:
            gain = way * (vertices[further] - here)
            if gain > HIGHER:
                return tuple(seen), False
            if further not in seen and gain > -HIGHER:
                seen.append(further)
                waiting.append(further)
    return tuple(seen), True


def _spokesman(group: tuple[str, ...]) -> str:
    """The place a group of points is called by: the engine's outlet before its inside, a place before a point along a
    hose."""
    return min(group, key=lambda key: (key == HOT, "#" in key, key != "core"))


Told = tuple[Graph, Links, dict[str, Branch]]


def _high(crest: _Crest, links: Links, cases: tuple[LoopCase | None, LoopCase | None]) -> High:
    leaving = _leaving(crest.group, links, cases[0])
    speed, climbs, clears = leaving or NOTHING
    outcome = crest.opened or _swept(leaving or NOTHING, _leaving(crest.group, links, cases[1]) or NOTHING)
    return High(crest.key, crest.name, crest.at, outcome, speed, climbs, clears, crest.path)


Leaving = tuple[float, float, float]
"""Speed [m/s] of the coolant, of a bubble against it, and the one that clears the line."""
NOTHING: Leaving = (0.0, 0.0, 0.0)


def _swept(idle: Leaving, fast: Leaving) -> Outcome:
    """What becomes of air that only coolant can take along, at idle and at the fastest turning case."""
    if idle[0] > idle[2]:
        return "carried"
    if fast[0] > fast[2]:
        return "revs"
    return "may" if any(speed > climbs for speed, climbs, _ in (idle, fast)) else "stays"


def _opened(build: Build, package: Package, key: str, told: Told) -> Outcome | None:
    """How air leaves where something opens at a point; None where nothing does."""
    graph, links, hoses = told
    caps = {cap.node for cap in caps_of(build, package) if not cap.node.startswith("core")}
    if key == "core":
        return "itself" if package.loop.core_neck != "none" else None
    part = graph.part(key)
    if key in caps or (part is not None and part.kind in AIR_KEEPERS):
        return "itself"
    if part is not None and part.kind == "bleed":
        return "screw"
    if key in hoses:
        run = hoses[key].run
        return "screw" if run and run.hose.bleed else None
    if any(
        branch and branch.run and branch.run.bore < VENT_BORE and _rises(branch, key, graph, build, package)
        for _, branch in links[key]
    ):
        return "vented"
    # A bleed screw at the top of a hose that leaves here.
    return "screw" if any(branch and branch.run and branch.run.hose.bleed for _, branch in links[key]) else None


def _rises(branch: Branch, key: str, graph: Graph, build: Build, package: Package) -> bool:
    """Whether a vent line leads from a point to where air may stay."""
    other = branch.end if branch.start == key else branch.start
    part = graph.part(other)
    return (part is not None and part.kind in AIR_KEEPERS) or other in {cap.node for cap in caps_of(build, package)}


def _leaving(group: tuple[str, ...], links: Links, case: LoopCase | None) -> Leaving | None:
    """What leaves a high point, in the hose where coolant does best against what clears it."""
    if case is None:
        return None
    best: Leaving | None = None
    for key, (further, branch) in ((point, link) for point in group for link in links[point]):
        run = branch.run if branch else None
        flow = case.of(branch.key) if branch else None
        if branch is None or run is None or flow is None or flow.speed is None or further in group:
            continue
        # Along a hose either way leads off; at a place only what leaves it.
        leaves = "#" in key or (flow.flow > 0) == (branch.start == key)
        if leaves:
            climbs, clears = _along(run)
            if best is None or flow.speed - clears > best[0] - best[2]:
                best = (flow.speed, climbs, clears)
    return best


@by_identity(128)
def _along(run: HoseRun) -> tuple[float, float]:
    """Speed [m/s] of a bubble against the coolant in a hose, and the one that clears it, where each is greatest."""
    climbs, clears = (max(law(run.bore, slope) for slope in _slopes(run)) for law in (drift, clearing))
    return climbs, clears


def _slopes(run: HoseRun) -> list[float]:
    """Slopes [rad] of the pieces of a hose; upright where its route is not known."""
    if run.route is None:
        return [math.pi / 2]
    corners = run.route.corners
    return [math.asin(min(abs(b[1] - a[1]) / max(math.dist(a, b), 1e-9), 1.0)) for a, b in itertools.pairwise(corners)]


def node_names(build: Build, package: Package, graph: Graph) -> dict[str, str]:
    """What each place of the circuit is called."""
    ends = {end.role: end_name(end) for end in reversed(build.survey.hoses)}
    found = {
        COLD: ends.get("inlet", "Engine inlet"),
        HOT: "Engine, its hot side",
        OUTLET: ends.get("outlet", "Engine outlet"),
        INLET: ends.get("inlet", "Engine inlet"),
        CORE_IN: "Core inlet",
        CORE_OUT: "Core outlet",
        "core": "Core, its top",
    }
    for part in package.loop.parts:
        found |= {part.id: part_name(part), f"{part.id}:in": part_name(part), f"{part.id}:out": part_name(part)}
    found |= {branch.key: branch.name for branch in graph.branches if branch.run}
    return {**{port.node: port.name for port in graph.ports.values()}, **found}


def _vertex_name(key: str, names: dict[str, str]) -> str:
    return names.get(key) or names.get(key.split("#", maxsplit=1)[0]) or key


def _path(package: Package, key: str, graph: Graph) -> Path:
    where: Path = ("packages", package.id)
    if key.startswith("hose:"):
        return (*where, "loop", "hoses", key.split("#", maxsplit=1)[0].removeprefix("hose:"), "name")
    if key.startswith("core"):
        return (*where, "loop", "core_neck")
    part = graph.part(key.split(":", maxsplit=1)[0])
    if part is not None:
        return (*where, "loop", "parts", part.id, "y")
    run = next((run for run in graph.runs if key in (run.start.node, run.end.node)), None)
    return (*where, "loop", "hoses", run.hose.id, "name") if run else (*where, "loop", "hoses")


class BleedStep(NamedTuple):
    """One step of bleeding: where, and what is done there."""

    name: str
    how: Fact


def bleed_list(air: TrappedAir) -> tuple[BleedStep, ...]:
    """What is bled in which order: from the lowest high point up, for air rises."""
    return tuple(BleedStep(high.name, fact(f"bleed.{high.outcome}")) for high in air.highs)
