"""From older format versions to today's, raw dict to raw dict, never through today's classes."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

Raw = dict[str, Any]


def opening_to_survey(raw: Raw) -> Raw:
    """Version 2: the panel opening is the survey's; version 1 kept it with the vehicle."""
    brief = raw.get("brief")
    vehicle = brief.get("vehicle") if isinstance(brief, dict) else None
    opening: Raw = {}
    if isinstance(brief, dict) and isinstance(vehicle, dict):
        opening = {side: vehicle[f"opening_{side}"] for side in ("width", "height") if f"opening_{side}" in vehicle}
        kept = {
            name: value
            for name, value in vehicle.items()
            if name.removeprefix("opening_") not in opening or not name.startswith("opening_")
        }
        raw = raw | {"brief": brief | {"vehicle": kept}}
    return raw | {"version": 2} | ({"survey": {"opening": opening}} if opening else {})


def drop_to_circuits(raw: Raw) -> Raw:
    """Version 3: a fan's lost volts are its circuit's, all other electrical load is listed, voltages are measured or
    worked out."""
    brief, packages = raw.get("brief"), raw.get("packages")
    accessories = brief.get("accessories") if isinstance(brief, dict) else None
    changed: Raw = {"version": 3}
    if isinstance(brief, dict) and isinstance(accessories, dict):
        assumed = [name for name in ("idle_voltage", "road_voltage") if not _measured(accessories.get(name))]
        kept = {name: value for name, value in accessories.items() if name not in (*assumed, "electrical_load")}
        changed["brief"] = brief | {"accessories": kept}
        if isinstance(accessories.get("electrical_load"), dict):
            changed["supply"] = {
                "loads": [{"id": "other", "name": "Everything but the fans", "power": accessories["electrical_load"]}]
            }
    if isinstance(packages, list):
        changed["packages"] = [_with_circuits(package) for package in packages]
    if isinstance(raw.get("own_fans"), list):
        changed["own_fans"] = [_without_drop(fan) for fan in raw["own_fans"]]
    return raw | changed


def _measured(value: Any) -> bool:
    return isinstance(value, dict) and value.get("origin") == "measured"


def _without_drop(fan: Any) -> Any:
    return {name: value for name, value in fan.items() if name != "wire_drop"} if isinstance(fan, dict) else fan


def _with_circuits(package: Any) -> Any:
    fans = package.get("fans") if isinstance(package, dict) else None
    if not isinstance(package, dict) or not isinstance(fans, list):
        return package
    dropped = [
        fan for fan in fans if isinstance(fan, dict) and isinstance(fan.get("wire_drop"), dict) and fan.get("id")
    ]
    circuits = [
        {"id": f"circuit{k}", "name": f"Fan {k}", "feeds": [fan["id"]], "measured_drop": fan["wire_drop"]}
        for k, fan in enumerate(dropped, 1)
    ]
    return package | {"fans": [_without_drop(fan) for fan in fans], "circuits": circuits}


def kinds_of_engine(raw: Raw) -> Raw:
    """Version 4: an engine has a kind, of which the fuel was a part; charge cables may have a fuse, shrouds come made
    or bought."""
    brief = raw.get("brief")
    engine = brief.get("engine") if isinstance(brief, dict) else None
    if not isinstance(brief, dict) or not isinstance(engine, dict):
        return raw | {"version": 4}
    boost = engine.get("boost")
    boosted = isinstance(boost, dict) and isinstance(boost.get("si"), (int, float)) and boost["si"] > 1e3
    kind = "diesel" if engine.get("fuel") == "diesel" else "boosted" if boosted else "injected"
    kept = {name: value for name, value in engine.items() if name != "fuel"}
    return raw | {"version": 4, "brief": brief | {"engine": kept | {"kind": kind}}}


TO_LOOP = ("thermostat", "thermostat_place", "cap_pressure")
TO_COOLANT = ("glycol", "glycol_share")
TO_CONTROL = ("fan_on", "fan_off")


def circuit_to_packages(raw: Raw) -> Raw:
    """Version 5: pump, thermostat, cap, hoses, coolant and set points are chosen per package; the brief keeps the
    limit."""
    brief, packages = raw.get("brief"), raw.get("packages")
    if not isinstance(brief, dict):
        return raw | {"version": 5}
    # What is no section stays where it is, and is refused there.
    sections = {name: section for name in ("cooling", "loop") if isinstance(section := brief.get(name), dict)}
    cooling = sections.get("cooling", {})
    moved = {
        "loop": sections.get("loop", {}) | _only(cooling, TO_LOOP),
        "coolant": _only(cooling, TO_COOLANT),
        "control": _only(cooling, TO_CONTROL),
    }
    kept = {name: value for name, value in brief.items() if name not in sections}
    if cooling:
        kept["cooling"] = {
            name: value for name, value in cooling.items() if name not in (*TO_LOOP, *TO_COOLANT, *TO_CONTROL)
        }
    changed: Raw = {"version": 5, "brief": kept}
    if isinstance(packages, list):
        changed["packages"] = [_with_sections(package, moved) for package in packages]
    return raw | changed


def _only(section: Raw, names: tuple[str, ...]) -> Raw:
    return {name: section[name] for name in names if name in section}


def _with_sections(package: Any, moved: dict[str, Raw]) -> Any:
    """A package with what was the brief's in its own sections; what it says itself stands."""
    if not isinstance(package, dict) or not all(isinstance(package.get(name, {}), dict) for name in moved):
        return package
    return package | {
        name: section | package.get(name, {}) for name, section in moved.items() if section or name in package
    }


def coolers_in_one_list(raw: Raw) -> Raw:
    """Version 6: what stands ahead of the core and a cooler hung away from it are coolers in one list."""
    packages = raw.get("packages")
    if not isinstance(packages, list):
        return raw | {"version": 6}
    return raw | {"version": 6, "packages": [_with_coolers(package) for package in packages]}


REMOTE = {
    "name": "Gearbox cooler",
    "width": ("11 in", 0.2794),
    "height": ("6 in", 0.1524),
    "fitting": "elbow_90",
    "fitting_room": ("1 1/2 in", 0.0381),
    "bottom": ("-4 in", -0.1016),
}
"""what version 5 took a cooler hung away from the core for, where nothing was entered"""
KEPT = (
    "name",
    "width",
    "height",
    "bottom",
    "spacer",
    "side_room",
    "fitting",
    "fitting_room",
    "fan_power",
    "fan_voltage",
)


def _with_coolers(package: Any) -> Any:
    if not isinstance(package, dict):
        return package
    kept = {name: value for name, value in package.items() if name != "covers"}
    covers = package.get("covers", [{"id": "condenser", "name": "Condenser"}])
    mounting = package.get("mounting")
    if isinstance(mounting, dict) and "cooler" in mounting:
        kept["mounting"] = {name: value for name, value in mounting.items() if name != "cooler"}
        cooler = mounting["cooler"]
        if isinstance(cooler, dict) and cooler.get("fitted") and isinstance(covers, list):
            usual = {
                name: {"si": value[1], "as_typed": value[0], "unit": "in", "origin": "assumed", "doubt": None}
                if isinstance(value, tuple)
                else value
                for name, value in REMOTE.items()
            }
            told = {name: value for name, value in cooler.items() if name in KEPT and value is not None}
            fans = {
                "si": 1.0 if "fan_power" in told else 0.0,
                "as_typed": "1" if "fan_power" in told else "0",
                "unit": "",
                "origin": "assumed",
                "doubt": None,
            }
            covers = [
                *covers,
                {"id": "cooler", "kind": "gearbox_cooler", "stands": "bumper", "fans": fans} | usual | told,
            ]
    return kept | {"coolers": covers}


EDGES = {"left": "side_gap", "right": "side_gap", "bottom": "top_gap", "top": "top_gap"}


def gaps_by_edge(raw: Raw) -> Raw:
    """Version 7: a gap per edge of the core, brackets from any point to any point, neighbours with a new place,
    frames in a list."""
    packages = raw.get("packages")
    if not isinstance(packages, list):
        return raw | {"version": 7}
    return raw | {"version": 7, "packages": [_with_points(package) for package in packages]}


def _with_points(package: Any) -> Any:
    if not isinstance(package, dict):
        return package
    kept = dict(package)
    sealing, moved, mounting = package.get("sealing"), kept.pop("moved", []), package.get("mounting")
    if isinstance(sealing, dict):
        rest = {name: value for name, value in sealing.items() if name not in EDGES.values()}
        kept["sealing"] = rest | {edge: {"gap": sealing[name]} for edge, name in EDGES.items() if name in sealing}
    kept["moves"] = [{"id": ident} for ident in dict.fromkeys(moved)] if _texts(moved) else moved
    if isinstance(package.get("brackets"), list):
        kept["brackets"] = [_between_points(bracket) for bracket in package["brackets"]]
    if isinstance(mounting, dict) and "frame" in mounting:
        frame = mounting["frame"]
        rest = {name: value for name, value in mounting.items() if name != "frame"}
        kept["mounting"] = rest | {"frames": _frames(frame)}
    return kept


def _texts(value: Any) -> bool:
    return isinstance(value, list) and all(isinstance(item, str) for item in value)


def _between_points(bracket: Any) -> Any:
    """A bracket's part and hole as the keys of points; both its nuts are of the kind it had."""
    if not isinstance(bracket, dict):
        return bracket
    kept = {name: value for name, value in bracket.items() if name not in ("part", "hole")}
    if "part" in bracket:
        kept["start"] = bracket["part"].replace("_", ":", 1) if isinstance(bracket["part"], str) else bracket["part"]
    if "hole" in bracket:
        kept["end"] = (
            f"hole:{bracket['hole']}" if isinstance(bracket["hole"], str) and bracket["hole"] else bracket["hole"]
        )
    return kept | ({"far_nut": bracket["nut"]} if "nut" in bracket else {})


def _frames(frame: Any) -> Any:
    """The one frame as a list; one that was not fitted stays only where somebody entered a figure for it."""
    if not isinstance(frame, dict):
        return frame
    entered = any(isinstance(value, dict) and value.get("origin") != "assumed" for value in frame.values())
    return [{"id": "frame1", "fitted": False} | frame] if frame.get("fitted") or entered else []


HOSES = (("upper", "Upper hose", "engine:upper", "core:inlet"), ("lower", "Lower hose", "core:outlet", "engine:lower"))
TO_HOSES = ("hose_bore", "hose_length", "hose_bends")


def hoses_by_name(raw: Raw) -> Raw:
    """Version 8: each hose is one thing with its own ends; version 7 had one bore and length for both together."""
    changed: Raw = {"version": 8}
    packages, survey = raw.get("packages"), raw.get("survey")
    if isinstance(packages, list):
        changed["packages"] = [_with_hoses(package, _end_bores(survey)) for package in packages]
    if isinstance(survey, dict) and isinstance(survey.get("hoses"), list):
        ends = [
            end | {"role": "inlet"} if isinstance(end, dict) and end.get("id") == "lower" and "role" not in end else end
            for end in survey["hoses"]
        ]
        changed["survey"] = survey | {"hoses": ends}
    return raw | changed


USUAL_BORE = 0.0381


def _end_bores(survey: Any) -> dict[str, float]:
    """Bore [m] of the engine's ends by their ids, as version 7 had them."""
    ends = survey.get("hoses") if isinstance(survey, dict) else None
    found = {"upper": USUAL_BORE, "lower": USUAL_BORE}
    for end in ends if isinstance(ends, list) else []:
        bore = end.get("bore") if isinstance(end, dict) else None
        if isinstance(bore, dict) and isinstance(bore.get("si"), (int, float)) and isinstance(end.get("id"), str):
            found[end["id"]] = bore["si"]
    return found


def _with_hoses(package: Any, ends: dict[str, float]) -> Any:
    loop = package.get("loop") if isinstance(package, dict) else None
    if not isinstance(package, dict) or not isinstance(loop, dict) or not any(name in loop for name in TO_HOSES):
        return package
    kept = {name: value for name, value in loop.items() if name not in TO_HOSES}
    upper: Raw = {}
    lower: Raw = {}
    bore = loop.get("hose_bore")
    for own, which in ((upper, 0), (lower, 1)):
        # A hose has the bore of its end unless it had another.
        same = isinstance(bore, dict) and bore.get("si") == ends["lower" if which else "upper"]
        if bore is not None and not same:
            own["bore"] = bore
        if "hose_length" in loop:
            own["length"] = _part_of(loop["hose_length"], 0.5, "m")
        if "hose_bends" in loop:
            own["bends"] = _halved(loop["hose_bends"], which)
    named = [
        dict(zip(("id", "name", "start", "end"), said, strict=True)) | own
        for said, own in zip(HOSES, (upper, lower), strict=True)
    ]
    return package | {"loop": {"hoses": named} | kept}


def _part_of(value: Any, share: float, unit: str) -> Any:
    """A share of a measure in `unit`, SI's own; nothing where it was nought, for a hose has a length."""
    if not isinstance(value, dict) or not isinstance(value.get("si"), (int, float)):
        return value
    text = f"{value['si'] * share:.9g}"
    return value | {"si": float(text), "as_typed": text, "unit": unit} if value["si"] > 0 else None


def _halved(value: Any, which: int) -> Any:
    """Half of a count; the first has the odd one."""
    if not isinstance(value, dict) or not isinstance(value.get("si"), (int, float)):
        return value
    half = (int(value["si"]) + 1 - which) // 2
    return value | {"si": float(half), "as_typed": str(half)}


def kinds_of_package(raw: Raw) -> Raw:
    """Version 9: a package says what it stands for. Version 8 took the first one beside the active whose fans the
    engine turns as found."""
    packages = raw.get("packages")
    if not isinstance(packages, list):
        return raw | {"version": 9}
    found = next((k for k, package in enumerate(packages) if _was_found(package, raw.get("active"))), None)
    marked = [package | {"kind": "as_found"} if k == found else package for k, package in enumerate(packages)]
    return raw | {"version": 9, "packages": marked}


def _was_found(package: Any, active: Any) -> bool:
    fans = package.get("fans") if isinstance(package, dict) else None
    if not isinstance(fans, list) or not fans or package.get("id") == active:
        return False
    return all(isinstance(fan, dict) and fan.get("motor") == "engine" for fan in fans)


def counted_cases(raw: Raw) -> Raw:
    """Version 10: a duty case counts, or stands for information. All of version 9 counted."""
    return raw | {"version": 10}


def states_of_parts(raw: Raw) -> Raw:
    """Version 11: a belt may slip, air stand in the coolant, a sensor be unplugged or sit in the core's own bung. In
    version 10 all was well."""
    return raw | {"version": 11}


def seen_cases(raw: Raw) -> Raw:
    """Version 12: a duty case says what the car did in it before the work. Of version 11 nothing is known."""
    return raw | {"version": 12}


def made_fans(raw: Raw) -> Raw:
    """Version 13: a fan says what it comes as, a car what charges it. All of version 12 were new originals, and
    alternators."""
    return raw | {"version": 13}


def causes_found(raw: Raw) -> Raw:
    """Version 14: a cause that was found stands as found, with what stood before; what was seen lasted so long; a fan
    of the engine stands where the engine holds it, a pusher may have a shroud. Of version 13 none of it is known."""
    return raw | {"version": 14}


def driven(raw: Raw) -> Raw:
    """Version 15: a build has drives. One of version 14 is given those every build begins with."""
    return raw | {"version": 15}


def tried(raw: Raw) -> Raw:
    """Version 16: a build has trials and what they told; a leg says how its A/C cycles and whether the heater is on. Of
    version 15 nothing was tried."""
    return raw | {"version": 16}


def _hours_to_notes(raw: Raw) -> Raw:
    """Hours stated for a package are worked out from its steps now: what somebody typed is kept as a note."""
    packages = raw.get("packages")
    if not isinstance(packages, list):
        return raw
    said, kept = [], []
    for package in packages:
        hours = package.get("hours") if isinstance(package, dict) else None
        if isinstance(hours, dict):
            said.append(f"{package.get('name') or package.get('id')}: {hours.get('as_typed')} stated by hand")
        kept.append({k: v for k, v in package.items() if k != "hours"} if isinstance(package, dict) else package)
    work = {"work": {"notes": "\n".join(said)}} if said else {}
    return raw | {"packages": kept} | work


def sender_and_needle(raw: Raw) -> Raw:
    """Version 17: a gauge has a sender and a needle, the work is planned. The one lag of version 16 was both where
    nobody typed it; what was typed is the needle's, its sender quick. Hours stated by hand stand in the work's
    notes."""
    raw = _hours_to_notes(raw)
    driving = raw.get("driving")
    stores = driving.get("stores") if isinstance(driving, dict) else None
    lag = stores.get("needle_lag") if isinstance(stores, dict) else None
    if not (isinstance(driving, dict) and isinstance(stores, dict) and isinstance(lag, dict)):
        return raw | {"version": 17}
    if lag.get("origin") == "assumed":
        stores = {name: value for name, value in stores.items() if name != "needle_lag"}
    else:
        stores = stores | {"sender_lag": lag | {"si": 0.2, "as_typed": "0.2 s", "unit": "s", "origin": "derived"}}
    return raw | {"version": 17, "driving": driving | {"stores": stores}}


STEPS: dict[int, Callable[[Raw], Raw]] = {
    1: opening_to_survey,
    2: drop_to_circuits,
    3: kinds_of_engine,
    4: circuit_to_packages,
    5: coolers_in_one_list,
    6: gaps_by_edge,
    7: hoses_by_name,
    8: kinds_of_package,
    9: counted_cases,
    10: states_of_parts,
    11: seen_cases,
    12: made_fans,
    13: causes_found,
    14: driven,
    15: tried,
    16: sender_and_needle,
}
"""Version n to the function that makes version n + 1 of it. Version 1 is the first."""


def migrate(raw: Raw, wanted: int) -> Raw:
    """The raw document at version `wanted`; the caller has checked that its version is known."""
    while raw["version"] < wanted:
        raw = STEPS[raw["version"]](raw)
    return raw
