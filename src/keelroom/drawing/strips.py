"""A drive as strips under one another on one axis of time."""

from __future__ import annotations

import math
from collections.abc import Iterable
from typing import NamedTuple

import numpy as np

from keelroom.assess.drives.driven import Driven
from keelroom.assess.drives.lines import lines_of
from keelroom.assess.drives.traces import Recorded
from keelroom.assess.drives.words import MARKS, clock
from keelroom.core.arrays import Floats
from keelroom.drawing.degrees import LETTER
from keelroom.drawing.scene import MM, Circle, Label, Polyline, Rect, Scene, Shape, on_sheet
from keelroom.units import KINDS, Unit, number_text

WIDTH, LEFT, RIGHT = 840.0, 54.0, 742.0
"""[mm] of the sheet, and where its axis of time begins and ends; names of lines stand right of it"""
GAP, FIRST = 19.0, -8.0
"""[mm] between strips, and the top of the first"""
TALL, MIDDLE, LOW, LEAN = 150.0, 52.0, 36.0, 32.0
STEPS = (0.05, 0.1, 0.2, 0.25, 0.5, 1, 2, 5, 10, 20, 25, 50, 100, 200, 500, 1000)
TIMES = (5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200, 14400)
AIR_DENSITY = 1.15
"""[kg/m3] air is told at as a volume, warm and at sea level."""
SWINGS = 12.0
"""Starts of the fans an hour from which a band is drawn round swings, not along them."""
MARK_LETTER = 1.4 * LETTER
"""[mm] of a letter where the strips are as small as they get"""
MOST_POINTS = 900
"""of a line: more than it is pixels wide"""
ROOM = 17.0
"""[mm] between the names of two lines"""


class Line(NamedTuple):
    """One line of a strip. name : where it ends;  role : of its ink"""

    name: str
    values: Floats
    role: str


class Strip(NamedTuple):
    """One strip: its name, lines in SI, band between two lines, levels with their names, unit and height [mm]."""

    name: str
    lines: tuple[Line, ...]
    unit: Unit
    high: float
    band: tuple[Floats, Floats] | None = None
    levels: tuple[tuple[float, str, str], ...] = ()
    """(value, name, role)"""
    least: float = 0.0
    """reach its axis has at least, in SI"""
    from_nought: bool = False
    """its axis begins at nought, where nothing is under it"""
    dots: tuple[tuple[float, float, str], ...] = ()
    """single readings: moment [s], value, role"""


class Laid(NamedTuple):
    """The strips as drawn, and where time lies on the sheet: `begins` [s] at `left` [m], `ends` at `right`; foot and
    top [m] of all strips."""

    scene: Scene
    begins: float
    ends: float
    left: float
    right: float
    foot: float
    top: float

    def x(self, at: float) -> float:
        """Place [m] of a moment [s]."""
        return self.left + (at - self.begins) / (self.ends - self.begins) * (self.right - self.left)

    def time(self, x: float) -> float:
        """Moment [s] at a place [m], held within the drive."""
        share = (x - self.left) / (self.right - self.left)
        return self.begins + min(max(share, 0.0), 1.0) * (self.ends - self.begins)


PLAIN = Unit("", 1.0, decimals=1)
SHARE = KINDS["share"].unit("%")


def strips_of(driven: Driven, system: str, held: Driven | None = None) -> tuple[Strip, ...]:
    """What is drawn of a drive; held : another one, laid over it."""
    lines = lines_of(driven)
    time = lines["time s"]
    degrees, speed = (KINDS[kind].shown_unit(system) for kind in ("temperature", "speed"))
    band = None
    if driven.low is not None and driven.high is not None:
        runs = [np.interp(time, run.time, run.outlet) for run in (driven.low, driven.high)] + [lines["coolant out"]]
        band = swept(time, (np.minimum.reduce(runs), np.maximum.reduce(runs)), driven.says.fans.per_hour)
    over: tuple[Line, ...] = ()
    if held is not None:
        over = (Line("held", np.interp(time, held.run.time, held.run.outlet), "ghost"),)
    coolant = Strip(
        "Coolant",
        (
            *over,
            Line("back", lines["coolant back"], "strip.cool"),
            Line("gauge", lines["gauge"], "strip.gauge"),
            Line("out", lines["coolant out"], "strip.main"),
        ),
        degrees,
        TALL,
        band,
        (
            (driven.thermostat, "thermostat", "rail.thermostat"),
            (driven.limit, "limit", "rail.limit"),
            (float(driven.boiling.min()), "boils", "rail"),
        ),
        15.0,
    )
    fluids = Strip(
        "Oil, gearbox",
        (Line("oil", lines["oil"], "strip.oil"), Line("gearbox", lines["gearbox"], "strip.cool")),
        degrees,
        MIDDLE,
        least=10.0,
    )
    fans = Strip("Fans", (Line("", lines["fan share"], "strip.fan"),), SHARE, LOW, least=1.0, from_nought=True)
    volts = Strip(
        "Volts", (Line("", lines["volts"], "strip.main"),), KINDS["voltage"].shown_unit(system), MIDDLE, least=2.0
    )
    amps = Strip(
        "Battery takes",
        (Line("", lines["battery A"], "strip.cool"),),
        KINDS["current"].shown_unit(system),
        LOW,
        levels=((0.0, "", "rail"),),
        least=10.0,
    )
    battery = Strip("Charge", (Line("", lines["charge"], "strip.cool"),), SHARE, LOW, least=1.0, from_nought=True)
    road = Strip("Speed", (Line("", lines["speed"], "strip.main"),), speed, LOW, least=5.0, from_nought=True)
    found = [coolant, fluids, fans, volts, amps]
    airflow = KINDS["airflow"].shown_unit(system)
    breathed = Line("", lines["air through core kg/s"] / AIR_DENSITY, "strip.fan")
    found.append(Strip("Air through the core", (breathed,), airflow, LOW, least=0.1, from_nought=True))
    if float(np.ptp(lines["charge"])) > 0.02:
        found.append(battery)
    if float(lines["speed"].max()) > 0:
        found.append(road)
    if float(np.abs(lines["grade"]).max()) > 0:
        found.append(Strip("Grade", (Line("", lines["grade"], "strip.main"),), SHARE, LOW, least=0.04))
    return tuple(found)


def laid(driven: Driven, system: str, held: Driven | None = None) -> Laid:
    """The strips of a drive on their sheet."""
    time = lines_of(driven)["time s"]
    begins, ends = float(time[0]), driven.lasts
    strips = strips_of(driven, system, held)
    place = _Place(begins, ends)
    shapes, foot = _stacked(strips, time, place)
    whole = [*_legs(driven, place, FIRST, foot), *shapes, *_marks(driven, place, FIRST, foot)]
    return Laid(_sheet(whole, foot), begins, ends, LEFT * MM, RIGHT * MM, foot * MM, FIRST * MM)


def _stacked(strips: Iterable[Strip], time: Floats, place: _Place) -> tuple[list[Shape], float]:
    """Strips under one another with the lines of time behind them, and their foot [mm]."""
    shapes: list[Shape] = []
    top = FIRST
    for strip in strips:
        shapes += _strip(strip, top, time, place)
        top -= strip.high + GAP
    foot = top + GAP
    return [*_hours(place, FIRST, foot), *shapes], foot


def _sheet(shapes: list[Shape], foot: float) -> Scene:
    return Scene(tuple(shapes), (0.0, (foot - 26) * MM, WIDTH * MM, (38 - foot) * MM))


def swept(time: Floats, band: tuple[Floats, Floats], per_hour: float) -> tuple[Floats, Floats]:
    """A band round runs that swing each in its own time: its lowest and highest over the length of a swing."""
    if per_hour < SWINGS:
        return band
    half = 1800 / per_hour
    low, high = band
    first, last = np.searchsorted(time, time - half), np.searchsorted(time, time + half, side="right")
    spans = list(zip(first.tolist(), last.tolist(), strict=True))
    return np.array([low[a:b].min() for a, b in spans]), np.array([high[a:b].max() for a, b in spans])


class _Place(NamedTuple):
    begins: float
    ends: float

    def x(self, at: float) -> float:
        """[mm] of a moment [s]."""
        return LEFT + (RIGHT - LEFT) * (at - self.begins) / max(self.ends - self.begins, 1e-9)


class _Axis:
    """From values in SI to heights [mm] of one strip."""

    def __init__(self, strip: Strip, top: float) -> None:
        known = [line.values for line in strip.lines] + list(strip.band or ())
        known += [np.array([value for _, value, _ in strip.dots])] if strip.dots else []
        low, high = (float(edge([edge(values) for values in known])) for edge in (np.nanmin, np.nanmax))
        for value, _, _ in strip.levels:
            if low - 25 < value < high + 25:
                low, high = min(low, value), max(high, value)
        if strip.from_nought and low >= 0:
            low, high = 0.0, max(high, strip.least)
        lacks = strip.least - (high - low)
        if lacks > 0:
            low, high = low - lacks / 2, high + lacks / 2
        room = 0.06 * (high - low)
        self.low, self.high, self.top, self.tall, self.unit = low - room, high + room, top, strip.high, strip.unit

    def y(self, value: float) -> float:
        inside = min(max(value, self.low), self.high)
        return self.top - self.tall * (self.high - inside) / (self.high - self.low)

    def ticks(self) -> list[float]:
        """Round values, in SI."""
        unit = self.unit
        low, high = ((value - unit.offset) / unit.factor for value in (self.low, self.high))
        most = max(2, int(self.tall / 24))
        step = next((step for step in STEPS if (high - low) / step <= most), STEPS[-1])
        return [k * step * unit.factor + unit.offset for k in range(math.ceil(low / step), math.floor(high / step) + 1)]


def _strip(strip: Strip, top: float, time: Floats, place: _Place) -> list[Shape]:
    axis = _Axis(strip, top)
    found: list[Shape] = [
        Rect("strip.field", LEFT * MM, (top - strip.high) * MM, (RIGHT - LEFT) * MM, strip.high * MM),
        Label("rail.name", on_sheet(LEFT, top + 6), _titled(strip), "start"),
    ]
    for tick in axis.ticks():
        y = axis.y(tick)
        found.append(Polyline("strip.rule", (on_sheet(LEFT, y), on_sheet(RIGHT, y))))
        found.append(Label("el.words", on_sheet(LEFT - 5, y), _figure(tick, strip.unit), "end"))
    if strip.band is not None:
        found.append(_band(strip.band, time, place, axis))
    taken: list[float] = []
    for value, name, role in strip.levels:
        if axis.low < value < axis.high:
            y = axis.y(value)
            found.append(Polyline(role, (on_sheet(LEFT, y), on_sheet(RIGHT, y))))
            taken.append(y)
            found.append(Label("el.words", on_sheet(RIGHT + 6, y), f"{name} {number_text(value, strip.unit)}", "start"))
    for line in strip.lines:
        found.append(Polyline(line.role, _points(line.values, time, place, axis)))
    found += [Circle(role, on_sheet(place.x(at), axis.y(value)), 5 * MM) for at, value, role in strip.dots]
    return [*found, *_names(strip, axis, taken)]


def _titled(strip: Strip) -> str:
    return f"{strip.name}, {strip.unit.symbol}" if strip.unit.symbol else strip.name


def _figure(value: float, unit: Unit) -> str:
    shown = (value - unit.offset) / unit.factor
    return f"{shown:g}".replace("-", "−") if abs(shown) < 1e5 else f"{shown:.0f}"


def _thinned(time: Floats, values: Floats) -> tuple[Floats, Floats]:
    """No more points than can be seen: of each stretch its first, lowest and highest."""
    if len(time) <= MOST_POINTS:
        return time, values
    parts = np.array_split(np.arange(len(time)), MOST_POINTS // 3)
    kept = sorted(
        {int(k) for part in parts for k in (part[0], part[values[part].argmin()], part[values[part].argmax()])}
    )
    last = len(time) - 1
    kept = kept if kept[-1] == last else [*kept, last]
    return time[kept], values[kept]


def _points(values: Floats, time: Floats, place: _Place, axis: _Axis) -> tuple[tuple[float, float], ...]:
    at, seen = _thinned(time, values)
    there = np.isfinite(seen)
    return tuple(on_sheet(place.x(float(t)), axis.y(float(v))) for t, v in zip(at[there], seen[there], strict=True))


def _band(band: tuple[Floats, Floats], time: Floats, place: _Place, axis: _Axis) -> Shape:
    low, high = (_points(edge, time, place, axis) for edge in band)
    return Polyline("strip.band", (*low, *reversed(high)), closed=True)


def _names(strip: Strip, axis: _Axis, taken: list[float]) -> list[Shape]:
    """Names of lines right of where they end, none on another."""
    found: list[Shape] = []
    named = sorted((line for line in strip.lines if line.name), key=lambda line: -_last(line.values))
    for line in named:
        y = axis.y(_last(line.values))
        free = next(
            at
            for k in range(40)
            for at in (y - ROOM * k / 2, y + ROOM * k / 2)
            if all(abs(at - other) >= ROOM for other in taken)
        )
        taken.append(free)
        found.append(Label("el.value", on_sheet(RIGHT + 6, free), line.name, "start"))
    return found


def _last(values: Floats) -> float:
    """The last of a line that is one."""
    return float(values[np.isfinite(values)][-1])


def _hours(place: _Place, first: float, foot: float) -> list[Shape]:
    """Lines of time through all strips, their words below."""
    span = place.ends - place.begins
    step = next((step for step in TIMES if span / step <= 9), TIMES[-1])
    found: list[Shape] = []
    at = math.ceil(place.begins / step) * step
    while at <= place.ends + 1e-6:
        x = place.x(at)
        found.append(Polyline("strip.rule", (on_sheet(x, first), on_sheet(x, foot))))
        found.append(Label("el.words", on_sheet(x, foot - 11), _clock(at)))
        at += step
    return found


def _clock(seconds: float) -> str:
    minutes = seconds / 60
    return f"{minutes:g} min" if seconds % 60 == 0 else f"{seconds:g} s"


def _legs(driven: Driven, place: _Place, first: float, foot: float) -> list[Shape]:
    """Where the key is off, tinted."""
    found: list[Shape] = []
    begins = 0.0
    for moment, until in zip(driven.moments, driven.until, strict=True):
        if not moment.alive:
            left, right = place.x(begins), place.x(float(until))
            found.append(Rect("strip.off", left * MM, foot * MM, (right - left) * MM, (first - foot) * MM))
        begins = float(until)
    return found


def _marks(driven: Driven, place: _Place, first: float, foot: float) -> list[Shape]:
    """What happens, at its moment: a line through all strips and its words over the first."""
    found: list[Shape] = []
    taken: list[tuple[float, float]] = []
    for mark in driven.says.marks:
        x, words = place.x(mark.at), f"{MARKS[mark.code]}, {clock(mark.at)}"
        half = MARK_LETTER * len(words) / 2
        middle = min(max(x, LEFT + 60 + half), RIGHT - half)
        found.append(Polyline("rail.limit", (on_sheet(x, first), on_sheet(x, foot))))
        # The first of them before its line, the others after theirs, where there is room beside the last.
        for at in (middle, x - half - 4, x + half + 4):
            if at - half >= LEFT + 60 and at + half <= WIDTH and all(at + half < a or at - half > b for a, b in taken):
                taken.append((at - half, at + half))
                found.append(Label("el.alarm", on_sheet(at, first + 6), words))
                break
    return found


OTHERS = ("strip.cool", "strip.oil", "strip.gauge", "strip.fan", "fit.moved", "loop.words")
"""inks of packages beside the one in use, in turn"""
MOST_NAMES = 8


def _over(time: Floats, one: Driven, line: Floats) -> Floats:
    """A line of a drive at the moments of another; none where it ended before."""
    found: Floats = np.where(time <= one.run.time[-1], np.interp(time, one.run.time, line), np.nan)
    return found


def together(driven: tuple[tuple[str, Driven], ...], system: str, active: str) -> Scene:
    """Outlets of several packages on the same drive, on one axis; the fans of each under it."""
    first = next((one for _, one in driven if one.package_id == active), driven[0][1])
    time = lines_of(max((one for _, one in driven), key=lambda one: one.run.time[-1]))["time s"]
    lines, fans = [], []
    for k, (name, one) in enumerate(driven[:MOST_NAMES]):
        role = "strip.main" if one.package_id == active else OTHERS[k % len(OTHERS)]
        short = name if len(name) <= 12 else f"{name[:11]}…"
        lines.append(Line(short, _over(time, one, one.run.outlet), role))
        fans.append((short, Line("", _over(time, one, one.run.share), role)))
    degrees = KINDS["temperature"].shown_unit(system)
    levels = ((first.thermostat, "thermostat", "rail.thermostat"), (first.limit, "limit", "rail.limit"))
    place = _Place(0.0, first.lasts)
    strips = [Strip("Coolant out", tuple(lines), degrees, TALL, levels=levels, least=15.0)]
    strips += [Strip(f"Fans, {name}", (line,), SHARE, LEAN, least=1.0, from_nought=True) for name, line in fans]
    shapes, foot = _stacked(strips, time, place)
    return _sheet([*_legs(first, place, FIRST, foot), *shapes], foot)


def trace_scene(found: Recorded, system: str) -> Scene:
    """A recorded drive: its speed, and its grade where it has one."""
    time = np.array(found.seconds) - found.seconds[0]
    place = _Place(0.0, float(time[-1]))
    speed = KINDS["speed"].shown_unit(system)
    strips = [Strip("Speed", (Line("", np.array(found.speeds), "strip.main"),), speed, TALL, least=5.0)]
    if found.grades:
        strips.append(Strip("Grade", (Line("", np.array(found.grades), "strip.main"),), SHARE, MIDDLE, least=0.04))
    return _sheet(*_stacked(strips, time, place))


def foretold_scene(strips: tuple[Strip, ...], time: Floats, lasts: float) -> Scene:
    """Strips of a trial: what should be read, with its band, over time (m,) [s], and what was."""
    return _sheet(*_stacked(strips, time, _Place(0.0, lasts)))
