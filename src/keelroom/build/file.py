"""Reading and writing `.keelroom` files: refuse with a sentence or load whole, write whole or not at all."""

from __future__ import annotations

import json
import math
import os
import tempfile
from pathlib import Path
from typing import Any, NoReturn

from pydantic import ValidationError

from keelroom.build.migrate import migrate
from keelroom.build.schema.build import FORMAT, VERSION, Build
from keelroom.errors import DocumentError

LARGEST = 20_000_000
"""Bytes; a build is some tens of kilobytes."""


def load(path: Path) -> Build:
    """The build in a file. Raises DocumentError with one sentence that says what and where."""
    try:
        if path.stat().st_size > LARGEST:
            _refuse("too_large", path, f"is over {LARGEST // 1_000_000} MB, far more than a build")
        data = path.read_bytes()
    except OSError as error:
        raise DocumentError("unreadable", f"{path.name} cannot be read: {error.strerror}", path=str(path)) from None
    return parse(data, path)


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
        raise DocumentError("invalid", f"{path.name}: {place}: {first['msg']}{more}", path=str(path), loc=first["loc"]) from None
    except RecursionError:
        _refuse("too_deep", path, "is nested too deeply to be a build")


def _refuse(code: str, path: Path, why: str) -> NoReturn:
    raise DocumentError(code, f"{path.name} {why}", path=str(path))


def _raw(data: bytes, path: Path) -> dict[str, Any]:
    def no_duplicates(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
        keys = [key for key, _ in pairs]
        repeated = {key for key in keys if keys.count(key) > 1} if len(set(keys)) != len(keys) else set()
        if repeated:
            _refuse("duplicate_key", path, f"has the key “{min(repeated)}” twice in one object")
        return dict(pairs)

    def finite(text: str) -> float:
        value = float(text)
        if not math.isfinite(value):
            _refuse("not_finite", path, f"holds {text}, which is not a finite number")
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


def save(build: Build, path: Path) -> Build:
    """Write the build with its revision raised by one and return it as written. Raises DocumentError; the old file stays."""
    written = build.model_copy(update={"revision": build.revision + 1})
    write_atomically(path, serialised(written))
    return written


def write_atomically(path: Path, data: bytes) -> None:
    """Whole file or nothing: temporary file in the same folder, fsync, replace."""
    temporary = ""
    try:
        handle, temporary = tempfile.mkstemp(prefix=f".{path.name}.", dir=path.parent)
        with os.fdopen(handle, "wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        os.chmod(temporary, _mode(path))
        os.replace(temporary, path)
    except OSError as error:
        if temporary and os.path.exists(temporary):
            os.unlink(temporary)
        raise DocumentError(
            "not_written", f"{path.name} could not be written: {error.strerror}. Nothing was lost; choose another place", path=str(path)
        ) from None


def _mode(path: Path) -> int:
    """The permissions the file had, or those any new file gets: a temporary file is private and would stay so."""
    if path.exists():
        return path.stat().st_mode & 0o777
    mask = os.umask(0)
    os.umask(mask)
    return 0o666 & ~mask
