"""Stages kept by the identity of what they were made from: frozen sections that an edit left alone stay the same object."""

from __future__ import annotations

from collections.abc import Callable
from functools import wraps
from threading import Lock
from typing import Any, TypeVar

R = TypeVar("R")


def by_identity(size: int) -> Callable[[Callable[..., R]], Callable[..., R]]:
    """Keep the last `size` results of a pure function, found by the very objects it was given."""

    def decorate(function: Callable[..., R]) -> Callable[..., R]:
        making_room = Lock()
        kept: dict[tuple[int, ...], tuple[tuple[Any, ...], R]] = {}

        @wraps(function)
        def kept_or_made(*given: Any) -> R:
            key = tuple(map(id, given))
            found = kept.get(key)
            if found is not None:
                return found[1]
            with making_room:
                if len(kept) >= size:
                    kept.pop(next(iter(kept)))
            # The arguments are held with the result, so that no other object can take their identity.
            result = function(*given)
            with making_room:
                kept[key] = (given, result)
            return result

        return kept_or_made

    return decorate
