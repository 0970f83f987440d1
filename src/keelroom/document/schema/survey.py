"""The survey: what the tape found in the bay.

Three datums: the left edge of the panel opening (x, to the right seen from the front), its lower edge (y, up), and the
rear face of the core support panel at the lower edge (z, to the rear).
"""

from typing import Annotated, Literal

from keelroom.document.quantity import Quantity, Spec, Strict, most, quantity
from keelroom.document.schema.brief import Maybe

EdgeKind = Literal["plain", "stamped", "no_go"]
Shape = Literal["box", "cylinder_across", "cylinder_upright", "cylinder_along"]
Mobility = Literal["fixed", "movable", "removable"]
Faces = Literal["front", "side", "up"]
ObstacleKind = Literal[
    "other",
    "horn",
    "regulator",
    "washer_bottle",
    "overflow_bottle",
    "expansion_bottle",
    "brake_unit",
    "battery_tray",
    "latch_support",
    "exhaust",
]
Check = Literal["hood", "belt", "latch", "structure"]
PortRole = Literal["outlet", "inlet", "heater_out", "heater_in", "steam"]
PortFaces = Literal["front", "rear", "left", "right", "up", "down"]


class Corner(Strict):
    """A corner of an opening that is no rectangle, and the edge from it to the next one."""

    id: str
    x: Annotated[Quantity, Spec("length", "Corner from left", ge=-3, le=3)]
    y: Annotated[Quantity, Spec("length", "Corner from bottom", ge=-3, le=3)]
    edge: EdgeKind = "plain"


class Opening(Strict):
    """The opening in the core support panel. `corners` describe one that is no rectangle and then count instead."""

    width: Annotated[
        Maybe,
        Spec(
            "length", "Panel opening, width", gt=0.02, le=3, help="Empty: not measured, no panel hides any of the face"
        ),
    ] = None
    height: Annotated[
        Maybe,
        Spec(
            "length", "Panel opening, height", gt=0.02, le=3, help="Empty: not measured, no panel hides any of the face"
        ),
    ] = None
    left_edge: EdgeKind = "plain"
    right_edge: EdgeKind = "plain"
    bottom_edge: EdgeKind = "plain"
    top_edge: EdgeKind = "plain"
    corners: Annotated[tuple[Corner, ...], most(80)] = ()
    panel_thickness: Annotated[Quantity, Spec("length", "Panel and its lips, thickness", gt=0, le=0.1)] = quantity(
        "1/2 in", "length"
    )
    support_lean: Annotated[
        Quantity,
        Spec("angle", "Support leans back", ge=-0.6, le=0.6, help="Top of the core support to the rear; 0 upright"),
    ] = quantity("0 °", "angle")


class Turning(Strict):
    """Something that turns on the engine's front and moves with it: pulley, belt, pump nose."""

    id: str
    name: str = ""
    x: Annotated[Maybe, Spec("length", "Its centre from left", ge=-3, le=4)] = None
    y: Annotated[Maybe, Spec("length", "Its centre from bottom", ge=-3, le=4)] = None
    diameter: Annotated[Maybe, Spec("length", "Its diameter", gt=0.005, le=1)] = None
    depth: Annotated[Maybe, Spec("length", "Support plane to its front", ge=-0.5, le=3)] = None


class Front(Strict):
    """The engine's front and how far it rocks in its mounts."""

    out: bool = False
    """it is out of the car: belt and pulleys cannot be measured yet"""

    turning: Annotated[tuple[Turning, ...], most(40)] = (
        Turning(id="pulley", name="Crank pulley"),
        Turning(id="belt", name="Belt at its foremost"),
        Turning(id="nose", name="Water pump nose"),
    )
    block_depth: Annotated[
        Maybe, Spec("length", "Support plane to engine block", ge=-0.5, le=3, help="Empty: not measured")
    ] = None
    pulley_stack: Annotated[
        Maybe,
        Spec(
            "length",
            "Block to pulley's front",
            ge=0,
            le=1,
            help="Empty: not measured. Straight along the pulley, with the belt on",
        ),
    ] = None
    rock_forward: Annotated[
        Maybe, Spec("length", "Engine rocks forward", ge=0, le=0.1, help="Pried forward by hand, against rest")
    ] = None
    rock_sideways: Annotated[
        Maybe, Spec("length", "Engine rocks sideways", ge=0, le=0.15, help="At pulley height, each way")
    ] = None


class Hood(Strict):
    """The hood's underside as a line over the bay, braces included."""

    front: Annotated[Maybe, Spec("length", "Hood above datum, at support plane", ge=-0.5, le=3)] = None
    back: Annotated[Maybe, Spec("length", "Hood above datum, further back", ge=-0.5, le=3)] = None
    run: Annotated[Quantity, Spec("length", "Further back by", gt=0.02, le=2)] = quantity("12 in", "length")


class Rails(Strict):
    """Frame rails at the core."""

    left: Annotated[
        Maybe,
        Spec(
            "length",
            "Left rail's inner face, from left",
            ge=-3,
            le=3,
            help="Negative where it lies left of the opening",
        ),
    ] = None
    right: Annotated[Maybe, Spec("length", "Right rail's inner face, from left", ge=-3, le=4)] = None
    top: Annotated[Maybe, Spec("length", "Top of the rails above datum", ge=-2, le=3)] = None
    between: Annotated[
        Maybe,
        Spec(
            "length", "Between the rails, in one reading", gt=0, le=4, help="Empty: not measured. Checks the two above"
        ),
    ] = None


class Obstacle(Strict):
    """Something hard in the way, as the box it fills; a cylinder fills its box along one way."""

    id: str
    name: str = ""
    kind: ObstacleKind = "other"
    shape: Shape = "box"
    left: Annotated[Maybe, Spec("length", "Its left side from left", ge=-3, le=4)] = None
    bottom: Annotated[Maybe, Spec("length", "Its underside from bottom", ge=-3, le=3)] = None
    front: Annotated[
        Maybe, Spec("length", "Its front from support plane", ge=-2, le=3, help="Negative ahead of the panel")
    ] = None
    width: Annotated[Maybe, Spec("length", "Its width", gt=0, le=3)] = None
    height: Annotated[Maybe, Spec("length", "Its height", gt=0, le=3)] = None
    depth: Annotated[Maybe, Spec("length", "Its depth", gt=0, le=3)] = None
    mobility: Mobility = "fixed"
    work: Annotated[Quantity, Spec("time", "Work to move or remove", ge=0, le=3.6e5)] = quantity("1 h", "time")
    structural: bool = False
    shielded: bool = False
    """what is hot has a heat shield with air on both sides"""
    holds: Annotated[Maybe, Spec("volume", "Bottle holds", gt=0, le=0.05, help="To its brim; empty: not measured")] = (
        None
    )


class HoseEnd(Strict):
    """A coolant port of the engine: where a hose leaves it, and what it is for."""

    id: str
    name: str = ""
    role: PortRole = "outlet"
    faces: PortFaces = "front"
    plugged: bool = False
    """closed for good: nothing has to be joined to it"""
    x: Annotated[Maybe, Spec("length", "Hose end from left", ge=-3, le=4)] = None
    y: Annotated[Maybe, Spec("length", "Hose end from bottom", ge=-3, le=3)] = None
    z: Annotated[Maybe, Spec("length", "Hose end from support plane", ge=-1, le=3)] = None
    bore: Annotated[Quantity, Spec("length", "Hose end bore", gt=0.005, le=0.1)] = quantity("1 1/2 in", "length")


class MountHole(Strict):
    """An existing hole a bracket can go to. faces: which way its metal looks."""

    id: str
    name: str = ""
    x: Annotated[Maybe, Spec("length", "Hole from left", ge=-3, le=4)] = None
    y: Annotated[Maybe, Spec("length", "Hole from bottom", ge=-3, le=3)] = None
    z: Annotated[Maybe, Spec("length", "Hole from support plane", ge=-2, le=3)] = None
    diameter: Annotated[Quantity, Spec("length", "Hole diameter", gt=0.002, le=0.05)] = quantity("1/4 in", "length")
    faces: Faces = "front"
    stud: bool = False
    """a stud stands there, not a hole"""
    behind: Annotated[
        Maybe, Spec("length", "Free behind it", ge=0, le=3, help="For a drill or a nut; empty: not measured")
    ] = None


class AirHole(Strict):
    """A hole beside the core that lets air past it: a horn hole, a light's, what a removed part left."""

    id: str
    name: str = ""
    width: Annotated[Maybe, Spec("length", "Air hole, width", gt=0, le=1)] = None
    height: Annotated[Maybe, Spec("length", "Air hole, height", gt=0, le=1)] = None
    x: Annotated[
        Maybe, Spec("length", "Its middle from left", ge=-3, le=4, descriptive=True, help="Where it is drawn")
    ] = None
    y: Annotated[
        Maybe, Spec("length", "Its middle from bottom", ge=-3, le=3, descriptive=True, help="Where it is drawn")
    ] = None
    round: bool = False


class SecondReading(Strict):
    """A measure taken again. id: the path of the first within the survey, its steps joined by dots."""

    id: str
    value: Annotated[Quantity, Spec("length", "Second reading", ge=-3, le=4)]


class Survey(Strict):
    """Everything the tape walk asks for. What is empty is not measured, and shown as such."""

    opening: Opening = Opening()
    engine: Front = Front()
    room_width: Annotated[
        Maybe,
        Spec("length", "Room for core and tanks, width", gt=0.1, le=3, descriptive=True, help="Between what must stay"),
    ] = None
    room_height: Annotated[Maybe, Spec("length", "Room for core and tanks, height", gt=0.1, le=3, descriptive=True)] = (
        None
    )
    hood: Hood = Hood()
    rails: Rails = Rails()
    obstacles: Annotated[tuple[Obstacle, ...], most(300)] = ()
    hoses: Annotated[tuple[HoseEnd, ...], most(40)] = (HoseEnd(id="upper"), HoseEnd(id="lower", role="inlet"))
    holes: Annotated[tuple[MountHole, ...], most(100)] = ()
    air_holes: Annotated[tuple[AirHole, ...], most(100)] = ()
    ground: Annotated[
        Maybe, Spec("length", "Datum above the ground", gt=0, le=3, help="Empty: not measured. For coolers hung low")
    ] = None
    second: Annotated[tuple[SecondReading, ...], most(500)] = ()
    checks: Annotated[tuple[Check, ...], most(100)] = ()
    """looked at by a person before anything is cut"""


class GapRule(Strict):
    """The least gap wanted between two sorts of things, and why."""

    id: Literal["moving", "static", "hood", "belt", "hose"]
    gap: Annotated[Quantity, Spec("length", "Least gap", gt=0, le=0.2)]
    reason: str = ""


USUAL_GAPS: dict[str, tuple[str, str]] = {
    "moving": ("1/2 in", "A fan's ring flexes with the shroud and the core sits on rubber"),
    "static": ("5/16 in", "About a third of an inch: nothing rubs through when the body twists"),
    "hood": ("1/2 in", "The hood flexes at speed and drops when it is slammed"),
    "belt": ("1/2 in", "Half an inch to an inch from fan to pulley or belt, with the engine rocked forward"),
    "hose": ("3/4 in", "A hose swells and moves with the engine; a blade cuts it"),
}
"""The least gap and its reason by rule (common practice)."""


def usual_gaps() -> tuple[GapRule, ...]:
    """The rules a new build begins with."""
    return tuple(
        GapRule.model_validate({"id": ident, "gap": quantity(gap, "length"), "reason": reason})
        for ident, (gap, reason) in USUAL_GAPS.items()
    )
