"""The guided first build: what is answered stands as answered, what is not is marked as taken from the kind."""

import pytest

from keelroom.assess.assess import assess, first_wave
from keelroom.assess.first_build import Answers, first_build, fits
from keelroom.catalogue.load import cores, fan_assemblies, vehicles
from keelroom.document.quantity import quantity
from keelroom.errors import CatalogueError
from tests.changes import on

VAN, FIVE = vehicles()[3].name, "Five-cylinder 2.5, turbocharged"
TWIN = next(one.name for one in fan_assemblies() if one.count == 2)


def answers(**changes):
    return Answers(vehicle=VAN, engine=FIVE, core=cores()[8].name, fans=TWIN)._replace(**changes)


def test_the_answers_come_to_figures_in_every_case():
    build = first_build(answers(), "us")
    found = assess(build)
    assert all(case.figures for case in found.cases)
    assert [case.case_id for case in found.cases] == ["idle", "traffic", "cruise", "grade"]
    assert len(build.package.fans) == 2
    assert build.brief.title == f"{VAN}: {FIVE}"
    assert build.brief.engine.power.origin == "catalogue"


def test_a_core_that_is_there_keeps_its_measures_and_borrows_the_rest_marked_as_assumed():
    """The nearest in depth of the catalogue lends fins and tubes; 24 3/8 in are 619.125 mm."""
    sizes = tuple(quantity(text, "length", "measured") for text in ("24 3/8 in", "17 in", "2 1/4 in"))
    core = first_build(answers(core=None, own_core=sizes), "us").package.core
    assert core.face_width.si == pytest.approx(0.619125)
    assert (core.face_width.origin, core.depth.origin) == ("measured", "measured")
    assert {core.fin_density.origin, core.tube_height.origin, core.louver_pitch.origin} == {"assumed"}
    assert core.cost is None, "it is there already"


def test_what_is_towed_is_on_the_grade_and_nothing_is_where_nothing_is():
    towing = first_build(answers(tows=quantity("2200 lb", "mass")), "us").duty_case("grade")
    assert (towing.name, towing.towed_mass.si) == ("Grade with load", pytest.approx(997.9, abs=0.1))
    bare = first_build(answers(), "us").duty_case("grade")
    assert (bare.name, bare.towed_mass.si) == ("Grade", 0.0)


def test_without_an_air_conditioner_none_is_on():
    build = first_build(answers(ac=False), "us")
    assert not build.brief.accessories.ac_fitted
    assert build.package.coolers == (), "no condenser either"
    assert build.duty_case("idle").name == "Idle"


def test_no_fans_yet_is_an_answer_too():
    build = first_build(answers(fans=""), "us")
    assert build.package.fans == ()
    assert build.package.shroud.kind == "none"


def test_the_hottest_day_and_what_went_wrong_stand_in_the_brief():
    build = first_build(answers(hottest=quantity("113 °F", "temperature"), wrong=("climbs_at_idle",)), "us")
    assert build.brief.climate.ambient.si == pytest.approx(45.0)
    assert build.brief.symptoms == ("climbs_at_idle",)


def test_a_name_the_catalogue_has_not_is_told_with_what_is_near():
    with pytest.raises(CatalogueError) as refused:
        first_build(answers(engine="Five-cylinder 2.5 turbo"), "us")
    assert "near it" in refused.value.message


def test_fans_are_held_to_the_face_they_stand_on():
    """Two of 12 in side by side on 26 × 17 in, not on 22 × 17; one of 16 in without its own shroud not on a face 16
    in high, which leaves a pan's fold no room: that wants half an inch all round (common practice, no source)."""
    two = next(one for one in fan_assemblies() if one.count == 2 and one.fan.diameter.as_typed == "12 in")
    one = next(one for one in fan_assemblies() if one.count == 1 and one.fan.diameter.as_typed == "16 in")

    def face(width, height):
        return cores()[0].model_copy(
            update={"face_width": quantity(width, "length"), "face_height": quantity(height, "length")}
        )

    assert fits(two, face("26 in", "17 in"))
    assert not fits(two, face("22 in", "17 in"))
    assert not fits(one, face("26 in", "16 in"))
    assert fits(one, face("26 in", "17 in"))


def test_a_gearbox_that_is_answered_stands_over_the_usual_one():
    usual = vehicles()[3].gearbox
    other = {"automatic": "manual", "manual": "automatic"}[usual]
    assert first_build(answers(), "us").brief.vehicle.gearbox == usual
    assert first_build(answers(gearbox=other), "us").brief.vehicle.gearbox == other


def test_the_room_that_was_typed_is_kept_and_judges_another_core():
    """A room of 27 in by nothing measured: the side that was measured is kept, and a core of 28 in with its tanks is
    told of it."""
    room = (quantity("27 in", "length"), quantity("3 m", "length"))
    build = first_build(answers(room=room), "us")
    assert build.survey.room_width.as_typed == "27 in"
    assert build.survey.room_height is None
    wide = on(build, (("packages", build.active, "core", "face_width"), "25 in", "length"))
    tanks = 2 * build.package.core.tank_size.si
    (said,) = [one for one in first_wave(wide).findings if one.code == "core_over_room"]
    assert said.value == pytest.approx(25 * 0.0254 + tanks)
    assert said.form == "wide"
