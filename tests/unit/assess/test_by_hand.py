"""Figures worked on paper first: the arithmetic stands beside each, so that it can be done again without the code."""

import math

import numpy as np
import pytest
from scipy.optimize import brentq

from keelroom.assess.assess import assess
from keelroom.assess.electrical.harness import harness
from keelroom.assess.fit.clearances import fit_up, unmeasured
from keelroom.assess.fit.shroud_plan import pan_of, trim_plan
from keelroom.assess.fit.survey_bodies import hood_line, neighbours
from keelroom.assess.placing import stand
from keelroom.assess.questions.places import find_places
from keelroom.assess.questions.response import value_for
from keelroom.assess.report import as_table, plain_verdict
from keelroom.core.air.fan import typed_curve
from keelroom.core.electrical.wire import AMPACITY, conductor, conductor_temperature
from keelroom.core.outline import clipped, clipped_line, crossing, rectangle, to_edge, within
from keelroom.core.packaging.fixings import Beam, Section, strap
from keelroom.core.packaging.sheet import METALS, edge_sag
from keelroom.core.packaging.shroud import Blank, trim, trims_to_seat
from keelroom.core.thermal.march import march
from keelroom.document.edits import apply, set_value
from keelroom.document.fields import get
from keelroom.document.file import load
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.survey import Hood, Obstacle, Survey
from keelroom.gauges import awg_area
from tests.acts import doing
from tests.changes import on
from tests.conftest import DEMO
from tests.told import said_by

BUILD = load(DEMO)
P1, P3 = ("packages", "p1"), ("packages", "p3")
INCH = 0.0254
METAL = METALS["al_5052"]._replace(young=70e9, strength=200e6, density=2700.0)


# beams


def test_an_edge_under_a_hand_sags_as_a_simply_supported_beam():
    """1 mm sheet counts 30 mm wide: I = 30·1³/12 = 2.5 mm⁴; 5·20·0.6³/(384·70e9·2.5e-12) = 21.6/67.2 m."""
    assert edge_sag(METAL, 1e-3, 0.6, 0.0, 20.0) == pytest.approx(21.6 / 67.2, rel=1e-9)


def test_a_folded_edge_sags_by_the_section_of_an_angle():
    """Flat 30 × 1 and web 1 × 10 mm: centroid (30·0.5 + 10·6)/40 = 1.875; I = 2.5 + 30·1.375² + 83.333 + 10·4.125² =
    312.708 mm⁴."""
    inertia = 2.5 + 30 * 1.375**2 + 1000 / 12 + 10 * 4.125**2
    assert inertia == pytest.approx(312.708, abs=1e-3)
    assert edge_sag(METAL, 1e-3, 0.6, 10e-3, 20.0) == pytest.approx(21.6 / (384 * 70e9 * inertia * 1e-12), rel=1e-9)


def test_a_strap_is_a_cantilever_and_level_straps_bend_at_both_ends():
    """25 × 3 mm, 100 mm reach, 2 kg at 5 g = 98.0665 N. I = 25·27/12 = 56.25 mm⁴; M = 9.80665 Nm;
    9.80665·1.5e-3/56.25e-12 = 261.5 MPa.

    E 200 GPa: 98.0665·1e-3/(3·200e9·56.25e-12) = 2.9057 mm; √(33750/2)/2π = 20.68 Hz. Guided: half the moment, a
               quarter of the sag.
    """
    steel = METAL._replace(young=200e9, strength=300e6)
    free = strap(steel, Beam(Section(0.025, 3e-3)), 0.1, 2.0, 5.0)
    assert free.stress == pytest.approx(261.51e6, rel=1e-4)
    assert free.sag == pytest.approx(2.9057e-3, rel=1e-4)
    assert free.frequency == pytest.approx(20.675, rel=1e-3)
    assert free.safety == pytest.approx(300 / 261.51, rel=1e-4)
    level = strap(steel, Beam(Section(0.025, 3e-3)), 0.1, 2.0, 5.0, guided=True)
    assert level.stress == pytest.approx(130.76e6, rel=1e-4)
    assert level.sag == pytest.approx(0.72642e-3, rel=1e-4)
    assert level.frequency == pytest.approx(41.35, rel=1e-3)


def test_a_rib_counts_by_the_parallel_axis_theorem():
    """25 × 3 with a rib 3 × 10: areas 75 and 30, centroid (75·1.5 + 30·8)/105 = 3.3571; I = 56.25 + 258.67 + 250 +
    646.68 mm⁴."""
    inertia, outer = Section(0.025, 3e-3, 10e-3).bending()
    assert inertia * 1e12 == pytest.approx(1211.61, abs=0.01)
    assert outer * 1e3 == pytest.approx(13 - 3.35714, abs=1e-4)


# outlines


def test_what_lies_in_an_outline_with_upright_and_level_sides():
    """An L of 2 × 2 with its upper right quarter missing; points level with and beside its corners."""
    ell = ((0.0, 0.0), (2.0, 0.0), (2.0, 1.0), (1.0, 1.0), (1.0, 2.0), (0.0, 2.0))
    points = [
        (0.5, 0.5),
        (1.5, 0.5),
        (0.5, 1.5),
        (1.5, 1.5),
        (1.5, 1.0 - 1e-9),
        (1.5, 1.0 + 1e-9),
        (-0.1, 1.0),
        (2.1, 1.0),
        (0.5, 1.0),
        (1.0 - 1e-9, 1.5),
        (1.0 + 1e-9, 1.5),
    ]
    x, y = (np.array(side) for side in zip(*points, strict=True))
    assert within((x, y), ell).tolist() == [True, True, True, False, True, False, False, False, True, True, False]


def test_level_and_upright_lines_are_clipped_like_any_other():
    box = (0.5, 0.25, 1.0, 0.5)
    assert clipped_line((0.0, 0.5), (2.0, 0.5), box) == ((0.5, 0.5), (1.5, 0.5))
    assert clipped_line((1.0, 2.0), (1.0, -2.0), box) == ((1.0, 0.75), (1.0, 0.25))
    assert clipped_line((0.0, 0.8), (2.0, 0.8), box) is None, "level, above"
    assert clipped_line((0.4, 0.0), (0.4, 2.0), box) is None, "upright, left of it"
    assert clipped_line((0.0, 0.75), (2.0, 0.75), box) == ((0.5, 0.75), (1.5, 0.75)), "along its edge"
    (a, b), (c, d) = clipped_line((0.0, 0.0), (2.0, 1.0), box)  # y = x/2: enters at x 0.5, leaves at x 1.5
    assert (a, b, c, d) == pytest.approx((0.5, 0.25, 1.5, 0.75))
    assert set(clipped(rectangle(0, 0, 1, 1), box)) == {(0.5, 0.25), (1.0, 0.25), (1.0, 0.75), (0.5, 0.75)}


def test_outlines_that_cross_touch_or_run_back_are_told_by_their_edges():
    assert crossing(rectangle(0, 0, 1, 1)) is None
    assert crossing(((0, 0), (1, 1), (1, 0), (0, 1))) == (0, 2), "a bow tie: the first and the third edge"
    assert crossing(((0, 0), (2, 0), (1, 0), (1, 1))) == (0, 1), "runs back along itself, level"
    assert crossing(((0, 0), (0, 2), (0, 1), (1, 1))) == (0, 1), "and upright"
    assert crossing(((0, 0), (2, 0), (2, 1), (1, 0), (0, 1))) == (0, 2), "a corner that touches another edge"
    assert to_edge((1.0, 3.0), (0.0, 0.0), (0.0, 2.0)) == pytest.approx(math.sqrt(2)), "past the end of an upright edge"
    assert to_edge((1.0, 3.0), (0.0, 0.0), (4.0, 0.0)) == pytest.approx(3.0)
    assert to_edge((1.0, 1.0), (1.0, 1.0), (1.0, 1.0)) == 0.0


# copper


@pytest.mark.parametrize("gauge", [14, 10, 6])
def test_a_wire_at_its_table_current_is_at_its_table_temperature(gauge):
    """33 CFR 183.425 table 5, from memory: 105 °C in air of 30. At half the current the rise is 75/4 · (1 + α(T −
    20))/(1 + α·85): 45.46 °C."""
    wire = conductor(awg_area(gauge), False, "bare_awg")._replace(limit=105.0)
    amps = AMPACITY[105.0][gauge]
    assert conductor_temperature(wire, amps, 30.0) == pytest.approx(105.0, abs=0.01)
    half = brentq(lambda t: t - 30 - 75 / 4 * (1 + 0.00393 * (t - 20)) / (1 + 0.00393 * 85), 30, 105)
    assert half == pytest.approx(45.46, abs=0.01)
    assert conductor_temperature(wire, amps / 2, 30.0) == pytest.approx(half, abs=0.01)
    assert conductor_temperature(wire, 5 * amps, 30.0) == 400.0, "runs away"


# two passes


def test_two_passes_go_there_and_back():
    """Air 50 W/K a lane, ε = 0.8, coolant 100 W/K at 100 °C: e^(−0.8·50/100) = 0.67032 a pass.

    First pass in air of 20: 20 + 80·0.67032 = 73.6256. The second comes back: its right cell (air 50) first, then the
    left (30), e^(−0.2) = 0.818731 each: 50 + 23.6256·0.818731 = 69.3430, 30 + 39.3430·0.818731 = 62.2113. Heat
    100·(100 −
    62.2113).
    """
    capacity = np.full((1, 2, 2), 25.0)
    air = np.array([[[20.0, 20.0], [30.0, 50.0]]])
    conductance = np.full((1, 2, 2), -25.0 * math.log(0.2))
    found = march((capacity, air), conductance, (np.array([100.0]), np.array([100.0])), np.full((1, 2), 0.5), (2, 1))
    assert found.coolant_out[0] == pytest.approx(62.2113, abs=2e-4)
    assert found.heat[0] == pytest.approx(3778.87, abs=0.02)
    assert ((found.air_out - air) * 25.0).sum() == pytest.approx(3778.87, abs=0.02), (
        "what the coolant gives the air takes"
    )


# fans and pressures


def test_a_typed_curve_is_carried_straight_to_no_flow_and_to_no_pressure():
    """0.2, 0.4 m³/s at 100, 60 Pa: 200 Pa per m³/s, so 140 Pa at none and 0 at 0.7; the points themselves stay on
    it."""
    curve = typed_curve(((0.2, 100.0), (0.4, 60.0)), 0.1)
    assert float(curve.pressure) == pytest.approx(140.0)
    assert float(curve.flow) == pytest.approx(0.7)
    whole = typed_curve(((0.0, 90.0), (0.3, 0.0)), 0.1)
    assert (float(whole.flow), float(whole.pressure)) == pytest.approx((0.3, 90.0))


def test_the_pressure_ladder_climbs_over_the_fan_by_what_the_fan_gives():
    """Standing: air is drawn in, so the front is under the outdoor air, behind the core further, and the fan lifts it
    to the bay. At 65 mph (29.06 m/s) in air of 1.03 kg/m³ (1800 ft, 102 °F) the grille sees ½·1.03·29.06² = 435
    Pa."""
    figures = {case.case_id: case.figures for case in assess(BUILD).cases}
    idle = dict(figures["idle"].pressures)
    assert idle["at the grille"] == 0.0
    assert idle["behind the core, in the shroud"] < idle["ahead of the core"] < 0.0 < idle["in the bay"]
    rise = idle["in the bay"] - idle["behind the core, in the shroud"]
    assert [fan.pressure for fan in figures["idle"].fans] == pytest.approx([rise] * 2, rel=1e-6)
    road = dict(figures["cruise"].pressures)
    assert road["at the grille"] == pytest.approx(435, rel=0.02)
    assert (
        road["under the car"]
        < road["in the bay"]
        < road["behind the core, in the shroud"]
        < road["ahead of the core"]
        < 435
    )


def test_a_pan_wants_a_shroud_and_a_fan_in_it():
    assert pan_of(on(BUILD, ((*P1, "shroud", "kind"), "none")).package) is None
    assert pan_of(on(BUILD, ((*P1, "fans"), ())).package) is None
    made = pan_of(BUILD.package)
    assert (made.width / INCH, made.height / INCH) == pytest.approx((26.0, 17.0))
    assert [(round(x / INCH, 3), round(y / INCH, 3)) for x, y, _ in made.rings] == [(6.5, 8.5), (19.5, 8.5)]


# shrouds


def test_a_trim_line_keeps_its_web_from_the_ring_on_every_side():
    """A 24 × 20 in shroud, ring of 9 in radius in its middle: 3 in to left and right, 1 in to top and bottom."""
    blank = Blank(24 * INCH, 20 * INCH, ((12 * INCH, 10 * INCH, 9 * INCH),))
    seat = (24 * INCH, 20 * INCH)
    none = dict.fromkeys(("left", "right", "bottom", "top"), 0.0)
    for side, room in (("left", 3.0), ("right", 3.0), ("bottom", 1.0), ("top", 1.0)):
        web = 6e-3 / INCH
        assert trim(blank, seat, none | {side: (room - web - 0.01) * INCH}, 0.0, 0.0).faults == ()
        (near,) = trim(blank, seat, none | {side: (room - web + 0.01) * INCH}, 0.0, 0.0).faults
        assert said_by(near).startswith(f"The {side} trim line leaves")
        (through,) = trim(blank, seat, none | {side: (room + 0.01) * INCH}, 0.0, 0.0).faults
        assert said_by(through).startswith(f"The {side} trim line runs through the ring of fan 1")


def test_a_trim_to_seat_takes_what_is_over_and_moves_the_fans_by_its_difference():
    """26 in into 24: 2 in over, 1 in a side; 1/2 in further right takes 1/2 and 1 1/2 in; nothing comes off a blank
    that fits."""
    cut = trims_to_seat((26 * INCH, 18 * INCH), (24 * INCH, 19 * INCH), (0.5 * INCH, 0.0))
    assert [cut[side] / INCH for side in ("left", "right", "bottom", "top")] == pytest.approx([0.5, 1.5, 0.0, 0.0])


def test_the_rings_of_a_bought_shroud_lie_about_its_middle_and_move_with_the_trim():
    """24 3/4 × 19 in with one fan: its ring at 12 3/8, 9 1/2. 3/4 in off the left alone seats it in 24: the ring
    stands at 11 5/8 of the seat,
    3/8 in left of its middle, and a fan drawn in the middle is 3/8 in off its ring."""
    build = on(BUILD, (("active",), "p3"), ((*P3, "shroud", "trim_left"), "3/4 in", "length"))
    middle = on(
        build,
        *(
            ((*P3, "fans", build.package.fans[0].id, axis), text, "length")
            for axis, text in (("x", "12 in"), ("y", "9 1/2 in"))
        ),
    )
    plan = trim_plan(middle.package)
    (ring,) = plan.blank.rings
    assert [ring[0] / INCH, ring[1] / INCH] == pytest.approx([12.375, 9.5])
    assert plan.shift[0] / INCH == pytest.approx(-0.375, abs=1e-6)
    assert plan.off[0] / INCH == pytest.approx(0.375, abs=1e-6)
    assert plan.now.seats


# the bay


def test_a_hood_read_at_one_place_is_there_and_level():
    """18 3/4 in at the plane and nothing further back: the hood is a level line at 18 3/4, and the other reading is
    asked for."""
    for hood in (
        Hood(front=quantity("18 3/4 in", "length", "measured")),
        Hood(back=quantity("18 3/4 in", "length", "measured")),
    ):
        survey = Survey(hood=hood)
        assert [y for _, y in hood_line(survey)] == pytest.approx([18.75 * INCH] * 2)
        (body,) = [one for one in neighbours(survey) if one.key == "hood"]
        assert body.unknown
        assert any(item.path == ("survey", "hood", "back" if hood.front else "front") for item in unmeasured(survey))
    sloped = Survey(
        hood=Hood(
            front=quantity("20 in", "length", "measured"),
            back=quantity("22 in", "length", "measured"),
            run=quantity("20 in", "length"),
        )
    )
    (z0, y0), (z1, y1) = hood_line(sloped)
    assert (y1 - y0) / (z1 - z0) == pytest.approx(0.1), "2 in in 20"
    assert y0 - 0.1 * z0 == pytest.approx(20 * INCH)


def behind(gap):
    """The demo's package in a bay with one fixed wall so far behind its rearmost part [in]."""
    bare = on(
        BUILD,
        (
            ("survey",),
            Survey(
                hood=Hood(front=quantity("60 in", "length", "measured"), back=quantity("60 in", "length", "measured"))
            ),
        ),
    )
    rear = max(
        body.solid.centre[2]
        + sum(abs(axis[2]) * half for axis, half in zip(body.solid.axes, body.solid.half, strict=True))
        for body in fit_up(bare, bare.package).parts
    )
    size = {"left": "-20 in", "bottom": "-20 in", "width": "70 in", "height": "60 in", "depth": "2 in"}
    wall = Obstacle(
        id="wall",
        name="Wall",
        front=from_si(rear + gap * INCH, "length", "us", "measured"),
        **{k: quantity(v, "length", "measured") for k, v in size.items()},
    )
    return on(bare, (("survey", "obstacles"), (wall,)))


def test_only_the_sweep_of_poses_finds_a_place_ahead_of_a_wall():
    """A wall 1/8 in behind the fans, nothing movable, no hose to swap: the package itself has to come forward by what
    its rule lacks.

    Fan to a static part wants 1/2 in: 3/8 in forward, and the reach allows it.
    """
    build = behind(0.125)
    tightest = fit_up(build, build.package).tightest
    assert tightest.gap == pytest.approx(0.125 * INCH, abs=2e-4)
    search = find_places(build)
    stays = [found for found in search.found if not found.swaps]
    assert stays, "the package as it is has a place further forward"
    moved = doing(build, stays[0].act)
    forward = stand(build.survey, build.package).z - stand(moved.survey, moved.package).z
    assert fit_up(moved, moved.package).tightest.gap >= tightest.wanted - 1e-4
    assert forward >= 0.375 * INCH - 2e-4
    assert "forward" in stays[0].words


def test_where_there_is_room_the_package_may_stay():
    found = find_places(behind(6.0)).found
    assert found[0].words.endswith("where it stands") or not found[0].swaps


# the harness


def test_the_override_is_a_wire_of_its_own_and_a_circuit_without_return_has_none():
    def wires(build):
        return {wire.number: wire for wire in harness(build, build.package, assess(build).electrics)}

    with_it = on(BUILD, ((*P1, "control", "override"), True))
    override = wires(with_it)[6]
    assert (override.start, override.end, override.colour) == (
        "override switch in the cab, pole 1",
        "trigger: splice",
        "white",
    )
    assert 6 not in wires(on(BUILD, ((*P1, "control", "override"), False)))
    grounded = wires(BUILD)
    lost = wires(on(BUILD, ((*P1, "circuits", "circuit1", "ground"), "none")))
    returns = {number for number, wire in grounded.items() if wire.circuit == "circuit1" and wire.colour == "black"}
    assert returns
    assert not returns & {number for number, wire in lost.items() if wire.circuit == "circuit1"}
    assert set(grounded) - returns == set(lost), "nothing else went with them"


# backwards


@pytest.mark.parametrize(
    ("path", "change"),
    [
        ((*P1, "core", "face_height"), -2.0),
        ((*P1, "core", "depth"), 2.0),
        ((*P1, "sealing", "top", "gap"), 0.5),
        (("brief", "climate", "ambient"), -4.0),
    ],
)
def test_the_value_found_backwards_gives_the_temperature_wanted(path, change):
    """Whether temperature rises or falls with the field: put in and solved anew, it settles where it was asked to."""
    case = "grade"
    build = apply(BUILD, set_value(("duty_cases", case, "ambient"), None, ""))
    now = next(c.figures.temperature for c in assess(build).cases if c.case_id == case)
    answer = value_for(build, path, case, now + change)
    assert answer.value is not None, answer.why
    kind = "temperature" if path[-1] == "ambient" else "length"
    tried = apply(build, set_value(path, from_si(answer.value, kind, "si", "derived"), ""))
    settled = next(c.figures.temperature for c in assess(tried).cases if c.case_id == case)
    assert settled == pytest.approx(now + change, abs=0.05)
    assert answer.temperature == pytest.approx(settled, abs=0.02)
    present = get(build, path).si
    assert (answer.value - present) * change != 0


def test_backwards_says_what_comes_nearest_where_nothing_gives_it():
    answer = value_for(BUILD, (*P1, "core", "depth"), "grade", 20.0)
    assert answer.value is None
    assert "nearest" in answer.why
    assert 60 < answer.temperature < 130


# words


def test_no_verdict_says_none():
    """Whatever is missing: a name, fans, cases, a survey, an alternator, a limit."""
    bare = [
        (("brief", "title"), ""),
        (("packages", "p1", "name"), ""),
        (("packages", "p1", "fans"), ()),
        (("duty_cases",), ()),
        (("survey",), Survey()),
        (("brief", "accessories", "alternator_rating"), None),
        (("brief", "cooling", "limit"), None),
        (("packages", "p1", "circuits"), ()),
    ]
    for changes in (*([one] for one in bare), bare):
        build = on(BUILD, *changes)
        assessment = assess(build)
        for said in (plain_verdict(assessment, "us"), as_table(assessment, "si")):
            assert "None" not in said
            assert "nan" not in said.lower().split()
