"""Charts in the middle of the window, each under its heading and as large as there is room for."""

from __future__ import annotations

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from keelroom.drawing.scene import Scene
from keelroom.gui.theme.palette import Palette
from keelroom.gui.widgets.text import label

EMPTY = "It is drawn once it is worked out."


class ChartBoard(QWidget):
    """Filled anew by the page it stands beside."""

    def __init__(self, name: str) -> None:
        super().__init__()
        self.setObjectName("paper")
        self.setAccessibleName(name)
        self.setMinimumSize(300, 200)
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(14, 8, 14, 10)
        self.column.setSpacing(4)
        self.show_charts(())

    def show_charts(self, charts: tuple[tuple[str, QWidget], ...]) -> None:
        """Headings with the charts under them, in their order; what stood there goes."""
        while (item := self.column.takeAt(0)) is not None:
            old = item.widget()
            if old is not None:
                old.hide()
                old.deleteLater()
        for head, chart in charts:
            self.column.addWidget(label(head, "head", wrap=True))
            self.column.addWidget(chart, 1)
        if not charts:
            self.column.addWidget(label(EMPTY, "faint", wrap=True))
            self.column.addStretch(1)

    def set_palette(self, palette: Palette) -> None:
        """Charts ask for their inks when they are painted."""
        self.update()

    def as_scene(self) -> Scene | None:
        """Charts are pictures: there is none."""
        return None
