"""Figures inside sentences, and what is drawn, against the arithmetic beside them."""

import re

import numpy as np
import pytest

from keelroom.assess.acts.registry import applies, offer
from keelroom.assess.assess import assess
from keelroom.assess.electrical.harness import parts_list
from keelroom.assess.electrical.words import advice
from keelroom.assess.figures.batch import Asked, row_for
from keelroom.assess.fit.frames import frame_plans
from keelroom.assess.fit.package_bodies import parts_of_package
from keelroom.assess.inputs.coolant.ports import necks
from keelroom.assess.inputs.electrical.system import CONTACT, FUSE_LOSS, TERMINAL, contacts_of
from keelroom.assess.inputs.translate import stacked
from keelroom.assess.placing import stand
from keelroom.core.air.fan import Rating, fan_pressure, generic_curve
from keelroom.core.fluids.air import STANDARD_DENSITY
from keelroom.core.operating_point import solve
from keelroom.core.packaging.sheet import METALS
from keelroom.core.packaging.shroud import Pan, pan
from keelroom.core.packaging.solids import along
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.facts import lowered, raised
from tests.changes import on
from tests.conftest import DEMO
from tests.told import said_by, why_of

BUILD = load(DEMO)
P1 = ("packages", "p1")
INCH = 0.0254


def why(build, code):
    return why_of(next(f for f in assess(build).findings if f.code == code))


# sentences


def test_a_fuse_passes_a_tenth_over_its_rating_for_hours():
    """ISO 8820: 110 % for 100 hours; 40 A is 44."""
    said = why(BUILD, "fuse_over_wire")
    assert "A 40 A fuse passes 44 A for hours" in said
    assert "between 30 and 44 A the contact cooks" in why(BUILD, "fuse_over_relay")


def test_a_pulleys_cure_says_what_it_turns_at_the_redline():
    """The ratio it names times the redline it was given; the unit it names is one that is sold, by steps of five."""
    weak = (
        (("supply", "redline"), "6000 rpm", "turning speed"),
        (("supply", "speed_limit"), "30000 rpm", "turning speed"),
    )
    said = why(
        on(BUILD, *weak, (("brief", "accessories", "alternator_rating"), "130 A", "current")), "alternator_short"
    )
    ratio, top = (float(v) for v in re.search(r"a pulley of ([\d.]+) instead of [\d.]+ \((\d+) rpm", said).groups())
    assert top == pytest.approx(ratio * 6000, rel=0.01)
    now, wrap = (float(v) for v in re.search(r"instead of ([\d.]+) \(.*wraps (\d+)% less", said).groups())
    assert wrap == pytest.approx(100 * (1 - now / ratio), abs=1)


@pytest.mark.parametrize(
    ("text", "within"),
    [("Fan 1", "fan 1"), ("A/C request", "A/C request"), ("ECU", "ECU"), ("Qa", "qa"), ("X", "x"), ("", "")],
)
def test_a_name_inside_a_sentence_keeps_its_capitals_where_they_are_its_own(text, within):
    assert lowered(text) == within
    assert raised(within) == text


def test_advice_says_sizes_fuse_and_how_many_relays():
    """The demo's two fans on one circuit want a relay each; one fan wants one; fans no relay carries get none named."""
    words = {one.circuit.id: said_by(advice(one)) for one in assess(BUILD).electrics.circuits}
    assert words["circuit1"] == "8 AWG feed, 10 AWG to the motor, 10 AWG return, 40 A fuse, 2 × 40 A relay"
    alone = on(BUILD, ((*P1, "circuits", "circuit1", "feeds"), ("fan1",)))
    (single,) = (said_by(advice(one)) for one in assess(alone).electrics.circuits if one.circuit.id == "circuit1")
    assert re.search(r"fuse, \d+ A relay$", single)
    huge = on(alone, ((*P1, "fans", "fan1", "power"), "3000 W", "electrical power"))
    (none,) = (said_by(advice(one)) for one in assess(huge).electrics.circuits if one.circuit.id == "circuit1")
    assert none.endswith("no single relay is large enough")
    own = on(alone, ((*P1, "fans", "fan1", "motor"), "brushless"), ((*P1, "fans", "fan1", "controller"), "inside"))
    (own,) = (said_by(advice(one)) for one in assess(own).electrics.circuits if one.circuit.id == "circuit1")
    assert own.endswith("no relay: its own electronics switch it")


def test_a_measured_drop_stands_beside_what_the_wires_ought_to_lose():
    """2.5 V measured across both ways: that is the circuit's drop; what its wires explain is told apart and does not
    change."""
    by_wire = next(one for one in assess(BUILD).electrics.circuits if one.circuit.id == "circuit1")
    assert by_wire.worked == by_wire.drop
    build = on(BUILD, ((*P1, "circuits", "circuit1", "measured_drop"), "2.5 V", "voltage"))
    measured = next(one for one in assess(build).electrics.circuits if one.circuit.id == "circuit1")
    assert measured.drop == pytest.approx(2.5)
    assert measured.worked == pytest.approx(by_wire.drop, rel=1e-6)
    assert measured.at_idle == pytest.approx(measured.source_idle - 2.5, abs=0.02)


def test_contacts_in_series_add_and_each_motors_own_stand_side_by_side():
    """The circuit as found, two motors: its fuse, one relay, 2 terminals of a plug a motor, grounds: by Ohm's law,
    place by place."""
    circuit = BUILD.package.circuits[0]
    fuse, grounds = circuit.fuse.si, circuit.grounds.si
    assert circuit.switch == "relay"
    ground = TERMINAL / grounds / (1 if circuit.shared_ground else 2)
    plugs = 2 * TERMINAL / 2 if circuit.connector else 0.0
    assert contacts_of(circuit, 2) == pytest.approx(FUSE_LOSS / fuse + CONTACT + plugs + ground)
    own = circuit.model_copy(update={"switch": "relays"})
    assert contacts_of(circuit, 2) - contacts_of(own, 2) == pytest.approx(CONTACT / 2)
    bare = circuit.model_copy(update={"switch": "none", "fuse": None, "connector": None})
    assert contacts_of(bare, 2) == pytest.approx(ground)
    plugged = circuit.model_copy(update={"connector": quantity("30 A", "current")})
    unplugged = circuit.model_copy(update={"connector": None})
    assert contacts_of(plugged, 2) - contacts_of(unplugged, 2) == pytest.approx(TERMINAL)
    assert contacts_of(plugged, 1) - contacts_of(unplugged, 1) == pytest.approx(2 * TERMINAL)


@pytest.mark.parametrize(
    ("changes", "code", "offered"),
    [
        ((), "flaps", True),
        ((((*P1, "shroud", "flap_area"), "20 in²", "area"),), "flaps", False),
        ((((*P1, "shroud", "kind"), "none"),), "flaps", False),
        ((((*P1, "fans"), ()),), "flaps", False),
        ((), "full_shroud", False),
        ((((*P1, "shroud", "kind"), "none"),), "full_shroud", True),
        ((), "second_fan", False),
        ((), "copper", True),
        ((((*P1, "core", "material"), "copper_brass"),), "copper", False),
        ((((*P1, "core", "condition"), "bad"),), "clean", True),
        ((), "clean", False),
        ((), "divide", False),
        ((((*P1, "fans", "fan1", "runs"), False),), "divide", True),
        ((), "water", True),
        (((("packages", "p1", "coolant", "glycol_share"), "30 %", "share"),), "water", False),
        ((), "cut_clear", True),
        (
            ((("survey", "opening", "width"), "40 in", "length"), (("survey", "opening", "height"), "40 in", "length")),
            "cut_clear",
            False,
        ),
    ],
)
def test_worth_offers_only_what_is_not_done_already(changes, code, offered):
    build = on(BUILD, *changes)
    assert applies(build, offer(code, build.active)) is offered


# bodies


def test_a_pipe_lies_between_its_ends():
    """From (1, 2, 3) to (1, 2, 7): middle (1, 2, 5), half length 2, its axis upright in z; a slanted one by
    Pythagoras."""
    pipe = along((1.0, 2.0, 3.0), (1.0, 2.0, 7.0), 0.02)
    assert pipe.centre == pytest.approx((1.0, 2.0, 5.0))
    assert pipe.half == pytest.approx((0.02, 0.02, 2.0))
    assert pipe.axes[2] == pytest.approx((0.0, 0.0, 1.0))
    slanted = along((0.0, 0.0, 0.0), (0.3, 0.4, 1.2), 0.02)
    assert slanted.centre == pytest.approx((0.15, 0.2, 0.6))
    assert slanted.half[2] == pytest.approx(0.65)
    assert slanted.axes[2] == pytest.approx((0.3 / 1.3, 0.4 / 1.3, 1.2 / 1.3))
    assert np.array(slanted.axes) @ np.array(slanted.axes).T == pytest.approx(np.eye(3), abs=1e-12)


def test_core_and_tanks_span_what_was_measured():
    """A core of 26 × 17 × 2 1/4 in upright at its corner: from 0 to 26 across, and its tanks as far beyond on both
    sides."""
    build = on(BUILD, ((*P1, "place", "lean"), "0 °", "angle"))
    at = stand(build.survey, build.package)
    spans = {}
    for body in parts_of_package(build.survey, build.package):
        solid = body.solid
        spans[body.key] = [
            ((c - h - o) / INCH, (c + h - o) / INCH)
            for c, h, o in zip(solid.centre, solid.half, (at.x, at.y, at.z), strict=True)
        ]
    assert np.array(spans["core"]) == pytest.approx(np.array([(0, 26), (0, 17), (0, 2.25)]), abs=1e-6)
    tank = build.package.core.tank_size.si / INCH
    back = 2.25 + build.package.core.tank_proud.si / INCH
    assert np.array(spans["left_tank"]) == pytest.approx(np.array([(-tank, 0), (0, 17), (0, back)]), abs=1e-6)
    assert np.array(spans["right_tank"]) == pytest.approx(np.array([(26, 26 + tank), (0, 17), (0, back)]), abs=1e-6)
    assert np.array(spans["shroud"]) == pytest.approx(np.array([(0, 26), (0, 17), (2.25, 4.25)]), abs=1e-6)


def test_hoses_leave_the_tanks_where_the_passes_put_them():
    """Crossflow: in at one side, out at the other with one pass and at the same with two; downflow: in at the top,
    out at the bottom."""
    core = BUILD.package.core
    tank, width, height, depth = core.tank_size.si, 26 * INCH, 17 * INCH, 2.25 * INCH
    side = {"left": -tank / 2, "right": width + tank / 2}
    other = {"left": "right", "right": "left"}[core.inlet_side]
    one = necks(BUILD.package.core)
    assert one["upper"] == pytest.approx((side[core.inlet_side], height - 0.05, depth / 2))
    assert one["lower"] == pytest.approx((side[other], 0.05, depth / 2))
    two = necks(on(BUILD, ((*P1, "core", "passes"), "2", "count")).package.core)
    assert two["lower"][0] == pytest.approx(side[core.inlet_side])
    down = necks(on(BUILD, ((*P1, "core", "flow"), "downflow")).package.core)
    assert down["upper"][1] == pytest.approx(height + tank / 2)
    assert down["lower"][1] == pytest.approx(-tank / 2)
    assert down["upper"][0] != down["lower"][0]


# patterns


def test_a_frames_line_holes_stand_at_its_quarters():
    plan = frame_plans(on(BUILD, ((*P1, "mounting", "frames", "frame1", "line"), "1/4 in", "length")).package)[0]
    drilled = [p for p in plan.patterns if any(hole.mark == "line" for hole in p.holes)]
    assert drilled
    for piece in drilled:
        length = max(x for x, _ in piece.outlines[0])
        leg = max(y for _, y in piece.outlines[0])
        assert [hole.centre[0] / length for hole in piece.holes if hole.mark == "line"] == pytest.approx([0.25, 0.75])
        assert {round(hole.centre[1] / leg, 6) for hole in piece.holes} == {0.5}
        assert sorted(hole.centre[0] for hole in piece.holes if hole.mark == "mount") == pytest.approx(
            [leg / 2, length - leg / 2]
        )


def test_a_folded_pan_is_cut_from_its_outside_less_two_bends_a_side():
    """1 mm 5052, 1.5 mm radius: a bend takes 0.64 + π/2·1.5 = 2.9962 of 2·2.5, so 2.0038 comes off at each of its two
    bends.
    600 × 400, 50 deep, flange 20: wing 50 + 20 − 2·2.0038 = 65.992; blank 731.985 × 531.985 mm."""
    made = pan("Pan", Pan(0.6, 0.4, 0.05, 0.02, 1e-3, 1.5e-3, ((0.3, 0.2, 0.3),)), METALS["al_5052"], (1.0, 1.0))
    assert np.array(made.sheet) * 1e3 == pytest.approx(np.array([731.985, 531.985]), abs=2e-3)
    (piece,) = made.patterns
    xs, ys = zip(*piece.outlines[0], strict=True)
    assert (max(xs) - min(xs)) * 1e3 == pytest.approx(731.985, abs=2e-3)
    assert (max(ys) - min(ys)) * 1e3 == pytest.approx(531.985, abs=2e-3)
    assert len(piece.bends) == 8


def test_a_pan_that_cannot_be_bent_is_a_face_four_strips_and_a_flange():
    """1/8 in aluminium: face 24 × 18, two strips 18 and two 24 long by the depth of 2, a flange of 84 in in all."""
    made = pan(
        "Pan",
        Pan(24 * INCH, 18 * INCH, 2 * INCH, 0.75 * INCH, INCH / 8, INCH / 16, ((12 * INCH, 9 * INCH, 16 * INCH),)),
        METALS["al_6061"],
        (2.0, 2.0),
    )
    sizes = {
        p.name.split(", ")[1].split(" (")[0]: (
            max(x for x, _ in p.outlines[0]) / INCH,
            max(y for _, y in p.outlines[0]) / INCH,
            p.copies,
        )
        for p in made.patterns
    }
    assert {k: tuple(round(v, 6) for v in s) for k, s in sizes.items()} == {
        "face": (24.0, 18.0, 1),
        "side strip": (18.0, 2.0, 2),
        "top and bottom strip": (24.0, 2.0, 2),
        "flange strip": (84.0, 0.75, 1),
    }
    marks = {
        p.name.split(", ")[1].split(" (")[0]: (p.marks[0].at[0] / INCH, p.marks[0].at[1] / INCH) for p in made.patterns
    }
    assert marks["face"] == pytest.approx((12.0, 9.0))
    assert marks["side strip"] == pytest.approx((9.0, 1.0))
    assert marks["top and bottom strip"] == pytest.approx((12.0, 1.0))


# heat


def test_more_heat_into_the_coolant_is_more_hot_air_behind_the_core():
    """At a standstill, all the core's air goes into the bay: a third more heat, and the bay is that much hotter than
    outdoors."""
    found = []
    for heat in (1.0, 1.3):
        row = row_for(Asked(BUILD, "idle", heat))
        points, _ = stacked([row])
        solution = solve(points, row.layout)
        breath = solution.fixed.running.breath
        found.append(
            (
                float(solution.state.heat_in[0]),
                float(solution.state.bay_air[0]) - float(points.situation.climate.ambient[0]),
                breath,
            )
        )
    assert found[1][0] > found[0][0]
    assert found[1][1] > found[0][1]


def test_a_generic_fan_gives_its_pressure_at_no_flow_and_none_at_its_free_flow():
    """1 m³/s advertised, 0.8 of it believed; nothing left at its free flow, half-way something between."""
    curve = generic_curve(Rating(1.0, 200.0, "straight", 0.8, 0.1, 0.25))
    free = float(curve.flow)
    one = type(curve)(*(np.asarray(value)[None, None] for value in curve))
    full = np.ones((1, 1))
    rise = [
        float(fan_pressure(one, flow * full, full, STANDARD_DENSITY * full)[0][0, 0]) for flow in (0.0, free / 2, free)
    ]
    assert rise[0] == pytest.approx(float(curve.pressure), rel=1e-6)
    assert 0.2 * rise[0] < rise[1] < 0.9 * rise[0]
    assert rise[2] == pytest.approx(0.0, abs=1e-6 * rise[0])


def test_what_hangs_over_is_told_in_figures():
    """A 12 in fan set 4 in from the left of the face hangs 2 in over; nothing over would be right."""
    found = next(
        f
        for f in assess(on(BUILD, ((*P1, "fans", "fan1", "x"), "4 in", "length"))).findings
        if f.code == "fan_off_face"
    )
    assert (found.value, found.limit) == pytest.approx((2 * INCH, 0.0))
    assert "2 in" in why_of(found)


def test_the_coils_have_a_fuse_of_their_own_on_the_parts_list():
    parts = [row[0] for row in parts_list(BUILD, BUILD.package, assess(BUILD).electrics)]
    assert [part for part in parts if "coils" in part and "Fuse" in part] == [
        "Fuse 5 A with holder, for the coils, on a key-switched feed"
    ]
    bare = on(BUILD, ((*P1, "circuits"), ()))
    assert not [row for row in parts_list(bare, bare.package, assess(bare).electrics) if "coils" in row[0]]
