"""Electrics: what feeds the vehicle, the circuits of a package, and who decides when its fans run."""

from typing import Annotated, Literal

from keelroom.document.quantity import Quantity, Spec, Strict, most, quantity
from keelroom.document.schema.brief import Maybe

CableKey = Literal[
    "j1128_thermoplastic", "j1128_crosslinked", "iso_a", "iso_b", "iso_c", "iso_d", "bare_awg", "aluminium"
]
FuseForm = Literal["blade", "large_blade", "cartridge", "bolt_down", "breaker"]
Switch = Literal["relay", "relays", "parallel", "controller", "own", "switch", "none"]
UNRELAYED: tuple[Switch, ...] = ("own", "none")
"""ways of switching with nothing between fuse and motor"""
EACH: tuple[Switch, ...] = ("relays", "own")
"""ways of switching that switch each motor by itself"""
RELAYED: tuple[Switch, ...] = ("relay", "relays", "parallel")
"""ways of switching that are relays"""
Ground = Literal["battery", "chassis", "engine", "core", "none"]
When = Literal["always", "with_ac", "moving", "standing"]
Strategy = Literal[
    "toggle",
    "ground_switch",
    "feed_switch",
    "two_speed",
    "both_relays",
    "adjustable",
    "variable",
    "module",
    "computer",
    "computer_pwm",
]
SensorPlace = Literal["upper_hose", "core_in", "core_out", "lower_hose", "housing", "head", "fins", "engine", "none"]
"""core_in, core_out: the core's own bung, in the tank the coolant comes into or leaves by"""
SensorState = Literal["works", "lost_runs", "lost_stands"]
"""unplugged or broken: what commands the fans runs them to be safe, or leaves them standing"""
Belt = Literal["good", "slips"]
Thread = Literal["npt_18", "npt_14", "npt_38", "npt_12", "m14", "m16", "m22"]
Coil = Literal["key", "always"]
LowSpeed = Literal["one_fan", "series", "winding", "merged", "tied"]
"""merged: both outputs on one relay box, a contact each; tied: both outputs on one wire, which no computer likes"""
Colour = Literal["", "red", "orange", "yellow", "brown", "pink", "violet", "blue", "grey", "green", "black"]
"""of a wire as bought; '' as the tool's own rule gives it"""
BenchTest = Literal["spin", "short", "sensor", "relay", "override", "set_points", "voltage", "current"]


class Wire(Strict):
    """One run of wire."""

    length: Annotated[Quantity, Spec("length", "Length, one way", ge=0, le=15)] = quantity("3 ft", "length")
    size: Annotated[Quantity, Spec("wire size", "Size", gt=1e-7, le=1.2e-4, help="AWG or mm²: 14 AWG, 2.5 mm²")] = (
        quantity("12 AWG", "wire size")
    )
    cable: CableKey = "j1128_crosslinked"
    ambient: Annotated[
        Quantity, Spec("temperature", "Air round it", ge=-40, le=150, help="Under the hood 140–185 °F (60–85 °C)")
    ] = quantity("150 °F", "temperature")
    bundle: Annotated[
        Quantity, Spec("count", "Loaded wires in its bundle", gt=0, le=60, whole=True, help="Itself included")
    ] = quantity("2", "count")
    colour: Colour = ""


def _branch() -> Wire:
    return Wire(length=quantity("1 1/2 ft", "length"), ambient=quantity("170 °F", "temperature"))


def _back() -> Wire:
    return Wire(length=quantity("2 ft", "length"))


class Circuit(Strict):
    """From a source to motors and back. feeds: ids of what it drives; sources: ids of what it is tied to."""

    id: str
    name: str = ""
    feeds: Annotated[tuple[str, ...], most(40)] = ()
    sources: Annotated[tuple[str, ...], most(20)] = ("battery",)
    fuse: Annotated[Maybe, Spec("current", "Fuse", gt=0, le=500, help="Empty: no fuse")] = quantity("30 A", "current")
    fuse_form: FuseForm = "blade"
    fuse_at: Annotated[
        Quantity,
        Spec("length", "Wire from source to fuse", ge=0, le=10, help="Nothing protects it: 7 in (18 cm) at most"),
    ] = quantity("6 in", "length")
    switch: Switch = "relay"
    relay: Annotated[
        Maybe, Spec("current", "Relay or controller, each", gt=0, le=500, help="Its rating at room temperature")
    ] = quantity("30 A", "current")
    relay_air: Annotated[Quantity, Spec("temperature", "Air at the relay", ge=-40, le=150)] = quantity(
        "150 °F", "temperature"
    )
    lead_length: Annotated[
        Maybe, Spec("length", "Controller’s own leads, length", gt=0, le=5, help="As sold with it; empty: none")
    ] = None
    lead_size: Annotated[Maybe, Spec("wire size", "Controller’s own leads, size", gt=1e-7, le=1.2e-4)] = None
    kit: str = ""
    """the kit as sold it came out of; '' where it was made up of parts"""
    spare: Annotated[
        Quantity, Spec("count", "Leads of a kit left over", ge=0, le=20, whole=True, help="Insulated and tied back")
    ] = quantity("0", "count")
    connector: Annotated[
        Maybe,
        Spec("current", "Connector at each motor", gt=0, le=500, help="Its rating at room temperature; empty: none"),
    ] = quantity("40 A", "current")
    ground: Ground = "chassis"
    grounds: Annotated[
        Quantity, Spec("count", "Ground points", gt=0, le=6, whole=True, help="More than one is a good habit")
    ] = quantity("1", "count")
    shared_ground: bool = False
    measured_drop: Annotated[
        Maybe, Spec("voltage", "Measured drop, there and back", ge=0, le=10, help="Empty: worked out from its wires")
    ] = None
    feed: Wire = Wire()
    branch: Wire = _branch()
    back: Wire = _back()


class CommandPoint(Strict):
    """One point of a variable-speed controller's curve."""

    temperature: Annotated[Quantity, Spec("temperature", "Curve temperature", ge=0, le=150)]
    share: Annotated[Quantity, Spec("share", "Curve speed", ge=0, le=1)]


class Control(Strict):
    """Who decides when the package's fans run."""

    strategy: Strategy = "ground_switch"
    sensor: SensorPlace = "upper_hose"
    sensor_state: SensorState = "works"
    toggle_on: bool = True
    coil: Coil = "key"
    fan_on: Annotated[Quantity | None, Spec("temperature", "Fans on", ge=20, le=130)] = quantity(
        "195 °F", "temperature"
    )
    fan_off: Annotated[Quantity | None, Spec("temperature", "Fans off", ge=20, le=130)] = quantity(
        "185 °F", "temperature"
    )
    second_on: Annotated[Quantity, Spec("temperature", "Second speed on", ge=20, le=130)] = quantity(
        "205 °F", "temperature"
    )
    second_off: Annotated[Quantity, Spec("temperature", "Second speed off", ge=20, le=130)] = quantity(
        "195 °F", "temperature"
    )
    low_speed: LowSpeed = "one_fan"
    curve: Annotated[tuple[CommandPoint, ...], most(40)] = ()
    soft_start: bool = False
    ac_request: bool = False
    ac_fans: Annotated[tuple[str, ...], most(20)] = ()
    """fans the A/C asks for; () all that the first stage starts"""
    lead: str = ""
    """the fan that starts first; '' the first of the list"""
    override: bool = True
    run_on: Annotated[Quantity, Spec("minutes", "Runs on after key-off", ge=0, le=3600, help="0 for none")] = quantity(
        "0 min", "minutes"
    )
    set_on_day: Annotated[
        Quantity,
        Spec("temperature", "Knob was set on a day of", ge=-40, le=60, help="A probe in the fins reads the air too"),
    ] = quantity("90 °F", "temperature")
    adapter: Annotated[Quantity, Spec("length", "Sensor adapter, length", gt=0.01, le=0.3)] = quantity(
        "2 1/2 in", "length"
    )
    adapter_push: Annotated[Quantity, Spec("length", "Adapter inside each hose end", gt=0.003, le=0.1)] = quantity(
        "3/4 in", "length"
    )
    thread: Thread = "npt_38"
    strap: bool = True
    spun: Annotated[tuple[str, ...], most(40)] = ()
    """fans whose direction was felt by hand before the harness was built"""
    done: Annotated[tuple[BenchTest, ...], most(200)] = ()


class AlternatorPoint(Strict):
    """One point of an alternator's output cold, at its own speed."""

    speed: Annotated[Quantity, Spec("turning speed", "Curve speed", ge=0, le=400)]
    current: Annotated[Quantity, Spec("current", "Curve current", ge=0, le=600)]


class Source(Strict):
    """Where a circuit may be tied: its nominal voltage, and whether it is live with the key off."""

    id: str
    name: str = ""
    voltage: Annotated[Quantity, Spec("voltage", "Nominal voltage", gt=0, le=60)] = quantity("12 V", "voltage")
    always: bool = True
    holds: Annotated[
        Maybe,
        Spec(
            "current",
            "It gives at most",
            gt=0,
            le=500,
            descriptive=True,
            help="A fuse panel’s slot, a fuse tapped, a channel; empty: a post, which gives anything",
        ),
    ] = None
    channel: bool = False
    """a solid-state channel: it shuts itself off over what it gives, starts included"""


class Load(Strict):
    """What draws current besides fans and pumps of the build."""

    id: str
    name: str = ""
    power: Annotated[Quantity, Spec("electrical power", "Draws", ge=0, le=10e3, help="At 13.5 V")] = quantity(
        "50 W", "electrical power"
    )
    when: When = "always"


def usual_sources() -> tuple[Source, ...]:
    """What every vehicle has: battery, alternator and a feed the key switches."""
    return (
        Source(id="battery", name="Battery post"),
        Source(id="alternator", name="Alternator post"),
        Source(id="ignition", name="Feed switched by the key", always=False),
    )


def usual_loads() -> tuple[Load, ...]:
    """What a car of the usual kind draws (common practice)."""
    usual: tuple[tuple[str, str, str, When], ...] = (
        ("ignition", "Ignition and injection", "90 W", "always"),
        ("fuel_pump", "Fuel pump", "90 W", "always"),
        ("lamps", "Lamps", "130 W", "always"),
        ("blower", "Cabin blower", "200 W", "with_ac"),
        ("clutch", "A/C clutch", "45 W", "with_ac"),
        ("other", "Other", "40 W", "always"),
    )
    return tuple(
        Load(id=ident, name=name, power=quantity(power, "electrical power"), when=when)
        for ident, name, power, when in usual
    )


def _charge_wire() -> Wire:
    return Wire(
        length=quantity("5 ft", "length"),
        size=quantity("4 AWG", "wire size"),
        ambient=quantity("170 °F", "temperature"),
        bundle=quantity("1", "count"),
    )


Charger = Literal["alternator", "generator"]
"""what charges: an alternator, or the direct-current generator of an older car"""


class Supply(Strict):
    """Alternator, battery and everything else they feed."""

    charger: Charger = "alternator"
    regulated: Annotated[Quantity, Spec("voltage", "Regulator holds", gt=0, le=60)] = quantity("14.2 V", "voltage")
    pulley_ratio: Annotated[Quantity, Spec("number", "Alternator turns per crank turn", gt=0.3, le=8)] = quantity(
        "2.7", "number"
    )
    speed_limit: Annotated[
        Quantity,
        Spec("turning speed", "Alternator’s speed limit", gt=10, le=500, help="15 000 and 18 000 rpm units exist"),
    ] = quantity("15000 rpm", "turning speed")
    redline: Annotated[Quantity, Spec("turning speed", "Engine’s redline", gt=5, le=300)] = quantity(
        "5500 rpm", "turning speed"
    )
    alternator_air: Annotated[Quantity, Spec("temperature", "Air at the alternator", ge=-40, le=150)] = quantity(
        "175 °F", "temperature"
    )
    curve: Annotated[tuple[AlternatorPoint, ...], most(40)] = ()
    capacity: Annotated[Quantity, Spec("charge", "Battery, at 20 hours", gt=0, le=4e6)] = quantity("60 Ah", "charge")
    reserve: Annotated[
        Maybe, Spec("minutes", "Reserve capacity", gt=0, le=60e3, help="Minutes at 25 A from its label; empty: from Ah")
    ] = None
    state: Annotated[Quantity, Spec("share", "State of charge", gt=0, le=1)] = quantity("80 %", "share")
    peukert: Annotated[
        Quantity, Spec("number", "Peukert’s exponent", ge=1, le=1.5, help="Flooded 1.2–1.3, AGM 1.05–1.15")
    ] = quantity("1.2", "number")
    belt: Belt = "good"
    """of alternator, coolant pump and engine-driven fan"""
    charge_wire: Wire = _charge_wire()
    charge_fuse: Annotated[
        Maybe, Spec("current", "Charge cable’s fuse", gt=0, le=500, help="At the battery’s end; empty: none")
    ] = None
    charge_limit: Annotated[Quantity, Spec("voltage", "Charge cable may lose", gt=0, le=5)] = quantity(
        "0.3 V", "voltage"
    )
    drop_limit: Annotated[Quantity, Spec("voltage", "A circuit may lose, there and back", gt=0, le=10)] = quantity(
        "0.5 V", "voltage"
    )
    sources: Annotated[tuple[Source, ...], most(20)] = usual_sources()
    loads: Annotated[tuple[Load, ...], most(80)] = usual_loads()
