"""Where each hose runs: from port to port by what it goes by, with bends as wide as its kind wants and the room lets
it have."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.assess.inputs.coolant.ports import Port, Vector
from keelroom.core.kept import by_identity, by_value
from keelroom.core.loop.hoses import PUSHED_ON, least_radius
from keelroom.core.loop.route import Route, routed
from keelroom.document.schema.loop import Hose, Via
from keelroom.units import INCH

NECK_BORE = 1.5 * INCH
STUBS = (0.75, 1.25, 2.0, 3.0)
"""Bores a hose runs straight out of its neck, the first that gives its bends their radius (common practice)."""
NECK_HEADS, BEND_HEADS = 0.75, 0.3
"""Dynamic heads lost at the necks of a hose, and in a right angle of it (common practice)."""


class HoseRun(NamedTuple):
    """A hose between two known ports. bore, length [m], right_angles and least radius as typed, else by its route;
    route: None where
    an end's place is not known; narrow: bore of its narrowest fitting, its own where there is none narrower."""

    hose: Hose
    start: Port
    end: Port
    bore: float
    narrow: float
    length: float | None
    right_angles: float
    radius: float | None
    route: Route | None

    @property
    def name(self) -> str:
        return hose_name(self.hose)

    @property
    def wanted(self) -> float:
        """Least radius [m] its kind wants."""
        return least_radius(self.hose.kind, self.bore)


def hose_name(hose: Hose) -> str:
    """What a hose is called."""
    return hose.name or f"Hose {hose.id.removeprefix('hose')}"


@by_identity(128)
def run_of(hose: Hose, start: Port, end: Port) -> HoseRun:
    """A hose with its measures: what is typed stands, the rest follows from where it runs."""
    bore = bore_of(hose, start, end)
    route = route_between(hose, start, end, bore)
    length = hose.length.si if hose.length else route.length if route else None
    turned = hose.bends.si if hose.bends else route.right_angles if route else 2.0
    radius = hose.tightest.si if hose.tightest else route.tightest if route and route.bends else None
    narrow = min(
        [bore, *(value for value in (hose.necks.si if hose.necks else None, start.bore, end.bore) if value is not None)]
    )
    return HoseRun(hose, start, end, bore, narrow, length, turned, radius, route)


def bore_of(hose: Hose, start: Port, end: Port) -> float:
    """Bore [m] of a hose: its own, else the larger of its ends', so that it goes over both."""
    if hose.bore is not None:
        return hose.bore.si
    return max((value for value in (start.bore, end.bore) if value is not None), default=NECK_BORE)


def route_between(
    hose: Hose, start: Port, end: Port, bore: float, via: tuple[Vector, ...] | None = None
) -> Route | None:
    """Its middle line; None where an end's place is not known or both ends are at one place. via: in place of the
    hose's own"""
    first, last = start.place, end.place
    if first is None or last is None or first == last:
        return None
    between = via if via is not None else _points(hose.via, first, last)
    return _routed((first, start.way), between, (last, end.way), bore, least_radius(hose.kind, bore))


@by_value(512)
def _routed(
    start: tuple[Vector, Vector | None],
    between: tuple[Vector, ...],
    end: tuple[Vector, Vector | None],
    bore: float,
    wanted: float,
) -> Route | None:
    """The first way with stubs of rising length whose bends are no tighter than wanted [m], or the widest of them."""
    (first, way), (last, other_way) = start, end
    best: Route | None = None
    for share in STUBS:
        out = PUSHED_ON + share * bore
        toward = between[0] if between else last
        back = between[-1] if between else first
        corners = (
            first,
            *_leaving(first, way, toward, (out, wanted)),
            *between,
            *reversed(_leaving(last, other_way, back, (out, wanted))),
            last,
        )
        route = routed(corners, wanted)
        if route.tightest >= wanted - 1e-6:
            return route
        if best is None or route.tightest > best.tightest:
            best = route
    return best


def _leaving(at: Vector, way: Vector | None, toward: Vector, sizes: tuple[float, float]) -> tuple[Vector, ...]:
    """The corners by which a hose leaves a neck: straight out of it; where that is away from where it goes, aside as
    well, for it has to turn round.

    sizes: how far it runs straight out, and the radius its bends want [m]
    """
    if way is None:
        return ()
    out, radius = sizes
    corner = _beyond(at, way, out)
    on = np.array(toward) - np.array(corner)
    long = float(np.sqrt((on**2).sum()))
    if long < 1e-6 or float(on @ np.array(way)) / long > -0.5:
        return (corner,)
    aside = on - float(on @ np.array(way)) * np.array(way)
    size = float(np.sqrt((aside**2).sum()))
    # Straight behind: sideways, on the level where its neck is.
    aside = (
        aside / size
        if size > 0.2 * radius
        else np.cross(np.array(way), (0.0, 1.0, 0.0) if abs(way[1]) < 0.9 else (1.0, 0.0, 0.0))
    )
    turn = 2.2 * radius
    first = _beyond(at, way, max(out, PUSHED_ON + 1.05 * radius))
    return (
        first,
        (first[0] + float(aside[0]) * turn, first[1] + float(aside[1]) * turn, first[2] + float(aside[2]) * turn),
    )


def _beyond(at: Vector, way: Vector, out: float) -> Vector:
    return (at[0] + way[0] * out, at[1] + way[1] * out, at[2] + way[2] * out)


def _points(via: tuple[Via, ...], first: Vector, last: Vector) -> tuple[Vector, ...]:
    """The points it goes by; what of one is not said lies on the straight way."""
    found = []
    for k, point in enumerate(via, 1):
        share = k / (len(via) + 1)
        typed = (point.x, point.y, point.z)
        x, y, z = (value.si if value else a + share * (b - a) for value, a, b in zip(typed, first, last, strict=True))
        found.append((x, y, z))
    return tuple(found)


def heads_of(run: HoseRun) -> float:
    """Dynamic heads a hose loses beside its friction, at its bore: necks, bends, and a fitting narrower than itself.

    A narrow fitting is a sudden contraction and an enlargement; source CRANE for both.
    """
    beta2 = (run.narrow / run.bore) ** 2
    squeezed = (0.5 * (1 - beta2) + (1 - beta2) ** 2) / beta2**2 if beta2 < 1 else 0.0
    return NECK_HEADS + BEND_HEADS * run.right_angles + squeezed
