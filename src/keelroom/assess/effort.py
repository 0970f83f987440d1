"""Shop hours of a package: what was typed for it, and what its moved parts, brackets and cuts add."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package

HOUR = 3600.0
BRACKET, CUT = 0.75 * HOUR, 0.5 * HOUR
"""[s] to make and fit one bracket, and to mark, cut, deburr and paint one edge of a panel (common practice)."""


class Effort(NamedTuple):
    """Seconds by what takes them: stated for the package, parts counted as moved, brackets, cuts."""

    stated: float
    moved: float
    brackets: float
    cuts: float

    @property
    def total(self) -> float:
        return math.fsum(self)


def effort(build: Build, package: Package) -> Effort | None:
    """The package's hours; None where none were stated and nothing adds any."""
    moved = math.fsum(item.work.si for item in build.survey.obstacles if item.id in package.moved)
    edges = len({cut.edge for cut in package.cuts})
    found = Effort(package.hours.si if package.hours else 0.0, moved, BRACKET * len(package.brackets), CUT * edges)
    return found if package.hours or found.total else None


def effort_words(found: Effort) -> str:
    """What the hours are made of, where it is more than what was stated."""
    parts = [(found.moved, "parts moved"), (found.brackets, "brackets"), (found.cuts, "cuts")]
    more = [f"{words} {seconds / HOUR:.1f} h" for seconds, words in parts if seconds]
    return f" ({', '.join((f'stated {found.stated / HOUR:.1f} h', *more))})" if more else ""
