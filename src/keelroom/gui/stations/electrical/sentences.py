"""What is said of circuits, charging and control beside their fields."""

from __future__ import annotations

import math

from keelroom.assess.electrical.charge import (
    CRUISING,
    balance_told,
    cable_for,
    charging_of,
    fan_current_alone,
    share_taken,
)
from keelroom.assess.electrical.figures import RUN_NAMES, CircuitFigures, Electrics
from keelroom.assess.electrical.words import advice
from keelroom.assess.figures.assessment import Assessment
from keelroom.assess.figures.read_off import draws_of
from keelroom.assess.inputs.coolant.sensor import adapter_of
from keelroom.assess.words import clause, clauses
from keelroom.document.schema.build import Build
from keelroom.document.schema.electrical import UNRELAYED
from keelroom.facts import raised
from keelroom.gui.rows import Said
from keelroom.units import KINDS, format_si

FIRST_LINES = 8
"""Circuits whose volts stand at the head of the page."""
FAULTS = {"source": "Nothing flows: its source is wrong.", "return": "Nothing flows: no way back."}


def circuits_said(found: Electrics | None) -> Said:
    """A line per circuit: the volts its motors get, or why they get none."""
    if found is None:
        return ()
    said: list[tuple[str, str]] = []
    for figures in found.circuits[:FIRST_LINES]:
        name = figures.circuit.name or figures.circuit.id
        if not figures.motors:
            said.append(("doubt", f"{name}: feeds nothing."))
        elif figures.fault:
            said.append(("problem", f"{name}: {FAULTS[figures.fault]}"))
        else:
            said.append(
                (
                    "strong",
                    f"{name}: {figures.at_idle:.1f} V at the motor at idle, {figures.at_cruise:.1f} V on the road",
                )
            )
    more = len(found.circuits) - FIRST_LINES
    return (*said, ("faint", f"and {more} more circuits below")) if more > 0 else tuple(said)


def circuit_said(found: Electrics | None, circuit_id: str, system: str) -> Said:
    """One circuit in figures: what runs, what is lost, what it ought to have."""
    figures = next((one for one in found.circuits if one.circuit.id == circuit_id), None) if found else None
    if figures is None or not figures.motors or figures.fault:
        return ()
    good = advised_already(figures)
    return (
        ("", circuit_words(figures)),
        ("faint", wire_words(figures, system)),
        (
            "faint",
            "Wire, fuse and what switches it are as advised."
            if good
            else f"Smallest that will do: {clause(advice(figures), system)}.",
        ),
    )


def advised_already(figures: CircuitFigures) -> bool:
    """Whether sizes, fuse and what switches it are the advised ones."""
    circuit, found = figures.circuit, figures.advice
    sizes = tuple(getattr(circuit, run).size.as_typed for run in RUN_NAMES)
    relay = circuit.relay.si if circuit.relay and circuit.switch not in UNRELAYED else None
    return (
        sizes == found.sizes
        and circuit.fuse is not None
        and circuit.fuse.si == found.fuse
        and (circuit.switch, relay) == (found.switch, found.relay)
    )


def circuit_words(figures: CircuitFigures) -> str:
    """Currents and drop of a circuit."""
    lost = ", ".join(f"{place} {volts:.2f}" for place, volts in figures.lost if volts >= 0.005)
    return (
        f"{figures.continuous:.1f} A running, {figures.starting.current:.0f} A for "
        f"{figures.starting.seconds:.1f} s at the start, {figures.stalled:.0f} A stalled. "
        f"Loses {figures.drop:.2f} V there and back ({lost})."
    )


def wire_words(figures: CircuitFigures, system: str) -> str:
    """What each run carries, may carry and how warm it gets."""
    runs = "; ".join(
        f"{RUN_NAMES[run.key]} {run.current:.0f} of {run.ampacity:.0f} A, "
        f"{format_si(run.warm, KINDS['temperature'], system)}"
        for run in figures.runs
    )
    relay = f" Relay carries {figures.relay_holds:.0f} A where it sits." if figures.relay_holds else ""
    return f"{raised(runs)}.{relay}"


def charging_said(build: Build, assessment: Assessment, system: str) -> Said:
    """Balance, volts and cures."""
    found = assessment.electrics
    if found is None or found.alternator is None:
        return (("doubt", "The alternator’s rating is not known."),)
    facts = charging_of(build, found, draws_of(assessment))
    assert facts is not None
    alternator, cable = facts.alternator, facts.cable
    said: list[tuple[str, str]] = []
    if facts.hardest:
        draw, balance = facts.hardest, facts.hardest.system.balance
        said.append(
            (
                "problem" if draw.empties else "strong",
                f"{' '.join(clauses(balance_told(facts), system))} {balance.voltage:.1f} V at the battery.",
            )
        )
        worst = min(draw.system.volts.values(), default=math.nan)
        if math.isfinite(worst):
            said.append(
                (
                    "",
                    f"The worst motor gets {worst:.1f} V: {balance.voltage - worst:.1f} V of the difference "
                    "is wire, not battery.",
                )
            )
    said.append(
        (
            "problem" if facts.over_speed else "faint",
            f"At the redline it turns {facts.top:.0f} rpm of {facts.limit:.0f}; cruising output "
            f"{facts.cruising:.0f} A at {CRUISING:.0f} rpm of the engine.",
        )
    )
    said.append(
        (
            "faint" if cable.fits else "doubt",
            f"Charge cable carries {cable.ampacity:.0f} A where it lies and loses {cable.drop:.2f} V at "
            f"{alternator.rating:.0f} A; {cable_for(build.supply, alternator.rating) or 'no single size'} "
            "does both.",
        )
    )
    said.append(("faint", "Batteries give off gas: no spark near one, disconnect it before wiring."))
    return tuple(said)


def control_said(build: Build, assessment: Assessment, system: str) -> Said:
    """Run-on and adapter in figures."""
    said: list[tuple[str, str]] = []
    adapter = adapter_of(build, build.package)
    length = KINDS["length"]
    if adapter is not None:
        bore = f" of {format_si(adapter.bore, length, system)} bore" if adapter.bore else ""
        strap = "strap it to ground" if adapter.strap else "no ground strap"
        said.append(
            ("problem", f"{clause(adapter.fault, system)}.")
            if adapter.fault
            else (
                "",
                f"Adapter{bore}, {adapter.thread}: cut {format_si(adapter.cut, length, system)} out of the "
                f"hose, {strap}.",
            )
        )
    running = run_on_words(build, assessment)
    return (*said, ("", running)) if running else tuple(said)


def run_on_words(build: Build, assessment: Assessment) -> str:
    """What a run-on costs the battery."""
    seconds = build.package.control.run_on.si
    amps = fan_current_alone(build, assessment.electrics)
    if not seconds or not amps:
        return ""
    share = share_taken(build, assessment.electrics, seconds)
    return f"Running on for {seconds / 60:.0f} min at {amps:.0f} A takes {share:.1%} of the battery each stop."
