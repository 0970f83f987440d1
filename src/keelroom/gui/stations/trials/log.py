"""The Log page: a logger's file or pasted lines seen before they are brought in, and a car or a logger read live."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import NamedTuple

from PyQt6.QtWidgets import QApplication, QGridLayout, QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from keelroom.assess.drives.words import clock
from keelroom.assess.trials.clocks import clock_late
from keelroom.assess.trials.read_log import TIME_UNITS, Guess, Line, Read, as_before, guess, kept, read, units_of
from keelroom.document.schema.trials import Sensor
from keelroom.drawing.trials import logs_scene
from keelroom.errors import KeelRoomError
from keelroom.gui.session.session import Session
from keelroom.gui.stations.trials.kept_logs import keep_logs
from keelroom.gui.stations.trials.live import LiveBox
from keelroom.gui.stations.trials.tries import Tries
from keelroom.gui.widgets.brought import BringsIn, text_of
from keelroom.gui.widgets.scene_view import Drawing, Picture
from keelroom.gui.widgets.text import ChoiceBox, button, label, replace_body

NONE = "not taken"
SHOWN = 8
"""faults told one by one"""


class Brought(NamedTuple):
    """A file looked at: its name, text, how it is read, and what comes of that."""

    name: str
    text: str
    how: Guess
    read: Read | str


class LogView(BringsIn[Brought]):
    """Filled anew when something is brought in, or read."""

    title, sorts, reading = "Bring in readings", "Tables (*.csv *.tsv *.txt);;All files (*)", "reading …"

    def __init__(self, session: Session, tries: Tries) -> None:
        super().__init__(session, "Readings of a logger")
        self.tries = tries
        self.live = LiveBox(session, tries)
        self.live.come.connect(self._live_came)

    @property
    def picture(self) -> Picture:
        """What a file holds, or what is read live."""
        return Picture("Readings over time", self._drawn, 760.0)

    def _drawn(self) -> Drawing:
        build, system = self.session.build, self.session.system
        if self.brought is not None and isinstance(self.brought.read, Read):
            scene = logs_scene(build, self.brought.read.logs, system)
            return scene, f"{self.brought.name}: not brought in yet", "As it would be read."
        logs = self.live.logs or (self.tries.trial.logs if self.tries.trial else ())
        if not logs:
            return None, "", "No line of readings yet: bring one in, or read live."
        name = "Read live" if self.live.logs else self.tries.trial.name if self.tries.trial else ""
        return logs_scene(build, logs, system), name, ""

    def _live_came(self) -> None:
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        """Write the page."""
        body, column = self.blank(5)
        trial = self.tries.trial
        if trial is None:
            column.addWidget(label("Make a trial first, on the Logbook page: readings belong to one.", wrap=True))
            column.addStretch(1)
            replace_body(self, body)
            self.come.emit()
            return
        column.addWidget(label(f"Readings for “{trial.name}”.", "strong", wrap=True))
        line = QHBoxLayout()
        line.addWidget(button("Bring in a file…", self.bring, "Bring in a logger's file"))
        line.addWidget(button("Paste", self.paste, "Paste readings", "", "Lines copied from a table"))
        line.addStretch(1)
        column.addLayout(line)
        self.write_standing(column)
        if self.brought is not None:
            self._preview(column, self.brought)
        self.live.write(column)
        column.addStretch(1)
        replace_body(self, body)
        self.come.emit()

    # a file

    def from_file(self, path: Path) -> Callable[[], Brought]:
        sensors, known = self.session.build.logbook.sensors, self.session.settings.logs_read
        return lambda: _from_text(path.stem, text_of(path), sensors, known)

    def paste(self) -> None:
        """Look at what lies on the clipboard."""
        board = QApplication.clipboard()
        text = board.text() if board is not None else ""
        sensors, known = self.session.build.logbook.sensors, self.session.settings.logs_read
        self.look(lambda: _from_text("pasted", text, sensors, known))

    def _preview(self, column: QVBoxLayout, found: Brought) -> None:
        how = found.how
        column.addWidget(label(f"{found.name}: how it is read", "head", wrap=True))
        grid = QGridLayout()
        grid.addWidget(label("Time", "faint"), 0, 0)
        grid.addWidget(self._time_column(how), 0, 1)
        grid.addWidget(self._time_unit(how), 0, 2)
        for place, head in enumerate(how.heads):
            if place != how.time[0]:
                row = grid.rowCount()
                grid.addWidget(label(head[:28], "faint"), row, 0)
                grid.addWidget(self._sensor(how, place), row, 1)
                grid.addWidget(self._unit(how, place), row, 2)
        row = grid.rowCount()
        grid.addWidget(label("Its clock is", "faint"), row, 0)
        grid.addWidget(self._offset(how), row, 1)
        grid.addWidget(label("s late", "faint"), row, 2)
        column.addLayout(grid)
        for row_ in how.first[:3]:
            column.addWidget(label(" | ".join(row_)[:120], "faint", wrap=True))
        if isinstance(found.read, str):
            column.addWidget(label(found.read, "problem", wrap=True))
        else:
            self._told(column, found.read)
            self._clocks(column, how, found.read)
        line = QHBoxLayout()
        keep = button("Bring it in", self._keep, "Bring the readings in")
        keep.setEnabled(isinstance(found.read, Read))
        line.addWidget(keep)
        line.addWidget(button("Leave it", self.leave, "Leave the file"))
        line.addStretch(1)
        column.addLayout(line)

    def _clocks(self, column: QVBoxLayout, how: Guess, found: Read) -> None:
        """Whether its clock goes with that of another log of the trial; set right by a press only."""
        trial = self.tries.trial
        told = [clock_late(self.session.build, trial, log) for log in found.logs] if trial is not None else []
        apart = next((one for one in told if one is not None), None)
        if apart is None:
            return
        late, other = apart
        way = "late" if late > 0 else "early"
        words = f"Its clock seems {abs(late):.0f} s {way} against “{other.source or other.id}”, by what both saw."
        column.addWidget(label(words, "doubt", wrap=True))
        fixed = how._replace(offset=how.offset + late)
        column.addWidget(button(f"Take it as {abs(late):.0f} s {way}", lambda: self._read_as(fixed), "Set its clock"))

    def _told(self, column: QVBoxLayout, found: Read) -> None:
        names = {one.id: one.name or one.id for one in self.session.build.logbook.sensors}
        kept = ", ".join(f"{len(log.seconds)} of {names.get(log.sensor, log.sensor)}" for log in found.logs)
        column.addWidget(label(f"{found.lines} lines over {clock(found.lasts)}: {kept}.", wrap=True))
        for fault in found.faults[:SHOWN]:
            column.addWidget(label(f"Line {fault.line}: {fault.why}.", "doubt", wrap=True))
        more = len(found.faults) - SHOWN + found.more
        if more > 0:
            column.addWidget(label(f"and {more} more", "doubt"))

    def _time_column(self, how: Guess) -> QWidget:
        box = ChoiceBox()
        box.setAccessibleName("Column of the time")
        box.addItems(list(how.heads))
        box.setCurrentIndex(how.time[0])
        box.activated.connect(lambda k: self._read_as(how._replace(time=(k, how.time[1]))))
        return box

    def _time_unit(self, how: Guess) -> QWidget:
        box = ChoiceBox()
        box.setAccessibleName("Unit of the time")
        box.addItems(list(TIME_UNITS))
        box.setCurrentText(how.time[1])
        box.activated.connect(lambda k: self._read_as(how._replace(time=(how.time[0], box.itemText(k)))))
        return box

    def _sensor(self, how: Guess, place: int) -> QWidget:
        box = ChoiceBox()
        box.setAccessibleName(f"{how.heads[place]}: read with")
        box.addItem(NONE, "")
        for sensor in self.session.build.logbook.sensors:
            box.addItem(sensor.name or sensor.id, sensor.id)
        line = next((one for one in how.lines if one.place == place), None)
        box.setCurrentIndex(box.findData(line.sensor if line else ""))
        box.activated.connect(lambda k: self._take(how, place, box.itemData(k)))
        return box

    def _unit(self, how: Guess, place: int) -> QWidget:
        box = ChoiceBox()
        box.setAccessibleName(f"{how.heads[place]}: unit")
        line = next((one for one in how.lines if one.place == place), None)
        sensor = self._named(line.sensor) if line else None
        box.setEnabled(sensor is not None)
        if line is not None and sensor is not None:
            box.addItems(list(units_of(sensor)))
            box.setCurrentText(line.unit)
            box.activated.connect(lambda k: self._in_unit(how, line, box.itemText(k)))
        return box

    def _offset(self, how: Guess) -> QWidget:
        box = QLineEdit(f"{how.offset:g}")
        box.setAccessibleName("Seconds its clock is late")

        def typed() -> None:
            try:
                offset = float(box.text().replace(",", "."))
            except ValueError:
                self.said = f"“{box.text()}” is no number of seconds: 12 or −30 was expected"
                self.refresh()
                return
            self.said = ""
            self._read_as(how._replace(offset=offset))

        box.editingFinished.connect(lambda: typed() if box.isModified() else None)
        return box

    def _named(self, ident: str) -> Sensor | None:
        return next((one for one in self.session.build.logbook.sensors if one.id == ident), None)

    def _take(self, how: Guess, place: int, ident: str) -> None:
        lines = [line for line in how.lines if line.place != place]
        sensor = self._named(ident)
        if sensor is not None:
            lines.append(Line(place, ident, units_of(sensor)[0]))
        self._read_as(how._replace(lines=tuple(sorted(lines))))

    def _in_unit(self, how: Guess, line: Line, unit: str) -> None:
        lines = tuple(one._replace(unit=unit) if one == line else one for one in how.lines)
        self._read_as(how._replace(lines=lines))

    def _read_as(self, how: Guess) -> None:
        """Read the file again as is said now."""
        found = self.brought
        if found is None:
            return
        sensors = self.session.build.logbook.sensors
        self.again(lambda: _as_said(found.name, found.text, how, sensors))

    def _keep(self) -> None:
        found, trial = self.brought, self.tries.trial
        if found is None or trial is None or not isinstance(found.read, Read):
            return
        self.session.settings.keep_log_read(*kept(found.how))
        if keep_logs(self.session, trial.id, found.read.logs, f"Bring in {found.name}"):
            self.brought = None
            self.session.told.emit(f"{found.name} stands in “{trial.name}”")
        self.refresh()


def _from_text(name: str, text: str, sensors: tuple[Sensor, ...], known: dict[str, str]) -> Brought:
    """Text as files of the same columns were read before, else as it is likeliest to be."""
    how = guess(text, sensors)
    before = known.get(kept(how)[0])
    if before is not None:
        how = as_before(how, before, sensors)
    return _as_said(name, text, how, sensors)


def _as_said(name: str, text: str, how: Guess, sensors: tuple[Sensor, ...]) -> Brought:
    try:
        return Brought(name, text, how, read(text, how, sensors, name))
    except KeelRoomError as error:
        return Brought(name, text, how, error.message)
