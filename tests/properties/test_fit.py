"""What must hold of any fit: distances know no observer, metal is neither lost nor made, more room is never worse."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from keelroom.assess.figures.templates import patterns
from keelroom.assess.fit.clearances import fit_up
from keelroom.assess.questions.places import find_places
from keelroom.core.outline import area, rectangle
from keelroom.core.packaging.bracket import Ends, Stock, angle_bracket, flat_or_joggle
from keelroom.core.packaging.fixings import Beam, Section, strap
from keelroom.core.packaging.pattern import Pattern
from keelroom.core.packaging.sheet import METALS, Beads, bend_allowance, bend_deduction, edge_sag, plate_frequency
from keelroom.core.packaging.shroud import Blank, Pan, leak, pan, trim, trims_to_seat
from keelroom.core.packaging.solids import Solid, clearance, leaned, stacked
from keelroom.core.packaging.stack import Link, chance_under, dominant, root_sum_square, worst_case
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.file import load
from keelroom.document.quantity import from_si
from keelroom.document.schema.moves import Move
from keelroom.document.schema.survey import Survey
from keelroom.export.tiles import OVERLAP, sheets_needed, tiling
from tests.conftest import DEMO
from tests.floors import FLOOR

BUILD = load(DEMO)
INCH = 0.0254
SMALL, PLACE = st.floats(0.01, 0.3), st.floats(-0.5, 0.5)
VECTOR = st.tuples(PLACE, PLACE, PLACE)


@st.composite
def solids(draw):
    half = draw(st.tuples(SMALL, SMALL, SMALL))
    is_round = draw(st.booleans())
    return Solid(
        draw(VECTOR), (half[0], half[0] if is_round else half[1], half[2]), leaned(draw(st.floats(-0.5, 0.5))), is_round
    )


def sheet_area(pattern):
    """Area [m2] of one piece, openings left out."""
    openings = sum(abs(area(outline)) for outline in pattern.outlines[1:]) + sum(
        math.pi / 4 * hole.diameter**2 for hole in pattern.openings
    )
    return abs(area(pattern.outlines[0])) - openings


def gap(a, b):
    return float(clearance(stacked([a]), stacked([b])).gap[0])


def shifted(solid, by):
    return solid._replace(centre=tuple(c + s for c, s in zip(solid.centre, by, strict=True)))


@given(solids(), solids(), VECTOR)
def test_a_gap_is_the_same_from_either_side_and_from_anywhere(a, b, by):
    here = gap(a, b)
    assert gap(b, a) == pytest.approx(here, abs=5e-5)
    assert gap(shifted(a, by), shifted(b, by)) == pytest.approx(here, abs=5e-5)


@FLOOR.at_least(10)
@given(solids(), solids(), st.floats(0.0, 0.2))
def test_moving_a_part_moves_its_gap_by_no_more(a, b, step):
    moved = gap(shifted(a, (0.0, 0.0, step)), b)
    here = gap(a, b)
    if FLOOR.met(here >= 0 and moved >= 0):
        assert abs(moved - here) <= step + 1e-4


@given(st.lists(st.tuples(st.floats(1e-5, 5e-3), st.floats(0.0, 1.0)), min_size=1, max_size=8))
def test_the_worst_case_is_never_less_than_the_root(readings):
    links = [Link(str(k), (), tolerance, share) for k, (tolerance, share) in enumerate(readings)]
    worst, root = worst_case(links), root_sum_square(links)
    assert dominant(links).effect <= root + 1e-12 <= worst + 2e-12
    assert worst <= root * math.sqrt(len(links)) + 1e-12


@given(st.floats(-0.01, 0.03), st.floats(1e-4, 5e-3))
def test_more_gap_is_never_likelier_to_be_too_little(wide, spread):
    chances = [chance_under(g, 0.01, spread) for g in (wide, wide + 1e-3, wide + 5e-3)]
    assert chances == sorted(chances, reverse=True)
    assert all(0 <= c <= 1 for c in chances)


# metal


@given(st.sampled_from(sorted(METALS)), st.floats(0.5e-3, 4e-3), st.floats(0.0, 8e-3), st.floats(0.1, math.pi / 2))
def test_a_bend_takes_more_than_its_inside_and_less_than_its_outside(key, thickness, radius, angle):
    allowance = bend_allowance(METALS[key], thickness, radius, angle)
    assert angle * radius < allowance < angle * (radius + thickness)
    assert bend_deduction(METALS[key], thickness, radius, angle) > 0, (
        "an outside corner is longer than the metal that turns it"
    )


STOCK = Stock(METALS["steel"], 0.028, 0.003, 0.003)
ENDS = Ends(0.007, 0.007, 0.014)


@given(st.floats(0.05, 0.3), st.floats(0.0, 0.05))
def test_a_joggle_is_longer_than_the_way_and_shorter_than_two_right_angles(run, offset):
    made = flat_or_joggle("Strap", run, offset, STOCK, ENDS)
    if made.faults:
        return
    between = made.developed - 2 * ENDS.edge
    assert math.hypot(run, max(offset - STOCK.thickness, 0.0)) - 2e-3 <= between <= run + offset + 1e-3


@given(st.floats(0.0, 0.08), st.floats(0.0, 0.08))
def test_an_l_bracket_has_room_or_says_it_has_none(first, second):
    made = angle_bracket("Foot", (first, second), STOCK, ENDS)
    need = STOCK.radius + STOCK.thickness + ENDS.near / 2 + 2 * STOCK.thickness
    assert bool(made.faults) == (min(first, second) < need - 1e-9)


@given(st.floats(0.005, 0.05), st.floats(0.5e-3, 6e-3), st.floats(0.02, 0.3), st.floats(0.1, 10.0))
def test_a_rib_or_a_shorter_reach_never_weakens_a_strap(width, thickness, reach, mass):
    plain = strap(METALS["steel"], Beam(Section(width, thickness)), reach, mass, 5.0)
    ribbed = strap(
        METALS["steel"],
        Beam(Section(width, thickness), Section(width, thickness, 4 * thickness), (0.0, 1.0)),
        reach,
        mass,
        5.0,
    )
    short = strap(METALS["steel"], Beam(Section(width, thickness)), reach / 2, mass, 5.0)
    guided = strap(METALS["steel"], Beam(Section(width, thickness)), reach, mass, 5.0, guided=True)
    assert ribbed.sag < plain.sag
    assert ribbed.frequency > plain.frequency
    assert short.stress == pytest.approx(plain.stress / 2)
    assert short.sag == pytest.approx(plain.sag / 8)
    assert guided.stress == pytest.approx(plain.stress / 2)
    assert guided.sag == pytest.approx(plain.sag / 4)


@given(st.floats(0.5e-3, 3e-3), st.floats(0.05, 0.6), st.floats(0.05, 0.6), st.floats(0.0, 0.01))
def test_thicker_smaller_or_beaded_panels_ring_higher(thickness, width, height, bead):
    metal = METALS["al_5052"]
    here = plate_frequency(metal, thickness, width, height, Beads(bead))
    assert plate_frequency(metal, 1.2 * thickness, width, height, Beads(bead)) > here
    assert plate_frequency(metal, thickness, 0.8 * width, height, Beads(bead)) > here
    assert plate_frequency(metal, thickness, width, height, Beads(bead + 2e-3)) > here
    assert edge_sag(metal, thickness, width, 0.02, 10.0) < edge_sag(metal, thickness, width, 0.0, 10.0)


# shrouds


@given(st.floats(0.4, 0.8), st.floats(0.3, 0.5), st.floats(0.4, 0.8), st.floats(0.3, 0.5), st.floats(-0.1, 0.1))
def test_what_is_trimmed_to_seat_seats_and_no_more_is_cut(width, height, seat_w, seat_h, shift):
    cut = trims_to_seat((width, height), (seat_w, seat_h), (shift, 0.0))
    assert all(value >= 0 for value in cut.values())
    assert cut["left"] + cut["right"] == pytest.approx(max(width - seat_w, 0.0))
    assert cut["bottom"] + cut["top"] == pytest.approx(max(height - seat_h, 0.0))
    found = trim(Blank(width, height, ()), (seat_w, seat_h), cut, 0.01, 1e-3)
    assert found.seats
    proud = trim(Blank(width, height, ()), (seat_w, seat_h), dict.fromkeys(cut, 0.0), 0.01, 1e-3)
    assert proud.seats == (width <= seat_w + 1e-4 and height <= seat_h + 1e-4)
    assert proud.gap >= found.gap - 1e-9 or not proud.seats


@given(st.floats(0.0, 1e-2), st.floats(0.0, 400.0))
def test_a_leak_grows_with_its_gap_and_the_root_of_its_pressure(opening, pressure):
    here = leak(opening, pressure, 1.15)
    assert leak(2 * opening, pressure, 1.15) == pytest.approx(2 * here)
    assert leak(opening, 4 * pressure, 1.15) == pytest.approx(2 * here)


@given(st.floats(0.4, 0.8), st.floats(0.3, 0.5), st.floats(0.03, 0.08), st.floats(0.015, 0.03))
def test_one_piece_or_several_take_the_same_metal_but_for_the_bends(width, height, depth, flange):
    thin, metal = Pan(width, height, depth, flange, 1e-3, 1.6e-3, ()), METALS["al_5052"]
    whole, parted = pan("Whole", thin, metal, (3.0, 3.0)), pan("Parted", thin, metal, (0.1, 0.1))
    assert len(whole.patterns) == 1 < len(parted.patterns)
    joined = sum(pattern.copies * abs(area(pattern.outlines[0])) for pattern in parted.patterns)
    around = 2 * (width + height)
    assert abs(sheet_area(whole.patterns[0]) - joined) < around * 8e-3


# printing


@given(st.floats(0.01, 2.0), st.floats(0.01, 2.0), st.sampled_from(["A4", "Letter"]))
def test_sheets_cover_a_piece_and_none_is_wasted(wide, high, paper):
    pattern = Pattern("Piece", "Cardboard", (rectangle(0, 0, wide, high),))
    laid = tiling(pattern, paper)
    for size, step, count in ((wide, laid.step[0], laid.across), (high, laid.step[1], laid.up)):
        assert count * step + OVERLAP >= size - 1e-9
        assert count == 1 or (count - 1) * step + OVERLAP < size
    assert sheets_needed((pattern, pattern), paper) == 2 * laid.sheets


# the whole fit


@FLOOR.at_least(100)
@given(st.floats(-0.04, 0.04), st.floats(-0.02, 0.02), st.floats(0.0, 0.03), st.floats(-0.1, 0.1))
def test_every_clearance_agrees_with_its_drawn_line_wherever_the_core_stands(x, y, z, lean):
    place = ("packages", "p1", "place")
    pose = {"x": -0.02 + x, "y": 0.03 + y, "z": z}
    changes = [Change((*place, axis), from_si(value, "length", "us", "derived")) for axis, value in pose.items()]
    build = apply(BUILD, Edit("", (*changes, Change((*place, "lean"), from_si(lean, "angle", "us", "derived")))))
    gaps = fit_up(build, build.package).gaps
    margins = [gap.margin for gap in gaps]
    assert margins == sorted(margins)
    for found in gaps:
        assert found.likely <= found.worst + 1e-12
        if FLOOR.met(found.gap > 0):
            assert math.dist(found.a, found.b) == pytest.approx(found.gap, abs=2e-4), (
                "the drawn line is as long as the figure"
            )
            assert np.linalg.norm(found.normal) == pytest.approx(1.0, abs=1e-6)


def test_less_wanted_is_never_a_worse_verdict():
    order = ("does not fit", "not measured", "tight", "clears")
    ranks = []
    for inches in (2.0, 1.0, 0.5, 0.1):
        rules = tuple(
            rule.model_copy(update={"gap": from_si(inches * INCH, "length", "us", "measured")}) for rule in BUILD.gaps
        )
        build = apply(
            BUILD, Edit("", (Change(("gaps",), rules), Change(("packages", "p1", "moves"), (Move(id="horn"),))))
        )
        ranks.append(order.index(fit_up(build, build.package).verdict))
    assert ranks == sorted(ranks)


def test_an_unsurveyed_bay_has_no_place_but_says_what_to_do():
    search = find_places(apply(BUILD, Edit("", (Change(("survey",), Survey()),))))
    assert search.found == ()
    assert "Survey" in search.none.relax[0]


def test_every_template_of_every_package_is_closed_and_has_metal():
    for package in BUILD.packages:
        for pattern in patterns(BUILD, package):
            assert all(len(outline) > 2 for outline in pattern.outlines), pattern.name
            assert sheet_area(pattern) > 0, pattern.name
