"""A station's form from its view-model: pages behind chips, what each holds under headings, built when first shown."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import partial
from typing import Protocol, cast

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import (
    QPushButton,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from keelroom.assess.outcome import Stopped, attempted
from keelroom.gui.marks import stop_marks
from keelroom.gui.rows import Page
from keelroom.gui.session.session import Session
from keelroom.gui.station import Leaf, Station
from keelroom.gui.theme.dress import dress
from keelroom.gui.walks import Walked
from keelroom.gui.widgets.flow import FlowLayout
from keelroom.gui.widgets.page_view import Actions, PageView
from keelroom.gui.widgets.part_head import Headings
from keelroom.gui.widgets.pictured import Pictured
from keelroom.gui.widgets.scene_view import Picture, SceneView
from keelroom.gui.widgets.seen import WhenSeen
from keelroom.gui.widgets.stop_note import StopNote
from keelroom.gui.widgets.text import chip, set_quietly

Pages = Callable[[], tuple[Page, ...]]


class Shown(Protocol):
    """A page that is no form: a table, a chart. It is made when first chosen and refreshed while it is seen."""

    def refresh(self) -> None: ...


Makers = Mapping[str, Callable[[], QWidget]]
Pictures = Mapping[str, Picture | QWidget]


class Form(WhenSeen, QWidget):
    """Chips over pages, each with one of its parts open between the headings of the others. `pages` is the station's
    view-model, a page of fields or none for each part, asked again after every change."""

    turned = pyqtSignal()
    """another part is shown, or another picture beside it"""
    benched = pyqtSignal()
    """bench mode is asked for, on what the station walks"""

    def __init__(
        self,
        session: Session,
        station: Station,
        pages: Pages,
        actions: Actions | None = None,
        makers: Makers | None = None,
        pictures: Pictures | None = None,
        one: Callable[[str], Page] | None = None,
    ) -> None:
        """pictures : of parts that are forms what stands in the middle of the window; the bay where there is none
        one : a page by its title, where that is less work than all of them"""
        super().__init__()
        self.station, self.one = station, one
        self.pictures, self.boards = pictures or {}, dict[str, QWidget]()
        self.session, self.pages, self.acts, self.makers = session, pages, actions or {}, makers or {}
        self.setObjectName("panel")
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        head = QWidget()
        head.setObjectName("panel")
        self.chips = FlowLayout(head)
        self.chips.setContentsMargins(6, 2, 6, 2)
        column.addWidget(head)
        self.heads = Headings(station, self.choose)
        column.addWidget(self.heads.above)
        self.stack = QStackedWidget()
        column.addWidget(self.stack, 1)
        column.addWidget(self.heads.below)
        self.views: dict[str, QWidget] = {}
        self.stopped: StopNote | None = None
        """stands for a page that cannot be worked out"""
        self.buttons: dict[str, QToolButton] = {}
        self.current = ""
        """the part that is open"""
        self.last: dict[str, str] = {}
        """of every page the part that was open last"""
        for leaf in station.pages:
            made = chip(leaf.title, partial(self.turn_to, leaf), leaf.asks)
            self.buttons[leaf.title] = made
            self.chips.addWidget(made)
        dress(head, session)
        self.choose(station.parts[0])
        session.changed.connect(self.changed)
        session.display_changed.connect(self.changed)
        session.picked.connect(self._repicture)

    def _repicture(self) -> None:
        """Another part is chosen: the picture may be another."""
        if self.isVisible():
            self.turned.emit()

    def turn_to(self, leaf: Leaf) -> None:
        """Turn to a page, at the part that was open there last."""
        self.choose(self.last.get(leaf.title, leaf.holds[0]))

    def choose(self, title: str) -> None:
        """Turn to a part, by its title."""
        leaf = self.station.leaf(title)
        self.current = self.last[leaf.title] = title
        if title not in self.views:
            self.views[title] = self.makers[title]() if title in self.makers else self._page_view()
            dress(self.views[title], self.session)
            self.stack.addWidget(self.views[title])
        self.stack.setCurrentWidget(self.views[title])
        set_quietly(self.buttons[leaf.title], True)
        self.heads.open(leaf, title)
        self.refresh()
        self.turned.emit()

    def walked(self) -> Walked | None:
        """What bench mode walks here; None where that is the tape walk."""
        return None

    def take_focus(self) -> None:
        """The cursor into the first field of what is open; into what takes it first where that is no form."""
        view = self.views[self.current]
        fields = view.fields() if isinstance(view, PageView) else []
        if fields:
            fields[0].take_focus()
            return
        view.setFocus()
        self.focusNextChild()

    def _page_view(self) -> PageView:
        view = PageView(self.session, self.acts)
        view.walked_off.connect(self._walk_to_next_page)
        return view

    def _walk_to_next_page(self) -> None:
        page = self._page(self.current)
        if page.stay and page.actions:
            act = next(
                made for made in self.views[self.current].findChildren(QPushButton) if made.text() == page.actions[0][0]
            )
            act.setFocus()
            return
        titles = self.station.parts
        for title in titles[titles.index(self.current) + 1 :]:
            self.choose(title)
            view = self.views[title]
            found = view.first_reading() if isinstance(view, PageView) else None
            if found is not None:
                found.take_focus()
                return
        self.session.told.emit("That was the last reading of the tape walk")

    def drawing(self) -> QWidget | None:
        """What stands in the middle of the window while this part is open; None for the bay.

        A part that is no form and has a picture of its own brings it.
        """
        view, part = self.views[self.current], self.current
        picture = view.picture if isinstance(view, Pictured) else self.pictures.get(part)
        if picture is None or isinstance(picture, QWidget):
            return picture
        if picture.name not in self.boards:
            board = self.boards[picture.name] = SceneView(self.session, *picture)
            if isinstance(view, Pictured):
                view.come.connect(board.changed)
        return self.boards[picture.name]

    def bring_up_to_date(self) -> None:
        self.refresh()

    def refresh(self) -> None:
        """Only the page that is seen is brought up to date; the others are when they are chosen."""
        self.stale = False
        view = self.views[self.current]
        stop = attempted(f"The page “{self.current}”", (), lambda: self._bring(view))
        if not isinstance(stop, Stopped):
            if self.stack.currentWidget() is not view:
                self.stack.setCurrentWidget(view)
        elif isinstance(view, PageView) and view.page is not None:
            # Its fields go on: one of them is where it is mended.
            view.show_page(view.page._replace(said=(("problem", stop.sentence),), advice=None))
        else:
            self._show_stop(stop)

    def _bring(self, view: QWidget) -> None:
        if isinstance(view, PageView):
            page = self._page(self.current)
            view.show_page(page._replace(marks=(*page.marks, *stop_marks(self.session.assessment, page))))
        else:
            cast(Shown, view).refresh()

    def _page(self, title: str) -> Page:
        return self.one(title) if self.one else next(page for page in self.pages() if page.title == title)

    def _show_stop(self, stop: Stopped) -> None:
        """The reason where the page would be: nothing of an earlier build stays in sight."""
        if self.stopped is None:
            self.stopped = StopNote(self.session)
            self.stack.addWidget(self.stopped)
        self.stopped.show_stop(stop)
        self.stack.setCurrentWidget(self.stopped)

    def go_to(self, path: tuple[str, ...]) -> bool:
        """Show the field at `path`, or the page that speaks of its section; whether there is one."""
        for page in self.pages():
            if page.speaks_of(path):
                self.choose(page.title)
                view = self.views[page.title]
                assert isinstance(view, PageView)
                field = view.field_at(path)
                if field is not None:
                    view.ensureWidgetVisible(field)
                    field.take_focus()
                return True
        return False

    def point_out(self, part: tuple[str, ...]) -> None:
        """Bring the fields of a part into sight, where a page of fields is open; the cursor stays where it is."""
        if not isinstance(self.views[self.current], PageView):
            return
        speaking = [page.title for page in self.pages() if page.speaks_of(part)]
        if speaking and self.current not in speaking:
            self.choose(speaking[0])
        view = self.views[self.current]
        if isinstance(view, PageView):
            view.point_out(part)
