"""Tests as the trade does them: what is driven, what is done when, what stops it, how long it must run to mean
anything. Common practice, no source, where none is named."""

from __future__ import annotations

from typing import Literal, NamedTuple

from keelroom.document.quantity import quantity
from keelroom.document.schema.drive import Begins, Leg, LegKind
from keelroom.document.schema.trials import ReadAt

Passes = Literal["steady", "under_limit", "air", "volts", "back", "opens", "spins", "holds", "told"]
"""comes to rest near the thermostat; stays under the limit; air against rating and need; volts hold; back after a
restart; fans and thermostat where they are set; air goes the right way; no leak; told only"""


class Step(NamedTuple):
    """What is done at a minute, negative before it begins, and the places whose figures are written then."""

    minute: float
    words: str
    writes: tuple[ReadAt, ...] = ()


class Protocol(NamedTuple):
    """needs [s] : it must run for its answer to mean something;  reads : where, in the order of what tells most
    stop : what ends it at once;  caution : said before it begins"""

    key: str
    name: str
    purpose: str
    legs: tuple[Leg, ...]
    begins: Begins
    needs: float
    reads: tuple[ReadAt, ...]
    steps: tuple[Step, ...]
    passes: Passes
    stop: str
    caution: str


HOT = "Coolant under pressure scalds: never open a cap on a warm circuit."
STARTS = "Fans start by themselves, with the key off too: hands, hair and sleeves out of them."
FUMES = "Outdoors or with the exhaust led out."
ROAD = "On the road somebody else reads: the driver drives. Keep to the law of the road; turn back before the limit."
LIMIT = "The gauge at the build's limit, steam, a smell of coolant, a lamp: engine off, let it cool."
SOAK: tuple[ReadAt, ...] = ("gauge", "outlet", "inlet")
MOVING = "Belts and fans turn: nothing loose near them; the meter's leads tied back."


def _leg(kind: LegKind, lasts: str, name: str, ac: bool = False, **more: str) -> Leg:
    kinds = {"speed": "speed", "grade": "share", "rpm": "turning speed", "stands": "minutes", "goes": "minutes"}
    told = {key: quantity(value, kinds[key]) for key, value in more.items()}
    return Leg.model_validate(
        {"id": name.lower().replace(" ", "-"), "name": name, "kind": kind, "ac_on": ac}
        | {"lasts": quantity(lasts, "minutes")}
        | told
    )


WARM = Step(-10, "Warm it up on the road or at 1 500 rpm until the thermostat is open: upper hose hot, gauge at rest.")
NOTE_DAY = Step(-1, "Note the day in the shade, wind, hood shut, what is on. Level ground, nose out of the wind.")

PROTOCOLS: tuple[Protocol, ...] = (
    Protocol(
        "idle",
        "Idle soak",
        "Whether the needle comes to rest at a light, and where",
        (_leg("idle", "25 min", "Idle", rpm="1000 rpm"),),
        "warm",
        1500.0,
        ("gauge", "outlet", "inlet", "volts"),
        (
            WARM,
            NOTE_DAY,
            Step(0, "Hold 1 000 rpm in neutral, or note what it idles at: the same revs before and after."),
            Step(5, "Write gauge and both hoses; note when fans start and stop.", SOAK),
            Step(10, "Write them again.", SOAK),
            Step(15, "Write them again; volts at the battery with everything on.", (*SOAK, "volts")),
            Step(20, "Creeping still? It is not settled: go on to 25 minutes."),
            Step(25, "Write the last ones. Engine off.", SOAK),
        ),
        "steady",
        LIMIT,
        f"{HOT} {STARTS} {FUMES}",
    ),
    Protocol(
        "ac",
        "A/C soak",
        "The same with the A/C on full: the hottest an ordinary car is at a light",
        (_leg("idle", "25 min", "Idle, A/C on", ac=True),),
        "warm",
        1500.0,
        ("gauge", "outlet", "inlet", "volts", "vent"),
        (
            WARM,
            NOTE_DAY,
            Step(0, "A/C cold, blower full, windows shut. In gear with the brake on only if that is how it is driven."),
            Step(10, "Write gauge, hoses, vent temperature, volts.", (*SOAK, "vent", "volts")),
            Step(20, "Write them again.", (*SOAK, "vent")),
            Step(25, "Write the last ones. A/C off, then engine off.", (*SOAK, "vent", "volts")),
        ),
        "steady",
        LIMIT,
        f"{HOT} {STARTS} {FUMES} The refrigerant side stays shut: it is for licensed people.",
    ),
    Protocol(
        "air",
        "Fan airflow by hand anemometer",
        "What the fans really draw through this core",
        (_leg("idle", "5 min", "Idle"),),
        "warm",
        60.0,
        ("air", "volts", "motor", "mark"),
        (
            Step(-2, "Fans on by hand, from the car's own supply; volts at the motor noted.", ("motor",)),
            Step(
                0,
                "Hold the vane flat to the face at each mark of the drawing, ten seconds each; write its speed.",
            ),
            Step(3, "Behind a fan the air is hot and swirls: such a reading is good to 10–20 %."),
            Step(5, "Mean times area is the flow; fans side by side are added. Type the sum.", ("air",)),
        ),
        "air",
        "Anything that touches a blade.",
        f"{STARTS} {MOVING}",
    ),
    Protocol(
        "pulls",
        "Road pulls 40–60–70–40",
        "Whether hard pulls climb, and how fast it comes down",
        (
            _leg("hold", "6 min", "At 40", speed="40 mph"),
            _leg("change", "0.3 min", "To 60", speed="60 mph"),
            _leg("change", "0.3 min", "To 70", speed="70 mph"),
            _leg("change", "0.4 min", "Back to 40", speed="40 mph"),
            _leg("hold", "4 min", "At 40 again", speed="40 mph"),
        ),
        "settled",
        600.0,
        ("gauge", "outlet"),
        (
            NOTE_DAY,
            Step(0, "Steady 40 mph until the gauge is at rest."),
            Step(6, "Hard to 60, on to 70, back to 40.", ("gauge",)),
            Step(7, "Note the highest, and when it is back.", ("gauge",)),
            Step(11, "Write where it is at rest again.", ("gauge",)),
        ),
        "under_limit",
        LIMIT,
        ROAD,
    ),
    Protocol(
        "speeds",
        "Speed steps",
        "Where the road's air takes over from the fans",
        (
            _leg("hold", "8 min", "At 30", speed="30 mph"),
            _leg("hold", "8 min", "At 45", speed="45 mph"),
            _leg("hold", "8 min", "At 60", speed="60 mph"),
        ),
        "settled",
        1440.0,
        ("gauge", "outlet"),
        (
            NOTE_DAY,
            Step(0, "30 mph. Write what it reads before each step."),
            Step(8, "45 mph.", ("gauge",)),
            Step(16, "60 mph.", ("gauge",)),
            Step(24, "The last one.", ("gauge",)),
        ),
        "under_limit",
        LIMIT,
        ROAD,
    ),
    Protocol(
        "hill",
        "Hill",
        "How long it holds a grade",
        (_leg("hold", "12 min", "Up", speed="45 mph", grade="6 %"),),
        "settled",
        480.0,
        ("gauge", "outlet", "gearbox"),
        (
            NOTE_DAY,
            Step(0, "Up at a steady speed in the gear it is towed in."),
            Step(4, "Write gauge, speed, gear, revs.", ("gauge",)),
            Step(8, "Write them again; turn back before the limit, idle on the level until it falls.", ("gauge",)),
        ),
        "under_limit",
        LIMIT,
        ROAD,
    ),
    Protocol(
        "warm",
        "Warm-up from cold",
        "When the thermostat opens, and whether air is left in the circuit",
        (_leg("idle", "20 min", "Idle"),),
        "cold",
        900.0,
        ("gauge", "outlet", "inlet"),
        (
            Step(-1, "Stone cold. Level full, cap as the fill plan has it."),
            Step(0, "Start. Upper hose stays cool until the thermostat opens."),
            Step(8, "Note gauge and minute when the upper hose warms at once: it opens there.", ("gauge", "outlet")),
            Step(15, "Note when the fans first start and stop. A gauge that jumps has air under it.", ("gauge",)),
        ),
        "opens",
        LIMIT,
        f"{HOT} {STARTS} {FUMES}",
    ),
    Protocol(
        "keyoff",
        "Key-off soak and restart",
        "How far it climbs with the key off, and whether it is back within a minute",
        (
            _leg("hold", "8 min", "Road", speed="55 mph"),
            _leg("off", "10 min", "Key off"),
            _leg("idle", "4 min", "Restart"),
        ),
        "settled",
        1200.0,
        ("gauge", "outlet", "volts"),
        (
            NOTE_DAY,
            Step(0, "Off the road, warm."),
            Step(8, "Key off. Write the gauge with the key one click on, every two minutes.", ("gauge",)),
            *(Step(8 + minute, "The gauge with the key one click on.", ("gauge",)) for minute in (2, 4, 6, 8)),
            Step(18, "Start. Note when the needle is back.", ("gauge",)),
            Step(20, "Where it is now.", ("gauge",)),
        ),
        "back",
        LIMIT,
        f"{HOT} {STARTS}",
    ),
    Protocol(
        "fans",
        "Fan on and off",
        "Where the fans really start and stop",
        (_leg("idle", "20 min", "Idle"),),
        "warm",
        900.0,
        ("gauge", "outlet", "volts", "fin"),
        (
            WARM,
            Step(
                0, "Write what the gauge reads at each start and each stop of the fans, three times.", ("gauge", "fin")
            ),
            Step(15, "Starts that lie apart by more than a needle's width: sensor, its place, or its earth."),
        ),
        "opens",
        LIMIT,
        f"{STARTS} {FUMES}",
    ),
    Protocol(
        "steps",
        "Fan speed 20, 60, 90 %",
        "Whether a variable fan does what it is told",
        (_leg("idle", "10 min", "Idle"),),
        "warm",
        300.0,
        ("air", "volts", "battery", "running"),
        (
            Step(0, "20 %: it turns, it does not hum and stand."),
            Step(3, "60 %: air and amps written.", ("air", "running")),
            Step(
                6, "90 %: air and amps written. Air goes with speed, amps with its square or more.", ("air", "running")
            ),
        ),
        "air",
        "A motor that hums and stands: power off at once.",
        STARTS,
    ),
    Protocol(
        "pump",
        "Electric pump off and on",
        "What the pump does at idle",
        (_leg("idle", "3 min", "Pump on"),),
        "warm",
        120.0,
        ("gauge", "outlet", "inlet"),
        (
            WARM,
            Step(0, "Pump on, gauge at rest.", ("gauge", "inlet")),
            Step(1, "Pump off: it climbs at once. Watch, one minute at the most."),
            Step(2, "Pump on: the needle drops at once. If not, the pump moves nothing: engine off."),
        ),
        "told",
        "15 °F over where it stood, whatever the minute: pump on, or engine off.",
        HOT,
    ),
    Protocol(
        "volts",
        "Volts and amps under load",
        "Whether the alternator carries all of it at idle",
        (_leg("idle", "6 min", "Idle, all on", ac=True),),
        "warm",
        180.0,
        ("volts", "battery", "motor", "running", "start"),
        (
            Step(
                0, "Lights, blower, A/C, fans on. Volts at the battery posts and at the fan's plug.", ("volts", "motor")
            ),
            Step(
                2,
                "Clamp round the battery's earth: amps in or out. Clamp on the fan's wire at its start and running.",
                ("battery", "start", "running"),
            ),
            Step(
                5,
                "Again. Under 13 V and falling the battery makes it up: it will be flat, 9–10 V is seen then.",
                ("volts", "motor", "battery"),
            ),
        ),
        "volts",
        "A wire, relay or fuse too warm to hold: off.",
        MOVING,
    ),
    Protocol(
        "spin",
        "Spin and direction",
        "Which way the air goes",
        (),
        "cold",
        0.0,
        (),
        (
            Step(0, "Disconnect the battery's earth before hands go in; feed the fan by hand from a fused lead."),
            Step(1, "Paper at the face: a puller holds it, a pusher blows it off at the grille side. Both fans alike."),
            Step(2, "Turn each by hand: nothing rubs. Mark the plugs so that they cannot be swapped."),
        ),
        "spins",
        "A fan that rubs or hums.",
        STARTS,
    ),
    Protocol(
        "pressure",
        "Pressure test, leaks and bleeding",
        "Whether it holds its cap's pressure, and no air is left",
        (),
        "cold",
        900.0,
        ("held",),
        (
            Step(0, "Cold. Pump to the cap's pressure, no more: the fill plan has it.", ("held",)),
            Step(15, "No fall in fifteen minutes; look at every joint with a lamp, behind the pump too.", ("held",)),
            Step(16, "Warm once, cool down whole, level again: what it took is the air that was in it."),
        ),
        "holds",
        "A joint that moves.",
        f"{HOT} Coolant is poisonous to people and animals: catch it, keep it covered.",
    ),
    Protocol(
        "vents",
        "Vent temperature",
        "What the A/C makes of the air it gets",
        (_leg("idle", "10 min", "Idle, A/C on", ac=True),),
        "warm",
        480.0,
        ("gauge", "vent"),
        (
            Step(0, "A/C on recirculation, blower at its second speed, doors shut; probe in the middle vent."),
            Step(
                8,
                "Write vent, day, revs. Panels that shut the gaps were seen to win ten degrees Fahrenheit here.",
                ("vent",),
            ),
        ),
        "told",
        LIMIT,
        "The refrigerant side stays shut: recovery and charging are for licensed people.",
    ),
    Protocol(
        "noise",
        "Sound at a distance",
        "How loud the fans are",
        (_leg("idle", "5 min", "Idle"),),
        "warm",
        60.0,
        ("sound",),
        (
            Step(0, "One metre before the grille, and at the driver's ear: quiet yard, fans off, then on."),
            Step(2, "The difference counts; a telephone's meter is good to some 3 dB against itself.", ("sound",)),
        ),
        "told",
        LIMIT,
        STARTS,
    ),
    Protocol(
        "told",
        "As it was told",
        "What the owner says it did, held against the model at once",
        (_leg("idle", "20 min", "At a light"),),
        "warm",
        600.0,
        ("gauge",),
        (Step(0, "What the gauge read, how warm the day was, how long it had stood, what was on.", ("gauge",)),),
        "told",
        LIMIT,
        "What is told is worth what a needle is: 5 °F, and a memory.",
    ),
)


def protocol_of(key: str) -> Protocol:
    """A protocol by its key; the first where there is none of it."""
    return next((one for one in PROTOCOLS if one.key == key), PROTOCOLS[0])
