"""A package: one core, its fans and its shroud, thought of and compared as a whole."""

from __future__ import annotations

from typing import Annotated, Literal

from keelroom.build.quantity import Quantity, Spec, Strict, quantity
from keelroom.build.schema.brief import Maybe

Flow = Literal["crossflow", "downflow"]
Material = Literal["aluminium", "copper_brass"]
Condition = Literal["clean", "some_scale", "bad"]
Blade = Literal["straight", "curved"]
Motor = Literal["brushed", "brushless"]
ShroudKind = Literal["full", "partial", "none"]
Plenum = Literal["shared", "divided"]
Mount = Literal["puller", "pusher"]
CoverKind = Literal["condenser", "gearbox_cooler", "oil_cooler", "charge_cooler", "screen"]


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
        Maybe, Spec("length", "Tank, each side", ge=0, le=0.3, descriptive=True, help="Drawn; the face is the finned part alone")
    ] = quantity("2 in", "length")
    fin_density: Annotated[Maybe, Spec("fin density", "Fins", gt=0, le=1600)] = None
    fin_height: Annotated[Maybe, Spec("length", "Fin height between tubes", gt=1e-3, le=0.03)] = quantity("8 mm", "length")
    fin_thickness: Annotated[Maybe, Spec("length", "Fin thickness", gt=0.01e-3, le=0.5e-3)] = quantity("0.1 mm", "length")
    tube_height: Annotated[Maybe, Spec("length", "Tube thickness, outside", gt=0.5e-3, le=0.01)] = quantity("2.0 mm", "length")
    tube_wall: Annotated[Maybe, Spec("length", "Tube wall", gt=0.05e-3, le=1e-3)] = quantity("0.3 mm", "length")
    louver_pitch: Annotated[Maybe, Spec("length", "Louver pitch", gt=0.1e-3, le=0.01)] = quantity("1.2 mm", "length")
    louver_angle: Annotated[Maybe, Spec("angle", "Louver angle", gt=0.01, le=1.2)] = quantity("27 °", "angle")
    material: Material = "aluminium"
    condition: Condition = "clean"
    turbulator: Annotated[Maybe, Spec("number", "Tube dimples factor", gt=0.5, le=4, help="1 plain tube, 1.5–2 dimpled")] = quantity(
        "1", "number"
    )
    cost: Annotated[Maybe, Spec("money", "Core cost", ge=0, le=1e6)] = None
    basis: str = ""


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
    depth: Annotated[Maybe, Spec("length", "Fan depth", gt=0, le=0.4, descriptive=True)] = quantity("2.6 in", "length")
    x: Annotated[Quantity, Spec("length", "Centre from left", ge=-1, le=3)]
    y: Annotated[Quantity, Spec("length", "Centre from bottom", ge=-1, le=3)]
    free_air_flow: Annotated[Maybe, Spec("airflow", "Rated free-air flow", gt=0, le=10)] = None
    power: Annotated[Maybe, Spec("electrical power", "Motor power", gt=0, le=3000)] = None
    rated_voltage: Annotated[Maybe, Spec("voltage", "Rated at", gt=0, le=60)] = quantity("13.0 V", "voltage")
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
    blade: Blade = "curved"
    motor: Motor = "brushed"
    mount: Mount = "puller"
    runs: bool = True
    reversed_blade: bool = False
    reversed_share: Annotated[
        Quantity, Spec("share", "Flow when run backwards", gt=0.05, le=1, help="A one-way blade with its polarity reversed keeps 50–60 %")
    ] = quantity("55 %", "share")
    wire_drop: Annotated[
        Quantity, Spec("voltage", "Lost in its wires", ge=0, le=10, help="Volts between the system and this motor: thin wire slows it")
    ] = quantity("0.3 V", "voltage")
    curve: tuple[CurvePoint, ...] = ()
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
        Quantity, Spec("length", "Fan off the fins", ge=0, le=0.3, help="With no shroud the fan draws from a disc wider by this gap")
    ] = quantity("1/2 in", "length")
    depth: Annotated[
        Quantity, Spec("length", "Shroud depth", gt=1e-3, le=0.4, help="From the fins to the fan: air from the corners turns along it")
    ] = quantity("2 in", "length")
    edge_gap: Annotated[
        Quantity,
        Spec("length", "Gap at the shroud's edge", ge=0, le=0.1, help="Between shroud and core all round; 0 with foam or split hose"),
    ] = quantity("1/16 in", "length")
    hole_area: Annotated[Quantity, Spec("area", "Holes in the shroud", ge=0, le=0.3, help="Left by removed parts")] = quantity(
        "0 in²", "area"
    )
    flap_area: Annotated[
        Quantity, Spec("area", "Flaps in the shroud", ge=0, le=0.5, help="One-way rubber flaps that open at road speed, all together")
    ] = quantity("0 in²", "area")
    plenum: Plenum = "shared"
    cost: Annotated[Maybe, Spec("money", "Shroud cost", ge=0, le=1e6)] = None


class Sealing(Strict):
    """Gaps between the front of the core and the bay: air goes round the core if it can."""

    side_gap: Annotated[
        Quantity, Spec("length", "Gap at each side of the core", ge=0, le=0.2, help="0 with side strips (neoprene, pipe foam)")
    ] = quantity("3/8 in", "length")
    top_gap: Annotated[
        Quantity, Spec("length", "Gap over and under the core", ge=0, le=0.2, help="0 with a panel over core and condenser")
    ] = quantity("3/8 in", "length")


class Cover(Strict):
    """What stands ahead of the core: its place on the face, what it costs the air, and its heat by kind."""

    id: str
    name: str = ""
    kind: CoverKind = "condenser"
    left: Annotated[Quantity, Spec("length", "From left", ge=-1, le=3)] = quantity("0 in", "length")
    bottom: Annotated[Quantity, Spec("length", "From bottom", ge=-1, le=3)] = quantity("0 in", "length")
    width: Annotated[Maybe, Spec("length", "Cover width", gt=0.01, le=3, help="Empty: to the far edge of the face")] = None
    height: Annotated[Maybe, Spec("length", "Cover height", gt=0.01, le=3, help="Empty: to the top of the face")] = None
    loss: Annotated[
        Quantity,
        Spec(
            "number", "Air resistance", ge=0, le=100, help="Dynamic heads of the air's own speed: condenser 7, plate cooler 12, screen 1–2"
        ),
    ] = quantity("7", "number")
    conductance: Annotated[
        Quantity,
        Spec(
            "face conductance",
            "Heat per face and kelvin",
            gt=0,
            le=20000,
            help="From its fluid to the air: condenser 2500, plate cooler 1500",
        ),
    ] = quantity("2500 W/m²K", "face conductance")


class Package(Strict):
    """One combination of parts the build could use."""

    id: str
    name: str = ""
    core: Core = Core()
    fans: tuple[Fan, ...] = ()
    shroud: Shroud = Shroud()
    sealing: Sealing = Sealing()
    covers: tuple[Cover, ...] = (Cover(id="condenser", name="Condenser"),)
    hours: Annotated[Maybe, Spec("time", "Shop hours", ge=0, le=3.6e6)] = None
