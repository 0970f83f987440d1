"""Kinds of quantity, their units, reading what a person types and writing figures back.

Inside, every value is SI (temperature in degrees Celsius). Units live only here, at the edge.
Conversion factors are the exact definitions of the international yard and pound agreement (1959)
and of the SI brochure; `tests/reference` checks them against an independent unit package.
"""

from keelroom.units.kinds import CHOICES, INCH, KINDS, Kind, Unit, inches, system_with
from keelroom.units.parse import parse
from keelroom.units.text import (
    as_sixteenths,
    both,
    fine,
    fine_both,
    format_si,
    money_text,
    no_less,
    number_text,
    with_unit,
)

__all__ = [
    "CHOICES",
    "INCH",
    "KINDS",
    "Kind",
    "Unit",
    "as_sixteenths",
    "both",
    "fine",
    "fine_both",
    "format_si",
    "inches",
    "money_text",
    "no_less",
    "number_text",
    "parse",
    "system_with",
    "with_unit",
]
