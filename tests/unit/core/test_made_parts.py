"""Made parts worked by hand and folded back: straps, panels, plates, joints, foam, sheets."""

import math

import numpy as np
import pytest
from scipy.integrate import quad
from scipy.sparse import diags, eye, kron
from scipy.sparse.linalg import eigsh

from keelroom.core.packaging.bracket import Bump, Ends, Stock, angle_bracket, arch, clear_of_bend, flat_or_joggle
from keelroom.core.packaging.fixings import Beam, Round, Section, post, pressed, strap
from keelroom.core.packaging.foam import free_for, left_open, push, squeeze
from keelroom.core.packaging.joined import Halves, Ring, half_patterns, join_faults, ring_pattern
from keelroom.core.packaging.nesting import laid_out
from keelroom.core.packaging.panel import Beading, Drilled, Lip, Notch, Shape, cover, panel, swings
from keelroom.core.packaging.plate import adapter_plate
from keelroom.core.packaging.sheet import METALS, Beads, plate_frequency
from tests.told import said_by

INCH = 0.0254
STEEL, ALU = METALS["steel"], METALS["al_5052"]
STOCK = Stock(STEEL, 1.125 * INCH, INCH / 8, INCH / 8)
ENDS = Ends(7e-3, 7e-3, 9 * INCH / 16)


def folded(bends, stations, thickness):
    """Where places along a flat strip come to lie once it is bent: its middle line walked, each bend an arc about its
    own centre.

    Independent of the planner: the metal a bend takes up is read off Machinery's Handbook (0.64 t + 1.57 r at a right
    angle, from memory), its arc runs at the middle of the metal.
    """
    at, way, along, found = np.zeros(2), 0.0, 0.0, []
    marks = sorted(
        [(s, "place", None) for s in stations] + [(b, "bend", (degrees, radius)) for b, degrees, radius in bends]
    )
    for where, what, bend in marks:
        if what == "place":
            found.append(at + (where - along) * np.array([math.cos(way), math.sin(way)]))
            continue
        degrees, radius = bend
        turn = math.radians(degrees)
        takes = abs(turn) / (math.pi / 2) * (0.64 * thickness + math.pi / 2 * radius)
        at = at + (where - takes / 2 - along) * np.array([math.cos(way), math.sin(way)])
        chord = 2 * (radius + thickness / 2) * math.sin(abs(turn) / 2)
        at = at + chord * np.array([math.cos(way + turn / 2), math.sin(way + turn / 2)])
        way, along = way + turn, where + takes / 2
    return found


def hole_places(made):
    """Along the strip: the near hole that is furthest in, and the far one."""
    holes = [hole.centre[0] for hole in made.pattern.holes if hole.mark == "part"]
    far = [hole.centre[0] for hole in made.pattern.holes if hole.mark == "chassis"] or [made.pattern.slots[0].start[0]]
    return max(holes), far[0]


def fold(made, thickness=INCH / 8):
    first, last = hole_places(made)
    near, far = folded([(b.start[0], b.degrees, b.radius) for b in made.pattern.bends], [first, last], thickness)
    return far - near


@pytest.mark.parametrize(("run", "offset"), [(5.0, 1.0), (6.0, -0.75), (4.0, 0.5), (9.0, 2.5)])
def test_a_joggle_folded_back_lands_on_its_far_hole(run, offset):
    made = flat_or_joggle("strap", run * INCH, offset * INCH, STOCK, ENDS)
    assert not made.faults
    assert fold(made) == pytest.approx([run * INCH, offset * INCH], abs=2e-5)


@pytest.mark.parametrize(("legs", "up"), [((2.0, 1.5), True), ((1.25, 3.0), False)])
def test_an_l_folded_back_stands_its_legs_apart(legs, up):
    """Legs are outside: the middle of the metal lies half a thickness in from each."""
    made = angle_bracket("foot", tuple(leg * INCH for leg in legs), STOCK, ENDS, up=up)
    assert not made.faults
    half = INCH / 16
    assert fold(made) == pytest.approx([legs[0] * INCH - half, (1 if up else -1) * (legs[1] * INCH - half)], abs=2e-5)


@pytest.mark.parametrize("offset", [0.0, 0.25, -0.5])
def test_an_arch_folded_back_clears_its_bump_and_lands(offset):
    """A bump 1 in wide and 1/2 in high, its middle 3 in along: the strap stands 1/8 in (3 mm) clear over all of it."""
    bump = Bump(3 * INCH, INCH, INCH / 2)
    made = arch("over", 7 * INCH, offset * INCH, bump, STOCK, ENDS)
    assert not made.faults
    assert [round(abs(b.degrees)) for b in made.pattern.bends] == [round(abs(made.pattern.bends[0].degrees))] * 4
    first, last = hole_places(made)
    bends = [(b.start[0], b.degrees, b.radius) for b in made.pattern.bends]
    places = np.linspace(first, last, 400)
    # Places inside a bend are left out: the walk gives straights only.
    straight = [s for s in places if all(abs(s - b) > 6e-3 for b, _, _ in bends)]
    line = np.array(folded(bends, [first, *straight, last], INCH / 8))
    line -= line[0]
    assert line[-1] == pytest.approx([7 * INCH, offset * INCH], abs=3e-5)
    over = line[np.abs(line[:, 0] - 3 * INCH) <= INCH / 2 + 1e-6]
    assert len(over) > 5
    assert over[:, 1] == pytest.approx(INCH / 2 + 3e-3, abs=3e-5)


def test_what_has_no_room_says_how_much_it_lacks():
    assert "same point" in said_by(flat_or_joggle("strap", 0.0, 0.0, STOCK, ENDS).faults[0])
    assert "need" in said_by(flat_or_joggle("strap", 1.5 * INCH, INCH, STOCK, ENDS).faults[0])
    assert "between the bump and the first hole" in said_by(
        arch("over", 7 * INCH, 0.0, Bump(INCH, INCH, INCH / 2), STOCK, ENDS).faults[0]
    )
    assert "runs off the metal" in said_by(
        flat_or_joggle("strap", 4 * INCH, 0.0, STOCK._replace(width=6e-3), ENDS).faults[0]
    )
    assert "apart" in said_by(
        flat_or_joggle("strap", 4 * INCH, 0.0, STOCK, ENDS._replace(many=2, pitch=8e-3)).faults[0]
    )


def test_several_holes_lengthen_the_strap_at_its_near_end():
    """Three holes an inch apart: two inches longer than with one."""
    one, three = (flat_or_joggle("strap", 4 * INCH, 0.0, STOCK, ENDS._replace(many=n, pitch=INCH)) for n in (1, 3))
    assert three.developed - one.developed == pytest.approx(2 * INCH)
    places = sorted(hole.centre[0] for hole in three.pattern.holes if hole.mark == "part")
    assert np.diff(places) == pytest.approx([INCH, INCH])
    assert places[0] == pytest.approx(ENDS.edge)


def test_past_flat_is_bent_more_and_cut_no_longer():
    flat = flat_or_joggle("strap", 4 * INCH, 0.0, STOCK, ENDS)
    pressing = flat_or_joggle("strap", 4 * INCH, 0.0, STOCK, ENDS, press=math.radians(5))
    assert pressing.developed == pytest.approx(flat.developed)
    assert [b.degrees for b in pressing.pattern.bends] == [pytest.approx(5)]
    assert pressing.lever == pytest.approx(4 * INCH - clear_of_bend(STOCK, ENDS))
    # 25 x 3 mm, I 56.25 mm4; 80 mm lever, 2 degrees: F = 3 E I a / l^2 = 3*205e9*56.25e-12*0.034907/0.0064 = 188.7 N,
    # M/W = 402 MPa.
    force, stress = pressed(STEEL, Section(0.025, 0.003), 0.08, math.radians(2))
    assert force == pytest.approx(188.7, rel=1e-3)
    assert stress == pytest.approx(402.5e6, rel=1e-3)


@pytest.mark.parametrize("guided", [False, True])
@pytest.mark.parametrize("span", [(0.0, 1.0), (0.2, 0.8), (0.0, 0.5), (0.4, 0.45)])
def test_a_partly_ribbed_strap_against_its_integrals(span, guided):
    """scipy sums M²/EI over the beam: twice the strain energy is force times sag (Castigliano)."""
    plain, ribbed = Section(0.028, 0.003), Section(0.028, 0.003, 0.01)
    reach, mass, shock = 0.12, 2.5, 5.0
    found = strap(STEEL, Beam(plain, ribbed, span), reach, mass, shock, guided)
    force = mass * 9.80665 * shock

    def stiffness(s):
        section = ribbed if span[0] * reach <= s <= span[1] * reach else plain
        return STEEL.young * section.bending()[0]

    breaks = sorted({span[0] * reach, span[1] * reach} - {0.0, reach})
    whole = {"points": breaks or None, "limit": 200}
    held = (
        quad(lambda s: s / stiffness(s), 0, reach, **whole)[0] / quad(lambda s: 1 / stiffness(s), 0, reach, **whole)[0]
        if guided
        else 0.0
    )
    energy = quad(lambda s: (force * (s - held)) ** 2 / stiffness(s), 0, reach, **whole)[0]
    assert found.sag == pytest.approx(energy / force, rel=1e-6)
    assert found.frequency == pytest.approx(math.sqrt(force / found.sag / mass) / (2 * math.pi), rel=1e-9)


def test_a_stud_and_a_stand_off_by_hand():
    """M6 stud, core 5.04 mm: I 31.7 mm4; 30 mm with 1 kg at 5 g: 49.03 N, 1.471 Nm, 117 MPa; a 12 x 6 mm tube: I 954
    mm4, 9.25 MPa."""
    stud = post(STEEL, Round(0.84 * 6e-3), 0.03, 1.0, 5.0)
    assert stud.stress == pytest.approx(117.0e6, rel=2e-3)
    assert stud.sag == pytest.approx(49.03 * 0.03**3 / (3 * 205e9 * 31.67e-12), rel=2e-3)
    tube = post(STEEL, Round(12e-3, 6e-3), 0.03, 1.0, 5.0)
    assert tube.stress == pytest.approx(1.471 * 6e-3 / 954.3e-12, rel=2e-3)


# panels

TOP = Shape(0.6, 0.6, 0.15, Lip(0.025, 90.0), Lip(0.02, -90.0), 1.27e-3, 1.6e-3)


@pytest.mark.parametrize(("front", "back"), [(90.0, -90.0), (90.0, 90.0), (30.0, -60.0)])
def test_a_panel_folded_back_has_its_outside_sizes(front, back):
    """Outside corner to outside corner along the face, and each lip from its corner to its edge: by the tangents of
    the folded middle line."""
    shape = TOP._replace(front=Lip(0.025, front), back=Lip(0.02, back))
    made = panel("top", shape, ALU)
    (pattern,) = made.patterns
    t = shape.thickness
    bends = [(b.start[1], b.degrees, b.radius) for b in pattern.bends]
    top = max(y for _, y in pattern.outlines[0])
    start, end = folded(bends, [0.0, top], t)
    # The same corners as a polyline of the middle of the metal: half a thickness in from the outside of each bend.
    half = [t / 2 * math.tan(math.radians(abs(a)) / 2) for a in (front, back)]
    lip_f, face, lip_b = 0.025 - half[0], 0.15 - half[0] - half[1], 0.02 - half[1]
    ways = np.cumsum([0.0, math.radians(front), math.radians(back)])
    walked = sum(
        size * np.array([math.cos(w), math.sin(w)]) for size, w in zip((lip_f, face, lip_b), ways, strict=True)
    )
    assert end - start == pytest.approx(walked, abs=3e-5)


def test_a_flat_panel_without_lips_is_a_rectangle():
    made = panel("plain", TOP._replace(front=Lip(0, 0), back=Lip(0, 0)), ALU)
    assert made.patterns[0].bounds == pytest.approx((0, 0, 0.6, 0.15))
    assert made.trim == pytest.approx(1.5)
    assert made.patterns[0].bends == ()


def test_rail_notches_are_cut_from_both_ends_alike():
    """Two notches 40 x 30 mm: 2400 mm2 out of the blank, and 4 x 30 mm more edge to trim."""
    plain, notched = panel("top", TOP, ALU), panel("top", TOP._replace(notch=Notch(0.04, 0.03, 0.03)), ALU)
    area = [
        abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(o, o[1:] + o[:1], strict=True)) / 2)
        for o in (plain.patterns[0].outlines[0], notched.patterns[0].outlines[0])
    ]
    assert area[0] - area[1] == pytest.approx(2 * 0.04 * 0.03)
    assert notched.trim - plain.trim == pytest.approx(4 * 0.03)
    assert not notched.faults


def test_holes_stand_in_the_middle_of_their_lips_evenly():
    made = panel("top", TOP._replace(pins=Drilled(4, 8e-3, "pin"), bolts=Drilled(3, 6.4e-3, "bolt")), ALU)
    pins = [hole.centre for hole in made.patterns[0].holes if hole.mark == "pin"]
    assert [x for x, _ in pins] == pytest.approx([0.075, 0.225, 0.375, 0.525])
    assert {round(y, 6) for _, y in pins} == {0.0125}
    assert len([hole for hole in made.patterns[0].holes if hole.mark == "bolt"]) == 3


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"notch": Notch(0.04, 0.06, 0.06), "bead": Beading(5e-3, 0.05)}, "cuts through the bead"),
        ({"notch": Notch(0.04, 0.3, 0.03)}, "cut it through"),
        ({"notch": Notch(0.04, 0.03, 1e-3)}, "front bend"),
        ({"front": Lip(4e-3, 90.0)}, "No room for the front lip"),
        ({"front": Lip(0.008, 90.0), "pins": Drilled(4, 8e-3, "pin")}, "run off the front lip"),
        ({"bead": Beading(5e-3, 0.31)}, "no length left"),
        ({"bead": Beading(5e-3, 0.08, across=True)}, "no length left"),
        ({"bead": Beading(1e-6, 0.01, across=True)}, "stiffens nothing"),
        ({"notch": Notch(0.04, 0.06, 0.06), "bead": Beading(5e-3, 0.02, across=True)}, "cuts through the bead"),
        ({"pins": Drilled(40, 8e-3, "pin")}, "do not go into"),
        ({"far": 0.4, "notch": Notch(0.04, 0.03, 0.03)}, "narrows"),
    ],
)
def test_what_of_a_panel_cannot_be_made_is_said(change, words):
    assert any(words in said_by(fault) for fault in panel("top", TOP._replace(**change), ALU).faults)


def rung(bending, mass, along, over, n=60):
    """Lowest frequency [Hz] of a plate held at its edges by finite differences. bending: stiffness [N m] along each
    place of the first side, and the other way"""
    varying, plain = bending

    def second(length):
        return diags([1.0, -2.0, 1.0], [-1, 0, 1], shape=(n, n)) * ((n + 1) / length) ** 2

    a, b = second(along), second(over)
    places = (np.arange(n) + 1) * along / (n + 1)
    stiff = kron(a @ diags(varying(places)) @ a, eye(n)) + 2 * plain * kron(a, b) + plain * kron(eye(n), b @ b)
    return math.sqrt(eigsh(stiff.tocsc(), k=1, sigma=0)[0][0] / mass) / math.tau


@pytest.mark.parametrize(
    ("along", "over", "short"),
    [(0.18, 0.66, 0.0), (0.66, 0.18, 0.0), (0.4, 0.4, 0.0), (0.18, 0.66, 0.025), (0.3, 0.5, 0.06)],
)
def test_a_beaded_field_rings_as_an_orthotropic_plate(along, over, short):
    """Against finite differences of the plate's equation, solved by scipy; beads that end short are stepped there,
    the sum over their parts is within a tenth."""
    t, high, share = 1.27e-3, 6e-3, 0.25
    plain = ALU.young * t**3 / (12 * (1 - 0.09))
    beaded = plain + ALU.young * share * t * (high / 2) ** 2
    found = rung(
        (lambda x: np.where((x > short) & (x < along - short), beaded, plain), plain), ALU.density * t, along, over
    )
    assert plate_frequency(ALU, t, along, over, Beads(high, share, short)) == pytest.approx(
        found, rel=0.1 if short else 0.01
    )


def test_beads_stiffen_the_way_they_run():
    """26 by 7 in of 0.050 in aluminium, worked by hand: D 13.1 N m bare. Bare 105 Hz; one bead along its middle
    hardly helps, a row front to back does."""
    top = Shape(26 * INCH, 26 * INCH, 7 * INCH, Lip(INCH, 90.0), Lip(INCH, -90.0), 0.05 * INCH, INCH / 16)
    bare, along, across = (
        swings(top._replace(bead=bead), ALU)
        for bead in (Beading(0, 0), Beading(INCH / 4, INCH), Beading(INCH / 4, INCH, across=True))
    )
    assert bare == pytest.approx(105, rel=0.02)
    assert bare < along < 1.1 * bare
    assert across > 2.5 * bare


def test_beads_front_to_back_stand_evenly_and_end_before_the_bends():
    """1/4 in beads are 1 in wide; a quarter of 26 in is 6 of them, 4 1/3 in apart."""
    top = Shape(
        26 * INCH,
        26 * INCH,
        7 * INCH,
        Lip(INCH, 90.0),
        Lip(INCH, -90.0),
        0.05 * INCH,
        INCH / 16,
        bead=Beading(INCH / 4, INCH, across=True),
    )
    (piece,) = panel("top", top, ALU).patterns
    lines = [(mark.at, mark.to) for mark in piece.marks if mark.to]
    assert [start[0] / INCH for start, _ in lines] == pytest.approx([(k + 0.5) * 26 / 6 for k in range(6)])
    low, high = (bend.start[1] for bend in piece.bends)
    assert all(start[1] == pytest.approx(low + INCH) and end[1] == pytest.approx(high - INCH) for start, end in lines)


def test_a_duct_piece_narrows_evenly_to_the_grille():
    made = panel("duct", TOP._replace(far=0.4), ALU)
    xs = sorted({round(x, 6) for x, _ in made.patterns[0].outlines[0]})
    assert xs == [0.0, 0.1, 0.5, 0.6]


def test_thick_aluminium_is_made_of_pieces():
    """1/8 in aluminium cracked at a tight 90° and was made of pieces (common practice, no source)."""
    made = panel("top", TOP._replace(thickness=INCH / 8, radius=INCH / 8), ALU)
    assert len(made.patterns) == 3
    assert not any(pattern.bends for pattern in made.patterns)
    assert "welded" in said_by(made.notes[0])
    assert len(panel("top", TOP._replace(thickness=0.05 * INCH, radius=INCH / 16), ALU).patterns) == 1


def test_a_cover_laps_its_hole_and_keeps_its_bolts_on_the_metal():
    """An 80 x 50 mm hole, 20 mm lap: 120 x 90, a bolt in the middle of the lap at each corner."""
    made = cover("cover", (0.08, 0.05), False, 0.02, (ALU, 1.27e-3, Drilled(4, 5e-3, "bolt")))
    assert made.patterns[0].bounds[2:] == pytest.approx((0.12, 0.09))
    assert {(round(x, 4), round(y, 4)) for x, y in (hole.centre for hole in made.patterns[0].holes)} == {
        (0.01, 0.01),
        (0.11, 0.08),
        (0.11, 0.01),
        (0.01, 0.08),
    }
    assert not made.faults
    assert "run off the lap" in said_by(
        cover("cover", (0.08, 0.05), False, 0.012, (ALU, 1.27e-3, Drilled(4, 7e-3, "bolt"))).faults[0]
    )
    disc = cover("cover", (0.09, 0.09), True, 0.02, (ALU, 1.27e-3, Drilled(6, 5e-3, "bolt")))
    assert disc.trim == pytest.approx(math.pi * 0.13, rel=1e-3)


# foam


def test_foam_by_its_squeeze_curve():
    """ASTM D1056 grades at a quarter squeezed, from memory: 2A0 under 2 psi, 2A1 2–5, 2A2 5–9; the gas in shut cells:
    ε/(1−ε)."""
    for firmness, (low, high) in (("soft", (0, 2)), ("medium", (2, 5)), ("firm", (5, 9))):
        assert low < push(firmness, 0.25) / 6894.76 < high
    assert push("soft", 0.5) == pytest.approx(3 * push("soft", 0.25))
    assert push("soft", 0.0) == 0.0
    assert squeeze(0.0127, 0.0079375) == pytest.approx(0.375)
    assert left_open(0.003, 0.0127) == pytest.approx(0.0097)
    assert left_open(None, 0.0127) == 0.0127
    assert squeeze(free_for(0.008), 0.008) == pytest.approx(0.35)


# plates, joints, sheets


def test_an_adapter_plate_holds_every_hole_with_its_metal():
    """Old holes 60 mm apart, new ones 100: 100 + 2 x 15 mm long, 30 wide."""
    made = adapter_plate(
        "plate", ([(0.0, 0.0), (0.1, 0.0)], [(0.02, 0.0), (0.08, 0.0)]), (6.4e-3, 8e-3), (STEEL, 3e-3, 0.015)
    )
    assert made.bounds[2:] == pytest.approx((0.13, 0.03), abs=2e-4)
    assert not made.faults
    assert sorted(hole.centre[0] for hole in made.holes) == pytest.approx([0.015, 0.035, 0.095, 0.115], abs=1e-6)
    near = adapter_plate("plate", ([(0.0, 0.0)], [(0.007, 0.0)]), (6.4e-3, 8e-3), (STEEL, 3e-3, 0.015))
    assert "run into each other" in said_by(near.faults[0])
    assert "at least" in said_by(
        adapter_plate("plate", ([(0.0, 0.0)], [(0.05, 0.0)]), (6.4e-3, 8e-3), (STEEL, 3e-3, 0.008)).faults[0]
    )


def test_two_shrouds_an_inch_off_each_and_lapped_by_hand():
    """14 in each, an inch off each where they meet, lapped 3/4: 28 - 2 - 3/4 = 25 1/4 in; middles at 7 and 18 1/4
    in."""
    halves = Halves((14 * INCH, 14 * INCH), 13 * INCH, INCH, 0.75 * INCH)
    assert halves.width / INCH == pytest.approx(25.25)
    assert [m / INCH for m in halves.middles] == pytest.approx([7.0, 18.25])
    assert [m / INCH for m in halves.join] == pytest.approx([12.25, 13.0])
    rings = tuple((x, 6.5 * INCH, 5.5 * INCH) for x in halves.middles)
    assert join_faults(halves, rings) == ()
    left, right = half_patterns("joined", halves, rings)
    assert [p.bounds[2] / INCH for p in (left, right)] == pytest.approx([13.0, 13.0])
    # Laid with the right one's left edge where its lap begins, both rows of joint holes meet.
    shift = halves.width - 14 * INCH
    assert sorted(h.centre[0] + shift for h in right.holes) == pytest.approx(sorted(h.centre[0] for h in left.holes))
    tight = join_faults(halves, tuple((x, 6.5 * INCH, 6.25 * INCH) for x in halves.middles))
    assert any("where they meet" in said_by(fault) for _, fault in tight)
    assert any("would run into each other" in said_by(fault) for _, fault in tight)
    thin = halves._replace(lap=INCH / 4)
    assert "takes no row of rivets" in said_by(
        join_faults(thin, tuple((x, 6.5 * INCH, 5 * INCH) for x in thin.middles))[0]
    )


def test_an_edge_to_edge_joint_gets_its_strip():
    halves = Halves((14 * INCH, 14 * INCH), 13 * INCH, INCH, 0.0)
    *_, strip = half_patterns("joined", halves, ())
    assert "strip behind" in strip.name
    assert strip.bounds[3] == pytest.approx(13 * INCH)


def test_an_adapter_ring_makes_an_opening_smaller_and_never_larger():
    ring = ring_pattern("ring", Ring(15 * INCH, 12.5 * INCH), "sheet")
    assert ring.bounds[2] == pytest.approx(15 * INCH + 0.04, rel=1e-3)
    assert ring.openings[0].diameter == pytest.approx(12.5 * INCH)
    assert ring_pattern("ring", Ring(12 * INCH, 12.5 * INCH), "sheet") is None


def test_pieces_laid_on_sheets_by_hand():
    """Four 0.5 x 0.4 m on a sheet 1.22 x 0.91: two beside each other in two rows; a fifth takes a second sheet; one
    of 1.3 m goes into none."""
    assert laid_out([(0.5, 0.4)] * 4, (1.22, 0.91)).sheets == 1
    five = laid_out([(0.5, 0.4)] * 5, (1.22, 0.91))
    assert (five.sheets, five.too_large) == (2, ())
    assert five.used == pytest.approx(5 * 0.2 / (2 * 1.22 * 0.91))
    assert laid_out([(1.3, 0.2)], (1.22, 0.91)).too_large == (0,)
    assert laid_out([], (1.22, 0.91)).sheets == 0
