"""What options have to keep to, and by what they are judged."""

from typing import Annotated, Literal

from keelroom.document.quantity import Spec, Strict, most
from keelroom.document.schema.brief import Maybe

Aim = Literal["hand", "money", "hours", "amps", "undone"]


class Choosing(Strict):
    """Bounds of the options, empty where free, and up to four aims."""

    width: Annotated[Maybe, Spec("length", "Face no wider than", gt=0.05, le=2)] = None
    height: Annotated[Maybe, Spec("length", "Face no higher than", gt=0.05, le=2)] = None
    no_cut: bool = False
    amps: Annotated[Maybe, Spec("current", "Fans draw at most", gt=0, le=500)] = None
    budget: Annotated[Maybe, Spec("money", "Parts cost at most", ge=0, le=1e6)] = None
    hours: Annotated[Maybe, Spec("time", "Work takes at most", ge=0, le=3.6e6)] = None
    own_only: bool = False
    aims: Annotated[tuple[Aim, ...], most(4)] = ("hand", "money", "hours")
