"""Acts on the drives: a schedule more, a leg more, a moment as a duty case."""

from __future__ import annotations

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.drives.moments import asked_in, moments_of
from keelroom.document.edits import Change, Edit, added, fresh_id, fresh_name
from keelroom.document.quantity import Quantity, quantity
from keelroom.document.schema.build import DutyCase
from keelroom.document.schema.drive import Leg, Schedule, usual_schedules
from keelroom.errors import InputError

WHERE = ("driving", "schedules")


def schedule_of(do: Doing) -> Schedule:
    """The schedule an act is about. Raises InputError where it is gone."""
    wanted = do.given("schedule")
    found = next((one for one in do.build.driving.schedules if one.id == wanted), None)
    if found is None:
        raise InputError("no_such_schedule", "That schedule is no longer in the build")
    return found


def _add_schedule(do: Doing) -> Edit:
    present = do.build.driving.schedules
    ident, name = fresh_id(present, "drive"), fresh_name((one.name for one in present), "A drive")
    legs = (Leg(id="idle", name="At a light", kind="idle", lasts=quantity("20 min", "minutes")),)
    return added(do.build, WHERE, Schedule(id=ident, name=name, begins="warm", legs=legs), do.act.label)


def _copy_schedule(do: Doing) -> Edit:
    was, present = schedule_of(do), do.build.driving.schedules
    name = fresh_name((one.name for one in present), f"{was.name or was.id}, changed")
    return added(do.build, WHERE, was.model_copy(update={"id": fresh_id(present, "drive"), "name": name}), do.act.label)


def _from_case(do: Doing) -> Edit:
    """A schedule that runs a duty case."""
    case = do.build.duty_case(do.given("case"))
    present = do.build.driving.schedules
    leg = leg_of(case)
    schedule = Schedule(id=fresh_id(present, "drive"), name=case.name or case.id, begins="warm", legs=(leg,))
    return added(do.build, WHERE, schedule, do.act.label)


def leg_of(case: DutyCase) -> Leg:
    """A duty case as a leg of half an hour."""
    stops = case.stops_per_km.si / 1000.0
    kind = {"idle": "idle", "full_power": "pull"}.get(case.demand, "stops" if stops > 0 else "hold")
    leg = Leg(
        id="leg",
        name=case.name,
        kind=kind,  # type: ignore[arg-type]
        lasts=quantity("30 min", "minutes"),
        speed=case.speed,
        grade=_held(case.grade.si),
        towed=case.towed_mass,
        gear_step=case.gear_step,
        rpm=case.rpm,
        ac_on=case.ac_on,
        in_gear=case.in_gear,
        ambient=case.ambient,
    )
    if kind != "stops":
        return leg
    # A stop every so far: what is not stood is gone in, at twice the mean speed at the most.
    every = 1 / (stops * max(case.speed.si, 0.5))
    stands = min(13.0, 0.6 * every)
    goes = every - stands
    top = min(2 * case.speed.si, 1.6 * every * case.speed.si / goes)
    return leg.model_copy(
        update={
            "stands": quantity(f"{stands / 60:.3g} min", "minutes", "derived"),
            "goes": quantity(f"{goes / 60:.3g} min", "minutes", "derived"),
            "speed": quantity(f"{top * 3.6:.3g} km/h", "speed", "derived"),
        }
    )


def _moment_case(do: Doing) -> Edit:
    """A duty case of what is asked at a moment of a drive: steady, so that its figures and its air can be seen."""
    schedule, at = schedule_of(do), do.number("at")
    moments, begins = moments_of(do.build, schedule), 0.0
    moment = moments[-1]
    for moment in moments:
        if begins <= at < begins + moment.lasts:
            break
        begins += moment.lasts
    if not moment.alive:
        raise InputError("key_is_off", "With the key off nothing is asked of the engine: no duty case is like it")
    leg, cases, day = schedule.legs[moment.leg], do.build.duty_cases, moment.ambient
    stands = leg.kind == "idle" or moment.speed < CREEPS
    name = fresh_name((case.name for case in cases), f"{schedule.name or schedule.id}, {round(at / 60)} min")
    case = DutyCase(
        id=fresh_id(cases, "case"),
        name=name,
        speed=quantity("0 mph", "speed") if stands else quantity(f"{moment.speed * 3.6:.4g} km/h", "speed", "derived"),
        grade=_held(0.0 if stands else moment.slope),
        ambient=None if day is None else quantity(f"{day:.4g} °C", "temperature", "derived"),
        counted=False,
        **asked_in(leg, stands, moment.ac),
    )
    return added(do.build, ("duty_cases",), case, do.act.label)


def _held(grade: float) -> Quantity:
    return quantity(f"{100 * min(max(grade, -0.3), 0.5):.4g} %", "share", "derived")


def _add_leg(do: Doing) -> Edit:
    schedule = schedule_of(do)
    last = schedule.legs[-1] if schedule.legs else None
    ident = fresh_id(schedule.legs, "leg")
    leg = Leg(id=ident, name=f"Leg {len(schedule.legs) + 1}")
    if last is not None:
        leg = leg.model_copy(update={"ac_on": last.ac_on, "towed": last.towed, "speed": last.speed})
    return added(do.build, (*WHERE, schedule.id, "legs"), leg, do.act.label)


def _usual(do: Doing) -> Edit:
    """The usual schedules that are not there."""
    present = {one.id for one in do.build.driving.schedules}
    more = tuple(one for one in usual_schedules() if one.id not in present)
    if not more:
        raise InputError("schedules_there", "The usual schedules are all there")
    return Edit(do.act.label, (Change(WHERE, (*do.build.driving.schedules, *more)),))


CREEPS = 0.5
"""[m/s] under which a car stands."""
KINDS = (
    ActKind("add_schedule", "A drive to describe", _add_schedule, "Add a drive"),
    ActKind("copy_schedule", "A drive more, like one there is", _copy_schedule, "Copy this drive"),
    ActKind("drive_case", "A duty case as a drive", _from_case, "Drive a duty case"),
    ActKind("moment_case", "A moment of a drive as a duty case, for information", _moment_case, "Look at this moment"),
    ActKind("add_leg", "A leg more at the end of a drive", _add_leg, "Add a leg", first="name"),
    ActKind("usual_schedules", "The usual drives that are not there", _usual, "Add the usual drives"),
)
