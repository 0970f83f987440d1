"""The Run page: which drive, what it says, and what everything reads where the cursor stands."""

from __future__ import annotations

from contextlib import suppress
from functools import partial
from pathlib import Path

import numpy as np
from PyQt6.QtCore import Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QHideEvent, QResizeEvent, QShowEvent
from PyQt6.QtWidgets import QFormLayout, QHBoxLayout, QVBoxLayout, QWidget

from keelroom.assess.acts.registry import offer
from keelroom.assess.drives.driven import Driven
from keelroom.assess.drives.words import at_moment, clock, headline, table
from keelroom.assess.outcome import Stopped
from keelroom.gui.saving import ask_and_write
from keelroom.gui.session.session import Session
from keelroom.gui.stations.drive.drives import Drives
from keelroom.gui.stations.drive.face import FaceAtCursor
from keelroom.gui.stations.drive.strips import StripBoard
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.flow import FlowLayout
from keelroom.gui.widgets.text import ChoiceBox, button, label, replace_body

TICK = 50
"""[ms] between two places of a cursor that plays"""
WIDE_ENOUGH, TALL_ENOUGH = 345, 500
"""[px] from which figures and face stand side by side"""
SPEEDS = ((60.0, "1 min a second"), (180.0, "3 min a second"), (600.0, "10 min a second"))
COOLS = "A warm circuit stands under pressure: never open a cap on it. Fans start by themselves, with the key off too."


class RunView(QWidget):
    """The figures of a drive beside its strips."""

    come = pyqtSignal()

    def __init__(self, session: Session, drives: Drives) -> None:
        super().__init__()
        self.session, self.drives = session, drives
        self.setObjectName("panel")
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 6)
        column.setSpacing(0)
        column.addLayout(self._head())
        self.told = ScrolledColumn(session, "What the drive says")
        column.addWidget(self.told, 3)
        column.addLayout(self._player())
        self.readings = ScrolledColumn(session, "At the cursor")
        beside = QHBoxLayout()
        beside.setSpacing(0)
        beside.addWidget(self.readings, 1)
        self.face = FaceAtCursor(session, drives)
        beside.addWidget(self.face)
        column.addLayout(beside, 2)
        self.board = StripBoard(session, drives)
        self.timer = QTimer(self)
        self.timer.setInterval(TICK)
        self.timer.timeout.connect(self._tick)
        drives.come.connect(self._write)
        drives.moved.connect(self._read)
        drives.turned.connect(self._list)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self.face.setVisible(self.width() >= WIDE_ENOUGH and self.height() >= TALL_ENOUGH)

    @property
    def picture(self) -> QWidget:
        """The strips."""
        return self.board

    def _head(self) -> QVBoxLayout:
        box = QVBoxLayout()
        box.setContentsMargins(12, 8, 10, 2)
        box.setSpacing(6)
        self.choice = ChoiceBox()
        self.choice.setAccessibleName("Drive")
        self.choice.activated.connect(lambda place: self.drives.choose(self.choice.itemData(place)))
        box.addWidget(self.choice)
        line = FlowLayout()
        self.hold = button("Hold this run", self.drives.hold, "Hold this run, to compare", "", "Lay it under the next")
        line.addWidget(self.hold)
        line.addWidget(button("Save as CSV…", self._save, "Save the drive as CSV"))
        box.addLayout(line)
        return box

    def _player(self) -> QHBoxLayout:
        line = QHBoxLayout()
        line.setContentsMargins(12, 4, 10, 2)
        self.play = button("Play", self._play, "Play the drive", "", "Let the cursor go by itself")
        tip = "A duty case of this moment, for information: its figures in the ledger, its air on the map"
        self.look = button("Look at this moment", self._look, "Look at this moment as a duty case", "", tip)
        self.pace = ChoiceBox()
        self.pace.setAccessibleName("How fast it plays")
        for seconds, words in SPEEDS:
            self.pace.addItem(words, seconds)
        line.addWidget(self.play)
        line.addWidget(self.pace)
        line.addWidget(self.look)
        line.addStretch(1)
        return line

    def refresh(self) -> None:
        """Ask where something is another; write what stands."""
        self._list()
        self.drives.ask()
        self._write()

    def _list(self) -> None:
        there = self.session.build.driving.schedules
        shown = [(one.name or one.id, one.id) for one in there]
        if shown != [(self.choice.itemText(k), self.choice.itemData(k)) for k in range(self.choice.count())]:
            self.choice.clear()
            for words, ident in shown:
                self.choice.addItem(words, ident)
        schedule = self.drives.schedule
        place = self.choice.findData(schedule.id if schedule else "")
        self.choice.setCurrentIndex(place)

    def _write(self) -> None:
        found = self.drives.found
        body, column = self.told.blank(6)
        if self.drives.missing:
            column.addWidget(label(self.drives.missing, wrap=True))
        elif isinstance(found, Stopped):
            column.addWidget(label(f"{found.sentence}.", "problem", wrap=True))
            go = button("Go there", partial(self.session.asked_for.emit, found.where), "Go to what stops it")
            column.addWidget(go)
        elif found is None:
            column.addWidget(label("working it out …", wrap=True))
        else:
            for k, (role, words) in enumerate(headline(found, self.session.system)):
                column.addWidget(
                    label(words, ("strong" if role in ("", "good") else role) if k == 0 else role, wrap=True)
                )
            column.addWidget(label(COOLS, "faint", wrap=True))
        column.addStretch(1)
        replace_body(self.told, body)
        there = isinstance(found, Driven)
        for widget in (self.hold, self.play, self.look):
            widget.setEnabled(there)
        self.hold.setText("Let the held run go" if self.drives.held else "Hold this run")
        self._read()
        self.come.emit()

    def _read(self) -> None:
        found = self.drives.found
        body, column = self.readings.blank(2)
        if isinstance(found, Driven):
            rows = QFormLayout()
            rows.setContentsMargins(0, 0, 0, 0)
            rows.setVerticalSpacing(2)
            rows.setLabelAlignment(Qt.AlignmentFlag.AlignLeft)
            for name, words in at_moment(found, self.drives.at, self.session.system):
                rows.addRow(label(name, "faint"), label(words, "strong"))
            column.addLayout(rows)
        column.addStretch(1)
        replace_body(self.readings, body)
        if self.isVisible():
            self._glance()

    def _glance(self) -> None:
        """The ledger's rail marks the cursor's moment."""
        found = self.drives.found
        if not isinstance(found, Driven):
            self.session.glance(None)
            return
        outlet = float(np.interp(self.drives.at, found.run.time, found.run.outlet))
        self.session.glance((f"Drive, {clock(self.drives.at)}", outlet))

    def showEvent(self, event: QShowEvent | None) -> None:
        super().showEvent(event)
        self._glance()

    def hideEvent(self, event: QHideEvent | None) -> None:
        super().hideEvent(event)
        with suppress(RuntimeError):  # Qt says so where the window is taken down: nobody looks any more
            self.session.glance(None)

    def _look(self) -> None:
        """The ledger and the air map show the moment as a duty case."""
        schedule = self.drives.schedule
        if schedule is None:
            return
        if self.session.do(offer("moment_case", schedule=schedule.id, at=f"{self.drives.at:.3f}")):
            case = self.session.build.duty_cases[-1]
            self.session.select(case.id)
            self.session.told.emit(f"“{case.name}” stands in the ledger: Air shows what its face gets")

    def _play(self) -> None:
        found = self.drives.found
        if self.timer.isActive() or not isinstance(found, Driven):
            self._pause()
            return
        if self.drives.at >= found.lasts:
            self.drives.move(0.0)
        self.timer.start()
        self.play.setText("Pause")

    def _pause(self) -> None:
        self.timer.stop()
        self.play.setText("Play")

    def _tick(self) -> None:
        found = self.drives.found
        if not isinstance(found, Driven) or not self.isVisible() or self.drives.at >= found.lasts:
            self._pause()
            return
        self.drives.move(self.drives.at + float(self.pace.currentData()) * TICK / 1000)

    def _save(self) -> None:
        found = self.drives.found
        if not isinstance(found, Driven):
            self.session.told.emit("There is no run to save yet")
            return
        from keelroom.export.tables import write_csv

        rows = table(found, self.session.system)

        def write(path: Path) -> None:
            write_csv(rows, path)

        ask_and_write(self, self.session, ("Save the drive as CSV", "drive.csv", "CSV (*.csv)"), write)
