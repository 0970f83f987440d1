"""Fluids that run too hot or too cold, coolers without air, room, lines or a place, an A/C that cuts out."""

from __future__ import annotations

import math

from keelroom.assess.figures.assessment import NO_HEAT, Assessment, CaseFigures
from keelroom.assess.figures.coolerlimits import COLD_GEARBOX, HALVES, HOT
from keelroom.assess.findings import Finding, Found
from keelroom.assess.fit.coolers import HIGH_LOSS, LINED, WARM, kinked, line_plan, mount_notes, named, oil_through
from keelroom.assess.fixes import set_act
from keelroom.assess.inputs.coolers import FLUID_OF, SPOTS, fitted, out_area, size_of
from keelroom.assess.placing import face_size
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.coolers import Cooler
from keelroom.document.schema.package import Package
from keelroom.facts import given
from keelroom.units import both

LONGEST = 9.0
"""[m] of lines beyond which they would be longer than the car there and back (common practice)."""
SWITCH_UNDER = 8.0
"""[K] under what its fluid may be that a cooler's own fan belongs on (common practice)."""
SLOT = 0.35
"""Share of its face under which a way out of a cooler's air costs it much (common practice)."""
CUTS_OUT = 0.975
"""Share of the time the compressor runs under which its pressure switch is at work."""


def coolers(build: Build, package: Package, assessment: Assessment) -> Found:
    """What is wrong with the coolers of everything but the coolant, and with what flows in them."""
    there = fitted(package, build.brief.accessories.ac_fitted)
    yield from _fluids(build, package, assessment, there)
    for cooler in there:
        yield from _idle(package, assessment, cooler)
        yield from _air(package, cooler)
        yield from _own_switch(package, assessment, cooler)
        yield from _lines(build, package, assessment, cooler)
        if cooler.stands not in ("ahead",):
            where = ("packages", package.id, "coolers", cooler.id)
            for field, fault in mount_notes(build, package, cooler)[0]:
                yield Finding("cooler_fault", "problem", (*where, field), given(name=named(cooler), fault=fault))
    yield from _places(package, there)


def _fluids(build: Build, package: Package, assessment: Assessment, there: tuple[Cooler, ...]) -> Found:
    where = ("packages", package.id, "coolers")
    cooled = {
        "gearbox": "gearbox_cooler",
        "oil": "oil_cooler",
        "charge": "charge_cooler",
        "steering": "steering_cooler",
    }
    # A cooler whose air could not be worked out stands without any: what its fluid then comes to is no finding of its
    # own.
    airless = {stop.where[3] for stop in assessment.stopped if stop.where[2:3] == ("coolers",) and len(stop.where) > 3}
    spared = {cooler.kind for cooler in there if cooler.id in airless}
    for fluid, kind in cooled.items():
        if kind in spared:
            continue
        own = next((cooler for cooler in there if cooler.kind == kind), None)
        # Without a cooler of its own the oil goes with the coolant: where that does not settle there is nothing more to
        # say of it.
        told = [
            case
            for case in assessment.cases
            if case.figures and (own is not None or case.figures.verdict != "does_not_settle")
        ]
        worst = max(told, key=lambda case: _of(case.figures, fluid), default=None)
        if worst is None or worst.figures is None:
            continue
        value, heat = _of(worst.figures, fluid), dict(worst.figures.fluids.given)[fluid]
        watched = (
            own is not None or fluid == "oil" or (fluid == "gearbox" and build.brief.vehicle.gearbox == "automatic")
        )
        if value <= HOT[fluid] or not watched or not worst.figures.fluids.heated(fluid):
            continue
        at = (
            (*where, own.id, "conductance")
            if own
            else ("brief", "vehicle", "in_tank_cooler")
            if fluid == "gearbox"
            else where
        )
        left = 0.5 ** ((value - HOT[fluid]) / HALVES)
        yield Finding(
            f"{fluid}_hot",
            "problem" if value > HOT[fluid] + 20 else "doubt",
            at,
            given(
                name=worst.name,
                value=(value, "temperature"),
                heat=(heat, "heat"),
                hot=(HOT[fluid], "temperature"),
                left=(left, "share"),
                halves=(HALVES, "temperature difference"),
            ),
            value=value,
            limit=HOT[fluid],
        )
    cases = [case for case in assessment.cases if case.figures]
    boxes = [
        cooler
        for cooler in there
        if cooler.kind == "gearbox_cooler" and cooler.opens is None and cooler.kind not in spared
    ]
    coldest = min(cases, key=lambda case: _of(case.figures, "gearbox"), default=None)
    if boxes and coldest and coldest.figures and coldest.figures.fluids.gearbox < COLD_GEARBOX:
        cooler = boxes[0]
        yield Finding(
            "gearbox_cold",
            "note",
            (*where, cooler.id, "opens"),
            given(
                name=coldest.name,
                gearbox=(coldest.figures.fluids.gearbox, "temperature"),
                cold_gearbox=(COLD_GEARBOX, "temperature"),
            ),
            fix=(set_act("Bypass thermostat, 160 °F", (*where, cooler.id, "opens"), "160 °F"),),
            value=coldest.figures.fluids.gearbox,
            limit=COLD_GEARBOX,
        )
    for case in cases:
        figures = case.figures
        if figures is not None and figures.fluids.runs < CUTS_OUT:
            yield Finding(
                "ac_cuts_out",
                "problem",
                ("duty_cases", case.case_id),
                given(
                    name=case.name,
                    runs=(figures.fluids.runs, "share"),
                    vents=(figures.fluids.vents, "temperature"),
                    cabin=(figures.fluids.cabin, "temperature"),
                ),
                value=1 - figures.fluids.runs,
            )


def _of(figures: CaseFigures | None, fluid: str) -> float:
    return figures.fluids.of(fluid) if figures else -1e9


def _idle(package: Package, assessment: Assessment, cooler: Cooler) -> Found:
    """A cooler whose fluid is given nothing in any case."""
    fluid = FLUID_OF.get(cooler.kind)
    cases = [case.figures for case in assessment.cases if case.figures]
    if fluid is None or not cases or any(figures.fluids.heated(fluid) for figures in cases):
        return
    form = fluid if fluid in ("charge", "refrigerant") else ""
    yield Finding(
        "cooler_no_heat",
        "doubt",
        ("packages", package.id, "coolers", cooler.id, "conductance"),
        given(name=named(cooler)),
        form=form,
        value=0.0,
        limit=NO_HEAT,
    )


def _own_switch(package: Package, assessment: Assessment, cooler: Cooler) -> Found:
    """Its fans' own switch: later than its fluid may be hot is no use; above where it settles anyway, its fluid stays
    near the switch, not where running fans would hold it."""
    fluid, on = FLUID_OF.get(cooler.kind), cooler.fan_on
    if on is None or cooler.fans.si < 1 or fluid not in HOT:
        return
    at = ("packages", package.id, "coolers", cooler.id, "fan_on")
    latest = HOT[fluid] - SWITCH_UNDER
    if on.si > latest:
        whole = math.floor(latest * 1.8 + 32)
        told = both((whole - 32) / 1.8, "temperature")
        yield Finding(
            "cooler_fan_late",
            "problem" if on.si >= HOT[fluid] else "doubt",
            at,
            given(name=named(cooler), on=(on.si, "temperature"), hot=(HOT[fluid], "temperature")),
            fix=(set_act(f"On at {told}", at, f"{whole} °F"),),
            value=on.si,
            limit=latest,
        )
    solved = [(case.name, case.figures) for case in assessment.counting if case.figures]
    cooler_than = [name for name, figures in solved if figures.fluids.of(fluid) < on.si]
    if cooler_than:
        yield Finding(
            "cooler_fan_rests",
            "note",
            at,
            given(name=named(cooler), on=(on.si, "temperature"), cases=tuple(cooler_than)),
            value=on.si,
        )


def _air(package: Package, cooler: Cooler) -> Found:
    """Fans with no way out for their air, openings that cannot be."""
    if not cooler.away:
        return
    where, size = ("packages", package.id, "coolers", cooler.id), size_of(cooler, face_size(package))
    area = size[0] * size[1]
    slot = out_area(cooler, size)
    if cooler.fans.si >= 1 and slot < 0.02 * area:
        yield Finding(
            "cooler_shut",
            "problem",
            (*where, "spacer"),
            given(name=named(cooler)),
            fix=(set_act("Spacers of 3/4 in", (*where, "spacer"), "3/4 in"),),
            value=slot,
            limit=0.02 * area,
        )
    elif slot < SLOT * area and cooler.spacer.si > 0.018:
        yield Finding(
            "cooler_choked",
            "note",
            (*where, "spacer"),
            given(name=named(cooler), slot=(slot / area, "share"), spacer=(cooler.spacer.si, "length")),
            value=slot / area,
            limit=SLOT,
        )
    if cooler.opening is not None and cooler.opening.si > 1.5 * area:
        yield Finding(
            "opening_larger",
            "doubt",
            (*where, "opening"),
            given(name=named(cooler), area=(area, "area"), place=SPOTS[cooler.stands].words),
            value=cooler.opening.si,
            limit=area,
        )
    if cooler.fans.si < 1 and SPOTS[cooler.stands].pressed - SPOTS[cooler.stands].drawn < 0.1:
        yield Finding(
            "no_own_air",
            "problem",
            (*where, "fans"),
            given(name=named(cooler), place=SPOTS[cooler.stands].words),
            fix=(set_act("A fan of its own", (*where, "fans"), "1"),),
        )


def _lines(build: Build, package: Package, assessment: Assessment, cooler: Cooler) -> Found:
    where = ("packages", package.id, "coolers", cooler.id)
    bent = kinked(cooler)
    if bent:
        yield Finding("hose_kinks", "problem", (*where, "tightest"), given(name=named(cooler), fault=bent))
    if cooler.line_length.si > LONGEST:
        yield Finding(
            "lines_long",
            "doubt",
            (*where, "line_length"),
            given(name=named(cooler), line_length=(cooler.line_length.si, "length")),
            value=cooler.line_length.si,
            limit=LONGEST,
        )
    figures = next((case.figures for case in assessment.cases if case.figures and case.figures.rpm > 1500), None)
    if cooler.kind not in LINED or figures is None:
        return
    flow = oil_through(cooler, figures.rpm)
    lost = line_plan(package, cooler, flow, WARM[1]).lost
    if lost.pressure > HIGH_LOSS:
        yield Finding(
            "lines_narrow",
            "doubt",
            (*where, "line_bore"),
            given(name=named(cooler), pressure=(lost.pressure, "pressure"), flow=(flow, "coolant flow")),
            value=lost.pressure,
            limit=HIGH_LOSS,
        )


def _places(package: Package, there: tuple[Cooler, ...]) -> Found:
    """Two coolers in one place."""
    away = [cooler for cooler in there if cooler.kind != "screen"]
    for k, one in enumerate(away):
        for other in away[k + 1 :]:
            if one.stands != other.stands or not _meet(one, other, face_size(package)):
                continue
            where = ("packages", package.id, "coolers", other.id)
            act: tuple[Act, ...] = ()
            if one.stands == "ahead":
                clear = one.stand_off.si + one.thickness.si
                act = (set_act("Ahead of the other", (*where, "stand_off"), f"{clear * 1e3 + 3:.0f} mm"),)
            yield Finding(
                "coolers_meet",
                "problem",
                (*where, "stand_off" if one.stands == "ahead" else "left"),
                given(name=named(other), other=named(one)),
                fix=act,
            )


def _meet(one: Cooler, other: Cooler, face: tuple[float, float]) -> bool:
    spans = []
    for cooler in (one, other):
        size = size_of(cooler, face)
        deep = (
            -(cooler.stand_off.si + cooler.thickness.si)
            if cooler.stands == "ahead"
            else cooler.front.si
            if cooler.front
            else None
        )
        spans.append((cooler.left.si, size[0], cooler.bottom.si, size[1], deep, cooler.thickness.si))
    (a, aw, b, bh, c, cd), (d, dw, e, eh, f, fd) = spans
    if c is None or f is None:
        return False
    return (
        a < d + dw - 1e-4
        and d < a + aw - 1e-4
        and b < e + eh - 1e-4
        and e < b + bh - 1e-4
        and c < f + fd - 1e-4
        and f < c + cd - 1e-4
    )
