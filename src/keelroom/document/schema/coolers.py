"""Coolers of everything but the coolant: what each is, where it stands, its own air, its lines."""

from typing import Annotated, Literal

from keelroom.document.quantity import Quantity, Spec, Strict, quantity
from keelroom.document.schema.brief import Maybe

CoolerKind = Literal[
    "condenser", "gearbox_cooler", "oil_cooler", "steering_cooler", "charge_cooler", "water_charge_cooler", "screen"
]
Make = Literal["tube_fin", "plate_fin", "stacked_plate"]
Stands = Literal["ahead", "beside", "behind", "bay", "bumper", "floor", "wheel_well", "trunk"]
Fitting = Literal["straight", "elbow_45", "elbow_90"]
Blade = Literal["straight", "curved"]
Through = Literal["pulls", "pushes"]


class Cooler(Strict):
    """One cooler, or a screen. Ahead of the core its place is on the face; elsewhere its lower left front corner is
    placed by the datums."""

    id: str
    name: str = ""
    kind: CoolerKind = "condenser"
    make: Make = "tube_fin"
    stands: Stands = "ahead"
    left: Annotated[Quantity, Spec("length", "From left", ge=-1, le=3)] = quantity("0 in", "length")
    bottom: Annotated[Quantity, Spec("length", "From bottom", ge=-1, le=3)] = quantity("0 in", "length")
    width: Annotated[
        Maybe, Spec("length", "Cooler width", gt=0.01, le=3, help="Empty: to the far edge of the face")
    ] = None
    height: Annotated[Maybe, Spec("length", "Cooler height", gt=0.01, le=3, help="Empty: to the top of the face")] = (
        None
    )
    loss: Annotated[
        Quantity,
        Spec(
            "number",
            "Air resistance",
            ge=0,
            le=100,
            help="Dynamic heads of the air's own speed: condenser 7, plate cooler 12, screen 1–2",
        ),
    ] = quantity("7", "number")
    conductance: Annotated[
        Quantity,
        Spec(
            "face conductance",
            "Heat per face and kelvin",
            gt=0,
            le=20000,
            help="From its fluid to air of 3 m/s: condenser 2500, plate cooler 1500, tube-and-fin 800",
        ),
    ] = quantity("2500 W/m²K", "face conductance")
    thickness: Annotated[Quantity, Spec("length", "Cooler depth", gt=0, le=0.2)] = quantity("3/4 in", "length")
    stand_off: Annotated[Quantity, Spec("length", "Ahead of the core by", ge=0, le=0.3)] = quantity("1/2 in", "length")
    front: Annotated[
        Maybe,
        Spec(
            "length",
            "Its front from support plane",
            ge=-2,
            le=6,
            help="Negative ahead of the panel; for coolers away from the core",
        ),
    ] = None
    after_tank: bool = False
    """gearbox fluid comes to it from the cooler in the core's tank, not the other way round"""
    opens: Annotated[
        Maybe,
        Spec(
            "temperature",
            "Bypass thermostat opens at",
            ge=20,
            le=150,
            help="Empty: it has none, all fluid goes through it",
        ),
    ] = None
    opening: Annotated[
        Maybe,
        Spec(
            "area",
            "Openings that feed it",
            gt=1e-5,
            le=1,
            help="Slots of bumper or cross member; empty: as large as its face",
        ),
    ] = None
    guard: Annotated[
        Quantity,
        Spec("number", "Guard's resistance", ge=0, le=20, help="Dynamic heads of a mesh ahead of it: 1–2; 0 without"),
    ] = quantity("0", "number")
    spacer: Annotated[
        Quantity, Spec("length", "Spacers behind it", ge=0, le=0.3, help="The way out of its air: 3/4 in is little")
    ] = quantity("3/4 in", "length")
    side_room: Annotated[Quantity, Spec("length", "Room at each side", ge=0, le=0.5)] = quantity("1 in", "length")
    fans: Annotated[Quantity, Spec("count", "Its own fans", ge=0, le=4, whole=True)] = quantity("0", "count")
    fan_diameter: Annotated[Maybe, Spec("length", "Own fan, diameter", gt=0.03, le=0.6)] = quantity(
        "4 1/2 in", "length"
    )
    fan_flow: Annotated[Maybe, Spec("airflow", "Own fan, free-air flow", gt=0, le=3)] = quantity("150 CFM", "airflow")
    fan_power: Annotated[Maybe, Spec("electrical power", "Own fan, motor", gt=0, le=1000, help="Each")] = quantity(
        "45 W", "electrical power"
    )
    fan_voltage: Annotated[Quantity, Spec("voltage", "Own fan, rated at", gt=0, le=60)] = quantity("13.0 V", "voltage")
    fan_on: Annotated[
        Maybe,
        Spec(
            "temperature",
            "Own fan’s switch, on at",
            ge=20,
            le=150,
            descriptive=True,
            help="Of its fluid; empty: it runs when fed. Judged; what is told is the fan’s running",
        ),
    ] = None
    blade: Blade = "straight"
    through: Through = "pulls"
    backwards: bool = False
    """a one-way blade with its polarity reversed"""
    fitting: Fitting = "straight"
    fitting_room: Annotated[Quantity, Spec("length", "Room for its fittings", ge=0, le=0.5)] = quantity(
        "2 1/2 in", "length"
    )
    line_bore: Annotated[Quantity, Spec("length", "Line bore", gt=2e-3, le=0.1)] = quantity("3/8 in", "length")
    line_length: Annotated[Quantity, Spec("length", "Lines, there and back", ge=0, le=30)] = quantity("8 ft", "length")
    bends: Annotated[Quantity, Spec("count", "Right-angle bends in them", ge=0, le=30, whole=True)] = quantity(
        "4", "count"
    )
    tightest: Annotated[
        Maybe,
        Spec(
            "length", "Tightest bend of a hose, radius", gt=2e-3, le=2, help="To the hose's middle; empty: not measured"
        ),
    ] = None
    cost: Annotated[Maybe, Spec("money", "Cooler cost", ge=0, le=1e6)] = None

    @property
    def away(self) -> bool:
        """Whether it has air of its own: it stands neither ahead of the core nor behind it."""
        return self.stands not in ("ahead", "behind")
