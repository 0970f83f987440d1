"""Recovery copies: beside nothing of the user's, one per window in the state folder, in the format of every file.

A copy is its owner's alone and is called by a name nobody else has. Whether its window still lives is told by the lock
file beside it, which the system lets go of however the window ends.
"""

from __future__ import annotations

import json
import os
import uuid
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from threading import Condition, Lock, Thread
from typing import NamedTuple

from keelroom.document.difference import differences, worded
from keelroom.document.file import load, serialised
from keelroom.document.schema.build import Build
from keelroom.document.writing import PRIVATE, clear_abandoned, own, write_atomically
from keelroom.errors import DocumentError, readable


def state_folder() -> Path:
    """Where recovery copies live: XDG_STATE_HOME or its default."""
    base = os.environ.get("XDG_STATE_HOME") or str(Path.home() / ".local" / "state")
    return Path(base) / "keelroom"


class Origin(NamedTuple):
    """The file a copy grew from, '' if it was never saved or that is not known, and the digest of what that file then
    held."""

    path: str = ""
    digest: str = ""


@dataclass(frozen=True)
class Recovered:
    """A build left behind by a window that did not close.

    origin : the file it came from, '' if it was never saved or that is not known;  grew_from : digest of what that
             file held then
    """

    build: Build
    origin: str
    path: Path
    kept: datetime
    grew_from: str = ""

    @property
    def title(self) -> str:
        return readable(self.build.brief.title, 60) or "an untitled build"

    def story(self) -> str:
        """File, date, and what differs from the file as it stands now."""
        when = f"kept {self.kept:%Y-%m-%d %H:%M}"
        if not self.origin:
            return f"{when}, not saved to any file known"
        origin = Path(self.origin)
        name = readable(origin.name, 60)
        try:
            saved, written = load(origin), datetime.fromtimestamp(origin.stat().st_mtime)
        except (DocumentError, OSError):
            return f"{when}, from {name}, which cannot be read now"
        changes = tuple(map(worded, differences(saved, self.build)))
        age = f"; {name} was written later, {written:%Y-%m-%d %H:%M}" if written > self.kept else ""
        if not changes:
            return f"{when}, says the same as {name}{age}"
        more = f" and {len(changes) - 2} more" if len(changes) > 2 else ""
        return f"{when}, from {name}{age}. Differs: {'; '.join(changes[:2])}{more}"


class LeftBehind(list[Recovered]):
    """Recovery copies nobody works on, newest first, and a word on each that could not be used."""

    def __init__(self) -> None:
        super().__init__()
        self.passed_over: list[str] = []


class Autosave:
    """Keeps the recovery copy of one window."""

    def __init__(self, folder: Path | None = None) -> None:
        self.folder = folder or state_folder()
        self.path = self.folder / f"recovery-{uuid.uuid4().hex}.keelroom"
        self._held: int | None = None

    def keep(self, build: Build, origin: Origin) -> None:
        """Write the recovery copy. Raises DocumentError where it cannot."""
        self._claim()
        write_atomically(
            self._note(self.path), json.dumps({"origin": origin.path, "digest": origin.digest}).encode(), PRIVATE
        )
        write_atomically(self.path, serialised(build), PRIVATE)

    def _claim(self) -> None:
        if self._held is not None:
            return
        try:
            self.folder.mkdir(mode=0o700, parents=True, exist_ok=True)
            self.folder.chmod(0o700)
            self._held = own(self._lock(self.path))
        except (OSError, ValueError) as error:
            why = getattr(error, "strerror", None) or "that is no name of a folder"
            raise DocumentError(
                "not_written", f"No recovery copies can be kept in {readable(str(self.folder), 120)}: {why}"
            ) from None

    def adopt(self, recovered: Recovered) -> None:
        """Go on with a copy as one's own: nothing is written and nothing removed, so nothing can go wrong on a full
        disk.

        Raises DocumentError where another window took it first.
        """
        try:
            held = own(self._lock(recovered.path))
        except OSError as error:
            raise DocumentError("not_held", f"The recovery copy cannot be taken over: {error.strerror}") from None
        if held is None or not recovered.path.exists():
            raise DocumentError("not_held", "Another window has taken that recovery copy over")
        self.discard()
        self.path, self._held = recovered.path, held

    def discard(self) -> None:
        """The build is safe elsewhere or given up: forget the recovery copy."""
        if self._held is not None:
            self._remove(self.path)
            os.close(self._held)
            self._held = None

    def forget(self, recovered: Recovered) -> None:
        """Remove a recovery copy that was declined, unless another window works on it."""
        with suppress(OSError):
            held = own(self._lock(recovered.path))
            if held is not None:
                self._remove(recovered.path)
                os.close(held)

    def _remove(self, path: Path) -> None:
        for each in (path, self._note(path), self._lock(path)):
            with suppress(OSError):
                each.unlink()

    @staticmethod
    def _note(path: Path) -> Path:
        return path.with_suffix(".origin")

    @staticmethod
    def _lock(path: Path) -> Path:
        return path.with_suffix(".lock")

    def left_behind(self, origin: Path | None = None) -> LeftBehind:
        """Recovery copies of windows that are gone; only those of the file `origin` where one is given. Clears other
        leftovers."""
        left = LeftBehind()
        clear_abandoned(self.folder)
        with suppress(OSError):
            for path in self.folder.glob("recovery-*.keelroom"):
                if path != self.path:
                    self._look_at(path, left)
        if origin is not None:
            left[:] = [
                found for found in left if found.origin and os.path.realpath(found.origin) == os.path.realpath(origin)
            ]
        left.sort(key=lambda found: found.kept, reverse=True)
        return left

    def _look_at(self, path: Path, left: LeftBehind) -> None:
        try:
            if path.is_symlink():
                raise DocumentError("link", "it is a link, and copies never are")
            if self._in_use(path):
                return
            origin = self._origin(path)
            left.append(
                Recovered(load(path), origin.path, path, datetime.fromtimestamp(path.stat().st_mtime), origin.digest)
            )
        except (DocumentError, OSError, OverflowError) as error:
            name = readable(path.name, 80)
            why = getattr(error, "message", None) or getattr(error, "strerror", None) or "it cannot be read"
            left.passed_over.append(
                "A recovery copy was passed over and left where it is: " + (why if name in why else f"{name}, {why}")
            )

    def _in_use(self, path: Path) -> bool:
        try:
            held = own(self._lock(path))
        except OSError:
            return False  # nothing can be held in such a folder, by nobody
        if held is not None:
            os.close(held)
        return held is None

    def _origin(self, path: Path) -> Origin:
        try:
            note = json.loads(self._note(path).read_bytes())
            told = [note.get(name, "") for name in ("origin", "digest")]
        except (OSError, ValueError, AttributeError, RecursionError):
            return Origin()
        return Origin(*(text if isinstance(text, str) and "\0" not in text else "" for text in told))


class Keeper:
    """Writes recovery copies in a thread of its own, so that neither a slow disk nor a busy window holds up the other.

    A build offered is written `within` seconds later, whatever is offered meanwhile: then the newest is. `offer`,
    `rest`, `write_now` and `end` are called from the window's thread, `failed` from either. `_turn` guards what waits
    and is never held while something is written; `_pen` is held by whoever writes.
    """

    def __init__(self, autosave: Autosave, failed: Callable[[str], object], within: float = 0.8) -> None:
        self.autosave, self.failed, self.within = autosave, failed, within
        self._turn, self._pen = Condition(), Lock()
        self._waiting: tuple[Build, Origin] | None = None
        self._wanted = 0
        self._ended = False
        self._said = ""
        self._thread: Thread | None = None

    def offer(self, build: Build, origin: Origin) -> None:
        """Have this build kept soon."""
        with self._turn:
            self._waiting = (build, origin)
            if self._thread is None:
                self._thread = Thread(target=self._run, name="recovery copies", daemon=True)
                self._thread.start()
            self._turn.notify_all()

    def rest(self) -> None:
        """What waits need not be kept: it is safe elsewhere. Returns when nothing is being written."""
        with self._turn:
            self._waiting = None
            self._wanted += 1
        with self._pen:
            return

    def write_now(self, build: Build, origin: Origin) -> bool:
        """Keep this build before returning; whether it could be."""
        self.rest()
        with self._pen:
            return self._write(build, origin)

    def end(self) -> None:
        """Stop for good; what waits is given up."""
        self.rest()
        with self._turn:
            self._ended = True
            self._turn.notify_all()

    def _run(self) -> None:
        while True:
            with self._turn:
                self._turn.wait_for(lambda: self._ended or self._waiting is not None)
                self._turn.wait_for(lambda: self._ended, timeout=self.within)
                if self._ended:
                    return
                taken, self._waiting, wanted = self._waiting, None, self._wanted
            if taken is not None:
                with self._pen:
                    if wanted == self._wanted:
                        self._write(*taken)

    def _write(self, build: Build, origin: Origin) -> bool:
        try:
            self.autosave.keep(build, origin)
        except DocumentError as error:
            if error.message != self._said:
                self._said = error.message
                self.failed(error.message)
            return False
        self._said = ""
        return True
