"""Columns of widgets: packed edge to edge, or scrolled and filled again."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import QApplication, QScrollArea, QVBoxLayout, QWidget

from keelroom.gui.session.session import Session


def packed(ground: str) -> tuple[QWidget, QVBoxLayout]:
    """A widget on one of the style sheet's grounds ('paper', 'panel') and its column, with no room between or
    around."""
    body = QWidget()
    body.setObjectName(ground)
    column = QVBoxLayout(body)
    column.setContentsMargins(0, 0, 0, 0)
    column.setSpacing(0)
    return body, column


class ScrolledColumn(QScrollArea):
    """A column as wide as the area that scrolls up and down; its body is made anew and swapped in by `replace_body`."""

    def __init__(self, session: Session, name: str = "") -> None:
        super().__init__()
        self.session = session
        self.setAccessibleName(name)
        self.setWidgetResizable(True)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if event is not None and event.type() == QEvent.Type.LayoutRequest and watched is self.widget():
            self._give_height()
        return super().eventFilter(watched, event)

    def _give_height(self) -> None:
        """As tall as its words are at this width: a scroll area by itself asks only how small they could be at any."""
        body, port = self.widget(), self.viewport()
        layout = body.layout() if body is not None else None
        if body is not None and port is not None and layout is not None and layout.hasHeightForWidth():
            wanted = layout.totalHeightForWidth(port.width())
            if wanted != body.minimumHeight():
                body.setMinimumHeight(wanted)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        """What has the cursor stays in sight when something under the column takes room."""
        super().resizeEvent(event)
        self._give_height()
        focused = QApplication.focusWidget()
        if focused is not None and self.isAncestorOf(focused):
            self.ensureWidgetVisible(focused)

    @staticmethod
    def blank(spacing: int = 3) -> tuple[QWidget, QVBoxLayout]:
        """An empty body and its column."""
        body = QWidget()
        body.setObjectName("panel")
        column = QVBoxLayout(body)
        column.setContentsMargins(12, 8, 10, 10)
        column.setSpacing(spacing)
        return body, column
