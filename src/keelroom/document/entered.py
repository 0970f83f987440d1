"""What somebody entered, as an act: from the changes of an edit to data, and from that data back to the same
changes."""

from __future__ import annotations

import json
from typing import TYPE_CHECKING, Any

from pydantic import BaseModel, ValidationError

from keelroom.document.act import Act
from keelroom.document.fields import Path, owner_and_spec, validator_of
from keelroom.document.quantity import Quantity
from keelroom.document.schema.trail import OMITTED
from keelroom.errors import InputError
from keelroom.units import KINDS, parse

if TYPE_CHECKING:
    from keelroom.document.schema.build import Build

Given = tuple[tuple[str, str], ...]
ENTER, ENTER_ALL, MOVE = "enter", "enter_all", "move"
"""Codes of what is entered in one field, of several entered at once, and of what moves one part by several of its
measures."""
MARKS = ("unit", "origin", "doubt")
"""What stands beside a measure's text."""


def entered(label: str, values: tuple[tuple[Path, Any], ...]) -> Act:
    """The act of entering values: one of them as typed, chosen or ticked, a whole section as JSON, several as JSON
    with their paths."""
    if len(values) == 1:
        ((path, value),) = values
        return Act(ENTER, label, package_of(path), _given("text", value), path)
    plain = [{"path": path, "value": _plain(value)} for path, value in values]
    packages = {package_of(path) for path, _ in values}
    return Act(ENTER_ALL, label, packages.pop() if len(packages) == 1 else "", (("json", json.dumps(plain)),))


def package_of(path: Path) -> str:
    """Id of the package a path lies in; '' where it lies in none."""
    return path[1] if path[:1] == ("packages",) and len(path) > 1 else ""


def moved_to(label: str, where: Path, values: dict[str, Quantity]) -> Act:
    """The act of moving one part: several of its measures at once, all in one unit and of one origin."""
    given = tuple((name, value.as_typed) for name, value in values.items())
    first = next(iter(values.values()))
    return Act(MOVE, label, package_of(where), (*given, *_marks(first)), where)


def joined(earlier: Act, later: Act) -> Act:
    """Two moves of one part as one: where it went last by every measure either changed. The later act where they are
    not such."""
    if earlier.code != MOVE or later.code != MOVE or earlier.path != later.path:
        return later
    given = dict(earlier.given) | dict(later.given)
    return later._replace(given=tuple(given.items()))


def _given(name: str, value: Any) -> Given:
    if value is None:
        return ()
    if isinstance(value, Quantity):
        return ((name, value.as_typed), *_marks(value))
    if isinstance(value, bool):
        return (("tick", "yes" if value else "no"),)
    if isinstance(value, str) and value.isprintable():
        return (("choice", value),)
    # In plain letters: lines and signs nobody sees come back as they were, and the file's own text stays one line.
    return (("json", json.dumps(_plain(value))),)


def _plain(value: Any) -> Any:
    if isinstance(value, tuple):
        return [_plain(item) for item in value]
    return value.model_dump(mode="json") if isinstance(value, BaseModel) else value


def _marks(value: Quantity) -> Given:
    doubt = (("doubt", repr(value.doubt)),) if value.doubt is not None else ()
    return (("unit", value.unit), ("origin", value.origin), *doubt)


def values_of(build: Build, act: Act) -> tuple[tuple[Path, Any], ...]:
    """The paths an entered act changes, each with its new value. Raises InputError where the build has no such
    field."""
    given = dict(act.given)
    if act.code == ENTER_ALL and OMITTED not in given:
        return tuple((path, _from_json(build, path, text)) for path, text in _several(given))
    if act.code == MOVE:
        names = [name for name in given if name not in MARKS]
        return tuple(((*act.path, name), _measure(build, (*act.path, name), given[name], given)) for name in names)
    return ((act.path, _value(build, act.path, given)),)


def _value(build: Build, path: Path, given: dict[str, str]) -> Any:
    if "text" in given:
        return _measure(build, path, given["text"], given)
    if "tick" in given:
        return given["tick"] == "yes"
    if OMITTED in given:
        raise InputError("act_omitted", "What was entered then was too long to be kept")
    return _from_json(build, path, given["json"]) if "json" in given else given.get("choice")


UNREADABLE = "What was entered then is no longer what this field takes"


def _several(given: dict[str, str]) -> list[tuple[Path, str]]:
    """Paths with their values as JSON. Raises InputError where it is none of ours."""
    try:
        return [(tuple(map(str, one["path"])), json.dumps(one["value"])) for one in json.loads(given["json"])]
    except (ValueError, KeyError, TypeError):
        raise InputError("act_unreadable", UNREADABLE) from None


def _from_json(build: Build, path: Path, text: str) -> Any:
    owner, _ = owner_and_spec(build, path)
    try:
        return validator_of(type(owner), path[-1]).validate_json(text)
    except ValidationError:
        raise InputError("act_unreadable", UNREADABLE) from None


def _measure(build: Build, path: Path, text: str, given: dict[str, str]) -> Quantity:
    _, spec = owner_and_spec(build, path)
    if spec is None:
        raise InputError("no_measure", f"“{path[-1]}” is not a measure", path=path)
    unit = given.get("unit", "") or spec.kind.shown_unit("us").symbol
    reading = parse(text, KINDS[spec.kind_name], unit)
    marks: dict[str, Any] = {"origin": given.get("origin", "assumed")}
    if "doubt" in given:
        marks["doubt"] = float(given["doubt"])
    return Quantity(si=reading.si, as_typed=text, unit=reading.unit, **marks)
