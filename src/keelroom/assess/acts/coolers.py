"""Acts on auxiliary coolers: one added, one put elsewhere, the gearbox cooled another way."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.acts.kind import ActKind, Doing
from keelroom.assess.fit.coolers import named
from keelroom.assess.inputs.coolers import size_of
from keelroom.assess.placing import face_size, placed_frame
from keelroom.assess.safety import cautions
from keelroom.document.edits import Change, Edit, added, fresh_id, fresh_name, set_value
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler, CoolerKind, Stands
from keelroom.document.schema.package import Package
from keelroom.errors import InputError
from keelroom.units import INCH

KINDS_OF_COOLER: tuple[tuple[CoolerKind, str], ...] = (
    ("condenser", "A/C condenser"),
    ("gearbox_cooler", "Gearbox cooler"),
    ("oil_cooler", "Engine oil cooler"),
    ("steering_cooler", "Power-steering cooler"),
    ("charge_cooler", "Charge-air cooler"),
    ("water_charge_cooler", "Front exchanger of a water charge cooler"),
    ("screen", "Screen"),
)
SIZES = {
    "gearbox_cooler": {"width": "11 in", "height": "6 in"},
    "oil_cooler": {"width": "11 in", "height": "6 in"},
    "steering_cooler": {"width": "10 in", "height": "3 in"},
    "charge_cooler": {"width": "24 in", "height": "6 in"},
    "water_charge_cooler": {"width": "24 in", "height": "8 in"},
}
"""what a cooler of a kind is added with: plate coolers, a charge cooler as long as the grille"""
SMALL_FAN = {"fans": "1", "fan_flow": "250 CFM", "fan_power": "80 W"}
"""a fan of some 6 A that is hung on a cooler where the road presses no air"""
KINDS_OF = {"fans": "count", "fan_flow": "airflow", "fan_power": "electrical power"}


def _add(do: Doing) -> Edit:
    kind = do.given("kind")
    words = dict(KINDS_OF_COOLER).get(kind)  # type: ignore[call-overload]
    if words is None:
        raise InputError("act_incomplete", f"There is no cooler of the kind “{kind}”")
    coolers = do.package.coolers
    ahead = [c.stand_off.si + c.thickness.si for c in coolers if c.stands == "ahead"]
    off = quantity(f"{max(ahead, default=0.0) * 1e3 + 6:.0f} mm", "length") if ahead else quantity("1/2 in", "length")
    usual: dict[str, object] = {name: quantity(text, "length") for name, text in SIZES.get(kind, {}).items()}
    if kind == "screen":
        usual["loss"] = quantity("1.5", "number")
    elif kind != "condenser":
        usual |= {
            "make": "stacked_plate",
            "loss": quantity("12", "number"),
            "conductance": quantity("1500 W/m²K", "face conductance"),
        }
    name = fresh_name(map(named, coolers), words)
    member = Cooler.model_validate(
        {"id": fresh_id(coolers, "cooler"), "name": name, "kind": kind, "stand_off": off} | usual
    )
    return added(do.build, (*do.where, "coolers"), member, f"Add {words.lower()}")


def places_for(build: Build, package: Package, cooler: Cooler) -> list[tuple[Cooler, str, bool]]:
    """The cooler as it would stand in each place, in words, and whether a fan comes with it."""
    width, height = face_size(package)
    wide, high = size_of(cooler, (width, height))
    found: list[tuple[Cooler, str, bool]] = []

    def placed(stands: Stands, left: float, bottom: float, front: float | None, fan: bool, words: str) -> None:
        changes: dict[str, object] = {
            "stands": stands,
            "left": from_si(left, "length", "us", "derived"),
            "bottom": from_si(bottom, "length", "us", "derived"),
            "front": from_si(front, "length", "us", "derived") if front is not None else None,
            "width": from_si(wide, "length", "us", "derived"),
            "height": from_si(high, "length", "us", "derived"),
        }
        if fan and cooler.fans.si < 1:
            changes |= {name: quantity(text, KINDS_OF[name]) for name, text in SMALL_FAN.items()}
        if not fan:
            changes["fans"] = quantity("0", "count")
        found.append((cooler.model_copy(update=changes), words, fan))

    ahead = (
        max(
            (c.stand_off.si + c.thickness.si for c in package.coolers if c.stands == "ahead" and c.id != cooler.id),
            default=0.0,
        )
        + 0.5 * INCH
    )
    for words, left in (("left", 0.0), ("middle", (width - wide) / 2), ("right", width - wide)):
        off = from_si(ahead, "length", "us", "derived")
        placed("ahead", left, 0.0, None, False, f"ahead of the core, {words}")
        found[-1] = (found[-1][0].model_copy(update={"stand_off": off}), found[-1][1], False)
    stand = placed_frame(build.survey, package).point(0.0, 0.0, 0.0)
    under = stand[1] - high - 1.5 * INCH
    placed("bumper", stand[0], under, stand[2] - 6 * INCH, False, "bumper slot, ram air only")
    placed("bumper", stand[0], under, stand[2] - 6 * INCH, True, "bumper slot, own fan")
    placed("wheel_well", stand[0] - wide - 8 * INCH, stand[1], stand[2], True, "wheel well, own fan")
    placed("floor", stand[0], under, None, True, "under the floor, own fan")
    placed("trunk", stand[0], stand[1], None, True, "trunk floor, own fan")
    placed("bay", stand[0] + width + 3 * INCH, stand[1], stand[2] + 8 * INCH, True, "in the bay, own fan")
    return found


def _put(do: Doing) -> Edit:
    cooler = next((one for one in do.package.coolers if one.id == do.given("cooler")), None)
    if cooler is None:
        raise InputError("no_such_cooler", "That cooler is no longer in the package")
    found = next(
        (one for one, words, _ in places_for(do.build, do.package, cooler) if words == do.given("place")), None
    )
    if found is None:
        raise InputError("act_incomplete", f"No place for a cooler is called “{do.given('place')}”")
    coolers = tuple(found if one.id == cooler.id else one for one in do.package.coolers)
    return set_value((*do.where, "coolers"), coolers, do.act.label)


BYPASS = "160 °F"
STAND_IN = Cooler(
    id="gearbox",
    name="Gearbox cooler",
    kind="gearbox_cooler",
    make="stacked_plate",
    width=quantity("11 in", "length"),
    height=quantity("6 in", "length"),
    loss=quantity("12", "number"),
    conductance=quantity("1500 W/m²K", "face conductance"),
    stand_off=quantity("1 1/2 in", "length"),
)
"""the cooler that is tried where the build has none"""


class GearboxWay(NamedTuple):
    """One way to cool the gearbox. tank: the core's tank takes part;  cooler: a cooler does;  after: it comes after
    the tank;
    bypass: it has a thermostat"""

    key: str
    name: str
    tank: bool
    cooler: bool
    after: bool = False
    bypass: bool = False
    why: str = ""


GEARBOX_WAYS = (
    GearboxWay(
        "tank",
        "In the tank alone",
        True,
        False,
        why="Nothing to hang; it warms the gearbox in winter, and the gearbox can be no cooler than the coolant.",
    ),
    GearboxWay(
        "before",
        "A cooler before the tank",
        True,
        True,
        why="The tank has the last word: it warms what the cooler made too cold, and the coolant is given less.",
    ),
    GearboxWay(
        "after",
        "A cooler after the tank",
        True,
        True,
        after=True,
        why="The coolest fluid goes back to the gearbox; in winter it stays cold.",
    ),
    GearboxWay(
        "alone",
        "A cooler alone",
        False,
        True,
        why="The coolant is given nothing; all hangs on the cooler and its air, and nothing warms the fluid.",
    ),
    GearboxWay(
        "bypass",
        "A cooler alone, with a bypass thermostat",
        False,
        True,
        bypass=True,
        why="As alone, but the fluid stays out of the cooler until it is warm.",
    ),
)


def gearbox_edit(package: Package, way: GearboxWay) -> Edit:
    """What goes over to a way: the tank's part, and the coolers of the gearbox as the way has them."""
    own = [cooler for cooler in package.coolers if cooler.kind == "gearbox_cooler"]
    others = tuple(cooler for cooler in package.coolers if cooler.kind != "gearbox_cooler")
    bypass = quantity(BYPASS, "temperature", "derived") if way.bypass else None
    as_wanted = {"after_tank": way.after, "opens": bypass}
    kept = tuple(cooler.model_copy(update=as_wanted) for cooler in (own or [STAND_IN])) if way.cooler else ()
    coolers = Change(("packages", package.id, "coolers"), (*others, *kept))
    return Edit(
        f"Gearbox cooling: {way.name.lower()}", (Change(("brief", "vehicle", "in_tank_cooler"), way.tank), coolers)
    )


def _gearbox_way(do: Doing) -> Edit:
    way = next((one for one in GEARBOX_WAYS if one.key == do.given("way")), None)
    if way is None:
        raise InputError("act_incomplete", f"There is no way to cool a gearbox called “{do.given('way')}”")
    return gearbox_edit(do.package, way)


LINES = (
    "Lines held every 18 in, away from exhaust and what turns; fluid topped up by its book, then looked at again hot",
)
KINDS = (
    ActKind("add_cooler", "A cooler of a kind, to place and to describe", _add, first="width"),
    ActKind(
        "put_cooler",
        "A cooler at another place",
        _put,
        after=LINES,
        rests_on=(("survey", "obstacles"), ("survey", "opening"), ("survey", "ground")),
    ),
    ActKind(
        "gearbox_way",
        "The gearbox cooled another way",
        _gearbox_way,
        after=LINES,
        cautions=cautions("gearbox"),
        rests_on=(("brief", "vehicle", "gearbox"), ("packages", "*", "coolers")),
    ),
)
