"""The Cycles page: public cycles that ship, those of the build, and one brought in from a CSV file."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import NamedTuple

from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from keelroom.assess.drives.read_csv import UNITS, Column, Guess, Read, guess, read
from keelroom.assess.drives.traces import Recorded, recorded
from keelroom.assess.drives.words import clock, format_way
from keelroom.catalogue.cycles import SHIPPED
from keelroom.document.edits import Change, Edit, fresh_id, removed
from keelroom.document.quantity import quantity
from keelroom.document.schema.drive import Leg, Schedule
from keelroom.drawing.strips import trace_scene
from keelroom.errors import KeelRoomError
from keelroom.gui.session.session import Session
from keelroom.gui.stations.drive.drives import Drives
from keelroom.gui.stations.drive.strips import READABLE
from keelroom.gui.widgets.brought import BringsIn, text_of
from keelroom.gui.widgets.scene_view import Drawing, Picture
from keelroom.gui.widgets.text import ChoiceBox, button, label, replace_body
from keelroom.units import KINDS, both

NONE = "not in the file"
SHOWN = 6
"""faults told one by one"""


class Brought(NamedTuple):
    """A file looked at: its name, text, how it is read, and what comes of that."""

    name: str
    text: str
    how: Guess
    read: Read | str


class CyclesView(BringsIn[Brought]):
    """Filled anew when something is brought in or taken out."""

    title, sorts = "Bring in a recorded drive", "CSV (*.csv *.txt *.tsv);;All files (*)"

    def __init__(self, session: Session, drives: Drives) -> None:
        super().__init__(session, "Recorded cycles")
        self.drives = drives
        self.looked = "udds"

    @property
    def picture(self) -> Picture:
        """The cycle that is looked at."""
        return Picture("A recorded cycle", self._drawn, READABLE)

    def _drawn(self) -> Drawing:
        found = self._shown()
        if found is None:
            return None, "", "Choose a cycle."
        told = f"{clock(found.lasts)}, {format_way(found.metres, self.session.system)}"
        return trace_scene(found, self.session.system), f"{found.name}: {told}", found.source

    def _shown(self) -> Recorded | None:
        brought = self.brought
        if brought is not None and isinstance(brought.read, Read):
            trace = brought.read.trace
            return Recorded(trace.name, trace.seconds, trace.speeds, trace.grades, "Not brought in yet")
        return recorded(self.session.build, self.looked)

    def refresh(self) -> None:
        """Write the list, and the file that is looked at."""
        body, column = self.blank(5)
        column.addWidget(
            label(
                "Cycles to drive: public ones, and what a logger recorded: time and speed, grade if there is one.",
                "faint",
                wrap=True,
            )
        )
        column.addWidget(button("Bring in a CSV…", self.bring, "Bring in a recorded drive from a CSV file"))
        self.write_standing(column)
        if self.brought is not None:
            self._preview(column, self.brought)
        own = [trace.id for trace in self.session.build.driving.traces]
        for ident in (*own, *SHIPPED):
            found = recorded(self.session.build, ident)
            if found is not None:
                self._one(column, ident, found, mine=ident in own)
        column.addStretch(1)
        replace_body(self, body)
        self.come.emit()

    def _one(self, column: QVBoxLayout, ident: str, found: Recorded, *, mine: bool) -> None:
        column.addSpacing(4)
        column.addWidget(label(found.name, "strong", wrap=True))
        unit = self.session.unit(KINDS["speed"])
        speed = f"{found.metres / max(found.lasts, 1e-9) / unit.factor:.1f} {unit.symbol}"
        way = format_way(found.metres, self.session.system)
        column.addWidget(
            label(f"{clock(found.lasts)}, {way}, {speed} in the mean. {found.source}.", "faint", wrap=True)
        )
        line = QHBoxLayout()
        line.addWidget(button("Look at it", partial(self._look, ident), f"Look at {found.name}"))
        line.addWidget(button("Drive it", partial(self._drive, ident, found.name), f"Drive {found.name}"))
        if mine:
            line.addWidget(button("Remove", partial(self._remove, ident), f"Remove {found.name}"))
        line.addStretch(1)
        column.addLayout(line)

    def _look(self, ident: str) -> None:
        self.looked, self.brought = ident, None
        self.refresh()

    def _drive(self, ident: str, name: str) -> None:
        """A schedule of this cycle, from cold as the tests have it."""
        there = self.session.build.driving.schedules
        legs = (Leg(id="cycle", name=name, kind="cycle", trace=ident, lasts=quantity("0 min", "minutes")),)
        made = Schedule(id=fresh_id(there, "drive"), name=name, begins="cold", legs=legs)
        edit = Edit(f"Drive {name}", (Change(("driving", "schedules"), (*there, made)),))
        if self.session.attempt(edit):
            self.drives.choose(made.id)
            self.session.told.emit(f"“{name}” stands among the drives, on the Run page")

    def _remove(self, ident: str) -> None:
        self.session.attempt(removed(self.session.build, ("driving", "traces"), ident, "Remove a recorded cycle"))
        self.refresh()

    # a file

    def from_file(self, path: Path) -> Callable[[], Brought]:
        return lambda: _from_file(path)

    def _preview(self, column: QVBoxLayout, found: Brought) -> None:
        column.addWidget(label(f"{found.name}: how it is read", "head", wrap=True))
        grid = QGridLayout()
        for place, what in enumerate(("time", "speed", "grade")):
            grid.addWidget(label(what.capitalize(), "faint"), place, 0)
            grid.addWidget(self._places(found, what), place, 1)
            grid.addWidget(self._units(found, what), place, 2)
        column.addLayout(grid)
        for row in found.how.first[:3]:
            column.addWidget(label(" | ".join(row)[:120], "faint", wrap=True))
        if isinstance(found.read, str):
            column.addWidget(label(found.read, "problem", wrap=True))
        else:
            trace, faults = found.read.trace, found.read.faults
            told = f"{found.read.lines} lines, {len(trace.seconds)} kept, {clock(trace.seconds[-1])}, "
            told += f"at most {both(max(trace.speeds), 'speed')}."
            column.addWidget(label(told, wrap=True))
            for fault in faults[:SHOWN]:
                column.addWidget(label(f"Line {fault.line}: {fault.why}.", "doubt", wrap=True))
            if len(faults) > SHOWN:
                column.addWidget(label(f"and {len(faults) - SHOWN} lines more", "doubt"))
        line = QHBoxLayout()
        keep = button("Bring it in", self._keep, "Bring the recording in")
        keep.setEnabled(not isinstance(found.read, str))
        line.addWidget(keep)
        line.addWidget(button("Leave it", self.leave, "Leave the file"))
        line.addStretch(1)
        column.addLayout(line)

    def _places(self, found: Brought, what: str) -> QWidget:
        box = ChoiceBox()
        box.setAccessibleName(f"Column of the {what}")
        if what == "grade":
            box.addItem(NONE, -1)
        for place, head in enumerate(found.how.heads):
            box.addItem(head, place)
        column = found.how.columns.get(what)
        box.setCurrentIndex(box.findData(column.place if column else -1))
        box.activated.connect(lambda k: self._read_as(what, box.itemData(k), None))
        return box

    def _units(self, found: Brought, what: str) -> QWidget:
        box = ChoiceBox()
        box.setAccessibleName(f"Unit of the {what}")
        box.addItems(list(UNITS[what]))
        column = found.how.columns.get(what)
        box.setCurrentText(column.unit if column else next(iter(UNITS[what])))
        box.setEnabled(column is not None)
        box.activated.connect(lambda k: self._read_as(what, None, box.itemText(k)))
        return box

    def _read_as(self, what: str, place: int | None, unit: str | None) -> None:
        """Read the file again with a column or a unit chosen."""
        found = self.brought
        if found is None:
            return
        columns = dict(found.how.columns)
        was = columns.get(what) or Column(0, next(iter(UNITS[what])))
        if place == -1:
            columns.pop(what, None)
        else:
            columns[what] = Column(was.place if place is None else place, unit or was.unit)
        how = found.how._replace(columns=columns)
        self.again(lambda: _as_said(found.name, found.text, how))

    def _keep(self) -> None:
        found = self.brought
        if found is None or not isinstance(found.read, Read):
            return
        there = self.session.build.driving.traces
        trace = found.read.trace.model_copy(update={"id": fresh_id(there, "trace")})
        edit = Edit(f"Bring in {found.name}", (Change(("driving", "traces"), (*there, trace)),))
        if self.session.attempt(edit):
            self.looked, self.brought = trace.id, None
            self.session.told.emit(f"{found.name} stands among the cycles")
        self.refresh()


def _from_file(path: Path) -> Brought:
    """A file as it is likeliest to be read. Raises KeelRoomError in words where it cannot be."""
    text = text_of(path)
    return _as_said(path.stem, text, guess(text))


def _as_said(name: str, text: str, how: Guess) -> Brought:
    try:
        return Brought(name, text, how, read(text, how, name, "new"))
    except KeelRoomError as error:
        return Brought(name, text, how, error.message)
