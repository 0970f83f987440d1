"""A logger's file: guesses, each broken way a log comes in, and how large ones are kept."""

import numpy as np
import pytest
from scipy.signal import correlate

from keelroom.assess.trials.clocks import clock_late
from keelroom.assess.trials.read_log import guess, read
from keelroom.document.file import load
from keelroom.document.schema.trials import Log, usual_sensors
from keelroom.errors import InputError
from tests.conftest import DEMO
from tests.trials import trial, with_trials

BUILD = load(DEMO)

SENSORS = usual_sensors()


def told(text, **how):
    guessed = guess(text, SENSORS)._replace(**how)
    return read(text, guessed, SENSORS, "log")


@pytest.mark.parametrize(
    ("text", "time", "units"),
    [
        ("time,ECT (F)\n0,180\n1,181\n", (0, "s"), {"car": "°F"}),
        ("Time (ms);Coolant;Volts\n0;82,5;13,9\n1000;82,6;13,8\n", (0, "ms"), {"car": "°C", "volts": "V"}),
        ("stamp\tlower hose\n12:00:01\t150\n12:00:02\t151\n", (0, "h:m:s"), {"lower": "°F"}),
        ("t,coolant temp\n2026-06-20T10:00:00,90\n2026-06-20T10:00:01,90\n", (0, "date and time"), {"car": "°C"}),
        ("0,88\n100,89\n200,89\n300,90\n", (0, "ms"), {}),
        ("made by a logger\ntime,ECT\n0,90\n1,91\n2,91\n3,91\n4,91\n5,90\n", (0, "s"), {"car": "°C"}),
    ],
)
def test_columns_units_clock_and_sign_are_guessed(text, time, units):
    found = guess(text, SENSORS)
    assert found.time == time
    assert {line.sensor: line.unit for line in found.lines} == units


def test_figures_come_in_by_their_units():
    """By hand: 212 °F is 100 °C, 300 CFM is 0.1416 m³/s; 13,9 V by a decimal comma."""
    found = told("time;ECT (F);fan airflow CFM;volts\n0;212,0;300;13,9\n10;212,0;300;13,8\n")
    by = {log.sensor: log.values for log in found.logs}
    assert by["car"] == pytest.approx((100.0, 100.0))
    assert by["vane"] == pytest.approx((0.142, 0.142), abs=1e-3)
    assert by["volts"] == pytest.approx((13.9, 13.8))


@pytest.mark.parametrize(
    ("lines", "line", "words"),
    [
        ("0,90\n1,abc\n2,91", 3, "“abc” is no number for ECT"),
        ("0,90\n1,\n2,91", 3, "nothing for ECT: it dropped out"),
        ("0,90\n1,-40\n2,91", 3, "a sensor that dropped out"),
        ("0,90\n1,999\n2,91", 3, "past what ECT can be"),
        ("0,90\n5,91\n3,92\n6,92", 4, "time runs back from 5 s to 3 s"),
        ("0,90\n1,91\n1,92\n2,92", 4, "the same moment again"),
        ("0,90\n1,91\n2,92\n3,92\n120,93", 6, "nothing for 117 s before it: a gap"),
        ("0,90\n1\n2,92", 3, "it has 1 cells, 2 were expected"),
        ("0,90\nsoon,91\n2,92", 3, "“soon” is no time"),
    ],
)
def test_what_is_broken_is_told_by_its_line_and_the_rest_kept(lines, line, words):
    found = told(f"time,ECT\n{lines}\n")
    assert [fault.line for fault in found.faults] == [line]
    assert words in found.faults[0].why
    assert len(found.logs[0].seconds) >= 2


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "holds nothing"),
        ("just words\nand more\n", "one column"),
        ("time,rpm\n0,800\n1,900\n", "No column is taken"),
        ("time,ECT\nnever,90\n", "No reading is left"),
    ],
)
def test_what_is_no_log_is_refused_in_words(text, words):
    with pytest.raises(InputError, match=words):
        told(text)


def test_a_late_clock_is_set_right_by_what_is_said():
    found = told("time,ECT\n100,90\n110,91\n", offset=-12.0)
    assert found.logs[0].seconds == (-12.0, -2.0)


def test_a_million_lines_are_thinned_to_means():
    lines = "\n".join(f"{k / 10},{90 + k % 2}" for k in range(40_000))
    found = told(f"time,ECT\n{lines}\n")
    log = found.logs[0]
    assert len(log.seconds) <= 6000
    assert log.values[100] == pytest.approx(90.5, abs=0.2)
    assert log.seconds[-1] == pytest.approx(3999, abs=2)


@pytest.mark.parametrize("late", [-90.0, 35.0, 0.0])
def test_a_clock_that_is_late_is_found(late):
    """Against scipy.signal.correlate on the same two lines, a degree of scatter and a level of their own apart."""
    dice = np.random.default_rng(7)
    seconds = np.arange(0.0, 1500.0, 1.0)
    seen = 88 + 4 * np.sin(seconds / 70) + 2 * np.sin(seconds / 23)
    first = Log(id="a", sensor="upper", seconds=tuple(seconds), values=tuple(seen + 0.5 * dice.standard_normal(1500)))
    own = np.interp(seconds + late, seconds, seen) + 2 + 0.5 * dice.standard_normal(1500)
    second = Log(id="b", sensor="car", seconds=tuple(seconds), values=tuple(own))
    one = trial(logs=(first,))
    build = with_trials(BUILD, one)
    told = clock_late(build, one, second)
    if late == 0.0:
        assert told is None
        return
    assert told is not None
    pair = [np.array(log.values) - np.mean(log.values) for log in (first, second)]
    lag = float(np.argmax(correlate(*pair)) - (len(seconds) - 1))
    assert told[0] == pytest.approx(late, abs=2)
    assert told[0] == pytest.approx(lag, abs=3)
    still = second.model_copy(update={"values": (88.0,) * 1500})
    assert clock_late(build, one, still) is None
    assert clock_late(build, one, second.model_copy(update={"sensor": "volts"})) is None
