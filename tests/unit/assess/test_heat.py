"""What is hot against what burns, melts or bakes: by distance, or by a shield."""

from keelroom.assess.acts.registry import edit_for
from keelroom.assess.assess import first_wave
from keelroom.assess.judge.heat import heat
from keelroom.document.edits import apply
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.survey import Obstacle
from tests.changes import on
from tests.conftest import DEMO
from tests.told import what_of, why_of

BUILD = load(DEMO)
JUDGED = first_wave(BUILD)


def pipe(behind):
    """A pipe across the bay, its front so far behind the support plane."""
    sizes = {"left": "-10 in", "bottom": "4 in", "width": "50 in", "height": "2 1/2 in", "depth": "2 1/2 in"}
    measured = {name: quantity(text, "length", "measured") for name, text in sizes.items()}
    return Obstacle(
        id="downpipe", name="Downpipe", kind="exhaust", front=quantity(behind, "length", "measured"), **measured
    )


def near(build):
    return list(heat(build, build.package, JUDGED))


def with_pipe(behind):
    return on(BUILD, (("survey", "obstacles"), (*BUILD.survey.obstacles, pipe(behind))))


def test_plastic_keeps_four_inches_off_a_hot_pipe_and_two_behind_a_shield():
    """Common practice, no source. Moved back by what lacks, the finding goes."""
    for tenths in range(300, 40, -1):
        plastic = [one for one in near(with_pipe(f"{tenths / 10} in")) if one.form == "plastic"]
        if plastic:
            break
    (first,) = plastic[:1]
    assert first.limit == 4 * 0.0254
    assert first.limit - 0.0254 / 10 <= first.value < first.limit, "the first tenth of an inch that is too near"
    assert "downpipe" in what_of(first).lower()
    assert "shield" in why_of(first)


def test_a_shield_is_offered_where_half_the_distance_is_there_and_cures_it():
    for inches in range(4, 20):
        build = with_pipe(f"{inches} in")
        for finding in near(build):
            for act in finding.fix:
                assert finding.value >= finding.limit / 2
                assert finding.key not in {one.key for one in near(apply(build, edit_for(build, act)))}
                return
    raise AssertionError("no place where a shield helps")


def test_a_neighbours_bottle_beside_the_pipe_is_told_too():
    bottle = next(one for one in BUILD.survey.obstacles if one.kind == "washer_bottle")
    where = {name: getattr(bottle, name) for name in ("left", "bottom", "front", "width", "height", "depth")}
    beside = pipe("9 in").model_copy(update=where)
    found = (("packages", "p1", "moves"), ())
    build = on(BUILD, (("survey", "obstacles"), (*BUILD.survey.obstacles, beside)), found)
    assert "bottle" in {one.form for one in near(build)}
    assert "near_exhaust" in {one.code for one in first_wave(build).findings}, "and it is among what is judged"
    assert not near(BUILD), "nothing hot was measured"
