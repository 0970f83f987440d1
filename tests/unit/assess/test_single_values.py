"""Single values worked by hand, one small thing each: places, sizes, words and counts that larger figures swallow."""

import math
from types import SimpleNamespace

import numpy as np
import pytest

from keelroom.assess.acts.control import SCHOOLS, school_edit
from keelroom.assess.acts.registry import applies, edit_for, offer
from keelroom.assess.acts.shroud import fans_edit, seat_edit
from keelroom.assess.assess import assess
from keelroom.assess.electrical.figures import terminal_takes
from keelroom.assess.electrical.harness import harness
from keelroom.assess.electrical.signals import CHASSIS, OVERRIDE
from keelroom.assess.electrical.words import sizes_told
from keelroom.assess.figures.batch import Asked, batches, outlets_at, row_for, stacked
from keelroom.assess.figures.templates import core_mockup
from keelroom.assess.fit.clearances import Fit
from keelroom.assess.fit.frames import frame_plans
from keelroom.assess.fit.mounts import bracket_plans
from keelroom.assess.fit.package_bodies import parts_of_package
from keelroom.assess.fit.points import part_points
from keelroom.assess.fit.shroud_plan import trim_pattern, trim_plan
from keelroom.assess.fit.survey_bodies import neighbours
from keelroom.assess.inputs.airside import placed_on_face, stands_proud
from keelroom.assess.inputs.electrical.controller import low_of
from keelroom.assess.inputs.electrical.loads import label_words
from keelroom.assess.inputs.gearing import rpm_of
from keelroom.assess.inputs.translate import car_of, row_of
from keelroom.assess.placing import over_tanks, placed_frame, stand, tank_size
from keelroom.assess.questions.airmap import fan_chart
from keelroom.assess.questions.places import find_places
from keelroom.assess.questions.response import Response, response, span, stretches, value_for
from keelroom.assess.questions.why import movers
from keelroom.assess.questions.worth import worth_table
from keelroom.assess.report import fit_line
from keelroom.assess.work.hardware import hardware_list
from keelroom.core.answer import steady_answer
from keelroom.core.fluids.air import air_state
from keelroom.core.fluids.air import density as air_density
from keelroom.document.edits import apply
from keelroom.document.fields import owner_and_spec
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.survey import Survey
from tests.acts import doing, key
from tests.changes import on
from tests.conftest import DEMO
from tests.told import said_by, what_of

BUILD = load(DEMO)
INCH = 0.0254
P1, P3 = ("packages", "p1"), ("packages", "p3")
COOLING = ("brief", "cooling")


def body(build, key):
    return next(
        one for one in (*parts_of_package(build.survey, build.package), *neighbours(build.survey)) if one.key == key
    )


def inches(values):
    return [float(v) / INCH for v in values]


# places in the bay, in the survey's own axes


UPRIGHT = on(
    BUILD,
    ((*P1, "place", "lean"), "0 °", "angle"),
    ((*P1, "place", "x"), "2 in", "length"),
    ((*P1, "place", "y"), "1 in", "length"),
    ((*P1, "place", "z"), "0 in", "length"),
)


def test_the_core_and_its_tanks_stand_where_they_were_put():
    """26 x 17 in, 2 1/4 deep, tanks 2 1/4 each side, its lower left corner at 2, 1, 0: the middle of the core at 15,
    9 1/2, 1 1/8."""
    core = body(UPRIGHT, "core").solid
    assert inches(core.centre) == pytest.approx([15, 9.5, 1.125])
    assert inches(core.half) == pytest.approx([13, 8.5, 1.125])
    tanks = sorted(
        (one for one in parts_of_package(UPRIGHT.survey, UPRIGHT.package) if one.sort == "tank" or "tank" in one.key),
        key=lambda one: one.solid.centre[0],
    )
    assert [one.solid.centre[0] / INCH for one in tanks] == pytest.approx([2 - 1.125, 28 + 1.125])
    assert inches(over_tanks(UPRIGHT.package.core)) == pytest.approx([30.5, 17])
    assert tank_size(UPRIGHT.package.core) / INCH == pytest.approx(2.25)


def test_a_fan_stands_behind_its_shroud_with_its_motor_behind_its_ring():
    """Shroud 2 in deep behind a 2 1/4 in core: the ring begins at 4 1/4; a puller's motor reaches its whole depth
    from there."""
    fan = UPRIGHT.package.fans[0]
    ring, motor = (body(UPRIGHT, f"{part}:{fan.id}").solid for part in ("ring", "motor"))
    begin = 2.25 + UPRIGHT.package.shroud.depth.si / INCH
    for solid in (ring, motor):
        assert (solid.centre[2] - solid.half[2]) / INCH == pytest.approx(begin, abs=1e-6)
        assert inches(solid.centre[:2]) == pytest.approx([2 + 6.5, 1 + 8.5])
    assert 2 * motor.half[2] == pytest.approx(fan.depth.si)
    assert ring.half[2] < motor.half[2]
    assert motor.half[0] == pytest.approx(fan.hub_diameter.si / 2)
    bare = on(UPRIGHT, ((*P1, "shroud", "kind"), "none"), ((*P1, "shroud", "fan_gap"), "1/2 in", "length"))
    solid = body(bare, f"motor:{fan.id}").solid
    assert (solid.centre[2] - solid.half[2]) / INCH == pytest.approx(2.25 + 0.5, abs=1e-6)


def test_rails_and_hood_lie_where_they_were_read():
    """A rail's inner face where it was read, its top at the rails' top; the hood's underside through its two
    readings."""
    rails = BUILD.survey.rails
    left, right = (body(BUILD, f"rail:{side}").solid for side in ("left", "right"))
    assert left.centre[0] + left.half[0] == pytest.approx(rails.left.si)
    assert right.centre[0] - right.half[0] == pytest.approx(rails.right.si)
    assert left.centre[1] + left.half[1] == pytest.approx(rails.top.si if rails.top else 0.0)
    hood = body(BUILD, "hood").solid
    normal = np.array(hood.axes[2])
    under = np.array(hood.centre) - hood.half[2] * normal * math.copysign(1, normal[1])
    survey = BUILD.survey.hood
    run = survey.run.si if survey.run else None
    assert run
    for z, y in ((0.0, survey.front.si), (run, survey.back.si)):
        assert abs(float(np.dot(np.array([under[0], y, z]) - under, normal))) < 1e-9


def test_mount_holes_of_core_and_shroud():
    """Crossflow: the core's holes in the middle of its tanks, 30 mm in from top and bottom, half its depth back."""
    points = {key: anchor.at for key, anchor in part_points(UPRIGHT.survey, UPRIGHT.package).items()}
    assert inches(points["core:lower_left"]) == pytest.approx([2 - 1.125, 1 + 0.03 / INCH, 1.125])
    assert inches(points["core:upper_right"]) == pytest.approx([28 + 1.125, 18 - 0.03 / INCH, 1.125])
    inset = UPRIGHT.package.shroud.hole_inset.si / INCH
    assert inches(points["shroud:lower_left"])[:2] == pytest.approx([2 + inset, 1 + inset])
    assert inches(points["shroud:upper_right"])[:2] == pytest.approx([28 - inset, 18 - inset])


def test_a_frames_disc_lies_between_its_two_depths():
    frame = placed_frame(UPRIGHT.survey, UPRIGHT.package)
    disc = frame.disc((3 * INCH, 4 * INCH), INCH, (2 * INCH, 5 * INCH))
    assert inches(disc.centre) == pytest.approx([5, 5, 3.5])
    assert inches(disc.half) == pytest.approx([1, 1, 1.5])


# the face


def test_a_cover_without_a_size_reaches_to_the_far_edge():
    cover = Cooler(id="c", kind="screen", left=quantity("5 in", "length"), bottom=quantity("3 in", "length"))
    assert inches(placed_on_face(BUILD.package, cover)) == pytest.approx([5, 3, 21, 14])


def test_a_bought_shroud_stands_proud_until_its_cuts_let_it_between_the_tanks():
    """24 in between the tanks, 25 1/4 in over its flange: 5/8 in off each side or 1 1/4 off one seats it, 1 in in all
    does not."""
    wide = on(BUILD, (("active",), "p3"), ((*P3, "shroud", "blank_width"), "25 1/4 in", "length"))
    proud = wide.package.core.tank_proud.si

    def with_cut(left, right):
        return on(
            wide, ((*P3, "shroud", "trim_left"), left, "length"), ((*P3, "shroud", "trim_right"), right, "length")
        ).package

    assert stands_proud(wide.package) == proud > 0
    assert stands_proud(with_cut("1/2 in", "1/2 in")) == proud
    assert stands_proud(with_cut("5/8 in", "5/8 in")) == 0.0
    assert stands_proud(with_cut("1 1/4 in", "0 in")) == 0.0
    assert stands_proud(on(wide, ((*P3, "shroud", "kind"), "none")).package) == 0.0


def test_over_the_edge_is_the_most_any_side_stands_over():
    condenser = (*P1, "coolers", "condenser")
    for side, text, over in (("left", "-1 in", 1.0), ("bottom", "-2 in", 2.0)):
        said = next(
            f for f in assess(on(BUILD, ((*condenser, side), text, "length"))).findings if f.code == "cover_off_face"
        )
        assert said.value / INCH == pytest.approx(over)


def test_the_frontal_area_is_width_times_height():
    assert assess(BUILD).rules.face_area / INCH**2 == pytest.approx(26 * 17)


# shrouds and templates


def bought(*changes):
    return on(BUILD, (("active",), "p3"), *changes)


def test_fans_follow_the_rings_of_a_shroud_cut_unevenly():
    """An inch more off the left than off the right: what is left moves half an inch right and its rings with it, none
    up or down."""
    cut = bought(
        ((*P3, "shroud", "trim_left"), "1 1/4 in", "length"),
        ((*P3, "shroud", "trim_right"), "1/4 in", "length"),
        ((*P3, "shroud", "blank_width"), "25 1/2 in", "length"),
    )
    plan = trim_plan(cut.package)
    assert inches(plan.shift) == pytest.approx([-0.5, 0.0])
    moved = apply(cut, fans_edit(cut.package, "us")).package.fans[0]
    assert moved.x.si / INCH == pytest.approx(12 - 0.5, abs=1e-4)
    assert moved.y == cut.package.fans[0].y, "what does not move is not touched"


def test_a_trim_pattern_shows_the_planned_cut_or_the_one_that_seats_it():
    wide = bought(
        ((*P3, "shroud", "blank_width"), "25 in", "length"),
        *(((*P3, "shroud", f"trim_{side}"), "0 in", "length") for side in ("left", "right", "bottom", "top")),
    )
    lines = [mark for mark in trim_pattern(wide.package, trim_plan(wide.package)).marks if mark.to is not None]
    across = sorted(mark.at[0] / INCH for mark in lines if mark.at[0] == mark.to[0])
    assert across == pytest.approx([0.5, 24.5]), "nothing cut yet: the lines that would seat it"
    seated = apply(wide, seat_edit(wide.package, "us"))
    assert seated.package.shroud.trim_left.si / INCH == pytest.approx(0.5)


def test_the_core_mock_up_is_as_large_as_core_and_tanks_with_walls_of_its_depth():
    """26 + 2 x 2 1/4 = 30 1/2 in by 17 in, walls 2 1/4 in all round: 35 by 21 1/2 in flat."""
    (pattern,) = core_mockup(BUILD.package)[:1]
    assert inches(pattern.bounds[2:]) == pytest.approx([35.0, 21.5])
    assert inches(pattern.bounds[:2]) == pytest.approx([-4.5, -2.25])


def test_hardware_counts_fasteners_on_flanged_sides_alone():
    """Flanges at top and bottom of 26 in: 660 mm at 100 mm pitch is 7 a side, 14 in all; all round of 17 in as well:
    4 more a side."""
    rows = {row[0]: row[1] for row in hardware_list(BUILD, BUILD.package, "us")}
    assert rows["Rivets or screws, shroud flange"] == "14"
    all_round = on(BUILD, ((*P1, "shroud", "flanges"), "all_round"))
    rows = {row[0]: row[1] for row in hardware_list(all_round, all_round.package, "us")}
    assert rows["Rivets or screws, shroud flange"] == str(2 * (7 + 4))


def test_a_hole_under_two_diameters_from_its_end_is_said():
    near = on(BUILD, ((*P1, "brackets", "bracket1", "edge"), "11 mm", "length"))
    notes = bracket_plans(near, near.package)[0].notes
    assert any("1.6 diameters" in said_by(note) for note in notes), "11 over 7 mm"
    far = on(BUILD, ((*P1, "brackets", "bracket1", "edge"), "14 mm", "length"))
    assert not any("diameters" in said_by(note) for note in bracket_plans(far, far.package)[0].notes)


# fixes


def test_a_fan_put_onto_the_face_touches_the_edge_it_came_over():
    """A 12 in fan whose middle is 4 in from the left of a 17 in high face: 6 in from the left, and no further up than
    it was."""
    off = on(BUILD, ((*P1, "fans", "fan1", "x"), "4 in", "length"), ((*P1, "fans", "fan1", "y"), "16 in", "length"))
    fix = next(f for f in assess(off).findings if f.code == "fan_off_face").fix[0]
    fan = apply(off, edit_for(off, fix)).package.fans[0]
    assert inches((fan.x.si, fan.y.si)) == pytest.approx([6, 11], abs=1e-3)


def test_a_fan_that_fits_is_the_strongest_and_stands_within_the_face():
    """Alone as near as it goes to where the old one was; beside a 12 in fan at 19 1/2 in, at the other end."""
    large = on(
        BUILD,
        ((*P1, "fans"), BUILD.package.fans[:1]),
        ((*P1, "fans", "fan1", "diameter"), "18 in", "length"),
        ((*P1, "fans", "fan1", "x"), "30 in", "length"),
        ((*P1, "fans", "fan1", "y"), "-3 in", "length"),
    )
    fix = next(f for f in assess(large).findings if f.code == "fan_larger_than_face").fix[0]
    fan = apply(large, edit_for(large, fix)).package.fans[0]
    radius = fan.diameter.si / 2
    assert fan.x.si == pytest.approx(26 * INCH - radius, abs=1e-5)
    assert fan.y.si == pytest.approx(radius, abs=1e-5)
    pair = on(large, ((*P1, "fans"), (large.package.fans[0], BUILD.package.fans[1])))
    beside = apply(pair, edit_for(pair, fix)).package.fans[0]
    assert inches((beside.x.si, beside.diameter.si)) == pytest.approx([6, 12], abs=1e-3)


# words


@pytest.mark.parametrize(
    ("sizes", "words"),
    [
        ((), "no wire that keeps the drop goes into its terminals"),
        (("10 AWG",) * 3, "10 AWG"),
        (("8 AWG", "10 AWG", "12 AWG"), "8 AWG feed, 10 AWG to the motor, 12 AWG return"),
    ],
)
def test_sizes_in_words(sizes, words):
    assert said_by(sizes_told(sizes)) == words


def test_a_labels_missing_figure_is_said_to_be_worked_out():
    fan = BUILD.package.fans[0]
    amps_only = fan.model_copy(
        update={
            "power": None,
            "rated_current": quantity("15 A", "current"),
            "rated_voltage": quantity("12 V", "voltage"),
        }
    )
    assert label_words(amps_only).startswith("Motor: 180 W at 12 V, 15.0 A there (power worked out)")
    watts = fan.model_copy(
        update={
            "power": quantity("180 W", "electrical power"),
            "rated_current": None,
            "rated_voltage": quantity("12 V", "voltage"),
        }
    )
    assert "worked out" not in label_words(watts)
    assert label_words(watts).endswith("19.4 A at 14 V."), "brushed: n^2/5 + 0.8 n = 14/12, amps with n^2"


def test_the_fit_line_without_a_survey():
    bare = on(BUILD, (("survey",), Survey()))
    assert fit_line(assess(bare), "us") == "Fit: the bay is not surveyed"
    assert fit_line(assess(BUILD), "us").startswith("Fit: does not fit. Tightest: ")


def test_louver_angle_is_told_in_degrees_and_pitch_in_thousandths():
    steep = on(BUILD, ((*P1, "core", "louver_angle"), "45 °", "angle"))
    assert any("louver angle 45°" in what_of(f) for f in assess(steep).findings)
    wide = on(BUILD, ((*P1, "core", "louver_pitch"), "4 mm", "length"))
    assert any("louver pitch 0.157 in" in what_of(f) for f in assess(wide).findings)


def test_unlike_sources_name_both_ends():
    path = (("supply", "sources", "ignition", "voltage"), "24 V", "voltage")
    said = next(
        f
        for f in assess(on(BUILD, ((*P1, "circuits", "circuit1", "sources"), ("battery", "ignition")), path)).findings
        if f.code == "sources_differ"
    )
    assert (said.value, said.limit) == (24.0, 12.0)
    low = next(
        f
        for f in assess(on(BUILD, (("supply", "sources", "battery", "voltage"), "24 V", "voltage"))).findings
        if f.code == "source_unlike"
    )
    assert (low.value, low.limit) == (24.0, min(m.motor.voltage for m in assess(BUILD).electrics.circuits[0].motors))


# questions answered


def test_a_speed_that_is_not_known_is_one():
    assert rpm_of(None) == 1.0
    assert rpm_of(quantity("700 rpm", "turning speed")) == pytest.approx(700.0)


def test_low_speed_of_one_fan_is_a_resistors():
    control = BUILD.package.control
    assert low_of(control, 2) == (0.5, 0.5)
    assert low_of(control, 1) == (0.55, 0.40)
    winding = control.model_copy(update={"low_speed": "winding"})
    assert low_of(winding, 1) == low_of(winding, 2) == (0.6, 0.35)


def test_a_school_changes_what_differs_and_nothing_else():
    upper = next(one for one in SCHOOLS if one.key == "upper")
    assert not school_edit(BUILD.package, upper).changes, "the demo's control is that already"
    variable = next(one for one in SCHOOLS if one.key == "variable")
    assert [(c.path[-1], c.value) for c in school_edit(BUILD.package, variable).changes] == [("strategy", "variable")]


def test_rows_are_stacked_in_order_and_every_one_once():
    rows = [row_for(Asked(BUILD, case.id)) for case in BUILD.duty_cases]
    found = list(batches([rows[0], None, *rows[1:]] * 60))
    places = [place for some, _ in found for place in some]
    assert sorted(places) == [k for k in range(7 * 60) if k % 7 != 1]
    assert all(len(some) == len(kept) <= 256 for some, kept in found)


def test_a_reading_past_the_last_looked_at_is_no_outlet():
    ((low, inside, high),) = outlets_at([Asked(BUILD, "idle")], [(10.0, 95.0, 500.0)], (60.0, 130.0))
    assert math.isnan(low)
    assert math.isnan(high)
    assert inside == pytest.approx(95.0, abs=0.01), "an upper-hose sensor reads the outlet"


@pytest.mark.parametrize(
    ("path", "value", "low", "high"),
    [
        (("brief", "vehicle", "mass"), 1000.0, 400.0, 2000.0),
        ((*P1, "shroud", "edge_gap"), 0.0, 0.0, 0.025),
        ((*P1, "core", "rows"), 2.0, 1.0, 5.0),
    ],
)
def test_the_range_a_number_is_swept_over(path, value, low, high):
    _, spec = owner_and_spec(BUILD, path)
    assert span(spec, value) == pytest.approx((low, high))


def test_a_response_holds_the_present_value_and_both_ends():
    answer = response(BUILD, (*P1, "core", "depth"), "grade")
    depth = BUILD.package.core.depth.si
    assert depth in answer.values
    assert list(answer.values) == sorted(answer.values)
    assert answer.values[0] == pytest.approx(max(0.4 * depth, answer.values[0]))
    assert answer.values[-1] == pytest.approx(2.0 * depth)
    sorts = {stretch.sort for stretch in stretches(answer)}
    assert "cliff" in sorts, "a thin core on this grade"
    assert all(stretch.start < stretch.end for stretch in stretches(answer))


def test_backwards_is_found_to_a_thousandth():
    now = next(c.figures.temperature for c in assess(BUILD).cases if c.case_id == "grade")
    found = value_for(BUILD, ("brief", "engine", "heat_multiplier"), "grade", now - 5)
    settled = on(BUILD, (("brief", "engine", "heat_multiplier"), f"{found.value:.9f}", "number"))
    assert next(c.figures.temperature for c in assess(settled).cases if c.case_id == "grade") == pytest.approx(
        now - 5, abs=2e-3
    )


def test_what_moves_a_figure_is_each_step_against_the_present():
    moved = {one.path[-1]: one for one in movers(BUILD, "grade", "us")}
    heat = moved["heat_multiplier"]
    now = next(c.figures.temperature for c in assess(BUILD).cases if c.case_id == "grade")
    more = on(
        BUILD, (("brief", "engine", "heat_multiplier"), f"{1.1 * BUILD.brief.engine.heat_multiplier.si:.6f}", "number")
    )
    then = next(c.figures.temperature for c in assess(more).cases if c.case_id == "grade")
    assert heat.change == pytest.approx(then - now, abs=1e-3)


def test_an_oil_cooler_takes_what_the_block_need_not():
    """3 % of the fuel goes into the oil; a cooler takes it and some of the block's; a screen beside it changes
    nothing of that."""
    parts = (
        Cooler(id="oil", kind="oil_cooler", width=quantity("6 in", "length"), height=quantity("6 in", "length")),
        Cooler(id="mesh", kind="screen"),
    )
    both = on(BUILD, ((*P1, "coolers"), parts))
    row = row_of(both, both.package, car_of(both, both.package), both.duty_case("grade"))
    assert float(row.points.plant.engine.oil_share) == 0.03
    alone = on(BUILD, ((*P1, "coolers"), parts[:1]))
    told = [next(case.figures for case in assess(build).cases if case.case_id == "grade") for build in (both, alone)]
    for figures in told:
        left = dict((where, heat) for fluid, where, heat, *_ in figures.fluids.left if fluid == "oil")
        assert left["oil cooler"] > 500
        assert left["oil cooler"] + left["the block"] == pytest.approx(dict(figures.fluids.given)["oil"])


def test_a_single_rows_tube_fills_its_core_but_for_half_a_gap():
    """40 mm deep: one row has a 39 mm tube, two rows 18 mm ones."""
    one = on(BUILD, ((*P1, "core", "depth"), "40 mm", "length"), ((*P1, "core", "rows"), "1", "count"))
    two = on(one, ((*P1, "core", "rows"), "2", "count"))
    assert float(car_of(one, one.package).plant.core.tube_width) == pytest.approx(0.039)
    assert float(car_of(two, two.package).plant.core.tube_width) == pytest.approx(0.018)


def offered(build):
    return {key(worth.act) for worth in worth_table(build)}


def test_acts_that_are_done_already_are_not_offered():
    worth = offered(BUILD)
    scaled = on(BUILD, ((*P1, "core", "condition"), "some_scale"))
    assert "clean" not in worth
    assert "clean" in offered(scaled)
    assert "divide" not in worth, "both fans run"
    stopped = on(BUILD, ((*P1, "fans", "fan1", "runs"), False))
    assert "divide" in offered(stopped)
    divided = on(stopped, ((*P1, "shroud", "plenum"), "divided"))
    assert "divide" not in offered(divided)
    sealed = on(BUILD, *(((*P1, "sealing", side, "gap"), "0 in", "length") for side in ("left", "right")))
    assert "close_edges left right" in worth
    assert "close_edges left right" not in offered(sealed)


def test_the_working_points_of_a_fan_are_the_chosen_cases_first():
    chart = fan_chart(BUILD, "grade")
    assert chart is not None
    assert len(chart.points) >= 3
    assert (
        fan_chart(on(BUILD, ((*P1, "fans", "fan1", "runs"), False), ((*P1, "fans", "fan2", "runs"), False)), "grade")
        is None
    )


def test_a_search_tells_how_far_it_has_come_and_can_be_stopped():
    told: list[float] = []
    find_places(BUILD, lambda share: told.append(share) or True)
    assert told[0] == 0.0
    assert told == sorted(told)
    assert told[-1] < 1.0
    assert len(told) > 4
    assert find_places(BUILD, lambda share: share < 0.2).stopped


def test_the_places_found_are_on_the_tapes_grain_where_that_clears():
    found = find_places(on(BUILD, (("survey", "obstacles"), ()))).found
    assert found
    moved = doing(on(BUILD, (("survey", "obstacles"), ())), found[0].act)
    at = stand(moved.survey, moved.package)
    off_grain = [abs(v / (INCH / 16) - round(v / (INCH / 16))) for v in (at.x, at.y, at.z)]
    assert max(off_grain) < 1e-3 or found[0].words.endswith("where it stands")


# small judgements


def case_of(build, case_id):
    return next(case.figures for case in assess(build).cases if case.case_id == case_id)


def grade():
    return case_of(BUILD, "grade")


def test_a_fans_power_is_that_of_its_motor_at_the_volts_it_gets():
    """n^2/5 + 0.8 n = V/V0 for a brushed motor; watts with n^2 and the volts, amps from both."""
    now = grade()
    rated = BUILD.package.fans[0].rated_voltage.si
    for fan in now.fans:
        ratio = fan.voltage / rated
        speed = 2.5 * (math.sqrt(0.64 + 0.8 * ratio) - 0.8)
        assert fan.power == pytest.approx(180 * speed**2 * ratio, rel=1e-6)
        assert fan.current * fan.voltage == pytest.approx(fan.power)


def test_air_through_the_face_is_its_speed_times_its_area():
    now = grade()
    assert now.face_speed * 26 * 17 * INCH**2 == pytest.approx(now.airflow)
    assert now.airflow_fans_on == pytest.approx(now.airflow), "the fans run all the time here"


def test_the_air_carries_the_heat_away():
    """Heat over mass flow and 1006 J/kgK of air with its vapour, the flow at the density outdoors."""
    now = grade()
    climate = BUILD.brief.climate
    outdoors = air_state(np.array([climate.altitude.si]), np.array([now.ambient]), np.array([climate.humidity.si]))
    density = float(air_density(outdoors, np.array([now.ambient]))[0])
    per_kilogram = 1006 + float(outdoors.vapour[0]) * 860
    assert now.heat_in == pytest.approx(now.airflow * density * per_kilogram * (now.air_out - now.air_in), rel=2e-3)


def test_the_engines_own_part_of_the_heat():
    """What brake power is short of 36 % of the fuel is the engine's own; all parts together are the heat."""
    now = grade()
    parts = dict(now.heat_by_cause)
    assert parts["engine friction and idling"] == pytest.approx(
        now.heat_in * (1 - now.brake_power / now.fuel_power / 0.36), rel=2e-3
    )
    assert sum(parts.values()) == pytest.approx(now.heat_in)


def test_sensors_in_the_lower_hose_read_what_leaves_the_core():
    """Also with the thermostat at the engine's inlet, where it feels the heat the engine adds taken off again."""
    low = on(
        BUILD,
        ((*P1, "control", "sensor"), "lower_hose"),
        (("packages", "p1", "loop", "thermostat_place"), "inlet"),
        (("packages", "p1", "control", "fan_on"), "150 °F", "temperature"),
        (("packages", "p1", "control", "fan_off"), "140 °F", "temperature"),
    )
    rows = [row_for(Asked(low, case)) for case in ("cruise", "night", "grade")]
    points, doubt = stacked(rows)
    state = steady_answer(points, doubt, rows[0].layout).solution.state
    assert state.reading == pytest.approx(state.coolant_out, abs=0.4)
    assert (state.temperature - state.coolant_out > 3).all()


def test_the_override_is_grounded_where_the_coils_are():
    def override(strategy):
        build = on(BUILD, ((*P1, "control", "strategy"), strategy), ((*P1, "control", "override"), True))
        return {wire.number: wire for wire in harness(build, build.package, assess(build).electrics)}

    ground, feed, staged = override("ground_switch"), override("feed_switch"), override("both_relays")
    assert (ground[60].colour, ground[60].end) == ("black", CHASSIS)
    assert (feed[60].colour, feed[60].end) == ("white", f"{OVERRIDE}, common")
    assert ground[6].start == f"{OVERRIDE}, pole 1"
    assert [staged[number].start for number in (6, 61) if number in staged][:1] == [f"{OVERRIDE}, pole 1"]


def test_a_circuit_without_a_relay_has_no_relay_to_judge():
    circuit = (*P1, "circuits", BUILD.package.circuits[0].id)
    with_one = assess(BUILD).electrics.circuits[0]
    without = assess(on(BUILD, ((*circuit, "switch"), "none"))).electrics.circuits[0]
    assert with_one.relay_holds is not None
    assert (without.relay_holds, without.relay_makes) == (None, None)


def test_a_bare_fans_place_hangs_on_its_gap_and_a_shrouded_ones_on_the_depth():
    def readings(build):
        fan = next(one for one in parts_of_package(build.survey, build.package) if "ring" in one.name.lower())
        return {term.path for axis in fan.chain for term in axis} if hasattr(fan, "chain") else {str(fan)}

    shrouded, bare = readings(BUILD), readings(on(BUILD, ((*P1, "shroud", "kind"), "none")))
    assert any("'depth'" in str(path) and "shroud" in str(path) for path in shrouded)
    assert any("fan_gap" in str(path) for path in bare)
    assert not any("fan_gap" in str(path) for path in shrouded)


def test_the_switch_offered_is_the_nearest_that_is_sold():
    build = on(
        BUILD,
        (("packages", "p1", "control", "fan_on"), "193 °F", "temperature"),
        ((*P1, "control", "strategy"), "ground_switch"),
    )
    (fix,) = next(f for f in assess(build).findings if f.code == "switch_sold").fix
    assert "195 °F" in fix.label
    assert apply(build, edit_for(build, fix)).package.control.fan_on.as_typed == "195 °F"


def test_places_of_findings_and_their_limits():
    off = on(BUILD, ((*P1, "coolers", "condenser", "bottom"), "8 in", "length"))
    over = next(f for f in assess(off).findings if f.code == "cover_off_face" and "condenser" in f.where)
    high = next(c for c in off.package.coolers if c.id == "condenser").height.si
    assert over.value == pytest.approx(8 * INCH + high - 17 * INCH)
    moved = bought(((*P3, "shroud", "trim_left"), "1 in", "length"))
    rings = next(f for f in assess(moved).findings if f.code == "fans_off_rings")
    assert (rings.value > 0.01, rings.limit) == (True, 0.0)


def test_a_bracket_that_cannot_be_made_is_told_at_its_edge_and_one_without_its_point_at_that_end():
    near = on(BUILD, ((*P1, "brackets", "bracket1", "edge"), "5 mm", "length"))
    assert {f.where[-1] for f in assess(near).findings if f.code == "bracket_fault" and "bracket1" in f.where} == {
        "edge"
    }
    lost = on(BUILD, ((*P1, "brackets", "bracket1", "end"), "hole:nowhere"))
    assert {f.where[-1] for f in assess(lost).findings if f.code == "bracket_fault" and "bracket1" in f.where} == {
        "end"
    }


def test_a_radius_that_cracks_is_noted():
    place = (*P1, "brackets", "bracket1")
    sharp = on(BUILD, ((*place, "metal"), "al_6061"), ((*place, "radius"), "1 mm", "length"))
    round_ = on(BUILD, ((*place, "metal"), "al_6061"), ((*place, "radius"), "30 mm", "length"))
    assert any("cracks under" in said_by(note) for note in bracket_plans(sharp, sharp.package)[0].notes)
    assert not any("cracks under" in said_by(note) for note in bracket_plans(round_, round_.package)[0].notes)


def test_tanks_stand_above_and_below_a_downflow_core():
    core = BUILD.package.core
    tank = core.tank_size.si
    assert over_tanks(core) == pytest.approx((26 * INCH + 2 * tank, 17 * INCH))
    assert over_tanks(core.model_copy(update={"flow": "downflow"})) == pytest.approx((26 * INCH, 17 * INCH + 2 * tank))


def test_one_trimmed_side_is_a_planned_cut():
    cut = bought(
        ((*P3, "shroud", "blank_width"), "25 in", "length"),
        *(
            ((*P3, "shroud", f"trim_{side}"), "1 in" if side == "left" else "0 in", "length")
            for side in ("left", "right", "bottom", "top")
        ),
    )
    marks = [mark for mark in trim_pattern(cut.package, trim_plan(cut.package)).marks if mark.to is not None]
    assert sorted(mark.at[0] / INCH for mark in marks if mark.at[0] == mark.to[0]) == pytest.approx([1.0])


def test_a_fan_that_fits_stays_within_the_far_corner():
    large = on(
        BUILD,
        ((*P1, "fans"), BUILD.package.fans[:1]),
        ((*P1, "fans", "fan1", "diameter"), "18 in", "length"),
        ((*P1, "fans", "fan1", "x"), "30 in", "length"),
        ((*P1, "fans", "fan1", "y"), "30 in", "length"),
    )
    fix = next(f for f in assess(large).findings if f.code == "fan_larger_than_face").fix[0]
    fan = apply(large, edit_for(large, fix)).package.fans[0]
    radius = fan.diameter.si / 2
    assert (fan.x.si, fan.y.si) == pytest.approx((26 * INCH - radius, 17 * INCH - radius), abs=1e-5)


def test_plateaus_and_cliffs_by_hand():
    """Slopes 0, 0, 10, 1, and a part that does not settle: a plateau over two steps, cliffs where it is over 3.5
    times the mean."""

    def answer(temperatures):
        return Response(
            ("x",), "x", "number", "grade", tuple(float(k) for k in range(len(temperatures))), temperatures, 0.0
        )

    flat = stretches(answer((90.0, 90.0, 90.0, 91.0, 92.0, 93.0, 103.0, 103.5, 104.0)))
    assert [tuple(stretch) for stretch in flat] == [("plateau", 0.0, 2.0), ("cliff", 5.0, 6.0)]
    wild = stretches(answer((90.0, 91.0, 92.0, math.inf, math.inf)))
    assert [tuple(stretch) for stretch in wild] == [("cliff", 2.0, 3.0)]


@pytest.mark.parametrize(
    ("on_at", "told"), [("193 °F", True), ("195 °F", False), ("196.5 °F", True), ("197.5 °F", False), ("185 °F", False)]
)
def test_switches_are_sold_by_steps(on_at, told):
    build = on(
        BUILD,
        (("packages", "p1", "control", "fan_on"), on_at, "temperature"),
        ((*P1, "control", "strategy"), "ground_switch"),
    )
    assert ("switch_sold" in {f.code for f in assess(build).findings}) is told


def gap(state, unknown=False):
    return SimpleNamespace(state=state, other=SimpleNamespace(unknown=unknown))


@pytest.mark.parametrize(
    ("gaps", "unmeasured", "verdict"),
    [
        ((gap("clear"), gap("tight")), (), "tight"),
        ((gap("clear"),), (), "clears"),
        ((gap("tight"),), ("brace",), "not measured"),
        ((gap("under"),), ("brace",), "does not fit"),
        ((gap("overlaps", unknown=True), gap("clear")), (), "clears"),
    ],
)
def test_what_a_fit_comes_to(gaps, unmeasured, verdict):
    assert Fit.verdict.fget(SimpleNamespace(chosen=True, surveyed=True, gaps=gaps, unmeasured=unmeasured)) == verdict


def test_line_holes_go_into_the_piece_for_the_lines_alone():
    package = on(BUILD, ((*P1, "mounting", "frames", "frame1", "leg"), "1 1/2 in", "length")).package
    holes = {pattern.name: len(pattern.holes) for pattern in frame_plans(package)[0].patterns}
    assert holes["Upright with line holes, condenser frame"] > holes["Upright, condenser frame"]
    assert holes["Crosspiece, condenser frame"] == holes["Upright, condenser frame"]


def test_a_shrouds_edge_is_sealed_only_where_there_is_a_shroud():
    act = offer("edge_seal", "p1")
    open_ = on(BUILD, ((*P1, "shroud", "kind"), "none"))
    assert not applies(open_, act)
    assert applies(BUILD, act)
    assert applies(open_, offer("close_edges", "p1", edges="left right"))


def test_the_last_stretch_that_was_looked_at_counts():
    ((outlet,),) = outlets_at([Asked(BUILD, "idle")], [(129.7,)], (60.0, 130.0))
    assert outlet == pytest.approx(129.7, abs=0.02)


def test_the_louvers_reynolds_number_by_hand():
    """Mass through 75.3 % of the face, 1.2 mm louvers, air at 50 degC of 19.6 uPa s: 310."""
    now = grade()
    free = 8 / 10 * (1 - 15 / INCH * 0.1e-3)
    assert free == pytest.approx(0.753, abs=1e-3)
    climate = BUILD.brief.climate
    outdoors = air_state(np.array([climate.altitude.si]), np.array([now.ambient]), np.array([climate.humidity.si]))
    flux = now.face_speed * float(air_density(outdoors, np.array([now.ambient]))[0])
    assert now.louver_reynolds == pytest.approx(flux / free * 1.2e-3 / 19.6e-6, rel=0.01)


@pytest.mark.parametrize(
    ("run", "motors", "parts", "bound"),
    [
        ("feed", 1, ("relay", 30.0, 0.0), True),
        ("feed", 2, ("relays", 30.0, 0.0), False),
        ("branch", 2, ("relays", 30.0, 0.0), True),
        ("branch", 1, ("none", 0.0, 20.0), True),
        ("branch", 1, ("none", 0.0, 0.0), False),
        ("back", 1, ("relay", 30.0, 20.0), False),
        ("feed", 1, ("none", 0.0, 20.0), False),
    ],
)
def test_what_a_wire_ends_in_bounds_it(run, motors, parts, bound):
    assert math.isfinite(terminal_takes(run, SimpleNamespace(motors=(None,) * motors), parts)) is bound
