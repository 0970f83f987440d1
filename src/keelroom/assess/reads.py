"""What a part of an assessment reads, by the names of the sections: its result is kept while they stay the very same.

An edit rebuilds the sections along its path and leaves the others the objects they were. A part says what it reads;
`tests/properties/test_reads.py` looks on while every part works, and changes every field there is.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable
from typing import Any, TypeVar

from keelroom.assess.made import laid_core, made_core, made_fans
from keelroom.core.kept import shelf
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Core, Fan, Package

R = TypeVar("R")
Reads = tuple[tuple[int, str], ...]
"""of which of OWNERS, and the section's name there"""
OWNERS = ("build", "brief", "package", "made", "laid", "assessment")
"""`made` is the package's core and fans whatever they are called, `laid` its core whatever its fins and tubes are."""
MOST = 96
"""Results kept of one kind."""
PLAIN = (float, int, str, type(None))
"""Told apart by their values: two equal ones need not be one object."""


def reads(names: str) -> Reads:
    """Sections by their names, such as "package.core brief.engine", from most general to where they stand."""
    pairs = (name.split(".") for name in names.split())
    return tuple((OWNERS.index(owner), section) for owner, section in pairs)


class _Made:
    """A package's core and fans as they are made."""

    def __init__(self, package: Package) -> None:
        self.package = package

    @property
    def core(self) -> Core:
        return made_core(self.package.core)

    @property
    def fans(self) -> tuple[Fan, ...]:
        return made_fans(self.package.fans)


class _Laid:
    """A package's core as it lies in the bay."""

    def __init__(self, package: Package) -> None:
        self.package = package

    @property
    def core(self) -> Core:
        return laid_core(self.package.core)


def sections(what: Reads, build: Build, package: Package, *assessment: Any) -> list[Any]:
    """The sections by these names. assessment: where any of it is read."""
    owners = (build, build.brief, package, _Made(package), _Laid(package), *assessment)
    return [getattr(owners[owner], name) for owner, name in what]


def known_same(kind: str, what: Reads, given: tuple[Build, Package], also: Hashable = None) -> Any:
    """What was made of these very sections the last time; None where nothing was."""
    objects, key = _key(sections(what, *given), given[1], also)
    found = shelf(kind, MOST).get(objects, key)
    return found[0] if found else None


def _key(read: list[Any], package: Package, also: Hashable) -> tuple[tuple[Any, ...], Hashable]:
    """What a kept thing is found by: the sections that are objects, and the package with all that is a plain value."""
    plain = tuple(section for section in read if isinstance(section, PLAIN))
    objects = tuple(section for section in read if not isinstance(section, PLAIN))
    return objects, (package.id, *plain, also)


def while_same(
    kind: str,
    what: Reads,
    given: tuple[Build, Package] | tuple[Build, Package, Any],
    make: Callable[[], R],
    also: Hashable = None,
) -> R:
    """What was made of these very sections the last time, or what `make` makes now.

    kind : what is made;  given : the build, the package and, where it is read, the assessment so far;  also : what
    else it hangs on, told apart by its value
    """
    objects, key = _key(sections(what, *given), given[1], also)
    kept = shelf(kind, MOST)
    found = kept.get(objects, key)
    if found is None:
        found = (make(),)
        kept.put(objects, key, found)
    made: R = found[0]
    return made
