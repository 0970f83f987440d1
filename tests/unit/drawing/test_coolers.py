"""The drawing of where the fluids' heat goes."""

import pytest

from keelroom.assess.assess import first_wave
from keelroom.assess.inputs.coolers import FLUID_OF
from keelroom.document.file import load
from keelroom.document.schema.coolers import Cooler
from keelroom.drawing.coolers import fluids_scene
from keelroom.drawing.scene import Label
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
