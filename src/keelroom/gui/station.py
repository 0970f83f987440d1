"""What a station declares of itself: its part of the document, its findings, its pages, its drawing, and when it is
settled."""

from __future__ import annotations

from collections.abc import Callable
from importlib import import_module
from typing import TYPE_CHECKING, NamedTuple

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding
from keelroom.document.schema.build import Build

if TYPE_CHECKING:
    from keelroom.gui.session.session import Session
    from keelroom.gui.widgets.form import Form

ANY = "*"
"""stands in a pattern for any second step, the id of a package"""
Pattern = tuple[str, ...]


class StationState(NamedTuple):
    """How far a station is: problems, not started, open questions or settled, and how many."""

    word: str
    number: int = 0


class Leaf(NamedTuple):
    """One page of a station: one question, with one picture.

    asks : the question, as a shop would ask it;  parts : what it holds under headings of its own, one open at a time,
    the first of them when it is first turned to; () where it is one by itself
    guide : the topic that answers it; '' for the station's
    """

    title: str
    asks: str
    parts: tuple[str, ...] = ()
    guide: str = ""

    @property
    def holds(self) -> tuple[str, ...]:
        """Titles of what it holds."""
        return self.parts or (self.title,)


class Station(NamedTuple):
    """One station. Everything the window, the ways to it and the guide know of it is said here.

    name : as the tape shows it;  folder : under `gui/stations`, where `view` has its class `<Name>Station`
    purpose : what it is for, in a sentence;  pages : in order, five at most
    owns : patterns of the paths that are edited there, and whose findings count for it
    results : patterns among those whose findings are of what came out, not of what was entered here
    guide : the topic of the guide it is explained in
    begun : whether anything was entered yet;  maps : whether maps may be laid over its drawing
    """

    name: str
    folder: str
    purpose: str
    pages: tuple[Leaf, ...]
    owns: tuple[Pattern, ...]
    guide: str
    begun: Callable[[Build, Assessment], bool]
    results: tuple[Pattern, ...] = ()
    maps: bool = False

    @property
    def parts(self) -> tuple[str, ...]:
        """Titles of all its pages hold, in order."""
        return tuple(part for leaf in self.pages for part in leaf.holds)

    def leaf(self, title: str) -> Leaf:
        """The page of that title, or the one that holds a part of that title."""
        return next(leaf for leaf in self.pages if title == leaf.title or title in leaf.holds)

    def topic(self, part: str) -> str:
        """The topic of the guide for a part of it."""
        return self.leaf(part).guide or self.guide

    def state(self, build: Build, assessment: Assessment, findings: tuple[Finding, ...]) -> StationState:
        """How far it is, of the findings that are its own."""
        entered = [f for f in findings if not any(holds(pattern, f.where) for pattern in self.results)]
        problems, doubts = (sum(f.level == level for f in entered) for level in ("problem", "doubt"))
        if problems:
            return StationState("problem" if problems == 1 else "problems", problems)
        if not self.begun(build, assessment):
            return StationState("not started")
        return StationState("open" if doubts else "settled", doubts)

    def make(self, session: Session) -> Form:
        """Its view, imported when it is first visited: the window need not wait for those nobody has asked for."""
        view = import_module(f"keelroom.gui.stations.{self.folder}.view")
        made: Form = getattr(view, f"{self.name.title().replace('-', '').replace(' ', '')}Station")(session)
        return made


def holds(pattern: Pattern, path: tuple[str, ...]) -> bool:
    """Whether a path is at the pattern or below it."""
    return len(path) >= len(pattern) and all(step in (ANY, here) for step, here in zip(pattern, path, strict=False))
