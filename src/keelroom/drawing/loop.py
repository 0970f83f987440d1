"""The coolant circuit in elevation: heights true to scale, places side by side in the order coolant meets them.

The layout hangs on the order alone: what is typed or dragged moves one part up or down and nothing else.
"""

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise
from typing import NamedTuple

from keelroom.assess.inputs.coolant.graph import Branch, Graph, graph_of
from keelroom.assess.inputs.coolant.heights import core_bottom, core_top, heights_of
from keelroom.assess.inputs.coolant.ports import COLD, CORE_IN, CORE_OUT, HOT, INLET, OUTLET, part_name
from keelroom.assess.inputs.coolant.routes import HoseRun
from keelroom.assess.inputs.coolant.sensor import sensor_hose
from keelroom.assess.loop.air import KEPT, OUTCOME_WORDS, TrappedAir
from keelroom.assess.loop.figures import LoopCase, Through
from keelroom.assess.loop.order import circuit_order
from keelroom.core.loop.route import traced
from keelroom.document.schema.build import Build
from keelroom.document.schema.loop import Part
from keelroom.document.schema.package import Package
from keelroom.drawing.scene import Circle, Label, Point, Polyline, Rect, Scene, Shape
from keelroom.units import INCH, KINDS, format_si, inches

UNIT = 1e-3
BOX = 13.0
WIDTHS = (0.2e-3, 0.6e-3, 1.2e-3, 2.2e-3)
"""[m3/s] from which on a line is drawn a step wider"""
ROUND_PARTS = ("pump", "tee", "bleed", "filler")
NAMES_UNDER = ("pump", "tee")


class CircuitSheet(NamedTuple):
    """The sheet the circuit is drawn on, in units of about a pixel: words keep their size, what they stand beside
    moves apart or together."""

    wide: float = 760.0
    tall: float = 430.0

    @property
    def narrow(self) -> bool:
        return self.wide < 640.0

    @property
    def core(self) -> float:
        """The core's left side."""
        return 58.0 if self.narrow else 92.0

    @property
    def core_wide(self) -> float:
        return 24.0 if self.narrow else 36.0

    @property
    def core_right(self) -> float:
        return self.core + self.core_wide

    @property
    def heater(self) -> float:
        """The middle of the first heater's column."""
        return self.wide - 58.0

    @property
    def engine(self) -> float:
        """The engine's left side."""
        return self.heater - (132.0 if self.narrow else 202.0)

    @property
    def engine_wide(self) -> float:
        return 54.0 if self.narrow else 78.0

    @property
    def engine_right(self) -> float:
        return self.engine + self.engine_wide


USUAL = CircuitSheet()
LEAST = CircuitSheet(420.0, 300.0)
"""the smallest sheet its words fit on"""


class Sheet(NamedTuple):
    """Where things stand: scale [units/m], the lowest height [m], columns of places by node or part."""

    room: CircuitSheet
    scale: float
    low: float
    columns: dict[str, float]
    heights: dict[str, float]

    def y(self, height: float) -> float:
        return 40.0 + (height - self.low) * self.scale


def loop_scene(
    build: Build,
    package: Package,
    case: LoopCase | None,
    found: TrappedAir | None,
    system: str,
    *,
    warm: bool = True,
    room: CircuitSheet = USUAL,
) -> Scene:
    """The package's circuit; figures of a duty case where it has been worked out, high and low points where they are
    known.

    warm : its temperatures mean something: the case settles;  room : the sheet it has
    """
    graph = graph_of(build, package)
    sheet = _sheet(build, package, graph, room)
    told = ShownCase(case, _toned(case) if warm else None, system)
    lines: list[Shape] = []
    words: list[Label] = []
    profiles: dict[str, list[Point]] = {}
    for branch in graph.branches:
        if branch.run is not None:
            points = profiles[branch.key] = _ends_and_profile(sheet, branch)
            lines.append(_line(branch, points, told))
            words += _line_words(sheet, branch.run, points, told, case.of(branch.key) if case else None)
            if branch.run.hose.id == sensor_hose(build, package):
                ring, name = _adapter(points)
                lines.append(ring)
                words.insert(0, name)
    shapes: list[Shape] = [
        *_scale(sheet, system),
        *lines,
        *_engine(sheet, package, told),
        *_core(sheet, build, package, told),
    ]
    for part in package.loop.parts:
        drawn, name = _part(sheet, part)
        shapes += drawn
        words.append(name)
    if found is not None:
        marks, said = _points(sheet, found, profiles)
        shapes += marks
        words += said
    return Scene((*shapes, *_apart(words, room)), (0.0, 0.0, room.wide * UNIT, room.tall * UNIT))


class ShownCase(NamedTuple):
    """What of a case is shown: its figures; tone: by temperature, None where they mean nothing; the system of units."""

    case: LoopCase | None
    tone: Callable[[float], str] | None
    system: str


LETTER, LINE_HIGH = 6.3, 15.0
"""Room words take, in the drawing's units: a letter's width, a line's height."""


def _apart(words: list[Label], room: CircuitSheet) -> list[Label]:
    """Words moved up or down by lines where they would lie on others, and in from the sheet's sides; those given last
    stay."""
    placed: list[tuple[float, float, float]] = []
    found = []
    for label in reversed(words):
        x, y, half = label.at[0] / UNIT, label.at[1] / UNIT, LETTER * len(label.text) / 2
        x = min(max(x, half + 2.0), room.wide - half - 2.0)
        free = next(
            (
                step
                for step in (0, 1, -1, 2, -2, 3, -3, 4, -4, 5, -5)
                if not any(
                    abs(y + step * LINE_HIGH - b) < LINE_HIGH - 1 and abs(x - a) < half + c for a, b, c in placed
                )
            ),
            0,
        )
        y += free * LINE_HIGH
        placed.append((x, y, half))
        found.append(label._replace(at=(x * UNIT, y * UNIT)))
    return found


def dragged_height(build: Build, package: Package, up: float, room: CircuitSheet = USUAL) -> float:
    """[m] of height a way on the sheet [its metres] stands for."""
    return up / UNIT / _sheet(build, package, graph_of(build, package), room).scale


def _sheet(build: Build, package: Package, graph: Graph, room: CircuitSheet) -> Sheet:
    known = {node: at for node, at in heights_of(build, package).items() if at is not None}
    for part in package.loop.parts:
        if part.y is not None:
            known[part.id] = part.y.si
    ends = [core_bottom(build.survey, package), core_top(build.survey, package), *known.values()]
    for run in graph.runs:
        ends += [point[1] for point in traced(run.route)] if run.route else []
    low, high = min(ends), max(ends)
    scale = min((room.tall - 120.0) / max(high - low, 0.25), 900.0)
    return Sheet(room, scale, low, _columns(graph, package, room), known)


def _columns(graph: Graph, package: Package, room: CircuitSheet) -> dict[str, float]:
    """Across: the core at the left, the engine at the right, what coolant meets between them in its order, heater and
    bottles beside."""
    order = circuit_order(graph)
    core = order.index("core") if "core" in order else len(order)
    there = [key for key in order[1:core] if key != "thermostat"]
    back = [key for key in order[core + 1 :] if key != "thermostat"]
    first, last = room.core_right + 10.0, room.engine
    found = {"core": room.core, "engine": room.engine}
    for k, key in enumerate(there, 1):
        found[key] = last - (last - first) * k / (len(there) + 1)
    for k, key in enumerate(back, 1):
        found[key] = first + (last - first) * k / (len(back) + 1)
    aside = [part for part in package.loop.parts if part.id not in found]
    heaters = [part for part in aside if part.kind == "heater"]
    others = [part for part in aside if part.kind != "heater"]
    for k, part in enumerate(heaters):
        found[part.id] = room.heater + 26.0 * k
    for k, part in enumerate(others, 1):
        # Between the columns of the run, so that nothing hides another.
        found[part.id] = first + (last - first) * (k - 0.5) / max(len(others), 1)
    return found


def _at(sheet: Sheet, node: str, sense: float = 0.0) -> Point:
    """Where a place of the circuit is on the sheet."""
    owner = node.split(":", maxsplit=1)[0]
    height = sheet.heights.get(node, sheet.heights.get(owner))
    y = sheet.y(height) if height is not None else sheet.y(sheet.low) + (sheet.room.tall - 120.0) / 2
    if owner == "engine":
        return (sheet.room.engine, y)
    if owner == "core":
        return (sheet.room.core_right, y)
    return (sheet.columns.get(owner, sheet.room.wide / 2) + sense, y)


def _ends_and_profile(sheet: Sheet, branch: Branch) -> list[Point]:
    """Points of a hose on the sheet: from column to column, its heights true."""
    assert branch.run is not None
    start, end = _at(sheet, branch.start), _at(sheet, branch.end)
    right = sheet.room.engine_right
    if branch.start.startswith("engine:") and sheet.columns.get(branch.end.split(":")[0], 0.0) > sheet.room.engine:
        start = (right, start[1])
    if branch.end.startswith("engine:") and sheet.columns.get(branch.start.split(":")[0], 0.0) > sheet.room.engine:
        end = (right, end[1])
    return _profile(sheet, branch.run, start, end)


def _line(branch: Branch, points: list[Point], told: ShownCase) -> Shape:
    """A hose as wide as its flow, toned by its temperature."""
    assert branch.run is not None
    flow = told.case.of(branch.key) if told.case else None
    return Polyline(
        _role(flow, told.tone), tuple((x * UNIT, y * UNIT) for x, y in points), tag=f"hose:{branch.run.hose.id}"
    )


def _adapter(points: list[Point]) -> tuple[Shape, Label]:
    """The sensor's adapter in a hose, beside the middle where its words stand."""
    along = points[0][0] + 0.18 * (points[-1][0] - points[0][0])
    (x0, y0), (x1, y1) = min(pairwise(points), key=lambda pair: max((pair[0][0] - along) * (pair[1][0] - along), -1.0))
    x, y = along, y0 + (y1 - y0) * ((along - x0) / (x1 - x0) if x1 != x0 else 0.0)
    return Circle("loop.part", (x * UNIT, y * UNIT), 6 * UNIT), Label(
        "loop.words", (x * UNIT, (y - 14.0) * UNIT), "sensor"
    )


def _line_words(sheet: Sheet, run: HoseRun, points: list[Point], told: ShownCase, flow: Through | None) -> list[Label]:
    x, y = _middle(points)
    words = _words(run, flow, told)
    if max(points[0][0], points[-1][0]) > sheet.room.engine + 1.0:
        # Beside the engine there is little room: its name and its figures under each other.
        lines = [text for text in words if text]
        at = sheet.room.engine_right + 0.45 * (sheet.room.heater - sheet.room.engine_right)
        return [
            Label("loop.words", (at * UNIT, (y + 22.0 - LINE_HIGH * k) * UNIT), text) for k, text in enumerate(lines)
        ]
    return [Label("loop.words", (x * UNIT, (y + 17.0) * UNIT), " ".join(text for text in words if text))]


def _profile(sheet: Sheet, run: HoseRun, start: Point, end: Point) -> list[Point]:
    """The hose's heights, true, spread between its ends' columns."""
    if run.route is None:
        ys = [via.y.si for via in run.hose.via if via.y is not None]
        middle = [(start[0] + (end[0] - start[0]) * k / (len(ys) + 1), sheet.y(y)) for k, y in enumerate(ys, 1)]
        return [start, *middle, end]
    points = traced(run.route)
    along = [0.0]
    for a, b in pairwise(points):
        along.append(along[-1] + sum((p - q) ** 2 for p, q in zip(a, b, strict=True)) ** 0.5)
    whole = along[-1] or 1.0
    found = [
        (start[0] + (end[0] - start[0]) * s / whole, sheet.y(point[1])) for s, point in zip(along, points, strict=True)
    ]
    return [start, *found[1:-1], end]


def _middle(points: list[Point]) -> Point:
    k = len(points) // 2
    (x0, y0), (x1, y1) = points[k - 1], points[k]
    return ((x0 + x1) / 2, (y0 + y1) / 2)


def _words(run: HoseRun, flow: Through | None, told: ShownCase) -> tuple[str, str]:
    """A hose's name, and what runs through it."""
    if flow is None:
        return run.name, ""
    if flow.flow == 0.0:
        return f"{run.name}:", "stands"
    amount = format_si(abs(flow.flow), KINDS["coolant flow"], told.system)
    return (
        run.name,
        f"{amount}, {format_si(flow.temperature, KINDS['temperature'], told.system)}" if told.tone else amount,
    )


def _toned(case: LoopCase | None) -> Callable[[float], str]:
    """Which tone a temperature has, between the coldest and the hottest of the circuit."""
    there = [one.temperature for one in case.through] if case else []
    low, high = (min(there), max(there)) if there else (0.0, 1.0)

    def tone(temperature: float) -> str:
        share = (temperature - low) / (high - low) if high - low > 0.5 else 0.0
        return "hot" if share > 0.67 else "warm" if share > 0.33 else "cool"

    return tone


def _role(flow: Through | None, tone: Callable[[float], str] | None) -> str:
    if flow is None or flow.flow == 0.0:
        return "loop.still"
    return f"loop.{tone(flow.temperature) if tone else 'plain'}.{sum(abs(flow.flow) >= step for step in WIDTHS)}"


def _engine(sheet: Sheet, package: Package, told: ShownCase) -> list[Shape]:
    ends = [sheet.heights[node] for node in (HOT, OUTLET, INLET, COLD) if node in sheet.heights] or [
        sheet.low + 0.1,
        sheet.low + 0.4,
    ]
    bottom, top = sheet.y(min(ends)) - 14.0, sheet.y(max(ends)) + 14.0
    x = sheet.room.engine
    shapes: list[Shape] = [
        Rect("loop.engine", x * UNIT, bottom * UNIT, sheet.room.engine_wide * UNIT, (top - bottom) * UNIT, 6 * UNIT)
    ]
    middle = (x + sheet.room.engine_wide / 2, (top + bottom) / 2)
    lines = [
        "Engine",
        *(
            [f"+{format_si(told.case.rise, KINDS['temperature difference'], told.system)}"]
            if told.case and told.tone
            else []
        ),
    ]
    if package.loop.pump != "electric":
        lines.append("its pump")
    for k, text in enumerate(lines):
        shapes.append(
            Label("loop.name", (middle[0] * UNIT, (middle[1] + 16.0 * (len(lines) - 1) / 2 - 16.0 * k) * UNIT), text)
        )
    if package.loop.thermostat_state != "none":
        node = OUTLET if package.loop.thermostat_place == "outlet" else INLET
        y = sheet.y(sheet.heights[node]) if node in sheet.heights else middle[1]
        role = "loop.alarm" if package.loop.thermostat_state == "reversed" else "loop.gate"
        shapes.append(
            Polyline(role, tuple((u * UNIT, v * UNIT) for u, v in ((x, y + 8), (x + 16, y), (x, y - 8))), closed=True)
        )
    return shapes


def _core(sheet: Sheet, build: Build, package: Package, told: ShownCase) -> list[Shape]:
    bottom, top = sheet.y(core_bottom(build.survey, package)), sheet.y(core_top(build.survey, package))
    shapes: list[Shape] = [
        Rect("core.face", sheet.room.core * UNIT, bottom * UNIT, sheet.room.core_wide * UNIT, (top - bottom) * UNIT)
    ]
    for k in range(1, 4):
        x = sheet.room.core + sheet.room.core_wide * k / 4
        shapes.append(Polyline("core.tube", ((x * UNIT, (bottom + 3) * UNIT), (x * UNIT, (top - 3) * UNIT))))
    case = told.case if told.tone else None
    cooled = case.spot(CORE_OUT) if case else None
    enters = case.spot(CORE_IN) if case else None
    drop = enters.temperature - cooled.temperature if cooled and enters else None
    text = "Core" if drop is None else f"Core −{format_si(drop, KINDS['temperature difference'], told.system)}"
    shapes.append(Label("loop.name", ((sheet.room.core + sheet.room.core_wide / 2) * UNIT, (bottom - 12) * UNIT), text))
    if package.loop.core_neck != "none":
        shapes += _cap((sheet.room.core + sheet.room.core_wide / 2, top), package.loop.core_neck == "pressure")
    return shapes


def _cap(at: Point, pressed: bool) -> list[Shape]:
    """A neck with its cap: a filled one holds pressure."""
    x, y = at
    role = "loop.cap" if pressed else "loop.plain"
    return [Rect(role, (x - 7) * UNIT, y * UNIT, 14 * UNIT, 6 * UNIT, 2 * UNIT)]


def _part(sheet: Sheet, part: Part) -> tuple[list[Shape], Label]:
    """A part at its height, and its name."""
    x, y = _at(sheet, part.id)
    tag, unknown = f"part:{part.id}", part.y is None
    role = "loop.unknown" if unknown else "loop.pump" if part.kind == "pump" else "loop.part"
    name = part_name(part) + (": height?" if unknown else "")
    below = part.kind in NAMES_UNDER
    shapes: list[Shape] = []
    if part.kind in ROUND_PARTS:
        shapes.append(Circle(role, (x * UNIT, y * UNIT), (BOX if part.kind == "pump" else BOX * 0.5) * UNIT, tag))
        if part.kind == "pump":
            tip = {"up": (0.0, 1.0), "down": (0.0, -1.0), "side": (-1.0, 0.0)}[part.outlet]
            shapes.append(
                Polyline("loop.gate", ((x * UNIT, y * UNIT), ((x + tip[0] * BOX) * UNIT, (y + tip[1] * BOX) * UNIT)))
            )
    else:
        wide, high = (26.0, 40.0) if part.kind == "heater" else (44.0, 30.0)
        corners = (
            (x - wide / 2, y - high / 2),
            (x + wide / 2, y - high / 2),
            (x + wide / 2, y + high / 2),
            (x - wide / 2, y + high / 2),
        )
        shapes.append(Polyline(role, tuple((u * UNIT, v * UNIT) for u, v in corners), closed=True, tag=tag))
    if part.cap != "none":
        shapes += _cap((x, y + (15.0 if part.kind not in ROUND_PARTS else 6.0)), part.cap == "pressure")
    off = -(BOX + 12.0) if below else 30.0
    return shapes, Label("loop.name", (x * UNIT, (y + off) * UNIT), name)


POINT_ROLES = {
    "itself": "loop.good",
    "vented": "loop.good",
    "screw": "loop.good",
    "carried": "loop.good",
    "revs": "loop.doubt",
    "may": "loop.doubt",
    "stays": "loop.alarm",
}


def _points(sheet: Sheet, found: TrappedAir, profiles: dict[str, list[Point]]) -> tuple[list[Shape], list[Label]]:
    """High points where air comes, with how it leaves; low points that do not drain."""
    shapes: list[Shape] = []
    words: list[Label] = []
    for high in found.highs:
        x, y = _where(sheet, profiles, high.key, high.at)
        role = POINT_ROLES[high.outcome]
        shapes.append(_triangle(role, x, y + 6.0, 10.0))
        if high.outcome in KEPT:
            words.append(Label(role, (x * UNIT, (y + 28.0) * UNIT), f"air {OUTCOME_WORDS[high.outcome]}"))
    for low in found.lows:
        x, y = _where(sheet, profiles, low.key, low.at)
        shapes.append(_triangle("loop.doubt", x, y - 6.0, -10.0))
        words.append(Label("loop.words", (x * UNIT, (y - 26.0) * UNIT), "does not drain"))
    return shapes, words


def _triangle(role: str, x: float, y: float, high: float) -> Shape:
    return Polyline(role, tuple((u * UNIT, v * UNIT) for u, v in ((x - 6, y), (x + 6, y), (x, y + high))), closed=True)


def _where(sheet: Sheet, profiles: dict[str, list[Point]], key: str, at: float) -> Point:
    """Where a point of the circuit is on the sheet: along its hose, or at its part."""
    y = sheet.y(at)
    profile = profiles.get(key.split("#", maxsplit=1)[0])
    if profile is not None:
        return min(profile, key=lambda point: abs(point[1] - y))[0], y
    owner = key.split(":", maxsplit=1)[0]
    if owner == "engine":
        return sheet.room.engine + 12.0, y
    if owner == "core":
        return sheet.room.core + sheet.room.core_wide / 2, y
    return sheet.columns.get(owner, (sheet.room.core + sheet.room.engine) / 2), y


def _scale(sheet: Sheet, system: str) -> list[Shape]:
    """Heights over the datum at the left edge: every four inches, or every ten centimetres, thinned where they would
    crowd."""
    step = 4 * INCH if inches(system) else 0.1
    while step * sheet.scale < 34.0:
        step *= 2
    shapes: list[Shape] = []
    k = round(sheet.low / step)
    while sheet.y(k * step) < sheet.room.tall - 30.0:
        y = sheet.y(k * step)
        if y > 14.0:
            shapes.append(Polyline("loop.rule", ((44 * UNIT, y * UNIT), ((sheet.room.wide - 14) * UNIT, y * UNIT))))
            high = format_si(k * step, KINDS["length"], system) if inches(system) else f"{k * step * 1e3:.0f} mm"
            text = high.replace("-", "−") if k else "datum"
            shapes.append(Label("loop.words", (6 * UNIT, y * UNIT), text, "start"))
        k += 1
    return shapes
