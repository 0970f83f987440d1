"""The blank survey sheet to take to the car: every reading of the tape walk with its picture and room to write."""

from __future__ import annotations

import io
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from keelroom.document.fields import get, owner_and_spec
from keelroom.document.quantity import described
from keelroom.document.schema.build import Build
from keelroom.drawing.survey import Where, picture, where_of
from keelroom.export.pdf import LONGEST_CELL, PAPERS, RULE, STYLES, SceneFlowable, fonts, safe
from keelroom.export.whole import write_whole
from keelroom.units import inches

FEW = 8
"""Readings that are kept together on a page."""
Path_ = tuple[str, ...]
Section = tuple[str, Sequence[tuple[str, Path_]]]
"""Title, and the readings as (words, path)."""
WIDTH, PICTURE = A4[0] - 24 * mm, 26 * mm


def write_survey_sheet(build: Build, sections: Sequence[Section], path: Path, system: str, paper: str = "A4") -> None:
    """Write the sheet; what is measured already is printed faintly beside its line. Raises ExportError saying why."""
    write_whole(path, survey_sheet_bytes(build, sections, system, paper), "survey_sheet_not_written")


def survey_sheet_bytes(build: Build, sections: Sequence[Section], system: str, paper: str = "A4") -> bytes:
    """The PDF's bytes."""
    fonts()
    buffer = io.BytesIO()
    document = SimpleDocTemplate(
        buffer,
        pagesize=PAPERS[paper],
        leftMargin=12 * mm,
        rightMargin=12 * mm,
        topMargin=12 * mm,
        bottomMargin=12 * mm,
        title="Survey sheet",
        author="Keel Room",
        invariant=1,
    )
    unit = "inches and sixteenths" if inches(system) else "millimetres"
    story: list[Flowable] = [
        Paragraph(safe(f"Survey sheet: {build.brief.title or 'untitled build'}", LONGEST_CELL), STYLES["title"]),
        Paragraph(
            f"Write {unit}. Three datums: left edge and lower edge of the panel opening seen from the front, "
            "and the rear face of the "
            "core support. Mark T for tape, E for by eye. Battery disconnected, fans unplugged, engine cold, "
            "vehicle on stands.",
            STYLES["small"],
        ),
        Spacer(1, 4),
    ]
    drawn: set[Where] = set()
    for title, readings in sections:
        if readings:
            story += _section(build, (title, readings), system, drawn)
    document.build(story)
    return buffer.getvalue()


def _section(build: Build, section: Section, system: str, drawn: set[Where]) -> list[Flowable]:
    """A heading and its readings. drawn: pictures shown already; each is shown once."""
    title, readings = section
    rows: list[list[Any]] = []
    for words, path in readings:
        where = where_of(path)
        _, spec = owner_and_spec(build, path)
        value = get(build, path)
        stands = described(value, spec.kind, system) if value is not None and spec else ""
        scene = picture(path, words=False) if where is not None and where not in drawn else None
        if where is not None:
            drawn.add(where)
        said = (
            f"{safe(words, LONGEST_CELL)}<br/><font size=7 color='#5b666e'>{safe(where.words if where else '')}</font>"
        )
        known = Paragraph(f"<font color='#8b959b'>{safe(stands, LONGEST_CELL)}</font>", STYLES["small"])
        rows.append(
            [
                Paragraph(said, STYLES["body"]),
                "",
                "T   E",
                "again:",
                known,
                SceneFlowable(scene, PICTURE) if scene is not None else "",
            ]
        )
    table = Table(
        rows,
        colWidths=[share * WIDTH for share in (0.36, 0.17, 0.07, 0.15, 0.10, 0.15)],
        hAlign="LEFT",
        style=TableStyle(
            [
                ("LINEBELOW", (0, 0), (-1, -1), 0.3, RULE),
                ("VALIGN", (0, 0), (-1, -1), "MIDDLE"),
                ("FONT", (2, 0), (3, -1), "Body", 7.5),
                ("BOX", (1, 0), (1, -1), 0.6, RULE),
                ("TOPPADDING", (0, 0), (-1, -1), 1),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 2),
            ]
        ),
    )
    head = Paragraph(safe(title, LONGEST_CELL), STYLES["head"])
    return [KeepTogether([head, table])] if len(rows) < FEW else [head, table]
