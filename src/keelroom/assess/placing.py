"""Where the core stands in the bay, and what of its face the panel's opening leaves free."""

from __future__ import annotations

import math
from typing import NamedTuple, Protocol

import numpy as np

from keelroom.core.air.face import face_points
from keelroom.core.kept import by_identity, by_value
from keelroom.core.outline import Outline, rectangle, within
from keelroom.core.packaging.solids import Solid, Vector, leaned
from keelroom.document.edits import checked, fresh_id
from keelroom.document.quantity import from_si
from keelroom.document.schema.package import Core, Cut, Package, PanelEdge, Place
from keelroom.document.schema.survey import Opening, Survey

LIES = math.radians(60.0)
"""Lean over which a core lies rather than stands behind the panel, whose opening then hides none of its face (common
practice)."""
SEEN_WHOLE = 1e-6
"""[m] an edge that lies this near the face's own hides nothing."""


class Stand(NamedTuple):
    """The face's lower left front corner by the survey's datums [m], and its lean to the rear [rad]."""

    x: float
    y: float
    z: float
    lean: float


class Cored(Protocol):
    """Whatever has a core."""

    @property
    def core(self) -> Core: ...


def face_size(package: Cored) -> tuple[float, float]:
    """Face width and height [m]; half a metre by a third where not known yet."""
    return size_of(package.core)


def size_of(core: Core) -> tuple[float, float]:
    """Face width and height [m] of a core, as `face_size`."""
    return (core.face_width.si if core.face_width else 0.5, core.face_height.si if core.face_height else 0.33)


def core_depth(core: Core) -> float:
    """Core depth [m]; two inches where not known yet."""
    return core.depth.si if core.depth else 0.05


def tank_size(core: Core) -> float:
    """How far a tank stands out beyond the fins [m]."""
    return core.tank_size.si if core.tank_size else 0.0


def over_tanks(core: Core) -> tuple[float, float]:
    """Width and height [m] with the tanks."""
    (width, height), tanks = size_of(core), 2 * tank_size(core)
    return (width + tanks, height) if core.flow == "crossflow" else (width, height + tanks)


def stand(survey: Survey, package: Package) -> Stand:
    """Where the package's core stands: as placed, otherwise in the middle of the opening, leaning as the support
    does."""
    return stand_of(survey.opening, package.place, package.core)


@by_identity(64)
def stand_of(opening: Opening, place: Place, core: Core) -> Stand:
    """The same, of what it depends on."""
    width, height = size_of(core)
    left, bottom, wide, high = opening_box(opening, (width, height))
    lean = place.lean.si if place.lean is not None else opening.support_lean.si
    return Stand(
        place.x.si if place.x is not None else left + (wide - width) / 2,
        place.y.si if place.y is not None else bottom + (high - height * math.cos(lean)) / 2,
        place.z.si,
        lean,
    )


def opening_box(opening: Opening, size: tuple[float, float]) -> tuple[float, float, float, float]:
    """Left, bottom, width, height of the uncut opening; a side that is not measured is as long as the face's."""
    if opening.corners:
        xs, ys = [c.x.si for c in opening.corners], [c.y.si for c in opening.corners]
        return min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)
    return 0.0, 0.0, opening.width.si if opening.width else size[0], opening.height.si if opening.height else size[1]


class Axes:
    """The core's own frame in the bay: u across, v up the core, w out of its back."""

    def __init__(self, at: Stand) -> None:
        self.axes = leaned(at.lean)
        self.matrix = np.array(self.axes)
        self.origin = np.array([at.x, at.y, at.z])

    def point(self, u: float, v: float, w: float) -> Vector:
        """A point of the core by the survey's datums [m]."""
        found = self.origin + np.array([u, v, w]) @ self.matrix
        return (float(found[0]), float(found[1]), float(found[2]))

    def box(self, u: tuple[float, float], v: tuple[float, float], w: tuple[float, float]) -> Solid:
        centre = self.point((u[0] + u[1]) / 2, (v[0] + v[1]) / 2, (w[0] + w[1]) / 2)
        return Solid(centre, (abs(u[1] - u[0]) / 2, abs(v[1] - v[0]) / 2, abs(w[1] - w[0]) / 2), self.axes)

    def disc(self, centre: tuple[float, float], radius: float, w: tuple[float, float]) -> Solid:
        return Solid(self.point(*centre, (w[0] + w[1]) / 2), (radius, radius, (w[1] - w[0]) / 2), self.axes, True)


def placed_frame(survey: Survey, package: Package) -> Axes:
    """The frame of the package's core where it stands."""
    return Axes(stand(survey, package))


def measured(opening: Opening) -> bool:
    """Whether anything of the opening is known."""
    return bool(opening.corners) or opening.width is not None or opening.height is not None


def opening_outline(survey: Survey, package: Package, cut: bool = True) -> Outline | None:
    """The opening by the survey's datums, with the package's cuts made or as found; None where it is not measured."""
    if not measured(survey.opening):
        return None
    return cut_outline(survey.opening, package.cuts if cut else (), package.core)


@by_identity(64)
def cut_outline(opening: Opening, cuts: tuple[Cut, ...], core: Core) -> Outline:
    """The opening with cuts made; a side that is not measured is as long as the core's."""
    corners = tuple((c.x.si, c.y.si) for c in opening.corners) or rectangle(*opening_box(opening, size_of(core)))
    for cut in cuts:
        # Trim on a cut edge takes some of what was cut back again.
        corners = _cut_back(corners, cut.edge, cut.amount.si - cut.trim.si)
    return corners


def _cut_back(corners: Outline, edge: str, amount: float) -> Outline:
    """The outline with the corners at its furthest edge moved out."""
    axis = 0 if edge in ("left", "right") else 1
    sign = 1 if edge in ("right", "top") else -1
    limit = max(sign * corner[axis] for corner in corners)

    def moved(corner: tuple[float, float]) -> tuple[float, float]:
        if sign * corner[axis] < limit - 1e-4:
            return corner
        at = corner[axis] + sign * amount
        return (at, corner[1]) if axis == 0 else (corner[0], at)

    return tuple(moved(corner) for corner in corners)


def opening_on_face(survey: Survey, package: Package) -> Outline | None:
    """The opening in face coordinates; None where no panel hides any of the face. Equal outlines are one object."""
    outline = opening_outline(survey, package) if not package.remote.away else None
    if outline is None:
        return None
    at, (width, height) = stand(survey, package), face_size(package)
    if abs(at.lean) > LIES:
        return None
    seen = tuple((x - at.x, (y - at.y) / math.cos(at.lean)) for x, y in outline)
    if len(seen) == 4 and _covers(seen, width, height):
        return None
    return _one_object(seen)


@by_value(128)
def _one_object(outline: Outline) -> Outline:
    return outline


def hidden_share(survey: Survey, package: Package) -> float:
    """Share of the face behind uncut panel."""
    outline = opening_on_face(survey, package)
    return 0.0 if outline is None else _hidden(outline, face_size(package))


@by_value(128)
def _hidden(outline: Outline, size: tuple[float, float]) -> float:
    return 1.0 - float(within(face_points(*size), outline).mean())


def _covers(outline: Outline, width: float, height: float) -> bool:
    """Whether an upright rectangle leaves the whole face free."""
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    upright = len(set(xs)) == 2 and len(set(ys)) == 2
    return (
        upright
        and min(xs) <= SEEN_WHOLE
        and min(ys) <= SEEN_WHOLE
        and max(xs) >= width - SEEN_WHOLE
        and max(ys) >= height - SEEN_WHOLE
    )


def hidden_strips(survey: Survey, package: Package) -> tuple[tuple[PanelEdge, float], ...]:
    """What of the face lies beyond each of the opening's outermost edges [m], widest last: the cuts that would clear
    it."""
    outline = opening_on_face(survey, package)
    if outline is None:
        return ()
    width, height = face_size(package)
    lean = math.cos(stand(survey, package).lean)
    xs, ys = [x for x, _ in outline], [y for _, y in outline]
    found: tuple[tuple[PanelEdge, float], ...] = (
        ("left", min(xs)),
        ("right", width - max(xs)),
        ("bottom", min(ys) * lean),
        ("top", (height - max(ys)) * lean),
    )
    return tuple(sorted(((edge, strip) for edge, strip in found if strip > SEEN_WHOLE), key=lambda pair: pair[1]))


def cuts_for(present: tuple[Cut, ...], strips: tuple[tuple[PanelEdge, float], ...], system: str) -> tuple[Cut, ...]:
    """One cut per strip."""
    made: list[Cut] = []
    for edge, amount in strips:
        made.append(
            checked(
                Cut,
                id=fresh_id((*present, *made), "cut"),
                edge=edge,
                amount=from_si(amount, "length", system, "derived"),
            )
        )
    return tuple(made)
