"""Options: the front against a plain sort, regret against counting car by car, survivors against one-by-one, bounds."""

import json
import math
import pickle

import numpy as np
import pytest

from keelroom import cli
from keelroom.assess.assess import assess
from keelroom.assess.figures.batch import Asked, in_hand
from keelroom.assess.first_build import Answers, first_build
from keelroom.assess.options.space import (
    Bounds,
    Priced,
    bounded,
    bounds_of,
    broken,
    fits,
    nearest,
    options_of,
    package_of,
    priced,
    with_option,
)
from keelroom.assess.placing import size_of
from keelroom.assess.questions.chosen import chosen, cooler_than, picked, plain_words, plainly
from keelroom.assess.questions.closer import closer, closer_lines
from keelroom.assess.questions.ladder import climbed, ladder, within_reach
from keelroom.assess.questions.options import Found, front_of, searched
from keelroom.assess.questions.standing import day_words, standing_words, standings
from keelroom.assess.work.shopping import shopping
from keelroom.assess.work.steps import steps_of
from keelroom.catalogue.load import cores, fan_assemblies
from keelroom.core.choice.fronts import front, knee
from keelroom.core.choice.regret import margins, regrets
from keelroom.core.kept import Kept, in_one_go
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.choosing import Choosing
from keelroom.units import INCH, KINDS
from tests.acts import doing, offer
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
CFM = KINDS["airflow"].unit("CFM").factor
FEW = BUILD.model_copy(update={"duty_cases": tuple(case for case in BUILD.duty_cases if case.id in ("idle", "grade"))})


PLACES = [n for n, one in enumerate(options_of(FEW)) if n % 9 == 0 or one.sort != "new"]
"""Every ninth option of the demo, with those the build has."""


@pytest.fixture(scope="module")
def found():
    return searched(FEW, Bounds(), ("hand", "money", "hours"), places=PLACES)


@pytest.fixture(scope="module")
def everything(found):
    return found.space.all


@pytest.mark.parametrize("seed", range(30))
def test_the_front_is_that_of_a_plain_sort(seed):
    """Every pair held against each other, by the definition."""
    dice = np.random.default_rng(seed)
    aims = dice.integers(0, 9, (110, 2 + seed % 3)).astype(float)
    plain = np.ones(len(aims), dtype=bool)
    for n, one in enumerate(aims):
        for m, other in enumerate(aims):
            beats = (other <= one).all() and (other < one).any()
            same = m < n and (other == one).all()
            plain[n] &= not (beats or same)
    stays = front(aims)
    key = lambda kept: sorted(map(tuple, aims[kept]))  # noqa: E731
    assert key(stays) == key(plain)
    ideal = (aims[stays] - aims[stays].min(axis=0)) / np.maximum(np.ptp(aims[stays], axis=0), 1e-9)
    assert knee(aims[stays]) == np.argmin(np.linalg.norm(ideal, axis=1))


def test_regret_is_counted_car_by_car():
    """Against a loop over cars: the cost of a choice over the least any would have had there."""
    hand, shared, own = np.array([3.0, -1.0, 8.0]), np.array([4.0, 4.0, 4.0]), np.array([1.0, 2.0, 0.5])
    drawn = margins(hand, shared, own, draws=500)
    cost, failing = np.array([200.0, 50.0, 600.0]), 1000.0
    told = regrets(drawn, cost, failing)
    over = []
    for car in drawn:
        spent = [c if day >= 0 else c + failing for day, c in zip(car, cost, strict=True)]
        over.append([one - min(spent) for one in spent])
    assert told.expected == pytest.approx(np.mean(over, axis=0))
    assert told.most == pytest.approx(np.max(over, axis=0))
    assert told.too_small == pytest.approx((drawn < 0).mean(axis=0))
    # The same car for all: what they share says nothing of which is cooler.
    apart = math.hypot(1.0, 0.5)
    many = margins(hand, shared, own, draws=40_000)
    from scipy.stats import norm

    assert cooler_than(many, 2, 0) == pytest.approx(norm.cdf(5.0 / apart), abs=0.01)


def test_regret_is_said_plainly(found):
    """Of those regretted less than all, and of those that cost less; figures as the table has them."""
    told = chosen(found, FEW)
    plain = plainly(told)
    regret, cost = told.regret.expected, np.array([one.priced.money for one in told.rows])
    assert regret[plain.least] == regret.min()
    cheaper = np.flatnonzero(cost < cost[plain.least] - 0.5)
    assert (plain.smaller is None) == (len(cheaper) == 0)
    if plain.smaller is not None:
        assert regret[plain.smaller] == regret[cheaper].min()
    # Hours are weighed with what the build says an hour costs.
    dear = chosen(found, on(FEW, (("work", "rate"), "6000", "money")))
    hours = np.array([one.priced.hours for one in dear.rows]) / 3600
    assert dear.regret.expected[np.argmax(hours)] > 6000 * (np.ptp(hours) - 1)
    new = told._replace(regret=told.regret._replace(expected=-cost))  # the dearest regretted least
    said = list(plain_words(new, FEW, "$"))
    best = told.rows[int(np.argmax(cost))]
    assert said[0].startswith(f"Least to be regretted: {best.option.words}, too small in ")
    less = max((one for one in told.rows if one.priced.money < best.priced.money), key=lambda one: one.priced.money)
    assert said[1].startswith(f"{less.option.words} costs ${best.priced.money - less.priced.money:,.0f} less")
    days = {case: hand.day for case, hand in zip(found.cases, less.hands, strict=True)}
    assert said[1].endswith(f"it would not have held {FEW.duty_case(min(days, key=days.get)).name}.")
    assert list(plain_words(told._replace(rows=()), FEW, "$")) == []


def test_a_few_are_drawn_that_tell_the_trade(found):
    told = chosen(found, FEW)
    few = picked(told, 6)
    assert 3 <= len(few) == len({one.option.key for one in few}) <= 6
    money = [one.priced.money for one in few]
    assert money == sorted(money)
    keys = {one.option.key for one in few}
    assert {one.option.key for one in found.beside if one.worst} <= keys
    assert told.rows[plainly(told).least].option.key in keys
    assert max(told.rows, key=lambda one: one.worst.day).option.key in keys
    assert picked(told._replace(rows=()), 6) == ()


def test_no_fan_is_larger_than_its_core():
    count = 0
    for option in options_of(BUILD):
        if option.sort != "new":
            continue
        wide, high = size_of(option.core)
        sizes = [fan.diameter.si for fan in package_of(BUILD, option).fans]
        assert max(sizes) <= high
        assert sum(sizes) <= wide
        count += 1
    assert count > 500
    assert not fits(next(a for a in fan_assemblies() if a.count == 2), cores()[0])


def test_survivors_are_what_they_are_one_by_one(found):
    cases = found.cases
    for one in found.front:
        own = with_option(FEW, one.option)
        alone = [in_hand([Asked(own, case)])[0].weather for case in cases]
        assert [hand.day for hand in one.hands] == pytest.approx(alone, rel=1e-6, abs=1e-6)


def test_those_the_build_has_are_always_among_them(found):
    assert {"now", "as_found"} <= {one.option.sort for one in found.judged}
    told = chosen(found, FEW)
    assert told.now >= 0
    assert told.rows[told.now].priced.option.key == FEW.active
    assert told.regret.expected.min() < 200, "one of them is near to the best whatever the car"


def test_a_looser_bound_never_loses_a_point_of_the_front(everything, found):
    """What is left of the tighter front is what a looser one has, or something beats it there."""
    tight = Bounds(budget=400.0, hours=16 * 3600.0)
    loose = tight._replace(budget=700.0)
    new = [one for one in found.judged if one.option.sort == "new"]
    narrow, wide = (
        front_of([one for one in new if not broken(one.priced, bounds)], found.aims) for bounds in (tight, loose)
    )
    assert len(narrow) > 1
    kept = {one.option.key for one in wide}
    for one in narrow:
        mine = [one.aim(name) for name in found.aims]
        beaten = any(
            all(o <= m for o, m in zip([other.aim(n) for n in found.aims], mine, strict=True)) for other in wide
        )
        assert one.option.key in kept or beaten


def test_what_each_bound_throws_out_is_counted_and_why(everything):
    bounds = Bounds(budget=300.0, amps=30.0, no_cut=True)
    space = bounded(everything, bounds)
    assert len(space.inside) + len({o.option.key for part in space.out.values() for o in part}) == len(everything)
    assert space.whole == len(everything)
    for name, out in space.out.items():
        assert all(name in broken(one, bounds) for one in out)
    new = [one for one in space.inside if one.option.sort == "new"]
    assert new
    assert all(one.money <= 300 and one.amps <= 30 for one in new)
    # What the build has stays, though its own panel is cut and its fans draw more.
    kept = {one.option.sort for one in space.inside}
    assert kept == {one.option.sort for one in everything}


@pytest.mark.parametrize(
    "bounds", [Bounds(width=0.1, budget=5000.0), Bounds(budget=20.0, amps=3.0), Bounds(hours=60.0, no_cut=True)]
)
def test_bounds_that_leave_nothing_are_loosened_as_told(everything, bounds):
    """What is told is enough, and no bound more than needed is touched."""
    space = bounded(everything, bounds)
    assert not space.left
    near = nearest(everything, bounds)
    loose = bounds._replace(**{name: False if value is None else value for name, value in near.over.items()})
    assert near.one in bounded(everything, loose).inside
    fewest = min(len(broken(one, bounds)) for one in everything if one.option.sort == "new")
    assert len(near.over) == fewest
    assert nearest(everything, loose) is None


def test_where_every_option_stands(found):
    """Against the definition: what is said to beat one is no worse in any aim and better in one; what has none is on
    the front or the build's own."""
    told = standings(found, Bounds())
    assert {one.priced.option.key for one in told} == {one.option.key for one in found.space.all}
    front = {one.option.key for one in found.front}
    for one in told:
        mine = [one.judged.aim(name) for name in found.aims]
        if one.by is None:
            assert one.priced.option.key in front or one.priced.option.sort != "new"
            continue
        assert one.by.option.key in front
        his = [one.by.aim(name) for name in found.aims]
        assert all(h <= m for h, m in zip(his, mine, strict=True))
        assert his != mine
    days = [one.judged.worst.day for one in told if one.known]
    assert days == sorted(days, reverse=True)


def test_why_a_favourite_is_out_in_words_and_figures(found):
    bounds = Bounds(budget=300.0, width=26 * INCH, own_only=False, amps=20.0, no_cut=True, hours=10 * 3600.0)
    priced = Priced(
        next(one.option for one in found.judged if one.option.core.name.startswith("Crossflow 31 × 19, 2 row")),
        amps=28.0, money=605.0, hours=12 * 3600.0, undone=0, cut=True,
    )  # fmt: skip
    tight = Found(found.cases, bounded((priced,), bounds), (), (), found.aims, True)
    (one,) = standings(tight, bounds)
    assert standing_words(one, bounds, "us", "$") == (
        "31 in wide, 26 in kept to; draws 28 A, 20 A kept to; costs $605, $300 kept to; "
        "takes 12.0 h, 10.0 h kept to; the panel would be cut"
    )
    loose = next(one for one in standings(found, Bounds()) if one.by is not None)
    said = standing_words(loose, Bounds(), "us", "$")
    assert said.startswith(f"beaten by {loose.by.option.words}: ")
    cheaper = loose.priced.money - loose.by.priced.money
    assert (f"${cheaper:,.0f} less" in said) == (cheaper >= 0.5)


FIELDS = {
    "width": quantity("15 in", "length"),
    "height": quantity("14 in", "length"),
    "no_cut": True,
    "amps": quantity("15 A", "current"),
    "budget": quantity("200", "money"),
    "hours": quantity("12 h", "time"),
    "own_only": True,
}


@pytest.mark.parametrize("name", list(FIELDS))
def test_every_bound_throws_something_out(everything, name):
    build = on(FEW, (("choosing", name), FIELDS[name]))
    assert len(bounded(everything, bounds_of(build.choosing)).inside) < len(everything)
    assert set(FIELDS) | {"aims"} == set(Choosing.model_fields)


def test_aims_choose_another_front(found):
    new = [one for one in found.judged if one.option.sort == "new"]
    fronts = [{one.option.key for one in front_of(new, aims)} for aims in (("hand", "money"), ("hand", "amps"))]
    assert all(len(one) > 1 for one in fronts)
    assert fronts[0] != fronts[1]


def test_stopped_midway_what_was_found_stays(everything):
    seen = []

    def tell(share, found=None):
        seen.append((share, found))
        return share < 0.4

    told = searched(FEW, Bounds(), tell=tell, places=PLACES)
    assert not told.whole
    assert 0 < len(told.judged) < len(everything)
    assert told.front
    # A first front stands at once: what the build has is in it, and no doubt yet.
    share, first = seen[0]
    assert share < 0.6
    assert {"now", "as_found"} <= {one.option.sort for one in first.judged}
    assert first.front
    assert not first.whole
    assert not any(one.doubted for one in first.judged)


def test_parts_of_a_search_worked_out_elsewhere_answer_alike(found):
    """Over processes, and each shard after a round trip through what processes are told by."""

    def elsewhere(work, parts):
        return [pickle.loads(pickle.dumps(work(pickle.loads(pickle.dumps(part))))) for part in parts]

    there = searched(FEW, Bounds(), ("hand", "money", "hours"), places=PLACES, shared=elsewhere)
    assert [one.option.key for one in there.front] == [one.option.key for one in found.front]
    assert [one.priced[1:] for one in there.judged] == [one.priced[1:] for one in found.judged]
    days = [[hand.day for one in told.judged for hand in one.hands] for told in (there, found)]
    assert days[0] == pytest.approx(days[1], rel=1e-9)


SAMPLES = [DEMO, *(DEMO.parent / "samples").glob("*.keelroom")]


@pytest.mark.parametrize("path", SAMPLES, ids=lambda path: path.stem)
def test_what_is_told_of_an_option_is_told_of_it_as_a_package(path):
    """Money, hours, what cannot be undone: by the steps and the list of the package itself, in any order of asking."""
    build = load(path)
    options = options_of(build)
    copper = [one for one in options if one.core.material == "copper_brass"]
    picked = [*options[:3], *options[3::97], *copper[::41]]
    with Kept().at_work():
        found = [priced(build, one) for one in picked]
    for one in found:
        own = with_option(build, one.option)
        steps = steps_of(own, own.package)
        hours = math.fsum(
            (step.low + 4 * step.likely + step.high) / 6 * (1 + step.again) * step.hands for step in steps
        )
        money = [item.price for item in shopping(own, own.package) if item.price is not None and not item.in_hand]
        assert one.hours == pytest.approx(hours)
        assert one.money == pytest.approx(math.fsum(money))
        assert one.undone == sum(not step.keeps for step in steps)


@in_one_go
def test_a_ladder_gains_what_it_says():
    """Each rung, done, leaves the build where the rung says; no act stands in it twice."""
    near, far = within_reach(BUILD)
    assert set(near) | set(far) == {case.id for case in BUILD.duty_cases if case.counted}
    assert "full" in far
    rungs = ladder(BUILD)
    assert rungs
    assert len({(rung.act.code, rung.act.given) for rung in rungs}) == len(rungs)
    for count in (1, 2):
        build = climbed(BUILD, rungs[:count])
        days = [hand.weather for hand in in_hand([Asked(build, case) for case in near])]
        assert min(days) == pytest.approx(rungs[count - 1].stands, abs=1e-6)
    assert all(rung.gain > 0 for rung in rungs)
    cool = on(BUILD, (("brief", "climate", "ambient"), "40 °F", "temperature"))
    assert ladder(cool) == () or ladder(cool)[-1].stands >= 0 or len(ladder(cool)) == 6


def test_an_option_becomes_a_package_and_is_undone(found):
    option = next(one.option for one in found.judged if one.option.sort == "new")
    made, meant = doing(FEW, offer("take_option", option=option.key)), package_of(FEW, option)
    assert len(made.packages) == len(FEW.packages) + 1
    assert (made.package.core, made.package.fans, made.package.shroud) == (meant.core, meant.fans, meant.shroud)
    alone = in_hand([Asked(made, "idle")])[0].weather
    there = in_hand([Asked(with_option(FEW, option), "idle")])[0].weather
    assert alone == pytest.approx(there, rel=1e-6)


def test_the_command_says_what_the_window_says(tmp_path, capsys):
    path = tmp_path / "few.keelroom"
    from keelroom.document.file import save

    small = on(FEW, (("choosing", "budget"), "200", "money"), (("choosing", "width"), "16 in", "length"))
    save(small, path)
    assert cli.main(["options", str(path), "--json"]) == 0
    told = json.loads(capsys.readouterr().out)
    assert told["inside"] + 0 < told["options"]
    assert {row["key"] for row in told["rows"]} >= set(told["front"])
    assert all(row["money"] <= 200 for row in told["rows"] if row["sort"] == "new")
    assert cli.main(["options", str(path), "--why", "31 × 19, 4 row, aluminium; twin 15"]) == 0
    assert "31 in wide, 16 in kept to; costs 1190, 200 kept to" in capsys.readouterr().out
    assert cli.main(["options", str(path), "--why", "a V12"]) == 2
    assert "No option has “a V12” in its name" in capsys.readouterr().err


def test_own_parts_are_among_them():
    """A fan of one's own is tried on every core it fits, a core of one's own with every fan."""
    fan = fan_assemblies()[0].fan.model_copy(update={"name": "From the shed", "cost": quantity("25", "money")})
    core = cores()[0].model_copy(update={"name": "Off the old truck"})
    own = FEW.model_copy(update={"own_fans": (fan,), "own_cores": (core,)})
    more = options_of(own)
    fans = [one for one in more if one.fans is not None and one.fans.name == fan.name]
    assert len({one.core.name for one in fans}) > 20
    assert {one.made_shroud for one in fans} == {False, True}
    assert sum(one.core.name == core.name for one in more) > 5
    at = next(one for one in fans if one.core.name == cores()[5].name)
    assert package_of(own, at).fans[0].cost.si == 25


def test_a_closer_look_is_the_options_own_assessment(found):
    """As the option made a package is assessed; a fan dead is one unplugged, the one that is missed most."""
    option = next(one.option for one in found.judged if one.option.fans and one.option.fans.count == 2)
    look = closer(FEW, option)
    made = doing(FEW, offer("take_option", option=option.key))
    whole, now = assess(made), assess(FEW)
    for here, there in zip(look.whole.cases, whole.cases, strict=True):
        assert here.figures.temperature == pytest.approx(there.figures.temperature, abs=1e-3)
    hands = []
    for fan in ("fan1", "fan2"):
        out = on(made, (("packages", made.active, "fans", fan, "runs"), False))
        hands.append([hand.weather for hand in in_hand([Asked(out, case) for case in found.cases])])
    assert look.dead == pytest.approx(min(hands, key=min), abs=1e-3)
    lines = list(closer_lines(look, now, "us"))
    assert any("With one of its fans dead" in line for line in lines)
    assert any("of the alternator" in line for line in lines)
    kept = closer(FEW, options_of(FEW)[0])
    assert next(iter(closer_lines(kept, now, "us"))) == "Every duty case as now"


def test_an_engines_fan_has_no_motor_to_clear():
    """Its blades are bolted to the pump's nose: nothing of the fan is in the pump's way."""
    with_engine_fan = FEW.model_copy(update={"active": FEW.of_kind("as_found").id})
    assert with_engine_fan.package.fans[0].motor == "engine"
    gaps = assess(with_engine_fan).fit.gaps
    assert gaps
    assert not any("motor" in gap.part.name for gap in gaps)


@pytest.mark.parametrize(
    ("vehicle", "engine"),
    [
        ("Muscle-era coupé", "Small-block V8 350 in³, mild cam"),
        ("Full-size saloon, 1970s", "Big-block V8 454 in³"),
    ],
)
def test_an_ordinary_v8_comes_out_as_the_trade_has_it(vehicle, engine):
    """Common practice, no source: a face of at least the displacement's square inches, 2 000 to 3 500 CFM behind it; a
    used pair of factory fans in its shroud holds a hotter day than most new slim ones that cost as much."""
    build = first_build(Answers(vehicle, engine, core="Crossflow 24 × 17, 2 row, aluminium", fans=""), "us")
    every = options_of(build)
    crossflow = [n for n, one in enumerate(every) if "Crossflow" in one.core.name and one.core.rows.si == 2]
    build = build.model_copy(
        update={"duty_cases": tuple(one for one in build.duty_cases if one.id in ("idle", "grade"))}
    )
    found = searched(build, Bounds(), places=crossflow)
    inches3 = build.brief.engine.displacement.si / INCH**3
    best = found.front[0].option
    wide, high = size_of(best.core)
    flow = best.fans.count * best.fans.fan.free_air_flow.si / CFM
    assert wide * high / INCH**2 >= inches3
    assert 2000 <= flow <= 3500
    days = {(one.option.core.name, one.option.words): one for one in found.judged if one.worst}
    won = lost = 0
    for pair in (one for one in days.values() if "Twin 14 in stock-type" in one.option.words):
        for slim in (one for one in days.values() if "slim" in one.option.words):
            if slim.option.core is pair.option.core and slim.priced.money >= pair.priced.money - 1:
                won, lost = won + (pair.worst.day > slim.worst.day), lost + (pair.worst.day <= slim.worst.day)
    assert won > 4 * lost
    assert won


def test_odd_builds_are_answered_in_words(tmp_path, capsys):
    """Nothing entered yet: what is first needed. No case counts, no fan at all, no aim: an answer, no figure without
    sense."""
    path = tmp_path / "new.keelroom"
    assert cli.main(["new", str(path)]) == 0
    assert cli.main(["options", str(path)]) == 2
    assert "First needed: " in capsys.readouterr().err
    uncounted = tuple(case.model_copy(update={"counted": False}) for case in FEW.duty_cases)
    idle = searched(FEW.model_copy(update={"duty_cases": uncounted}), Bounds(), places=range(30))
    assert idle.cases == idle.judged == idle.front == ()
    bare = on(FEW, (("packages", FEW.active, "fans"), ()))
    hands = chosen(searched(bare, Bounds(), places=range(12)), bare)
    now = hands.rows[hands.now]
    assert day_words(now.worst, "us") == "under −108 °F"
    assert "inf" not in " ".join(plain_words(hands, bare, "$"))
    assert len(searched(FEW, Bounds(), (), places=range(30)).front) == 1


def test_mended_only_is_an_option_wherever_something_was_found():
    """A blocked core and late timing found: the car mended is among the options before anybody plans it, hotter days
    than as found, no money for parts; nothing new is planned with the dirt in it. Taken, the act's own package."""
    found = FEW.model_copy(update={"active": FEW.of_kind("as_found").id})
    assert not any(one.sort == "as_mended" for one in options_of(found))
    ill = doing(found, offer("enter_cause", cause="blocked", size="half of the face"))
    ill = doing(ill, offer("enter_cause", cause="timing", size="very late or lean"))
    options = options_of(ill)
    places = [n for n, one in enumerate(options) if one.sort != "new"]
    told = {one.option.sort: one for one in searched(ill, Bounds(), places=places).judged}
    assert told["as_mended"].worst.day > told["now"].worst.day + 1
    assert told["as_mended"].priced.money == 0
    clean = searched(found, Bounds(), places=[0]).judged[0]
    assert told["as_mended"].worst.day == pytest.approx(clean.worst.day, abs=1e-6)
    new = next(one for one in options if one.sort == "new")
    assert package_of(ill, new).coolers == found.package.coolers != ill.package.coolers
    mended = doing(ill, offer("take_option", option=next(one.key for one in options if one.sort == "as_mended")))
    assert mended.package.kind == "as_mended"
    assert mended.package.coolers == found.package.coolers
    assert not any(one.key == "mended" for one in options_of(mended))
