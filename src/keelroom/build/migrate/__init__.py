"""From older format versions to today's, raw dict to raw dict, never through today's classes."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

Raw = dict[str, Any]


def opening_to_survey(raw: Raw) -> Raw:
    """Version 2: the panel opening is the survey's; version 1 kept it with the vehicle."""
    brief = raw.get("brief")
    vehicle = brief.get("vehicle") if isinstance(brief, dict) else None
    opening: Raw = {}
    if isinstance(brief, dict) and isinstance(vehicle, dict):
        opening = {side: vehicle[f"opening_{side}"] for side in ("width", "height") if f"opening_{side}" in vehicle}
        kept = {
            name: value
            for name, value in vehicle.items()
            if name.removeprefix("opening_") not in opening or not name.startswith("opening_")
        }
        raw = raw | {"brief": brief | {"vehicle": kept}}
    return raw | {"version": 2} | ({"survey": {"opening": opening}} if opening else {})


STEPS: dict[int, Callable[[Raw], Raw]] = {1: opening_to_survey}
"""Version n to the function that makes version n + 1 of it. Version 1 is the first."""


def migrate(raw: Raw, wanted: int) -> Raw:
    """The raw document at version `wanted`; the caller has checked that its version is known."""
    while raw["version"] < wanted:
        raw = STEPS[raw["version"]](raw)
    return raw
