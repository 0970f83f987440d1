"""Where to put a cooler: places tried, judged by its fluid, by what it costs the core, by protection and by what
cannot be undone."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.acts.coolers import places_for
from keelroom.assess.acts.registry import edit_for, offer
from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.fit.clearances import fit_up
from keelroom.assess.fit.coolers import GROUND, bodies, named
from keelroom.assess.inputs.coolers import FLUID_OF
from keelroom.assess.placing import placed_frame
from keelroom.core.kept import in_one_go
from keelroom.document.act import Act
from keelroom.document.edits import apply
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler, Stands

SLOTTED = ("bumper",)
"""places whose opening has to be cut where there is none"""
EXPOSED = {
    "floor": "stones, kerbs and water from below",
    "bumper": "stones and a kerb taken straight on",
    "wheel_well": "stones off the tyre",
}


class CoolerPlace(NamedTuple):
    """One place tried. fluid [degC] the hottest of its fluid, core [K] how much hotter the engine settles at worst
    than with the cooler as it is;

    gap [m] least clearance of its bodies, None where nothing near is measured;  risk: what it has to be kept from;
    cut: whether something is cut
    """

    stands: Stands
    words: str
    act: Act
    fluid: float
    core: float
    gap: float | None
    risk: str
    cut: bool
    fan: bool
    current: bool


def _hottest(assessment: Assessment, fluid: str) -> float:
    return max((case.figures.fluids.of(fluid) for case in assessment.cases if case.figures), default=float("nan"))


def _engine(assessment: Assessment) -> float:
    return max(
        (
            case.figures.temperature
            for case in assessment.cases
            if case.figures and case.figures.verdict != "does_not_settle"
        ),
        default=0.0,
    )


@in_one_go
def cooler_places(build: Build, ident: str) -> tuple[CoolerPlace, ...]:
    """Places for the cooler of that id, best first: it must not be in the way, then the fluid's wants, then the core,
    then what is cut."""
    package = build.package
    cooler = next(c for c in package.coolers if c.id == ident)
    fluid = FLUID_OF.get(cooler.kind, "gearbox")
    now = first_wave(build)
    found = []
    for changed, words, fan in places_for(build, package, cooler):
        act = offer("put_cooler", package.id, f"{named(cooler)}: {words}", cooler=ident, place=words)
        tried = apply(build, edit_for(build, act))
        told = first_wave(tried, previous=now)
        low = (
            build.survey.ground is not None
            and changed.stands not in ("ahead", "trunk", "bay")
            and build.survey.ground.si + changed.bottom.si < GROUND
        )
        risk = "; ".join(
            word for word in (EXPOSED.get(changed.stands, ""), "too low over the road" if low else "") if word
        )
        found.append(
            CoolerPlace(
                changed.stands,
                words,
                act,
                _hottest(told, fluid),
                _engine(told) - _engine(now),
                _gap(tried, changed),
                risk or "nothing more than the core",
                changed.stands in SLOTTED and cooler.opening is None,
                fan,
                changed.stands == cooler.stands and fan == (cooler.fans.si >= 1),
            )
        )
    return tuple(
        sorted(
            found,
            key=lambda place: (
                place.gap is not None and place.gap < 0,
                place.fluid + 2 * max(place.core, 0.0) + 3 * place.cut,
            ),
        )
    )


def _gap(build: Build, cooler: Cooler) -> float | None:
    """Least clearance of the cooler's own bodies."""
    package = build.package
    own = {
        f"cover:{cooler.id}",
        *(body.key for body in bodies(package, placed_frame(build.survey, package), ("packages", package.id))),
    }
    fit = fit_up(build, package)
    gaps = [gap.gap for gap in fit.gaps if gap.part.key in own and gap.part.key.endswith(f":{cooler.id}")]
    return min(gaps, default=None)
