"""What is done on the bench: the jumper from a vehicle's plug, the sensor's adapter in its hose, and the tests in their order."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.electrical.controller import HOSED, SENSORLESS, place_of
from keelroom.assess.electrical.figures import Electrics
from keelroom.assess.electrical.harness import THREADS, Rows
from keelroom.assess.electrical.signals import SIGNAL, relays
from keelroom.build.quantity import described
from keelroom.build.schema.build import Build
from keelroom.build.schema.electrical import Control
from keelroom.build.schema.package import Package
from keelroom.gauges import awg_text
from keelroom.units import KINDS

TESTS = (
    ("spin", "Spin direction, before the harness is built"),
    ("sensor", "Sensor in a pot of water with a thermometer"),
    ("relay", "Relay clicks"),
    ("override", "Override"),
    ("set_points", "On and off temperatures, engine warming up"),
    ("voltage", "Voltage at the motor, running"),
    ("current", "Current against expectation"),
)
JUMPERS = {
    "high": ("Two-wire fan on the vehicle’s high speed", (("ground", "fan −"), ("high", "fan +")), "Cap the low wire. The fan knows full or off."),
    "both": ("Two-wire fan on low and high", (("ground", "relay coils −"), ("low", "relay 1 coil +"), ("high", "relay 2 coil +"), ("relay 1 contact", "resistor, fan +"), ("relay 2 contact", "fan +")),
             "Never join low and high: one would feed back into the other’s output. Two relays keep them apart."),
    "two_fans": ("Two two-wire fans", (("ground", "both fans −, splice"), ("low", "fan 1 +"), ("high", "fan 2 +")), "High has to come on with low still on, or a diode from high to low lets it bring fan 1 with it."),
}  # fmt: skip
"""From a vehicle's three-wire plug (ground, low, high) to two-wire fans, by variant."""


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
    """One bench test: its key, what it is, how it is done, what is expected."""

    key: str
    name: str
    how: str
    expected: str


def bench_steps(build: Build, package: Package, found: Electrics, system: str) -> tuple[BenchStep, ...]:
    """The tests in the order they are made, with what this build's figures expect."""
    control, cooling = package.control, build.brief.cooling
    on = described(cooling.fan_on, KINDS["temperature"], system) if cooling.fan_on else "not set"
    off = described(cooling.fan_off, KINDS["temperature"], system) if cooling.fan_off else "not set"
    fans = [figures for figures in found.circuits if figures.cools]
    volts = (
        "; ".join(f"{f.circuit.name or f.circuit.id} {f.at_idle:.1f} V at idle, {f.at_cruise:.1f} V on the road" for f in fans)
        or "no circuit yet"
    )
    amps = "; ".join(f"{f.circuit.name or f.circuit.id} {f.continuous:.0f} A at {build.supply.regulated.si:g} V, {f.starting.current:.0f} A for {f.starting.seconds:.1f} s at the start" for f in fans) or "no circuit yet"  # fmt: skip
    said = {
        "spin": ("Battery and two leads on each motor by itself, hands clear; feel which way the air goes, then mark + and −.", "Pullers blow to the engine, pushers into the core. Key the connectors so that it stays so."),
        "sensor": ("Hang it in water on a stove beside a thermometer, ohmmeter across it.", f"Closes at {on}, opens at {off}; wait at each, it lags."),
        "relay": ("Key on, ground the trigger wire by hand.", f"{len(relays(found))} to hear, one after the other." if relays(found) else "No relay in this control."),
        "override": ("Override on with the engine cold.", "Fans run and stop with it, whatever the sensor says." if control.override else "None planned."),
        "set_points": ("Idle it up from cold, thermometer on the housing, never a hand near the blades.", f"On at {on}, off at {off} at the sensor."),
        "voltage": ("Meter on the motor’s own terminals, then on the battery, everything on.", volts),
        "current": ("Clamp meter round the feed.", amps),
    }  # fmt: skip
    return tuple(BenchStep(key, name, *said[key]) for key, name in TESTS)


class Adapter(NamedTuple):
    """The sensor adapter in a hose: piece to cut out of it [m], bore [m], thread; fault: why it cannot be, '' where it can."""

    cut: float
    bore: float | None
    thread: str
    strap: bool
    fault: str


def adapter_of(build: Build, control: Control) -> Adapter | None:
    """What the adapter asks of the hose; None where the sensor sits elsewhere."""
    if place_of(control) not in HOSED or control.strategy in SENSORLESS:
        return None
    cut = control.adapter.si - 2 * control.adapter_push.si
    bore = build.brief.loop.hose_bore
    fault = "" if cut > 0 else "The hose ends would meet over it: a longer adapter, or less of it inside each end"
    return Adapter(max(cut, 0.0), bore.si if bore else None, THREADS[control.thread], control.strap, fault)
