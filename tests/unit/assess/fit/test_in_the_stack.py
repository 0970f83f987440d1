"""Neck, cap, gasket, pads and trim take room like everything else; a bought pan's ring sits where it was bought; a core
may lie flat. Values by hand."""

import math

import numpy as np
import pytest

from keelroom.assess.assess import first_wave
from keelroom.assess.fit.clearances import fit_up
from keelroom.assess.fit.package_bodies import parts_of_package
from keelroom.assess.fit.points import part_points
from keelroom.assess.fit.shroud_plan import trim_plan
from keelroom.assess.placing import hidden_strips, opening_on_face, stand
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.package import Cut
from keelroom.units import INCH
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
P1 = ("packages", "p1")


def body(build, key):
    return next((one for one in parts_of_package(build.survey, build.package) if one.key == key), None)


def low_and_high(build, key, axis):
    """Where a body begins and ends along an axis of the survey [m]."""
    solid = body(build, key).solid
    return tuple(solid.centre[axis] + way * solid.reach(axis) for way in (-1, 1))


def test_a_neck_with_its_cap_comes_as_near_the_hood_as_it_stands_up():
    """The core's outlet tank is the right one; the neck is on top of it, and what it stands up by is off the room to
    the hood: 3 in more, 3 in less, on an upright core."""
    upright = on(BUILD, ((*P1, "place", "lean"), "0 °", "angle"), ((*P1, "place", "y"), "2 in", "length"))
    assert body(upright, "neck") is None, "not measured, not there"

    def room(build):
        found = fit_up(build, build.package).gaps
        return next(gap.gap for gap in found if gap.part.key == "neck" and gap.other.key.startswith("hood"))

    short, tall = (on(upright, ((*P1, "core", "neck_height"), text, "length")) for text in ("1 in", "2 in"))
    hood = math.cos(math.atan2(2.75, 24.0))  # the hood's slope: the gap is square to it
    assert room(short) - room(tall) == pytest.approx(INCH * hood, rel=0.05)
    solid, at = body(short, "neck").solid, stand(short.survey, short.package)
    assert solid.centre[0] == pytest.approx(at.x + 26 * INCH + short.package.core.tank_size.si / 2, abs=1e-6)
    assert low_and_high(short, "neck", 1)[0] == pytest.approx(at.y + 17 * INCH, abs=1e-6)
    assert body(on(short, ((*P1, "loop", "core_neck"), "none")), "neck") is None
    over = on(short, ((*P1, "core", "neck_height"), "5 in", "length"))
    assert any(one.code.startswith("fit_") and "neck" in repr(one.figures).lower() for one in first_wave(over).findings)


def test_a_gasket_under_the_shroud_puts_shroud_and_fans_further_back():
    upright = on(BUILD, ((*P1, "place", "lean"), "0 °", "angle"))
    padded = on(upright, ((*P1, "shroud", "gasket"), "1/4 in", "length"))
    for key in ("shroud", "ring:fan1", "motor:fan2"):
        was, now = low_and_high(upright, key, 2), low_and_high(padded, key, 2)
        assert np.subtract(now, was) == pytest.approx([INCH / 4] * 2), key
    reads = {term.path[-1] for term in body(padded, "motor:fan1").low[2]}
    assert "gasket" in reads, "it is one of the readings the gap behind the motor hangs on"


def test_pads_stand_under_the_tanks_and_trim_takes_back_what_was_cut():
    padded = on(BUILD, ((*P1, "place", "lean"), "0 °", "angle"), ((*P1, "mounting", "pads"), "1/2 in", "length"))
    at = stand(padded.survey, padded.package)
    for name in ("left", "right"):
        assert low_and_high(padded, f"pad:{name}", 1) == pytest.approx((at.y - INCH / 2, at.y))
    hidden = dict(hidden_strips(BUILD.survey, BUILD.package))
    edge = max(hidden, key=hidden.get)

    def left(trim):
        cut = Cut(id="cut1", edge=edge, amount=quantity("1/2 in", "length"), trim=quantity(trim, "length"))
        build = on(BUILD, ((*P1, "cuts"), (cut,)))
        return dict(hidden_strips(build.survey, build.package))[edge]

    lean = math.cos(stand(BUILD.survey, BUILD.package).lean)
    assert hidden[edge] - left("0 in") == pytest.approx(INCH / 2, rel=0.01)
    assert left("1/8 in") - left("0 in") == pytest.approx(
        INCH / 8 * (lean if edge in ("top", "bottom") else 1), rel=0.01
    )


def test_a_bought_ring_off_centre_puts_the_fan_off_centre():
    """A pan 26 by 17 in seats between the tanks; its ring 2 in left of the middle asks the fan to be there."""
    bought = on(
        BUILD,
        ((*P1, "fans"), BUILD.package.fans[:1]),
        ((*P1, "fans", "fan1", "x"), "13 in", "length"),
        ((*P1, "shroud", "blank_width"), "26 in", "length"),
        ((*P1, "shroud", "blank_height"), "17 in", "length"),
    )
    moved = on(bought, ((*P1, "shroud", "ring_x"), "11 in", "length"))
    plans = [trim_plan(build.package) for build in (bought, moved)]
    assert [plan.off[0] for plan in plans] == pytest.approx([0.0, 2 * INCH], abs=1e-4)
    assert plans[1].blank.rings[0][0] == pytest.approx(11 * INCH)


def test_the_walls_and_tabs_of_a_pan_are_points_a_strip_can_go_to():
    eared = on(BUILD, ((*P1, "shroud", "ears"), "3/4 in", "length"))
    points = part_points(eared.survey, eared.package)
    left, right = points["shroud:wall_left"], points["shroud:wall_right"]
    assert right.at[0] - left.at[0] == pytest.approx(26 * INCH)
    assert (left.faces, points["shroud:wall_top"].faces) == ("side", "up")
    tab = points["shroud:tab_upper_left"]
    assert left.at[0] - tab.at[0] == pytest.approx(0.375 * INCH)
    assert "shroud:tab_upper_left" not in part_points(BUILD.survey, BUILD.package)


def test_a_core_may_lie_flat_with_its_fans_under_or_over_it():
    """At 90° its face looks up, 17 in of it run to the rear, and what stood behind it lies under it; at −90° over it.
    No panel hides any of its face."""
    flat, turned = (
        on(BUILD, ((*P1, "place", "lean"), text, "angle"), ((*P1, "place", "y"), "10 in", "length"))
        for text in ("90 °", "-90 °")
    )
    low, high = low_and_high(flat, "core", 2)
    assert high - low == pytest.approx(17 * INCH, abs=1e-6)
    assert low_and_high(flat, "motor:fan1", 1)[1] < low_and_high(flat, "core", 1)[0] + 1e-6
    assert low_and_high(turned, "motor:fan1", 1)[0] > low_and_high(turned, "core", 1)[1] - 1e-6
    assert opening_on_face(flat.survey, flat.package) is None
    assert all(case.figures or case.needs for case in first_wave(flat).cases)
