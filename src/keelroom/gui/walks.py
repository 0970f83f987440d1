"""What bench mode walks: readings by their paths, with what is drawn beside each and a clock that may run."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from keelroom.drawing.scene import Scene
from keelroom.gui.rows import Path

Walk = tuple[tuple[str, tuple[tuple[str, Path], ...]], ...]
"""titles, each with readings: their words and paths"""


class Walked(NamedTuple):
    """readings: asked again after every change;  drawn: what stands beside a reading, with what is typed of it;
    watch: a clock in words, '' where none runs"""

    readings: Callable[[], Walk]
    drawn: Callable[[Path, str], Scene | None]
    watch: Callable[[], str]
