"""A station's form from its view-model: pages behind chips, built when first shown."""

from __future__ import annotations

from collections.abc import Callable
from typing import Protocol, cast

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QApplication, QHBoxLayout, QLabel, QPushButton, QStackedWidget, QVBoxLayout, QWidget

from keelroom.build.edits import removed
from keelroom.gui.session.session import Session
from keelroom.gui.stations.rows import Group, Page, Row
from keelroom.gui.theme.dress import dress
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.fields import ChoiceField, CurveField, Field, FlagField, NotesField, QuantityField, SetField, TextField
from keelroom.gui.widgets.reading import ReadingField
from keelroom.gui.widgets.text import button, chip, label, replace_body, restyle

ACTIONS_A_LINE = 3
Pages = Callable[[], tuple[Page, ...]]
Actions = dict[str, Callable[[], object]]


class Shown(Protocol):
    """A page that is no form: a table, a chart. It is made when first chosen and refreshed while it is seen."""

    def refresh(self) -> None: ...


Makers = dict[str, Callable[[], QWidget]]


def field_for(session: Session, row: Row) -> Field:
    """The widget of one row, with whose it is in its accessible names."""
    field = _field(session, row)
    if row.said and row.sort != "reading":
        field.belong_to(row.said)
    return field


def _field(session: Session, row: Row) -> Field:
    if row.sort == "quantity":
        return QuantityField(session, row.path)
    if row.sort == "reading":
        return ReadingField(session, row.path, row.said)
    if row.sort == "flag":
        return FlagField(session, row.path, row.label)
    if row.sort == "choice":
        return ChoiceField(session, row.path, row.label, row.choices)
    if row.sort == "set":
        return SetField(session, row.path, row.label, row.choices)
    if row.sort == "curve":
        return CurveField(session, row.path, row.label)
    return (NotesField if row.sort == "notes" else TextField)(session, row.path, row.label)


class PageView(ScrolledColumn):
    """One page of fields; rebuilt only when its rows change, refreshed otherwise. Enter walks from reading to reading."""

    walked_off = pyqtSignal()
    """Enter was pressed in the last reading"""

    def __init__(self, session: Session, actions: Actions) -> None:
        super().__init__(session)
        self.actions = actions
        self.page: Page | None = None
        self.fields: list[Field] = []
        self.said: list[QLabel] = []

    def show_page(self, page: Page) -> None:
        before, self.page = self.page, page
        if before is None or page._replace(said=before.said, marks=before.marks) != before or len(page.said) != len(before.said):
            held = next((field.path for field in self.fields if field.isAncestorOf(QApplication.focusWidget())), None)
            self._build(page)
            kept = self.field_at(held) if held else None
            if kept is not None:
                kept.take_focus()
        marks = dict(page.marks)
        for field in self.fields:
            field.refresh()
            field.mark(marks.get(field.path, ""))
        for said, (role, text) in zip(self.said, page.said, strict=True):
            said.setText(text)
            restyle(said, "role", role)

    def _build(self, page: Page) -> None:
        body, column = self.blank(2)
        self.fields = []
        self.said = [label("", role, wrap=True) for role, _ in page.said]
        for said in self.said:
            column.addWidget(said)
        for group in page.groups:
            self._group(column, group)
        for k in range(0, len(page.actions), ACTIONS_A_LINE):
            line = QHBoxLayout()
            for name, code in page.actions[k : k + ACTIONS_A_LINE]:
                line.addWidget(button(name, self.actions[code]))
            line.addStretch(1)
            column.addLayout(line)
        column.addStretch(1)
        replace_body(self, body)

    def _group(self, column: QVBoxLayout, group: Group) -> None:
        if group.title:
            head = QHBoxLayout()
            head.addWidget(label(group.title, "head"))
            head.addStretch(1)
            if group.remove:
                head.addWidget(button("Remove", lambda: self._remove(group), f"Remove {group.title}"))
            column.addLayout(head)
        if group.note:
            column.addWidget(label(group.note, "faint", wrap=True))
        for row in group.rows:
            field = field_for(self.session, row)
            if isinstance(field, ReadingField):
                field.entered.connect(lambda field=field: self._walk_on(field))
            self.fields.append(field)
            column.addWidget(field)
        column.addSpacing(8)

    def _walk_on(self, field: Field) -> None:
        rest = self.readings()
        after = rest[rest.index(field) + 1 :] if field in rest else []
        if after:
            self.ensureWidgetVisible(after[0])
            after[0].take_focus()
        else:
            self.walked_off.emit()

    def readings(self) -> list[ReadingField]:
        return [field for field in self.fields if isinstance(field, ReadingField)]

    def _remove(self, group: Group) -> None:
        *where, member = group.remove
        self.session.attempt(removed(self.session.build, tuple(where), member, f"Remove {group.title}"))

    def field_at(self, path: tuple[str, ...]) -> Field | None:
        return next((field for field in self.fields if field.path == path), None)


class Form(QWidget):
    """Chips over pages. `pages` is the station's view-model, asked again after every change."""

    turned = pyqtSignal()
    """another page is shown"""

    def __init__(self, session: Session, pages: Pages, actions: Actions | None = None, makers: Makers | None = None) -> None:
        super().__init__()
        self.session, self.pages, self.actions, self.makers = session, pages, actions or {}, makers or {}
        self.setObjectName("panel")
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        head = QWidget()
        head.setObjectName("panel")
        self.chips = QHBoxLayout(head)
        self.chips.setContentsMargins(8, 2, 8, 2)
        self.chips.setSpacing(0)
        column.addWidget(head)
        self.stack = QStackedWidget()
        column.addWidget(self.stack, 1)
        self.views: dict[str, QWidget] = {}
        self.buttons: dict[str, QWidget] = {}
        self.current = ""
        for page in pages():
            made = chip(page.title, lambda title=page.title: self.choose(title))
            self.buttons[page.title] = made
            self.chips.addWidget(made)
        self.chips.addStretch(1)
        dress(head, session)
        self.choose(pages()[0].title)
        session.changed.connect(self.refresh)
        session.display_changed.connect(self.refresh)

    def choose(self, title: str) -> None:
        self.current = title
        if title not in self.views:
            self.views[title] = self.makers[title]() if title in self.makers else self._page_view()
            dress(self.views[title], self.session)
            self.stack.addWidget(self.views[title])
        self.stack.setCurrentWidget(self.views[title])
        self.buttons[title].setChecked(True)
        self.refresh()
        self.turned.emit()

    def _page_view(self) -> PageView:
        view = PageView(self.session, self.actions)
        view.walked_off.connect(self._walk_to_next_page)
        return view

    def _walk_to_next_page(self) -> None:
        page = next(page for page in self.pages() if page.title == self.current)
        if page.stay and page.actions:
            act = next(made for made in self.views[self.current].findChildren(QPushButton) if made.text() == page.actions[0][0])
            act.setFocus()
            return
        titles = list(self.buttons)
        for title in titles[titles.index(self.current) + 1 :]:
            self.choose(title)
            view = self.views[title]
            found = view.readings() if isinstance(view, PageView) else []
            if found:
                found[0].take_focus()
                return
        self.session.told.emit("That was the last reading of the tape walk")

    def drawing(self) -> QWidget | None:
        """What stands in the middle of the window while this page is shown; None for the bay."""
        return None

    def refresh(self) -> None:
        """Only the page that is seen is brought up to date; the others are when they are chosen."""
        view = self.views[self.current]
        if isinstance(view, PageView):
            view.show_page(next(page for page in self.pages() if page.title == self.current))
        else:
            cast(Shown, view).refresh()

    def go_to(self, path: tuple[str, ...]) -> bool:
        """Show the field at `path`, or the page that speaks of its section; whether there is one."""
        for page in self.pages():
            rows = [row.path for group in page.groups for row in group.rows]
            if path in rows or any(row[: len(path)] == path for row in rows):
                self.choose(page.title)
                view = self.views[page.title]
                assert isinstance(view, PageView)
                field = view.field_at(path) or next((f for f in view.fields if f.path[: len(path)] == path), None)
                if field is not None:
                    view.ensureWidgetVisible(field)
                    field.take_focus()
                return True
        return False
