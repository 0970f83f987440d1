"""One outside value held against ours."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass


@dataclass(frozen=True)
class Check:
    """One outside value: expected, how to get ours, tolerance (relative unless absolute)."""

    name: str
    kind: str
    source: str
    expected: float
    ours: Callable[[], float]
    tolerance: float
    absolute: bool = False

    def error(self) -> float:
        gap = abs(self.ours() - self.expected)
        return gap if self.absolute else gap / abs(self.expected)

    def holds(self) -> bool:
        return self.error() <= self.tolerance
