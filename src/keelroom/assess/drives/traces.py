"""Recorded drives: the public ones that ship, and those of the build."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.catalogue.cycles import cycle_named
from keelroom.document.schema.build import Build


class Recorded(NamedTuple):
    """seconds rising from the first [s];  speeds [m/s];  grades rise over run, () where none were recorded"""

    name: str
    seconds: tuple[float, ...]
    speeds: tuple[float, ...]
    grades: tuple[float, ...]
    source: str

    @property
    def lasts(self) -> float:
        """[s]"""
        return self.seconds[-1] - self.seconds[0]

    @property
    def metres(self) -> float:
        """Way [m] by the trapezoidal rule."""
        pairs = zip(self.seconds, self.seconds[1:], self.speeds, self.speeds[1:], strict=False)
        return sum((b - a) * (u + v) / 2 for a, b, u, v in pairs)


def recorded(build: Build, ident: str) -> Recorded | None:
    """A recorded drive by its id: one of the build, else one that ships; None where there is none."""
    for trace in build.driving.traces:
        if trace.id == ident and len(trace.seconds) > 1:
            return Recorded(trace.name or trace.id, trace.seconds, trace.speeds, trace.grades, trace.source)
    shipped = cycle_named(ident)
    if shipped is None:
        return None
    return Recorded(shipped.name, shipped.seconds, shipped.speeds, (), shipped.source)
