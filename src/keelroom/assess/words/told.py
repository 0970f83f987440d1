"""The sentences of a finding: one table a topic, templates that figures are put into in one unit system."""

from __future__ import annotations

from typing import NamedTuple


class Told(NamedTuple):
    """What is so, and why it matters and what would mend it: templates of `facts.said`; what the code means, in a line,
    with the first of its forms."""

    what: str
    why: str
    means: str = ""


class Worded(NamedTuple):
    """A finding's sentences."""

    what: str
    why: str


CAUTION = (
    "Cutting or moving a structural panel, bumper beam, latch or airbag sensor can make a vehicle unsafe or "
    "illegal: get qualified advice and "
    "follow local codes. Eye, hand and ear protection; sheet edges cut; no flame or weld near fuel or on a "
    "core with coolant in it."
)
