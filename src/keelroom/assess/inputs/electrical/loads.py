"""Everything with a motor that a circuit can feed: fans of the package, an electric pump, a cooler's own fan."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.inputs.electrical.ways import way_of
from keelroom.core.electrical.motor import Motor, Rating, current_at, rating
from keelroom.core.kept import by_identity
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.electrical import Control
from keelroom.document.schema.loop import Loop
from keelroom.document.schema.package import Controller, Fan, Package, Signal
from keelroom.errors import InputError

PUMP = "pump"


class Motored(NamedTuple):
    """A motor by the id circuits know it by. fan: whether it is one of the package's cooling fans, under the fans'
    control;
    runs: whether it turns at all when it is fed; controller: where its own electronics sit; signal: what they listen
          to;
    key, override: leads they have."""

    id: str
    name: str
    motor: Motor
    fan: bool
    runs: bool = True
    controller: Controller = "none"
    signal: Signal = "level"
    key: bool = False
    override: bool = False


def fan_rating(fan: Fan) -> Rating | None:
    """The fan motor's label made whole; None where too little of it is known."""
    try:
        return rating(*(value.si if value else None for value in (fan.rated_voltage, fan.power, fan.rated_current)))
    except InputError:
        return None


def motors_of(build: Build, package: Package) -> tuple[Motored, ...]:
    """All motors of the build a circuit can feed, in the order of the work."""
    return _motors(package.fans, package.control, package.loop, package.coolers)


@by_identity(64)
def _motors(fans: tuple[Fan, ...], control: Control, loop: Loop, coolers: tuple[Cooler, ...]) -> tuple[Motored, ...]:
    soft = control.soft_start or way_of(control).varies
    found = []
    for number, fan in enumerate(fans, 1):
        label = fan_rating(fan)
        if label is not None and fan.motor != "engine":
            own = fan.controller != "none"
            motor = Motor(label.voltage, label.power, fan.motor == "brushless", soft or own)
            name = f"Fan {number}" if len(fans) > 1 else "Fan"
            leads = (fan.signal, own and fan.key_lead, own and fan.override_lead)
            found.append(Motored(fan.id, name, motor, True, fan.runs, fan.controller, *leads))
    if loop.pump != "mechanical" and loop.electric_power and loop.electric_voltage:
        found.append(Motored(PUMP, "Coolant pump", Motor(loop.electric_voltage.si, loop.electric_power.si), False))
    for cooler in coolers:
        if cooler.fans.si >= 1 and cooler.fan_power and cooler.stands != "ahead":
            said = f"{cooler.name or 'Cooler'} fan{'s' if cooler.fans.si > 1 else ''}"
            found.append(
                Motored(cooler.id, said, Motor(cooler.fan_voltage.si, cooler.fan_power.si * cooler.fans.si), False)
            )
    return tuple(found)


def named(motors: tuple[Motored, ...]) -> dict[str, Motored]:
    """Motors by id."""
    return {motored.id: motored for motored in motors}


def label_words(fan: Fan) -> str:
    """What the motor's label comes to: the amps it draws at its rated voltage, and at 14 V."""
    label = fan_rating(fan)
    if label is None or fan.motor == "engine":
        return ""
    motor = Motor(label.voltage, label.power, fan.motor == "brushless")
    told = f" ({label.told} worked out)" if label.told in ("power", "voltage") else ""
    return (
        f"Motor: {label.power:.0f} W at {label.voltage:g} V, {motor.current:.1f} A there{told}; "
        f"{current_at(motor, 14.0):.1f} A at 14 V."
    )
