"""Gaps round the core, and the panels, strips, covers, dams and ducts that make the air go through it."""

from typing import Annotated, Literal

from keelroom.document.quantity import Quantity, Spec, Strict, quantity
from keelroom.document.schema.brief import Maybe
from keelroom.document.schema.stock import BoltKey, MetalKey

Edge = Literal["left", "right", "bottom", "top"]
EDGES: tuple[Edge, ...] = ("left", "right", "bottom", "top")
PanelKind = Literal["panel", "strip", "cover", "duct", "dam"]
Firmness = Literal["soft", "medium", "firm"]
BeadWay = Literal["across", "along"]
"""A row of beads front to back, or one along the middle."""


class Slit(Strict):
    """The gap beside one edge of the core. Empty length: as long as the core's edge with what stands there."""

    gap: Annotated[
        Quantity,
        Spec(
            "length", "Gap", ge=0, le=0.3, help="From core and condenser to the bay’s metal, before any panel or seal"
        ),
    ] = quantity("3/8 in", "length")
    length: Annotated[Maybe, Spec("length", "Its length", gt=0.01, le=3, help="Empty: as long as the core’s edge")] = (
        None
    )


class Sealing(Strict):
    """Gaps between the front of the core and the bay, as found: air goes round the core if it can. Panels close
    them."""

    left: Slit = Slit()
    right: Slit = Slit()
    bottom: Slit = Slit()
    top: Slit = Slit()


class Panel(Strict):
    """A piece that closes a way for the air. closes: an edge of the core, or the id of a surveyed hole; '' for a dam.

    panel, duct : sheet with lips bent at front and back;  strip : foam alone;  cover : plate over a hole;  dam :
                  hangs under the front
    """

    id: str
    name: str = ""
    kind: PanelKind = "panel"
    closes: str = "top"
    fitted: bool = True
    """counted in the air; off shows what it would be worth"""
    length: Annotated[Maybe, Spec("length", "Length", gt=0.01, le=3, help="Empty: as long as its gap")] = None
    depth: Annotated[
        Quantity, Spec("length", "Front to back", gt=5e-3, le=1.5, help="Between its bends; how far a dam hangs down")
    ] = quantity("6 in", "length")
    far_length: Annotated[
        Maybe, Spec("length", "Length at the grille", gt=0.01, le=3, help="Of a duct piece; empty: straight")
    ] = None
    front_lip: Annotated[Quantity, Spec("length", "Lip at the front", ge=0, le=0.2)] = quantity("1 in", "length")
    back_lip: Annotated[Quantity, Spec("length", "Lip at the back", ge=0, le=0.2)] = quantity("1 in", "length")
    front_bend: Annotated[Quantity, Spec("angle", "Front lip bent", ge=-2.4, le=2.4, help="Up positive")] = quantity(
        "90 °", "angle"
    )
    back_bend: Annotated[
        Quantity, Spec("angle", "Back lip bent", ge=-2.4, le=2.4, help="Up positive, down onto the core negative")
    ] = quantity("-90 °", "angle")
    metal: MetalKey = "al_5052"
    thickness: Annotated[Quantity, Spec("length", "Sheet thickness", gt=2e-4, le=0.01)] = quantity("0.050 in", "length")
    radius: Annotated[Quantity, Spec("length", "Inside bend radius", ge=0, le=0.03)] = quantity("1/16 in", "length")
    bead: Annotated[Quantity, Spec("length", "Bead height", ge=0, le=0.02, help="0 none")] = quantity("0 in", "length")
    beads: BeadWay = "across"
    bead_end: Annotated[Quantity, Spec("length", "Bead ends short by", ge=0, le=0.5)] = quantity("1 in", "length")
    notch_width: Annotated[Quantity, Spec("length", "Rail notch, front to back", ge=0, le=1)] = quantity(
        "0 in", "length"
    )
    notch_depth: Annotated[Quantity, Spec("length", "Rail notch, in from each end", ge=0, le=0.5)] = quantity(
        "0 in", "length"
    )
    notch_at: Annotated[Quantity, Spec("length", "Rail notch, from the front bend", ge=0, le=1)] = quantity(
        "1 in", "length"
    )
    pins: Annotated[Quantity, Spec("count", "Push pins, front lip", ge=0, le=40, whole=True)] = quantity("4", "count")
    pin_hole: Annotated[Quantity, Spec("length", "Push-pin hole", gt=2e-3, le=0.03)] = quantity("8 mm", "length")
    bolts: Annotated[Quantity, Spec("count", "Bolts, back lip", ge=0, le=40, whole=True)] = quantity("3", "count")
    bolt: BoltKey = "m6"
    hole: Annotated[Quantity, Spec("length", "Bolt hole", gt=2e-3, le=0.03)] = quantity("7 mm", "length")
    trim: bool = True
    """edge trim on its cut edges"""
    foam: Annotated[
        Maybe, Spec("length", "Foam, free thickness", gt=5e-4, le=0.2, help="Empty: none, metal on metal leaks")
    ] = quantity("1/2 in", "length")
    foam_gap: Annotated[
        Maybe, Spec("length", "Gap its foam fills", gt=0, le=0.2, help="Empty: a strip fills its gap, a panel 5/16 in")
    ] = None
    firmness: Firmness = "soft"
    cost: Annotated[Maybe, Spec("money", "Panel cost", ge=0, le=1e6)] = None
