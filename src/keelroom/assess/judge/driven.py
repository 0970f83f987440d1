"""Fans the engine turns: too fast, a clutch that engages too late, blades that stand wrong in their shroud."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding, Found
from keelroom.assess.fixes import set_act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.facts import given

OVER = 1.1
"""Times the speed of greatest power an engine is turned now and then (common practice)."""
LEAST_IN, MOST_IN = 0.4, 0.8
"""Share of the blades' depth in the shroud outside which they draw less (common practice: half to two thirds)."""
COOLER = 20.0
"""[K] the air behind the core stays under the coolant at least where a core works (common practice)."""


def driven(build: Build, package: Package, assessment: Assessment) -> Found:
    """Findings on fans the engine turns."""
    top = build.brief.engine.power_rpm
    for fan in package.fans:
        if fan.motor != "engine":
            continue
        where = ("packages", package.id, "fans", fan.id)
        name = fan.name or "Engine-driven fan"
        if top and fan.safe_rpm and fan.ratio.si * top.si * OVER > fan.safe_rpm.si:
            fastest = fan.ratio.si * top.si * OVER
            yield Finding(
                "fan_too_fast",
                "problem",
                (*where, "ratio"),
                given(name=name, fastest=(fastest, "turning speed"), safe_rpm=(fan.safe_rpm.si, "turning speed")),
                value=fastest,
                limit=fan.safe_rpm.si,
            )
        limit = min((v for v in (assessment.limit, assessment.boiling) if v is not None), default=None)
        if fan.clutch and fan.engages and limit is not None and fan.engages.si > limit - COOLER:
            yield Finding(
                "clutch_late",
                "problem",
                (*where, "engages"),
                given(
                    name=name,
                    engages=(fan.engages.si, "temperature"),
                    under=(COOLER, "temperature difference"),
                    limit=(limit, "temperature"),
                ),
                fix=(set_act("Engage at 165 °F", (*where, "engages"), "165 °F"),),
                value=fan.engages.si,
                limit=limit - COOLER,
            )
        if package.shroud.kind != "none" and not LEAST_IN <= fan.immersion.si <= MOST_IN:
            yield Finding(
                "immersion",
                "note",
                (*where, "immersion"),
                given(name=name, immersion=(fan.immersion.si, "share")),
                fix=(set_act("60 % in the shroud", (*where, "immersion"), "60 %"),),
                value=fan.immersion.si,
            )
