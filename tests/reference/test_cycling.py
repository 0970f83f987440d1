"""Cycling fans against a small event simulation: a lump of metal and coolant, a contact with hysteresis, nothing else.

Class: worked numerically. The simulation steps the whole model's rejection and heat at each temperature with the fan
       fully off or
fully on, integrates the lump with scipy's solve_ivp between events, and knows nothing of means over off and on times.
"""

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from keelroom.assess.acts.registry import edit_for
from keelroom.assess.assess import assess, first_wave
from keelroom.assess.figures.batch import Asked, row_for
from keelroom.assess.inputs.translate import stacked
from keelroom.assess.report import as_table
from keelroom.core.coupling import prepare
from keelroom.core.cycling import fans_held, settle
from keelroom.core.operating_point import evaluate, thermal_mass
from keelroom.document.edits import apply
from keelroom.document.file import load
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
COOLING = ("brief", "cooling")


def set_points(start: str, stop: str, *changes):
    return on(
        BUILD,
        (("packages", "p1", "control", "fan_on"), start, "temperature"),
        (("packages", "p1", "control", "fan_off"), stop, "temperature"),
        *changes,
    )


def simulated(build, case_id: str, start: float, hours: float = 2.0) -> tuple[float, float]:
    """Lowest and highest engine-outlet temperature in the last half of a long run, the fan off at its beginning."""
    row = row_for(Asked(build, case_id))
    points, _ = stacked([row])
    fixed = prepare(points, row.layout)
    mass = float(thermal_mass(points)[0])
    stages = points.situation.command.law.stages
    begin, end = float(stages.on[0, 0]), float(stages.off[0, 0])

    def rate(share: float):
        held = fans_held(1, share)
        grid = np.linspace(60.0, 135.0, 151)
        many = [float(evaluate(points, fixed, np.array([t]), row.layout, held).margin[0]) for t in grid]
        return lambda _, y: [-np.interp(y[0], grid, many) / mass]

    still, running = rate(0.0), rate(1.0)

    def starts(_, y):
        return y[0] - begin

    def stops(_, y):
        return y[0] - end

    starts.terminal, starts.direction = True, 1.0
    stops.terminal, stops.direction = True, -1.0
    clock, temperature, runs, seen = 0.0, start, False, []
    while clock < hours * 3600:
        law, event = (running, stops) if runs else (still, starts)
        leg = solve_ivp(law, (clock, hours * 3600), [temperature], events=event, rtol=1e-8, atol=1e-8, max_step=60.0)
        seen += [(t, y) for t, y in zip(leg.t, leg.y[0], strict=True) if t > hours * 1800]
        clock, temperature = float(leg.t[-1]), float(leg.y[0][-1])
        if leg.t_events[0].size:
            runs = not runs
    values = [y for _, y in seen]
    return min(values), max(values)


@pytest.mark.parametrize(
    ("start", "stop", "case", "what"),
    [
        ("195 °F", "185 °F", "idle", "cycles"),
        ("230 °F", "220 °F", "idle", "cycles"),
        ("205 °F", "186 °F", "traffic", "cycles"),
        ("230 °F", "182 °F", "night", "rests"),
        ("190 °F", "186 °F", "cruise", "runs"),
    ],
)
def test_the_swing_is_the_one_an_event_simulation_finds(start, stop, case, what):
    build = set_points(start, stop)
    row = row_for(Asked(build, case))
    points, _ = stacked([row])
    found = settle(points, row.layout)
    low, high = simulated(build, case, 75.0)
    assert bool(found.cycles[0]) is (what == "cycles")
    assert float(found.top[0]) == pytest.approx(high, abs=0.15)
    assert float(found.bottom[0]) == pytest.approx(low, abs=0.15)


def test_a_switch_over_the_limit_does_not_hold():
    """Fans on at 230 °F with a limit of 225: the gauge reaches 230 at every cycle, whatever the mean."""
    build = set_points("230 °F", "200 °F")
    found = assess(build)
    idle = found.idle
    assert idle.cycles
    assert idle.temperature == pytest.approx((230 - 32) / 1.8, abs=0.01)
    assert idle.verdict == "over"
    assert idle.margin == pytest.approx(-5 / 1.8, abs=0.01)
    assert idle.high >= idle.temperature >= idle.mean >= idle.swings_from
    assert "swings 200–230 °F" in as_table(found, "us")
    (near,) = (f for f in found.findings if f.code == "fan_on_near_limit")
    assert near.level == "problem"
    mended = assess(apply(build, edit_for(build, near.fix[0])))
    assert not [f for f in mended.findings if f.code in ("fan_on_near_limit", "fan_set_points", "fan_never_stops")]
    assert mended.idle.verdict == "holds"


def test_a_fan_that_always_runs_for_the_ac_swings_nothing():
    asked = set_points("230 °F", "200 °F", (("packages", "p1", "control", "ac_request"), True))
    assert not assess(asked).idle.cycles


def test_five_kelvin_belong_between_start_and_limit():
    """Common practice, no source: within 5 K a doubt, over it a problem; 216 °F is 5 K under 225."""
    levels = {}
    for start in ("215 °F", "217 °F", "224 °F", "226 °F"):
        found = [f.level for f in assess(set_points(start, "200 °F")).findings if f.code == "fan_on_near_limit"]
        levels[start] = found
    assert levels == {"215 °F": [], "217 °F": ["doubt"], "224 °F": ["doubt"], "226 °F": ["problem"]}


def test_what_faster_coolant_is_worth_is_what_a_core_that_conducts_so_much_better_brings():
    """Against whole solves: the film's share of the resistance shrunk by Gnielinski's own factor put onto the core's
    conductance."""
    from keelroom.core.answer import worth_of_flow
    from keelroom.core.thermal.tube_side import tube_nusselt

    first = first_wave(load(DEMO))
    rows, answer = first.start.rows, first.start.answer
    points, _ = stacked(list(rows))
    state, fixed = answer.solution.state, answer.solution.fixed
    told = worth_of_flow(points, answer, (2.0, 1.2))
    duct = fixed.loop_was.tubes
    ratio = fixed.surfaces.coolant_diameter / duct.length
    checked = 0
    for column, factor in enumerate((2.0, 1.2)):
        slow, fast = (
            tube_nusselt(state.tube_reynolds * speed, state.tube_prandtl, duct.aspect, ratio) for speed in (1.0, factor)
        )
        better = 1 / (1 - state.tube_share * (1 - slow / fast))
        settled = settle(points.doubted(conductance=points.doubts.conductance * better), rows[0].layout)
        won = answer.settled_at.mean.state.temperature - settled.mean.state.temperature
        for k in np.flatnonzero(won > 0.2):
            assert told[k, column] == pytest.approx(won[k], rel=0.15)
            checked += 1
    assert checked == 6
