"""The picture of where coolers stand."""

from keelroom.assess.assess import assess
from keelroom.document.edits import apply, set_value
from keelroom.document.file import load
from keelroom.document.schema.coolers import Cooler
from keelroom.drawing.scene import Circle, Label, Polyline, Rect
from keelroom.drawing.spots import AT, spots_scene
from tests.conftest import DEMO

BUILD = load(DEMO)


def test_every_cooler_is_named_at_its_spot_and_no_leader_goes_through_anothers_name():
    coolers = tuple(Cooler(id=f"c{k}", name=f"Number {k}", kind="oil_cooler", stands=spot) for k, spot in enumerate(AT))
    scene = spots_scene(apply(BUILD, set_value(("packages", "p1", "coolers"), coolers, "")), None, "us")
    names = {shape.text: shape for shape in scene.shapes if isinstance(shape, Label)}
    assert {cooler.name for cooler in coolers} <= set(names)
    boxes = [shape for shape in scene.shapes if isinstance(shape, Rect) and shape.role == "fit.cover"]
    left, bottom, wide, high = scene.bounds
    assert len(boxes) == len(coolers)
    assert all(left <= box.left and box.left + box.width <= left + wide and bottom <= box.bottom for box in boxes)
    leaders = [shape for shape in scene.shapes if isinstance(shape, Polyline) and shape.role == "leader"]
    for leader in leaders:
        (x, low), (_, top) = leader.points[0], leader.points[1]
        for name, said in names.items():
            reach = said.at[0], said.at[0] + 0.006 * len(name)
            assert not (name != "core" and reach[0] < x < reach[1] and low < said.at[1] < top - 1e-6), (name, leader)
    assert all(bottom < said.at[1] < bottom + high for said in names.values())


def test_a_solved_case_tells_the_fluids():
    hill = next(case.figures for case in assess(BUILD).cases if case.case_id == "grade")
    words = [shape.text for shape in spots_scene(BUILD, hill, "us").shapes if isinstance(shape, Label)]
    assert "Gearbox cooler, 136 °F" in words
    assert (
        len(
            [
                shape
                for shape in spots_scene(BUILD, hill, "us").shapes
                if isinstance(shape, Circle) and shape.role == "fan.ring"
            ]
        )
        == 1
    )
