"""The face parted into classes: areas, shares, nodes and corner losses against what a ruler says."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from keelroom.core.air.face import BAY, FRONT, GRID, Disc, Zone, as_lanes, face_classes, lane_of_rows, padded, widened
from keelroom.core.air.network import incidence
from keelroom.core.outline import rectangle

SIZE = (0.66, 0.43)
SHROUD = (0.0, 0.0, *SIZE)


def shrouded(*discs, depth=0.05):
    return Zone(SHROUD, tuple(discs), depth, 0.0, False)


def bare(disc, gap=0.012, pusher=False):
    return Zone(None, (disc,), 0.0, gap, pusher)


def test_a_full_shroud_has_the_whole_face_and_turns_only_beyond_its_fans():
    classes = face_classes(SIZE, None, (None,), (shrouded(Disc(0.33, 0.215, 0.2)),))
    assert classes.area.sum() == pytest.approx(SIZE[0] * SIZE[1])
    assert set(classes.rear) == {2.0}
    assert set(classes.front) == {float(FRONT)}
    assert classes.corner.min() < 0.02
    assert classes.corner.max() > 1.0
    under_the_fan = classes.area[classes.corner < 0.02].sum()
    assert np.pi * 0.2**2 * 0.95 < under_the_fan < np.pi * 0.225**2 * 1.1
    assert np.all(classes.covered == 1.0)


def test_a_deeper_shroud_turns_less():
    shallow, deep = (face_classes(SIZE, None, (), (shrouded(Disc(0.33, 0.215, 0.15), depth=d),)) for d in (0.02, 0.1))
    loss = [float((c.corner * c.area).sum()) for c in (shallow, deep)]
    assert loss[1] == pytest.approx(loss[0] / 25, rel=0.02), "the turn counts with the square of width over depth"


def test_the_opening_hides_and_covers_cover():
    opening = rectangle(0.1, 0.05, 0.4, 0.3)
    classes = face_classes(SIZE, opening, ((0.1, 0.05, 0.2, 0.3),), ())
    assert classes.area.sum() == pytest.approx(0.4 * 0.3, rel=0.01)
    under = classes.area[classes.covered[:, 0] > 0].sum()
    assert under == pytest.approx(0.2 * 0.3, rel=0.02)
    assert set(classes.rear) == {float(BAY)}


def test_a_face_behind_solid_metal_is_one_class_of_no_area():
    classes = face_classes(SIZE, rectangle(5.0, 5.0, 0.1, 0.1), (None,), (shrouded(Disc(0.3, 0.2, 0.1)),))
    assert classes.area.sum() == 0.0
    assert classes.mix.shape == (*GRID, 1)


def test_where_bare_fans_meet_the_nearer_has_the_point():
    zones = (bare(Disc(0.2, 0.2, 0.15)), bare(Disc(0.42, 0.2, 0.15)))
    classes = face_classes(SIZE, None, (), zones)
    left, right = (classes.area[classes.rear == node].sum() for node in (2, 3))
    assert left == pytest.approx(right, rel=0.02)
    both = 2 * np.pi * 0.162**2
    assert left + right < both


def test_a_pusher_belongs_to_the_front_and_its_hub_hides_the_core():
    disc = Disc(0.33, 0.2, 0.18, 0.06)
    ahead = face_classes(SIZE, None, (), (bare(disc, pusher=True),))
    assert set(ahead.front) == {0.0, 2.0}
    assert SIZE[0] * SIZE[1] - ahead.area.sum() == pytest.approx(np.pi * 0.06**2, rel=0.06)
    behind = face_classes(SIZE, None, (), (bare(disc),))
    assert behind.area.sum() == pytest.approx(SIZE[0] * SIZE[1])


@given(st.floats(0.05, 0.6), st.floats(0.05, 0.38), st.floats(0.05, 0.2), st.booleans())
def test_every_point_is_in_one_class_or_hidden(x, y, radius, with_shroud):
    zone = shrouded(Disc(x, y, radius)) if with_shroud else bare(Disc(x, y, radius))
    classes = face_classes(SIZE, rectangle(0.05, 0.0, 0.5, 0.43), (None, (0.1, 0.1, 0.3, 0.2)), (zone,))
    shares = classes.mix.sum(axis=2)
    assert shares.min() >= 0.0
    assert shares.max() <= 1.0 + 1e-12
    assert classes.area.sum() == pytest.approx(0.5 * 0.43, rel=0.02)


def test_merged_lanes_stand_for_all_lanes():
    mix = face_classes(SIZE, None, (), (shrouded(Disc(0.33, 0.215, 0.2)),)).mix
    for crossflow in (True, False):
        lanes = as_lanes(mix, crossflow, 1)
        assert lanes.weight.sum() == pytest.approx(1.0)
        assert len(lanes.weight) < (16 if crossflow else 24)
        rows = mix if crossflow else mix.transpose(1, 0, 2)
        back = lanes.kinds[lanes.which.astype(int)][lane_of_rows(mix, crossflow, 1)]
        assert len(lanes.kinds) == len({cell.tobytes() for row in mix for cell in row})
        assert np.array_equal(back, rows)
    assert len(as_lanes(mix, True, 2).weight) == 16, "lanes of different passes carry different coolant"


def test_widening_and_padding_change_no_figure():
    classes = face_classes(SIZE, None, (None,), (shrouded(Disc(0.33, 0.215, 0.2)),))
    wide = widened(classes, 8)
    assert len(wide.area) % 8 == 0
    assert wide.area.sum() == pytest.approx(classes.area.sum())
    assert np.array_equal(wide.mix[:, :, : classes.mix.shape[2]], classes.mix)
    assert widened(wide, 8) is wide
    lanes = as_lanes(classes.mix, True, 1)
    more = padded(lanes, 20, len(lanes.kinds) + 3, 8)
    assert more.weight.sum() == pytest.approx(1.0)
    assert more.which.shape == (20, 24)
    assert more.kinds.shape == (len(lanes.kinds) + 3, 8)


def test_incidence_leads_every_branch_from_a_node_to_a_node():
    found = incidence(np.array([0, 0, 3]), np.array([2, 1, 2]), (2, 3), (False, True))
    grille, leaving, bypass = found[:3]
    assert grille.tolist() == [-1, 0, 0, 0]
    assert leaving.tolist() == [0, 1, 0, 0]
    assert bypass.tolist() == [1, -1, 0, 0]
    leak, spill = found[3:5]
    assert leak.tolist() == [0, 1, -1, 0], "bay air is drawn into the shroud"
    assert spill.tolist() == [1 * -1, 0, 0, 1], "a pusher's air spills back to the front"
    puller, pusher = found[-2:]
    assert puller.tolist() == [0, -1, 1, 0]
    assert pusher.tolist() == [1, 0, 0, -1]
    inner = found[2:]
    assert np.all(inner.sum(axis=1) == 0)


@pytest.mark.parametrize("count", [3, 18, 36])
def test_any_number_of_covers_counts_only_what_occurs(count):
    """Strips side by side, each under one cover: as many classes as strips, each of its own area, wherever the limit
    of a number lies."""
    width = SIZE[0] / count
    covers = tuple((n * width, 0.0, width, SIZE[1]) for n in range(count))
    classes = face_classes(SIZE, None, covers, ())
    assert classes.area.sum() == pytest.approx(SIZE[0] * SIZE[1])
    assert (classes.covered * classes.area[:, None]).sum(axis=0) == pytest.approx(SIZE[0] * SIZE[1] / count, rel=0.02)
    everywhere = face_classes(SIZE, None, (None,) * count, ())
    assert everywhere.covered.tolist() == [[1.0] * count]


def test_any_number_of_zones_is_told_apart():
    """Twenty small shrouds in a row, every one a node of its own."""
    step = SIZE[0] / 20
    zones = tuple(
        Zone((n * step, 0.0, step, SIZE[1]), (Disc((n + 0.5) * step, 0.2, 0.01),), 5.0, 0.0, n % 2 == 1)
        for n in range(20)
    )
    classes = face_classes(SIZE, None, (), zones)
    pullers = {float(n) for n in range(2, 22, 2)}
    assert set(classes.rear) == {float(BAY)} | pullers
    assert set(classes.front) == {float(FRONT)} | {float(n) for n in range(3, 22, 2)}
    for node in pullers:
        assert classes.area[classes.rear == node].sum() == pytest.approx(SIZE[0] * SIZE[1] / 20, rel=0.5)
