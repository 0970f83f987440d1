"""What people believe of a part, worked out for the build at hand: as it is against the usual in its place."""

from __future__ import annotations

import math
from typing import NamedTuple

from keelroom.assess.figures.batch import Asked, answers, row_for
from keelroom.assess.inputs.cases import grade_case, idle_case
from keelroom.document.edits import Change, Edit, apply
from keelroom.document.quantity import quantity
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.errors import InputError

WATERLESS = 0.95
"""Share of glycol from which a coolant counts as waterless."""


class Belief(NamedTuple):
    """One belief held against the usual. Mean temperature [degC], inf where none settles, and rejection at the limit
    [W]: as it is, and with the usual; on the grade, else at idle."""

    code: str
    now: float
    rejects: float
    then: float
    would: float


def beliefs_of(build: Build, package: Package) -> tuple[Belief, ...]:
    """The beliefs this package invites, each solved both ways; one that neither case answers is left out."""
    found = (_compared(code, build, package, changes) for code, changes in _invited(package))
    return tuple(belief for belief in found if belief is not None)


def _invited(package: Package) -> tuple[tuple[str, tuple[Change, ...]], ...]:
    """What is believed of its parts, with the changes that put the usual in their place."""
    where, core, share = ("packages", package.id), package.core, package.coolant.glycol_share
    invited: list[tuple[str, tuple[Change, ...]]] = []
    if share is not None and share.si >= WATERLESS:
        invited.append(("waterless", (Change((*where, "coolant", "glycol_share"), quantity("50 %", "share")),)))
    if core.material == "copper_brass" and core.fin_density is not None:
        usual = (
            ("material", "aluminium"),
            ("fin_density", quantity("14 fins/in", "fin density")),
            ("fin_height", quantity("8 mm", "length")),
        )
        invited.append(("copper", tuple(Change((*where, "core", name), value) for name, value in usual)))
    return tuple(invited)


def _compared(code: str, build: Build, package: Package, changes: tuple[Change, ...]) -> Belief | None:
    cases = [case for case in (grade_case(build.duty_cases), idle_case(build.duty_cases)) if case]
    try:
        mine = build if build.active == package.id else apply(build, Edit("", (Change(("active",), package.id),)))
        other = apply(mine, Edit("", changes))
    except InputError:
        return None
    for case in cases:
        pairs = [pair for pair in answers([row_for(Asked(one, case.id)) for one in (mine, other)]) if pair is not None]
        if len(pairs) == 2:
            solved = [
                (answer.solution.settles[at], answer.solution.state.temperature[at], answer.rejection_at_limit[at])
                for answer, at in pairs
            ]
            (now, rejects), (then, would) = (
                (float(t) if settles else math.inf, float(heat)) for settles, t, heat in solved
            )
            return Belief(code, now, rejects, then, would)
    return None
