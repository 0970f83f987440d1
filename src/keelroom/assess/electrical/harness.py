"""The harness as it is built: wires by number, terminals, splices, loom and shrink."""

from __future__ import annotations

import math
from collections import Counter
from typing import NamedTuple

from keelroom.assess.electrical.controller import BY_COMPUTER, HOSED, SENSORLESS, STAGED, place_of
from keelroom.assess.electrical.figures import CircuitFigures, Electrics
from keelroom.build.schema.build import Build
from keelroom.build.schema.electrical import Control
from keelroom.build.schema.package import Package
from keelroom.core.electrical.wire import CABLES
from keelroom.gauges import awg_area, awg_text
from keelroom.units import INCH, KINDS, format_si

Rows = list[tuple[str, ...]]
MOTOR_COLOURS = ("orange", "yellow", "brown", "pink")
SIGNAL = awg_text(18)
GROUNDING = ("ground_switch", "two_speed", "both_relays", "computer")
"""strategies that ground the coils; the others feed them"""
SIGNAL_LENGTHS = {"coil": 60 * INCH, "trigger": 60 * INCH, "sensor": 48 * INCH, "request": 72 * INCH, "override": 96 * INCH}
"""[m] signal wires are cut to where nothing else is known: relays by the battery, switch by the driver (common practice)."""
COIL_FUSE = 5.0
KEYED, KEYED_BACK = 30, 60
"""first numbers of the coil wires of relays that only the key commands: feed and ground"""
HEAVY_SECTION = 8.0
"""[mm2] of copper in one joint from which the heavier crimp tool is wanted (common practice)."""
LOOMS = (5.0, 7.0, 10.0, 13.0, 16.0, 19.0, 25.0, 32.0)
SHRINKS = (3.0, 6.0, 9.0, 12.0, 19.0, 24.0, 39.0)
"""[mm] inside widths of split loom and of shrink tube as supplied, on sale."""
LOOM_FILL, SHRINK_OVER = 0.80, 1.25
INSULATION = 0.7e-3
SENSORS = {"upper_hose": "adapter in the upper hose", "lower_hose": "adapter in the lower hose", "housing": "thermostat housing", "fins": "probe in the fins", "engine": "engine’s own sensor", "none": "none"}  # fmt: skip
THREADS = {"npt_18": "1/8 NPT", "npt_14": "1/4 NPT", "npt_38": "3/8 NPT", "npt_12": "1/2 NPT", "m14": "M14 × 1.5", "m16": "M16 × 1.5", "m22": "M22 × 1.5"}  # fmt: skip


class HarnessWire(NamedTuple):
    """One wire: number, where from and to, size as written, colour, length [m], what it carries [A]; circuit it belongs to ('' control)."""

    number: int
    start: str
    end: str
    size: str
    cable: str
    colour: str
    length: float
    current: float
    circuit: str


def harness(build: Build, package: Package, found: Electrics) -> tuple[HarnessWire, ...]:
    """Every wire, numbered by its place: a circuit's numbers begin with its own, so that nothing moves when another changes."""
    wires = list(control_wires(build, package.control, found))
    for k, figures in enumerate(found.circuits, 1):
        wires += _circuit_wires(build, figures, 100 * k)
    return tuple(wires)


def _circuit_wires(build: Build, figures: CircuitFigures, base: int) -> list[HarnessWire]:
    circuit = figures.circuit
    tied = [source.name or source.id for source in build.supply.sources if source.id in circuit.sources]
    source = " and ".join(tied) or "nothing"

    def made(number: int, ends: tuple[str, str], run: str, colour: str, length: float, current: float) -> HarnessWire:
        wire = getattr(circuit, run)
        return HarnessWire(base + number, *ends, wire.size.as_typed, CABLES[wire.cable].name, colour, length, current, circuit.id)

    name = circuit.name or circuit.id
    switch = {"none": "splice", "switch": "switch", "controller": "controller"}.get(circuit.switch, "relay")
    before = min(circuit.fuse_at.si, circuit.feed.length.si) if circuit.fuse else 0.0
    wires = [made(1, (source, f"fuse {circuit.fuse.si:g} A"), "feed", "red", before, figures.continuous)] if circuit.fuse else []
    start = f"fuse {circuit.fuse.si:g} A" if circuit.fuse else source
    wires.append(made(2, (start, f"{name}: {switch}"), "feed", "red", circuit.feed.length.si - before, figures.continuous))
    for k, motored in enumerate(figures.motors, 1):
        own = f"{name}: {switch} {k}" if circuit.switch == "relays" and len(figures.motors) > 1 else f"{name}: {switch}"
        wires.append(made(10 + k, (own, f"{motored.name} +"), "branch", MOTOR_COLOURS[(k - 1) % 4], circuit.branch.length.si, figures.each))
    if circuit.ground == "none":
        return wires
    shared = circuit.shared_ground and len(figures.motors) > 1
    back = "ground " + ("post of the battery" if circuit.ground == "battery" else circuit.ground)
    for k, motored in enumerate(figures.motors, 1):
        if shared and k > 1:
            wires.append(
                made(
                    20 + k, (f"{motored.name} −", f"{figures.motors[0].name} −"), "branch", "black", circuit.branch.length.si, figures.each
                )
            )
        else:
            wires.append(
                made(
                    20 + k,
                    (f"{motored.name} −", back),
                    "back",
                    "black",
                    circuit.back.length.si,
                    figures.continuous if shared else figures.each,
                )
            )
    return wires


def commanded_parts(found: Electrics) -> list[str]:
    """Every relay coil and controller that the fans' control drives, by name."""
    names = []
    for figures in found.circuits:
        circuit = figures.circuit
        if not figures.cools or circuit.switch in ("switch", "none"):
            continue
        count = len(figures.motors) if circuit.switch == "relays" else 2 if circuit.switch == "parallel" else 1
        what = f"{circuit.name or circuit.id}: {'controller' if circuit.switch == 'controller' else 'relay'}"
        names += [f"{what} {k}" if count > 1 else what for k in range(1, count + 1)]
    return names


def relays(found: Electrics) -> list[str]:
    """Those of them that click."""
    return [name for name in commanded_parts(found) if ": relay" in name]


def brains(control: Control) -> str:
    """What commands the coils."""
    return {"toggle": "toggle", "adjustable": "controller", "variable": "variable controller", "computer": "engine computer", "computer_pwm": "engine computer"}.get(
        control.strategy, "thermoswitch"
    )  # fmt: skip


def control_wires(build: Build, control: Control, found: Electrics) -> tuple[HarnessWire, ...]:
    """Signal wires: coil feed and trigger, sensor, A/C request, override. Numbers under 100."""
    driven, coils, by = commanded_parts(found), relays(found), brains(control)
    keyed = _keyed_wires(found)
    if not driven:
        return keyed
    feed = "key-switched feed, 5 A fuse" if control.coil == "key" else "always-live feed, 5 A fuse"
    wires: list[HarnessWire] = []

    def add(number: int, ends: tuple[str, str], colour: str, kind: str) -> None:
        wires.append(HarnessWire(number, *ends, SIGNAL, CABLES["j1128_crosslinked"].name, colour, SIGNAL_LENGTHS[kind], 0.2, ""))

    grounds = control.strategy in GROUNDING
    add(1, (feed, "coils, splice") if grounds and coils else (feed, by), "violet", "coil")
    if coils and not grounds:
        add(2, ("coils, splice", "ground chassis"), "black", "coil")
    for k, part in enumerate(driven, 1):
        stage = f"{by} {'low' if k == 1 else 'high'}" if control.strategy in STAGED else by
        end = f"{part}, coil" if part in coils else f"{part}, signal"
        add(10 + k, (end, stage) if grounds and part in coils else (stage, end), "blue", "trigger")
    place = place_of(control)
    if control.strategy not in (*SENSORLESS, *BY_COMPUTER) and by != "thermoswitch" and place != "none":
        add(3, (SENSORS[place], by), "grey", "sensor")
    if by == "thermoswitch" and place in HOSED and control.strap:
        add(4, (SENSORS[place], "ground chassis, strap"), "black", "sensor")
    if control.ac_request and control.strategy not in SENSORLESS:
        add(5, ("A/C pressure switch", by if by != "thermoswitch" else "coil trigger, through a diode"), "green", "request")
    if control.override and control.strategy not in SENSORLESS:
        add(6, ("override switch in the cab", "coil trigger" if coils else by), "white", "override")
    return (*wires, *keyed)


def _keyed_wires(found: Electrics) -> tuple[HarnessWire, ...]:
    """Coils of relays that feed no cooling fan: on with the key, grounded at the chassis."""
    wires = []
    for k, figures in enumerate(found.circuits):
        circuit = figures.circuit
        if not figures.motors or circuit.switch not in ("relay", "relays", "parallel") or figures.cools:
            continue
        coil = f"{circuit.name or circuit.id}: relay, coil"
        cable, length = CABLES["j1128_crosslinked"].name, SIGNAL_LENGTHS["coil"]
        wires.append(HarnessWire(KEYED + k, "key-switched feed, 5 A fuse", coil, SIGNAL, cable, "violet", length, 0.2, ""))
        wires.append(HarnessWire(KEYED_BACK + k, coil, "ground chassis", SIGNAL, cable, "black", SIGNAL_LENGTHS["sensor"], 0.2, ""))
    return tuple(wires)


def cut_length(si: float, system: str) -> str:
    """A length of wire as it is cut: to the sixteenth or to the centimetre."""
    return format_si(si, KINDS["length"], system) if system == "us" else f"{si:.2f} m"


def wire_list(build: Build, package: Package, found: Electrics, system: str) -> Rows:
    """The cut list, heading first."""
    rows: Rows = [("No.", "Size", "Colour", "Cut to", "From", "To", "Carries", "Cable")]
    for wire in harness(build, package, found):
        current = f"{wire.current:.0f} A" if wire.current >= 1 else "signal"
        rows.append((str(wire.number), wire.size, wire.colour, cut_length(wire.length, system), wire.start, wire.end, current, wire.cable))  # fmt: skip
    return rows


def parts_list(build: Build, package: Package, found: Electrics) -> Rows:
    """Fuses, relays, connectors and terminals, heading first."""
    counts: Counter[tuple[str, str]] = Counter()
    for figures in found.circuits:
        circuit, name = figures.circuit, figures.circuit.name or figures.circuit.id
        many = len(figures.motors)
        if circuit.fuse:
            form = {"blade": "blade", "large_blade": "large blade", "cartridge": "cartridge", "bolt_down": "bolt-down"}[circuit.fuse_form]
            counts[(f"Fuse {circuit.fuse.si:g} A, {form}, with sealed holder for {circuit.feed.size.as_typed}", name)] += 1
        rating = f" {circuit.relay.si:g} A" if circuit.relay else ""
        if circuit.switch in ("relay", "relays", "parallel"):
            number = many if circuit.switch == "relays" else 2 if circuit.switch == "parallel" else 1
            counts[(f"Relay{rating}, with socket", name)] += max(number, 1)
            counts[(f"Socket terminal for {circuit.feed.size.as_typed}", name)] += max(number, 1)
            counts[(f"Socket terminal for {circuit.branch.size.as_typed}", name)] += max(many, 1)
            counts[(f"Socket terminal for {SIGNAL}", name)] += 2 * max(number, 1)
        elif circuit.switch != "none":
            counts[(f"{'Controller' if circuit.switch == 'controller' else 'Switch'}{rating}", name)] += 1
        if circuit.connector:
            for k, motored in enumerate(figures.motors):
                halves = "socket on the motor, pin on the harness" if k % 2 == 0 else "pin on the motor, socket on the harness"
                counts[(f"Keyed sealed two-way connector {circuit.connector.si:g} A: {halves}", motored.name)] += 1
        counts[(f"Ring terminal for {circuit.feed.size.as_typed}", f"{name}, source")] += 1
        if circuit.ground != "none":
            counts[(f"Ring terminal for {circuit.back.size.as_typed}", f"{name}, ground")] += (
                1 if circuit.shared_ground else max(many, 1)
            ) * int(circuit.grounds.si)
    control = package.control
    if brains(control) == "thermoswitch" and place_of(control) in HOSED:
        counts[(f"Hose adapter with {THREADS[control.thread]} boss, two clamps", SENSORS[place_of(control)])] += 1
    if any(wire.colour == "violet" for wire in control_wires(build, control, found)):
        counts[(f"Fuse {COIL_FUSE:g} A with holder, for the coils", "control")] += 1
    return [("Part", "Pieces", "For"), *((part, str(count), purpose) for (part, purpose), count in counts.items())]


class Splice(NamedTuple):
    """A joint of several wires: their numbers, copper in it [mm2], whether the heavier tool is wanted."""

    place: str
    numbers: tuple[int, ...]
    section: float
    heavy: bool


def splices(build: Build, package: Package, found: Electrics) -> tuple[Splice, ...]:
    """Every joint of three wires or more."""
    wires = harness(build, package, found)
    joints: list[tuple[str, list[HarnessWire]]] = []
    for figures in found.circuits:
        own = [wire for wire in wires if wire.circuit == figures.circuit.id]
        name = figures.circuit.name or figures.circuit.id
        if len(figures.motors) > 1:
            out = [wire for wire in own if 10 < wire.number % 100 < 20]
            joints.append(
                (
                    f"{name}: {'feed to the relays' if figures.circuit.switch == 'relays' else 'relay to the motors'}",
                    [wire for wire in own if wire.number % 100 == 2] + out,
                )
            )
            back = [wire for wire in own if wire.number % 100 > 20]
            if figures.circuit.shared_ground:
                joints.append((f"{name}: shared ground", back))
    common = [wire for wire in wires if not wire.circuit and "coils, splice" in (wire.start, wire.end)]
    if common and len(relays(found)) > 1:
        # One tail to each coil out of the common feed or ground.
        joints.append(("Coils, common side", [*common, *(wire for wire in wires if not wire.circuit and 10 < wire.number < KEYED)]))
    made = []
    for place, joined in joints:
        section = sum(section_of(wire.size) for wire in joined) * 1e6
        made.append(Splice(place, tuple(wire.number for wire in joined), section, len(joined) > 2 or section > HEAVY_SECTION))
    return tuple(made)


def section_of(size: str) -> float:
    """Nominal section [m2] of a size as written."""
    text, _, unit = size.partition(" ")
    if unit != "AWG":
        return float(text) * 1e-6
    return awg_area(1 - int(text[:-2]) if text.endswith("/0") else int(text))


def splice_list(build: Build, package: Package, found: Electrics) -> Rows:
    """Joints, heading first."""
    rows: Rows = [("Joint", "Wires", "Copper", "Tool")]
    for splice in splices(build, package, found):
        tool = "heavier tool (large crimper), then sealed" if splice.heavy else "hand crimper"
        rows.append((splice.place, ", ".join(map(str, splice.numbers)), f"{splice.section:.1f} mm²", tool))
    return rows


def outside(size: str) -> float:
    """Width over the insulation [m] of a wire (common practice: strands fill 75 %, 0.7 mm of wall)."""
    return math.sqrt(4 * section_of(size) / math.pi / 0.75) + 2 * INSULATION


def bundle_width(sizes: list[str]) -> float:
    """Width of round wires laid together [m]: their circles fill the loom to LOOM_FILL."""
    return math.sqrt(sum(outside(size) ** 2 for size in sizes) / LOOM_FILL)


def loom_list(build: Build, package: Package, found: Electrics, system: str) -> Rows:
    """Split loom by stretch and shrink tube by wire, heading first."""
    wires = harness(build, package, found)
    rows: Rows = [("Piece", "Size", "Length or pieces", "Over")]
    for figures in found.circuits:
        own = [wire for wire in wires if wire.circuit == figures.circuit.id]
        name = figures.circuit.name or figures.circuit.id
        for words, members, run in (
            ("feed", [w for w in own if w.number % 100 == 2], "feed"),
            ("to the motors", [w for w in own if w.number % 100 > 10], "branch"),
        ):
            if members:
                width = bundle_width([wire.size for wire in members]) * 1e3
                loom = next((wide for wide in LOOMS if wide >= width), LOOMS[-1])
                rows.append((f"Split loom, {name}, {words}", f"{loom:g} mm", cut_length(getattr(figures.circuit, run).length.si, system), ", ".join(str(w.number) for w in members)))  # fmt: skip
    ends = Counter(wire.size for wire in wires for _ in range(2))
    for size, count in ends.items():
        width = outside(size) * 1e3 * SHRINK_OVER
        tube = next((shrink for shrink in SHRINKS if shrink >= width), SHRINKS[-1])
        rows.append((f"Shrink tube with adhesive, {size} ends", f"{tube:g} mm", f"{count} pieces of 40 mm", "slid on before the crimp"))
    return rows
