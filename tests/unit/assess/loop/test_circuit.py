"""The circuit of a build: its graph, air, strength, filling and the acts on it."""

import pytest

from keelroom.assess.acts.loop import ordinary_edit, wider_way
from keelroom.assess.acts.registry import edit_for
from keelroom.assess.assess import assess, first_wave
from keelroom.assess.figures.loop_told import fill_steps, loop_told, stands_of
from keelroom.assess.figures.read_off import air_in
from keelroom.assess.figures.remote import line_words, standing_flow
from keelroom.assess.first_build import Answers, first_build
from keelroom.assess.fit.hose_ways import CLEAR, detour, ways_of
from keelroom.assess.inputs.coolant.graph import graph_of
from keelroom.assess.loop.air import bleed_list
from keelroom.assess.loop.hose_plans import hose_plans, rod_pattern, rod_words
from keelroom.assess.loop.order import circuit_order
from keelroom.assess.loop.strength import proof_pressure
from keelroom.assess.questions.coolant_ways import answer_to, coolant_ways
from keelroom.assess.words import clause
from keelroom.catalogue.load import cores, engines, fan_assemblies, vehicles
from keelroom.document.edits import apply
from keelroom.document.quantity import quantity
from keelroom.drawing.loop import dragged_height, loop_scene
from keelroom.drawing.scene import Circle, Label, Polyline
from keelroom.errors import InputError
from tests.changes import on
from tests.remote import rear_mounted
from tests.told import said_by, what_of
from tests.unit.assess.loop.rows import (
    BOTTLE,
    BUILD,
    HOSES,
    LOOP,
    LOWER,
    P1,
    PUMPED,
    STEAM,
    TANK,
    UPPER,
    VENTED,
    hoses,
    line,
    parts,
)

PSI = 6894.757


def codes(build):
    return {finding.code for finding in first_wave(build).findings}


def mended(build, *wanted):
    """The build after the first fix of each finding."""
    for code in wanted:
        finding = next(f for f in first_wave(build).findings if f.code == code and f.fix)
        build = apply(build, edit_for(build, finding.fix[0]))
    return build


def test_the_order_coolant_goes_round_in():
    graph = graph_of(BUILD, BUILD.package)
    assert circuit_order(graph) == ("engine", "thermostat", "core")
    assert [branch.key for branch in graph.order] == ["thermostat", "hose:upper", "core", "hose:lower"]
    rear = rear_mounted(BUILD)
    assert circuit_order(graph_of(rear, rear.package)) == ("engine", "thermostat", "filler", "core", "pump")


def test_a_rear_mounted_core_mended_finding_by_finding():
    """As it was first put together and after each mend: pump under everything, one pressure cap, a tank in line,
    nothing back through the bypass."""
    rear = rear_mounted(BUILD)
    wrong = {"pump_high", "second_cap", "no_surge_tank", "bypass_backwards"}
    assert wrong <= codes(rear)
    right = mended(rear, "pump_high", "second_cap", "no_surge_tank", "bypass_backwards")
    assert not wrong & codes(right)
    assert "part_over_hood" not in codes(right), "what mends one is not the next one wrong"
    graph = graph_of(right, right.package)
    assert graph.part(circuit_order(graph)[2]).kind == "surge_tank"
    before, after = first_wave(rear), first_wave(right)
    for one in (before, after):
        air = air_in(rear if one is before else right, (rear if one is before else right).package, one)
        assert air.highs
    idle = after.figures_of("idle")
    assert idle.core_coolant_flow == pytest.approx(idle.coolant_flow, rel=0.02)
    assert before.figures_of("idle").core_coolant_flow > 1.05 * before.figures_of("idle").coolant_flow


def test_what_26_feet_of_size_16_cost():
    """Common practice: a 16-size line goes through 7/8 in. 13 ft each way at the idle's flow lose several times what
    1 1/2 in would."""
    rear = rear_mounted(BUILD)
    figures = first_wave(rear).figures_of("cruise")
    run = next(run for run in graph_of(rear, rear.package).runs if run.hose.id == "out")
    (words,) = line_words(run, figures, "us")
    assert "7/8 in is its true bore" in words
    lost, wide = (float(part.split()[0]) for part in (words.split("loses ")[1], words.split("would be ")[1]))
    assert lost > 5 * wide > 0


def test_no_air_is_trapped_where_the_hose_rises_to_the_core():
    """The engine's outlet a quarter of an inch under the core's neck: air goes up the hose to the cap; two inches
    over the tank it stays unless carried."""
    low = on(BUILD, (("survey", "hoses", "upper", "y"), "16 in", "length"))
    assert not air_in(low, low.package, first_wave(low)).traps
    high = on(BUILD, (("survey", "hoses", "upper", "y"), "21 in", "length"))
    (trap,) = air_in(high, high.package, first_wave(high)).traps
    assert trap.name == "Engine outlet"
    assert trap.at == pytest.approx(21 * 0.0254, abs=0.02)
    screwed = on(high, ((*UPPER, "bleed"), True))
    assert not air_in(screwed, screwed.package, first_wave(screwed)).traps
    steps = bleed_list(air_in(screwed, screwed.package, first_wave(screwed)))
    assert [step.name for step in steps] == ["Core, its top", "Engine outlet"], "from the lowest up"
    assert "bleed screw" in clause(steps[1].how, "us")


def test_a_half_entered_circuit_says_what_it_needs_and_keeps_the_rest():
    for wrong in ([(HOSES, ())], [((*LOWER, "end"), "")], [((*UPPER, "start"), "engine:gone")]):
        found = first_wave(on(BUILD, *wrong))
        assert all(case.figures is None for case in found.cases)
        assert all(len(case.needs) == 1 for case in found.cases)
        assert loop_told(on(BUILD, *wrong), found, "us")["whole"] is False
    unknown = on(BUILD, ((*UPPER, "length"), None), (("survey", "hoses", "upper", "x"), None))
    needs = first_wave(unknown).cases[0].needs
    assert [need.path[-1] for need in needs] == ["length"]


def test_a_hose_takes_its_length_from_its_route_once_its_own_is_gone():
    by_route = on(BUILD, ((*UPPER, "length"), None), ((*UPPER, "bends"), None))
    run = next(run for run in graph_of(by_route, by_route.package).runs if run.hose.id == "upper")
    assert run.length == pytest.approx(run.route.length)
    ends = [run.start.place, run.end.place]
    straight = sum((a - b) ** 2 for a, b in zip(*ends, strict=True)) ** 0.5
    assert straight < run.length < 1.6 * straight


def test_the_test_pressure_is_never_over_cap_or_weakest():
    """Cap 15 psi: 15; heater that stands 12: 12; without a pressure cap the weakest part alone."""
    for changes, psi in (
        ([], 15.0),
        ([((*BOTTLE[:-1], "heater", "stands"), "12 psi", "pressure")], 12.0),
        ([((*LOOP, "core_neck"), "plain")], 25.0),
    ):
        build = on(BUILD, *changes)
        found = first_wave(build)
        assert proof_pressure(build.package, stands_of(build, build.package, found)) == pytest.approx(
            psi * PSI, rel=1e-6
        )
        held = next(said_by(step) for step in fill_steps(build, found) if "closed circuit" in said_by(step))
        assert f"{psi:.1f} psi" in held


def test_the_fill_plan_is_this_circuits():
    def words(*changes):
        build = on(BUILD, *changes)
        return " ".join(said_by(step) for step in fill_steps(build, first_wave(build)))

    assert "Vacuum filler" in words()
    assert "Sealed funnel" in words(((*LOOP, "fill_way"), "funnel"))
    assert "Fill with water and look" in words(((*LOOP, "first_test"), "water"))
    assert "run the electric pump" in words(((*LOOP, "pump"), "electric"))
    assert "runs clear" in words(((*LOOP, "old_coolant"), "other"))
    assert "Under 3 %".lower() in words(((*P1, "coolant", "glycol_share"), "100 %", "share")).lower()
    assert "never open a cap or a hose of a hot system" in words()
    rear = rear_mounted(BUILD)
    gulps = next(said_by(step, "si") for step in fill_steps(rear, first_wave(rear)) if "gulps" in said_by(step))
    # 28 ft of 1 in hold 4.32 L, 10 in of 1 1/2 in 0.29, the heater's hoses 0.25.
    assert float(gulps.split("swallow ")[1].split(" L")[0]) == pytest.approx(4.9, abs=0.1)


@pytest.mark.parametrize("number", range(0, 12, 3))
def test_an_ordinary_circuit_in_one_act_leaves_nothing_wrong(number):
    """Catalogue builds of all sorts: after the act coolant gets round, nothing of the circuit is a problem, doing it
    again changes nothing."""
    core = cores()[number % len(cores())]
    answers = Answers(
        vehicles()[number % len(vehicles())].name,
        engines()[number % len(engines())].name,
        core=core.name,
        fans=fan_assemblies()[0].name,
    )
    build = first_build(answers, "us")
    made = apply(build, ordinary_edit(build, build.package))
    found = first_wave(made)
    own = [f for f in found.findings if f.where[2:3] == ("loop",) and f.level == "problem"]
    assert not own, [what_of(f) for f in own]
    assert all(run.route is not None and run.length for run in graph_of(made, made.package).runs)
    assert made.package.loop.parts[-1].kind == "overflow"
    with pytest.raises(InputError, match="already"):
        ordinary_edit(made, made.package)


def test_what_was_measured_stays_in_an_ordinary_circuit():
    made = apply(BUILD, ordinary_edit(BUILD, BUILD.package))
    assert made.survey.hoses == BUILD.survey.hoses
    assert made.package.loop.parts == BUILD.package.loop.parts


def test_a_wider_way_is_wide_enough():
    """The engine's inlet points down: straight from there a convoluted hose kinks; round by a point it does not, and
    nothing is nearer than before."""
    tight = on(
        BUILD,
        ((*LOWER, "kind"), "convoluted"),
        ((*LOWER, "length"), None),
        ((*LOWER, "bends"), None),
        (("survey", "hoses", "lower", "faces"), "down"),
    )
    assert "hose_kink" in codes(tight)
    wide = apply(tight, wider_way(tight, tight.package, "lower"))
    assert "hose_kink" not in codes(wide)
    run = next(run for run in graph_of(tight, tight.package).runs if run.hose.id == "lower")
    ways = [way for way in ways_of(tight, tight.package, run) if way.route.tightest >= run.wanted - 5e-4]
    chosen = next(way for way in ways if way.points == detour(tight, tight.package, "lower"))
    assert chosen.gap == pytest.approx(max(min(way.gap, CLEAR) for way in ways), abs=1e-9) or chosen.gap >= CLEAR
    straight = on(BUILD, ((*UPPER, "kind"), "silicone"), ((*UPPER, "length"), None))
    with pytest.raises(InputError, match="another kind of hose"):
        wider_way(straight, straight.package, "upper")


def test_a_hose_at_hand_is_cut_twice():
    """2 in too long: an inch off first, then the last inch along a band of tape."""
    build = on(BUILD, ((*UPPER, "stock"), "25 in", "length"))
    plan = next(plan for plan in hose_plans(build, build.package) if plan.run.hose.id == "upper")
    assert plan.off == pytest.approx((25 - 24 + 1) * 0.0254), "with the inch the sensor's adapter takes out"
    assert any("take 1 in" in said_by(note) and "then the last 1 in" in said_by(note) for note in plan.notes)
    assert rod_words(plan.steps, "us")[-1].endswith("end")
    pattern = rod_pattern(plan)
    assert pattern is not None
    assert pattern.bounds[2] < plan.run.route.length


def test_steam_is_plumbed_rising_and_small():
    build = mended(on(BUILD, *VENTED), "steam_open")
    line = build.package.loop.hoses[-1]
    assert (line.start, line.bore.as_typed) == (f"engine:{STEAM.id}", "1/4 in")
    assert build.package.core.ports[-1].use == "vent"
    assert "steam_open" not in codes(build)
    flow = first_wave(build).figures_of("idle").loop.of(f"hose:{line.id}").flow
    assert 0 < flow < 0.1 * first_wave(build).figures_of("idle").coolant_flow, (
        "a vent line lets hardly any coolant past"
    )


def test_the_same_figures_in_an_edit_and_from_nothing():
    """A warm start changes no figure: after other circuits were solved this one's are the same."""
    fresh = assess(BUILD)
    rear = first_wave(rear_mounted(BUILD), previous=fresh)
    again = first_wave(BUILD, previous=rear)
    for a, b in zip(fresh.cases, again.cases, strict=True):
        assert [one.flow for one in a.figures.loop.through] == pytest.approx(
            [one.flow for one in b.figures.loop.through], rel=1e-6, abs=1e-9
        )


def test_mixing_and_balances_of_the_demo_by_hand():
    """Cruise: heat over flow times its capacity is the rise; bypass and core mix to what enters the engine."""
    figures = first_wave(BUILD).figures_of("cruise")
    loop = figures.loop
    flows = {one.key: one.flow for one in loop.through}
    mixed = (flows["core"] * figures.coolant_out + flows["bypass"] * figures.mean) / (flows["core"] + flows["bypass"])
    assert loop.spot("engine:cold").temperature == pytest.approx(mixed, abs=0.02)
    assert loop.rise == pytest.approx(figures.heat_in / (flows["engine"] * 1027 * 3560), rel=0.02)
    # Upper hose: 1.53 m/s in 1 1/2 in, f 0.0191, 1.66 heads of 1.20 kPa, and 2 1/4 in down to the neck.
    out, into = loop.spot("engine:outlet"), loop.spot("core:inlet")
    lost = out.pressure - into.pressure + 1025 * 9.80665 * (18.5 * 0.0254 - 0.41245)
    assert lost == pytest.approx(1990, rel=0.03)


def test_a_thermostat_that_is_gone_or_the_wrong_way_round_leaves_the_bypass_open():
    """Common practice, no source: what is taken out closes no bypass, and part of the coolant never sees the core; one
    that is fitted and hot sends nearly all of it there."""
    hot = on(BUILD, (("packages", "p1", "loop", "thermostat"), "60 °C", "temperature"))
    through = {}
    for state in ("fitted", "none", "reversed"):
        build = on(hot, (("packages", "p1", "loop", "thermostat_state"), state))
        flows = {one.key: one.flow for one in first_wave(build).figures_of("grade").loop.through}
        through[state] = flows["core"] / flows["engine"]
    assert through["fitted"] > 0.97
    assert through["none"] < 0.9
    assert through["reversed"] < 0.9


def test_coolants_side_by_side():
    found = {one.mix.key: one for one in coolant_ways(BUILD)}
    assert found["water"].grade < found["half"].grade < found["waterless"].grade
    assert found["waterless"].grade_margin > found["half"].grade_margin > 0
    assert found["half"].current
    words = answer_to(found["waterless"], tuple(found.values()))
    assert "hotter than half and half" in words
    assert "further from boiling" in words


def test_the_drawing_keeps_its_layout_and_its_heights_are_true():
    def places(build):
        scene = loop_scene(build, build.package, None, None, "us")
        return {shape.tag: shape for shape in scene.shapes if isinstance(shape, Circle | Polyline) and shape.tag}

    before = places(BUILD)
    moved = places(on(BUILD, ((*BOTTLE, "y"), "10 in", "length")))
    assert before.keys() == moved.keys()
    low, high = (min(y for _, y in found["part:bottle"].points) for found in (moved, before))
    assert high - low == pytest.approx(dragged_height(BUILD, BUILD.package, 1.0) ** -1 * 4 * 0.0254, rel=1e-6)
    assert [x for x, _ in before["part:bottle"].points] == [x for x, _ in moved["part:bottle"].points]
    figures = first_wave(BUILD).figures_of("idle").loop
    words = [
        shape.text for shape in loop_scene(BUILD, BUILD.package, figures, None, "us").shapes if isinstance(shape, Label)
    ]
    assert any(text.startswith("Upper hose 7 gpm, 190 °F") for text in words)


def test_warm_coolant_rises_only_to_a_core_that_stands_over_the_engine():
    """Off, the pump lets coolant go round by its warmth alone where the engine's ports lie under the core; where they
    lie over it, not at all."""
    build = on(BUILD, ((*LOOP, "pump"), "electric"))

    def ports(*heights):
        moved = on(
            build,
            *(
                (("survey", "hoses", end, "y"), f"{y} in", "length")
                for end, y in zip(("upper", "lower", "heater_feed", "heater_back"), heights, strict=True)
            ),
        )
        return standing_flow(moved, moved.package, first_wave(moved).figures_of("night"))

    assert ports(40, 30, 38, 31) == 0.0
    assert 1e-6 < ports(-20, -30, -22, -29) < 5e-4


def test_an_electric_pump_in_line_is_fed_like_one_in_the_engines_place():
    """100 W at 13.5 V are 7.4 A, and in step with the volts less at idle; on the alternator's books either way, its
    pressure beside the engine's own."""
    both = on(BUILD, *PUMPED, ((*LOOP, "pump"), "both"), ((*LOOP, "bypass"), "blocked"))
    alone = on(BUILD, ((*LOOP, "pump"), "electric"))
    amps = [first_wave(build).figures_of("idle").electrical_current for build in (BUILD, both, alone)]
    assert 4.5 < amps[1] - amps[0] < 7.4
    assert amps[2] == pytest.approx(amps[1], rel=0.02)
    assert (
        first_wave(both).figures_of("idle").core_coolant_flow
        > 1.5 * first_wave(BUILD).figures_of("idle").core_coolant_flow
    )


def test_a_tanks_feed_takes_a_tee_at_the_engines_inlet():
    """The port is the lower hose's: with a tee both lead to it, the tank's pressure stands at the suction, and next
    to nothing runs in a blind feed."""
    wanted = on(BUILD, parts(TANK), hoses(line("feed", "tank:feed", "engine:lower", bore=quantity("3/4 in", "length"))))
    assert "loop_taken" in codes(wanted)
    teed = mended(wanted, "loop_taken")
    assert not {"loop_taken", "part_loose", "loop_joined"} & codes(teed)
    ends = {hose.id: (hose.start, hose.end) for hose in teed.package.loop.hoses}
    tee = teed.package.loop.parts[-1]
    assert (ends["lower"][1], ends["feed"][1]) == (f"{tee.id}:a", f"{tee.id}:c")
    assert ends[teed.package.loop.hoses[-1].id] == (f"{tee.id}:b", "engine:lower")
    before, after = (first_wave(build).figures_of("cruise") for build in (BUILD, teed))
    assert after.loop.of("hose:feed").flow == 0.0
    assert after.core_coolant_flow == pytest.approx(before.core_coolant_flow, rel=0.02)
