"""What a drawing is made of: shapes in metres, y up, each with a role that a back end turns into ink."""

from __future__ import annotations

import math
from typing import NamedTuple

Point = tuple[float, float]
MM = 1e-3


def on_sheet(x: float, y: float) -> Point:
    """A place of a sheet that is laid out in millimetres."""
    return (x * MM, y * MM)


class Rect(NamedTuple):
    """A rectangle by its lower left corner; `radius` rounds its corners."""

    role: str
    left: float
    bottom: float
    width: float
    height: float
    radius: float = 0.0


class Circle(NamedTuple):
    """A circle; a `tag` makes it something to take hold of."""

    role: str
    centre: Point
    radius: float
    tag: str = ""
    """what is picked up when this is dragged"""


class Polyline(NamedTuple):
    """A line through points, or a polygon where closed."""

    role: str
    points: tuple[Point, ...]
    closed: bool = False
    tag: str = ""
    """what is picked up when this is dragged"""


class Label(NamedTuple):
    """Words at a place: their middle, start or end stands there."""

    role: str
    at: Point
    text: str
    align: str = "middle"


class Dimension(NamedTuple):
    """A dimension line from start to end, set off sideways by `offset` (left of the direction), with its text."""

    role: str
    start: Point
    end: Point
    offset: float
    text: str

    @property
    def line(self) -> tuple[Point, Point]:
        """The dimension line itself, set off from what it measures."""
        (x0, y0), (x1, y1) = self.start, self.end
        length = math.hypot(x1 - x0, y1 - y0) or 1.0
        nx, ny = -(y1 - y0) / length * self.offset, (x1 - x0) / length * self.offset
        return (x0 + nx, y0 + ny), (x1 + nx, y1 + ny)


Shape = Rect | Circle | Polyline | Label | Dimension


class Scene(NamedTuple):
    """Shapes in painting order, and the rectangle (left, bottom, width, height) they need."""

    shapes: tuple[Shape, ...]
    bounds: tuple[float, float, float, float]
    note: str = ""


def reach_up(shape: Shape) -> tuple[float, float]:
    """From how low to how high [m] a shape lies on its sheet; of words the foot alone, of a dimension its ends with
    its offset."""
    if isinstance(shape, Label):
        return shape.at[1], shape.at[1]
    if isinstance(shape, Polyline):
        ys = [y for _, y in shape.points]
        return min(ys), max(ys)
    if isinstance(shape, Rect):
        return shape.bottom, shape.bottom + shape.height
    if isinstance(shape, Circle):
        return shape.centre[1] - shape.radius, shape.centre[1] + shape.radius
    ys = [shape.start[1], shape.end[1]]
    return min(ys) - abs(shape.offset), max(ys) + abs(shape.offset)


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
