"""What is kept between calls: stages of a computation, found again by the very objects or by the values they were
made from.

Frozen sections that an edit left alone stay the same object, so a stage made from them need not be made again. What
is kept belongs to a `Kept` that somebody holds, a session or one search, never to a module: what one build left
behind cannot reach another, and a search throws its own away. Stages are pure, so whether one is kept or made anew
changes no figure.

A `Kept` works in one thread at a time: `at_work` makes it the one of the thread that calls, and refuses a second
thread. Without one at work nothing is kept; `in_one_go` gives a call one of its own.
"""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import wraps
from threading import Lock
from typing import Any, ParamSpec, TypeVar

P = ParamSpec("P")
R = TypeVar("R")
Found = OrderedDict[Hashable, tuple[tuple[Any, ...], Any]]

_current: ContextVar[Kept | None] = ContextVar("kept", default=None)


class Kept:
    """Stages by what made them; of each the ones used last."""

    def __init__(self) -> None:
        self._stages: dict[Hashable, Found] = {}
        self._busy = Lock()

    def of(self, stage: Hashable) -> Found:
        """What is kept of one stage, the ones used last at the end."""
        found = self._stages.get(stage)
        if found is None:
            found = self._stages[stage] = OrderedDict()
        return found

    @contextmanager
    def at_work(self) -> Iterator[None]:
        """Keep stages here for what is called within. Raises RuntimeError where another thread is at it; nests in one
        thread."""
        if _current.get() is self:
            yield
            return
        if not self._busy.acquire(blocking=False):
            raise RuntimeError("what is kept is in use by another thread")
        token = _current.set(self)
        try:
            yield
        finally:
            _current.reset(token)
            self._busy.release()

    def stay(self) -> None:
        """Be at work in this thread from now on, until another is: a window's own, for all that its pages ask."""
        _current.set(self)


class Shelf:
    """Results of one stage in the `Kept` at work, taken and put one by one: for what is worked out many at once."""

    def __init__(self, found: Found, most: int) -> None:
        self._found, self._most = found, most

    def get(self, objects: tuple[Any, ...], value: Hashable = None) -> Any:
        """What was put for these very objects and this value; None where nothing was, or no longer is."""
        known = self._found.get((*map(id, objects), value))
        return known[1] if known is not None else None

    def put(self, objects: tuple[Any, ...], value: Hashable, result: Any) -> None:
        """Keep a result with the objects it was made of; the oldest goes first."""
        self._found[(*map(id, objects), value)] = (objects, result)
        if len(self._found) > self._most:
            self._found.popitem(last=False)


def shelf(stage: str, most: int) -> Shelf:
    """The shelf of a stage by its name; one that is soon forgotten where nothing is kept."""
    kept = _current.get()
    return Shelf(kept.of(stage) if kept is not None else OrderedDict(), most)


def as_before(stage: str, key: Hashable, found: R) -> R:
    """What was found under a key the last time, where it equals what is found now: what hangs on that very object
    stays too.

    Raises nothing of its own.
    """
    kept = shelf(stage, 64)
    before = kept.get((), key)
    if before is not None and before[0] == found:
        same: R = before[0]
        return same
    kept.put((), key, (found,))
    return found


def in_one_go(function: Callable[P, R]) -> Callable[P, R]:
    """A call that shares stages among its own steps: where nobody keeps any, it does so for as long as it lasts.

    Raises nothing of its own.
    """

    @wraps(function)
    def called(*given: P.args, **named: P.kwargs) -> R:
        if _current.get() is not None:
            return function(*given, **named)
        with Kept().at_work():
            return function(*given, **named)

    return called


def by_identity(most: int) -> Callable[[Callable[..., R]], Callable[..., R]]:
    """Keep up to `most` results of a pure stage, found by the very objects it was given.

    Raises nothing of its own; the oldest result goes first.
    """
    return _keeping(most, lambda given: tuple(map(id, given)))


def by_value(most: int) -> Callable[[Callable[..., R]], Callable[..., R]]:
    """Keep up to `most` results of a pure stage, found by the values it was given.

    Raises nothing of its own; arguments must be hashable.
    """
    return _keeping(most, lambda given: given)


def by_identity_at(most: int) -> Callable[[Callable[..., R]], Callable[..., R]]:
    """Keep up to `most` results of a pure stage, found by the very objects it was given and, of the last of them, by
    its value.

    Raises nothing of its own; the last argument must be hashable.
    """
    return _keeping(most, lambda given: (*map(id, given[:-1]), given[-1]))


def one_of_equals(value: R) -> R:
    """The first of equal values that came by: what is kept by identity is found for all of them.

    value : hashable. Raises nothing of its own.
    """
    return _first(value)  # type: ignore[no-any-return]


def _keeping(
    most: int, key_of: Callable[[tuple[Any, ...]], Hashable]
) -> Callable[[Callable[..., R]], Callable[..., R]]:
    def decorate(stage: Callable[..., R]) -> Callable[..., R]:
        @wraps(stage)
        def kept_or_made(*given: Any) -> R:
            kept = _current.get()
            if kept is None:
                return stage(*given)
            found, key = kept.of(stage), key_of(given)
            known = found.get(key)
            if known is not None:
                found.move_to_end(key)
                result: R = known[1]
                return result
            # The arguments are held with the result, so that no other object can take their identity.
            result = stage(*given)
            found[key] = (given, result)
            if len(found) > most:
                found.popitem(last=False)
            return result

        return kept_or_made

    return decorate


@by_value(1024)
def _first(value: Any) -> Any:
    return value
