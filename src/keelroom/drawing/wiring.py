"""The wiring drawing: control on top, a band per circuit below it, everything at a place of its own that nothing else
moves."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.electrical.figures import CircuitFigures, Electrics
from keelroom.assess.electrical.harness import cut_length, harness
from keelroom.assess.electrical.leads import HarnessWire
from keelroom.assess.electrical.signals import COIL_FUSE, KEYED, KEYED_BACK, alone, leading, parts_of
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.inputs.electrical.controller import seat_of
from keelroom.assess.inputs.electrical.ways import way_of
from keelroom.document.quantity import described
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import UNRELAYED, Control
from keelroom.document.schema.package import Package
from keelroom.drawing.scene import Circle, Label, Point, Polyline, Rect, Scene, Shape
from keelroom.units import KINDS

MM = 1e-3
WIDTH = 686.0
SOURCE, FUSE, RELAY, PLUG, MOTOR, GROUND = 30.0, 158.0, 336.0, 478.0, 516.0, 648.0
"""[mm] columns"""
SPLIT, JOIN = RELAY - 56.0, RELAY + 44.0
"""[mm] splices ahead of the contacts and behind them"""
COIL_BUS, TRIGGER_BUS = 187.0, (290.0, 297.0)
LANE, LINE, HEAD = 150.0, 106.0, 30.0
"""[mm] height of the control lane, of a motor's line, of a circuit's heading"""
MOTOR_RADIUS = 20.0


class _Sheet:
    """Shapes being gathered; places in millimetres, y up from the top edge at 0."""

    def __init__(self) -> None:
        self.shapes: list[Shape] = []
        self.sleeves: list[Shape] = []
        """drawn last, over whatever crosses them"""

    def line(self, role: str, *points: Point) -> None:
        self.shapes.append(Polyline(role, tuple((x * MM, y * MM) for x, y in points)))

    def area(self, role: str, *points: Point) -> None:
        self.shapes.append(Polyline(role, tuple((x * MM, y * MM) for x, y in points), closed=True))

    def box(self, role: str, x: float, y: float, wide: float, high: float, radius: float = 0.0) -> None:
        """A rectangle by its middle."""
        self.shapes.append(Rect(role, (x - wide / 2) * MM, (y - high / 2) * MM, wide * MM, high * MM, radius * MM))

    def ring(self, role: str, x: float, y: float, radius: float) -> None:
        self.shapes.append(Circle(role, (x * MM, y * MM), radius * MM))

    def words(self, x: float, y: float, text: str, role: str = "el.words", align: str = "middle") -> None:
        self.shapes.append(Label(role, (x * MM, y * MM), text, align))

    def node(self, x: float, y: float) -> None:
        self.ring("el.node", x, y, 2.6)

    def wire(self, wire: HarnessWire, system: str, *points: Point, flag: Point | None = None) -> None:
        """A wire through points; its number on a sleeve, its size over it, colour and length under it."""
        self.line(f"wire.{wire.colour}", *points)
        if flag is not None:
            x, y = flag
            self.sleeve(x, y, wire.number)
            self.words(x, y + 18, wire.size, "el.flag")
            self.words(x, y - 18, f"{wire.colour} {cut_length(wire.length, system)}", "el.flag")

    def sleeve(self, x: float, y: float, number: int) -> None:
        """The printed sleeve a wire is told by."""
        wide, high = (14 + 9 * len(str(number))) * MM, 17 * MM
        self.sleeves.append(Rect("el.sleeve", x * MM - wide / 2, y * MM - high / 2, wide, high, 3 * MM))
        self.sleeves.append(Label("el.flag", (x * MM, y * MM), str(number), "middle"))


def wiring(build: Build, package: Package, assessment: Assessment, system: str) -> Scene | None:
    """The drawing of a package's circuits; None where there is none yet."""
    found = assessment.electrics
    if found is None or not found.circuits:
        return None
    wires = harness(build, package, found)
    sheet = _Sheet()
    tops, bottom = [], -LANE
    pins, names = _pins([wire for wire in wires if not wire.circuit]), _names(found)
    for figures in found.circuits:
        tops.append(bottom)
        bottom -= HEAD + LINE * max(len(figures.motors), 1) + _room(figures, names[figures.circuit.id], pins)
    coils = _bands(sheet, found.circuits, wires, tops, (assessment, system))
    for figures in found.circuits:
        _electronics(sheet, coils[figures.circuit.id], names[figures.circuit.id], pins)
    _lane(sheet, (package, assessment), wires, [at for own in coils.values() for at in own], system)
    return Scene((*sheet.shapes, *sheet.sleeves), (0.0, bottom * MM, WIDTH * MM, -bottom * MM))


def _names(found: Electrics) -> dict[str, list[str]]:
    """What the control drives, by name, circuit by circuit."""
    names: dict[str, list[str]] = {one.circuit.id: [] for one in found.circuits}
    parts = parts_of(found)
    for one in found.circuits:
        own = {motored.id for motored in one.motors}
        names[one.circuit.id] = [part.name for part in parts if one.cools and set(part.fans) <= own]
    return names


def _bands(
    sheet: _Sheet,
    circuits: tuple[CircuitFigures, ...],
    wires: tuple[HarnessWire, ...],
    tops: list[float],
    told: tuple[Assessment, str],
) -> dict[str, list[Point]]:
    """Every circuit's band; where what the fans' control drives is triggered, by circuit."""
    assessment, system = told
    coils: dict[str, list[Point]] = {figures.circuit.id: [] for figures in circuits}
    wrong_at: dict[str, set[str]] = {}
    for finding in assessment.findings:
        if finding.level == "problem" and finding.where[2:3] == ("circuits",) and len(finding.where) > 4:
            wrong_at.setdefault(finding.where[3], set()).add(finding.where[4])
    own_of: dict[str, dict[tuple[str, int], HarnessWire]] = {}
    for wire in wires:
        own_of.setdefault(wire.circuit, {})[wire.role, wire.place] = wire
    keyed = {wire.number: wire for wire in wires if not wire.circuit}
    for k, (figures, top) in enumerate(zip(circuits, tops, strict=True)):
        ident = figures.circuit.id
        wrong, own = frozenset(wrong_at.get(ident, ())), own_of.get(ident, {})
        sheet.line("el.rule", (10, top - 2), (WIDTH - 10, top - 2))
        sheet.words(12, top - 14, figures.circuit.name or ident, "el.head", "start")
        sheet.words(WIDTH - 12, top - 14, _state(figures), "el.words", "end")
        found = _circuit(sheet, _Band(figures, own, wrong, top - HEAD - LINE / 2, system))
        if figures.cools:
            coils[ident] += found
        else:
            base = 100 * (k + 1)
            _by_key(sheet, found, [keyed[number] for number in (base + KEYED, base + KEYED_BACK) if number in keyed])
    return coils


def _state(figures: CircuitFigures) -> str:
    if not figures.motors:
        return "feeds nothing"
    return (
        f"{figures.continuous:.0f} A running, {figures.starting.current:.0f} A at the start, {figures.drop:.2f} V lost"
    )


PINS = (("probe +", "probe −", "A/C input"), ("key", "ground", "override"))
"""what electronics have besides their trigger, at their left and at their right"""
ROW = 17.0
"""[mm] from one such pin to the next"""


def _pins(signals: list[HarnessWire]) -> dict[str, dict[str, HarnessWire]]:
    """Wires at the pins of electronics, by the part and the pin."""
    found: dict[str, dict[str, HarnessWire]] = {}
    for wire in signals:
        for point in (wire.end, wire.start):
            part, _, pin = point.rpartition(", ")
            if pin == "signal" or any(pin in side for side in PINS):
                found.setdefault(part, {})[pin] = wire
    return found


def _electronics(sheet: _Sheet, parts: list[Point], names: list[str], pins: dict[str, dict[str, HarnessWire]]) -> None:
    """The pins of each part, told by the number of their wires."""
    for (x, y), name in zip(parts, names, strict=False):
        for side, wanted in zip((-1, 1), PINS, strict=True):
            row = y
            for pin in wanted:
                wire = pins.get(name, {}).get(pin)
                if wire is None:
                    continue
                sheet.line(f"wire.{wire.colour}", (x + side * 13, row), (x + side * 46, row))
                sheet.sleeve(x + side * 42, row, wire.number)
                sheet.words(x + side * 60, row, pin, "el.words", "start" if side > 0 else "end")
                row -= ROW


def _room(figures: CircuitFigures, names: list[str], pins: dict[str, dict[str, HarnessWire]]) -> float:
    """How much more height a circuit's last line takes for its pins [mm]."""
    rows = max((sum(pin in pins.get(name, {}) for pin in side) for name in names for side in PINS), default=0)
    return ROW * max(rows - 1, 0) if figures.cools else 0.0


def _by_key(sheet: _Sheet, coils: list[Point], pair: list[HarnessWire]) -> None:
    """The coil of a relay that only the key commands: fed from it, grounded beside it."""
    for (x, y), (fed, back) in zip(coils, [pair] if len(pair) == 2 else [], strict=False):
        sheet.line(f"wire.{fed.colour}", (x - 13, y), (x - 66, y))
        sheet.sleeve(x - 52, y, fed.number)
        sheet.words(x - 76, y, "key", "el.words", "end")
        sheet.line(f"wire.{back.colour}", (x + 13, y), (x + 66, y))
        sheet.sleeve(x + 52, y, back.number)
        _bolt_head(sheet, x + 76, y, 7)


class _Band(NamedTuple):
    """A circuit as it is drawn: its wires by what they do and for which, fields that are wrong, height of its first
    line, units."""

    figures: CircuitFigures
    own: dict[tuple[str, int], HarnessWire]
    wrong: frozenset[str]
    y: float
    system: str

    def role(self, *fields: str) -> str:
        """How a part is drawn that these fields describe."""
        return "el.bad" if self.wrong & set(fields) else "el.part"

    @property
    def apart(self) -> bool:
        """Whether each motor has a relay of its own."""
        return self.figures.circuit.switch == "relays" and len(self.figures.motors) > 1

    @property
    def shared(self) -> bool:
        return self.figures.circuit.shared_ground and len(self.figures.motors) > 1


def _circuit(sheet: _Sheet, band: _Band) -> list[Point]:
    """Source, fuse and feed once, then a line per motor; the coils of its relays."""
    _feed(sheet, band)
    coils: list[Point] = []
    for k, motored in enumerate(band.figures.motors):
        line = band.y - k * LINE
        if k == 0 or band.apart or band.figures.circuit.switch == "own":
            coils += _switch(sheet, band.figures, line, band.y, band.role("relay", "switch"))
        _to_motor(sheet, band, k, line)
        _motor(
            sheet,
            MOTOR,
            line,
            motored.name,
            f"{band.figures.at_idle:.1f} V at idle" if band.figures.at_idle else "stands still",
        )
        _return(sheet, band, k, line)
    return coils


def _feed(sheet: _Sheet, band: _Band) -> None:
    own, y, fuse = band.own, band.y, band.figures.circuit.fuse
    tied = [wire for (role, _), wire in own.items() if role == "source"] or [own["feed", 1]]
    _post(sheet, SOURCE, y, " and ".join(wire.start for wire in tied), band.role("sources"))
    begin = SOURCE + 9
    if ("source", 1) in own:
        begin = FUSE + 22
        sheet.wire(own["source", 1], band.system, (SOURCE + 9, y), (FUSE - 22, y), flag=(88, y))
        for k, wire in enumerate(tied[1:]):
            sheet.line(
                "wire.red",
                (SOURCE + 6, y - 7),
                (SOURCE + 22, y - 13 - 18 * k),
                (FUSE - 34, y - 13 - 18 * k),
                (FUSE - 26, y),
            )
            sheet.sleeve(134, y - 24 - 18 * k, wire.number)
        if fuse:
            _fuse(sheet, FUSE, y, f"{fuse.si:g} A", band.role("fuse", "fuse_at"))
        else:
            sheet.line("wire.red", (FUSE - 22, y), (begin, y))
            sheet.node(FUSE, y)
    if fuse is None and "fuse" in band.wrong:
        sheet.words(92, y - 38, "no fuse", "el.alarm")
    sheet.wire(
        own["feed", 1], band.system, (begin, y), (SPLIT if ("feed_tail", 1) in own else RELAY - 32, y), flag=(238, y)
    )


def _to_motor(sheet: _Sheet, band: _Band, k: int, line: float) -> None:
    """From the relay, or from the splice behind it, through the plug to one motor."""
    out = band.own["motor", k + 1]
    begin = RELAY + 32
    if ("out_tail", 1) in band.own or (band.figures.circuit.switch in UNRELAYED and len(band.figures.motors) > 1):
        begin = JOIN
        if k == 0:
            _tails(
                sheet,
                [band.own[at] for at in (("out_tail", 1), ("out_tail", 2)) if at in band.own],
                (RELAY + 32, JOIN),
                (line, line),
            )
        sheet.line(f"wire.{out.colour}", (begin, band.y), (begin, line))
        sheet.node(begin, band.y)
    if band.apart:
        _tails(sheet, [band.own["feed_tail", k + 1]], (SPLIT, RELAY - 32), (band.y, line))
    elif k == 0 and ("feed_tail", 1) in band.own:
        _tails(sheet, [band.own["feed_tail", 1], band.own["feed_tail", 2]], (SPLIT, RELAY - 32), (line, line))
    sheet.wire(out, band.system, (begin, line), (PLUG - 12, line), flag=(RELAY + 85, line))
    _plug(sheet, PLUG, line, k, band.role("connector"), band.figures.circuit.connector is not None)
    sheet.line(f"wire.{out.colour}", (PLUG + 12, line), (MOTOR - MOTOR_RADIUS, line))


def _tails(sheet: _Sheet, tails: list[HarnessWire], across: tuple[float, float], lines: tuple[float, float]) -> None:
    """Short wires between a splice and what shares it, told by their numbers: side by side where they run together."""
    (x0, x1), (y0, y1) = across, lines
    for tail in tails:
        sheet.line(f"wire.{tail.colour}", (x0, y0), (x0, y1), (x1, y1))
    if tails:
        sheet.node(x0 if tails[0].role == "feed_tail" else x1, y0)
        # Over the words of relay and wire; of a pair the second hangs under its own.
        ahead = tails[0].role == "feed_tail"
        for k, tail in enumerate(tails):
            sheet.sleeve(x0 + 4 if ahead else x1 + 26, y1 + (36 if k == 0 else -52), tail.number)


def _return(sheet: _Sheet, band: _Band, k: int, line: float) -> None:
    """From a motor to its ground, or to the one all share."""
    back = band.own.get(("back_tail" if band.shared else "back", k + 1))
    if back is None:
        sheet.words(MOTOR + 78, line, "no way back", "el.alarm")
        return
    end = GROUND - (30 if band.shared else 9)
    sheet.wire(back, band.system, (MOTOR + MOTOR_RADIUS, line), (end, line), flag=(MOTOR + 68, line))
    if band.shared:
        sheet.line("wire.black", (end, line), (end, band.y))
        sheet.node(end, band.y)
        if k:
            return
        trunk = band.own["back", 1]
        sheet.line("wire.black", (end, line), (GROUND - 9, line))
        sheet.words(WIDTH - 12, line + 40, f"{trunk.number}, {cut_length(trunk.length, band.system)}", "el.flag", "end")
    ground = band.figures.circuit.ground
    _bolt(sheet, GROUND, line, "battery −" if ground == "battery" else ground, band.role("ground"))


def _post(sheet: _Sheet, x: float, y: float, name: str, role: str) -> None:
    sheet.ring(role, x, y, 9)
    sheet.line("el.mark", (x - 4, y), (x + 4, y))
    sheet.line("el.mark", (x, y - 4), (x, y + 4))
    words = name.split(" ")
    half = (len(words) + 1) // 2 if len(name) > 13 else len(words)
    for k, part in enumerate((words[:half], words[half:])):
        if part:
            sheet.words(8, y - 36 - 17 * k, " ".join(part), align="start")


def _fuse(sheet: _Sheet, x: float, y: float, text: str, role: str) -> None:
    """A capsule with its rating between two caps."""
    sheet.box(role, x, y, 44, 20, 9)
    sheet.line("el.mark", (x - 16, y + 10), (x - 16, y - 10))
    sheet.line("el.mark", (x + 16, y + 10), (x + 16, y - 10))
    sheet.words(x, y, text, "el.value")


def _switch(sheet: _Sheet, figures: CircuitFigures, y: float, top: float, role: str) -> list[Point]:
    """Relay, controller or switch as a plate with its contact, or the electronics in a motor; where it is triggered.
    top: its circuit's first line"""
    circuit = figures.circuit
    if circuit.switch == "none":
        sheet.line("wire.red", (RELAY - 32, y), (RELAY + 32, y))
        return []
    if circuit.switch == "own":
        if y == top:
            sheet.line("wire.red", (RELAY - 32, y), (RELAY + 32, y))
        sheet.box("el.coil", RELAY, y - 34, 26, 11, 2)
        sheet.words(RELAY, y + 28, "electronics", "el.value")
        return [(RELAY, y - 34)]
    rating = f"{circuit.relay.si:g} A" if circuit.relay else "? A"
    sheet.box(role, RELAY, y - 13, 64, 62, 4)
    sheet.line("el.mark", (RELAY - 32, y), (RELAY - 14, y), (RELAY + 12, y + 9))
    sheet.line("el.mark", (RELAY + 14, y), (RELAY + 32, y))
    sheet.ring("el.mark", RELAY - 14, y, 1.6)
    sheet.ring("el.mark", RELAY + 14, y, 1.6)
    names = {
        "relay": "relay",
        "relays": "relay",
        "parallel": "2 relays",
        "controller": "controller",
        "switch": "switch",
    }
    sheet.words(RELAY, y + 28, f"{names[circuit.switch]} {rating}", "el.value")
    if circuit.switch == "switch":
        return []
    sheet.box("el.coil", RELAY, y - 34, 26, 11, 2)
    return [(RELAY, y - 34)] * (2 if circuit.switch == "parallel" else 1)


def _plug(sheet: _Sheet, x: float, y: float, k: int, role: str, fitted: bool) -> None:
    """Two halves that fit one way; the second motor's the other way round, so that they cannot be swapped."""
    if not fitted:
        sheet.line("el.mark", (x - 12, y), (x + 12, y))
        return
    turn = 1 if k % 2 == 0 else -1
    sheet.area(role, (x - 12, y + 10), (x - 1, y + 10), (x + 4 * turn, y), (x - 1, y - 10), (x - 12, y - 10))
    sheet.area(role, (x + 12, y + 10), (x + 2, y + 10), (x + 2 + 4 * turn, y), (x + 2, y - 10), (x + 12, y - 10))


def _motor(sheet: _Sheet, x: float, y: float, name: str, volts: str) -> None:
    """A fan seen from the front: ring, three blades, hub."""
    sheet.ring("el.fan", x, y, MOTOR_RADIUS)
    for k in range(3):
        angle = math.radians(90 + 120 * k)
        swept = [(angle - 0.32, 0.34), (angle - 0.1, 0.9), (angle + 0.45, 0.82), (angle + 0.34, 0.34)]
        sheet.area(
            "el.blade", *((x + MOTOR_RADIUS * r * math.cos(a), y + MOTOR_RADIUS * r * math.sin(a)) for a, r in swept)
        )
    sheet.ring("el.node", x, y, 4)
    sheet.words(x, y + 38, name, "el.value")
    sheet.words(x, y - 36, volts)


def _bolt(sheet: _Sheet, x: float, y: float, name: str, role: str) -> None:
    """A ground bolt with what it goes into."""
    _bolt_head(sheet, x, y, 9, role)
    sheet.words(min(x, WIDTH - 34), y - 33, name)


def _bolt_head(sheet: _Sheet, x: float, y: float, radius: float, role: str = "el.part") -> None:
    """A hexagon head in its washer."""
    sheet.ring(role, x, y, radius)
    head = 0.6 * radius
    sheet.area(
        "el.mark",
        *((x + head * math.cos(math.radians(60 * k)), y + head * math.sin(math.radians(60 * k))) for k in range(6)),
    )


def _lane(
    sheet: _Sheet, told: tuple[Package, Assessment], wires: tuple[HarnessWire, ...], coils: list[Point], system: str
) -> None:
    """The control lane: coil feed, what commands it, its sensor, override and A/C request, and the two buses to the
    relays."""
    package, assessment = told
    control, own = package.control, {wire.number: wire for wire in wires if not wire.circuit}
    sheet.words(12, -14, "Control", "el.head", "start")
    if not package.fans:
        sheet.words(WIDTH / 2, -70, "No fan to control")
        return
    by, y = way_of(control).brain, -62.0
    wrong = {
        finding.where[-1]
        for finding in assessment.findings
        if finding.level == "problem" and finding.where[2:3] == ("control",)
    }
    brain_x, brain_wide = 392.0, 156.0
    if 1 in own:
        _post(sheet, SOURCE, y, "key feed" if control.coil == "key" else "always live", "el.part")
        _fuse(sheet, FUSE, y, f"{COIL_FUSE:g} A", "el.part")
        sheet.line("wire.violet", (SOURCE + 9, y), (FUSE - 22, y))
        feed = brain_x - brain_wide / 2 if own[1].end.startswith(by) else COIL_BUS
        sheet.wire(own[1], system, (FUSE + 22, y), (feed, y), flag=(88, y))
    sheet.box("el.bad" if wrong & {"sensor", "strategy"} else "el.part", brain_x, y, brain_wide, 48, 6)
    sheet.words(brain_x, y + 9, by, "el.value")
    sheet.words(brain_x, y - 9, _set_points(control, system))
    common = "wire.violet" if 1 in own and not own[1].end.startswith(by) else "wire.black" if 2 in own else ""
    if assessment.electrics is not None and not alone(control, parts_of(assessment.electrics)):
        first = leading(control, parts_of(assessment.electrics)) if way_of(control).staged else -1
        _buses(sheet, own, coils, (first, common, brain_x - brain_wide / 2, y))
    _sensor(
        sheet,
        control,
        own,
        (brain_x + brain_wide / 2, y),
        (system, "el.bad" if wrong & {"sensor", "strap"} else "el.part"),
    )
    if 9 in own:
        sheet.line("wire.black", (brain_x + 40, y - 24), (brain_x + 40, y - 34))
        _bolt_head(sheet, brain_x + 40, y - 38, 5)
        sheet.sleeve(brain_x + 62, y - 38, 9)
    _tag(sheet, [own[k] for k in (60, 6, 61, *range(31, 36)) if k in own], (88, -121), "override in the cab")
    _tag(sheet, [own[k] for k in (5, 62, 63, *range(64, 70)) if k in own], (416, -121), "A/C pressure switch")


def _set_points(control: Control, system: str) -> str:
    if way_of(control).by_hand or control.fan_on is None or control.fan_off is None:
        return "by hand" if way_of(control).by_hand else ""
    shown = [
        described(value, KINDS["temperature"], system) for value in (control.fan_on, control.fan_off, control.second_on)
    ]
    if way_of(control).staged:
        return f"low {shown[0].split()[0]}, high {shown[2]}"
    return f"on {shown[0].split()[0]}, off {shown[1]}"


def _buses(sheet: _Sheet, own: dict[int, HarnessWire], coils: list[Point], lane: tuple[int, str, float, float]) -> None:
    """Coils' common side, fed or grounded, and triggers, from the lane down to each relay's coil or controller.

    lane: the part that starts first where there are stages, -1 where there are none; common wire; right of the brain;
          height of the lane
    """
    first, common, brain, y = lane
    staged = first >= 0
    if not coils:
        return
    lowest = min(at[1] for at in coils)
    top = y if common == "wire.violet" else -LANE + 16
    if common:
        sheet.line(common, (COIL_BUS, top), (COIL_BUS, lowest + 3))
    if common == "wire.black":
        sheet.ring("el.part", COIL_BUS, top, 8)
        sheet.words(COIL_BUS + 14, top - 6, "ground", "el.words", "start")
        sheet.sleeve(COIL_BUS, top - 26, 2)
    for stage in range(1 + staged):
        if 7 + stage in own:
            sheet.sleeve(brain - 16, y + 8 - 16 * stage, 7 + stage)
    tail = 40 if common == "wire.violet" else 50
    for k, (x, at) in enumerate(coils):
        stage = int(staged and k != first)
        bus, out = TRIGGER_BUS[stage], y + 8 - 16 * stage
        sheet.line("wire.blue", (brain, out), (bus, out), (bus, at - 4), (x - 13, at - 4))
        if common:
            sheet.line(common, (COIL_BUS, at + 3), (x - 13, at + 3))
            sheet.node(COIL_BUS, at + 3)
        # Two relays side by side are drawn as one: their sleeves under each other.
        under = 18 * coils[:k].count((x, at))
        if 11 + k in own:
            sheet.sleeve(bus - 26, at - 4 - under, 11 + k)
        if tail + 1 + k in own:
            sheet.sleeve(COIL_BUS + 20, at + 3 - under, tail + 1 + k)


def _sensor(sheet: _Sheet, control: Control, own: dict[int, HarnessWire], start: Point, told: tuple[str, str]) -> None:
    """Where the temperature is felt: a hose with a bulb in it, the fins, the housing, or the engine."""
    system, role = told
    way, seat = way_of(control), seat_of(control)
    if way.by_hand:
        return
    x, y = 566.0 if 4 in own else 590.0, start[1]
    if not way.by_computer and 3 in own:
        sheet.wire(own[3], system, start, (x - 30, y), flag=((start[0] + x - 30) / 2, y))
    else:
        sheet.line("el.mark", start, (x - 30, y))
    sheet.box(role, x, y, 60, 22, 10 if seat.hosed else 2)
    sheet.ring("el.node", x, y, 5)
    sheet.words(676, y + 37, seat.said, align="end")
    if 4 in own:
        sheet.wire(own[4], system, (x + 30, y), (GROUND - 9, y))
        _bolt(sheet, GROUND, y, "strap", "el.part")
        sheet.sleeve((x + 30 + GROUND - 9) / 2, y, 4)


def _tag(sheet: _Sheet, wires: list[HarnessWire], at: Point, name: str) -> None:
    """Something that speaks into the control, told by the numbers of its wires; nothing where it has none."""
    if not wires:
        return
    x, y = at
    sheet.box("el.part", x, y, 166, 24, 3)
    sheet.words(x, y, name)
    begin = x + 83
    for wire in wires:
        sheet.line(f"wire.{wire.colour}", (begin, y), (begin + 30, y))
        sheet.sleeve(begin + 18, y, wire.number)
        begin += 32
