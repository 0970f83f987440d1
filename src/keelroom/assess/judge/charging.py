"""Findings about charging: what the alternator gives, what the battery makes up, pulley, cable."""

from __future__ import annotations

import math

from keelroom.assess.electrical.charge import ChargeCable, Charging, balance_words, charging_of, protection_for
from keelroom.assess.electrical.cures import cure_words, cures_for
from keelroom.assess.electrical.figures import Electrics
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.findings import Finding
from keelroom.assess.inputs.cases import idle_case
from keelroom.assess.inputs.electrical.system import battery_of
from keelroom.assess.wording import Found
from keelroom.core.electrical.charging import output
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.units import both

JUST = 0.05
"""[A] under which nothing lacks."""
LOW_VOLTAGE = 12.0
"""Volts at the battery, engine running, under which it is being emptied."""


def charging(build: Build, assessment: Assessment, found: Electrics) -> Found:
    """Alternator, battery and the cable between them."""
    facts = charging_of(build, found, assessment.idle.mean_current if assessment.idle else None)
    if facts is None:
        return
    yield from _balance(build, facts)
    yield from _speed(build, facts)
    yield from _cable(build, facts.cable)


def _balance(build: Build, facts: Charging) -> Found:
    system, supply = facts.idle, build.supply
    if system is None or facts.mean is None:
        return  # until the case that stands for idle is worked out, the loads are not all known
    balance = system.balance
    if system.measured and balance.voltage < LOW_VOLTAGE * battery_of(supply).cells:
        yield Finding("battery_low", "problem", ("brief", "accessories", "idle_voltage"), f"{balance.voltage:.1f} V at the battery at idle",
                      "A healthy battery holds 12.0–12.3 V at 40 A: this one is nearly flat. The same reading at the fan alone would be its wire.", value=balance.voltage, limit=LOW_VOLTAGE)  # fmt: skip
    if facts.contradiction:
        yield from _contradiction(facts)
    if system.short > JUST:
        cures = cures_for(build, system, facts.alternator, idle_case(build.duty_cases))
        fed, sinks = ("the fans", ", and the fans with it") if system.fan_amps > 0 else ("what is on", "")
        yield Finding("alternator_short", "problem", ("brief", "accessories", "alternator_rating"), f"The alternator cannot feed {fed} at idle",
                      f"{balance_words(facts)} The voltage sinks{sinks}: {balance.voltage:.1f} V at the battery. {cure_words(build, system, cures)}",
                      tuple(cure.fix for cure in cures if cure.fix), value=balance.wanted, limit=balance.available)  # fmt: skip


def _contradiction(facts: Charging) -> Found:
    assert facts.idle
    balance, could = facts.idle.balance, facts.idle.modelled
    if facts.contradiction > 0:
        why = (f"At that voltage the battery {'takes' if balance.battery > 0 else 'gives'} {abs(balance.battery):.0f} A, so the alternator must be giving {balance.available:.0f} A; "
               f"by its rating, pulley and air it could give {could:.0f} A. A larger unit than entered, a faster idle, or less on than listed. The measured voltage is used.")  # fmt: skip
    else:
        why = (f"By its rating, pulley and air the alternator could give {could:.0f} A of the {balance.wanted:.0f} A wanted; at that voltage it gives {balance.available:.0f} A. "
               "A slipping belt, a bad diode, a thin or green charge cable, or a tired battery. The measured voltage is used.")  # fmt: skip
    yield Finding("voltage_contradicts", "doubt", ("brief", "accessories", "idle_voltage"), f"{balance.voltage:.1f} V measured at idle contradicts the alternator as entered", why,
                  value=balance.available, limit=could)  # fmt: skip


def _speed(build: Build, facts: Charging) -> Found:
    redline, idle = build.supply.redline.si * 60, build.brief.engine.idle_rpm
    if not facts.over_speed or (idle and facts.limit < idle.si * 60 * facts.alternator.ratio):
        return  # a limit under idle is no limit: the entry is judged, not the pulley
    ratio = math.floor(facts.limit / redline * 100) / 100
    left = output(facts.alternator._replace(ratio=ratio), idle.si * 60 if idle else 700.0)
    yield Finding("over_speed", "problem", ("supply", "pulley_ratio"), "The pulley over-speeds the alternator",
                  f"{facts.top:.0f} rpm at the redline against its limit of {facts.limit:.0f}: the rotor’s windings let go. A ratio of {ratio:.2f} keeps it; idle output then is {left:.0f} A.",
                  (Act("faster_pulley", f"Ratio {ratio:.2f}", given=(("ratio", f"{ratio:.2f}"),)),), value=facts.top, limit=facts.limit)  # fmt: skip


def _cable(build: Build, cable: ChargeCable) -> Found:
    """The cable from alternator to battery, by what it loses, how warm it gets and what protects it, as any other wire."""
    rating, size = cable.rating, ("supply", "charge_wire", "size")
    if cable.ampacity <= 0:
        yield Finding("charge_place", "problem", ("supply", "charge_wire", "ambient"), "The charge cable’s insulation is not made for that place",
                      f"The air round it is as hot as its insulation stands ({both(cable.limit, 'temperature')}): another class, or another way.", value=cable.limit)  # fmt: skip
        return
    if rating > cable.ampacity + 0.05:
        yield Finding("charge_cable_hot", "problem", size, "The charge cable is too thin for the alternator’s current",
                      f"At {rating:.0f} A its copper reaches {both(cable.warm, 'temperature')}; it carries {cable.ampacity:.0f} A where it lies before its insulation ({both(cable.limit, 'temperature')}) goes.",
                      (Act("charge_cable", "A cable that carries it"),), "CFR183", value=rating, limit=cable.ampacity)  # fmt: skip
    if cable.drop > cable.drop_limit:
        yield Finding("charge_cable", "doubt", size, "The charge cable loses too much",
                      f"At its {rating:.0f} A it loses {cable.drop:.2f} V on the way to the battery; {cable.drop_limit:g} V is the limit.",
                      (Act("charge_cable", "A cable that keeps within it"),), "ASTM_B258", value=cable.drop, limit=cable.drop_limit)  # fmt: skip
    yield from _cable_fuse(build, cable)


def _cable_fuse(build: Build, cable: ChargeCable) -> Found:
    rating, at = cable.rating, ("supply", "charge_fuse")
    found = protection_for(build.supply, rating)
    fixes = (Act("charge_fuse", found.label, path=at),) if found and found.cable is not None else ()
    two = " No single cable stands the fuse it needs: run two, each with a fuse of its own." if found and found.cable is None else ""
    if cable.fuse is None:
        yield Finding("charge_unfused", "doubt", at, "Nothing protects the charge cable",
                      "Chafed through, it takes all the battery gives, hundreds of amps. A bolt-down fuse or a fusible link at the battery’s end, over what the alternator gives and under what the cable stands." + two,
                      fixes)  # fmt: skip
    elif cable.fuse < rating:
        yield Finding("charge_fuse_small", "problem", at, "The charge cable’s fuse is under the alternator’s rating",
                      f"{cable.fuse:g} A against {rating:.0f} A: it opens the day the battery is low, and an alternator cut off from its battery kills what hangs on it.",
                      fixes, "ISO8820", value=cable.fuse, limit=rating)  # fmt: skip
    elif cable.fuse > cable.ampacity >= rating:
        yield Finding("charge_fuse_over", "problem", at, "The fuse does not protect the charge cable",
                      f"A {cable.fuse:g} A fuse; the cable carries {cable.ampacity:.0f} A where it lies before its insulation ({both(cable.limit, 'temperature')}) goes.",
                      (*(fixes if found and not found.cable else ()), Act("charge_cable", "A cable the fuse protects")), "CFR183", value=cable.fuse, limit=cable.ampacity)  # fmt: skip
