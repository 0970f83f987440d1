"""A package: one core, its fans and its shroud, thought of and compared as a whole."""

from typing import Annotated, Literal

from keelroom.document.quantity import Quantity, Spec, Strict, most, quantity
from keelroom.document.schema.brief import Maybe
from keelroom.document.schema.coolers import Blade, Cooler
from keelroom.document.schema.electrical import Circuit, Control
from keelroom.document.schema.loop import Coolant, Loop
from keelroom.document.schema.mounts import Bracket, Mounting
from keelroom.document.schema.moves import Move
from keelroom.document.schema.panels import Panel, Sealing
from keelroom.document.schema.stock import MetalKey

Flow = Literal["crossflow", "downflow"]
Material = Literal["aluminium", "copper_brass"]
Condition = Literal["clean", "some_scale", "bad"]
Motor = Literal["brushed", "brushless", "engine"]
"""what turns a fan: a motor of either sort, or the engine's own pulley"""
Made = Literal["original", "copy", "used", "budget"]
"""what a fan comes as: a new original, a copy of one, used, from a budget kit"""
ShroudKind = Literal["full", "partial", "none"]
Plenum = Literal["shared", "divided"]
Mount = Literal["puller", "pusher"]
Side = Literal["left", "right"]
PanelEdge = Literal["left", "right", "bottom", "top"]
Flanges = Literal["clear_of_tanks", "all_round"]
Controller = Literal["none", "inside", "beside"]
"""where a motor's own electronics sit: none, in it, or in a box beside it"""
Signal = Literal["pulses", "level", "ground"]
"""what its electronics listen to: a pulse-width signal, a 12 V level, or a ground"""
FlapWay = Literal["away", "toward"]
FlapHinge = Literal["top", "side", "bottom"]
PortUse = Literal["inlet", "outlet", "vent", "drain", "filler", "sensor", "cooler", "other"]
PortTank = Literal["inlet", "outlet"]
PortState = Literal["open", "used", "plugged", "to_close"]
"""of a port: nothing on it, in use, closed by a plug, to be closed for good"""
JoinSeal = Literal["sealant", "foam", "welded", "none"]


class CorePort(Strict):
    """A port of the core's tanks beside its two necks, or one of the necks where it is not where it usually is."""

    id: str
    name: str = ""
    use: PortUse = "other"
    tank: PortTank = "inlet"
    up: Annotated[
        Quantity, Spec("length", "Port, along its tank", ge=-0.3, le=2, help="From the tank’s lower or left end")
    ] = quantity("2 in", "length")
    bore: Annotated[Quantity, Spec("length", "Port bore", gt=1e-3, le=0.1)] = quantity("1/2 in", "length")
    thread: str = ""
    state: PortState = "open"


class Core(Strict):
    """A louvered flat-tube radiator core with its tanks."""

    name: str = ""
    flow: Flow = "crossflow"
    passes: Annotated[Quantity, Spec("count", "Passes", gt=0, le=3, whole=True)] = quantity("1", "count")
    face_width: Annotated[Maybe, Spec("length", "Face width", gt=0.05, le=2)] = None
    face_height: Annotated[Maybe, Spec("length", "Face height", gt=0.05, le=2)] = None
    depth: Annotated[Maybe, Spec("length", "Core depth", gt=0, le=0.25)] = None
    rows: Annotated[Maybe, Spec("count", "Tube rows", gt=0, le=6, whole=True)] = quantity("2", "count")
    tank_size: Annotated[
        Maybe, Spec("length", "Tank, each side", ge=0, le=0.3, help="Beside the face, which is the finned part alone")
    ] = quantity("2 in", "length")
    tank_proud: Annotated[
        Quantity,
        Spec(
            "length",
            "Tanks stand proud behind by",
            ge=0,
            le=0.1,
            help="Behind the fins: what a shroud that is too wide stands on",
        ),
    ] = quantity("3/8 in", "length")
    neck_height: Annotated[
        Maybe,
        Spec("length", "Filler neck and cap stand up", gt=0, le=0.2, help="Over its tank, cap on; 1–1 3/4 in usual"),
    ] = None
    inlet_side: Side = "left"
    ports: Annotated[tuple[CorePort, ...], most(40)] = ()
    fin_density: Annotated[Maybe, Spec("fin density", "Fins", gt=0, le=1600)] = None
    fin_height: Annotated[Maybe, Spec("length", "Fin height between tubes", gt=1e-3, le=0.03)] = quantity(
        "8 mm", "length"
    )
    fin_thickness: Annotated[Maybe, Spec("length", "Fin thickness", gt=0.01e-3, le=0.5e-3)] = quantity(
        "0.1 mm", "length"
    )
    tube_height: Annotated[Maybe, Spec("length", "Tube thickness, outside", gt=0.5e-3, le=0.01)] = quantity(
        "2.0 mm", "length"
    )
    tube_wall: Annotated[Maybe, Spec("length", "Tube wall", gt=0.05e-3, le=1e-3)] = quantity("0.3 mm", "length")
    louver_pitch: Annotated[Maybe, Spec("length", "Louver pitch", gt=0.1e-3, le=0.01)] = quantity("1.2 mm", "length")
    louver_angle: Annotated[Maybe, Spec("angle", "Louver angle", gt=0.01, le=1.2)] = quantity("27 °", "angle")
    material: Material = "aluminium"
    condition: Condition = "clean"
    turbulator: Annotated[
        Maybe, Spec("number", "Tube dimples factor", gt=0.5, le=4, help="1 plain tube, 1.5–2 dimpled")
    ] = quantity("1", "number")
    cost: Annotated[Maybe, Spec("money", "Core cost", ge=0, le=1e6)] = None
    basis: str = ""


FINS = (
    "fin_density",
    "fin_height",
    "fin_thickness",
    "tube_height",
    "tube_wall",
    "louver_pitch",
    "louver_angle",
    "turbulator",
)
"""Entries of a core its heat and its air hang on, and nothing of its place."""


class CurvePoint(Strict):
    """One point of a fan's pressure-flow curve at its rated voltage."""

    flow: Annotated[Quantity, Spec("airflow", "Curve flow", ge=0, le=10)]
    pressure: Annotated[Quantity, Spec("fan pressure", "Curve pressure", ge=0, le=5000)]


class Fan(Strict):
    """An electric fan and where its centre sits on the face, from the face's lower left corner."""

    id: str
    name: str = ""
    diameter: Annotated[Maybe, Spec("length", "Fan diameter", gt=0.05, le=1)] = None
    hub_diameter: Annotated[Maybe, Spec("length", "Hub diameter", gt=0.01, le=0.5)] = quantity("5 in", "length")
    depth: Annotated[Maybe, Spec("length", "Fan depth", gt=0, le=0.4, help="Over all, motor included")] = quantity(
        "2.6 in", "length"
    )
    x: Annotated[Quantity, Spec("length", "Centre from left", ge=-1, le=3)]
    y: Annotated[Quantity, Spec("length", "Centre from bottom", ge=-1, le=3)]
    free_air_flow: Annotated[Maybe, Spec("airflow", "Rated free-air flow", gt=0, le=10)] = None
    power: Annotated[
        Maybe,
        Spec("electrical power", "Motor power", gt=0, le=3000, help="Two of watts, volts and amps give the third"),
    ] = None
    rated_voltage: Annotated[Maybe, Spec("voltage", "Rated at", gt=0, le=60)] = quantity("13.0 V", "voltage")
    rated_current: Annotated[Maybe, Spec("current", "Label says", gt=0, le=300, help="Empty: watts over volts")] = None
    derate: Annotated[
        Maybe,
        Spec(
            "share",
            "Credible share of the rating",
            gt=0.2,
            le=1.2,
            help="Advertised figures are free air and optimistic: 95 % unless you know better",
        ),
    ] = quantity("95 %", "share")
    made: Made = "original"
    """where it comes from, for how far its rating is believed"""
    blade: Blade = "curved"
    motor: Motor = "brushed"
    controller: Controller = "none"
    signal: Signal = "pulses"
    key_lead: bool = True
    """its electronics are woken by a lead from the key"""
    override_lead: bool = False
    """a lead that runs it at full speed whatever the signal says"""
    mount: Mount = "puller"
    runs: bool = True
    reversed_blade: bool = False
    reversed_share: Annotated[
        Quantity,
        Spec(
            "share",
            "Flow when run backwards",
            gt=0.05,
            le=1,
            help="A one-way blade with its polarity reversed keeps 50–60 %",
        ),
    ] = quantity("55 %", "share")
    curve: Annotated[tuple[CurvePoint, ...], most(40)] = ()
    ratio: Annotated[Quantity, Spec("number", "Turns per engine turn", gt=0.2, le=3)] = quantity("1.1", "number")
    rated_rpm: Annotated[
        Quantity, Spec("turning speed", "Flow is stated at", gt=5, le=150, help="Speed of the blades")
    ] = quantity("2200 rpm", "turning speed")
    drag: Annotated[
        Maybe,
        Spec("power", "Shaft power at that speed", gt=0, le=30e3, help="2–4 kW usual for a 17–18 in fan at 2 200 rpm"),
    ] = quantity("2.2 kW", "power")
    clutch: bool = True
    """a thermal clutch lets an engine-driven fan slip while the air behind the core is cool"""
    engages: Annotated[
        Maybe,
        Spec(
            "temperature", "Clutch half engaged at", ge=20, le=150, help="Of the air behind the core; 150–180 °F usual"
        ),
    ] = quantity("165 °F", "temperature")
    safe_rpm: Annotated[Maybe, Spec("turning speed", "Safe speed of the blades", gt=10, le=300)] = quantity(
        "6000 rpm", "turning speed"
    )
    immersion: Annotated[
        Quantity,
        Spec("share", "Blades in the shroud by", ge=0, le=1, help="Half to two thirds of their depth draws best"),
    ] = quantity("60 %", "share")
    nose: Annotated[
        Maybe,
        Spec(
            "length",
            "Support plane to its blades",
            ge=-0.5,
            le=3,
            help="Of one on the engine, no new spacer; empty: it goes where the core goes",
        ),
    ] = None
    spacer: Annotated[
        Quantity, Spec("length", "Spacer brings it forward", ge=-0.1, le=0.2, help="Thicker than the one measured with")
    ] = quantity("0 in", "length")
    tip_trim: Annotated[
        Quantity, Spec("length", "Trimmed off each tip", ge=0, le=0.1, help="Alike on every blade, or it shakes")
    ] = quantity("0 in", "length")
    duct_width: Annotated[
        Maybe, Spec("length", "Its own shroud, width", gt=0.05, le=2, help="Of a pusher, round its middle; empty: bare")
    ] = None
    duct_height: Annotated[Maybe, Spec("length", "Its own shroud, height", gt=0.05, le=2, help="Empty: as wide")] = None
    duct_depth: Annotated[Quantity, Spec("length", "Its own shroud, depth", gt=1e-3, le=0.3)] = quantity(
        "2 in", "length"
    )
    cost: Annotated[Maybe, Spec("money", "Fan cost", ge=0, le=1e6)] = None
    basis: str = ""


class Shroud(Strict):
    """What guides the air from the face to the fans. A partial shroud is a rectangle on the face."""

    kind: ShroudKind = "full"
    left: Annotated[Quantity, Spec("length", "Shroud from left", ge=-1, le=3)] = quantity("0 in", "length")
    bottom: Annotated[Quantity, Spec("length", "Shroud from bottom", ge=-1, le=3)] = quantity("0 in", "length")
    width: Annotated[Maybe, Spec("length", "Shroud width", gt=0, le=3)] = None
    height: Annotated[Maybe, Spec("length", "Shroud height", gt=0, le=3)] = None
    fan_gap: Annotated[
        Quantity,
        Spec(
            "length",
            "Fan off the fins",
            ge=0,
            le=0.3,
            help="With no shroud the fan draws from a disc wider by this gap",
        ),
    ] = quantity("1/2 in", "length")
    depth: Annotated[
        Quantity,
        Spec(
            "length",
            "Shroud depth",
            gt=1e-3,
            le=0.4,
            help="From the fins to the fan: air from the corners turns along it",
        ),
    ] = quantity("2 in", "length")
    edge_gap: Annotated[
        Quantity,
        Spec(
            "length",
            "Gap at the shroud's edge",
            ge=0,
            le=0.1,
            help="Between shroud and core all round; 0 with foam or split hose",
        ),
    ] = quantity("1/16 in", "length")
    hole_area: Annotated[Quantity, Spec("area", "Holes in the shroud", ge=0, le=0.3, help="Left by removed parts")] = (
        quantity("0 in²", "area")
    )
    flap_area: Annotated[
        Quantity,
        Spec(
            "area",
            "Flaps in the shroud",
            ge=0,
            le=0.5,
            help="One-way rubber flaps that open at road speed, all together",
        ),
    ] = quantity("0 in²", "area")
    flap_way: FlapWay = "away"
    flap_hinge: FlapHinge = "top"
    plenum: Plenum = "shared"
    cost: Annotated[Maybe, Spec("money", "Shroud cost", ge=0, le=1e6)] = None
    blank_width: Annotated[
        Maybe,
        Spec("length", "As bought: width over its flange", gt=0.05, le=3, help="Empty: made to seat between the tanks"),
    ] = None
    blank_height: Annotated[
        Maybe,
        Spec("length", "As bought: height over its flange", gt=0.05, le=3, help="Empty: made to seat on the core"),
    ] = None
    trim_left: Annotated[Quantity, Spec("length", "Trim off the left", ge=0, le=0.5)] = quantity("0 in", "length")
    trim_right: Annotated[Quantity, Spec("length", "Trim off the right", ge=0, le=0.5)] = quantity("0 in", "length")
    trim_bottom: Annotated[Quantity, Spec("length", "Trim off the bottom", ge=0, le=0.5)] = quantity("0 in", "length")
    trim_top: Annotated[Quantity, Spec("length", "Trim off the top", ge=0, le=0.5)] = quantity("0 in", "length")
    joined: bool = False
    """two bought ones side by side make one pan; the sizes as bought are those of the left one"""
    second_width: Annotated[
        Maybe, Spec("length", "Second one, width over its flange", gt=0.05, le=3, help="Empty: like the first")
    ] = None
    join_trim: Annotated[Quantity, Spec("length", "Trim off each where they meet", ge=0, le=0.3)] = quantity(
        "1 in", "length"
    )
    lap: Annotated[
        Quantity, Spec("length", "They lap by", ge=0, le=0.1, help="0: edge to edge, with a strip behind the joint")
    ] = quantity("3/4 in", "length")
    join_seal: JoinSeal = "sealant"
    ring_opening: Annotated[
        Maybe,
        Spec(
            "length",
            "Its ring's opening, as bought",
            gt=0.05,
            le=1,
            help="Empty: made for its fans; else an adapter ring is made",
        ),
    ] = None
    ring_x: Annotated[
        Maybe,
        Spec("length", "Its ring’s middle from left, as bought", gt=0, le=3, help="Empty: in the middle of the pan"),
    ] = None
    ring_y: Annotated[Maybe, Spec("length", "Its ring’s middle from bottom, as bought", gt=0, le=3)] = None
    gasket: Annotated[
        Quantity,
        Spec("length", "Foam or gasket under it", ge=0, le=0.05, help="Between core and shroud, bolted up"),
    ] = quantity("0 in", "length")
    ears: Annotated[Quantity, Spec("length", "Ears and tabs stand out", ge=0, le=0.2)] = quantity("0 in", "length")
    hole_inset: Annotated[Quantity, Spec("length", "Bolt holes in from its edge", gt=0, le=0.2)] = quantity(
        "3/4 in", "length"
    )
    metal: MetalKey = "al_5052"
    thickness: Annotated[Quantity, Spec("length", "Sheet thickness", gt=2e-4, le=0.01)] = quantity("0.050 in", "length")
    bend_radius: Annotated[Quantity, Spec("length", "Inside bend radius", ge=0, le=0.03)] = quantity(
        "1/16 in", "length"
    )
    flange: Annotated[Quantity, Spec("length", "Flange", ge=0, le=0.1)] = quantity("3/4 in", "length")
    flanges: Flanges = "clear_of_tanks"
    supplied: bool = False
    """it came with its fans: nothing is made from sheet"""
    bead: Annotated[
        Quantity,
        Spec("length", "Bead height", ge=0, le=0.02, help="Across the face’s shorter way; 0 for a flat face: it drums"),
    ] = quantity("0 in", "length")
    sheet_width: Annotated[Quantity, Spec("length", "Sheet at hand, width", gt=0.1, le=4)] = quantity("48 in", "length")
    sheet_height: Annotated[Quantity, Spec("length", "Sheet at hand, height", gt=0.1, le=4)] = quantity(
        "36 in", "length"
    )


class Place(Strict):
    """Where the core stands, by the survey's datums, and how far it could be moved. Bottom of the face, front of the
    core."""

    x: Annotated[
        Maybe, Spec("length", "Face's left edge from datum", ge=-2, le=3, help="Empty: in the middle of the opening")
    ] = None
    y: Annotated[
        Maybe, Spec("length", "Face's bottom from datum", ge=-2, le=3, help="Empty: in the middle of the opening")
    ] = None
    z: Annotated[Quantity, Spec("length", "Core's front behind the plane", ge=-0.5, le=9)] = quantity(
        "1/4 in", "length"
    )
    lean: Annotated[
        Maybe,
        Spec(
            "angle",
            "Core leans back",
            ge=-1.5709,
            le=1.5709,
            help="90° lies flat, what is behind it under it; −90° over it. Empty: as the support leans",
        ),
    ] = None
    reach_x: Annotated[Quantity, Spec("length", "May slide sideways by", ge=0, le=0.5)] = quantity("2 in", "length")
    reach_y: Annotated[Quantity, Spec("length", "May go up or down by", ge=0, le=0.5)] = quantity("1 in", "length")
    reach_z: Annotated[
        Quantity, Spec("length", "May go forward or back by", ge=0, le=0.5, help="What the mount slots allow")
    ] = quantity("1/2 in", "length")
    reach_lean: Annotated[Quantity, Spec("angle", "May lean by", ge=0, le=0.6)] = quantity("8 °", "angle")


class Remote(Strict):
    """The air of a core that stands away from the grille: at the rear, in a side, under the floor."""

    away: bool = False
    inlet_area: Annotated[
        Quantity, Spec("area", "Its air comes in by", ge=5e-4, le=3, help="Open area, mesh taken off")
    ] = quantity("150 in²", "area")
    exit_area: Annotated[Quantity, Spec("area", "Its air leaves by", ge=5e-4, le=3)] = quantity("200 in²", "area")
    ram: Annotated[
        Quantity,
        Spec(
            "share",
            "Road pressure at its inlet",
            ge=-0.5,
            le=1,
            help="Of the dynamic: scoop 60–80 %, slot in a side 20 %, under the floor 0 or less",
        ),
    ] = quantity("20 %", "share")
    behind: Annotated[
        Quantity,
        Spec("share", "Road pressure at its exit", ge=-1, le=1, help="Behind the car or under its floor about −15 %"),
    ] = quantity("-15 %", "share")
    duct_loss: Annotated[
        Quantity, Spec("number", "Ducts, dynamic heads", ge=0, le=30, help="At the inlet’s area; a bend about 1")
    ] = quantity("1", "number")
    warmed: Annotated[
        Quantity,
        Spec(
            "temperature difference",
            "Its air over ambient",
            ge=0,
            le=60,
            help="Near exhaust or road; at the grille it is the brief’s",
        ),
    ] = quantity("5 K", "temperature difference")


class Cut(Strict):
    """A strip cut off one edge of the panel opening."""

    id: str
    edge: PanelEdge = "left"
    amount: Annotated[Quantity, Spec("length", "Cut away", gt=0, le=1)]
    trim: Annotated[
        Quantity, Spec("length", "Edge trim on it", ge=0, le=0.02, help="Split hose or trim adds about 1/8 in")
    ] = quantity("0 in", "length")


PackageKind = Literal["planned", "as_found", "as_mended"]
PACKAGE_KINDS: dict[PackageKind, str] = {
    "planned": "planned",
    "as_found": "the car as found",
    "as_mended": "the car as mended",
}
"""what a package stands for; a build has one as found and one as mended at most, a finding says where it has more"""


class Package(Strict):
    """One combination of parts the build could use."""

    id: str
    name: str = ""
    kind: PackageKind = "planned"
    core: Core = Core()
    fans: Annotated[tuple[Fan, ...], most(12)] = ()
    shroud: Shroud = Shroud()
    sealing: Sealing = Sealing()
    coolers: Annotated[tuple[Cooler, ...], most(20)] = (Cooler(id="condenser", name="Condenser"),)
    place: Place = Place()
    remote: Remote = Remote()
    cuts: Annotated[tuple[Cut, ...], most(40)] = ()
    moves: Annotated[tuple[Move, ...], most(300)] = ()
    """obstacles of the survey this package counts on having moved or removed"""
    panels: Annotated[tuple[Panel, ...], most(40)] = ()
    brackets: Annotated[tuple[Bracket, ...], most(80)] = ()
    mounting: Mounting = Mounting()
    circuits: Annotated[tuple[Circuit, ...], most(200)] = ()
    control: Control = Control()
    loop: Loop = Loop()
    coolant: Coolant = Coolant()

    @property
    def moved(self) -> tuple[str, ...]:
        """Ids of the obstacles that no longer stand where they were found."""
        return tuple(move.id for move in self.moves)
