"""From older format versions to today's, raw dict to raw dict, never through today's classes."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

Raw = dict[str, Any]
STEPS: dict[int, Callable[[Raw], Raw]] = {}
"""Version n to the function that makes version n + 1 of it. Version 1 is the first."""


def migrate(raw: Raw, wanted: int) -> Raw:
    """The raw document at version `wanted`; the caller has checked that its version is known."""
    while raw["version"] < wanted:
        raw = STEPS[raw["version"]](raw)
    return raw
