"""Patterns as DXF for a laser or plasma table: release R2010, millimetres, one layer per act of work."""

from __future__ import annotations

import io
from pathlib import Path
from typing import Any

from keelroom.assess.words import not_to_cut
from keelroom.core.packaging.pattern import Pattern
from keelroom.drawing.pattern import holes_of
from keelroom.export.whole import write_whole

MM = 1000.0
LAYERS = {"CUT": 7, "BEND": 3, "DRILL": 5, "MARK": 8}
"""Layer and its colour number; bend lines are dashed as well, so that colour is not the only cue."""
BETWEEN = 30.0
"""[mm] between two patterns on one sheet."""
LETTER = 5.0


def write_dxf(patterns: tuple[Pattern, ...], path: Path, system: str) -> None:
    """Write the patterns side by side, each as often as it is needed. Raises ExportError saying why."""
    write_whole(path, dxf_text(patterns, system).encode("utf-8"), "dxf_not_written")


def dxf_text(patterns: tuple[Pattern, ...], system: str) -> str:
    """The DXF document."""
    import ezdxf.filemanagement  # slow to load: only when a drawing is written
    from ezdxf import units

    document = ezdxf.filemanagement.new("R2010", setup=True)
    document.units = units.MM
    for name, colour in LAYERS.items():
        document.layers.add(name, color=colour, linetype="DASHED" if name == "BEND" else "CONTINUOUS")
    space = document.modelspace()
    across = 0.0
    for pattern in patterns:
        left, bottom, wide, _ = pattern.bounds
        for _ in range(pattern.copies):
            _draw(space, pattern, (across - left * MM, -bottom * MM), not_to_cut(pattern, system))
            across += wide * MM + BETWEEN
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()


def _draw(space: object, pattern: Pattern, shift: tuple[float, float], warning: str) -> None:
    dx, dy = shift
    add: Any = space

    def at(point: tuple[float, float]) -> tuple[float, float]:
        return (point[0] * MM + dx, point[1] * MM + dy)

    for outline in pattern.outlines:
        add.add_lwpolyline([at(p) for p in outline], close=True, dxfattribs={"layer": "CUT"})
    for hole in holes_of(pattern):
        layer = "DRILL" if hole in pattern.holes else "CUT"
        add.add_circle(at(hole.centre), hole.diameter / 2 * MM, dxfattribs={"layer": layer})
    for slot in pattern.slots:
        _slot(add, at(slot.start), at(slot.end), slot.width / 2 * MM)
    for bend in pattern.bends:
        add.add_line(at(bend.start), at(bend.end), dxfattribs={"layer": "BEND"})
        words = f"{abs(bend.degrees):.0f} {'up' if bend.degrees > 0 else 'down'} R{bend.radius * MM:.1f}"
        add.add_text(words, height=LETTER, dxfattribs={"layer": "MARK"}).set_placement(at(bend.start))
    if warning:
        left, bottom, _, high = pattern.bounds
        above = at((left, bottom + high + 2 * LETTER / MM))
        add.add_text(warning, height=2 * LETTER, dxfattribs={"layer": "MARK"}).set_placement(above)
    for mark in pattern.marks:
        if mark.to is not None:
            add.add_line(at(mark.at), at(mark.to), dxfattribs={"layer": "MARK"})
        elif mark.text:
            add.add_text(mark.text, height=LETTER, dxfattribs={"layer": "MARK"}).set_placement(at(mark.at))


def _slot(space: object, start: tuple[float, float], end: tuple[float, float], radius: float) -> None:
    """Two half circles joined, as true arcs: bulge 1 is half a turn."""
    (x0, y0), (x1, y1) = start, end
    length = ((x1 - x0) ** 2 + (y1 - y0) ** 2) ** 0.5 or 1.0
    nx, ny = -(y1 - y0) / length * radius, (x1 - x0) / length * radius
    points = [(x0 - nx, y0 - ny, 0.0), (x1 - nx, y1 - ny, 1.0), (x1 + nx, y1 + ny, 0.0), (x0 + nx, y0 + ny, 1.0)]
    space.add_lwpolyline(points, format="xyb", close=True, dxfattribs={"layer": "DRILL"})  # type: ignore[attr-defined]
