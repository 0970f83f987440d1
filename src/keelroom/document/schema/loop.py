"""What a package chooses of the coolant circuit: pump, thermostat, caps, what stands in it and how it is joined; and
what runs in it."""

from typing import Annotated, Literal

from keelroom.document.quantity import Quantity, Spec, Strict, most, quantity

Maybe = Quantity | None
ThermostatPlace = Literal["outlet", "inlet"]
ThermostatState = Literal["fitted", "reversed", "none"]
Glycol = Literal["ethylene_glycol", "propylene_glycol"]
PumpKind = Literal["mechanical", "electric", "both"]
"""the engine's own, an electric one in its place, or an electric one in line beside it"""
Impeller = Literal["good", "worn"]
AirLeft = Literal["bled", "some", "locked"]
"""air that stands in the coolant: none that matters, some that gurgles and is pumped round, a pocket that stops it"""
Bypass = Literal["inside", "blocked"]
CapState = Literal["good", "weak"]
CapKind = Literal["none", "pressure", "plain"]
PartKind = Literal[
    "pump", "thermostat", "heater", "surge_tank", "expansion_tank", "overflow", "filler", "bleed", "tee", "crossover"
]
PumpOutlet = Literal["up", "side", "down"]
Valve = Literal["open", "closed"]
HoseKind = Literal["moulded", "reinforced", "silicone", "convoluted", "hard"]
HoseState = Literal["good", "soft", "swollen", "cracked"]
Clamp = Literal["worm", "t_bolt", "spring", "crimp"]
Piece = Literal["none", "sleeve", "reducer"]
"""what makes a hose meet a neck of another bore: nothing, a sleeve cut from an offcut, a reducer"""
FillWay = Literal["vacuum", "funnel"]
FirstTest = Literal["pressure", "water"]
OldCoolant = Literal["none", "water", "same", "other", "glycol_only"]
"""what was in the circuit: nothing (new and dry), water, the same as goes in, another sort or an unknown one, glycol
without water"""


class PumpPoint(Strict):
    """One point of an electric pump's curve at its rated voltage."""

    flow: Annotated[Quantity, Spec("coolant flow", "Curve flow", ge=0, le=0.03)]
    pressure: Annotated[Quantity, Spec("pressure", "Curve pressure", ge=0, le=5e5)]


class Part(Strict):
    """Something that stands in the circuit beside engine and core, by the survey's datums; what is empty is not
    known."""

    id: str
    name: str = ""
    kind: PartKind = "surge_tank"
    x: Annotated[Maybe, Spec("length", "It stands from left", ge=-3, le=4)] = None
    y: Annotated[Maybe, Spec("length", "Its height from datum", ge=-3, le=3)] = None
    z: Annotated[Maybe, Spec("length", "It stands behind the plane", ge=-2, le=9)] = None
    bore: Annotated[Maybe, Spec("length", "Its ports’ bore", gt=0.002, le=0.1, help="Empty: as its hoses")] = None
    holds: Annotated[Maybe, Spec("volume", "It holds", gt=0, le=0.05, help="To its brim; empty: not known")] = None
    cap: CapKind = "none"
    cap_rating: Annotated[Maybe, Spec("pressure", "Its cap", ge=0, le=3e5, help="Empty: as the circuit’s")] = None
    stands: Annotated[
        Maybe, Spec("pressure", "It stands a pressure of", gt=0, le=1e6, help="Empty: taken from its kind")
    ] = None
    outlet: PumpOutlet = "up"
    lying: bool = False
    """a pump that lies on its side keeps its air"""
    opens: Annotated[
        Maybe, Spec("temperature", "It opens at", ge=30, le=120, help="Empty: as the circuit’s thermostat")
    ] = None
    loss: Annotated[
        Maybe,
        Spec("number", "Its loss, dynamic heads", ge=0, le=400, help="At its ports’ bore; empty: usual for its kind"),
    ] = None
    valve: Valve = "open"
    cost: Annotated[Maybe, Spec("money", "Its cost", ge=0, le=1e5)] = None


class Via(Strict):
    """A point a hose goes by: a clip, the highest place of a run, the lowest."""

    id: str
    x: Annotated[Maybe, Spec("length", "Goes by, from left", ge=-3, le=4, help="Empty: on its way")] = None
    y: Annotated[Maybe, Spec("length", "Goes by, height", ge=-3, le=3)] = None
    z: Annotated[Maybe, Spec("length", "Goes by, behind the plane", ge=-2, le=9, help="Empty: on its way")] = None


class Hose(Strict):
    """A hose or hard line between two ports, by their keys: `engine:upper`, `core:inlet`, `<part>:in`."""

    id: str
    name: str = ""
    start: str = ""
    end: str = ""
    kind: HoseKind = "moulded"
    bore: Annotated[Maybe, Spec("length", "Hose bore", gt=0.002, le=0.1, help="Empty: as its ends")] = None
    length: Annotated[Maybe, Spec("length", "Hose length", gt=0, le=30, help="Empty: along its route")] = None
    bends: Annotated[
        Maybe, Spec("count", "Right angles in it", ge=0, le=40, whole=True, help="Empty: along its route")
    ] = None
    tightest: Annotated[
        Maybe, Spec("length", "Tightest bend, radius", gt=2e-3, le=2, help="To its middle; empty: by its route")
    ] = None
    necks: Annotated[
        Maybe, Spec("length", "Narrowest fitting, bore", gt=1e-3, le=0.1, help="A 16-size line goes through 7/8 in")
    ] = None
    piece: Piece = "none"
    via: Annotated[tuple[Via, ...], most(40)] = ()
    state: HoseState = "good"
    stock: Annotated[
        Maybe, Spec("length", "Hose at hand is long", gt=0, le=30, help="A moulded one that is cut; empty: none yet")
    ] = None
    years: Annotated[Maybe, Spec("number", "Its age in years", ge=0, le=80)] = None
    clamp: Clamp = "worm"
    bleed: bool = False
    """a bleed screw stands at its highest point"""
    cost: Annotated[Maybe, Spec("money", "Hose cost", ge=0, le=1e5)] = None


def usual_hoses() -> tuple[Hose, ...]:
    """Upper and lower hose as a new package begins with them."""
    ends = (
        ("upper", "Upper hose", "engine:upper", "core:inlet"),
        ("lower", "Lower hose", "core:outlet", "engine:lower"),
    )
    return tuple(
        Hose(
            id=ident, name=name, start=start, end=end, length=quantity("24 in", "length"), bends=quantity("2", "count")
        )
        for ident, name, start, end in ends
    )


class Loop(Strict):
    """The coolant circuit outside engine and core."""

    pump: PumpKind = "mechanical"
    pulley_ratio: Annotated[
        Maybe,
        Spec(
            "number",
            "Pump speed over stock",
            gt=0.2,
            le=3,
            help="1 stock pulleys; a smaller pump pulley gives more, 1.15–1.3",
        ),
    ] = quantity("1", "number")
    impeller: Impeller = "good"
    air_left: AirLeft = "bled"
    electric_flow: Annotated[Maybe, Spec("coolant flow", "Electric pump, free flow", gt=0, le=0.02)] = quantity(
        "35 gpm", "coolant flow"
    )
    electric_pressure: Annotated[Maybe, Spec("pressure", "Electric pump, shut off", gt=0, le=5e5)] = quantity(
        "9 psi", "pressure"
    )
    electric_voltage: Annotated[Maybe, Spec("voltage", "Electric pump rated at", gt=0, le=60)] = quantity(
        "13.5 V", "voltage"
    )
    electric_power: Annotated[Maybe, Spec("electrical power", "Electric pump draws", gt=0, le=2000)] = quantity(
        "100 W", "electrical power"
    )
    pump_curve: Annotated[tuple[PumpPoint, ...], most(40)] = ()
    pump_on: Annotated[
        Maybe,
        Spec(
            "temperature",
            "Electric pump starts at",
            ge=20,
            le=130,
            help="Empty: it always runs. About 140 °F is usual in line",
        ),
    ] = None
    thermostat: Annotated[Maybe, Spec("temperature", "Thermostat starts to open", ge=30, le=120)] = quantity(
        "180 °F", "temperature"
    )
    thermostat_place: ThermostatPlace = "outlet"
    thermostat_state: ThermostatState = "fitted"
    bypass: Bypass = "inside"
    cap_pressure: Annotated[Maybe, Spec("pressure", "Cap", ge=0, le=3e5)] = quantity("15 psi", "pressure")
    cap_state: CapState = "good"
    """a tired spring or seal lets go under its rating"""
    core_neck: CapKind = "pressure"
    """what closes the core's own filler neck; none: it has none"""
    core_stands: Annotated[
        Maybe, Spec("pressure", "Core stands a pressure of", gt=0, le=1e6, help="Empty: taken from its make")
    ] = None
    parts: Annotated[tuple[Part, ...], most(60)] = ()
    hoses: Annotated[tuple[Hose, ...], most(60)] = usual_hoses()
    hold: Annotated[
        Maybe,
        Spec(
            "volume",
            "The circuit holds, measured",
            gt=0,
            le=0.2,
            help="By what went in when it was dry; empty: worked out",
        ),
    ] = None
    stays: Annotated[
        Quantity, Spec("share", "Stays in when drained", ge=0, le=1, help="Of all: block and heater keep 30–40 %")
    ] = quantity("35 %", "share")
    old_coolant: OldCoolant = "same"
    fill_way: FillWay = "vacuum"
    first_test: FirstTest = "pressure"
    ground_strap: bool = True
    """core and engine are tied to ground by straps of their own, not through the coolant"""


class Coolant(Strict):
    """What runs in the circuit."""

    glycol: Glycol = "ethylene_glycol"
    glycol_share: Annotated[
        Maybe, Spec("share", "Glycol, by volume", ge=0, le=1, help="50 % usual; 100 % is glycol-only (waterless)")
    ] = quantity("50 %", "share")
    inhibitor: bool = True
    """its inhibitors are there and not spent; plain water has none of its own"""
    coldest: Annotated[Quantity, Spec("temperature", "Coldest night", ge=-60, le=40)] = quantity(
        "-10 °F", "temperature"
    )
