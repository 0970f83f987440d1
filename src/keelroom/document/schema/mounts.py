"""How the package is held: brackets, straps, studs, stand-offs and plates between any two points, and frames of
angle."""

from typing import Annotated, Literal

from pydantic import Field

from keelroom.document.quantity import Quantity, Spec, Strict, most, quantity
from keelroom.document.schema.brief import Maybe
from keelroom.document.schema.stock import BoltKey, MetalKey, Nut
from keelroom.document.schema.survey import Faces

FanMount = Literal["core_flange", "chassis", "through_fins"]
Form = Literal["strap", "arch", "stud", "standoff", "plate"]
Presses = Literal["rear", "front"]


class Bracket(Strict):
    """A made mount from one point to another. start, end: points by key, such as core:upper_left, hole:h1,
    ring:fan1:2, new.

    strap : flat, joggled or an L, as its points ask;  arch : a strap over a bump;  stud, standoff : straight across;
            plate : between
    patterns of holes, with more of them in `starts` and `ends`
    """

    id: str
    name: str = ""
    form: Form = "strap"
    start: str = "core:upper_left"
    end: str = ""
    starts: Annotated[tuple[str, ...], most(20)] = ()
    ends: Annotated[tuple[str, ...], most(20)] = ()
    new_x: Annotated[Maybe, Spec("length", "New hole from left", ge=-3, le=4)] = None
    new_y: Annotated[Maybe, Spec("length", "New hole from bottom", ge=-3, le=3)] = None
    new_z: Annotated[Maybe, Spec("length", "New hole from support plane", ge=-2, le=3)] = None
    new_faces: Faces = "front"
    metal: MetalKey = "steel"
    width: Annotated[Quantity, Spec("length", "Strip width", gt=5e-3, le=0.15)] = quantity("1 1/8 in", "length")
    thickness: Annotated[Quantity, Spec("length", "Strip thickness", gt=3e-4, le=0.012)] = quantity("1/8 in", "length")
    radius: Annotated[Quantity, Spec("length", "Inside bend radius", ge=0, le=0.03)] = quantity("1/8 in", "length")
    press: Annotated[
        Quantity, Spec("angle", "Bent past flat by", ge=0, le=0.35, help="So that it presses when it is bolted up")
    ] = quantity("0 °", "angle")
    presses: Presses = "front"
    arch_at: Annotated[Quantity, Spec("length", "Bump’s middle, from the start", ge=0, le=2)] = quantity(
        "3 in", "length"
    )
    arch_width: Annotated[Quantity, Spec("length", "Bump’s width", ge=0, le=1)] = quantity("1 in", "length")
    arch_height: Annotated[Quantity, Spec("length", "Bump’s height", ge=0, le=0.3)] = quantity("1/2 in", "length")
    bolt: BoltKey = "m6"
    near_hole: Annotated[Quantity, Spec("length", "Hole at the start", gt=2e-3, le=0.03)] = quantity("7 mm", "length")
    near_holes: Annotated[Quantity, Spec("count", "Holes at the start", gt=0, le=6, whole=True)] = quantity(
        "1", "count"
    )
    pitch: Annotated[Quantity, Spec("length", "Between those holes", gt=3e-3, le=0.3)] = quantity("1 in", "length")
    far_hole: Annotated[Quantity, Spec("length", "Hole at the end", gt=2e-3, le=0.03)] = quantity("7 mm", "length")
    edge: Annotated[Quantity, Spec("length", "Hole to strip's end", gt=3e-3, le=0.1)] = quantity("9/16 in", "length")
    slot: Annotated[Quantity, Spec("length", "Slot at the end", ge=0, le=0.05)] = quantity("0 in", "length")
    spacer: Annotated[
        Quantity, Spec("length", "Spacers at the start", ge=0, le=0.1, help="Under the strap: washers or a tube")
    ] = quantity("0 in", "length")
    stiffener: Annotated[
        Quantity, Spec("length", "Welded rib, height", ge=0, le=0.05, help="On its longest flat, clear of the bends")
    ] = quantity("0 in", "length")
    isolated: bool = True
    pad: Annotated[Quantity, Spec("length", "Grommet or pad, free", gt=1e-3, le=0.05)] = quantity("3/8 in", "length")
    squeezed: Annotated[Quantity, Spec("length", "Grommet or pad, bolted up", gt=1e-3, le=0.05)] = quantity(
        "5/16 in", "length"
    )
    nut: Nut = "lock_nut"
    far_nut: Nut = "lock_nut"
    cost: Annotated[Maybe, Spec("money", "Bracket cost", ge=0, le=1e6)] = None


class Frame(Strict):
    """A frame of angle round one cooler. cooler: its id, '' the condenser ahead of the core; hung on the core's own
    mounts, or by brackets from its corners."""

    id: str
    fitted: bool = True
    cooler: str = ""
    hangs: Literal["core", "brackets"] = "core"
    metal: MetalKey = "al_6061"
    leg: Annotated[Quantity, Spec("length", "Angle's leg", gt=5e-3, le=0.06)] = quantity("3/4 in", "length")
    thickness: Annotated[Quantity, Spec("length", "Angle's thickness", gt=5e-4, le=0.006)] = quantity(
        "1/8 in", "length"
    )
    lap: Annotated[Quantity, Spec("length", "Angle laps the cooler by", ge=0, le=0.05)] = quantity("1/4 in", "length")
    header: Annotated[Quantity, Spec("length", "Cooler's edge without rows", ge=0, le=0.1)] = quantity(
        "1/2 in", "length"
    )
    line: Annotated[Quantity, Spec("length", "Line, outside", gt=2e-3, le=0.04)] = quantity("5/8 in", "length")


class Mounting(Strict):
    """How the package is held. shock: what it is to stand."""

    fan_to: FanMount = "core_flange"
    shock: Annotated[
        Quantity, Spec("number", "Shock to stand", gt=0.5, le=50, help="In g: 5 road, 8 rough road, 10–15 off road")
    ] = quantity("5", "number")
    mass: Annotated[
        Maybe, Spec("mass", "Package's mass, wet", gt=0.2, le=200, help="Empty: estimated from its size")
    ] = None
    pads: Annotated[
        Quantity, Spec("length", "Pads under its tanks, squeezed", ge=0, le=0.06, help="Rubber it stands on; 0: none")
    ] = quantity("0 in", "length")
    float_gap: Annotated[
        Quantity,
        Spec("length", "Float left at one end", ge=0, le=0.02, help="The core grows with heat: one end must slide"),
    ] = quantity("1/8 in", "length")
    frames: Annotated[tuple[Frame, ...], most(40)] = Field(default=())
