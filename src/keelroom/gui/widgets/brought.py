"""A file brought in to be looked at: its text, or in words why there is none."""

from __future__ import annotations

from pathlib import Path

from keelroom.errors import DocumentError

LARGEST = 1_000_000_000
"""bytes of a file that is read"""


def text_of(path: Path) -> str:
    """The text of a table. Raises DocumentError where the file is too large or cannot be read."""
    try:
        if path.stat().st_size > LARGEST:
            raise DocumentError("csv_too_large", f"{path.name} is larger than a gigabyte: cut it first")
        return path.read_bytes().decode("utf-8-sig", errors="replace")
    except OSError as error:
        raise DocumentError("csv_unreadable", f"{path.name} cannot be read: {error.strerror}") from None
