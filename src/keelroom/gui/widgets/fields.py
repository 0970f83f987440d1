"""The editable fields: each is bound to one path of the build and gives edits back as values."""

from __future__ import annotations

from typing import get_args

from PyQt6.QtCore import QEvent, QObject, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QGridLayout,
    QLabel,
    QLineEdit,
    QMenu,
    QPlainTextEdit,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from keelroom.assess.tape import EYE
from keelroom.document.edits import set_value
from keelroom.document.fields import Path, get, owner_and_spec, spec_of
from keelroom.document.quantity import ORIGINS, Quantity, Spec, shown, typed
from keelroom.errors import InputError, KeelRoomError
from keelroom.facts import lowered
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.origin import OriginMark
from keelroom.gui.widgets.text import ChoiceBox, Line, label, plain_tip, restyle, set_quietly
from keelroom.units import format_si, inches, parse

LABEL_WIDTH, EDIT_WIDTH, UNIT_WIDTH = 138, 84, 44


class Field(QWidget):
    """A labelled row; `refresh` shows what the build holds now."""

    go_on = pyqtSignal()
    """Enter was pressed in it, and what stood there is entered"""

    def __init__(self, session: Session, path: Path, text: str) -> None:
        super().__init__()
        self.session, self.path, self.text = session, path, text
        self.marked: QLabel | None = None
        self.grid = QGridLayout(self)
        self.grid.setContentsMargins(0, 1, 0, 1)
        self.grid.setHorizontalSpacing(6)
        self.grid.setVerticalSpacing(0)
        self.caption = label(text)
        self.caption.setFixedWidth(LABEL_WIDTH)
        self.caption.setWordWrap(True)
        self.grid.addWidget(self.caption, 0, 0)
        self.grid.setColumnStretch(4, 1)

    def value(self) -> object:
        return get(self.session.build, self.path)

    def refused(self) -> bool:
        """Whether something stands typed in it that was not taken: it must not be put out of sight."""
        return any(line.property("wrong") for line in self.findChildren(QWidget) if line.property("wrong"))

    def exists(self) -> bool:
        """Whether the build still has the section this field belongs to."""
        try:
            owner_and_spec(self.session.build, self.path)
        except KeelRoomError:
            return False
        return True

    def refresh(self) -> None:
        raise NotImplementedError

    def belong_to(self, owner: str) -> None:
        """Put whose field it is before the accessible names of what is edited in it."""
        for kind in (QLineEdit, QComboBox, QCheckBox):
            for editor in self.findChildren(kind):
                editor.setAccessibleName(f"{owner}: {lowered(editor.accessibleName())}")

    def mark(self, text: str) -> None:
        """Say under the field what is wrong between it and others; '' where nothing is."""
        if self.marked is None:
            if not text:
                return
            self.marked = label("", "error", wrap=True)
            self.grid.addWidget(self.marked, 2, 0, 1, 5)
        self.marked.setText(text)
        self.marked.setVisible(bool(text))

    def take_focus(self) -> None:
        """Put the cursor where this field is edited."""
        editor = getattr(self, "edit", None) or getattr(self, "box", None)
        if isinstance(editor, QWidget):
            editor.setFocus(Qt.FocusReason.OtherFocusReason)
        if isinstance(editor, QLineEdit):
            editor.selectAll()  # what is typed next takes the place of what stands there


def field_round(widget: QWidget | None) -> Field | None:
    """The field a widget lies in."""
    while widget is not None and not isinstance(widget, Field):
        widget = widget.parentWidget()
    return widget


WAYS = {"~": "by eye", "?": "assumed"}
"""what may end a typed measure, so that a guess is not taken for measured"""


def marked_way(text: str) -> tuple[str, str]:
    """A typed text without its mark, and what the mark says of it ('' where it has none)."""
    bare = text.rstrip()
    way = WAYS.get(bare[-1:], "")
    return (bare[:-1].rstrip(), way) if way else (text, "")


def typed_with_way(text: str, spec: Spec, unit: str) -> Quantity:
    """The quantity a text means, measured unless its mark says otherwise. By eye, a length carries the doubt of an
    eye and anything else is assumed. Raises InputError saying what was expected."""
    bare, way = marked_way(text)
    value = typed(bare, spec, unit)
    if way == "by eye" and spec.kind_name == "length":
        return value.model_copy(update={"doubt": EYE})
    return value.model_copy(update={"origin": "assumed"}) if way else value


def origin_word(value: Quantity) -> str:
    """Where a value comes from, in a word."""
    return (
        "by eye"
        if value.origin == "measured" and value.doubt is not None and abs(value.doubt - EYE) < 1e-6
        else value.origin
    )


class QuantityField(Field):
    """A typed measure: echoed while typing, refused in place, with where its value came from."""

    def __init__(self, session: Session, path: Path) -> None:
        _, spec = owner_and_spec(session.build, path)
        assert spec is not None
        super().__init__(session, path, spec.label)
        self.spec = spec
        self.edit = Line()
        self.edit.setFixedWidth(EDIT_WIDTH)
        self.edit.setAccessibleName(spec.label)
        self.edit.setAlignment(Qt.AlignmentFlag.AlignRight)
        self.edit.textEdited.connect(self._echo)
        self.edit.editingFinished.connect(self.commit)
        self.edit.installEventFilter(self)
        self.unit = label("", "faint")
        self.unit.setFixedWidth(UNIT_WIDTH)
        self.origin = self._origin_button()
        self.said = label("", "faint", wrap=True)
        self.said.hide()
        self.caption.setToolTip(spec.help)
        for column, widget in enumerate((self.edit, self.unit, self.origin), 1):
            self.grid.addWidget(widget, 0, column)
        self.grid.addWidget(self.said, 1, 0, 1, 5)
        self.refresh()

    def _origin_button(self) -> OriginMark:
        made = OriginMark()
        made.setAccessibleName(f"{self.text}: where it comes from")
        made.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        made.clicked.connect(lambda _checked=False: self._offer_origins())
        return made

    def _offer_origins(self) -> None:
        menu = QMenu(self.origin)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        for origin in ORIGINS:
            action = menu.addAction(origin)
            assert action is not None
            action.triggered.connect(lambda _checked=False, origin=origin: self._set_origin(origin))
        menu.popup(self.origin.mapToGlobal(self.origin.rect().bottomLeft()))

    def _set_origin(self, origin: str) -> None:
        value = self.value()
        if isinstance(value, Quantity):
            self.session.set(self.path, value.model_copy(update={"origin": origin}), f"{self.text}: {origin}")

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress and event.key() == Qt.Key.Key_Escape:
            self.edit.setModified(False)
            self.refresh()
            return True
        return super().eventFilter(watched, event)

    def _echo(self, text: str) -> None:
        """Say how the text reads while it is typed; no judgement before it is entered."""
        unit = self.session.unit(self.spec.kind)
        restyle(self.edit, "wrong", False)
        text, way = marked_way(text)
        try:
            reading = parse(text, self.spec.kind, unit.symbol)
        except InputError:
            self.said.hide()
            return
        other = "si" if inches(self.session.system) else "us"
        here, there = (format_si(reading.si, self.spec.kind, system) for system in (self.session.system, other))
        told = f", {way}" if way else "; end with ~ if it is by eye, with ? if it is assumed"
        self._say(f"reads as {here}" + (f" = {there}" if there != here else "") + told, "faint")

    def _say(self, text: str, role: str) -> None:
        self.said.setText(text)
        restyle(self.said, "role", role)
        self.said.setVisible(bool(text))

    def commit(self) -> None:
        """Enter the text. A text that means nothing stays in the field with what was expected."""
        if not self.edit.isModified():
            return
        text = self.edit.text()
        if not text.strip():
            self._clear()
            return
        try:
            value = typed_with_way(text, self.spec, self.session.unit(self.spec.kind).symbol)
            self.edit.setModified(False)
            self.session.apply(set_value(self.path, value, f"{self.text} {value.as_typed}"))
        except InputError as error:
            self._refuse(error.message)

    def _refuse(self, why: str) -> None:
        self.edit.setModified(True)
        restyle(self.edit, "wrong", True)
        self._say(why, "error")
        self.edit.setAccessibleDescription(why)

    def _clear(self) -> None:
        try:
            self.edit.setModified(False)
            self.session.apply(set_value(self.path, None, f"Clear {self.text.lower()}"))
        except InputError:
            self.edit.setModified(True)
            restyle(self.edit, "wrong", True)
            self._say(f"{self.text} is needed; such as {self.spec.kind.example}", "error")

    def refresh(self) -> None:
        if self.edit.isModified():
            return  # what somebody is typing, or typed wrong, is theirs
        value = self.value()
        unit = self.session.unit(self.spec.kind)
        sign = self.session.settings.currency if self.spec.kind_name == "money" else ""
        self.unit.setText("" if self.spec.kind.named else unit.symbol or sign)
        told = (self.spec.help or f"Such as {self.spec.kind.example}", self.spec.range_words(self.session.system))
        self.edit.setToolTip(plain_tip("\n".join(part for part in told if part)))
        text = shown(value, self.spec.kind, self.session.system) if isinstance(value, Quantity) else ""
        if self.edit.text() != text:
            self.edit.setText(text)
            self.edit.setCursorPosition(0)
        self.origin.show_origin(
            origin_word(value)
            if isinstance(value, Quantity)
            else "optional"
            if self.spec.help.startswith("Empty")
            else "not known"
        )
        restyle(self.edit, "wrong", False)
        self.edit.setAccessibleDescription("")
        self.said.hide()


class ChoiceField(Field):
    """One of a few named choices."""

    def __init__(self, session: Session, path: Path, text: str, choices: tuple[tuple[str, str], ...]) -> None:
        super().__init__(session, path, text)
        self.box = ChoiceBox()
        self.box.setAccessibleName(text)
        for value, words in choices:
            self.box.addItem(words, value)
        self.box.setMinimumWidth(EDIT_WIDTH + UNIT_WIDTH)
        self.box.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.box.activated.connect(self._chosen)
        self.box.installEventFilter(self)
        self.box.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.grid.addWidget(self.box, 0, 1, 1, 4)
        self.refresh()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if (
            isinstance(event, QKeyEvent)
            and event.type() == QEvent.Type.KeyPress
            and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter)
        ):
            self.go_on.emit()
            return True
        return super().eventFilter(watched, event)

    def _chosen(self, index: int) -> None:
        self.session.set(self.path, self.box.itemData(index), f"{self.text}: {self.box.itemText(index)}")

    def refresh(self) -> None:
        self.box.setCurrentIndex(self.box.findData(self.value()))


class FlagField(Field):
    """Yes or no."""

    def __init__(self, session: Session, path: Path, text: str) -> None:
        super().__init__(session, path, "")
        self.text = text
        self.box = QCheckBox(text)
        self.box.setAccessibleName(text)
        self.box.toggled.connect(self._clicked)
        self.caption.hide()
        self.grid.addWidget(self.box, 0, 0, 1, 4)
        self.refresh()

    def _clicked(self, checked: bool) -> None:
        self.session.set(self.path, checked, f"{self.text}: {'yes' if checked else 'no'}")

    def refresh(self) -> None:
        set_quietly(self.box, bool(self.value()))


class TextField(Field):
    """A name in one line."""

    def __init__(self, session: Session, path: Path, text: str) -> None:
        super().__init__(session, path, text)
        self.edit = Line()
        self.edit.setMinimumWidth(60)
        self.edit.setAccessibleName(text)
        self.edit.setAccessibleDescription("In words of your own")
        self.edit.editingFinished.connect(self._commit)
        self.edit.returnPressed.connect(self.go_on)
        self.grid.addWidget(self.edit, 0, 1, 1, 4)
        self.refresh()

    def _commit(self) -> None:
        if self.edit.isModified():
            self.edit.setModified(False)
            self.session.set(self.path, self.edit.text(), f"{self.text}: {self.edit.text()[:30]}")

    def refresh(self) -> None:
        if not self.edit.isModified() and self.edit.text() != self.value():
            self.edit.setText(str(self.value()))
            self.edit.setToolTip(plain_tip(str(self.value())))
            self.edit.setCursorPosition(0)


class NotesField(Field):
    """Free text in several lines, entered on leaving it."""

    def __init__(self, session: Session, path: Path, text: str) -> None:
        super().__init__(session, path, text)
        self.edit = QPlainTextEdit()
        self.edit.setAccessibleName(text)
        self.edit.setTabChangesFocus(True)
        self.edit.setFixedHeight(86)
        self.edit.installEventFilter(self)
        self.grid.addWidget(self.edit, 1, 0, 1, 5)
        self.refresh()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if (
            event is not None
            and event.type() == QEvent.Type.FocusOut
            and self.edit.toPlainText() != self.value()
            and self.exists()
        ):
            self.session.set(self.path, self.edit.toPlainText(), self.text)
        return super().eventFilter(watched, event)

    def refresh(self) -> None:
        if not self.edit.hasFocus() and self.edit.toPlainText() != self.value():
            self.edit.setPlainText(str(self.value()))


class SetField(Field):
    """Any of several named marks, each a check box."""

    def __init__(self, session: Session, path: Path, text: str, choices: tuple[tuple[str, str], ...]) -> None:
        super().__init__(session, path, text)
        self.caption.setFixedWidth(LABEL_WIDTH + EDIT_WIDTH)
        column = QVBoxLayout()
        self.boxes: dict[str, QCheckBox] = {}
        for value, words in choices:
            box = QCheckBox(words)
            box.setAccessibleName(words)
            box.toggled.connect(lambda _on, words=words: self._clicked(words))
            column.addWidget(box)
            self.boxes[value] = box
        self.grid.addLayout(column, 1, 0, 1, 5)
        self.refresh()

    def _clicked(self, words: str) -> None:
        marked = tuple(value for value, box in self.boxes.items() if box.isChecked())
        self.session.set(self.path, marked, f"{self.text}: {words.lower()}")

    def refresh(self) -> None:
        marked = self.value()
        assert isinstance(marked, tuple)
        for value, box in self.boxes.items():
            set_quietly(box, value in marked)


class CurveField(Field):
    """A curve as typed pairs, such as a fan's flow and pressure: `0 @ 1.2; 900 @ 0.7; 1500 @ 0`."""

    def __init__(self, session: Session, path: Path, text: str) -> None:
        super().__init__(session, path, text)
        owner = get(session.build, path[:-1])
        self.point = get_args(type(owner).model_fields[path[-1]].annotation)[0]
        self.specs: dict[str, Spec] = {
            name: spec for name in self.point.model_fields if (spec := spec_of(self.point, name))
        }
        pair = " @ ".join(lowered(spec.label.removeprefix("Curve ")) for spec in self.specs.values())
        self.hint = f"{pair}; {pair} …"
        self.edit = Line()
        self.edit.setAccessibleName(text)
        self.edit.setPlaceholderText(self.hint)
        self.edit.editingFinished.connect(self.commit)
        self.said = label("", "error", wrap=True)
        self.said.hide()
        self.grid.addWidget(self.edit, 0, 1, 1, 4)
        self.grid.addWidget(self.said, 1, 0, 1, 5)
        self.refresh()

    def commit(self) -> None:
        if not self.edit.isModified():
            return
        try:
            points = tuple(self._point(pair) for pair in self.edit.text().split(";") if pair.strip())
            self.edit.setModified(False)
            self.session.apply(set_value(self.path, points, f"{self.text}: {len(points)} points"))
        except InputError as error:
            self.edit.setModified(True)
            restyle(self.edit, "wrong", True)
            self.said.setText(error.message)
            self.said.show()

    def _point(self, pair: str) -> object:
        first, sign, second = pair.partition("@")
        if not sign:
            raise InputError("curve_pair", f"“{pair.strip()}” is not a pair; write {self.hint}")
        read = zip(self.specs.items(), (first, second), strict=True)
        return self.point(
            **{name: typed(text, spec, self.session.unit(spec.kind).symbol) for (name, spec), text in read}
        )

    def refresh(self) -> None:
        if self.edit.isModified():
            return
        points = self.value()
        assert isinstance(points, tuple)
        self.edit.setText(
            "; ".join(
                " @ ".join(
                    format_si(getattr(point, name).si, spec.kind, self.session.system)
                    for name, spec in self.specs.items()
                )
                for point in points
            )
        )
        restyle(self.edit, "wrong", False)
        self.said.hide()
