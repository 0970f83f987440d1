"""A schedule drawn as a strip: its legs as blocks on an axis of time, over the speed and the grade they ask for."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.drives.moments import Moment
from keelroom.document.schema.drive import Leg, Schedule
from keelroom.drawing.degrees import LETTER
from keelroom.drawing.scene import MM, Label, Polyline, Rect, Scene, Shape, on_sheet
from keelroom.drawing.strips import TIMES
from keelroom.units import KINDS, number_text

WIDTH, LEFT, RIGHT = 560.0, 46.0, 540.0
BLOCKS, TALL, LOW, GAP = 64.0, 120.0, 70.0, 30.0
"""[mm] heights of the blocks, of the speed's strip and of the grade's, and between"""
INKS = {"idle": "span.cool", "off": "strip.off", "pull": "span.hot", "hold": "span.mild", "change": "span.mild"}
WORDS = {
    "idle": "idle",
    "hold": "speed kept",
    "change": "speed changes",
    "pull": "full power",
    "stops": "light to light",
    "off": "key off",
    "cycle": "recorded",
}
FAILING = {"": "", "fan": "a fan fails", "fans": "all fans fail", "pump": "the pump fails"}


class Edge(NamedTuple):
    """Where a leg ends and can be dragged: its id, where it begins [s], and the place of its end [m]."""

    leg: str
    begins: float
    x: float


class Planned(NamedTuple):
    """The drawing, the ends that can be dragged, and where time lies on it."""

    scene: Scene
    edges: tuple[Edge, ...]
    left: float
    per_second: float

    def time(self, x: float) -> float:
        """Moment [s] at a place [m]; past the end too, where a leg is made longer."""
        return (x - self.left) / self.per_second


def planned(schedule: Schedule, moments: tuple[Moment, ...], system: str, whole: float = 0.0) -> Planned:
    """A schedule as a strip. whole [s] : what its axis reaches at least, while an end is dragged"""
    spans = _spans(schedule, moments)
    lasts = max(sum(seconds for _, seconds in spans), whole, 1.0)
    per_second = (RIGHT - LEFT) / lasts
    shapes: list[Shape] = []
    edges: list[Edge] = []
    begins, top = 0.0, -6.0
    for place, (leg, seconds) in enumerate(spans):
        left, wide = LEFT + begins * per_second, seconds * per_second
        shapes += _block(leg, place, (left, wide), top)
        edges.append(Edge(leg.id, begins, (left + wide) * MM))
        begins += seconds
    y = top - BLOCKS - GAP
    highest = max((moment.speed for moment in moments), default=0.0)
    unit = KINDS["speed"].shown_unit(system)
    shapes += _line([(m.lasts, m.speed, m.gains) for m in moments], (y, TALL), max(highest * 1.1, 5.0), per_second)
    shapes.append(Label("rail.name", on_sheet(LEFT, y + 7), f"Speed, {unit.symbol}", "start"))
    shapes.append(Label("el.words", on_sheet(LEFT - 4, y - TALL), "0", "end"))
    if highest > 0:
        at = y - TALL + TALL * highest / max(highest * 1.1, 5.0)
        shapes.append(Label("el.words", on_sheet(LEFT - 4, at), number_text(highest, unit), "end"))
    y -= TALL + GAP
    steepest = max((abs(moment.grade) for moment in moments), default=0.0)
    if steepest > 0:
        shapes += _grades(moments, y, steepest, per_second)
        y -= LOW + GAP
    shapes += _times(lasts, per_second, y + GAP - 8)
    bounds = (0.0, (y - 4) * MM, WIDTH * MM, (14 - y) * MM)
    return Planned(Scene(tuple(shapes), bounds), tuple(edges), LEFT * MM, per_second * MM)


def _spans(schedule: Schedule, moments: tuple[Moment, ...]) -> list[tuple[Leg, float]]:
    """Each leg with the seconds it takes."""
    seconds = dict.fromkeys(range(len(schedule.legs)), 0.0)
    for moment in moments:
        seconds[moment.leg] += moment.lasts
    return [(leg, seconds[place]) for place, leg in enumerate(schedule.legs)]


def _block(leg: Leg, place: int, across: tuple[float, float], top: float) -> list[Shape]:
    left, wide = across
    found: list[Shape] = [
        Rect(INKS.get(leg.kind, "span.mild"), left * MM, (top - BLOCKS) * MM, max(wide, 1.0) * MM, BLOCKS * MM, 2 * MM)
    ]
    lines = [leg.name or leg.id, WORDS[leg.kind], *(["A/C on"] if leg.ac_on else []), FAILING[leg.fails]]
    lines = [words for words in lines if words]
    fits = int(wide / LETTER)
    if fits >= 3:
        for k, words in enumerate(lines[: max(1, int(BLOCKS / 14) - 1)]):
            shown = words if len(words) <= fits else f"{words[: fits - 1]}…"
            role = "bar.label" if k == 0 else "el.words"
            found.append(Label(role, on_sheet(left + wide / 2, top - 13 - 14 * k), shown))
    else:
        found.append(Label("bar.label", on_sheet(left + wide / 2, top - BLOCKS / 2), str(place + 1)))
    return found


def _line(
    moments: list[tuple[float, float, float]], strip: tuple[float, float], highest: float, per_second: float
) -> list[Shape]:
    """Speed over time: each moment from the speed it begins at to the one it ends at."""
    top, tall = strip
    points, at = [], 0.0
    for lasts, speed, gains in moments:
        for share in (-0.5, 0.5):
            value = max(speed + share * gains * lasts, 0.0)
            moment = at + (share + 0.5) * lasts
            points.append(on_sheet(LEFT + moment * per_second, top - tall + tall * min(value / highest, 1.0)))
        at += lasts
    field = Rect("strip.field", LEFT * MM, (top - tall) * MM, (RIGHT - LEFT) * MM, tall * MM)
    return [field, Polyline("strip.main", tuple(points))] if points else [field]


def _grades(moments: tuple[Moment, ...], top: float, steepest: float, per_second: float) -> list[Shape]:
    middle, half, at, points = top - LOW / 2, LOW / 2, 0.0, []
    for moment in moments:
        y = middle + 0.9 * half * moment.grade / steepest
        points += [on_sheet(LEFT + at * per_second, y), on_sheet(LEFT + (at + moment.lasts) * per_second, y)]
        at += moment.lasts
    return [
        Rect("strip.field", LEFT * MM, (top - LOW) * MM, (RIGHT - LEFT) * MM, LOW * MM),
        Label("rail.name", on_sheet(LEFT, top + 7), f"Grade, {steepest:.0%} at the steepest", "start"),
        Polyline("strip.rule", (on_sheet(LEFT, middle), on_sheet(RIGHT, middle))),
        Polyline("strip.main", tuple(points)),
    ]


def _times(lasts: float, per_second: float, y: float) -> list[Shape]:
    step = next((step for step in TIMES if lasts / step <= 9), TIMES[-1])
    words = [(k * step, f"{k * step / 60:g} min") for k in range(math.floor(lasts / step) + 1)]
    return [Label("el.words", on_sheet(LEFT + at * per_second, y), text) for at, text in words]
