"""Pictures of the brief: what a car is asked to do, where an engine's fuel goes, the areas air and wind meet, and what
ran hot."""

from __future__ import annotations

import math

from keelroom.assess.figures.assessment import Assessment, CaseFigures
from keelroom.assess.report import heat_words
from keelroom.document.schema.build import Build, DutyCase
from keelroom.drawing.degrees import LEFT, LETTER, LINE, RIGHT, WIDTH, Lane, Spot, degrees_scene, posts_of, reading
from keelroom.drawing.scene import Circle, Label, Point, Polyline, Rect, Scene, Shape, on_sheet
from keelroom.units import KINDS, format_si

MM = 1e-3
STRIP, ROAD, CAR = 74.0, (10.0, 220.0), 62.0
"""height of a case's strip; where its road begins and ends; length of the car"""
STEEPER = 2.0
"""how many times steeper a road is drawn than it is"""
FASTEST, LONGEST = 45.0, 58.0
"""[m/s] that the longest arrow stands for, and its length"""
STOP, STOPS_DRAWN = 0.4, 5
"""stops in a kilometre that are drawn as one mark, and most marks"""
BODY = ((0, 6), (2, 14), (10, 17), (22, 18), (30, 29), (50, 29), (61, 17), (62, 6), (0, 6))
"""the car, heading left, from its front wheel's foot"""
TRAILER = ((70, 6), (70, 22), (104, 22), (104, 6), (70, 6))


def duty_scene(build: Build, assessment: Assessment, chosen: str, system: str) -> Scene | None:
    """A strip for every duty case: the car on its road, its speed, what it tows, how often it stops, what it reads."""
    if not build.duty_cases:
        return None
    shapes: list[Shape] = []
    for k, case in enumerate(build.duty_cases):
        shapes += _strip(case, assessment.figures_of(case.id), -STRIP * k, case.id == chosen, system)
    high = STRIP * len(build.duty_cases)
    return Scene(tuple(shapes), (0.0, -high * MM, WIDTH * MM, (high + 4) * MM))


def _strip(case: DutyCase, figures: CaseFigures | None, top: float, chosen: bool, system: str) -> list[Shape]:
    slope = math.atan(STEEPER * case.grade.si)
    foot = top - STRIP + 14
    middle = (ROAD[0] + ROAD[1]) / 2

    def on_road(x: float, y: float) -> Point:
        """A place along the road from its middle and over it, the car heading up it to the left."""
        along = x - CAR / 2
        up = foot + 12 + max(0.0, 0.5 * (ROAD[1] - ROAD[0]) * math.sin(slope))
        return (
            (middle + along * math.cos(slope) + y * math.sin(slope)) * MM,
            (up - along * math.sin(slope) + y * math.cos(slope)) * MM,
        )

    half = (ROAD[1] - ROAD[0]) / 2
    shapes: list[Shape] = [
        Polyline("el.mark", (on_road(CAR / 2 - half, 0), on_road(CAR / 2 + half, 0))),
        Polyline("picture.block", tuple(on_road(x, y) for x, y in BODY), closed=True),
        *(Circle("fit.hood", on_road(x, 6), 6 * MM) for x in (14, 50)),
    ]
    if case.towed_mass.si > 1:
        shapes.append(Polyline("picture.hole", tuple(on_road(x, y) for x, y in TRAILER), closed=True))
        shapes.append(Circle("fit.hood", on_road(87, 6), 6 * MM))
    speed = figures.speed if figures else case.speed.si if case.speed else 0.0
    if speed > 0.3:
        tip = -8 - LONGEST * min(speed / FASTEST, 1.0)
        shapes.append(Polyline("bar.given", (on_road(-6, 14), on_road(tip, 14))))
        shapes.append(Polyline("bar.given", (on_road(tip + 7, 18), on_road(tip, 14), on_road(tip + 7, 10))))
    if case.demand != "full_power":
        stops = 1 if case.demand == "idle" else min(round(case.stops_per_km.si / STOP), STOPS_DRAWN)
        shapes += [_light(on_road(-24 - 12 * k, 0)) for k in range(stops)]
    told = _told(case, figures, system)
    shapes.append(Label("view.title" if chosen else "rail.name", on_sheet(ROAD[1] + 14, top - 14), case.name, "start"))
    for k, line in enumerate(told, 1):
        shapes.append(Label("el.words", on_sheet(ROAD[1] + 14, top - 14 - LINE * k), line, "start"))
    shapes.append(Polyline("el.rule", (on_sheet(LEFT, top - STRIP + 2), on_sheet(RIGHT, top - STRIP + 2))))
    return shapes


def _light(foot: Point) -> Shape:
    """A stop: a post with its lamp."""
    x, y = foot
    return Polyline("bar.short", ((x, y), (x, y + 22 * MM), (x + 5 * MM, y + 22 * MM), (x + 5 * MM, y + 13 * MM)))


def _told(case: DutyCase, figures: CaseFigures | None, system: str) -> tuple[str, ...]:
    """What it does, and what comes of it, in lines."""
    speed = figures.speed if figures else case.speed.si if case.speed else 0.0
    parts = [
        {"idle": "idling", "road_load": "", "full_power": "full power"}[case.demand],
        format_si(speed, KINDS["speed"], system) if speed > 0.3 else "standing",
        f"{case.grade.si:.0%} up" if case.grade.si > 1e-3 else "",
        f"tows {format_si(case.towed_mass.si, KINDS['mass'], system)}" if case.towed_mass.si > 1 else "",
    ]
    does = ", ".join(part for part in parts if part)
    air = "A/C on" if case.ac_on else "A/C off"
    if figures is None:
        return does, f"{air}, not worked out yet"
    day, reads = format_si(figures.ambient, KINDS["temperature"], system), reading(figures)
    return does, f"{air}, day of {day}: {heat_words(math.inf if math.isnan(reads) else reads, system)}"


FUEL = 48.0
"""height of a case's bar of fuel with its words"""


def fuel_scene(assessment: Assessment, system: str) -> Scene | None:
    """A bar for every duty case: how much of its fuel turns wheels and accessories, what goes into the coolant, what
    leaves otherwise. None where none is worked out."""
    cases = [(case.name, case.figures) for case in assessment.cases if case.figures is not None]
    if not cases:
        return None
    most = max(figures.fuel_power for _, figures in cases)
    shapes: list[Shape] = []
    for k, (name, figures) in enumerate(cases):
        shapes += _fuel(name, figures, -FUEL * k - 20, most, system)
    high = FUEL * len(cases) + 24
    return Scene(tuple(shapes), (0.0, -high * MM, WIDTH * MM, high * MM))


def _fuel(name: str, figures: CaseFigures, y: float, most: float, system: str) -> list[Shape]:
    power = KINDS["heat"]
    rest = max(figures.fuel_power - figures.brake_power - figures.heat_in, 0.0)
    parts = (
        ("work", figures.brake_power, "bar.fan"),
        ("coolant", figures.heat_in, "bar.load"),
        ("exhaust and block", rest, "bar.rest"),
    )
    share = figures.heat_in / figures.fuel_power if figures.fuel_power else 0.0
    told = f"{format_si(figures.heat_in, power, system)} into the coolant, {share:.0%} of its fuel"
    shapes: list[Shape] = [
        Label("rail.name", on_sheet(LEFT, y + 6), name, "start"),
        Label("el.value", on_sheet(RIGHT, y + 8), told, "end"),
    ]
    start = LEFT
    for words, value, role in parts:
        long = (RIGHT - LEFT) * value / most
        shapes.append(Rect(role, start * MM, (y - 20) * MM, long * MM, 18 * MM))
        if long > LETTER * len(words) + 8:
            word = "bar.word" if role == "bar.load" else "bar.label"
            shapes.append(Label(word, on_sheet(start + long / 2, y - 11), words))
        start += long
    return shapes


def areas_scene(build: Build, system: str) -> Scene | None:
    """Squares at one scale: what the wind meets, what lets air in and out, and the core's face. None where none is
    known."""
    vehicle, core = build.brief.vehicle, build.package.core
    face = core.face_width.si * core.face_height.si if core.face_width and core.face_height else None
    known = [
        (words, area, kind, role)
        for words, area, kind, role in (
            ("Drag area", vehicle.drag_area.si if vehicle.drag_area else None, "drag area", "picture.block"),
            ("Core’s face", face, "area", "core.face"),
            ("Way out of the bay", vehicle.exit_area.si if vehicle.exit_area else None, "area", "span.cool"),
            ("Grille opening", vehicle.grille_area.si if vehicle.grille_area else None, "area", "span.mild"),
        )
        if area
    ]
    if not known:
        return None
    sides = [math.sqrt(area) for _, area, _, _ in known]
    size = (RIGHT - LEFT - 16.0 * (len(known) - 1)) / sum(sides)
    shapes: list[Shape] = []
    left = LEFT
    for k, ((words, area, kind, role), side) in enumerate(zip(known, sides, strict=True)):
        y = -24 - 1.3 * LINE * k
        shapes.append(Rect(role, left * MM, 0.0, side * size * MM, side * size * MM))
        shapes.append(Label("el.value", on_sheet(left + side * size / 2, -10), str(k + 1)))
        shapes.append(Rect(role, LEFT * MM, (y - 16) * MM, 14 * MM, 14 * MM))
        told = f"{k + 1}  {words}, {format_si(area, KINDS[kind], system)}"
        shapes.append(Label("el.value", on_sheet(LEFT + 22, y - 9), told, "start"))
        left += side * size + 16
    low = -28 - 1.3 * LINE * len(known)
    return Scene(tuple(shapes), (0.0, low * MM, WIDTH * MM, (max(sides) * size + 8 - low) * MM))


def limits_scene(build: Build, assessment: Assessment, system: str) -> Scene:
    """The hottest day, the fans' marks, and what every duty case reads, on one scale of degrees with thermostat, limit
    and boiling."""
    climate, control = build.brief.climate, build.package.control
    lanes: list[Lane] = []
    if climate.ambient is not None:
        lanes.append(Lane("Hottest day", (Spot(climate.ambient.si, "cold"),)))
    marks = [Spot(mark.si, "was") for mark in (control.fan_off, control.fan_on) if mark is not None]
    if marks:
        lanes.append(Lane("Fans go off, come on", tuple(marks)))
    for case in assessment.cases:
        figures = case.figures
        if figures is not None:
            reads = reading(figures)
            band = (figures.low, figures.high) if math.isfinite(figures.high) else (math.nan, math.nan)
            lanes.append(Lane(case.name, (Spot(reads, "now", *band),), "does not settle" if math.isnan(reads) else ""))
    key = (("cold", "air"), ("was", "fans"), ("now", "gauge, with its band"))
    return degrees_scene(tuple(lanes), posts_of(assessment), key, KINDS["temperature"].shown_unit(system))


def seen_scene(
    build: Build, assessment: Assessment, readings: dict[str, dict[str, float]], system: str
) -> Scene | None:
    """What the car did, case by case, against what would be read. None where nothing was seen.

    readings [degC] : by 'now', as it is entered, and 'other', with the likeliest that would explain it; of each by
    duty case, inf where it boils
    """
    seen = [case for case in build.duty_cases if case.seen]
    if not seen:
        return None
    lanes = []
    for case in seen:
        spots = [Spot(case.seen_at.si, "cold")] if case.seen_at is not None else []
        spots += [
            Spot(told[case.id], sort)
            for sort, told in readings.items()
            if case.id in told and math.isfinite(told[case.id])
        ]
        lanes.append(Lane(case.name or case.id, tuple(spots), "ran hot" if case.seen == "hot" else "stayed"))
    key = (("cold", "its gauge"), ("now", "as entered"), ("other", "with the likeliest cause"))
    return degrees_scene(tuple(lanes), posts_of(assessment), key, KINDS["temperature"].shown_unit(system))
