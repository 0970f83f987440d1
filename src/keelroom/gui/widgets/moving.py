"""Moving painted parts by hand: where they catch, the grain they are set to, and the changes a move makes."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Protocol

from keelroom.document.edits import Change, Edit
from keelroom.document.entered import moved_to
from keelroom.document.quantity import Origin, from_si
from keelroom.gui.session.session import Session
from keelroom.units import INCH, inches

SNAP_PIXELS = 7.0
Line = tuple[float, float]
"""A value that catches, and where its guide is drawn [m]."""


def nudge_of(system: str) -> float:
    """The step [m] of an arrow key and the grain of a drag: a sixteenth of an inch, or a millimetre."""
    return INCH / 16 if inches(system) else 1e-3


def snapped(
    to: tuple[float, float], ways: tuple[Sequence[Line], Sequence[Line]], reach: float
) -> tuple[tuple[float, float], list[tuple[int, float]]]:
    """Where a part ends up that is moved to `to`, and the guides it caught as (0 across or 1 up, where)."""
    found, guides = list(to), []
    for way, lines in enumerate(ways):
        line, guide = min(lines, key=lambda pair: abs(pair[0] - to[way]), default=(float("inf"), 0.0))
        if abs(line - to[way]) <= reach:
            found[way] = line
            guides.append((way, guide))
    return (found[0], found[1]), guides


class Board(Protocol):
    """A drawing whose parts are moved by hand. drag: what is held, None for nothing; guides: lines it caught on."""

    session: Session
    drag: Any
    guides: list[Any]

    def unsetCursor(self) -> None: ...

    def rebuild(self) -> None: ...


def let_go(board: Board) -> None:
    """The part that was held stays where it is, as one step of the trail."""
    board.drag = None
    board.guides = []
    board.session.let_go()
    board.unsetCursor()
    board.rebuild()


def moving(label: str, changes: tuple[Change, ...], merge_key: str) -> Edit:
    """The edit of one part's move, whose changes lie in one section; moves in a row of one drag are one step."""
    values = {change.path[-1]: change.value for change in changes}
    return Edit(label, changes, merge_key, moved_to(label, changes[0].path[:-1], values))


def moves(
    where: tuple[str, ...], axes: dict[str, tuple[float, float]], system: str, origin: Origin
) -> tuple[Change, ...]:
    """The changes of a move, to the grain of the tape. axes: by field, where it stands and where it goes [m]; what
    stays is not touched."""
    grain = nudge_of(system)
    return tuple(
        Change((*where, axis), from_si(round(to / grain) * grain, "length", system, origin))
        for axis, (now, to) in axes.items()
        if abs(to - now) > 1e-9
    )
