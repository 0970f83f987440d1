"""The package in its bay, from the front, from the left side and from above, by the survey's datums and at one scale."""

from __future__ import annotations

import math
from typing import Literal, NamedTuple

from keelroom.assess.bodies import Body, hood_line
from keelroom.assess.fitup import RULE_WORDS, Fit, Gap
from keelroom.assess.placing import opening_outline
from keelroom.build.schema.build import Build
from keelroom.build.schema.package import Package
from keelroom.core.packaging.solids import Solid, Vector
from keelroom.drawing.scene import Circle, Dimension, Label, Point, Polyline, Scene, Shape
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
SHOWN = 4
"""Clearances drawn with a dimension line in one view."""
STATE_WORDS = {"overlaps": "overlaps", "under": "too close", "tight": "tight", "clear": "clear"}
REACH: dict[View, tuple[float, float]] = {"front": (0.12, 0.12), "side": (0.14, 0.08), "above": (0.12, 0.10)}
"""[m] how far beyond the package each view looks: what stands further off does not shrink the picture."""


class Limits(NamedTuple):
    """The region all views share, low and high along x, y and z [m]."""

    low: Vector
    high: Vector


def flat(view: View, point: Vector) -> Point:
    """Where a place in the bay lies in a view."""
    (i, si), (j, sj) = AXES[view]
    return (si * point[i], sj * point[j])


def region(fit: Fit) -> Limits:
    """The package and what is near it: common to all views, so that they keep one scale."""
    points = [corner for body in fit.parts for corner in _points(body.solid)]
    near = {gap.other.key for gap in fit.gaps}
    points += [corner for body in fit.others if body.key in near and body.sort in ("static", "turning") for corner in _points(body.solid)]
    low = [min(p[k] for p in points) for k in range(3)]
    high = [max(p[k] for p in points) for k in range(3)]
    parts = [corner for body in fit.parts for corner in _points(body.solid)]
    for k, reach in enumerate((0.10, 0.08, 0.16)):
        # A neighbour's far end is of no interest: the picture stays with the package.
        low[k] = max(low[k], min(p[k] for p in parts) - reach) - 0.03
        high[k] = min(high[k], max(p[k] for p in parts) + reach) + 0.03
    return Limits((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def view_scene(view: View, build: Build, package: Package, fit: Fit, system: str, limits: Limits | None = None) -> Scene:
    """One view, far things first, with the clearances it shows best."""
    limits = limits or region(fit)
    a, b = flat(view, limits.low), flat(view, limits.high)
    left, right = min(a[0], b[0]), max(a[0], b[0])
    bottom, top = min(a[1], b[1]), max(a[1], b[1])
    shapes: list[Shape] = []
    axis = DEPTH_AXIS[view]
    # From the left and from above the near side hides the far one; from the front the smaller z is near.
    order = {
        "front": lambda body: -body.solid.centre[axis],
        "side": lambda body: -body.solid.centre[axis],
        "above": lambda body: body.solid.centre[axis],
    }[view]
    for body in sorted(fit.others, key=order):
        if body.sort not in ("panel", "hood"):
            shapes += _body(view, body)
    for body in sorted((body for body in fit.parts if body.sort != "hose"), key=order):
        shapes += _body(view, body)
    for body in fit.parts:
        if body.sort == "hose":
            shapes += _body(view, body)
    shapes += _panel(view, build, package, fit)
    shapes += _hood(view, build, (left, right))
    shapes += _names(view, fit, (left, bottom, right, top))
    shapes += _gaps(view, fit, system)
    return Scene(tuple(shapes), (left, bottom, right - left, top - bottom))


def section_sheet(build: Build, package: Package, fit: Fit, system: str) -> Scene:
    """All three views on one sheet at one scale, as a box folded open: side to the right of the front, from above under it."""
    limits, gap = region(fit), 0.06
    shapes: list[Shape] = []
    front = view_scene("front", build, package, fit, system, limits)
    left, bottom, wide, _ = front.bounds
    boxes = []
    for view in VIEWS:
        scene = front if view == "front" else view_scene(view, build, package, fit, system, limits)
        l2, b2, w2, h2 = scene.bounds
        dx, dy = {"front": (0.0, 0.0), "side": (left + wide + gap - l2, bottom - b2), "above": (left - l2, bottom - gap - h2 - b2)}[view]
        shapes += [moved(shape, dx, dy) for shape in scene.shapes]
        shapes.append(Label("view.title", (l2 + dx + w2 / 2, b2 + dy + h2 + 0.018), TITLES[view]))
        boxes.append((l2 + dx, b2 + dy, w2, h2))
    x0, y0 = min(b[0] for b in boxes), min(b[1] for b in boxes)
    x1, y1 = max(b[0] + b[2] for b in boxes), max(b[1] + b[3] for b in boxes)
    return Scene(tuple(shapes), (x0 - 0.02, y0 - 0.02, x1 - x0 + 0.04, y1 - y0 + 0.07))


def moved(shape: Shape, dx: float, dy: float) -> Shape:
    """A shape shifted on the sheet."""

    def at(point: Point) -> Point:
        return (point[0] + dx, point[1] + dy)

    if isinstance(shape, Circle):
        return shape._replace(centre=at(shape.centre))
    if isinstance(shape, Polyline):
        return shape._replace(points=tuple(at(p) for p in shape.points))
    if isinstance(shape, Label):
        return shape._replace(at=at(shape.at))
    if isinstance(shape, Dimension):
        return shape._replace(start=at(shape.start), end=at(shape.end))
    return shape._replace(left=shape.left + dx, bottom=shape.bottom + dy)


def _role(body: Body) -> str:
    if body.unknown:
        return "fit.unknown"
    if body.sort == "part":
        kind = body.key.split(":")[0]
        return {"core": "fit.core", "shroud": "fit.shroud", "cover": "fit.cover"}.get(kind, "fit.tank")
    if body.sort == "fan":
        return "fit.ring" if body.key.startswith("ring") else "fit.motor"
    return f"fit.{body.sort}"


def _tag(body: Body) -> str:
    if body.sort == "fan":
        return body.key.split(":")[1]
    return "package" if body.sort == "part" else ""


def _body(view: View, body: Body) -> list[Shape]:
    solid, role, tag = body.solid, _role(body), _tag(body)
    axis = DEPTH_AXIS[view]
    if solid.round and abs(solid.axes[2][axis]) > 0.999:
        return [Circle(role, flat(view, solid.centre), solid.half[0], tag)]
    outline = hull([flat(view, point) for point in _points(solid)])
    return [Polyline(role, outline, True, tag)]


def _points(solid: Solid) -> list[Vector]:
    """Points whose hull is the solid: corners of a box, the two rims of a cylinder."""
    c, (a, b, h), (u, v, w) = solid.centre, solid.half, solid.axes
    if solid.round:
        pairs = [(math.cos(2 * math.pi * k / ROUND_STEPS), math.sin(2 * math.pi * k / ROUND_STEPS)) for k in range(ROUND_STEPS)]
    else:
        pairs = [(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)]
    found: list[Vector] = []
    for x, y in pairs:
        for z in (-1.0, 1.0):
            p = [c[k] + x * a * u[k] + y * b * v[k] + z * h * w[k] for k in range(3)]
            found.append((p[0], p[1], p[2]))
    return found


def hull(points: list[Point]) -> tuple[Point, ...]:
    """The convex outline of points, anticlockwise."""
    ordered = sorted(set(points))
    if len(ordered) < 3:
        return tuple(ordered)

    def half(run: list[Point]) -> list[Point]:
        chain: list[Point] = []
        for p in run:
            while len(chain) > 1 and (chain[-1][0] - chain[-2][0]) * (p[1] - chain[-2][1]) <= (chain[-1][1] - chain[-2][1]) * (
                p[0] - chain[-2][0]
            ):
                chain.pop()
            chain.append(p)
        return chain[:-1]

    return tuple(half(ordered) + half(ordered[::-1]))


def _panel(view: View, build: Build, package: Package, fit: Fit) -> list[Shape]:
    outline = opening_outline(build.survey, package)
    if outline is None:
        return []
    if view == "front":
        return [Polyline("panel.opening", outline, closed=True)]
    return [shape for body in fit.others if body.sort == "panel" for shape in _body(view, body)]


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


def _names(view: View, fit: Fit, box: tuple[float, float, float, float]) -> list[Shape]:
    """Names of what stands round, where there is room for them inside the picture."""
    shapes: list[Shape] = []
    left, bottom, right, top = box
    taken: list[Point] = []
    for body in fit.others:
        if body.sort not in ("static", "turning"):
            continue
        x, y = flat(view, body.solid.centre)
        x, y = min(max(x, left + 0.05), right - 0.05), min(max(y, bottom + 0.012), top - 0.012)
        if any(abs(x - a) < 0.10 and abs(y - b) < 0.022 for a, b in taken):
            continue
        taken.append((x, y))
        shapes.append(Label("fit.name", (x, y), body.name + (" (not measured)" if body.unknown else "")))
    return shapes


def shown_in(gap: Gap) -> View:
    """The view that shows a clearance at its true length best: the one it runs least along the eye of."""
    best = min(VIEWS, key=lambda view: abs(gap.normal[DEPTH_AXIS[view]]))
    return best


def _gaps(view: View, fit: Fit, system: str) -> list[Shape]:
    mine = [gap for gap in fit.gaps if shown_in(gap) == view and not gap.other.unknown][:SHOWN]
    shapes: list[Shape] = []
    for number, gap in enumerate(mine):
        start, end = flat(view, gap.a), flat(view, gap.b)
        shapes.append(Polyline(f"gap.{gap.state}", (start, end)))
        text = f"{format_si(gap.gap, KINDS['length'], system)} {STATE_WORDS[gap.state]}"
        middle = ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2 + 0.016 * (1 if number % 2 else -1))
        shapes.append(Label(f"gap.{gap.state}", middle, text))
    return shapes


def gap_sentence(gap: Gap, system: str) -> str:
    """A clearance with its rule, for a tooltip or a reader."""
    length = KINDS["length"]
    return (
        f"{gap.part.name} to {gap.other.name}: {format_si(gap.gap, length, system)}, {STATE_WORDS[gap.state]}; "
        f"{RULE_WORDS[gap.rule]} wants {format_si(gap.wanted, length, system)}"
    )
