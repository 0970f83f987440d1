"""How findings are worded: both unit systems in a sentence, fixes that type or choose a value."""

from __future__ import annotations

from collections.abc import Iterator

from keelroom.core.findings import Finding, Fix
from keelroom.units import KINDS, format_si

Found = Iterator[Finding]


def both(si: float, kind: str) -> str:
    """A value in both unit systems, for sentences: findings are stored without a unit choice."""
    us, metric = format_si(si, KINDS[kind], "us"), format_si(si, KINDS[kind], "si")
    return us if us == metric else f"{us} ({metric})"


def set_fix(label: str, path: tuple[str, ...], text: str) -> Fix:
    """A fix that types `text` into the field at `path`."""
    return Fix("set", label, (("path", "/".join(path)), ("text", text)))


def choose_fix(label: str, path: tuple[str, ...], choice: str) -> Fix:
    """A fix that chooses `choice` in the field at `path`."""
    return Fix("choose", label, (("path", "/".join(path)), ("choice", choice)))
