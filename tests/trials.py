"""Trials of builds that do otherwise than they are entered, for tests."""

from typing import get_args

import numpy as np

from keelroom.assess.drives.driven import run_with
from keelroom.assess.inputs.learnt import AS_ENTERED, PLACES
from keelroom.assess.trials.tried import made_of, sensor_of, shown
from keelroom.document.quantity import quantity
from keelroom.document.schema.trials import Log, ReadAt, Reading, Trial, sensor_for
from tests.drives import leg


def trial(*legs, ident="t1", day="84 °F", **more):
    """A trial of such legs."""
    return Trial(
        id=ident,
        name=more.pop("name", ident),
        legs=legs or (leg("idle", "25 min", id="leg"),),
        ambient=quantity(day, "temperature") if day else None,
        **more,
    )


def with_trials(build, *trials):
    """The build with such a logbook, and something to read every place with."""
    there = {one.place for one in build.logbook.sensors}
    more = tuple(sensor_for(place) for place in get_args(ReadAt) if place not in there)
    kept = {"trials": trials, "sensors": (*build.logbook.sensors, *more)}
    return build.model_copy(update={"logbook": build.logbook.model_copy(update=kept)})


def simulated(build, one, factors, dice, sensors=("car", "lower"), every=30.0, zeros=None):
    """A trial with what a car with such factors would have it read; zeros: what each sensor is off."""
    doubts = AS_ENTERED._replace(**{PLACES[name]: np.array(value) for name, value in factors.items()})
    there, run = run_with(made_of(build, one), doubts)
    logs = []
    for ident in sensors:
        sensor = sensor_of(build, ident)
        seconds = np.arange(0.0, float(run.time[-1]), every)
        values = np.interp(seconds, run.time, shown(there, run, sensor)) + (zeros or {}).get(ident, 0.0)
        values = values + sensor.noise.si * dice.standard_normal(len(seconds))
        logs.append(Log(id=ident, sensor=ident, seconds=tuple(map(float, seconds)), values=tuple(map(float, values))))
    return one.model_copy(update={"logs": tuple(logs)})


def reading(sensor="gauge", at="20 min", mark=0, **figure):
    """One reading; its figure as a text."""
    kinds = {"temperature": "temperature", "voltage": "voltage", "airflow": "airflow", "current": "current"}
    kinds |= {"pressure": "pressure", "level": "sound level", "wind": "air speed"}
    told = {name: quantity(value, kinds[name]) for name, value in figure.items()}
    ident = f"{sensor}-{at}-{mark or ''}".replace(" ", "").strip("-")
    return Reading(id=ident, sensor=sensor, at=quantity(at, "minutes"), mark=mark, **told)
