"""What holds for every build: units, theme, paper."""

from __future__ import annotations

from functools import partial

from PyQt6.QtWidgets import QGridLayout, QWidget

from keelroom.facts import raised
from keelroom.gui.dialogs import Dialog
from keelroom.gui.session.session import Session
from keelroom.gui.session.settings import LONGEST_SIGN, PAPERS, TEXT_SIZES
from keelroom.gui.widgets.text import ChoiceBox, Line, label
from keelroom.units import CHOICES, KINDS


class Preferences(Dialog):
    """Each choice holds at once."""

    def __init__(self, window: QWidget, session: Session) -> None:
        super().__init__(window, session, "Preferences", (460, 300))
        self.grid = QGridLayout()
        self.grid.setColumnStretch(1, 1)
        self.column.addLayout(self.grid)
        settings = session.settings
        self._choice(
            "Units", (("us", "Inches, Fahrenheit"), ("si", "Millimetres, Celsius")), settings.units, session.set_units
        )
        for kind, symbols in CHOICES.items():
            own = KINDS[kind].shown_unit(settings.units).symbol
            usual = (("", f"As the units have it ({own})"),)
            choose = partial(self._set_unit, kind)
            self._choice(raised(kind), (*usual, *((one, one) for one in symbols)), settings.unit_of(kind), choose)
        self._choice(
            "Theme",
            (("light", "Light"), ("dark", "Dark"), ("contrast", "High contrast")),
            settings.theme,
            session.set_theme,
        )
        sizes = tuple((size, f"{size} pt") for size in TEXT_SIZES)
        self._choice("Text", sizes, settings.text_size, self._set_text)
        papers = (("", "As the units have it"), *((name, name) for name in PAPERS))
        self._choice("Paper", papers, settings.paper_chosen, self._set_paper)
        self._sign()
        self.note = label("Paper holds for everything printed or written as PDF.", "faint", wrap=True)
        self.column.addWidget(self.note)
        self.column.addStretch(1)
        self.close_button()

    def _choice(self, name: str, choices: tuple[tuple[str | int, str], ...], now: str | int, act: object) -> None:
        box = ChoiceBox()
        box.setAccessibleName(name)
        for value, words in choices:
            box.addItem(words, value)
        box.setCurrentIndex(box.findData(now))
        box.activated.connect(lambda index: act(box.itemData(index)))  # type: ignore[operator]
        row = self.grid.rowCount()
        self.grid.addWidget(label(name), row, 0)
        self.grid.addWidget(box, row, 1)

    def _sign(self) -> None:
        edit = Line()
        edit.setAccessibleName("Currency")
        edit.setText(self.session.settings.currency)
        edit.setMaxLength(LONGEST_SIGN)
        edit.setPlaceholderText("none, or a sign such as $ or €")
        edit.editingFinished.connect(lambda: self._set_sign(edit.text()))
        row = self.grid.rowCount()
        self.grid.addWidget(label("Currency"), row, 0)
        self.grid.addWidget(edit, row, 1)

    def _set_sign(self, sign: str) -> None:
        if sign.strip() != self.session.settings.currency:
            self.session.settings.currency = sign
            self.session.display_changed.emit()

    def _set_unit(self, kind: str, symbol: str) -> None:
        self.session.settings.choose_unit(kind, symbol)
        self.session.display_changed.emit()

    def _set_text(self, points: int) -> None:
        self.session.settings.text_size = points
        self.note.setText("The size of the type is set when the program starts next.")

    def _set_paper(self, name: str) -> None:
        self.session.settings.paper = name
        self.session.display_changed.emit()
