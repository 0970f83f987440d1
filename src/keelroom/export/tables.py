"""Tables as text to paste and as CSV files."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence
from pathlib import Path

from keelroom.export.whole import write_whole

Rows = Sequence[Sequence[str]]


def as_text(rows: Rows) -> str:
    """Tab-separated, a line a row: what a spreadsheet pastes as cells."""
    return "\n".join("\t".join(harmless(" ".join(cell.split())) for cell in row) for row in rows)


def harmless(cell: str) -> str:
    """The cell as text no spreadsheet takes for a formula: what begins like one and is no number gets an apostrophe
    ahead."""
    if not cell.startswith(("=", "+", "-", "@", "\t", "\r", "\n")):
        return cell
    try:
        float(cell)
    except ValueError:
        return "'" + cell
    return cell


def on_its_face(rows: Rows, minds: Sequence[str]) -> Rows:
    """A list for the bench: what is not settled and what to mind stand over it."""
    return [*((mind,) for mind in minds), *rows]


def write_csv(rows: Rows, path: Path) -> None:
    """Write a CSV file whole or not at all. Raises ExportError saying why."""
    buffer = io.StringIO()
    csv.writer(buffer).writerows([[harmless(cell) for cell in row] for row in rows])
    write_whole(path, buffer.getvalue().encode("utf-8-sig"), "csv_not_written")
