"""The one place that holds the current build: validates edits, swaps snapshots, keeps the trail."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from keelroom.document.act import Act
from keelroom.document.edits import Edit, act_of, apply
from keelroom.document.entered import joined
from keelroom.document.schema.build import Build
from keelroom.document.schema.trail import KEPT, Done, done

Listener = Callable[[], None]


class Step(NamedTuple):
    """One step of the trail: the whole builds before and after it. Builds share what did not change, so a step costs
    little, and going back needs no inverse that could miss something."""

    act: Act
    before: Build
    after: Build
    merge_key: str = ""

    @property
    def label(self) -> str:
        """What the trail calls it."""
        return self.act.label


def same_content(a: Build, b: Build) -> bool:
    """Whether two builds say the same; how often each was saved does not count, nor by what steps it came to say it."""
    return a is b or a.model_copy(update={"revision": b.revision, "trail": b.trail}) == b


def with_step(build: Build, edit: Edit, before: Build, earlier: Done | None = None) -> Build:
    """The build after an edit with that step at the end of the trail it had before; the oldest steps are forgotten.

    earlier : the step it goes on with, where both are one drag
    """
    act = act_of(edit)._replace(label=edit.label)
    touched = tuple(change.path for change in edit.changes)
    if earlier is not None:
        act, touched = joined(earlier.act, act), (*earlier.touched, *touched)
    return build.model_copy(update={"trail": (*before.trail, done(act, touched))[-KEPT:]})


class Store:
    """The current build and how it came to be. `revision` rises with every swap."""

    def __init__(self, build: Build) -> None:
        self._build = build
        self._saved = build
        self._recovered = False
        self._done: list[Step] = []
        self._undone: list[Step] = []
        self._listeners: list[Listener] = []
        self.revision = 0

    @property
    def build(self) -> Build:
        return self._build

    @property
    def saved(self) -> Build:
        """What was last saved or opened."""
        return self._saved

    @property
    def dirty(self) -> bool:
        """Whether the build says something else than what was last saved or opened."""
        return self._recovered or not same_content(self._build, self._saved)

    def listen(self, listener: Listener) -> None:
        """Call `listener` after every swap."""
        self._listeners.append(listener)

    def apply(self, edit: Edit) -> None:
        """Apply one edit. Raises InputError and changes nothing if a value means nothing."""
        before, after, earlier = self._build, apply(self._build, edit), None
        if same_content(before, after):
            self._swap(before)
            return
        if edit.merge_key and self._done and self._done[-1].merge_key == edit.merge_key:
            before, earlier = self._done.pop().before, self._build.trail[-1]  # one drag is one step
        after = with_step(after, edit, before, earlier)
        self._done.append(Step(after.trail[-1].act, before, after, edit.merge_key))
        self._undone.clear()
        self._swap(after)

    @property
    def merging(self) -> bool:
        """Whether the last step is a drag that goes on."""
        return bool(self._done) and bool(self._done[-1].merge_key)

    def end_merge(self) -> None:
        """Close the step a drag was merging into, so that the next drag is its own step; one that led back to its
        start is none."""
        if not self.merging:
            return
        step = self._done.pop()
        if same_content(step.before, step.after):
            self._swap(step.before)
        else:
            self._done.append(step._replace(merge_key=""))

    def undo(self) -> None:
        """Take the last step back; nothing to take back is no error."""
        if self._done:
            step = self._done.pop()
            self._undone.append(step._replace(merge_key=""))  # a drag cannot go on in what was taken back
            if self._done:  # nor in what stood before it
                self._done[-1] = self._done[-1]._replace(merge_key="")
            self._swap(step.before)

    def redo(self) -> None:
        """Do the last undone step again."""
        if self._undone:
            step = self._undone.pop()
            self._done.append(step)
            self._swap(step.after)

    @property
    def undo_label(self) -> str:
        return self._done[-1].label if self._done else ""

    @property
    def redo_label(self) -> str:
        return self._undone[-1].label if self._undone else ""

    @property
    def steps(self) -> tuple[Step, ...]:
        """The steps done since the build was opened, oldest first."""
        return tuple(self._done)

    @property
    def trail(self) -> tuple[str, ...]:
        """Their labels."""
        return tuple(step.label for step in self._done)

    def replace(self, build: Build, *, saved: bool) -> None:
        """Start over with another build: the trail is emptied. One that is not saved anywhere counts as changed."""
        self._done.clear()
        self._undone.clear()
        self._saved, self._recovered = build, not saved
        self._swap(build)

    def to_write(self) -> Build:
        """The build as it is to be written: its revision one above what was last saved or opened."""
        return self._build.model_copy(update={"revision": self._saved.revision + 1})

    def mark_saved(self, written: Build) -> None:
        """`written` is on disk: it becomes the current build, its trail kept."""
        self._saved, self._recovered = written, False
        self._swap(written)

    def _swap(self, build: Build) -> None:
        self._build = build
        self.revision += 1
        for listener in self._listeners:
            listener()
