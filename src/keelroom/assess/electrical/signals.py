"""The signal wires of the control as a graph: coil feeds and triggers, sensor, A/C request, override."""

from __future__ import annotations

from typing import Literal, NamedTuple

from keelroom.assess.electrical.figures import Electrics
from keelroom.assess.electrical.leads import COIL_MINUS, COIL_PLUS, TAIL, HarnessWire, numbered, switches, titles
from keelroom.assess.inputs.electrical.controller import seat_of
from keelroom.assess.inputs.electrical.ways import way_of
from keelroom.core.electrical.wire import CABLES
from keelroom.document.schema.electrical import RELAYED, Control
from keelroom.gauges import awg_text
from keelroom.units import INCH

SIGNAL = awg_text(18)
SIGNAL_CABLE = CABLES["j1128_crosslinked"].name
SIGNAL_AMPS = 0.2
LENGTHS = {
    "coil": 60 * INCH,
    "trigger": 60 * INCH,
    "sensor": 48 * INCH,
    "request": 72 * INCH,
    "override": 96 * INCH,
    "tail": TAIL,
    "ground": 48 * INCH,
}
"""[m] signal wires are cut to where nothing else is known: relays by the battery, switch by the driver (common
practice)."""
COIL_FUSE = 5.0
KEY_FEED, LIVE_FEED = f"key-switched feed, {COIL_FUSE:g} A fuse", f"always-live feed, {COIL_FUSE:g} A fuse"
CHASSIS = "ground chassis"
KEYED, KEYED_BACK = 80, 90
"""first numbers, in a circuit's hundred, of the coil wires of relays that only the key commands: feed and ground"""
OVERRIDE, REQUEST = "override switch in the cab", "A/C pressure switch"
Ends = tuple[str, str]


class SignalPart(NamedTuple):
    """Something the fans' control drives. name: as its pins begin; fans: what it feeds; key, override: leads it has."""

    name: str
    sort: Literal["relay", "controller", "motor"]
    fans: tuple[str, ...]
    key: bool = False
    override: bool = False

    @property
    def clicks(self) -> bool:
        """Whether it has a coil."""
        return self.sort == "relay"


def parts_of(found: Electrics) -> list[SignalPart]:
    """Every relay, box and motor with its own electronics that the fans' control drives, in the order of their
    circuits."""
    named, parts = titles(found), []
    for one in found.circuits:
        if not one.cools or one.circuit.switch == "switch":
            continue
        ids = tuple(motored.id for motored in one.motors)
        if one.circuit.switch == "own":
            parts += [SignalPart(m.name, "motor", (m.id,), m.key, m.override) for m in one.motors if m.fan]
            continue
        names = switches(one.circuit, named[one.circuit.id], len(one.motors))
        for k, name in enumerate(names):
            fans = (ids[k],) if one.circuit.switch == "relays" and k < len(ids) else ids
            if one.circuit.switch == "controller":
                parts.append(
                    SignalPart(
                        name, "controller", fans, any(m.key for m in one.motors), any(m.override for m in one.motors)
                    )
                )
            else:
                parts.append(SignalPart(name, "relay", fans))
    return parts


def relays(found: Electrics) -> list[str]:
    """Those of them that click, by name."""
    return [part.name for part in parts_of(found) if part.clicks]


class _SignalParts:
    """Signal wires being laid; numbers under 100, those of a keyed relay in its circuit's hundred."""

    def __init__(self) -> None:
        self.wires: list[HarnessWire] = []

    def lay(self, number: int, ends: Ends, colour: str, kind: str, role: str = "", place: int = 1) -> None:
        self.wires.append(
            HarnessWire(
                number, *ends, SIGNAL, SIGNAL_CABLE, colour, LENGTHS[kind], SIGNAL_AMPS, "", role or kind, place
            )
        )

    def spread(
        self, numbers: tuple[int, int], ends: tuple[str, list[str]], splice: str, colour: str, role: str
    ) -> None:
        """From one point to several: straight to the only one, or through a splice with a tail to each. numbers:
        trunk, first tail less one"""
        start, pins = ends
        trunk, first = numbers
        self.lay(trunk, (start, pins[0] if len(pins) == 1 else splice), colour, "coil", role)
        for k, pin in enumerate(pins if len(pins) > 1 else (), 1):
            self.lay(numbered(first, 0, k), (splice, pin), colour, "tail", f"{role}_tail", k)


def control_wires(control: Control, found: Electrics) -> tuple[HarnessWire, ...]:
    """Signal wires of everything the fans' control drives, and of the relays only the key commands."""
    laid, parts = _SignalParts(), parts_of(found)
    if parts:
        if alone(control, parts):
            _alone(laid, control, parts)
        else:
            _commanded(laid, control, parts)
        _woken(laid, control, parts)
    _keyed(laid, found)
    return tuple(laid.wires)


def alone(control: Control, parts: list[SignalPart]) -> bool:
    """Whether each fan's own box commands it: where relays are among them, one module has to command those."""
    return way_of(control).alone and not any(part.clicks for part in parts)


def _commanded(laid: _SignalParts, control: Control, parts: list[SignalPart]) -> None:
    way, coils = way_of(control), [part.name for part in parts if part.clicks]
    by, grounds = way.brain, way.grounds
    feed = KEY_FEED if control.coil == "key" else LIVE_FEED
    if coils and grounds:
        laid.spread(
            (1, 40),
            (feed, [f"{part}, {COIL_PLUS}" for part in coils]),
            "coils: splice of the feed",
            "violet",
            "coil_feed",
        )
    elif not grounds and not way_of(control).by_computer:
        laid.lay(1, (feed, f"{by}, feed"), "violet", "coil", "coil_feed")
        if by not in ("toggle", "thermoswitch"):
            laid.lay(9, (f"{by}, ground", CHASSIS), "black", "ground", "brain_ground")
    if coils and not grounds:
        laid.spread(
            (2, 50),
            (CHASSIS, [f"{part}, {COIL_MINUS}" for part in coils]),
            "coils: splice of the ground",
            "black",
            "coil_ground",
        )
    nodes, asked = _triggers(laid, control, parts)
    seat = seat_of(control)
    if not (way_of(control).by_hand or way_of(control).by_computer) and by != "thermoswitch" and seat.feels:
        laid.lay(3, (seat.said, f"{by}, sensor"), "grey", "sensor")
    if by == "thermoswitch" and seat.floats and control.strap:
        laid.lay(4, (seat.said, CHASSIS), "black", "sensor", "strap")
    if _requested(control):
        _request(laid, control, asked)
    if _overridden(control):
        _override(laid, control, nodes, feed, parts)


def _alone(laid: _SignalParts, control: Control, parts: list[SignalPart]) -> None:
    """Each fan's own module: its probe, its ground, the A/C's wish on those it is meant for, and the driver's
    switch."""
    seat = seat_of(control)
    for k, part in enumerate(parts, 1):
        if seat.feels:
            laid.lay(numbered(70, 0, 2 * k - 1), (seat.said, f"{part.name}, probe +"), "grey", "sensor", "probe", k)
            laid.lay(numbered(70, 0, 2 * k), (f"{part.name}, probe −", seat.said), "grey", "sensor", "probe_back", k)
    asked = [part for part in parts if not control.ac_fans or set(part.fans) & set(control.ac_fans)]
    if _requested(control) and asked:
        laid.lay(63, ("compressor clutch feed", f"{REQUEST}, in"), "green", "request", "request_feed")
        laid.spread(
            (5, 64),
            (f"{REQUEST}, out", [f"{part.name}, A/C input" for part in asked]),
            "A/C: splice",
            "green",
            "request",
        )
    ends = [f"{part.name}, override" for part in parts if takes_override(part)]
    if _overridden(control) and ends:
        feed = KEY_FEED if control.coil == "key" else LIVE_FEED
        laid.lay(60, (feed, f"{OVERRIDE}, common"), "white", "ground", "override_common")
        laid.spread((6, 30), (f"{OVERRIDE}, pole 1", ends), "override: splice", "white", "override")


def takes_override(part: SignalPart) -> bool:
    """Whether a module of its own has somewhere for the driver's switch: a box has an input, a motor where it has the
    lead."""
    return part.override or part.sort == "controller"


def _woken(laid: _SignalParts, control: Control, parts: list[SignalPart]) -> None:
    """What electronics need besides their signal: a lead from the key that wakes them, and a ground of their own for
    a box."""
    feed = KEY_FEED if control.coil == "key" else LIVE_FEED
    keyed = [f"{part.name}, key" for part in parts if part.key]
    if keyed:
        laid.spread((39, 20), (feed, keyed), "key leads: splice", "violet", "key_lead")
    for k, part in enumerate((part for part in parts if part.sort == "controller"), 1):
        laid.lay(numbered(80, 0, k), (f"{part.name}, ground", CHASSIS), "black", "ground", "box_ground", k)


def _requested(control: Control) -> bool:
    return control.ac_request and not way_of(control).by_hand


def _overridden(control: Control) -> bool:
    return control.override and not way_of(control).by_hand


def _stages(control: Control, parts: list[SignalPart]) -> list[tuple[str, list[tuple[int, SignalPart]]]]:
    """Each output of what commands: its name and the numbered parts on it. Two stages: the leading fan's part is low,
    the rest high."""
    numbered_parts = list(enumerate(parts, 1))
    if not way_of(control).staged or len(parts) < 2:
        return [(" low" if way_of(control).staged else "", numbered_parts)]
    first = leading(control, parts)
    return [(" low", [numbered_parts[first]]), (" high", [pair for k, pair in enumerate(numbered_parts) if k != first])]


def leading(control: Control, parts: list[SignalPart]) -> int:
    """Place of the part that starts first: the leading fan's, or the first."""
    return next((k for k, part in enumerate(parts) if control.lead in part.fans), 0)


def _pin(control: Control, part: SignalPart) -> str:
    """Where a part is triggered."""
    return (
        f"{part.name}, {COIL_MINUS if way_of(control).grounds else COIL_PLUS}"
        if part.clicks
        else f"{part.name}, signal"
    )


def asked_alone(control: Control, parts: list[SignalPart]) -> list[SignalPart]:
    """The parts the A/C asks for where those are fewer than one output starts: they are kept apart by a diode; []
    where none are."""
    if (
        not (_requested(control) and control.ac_fans)
        or way_of(control).brain != "thermoswitch"
        or way_of(control).staged
    ):
        return []
    asked = [part for part in parts if set(part.fans) & set(control.ac_fans)]
    return asked if 0 < len(asked) < len(parts) else []


def _triggers(laid: _SignalParts, control: Control, parts: list[SignalPart]) -> tuple[list[str], str]:
    """From each output to its coils, boxes and motors; the point of each stage that an override ties into, and the
    one the A/C asks at."""
    by, grounds, tied = way_of(control).brain, way_of(control).grounds, _ties(control, parts)
    nodes: list[str] = []
    apart = asked_alone(control, parts)
    for stage, (name, own) in enumerate(_stages(control, parts)):
        pins = [(k, _pin(control, part)) for k, part in own if part not in apart]
        # What else ties into the trigger itself, rather than into an input of its own at what commands.
        others = (
            (_requested(control) and by == "thermoswitch" and stage == 0 and not apart)
            + (_overridden(control) and tied)
            + bool(apart)
        )
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
    if not apart:
        return nodes, _request_node(control, parts, nodes)
    side = "A/C side: splice"
    first, second = ("plain", "striped") if grounds else ("striped", "plain")
    # From the fans the A/C asks for to the switch that starts them all, and not back.
    laid.lay(66, (side, f"second diode, {first} end"), "blue", "tail", "apart_diode")
    laid.lay(67, (f"second diode, {second} end", nodes[0]), "blue", "tail", "apart")
    for k, part in enumerate(parts, 1):
        if part in apart:
            laid.lay(numbered(10, 0, k), (side, _pin(control, part)), "blue", "tail", "trigger", k)
    return nodes, side


def _request_node(control: Control, parts: list[SignalPart], nodes: list[str]) -> str:
    """The stage the A/C asks for: the low one, or the high one where only its fans are chosen."""
    stages = _stages(control, parts)
    chosen = set(control.ac_fans)
    high = len(stages) > 1 and bool(chosen) and not any(chosen & set(part.fans) for _, part in stages[0][1])
    return nodes[1] if high else nodes[0]


def _ties(control: Control, parts: list[SignalPart]) -> bool:
    """Whether an override ties into the triggers: coils, and whatever a thermoswitch commands, have no input of their
    own for it."""
    return any(part.clicks for part in parts) or way_of(control).brain == "thermoswitch"


def _request(laid: _SignalParts, control: Control, node: str) -> None:
    """The A/C's wish: into an input of its own, or onto the trigger through a diode, so that nothing flows back."""
    by = way_of(control).brain
    if by != "thermoswitch":
        laid.lay(5, (f"{REQUEST}, out", f"{by}, A/C input"), "green", "request")
        laid.lay(63, ("compressor clutch feed", f"{REQUEST}, in"), "green", "request", "request_feed")
    elif way_of(control).grounds:
        laid.lay(5, (node, "diode, plain end"), "green", "request")
        laid.lay(62, ("diode, striped end", f"{REQUEST}, in"), "green", "tail", "request_diode")
        laid.lay(63, (f"{REQUEST}, out", CHASSIS), "black", "ground", "request_ground")
    else:
        laid.lay(63, ("compressor clutch feed", f"{REQUEST}, in"), "green", "request", "request_feed")
        laid.lay(62, (f"{REQUEST}, out", "diode, plain end"), "green", "tail", "request_diode")
        laid.lay(5, ("diode, striped end", node), "green", "request")


def _override(laid: _SignalParts, control: Control, nodes: list[str], feed: str, parts: list[SignalPart]) -> None:
    """The driver's switch: a pole to every trigger, so that it never ties two stages together; it grounds or feeds as
    they want it.

    Motors with a lead for it, and what has an input for it, take it there.
    """
    own = [f"{part.name}, override" for part in parts if part.override]
    if not _ties(control, parts):
        laid.lay(60, (feed, f"{OVERRIDE}, common"), "white", "override", "override_common")
        ends = own if len(own) == len(parts) else [f"{way_of(control).brain}, override input"]
        laid.spread((6, 30), (f"{OVERRIDE}, pole 1", ends), "override: splice", "white", "override")
        return
    common = (f"{OVERRIDE}, common", CHASSIS) if way_of(control).grounds else (feed, f"{OVERRIDE}, common")
    laid.lay(60, common, "black" if way_of(control).grounds else "white", "ground", "override_common")
    for k, node in enumerate(nodes, 1):
        laid.lay(6 if k == 1 else 61, (f"{OVERRIDE}, pole {k}", node), "white", "override", "override", k)


def _keyed(laid: _SignalParts, found: Electrics) -> None:
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
            laid.spread(
                (base + first, base + first), (start, pins), f"{title}: splice of the coils’ {words}", colour, role
            )
