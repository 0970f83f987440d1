"""Every choice of the document moves a figure, or is declared to be descriptive and says why: what is called grave must
change an answer."""

import typing
from contextlib import suppress

import pytest

from keelroom.assess.assess import first_wave
from keelroom.assess.electrical.bench import bench_steps
from keelroom.assess.electrical.harness import loom_list, parts_list, wire_list
from keelroom.assess.figures.templates import cut_list, patterns, sheet_list
from keelroom.assess.fit.frames import frame_plans
from keelroom.assess.fit.mounts import bracket_plans
from keelroom.assess.fit.moves import moves_of
from keelroom.assess.fit.panels import panel_plans
from keelroom.assess.fit.shroud_plan import pan_plan, trim_plan
from keelroom.assess.loop.air import air_of
from keelroom.assess.loop.fill_plan import fill_plan
from keelroom.assess.loop.hose_plans import hose_plans
from keelroom.assess.work.hardware import hardware_list
from keelroom.document.fields import get
from keelroom.document.file import load
from keelroom.errors import InputError, KeelRoomError
from tests.changes import on
from tests.conftest import DEMO
from tests.soak.walk import fields

DEMO_BUILD = load(DEMO)
CASES = tuple(case for case in DEMO_BUILD.duty_cases if case.id in ("idle", "grade"))
BUILD = DEMO_BUILD.model_copy(update={"duty_cases": CASES})
"""standing and under load: what moves neither moves none of the others"""
P1 = ("packages", "p1")


def figures(build):
    """All the figures that are told of a build: of its cases, its fit and circuits, what is made and bought for it."""
    judged, package = first_wave(build), build.package
    told = [judged.cases, judged.totals, judged.fit, judged.electrics]
    parts = (
        lambda: bracket_plans(build, package),
        lambda: panel_plans(build, package),
        lambda: [(one.obstacle.id, one.body, one.travel, one.seconds) for one in moves_of(build, package)],
        lambda: (trim_plan(package), pan_plan(package), frame_plans(package)),
        lambda: hose_plans(build, package),
        lambda: patterns(build, package),
        lambda: fill_plan(build, package, air_of(build, package, None, None), 1e5),
        lambda: (cut_list(build, package, "us"), hardware_list(build, package, "us"), sheet_list(build, package, "us")),
        lambda: bench_steps(build, package, judged.electrics, "us"),
        lambda: wire_list(build, package, judged.electrics, "us"),
        lambda: (parts_list(build, package, judged.electrics), loom_list(build, package, judged.electrics, "us")),
    )
    for part in parts:
        try:
            told.append(part())
        except KeelRoomError as error:
            told.append(error.code)
    return repr(told), {(one.code, one.level) for one in judged.findings}


AUTOMATIC = (("brief", "vehicle", "gearbox"), "automatic")
TANK_COOLER = (("brief", "vehicle", "in_tank_cooler"), True)
FLAPS = ((*P1, "shroud", "flap_area"), "70 in²", "area")
FAN = (*P1, "fans", BUILD.package.fans[0].id)
CONTEXT = {
    ("Control", "low_speed"): [((*P1, "control", "strategy"), "two_speed")],
    ("Control", "toggle_on"): [((*P1, "control", "strategy"), "toggle")],
    ("DutyCase", "in_gear"): [AUTOMATIC],
    ("Cooler", "after_tank"): [AUTOMATIC, TANK_COOLER],
    ("Vehicle", "in_tank_cooler"): [AUTOMATIC],
    ("Vehicle", "lockup"): [AUTOMATIC],
    ("Fan", "clutch"): [((*FAN, "motor"), "engine")],
    ("Fan", "key_lead"): [((*FAN, "controller"), "beside")],
    ("Fan", "override_lead"): [((*FAN, "controller"), "beside")],
    ("Shroud", "flap_hinge"): [FLAPS],
    ("Shroud", "flap_way"): [FLAPS],
    ("Part", "cap"): [((*P1, "loop", "core_neck"), "none")],
    ("Mounting", "fan_to"): [((*P1, "mounting", "mass"), None)],
}
"""What has to be so before a choice can matter."""
DESCRIPTIVE = {
    ("CauseCheck", "state"): "a tick of what was looked at",
    ("DutyCase", "seen"): "what the car did; judged against what the build says, and explained",
    ("Source", "channel"): "shuts itself off over what it gives; judged",
    ("Coolant", "inhibitor"): "what corrodes over years; raises a finding",
    ("Cooler", "fitting"): "which way its hose leaves; judged by the room there is",
    ("Front", "out"): "the engine is out: what a cut need not wait for",
    ("HoseEnd", "plugged"): "closes a port of the engine; judged by what is joined to it",
    ("Obstacle", "kind"): "what may become of it and its cautions",
    ("Obstacle", "mobility"): "what may become of it",
    ("Obstacle", "structural"): "what may become of it",
    ("Obstacle", "shielded"): "how near things may stand to what is hot; judged",
    ("Opening", "left_edge"): "what may be cut",
    ("Opening", "right_edge"): "what may be cut",
    ("Opening", "bottom_edge"): "what may be cut",
    ("Opening", "top_edge"): "what may be cut",
    ("Package", "kind"): "what a package stands for; a fan no circuit feeds is tried below",
    ("Part", "lying"): "whether a pump bleeds; judged",
    ("Part", "outlet"): "whether a pump bleeds; judged",
    ("Shroud", "join_seal"): "counts where a shroud as bought is made of two halves, tried below",
    ("Move", "notch_side"): "counts where a neighbour is notched",
}
"""Choices that move no figure of this build, and why nobody calls them grave."""


def choices(build):
    """Every choice of the build: its place, its kind and name, what may be chosen."""
    for path, model, name in fields(build):
        annotation = model.model_fields[name].annotation
        literal = typing.get_origin(annotation) is typing.Literal
        others = typing.get_args(annotation) if literal else (True, False) if annotation is bool else ()
        # Drives move no steady figure: every field of theirs is tried in tests/properties/test_drive_fields.py.
        # Trials and what they told are tried in tests/properties/test_trial_fields.py, the work and what options
        # keep to in tests/properties/test_work_fields.py and tests/unit/assess/test_options.py.
        if (
            others
            and path[0] not in ("driving", "logbook", "calibration", "work", "choosing")
            and (path[0] != "packages" or path[1] == "p1")
        ):
            yield path, (model.__name__, name), [one for one in others if one != get(build, path)]


def test_every_choice_moves_a_figure_or_is_declared_descriptive():
    """One value that moves something is enough; the grave ones are tried one by one below."""
    plain, seen = figures(BUILD), {}
    for path, key, others in choices(BUILD):
        if seen.get(key) or key in DESCRIPTIVE:
            continue
        build, before = BUILD, plain
        if key in CONTEXT:
            build = on(BUILD, *CONTEXT[key])
            before = figures(build)
        seen[key] = False
        for value in others:
            with suppress(InputError):
                if figures(on(build, (path, value)))[0] != before[0]:
                    seen[key] = True
                    break
    assert not [key for key, moves in seen.items() if not moves]
    assert set(DESCRIPTIVE) <= {key for _, key, _ in choices(BUILD)}, "declared, and there"


LOOP = (*P1, "loop")
LOWER = next(hose.id for hose in BUILD.package.loop.hoses if "lower" in hose.id or "lower" in hose.name.lower())


def case(build, name="idle"):
    return first_wave(build).figures_of(name)


GRAVE = {
    "thermostat_reversed": ((*LOOP, "thermostat_state"), "reversed"),
    "worn impeller": ((*LOOP, "impeller"), "worn"),
    "air that gurgles": ((*LOOP, "air_left"), "some"),
    "air that stops the pump": ((*LOOP, "air_left"), "locked"),
    "slipping belt": (("supply", "belt"), "slips"),
    "sensor unplugged, fans stand": ((*P1, "control", "sensor_state"), "lost_stands"),
    "soft suction hose": ((*LOOP, "hoses", LOWER, "state"), "soft"),
    "flaps the wrong way": ((*P1, "shroud", "flap_way"), "toward"),
    "flaps upside down": ((*P1, "shroud", "flap_hinge"), "bottom"),
    "fan stands still": ((*FAN, "runs"), False),
    "puller made pusher": ((*FAN, "mount"), "pusher"),
    "fins bent and dirty": ((*P1, "core", "condition"), "bad"),
}


@pytest.mark.parametrize("name", GRAVE)
def test_what_is_called_grave_takes_rejection_at_the_limit_in_some_case(name):
    """The heat a case gets rid of at its limit, whatever its fans' switch does; or idle settles hotter."""
    sound = on(BUILD, FLAPS)
    wrong = on(sound, GRAVE[name])
    less = []
    for one in BUILD.duty_cases:
        was, now = case(sound, one.id), case(wrong, one.id)
        less.append(now.rejection_at_limit - was.rejection_at_limit)
    assert min(less) < -50.0 or case(wrong).temperature > case(sound).temperature + 1.0, less


def test_a_cracked_hose_a_weak_cap_and_one_taken_away_let_the_coolant_boil_sooner():
    sound = first_wave(BUILD)
    for wrong in (
        ((*LOOP, "cap_state"), "weak"),
        ((*LOOP, "hoses", LOWER, "state"), "cracked"),
        ((*LOOP, "core_neck"), "none"),
    ):
        leaking = first_wave(on(BUILD, wrong))
        assert leaking.boiling < sound.boiling - 5.0, wrong


def test_a_fan_no_circuit_feeds_stands_in_a_car_as_found_and_turns_in_a_plan():
    """Two fans, one of them on no circuit: planned, both turn, for its circuit is still to come; as found it stands,
    sheds less heat, and it draws nothing."""
    alone = on(BUILD, ((*P1, "circuits", "circuit1", "feeds"), (BUILD.package.fans[0].id,)))
    found = on(alone, ((*P1, "kind"), "as_found"))
    planned, stood = case(alone), case(found)
    assert stood.electrical_current < planned.electrical_current - 10
    assert stood.rejection_at_limit < planned.rejection_at_limit - 500
    (said,) = [one for one in first_wave(found).findings if one.code == "no_circuit"]
    assert (said.level, said.form) == ("problem", "dead")
