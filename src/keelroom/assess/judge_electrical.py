"""Findings about current, wire, protection, control and charging."""

from __future__ import annotations

import math
from collections.abc import Callable

from keelroom.assess.assessment import Assessment
from keelroom.assess.electrical.charge import charge_drop, cure_words, fan_current_alone
from keelroom.assess.electrical.controller import BY_COMPUTER, RAMPED, SENSORLESS, STAGED, place_of, set_for_lower_hose
from keelroom.assess.electrical.figures import RUN_NAMES, CircuitFigures, Electrics, odd_fuse, own_relays
from keelroom.assess.electrical.loads import fan_rating
from keelroom.assess.electrical.system import battery_of, run_of
from keelroom.assess.wording import Found, choose_fix, flag_fix, lowered, set_fix
from keelroom.build.schema.build import Build
from keelroom.build.schema.package import Package
from keelroom.core.electrical.charging import discharge_time, output, top_speed
from keelroom.core.electrical.control import FIN_SHARE, outlet_for
from keelroom.core.electrical.protection import CONTINUOUS, RELAY_MAKES, UNFUSED
from keelroom.core.findings import Finding, Fix, Level
from keelroom.units import both

COOL_DAY = (60.0 - 32) / 1.8
"""[degC] of the day a knob set on a hot one is asked about."""
RUN_ON_SHARE = 0.10
"""Share of the battery a run-on may take before a start in the morning is in doubt (common practice)."""
LOW_VOLTAGE = 12.0
"""Volts at the battery, engine running, under which it is being emptied."""
HOSED = ("upper_hose", "lower_hose")
NEEDS_GROUND = ("ground_switch", "two_speed")
"""strategies whose switch grounds a relay through its own thread"""


def electrical(build: Build, package: Package, assessment: Assessment) -> Found:
    """Everything electrical."""
    found = assessment.electrics
    if found is None:
        return
    yield from _labels(package)
    for figures in found.circuits:
        yield from _circuit(build, package, figures)
    yield from _unplanned(package, found)
    for check in (_control, _sensor, _run_on, _direction):
        yield from check(build, package, assessment)
    yield from _charging(build, assessment, found)


def _amps(value: float) -> str:
    return f"{value:.1f} A" if value < 10 else f"{value:.0f} A"


def _labels(package: Package) -> Found:
    for fan in package.fans:
        label = fan_rating(fan)
        if label is None or label.contradiction is None:
            continue
        yield Finding("motor_label", "doubt", ("packages", package.id, "fans", fan.id, "rated_current"), f"{fan.name or 'Fan'}: its label’s amps contradict its watts",
                      f"{label.power:.0f} W at {label.voltage:g} V is {_amps(label.contradiction)}, the label says {_amps(label.current)}. Watts and volts are used; a clamp meter settles it.",
                      value=label.current, limit=label.contradiction)  # fmt: skip


def _circuit(build: Build, package: Package, figures: CircuitFigures) -> Found:
    where = ("packages", package.id, "circuits", figures.circuit.id)
    name = figures.circuit.name or figures.circuit.id
    checks: tuple[Callable[[Build, tuple[str, ...], str, CircuitFigures, tuple[Fix, ...]], Found], ...] = (
        _source,
        _fuse,
        _relay,
        _wires,
        _connector,
    )
    if not figures.motors:
        yield Finding("circuit_empty", "note", (*where, "feeds"), f"{name}: feeds nothing", "Choose what it drives, or take it out.",
                      (Fix("remove", "Take the circuit out", (("path", "/".join(where)),)),))  # fmt: skip
        return
    whose = (("package", package.id), ("circuit", figures.circuit.id))
    mend: tuple[Fix, ...] = (Fix("mend_circuit", "Wire, fuse and relay as advised", whose),)
    if len(figures.motors) > 1:
        mend = (*mend, Fix("split_circuit", "A circuit of its own for each motor", whose))
    for check in checks:
        yield from check(build, where, name, figures, mend)


def sizes_words(sizes: tuple[str, ...]) -> str:
    """The advised sizes of feed, wire to the motor and return."""
    if not sizes:
        return "no size is thick enough"
    if len(set(sizes)) == 1:
        return sizes[0]
    return ", ".join(f"{size} {name}" for size, name in zip(sizes, ("feed", "to the motor", "return"), strict=True))


def advice_words(figures: CircuitFigures) -> str:
    """The advised wire, fuse and relays in a few words."""
    found = figures.advice
    many = len(figures.motors) if found.switch == "relays" else 1
    relay = f"{f'{many} × ' if many > 1 else ''}{found.relay:g} A relay" if found.relay else "no single relay is large enough"
    return ", ".join((sizes_words(found.sizes), f"{found.fuse:g} A fuse" if found.fuse else "no fuse fits", relay))


def _source(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Fix, ...]) -> Found:
    circuit = figures.circuit
    tied = [source for source in build.supply.sources if source.id in circuit.sources]
    if not tied:
        yield Finding(
            "no_source",
            "problem",
            (*where, "sources"),
            f"{name}: tied to no source",
            "Nothing feeds it; choose the battery post or a fused post of the alternator.",
        )
    elif figures.fault == "source":
        volts = " and ".join(f"{source.name or source.id} {source.voltage.si:g} V" for source in tied)
        yield Finding("sources_differ", "problem", (*where, "sources"), f"{name}: sources of different voltage are tied together",
                      f"{volts}: the higher drives current into the lower until something melts. Choose one; battery and alternator of one voltage belong together.",
                      value=max(s.voltage.si for s in tied), limit=min(s.voltage.si for s in tied))  # fmt: skip
    if circuit.ground == "none":
        yield Finding("no_return", "problem", (*where, "ground"), f"{name}: no way back",
                      "Current that goes out has to come back: without a ground the motor stands still. A wire to the battery’s negative post or to clean chassis metal.",
                      (choose_fix("Ground to the chassis", (*where, "ground"), "chassis"),))  # fmt: skip
    if circuit.ground == "core":
        yield Finding("ground_through_core", "problem", (*where, "ground"), f"{name}: grounded through the core",
                      "The core hangs in rubber: the current comes back through the coolant, loses volts and eats the core. Ground the motor to chassis or battery.",
                      (choose_fix("Ground to the chassis", (*where, "ground"), "chassis"),))  # fmt: skip


def _fuse(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Fix, ...]) -> Found:
    circuit, at = figures.circuit, (*where, "fuse")
    if circuit.fuse is None:
        yield Finding("no_fuse", "problem", at, f"{name}: no fuse at the source",
                      f"A chafed wire then takes all the battery gives, hundreds of amps, and burns along its length. {advice_words(figures)}.", mend)  # fmt: skip
        return
    fuse = circuit.fuse.si
    near = odd_fuse(circuit)
    if near:
        fixes = tuple(set_fix(f"A {size:g} A fuse", at, f"{size:g} A") for size in near)
        yield Finding("fuse_size", "problem", at, f"{name}: no {fuse:g} A fuse is made in this form", f"The sizes next to it are {' and '.join(f'{size:g} A' for size in near)}.",
                      fixes, source="ISO8820", value=fuse)  # fmt: skip
    if circuit.fuse_at.si > UNFUSED:
        yield Finding("fuse_far", "problem", (*where, "fuse_at"), f"{name}: the fuse sits too far from the source",
                      f"{both(circuit.fuse_at.si, 'length')} of wire before it is protected by nothing; {both(UNFUSED, 'length')} at most.",
                      (set_fix("Fuse within 6 in of the source", (*where, "fuse_at"), "6 in"),), value=circuit.fuse_at.si, limit=UNFUSED)  # fmt: skip
    weakest = figures.weakest
    if fuse > weakest.ampacity + 0.05:
        yield Finding("fuse_over_wire", "problem", at, f"{name}: the fuse does not protect the {RUN_NAMES[weakest.key]}",
                      f"A {fuse:g} A fuse passes {fuse * 1.1:.0f} A for hours; this wire carries {weakest.ampacity:.0f} A where it lies before its insulation ({weakest.limit:.0f} °C) goes.",
                      mend, "CFR183", value=fuse, limit=weakest.ampacity)  # fmt: skip
    if circuit.relay and circuit.switch != "none":
        many = max(len(figures.motors), 1) if circuit.switch == "relays" else 1
        held = circuit.relay.si * many
        if fuse > held:
            what = {"switch": "switch", "controller": "controller"}.get(circuit.switch, "relay")
            yield Finding("fuse_over_relay", "problem", at, f"{name}: a {fuse:g} A fuse ahead of a {circuit.relay.si:g} A {what}",
                          f"It no longer protects the {what}: between {held:g} and {fuse * 1.1:.0f} A the contact cooks and the fuse holds. Some fit it so; the contact then is the fuse.",
                          mend, value=fuse, limit=held)  # fmt: skip
    if fuse < CONTINUOUS * figures.continuous - 1e-6:
        yield Finding("fuse_small", "problem", at, f"{name}: the fuse is too small to run on", f"{figures.continuous:.1f} A run on at {build.supply.regulated.si:g} V; a fuse wants 1.25 times that, {CONTINUOUS * figures.continuous:.0f} A.",
                      mend, "ISO8820", value=fuse, limit=CONTINUOUS * figures.continuous)  # fmt: skip
    elif figures.stands == "no":
        yield Finding("fuse_start", "problem", at, f"{name}: the fuse does not stand the start",
                      f"{figures.starting.current:.0f} A for {figures.starting.seconds:.1f} s is {figures.starting.current / fuse:.1f} times its rating: it opens now and then. A soft start brings it down.",
                      mend, "ISO8820", value=fuse)  # fmt: skip


def _relay(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Fix, ...]) -> Found:
    circuit, at = figures.circuit, (*where, "relay")
    if circuit.switch == "none":
        if place_of_switch(build, circuit.feeds):
            yield Finding(
                "no_relay",
                "problem",
                (*where, "switch"),
                f"{name}: nothing switches it",
                "It runs for as long as its source is live.",
                (choose_fix("One relay per motor", (*where, "switch"), "relays"),),
            )
        return
    if circuit.relay is None or figures.relay_holds is None or figures.relay_makes is None:
        yield Finding(
            "relay_unknown",
            "doubt",
            at,
            f"{name}: the rating of what switches it is not known",
            "A 15 A fan wants a 30 A relay of its own.",
            mend,
        )
        return
    if figures.through_relay > figures.relay_holds + 0.05:
        hot = (
            f"rated {circuit.relay.si:g} A at 23 °C, it carries {figures.relay_holds:.0f} A at {both(circuit.relay_air.si, 'temperature')}"
        )
        note = "; two contacts in parallel carry one and a half times one, not twice" if circuit.switch == "parallel" else ""
        yield Finding("relay_small", "problem", at, f"{name}: the {'switch' if circuit.switch == 'switch' else 'relay'} is too small to run on",
                      f"{figures.through_relay:.0f} A go through it; {hot}{note}.", mend, value=figures.through_relay, limit=figures.relay_holds)  # fmt: skip
    begins = figures.starting.current / (max(len(figures.motors), 1) if circuit.switch == "relays" else 1)
    if begins > figures.relay_makes + 0.05:
        yield Finding("relay_under_start", "problem", at, f"{name}: the start is too much for its contact",
                      f"{begins:.0f} A at the moment it closes; a {circuit.relay.si:g} A contact stands about {RELAY_MAKES:g} times its rating, {figures.relay_makes:.0f} A, or it welds shut. One relay per motor halves it.",
                      mend, value=begins, limit=figures.relay_makes)  # fmt: skip


def place_of_switch(build: Build, feeds: tuple[str, ...]) -> bool:
    """Whether anything fed wants switching: fans do, an electric pump may run with its source."""
    return any(ident != "pump" for ident in feeds)


def _wires(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Fix, ...]) -> Found:
    limit = build.supply.drop_limit.si
    if figures.drop > limit + 1e-9:
        place, most = max(figures.lost, key=lambda part: part[1])
        level: Level = "problem" if figures.drop > 2 * limit else "doubt"
        yield Finding("drop_over", level, (*where, "feed", "size"), f"{name}: {figures.drop:.2f} V lost there and back",
                      f"{limit:g} V is the limit; most of it, {most:.2f} V, in the {place}. The motor turns slower and the air with it. {advice_words(figures)}.",
                      mend, "ASTM_B258", value=figures.drop, limit=limit)  # fmt: skip
    for run in figures.runs:
        if run.ampacity <= 0:
            yield Finding("wire_place", "problem", (*where, run.key, "cable"), f"{name}: insulation not made for that place",
                          f"The air round the {RUN_NAMES[run.key]} is as hot as its insulation stands ({both(run.limit, 'temperature')}).",
                          (choose_fix("Cross-linked, 125 °C", (*where, run.key, "cable"), "j1128_crosslinked"),), value=run.limit)  # fmt: skip
        elif run.warm > run.limit + 0.05:
            yield Finding("wire_hot", "problem", (*where, run.key, "size"), f"{name}: the {RUN_NAMES[run.key]} runs hotter than its insulation stands",
                          f"{run.current:.0f} A bring the copper to {both(run.warm, 'temperature')}; the insulation ends at {both(run.limit, 'temperature')}.", mend, "CFR183", value=run.warm, limit=run.limit)  # fmt: skip


def _connector(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Fix, ...]) -> Found:
    circuit = figures.circuit
    if circuit.connector is None or figures.connector_holds is None:
        return
    at = (*where, "connector")
    if figures.each > figures.connector_holds + 0.05:
        yield Finding("connector_small", "problem", at, f"{name}: the connector is too small",
                      f"{figures.each:.0f} A through it; rated {circuit.connector.si:g} A at room temperature, {figures.connector_holds:.0f} A where it sits.", mend, value=figures.each, limit=figures.connector_holds)  # fmt: skip
    elif circuit.fuse and circuit.fuse.si > circuit.connector.si:
        yield Finding("fuse_over_connector", "problem", (*where, "fuse"), f"{name}: the fuse does not protect the connector",
                      f"A {circuit.fuse.si:g} A fuse ahead of a {circuit.connector.si:g} A connector.", mend, value=circuit.fuse.si, limit=circuit.connector.si)  # fmt: skip


def _unplanned(package: Package, found: Electrics) -> Found:
    if found.loose:
        names = ", ".join(lowered(motored.name) for motored in found.loose)
        yield Finding("no_circuit", "doubt", ("packages", package.id, "circuits"), f"No circuit feeds {names}",
                      "0.3 V are assumed lost on the way. Wire, fuse and relay decide the volts at the motor, and with them the air.",
                      (Fix("plan_circuits", "Plan a circuit for each", (("package", package.id),)),))  # fmt: skip


def _control(build: Build, package: Package, assessment: Assessment) -> Found:
    control, where = package.control, ("packages", package.id, "control")
    if not package.fans:
        return
    place = place_of(control)
    if place == "none" and control.strategy not in SENSORLESS:
        yield Finding("no_sensor", "problem", (*where, "sensor"), "The controller has no sensor", "It cannot know when to start the fans: they never run.",
                      (choose_fix("Sensor in the upper hose", (*where, "sensor"), "upper_hose"),))  # fmt: skip
    if control.strategy == "toggle":
        yield Finding("toggle_alone", "doubt", (*where, "strategy"), "The fans depend on somebody remembering",
                      "A toggle alone cooks an engine the day it is forgotten, and empties the battery the night it is left on. As an override beside a switch it is welcome.",
                      (choose_fix("A thermoswitch, the toggle as override", (*where, "strategy"), "ground_switch"),))  # fmt: skip
    on, second = build.brief.cooling.fan_on, control.second_on
    if control.strategy in STAGED and on and second.si < on.si + 1:
        text = f"{on.si + 5:.0f} °C"
        yield Finding("stages", "problem", (*where, "second_on"), "Second speed must come on above the first", f"First at {both(on.si, 'temperature')}, second at {both(second.si, 'temperature')}.",
                      (set_fix(f"Second speed at {both(on.si + 5, 'temperature')}", (*where, "second_on"), text),), value=second.si, limit=on.si)  # fmt: skip
    electrics = assessment.electrics
    if control.strategy in STAGED and control.low_speed == "one_fan" and len(package.fans) > 1 and electrics and not own_relays(electrics):
        fed = next((one.circuit for one in electrics.circuits if any(motored.fan for motored in one.motors)), None)
        fixes = (
            (Fix("split_circuit", "A circuit of its own for each motor", (("package", package.id), ("circuit", fed.id))),) if fed else ()
        )
        yield Finding(
            "stages_one_relay",
            "problem",
            (*where, "low_speed"),
            "Both fans hang on one relay: there are no stages",
            "One after the other takes a relay for each.",
            fixes,
        )
    if control.strategy in RAMPED and electrics:
        for one in electrics.circuits:
            if any(motored.fan for motored in one.motors) and one.circuit.switch not in ("controller", "none"):
                at = ("packages", package.id, "circuits", one.circuit.id, "switch")
                yield Finding("ramp_through_relay", "problem", at, f"{one.circuit.name or one.circuit.id}: a variable speed does not go through a relay",
                              "The controller chops the current thousands of times a second; a contact only knows on and off. The controller itself has to carry it.",
                              (choose_fix("The controller carries it", at, "controller"),))  # fmt: skip
    if control.coil == "always" and control.strategy not in BY_COMPUTER:
        hours = _minutes_alone(build, package, assessment) / 60
        until = f"about {hours:.1f} h" if hours < 48 else "days"
        yield Finding("always_hot", "doubt", (*where, "coil"), "The relays are fed with the key off",
                      f"A hot engine, a stuck switch or a forgotten toggle then runs the fans on the battery: flat in {until}. Feed the coils from the key, or let a timer end it.",
                      (choose_fix("Coils fed by the key", (*where, "coil"), "key"),))  # fmt: skip
    if build.brief.accessories.ac_fitted and not control.ac_request and control.strategy != "toggle":
        yield Finding("no_ac_request", "note", (*where, "ac_request"), "The A/C does not ask for the fans",
                      "Standing, the condenser has only the fans’ air; without it the head pressure rises until the A/C cuts out.", (flag_fix("A/C asks for the fans", (*where, "ac_request"), True),))  # fmt: skip


def _minutes_alone(build: Build, package: Package, assessment: Assessment) -> float:
    """Minutes until the battery is down with the package's fans on it and nothing else."""
    amps = fan_current_alone(build, assessment.electrics)
    return discharge_time(battery_of(build.supply), amps) / 60


def _sensor(build: Build, package: Package, assessment: Assessment) -> Found:
    control, cooling, where = package.control, build.brief.cooling, ("packages", package.id, "control")
    place = place_of(control)
    if not package.fans or cooling.fan_on is None or control.strategy in SENSORLESS:
        return
    if place == "fins":
        late = outlet_for(cooling.fan_on.si - FIN_SHARE * (cooling.fan_on.si - control.set_on_day.si), "fins", COOL_DAY, 0.0)
        yield Finding("sensor_fins", "doubt", (*where, "sensor"), "A probe in the fins reads the weather too",
                      f"Set on a {both(control.set_on_day.si, 'temperature')} day, it starts the fans at {both(late, 'temperature')} of coolant on one of {both(COOL_DAY, 'temperature')} instead of {both(cooling.fan_on.si, 'temperature')}.",
                      (choose_fix("Sensor in the upper hose", (*where, "sensor"), "upper_hose"),), value=late, limit=cooling.fan_on.si)  # fmt: skip
    if place == "lower_hose" and not set_for_lower_hose(cooling):
        yield Finding("sensor_lower", "doubt", (*where, "sensor"), "A switch for the upper hose sits in the lower one",
                      f"Behind the core the coolant is 5–15 K cooler: it starts at {both(cooling.fan_on.si, 'temperature')} there, when the engine is that much hotter. "
                      f"In the lower hose it wants about {both(cooling.fan_on.si - 10, 'temperature')}; the core works first and the fan runs less.",
                      (choose_fix("Sensor in the upper hose", (*where, "sensor"), "upper_hose"),))  # fmt: skip
    if place in HOSED and control.strategy in NEEDS_GROUND and not control.strap:
        yield Finding("ground_through_coolant", "problem", (*where, "strap"), "The switch grounds through the coolant",
                      "Its adapter sits between two rubber hoses: without a strap its only way to ground is the coolant. It switches when it likes, and the current eats the core.",
                      (flag_fix("A ground strap on the adapter", (*where, "strap"), True),))  # fmt: skip


def _run_on(build: Build, package: Package, assessment: Assessment) -> Found:
    control, where = package.control, ("packages", package.id, "control", "run_on")
    seconds, boost = control.run_on.si, build.brief.engine.boost
    if not package.fans:
        return
    battery = battery_of(build.supply)
    if seconds > 0:
        amps = fan_current_alone(build, assessment.electrics)
        share = seconds / discharge_time(battery, amps) * battery.state if amps else 0.0
        if share > RUN_ON_SHARE:
            yield Finding("run_on_long", "doubt", where, "The run-on takes much of the battery", f"{seconds / 60:.0f} min at {amps:.0f} A is {share:.0%} of it, every stop.",
                          (set_fix("3 minutes", where, "3 min"),), "PEUKERT", value=share, limit=RUN_ON_SHARE)  # fmt: skip
        if control.coil == "key":
            yield Finding("run_on_dead", "problem", where, "The run-on has no feed", "The relays’ coils are fed by the key: with it off nothing runs on. It takes a timer fed always.",
                          (choose_fix("Coils fed always, the timer ends it", ("packages", package.id, "control", "coil"), "always"),))  # fmt: skip
    elif boost and boost.si > 1e3:
        amps = fan_current_alone(build, assessment.electrics)
        cost = 180 / discharge_time(battery, amps) * battery.state if amps else 0.0
        yield Finding(
            "no_run_on",
            "note",
            where,
            "Nothing runs on after key-off",
            f"A turbocharger’s heat soaks into a still engine: the gauge climbs after a stop. Three minutes of fan cost {cost:.1%} of the battery.",
            source="PEUKERT",
        )


def _direction(build: Build, package: Package, assessment: Assessment) -> Found:
    unknown = [(k, fan) for k, fan in enumerate(package.fans, 1) if fan.id not in package.control.spun]
    if unknown and len(package.fans) > 1:
        names = " and ".join(f"fan {k}" for k, _ in unknown)
        yield Finding("spin", "doubt", ("packages", package.id, "control", "spun"), f"Direction of {names} not felt by hand yet",
                      "Two fans bought together are often wired opposite: the second then blows into the first and the core gets nothing. Power each by hand, feel the air, before the harness is built.")  # fmt: skip
    for fan in package.fans:
        if fan.reversed_blade and fan.mount == "puller":
            yield Finding("spins_backwards", "problem", ("packages", package.id, "fans", fan.id, "reversed_blade"), f"{fan.name or 'A fan'} turns backwards",
                          f"A one-way blade run the wrong way moves {fan.reversed_share.si:.0%} of its air. Swap its two wires, then key the connectors: one male, one female a side.",
                          (flag_fix("It turns the right way", ("packages", package.id, "fans", fan.id, "reversed_blade"), False),))  # fmt: skip


def _charging(build: Build, assessment: Assessment, found: Electrics) -> Found:
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
        yield Finding("alternator_short", "problem", at, "The alternator cannot feed the fans at idle",
                      f"{need:.0f} A wanted against {have:.0f} A hot at idle: the battery makes up {need - have:.0f} A and is down in {lasts:.0f} min; the voltage sinks, and the fans with it.{volts} {cure_words(build, found, full)}",
                      (Fix("larger_alternator", "An alternator that feeds it", (("wanted", f"{full:.0f}"),)),), value=need, limit=have)  # fmt: skip
    elif found.idle and found.idle.balance.voltage < LOW_VOLTAGE and found.idle.measured:
        yield Finding("battery_low", "problem", ("brief", "accessories", "idle_voltage"), f"{found.idle.balance.voltage:.1f} V at the battery at idle",
                      "A healthy battery holds 12.0–12.3 V at 40 A: this one is nearly flat. The same reading at the fan alone would be its wire.", value=found.idle.balance.voltage, limit=LOW_VOLTAGE)  # fmt: skip
    if top > limit:
        ratio = limit / (supply.redline.si * 60)
        yield Finding("over_speed", "problem", ("supply", "pulley_ratio"), "The pulley over-speeds the alternator",
                      f"{top:.0f} rpm at the redline against its limit of {limit:.0f}: the rotor’s windings let go. A ratio of {ratio:.2f} keeps it; idle output then is {output(alternator._replace(ratio=ratio, idle_share=None), idle_rpm):.0f} A.",
                      (set_fix(f"Ratio {ratio:.2f}", ("supply", "pulley_ratio"), f"{math.floor(ratio * 100) / 100:.2f}"),), value=top, limit=limit)  # fmt: skip
    yield from _charge_cable(build, alternator.rating)


def _charge_cable(build: Build, rating: float) -> Found:
    supply = build.supply
    run = run_of(supply.charge_wire)
    drop = charge_drop(run, rating)
    if drop > supply.charge_limit.si:
        yield Finding("charge_cable", "doubt", ("supply", "charge_wire", "size"), "The charge cable is thin for the alternator",
                      f"At its {rating:.0f} A it loses {drop:.2f} V on the way to the battery; {supply.charge_limit.si:g} V is the limit.",
                      (Fix("charge_cable", "A cable that keeps within it", ()),), "ASTM_B258", value=drop, limit=supply.charge_limit.si)  # fmt: skip
