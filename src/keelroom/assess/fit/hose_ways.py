"""A way for a hose round what stands there: points it goes by, tried nearest first, until its bends are wide enough
and nothing is near."""

from __future__ import annotations

import itertools
from typing import NamedTuple

import numpy as np

from keelroom.assess.fit.clearances import Fit
from keelroom.assess.fit.moves import unmoved
from keelroom.assess.fit.package_bodies import hose_solids, parts_of_package
from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.inputs.coolant.ports import Vector
from keelroom.assess.inputs.coolant.routes import HoseRun, route_between
from keelroom.core.loop.route import Route
from keelroom.core.packaging.solids import Solid, parted, stacked
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package

CLEAR = 0.019
"""[m] a hose keeps off what stands there (common practice: 3/4 in)."""
ASIDE = (0.06, 0.12, 0.2, 0.3)
"""[m] by how much a point is put aside of the straight way."""


class HoseWay(NamedTuple):
    """A way tried: its points, its route, the least gap [m] to anything."""

    points: tuple[Vector, ...]
    route: Route
    gap: float


def detour(build: Build, package: Package, ident: str) -> tuple[Vector, ...] | None:
    """Points for a hose to go by; None where no way tried has bends as wide as its kind wants. Of those that have the
    clear ones come first, the shortest of them."""
    run = next((one for one in graph_of(build, package).runs if one.hose.id == ident), None)
    if run is None or run.route is None:
        return None
    ways = ways_of(build, package, run)
    wide = [way for way in ways if way.route.tightest >= run.wanted - 5e-4]
    if not wide:
        return None
    best = min(wide, key=lambda way: (way.gap < CLEAR, -min(way.gap, CLEAR), way.route.length))
    return best.points


def ways_of(build: Build, package: Package, run: HoseRun) -> list[HoseWay]:
    """The straight way and ways by one or two points aside of it."""
    first, last = run.start.place, run.end.place
    if first is None or last is None:
        return []
    around = _around(build, package, run.hose.id)
    span = np.array(last) - np.array(first)
    # Along the axes and between all three of them.
    aside = [np.array(way) for way in itertools.product((-1.0, 0.0, 1.0), repeat=3) if sum(map(abs, way)) in (1, 3)]
    tried: list[tuple[Vector, ...]] = [()]
    for out in ASIDE:
        for way in aside:
            step = way / np.sqrt((way**2).sum()) * out
            for share in (0.35, 0.5, 0.65):
                tried.append((_vector(np.array(first) + span * share + step),))
    found = []
    for points in tried:
        route = route_between(run.hose, run.start, run.end, run.bore, points)
        if route is not None:
            found.append((points, route))
    # Only what bends widely enough is worth a look at its neighbours.
    order = sorted(found, key=lambda one: (one[1].tightest < run.wanted - 5e-4, one[1].length))
    return [HoseWay(points, route, _gap(route, run.bore, around)) for points, route in order[:24]]


def _vector(values: np.ndarray) -> Vector:
    return (float(values[0]), float(values[1]), float(values[2]))


def _around(build: Build, package: Package, ident: str) -> list[Solid]:
    bodies = (*unmoved(build.survey, package), *parts_of_package(build.survey, package))
    return [body.solid for body in bodies if not body.key.startswith(f"hose:{ident}:") and body.sort != "hood"]


def _gap(route: Route, bore: float, around: list[Solid]) -> float:
    """Least gap [m], never more than the true one, from the hose away from its necks to anything."""
    pieces = hose_solids(route, bore)
    inner = pieces[1:-1] or pieces
    if not around or not inner:
        return 1.0
    a = stacked([piece for piece in inner for _ in around])
    b = stacked([solid for _ in inner for solid in around])
    return float(parted(a, b)[0].min())


def hoses_to_lead_anew(build: Build, package: Package, fit: Fit | None) -> tuple[HoseRun, ...]:
    """Hoses that kink, or pass nearer to something than is wanted."""
    near = (
        {gap.part.key.split(":")[1] for gap in fit.gaps if gap.part.sort == "hose" and gap.gap < gap.wanted}
        if fit
        else set()
    )
    runs = graph_of(build, package).runs
    return tuple(
        run for run in runs if run.hose.id in near or (run.radius is not None and run.radius < run.wanted - 5e-4)
    )
