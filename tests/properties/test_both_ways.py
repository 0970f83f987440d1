"""What runs compiled and the same source interpreted: the same numbers, to 1e-9, over drawn pairs and points."""

import math
import random
import sys

import numpy as np
import pytest

from keelroom.assess.figures.batch import Asked, batches, rows_for
from keelroom.assess.inputs.translate import stacked
from keelroom.core import valueless
from keelroom.core.air import face, parting
from keelroom.core.air.face import Disc, Zone
from keelroom.core.air.fan import Rating, generic_curve
from keelroom.core.air.own_air import OwnPath, own_flow
from keelroom.core.ambients import holding_ambients
from keelroom.core.answer import steady_answer
from keelroom.core.arrays import stack
from keelroom.core.compiled import compiled, why_slow
from keelroom.core.drive.run import drive, level
from keelroom.core.packaging import nearest
from keelroom.core.packaging.solids import ROOM, Solids, _rows, clearance, parted
from tests.drives import leg, ready
from tests.interpreted import core_from_source, interpreted
from tests.soak.offers import any_build

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


def unlike(one, other, where=""):
    """Fields of two records of arrays that differ by more than 1e-9 of their size."""
    found = []
    for name, a, b in zip(one._fields, one, other, strict=True):
        if isinstance(a, tuple):
            found += unlike(a, b, f"{where}{name}.")
        elif isinstance(a, np.ndarray) and not np.allclose(a, b, rtol=1e-9, atol=1e-9, equal_nan=True):
            found.append(where + name)
    return found


@pytest.mark.parametrize("which", ["demo", 3, 5, 12])
def test_whole_answers_are_the_same_compiled_and_interpreted(demo, which):
    """Air path, coolant loop, coolers, face, search and switching fans: everything an answer holds, and the weather a
    package holds in; on the demo's hottest cases and on drawn builds."""
    build = demo if which == "demo" else any_build(random.Random(which))
    asked = [Asked(build, case.id) for case in build.duty_cases[:2]]
    source, looked = core_from_source(), 0
    for _, rows in batches(rows_for(asked)):
        points, doubt = stacked(rows)
        layout = rows[0].layout
        here = steady_answer(points, doubt, layout)
        there = source("answer").steady_answer(points, doubt, layout)
        assert not unlike(there, here)
        days = source("ambients").holding_ambients(points, there, layout)
        assert not unlike(days, holding_ambients(points, here, layout))
        looked += len(rows)
    assert looked == len(asked)


def test_a_drive_is_the_same_compiled_and_interpreted(demo):
    """A light, a road and the key turned off: every state at every moment, to 1e-9."""
    made = ready(demo, leg("idle", "1 min", ac_on=True), leg("hold", "0.5 min", speed="40 mph"), leg("off", "0.5 min"))
    found, start = made.situations, level(90.0, 40.0, 0.8)
    here = drive(found.stands, made.lumps, found.legs, found.supply, start)
    source = core_from_source()
    stands = found.stands._replace(fixed=source("coupling").prepare(found.stands.points, found.stands.layout))
    there = source("drive.run").drive(stands, made.lumps, found.legs, found.supply, start)
    assert len(here.time) == len(there.time) > 30
    assert np.allclose(here.states, there.states, rtol=1e-9, atol=1e-7)
    assert np.allclose(here.told, there.told, rtol=1e-9, atol=1e-7)


def test_a_face_is_parted_the_same_compiled_and_interpreted(monkeypatch):
    """A cut opening, covers, a shroud with two fans, a bare fan where it is nearer, a pusher with its hub: every class
    with its cells."""
    pair = (Disc(0.16, 0.22, 0.13, 0.05), Disc(0.48, 0.2, 0.13, 0.05))
    shroud = Zone((0.02, 0.0, 0.55, 0.43), pair, 0.05, 0.0, False)
    bare = Zone(None, (Disc(0.58, 0.36, 0.1, 0.04),), 0.03, 0.02, False)
    pusher = Zone(None, (Disc(0.3, 0.12, 0.11, 0.05),), 0.03, 0.01, True)
    opening = ((0.03, 0.01), (0.6, 0.02), (0.55, 0.41), (0.3, 0.36), (0.05, 0.4))
    cases = [
        ((0.65, 0.43), opening, (None, (0.1, 0.05, 0.3, 0.2)), (shroud, bare, pusher)),
        ((0.65, 0.43), None, (), (bare,)),
        ((0.65, 0.43), opening, (), ()),
    ]
    assert compiled(parting)
    here = [face.face_classes(*case) for case in cases]
    source = interpreted(parting)
    monkeypatch.setattr(face, "FaceRows", source.FaceRows)
    monkeypatch.setattr(face, "part_all", source.part_all)
    there = [face.face_classes(*case) for case in cases]
    assert [unlike(a, b) for a, b in zip(here, there, strict=True)] == [[], [], []]
    assert len(here[0].area) > 10


def test_a_figure_without_a_value_is_found_compiled_and_interpreted():
    nan, source = math.nan, interpreted(valueless).valueless
    for values, told in (
        ((1.0, "a", (2.0, (nan,))), True),
        ((Disc(1.0, nan, 2.0),), True),
        ((1.0, None, 3, "nan", ("x", ()), True, math.inf), False),
        ((), False),
    ):
        assert valueless.valueless(values) is told
        assert source(values) is told


def test_a_coolers_own_air_is_the_same_compiled_and_interpreted():
    """A face with one fan behind it, drawn and standing, at rest and on the road."""
    one = np.ones(4)
    curve = stack([stack([generic_curve(Rating(0.3, 80.0, "curved", 0.9, 0.04, 0.25))])] * 4)
    path = OwnPath(0.03 * one, 0.05 * one, 0.04 * one, 3.0 * one, curve, one, 0.4 * one, -0.1 * one)
    given = (np.array([0.0, 0.0, 15.0, 40.0]), np.array([1.0, 0.4, 0.0, 1.0]), 1.15 * one)
    assert core_from_source()("air.own_air").own_flow(path, *given) == pytest.approx(own_flow(path, *given), abs=1e-9)


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
