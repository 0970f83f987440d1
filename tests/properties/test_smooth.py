"""Smooth and monotone: what a slider or a response strip walks over must have no steps that are not there."""

import itertools

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from keelroom.assess.questions.airmap import air_map, at_speed
from keelroom.assess.questions.response import response
from keelroom.core.coupling import prepare
from keelroom.core.cycling import fans_held
from keelroom.core.operating_point import evaluate, solve
from tests.changes import varied
from tests.properties.test_facts import BUILD, CORE, FANS, package, point
from tests.properties.test_network import BIG, SIXTEEN, TWIN, inches, shroud


@given(CORE, FANS)
def test_more_road_speed_never_means_less_air_through_grille_and_core(core, assembly):
    points, _, layout = point(package(core, assembly), "cruise")
    flows = []
    for speed in np.linspace(0.0, 45.0, 10):
        moved = varied(points, {"situation.air_speed": np.array([speed])})
        running = prepare(moved, layout).running.flows
        flows.append((float(running.grille[0]), float(np.maximum(running.core[0], 0).sum())))
    assert all(b[0] >= a[0] - 1e-6 for a, b in itertools.pairwise(flows))
    assert all(b[1] >= a[1] - 1e-6 for a, b in itertools.pairwise(flows))


@pytest.mark.parametrize(
    "pack", [package(BIG, TWIN), package(BIG, SIXTEEN, shroud(kind="none"))], ids=["shrouded", "bare"]
)
def test_rejection_is_smooth_in_the_fans_speed_through_the_correlations_break(pack):
    """Rejection at a fixed coolant temperature over fan volts: rising, and its steps change slowly."""
    points, _, layout = point(
        pack.model_copy(update={"coolers": ()}), "idle"
    )  # a condenser cuts out, which is a real kink
    hot = points.plant.limit
    found = []
    for volts in np.linspace(6.0, 15.0, 46):
        volted = {"situation.command.voltage": np.full_like(points.situation.command.voltage, volts)}
        moved = varied(points, volted)
        found.append(float(evaluate(moved, prepare(moved, layout), hot, layout, fans_held(1, 1.0)).rejection[0]))
    steps = np.diff(found)
    assert steps.min() > 0
    assert np.abs(np.diff(steps)).max() < 0.2 * steps.max()


def test_the_slider_and_the_duty_case_are_the_same_thing():
    own = air_map(BUILD, "grade")
    again = air_map(BUILD, "grade", own.road_speed)
    assert again.temperature == pytest.approx(own.temperature, rel=1e-6)
    still = at_speed(BUILD, "grade", 0.0)
    assert next(c for c in still.duty_cases if c.id == "grade").demand == "idle"
    rolling = at_speed(BUILD, "idle", 12.0)
    assert next(c for c in rolling.duty_cases if c.id == "idle").demand == "road_load"


@pytest.mark.parametrize("field", ["edge_gap", "depth", "flap_area"])
def test_a_shrouds_numbers_answer_without_steps(field):
    answer = response(BUILD, ("packages", "p1", "shroud", field), "grade", steps=17)
    temperatures = np.array([t for t in answer.temperatures if np.isfinite(t)])
    steps = np.abs(np.diff(temperatures))
    spread = temperatures.max() - temperatures.min()
    assert steps.max() <= max(0.6 * spread, 0.05)


@given(st.floats(0.0, 0.02), st.floats(0.0, 0.02))
def test_wider_gaps_come_back_and_go_round_more(first, second):
    """Recirculation at a standstill and bypass at speed both grow with the gap round the core."""
    narrow, wide = sorted((first, second))
    found = []
    for gap in (narrow, wide):
        points, _, layout = point(package(BIG, TWIN, shroud(edge_gap=inches(0))), "idle")
        net = points.plant.network._replace(bypass_area=np.array([2.2 * gap]))
        standing = prepare(varied(points, {"plant.network": net}), layout).running.flows
        moving = prepare(
            varied(points, {"plant.network": net, "situation.air_speed": np.array([28.0])}), layout
        ).running.flows
        found.append((float(standing.back[0]), float(moving.bypass[0])))
    assert found[0][0] <= found[1][0] + 1e-9
    assert found[0][1] <= found[1][1] + 1e-9


def test_condenser_ahead_and_altitude_still_order_the_outlet():
    base, hidden, clear = (package(BIG, TWIN), None, package(BIG, TWIN).model_copy(update={"coolers": ()}))
    assert hidden is None
    hot, cool = (float(solve(*_points(p)).state.temperature[0]) for p in (base, clear))
    assert hot > cool


def _points(pack):
    points, _, layout = point(pack, "grade")
    return points, layout
