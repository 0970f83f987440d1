"""A reading of the tape walk: the measure, how it was taken, and a second reading held against it."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QObject, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QLineEdit, QMenu, QToolButton

from keelroom.assess.tape import EYE, may_differ
from keelroom.document.edits import set_value
from keelroom.document.fields import Path
from keelroom.document.quantity import Quantity, Spec, shown, typed
from keelroom.document.schema.survey import SecondReading
from keelroom.errors import InputError
from keelroom.facts import lowered
from keelroom.gui.session.session import Session
from keelroom.gui.widgets.fields import EDIT_WIDTH, QuantityField
from keelroom.gui.widgets.text import Line, label, restyle
from keelroom.units import KINDS, format_si

CAPTION_WIDTH, UNIT_WIDTH = 132, 24
BY_EYE = "~"
"""written before a reading: taken by eye"""
WAYS = {
    "tape": "Tape, ±1/16 in",
    "eye": "By eye, ±1/4 in",
    "assumed": "Assumed, to be measured",
    "none": "Not measured: clear it",
}


class ReadingField(QuantityField):
    """Enter goes on to the next reading; `~` before a figure says it was taken by eye."""

    entered = pyqtSignal()

    def __init__(self, session: Session, path: Path, of: str = "") -> None:
        self.second_edit: QLineEdit | None = None
        super().__init__(session, path)
        self.name = f"{of}: {lowered(self.text)}" if of else self.text
        self.edit.setAccessibleName(self.name)
        # Room for how it was taken and for the second reading beside it.
        self.caption.setFixedWidth(CAPTION_WIDTH)
        self.unit.setFixedWidth(UNIT_WIDTH)
        self.origin.setAccessibleName(f"{self.name}: how it was taken")
        self.again = QToolButton()
        self.again.setText("2nd")
        self.again.setProperty("role", "origin")
        self.again.setAccessibleName(f"{self.name}: read it again")
        self.again.setToolTip("A second reading, held against the first")
        self.again.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.again.clicked.connect(lambda _checked=False: self._open_second())
        # What is read twice is a length: an angle or a count has nothing a tape would be off by.
        self.grid.addWidget(self.again, 0, 4, Qt.AlignmentFlag.AlignRight)
        if self.spec.kind_name != "length" or self.path[0] != "survey":
            self.again.hide()
        self.compared = label("", "faint", wrap=True)
        self.compared.hide()
        self.grid.addWidget(self.compared, 3, 0, 1, 5)
        self.refresh()

    # the first reading

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if (
            isinstance(event, QKeyEvent)
            and event.type() == QEvent.Type.KeyPress
            and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter)
        ):
            if watched is self.second_edit:
                self._commit_second()
            else:
                self.commit()
                if not self.edit.isModified():
                    self.entered.emit()
            return True
        return super().eventFilter(watched, event)

    def _echo(self, text: str) -> None:
        super()._echo(text.lstrip().removeprefix(BY_EYE))

    def commit(self) -> None:
        if not self.edit.isModified():
            return
        text = self.edit.text().strip()
        if not text.startswith(BY_EYE):
            super().commit()
            return
        try:
            value = by_eye(text.removeprefix(BY_EYE), self.spec, self.session)
            self.edit.setModified(False)
            self.session.apply(set_value(self.path, value, f"{self.text} {value.as_typed}, by eye"))
        except InputError as error:
            self._refuse(error.message)

    def _offer_origins(self) -> None:
        menu = QMenu(self.origin)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        for way, words in WAYS.items():
            if way == "none" and self.path[-1] == "gap":
                continue  # a gap is assumed until it is measured: it is never empty
            action = menu.addAction(words)
            assert action is not None
            action.triggered.connect(lambda _checked=False, way=way: self.set_way(way))
        menu.popup(self.origin.mapToGlobal(self.origin.rect().bottomLeft()))

    def set_way(self, way: str) -> None:
        """Say how the reading was taken: 'tape', 'eye', 'assumed', or 'none' to clear it."""
        value = self.value()
        if way == "none":
            self.session.set(self.path, None, f"Clear {self.text.lower()}")
        elif isinstance(value, Quantity):
            update = {"origin": "assumed" if way == "assumed" else "measured", "doubt": EYE if way == "eye" else None}
            self.session.set(
                self.path, value.model_copy(update=update), f"{self.text}: {WAYS[way].split(',')[0].lower()}"
            )

    def refresh(self) -> None:
        super().refresh()
        self.origin.show_origin(way_of(self.value()))
        if hasattr(self, "again"):
            self._refresh_second()

    # the second reading

    @property
    def second_id(self) -> str:
        return ".".join(self.path[1:])

    def second(self) -> SecondReading | None:
        return next((item for item in self.session.build.survey.second if item.id == self.second_id), None)

    def _open_second(self) -> None:
        if self.second_edit is None:
            self.second_edit = Line()
            self.second_edit.setFixedWidth(EDIT_WIDTH)
            self.second_edit.setAlignment(Qt.AlignmentFlag.AlignRight)
            self.second_edit.setAccessibleName(f"{self.name}, second reading")
            self.second_edit.setPlaceholderText("again")
            self.second_edit.editingFinished.connect(self._commit_second)
            self.second_edit.installEventFilter(self)
            self.grid.addWidget(self.second_edit, 2, 1)
        self.second_edit.show()
        self.second_edit.setFocus(Qt.FocusReason.OtherFocusReason)

    def _commit_second(self) -> None:
        assert self.second_edit is not None
        if not self.second_edit.isModified():
            return
        text = self.second_edit.text().strip()
        others = tuple(item for item in self.session.build.survey.second if item.id != self.second_id)
        try:
            kept = (
                (
                    SecondReading(
                        id=self.second_id, value=typed(text, self.spec, self.session.unit(self.spec.kind).symbol)
                    ),
                )
                if text
                else ()
            )
            self.second_edit.setModified(False)
            self.session.apply(
                set_value(("survey", "second"), (*others, *kept), f"{self.text}, read again: {text or 'taken out'}")
            )
        except InputError as error:
            self.second_edit.setModified(True)
            restyle(self.second_edit, "wrong", True)
            self.compared.setText(error.message)
            restyle(self.compared, "role", "error")
            self.compared.show()

    def _refresh_second(self) -> None:
        found, first = self.second(), self.value()
        if self.second_edit is not None and not self.second_edit.isModified():
            restyle(self.second_edit, "wrong", False)
            self.second_edit.setText(shown(found.value, self.spec.kind, self.session.system) if found else "")
        if found is None or not isinstance(first, Quantity):
            self.compared.setVisible(False)
            return
        length = KINDS["length"]
        apart = abs(found.value.si - first.si)
        within = apart <= may_differ(first)
        words = f"second reading {format_si(found.value.si, length, self.session.system)}"
        words += (
            ": agrees" if within else f": {format_si(apart, length, self.session.system)} off, take it a third time"
        )
        self.compared.setText(words)
        restyle(self.compared, "role", "faint" if within else "doubt")
        self.compared.setVisible(True)


def by_eye(text: str, spec: Spec, session: Session) -> Quantity:
    """A reading taken by eye. Raises InputError saying what was expected."""
    return typed(text, spec, session.unit(spec.kind).symbol).model_copy(update={"doubt": EYE})


def way_of(value: object) -> str:
    """How a reading was taken, in a word."""
    if not isinstance(value, Quantity):
        return "not measured"
    if value.origin != "measured":
        return value.origin
    if value.doubt is None:
        return "tape"
    return "by eye" if abs(value.doubt - EYE) < 1e-6 else "tape, ±"
