"""How findings are worded: both unit systems in a sentence, fixes that type or choose a value."""

from __future__ import annotations

from collections.abc import Iterator

from keelroom.assess.findings import Finding
from keelroom.document.act import Act

Found = Iterator[Finding]


def lowered(text: str) -> str:
    """A name or sentence as it stands inside another."""
    return text if text[1:2].isupper() or text[1:2] == "/" else text[:1].lower() + text[1:]


def raised(text: str) -> str:
    """Words as they begin a sentence."""
    return text[:1].upper() + text[1:]


def set_act(label: str, path: tuple[str, ...], text: str) -> Act:
    """A fix that types `text` into the field at `path`."""
    return Act("set", label, given=(("text", text),), path=path)


def flag_act(label: str, path: tuple[str, ...], on: bool) -> Act:
    """A fix that ticks or clears the box at `path`."""
    return Act("flag", label, given=(("on", "yes" if on else ""),), path=path)


def choose_act(label: str, path: tuple[str, ...], choice: str) -> Act:
    """A fix that chooses `choice` in the field at `path`."""
    return Act("choose", label, given=(("choice", choice),), path=path)


def chance_words(chance: float) -> str:
    """A chance as one says it: about 1 in 6; near certain."""
    if chance > 0.95:
        return "near certain"
    if chance > 0.5:
        return f"about {round(10 * chance)} in 10"
    if chance < 0.005:
        return "next to no chance"
    return f"about 1 in {round(1 / chance) if chance > 0.02 else round(1 / chance / 10) * 10}"
