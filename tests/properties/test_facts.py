"""Facts any correct version must show: orderings and balances, over drawn packages and days (hypothesis)."""

import itertools

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from keelroom.assess.assess import assess
from keelroom.assess.inputs.airside import air_side
from keelroom.assess.inputs.translate import car_of, row_of, stacked
from keelroom.catalogue.load import cores, fan_assemblies, named, placed
from keelroom.core.air.face import BAY
from keelroom.core.ambients import holding_ambients
from keelroom.core.answer import steady_answer
from keelroom.core.coupling import prepare
from keelroom.core.operating_point import evaluate, face_heat, looked_at, solve
from keelroom.core.plant import Layout
from keelroom.core.thermal.geometry import core_surfaces
from keelroom.core.thermal.louver import core_drop, louver_surface
from keelroom.document.edits import Change, Edit, apply, set_value
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.package import Package, Shroud
from tests.changes import on, varied
from tests.conftest import DEMO
from tests.floors import FLOOR

BUILD = on(load(DEMO), (("survey", "air_holes"), ()))
CASES = {case.id: case for case in BUILD.duty_cases}
LAYOUT = Layout(True, 1, 2)
"""crossflow, one pass, two rows: for what the tubes' way does not touch"""
CORE = st.sampled_from(cores())
FANS = st.sampled_from(fan_assemblies())


def package(core, assembly, shroud=None):
    fans, own = placed(assembly, core, "si")
    return Package(id="x", core=core, fans=fans, shroud=shroud or own)


def point(pack, case="idle", build=BUILD):
    row = row_of(build, pack, car_of(build, pack), CASES[case])
    points, doubt = stacked([row])
    return points, doubt, row.layout


def outlet(pack, case="idle", build=BUILD):
    points, _, layout = point(pack, case, build)
    return float(solve(points, layout).state.temperature[0])


def airflow(pack, case="idle", build=BUILD):
    points, _, layout = point(pack, case, build)
    return float(prepare(points, layout).running.flows.core[0].sum())


def changed(*changes):
    return apply(BUILD, Edit("", tuple(Change(path, quantity(text, kind)) for path, text, kind in changes)))


@FLOOR.at_least(15)
@given(CORE, FANS, st.sampled_from(sorted(CASES)))
def test_energy_in_is_energy_out(core, assembly, case):
    points, _, layout = point(package(core, assembly), case)
    solution = solve(points, layout)
    state = solution.state
    met = face_heat(points, solution.fixed, layout, float(state.temperature[0]), looked_at(np.arange(1)))
    per_cell = met.capacity * (met.air_out - met.temperature)
    heated = per_cell.sum()
    assert heated == pytest.approx(float(state.rejection[0]), rel=1e-9)
    if FLOOR.met(float(state.temperature[0]) < 189.9):
        assert float(state.rejection[0]) == pytest.approx(float(state.heat_in[0]), rel=1e-6)


@FLOOR.at_least(4)
@given(CORE, FANS, st.floats(2.0, 15.0))
def test_a_hotter_day_is_hotter_by_about_as_much(core, assembly, rise):
    """About one for one once all is open; a little over 1.1 only on small cores starved of air, whose mass flow
    thins."""
    pack = package(core, assembly, Shroud())
    base = outlet(pack, "grade")
    hot = outlet(pack, "grade", changed((("brief", "climate", "ambient"), f"{38.9 + rise} °C", "temperature")))
    if FLOOR.met(base > 93 and hot < 130):
        assert 0.85 <= (hot - base) / (rise + 38.9 - 38.888889) <= 1.2


@pytest.mark.parametrize("pack", BUILD.packages, ids=lambda pack: pack.name)
def test_ambient_one_for_one_on_real_packages(pack):
    """Common practice has 0.85-1.1 K per K; air-limited packages come out up to 0.03 over it, because hot air is
    thin."""
    hotter = changed((("brief", "climate", "ambient"), "112 °F", "temperature"))
    if outlet(pack, "grade", hotter) > 129:
        return  # past boiling there is no such day
    assert 0.85 <= (outlet(pack, "grade", hotter) - outlet(pack, "grade")) / (10 / 1.8) <= 1.15


@given(CORE, FANS, st.floats(1.05, 2.0))
def test_more_coolant_or_more_volts_never_heats_the_outlet(core, assembly, more):
    pack = package(core, assembly)
    for case in ("traffic", "grade"):
        points, _, layout = point(pack, case)
        base = solve(points, layout).state.temperature[0]
        richer = varied(points, {"plant.circuit.flow_rated": points.plant.circuit.flow_rated * more})
        assert solve(richer, layout).state.temperature[0] <= base + 1e-6


@given(CORE, st.sampled_from([a for a in fan_assemblies() if a.fan.motor == "brushed"]))
def test_volts_move_air(core, assembly):
    points, _, _ = point(package(core, assembly, Shroud()), "idle")
    low, high = (
        float(
            prepare(
                varied(points, {"situation.command.voltage": np.full_like(points.situation.command.voltage, v)}), LAYOUT
            ).running.flows.fans.sum()
        )
        for v in (10.0, 14.0)
    )
    assert 0.6 <= low / high <= 0.85


@given(CORE, FANS)
def test_at_a_standstill_a_sealed_shroud_beats_the_bare_fan(core, assembly):
    full, bare = (package(core, assembly, Shroud(kind=kind)) for kind in ("full", "none"))
    classes = air_side(BUILD, bare).classes
    behind_bay = float(classes.area[classes.rear == BAY].sum())
    if behind_bay > 0.15 * float(core.face_width.si * core.face_height.si):
        assert outlet(full, "idle") <= outlet(bare, "idle") + 1e-6
        assert airflow(full) > airflow(bare)


def test_by_a_wide_margin():
    core, fan = (
        named(cores(), "Crossflow 28 × 19, 2 row, dimpled tube, aluminium"),
        next(a for a in fan_assemblies() if a.name.startswith("16 in curved")),
    )
    full, bare = (_holds(*point(package(core, fan, Shroud(kind=kind)))) for kind in ("full", "none"))
    assert full > bare + 10


def _holds(points, doubt, layout):
    """Ambient [degC] up to which one point holds its limit."""
    return float(holding_ambients(points, steady_answer(points, doubt, layout), layout).holds[0])


@given(CORE)
def test_two_equal_fans_give_less_than_twice_one(core):
    twin = next(a for a in fan_assemblies() if a.name.startswith("Twin 12 in straight"))
    pack = package(core, twin)
    one = pack.model_copy(update={"fans": pack.fans[:1]})
    assert airflow(one) < airflow(pack) < 2 * airflow(one)


@given(CORE, FANS)
def test_a_condenser_ahead_heats_the_air_and_costs_flow(core, assembly):
    pack = package(core, assembly)
    clear = pack.model_copy(update={"coolers": ()})
    assert airflow(clear) > airflow(pack)
    assert outlet(clear) <= outlet(pack) + 1e-6


@given(CORE, FANS)
def test_altitude_cuts_mass_flow_and_boiling(core, assembly):
    pack = package(core, assembly)
    high = changed((("brief", "climate", "altitude"), "2500 m", "altitude"))
    low_points, high_points = point(pack)[0], point(pack, build=high)[0]
    low, up = prepare(low_points, LAYOUT), prepare(high_points, LAYOUT)
    assert up.running.flows.core[0].sum() < low.running.flows.core[0].sum()
    assert up.boiling[0] < low.boiling[0]


@FLOOR.at_least(10)
@given(CORE, FANS)
def test_a_cooler_thermostat_adds_no_capacity(core, assembly):
    """Nothing on a balance above both full-open points; something while the hotter one still throttles."""
    pack = package(core, assembly)
    cool = pack.model_copy(
        update={"loop": pack.loop.model_copy(update={"thermostat": quantity("160 °F", "temperature")})}
    )
    stock, cooler = outlet(pack, "grade"), outlet(cool, "grade")
    if FLOOR.met(93.5 < stock < 189):
        assert cooler == pytest.approx(stock, abs=1e-3)
    else:
        assert cooler <= stock + 1e-6


def test_a_cooler_thermostat_helps_while_the_hotter_throttles():
    build = changed(
        (("packages", "p1", "loop", "thermostat"), "195 °F", "temperature"),
        (("packages", "p1", "control", "fan_on"), "215 °F", "temperature"),
        (("packages", "p1", "control", "fan_off"), "205 °F", "temperature"),
    )
    assert outlet(BUILD.packages[0], "night") + 3 < outlet(build.packages[0], "night", build)


def test_inlet_place_runs_the_outlet_hotter():
    """An inlet thermostat holds the engine inlet, so the outlet sits 3 to 12 K above the rating's throttling range."""
    inlet = apply(BUILD, set_value(("packages", "p1", "loop", "thermostat_place"), "inlet", ""))
    assert 2 < outlet(inlet.packages[0], "night", inlet) - outlet(BUILD.packages[0], "night") < 15


@given(CORE, FANS)
def test_depth_and_fins_saturate_on_a_fixed_fan(core, assembly):
    """The second step of fin density brings less than the first, and may cost."""
    points, _, layout = point(package(core, assembly, Shroud()), "idle")
    hot = np.array([105.0])

    def rejected(factor):
        finer = varied(points, {"plant.core.fin_pitch": points.plant.core.fin_pitch / factor})
        return float(evaluate(finer, prepare(finer, LAYOUT), hot, layout).rejection[0])

    low, middle, high = rejected(1.0), rejected(1.3), rejected(1.6)
    assert high - middle <= middle - low + 1e-6 * low


@given(CORE, st.floats(0.0, 1.0))
def test_core_drop_is_smooth_and_rising(core, share):
    """Through the friction correlation's break at Re 150 (idle!) too."""
    points, _, _ = point(package(core, fan_assemblies()[5]))
    surfaces = core_surfaces(points.plant.core)
    surface = louver_surface(points.plant.core, surfaces)
    flux = np.linspace(0.05, 12.0, 500)[None, :]
    still = (np.array([[1.1]]), np.array([[1.95e-5]]), np.array([[1.0 + 0.2 * share]]))
    drop = core_drop(points.plant.core, surfaces, surface, flux, still)[0]
    assert np.all(np.diff(drop) > 0)
    exponent = np.gradient(np.log(drop), np.log(flux[0]))
    assert exponent.min() > 0.9
    assert exponent.max() < 2.6


@given(CORE, FANS, st.sampled_from(sorted(CASES)))
def test_rejection_rises_with_temperature(core, assembly, case):
    """Wherever the face cools at all: ahead of a core far too small the condenser's air is hotter than the coolant."""
    points, _, layout = point(package(core, assembly), case)
    fixed = prepare(points, layout)
    states = [evaluate(points, fixed, np.array([t]), layout) for t in (75.0, 85.0, 90.0, 95.0, 110.0, 140.0)]
    cooling = [float(state.margin[0]) for state in states if state.rejection[0] > 0]
    assert all(b >= a - 1e-6 * abs(a) for a, b in itertools.pairwise(cooling))


@given(CORE, FANS)
def test_more_air_resistance_less_air(core, assembly):
    points, _, _ = point(package(core, assembly), "cruise")
    tight = varied(points, {"plant.network.exit_area": points.plant.network.exit_area * 0.6})
    assert prepare(tight, LAYOUT).running.flows.core[0].sum() < prepare(points, LAYOUT).running.flows.core[0].sum()


@FLOOR.at_least(8)
@given(CORE, FANS)
def test_highest_ambient_really_holds_the_limit(core, assembly):
    """The curve through four ambients against a full solve at the ambient it names."""
    points, doubt, layout = point(package(core, assembly), "grade")
    named_ambient = _holds(points, doubt, layout)
    if FLOOR.met(20 < named_ambient < 55):
        there = varied(points, {"situation.climate.ambient": np.array([named_ambient])})
        assert float(solve(there, layout).state.temperature[0]) == pytest.approx(float(points.plant.limit[0]), abs=1.5)


@given(CORE, FANS, st.sampled_from(sorted(CASES)))
def test_the_band_holds_its_temperature(core, assembly, case):
    points, doubt, layout = point(package(core, assembly), case)
    answer = steady_answer(points, doubt, layout)
    assert answer.band.low[0] <= answer.temperature[0] + 1e-6
    assert answer.band.high[0] >= answer.temperature[0] - 1e-6


@given(CORE, FANS, st.lists(st.floats(-2.0, 3.0), min_size=4, max_size=4), st.sampled_from(sorted(CASES)))
def test_the_air_is_found_from_any_beginning(core, assembly, flows, case):
    points, _, layout = point(package(core, assembly), case)
    fixed = prepare(points, layout)

    def astray(air, at):
        lost = np.where(np.arange(air.branches.shape[1]) % 2, flows[at], flows[at + 1])[None, :]
        return air._replace(branches=lost)

    again = prepare(points, layout, fixed._replace(running=astray(fixed.running, 0), stopped=astray(fixed.stopped, 2)))
    assert float(again.running.flows.core[0].sum()) == pytest.approx(float(fixed.running.flows.core[0].sum()), rel=1e-6)


def test_a_previous_answer_of_a_fanless_build_is_no_trap(demo):
    fanless = apply(demo, set_value(("packages", "p2", "fans"), (), ""))
    fanless = apply(fanless, set_value(("active",), "p2", ""))
    fanned = apply(demo, set_value(("active",), "p2", ""))
    for first, second in ((fanless, fanned), (fanned, fanless)):
        warm, cold = assess(second, previous=assess(first)), assess(second)
        assert [c.figures.temperature for c in warm.cases] == pytest.approx(
            [c.figures.temperature for c in cold.cases], rel=1e-6
        )


def test_a_previous_answer_only_speeds_the_search(demo):
    cold = assess(demo)
    warm = assess(demo, previous=assess(demo, "p3"))
    for a, b in zip(cold.cases, warm.cases, strict=True):
        assert a.figures.temperature == pytest.approx(b.figures.temperature, rel=1e-6)
