"""All that can be asked for: what the search of the window lists, each with the way to it."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Protocol

from PyQt6.QtGui import QKeySequence

from keelroom.assess.findings import Finding
from keelroom.assess.words import worded
from keelroom.document.fields import Path, owner_and_spec
from keelroom.errors import InputError
from keelroom.facts import raised
from keelroom.gui.commands import WindowCommand
from keelroom.gui.guide import topics
from keelroom.gui.registry import STATIONS, station_at
from keelroom.gui.rows import Row
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.form import Form
from keelroom.gui.widgets.panels.ask import Answer


class Asked(Protocol):
    """What the search asks of its window."""

    session: Session
    commands: tuple[WindowCommand, ...]
    stations: dict[str, Form]

    def station(self, name: str) -> Form: ...
    def turn(self, station: str, part: str) -> None: ...
    def go_to(self, path: Path) -> None: ...
    def show_finding(self, finding: Finding) -> None: ...
    def open_guide(self, topic: str) -> None: ...


def every_answer(window: Asked) -> tuple[Answer, ...]:
    """Acts first, then pages, topics of the guide, findings, parts and fields."""
    return (*_acts(window), *_pages(window), *_topics(window), *_findings(window), *_parts_and_fields(window))


def make_another(window: Asked) -> bool:
    """Make the next station that nobody has visited, so that its fields are found; whether there was one."""
    name = next((station.name for station in STATIONS if station.name not in window.stations), "")
    if name:
        window.station(name)
    return bool(name)


def _acts(window: Asked) -> Iterator[Answer]:
    for command in window.commands:
        if command.name:
            keys = QKeySequence(command.shortcut).toString(QKeySequence.SequenceFormat.NativeText)
            yield Answer(command.name, f"Act {keys}".rstrip(), command.act)


def _pages(window: Asked) -> Iterator[Answer]:
    for station in STATIONS:
        for leaf in station.pages:
            more = " ".join((leaf.title, *leaf.parts, station.purpose))
            place = f"Page, {station.name}: {leaf.title}"
            yield Answer(leaf.asks, place, partial(window.turn, station.name, leaf.holds[0]), more)
            for part in leaf.parts:
                yield Answer(part, place, partial(window.turn, station.name, part), leaf.asks)


def _topics(window: Asked) -> Iterator[Answer]:
    for topic in topics():
        yield Answer(topic.title, "Guide", partial(window.open_guide, topic.name), topic.text)


def _findings(window: Asked) -> Iterator[Answer]:
    for finding in window.session.assessment.findings:
        told = worded(finding, window.session.system)
        place = f"{raised(finding.level)}, {station_at(finding.where).name}"
        yield Answer(told.what, place, partial(window.show_finding, finding), told.why)


def _parts_and_fields(window: Asked) -> Iterator[Answer]:
    """Of every page of the stations that are made; a part is a member of a list."""
    seen: set[Path] = set()
    for station in STATIONS:
        form = window.stations.get(station.name)
        for page in form.pages() if form else ():
            for group in page.groups:
                where = f"{station.name}, {page.title}"
                if group.remove and group.remove not in seen:
                    seen.add(group.remove)
                    brief = page.brief(group.remove) if page.brief else ""
                    yield Answer(group.title, f"Part, {where}", partial(window.go_to, group.remove), brief)
                for row in group.rows:
                    if row.path not in seen:
                        seen.add(row.path)
                        yield Answer(
                            _label(window, row),
                            f"Field, {where}: {group.title}" if group.title else f"Field, {where}",
                            partial(window.go_to, row.path),
                            row.said,
                        )


def _label(window: Asked, row: Row) -> str:
    """What a field is called: by its row, else by the document."""
    if row.label:
        return row.label
    try:
        _, spec = owner_and_spec(window.session.build, row.path)
    except InputError:
        return ""
    return spec.label if spec else ""
