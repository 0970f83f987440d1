"""Reading and writing `.keelroom` files: refuse with a sentence or load whole, write whole or not at all."""

from __future__ import annotations

import json
import math
import re
import stat
from collections import Counter
from hashlib import sha256
from pathlib import Path
from typing import Any, NamedTuple, NoReturn

from pydantic import ValidationError
from pydantic_core import PydanticSerializationError

from keelroom.document.edits import verify
from keelroom.document.migrate import migrate
from keelroom.document.refusals import reason
from keelroom.document.schema.build import FORMAT, VERSION, Build
from keelroom.document.text import all_harmless, harmless
from keelroom.document.writing import named, write_atomically
from keelroom.errors import DocumentError, InputError, readable

ENDING = ".keelroom"
HEAD = 400
"""Bytes in which a build says that it is one."""
LARGEST = 20_000_000
"""Bytes; a build is some tens of kilobytes."""


class Stored(NamedTuple):
    """A build as it stands in a file: what it says, the digest of the file's bytes, and what has to be said about the
    writing."""

    build: Build
    digest: str
    note: str = ""


def load(path: Path) -> Build:
    """The build in a file. Raises DocumentError with one sentence that says what and where."""
    return read(path).build


def read(path: Path) -> Stored:
    """The build in a file with the digest of its bytes. Raises DocumentError with one sentence that says what and
    where."""
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
            _refuse(
                "no_file",
                path,
                "is not a file but a " + ("folder" if stat.S_ISDIR(kind.st_mode) else "device or a pipe"),
            )
        if kind.st_size > LARGEST:
            _refuse("too_large", path, f"is over {LARGEST // 1_000_000} MB, far more than a build")
        return path.read_bytes()
    except OSError as error:
        raise DocumentError("unreadable", f"{named(path)} cannot be read: {error.strerror}", path=str(path)) from None
    except ValueError:
        _refuse("unreadable", path, "is no name a file can have")


def parse(data: bytes, path: Path) -> Build:
    """The build in `data`; `path` only names it in messages."""
    text = _text_of(data, path)
    raw, sound = _raw(text, path)
    sound = sound and all_harmless(text)
    if not sound:
        raw = _fit(raw, (), path)
    if raw.get("format") != FORMAT:
        _refuse("foreign", path, f"is not a Keel Room build: its “format” is not “{FORMAT}”")
    version = raw.get("version")
    if not isinstance(version, int) or isinstance(version, bool) or version < 1:
        _refuse("no_version", path, "has no valid “version”; expected a whole number")
    if version > VERSION:
        _refuse("newer", path, f"was written by a newer Keel Room (format {version}); this one reads up to {VERSION}")
    try:
        # What needs nothing done to it is taken as it was read.
        return Build.model_validate_json(text if sound and version == VERSION else json.dumps(migrate(raw, VERSION)))
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        place = " / ".join(_place(raw, first["loc"]))
        more = f" ({error.error_count() - 1} more)" if error.error_count() > 1 else ""
        sentence = f"{readable(place, 120)}: {reason(first)}" if place else reason(first)
        raise DocumentError("invalid", f"{named(path)}: {sentence}{more}", path=str(path), loc=first["loc"]) from None


def _refuse(code: str, path: Path, why: str) -> NoReturn:
    raise DocumentError(code, f"{named(path)} {why}", path=str(path))


class _Unfit(NamedTuple):
    """A number no build can hold, until it is known where it stands."""

    text: str


DEEPEST = 40
"""Sections and lists within each other; a build has ten or so."""
LONGEST_WHOLE = 18
"""Digits of a whole number: what is longer is no figure of a build."""
_BRACKETS = re.compile(r'(?:[^"\[\]{}]+|"[^"\\]*(?:\\.[^"\\]*)*"?)*+([\[\]{}])')
"""A bracket, with all that comes before it since the last, strings whole."""
_LINES = re.compile("\r\n|\r|\n")


def _text_of(data: bytes, path: Path) -> str:
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        _refuse(
            "not_text",
            path,
            f"is not a text file: line {_line(data[: error.start].decode('utf-8', 'replace'))} is no UTF-8",
        )


def _raw(text: str, path: Path) -> tuple[dict[str, Any], bool]:
    """The document, and whether every number in it is one."""
    unfit: list[_Unfit] = []

    def no_duplicates(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
        members = dict(pairs)
        if len(members) != len(pairs):
            repeated = min(key for key, count in Counter(key for key, _ in pairs).items() if count > 1)
            _refuse("duplicate_key", path, f"has the key “{readable(repeated, 60)}” twice in one object")
        return members

    def no_number(text: str) -> _Unfit:
        unfit.append(_Unfit(text))
        return unfit[-1]

    def finite(text: str) -> float | _Unfit:
        value = float(text)
        return value if math.isfinite(value) else no_number(text)

    def whole(text: str) -> int | _Unfit:
        return int(text) if len(text) <= LONGEST_WHOLE else no_number(text)

    _not_too_deep(text, path)
    try:
        raw = json.loads(
            text, object_pairs_hook=no_duplicates, parse_float=finite, parse_int=whole, parse_constant=no_number
        )
    except json.JSONDecodeError as error:
        cut = error.pos >= len(text.rstrip())
        at = _line(text[: error.pos])
        _refuse(
            "not_json", path, f"is cut short: it ends in the midst, at line {at}" if cut else f"is damaged at line {at}"
        )
    if not isinstance(raw, dict):
        _refuse("foreign", path, "is not a Keel Room build: expected a JSON object")
    return raw, not unfit


def _line(before: str) -> int:
    """The line a text that goes before a place ends in."""
    return len(_LINES.findall(before)) + 1


def _not_too_deep(text: str, path: Path) -> None:
    """Refuse what is nested deeper than any build, before anything follows it down."""
    depth = 0
    for bracket in _BRACKETS.finditer(text):
        if bracket[1] in "]}":
            depth -= 1
            continue
        depth += 1
        if depth > DEEPEST:
            _refuse("too_deep", path, f"is nested too deeply to be a build, at line {_line(text[: bracket.start(1)])}")


def _fit(node: Any, at: tuple[int | str, ...], path: Path, raw: Any = None) -> Any:
    """The document with nothing in it that cannot be kept or shown; what cannot be mended is refused where it
    stands."""
    raw = node if raw is None else raw
    if isinstance(node, dict):
        return {_key(key, at, path, raw): _fit(value, (*at, key), path, raw) for key, value in node.items()}
    if isinstance(node, list):
        return [_fit(value, (*at, k), path, raw) for k, value in enumerate(node)]
    if isinstance(node, _Unfit):
        _misfit("not_finite", path, raw, at, f"holds {readable(node.text, 40)}, which is no number a build can hold")
    if isinstance(node, str):
        return _text(node, at, path, raw)
    return node


def _key(key: str, at: tuple[int | str, ...], path: Path, raw: Any) -> str:
    return _text(key, (*at, "a name"), path, raw)


def _text(text: str, at: tuple[int | str, ...], path: Path, raw: Any) -> str:
    try:
        return harmless(text, str(at[-1]) if at else "")
    except InputError as error:
        _misfit(error.code, path, raw, at, error.message)


def _misfit(code: str, path: Path, raw: Any, at: tuple[int | str, ...], why: str) -> NoReturn:
    place = readable(" / ".join(_place(raw, at)), 120)
    raise DocumentError(code, f"{named(path)}: {place}: {why}", path=str(path), loc=at)


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


def _opens_again(build: Build, data: bytes, path: Path, since: Build | None) -> None:
    """What could not be opened again is not written. Raises DocumentError."""
    if since is None:
        parse(data, path)
        return
    try:
        verify(build, since)
    except InputError as error:
        _refuse(error.code, path, f"was not written, because it could not be opened again: {error.message}")


def serialised(build: Build) -> bytes:
    """The file's bytes: JSON, two-space indent, keys in schema order. Raises DocumentError where a text in it is
    none."""
    try:
        return (build.model_dump_json(indent=2) + "\n").encode()
    except PydanticSerializationError:
        raise DocumentError("half_a_character", "A name or a note holds half a character; type it again") from None


def save(build: Build, path: Path, known: str = "", since: Build | None = None) -> Stored:
    """Write the build as it is and return it as written. Raises DocumentError; the old file stays.

    known : digest of the file as it was read or written last; where another has changed it since, that is refused
            (code “changed_on_disk”). '' where the file may be replaced whatever it holds.
    since : a build that came from a file: only what is not part of it is looked at again; None: all of it
    """
    if known and digest(path) not in ("", known):
        _refuse("changed_on_disk", path, "was changed by another program since it was opened here")
    data = serialised(build)
    if len(data) > LARGEST:
        _refuse(
            "too_large",
            path,
            f"would be over {LARGEST // 1_000_000} MB, and could not be opened again; nothing was written",
        )
    _opens_again(build, data, path, since)
    return Stored(build, sha256(data).hexdigest(), write_atomically(path, data))
