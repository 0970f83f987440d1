"""Life-size view: a bar to hold a ruler to, what the ruler says, and the drawing at that scale."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor, QPainter, QPaintEvent
from PyQt6.QtWidgets import QCheckBox, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from keelroom.document.quantity import Spec, typed
from keelroom.errors import InputError
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import palette_of
from keelroom.gui.widgets.scene_view import SceneView
from keelroom.gui.widgets.text import label, restyle
from keelroom.units import KINDS, format_si

BAR_PIXELS = 300
SPEC = Spec("length", "Bar by the ruler", gt=0.01, le=1.0)


class Bar(QWidget):
    """As long as it says in pixels, whatever that is on this screen."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session
        self.setFixedSize(BAR_PIXELS + 2, 12)
        self.setAccessibleName("Bar to hold a ruler to")

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setPen(QColor(palette_of(self.session.settings.theme).ink))
        painter.drawLine(0, 6, BAR_PIXELS, 6)
        for x in (0, BAR_PIXELS):
            painter.drawLine(x, 0, x, 12)


class Ruler(QWidget):
    """Calibrates the screen and switches the drawing to life-size."""

    def __init__(self, session: Session, view: SceneView) -> None:
        super().__init__()
        self.session, self.view = session, view
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(2)
        self.box = QCheckBox("Life-size on this screen")
        self.box.setAccessibleName("Life-size on this screen")
        self.box.toggled.connect(lambda _on: self._apply())
        self.bar = Bar(session)
        line = QHBoxLayout()
        self.edit = QLineEdit()
        self.edit.setFixedWidth(88)
        self.edit.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.edit.setAccessibleName("The bar measures, by a ruler held to the screen")
        self.edit.editingFinished.connect(self._calibrate)
        line.addWidget(label("A ruler on the screen says this bar is", wrap=True), 1)
        line.addWidget(self.edit)
        self.said = label("", "error", wrap=True)
        self.said.hide()
        column.addWidget(self.box)
        column.addWidget(self.bar)
        column.addLayout(line)
        column.addWidget(self.said)
        session.display_changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        if not self.edit.isModified():
            scale = self.scale()
            self.edit.setText(format_si(BAR_PIXELS / scale, KINDS["length"], self.session.system))
        self.bar.update()

    def scale(self) -> float:
        """Pixels per metre: as calibrated, otherwise what the screen says of itself."""
        return self.session.settings.pixels_per_metre or self.logicalDpiX() / 0.0254

    def _calibrate(self) -> None:
        if not self.edit.isModified():
            return
        try:
            value = typed(self.edit.text(), SPEC, self.session.unit(SPEC.kind).symbol)
        except InputError as error:
            restyle(self.edit, "wrong", True)
            self.said.setText(error.message)
            self.said.show()
            return
        self.edit.setModified(False)
        restyle(self.edit, "wrong", False)
        self.said.hide()
        self.session.settings.pixels_per_metre = BAR_PIXELS / value.si
        self._apply()
        self.session.told.emit("The screen is calibrated: drawings can be shown life-size")

    def _apply(self) -> None:
        self.view.show_life_size(self.scale() if self.box.isChecked() else 0.0)
