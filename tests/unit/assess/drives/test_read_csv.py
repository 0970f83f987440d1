"""Recorded drives out of CSV files: what is guessed, what is left out and told, what is refused."""

import pytest

from keelroom.assess.drives.read_csv import Column, guess, read
from keelroom.errors import InputError


def brought(text):
    how = guess(text)
    return read(text, how, "Log", "log")


@pytest.mark.parametrize(
    ("text", "speeds"),
    [
        ("time,speed\n0,0\n1,2\n2,4\n", (0.0, 2.0, 4.0)),
        ("0,0\n1,2.5\n2,5\n", (0.0, 2.5, 5.0)),
        ("Zeit;Geschwindigkeit km/h\n0,0;0,0\n1,0;3,6\n2,0;7,2\n", (0.0, 1.0, 2.0)),
        ("t\tspeed mph\n0\t0\n1\t10\n2\t20\n", (0.0, 4.4704, 8.9408)),
        ("speed_kmh,time_s\n0,0\n36,1\n72,2\n", (0.0, 10.0, 20.0)),
    ],
    ids=["plain", "no header", "comma as decimal sign", "tabs and mph", "columns the other way"],
)
def test_columns_units_and_signs_are_guessed(text, speeds):
    found = brought(text)
    assert found.trace.speeds == pytest.approx(speeds)
    assert found.trace.seconds == (0.0, 1.0, 2.0)
    assert found.faults == ()


def test_a_guess_can_be_changed():
    text = "a,b,c\n0,1,36\n60,2,72\n"
    how = guess(text)
    how = how._replace(columns={"time": Column(0, "s"), "speed": Column(2, "km/h"), "grade": Column(1, "%")})
    found = read(text, how, "Log", "log")
    assert found.trace.speeds == pytest.approx((10.0, 20.0))
    assert found.trace.grades == pytest.approx((0.01, 0.02))


@pytest.mark.parametrize(
    ("text", "line", "words"),
    [
        ("time,speed\n0,0\n1,abc\n3,4\n", 3, "“abc” is no number for the speed"),
        ("time,speed\n0,0\n1\n3,4\n", 3, "no speed"),
        ("time,speed\n0,0\n1,-2\n3,4\n", 3, "less than nothing"),
        ("time,speed\n0,0\n1,900\n3,4\n", 3, "is its unit right"),
        ("time,speed,grade %\n0,0,0\n1,2,400\n3,4,0\n", 3, "400%"),
        ("time,speed\n0,0\n0,2\n3,4\n", 3, "a second line"),
        ("time,speed\n0,0\n2,2\n100,4\n", 4, "nothing for 98 s"),
    ],
    ids=["letters", "short line", "backwards", "too fast", "too steep", "twice", "gap"],
)
def test_what_means_nothing_is_told_by_its_line(text, line, words):
    found = brought(text)
    assert len(found.faults) == 1
    assert found.faults[0].line == line
    assert words in found.faults[0].why
    assert len(found.trace.seconds) >= 2


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "holds nothing"),
        ("speed\n1\n2\n", "one column"),
        ("time,speed\n0,0\n5,2\n4,4\n", "Line 4: time runs backwards"),
        ("time,speed\na,b\nc,d\n", "No drive is left"),
        ("time,speed\n0,0\n", "No drive is left"),
    ],
    ids=["empty", "one column", "time backwards", "no numbers", "one line"],
)
def test_what_is_no_drive_is_refused_in_words(text, words):
    with pytest.raises(InputError) as refused:
        brought(text)
    assert words in refused.value.message


def test_a_long_recording_is_thinned_to_means():
    lines = "\n".join(f"{k / 10},{20 if k % 2 else 10}" for k in range(100_000))
    found = brought(f"time,speed\n{lines}\n")
    assert len(found.trace.seconds) <= 40_000
    assert {round(speed) for speed in found.trace.speeds} == {13, 17}
    assert found.trace.seconds[-1] == pytest.approx(9999.0, abs=1.0)
