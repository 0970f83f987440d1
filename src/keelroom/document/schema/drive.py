"""Driving over time: schedules of stretches, recorded cycles, and what stores heat where somebody knows better."""

from typing import Annotated, Any, Literal

from pydantic import Field

from keelroom.document.quantity import Quantity, Spec, Strict, most, quantity
from keelroom.document.schema.brief import Maybe

LegKind = Literal["idle", "hold", "change", "pull", "stops", "off", "cycle"]
"""stand idling; keep a speed; come to a speed evenly; all the engine has; from light to light; key off; a recorded
cycle"""
Fails = Literal["", "fan", "fans", "pump"]
"""from this leg on: the fan that leads, all fans, the coolant pump"""
Begins = Literal["settled", "warm", "cold"]
"""as its first leg settles; thermostat just open; as cold as the day"""
EngineMake = Literal["iron", "mixed", "aluminium"]


class Leg(Strict):
    """One stretch of a drive."""

    id: str
    name: str = ""
    kind: LegKind = "hold"
    lasts: Annotated[Quantity, Spec("minutes", "Lasts", ge=0, le=43200, help="Of a cycle: empty 0 runs it once")] = (
        quantity("5 min", "minutes")
    )
    speed: Annotated[Quantity, Spec("speed", "Speed", ge=0, le=120)] = quantity("0 mph", "speed")
    grade: Annotated[Quantity, Spec("share", "Grade", ge=-0.3, le=0.5)] = quantity("0 %", "share")
    towed: Annotated[Quantity, Spec("mass", "Towed or extra mass", ge=0, le=60000)] = quantity("0 lb", "mass")
    gear_step: Annotated[Quantity, Spec("number", "Gear, as multiple of top", gt=0.2, le=10)] = quantity("1", "number")
    rpm: Annotated[Maybe, Spec("turning speed", "Engine speed", gt=0, le=250, help="Empty: from gearing, or idle")] = (
        None
    )
    ac_on: bool = False
    ac_share: Annotated[
        Quantity, Spec("share", "A/C clutch is on", ge=0.05, le=1, help="Of the time; 100 %: it does not cycle")
    ] = quantity("100 %", "share")
    heater_on: bool = False
    """full, its blower too: the driver's own radiator"""
    in_gear: bool = True
    ambient: Annotated[
        Maybe, Spec("temperature", "Day at its end", ge=-50, le=60, help="Empty: stays as it was before")
    ] = None
    stands: Annotated[Quantity, Spec("minutes", "Stands at each light", ge=0, le=3600)] = quantity("0.5 min", "minutes")
    goes: Annotated[Quantity, Spec("minutes", "Goes between lights", ge=0, le=3600)] = quantity("1 min", "minutes")
    trace: str = ""
    """of a cycle: its id"""
    fails: Fails = ""


class Schedule(Strict):
    """A drive: what is asked, leg after leg."""

    id: str
    name: str = ""
    begins: Begins = "settled"
    legs: Annotated[tuple[Leg, ...], most(60)] = ()


Finite = Annotated[float, Field(allow_inf_nan=False)]


class Trace(Strict):
    """A recorded drive: seconds, metres a second, and rise over run where it was recorded."""

    id: str
    name: str = ""
    seconds: Annotated[tuple[Finite, ...], most(40000)] = ()
    speeds: Annotated[tuple[Finite, ...], most(40000)] = ()
    grades: Annotated[tuple[Finite, ...], most(40000)] = ()
    source: str = ""


class Stores(Strict):
    """What stores heat and how fast it follows, where somebody knows better than what is proposed."""

    make: EngineMake = "iron"
    times: Annotated[Quantity, Spec("number", "Engine stores, times proposed", gt=0.2, le=5, help="±30 %")] = quantity(
        "1", "number"
    )
    oil: Annotated[Maybe, Spec("volume", "Engine oil", gt=0, le=0.1)] = None
    sensor_lag: Annotated[Quantity, Spec("seconds", "Fan sensor lags", gt=0.1, le=120)] = quantity("6 s", "seconds")
    sender_lag: Annotated[Quantity, Spec("seconds", "Gauge's sender lags", gt=0.1, le=120)] = quantity("5 s", "seconds")
    needle_lag: Annotated[Quantity, Spec("seconds", "Its needle lags", gt=0.1, le=300)] = quantity("10 s", "seconds")
    least_on: Annotated[Quantity, Spec("seconds", "Fans stay on at least", ge=0, le=600)] = quantity("0 s", "seconds")


def _leg(ident: str, name: str, kind: LegKind, lasts: str, **more: Any) -> Leg:
    return Leg(id=ident, name=name, kind=kind, lasts=quantity(lasts, "minutes"), **more)


def usual_schedules() -> tuple[Schedule, ...]:
    """What builders ask of every package: a long light, traffic, a hill with what follows it, how
    long full power lasts."""
    soak = Schedule(
        id="soak",
        name="Idle soak, A/C on",
        begins="warm",
        legs=(_leg("idle", "At a light", "idle", "25 min", ac_on=True),),
    )
    traffic = Schedule(
        id="traffic",
        name="Road, then traffic",
        legs=(
            _leg("road", "Road", "hold", "10 min", speed=quantity("55 mph", "speed"), ac_on=True),
            _leg("lights", "Light to light", "stops", "20 min", speed=quantity("25 mph", "speed"), ac_on=True),
            _leg("dead", "Dead stop", "idle", "10 min", ac_on=True),
        ),
    )
    fuel = Schedule(
        id="fuel",
        name="Hill, fuel stop, restart",
        legs=(
            _leg("road", "Road", "hold", "8 min", speed=quantity("60 mph", "speed")),
            _leg(
                "hill",
                "Hill",
                "hold",
                "8 min",
                speed=quantity("45 mph", "speed"),
                grade=quantity("6 %", "share"),
                gear_step=quantity("1.4", "number"),
            ),
            _leg("stop", "Key off", "off", "12 min"),
            _leg("again", "Restart", "idle", "5 min"),
        ),
    )
    power = Schedule(
        id="power",
        name="Full power from warm",
        begins="warm",
        legs=(_leg("pull", "All it has", "pull", "4 min", speed=quantity("80 mph", "speed")),),
    )
    return soak, traffic, fuel, power


class Driving(Strict):
    """Drives of the build."""

    schedules: Annotated[tuple[Schedule, ...], most(40)] = usual_schedules()
    traces: Annotated[tuple[Trace, ...], most(20)] = ()
    stores: Stores = Stores()
