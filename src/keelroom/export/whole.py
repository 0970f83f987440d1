"""A file that leaves the program is written whole or not at all."""

from __future__ import annotations

import os
from pathlib import Path

from keelroom.document.file import ENDING, holds_build
from keelroom.document.writing import named, one_file, write_atomically
from keelroom.errors import DocumentError, ExportError

LONGEST_NAME = 80
"""Characters of a suggested file name before its ending."""


def write_whole(path: Path, data: bytes, code: str) -> None:
    """Write the file; an older one stays where that fails. Raises ExportError under `code`, saying why; never onto a
    build."""
    not_a_build(path)
    try:
        write_atomically(path, data)
    except DocumentError as error:
        raise ExportError(code, error.message, path=str(path)) from None


def not_a_build(path: Path, open_file: Path | None = None) -> None:
    """Nothing that is made of a build goes onto one. Raises ExportError for a name that ends like a build's, a link
    to such, a file that holds one, and the very file that is open, whatever they are called."""
    target = Path(os.path.realpath(path))
    is_open = open_file is not None and one_file(target, open_file)
    if is_open or ENDING in (path.suffix.lower(), target.suffix.lower()) or holds_build(target):
        raise ExportError(
            "onto_a_build",
            f"{named(path)} is a build, or is named like one, and nothing made of a build goes onto one; "
            "choose another name",
            path=str(path),
        )


def file_name(title: str, otherwise: str) -> str:
    """A file name made from a title: what paths, shells and other systems take for something else is a space."""
    plain = "".join(c if c.isalnum() or c in "-_.,()&'" else " " for c in title)
    return " ".join(plain.split())[:LONGEST_NAME].strip(" .-") or otherwise
