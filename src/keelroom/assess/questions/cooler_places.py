"""Where to put a cooler: places tried, judged by its fluid, by what it costs the core, by protection and by what cannot be undone."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.assess import first_wave
from keelroom.assess.assessment import Assessment
from keelroom.assess.fit.clearances import fit_up
from keelroom.assess.fit.coolers import GROUND, bodies, named
from keelroom.assess.inputs.coolers import FLUID_OF, size_of
from keelroom.assess.placing import face_size, placed_frame
from keelroom.core.kept import in_one_go
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import from_si, quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler, Stands
from keelroom.document.schema.package import Package
from keelroom.units import INCH

SMALL_FAN = {"fans": "1", "fan_flow": "250 CFM", "fan_power": "80 W"}
"""a fan of some 6 A that is hung on a cooler where the road presses no air"""
KINDS_OF = {"fans": "count", "fan_flow": "airflow", "fan_power": "electrical power"}
SLOTTED = ("bumper",)
"""places whose opening has to be cut where there is none"""
EXPOSED = {
    "floor": "stones, kerbs and water from below",
    "bumper": "stones and a kerb taken straight on",
    "wheel_well": "stones off the tyre",
}


class Place(NamedTuple):
    """One place tried. fluid [degC] the hottest of its fluid, core [K] how much hotter the engine settles at worst than with the cooler as it is;

    gap [m] least clearance of its bodies, None where nothing near is measured;  risk: what it has to be kept from;  cut: whether something is cut
    """

    stands: Stands
    words: str
    edit: Edit
    fluid: float
    core: float
    gap: float | None
    risk: str
    cut: bool
    fan: bool
    current: bool


def _variants(build: Build, package: Package, cooler: Cooler) -> list[tuple[Cooler, str, bool]]:
    """The cooler as it would stand in each place, in words, and whether a fan comes with it."""
    width, height = face_size(package)
    wide, high = size_of(cooler, (width, height))
    found: list[tuple[Cooler, str, bool]] = []

    def placed(stands: Stands, left: float, bottom: float, front: float | None, fan: bool, words: str) -> None:
        changes: dict[str, object] = {
            "stands": stands, "left": from_si(left, "length", "us", "derived"), "bottom": from_si(bottom, "length", "us", "derived"),
            "front": from_si(front, "length", "us", "derived") if front is not None else None,
            "width": from_si(wide, "length", "us", "derived"), "height": from_si(high, "length", "us", "derived"),
        }  # fmt: skip
        if fan and cooler.fans.si < 1:
            changes |= {name: quantity(text, KINDS_OF[name]) for name, text in SMALL_FAN.items()}
        if not fan:
            changes["fans"] = quantity("0", "count")
        found.append((cooler.model_copy(update=changes), words, fan))

    ahead = (
        max((c.stand_off.si + c.thickness.si for c in package.coolers if c.stands == "ahead" and c.id != cooler.id), default=0.0)
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


def _hottest(assessment: Assessment, fluid: str) -> float:
    return max((case.figures.fluids.of(fluid) for case in assessment.cases if case.figures), default=float("nan"))


def _engine(assessment: Assessment) -> float:
    return max(
        (case.figures.temperature for case in assessment.cases if case.figures and case.figures.verdict != "does_not_settle"), default=0.0
    )


@in_one_go
def cooler_places(build: Build, ident: str) -> tuple[Place, ...]:
    """Places for the cooler of that id, best first: it must not be in the way, then the fluid's wants, then the core, then what is cut."""
    package = build.package
    cooler = next(c for c in package.coolers if c.id == ident)
    fluid = FLUID_OF.get(cooler.kind, "gearbox")
    now = first_wave(build)
    found = []
    for changed, words, fan in _variants(build, package, cooler):
        members = tuple(changed if c.id == ident else c for c in package.coolers)
        edit = Edit(f"{named(cooler)}: {words}", (Change(("packages", package.id, "coolers"), members),))
        tried = apply(build, edit)
        told = first_wave(tried, previous=now)
        low = (
            build.survey.ground is not None
            and changed.stands not in ("ahead", "trunk", "bay")
            and build.survey.ground.si + changed.bottom.si < GROUND
        )
        risk = "; ".join(word for word in (EXPOSED.get(changed.stands, ""), "too low over the road" if low else "") if word)
        found.append(Place(
            changed.stands, words, edit, _hottest(told, fluid), _engine(told) - _engine(now), _gap(tried, changed), risk or "nothing more than the core",
            changed.stands in SLOTTED and cooler.opening is None, fan, changed.stands == cooler.stands and fan == (cooler.fans.si >= 1),
        ))  # fmt: skip
    return tuple(
        sorted(found, key=lambda place: (place.gap is not None and place.gap < 0, place.fluid + 2 * max(place.core, 0.0) + 3 * place.cut))
    )


def _gap(build: Build, cooler: Cooler) -> float | None:
    """Least clearance of the cooler's own bodies."""
    package = build.package
    own = {f"cover:{cooler.id}", *(body.key for body in bodies(package, placed_frame(build.survey, package), ("packages", package.id)))}
    fit = fit_up(build, package)
    gaps = [gap.gap for gap in fit.gaps if gap.part.key in own and gap.part.key.endswith(f":{cooler.id}")]
    return min(gaps, default=None)
