"""Cheap causes first: what to rule out before any part is bought, by symptom. Common practice, no published source."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.document.schema.brief import Brief, CauseCheck, CauseState


class Cause(NamedTuple):
    """One cheap cause: what it looks like, how to test it, and the symptoms it would explain, the likeliest first."""

    id: str
    name: str
    looks_like: str
    test: str
    explains: tuple[str, ...]


CAUSES = (
    Cause(
        "air_lock",
        "Air trapped in the system",
        "Temperature jumps up and down, gurgling behind the dash, heater goes cold, a hot top and a cold "
        "bottom of the core.",
        "Cold engine: open the highest point and fill by funnel or vacuum. Warm it up, let it cool, top up, "
        "repeat until the level stands. Never open a hot cap.",
        ("heater_cold", "climbs_at_idle", "loses_coolant", "climbs_at_speed", "climbs_with_ac", "climbs_on_grade"),
    ),
    Cause(
        "vent_ports",
        "Steam or vent ports not plumbed",
        "Overheats after a swap although everything is new; one bank or the rear cylinders run hot.",
        "Find every vent port of the heads and follow its line up to the tank or upper hose; blocked or "
        "capped ones trap steam.",
        ("climbs_at_speed", "climbs_on_grade", "heater_cold", "climbs_at_idle"),
    ),
    Cause(
        "thermostat",
        "Thermostat fitted backwards or stuck",
        "Slow climb with a cold core, or never warm. The spring belongs on the engine side.",
        "Pull it: spring towards the engine, vent hole at the top. In a pot of water with a thermometer it "
        "opens at its rating.",
        ("climbs_at_speed", "slow_warm_up", "climbs_on_grade", "heater_cold"),
    ),
    Cause(
        "hoses",
        "Collapsed or old hoses",
        "Climbs with engine speed and falls back off the throttle: the suction hose goes flat.",
        "A helper holds 3 000 rpm: watch the lower hose from the side, clear of fan and belt. Cold: soft, swollen or "
        "20 years old: replace; a spring inside keeps a suction hose open.",
        ("climbs_at_speed", "climbs_on_grade", "loses_coolant"),
    ),
    Cause(
        "cap",
        "Weak or wrong cap",
        "Loses coolant into the overflow, boils early, hose flat when cold.",
        "Cold: pressure-test cap and system with regulated air at or under the cap's rating. Never a higher "
        "cap than the weakest part allows.",
        ("loses_coolant", "climbs_at_idle", "climbs_on_grade"),
    ),
    Cause(
        "pump",
        "Worn pump impeller or slipping belt",
        "Climbs at idle and on a grade, heater lukewarm at a light and warm on the road.",
        "Cold: belt tension, and the pulley turned by hand for play. Warmed up with the cap on: infrared gun on upper "
        "and lower hose at 2,000 rpm from the side; far apart with the thermostat open is little flow. Pull the pump.",
        ("climbs_at_idle", "climbs_on_grade", "heater_cold", "climbs_with_ac"),
    ),
    Cause(
        "fan_direction",
        "Fan turning the wrong way",
        "Fine at speed, hot at a light; the fan runs yet hardly any air comes out behind it.",
        "Engine off, fan on by its switch or on fused leads: a sheet of paper must stick to the front of the core. "
        "Hands out of the shroud.",
        ("climbs_at_idle", "climbs_with_ac"),
    ),
    Cause(
        "sealing",
        "Air goes round the core",
        "Hot at a light, worse with the A/C on; warm air blows out of the grille while standing.",
        "Engine idling: a thermometer or a strip of tissue on a stick at the grille and along the core's front edge, "
        "in front of it only. Close gaps with strips, foam and a top panel.",
        ("climbs_at_idle", "climbs_with_ac", "climbs_at_speed"),
    ),
    Cause(
        "timing",
        "Ignition timing or mixture",
        "Runs hot everywhere after a tune; exhaust glows.",
        "Check base timing and that the advance works; a lean or retarded idle heats the coolant.",
        ("climbs_at_idle", "climbs_at_speed", "climbs_on_grade"),
    ),
)

STATE_WORDS: dict[CauseState, str] = {"open": "not looked at", "fine": "looked at, fine", "mended": "found and mended"}


def causes_for(brief: Brief) -> tuple[Cause, ...]:
    """The causes that could explain the brief's symptoms, the likeliest first; none where there is no symptom."""
    ranks: dict[str, int] = {}
    for cause in CAUSES:
        places = [cause.explains.index(symptom) for symptom in brief.symptoms if symptom in cause.explains]
        if places:
            ranks[cause.id] = min(places) * 10 - len(places)
    return tuple(sorted((cause for cause in CAUSES if cause.id in ranks), key=lambda cause: ranks[cause.id]))


def state_of(brief: Brief, cause_id: str) -> CauseState:
    """What became of one cause."""
    return next((check.state for check in brief.causes if check.id == cause_id), "open")


def marked(brief: Brief, cause_id: str, state: CauseState) -> tuple[CauseCheck, ...]:
    """The brief's causes with one marked."""
    others = tuple(check for check in brief.causes if check.id != cause_id)
    return others if state == "open" else (*others, CauseCheck(id=cause_id, state=state))


def open_causes(brief: Brief) -> tuple[Cause, ...]:
    """Causes of the brief's symptoms that nobody has looked at."""
    return tuple(cause for cause in causes_for(brief) if state_of(brief, cause.id) == "open")
