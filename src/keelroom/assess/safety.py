"""What can hurt somebody, in one table: the danger and what to do, and the steps it belongs to. Acts, steps, lists,
templates and sheet read it; nothing else words a caution. Common practice; local codes and licensed practice come
first."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal, NamedTuple, get_args

Step = Literal[
    "plan",
    "drain",
    "hoses",
    "core",
    "fill",
    "pressure_test",
    "run",
    "soak",
    "fan",
    "belt",
    "spin",
    "wire",
    "charge",
    "sensor_pot",
    "sensor_oil",
    "drill",
    "bend",
    "sheet",
    "cut",
    "weld",
    "close_brass",
    "lift",
    "jack",
    "hood",
    "refrigerant",
    "structure",
    "latch",
    "airbag",
    "brakes",
    "battery",
    "gearbox",
    "hot_lines",
    "move",
]
"""Steps of the work a caution can stand at."""
STEPS: tuple[Step, ...] = get_args(Step)


class Danger(NamedTuple):
    """One danger. text: what it is and what to do;  at: the steps it stands at."""

    text: str
    at: frozenset[Step]


def _at(text: str, *steps: Step) -> Danger:
    return Danger(text, frozenset(steps))


DANGERS = (
    _at("Planning estimates: they defer to local codes and licensed practice.", "plan"),
    _at(
        "Hot coolant under pressure scalds: never open a cap or a hose of a hot system; wait until a hand can stay on "
        "the upper hose. No cold water into a hot block.",
        "drain",
        "hoses",
        "core",
        "fill",
        "soak",
    ),
    _at(
        "Coolant is poisonous to people and animals and tastes sweet: catch it, keep it covered, dispose of it by "
        "local rules.",
        "drain",
        "hoses",
        "core",
        "fill",
    ),
    _at(
        "Pressure test cold, with regulated air at or under the cap’s rating and the weakest part’s; behind a shield, "
        "nobody leans over it. Never a higher cap than the weakest part allows.",
        "pressure_test",
    ),
    _at(
        "Electric fans and pumps start without warning, also with the key out: disconnect the battery before hands go "
        "in.",
        "fan",
        "core",
        "hoses",
        "wire",
        "run",
    ),
    _at(
        "Engine running: keep out of the plane of fan and belt, no loose clothing, hair or straps; nothing is felt for "
        "by hand near the blades.",
        "run",
        "soak",
    ),
    _at("Battery off, hands and tools clear of belts and pulleys before anybody cranks the engine.", "belt"),
    _at("Indoors only with exhaust extraction: its gas kills unnoticed. Wheels chocked, brake on.", "run", "soak"),
    _at("Set a stop temperature before the engine is started, and switch off at it whatever else.", "soak"),
    _at(
        "Disconnect the battery before wiring, ground first; it goes back on last. Fuse at the source, sized for the "
        "wire.",
        "wire",
        "charge",
        "battery",
    ),
    _at("The charge cable is live at all times and has no switch: it carries the battery’s whole short.", "charge"),
    _at(
        "Batteries give off gas that explodes: no spark or flame near one, its vent clear; tie it down anew.",
        "battery",
        "charge",
        "spin",
    ),
    _at(
        "Clamp the fan down, blades free, before it is fed; a fuse of the fan’s own size sits at the battery’s post; "
        "hands, sleeves and leads clear. A motor with its own electronics is tried on its own plug, never on two bare "
        "leads.",
        "spin",
    ),
    _at("Water on a stove scalds: clip the sensor and the thermometer to the rim, nothing held by hand.", "sensor_pot"),
    _at(
        "Hot oil burns and does not take water: clean cooking oil, a third of the pot, electric plate, outdoors, a "
        "thermometer in it, off at 130 °C (265 °F), far under its flash point; dry sensor, lid at hand to smother it, "
        "never water on it. No coolant: glycol’s vapour burns and is poisonous.",
        "sensor_oil",
    ),
    _at(
        "Drill and clamp away from the core, a stop on the bit and a board before what lies behind; clamp the piece, "
        "eye protection; deburr and paint every hole.",
        "drill",
    ),
    _at("Sheet edges cut: gloves, deburr at once, edge trim on what stays in the car.", "bend", "sheet", "cut"),
    _at("Eye, hand and ear protection when cutting and grinding; sparks away from fuel, battery and trim.", "cut"),
    _at(
        "No flame, arc or sparks near fuel, on a core with coolant in it, on refrigerant residue or chlorinated "
        "cleaner: both turn to poison gas. Battery off, extinguisher at hand, dark glass, fumes of zinc, flux and "
        "paint drawn off.",
        "weld",
        "close_brass",
    ),
    _at(
        "An arc on copper/brass boils out lead and zinc and lets the solder beside it run: dry and empty core, fumes "
        "drawn off, a mask for metal fume, seams kept wet outside; pressure-tested before it is trusted. A radiator "
        "shop does it daily.",
        "close_brass",
    ),
    _at("Cores, hoods and engines are lifted by two or by a hoist, never over hands or knees.", "lift", "core"),
    _at("The vehicle stands on stands on firm ground before anybody is under it; a jack alone lets go.", "jack"),
    _at(
        "A hood off its stay is propped at both sides, and tied; nobody under one that is held by hand. One that may "
        "touch the package can come open or damage the latch.",
        "hood",
    ),
    _at(
        "Refrigerant is recovered and charged by licensed people; the system is never vented. No flame on its residue.",
        "refrigerant",
    ),
    _at(
        "Cutting or moving a structural panel, bumper beam, latch or airbag sensor can make a vehicle unsafe or "
        "illegal: get qualified advice and follow local codes.",
        "structure",
        "latch",
        "airbag",
        "cut",
    ),
    _at("The hood must stay shut at speed: test the latch and its safety catch.", "latch"),
    _at(
        "Airbag sensors and modules are disarmed by the vehicle maker’s procedure, battery off and its waiting time "
        "kept, by somebody licensed for it.",
        "airbag",
    ),
    _at(
        "Brake lines are opened or bent by somebody trained for it; the brakes are bled and tested before the car "
        "moves.",
        "brakes",
    ),
    _at(
        "Hot gearbox fluid burns and slips: lines off cool, into a taped bottle; topped up warm and running by the "
        "vehicle maker’s procedure.",
        "gearbox",
    ),
    _at(
        "Gearbox fluid, oil and coolant of glycol alone burn: lines and hoses off the exhaust and turbine, or behind a "
        "shield.",
        "hot_lines",
        "gearbox",
    ),
    _at("Drain what carries fluid and disconnect what is electrical before it is moved.", "move"),
    _at("Zip ties and through-fin ties steady a part; they do not carry it.", "plan"),
)


def cautions(*steps: Step) -> tuple[str, ...]:
    """What stands at any of these steps, each once, in the table's order."""
    wanted = frozenset(steps)
    return tuple(danger.text for danger in DANGERS if danger.at & wanted)


def caution(*steps: Step) -> str:
    """The same as one paragraph."""
    return " ".join(cautions(*steps))


def known(steps: Iterable[str]) -> tuple[Step, ...]:
    """Those of the names that are steps."""
    return tuple(step for step in STEPS if step in set(steps))
