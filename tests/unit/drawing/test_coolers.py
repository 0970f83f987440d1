"""The drawing of where the fluids' heat goes."""

import pytest

from keelroom.assess.assess import first_wave
from keelroom.assess.inputs.coolers import FLUID_OF
from keelroom.document.edits import fresh_name
from keelroom.document.file import load
from keelroom.document.schema.coolers import Cooler
from keelroom.drawing.coolers import fluids_scene
from keelroom.drawing.scene import Label, Rect
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
COOLERS = ("packages", "p1", "coolers")


def _air(scene):
    return [shape.text for shape in scene.shapes if isinstance(shape, Label) and shape.text.startswith("air ")]


def test_two_coolers_of_one_name_each_show_their_own_air():
    """Both called "tank": one ahead of the core, one in the bay's hot air."""
    ahead = Cooler(id="a", name="tank", kind="gearbox_cooler")
    bay = Cooler(id="b", name="tank", kind="gearbox_cooler", stands="bay")
    build = on(BUILD, (COOLERS, (ahead, bay)), (("brief", "vehicle", "gearbox"), "automatic"))
    figures = next(case.figures for case in first_wave(build).cases if case.case_id == "grade")
    cold, hot = figures.coolers
    assert hot.air_in > cold.air_in + 10
    shown = _air(fluids_scene(figures, "metric"))
    assert [text.split()[1] for text in shown] == [f"{round(cooler.air_in)}" for cooler in (cold, hot)]
    parts = [part for part in figures.fluids.left if part.fluid == "gearbox" and part.to == "cooler"]
    assert [part.cooler_id for part in parts] == ["a", "b"]
    assert [part.heat for part in parts] == pytest.approx([cold.heat, hot.heat])
    assert {FLUID_OF[cooler.kind] for cooler in figures.coolers} == {"gearbox"}


def test_boxes_of_a_fluid_do_not_cover_each_other():
    """Three coolers, the tank and the case: five boxes after the first, on two lines."""
    coolers = tuple(
        Cooler(id=ident, kind="gearbox_cooler", stands=stands)
        for ident, stands in (("a", "ahead"), ("b", "bay"), ("c", "bumper"))
    )
    build = on(
        BUILD,
        (COOLERS, coolers),
        (("brief", "vehicle", "gearbox"), "automatic"),
        (("brief", "vehicle", "in_tank_cooler"), True),
    )
    figures = next(case.figures for case in first_wave(build).cases if case.case_id == "grade")
    assert len([part for part in figures.fluids.left if part.fluid == "gearbox"]) == 5
    scene = fluids_scene(figures, "metric")
    boxes = [shape for shape in scene.shapes if isinstance(shape, Rect)]
    x, y, wide, high = scene.bounds
    for k, one in enumerate(boxes):
        assert x <= one.left <= x + wide - one.width
        assert y <= one.bottom <= y + high - one.height
        for other in boxes[:k]:
            beside = one.left >= other.left + other.width or other.left >= one.left + one.width
            assert beside or one.bottom >= other.bottom + other.height or other.bottom >= one.bottom + one.height


def test_a_second_cooler_of_a_kind_has_a_name_of_its_own():
    assert [fresh_name(taken, "Screen") for taken in ((), ("Screen",), ("Screen", "Screen 2", "Fan"))] == [
        "Screen",
        "Screen 2",
        "Screen 3",
    ]
