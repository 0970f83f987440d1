"""Findings about charging: what the alternator gives, what the battery makes up, pulley, cable."""

from __future__ import annotations

import math

from keelroom.assess.assessment import Assessment
from keelroom.assess.electrical.charge import charge_cable, cure_fixes, cure_words, cures_for
from keelroom.assess.electrical.figures import Electrics
from keelroom.assess.electrical.system import battery_of
from keelroom.assess.wording import Found, set_fix
from keelroom.build.schema.build import Build
from keelroom.core.electrical.charging import discharge_time, output, top_speed
from keelroom.core.findings import Finding, Fix
from keelroom.units import both

LOW_VOLTAGE = 12.0
"""Volts at the battery, engine running, under which it is being emptied."""


def charging(build: Build, assessment: Assessment, found: Electrics) -> Found:
    """Alternator, battery and the cable between them."""
    supply, alternator, at = build.supply, found.alternator, ("brief", "accessories", "alternator_rating")
    totals = assessment.totals
    need, have = totals.amps_at_idle, totals.alternator_at_idle
    if alternator is None:
        return
    idle_rpm = build.brief.engine.idle_rpm.si * 60 if build.brief.engine.idle_rpm else 700.0
    top = top_speed(alternator, supply.redline.si * 60)
    limit = supply.speed_limit.si * 60
    if need is not None and have is not None and need > have:
        system = found.idle
        volts = f" At the battery it settles at {system.balance.voltage:.1f} V." if system else ""
        full = max(system.full, need) if system else need
        lasts = discharge_time(battery_of(supply), need - have) / 60
        cures = cures_for(build, alternator, full)
        yield Finding("alternator_short", "problem", at, "The alternator cannot feed the fans at idle",
                      f"{need:.0f} A wanted against {have:.0f} A hot at idle: the battery makes up {need - have:.0f} A and is down in {lasts:.0f} min; the voltage sinks, and the fans with it.{volts} {cure_words(build, alternator, cures)}",
                      cure_fixes(build, alternator, cures), value=need, limit=have)  # fmt: skip
    elif found.idle and found.idle.balance.voltage < LOW_VOLTAGE and found.idle.measured:
        yield Finding("battery_low", "problem", ("brief", "accessories", "idle_voltage"), f"{found.idle.balance.voltage:.1f} V at the battery at idle",
                      "A healthy battery holds 12.0–12.3 V at 40 A: this one is nearly flat. The same reading at the fan alone would be its wire.", value=found.idle.balance.voltage, limit=LOW_VOLTAGE)  # fmt: skip
    if top > limit:
        ratio = limit / (supply.redline.si * 60)
        yield Finding("over_speed", "problem", ("supply", "pulley_ratio"), "The pulley over-speeds the alternator",
                      f"{top:.0f} rpm at the redline against its limit of {limit:.0f}: the rotor’s windings let go. A ratio of {ratio:.2f} keeps it; idle output then is {output(alternator._replace(ratio=ratio, idle_share=None), idle_rpm):.0f} A.",
                      (set_fix(f"Ratio {ratio:.2f}", ("supply", "pulley_ratio"), f"{math.floor(ratio * 100) / 100:.2f}"),), value=top, limit=limit)  # fmt: skip
    yield from _cable(build, alternator.rating)


def _cable(build: Build, rating: float) -> Found:
    """The cable from alternator to battery, by what it loses, how warm it gets and what protects it, as any other wire."""
    cable, size = charge_cable(build.supply, rating), ("supply", "charge_wire", "size")
    thicker = (Fix("charge_cable", "A cable that carries it", ()),)
    if cable.ampacity <= 0:
        yield Finding("charge_place", "problem", ("supply", "charge_wire", "ambient"), "The charge cable’s insulation is not made for that place",
                      f"The air round it is as hot as its insulation stands ({both(cable.limit, 'temperature')}): another class, or another way.", value=cable.limit)  # fmt: skip
        return
    if rating > cable.ampacity + 0.05:
        yield Finding("charge_cable_hot", "problem", size, "The charge cable is too thin for the alternator’s current",
                      f"At {rating:.0f} A its copper reaches {both(cable.warm, 'temperature')}; it carries {cable.ampacity:.0f} A where it lies before its insulation ({both(cable.limit, 'temperature')}) goes.",
                      thicker, "CFR183", value=rating, limit=cable.ampacity)  # fmt: skip
    if cable.drop > cable.drop_limit:
        yield Finding("charge_cable", "doubt", size, "The charge cable loses too much",
                      f"At its {rating:.0f} A it loses {cable.drop:.2f} V on the way to the battery; {cable.drop_limit:g} V is the limit.",
                      (Fix("charge_cable", "A cable that keeps within it", ()),), "ASTM_B258", value=cable.drop, limit=cable.drop_limit)  # fmt: skip
    yield from _cable_fuse(build, rating)


def _cable_fuse(build: Build, rating: float) -> Found:
    cable, at = charge_cable(build.supply, rating), ("supply", "charge_fuse")
    wanted = cable.fuse_wanted
    fixes = (set_fix(f"A {wanted:g} A fuse at the battery", at, f"{wanted:g} A"),) if wanted else ()
    if cable.fuse is None:
        yield Finding("charge_unfused", "doubt", at, "Nothing protects the charge cable",
                      "Chafed through, it takes all the battery gives, hundreds of amps. A bolt-down fuse or a fusible link at the battery’s end, over what the alternator gives and under what the cable stands.",
                      fixes)  # fmt: skip
    elif cable.fuse < rating:
        yield Finding("charge_fuse_small", "problem", at, "The charge cable’s fuse is under the alternator’s rating",
                      f"{cable.fuse:g} A against {rating:.0f} A: it opens the day the battery is low, and an alternator cut off from its battery kills what hangs on it.",
                      fixes, "ISO8820", value=cable.fuse, limit=rating)  # fmt: skip
    elif cable.fuse > cable.ampacity >= rating:
        yield Finding("charge_fuse_over", "problem", at, "The fuse does not protect the charge cable",
                      f"A {cable.fuse:g} A fuse; the cable carries {cable.ampacity:.0f} A where it lies before its insulation ({both(cable.limit, 'temperature')}) goes.",
                      (*(fixes if wanted and wanted <= cable.ampacity else ()), Fix("charge_cable", "A cable the fuse protects", ())), "CFR183", value=cable.fuse, limit=cable.ampacity)  # fmt: skip
