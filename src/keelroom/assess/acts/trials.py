"""Acts on the logbook: a trial by a protocol, the same again, what was told as a trial, a reading, a sensor, and what
trials have told taken in or left out."""

from __future__ import annotations

from collections.abc import Iterable

from keelroom import units
from keelroom.assess.acts.drives import leg_of
from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.placing import size_of
from keelroom.assess.trials.spots import flow_of_marks, seen_at_end
from keelroom.assess.trials.tried import made_of, package_of
from keelroom.catalogue.protocols import protocol_of
from keelroom.core.trials.traverse import places
from keelroom.document.edits import Change, Edit, added, fresh_id, fresh_name, set_value
from keelroom.document.quantity import quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.trials import ReadAt, Reading, Sensor, Trial, sensor_for
from keelroom.document.snapshot import kept
from keelroom.errors import InputError

WHERE = ("logbook", "trials")
FOR = "20 min"
HALF_MINUTE = 30.0
"""[s] two readings with one sensor lie apart at least to be two"""


def trial_of(do: Doing) -> Trial:
    """The trial an act is about. Raises InputError where it is gone."""
    wanted = do.given("trial")
    found = next((one for one in do.build.logbook.trials if one.id == wanted), None)
    if found is None:
        raise InputError("no_such_trial", "That trial is no longer in the logbook")
    return found


def _add_trial(do: Doing) -> Edit:
    """A trial by a protocol, with the package as it stands now."""
    protocol, present = protocol_of(do.given("protocol")), do.build.logbook.trials
    trial = Trial(
        id=fresh_id(present, "trial"),
        name=fresh_name((one.name for one in present), protocol.name),
        protocol=protocol.key,
        day=_day(do),
        begins=protocol.begins,
        legs=protocol.legs,
        package=kept(do.build.package),
    )
    sensors = _with_sensors(do.build, protocol.reads)
    changes = (Change((*WHERE[:1], "sensors"), sensors), Change(WHERE, (*present, trial)))
    return Edit(do.act.label, changes if sensors != do.build.logbook.sensors else changes[1:])


def _with_sensors(build: Build, places: Iterable[ReadAt]) -> tuple[Sensor, ...]:
    """The logbook's sensors with one for each of these places nothing reads yet."""
    there = build.logbook.sensors
    for place in places:
        if all(one.place != place for one in there):
            fresh = sensor_for(place)
            there = (*there, fresh.model_copy(update={"id": fresh_id(there, fresh.id)}))
    return there


def _lay_readings(do: Doing) -> Edit:
    """A reading without a figure for everything the protocol's steps write, which is not laid out yet."""
    trial = trial_of(do)
    protocol = protocol_of(trial.protocol)
    sensors = _with_sensors(do.build, (place for step in protocol.steps for place in step.writes))
    of_place = {sensor.place: sensor.id for sensor in reversed(sensors)}
    there = trial.readings
    for step in protocol.steps:
        at = quantity(f"{max(step.minute, 0):g} min", "minutes", "assumed")
        for place in step.writes:
            ident = of_place[place]
            if any(one.sensor == ident and abs(one.at.si - at.si) < HALF_MINUTE for one in there):
                continue
            there = (*there, Reading(id=fresh_id(there, "reading"), sensor=ident, at=at, note=step.words))
    if there == trial.readings:
        raise InputError("readings_laid", "Every reading of this test is laid out already")
    changes = (Change((*WHERE[:1], "sensors"), sensors), Change((*WHERE, trial.id, "readings"), there))
    return Edit(do.act.label, changes)


def _lay_marks(do: Doing) -> Edit:
    """A reading for every mark of the face a vane is held at."""
    trial = trial_of(do)
    core = package_of(do.build, trial).core
    wide, high = size_of(core)
    if wide <= 0 or high <= 0:
        raise InputError("no_face", "The core's face is not known yet: its width and height say where the marks are")
    if any(one.mark for one in trial.readings):
        raise InputError("marks_laid", "The marks of this face are laid out already")
    sensors = _with_sensors(do.build, ("mark",))
    ident = next(one.id for one in sensors if one.place == "mark")
    there, at = trial.readings, quantity("1 min", "minutes", "assumed")
    for mark in range(1, len(places(wide, high)) + 1):
        there = (*there, Reading(id=fresh_id(there, "reading"), sensor=ident, at=at, mark=mark))
    changes = (Change((*WHERE[:1], "sensors"), sensors), Change((*WHERE, trial.id, "readings"), there))
    return Edit(do.act.label, changes)


def _flow_of_marks(do: Doing) -> Edit:
    """What the marks come to, as one reading of the air behind the core."""
    trial = trial_of(do)
    found = flow_of_marks(do.build, trial, seen_at_end(made_of(do.build, trial), trial))
    if found is None:
        raise InputError("no_marks", "No mark of the face has a figure yet")
    sensors = _with_sensors(do.build, ("air",))
    ident = next(one.id for one in sensors if one.place == "air")
    share = f"{100 * found.doubt / max(found.flow, 1e-9):.0f} %"
    words = f"Mean of the marks, good to ±{share}; uneven by {found.uneven:.0%}"
    air = quantity(units.format_si(found.flow, units.KINDS["airflow"], do.system), "airflow")
    reading = Reading(id=fresh_id(trial.readings, "reading"), sensor=ident, airflow=air, note=words)
    reading = reading.model_copy(update={"at": quantity("1 min", "minutes", "assumed")})
    kept_others = tuple(one for one in trial.readings if not one.note.startswith("Mean of the marks"))
    changes = (
        Change((*WHERE[:1], "sensors"), sensors),
        Change((*WHERE, trial.id, "readings"), (*kept_others, reading)),
    )
    return Edit(do.act.label, changes)


def _day(do: Doing) -> str:
    """The day it is entered on, where who offers it says one."""
    return dict(do.act.given).get("day", "")


def _again(do: Doing) -> Edit:
    """The same test again, on the package as it stands now."""
    was, present = trial_of(do), do.build.logbook.trials
    fresh = {
        "id": fresh_id(present, "trial"),
        "name": fresh_name((one.name for one in present), f"{was.name}, again"),
        "day": _day(do),
        "package": kept(do.build.package),
        "readings": (),
        "logs": (),
        "verdict": "",
        "note": "",
        "weather": "",
        "stopped": None,
        "ambient": None,
    }
    return added(do.build, WHERE, was.model_copy(update=fresh), do.act.label)


def _from_case(do: Doing) -> Edit:
    """What was seen in a duty case before the work, as a trial of the car as it was found."""
    case, present = do.build.duty_case(do.given("case")), do.build.logbook.trials
    package = do.build.of_kind("as_found") or do.build.package
    lasted = case.seen_for or quantity(FOR, "minutes", "assumed")
    leg = leg_of(case).model_copy(update={"lasts": lasted})
    readings: tuple[Reading, ...] = ()
    if case.seen_at is not None:
        readings = (Reading(id="told", sensor="gauge", at=lasted, temperature=case.seen_at),)
    trial = Trial(
        id=fresh_id(present, "trial"),
        name=fresh_name((one.name for one in present), f"As told: {case.name or case.id}"),
        protocol="told",
        legs=(leg,),
        ambient=case.seen_day or case.ambient or do.build.brief.climate.ambient,
        package=kept(package),
        readings=readings,
        counts=False,
    )
    return added(do.build, WHERE, trial, do.act.label)


def _add_reading(do: Doing) -> Edit:
    trial = trial_of(do)
    last = trial.readings[-1] if trial.readings else None
    wanted = last.sensor if last else next((one.id for one in do.build.logbook.sensors), "")
    reading = Reading(id=fresh_id(trial.readings, "reading"), sensor=wanted)
    if last is not None:
        reading = reading.model_copy(update={"at": last.at})
    return added(do.build, (*WHERE, trial.id, "readings"), reading, do.act.label)


def _add_sensor(do: Doing) -> Edit:
    present = do.build.logbook.sensors
    sensor = Sensor(id=fresh_id(present, "sensor"), name=fresh_name((one.name for one in present), "A probe"))
    return added(do.build, ("logbook", "sensors"), sensor, do.act.label)


def _calibration_on(do: Doing) -> Edit:
    if not do.build.calibration.factors:
        raise InputError("nothing_learnt", "No trial has told anything yet: work it out on the Learn page first")
    return set_value(("calibration", "on"), True, do.act.label)


def _calibration_off(do: Doing) -> Edit:
    return set_value(("calibration", "on"), False, do.act.label)


KINDS = (
    ActKind("add_trial", "A trial by a protocol, on the package as it stands", _add_trial, "Add a trial"),
    ActKind("trial_again", "The same test again", _again, "The same again"),
    ActKind("told_trial", "What was seen before the work, as a trial", _from_case, "What was told, as a trial"),
    ActKind("add_reading", "A reading more", _add_reading, "Add a reading", first="temperature"),
    ActKind(
        "lay_readings", "Everything the test's steps write, to be filled in", _lay_readings, "Lay out its readings"
    ),
    ActKind("lay_marks", "The marks of the face, to be filled in", _lay_marks, "Lay out the marks"),
    ActKind("flow_of_marks", "The flow the marks come to", _flow_of_marks, "Take the flow of the marks"),
    ActKind("add_sensor", "A sensor more", _add_sensor, "Add a sensor", first="name"),
    ActKind("calibration_on", "Go by what the trials told", _calibration_on, "Go by the trials"),
    ActKind("calibration_off", "Go by what is entered alone", _calibration_off, "Go by the entries alone"),
)
