"""What is done to the car: each thing of it in one job, its steps and hours with it, nothing lost, nothing twice."""

import random

import pytest

from keelroom.assess.work.jobs import CARS_OWN, jobs_of, same
from keelroom.assess.work.money import hours_by, likely_hours
from keelroom.assess.work.plan import planned
from keelroom.assess.work.steps import steps_of
from keelroom.catalogue.steps import ACTS, parsed, shipped, shipped_text
from keelroom.core.kept import in_one_go
from keelroom.document.fields import get, id_lists
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.package import Cut
from keelroom.errors import InputError
from tests.acts import done
from tests.changes import on
from tests.conftest import DEMO
from tests.reference.test_draws import any_car

BUILD = load(DEMO)
BUILDS = [BUILD, *(load(DEMO.parent / "samples" / f"{name}.keelroom") for name in ("coupe", "rear"))]
PARTS = {
    ("fans",),
    ("coolers",),
    ("cuts",),
    ("brackets",),
    ("panels",),
    ("circuits",),
    ("moves",),
    ("mounting", "frames"),
    ("loop", "parts"),
    ("loop", "hoses"),
    ("core", "ports"),
}
"""Lists of a package whose members are things of the car"""
BESIDE = {("control", "curve"), ("loop", "pump_curve"), ("loop", "hoses", "via"), ("fans", "curve"), ("coolant",)}
"""Lists that are figures of a thing, none themselves"""


def lists_of(build, package):
    """Lists of a package with the members of each, by their place in it."""
    for path, idents in id_lists(build):
        if path[:2] == ("packages", package.id) and len(path) > 2:
            yield tuple(step for step in path[2:] if step not in {i for i in idents}), path, idents


def things(build, package):
    """Paths of every thing of a package that is not in the car as found, or is another there."""
    found = build.of_kind("as_found")
    for place, path, idents in lists_of(build, package):
        if place not in PARTS:
            continue
        for ident in idents:
            thing = get(build, (*path, ident))
            other = next((o for o in get(found, place) if o.id == ident), None) if found else None
            if same(thing, other) or getattr(thing, "fitted", True) is False:
                continue
            if place == ("loop", "parts") and found is None and thing.kind in CARS_OWN:
                continue
            if place == ("core", "ports") and thing.state not in ("plugged", "to_close"):
                continue
            if place == ("moves",) and ident not in {one.id for one in build.survey.obstacles}:
                continue
            yield (*path, ident)


@in_one_go
def held_once(build):
    """Every thing of every package in exactly one job that brings it; how many there were."""
    count = 0
    for package in build.packages:
        if package.kind == "as_found":
            assert jobs_of(build, package) == ()
            continue
        jobs = jobs_of(build, package)
        brings = [job.about for job in jobs if not job.acts[0].startswith("take_")]
        for path in things(build, package):
            assert brings.count(path) == 1, path
            count += 1
        assert len({job.ident for job in jobs}) == len(jobs)
        keys = [step.key for step in steps_of(build, package)]
        assert len(set(keys)) == len(keys)
        assert {job.ident for job in jobs} == {step.job.ident for step in steps_of(build, package)} or not jobs
        planned(build, package)
    return count


def test_every_thing_is_in_one_job():
    assert sum(held_once(build) for build in BUILDS) >= 30


def test_every_thing_of_drawn_cars_is_in_one_job():
    dice = random.Random(33)
    assert sum(held_once(any_car(dice)) for _ in range(12)) > 40


def test_no_list_of_a_package_is_forgotten():
    """A new list of things has to be declared: in one job, or a figure of a thing."""
    places = {place for build in BUILDS for package in build.packages for place, _, _ in lists_of(build, package)}
    short = {tuple(step for step in place if not any(ch.isdigit() for ch in step)) for place in places}
    known = PARTS | BESIDE
    assert {place for place in short if place not in known and place[0] not in {k[0] for k in known}} == set()


def test_a_cut_brings_its_steps_and_takes_them_along():
    cut = Cut(id="c", edge="top", amount=quantity("1 in", "length"))
    where = ("packages", "p1", "cuts")
    with_cut = on(BUILD, (where, (cut,)))
    keys, before = ({step.key for step in steps_of(build, build.package)} for build in (with_cut, BUILD))
    assert {"cut:c/mark", "cut:c/saw", "cut:c/dress"} <= keys - before
    assert likely_hours(with_cut, with_cut.package) > likely_hours(BUILD, BUILD.package)
    without = on(with_cut, (where, ()))
    assert {step.key for step in steps_of(without, without.package)} == before
    assert likely_hours(without, without.package) == pytest.approx(likely_hours(BUILD, BUILD.package))


def test_hours_are_the_sum_of_their_jobs():
    for build in BUILDS:
        told = sum(hours for _, hours in hours_by(build, build.package))
        assert 3600 * told == pytest.approx(likely_hours(build, build.package))


def test_what_cannot_be_undone_waits_for_its_checks():
    """A cut waits for the trial fit, a bracket for its template and that for the mock-up; the front is closed once,
    after all that is behind it; the plug that passes a belt, with its harness, after the fans."""
    cut = Cut(id="c", edge="top", amount=quantity("1 in", "length"))
    build = on(BUILD, (("packages", "p3", "cuts"), (cut,)), (("active",), "p3"), (("work", "ticks"), ()))
    plan = planned(build, build.package)
    ends = {span.key: span.ends for span in plan.spans}
    begins = {span.key: span.begins for span in plan.spans}
    for step in plan.steps:
        if not step.keeps:
            assert step.needs, step.key
    assert begins["cut:c/saw"] >= ends["mock_up/trial"]
    assert sum(step.job.ident == "front" for step in plan.steps) == 2
    assert begins["front/on"] >= max(ends[key] for key in ends if key.startswith(("shroud", "fan", "core/")))
    assert begins["circuit:circuit1/lay"] >= ends["fan:fan1/mount"]
    assert begins["test/soak"] >= ends["fill/level"]


def test_a_tick_stays_whatever_becomes_of_the_build():
    build = done(BUILD, "tick", step="circuit:circuit1/build", went="twice", took="120 min", day="2026-11-30")
    plan = planned(build, build.package)
    assert "circuit:circuit1/build" in plan.done
    assert plan.span("circuit:circuit1/build") is None
    bare = on(build, (("packages", "p1", "circuits"), ()))
    gone = planned(bare, bare.package)
    assert any(tick.step == "circuit:circuit1/build" for tick in gone.gone)
    assert len(bare.work.ticks) == len(build.work.ticks)
    stopped = done(BUILD, "tick", step="fan:fan2/mount", went="stopped")
    assert "fan:fan2/mount" not in planned(stopped, stopped.package).done
    back = done(build, "untick", step="circuit:circuit1/build")
    assert "circuit:circuit1/build" not in planned(back, back.package).done
    with pytest.raises(InputError, match="not ticked"):
        done(back, "untick", step="circuit:circuit1/build")
    with pytest.raises(InputError, match="no longer in the plan"):
        done(BUILD, "tick", step="nothing/at-all", went="done")
    with pytest.raises(InputError, match="no way a step goes"):
        done(BUILD, "tick", step="fan:fan2/mount", went="somehow")


def test_every_act_has_steps_and_what_they_name_is_known():
    rules = shipped()
    assert {rule.act for rule in rules} == set(ACTS)
    assert len(rules) > 55
    assert any(not job.words for build in BUILDS for job in jobs_of(build, build.package))
    for build in BUILDS:
        for step in steps_of(build, build.package):
            text = " ".join((step.words, step.check, *step.tools, *(f"{a} {b}" for a, b in step.uses)))
            assert "{" not in text, step.key
            assert step.cautions or step.state != "bare", step.key


HEAD = "act,step,state,words,per,low,likely,high,hands,needs\n"


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("act,step\nfan,a\n", "no column “state”"),
        (HEAD, "holds no step"),
        (HEAD + "turbo,a,bare,x,,1,2,3,1,\n", "line 2: “turbo” is no act"),
        (HEAD + "fan,a,flying,x,,1,2,3,1,\n", "“flying” is no state"),
        (HEAD + "fan,a,bare,x,,3,2,1,1,\n", "low, likely, high were expected"),
        (HEAD + "fan,a,bare,x,,0,2,3,1,\n", "low, likely, high were expected"),
        (HEAD + "fan,a,bare,x,,soon,2,3,1,\n", "“soon” is no number"),
        (HEAD + "fan,a,bare,x,wires,1,2,3,1,\n", "“wires” is no figure of fan"),
        (HEAD + "fan,a,bare,x,,1,2,3,9,\n", "1 to 6 hands"),
        (HEAD + "fan,a,bare,x,,1,2,3,1,fan.b\n", "needs fan.b, which is no step"),
        (HEAD + "fan,a,bare,x,,1,2,3,1,\nfan,a,bare,y,,1,2,3,1,\n", "stands twice"),
        (HEAD + "fan,a,bare,x,,1,2,3,1,fan.b\nfan,b,bare,x,,1,2,3,1,fan.a\n", "wait for each other"),
        (HEAD + "fan,,bare,x,,1,2,3,1,\n", "a name and words"),
    ],
)
def test_a_broken_table_is_refused_at_its_line(text, said):
    with pytest.raises(InputError, match=said.replace("(", r"\(")):
        parsed(text, "ours.csv")


def test_a_shops_own_table_counts_and_a_broken_one_is_said():
    from keelroom.assess.work.steps import table_fault
    from keelroom.document.snapshot import packed

    slower = shipped_text().replace("Capped", "Capped").replace(",8,15,40,", ",80,150,400,")
    ours = on(BUILD, (("work", "table"), packed(slower)))
    assert likely_hours(ours, ours.package) > likely_hours(BUILD, BUILD.package) + 2 * 3600
    broken = on(BUILD, (("work", "table"), packed("act,step\nx,y\n")))
    assert likely_hours(broken, broken.package) == likely_hours(BUILD, BUILD.package)
    assert "no column" in table_fault(broken.work)
    assert table_fault(ours.work) == ""


def test_own_steps_are_planned_where_they_belong():
    build = done(BUILD, "own_step")
    ident = build.work.own[-1].id
    at = ("work", "own", ident)
    build = on(build, ((*at, "likely"), "45 min", "minutes"), ((*at, "cost"), "30", "money"))
    plan = planned(build, build.package)
    span = plan.span(f"own:{ident}/do")
    assert span.ends - span.begins == pytest.approx(45 * 60)
    assert without(build, ident).work.own == ()


def without(build, ident):
    """The build without that step of one's own."""
    return on(build, (("work", "own"), tuple(one for one in build.work.own if one.id != ident)))
