"""One outcome: worked out for this very build, needing something, or stopped by what is said; and a part that fails
costs only itself."""

import json
import math

import pytest

from keelroom.assess import assess as assess_module
from keelroom.assess.assess import assess, completed, first_wave
from keelroom.assess.figures import solving
from keelroom.assess.fit import frames, mounts, moves, panels
from keelroom.assess.inputs import translate
from keelroom.assess.inputs.coolant import graph
from keelroom.assess.inputs.electrical import system
from keelroom.assess.judge import loop as loop_judge
from keelroom.assess.loop import hose_plans
from keelroom.assess.machine_form import as_json
from keelroom.assess.outcome import Stopped, attempted
from keelroom.assess.report import as_table, plain_verdict, verdict_line
from keelroom.core.kept import Kept
from keelroom.core.thermal.louver import FIN_SHARE
from keelroom.document.edits import set_value
from keelroom.document.file import load, parse, serialised
from keelroom.errors import InputError, SolveError
from tests.changes import on
from tests.conftest import DEMO
from tests.soak.walk import small
from tests.told import what_of, why_of

BUILD = load(DEMO)
P = ("packages", "p1")
CORE = (*P, "core")
IDLE = BUILD.duty_cases[0]


def anew(build=BUILD, wave=assess):
    """An assessment with nothing kept from before: a fault put in now is met."""
    with Kept().at_work():
        return wave(build)


def of_case(found, ident):
    return next(case for case in found.cases if case.case_id == ident)


def test_an_assessment_holds_the_very_build_it_was_made_of():
    first = first_wave(BUILD)
    other = on(BUILD, (("brief", "title"), "Another"))
    assert first.build is BUILD
    assert completed(other, first).build is other, "what was made of one build is never passed off as another's"
    assert as_json(completed(other, first))["title"] == "Another"


# the laws' doors, each by a figure worked by hand


@pytest.mark.parametrize(
    ("changes", "entry", "said"),
    [
        # 1.5 fins an inch are 16.9 mm apart: 0.1 mm over that is 0.0059, where ln(0.0059^0.48 + 0.9) is less than
        # nothing.
        (
            [((*CORE, "fin_density"), "1.5 fins/in", "fin density")],
            (*CORE, "fin_density"),
            "fin thickness over fin pitch is then 0.00591",
        ),
        # 16 fins an inch stand 1.5875 mm apart: 0.015 mm over that is 0.0094.
        (
            [((*CORE, "fin_thickness"), "0.015 mm", "length"), ((*CORE, "fin_density"), "16 fins/in", "fin density")],
            (*CORE, "fin_thickness"),
            "fin pitch is then 0.00945",
        ),
        (
            [(("brief", "engine", "idle_rpm"), "100 rpm", "turning speed")],
            ("brief", "engine", "idle_rpm"),
            "the engine’s speed is then 100 rpm",
        ),
        (
            [(("brief", "accessories", "idle_voltage"), "28.4 V", "voltage")],
            ("brief", "accessories", "idle_voltage"),
            "volts per 12 V battery is then 28.4 V",
        ),
    ],
)
def test_what_a_law_does_not_hold_for_stops_it_with_the_entry(changes, entry, said):
    found = assess(on(BUILD, *changes))
    stop = of_case(found, IDLE.id).stopped
    assert stop is not None
    assert stop.where == entry
    assert said in stop.why
    assert not stop.report, "a law's own sentence, no fault of the program"
    assert of_case(found, IDLE.id).figures is None
    finding = next(f for f in found.findings if f.code == "not_worked_out")
    assert finding.where == entry
    assert said in as_table(found, "us")


def test_the_logarithm_is_nothing_just_under_the_door():
    """ln(x^0.48 + 0.9) is nought at x = 0.1^(1/0.48) = 0.00826: the door stands above it, and both branches are
    finite there."""
    nought = 0.1 ** (1 / 0.48)
    assert nought == pytest.approx(0.00826, abs=1e-5)
    assert math.log(FIN_SHARE[0] ** 0.48 + 0.9) > 0
    assert math.log(FIN_SHARE[0] ** 0.5 + 0.9) > 0
    assert FIN_SHARE[0] > nought


def test_a_24_volt_system_is_no_stop_and_28_volts_on_12_are():
    lorry = on(
        BUILD,
        (("supply", "regulated"), "28.4 V", "voltage"),
        (("brief", "accessories", "idle_voltage"), "28.0 V", "voltage"),
        (("brief", "accessories", "road_voltage"), None),
    )
    assert of_case(first_wave(lorry), IDLE.id).stopped is None


def test_a_cooler_without_resistance_stands_without_its_air_and_the_cases_go_on():
    remote = next(cooler for cooler in BUILD.package.coolers if cooler.stands not in ("ahead", "behind"))
    path = (*P, "coolers", remote.id, "loss")
    found = assess(on(BUILD, (path, "0", "number")))
    assert all(case.figures for case in found.cases)
    stop = next(one for one in found.stopped if one.where == path)
    assert "its resistance with its guard’s is 0" in stop.why
    assert not [f for f in found.findings if f.code in ("gearbox_hot", "gearbox_cold")], (
        "what comes of it is no finding of its own"
    )
    mended = assess(on(BUILD, (path, "12", "number")))
    assert not mended.all_stopped


# a part that fails costs only itself

FAULTS = {
    "a panel": (panels, "_plan", lambda package, holes, own, way: own.id == BUILD.package.panels[0].id),
    "a bracket": (mounts, "_planned", lambda given, points, bracket, load: bracket.id == BUILD.package.brackets[0].id),
    "a frame": (frames, "_frame_plan", lambda *_: True),
    "a move": (moves, "_moved", lambda *_: True),
    "a hose's plan": (hose_plans, "_plan", lambda run, adapter: run.hose.id == BUILD.package.loop.hoses[0].id),
    "a hose off the way": (graph, "run_of", lambda hose, *ends: hose.id == BUILD.package.loop.hoses[-1].id),
    "a cooler's air": (translate, "own_air", lambda cooler, *_: cooler.stands not in ("ahead", "behind")),
    "the fit": (assess_module, "fit_up", lambda *_: True),
    "the ambients": (assess_module, "holding_ambients", lambda *_: True),
    "a part of the judgement": (loop_judge, "_air", lambda *_: True),
}


def broken(monkeypatch, module, name, when):
    real = getattr(module, name)

    def failing(*given, **named):
        if when(*given):
            raise ZeroDivisionError("made up")
        return real(*given, **named)

    failing.__name__ = name
    monkeypatch.setattr(module, name, failing)


@pytest.mark.parametrize("what", FAULTS)
def test_a_part_that_fails_is_named_and_leaves_the_rest(what, monkeypatch):
    whole = assess(BUILD)
    module, name, when = FAULTS[what]
    broken(monkeypatch, module, name, when)
    found = anew()
    assert [case.figures.temperature for case in found.cases if case.figures] == pytest.approx(
        [c.figures.temperature for c in whole.cases], abs=2e-3
    )
    before = {(f.code, what_of(f)) for f in whole.findings}
    said = [f for f in found.findings if (f.code, what_of(f)) not in before]
    assert any("could not be worked out" in what_of(f) + why_of(f) for f in said), [what_of(f) for f in said]
    assert len(said) <= 2
    json.dumps(as_json(found), allow_nan=False)
    assert found.complete


@pytest.mark.parametrize("where", ["inputs", "figures", "solve"])
def test_a_case_that_fails_leaves_the_others(where, monkeypatch):
    case = BUILD.duty_cases[2]
    whole = assess(BUILD)
    if where == "inputs":
        broken(monkeypatch, solving, "row_of", lambda _build, _package, _car, one: one.id == case.id)
    elif where == "figures":
        broken(
            monkeypatch,
            solving,
            "case_figures",
            lambda _build, _package, cases, *_: case.id in {one.id for one in cases},
        )
    else:
        real = solving.steady_answer

        def fails(points, *rest):
            if any(abs(points.situation.air_speed - case.speed.si) < 1e-9):
                raise SolveError("x", "No balance was found")
            return real(points, *rest)

        monkeypatch.setattr(solving, "steady_answer", fails)
    found = anew()
    stop = of_case(found, case.id).stopped
    assert stop is not None
    assert bool(stop.report) == (where != "solve")
    for one in found.cases:
        if one.case_id != case.id:
            assert one.figures.temperature == pytest.approx(of_case(whole, one.case_id).figures.temperature, abs=1e-4)
    assert f"“{case.name}” could not be worked out" in {what_of(f) for f in found.findings}
    assert "1 not worked out" in verdict_line(found, "us")
    again = first_wave(BUILD, previous=found)
    assert of_case(again, case.id).stopped == stop, "what found no answer is not tried again while it stays the same"


def test_a_circuit_that_fails_is_named_and_the_others_stand(monkeypatch):
    first = BUILD.package.circuits[0]
    path = system.planned_circuits(BUILD, BUILD.package)[0][0].path
    broken(monkeypatch, system, "flow_through", lambda along, *_: along == path)
    found = anew(wave=first_wave)
    assert [one.circuit.id for one in found.electrics.circuits] == [one.id for one in BUILD.package.circuits[1:]]
    assert all(f"the circuit “{first.name}” could not be worked out" in case.stopped.why for case in found.cases), (
        "its fans' volts are not known"
    )
    assert found.fit is not None
    assert [f.where for f in found.findings if f.code == "not_worked_out"] == [(*P, "circuits", first.id)]


def test_whatever_is_raised_is_an_outcome_with_a_report(monkeypatch):
    def raises(*_args, **_named):
        raise KeyError("nobody thought of it")

    monkeypatch.setattr(assess_module, "_first_wave", raises)
    found = anew()
    assert all(case.stopped and not case.figures for case in found.cases)
    report = found.findings[0].report
    assert "KeyError" in report
    assert "assess/assess.py" in report
    assert str(DEMO.parent) not in report, "no path of this machine"
    assert "Not worked out: something went wrong inside (KeyError" in verdict_line(found, "us")
    assert "something went wrong inside" in plain_verdict(found, "us")


def test_a_figure_without_a_value_stops_its_case(monkeypatch):
    from keelroom.assess.figures import casefigures

    monkeypatch.setattr(casefigures, "pressure_ladder", lambda *_: (("grille", math.nan),))
    found = anew(wave=first_wave)
    assert all("“pressures” came out without a value" in case.stopped.why for case in found.cases)


def test_arithmetic_that_has_no_value_stops_inside_an_attempt():
    import numpy as np

    found = attempted("It", (), lambda: np.array([1.0]) / np.array([0.0]))
    assert isinstance(found, Stopped)
    assert attempted("It", (), lambda: 3) == 3


def test_a_package_that_is_not_there_is_the_callers_fault():
    with pytest.raises(InputError, match="no package “p9”"):
        first_wave(BUILD, "p9")


# the schema walked, short: the whole of it is in `make soak`


def test_fields_at_their_ends_are_refused_or_assessed():
    """Every forty-first of some ten thousand values, with everything read off them."""
    from tests.soak.walk import outcome, values

    build = small()
    every = list(values(build))
    assert len(every) > 9000
    sorts, broke = [], []
    for number, tried in enumerate(every[7::167]):
        got = outcome(build, (tried,), number % 20 == 0)
        sorts.append(got.sort)
        broke += [f"{'/'.join(tried.path)} = {tried.words}: {fault}" for fault in got.faults]
    assert not broke
    assert sorts.count("refused") > 10
    assert sorts.count("worked out") > 20


def test_a_build_that_cannot_be_worked_out_is_saved_and_opened():
    stuck = on(BUILD, ((*CORE, "fin_density"), "1.5 fins/in", "fin density"))
    assert parse(serialised(stuck), DEMO) == stuck
    assert all(case.stopped for case in assess(stuck).cases)


def test_an_edit_that_was_copied_together_is_held_against_its_fields():
    """`model_copy` looks at nothing: what an act makes with it is looked at before it stands."""
    fan = BUILD.package.fans[0]
    far = fan.model_copy(update={"x": fan.x.model_copy(update={"si": 9.0, "as_typed": "9 m", "unit": "m"})})
    with pytest.raises(InputError, match="must be at most"):
        on(BUILD, ((*P, "fans"), (far, *BUILD.package.fans[1:])))
    assert set_value((*P, "fans"), BUILD.package.fans, "").changes
