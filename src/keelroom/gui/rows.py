"""What a station's form holds, said without a widget: groups of rows addressed by path."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal, NamedTuple

from keelroom.document.act import Act

Path = tuple[str, ...]
Said = tuple[tuple[str, str], ...]
"""role and sentence"""
Sort = Literal["quantity", "choice", "flag", "text", "notes", "set", "curve", "reading"]


OVERLOOKED = 26
"""Rows of a page that can be overlooked: a screen and a half."""


class Row(NamedTuple):
    """One field. choices: (stored value, words) for choices and sets; said: whose it is, before its accessible name,
    where several are alike."""

    sort: Sort
    path: Path
    label: str = ""
    choices: tuple[tuple[str, str], ...] = ()
    said: str = ""


class Group(NamedTuple):
    """Rows under one heading; `remove` is the id of a list member the group stands for, which it can take out.

    rare : seldom touched: folded to its heading until it is opened, or one of its fields is gone to or wrong
    """

    title: str
    rows: tuple[Row, ...]
    note: str = ""
    remove: Path = ()
    rare: bool = False


Press = tuple[str, Act | str | Path]
"""What a button is called, and the act it does; a code stands for what only the view can do, a menu or a question, a
path for the way there"""


class Page(NamedTuple):
    """One chip of a station. actions: what is offered on the page, leading: what it begins with; said: (role,
    sentence) worked out from the build;
    marks: what is wrong between fields, said under the field at that path;
    advice: sentences on the list member a group stands for, asked only for those that are seen;
    brief: that member in a few words, beside its heading while it is folded;
    stay: Enter in its last reading goes to its first act, for there may be more to add."""

    title: str
    groups: tuple[Group, ...]
    actions: tuple[Press, ...] = ()
    said: Said = ()
    stay: bool = False
    marks: tuple[tuple[Path, str], ...] = ()
    advice: Callable[[Path], Said] | None = None
    leading: tuple[Press, ...] = ()
    brief: Callable[[Path], str] | None = None

    def speaks_of(self, path: Path) -> bool:
        """Whether it has the field at a path, or one below it."""
        return any(row.path[: len(path)] == path for group in self.groups for row in group.rows)

    def same_rows(self, other: Page) -> bool:
        """Whether the other page has the same fields in the same places, whatever is said of them."""
        one, two = (page._replace(said=(), marks=(), advice=None, brief=None) for page in (self, other))
        return one == two

    @property
    def members(self) -> tuple[Path, ...]:
        """List members that fold to a line each: all there are on a page longer than can be overlooked."""
        found = tuple(group.remove for group in self.groups if group.remove)
        long = sum(len(group.rows) for group in self.groups if not group.rare) > OVERLOOKED
        return found if long and len(found) > 1 else ()


def quantities(path: Path, *names: str, of: str = "") -> tuple[Row, ...]:
    """Measured fields of one section; their labels come from the document's own field specs. of: whose they are,
    where several are alike."""
    return tuple(Row("quantity", (*path, name), said=of) for name in names)


def readings(path: Path, *names: str, of: str = "") -> tuple[Row, ...]:
    """Measures of the tape walk in one section. of: whose they are, where the section has several alike."""
    return tuple(Row("reading", (*path, name), said=of) for name in names)
