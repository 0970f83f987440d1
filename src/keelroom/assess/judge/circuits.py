"""Findings about circuits: label, source, fuse, relay, wire, connector, and motors without one."""

from __future__ import annotations

from collections.abc import Callable

from keelroom.assess.electrical.figures import RUN_NAMES, CircuitFigures, Electrics, odd_fuse
from keelroom.assess.electrical.harness import section_of
from keelroom.assess.electrical.words import advice_words
from keelroom.assess.findings import Finding, Level
from keelroom.assess.inputs.electrical.loads import fan_rating
from keelroom.assess.inputs.electrical.system import battery_of
from keelroom.assess.wording import Found, choose_act, lowered, set_act
from keelroom.core.electrical.charging import discharge_time
from keelroom.core.electrical.protection import CONTINUOUS, PARALLEL, RELAY_MAKES, UNFUSED
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import RELAYED, UNRELAYED
from keelroom.document.schema.package import Package
from keelroom.units import both

UNEXPLAINED = (1.5, 0.2)
"""Times, and volts beyond, that a measured drop may exceed what its wires make."""
SPLIT_OVER = 6e-6
"""[m2] of advised wire over which one circuit for several motors is the worse answer: it no longer goes into usual terminals."""
UNLIKE = 1.5
"""Times its rated voltage a motor is not to be tied to."""


def circuits(build: Build, package: Package, found: Electrics) -> Found:
    """Every circuit by itself, and what none of them feeds."""
    yield from _labels(package)
    for figures in found.circuits:
        yield from _circuit(build, package, figures)
    yield from _unplanned(package, found)


def _amps(value: float) -> str:
    return f"{value:.1f} A" if value < 10 else f"{value:.0f} A"


def _labels(package: Package) -> Found:
    for fan in package.fans:
        label = fan_rating(fan)
        if label is None or label.contradiction is None or fan.motor == "engine":
            continue
        yield Finding("motor_label", "doubt", ("packages", package.id, "fans", fan.id, "rated_current"), f"{fan.name or 'Fan'}: its label’s amps contradict its watts",
                      f"{label.power:.0f} W at {label.voltage:g} V is {_amps(label.contradiction)}, the label says {_amps(label.current)}. Watts and volts are used; a clamp meter settles it.",
                      value=label.current, limit=label.contradiction)  # fmt: skip


def _circuit(build: Build, package: Package, figures: CircuitFigures) -> Found:
    where = ("packages", package.id, "circuits", figures.circuit.id)
    name = figures.circuit.name or figures.circuit.id
    checks: tuple[Callable[[Build, tuple[str, ...], str, CircuitFigures, tuple[Act, ...]], Found], ...] = (
        _electronics,
        _source,
        _fuse,
        _relay,
        _wires,
        _connector,
    )
    if not figures.motors:
        yield Finding("circuit_empty", "note", (*where, "feeds"), f"{name}: feeds nothing", "Choose what it drives, or take it out.",
                      (Act("remove", "Take the circuit out", path=where),))  # fmt: skip
        return
    whose = (("circuit", figures.circuit.id),)
    mend: tuple[Act, ...] = (Act("mend_circuit", "Wire, fuse and relay as advised", package.id, whose),)
    if len(figures.motors) > 1:
        split = Act("split_circuit", "A circuit of its own for each motor", package.id, whose)
        mend = (split, *mend) if better_split(figures) else (*mend, split)
    assumed = [run for run in RUN_NAMES if getattr(figures.circuit, run).length.origin == "assumed"]
    if assumed and figures.circuit.measured_drop is None:
        yield Finding("run_assumed", "note", (*where, assumed[0], "length"), f"{name}: {', '.join(RUN_NAMES[run] for run in assumed)} not measured",
                      "Lay a string along the way the loom will go, through every grommet, and measure that.")  # fmt: skip
    for check in checks:
        yield from check(build, where, name, figures, mend)


def _electronics(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]) -> Found:
    """Whether what switches it suits motors with their own electronics, and those without."""
    at, wanted, switch = (*where, "switch"), figures.planned.wanted, figures.circuit.switch
    fans = [motored for motored in figures.motors if motored.fan]
    plain = [motored.name for motored in fans if motored.controller != "inside"]
    mixed = 0 < len(plain) < len(fans)
    if mixed:
        yield Finding("mixed_motors", "problem", at, f"{name}: motors with electronics of their own and motors without hang on it together",
                      "The ones want steady power, the others something that switches it: a circuit for each.", mend[:1])  # fmt: skip
    elif switch == "own" and (plain or not fans):
        names = ", ".join(plain) or ", ".join(motored.name for motored in figures.motors)
        yield Finding("own_of_none", "problem", at, f"{name}: {names} has no electronics to switch it",
                      "A signal is wired to a motor that takes none: it runs as long as its source is live. A relay, or a box beside it.",
                      (choose_act("A controller beside it", at, "controller") if wanted == "controller" else choose_act("One relay per motor", at, "relays"),))  # fmt: skip
    elif wanted in ("own", "controller") and switch != wanted and any(motored.controller != "none" for motored in fans):
        what = "its own electronics switch it" if wanted == "own" else "the box beside it switches it"
        label = "Its own electronics switch it" if wanted == "own" else "The box beside it carries it"
        yield Finding("relay_before_electronics", "problem", at, f"{name}: a {'relay' if switch in RELAYED else switch} belongs to no motor with a controller",
                      f"Fed through a fuse, {what}, softly; cut off ahead of it, it starts hard, forgets its run-on and its fault. Only the key lead wakes it.",
                      (choose_act(label, at, wanted),))  # fmt: skip


def better_split(figures: CircuitFigures) -> bool:
    """Whether a circuit per motor is the better answer: no wire that keeps the drop goes into the terminals, or no fuse or relay fits all."""
    found = figures.advice
    return not found.sizes or found.fuse is None or found.relay is None or any(section_of(size) > SPLIT_OVER for size in found.sizes)


def _source(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]) -> Found:
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
    nominal = max((source.voltage.si for source in tied), default=0.0)
    rated = min(motored.motor.voltage for motored in figures.motors)
    if figures.fault != "source" and nominal > UNLIKE * rated:
        yield Finding("source_unlike", "problem", (*where, "sources"), f"{name}: a {nominal:g} V source on a {rated:g} V motor",
                      "It runs far too fast and burns. A converter, or a motor for that voltage.", value=nominal, limit=rated)  # fmt: skip
    if circuit.ground == "none":
        yield Finding("no_return", "problem", (*where, "ground"), f"{name}: no way back",
                      "Current that goes out has to come back: without a ground the motor stands still. A wire to the battery’s negative post or to clean chassis metal.",
                      (choose_act("Ground to the chassis", (*where, "ground"), "chassis"),))  # fmt: skip
    if circuit.ground == "core":
        yield Finding("ground_through_core", "problem", (*where, "ground"), f"{name}: grounded through the core",
                      "The core hangs in rubber: the current comes back through the coolant, loses volts and eats the core. Ground the motor to chassis or battery.",
                      (choose_act("Ground to the chassis", (*where, "ground"), "chassis"),))  # fmt: skip


def _fuse(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]) -> Found:
    circuit, at = figures.circuit, (*where, "fuse")
    if circuit.fuse is None:
        yield Finding("no_fuse", "problem", at, f"{name}: no fuse at the source",
                      f"A chafed wire then takes all the battery gives, hundreds of amps, and burns along its length. {advice_words(figures)}.", mend)  # fmt: skip
        return
    fuse = circuit.fuse.si
    near = odd_fuse(circuit)
    if near:
        fixes = tuple(set_act(f"A {size:g} A fuse", at, f"{size:g} A") for size in near)
        yield Finding("fuse_size", "problem", at, f"{name}: no {fuse:g} A fuse is made in this form", f"The sizes next to it are {' and '.join(f'{size:g} A' for size in near)}.",
                      fixes, source="ISO8820", value=fuse)  # fmt: skip
    if circuit.fuse_at.si > UNFUSED:
        yield Finding("fuse_far", "problem", (*where, "fuse_at"), f"{name}: the fuse sits too far from the source",
                      f"{both(circuit.fuse_at.si, 'length')} of wire before it is protected by nothing; {both(UNFUSED, 'length')} at most.",
                      (set_act("Fuse within 6 in of the source", (*where, "fuse_at"), "6 in"),), value=circuit.fuse_at.si, limit=UNFUSED)  # fmt: skip
    weakest = figures.weakest
    if fuse > weakest.ampacity + 0.05:
        yield Finding("fuse_over_wire", "problem", at, f"{name}: the fuse does not protect the {RUN_NAMES[weakest.key]}",
                      f"A {fuse:g} A fuse passes {fuse * 1.1:.0f} A for hours; this wire carries {weakest.ampacity:.0f} A where it lies before its insulation ({weakest.limit:.0f} °C) goes.",
                      mend, "CFR183", value=fuse, limit=weakest.ampacity)  # fmt: skip
    if circuit.relay and circuit.switch not in UNRELAYED:
        held = circuit.relay.si * (PARALLEL if circuit.switch == "parallel" else 1.0)
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


def _relay(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]) -> Found:
    circuit, at = figures.circuit, (*where, "relay")
    if circuit.switch == "own":
        return
    if circuit.switch == "none":
        yield from _unswitched(build, where, name, figures)
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
    begins = figures.begins
    if begins > figures.relay_makes + 0.05:
        yield Finding("relay_under_start", "problem", at, f"{name}: the start is too much for its contact",
                      f"{begins:.0f} A at the moment it closes; a {circuit.relay.si:g} A contact stands about {RELAY_MAKES:g} times its rating, {figures.relay_makes:.0f} A, or it welds shut. One relay per motor halves it.",
                      mend, value=begins, limit=figures.relay_makes)  # fmt: skip


def _unswitched(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures) -> Found:
    """A circuit without a switch runs as long as its source is live: on the battery until that is flat."""
    at, fix = (*where, "switch"), (choose_act("One relay per motor", (*where, "switch"), "relays"),)
    live = [source for source in build.supply.sources if source.id in figures.circuit.sources and source.always]
    if live:
        minutes = discharge_time(battery_of(build.supply), figures.continuous) / 60
        yield Finding("drains", "problem", at, f"{name}: always live and never switched",
                      f"{figures.continuous:.0f} A with the key off empty the battery in {minutes:.0f} min. Switch it, or feed it from the key.", fix, "PEUKERT", value=figures.continuous)  # fmt: skip
    elif figures.cools:
        yield Finding("no_relay", "problem", at, f"{name}: nothing switches it", "It runs whenever the key is on, warm or cold.", fix)


def _wires(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]) -> Found:
    limit = build.supply.drop_limit.si
    if figures.drop > limit + 1e-9:
        place, most = max(figures.lost, key=lambda part: part[1])
        level: Level = "problem" if figures.drop > 2 * limit else "doubt"
        yield Finding("drop_over", level, (*where, "feed", "size"), f"{name}: {figures.drop:.2f} V lost there and back",
                      f"{limit:g} V is the limit; most of it, {most:.2f} V, in the {place}. The motor turns slower and the air with it. {advice_words(figures)}.",
                      mend, "ASTM_B258", value=figures.drop, limit=limit)  # fmt: skip
    if figures.circuit.measured_drop and figures.drop > UNEXPLAINED[0] * figures.worked + UNEXPLAINED[1]:
        yield Finding("drop_unexplained", "doubt", (*where, "measured_drop"), f"{name}: its wires do not explain the drop that was measured",
                      f"{figures.drop:.2f} V measured, {figures.worked:.2f} V by length, size and contacts: a bad crimp, a green ground, a burnt relay or a thinner wire than written. "
                      "Measure across each in turn with the motor running.", value=figures.drop, limit=figures.worked)  # fmt: skip
    for run in figures.runs:
        if run.ampacity <= 0:
            yield Finding("wire_place", "problem", (*where, run.key, "cable"), f"{name}: insulation not made for that place",
                          f"The air round the {RUN_NAMES[run.key]} is as hot as its insulation stands ({both(run.limit, 'temperature')}).",
                          (choose_act("Cross-linked, 125 °C", (*where, run.key, "cable"), "j1128_crosslinked"),), value=run.limit)  # fmt: skip
        elif run.warm > run.limit + 0.05:
            yield Finding("wire_hot", "problem", (*where, run.key, "size"), f"{name}: the {RUN_NAMES[run.key]} runs hotter than its insulation stands",
                          f"{run.current:.0f} A bring the copper to {both(run.warm, 'temperature')}; the insulation ends at {both(run.limit, 'temperature')}.", mend, "CFR183", value=run.warm, limit=run.limit)  # fmt: skip


def _connector(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]) -> Found:
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
                      (Act("plan_circuits", "Plan a circuit for each", package.id),))  # fmt: skip
