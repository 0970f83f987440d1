"""The one place that holds the current build: validates edits, swaps snapshots, keeps the trail."""

from __future__ import annotations

from collections.abc import Callable

from keelroom.build.edits import Edit, apply
from keelroom.build.schema.build import Build

Listener = Callable[[], None]


class Store:
    """The current build and how it came to be. `revision` rises with every swap."""

    def __init__(self, build: Build) -> None:
        self._build = build
        self._saved = build
        self._done: list[tuple[Edit, Edit]] = []
        self._undone: list[tuple[Edit, Edit]] = []
        self._listeners: list[Listener] = []
        self.revision = 0

    @property
    def build(self) -> Build:
        return self._build

    @property
    def dirty(self) -> bool:
        """Whether the build differs from what was last saved or opened."""
        return self._build is not self._saved

    def listen(self, listener: Listener) -> None:
        """Call `listener` after every swap."""
        self._listeners.append(listener)

    def apply(self, edit: Edit) -> None:
        """Apply one edit. Raises InputError and changes nothing if a value means nothing."""
        build, inverse = apply(self._build, edit)
        if edit.merge_key and self._done and self._done[-1][0].merge_key == edit.merge_key:
            # One drag is one step: keep the first way back and the last way forward.
            inverse = self._done.pop()[1]
        self._done.append((edit, inverse))
        self._undone.clear()
        self._swap(build)

    @property
    def merging(self) -> bool:
        """Whether the last step is a drag that goes on."""
        return bool(self._done) and bool(self._done[-1][0].merge_key)

    def end_merge(self) -> None:
        """Close the step a drag was merging into, so that the next drag is its own step."""
        if self._done:
            edit, inverse = self._done[-1]
            self._done[-1] = (Edit(edit.label, edit.changes), inverse)

    def undo(self) -> None:
        """Take the last step back; nothing to take back is no error."""
        if self._done:
            edit, inverse = self._done.pop()
            self._undone.append((edit, inverse))
            self._swap(apply(self._build, inverse)[0])

    def redo(self) -> None:
        """Do the last undone step again."""
        if self._undone:
            edit, inverse = self._undone.pop()
            self._done.append((edit, inverse))
            self._swap(apply(self._build, edit)[0])

    @property
    def undo_label(self) -> str:
        return self._done[-1][0].label if self._done else ""

    @property
    def redo_label(self) -> str:
        return self._undone[-1][0].label if self._undone else ""

    @property
    def trail(self) -> tuple[str, ...]:
        """Labels of the steps done, oldest first."""
        return tuple(edit.label for edit, _ in self._done)

    def replace(self, build: Build, *, saved: bool) -> None:
        """Start over with another build: the trail is emptied."""
        self._done.clear()
        self._undone.clear()
        if saved:
            self._saved = build
        self._swap(build)

    def mark_saved(self, written: Build) -> None:
        """`written` is on disk: it becomes the current build, its trail kept."""
        self._saved = written
        self._swap(written)

    def _swap(self, build: Build) -> None:
        self._build = build
        self.revision += 1
        for listener in self._listeners:
            listener()
