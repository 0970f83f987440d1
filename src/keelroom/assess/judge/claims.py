"""Findings about what people believe: each claim answered with a figure for the build at hand and with what the claim
rests on."""

from __future__ import annotations

import math

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.figures.beliefs import WATERLESS, Belief
from keelroom.assess.findings import Finding, Found
from keelroom.assess.fixes import set_act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.facts import fact, given


def claims(build: Build, package: Package, assessment: Assessment) -> Found:
    """What is answered for this build."""
    beliefs = {belief.code: belief for belief in assessment.beliefs}
    yield from _waterless(package, beliefs.get("waterless"))
    yield from _copper(package, beliefs.get("copper"))


def _waterless(package: Package, told: Belief | None) -> Found:
    share, where = package.coolant.glycol_share, ("packages", package.id, "coolant", "glycol_share")
    if share is None or share.si < WATERLESS:
        return
    here = None
    if told:
        _, now, rejects, then, would = told
        less = (1 - rejects / would, "share")
        settled = math.isfinite(now) and math.isfinite(then)
        here = (
            fact("less_and_hotter", less=less, hotter=(now - then, "temperature difference"))
            if settled
            else fact("less_heat", less=less)
        )
    yield Finding(
        "waterless", "doubt", where, given(here=here), fix=(set_act("Half water", where, "50 %"),), source="COOLPROP"
    )


def _copper(package: Package, told: Belief | None) -> Found:
    where = ("packages", package.id, "core")
    if told is None or told.would <= 0:
        return  # a face wholly behind metal rejects nothing, whatever it is made of
    gain = told.rejects / told.would - 1
    form = "more" if gain > 0.005 else "less" if gain < -0.005 else "alike"
    yield Finding(
        "copper_claim",
        "note",
        (*where, "material"),
        given(gain=(abs(gain), "share")),
        form=form,
        source="KAYS_LONDON",
        value=gain,
    )
