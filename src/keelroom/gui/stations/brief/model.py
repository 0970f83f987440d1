"""The Brief station's form: vehicle, engine, accessories, climate and cooling, symptoms, duty cases."""

from __future__ import annotations

from keelroom.assess.acts.registry import offer
from keelroom.document.schema.build import Build, DutyCase
from keelroom.gui.rows import Group, Page, Row, quantities
from keelroom.units import KINDS, format_si

GEARBOXES = (("manual", "Manual"), ("automatic", "Automatic"))
KINDS_OF_ENGINE = (
    ("carburetted", "Older, carburetted"),
    ("injected", "Port injected"),
    ("modern", "Modern, high compression"),
    ("boosted", "Boosted petrol"),
    ("diesel", "Diesel"),
)
SEEN = (("", "Not looked at"), ("fine", "Stayed, or never ran hot"), ("hot", "Climbed, ran hot"))
DEMANDS = (("idle", "Idling"), ("road_load", "Road load"), ("full_power", "Full power"))
SYMPTOMS = (
    ("climbs_at_idle", "Climbs at a light"),
    ("climbs_with_ac", "Climbs with the A/C on"),
    ("climbs_at_speed", "Climbs at speed"),
    ("climbs_on_grade", "Climbs on a grade"),
    ("loses_coolant", "Loses coolant"),
    ("slow_warm_up", "Slow to warm up"),
    ("heater_cold", "Heater stays cold"),
)


def pages(build: Build, system: str) -> tuple[Page, ...]:
    """The pages in the order the work is done."""
    brief = ("brief",)
    vehicle, engine, accessories = (*brief, "vehicle"), (*brief, "engine"), (*brief, "accessories")
    climate, cooling = (*brief, "climate"), (*brief, "cooling")
    control = ("packages", build.active, "control")
    return (
        Page(
            "Vehicle",
            (
                Group("Build", (Row("text", (*brief, "title"), "Title"), Row("text", (*brief, "use"), "Use"))),
                Group(
                    "Vehicle",
                    (
                        Row("text", (*vehicle, "name"), "Vehicle"),
                        *quantities(vehicle, "mass", "drag_area", "rolling", "tyre_diameter"),
                        Row("choice", (*vehicle, "gearbox"), "Gearbox", GEARBOXES),
                        *quantities(vehicle, "top_ratio", "final_drive", "driveline_efficiency"),
                    ),
                ),
                Group("Openings for the air", quantities(vehicle, "grille_area", "exit_area")),
            ),
            leading=(("From a kind of vehicle…", "vehicle_kind"),),
        ),
        Page(
            "Engine",
            (
                Group(
                    "Engine",
                    (
                        Row("text", (*engine, "name"), "Engine"),
                        *quantities(engine, "displacement", "cylinders"),
                        Row("choice", (*engine, "kind"), "Kind of engine", KINDS_OF_ENGINE),
                        *quantities(
                            engine,
                            "power",
                            "power_rpm",
                            "boost",
                            "idle_rpm",
                            "pump_flow",
                            "heat_multiplier",
                            "bay_heat",
                        ),
                    ),
                ),
                Group(
                    "Accessories",
                    (
                        Row("flag", (*accessories, "ac_fitted"), "A/C fitted"),
                        *quantities(
                            accessories,
                            "ac_idle_power",
                            "ac_road_power",
                            "ac_cop",
                            "steering_power",
                            "alternator_efficiency",
                        ),
                    ),
                    rare=True,
                ),
            ),
            leading=(("From a kind of engine…", "engine_kind"),),
        ),
        Page(
            "Limits",
            (
                Group("Hottest day", quantities(climate, "ambient", "altitude", "humidity", "asphalt_rise")),
                Group(
                    "Limit",
                    quantities(cooling, "limit"),
                ),
                Group(
                    "Set points",
                    quantities(control, "fan_on", "fan_off"),
                    note="Of the package in use: packages may differ in it. Thermostat, cap and coolant are at Loop.",
                ),
            ),
        ),
        Page(
            "Before",
            (
                Group(
                    "What was wrong before",
                    (Row("set", (*brief, "symptoms"), "Symptoms", SYMPTOMS),),
                    note="Cheap causes come first: an air lock is not cured by a fan. Each mark brings its checks "
                    "to the Causes page.",
                ),
                Group(
                    "What it did, case by case",
                    tuple(row for case in build.duty_cases for row in _seen_rows(case)),
                    note="Of the car as found. What it did not do counts as much: the Explain page holds every cheap "
                    "cause against both.",
                ),
                Group("", (Row("notes", (*brief, "notes"), "Notes"),)),
            ),
        ),
        Page("Explain", ()),
        Page("Causes", ()),
        Page(
            "Duty cases",
            tuple(_case_group(case.id, case.name) for case in build.duty_cases),
            (("Add a duty case", offer("add_case")), ("Make them from the brief", offer("usual_cases"))),
            brief=lambda path: case_words(next(case for case in build.duty_cases if case.id == path[-1]), system),
        ),
    )


def case_words(case: DutyCase, system: str) -> str:
    """A duty case in a few words."""
    speed = format_si(case.speed.si, KINDS["speed"], system) if case.speed and case.speed.si > 0 else ""
    words = (
        dict(DEMANDS)[case.demand].lower(),
        speed,
        f"{case.grade.si:.0%} up" if case.grade.si > 0 else "",
        "towing" if case.towed_mass.si > 0 else "",
        "A/C on" if case.ac_on else "",
        "" if case.counted else "for information",
    )
    return ", ".join(word for word in words if word)


def _seen_rows(case: DutyCase) -> tuple[Row, ...]:
    """What the car did in one duty case before the work; what was read, where something was seen."""
    path, name = ("duty_cases", case.id), case.name or "Duty case"
    did = Row("choice", (*path, "seen"), name, SEEN)
    return (did, *quantities(path, "seen_at", "seen_for", "seen_day", of=name)) if case.seen else (did,)


def _case_group(ident: str, name: str) -> Group:
    path = ("duty_cases", ident)
    rows = (
        Row("text", (*path, "name"), "Name"),
        Row("choice", (*path, "demand"), "Demand", DEMANDS),
        *quantities(path, "speed", "grade", "towed_mass", "gear_step", "rpm", "stops_per_km", "ambient"),
        Row("flag", (*path, "counted"), "Counts: the package must hold it"),
        Row("flag", (*path, "ac_on"), "A/C on"),
        Row("flag", (*path, "in_gear"), "In gear while standing (automatic)"),
    )
    return Group(name or "Duty case", rows, remove=path)
