"""Shared array types, and stacking of scalar inputs into inputs over many points."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import fields, is_dataclass, replace
from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
T = TypeVar("T")


def stack(items: Sequence[T]) -> T:
    """One dataclass with arrays (n, ...) from n alike dataclasses of scalars or arrays, nested ones too."""
    first = items[0]
    values: dict[str, Any] = {}
    for field in fields(first):  # type: ignore[arg-type]
        column = [getattr(item, field.name) for item in items]
        values[field.name] = stack(column) if is_dataclass(column[0]) else np.array(column, dtype=float)
    return type(first)(**values)


def take(item: T, index: Any) -> T:
    """The points `index` of a stacked dataclass, nested ones too; what is no array stays as it is."""
    values: dict[str, Any] = {}
    for field in fields(item):  # type: ignore[arg-type]
        value = getattr(item, field.name)
        if is_dataclass(value):
            values[field.name] = take(value, index)
        else:
            values[field.name] = value[index] if isinstance(value, np.ndarray) else value
    return replace(item, **values)  # type: ignore[type-var]


def unit_share(value: Floats) -> Floats:
    """`value` held between 0 and 1 (np.clip costs twice as much on small arrays)."""
    held: Floats = np.minimum(np.maximum(value, 0.0), 1.0)
    return held
