"""One group of a page of fields: made when it comes into view, folded to a line where it is a member of a list."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QVBoxLayout,
    QWidget,
)

from keelroom.gui.rows import Group, Row
from keelroom.gui.rows import Said as Sentences
from keelroom.gui.session.session import Session
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
from keelroom.gui.widgets.ledger.line import FoldMark
from keelroom.gui.widgets.reading import ReadingField
from keelroom.gui.widgets.text import Pressed, button, label, restyle

if TYPE_CHECKING:
    from keelroom.gui.widgets.page_view import PageView

HEAD_HEIGHT, ROW_HEIGHT = 28, 30
"""[px] kept for a heading and for a row that is not made yet."""


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
        wrong = next((f for more in (self, *self.under) for f in more.fields if f.refused()), None)
        if wrong is not None and not self.folded:
            wrong.take_focus()  # what is not taken yet stays in sight
        elif self.folds:
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
