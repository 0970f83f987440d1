"""Photos of a build: copies in a folder beside its file, known by name and by what they held when taken in."""

from __future__ import annotations

import hashlib
import shutil
from collections.abc import Iterator
from functools import lru_cache
from pathlib import Path
from typing import Literal

from keelroom.document.edits import fresh_id
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import Photo
from keelroom.errors import DocumentError

LARGEST = 60_000_000
"""bytes of a photo that is taken in"""
HEADS = {b"\xff\xd8\xff": ".jpg", b"\x89PNG\r\n\x1a\n": ".png"}
"""How files of the sorts that can be shown begin, and their usual ending."""
State = Literal["there", "missing", "changed"]


def folder_of(build_file: Path) -> Path:
    """Where the photos of a build's file stand."""
    return build_file.with_name(f"{build_file.stem} photos")


def take_in(build_file: Path, source: Path, there: tuple[Photo, ...]) -> Photo:
    """Copy a photo into the folder beside the build. Raises DocumentError saying what was expected; nothing is copied
    then."""
    try:
        size = source.stat().st_size
        if size > LARGEST:
            raise DocumentError(
                "photo_too_large",
                f"{source.name} has {size / 1e6:.0f} MB: up to {LARGEST / 1e6:.0f} MB are taken. Make it smaller first",
            )
        data = source.read_bytes()
    except OSError as error:
        raise DocumentError("photo_unreadable", f"{source.name} cannot be read: {error.strerror}") from None
    ending = next((ending for head, ending in HEADS.items() if data.startswith(head)), None)
    if ending is None:
        raise DocumentError("photo_no_picture", f"{source.name} is no picture known here: JPEG or PNG was expected")
    digest = hashlib.sha256(data).hexdigest()
    folder = folder_of(build_file)
    name = _free_name(folder, source.stem[:80], ending, digest)
    try:
        folder.mkdir(exist_ok=True)
        if not (folder / name).exists():
            (folder / name).write_bytes(data)
    except OSError as error:
        raise DocumentError("photo_not_kept", f"{name} cannot be kept beside the build: {error.strerror}") from None
    return Photo(id=fresh_id(there, "photo"), file=name, digest=digest)


def _free_name(folder: Path, stem: str, ending: str, digest: str) -> str:
    """Its own name where nothing else has it; a file that holds the same is used again."""
    number = 1
    while True:
        name = f"{stem}{'' if number == 1 else f' {number}'}{ending}"
        if not (folder / name).exists() or _digest(folder / name) == digest:
            return name
        number += 1


def _digest(path: Path) -> str:
    """Of what a file holds; '' where it cannot be read. Read again only where it was written meanwhile."""
    try:
        stat = path.stat()
        return _digest_of(path, stat.st_mtime_ns, stat.st_size)
    except OSError:
        return ""


@lru_cache(256)
def _digest_of(path: Path, _written: int, _size: int) -> str:
    return hashlib.sha256(path.read_bytes()).hexdigest()


def state_of(build_file: Path | None, photo: Photo) -> State:
    """Whether it still stands beside the build as it was taken in."""
    found = _digest(folder_of(build_file) / photo.file) if build_file is not None and photo.file else ""
    return "missing" if not found else "there" if found == photo.digest else "changed"


def photos_of(build: Build) -> Iterator[Photo]:
    """Every photo of a build."""
    for trial in build.logbook.trials:
        yield from trial.photos


def carry(build: Build, before: Path | None, after: Path) -> tuple[str, ...]:
    """Copy the photos to the folder of another file of the build; names of those that could not be."""
    if before is None or folder_of(before) == folder_of(after):
        return ()
    lost = []
    for photo in photos_of(build):
        source, target = folder_of(before) / photo.file, folder_of(after) / photo.file
        try:
            target.parent.mkdir(exist_ok=True)
            if not target.exists():
                shutil.copyfile(source, target)
        except OSError:
            lost.append(photo.file)
    return tuple(dict.fromkeys(lost))
