"""What differs between two builds, as data: where, what it was, what it is, and which step made it so; and a sentence
for each."""

from __future__ import annotations

import re
from typing import Any, NamedTuple

from pydantic import BaseModel

from keelroom.document.act import Act
from keelroom.document.fields import Path, spec_of
from keelroom.document.quantity import Quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.trail import Done


class Absent:
    """What stands where a list has no such member."""


ABSENT = Absent()
APART = ("revision", "trail")
"""Fields that say how a build came to be, not what it is."""


class Difference(NamedTuple):
    """One place that two builds say differently.

    path   : the field, or the list member that came or went, or the list whose order changed
    place  : the same in words, from the whole to the part
    was, now : values before and after; ABSENT for a list member that was not there, or is no longer
    act    : the last step that changed it, where the later build's trail tells
    """

    path: Path
    place: tuple[str, ...]
    was: Any
    now: Any
    act: Act | None = None


def differences(before: Build, after: Build) -> tuple[Difference, ...]:
    """Everything the two say differently; how often each was saved does not count."""
    steps = after.trail[_common(before.trail, after.trail) :]
    return tuple(found._replace(act=_act_for(steps, found.path)) for found in _sections((), (), before, after))


def _common(before: tuple[Done, ...], after: tuple[Done, ...]) -> int:
    """How many steps at the start the two trails share."""
    return next(
        (k for k, (a, b) in enumerate(zip(before, after, strict=False)) if a != b), min(len(before), len(after))
    )


def _act_for(steps: tuple[Done, ...], path: Path) -> Act | None:
    """The last step that touched a place, a part of it, or what it is part of."""
    for step in reversed(steps):
        if any(path[: len(touched)] == touched or touched[: len(path)] == path for touched in step.touched):
            return step.act
    return None


def _sections(path: Path, place: tuple[str, ...], before: BaseModel, after: BaseModel) -> list[Difference]:
    found: list[Difference] = []
    for name in type(after).model_fields:
        if path or name not in APART:
            found += _values(
                (*path, name), (*place, _label(type(after), name)), getattr(before, name), getattr(after, name)
            )
    return found


def _label(model: type[BaseModel], name: str) -> str:
    spec = spec_of(model, name)
    return spec.label if spec else name.replace("_", " ")


def _values(path: Path, place: tuple[str, ...], before: Any, after: Any) -> list[Difference]:
    if before is after or before == after:
        return []
    if (
        isinstance(before, tuple)
        and isinstance(after, tuple)
        and all(hasattr(item, "id") for item in (*before, *after))
    ):
        return _members(path, place, before, after)
    if type(before) is type(after) and isinstance(after, BaseModel) and not isinstance(after, Quantity):
        return _sections(path, place, before, after)
    return [Difference(path, place, before, after)]


def _members(path: Path, place: tuple[str, ...], before: tuple[Any, ...], after: tuple[Any, ...]) -> list[Difference]:
    old, new = ({item.id: item for item in items} for items in (before, after))
    found = [Difference((*path, key), place, item, ABSENT) for key, item in old.items() if key not in new]
    for key, item in new.items():
        if key in old:
            found += _values((*path, key), (*place, _name(item)), old[key], item)
        else:
            found.append(Difference((*path, key), place, ABSENT, item))
    return found or [Difference(path, place, before, after)]


def _name(item: Any) -> str:
    return str(getattr(item, "name", "") or item.id)


OWN_TO_PACKAGES, NO_CHANGE = ("id", "kind"), ("name", "basis")
"""What tells packages apart, and what of any of their parts changes nothing of the car."""


def between_packages(build: Build, one: str, other: str) -> tuple[Difference, ...]:
    """What the other package says differently from the one; places without the package's own name."""
    pair = [build.with_id(ident) for ident in (one, other)]
    found = _sections(("packages", other), (), *pair)
    return tuple(
        differs for differs in found if differs.path[2] not in OWN_TO_PACKAGES and differs.path[-1] not in NO_CHANGE
    )


def came(before: Build, after: Build) -> Path | None:
    """The path of the first list member the later build has and the earlier had not; None where there is none."""
    return next((found.path for found in differences(before, after) if found.was is ABSENT), None)


def worded(difference: Difference) -> str:
    """“place: new value, was old value”."""
    words, (now, was) = " / ".join(difference.place), value_words(difference)
    return f"{words[:1].upper()}{words[1:]}: {now}{f', was {was}' if was else ''}"


def value_words(difference: Difference) -> tuple[str, str]:
    """The value now and the value it was, in words; of a member that came or went the first alone."""
    was, now = difference.was, difference.now
    if now is ABSENT:
        return f"without {_name(was)}", ""
    if was is ABSENT:
        return f"with {_name(now)}", ""
    if isinstance(now, tuple) and isinstance(was, tuple) and sorted(map(_key, now)) == sorted(map(_key, was)):
        return "in another order", ""
    origin = getattr(was, "origin", "") != getattr(now, "origin", "")
    return _words(now, origin), _words(was, origin)


def _key(item: Any) -> str:
    return str(getattr(item, "id", item))


_LONG = re.compile(r"^-?\d+\.\d{3,}(?= |$)|^-?\d{3,}\.\d{2,}(?= |$)")
"""a number with more places than anybody measures: what was worked out, not typed"""


def _words(value: Any, origin: bool) -> str:
    if value is None or value == "":
        return "empty"
    if isinstance(value, Quantity):
        told = _LONG.sub(lambda found: f"{float(found[0]):.4g}", value.words)
        return f"{told} ({value.origin})" if origin else told
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, tuple):
        return f"{len(value)} entries"
    return str(value) if not isinstance(value, BaseModel) else "something else"
