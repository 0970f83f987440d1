"""The user guide in a window of its own: topics at the left, searched by their words, the chosen one at the right."""

from __future__ import annotations

import re
from collections.abc import Callable
from functools import cache
from pathlib import Path
from typing import NamedTuple
from urllib.parse import quote

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QListWidget, QListWidgetItem, QTextBrowser, QVBoxLayout, QWidget

from keelroom import guide as pages
from keelroom.gui.dialogs import Dialog
from keelroom.gui.registry import STATIONS
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.panels.ask import wanted_words
from keelroom.gui.widgets.text import label

FOLDER = Path(pages.__file__).parent
LIST_WIDTH = 230


class Topic(NamedTuple):
    """One page of the guide. name: of its file, without its number"""

    name: str
    title: str
    text: str


@cache
def topics() -> tuple[Topic, ...]:
    """All topics in their order."""
    found = []
    for path in sorted(FOLDER.glob("*.md")):
        text = path.read_text(encoding="utf-8")
        found.append(Topic(path.stem.partition("-")[2], text.splitlines()[0].lstrip("# "), text))
    return tuple(found)


def linked(text: str) -> str:
    """A topic with every page it speaks of made a way to it: “**Air, Fans and Shroud**” leads to two."""

    def links(found: re.Match[str]) -> str:
        name, _, rest = found.group(1).partition(", ")
        station = next((one for one in STATIONS if one.name == name), None)
        if station is None or not rest:
            return found.group(0)
        pages = {leaf.title: leaf.holds[0] for leaf in station.pages} | {part: part for part in station.parts}
        # A title may have a comma of its own.
        pieces = [rest] if rest in pages else re.split(r"(, | and )", rest)
        told = [
            f"[**{piece}**](page:{quote(f'{name}/{pages[piece]}')})" if piece in pages else piece for piece in pieces
        ]
        return f"**{name}**, {''.join(told)}"

    return re.sub(r"\*\*(.+?)\*\*", links, text)


def matching(words: str) -> tuple[Topic, ...]:
    """Topics that have all the words, those with them in their title first."""
    wanted = wanted_words(words)
    found = [topic for topic in topics() if all(word in topic.text.lower() for word in wanted)]
    return tuple(sorted(found, key=lambda topic: not all(word in topic.title.lower() for word in wanted)))


class Guide(Dialog):
    """It may stand open beside the work."""

    def __init__(self, window: QWidget, session: Session, turn: Callable[[str, str], object]) -> None:
        """turn : to a part of a page of a station, by their names"""
        super().__init__(window, session, "Guide", (900, 640))
        self.setModal(False)
        across = QHBoxLayout()
        across.setSpacing(14)
        self.column.addLayout(across, 1)
        left = QVBoxLayout()
        across.addLayout(left)
        self.sought = QLineEdit()
        self.sought.setPlaceholderText("What do you want to know?")
        self.sought.setAccessibleName("Search the guide")
        self.sought.setFixedWidth(LIST_WIDTH)
        self.sought.textChanged.connect(self._narrow)
        left.addWidget(self.sought)
        self.list = QListWidget()
        self.list.setAccessibleName("Topics of the guide")
        self.list.setFixedWidth(LIST_WIDTH)
        self.list.currentItemChanged.connect(lambda item, _before: self._show(item))
        left.addWidget(self.list, 1)
        self.none = label("No topic has all these words.", "faint", wrap=True)
        self.none.hide()
        left.addWidget(self.none)
        self.page = QTextBrowser()
        self.page.setAccessibleName("Page of the guide")
        self.page.setOpenLinks(False)
        self.page.anchorClicked.connect(lambda url: turn(*url.path().split("/")))
        self.page.setSearchPaths([str(FOLDER)])
        self.page.document().setDocumentMargin(10)  # type: ignore[union-attr]
        across.addWidget(self.page, 1)
        self.close_button()
        self._narrow("")

    def _narrow(self, words: str) -> None:
        """Only topics with all the words; the first of them is shown, at the first of the words."""
        self.list.clear()
        found = matching(words)
        for topic in found:
            item = QListWidgetItem(topic.title)
            item.setData(Qt.ItemDataRole.UserRole, topic.name)
            self.list.addItem(item)
        self.none.setVisible(not found)
        if found:
            self.list.setCurrentRow(0)
            if words.split():
                self.page.find(words.split(maxsplit=1)[0])

    def _show(self, item: QListWidgetItem | None) -> None:
        if item is None:
            return
        topic = next(topic for topic in topics() if topic.name == item.data(Qt.ItemDataRole.UserRole))
        self.page.setMarkdown(linked(topic.text))
        self.page.setAccessibleDescription(topic.title)

    def open_at(self, name: str) -> None:
        """Show a topic by its name."""
        self.sought.clear()
        at = next(k for k, topic in enumerate(topics()) if topic.name == name)
        self.list.setCurrentRow(at)
        self.show()
        self.raise_()
        self.activateWindow()
