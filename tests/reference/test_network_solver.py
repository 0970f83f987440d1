"""The network solver with plain pipes in it: series and parallel by hand, and any network against scipy's root finder.

Class: worked by hand, and a general-purpose library.
"""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import least_squares

from keelroom.core.network import incidence_of, lifted, unbalanced
from keelroom.errors import SolveError
from tests.interpreted import core_from_source

BALANCE = core_from_source()("balance")


class Pipes(BALANCE.Branches):
    """Square losses and pumps of steady pressure: a discipline of three lines."""

    def __init__(self, incidence, resistance, source):
        super().__init__(*incidence.shape)
        self.join(incidence[None], 0)
        self.present[:], self.source[:] = np.isfinite(resistance), source
        self.resistance = np.where(self.present > 0, resistance, 1.0)
        self.scale = np.abs(source).max()
        self.reach = np.sqrt(self.scale / self.resistance[self.present > 0].min()) + 1e-6
        self.flow[:] = self.reach * 0.3 * self.present

    def losses(self):
        flow, size = np.array(self.flow), np.sqrt(np.array(self.flow) ** 2 + 1e-12)
        self.loss[:], self.slope[:] = self.resistance * flow * size, self.resistance * (size + flow**2 / size)


def solved(ends, nodes, resistance, source):
    incidence = incidence_of(ends, nodes)
    pipes = Pipes(incidence, np.array(resistance, float), np.array(source, float))
    if not pipes.solve():
        raise unbalanced("pipe", pipes.worst)
    return incidence, pipes


def test_parallel_pipes_share_by_the_root_of_their_resistance():
    """100 Pa over 1 and 4 in parallel and 5 in series: the pair is 1/(1 + 1/2)² = 4/9, so q = √(100 / (5 + 4/9)), a
    third of it through the narrow one."""
    _, found = solved([(None, 0), (0, None), (0, None)], 1, [5.0, 1.0, 4.0], [100.0, 0.0, 0.0])
    whole = np.sqrt(100 / (5 + 4 / 9))
    assert found.flow == pytest.approx([whole, whole * 2 / 3, whole / 3], rel=1e-6)
    assert found.pressure == pytest.approx(100 - 5 * whole**2, rel=1e-6)


def test_a_balanced_bridge_carries_nothing():
    """Four equal arms: both middles stand at half the pressure."""
    ends = [(None, 0), (0, 1), (0, 2), (1, 3), (2, 3), (1, 2), (3, None)]
    _, found = solved(ends, 4, [0.5, 2, 2, 2, 2, 1, 0.5], [80, 0, 0, 0, 0, 0, 0])
    assert abs(found.flow[5]) < 1e-4 * found.flow[0]
    assert found.flow[1] == pytest.approx(found.flow[0] / 2, rel=1e-6)
    assert found.flow[0] == pytest.approx(np.sqrt(80 / (0.5 + 0.5 + 1.0)), rel=1e-6)  # each way 4, two side by side 1


def test_opposed_pumps_of_one_strength_stand_still_against_each_other():
    _, found = solved([(None, 0), (None, 0), (0, None)], 1, [1.0, 1.0, 1e6], [50.0, 50.0, 0.0])
    assert found.flow[0] == pytest.approx(found.flow[1], rel=1e-6)
    assert found.pressure == pytest.approx(50.0, abs=0.01)


@settings(max_examples=25, deadline=None)
@given(
    st.lists(st.floats(0.2, 50.0), min_size=7, max_size=7),
    st.lists(st.floats(-60.0, 60.0), min_size=7, max_size=7).filter(lambda s: max(map(abs, s)) > 5),
)
def test_any_network_agrees_with_scipy(resistance, source):
    """The same balance of nodes written apart: pressures at which what each branch then carries sums to nothing."""
    ends = [(None, 0), (0, 1), (0, 2), (1, 3), (2, 3), (1, 2), (3, None)]
    incidence, found = solved(ends, 4, resistance, source)

    def open_ends(pressure):
        head = incidence @ pressure + np.array(source)
        return incidence.T @ (np.sign(head) * np.sqrt(np.abs(head) / np.array(resistance)))

    flow = found.flow
    assert np.abs(incidence.T @ flow).max() < 1e-6
    head = incidence @ found.pressure + np.array(source)
    assert np.sign(head) * np.sqrt(np.abs(head) / np.array(resistance)) == pytest.approx(flow, abs=2e-3)
    apart = least_squares(open_ends, np.zeros(4), xtol=1e-14, ftol=1e-14, gtol=1e-14)
    if apart.cost < 1e-12:
        assert apart.x == pytest.approx(found.pressure, abs=0.05)


def test_what_cannot_balance_says_which_network(monkeypatch):
    monkeypatch.setattr(BALANCE, "STEPS", 2)
    with pytest.raises(SolveError) as refused:
        solved([(None, 0), (0, None)], 1, [1.0, 9.0], [70.0, 0.0])
    assert refused.value.code == "pipe_not_converged"


def test_a_loop_with_a_hot_and_a_cold_leg_circulates_of_itself():
    """Two legs 2 m high, 960 and 1000 kg/m3: 40 × 9.80665 × 2 = 784.5 Pa over two legs of 300 Pa per (kg/s)² and two
    level pipes of 10: 1.125 kg/s up the hot one."""
    ends = [(0, 1), (1, 2), (2, 3), (3, 0)]  # up the hot leg, over, down the cold one, back
    incidence = incidence_of(ends, 4)[None]
    weight = lifted(incidence, np.array([[0.0, 2.0, 2.0, 0.0]]), np.array([[960.0, 980.0, 1000.0, 980.0]]))
    assert weight[0] == pytest.approx([-960 * 9.80665 * 2, 0.0, 1000 * 9.80665 * 2, 0.0])
    # One node is held at nothing by a pipe to outdoors that carries nothing.
    _, found = solved([*ends, (0, None)], 4, [300.0, 10.0, 300.0, 10.0, 1.0], [*weight[0], 0.0])
    expected = np.sqrt(40 * 9.80665 * 2 / 620.0)
    assert found.flow == pytest.approx([expected] * 4 + [0.0], abs=1e-5)
    assert found.pressure[1] == pytest.approx(-960 * 9.80665 * 2 - 300 * expected**2, rel=1e-5)
