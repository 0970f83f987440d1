"""An assessment is a function of its build alone: the same bytes after hundreds of others, in any order, from two
threads."""

import json
import random
import threading

import pytest

from keelroom.assess.assess import assess, first_wave
from keelroom.assess.figures import solving
from keelroom.assess.machine_form import as_json
from keelroom.core.kept import Kept
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.file import load
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.moves import Move
from tests.changes import on
from tests.conftest import DEMO
from tests.long import long
from tests.soak.reader import alike

P = ("packages", "p1")
WHOLE = load(DEMO)
BUILD = apply(WHOLE, Edit("", (Change(("duty_cases",), WHOLE.duty_cases[:1]),)))
MILD = ("length", "us", "measured")


def said(build, kept=None):
    """The bytes of an assessment that keeps its stages in `kept`, or in nothing that was there before."""
    with (kept or Kept()).at_work():
        return json.dumps(as_json(assess(build)), sort_keys=True)


def others(count, seed):
    """Builds like the demo: moved, leaned, cut for, wired and fanned otherwise."""
    dice = random.Random(seed)
    for _ in range(count):
        place = [Change((*P, "place", axis), from_si(dice.uniform(-0.05, 0.05), *MILD)) for axis in "xyz"]
        fan = [Change((*P, "fans", "fan1", axis), from_si(dice.uniform(0.1, 0.3), *MILD)) for axis in "xy"]
        wire = Change(
            (*P, "circuits", BUILD.package.circuits[0].id, "feed", "size"),
            quantity(dice.choice(("8 AWG", "10 AWG", "12 AWG")), "wire size"),
        )
        hood = Change(("survey", "hood", "front"), from_si(dice.uniform(0.5, 0.8), *MILD))
        # Most leave the air alone, so that hundreds can be asked.
        changes = dice.choice(
            (
                [*place],
                [*place, hood],
                [hood],
                [hood, Change((*P, "moves"), (Move(id="horn"),))],
                [hood],
                [*place, *fan, wire],
            )
        )
        yield apply(BUILD, Edit("", tuple(changes)))


OTHERS = long("pure", 60)


def test_the_same_bytes_after_many_others():
    """The demo is asked again on the way and at the end; what is left behind by the others, one in five with its
    second wave, must not reach it."""
    alone, kept, asked, last = said(BUILD), Kept(), 0, None
    for number, other in enumerate(others(OTHERS, seed=4)):
        with kept.at_work():
            last = (assess if number % 5 == 4 else first_wave)(other, previous=last)
        if number % 20 == 19:
            assert said(BUILD, kept) == alone, f"after {number + 1}"
            asked += 1
    assert asked == OTHERS // 20


def apart(one, other, at=""):
    """Where two machine forms say different things: words at all, figures by more than a search's own tolerance
    leaves."""
    if isinstance(one, dict) and isinstance(other, dict):
        return [
            found for key in one.keys() | other.keys() for found in apart(one.get(key), other.get(key), f"{at}/{key}")
        ]
    if isinstance(one, list) and isinstance(other, list) and len(one) == len(other):
        return [found for k, pair in enumerate(zip(one, other, strict=True)) for found in apart(*pair, f"{at}/{k}")]
    if isinstance(one, float) and isinstance(other, float):
        return [] if abs(one - other) <= 1e-3 + 2e-4 * abs(other) else [f"{at}: {one} and {other}"]
    if isinstance(one, str) and isinstance(other, str):
        return [] if alike(one, other) else [f"{at}: {one} and {other}"]
    return [] if one == other else [f"{at}: {one} and {other}"]


def test_the_same_figures_wherever_the_search_began():
    """From the build itself, from its like with another title or a pound more, and from one far from it: what a
    figure is must not hang on that."""
    build = apply(WHOLE, Edit("", (Change(("duty_cases",), WHOLE.duty_cases[:4]),)))
    alone = as_json(assess(build))
    changes = [
        (("brief", "title"), "Another"),
        (("brief", "vehicle", "mass"), quantity("4351 lb", "mass")),
        (("brief", "climate", "ambient"), quantity("60 °F", "temperature")),
        ((*P, "fans", "fan1", "runs"), False),
        ((*P, "core", "depth"), quantity("40 mm", "length")),
    ]
    for change in changes:
        other = apply(build, Edit("", (Change(*change),)))
        with Kept().at_work():
            before = assess(other)
        with Kept().at_work():
            found = as_json(assess(build, previous=before))
        assert apart(found, alone) == [], change


def test_the_same_bytes_in_any_order():
    builds = [BUILD, *others(long("orders", 7), seed=9)]
    alone = [said(build) for build in builds]
    for seed in range(2):
        kept, order = Kept(), list(range(len(builds)))
        random.Random(seed).shuffle(order)
        for k in order:
            assert said(builds[k], kept) == alone[k]


def test_the_same_bytes_from_two_threads():
    builds = [BUILD, *others(long("orders", 7), seed=2)]
    alone = [said(build) for build in builds]
    found: dict[int, list[str]] = {}

    def work(turn):
        kept = Kept()
        found[turn] = [said(build, kept) for build in (builds if turn == 0 else reversed(builds))]

    threads = [threading.Thread(target=work, args=(turn,)) for turn in (0, 1)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert found[0] == alone
    assert found[1] == alone[::-1]


@pytest.mark.parametrize("shift", [0.0, 0.003])
def test_a_clearance_is_the_same_whatever_stands_beside_it(shift):
    """Each pair alone and all together: points, gap and direction to the last bit."""
    from keelroom.core.packaging.solids import Solid, chosen, clearance, leaned, stacked

    mine = stacked([Solid((0.1 * k, shift, 0.0), (0.05, 0.04, 0.03), leaned(0.1 * k)) for k in range(6)])
    theirs = stacked(
        [Solid((0.1 * k + 0.07, 0.2 - 0.03 * k, 0.05), (0.03, 0.03, 0.1), leaned(0.0), k % 2 == 0) for k in range(6)]
    )
    together = clearance(mine, theirs)
    for k in range(6):
        mask = [n == k for n in range(6)]
        alone = clearance(chosen(mine, mask), chosen(theirs, mask))
        for one, every in zip(alone, together, strict=True):
            assert one[0].tolist() == every[k].tolist()


NAMES = {
    "core": (*P, "core", "name"),
    "fan": (*P, "fans", "fan1", "name"),
    "circuit": (*P, "circuits", "circuit1", "name"),
    "case": ("duty_cases", BUILD.duty_cases[0].id, "name"),
    "title": ("brief", "title"),
}


@pytest.mark.parametrize("what", NAMES)
def test_another_name_is_another_name_and_solves_nothing_again(what):
    """The points hold the same values: the answer found before is this one's, and what is said of it the same bytes as
    worked out from nothing. Another mass is another answer."""
    with Kept().at_work():
        before = first_wave(BUILD)
        named = apply(BUILD, Edit("", (Change(NAMES[what], "Called otherwise"),)))
        after = first_wave(named, previous=before)
        assert after.start.answer is before.start.answer
        again = json.dumps(as_json(assess(named, previous=before)), sort_keys=True)
        heavier = Change(("brief", "vehicle", "mass"), quantity("5100 lb", "mass", "measured"))
        moved = first_wave(
            apply(BUILD, Edit("", (heavier, Change(("brief", "accessories", "ac_fitted"), False)))), previous=before
        )
        assert moved.start.answer is not before.start.answer
    assert again == said(named)


def test_an_edit_solves_its_cases_together(demo, monkeypatch):
    """Each by itself is for what refuses: an edit of the mass looks at no case alone."""
    first = first_wave(demo)
    monkeypatch.setattr(solving, "_refusing", lambda *_: pytest.fail("every case was solved by itself"))
    heavier = on(demo, (("brief", "vehicle", "mass"), "2700 kg", "mass"))
    found = first_wave(heavier, None, first)
    assert found.cases[2].figures.temperature > first.cases[2].figures.temperature
