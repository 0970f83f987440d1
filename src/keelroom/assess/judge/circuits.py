"""Findings about circuits: label, source, fuse, relay, wire, connector, and motors without one."""

from __future__ import annotations

from collections.abc import Callable

from keelroom.assess.electrical.figures import RUN_NAMES, CircuitFigures, Electrics, odd_fuse
from keelroom.assess.electrical.harness import section_of
from keelroom.assess.electrical.planner import BAY, beyond_bay, reaching
from keelroom.assess.electrical.words import advice
from keelroom.assess.findings import Finding, Found, Level
from keelroom.assess.fixes import choose_act, set_act
from keelroom.assess.inputs.electrical.loads import fan_rating
from keelroom.assess.inputs.electrical.system import battery_of, lead_of, stands_wired
from keelroom.assess.judge.sources import sources
from keelroom.core.electrical.charging import discharge_time
from keelroom.core.electrical.protection import CONTINUOUS, PARALLEL, RELAY_MAKES, UNFUSED
from keelroom.core.electrical.wire import ampacity
from keelroom.document.act import Act
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import RELAYED, UNRELAYED
from keelroom.document.schema.package import Package
from keelroom.facts import articled, fact, given, lowered

UNEXPLAINED = (1.5, 0.2)
"""Times, and volts beyond, that a measured drop may exceed what its wires make."""
SPLIT_OVER = 6e-6
"""[m2] of advised wire over which one circuit for several motors is the worse answer: it no longer goes into usual
terminals."""
UNLIKE = 1.5
"""Times its rated voltage a motor is not to be tied to."""


def circuits(build: Build, package: Package, found: Electrics) -> Found:
    """Every circuit by itself, and what none of them feeds."""
    yield from _labels(package)
    for figures in found.circuits:
        yield from _circuit(build, package, figures)
    yield from sources(build, package, found)
    yield from _unplanned(package, found)


def _amps(value: float) -> str:
    return f"{value:.1f} A" if value < 10 else f"{value:.0f} A"


def _labels(package: Package) -> Found:
    for fan in package.fans:
        label = fan_rating(fan)
        if label is None or label.contradiction is None or fan.motor == "engine":
            continue
        yield Finding(
            "motor_label",
            "doubt",
            ("packages", package.id, "fans", fan.id, "rated_current"),
            given(
                name=fan.name or "Fan",
                power=(label.power, "electrical power"),
                voltage=(label.voltage, "voltage"),
                contradiction=(label.contradiction, "current"),
                current=(label.current, "current"),
            ),
            value=label.current,
            limit=label.contradiction,
        )


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
        _reach,
    )
    if not figures.motors:
        yield Finding(
            "circuit_empty",
            "note",
            (*where, "feeds"),
            given(name=name),
            fix=(Act("remove", "Take the circuit out", path=where),),
        )
        return
    whose = (("circuit", figures.circuit.id),)
    mend: tuple[Act, ...] = (Act("mend_circuit", "Wire, fuse and relay as advised", package.id, whose),)
    if len(figures.motors) > 1:
        split = Act("split_circuit", "A circuit of its own for each motor", package.id, whose)
        mend = (split, *mend) if better_split(figures) else (*mend, split)
    assumed = [run for run in RUN_NAMES if getattr(figures.circuit, run).length.origin == "assumed"]
    if assumed and figures.circuit.measured_drop is None:
        yield Finding(
            "run_assumed",
            "note",
            (*where, assumed[0], "length"),
            given(name=name, assumed=tuple(RUN_NAMES[run] for run in assumed)),
        )
    for check in checks:
        yield from check(build, where, name, figures, mend)


def _reach(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]) -> Found:
    """Whether its wire reaches where its motors stand."""
    package = build.with_id(where[1])
    circuit, beyond = figures.circuit, beyond_bay(package, figures.motors)
    there, least = circuit.feed.length.si + circuit.branch.length.si, BAY + beyond
    if beyond <= 0 or there >= least:
        return
    placed = reaching(package, circuit, figures.motors)
    yield Finding(
        "wire_short",
        "problem",
        (*where, "branch", "length"),
        given(name=name, there=(there, "length"), least=(least, "length")),
        fix=mend if placed != circuit else (),
        value=there,
        limit=least,
    )


def _electronics(
    build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]
) -> Found:
    """Whether what switches it suits motors with their own electronics, and those without."""
    at, wanted, switch = (*where, "switch"), figures.planned.wanted, figures.circuit.switch
    fans = [motored for motored in figures.motors if motored.fan]
    plain = [motored.name for motored in fans if motored.controller != "inside"]
    mixed = 0 < len(plain) < len(fans)
    if mixed:
        yield Finding("mixed_motors", "problem", at, given(name=name), fix=mend[:1])
    elif switch == "own" and (plain or not fans):
        names = tuple(plain) or tuple(motored.name for motored in figures.motors)
        yield Finding(
            "own_of_none",
            "problem",
            at,
            given(name=name, names=names),
            fix=(
                _switch_act("A controller beside it", at, "controller")
                if wanted == "controller"
                else _switch_act("One relay per motor", at, "relays"),
            ),
        )
    elif wanted in ("own", "controller") and switch != wanted and any(motored.controller != "none" for motored in fans):
        label = "Its own electronics switch it" if wanted == "own" else "The box beside it carries it"
        yield Finding(
            "relay_before_electronics",
            "problem",
            at,
            given(name=name, device="relay" if switch in RELAYED else switch),
            form=wanted,
            fix=(_switch_act(label, at, wanted),),
        )


def _switch_act(label: str, at: tuple[str, ...], switch: str) -> Act:
    """Another switch for the circuit whose switch is at `at`, with the fuse and wire it takes."""
    return Act("switch_circuit", label, at[1], (("circuit", at[-2]), ("switch", switch)))


def better_split(figures: CircuitFigures) -> bool:
    """Whether a circuit per motor is the better answer: no wire that keeps the drop goes into the terminals, or no
    fuse or relay fits all."""
    found = figures.advice
    return (
        not found.sizes
        or found.fuse is None
        or found.relay is None
        or any(section_of(size) > SPLIT_OVER for size in found.sizes)
    )


def _source(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]) -> Found:
    circuit = figures.circuit
    tied = [source for source in build.supply.sources if source.id in circuit.sources]
    if not tied:
        yield Finding("no_source", "problem", (*where, "sources"), given(name=name))
    elif figures.fault == "source":
        volts = tuple(
            fact("source_of", name=source.name or source.id, volts=(source.voltage.si, "voltage")) for source in tied
        )
        yield Finding(
            "sources_differ",
            "problem",
            (*where, "sources"),
            given(name=name, volts=volts),
            value=max(s.voltage.si for s in tied),
            limit=min(s.voltage.si for s in tied),
        )
    nominal = max((source.voltage.si for source in tied), default=0.0)
    rated = min(motored.motor.voltage for motored in figures.motors)
    if figures.fault != "source" and nominal > UNLIKE * rated:
        yield Finding(
            "source_unlike",
            "problem",
            (*where, "sources"),
            given(name=name, nominal=(nominal, "voltage"), rated=(rated, "voltage")),
            value=nominal,
            limit=rated,
        )
    if circuit.ground == "none":
        yield Finding(
            "no_return",
            "problem",
            (*where, "ground"),
            given(name=name),
            fix=(choose_act("Ground to the chassis", (*where, "ground"), "chassis"),),
        )
    if circuit.ground == "core":
        yield Finding(
            "ground_through_core",
            "problem",
            (*where, "ground"),
            given(name=name),
            fix=(choose_act("Ground to the chassis", (*where, "ground"), "chassis"),),
        )


def _fuse(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]) -> Found:
    circuit, at = figures.circuit, (*where, "fuse")
    if circuit.fuse is None:
        yield Finding("no_fuse", "problem", at, given(name=name, advice=advice(figures)), fix=mend)
        return
    fuse = circuit.fuse.si
    near = odd_fuse(circuit)
    if near:
        fixes = tuple(
            set_act(articled(f"A {size:g} A fuse"), at, f"{size:g} A") for size in near if figures.suits(size)
        )
        yield Finding(
            "fuse_size",
            "problem",
            at,
            given(name=name, fuse=(fuse, "current"), near=(near, "current")),
            fix=fixes or mend,
            source="ISO8820",
            value=fuse,
        )
    if circuit.fuse_at.si > UNFUSED:
        yield Finding(
            "fuse_far",
            "problem",
            (*where, "fuse_at"),
            given(name=name, fuse_at=(circuit.fuse_at.si, "length"), most=(UNFUSED, "length")),
            fix=(set_act("Fuse within 6 in of the source", (*where, "fuse_at"), "6 in"),),
            value=circuit.fuse_at.si,
            limit=UNFUSED,
        )
    weakest = figures.weakest
    if fuse > weakest.ampacity + 0.05:
        yield Finding(
            "fuse_over_wire",
            "problem",
            at,
            given(
                name=name,
                run=RUN_NAMES[weakest.key],
                fuse=(fuse, "current"),
                passes=(fuse * 1.1, "current"),
                ampacity=(weakest.ampacity, "current"),
                limit=(weakest.limit, "temperature"),
            ),
            fix=mend,
            source="CFR183",
            value=fuse,
            limit=weakest.ampacity,
        )
    if circuit.relay and circuit.switch not in UNRELAYED:
        held = circuit.relay.si * (PARALLEL if circuit.switch == "parallel" else 1.0)
        if fuse > held:
            device = {"switch": "switch", "controller": "controller"}.get(circuit.switch, "relay")
            yield Finding(
                "fuse_over_relay",
                "problem",
                at,
                given(
                    name=name,
                    fuse=(fuse, "current"),
                    relay=(circuit.relay.si, "current"),
                    device=device,
                    held=(held, "number"),
                    passes=(fuse * 1.1, "current"),
                ),
                fix=mend,
                value=fuse,
                limit=held,
            )
    yield from _lead(where, name, figures)
    if fuse < CONTINUOUS * figures.continuous - 1e-6:
        yield Finding(
            "fuse_small",
            "problem",
            at,
            given(
                name=name,
                continuous=(figures.continuous, "current"),
                regulated=(build.supply.regulated.si, "voltage"),
                fuse_of=(CONTINUOUS * figures.continuous, "current"),
            ),
            fix=mend,
            source="ISO8820",
            value=fuse,
            limit=CONTINUOUS * figures.continuous,
        )
    elif figures.stands == "no":
        yield Finding(
            "fuse_start",
            "problem",
            at,
            given(
                name=name,
                current=(figures.starting.current, "current"),
                seconds=(figures.starting.seconds, "number"),
                times=(figures.starting.current / fuse, "number"),
            ),
            fix=mend,
            source="ISO8820",
            value=fuse,
        )


def _lead(where: tuple[str, ...], name: str, figures: CircuitFigures) -> Found:
    """A controller's own leads under a fuse they do not stand: they cannot be made thicker, only shorter or another
    box."""
    lead, fuse = lead_of(figures.circuit), figures.circuit.fuse
    if lead is None or fuse is None:
        return
    stands = ampacity(lead.wire, lead.ambient)
    if fuse.si > stands + 0.05:
        yield Finding(
            "fuse_over_lead",
            "problem",
            (*where, "lead_size"),
            given(name=name, fuse=(fuse.si, "current"), stands=(stands, "current")),
            source="CFR183",
            value=fuse.si,
            limit=stands,
        )


def _relay(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]) -> Found:
    circuit, at = figures.circuit, (*where, "relay")
    if circuit.switch == "own":
        return
    if circuit.switch == "none":
        yield from _unswitched(build, where, name, figures)
        return
    if circuit.relay is None or figures.relay_holds is None or figures.relay_makes is None:
        yield Finding("relay_unknown", "doubt", at, given(name=name), fix=mend)
        return
    if figures.through_relay > figures.relay_holds + 0.05:
        note = fact("parallel_contacts") if circuit.switch == "parallel" else None
        yield Finding(
            "relay_small",
            "problem",
            at,
            given(
                name=name,
                device="switch" if circuit.switch == "switch" else "relay",
                through_relay=(figures.through_relay, "current"),
                relay=(circuit.relay.si, "current"),
                holds=(figures.relay_holds, "current"),
                air=(circuit.relay_air.si, "temperature"),
                note=note,
            ),
            fix=mend,
            value=figures.through_relay,
            limit=figures.relay_holds,
        )
    begins = figures.begins
    if begins > figures.relay_makes + 0.05:
        yield Finding(
            "relay_under_start",
            "problem",
            at,
            given(
                name=name,
                begins=(begins, "current"),
                relay=(circuit.relay.si, "current"),
                makes=(RELAY_MAKES, "number"),
                contact=(figures.relay_makes, "current"),
            ),
            fix=mend,
            value=begins,
            limit=figures.relay_makes,
        )


def _unswitched(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures) -> Found:
    """A circuit without a switch runs as long as its source is live: on the battery until that is flat."""
    at, fix = (*where, "switch"), (_switch_act("One relay per motor", (*where, "switch"), "relays"),)
    live = [source for source in build.supply.sources if source.id in figures.circuit.sources and source.always]
    if live:
        minutes = discharge_time(battery_of(build.supply), figures.continuous) / 60
        yield Finding(
            "drains",
            "problem",
            at,
            given(name=name, continuous=(figures.continuous, "current"), time=(60 * minutes, "minutes")),
            fix=fix,
            source="PEUKERT",
            value=figures.continuous,
        )
    elif figures.cools:
        yield Finding("no_relay", "problem", at, given(name=name), fix=fix)


def _wires(build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]) -> Found:
    limit = build.supply.drop_limit.si
    if figures.drop > limit + 1e-9:
        place, most = max(figures.lost, key=lambda part: part[1])
        level: Level = "problem" if figures.drop > 2 * limit else "doubt"
        yield Finding(
            "drop_over",
            level,
            (*where, "feed", "size"),
            given(
                name=name,
                drop=(figures.drop, "voltage"),
                limit=(limit, "voltage"),
                most=(most, "voltage"),
                place=place,
                advice=advice(figures),
            ),
            fix=mend,
            source="ASTM_B258",
            value=figures.drop,
            limit=limit,
        )
    if figures.circuit.measured_drop and figures.drop > UNEXPLAINED[0] * figures.worked + UNEXPLAINED[1]:
        yield Finding(
            "drop_unexplained",
            "doubt",
            (*where, "measured_drop"),
            given(name=name, drop=(figures.drop, "voltage"), worked=(figures.worked, "voltage")),
            value=figures.drop,
            limit=figures.worked,
        )
    for run in figures.runs:
        if run.ampacity <= 0:
            yield Finding(
                "wire_place",
                "problem",
                (*where, run.key, "cable"),
                given(name=name, run=RUN_NAMES[run.key], limit=(run.limit, "temperature")),
                fix=(choose_act("Cross-linked, 125 °C", (*where, run.key, "cable"), "j1128_crosslinked"),),
                value=run.limit,
            )
        elif run.warm > run.limit + 0.05:
            yield Finding(
                "wire_hot",
                "problem",
                (*where, run.key, "size"),
                given(
                    name=name,
                    run=RUN_NAMES[run.key],
                    current=(run.current, "current"),
                    warm=(run.warm, "temperature"),
                    limit=(run.limit, "temperature"),
                ),
                fix=mend,
                source="CFR183",
                value=run.warm,
                limit=run.limit,
            )


def _connector(
    build: Build, where: tuple[str, ...], name: str, figures: CircuitFigures, mend: tuple[Act, ...]
) -> Found:
    circuit = figures.circuit
    if circuit.connector is None or figures.connector_holds is None:
        return
    at = (*where, "connector")
    if figures.each > figures.connector_holds + 0.05:
        yield Finding(
            "connector_small",
            "problem",
            at,
            given(
                name=name,
                each=(figures.each, "current"),
                connector=(circuit.connector.si, "current"),
                connector_holds=(figures.connector_holds, "current"),
            ),
            fix=mend,
            value=figures.each,
            limit=figures.connector_holds,
        )
    elif circuit.fuse and circuit.fuse.si > circuit.connector.si:
        yield Finding(
            "fuse_over_connector",
            "problem",
            (*where, "fuse"),
            given(name=name, fuse=(circuit.fuse.si, "current"), connector=(circuit.connector.si, "current")),
            fix=mend,
            value=circuit.fuse.si,
            limit=circuit.connector.si,
        )


def _unplanned(package: Package, found: Electrics) -> Found:
    if found.loose:
        names = tuple(lowered(motored.name) for motored in found.loose)
        dead = stands_wired(package)
        yield Finding(
            "no_circuit",
            "problem" if dead else "doubt",
            ("packages", package.id, "circuits"),
            given(names=names),
            form="dead" if dead else "",
            fix=(Act("plan_circuits", "Plan a circuit for each", package.id),),
        )
