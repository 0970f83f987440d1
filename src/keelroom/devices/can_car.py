"""A car over its CAN bus directly, with `python-can` and `can-isotp`: an optional extra (`keelroom[can]`)."""

from __future__ import annotations

from typing import Any

from keelroom.devices.service01 import ANSWERS, PIDS, SERVICE, DeviceError, figure_in

ASKS, FIRST = 0x7E0, 0x7E8
"""Identifiers the engine's computer is asked by and answers with, 11 bits (ISO 15765-4)."""
PATIENCE = 1.0
BITRATE = 500_000
"""of a car's diagnostic bus (ISO 15765-4)"""


def opened(named: str, patience: float = PATIENCE) -> CanCar:
    """A car on a bus, by the sort of its interface and the channel: `socketcan can0`. Raises DeviceError saying what
    was expected."""
    words = named.split()
    if len(words) != 2:
        raise DeviceError(
            "no_bus_named", f"“{named}” is no bus: an interface and a channel were expected: socketcan can0"
        )
    try:
        import can
        import isotp  # noqa: F401
    except ImportError:
        why = "Reading a CAN bus needs python-can and can-isotp, which are not installed: the guide says how"
        raise DeviceError("no_can", why) from None
    try:
        bus = can.Bus(interface=words[0], channel=words[1], bitrate=BITRATE)
    except (can.CanError, OSError, ValueError, NotImplementedError) as error:
        raise DeviceError("bus_not_open", f"The bus “{named}” cannot be opened: {error}") from None
    return CanCar(bus, patience, closes=True)


class CanCar:
    """One car on a bus; closes it where it was opened for it."""

    def __init__(self, bus: Any, patience: float = PATIENCE, closes: bool = False) -> None:
        import isotp

        self.patience, self.bus, self.closes = patience, bus, closes
        address = isotp.Address(isotp.AddressingMode.Normal_11bits, txid=ASKS, rxid=FIRST)
        self.stack: Any = isotp.CanStack(bus, address=address, params={"blocking_send": True})
        self.stack.start()

    def read(self, name: str) -> float | None:
        """A figure by its name in PIDS; None where the car has none of it. Raises DeviceError where nothing answers."""
        pid = PIDS[name]
        self.stack.send(bytes((SERVICE, pid.number)), send_timeout=self.patience)
        for _ in range(4):
            answer = self.stack.recv(block=True, timeout=self.patience)
            if answer is None:
                raise DeviceError("no_answer", f"No answer on the bus within {self.patience:g} s: is the key on?")
            found = bytes(answer)
            if found[:1] == b"\x7f":
                return None
            if found[:1] == bytes((SERVICE + ANSWERS,)):
                figure = figure_in(found, name)
                if figure is not None:
                    return figure
        return None

    def close(self) -> None:
        """Let go of the bus."""
        self.stack.stop()
        if self.closes:
            self.bus.shutdown()
