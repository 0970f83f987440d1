"""A car as it left the factory, by the catalogue's engines and vehicles, passes its own judgement: nothing that was
only assumed is called a problem."""

import pytest

from keelroom.assess.assess import first_wave
from keelroom.assess.first_build import Answers, first_build, fitting
from keelroom.catalogue.load import cores, engines, vehicles
from keelroom.core import rules
from keelroom.document.fields import measured_fields

CHARGING = ("alternator_short", "over_speed", "charge_cable", "charge_cable_hot", "charge_place", "redline_low")


def first(vehicle, engine, **answers):
    """With the smallest core that meets the frontal-area rule and the strongest fans that go onto it."""
    wanted = rules.face_area_wanted(engine.displacement.si)
    faces = sorted(cores(), key=lambda core: core.face_width.si * core.face_height.si)
    core = next(one for one in faces if one.face_width.si * one.face_height.si >= wanted)
    fans = max(fitting(core), key=lambda one: one.count * one.fan.free_air_flow.si)
    return first_build(Answers(vehicle.name, engine.name, core=core.name, fans=fans.name, **answers), "us")


@pytest.mark.parametrize("engine", engines(), ids=lambda engine: engine.name)
def test_nothing_assumed_is_a_problem_of_any_catalogue_car(engine):
    before = None
    for vehicle in vehicles():
        build = first(vehicle, engine)
        cases = tuple(case for case in build.duty_cases if case.id in ("idle", "cruise"))
        before = first_wave(build.model_copy(update={"duty_cases": cases}), previous=before)
        for finding in before.findings:
            assert finding.code not in CHARGING or finding.level != "problem", (vehicle.name, finding.code)
            assert not finding.assumed or finding.level == "doubt"
        # With fans of the usual watts nothing is short at all: it was built that way (a carburetted car had none such).
        watts = sum(fan.power.si for fan in build.package.fans)
        short = "alternator_short" in {finding.code for finding in before.findings}
        assert not short or engine.kind == "carburetted" or watts > 250, (vehicle.name, watts)
        # No alternator is built to turn faster at the redline than it stands: 15 000 or 18 000 rpm (common practice).
        assert build.supply.pulley_ratio.si * build.supply.redline.si <= build.supply.speed_limit.si + 1e-9
        assert build.supply.speed_limit.si * 60 in (pytest.approx(15_000), pytest.approx(18_000))


def test_what_is_measured_of_the_charging_makes_it_a_problem_again():
    """The same figures, typed off its label: a 60 A unit that cannot feed the fans is no question any more."""
    from tests.changes import on

    small = (("brief", "accessories", "alternator_rating"), "60 A", "current")
    build = on(first(vehicles()[0], engines()[0]), small)
    (short,) = (finding for finding in first_wave(build).findings if finding.code == "alternator_short")
    assert short.level == "problem"
    assert not short.assumed
    guessed = build.brief.accessories.alternator_rating.model_copy(update={"origin": "assumed"})
    (open_,) = (
        finding
        for finding in first_wave(on(build, ((*small[0],), guessed))).findings
        if finding.code == "alternator_short"
    )
    assert open_.level == "doubt"
    assert "Alternator rating" in open_.assumed
    assert all(value is None or value.origin for _, _, value in measured_fields(build))


def test_full_power_for_minutes_is_judged_where_it_is_asked_for():
    vehicle, engine = vehicles()[0], engines()[0]
    assert "full" not in {case.id for case in first(vehicle, engine).duty_cases}
    assert "full" in {case.id for case in first(vehicle, engine, flat_out=True).duty_cases}
