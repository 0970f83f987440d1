"""Acts on the logbook: a trial by a protocol, the same again, what was told as a trial, a reading, a sensor, and what
trials have told taken in or left out."""

from __future__ import annotations

from keelroom.assess.acts.drives import leg_of
from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.catalogue.protocols import protocol_of
from keelroom.document.edits import Edit, added, fresh_id, fresh_name, set_value
from keelroom.document.quantity import quantity
from keelroom.document.schema.trials import Reading, Sensor, Trial
from keelroom.document.snapshot import kept
from keelroom.errors import InputError

WHERE = ("logbook", "trials")
FOR = "20 min"


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
    return added(do.build, WHERE, trial, do.act.label)


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
    ActKind("add_sensor", "A sensor more", _add_sensor, "Add a sensor", first="name"),
    ActKind("calibration_on", "Go by what the trials told", _calibration_on, "Go by the trials"),
    ActKind("calibration_off", "Go by what is entered alone", _calibration_off, "Go by the entries alone"),
)
