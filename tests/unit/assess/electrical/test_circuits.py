"""Circuits, charging, control and harness of a build: what is found wrong, what mends it, what the lists and the
drawing say."""

import itertools
import json
import math
import re

import pytest
from pypdf import PdfReader

from keelroom.assess.acts.circuits import mend_circuit, plan_missing, sized_alike, split_circuit
from keelroom.assess.acts.control import SCHOOLS, school_edit
from keelroom.assess.acts.registry import edit_for
from keelroom.assess.assess import first_wave
from keelroom.assess.electrical.bench import bench_steps, jumper_list
from keelroom.assess.electrical.figures import electrics
from keelroom.assess.electrical.harness import (
    bundle_width,
    harness,
    loom_list,
    outside,
    parts_list,
    section_of,
    splices,
    wire_list,
)
from keelroom.assess.electrical.signals import relays
from keelroom.assess.inputs.coolant.sensor import adapter_of
from keelroom.assess.inputs.electrical.loads import motors_of
from keelroom.assess.questions.schools import compare_schools
from keelroom.document.edits import added, apply, set_value
from keelroom.document.file import load, parse, serialised
from keelroom.document.migrate import migrate
from keelroom.document.quantity import Quantity, from_si, quantity
from keelroom.document.schema.electrical import Circuit, CommandPoint, Load, Source
from keelroom.drawing.charging import charging
from keelroom.drawing.scene import Label, Polyline, Rect
from keelroom.drawing.schools import schools_scene
from keelroom.drawing.wiring import wiring
from keelroom.errors import InputError
from keelroom.export.sheet import write_sheet
from keelroom.export.svg import svg_text
from keelroom.gauges import read_size
from keelroom.units import KINDS
from keelroom.units import parse as read
from tests.changes import on
from tests.conftest import DEMO
from tests.told import what_of, why_of
from tests.unit.assess.electrical.rows import ELECTRICAL_ROWS
from tests.unit.assess.test_assess import GOLDEN

BUILD = load(DEMO)
FANS = ("packages", "p1", "circuits", "circuit1")
CONTROL = ("packages", "p1", "control")


def codes(build):
    return {finding.code: finding for finding in first_wave(build).findings}


def circuit(build, ident="circuit1"):
    return next(one for one in first_wave(build).electrics.circuits if one.circuit.id == ident)


GOOD = apply(BUILD, split_circuit(BUILD, BUILD.package, "circuit1"))


def test_circuits_as_advised_leave_only_what_is_not_theirs():
    left = {"over_speed", "charge_cable", "alternator_short", "spin", "no_run_on", "no_ac_request", "run_assumed"}
    assert set(codes(GOOD)) & set(ELECTRICAL_ROWS) <= left


@pytest.mark.parametrize("strategy", ["ground_switch", "two_speed", "both_relays"])
def test_every_switch_that_grounds_through_its_thread_wants_a_strap(strategy):
    build = on(BUILD, ((*CONTROL, "strategy"), strategy), ((*CONTROL, "strap"), False))
    assert "ground_through_coolant" in codes(build)
    assert "ground_through_coolant" not in codes(on(build, ((*CONTROL, "strategy"), "feed_switch")))


def test_sources_of_unlike_voltage_feed_nothing_and_say_so():
    build = apply(
        BUILD,
        added(
            BUILD,
            ("supply", "sources"),
            Source(id="truck", name="Trailer feed", voltage=quantity("24 V", "voltage")),
            "",
        ),
    )
    build = on(build, ((*FANS, "sources"), ("battery", "truck")))
    finding = codes(build)["sources_differ"]
    assert finding.where == (*FANS, "sources")
    assert "12 V" in why_of(finding)
    assert "24 V" in why_of(finding)
    assert circuit(build).at_idle == 0.0
    together = on(BUILD, ((*FANS, "sources"), ("battery", "alternator")), ((*FANS, "grounds"), "2", "count"))
    assert not {"sources_differ", "no_return"} & set(codes(together))  # legitimate


def test_a_circuit_without_a_way_back_moves_no_air():
    build = on(BUILD, ((*FANS, "ground"), "none"))
    assert circuit(build).continuous == 0.0 or circuit(build).at_idle == 0.0
    before, after = (first_wave(b).cases[0].figures for b in (BUILD, build))
    assert after.temperature > before.temperature + 5
    assert after.airflow_fans_on < 0.5 * before.airflow_fans_on


# coupling


def test_a_thicker_wire_turns_the_fan_faster_and_cools_the_engine():
    """Thin wire, slow fan, hot engine: common practice, no source. Every step of gauge is worth something, never the
    wrong way."""
    found = []
    for size in ("18 AWG", "16 AWG", "14 AWG", "12 AWG", "10 AWG", "8 AWG"):
        build = on(BUILD, *(((*FANS, run, "size"), size, "wire size") for run in ("feed", "branch", "back")))
        f = first_wave(build).cases[0].figures
        found.append((f.temperature, f.fans[0].voltage, f.airflow_fans_on))
    temperatures, volts, air = zip(*found, strict=True)
    assert list(temperatures) == sorted(temperatures, reverse=True)
    assert list(volts) == sorted(volts)
    assert list(air) == sorted(air)


def test_volts_at_battery_and_at_the_motor_are_kept_apart():
    thin, good = (first_wave(b).electrics.idle for b in (BUILD, GOOD))
    assert thin.balance.voltage == pytest.approx(good.balance.voltage, abs=0.3)
    assert min(thin.volts[f] for f in ("fan1", "fan2")) < good.volts["fan1"] - 0.4


def test_a_measured_drop_and_a_measured_battery_are_believed():
    build = on(
        BUILD,
        ((*FANS, "measured_drop"), "2 V", "voltage"),
        (("brief", "accessories", "idle_voltage"), "13.1 V", "voltage"),
    )
    system = first_wave(build).electrics.idle
    assert system.measured
    assert system.balance.voltage == 13.1
    assert system.volts["fan1"] == pytest.approx(11.1)


def test_a_soft_start_takes_the_start_off_and_variable_speed_the_current():
    soft = on(BUILD, ((*CONTROL, "soft_start"), True))
    assert circuit(soft).starting.current < 0.5 * circuit(BUILD).starting.current
    assert circuit(soft).continuous == pytest.approx(circuit(BUILD).continuous)
    cool = on(BUILD, (("duty_cases", "idle", "ambient"), "60 °F", "temperature"))
    variable = on(cool, ((*CONTROL, "strategy"), "variable"))
    assert first_wave(variable).cases[0].figures.fan_current < 0.5 * first_wave(cool).cases[0].figures.fan_current


def test_fans_started_one_after_the_other_start_easier():
    """Two speeds by one fan of two: the second starts while the first runs, and each contact closes on one start
    alone."""
    together = on(BUILD, ((*FANS, "switch"), "relays"))
    staged = on(together, ((*CONTROL, "strategy"), "two_speed"))
    both, one = circuit(together), circuit(staged)
    assert one.continuous == pytest.approx(both.continuous)
    assert one.starting.current == pytest.approx(both.starting.current / 2 + both.continuous / 2, rel=1e-3)
    assert one.begins == pytest.approx(both.begins) == pytest.approx(both.starting.current / 2, rel=1e-3)
    assert one.advice.fuse <= both.advice.fuse


def test_two_relays_share_the_load():
    one, two, parallel = (circuit(on(BUILD, ((*FANS, "switch"), kind))) for kind in ("relay", "relays", "parallel"))
    assert two.through_relay == pytest.approx(0.5 * one.through_relay, rel=0.02)
    assert one.relay_holds < parallel.relay_holds < 2 * one.relay_holds


def test_a_fan_that_stands_still_draws_nothing():
    stopped = on(BUILD, (("packages", "p1", "fans", "fan2", "runs"), False))
    before, after = (first_wave(b).electrics for b in (BUILD, stopped))
    assert after.idle.amps["fan2"] == 0.0
    assert after.idle.fan_amps < 0.7 * before.idle.fan_amps
    assert after.idle.volts["fan1"] > before.idle.volts["fan1"]
    assert len(after.circuits[0].motors) == 2  # it is still wired


def test_amps_and_volts_give_the_watts_that_a_label_lacks():
    build = on(
        BUILD,
        (("packages", "p1", "fans", "fan1", "power"), None),
        (("packages", "p1", "fans", "fan1", "rated_current"), "15 A", "current"),
    )
    motor = next(m for m in motors_of(build, build.package) if m.id == "fan1").motor
    assert motor.power == pytest.approx(15 * motor.voltage)
    assert all(case.figures for case in first_wave(build).cases)
    bare = on(build, (("packages", "p1", "fans", "fan1", "rated_current"), None))
    assert "Motor power" in {need.label for case in first_wave(bare).cases for need in case.needs}


# planning


@pytest.mark.parametrize("package", ["p1", "p2", "p3"])
def test_a_planned_circuit_has_nothing_wrong(package):
    build = on(BUILD, (("active",), package), (("packages", package, "circuits"), ()))
    build = apply(build, plan_missing(build, build.package))
    figures = first_wave(build).electrics.circuits
    assert {m.id for one in figures for m in one.motors} == {m.id for m in motors_of(build, build.package)}
    wrong = [f for f in first_wave(build).findings if f.where[2:3] == ("circuits",) and f.level != "note"]
    assert not wrong, [what_of(f) for f in wrong]
    for one in figures:
        assert one.drop <= build.supply.drop_limit.si
        assert one.circuit.fuse.si <= one.weakest.ampacity + 0.05
        assert one.circuit.fuse.si >= 1.25 * one.continuous
    with pytest.raises(InputError, match="already"):
        plan_missing(build, build.package)


def test_a_15_amp_fan_gets_the_wire_fuse_and_relay_the_trade_fits():
    """Common practice, no source: 10 AWG preferred, 12 AWG seen, a 30 A relay for each."""
    build = on(
        BUILD,
        (("packages", "p1", "fans", "fan1", "rated_voltage"), "12 V", "voltage"),
        (("packages", "p1", "fans", "fan1", "power"), "180 W", "electrical power"),
    )
    build = apply(
        on(build, (("packages", "p1", "circuits"), ())),
        plan_missing(
            on(build, (("packages", "p1", "circuits"), ())), build.package.model_copy(update={"circuits": ()})
        ),
    )
    one = next(one for one in first_wave(build).electrics.circuits if one.motors[0].id == "fan1")
    assert one.circuit.feed.size.as_typed in ("10 AWG", "12 AWG")
    assert one.circuit.relay.si in (30, 40)
    assert one.circuit.fuse.si in (25, 30)


def test_the_advice_is_the_smallest_that_will_do():
    for one in first_wave(GOOD).electrics.circuits:
        thinner = {"10 AWG": "12 AWG", "12 AWG": "14 AWG", "14 AWG": "16 AWG", "16 AWG": "18 AWG"}
        for run in ("feed", "branch", "back"):
            size = getattr(one.circuit, run).size.as_typed
            if size not in thinner:
                continue
            worse = on(GOOD, (("packages", "p1", "circuits", one.circuit.id, run, "size"), thinner[size], "wire size"))
            found = circuit(worse, one.circuit.id)
            assert found.drop > GOOD.supply.drop_limit.si or found.weakest.ampacity < one.circuit.fuse.si
    metric = on(BUILD, *(((*FANS, run, "size"), "2.5 mm²", "wire size") for run in ("feed", "branch", "back")))
    assert all("mm²" in size for size in circuit(metric).advice.sizes)
    far = on(BUILD, ((*FANS, "feed", "length"), "45 ft", "length"), (("supply", "drop_limit"), "0.2 V", "voltage"))
    assert circuit(far).advice.sizes == ()


def test_mending_says_when_there_is_nothing_to_mend():
    mended = apply(BUILD, mend_circuit(BUILD, BUILD.package, "circuit1"))
    with pytest.raises(InputError, match="already"):
        mend_circuit(mended, mended.package, "circuit1")
    for act in (mend_circuit, split_circuit):
        with pytest.raises(InputError, match="no longer"):
            act(BUILD, BUILD.package, "circuit9")


# charging


def test_the_balance_is_short_when_the_alternator_is_and_the_battery_says_how_long():
    finding = codes(BUILD)["alternator_short"]
    idle = first_wave(BUILD).cases[0].figures
    assert finding.value > finding.limit
    assert math.isfinite(idle.battery_lasts)
    larger = apply(BUILD, edit_for(BUILD, finding.fix[0]))
    after = first_wave(larger).cases[0].figures
    assert after.system_voltage > idle.system_voltage
    assert after.battery_lasts > 1.2 * idle.battery_lasts
    assert after.mean < idle.mean
    smaller = on(BUILD, (("supply", "reserve"), "60 min", "minutes"))
    assert first_wave(smaller).cases[0].figures.battery_lasts < idle.battery_lasts


def test_a_pulley_is_offered_where_the_speed_limit_allows_it():
    assert [fix.code for fix in codes(BUILD)["alternator_short"].fix] == ["larger_alternator", "faster_idle"]
    assert "over-speeds it" in why_of(codes(BUILD)["alternator_short"])
    free = on(
        BUILD,
        (("supply", "speed_limit"), "20000 rpm", "turning speed"),
        (("brief", "accessories", "alternator_rating"), "180 A", "current"),
        (("supply", "pulley_ratio"), "1.8", "number"),
    )
    finding = codes(free)["alternator_short"]
    pulley = next(fix for fix in finding.fix if fix.label.startswith("A pulley"))
    assert f"{pulley.label[2:]} instead of 1.80" in why_of(finding)
    mended = apply(free, edit_for(free, pulley))
    assert not {"alternator_short", "over_speed"} & set(codes(mended))


def test_loads_are_on_when_they_are_on():
    names = {name for name, _ in first_wave(BUILD).electrics.idle.loads}
    assert {"Fan 1", "Fan 2", "Lamps", "Cabin blower"} <= names
    assert "Cabin blower" not in {
        name for name, _ in first_wave(on(BUILD, (("duty_cases", "idle", "ac_on"), False))).electrics.idle.loads
    }
    more = apply(
        BUILD,
        added(
            BUILD,
            ("supply", "loads"),
            Load(id="winch", power=quantity("400 W", "electrical power"), when="standing"),
            "",
        ),
    )
    assert first_wave(more).electrics.idle.balance.voltage < first_wave(BUILD).electrics.idle.balance.voltage
    assert first_wave(more).electrics.cruise.balance.wanted == pytest.approx(
        first_wave(BUILD).electrics.cruise.balance.wanted
    )


def test_an_electric_pump_and_a_cooler_fan_have_circuits_of_their_own():
    build = on(BUILD, (("packages", "p1", "loop", "pump"), "electric"))
    assert {m.id for m in electrics(build, build.package).loose} == {"pump"}
    planned = apply(build, plan_missing(build, build.package))
    assert {m.id for one in first_wave(planned).electrics.circuits for m in one.motors} == {
        "fan1",
        "fan2",
        "cooler",
        "pump",
    }
    thin = on(planned, (("packages", "p1", "circuits", "circuit3", "measured_drop"), "4 V", "voltage"))
    assert first_wave(thin).cases[0].figures.coolant_flow < first_wave(planned).cases[0].figures.coolant_flow


# control


def test_schools_differ_as_the_trade_says():
    """Common practice, no source: the fins' probe is late on a cool day and early on a hot one; the lower hose lets
    the core work first."""
    found = {row.school.key: row for row in compare_schools(BUILD, "idle").rows}
    assert set(found) == {school.key for school in SCHOOLS}
    upper, fins, lower, variable = (found[key] for key in ("upper", "fins", "lower", "variable"))
    assert fins.days[1].on - upper.days[1].on == pytest.approx(30 / 1.8 * 0.3 / 0.7, rel=0.02)
    assert fins.days[3].on == pytest.approx(upper.days[3].on, abs=0.1)
    assert fins.days[4].on < upper.days[4].on
    assert all(day.on == pytest.approx(upper.days[0].on) for day in upper.days)
    switch = school_edit(BUILD.package, SCHOOLS[2]).changes[-2].value.si
    assert all(day.on > switch + 4 for day in lower.days)  # the engine is that much hotter than what the switch feels
    assert variable.amps < 0.6 * upper.amps
    assert variable.starting < 0.5 * upper.starting
    assert found["two_speed"].starting == pytest.approx(0.5 * upper.starting)
    assert found["toggle"].days[0].duty == 1.0
    assert [row.school.key for row in found.values() if row.default] == ["two_speed"]
    same_switch = on(BUILD, ((*CONTROL, "sensor"), "lower_hose"))
    assert (
        first_wave(same_switch).cases[0].figures.fan_command < first_wave(BUILD).cases[0].figures.fan_command
    )  # the fan runs less


@pytest.mark.parametrize("school", SCHOOLS, ids=lambda s: s.key)
def test_going_over_to_a_school_and_back(school):
    build = apply(BUILD, school_edit(BUILD.package, school))
    assert first_wave(build).cases[0].figures is not None
    again = school_edit(build.package, school)
    assert not again.changes
    upper = apply(build, school_edit(build.package, SCHOOLS[0]))
    assert upper.package.control.fan_on.si == pytest.approx(BUILD.package.control.fan_on.si, abs=0.01)


def test_the_ac_asks_for_the_fans_and_a_forgotten_toggle_leaves_them_still():
    asked = on(BUILD, ((*CONTROL, "ac_request"), True))
    assert first_wave(asked).cases[0].figures.fan_command == 1.0
    forgotten = on(BUILD, ((*CONTROL, "strategy"), "toggle"), ((*CONTROL, "toggle_on"), False))
    assert first_wave(forgotten).cases[0].figures.fan_command == 0.0
    assert first_wave(forgotten).cases[0].figures.temperature > first_wave(BUILD).cases[0].figures.temperature + 5


def test_a_typed_speed_curve_is_followed():
    def point(celsius, share):
        return CommandPoint(temperature=quantity(f"{celsius} °C", "temperature"), share=quantity(f"{share} %", "share"))

    lazy = on(BUILD, ((*CONTROL, "strategy"), "variable"), ((*CONTROL, "curve"), (point(95, 30), point(105, 100))))
    eager = on(lazy, ((*CONTROL, "curve"), (point(75, 30), point(85, 100))))
    assert first_wave(lazy).cases[0].figures.temperature > first_wave(eager).cases[0].figures.temperature + 3


def test_the_adapter_says_what_to_cut_out_of_the_hose():
    adapter = adapter_of(BUILD, BUILD.package)
    assert adapter.cut == pytest.approx(0.0254)
    assert adapter.fault is None
    short = on(BUILD, ((*CONTROL, "adapter"), "1 in", "length"))
    assert adapter_of(short, short.package).fault
    fins = on(BUILD, ((*CONTROL, "sensor"), "fins"))
    assert adapter_of(fins, fins.package) is None


# harness and drawing


@pytest.mark.parametrize(
    "strategy",
    [
        "toggle",
        "ground_switch",
        "feed_switch",
        "two_speed",
        "both_relays",
        "adjustable",
        "variable",
        "computer",
        "computer_pwm",
    ],
)
@pytest.mark.parametrize("base", [BUILD, GOOD], ids=["as found", "mended"])
def test_every_motor_has_a_way_there_and_back_and_every_wire_its_own_number(base, strategy):
    build = on(base, ((*CONTROL, "strategy"), strategy))
    found = first_wave(build).electrics
    wires = harness(build, build.package, found)
    numbers = [wire.number for wire in wires]
    assert len(set(numbers)) == len(numbers)
    for motored in motors_of(build, build.package):
        assert [wire for wire in wires if wire.end == f"{motored.name} +"]
        assert [wire for wire in wires if wire.start == f"{motored.name} −"]
    assert all(wire.length >= 0 and wire.size for wire in wires)
    triggers = [wire for wire in wires if wire.number in range(11, 20)]
    assert len(triggers) == len(relays(found))
    scene = wiring(build, build.package, first_wave(build), "us")
    words = {shape.text for shape in scene.shapes if isinstance(shape, Label)}
    for wire in wires:
        # Signal wires by their sleeves; a tail by its number, which may stand beside others.
        assert any(str(wire.number) in re.split(", ", text) for text in words), wire
        if wire.circuit and not wire.role.endswith("tail"):
            assert wire.size in words
            assert any(text.startswith(f"{wire.colour} ") for text in words)
    left, bottom, wide, high = scene.bounds
    for shape in scene.shapes:
        for x, y in shape.points if isinstance(shape, Polyline) else ():
            assert left <= x <= left + wide
            assert bottom <= y <= bottom + high


def places(build):
    """What is drawn of each circuit but its words: shapes without colour and text."""
    scene = wiring(build, build.package, first_wave(build), "us")
    return [shape for shape in scene.shapes if isinstance(shape, Polyline | Rect)]


def test_the_drawing_does_not_jump_when_one_thing_changes():
    before = places(GOOD)
    thicker = places(on(GOOD, ((*FANS, "feed", "size"), "8 AWG", "wire size"), ((*FANS, "fuse"), "30 A", "current")))
    assert [shape._replace(role="") for shape in before] == [shape._replace(role="") for shape in thicker]
    more = apply(GOOD, added(GOOD, ("packages", "p1", "circuits"), Circuit(id="late", name="Late"), ""))
    assert set(before) <= set(places(more))


def test_lists_hold_what_a_shop_buys_and_cuts():
    found = first_wave(BUILD).electrics
    package = BUILD.package
    cut = wire_list(BUILD, package, found, "us")
    assert [row[0] for row in cut[1:]] == [str(wire.number) for wire in harness(BUILD, package, found)]
    fed = [wire for wire in harness(BUILD, package, found) if wire.circuit == "circuit1" and wire.colour == "red"]
    assert sum(wire.length for wire in fed) == pytest.approx(package.circuits[0].feed.length.si)
    parts = {row[0]: row for row in parts_list(BUILD, package, found)[1:]}
    assert "Relay 30 A, with socket" in parts
    assert any("keyed sealed" in name.lower() for name in parts)
    halves = [name for name in parts if name.startswith("Keyed")]
    assert len(halves) == 2  # one male, one female a side: they cannot be swapped
    joints = splices(BUILD, package, found)
    assert [joint.numbers for joint in joints if "motors" in joint.place] == [(108, 111, 112)]
    # 2 x 14 AWG of 2.08 mm2 and the tail of the same wire: 6.2 mm2 of copper.
    assert not next(joint for joint in joints if "motors" in joint.place).heavy
    for size in ("18 AWG", "10 AWG", "2.5 mm²", "2/0 AWG"):
        assert outside(size) > math.sqrt(4 * section_of(size) / math.pi)
    assert bundle_width(["10 AWG"] * 4) == pytest.approx(2 * bundle_width(["10 AWG"]))
    looms = loom_list(BUILD, package, found, "us")
    assert all(float(row[1].split()[0]) > 0 for row in looms[1:])
    jumper = jumper_list(found)
    assert {"ground", "low", "high"} <= {row[1] for row in jumper}
    assert not any(row[1] == "low" and row[2] == "high" for row in jumper)


def test_bench_tests_begin_with_the_direction_and_end_with_the_current():
    steps = bench_steps(BUILD, BUILD.package, first_wave(BUILD).electrics, "us")
    assert [step.key for step in steps] == [
        "spin",
        "short",
        "sensor",
        "relay",
        "override",
        "voltage",
        "current",
        "set_points",
    ]
    assert "195 °F" in steps[2].expected
    assert f"{circuit(BUILD).at_idle:.1f} V" in steps[5].expected


def test_pictures_of_balance_and_schools_say_their_figures():
    scene = charging(BUILD, BUILD.package, first_wave(BUILD))
    words = [shape.text for shape in scene.shapes if isinstance(shape, Label)]
    idle = first_wave(BUILD).electrics.idle.balance
    assert f"gives {idle.available:.0f} A, the battery {-idle.battery:.0f} A while the fans run" in words
    compared = schools_scene(compare_schools(BUILD, "idle"), "us")
    words = [shape.text for shape in compared.shapes if isinstance(shape, Label)]
    assert any("(default)" in text for text in words)
    assert any("(now)" in text for text in words)
    assert (
        wiring(
            on(BUILD, (("packages", "p1", "circuits"), ())),
            BUILD.package.model_copy(update={"circuits": ()}),
            first_wave(on(BUILD, (("packages", "p1", "circuits"), ()))),
            "us",
        )
        is None
    )
    assert "el.bad" in svg_text(wiring(BUILD, BUILD.package, first_wave(BUILD), "si"))


def test_the_sheet_carries_circuits_lists_and_bench_tests(tmp_path):
    path = tmp_path / "sheet.pdf"
    write_sheet(first_wave(BUILD), path, "us")
    text = " ".join(page.extract_text() for page in PdfReader(path).pages)
    for words in (
        "Electrical",
        "Both fans, as found",
        "Harness: cut list",
        "Bench tests, in this order",
        "Spin direction",
        "Joints",
    ):
        assert words in text


# what is typed


@pytest.mark.parametrize(
    ("text", "unit", "said"),
    [
        ("7.5 AWG", "AWG", ("8 AWG", "6 AWG")),
        ("AWG 13", "AWG", ("14 AWG", "12 AWG")),
        ("3 mm²", "AWG", ("2.5 mm²", "4 mm²")),
        ("14", "mm²", ("10 mm²", "16 mm²", "14 AWG")),
        ("2.5", "AWG", ("4 AWG", "2 AWG", "2.5 mm²")),
        ("10", "AWG", ("10 AWG", "10 mm²", "write")),
        ("6", "mm²", ("6 AWG", "6 mm²", "write")),
        ("0", "AWG", ("more than 0",)),
        ("-4", "AWG", ("more than 0",)),
        ("thick", "AWG", ("12 AWG or 2.5 mm²",)),
        ("", "AWG", ("Type a wire size",)),
    ],
)
def test_a_size_that_means_nothing_or_two_things_names_its_neighbours(text, unit, said):
    with pytest.raises(InputError) as refused:
        read(text, KINDS["wire size"], unit)
    assert all(part in refused.value.message for part in said)


@pytest.mark.parametrize("text", ["14", "14 AWG", "14ga", "AWG 14", "#14", "14 gauge"])
def test_a_gauge_may_be_written_as_it_is_said(text):
    assert read_size(text, "AWG")[1:] == ("AWG", "14 AWG")


def test_wire_keeps_the_name_it_is_sold_by():
    assert read("2/0", KINDS["wire size"], "AWG").text == "2/0 AWG"
    assert from_si(2.2e-6, "wire size", "si", "derived").as_typed == "14 AWG"
    assert from_si(9e-6, "wire size", "us", "derived").as_typed in ("8 AWG", "10 mm²")


@pytest.mark.parametrize(
    ("path", "kind", "text"),
    [
        ((*FANS, "feed", "length"), "length", "-2 ft"),
        (("supply", "sources", "battery", "voltage"), "voltage", "0 V"),
        (("packages", "p1", "fans", "fan1", "rated_voltage"), "voltage", "0 V"),
        ((*FANS, "fuse"), "current", "-5 A"),
    ],
)
def test_no_volts_and_negative_lengths_are_refused(path, kind, text):
    value = Quantity(si=read(text, KINDS[kind], "").si, as_typed=text, unit=read(text, KINDS[kind], "").unit)
    with pytest.raises(InputError, match="must be"):
        apply(BUILD, set_value(path, value, ""))


# older files


def test_a_version_2_file_keeps_the_drop_its_fans_had():
    raw = json.loads((GOLDEN / "version-2.keelroom").read_text())
    old = load(GOLDEN / "version-2.keelroom")
    fan = raw["packages"][0]["fans"][0]
    assert old.packages[0].circuits[0].measured_drop.si == fan["wire_drop"]["si"]
    assert old.packages[0].circuits[0].feeds == (fan["id"],)
    assert sum(load_.power.si for load_ in old.supply.loads) == raw["brief"]["accessories"]["electrical_load"]["si"]
    assert old.brief.accessories.idle_voltage is None  # it was assumed
    raw["brief"]["accessories"]["idle_voltage"]["origin"] = "measured"
    measured = parse(json.dumps(raw).encode(), GOLDEN / "version-2.keelroom")
    assert measured.brief.accessories.idle_voltage.si == 13.0
    assert first_wave(measured).electrics.idle.measured
    assert parse(serialised(old), GOLDEN) == old
    for part in (
        {"version": 2},
        {"version": 2, "brief": 3, "packages": [4]},
        {"version": 2, "packages": [{"fans": 7}], "own_fans": [{"wire_drop": {}}]},
    ):
        assert migrate(part, 3)["version"] == 3


def test_a_drop_measured_on_the_old_wire_goes_with_it():
    old = load(GOLDEN / "version-2.keelroom")
    worse = on(old, (("packages", "p1", "circuits", "circuit1", "measured_drop"), "1.4 V", "voltage"))
    finding = codes(worse)["drop_over"]
    after = apply(worse, edit_for(worse, finding.fix[0]))
    assert after.package.circuits[0].measured_drop is None
    assert "drop_over" not in codes(after)


def test_what_each_motor_has_to_itself_is_not_counted_twice():
    one = on(
        GOOD,
        *(
            (("packages", "p1", "circuits", "circuit1", run, "size"), "10 AWG", "wire size")
            for run in ("feed", "branch", "back")
        ),
    )
    alone = circuit(one)
    both = on(
        one,
        (("packages", "p1", "circuits", "circuit1", "feeds"), ("fan1", "fan2")),
        (("packages", "p1", "circuits", "circuit1", "switch"), "relays"),
    )
    lost = dict(circuit(both).lost)
    assert (
        dict(alone.lost)["fuse and contacts"] < lost["fuse and contacts"] < 1.7 * dict(alone.lost)["fuse and contacts"]
    )


def test_numbers_of_one_circuit_stay_when_another_comes_before_nothing():
    first = {wire.number: wire for wire in harness(GOOD, GOOD.package, first_wave(GOOD).electrics)}
    more = apply(GOOD, added(GOOD, ("packages", "p1", "circuits"), Circuit(id="late"), ""))
    second = {wire.number: wire for wire in harness(more, more.package, first_wave(more).electrics)}
    assert all(second[number] == wire for number, wire in first.items())
    assert all(a != b for a, b in itertools.pairwise(sorted(second)))


def test_alike_circuits_are_sized_alike_in_one_movement():
    """Two fans of 180 W with a circuit each: what is set at the first is the second's too; the cooler's own fan is
    not alike."""
    split = apply(BUILD, split_circuit(BUILD, BUILD.package, "circuit1"))
    first, second = split.package.circuits[:2]
    thick = on(split, (("packages", "p1", "circuits", first.id, "feed", "size"), "8 AWG", "wire size"))
    after = apply(thick, sized_alike(thick, thick.package))
    sizes = {circuit.id: circuit.feed.size.as_typed for circuit in after.package.circuits}
    assert sizes[first.id] == sizes[second.id] == "8 AWG"
    assert after.package.circuits[2] == split.package.circuits[2]
    assert [circuit.feed.length for circuit in after.package.circuits] == [
        circuit.feed.length for circuit in thick.package.circuits
    ]
    with pytest.raises(InputError, match="alike already"):
        sized_alike(after, after.package)


def test_a_circuit_planned_for_a_core_at_the_rear_reaches_it_and_is_as_thick_as_that_takes():
    """By hand: 10 ft less 0.9 m of bay are 2.148 m, by 1.2 along the car 2.578 m, over the usual 1 1/2 ft 3.035 m. What
    is planned for it loses no more than a circuit may."""
    bare = on(BUILD, (("packages", "p1", "circuits"), ()))
    near = apply(bare, plan_missing(bare, bare.package))
    rear = on(bare, (("packages", "p1", "place", "z"), "10 ft", "length"))
    far = apply(rear, plan_missing(rear, rear.package))
    short, long_ = (next(one for one in build.package.circuits if "fan1" in one.feeds) for build in (near, far))
    beyond = 1.2 * (10 * 0.3048 - 0.9)
    assert long_.branch.length.si == pytest.approx(0.4572 + beyond, abs=0.01)
    assert short.branch.length.si == pytest.approx(0.4572)
    assert long_.branch.size.si > short.branch.size.si
    codes = {one.code for one in first_wave(far).findings}
    assert not codes & {"wire_short", "drop_over", "fuse_over_wire", "wire_hot"}
