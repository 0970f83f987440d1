"""Circuits planned by the tool: one for every motor that has none, and the mending of one that is there."""

from __future__ import annotations

from typing import Literal

from keelroom.assess.electrical.figures import RUNS, CircuitFigures, advice
from keelroom.assess.inputs.electrical.loads import Motored
from keelroom.assess.inputs.electrical.system import Planned, fault_of, path_of, wanted_switch
from keelroom.document.edits import Change
from keelroom.document.quantity import quantity
from keelroom.document.schema.electrical import Circuit, Control, Supply, Switch
from keelroom.document.schema.package import Package


def _at(package: Package, circuit_id: str) -> tuple[str, ...]:
    return ("packages", package.id, "circuits", circuit_id)


def as_advised(
    circuit: Circuit,
    motors: tuple[Motored, ...],
    supply: Supply,
    staged: bool = False,
    wanted: Switch | Literal[""] = "",
) -> Circuit:
    """The circuit with the advised wire, fuse and relay; what no standard part can do stays as it is.

    staged : started one by one;  wanted : how its motors want to be switched
    """
    found = advice(
        Planned(circuit, motors, path_of(circuit, len(motors)), fault_of(circuit, supply), staged, wanted), supply
    )
    update: dict[str, object] = {"switch": found.switch, "fuse_form": found.form}
    if found.fuse:
        update["fuse"] = quantity(f"{found.fuse:g} A", "current", "derived")
    if found.relay:
        update["relay"] = quantity(f"{found.relay:g} A", "current", "derived")
    for run, size in zip(RUNS, found.sizes, strict=False):
        update[run] = getattr(circuit, run).model_copy(update={"size": quantity(size, "wire size", "derived")})
    if circuit.connector and found.connector and circuit.connector.si != found.connector:
        update["connector"] = quantity(f"{found.connector:g} A", "current", "derived")
    return circuit.model_copy(update=update)


def planned_for(motors: tuple[Motored, ...], ident: str, supply: Supply, control: Control) -> Circuit:
    """A circuit for these motors, as the tool would wire it under this control."""
    name = motors[0].name if len(motors) == 1 else "Both stages on one box"
    circuit = Circuit(id=ident, name=name, feeds=tuple(motored.id for motored in motors))
    return as_advised(circuit, motors, supply, wanted=wanted_switch(motors, control))


def together(loose: tuple[Motored, ...], supply: Supply, control: Control) -> tuple[tuple[Motored, ...], ...]:
    """Which motors share a circuit: those merged on both contacts of one relay box where one is made for them, else
    each has its own."""
    fans = tuple(motored for motored in loose if motored.fan)
    alone = tuple((motored,) for motored in loose if not motored.fan)
    if len(fans) > 1 and wanted_switch(fans, control) == "parallel":
        tried = planned_for(fans, "tried", supply, control)
        found = advice(
            Planned(tried, fans, path_of(tried, len(fans)), fault_of(tried, supply), False, "parallel"), supply
        )
        if found.fuse and found.relay and found.sizes:
            return (fans, *alone)
    return (*((motored,) for motored in fans), *alone)


def mended(package: Package, figures: CircuitFigures, supply: Supply) -> tuple[Change, ...]:
    """The changes that give a circuit the advised wire, fuse and relay; a drop measured on the old wire goes with
    it."""
    new = as_advised(
        figures.circuit.model_copy(update={"measured_drop": None}),
        figures.motors,
        supply,
        figures.staged,
        figures.planned.wanted,
    )
    return tuple(
        Change((*_at(package, new.id), name), getattr(new, name))
        for name in ("fuse", "fuse_form", "relay", "switch", "connector", "measured_drop", *RUNS)
        if getattr(new, name) != getattr(figures.circuit, name)
    )
