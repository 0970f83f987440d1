"""Edits: named sets of changes addressed by path. Applying one gives the new build; the old one stays as it was."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any, TypeVar

from annotated_types import MaxLen
from pydantic import BaseModel, ValidationError

from keelroom.document.act import Act
from keelroom.document.entered import entered
from keelroom.document.fields import Path, get, owner_and_spec, validator_of
from keelroom.document.quantity import Quantity
from keelroom.document.refusals import reason
from keelroom.document.schema.build import Build
from keelroom.document.text import harmless
from keelroom.errors import InputError

M = TypeVar("M", bound=BaseModel)


@dataclass(frozen=True)
class Change:
    """The value that is to stand at `path`: a Quantity, a choice, or a whole tuple of list members."""

    path: Path
    value: Any


@dataclass(frozen=True)
class Edit:
    """One step of the trail. Edits in a row with the same non-empty merge_key (one drag) are one step.

    act : what was done, as data; None where it is no more than what its changes say
    """

    label: str
    changes: tuple[Change, ...]
    merge_key: str = ""
    act: Act | None = None


NAMING = ("id", "active")
"""Fields that name a member of a list."""
PLAIN = (Quantity, str, bool, float, int, type(None))
"""What a change may put in without making or unmaking a member of a list."""


def set_value(path: Path, value: Any, label: str, merge_key: str = "") -> Edit:
    """The edit that sets one field."""
    return Edit(label, (Change(path, value),), merge_key)


def act_of(edit: Edit) -> Act:
    """What an edit does, as data: the act it was made of, else what was entered by its changes."""
    return edit.act or entered(edit.label, tuple((change.path, change.value) for change in edit.changes))


def apply(build: Build, edit: Edit) -> Build:
    """The build after `edit`. Raises InputError; the given build never changes.

    Only the sections along each path are rebuilt, so everything else stays identical and can be cached by identity.
    """
    for change in edit.changes:
        owner, _ = owner_and_spec(build, change.path)
        value = _validated(type(owner), change)
        _verify(value, _known(get(build, change.path)))
        build = _replaced(build, change.path, value)
    if any(change.path[-1] in NAMING or not isinstance(change.value, PLAIN) for change in edit.changes):
        _ids_hold(build)
    return build


def grafted(build: Build, other: Build, paths: Iterable[Path]) -> Build:
    """A build with the sections at `paths` as they are in another of the same lists: both were looked at when they were
    made, and nothing is looked at again. Raises InputError where one has no such section."""
    for path in paths:
        build = _replaced(build, path, get(other, path))
    return build


def _validated(model: type[BaseModel], change: Change) -> Any:
    value = harmless(change.value, change.path[-1]) if isinstance(change.value, str) else change.value
    try:
        return validator_of(model, change.path[-1]).validate_python(value)
    except ValidationError as error:
        raise InputError("invalid_value", _sentence(change.path[-1], error), path=change.path) from None


def verify(build: Build, since: Build) -> None:
    """Hold every section of a build that is not one of `since`, which was looked at, against what its fields allow.
    Raises InputError."""
    _verify(build, _known(since))
    _ids_hold(build)


def _ids_hold(build: Build) -> None:
    fault = build.id_fault()
    if fault:
        raise InputError("ids", fault[0].upper() + fault[1:])


def _known(node: Any) -> set[int]:
    """Identities of all sections that stand at a path already: they were looked at when they came."""
    if isinstance(node, tuple):
        return set().union(*map(_known, node)) if node else set()
    if not isinstance(node, BaseModel):
        return set()
    return {id(node)}.union(*(_known(getattr(node, name)) for name in type(node).model_fields))


def _verify(node: Any, known: set[int]) -> None:
    """Hold every new section within a value against what its fields allow: what was copied with another value in it
    never was.

    Raises InputError with the field's own sentence. Nothing is made anew, so that what did not change stays the same
    object.
    """
    if isinstance(node, tuple):
        for item in node:
            _verify(item, known)
    if not isinstance(node, BaseModel) or isinstance(node, Quantity) or id(node) in known:
        return
    for name in type(node).model_fields:
        value = getattr(node, name)
        if isinstance(value, str):
            harmless(value, name)
        most = next(
            (item.max_length for item in type(node).model_fields[name].metadata if isinstance(item, MaxLen)), math.inf
        )
        if not isinstance(value, tuple) or len(value) > most:
            _validated(type(node), Change((name,), value))
        _verify(value, known)


@contextmanager
def in_our_words() -> Iterator[None]:
    """What the schema refuses of a section that is being made comes as InputError with a sentence, as everywhere
    else."""
    try:
        yield
    except ValidationError as error:
        place = error.errors(include_url=False)[0]["loc"]
        raise InputError("invalid_value", _sentence(str(place[-1]) if place else "this", error)) from None


def _sentence(field: str, error: ValidationError) -> str:
    """Why a value was refused: a measure's own sentence names its field, anything else begins with it."""
    first = error.errors(include_url=False)[0]
    return reason(first) if first["type"] == "quantity" else f"{field.replace('_', ' ').capitalize()} {reason(first)}"


def checked(model: type[M], **fields: Any) -> M:
    """A section made from worked-out values. Raises InputError with our own words where one is outside what its field
    allows."""
    with in_our_words():
        return model(**fields)


def _replaced(node: Any, path: Path, value: Any) -> Any:
    if isinstance(node, tuple):
        return tuple(_replaced(item, path[1:], value) if item.id == path[0] else item for item in node)
    new = value if len(path) == 1 else _replaced(getattr(node, path[0]), path[1:], value)
    return node.model_copy(update={path[0]: new})


def fresh_id(items: tuple[Any, ...], prefix: str) -> str:
    """An id no member of `items` has."""
    taken = {item.id for item in items}
    number = len(items) + 1
    while f"{prefix}{number}" in taken:
        number += 1
    return f"{prefix}{number}"


def fresh_name(taken: Iterable[str], words: str) -> str:
    """The words, numbered where they are taken: "Screen", "Screen 2"."""
    there = set(taken)
    return next(name for name in (words, *(f"{words} {k}" for k in range(2, len(there) + 3))) if name not in there)


def added(build: Build, path: Path, member: Any, label: str) -> Edit:
    """The edit that appends `member` to the list at `path`."""
    return set_value(path, (*get(build, path), member), label)


def removed(build: Build, path: Path, member_id: str, label: str) -> Edit:
    """The edit that takes the member with `member_id` out of the list at `path`."""
    return set_value(path, tuple(item for item in get(build, path) if item.id != member_id), label)
