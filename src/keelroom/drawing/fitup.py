"""The package in its bay, from the front, from the left side and from above, by the survey's datums and at one
scale."""

from __future__ import annotations

import math
from typing import Literal, NamedTuple

from keelroom.assess.fit.bodies import Body
from keelroom.assess.fit.clearances import Fit, Gap
from keelroom.assess.fit.package_bodies import standoff
from keelroom.assess.fit.survey_bodies import hood_line
from keelroom.assess.placing import core_depth, face_size, opening_outline, stand
from keelroom.assess.report import gap_size
from keelroom.core.kept import by_identity, by_identity_at, by_value
from keelroom.core.outline import Box, Outline, circle, clipped, clipped_line, hull
from keelroom.core.packaging.solids import Solid, Vector
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Fan, Package
from keelroom.drawing.made import bracket_lines, moved_from, panel_solids
from keelroom.drawing.scene import Circle, Dimension, Label, Point, Polyline, Scene, Shape, moved
from keelroom.units import KINDS, format_si

View = Literal["front", "side", "above"]
VIEWS: tuple[View, ...] = ("front", "side", "above")
TITLES: dict[View, str] = {"front": "From the front", "side": "From the left side", "above": "From above"}
AXES: dict[View, tuple[tuple[int, float], tuple[int, float]]] = {
    "front": ((0, 1.0), (1, 1.0)),
    "side": ((2, 1.0), (1, 1.0)),
    "above": ((0, 1.0), (2, -1.0)),
}
"""Which datum runs across and which up, with its sign; seen from above the rear of the bay lies at the bottom."""
DEPTH_AXIS: dict[View, int] = {"front": 2, "side": 0, "above": 1}
ROUND_STEPS = 40
CHAR, LINE = 0.0155, 0.036
"""[m] a letter and a line take on the drawing as it usually stands on the screen."""
USUAL_SCALE = 430.0
"""[px/m] it usually stands at."""
SHOWN = 4
"""Clearances drawn with a dimension line in one view."""
STATE_WORDS = {"overlaps": "overlaps", "under": "too close", "tight": "tight", "clear": "clear"}
REACH = (0.06, 0.05, 0.14)
"""[m] along x, y and z: how far beyond the package the views look, so that far things do not shrink the picture."""


class Limits(NamedTuple):
    """The region all views share, low and high along x, y and z [m]."""

    low: Vector
    high: Vector


def flat(view: View, point: Vector) -> Point:
    """Where a place in the bay lies in a view."""
    (i, si), (j, sj) = AXES[view]
    return (si * point[i], sj * point[j])


NOTHING = Limits((-0.1, -0.1, -0.1), (0.7, 0.6, 0.5))
"""where the views look before anything stands in the bay"""


def region(fit: Fit) -> Limits:
    """The package and what is near it: common to all views, so that they keep one scale."""
    points = [corner for body in fit.parts for corner in _points(body.solid)]
    if not points:
        return NOTHING  # no core is chosen yet: an empty sheet
    near = {gap.other.key for gap in fit.gaps}
    points += [
        corner
        for body in fit.others
        if body.key in near and body.sort in ("static", "turning")
        for corner in _points(body.solid)
    ]
    low = [min(p[k] for p in points) for k in range(3)]
    high = [max(p[k] for p in points) for k in range(3)]
    parts = [corner for body in fit.parts for corner in _points(body.solid)]
    for k, reach in enumerate(REACH):
        # A neighbour's far end is of no interest: the picture stays with the package.
        low[k] = max(low[k], min(p[k] for p in parts) - reach) - 0.03
        high[k] = min(high[k], max(p[k] for p in parts) + reach) + 0.03
    return Limits((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def view_scene(
    view: View,
    build: Build,
    package: Package,
    fit: Fit,
    system: str,
    limits: Limits | None = None,
    scale: float | None = USUAL_SCALE,
) -> Scene:
    """One view, far things first, with the clearances it shows best. scale: pixels a metre takes; None for a small
    picture without words"""
    limits = limits or region(fit)
    box = view_box(view, limits)
    left, right = box[0], box[0] + box[2]
    shapes: list[Shape] = []
    for body in moved_from(build, package):
        shapes += [part._replace(role="fit.was") for part in _shown(body, (view, box))]
    for body in _ordered(view, fit):
        shapes += _shown(body, (view, box))
    for shape in _made(view, build, package):
        shapes += _within(shape, box)
    for shape in (*_panel(view, build, package, fit), *_hood(view, build, (left, right))):
        shapes += _within(shape, box) if view != "front" or shape.role != "panel.opening" else [shape]
    if scale is not None:
        words = _Words(box, scale)
        shapes += _gaps(view, fit, system, words)
        shapes += _names(view, fit, words)
    return Scene(tuple(shapes), box)


def _made(view: View, build: Build, package: Package) -> list[Shape]:
    """Panels as slabs, brackets as lines with a bolt at each end."""
    shapes: list[Shape] = []
    for _, fitted, solid in panel_solids(build, package):
        shapes.append(Polyline("fit.seal" if fitted else "fit.seal.off", _outline(view, solid), True))
    for _, start, end in bracket_lines(build, package):
        a, b = flat(view, start), flat(view, end)
        shapes += [Polyline("fit.bracket", (a, b)), Circle("fit.bolt", a, BOLT), Circle("fit.bolt", b, BOLT)]
    return shapes


BOLT = 5e-3
"""[m] a bolt is drawn as large"""


def view_box(view: View, limits: Limits) -> Box:
    """Left, bottom, width and height of a view [m]."""
    a, b = flat(view, limits.low), flat(view, limits.high)
    left, bottom = min(a[0], b[0]), min(a[1], b[1])
    return (left, bottom, abs(b[0] - a[0]), abs(b[1] - a[1]))


@by_identity_at(4000)
def _shown(body: Body, at: tuple[View, Box]) -> list[Shape]:
    """A body's outline in a view, as much of it as lies in the picture: while something is dragged, all else stays."""
    view, box = at
    return [part for shape in outline_of(view, body) for part in _within(shape, box)]


def _within(shape: Shape, box: Box) -> list[Shape]:
    """What of a body's outline lies in the picture."""
    left, bottom, wide, high = box
    if isinstance(shape, Circle):
        (x, y), r = shape.centre, shape.radius
        if left <= x - r and x + r <= left + wide and bottom <= y - r and y + r <= bottom + high:
            return [shape]
        shape = Polyline(shape.role, circle(shape.centre, r, ROUND_STEPS), True, shape.tag)
    assert isinstance(shape, Polyline)
    if shape.closed:
        kept = clipped(shape.points, box)
        return [shape._replace(points=kept)] if len(kept) > 2 else []
    line = clipped_line(shape.points[0], shape.points[1], box)
    return [shape._replace(points=line)] if line else []


def _ordered(view: View, fit: Fit) -> list[Body]:
    """Bodies in painting order. From the front, fans and covers are outlines over everything: they are what is moved
    there."""
    axis = DEPTH_AXIS[view]
    others = [body for body in (*fit.others, *fit.moved) if body.sort not in ("panel", "hood")]
    hoses = [body for body in fit.parts if body.sort == "hose"]
    solids = [body for body in fit.parts if body.sort != "hose"]
    if view == "front":
        block = [body for body in solids if body.sort == "part" and not body.key.startswith(("cover", "shroud"))]
        outlines = [body for body in solids if body not in block]
        return [*block, *others, *hoses, *sorted(outlines, key=lambda body: body.sort == "fan")]
    # From the left the smaller x is near, from above the larger y.
    sign = -1.0 if view == "side" else 1.0
    return [
        *sorted(others, key=lambda body: sign * body.solid.centre[axis]),
        *sorted(solids, key=lambda body: sign * body.solid.centre[axis]),
        *hoses,
    ]


def _steps(most: int) -> tuple[tuple[int, int], ...]:
    steps = [(across, up) for up in range(-most, most + 1) for across in (0, 1, -1)]
    return tuple(sorted(steps, key=lambda step: abs(step[1]) + 3 * abs(step[0])))


STEPS = {True: _steps(6), False: _steps(2)}
"""Where a text that must, or need not, be said is tried, nearest first: halves of itself across, lines up."""


class _Words:
    """Where words already stand in a view: new ones go to the nearest free place, or are left out where none is near.

    scale : pixels a metre takes where the view is shown; words are as large on the screen at any scale
    """

    def __init__(self, box: Box, scale: float = USUAL_SCALE) -> None:
        self.left, self.bottom, self.wide, self.high = box
        self.char, self.line = CHAR * USUAL_SCALE / scale, LINE * USUAL_SCALE / scale
        self.taken: list[tuple[float, float, float]] = []

    def place(self, at: Point, text: str, must: bool) -> Point | None:
        """The nearest free place for a text centred at `at`; None where there is none and it need not be said."""
        half = min(self.char * len(text) / 2 + self.char, self.wide / 2)
        for across, up in STEPS[must]:
            x = min(max(at[0] + across * half, self.left + half), self.left + self.wide - half)
            y = min(max(at[1] + up * self.line, self.bottom + self.line / 2), self.bottom + self.high - self.line / 2)
            if all(abs(x - a) > half + other or abs(y - b) > 0.98 * self.line for a, b, other in self.taken):
                self.taken.append((x, y, half))
                return (x, y)
        return None

    def said(self, role: str, about: Point, text: str, must: bool) -> list[Shape]:
        """The words, with a leader to what they are about where they had to stand off it."""
        at = self.place((about[0], about[1] + self.line / 2), text, must)
        if at is None:
            return []
        off = math.dist(at, about) > 1.6 * self.line
        return [*([Polyline("leader", (about, at))] if off else []), Label(role, at, text)]


def section_sheet(build: Build, package: Package, fit: Fit, system: str) -> Scene:
    """All three views on one sheet at one scale, as a box folded open: side to the right of the front, from above
    under it."""
    limits, gap = region(fit), 0.06
    shapes: list[Shape] = []
    front = view_scene("front", build, package, fit, system, limits)
    left, bottom, wide, _ = front.bounds
    boxes = []
    for view in VIEWS:
        scene = front if view == "front" else view_scene(view, build, package, fit, system, limits)
        l2, b2, w2, h2 = scene.bounds
        dx, dy = {
            "front": (0.0, 0.0),
            "side": (left + wide + gap - l2, bottom - b2),
            "above": (left - l2, bottom - gap - h2 - b2),
        }[view]
        shapes += [moved(shape, dx, dy) for shape in (*scene.shapes, *_sizes(view, build, package, system))]
        shapes.append(Label("view.title", (l2 + dx + w2 / 2, b2 + dy + h2 + 0.018), TITLES[view]))
        boxes.append((l2 + dx, b2 + dy, w2, h2))
    x0, y0 = min(b[0] for b in boxes), min(b[1] for b in boxes)
    x1, y1 = max(b[0] + b[2] for b in boxes), max(b[1] + b[3] for b in boxes)
    return Scene(tuple(shapes), (x0 - 0.02, y0 - 0.02, x1 - x0 + 0.04, y1 - y0 + 0.07))


def _sizes(view: View, build: Build, package: Package, system: str) -> list[Shape]:
    """Dimensions of a drawing that leaves the window: the core's face and place, the opening, the depths."""
    at, (width, height) = stand(build.survey, package), face_size(package)
    up = height * math.cos(at.lean)
    depth = core_depth(package.core)

    def line(start: Point, end: Point, off: float, words: str) -> Dimension:
        size = format_si(math.dist(start, end), KINDS["length"], system)
        return Dimension("dimension", start, end, off, f"{words} {size}")

    if view == "side":
        behind = max((body_depth(package, fan) for fan in package.fans), default=depth)
        found: list[Shape] = [line((at.z, at.y), (at.z + behind, at.y), -0.05, "package")]
        if abs(at.z) > 1e-4:
            found.append(line((min(0.0, at.z), at.y), (max(0.0, at.z), at.y), -0.025, "off the plane"))
        return found
    if view == "above":
        return [line((at.x, -at.z), (at.x + width, -at.z), 0.045, "face")]
    found = [line((at.x, at.y), (at.x, at.y + up), 0.03, "face")]
    outline = opening_outline(build.survey, package)
    if outline is not None:
        xs, ys = [x for x, _ in outline], [y for _, y in outline]
        found += [
            line((min(xs), min(ys)), (max(xs), min(ys)), -0.03, "opening"),
            line((max(xs), min(ys)), (max(xs), max(ys)), -0.03, "opening"),
        ]
    return found


def body_depth(package: Package, fan: Fan) -> float:
    """From the core's front to the back of a puller [m]."""
    depth = core_depth(package.core)
    return depth if fan.mount == "pusher" else depth + standoff(package, fan) + (fan.depth.si if fan.depth else 0.0)


def _role(body: Body) -> str:
    if body.unknown or body.assumed:
        return "fit.unknown"
    if body.sort == "part":
        kind = body.key.split(":")[0]
        return {"core": "fit.core", "shroud": "fit.shroud", "cover": "fit.cover"}.get(kind, "fit.tank")
    if body.sort == "fan":
        return "fit.ring" if body.key.startswith("ring") else "fit.motor"
    return f"fit.{body.sort}"


OPEN = ("fit.ring", "fit.motor", "fit.shroud", "fit.cover", "fit.turning")
"""drawn as outlines from the front"""


def _tag(body: Body) -> str:
    if body.sort == "fan":
        return body.key.split(":")[1]
    return "package" if body.sort == "part" else ""


@by_identity(4000)
def outline_of(view: View, body: Body) -> list[Shape]:
    """A body's outline in a view."""
    solid, role, tag = body.solid, _role(body), _tag(body)
    if view == "front" and role in OPEN:
        role += ".open"
    axis = DEPTH_AXIS[view]
    if solid.round and abs(solid.axes[2][axis]) > 0.999:
        return [Circle(role, flat(view, solid.centre), solid.half[0], tag)]
    return [Polyline(role, _outline(view, solid), True, tag)]


def _outline(view: View, solid: Solid) -> Outline:
    at_x, at_y = flat(view, solid.centre)
    about = _outline_about(view, solid.half, solid.axes, solid.round)
    return tuple((x + at_x, y + at_y) for x, y in about)


@by_value(2000)
def _outline_about(view: View, half: Vector, axes: tuple[Vector, Vector, Vector], round_: bool) -> Outline:
    """The outline of a solid about its own centre: what is dragged keeps it wherever it goes."""
    return hull([flat(view, point) for point in _points(Solid((0.0, 0.0, 0.0), half, axes, round_))])


def _points(solid: Solid) -> list[Vector]:
    """Points whose hull is the solid: corners of a box, the two rims of a cylinder."""
    c, (a, b, h), (u, v, w) = solid.centre, solid.half, solid.axes
    if solid.round:
        pairs = [
            (math.cos(2 * math.pi * k / ROUND_STEPS), math.sin(2 * math.pi * k / ROUND_STEPS))
            for k in range(ROUND_STEPS)
        ]
    else:
        pairs = [(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)]
    found: list[Vector] = []
    for x, y in pairs:
        for z in (-1.0, 1.0):
            p = [c[k] + x * a * u[k] + y * b * v[k] + z * h * w[k] for k in range(3)]
            found.append((p[0], p[1], p[2]))
    return found


def _panel(view: View, build: Build, package: Package, fit: Fit) -> list[Shape]:
    outline = opening_outline(build.survey, package)
    if outline is None:
        return []
    if view == "front":
        return [Polyline("panel.opening", outline, closed=True)]
    return [shape for body in fit.others if body.sort == "panel" for shape in outline_of(view, body)]


def _hood(view: View, build: Build, span: Point) -> list[Shape]:
    line = hood_line(build.survey)
    if line is None:
        return []
    (z0, y0), (z1, y1) = line
    if view == "side":
        return [Polyline("fit.hood", ((z0, y0), (z1, y1)))]
    if view == "front":
        at = y0 + (y1 - y0) * (0.0 - z0) / (z1 - z0)
        return [Polyline("fit.hood", ((span[0], at), (span[1], at)))]
    return []


def _names(view: View, fit: Fit, words: _Words) -> list[Shape]:
    """Names of the neighbours a clearance speaks of, and of coolers that hang by themselves, where there is room for
    them."""
    shapes: list[Shape] = []
    for own in fit.parts:
        if own.key.startswith("cooler:"):
            said = own.name + (" (not measured)" if own.unknown else "")
            shapes += words.said("fit.name", flat(view, own.solid.centre), said, must=False)
    near = {gap.other.key: None for gap in fit.gaps}
    by_key = {body.key: body for body in (*fit.others, *fit.moved)}
    near |= {body.key: None for body in fit.moved}
    for key in near:
        body = by_key.get(key)
        if body is None or body.sort not in ("static", "turning", "moved"):
            continue
        text = body.name + (" (not measured)" if body.unknown else " (assumed)" if body.assumed else "")
        shapes += words.said("fit.name", flat(view, body.solid.centre), text, must=False)
    return shapes


def shown_in(gap: Gap) -> View:
    """The view that shows a clearance at its true length best: the one it runs least along the eye of."""
    best = min(VIEWS, key=lambda view: abs(gap.normal[DEPTH_AXIS[view]]))
    return best


def _gaps(view: View, fit: Fit, system: str, words: _Words) -> list[Shape]:
    mine = [gap for gap in fit.gaps if shown_in(gap) == view and not gap.other.unknown][:SHOWN]
    shapes: list[Shape] = []
    for gap in mine:
        start, end = flat(view, gap.a), flat(view, gap.b)
        shapes.append(Polyline(f"gap.{gap.state}", (start, end)))
        text = gap_label(gap, system)
        shapes += words.said(f"gap.{gap.state}", ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2), text, must=True)
    return shapes


def gap_label(gap: Gap, system: str) -> str:
    """A clearance in two or three words."""
    return gap_size(gap, system) + ("" if gap.gap < 0 else f" {STATE_WORDS[gap.state]}")
