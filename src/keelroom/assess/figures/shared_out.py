"""Work shared out among the processor's cores, each in a process of its own: the solve holds the interpreter."""

from __future__ import annotations

import os
from collections.abc import Callable, Iterator, Sequence
from typing import TypeVar

from keelroom.core.kept import Kept

P = TypeVar("P")
R = TypeVar("R")
PARTS = 12
"""Parts of about half a second each from which on other processes pay"""


def _keep() -> None:
    """What one part of the work was made from is found again by the next, as long as the process lasts."""
    Kept().stay()


def over_processes(work: Callable[[P], R], parts: Sequence[P]) -> Iterator[R]:
    """Like `map`, over the processor's cores where there are parts enough to pay for their start."""
    if len(parts) < PARTS:
        yield from map(work, parts)
        return
    from concurrent.futures import ProcessPoolExecutor
    from multiprocessing import get_context

    with ProcessPoolExecutor(os.cpu_count() or 1, mp_context=get_context("spawn"), initializer=_keep) as pool:
        try:
            yield from pool.map(work, parts)
        finally:
            pool.shutdown(wait=False, cancel_futures=True)


def on_all_processors(work: Callable[[P], R], parts: Sequence[P]) -> list[R]:
    """What `work` makes of each part, in order. A process takes about a second to start: for parts that take longer.

    work : a function of a module, without memory of its own.  Raises what `work` raises.
    """
    count = os.cpu_count() or 1
    if count < 2 or len(parts) < 2:
        return [work(part) for part in parts]
    # Not at the top: a window that never asks so much starts without them.
    from concurrent.futures import ProcessPoolExecutor
    from concurrent.futures.process import BrokenProcessPool
    from multiprocessing import get_context

    try:
        with ProcessPoolExecutor(min(count, len(parts)), mp_context=get_context("spawn"), initializer=_keep) as pool:
            return list(pool.map(work, parts))
    except (OSError, BrokenProcessPool):
        # No room for other processes: the answer is the same, it only takes longer.
        return [work(part) for part in parts]
