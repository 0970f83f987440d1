"""The air over the face where a drive's cursor stands."""

from __future__ import annotations

from functools import partial

import numpy as np
from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QColor, QHideEvent, QPainter, QPaintEvent, QShowEvent, QTransform
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from keelroom.assess.drives.driven import Driven, Prepared, prepared
from keelroom.assess.drives.face import AirMap, Quantity, air_in_drive
from keelroom.assess.drives.words import clock
from keelroom.document.schema.build import Build
from keelroom.document.schema.drive import Schedule
from keelroom.gui.session.session import Session
from keelroom.gui.session.worker import Worker
from keelroom.gui.stations.drive.drives import Drives
from keelroom.gui.theme.palette import palette_of
from keelroom.gui.widgets.air_overlay import TITLES, OverlayPainter, overlay_of
from keelroom.gui.widgets.text import ChoiceBox, label

WIDE = 176
"""[px] of the map with its edge"""


class FaceAtCursor(QWidget):
    """Follows the cursor; worked out beside the window, the newest moment wins."""

    def __init__(self, session: Session, drives: Drives) -> None:
        super().__init__()
        self.session, self.drives = session, drives
        self.setFixedWidth(WIDE)
        self.setObjectName("panel")
        self.found: tuple[AirMap, Build] | None = None
        self.asked: tuple[object, ...] = ()
        self.made: tuple[Driven, Prepared] | None = None
        """what a run was made of: worked out once for all its moments"""
        self.what = ChoiceBox()
        self.what.setAccessibleName("Map at the cursor")
        for key, words in TITLES.items():
            self.what.addItem(words, key)
        self.what.activated.connect(self._say)
        self.said = label("", "faint", wrap=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(4, 6, 8, 4)
        column.addWidget(self.what)
        self.face = _Face(self)
        column.addWidget(self.face, 1)
        column.addWidget(self.said)
        self.worker = Worker(self)
        self.worker.answered.connect(self._answered)
        self.worker.failed.connect(self._failed)
        drives.come.connect(self.ask)
        drives.moved.connect(self.ask)
        session.display_changed.connect(self._say)

    def ask(self) -> None:
        """The map of the moment the cursor stands at; nothing while it is not seen."""
        found, schedule = self.drives.found, self.drives.schedule
        if not self.isVisible() or not isinstance(found, Driven) or schedule is None:
            if not isinstance(found, Driven):
                self.found, self.asked = None, ()
                self._say()
            return
        if self.asked == (id(found), self.drives.at):
            return
        self.asked = (id(found), self.drives.at)
        self.worker.ask(partial(self._work, self.session.build, schedule, found, self.drives.at))

    def _work(self, build: Build, schedule: Schedule, found: Driven, at: float) -> tuple[AirMap, Build]:
        """Beside the window."""
        kept = self.made
        if kept is None or kept[0] is not found:
            package = next((one for one in build.packages if one.id == found.package_id), build.package)
            kept = self.made = found, prepared(build, package, schedule)
        return air_in_drive(kept[1], found.run, at), build

    def _answered(self, found: tuple[AirMap, Build]) -> None:
        self.found = found
        self._say()

    def _failed(self, why: str) -> None:
        self.found = None
        self.said.setText(f"No map: {why}")
        self.face.update()

    def _say(self) -> None:
        self.said.setText("" if self.found is None else self.words())
        self.face.update()

    def words(self) -> str:
        """The least and the most on the face, and when."""
        painter = self.overlaid()
        if painter is None:
            return ""
        known = painter.overlay.values[np.isfinite(painter.overlay.values)]
        low, high = (painter.text(float(value)) for value in (known.min(), known.max()))
        return f"{low if low == high else f'{low} to {high}'} {painter.overlay.unit} at {clock(self.drives.at)}"

    def overlaid(self) -> OverlayPainter | None:
        """What paints the tiles."""
        if self.found is None:
            return None
        shown, build = self.found
        what: Quantity = self.what.currentData()
        return OverlayPainter(
            overlay_of(shown, what, self.session.system), build.package, palette_of(self.session.settings.theme)
        )

    def showEvent(self, event: QShowEvent | None) -> None:
        super().showEvent(event)
        self.ask()

    def hideEvent(self, event: QHideEvent | None) -> None:
        super().hideEvent(event)
        self.worker.cancel()
        self.asked = ()


class _Face(QWidget):
    """The tiles, as wide as there is room."""

    def __init__(self, owner: FaceAtCursor) -> None:
        super().__init__()
        self.owner = owner
        self.setMinimumHeight(60)
        self.setAccessibleName("Air over the face at the cursor")

    def paintEvent(self, event: QPaintEvent | None) -> None:
        overlaid = self.owner.overlaid()
        if overlaid is None:
            return
        painter = QPainter(self)
        room = QRectF(self.rect())
        scale = min(room.width() / overlaid.width, room.height() / overlaid.height)
        left = (room.width() - scale * overlaid.width) / 2
        view = QTransform(scale, 0, 0, -scale, left, scale * overlaid.height)
        overlaid.paint(painter, view)
        painter.setPen(QColor(overlaid.palette.steel))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRect(view.mapRect(QRectF(0, 0, overlaid.width, overlaid.height)))
