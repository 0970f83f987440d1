"""Fans the engine turns: too fast, a clutch that engages too late, blades that stand wrong in their shroud."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding
from keelroom.assess.wording import Found, set_act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.units import both

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
            yield Finding("fan_too_fast", "problem", (*where, "ratio"), f"{name}: may turn {both(fastest, 'turning speed')}, safe is {both(fan.safe_rpm.si, 'turning speed')}",
                          "Blades that burst go through hood and people. A clutch lets it lag, but one that has seized does not.", value=fastest, limit=fan.safe_rpm.si)  # fmt: skip
        limit = min((v for v in (assessment.limit, assessment.boiling) if v is not None), default=None)
        if fan.clutch and fan.engages and limit is not None and fan.engages.si > limit - COOLER:
            yield Finding("clutch_late", "problem", (*where, "engages"), f"{name}: its clutch engages at {both(fan.engages.si, 'temperature')} of air",
                          f"The air behind the core is {both(COOLER, 'temperature difference')} and more under the coolant: it would not engage before the limit of {both(limit, 'temperature')}. 150–180 °F (65–82 °C) is usual.",
                          (set_act("Engage at 165 °F", (*where, "engages"), "165 °F"),), value=fan.engages.si, limit=limit - COOLER)  # fmt: skip
        if package.shroud.kind != "none" and not LEAST_IN <= fan.immersion.si <= MOST_IN:
            yield Finding("immersion", "note", (*where, "immersion"), f"{name}: its blades stand {fan.immersion.si:.0%} in the shroud",
                          "Half to two thirds of their depth draws best: less and the tips draw from the bay, more and they beat against the wall.",
                          (set_act("60 % in the shroud", (*where, "immersion"), "60 %"),), value=fan.immersion.si)  # fmt: skip
