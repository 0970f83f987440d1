"""Figures and sentences worked by hand where a mutation run found that nothing looked: a line of arithmetic each."""

import math

import pytest

from keelroom.assess.acts.circuits import split_circuit
from keelroom.assess.acts.fans import spread_changes
from keelroom.assess.assess import assess
from keelroom.assess.electrical.bench import jumper_list
from keelroom.assess.electrical.charge import share_taken
from keelroom.assess.electrical.figures import electrics, terminal_takes
from keelroom.assess.electrical.harness import harness, parts_list
from keelroom.assess.figures.batch import Asked, row_for
from keelroom.assess.figures.templates import _cross
from keelroom.assess.fit.coolers import mount_notes
from keelroom.assess.fit.shroud_plan import _mean, _struts
from keelroom.assess.fit.survey_bodies import panel_edges
from keelroom.assess.inputs.demand import demand_of
from keelroom.assess.inputs.electrical.system import ASSUMED_DROP, planned_circuits, system_at
from keelroom.assess.inputs.gearing import engine_rpm
from keelroom.assess.inputs.translate import stacked
from keelroom.assess.judge.circuits import _amps
from keelroom.assess.questions.response import span
from keelroom.assess.report import totals_lines
from keelroom.assess.work.hardware import edge_cut
from keelroom.core.air.fan import typed_curve
from keelroom.core.answer import following, steady_answer, worth_of_flow
from keelroom.core.electrical.control import law
from keelroom.core.electrical.wire import ampacity, conductor
from keelroom.core.outline import circle
from keelroom.core.packaging.shroud import Blank, _holes
from keelroom.document.edits import apply, set_value
from keelroom.document.fields import owner_and_spec
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.survey import Corner
from keelroom.units import as_sixteenths
from tests.changes import on, varied
from tests.conftest import DEMO
from tests.told import said_by, why_of

BUILD = load(DEMO)
P1 = ("packages", "p1")
INCH = 0.0254


def why(build, code):
    return next(why_of(f) for f in assess(build).findings if f.code == code)


# electrical


def test_a_jumper_wire_to_a_coil_is_thin_and_all_others_as_thick_as_the_fans_own():
    rows = jumper_list(electrics(BUILD, BUILD.package))[1:]
    assert {row[3] for row in rows if "coil" in row[2]} == {"18 AWG"}
    assert {row[3] for row in rows if "coil" not in row[2]} == {BUILD.package.circuits[0].branch.size.as_typed}


def test_no_fan_takes_nothing_of_the_battery():
    bare = apply(BUILD, set_value((*P1, "fans"), (), ""))
    assert share_taken(bare, electrics(bare, bare.package), 180.0) == 0.0


def test_a_charger_is_offered_where_the_battery_gives_and_nowhere_else():
    assert "battery-side charger overnight put back what it gives, 4 Ah for half an hour" in why(
        BUILD, "alternator_short"
    )


def test_the_weakest_run_is_the_one_that_carries_least():
    figures = electrics(BUILD, BUILD.package).circuits[0]
    least = sorted(run.ampacity for run in figures.runs)[0]
    assert figures.weakest.ampacity == least
    assert figures.weakest.key == "branch"  # 14 AWG against 12


@pytest.mark.parametrize(("plug", "square"), [(30.0, 6.1), (40.0, 6.1), (60.0, 13.5)])
def test_a_connector_takes_wire_by_its_rating(plug, square):
    """Up to 40 A a plug has the narrow terminal, which takes 10 AWG or 6 mm²; a larger one the wide."""
    planned = planned_circuits(BUILD, BUILD.package)[0][0]
    assert terminal_takes("branch", planned, ("none", 0.0, plug)) == pytest.approx(square * 1e-6)


def test_one_controller_is_one_piece():
    build = on(BUILD, ((*P1, "circuits", "circuit1", "switch"), "controller"))
    rows = parts_list(build, build.package, electrics(build, build.package))
    assert [row[1] for row in rows if row[0].startswith("Controller")] == ["1"]


def test_a_circuit_that_is_split_keeps_its_name_for_the_first_motor():
    build = apply(BUILD, split_circuit(BUILD, BUILD.package, "circuit1"))
    ids = [circuit.id for circuit in build.package.circuits]
    feeds = {circuit.id: circuit.feeds for circuit in build.package.circuits}
    assert feeds["circuit1"] == ("fan1",)
    assert len(set(ids)) == len(ids) == 3


def test_the_wires_of_an_ac_request_have_their_own_numbers():
    build = on(BUILD, ((*P1, "control", "ac_request"), True))
    numbers = {wire.number for wire in harness(build, build.package, electrics(build, build.package))}
    assert {5, 62, 63} <= numbers


def test_a_motor_without_a_circuit_gets_the_battery_less_the_usual_drop():
    build = apply(BUILD, set_value((*P1, "circuits"), (), ""))
    system = system_at(build, build.package, demand_of(build.brief, build.duty_case("idle")).at)
    assert system.volts["fan1"] == pytest.approx(system.balance.voltage - ASSUMED_DROP)


@pytest.mark.parametrize(("value", "said"), [(9.94, "9.9 A"), (10.2, "10 A"), (44.0, "44 A")])
def test_small_currents_have_a_decimal(value, said):
    assert _amps(value) == said


def test_a_place_as_hot_as_the_insulation_carries_nothing():
    wire = conductor(3.31e-6, False, "j1128_crosslinked")
    assert ampacity(wire, wire.limit) == 0.0
    assert ampacity(wire, wire.limit + 10) == 0.0


def test_cable_of_a_gauge_outside_the_table_holds_88_of_100_parts_of_its_copper():
    """A 24 AWG core is 0.2047 mm² by ASTM B258; no row of J1128's sections holds it."""
    wire = conductor(0.2047e-6, False, "j1128_crosslinked")
    assert wire.area == pytest.approx(0.88 * 0.2047e-6, rel=1e-6)


def test_points_of_a_law_at_one_temperature_stand_a_thousandth_apart():
    found = law(((90.0, 0.0, 0.0), (90.0, 0.5, 0.5), (90.0, 1.0, 1.0)))
    assert found.temperatures[:3] == pytest.approx([90.0, 90.001, 90.002])


# air and heat


def test_a_typed_curve_runs_on_straight_to_no_pressure():
    """From (0.5, 100) to (1.0, 50): 100 Pa per m³/s, so 50 Pa more take 0.5 m³/s more, and at no flow it makes 150
    Pa."""
    curve = typed_curve(((0.5, 100.0), (1.0, 50.0)), 0.1)
    assert float(curve.flow) == pytest.approx(1.5)
    assert float(curve.pressure) == pytest.approx(150.0)


def test_coolant_as_fast_as_it_is_gains_nothing():
    row = row_for(Asked(BUILD, "grade"))
    points, doubt = stacked([row])
    answer = steady_answer(points, doubt, row.layout)
    gain = worth_of_flow(points, answer, (1.0, 2.0))[0]
    assert gain[0] == pytest.approx(0.0, abs=1e-12)
    assert gain[1] > 1.0


def test_what_follows_a_hand_settles_where_a_whole_answer_does_and_its_band_goes_along():
    row = row_for(Asked(BUILD, "grade"))
    points, doubt = stacked([row])
    last = steady_answer(points, doubt, row.layout)
    moved = varied(points, {"plant.network.exit_area": 0.97 * points.plant.network.exit_area})
    found, whole = following(moved, row.layout, last), steady_answer(moved, doubt, row.layout)
    assert found.temperature == pytest.approx(whole.temperature, rel=1e-6)
    assert found.margin == pytest.approx(whole.margin, abs=1e-3)
    assert found.temperature[0] - last.temperature[0] > 0.1
    assert found.band.low - found.temperature == pytest.approx(last.band.low - last.temperature)
    assert following(moved, row.layout, found).temperature == pytest.approx(whole.temperature, rel=1e-6), (
        "from where it followed to"
    )
    assert steady_answer(moved, doubt, row.layout, found).band.high == pytest.approx(whole.band.high, rel=1e-6)


def test_a_share_is_looked_at_from_none_to_all():
    _, spec = owner_and_spec(BUILD, ("brief", "climate", "humidity"))
    assert span(spec, 0.35) == (0.0, 1.0)
    _, spec = owner_and_spec(BUILD, ("brief", "vehicle", "mass"))
    assert span(spec, 1000.0) == (400.0, 2000.0)


def test_engine_speed_as_typed_is_not_touched():
    case = BUILD.duty_case("cruise").model_copy(update={"rpm": quantity("2400 rpm", "turning speed")})
    assert engine_rpm(BUILD.brief, case) == pytest.approx(2400.0)


def test_a_case_that_never_reaches_its_limit_boils_first():
    build = on(BUILD, (("brief", "cooling", "limit"), "300 °F", "temperature"))
    said = [why_of(f) for f in assess(build).findings if f.code == "does_not_settle"]
    assert said
    for case in assess(build).cases:
        if case.figures and case.figures.verdict == "does_not_settle":
            words = next(w for w in said if "it boils first" in w or "reaches the limit in" in w)
            assert ("it boils first" in words) is math.isinf(case.figures.time_to_limit)


# sentences


def test_more_than_four_cheap_causes_are_counted():
    build = on(
        BUILD,
        (
            ("brief", "symptoms"),
            ("climbs_at_idle", "climbs_with_ac", "climbs_at_speed", "climbs_on_grade", "loses_coolant"),
        ),
        (("brief", "causes"), ()),
    )
    finding = next(f for f in assess(build).findings if f.code == "cheap_cause")
    listed = why_of(finding).split("could be ")[1].split(" and ")[0]
    count = int(finding.value)
    assert count > 4
    assert f" and {count - 4} more." in why_of(finding)
    assert listed.count(",") == 3


def test_more_than_four_unmeasured_readings_are_counted():
    gone = tuple(((("survey", "obstacles", item.id, "left"), None)) for item in BUILD.survey.obstacles[:6])
    build = on(BUILD, *gone)
    finding = next(f for f in assess(build).findings if f.code == "fit_unmeasured")
    count = int(finding.value)
    assert count > 4
    assert f" and {count - 4} more. Until" in why_of(finding)


def test_a_cable_a_fuse_suits_is_not_told_to_be_doubled():
    assert "run two" not in why(BUILD, "charge_unfused")


def test_a_rule_is_told_only_where_both_its_figures_are_known():
    lines = totals_lines(assess(BUILD), "us")
    assert sum(line.startswith(("Frontal-area rule", "CFM rule")) for line in lines) == 2
    without = on(BUILD, (("brief", "engine", "cylinders"), None))
    assert not any(line.startswith("CFM rule") for line in totals_lines(assess(without), "us"))


# shapes


def test_fans_are_spread_with_half_the_gap_at_each_side():
    """Two over 26 × 17 in: at 6.5 and 19.5 in, 8.5 up."""
    values = {change.path[-2:]: change.value.si / INCH for change in spread_changes(BUILD.package, "us")}
    assert values == pytest.approx({("fan1", "x"): 6.5, ("fan1", "y"): 8.5, ("fan2", "x"): 19.5, ("fan2", "y"): 8.5})


def test_struts_run_from_the_ring_to_the_flange():
    up, down = _struts((0.6, 0.4), ((0.3, 0.2, 0.15),))
    assert [value for point in (*up, *down) for value in point] == pytest.approx(
        [0.3, 0.35, 0.3, 0.399, 0.3, 0.05, 0.3, 0.001]
    )


def test_a_cross_has_four_equal_arms():
    level, upright = _cross(0.01)
    assert (level.at, level.to) == ((-0.01, 0.0), (0.01, 0.0))
    assert (upright.at, upright.to) == ((0.0, -0.01), (0.0, 0.01))


def test_an_edge_is_as_long_as_its_side_of_the_opening():
    opening = BUILD.survey.opening
    assert edge_cut(BUILD, BUILD.package, "left") == pytest.approx(opening.height.si)
    assert edge_cut(BUILD, BUILD.package, "upper") == pytest.approx(opening.width.si)


def test_the_middle_of_the_rings_is_their_mean():
    class Disc:
        def __init__(self, x, y):
            self.x, self.y = x, y

    assert _mean([Disc(0.1, 0.2), Disc(0.4, 0.3), Disc(0.1, 0.1)]) == pytest.approx((0.2, 0.2))


def test_a_circle_goes_once_round():
    points = circle((1.0, 2.0), 0.5, 4)
    assert [value for point in points for value in point] == pytest.approx([1.5, 2.0, 1.0, 2.5, 0.5, 2.0, 1.0, 1.5])


def test_a_remote_cooler_needs_its_width_both_side_rooms_and_its_fitting():
    cooler = next(one for one in BUILD.package.coolers if one.id == "cooler")
    wide = (cooler.width.si + 2 * cooler.side_room.si + cooler.fitting_room.si) / INCH
    notes = mount_notes(BUILD, BUILD.package, cooler)[1]
    said = next(said_by(note) for note in notes if note.code == "needs_width")
    assert f"It needs {as_sixteenths(wide)} in" in said
    assert wide > cooler.width.si / INCH + cooler.fitting_room.si / INCH


def test_edges_of_an_opening_by_corners_are_numbered_from_one():
    corners = tuple(
        Corner(id=f"c{k}", x=quantity(f"{x} in", "length"), y=quantity(f"{y} in", "length"))
        for k, (x, y) in enumerate(((0, 0), (24, 0), (26, 9), (24, 18), (0, 18)))
    )
    opening = BUILD.survey.opening.model_copy(update={"corners": corners})
    edges = panel_edges(opening, (), BUILD.package.core)
    assert [edge.key for edge in edges] == [f"panel:{k}" for k in range(1, 6)]
    # 24 in along the bottom: half of it to each side of the middle.
    assert sorted(edges[0].solid.half)[-1] == pytest.approx(12 * INCH)
    thick = BUILD.survey.opening.panel_thickness
    assert any(half == pytest.approx((thick.si if thick else 0.04) / 2, rel=0.6) for half in edges[0].solid.half)


def test_a_bolt_hole_left_near_an_edge_is_told_with_what_is_left():
    """5/16 in holes: one 0.3 in from the left edge stays with under 1.5 diameters, one 0.1 in inside the top is cut
    away."""
    d = 5 / 16 * INCH
    blank = Blank(
        10 * INCH, 10 * INCH, (), ((0.3 * INCH, 5 * INCH, d), (5 * INCH, 9.9 * INCH, d), (5 * INCH, 5 * INCH, d))
    )
    gone, notes = _holes(blank, (0.0, 0.0, 10 * INCH, 10 * INCH))
    assert gone == (2, 1), "cut away, then left too near"
    assert any("1" in said_by(note) and "5/16 in from the edge" in said_by(note) for note in notes), notes
    right, _ = _holes(blank._replace(holes=((9.9 * INCH, 5 * INCH, d),)), (0.0, 0.0, 10 * INCH, 10 * INCH))
    assert right == (1,)


def test_a_probe_in_the_fins_set_on_a_warm_day_starts_late_on_a_cool_one():
    """Set for 195 °F on a 90 °F day the probe reads 195 − 0.3 · 105 = 163.5 °F; on the cool day the engine must be
    hotter by 0.3/0.7 of the days' difference."""
    from keelroom.assess.judge.electrical import COOL_DAY

    build = on(BUILD, ((*P1, "control", "sensor"), "fins"))
    finding = next(f for f in assess(build).findings if f.code == "sensor_fins")
    cool = COOL_DAY * 1.8 + 32
    late = 195 + 0.3 / 0.7 * (90 - cool)
    assert finding.value == pytest.approx((late - 32) / 1.8, abs=1e-6)


def test_reserve_minutes_of_another_battery_are_noticed_both_ways():
    for minutes in ("20 min", "600 min"):
        assert "reserve_contradicts" in {
            f.code for f in assess(on(BUILD, (("supply", "reserve"), minutes, "minutes"))).findings
        }
    assert "reserve_contradicts" not in {f.code for f in assess(BUILD).findings}
    assert "70 Ah would give about" in why(
        on(BUILD, (("supply", "reserve"), "20 min", "minutes")), "reserve_contradicts"
    )
