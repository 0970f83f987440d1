"""How far a measure may be off, by where it came from, and when two readings of one length contradict each other."""

from __future__ import annotations

from keelroom.document.quantity import Quantity
from keelroom.units import INCH

TAPE, EYE = INCH / 16, INCH / 4
"""± [m] of a reading with a tape, and by eye (common practice)."""
TOLERANCE = {"measured": TAPE, "catalogue": 2e-3, "derived": 0.0, "assumed": EYE}


def tolerance(value: Quantity) -> float:
    """How far [m] a measure may be off: as stated, otherwise by where it came from."""
    return value.doubt if value.doubt is not None else TOLERANCE[value.origin]


AGREES = 2.0
"""Two readings of one length may differ by this many times their tolerance."""


def may_differ(first: Quantity) -> float:
    """How far [m] a second reading may lie from the first before one of them was misread."""
    return max(AGREES * tolerance(first), TAPE) + 1e-9
