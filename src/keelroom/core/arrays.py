"""Shared array types, and stacking of scalar inputs into inputs over many points.

Records of arrays are named tuples: as frozen as a dataclass, and a good deal quicker to make.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from contextlib import AbstractContextManager
from typing import TYPE_CHECKING, Any, TypeVar

import numpy as np

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Floats = NDArray[np.float64]
    Bools = NDArray[np.bool_]
    Ints = NDArray[np.intp]
else:
    # numpy.typing costs a tenth of the whole start and says nothing at run time.
    Floats = Bools = Ints = np.ndarray
T = TypeVar("T")


def strictly() -> AbstractContextManager[object]:
    """Arithmetic that stops where a figure is none: a division by nought, an overflow, nought over nought raise
    FloatingPointError."""
    return np.errstate(divide="raise", over="raise", invalid="raise")


def stack(items: Sequence[T]) -> T:
    """One record with arrays (n, ...) from n alike records of scalars or arrays, nested ones too.

    Raises ValueError where the records are not alike.
    """
    first: Any = items[0]
    columns = zip(*(tuple(item) for item in items), strict=True)  # type: ignore[arg-type]
    values = [stack(column) if isinstance(column[0], tuple) else _column(column) for column in columns]
    made: T = type(first)(*values)
    return made


def scalars(kind: type[T], **values: float) -> T:
    """One record of numbers as arrays without sides, ready to be stacked."""
    return kind(**{name: np.array(value, float) for name, value in values.items()})


def repeated(item: T, count: int) -> T:
    """One record as so many alike, arrays (count, ...) that all look at the one; nothing is copied, nor to be written.

    item : scalars as arrays without sides, nested records too
    """
    record: Any = item
    values = [repeated(value, count) if isinstance(value, tuple) else _alike_rows(value, count) for value in record]
    made: T = type(record)(*values)
    return made


def _alike_rows(value: Any, count: int) -> Floats:
    one = value if type(value) is np.ndarray and value.dtype == float else np.array(value, float)
    rows: Floats = np.ndarray((count, *one.shape), float, one, 0, (0, *one.strides))
    rows.flags.writeable = False
    return rows


LARGE = 64
"""Numbers per point from which on it pays not to copy what all points share."""


def _column(items: Sequence[Any]) -> Floats:
    first = items[0]
    if np.size(first) > LARGE and all(item is first for item in items):
        return np.broadcast_to(np.asarray(first, float), (len(items), *np.shape(first)))
    return np.array(items, dtype=float)


def _rows(value: Floats, index: Any) -> Floats:
    """Rows of one array; what all rows share stays shared."""
    if value.size > LARGE and value.strides[0] == 0 and type(index) is np.ndarray:
        return np.broadcast_to(value[0], (len(index), *value.shape[1:]))
    rows: Floats = value[index]
    return rows


def take(item: T, index: Any) -> T:
    """The points `index` of a stacked record, nested ones too; what is no array stays as it is.

    Arrays (n, …) become (len(index), …).
    """
    record: Any = item
    values = [
        _rows(v, index) if type(v) is np.ndarray else take(v, index) if isinstance(v, tuple) else v for v in record
    ]
    made: T = type(record)(*values)
    return made


def joined(first: T, second: T) -> T:
    """The points of a stacked record with those of another behind them, nested ones too; what is no array stays as it
    is in the first.

    Arrays (n, …) and (m, …) become (n + m, …).
    """
    record: Any = first
    values: list[Any] = []
    for a, b in zip(record, second, strict=True):  # type: ignore[call-overload]
        values.append(np.concatenate([a, b]) if type(a) is np.ndarray else joined(a, b) if isinstance(a, tuple) else a)
    made: T = type(record)(*values)
    return made


def same(a: Any, b: Any) -> bool:
    """Whether two records hold the same figures, nested ones too; the very same object does at a glance.

    Any shapes; of unlike ones none is the same.
    """
    return all(x is y or (same(x, y) if isinstance(x, tuple) else _alike(x, y)) for x, y in zip(a, b, strict=True))


def _alike(x: Any, y: Any) -> bool:
    """Whether two arrays hold the same bytes in the same shape: a twentieth of what np.array_equal costs on small
    ones."""
    if type(x) is np.ndarray and type(y) is np.ndarray:
        return x.shape == y.shape and x.dtype == y.dtype and x.tobytes() == y.tobytes()
    return bool(np.array_equal(x, y))


def one_of_each(item: Any) -> tuple[Ints, Ints]:
    """Points of a stacked record that hold the same figures: the first of each kind (m,), and which kind each point is
    of (n,).

    Arrays (n, …), nested ones too; the kinds come in no order of theirs.
    """
    rows = np.hstack([value.reshape(len(value), -1) for value in _leaves(item)])
    whole = np.ascontiguousarray(rows).view(np.dtype((np.void, rows.itemsize * rows.shape[1]))).ravel()
    _, first, kind = np.unique(whole, return_index=True, return_inverse=True)
    return first, kind


def _leaves(item: Any) -> list[Floats]:
    return [leaf for value in item for leaf in (_leaves(value) if isinstance(value, tuple) else [value])]


def put(item: T, index: Any, part: T) -> T:
    """`item` with the points `index` replaced by those of `part`.

    index: whole numbers 0..n-1, as many as part has points.
    """
    record: Any = item
    values: list[Any] = []
    for value, new in zip(record, part, strict=True):  # type: ignore[call-overload]
        if isinstance(value, np.ndarray):
            values.append(value.copy())
            values[-1][index] = new
        else:
            values.append(put(value, index, new) if isinstance(value, tuple) else value)
    made: T = type(record)(*values)
    return made


def between(at: float, along: Sequence[float], values: Sequence[float]) -> float:
    """One value straight between points, level past their ends: np.interp's own formula at a twentieth of what a call
    of it costs.

    along rises. Source: linear interpolation.
    """
    if at >= along[-1]:
        return values[-1]
    right = bisect_right(along, at)
    if right == 0:
        return values[0]
    left = right - 1
    return (values[right] - values[left]) / (along[right] - along[left]) * (at - along[left]) + values[left]


def unit_share(value: Floats) -> Floats:
    """`value` held between 0 and 1 (np.clip costs twice as much on small arrays).

    Any shape; 0..1.
    """
    held: Floats = np.minimum(np.maximum(value, 0.0), 1.0)
    return held
