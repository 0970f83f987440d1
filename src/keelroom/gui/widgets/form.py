"""A station's form from its view-model: pages behind chips, what each holds under headings, built when first shown."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import partial
from typing import Protocol, cast

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import (
    QApplication,
    QHBoxLayout,
    QLabel,
    QPushButton,
    QStackedWidget,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from keelroom.assess.outcome import Stopped, attempted
from keelroom.document.act import Act
from keelroom.document.entered import package_of
from keelroom.gui.marks import stop_marks
from keelroom.gui.rows import Group, Page, Press, Row
from keelroom.gui.rows import Said as Sentences
from keelroom.gui.session.session import Session
from keelroom.gui.station import Leaf, Station
from keelroom.gui.theme.dress import dress
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.fields import (
    ChoiceField,
    CurveField,
    Field,
    FlagField,
    NotesField,
    QuantityField,
    SetField,
    TextField,
)
from keelroom.gui.widgets.flow import FlowLayout
from keelroom.gui.widgets.foretold import Foretold
from keelroom.gui.widgets.ledger.line import FoldMark
from keelroom.gui.widgets.part_head import PartHead
from keelroom.gui.widgets.pictured import Pictured
from keelroom.gui.widgets.reading import ReadingField
from keelroom.gui.widgets.scene_view import Picture, SceneView
from keelroom.gui.widgets.seen import WhenSeen
from keelroom.gui.widgets.stop_note import StopNote
from keelroom.gui.widgets.text import Pressed, button, by_type, chip, label, replace_body, restyle

COLUMN_WIDTH, BETWEEN = 332, 20
"""[px] a column of fields wants at the usual size of type, and the room between two"""
AT_ONCE = 140
"""Rows of a page made when it is shown; more of them when they come into view."""
HEAD_HEIGHT, ROW_HEIGHT = 28, 30
"""[px] kept for a heading and for a row that is not made yet."""
Pages = Callable[[], tuple[Page, ...]]
Actions = Mapping[str, Callable[[], object]]


class Shown(Protocol):
    """A page that is no form: a table, a chart. It is made when first chosen and refreshed while it is seen."""

    def refresh(self) -> None: ...


Makers = Mapping[str, Callable[[], QWidget]]
Pictures = Mapping[str, Picture | QWidget]


def field_for(session: Session, row: Row, member: str = "") -> Field:
    """The widget of one row, with whose it is in its accessible names. member: of a list it is a field of, with
    others like it beside"""
    field = _field(session, row)
    owner = row.said or member
    if owner and row.sort != "reading":
        field.belong_to(owner)
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


class Said(QVBoxLayout):
    """Sentences that change in number and role, filled anew rather than made anew."""

    def __init__(self) -> None:
        super().__init__()
        self.setSpacing(2)
        self.labels: list[QLabel] = []

    def say(self, said: Sentences) -> None:
        while len(self.labels) < len(said):
            self.labels.append(label("", wrap=True))
            self.addWidget(self.labels[-1])
        for k, shown in enumerate(self.labels):
            shown.setVisible(k < len(said))
            if k < len(said):
                shown.setText(said[k][1])
                restyle(shown, "role", said[k][0])


class FormSection(QWidget):
    """One group of a page. It is made when it comes into view, its fields when they do; until then it only keeps their
    room."""

    def __init__(self, page: PageView, group: Group) -> None:
        super().__init__()
        self.page, self.group = page, group
        self.fields: list[Field] = []
        self.said: Said | None = None
        self.column = QVBoxLayout(self)
        self.column.setContentsMargins(0, 0, 0, 8)
        self.column.setSpacing(2)
        self.folded = self.folds = group.rare
        """folds: whether its heading folds it"""
        self.under: list[FormSection] = []
        """sections that tell more of the same list member, and go with it"""
        self.tucked = False
        """whether it goes with one that is folded"""
        self.fold_mark: FoldMark | None = None
        self.head: QLabel | None = None
        self.short: QLabel | None = None
        """a list member in a few words while it is folded, or what is wrong with it"""
        self.holder: QWidget | None = None
        """what folds away under the heading"""
        self._keep_room()

    @property
    def made(self) -> bool:
        return self.holder is not None

    @property
    def height_kept(self) -> int:
        """Rows it takes while it is not made."""
        return 1 + (0 if self.folded else len(self.group.rows))

    def _keep_room(self) -> None:
        self.setMinimumHeight(HEAD_HEIGHT + ROW_HEIGHT * (self.height_kept - 1))

    def make(self) -> None:
        """Make its heading, and its fields where it is open."""
        if self.made:
            return
        self.setMinimumHeight(0)
        page, group = self.page, self.group
        if group.title:
            head = QHBoxLayout()
            self.head = Pressed(group.title, "head")
            self.head.pressed.connect(self._turn)
            head.addWidget(self.head, 1)
            self.fold_mark = FoldMark(self._turn, f"{group.title}: show or fold away", down=True)
            head.addWidget(self.fold_mark)
            if group.remove:
                head.addWidget(button("Remove", lambda: page.remove(group), f"Remove {group.title}"))
            self.column.addLayout(head)
        self.short = label("", "faint", wrap=True)
        self.column.addWidget(self.short)
        self.holder = QWidget()
        self.column.addWidget(self.holder)
        self.fold(self.folded)
        self.refresh()

    def fill(self) -> None:
        """Make its fields, folded or not."""
        self.make()
        if self.said is not None or self.holder is None:
            return
        page, group = self.page, self.group
        inside = QVBoxLayout(self.holder)
        inside.setContentsMargins(0, 0, 0, 0)
        inside.setSpacing(2)
        if group.note:
            inside.addWidget(label(group.note, "faint", wrap=True))
        self.said = Said()
        inside.addLayout(self.said)
        for row in group.rows:
            field = field_for(page.session, row, group.title if group.remove else "")
            if isinstance(field, ReadingField):
                field.entered.connect(lambda field=field: page.walk_on(field))
            else:
                field.go_on.connect(lambda field=field: page.walk_on(field))
            self.fields.append(field)
            inside.addWidget(field)
        self.refresh()

    def tells_of(self, member: tuple[str, ...]) -> bool:
        """Whether all its rows are a list member's."""
        rows = self.group.rows
        return bool(rows) and all(row.path[: len(member)] == member for row in rows)

    def stand(self, folds: bool, folded: bool) -> None:
        """Whether it is a line that unfolds, and how it stands first."""
        self.folds = folds
        self.fold(folded)
        if not self.made:
            self._keep_room()

    def _turn(self) -> None:
        """By its heading."""
        if self.folds:
            self.fold(not self.folded)

    def point_out(self, pointed: bool) -> None:
        """Its heading is underlined while its part is chosen."""
        if self.head is not None:
            restyle(self.head, "role", "picked" if pointed else "head")

    def fold(self, folded: bool) -> None:
        """To its heading, or open."""
        self.folded = folded
        for section in self.under:
            section.tucked = folded
            if folded or section.parent() is not None:  # without one it would be a window
                section.setVisible(not folded)
        if self.holder is None:
            return
        if not folded:
            self.fill()
        self.holder.setVisible(not folded)
        self._show_short()
        if self.fold_mark is not None:
            self.fold_mark.down = folded
            self.fold_mark.setVisible(self.folds)
            self.fold_mark.update()

    def _show_short(self) -> None:
        if self.short is not None:
            self.short.setVisible(self.folded and bool(self.short.text()))

    def refresh(self) -> None:
        """Show what the build holds now, what is wrong and what is advised."""
        page = self.page.page
        if self.short is None or page is None:
            return
        marks = dict(page.marks)
        wrong = next((marks[row.path] for row in self.group.rows if marks.get(row.path)), "")
        if self.folded and wrong and not self.group.remove:
            self.fold(False)
        if self.group.remove:
            self.short.setText(wrong or (page.brief(self.group.remove) if page.brief else ""))
            restyle(self.short, "role", "error" if wrong else "faint")
            self._show_short()
        if self.said is None:
            return
        for field in self.fields:
            field.refresh()
            field.mark(marks.get(field.path, ""))
        if page.advice is not None and self.group.remove:
            self.said.say(page.advice(self.group.remove))


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


class Headings:
    """Headings of the parts of a page: those down to the open one above it, the rest below."""

    def __init__(self, station: Station, choose: Callable[[str], object]) -> None:
        self.above, self.below = QWidget(), QWidget()
        self.lines: dict[str, PartHead] = {
            part: PartHead(part, partial(choose, part)) for leaf in station.pages for part in leaf.parts
        }
        for holder in (self.above, self.below):
            holder.setObjectName("panel")
            column = QVBoxLayout(holder)
            column.setContentsMargins(0, 0, 0, 0)
            column.setSpacing(0)

    def open(self, leaf: Leaf, part: str) -> None:
        """Show the headings of a page with one of its parts open, in their order above and below it."""
        for line in self.lines.values():
            line.hide()
        at = leaf.parts.index(part) + 1 if leaf.parts else 0
        for holder, parts in ((self.above, leaf.parts[:at]), (self.below, leaf.parts[at:])):
            column = holder.layout()
            assert isinstance(column, QVBoxLayout)
            for place, title in enumerate(parts):
                line = self.lines[title]
                column.insertWidget(place, line)
                line.show_open(title == part)
                line.show()
            holder.setVisible(bool(parts))


class Form(WhenSeen, QWidget):
    """Chips over pages, each with one of its parts open between the headings of the others. `pages` is the station's
    view-model, a page of fields or none for each part, asked again after every change."""

    turned = pyqtSignal()
    """another part is shown, or another picture beside it"""

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
        self.buttons[leaf.title].setChecked(True)
        self.heads.open(leaf, title)
        self.refresh()
        self.turned.emit()

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
