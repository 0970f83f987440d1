"""Words of a drawing set apart, so that none lies on another: the one placer of every scene and every back end."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import NamedTuple

from keelroom.drawing.scene import Dimension, Label, Point, Polyline, Scene, Shape

STEPS = 7
"""How many lines up or down words may be moved before they stay where they are."""
ASIDE = (0.0, -0.6, 0.6)
"""shares of their own width they may be moved aside besides"""
MOVED = ("fit.", "gap.", "cover", "panel", "fan.size", "picture.", "pattern.")
"""roles whose words may be moved: names beside what they name; those of a wire, a bar, a scale, a hose stand in a
layout of their own, and the others keep off them"""
LED = 1.6
"""Lines from its place past which words get a leader to it."""


class Size(NamedTuple):
    """How large words come out, in the scene's units. wide : of a text;  high : of a line"""

    wide: Callable[[str], float]
    high: float


class Box(NamedTuple):
    """A rectangle words take."""

    left: float
    bottom: float
    right: float
    top: float

    def within(self, room: Box) -> bool:
        """Whether it lies inside another."""
        return (
            self.left >= room.left and self.right <= room.right and self.bottom >= room.bottom and self.top <= room.top
        )

    def meets(self, other: Box) -> bool:
        """Whether they lie on each other."""
        return (
            self.left < other.right and other.left < self.right and self.bottom < other.top and other.bottom < self.top
        )


def label_box(label: Label, size: Size) -> Box:
    """What a label takes, as it stands."""
    wide, (x, y) = size.wide(label.text), label.at
    left = {"middle": x - wide / 2, "start": x, "end": x - wide}[label.align]
    return Box(left, y - size.high / 2, left + wide, y + size.high / 2)


def dimension_box(shape: Dimension, size: Size) -> Box:
    """What the text of a dimension takes: along its line, which lies or stands."""
    (ax, ay), (bx, by) = shape.line
    x, y, wide = (ax + bx) / 2, (ay + by) / 2, size.wide(shape.text)
    across, up = (size.high, wide) if abs(by - ay) > abs(bx - ax) else (wide, size.high)
    return Box(x - across / 2, y - up / 2, x + across / 2, y + up / 2)


def apart(scene: Scene, size: Size) -> Scene:
    """The scene with its labels moved where they would lie on each other or on a dimension's text, the first of them
    left where it stands; one moved far is led back to its place. Words stay inside the scene where they were."""
    left, bottom, wide, high = scene.bounds
    room = Box(left, bottom, left + wide, bottom + high)
    taken = [dimension_box(shape, size) for shape in scene.shapes if isinstance(shape, Dimension)]
    taken += [label_box(shape, size) for shape in scene.shapes if isinstance(shape, Label) and not _may_move(shape)]
    shapes: list[Shape] = []
    for shape in scene.shapes:
        if not isinstance(shape, Label) or not _may_move(shape):
            shapes.append(shape)
            continue
        placed = next((one for one in _places(shape, size, room) if _free(one, size, taken)), shape)
        taken.append(label_box(placed, size))
        moved = placed.at[1] - shape.at[1]
        if abs(moved) > LED * size.high:
            shapes.append(Polyline("leader", (shape.at, _foot(placed, size, moved))))
        shapes.append(placed)
    return scene._replace(shapes=tuple(shapes))


def _may_move(label: Label) -> bool:
    return bool(label.text) and label.role.startswith(MOVED)


def _free(label: Label, size: Size, taken: list[Box]) -> bool:
    box = label_box(label, size)
    return not any(box.meets(other) for other in taken)


def _places(label: Label, size: Size, room: Box) -> Iterator[Label]:
    """Where words may stand, the nearest first: as given, then a line up or down at a time, aside too. Not outside
    the scene, if they were inside."""
    x, y = label.at
    inside = label_box(label, size).within(room)
    yield label
    for step in range(1, STEPS + 1):
        for up in (step * size.high, -step * size.high):
            for aside in ASIDE:
                moved = label._replace(at=(x + aside * size.wide(label.text), y + up))
                if not inside or label_box(moved, size).within(room):
                    yield moved


def _foot(label: Label, size: Size, moved: float) -> Point:
    """The middle of the edge of moved words that is nearest to where they stood."""
    box = label_box(label, size)
    return ((box.left + box.right) / 2, box.bottom if moved > 0 else box.top)
