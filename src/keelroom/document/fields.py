"""Finding things in a build by path: `("packages", "p1", "core", "depth")`; list members go by their id."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from typing import Any, get_args

from pydantic import BaseModel, TypeAdapter

from keelroom.document.quantity import Quantity, Spec
from keelroom.errors import InputError

Path = tuple[str, ...]


@cache
def spec_of(model: type[BaseModel], field: str) -> Spec | None:
    """What a measured field is; None for names, choices and sections."""
    return next((item for item in model.model_fields[field].metadata if isinstance(item, Spec)), None)


@cache
def validator_of(model: type[BaseModel], field: str) -> TypeAdapter[Any]:
    """Checks one field's new value as strictly as loading a file does."""
    info = model.model_fields[field]
    annotation: Any = info.annotation
    for item in info.metadata:
        annotation = _annotated(annotation, item)
    return TypeAdapter(annotation)


def _annotated(annotation: Any, item: Any) -> Any:
    from typing import Annotated

    return Annotated[annotation, item]


def get(node: Any, path: Path) -> Any:
    """The value at `path`. Raises InputError naming the step that leads nowhere."""
    for step in path:
        node = _child(node, step)
    return node


def _child(node: Any, step: str) -> Any:
    if isinstance(node, tuple):
        found = next((item for item in node if getattr(item, "id", None) == step), None)
        if found is not None:
            return found
    # As `model_fields`, which looks at every call who asks.
    elif isinstance(node, BaseModel) and step in type(node).__pydantic_fields__:
        return getattr(node, step)
    raise InputError("no_such_path", f"The build has no “{step}” there", step=step)


def part_of(path: Path) -> Path:
    """The part a path lies in: the member of a list of the survey or of a package, else the section of either."""
    section = 4 if path[2:3] == ("loop",) and path[3:4] in LISTED else 3 if path[:1] == ("packages",) else 2
    return path[: section + (path[section - 1 : section] in LISTED)]


LISTED = {
    (name,)
    for name in (
        "fans",
        "coolers",
        "cuts",
        "brackets",
        "panels",
        "moves",
        "circuits",
        "obstacles",
        "holes",
        "air_holes",
        "hoses",
        "parts",
    )
}
"""sections that are lists of parts"""


def owner_and_spec(build: BaseModel, path: Path) -> tuple[BaseModel, Spec | None]:
    """The section a field belongs to, and the field's spec."""
    owner = get(build, path[:-1])
    if not isinstance(owner, BaseModel) or path[-1] not in type(owner).model_fields:
        raise InputError("no_such_path", f"The build has no “{path[-1]}” there", step=path[-1])
    return owner, spec_of(type(owner), path[-1])


@cache
def _lists(model: type[BaseModel]) -> tuple[tuple[str, bool, bool], ...]:
    """Fields of a section that are lists whose members have ids, or lead to such: (name, is one itself, more below
    it)."""
    found = []
    for name, info in model.model_fields.items():
        for inner in _models_in(info.annotation):
            listed = "id" in inner.model_fields
            below = bool(_lists(inner))
            if listed or below:
                found.append((name, listed, below))
    return tuple(found)


def _models_in(annotation: Any) -> Iterator[type[BaseModel]]:
    """Sections named in an annotation, by themselves, in a tuple or beside None; never quantities."""
    if isinstance(annotation, type) and issubclass(annotation, BaseModel) and annotation is not Quantity:
        yield annotation
    for inner in get_args(annotation):
        yield from _models_in(inner)


@cache
def models_below(model: type[BaseModel]) -> tuple[type[BaseModel], ...]:
    """A section and every section that can lie below it, each once."""
    found = {model: None}
    for info in model.model_fields.values():
        for inner in _models_in(info.annotation):
            found.update(dict.fromkeys(models_below(inner)))
    return tuple(found)


def id_lists(node: BaseModel, apart: tuple[str, ...] = (), at: Path = ()) -> Iterator[tuple[Path, tuple[str, ...]]]:
    """Path and ids of every list below `node` whose members have ids, list by list. apart: fields of `node` that are
    left out"""
    for name, listed, below in _lists(type(node)):
        if name in apart:
            continue
        value = getattr(node, name)
        if listed:
            yield (*at, name), tuple(item.id for item in value)
        if below:
            for item in value if isinstance(value, tuple) else (value,):
                if item is not None:
                    # A person's own parts are known by their names.
                    own = (getattr(item, "id", None) or getattr(item, "name", ""),) if isinstance(value, tuple) else ()
                    yield from id_lists(item, at=(*at, name, *own))


def measured_fields(node: BaseModel, path: Path = ()) -> Iterator[tuple[Path, Spec, Quantity | None]]:
    """Every measured field below `node` with its path, spec and present value, curve points left out."""
    for name in type(node).model_fields:
        value, spec = getattr(node, name), spec_of(type(node), name)
        if spec is not None:
            yield (*path, name), spec, value
        elif isinstance(value, tuple):
            for item in value:
                if isinstance(item, BaseModel) and hasattr(item, "id"):
                    yield from measured_fields(item, (*path, name, item.id))
        elif isinstance(value, BaseModel) and not isinstance(value, Quantity):
            yield from measured_fields(value, (*path, name))
