"""Facts as data: a code and figures with kinds, and the one way a sentence is made of them, in one unit system."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Mapping
from string import Formatter
from typing import Any, NamedTuple

from keelroom.units import KINDS, fine, format_si, inches

WORDS, FACT = "words", "fact"
"""Kinds of a figure that is no measure: a name or a word of the build, and a fact that has a clause of its own."""


class Figure(NamedTuple):
    """One figure of a fact. value: SI, words or a fact; several of one kind as a tuple; kind: a key of KINDS, WORDS
    or FACT."""

    key: str
    value: Value
    kind: str

    @property
    def unit(self) -> str:
        """The SI unit its value is in; '' for words, facts and plain numbers."""
        return KINDS[self.kind].units[0].symbol if self.kind in KINDS else ""

    @property
    def several(self) -> tuple[One, ...]:
        """Its values, one or more."""
        return self.value if type(self.value) is tuple else (self.value,)  # type: ignore[return-value]

    @property
    def facts(self) -> tuple[Fact, ...]:
        """The facts among them."""
        return tuple(one for one in self.several if isinstance(one, Fact))


class Fact(NamedTuple):
    """What is so: a code, and the figures of the clause a table words it by."""

    code: str
    figures: tuple[Figure, ...] = ()


class Fault(NamedTuple):
    """What cannot be: the field it is at, and what is wrong there."""

    field: str
    fact: Fact


Figures = tuple[Figure, ...]
One = float | str | Fact
Value = One | tuple[One, ...]
Given = Value | tuple[Value, str] | None


def given(**by_name: Given) -> Figures:
    """Figures by name: words and facts as they are, a plain number as it is, a measure as (SI value, kind), None as
    no fact."""
    return tuple(_figure(key, value) for key, value in by_name.items())


def fact(code: str, **by_name: Given) -> Fact:
    """A fact with its figures, given as `given` takes them."""
    return Fact(code, given(**by_name))


def _figure(key: str, value: Any) -> Figure:
    if (
        type(value) is tuple
        and len(value) == 2
        and isinstance(value[1], str)
        and value[1] in KINDS
        and not isinstance(value[0], str)
    ):
        return Figure(key, value[0], value[1])  # a value and its kind
    one = value[0] if type(value) is tuple and value else value
    if isinstance(one, str):
        return Figure(key, value, WORDS)
    if one is None or isinstance(one, Fact) or one == ():
        return Figure(key, () if one is None else value, FACT)
    kind = "count" if isinstance(one, int) else "number"
    return Figure(key, tuple(map(float, value)) if type(value) is tuple else float(value), kind)


_EITHER = re.compile(r"\[([^|\[\]]*)\|([^\[\]]*)\]")


def said(template: str, figures: Figures, system: str, clauses: Mapping[str, str]) -> str:
    """The sentence `template` makes of figures in one unit system, "us" or "si"; facts among them by their clause.

    template : `{key}` in the unit its kind is shown in; `{key:spec}` the SI value by a number's format, or one of
               low, inside, lower, raised (words as they stand inside, or begin, a sentence), then and before (with a
               space ahead of it, or after it, if there is any), and, semicolons (how several are joined; before a
               number's format: `and .0f`), firstN (N of a list, then how many more), fine (thousandths), stress,
               torque, minutes, duration, tenths (of a degree), amps, chance, `one|many` (by whether it is one);
               `[us|si]` a measure of the sentence itself in either system
    """
    text = _EITHER.sub(lambda found: found[1 if inches(system) else 2], template)
    return articled(_Sentence(system, clauses).vformat(text, (), {figure.key: figure for figure in figures}))


_BEFORE_A_VOWEL = re.compile(r"(?<!\d )\b([Aa]) (?=8|11\b|18\b)")


def articled(text: str) -> str:
    """The text with “an” before a number that is spoken with a vowel: an 80 A fuse, an 11 in fan."""
    return _BEFORE_A_VOWEL.sub(r"\1n ", text)


_JOINTS = {"and": " and ", "semicolons": "; "}


class _Sentence(Formatter):
    def __init__(self, system: str, clauses: Mapping[str, str]) -> None:
        self.system, self.clauses = system, clauses

    def format_field(self, value: Any, format_spec: str) -> str:
        figure: Figure = value
        several = figure.several
        if "|" in format_spec:
            return format_spec.split("|")[(len(several) if type(figure.value) is tuple else figure.value) != 1]
        if format_spec.startswith("first"):
            return _first([self._one(figure.kind, one, "") for one in several], int(format_spec.removeprefix("first")))
        how, _, spec = (
            format_spec.partition(" ") if format_spec.split(" ", maxsplit=1)[0] in _JOINTS else ("", "", format_spec)
        )
        joint = _JOINTS[how] if how else " " if figure.kind == FACT else ", "
        told = joint.join(self._one(figure.kind, one, spec) for one in several)
        return f"{' ' * (spec == 'then')}{told}{' ' * (spec == 'before')}" if told else told

    def _one(self, kind: str, value: Any, spec: str) -> str:
        if kind in (WORDS, FACT):
            text = value if kind == WORDS else said(self.clauses[value.code], value.figures, self.system, self.clauses)
            return {"low": lowered, "raised": raised, "inside": inside, "lower": str.lower}.get(spec, str)(text)
        if spec in _NUMBERS:
            return _NUMBERS[spec](value)
        if spec in _MEASURES:
            return _MEASURES[spec](value, self.system)
        return format(value, spec) if spec else format_si(value, KINDS[kind], self.system)


def _amps(value: float) -> str:
    return f"{value:.1f} A" if value < 10 else f"{value:.0f} A"


def chance_words(chance: float) -> str:
    """A chance as one says it: about 1 in 6; near certain."""
    if chance > 0.95:
        return "near certain"
    if chance > 0.35:
        return f"about {round(10 * chance)} in 10"
    if chance < 0.005:
        return "next to no chance"
    return f"about 1 in {round(1 / chance) if chance > 0.02 else round(1 / chance / 10) * 10}"


def _tenths(radians: float) -> str:
    return f"{math.degrees(radians):.1f}°"


def _duration(seconds: float) -> str:
    return f"{seconds:.0f} s" if seconds < 90 else _whole_minutes(seconds)


def _whole_minutes(seconds: float) -> str:
    return f"{seconds / 60:.0f} min"


def stress_text(pascals: float, system: str) -> str:
    """A stress [Pa] as strength of metal is told."""
    return f"{pascals / 6.895e6:.0f} ksi" if inches(system) else f"{pascals / 1e6:.0f} MPa"


def _torque(newton_metres: float, system: str) -> str:
    return f"{newton_metres / 1.3558:.0f} lb·ft" if inches(system) else f"{newton_metres:.0f} N·m"


_NUMBERS: Mapping[str, Callable[[float], str]] = {
    "amps": _amps,
    "chance": chance_words,
    "minutes": _whole_minutes,
    "tenths": _tenths,
    "duration": _duration,
}
_MEASURES: Mapping[str, Callable[[float, str], str]] = {"fine": fine, "stress": stress_text, "torque": _torque}


def _first(words: list[str], most: int) -> str:
    more = f" and {len(words) - most} more" if len(words) > most else ""
    return ", ".join(words[:most]) + more


def lowered(text: str) -> str:
    """A name or sentence as it stands inside another."""
    return text if text[1:2].isupper() or text[1:2] == "/" else text[:1].lower() + text[1:]


def inside(text: str) -> str:
    """A place's name inside a sentence."""
    return text[:1].lower() + text[1:]


def raised(text: str) -> str:
    """Words as they begin a sentence."""
    return text[:1].upper() + text[1:]
