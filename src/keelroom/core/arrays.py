"""Shared array types, and stacking of scalar inputs into inputs over many points."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import fields, is_dataclass
from typing import TYPE_CHECKING, Any, TypeVar

import numpy as np

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Floats = NDArray[np.float64]
    Bools = NDArray[np.bool_]
else:
    # numpy.typing costs a tenth of the whole start and says nothing at run time.
    Floats = Bools = np.ndarray
T = TypeVar("T")


_FIELDS: dict[Any, tuple[str, ...]] = {}


def _names(kind: Any) -> tuple[str, ...]:
    """Field names of a dataclass type, () of any other; kept, because asking costs more than the arithmetic."""
    if kind not in _FIELDS:
        _FIELDS[kind] = tuple(field.name for field in fields(kind)) if is_dataclass(kind) else ()
    return _FIELDS[kind]


def stack(items: Sequence[T]) -> T:
    """One dataclass with arrays (n, ...) from n alike dataclasses of scalars or arrays, nested ones too."""
    kind: Any = type(items[0])
    values: list[Any] = []
    for name in _names(kind):
        column = [getattr(item, name) for item in items]
        values.append(stack(column) if _names(type(column[0])) else np.array(column, dtype=float))
    made: T = kind(*values)
    return made


def take(item: T, index: Any) -> T:
    """The points `index` of a stacked dataclass, nested ones too; what is no array stays as it is."""
    kind: Any = type(item)
    values: list[Any] = []
    for name in _names(kind):
        value = getattr(item, name)
        if isinstance(value, np.ndarray):
            values.append(value[index])
        else:
            values.append(take(value, index) if _names(type(value)) else value)
    made: T = kind(*values)
    return made


def put(item: T, index: Any, part: T) -> T:
    """`item` with the points `index` replaced by those of `part`; its fields are arrays."""
    kind: Any = type(item)
    values: list[Any] = []
    for name in _names(kind):
        value, new = getattr(item, name), getattr(part, name)
        if isinstance(value, np.ndarray):
            value = value.copy()
            value[index] = new
        values.append(value)
    made: T = kind(*values)
    return made


def unit_share(value: Floats) -> Floats:
    """`value` held between 0 and 1 (np.clip costs twice as much on small arrays)."""
    held: Floats = np.minimum(np.maximum(value, 0.0), 1.0)
    return held
