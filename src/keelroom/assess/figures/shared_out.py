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


def over_processes(work: Callable[[P], R], parts: Sequence[P], least: int = PARTS) -> Iterator[R]:
    """Like `map`, over the processor's cores where there are parts enough to pay for their start. A process takes about
    a second to start: for parts that take longer.

    work : a function of a module, without memory of its own;  least : parts from which on processes are started
    Raises what `work` raises.
    """
    count, done = os.cpu_count() or 1, 0
    if count > 1 and len(parts) >= least:
        # Not at the top: a window that never asks so much starts without them.
        from concurrent.futures import ProcessPoolExecutor
        from concurrent.futures.process import BrokenProcessPool
        from multiprocessing import get_context

        try:
            with ProcessPoolExecutor(min(count, len(parts)), get_context("spawn"), initializer=_keep) as pool:
                try:
                    for result in pool.map(work, parts):
                        done += 1
                        yield result
                finally:
                    pool.shutdown(cancel_futures=True)  # nobody may want the rest
        except (OSError, BrokenProcessPool):
            pass  # No room for other processes: the answer is the same, it only takes longer.
    yield from map(work, parts[done:])


def on_all_processors(work: Callable[[P], R], parts: Sequence[P]) -> list[R]:
    """What `work` makes of each part, in order, on all of the processor's cores; as `over_processes` takes them."""
    return list(over_processes(work, parts, 2))
