"""What every PDF shares: fonts, paragraph styles, and a scene as a drawing."""

from __future__ import annotations

import io
import math
from typing import Any

from reportlab.lib.colors import HexColor
from reportlab.lib.enums import TA_LEFT
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.styles import ParagraphStyle
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.platypus import Flowable

from keelroom import ASSETS
from keelroom.drawing.placing import Size, apart
from keelroom.drawing.roles import BARE, CENTRED
from keelroom.drawing.scene import Circle, Dimension, Label, Polyline, Rect, Scene
from keelroom.errors import readable
from keelroom.export.inks import TEXT, TONES, ink_of

PAPERS = {"A4": A4, "Letter": LETTER}
INK, FAINT, RULE, ALARM = (HexColor(TONES[tone]) for tone in ("ink", "faint", "rule", "bad"))


def fonts() -> None:
    """Register the shipped fonts, once."""
    if "Body" in pdfmetrics.getRegisteredFontNames():
        return
    folder = ASSETS / "fonts"
    for name, file in (("Body", "OpenSans-Regular.ttf"), ("Strong", "OpenSans-Semibold.ttf")):
        pdfmetrics.registerFont(TTFont(name, io.BytesIO((folder / file).read_bytes())))


def _style(name: str, size: float, font: str = "Body", color: Any = INK, before: float = 0) -> ParagraphStyle:
    return ParagraphStyle(
        name, fontName=font, fontSize=size, leading=size * 1.28, textColor=color, alignment=TA_LEFT, spaceBefore=before
    )


STYLES = {
    "title": _style("title", 16, "Strong"),
    "verdict": _style("verdict", 11, "Strong", before=4),
    "head": _style("head", 10.5, "Strong", before=6),
    "body": _style("body", 8.6),
    "small": _style("small", 7.8, color=FAINT),
}


TALLEST = 640.0
"""[pt] of a drawing: what a page holds beside its heading."""
LABEL_SIZE = 7.2
"""[pt] of the words of a drawing."""
LONGEST_CELL, LONGEST_LABEL = 240, 80
"""Characters of a table's cell, which has to fit on one page, and of a label in a drawing."""


def safe(text: str, most: int = 100_000) -> str:
    """Text as the paragraph writer wants it: nothing it cannot print, at most so many characters."""
    clean = readable(" ".join(text.split()), most)
    return clean.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("₂", "2")


class SceneFlowable(Flowable):  # type: ignore[misc]
    """A scene drawn to fit a width, true to scale within itself."""

    def __init__(self, scene: Scene, width: float) -> None:
        super().__init__()
        left, bottom, wide, high = scene.bounds
        self.scale, self.origin = min(width / wide, TALLEST / high), (left, bottom)
        self.scene = apart(scene, Size(self._wide, (LABEL_SIZE + 2.0) / self.scale))
        self.width, self.height = wide * self.scale, high * self.scale

    def _wide(self, text: str) -> float:
        """How wide a label comes out, in the scene's units."""
        shown = readable(text, LONGEST_LABEL)
        return (float(pdfmetrics.stringWidth(shown, "Body", LABEL_SIZE)) + 4.0) / self.scale

    def draw(self) -> None:
        canvas: Any = self.canv
        canvas.saveState()
        canvas.scale(self.scale, self.scale)
        canvas.translate(-self.origin[0], -self.origin[1])
        for shape in self.scene.shapes:
            self._shape(canvas, shape)
        canvas.restoreState()

    def _shape(self, canvas: Any, shape: Any) -> None:
        fill, stroke, weight, dashed = ink_of(shape.role)
        canvas.setLineWidth(weight / self.scale)
        canvas.setStrokeColor(HexColor(stroke))
        canvas.setDash([4 / self.scale, 2.5 / self.scale] if dashed else [])
        if fill:
            canvas.setFillColor(HexColor(fill))
        if isinstance(shape, Rect):
            canvas.roundRect(shape.left, shape.bottom, shape.width, shape.height, shape.radius, fill=int(bool(fill)))
        elif isinstance(shape, Circle):
            canvas.circle(*shape.centre, shape.radius, fill=int(bool(fill)))
        elif isinstance(shape, Polyline):
            self._polyline(canvas, shape, bool(fill))
        elif isinstance(shape, Label):
            self._text(canvas, shape, 0.0, stroke, -2.4 if shape.role.startswith(CENTRED) else 1.5)
        elif isinstance(shape, Dimension):
            self._dimension(canvas, shape)

    def _polyline(self, canvas: Any, shape: Polyline, filled: bool) -> None:
        path = canvas.beginPath()
        path.moveTo(*shape.points[0])
        for point in shape.points[1:]:
            path.lineTo(*point)
        if shape.closed:
            path.close()
        canvas.drawPath(path, fill=int(filled and shape.closed))

    def _text(self, canvas: Any, label: Label, angle: float, colour: str, up: float = 1.5) -> None:
        """Words turned by an angle, up [pt] off their place; paper lies under those that may stand on something."""
        shown = readable(label.text, LONGEST_LABEL)
        canvas.saveState()
        canvas.translate(*label.at)
        canvas.rotate(math.degrees(angle))
        canvas.setFont("Body", LABEL_SIZE / self.scale)
        if label.role not in BARE:
            wide, high = self._wide(label.text), (LABEL_SIZE + 1.6) / self.scale
            left = {"middle": -wide / 2, "start": -2.0 / self.scale, "end": 2.0 / self.scale - wide}[label.align]
            canvas.setFillColor(HexColor("#ffffff"), alpha=0.86)
            canvas.rect(left, (up - 2.2) / self.scale, wide, high, stroke=0, fill=1)
        canvas.setFillColor(HexColor(colour), alpha=1.0)
        draw = {"middle": canvas.drawCentredString, "start": canvas.drawString, "end": canvas.drawRightString}
        draw[label.align](0, up / self.scale, shown)
        canvas.restoreState()

    def _dimension(self, canvas: Any, shape: Dimension) -> None:
        a, b = shape.line
        canvas.line(*shape.start, *a)
        canvas.line(*shape.end, *b)
        canvas.line(*a, *b)
        middle = Label(shape.role, ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2), shape.text)
        self._text(canvas, middle, math.atan2(b[1] - a[1], b[0] - a[0]), TEXT)
