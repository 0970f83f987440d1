"""Lanes on one scale of degrees: what each of several things reads, beside the posts that matter. Comparisons of the
stations are drawn on it."""

from __future__ import annotations

import math
from collections.abc import Iterable
from typing import NamedTuple

from keelroom.assess.figures.assessment import Assessment, CaseFigures
from keelroom.drawing.scene import Circle, Label, Polyline, Rect, Scene, Shape, on_sheet
from keelroom.units import Unit, number_text

MM = 1e-3
WIDTH, LEFT, RIGHT, LANE, HEAD = 440.0, 14.0, 426.0, 50.0, 78.0
"""[mm] of a sheet as wide as the narrowest picture is in pixels: words keep their size, whatever the scale"""
LETTER, LINE = 6.2, 17.0
"""Room of a letter and of a line of words where the picture is small."""
ROUND_WORDS = 8.0
"""Room kept at the ends of words, both together."""
STEPS = (1, 2, 5, 10, 20, 50, 100, 200, 500)
MOST_LINES = 9


class Spot(NamedTuple):
    """A mark on a lane. value : in SI, of the scale's kind;  sort : 'now', 'was', 'other' or 'cold', shapes of the key
    low, high : its band, where it has one"""

    value: float
    sort: str = "now"
    low: float = math.nan
    high: float = math.nan


class Lane(NamedTuple):
    """One thing compared. note : said at its end;  chosen : the one that stands in the build"""

    name: str
    spots: tuple[Spot, ...]
    note: str = ""
    chosen: bool = False


def reading(figures: CaseFigures) -> float:
    """What a duty case reads, to be marked: none where it never settles."""
    return math.nan if figures.verdict == "does_not_settle" else heat(figures.temperature)


def heat(value: float | None) -> float:
    """A temperature to be marked: none where there is none, or where it never settles."""
    return math.nan if value is None or not math.isfinite(value) else value


class Post(NamedTuple):
    """A value that matters to all lanes. role : of its line"""

    value: float
    name: str
    role: str = "rail.limit"


def posts_of(assessment: Assessment) -> tuple[Post, ...]:
    """Thermostat, limit and boiling of a build."""
    found = (
        (assessment.thermostat, "thermostat", "rail.thermostat"),
        (assessment.limit, "limit", "rail.limit"),
        (assessment.boiling, "boils", "rail"),
    )
    return tuple(Post(value, name, role) for value, name, role in found if value is not None)


class Scale:
    """From values to places across the sheet, and its lines."""

    def __init__(self, values: Iterable[float], unit: Unit, left: float = LEFT, right: float = RIGHT) -> None:
        known = [value for value in values if math.isfinite(value)] or [0.0]
        reach = max(max(known) - min(known), 4.0)
        self.low, self.high = min(known) - 0.05 * reach, max(known) + 0.05 * reach
        self.unit, self.left, self.right = unit, left, right

    def x(self, value: float) -> float:
        """The place of a value; at the end where it lies beyond."""
        inside = min(max(value, self.low), self.high)
        return self.left + (self.right - self.left) * (inside - self.low) / (self.high - self.low)

    def lines(self) -> list[tuple[float, str]]:
        """Places of its round values, and what each says."""
        unit = self.unit
        low, high = ((value - unit.offset) / unit.factor for value in (self.low, self.high))
        step = next((step for step in STEPS if (high - low) / step <= MOST_LINES), STEPS[-1])
        first = math.ceil(low / step) * step
        return [
            (self.x(value * unit.factor + unit.offset), f"{value:g}".replace("-", "−"))
            for value in range(first, math.floor(high) + 1, step)
        ]


def degrees_scene(
    lanes: tuple[Lane, ...], posts: tuple[Post, ...], key: tuple[tuple[str, str], ...], unit: Unit
) -> Scene:
    """Lanes under one another on one scale.

    posts : lines through all of them, with their names over it;  key : (sort, words) of the marks, told above
    unit : what values are shown in
    """
    values = [v for lane in lanes for s in lane.spots for v in (s.value, s.low, s.high)]
    scale = Scale([*values, *(post.value for post in posts)], unit)
    bottom = -HEAD - LANE * len(lanes)
    shapes: list[Shape] = [*_key(key, unit), *rail_lines(scale, bottom), *rail_posts(scale, posts, bottom)]
    for k, lane in enumerate(lanes):
        shapes += _lane(lane, -HEAD - LANE * k, scale)
    return Scene(tuple(shapes), (0.0, (bottom - 4) * MM, WIDTH * MM, (4 - bottom) * MM))


def rail_lines(scale: Scale, bottom: float) -> list[Shape]:
    """The round values of a scale as lines down to a foot, each named over its own."""
    found: list[Shape] = []
    for x, words in scale.lines():
        found.append(Polyline("rail", (on_sheet(x, 18 - HEAD), on_sheet(x, bottom))))
        found.append(Label("el.words", on_sheet(x, 26 - HEAD), words))
    return found


def rail_posts(scale: Scale, posts: tuple[Post, ...], bottom: float) -> list[Shape]:
    """Their lines, and their names over the scale: where two would lie on each other the later one goes up a line."""
    found: list[Shape] = []
    taken: list[tuple[float, float, int]] = []
    for post in sorted(posts, key=lambda one: one.value):
        x, words = scale.x(post.value), f"{post.name} {number_text(post.value, scale.unit)} {scale.unit.symbol}"
        half = (LETTER * len(words) + ROUND_WORDS) / 2
        middle = min(max(x, LEFT + half), RIGHT - half)
        level = next(
            n for n in range(9) if all(n != row or middle - half > b or middle + half < a for a, b, row in taken)
        )
        taken.append((middle - half, middle + half, level))
        found.append(Polyline(post.role, (on_sheet(x, 18 - HEAD), on_sheet(x, bottom))))
        found.append(Label("el.words", on_sheet(middle, 42 - HEAD + LINE * level), words))
    return found


def _key(key: tuple[tuple[str, str], ...], unit: Unit) -> list[Shape]:
    """The marks and what they stand for, in one line at the top."""
    found: list[Shape] = []
    x = LEFT + 6
    for sort, words in key:
        found += [_mark(sort, x, -4.0), Label("el.words", on_sheet(x + 10, -4), words, "start")]
        x += LETTER * len(words) + 26
    found.append(Label("el.words", on_sheet(RIGHT, -4), unit.symbol, "end"))
    return found


def _mark(sort: str, x: float, y: float) -> Shape:
    """Told apart by shape: a diamond, a ring, a square, a bar."""
    if sort == "was":
        return Circle("loop.plain", on_sheet(x, y), 4.5 * MM)
    if sort == "cold":
        return Rect("span.cool", (x - 4) * MM, (y - 4) * MM, 8 * MM, 8 * MM)
    if sort == "other":
        return Polyline("span.hot", (on_sheet(x - 5, y - 4), on_sheet(x + 5, y - 4), on_sheet(x, y + 5)), closed=True)
    return Polyline(
        "span.held", (on_sheet(x, y - 5), on_sheet(x + 4.5, y), on_sheet(x, y + 5), on_sheet(x - 4.5, y)), closed=True
    )


def _lane(lane: Lane, top: float, scale: Scale) -> list[Shape]:
    y = top - 22
    found: list[Shape] = [
        Label("rail.name", on_sheet(LEFT, top), lane.name + (" (now)" if lane.chosen else ""), "start"),
        Polyline("rail", (on_sheet(LEFT, y), on_sheet(RIGHT, y))),
    ]
    if lane.note:
        found.append(Label("el.value", on_sheet(RIGHT, top), lane.note, "end"))
    for spot in lane.spots:
        if math.isfinite(spot.low) and math.isfinite(spot.high):
            left, right = scale.x(spot.low), scale.x(spot.high)
            found.append(Rect("span.mild", left * MM, (y - 4) * MM, max(right - left, 1.5) * MM, 8 * MM, 2 * MM))
    told = [spot for spot in lane.spots if math.isfinite(spot.value)]
    if len(told) > 1:
        ends = [scale.x(spot.value) for spot in told]
        found.append(Polyline("el.mark", (on_sheet(min(ends), y), on_sheet(max(ends), y))))
    return found + [_mark(spot.sort, scale.x(spot.value), y) for spot in told] + _figures(told, y, scale)


def _figures(told: list[Spot], y: float, scale: Scale) -> list[Shape]:
    """What each mark reads, under it; pushed aside where two would lie on each other."""
    found: list[Shape] = []
    free = -math.inf
    for spot in sorted(told, key=lambda one: one.value):
        words = number_text(spot.value, scale.unit)
        half = (LETTER * len(words) + ROUND_WORDS) / 2
        middle = max(scale.x(spot.value), free + half)
        free = middle + half
        found.append(Label("el.words", on_sheet(middle, y - 13), words))
    return found
