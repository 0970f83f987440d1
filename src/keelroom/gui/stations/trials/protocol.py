"""The Protocol page: how a test is done, with a clock, in type that is read from the car, and what it should read."""

from __future__ import annotations

from datetime import date
from functools import partial
from pathlib import Path

from PyQt6.QtCore import QTimer, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout

from keelroom.assess.acts.registry import offer
from keelroom.assess.drives.words import clock
from keelroom.assess.outcome import Stopped
from keelroom.assess.placing import size_of
from keelroom.assess.trials.expected import Foretold
from keelroom.assess.trials.words import expect_words, fan_words
from keelroom.catalogue.protocols import PROTOCOLS, Protocol, protocol_of
from keelroom.drawing.trials import traverse_scene, trial_scene
from keelroom.gui.saving import ask_and_write
from keelroom.gui.session.session import Session
from keelroom.gui.stations.trials.board import FOOT
from keelroom.gui.stations.trials.model import lacks_readings
from keelroom.gui.stations.trials.tries import Tries
from keelroom.gui.widgets.column import ScrolledColumn
from keelroom.gui.widgets.flow import FlowLayout
from keelroom.gui.widgets.scene_view import Drawing, Picture
from keelroom.gui.widgets.text import ChoiceBox, button, label, replace_body
from keelroom.units import KINDS

TICK = 500
"""[ms]"""


class ProtocolView(ScrolledColumn):
    """Filled anew when another protocol or trial is looked at."""

    come = pyqtSignal()
    benched = pyqtSignal()
    """bench mode is asked for"""

    def __init__(self, session: Session, tries: Tries) -> None:
        super().__init__(session, "How the test is done")
        self.tries = tries
        self.key = ""
        """chosen here; '' follows the trial"""
        self.timer = QTimer(self)
        self.timer.setInterval(TICK)
        self.timer.timeout.connect(self._tick)
        self.watch = label("", "bench-figure")
        tries.come.connect(self._come)
        tries.turned.connect(self._turned)

    @property
    def protocol(self) -> Protocol:
        """The one that is looked at."""
        trial = self.tries.trial
        return protocol_of(self.key or (trial.protocol if trial else ""))

    @property
    def picture(self) -> Picture:
        """Where a vane is held, or the trial as it should read."""
        return Picture("What is read, and where", self._drawn, 760.0)

    def _drawn(self) -> Drawing:
        if self.protocol.passes == "air" and self.session.build.packages:
            wide, high = size_of(self.session.build.package.core)
            foot = "Ten seconds at each mark; their mean times the area is the flow (log-Tchebycheff, ISO 3966)."
            found = self.tries.found
            speeds = found.marks if isinstance(found, Foretold) else ()
            unit = KINDS["air speed"].shown_unit(self.session.system).symbol
            told = f", and what it should read, {unit}" if speeds else ""
            title = f"Where the vane is held over this face{told}"
            return traverse_scene(wide, high, speeds, self.session.system), title, foot
        trial, found = self.tries.trial, self.tries.found
        if trial is None or trial.protocol != self.protocol.key or not isinstance(found, Foretold):
            return None, "", "Make a trial of it: what it should read is drawn then."
        return trial_scene(trial, found, self.session.system), trial.name, FOOT

    def _come(self) -> None:
        if self.isVisible():
            self.refresh()

    def _turned(self) -> None:
        self.key = ""
        self._come()

    def refresh(self) -> None:
        """Write it."""
        self.tries.ask()
        protocol = self.protocol
        body, column = self.blank(6)
        box = ChoiceBox()
        box.setAccessibleName("Protocol")
        for one in PROTOCOLS:
            box.addItem(one.name, one.key)
        box.setCurrentIndex(box.findData(protocol.key))
        box.activated.connect(lambda k: self._choose(box.itemData(k)))
        column.addWidget(box)
        column.addWidget(label(f"{protocol.purpose}.", wrap=True))
        column.addWidget(label(protocol.caution, "doubt", wrap=True))
        column.addWidget(label(f"Stop at once: {protocol.stop}", "problem", wrap=True))
        if protocol.needs:
            words = f"It must run {clock(protocol.needs)} for its answer to mean something."
            column.addWidget(label(words, "faint", wrap=True))
        self._clock(column)
        for step in protocol.steps:
            when = f"{step.minute:g} min" if step.minute >= 0 else "before"
            column.addWidget(label(f"{when}: {step.words}", "strong", wrap=True))
        self._expected(column)
        line = FlowLayout()
        made = button("Make a trial of it", self._make, f"Make a trial: {protocol.name}")
        line.addWidget(made)
        if any(step.writes for step in protocol.steps):
            bench = button(
                "Read it at the bench", self._bench, "Read it at the bench", "", "One reading at a time (F8)"
            )
            line.addWidget(bench)
        line.addWidget(button("Blank sheet…", self._sheet, "Save a blank sheet to print"))
        column.addLayout(line)
        column.addStretch(1)
        replace_body(self, body)
        self.come.emit()

    def _clock(self, column: QVBoxLayout) -> None:
        line = QHBoxLayout()
        self.watch = label("0:00", "bench-figure")
        line.addWidget(self.watch)
        running = self.tries.began is not None
        line.addWidget(button("Stop the clock" if running else "Start the clock", self._run, "Clock of the test"))
        line.addStretch(1)
        column.addLayout(line)
        self._tick()

    def _run(self) -> None:
        self.tries.run_clock()
        if self.tries.began is None:
            self.timer.stop()
        else:
            self.timer.start()
        self.refresh()

    def _tick(self) -> None:
        self.watch.setText(self.tries.clock)

    def _expected(self, column: QVBoxLayout) -> None:
        trial, found = self.tries.trial, self.tries.found
        if trial is None or trial.protocol != self.protocol.key:
            return
        if self.tries.missing:
            column.addWidget(label(self.tries.missing, "faint", wrap=True))
            return
        if isinstance(found, Stopped):
            column.addWidget(label(f"{found.sentence}.", "problem", wrap=True))
            go = partial(self.session.asked_for.emit, found.where)
            column.addWidget(button("Go there", go, "Go to what stops it"))
            return
        if found is None:
            return
        column.addWidget(label("What it should read at its end", "head"))
        column.addWidget(label(fan_words(found.fans, self.session.system), wrap=True))
        for one in found.expects:
            role = "" if one.read is None or one.meaning == "As foretold." else "doubt"
            column.addWidget(label(f"{one.sensor.name}: {expect_words(one, self.session.system)}", role, wrap=True))
            column.addWidget(label(one.meaning, "faint", wrap=True))

    def _choose(self, key: str) -> None:
        self.key = key
        self.refresh()

    def _make(self) -> None:
        if self.session.do(offer("add_trial", protocol=self.protocol.key, day=date.today().isoformat())):
            self.tries.choose(self.session.build.logbook.trials[-1].id)
            self.session.told.emit("It stands in the logbook: how warm is the day?")

    def _bench(self) -> None:
        """Bench mode on the readings of a trial by this protocol, made and laid out where that is not done yet."""
        trial = self.tries.trial
        if trial is None or trial.protocol != self.protocol.key:
            self._make()
            trial = self.tries.trial
        if trial is not None and lacks_readings(trial):
            self.session.do(offer("lay_readings", trial=trial.id))
        self.benched.emit()

    def _sheet(self) -> None:
        """A blank sheet of the protocol, to be filled in with a pen."""
        protocol, system = self.protocol, self.session.system

        def write(path: Path) -> None:
            from keelroom.export.trial_sheet import write_blank

            found = self.tries.found if self.tries.trial and self.tries.trial.protocol == protocol.key else None
            write_blank(path, self.session.build, protocol, None if isinstance(found, Stopped) else found, system)

        ask_and_write(self, self.session, ("Save a blank sheet", f"{protocol.key}.pdf", "PDF (*.pdf)"), write)
