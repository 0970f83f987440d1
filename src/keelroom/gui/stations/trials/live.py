"""A car or a logger read live, a figure a second, kept until it is put into a trial."""

from __future__ import annotations

import time
from functools import partial
from typing import Protocol

from PyQt6.QtCore import QCoreApplication, QObject, QThread, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout

from keelroom.assess.drives.words import clock
from keelroom.assess.trials.words import figure
from keelroom.document.schema.trials import Log, Sensor
from keelroom.gui.session.session import Session
from keelroom.gui.stations.trials.kept_logs import keep_logs
from keelroom.gui.stations.trials.tries import Tries
from keelroom.gui.widgets.text import ChoiceBox, button, label

WAYS = (
    ("car", "Car, through a serial adapter"),
    ("can", "Car, over its CAN bus directly"),
    ("logger", "Logger, line by line"),
)
ASKED = {"car": "serial port, as the system names it", "logger": "serial port, as the system names it"}
CAN_ASKED = "sort of interface and channel: socketcan can0"
EVERY = 1.0
"""[s] between two readings of a car"""
REDRAWN = 4
"""readings after which the picture is drawn anew"""
READ_OF_CAR = {"coolant": "outlet", "volts": "volts"}
"""Figures of a car's computer that are readings of the cooling system, and of which place"""
SHOWN_OF_CAR = ("coolant", "volts", "intake", "ambient", "rpm", "speed", "load")
CAUTION = "Somebody else reads on the road. Leads away from belts and fans; fans start by themselves."


class Car(Protocol):
    """A car that is asked figure by figure."""

    def read(self, name: str) -> float | None: ...
    def close(self) -> None: ...


class Reading(QThread):
    """One device, read until it is stopped or says no more."""

    came = pyqtSignal(float, dict)
    """its time [s] and figures by name"""
    ended = pyqtSignal(str)
    """why it ended; '' where it was stopped"""

    def __init__(self, way: str, port: str) -> None:
        super().__init__()
        self.way, self.port = way, port

    def run(self) -> None:
        """Until it is asked to end. Nothing it says comes after `ended`."""
        from keelroom.devices.service01 import DeviceError

        try:
            self._logger() if self.way == "logger" else self._car()
        except DeviceError as error:
            self.ended.emit(error.message)
            return
        except Exception as error:
            self.ended.emit(f"The line to “{self.port}” broke: {error}")
            return
        self.ended.emit("")

    def _car(self) -> None:
        adapter = self._opened()
        began = time.monotonic()
        try:
            while not self.isInterruptionRequested():
                at = time.monotonic() - began
                found = {name: value for name in SHOWN_OF_CAR if (value := adapter.read(name)) is not None}
                self.came.emit(at, found)
                left = EVERY - (time.monotonic() - began - at)
                if left > 0:
                    self.msleep(int(1000 * left))
        finally:
            adapter.close()

    def _opened(self) -> Car:
        """The car through what was chosen. Raises DeviceError saying what was expected."""
        if self.way == "can":
            from keelroom.devices.can_car import opened

            return opened(self.port)
        from keelroom.devices.adapter import Adapter

        return Adapter(self.port)

    def _logger(self) -> None:
        from keelroom.devices.serial_logger import SerialLogger

        logger = SerialLogger(self.port)
        try:
            while not self.isInterruptionRequested():
                moment = logger.read()
                self.came.emit(moment.seconds, moment.figures)
        finally:
            logger.close()


RUNNING: set[Reading] = set()
"""Threads that read: held until they end, for a window may go before its device answers."""


def end_all() -> None:
    """Ask all that read to end, and wait a moment: the program is about to."""
    for one in tuple(RUNNING):
        one.requestInterruption()
        one.wait(3000)


class LiveBox(QObject):
    """What is read live, and what of it was kept."""

    come = pyqtSignal()

    def __init__(self, session: Session, tries: Tries) -> None:
        super().__init__()
        self.session, self.tries = session, tries
        self.way, self.port, self.said = "car", "", ""
        self.reading: Reading | None = None
        self.times: dict[str, list[float]] = {}
        self.values: dict[str, list[float]] = {}
        self.last: dict[str, float] = {}
        self.begins: float | None = None
        self.count = 0
        program = QCoreApplication.instance()
        if program is not None:
            program.aboutToQuit.connect(end_all)

    @property
    def running(self) -> bool:
        """Whether a device is read."""
        return self.reading is not None

    @property
    def logs(self) -> tuple[Log, ...]:
        """What was read so far, as a trial keeps it: only what is read of the cooling system."""
        found = []
        for name, seconds in self.times.items():
            sensor = self._sensor(name)
            if sensor is not None and len(seconds) > 1:
                values = tuple(round(value, 3) for value in self.values[name])
                moments = tuple(round(at, 2) for at in seconds)
                found.append(
                    Log(id=name[:40], sensor=sensor.id, seconds=moments, values=values, source=f"live, {name}")
                )
        return tuple(found)

    def _sensor(self, name: str) -> Sensor | None:
        """What a figure is read with: the car's own by its place, a logger's column by the sensor's name."""
        there = self.session.build.logbook.sensors
        if self.way != "logger":
            place = READ_OF_CAR.get(name)
            own = [one for one in there if one.place == place]
            return next((one for one in own if one.by == "car"), own[0] if own and place == "volts" else None)
        lowered = name.lower()
        named = next((one for one in there if one.name.lower() == lowered), None)
        return named or next((one for one in there if one.by in ("probe", "meter") and one.place == lowered), None)

    def write(self, column: QVBoxLayout) -> None:
        """Its part of the page."""
        column.addWidget(label("Read live", "head"))
        column.addWidget(label(CAUTION, "doubt", wrap=True))
        box = ChoiceBox()
        box.setAccessibleName("What is read live")
        for key, words in WAYS:
            box.addItem(words, key)
        box.setCurrentIndex(box.findData(self.way))
        box.setEnabled(not self.running)
        box.activated.connect(lambda k: self._choose(box.itemData(k)))
        column.addWidget(box)
        line = QHBoxLayout()
        port = QLineEdit(self.port)
        port.setAccessibleName("Port of the device")
        port.setPlaceholderText(ASKED.get(self.way, CAN_ASKED))
        port.setEnabled(not self.running)
        port.textChanged.connect(lambda text: setattr(self, "port", text.strip()))
        line.addWidget(port, 1)
        line.addWidget(button("Stop", self.stop, "Stop reading live") if self.running else self._starter())
        column.addLayout(line)
        if self.said:
            column.addWidget(label(self.said, "problem", wrap=True))
        if self.count:
            span = max((seconds[-1] for seconds in self.times.values()), default=0.0)
            column.addWidget(label(f"{self.count} moments over {clock(span)}.", wrap=True))
        for name, value in self.last.items():
            column.addWidget(label(f"{name}: {self._figure(name, value)}", "strong"))
        if self.count and not self.running:
            kept = QHBoxLayout()
            kept.addWidget(button("Keep these readings", self.keep, "Keep what was read live in this trial"))
            kept.addWidget(button("Let them go", self.drop, "Let what was read live go"))
            kept.addStretch(1)
            column.addLayout(kept)

    def _choose(self, way: str) -> None:
        self.way, self.said = way, ""
        self.come.emit()

    def _starter(self) -> QPushButton:
        found = button("Start", self.start, "Start reading live")
        found.setEnabled(not self.logs)
        return found

    def _figure(self, name: str, value: float) -> str:
        if name in ("rpm",):
            return f"{value:.0f} rpm"
        if name == "load":
            return f"{value:.0%}"
        if name == "speed":
            return f"{3.6 * value:.0f} km/h"
        place = {"volts": "volts", "battery": "battery"}.get(name, "outlet")
        return figure(place, value, self.session.system)

    def start(self) -> None:
        """Begin to read; what was read before and not kept stays until it is let go."""
        if self.running:
            return
        if not self.port:
            wanted = "Which bus? Its interface and channel, as socketcan can0."
            port = "Which port? It is named like the stand-in says when it starts."
            self.said = wanted if self.way == "can" else port
            self.come.emit()
            return
        self.said = ""
        self.reading = Reading(self.way, self.port)
        RUNNING.add(self.reading)
        self.reading.finished.connect(partial(RUNNING.discard, self.reading))
        self.reading.came.connect(self._came)
        self.reading.ended.connect(self._ended)
        self.reading.start()
        self.come.emit()

    def stop(self) -> None:
        """Ask it to end; what was read stays."""
        if self.reading is not None:
            self.reading.requestInterruption()

    def _came(self, at: float, figures: dict[str, float]) -> None:
        if self.begins is None:
            self.begins = at
        moment = at - self.begins
        for name, value in figures.items():
            times = self.times.setdefault(name, [])
            if times and moment <= times[-1]:
                self.said = f"Its clock ran back at {moment:.0f} s: that moment was left out"
                continue
            times.append(moment)
            self.values.setdefault(name, []).append(value)
        self.last = figures
        self.count += 1
        if self.count % REDRAWN == 1:
            self.come.emit()

    def _ended(self, why: str) -> None:
        reading, self.reading = self.reading, None
        if reading is not None:
            reading.wait(2000)
        if why:
            kept = f" What was read before, {self.count} moments, is still here." if self.count else ""
            self.said = f"{why}.{kept}"
        self.come.emit()

    def keep(self) -> None:
        """Put what was read into the trial."""
        trial, logs = self.tries.trial, self.logs
        if trial is None:
            return
        if not logs:
            self.said = "None of these columns is read with a sensor of this build: name one of them like the column."
            self.come.emit()
            return
        if keep_logs(self.session, trial.id, logs, "Keep what was read live"):
            self.drop()

    def drop(self) -> None:
        """Let what was read go."""
        self.times, self.values, self.last, self.count, self.begins, self.said = {}, {}, {}, 0, None, ""
        self.come.emit()
