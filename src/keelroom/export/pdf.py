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
from keelroom.drawing.roles import CENTRED
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
    "head": _style("head", 10.5, "Strong", before=6),
    "body": _style("body", 8.6),
    "small": _style("small", 7.8, color=FAINT),
}


TALLEST = 640.0
"""[pt] of a drawing: what a page holds beside its heading."""
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
        self.scene, self.scale, self.origin = scene, min(width / wide, TALLEST / high), (left, bottom)
        self.width, self.height = wide * self.scale, high * self.scale

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
            self._text(
                canvas, shape.at, shape.text, 0.0, shape.align, -2.4 if shape.role.startswith(CENTRED) else 1.5, stroke
            )
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

    def _text(
        self,
        canvas: Any,
        at: tuple[float, float],
        text: str,
        angle: float,
        align: str = "middle",
        up: float = 1.5,
        colour: str = TEXT,
    ) -> None:
        canvas.saveState()
        canvas.translate(*at)
        canvas.rotate(math.degrees(angle))
        canvas.setFont("Body", 7.2 / self.scale)
        canvas.setFillColor(HexColor(colour))
        draw = {"middle": canvas.drawCentredString, "start": canvas.drawString, "end": canvas.drawRightString}[align]
        draw(0, up / self.scale, readable(text, LONGEST_LABEL))
        canvas.restoreState()

    def _dimension(self, canvas: Any, shape: Dimension) -> None:
        a, b = shape.line
        canvas.line(*shape.start, *a)
        canvas.line(*shape.end, *b)
        canvas.line(*a, *b)
        self._text(canvas, ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2), shape.text, math.atan2(b[1] - a[1], b[0] - a[0]))
