"""What a judgement looks like: a Finding says by code and figures what, where, by how much, and what mends it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal, NamedTuple

from keelroom.document.act import Act
from keelroom.facts import Figures

Level = Literal["problem", "doubt", "note"]
LEVELS: tuple[Level, ...] = ("problem", "doubt", "note")


class Finding(NamedTuple):
    """A judgement that can always be saved; `words.worded` makes its sentences.

    code  : stable name, a key of `words.CODES`
    level : problem (will not work as entered), doubt (unmeasured or outside a source), note
    where : path of the field or id it belongs to
    figures: what its sentences are made of, by name, with kinds
    form  : which of its code's sentences, '' where there is one
    fix   : acts that would mend it, may be empty
    source: key into `sources.SOURCES`
    value, limit : SI values compared, where there are two
    also  : paths of the entries besides `where` that it rests on
    assumed : labels of the entries it hangs on that nobody measured, where it hangs on nothing else: such a finding is
              a question, never a problem
    report : what to send to whoever mends the program, where something went wrong inside
    """

    code: str
    level: Level
    where: tuple[str, ...]
    figures: Figures = ()
    form: str = ""
    fix: tuple[Act, ...] = ()
    source: str = "PRACTICE"
    value: float | None = None
    limit: float | None = None
    also: tuple[tuple[str, ...], ...] = ()
    assumed: tuple[str, ...] = ()
    report: str = ""

    @property
    def rests_on(self) -> tuple[tuple[str, ...], ...]:
        """Paths of the entries it rests on, the one it is said at first."""
        return (self.where, *self.also)

    @property
    def key(self) -> tuple[str, tuple[str, ...]]:
        """What makes it the same finding from one build to the next, whatever its figures."""
        return self.code, self.where


Found = Iterator[Finding]
