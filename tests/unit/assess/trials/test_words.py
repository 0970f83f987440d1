"""What a trial says of itself, of what it lost, and of another beside it."""

import pytest
from pypdf import PdfReader

from keelroom.assess.questions.explain import explained
from keelroom.assess.questions.next_reading import next_readings
from keelroom.assess.trials.expected import Foretold, foretold
from keelroom.assess.trials.judged import compared, judged
from keelroom.assess.trials.seen_in import with_trials as seen_in
from keelroom.assess.trials.words import compared_words, fan_words, slope_words, trial_words
from keelroom.catalogue.protocols import protocol_of
from keelroom.document.quantity import quantity
from keelroom.document.schema.trials import Log
from keelroom.document.snapshot import kept, unpacked
from keelroom.export.trial_sheet import write_blank
from tests.drives import leg
from tests.trials import reading, trial, with_trials


def said(build, one):
    build = with_trials(build, one)
    return " ".join(words for _, words in trial_words(build, one, judged(build, one), "us"))


def test_a_slope_is_told_a_minute():
    """By hand: 0.01 K a second is 1.08 °F a minute."""
    assert slope_words(0.01, 0.002, "us") == "+1.08 ± 0.22 °F a minute"


def test_what_is_missing_of_a_trial_is_said(demo):
    assert "How warm was the day?" in said(demo, trial(day=""))
    assert "No reading yet" in said(demo, trial())
    lost = said(demo, trial(readings=(reading(temperature="190 °F"), reading("gone", "3 min", temperature="90 °C"))))
    assert "1 of its readings say no longer what they were read with" in lost
    assert "can no longer be read" in said(demo, trial(package="x", readings=(reading(temperature="190 °F"),)))
    early = trial(readings=(reading(at="12 min", temperature="187 °F"),))
    assert "it ran 12 min, 25 min are needed" in said(demo, early)


def test_a_package_is_kept_as_it_stood(demo):
    assert unpacked(kept(demo.package)) == demo.package
    assert unpacked("not what was kept") is None
    assert len(kept(demo.package)) < 20_000


def test_the_same_test_twice_shows_no_change(demo):
    """Nothing was changed and nothing is earned; on a hotter day at a light the day is told apart."""
    first = trial(readings=(reading(temperature="190 °F"),), ident="a")
    found = compared(with_trials(demo, first), first, first.model_copy(update={"id": "b"}))
    assert found.conditions == pytest.approx(0.0)
    assert found.earned == pytest.approx(0.0)
    assert found.unlike == ()
    words = compared_words(first, first, found, "us")
    assert "no change is shown" in words[-1][1]


def test_what_weather_makes_is_what_the_model_makes(demo):
    """A pull at a speed where the thermostat is wide open: five kelvin of weather are about five of coolant."""
    hill = leg("hold", "20 min", speed="45 mph", grade="6 %", towed="2500 lb", gear_step="1.4", id="hill")
    first = trial(
        hill, ident="a", day="28 °C", begins="settled", readings=(reading("upper", "19 min", temperature="108 °C"),)
    )
    second = trial(
        hill, ident="b", day="33 °C", begins="settled", readings=(reading("upper", "19 min", temperature="113 °C"),)
    )
    found = compared(with_trials(demo, first, second), first, second)
    assert found.unlike == ("day",)
    assert 3.0 < found.conditions < 8.0
    assert abs(found.earned) < 3.0


def test_a_trial_of_the_car_as_found_moves_the_odds(demo):
    """What would explain it takes in what trials read."""
    plain = demo.model_copy(update={"logbook": demo.logbook.model_copy(update={"trials": ()})})
    old = kept(demo.of_kind("as_found"))
    hot = trial(
        leg("idle", "20 min", id="l"), package=old, readings=(reading("gauge", "19 min", temperature="240 °F"),)
    )
    before, after = explained(plain), explained(with_trials(plain, hot))
    odds = {one.cause: one.odds for one in before.suspects} if before else {}
    moved = [abs(one.odds - odds.get(one.cause, 0.0)) for one in after.suspects]
    assert max(moved) > 0.02
    assert "trial-t1" in after.expected


def test_a_reading_never_widens(demo):
    found = next_readings(demo, "grade")
    assert found.case_id == "grade"
    assert all(0 <= one.then <= one.now + 1e-9 for one in found.readings)
    assert [one.then for one in found.readings] == sorted(one.then for one in found.readings)
    hill = next(one for one in found.readings if one.protocol == "hill" and one.sensor.id == "car")
    volts = next(one for one in found.readings if one.protocol == "volts" and one.sensor.id == "volts")
    assert hill.narrows > 4 * volts.narrows


def test_fans_are_foretold_where_they_are_set(demo):
    """A fan that starts at its set point starts with the gauge near it: within sensor's and needle's lags."""
    build = with_trials(demo, trial())
    found = foretold(build, build.logbook.trials[0])
    set_on, set_off = demo.package.control.fan_on.si, demo.package.control.fan_off.si
    assert 0 < found.fans.starts < found.fans.stops < 1500
    assert found.fans.gauge_on == pytest.approx(set_on, abs=4.0)
    assert found.fans.gauge_off == pytest.approx(set_off, abs=5.0)
    assert "first start after" in fan_words(found.fans, "us")


def test_a_blank_sheet_is_printed_for_the_car(demo, tmp_path):
    build = with_trials(demo, trial())
    target = tmp_path / "blank.pdf"
    write_blank(target, build, protocol_of("idle"), foretold(build, build.logbook.trials[0]), "us")
    text = " ".join(page.extract_text() for page in PdfReader(target).pages)
    for words in ("Idle soak", "never open a cap", "Stop at once", "Dash gauge should read", "The fans should first"):
        assert words in " ".join(text.split())


@pytest.mark.parametrize(
    "log",
    [
        Log(id="l", sensor="gauge", seconds=(4000.0, 4100.0), values=(90.0, 91.0)),  # after its end
        Log(id="l", sensor="gauge", seconds=(-300.0, -200.0), values=(90.0, 91.0)),  # a clock that is early
        Log(id="l", sensor="gauge", seconds=(300.0, 400.0), values=(-38.0, -38.0)),  # a sender that is off
        Log(id="l", sensor="gauge", seconds=(300.0,), values=(90.0,)),
        Log(id="l", sensor="volts", seconds=(300.0, 400.0), values=(12.0, 12.0)),
    ],
)
@pytest.mark.parametrize("stopped", [None, "2 min"])
def test_an_odd_log_is_told_of_and_breaks_nothing(demo, log, stopped):
    """What a fuzz of trials found: readings from after the end, from before the beginning, or stopped before any."""
    early = quantity(stopped, "minutes") if stopped else None
    one = trial(logs=(log,), stopped=early, package=kept(demo.of_kind("as_found")))
    build = with_trials(demo, one)
    assert isinstance(foretold(build, one), Foretold)
    assert trial_words(build, one, judged(build, one), "us")
    assert len(seen_in(build).duty_cases) >= len(build.duty_cases)
