"""Neighbours of the survey that a package counts on having moved: how, where to, and what it takes."""

from typing import Annotated, Literal

from keelroom.document.quantity import Quantity, Spec, Strict, quantity
from keelroom.document.schema.brief import Maybe

How = Literal["removed", "slotted", "bracket", "notched", "new_place"]
NotchSide = Literal["left", "right", "bottom", "top", "front", "rear"]


class Move(Strict):
    """What becomes of one neighbour. id: the obstacle's.

    removed : taken out;  slotted : its holes drawn out and it slides;  bracket : it moves on a made bracket;  notched
              : a piece is cut
    out of it where it stands;  new_place : it stands elsewhere
    """

    id: str
    how: How = "removed"
    by_x: Annotated[Quantity, Spec("length", "To the right by", ge=-1, le=1)] = quantity("0 in", "length")
    by_y: Annotated[Quantity, Spec("length", "Up by", ge=-1, le=1)] = quantity("0 in", "length")
    by_z: Annotated[Quantity, Spec("length", "To the rear by", ge=-1, le=1)] = quantity("0 in", "length")
    left: Annotated[Maybe, Spec("length", "New place, from left", ge=-3, le=4, help="Empty: as found")] = None
    bottom: Annotated[Maybe, Spec("length", "New place, from bottom", ge=-3, le=3, help="Empty: as found")] = None
    front: Annotated[Maybe, Spec("length", "New place, from support plane", ge=-2, le=3, help="Empty: as found")] = None
    width: Annotated[
        Maybe, Spec("length", "Width there", gt=0, le=3, help="Empty: as found; turned, or another part in its stead")
    ] = None
    height: Annotated[Maybe, Spec("length", "Height there", gt=0, le=3, help="Empty: as found")] = None
    depth: Annotated[Maybe, Spec("length", "Depth there", gt=0, le=3, help="Empty: as found")] = None
    notch_side: NotchSide = "rear"
    notch: Annotated[Quantity, Spec("length", "Cut away", ge=0, le=1)] = quantity("1/2 in", "length")
    holds: Annotated[Maybe, Spec("volume", "New bottle holds", gt=0, le=0.05, help="Empty: the one found")] = None
    cap_room: Annotated[
        Maybe,
        Spec(
            "length",
            "Free over its cap",
            ge=0,
            le=1,
            help="Empty: worked out from the hood; a hand and the cap need 3 in",
        ),
    ] = None
    hours: Annotated[
        Maybe, Spec("time", "Hours to do it", ge=0, le=3.6e5, help="Empty: as surveyed, and by how it is done")
    ] = None
    cost: Annotated[Maybe, Spec("money", "Cost of it", ge=0, le=1e6)] = None
