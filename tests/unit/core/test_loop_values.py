"""The coolant circuit's small laws against figures worked by hand."""

import itertools
import math

import numpy as np
import pytest

from keelroom.core.loop.bubbles import clearing, drift
from keelroom.core.loop.hoses import meets, worm_clamp
from keelroom.core.loop.pressures import absolute
from keelroom.core.loop.pump import PumpCurve, rated_curve, typed_curve, water_power
from keelroom.core.loop.route import flattened, rod_steps, routed, traced
from keelroom.core.loop.volume import TankRoom, bought, built, line_volume, room_wanted
from keelroom.errors import InputError

INCH = 0.0254


def test_two_legs_and_a_bend():
    """300 and 200 mm at a right angle round 80 mm: 220 straight, a quarter of 80 mm (125.7), 120 straight."""
    route = routed(((0.0, 0.0, 0.0), (0.3, 0.0, 0.0), (0.3, 0.2, 0.0)), 0.08)
    assert route.straights == pytest.approx((0.22, 0.12))
    assert route.length == pytest.approx(0.22 + 0.08 * math.pi / 2 + 0.12)
    assert route.right_angles == pytest.approx(1.0)
    assert route.tightest == pytest.approx(0.08)
    assert route.longest_straight == pytest.approx(0.22)


def test_bends_share_a_piece_that_is_too_short_for_both():
    """Two right angles 100 mm apart that want 80 mm each: 50 mm each, and no straight between them."""
    route = routed(((0.0, 0.0, 0.0), (0.3, 0.0, 0.0), (0.3, 0.1, 0.0), (0.6, 0.1, 0.0)), 0.08)
    assert [bend.radius for bend in route.bends] == pytest.approx([0.05, 0.05])
    assert route.straights[1] == pytest.approx(0.0, abs=1e-9)


def test_a_rod_is_turned_in_the_hand_between_bends_in_different_planes():
    """Right, then up: the second plane stands square to the first. Back into the same plane the other way: half a
    turn."""
    square = rod_steps(routed(((0.0, 0.0, 0.0), (0.3, 0.0, 0.0), (0.3, 0.0, 0.3), (0.3, 0.3, 0.3)), 0.05))
    assert math.degrees(abs(square[1].twist)) == pytest.approx(90.0)
    assert [round(math.degrees(step.angle)) for step in square] == [90, 90, 0]
    s_shape = rod_steps(routed(((0.0, 0.0, 0.0), (0.3, 0.0, 0.0), (0.3, 0.3, 0.0), (0.6, 0.3, 0.0)), 0.05))
    assert math.degrees(abs(s_shape[1].twist)) == pytest.approx(180.0)


@pytest.mark.parametrize(
    "corners", [((0, 0, 0), (0.3, 0, 0), (0.3, 0.2, 0)), ((0, 0, 0), (0.2, 0.1, 0), (0.3, 0.3, 0.2), (0.1, 0.5, 0.3))]
)
def test_what_is_drawn_is_as_long_as_what_is_cut(corners):
    """An independent walk: the chords of a finely traced line add up to its developed length, and every bend keeps
    its radius."""
    route = routed(tuple(tuple(map(float, c)) for c in corners), 0.06)
    points = np.array(traced(route, 200))
    assert np.sqrt((np.diff(points, axis=0) ** 2).sum(axis=1)).sum() == pytest.approx(route.length, rel=1e-4)
    assert tuple(points[0]) == pytest.approx(corners[0])
    assert tuple(points[-1]) == pytest.approx(corners[-1])


def test_a_line_in_one_plane_is_flat_and_seen_at_its_true_length():
    route = routed(((0.0, 0.0, 0.0), (0.3, 0.0, 0.3), (0.3, 0.2, 0.3)), 0.06)
    seen, off = flattened(route, 200)
    assert off == pytest.approx(0.0, abs=1e-9)
    assert sum(math.dist(a, b) for a, b in itertools.pairwise(seen)) == pytest.approx(route.length, rel=1e-4)


def test_a_straight_line_has_no_bend_and_one_point_is_none():
    assert routed(((0.0, 0.0, 0.0), (0.1, 0.0, 0.0), (0.3, 0.0, 0.0)), 0.05).bends == ()
    with pytest.raises(ValueError, match="two ends"):
        routed(((0.1, 0.1, 0.1), (0.1, 0.1, 0.1)), 0.05)


@pytest.mark.parametrize(
    ("hose", "neck", "way"),
    [
        (1.5, 1.5, "fits"),
        (1.5, 1.5625, "stretched"),
        (1.5, 1.75, "reducer"),
        (1.5, 1.47, "clamped"),
        (1.75, 1.5, "sleeve"),
        (1.75, 1.25, "reducer"),
    ],
)
def test_how_hose_and_neck_meet(hose, neck, way):
    """Common practice: a sixteenth is stretched, a sleeve takes up to three eighths, more wants a reducer."""
    assert meets(hose * INCH, neck * INCH).way == way


def test_the_clamp_has_a_quarter_of_its_range_to_go():
    """1 1/2 in and two walls of 4.5 mm are 1.854 in: size 24 closes to 2.0, a quarter of 0.9 from it is 1.775; size
    28 it is."""
    assert worm_clamp(1.5 * INCH + 9e-3).name.endswith("28")


def proof_pressures_by_hand():
    """A cap of 100 kPa at 0.5 m; the pump's inlet at 0.1 m with 2 kPa lost on the way: 100 + 1020 x 9.80665 x 0.4 /
    1000 - 2 = 102.0 kPa."""
    found = absolute(np.array([2000.0, 0.0]), np.array([0.5, 0.1]), 1020.0, (0, 100e3))
    assert found[1] == pytest.approx(100e3 + 4001.1 - 2000.0, abs=0.2)


def test_a_bubble_in_a_heater_hose_and_in_a_radiator_hose():
    """Upright: 0.35 root (9.81 x 0.0159) is 0.138 m/s, of 38 mm 0.214; between level and upright it is fastest, 0.64
    roots at 33 degrees."""
    assert drift(0.0159, math.pi / 2) == pytest.approx(0.138, rel=5e-3)
    assert drift(0.0381, math.atan(0.35 / 0.54)) == pytest.approx(0.6435 * math.sqrt(9.80665 * 0.0381), rel=1e-3)


def test_what_clears_a_line_of_air():
    """By hand, of 38 mm, root(gD) 0.6113: level by Wisner 0.825 of it, 0.504 m/s; at 45 degrees both say 1.035 of it,
    0.633; upright Kent 1.23, 0.752. Published measurements lie at 0.8 to 1.1 up to 45 degrees, all over the drift."""
    for degrees, speed in ((0, 0.5043), (45, 0.6325), (90, 0.7519)):
        assert clearing(0.0381, math.radians(degrees)) == pytest.approx(speed, rel=2e-3)
    for degrees in range(0, 46, 5):
        share = clearing(0.0381, math.radians(degrees)) / math.sqrt(9.80665 * 0.0381)
        assert 0.8 <= share <= 1.1
        assert clearing(0.0381, math.radians(degrees)) > drift(0.0381, math.radians(degrees))


def test_a_pump_by_its_rating_and_by_points():
    curve = rated_curve(60e3, 1.5e-3)
    assert curve.pressure(1.5e-3) == pytest.approx(0.0)
    assert curve.pressure(0.75e-3, 0.5) == pytest.approx(0.0), "half speed: half the flow, a quarter of the head"
    assert typed_curve([(0.0, 60e3), (1.5e-3, 0.0)]).pressure(0.0) == pytest.approx(60e3)
    assert water_power(30e3, 1e-3) == pytest.approx(30.0)
    assert PumpCurve(1.0, 0.0, 0.0).pressure(5.0) == 1.0


@pytest.mark.parametrize(
    "points", [[(0.0, 10e3)], [(0.0, 10e3), (1e-3, 12e3)], [(0.0, 10e3), (1e-3, 10e3)], [(1e-3, 9e3), (1e-3, 8e3)]]
)
def test_what_is_no_pump_curve_is_refused(points):
    with pytest.raises(InputError, match="pump curve"):
        typed_curve(points)


def test_what_is_bought_by_hand():
    """12 L at half, 35 % of it left as water: 6 L of glycol, 1.8 of water; left as the same mix: 3.9 and 3.9; 70 %
    water left: no room for 6."""
    found = bought(12.0, 0.5, 0.35, 0.0)
    assert (found.glycol, found.water) == pytest.approx((6.0, 1.8))
    assert found.reached
    found = bought(12.0, 0.5, 0.35, 0.5)
    assert (found.glycol, found.water) == pytest.approx((3.9, 3.9))
    short = bought(12.0, 0.5, 0.7, 0.0)
    assert (short.glycol, short.share, short.reached) == (pytest.approx(3.6), pytest.approx(0.3), False)


def test_a_closed_circuit_by_hand():
    """Half a litre of air at 20 °C and 101.325 kPa, 0.3 L grown into it at 90 °C: 101.325 x (0.5/0.2 x 363.15/293.15
    - 1) = 212.5 kPa over the outdoors; with nothing grown and still cold, none; with no air left, without end."""
    assert built(0.5e-3, 0.3e-3, 101325.0, 90.0) == pytest.approx(212.47e3, rel=1e-3)
    assert built(0.5e-3, 0.0, 101325.0, 20.0) == 0.0
    assert built(0.5e-3, 0.5e-3, 101325.0, 90.0) == math.inf


def test_room_for_the_growth():
    """10 L that grow by 6 %: 0.6 L, 0.3 stays in cold, 0.3 of air: 1.2 wanted; in 1.5 L the cold mark stands at 40
    %."""
    room = room_wanted(10.0, 0.06)
    assert room.wanted == pytest.approx(1.2)
    assert room.mark(1.5) == pytest.approx(1 - 0.9 / 1.5)
    assert TankRoom(0.3, 0.6, 0.3).mark(0.5) == 0.0
    assert line_volume(0.0381, 1.0) == pytest.approx(1.140e-3, rel=1e-3)
