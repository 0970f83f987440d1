"""A page of fields: its sections in one column or two, its buttons, and the walk from reading to reading."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import partial

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import (
    QApplication,
    QHBoxLayout,
    QVBoxLayout,
    QWidget,
)

from keelroom.document.act import Act
from keelroom.document.entered import package_of
from keelroom.gui.rows import Group, Page, Press, Row
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.fields import (
    Field,
)
from keelroom.gui.widgets.flow import FlowLayout
from keelroom.gui.widgets.foretold import Foretold
from keelroom.gui.widgets.section import FormSection, Said
from keelroom.gui.widgets.text import button, by_type, replace_body

COLUMN_WIDTH, BETWEEN = 332, 20
"""[px] a column of fields wants at the usual size of type, and the room between two"""
AT_ONCE = 140
"""Rows of a page made when it is shown; more of them when they come into view."""
Actions = Mapping[str, Callable[[], object]]


def _same(act: Act) -> Act:
    return act


def _weighs(does: Act | str | tuple[str, ...]) -> bool:
    """Whether a button changes a package, and so what is told of it."""
    return isinstance(does, Act) and bool(does.package)


class PageView(ScrolledColumn):
    """One page of fields; rebuilt only when its rows change, refreshed otherwise. Enter walks from reading to
    reading."""

    walked_off = pyqtSignal()
    """Enter was pressed in the last reading"""

    def __init__(self, session: Session, actions: Actions) -> None:
        super().__init__(session)
        self.acts = actions
        self.page: Page | None = None
        self.said = Said()
        self.sections: list[FormSection] = []
        self.beside, self.left = QHBoxLayout(), -1
        """the two columns, and how many sections stand in the first"""
        self.known: set[tuple[str, ...]] = set()
        """list members that fold, as the page was built last"""

    def show_page(self, page: Page) -> None:
        before, self.page = self.page, page
        if before is None or not page.same_rows(before):
            held = next((field.path for field in self.fields() if field.isAncestorOf(QApplication.focusWidget())), None)
            self._build(page)
            kept = self.field_at(held) if held else None
            if kept is not None:
                kept.take_focus()
        else:
            for section in self.sections:
                section.refresh()
        self.said.say(page.said)

    def _build(self, page: Page) -> None:
        """Sections of groups that stand as they stood are kept with their fields."""
        body, column = self.blank(2)
        self.said = Said()
        self._acts(column, page.leading)
        column.addLayout(self.said)
        kept = {section.group: section for section in self.sections if section.made}
        self.sections = []
        for group in page.groups:
            section = kept.pop(group, None) or FormSection(self, group)
            section.under = []
            section.refresh()
            self.sections.append(section)
        self._fold_members(page)
        self.beside, self.left = QHBoxLayout(), -1
        for each in (QVBoxLayout(), QVBoxLayout()):
            self.beside.addLayout(each)
        column.addLayout(self.beside)
        self._share_out()
        self._acts(column, page.actions)
        column.addStretch(1)
        replace_body(self, body)
        room = AT_ONCE
        for section in self.sections:
            if section.tucked:
                continue
            room -= section.height_kept
            if room < 0:
                break
            section.make()
        self._make_seen()

    def _fold_members(self, page: Page) -> None:
        """Every list member to a line, but the first, those that were open, and those that are new to the page."""
        known, self.known = self.known, set(page.members)
        owner: FormSection | None = None
        for section in self.sections:
            path = section.group.remove
            if owner is not None and not path and page.members and section.tells_of(owner.group.remove):
                owner.under.append(section)
            owner = section if path else owner
        for k, path in enumerate(page.members):
            section = next(section for section in self.sections if section.group.remove == path)
            if path in known:
                section.stand(True, section.folded)
            else:
                section.stand(True, bool(k) and not known)

    def _share_out(self) -> None:
        """Sections under one another, or where there is room for two columns of fields the first half of the rows
        beside the rest."""
        port = self.viewport()
        wide = port is not None and port.width() >= 2 * by_type(COLUMN_WIDTH) + BETWEEN
        rows = [0 if section.tucked else section.height_kept for section in self.sections]
        left = next((k for k in range(len(rows) + 1) if 2 * sum(rows[:k]) >= sum(rows)), 0) if wide else len(rows)
        if self.left == left or not self.beside.count():
            return
        self.left = left
        self.beside.setSpacing(BETWEEN if wide else 0)
        for k, sections in enumerate((self.sections[:left], self.sections[left:])):
            layout = self.beside.itemAt(k)
            assert isinstance(layout, QVBoxLayout)
            while layout.takeAt(0) is not None:
                pass
            for section in sections:
                layout.addWidget(section)
            layout.addStretch(1)
            self.beside.setStretch(k, int(bool(sections)))

    def _acts(self, column: QVBoxLayout, acts: tuple[Press, ...]) -> None:
        """Buttons, as many a line as there is room for."""
        if not acts:
            return
        holder = QWidget()
        line = FlowLayout(holder, 6)
        line.setContentsMargins(0, 0, 0, 4)
        told = Foretold(self.session, "Buttons of this page") if any(_weighs(does) for _, does in acts) else None
        for name, does in acts:
            made = button(name, self._press(does))
            if told is not None and isinstance(does, Act):
                told.watch(made, partial(_same, does))
            line.addWidget(made)
        column.addWidget(holder)
        if told is not None:
            column.addWidget(told)

    def _press(self, does: Act | str | tuple[str, ...]) -> Callable[[], object]:
        """What a button does."""
        if isinstance(does, Act):
            return partial(self.session.do, does)
        return self.acts[does] if isinstance(does, str) else partial(self.session.asked_for.emit, does)

    def _make_seen(self) -> None:
        """Make what has come into view, and a screen's height beyond it."""
        body, bar, port = self.widget(), self.verticalScrollBar(), self.viewport()
        wanting = [section for section in self.sections if not (section.made or section.tucked)]
        if body is None or bar is None or port is None or not wanting:
            return
        top, high = bar.value(), port.height()
        seen = [s for s in wanting if s.y() < top + 2 * high and s.y() + s.height() > top - high]
        if seen and body.height() > high:
            for section in seen:
                section.make()

    def scrollContentsBy(self, dx: int, dy: int) -> None:
        super().scrollContentsBy(dx, dy)
        self._make_seen()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self._share_out()
        self._make_seen()

    def walk_on(self, field: Field) -> None:
        """From any field, names and choices too, on to the next reading of the page, or off it; on a page without
        readings Enter stays."""
        rows = self._rows()
        if not any(row.sort == "reading" for row in rows):
            return
        paths = [row.path for row in rows]
        rest = rows[paths.index(field.path) + 1 :] if field.path in paths else []
        after = next((row for row in rest if row.sort == "reading"), None)
        there = self.field_at(after.path) if after else None
        if there is None:
            self.walked_off.emit()
            return
        self.ensureWidgetVisible(there)
        there.take_focus()

    def _rows(self) -> list[Row]:
        return [row for group in (self.page.groups if self.page else ()) for row in group.rows]

    def first_reading(self) -> Field | None:
        """The first reading of the page; None where it has none."""
        reading = next((row for row in self._rows() if row.sort == "reading"), None)
        return self.field_at(reading.path) if reading else None

    def fields(self) -> list[Field]:
        """Those that are made."""
        return [field for section in self.sections for field in section.fields]

    def remove(self, group: Group) -> None:
        """Take the list member a group stands for out of the build."""
        self.session.do(Act("remove", f"Remove {group.title}", package_of(group.remove), path=group.remove))

    def point_out(self, part: tuple[str, ...]) -> None:
        """Mark the sections that belong to a part, and scroll to the first of them where none is in sight."""
        own = [section for section in self.sections if any(row.path[: len(part)] == part for row in section.group.rows)]
        for section in own:
            self._open(section)
        for section in self.sections:
            section.point_out(section in own)
        port = self.viewport()
        if own and port is not None and not any(section.visibleRegion().intersects(section.rect()) for section in own):
            self.ensureWidgetVisible(own[0], 0, 0)

    def _open(self, section: FormSection) -> None:
        """A section and the one it goes with, unfolded."""
        for one in (next((owner for owner in self.sections if section in owner.under), section), section):
            one.make()
            one.fold(False)
        body = self.widget()
        layout = body.layout() if body is not None else None
        if body is not None and layout is not None:
            layout.activate()
            self._give_height()
            body.adjustSize()

    def field_at(self, path: tuple[str, ...]) -> Field | None:
        """The field at a path, or the first of the section at it; made if it was not yet. None where the page has
        none."""
        for steps in (None, len(path)):  # the very path, then what lies below it
            for section in self.sections:
                if any(row.path[:steps] == path for row in section.group.rows):
                    self._open(section)
                    return next(
                        field
                        for field, row in zip(section.fields, section.group.rows, strict=True)
                        if row.path[:steps] == path
                    )
        return None
