"""A fan the engine holds: the core moves from under it, its tips are trimmed, a spacer brings it back; and a pusher
with a shroud of its own."""

import math

import numpy as np
import pytest

from keelroom.assess.acts.registry import edit_for
from keelroom.assess.assess import assess, first_wave
from keelroom.assess.fit.package_bodies import standoff
from keelroom.assess.inputs.air_parts import air_parts, held_off, immersion_of
from keelroom.assess.inputs.airside import air_side, zones_of
from keelroom.assess.inputs.fans import fan_curve, shaft_of
from keelroom.document.edits import apply
from keelroom.document.file import load
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
FOUND = BUILD.of_kind("as_found")
CAR = BUILD.model_copy(update={"active": FOUND.id})
PACKAGE = ("packages", FOUND.id)
FAN = (*PACKAGE, "fans", FOUND.fans[0].id)
PLAN = ("packages", BUILD.active)
SECOND = (*PLAN, "fans", BUILD.package.fans[1].id)


def fan_of(build):
    return build.package.fans[0]


def air(build):
    return first_wave(build).figures_of("idle").airflow_fans_on


def held(nose, **more):
    changes = [((*FAN, field), text, "length") for field, text in more.items()]
    return on(CAR, ((*FAN, "nose"), nose, "length"), *changes)


def test_a_core_that_moves_forward_leaves_its_fan_behind():
    """By hand: 8 in from the support plane, 3 1/4 in of it place and core: 4 3/4 in off the fins; an inch forward, an
    inch more; a spacer an inch thick, an inch less. The air is that of a bare fan so far off, wherever the core
    stands."""
    place = ((*PACKAGE, "place", "z"), "1 in", "length")
    depth = ((*PACKAGE, "core", "depth"), "2 1/4 in", "length")
    bare = ((*PACKAGE, "shroud", "kind"), "none")
    build = on(held("8 in"), place, depth, bare)
    inch = 0.0254
    assert held_off(build.package, fan_of(build)) == pytest.approx(4.75 * inch)
    forward = on(build, ((*PACKAGE, "place", "z"), "0 in", "length"))
    assert held_off(forward.package, fan_of(forward)) == pytest.approx(5.75 * inch)
    assert standoff(forward.package, fan_of(forward)) == pytest.approx(5.75 * inch)
    assert air(forward) < air(build)
    spaced = on(forward, ((*FAN, "spacer"), "1 in", "length"))
    assert air(spaced) == pytest.approx(air(build), rel=1e-9)
    typed = on(CAR, place, depth, bare, ((*PACKAGE, "shroud", "fan_gap"), "4.75 in", "length"))
    assert air(typed) == pytest.approx(air(build), rel=1e-9)
    moved = on(typed, ((*PACKAGE, "place", "z"), "0 in", "length"))
    assert air(moved) == pytest.approx(air(typed), rel=1e-9), "one that is not measured goes with the core"


def test_tips_trimmed_by_an_inch_by_hand():
    """18 in over a 6 in hub, an inch off each tip: 16/18 of the tip speed, (16² − 6²)/(18² − 6²) = 0.7639 of what is
    swept; flow 0.6790, pressure 0.7901, shaft power 0.5365. The hole they leave is theirs."""
    sizes = [((*FAN, field), text, "length") for field, text in (("diameter", "18 in"), ("hub_diameter", "6 in"))]
    whole = on(CAR, *sizes)
    cut = on(whole, ((*FAN, "tip_trim"), "1 in", "length"))
    before, after = fan_curve(fan_of(whole)), fan_curve(fan_of(cut))
    assert float(after.flow / before.flow) == pytest.approx(0.8889 * 0.7639, abs=1e-4)
    assert float(after.pressure / before.pressure) == pytest.approx(0.7901, abs=1e-4)
    assert shaft_of(fan_of(cut)) / shaft_of(fan_of(whole)) == pytest.approx(0.5365, abs=1e-4)
    assert float(after.hole) == float(before.hole)
    assert zones_of(cut.package)[0][0].discs[0].radius == pytest.approx(8 * 0.0254)
    assert air(cut) < air(whole)


def shrouded(nose):
    """The same fan, 5 in deep, blades 2 1/2 in of it, in a shroud 4 in deep."""
    full = ((*PACKAGE, "shroud", "kind"), "full"), ((*PACKAGE, "shroud", "depth"), "4 in", "length")
    return on(held(nose), *full, ((*FAN, "depth"), "5 in", "length"))


def test_blades_that_leave_their_shroud_draw_from_the_bay():
    """By hand, fins end at 2 1/2 in: measured 5 in the blades begin 2 1/2 in off them, and 1 1/2 of their 2 1/2 in
    stand in the shroud, six tenths. Out of it, the slot round their tips leaks: less air the further."""
    assert CAR.package.core.depth.si + CAR.package.place.z.si == pytest.approx(2.5 * 0.0254)
    seat, past = shrouded("5 in"), shrouded("8.25 in")
    assert immersion_of(seat.package, fan_of(seat)) == pytest.approx(0.6)
    assert immersion_of(past.package, fan_of(past)) == 0.0
    whole, out, far = (air(build) for build in (seat, shrouded("6.5 in"), past))
    assert far < out < whole
    slot, seated = (air_side(build, build.package).network.leak_area[0] for build in (past, seat))
    # 0.4 of 2 1/2 in out, and 1 3/4 in past the shroud, half of the slot all round
    radius = fan_of(CAR).diameter.si / 2
    assert slot - seated == pytest.approx(2 * math.pi * radius * (1.0 + 1.75) * 0.0254 * 0.5, rel=1e-9)


@pytest.mark.parametrize(
    ("nose", "code", "level"),
    [("7 in", "immersion", "note"), ("3.3 in", "fan_meets_core", "doubt"), ("2.7 in", "fan_meets_core", "problem")],
)
def test_a_spacer_that_is_offered_cures(nose, code, level):
    build = shrouded(nose)
    finding = next(one for one in assess(build).findings if one.code == code)
    assert finding.level == level
    assert finding.fix
    for fix in finding.fix:
        after = apply(build, edit_for(build, fix))
        assert {one.code for one in assess(after).findings}.isdisjoint({code, "fan_meets_core"}), fix


def test_a_pushers_own_shroud_pulls_over_all_it_covers():
    """Its rectangle is the share of the face it draws over; a wider one swept more and moves more; it leaks by a
    sixteenth all round, and no shroud behind the core loses any of its leak to it."""
    opening = ("survey", "opening")
    pusher = on(BUILD, ((*SECOND, "mount"), "pusher"), *(((*opening, side), None) for side in ("width", "height")))
    ducted = on(pusher, ((*SECOND, "duct_width"), "13 in", "length"), ((*SECOND, "duct_height"), "14 in", "length"))
    zones, nodes = zones_of(air_parts(ducted.package))
    own = zones[nodes[1] - 2]
    assert own.pusher
    assert own.rectangle[2:] == pytest.approx((13 * 0.0254, 14 * 0.0254))
    side = air_side(ducted, ducted.package)
    swept = side.classes.area[side.classes.front == nodes[1]].sum()
    hub = ducted.package.fans[1].hub_diameter.si
    assert swept == pytest.approx(13 * 14 * 0.0254**2 - math.pi / 4 * hub**2, rel=0.02)
    leaks = side.network.leak_area
    assert leaks[nodes[1] - 2] == pytest.approx(2 * 27 * 0.0254 * 1.6e-3, rel=1e-9)
    bare = air_side(pusher, pusher.package).network.leak_area
    assert np.delete(leaks, nodes[1] - 2) == pytest.approx(np.delete(bare, nodes[1] - 2))
    assert air(ducted) > air(pusher)
