"""Acts on the shroud: one fitted, trimmed until it seats, sealed, divided, given flaps."""

from __future__ import annotations

from keelroom.assess.acts.kind import HOUR, ActKind, Doing
from keelroom.assess.fit.shroud_plan import TrimPlan, laid, onto_rings, trim_plan
from keelroom.assess.safety import cautions
from keelroom.core.packaging.shroud import SIDES, trims_to_seat
from keelroom.document.edits import Change, Edit, set_value
from keelroom.document.quantity import Quantity, from_si, quantity
from keelroom.document.schema.package import Package
from keelroom.errors import InputError

SEATED_GAP, SEALED_GAP = quantity("1/32 in", "length"), quantity("0 in", "length")
FLAPS = "70 in²"


def _trimmed(package: Package) -> TrimPlan:
    plan = trim_plan(package)
    if plan is None:
        raise InputError("no_blank", "Enter the size of the shroud as bought first")
    return plan


def seat_edit(package: Package, system: str, to_right: float = 0.0) -> Edit:
    """Trim a bought shroud until it seats; its fans go with it, so that rings and fans stay together.

    to_right [m]: how far right of the middle the fans shall then stand; the cut is taken unevenly for it.
    """
    plan = _trimmed(package)
    ready = trims_to_seat((plan.blank.width, plan.blank.height), plan.seat, (to_right, 0.0))
    where = ("packages", package.id)
    changes = [
        Change((*where, "shroud", f"trim_{side}"), from_si(ready[side], "length", system, "derived")) for side in SIDES
    ]
    changes += onto_rings(package, plan, laid(plan.seat, ready), system)
    return Edit("Trim shroud until it seats", tuple(changes))


def fans_edit(package: Package, system: str) -> Edit:
    """Put the fans where the rings of the trimmed shroud are."""
    plan = _trimmed(package)
    return Edit("Fans to where their rings are", onto_rings(package, plan, laid(plan.seat, plan.now.cut), system))


def _full(do: Doing) -> Edit:
    if not do.package.fans:
        raise InputError("no_fans", "A shroud needs fans: choose one first")
    changes = [Change((*do.where, "shroud", "kind"), "full")]
    if dict(do.act.given).get("flaps"):
        changes.append(Change((*do.where, "shroud", "flap_area"), quantity(FLAPS, "area")))
    return Edit(do.act.label, tuple(changes))


def _gap(do: Doing, target: Quantity) -> Edit:
    package = do.package
    if package.shroud.kind == "none" or not package.fans or package.shroud.edge_gap.si <= target.si + 1e-6:
        raise InputError("seats_already", "There is no shroud, or its edge is no further off than that")
    return set_value((*do.where, "shroud", "edge_gap"), target, do.act.label)


def _flaps(do: Doing) -> Edit:
    package = do.package
    if package.shroud.kind == "none" or not package.fans or package.shroud.flap_area.si > 0:
        raise InputError("flaps_already", "There is no shroud, or it has flaps already")
    return set_value((*do.where, "shroud", "flap_area"), quantity(FLAPS, "area"), do.act.label)


def _divide(do: Doing) -> Edit:
    package = do.package
    shared = package.shroud.plenum == "shared" and package.shroud.kind != "none" and len(package.fans) > 1
    if not shared or all(fan.runs for fan in package.fans):
        raise InputError("no_need", "No fan stands still in a plenum it shares")
    return set_value((*do.where, "shroud", "plenum"), "divided", do.act.label)


def _no_trim(do: Doing) -> Edit:
    nothing = from_si(0.0, "length", "us", "assumed")
    return Edit(
        do.act.label,
        tuple(Change((*do.where, "shroud", f"trim_{side}"), nothing) for side in ("left", "right", "bottom", "top")),
    )


EDGE = ("packages", "*", "shroud", "edge_gap")
CUT = cautions("bend", "cut")
MARK = ("Marked twice, for what is trimmed does not grow back",)
KINDS = (
    ActKind(
        "full_shroud",
        "A shroud over the whole face",
        _full,
        "Full shroud",
        cautions=cautions("bend"),
        after=("Nothing touches blade or belt with the engine rocked",),
        rests_on=(("packages", "*", "core", "face_width"), ("packages", "*", "core", "face_height")),
    ),
    ActKind(
        "seat",
        "Trim the shroud’s edge until it lies on the core",
        lambda do: _gap(do, SEATED_GAP),
        "Trim the shroud until it seats on the core",
        hours=HOUR,
        cautions=CUT,
        before=MARK,
        rests_on=(EDGE,),
    ),
    ActKind(
        "edge_seal",
        "Seal the shroud’s edge with foam or split hose",
        lambda do: _gap(do, SEALED_GAP),
        "Seal the shroud’s edge with foam or split hose",
        hours=0.5 * HOUR,
        parts=("Foam strip or split hose round the edge",),
        rests_on=(EDGE,),
    ),
    ActKind(
        "flaps",
        "Flaps in the shroud that open at speed",
        _flaps,
        "Flaps in the shroud, 70 in²",
        hours=1.5 * HOUR,
        parts=("Rubber flaps and rivets",),
        cautions=CUT,
        after=("They close by themselves with the fans running",),
        rests_on=(("packages", "*", "core", "face_width"), ("packages", "*", "core", "face_height")),
    ),
    ActKind(
        "divide",
        "A wall in the shroud between the fans",
        _divide,
        "Divide the shroud between the fans",
        hours=HOUR,
        cautions=CUT,
        rests_on=(("packages", "*", "fans"),),
    ),
    ActKind(
        "seat_shroud",
        "Trim a bought shroud until it seats, its fans with it",
        lambda do: seat_edit(do.package, do.system),
        "Trim it until it seats",
        cautions=CUT,
        before=MARK,
        rests_on=(("packages", "*", "shroud", "blank_width"), ("packages", "*", "shroud", "blank_height")),
    ),
    ActKind(
        "fans_to_rings",
        "Put the fans where the rings of the trimmed shroud are",
        lambda do: fans_edit(do.package, do.system),
        "Put the fans where their rings are",
        rests_on=(("packages", "*", "shroud", "blank_width"), ("packages", "*", "shroud", "blank_height")),
    ),
    ActKind("clear_trims", "No trim at all", _no_trim, "No trim"),
)
