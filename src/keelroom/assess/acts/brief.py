"""Acts on the brief: a usual vehicle or engine to begin from, duty cases, causes looked at."""

from __future__ import annotations

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.causes import marked, state_of
from keelroom.assess.defaults import (
    default_duty_cases,
    usual_compressor,
    usual_converter,
    usual_limit,
    usual_pulley,
    usual_redline,
    usual_wired,
)
from keelroom.assess.faults import faults_of
from keelroom.assess.mended import as_found, check_of, mending
from keelroom.document.edits import Change, Edit, added, fresh_id, set_value
from keelroom.document.fields import measured_fields
from keelroom.document.quantity import Quantity, quantity
from keelroom.document.schema.brief import CauseCheck, Engine, Vehicle
from keelroom.document.schema.build import Build, DutyCase
from keelroom.errors import InputError


def engine_edit(build: Build, engine: Engine, label: str) -> Edit:
    """Put another engine into the brief; redline, pulley, loads, alternator and compressor nobody typed go with it."""
    changes = [Change(("brief", "engine"), engine)]
    redline = usual_redline(engine)
    if redline and build.supply.redline.origin in ("assumed", "derived"):
        changes.append(Change(("supply", "redline"), quantity(redline, "turning speed", "derived")))
        supply = build.supply
        if supply.speed_limit.origin == "assumed":
            limit = quantity(usual_limit(engine), "turning speed")
            supply = supply.model_copy(update={"speed_limit": limit})
            changes.append(Change(("supply", "speed_limit"), limit))
        pulley = usual_pulley(engine, supply)
        if pulley and build.supply.pulley_ratio.origin in ("assumed", "derived"):
            changes.append(Change(("supply", "pulley_ratio"), quantity(pulley, "number", "derived")))
    loads, rating = usual_wired(engine)
    if all(load.power.origin == "assumed" for load in build.supply.loads):
        changes.append(Change(("supply", "loads"), loads))
    idle, road = usual_compressor(engine)
    usual = (
        ("alternator_rating", rating, "current"),
        ("ac_idle_power", idle, "power"),
        ("ac_road_power", road, "power"),
    )
    for field, text, kind in usual:
        present = getattr(build.brief.accessories, field)
        if text and present is not None and present.origin == "assumed":
            changes.append(Change(("brief", "accessories", field), quantity(text, kind)))
    vehicle = with_converter(build.brief.vehicle, engine)
    if vehicle is not build.brief.vehicle:
        changes.append(Change(("brief", "vehicle"), vehicle))
    return Edit(label, tuple(changes))


def with_converter(vehicle: Vehicle, engine: Engine) -> Vehicle:
    """A vehicle with the converter such an engine has, where nobody typed one."""
    usual, present = usual_converter(engine), vehicle.converter_factor
    if usual is None or (present is not None and present.origin not in ("assumed", "derived")):
        return vehicle
    return vehicle.model_copy(update={"converter_factor": quantity(usual, "number", "derived")})


def measured_in(section: Vehicle | Engine) -> dict[str, tuple[str, Quantity]]:
    """What was measured of a vehicle or an engine: by field, its label and value."""
    return {
        path[-1]: (spec.label, value)
        for path, spec, value in measured_fields(section)
        if value is not None and value.origin == "measured"
    }


def _usual(do: Doing) -> Edit:
    from keelroom.catalogue.load import engines, vehicles

    section, name = do.given("section"), do.given("name")
    kinds: dict[str, tuple[Vehicle | Engine, ...]] = {"vehicle": vehicles(), "engine": engines()}
    kind = next((one for one in kinds.get(section, ()) if one.name == name), None)
    if kind is None:
        raise InputError("no_such_kind", f"No usual {section} is called “{name}”")
    if dict(do.act.given).get("keep"):
        present = getattr(do.build.brief, section)
        kept: dict[str, object] = {field: value for field, (_, value) in measured_in(present).items()}
        kind = kind.model_copy(update=kept | ({"name": present.name} if present.name else {}))
    if isinstance(kind, Engine):
        return engine_edit(do.build, kind, do.act.label)
    return set_value(("brief", "vehicle"), with_converter(kind, do.build.brief.engine), do.act.label)


def _add_case(do: Doing) -> Edit:
    cases = do.build.duty_cases
    case = DutyCase(id=fresh_id(cases, "case"), name=f"Duty case {len(cases) + 1}")
    return added(do.build, ("duty_cases",), case, "Add a duty case")


def _cause(do: Doing) -> Edit:
    """What became of a cause that was looked at. What was entered of one goes back when it is mended, or was none."""
    state, cause = do.given("state"), do.given("cause")
    if state not in ("open", "fine", "mended"):
        raise InputError("act_incomplete", f"A cause is open, fine or mended, not “{state}”")
    said = marked(do.build.brief, CauseCheck(id=cause, state=state))  # type: ignore[arg-type]
    was_found = state_of(do.build.brief, cause) == "found"
    back = mending(do.build, as_found(do.build), cause) if state == "mended" or was_found else ()
    return Edit(do.act.label, (Change(("brief", "causes"), said), *back))


def _enter_cause(do: Doing) -> Edit:
    """A cause that was found, as entries of the car as found."""
    package = as_found(do.build)
    if package is None:
        raise InputError("act_incomplete", "There is no package to enter it in")
    cause, size = do.given("cause"), do.given("size")
    fault = next((one for one in faults_of(do.build, package) if (one.cause, one.size) == (cause, size)), None)
    if fault is None or not fault.changes:
        raise InputError("act_incomplete", f"This build cannot have “{cause}: {size}” entered")
    said = marked(do.build.brief, check_of(do.build, fault))
    # What was found is the car's as it came: a copy of it is planned without.
    is_it = Change(("packages", package.id, "kind"), "as_found")
    known = () if package.kind == "as_found" else (is_it,)
    return Edit(do.act.label, (Change(("brief", "causes"), said), *known, *fault.changes))


KINDS = (
    ActKind("usual_kind", "A usual vehicle or engine to begin from", _usual),
    ActKind("add_case", "A duty case to describe", _add_case, "Add a duty case"),
    ActKind(
        "usual_cases",
        "The usual duty cases made anew from the brief as it stands",
        lambda do: set_value(("duty_cases",), default_duty_cases(do.build.brief), do.act.label),
        "Make duty cases from the brief",
        rests_on=(("brief", "engine", "idle_rpm"), ("brief", "engine", "power_rpm")),
    ),
    ActKind("cause", "What was found of a cause that was looked at", _cause),
    ActKind("enter_cause", "A cause that was found, entered in the car as found", _enter_cause),
)
