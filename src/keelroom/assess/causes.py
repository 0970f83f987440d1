"""Cheap causes first: what to rule out before any part is bought, by symptom. Common practice, no published source."""

from __future__ import annotations

from typing import Literal, NamedTuple

from keelroom.document.schema.brief import Brief, CauseCheck, CauseState

Risk = Literal["cold", "hot", "running"]
RISKS: dict[Risk, tuple[str, float]] = {
    "cold": ("engine off", 1.0),
    "hot": ("hot parts", 1.3),
    "running": ("something turns", 1.5),
}
"""In words, and the times its minutes count of a look that can hurt (common practice, no source)."""


class Cause(NamedTuple):
    """One cheap cause: what it looks like, how to test it, and the symptoms it would explain, the likeliest first.

    often : share of cars that run hot which have it, before anything is known;  minutes a look takes (both common
    practice, no source);  risk : how the car stands for it
    """

    id: str
    name: str
    looks_like: str
    test: str
    explains: tuple[str, ...]
    often: float
    minutes: float
    risk: Risk


CAUSES = (
    Cause(
        "air_lock",
        "Air trapped in the system",
        "Temperature jumps up and down, gurgling behind the dash, heater goes cold, a hot top and a cold "
        "bottom of the core.",
        "Cold engine: open the highest point and fill by funnel or vacuum. Warm it up, let it cool, top up, "
        "repeat until the level stands. Never open a hot cap.",
        ("heater_cold", "climbs_at_idle", "loses_coolant", "climbs_at_speed", "climbs_with_ac", "climbs_on_grade"),
        0.08,
        40,
        "hot",
    ),
    Cause(
        "vent_ports",
        "Steam or vent ports not plumbed",
        "Overheats after a swap although everything is new; one bank or the rear cylinders run hot.",
        "Find every vent port of the heads and follow its line up to the tank or upper hose; blocked or "
        "capped ones trap steam.",
        ("climbs_at_speed", "climbs_on_grade", "heater_cold", "climbs_at_idle"),
        0.03,
        20,
        "cold",
    ),
    Cause(
        "thermostat",
        "Thermostat fitted backwards or stuck",
        "Slow climb with a cold core, or never warm. The spring belongs on the engine side.",
        "Pull it: spring towards the engine, vent hole at the top. In a pot of water with a thermometer it "
        "opens at its rating.",
        ("climbs_at_speed", "slow_warm_up", "climbs_on_grade", "heater_cold"),
        0.06,
        45,
        "cold",
    ),
    Cause(
        "hoses",
        "Collapsed or old hoses",
        "Climbs with engine speed and falls back off the throttle: the suction hose goes flat.",
        "A helper holds 3 000 rpm: watch the lower hose from the side, clear of fan and belt. Cold: soft, swollen or "
        "20 years old: replace; a spring inside keeps a suction hose open.",
        ("climbs_at_speed", "climbs_on_grade", "loses_coolant"),
        0.03,
        10,
        "running",
    ),
    Cause(
        "cap",
        "Weak or wrong cap",
        "Loses coolant into the overflow, boils early, hose flat when cold.",
        "Cold: pressure-test cap and system with regulated air at or under the cap's rating. Never a higher "
        "cap than the weakest part allows.",
        ("loses_coolant", "climbs_at_idle", "climbs_on_grade"),
        0.03,
        15,
        "cold",
    ),
    Cause(
        "pump",
        "Worn pump impeller or slipping belt",
        "Climbs at idle and on a grade, heater lukewarm at a light and warm on the road.",
        "Cold: belt tension, and the pulley turned by hand for play. Warmed up with the cap on: infrared gun on upper "
        "and lower hose at 2,000 rpm from the side; far apart with the thermostat open is little flow. Pull the pump.",
        ("climbs_at_idle", "climbs_on_grade", "heater_cold", "climbs_with_ac"),
        0.05,
        20,
        "running",
    ),
    Cause(
        "fan_direction",
        "Fan turning the wrong way",
        "Fine at speed, hot at a light; the fan runs yet hardly any air comes out behind it.",
        "Engine off, fan on by its switch or on fused leads: a sheet of paper must stick to the front of the core. "
        "Hands out of the shroud.",
        ("climbs_at_idle", "climbs_with_ac"),
        0.04,
        5,
        "running",
    ),
    Cause(
        "sealing",
        "Air goes round the core",
        "Hot at a light, worse with the A/C on; warm air blows out of the grille while standing.",
        "Engine idling: a thermometer or a strip of tissue on a stick at the grille and along the core's front edge, "
        "in front of it only. Close gaps with strips, foam and a top panel.",
        ("climbs_at_idle", "climbs_with_ac", "climbs_at_speed"),
        0.12,
        10,
        "running",
    ),
    Cause(
        "timing",
        "Ignition timing or mixture",
        "Runs hot everywhere after a tune; exhaust glows.",
        "Check base timing and that the advance works; a lean or retarded idle heats the coolant.",
        ("climbs_at_idle", "climbs_at_speed", "climbs_on_grade"),
        0.06,
        15,
        "running",
    ),
    Cause(
        "fan_dead",
        "A fan that stands or slips",
        "Fine at speed, hot at a light; one fan of a pair stands still, or one of the engine turns by hand too freely.",
        "Engine off, key on, A/C on or the fan's switch bridged on fused leads: each fan has to spin and blow to the "
        "rear. Hands out of the shroud: it starts without warning.",
        ("climbs_at_idle", "climbs_with_ac"),
        0.08,
        5,
        "running",
    ),
    Cause(
        "fan_volts",
        "Fan starved of volts",
        "The fan runs, slower than it did; hot at a light, worse with lamps and A/C on.",
        "Everything on at idle: meter across the fan's own plug, then across the battery. More than half a volt "
        "between them is wire, plug or ground; little at the battery is the alternator.",
        ("climbs_at_idle", "climbs_with_ac"),
        0.06,
        10,
        "running",
    ),
    Cause(
        "blocked",
        "Core or condenser stopped with dirt",
        "Climbs everywhere, slowly worse over the years; little air behind a fan that runs well.",
        "Cold: a lamp behind the core, looked at from the front, between condenser and core too. Rinse from the rear "
        "with little pressure.",
        ("climbs_at_speed", "climbs_on_grade", "climbs_at_idle", "climbs_with_ac"),
        0.08,
        10,
        "cold",
    ),
    Cause(
        "scale",
        "Scale or sludge in the core",
        "Climbs on the road and on grades; cold patches over the core's face once it is warm.",
        "Warmed up, fans unplugged for the minute it takes, from the front: infrared gun over the face. Cold rows are "
        "shut. Cold engine: through the neck, tubes that are white or brown.",
        ("climbs_at_speed", "climbs_on_grade", "climbs_at_idle"),
        0.07,
        15,
        "hot",
    ),
    Cause(
        "shroud_off",
        "Shroud missing or not down on the core",
        "Hot at a light, fine at speed; the fan blows across itself.",
        "Engine off: a hand's width between shroud and core anywhere, or none fitted, is it.",
        ("climbs_at_idle", "climbs_with_ac"),
        0.05,
        2,
        "cold",
    ),
    Cause(
        "mix",
        "Too much glycol",
        "A little hot everywhere; the tester shows far more than half.",
        "Cold engine, a drop in a refractometer: half and half freezes at −37 °C (−34 °F).",
        ("climbs_on_grade", "climbs_at_speed", "climbs_at_idle"),
        0.03,
        5,
        "cold",
    ),
    Cause(
        "hot_air",
        "Hot air at the grille",
        "Worse in traffic and over hot ground than the weather explains.",
        "A thermometer on a stick at the grille while it stands: more than 10 K over the weather's is air that has "
        "been through the bay, or another car's.",
        ("climbs_at_idle", "climbs_with_ac"),
        0.08,
        5,
        "running",
    ),
    Cause(
        "brakes",
        "A brake that drags",
        "Hot on the road, thirsty, one wheel hot.",
        "After a drive, infrared gun at each wheel from outside: one far hotter drags. On stands it does not turn by "
        "hand.",
        ("climbs_at_speed", "climbs_on_grade"),
        0.02,
        10,
        "hot",
    ),
    Cause(
        "gearbox",
        "Gearbox that slips",
        "Hot on the road and on grades, revs higher than they were; its fluid dark, and smells burnt.",
        "On a level road in top: the revs fall by 200 to 400 where the converter locks, and answer the pedal as in a "
        "manual. Fluid level warm, engine idling, by the dipstick: colour and smell.",
        ("climbs_on_grade", "climbs_at_speed"),
        0.03,
        15,
        "running",
    ),
    Cause(
        "gauge",
        "Gauge that reads high",
        "The needle is hot, the engine does not smell, ping or boil.",
        "Warmed up: infrared gun on the thermostat's housing, or the engine computer's own reading, beside the needle.",
        ("climbs_at_idle", "climbs_at_speed", "climbs_on_grade", "climbs_with_ac"),
        0.08,
        5,
        "hot",
    ),
)

STATE_WORDS: dict[CauseState, str] = {
    "open": "not looked at",
    "fine": "looked at, fine",
    "found": "found, entered in the car as found",
    "mended": "found and mended",
}


def causes_for(brief: Brief) -> tuple[Cause, ...]:
    """The causes that could explain the brief's symptoms, the likeliest first; none where there is no symptom."""
    ranks: dict[str, int] = {}
    for cause in CAUSES:
        places = [cause.explains.index(symptom) for symptom in brief.symptoms if symptom in cause.explains]
        if places:
            ranks[cause.id] = min(places) * 10 - len(places)
    return tuple(sorted((cause for cause in CAUSES if cause.id in ranks), key=lambda cause: ranks[cause.id]))


def checked(brief: Brief, cause_id: str) -> CauseCheck | None:
    """What is noted of one cause; None where nobody looked."""
    return next((check for check in brief.causes if check.id == cause_id), None)


def state_of(brief: Brief, cause_id: str) -> CauseState:
    """What became of one cause."""
    check = checked(brief, cause_id)
    return check.state if check else "open"


def marked(brief: Brief, check: CauseCheck) -> tuple[CauseCheck, ...]:
    """The brief's causes with one marked."""
    others = tuple(one for one in brief.causes if one.id != check.id)
    return others if check.state == "open" else (*others, check)


def open_causes(brief: Brief) -> tuple[Cause, ...]:
    """Causes of the brief's symptoms that nobody has looked at."""
    return tuple(cause for cause in causes_for(brief) if state_of(brief, cause.id) == "open")
