"""The plan of the work against what is known outside: longest ways by networkx, three-figure estimates by their
published formulas, sums of doubtful hours by scipy, appointments by a second reader."""

import datetime
import itertools
import random
import re

import networkx
import numpy as np
import pytest
from icalendar import Calendar
from scipy import stats

from keelroom.assess.work.plan import planned
from keelroom.assess.work.steps import doubts_of, steps_of
from keelroom.core.plan.doubt import Doubtful, expected, pert_mean, pert_spread, simulated
from keelroom.core.plan.network import DAY, Hours, Task, ordered, scheduled, slacks
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.errors import ExportError, InputError
from keelroom.export.calendar import calendar_bytes
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
EIGHT = Hours(9 * 3600.0, 8 * 3600.0)


def any_tasks(seed, count=40):
    """Tasks that need some of those before them, in an order of their own."""
    dice = random.Random(seed)
    tasks = []
    for n in range(count):
        needs = tuple(f"t{k}" for k in range(n) if dice.random() < 2.5 / (n + 1))
        tasks.append(Task(f"t{n}", dice.uniform(60, 9000), dice.choice((1, 1, 2)), dice.choice((0, 0, 3600)), needs))
    dice.shuffle(tasks)
    return tasks


@pytest.mark.parametrize("seed", range(30))
def test_the_longest_way_is_networkxs(seed):
    tasks = any_tasks(seed)
    by_key = {task.key: task for task in tasks}
    graph = networkx.DiGraph()
    for task in tasks:
        graph.add_edge("begin", task.key, weight=0.0)
        graph.add_edge(task.key, "end", weight=task.works + task.waits)
        for need in task.needs:
            graph.add_edge(need, task.key, weight=by_key[need].works + by_key[need].waits)
    found = slacks(tasks)
    whole = networkx.dag_longest_path_length(graph)
    assert max(one.early + by_key[key].works + by_key[key].waits for key, one in found.items()) == pytest.approx(whole)
    way = networkx.dag_longest_path(graph)
    assert all(found[key].critical for key in way[1:-1])
    # Slack: moving a task later by less than it moves no end, by more it does.
    free = next((key for key, one in found.items() if one.late - one.early > 100), None)
    if free is not None:
        spare = found[free].late - found[free].early
        for more, moved in ((0.9 * spare, False), (1.1 * spare, True)):
            later = [t._replace(waits=t.waits + more) if t.key == free else t for t in tasks]
            ends = max(o.early + t.works + t.waits for t in later for o in (slacks(later)[t.key],))
            assert (ends > whole + 1e-6) == moved
    order = ordered(tasks)
    place = {key: n for n, key in enumerate(order)}
    assert all(place[need] < place[task.key] for task in tasks for need in task.needs)


@pytest.mark.parametrize("seed", range(12))
@pytest.mark.parametrize("people", [1, 2, 3])
def test_nobody_does_two_things_at_once_nor_by_night(seed, people):
    tasks = any_tasks(seed)
    hours = Hours(9 * 3600.0, 7 * 3600.0, frozenset((0, 1, 2, 3, 4)), seed % 7)
    spans = scheduled(tasks, people, hours)
    by_key = {span.key: span for span in spans}
    assert len(by_key) == len(tasks)
    busy = {person: sorted((s.begins, s.ends) for s in spans if person in s.who) for person in range(people)}
    for stretches in busy.values():
        assert all(before[1] <= after[0] + 1e-6 for before, after in itertools.pairwise(stretches))
    for task in tasks:
        span = by_key[task.key]
        assert all(by_key[need].ready <= span.begins + 1e-6 for need in task.needs)
        assert len(span.who) == min(task.hands, people)
        for moment in (span.begins, span.ends):
            day = int(moment // DAY)
            assert (hours.first + day) % 7 in hours.days
            assert hours.begins - 1e-6 <= moment - day * DAY <= hours.begins + hours.lasts + 1e-6


def test_more_people_end_no_later_on_a_chain_and_a_ring_is_named():
    chain = [Task(f"c{n}", 3600.0, needs=(f"c{n - 1}",) if n else ()) for n in range(10)]
    one, two = (max(s.ends for s in scheduled(chain, people, EIGHT)) for people in (1, 2))
    # Ten hours of eight a day, by hand: two left for the next morning.
    assert one == two == DAY + 11 * 3600
    ring = [Task("a", 60.0, needs=("c",)), Task("b", 60.0, needs=("a",)), Task("c", 60.0, needs=("b",))]
    with pytest.raises(InputError, match="wait for each other"):
        ordered(ring)


def test_paint_dries_while_the_harness_is_made():
    """By hand: paint 15 min and two hours to dry, harness an hour, then fitting: it waits an hour and no more."""
    tasks = [
        Task("paint", 900.0, waits=7200.0),
        Task("harness", 3600.0),
        Task("fit", 1800.0, needs=("paint", "harness")),
    ]
    spans = {span.key: span for span in scheduled(tasks, 1, EIGHT)}
    nine = 9 * 3600.0
    assert (spans["paint"].begins, spans["harness"].begins) == (nine, nine + 900)
    assert spans["fit"].begins == nine + 900 + 7200


def test_three_figures_by_their_published_formulas():
    """PERT, Operations Research 7 (1959): mean (a + 4 m + b) / 6, spread (b - a) / 6. Draws of the beta whose
    mean that is, against scipy.stats.beta."""
    low, likely, high = (np.array([value]) for value in (60.0, 90.0, 240.0))
    assert pert_mean(low, likely, high)[0] == pytest.approx((60 + 360 + 240) / 6)
    assert pert_spread(low, high)[0] == pytest.approx(30.0)
    alpha = 1 + 4 * 30 / 180
    published = stats.beta(alpha, 6 - alpha, loc=60, scale=180)
    drawn = simulated(Doubtful(low, likely, high, np.zeros(1)), pace=0.0)
    assert drawn.mean == pytest.approx(published.mean(), rel=0.01)
    assert drawn.draws.std() == pytest.approx(published.std(), rel=0.03)
    assert (drawn.low, drawn.high) == pytest.approx(published.ppf([0.1, 0.9]), rel=0.02)


def test_a_chain_of_steps_goes_to_the_normal():
    """Sixty steps one after another: mean and 80 of 100 by the central limit (scipy.stats.norm); with one in three made
    twice by the mean and variance of a product."""
    count, share = 60, 1 / 3
    low, likely, high = (np.full(count, value) for value in (600.0, 1200.0, 3600.0))
    alpha = 1 + 4 * 600 / 3000
    one = stats.beta(alpha, 6 - alpha, loc=600, scale=3000)
    for again in (0.0, share):
        drawn = simulated(Doubtful(low, likely, high, np.full(count, again)), pace=0.0)
        mean = one.mean() * (1 + again)
        second = (one.var() + one.mean() ** 2) * (1 + 3 * again)
        normal = stats.norm(count * mean, np.sqrt(count * (second - mean**2)))
        assert drawn.mean == pytest.approx(normal.mean(), rel=0.005)
        assert (drawn.low, drawn.high) == pytest.approx(normal.ppf([0.1, 0.9]), rel=0.01)
        assert expected(Doubtful(low, likely, high, np.full(count, again))).sum() == pytest.approx(count * mean)
    assert simulated(Doubtful(low, likely, high, np.zeros(count))).low == pytest.approx(
        simulated(Doubtful(low, likely, high, np.zeros(count))).low, abs=0.0
    )


def test_appointments_are_read_back_by_a_second_reader():
    """What is written, read by a few lines that know RFC 5545's folding and escapes and nothing else, and by
    icalendar's reader: every step once, within its day."""
    build = on(BUILD, (("work", "start"), "2026-11-30"), (("work", "ticks"), ()), (("active",), "p3"))
    plan = planned(build, build.package)
    text = calendar_bytes(plan, "Van", datetime.datetime(2026, 11, 29, 12, 0, tzinfo=datetime.UTC))
    events = [part for part in Calendar.from_ical(text).walk() if part.name == "VEVENT"]
    said = "\n".join(str(event["description"]) for event in events)
    assert all(said.count(step.words) == sum(one.words == step.words for one in plan.steps) for step in plan.steps)
    starts = [event["dtstart"].dt for event in events]
    assert starts == sorted(starts)
    assert starts[0] == datetime.datetime(2026, 11, 30, 9, 0)
    assert all(event["dtend"].dt > event["dtstart"].dt for event in events)
    assert all(9 <= start.hour < 17 for start in starts)
    assert len({str(event["uid"]) for event in events}) == len(events)
    unfolded = re.sub(r"\r\n[ \t]", "", text.decode())
    lines = unfolded.split("\r\n")
    assert [line[8:] for line in lines if line.startswith("DTSTART:")] == [f"{one:%Y%m%dT%H%M%S}" for one in starts]
    told = " ".join(line[12:] for line in lines if line.startswith("DESCRIPTION:"))
    plain = re.sub(r"\\([,;\\])", r"\1", told.replace("\\n", " "))
    assert all(step.words in plain for step in plan.steps)
    with pytest.raises(ExportError, match="the day the work begins"):
        calendar_bytes(
            planned(on(build, (("work", "start"), "")), build.package), "Van", datetime.datetime.now(datetime.UTC)
        )


def only(*changes):
    """The demo's car as found with these changes alone; its hours of work by all hands, likely and 80 of 100."""
    found = BUILD.of_kind("as_found")
    package = found.model_copy(update={"id": "new", "kind": "planned", "name": "New"})
    build = BUILD.model_copy(update={"packages": (package, found), "active": "new"})
    build = on(build, (("work", "ticks"), ()), *(((("packages", "new", *path)), *rest) for path, *rest in changes))
    steps = steps_of(build, build.package)
    total = simulated(doubts_of(steps))
    return build, steps, total


def of(steps, *idents):
    """Hours of some jobs alone."""
    own = [step for step in steps if step.job.ident.partition(":")[0] in idents]
    return sum((step.low + 4 * step.likely + step.high) / 6 * (1 + step.again) * step.hands for step in own) / 3600


def test_hours_are_those_the_trade_tells():
    """Common practice, no source: a bolt-in panel under an hour; a bolt-in fan assembly one to two; a condenser's frame
    two hours of making; a salvaged core with two ports closed a couple of hours; a bought bracket kit the better part
    of a day."""
    from keelroom.document.schema.mounts import Bracket, Frame
    from keelroom.document.schema.package import CorePort
    from keelroom.document.schema.panels import Panel

    panel = Panel(id="x", cost=quantity("40", "money"), length=quantity("26 in", "length"))
    _, steps, _ = only((("panels",), (*BUILD.of_kind("as_found").panels, panel)))
    assert of(steps, "panel") < 1.0
    fan = BUILD.package.fans[0].model_copy(update={"id": "bolted", "motor": "brushed"})
    _, steps, _ = only((("fans",), (fan,)))
    assert 1.0 < of(steps, "begin", "battery", "take_engine_fan", "take_fan", "fan", "fan_bare") < 2.0
    frame = Frame(id="f9")
    _, steps, _ = only((("mounting", "frames"), (*BUILD.of_kind("as_found").mounting.frames, frame)))
    make = next(step for step in steps if step.key == "frame:f9/make")
    assert make.likely == pytest.approx(2 * 3600)
    ports = tuple(CorePort(id=f"c{k}", state="to_close") for k in range(2))
    _, steps, _ = only((("core", "ports"), ports), (("core", "condition"), "some_scale"))
    assert 0.6 < of(steps, "port", "core") < 3.0
    brackets = tuple(Bracket(id=f"k{k}", start="core:upper_left", end="new") for k in range(6))
    _, steps, _ = only((("brackets",), brackets))
    assert 4.0 < of(steps, "bracket") < 8.0


def test_a_rear_core_is_more_than_one_long_day_for_two():
    """Common practice, no source: about ten shop hours, two people, one long day and not finished."""
    rear = load(DEMO.parent / "samples" / "rear.keelroom")
    build = on(rear, (("work", "people"), "2", "count"), (("work", "start"), "2026-11-30"))
    plan = planned(build, build.package)
    worked = sum(
        min(span.ends, DAY) - max(span.begins, 0.0) if span.begins < DAY else 0.0
        for span in plan.spans
        if 0 in span.who
    )
    assert plan.ends > DAY, "not finished on the first day"
    assert 6.0 < worked / 3600 <= 8.0
    last = max(span.ends for span in plan.spans)
    assert 8.0 < 8.0 + (last - DAY - 9 * 3600) / 3600 < 12.0
