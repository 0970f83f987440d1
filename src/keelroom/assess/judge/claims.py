"""Findings about what people believe: each claim answered with a figure for the build at hand and with what the claim rests on."""

from __future__ import annotations

import math

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.figures.beliefs import WATERLESS, Belief
from keelroom.assess.findings import Finding
from keelroom.assess.wording import Found, set_act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.units import both


def claims(build: Build, package: Package, assessment: Assessment) -> Found:
    """What is answered for this build."""
    beliefs = {belief.code: belief for belief in assessment.beliefs}
    yield from _waterless(package, beliefs.get("waterless"))
    yield from _copper(package, beliefs.get("copper"))


def _waterless(package: Package, told: Belief | None) -> Found:
    share, where = package.coolant.glycol_share, ("packages", package.id, "coolant", "glycol_share")
    if share is None or share.si < WATERLESS:
        return
    figure = ""
    if told:
        _, now, rejects, then, would = told
        loses = f"it takes {1 - rejects / would:.0%} less heat off at the limit"
        figure = f"Here {loses}" + (f" and the engine runs {both(now - then, 'temperature difference')} hotter" if math.isfinite(now) and math.isfinite(then) else "") + " than half water. "  # fmt: skip
    yield Finding("waterless", "doubt", where, "Waterless coolant does not run cooler",
                  f"{figure}Glycol alone carries less heat and is thicker. The claim rests on its boiling point: it boils far later and needs no pressure, which hides the heat and does not remove it. "
                  "The system has to be bone dry for it.", (set_act("Half water", where, "50 %"),), "COOLPROP")  # fmt: skip


def _copper(package: Package, told: Belief | None) -> Found:
    where = ("packages", package.id, "core")
    if told is None or told.would <= 0:
        return  # a face wholly behind metal rejects nothing, whatever it is made of
    gain = told.rejects / told.would - 1
    more = f"{gain:.0%} more" if gain > 0.005 else f"{-gain:.0%} less" if gain < -0.005 else "as much"
    yield Finding("copper_claim", "note", (*where, "material"), f"This copper/brass core takes off {more} heat than a usual aluminium one of its size",
                  "Re-cores are sold as 30–35 % better. That rests on a denser core against an old, thin one, fins counted without the fans that have to pull through them: copper conducts better, "
                  "but a fin is hardly ever what limits, and solder and narrow tubes cost.", value=gain, source="KAYS_LONDON")  # fmt: skip
