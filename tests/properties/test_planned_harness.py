"""What the tool plans for motors that have no circuit: over every way of control and every kind of motor, never a
harness its own findings call wrong, every motor fed through its fuse and what switches it, every lead with an end, no
two outputs tied."""

from __future__ import annotations

import itertools

import pytest

from keelroom.assess.acts.circuits import plan_missing
from keelroom.assess.assess import first_wave
from keelroom.assess.electrical.figures import electrics
from keelroom.assess.electrical.harness import parts_list
from keelroom.assess.inputs.electrical.loads import motors_of
from keelroom.assess.inputs.electrical.ways import WAYS
from keelroom.core.kept import Kept
from keelroom.document.edits import apply
from keelroom.document.file import load
from tests.changes import on
from tests.conftest import DEMO
from tests.long import long
from tests.properties.test_joints import P1, Printed, grounds
from tests.told import what_of

BUILD = load(DEMO)
KINDS = {
    "two leads": {"motor": "brushed"},
    "brushless on two leads": {"motor": "brushless"},
    "its own, pulses": {"motor": "brushless", "controller": "inside", "signal": "pulses"},
    "its own, 12 V": {"motor": "brushless", "controller": "inside", "signal": "level", "override_lead": True},
    "its own, no key": {"motor": "brushless", "controller": "inside", "signal": "ground", "key_lead": False},
    "a box beside it": {"motor": "brushed", "controller": "beside"},
    "a box, brushless": {"motor": "brushless", "controller": "beside", "signal": "level", "key_lead": False},
}
STRATEGIES = tuple(WAYS)
OF_THE_HARNESS = ("own_of_none", "relay_before_electronics", "ramp_through_relay", "outputs_tied", "stages_one_relay")


def planned(strategy, kind, count, more):
    """The demo with so many fans of a kind, no circuit, and then those the tool plans."""
    first = BUILD.package.fans[0]
    fans = tuple(first.model_copy(update={"id": f"fan{k}", **KINDS[kind]}) for k in range(1, count + 1))
    ac, low = more
    build = on(
        BUILD,
        ((*P1, "fans"), fans),
        ((*P1, "circuits"), ()),
        ((*P1, "control", "strategy"), strategy),
        ((*P1, "control", "low_speed"), low),
        ((*P1, "control", "ac_request"), ac != "none"),
        ((*P1, "control", "ac_fans"), ("fan2",) if ac == "one" and count > 1 else ()),
        ((*P1, "control", "lead"), f"fan{count}"),
    )
    return apply(build, plan_missing(build, build.package))


CASES = [
    (strategy, kind, count, more)
    for strategy, kind, count in itertools.product(STRATEGIES, KINDS, (1, 2, 3))
    for more in (("none", "one_fan"), ("one", "one_fan"), ("all", "merged"))
]


@pytest.fixture(scope="module")
def builds():
    return [(planned(*case), case) for case in CASES]


def test_its_own_findings_call_no_planned_harness_wrong(builds):
    """One fan without an A/C, two with it in every way, three merged judged whole, every fourth daily and all in
    `make soak`; in the rest the harness alone is walked below."""
    judged, kept, last = 0, Kept(), None
    whole = [
        (build, case) for build, case in builds if case[2] == 2 or case[3][0] == ("none" if case[2] == 1 else "all")
    ]
    assert len(whole) == 5 * len(STRATEGIES) * len(KINDS)
    chosen = whole[:: long("harness", 4)]
    for build, case in chosen:
        with kept.at_work():
            last = first_wave(build, previous=last)
        for finding in last.findings:
            wrong = finding.level == "problem" and (
                finding.where[2:3] == ("circuits",) or finding.code in OF_THE_HARNESS
            )
            assert not wrong, (case, finding.code, what_of(finding))
        judged += 1
    assert judged >= len(whole) // 4
    for k, every in enumerate((STRATEGIES, KINDS, (1, 2, 3))):
        assert {case[k] for _, case in chosen} == set(every), "each way, each kind and each count is met every day"


def test_every_motor_is_fed_through_its_fuse_and_what_switches_it(builds):
    walked = 0
    for build, case in builds:
        lists = Printed(build)
        switched = {one.circuit.switch for one in electrics(build, build.package).circuits if one.cools}
        for motored in motors_of(build, build.package):
            plus, minus = f"{motored.name} +", f"{motored.name} −"
            assert lists.fed(plus, lists.fuses, lists.contacts), case
            assert not lists.fed(plus, lists.contacts), case
            assert grounds(lists.reached(minus)), case
            if motored.fan:
                own = motored.controller == "inside"
                assert lists.fed(plus, lists.fuses) is own, (
                    case,
                    "a relay ahead of electronics, or none ahead of a bare motor",
                )
                assert ("own" in switched) is own, case
                assert switched <= {"controller"} or motored.controller != "beside", case
            walked += 1
    assert walked > 1000


def test_every_lead_has_an_end_and_what_listens_is_told(builds):
    told = 0
    for build, case in builds:
        lists, way = Printed(build), WAYS[case[0]]
        assert not any(point.startswith("open:") for point in lists.points), (case, "an end left open")
        for motored in motors_of(build, build.package):
            if not motored.fan or motored.controller != "inside":
                continue
            name = motored.name
            assert (f"{name}, key" in lists.points) is motored.key, case
            if motored.key:
                assert any("feed, 5 A fuse" in point for point in lists.reached(f"{name}, key")), case
            if way.alone:
                assert f"{name}, probe +" in lists.points, case
                assert f"{name}, probe −" in lists.points, case
                continue
            near = lists.reached(f"{name}, signal", [(a, b) for a, b in diodes(lists)])
            assert any(point.endswith(", out") and way.brain in point for point in near), (case, sorted(near))
            told += 1
    assert told > 100


def diodes(lists):
    """Both diodes, as they pass."""
    return [
        pair
        for pair in (
            ("diode, plain end", "diode, striped end"),
            ("second diode, plain end", "second diode, striped end"),
        )
        if set(pair) <= lists.points
    ]


def test_two_outputs_are_never_joined(builds):
    """A computer's or a two-speed switch's low and high output: no wire, splice or override pole leads from one to
    the other."""
    held = 0
    for build, case in builds:
        lists = Printed(build)
        outs = [point for point in lists.points if point.endswith((" low, out", " high, out"))]
        if len(outs) == 2:
            assert outs[1] not in lists.reached(outs[0], diodes(lists)), case
            held += 1
    assert held > 50


def test_the_a_c_starts_its_fan_and_not_the_other(builds):
    """A thermoswitch that grounds: from the A/C's switch back through its diode only fan 2's coil is reached; from
    the thermoswitch both."""
    tried = 0
    for build, case in builds:
        if case[0] != "ground_switch" or case[3][0] != "one" or case[1] != "two leads" or case[2] != 2:
            continue
        lists = Printed(build)
        # A diode passes from its plain end to its striped one: walked backwards from the A/C's contact.
        wires = [(a, b) for _, a, b in lists.wires]
        through = {"diode, striped end": "diode, plain end", "second diode, striped end": "second diode, plain end"}

        def back(point, wires=wires, through=through):
            found, waiting = {point}, [point]
            while waiting:
                at = waiting.pop()
                near = {b if a == at else a for a, b in wires if at in (a, b)} | (
                    {through[at]} if at in through else set()
                )
                waiting += near - found
                found |= near
            return found

        asked = {point for point in back("A/C pressure switch, in") if point.endswith(", 85")}
        every = {point for point in back("thermoswitch, out") if point.endswith(", 85")}
        assert asked == {"Fan 2: relay, 85"}
        assert every == {"Fan 1: relay, 85", "Fan 2: relay, 85"}
        tried += 1
    assert tried == 1


def test_the_leading_fan_is_on_the_first_stage(builds):
    tried = 0
    for build, (strategy, kind, count, more) in builds:
        if strategy != "two_speed" or kind != "two leads" or more[1] != "one_fan" or count < 2:
            continue
        lists = Printed(build)
        low = next(point for point in lists.points if point.endswith(" low, out"))
        assert {point for point in lists.reached(low) if point.endswith(", 85")} == {f"Fan {count}: relay, 85"}
        tried += 1
    assert tried == 4


def test_both_contacts_of_one_relay_box_share_a_load_and_nothing_else(builds):
    """Common practice, no source: merged stages hang all fans on two contacts of one box, one fuse, one feed; two
    outputs still apart."""
    tried = 0
    for build, (strategy, kind, count, more) in builds:
        if strategy not in ("two_speed", "computer") or kind != "two leads" or more[1] != "merged" or count != 2:
            continue
        fans = [one for one in electrics(build, build.package).circuits if one.cools]
        assert [one.circuit.switch for one in fans] == ["parallel"]
        assert len(fans[0].motors) == 2
        fuses = [
            row
            for row in parts_list(build, build.package, electrics(build, build.package))
            if row[0].startswith("Fuse") and row[2] == fans[0].circuit.name
        ]
        assert [row[1] for row in fuses] == ["1"]
        tried += 1
    assert tried == 2
