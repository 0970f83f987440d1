"""Bands of the coolers' own fluids: by hand, against the whole solver, and by where a cooler stands."""

import math

import pytest

from keelroom.assess.assess import assess
from keelroom.assess.figures.fluidbands import Sink, coolers_sinks, half_band
from keelroom.document.file import load
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
COOLER = next(cooler for cooler in BUILD.package.coolers if cooler.kind == "gearbox_cooler")
PATH = ("packages", BUILD.active, "coolers", COOLER.id)


def test_one_cooler_and_its_case_by_hand():
    """1 000 W, 50 W/K against air 20 K under it: ±250 W given, ±0.1616 of 1 000 W taken, ±1.5 K of its air 75 W: 307 W
    over 50 W/K, times 1.2816. A case of 10 W/K beside it: 1 200 W now, 300 and 60 W more to add, over 60 W/K."""
    ahead = COOLER.model_copy(update={"stands": "ahead"})
    (sink,) = coolers_sinks([(ahead, 1000.0, 40.0)], 60.0, 0.0)
    assert sink == pytest.approx((50.0, 0.16155, 40.0, 1.5), rel=1e-4)
    assert half_band("gearbox", 1000.0, 60.0, [sink]) == pytest.approx(1.2816 * 306.9 / 50, rel=1e-3)
    case = Sink(10.0, 0.3, 40.0, 5.0)
    whole = math.hypot(300.0, 161.55, 75.0, 60.0, 50.0)
    assert half_band("gearbox", 1200.0, 60.0, [sink, case]) == pytest.approx(1.2816 * whole / 60, rel=1e-4)
    assert half_band("gearbox", 1200.0, 60.0, []) == 0.0


@pytest.mark.parametrize("share", [0.9, 1.1])
def test_what_a_cooler_takes_moves_its_fluid_as_the_band_has_it(share):
    """The gearbox cooler's conductance a tenth off, everything solved anew: its fluid goes as first order says, within
    a third: its capacity goes less than its conductance."""
    grade = assess(BUILD).figures_of("grade")
    cooler = next(one for one in grade.coolers if one.cooler_id == COOLER.id)
    at = grade.fluids.gearbox
    takes = cooler.heat / (at - cooler.air_in)
    shed = sum(part.heat for part in grade.fluids.left if part.fluid == "gearbox" and part.to == "own")
    whole = takes + shed / (at - cooler.air_in)
    expected = -(share - 1) * cooler.heat / whole
    changed = on(BUILD, ((*PATH, "conductance"), f"{COOLER.conductance.si * share} W/m²K", "face conductance"))
    moved = assess(changed).figures_of("grade").fluids.gearbox - at
    assert moved * expected > 0
    assert 0.5 * abs(expected) < abs(moved) < 1.1 * abs(expected)


def test_a_fluid_that_is_given_nothing_to_speak_of_has_no_band_and_a_hotter_one_a_wider():
    """Standing there is next to nothing in the gearbox; on the grade its band is some 5 to 15 K, and what is told of a
    cooler is that of its fluid."""
    told = assess(BUILD)
    grade, cruise = told.figures_of("grade"), told.figures_of("cruise")
    wide, narrow = dict(grade.fluids.within)["gearbox"], dict(cruise.fluids.within)["gearbox"]
    assert 5 < wide < 15
    assert narrow < wide
    assert next(one for one in grade.coolers if one.cooler_id == COOLER.id).within == wide
    remote = on(BUILD, ((*PATH, "stands"), "wheel_well"))
    assert dict(assess(remote).figures_of("grade").fluids.within)["gearbox"] > wide
