"""Reading and writing `.keelroom` files: refuse with a sentence or load whole, write whole or not at all."""

from __future__ import annotations

import json
import math
import stat
from collections import Counter
from hashlib import sha256
from pathlib import Path
from typing import Any, NamedTuple, NoReturn

from pydantic import ValidationError

from keelroom.document.migrate import migrate
from keelroom.document.schema.build import FORMAT, VERSION, Build
from keelroom.document.writing import named, write_atomically
from keelroom.errors import DocumentError, readable

ENDING = ".keelroom"
HEAD = 400
"""Bytes in which a build says that it is one."""
LARGEST = 20_000_000
"""Bytes; a build is some tens of kilobytes."""


class Stored(NamedTuple):
    """A build as it stands in a file: what it says, the digest of the file's bytes, and what has to be said about the writing."""

    build: Build
    digest: str
    note: str = ""


def load(path: Path) -> Build:
    """The build in a file. Raises DocumentError with one sentence that says what and where."""
    return read(path).build


def read(path: Path) -> Stored:
    """The build in a file with the digest of its bytes. Raises DocumentError with one sentence that says what and where."""
    data = _bytes(path)
    return Stored(parse(data, path), sha256(data).hexdigest())


def holds_build(path: Path) -> bool:
    """Whether a file's beginning says that it is a build, whatever it is called."""
    try:
        if not stat.S_ISREG(path.stat().st_mode):
            return False
        with path.open("rb") as file:
            return f'"{FORMAT}"'.encode() in file.read(HEAD)
    except (OSError, ValueError):
        return False


def digest(path: Path) -> str:
    """The digest of a file's bytes as they are now; '' where there is none to be read."""
    try:
        return sha256(_bytes(path)).hexdigest()
    except DocumentError:
        return ""


def _bytes(path: Path) -> bytes:
    """What is in a file, if it can be a build at all: a device or a pipe would be read for ever."""
    try:
        kind = path.stat()
        if not stat.S_ISREG(kind.st_mode):
            _refuse("no_file", path, "is not a file but a " + ("folder" if stat.S_ISDIR(kind.st_mode) else "device or a pipe"))
        if kind.st_size > LARGEST:
            _refuse("too_large", path, f"is over {LARGEST // 1_000_000} MB, far more than a build")
        return path.read_bytes()
    except OSError as error:
        raise DocumentError("unreadable", f"{named(path)} cannot be read: {error.strerror}", path=str(path)) from None
    except ValueError:
        _refuse("unreadable", path, "is no name a file can have")


def parse(data: bytes, path: Path) -> Build:
    """The build in `data`; `path` only names it in messages."""
    raw = _raw(data, path)
    if raw.get("format") != FORMAT:
        _refuse("foreign", path, f"is not a Keel Room build: its “format” is not “{FORMAT}”")
    version = raw.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        _refuse("no_version", path, "has no valid “version”; expected a whole number")
    if version > VERSION:
        _refuse("newer", path, f"was written by a newer Keel Room (format {version}); this one reads up to {VERSION}")
    try:
        return Build.model_validate_json(json.dumps(migrate(raw, VERSION)))
    except ValidationError as error:
        first = error.errors()[0]
        place = " / ".join(_place(raw, first["loc"])) or "the document"
        more = f" ({error.error_count() - 1} more)" if error.error_count() > 1 else ""
        raise DocumentError(
            "invalid", f"{named(path)}: {readable(place, 120)}: {readable(first['msg'], 160)}{more}", path=str(path), loc=first["loc"]
        ) from None
    except RecursionError:
        _refuse("too_deep", path, "is nested too deeply to be a build")


def _refuse(code: str, path: Path, why: str) -> NoReturn:
    raise DocumentError(code, f"{named(path)} {why}", path=str(path))


def _raw(data: bytes, path: Path) -> dict[str, Any]:
    def no_duplicates(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
        members = dict(pairs)
        if len(members) != len(pairs):
            repeated = min(key for key, count in Counter(key for key, _ in pairs).items() if count > 1)
            _refuse("duplicate_key", path, f"has the key “{readable(repeated, 60)}” twice in one object")
        return members

    def finite(text: str) -> float:
        value = float(text)
        if not math.isfinite(value):
            _refuse("not_finite", path, f"holds {readable(text, 40)}, which is not a finite number")
        return value

    try:
        raw = json.loads(data.decode("utf-8"), object_pairs_hook=no_duplicates, parse_float=finite, parse_constant=finite)
    except UnicodeDecodeError:
        _refuse("not_text", path, "is not a text file")
    except RecursionError:
        _refuse("too_deep", path, "is nested too deeply to be a build")
    except json.JSONDecodeError as error:
        _refuse("not_json", path, f"is cut short or damaged at line {error.lineno}: {error.msg}")
    except ValueError:
        _refuse("not_json", path, "holds a number that is too long to read")
    if not isinstance(raw, dict):
        _refuse("foreign", path, "is not a Keel Room build: expected a JSON object")
    return raw


def _place(raw: Any, location: tuple[int | str, ...]) -> list[str]:
    """The error's place in words a person can follow: list members by their id where they have one."""
    words: list[str] = []
    for step in location:
        try:
            raw = raw[step]
        except (KeyError, IndexError, TypeError):
            raw = None
        named = raw.get("id") if isinstance(raw, dict) and isinstance(step, int) else None
        words.append(str(named or (step + 1 if isinstance(step, int) else step)))
    return words


def serialised(build: Build) -> bytes:
    """The file's bytes: JSON, two-space indent, keys in schema order."""
    return (build.model_dump_json(indent=2) + "\n").encode()


def save(build: Build, path: Path, known: str = "") -> Stored:
    """Write the build as it is and return it as written. Raises DocumentError; the old file stays.

    known : digest of the file as it was read or written last; where another has changed it since, that is refused
            (code “changed_on_disk”). '' where the file may be replaced whatever it holds.
    """
    if known and digest(path) not in ("", known):
        _refuse("changed_on_disk", path, "was changed by another program since it was opened here")
    data = serialised(build)
    return Stored(build, sha256(data).hexdigest(), write_atomically(path, data))
