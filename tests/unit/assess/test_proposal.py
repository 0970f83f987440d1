"""The proposal a first build ends in: the smallest of the catalogue that holds, against every smaller one tried by
hand."""

import pytest

from keelroom.assess.assess import first_wave
from keelroom.assess.first_build import Answers, first_build, fitting
from keelroom.assess.questions.proposal import proposal
from keelroom.catalogue.load import cores, engines, vehicles
from keelroom.document.quantity import quantity

COUPE, SIX = vehicles()[1].name, "Straight six 4.0, naturally aspirated"
GIVEN = Answers(COUPE, SIX)


def verdicts(judged):
    return {case.figures.verdict for case in judged.cases}


def face(judged):
    core = judged.package.core
    return core.face_width.si * core.face_height.si, core.depth.si


def holds(core, fans, given=GIVEN):
    return verdicts(first_wave(first_build(given._replace(core=core, fans=fans), "us"))) == {"holds"}


def test_what_is_proposed_holds_every_case_and_no_smaller_core_or_weaker_fans_do():
    found = proposal(GIVEN, "us")
    assert found.holds
    assert verdicts(found.one) == {"holds"}
    assert not [one.code for one in found.one.findings if one.level == "problem"]
    assert face(found.smaller) < face(found.one) < face(found.larger)
    assert verdicts(found.larger) == {"holds"}
    core, own = found.one.package.core, found.one.package.fans[0].name
    by_flow = sorted(fitting(core), key=lambda one: one.count * one.fan.free_air_flow.si)
    weaker = [one.name for one in by_flow]
    for fans in weaker[: weaker.index(own)]:
        assert not holds(core.name, fans), fans
    before = max(
        (one for one in cores() if (one.face_width.si * one.face_height.si, one.depth.si) < face(found.one)),
        key=lambda one: (one.face_width.si * one.face_height.si, one.depth.si),
    )
    assert found.smaller.package.core.name == before.name
    assert not any(holds(before.name, one.name) for one in fitting(before))


def test_what_was_chosen_stands_and_only_the_other_is_looked_for():
    core = "Crossflow 26 × 17, 2 row, aluminium"
    found = proposal(GIVEN._replace(core=core), "us")
    assert {one.package.core.name for one in (found.one, found.smaller, found.larger) if one} == {core}
    both = proposal(GIVEN._replace(core=core, fans=found.one.package.fans[0].name), "us")
    assert (both.one.build, both.smaller, both.larger) == (found.one.build, None, None)


def test_a_core_that_is_there_is_proposed_fans_alone():
    sizes = tuple(quantity(text, "length", "measured") for text in ("26 in", "17 in", "2 1/4 in"))
    found = proposal(GIVEN._replace(own_core=sizes), "us")
    assert found.one.package.core.face_width.origin == "measured"
    assert found.one.package.fans


def test_the_room_there_is_bounds_the_core_with_its_tanks():
    """A crossflow core of 24 in face has tanks of 2 1/4 in at each side: 28 1/2 in over all."""
    wide, high = quantity("28 in", "length"), quantity("18 in", "length")
    found = proposal(GIVEN._replace(room=(wide, high)), "us")
    core = found.one.package.core
    tanks = 2 * core.tank_size.si
    across = core.face_width.si + (tanks if core.flow == "crossflow" else 0.0)
    up = core.face_height.si + (tanks if core.flow == "downflow" else 0.0)
    assert across <= wide.si
    assert up <= high.si
    assert proposal(GIVEN._replace(room=(quantity("10 in", "length"), high)), "us") is None


@pytest.mark.parametrize("fans", [None, ""])
def test_where_nothing_holds_the_best_is_shown_and_not_called_holding(fans):
    given = GIVEN._replace(core=cores()[0].name, fans=fans, engine=engines()[2].name, flat_out=True)
    found = proposal(given, "us")
    assert not found.holds
    assert not verdicts(found.one) <= {"holds", "tight"}


def test_where_no_core_holds_flat_out_the_one_that_lacks_least_is_shown():
    """Full power for minutes on the hottest day that may be typed: the best is no small core, though none settles."""
    given = GIVEN._replace(engine="Big-block V8 454 in³", flat_out=True, hottest=quantity("55 °C", "temperature"))
    found = proposal(given, "us")
    assert not found.holds
    assert "does_not_settle" in verdicts(found.one)
    assert face(found.one)[0] > 0.25, "a face of 400 in² and more"
