"""The blank survey sheet to take to the car: every reading of the tape walk with its picture and room to write."""

from __future__ import annotations

import io
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from reportlab.lib.pagesizes import A4
from reportlab.lib.units import mm
from reportlab.platypus import Flowable, KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from keelroom.build.fields import get, owner_and_spec
from keelroom.build.quantity import described
from keelroom.build.schema.build import Build
from keelroom.drawing.survey import picture, where_of
from keelroom.export.pdf import RULE, STYLES, SceneFlowable, fonts, safe
from keelroom.export.whole import write_whole

Path_ = tuple[str, ...]
Section = tuple[str, Sequence[tuple[str, Path_]]]
"""Title, and the readings as (words, path)."""
WIDTH = A4[0] - 24 * mm


def write_survey_sheet(build: Build, sections: Sequence[Section], path: Path, system: str) -> None:
    """Write the sheet; what is measured already is printed faintly beside its line. Raises ExportError saying why."""
    write_whole(path, survey_sheet_bytes(build, sections, system), "survey_sheet_not_written")


def survey_sheet_bytes(build: Build, sections: Sequence[Section], system: str) -> bytes:
    """The PDF's bytes."""
    fonts()
    buffer = io.BytesIO()
    document = SimpleDocTemplate(buffer, pagesize=A4, leftMargin=12 * mm, rightMargin=12 * mm, topMargin=12 * mm, bottomMargin=12 * mm,
                                 title="Survey sheet", author="Keel Room", invariant=1)  # fmt: skip
    unit = "inches and sixteenths" if system == "us" else "millimetres"
    story: list[Flowable] = [
        Paragraph(safe(f"Survey sheet: {build.brief.title or 'untitled build'}"), STYLES["title"]),
        Paragraph(f"Write {unit}. Three datums: left edge and lower edge of the panel opening seen from the front, and the rear face of the "
                  "core support. Mark T for tape, E for by eye. Battery disconnected, fans unplugged, engine cold, vehicle on stands.", STYLES["small"]),
        Spacer(1, 4),
    ]  # fmt: skip
    for title, readings in sections:
        if readings:
            story.append(_section(build, title, readings, system))
    document.build(story)
    return buffer.getvalue()


def _section(build: Build, title: str, readings: Sequence[tuple[str, Path_]], system: str) -> Flowable:
    rows: list[list[Any]] = []
    drawn = ""
    for words, path in readings:
        where = where_of(path)
        _, spec = owner_and_spec(build, path)
        value = get(build, path)
        known = described(value, spec.kind, system) if value is not None and spec else ""
        scene = picture(path, "") if where else None
        key = f"{where.base}{where.start}{where.end}" if where else ""
        cell: Any = SceneFlowable(scene, 40 * mm) if scene is not None and key != drawn else ""
        drawn = key
        said = f"{safe(words)}<br/><font size=7 color='#5b666e'>{safe(where.words if where else '')}</font>"
        rows.append(
            [
                Paragraph(said, STYLES["body"]),
                "",
                "T   E",
                "again:",
                Paragraph(f"<font color='#8b959b'>{safe(known)}</font>", STYLES["small"]),
                cell,
            ]
        )
    table = Table(rows, colWidths=[0.33 * WIDTH, 0.16 * WIDTH, 0.07 * WIDTH, 0.12 * WIDTH, 0.11 * WIDTH, 0.21 * WIDTH], hAlign="LEFT",
                  style=TableStyle([("LINEBELOW", (0, 0), (-1, -1), 0.3, RULE), ("VALIGN", (0, 0), (-1, -1), "BOTTOM"), ("FONT", (2, 0), (3, -1), "Body", 7.5),
                                    ("BOX", (1, 0), (1, -1), 0.6, RULE), ("TOPPADDING", (0, 0), (-1, -1), 1), ("BOTTOMPADDING", (0, 0), (-1, -1), 2)]))  # fmt: skip
    head = Paragraph(safe(title), STYLES["head"])
    return KeepTogether([head, table]) if len(rows) < 6 else _loose(head, table)


def _loose(head: Flowable, table: Table) -> Flowable:
    return Table(
        [[head], [table]], colWidths=[WIDTH], style=TableStyle([("LEFTPADDING", (0, 0), (-1, -1), 0)]), hAlign="LEFT", splitByRow=1
    )
