"""What a drawing is made of: shapes in metres, y up, each with a role that a back end turns into ink."""

from __future__ import annotations

from dataclasses import dataclass, field

Point = tuple[float, float]


@dataclass(frozen=True)
class Rect:
    role: str
    left: float
    bottom: float
    width: float
    height: float
    radius: float = 0.0


@dataclass(frozen=True)
class Circle:
    role: str
    centre: Point
    radius: float
    tag: str = ""
    """what is picked up when this is dragged"""


@dataclass(frozen=True)
class Polyline:
    role: str
    points: tuple[Point, ...]
    closed: bool = False


@dataclass(frozen=True)
class Label:
    role: str
    at: Point
    text: str


@dataclass(frozen=True)
class Dimension:
    """A dimension line from start to end, set off sideways by `offset` (left of the direction), with its text."""

    role: str
    start: Point
    end: Point
    offset: float
    text: str


Shape = Rect | Circle | Polyline | Label | Dimension


@dataclass(frozen=True)
class Scene:
    """Shapes in painting order, and the rectangle (left, bottom, width, height) they need."""

    shapes: tuple[Shape, ...]
    bounds: tuple[float, float, float, float]
    note: str = field(default="")
