"""What a person types, read: fractions as on a tape, sums, units with or without a space."""

from __future__ import annotations

import math
import re
from fractions import Fraction
from functools import lru_cache
from typing import NamedTuple

from keelroom.errors import InputError
from keelroom.gauges import read_size
from keelroom.units.kinds import DIGITS, KINDS, Kind, Unit, a_kind


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
        | {name.translate(DIGITS) for name in names}
        | {name.translate(DIGITS).lstrip("°") for name in names}
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


_VULGAR = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8"}


def parse(text: str, kind: Kind, default_unit: str) -> Reading:
    """What `text` means as a `kind`; a bare number takes `default_unit`, its size never decides.

    Accepts fractions as read off a tape (24 3/8, 24-3/8"), decimals, units, feet with inches, and
    arithmetic (24 3/8 - 1 1/4). Raises InputError saying what was expected.
    """
    if kind.named:
        if not text.strip():
            raise InputError("empty", f"Type {a_kind(kind.name)}, such as {kind.example}", kind=kind.name)
        return Reading(*read_size(text, default_unit))
    quick = _quick(text, kind.name, default_unit)
    if quick is not None:
        return quick
    cleaned = text.strip().lstrip("$€£").replace("−", "-").replace("–", "-")
    for glyph, plain in _VULGAR.items():
        cleaned = cleaned.replace(glyph, " " + plain)
    if not cleaned.strip():
        raise InputError("empty", f"Type {a_kind(kind.name)}, such as {kind.example}", kind=kind.name)
    if len(cleaned) > 200:
        raise InputError("too_long", "That is too long to be one measurement", kind=kind.name)
    value, unit = _Parser(cleaned, kind, default_unit).result()
    si = value * unit.factor + unit.offset
    if not math.isfinite(si):
        raise InputError("not_finite", f"That number is too large; expected {a_kind(kind.name)} such as {kind.example}")
    return Reading(si, unit.symbol, text.strip())


_PLAINLY = re.compile(r"(-)?(?:(\d+(?:\.\d+)?)|(\d+) (\d+)/(\d+)|(\d+)/(\d+)) ?([^\s\d]\S*)?")


@lru_cache(maxsize=8192)
def _quick(text: str, kind_name: str, default_unit: str) -> Reading | None:
    """The reading of one plain number or tape fraction with one unit, as nearly all stored ones are; None for
    anything else."""
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
            raise InputError("mixed_units", f"Use one unit in {a_kind(kind.name)}, such as {kind.example}")

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
        return InputError(
            "unreadable", f"“{part[:20]}” cannot be read; expected {a_kind(self.kind.name)} such as {self.kind.example}"
        )

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
                raise InputError(
                    "not_a_measure",
                    f"Two measures cannot be multiplied or divided here; expected {a_kind(self.kind.name)}",
                )
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
        raise InputError(
            "zero_division", f"{text}: a fraction over zero has no value; write it as on the tape, such as 3/8"
        )
    return float(int(whole or 0) + Fraction(int(top), int(bottom)))
