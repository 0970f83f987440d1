"""A car through a serial adapter with the text command set: asked line by line, a prompt after every answer."""

from __future__ import annotations

import termios
import time
from typing import Any

from keelroom.devices.service01 import PIDS, SERVICE, DeviceError, figure_in, supported

PROMPT = b">"
BAUD, PATIENCE, SLOW = 38400, 2.0, 6.0
"""Bits a second; [s] an answer may take, and the first one, while the adapter looks for the car's bus."""
SET_UP = ("ATZ", "ATE0", "ATL0", "ATS1", "ATH0", "ATSP0")
"""Anew, no echo, no line feeds, spaces, no headers, the bus by itself."""
BROKEN = (OSError, TypeError, termios.error)
"""What a port raises when it is pulled out."""
REFUSES = {
    "NO DATA": "the car does not answer this",
    "UNABLE TO CONNECT": "the adapter finds no car: is the key on?",
    "BUS INIT: ERROR": "the adapter finds no car: is the key on?",
    "CAN ERROR": "the bus does not answer: is the key on?",
    "BUS ERROR": "the bus does not answer",
    "STOPPED": "the adapter was interrupted",
    "BUFFER FULL": "the adapter was overrun",
    "?": "the adapter does not know this command",
}


class Adapter:
    """One adapter on one port. Raises DeviceError where it cannot be opened, is pulled out, or answers nothing."""

    def __init__(self, port: str, patience: float = PATIENCE) -> None:
        import serial

        self.port, self.patience = port, patience
        try:
            self.line: Any = serial.Serial(port, BAUD, timeout=0.1, write_timeout=patience)
        except (OSError, ValueError) as error:
            raise DeviceError("no_port", f"Nothing can be opened at “{port}”: {plain(error)}") from None
        self.has: set[int] = set()
        try:
            self._set_up()
        except DeviceError:
            self.close()
            raise

    def _set_up(self) -> None:
        for command in SET_UP:
            answer = self.ask(command, SLOW if command == "ATZ" else self.patience)
            if command == "ATE0" and "OK" not in answer:
                raise DeviceError("no_adapter", f"What answers at “{self.port}” is no adapter: it said “{answer[:40]}”")
        answer = self.ask("0100", SLOW)
        data = _bytes(answer)
        if len(data) < 6 or data[0] != SERVICE + 0x40:
            raise DeviceError("no_car", f"The adapter answers, no car behind it: {_refusal(answer)}")
        self.has = supported(data[2:6])
        if 0x20 in self.has:
            self.has |= supported(_bytes(self.ask("0120"))[2:6], 0x20)
        if 0x40 in self.has:
            self.has |= supported(_bytes(self.ask("0140"))[2:6], 0x40)

    def ask(self, command: str, patience: float | None = None) -> str:
        """One command and what comes before the next prompt."""
        until = time.monotonic() + (patience or self.patience)
        found = b""
        try:
            self.line.reset_input_buffer()
            self.line.write(command.encode() + b"\r")
            while not found.endswith(PROMPT):
                if time.monotonic() > until:
                    raise DeviceError("no_answer", f"No answer to {command} within {patience or self.patience:g} s")
                found += self.line.read(max(self.line.in_waiting, 1))
        except BROKEN as error:
            raise DeviceError("pulled_out", f"The line to “{self.port}” broke: {plain(error)}") from None
        text = found.decode("ascii", errors="replace").rstrip(">").replace("\r", "\n")
        return "\n".join(part.strip() for part in text.split("\n") if part.strip())

    def read(self, name: str) -> float | None:
        """A figure by its name in PIDS; None where the car has none, or said something else just now."""
        pid = PIDS[name]
        if pid.number not in self.has:
            return None
        for line in self.ask(f"01{pid.number:02X}").split("\n"):
            found = figure_in(_bytes(line), name)
            if found is not None:
                return found
        return None

    def close(self) -> None:
        """Let go of the port."""
        self.line.close()


def _bytes(line: str) -> bytes:
    """Bytes of an answer in hexadecimals; none where it is words."""
    last = line.rsplit("\n", maxsplit=1)[-1].replace(" ", "")
    try:
        return bytes.fromhex(last)
    except ValueError:
        return b""


def _refusal(answer: str) -> str:
    return next((words for sign, words in REFUSES.items() if sign in answer.upper()), f"it said “{answer[:40]}”")


def plain(error: Exception) -> str:
    """What the system says of it, without its number."""
    if isinstance(error, OSError) and error.strerror:
        return error.strerror.lower()
    return str(error).split(":")[-1].strip().lower() or type(error).__name__
