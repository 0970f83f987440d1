"""The harness as it is built, all told from the graph of its wires: cut list, joints, terminals and parts, loom and
shrink."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable
from typing import NamedTuple

from keelroom.assess.electrical.figures import Electrics
from keelroom.assess.electrical.leads import (
    COIL_MINUS,
    COIL_PLUS,
    IN,
    OUT,
    POSTS,
    HarnessWire,
    circuit_leads,
    contacts,
    titles,
)
from keelroom.assess.electrical.signals import COIL_FUSE, KEY_FEED, LIVE_FEED, OVERRIDE, control_wires
from keelroom.assess.inputs.coolant.sensor import THREADS
from keelroom.assess.inputs.electrical.controller import seat_of
from keelroom.assess.inputs.electrical.seats import SEATS
from keelroom.assess.inputs.electrical.ways import way_of
from keelroom.core.electrical.protection import FUSES
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import RELAYED, UNRELAYED
from keelroom.document.schema.package import Package
from keelroom.gauges import awg_area
from keelroom.units import KINDS, format_si, inches

Rows = list[tuple[str, ...]]
HEAVY_SECTION = 8.0
"""[mm2] of copper in one joint from which the heavier crimp tool is wanted (common practice)."""
LOOMS = (5.0, 7.0, 10.0, 13.0, 16.0, 19.0, 25.0, 32.0)
SHRINKS = (3.0, 6.0, 9.0, 12.0, 19.0, 24.0, 39.0)
"""[mm] inside widths of split loom and of shrink tube as supplied, on sale."""
LOOM_FILL, SHRINK_OVER = 0.80, 1.25
INSULATION = 0.7e-3


def harness(build: Build, package: Package, found: Electrics) -> tuple[HarnessWire, ...]:
    """Every wire, numbered by its place: a circuit's numbers begin with its own, so that nothing moves when another
    changes."""
    wires, named = list(control_wires(package.control, found)), titles(found)
    for k, figures in enumerate(found.circuits, 1):
        wires += circuit_leads(figures, build.supply.sources, named[figures.circuit.id], 100 * k)
    return tuple(wires)


def posts(build: Build) -> frozenset[str]:
    """Points wires end at without a joint: posts with ring terminals, and bodies that are wired by themselves."""
    return frozenset(
        (
            *(source.name or source.id for source in build.supply.sources),
            *(seat.said for seat in SEATS.values()),
            "compressor clutch feed",
        )
    )


def is_ground(point: str) -> bool:
    """Whether rings go onto that point: a ground, or an end left open."""
    return point.startswith(POSTS)


def cut_length(si: float, system: str) -> str:
    """A length of wire as it is cut: to the sixteenth or to the centimetre."""
    return format_si(si, KINDS["length"], system) if inches(system) else f"{si:.2f} m"


def wire_list(build: Build, package: Package, found: Electrics, system: str) -> Rows:
    """The cut list, heading first."""
    rows: Rows = [("No.", "Size", "Colour", "Cut to", "From", "To", "Carries", "Cable")]
    for wire in harness(build, package, found):
        current = f"{wire.current:.0f} A" if wire.current >= 1 else "signal"
        rows.append(
            (
                str(wire.number),
                wire.size,
                wire.colour,
                cut_length(wire.length, system),
                wire.start,
                wire.end,
                current,
                wire.cable,
            )
        )
    return rows


def parts_list(build: Build, package: Package, found: Electrics) -> Rows:
    """Fuses, relays, connectors and terminals, heading first; terminals as the ends of the wires ask for them."""
    counts: Counter[tuple[str, str]] = Counter()
    wires, named, rings = harness(build, package, found), titles(found), posts(build)
    for figures in found.circuits:
        circuit, name = figures.circuit, named[figures.circuit.id]
        if circuit.fuse:
            counts[
                (
                    f"Fuse {circuit.fuse.si:g} A, {FUSES[circuit.fuse_form].words}, with sealed holder for "
                    f"{circuit.feed.size.as_typed}",
                    name,
                )
            ] += 1
        rating = f" {circuit.relay.si:g} A" if circuit.relay else ""
        if circuit.switch in RELAYED:
            counts[(f"Relay{rating}, with socket", name)] += contacts(circuit, len(figures.motors))
        elif circuit.switch not in UNRELAYED:
            counts[(f"{'Controller' if circuit.switch == 'controller' else 'Switch'}{rating}", name)] += 1
        if circuit.connector:
            for k, motored in enumerate(figures.motors):
                halves = (
                    "socket on the motor, pin on the harness"
                    if k % 2 == 0
                    else "pin on the motor, socket on the harness"
                )
                own = circuit.switch == "own"
                leads = (
                    "two-way"
                    if not own
                    else f"connector of {3 + motored.key + motored.override} ways, power and signal,"
                )
                counts[
                    (
                        f"Keyed sealed {leads}{'' if own else ' connector'} {circuit.connector.si:g} A: {halves}",
                        motored.name,
                    )
                ] += 1
        if circuit.spare.si:
            counts[("End cap with adhesive for a lead left over", f"{name}: {circuit.kit or 'its kit'}")] += int(
                circuit.spare.si
            )
        counts += _terminals((wire for wire in wires if wire.circuit == circuit.id), name, rings)
    counts += _terminals((wire for wire in wires if not wire.circuit), "control", rings)
    counts += _control_parts(package, wires)
    for splice in splices(build, package, found):
        counts[(f"Crimp splice for {splice.section:.1f} mm², shrink with adhesive", splice.place)] += 1
    return [("Part", "Pieces", "For"), *((part, str(count), purpose) for (part, purpose), count in counts.items())]


def _terminals(wires: Iterable[HarnessWire], purpose: str, rings: frozenset[str]) -> Counter[tuple[str, str]]:
    """A socket terminal for every end in a relay's socket, a ring for every end on a post or a ground."""
    counts: Counter[tuple[str, str]] = Counter()
    for wire in wires:
        for point in (wire.start, wire.end):
            if ": relay" in point and point.rpartition(", ")[2] in map(str, (IN, OUT, COIL_PLUS, COIL_MINUS)):
                counts[(f"Socket terminal for {wire.size}", purpose)] += 1
            elif is_ground(point) or (point in rings and wire.circuit):
                side = "ground" if is_ground(point) else "source"
                counts[(f"Ring terminal for {wire.size}", f"{purpose}, {side}")] += 1
    return counts


def _control_parts(package: Package, wires: tuple[HarnessWire, ...]) -> Counter[tuple[str, str]]:
    """What the control needs besides wire and terminals."""
    counts: Counter[tuple[str, str]] = Counter()
    control = package.control
    points = {point for wire in wires for point in (wire.start, wire.end)}
    if way_of(control).brain == "thermoswitch" and seat_of(control).hosed:
        counts[(f"Hose adapter with {THREADS[control.thread]} boss, two clamps", seat_of(control).said)] += 1
    probes = sum(point.endswith(", probe +") for point in points)
    if probes:
        counts[
            (
                "Probe (thermistor) of the module"
                + (f", in a hose adapter with {THREADS[control.thread]} boss" if seat_of(control).hosed else ""),
                seat_of(control).said,
            )
        ] += probes
    for feed in (KEY_FEED, LIVE_FEED):
        if feed in points:
            counts[(f"Fuse {COIL_FUSE:g} A with holder, for the coils, on a {feed.partition(',')[0]}", "control")] += 1
    poles = sum(point.startswith(f"{OVERRIDE}, pole") for point in points)
    if poles:
        counts[(f"Switch for the cab, {'one pole' if poles == 1 else 'two poles'}", "override")] += 1
    if "diode, plain end" in points:
        counts[("Diode, 1 A", "A/C request")] += 1
    if "second diode, plain end" in points:
        counts[("Diode, 1 A", "fans the A/C asks for alone")] += 1
    return counts


class Splice(NamedTuple):
    """A joint of several wires: where, their numbers, copper in it [mm2], whether the heavier tool is wanted."""

    place: str
    numbers: tuple[int, ...]
    section: float
    heavy: bool


def splices(build: Build, package: Package, found: Electrics) -> tuple[Splice, ...]:
    """Every point where two wires or more meet and no post, ground or body holds them."""
    meeting: dict[str, list[HarnessWire]] = {}
    for wire in harness(build, package, found):
        for point in (wire.start, wire.end):
            meeting.setdefault(point, []).append(wire)
    held = posts(build)
    made = []
    for place, joined in meeting.items():
        if len(joined) > 1 and place not in held and not is_ground(place):
            section = sum(section_of(wire.size) for wire in joined) * 1e6
            made.append(Splice(place, tuple(wire.number for wire in joined), section, section > HEAVY_SECTION))
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
    named = titles(found)
    for figures in found.circuits:
        own = [wire for wire in wires if wire.circuit == figures.circuit.id]
        name = named[figures.circuit.id]
        for words, members, run in (
            ("feed", [w for w in own if w.role == "feed"], "feed"),
            ("to the motors", [w for w in own if w.role in ("motor", "back", "back_tail")], "branch"),
        ):
            if members:
                width = bundle_width([wire.size for wire in members]) * 1e3
                loom = next((wide for wide in LOOMS if wide >= width), LOOMS[-1])
                rows.append(
                    (
                        f"Split loom, {name}, {words}",
                        f"{loom:g} mm",
                        cut_length(getattr(figures.circuit, run).length.si, system),
                        ", ".join(str(w.number) for w in members),
                    )
                )
    ends = Counter(wire.size for wire in wires for _ in range(2))
    for size, count in ends.items():
        width = outside(size) * 1e3 * SHRINK_OVER
        tube = next((shrink for shrink in SHRINKS if shrink >= width), SHRINKS[-1])
        rows.append(
            (
                f"Shrink tube with adhesive, {size} ends",
                f"{tube:g} mm",
                f"{count} pieces of 40 mm",
                "slid on before the crimp",
            )
        )
    return rows
