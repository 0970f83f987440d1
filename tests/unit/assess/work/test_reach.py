"""Which way a bolt is reached, what stands before it, a core that goes away to be re-cored."""

import pytest

from keelroom.assess.fit.bodies import Body
from keelroom.assess.fit.points import Anchor
from keelroom.assess.work.jobs import recored
from keelroom.assess.work.plan import AWAY, planned
from keelroom.assess.work.reach import DRIVER, around_of, ways
from keelroom.assess.work.steps import steps_of
from keelroom.core.packaging.solids import Solid
from keelroom.core.plan.network import DAY
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.work import Item
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
BARE = on(BUILD, (("packages", "p4", "brackets"), ()), (("active",), "p1"))
"""The demo with brackets that are new: of the car as found none is left"""


def wall(name, near, thick=0.02):
    """A wide wall across the bolt, its nearer face so far off along it [m]."""
    middle = near + (thick / 2 if near > 0 else -thick / 2)
    return Body(name, name, "static", Solid((0.0, 0.0, middle), (0.5, 0.5, thick / 2)), ())


def at(faces="front", behind=None, key="hole:a"):
    return Anchor(key, "Hole A", (0.0, 0.0, 0.0), faces, "hole", 7e-3, behind, own=False)


def test_a_driver_comes_from_where_there_is_room():
    """A wall 80 mm ahead leaves 80 mm, one 30 mm behind 30 mm; the better side is told first; by hand."""
    first, second = ways(at(), around_of((wall("Wall", -0.08),)))
    assert (first.side, first.room, first.before) == ("behind", DRIVER, "")
    assert (second.side, second.before) == ("ahead", "Wall")
    assert second.room == pytest.approx(0.08, abs=0.005)
    first, second = ways(at(), around_of((wall("Wall", -0.08), wall("Block", 0.03))))
    assert [(way.side, way.before) for way in (first, second)] == [("ahead", "Wall"), ("behind", "Block")]
    assert second.room == pytest.approx(0.03, abs=0.005)


def test_a_side_hole_is_reached_across_and_the_part_it_is_in_is_no_hindrance():
    """The wall lies along the bolt, 80 mm ahead: a bolt across the car passes it; the plate the hole is in is not in
    its own way; of a neighbour's face only the side that is seen can be reached."""
    plate = Body("plate", "Plate", "part", Solid((0.0, 0.0, 0.0), (0.002, 0.3, 0.3)), ())
    assert all(way.before == "" for way in ways(at("side"), around_of((wall("Wall", -0.08), plate))))
    assert [way.side for way in ways(at(key="neighbour:horn:front"), around_of((plate,)))] == ["ahead"]
    measured = {way.side: way for way in ways(at(behind=0.06), around_of((plate,)))}
    assert measured["behind"].room == 0.06
    assert "measured" in measured["behind"].before


def test_a_new_bracket_says_how_it_is_bolted_up():
    """M6 wants a 4 mm key and a 10 mm spanner (ISO 7380, ISO 4032, from memory); M8 a torque wrench too."""
    steps = {step.key: step for step in steps_of(BARE, BARE.package)}
    step = steps["bracket:bracket1/bolt"]
    assert "core, upper left from ahead" in step.words
    assert "snug by hand" in step.words
    assert step.tools == ("4 mm hex key, 10 mm spanner",)
    assert "bracket:bracket1/bolt" in steps["test/soak"].needs
    thick = on(BARE, (("packages", "p1", "brackets", "bracket1", "bolt"), "m8"))
    stout = next(one for one in steps_of(thick, thick.package) if one.key == step.key)
    assert stout.tools[-1] == "torque wrench"
    assert "25 N·m at most" in stout.words


def test_what_stands_before_a_bolt_is_named():
    """The tie bar's hole with a box set 40 mm ahead of it and 40 mm behind it."""
    hole = next(one for one in BARE.survey.holes if one.id == "upper_left")
    x, y, z = (getattr(hole, name).si for name in "xyz")
    build = BARE
    for name, near in (("Lamp", z - 0.04 - 0.1), ("Box", z + 0.04)):
        build = _with_box(build, name, (x, y, near))
    step = next(one for one in steps_of(build, build.package) if one.key == "bracket:bracket1/bolt")
    assert "is blocked" in step.words
    assert "Lamp" in step.words or "Box" in step.words


def _with_box(build, name, at):
    like = build.survey.obstacles[0]
    x, y, z = at
    sizes = {"left": x - 0.1, "bottom": y - 0.1, "front": z, "width": 0.2, "height": 0.2, "depth": 0.1}
    box = like.model_copy(
        update={"id": name.lower(), "name": name, **{k: quantity(f"{v} m", "length") for k, v in sizes.items()}}
    )
    return on(build, (("survey", "obstacles"), (*build.survey.obstacles, box)))


def test_a_re_core_keeps_the_car_off_the_road():
    """The car's own brass tanks on four rows instead of three: it goes away, for three days where nobody said, for the
    lead time where somebody did; nothing before it waits for it. Another face is another core, bought."""
    p2 = next(one for one in BUILD.packages if one.id == "p2")
    core = p2.core
    less = core.model_copy(update={"rows": quantity("2", "count"), "depth": quantity("1 1/2 in", "length")})
    build = on(
        BUILD, (("packages", "p4", "core"), less), (("active",), "p2"), (("work", "ticks"), ()), (("work", "items"), ())
    )
    assert recored(build.package.core, build.of_kind("as_found").core)
    plan = planned(build, build.package)
    away, back = plan.span(AWAY), plan.span("core/fit")
    assert away.begins >= plan.span("take_core/off").ends
    assert back.begins - away.ends >= 3 * DAY
    late = on(build, (("work", "items"), (Item(id="p2/core", lead=quantity("10", "number")),)))
    found = planned(late, late.package)
    assert found.span("core/fit").begins - found.span(AWAY).ends >= 10 * DAY
    assert found.span("take_core/off").begins == plan.span("take_core/off").begins
    wider = core.model_copy(update={"face_width": quantity("24 in", "length")})
    assert not recored(wider, build.of_kind("as_found").core)
