"""Fans the engine turns: too fast, a clutch that engages too late, blades that stand wrong in their shroud."""

from __future__ import annotations

from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding, Found
from keelroom.assess.fit.bodies import rocks_forward
from keelroom.assess.fixes import set_act
from keelroom.assess.inputs.air_parts import held_off, immersion_of
from keelroom.assess.inputs.airside import LEAST_IN
from keelroom.assess.inputs.fans import blade_depth
from keelroom.document.act import Act
from keelroom.document.quantity import from_si
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Fan, Package
from keelroom.facts import given
from keelroom.units import INCH

OVER = 1.1
"""Times the speed of greatest power an engine is turned now and then (common practice)."""
MOST_IN = 0.8
"""Share of the blades' depth in the shroud over which they draw less (common practice: half to two thirds)."""
BEST_IN = 0.6
LEAST_OFF, GOOD_OFF = 0.5 * INCH, 1.0 * INCH
"""[m] between blades and fins once the engine has rocked forward: the least, and what is left on purpose (common
practice: a fan some 1/2 to 1 in from what does not move with it)."""
THINNEST, THICKEST = -0.1, 0.075
"""[m] a spacer may be thinner than the one that is there, and thicker before the pump's bearing minds (common
practice)."""
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
        yield from _in_the_shroud(package, fan, name)
        yield from _off_the_core(build, package, fan, name)


def _in_the_shroud(package: Package, fan: Fan, name: str) -> Found:
    inside, where = immersion_of(package, fan), ("packages", package.id, "fans", fan.id)
    if package.shroud.kind == "none" or LEAST_IN <= inside <= MOST_IN:
        return
    off = held_off(package, fan)
    if off is None:
        fix: tuple[Act, ...] = (set_act("60 % in the shroud", (*where, "immersion"), "60 %"),)
    else:
        fix = _spacer(package, fan, off, package.shroud.depth.si - BEST_IN * blade_depth(fan))
    yield Finding(
        "immersion",
        "note",
        (*where, "immersion" if off is None else "nose"),
        given(name=name, immersion=(inside, "share")),
        fix=fix,
        value=inside,
    )


def _off_the_core(build: Build, package: Package, fan: Fan, name: str) -> Found:
    """A fan the engine holds too near the fins: the engine rocks, and a core was moved back or grew deeper."""
    off, rock = held_off(package, fan), rocks_forward(build.survey)
    if off is None:
        return
    left = off - rock
    if left < LEAST_OFF:
        yield Finding(
            "fan_meets_core",
            "problem" if left < 0 else "doubt",
            ("packages", package.id, "fans", fan.id, "nose"),
            given(name=name, left=(max(left, 0.0), "length"), off=(max(off, 0.0), "length")),
            form="meets" if left < 0 else "near",
            fix=_spacer(package, fan, off, GOOD_OFF + rock),
            value=left,
            limit=LEAST_OFF,
        )


def _spacer(package: Package, fan: Fan, off: float, wanted: float) -> tuple[Act, ...]:
    """The spacer that brings a fan from so far off the fins to where it is wanted; none where no spacer does, or it
    would stand in the core."""
    thick = fan.spacer.si + off - wanted
    if wanted < LEAST_OFF or not THINNEST <= thick <= THICKEST:
        return ()
    words = from_si(thick, "length", "us", "derived").words
    where = ("packages", package.id, "fans", fan.id, "spacer")
    than = "thicker" if thick > 0 else "thinner"
    return (set_act(f"A spacer {words.lstrip('-−')} {than}", where, words),)
