"""A file that leaves the program is written whole or not at all."""

from __future__ import annotations

from pathlib import Path

from keelroom.build.file import write_atomically
from keelroom.errors import DocumentError, ExportError


def write_whole(path: Path, data: bytes, code: str) -> None:
    """Write the file; an older one stays where that fails. Raises ExportError under `code`, saying why."""
    try:
        write_atomically(path, data)
    except DocumentError as error:
        raise ExportError(code, error.message, path=str(path)) from None
