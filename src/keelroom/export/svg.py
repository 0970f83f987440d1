"""A scene as SVG, drawn at 1:1: one unit is one millimetre."""

from __future__ import annotations

import math
from pathlib import Path
from xml.sax.saxutils import escape

from keelroom.drawing.roles import CENTRED
from keelroom.drawing.scene import Circle, Dimension, Label, Polyline, Rect, Scene, Shape
from keelroom.errors import readable
from keelroom.export.inks import POINT_MM, TEXT, ink_of
from keelroom.export.whole import write_whole

MM = 1000.0
TYPE = 12.0
"""[mm] height of lettering: a full-size drawing is read from a step away."""

LONGEST_LABEL = 200
"""Characters of one label; control characters, which XML does not allow, are replaced."""


def write_svg(scene: Scene, path: Path) -> None:
    """Write the file whole or not at all. Raises ExportError saying why."""
    write_whole(path, svg_text(scene).encode(), "svg_not_written")


def svg_text(scene: Scene) -> str:
    """The SVG document; y runs up in the scene and down on paper."""
    left, bottom, wide, high = (value * MM for value in scene.bounds)
    body = "\n".join(_shape(shape) for shape in scene.shapes)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.2f}mm" height="{high:.2f}mm" '
        f'viewBox="{left:.3f} {-(bottom + high):.3f} {wide:.3f} {high:.3f}" font-family="Open Sans, '
        f'sans-serif">\n{body}\n</svg>\n'
    )


def _style(role: str) -> str:
    fill, stroke, weight, dashed = ink_of(role)
    dash = ' stroke-dasharray="4 2.5"' if dashed else ""
    return f'class="{role}"{dash} fill="{fill or "none"}" stroke="{stroke}" stroke-width="{weight * POINT_MM * 2:.3f}"'


def _shape(shape: Shape) -> str:
    if isinstance(shape, Rect):
        top = -(shape.bottom + shape.height) * MM
        return (
            f'<rect x="{shape.left * MM:.3f}" y="{top:.3f}" width="{shape.width * MM:.3f}" '
            f'height="{shape.height * MM:.3f}" '
            f'rx="{shape.radius * MM:.3f}" {_style(shape.role)}/>'
        )
    if isinstance(shape, Circle):
        return (
            f'<circle cx="{shape.centre[0] * MM:.3f}" cy="{-shape.centre[1] * MM:.3f}" '
            f'r="{shape.radius * MM:.3f}" {_style(shape.role)}/>'
        )
    if isinstance(shape, Polyline):
        points = " ".join(f"{x * MM:.3f},{-y * MM:.3f}" for x, y in shape.points)
        return f'<{"polygon" if shape.closed else "polyline"} points="{points}" {_style(shape.role)}/>'
    if isinstance(shape, Label):
        x, y = shape.at
        down = 0.35 * TYPE / MM if shape.role.startswith(CENTRED) else 0.0
        return _text((x, y - down), shape.text, 0.0, shape.align, ink_of(shape.role).stroke)
    return _dimension(shape)


def _text(at: tuple[float, float], text: str, degrees: float, align: str = "middle", colour: str = TEXT) -> str:
    x, y = at[0] * MM, -at[1] * MM
    turn = f' transform="rotate({-degrees:.3f} {x:.3f} {y:.3f})"' if degrees else ""
    return (
        f'<text x="{x:.3f}" y="{y:.3f}" font-size="{TYPE:g}" fill="{colour}" '
        f'text-anchor="{align}"{turn}>{escape(readable(text, LONGEST_LABEL))}</text>'
    )


def _dimension(shape: Dimension) -> str:
    a, b = shape.line
    lines = [_shape(Polyline(shape.role, ends)) for ends in ((shape.start, a), (shape.end, b), (a, b))]
    return "\n".join(
        [
            *lines,
            _text(
                ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2), shape.text, math.degrees(math.atan2(b[1] - a[1], b[0] - a[0]))
            ),
        ]
    )
