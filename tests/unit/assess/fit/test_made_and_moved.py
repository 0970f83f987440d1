"""Panels, mounts between any two points, moved neighbours and joined shrouds of a build: by hand, and against scipy."""

import math

import numpy as np
import pytest
from scipy.optimize import minimize

from keelroom.assess.acts.panels import closing
from keelroom.assess.acts.registry import edit_for
from keelroom.assess.acts.shroud import seat_edit
from keelroom.assess.assess import assess, first_wave
from keelroom.assess.figures.templates import cut_list, patterns, sheet_list
from keelroom.assess.fit.clearances import fit_up
from keelroom.assess.fit.frames import frame_plans
from keelroom.assess.fit.mounts import anchors, bracket_plans
from keelroom.assess.fit.moves import moves_of
from keelroom.assess.fit.panels import panel_plans
from keelroom.assess.fit.shroud_plan import ring_of, trim_plan
from keelroom.assess.inputs.coolant.volumes import bottle_wanted
from keelroom.assess.inputs.sealing import open_area, ways
from keelroom.assess.questions.panel_worth import panel_worth
from keelroom.assess.work.hardware import hardware_list
from keelroom.assess.work.money import likely_hours
from keelroom.document.edits import Edit, apply
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.mounts import Bracket, Frame
from keelroom.document.schema.moves import Move
from keelroom.document.schema.panels import EDGES, Panel
from keelroom.document.schema.survey import AirHole, MountHole
from tests.changes import on
from tests.conftest import DEMO
from tests.told import said_by, what_of

BUILD = load(DEMO)
P1 = ("packages", "p1")
INCH = 0.0254


def tape(text):
    return quantity(text, "length", "measured")


def panel(**fields):
    return Panel(
        id="panel1",
        **{
            name: tape(value) if isinstance(value, str) and value.endswith((" in", " mm")) else value
            for name, value in fields.items()
        },
    )


def bracket(**fields):
    return Bracket(
        id="b",
        name="Mount",
        **{
            name: tape(value) if isinstance(value, str) and value.endswith((" in", " mm")) else value
            for name, value in fields.items()
        },
    )


def plan_of(**fields):
    build = on(BUILD, ((*P1, "brackets"), (bracket(**fields),)))
    return bracket_plans(build, build.package)[0]


def with_moves(*moves, build=BUILD):
    return on(build, ((*P1, "moves"), moves))


BARE = on(
    BUILD,
    ((*P1, "panels"), ()),
    ((*P1, "moves"), ()),
    (("survey", "air_holes"), ()),
    *(((*P1, "sealing", edge, "gap"), "3/8 in", "length") for edge in EDGES),
)

# ways round the core


def test_what_is_open_round_the_core_by_hand():
    """26 x 17 in face, 3/8 in all round: 2·26·0.375 + 2·17·0.375 = 32.25 in2. A top panel with foam that reaches
    leaves 22.5."""
    area = open_area(BARE.package, ()) / INCH**2
    assert area == pytest.approx(32.25)
    closed = on(BARE, ((*P1, "panels"), (panel(closes="top", foam="1/2 in"),)))
    assert open_area(closed.package, ()) / INCH**2 == pytest.approx(32.25 - 9.75)
    metal = on(BARE, ((*P1, "panels"), (panel(closes="top", foam=None),)))
    assert open_area(metal.package, ()) / INCH**2 == pytest.approx(32.25 - 26 * (0.375 - 0.0625)), (
        "sheet on sheet stands 1/16 in open"
    )
    half = on(BARE, ((*P1, "panels"), (panel(closes="top", foam="1/2 in", length="13 in"),)))
    assert open_area(half.package, ()) / INCH**2 == pytest.approx(32.25 - 13 * 0.375)
    off = on(BARE, ((*P1, "panels"), (panel(closes="top", foam="1/2 in", fitted=False),)))
    assert open_area(off.package, ()) == pytest.approx(open_area(BARE.package, ()))


def test_a_horn_hole_counts_until_it_is_covered():
    """4 in round: 12.57 in2; its cover without foam leaves a sixteenth all round, π·4/16 = 0.785 in2."""
    hole = AirHole(id="horn_hole", width=tape("4 in"), round=True)
    build = on(BARE, (("survey", "air_holes"), (hole,)))
    assert (open_area(build.package, (hole,)) - open_area(build.package, ())) / INCH**2 == pytest.approx(4 * math.pi)
    covered = on(build, ((*P1, "panels"), (panel(kind="cover", closes="horn_hole", foam=None),)))
    left = next(way for way in ways(covered.package, (hole,)) if way.key == "horn_hole").left
    assert left / INCH**2 == pytest.approx(math.pi / 4)


def test_a_gap_of_two_inches_over_the_core_is_hotter_than_the_one_assumed():
    """Common practice, no source: nobody measured it, and an idle of 199 °F reads some 10 °F more with 2 in over and
    under the core."""
    wide = on(
        BARE, ((*P1, "sealing", "top", "gap"), "2 in", "length"), ((*P1, "sealing", "bottom", "gap"), "2 in", "length")
    )
    before, after = (next(c.figures for c in first_wave(build).cases if c.case_id == "idle") for build in (BARE, wide))
    assert after.recirculated > before.recirculated + 0.05
    assert after.front_air > before.front_air + 2


def test_panels_alone_give_about_ten_degrees_at_the_vents():
    """Common practice, no source: ten °F at the A/C vents. A nose without its panels, 3 in over and under and 1 in
    beside, then closed all round."""
    gaps = [
        ((*P1, "sealing", edge, "gap"), "3 in" if edge in ("top", "bottom") else "1 in", "length") for edge in EDGES
    ]
    build = on(BARE, *gaps)
    closed = apply(build, Edit("", closing(build.package, (), EDGES)))
    worth = panel_worth(closed)
    assert [one.name for one in worth][-1] == "All of them together"
    before, after = worth[-1].idle
    assert 6 < (before.vents - after.vents) * 1.8 < 14
    assert before.front - after.front > 2
    assert after.back < 0.02
    # What the table says is what the build with and without them gives.
    bare = next(c.figures for c in first_wave(build).cases if c.case_id == "idle")
    whole = next(c.figures for c in first_wave(closed).cases if c.case_id == "idle")
    assert (before.vents, before.front) == pytest.approx((bare.fluids.vents, bare.front_air), abs=1e-6)
    assert (after.vents, after.front) == pytest.approx((whole.fluids.vents, whole.front_air), abs=1e-6)


def test_closing_every_edge_closes_it_and_is_then_done():
    edit = Edit("", closing(BARE.package, (), EDGES))
    closed = apply(BARE, edit)
    assert open_area(closed.package, ()) == 0
    assert closing(closed.package, (), EDGES) == ()
    assert {one.kind for one in closed.package.panels} == {"panel", "strip"}
    assert all(not plan.faults for plan in panel_plans(closed, closed.package)), "what the tool adds can be made"


@pytest.mark.parametrize("text", ["1/8 in", "3/8 in", "3/4 in", "1 1/4 in", "2 in", "4 in"])
def test_foam_the_tool_adds_reaches_across_and_is_squeezed_enough(text):
    build = on(BARE, *(((*P1, "sealing", edge, "gap"), text, "length") for edge in EDGES))
    closed = apply(build, Edit("", closing(build.package, (), EDGES)))
    for plan in panel_plans(closed, closed.package):
        assert 0.15 < plan.share < 0.75, (text, plan.name)
    assert open_area(closed.package, ()) == 0


def test_an_air_dam_pulls_air_out_under_the_car():
    dam = panel(kind="dam", closes="", depth="4 in", back_lip="0 in", bolts=quantity("0", "count"))
    with_dam = on(BARE, ((*P1, "panels"), (dam,)))
    for build, less in ((BARE, 0.0), (with_dam, 0.0)):
        assert panel_plans(build, build.package) == () or not panel_plans(build, build.package)[0].faults, less
    before, after = (
        next(c.figures for c in first_wave(build).cases if c.case_id == "cruise") for build in (BARE, with_dam)
    )
    assert after.airflow > before.airflow
    idle = [next(c.figures for c in first_wave(build).cases if c.case_id == "idle") for build in (BARE, with_dam)]
    assert idle[0].airflow == pytest.approx(idle[1].airflow), "standing it does nothing"


def test_flaps_the_wrong_way_round_leak_at_a_light():
    """Right: shut standing, open at speed. Reversed or upside down the fans draw bay air through them."""
    flapped = on(BARE, ((*P1, "shroud", "flap_area"), "60 in²", "area"))

    def idle(build):
        return next(c.figures for c in first_wave(build).cases if c.case_id == "idle").airflow_fans_on

    right = idle(flapped)
    for field, value in (("flap_way", "toward"), ("flap_hinge", "bottom")):
        assert idle(on(flapped, ((*P1, "shroud", field), value))) < 0.9 * right


# what is made of them


def test_a_panel_is_cut_listed_sheeted_and_its_pins_foam_and_trim_bought():
    build = on(BARE, ((*P1, "panels"), (panel(closes="top", foam="1/2 in"),)))
    plan = panel_plans(build, build.package)[0]
    assert plan.length / INCH == pytest.approx(26)
    row = next(row for row in cut_list(build, build.package, "us") if row[0] == "Panel, top")
    assert row[3].startswith("26")
    assert row[-1] == "yes"
    bought = {(item, use): count for item, count, use in hardware_list(build, build.package, "us")}
    assert bought[("Push pin", "Panel, top")] == "4"
    assert bought[("Plastic washer M6, under the panel", "Panel, top")] == "3"
    assert bought[("Foam strip 1/2 in thick, soft", "Panel, top")] == "26 in"
    assert ("Rubber edge trim, takes 1/8 in", "Panel, top") in bought
    sheet = next(row for row in sheet_list(build, build.package, "us")[1:] if "5052" in row[0])
    assert sheet[2] == "1"
    assert sheet[4] == "none"


def test_a_template_of_every_made_part_is_there():
    build = on(
        BARE,
        ((*P1, "panels"), (panel(closes="top"),)),
        (
            (*P1, "brackets"),
            (bracket(end="hole:upper_left", thickness="3/16 in", radius="3/16 in", stiffener="3/16 in"),),
        ),
    )
    names = [pattern.name for pattern in patterns(build, build.package)]
    assert {"Panel, top", "Mount", "Mount, rib (weld on edge)"} <= set(names)


def test_a_second_panel_over_the_same_gap_closes_nothing():
    two = (panel(closes="top"), panel(closes="top").model_copy(update={"id": "panel2"}))
    build = on(BARE, ((*P1, "panels"), two))
    assert [len(plan.faults) for plan in panel_plans(build, build.package)] == [0, 1]
    halves = tuple(one.model_copy(update={"length": tape("13 in")}) for one in two)
    build = on(BARE, ((*P1, "panels"), halves))
    assert all(not plan.faults for plan in panel_plans(build, build.package)), "two halves make a whole"
    assert open_area(build.package, ()) / INCH**2 == pytest.approx(32.25 - 9.75)


# points and mounts


def test_every_kind_of_point_is_there_and_where_it_should_be():
    points = anchors(BUILD.survey, BUILD.package)
    kinds = {key.split(":")[0] for key in points}
    assert {"core", "shroud", "ring", "bung", "cooler", "frame", "hole", "neighbour"} <= kinds
    # A stud of fan 1's ring: 12 in blades, its ring's middle a quarter of an inch out, at 45 degrees: 4.42 in across
    # and up of its centre.
    centre = np.array(points["ring:fan1:1"].at) - np.array(points["ring:fan1:3"].at)
    assert np.linalg.norm(centre) / INCH == pytest.approx(2 * 6.25, rel=1e-3)
    horn = next(item for item in BUILD.survey.obstacles if item.id == "horn")
    assert points["neighbour:horn:left"].at[0] == pytest.approx(horn.left.si)
    assert points["neighbour:horn:top"].at[1] == pytest.approx(horn.bottom.si + horn.height.si)
    assert points["neighbour:horn:rear"].at[2] == pytest.approx(horn.front.si + horn.depth.si)


def test_a_pad_and_spacers_take_off_what_is_left_to_joggle():
    """The strap stands on its pad as bolted up, 5/16 in, and on spacers: its offset is so much less; on a bare part
    it is all of it."""
    bare, packed, spaced = (
        plan_of(end="hole:upper_left", isolated=flag, spacer=spacer, thickness="3/16 in", radius="3/16 in")
        for flag, spacer in ((False, "0 in"), (True, "0 in"), (True, "1/8 in"))
    )

    def rise(plan):
        first = plan.made.pattern.bends[0]
        return math.tan(math.radians(abs(first.degrees)))

    assert bare.made.kind == packed.made.kind == spaced.made.kind == "joggle"
    assert rise(bare) >= rise(packed) >= rise(spaced)
    points = anchors(BUILD.survey, BUILD.package)
    assert points["core:upper_left"].faces == "front"


def test_a_strap_whose_ends_coincide_is_told_at_its_end():
    plan = plan_of(start="core:upper_left", end="core:upper_left")
    assert [field for field in plan.at][:1] == ["end"]
    assert "same point" in said_by(plan.faults[0])


def test_a_new_hole_has_to_be_placed():
    assert "not placed yet" in said_by(plan_of(end="new").faults[0])
    placed = plan_of(end="new", new_x="-3 in", new_y="20 in", new_z="1 in", isolated=False)
    assert placed.made is not None
    assert "drill both at once" in said_by(placed.transfer[1])


def test_a_point_that_is_gone_is_told_where_it_was_chosen():
    plan = plan_of(start="ring:fan9:1", end="hole:upper_left")
    assert (plan.made, plan.at) == (None, ("start",))


@pytest.mark.parametrize(
    ("behind", "words"),
    [
        (None, "measure how much is free"),
        ("4 in", "from behind with the bracket held"),
        ("1 in", "marked template from the far face"),
    ],
)
def test_how_a_hole_is_carried_over(behind, words):
    holes = tuple(
        hole.model_copy(update={"behind": tape(behind) if behind else None}) if hole.id == "upper_left" else hole
        for hole in BUILD.survey.holes
    )
    build = on(BUILD, (("survey", "holes"), holes), ((*P1, "brackets"), (bracket(end="hole:upper_left"),)))
    assert words in said_by(bracket_plans(build, build.package)[0].transfer[1])
    stud = tuple(hole.model_copy(update={"stud": True}) for hole in BUILD.survey.holes)
    build = on(BUILD, (("survey", "holes"), stud), ((*P1, "brackets"), (bracket(end="hole:upper_left"),)))
    assert "over the stud" in said_by(bracket_plans(build, build.package)[0].transfer[1])


def across(x="0 in", out="2 in"):
    """A hole straight behind the core's upper left one, or beside that by x; on a core that stands upright."""
    upright = on(BUILD, (("survey", "opening", "support_lean"), "0 °", "angle"))
    at = anchors(upright.survey, upright.package)["core:upper_left"].at
    places = [f"{(at[0]) / INCH:.6f} in", f"{at[1] / INCH:.6f} in", f"{at[2] / INCH:.6f} in"]
    hole = MountHole(
        id="far",
        name="Far",
        x=tape(f"{at[0] / INCH + float(x.split()[0]):.6f} in"),
        y=tape(places[1]),
        z=tape(f"{at[2] / INCH + float(out.split()[0]):.6f} in"),
        diameter=tape("3/8 in"),
    )
    return on(upright, (("survey", "holes"), (*upright.survey.holes, hole)))


@pytest.mark.parametrize(("form", "long"), [("stud", 2 + 2 * 2.5 * 6 / 25.4), ("standoff", 2.0)])
def test_a_stud_or_stand_off_goes_straight_across(form, long):
    """2 in apart, no pad: a stand-off of 2 in, a stud that reaches 2 1/2 of its 6 mm beyond each part."""
    build = on(across(), ((*P1, "brackets"), (bracket(form=form, end="hole:far", isolated=False),)))
    plan = bracket_plans(build, build.package)[0]
    assert plan.made.developed / INCH == pytest.approx(long, rel=1e-4)
    aside = on(across(x="0.5 in"), ((*P1, "brackets"), (bracket(form=form, end="hole:far", isolated=False),)))
    assert "beside each other" in said_by(bracket_plans(aside, aside.package)[0].faults[0])


def test_a_strap_straight_across_is_no_strap():
    build = on(across(), ((*P1, "brackets"), (bracket(end="hole:far", isolated=False),)))
    assert any("stud or a stand-off" in said_by(fault) for fault in bracket_plans(build, build.package)[0].faults)


def test_an_adapter_plate_from_old_holes_to_new_ones():
    build = across(x="2 in", out="0.1 in")
    plate = bracket(
        form="plate",
        start="core:upper_left",
        end="hole:far",
        isolated=False,
        spacer="1/8 in",
        edge="1/2 in",
        width="2 in",
    )
    build = on(build, ((*P1, "brackets"), (plate,)))
    plan = bracket_plans(build, build.package)[0]
    assert plan.made.kind == "plate"
    assert not plan.faults
    assert plan.made.pattern.bounds[2] / INCH == pytest.approx(3.0, rel=1e-3)
    off = on(build, ((*P1, "brackets"), (plate.model_copy(update={"ends": ("hole:lip_left",)}),)))
    assert {"ends"} == set(bracket_plans(off, off.package)[0].at)


@pytest.mark.parametrize("ident", ["brake", "horn", "regulator", "reservoir", "steering"])
def test_the_bracket_planned_for_a_moved_part_holds_it(ident):
    """The planner's own findings do not condemn it: a strip strong enough for what it bears, and room for its bends."""
    build = on(BUILD, ((*P1, "moves"), (Move(id=ident, how="bracket", by_x=tape("-2 in")),)))
    finding = next(f for f in assess(build).findings if f.code == "move_unheld")
    held = apply(build, edit_for(build, finding.fix[0]))
    plan = bracket_plans(held, held.package)[-1]
    assert plan.made is not None
    assert plan.faults == ()


def test_a_bracket_for_a_moved_horn_takes_nothing_off_the_cores_straps():
    """The horn's box 4 x 4 x 3 in, as heavy as water: 0.787 kg on its one bracket; the core's four bear what they
    bore before."""
    moved = with_moves(Move(id="horn", how="new_place", left=tape("30 in")))
    horn = bracket(start="neighbour:horn:left", end="hole:lip_right")
    more = on(moved, ((*P1, "brackets"), (*BUILD.package.brackets, horn)))
    plans = bracket_plans(more, more.package)
    before = bracket_plans(BUILD, BUILD.package)
    assert [plan.strap for plan in plans[:4]] == [plan.strap for plan in before]
    assert plans[-1].load.mass == pytest.approx(48 * INCH**3 * 1000)
    assert plans[-1].load.what == "horn"
    assert not plans[-1].load.steady
    # 30 1/2 x 17 x 2 1/4 in of core at 750 kg/m3 and 360 W of fans: 18.66 kg on four.
    assert plans[0].load.mass * 4 == pytest.approx(30.5 * 17 * 2.25 * INCH**3 * 750 + 360 * 0.012, rel=1e-6)
    inner = on(BUILD, ((*P1, "brackets"), (bracket(start="shroud:upper_left", end="core:upper_left"),)))
    assert bracket_plans(inner, inner.package)[0].load.what == "fans and shroud"


def test_straps_of_the_trade_hold_a_package():
    """Common practice, no source: 1/8 x 1 in strip with rivet nuts, 1/2 in mild steel for small bends, 0.050 in
    straps with a rib and studs."""
    for stock in (
        {"width": "1 1/8 in", "thickness": "1/8 in", "nut": "rivet_nut"},
        {
            "width": "1 1/4 in",
            "thickness": "0.050 in",
            "radius": "1/16 in",
            "stiffener": "1/2 in",
            "nut": "welded_stud",
            "far_nut": "welded_stud",
        },
    ):
        build = across(x="5 in", out="0.3125 in")
        four = tuple(bracket(end="hole:far", **stock).model_copy(update={"id": f"b{k}"}) for k in range(4))
        build = on(build, ((*P1, "brackets"), four), ((*P1, "mounting", "shock"), "3", "number"))
        plan = bracket_plans(build, build.package)[0]
        assert plan.made.kind == "flat"
        assert not plan.faults, plan.faults
        assert any("root pass" in said_by(note) for note in plan.notes) is ("stiffener" in stock)


# frames


def test_a_frame_round_any_cooler_hangs_by_brackets_from_its_corners():
    frame = Frame(id="frame2", cooler="cooler", hangs="brackets")
    build = on(BUILD, ((*P1, "mounting", "frames"), (*BUILD.package.mounting.frames, frame)))
    plan = frame_plans(build.package)[1]
    assert "0 brackets" in said_by(plan.faults[0])
    hung = tuple(
        bracket(start=f"frame:frame2:{corner}", end="hole:lip_left").model_copy(update={"id": f"f{corner}"})
        for corner in ("upper_left", "upper_right", "lower_left")
    )
    held = on(build, ((*P1, "brackets"), hung))
    assert not frame_plans(held.package)[1].faults
    on_core = on(build, ((*P1, "mounting", "frames", "frame2", "hangs"), "core"))
    assert "does not stand at the core" in said_by(frame_plans(on_core.package)[1].faults[0])


def test_a_frame_is_as_large_as_its_corners_say():
    """A condenser that begins 2 in from the left and reaches to the right: from corner hole to corner hole a
    crosspiece is its length less a leg."""
    build = on(
        BUILD,
        ((*P1, "coolers", "condenser", "left"), "2 in", "length"),
        ((*P1, "coolers", "condenser", "width"), None),
        ((*P1, "mounting", "frames"), (Frame(id="frame1"),)),
    )
    (frame,) = build.package.mounting.frames
    points = anchors(build.survey, build.package)
    apart = math.dist(points["frame:frame1:upper_left"].at, points["frame:frame1:upper_right"].at)
    crosspiece = next(length for name, length, _ in frame_plans(build.package)[0].pieces if "Crosspiece" in name)
    assert crosspiece == pytest.approx(apart + frame.leg.si)


# moved neighbours


def box_gap(a, b):
    """Least distance between two upright boxes by scipy: the nearest points, each held in its own box."""
    (alo, ahi), (blo, bhi) = a, b
    start = np.concatenate([(alo + ahi) / 2, (blo + bhi) / 2])
    found = minimize(
        lambda p: ((p[:3] - p[3:]) ** 2).sum(),
        start,
        bounds=[*zip(alo, ahi, strict=True), *zip(blo, bhi, strict=True)],
        method="L-BFGS-B",
        options={"ftol": 1e-16, "gtol": 1e-12},
    )
    return math.sqrt(found.fun)


def box_of(item, move=(0.0, 0.0, 0.0)):
    low = np.array([item.left.si, item.bottom.si, item.front.si]) + move
    return low, low + np.array([item.width.si, item.height.si, item.depth.si])


@pytest.mark.parametrize(
    "by", [("3/4 in", "0 in", "0 in"), ("1/2 in", "1/4 in", "0 in"), ("0 in", "-1/4 in", "3/4 in")]
)
def test_a_slid_neighbours_clearance_against_scipy(by):
    """The brake unit slid toward the washer bottle and the beam: every gap to another box as a bounded least
    distance."""
    build = with_moves(Move(id="brake", how="slotted", by_x=tape(by[0]), by_y=tape(by[1]), by_z=tape(by[2])))
    items = {item.id: item for item in build.survey.obstacles}
    step = np.array([quantity(text, "length").si for text in by])
    found = fit_up(build, build.package)
    held = 0
    for gap in found.gaps:
        if gap.part.key == "moved:brake" and gap.other.key.startswith("obstacle:"):
            other = items[gap.other.key.partition(":")[2]]
            if other.shape == "box":
                assert gap.gap == pytest.approx(box_gap(box_of(items["brake"], step), box_of(other)), abs=2e-5)
                held += 1
    assert held >= 1
    assert not any(body.key == "obstacle:brake" for body in found.others)
    assert any(body.key == "moved:brake" for body in found.moved)


def test_a_neighbour_moved_into_another_is_a_clearance_like_any():
    """The regulator put where the brake unit stands: one inside the other, told at the move."""
    build = with_moves(
        Move(id="regulator", how="new_place", left=tape("-4 in"), bottom=tape("12 in"), front=tape("5 in"))
    )
    finding = next(
        f
        for f in assess(build).findings
        if f.code == "fit_overlaps" and "Voltage regulator" in what_of(f) and "Brake unit" in what_of(f)
    )
    assert finding.where == ("packages", "p1", "moves", "regulator", "left")


def test_two_moved_neighbours_are_judged_against_each_other_once():
    moves = [
        Move(id=ident, how="new_place", left=tape("40 in"), bottom=tape("5 in"), front=tape("10 in"))
        for ident in ("horn", "regulator")
    ]
    build = with_moves(*moves)
    gaps = [gap for gap in fit_up(build, build.package).gaps if gap.part.sort == gap.other.sort == "moved"]
    assert len(gaps) == 1
    assert gaps[0].gap < 0


def test_the_horn_moved_away_no_longer_meets_the_fan():
    def meets(build):
        return any(
            gap.gap < 0 and "Horn" in (gap.part.name, gap.other.name) for gap in fit_up(build, build.package).gaps
        )

    assert meets(BARE)
    assert not meets(with_moves(Move(id="horn", how="new_place", left=tape("34 in")), build=BARE))
    assert meets(with_moves(Move(id="horn", how="slotted", by_x=tape("1/4 in")), build=BARE))


def test_a_notch_takes_a_piece_out_where_it_stands():
    build = with_moves(Move(id="brake", how="notched", notch_side="right", notch=tape("1 in")))
    items = {item.id: item for item in build.survey.obstacles}
    body = fit_up(build, build.package).moved[0]
    assert body.solid.half[0] * 2 == pytest.approx(items["brake"].width.si - INCH)
    low = body.solid.centre[0] - body.solid.half[0]
    assert low == pytest.approx(items["brake"].left.si), "what is left stays where it was"
    front = fit_up(with_moves(Move(id="brake", how="notched", notch_side="front", notch=tape("1 in"))), build.package)
    assert front is not None


def test_hours_and_cost_of_moves_panels_frames_and_brackets_reach_the_totals():
    """By hand: horn 20 min + slots 1/2 h; regulator 1/2 h + bracket 3/4 h; the bottle as entered, 2 h, one in ten
    twice; a panel that is bought 0.65 h, a strip 1/4 h, one in five twice; by PERT's means."""
    base = on(BARE, ((*P1, "brackets"), ()), ((*P1, "mounting", "frames"), ()), ((*P1, "moves"), ()))
    moves = (
        Move(id="horn", how="slotted", by_x=tape("1/2 in"), cost=quantity("5", "money")),
        Move(id="regulator", how="bracket", by_y=tape("1 in")),
        Move(
            id="reservoir",
            how="new_place",
            left=tape("40 in"),
            hours=quantity("2 h", "time"),
            cost=quantity("35", "money"),
        ),
    )
    panels = (
        panel(closes="top", cost=quantity("18", "money")),
        panel(kind="strip", closes="left", cost=quantity("6", "money")).model_copy(update={"id": "panel2"}),
    )
    build = on(base, ((*P1, "moves"), moves), ((*P1, "panels"), panels))
    found, before = likely_hours(build, build.package), likely_hours(base, base.package)
    moved = ((20 / 60 + 0.5) + (0.5 + 0.75) + 2) * (60 + 400 + 190) / 600 * 1.1
    fitted = (0.65 + 0.25) * (55 + 400 + 190) / 600 * 1.2
    assert (found - before) / 3600 == pytest.approx(moved + fitted)
    assert assess(build).totals.cost - assess(base).totals.cost == pytest.approx(5 + 35 + 18 + 6)


def test_what_a_bottle_has_to_hold_by_hand():
    """2.5 L at 1.3 is 3.25; 26 x 17 x 2 1/4 in is 16.3 L, a fifth 3.26; two tanks 2 1/4 x 2 5/8 x 17 in, 3.29 L,
    three quarters 2.47; two feet of
    1 1/2 in hose 0.70 and of 1 3/4 in 0.95; heater hoses of 5/8 in, 15 and 34 in along, 0.25; a third of the bottle
    0.50: 11.4 L. Half glycol grows some 5 1/2 % from 10 to 105 °C; twice that is wanted."""
    volume, grown, wanted = bottle_wanted(BUILD, BUILD.package)
    litres = 1.3 * BUILD.brief.engine.displacement.si * 1e3 + 3.26 + 2.47 + 0.70 + 0.95 + 0.25 + 0.50
    assert volume * 1e3 == pytest.approx(litres, rel=0.01)
    assert 0.045 < grown / volume < 0.065
    assert wanted == pytest.approx(2 * grown)


def test_cautions_of_latch_brakes_and_structure():
    kinds = on(
        BUILD,
        (("survey", "obstacles", "latch", "kind"), "latch_support"),
        (("survey", "obstacles", "brake", "kind"), "brake_unit"),
    )
    build = with_moves(
        Move(id="latch", how="notched", notch=tape("1/2 in")),
        Move(id="brake", how="slotted", by_z=tape("1/2 in")),
        Move(id="brace", how="notched", notch=tape("1/4 in")),
        build=kinds,
    )
    said = {moved.move.id: " ".join(map(said_by, moved.cautions)) for moved in moves_of(build, build.package)}
    assert "follow local codes" in said["latch"]
    assert "hood must stay shut" in said["latch"]
    assert "bled and tested" in said["brake"]
    assert "follow local codes" in said["brace"]
    assert sum(f.code == "move_caution" for f in assess(build).findings) == 3


def test_a_cap_under_something_cannot_be_reached():
    """The washer bottle's new place 1 in under the crossover pipe: a hand needs 3 in."""
    washer = on(BUILD, (("survey", "obstacles", "reservoir", "kind"), "washer_bottle"))
    low = with_moves(
        Move(id="reservoir", how="new_place", left=tape("10 in"), bottom=tape("7 3/8 in"), front=tape("7 in")),
        build=washer,
    )
    assert "cap_reach" in {f.code for f in assess(low).findings}
    free = with_moves(
        Move(id="reservoir", how="new_place", left=tape("40 in"), bottom=tape("7 in"), front=tape("7 in")), build=washer
    )
    assert "cap_reach" not in {f.code for f in assess(free).findings}


def test_the_bracket_that_is_planned_for_a_move_holds_it():
    build = with_moves(Move(id="horn", how="new_place", left=tape("30 in")))
    finding = next(f for f in assess(build).findings if f.code == "move_unheld")
    planned = apply(build, edit_for(build, finding.fix[0]))
    made = planned.package.brackets[-1]
    assert made.start.startswith("neighbour:horn:")
    assert bracket_plans(planned, planned.package)[-1].made is not None
    assert "move_unheld" not in {f.code for f in assess(planned).findings}


# joined shrouds


def joined(**fields):
    sizes = {"blank_width": "14 in", "blank_height": "17 in", "join_trim": "1 in", "lap": "3/4 in"} | fields
    return on(
        BUILD,
        ((*P1, "shroud", "joined"), True),
        *(((*P1, "shroud", name), text, "length") for name, text in sizes.items()),
    )


def test_two_shrouds_joined_are_trimmed_like_one_and_put_each_fan_in_its_ring():
    """14 + 14 - 2 - 3/4 = 25 1/4 in between the tanks' 26: it seats. Rings at 7 and 18 1/4 of its width, that stands
    3/8 in from each side."""
    build = joined()
    plan = trim_plan(build.package)
    assert plan.blank.width / INCH == pytest.approx(25.25)
    assert plan.now.seats
    seated = apply(build, seat_edit(build.package, "us"))
    assert [fan.x.si / INCH for fan in seated.package.fans] == pytest.approx([7.375, 18.625], abs=1e-4)
    assert math.hypot(*trim_plan(seated.package).off) < 1e-6
    names = [pattern.name for pattern in patterns(build, build.package)]
    assert sum("half" in name for name in names) == 2
    wide = trim_plan(joined(join_trim="1/4 in", lap="1/2 in").package)
    assert not wide.now.seats
    assert "where they meet" in " ".join(map(said_by, trim_plan(joined(join_trim="2 in").package).faults))


def test_a_bought_shroud_takes_another_fan_by_a_ring_or_is_opened_up():
    ring, faults, notes = ring_of(on(joined(), ((*P1, "shroud", "ring_opening"), "15 in", "length")).package)
    assert ring is not None
    assert ring.copies == 2
    assert not faults
    assert "laps it" in said_by(notes[0])
    none, faults, notes = ring_of(on(joined(), ((*P1, "shroud", "ring_opening"), "11 in", "length")).package)
    assert none is None
    assert not faults
    assert "Cut its opening" in said_by(notes[0])


def test_an_older_file_keeps_what_it_said_of_gaps_brackets_and_moved_parts(tmp_path):
    """Version 6 to 7: side and top gaps go to each edge, a bracket's part and hole become its points, what was moved
    away is taken out."""
    import json

    from tests.unit.assess.test_assess import GOLDEN

    raw = json.loads((GOLDEN / "version-6.keelroom").read_text())
    gap = {"si": 0.0127, "as_typed": "1/2 in", "unit": "in", "origin": "measured", "doubt": None}
    raw["packages"][0]["sealing"] = {"side_gap": gap}
    raw["packages"][0]["moved"] = ["horn"]
    raw["packages"][0]["brackets"] = [
        {"id": "b", "part": "shroud_lower_right", "hole": "lip_left", "nut": "rivet_nut"},
        {"id": "c", "hole": ""},
    ]
    raw["packages"][0]["mounting"] = {"frame": {"fitted": True, "leg": gap}}
    raw["packages"][1]["mounting"] = {"frame": {"fitted": False}}
    (tmp_path / "old.keelroom").write_text(json.dumps(raw))
    build = load(tmp_path / "old.keelroom")
    first = build.packages[0]
    assert [getattr(first.sealing, edge).gap.as_typed for edge in EDGES] == ["1/2 in", "1/2 in", "3/8 in", "3/8 in"]
    assert [(move.id, move.how) for move in first.moves] == [("horn", "removed")]
    assert [(b.start, b.end, b.nut, b.far_nut) for b in first.brackets] == [
        ("shroud:lower_right", "hole:lip_left", "rivet_nut", "rivet_nut"),
        ("core:upper_left", "", "lock_nut", "lock_nut"),
    ]
    assert [(f.fitted, f.leg.as_typed) for f in first.mounting.frames] == [(True, "1/2 in")]
    assert build.packages[1].mounting.frames == ()
