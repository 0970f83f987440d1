"""Every kind of act by its code, and the one way from an act to the edit that does it."""

from __future__ import annotations

from dataclasses import replace
from functools import cache
from types import ModuleType
from typing import NamedTuple

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.work.money import likely_hours
from keelroom.assess.work.shopping import parts_cost
from keelroom.document.act import Act
from keelroom.document.difference import Difference, differences
from keelroom.document.edits import Edit, apply, in_our_words
from keelroom.document.fields import Path, get
from keelroom.document.quantity import Quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.errors import InputError


@cache
def rooms() -> tuple[ModuleType, ...]:
    """Where kinds of acts are kept; entered when the first is asked for, which is after a window stands."""
    from keelroom.assess.acts import (
        bay,
        brackets,
        brief,
        charging,
        circuits,
        control,
        coolers,
        core,
        drives,
        fans,
        fields,
        kits,
        loop,
        options,
        packages,
        panels,
        shroud,
        survey,
        trials,
        work,
    )

    return (
        fields,
        brief,
        survey,
        packages,
        core,
        fans,
        shroud,
        bay,
        panels,
        brackets,
        coolers,
        loop,
        circuits,
        kits,
        control,
        charging,
        drives,
        trials,
        work,
        options,
    )


@cache
def acts() -> dict[str, ActKind]:
    """Every kind by its code."""
    return {kind.code: kind for room in rooms() for kind in room.KINDS}


def kind_of(act: Act) -> ActKind:
    """The kind of an act. Raises InputError where this program knows none of that code."""
    found = acts().get(act.code)
    if found is None:
        raise InputError("no_such_act", f"This program knows no act “{act.code}”; a newer one may have done it")
    return found


def offer(code: str, package: str = "", label: str = "", **given: str) -> Act:
    """An act of a kind, as something offers it."""
    return Act(code, label or acts()[code].label, package, tuple(given.items()))


def edit_for(build: Build, act: Act, system: str = "us") -> Edit:
    """The edit an act stands for. Raises InputError where the build has moved on and it no longer applies, or no
    field allows it."""
    with in_our_words():
        edit = kind_of(act).edit(Doing(build, act, system))
    return replace(edit, label=edit.label or act.label, act=act)


def applies(build: Build, act: Act, system: str = "us") -> bool:
    """Whether the act can be done to this build and changes anything: what cannot be done, or is done already, is not
    offered."""
    try:
        return apply(build, edit_for(build, act, system)) != build
    except InputError:
        return False


class Brings(NamedTuple):
    """What an act brings, before it is done.

    changes : what it changes of the build;  hours [s], money : what it adds, None where nothing is known
    assumed : entries it rests on that nobody measured;  the rest : as its kind declares
    """

    changes: tuple[Difference, ...]
    hours: float | None
    money: float | None
    parts: tuple[str, ...]
    cautions: tuple[str, ...]
    before: tuple[str, ...]
    after: tuple[str, ...]
    assumed: tuple[Path, ...]


def brings(build: Build, act: Act, system: str = "us") -> Brings:
    """What an act brings to a build. Raises InputError where it does not apply."""
    kind, changed = kind_of(act), apply(build, edit_for(build, act, system))
    changes = differences(build, changed)
    touched = {change.path for change in changes}
    taken = [one for one in kind.takes if one.path in touched]
    return Brings(
        changes,
        _hours(build, changed, act, kind.hours + sum(one.hours for one in taken)),
        _money(build, changed, act),
        (*kind.parts, *(one.part for one in taken)),
        kind.cautions,
        kind.before,
        kind.after,
        tuple(path for path in rests_on(act) if _assumed(build, path)),
    )


def rests_on(act: Act) -> tuple[Path, ...]:
    """Paths of the entries an act's figures come from."""
    given = dict(act.given)

    def step(name: str) -> str:
        return act.package if name == "*" else given.get(name[1:-1], "") if name.startswith("<") else name

    return tuple(tuple(map(step, path)) for path in kind_of(act).rests_on)


def _assumed(build: Build, path: Path) -> bool:
    try:
        value = get(build, path)
    except InputError:
        return False
    return isinstance(value, Quantity) and value.origin == "assumed"


def _hours(build: Build, changed: Build, act: Act, beside: float) -> float | None:
    """What the build counts, and the hours [s] beside that."""
    was, now = (likely_hours(one, package) if (package := _package(one, act)) else None for one in (build, changed))
    counted = (now or 0.0) - (was or 0.0)
    return None if not counted and not beside else counted + beside


def _money(build: Build, changed: Build, act: Act) -> float | None:
    was, now = (parts_cost(one, package) if (package := _package(one, act)) else None for one in (build, changed))
    return None if now is None or now == was else now - (was or 0.0)


def _package(build: Build, act: Act) -> Package | None:
    return next((one for one in build.packages if one.id == act.package), None)
