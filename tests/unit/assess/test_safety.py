"""The table of dangers: every step has what it needs, and nothing that no practitioner would follow is said
anywhere."""

import ast
from pathlib import Path

import pytest

import keelroom
from keelroom.assess.acts.registry import acts
from keelroom.assess.assess import first_wave
from keelroom.assess.handed_out import open_problems, steps_of
from keelroom.assess.loop.air import air_of
from keelroom.assess.loop.fill_plan import fill_plan
from keelroom.assess.safety import STEPS, caution, cautions
from keelroom.assess.words import clause
from keelroom.document.file import load
from keelroom.document.schema.package import CorePort
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
P1 = ("packages", "p1")
MUST = {
    "drain": ("scalds", "poisonous"),
    "pressure_test": ("shield", "cap’s rating"),
    "soak": ("stop temperature", "exhaust extraction", "fan and belt"),
    "wire": ("battery", "Fuse at the source"),
    "spin": ("fuse", "own plug"),
    "weld": ("fuel", "chlorinated", "zinc"),
    "close_brass": ("solder", "lead", "fumes"),
    "refrigerant": ("licensed", "never vented"),
    "airbag": ("disarmed", "licensed"),
    "jack": ("stands",),
    "sensor_oil": ("flash point", "lid", "No coolant"),
    "hot_lines": ("exhaust",),
    "structure": ("qualified advice",),
}
"""What each step must say (common practice, no source)."""
NEVER = (
    "tastes of nothing",
    "neat glycol",
    "Some fit it so",
    "feel which way the air",
    "cap off: warm",
    "hands clear; feel",
)


@pytest.mark.parametrize("step", STEPS)
def test_every_step_has_a_caution_with_what_it_must_say(step):
    assert cautions(step)
    for word in MUST.get(step, ()):
        assert word in caution(step), (step, word)


def test_nothing_that_no_practitioner_would_follow_is_said_anywhere():
    for path in Path(keelroom.__file__).parent.rglob("*.py"):
        for node in ast.walk(ast.parse(path.read_text())):
            if isinstance(node, ast.Constant) and isinstance(node.value, str):
                assert not [word for word in NEVER if word in node.value], (path.name, node.value[:80])


def test_every_act_with_hands_at_the_car_reads_its_cautions_from_the_table():
    known = {*cautions(*STEPS), "Undo brings it back until the program is left."}
    for kind in acts().values():
        assert set(kind.cautions) <= known, kind.code


def test_a_fill_has_its_cautions_at_the_steps_they_belong_to():
    steps = fill_plan(BUILD, BUILD.package, air_of(BUILD, BUILD.package, None, None), 100e3)
    said = {step.stage: clause(step.fact, "us") for step in steps if step.caution}
    assert "poisonous" in said["Flush"]
    assert "shield" in said["Test"]
    assert "scalds" in said["Heat"]
    assert "exhaust extraction" in said["Heat"]


def test_a_build_takes_the_cautions_of_what_is_done_in_it():
    """A copper/brass core with a port to close is welded at; without a port nobody welds."""
    port = CorePort(id="old", name="Old port", state="to_close")
    closing = on(BUILD, ((*P1, "core", "ports"), (port,)), ((*P1, "core", "material"), "copper_brass"))
    assert {"weld", "close_brass"} <= set(steps_of(closing))
    assert "close_brass" not in steps_of(on(closing, ((*P1, "core", "material"), "aluminium")))
    assert not {"weld", "close_brass"} & set(steps_of(on(closing, ((*P1, "core", "ports"), ()))))
    assert "refrigerant" not in steps_of(on(BUILD, (("brief", "accessories", "ac_fitted"), False)))


def test_a_list_says_the_open_problems_of_its_part_and_no_others():
    wrong = on(BUILD, ((*P1, "circuits", "circuit1", "fuse"), "100 A", "current"))
    judged = first_wave(wrong)
    said = open_problems(judged, frozenset({"circuits"}), "us")
    assert any("fuse" in one for one in said)
    assert not set(said) & set(open_problems(judged, frozenset({"loop"}), "us"))


def test_the_guides_page_is_the_table():
    page = (Path(keelroom.__file__).parent / "guide/17-cautions.md").read_text()
    assert set(cautions(*STEPS)) == {
        line.removeprefix("- ") for line in page.splitlines() if line.startswith("- ") or line.startswith("Planning")
    }
