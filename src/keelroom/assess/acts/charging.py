"""Acts on charging: another alternator, pulley or idle speed, a charge cable that carries it, its fuse."""

from __future__ import annotations

from keelroom.assess.acts.kind import HOUR, ActKind, Taken
from keelroom.assess.electrical.charge import cable_for, charge_cable, protection_for
from keelroom.assess.inputs.electrical.system import alternator_of
from keelroom.assess.safety import cautions
from keelroom.core.electrical.charging import Alternator, output
from keelroom.document.edits import Change, Edit
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import Supply
from keelroom.errors import InputError

SIZE, FUSE = ("supply", "charge_wire", "size"), ("supply", "charge_fuse")
MOST_CURVE = 600.0
"""[A] a point of an alternator's curve may be at most."""


def larger_alternator(build: Build, rating: float) -> Edit:
    """An alternator of the same kind of another rating [A], with the cable and fuse it takes where the present ones do
    not carry it; a typed curve goes with it in proportion. Raises InputError where none is known."""
    now = build.brief.accessories.alternator_rating
    if now is None:
        raise InputError("no_alternator", "The present alternator’s rating is not known")
    text = f"{rating:g} A"
    changes = [Change(("brief", "accessories", "alternator_rating"), quantity(text, "current"))]
    if build.supply.curve:
        scale = rating / now.si
        amps = (min(point.current.si * scale, MOST_CURVE) for point in build.supply.curve)
        curve = tuple(
            point.model_copy(update={"current": from_si(current, "current", "si", "derived")})
            for point, current in zip(build.supply.curve, amps, strict=True)
        )
        changes.append(Change(("supply", "curve"), curve))
    return Edit(f"Alternator of {text}", (*changes, *_carrying(build.supply, rating)))


def _carrying(supply: Supply, rating: float) -> list[Change]:
    """What the charge cable and its fuse have to become for a rating [A]; nothing where no single cable is made."""
    if supply.charge_fuse and supply.charge_fuse.si < rating:
        found = protection_for(supply, rating)
        if found is None or found.cable is None:
            return []
        fuse = Change(FUSE, quantity(found.fuse, "current", "derived"))
        return [fuse, *([_cable(found.cable)] if found.cable else [])]
    size = None if charge_cable(supply, rating).fits else cable_for(supply, rating)
    return [_cable(size)] if size else []


def _cable(size: str) -> Change:
    return Change(SIZE, quantity(size, "wire size", "derived"))


def _present(build: Build) -> Alternator:
    alternator = alternator_of(build.brief.accessories, build.brief.engine, build.supply)
    if alternator is None:
        raise InputError("no_alternator", "The alternator’s rating is not known")
    return alternator


def faster_pulley(build: Build, ratio: float) -> Edit:
    """Another pulley ratio; a share known at idle goes up with the speed. Raises InputError where the alternator is
    not known."""
    alternator = _present(build)
    changes = [Change(("supply", "pulley_ratio"), quantity(f"{ratio:.2f}", "number"))]
    if build.brief.engine.idle_rpm:
        changes += _share_at(alternator._replace(ratio=ratio), build.brief.engine.idle_rpm.si * 60)
    return Edit(f"A pulley of {ratio:.2f}", tuple(changes))


def faster_idle(build: Build, rpm: float) -> Edit:
    """Another idle speed [rpm]; a share known at idle goes up with it. Raises InputError where the alternator is not
    known."""
    alternator = _present(build)
    changes = [Change(("brief", "engine", "idle_rpm"), quantity(f"{rpm:.0f} rpm", "turning speed"))]
    return Edit(f"Idle at {rpm:.0f} rpm", (*changes, *_share_at(alternator, rpm)))


def _share_at(alternator: Alternator, rpm: float) -> list[Change]:
    """The share known at idle carried to another speed of the alternator: it was measured at the old one."""
    if alternator.idle_share is None:
        return []
    share = output(alternator, rpm) / alternator.rating
    return [Change(("brief", "accessories", "alternator_idle_share"), from_si(share, "share", "us", "derived"))]


def protect_cable(build: Build) -> Edit:
    """That fuse, and that cable where the present one is too thin for it. Raises InputError where there is none."""
    rating = build.brief.accessories.alternator_rating
    found = protection_for(build.supply, rating.si) if rating else None
    if found is None or found.cable is None:
        raise InputError(
            "no_cable", "No single cable stands the fuse such an alternator needs: run two, each with a fuse of its own"
        )
    changes = [Change(FUSE, quantity(found.fuse, "current", "derived"))]
    if found.cable:
        changes.append(_cable(found.cable))
    return Edit(found.label, tuple(changes))


def larger_cable(build: Build) -> Edit:
    """The smallest charge cable that will do. Raises InputError where none does."""
    rating = build.brief.accessories.alternator_rating
    size = cable_for(build.supply, rating.si) if rating else None
    if size is None:
        raise InputError("no_cable", "No single cable keeps within that drop: shorten it or run two")
    return Edit(f"Charge cable {size}", (_cable(size),))


CHARGE = cautions("charge")
RATING = ("brief", "accessories", "alternator_rating")
CABLE_TAKES, FUSE_TAKES = Taken(SIZE, HOUR, "Cable with lugs and loom"), Taken(FUSE, 0.5 * HOUR, "Fuse and holder")
CHARGES = ("Volts at the battery posts at idle with everything on",)
KINDS = (
    ActKind(
        "larger_alternator",
        "An alternator of another rating of the same kind",
        lambda do: larger_alternator(do.build, do.number("rating")),
        hours=1.5 * HOUR,
        parts=("The alternator and perhaps its belt",),
        takes=(CABLE_TAKES, FUSE_TAKES),
        cautions=CHARGE,
        before=("Its mount, plug and pulley against the old one",),
        after=(*CHARGES, "The charge cable and its fuse against the new rating"),
        rests_on=(RATING, ("supply", "loads")),
    ),
    ActKind(
        "faster_pulley",
        "Another pulley ratio of the alternator",
        lambda do: faster_pulley(do.build, do.number("ratio")),
        hours=HOUR,
        parts=("Pulley and belt",),
        cautions=CHARGE,
        after=CHARGES,
        rests_on=(("supply", "pulley_ratio"), ("supply", "redline"), ("supply", "speed_limit")),
    ),
    ActKind(
        "faster_idle",
        "Another idle speed",
        lambda do: faster_idle(do.build, do.number("rpm")),
        hours=0.25 * HOUR,
        after=(*CHARGES, "In gear with the brake held: the car does not creep away"),
        rests_on=(("brief", "engine", "idle_rpm"), RATING),
    ),
    ActKind(
        "charge_cable",
        "The smallest charge cable that will do",
        lambda do: larger_cable(do.build),
        "A cable that carries it",
        takes=(CABLE_TAKES,),
        cautions=CHARGE,
        after=CHARGES,
        rests_on=(RATING, ("supply", "charge_wire")),
    ),
    ActKind(
        "charge_fuse",
        "A fuse at the battery for the charge cable, and the cable it takes",
        lambda do: protect_cable(do.build),
        takes=(FUSE_TAKES, CABLE_TAKES),
        cautions=CHARGE,
        after=CHARGES,
        rests_on=(RATING, ("supply", "charge_wire")),
    ),
)
