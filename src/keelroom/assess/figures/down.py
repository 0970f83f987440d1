"""What becomes of a car whose battery goes flat at a light: the volts its alternator alone holds then, and what its
fans do for the engine at those."""

from __future__ import annotations

import math

from keelroom.assess.electrical.charge import Draw
from keelroom.assess.figures.assessment import Assessment, Down
from keelroom.assess.figures.batch import Asked, answers, row_for
from keelroom.assess.figures.read_off import draws_of
from keelroom.assess.inputs.cases import stands
from keelroom.assess.inputs.demand import demand_of
from keelroom.assess.inputs.electrical.system import held_alone
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import from_si
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package


def soonest(assessment: Assessment) -> Draw | None:
    """Of the case that stands and empties the battery soonest; None where none does, or no fan hangs on it."""
    if assessment.driven.brief.accessories.idle_voltage is not None:
        return None
    emptied = [draw for draw in draws_of(assessment) if draw.empties and stands(draw.case) and draw.system.fan_amps > 0]
    return min(emptied, key=lambda one: one.system.balance.lasts, default=None)


def known_already(previous: Assessment | None, now: Assessment) -> tuple[Down | None, bool]:
    """What a flat battery does, of an assessment with the very figures of the last, and whether that is known: where
    what is drawn is what it was, or nothing is emptied."""
    draw, was = soonest(now), soonest(previous) if previous else None
    if draw is None:
        return None, True
    same = was is not None and (was.case.id, was.system.balance) == (draw.case.id, draw.system.balance)
    return (previous.down, previous.down is not None) if previous and same else (None, False)


def battery_down(build: Build, package: Package, assessment: Assessment) -> Down | None:
    """What becomes of the engine where one is emptied; None where none is."""
    draw = soonest(assessment)
    if draw is None:
        return None
    volts = held_alone(build, package, demand_of(build.brief, draw.case).at)
    low = from_si(volts, "voltage", "si", "derived")
    then = apply(
        build.model_copy(update={"active": package.id}),
        Edit("", (Change(("brief", "accessories", "idle_voltage"), low),)),
    )
    (found,) = answers([row_for(Asked(then, draw.case.id))])
    if found is None:
        return None
    answer, place = found
    gauge = float(answer.temperature[place]) if answer.settled[place] else math.inf
    return Down(draw.case.id, draw.system.balance.lasts, volts, gauge)
