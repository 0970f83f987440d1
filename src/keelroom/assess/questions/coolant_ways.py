"""Coolants side by side for this build: what each does to temperature, boiling, frost and the pump, and what a belief
about it is worth."""

from __future__ import annotations

from typing import NamedTuple

from keelroom.assess.acts.registry import edit_for, offer
from keelroom.assess.assess import first_wave
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.inputs.cases import grade_case, idle_case
from keelroom.assess.inputs.coolant.volumes import purchase_of, volumes_of
from keelroom.catalogue.fluids import glycol_table
from keelroom.core.fluids.coolant import freezing_point
from keelroom.core.kept import in_one_go
from keelroom.document.act import Act
from keelroom.document.edits import apply
from keelroom.document.schema.build import Build, DutyCase
from keelroom.document.schema.loop import Glycol
from keelroom.units import both


class Mix(NamedTuple):
    """A coolant: its glycol and its share; price of a litre of glycol; what is said of it."""

    key: str
    name: str
    glycol: Glycol
    share: str
    belief: str
    dry: str = "A drained circuit is dry enough."


MIXES = (
    Mix(
        "water",
        "Water with inhibitor",
        "ethylene_glycol",
        "0 %",
        "“Water cools best”: it does; and it freezes at 32 °F, boils first, and corrodes without its inhibitor.",
    ),
    Mix(
        "third",
        "One third ethylene glycol",
        "ethylene_glycol",
        "33 %",
        "“More water runs cooler”: a little; look at the frost.",
    ),
    Mix("half", "Half ethylene glycol", "ethylene_glycol", "50 %", "The usual: frost, boiling and inhibitor for most."),
    Mix(
        "half_pg",
        "Half propylene glycol",
        "propylene_glycol",
        "50 %",
        "“Propylene is the same, less poisonous”: thicker, so it carries a little less.",
    ),
    Mix(
        "waterless",
        "Glycol only (waterless)",
        "propylene_glycol",
        "100 %",
        "“Waterless runs cooler”: it boils far later and runs hotter, for it carries less heat and is thick.",
        "Under 3 % of water: block, heater and core blown dry, a preparation fluid through. And it burns.",
    ),
)
PRICE = 6.0
"""Money a litre of glycol, whole bottles aside (common practice: 20 to 30 a gallon)."""


class TriedMix(NamedTuple):
    """One coolant tried, temperatures [degC], flows [m3/s]: idle and grade with the margin [K] under boiling in each,
    frost, coolant through the engine at idle, cost of the glycol; None where a case is missing."""

    mix: Mix
    act: Act
    idle: float | None
    grade: float | None
    idle_margin: float | None
    grade_margin: float | None
    freezes: float
    flow: float | None
    cost: float | None
    current: bool


@in_one_go
def coolant_ways(build: Build) -> tuple[TriedMix, ...]:
    """Every mix tried on the active package, and the present one where it is none of them."""
    coolant = build.package.coolant
    found = [_tried(build, mix) for mix in MIXES]
    if not any(one.current for one in found) and coolant.glycol_share is not None:
        share = f"{coolant.glycol_share.si * 100:.6g} %"
        found.insert(
            0,
            _tried(
                build,
                Mix(
                    "own", f"As it is, {coolant.glycol_share.si:.0%}", coolant.glycol, share, "What is in the circuit."
                ),
            ),
        )
    return tuple(found)


def _tried(build: Build, mix: Mix) -> TriedMix:
    act = offer(
        "coolant",
        build.active,
        f"Coolant: {mix.name.lower()}",
        glycol=mix.glycol,
        share_percent=mix.share.removesuffix("%").strip(),
    )
    changed = apply(build, edit_for(build, act))
    found = first_wave(changed)
    cases = [_of(found, case) for case in (idle_case(changed.duty_cases), grade_case(changed.duty_cases))]
    (idle, idle_margin, flow), (grade, grade_margin, _) = cases
    volumes = volumes_of(changed, changed.package)
    cost = purchase_of(changed.package, volumes.total).glycol * 1e3 * PRICE if volumes else None
    share = changed.package.coolant.glycol_share
    own = build.package.coolant
    same = (
        own.glycol_share is not None
        and share is not None
        and abs(own.glycol_share.si - share.si) < 5e-3
        and (own.glycol == mix.glycol or share.si == 0)
    )
    freezes = freezing_point(glycol_table(mix.glycol), share.si if share else 0.0)
    return TriedMix(mix, act, idle, grade, idle_margin, grade_margin, freezes, flow, cost, same)


def _of(found: Assessment, case: DutyCase | None) -> tuple[float | None, float | None, float | None]:
    figures = found.figures_of(case.id) if case else None
    if figures is None or figures.verdict == "does_not_settle":
        return None, None, None
    return figures.temperature, figures.boiling - figures.temperature, figures.coolant_flow


def answer_to(belief: TriedMix, found: tuple[TriedMix, ...]) -> str:
    """A belief about a coolant answered with the figure for this build, against the usual half."""
    usual = next((one for one in found if one.mix.key == "half"), None)
    if usual is None or belief is usual or belief.grade is None or usual.grade is None:
        return belief.mix.belief
    hotter = belief.grade - usual.grade
    word = "hotter" if hotter > 0 else "cooler"
    margin = (belief.grade_margin or 0.0) - (usual.grade_margin or 0.0)
    more = "further from" if margin > 0 else "nearer to"
    return (
        f"{belief.mix.belief} Here, on the grade: {both(abs(hotter), 'temperature difference')} {word} than "
        "half and half, "
        f"and {both(abs(margin), 'temperature difference')} {more} boiling. {belief.mix.dry}"
    )
