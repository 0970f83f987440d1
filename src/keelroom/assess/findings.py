"""What a judgement looks like: a Finding says what, where, by how much, why, and what mends it."""

from __future__ import annotations

from typing import Literal, NamedTuple

from keelroom.document.act import Act

Level = Literal["problem", "doubt", "note"]
LEVELS: tuple[Level, ...] = ("problem", "doubt", "note")


class Finding(NamedTuple):
    """A judgement that can always be saved.

    code  : stable name
    level : problem (will not work as entered), doubt (unmeasured or outside a source), note
    where : path of the field or id it belongs to
    what, why : sentences with figures in them
    fix   : acts that would mend it, may be empty
    source: key into `sources.SOURCES`
    value, limit : SI values compared, where there are two
    report : what to send to whoever mends the program, where something went wrong inside
    """

    code: str
    level: Level
    where: tuple[str, ...]
    what: str
    why: str
    fix: tuple[Act, ...] = ()
    source: str = "PRACTICE"
    value: float | None = None
    limit: float | None = None
    report: str = ""
