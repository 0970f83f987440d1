"""Made parts where they go: panels and strips at the core's edges, covers over holes, brackets from point to point,
what was moved from where."""

from __future__ import annotations

from keelroom.assess.fit.bodies import Body
from keelroom.assess.fit.mounts import anchors
from keelroom.assess.fit.moves import unmoved
from keelroom.assess.fit.points import point_of
from keelroom.assess.fit.survey_bodies import neighbours
from keelroom.assess.inputs.sealing import hole_size, panel_length
from keelroom.assess.placing import face_size, over_tanks, placed_frame
from keelroom.core.kept import by_identity
from keelroom.core.packaging.solids import Solid, Vector
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.document.schema.panels import EDGES, Edge, Panel

THIN = 4e-3
"""[m] sheet is drawn at least so thick, so that it is seen"""
STRIP_DEEP, DAM_AT = 0.025, -0.08
"""[m] how deep a strip of foam is drawn, and how far under the datum a dam begins"""


def moved_from(build: Build, package: Package) -> tuple[Body, ...]:
    """Neighbours where they stood before they were moved."""
    stays = {body.key for body in unmoved(build.survey, package)}
    return tuple(body for body in neighbours(build.survey) if body.key not in stays and not body.unknown)


@by_identity(8)
def panel_solids(build: Build, package: Package) -> tuple[tuple[str, bool, Solid], ...]:
    """Every panel that has a place: its id, whether it is fitted, and the box it fills."""
    found = []
    for panel in package.panels:
        if panel.kind == "dam":
            found.append((panel.id, panel.fitted, _dam(build, package, panel)))
        elif panel.closes in EDGES:
            found.append((panel.id, panel.fitted, _edge(build, package, panel, panel.closes)))
        else:
            solid = _cover(build, panel)
            if solid is not None:
                found.append((panel.id, panel.fitted, solid))
    return tuple(found)


def _edge(build: Build, package: Package, panel: Panel, edge: Edge) -> Solid:
    (width, height), (wide, high) = face_size(package), over_tanks(package.core)
    side, top = (wide - width) / 2, (high - height) / 2
    gap = max(getattr(package.sealing, edge).gap.si, THIN)
    long = panel_length(package, build.survey.air_holes, panel)
    deep = STRIP_DEEP if panel.kind == "strip" else panel.depth.si
    sheet = gap if panel.kind == "strip" else THIN
    middle = (width if edge in ("top", "bottom") else height) / 2
    along = (middle - long / 2, middle + long / 2)
    at = {
        "top": (along, (height + top + gap - sheet, height + top + gap)),
        "bottom": (along, (-top - gap, -top - gap + sheet)),
        "left": ((-side - gap, -side - gap + sheet), along),
        "right": ((width + side + gap - sheet, width + side + gap), along),
    }[edge]
    return placed_frame(build.survey, package).box(*at, (-deep, 0.0))


def _dam(build: Build, package: Package, panel: Panel) -> Solid:
    width, _ = face_size(package)
    long = panel_length(package, build.survey.air_holes, panel)
    high = panel.depth.si
    frame = placed_frame(build.survey, package)
    return frame.box(((width - long) / 2, (width + long) / 2), (DAM_AT - high, DAM_AT), (-0.05, -0.05 + THIN))


def _cover(build: Build, panel: Panel) -> Solid | None:
    hole = next((hole for hole in build.survey.air_holes if hole.id == panel.closes), None)
    if hole is None or hole.x is None or hole.y is None:
        return None
    wide, high = hole_size(hole)
    return Solid(
        (hole.x.si, hole.y.si, -THIN / 2), (max(wide, THIN) / 2, max(high, THIN) / 2, THIN / 2), round=hole.round
    )


@by_identity(8)
def bracket_lines(build: Build, package: Package) -> tuple[tuple[str, Vector, Vector], ...]:
    """Every bracket whose ends are known: its id and its ends."""
    if not package.brackets:
        return ()
    points, found = anchors(build.survey, package), []
    for bracket in package.brackets:
        ends = [point_of(points, bracket, key) for key in (bracket.start, bracket.end)]
        if ends[0] is not None and ends[1] is not None:
            found.append((bracket.id, ends[0].at, ends[1].at))
    return tuple(found)
