"""The work on the car: who works when, what the hour costs, what was ticked off, bought, and added by hand."""

from typing import Annotated, Literal

from pydantic import Field

from keelroom.document.quantity import Quantity, Spec, Strict, most, quantity
from keelroom.document.schema.brief import Maybe
from keelroom.document.schema.trials import Photo

Weekday = Literal["mon", "tue", "wed", "thu", "fri", "sat", "sun"]
WEEKDAYS: tuple[Weekday, ...] = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
Went = Literal["done", "twice", "other", "stopped"]
"""as planned; made twice; with another part; stopped before its end"""
DATE = r"^(\d{4}-\d{2}-\d{2})?$"
Text = Annotated[str, Field(max_length=4000)]


class Tick(Strict):
    """A step that was done, or begun and stopped; it stands whatever becomes of the build.

    step : its key;  words : what it was, as it was planned then;  took : by all hands
    """

    id: str
    step: str = ""
    package: str = ""
    words: Text = ""
    went: Went = "done"
    day: Annotated[str, Field(pattern=DATE)] = ""
    who: str = ""
    took: Annotated[Maybe, Spec("minutes", "It took", ge=0, le=360000, help="All hands together")] = None
    planned: Annotated[float, Field(ge=0, le=4e6, allow_inf_nan=False)] = 0.0
    """[s] it was likely to take"""
    note: Text = ""
    photos: Annotated[tuple[Photo, ...], most(20)] = ()


class Item(Strict):
    """What is known of something to be bought, by its key on the shopping list."""

    id: str
    name: str = ""
    price: Annotated[Maybe, Spec("money", "Price", ge=0, le=1e6)] = None
    lead: Annotated[Maybe, Spec("number", "Days to come", ge=0, le=400)] = None
    source: Text = ""
    instead: Text = ""
    """what would do as well"""
    in_hand: bool = False
    receipt: Text = ""


class OwnStep(Strict):
    """A step nobody's table has: low, likely and high, and the state of the car after which it is done."""

    id: str
    name: str = "A step of our own"
    low: Annotated[Quantity, Spec("minutes", "Low", gt=0, le=360000)] = quantity("20 min", "minutes")
    likely: Annotated[Quantity, Spec("minutes", "Likely", gt=0, le=360000)] = quantity("30 min", "minutes")
    high: Annotated[Quantity, Spec("minutes", "High", gt=0, le=360000)] = quantity("60 min", "minutes")
    hands: Annotated[Quantity, Spec("count", "Hands", gt=0, le=6, whole=True)] = quantity("1", "count")
    state: Literal["drivable", "front_off", "drained", "bare", "mocked_up", "wired", "filled", "proven"] = "mocked_up"
    cost: Annotated[Maybe, Spec("money", "Costs", ge=0, le=1e6)] = None


class Pace(Strict):
    """How long the shop's finished builds took of what was planned, by act; of so many steps."""

    id: str
    times: Annotated[Quantity, Spec("number", "Takes, times planned", gt=0.1, le=10)] = quantity("1", "number")
    steps: Annotated[int, Field(ge=0, le=100000)] = 0


class Work(Strict):
    """How the work is done. table : a shop's own table of steps, packed; '' the one that ships."""

    people: Annotated[Quantity, Spec("count", "People", gt=0, le=6, whole=True)] = quantity("1", "count")
    begins: Annotated[Quantity, Spec("time", "A day begins at", ge=0, le=86000, help="Hours after midnight")] = (
        quantity("9 h", "time")
    )
    day: Annotated[Quantity, Spec("time", "Worked a day", gt=0, le=86400)] = quantity("8 h", "time")
    days: Annotated[tuple[Weekday, ...], most(7)] = WEEKDAYS
    start: Annotated[str, Field(pattern=DATE)] = ""
    needed: Annotated[str, Field(pattern=DATE)] = ""
    """the day the car is needed again"""
    rate: Annotated[Maybe, Spec("money", "An hour costs", ge=0, le=1e4)] = None
    contingency: Annotated[Quantity, Spec("share", "Contingency", ge=0, le=2, help="On parts and hours")] = quantity(
        "10 %", "share"
    )
    ticks: Annotated[tuple[Tick, ...], most(600)] = ()
    items: Annotated[tuple[Item, ...], most(300)] = ()
    own: Annotated[tuple[OwnStep, ...], most(60)] = ()
    pace: Annotated[tuple[Pace, ...], most(60)] = ()
    table: Annotated[str, Field(max_length=20_000)] = ""
    recorded: Annotated[str, Field(max_length=20_000)] = ""
    """the package as it was when the record was written last, packed JSON"""
    notes: Annotated[str, Field(max_length=200_000)] = ""
    """what one would do otherwise, and what stays open"""
