"""Stand-ins: a car behind an adapter, and a logger, each on a pseudo-terminal of its own, answering from lines of a
simulated drive; with noise, lag, dropouts and a wrong clock on request."""

from __future__ import annotations

import os
import select
import threading
import time
import tty
from collections.abc import Callable, Mapping
from typing import NamedTuple

import numpy as np

from keelroom.core.arrays import Floats
from keelroom.devices.service01 import PIDS, encoded, mask_of


class Faults(NamedTuple):
    """noise : standard, of temperatures [K];  lag [s] before an answer;  dropouts : share of answers that do not come
    clock : times as fast as it should be;  dies [s] after which it is pulled out, 0 never;  seed"""

    noise: float = 0.0
    lag: float = 0.0
    dropouts: float = 0.0
    clock: float = 1.0
    dies: float = 0.0
    seed: int = 1


class Lines(NamedTuple):
    """A simulated drive: time (m,) [s] and figures (m,) by name; pace: seconds of it that pass in one of ours."""

    time: Floats
    figures: Mapping[str, Floats]
    pace: float = 1.0


class StandIn:
    """Something on a pseudo-terminal; `port` is what it is opened by."""

    def __init__(self, lines: Lines, faults: Faults | None = None) -> None:
        self.lines, self.faults = lines, faults or Faults()
        self.dice = np.random.default_rng(self.faults.seed)
        self.master, self.slave = os.openpty()
        tty.setraw(self.slave)
        self.port = os.ttyname(self.slave)
        self.began = time.monotonic()
        self.over = threading.Event()
        self.thread = threading.Thread(target=self._live, daemon=True)
        self.thread.start()

    @property
    def at(self) -> float:
        """Where in the drive it is [s]; at its end it stays there."""
        return float(min((time.monotonic() - self.began) * self.lines.pace, self.lines.time[-1]))

    def figure(self, name: str) -> float | None:
        """A figure as it is read now, with its noise; None where it drops out, or there is none."""
        line = self.lines.figures.get(name)
        if line is None or self.dice.random() < self.faults.dropouts:
            return None
        noise = self.faults.noise * self.dice.standard_normal() if name not in ("rpm", "speed", "volts") else 0.0
        return float(np.interp(self.at, self.lines.time, line)) + noise

    def _live(self) -> None:
        try:
            while not self.over.is_set() and not self._dead():
                self.once()
        except OSError:
            pass  # the other end is gone
        self._pull()

    def _dead(self) -> bool:
        return 0 < self.faults.dies < time.monotonic() - self.began

    def once(self) -> None:
        """One turn of what it does."""
        raise NotImplementedError

    def stop(self) -> None:
        """Pull it out."""
        self.over.set()
        self.thread.join(2)

    def _pull(self) -> None:
        for end in (self.master, self.slave):
            try:
                os.close(end)
            except OSError:
                continue


class CarStandIn(StandIn):
    """An adapter with a car behind it."""

    waiting = b""

    def once(self) -> None:
        ready, _, _ = select.select([self.master], [], [], 0.05)
        if not ready:
            return
        self.waiting += os.read(self.master, 256)
        while b"\r" in self.waiting:
            command, _, self.waiting = self.waiting.partition(b"\r")
            time.sleep(self.faults.lag)
            answer = self.answer(command.decode("ascii", errors="replace").strip().upper().replace(" ", ""))
            os.write(self.master, f"{answer}\r\r>".encode())

    def answer(self, command: str) -> str:
        """What the adapter says to a command."""
        if command == "ATZ":
            return "\r\rKEEL ROOM STAND-IN"
        if command in ("ATDPN",):
            return "A6"
        if command.startswith("AT"):
            return "OK"
        if command[:2] != "01" or len(command) < 4:
            return "?"
        try:
            number = int(command[2:4], 16)
        except ValueError:
            return "?"
        if number in (0x00, 0x20, 0x40):
            there = {pid.number for name, pid in PIDS.items() if name in self.lines.figures} | {0x20, 0x40}
            return _spaced(bytes((0x41, number)) + mask_of({one for one in there if one > number}, number))
        name = next((name for name, pid in PIDS.items() if pid.number == number), None)
        value = self.figure(name) if name else None
        return "NO DATA" if name is None or value is None else _spaced(bytes((0x41, number)) + encoded(name, value))


def _spaced(data: bytes) -> str:
    return " ".join(f"{one:02X}" for one in data)


class LoggerStandIn(StandIn):
    """A logger that writes a line every `every` seconds of its own clock."""

    every = 1.0
    units = "C"
    written = 0

    def once(self) -> None:
        if self.written % 20 == 0:
            names = ",".join(f"{name} {_unit(name, self.units)}" for name in self.lines.figures)
            os.write(self.master, f"# seconds,{names}\r\n".encode())
        cells = []
        for name in self.lines.figures:
            value = self.figure(name)
            cells.append("" if value is None else f"{_in_unit(value, _unit(name, self.units)):.2f}")
        os.write(self.master, f"{self.at * self.faults.clock:.2f},{','.join(cells)}\r\n".encode())
        self.written += 1
        self.over.wait(self.every / self.lines.pace)


def _unit(name: str, degrees: str) -> str:
    return {"volts": "V", "battery": "A"}.get(name, degrees)


def _in_unit(value: float, unit: str) -> float:
    return value * 1.8 + 32 if unit == "F" else value


MAKERS: dict[str, Callable[[Lines, Faults], StandIn]] = {"car": CarStandIn, "logger": LoggerStandIn}
