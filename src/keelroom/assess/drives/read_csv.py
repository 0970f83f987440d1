"""A recorded drive out of a CSV file: its columns and units guessed, each guess to be changed, faults named by line."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Sequence
from itertools import islice
from typing import NamedTuple

from keelroom.document.schema.drive import Trace
from keelroom.errors import InputError

MOST_LINES = 40000
"""A build keeps: longer recordings are thinned to it."""
MOST_READ = 12_000_000
LONGEST_GAP = 30.0
"""[s] between two lines over which nothing is known of what was driven."""
FASTEST, STEEPEST = 120.0, 0.5
"""[m/s] and rise over run no recording is believed over."""
UNITS = {
    "time": {"s": 1.0, "min": 60.0, "h": 3600.0, "ms": 1e-3},
    "speed": {"m/s": 1.0, "km/h": 1 / 3.6, "mph": 0.44704, "kn": 1852 / 3600},
    "grade": {"rise/run": 1.0, "%": 0.01},
}
WORDS = {
    "time": ("time", "second", "sec", "zeit", "temps", "t"),
    "speed": ("speed", "velocity", "geschw", "vitesse", "km/h", "kmh", "mph", "mps", "m/s", "metres_per_second", "v"),
    "grade": ("grade", "slope", "incline", "gradient"),
}
MARKS = {
    "speed": (
        ("km/h", "km/h"),
        ("kmh", "km/h"),
        ("kph", "km/h"),
        ("mph", "mph"),
        ("mps", "m/s"),
        ("m/s", "m/s"),
        ("metres_per", "m/s"),
    ),
    "time": (("min", "min"), ("ms", "ms"), ("hour", "h"), ("sec", "s")),
    "grade": (("%", "%"), ("percent", "%"), ("pct", "%")),
}
PREVIEW = 8


class Column(NamedTuple):
    """What a column of the file is taken as: its place, and the unit of its figures."""

    place: int
    unit: str


class Guess(NamedTuple):
    """How a file is read. heads: names of its columns, numbered where it has no header;  first: lines shown

    separator, comma : between cells, and whether a comma is the decimal sign
    """

    heads: tuple[str, ...]
    header: bool
    separator: str
    comma: bool
    columns: dict[str, Column]
    first: tuple[tuple[str, ...], ...]


class Fault(NamedTuple):
    """What is wrong, in which line of the file (from 1), 0 for the whole of it."""

    line: int
    why: str


class Read(NamedTuple):
    """A recording as read: the trace, what was left out or set right, and how many lines there were."""

    trace: Trace
    faults: tuple[Fault, ...]
    lines: int


def guess(text: str) -> Guess:
    """How a file is likeliest to be read, from its first lines.

    Raises InputError where it holds no table.
    """
    lines = [line for line in islice(io.StringIO(text), 60) if line.strip()]
    if not lines:
        raise InputError("csv_empty", "The file holds nothing: a table of time and speed was expected")
    separator, comma = signs(lines)
    if not separator:
        raise InputError("csv_no_table", "The file holds one column: time and speed were expected, side by side")
    rows = list(csv.reader(lines, delimiter=separator))
    header = not all(number(cell, comma) is not None for cell in rows[0] if cell.strip())
    heads = tuple(cell.strip() or f"column {k + 1}" for k, cell in enumerate(rows[0]))
    if not header:
        heads = tuple(f"column {k + 1}" for k in range(len(rows[0])))
    body = rows[1:] if header else rows
    columns = _columns(heads if header else (), len(heads))
    return Guess(heads, header, separator, comma, columns, tuple(tuple(row) for row in body[:PREVIEW]))


def signs(lines: Sequence[str]) -> tuple[str, bool]:
    """What parts the cells of a table's lines, '' where nothing does, and whether a comma is its decimal sign: it parts
    cells only where nothing else does in most lines."""
    half = len(lines) / 2
    separator = next((sign for sign in ";\t|," if sum(sign in line for line in lines) > half), "")
    comma = separator not in ("", ",") and any("," in cell for line in lines[1:] for cell in line.split(separator))
    return separator, comma


def _columns(heads: Sequence[str], count: int) -> dict[str, Column]:
    found: dict[str, Column] = {}
    for what, words in WORDS.items():
        for word in words:
            place = next(
                (
                    k
                    for k, head in enumerate(heads)
                    if (head.lower() == word if len(word) == 1 else word in head.lower())
                    and k not in {column.place for column in found.values()}
                ),
                None,
            )
            if place is not None:
                found[what] = Column(place, _unit(what, heads[place]))
                break
    usual = {"time": Column(0, "s"), "speed": Column(min(1, count - 1), "m/s")}
    return {what: found.get(what, column) for what, column in usual.items()} | {
        what: column for what, column in found.items() if what == "grade"
    }


def _unit(what: str, head: str) -> str:
    lowered = head.lower().replace(" ", "")
    return next((unit for mark, unit in MARKS[what] if mark in lowered), next(iter(UNITS[what])))


def number(cell: str, comma: bool) -> float | None:
    """The figure of a cell, whichever its decimal sign; None where it holds none."""
    text = cell.strip().replace("\u2212", "-")
    if comma:
        text = text.replace(".", "").replace(",", ".")
    try:
        value = float(text)
    except ValueError:
        return None
    return value if math.isfinite(value) else None


def read(text: str, how: Guess, name: str, ident: str) -> Read:
    """The recording of a file, read as said; lines that mean nothing are left out and named.

    Raises InputError where time runs backwards, nothing is left, or what is left is no drive.
    """
    lines = csv.reader(io.StringIO(text), delimiter=how.separator)
    seconds: list[float] = []
    speeds: list[float] = []
    grades: list[float] = []
    faults: list[Fault] = []
    count = 0
    for number, row in enumerate(lines, 1):
        count = number
        if number > MOST_READ:
            faults.append(Fault(number, f"only the first {MOST_READ} lines were read"))
            break
        if (number == 1 and how.header) or not any(cell.strip() for cell in row):
            continue
        values = _line(row, how)
        if isinstance(values, str):
            faults.append(Fault(number, values))
            continue
        at, speed, grade = values
        if seconds and at <= seconds[-1]:
            if at < seconds[-1]:
                raise InputError(
                    "csv_backwards",
                    f"Line {number}: time runs backwards, from {seconds[-1]:g} s to {at:g} s. Is its column right?",
                    line=number,
                )
            faults.append(Fault(number, f"a second line at {at:g} s, left out"))
            continue
        if seconds and at - seconds[-1] > LONGEST_GAP:
            faults.append(Fault(number, f"nothing for {at - seconds[-1]:.0f} s before it: taken straight across"))
        seconds.append(at)
        speeds.append(speed)
        grades.append(grade)
    if len(seconds) < 2:
        why = f": {faults[0].why} in line {faults[0].line}" if faults else ""
        raise InputError("csv_no_drive", f"No drive is left{why}. Two lines of time and speed are the least")
    return Read(_trace(seconds, speeds, grades, (name, ident, how)), tuple(faults), count)


def _line(row: Sequence[str], how: Guess) -> tuple[float, float, float] | str:
    """Time [s], speed [m/s] and grade of a line, or what is wrong with it."""
    found = {"grade": 0.0}
    for what, column in how.columns.items():
        if column.place >= len(row):
            return f"it has {len(row)} cells, no {what}"
        value = number(row[column.place], how.comma)
        if value is None:
            shown = row[column.place].strip()[:20]
            return f"“{shown}” is no number for the {what}" if shown else f"no {what}"
        found[what] = value * UNITS[what][column.unit]
    if found["speed"] < 0:
        return f"a speed of {found['speed']:.1f} m/s, less than nothing: left out"
    if found["speed"] > FASTEST:
        return f"a speed of {found['speed']:.0f} m/s: is its unit right?"
    if abs(found["grade"]) > STEEPEST:
        return f"a grade of {found['grade']:.0%}: is its unit right?"
    return found["time"], found["speed"], found["grade"]


def _trace(seconds: list[float], speeds: list[float], grades: list[float], told: tuple[str, str, Guess]) -> Trace:
    name, ident, how = told
    every = max(1, math.ceil(len(seconds) / MOST_LINES))
    if every > 1:
        # Means of so many lines: a peak that lasts no second heats nothing.
        parts = range(0, len(seconds) - every + 1, every)
        seconds, speeds, grades = (
            [sum(line[k : k + every]) / every for k in parts] for line in (seconds, speeds, grades)
        )
    begins = seconds[0]
    climbs = "grade" in how.columns and any(grades)
    return Trace(
        id=ident,
        name=name,
        seconds=tuple(round(at - begins, 3) for at in seconds),
        speeds=tuple(round(speed, 4) for speed in speeds),
        grades=tuple(round(grade, 5) for grade in grades) if climbs else (),
        source="recorded",
    )
