"""The sentences of a finding: one table a topic, templates that figures are put into in one unit system."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.safety import caution


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


CAUTION = caution("structure", "cut")
