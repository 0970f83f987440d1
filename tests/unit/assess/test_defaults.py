"""What a new build starts from, and what an engine brings with it."""

import pytest

from keelroom.assess.acts.brief import engine_edit
from keelroom.assess.assess import assess
from keelroom.assess.defaults import new_build, usual_compressor, usual_redline
from keelroom.catalogue.load import engines
from keelroom.document.edits import apply
from keelroom.document.quantity import quantity
from keelroom.document.schema.brief import Engine
from tests.changes import on


def codes(build):
    return {finding.code: finding for finding in assess(build).findings}


@pytest.mark.parametrize("engine", engines(), ids=lambda engine: engine.name)
def test_an_engine_brings_its_redline(engine):
    """A tenth over the speed of greatest power (common practice, no source), not one that the next page calls wrong."""
    build = apply(new_build(), engine_edit(new_build(), engine, "Engine"))
    assert build.supply.redline.si == pytest.approx(1.1 * engine.power_rpm.si, rel=1e-3)
    assert "redline_low" not in codes(build)


def test_a_redline_that_was_typed_stays_and_is_judged():
    engine = next(one for one in engines() if one.power_rpm.si > 5500 / 60)
    typed = on(new_build(), (("supply", "redline"), "4000 rpm", "turning speed"))
    build = apply(typed, engine_edit(typed, engine, "Engine"))
    assert build.supply.redline.as_typed == "4000 rpm"
    assert codes(build)["redline_low"].level == "problem"


def test_an_assumed_redline_under_a_typed_engine_speed_is_a_doubt():
    build = on(new_build(), (("brief", "engine", "power_rpm"), "6200 rpm", "turning speed"))
    assert codes(build)["redline_low"].level == "doubt"
    assert usual_redline(new_build().brief.engine.model_copy(update={"idle_rpm": None, "power_rpm": None})) is None


@pytest.mark.parametrize(("kind", "watts", "rating"), [("carburetted", 375, "63 A"), ("boosted", 580, "160 A")])
def test_loads_and_alternator_go_with_the_kind_of_engine_unless_they_were_typed(kind, watts, rating):
    """Common practice, no source: a carburetted car has no electric fuel pump and a small generator. By hand: 45 W of
    ignition, or 100 W with a pump of 150, and lamps by day 45, blower 200, clutch 45, other 40."""
    engine = next(one for one in engines() if one.kind == kind and one.displacement.si > 2.5e-3)
    build = apply(new_build(), engine_edit(new_build(), engine, "Engine"))
    assert sum(load.power.si for load in build.supply.loads) == watts
    assert ("fuel_pump" in {load.id for load in build.supply.loads}) is (kind != "carburetted")
    assert build.brief.accessories.alternator_rating.as_typed == rating
    typed = on(new_build(), (("supply", "loads", "lamps", "power"), "90 W", "electrical power"))
    kept = apply(typed, engine_edit(typed, engine, "Engine"))
    assert kept.supply.loads == typed.supply.loads


def test_a_small_engines_car_has_a_small_compressor():
    """By hand: 1.6 kW at idle with 1.8 L, 2.5 with 5 L and more, 3.4 L half-way at 2.05; 1.28 times that on the road.
    What was typed stays."""
    found = {}
    for litres in ("1.8 L", "3.4 L", "7 L"):
        engine = Engine(displacement=quantity(litres, "displacement"))
        found[litres] = usual_compressor(engine)
    assert found == {"1.8 L": ("1.6 kW", "2.0 kW"), "3.4 L": ("2.0 kW", "2.6 kW"), "7 L": ("2.5 kW", "3.2 kW")}
    assert usual_compressor(Engine()) == ("", "")
    small = next(engine for engine in engines() if engine.displacement.si < 2e-3)
    build = apply(new_build(), engine_edit(new_build(), small, ""))
    assert build.brief.accessories.ac_idle_power.as_typed == "1.6 kW"
    typed = on(new_build(), (("brief", "accessories", "ac_idle_power"), "3 kW", "power"))
    kept = apply(typed, engine_edit(typed, small, ""))
    assert kept.brief.accessories.ac_idle_power.as_typed == "3 kW"
