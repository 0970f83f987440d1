"""Figures of a car's computer as they come over its diagnostic port: service 01. Source: SAE J1979, ISO 15031-5."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.errors import KeelRoomError


class DeviceError(KeelRoomError):
    """A device said nothing, or nothing that makes sense; in words for the one who plugged it in."""


class Pid(NamedTuple):
    """One figure: its number, bytes, and value = factor times them, most significant first, plus offset; unit in SI but
    for degrees Celsius, rpm and shares."""

    number: int
    size: int
    factor: float
    offset: float
    unit: str


PIDS: dict[str, Pid] = {
    "load": Pid(0x04, 1, 1 / 255, 0.0, "share"),
    "coolant": Pid(0x05, 1, 1.0, -40.0, "°C"),
    "rpm": Pid(0x0C, 2, 0.25, 0.0, "rpm"),
    "speed": Pid(0x0D, 1, 1 / 3.6, 0.0, "m/s"),
    "intake": Pid(0x0F, 1, 1.0, -40.0, "°C"),
    "volts": Pid(0x42, 2, 1e-3, 0.0, "V"),
    "ambient": Pid(0x46, 1, 1.0, -40.0, "°C"),
}
ANSWERS = 0x40
"""Added to the service in its answer."""
SERVICE = 0x01


def decoded(name: str, data: bytes) -> float:
    """The figure in the bytes after service and number. Raises DeviceError where there are too few."""
    pid = PIDS[name]
    if len(data) < pid.size:
        raise DeviceError(
            "short_answer", f"The car’s answer for {name} has {len(data)} bytes, {pid.size} were expected"
        )
    return int.from_bytes(data[: pid.size], "big") * pid.factor + pid.offset


def encoded(name: str, value: float) -> bytes:
    """A figure as a car would send it: as near as its bytes come, held to what they can say."""
    pid = PIDS[name]
    whole = round((value - pid.offset) / pid.factor)
    most: int = 256**pid.size - 1
    return min(max(whole, 0), most).to_bytes(pid.size, "big")


def figure_in(answer: bytes, name: str) -> float | None:
    """The figure in a whole answer; None where it answers something else."""
    pid = PIDS[name]
    if len(answer) < 2 or answer[0] != SERVICE + ANSWERS or answer[1] != pid.number:
        return None
    return decoded(name, answer[2:])


def supported(mask: bytes, first: int = 0) -> set[int]:
    """Numbers a car says it has, from the answer to number `first`."""
    bits = int.from_bytes(mask[:4], "big")
    return {first + n + 1 for n in range(32) if bits >> (31 - n) & 1}


def mask_of(numbers: set[int], first: int = 0) -> bytes:
    """The same the other way."""
    bits = sum(1 << (31 - (number - first - 1)) for number in numbers if first < number <= first + 32)
    return bits.to_bytes(4, "big")
