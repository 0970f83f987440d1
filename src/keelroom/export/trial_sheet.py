"""A blank sheet of a test, to be filled in with a pen beside the car."""

from __future__ import annotations

from pathlib import Path

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import mm
from reportlab.platypus import Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from keelroom.assess.drives.words import clock
from keelroom.assess.trials.expected import Expect, Foretold
from keelroom.assess.trials.words import expect_words, fan_words
from keelroom.catalogue.protocols import Protocol
from keelroom.document.schema.build import Build
from keelroom.export.pdf import INK, _style, fonts, safe

ROWS = 8
"""Empty lines for readings."""


def write_blank(path: Path, build: Build, protocol: Protocol, found: Foretold | None, system: str) -> None:
    """Write the sheet: steps, cautions, what it should read, and room for what it did. Raises OSError."""
    fonts()
    expects = found.expects if found else ()
    head, body, note = _style("trial-head", 15, "Strong"), _style("trial-body", 10), _style("trial-note", 8.5)
    page = LETTER if system == "us" else A4
    name = build.package.name if build.packages else ""
    story = [
        Paragraph(safe(protocol.name), head),
        Paragraph(safe(f"{protocol.purpose}. Package: {name or 'in use'}"), body),
        Paragraph(safe(f"Stop at once: {protocol.stop} {protocol.caution}"), body),
        Spacer(1, 3 * mm),
    ]
    if protocol.needs:
        story.append(Paragraph(safe(f"It must run {clock(protocol.needs)} to mean something."), note))
    for step in protocol.steps:
        when = f"{step.minute:g} min" if step.minute >= 0 else "before"
        story.append(Paragraph(safe(f"[  ] {when}: {step.words}"), body))
    told = [_expected(one, system) for one in expects] + ([fan_words(found.fans, system)] if found else [])
    story += [Spacer(1, 3 * mm), *(Paragraph(safe(words), note) for words in told)]
    heads = ["Minute", *(one.sensor.name for one in expects[:4]), "Fans", "Note"]
    table = Table([["Day, shade:", "", "Wind:", "", "Read by:"], *[]], hAlign="LEFT")
    grid = Table([heads, *[[""] * len(heads) for _ in range(ROWS)]], rowHeights=[None, *[9 * mm] * ROWS], hAlign="LEFT")
    grid.setStyle(TableStyle([("GRID", (0, 0), (-1, -1), 0.5, INK), ("FONT", (0, 0), (-1, 0), "Body", 8)]))
    table.setStyle(TableStyle([("FONT", (0, 0), (-1, -1), "Body", 9)]))
    story += [Spacer(1, 3 * mm), table, Spacer(1, 2 * mm), grid]
    SimpleDocTemplate(str(path), pagesize=page, title=protocol.name, topMargin=16 * mm, bottomMargin=14 * mm).build(
        story
    )


def _expected(one: Expect, system: str) -> str:
    return f"{one.sensor.name} should read {expect_words(one, system)} at its end. {one.meaning}"
