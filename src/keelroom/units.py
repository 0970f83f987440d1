"""Kinds of quantity, their units, reading what a person types and writing figures back.

Inside, every value is SI (temperature in degrees Celsius). Units live only here, at the edge.
Conversion factors are the exact definitions of the international yard and pound agreement (1959)
and of the SI brochure; `tests/reference` checks them against an independent unit package.
"""

from __future__ import annotations

import math
import re
from fractions import Fraction
from functools import cache, lru_cache
from typing import NamedTuple

from keelroom.errors import InputError
from keelroom.gauges import read_size, size_text

INCH = 0.0254
POUND = 0.45359237
PSI = POUND * 9.80665 / INCH**2


class Unit(NamedTuple):
    """One way to write a kind: `si = value * factor + offset`."""

    symbol: str
    factor: float
    offset: float = 0.0
    decimals: int = 1
    names: tuple[str, ...] = ()


class Kind(NamedTuple):
    """A kind of quantity with the units it may be typed in; the first unit is the SI one."""

    name: str
    units: tuple[Unit, ...]
    us: str
    si: str
    example: str
    named: bool = False
    """sizes that go by a name (wire): shown as they were written, never converted"""

    def unit(self, symbol: str) -> Unit:
        """The unit written `symbol`; InputError naming the units that would do."""
        wanted = _plain(symbol)
        for unit in self.units:
            if wanted in (_plain(unit.symbol), *(_plain(name) for name in unit.names)):
                return unit
        known = ", ".join(u.symbol for u in self.units if u.symbol)
        raise InputError(
            "unknown_unit",
            f"“{symbol}” is not a unit of {self.name}; use {known}" if known else "This is a plain number; leave the unit out",
            unit=symbol,
            kind=self.name,
        )

    def shown_unit(self, system: str) -> Unit:
        """The unit the `system` ("us" or "si") shows this kind in."""
        return _shown(self.name, self.us if system == "us" else self.si)

    @property
    def affine(self) -> bool:
        """True where zero is a matter of convention, so that sums of two readings mean nothing."""
        return any(unit.offset for unit in self.units)


@cache
def _shown(kind_name: str, symbol: str) -> Unit:
    return KINDS[kind_name].unit(symbol)


def _plain(symbol: str) -> str:
    return "".join(symbol.translate(_DIGITS).replace("°", "").split()).rstrip(".").lower()


def _a(noun: str) -> str:
    if noun == "money":
        return "a sum of money"
    return f"{'an' if noun[0] in 'aeiou' else 'a'} {noun}"


def _kind(name: str, us: str, si: str, example: str, *units: Unit) -> Kind:
    return Kind(name, units, us, si, example)


KINDS: dict[str, Kind] = {
    kind.name: kind
    for kind in (
        _kind("length", "in", "mm", "24 3/8, 24.375 in or 619 mm",
              Unit("m", 1.0, decimals=3), Unit("mm", 1e-3, decimals=1), Unit("cm", 1e-2, decimals=1),
              Unit("in", INCH, decimals=3, names=('"', "″", "inch", "inches")),
              Unit("ft", 12 * INCH, decimals=2, names=("'", "′", "feet", "foot"))),
        _kind("area", "in²", "cm²", "450 in² or 2900 cm²",
              Unit("m²", 1.0, decimals=3), Unit("cm²", 1e-4, decimals=0), Unit("in²", INCH**2, decimals=0, names=("sqin",)),
              Unit("ft²", (12 * INCH) ** 2, decimals=1, names=("sqft",))),
        _kind("drag area", "ft²", "m²", "8.5 ft² or 0.8 m²", Unit("m²", 1.0, decimals=2), Unit("ft²", (12 * INCH) ** 2, decimals=1, names=("sqft",))),
        _kind("temperature", "°F", "°C", "195 °F or 90 °C",
              Unit("°C", 1.0, decimals=0), Unit("°F", 5 / 9, -160 / 9, decimals=0), Unit("K", 1.0, -273.15, decimals=0)),
        _kind("temperature difference", "°F", "K", "9 °F or 5 K",
              Unit("K", 1.0, decimals=0, names=("°C",)), Unit("°F", 5 / 9, decimals=0)),
        _kind("airflow", "CFM", "m³/s", "1600 CFM or 0.75 m³/s",
              Unit("m³/s", 1.0, decimals=2), Unit("CFM", (12 * INCH) ** 3 / 60, decimals=0, names=("ft3/min",)),
              Unit("m³/h", 1 / 3600, decimals=0), Unit("L/s", 1e-3, decimals=0)),
        _kind("air speed", "ft/min", "m/s", "3 m/s or 600 ft/min",
              Unit("m/s", 1.0, decimals=1), Unit("ft/min", 12 * INCH / 60, decimals=0, names=("fpm",))),
        _kind("coolant flow", "gpm", "L/min", "30 gpm or 115 L/min",
              Unit("m³/s", 1.0, decimals=5), Unit("L/min", 1e-3 / 60, decimals=0, names=("lpm",)),
              Unit("gpm", 231 * INCH**3 / 60, decimals=0, names=("gal/min",))),
        _kind("power", "hp", "kW", "180 W, 60 kW or 250 hp",
              Unit("W", 1.0, decimals=0), Unit("kW", 1e3, decimals=1), Unit("hp", POUND * 9.80665 * 12 * INCH * 550, decimals=0)),
        _kind("pressure", "psi", "kPa", "15 psi or 100 kPa",
              Unit("Pa", 1.0, decimals=0), Unit("kPa", 1e3, decimals=0), Unit("bar", 1e5, decimals=2), Unit("psi", PSI, decimals=1)),
        _kind("fan pressure", "inH₂O", "Pa", "180 Pa or 0.7 inH2O",
              Unit("Pa", 1.0, decimals=0), Unit("inH₂O", 249.08891, decimals=2, names=("inh2o", "in wg", "inwc"))),
        _kind("mass", "lb", "kg", "3400 lb or 1540 kg", Unit("kg", 1.0, decimals=0), Unit("lb", POUND, decimals=0, names=("lbs",))),
        _kind("speed", "mph", "km/h", "55 mph or 90 km/h",
              Unit("m/s", 1.0, decimals=1), Unit("km/h", 1 / 3.6, decimals=0, names=("kph",)), Unit("mph", 1609.344 / 3600, decimals=0)),
        _kind("turning speed", "rpm", "rpm", "750 rpm", Unit("1/s", 1.0, decimals=1, names=("rev/s",)), Unit("rpm", 1 / 60, decimals=0)),
        _kind("displacement", "in³", "L", "350 in³ or 5.7 L",
              Unit("m³", 1.0, decimals=5), Unit("L", 1e-3, decimals=2, names=("litre", "liter")),
              Unit("cm³", 1e-6, decimals=0, names=("cc",)), Unit("in³", INCH**3, decimals=0, names=("cuin", "cu in", "ci", "cid"))),
        _kind("altitude", "ft", "m", "1200 m or 4000 ft", Unit("m", 1.0, decimals=0), Unit("ft", 12 * INCH, decimals=0, names=("'",))),
        _kind("face conductance", "W/m²K", "W/m²K", "2500 W/m²K", Unit("W/m²K", 1.0, decimals=0)),
        _kind("angle", "°", "°", "25", Unit("rad", 1.0, decimals=3), Unit("°", math.pi / 180, decimals=0, names=("deg", ""))),
        _kind("voltage", "V", "V", "13.8 V", Unit("V", 1.0, decimals=1)),
        _kind("current", "A", "A", "15 A", Unit("A", 1.0, decimals=0)),
        _kind("electrical power", "W", "W", "180 W", Unit("W", 1.0, decimals=0), Unit("kW", 1e3, decimals=2)),
        _kind("wire size", "AWG", "mm²", "12 AWG or 2.5 mm²", Unit("mm²", 1e-6, decimals=2), Unit("AWG", 1e-6, decimals=2))._replace(named=True),
        _kind("charge", "Ah", "Ah", "60 Ah", Unit("Ah", 3600.0, decimals=0)),
        _kind("minutes", "min", "min", "90 min or 45 s", Unit("s", 1.0, decimals=0), Unit("min", 60.0, decimals=1)),
        _kind("heat", "kW", "kW", "42 kW", Unit("W", 1.0, decimals=0), Unit("kW", 1e3, decimals=1),
              Unit("BTU/min", 1055.05585262 / 60, decimals=0)),
        _kind("share", "%", "%", "45 %", Unit("fraction", 1.0, decimals=2), Unit("%", 0.01, decimals=0)),
        _kind("fin density", "fins/in", "fins/in", "14 fins/in",
              Unit("1/m", 1.0, decimals=0), Unit("fins/in", 1 / INCH, decimals=0, names=("fpi", "/in")), Unit("fins/dm", 10.0, decimals=0)),
        _kind("count", "", "", "2", Unit("", 1.0, decimals=0)),
        _kind("number", "", "", "1.2", Unit("", 1.0, decimals=2)),
        _kind("money", "", "", "250", Unit("", 1.0, decimals=0, names=("$", "€", "£"))),
        _kind("time", "h", "h", "10 h", Unit("s", 1.0, decimals=0), Unit("min", 60.0, decimals=0), Unit("h", 3600.0, decimals=1)),
    )
}  # fmt: skip


class Reading(NamedTuple):
    """What a typed text means: the SI value and the unit it was typed in."""

    si: float
    unit: str
    text: str


# A dash with no space round it joins whole inches and sixteenths (24-3/8); with spaces it subtracts.
_PLAIN = re.compile(
    r"""
      (?P<mixed>\d+(?:\s+|-)\d+/\d+)
    | (?P<fraction>\d+/\d+)
    | (?P<number>(?:\d{1,3}(?:,\d{3})+(?:\.\d+)?|\d+[.,]\d+|\.\d+|\d+\.?)(?:[eE][+-]?\d+)?)
    | (?P<op>[-+*×()]|/)
    | (?P<word>[^\W\d_]+)""",
    re.X,
)


@lru_cache(maxsize=64)
def _spellings(kind_name: str) -> tuple[str, ...]:
    """How the kind's units may be written, longest first, so that 'in²' or 'm³/h' stay whole."""
    names = {name for unit in KINDS[kind_name].units for name in (unit.symbol, *unit.names)}
    names |= (
        {name.lstrip("°") for name in names}
        | {name.translate(_DIGITS) for name in names}
        | {name.translate(_DIGITS).lstrip("°") for name in names}
    )
    return tuple(sorted((name.lower() for name in names - {""}), key=len, reverse=True))


def _unit_at(text: str, position: int, kind_name: str) -> str:
    """The unit written at a place of the lower-case text, '' where there is none."""
    for name in _spellings(kind_name):
        if text.startswith(name, position):
            following = text[position + len(name) : position + len(name) + 1]
            if not (name[-1].isalpha() and following.isalpha()):
                return name
    return ""


_DIGITS = str.maketrans("²³₂", "232")
_VULGAR = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8"}


def parse(text: str, kind: Kind, default_unit: str) -> Reading:
    """What `text` means as a `kind`; a bare number takes `default_unit`, its size never decides.

    Accepts fractions as read off a tape (24 3/8, 24-3/8"), decimals, units, feet with inches, and
    arithmetic (24 3/8 - 1 1/4). Raises InputError saying what was expected.
    """
    if kind.named:
        if not text.strip():
            raise InputError("empty", f"Type {_a(kind.name)}, such as {kind.example}", kind=kind.name)
        return Reading(*read_size(text, default_unit))
    quick = _quick(text, kind.name, default_unit)
    if quick is not None:
        return quick
    cleaned = text.strip().lstrip("$€£").replace("−", "-").replace("–", "-")
    for glyph, plain in _VULGAR.items():
        cleaned = cleaned.replace(glyph, " " + plain)
    if not cleaned.strip():
        raise InputError("empty", f"Type {_a(kind.name)}, such as {kind.example}", kind=kind.name)
    if len(cleaned) > 200:
        raise InputError("too_long", "That is too long to be one measurement", kind=kind.name)
    value, unit = _Parser(cleaned, kind, default_unit).result()
    si = value * unit.factor + unit.offset
    if not math.isfinite(si):
        raise InputError("not_finite", f"That number is too large; expected {_a(kind.name)} such as {kind.example}")
    return Reading(si, unit.symbol, text.strip())


_PLAINLY = re.compile(r"(-)?(?:(\d+(?:\.\d+)?)|(\d+) (\d+)/(\d+)|(\d+)/(\d+)) ?([^\s\d]\S*)?")


@lru_cache(maxsize=8192)
def _quick(text: str, kind_name: str, default_unit: str) -> Reading | None:
    """The reading of one plain number or tape fraction with one unit, as nearly all stored ones are; None for anything else."""
    match = _PLAINLY.fullmatch(text) if len(text) < 40 else None
    if match is None:
        return None
    sign, number, whole, top, bottom, above, below, written = match.groups()
    unit = _written(kind_name).get(written or default_unit)
    if unit is None or int(bottom or below or 1) == 0:
        return None
    value = float(number) if number else float(int(whole or 0) + Fraction(int(top or above), int(bottom or below)))
    si = (-value if sign else value) * unit.factor + unit.offset
    return Reading(si, unit.symbol, text) if math.isfinite(si) else None


@lru_cache(maxsize=64)
def _written(kind_name: str) -> dict[str, Unit]:
    """Units of a kind by the ways they are written out."""
    return {name: unit for unit in KINDS[kind_name].units for name in (unit.symbol, *unit.names)}


class _Parser:
    """Recursive descent over the tokens of one typed measure; values are kept in one working unit."""

    def __init__(self, text: str, kind: Kind, default_unit: str) -> None:
        self.kind = kind
        self.tokens = self._tokens(text)
        self.at = 0
        typed = [unit for sort, unit in self.tokens if sort == "unit"]
        self.unit = kind.unit(typed[-1] if typed else default_unit)
        if kind.affine and any(kind.unit(u) != self.unit for u in typed):
            raise InputError("mixed_units", f"Use one unit in {_a(kind.name)}, such as {kind.example}")

    def _tokens(self, text: str) -> list[tuple[str, str]]:
        tokens: list[tuple[str, str]] = []
        position, lower = 0, text.lower()
        while position < len(text):
            if text[position].isspace() or (text[position] == "." and tokens and tokens[-1][0] == "unit"):
                position += 1
                continue
            unit = _unit_at(lower, position, self.kind.name)
            match = None if unit else _PLAIN.match(text, position)
            if not unit and not match:
                raise self._unreadable(text[position:].strip())
            tokens.append(("unit", unit) if match is None else (str(match.lastgroup), match.group(0)))
            position += len(tokens[-1][1])
        numbers = [sort for sort, _ in tokens if sort in ("mixed", "fraction", "number")]
        words = [word for sort, word in tokens if sort == "word"]
        if not numbers:
            raise self._unreadable(text)
        if words:
            self.kind.unit(" ".join(words))
        return tokens

    def _unreadable(self, part: str) -> InputError:
        return InputError("unreadable", f"“{part[:20]}” cannot be read; expected {_a(self.kind.name)} such as {self.kind.example}")

    def result(self) -> tuple[float, Unit]:
        value, _ = self.sum()
        if self.at < len(self.tokens):
            raise self._unreadable(" ".join(text for _, text in self.tokens[self.at :]))
        return value, self.unit

    def peek(self) -> tuple[str, str]:
        return self.tokens[self.at] if self.at < len(self.tokens) else ("end", "")

    def take(self) -> str:
        self.at += 1
        return self.tokens[self.at - 1][1]

    def sum(self) -> tuple[float, bool]:
        value, measured = self.product()
        while self.peek() in (("op", "+"), ("op", "-")):
            sign = 1 if self.take() == "+" else -1
            right, also = self.product()
            value, measured = value + sign * right, measured or also
        return value, measured

    def product(self) -> tuple[float, bool]:
        value, measured = self.signed()
        while self.peek()[0] == "op" and self.peek()[1] in "*×/":
            op = self.take()
            right, also = self.signed()
            if also and measured:
                raise InputError("not_a_measure", f"Two measures cannot be multiplied or divided here; expected {_a(self.kind.name)}")
            if op == "/" and right == 0:
                raise InputError("zero_division", "A division by zero has no value")
            value, measured = (value / right if op == "/" else value * right), measured or also
        return value, measured

    def signed(self) -> tuple[float, bool]:
        if self.peek() == ("op", "-"):
            self.take()
            value, measured = self.signed()
            return -value, measured
        return self.measure()

    def measure(self) -> tuple[float, bool]:
        sort, text = self.peek()
        if (sort, text) == ("op", "("):
            self.take()
            value, measured = self.sum()
            if self.peek() != ("op", ")"):
                raise InputError("open_bracket", "A bracket is left open")
            self.take()
            return value, measured
        if sort not in ("mixed", "fraction", "number"):
            raise self._unreadable(text or "the end of the line")
        value = _number(self.take(), sort)
        if self.peek()[0] != "unit":
            return value, False
        unit = self.kind.unit(self.take())
        value = value * unit.factor / self.unit.factor
        if self.peek()[0] in ("mixed", "fraction", "number") and unit.symbol == "ft":
            more, _ = self.measure()
            value += more
        return value, True


def _number(text: str, sort: str) -> float:
    if sort == "number":
        if re.fullmatch(r"\d{1,3}(?:,\d{3})+(?:\.\d+)?", text):
            text = text.replace(",", "")
        return float(text.replace(",", "."))
    whole, _, fraction = text.rpartition(" ") if " " in text else text.rpartition("-")
    top, bottom = fraction.split("/")
    if int(bottom) == 0:
        raise InputError("zero_division", f"{text}: a fraction over zero has no value; write it as on the tape, such as 3/8")
    return float(int(whole or 0) + Fraction(int(top), int(bottom)))


def as_sixteenths(inches: float) -> str:
    """Inches written as on a tape, to the nearest sixteenth: 24.375 -> '24 3/8'."""
    sixteenths = round(abs(inches) * 16)
    whole, rest = divmod(sixteenths, 16)
    sign = "-" if inches < 0 and sixteenths else ""
    if not rest:
        return f"{sign}{whole}"
    fraction = Fraction(rest, 16)
    part = f"{fraction.numerator}/{fraction.denominator}"
    return f"{sign}{whole} {part}" if whole else sign + part


def number_text(si: float, unit: Unit) -> str:
    """The bare number of an SI value in `unit`, with the decimals that unit deserves."""
    value = (si - unit.offset) / unit.factor
    if unit.symbol == "in":
        return as_sixteenths(value)
    text = f"{value:.{unit.decimals}f}"
    return text[1:] if float(text) == 0 and text.startswith("-") else text


TOUCHING, SMALLEST_SHOWN = 1e-6, 0.0254 / 32
"""[m] lengths between them round to no sixteenth of an inch, and are said to be under one."""


def format_si(si: float, kind: Kind, system: str) -> str:
    """An SI value written in the unit `system` shows its kind in, such as '24 3/8 in' or '619.1 mm'."""
    if kind.named:
        return size_text(si)
    unit = kind.shown_unit(system)
    if unit.symbol == "in" and TOUCHING < abs(si) < SMALLEST_SHOWN:
        return f"under {'−' if si < 0 else ''}1/16 in"
    return with_unit(number_text(si, unit), unit)


def fine(si: float, system: str) -> str:
    """A small length [m] as sheet and drills are told: thousandths of an inch, or hundredths of a millimetre."""
    return f"{si / INCH:.3f} in" if system == "us" else f"{si * 1e3:.2f} mm"


def fine_both(si: float) -> str:
    """The same in both unit systems."""
    return f"{fine(si, 'us')} ({fine(si, 'si')})"


def with_unit(number: str, unit: Unit) -> str:
    """A number and its unit as the trade writes them: degrees and % close up where custom has it."""
    if not unit.symbol:
        return number
    return f"{number}{unit.symbol}" if unit.symbol == "°" else f"{number} {unit.symbol}"


def both(si: float, kind: str) -> str:
    """A value in both unit systems, for sentences that are kept without a choice of units."""
    us, metric = format_si(si, KINDS[kind], "us"), format_si(si, KINDS[kind], "si")
    return us if us == metric else f"{us} ({metric})"
