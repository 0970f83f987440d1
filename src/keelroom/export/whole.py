"""A file that leaves the program is written whole or not at all."""

from __future__ import annotations

from pathlib import Path

from keelroom.document.writing import write_atomically
from keelroom.errors import DocumentError, ExportError

LONGEST_NAME = 80
"""Characters of a suggested file name before its ending."""


def write_whole(path: Path, data: bytes, code: str) -> None:
    """Write the file; an older one stays where that fails. Raises ExportError under `code`, saying why."""
    try:
        write_atomically(path, data)
    except DocumentError as error:
        raise ExportError(code, error.message, path=str(path)) from None


def file_name(title: str, otherwise: str) -> str:
    """A file name made from a title: what paths, shells and other systems take for something else is a space."""
    plain = "".join(c if c.isalnum() or c in "-_.,()&'" else " " for c in title)
    return " ".join(plain.split())[:LONGEST_NAME].strip(" .-") or otherwise
