"""Autosave beside nothing of the user's: one recovery file per window in the state folder, the same format."""

from __future__ import annotations

import json
import os
from dataclasses import dataclass
from pathlib import Path

from keelroom.build.file import load, serialised, write_atomically
from keelroom.build.schema.build import Build
from keelroom.errors import DocumentError


def state_folder() -> Path:
    """Where recovery files live: XDG_STATE_HOME or its default."""
    base = os.environ.get("XDG_STATE_HOME") or str(Path.home() / ".local" / "state")
    return Path(base) / "keelroom"


@dataclass(frozen=True)
class Recovered:
    """A build left behind by a window that did not close, and the file it came from ('' if never saved)."""

    build: Build
    origin: str
    path: Path


class Autosave:
    """Keeps the recovery file of one process."""

    def __init__(self, folder: Path | None = None) -> None:
        self.folder = folder or state_folder()
        self.path = self.folder / f"recovery-{os.getpid()}.keelroom"

    def keep(self, build: Build, origin: str) -> None:
        """Write the recovery copy. Raises DocumentError where it cannot."""
        try:
            self.folder.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            raise DocumentError("not_written", f"The recovery copy could not be written: {error.strerror}") from None
        write_atomically(self.path, serialised(build))
        write_atomically(self._note(self.path), json.dumps({"origin": origin}).encode())

    def discard(self) -> None:
        """The build is safe elsewhere or given up: forget the recovery copy."""
        for path in (self.path, self._note(self.path)):
            path.unlink(missing_ok=True)

    @staticmethod
    def _note(path: Path) -> Path:
        return path.with_suffix(".origin")

    def left_behind(self) -> list[Recovered]:
        """Recovery copies of processes that are gone, newest first; unreadable ones are passed over."""
        found = []
        for path in sorted(self.folder.glob("recovery-*.keelroom"), key=lambda p: p.stat().st_mtime, reverse=True):
            if path == self.path or _alive(path):
                continue
            try:
                origin = json.loads(self._note(path).read_text()).get("origin", "")
                found.append(Recovered(load(path), origin, path))
            except (DocumentError, OSError, ValueError):
                continue
        return found

    def forget(self, recovered: Recovered) -> None:
        """Remove a recovery copy that was taken over or declined."""
        for path in (recovered.path, self._note(recovered.path)):
            path.unlink(missing_ok=True)


def _alive(path: Path) -> bool:
    try:
        os.kill(int(path.stem.split("-")[1]), 0)
    except (ProcessLookupError, ValueError):
        return False
    except PermissionError:
        return True
    return True
