"""One search for all there is: pages, fields, parts, findings, acts, topics of the guide."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from PyQt6.QtCore import QModelIndex, QRect, QSize, Qt, QTimer
from PyQt6.QtGui import QPainter
from PyQt6.QtWidgets import (
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from keelroom.gui.widgets.text import label

MOST = 60
"""Answers that are listed."""
IDLE_WORDS = frozenset(
    (
        *("a", "an", "and", "are", "at", "by", "can", "do", "does", "for", "from", "go", "has", "have", "how", "i"),
        *("in", "is", "it", "its", "me", "my", "of", "on", "or", "the", "there", "this", "to", "what", "when"),
        *("where", "which", "why", "will", "with", "would", "you"),
    )
)
"""words of a question that say nothing of what is asked"""
ENDINGS = ("ing", "ed", "es", "s")
LEAST_STEM = 4
INDENT, GAP, FAINT = 8, 6, 0.75


class Answer(NamedTuple):
    """Something one may look for. text : as it is called;  place : what it is and where, under it
    more : other words it is found by;  go : goes there and points"""

    text: str
    place: str
    go: Callable[[], object]
    more: str = ""


def stem(word: str) -> str:
    """A word without its ending, so that “overheats” finds “overheating”."""
    ending = next((end for end in ENDINGS if word.endswith(end) and len(word) - len(end) >= LEAST_STEM), "")
    return word[: len(word) - len(ending)]


def wanted_words(question: str) -> list[str]:
    """What is asked for, word by word; all of it where every word is an idle one."""
    words = [word.strip("?!.,;:“”\"'’") for word in question.lower().split()]
    return [stem(word) for word in words if word and word not in IDLE_WORDS] or [word for word in words if word]


def rank(answer: Answer, words: list[str]) -> tuple[int, int]:
    """How well an answer meets the words, the less the better: how many it lacks, then where it has the others.

    A word that begins one of its name counts before one inside it, one in its place, one among its other words.
    """
    text, place, more = (part.lower() for part in (answer.text, answer.place, answer.more))
    pieces, lacks, far = text.replace("-", " ").split(), 0, 0
    for word in words:
        there = (any(piece.startswith(word) for piece in pieces), word in text, word in place, word in more)
        found = next((k for k, has in enumerate(there) if has), None)
        lacks, far = (lacks + 1, far) if found is None else (lacks, far + found * found)
    return lacks, far


def answers_to(question: str, every: tuple[Answer, ...]) -> list[Answer]:
    """Those that have all the words, the nearest first; where none has, those that lack fewest, but one at least is
    there. In the given order where they are as near."""
    words = wanted_words(question)
    if not words:
        return list(every[:MOST])
    found = sorted((rank(one, words), k) for k, one in enumerate(every))
    fewest = found[0][0][0] if found else 0
    return [every[k] for (lacks, _), k in found[:MOST] if lacks == fewest < len(words)]


class _TwoLines(QStyledItemDelegate):
    """An answer, and in a fainter line under it what it is and where."""

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        return QSize(100, 2 * option.fontMetrics.height() + GAP)

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex) -> None:
        assert painter is not None
        if option.state & (QStyle.StateFlag.State_Selected | QStyle.StateFlag.State_MouseOver):
            painter.fillRect(option.rect, option.palette.alternateBase())
        high, room = option.fontMetrics.height(), option.rect.adjusted(INDENT, GAP // 2, -4, 0)
        lines = ((Qt.ItemDataRole.DisplayRole, 1.0), (Qt.ItemDataRole.ToolTipRole, FAINT))
        for k, (role, ink) in enumerate(lines):
            painter.setOpacity(ink)
            painter.setPen(option.palette.text().color())
            text = option.fontMetrics.elidedText(str(index.data(role)), Qt.TextElideMode.ElideRight, room.width())
            painter.drawText(QRect(room.x(), room.y() + k * high, room.width(), high), Qt.AlignmentFlag.AlignLeft, text)
        painter.setOpacity(1.0)


class AskPanel(QWidget):
    """What is asked, and all that answers it; Enter or a click goes there."""

    def __init__(self, every: Callable[[], tuple[Answer, ...]], more: Callable[[], bool]) -> None:
        """every : what there is now;  more : makes another part of it findable, and tells whether there was one"""
        super().__init__()
        self.more = more
        self.setObjectName("panel")
        self.every, self.known, self.found = every, tuple[Answer, ...](), list[Answer]()
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 8, 10, 10)
        self.filter = QLineEdit()
        self.filter.setPlaceholderText("Ask: overheats at a light, fuse, find a place …")
        self.filter.setAccessibleName("Ask")
        self.filter.textChanged.connect(self._narrow)
        self.filter.returnPressed.connect(self._first)
        self.list = QListWidget()
        self.list.setAccessibleName("Answers")
        self.list.setItemDelegate(_TwoLines(self.list))
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.itemActivated.connect(lambda item: self._go(self.list.row(item)))
        self.list.itemClicked.connect(lambda item: self._go(self.list.row(item)))
        self.none = label("Nothing here has all these words. Try fewer, or the guide (F1).", "faint", wrap=True)
        column.addWidget(self.filter)
        column.addWidget(self.none)
        column.addWidget(self.list, 1)

    def showEvent(self, event: object) -> None:
        self._know()
        self.filter.setFocus()
        self.filter.selectAll()

    def _know(self) -> None:
        """What there is by now; another part of it in the next turn, so that nobody waits to type."""
        self.known = self.every()
        self._narrow(self.filter.text())
        QTimer.singleShot(0, self._learn)

    def _learn(self) -> None:
        if self.isVisible() and self.more():
            self._know()

    def _narrow(self, text: str) -> None:
        self.found = answers_to(text, self.known)
        self.list.clear()
        for one in self.found:
            item = QListWidgetItem(one.text)
            item.setToolTip(one.place)
            item.setData(Qt.ItemDataRole.AccessibleTextRole, f"{one.text}, {one.place}")
            self.list.addItem(item)
        self.none.setVisible(not self.found)

    def _first(self) -> None:
        if self.found:
            self._go(0)

    def _go(self, row: int) -> None:
        self.found[row].go()
