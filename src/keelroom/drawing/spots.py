"""Where the coolers of a build stand, on a car seen from its left side: a picture of places, not of sizes."""

from __future__ import annotations

from keelroom.assess.figures.assessment import CaseFigures
from keelroom.assess.fit.coolers import LINED, named
from keelroom.assess.inputs.coolers import FLUID_OF
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler
from keelroom.drawing.scene import Circle, Label, Point, Polyline, Rect, Scene, Shape
from keelroom.units import KINDS, format_si

MM = 1e-3
WIDTH, HEIGHT = 640.0, 320.0
BODY = ((18, 92), (22, 132), (60, 156), (205, 172), (272, 238), (452, 238), (530, 176), (616, 166), (622, 92), (18, 92))
WHEELS = ((128.0, 78.0), (508.0, 78.0))
CORE = (84.0, 98.0, 8.0, 48.0)
AT: dict[str, Point] = {
    "ahead": (76, 122),
    "beside": (88, 152),
    "behind": (100, 122),
    "bay": (150, 132),
    "bumper": (32, 100),
    "floor": (310, 84),
    "wheel_well": (128, 118),
    "trunk": (566, 118),
}
SIZE, STEP = (9.0, 22.0), 12.0
LYING = ("floor", "trunk", "bumper")
WORDS_TOP, WORDS_STEP = 344.0, 18.0


FROM: dict[str, Point] = {
    "gearbox_cooler": (262, 84),
    "oil_cooler": (176, 118),
    "steering_cooler": (158, 100),
    "charge_cooler": (190, 140),
    "condenser": (206, 150),
}
"""where the lines of each sort come from: gearbox, engine, pump, compressor"""


def spots_scene(build: Build, figures: CaseFigures | None, system: str, lines: bool = False) -> Scene:
    """The car with every cooler at its spot, each with its name and, in a solved case, the temperature of its fluid.

    lines : with the lines of each drawn, their length and bore told
    """
    shapes: list[Shape] = [
        _line("fit.hood", BODY),
        *(Circle("picture.block", (x * MM, y * MM), 30 * MM) for x, y in WHEELS),
        _box("core.face", CORE),
    ]
    shapes.append(Label("fit.name", ((CORE[0] + CORE[2] / 2) * MM, (CORE[1] - 12) * MM), "core"))
    told = {cooler.cooler_id: cooler.fluid for cooler in figures.coolers} if figures else {}
    taken: dict[str, int] = {}
    placed = []
    for cooler in build.package.coolers:
        number = taken.get(cooler.stands, 0)
        taken[cooler.stands] = number + 1
        aside = -STEP * number if cooler.stands == "ahead" else STEP * number
        placed.append((AT[cooler.stands][0] + aside, cooler))
    # The foremost has the topmost words: no leader goes up through those of another.
    for row, (x, cooler) in enumerate(sorted(placed, key=lambda one: one[0])):
        if lines and cooler.kind in FROM:
            shapes += _lines(cooler, x, system)
        shapes += _cooler(cooler, x, row, _lined(cooler, system) if lines else _words(cooler, told, system))
    return Scene(tuple(shapes), (0.0, 40 * MM, WIDTH * MM, HEIGHT * MM))


def _lined(cooler: Cooler, system: str) -> str:
    """Its name with the length and bore of its lines."""
    known = [value for value in (cooler.line_length, cooler.line_bore) if value is not None]
    sizes = [format_si(value.si, KINDS["length"], system) for value in known]
    return f"{named(cooler)}: {' of '.join(sizes)}" if sizes and cooler.kind in LINED else named(cooler)


def _lines(cooler: Cooler, x: float, system: str) -> list[Shape]:
    """Two lines from where its fluid comes from, along the floor of the car, to where it stands."""
    (from_x, from_y), y, low = FROM[cooler.kind], AT[cooler.stands][1], 88.0
    role = "loop.hot.1" if cooler.kind in LINED else "loop.cool.1"
    return [
        _line(role, ((from_x + off, from_y), (from_x + off, low - off), (x + off, low - off), (x + off, y)))
        for off in (0.0, 4.0)
    ]


def _words(cooler: Cooler, told: dict[str, float], system: str) -> str:
    if cooler.id not in told or cooler.kind not in FLUID_OF:
        return named(cooler)
    return f"{named(cooler)}, {format_si(told[cooler.id], KINDS['temperature'], system)}"


def _cooler(cooler: Cooler, x: float, row: int, words: str) -> list[Shape]:
    """Its box, a leader up to its words, and a disc where it has a fan of its own. row: of the words, from the top"""
    y = AT[cooler.stands][1]
    wide, high = reversed(SIZE) if cooler.stands in LYING else SIZE
    top, at = WORDS_TOP - WORDS_STEP * row, x + 6
    found: list[Shape] = [_line("leader", ((x, y + high / 2), (x, top - 4), (at, top - 4)))]
    found.append(_box("fit.cover", (x - wide / 2, y - high / 2, wide, high)))
    if cooler.fans.si >= 1 and cooler.stands != "ahead":
        found.append(Circle("fan.ring", (x * MM, (y - high / 2 - 7) * MM), 5 * MM))
    found.append(Label("fit.name", (at * MM, (top - 4) * MM), words, "start"))
    return found


def _line(role: str, points: tuple[tuple[float, float], ...]) -> Polyline:
    return Polyline(role, tuple((x * MM, y * MM) for x, y in points))


def _box(role: str, box: tuple[float, float, float, float]) -> Rect:
    left, bottom, wide, high = box
    return Rect(role, left * MM, bottom * MM, wide * MM, high * MM, 2 * MM)
