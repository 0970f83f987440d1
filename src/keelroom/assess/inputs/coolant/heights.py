"""How high each place of the circuit stands, and where the cap that holds its pressure sits."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.inputs.coolant.graph import Graph, graph_of
from keelroom.assess.inputs.coolant.ports import COLD, CORE_IN, CORE_OUT, HOT, INLET, OUTLET, part_name
from keelroom.assess.made import laid_core
from keelroom.assess.placing import Axes, core_depth, size_of, stand_of, tank_size
from keelroom.core.kept import by_identity
from keelroom.document.fields import Path
from keelroom.document.quantity import Quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.loop import CapKind, Loop
from keelroom.document.schema.package import Core, Package, Place
from keelroom.document.schema.survey import Opening, Survey

HOODED = 1.5
"""Times the run between both readings of the hood its line is taken to go on"""
Heights = dict[str, float | None]


class Cap(NamedTuple):
    """A neck with a cap. node: where in the circuit; name; kind; rating [Pa] over the outdoors, 0 for a plain one;
    path: of its kind; at [m] its height."""

    node: str
    name: str
    kind: CapKind
    rating: float
    path: Path
    at: float | None


def heights_of(build: Build, package: Package) -> Heights:
    """Height [m] over the datum of each place of the circuit, its reference included; None where it was not
    measured."""
    return _heights(graph_of(build, package))


@by_identity(64)
def _heights(graph: Graph) -> Heights:
    found: Heights = {node: None for node in (COLD, *graph.nodes)}
    for port in graph.ports.values():
        if port.at[1] is not None and found.get(port.node, 0.0) is None:
            found[port.node] = port.at[1]
    engine = {node: found.get(node) for node in (HOT, OUTLET, INLET, COLD)}
    for node, others in ((HOT, (OUTLET,)), (OUTLET, (HOT,)), (COLD, (INLET,)), (INLET, (COLD,))):
        if node in found and found[node] is None:
            found[node] = next((engine[other] for other in others if engine[other] is not None), None)
    return found


def core_top(survey: Survey, package: Package) -> float:
    """Height [m] of the highest coolant in the core."""
    return _core_ends(survey.opening, laid_core(package.core), package.place)[1]


def core_bottom(survey: Survey, package: Package) -> float:
    """Height [m] of the lowest coolant in the core."""
    return _core_ends(survey.opening, laid_core(package.core), package.place)[0]


@by_identity(64)
def _core_ends(opening: Opening, core: Core, place: Place) -> tuple[float, float]:
    frame, (width, height) = Axes(stand_of(opening, place, core)), size_of(core)
    tank = 0.0 if core.flow == "crossflow" else tank_size(core)
    ends = [frame.point(width / 2, v, core_depth(core) / 2)[1] for v in (-tank, height + tank)]
    return ends[0], ends[1]


def hood_over(survey: Survey, z: float) -> float | None:
    """Height [m] of the hood's underside over a place so far behind the plane; None where there is no hood or it was
    not measured."""
    hood = survey.hood
    if hood.front is None or hood.back is None or not 0 <= z <= HOODED * hood.run.si:
        return None
    return hood.front.si + (hood.back.si - hood.front.si) / hood.run.si * z


def caps_of(build: Build, package: Package) -> tuple[Cap, ...]:
    """Every neck with a cap on it, pressure caps first."""
    loop, where = package.loop, ("packages", package.id, "loop")
    found = []
    if loop.core_neck != "none":
        rating = _si(loop.cap_pressure) if loop.core_neck == "pressure" else 0.0
        found.append(
            Cap(
                cap_tank(package.core),
                "Core’s filler neck",
                loop.core_neck,
                rating,
                (*where, "core_neck"),
                core_top(build.survey, package),
            )
        )
    for part in loop.parts:
        if part.cap != "none":
            rating = (
                (part.cap_rating.si if part.cap_rating else _si(loop.cap_pressure)) if part.cap == "pressure" else 0.0
            )
            at = part.y.si if part.y else None
            found.append(Cap(part.id, part_name(part), part.cap, rating, (*where, "parts", part.id, "cap"), at))
    return tuple(sorted(found, key=lambda cap: cap.kind != "pressure"))


def cap_tank(core: Core) -> str:
    """The tank the core's neck is on: as its filler port says, else a crossflow core's outlet tank, a downflow core's
    top one."""
    filler = next((port for port in core.ports if port.use == "filler"), None)
    if filler is not None:
        return CORE_IN if filler.tank == "inlet" else CORE_OUT
    return CORE_OUT if core.flow == "crossflow" else CORE_IN


def holding_cap(build: Build, package: Package) -> Cap | None:
    """The cap that sets the pressure: the weakest pressure cap of the circuit; None where there is none."""
    caps = [cap for cap in caps_of(build, package) if cap.kind == "pressure"]
    return min(caps, key=lambda cap: cap.rating, default=None)


WEAK_CAP = 0.4
"""Share of its rating a cap with a tired spring or seal still holds (common practice, no source)."""


def held_pressure(loop: Loop) -> float:
    """Pressure [Pa] over the outdoors the circuit is held at: by the rating of its caps, or what a weak one still
    holds."""
    return rated_pressure(loop) * (WEAK_CAP if loop.cap_state == "weak" else 1.0)


def rated_pressure(loop: Loop) -> float:
    """Pressure [Pa] over the outdoors its caps are made to hold: the weakest pressure cap's, 0 without one; a plain cap
    on a tank of the circuit holds nothing back unless another neck has a pressure cap, and a cracked hose lets all of
    it go."""
    if any(hose.state == "cracked" for hose in loop.hoses):
        return 0.0
    ratings = [_si(loop.cap_pressure)] if loop.core_neck == "pressure" else []
    ratings += [
        part.cap_rating.si if part.cap_rating else _si(loop.cap_pressure)
        for part in loop.parts
        if part.cap == "pressure"
    ]
    return min(ratings, default=0.0)


def _si(value: Quantity | None) -> float:
    return value.si if value is not None else 0.0
