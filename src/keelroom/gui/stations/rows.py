"""What a station's form holds, said without a widget: groups of rows addressed by path."""

from __future__ import annotations

from typing import Literal, NamedTuple

Path = tuple[str, ...]
Sort = Literal["quantity", "choice", "flag", "text", "notes", "set", "curve"]


class Row(NamedTuple):
    """One field. choices: (stored value, words) for choices and sets."""

    sort: Sort
    path: Path
    label: str = ""
    choices: tuple[tuple[str, str], ...] = ()


class Group(NamedTuple):
    """Rows under one heading; `remove` is the id of a list member the group stands for, which it can take out."""

    title: str
    rows: tuple[Row, ...]
    note: str = ""
    remove: Path = ()


class Page(NamedTuple):
    """One chip of a station. actions: (name, code) the view offers on the page."""

    title: str
    groups: tuple[Group, ...]
    actions: tuple[tuple[str, str], ...] = ()


def quantities(path: Path, *names: str) -> tuple[Row, ...]:
    """Measured fields of one section; their labels come from the document's own field specs."""
    return tuple(Row("quantity", (*path, name)) for name in names)
