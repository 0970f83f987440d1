"""What differs between two builds, a sentence each: before a recovery copy is taken or a file is replaced."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel

from keelroom.document.fields import spec_of
from keelroom.document.quantity import Quantity
from keelroom.document.schema.build import Build


def differences(before: Build, after: Build) -> tuple[str, ...]:
    """“place: new value, was old value” for everything the two say differently; how often each was saved does not count."""
    return tuple(_sections("", before, after.model_copy(update={"revision": before.revision})))


def _sections(place: str, before: BaseModel, after: BaseModel) -> list[str]:
    found: list[str] = []
    for name in type(after).model_fields:
        spec = spec_of(type(after), name)
        label = spec.label if spec else name.replace("_", " ")
        found += _values(f"{place} / {label}" if place else label[0].upper() + label[1:], getattr(before, name), getattr(after, name))
    return found


def _values(place: str, before: Any, after: Any) -> list[str]:
    if before is after or before == after:
        return []
    if isinstance(before, tuple) and isinstance(after, tuple) and all(hasattr(item, "id") for item in (*before, *after)):
        return _members(place, before, after)
    if type(before) is type(after) and isinstance(after, BaseModel) and not isinstance(after, Quantity):
        return _sections(place, before, after)
    origin = getattr(before, "origin", "") != getattr(after, "origin", "")
    return [f"{place}: {_words(after, origin)}, was {_words(before, origin)}"]


def _members(place: str, before: tuple[Any, ...], after: tuple[Any, ...]) -> list[str]:
    old, new = ({item.id: item for item in items} for items in (before, after))
    found = [f"{place}: without {_name(item)}" for key, item in old.items() if key not in new]
    for key, item in new.items():
        found += [f"{place}: with {_name(item)}"] if key not in old else _values(f"{place} / {_name(item)}", old[key], item)
    return found or [f"{place}: in another order"]


def _name(item: Any) -> str:
    return str(getattr(item, "name", "") or item.id)


def _words(value: Any, origin: bool) -> str:
    if value is None or value == "":
        return "empty"
    if isinstance(value, Quantity):
        text = value.as_typed if not value.unit or value.as_typed.endswith(value.unit) else f"{value.as_typed} {value.unit}"
        return f"{text} ({value.origin})" if origin else text
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, tuple):
        return f"{len(value)} entries"
    return str(value) if not isinstance(value, BaseModel) else "something else"
