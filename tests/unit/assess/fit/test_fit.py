"""The fit: clearances, what is unknown, the search for a place, cuts, shroud, mounts, and what is made from them."""

import csv
import math
import statistics

import pytest
from pypdf import PdfReader

from keelroom.assess.acts.places import options_for
from keelroom.assess.acts.registry import edit_for
from keelroom.assess.acts.shroud import seat_edit
from keelroom.assess.assess import assess
from keelroom.assess.figures.templates import cut_list, patterns
from keelroom.assess.fit.clearances import fit_up
from keelroom.assess.fit.coolers import mount_notes
from keelroom.assess.fit.frames import frame_plans
from keelroom.assess.fit.mounts import bracket_plans, core_growth
from keelroom.assess.fit.shroud_plan import pan_plan, trim_plan
from keelroom.assess.placing import hidden_share, stand
from keelroom.assess.questions.cutting import checks_missing, cut_plan
from keelroom.assess.questions.places import find_places
from keelroom.assess.words import not_to_cut
from keelroom.assess.work.hardware import hardware_list
from keelroom.catalogue.load import fan_assemblies, placed
from keelroom.core.packaging.bracket import Ends, Stock, flat_or_joggle
from keelroom.core.packaging.fixings import Section
from keelroom.core.packaging.sheet import METALS
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.moves import Move
from keelroom.document.schema.survey import Corner, Obstacle, SecondReading
from keelroom.drawing.fitup import VIEWS, section_sheet, view_scene
from keelroom.drawing.pattern import pattern_scene
from keelroom.drawing.survey import WALK, picture
from keelroom.errors import ExportError, InputError
from keelroom.export.dxf import dxf_text
from keelroom.export.survey_sheet import write_survey_sheet
from keelroom.export.svg import svg_text
from keelroom.export.tables import write_csv
from keelroom.export.tiles import write_tiles
from tests.acts import doing
from tests.changes import on
from tests.conftest import DEMO
from tests.told import said_by, what_of, why_of

BUILD = load(DEMO)
INCH = 0.0254
P1 = ("packages", "p1")


def tape(text):
    return quantity(text, "length", "measured")


def changed(build, *pairs):
    return apply(build, Edit("", tuple(Change(path, value) for path, value in pairs)))


def obstacle(**sides):
    box = {
        "left": "0 in",
        "bottom": "0 in",
        "front": "0 in",
        "width": "1 in",
        "height": "1 in",
        "depth": "1 in",
    } | sides
    return Obstacle(id="box", name="Box", **{side: tape(text) for side, text in box.items()})


def gap_to(build, name, part=""):
    """The tightest clearance to one neighbour, of one part where it is named."""
    return next(
        gap for gap in fit_up(build, build.package).gaps if gap.other.name == name and gap.part.name.startswith(part)
    )


@pytest.fixture(scope="module")
def clear():
    """The demo with its horn moved away and its brace measured: everything known, everything clear."""
    return changed(
        BUILD,
        ((*P1, "moves"), (Move(id="horn"),)),
        (("survey", "obstacles", "brace", "left"), tape("26 1/2 in")),
        ((*P1, "place", "x"), tape("-5/8 in")),
    )


TANKS = ((*P1, "core", "tank_proud"), BUILD.package.core.tank_proud.model_copy(update={"origin": "measured"}))
"""how far the tanks stand out behind the core, taken with a tape"""


# clearances


def test_a_gap_is_what_the_tape_between_the_faces_says(clear):
    """An upright box straight behind the right tank: depth to its front less the tank's back."""
    core = clear.package.core
    back = 0.25 * INCH + core.depth.si + core.tank_proud.si
    build = changed(
        clear,
        (("survey", "obstacles"), (obstacle(left="25 3/4 in", bottom="8 in", front="4 in", width="1/2 in"),)),
        ((*P1, "place", "lean"), quantity("0 °", "angle")),
    )
    gap = gap_to(build, "Box", "Right tank")
    assert gap.gap == pytest.approx(4 * INCH - back, abs=1e-6)
    assert gap.wanted == pytest.approx(5 / 16 * INCH)


def test_the_stack_names_what_dominates(clear):
    box = obstacle(left="25 3/4 in", bottom="8 in", front="3 1/4 in", width="1/2 in")
    rough = box.model_copy(update={"front": box.front.model_copy(update={"doubt": 0.25 * INCH})})
    assert (
        gap_to(changed(clear, (("survey", "obstacles"), (rough,))), "Box", "Right tank").weakest.label
        == "Tanks behind the core"
    ), "a guess"
    gap = gap_to(changed(clear, (("survey", "obstacles"), (rough,)), TANKS), "Box", "Right tank")
    assert gap.weakest.label == "Box: front"
    assert gap.worst > gap.likely > 0.25 * INCH * 0.99
    assert gap.worst == pytest.approx(sum(link.effect for link in gap.links))


def test_verdicts_from_unsurveyed_to_clear(clear):
    assert fit_up(clear, clear.package).verdict in ("tight", "clears")
    assert fit_up(BUILD, BUILD.package).verdict == "does not fit"
    guessed = changed(clear, (("survey", "obstacles", "brace", "left"), quantity("26 1/2 in", "length", "assumed")))
    found = fit_up(guessed, guessed.package)
    assert found.verdict == "not measured", "a guess blocks a clean verdict"
    assert found.next.path == ("survey", "obstacles", "brace", "left")
    bare = changed(BUILD, (("survey",), type(BUILD.survey)()))
    assert fit_up(bare, bare.package).verdict == "not surveyed"
    assert assess(bare).fit.gaps == ()


def test_an_unmeasured_neighbour_is_drawn_as_unknown(clear):
    build = changed(clear, (("survey", "obstacles", "horn", "depth"), None), ((*P1, "moves"), ()))
    fit = fit_up(build, build.package)
    assert fit.verdict == "not measured"
    for view in VIEWS:
        assert any(shape.role == "fit.unknown" for shape in view_scene(view, build, build.package, fit, "us").shapes)
    assert any(
        "not measured" in getattr(shape, "text", "") for shape in section_sheet(build, build.package, fit, "us").shapes
    )


def test_the_engine_rocks_the_belt_forward(clear):
    still = changed(clear, (("survey", "engine", "rock_forward"), tape("2 1/2 in")))
    rocked = changed(clear, (("survey", "engine", "rock_forward"), tape("3 in")))
    gaps = [gap_to(build, "Water pump nose", "Shroud").gap for build in (still, rocked)]
    assert gaps[0] - gaps[1] == pytest.approx(0.5 * INCH, rel=0.05), "straight ahead of the nose is the shroud's face"


def test_next_reading_is_the_one_that_may_turn_the_verdict(clear):
    box = obstacle(left="25 3/4 in", bottom="8 in", front="3 7/16 in", width="1/2 in")
    rough = box.model_copy(update={"front": box.front.model_copy(update={"doubt": 0.25 * INCH})})
    build = changed(clear, (("survey", "obstacles"), (rough,)), TANKS)
    assert fit_up(build, build.package).next.path == ("survey", "obstacles", "box", "front")


def test_rules_are_the_users(clear):
    build = changed(clear, (("gaps", "static", "gap"), tape("2 in")))
    assert fit_up(build, build.package).verdict == "does not fit"
    with pytest.raises(InputError):
        changed(clear, (("gaps", "static", "gap"), tape("0 in")))
    with pytest.raises(InputError):
        changed(clear, (("gaps", "static", "gap"), tape("-1/4 in")))


# findings


def codes(build):
    return {finding.code: finding for finding in assess(build).findings}


def test_a_depth_smaller_than_the_sum_of_its_parts():
    build = changed(BUILD, (("survey", "engine", "block_depth"), tape("12 in")))
    finding = codes(build)["depth_contradiction"]
    assert finding.level == "problem"
    assert finding.limit == pytest.approx((10.625 + 3.5) * INCH)
    assert "depth_contradiction" not in codes(BUILD)
    assert "rails_contradiction" in codes(changed(BUILD, (("survey", "rails", "between"), tape("29 in"))))


def test_a_second_reading_that_differs():
    second = (SecondReading(id="engine.turning.nose.depth", value=tape("8 7/8 in")),)
    finding = codes(changed(BUILD, (("survey", "second"), second)))["readings_differ"]
    assert finding.value == pytest.approx(3 / 8 * INCH)
    taken = apply(BUILD, edit_for(BUILD, finding.fix[0]))
    assert next(t for t in taken.survey.engine.turning if t.id == "nose").depth.si == pytest.approx(
        8.875 * INCH, abs=1e-4
    )
    assert "readings_differ" not in codes(BUILD), "an eighth apart is the tape's own doubt"


def test_a_self_crossing_opening_and_an_obstacle_in_the_core():
    corners = [(0, 0), (24, 19), (24, 0), (0, 19)]
    made = tuple(Corner(id=f"c{k}", x=tape(f"{x} in"), y=tape(f"{y} in")) for k, (x, y) in enumerate(corners))
    assert "crosses itself" in what_of(
        codes(changed(BUILD, (("survey", "opening", "corners"), made)))["opening_crosses"]
    )
    inside = obstacle(left="10 in", bottom="8 in", front="3/4 in")
    assert codes(changed(BUILD, (("survey", "obstacles"), (inside,))))["obstacle_in_core"].level == "problem"


def test_a_fix_counts_on_the_horn_moved_away():
    finding = next(f for f in assess(BUILD).findings if f.code == "fit_overlaps")
    build = apply(BUILD, edit_for(BUILD, finding.fix[0]))
    assert build.package.moved == ("reservoir", "horn")
    assert not any("Horn" in what_of(f) for f in assess(build).findings if f.code.startswith("fit_"))


@pytest.mark.parametrize(
    ("field", "value"),
    [
        ("kind", "latch_support"),
        ("kind", "brake_unit"),
        ("kind", "exhaust"),
        ("structural", True),
        ("mobility", "fixed"),
    ],
)
def test_no_place_is_made_by_taking_away_what_the_car_needs(field, value):
    """Entered as removable or not: the hood's latch, the brakes, the exhaust and structure are never proposed away."""
    where = ("survey", "obstacles", "horn")
    build = changed(BUILD, ((*where, "mobility"), "removable"), ((*where, field), value))
    assert all("horn" not in {item.id for item in option.loose} for option in options_for(build, build.package))
    told = [f for f in assess(build).findings if f.code == "fit_overlaps" and "Horn" in what_of(f)]
    assert told
    assert not any(f.fix for f in told)


# the search


def test_places_truly_clear_stay_in_reach_and_are_ranked():
    told = []
    search = find_places(BUILD, lambda share: told.append(share) is None)
    assert told == sorted(told)
    assert len(search.found) > 1
    assert len({found.words for found in search.found}) == len(search.found)
    now, place = stand(BUILD.survey, BUILD.package), BUILD.package.place
    for found in search.found:
        build = doing(BUILD, found.act)
        fit = fit_up(build, build.package)
        assert fit.tightest.margin >= -1e-4
        assert found.margin == pytest.approx(fit.tightest.margin)
        at = stand(build.survey, build.package)
        assert abs(at.x - now.x) <= place.reach_x.si + INCH / 16
        assert abs(at.z - now.z) <= place.reach_z.si + INCH / 16
        assert all(heat is not None for _, heat in found.temperatures)
    first = search.found[0]
    assert first.words.startswith("Horn moved away"), "the least that has to be moved, and the fans kept"
    assert first.work == 20 * 60
    assert [f.removals for f in search.found] == sorted(f.removals for f in search.found)


def test_what_the_search_finds_is_solved_in_full():
    """With the fans held on: the same place judged whole with a toggle that is on."""
    found = find_places(BUILD).found[0]
    control = ("packages", "p1", "control")
    held_on = on(doing(BUILD, found.act), ((*control, "strategy"), "toggle"), ((*control, "toggle_on"), True))
    figures = assess(held_on)
    by_name = {case.name: case.figures.temperature for case in figures.cases if case.figures}
    for name, heat in found.temperatures:
        assert heat == pytest.approx(by_name[name], abs=0.05) or math.isinf(heat)


def test_no_reach_no_place_and_the_search_says_what_would_help():
    held = {f"reach_{axis}": quantity("0 in", "length") for axis in "xyz"} | {"reach_lean": quantity("0 °", "angle")}
    wall = Obstacle(
        id="wall",
        name="Wall",
        **{
            side: tape(text)
            for side, text in (
                ("left", "-10 in"),
                ("bottom", "-10 in"),
                ("front", "4 3/4 in"),
                ("width", "50 in"),
                ("height", "50 in"),
                ("depth", "1 in"),
            )
        },
    )
    build = changed(
        BUILD, (("survey", "obstacles"), (wall,)), ((*P1, "place"), BUILD.package.place.model_copy(update=held))
    )
    search = find_places(build)
    assert search.found == ()
    assert "Wall" in search.none.binding
    assert any("depth" in way for way in search.none.relax)


def test_a_cancelled_search_stops():
    search = find_places(BUILD, lambda share: share < 0.2)
    assert search.stopped
    assert search.found == ()


# cutting


def test_stages_uncover_the_face_and_the_no_go_edge_is_refused():
    plan = cut_plan(BUILD)
    hidden = [stage.hidden for stage in plan.stages]
    assert hidden == sorted(hidden, reverse=True)
    assert hidden[-1] == pytest.approx(0.0, abs=1e-6)
    assert [stage.letter for stage in plan.stages] == ["", "A", "B"]
    grades = [dict(stage.heats)["Quarry hill with trailer"] for stage in plan.stages]
    assert grades == sorted(grades, reverse=True)
    assert plan.uncut is not None
    assert {check for check, _ in plan.missing} == {"hood", "latch", "structure"}
    forbidden = cut_plan(changed(BUILD, (("survey", "opening", "left_edge"), "no_go")))
    assert [bool(stage.refused) for stage in forbidden.stages if stage.edge == "left"] == [True]
    cut = doing(BUILD, plan.stages[1].act)
    assert codes(cut)["cut_checks"].level == "problem"
    assert list(stand(cut.survey, cut.package)) == pytest.approx(list(stand(BUILD.survey, BUILD.package)), abs=1e-6), (
        "the core stays where it is"
    )
    checked = changed(cut, (("survey", "checks"), ("hood", "belt", "latch", "structure")))
    assert checks_missing(checked) == ()
    assert "cut_checks" not in codes(checked)


def test_an_opening_made_for_a_16_in_core_with_a_24_in_core_behind_it():
    """Common practice, no source: a third of the face sits behind metal."""
    build = changed(BUILD, (("active",), "p3"), (("survey", "opening", "width"), tape("16 in")))
    assert hidden_share(build.survey, build.package) == pytest.approx(1 / 3, abs=0.02)
    amounts = [stage.amount for stage in cut_plan(build).stages if stage.edge]
    assert sum(amounts) == pytest.approx(8 * INCH, abs=1e-3)
    assert max(amounts) <= INCH + 1e-9


# shroud


def test_trimming_3_8_a_side_seats_it_and_gains_3_8_at_the_pump():
    """Common practice, no source."""
    build = changed(BUILD, (("active",), "p3"))
    plan = trim_plan(build.package)
    assert not plan.now.seats
    assert plan.ready["left"] == pytest.approx(3 / 8 * INCH)
    before = next(gap for gap in fit_up(build, build.package).gaps if gap.other.name == "Water pump nose")
    seated = apply(build, seat_edit(build.package, "us"))
    after = next(
        gap
        for gap in fit_up(seated, seated.package).gaps
        if gap.other.name == "Water pump nose" and gap.part.name == before.part.name
    )
    assert after.gap - before.gap == pytest.approx(3 / 8 * INCH, abs=0.3e-3)
    assert trim_plan(seated.package).now.seats
    assert trim_plan(seated.package).leak < 0.3 * plan.leak
    air = [next(c.figures for c in assess(b).cases if c.case_id == "idle").airflow_fans_on for b in (build, seated)]
    assert air[1] > air[0]


def test_an_uneven_trim_moves_the_fan_with_its_shroud():
    build = changed(BUILD, (("active",), "p3"))
    moved = apply(build, seat_edit(build.package, "us", to_right=3 / 8 * INCH))
    assert moved.package.fans[0].x.si - build.package.fans[0].x.si == pytest.approx(3 / 8 * INCH, abs=1e-6)
    assert moved.package.shroud.trim_left.si == pytest.approx(0.0, abs=1e-9)
    assert moved.package.shroud.trim_right.si == pytest.approx(0.75 * INCH)


def test_a_line_through_the_ring_is_refused():
    build = changed(BUILD, (("active",), "p3"), (("packages", "p3", "shroud", "trim_left"), tape("5 in")))
    assert "ring" in what_of(codes(build)["trim_fault"])


def test_a_pan_without_room_for_its_bends_and_a_hard_one():
    shallow = changed(BUILD, ((*P1, "shroud", "depth"), tape("1/8 in")))
    assert "bends" in what_of(codes(shallow)["pan_fault"])
    hard = changed(BUILD, ((*P1, "shroud", "metal"), "al_6061"), ((*P1, "shroud", "thickness"), tape("1/8 in")))
    assert len(pan_plan(hard.package).made.patterns) > 1
    flat, beaded = pan_plan(BUILD.package), pan_plan(changed(BUILD, ((*P1, "shroud", "bead"), tape("1/4 in"))).package)
    assert beaded.frequency > 1.5 * flat.frequency
    floppy = changed(BUILD, ((*P1, "shroud", "thickness"), tape("0.040 in")), ((*P1, "shroud", "flange"), tape("0 in")))
    assert pan_plan(floppy.package).sag > 20 * flat.sag, (
        "0.040 in sheet is floppy until its edges are folded (common practice)"
    )


def test_slim_fans_and_deep_ones():
    """Common practice, no source: about 2 1/2 in against about 5 in."""
    slim = [a.fan.depth.si / INCH for a in fan_assemblies() if "slim" in a.name]
    deep = [a.fan.depth.si / INCH for a in fan_assemblies() if "deep" in a.name]
    assert statistics.median(slim) == pytest.approx(2.5, abs=0.3)
    assert statistics.median(deep) == pytest.approx(5.0, abs=0.5)


# mounts


def test_brackets_of_the_demo_can_be_made_and_hold():
    plans = bracket_plans(BUILD, BUILD.package)
    assert [plan.made.kind for plan in plans] == ["joggle", "joggle", "L", "L"]
    assert all(not plan.faults and plan.strap.safety >= 2 for plan in plans)
    ribbed = changed(BUILD, ((*P1, "brackets", "bracket1", "stiffener"), tape("3/16 in")))
    stiff = bracket_plans(ribbed, ribbed.package)[0]
    assert stiff.made.pattern.bounds == plans[0].made.pattern.bounds, "the strap itself is the same"
    assert stiff.made.rib is not None
    assert stiff.strap.sag < plans[0].strap.sag
    rows = {row[0] for row in cut_list(ribbed, ribbed.package, "us")}
    assert any("rib (weld on edge)" in name for name in rows), "it is listed by itself"


def test_a_rib_lies_on_a_flat_and_never_on_a_bend():
    """The rib's ends, two thicknesses from where a bend ends, 1 1/2 diameters from a hole: walked along the flat
    strap."""
    stock = Stock(METALS["steel"], 1.125 * INCH, INCH / 8, INCH / 8, INCH / 4)
    ends = Ends(7e-3, 7e-3, 9 * INCH / 16)
    made = flat_or_joggle("Strap", 8 * INCH, 1.5 * INCH, stock, ends)
    assert made.kind == "joggle"
    assert not made.faults
    line = next(mark for mark in made.pattern.marks if mark.to)
    for bend in made.pattern.bends:
        half = math.radians(abs(bend.degrees)) * (INCH / 8 + 0.64 / (math.pi / 2) * INCH / 8) / 2
        ahead, behind = line.at[0] - (bend.start[0] + half), bend.start[0] - half - line.to[0]
        assert max(ahead, behind) >= INCH / 4 - 1e-9
    short = flat_or_joggle("Strap", 3 * INCH, 0.0, stock._replace(rib=INCH), ends)
    assert "no flat long enough for its rib" in said_by(short.faults[0]).lower()
    assert short.rib is None
    # Roark: the bare strap's second moment is 1.125 x 0.125^3 / 12 in4 = 1.83e-4; the tee about its own middle is
    # 0.140625 x 0.0596^2 + 1.83e-4 + 0.125 x 0.375^3 / 12 + 0.046875 x 0.1904^2 = 2.93e-3 in4.
    inertia, _ = Section(1.125 * INCH, INCH / 8, 3 * INCH / 8).bending()
    assert inertia / INCH**4 == pytest.approx(2.93e-3, rel=0.01)


def test_what_cannot_be_made_says_so_on_every_sheet_list_and_file(tmp_path):
    """A pan whose flange has no room for its bend: template, cut list, DXF and SVG all carry the words."""
    bad = changed(BUILD, ((*P1, "shroud", "flange"), tape("1/8 in")))
    (pan,) = [pattern for pattern in patterns(bad, bad.package) if pattern.name.startswith("Shroud")]
    warning = not_to_cut(pan, "us")
    assert warning.startswith("DO NOT CUT: No room for the flange")
    rows = cut_list(bad, bad.package, "us")
    assert rows[0][-1] == "Can be made"
    assert [row[-1] for row in rows[1:] if row[0].startswith("Shroud")] == [warning]
    assert {row[-1] for row in rows[1:] if not row[0].startswith("Shroud")} == {"yes"}
    assert warning in dxf_text((pan,), "us")
    assert "DO NOT CUT" in svg_text(pattern_scene(pan, "us", dimensions=False))
    write_tiles((pan,), tmp_path / "t.pdf", "A4", 40, "us")
    pages = PdfReader(tmp_path / "t.pdf").pages
    assert all("DO NOT CUT" in page.extract_text() for page in pages)
    good = patterns(BUILD, BUILD.package)
    assert not any(pattern.faults for pattern in good)


def test_flanges_stand_clear_of_the_tanks_or_are_said_to_stand_on_them():
    """26 in between the tanks: with 3/4 in flanges all round a 26 in pan is 27 1/2 in over them, 3/8 in proud of the
    fins."""
    clear = pan_plan(BUILD.package)
    assert clear.pan.plain == (True, False)
    assert clear.pan.over_flanges[0] / INCH == pytest.approx(26.0)
    assert not clear.faults
    round_it = changed(BUILD, ((*P1, "shroud", "flanges"), "all_round"))
    over = pan_plan(round_it.package)
    assert any(
        "27 1/2 in" in said_by(fault) and "26 in" in said_by(fault) and "on the tanks" in said_by(fault)
        for fault in over.faults
    )
    (finding,) = [f for f in assess(round_it).findings if f.code == "pan_fault"]
    assert not pan_plan(apply(round_it, edit_for(round_it, finding.fix[0])).package).faults
    flush = changed(round_it, ((*P1, "core", "tank_proud"), tape("0 in")))
    assert not pan_plan(flush.package).faults
    # Of 2 in walls and 3/4 in flanges at 0.05 in and 1/16 in radius a bend takes 0.0945 in off: 26 + 2 (2 - 0.0945), 17
    # + 2 (2.75 - 0.189).
    assert clear.made.sheet[0] / INCH == pytest.approx(29.811, abs=2e-3)
    assert clear.made.sheet[1] / INCH == pytest.approx(22.122, abs=2e-3)


def test_a_shroud_that_came_with_its_fans_is_not_made_from_sheet():
    """No twin of the catalogue is told to be folded round rings that its own shroud carries."""
    for assembly in fan_assemblies():
        fans, shroud = placed(assembly, BUILD.package.core, "us")
        assert shroud.supplied is assembly.shrouded
        package = BUILD.package.model_copy(update={"fans": fans, "shroud": shroud})
        assert (pan_plan(package) is None) is (assembly.shrouded or shroud.kind == "none")


@pytest.mark.parametrize(
    ("field", "text", "says"),
    [
        ("radius", "1 in", "no room for its bend"),
        ("edge", "1/4 in", "needs at least"),
        ("near_hole", "5 mm", "does not pass"),
        ("thickness", "1/32 in", "bends for good"),
        ("squeezed", "3/8 in", "rattle"),
    ],
)
def test_a_bracket_that_cannot_be_says_why(field, text, says):
    kind = (*P1, "brackets", "bracket3", field)
    build = changed(BUILD, (kind, tape(text)), ((*P1, "brackets", "bracket3", "stiffener"), tape("0 in")))
    assert any(says in what_of(f).lower() for f in assess(build).findings if f.code == "bracket_fault"), [
        what_of(f) for f in assess(build).findings
    ]


def test_m6_in_a_quarter_inch_hole_has_no_room_to_adjust():
    """Common practice, no source."""
    build = changed(BUILD, ((*P1, "brackets", "bracket1", "near_hole"), tape("1/4 in")))
    assert any("hardly any room" in said_by(note) for note in bracket_plans(build, build.package)[0].notes)
    assert any(
        "25 N·m" in said_by(note, "si")
        for note in bracket_plans(
            changed(
                BUILD,
                ((*P1, "brackets", "bracket1", "bolt"), "in516"),
                ((*P1, "brackets", "bracket1", "near_hole"), tape("3/8 in")),
                ((*P1, "brackets", "bracket1", "far_hole"), tape("3/8 in")),
            ),
            BUILD.package.model_copy(
                update={
                    "brackets": (
                        BUILD.package.brackets[0].model_copy(
                            update={"bolt": "in516", "near_hole": tape("3/8 in"), "far_hole": tape("3/8 in")}
                        ),
                    )
                }
            ),
        )[0].notes
    )


def test_growth_frame_and_remote_cooler():
    assert 1.2e-3 < core_growth(BUILD.package) < 1.6e-3
    stuck = changed(BUILD, ((*P1, "mounting", "float_gap"), tape("1/32 in")))
    assert codes(stuck)["no_float"].level == "problem"
    assert frame_plans(BUILD.package)[0].faults == ()
    greedy = changed(BUILD, ((*P1, "mounting", "frames", "frame1", "lap"), tape("3/4 in")))
    assert "covers" in said_by(frame_plans(greedy.package)[0].faults[0])
    remote = next(cooler for cooler in BUILD.package.coolers if cooler.id == "cooler")
    assert mount_notes(BUILD, BUILD.package, remote)[0] == ()
    tight = remote.model_copy(
        update={"spacer": tape("1/4 in"), "side_room": tape("1/2 in"), "fitting": "straight", "bottom": tape("-14 in")}
    )
    assert [field for field, _ in mount_notes(BUILD, BUILD.package, tight)[0]] == [
        "spacer",
        "side_room",
        "fitting_room",
        "bottom",
    ]
    hung = changed(BUILD, ((*P1, "mounting", "fan_to"), "through_fins"))
    assert "Zip ties" in why_of(codes(hung)["through_fins"])


# what is made


def test_templates_and_lists(tmp_path):
    names = [pattern.name for pattern in patterns(BUILD, BUILD.package)]
    assert names[0] == "Core mock-up"
    assert sum("mock-up" in name for name in names) == 7
    assert sum(name in ("Upper left strap", "Upper right strap", "Left foot", "Right foot") for name in names) == 4
    assert any("line holes" in name for name in names)
    rows = cut_list(BUILD, BUILD.package, "us")
    write_csv(rows, tmp_path / "cut.csv")
    with open(tmp_path / "cut.csv", encoding="utf-8-sig", newline="") as file:
        assert [tuple(row) for row in csv.reader(file)] == rows
    bought = {(row[0], row[2]): row[1] for row in hardware_list(BUILD, BUILD.package, "us")}
    assert bought["Bolt M6, button head, plated", "brackets"] == "8"
    hardware = {item: count for (item, _), count in bought.items()}
    assert hardware["Foam strip or split hose"].startswith("86")


def test_a_template_that_takes_too_many_sheets_is_refused(tmp_path):
    with pytest.raises(ExportError) as refused:
        write_tiles(patterns(BUILD, BUILD.package), tmp_path / "t.pdf", "A4", 5, "us")
    assert "5 are allowed" in refused.value.message
    assert not (tmp_path / "t.pdf").exists()
    few = patterns(BUILD, BUILD.package)[1:2]
    assert write_tiles(few, tmp_path / "t.pdf", "Letter", 5, "us") == len(PdfReader(tmp_path / "t.pdf").pages)


def test_every_reading_has_its_picture_and_the_blank_sheet_asks_for_it(tmp_path):
    from keelroom.gui.stations.survey.model import walk

    readings = [path for _, rows in walk(BUILD) for _, path in rows]
    assert len(readings) > 80
    assert all(picture(path) is not None for path in readings), [path for path in readings if picture(path) is None]
    write_survey_sheet(BUILD, walk(BUILD), tmp_path / "s.pdf", "us")
    text = "".join(page.extract_text() for page in PdfReader(tmp_path / "s.pdf").pages)
    assert "Panel opening, width" in text
    assert "Engine rocks forward" in text
    assert all(where.words for where in WALK.values())
