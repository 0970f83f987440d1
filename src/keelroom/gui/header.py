"""The slim row over the work: the package all figures belong to with its verdict, what was just said, and the acts
always at hand."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from PyQt6.QtWidgets import QHBoxLayout, QWidget

from keelroom.assess.acts.registry import offer
from keelroom.assess.report import VERDICT_ROLES, verdict_line
from keelroom.assess.words.calibrated import calibrated_by
from keelroom.gui.session.session import Session
from keelroom.gui.session.timing import one_shot
from keelroom.gui.theme.icons import icon
from keelroom.gui.theme.palette import LIGHT, Palette
from keelroom.gui.widgets.text import ChoiceBox, Elided, button, label, plain_tip, restyle
from keelroom.units import inches

Act = Callable[[], object]
SAID_FOR = 12000
"""[ms] a sentence about what was just done stands before the verdict does again."""
HEIGHT = 36


class HeadActs(NamedTuple):
    """What the head's buttons do beside undo, redo and hold."""

    response: Act
    units: Act
    theme: Act


class Header(QWidget):
    """The row; `refresh` after a change of the build, `restyle` after one of units or theme, `say` what was just
    done."""

    def __init__(self, session: Session, acts: HeadActs) -> None:
        super().__init__()
        self.session = session
        self.setObjectName("paper")
        self.setFixedHeight(HEIGHT)
        row = QHBoxLayout(self)
        row.setContentsMargins(8, 0, 8, 0)
        row.setSpacing(6)
        self.package_box = self._packages()
        row.addWidget(self.package_box)
        self.words = Elided()
        row.addWidget(self.words, 1)
        self.by = label("", "good")
        self.by.setToolTip("Trials, Learn: figures go by what was read, not by what is entered alone")
        row.addWidget(self.by)
        self.spoken = one_shot(self, SAID_FOR, self._verdict)
        self.undo_button = button("Undo", session.store.undo)
        self.redo_button = button("Redo", session.store.redo)
        self.hold_button = button(
            "Hold",
            session.toggle_hold,
            "Hold this state as reference",
            tip="Freeze this state as reference: every figure then shows its change from it, and the drawing its "
            "outline (F6)",
        )
        response = button(
            "Response",
            acts.response,
            tip="How the temperature answers the number you are at, over its whole range (F7)",
        )
        self.units_button = button("", acts.units, tip="Switch units (Ctrl+U)")
        self.theme_button = button("", acts.theme, tip="Light or dark (F9)")
        for made in (
            self.undo_button,
            self.redo_button,
            self.hold_button,
            response,
            self.units_button,
            self.theme_button,
        ):
            row.addWidget(made)

    def _packages(self) -> ChoiceBox:
        box = ChoiceBox()
        box.setAccessibleName("Active package")
        box.setToolTip("The package all figures belong to")
        box.setMinimumWidth(190)
        box.setMaximumWidth(260)
        box.activated.connect(lambda i: self.session.do(offer("activate", box.itemData(i))))
        return box

    def say(self, text: str) -> None:
        """What was just done, or could not be, in place of the verdict for a while."""
        self.words.setText(text)
        self.words.setAccessibleName(text)
        restyle(self.words, "role", "strong")
        self.spoken.start()

    def _verdict(self) -> None:
        text = verdict_line(self.session.assessment, self.session.system)
        worst = self.session.assessment.tightest
        stuck = any(case.stopped for case in self.session.assessment.cases)
        verdict = worst.figures.verdict if worst and worst.figures else "over" if stuck else ""
        self.words.setText(text)
        self.words.setAccessibleName(f"Verdict: {text}")
        by = calibrated_by(self.session.build.calibration)
        self.by.setText(by)
        self.by.setVisible(bool(by))
        restyle(
            self.words,
            "role",
            VERDICT_ROLES.get(verdict, "faint"),
        )

    def restyle(self, palette: Palette) -> None:
        us = inches(self.session.system)
        self.units_button.setText("in · °F" if us else "mm · °C")
        self.units_button.setAccessibleName("Units: " + ("inches, Fahrenheit" if us else "millimetres, Celsius"))
        for made, name in ((self.undo_button, "undo"), (self.redo_button, "redo"), (self.hold_button, "hold")):
            made.setIcon(icon(name, palette.ink))
        self.theme_button.setText("Dark" if palette is LIGHT else "Light")
        self.theme_button.setAccessibleName("Switch to " + self.theme_button.text().lower())

    def refresh(self) -> None:
        self._list_packages()
        store = self.session.store
        for made, what, keys in (
            (self.undo_button, store.undo_label, "Ctrl+Z"),
            (self.redo_button, store.redo_label, "Ctrl+Shift+Z"),
        ):
            made.setEnabled(bool(what))
            made.setToolTip(
                plain_tip(f"{made.text()}: {what} ({keys})") if what else f"Nothing to {made.text().lower()}"
            )
        self.hold_button.setText("Let go" if self.session.held else "Hold")
        if not self.spoken.isActive():
            self._verdict()

    def _list_packages(self) -> None:
        build, box = self.session.build, self.package_box
        shown = [(box.itemData(i), box.itemText(i)) for i in range(box.count())]
        if shown != [(p.id, p.name or p.id) for p in build.packages]:
            box.clear()
            for package in build.packages:
                box.addItem(package.name or package.id, package.id)
        box.setCurrentIndex(box.findData(build.active))
