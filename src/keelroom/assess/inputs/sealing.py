"""The ways round the core: what is open as found, and what the panels of a package leave of it."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from keelroom.assess.inputs.air_parts import Parts
from keelroom.assess.placing import face_size
from keelroom.core.air.network import BASE_PRESSURE
from keelroom.core.packaging.foam import left_open
from keelroom.document.schema.panels import EDGES, Edge, Panel
from keelroom.document.schema.survey import AirHole
from keelroom.units import INCH

BARE = INCH / 16
"""[m] a panel without foam stands off what it lies on: sheet waves (common practice)."""
PANEL_GAP = 5 * INCH / 16
"""[m] between a made panel's edge and what its foam bears on, where nothing else is entered (common practice)."""
DAM = 1.0
"""Pressure coefficient under the car per metre that a dam hangs down (common practice, no source): a 4 in dam, a
tenth."""
DAM_MOST = 0.2
"""Most a dam lowers that coefficient (common practice)."""


class AirWay(NamedTuple):
    """One way round the core. key: an edge, or a hole's id; found: gap [m] and length [m], the area of a hole as gap 0;
    area [m2] as found; left [m2] with the panels fitted; assumed: nobody measured it."""

    key: str
    name: str
    gap: float
    length: float
    area: float
    left: float
    assumed: bool


def edge_length(package: Parts, edge: Edge) -> float:
    """How long the gap at an edge of the core is [m]."""
    slit = getattr(package.sealing, edge)
    wide, high = face_size(package)
    return slit.length.si if slit.length else (high if edge in ("left", "right") else wide)


def hole_size(hole: AirHole) -> tuple[float, float]:
    """Width and height of an air hole [m]; nothing of one that is not measured."""
    wide = hole.width.si if hole.width else 0.0
    return wide, (wide if hole.round else hole.height.si if hole.height else 0.0)


def hole_area(hole: AirHole) -> float:
    """Open area of an air hole [m2]."""
    wide, high = hole_size(hole)
    return wide * high * (np.pi / 4 if hole.round else 1.0)


def foam_gap(package: Parts, panel: Panel) -> float:
    """The gap a panel's foam has to fill [m]."""
    if panel.foam_gap is not None:
        return panel.foam_gap.si
    if panel.kind == "strip" and panel.closes in EDGES:
        return float(getattr(package.sealing, panel.closes).gap.si)
    return PANEL_GAP


def seal_gap(package: Parts, panel: Panel) -> float:
    """What stays open along a panel's seal [m]."""
    gap = foam_gap(package, panel)
    if panel.foam is None:
        return gap if panel.kind == "strip" else BARE
    return left_open(panel.foam.si, gap)


def panel_length(package: Parts, holes: tuple[AirHole, ...], panel: Panel) -> float:
    """Length [m] of a panel: its own, or as its gap is long."""
    if panel.length is not None:
        return panel.length.si
    if panel.closes in EDGES:
        return edge_length(package, panel.closes)
    hole = next((hole for hole in holes if hole.id == panel.closes), None)
    return hole_size(hole)[0] if hole else face_size(package)[0]


def ways(package: Parts, holes: tuple[AirHole, ...]) -> tuple[AirWay, ...]:
    """Every way round the core: its four edges, then the holes the survey found."""
    fitted = [panel for panel in package.panels if panel.fitted]
    found = []
    for edge in EDGES:
        slit, length = getattr(package.sealing, edge), edge_length(package, edge)
        gap, left, rest = slit.gap.si, 0.0, length
        for panel in (panel for panel in fitted if panel.closes == edge and panel.kind != "dam"):
            own = min(panel_length(package, holes, panel), rest)
            left += own * min(seal_gap(package, panel), gap)
            rest -= own
        found.append(
            AirWay(
                edge, f"{edge} of the core", gap, length, gap * length, left + rest * gap, slit.gap.origin == "assumed"
            )
        )
    for hole in holes:
        (wide, high), area = hole_size(hole), hole_area(hole)
        cover = next((panel for panel in fitted if panel.closes == hole.id and panel.kind != "dam"), None)
        round_it = np.pi * wide if hole.round else 2 * (wide + high)
        leak = area if cover is None else min(round_it * seal_gap(package, cover), area)
        unknown = hole.width is None or (hole.height is None and not hole.round)
        found.append(AirWay(hole.id, hole.name or hole.id, 0.0, wide, area, leak, unknown))
    return tuple(found)


OPEN = 0.02
"""Share of a way's area under which it counts as closed."""


def open_edges(package: Parts, holes: tuple[AirHole, ...], edges: tuple[Edge, ...] = EDGES) -> tuple[AirWay, ...]:
    """Those of the edges that something is left open at."""
    return tuple(way for way in ways(package, holes) if way.key in edges and way.left > way.area * OPEN)


def open_area(package: Parts, holes: tuple[AirHole, ...]) -> float:
    """Open area round the core [m2], panels counted."""
    return sum(way.left for way in ways(package, holes))


def base_pressure(package: Parts) -> float:
    """Pressure coefficient under the car where the bay air leaves: lower behind a dam."""
    dams = [panel.depth.si for panel in package.panels if panel.fitted and panel.kind == "dam"]
    return BASE_PRESSURE - min(DAM * max(dams, default=0.0), DAM_MOST)
