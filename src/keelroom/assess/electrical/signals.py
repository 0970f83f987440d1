"""The signal wires of the control as a graph: coil feeds and triggers, sensor, A/C request, override."""

from __future__ import annotations

from keelroom.assess.electrical.controller import HOSED, place_of
from keelroom.assess.electrical.figures import Electrics
from keelroom.assess.electrical.leads import COIL_MINUS, COIL_PLUS, TAIL, HarnessWire, numbered, switches, titles
from keelroom.assess.electrical.ways import way_of
from keelroom.core.electrical.wire import CABLES
from keelroom.document.schema.electrical import RELAYED, Control
from keelroom.gauges import awg_text
from keelroom.units import INCH

SIGNAL = awg_text(18)
SIGNAL_CABLE = CABLES["j1128_crosslinked"].name
SIGNAL_AMPS = 0.2
LENGTHS = {"coil": 60 * INCH, "trigger": 60 * INCH, "sensor": 48 * INCH, "request": 72 * INCH, "override": 96 * INCH, "tail": TAIL, "ground": 48 * INCH}  # fmt: skip
"""[m] signal wires are cut to where nothing else is known: relays by the battery, switch by the driver (common practice)."""
COIL_FUSE = 5.0
KEY_FEED, LIVE_FEED = f"key-switched feed, {COIL_FUSE:g} A fuse", f"always-live feed, {COIL_FUSE:g} A fuse"
CHASSIS = "ground chassis"
KEYED, KEYED_BACK = 80, 90
"""first numbers, in a circuit's hundred, of the coil wires of relays that only the key commands: feed and ground"""
SENSORS = {"upper_hose": "adapter in the upper hose", "lower_hose": "adapter in the lower hose", "housing": "thermostat housing", "fins": "probe in the fins", "engine": "engine’s own sensor", "none": "none"}  # fmt: skip
OVERRIDE, REQUEST = "override switch in the cab", "A/C pressure switch"
Ends = tuple[str, str]


def commanded_parts(found: Electrics) -> list[str]:
    """Every relay and controller that the fans' control drives, by name."""
    named = titles(found)
    return [
        part
        for one in found.circuits
        if one.cools and one.circuit.switch != "switch"
        for part in switches(one.circuit, named[one.circuit.id], len(one.motors))
    ]


def relays(found: Electrics) -> list[str]:
    """Those of them that click."""
    return [name for name in commanded_parts(found) if ": relay" in name]


class _Signals:
    """Signal wires being laid; numbers under 100, those of a keyed relay in its circuit's hundred."""

    def __init__(self) -> None:
        self.wires: list[HarnessWire] = []

    def lay(self, number: int, ends: Ends, colour: str, kind: str, role: str = "", place: int = 1) -> None:
        self.wires.append(HarnessWire(number, *ends, SIGNAL, SIGNAL_CABLE, colour, LENGTHS[kind], SIGNAL_AMPS, "", role or kind, place))

    def spread(self, numbers: tuple[int, int], ends: tuple[str, list[str]], splice: str, colour: str, role: str) -> None:
        """From one point to several: straight to the only one, or through a splice with a tail to each. numbers: trunk, first tail less one"""
        start, pins = ends
        trunk, first = numbers
        self.lay(trunk, (start, pins[0] if len(pins) == 1 else splice), colour, "coil", role)
        for k, pin in enumerate(pins if len(pins) > 1 else (), 1):
            self.lay(numbered(first, 0, k), (splice, pin), colour, "tail", f"{role}_tail", k)


def control_wires(control: Control, found: Electrics) -> tuple[HarnessWire, ...]:
    """Signal wires of everything the fans' control drives, and of the relays only the key commands."""
    laid = _Signals()
    if commanded_parts(found):
        _commanded(laid, control, found)
    _keyed(laid, found)
    return tuple(laid.wires)


def _commanded(laid: _Signals, control: Control, found: Electrics) -> None:
    way, coils = way_of(control), relays(found)
    by, grounds = way.brain, way.grounds
    feed = KEY_FEED if control.coil == "key" else LIVE_FEED
    if coils and grounds:
        laid.spread((1, 40), (feed, [f"{part}, {COIL_PLUS}" for part in coils]), "coils: splice of the feed", "violet", "coil_feed")
    elif not grounds and not way_of(control).by_computer:
        laid.lay(1, (feed, f"{by}, feed"), "violet", "coil", "coil_feed")
        if by not in ("toggle", "thermoswitch"):
            laid.lay(9, (f"{by}, ground", CHASSIS), "black", "ground", "brain_ground")
    if coils and not grounds:
        laid.spread((2, 50), (CHASSIS, [f"{part}, {COIL_MINUS}" for part in coils]), "coils: splice of the ground", "black", "coil_ground")
    nodes = _triggers(laid, control, found)
    place = place_of(control)
    if not (way_of(control).by_hand or way_of(control).by_computer) and by != "thermoswitch" and place != "none":
        laid.lay(3, (SENSORS[place], f"{by}, sensor"), "grey", "sensor")
    if by == "thermoswitch" and place in HOSED and control.strap:
        laid.lay(4, (SENSORS[place], CHASSIS), "black", "sensor", "strap")
    if _requested(control):
        _request(laid, control, nodes)
    if _overridden(control):
        _override(laid, control, nodes, (feed, bool(coils)))


def _requested(control: Control) -> bool:
    return control.ac_request and not way_of(control).by_hand


def _overridden(control: Control) -> bool:
    return control.override and not way_of(control).by_hand


def _stages(control: Control, parts: list[str]) -> list[tuple[str, list[tuple[int, str]]]]:
    """Each output of what commands: its name and the numbered parts on it. Two stages: the first part is low, the rest high."""
    numbered_parts = list(enumerate(parts, 1))
    if not way_of(control).staged or len(parts) < 2:
        return [(" low" if way_of(control).staged else "", numbered_parts)]
    return [(" low", numbered_parts[:1]), (" high", numbered_parts[1:])]


def _triggers(laid: _Signals, control: Control, found: Electrics) -> list[str]:
    """From each output to its coils, and to controllers; the point of each stage that override and request tie into."""
    by, grounds = way_of(control).brain, way_of(control).grounds
    coils = relays(found)
    nodes = []
    for stage, (name, parts) in enumerate(_stages(control, commanded_parts(found))):
        pins = [(k, f"{part}, {COIL_MINUS if grounds else COIL_PLUS}" if part in coils else f"{part}, signal") for k, part in parts]
        # What else ties into the trigger itself, rather than into an input of its own at what commands.
        others = (_requested(control) and by == "thermoswitch" and stage == 0) + (_overridden(control) and bool(coils))
        out = f"{by}{name}, out"
        if len(pins) + others == 1:
            laid.lay(10 + pins[0][0], (out, pins[0][1]), "blue", "trigger", "trigger", pins[0][0])
            nodes.append(out)
            continue
        splice = f"trigger{name}: splice"
        laid.lay(7 + stage, (out, splice), "blue", "trigger", "trigger_trunk", stage + 1)
        for k, pin in pins:
            laid.lay(numbered(10, 0, k), (splice, pin), "blue", "tail", "trigger", k)
        nodes.append(splice)
    return nodes


def _request(laid: _Signals, control: Control, nodes: list[str]) -> None:
    """The A/C's wish: into an input of its own, or onto the first trigger through a diode, so that nothing flows back."""
    by = way_of(control).brain
    if by != "thermoswitch":
        laid.lay(5, (f"{REQUEST}, out", f"{by}, A/C input"), "green", "request")
        laid.lay(63, ("compressor clutch feed", f"{REQUEST}, in"), "green", "request", "request_feed")
    elif way_of(control).grounds:
        laid.lay(5, (nodes[0], "diode, plain end"), "green", "request")
        laid.lay(62, ("diode, striped end", f"{REQUEST}, in"), "green", "tail", "request_diode")
        laid.lay(63, (f"{REQUEST}, out", CHASSIS), "black", "ground", "request_ground")
    else:
        laid.lay(63, ("compressor clutch feed", f"{REQUEST}, in"), "green", "request", "request_feed")
        laid.lay(62, (f"{REQUEST}, out", "diode, plain end"), "green", "tail", "request_diode")
        laid.lay(5, ("diode, striped end", nodes[0]), "green", "request")


def _override(laid: _Signals, control: Control, nodes: list[str], given: tuple[str, bool]) -> None:
    """The driver's switch: a pole to every trigger, so that it never ties two stages together; it grounds or feeds as the coils want it."""
    feed, coils = given
    if not coils:
        laid.lay(60, (feed, f"{OVERRIDE}, common"), "white", "override", "override_common")
        laid.lay(6, (f"{OVERRIDE}, pole 1", f"{way_of(control).brain}, override input"), "white", "override")
        return
    common = (f"{OVERRIDE}, common", CHASSIS) if way_of(control).grounds else (feed, f"{OVERRIDE}, common")
    laid.lay(60, common, "black" if way_of(control).grounds else "white", "ground", "override_common")
    for k, node in enumerate(nodes, 1):
        laid.lay(6 if k == 1 else 61, (f"{OVERRIDE}, pole {k}", node), "white", "override", "override", k)


def _keyed(laid: _Signals, found: Electrics) -> None:
    """Coils of relays that feed no cooling fan: on with the key, grounded at the chassis."""
    named = titles(found)
    for number, one in enumerate(found.circuits, 1):
        if not one.motors or one.circuit.switch not in RELAYED or one.cools:
            continue
        title, base = named[one.circuit.id], 100 * number
        parts = switches(one.circuit, title, len(one.motors))
        for first, start, pin, words, colour, role in (
            (KEYED, KEY_FEED, COIL_PLUS, "feed", "violet", "key_feed"),
            (KEYED_BACK, CHASSIS, COIL_MINUS, "ground", "black", "key_ground"),
        ):
            pins = [f"{part}, {pin}" for part in parts]
            laid.spread((base + first, base + first), (start, pins), f"{title}: splice of the coils’ {words}", colour, role)
