"""A row of widgets that goes on in a second line where the first has no room left."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, QRect, QSize, Qt
from PyQt6.QtWidgets import QLayout, QLayoutItem, QWidget


class FlowLayout(QLayout):
    """Left to right, then the next line; no wider than it is given."""

    def __init__(self, parent: QWidget | None = None, gap: int = 0) -> None:
        super().__init__(parent)
        self.items: list[QLayoutItem] = []
        self.gap = gap

    def addItem(self, item: QLayoutItem | None) -> None:
        assert item is not None
        self.items.append(item)

    def count(self) -> int:
        return len(self.items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        return self.items[index] if 0 <= index < len(self.items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        return self.items.pop(index) if 0 <= index < len(self.items) else None

    def expandingDirections(self) -> Qt.Orientation:
        return Qt.Orientation(0)

    def hasHeightForWidth(self) -> bool:
        return True

    def heightForWidth(self, width: int) -> int:
        return self._lay(QRect(0, 0, width, 0), placing=False)

    def setGeometry(self, room: QRect) -> None:
        super().setGeometry(room)
        self._lay(room, placing=True)

    def sizeHint(self) -> QSize:
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        around = self.contentsMargins()
        widest = max((item.minimumSize().width() for item in self.items), default=0)
        tallest = max((item.minimumSize().height() for item in self.items), default=0)
        return QSize(widest + around.left() + around.right(), tallest + around.top() + around.bottom())

    def _lay(self, room: QRect, *, placing: bool) -> int:
        around = self.contentsMargins()
        left, top, right = room.x() + around.left(), room.y() + around.top(), room.right() - around.right()
        x, y, high = left, top, 0
        for item in self.items:
            size = item.sizeHint()
            if x > left and x + size.width() > right + 1:
                x, y, high = left, y + high + self.gap, 0
            if placing:
                item.setGeometry(QRect(QPoint(x, y), size))
            x += size.width() + self.gap
            high = max(high, size.height())
        return y + high + around.bottom() - room.y()
