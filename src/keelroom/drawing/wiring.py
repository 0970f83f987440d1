"""The wiring drawing: control on top, a band per circuit below it, everything at a place of its own that nothing else moves."""

from __future__ import annotations

import math

from keelroom.assess.assessment import Assessment
from keelroom.assess.electrical.controller import BY_COMPUTER, SENSORLESS, STAGED, place_of
from keelroom.assess.electrical.figures import CircuitFigures
from keelroom.assess.electrical.harness import COIL_FUSE, SENSORS, HarnessWire, brains, cut_length, harness
from keelroom.build.quantity import described
from keelroom.build.schema.build import Build
from keelroom.build.schema.electrical import Control
from keelroom.build.schema.package import Package
from keelroom.drawing.scene import Circle, Label, Point, Polyline, Rect, Scene, Shape
from keelroom.units import KINDS

MM = 1e-3
WIDTH = 686.0
SOURCE, FUSE, RELAY, PLUG, MOTOR, GROUND = 30.0, 158.0, 336.0, 478.0, 516.0, 648.0
"""[mm] columns"""
COIL_BUS, TRIGGER_BUS = 187.0, (290.0, 297.0)
LANE, LINE, HEAD = 150.0, 106.0, 30.0
"""[mm] height of the control lane, of a motor's line, of a circuit's heading"""
MOTOR_RADIUS = 20.0


class _Sheet:
    """Shapes being gathered; places in millimetres, y up from the top edge at 0."""

    def __init__(self) -> None:
        self.shapes: list[Shape] = []

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
        self.box("el.sleeve", x, y, 14 + 9 * len(str(number)), 17, 3)
        self.words(x, y, str(number), "el.flag")


def wiring(build: Build, package: Package, assessment: Assessment, system: str) -> Scene | None:
    """The drawing of a package's circuits; None where there is none yet."""
    found = assessment.electrics
    if found is None or not found.circuits:
        return None
    wires = harness(build, package, found)
    sheet = _Sheet()
    bad = frozenset(
        finding.where[3:] for finding in assessment.findings if finding.level == "problem" and finding.where[2:3] == ("circuits",)
    )
    tops, bottom = [], -LANE
    for figures in found.circuits:
        tops.append(bottom)
        bottom -= HEAD + LINE * max(len(figures.motors), 1)
    coils = _bands(sheet, found.circuits, wires, tops, (bad, system))
    _lane(sheet, (build, package, assessment), wires, coils, system)
    return Scene(tuple(sheet.shapes), (0.0, bottom * MM, WIDTH * MM, -bottom * MM))


def _bands(
    sheet: _Sheet,
    circuits: tuple[CircuitFigures, ...],
    wires: tuple[HarnessWire, ...],
    tops: list[float],
    told: tuple[frozenset[tuple[str, ...]], str],
) -> list[Point]:
    """Every circuit's band; the coils of the relays the fans' control drives."""
    coils: list[Point] = []
    for figures, top in zip(circuits, tops, strict=True):
        own = {wire.number % 100: wire for wire in wires if wire.circuit == figures.circuit.id}
        sheet.line("el.rule", (10, top - 2), (WIDTH - 10, top - 2))
        name = figures.circuit.name or figures.circuit.id
        sheet.words(12, top - 14, name, "el.head", "start")
        state = (
            f"{figures.continuous:.0f} A running, {figures.starting.current:.0f} A at the start, {figures.drop:.2f} V lost"
            if figures.motors
            else "feeds nothing"
        )
        sheet.words(WIDTH - 12, top - 14, state, "el.words", "end")
        found = _circuit(sheet, figures, own, top - HEAD - LINE / 2, told)
        if any(motored.fan for motored in figures.motors):
            coils += found
    return coils


def _circuit(
    sheet: _Sheet, figures: CircuitFigures, own: dict[int, HarnessWire], y: float, told: tuple[frozenset[tuple[str, ...]], str]
) -> list[Point]:
    bad, system = told
    circuit, many = figures.circuit, len(figures.motors)
    wrong = {where[1] for where in bad if where[:1] == (circuit.id,) and len(where) > 1}
    start = own.get(1, own.get(2))
    source = start.start if start else ""
    _post(sheet, SOURCE, y, source, "el.bad" if "sources" in wrong else "el.part")
    if 1 in own:
        sheet.wire(own[1], system, (SOURCE + 9, y), (FUSE - 22, y), flag=(88, y))
        _fuse(sheet, FUSE, y, f"{circuit.fuse.si:g} A" if circuit.fuse else "", "el.bad" if wrong & {"fuse", "fuse_at"} else "el.part")
    begin = FUSE + 22 if 1 in own else SOURCE + 9
    if 2 in own:
        sheet.wire(own[2], system, (begin, y), (RELAY - 32, y), flag=(238, y))
    if "fuse" in wrong and 1 not in own:
        sheet.words(92, y - 26, "no fuse", "el.alarm")
    own_relay = circuit.switch == "relays" and many > 1
    coils: list[Point] = []
    for k, motored in enumerate(figures.motors):
        line = y - k * LINE
        if k == 0 or own_relay:
            coils += _switch(sheet, figures, line, "el.bad" if wrong & {"relay", "switch"} else "el.part")
        if k and own_relay:
            sheet.line("wire.red", (RELAY - 38, y), (RELAY - 38, line), (RELAY - 32, line))
            sheet.node(RELAY - 38, y)
        out = own.get(11 + k)
        if out is not None:
            if k and not own_relay:
                sheet.line(f"wire.{out.colour}", (RELAY + 38, y), (RELAY + 38, line))
                sheet.node(RELAY + 38, y)
            sheet.wire(out, system, (RELAY + (32 if k == 0 or own_relay else 38), line), (PLUG - 12, line), flag=(RELAY + 85, line))
            _plug(sheet, PLUG, line, k, "el.bad" if "connector" in wrong else "el.part", circuit.connector is not None)
            sheet.line(f"wire.{out.colour}", (PLUG + 12, line), (MOTOR - MOTOR_RADIUS, line))
        _motor(sheet, MOTOR, line, motored.name, f"{figures.at_idle:.1f} V at idle" if figures.at_idle else "stands still")
        back = own.get(21 + k)
        if back is None:
            sheet.words(MOTOR + 78, line, "no way back", "el.alarm")
            continue
        shared = circuit.shared_ground and many > 1
        sheet.wire(
            back, system, (MOTOR + MOTOR_RADIUS, line), (GROUND - (9 if k == 0 or not shared else 24), line), flag=(MOTOR + 72, line)
        )
        if shared and k:
            sheet.line("wire.black", (GROUND - 24, line), (GROUND - 24, y))
            sheet.node(GROUND - 24, y)
        else:
            _bolt(
                sheet,
                GROUND,
                line,
                {"battery": "battery −"}.get(circuit.ground, circuit.ground),
                "el.bad" if "ground" in wrong else "el.part",
            )
    return coils


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


def _switch(sheet: _Sheet, figures: CircuitFigures, y: float, role: str) -> list[Point]:
    """Relay, controller or switch as a plate with its contact; where its coil is."""
    circuit = figures.circuit
    if circuit.switch == "none":
        sheet.line("wire.red", (RELAY - 32, y), (RELAY + 32, y))
        return []
    rating = f"{circuit.relay.si:g} A" if circuit.relay else "? A"
    sheet.box(role, RELAY, y - 13, 64, 62, 4)
    sheet.line("el.mark", (RELAY - 32, y), (RELAY - 14, y), (RELAY + 12, y + 9))
    sheet.line("el.mark", (RELAY + 14, y), (RELAY + 32, y))
    sheet.ring("el.mark", RELAY - 14, y, 1.6)
    sheet.ring("el.mark", RELAY + 14, y, 1.6)
    names = {"relay": "relay", "relays": "relay", "parallel": "2 in parallel", "controller": "controller", "switch": "switch"}
    sheet.words(RELAY, y + 28, f"{names[circuit.switch]} {rating}" if circuit.switch != "parallel" else f"2 relays {rating}", "el.value")
    if circuit.switch == "switch":
        return []
    sheet.box("el.coil", RELAY, y - 34, 26, 11, 2)
    return [(RELAY, y - 34)]


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
        sheet.area("el.blade", *((x + MOTOR_RADIUS * r * math.cos(a), y + MOTOR_RADIUS * r * math.sin(a)) for a, r in swept))
    sheet.ring("el.node", x, y, 4)
    sheet.words(x, y + 38, name, "el.value")
    sheet.words(x, y - 36, volts)


def _bolt(sheet: _Sheet, x: float, y: float, name: str, role: str) -> None:
    """A ground bolt: hexagon head in its washer."""
    sheet.ring(role, x, y, 9)
    sheet.area("el.mark", *((x + 5.5 * math.cos(math.radians(60 * k)), y + 5.5 * math.sin(math.radians(60 * k))) for k in range(6)))
    sheet.words(min(x, WIDTH - 34), y - 33, name)


def _lane(sheet: _Sheet, told: tuple[Build, Package, Assessment], wires: tuple[HarnessWire, ...], coils: list[Point], system: str) -> None:
    """The control lane: coil feed, what commands it, its sensor, override and A/C request, and the two buses to the relays."""
    build, package, assessment = told
    control, own = package.control, {wire.number: wire for wire in wires if not wire.circuit}
    sheet.words(12, -14, "Control", "el.head", "start")
    if not package.fans:
        sheet.words(WIDTH / 2, -70, "No fan to control")
        return
    by, y = brains(control), -62.0
    wrong = {finding.where[-1] for finding in assessment.findings if finding.level == "problem" and finding.where[2:3] == ("control",)}
    brain_x, brain_wide = 392.0, 156.0
    if 1 in own:
        _post(sheet, SOURCE, y, "key feed" if control.coil == "key" else "always live", "el.part")
        _fuse(sheet, FUSE, y, f"{COIL_FUSE:g} A", "el.part")
        sheet.line("wire.violet", (SOURCE + 9, y), (FUSE - 22, y))
        feed = COIL_BUS if own[1].end == "coils, splice" else brain_x - brain_wide / 2
        sheet.wire(own[1], system, (FUSE + 22, y), (feed, y), flag=(88, y))
    sheet.box("el.bad" if wrong & {"sensor", "strategy"} else "el.part", brain_x, y, brain_wide, 48, 6)
    sheet.words(brain_x, y + 9, by, "el.value")
    sheet.words(brain_x, y - 9, _set_points(build, control, system))
    common = "wire.violet" if own and 1 in own and own[1].end == "coils, splice" else "wire.black" if 2 in own else ""
    _buses(sheet, own, coils, (control.strategy in STAGED, common, brain_x - brain_wide / 2, y))
    _sensor(sheet, control, own, (brain_x + brain_wide / 2, y), (system, "el.bad" if wrong & {"sensor", "strap"} else "el.part"))
    if 6 in own:
        _tag(sheet, own[6], (84, -121), "override, in the cab")
    if 5 in own:
        _tag(sheet, own[5], (416, -121), "A/C pressure switch")


def _set_points(build: Build, control: Control, system: str) -> str:
    cooling = build.brief.cooling
    if control.strategy == "toggle" or cooling.fan_on is None or cooling.fan_off is None:
        return "by hand" if control.strategy == "toggle" else ""
    shown = [described(value, KINDS["temperature"], system) for value in (cooling.fan_on, cooling.fan_off, control.second_on)]
    if control.strategy in STAGED:
        return f"low {shown[0].split()[0]}, high {shown[2]}"
    return f"on {shown[0].split()[0]}, off {shown[1]}"


def _buses(sheet: _Sheet, own: dict[int, HarnessWire], coils: list[Point], lane: tuple[bool, str, float, float]) -> None:
    """Coils' common side, fed or grounded, and triggers, from the lane down to each relay's coil or controller."""
    staged, common, brain, y = lane
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
    for k, (x, at) in enumerate(coils):
        stage = min(k, 1) if staged else 0
        bus, wire = TRIGGER_BUS[stage], own.get(11 + k)
        out = y + 8 - 16 * stage
        sheet.line("wire.blue", (brain, out), (bus, out), (bus, at - 4), (x - 13, at - 4))
        if common:
            sheet.line(common, (COIL_BUS, at + 3), (x - 13, at + 3))
            sheet.node(COIL_BUS, at + 3)
        if wire is not None:
            sheet.sleeve(bus - 26, at - 4, wire.number)


def _sensor(sheet: _Sheet, control: Control, own: dict[int, HarnessWire], start: Point, told: tuple[str, str]) -> None:
    """Where the temperature is felt: a hose with a bulb in it, the fins, the housing, or the engine."""
    system, role = told
    strategy, place = control.strategy, place_of(control)
    if strategy in SENSORLESS:
        return
    x, y = 566.0 if 4 in own else 590.0, start[1]
    if strategy not in BY_COMPUTER and 3 in own:
        sheet.wire(own[3], system, start, (x - 30, y), flag=((start[0] + x - 30) / 2, y))
    else:
        sheet.line("el.mark", start, (x - 30, y))
    sheet.box(role, x, y, 60, 22, 10 if "hose" in place else 2)
    sheet.ring("el.node", x, y, 5)
    sheet.words(676, y + 24, SENSORS[place], align="end")
    if 4 in own:
        sheet.wire(own[4], system, (x + 30, y), (GROUND - 9, y))
        _bolt(sheet, GROUND, y, "strap", "el.part")
        sheet.sleeve((x + 30 + GROUND - 9) / 2, y, 4)


def _tag(sheet: _Sheet, wire: HarnessWire, at: Point, name: str) -> None:
    """Something that speaks into the control by one wire, told by its number."""
    x, y = at
    sheet.box("el.part", x, y, 160, 24, 3)
    sheet.words(x, y, name)
    sheet.line(f"wire.{wire.colour}", (x + 76, y), (x + 108, y))
    sheet.sleeve(x + 92, y, wire.number)
    sheet.words(x + 114, y, f"{wire.colour}, to {'trigger' if 'trigger' in wire.end else 'controller'}", "el.flag", "start")
