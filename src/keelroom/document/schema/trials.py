"""Trials: what was tried on which day with which package, what was read with what, and what the readings have told."""

from typing import Annotated, Literal

from pydantic import Field

from keelroom.document.quantity import Quantity, Spec, Strict, most, quantity
from keelroom.document.schema.brief import Maybe
from keelroom.document.schema.drive import Begins, Leg

ReadAt = Literal[
    "gauge",
    "outlet",
    "inlet",
    "oil",
    "gearbox",
    "volts",
    "battery",
    "air",
    "motor",
    "running",
    "start",
    "vent",
    "fin",
    "held",
    "sound",
    "mark",
]
"""gauge as the driver sees it; hoses; oil; gearbox fluid; volts at the battery; amps it takes; air through the core
volts at a fan's plug; amps of the fans as they run, and of a start; A/C vents; between the core's fins; pressure the
circuit holds; sound ahead of the grille; air speed at a mark before the face"""
ReadBy = Literal["needle", "probe", "infrared", "anemometer", "meter", "car"]
"""needle gauge; probe or logger; infrared gun; hand anemometer; volt or clamp meter; the car's own computer"""
FactorId = Literal["heat", "core", "fans", "leaks", "flow"]
Kept = Annotated[str, Field(max_length=20_000)]
"""A package as it was (`document.snapshot`)."""
Finite = Annotated[float, Field(allow_inf_nan=False)]


class Sensor(Strict):
    """What a figure is read with, and where."""

    id: str
    name: str = ""
    place: ReadAt = "gauge"
    by: ReadBy = "needle"
    lag: Annotated[Quantity, Spec("seconds", "Lags", ge=0, le=300)] = quantity("0 s", "seconds")
    zero: Annotated[
        Quantity, Spec("temperature difference", "Doubt of its zero", ge=0, le=30, help="Of temperatures; standard")
    ] = quantity("2 °C", "temperature difference")
    noise: Annotated[
        Quantity, Spec("temperature difference", "Scatters", ge=0.05, le=20, help="Of temperatures; standard")
    ] = quantity("1 °C", "temperature difference")
    share: Annotated[
        Quantity, Spec("share", "Doubt of a reading", gt=0.001, le=0.5, help="Of air, volts and amps; standard")
    ] = quantity("3 %", "share")


class Reading(Strict):
    """One figure read once."""

    id: str
    sensor: str = ""
    at: Annotated[Quantity, Spec("minutes", "Read after", ge=0, le=86400)] = quantity("20 min", "minutes")
    temperature: Annotated[Maybe, Spec("temperature", "Reads", ge=-50, le=300)] = None
    voltage: Annotated[Maybe, Spec("voltage", "Reads", ge=0, le=60)] = None
    current: Annotated[Maybe, Spec("current", "Reads", ge=-500, le=500)] = None
    airflow: Annotated[Maybe, Spec("airflow", "Reads", ge=0, le=10)] = None
    pressure: Annotated[Maybe, Spec("pressure", "Reads", ge=0, le=400e3)] = None
    level: Annotated[Maybe, Spec("sound level", "Reads", ge=20, le=140)] = None
    wind: Annotated[Maybe, Spec("air speed", "Reads", ge=0, le=60)] = None
    mark: Annotated[int, Field(ge=0, le=60)] = 0
    """of the face it was read at, 0 none"""
    standing: bool = False
    """read with the fans standing"""
    note: str = ""


class Photo(Strict):
    """A picture kept in a folder beside the build: its name there, and the SHA-256 it had when it was taken in."""

    id: str
    file: Annotated[str, Field(max_length=200, pattern=r"^[^/\\\\]*$")] = ""
    digest: Annotated[str, Field(max_length=64)] = ""
    note: str = ""


class Log(Strict):
    """A line a logger wrote: seconds since the trial began, and figures in SI, temperatures in degrees Celsius."""

    id: str
    sensor: str = ""
    seconds: Annotated[tuple[Finite, ...], most(40000)] = ()
    values: Annotated[tuple[Finite, ...], most(40000)] = ()
    source: str = ""


class Trial(Strict):
    """One test. package: as it was that day, packed JSON; '' where it is tried on the one in use."""

    id: str
    name: str = ""
    protocol: str = "idle"
    day: str = ""
    where: str = ""
    who: str = ""
    begins: Begins = "warm"
    legs: Annotated[tuple[Leg, ...], most(60)] = ()
    ambient: Annotated[Maybe, Spec("temperature", "Day", ge=-50, le=60, help="In the shade, while it ran")] = None
    weather: str = ""
    """wind, sun or shade, in words"""
    hood_open: bool = False
    package: Kept = ""
    readings: Annotated[tuple[Reading, ...], most(200)] = ()
    logs: Annotated[tuple[Log, ...], most(20)] = ()
    photos: Annotated[tuple[Photo, ...], most(40)] = ()
    counts: bool = True
    """the calibration goes by it"""
    stopped: Annotated[Maybe, Spec("minutes", "Stopped early after", ge=0, le=86400, help="Empty: it ran its time")] = (
        None
    )
    note: str = ""
    verdict: str = ""


class Factor(Strict):
    """What readings have made of something doubtful: times what is entered, and its standard doubt as a share."""

    id: FactorId
    value: Annotated[float, Field(gt=0.05, lt=20, allow_inf_nan=False)] = 1.0
    doubt: Annotated[float, Field(ge=0, lt=5, allow_inf_nan=False)] = 0.1


class Calibration(Strict):
    """What trials have told of the model: taken in while it is on.

    ties : correlations of the factors, row by row;  package : whose core, fans and gaps were tried, packed JSON
    """

    on: bool = False
    factors: Annotated[tuple[Factor, ...], most(5)] = ()
    ties: Annotated[tuple[Finite, ...], most(25)] = ()
    package: Kept = ""
    trials: Annotated[tuple[str, ...], most(60)] = ()
    """names of those it goes by"""


def usual_sensors() -> tuple[Sensor, ...]:
    """What a shop reads with. Doubts common practice, no source."""
    return (
        Sensor(id="gauge", name="Dash gauge", zero=quantity("3 °C", "temperature difference")),
        Sensor(
            id="car",
            name="Car’s own computer",
            place="outlet",
            by="car",
            lag=quantity("4 s", "seconds"),
            zero=quantity("1.5 °C", "temperature difference"),
            noise=quantity("0.6 °C", "temperature difference"),
        ),
        Sensor(id="upper", name="Upper hose, probe", place="outlet", by="probe", lag=quantity("8 s", "seconds")),
        Sensor(
            id="lower",
            name="Lower hose, infrared gun",
            place="inlet",
            by="infrared",
            zero=quantity("3 °C", "temperature difference"),
        ),
        Sensor(id="vane", name="Hand anemometer", place="air", by="anemometer", share=quantity("10 %", "share")),
        Sensor(id="volts", name="Voltmeter at the battery", place="volts", by="meter", share=quantity("1 %", "share")),
        Sensor(id="clamp", name="Clamp meter", place="battery", by="meter", share=quantity("5 %", "share")),
    )


def sensor_for(place: ReadAt) -> Sensor:
    """What a shop reads a place with that its usual sensors do not. Doubts common practice, no source."""
    more: dict[ReadAt, tuple[str, ReadBy, str]] = {
        "oil": ("Oil gauge", "needle", "3 %"),
        "gearbox": ("Gearbox gauge", "needle", "3 %"),
        "motor": ("Voltmeter at a fan’s plug", "meter", "1 %"),
        "running": ("Clamp on the fans’ wire", "meter", "5 %"),
        "start": ("Clamp on the fans’ wire, peak held", "meter", "20 %"),
        "vent": ("Probe in the middle vent", "probe", "3 %"),
        "fin": ("Probe between the fins", "probe", "3 %"),
        "held": ("Gauge of the pressure tester", "needle", "3 %"),
        "sound": ("Sound meter", "meter", "3 %"),
        "mark": ("Hand anemometer at a mark", "anemometer", "5 %"),
    }
    name, by, share = more.get(place, ("A probe", "probe", "3 %"))
    return Sensor(id=place, name=name, place=place, by=by, share=quantity(share, "share"))


class Trials(Strict):
    """The logbook."""

    sensors: Annotated[tuple[Sensor, ...], most(40)] = usual_sensors()
    trials: Annotated[tuple[Trial, ...], most(60)] = ()
