"""1:1 templates as a PDF in sheets to be joined: overlap marks, a bar to check the printer, a map of the sheets."""

from __future__ import annotations

import io
import math
from collections.abc import Sequence
from pathlib import Path
from typing import Any, NamedTuple

from reportlab.lib.pagesizes import landscape
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from keelroom.assess.words import not_to_cut
from keelroom.core.packaging.pattern import Pattern
from keelroom.drawing.pattern import pattern_scene
from keelroom.errors import ExportError
from keelroom.export.pdf import ALARM, FAINT, INK, PAPERS, SceneFlowable, fonts
from keelroom.export.whole import write_whole

EDGE = 0.010
"""[m] margin no printer reaches."""
HEAD = 0.016
"""[m] strip at the top of a sheet for its name and the bar."""
OVERLAP = 0.010
BAR = 0.100
"""[m] long, to be measured after printing."""
MARK = 0.006


class Tiling(NamedTuple):
    """How a pattern lies on sheets. across, up: sheets; step [m] from one to the next; page [m]; turned: sheets lie
    on their side."""

    across: int
    up: int
    step: tuple[float, float]
    page: tuple[float, float]
    turned: bool

    @property
    def sheets(self) -> int:
        return self.across * self.up


def tiling(pattern: Pattern, paper: str) -> Tiling:
    """The way to lay a pattern on sheets that takes the fewest."""
    _, _, wide, high = pattern.bounds
    choices = []
    for turned in (False, True):
        page_points = landscape(PAPERS[paper]) if turned else PAPERS[paper]
        page = (page_points[0] / mm / 1000, page_points[1] / mm / 1000)
        step = (page[0] - 2 * EDGE - OVERLAP, page[1] - 2 * EDGE - HEAD - OVERLAP)
        counts = [
            max(math.ceil((size - OVERLAP) / one - 1e-9), 1) for size, one in zip((wide, high), step, strict=True)
        ]
        choices.append(Tiling(counts[0], counts[1], step, page, turned))
    return min(choices, key=lambda choice: (choice.sheets, choice.turned))


def sheets_needed(patterns: Sequence[Pattern], paper: str) -> int:
    """Sheets for all patterns, each printed once however many pieces are cut from it."""
    return sum(tiling(pattern, paper).sheets for pattern in patterns)


def allow_sheets(patterns: Sequence[Pattern], paper: str, most: int) -> int:
    """How many sheets the templates take. Raises ExportError where that is more than `most`."""
    count = sheets_needed(patterns, paper)
    if count > most:
        worst = max(patterns, key=lambda pattern: tiling(pattern, paper).sheets)
        raise ExportError(
            "too_many_sheets",
            f"These templates take {count} sheets of {paper}; {most} are allowed. {worst.name} alone takes "
            f"{tiling(worst, paper).sheets}. "
            "Allow more, print fewer templates, or cut from the DXF",
            sheets=count,
            allowed=most,
        )
    return count


def write_tiles(
    patterns: Sequence[Pattern], path: Path, paper: str, most: int, system: str, minds: Sequence[str] = ()
) -> int:
    """Write the PDF and say how many sheets of templates it has; minds: what to mind, on a last sheet. Raises
    ExportError where it would take more than `most`, or cannot be written."""
    count = allow_sheets(patterns, paper, most)
    write_whole(path, tiles_bytes(patterns, paper, system, minds), "tiles_not_written")
    return count


def tiles_bytes(patterns: Sequence[Pattern], paper: str, system: str, minds: Sequence[str] = ()) -> bytes:
    """The PDF's bytes."""
    fonts()
    buffer = io.BytesIO()
    canvas = Canvas(buffer, invariant=1)
    canvas.setTitle("Templates at 1:1")
    canvas.setAuthor("Keel Room")
    for pattern in patterns:
        _pattern(canvas, pattern, tiling(pattern, paper), system)
    if minds:
        _minds(canvas, paper, minds)
    canvas.save()
    return buffer.getvalue()


def _minds(canvas: Any, paper: str, minds: Sequence[str]) -> None:
    """A sheet of words: what is not settled, and what can hurt."""
    wide, high = PAPERS[paper]
    edge, y = 2 * EDGE * 1000 * mm, PAPERS[paper][1] - 2 * EDGE * 1000 * mm
    canvas.setPageSize((wide, high))
    canvas.setFillColor(INK)
    canvas.setFont("Strong", 11)
    canvas.drawString(edge, y - 11, "Before it is drilled, bent and cut")
    y -= 30
    canvas.setFont("Body", 9)
    for mind in minds:
        for number, line in enumerate(simpleSplit(mind, "Body", 9, wide - 2 * edge - 10)):
            canvas.drawString(edge, y, ("• " if number == 0 else "   ") + line)
            y -= 12
        y -= 4
    canvas.showPage()


def _pattern(canvas: Any, pattern: Pattern, laid: Tiling, system: str) -> None:
    left, bottom, _, _ = pattern.bounds
    scene = pattern_scene(pattern, system, dimensions=False)
    drawing = SceneFlowable(scene, scene.bounds[2] * 1000 * mm)
    for row in range(laid.up):
        for column in range(laid.across):
            canvas.setPageSize((laid.page[0] * 1000 * mm, laid.page[1] * 1000 * mm))
            x0, y0 = left + column * laid.step[0], bottom + row * laid.step[1]
            wide, high = laid.step[0] + OVERLAP, laid.step[1] + OVERLAP
            canvas.saveState()
            clip = canvas.beginPath()
            clip.rect(EDGE * 1000 * mm, EDGE * 1000 * mm, wide * 1000 * mm, high * 1000 * mm)
            canvas.clipPath(clip, stroke=0)
            canvas.translate((EDGE - x0) * 1000 * mm, (EDGE - y0) * 1000 * mm)
            drawing.canv = canvas
            canvas.saveState()
            canvas.translate(scene.bounds[0] * 1000 * mm, scene.bounds[1] * 1000 * mm)
            drawing.draw()
            canvas.restoreState()
            _words(canvas, pattern)
            canvas.restoreState()
            _marks(canvas, laid, (column, row), (wide, high))
            _head(canvas, pattern, laid, (column, row), system)
            canvas.showPage()


def _words(canvas: Any, pattern: Pattern) -> None:
    canvas.setFont("Body", 8)
    canvas.setFillColor(INK)
    for mark in pattern.marks:
        if mark.text:
            canvas.drawString(mark.at[0] * 1000 * mm, mark.at[1] * 1000 * mm + 3, mark.text)
    for bend in pattern.bends:
        words = f"bend {abs(bend.degrees):.0f}° {'up' if bend.degrees > 0 else 'down'}"
        canvas.drawString(
            (bend.start[0] + bend.end[0]) / 2 * 1000 * mm, (bend.start[1] + bend.end[1]) / 2 * 1000 * mm + 2, words
        )


def _marks(canvas: Any, laid: Tiling, at: tuple[int, int], size: tuple[float, float]) -> None:
    """Crosses at the corners of what the next sheet repeats; lay cross on cross and tape."""
    canvas.setStrokeColor(FAINT)
    canvas.setLineWidth(0.4)
    (column, row), (wide, high) = at, size
    xs = [x for x, there in ((OVERLAP / 2, column > 0), (wide - OVERLAP / 2, column < laid.across - 1)) if there]
    ys = [y for y, there in ((OVERLAP / 2, row > 0), (high - OVERLAP / 2, row < laid.up - 1)) if there]
    for x in xs or [wide / 2]:
        for y in ys or [high / 4, 3 * high / 4]:
            if not xs and not ys:
                continue
            cx, cy, arm = (EDGE + x) * 1000 * mm, (EDGE + y) * 1000 * mm, MARK * 1000 * mm
            canvas.line(cx - arm, cy, cx + arm, cy)
            canvas.line(cx, cy - arm, cx, cy + arm)


def _head(canvas: Any, pattern: Pattern, laid: Tiling, at: tuple[int, int], system: str) -> None:
    """Name, which sheet of how many, and the bar."""
    column, row = at
    top = (laid.page[1] - EDGE) * 1000 * mm
    canvas.setFillColor(INK)
    canvas.setFont("Strong", 9)
    canvas.drawString(EDGE * 1000 * mm, top - 9, pattern.name)
    canvas.setFont("Body", 7.5)
    copies = f", cut {pattern.copies}" if pattern.copies > 1 else ""
    canvas.drawString(
        EDGE * 1000 * mm,
        top - 20,
        f"sheet {column + 1} of {laid.across} across, {row + 1} of {laid.up} up; {pattern.material}{copies}",
    )
    warning = not_to_cut(pattern, system)
    said = warning or "Print at 100 %, no fitting to the page; lay cross on cross."
    canvas.setFont("Strong" if warning else "Body", 7.5)
    canvas.setFillColor(ALARM if warning else INK)
    canvas.drawString(
        EDGE * 1000 * mm, top - 30, simpleSplit(said, "Body", 7.5, (laid.page[0] - 2 * EDGE - BAR) * 1000 * mm)[0]
    )
    canvas.setFillColor(INK)
    right = (laid.page[0] - EDGE) * 1000 * mm
    start, y = right - BAR * 1000 * mm, top - 24
    canvas.setStrokeColor(INK)
    canvas.setLineWidth(1.0)
    canvas.line(start, y, right, y)
    for k in range(11):
        x = start + k * BAR / 10 * 1000 * mm
        canvas.line(x, y, x, y + (5 if k % 5 else 9))
    canvas.drawString(start, y + 12, "this bar must measure 100 mm")
