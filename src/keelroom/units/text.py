"""Measures written for people: sixteenths, places by unit, both systems at once."""

from __future__ import annotations

import math
from fractions import Fraction

from keelroom.gauges import size_text
from keelroom.units.kinds import INCH, KINDS, Kind, Unit, inches


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


def no_less(si: float, kind: Kind, system: str) -> str:
    """As `format_si`, rounded up: what is typed back is no less than what was meant."""
    unit = kind.shown_unit(system)
    step = 1 / 16 if unit.symbol == "in" else 10.0**-unit.decimals
    value = math.ceil((si - unit.offset) / unit.factor / step - 1e-6) * step
    return format_si(value * unit.factor + unit.offset, kind, system)


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
    return f"{si / INCH:.3f} in" if inches(system) else f"{si * 1e3:.2f} mm"


def fine_both(si: float) -> str:
    """The same in both unit systems."""
    return f"{fine(si, 'us')} ({fine(si, 'si')})"


def with_unit(number: str, unit: Unit) -> str:
    """A number and its unit as the trade writes them: degrees and % close up where custom has it."""
    if not unit.symbol:
        return number
    return f"{number}{unit.symbol}" if unit.symbol == "°" else f"{number} {unit.symbol}"


def money_text(sum_: float, sign: str) -> str:
    """A sum as it is told everywhere: whole, its sign before it."""
    return f"{'−' if sum_ < 0 else ''}{sign}{abs(sum_):,.0f}".replace(",", "\u202f" if abs(sum_) >= 10_000 else "")


def both(si: float, kind: str) -> str:
    """A value in both unit systems, for sentences that are kept without a choice of units."""
    us, metric = format_si(si, KINDS[kind], "us"), format_si(si, KINDS[kind], "si")
    return us if us == metric else f"{us} ({metric})"
