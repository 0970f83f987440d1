"""Whatever coolers hang wherever: every watt a fluid is given is somewhere, and the coolant's heat is what the core
gives off."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from keelroom.assess.assess import first_wave
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.coolers import Cooler
from tests.acts import doing
from tests.conftest import DEMO

BUILD = load(DEMO)
KINDS = (
    "condenser",
    "gearbox_cooler",
    "oil_cooler",
    "steering_cooler",
    "charge_cooler",
    "water_charge_cooler",
    "screen",
)
SPOTS = ("ahead", "beside", "behind", "bay", "bumper", "floor", "wheel_well", "trunk")


@st.composite
def cooler(draw, number):
    inches = lambda low, high: quantity(f"{draw(st.integers(low, high))} in", "length")  # noqa: E731
    return Cooler(
        id=f"c{number}",
        name=f"Cooler {number}",
        kind=draw(st.sampled_from(KINDS)),
        stands=draw(st.sampled_from(SPOTS)),
        left=inches(0, 12),
        bottom=inches(0, 8),
        width=inches(4, 14),
        height=inches(3, 9),
        stand_off=inches(0, 4),
        conductance=quantity(f"{draw(st.integers(300, 3000))} W/m²K", "face conductance"),
        fans=quantity(str(draw(st.integers(0, 2))), "count"),
        after_tank=draw(st.booleans()),
        opens=draw(st.sampled_from([None, quantity("160 °F", "temperature")])),
    )


arrangements = st.integers(0, 4).flatmap(lambda count: st.tuples(*(cooler(number) for number in range(count))))


@settings(max_examples=25)
@given(arrangements, st.sampled_from(["manual", "automatic"]), st.booleans(), st.booleans())
def test_all_heat_given_is_somewhere(coolers, gearbox, tank, lockup):
    changes = (
        Change(("packages", "p1", "coolers"), coolers),
        Change(("brief", "vehicle", "gearbox"), gearbox),
        Change(("brief", "vehicle", "in_tank_cooler"), tank),
        Change(("brief", "vehicle", "lockup"), lockup),
    )
    checked = 0
    for case in first_wave(apply(BUILD, Edit("", changes))).cases:
        figures = case.figures
        for fluid, heat in figures.fluids.given:
            left = sum(watts for name, _, watts, *_ in figures.fluids.left if name == fluid)
            assert left == pytest.approx(heat, rel=1e-6, abs=0.2), (case.case_id, fluid)
            checked += 1
        if figures.verdict != "does_not_settle":
            assert sum(value for _, value in figures.heat_by_cause) == pytest.approx(figures.heat_in, rel=1e-6)
        assert all(
            math.isfinite(value)
            for value in (figures.fluids.gearbox, figures.fluids.oil, figures.fluids.charge, figures.fluids.condensing)
        )
    assert checked == 30


def test_unticking_the_tank_makes_no_kilowatts_vanish():
    """An automatic idling in gear: with the tank's cooler off the gearbox runs hotter by itself, its heat is still in
    the books."""
    automatic = apply(
        BUILD,
        Edit("", (Change(("brief", "vehicle", "gearbox"), "automatic"), Change(("packages", "p1", "coolers"), ()))),
    )
    told = []
    for tank in (True, False):
        build = apply(automatic, Edit("", (Change(("brief", "vehicle", "in_tank_cooler"), tank),)))
        told.append(first_wave(build).cases[0].figures)
    with_tank, without = told
    assert without.fluids.gearbox > with_tank.fluids.gearbox + 20
    assert dict(without.fluids.given)["gearbox"] == pytest.approx(dict(with_tank.fluids.given)["gearbox"], rel=1e-3)
    assert sum(heat for fluid, _, heat, *_ in without.fluids.left if fluid == "gearbox") == pytest.approx(
        dict(without.fluids.given)["gearbox"]
    )


def test_a_cooler_ahead_costs_the_core_and_a_remote_one_does_not():
    """Facts of the trade: what stands ahead heats and slows the core's air; the same cooler behind a bumper slot
    leaves it alone."""

    def hill(stands):
        box = Cooler(
            id="box",
            kind="gearbox_cooler",
            stands=stands,
            width=quantity("11 in", "length"),
            height=quantity("9 in", "length"),
            loss=quantity("12", "number"),
        )
        build = apply(
            BUILD,
            Edit(
                "",
                (
                    Change(("packages", "p1", "coolers"), (box,)),
                    Change(("brief", "vehicle", "gearbox"), "automatic"),
                    Change(("brief", "vehicle", "in_tank_cooler"), False),
                ),
            ),
        )
        return next(case.figures for case in first_wave(build).cases if case.case_id == "grade")

    ahead, away = hill("ahead"), hill("bumper")
    assert ahead.temperature > away.temperature + 0.5
    assert abs(dict(ahead.fluids.given)["gearbox"] - dict(away.fluids.given)["gearbox"]) < 200


def test_a_bypass_keeps_the_fluid_warm_and_leaves_the_hot_day_alone():
    """School of the gearbox: on a cold road the thermostat holds what the cooler would take; on the grade, the
    converter open, it is open too."""
    from keelroom.assess.questions.gearbox_ways import gearbox_ways

    vehicle = ("brief", "vehicle")
    automatic = apply(
        BUILD, Edit("", (Change((*vehicle, "gearbox"), "automatic"), Change((*vehicle, "lockup"), False)))
    )
    ways = {tried.way.key: tried for tried in gearbox_ways(automatic)}
    assert ways["bypass"].cold > ways["alone"].cold + 15
    assert ways["bypass"].grade == pytest.approx(ways["alone"].grade, abs=0.5)
    assert ways["before"].tank < ways["tank"].tank, "a cooler ahead of the tank spares the coolant"
    assert ways["tank"].engine > ways["alone"].engine + 1
    for tried in ways.values():
        assert doing(automatic, tried.act).brief.vehicle.in_tank_cooler is tried.way.tank
