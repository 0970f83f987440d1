"""What runs compiled and the same source interpreted: the same numbers, to 1e-9, over drawn pairs."""

import sys

import numpy as np
import pytest

from keelroom.core.compiled import compiled, why_slow
from keelroom.core.packaging import nearest
from keelroom.core.packaging.solids import ROOM, Solids, _rows, clearance, parted
from tests.interpreted import interpreted

PAIRS = 120


def drawn(seed, spread):
    """Boxes and cylinders turned any way, about a bay's size, centres within `spread` of the middle [m]."""
    dice = np.random.default_rng(seed)
    axes = np.array([np.linalg.qr(dice.normal(size=(3, 3)))[0].T for _ in range(PAIRS)])
    half = dice.uniform(0.005, 0.3, (PAIRS, 3))
    round_ = dice.random(PAIRS) < 0.5
    half[round_, 1] = half[round_, 0]
    return Solids(dice.uniform(-spread, spread, (PAIRS, 3)), half, axes, round_)


@pytest.mark.parametrize("spread", [0.1, 0.6, 1.5])
def test_clearances_are_the_same_compiled_and_interpreted(spread):
    """Overlapping, near and far: gap, normal and nearest points, and the bound that is surely there."""
    a, b = drawn(1, spread), drawn(2, spread)
    source = interpreted(nearest)
    for work, wide in ((source.clearances, 10), (source.bounds, 4)):
        out = [[0.0] * wide for _ in range(PAIRS)]
        work(_rows(a).tolist(), _rows(b).tolist(), out, ROOM.tolist(), PAIRS)
        found = clearance(a, b) if wide == 10 else parted(a, b)
        here = np.column_stack([np.asarray(part).reshape(PAIRS, -1) for part in found])
        assert np.array(out) == pytest.approx(here, abs=1e-9)
        assert spread > 1 or (here[:, 0] < 0).any()


def test_no_pairs_are_no_clearances():
    none = Solids(np.zeros((0, 3)), np.zeros((0, 3)), np.zeros((0, 3, 3)), np.zeros(0, bool))
    assert clearance(none, none).gap.shape == (0,)
    assert parted(none, none)[1].shape == (0, 3)


def test_what_is_interpreted_is_said_in_a_line(monkeypatch):
    """Where nothing was built the program runs, and says so with what would make it fast."""
    monkeypatch.setitem(sys.modules, nearest.__name__, interpreted(nearest))
    said = why_slow()
    assert "\n" not in said
    assert "compiler" in said
    assert "nearest" in said
    monkeypatch.undo()
    assert bool(why_slow()) is not compiled(nearest)
