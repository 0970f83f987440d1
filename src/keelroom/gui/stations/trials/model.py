"""The Trials station's form: one trial with its readings, and what a shop reads with."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import NamedTuple

from keelroom.assess.acts.registry import offer
from keelroom.assess.drives.words import clock
from keelroom.assess.outcome import Stopped
from keelroom.assess.trials.expected import Foretold
from keelroom.assess.trials.judged import Compared, judged
from keelroom.assess.trials.tried import figure_at, sensor_of, value_of
from keelroom.assess.trials.words import compared_words, figure, trial_words
from keelroom.catalogue.protocols import PROTOCOLS, protocol_of
from keelroom.document.photos import State
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import Photo, Reading, Sensor, Trial
from keelroom.gui.rows import Group, Page, Path, Press, Row, Said, quantities
from keelroom.gui.walks import Walk

PLACES = (
    ("gauge", "Gauge as the driver reads it"),
    ("outlet", "Upper hose, engine outlet"),
    ("inlet", "Lower hose"),
    ("oil", "Engine oil"),
    ("gearbox", "Gearbox fluid"),
    ("air", "Air behind the core"),
    ("volts", "Volts at the battery"),
    ("battery", "Amps into the battery"),
    ("motor", "Volts at a fan’s plug"),
    ("running", "Amps of the fans, running"),
    ("start", "Amps of a start"),
    ("vent", "A/C vent"),
    ("fin", "Between the core’s fins"),
    ("held", "Pressure the circuit holds"),
    ("sound", "Sound 1 m ahead of the grille"),
    ("mark", "Air speed at a mark of the face"),
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


class Known(NamedTuple):
    """What was worked out of a trial beside the window: what it should read, and that against the one before."""

    before: Trial | None = None
    found: Foretold | Stopped | None = None
    against: Compared | Stopped | None = None
    photos: Mapping[str, State] = {}
    """how each of its photos stands, by id"""


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
    photos = tuple(_photo(trial, one, known.photos.get(one.id, "there")) for one in trial.photos)
    add += (("Add a photo…", "photo"), *((("Look at a photo…", "look"),) if photos else ()))
    actions: tuple[Press, ...] = (
        ("Add a reading", offer("add_reading", trial=trial.id)),
        *_laid(trial),
        ("The same again", "again"),
        *add,
        ("Add a sensor", offer("add_sensor")),
    )
    return Page(
        "Logbook",
        (first, *readings, *logs, *photos, *legs, *sensors),
        actions,
        _said(build, trial, known, system),
        leading=(("Another trial…", "which"),) if len(build.logbook.trials) > 1 else (),
        brief=lambda at: _brief(build, trial, at[-1], system),
    )


def _brief(build: Build, trial: Trial, ident: str, system: str) -> str:
    """A reading in a few words."""
    reading = next((one for one in trial.readings if one.id == ident), None)
    sensor = sensor_of(build, reading.sensor) if reading else None
    if reading is None or sensor is None:
        return ""
    value = value_of(reading)
    read = figure(sensor.place, value, system) if value is not None else "not read yet"
    return f"{read}, {sensor.name}, {clock(reading.at.si)}"


GONE = {
    "there": "",
    "missing": "It is not where it was: put it back into the folder beside the build, or take it out here.",
    "changed": "It is another picture than was taken in: take it out and add it again where that is meant.",
}


def _photo(trial: Trial, photo: Photo, state: State) -> Group:
    at = ("logbook", "trials", trial.id, "photos", photo.id)
    return Group(
        f"Photo: {photo.file}", (Row("text", (*at, "note"), "Shows", said=photo.file),), GONE[state], remove=at
    )


def _laid(trial: Trial) -> tuple[Press, ...]:
    """What lays readings out, and sums them up."""
    found: list[Press] = []
    if lacks_readings(trial):
        found.append(("Lay out its readings", offer("lay_readings", trial=trial.id)))
    if protocol_of(trial.protocol).passes == "air":
        marked = any(one.mark for one in trial.readings)
        code, words = ("flow_of_marks", "Take the flow of the marks") if marked else ("lay_marks", "Lay out the marks")
        found.append((words, offer(code, trial=trial.id)))
    return tuple(found)


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
    of = f"Mark {reading.mark}" if reading.mark else f"Reading {place}"
    sensors = tuple((one.id, one.name or one.id) for one in build.logbook.sensors)
    figure = "temperature" if sensor is None else figure_at(sensor.place)
    rows = [Row("choice", (*at, "sensor"), "With", sensors, of), *quantities(at, figure, "at", of=of)]
    if figure == "airflow":
        rows.append(Row("flag", (*at, "standing"), "Fans standing", said=of))
    rows.append(Row("text", (*at, "note"), "Note", said=of))
    return Group(of, tuple(rows), remove=at)


def lacks_readings(trial: Trial) -> bool:
    """Whether its protocol writes something at a step that has no reading laid out for it."""
    steps = protocol_of(trial.protocol).steps
    return sum(len(step.writes) for step in steps) > sum(not one.mark for one in trial.readings)


def walk(build: Build, trial: Trial) -> Walk:
    """Its readings for bench mode: by their minutes, each with what is done then and what it is read with."""
    found: dict[str, list[tuple[str, Path]]] = {}
    for reading in sorted(trial.readings, key=lambda one: (one.at.si, one.mark)):
        sensor = sensor_of(build, reading.sensor)
        if sensor is None:
            continue
        at = ("logbook", "trials", trial.id, "readings", reading.id, figure_at(sensor.place))
        with_ = f"Mark {reading.mark} of the face" if reading.mark else sensor.name
        words = f"{reading.note} {with_}" if reading.note else with_
        found.setdefault(f"{trial.name}, at {reading.at.si / 60:g} min", []).append((words, at))
    return tuple((title, tuple(rows)) for title, rows in found.items())


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
    doubts = ("lag", "zero", "noise") if figure_at(sensor.place) == "temperature" else ("share",)
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
