"""The strips of a drive under one cursor."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen

from keelroom.assess.drives.words import clock
from keelroom.assess.outcome import Stopped
from keelroom.drawing.strips import Laid, laid
from keelroom.gui.session.session import Session
from keelroom.gui.stations.drive.drives import Drives
from keelroom.gui.widgets.scene_paint import body_font
from keelroom.gui.widgets.scene_view import Drawing, SceneView

READABLE = 760.0
"""[px/m] under which the words of the strips would lie on each other"""
STEP, LEAP = 10.0, 60.0
"""[s] the cursor goes at a key, and with Ctrl held"""
FOOT = "Drag, or the arrow keys: the cursor. Tinted: with the doubt of the heat either way. Dashed: the gauge."


class StripBoard(SceneView):
    """The cursor goes with pointer and keys; what it meets is told beside."""

    def __init__(self, session: Session, drives: Drives) -> None:
        self.drives = drives
        self.laid: Laid | None = None
        super().__init__(session, "Drive over time", self._drawn, READABLE)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        drives.come.connect(self.changed)
        drives.turned.connect(self.changed)
        drives.moved.connect(self.update)

    def _drawn(self) -> Drawing:
        found, schedule = self.drives.found, self.drives.schedule
        self.laid = None
        if self.drives.missing:
            return None, "", self.drives.missing
        if isinstance(found, Stopped):
            return None, "", f"{found.sentence}."
        if found is None or schedule is None:
            return None, "", "working it out …"
        held = self.drives.held
        if held is not None and (held is found or held.schedule_id != found.schedule_id):
            held = None
        self.laid = laid(found, self.session.system, held)
        name = self.session.build.package.name or self.session.build.active
        return self.laid.scene, f"{schedule.name or schedule.id}: {name}", FOOT

    def paintEvent(self, event: QPaintEvent | None) -> None:
        super().paintEvent(event)
        if self.laid is None or self.scene is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        seen, palette = self.view(), self.palette_now
        x = self.laid.x(self.drives.at)
        top, foot = (seen.map(QPointF(x, y)) for y in (self.laid.top, self.laid.foot))
        painter.setClipRect(QRectF(0, 34, self.width(), self.height() - 34 - 44))
        painter.setPen(QPen(QColor(palette.accent), 1.6))
        painter.drawLine(top, foot)
        painter.setFont(body_font(9))
        words = clock(self.drives.at)
        wide = painter.fontMetrics().horizontalAdvance(words) + 10
        box = QRectF(min(top.x() + 4, self.width() - wide - 4), foot.y() - 18, wide, 17)
        painter.fillRect(box, QColor(palette.paper))
        painter.drawText(box, Qt.AlignmentFlag.AlignCenter, words)

    def _point(self, event: QMouseEvent) -> None:
        if self.laid is None:
            return
        back, fine = self.view().inverted()
        if fine:
            self.drives.move(self.laid.time(back.map(event.position()).x()))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        self._point(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if event.buttons() & Qt.MouseButton.LeftButton:
            self._point(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        assert event is not None
        step = LEAP if event.modifiers() & Qt.KeyboardModifier.ControlModifier else STEP
        ways = {Qt.Key.Key_Right: step, Qt.Key.Key_Left: -step, Qt.Key.Key_Home: -1e9, Qt.Key.Key_End: 1e9}
        way = next((seconds for key, seconds in ways.items() if key == event.key()), None)
        if way is None:
            super().keyPressEvent(event)
        else:
            self.drives.move(self.drives.at + way)
