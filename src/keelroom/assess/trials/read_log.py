"""A logger's file as readings: columns, units, time base and decimal sign guessed, each to be changed; what is wrong
with it named by line, nothing set right in silence."""

from __future__ import annotations

import csv
import io
import json
import math
from collections.abc import Iterator, Sequence
from datetime import datetime
from itertools import islice, pairwise
from typing import NamedTuple

import numpy as np

from keelroom.assess.drives.read_csv import number as number_in
from keelroom.assess.drives.read_csv import signs
from keelroom.core.arrays import Floats
from keelroom.document.schema.trials import Log, ReadAt, Sensor
from keelroom.errors import InputError
from keelroom.units import KINDS, Unit

MOST_KEPT = 6000
"""Readings a build keeps of one line: longer ones are kept as means of as many."""
MOST_READ = 12_000_000
LOOKED_AT = 400
"""Lines a file is guessed from."""
GAPS = 10.0
"""Times the usual step between two lines that is a gap."""
MOST_FAULTS, STEPS, TOGETHER = 200, 50, 5000
TIME_UNITS = {"s": 1.0, "ms": 1e-3, "min": 60.0, "h": 3600.0, "h:m:s": 0.0, "date and time": 0.0}
UNITS = {
    **{symbol: KINDS["temperature"].unit(symbol) for symbol in ("°C", "°F")},
    **{symbol: KINDS["airflow"].unit(symbol) for symbol in ("CFM", "m³/h")},
    "V": KINDS["voltage"].unit("V"),
    "mV": Unit("mV", 1e-3),
    "A": KINDS["current"].unit("A"),
}
OF_PLACE: dict[ReadAt, tuple[str, ...]] = {
    "volts": ("V", "mV"),
    "battery": ("A",),
    "air": ("CFM", "m³/h"),
    "motor": ("V", "mV"),
    "running": ("A",),
    "start": ("A",),
}
DEGREES = ("°C", "°F")
BELIEVED: dict[ReadAt, tuple[float, float]] = {"volts": (0.0, 60.0), "battery": (-600.0, 600.0), "air": (0.0, 10.0)}
WARM = (-39.0, 250.0)
"""[degC], [V], [A], [m3/s] past which a figure is a sensor that has dropped out."""
HEADS: tuple[tuple[ReadAt, tuple[str, ...]], ...] = (
    ("inlet", ("lower", "inlet", "return", "radiator out", "rad out")),
    ("oil", ("oil",)),
    ("gearbox", ("trans", "gearbox", "atf")),
    ("volts", ("volt", "batt_v", "module voltage", "(v)")),
    ("battery", ("amp", "current", "(a)")),
    ("air", ("cfm", "airflow", "anemo")),
    ("outlet", ("coolant", "ect", "upper", "outlet", "engine temp", "water", "cts")),
    ("gauge", ("gauge", "needle", "dash")),
)
OTHERS = ("intake", "iat", "ambient", "outside", "rpm", "speed", "load", "maf", "map", "throttle")
"""Columns that are no reading of the cooling system."""


class Line(NamedTuple):
    """A column that is taken: its place, the id of what it was read with, the unit of its figures."""

    place: int
    sensor: str
    unit: str


class Guess(NamedTuple):
    """How a file is read. heads: its columns;  time: place and unit of the time;  lines: columns taken
    offset [s] : added to its clock, so that nought is when the trial began"""

    heads: tuple[str, ...]
    header: bool
    separator: str
    comma: bool
    time: tuple[int, str]
    lines: tuple[Line, ...]
    first: tuple[tuple[str, ...], ...]
    offset: float = 0.0


class Fault(NamedTuple):
    """What is wrong, in which line of the file (from 1), 0 for the whole of it."""

    line: int
    why: str


class Read(NamedTuple):
    """logs as the build would keep them;  faults: told one by one, `more` of them only counted;  lines: of the file"""

    logs: tuple[Log, ...]
    faults: tuple[Fault, ...]
    more: int
    lines: int
    lasts: float


def guess(text: str, sensors: Sequence[Sensor]) -> Guess:
    """How a file is likeliest to be read, from its first lines. Raises InputError where it holds no table."""
    lines = [line for line in islice(io.StringIO(text), LOOKED_AT) if line.strip()]
    if not lines:
        raise InputError("log_empty", "The file holds nothing: a table of time and readings was expected")
    separator, comma = signs(lines)
    if not separator:
        raise InputError("log_no_table", "The file holds one column: time and at least one reading were expected")
    rows = list(csv.reader(lines, delimiter=separator))
    width = max(len(row) for row in rows)
    start = next((k for k, row in enumerate(rows) if len(row) == width), 0)
    header = not all(number_in(cell, comma) is not None or _clock(cell) is not None for cell in rows[start] if cell)
    heads = tuple(f"column {k + 1}" for k in range(width))
    if header:
        heads = tuple(cell.strip() or heads[k] for k, cell in enumerate(rows[start]))
    body = [row for row in rows[start + header :] if len(row) == width]
    time = _time(heads, body, comma)
    found = tuple(_lines(heads, body, comma, (time[0], sensors)))
    return Guess(heads, header, separator, comma, time, found, tuple(tuple(row) for row in body[:8]))


def kept(how: Guess) -> tuple[str, str]:
    """How a file is read as texts to be found again by: its heads, and the rest but its first lines and its clock."""
    rest = {
        "header": how.header,
        "separator": how.separator,
        "comma": how.comma,
        "time": list(how.time),
        "lines": [list(line) for line in how.lines],
    }
    return "\t".join(how.heads), json.dumps(rest)


def as_before(how: Guess, text: str, sensors: Sequence[Sensor]) -> Guess:
    """A guess as files of the same columns were read before; itself where what was kept cannot be read any more. A
    sensor that is no longer there is not taken."""
    known = {one.id: one for one in sensors}
    try:
        told = json.loads(text)
        place, unit = told["time"]
        lines = tuple(Line(int(at), str(ident), str(symbol)) for at, ident, symbol in told["lines"])
        header, comma, separator = bool(told["header"]), bool(told["comma"]), str(told["separator"])
    except (ValueError, TypeError, KeyError):
        return how
    width = len(how.heads)
    usable = tuple(
        line
        for line in lines
        if line.place < width and line.sensor in known and line.unit in units_of(known[line.sensor])
    )
    if not (0 <= int(place) < width and unit in TIME_UNITS and separator == how.separator):
        return how
    return how._replace(header=header, comma=comma, time=(int(place), str(unit)), lines=usable)


def _time(heads: Sequence[str], body: Sequence[Sequence[str]], comma: bool) -> tuple[int, str]:
    """Which column is the time, and its unit by its head, else by how its figures go."""
    lowered = [head.lower() for head in heads]
    named = ("time", "sec", "zeit", "temps", "stamp", "elapsed")
    place = next((k for k, head in enumerate(lowered) if any(word in head for word in named)), 0)
    cells = [row[place] for row in body[:20]]
    if cells and all(number_in(cell, comma) is None for cell in cells):
        return place, "date and time" if any("-" in cell or "/" in cell or "T" in cell for cell in cells) else "h:m:s"
    head = lowered[place].replace(" ", "")
    for mark, unit in (("(ms)", "ms"), ("msec", "ms"), ("milli", "ms"), ("min", "min"), ("hour", "h"), ("(h)", "h")):
        if mark in head:
            return place, unit
    values = [value for cell in cells if (value := number_in(cell, comma)) is not None]
    steps = sorted(after - before for before, after in pairwise(values))
    if len(steps) > 1 and steps[len(steps) // 2] >= HUNDREDS:
        return place, "ms"
    return place, "s"


HUNDREDS = 90.0
"""A step of time from which it is taken as milliseconds: nobody logs a warm engine every minute and a half."""


def _lines(
    heads: Sequence[str], body: Sequence[Sequence[str]], comma: bool, told: tuple[int, Sequence[Sensor]]
) -> Iterator[Line]:
    """Columns that name a place something is read with here."""
    time, sensors = told
    taken: set[str] = set()
    for place, head in enumerate(heads):
        lowered = head.lower()
        if place == time or any(word in lowered for word in OTHERS):
            continue
        exact = next((one for one in sensors if one.name.lower() == lowered and one.id not in taken), None)
        where = next((at for at, words in HEADS if any(word in lowered for word in words)), None)
        ranked = sorted(sensors, key=lambda one: one.by not in ("car", "probe", "meter"))
        sensor = exact or next((one for one in ranked if one.place == where and one.id not in taken), None)
        if sensor is None:
            continue
        values = [value for row in body[:200] if (value := number_in(row[place], comma)) is not None]
        if not values:
            continue
        taken.add(sensor.id)
        yield Line(place, sensor.id, _unit(sensor, lowered, values))


def _unit(sensor: Sensor, head: str, values: Sequence[float]) -> str:
    units = OF_PLACE.get(sensor.place, DEGREES)
    if units is DEGREES:
        if "°f" in head or "(f)" in head or "deg f" in head or head.endswith(("_f", " f")):
            return "°F"
        if "°c" in head or "(c)" in head or "deg c" in head or head.endswith(("_c", " c")):
            return "°C"
        # Coolant over 130 is no longer coolant in Celsius.
        return "°F" if sorted(values)[int(0.9 * (len(values) - 1))] > WARMEST else "°C"
    if "mv" in head:
        return "mV"
    return next((unit for unit in units if unit.lower() in head), units[0])


WARMEST = 130.0


def units_of(sensor: Sensor) -> tuple[str, ...]:
    """Units its figures may come in."""
    return OF_PLACE.get(sensor.place, DEGREES)


def _clock(cell: str) -> float | None:
    """Seconds of a time of day, or of a date and time; None where it is neither."""
    text = cell.strip()
    parts = text.split(":")
    if 2 <= len(parts) <= 3 and "-" not in text and "/" not in text and "T" not in text:
        try:
            hours, minutes = float(parts[0]), float(parts[1])
            seconds = float(parts[2].replace(",", ".")) if len(parts) > 2 else 0.0
        except ValueError:
            return None
        return 3600 * hours + 60 * minutes + seconds
    try:
        return datetime.fromisoformat(text.replace("/", "-").replace("Z", "+00:00")).timestamp()
    except ValueError:
        return None


def read(text: str, how: Guess, sensors: Sequence[Sensor], name: str) -> Read:
    """The readings of a file, read as said.

    Raises InputError where no column is taken, or nothing is left of those that are.
    """
    if not how.lines:
        raise InputError("log_no_column", "No column is taken as a reading yet: say what one of them was read with")
    known = {one.id: one for one in sensors}
    reader = _Reader(how, known)
    lines = text.splitlines()
    for begins in range(0, len(lines), TOGETHER):
        part = lines[begins : begins + TOGETHER]
        # What nothing is wrong with goes together; a part that has something goes line by line.
        if reader.learnt and reader.together(begins, part):
            continue
        for number, row in enumerate(csv.reader(part, delimiter=how.separator), begins + 1):
            if not reader.over:
                reader.take(number, row)
    return reader.done(name)


class _Reader:
    """Line by line."""

    def __init__(self, how: Guess, sensors: dict[str, Sensor]) -> None:
        self.how, self.sensors = how, sensors
        self.faults: list[Fault] = []
        self.more = self.count = 0
        self.begins: float | None = None
        self.last = -math.inf
        self.steps: list[float] = []
        self.usual = math.inf
        self.begun = self.over = False
        self.seconds: list[list[float]] = [[] for _ in how.lines]
        self.values: list[list[float]] = [[] for _ in how.lines]
        self.parts: list[list[tuple[Floats, Floats]]] = [[] for _ in how.lines]
        place, unit = how.time
        self.place, self.scale = place, TIME_UNITS[unit]
        self.wide = 1 + max([place, *(line.place for line in how.lines)])
        self.ways = [
            (line.place, UNITS[line.unit].factor, UNITS[line.unit].offset, *self._believed(line.sensor))
            for line in how.lines
        ]

    def _believed(self, ident: str) -> tuple[float, float]:
        sensor = self.sensors.get(ident)
        return BELIEVED.get(sensor.place, WARM) if sensor else WARM

    @property
    def learnt(self) -> bool:
        """Whether it is known how far its lines lie apart, and a figure is one as it stands."""
        return len(self.steps) >= STEPS and self.scale > 0 and not self.how.comma

    def together(self, begins: int, part: list[str]) -> bool:
        """Take lines at once; whether nothing was wrong with any of them, else none was taken."""
        if begins + len(part) > MOST_READ:
            return False
        wanted = [self.place, *(place for place, *_ in self.ways)]
        try:
            table = np.loadtxt(part, delimiter=self.how.separator, usecols=wanted, comments=None, ndmin=2)
        except (ValueError, IndexError):
            return False
        if len(table) != len(part):
            return False
        at = table[:, 0] * self.scale - (self.begins or 0.0) + self.how.offset
        read = [table[:, k] * way[1] + way[2] for k, way in enumerate(self.ways, 1)]
        steps = np.diff(at, prepend=self.last)
        fine = bool(np.all((steps > 0) & (steps <= max(GAPS * self.usual, 5.0))))
        inside = (np.all((line >= low) & (line <= high)) for line, (*_, low, high) in zip(read, self.ways, strict=True))
        if not (fine and all(inside)):
            return False
        for k, line in enumerate(read):
            self._close(k)
            self.parts[k].append((at, line))
        self.last, self.count = float(at[-1]), begins + len(part)
        return True

    def _close(self, k: int) -> None:
        """What was taken line by line of a column, put with what was taken together."""
        if self.seconds[k]:
            self.parts[k].append((np.array(self.seconds[k]), np.array(self.values[k])))
            self.seconds[k], self.values[k] = [], []

    def fault(self, line: int, why: str) -> None:
        """Told, or counted where too many are told already."""
        if len(self.faults) < MOST_FAULTS:
            self.faults.append(Fault(line, why))
        else:
            self.more += 1

    def take(self, number: int, row: Sequence[str]) -> None:
        """One line of the file."""
        self.count = number
        if number > MOST_READ:
            self.fault(number, f"only the first {MOST_READ} lines were read")
            self.over = True
            return
        if not row or not any(row):
            return
        if len(row) < self.wide:
            if self.begun:
                self.fault(number, f"it has {len(row)} cells, {self.wide} were expected: left out")
            return
        at = self._at(row[self.place])
        if at is None:
            if self.begun or (self.count > 1 and not self.how.header):
                self.fault(number, f"“{row[self.place].strip()[:20]}” is no time: left out")
            return
        if self.begins is None:
            self.begins = at
        at = at - self.begins + self.how.offset
        if at <= self.last:
            why = "the same moment again" if at == self.last else f"time runs back from {self.last:g} s to {at:g} s"
            self.fault(number, f"{why}: left out")
            return
        self._gap(number, at)
        self.last, self.begun = at, True
        if self.how.comma:
            self._cells_by_comma(number, row, at)
        else:
            self._cells(number, row, at)

    def _at(self, cell: str) -> float | None:
        if self.scale == 0.0:
            return _clock(cell)
        value = number_in(cell, self.how.comma)
        return None if value is None else value * self.scale

    def _gap(self, number: int, at: float) -> None:
        if not self.begun:
            return
        step = at - self.last
        if len(self.steps) < STEPS:
            self.steps.append(step)
            self.usual = sorted(self.steps)[len(self.steps) // 2]
        if len(self.steps) > 2 and step > max(GAPS * self.usual, 5.0):
            self.fault(number, f"nothing for {step:.0f} s before it: a gap, left as it is")

    def _cells(self, number: int, row: Sequence[str], at: float) -> None:
        for k, (place, factor, offset, low, high) in enumerate(self.ways):
            try:
                value = float(row[place]) * factor + offset
            except ValueError:
                self._odd(number, row[place], k)
                continue
            if low <= value <= high:
                self.seconds[k].append(at)
                self.values[k].append(value)
            else:
                self._dropped(number, row[place], k)

    def _cells_by_comma(self, number: int, row: Sequence[str], at: float) -> None:
        self._cells(number, [cell.replace(".", "").replace(",", ".") for cell in row], at)

    def _odd(self, number: int, cell: str, k: int) -> None:
        name, shown = self.how.heads[self.how.lines[k].place], cell.strip()[:20]
        self.fault(number, f"“{shown}” is no number for {name}" if shown else f"nothing for {name}: it dropped out")

    def _dropped(self, number: int, cell: str, k: int) -> None:
        name = self.how.heads[self.how.lines[k].place]
        self.fault(number, f"{cell.strip()[:20]} is past what {name} can be: a sensor that dropped out, left out")

    def done(self, name: str) -> Read:
        """The logs. Raises InputError where none has two readings."""
        logs = []
        for k, line in enumerate(self.how.lines):
            self._close(k)
            seconds, values = _thinned(self.parts[k])
            if len(seconds) > 1:
                logs.append(
                    Log(
                        id=f"log{k + 1}",
                        sensor=line.sensor,
                        seconds=tuple(round(at, 2) for at in seconds),
                        values=tuple(round(value, 3) for value in values),
                        source=f"{name}, {self.how.heads[line.place]}"[:120],
                    )
                )
        if not logs:
            why = f": line {self.faults[0].line}, {self.faults[0].why}" if self.faults else ""
            raise InputError("log_no_reading", f"No reading is left{why}. Are the columns and the time right?")
        return Read(tuple(logs), tuple(self.faults), self.more, self.count, max(log.seconds[-1] for log in logs))


def _thinned(parts: list[tuple[Floats, Floats]]) -> tuple[list[float], list[float]]:
    """Means of as many readings as it takes to be no more than are kept."""
    if not parts:
        return [], []
    seconds, values = (np.concatenate(column) for column in zip(*parts, strict=True))
    every = math.ceil(len(seconds) / MOST_KEPT)
    if every > 1:
        whole = len(seconds) // every * every
        seconds, values = (line[:whole].reshape(-1, every).mean(axis=1) for line in (seconds, values))
    return seconds.tolist(), values.tolist()
