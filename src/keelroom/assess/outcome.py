"""What becomes of a part that cannot be worked out: it is named with its reason, and everything else goes on.

Nothing a build says may raise out of an assessment. A law that is left (its range is said by `inputs.doors`, a solve
that finds nothing by the solver) gives its own sentence; any other exception gives one of ours, with a report that
can be copied. Arithmetic is strict while a part is worked out: a division by nought, an overflow or a figure that is
none stops it there, instead of coming out as a figure.
"""

from __future__ import annotations

import sys
import traceback
from collections.abc import Callable
from pathlib import Path as FilePath
from typing import NamedTuple, TypeVar

from keelroom import __version__
from keelroom.core.arrays import strictly
from keelroom.errors import KeelRoomError

R = TypeVar("R")
PACKAGE = FilePath(__file__).parents[1]


class Stopped(NamedTuple):
    """A part that could not be worked out. part: what, in words; where: the path of what stopped it; why: a sentence;

    report : of what went wrong inside, to be copied; '' where a law or a solve stopped it with its own words
    """

    part: str
    where: tuple[str, ...]
    why: str
    report: str = ""

    @property
    def sentence(self) -> str:
        """All of it in one sentence."""
        return f"{self.part} could not be worked out: {self.why}"


def attempted(part: str, where: tuple[str, ...], act: Callable[[], R]) -> R | Stopped:
    """What `act` gives, or why it gives nothing. Raises nothing that `act` raises."""
    try:
        with strictly():
            return act()
    except Exception as error:
        return stopped_by(error, part, where)


def alone(part: str, where: tuple[str, ...], act: Callable[[], R], instead: Callable[[Stopped], R]) -> R:
    """One part of many, which costs only itself: what `act` gives, or what stands for a part that was stopped."""
    found = attempted(part, where, act)
    return instead(found) if isinstance(found, Stopped) else found


def stopped_by(error: Exception, part: str, where: tuple[str, ...]) -> Stopped:
    """A part that an exception stopped: our own errors have their sentence, and the path they name; others have a
    report."""
    if isinstance(error, KeelRoomError):
        path = error.fields.get("path")
        return Stopped(part, path if isinstance(path, tuple) else where, error.message)
    return Stopped(part, where, inside_words(error), report_of(error, part))


def inside_words(error: BaseException) -> str:
    """What went wrong inside, in one sentence: the sort of fault and the room it came from."""
    frames = [frame for frame in traceback.extract_tb(error.__traceback__) if _ours(frame.filename)]
    room = f" in {_room(frames[-1].filename).removesuffix('.py')}" if frames else ""
    return f"something went wrong inside ({type(error).__name__}{room})"


def report_of(error: BaseException, part: str) -> str:
    """What to send to whoever mends the program: versions, the fault, and the way to it; no path of this machine."""
    lines = [f"Keel Room {__version__}, Python {sys.version.split()[0]}", f"{part}: {type(error).__name__}: {error}"]
    lines += [f"  {_room(f.filename)}:{f.lineno} in {f.name}" for f in traceback.extract_tb(error.__traceback__)]
    return "\n".join(lines)


def _ours(filename: str) -> bool:
    return FilePath(filename).is_relative_to(PACKAGE)


def _room(filename: str) -> str:
    path = FilePath(filename)
    return str(path.relative_to(PACKAGE)) if _ours(filename) else path.name
