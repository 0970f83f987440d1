"""Findings about charging: what the alternator gives, what the battery makes up, pulley, cable."""

from __future__ import annotations

import math

from keelroom.assess.electrical.charge import (
    ChargeCable,
    Charging,
    Draw,
    balance_told,
    charging_of,
    protection_for,
)
from keelroom.assess.electrical.cures import cures_for, takes
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.figures.read_off import draws_of
from keelroom.assess.findings import Finding, Found, Level
from keelroom.assess.fixes import choose_act, set_act
from keelroom.assess.inputs.cases import stands
from keelroom.assess.inputs.electrical.system import System, battery_of
from keelroom.assess.inputs.gearing import belt_turns
from keelroom.core.electrical.charging import Battery, output
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.package import Package
from keelroom.facts import given

LOW_VOLTAGE = 12.0
"""Volts at the battery, engine running, under which it is being emptied."""


def belt(build: Build, package: Package, assessment: Assessment) -> Found:
    """The belt that turns alternator and pump."""
    if build.supply.belt == "slips":
        where = ("supply", "belt")
        fix = (choose_act("A new belt, tensioned", where, "good"),)
        yield Finding("belt_slips", "problem", where, given(share=(belt_turns(build.supply), "share")), fix=fix)


MOST_GENERATES, GENERATES = 60.0, 30.0
"""[A] the largest generator of a car's gave, and what a usual one gives, in all voltages (common practice)."""
MOST_TURNED, TURNED = 2.2, 1.8
"""Turns per crank turn past which its commutator flies apart at the redline, and usual ones (common practice)."""


def generator(build: Build, package: Package, assessment: Assessment) -> Found:
    """A direct-current generator with an alternator's figures left standing."""
    if build.supply.charger != "generator":
        return
    rating, ratio = build.brief.accessories.alternator_rating, build.supply.pulley_ratio
    if rating is not None and rating.si > MOST_GENERATES:
        where = ("brief", "accessories", "alternator_rating")
        yield Finding(
            "generator_rating",
            "doubt",
            where,
            given(rating=(rating.si, "current"), usual=(GENERATES, "current")),
            fix=(set_act(f"{GENERATES:.0f} A", where, f"{GENERATES:.0f} A"),),
            value=rating.si,
            limit=MOST_GENERATES,
        )
    if ratio.si > MOST_TURNED:
        pulley = ("supply", "pulley_ratio")
        yield Finding(
            "generator_pulley",
            "doubt",
            pulley,
            given(ratio=(ratio.si, "number"), usual=(TURNED, "number")),
            fix=(set_act(f"{TURNED:g} turns", pulley, f"{TURNED:g}"),),
            value=ratio.si,
            limit=MOST_TURNED,
        )


def charging(build: Build, package: Package, assessment: Assessment) -> Found:
    """Alternator and battery in the cases that count."""
    facts = _facts(build, assessment, draws_of(assessment))
    if facts is None or facts.hardest is None:
        return  # until a case that counts is worked out, the loads are not all known
    if facts.idle:
        yield from _measured(facts, facts.idle, battery_of(build.supply))
    yield from _short(build, facts, facts.hardest)


def battery(build: Build, package: Package, assessment: Assessment) -> Found:
    """What becomes of a car whose battery goes flat at a light."""
    down, limit = assessment.down, assessment.limit
    if down is None or limit is None:
        return
    told = given(
        name=build.duty_case(down.case_id).name,
        time=(down.lasts, "minutes"),
        voltage=(down.voltage, "voltage"),
        settles=(down.temperature, "temperature"),
    )
    form = "boils" if math.isinf(down.temperature) else "over" if down.temperature > limit else ""
    level: Level = "problem" if form else "note"
    where = ("brief", "accessories", "alternator_rating")
    yield Finding("battery_down", level, where, told, form=form, value=down.temperature, limit=limit)


def mean_currents(assessment: Assessment) -> tuple[tuple[str, float], ...]:
    """What is drawn in the mean in every case that counts; what the systems give then hangs on the sections."""
    return tuple((case.case_id, case.figures.mean_current) for case in assessment.counting if case.figures)


def alternator(build: Build, package: Package, assessment: Assessment) -> Found:
    """What no case has a say in: how fast the alternator turns at most, and the cable it charges through."""
    facts = _facts(build, assessment, ())
    if facts is not None:
        yield from _speed(build, facts)
        yield from _cable(build, facts.cable)


def _facts(build: Build, assessment: Assessment, draws: tuple[Draw, ...]) -> Charging | None:
    return charging_of(build, assessment.electrics, draws) if assessment.electrics is not None else None


def _measured(facts: Charging, system: System, battery: Battery) -> Found:
    """What a voltage measured at idle tells."""
    balance = system.balance
    if system.measured and balance.voltage < LOW_VOLTAGE * battery.cells:
        yield Finding(
            "battery_low",
            "problem",
            ("brief", "accessories", "idle_voltage"),
            given(voltage=(balance.voltage, "voltage")),
            value=balance.voltage,
            limit=LOW_VOLTAGE,
        )
    if facts.contradiction:
        yield from _contradiction(facts)


def _short(build: Build, facts: Charging, draw: Draw) -> Found:
    """By what is really on: what the fans take out while they run and their rests give back is a battery that works,
    not one that goes flat."""
    system, balance = draw.system, draw.system.balance
    if not draw.short:
        return
    balanced, voltage = balance_told(facts), (balance.voltage, "voltage")
    where = ("brief", "accessories", "alternator_rating")
    if not draw.empties:
        told = given(balance=balanced, voltage=voltage)
        yield Finding("battery_works", "note", where, told, value=draw.mean, limit=balance.available)
        return
    cures = cures_for(build, facts)
    yield Finding(
        "alternator_short",
        "problem",
        where,
        given(balance=balanced, voltage=voltage, takes=takes(build, draw, cures)),
        form=("" if system.fan_amps > 0 else "other") if stands(draw.case) else "moving",
        fix=tuple(cure.fix for cure in cures if cure.fix),
        value=balance.wanted,
        limit=balance.available,
    )


def _contradiction(facts: Charging) -> Found:
    assert facts.idle
    balance, could = facts.idle.balance, facts.idle.modelled
    amps = {
        "gives": (balance.available, "current"),
        "could": (could, "current"),
        "wanted": (balance.wanted, "current"),
        "battery": (abs(balance.battery), "current"),
    }
    form = "less" if facts.contradiction <= 0 else "more" if balance.battery > 0 else "drawn"
    yield Finding(
        "voltage_contradicts",
        "doubt",
        ("brief", "accessories", "idle_voltage"),
        given(voltage=(balance.voltage, "voltage"), **amps),
        form=form,
        value=balance.available,
        limit=could,
    )


def _speed(build: Build, facts: Charging) -> Found:
    redline, idle = build.supply.redline.si * 60, build.brief.engine.idle_rpm
    if not facts.over_speed or (idle and facts.limit < idle.si * 60 * facts.alternator.ratio):
        return  # a limit under idle is no limit: the entry is judged, not the pulley
    ratio = math.floor(facts.limit / redline * 100) / 100
    left = output(facts.alternator._replace(ratio=ratio), idle.si * 60 if idle else 700.0)
    yield Finding(
        "over_speed",
        "problem",
        ("supply", "pulley_ratio"),
        given(
            top=(facts.top / 60, "turning speed"),
            limit=(facts.limit / 60, "turning speed"),
            ratio=(ratio, "number"),
            left=(left, "current"),
        ),
        fix=(Act("faster_pulley", f"Ratio {ratio:.2f}", given=(("ratio", f"{ratio:.2f}"),)),),
        value=facts.top,
        limit=facts.limit,
    )


def _cable(build: Build, cable: ChargeCable) -> Found:
    """The cable from alternator to battery, by what it loses, how warm it gets and what protects it, as any other
    wire."""
    rating, size = cable.rating, ("supply", "charge_wire", "size")
    if cable.ampacity <= 0:
        yield Finding(
            "charge_place",
            "problem",
            ("supply", "charge_wire", "ambient"),
            given(limit=(cable.limit, "temperature")),
            value=cable.limit,
        )
        return
    if rating > cable.ampacity + 0.05:
        yield Finding(
            "charge_cable_hot",
            "problem",
            size,
            given(
                rating=(rating, "current"),
                warm=(cable.warm, "temperature"),
                ampacity=(cable.ampacity, "current"),
                limit=(cable.limit, "temperature"),
            ),
            fix=(Act("charge_cable", "A cable that carries it"),),
            source="CFR183",
            value=rating,
            limit=cable.ampacity,
        )
    if cable.drop > cable.drop_limit:
        yield Finding(
            "charge_cable",
            "doubt",
            size,
            given(rating=(rating, "current"), drop=(cable.drop, "voltage"), drop_limit=(cable.drop_limit, "voltage")),
            fix=(Act("charge_cable", "A cable that keeps within it"),),
            source="ASTM_B258",
            value=cable.drop,
            limit=cable.drop_limit,
        )
    yield from _cable_fuse(build, cable)


def _cable_fuse(build: Build, cable: ChargeCable) -> Found:
    rating, at = cable.rating, ("supply", "charge_fuse")
    found = protection_for(build.supply, rating)
    fixes = (Act("charge_fuse", found.label, path=at),) if found and found.cable is not None else ()
    if cable.fuse is None:
        yield Finding("charge_unfused", "doubt", at, form="two" if found and found.cable is None else "", fix=fixes)
    elif cable.fuse < rating:
        yield Finding(
            "charge_fuse_small",
            "problem",
            at,
            given(fuse=(cable.fuse, "current"), rating=(rating, "current")),
            fix=fixes,
            source="ISO8820",
            value=cable.fuse,
            limit=rating,
        )
    elif cable.fuse > cable.ampacity >= rating:
        yield Finding(
            "charge_fuse_over",
            "problem",
            at,
            given(
                fuse=(cable.fuse, "current"), ampacity=(cable.ampacity, "current"), limit=(cable.limit, "temperature")
            ),
            fix=(*(fixes if found and not found.cable else ()), Act("charge_cable", "A cable the fuse protects")),
            source="CFR183",
            value=cable.fuse,
            limit=cable.ampacity,
        )
