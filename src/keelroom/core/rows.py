"""Records of arrays as memory that typed modules read row by row, and typed formulas over arrays."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, TypeVar

import numpy as np

from keelroom.core.arrays import Floats, Ints

K = TypeVar("K")


def bound(kind: type[K], record: Any, **more: Any) -> K:
    """A typed record over the arrays of a named tuple, field by field; records within it are given apart.

    Arrays (n, …) are looked at where they are, not copied.
    """
    one = kind()
    for name, value in zip(record._fields, record, strict=True):
        if not isinstance(value, tuple):
            setattr(one, name, value if value.dtype == float else np.asarray(value, float))
    for name, value in more.items():
        setattr(one, name, value)
    return one


def over(formula: Callable[..., float], *values: Floats | Ints | float) -> Floats:
    """A formula of one point over arrays of any shapes that go together.

    Source: none of its own.
    """
    wide = np.broadcast_arrays(*values)
    found = [formula(*row) for row in zip(*(value.ravel().tolist() for value in wide), strict=True)]
    return np.array(found, float).reshape(wide[0].shape)
