"""The window's head: the tape over the stations, the package figures belong to, and the acts that are always at hand."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from PyQt6.QtWidgets import QHBoxLayout, QWidget

from keelroom.gui.registry import STATIONS, by_station
from keelroom.gui.session.session import Session
from keelroom.gui.theme.palette import LIGHT, Palette
from keelroom.gui.widgets.tape import Tape
from keelroom.gui.widgets.text import ChoiceBox, button

Act = Callable[[], object]


class HeadActs(NamedTuple):
    """What the head's buttons do beside undo, redo and hold."""

    go: Callable[[str], None]
    response: Act
    units: Act
    theme: Act
    acts: Act


class Header(QWidget):
    """The head; `refresh` after a change of the build, `restyle` after one of units or theme."""

    def __init__(self, session: Session, palette: Palette, acts: HeadActs) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("paper")
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 8, 0)
        row.setSpacing(6)
        self.tape = Tape(palette, STATIONS, acts.go)
        row.addWidget(self.tape)
        row.addSpacing(6)
        self.package_box = self._packages()
        row.addWidget(self.package_box)
        row.addStretch(1)
        self.undo_button = button("Undo", session.store.undo)
        self.redo_button = button("Redo", session.store.redo)
        self.hold_button = button("Hold", session.toggle_hold, "Hold this state as reference", tip="Freeze this state as reference (F6)")
        response = button("Response", acts.response, tip="How the temperature answers the focused number (F7)")
        self.units_button = button("", acts.units, tip="Switch units (Ctrl+U)")
        self.theme_button = button("", acts.theme, tip="Light or dark (F9)")
        every = button("Acts…", acts.acts, "Every act by name", tip="Every act by name (F1)")
        for made in (self.undo_button, self.redo_button, self.hold_button, response, self.units_button, self.theme_button, every):
            row.addWidget(made)

    def _packages(self) -> ChoiceBox:
        box = ChoiceBox()
        box.setAccessibleName("Active package")
        box.setToolTip("The package all figures belong to")
        box.setMinimumWidth(196)
        box.activated.connect(lambda i: self.session.set(("active",), box.itemData(i), f"Package: {box.itemText(i)}"))
        return box

    def restyle(self, palette: Palette) -> None:
        self.tape.set_palette(palette)
        us = self.session.system == "us"
        self.units_button.setText("in · °F" if us else "mm · °C")
        self.units_button.setAccessibleName("Units: " + ("inches, Fahrenheit" if us else "millimetres, Celsius"))
        self.theme_button.setText("Dark" if palette is LIGHT else "Light")
        self.theme_button.setAccessibleName("Switch to " + self.theme_button.text().lower())

    def refresh(self) -> None:
        build, assessment = self.session.build, self.session.assessment
        self._list_packages()
        store = self.session.store
        for made, what, keys in ((self.undo_button, store.undo_label, "Ctrl+Z"), (self.redo_button, store.redo_label, "Ctrl+Shift+Z")):
            made.setEnabled(bool(what))
            made.setToolTip(f"{made.text()}: {what} ({keys})" if what else f"Nothing to {made.text().lower()}")
        self.hold_button.setText("Let go" if self.session.held else "Hold")
        own = by_station(assessment.findings)
        for station in STATIONS:
            self.tape.marks[station.name].show_state(station.state(build, assessment, own[station.name]))

    def _list_packages(self) -> None:
        build, box = self.session.build, self.package_box
        shown = [(box.itemData(i), box.itemText(i)) for i in range(box.count())]
        if shown != [(p.id, p.name or p.id) for p in build.packages]:
            box.clear()
            for package in build.packages:
                box.addItem(package.name or package.id, package.id)
        box.setCurrentIndex(box.findData(build.active))
