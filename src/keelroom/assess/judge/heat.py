"""What is hot against all that burns, melts or bakes: hoses, plastics, bottles, and coolers with fluids that burn."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding, Found
from keelroom.assess.fit.bodies import Body
from keelroom.assess.fit.moves import CAPPED, moved_bodies, unmoved
from keelroom.assess.fit.package_bodies import parts_of_package
from keelroom.assess.fixes import flag_act
from keelroom.core.packaging.solids import clearance, stacked
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.facts import given
from keelroom.units import INCH

KEEPS_OFF = {"hose": 3 * INCH, "plastic": 4 * INCH, "cooler": 4 * INCH, "bottle": 3 * INCH}
"""[m] kept off an exhaust pipe, manifold or turbine by sort (common practice): a coolant hose; the plastic of fans and
shroud; a cooler whose fluid burns, with its lines and fittings; a bottle."""
SHIELDED = 0.5
"""Share of it with a shield that has air on both sides (common practice)."""


def heat(build: Build, package: Package, assessment: Assessment) -> Found:
    """Every part that stands too near something hot, at the nearest of it."""
    hot = {f"obstacle:{one.id}": one for one in build.survey.obstacles if one.kind == "exhaust"}
    if not hot:
        return
    there = unmoved(build.survey, package)
    pipes = [body for body in there if body.key in hot and not body.unknown]
    kept = [one.id for one in build.survey.obstacles if one.kind in CAPPED]
    bottles = {f"{where}:{ident}" for where in ("obstacle", "moved") for ident in kept}
    near = [(body, sort) for body in parts_of_package(build.survey, package) if (sort := _sort(body))]
    standing = (*there, *moved_bodies(build.survey, package.moves, package.id))
    near += [(body, "bottle") for body in standing if body.key in bottles and not body.unknown]
    pairs = [(body, sort, pipe) for body, sort in near for pipe in pipes]
    if not pairs:
        return
    gaps = clearance(stacked([body.solid for body, _, _ in pairs]), stacked([pipe.solid for _, _, pipe in pairs])).gap
    worst: dict[tuple[str, ...], tuple[float, float, Body, str, Body]] = {}
    for (body, sort, pipe), found in zip(pairs, gaps, strict=True):
        gap, least = float(found), KEEPS_OFF[sort] * (SHIELDED if hot[pipe.key].shielded else 1.0)
        if gap < least and (body.path not in worst or gap < worst[body.path][0]):
            worst[body.path] = (gap, least, body, sort, pipe)
    for path, (gap, least, body, sort, pipe) in worst.items():
        obstacle = hot[pipe.key]
        shield = flag_act("A heat shield on it", ("survey", "obstacles", obstacle.id, "shielded"), True)
        yield Finding(
            "near_exhaust",
            "problem",
            path,
            given(part=body.name, gap=(max(gap, 0.0), "length"), pipe=pipe.name, least=(least, "length")),
            form=sort,
            fix=() if obstacle.shielded or gap < SHIELDED * least else (shield,),
            value=gap,
            limit=least,
        )


def _sort(body: Body) -> str:
    """What it is to the heat; '' where it stands it."""
    if body.sort == "hose":
        return "hose"
    if body.sort == "fan" or body.key.startswith("shroud"):
        return "plastic"
    return "cooler" if body.key.startswith(("cooler:", "fittings:", "cover:")) else ""
