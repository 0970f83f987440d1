"""A logger that writes a line for every moment over a serial port: comma-separated figures, its columns named first.

The format: a line `# seconds,NAME UNIT,NAME UNIT…`, repeated every so often, then lines of figures in that order; an
empty cell where a sensor has dropped out. Units C, F, V, A.
"""

from __future__ import annotations

from typing import Any, NamedTuple

from keelroom.devices.adapter import BAUD, BROKEN, plain
from keelroom.devices.service01 import DeviceError
from keelroom.units import KINDS

HEAD = "#"
TO_SI = {
    "C": KINDS["temperature"].unit("°C"),
    "F": KINDS["temperature"].unit("°F"),
    "V": KINDS["voltage"].unit("V"),
    "A": KINDS["current"].unit("A"),
}


class Moment(NamedTuple):
    """What one line said: its clock [s], figures by column name in [degC], [V], [A]; columns that dropped out."""

    seconds: float
    figures: dict[str, float]
    dropped: tuple[str, ...]


def columns_of(line: str) -> tuple[tuple[str, str], ...]:
    """(name, unit) of the columns a head line names, the clock left out. Raises DeviceError where it is none."""
    cells = [cell.strip() for cell in line.lstrip(HEAD).split(",")]
    found = []
    for cell in cells[1:]:
        name, _, unit = cell.rpartition(" ")
        if unit not in TO_SI or not name:
            raise DeviceError("odd_column", f"A logger’s column “{cell}”: a name and C, F, V or A were expected")
        found.append((name, unit))
    if not cells[0].startswith("seconds") or not found:
        raise DeviceError("odd_head", f"“{line[:40]}” names no columns: # seconds,NAME UNIT was expected")
    return tuple(found)


def moment_of(line: str, columns: tuple[tuple[str, str], ...]) -> Moment:
    """A line of figures. Raises DeviceError where it is none."""
    cells = line.split(",")
    if len(cells) != len(columns) + 1:
        raise DeviceError("odd_line", f"“{line[:40]}” has {len(cells)} cells, {len(columns) + 1} were expected")
    figures, dropped = {}, []
    try:
        seconds = float(cells[0])
        for (name, unit), cell in zip(columns, cells[1:], strict=True):
            if not cell.strip():
                dropped.append(name)
                continue
            figures[name] = float(cell) * TO_SI[unit].factor + TO_SI[unit].offset
    except ValueError:
        raise DeviceError("odd_line", f"“{line[:40]}” is no line of figures") from None
    return Moment(seconds, figures, tuple(dropped))


class SerialLogger:
    """One logger on one port. Raises DeviceError where it cannot be opened, is pulled out, or says nothing."""

    def __init__(self, port: str, patience: float = 5.0) -> None:
        import serial

        self.port = port
        try:
            self.line: Any = serial.Serial(port, BAUD, timeout=patience)
        except (OSError, ValueError) as error:
            raise DeviceError("no_port", f"Nothing can be opened at “{port}”: {plain(error)}") from None
        self.columns: tuple[tuple[str, str], ...] = ()
        self.odd = 0
        """lines left out since it was opened: half of one, or noise"""

    def read(self) -> Moment:
        """The next line of figures."""
        for _ in range(200):
            line = self._line()
            if line.startswith(HEAD):
                self.columns = columns_of(line)
            elif self.columns:
                try:
                    return moment_of(line, self.columns)
                except DeviceError:
                    self.odd += 1
            else:
                self.odd += 1
        raise DeviceError("no_logger", f"What writes at “{self.port}” is no logger: 200 lines, no figures among them")

    def _line(self) -> str:
        try:
            found = self.line.readline()
        except BROKEN as error:
            raise DeviceError("pulled_out", f"The line to “{self.port}” broke: {plain(error)}") from None
        if not found:
            raise DeviceError("no_answer", f"Nothing comes from “{self.port}”")
        text: str = found.decode("ascii", errors="replace").strip()
        return text

    def close(self) -> None:
        """Let go of the port."""
        self.line.close()
