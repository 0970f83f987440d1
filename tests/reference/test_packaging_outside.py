"""The packaging against independent packages: shapely for outlines, scipy for distances in space and beams, ezdxf and
pypdf for files."""

import io
import math
import random

import ezdxf
import numpy as np
import pytest
import shapely
from CoolProp.CoolProp import PropsSI
from ezdxf import recover
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader
from scipy.integrate import solve_bvp
from scipy.optimize import minimize

from keelroom.catalogue.fluids import glycol_table
from keelroom.core.fluids.coolant import curves, mass_fraction
from keelroom.core.loop.volume import expansion
from keelroom.core.outline import area, clipped, clipped_line, crossing, to_outline, within
from keelroom.core.packaging.bracket import Ends, Stock, angle_bracket, flat_or_joggle
from keelroom.core.packaging.fixings import Beam, Section, strap
from keelroom.core.packaging.pattern import Pattern
from keelroom.core.packaging.sheet import METALS
from keelroom.core.packaging.shroud import Pan, pan
from keelroom.core.packaging.solids import Solid, clearance, cross, leaned, parted, stacked, unit
from keelroom.core.packaging.stack import Link, chance_under, root_sum_square
from keelroom.drawing.fitup import hull
from keelroom.export.dxf import dxf_text
from keelroom.export.tiles import tiles_bytes, tiling
from tests.reference.outside_packaging import INCH

POINT = st.tuples(st.integers(0, 40), st.integers(0, 40))


# outlines against shapely


@given(st.lists(POINT, min_size=3, max_size=9, unique=True))
def test_an_outline_crosses_itself_where_shapely_says_so(points):
    ours = crossing(tuple((float(x), float(y)) for x, y in points)) is None
    assert ours == shapely.Polygon(points).is_valid


@given(st.lists(POINT, min_size=3, max_size=9, unique=True), POINT)
def test_areas_and_distances_are_shapelys(points, at):
    polygon = shapely.Polygon(points)
    if not polygon.is_valid:
        return
    outline = tuple((float(x), float(y)) for x, y in points)
    spot = shapely.Point(at)
    assert abs(area(outline)) == pytest.approx(polygon.area)
    assert to_outline((float(at[0]), float(at[1])), outline) == pytest.approx(polygon.exterior.distance(spot), abs=1e-9)
    if polygon.exterior.distance(spot) > 1e-9:
        assert bool(within((np.array([at[0]], float), np.array([at[1]], float)), outline)[0]) == polygon.contains(spot)


@given(st.lists(POINT, min_size=3, max_size=20, unique=True))
def test_the_hull_is_shapelys(points):
    theirs = shapely.MultiPoint(points).convex_hull
    ours = hull([(float(x), float(y)) for x, y in points])
    assert abs(area(ours)) == pytest.approx(theirs.area)


@given(st.lists(POINT, min_size=3, max_size=12, unique=True), POINT, st.tuples(st.integers(1, 30), st.integers(1, 30)))
def test_what_is_clipped_is_shapelys(points, corner, size):
    outline = hull([(float(x), float(y)) for x, y in points])
    if len(outline) < 3:
        return
    box = (float(corner[0]), float(corner[1]), float(size[0]), float(size[1]))
    window = shapely.box(corner[0], corner[1], corner[0] + size[0], corner[1] + size[1])
    kept = clipped(outline, box)
    assert (abs(area(kept)) if len(kept) > 2 else 0.0) == pytest.approx(
        shapely.Polygon(outline).intersection(window).area, abs=1e-9
    )
    line = clipped_line(outline[0], outline[1], box)
    left = shapely.LineString(outline[:2]).intersection(window)
    assert (math.dist(*line) if line else 0.0) == pytest.approx(left.length, abs=1e-9)


# solids against an independent distance in space


def _turned(rng):
    """Random right-handed axes."""
    a = unit(tuple(rng.gauss(0, 1) for _ in range(3)))
    b = unit(cross(a, tuple(rng.gauss(0, 1) for _ in range(3))))
    return (b, cross(a, b), a)


def _random_solid(rng):
    half = [rng.uniform(0.02, 0.2) for _ in range(3)]
    is_round = rng.random() < 0.5
    if is_round:
        half[1] = half[0]
    axes = leaned(rng.uniform(-0.4, 0.4)) if rng.random() < 0.5 else _turned(rng)
    return Solid(tuple(rng.uniform(-0.4, 0.4) for _ in range(3)), tuple(half), axes, is_round)


def _scipy_distance(first, second):
    """Least distance between two convex solids: points of each as unknowns, their faces as constraints."""
    solids = (first, second)

    def place(k, local):
        return np.array(solids[k].centre) + local @ np.array(solids[k].axes)

    bounds, constraints = [], []
    for k, solid in enumerate(solids):
        if solid.round:
            bounds += [(None, None), (None, None), (-solid.half[2], solid.half[2])]
            constraints.append(
                {"type": "ineq", "fun": lambda v, k=k, r=solid.half[0]: r * r - v[3 * k] ** 2 - v[3 * k + 1] ** 2}
            )
        else:
            bounds += [(-h, h) for h in solid.half]

    def squared(v):
        gap = place(0, v[:3]) - place(1, v[3:])
        return float(gap @ gap) * 100

    best = min(
        (
            minimize(
                squared,
                start,
                bounds=bounds,
                constraints=constraints,
                method="SLSQP",
                options={"maxiter": 400, "ftol": 1e-14},
            )
            for start in (np.zeros(6), np.full(6, 0.01), np.full(6, -0.01))
        ),
        key=lambda found: found.fun,
    )
    return math.sqrt(max(best.fun, 0.0) / 100)


@pytest.mark.parametrize("seed", range(90))
def test_clearances_are_scipys(seed):
    rng = random.Random(seed)
    first, second = _random_solid(rng), _random_solid(rng)
    ours = float(clearance(stacked([first]), stacked([second])).gap[0])
    theirs = _scipy_distance(first, second)
    if theirs > 1e-4:
        assert ours == pytest.approx(theirs, abs=2e-5)
    else:
        assert ours < 1e-4, "solids that meet have no gap"
    bound = float(parted(stacked([first]), stacked([second]))[0][0])
    assert bound <= max(theirs, 0.0) + 1e-6, "what the search ranks by never promises more than there is"


def test_an_overlap_is_the_shortest_way_out():
    box = Solid((0.0, 0.0, 0.0), (0.1, 0.1, 0.1))
    for shift, deep in (((0.15, 0.0, 0.0), 0.05), ((0.15, 0.18, 0.0), 0.02)):
        found = clearance(stacked([box]), stacked([box._replace(centre=shift)]))
        assert float(found.gap[0]) == pytest.approx(-deep)


def test_an_overlap_is_the_shortest_way_out_of_a_cylinder():
    """A pin through a plate's corner: out along the diagonal by its radius, not by the corner of a box round it."""
    pin = Solid((0.0, 0.0, 0.0), (0.05, 0.05, 0.2), round=True)
    plate = Solid((0.13, 0.13, 0.0), (0.1, 0.1, 0.05))
    found = clearance(stacked([pin]), stacked([plate]))
    assert float(found.gap[0]) == pytest.approx(-(0.05 - math.hypot(0.03, 0.03)), abs=2e-3)


# beams and stacks


@pytest.mark.parametrize("guided", [False, True])
@pytest.mark.parametrize("rib", [0.0, 0.008])
def test_a_strap_bends_as_the_beam_equation_says(guided, rib):
    """E·I·y'''' = 0 solved by scipy with a shear at the end; free to turn there, or held level."""
    metal, section, reach, mass, shock = METALS["al_5052"], Section(0.025, 0.003, rib), 0.12, 3.0, 6.0
    found = strap(metal, Beam(section), reach, mass, shock, guided)
    # The section's own second moment by slicing it, flat strip with a rib of the same thickness on it.
    ys = np.linspace(0, 0.003 + rib, 20001)
    widths = np.where(ys <= 0.003, 0.025, 0.003)
    middle = np.trapezoid(widths * ys, ys) / np.trapezoid(widths, ys)
    inertia = float(np.trapezoid(widths * (ys - middle) ** 2, ys))
    force = mass * 9.80665 * shock

    def beam(_x, y):
        return np.vstack([y[1], y[2], y[3], np.zeros_like(y[0])])

    def ends(a, b):
        return np.array([a[0], a[1], b[1] if guided else b[2], b[3] + force / (metal.young * inertia)])

    solved = solve_bvp(beam, ends, np.linspace(0, reach, 40), np.zeros((4, 40)), tol=1e-8)
    assert found.sag == pytest.approx(abs(solved.y[0, -1]), rel=2e-3)
    moment = metal.young * inertia * np.abs(solved.y[2]).max()
    outer = max(middle, 0.003 + rib - middle)
    assert found.stress == pytest.approx(moment * outer / inertia, rel=2e-3)


def test_the_chance_of_too_little_room_is_what_dice_say():
    rng = np.random.default_rng(4)
    links = [Link(str(k), (), t) for k, t in enumerate((1.6e-3, 0.8e-3, 2.4e-3))]
    spread = root_sum_square(links)
    thrown = 10e-3 + sum(rng.normal(0, link.tolerance / 2, 400_000) for link in links)
    for wanted in (8e-3, 9.5e-3, 11e-3):
        assert chance_under(10e-3, wanted, spread) == pytest.approx(float((thrown < wanted).mean()), abs=3e-3)


# files that leave the program


STOCK = Stock(METALS["steel"], 0.028, 0.003, 0.003)
ENDS = Ends(0.007, 0.007, 0.014, 0.010)
BRACKET = angle_bracket("Foot", (0.06, 0.04), STOCK, ENDS)
STRAP = flat_or_joggle("Strap", 0.11, 0.02, STOCK, ENDS._replace(slot=0.0))
PANNED = pan(
    "Shroud",
    Pan(
        0.66,
        0.43,
        0.05,
        0.019,
        0.00127,
        0.0016,
        ((0.165, 0.215, 0.317), (0.495, 0.215, 0.317)),
        ((0.03, 0.03, 0.05, 0.06),),
    ),
    METALS["al_5052"],
    (1.2, 0.9),
)


def test_the_dxf_is_clean_and_true_to_a_hundredth():
    patterns = (BRACKET.pattern, *PANNED.patterns)
    text = dxf_text(patterns, "us")
    document, auditor = recover.read(io.BytesIO(text.encode()))
    assert not auditor.errors
    assert not document.audit().errors
    assert document.dxfversion == "AC1024", "R2010"
    assert document.units == ezdxf.units.MM
    assert {"CUT", "BEND", "DRILL", "MARK"} <= {layer.dxf.name for layer in document.layers}
    space = document.modelspace()
    strip = space.query("LWPOLYLINE[layer=='CUT']")[0]
    xs, ys = [p[0] for p in strip], [p[1] for p in strip]
    assert max(xs) - min(xs) == pytest.approx(BRACKET.developed * 1e3, abs=0.01)
    assert max(ys) - min(ys) == pytest.approx(28.0, abs=0.01)
    hole = space.query("CIRCLE[layer=='DRILL']")[0]
    assert hole.dxf.radius == pytest.approx(3.5, abs=0.01)
    assert hole.dxf.center.x - min(xs) == pytest.approx(14.0, abs=0.01)
    slot = space.query("LWPOLYLINE[layer=='DRILL']")[0]
    length = sum(
        part.dxf.start.distance(part.dxf.end) if part.dxftype() == "LINE" else math.pi * part.dxf.radius
        for part in slot.virtual_entities()
    )
    assert length == pytest.approx(2 * 10.0 + math.pi * 7.0, abs=0.01)
    rings = [circle for circle in space.query("CIRCLE[layer=='CUT']") if circle.dxf.radius > 100]
    assert [circle.dxf.radius for circle in rings] == pytest.approx([158.5, 158.5], abs=0.01)
    assert rings[1].dxf.center.x - rings[0].dxf.center.x == pytest.approx(330.0, abs=0.01)
    bends = space.query("LINE[layer=='BEND']")
    assert len(bends) == 1 + 8


def _strokes(page):
    """Every straight stroke of a page [mm], by the content stream as an independent reader gives it."""
    found, stack, matrix, at = [], [], np.eye(3), None
    for operands, operator in page.get_contents().operations:
        values = [float(v) for v in operands if isinstance(v, (int, float))]
        if operator == b"q":
            stack.append(matrix)
        elif operator == b"Q":
            matrix = stack.pop()
        elif operator == b"cm":
            a, b, c, d, e, f = values
            matrix = np.array([[a, b, 0], [c, d, 0], [e, f, 1]]) @ matrix
        elif operator in (b"m", b"l"):
            point = np.array([*values, 1.0]) @ matrix * 25.4 / 72
            if operator == b"l" and at is not None:
                found.append((tuple(at[:2]), tuple(point[:2])))
            at = point
    return found


@pytest.mark.parametrize("paper", ["A4", "Letter"])
def test_the_printed_bar_is_100_mm_and_the_piece_is_full_size(paper):
    reader = PdfReader(io.BytesIO(tiles_bytes((STRAP.pattern,), paper, "us")))
    page = reader.pages[0]
    size = sorted((float(page.mediabox.width), float(page.mediabox.height)))
    assert size == pytest.approx(sorted({"A4": (595.28, 841.89), "Letter": (612.0, 792.0)}[paper]), abs=0.01)
    lengths = [math.dist(a, b) for a, b in _strokes(page)]
    assert min(abs(length - 100.0) for length in lengths) < 0.01
    assert min(abs(length - STRAP.developed * 1e3) for length in lengths) < 0.01
    assert "100 mm" in page.extract_text()


@pytest.mark.parametrize("paper", ["A4", "Letter"])
def test_sheets_overlap_and_cover_the_whole_piece(paper):
    big = Pattern("Big", "Cardboard", (((0, 0), (0.9, 0), (0.9, 0.5), (0, 0.5)),))
    laid = tiling(big, paper)
    reader = PdfReader(io.BytesIO(tiles_bytes((big,), paper, "us")))
    assert len(reader.pages) == laid.sheets > 4
    for step, count, size, room in zip(laid.step, (laid.across, laid.up), (0.9, 0.5), laid.page, strict=True):
        assert count * step + 0.010 >= size, "no strip of the piece is left out"
        assert step + 0.010 <= room, "each sheet repeats a strip of the next"
    # The first sheet lies at the lower left corner: one cross, of two strokes, on the corner it shares with three
    # others.
    crosses = [sum(abs(math.dist(a, b) - 12.0) < 0.01 for a, b in _strokes(page)) for page in reader.pages]
    assert crosses[0] == 2
    assert max(crosses) == 8 or laid.across < 3 or laid.up < 3
    assert min(crosses) >= 2, "every sheet has marks to lay the next one on"


def test_an_l_bracket_folds_back_to_its_legs():
    """Flat length by the neutral line: the two straight parts plus the arc at the neutral radius (geometry, K = 0.64
    / (π/2))."""
    neutral = STOCK.radius + 0.64 / (math.pi / 2) * STOCK.thickness
    setback = STOCK.radius + STOCK.thickness
    straight = (0.06 + 0.014 - setback) + (0.04 + 0.014 - setback) + 0.010
    assert BRACKET.developed == pytest.approx(straight + math.pi / 2 * neutral, abs=1e-6)
    assert not BRACKET.faults


@pytest.mark.parametrize("offset", [0.008, 0.02, -0.03])
def test_a_joggle_reaches_from_hole_to_hole(offset):
    """Walk along the bent strap's neutral line by its bends: it must end at the run and the offset asked for."""
    made = flat_or_joggle("Strap", 0.11, offset, STOCK, ENDS._replace(slot=0.0))
    assert not made.faults, made.faults
    holes = [hole.centre[0] for hole in made.pattern.holes]
    neutral = STOCK.radius + 0.64 / (math.pi / 2) * STOCK.thickness
    middle = STOCK.radius + STOCK.thickness / 2
    x = y = heading = 0.0
    along = holes[0]
    for bend in made.pattern.bends:
        arc = abs(math.radians(bend.degrees)) * neutral
        straight = bend.start[0] - arc / 2 - along
        x, y = x + straight * math.cos(heading), y + straight * math.sin(heading)
        turn = math.radians(bend.degrees)
        sign = math.copysign(1.0, turn)
        x += middle * sign * (math.sin(heading + turn) - math.sin(heading))
        y += middle * sign * (math.cos(heading) - math.cos(heading + turn))
        heading += turn
        along = bend.start[0] + arc / 2
    straight = holes[1] - along
    x, y = x + straight * math.cos(heading), y + straight * math.sin(heading)
    assert (x, y) == pytest.approx((0.11, offset), abs=2e-4)
    assert heading == pytest.approx(0.0, abs=1e-9)


def test_a_pans_flat_blank_folds_back_to_its_size():
    """By the neutral line from flange tip to flange tip: flange, bend, wall, bend, base and back."""
    neutral = 0.0016 + 0.64 / (math.pi / 2) * 0.00127
    setback = 0.0016 + 0.00127
    arc = math.pi / 2 * neutral
    half = (0.019 - setback) + arc + (0.05 - 2 * setback) + arc
    assert PANNED.sheet[0] == pytest.approx(2 * half + 0.66 - 2 * setback, abs=1e-5)
    assert PANNED.sheet[1] == pytest.approx(2 * half + 0.43 - 2 * setback, abs=1e-5)


def test_facts_of_the_trade():
    """Common practice, no source."""
    hard = pan("Thick", Pan(0.6, 0.4, 0.05, 0.02, INCH / 8, INCH / 8, ()), METALS["al_6061"], (1.2, 1.0))
    assert hard.warnings[0].figures[0].value.startswith("Aluminium 6061")
    cracked = pan("Thick", Pan(0.6, 0.4, 0.05, 0.02, INCH / 8, INCH / 8, ()), METALS["al_5052"], (1.2, 1.0))
    assert len(cracked.patterns) > 1, (
        "1/8 in aluminium cracked when bent to 90° in one piece; it is made as pieces joined"
    )
    assert (
        len(pan("Thin", Pan(0.6, 0.4, 0.05, 0.02, 0.040 * INCH, INCH / 16, ()), METALS["al_5052"], (1.2, 1.0)).patterns)
        == 1
    )


@pytest.mark.parametrize("seed", range(12))
def test_an_overlaps_depth_is_the_least_over_all_ways_out(seed):
    """Two leaned solids that overlap, at least one round: the way out that scipy finds from the best of twenty
    thousand tried."""
    rng = np.random.default_rng(seed)

    def leaned_solid(round_one):
        q, _ = np.linalg.qr(rng.normal(size=(3, 3)))
        half = rng.uniform(0.01, 0.08, 3)
        if round_one:
            half[1] = half[0]
        return Solid(tuple(rng.uniform(-0.02, 0.02, 3)), tuple(half), tuple(map(tuple, q)), round_one)

    a, b = stacked([leaned_solid(True)]), stacked([leaned_solid(bool(seed % 2))])
    found = clearance(a, b)
    ways = rng.normal(size=(20_000, 3))
    ways /= np.linalg.norm(ways, axis=1)[:, None]

    def support(solid, ways):
        local = np.abs(ways @ solid.axes[0].T)
        if solid.round[0]:
            return np.hypot(local[:, 0], local[:, 1]) * solid.half[0, 0] + local[:, 2] * solid.half[0, 2]
        return local @ solid.half[0]

    def depth(angles):
        theta, phi = np.atleast_2d(angles).T
        way = np.stack([np.sin(theta) * np.cos(phi), np.sin(theta) * np.sin(phi), np.cos(theta)], axis=1)
        return support(a, way) + support(b, way) - way @ (b.centre[0] - a.centre[0])

    angles = np.stack([np.arccos(ways[:, 2]), np.arctan2(ways[:, 1], ways[:, 0])], axis=1)
    starts = angles[np.argsort(depth(angles))[:20:4]]
    options = {"xatol": 1e-9, "fatol": 1e-12, "maxiter": 4000}
    least = min(
        minimize(lambda at: float(depth(at)[0]), start, method="Nelder-Mead", options=options).fun for start in starts
    )
    assert found.gap[0] < 0
    assert -found.gap[0] == pytest.approx(least, abs=2e-6)


def test_two_round_parts_crossing_overlap_by_their_radii_less_the_distance():
    """Worked by hand: pipes of 20 and 30 mm radius at right angles, 42.45 mm apart: 7.55 mm."""
    level = Solid((0, 0, 0), (0.02, 0.02, 0.3), ((0, 1, 0), (0, 0, 1), (1, 0, 0)), True)
    upright = Solid((0.01, 0.02, 0.04245), (0.03, 0.03, 0.3), ((1, 0, 0), (0, 0, 1), (0, 1, 0)), True)
    found = clearance(stacked([level]), stacked([upright]))
    assert found.gap[0] == pytest.approx(-7.55e-3, abs=1e-5)


# what a bottle has to take


@pytest.mark.parametrize(("fluid", "glycol"), [("MEG", "ethylene_glycol"), ("MPG", "propylene_glycol")])
@pytest.mark.parametrize("share", [0.2, 0.35, 0.5])
def test_what_a_mix_grows_against_coolprop(fluid, glycol, share):
    """Package: CoolProp, densities by mass fraction at 10 and 95 °C."""
    mix = f"INCOMP::{fluid}[{mass_fraction(glycol, share):.4f}]"
    cold, hot = (PropsSI("D", "T", celsius + 273.15, "P", 2e5, mix) for celsius in (10.0, 95.0))
    assert expansion(curves(glycol_table(glycol), share), 10.0, 95.0) == pytest.approx(cold / hot - 1, rel=0.03)
