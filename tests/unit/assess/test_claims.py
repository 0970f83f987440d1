"""Claims of the trade answered in figures, against whole assessments of both ways."""

import re

import pytest

from keelroom.assess.assess import assess
from keelroom.assess.questions.compare import candidates
from keelroom.assess.questions.cutting import cut_plan
from keelroom.assess.questions.places import find_places
from keelroom.catalogue.load import cores
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.moves import Move
from keelroom.document.schema.package import Cut
from tests.changes import on
from tests.conftest import DEMO
from tests.told import why_of

BUILD = load(DEMO)
LIGHT = (("duty_cases", "grade", "towed_mass"), "1900 lb", "mass")
RECORE = on(BUILD, (("active",), "p2"))
GLYCOL = ("packages", "p1", "coolant", "glycol_share")


def grade(build):
    return next(c.figures for c in assess(build).cases if c.case_id == "grade")


def test_waterless_runs_hotter_by_what_it_says():
    """Practitioners believe it runs cooler (common practice, no source); the mix of half water is solved beside it."""
    waterless = on(BUILD, LIGHT, (GLYCOL, "100 %", "share"))
    said = next(f for f in assess(waterless).findings if f.code == "waterless")
    hotter = int(re.search(r"engine runs (\d+) °F", why_of(said))[1])
    assert hotter == pytest.approx(1.8 * (grade(waterless).mean - grade(on(BUILD, LIGHT)).mean), abs=1)
    less = int(re.search(r"it takes (\d+)% less", why_of(said))[1]) / 100
    assert less == pytest.approx(
        1 - grade(waterless).rejection_at_limit / grade(on(BUILD, LIGHT)).rejection_at_limit, abs=0.006
    )
    assert hotter > 5


def test_a_copper_recore_is_not_a_third_better():
    """Sold as 30-35 % more (common practice); same size in aluminium with 14 fins per inch of 8 mm solved beside it."""
    where = ("packages", "p1", "core")
    copper = on(
        BUILD,
        LIGHT,
        ((*where, "material"), "copper_brass"),
        ((*where, "fin_density"), "16 fins/in", "fin density"),
        ((*where, "fin_height"), "6.5 mm", "length"),
    )
    usual = on(
        BUILD, LIGHT, ((*where, "fin_density"), "14 fins/in", "fin density"), ((*where, "fin_height"), "8 mm", "length")
    )
    said = next(f for f in assess(copper).findings if f.code == "copper_claim")
    assert said.value == pytest.approx(
        grade(copper).rejection_at_limit / grade(usual).rejection_at_limit - 1, abs=0.005
    )
    assert said.value < 0.2


def test_a_core_with_a_case_that_never_settles_lacks_weather_and_is_told_apart_by_it():
    found = candidates(BUILD, cores()[:6])
    lacking = [one.margin for one in found if one.margin < 0]
    assert len(lacking) == len(set(lacking)) > 1
    by_size = sorted(found, key=lambda one: one.rejection)
    assert by_size[0].margin < by_size[-1].margin


def test_the_uncut_rival_takes_fans_its_face_has_room_for_and_says_whether_it_fits():
    narrow = on(
        BUILD, (("survey", "opening", "width"), "20 in", "length"), (("survey", "opening", "height"), "13 in", "length")
    )
    plan = cut_plan(narrow)
    assert plan.uncut is not None
    wide = int(re.search(r"(\d+)", plan.uncut_core)[1])
    assert wide <= 20
    assert re.search(r"\d+ W$", plan.uncut_core), "two 12s do not go onto it: other fans are named"
    assert plan.uncut.refused.startswith("It does not fit as the bay is"), "the horn stands where it would"


def test_the_place_as_it_stands_is_offered_where_it_clears():
    clear = on(BUILD, (("survey", "obstacles"), ()))
    if assess(clear).fit.tightest.margin < 0:
        clear = on(clear, *(((("packages", "p1", "place", "z")), text, "length") for text in ("-1 in",)))
    found = find_places(clear).found
    margins = [place.margin for place in found]
    stays = next((place for place in found if place.words.endswith("where it stands")), None)
    if assess(clear).fit.tightest.margin >= 0:
        assert stays is not None
        better = [
            place
            for place in found
            if (place.removals, place.work, place.swaps) == (stays.removals, stays.work, stays.swaps)
            and place.margin < stays.margin - 1e-4
        ]
        assert all(found.index(stays) < found.index(one) for one in better)
    assert margins


def test_hours_of_moved_parts_brackets_and_cuts_reach_the_total():
    """What a move, a cut and a cover add, by hand: PERT's mean of the table's minutes, one move in ten twice, one cover
    in five; the front comes off for the cut and goes back on."""
    where = ("packages", "p1")
    horn = next(item for item in BUILD.survey.obstacles if item.id == "horn")
    cut = Cut(id="c", edge="left", amount=quantity("1/2 in", "length"))
    moved = on(BUILD, ((*where, "moves"), (*BUILD.package.moves, Move(id="horn"))))
    was = assess(BUILD).totals.hours
    share = (60 + 4 * 100 + 190) / 6 / 100 * 1.1
    assert assess(moved).totals.hours - was == pytest.approx(share * horn.work.si)
    opened = on(BUILD, ((*where, "cuts"), (cut,)))
    half_metres = BUILD.survey.opening.height.si / 0.5
    by_hand = (5 + 40 + 20) / 6 + half_metres * ((12 + 88 + 50) / 6 + (8 + 60 + 30) / 6)
    front = (15 + 120 + 70) / 6 + (18 + 128 + 70) / 6
    assert assess(opened).totals.hours - was == pytest.approx(60 * (by_hand + front), rel=1e-6)
    found = BUILD.of_kind("as_found")
    assert assess(BUILD, found.id).totals.hours is None


def test_a_core_that_no_air_reaches_makes_no_claim():
    """A copper/brass core wholly behind the panel: an aluminium one would reject nothing either, and nothing is
    divided by it."""
    hidden = on(RECORE, (("packages", "p2", "place", "x"), "60 in", "length"))
    assert "copper_claim" not in {finding.code for finding in assess(hidden).findings}
