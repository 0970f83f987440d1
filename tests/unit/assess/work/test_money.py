"""Hours and money in doubt, things to be bought, price lists, the shop's own times, the record."""

import pytest

from keelroom.assess.assess import assess
from keelroom.assess.questions.record import cautions_of, owners_page, record, why_hours
from keelroom.assess.work.money import estimated, own_times, read_times
from keelroom.assess.work.plan import before_needed, evenings, hours_in_doubt, planned, states_of
from keelroom.assess.work.shopping import amount_words, matched, read_prices, shopping
from keelroom.core.plan.network import DAY
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.snapshot import kept
from keelroom.errors import InputError
from tests.acts import done
from tests.changes import on
from tests.conftest import DEMO

BUILD = load(DEMO)
FRESH = on(BUILD, (("work", "ticks"), ()), (("work", "items"), ()), (("active",), "p3"))


def estimate(build):
    return estimated(build, build.package, planned(build, build.package))


def test_money_is_hours_times_rate_and_parts_by_hand():
    """At 60 an hour the labour is a dollar a minute of the middle; parts are what is typed; a tenth more on both."""
    build = on(FRESH, (("work", "rate"), "60", "money"), (("work", "contingency"), "10 %", "share"))
    found = estimate(build)
    assert found.labour.middle == pytest.approx(found.hours.middle / 60)
    parts = sum(one.price for one in shopping(build, build.package) if one.price is not None)
    assert found.parts == parts > 0
    assert found.whole.middle == pytest.approx(1.1 * (found.labour.middle + parts))
    assert found.contingency == pytest.approx(0.1 * (found.labour.middle + parts))
    assert found.whole.low < found.whole.middle < found.whole.high
    assert assess(build).totals.cost == pytest.approx(parts)
    assert sum(share for _, share in found.moves) == pytest.approx(1.0)
    without = on(build, (("work", "rate"), None))
    assert estimate(without).whole is None
    assert hours_in_doubt(planned(build, build.package).steps).draws.shape == (10_000,)


def test_in_hand_costs_nothing_more():
    build = done(FRESH, "in_hand", item="p3/core")
    assert estimate(FRESH).parts - estimate(build).parts == pytest.approx(FRESH.package.core.cost.si)
    again = done(build, "in_hand", item="p3/core")
    assert estimate(again).parts == estimate(FRESH).parts


def test_two_lists_sure_and_after_a_measurement():
    wanted = {one.key: one for one in shopping(FRESH, FRESH.package)}
    assert wanted["p3/fan:fan1/plug"].group == "forgotten"
    assert wanted["p3/core"].sure
    loose = on(FRESH, (("packages", "p3", "loop", "hoses", "upper", "length"), None))
    assert shopping(loose, loose.package)
    hose = next(one for one in shopping(loose, loose.package) if one.key == "p3/hose:upper")
    assert hose.after == "the run of upper hose"
    unmeasured = on(FRESH, (("survey", "opening", "width"), None))
    core = next(one for one in shopping(unmeasured, unmeasured.package) if one.key == "p3/core")
    assert core.after == "the panel’s opening"


def test_materials_add_up_over_the_steps():
    """Rubber pads four, as the core's step has them; two of the six heat shrinks of a harness of three wires."""
    wanted = {one.name: one.amount for one in shopping(FRESH, FRESH.package) if one.group == "material"}
    assert wanted["Rubber pads"] == "4 pc"
    assert amount_words("3.0 m", "us") == "9.8 ft"
    assert amount_words("3.0 m", "si") == "3.0 m"
    assert amount_words("4 pc", "us") == "4 pc"


LIST = """Part;Price;Lead time;From
Rubber pads;4,50;2;yard
wire;12;soon;
Glass;9;1;
;5;;
Foil;free;;
Rubber pads;9;;
"""


def test_a_price_list_with_faults_is_taken_for_what_it_says():
    found = read_prices(LIST, "yard.csv")
    assert {one.part: (one.price, one.lead) for one in found.prices} == {
        "Rubber pads": (4.5, 2.0),
        "wire": (12.0, None),
        "Glass": (9.0, 1.0),
    }
    assert found.prices[0].source == "yard"
    said = "\n".join(found.faults)
    for words in (
        "Line 3: “soon” is no number of days",
        "Line 5:",
        "Line 6: “free” is no price",
        "Line 7: Rubber pads stands twice",
    ):
        assert words in said
    by_key, unused = matched(shopping(FRESH, FRESH.package), found)
    assert by_key["use:rubber pads:pc"].price == 4.5
    assert unused == ("Glass",)
    with pytest.raises(InputError, match="part, price and lead time were expected"):
        read_prices("colour,weight\nred,2\n", "odd.csv")


def test_before_the_car_is_needed_nothing_that_opens_it_is_begun():
    build = on(FRESH, (("work", "start"), "2026-11-30"), (("work", "needed"), "2026-12-01"))
    stop = before_needed(build, planned(build, build.package))
    assert stop.not_begun
    assert all(step.state == "drivable" or step.job.acts[0] == "circuit" for step in stop.ends_by)
    later = on(build, (("work", "needed"), "2026-12-20"))
    plan = planned(later, later.package)
    stop = before_needed(later, plan)
    assert stop.drivable
    assert not stop.not_begun
    assert len(stop.ends_by) == len(plan.steps)
    never = on(FRESH, (("work", "needed"), ""))
    assert before_needed(never, planned(never, never.package)) is None


def test_states_come_in_their_order_and_the_car_is_off_the_road_between():
    plan = planned(FRESH, FRESH.package)
    states = states_of(plan)
    assert next(state for state, _, _ in states) == "drivable"
    assert [state for state, _, _ in states][-1] == "proven"
    off = plan.off_road
    assert off[0] > plan.spans[0].begins
    assert off[1] <= plan.ends
    assert plan.stands == "drivable"
    opened = done(FRESH, "tick", step="front/off", went="done")
    assert planned(opened, opened.package).stands != "drivable"


def test_what_was_done_moves_the_rest_behind_it():
    build = on(FRESH, (("work", "start"), "2026-11-30"))
    first = planned(build, build.package)
    after = done(build, "tick", step=first.spans[0].key, went="done", day="2026-12-02", took="30 min")
    plan = planned(after, after.package)
    # Half an hour of two people: a quarter past nine of the third day.
    assert plan.spans[0].begins == pytest.approx(2 * DAY + 9.25 * 3600)
    assert {span.key for span in plan.spans} == {span.key for span in first.spans[1:]}


def test_own_times_go_over_to_the_next_build():
    """Six steps that took twice as long as planned: (2 ** (6 / (6 + 4))) = 1.516 times, four of the table's own weighed
    in."""
    rows = "act,step,planned minutes,took minutes,day,build\n" + "fan,mount,15,30,,x\n" * 6
    found = read_times(rows, "ours.csv")
    assert found["fan"] == (pytest.approx(2 ** (6 / 10)), 6)
    plan = planned(BUILD, BUILD.package)
    told = own_times(BUILD.work, plan, "Van")
    assert len(told) == len([tick for tick in BUILD.work.ticks if tick.took])
    for text, said in (
        ("a,b\n1,2\n", "were expected"),
        (rows + "fan,x,none,3,,\n", "line 8"),
        (rows + "fan,x,0,3,,\n", "over 0"),
    ):
        with pytest.raises(InputError, match=said):
            read_times(text, "ours.csv")


def test_the_record_says_what_was_done_and_otherwise():
    whole = assess(BUILD)
    plan = planned(BUILD, BUILD.package)
    parts = {section.title: section.lines for section in record(whole, plan, "us", "$")}
    assert any("made twice" in line and "a hand short" in line for line in parts["What was done"])
    assert any(line.startswith("Made twice") for line in parts["Otherwise than planned"])
    assert any("A fuse" in line for line in parts["Wired"])
    assert len([title for title in parts if title.startswith("Tested: ")]) == len(BUILD.logbook.trials)
    assert any("To do" in line for line in parts["Open"])
    assert "Changed since the last record" not in parts
    assert len(parts["What was done"]) == 9
    written = on(BUILD, (("work", "recorded"), kept(BUILD.package)))
    changed = on(written, (("packages", "p1", "core", "depth"), "3 in", "length"))
    again = {s.title: s.lines for s in record(assess(changed), planned(changed, changed.package), "us")}
    assert any("depth" in line.lower() for line in again["Changed since the last record"])
    plain = " ".join(line for section in owners_page(whole, plan, "us") for line in section.lines)
    assert "Never open a cap" in plain
    assert "The fans start at 196 °F" in plain or "fans start at" in plain
    said = why_hours(BUILD, BUILD.package, plan, estimate(BUILD))
    assert "hours are likely" in said[0]
    assert any("never open a cap" in text for text in cautions_of(planned(FRESH, FRESH.package)))


def test_a_gone_or_odd_day_is_refused_where_it_is_typed():
    with pytest.raises(InputError):
        on(BUILD, (("work", "start"), "next week"))
    assert planned(on(BUILD, (("work", "start"), "2026-02-31")), BUILD.package).first is None
    assert quantity("85", "money").si == 85


def test_a_part_that_is_to_come_is_waited_for_before_the_car_is_opened():
    """Six days for the core: the front stays on for six; the harness is made meanwhile."""
    build = done(FRESH, "describe_item", item="p3/core")
    build = on(build, (("work", "items", "p3/core", "lead"), "6", "number"), (("work", "people"), "1", "count"))
    plan = planned(build, build.package)
    spans = {span.key: span for span in plan.spans}
    assert spans["core/fit"].begins >= 6 * DAY
    assert spans["front/off"].begins >= 6 * DAY
    assert spans["begin/marks"].begins < DAY
    assert plan.off_road[0] >= 6 * DAY
    here = done(build, "in_hand", item="p3/core")
    assert planned(here, here.package).off_road[0] < DAY


def test_clamps_are_told_by_their_size():
    """Two at every hose's ends, by the size of its bore, as the hardware list has them; once, not by the steps too."""
    wanted = shopping(FRESH, FRESH.package)
    clamps = [one for one in wanted if "clamp size" in one.name]
    assert len({one.name for one in clamps}) >= 2
    assert sum(int(one.amount.split()[0]) for one in clamps) >= 2 * 4
    assert not any(one.name.startswith("Clamps") for one in wanted)
    assert [one.name for one in wanted if one.name == "Upper hose"] == ["Upper hose"]


def test_a_thing_in_hand_is_of_its_package():
    """The fan of one package in hand says nothing of another's, whatever it is called there."""
    build = done(FRESH, "in_hand", item="p3/fan:fan1")
    other = on(build, (("active",), "p1"))
    assert not any(one.in_hand for one in shopping(other, other.package))


def test_each_day_ends_on_something_that_was_checked():
    """The evening's step is the last with a check that ends that day; all after it end that day too, unchecked."""
    plan = planned(FRESH, FRESH.package)
    ends = {span.key: span.ends for span in plan.spans}
    found = evenings(plan)
    assert [one.day for one in found] == sorted({int(end // DAY) for end in ends.values()})[:-1]
    for one in found:
        assert one.on.check
        assert int(ends[one.on.key] // DAY) == one.day
        assert all(ends[step.key] >= ends[one.on.key] and not step.check for step in one.after)
        later = [s for s in plan.steps if s.check and ends[one.on.key] < ends[s.key] < (one.day + 1) * DAY]
        assert later == []
