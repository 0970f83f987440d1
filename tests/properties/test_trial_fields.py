"""Every field of a trial, its readings and sensors moves what is said of it, foretold or learnt, or only names it."""

import numpy as np
import pytest

from keelroom.assess.outcome import Stopped
from keelroom.assess.trials.expected import foretold
from keelroom.assess.trials.judged import judged
from keelroom.assess.trials.seen_in import with_trials as seen_in
from keelroom.assess.trials.spots import flow_of_marks
from keelroom.assess.trials.tried import points_of
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.file import load
from keelroom.document.quantity import quantity
from keelroom.document.schema.trials import Calibration, Factor, Log, Reading, Sensor, Trial
from tests.conftest import DEMO
from tests.drives import leg
from tests.trials import reading, trial, with_trials

BUILD = load(DEMO)
NAMES = {
    "Sensor": {"id", "name", "by"},
    "Reading": {"id", "note"},
    "Trial": {"id", "name", "day", "where", "who", "weather", "note", "verdict"}
    | {"logs", "readings", "legs", "package", "photos"},
    "Log": {"id", "source", "seconds"},
}
"""What a thing is called, or holds in a list of its own; a sensor's kind stands for its doubts, typed beside it."""
LOG = Log(id="l", sensor="upper", seconds=(0.0, 300.0, 600.0, 900.0), values=(82.0, 88.0, 90.0, 91.0))
OTHER = {
    ("Sensor", "place"): "inlet",
    ("Sensor", "lag"): quantity("40 s", "seconds"),
    ("Sensor", "zero"): quantity("6 °C", "temperature difference"),
    ("Sensor", "noise"): quantity("4 °C", "temperature difference"),
    ("Sensor", "share"): quantity("20 %", "share"),
    ("Reading", "sensor"): "upper",
    ("Reading", "at"): quantity("3 min", "minutes"),
    ("Reading", "temperature"): quantity("200 °F", "temperature"),
    ("Reading", "voltage"): quantity("12 V", "voltage"),
    ("Reading", "current"): quantity("-20 A", "current"),
    ("Reading", "airflow"): quantity("900 CFM", "airflow"),
    ("Reading", "standing"): True,
    ("Reading", "pressure"): quantity("9 psi", "pressure"),
    ("Reading", "level"): quantity("70 dB", "sound level"),
    ("Reading", "wind"): quantity("3 m/s", "air speed"),
    ("Reading", "mark"): 0,
    ("Trial", "protocol"): "volts",
    ("Trial", "begins"): "cold",
    ("Trial", "ambient"): quantity("99 °F", "temperature"),
    ("Trial", "hood_open"): True,
    ("Trial", "counts"): False,
    ("Trial", "stopped"): quantity("8 min", "minutes"),
    ("Log", "sensor"): "gauge",
    ("Log", "values"): (80.0, 82.0, 83.0, 83.0),
}


def told(build):
    """All that is said of the first trial, and of it beside another like it."""
    from keelroom.assess.trials.judged import unlike

    first, second = build.logbook.trials
    found = foretold(build, first)
    expects = found.why if isinstance(found, Stopped) else found.expects
    seen = [case.name for case in seen_in(build).duty_cases]
    flow = flow_of_marks(build, first, None)
    return repr(
        (flow, judged(build, first), expects, list(points_of(build, first)), unlike(build, first, second), seen)
    )


def ready(figure):
    """A build with two trials, the first of the car as it was found, with a log, and a reading of such a kind."""
    found = BUILD.of_kind("as_found")
    from keelroom.document.snapshot import kept

    readings = (reading(**figure),)
    one = trial(leg("idle", "15 min", id="leg"), readings=readings, logs=(LOG,), package=kept(found))
    return with_trials(BUILD, one, one.model_copy(update={"id": "t2"}))


FIGURES = {
    "voltage": {"sensor": "volts", "voltage": "14 V"},
    "current": {"sensor": "clamp", "current": "10 A"},
    "airflow": {"sensor": "vane", "airflow": "1500 CFM"},
    "standing": {"sensor": "vane", "airflow": "1500 CFM"},
    "share": {"sensor": "vane", "airflow": "1500 CFM"},
    "pressure": {"sensor": "held", "pressure": "15 psi"},
    "level": {"sensor": "sound", "level": "80 dB"},
    "wind": {"sensor": "mark", "wind": "2 m/s", "mark": 1},
    "mark": {"sensor": "mark", "wind": "2 m/s", "mark": 1},
}


@pytest.mark.parametrize(("model", "name"), list(OTHER))
def test_every_field_moves_what_is_said(model, name):
    build = ready(FIGURES.get(name, {"temperature": "190 °F"}))
    first = build.logbook.trials[0]
    at = {
        "Trial": ("logbook", "trials", "t1"),
        "Reading": ("logbook", "trials", "t1", "readings", first.readings[0].id),
        "Log": ("logbook", "trials", "t1", "logs", "l"),
        "Sensor": ("logbook", "sensors", FIGURES.get(name, {"sensor": "upper"})["sensor"]),
    }[model]
    changed = apply(build, Edit("", (Change((*at, name), OTHER[model, name]),)))
    assert told(build) != told(changed)


def test_the_fields_are_those_above():
    for model in (Sensor, Reading, Trial, Log):
        known = NAMES[model.__name__] | {name for kind, name in OTHER if kind == model.__name__}
        assert known == set(model.model_fields)


@pytest.mark.parametrize("factor", ["heat", "core", "fans", "leaks", "flow"])
def test_every_factor_learnt_moves_a_duty_case(factor):
    """And only where it belongs: core, fans and gaps those of the package that was tried."""
    from keelroom.assess.assess import first_wave
    from keelroom.document.snapshot import kept

    told = Calibration(on=True, factors=(Factor(id=factor, value=0.8, doubt=0.05),), package=kept(BUILD.package))
    learnt = BUILD.model_copy(update={"calibration": told})
    before, after = (np.array([case.figures.mean for case in first_wave(build).cases]) for build in (BUILD, learnt))
    assert np.abs(after - before).max() > 0.05
    other = next(one.id for one in BUILD.packages if one.core != BUILD.package.core and one.fans != BUILD.package.fans)
    before, after = (
        np.array([case.figures.mean for case in first_wave(build, other).cases]) for build in (BUILD, learnt)
    )
    if factor in ("core", "fans"):
        assert after == pytest.approx(before)
    off = learnt.model_copy(update={"calibration": told.model_copy(update={"on": False})})
    assert [case.figures for case in first_wave(off).cases] == [case.figures for case in first_wave(BUILD).cases]
