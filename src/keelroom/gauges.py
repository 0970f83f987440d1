"""Wire sizes as they are written: gauge numbers and nominal sections, and which of them cable is sold in."""

from __future__ import annotations

import math
import re
from typing import Never

from keelroom.errors import InputError

AWG_SIZES = (22, 20, 18, 16, 14, 12, 10, 8, 6, 4, 2, 1, 0, -1, -2, -3)
"""Gauge numbers automotive cable is sold in, thin to thick; 0, -1, -2 and -3 are 1/0 to 4/0."""
METRIC_SIZES = (0.35, 0.5, 0.75, 1.0, 1.5, 2.5, 4.0, 6.0, 10.0, 16.0, 25.0, 35.0, 50.0, 70.0)
"""Nominal sections [mm2] of ISO 6722 cable."""
_SIZE = re.compile(r"(?:(awg|gauge|ga|#)\s*)?(-?\d+(?:[.,]\d+)?)(/0)?\s*(awg|gauge|ga|g|mm²|mm2|sqmm|mm)?", re.I)
_METRIC = ("mm²", "mm2", "sqmm", "mm")


def awg_area(number: float) -> float:
    """Bare copper section [m2] of a gauge number; 1/0 is 0, 2/0 is -1. Source: ASTM B258: 0.127 mm times 92**((36 -
    n)/39)."""
    diameter = 0.127e-3 * math.pow(92, (36 - number) / 39)
    return math.pi / 4 * diameter**2


def awg_number(area: float) -> float:
    """Gauge number, not rounded, of a bare section [m2] > 0."""
    return 36 - 39 * math.log(math.sqrt(4 * area / math.pi) / 0.127e-3, 92)


def awg_text(number: int) -> str:
    """A gauge number as it is written: 14 AWG, 2/0 AWG."""
    return f"{number} AWG" if number > 0 else f"{1 - number}/0 AWG"


def metric_text(section: float) -> str:
    """A nominal section [mm2] as it is written."""
    return f"{section:g} mm²"


def is_metric(text: str) -> bool:
    """Whether a size as stored is a metric one."""
    return "mm" in text


def size_text(area: float, metric: bool | None = None) -> str:
    """The size cable is sold in whose nominal section comes closest to `area` [m2], of one system or of either (None).

    Raises InputError where there is no such section.
    """
    if not 0 < area < math.inf:
        raise InputError("no_section", "A wire has a section of more than nothing")
    found = [(abs(math.log(area / awg_area(n))), awg_text(n)) for n in AWG_SIZES if metric is not True]
    found += [(abs(math.log(area / s * 1e6)), metric_text(s)) for s in METRIC_SIZES if metric is not False]
    return min(found)[1]


def read_size(text: str, default_unit: str) -> tuple[float, str, str]:
    """Nominal section [m2], unit and proper text of a written wire size.

    A bare number takes `default_unit` ("AWG" or "mm²"), its size never decides; one that is sold as both is refused.
    Raises InputError naming what was expected, with both neighbours of a size that is not sold.
    """
    match = _SIZE.fullmatch(text.strip())
    if match is None:
        raise InputError(
            "unreadable", f"“{text.strip()[:20]}” cannot be read; expected a wire size such as 12 AWG or 2.5 mm²"
        )
    before, digits, noughts, after = match.groups()
    number = float(digits.replace(",", "."))
    if number < 0 or (number == 0 and not noughts and after and after.lower() in _METRIC):
        raise InputError("wire_size", "A wire size must be more than 0; such as 12 AWG or 2.5 mm²")
    if noughts or before or (after and after.lower() not in _METRIC):
        return _gauge(number, bool(noughts))
    if after:
        return _section(number)
    if number == 0:
        raise InputError("wire_size", "A wire size must be more than 0; such as 12 AWG or 2.5 mm²")
    if number in METRIC_SIZES and number in AWG_SIZES:
        gauge = awg_area(number) * 1e6
        raise InputError(
            "which_size",
            f"{number:g} could be {number:g} AWG ({gauge:.3g} mm²) or {number:g} mm²: write {number:g} AWG "
            f"or {number:g} mm²",
        )
    return _section(number) if default_unit == "mm²" else _gauge(number, False)


def _gauge(number: float, noughts: bool) -> tuple[float, str, str]:
    value = 1 - number if noughts else number
    if value in AWG_SIZES:
        return awg_area(value), "AWG", awg_text(int(value))
    thin = [n for n in AWG_SIZES if n > value]
    thick = [n for n in AWG_SIZES if n < value]
    _refuse(
        f"{number:g}{'/0' if noughts else ''} AWG",
        [awg_text(n) for n in (*thin[-1:], *thick[:1])],
        number in METRIC_SIZES,
        number,
    )


def _section(number: float) -> tuple[float, str, str]:
    if number in METRIC_SIZES:
        return number * 1e-6, "mm²", metric_text(number)
    under = [s for s in METRIC_SIZES if s < number]
    over = [s for s in METRIC_SIZES if s > number]
    _refuse(f"{number:g} mm²", [metric_text(s) for s in (*under[-1:], *over[:1])], number in AWG_SIZES, number)


def _refuse(named: str, near: list[str], elsewhere: bool, number: float) -> Never:
    other = "" if not elsewhere else f", or {number:g} mm²" if named.endswith("AWG") else f", or {number:g} AWG"
    raise InputError(
        "wire_size",
        f"{named} is no size cable is sold in; the sizes next to it are {' and '.join(near)}{other}",
        near=near,
    )
