"""Findings about what people believe: each claim answered with a figure for the build at hand and with what the claim rests on."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.assessment import Assessment
from keelroom.assess.inputs.cases import grade_case, idle_case
from keelroom.assess.questions.batch import Asked, answers, row_for
from keelroom.assess.wording import Found, set_act
from keelroom.core.findings import Finding
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.errors import InputError
from keelroom.units import both

WATERLESS = 0.95
"""Share of glycol from which a coolant counts as waterless."""


def claims(build: Build, package: Package, assessment: Assessment) -> Found:
    """What is answered for this build."""
    yield from _waterless(build, package)
    yield from _copper(build, package)


class _Compared(NamedTuple):
    """Mean temperature [degC], inf where none settles, and rejection at the limit [W]: as it is, and with the changes."""

    now: float
    rejects: float
    then: float
    would: float


def _compared(build: Build, package: Package, changes: tuple[Change, ...]) -> _Compared | None:
    """On the grade, else at idle; None where neither is known with and without the changes."""
    cases = [case for case in (grade_case(build.duty_cases), idle_case(build.duty_cases)) if case]
    try:
        mine = build if build.active == package.id else apply(build, Edit("", (Change(("active",), package.id),)))
        other = apply(mine, Edit("", changes))
    except InputError:
        return None
    for case in cases:
        values: list[float] = []
        for pair in answers([row_for(Asked(one, case.id)) for one in (mine, other)]):
            if pair is not None:
                answer, at = pair
                settles = bool(answer.solution.settles[at])
                values += [float(answer.solution.state.temperature[at]) if settles else math.inf, float(answer.rejection_at_limit[at])]
        if len(values) == len(_Compared._fields):
            return _Compared(*values)
    return None


def _waterless(build: Build, package: Package) -> Found:
    share, where = package.coolant.glycol_share, ("packages", package.id, "coolant", "glycol_share")
    if share is None or share.si < WATERLESS:
        return
    mixed = (Change(where, quantity("50 %", "share")),)
    told = _compared(build, package, mixed)
    figure = ""
    if told:
        now, rejects, then, would = told
        loses = f"it takes {1 - rejects / would:.0%} less heat off at the limit"
        figure = f"Here {loses}" + (f" and the engine runs {both(now - then, 'temperature difference')} hotter" if math.isfinite(now) and math.isfinite(then) else "") + " than half water. "  # fmt: skip
    yield Finding("waterless", "doubt", where, "Waterless coolant does not run cooler",
                  f"{figure}Glycol alone carries less heat and is thicker. The claim rests on its boiling point: it boils far later and needs no pressure, which hides the heat and does not remove it. "
                  "The system has to be bone dry for it.", (set_act("Half water", where, "50 %"),), "COOLPROP")  # fmt: skip


def _copper(build: Build, package: Package) -> Found:
    core, where = package.core, ("packages", package.id, "core")
    if core.material != "copper_brass" or core.fin_density is None:
        return
    usual = (
        Change((*where, "material"), "aluminium"),
        Change((*where, "fin_density"), quantity("14 fins/in", "fin density")),
        Change((*where, "fin_height"), quantity("8 mm", "length")),
    )
    told = _compared(build, package, usual)
    if told is None or told.would <= 0:
        return  # a face wholly behind metal rejects nothing, whatever it is made of
    gain = told.rejects / told.would - 1
    more = f"{gain:.0%} more" if gain > 0.005 else f"{-gain:.0%} less" if gain < -0.005 else "as much"
    yield Finding("copper_claim", "note", (*where, "material"), f"This copper/brass core takes off {more} heat than a usual aluminium one of its size",
                  "Re-cores are sold as 30–35 % better. That rests on a denser core against an old, thin one, fins counted without the fans that have to pull through them: copper conducts better, "
                  "but a fin is hardly ever what limits, and solder and narrow tubes cost.", value=gain, source="KAYS_LONDON")  # fmt: skip
