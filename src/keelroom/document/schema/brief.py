"""The brief: vehicle, engine, accessories, climate, the limit, and what was wrong before."""

from typing import Annotated, Literal

from keelroom.document.quantity import Quantity, Spec, Strict, most, quantity

Maybe = Quantity | None
EngineKind = Literal["carburetted", "injected", "modern", "boosted", "diesel"]
Gearbox = Literal["manual", "automatic"]
CauseState = Literal["open", "fine", "found", "mended"]
Symptom = Literal[
    "climbs_at_idle",
    "climbs_with_ac",
    "climbs_at_speed",
    "climbs_on_grade",
    "loses_coolant",
    "slow_warm_up",
    "heater_cold",
]


class Vehicle(Strict):
    """What is pushed through the air and up the hill, and the openings air comes and goes by."""

    name: str = ""
    mass: Annotated[Maybe, Spec("mass", "Vehicle mass", gt=0, le=30000, help="Ready to drive, with its usual load")] = (
        None
    )
    drag_area: Annotated[
        Maybe, Spec("drag area", "Drag area (Cd × A)", gt=0, le=15, help="0.6–0.8 m² car, 1.0–1.4 m² van or truck")
    ] = quantity("0.8 m²", "drag area")
    rolling: Annotated[
        Maybe, Spec("number", "Rolling resistance", gt=0, le=0.1, help="0.010 road tyres, 0.015 off-road tyres")
    ] = quantity("0.012", "number")
    tyre_diameter: Annotated[Maybe, Spec("length", "Tyre diameter", gt=0, le=2)] = quantity("26 in", "length")
    gearbox: Gearbox = "automatic"
    in_tank_cooler: bool = True
    converter_factor: Annotated[
        Maybe,
        Spec(
            "number",
            "Converter's K",
            gt=50,
            le=500,
            help="rpm over the root of lbf·ft at stall: stock 140–200, loose 250 and more",
        ),
    ] = quantity("160", "number")
    lockup: bool = True
    """its converter locks on the road"""
    top_ratio: Annotated[Maybe, Spec("number", "Top gear ratio", gt=0, le=5)] = quantity("0.75", "number")
    final_drive: Annotated[Maybe, Spec("number", "Final drive", gt=0, le=20)] = quantity("3.55", "number")
    driveline_efficiency: Annotated[Maybe, Spec("share", "Driveline efficiency", gt=0.3, le=1)] = quantity(
        "88 %", "share"
    )
    grille_area: Annotated[
        Maybe, Spec("area", "Grille opening", ge=5e-4, le=3, help="Open area the air comes in by, mesh taken off")
    ] = quantity("300 in²", "area")
    exit_area: Annotated[
        Maybe, Spec("area", "Bay exit opening", ge=5e-4, le=3, help="Under the car, louvers and vents together")
    ] = quantity("450 in²", "area")


class Engine(Strict):
    """The engine that makes the heat."""

    name: str = ""
    displacement: Annotated[Maybe, Spec("displacement", "Displacement", gt=0, le=0.03)] = None
    cylinders: Annotated[Maybe, Spec("count", "Cylinders", gt=0, le=16, whole=True)] = quantity("8", "count")
    kind: EngineKind = "injected"
    power: Annotated[Maybe, Spec("power", "Power", gt=0, le=1.5e6)] = None
    power_rpm: Annotated[Maybe, Spec("turning speed", "Power at", gt=0, le=250)] = None
    boost: Annotated[Maybe, Spec("pressure", "Boost", ge=0, le=5e5, help="0 for a naturally aspirated engine")] = (
        quantity("0 psi", "pressure")
    )
    idle_rpm: Annotated[Maybe, Spec("turning speed", "Idle speed", gt=0, le=50)] = quantity("700 rpm", "turning speed")
    pump_flow: Annotated[
        Maybe,
        Spec(
            "coolant flow",
            "Coolant flow at power rpm",
            gt=0,
            le=0.02,
            help="Pump at the speed of greatest power; 1–1.6 L/min per kW usual",
        ),
    ] = None
    heat_multiplier: Annotated[
        Maybe,
        Spec("number", "Heat multiplier", gt=0.3, le=3, help="1 as computed; retarded ignition or lean idle 1.1–1.2"),
    ] = quantity("1", "number")
    bay_heat: Annotated[
        Maybe,
        Spec(
            "share",
            "Fuel heat into the bay air",
            ge=0,
            le=0.3,
            help="Block and exhaust; 3–10 %, less with wrapped pipes",
        ),
    ] = quantity("5 %", "share")


class Stood(Strict):
    """An entry as it stood before a cause that was found was entered in it."""

    path: Annotated[tuple[str, ...], most(12)]
    value: Quantity | str | bool | None = None


class CauseCheck(Strict):
    """What became of one cheap cause that was looked into.

    size : of one that was found and is entered, also where a package is judged as if it were mended;  stood : the
           entries it was entered in, as they go back when it is mended
    """

    id: str
    state: CauseState = "open"
    size: str = ""
    stood: Annotated[tuple[Stood, ...], most(120)] = ()


class Accessories(Strict):
    """What hangs on the engine besides the wheels, most of all at idle."""

    ac_fitted: bool = True
    ac_idle_power: Annotated[Maybe, Spec("power", "A/C compressor at idle", ge=0, le=20e3)] = quantity(
        "2.5 kW", "power"
    )
    ac_road_power: Annotated[Maybe, Spec("power", "A/C compressor on the road", ge=0, le=20e3)] = quantity(
        "3.2 kW", "power"
    )
    ac_cop: Annotated[Maybe, Spec("number", "A/C cooling per shaft power", gt=0, le=6)] = quantity("1.8", "number")
    steering_power: Annotated[Maybe, Spec("power", "Power steering", ge=0, le=10e3)] = quantity("0.3 kW", "power")
    converter_power: Annotated[
        Maybe,
        Spec(
            "power",
            "Converter drag in gear at idle",
            ge=0,
            le=20e3,
            help="Empty: worked out from its K and the idle speed",
        ),
    ] = None
    refrigerant: Literal["r134a", "r1234yf"] = "r134a"
    alternator_rating: Annotated[Maybe, Spec("current", "Alternator rating", gt=0, le=500)] = quantity(
        "105 A", "current"
    )
    alternator_idle_share: Annotated[
        Maybe,
        Spec(
            "share",
            "Alternator output hot at idle",
            gt=0,
            le=1,
            help="Empty: from its curve and pulley; 35–55 % of the rating usual",
        ),
    ] = None
    alternator_efficiency: Annotated[Maybe, Spec("share", "Alternator efficiency", gt=0.1, le=1)] = quantity(
        "55 %", "share"
    )
    idle_voltage: Annotated[
        Maybe,
        Spec(
            "voltage",
            "Measured at the battery, idle",
            gt=0,
            le=60,
            help="Empty: worked out. Everything on, meter on the posts",
        ),
    ] = None
    road_voltage: Annotated[
        Maybe,
        Spec(
            "voltage",
            "Measured at the battery, road",
            gt=0,
            le=60,
            help="Empty: worked out. Everything on, meter on the posts",
        ),
    ] = None


class Climate(Strict):
    """The hottest day the package must live with."""

    ambient: Annotated[Maybe, Spec("temperature", "Hottest day", ge=-50, le=60)] = quantity("100 °F", "temperature")
    altitude: Annotated[Maybe, Spec("altitude", "Altitude", ge=-500, le=6000)] = quantity("300 m", "altitude")
    humidity: Annotated[Maybe, Spec("share", "Relative humidity", ge=0, le=1)] = quantity("35 %", "share")
    asphalt_rise: Annotated[
        Maybe,
        Spec(
            "temperature difference",
            "Grille air over ambient, standing",
            ge=0,
            le=40,
            help="3–8 K over hot asphalt in traffic",
        ),
    ] = quantity("5 K", "temperature difference")


class Cooling(Strict):
    """What the engine may be run at."""

    limit: Annotated[Maybe, Spec("temperature", "Limit, engine outlet", ge=40, le=150)] = quantity(
        "225 °F", "temperature"
    )


class Brief(Strict):
    """Everything known before a part is chosen."""

    title: str = ""
    use: str = ""
    symptoms: Annotated[tuple[Symptom, ...], most(20)] = ()
    notes: str = ""
    vehicle: Vehicle = Vehicle()
    engine: Engine = Engine()
    accessories: Accessories = Accessories()
    climate: Climate = Climate()
    cooling: Cooling = Cooling()
    causes: Annotated[tuple[CauseCheck, ...], most(60)] = ()
