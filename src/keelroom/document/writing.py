"""Writing a file whole or not at all, and telling what a killed writer left from what a living one is about to
finish."""

from __future__ import annotations

import fcntl
import os
import stat
import tempfile
from collections.abc import Iterator
from contextlib import suppress
from hashlib import sha256
from pathlib import Path

from keelroom.errors import DocumentError, readable

PRIVATE = 0o600
"""For its owner alone."""


def write_atomically(path: Path, data: bytes, mode: int | None = None) -> str:
    """Whole file or nothing: temporary file in the same folder, fsync, replace. Returns what has to be said of it, ''
    for nothing.

    A link is followed, so that it goes on pointing at the file. Permissions, owner and group stay as they were where
    this person may give them; a read-only file is refused.
    mode : the permissions wanted; None for those the file has, or those any new file gets
    Raises DocumentError; the old file stays.
    """
    temporary = ""
    try:
        target = Path(os.path.realpath(path))
        old = target.stat() if target.exists() else None
        if old is not None and not stat.S_ISREG(old.st_mode):
            raise DocumentError(
                "no_file", f"{named(path)} is not a file and was left as it is; choose another place", path=str(path)
            )
        if old is not None and (not old.st_mode & 0o222 or not os.access(target, os.W_OK)):
            raise DocumentError(
                "read_only",
                f"{named(path)} is read-only and was left as it is. Nothing was lost; choose another place",
                path=str(path),
            )
        handle, temporary = tempfile.mkstemp(prefix=_prefix(target), suffix=".part", dir=target.parent)
        with os.fdopen(handle, "wb") as file:
            _own(file.fileno())
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
            note = "; ".join(filter(None, (_like(file.fileno(), old, mode), _linked(old))))
            os.replace(temporary, target)
    except (OSError, ValueError) as error:
        if temporary:
            with suppress(OSError):
                os.unlink(temporary)
        why = getattr(error, "strerror", None) or "its name is none a file can have"
        raise DocumentError(
            "not_written",
            f"{named(path)} could not be written: {why}. Nothing was lost; choose another place",
            path=str(path),
        ) from None
    return note


def named(path: Path) -> str:
    """A file in a sentence: its name, or its path where it has none, safe to print."""
    return readable(path.name or str(path), 80)


def one_file(one: Path, other: Path) -> bool:
    """Whether two names are of one file, through links of either sort."""
    try:
        return os.path.realpath(one) == os.path.realpath(other) or os.path.samefile(one, other)
    except (OSError, ValueError):
        return False


def _prefix(target: Path) -> str:
    """Begins the temporary files of one target, whatever the length of its name."""
    return f".keelroom-{sha256(os.fsencode(target.name)).hexdigest()[:12]}-"


def _like(handle: int, old: os.stat_result | None, mode: int | None) -> str:
    """Give the new file the permissions wanted and the owner of the old one; says what could not be kept."""
    if mode is None:
        mode = old.st_mode & 0o7777 if old else 0o666 & ~_mask()
    note = ""
    if old is not None and (old.st_uid, old.st_gid) != (os.geteuid(), os.fstat(handle).st_gid):
        try:
            os.fchown(handle, old.st_uid, old.st_gid)
        except PermissionError:
            with suppress(PermissionError):
                os.fchown(handle, -1, old.st_gid)
            if old.st_uid != os.geteuid():
                note = "it belonged to somebody else and is yours now"
    os.fchmod(handle, mode)
    return note


def _linked(old: os.stat_result | None) -> str:
    """What is to be said of a file that has other names: they go on holding what it held."""
    others = old.st_nlink - 1 if old is not None else 0
    return (
        f"{others} other {'name' if others == 1 else 'names'} of it (hard links) still hold what it said before"
        if others > 0
        else ""
    )


def _mask() -> int:
    mask = os.umask(0)
    os.umask(mask)
    return mask


def _own(handle: int) -> bool:
    """Hold a file for as long as it stays open; False where somebody else does. Where files cannot be held, nobody
    does."""
    try:
        fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        return False
    except OSError:
        return True
    return True


def own(path: Path) -> int | None:
    """Open and hold a file until the handle is closed or the process ends, however it ends; None where somebody else
    holds it.

    A number in a name can come back with another process; a held file cannot. Raises OSError.
    """
    handle = os.open(path, os.O_RDWR | os.O_CREAT | os.O_NOFOLLOW | os.O_CLOEXEC, PRIVATE)
    if _own(handle):
        return handle
    os.close(handle)
    return None


def abandoned(folder: Path, of: Path | None = None) -> Iterator[Path]:
    """Temporary files in `folder` whose writer was killed; only those of the file `of` where one is given."""
    pattern = f"{_prefix(of)}*.part" if of else ".keelroom-*.part"
    for path in sorted(folder.glob(pattern)):
        with suppress(OSError):
            handle = os.open(path, os.O_RDONLY | os.O_NOFOLLOW | os.O_NONBLOCK)
            free = _own(handle)
            os.close(handle)
            if free:
                yield path


def clear_abandoned(folder: Path, of: Path | None = None) -> None:
    """Remove what a killed writer left behind; what cannot be removed stays."""
    with suppress(OSError):
        for path in abandoned(folder, of):
            with suppress(OSError):
                path.unlink()
