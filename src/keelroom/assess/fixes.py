"""Fixes that type or choose a value."""

from __future__ import annotations

from keelroom.document.act import Act


def set_act(label: str, path: tuple[str, ...], text: str) -> Act:
    """A fix that types `text` into the field at `path`."""
    return Act("set", label, given=(("text", text),), path=path)


def flag_act(label: str, path: tuple[str, ...], on: bool) -> Act:
    """A fix that ticks or clears the box at `path`."""
    return Act("flag", label, given=(("on", "yes" if on else ""),), path=path)


def choose_act(label: str, path: tuple[str, ...], choice: str) -> Act:
    """A fix that chooses `choice` in the field at `path`."""
    return Act("choose", label, given=(("choice", choice),), path=path)
