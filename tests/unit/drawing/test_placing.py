"""No words of any drawing lie on others, at three sizes; and what the placer may and may not do."""

import itertools

import pytest

from keelroom.assess.assess import assess
from keelroom.assess.figures.coolernoise import loudness
from keelroom.assess.figures.read_off import air_in
from keelroom.assess.questions.compare import candidates
from keelroom.catalogue.load import cores
from keelroom.document.file import load
from keelroom.drawing.brief import areas_scene, duty_scene, fuel_scene, limits_scene, seen_scene
from keelroom.drawing.charging import charging
from keelroom.drawing.coolers import fluids_scene
from keelroom.drawing.cores import Card, cores_scene
from keelroom.drawing.degrees import Lane, Post, Spot, degrees_scene
from keelroom.drawing.elevation import elevation
from keelroom.drawing.fitup import VIEWS, region, section_sheet, view_scene
from keelroom.drawing.loop import loop_scene
from keelroom.drawing.noise import noise_scene
from keelroom.drawing.placing import LED, Size, apart, dimension_box, label_box
from keelroom.drawing.scene import Dimension, Label, Polyline, Scene
from keelroom.drawing.spots import spots_scene
from keelroom.drawing.wiring import wiring
from keelroom.units import KINDS
from tests.conftest import DEMO

LETTER, LINE = 6.0, 13.0
"""[px] of the type the window uses: a letter at most, and what the letters of a line take"""
SIZES = ((430.0, 380.0), (800.0, 560.0), (1500.0, 950.0))
"""[px] rooms of a picture: beside a drawer, without one, on a large screen"""
LEAST = 1000.0
"""[px/m] of sheets of words"""


@pytest.fixture(scope="module")
def scenes():
    build = load(DEMO)
    found, package = assess(build), build.package
    idle, grade = found.figures_of("idle"), found.figures_of("grade")
    tried = candidates(build, cores()[:6])
    unit = KINDS["temperature"].shown_unit("us")
    seen = build.model_copy(
        update={"duty_cases": tuple(case.model_copy(update={"seen": "hot"}) for case in build.duty_cases)}
    )
    readings = {"now": {case.id: 91.0 for case in seen.duty_cases}, "other": {c.id: 92.0 for c in seen.duty_cases}}
    lanes = tuple(Lane(f"Lane {k}", (Spot(80 + k, "was"), Spot(80.2 + k, "now"), Spot(81, "cold"))) for k in range(4))
    limits = region(found.fit)
    words = {
        "areas": areas_scene(build, "us"),
        "duties": duty_scene(build, found, "grade", "us"),
        "fuel": fuel_scene(found, "us"),
        "limits": limits_scene(build, found, "us"),
        "seen": seen_scene(seen, found, readings, "us"),
        "cores": cores_scene(tuple(Card(one.core, one.days, 0, "4 of 6 hold") for one in tried), "us"),
        "degrees": degrees_scene(lanes, (Post(80, "from"), Post(80.5, "to"), Post(84, "limit")), (("now", "x"),), unit),
        "noise": noise_scene(lambda far: loudness(build, idle, far), 1.0, "us"),
        "charging": charging(build, package, found),
        "wiring": wiring(build, package, found, "us"),
    }
    fitted = {
        "elevation": elevation(package, "us", build.survey),
        "circuit": loop_scene(build, package, grade.loop, air_in(build, package, found), "us"),
        "fluids": fluids_scene(grade, "us"),
        "spots": spots_scene(build, grade, "us"),
        "section": section_sheet(build, package, found.fit, "us"),
        **{view: view_scene(view, build, package, found.fit, "us", limits) for view in VIEWS},
    }
    return words, fitted


def size_at(scale):
    return Size(lambda text: (LETTER * len(text) + 8) / scale, LINE / scale)


def overlaps(scene, size):
    """Pairs of words that lie on each other by more than a hair."""
    boxes = [(shape.text, label_box(shape, size)) for shape in scene.shapes if isinstance(shape, Label) and shape.text]
    boxes += [(shape.text, dimension_box(shape, size)) for shape in scene.shapes if isinstance(shape, Dimension)]
    fixed = {shape.text for shape in scene.shapes if isinstance(shape, Dimension)}
    return [
        (a, b)
        for (a, one), (b, other) in itertools.combinations(boxes, 2)
        if one.meets(other) and not (a in fixed and b in fixed)
    ]


@pytest.mark.parametrize("room", SIZES, ids=("drawer", "window", "large"))
def test_no_words_lie_on_each_other_in_any_drawing(scenes, room):
    found, counted = {}, 0
    for sheets, least in zip(scenes, (LEAST, 0.0), strict=True):
        for name, scene in sheets.items():
            if name == "section" and room is SIZES[0]:
                continue  # three views on one sheet are for paper
            wide, high = scene.bounds[2:]
            size = size_at(max(min(room[0] / wide, room[1] / high), least))
            placed = apart(scene, size)
            if name in ("wiring", "circuit", "charging", "fluids"):
                assert placed == scene, "a layout of its own"
                continue
            counted += sum(isinstance(shape, Label) for shape in placed.shapes)
            if overlaps(placed, size):
                found[name] = overlaps(placed, size)
    assert counted > 150
    assert not found


def test_words_move_to_the_nearest_free_line_and_far_ones_are_led_back():
    """By hand: lines of 2, words 10 wide. The second of two alike goes a line up, the third a line down, the fifth two
    lines down, which is past 1.6 lines, and gets a leader."""
    alike = tuple(Label("fit.name", (0.0, 0.0), "0123456789") for _ in range(5))
    scene = Scene(alike, (-100.0, -100.0, 200.0, 200.0))
    placed = apart(scene, Size(lambda text: float(len(text)), 2.0))
    places = [shape.at for shape in placed.shapes if isinstance(shape, Label)]
    assert places == [(0, 0), (0, 2), (0, -2), (0, 4), (0, -4)]
    leaders = [shape for shape in placed.shapes if isinstance(shape, Polyline)]
    assert [line.points for line in leaders] == [((0.0, 0.0), (0.0, 3.0)), ((0.0, 0.0), (0.0, -3.0))]
    assert LED * 2.0 < 4.0


def test_words_are_not_pushed_out_of_the_drawing_nor_onto_a_dimension():
    label = Label("fit.name", (5.0, 1.0), "0123456789")
    scene = Scene((label, label), (0.0, 0.0, 10.0, 20.0))
    placed = [shape.at for shape in apart(scene, Size(lambda text: float(len(text)), 2.0)).shapes]
    assert placed == [(5.0, 1.0), (5.0, 3.0)], "up, for down is outside"
    told = Dimension("dimension", (0.0, 10.0), (10.0, 10.0), 0.0, "10 in")
    over = Label("fit.name", (5.0, 10.0), "abcd")
    moved = apart(Scene((told, over), (0.0, 0.0, 10.0, 20.0)), Size(lambda text: float(len(text)), 2.0))
    assert next(shape.at for shape in moved.shapes if isinstance(shape, Label)) == (5.0, 12.0)
