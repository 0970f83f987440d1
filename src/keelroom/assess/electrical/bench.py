"""What is done on the bench: the jumper from a vehicle's plug, and the tests in their order."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.electrical.figures import CircuitFigures, Electrics
from keelroom.assess.electrical.harness import Rows
from keelroom.assess.electrical.signals import SIGNAL, alone, parts_of, relays
from keelroom.assess.inputs.cases import idle_case
from keelroom.assess.inputs.electrical.controller import curve_of
from keelroom.assess.inputs.electrical.loads import motors_of
from keelroom.assess.inputs.electrical.ways import way_of
from keelroom.assess.safety import Step, caution
from keelroom.core.electrical.control import LEAST_SPAN
from keelroom.core.electrical.motor import Motor, start_current
from keelroom.core.electrical.protection import fuse_for, starting
from keelroom.document.quantity import described
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import Control
from keelroom.document.schema.package import Package
from keelroom.gauges import awg_text
from keelroom.units import KINDS, format_si

TESTS = (
    ("spin", "Spin direction, before the harness is built"),
    ("short", "No short, before the fuse goes in"),
    ("sensor", "Sensor by itself"),
    ("relay", "Relays by their trigger"),
    ("override", "Override, engine cold"),
    ("voltage", "Voltage at the motor, fans on by hand, idling"),
    ("current", "Current in the same state"),
    ("set_points", "On and off temperatures, engine warming up"),
)
JUMPERS = {
    "high": (
        "Two-wire fan on the vehicle’s high speed",
        (("ground", "fan −"), ("high (+ when called)", "fan +"), ("low", "capped")),
        "The fan knows full or off.",
    ),
    "both": (
        "Two-wire fan on low and high",
        (
            ("ground", "relay 1 coil 85, relay 2 coil 85, splice"),
            ("low (+ when called)", "relay 1 coil 86"),
            ("high (+ when called)", "relay 2 coil 86"),
            ("battery +, own fuse", "relay 1 contact 30, relay 2 contact 30, splice"),
            ("relay 1 contact 87", "resistor, then fan +"),
            ("relay 2 contact 87", "fan +"),
            ("chassis ground", "fan −"),
        ),
        "Never join low and high: one would feed back into the other’s output. Two relays keep them apart.",
    ),
    "two_fans": (
        "Two two-wire fans",
        (
            ("ground", "relay 1 coil 85, relay 2 coil 85, splice"),
            ("low (+ when called)", "relay 1 coil 86"),
            ("high (+ when called)", "relay 2 coil 86"),
            ("high", "diode of 1 A to relay 1 coil 86, stripe at the coil"),
            ("battery +, own fuse each", "relay 1 contact 30, relay 2 contact 30"),
            ("relay 1 contact 87", "fan 1 +"),
            ("relay 2 contact 87", "fan 2 +"),
            ("chassis ground", "fan 1 −, fan 2 −, splice"),
        ),
        "High brings both: the diode carries a coil’s fifth of an ampere, never a fan.",
    ),
}
"""From a vehicle's three-wire plug (ground, low, high) to two-wire fans, by variant: every wire with both its ends
and its polarity."""
DANGERS: dict[str, tuple[Step, ...]] = {
    "spin": ("spin",),
    "short": ("wire",),
    "relay": ("fan",),
    "override": ("fan",),
    "voltage": ("run",),
    "current": ("run",),
    "set_points": ("soak",),
}
"""Steps of the table of dangers each test is; the sensor's depends on what it is hung in."""
POT_BOILS = 99.0
"""[degC] water in a pot on a stove gets to; a switch for more has to be tested otherwise."""


def jumper_list(found: Electrics) -> Rows:
    """The jumper harness in its variants, heading first; wires as thick as the fans' own."""
    fans = [figures for figures in found.circuits if figures.cools]
    size = max((figures.circuit.branch.size for figures in fans), key=lambda s: s.si).as_typed if fans else awg_text(12)
    rows: Rows = [("Variant", "From the plug", "To", "Size", "Mind")]
    for name, joints, note in JUMPERS.values():
        for k, (start, end) in enumerate(joints):
            rows.append((name if k == 0 else "", start, end, SIGNAL if "coil" in end else size, note if k == 0 else ""))
    return rows


class BenchStep(NamedTuple):
    """One bench test: its key, what it is, how it is done, what is expected, and the steps whose dangers it has."""

    key: str
    name: str
    how: str
    expected: str
    dangers: tuple[Step, ...] = ()

    @property
    def mind(self) -> str:
        """What can hurt somebody at it."""
        return caution(*self.dangers)


def bench_steps(build: Build, package: Package, found: Electrics, system: str) -> tuple[BenchStep, ...]:
    """The tests in the order they are made, with what this build's control and figures expect."""
    control = package.control
    short = (
        "Fuses out, motors and boxes unplugged, override on: ohmmeter from the load side of each fuse holder to "
        "ground, then wiggle the loom.",
        "No reading at all: any is a chafed wire. Motors are unplugged for it because a fan’s winding of a few tenths "
        "of an ohm reads as a short on a hand meter.",
    )
    said = {
        "spin": _spin_test(build, package),
        "short": short,
        "sensor": _sensor_test(build, control, system),
        "relay": _relay_test(control, found),
        "override": _override_test(control),
        "voltage": (
            f"Idling warm, {_switched_on(build)}. Meter clipped to the motor’s own terminals with the engine off, read "
            "with it running; then on the battery.",
            _volts_expected(found),
        ),
        "current": ("Clamp meter round the feed, nothing changed since.", _amps_expected(build, found)),
        "set_points": _warm_up(build, control, system),
    }
    dangers: dict[str, tuple[Step, ...]] = DANGERS | {"sensor": _pot_dangers(control)}
    return tuple(BenchStep(key, name, *said[key], dangers[key]) for key, name in TESTS)


def _spin_test(build: Build, package: Package) -> tuple[str, str]:
    """Plain motors on a fused pair of leads, those with electronics on their own plug."""
    fused, own = [], []
    for motored in motors_of(build, package):
        if not motored.fan:
            continue
        if motored.controller != "none" or motored.motor.brushless:
            own.append(motored.name)
        else:
            fuse = spin_fuse(motored.motor)
            fused.append(f"{motored.name} {fuse:g} A" if fuse else f"{motored.name} as in the car")
    how = []
    if fused:
        how.append(
            f"Battery, a fuse at its post ({', '.join(fused)}) and two leads on each motor by itself; a strip of paper "
            "on a stick shows which way the air goes; then mark + and −."
        )
    if own:
        how.append(
            f"{', '.join(own)}: its own electronics, so on its own plug with power, ground and its signal as it is "
            "sold; never on two bare leads."
        )
    return (
        " ".join(how) or "No electric fan yet.",
        "Pullers blow to the engine, pushers into the core. Key the connectors so that it stays so.",
    )


def spin_fuse(motor: Motor) -> float | None:
    """[A] of the fuse a motor is tried behind, by itself at its rated voltage; None where none stands its start."""
    start = starting((motor,), 0.0, (start_current(motor, motor.voltage),))
    fuses = (fuse_for(motor.current, start, form) for form in ("blade", "large_blade"))
    return next((fuse for fuse in fuses if fuse), None)


def _switched_on(build: Build) -> str:
    """What the volts that are expected were worked out with."""
    case = idle_case(build.duty_cases)
    ac = ", the A/C" if case is not None and case.ac_on else ""
    return f"fans on by hand and all that counts for {case.name if case else 'idle'} on: lamps, blower{ac}"


def _pot_dangers(control: Control) -> tuple[Step, ...]:
    way, hot = way_of(control), control.fan_on
    if way.by_hand or way.by_computer:
        return ()
    return ("sensor_oil",) if not way.knob and hot is not None and hot.si > POT_BOILS else ("sensor_pot",)


def _points(build: Build, control: Control, system: str) -> tuple[str, str]:
    """On and off in words: where a variable one starts, it is its own start point."""
    kind = KINDS["temperature"]
    if way_of(control).varies and control.fan_on and control.fan_off:
        start = curve_of(control, control.fan_on.si, control.fan_off.si)[0][0]
        return format_si(start, kind, system), format_si(start - LEAST_SPAN, kind, system)
    on, off = (described(value, kind, system) if value else "not set" for value in (control.fan_on, control.fan_off))
    return on, off


def _sensor_test(build: Build, control: Control, system: str) -> tuple[str, str]:
    on, off = _points(build, control, system)
    if way_of(control).by_hand:
        return (
            "No sensor in this control: ohmmeter across the toggle.",
            "Open and closed as it is thrown, nothing between.",
        )
    if way_of(control).by_computer:
        return (
            "The engine’s own sensor: read it with a scan tool, engine cold, against a thermometer.",
            "The same to within a few degrees: the computer decides by it.",
        )
    if way_of(control).knob:
        return (
            "Hang it in water on a stove beside a thermometer, ohmmeter across it.",
            f"Its ohms fall evenly as it warms: it has no contact. The controller is set to start at {on}.",
        )
    hot = control.fan_on
    if hot is not None and hot.si > POT_BOILS:
        how = (
            "Water boils before it closes: hang it in clean cooking oil on an electric plate outdoors, beside a "
            "thermometer, lid at hand, ohmmeter across it."
        )
    else:
        how = "Hang it in water on a stove beside a thermometer, ohmmeter across it."
    return how, f"Closes at {on}, opens at {off}; wait at each, it lags."


def _relay_test(control: Control, found: Electrics) -> tuple[str, str]:
    count, boxes = len(relays(found)), [part for part in parts_of(found) if not part.clicks]
    if not count and boxes:
        told = "warm its probe in a pot" if alone(control, boxes) else "give its signal by hand"
        return (
            f"Key on, {told}, one fan after the other.",
            "Each starts softly and by itself; with the key off none does.",
        )
    if not count:
        return "No relay in this control.", "Nothing to hear."
    way = "ground" if way_of(control).grounds else "feed 12 V to"
    how = f"Key on, {way} the trigger by hand, each stage by itself."
    if way_of(control).staged and count > 1:
        return how, f"One relay on low, {count - 1} more on high."
    return how, "One relay." if count == 1 else f"{count} relays, all at once."


def _override_test(control: Control) -> tuple[str, str]:
    if way_of(control).by_hand:
        return "The toggle is the override.", "Fans run and stop with it."
    if not control.override:
        return (
            "None planned: bridge the trigger by hand for the readings that follow.",
            "Fans run as long as it is bridged.",
        )
    return (
        "Override on with the engine cold, before it is warmed up.",
        "All fans run and stop with it, whatever the sensor says.",
    )


def _volts_expected(found: Electrics) -> str:
    fans = [one for one in found.circuits if one.cools]
    return (
        "; ".join(
            f"{one.circuit.name or one.circuit.id} {one.at_idle:.1f} V at the motor, {one.source_idle:.1f} V "
            "at the battery"
            for one in fans
        )
        or "no circuit yet"
    )


def _amps_expected(build: Build, found: Electrics) -> str:
    fans = [one for one in found.circuits if one.cools]
    amps = found.idle.amps if found.idle else {}

    def running(one: CircuitFigures) -> float:
        return sum(amps.get(motored.id, 0.0) for motored in one.motors)

    return (
        "; ".join(
            f"{one.circuit.name or one.circuit.id} {running(one):.0f} A at that voltage, "
            f"{one.starting.current:.0f} A for {one.starting.seconds:.1f} s at the start"
            for one in fans
        )
        or "no circuit yet"
    )


def _warm_up(build: Build, control: Control, system: str) -> tuple[str, str]:
    if way_of(control).by_hand:
        return "Idle it up from cold, thermometer on the housing, the toggle on.", "The fans run; the gauge settles."
    on, off = _points(build, control, system)
    how = "Idle it up from cold, thermometer on the housing, never a hand near the blades."
    if way_of(control).varies:
        return how, f"Begins to turn at {on} at the sensor and speeds up from there."
    if way_of(control).staged:
        kind = KINDS["temperature"]
        return (
            how,
            f"Low on at {on}, off at {off}; high on at {described(control.second_on, kind, system)}, off at "
            f"{described(control.second_off, kind, system)}, at the sensor.",
        )
    return how, f"On at {on}, off at {off} at the sensor."
