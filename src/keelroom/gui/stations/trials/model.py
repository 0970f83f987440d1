"""The Trials station's form: one trial with its readings, and what a shop reads with."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.acts.registry import offer
from keelroom.assess.outcome import Stopped
from keelroom.assess.trials.expected import Foretold
from keelroom.assess.trials.judged import Compared, judged
from keelroom.assess.trials.tried import TEMPERATURES, sensor_of
from keelroom.assess.trials.words import compared_words, trial_words
from keelroom.catalogue.protocols import PROTOCOLS
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import Reading, Sensor, Trial
from keelroom.gui.rows import Group, Page, Press, Row, Said, quantities

PLACES = (
    ("gauge", "Gauge as the driver reads it"),
    ("outlet", "Upper hose, engine outlet"),
    ("inlet", "Lower hose"),
    ("oil", "Engine oil"),
    ("gearbox", "Gearbox fluid"),
    ("air", "Air behind the core"),
    ("volts", "Volts at the battery"),
    ("battery", "Amps into the battery"),
)
BY = (
    ("needle", "Needle gauge"),
    ("probe", "Probe or logger"),
    ("infrared", "Infrared gun"),
    ("anemometer", "Hand anemometer"),
    ("meter", "Volt or clamp meter"),
    ("car", "The car’s own computer"),
)
BEGINS = (("settled", "As its first leg settles"), ("warm", "Warm, the thermostat just open"), ("cold", "Cold"))
FIGURE = {"air": "airflow", "volts": "voltage", "battery": "current"}


class Known(NamedTuple):
    """What was worked out of a trial beside the window: what it should read, and that against the one before."""

    before: Trial | None = None
    found: Foretold | Stopped | None = None
    against: Compared | Stopped | None = None


def pages(build: Build, trial: Trial | None, known: Known, system: str) -> tuple[Page, ...]:
    """The station's pages."""
    return (
        logbook_page(build, trial, known, system),
        Page("Protocol", ()),
        Page("Log", ()),
        Page("Learn", ()),
        Page("Next", ()),
    )


def logbook_page(build: Build, trial: Trial | None, known: Known, system: str) -> Page:
    """One trial."""
    sensors = tuple(_sensor(one) for one in build.logbook.sensors)
    add: tuple[Press, ...] = (("Add a trial…", "protocol"), ("What was told…", "told"))
    if trial is None:
        return Page("Logbook", sensors, add, (("faint", "No trial yet: a mild day and a needle are enough to begin."),))
    at = ("logbook", "trials", trial.id)
    protocols = tuple((one.key, one.name) for one in PROTOCOLS)
    first = Group(
        "Trial",
        (
            Row("text", (*at, "name"), "Name"),
            Row("choice", (*at, "protocol"), "Test", protocols),
            *quantities(at, "ambient"),
            Row("text", (*at, "day"), "On"),
            Row("text", (*at, "where"), "Where"),
            Row("text", (*at, "weather"), "Wind, sun"),
            Row("text", (*at, "who"), "Read by"),
            Row("choice", (*at, "begins"), "Begins", BEGINS),
            Row("flag", (*at, "hood_open"), "Hood open"),
            Row("flag", (*at, "counts"), "The model goes by it"),
            *quantities(at, "stopped"),
            Row("text", (*at, "note"), "Notes"),
            Row("text", (*at, "verdict"), "Our verdict"),
        ),
        remove=at,
    )
    legs = tuple(
        Group(
            f"Driven: {leg.name or leg.id}",
            (
                *quantities((*at, "legs", leg.id), "lasts", "rpm", "speed", "grade", "towed", of=leg.name),
                Row("flag", (*at, "legs", leg.id, "ac_on"), "A/C on", said=leg.name),
            ),
            rare=True,
        )
        for leg in trial.legs
    )
    readings = tuple(_reading(build, trial, reading, n) for n, reading in enumerate(trial.readings, 1))
    logs = tuple(_log(build, trial, n) for n in range(len(trial.logs)))
    actions: tuple[Press, ...] = (
        ("Add a reading", offer("add_reading", trial=trial.id)),
        ("The same again", "again"),
        *add,
        ("Add a sensor", offer("add_sensor")),
    )
    return Page(
        "Logbook",
        (first, *readings, *logs, *legs, *sensors),
        actions,
        _said(build, trial, known, system),
        leading=(("Another trial…", "which"),) if len(build.logbook.trials) > 1 else (),
    )


def _said(build: Build, trial: Trial, known: Known, system: str) -> Said:
    """The trial by itself, and against the one before it."""
    boils = float(known.found.driven.boiling.min()) if isinstance(known.found, Foretold) else math.nan
    said = trial_words(build, trial, judged(build, trial, boils), system)
    if known.before is not None and isinstance(known.against, Compared):
        return (*said, *compared_words(known.before, trial, known.against, system))
    return said


def _reading(build: Build, trial: Trial, reading: Reading, place: int) -> Group:
    at = ("logbook", "trials", trial.id, "readings", reading.id)
    sensor = sensor_of(build, reading.sensor)
    of = f"Reading {place}"
    sensors = tuple((one.id, one.name or one.id) for one in build.logbook.sensors)
    figure = "temperature" if sensor is None else FIGURE.get(sensor.place, "temperature")
    rows = [Row("choice", (*at, "sensor"), "With", sensors, of), *quantities(at, figure, "at", of=of)]
    if figure == "airflow":
        rows.append(Row("flag", (*at, "standing"), "Fans standing", said=of))
    rows.append(Row("text", (*at, "note"), "Note", said=of))
    return Group(of, tuple(rows), remove=at)


def _log(build: Build, trial: Trial, place: int) -> Group:
    log = trial.logs[place]
    at = ("logbook", "trials", trial.id, "logs", log.id)
    of = f"Log {place + 1}"
    sensors = tuple((one.id, one.name or one.id) for one in build.logbook.sensors)
    minutes = (log.seconds[-1] - log.seconds[0]) / 60 if log.seconds else 0.0
    note = f"{len(log.seconds)} readings over {minutes:.0f} min, {log.source}"
    return Group(of, (Row("choice", (*at, "sensor"), "With", sensors, of),), note, remove=at)


def _sensor(sensor: Sensor) -> Group:
    at = ("logbook", "sensors", sensor.id)
    of = sensor.name or sensor.id
    doubts = ("lag", "zero", "noise") if sensor.place in TEMPERATURES else ("share",)
    return Group(
        f"Read with: {of}",
        (
            Row("text", (*at, "name"), "Name", said=of),
            Row("choice", (*at, "place"), "Reads", PLACES, of),
            Row("choice", (*at, "by"), "Is", BY, of),
            *quantities(at, *doubts, of=of),
        ),
        remove=at,
        rare=True,
    )
