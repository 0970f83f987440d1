"""One gate for what cannot be taken back, wherever it is offered from."""

import pytest

from keelroom.assess.acts.registry import edit_for
from keelroom.assess.fit.cut_rules import CHECKS, barred
from keelroom.assess.questions.cutting import cut_plan
from keelroom.assess.questions.worth import worth_table
from keelroom.document.edits import Edit, apply, removed, set_value
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.package import Cut
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
CUTS = ("packages", "p1", "cuts")
LEFT = Cut(id="c1", edge="left", amount=quantity("1/2 in", "length"))
CHECKED = on(BUILD, (("survey", "checks"), tuple(CHECKS)))


def offers(build):
    """Every edit that plans a cut, from wherever it is offered."""
    found = [worth.act for worth in worth_table(build)]
    found += [stage.act for stage in cut_plan(build).stages if stage.act is not None]
    return [
        edit
        for edit in (edit_for(build, act) for act in found)
        if apply(build, edit).package.cuts != build.package.cuts
    ]


def test_no_cut_is_let_through_before_its_checks_wherever_it_is_offered_from():
    edits = offers(BUILD)
    assert len(edits) >= 2, "Worth and the stages both offer one"
    for edit in edits:
        assert "before a cut, at Fit-up, Cut: " in barred(BUILD, edit)
        assert barred(CHECKED, edit) == ""


@pytest.mark.parametrize("check", CHECKS)
def test_each_check_alone_bars_it(check):
    build = on(BUILD, (("survey", "checks"), tuple(one for one in CHECKS if one != check)))
    assert barred(build, set_value(CUTS, (LEFT,), "")).startswith("1 cheap check before a cut")


def test_a_no_go_edge_bars_it_for_good():
    build = on(CHECKED, (("survey", "opening", "left_edge"), "no_go"))
    assert "left edge is marked no-go" in barred(build, set_value(CUTS, (LEFT,), ""))
    assert barred(build, set_value(CUTS, (LEFT.model_copy(update={"edge": "right"}),), "")) == ""


def test_what_is_planned_already_and_what_is_taken_back_are_not_barred():
    planned = on(BUILD, (CUTS, (LEFT,)))
    assert barred(planned, set_value(("brief", "title"), "Other", "")) == ""
    assert barred(planned, removed(planned, CUTS, "c1", "")) == ""
    assert barred(planned, Edit("", ())) == ""


def test_with_the_engine_out_the_belt_stays_open_is_said_and_bars_no_cut():
    """What can be known is asked for: hood, latch and structure still bar; the belt that nobody can reach does not."""
    bare = on(BUILD, (("survey", "engine", "turning"), ()), (("survey", "checks"), ("latch", "structure", "hood")))
    edit = set_value(CUTS, (LEFT,), "")
    assert "belt" in barred(bare, edit)
    out = on(bare, (("survey", "engine", "out"), True))
    assert barred(out, edit) == ""
    assert "hood" in barred(on(out, (("survey", "checks"), ("latch", "structure"))), edit)
    assert any("engine is out" in caution for caution in cut_plan(out).cautions)
    measured = on(BUILD, (("survey", "engine", "out"), True), (("survey", "checks"), ("latch", "structure", "hood")))
    assert "belt" in barred(measured, edit), "measured before it came out: the mock-up can still be made"
